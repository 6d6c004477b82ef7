//! Words for what runs along a path.

use super::pen::path;
use super::{Kind, Section, Word};

pub(super) const SECTION: Section = Section {
    title: "Along a path",
    about: "Each run from corner to corner carries a whole number of waves, so they meet at corners and close where the path does.",
    words: WORDS,
};

const WORDS: &[Word] = &[
    Word {
        name: "waved",
        on: &[Kind::Path],
        takes: &[("height", Kind::Number), ("length", Kind::Number)],
        gives: Kind::Path,
        about: "A smooth wave along the path, to either side by the height, each about so long: a whole number from corner to corner.",
        example: r##"circle(pt(0, 0), 40).waved(4, 15)"##,
        run: |a| path(a.path(0).waved(a.number(1), a.number(2))),
    },
    Word {
        name: "rippled",
        on: &[Kind::Path],
        takes: &[("height", Kind::Number), ("length", Kind::Number)],
        gives: Kind::Path,
        about: "A wave that swells from nothing to the height in the middle of each run between corners, and dies away.",
        example: r##"start([0, 0]).line([90, 0]).open().rippled(8, 10)"##,
        run: |a| path(a.path(0).rippled(a.number(1), a.number(2))),
    },
    Word {
        name: "zigzagged",
        on: &[Kind::Path],
        takes: &[("height", Kind::Number), ("length", Kind::Number)],
        gives: Kind::Path,
        about: "A zigzag along the path, to either side by the height, each about so long.",
        example: r##"circle(pt(0, 0), 40).zigzagged(4, 12)"##,
        run: |a| path(a.path(0).zigzagged(a.number(1), a.number(2))),
    },
    Word {
        name: "scalloped",
        on: &[Kind::Path],
        takes: &[("height", Kind::Number), ("length", Kind::Number)],
        gives: Kind::Path,
        about: "Round bumps along the path, outward for shapes that run clockwise; inward for a negative height.",
        example: r##"polygon(pt(0, 0), 4, 50).scalloped(4, 12)"##,
        run: |a| path(a.path(0).scalloped(a.number(1), a.number(2))),
    },
    Word {
        name: "toothed",
        on: &[Kind::Path],
        takes: &[("height", Kind::Number), ("length", Kind::Number)],
        gives: Kind::Path,
        about: "Even teeth along the path, outward for shapes that run clockwise; inward for a negative height.",
        example: r##"circle(pt(0, 0), 40).toothed(4, 12)"##,
        run: |a| path(a.path(0).toothed(a.number(1), a.number(2))),
    },
    Word {
        name: "coiled",
        on: &[Kind::Path],
        takes: &[("radius", Kind::Number), ("length", Kind::Number)],
        gives: Kind::Path,
        about: "A coil along the path, as a spring seen from the side, one turn in about each length.",
        example: r##"start([0, 0]).line([90, 0]).open().coiled(9, 10)"##,
        run: |a| path(a.path(0).coiled(a.number(1), a.number(2))),
    },
];
