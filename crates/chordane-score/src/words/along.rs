//! Words for what runs along a path.

use chordane::path::Path;

use super::entry::{Section, Word, word};

pub(super) fn section() -> Section {
    Section {
        title: "Along a path",
        about: "Each run from corner to corner carries a whole number of waves, so they meet at corners and close where the path does.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            ".waved(height, length)",
            "A smooth wave along the path, to either side by the height, each about so long: a whole number from corner to corner.",
            r##"circle(pt(0, 0), 40).waved(4, 15)"##,
            |path: Path, height: f64, length: f64| path.waved(height, length),
        ),
        word(
            ".rippled(height, length)",
            "A wave that swells from nothing to the height in the middle of each run between corners, and dies away.",
            r##"start([0, 0]).line([90, 0]).open().rippled(8, 10)"##,
            |path: Path, height: f64, length: f64| path.rippled(height, length),
        ),
        word(
            ".zigzagged(height, length)",
            "A zigzag along the path, to either side by the height, each about so long.",
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
            "Even teeth along the path, outward for shapes that run clockwise; inward for a negative height.",
            r##"circle(pt(0, 0), 40).toothed(4, 12)"##,
            |path: Path, height: f64, length: f64| path.toothed(height, length),
        ),
        word(
            ".coiled(radius, length)",
            "A coil along the path, as a spring seen from the side, one turn in about each length.",
            r##"start([0, 0]).line([90, 0]).open().coiled(9, 10)"##,
            |path: Path, radius: f64, length: f64| path.coiled(radius, length),
        ),
    ]
}
