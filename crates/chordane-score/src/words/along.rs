//! Words for what runs along a path.

use chordane::path::Path;

use super::entry::{Section, Word, word};

pub(super) fn section() -> Section {
    Section {
        title: "Along a path",
        about: "Each stretch between corners carries a whole number of waves, so waves meet at the corners and close where the path does.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            ".waved(height, length)",
            "A smooth wave along the path, with `height` as its amplitude to each side and about `length` per wave; the number of waves between corners is whole.",
            r##"circle(pt(0, 0), 40).waved(4, 15)"##,
            |path: Path, height: f64, length: f64| path.waved(height, length),
        ),
        word(
            ".rippled(height, length)",
            "A wave that grows from zero to its full amplitude in the middle of each stretch between corners and fades again.",
            r##"start([0, 0]).line([90, 0]).open().rippled(8, 10)"##,
            |path: Path, height: f64, length: f64| path.rippled(height, length),
        ),
        word(
            ".zigzagged(height, length)",
            "A zigzag along the path, with `height` as its amplitude to each side and about `length` per zigzag.",
            r##"circle(pt(0, 0), 40).zigzagged(4, 12)"##,
            |path: Path, height: f64, length: f64| path.zigzagged(height, length),
        ),
        word(
            ".scalloped(height, length)",
            "Round bumps along the path, outward for shapes that run clockwise; inward for a negative height.",
            r##"polygon(pt(0, 0), 4, 50).scalloped(4, 12)"##,
            |path: Path, height: f64, length: f64| path.scalloped(height, length),
        ),
        word(
            ".toothed(height, length)",
            "Evenly spaced teeth along the path, outward for shapes that run clockwise; inward for a negative height.",
            r##"circle(pt(0, 0), 40).toothed(4, 12)"##,
            |path: Path, height: f64, length: f64| path.toothed(height, length),
        ),
        word(
            ".coiled(radius, length)",
            "A coil along the path, like a spring seen from the side, with about one turn per `length`.",
            r##"start([0, 0]).line([90, 0]).open().coiled(9, 10)"##,
            |path: Path, radius: f64, length: f64| path.coiled(radius, length),
        ),
    ]
}
