//! Words that combine shapes.

use chordane::prelude::*;

use super::pen::path;
use super::{Kind, Section, Word};

pub(super) const SECTION: Section = Section {
    title: "Combining shapes",
    about: "What shapes cover together, share, or leave of one another. Curves stay curves; the result has no crossings.",
    words: WORDS,
};

const WORDS: &[Word] = &[
    Word {
        name: "union",
        on: &[Kind::Path],
        takes: &[("other", Kind::Path)],
        gives: Kind::Path,
        about: "What this path or the other encloses.",
        example: r##"circle(pt(0, 0), 40).union(rectangle(pt(0, -20), 80, 40))"##,
        run: |a| path(a.path(0).union(a.path(1))),
    },
    Word {
        name: "intersection",
        on: &[Kind::Path],
        takes: &[("other", Kind::Path)],
        gives: Kind::Path,
        about: "What both paths enclose.",
        example: r##"circle(pt(0, 0), 40).intersection(circle(pt(40, 0), 40))"##,
        run: |a| path(a.path(0).intersection(a.path(1))),
    },
    Word {
        name: "difference",
        on: &[Kind::Path],
        takes: &[("other", Kind::Path)],
        gives: Kind::Path,
        about: "What this path encloses and the other does not.",
        example: r##"circle(pt(0, 0), 40).difference(star(pt(0, 0), 5, 30, 14))"##,
        run: |a| path(a.path(0).difference(a.path(1))),
    },
    Word {
        name: "xor",
        on: &[Kind::Path],
        takes: &[("other", Kind::Path)],
        gives: Kind::Path,
        about: "What exactly one of the two encloses.",
        example: r##"circle(pt(0, 0), 40).xor(circle(pt(40, 0), 40))"##,
        run: |a| path(a.path(0).xor(a.path(1))),
    },
    Word {
        name: "union_all",
        on: &[],
        takes: &[("paths", Kind::Nodes)],
        gives: Kind::Path,
        about: "What any of many paths encloses, in one go.",
        example: r##"union_all([circle(pt(0, 0), 30), circle(pt(40, 0), 30), rectangle(pt(0, 0), 40, 60)])"##,
        run: |a| {
            let mut all = Vec::new();
            for node in a.nodes(0) {
                match node {
                    Node::Item(item) => all.push(item.path().transformed(item.transform())),
                    Node::Group(_) => {
                        return Err(super::Refusal::new("a group has no one outline; give a list of paths"));
                    }
                }
            }
            path(union_all(all))
        },
    },
    Word {
        name: "simplified",
        on: &[Kind::Path],
        takes: &[],
        gives: Kind::Path,
        about: "The same painted area without crossings or overlaps.",
        example: r##"closed([[0, 0], [60, 60], [60, 0], [0, 60]]).simplified()"##,
        run: |a| path(a.path(0).simplified()),
    },
    Word {
        name: "clip_line",
        on: &[Kind::Path],
        takes: &[("area", Kind::Path)],
        gives: Kind::Path,
        about: "The parts of the line that lie in an area.",
        example: r##"open([[-60, 0], [60, 0]]).waved(8, 20).clip_line(circle(pt(0, 0), 40))"##,
        run: |a| path(a.path(0).clip_line(a.path(1))),
    },
    Word {
        name: "clip_line_outside",
        on: &[Kind::Path],
        takes: &[("area", Kind::Path)],
        gives: Kind::Path,
        about: "The parts of the line that lie outside an area.",
        example: r##"open([[-60, 0], [60, 0]]).waved(8, 20).clip_line_outside(circle(pt(0, 0), 40))"##,
        run: |a| path(a.path(0).clip_line_outside(a.path(1))),
    },
    Word {
        name: "morphed",
        on: &[Kind::Path],
        takes: &[("to", Kind::Path), ("share", Kind::Number)],
        gives: Kind::Path,
        about: "The path a share of the way to another one: corners go to corners, holes grow from a point.",
        example: r##"polygon(pt(0, 0), 4, 50).morphed(star(pt(0, 0), 5, 60, 25), 0.5)"##,
        run: |a| path(a.path(0).morphed(&a.path(1), a.number(2))),
    },
];
