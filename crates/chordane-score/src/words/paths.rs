//! Words for paths: making them of points and text, and moving them.

use chordane::prelude::*;

use super::entry::{Section, Word, word};
use crate::call_error::CallError;
use crate::values::Thing;

/// Carries out a word that means the same on a path, an item and a group.
macro_rules! each {
    ($thing:ident, $one:ident => $done:expr) => {
        match $thing {
            Thing::Path($one) => Thing::Path($done),
            Thing::Item($one) => Thing::Item($done),
            Thing::Group($one) => Thing::Group($done),
        }
    };
}
pub(super) use each;

pub(super) fn section() -> Section {
    Section {
        title: "Paths",
        about: "A path is a value: a call gives a new path and leaves the old one as it was.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            "closed(points)",
            "A closed contour of straight sides through all of the points. Do not list the first one twice.",
            "closed(around(5).map(|a| polar(a, 40)))",
            |points: Vec<Point>| Path::closed(points),
        ),
        word(
            "open(points)",
            "An open contour of straight sides through all of the points.",
            "open([[0, 0], [20, 10], [40, 0]])",
            |points: Vec<Point>| Path::open(points),
        ),
        word(
            "from_data(data)",
            "The path that SVG path data describes.",
            r##"from_data("M0-30 40 0 0 60-40 0z")"##,
            |data: String| Path::from_data(&data).map_err(|error| CallError::new(error.to_string())),
        ),
        word(".data()", "The path as SVG path data.", "circle(pt(0, 0), 9).data()", |path: Path| path.data()),
        word(
            ".and(other)",
            "This path's contours, then the other's.",
            "circle(pt(0, 0), 9).and(circle(pt(30, 0), 9))",
            |path: Path, other: Path| path.and(&other),
        ),
        word(
            ".with_hole(hole)",
            "The path with a hole, which is turned by itself to run against the contour that it lies in.",
            "polygon(pt(0, 0), 4, 60).with_hole(circle(pt(0, -15), 9))",
            |path: Path, hole: Path| path.with_hole(hole),
        ),
        word(
            ".close()",
            "Closes every open contour: that of a trail that comes back to where it began, or of an open list.",
            "open([[0, 0], [40, 0], [20, 30]]).close()",
            |path: Path| path.close(),
        ),
        word(
            ".reversed()",
            "Every contour travelled the other way.",
            "circle(pt(0, 0), 9).reversed()",
            |path: Path| path.reversed(),
        ),
        word(
            ".turn_holes()",
            "Outlines clockwise, the holes in them the other way, by which contour lies in which.",
            "circle(pt(0, 0), 20).and(circle(pt(0, 0), 9)).turn_holes()",
            |path: Path| path.turn_holes(),
        ),
        word(
            ".joined(within)",
            "Open contours joined where their ends meet within a distance.",
            "open([[0, 0], [9, 0]]).and(open([[9, 0], [9, 9]])).joined(0)",
            |path: Path, within: f64| path.joined(within),
        ),
        word(
            ".moved(step)",
            "Moved by a step. Gives what it is called on: a path, an item or a group.",
            "circle(pt(0, 0), 9).moved([30, 0])",
            |thing: Thing, step: Point| each!(thing, one => one.moved(step)),
        ),
        word(
            ".rotated(angle)",
            "Turned about the origin; positive is clockwise as seen.",
            "polygon(pt(0, 0), 5, 40).rotated(deg(36))",
            |thing: Thing, angle: Angle| each!(thing, one => one.rotated(angle)),
        ),
        word(
            ".rotated_about(centre, angle)",
            "Turned about a point; positive is clockwise as seen.",
            "polygon(pt(50, 0), 5, 40).rotated_about(pt(50, 0), deg(36))",
            |thing: Thing, centre: Point, angle: Angle| each!(thing, one => one.rotated_about(centre, angle)),
        ),
        word(
            ".scaled(factor)",
            "Scaled evenly from the origin. An item or group is scaled with its strokes; scale the path first to keep the width.",
            "circle(pt(0, 0), 9).scaled(2)",
            |thing: Thing, factor: f64| each!(thing, one => one.scaled(factor)),
        ),
        word(
            ".snapped(side)",
            "Moved, by less than a side, so that the middle of its bounds lies in the middle of a square of a grid of such sides: on a coarse grid it looks the same wherever it is.",
            r##"circle(pt(12.3, 4.9), 3).snapped(10)"##,
            |thing: Thing, side: f64| each!(thing, one => one.snapped(side)),
        ),
        word(
            ".scaled_about(centre, factor)",
            "Scaled evenly from a point, which stays where it is.",
            r##"circle(pt(30, 0), 10).scaled_about(pt(30, 0), 1.5)"##,
            |thing: Thing, centre: Point, factor: f64| each!(thing, one => one.scaled_about(centre, factor)),
        ),
        word(
            ".scaled_by(factors)",
            "Scaled from the origin by a factor along x and one along y; a negative one mirrors.",
            "star(pt(0, 0), 5, 40, 18).scaled_by([1, -1])",
            |thing: Thing, factors: Point| each!(thing, one => one.scaled_by(factors)),
        ),
        word(
            ".sheared(x, y)",
            "Sheared: x leans upright lines over, y leans level ones.",
            "rectangle(pt(0, 0), 40, 20).sheared(deg(15), deg(0))",
            |thing: Thing, x: Angle, y: Angle| each!(thing, one => one.sheared(x, y)),
        ),
    ]
}
