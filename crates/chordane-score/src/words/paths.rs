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
        about: "Paths are values: each call returns a new path and leaves the original unchanged.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            "closed(points)",
            "A closed contour with straight sides through all points. Do not repeat the first point.",
            "closed(around(5).map(|a| polar(a, 40)))",
            |points: Vec<Point>| Path::closed(points),
        ),
        word(
            "open(points)",
            "An open contour with straight segments through all points.",
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
            "A path with the contours of this path followed by those of the other.",
            "circle(pt(0, 0), 9).and(circle(pt(30, 0), 9))",
            |path: Path, other: Path| path.and(&other),
        ),
        word(
            ".with_hole(hole)",
            "The path with a hole cut into it. The hole is reversed automatically if it does not run against the contour around it.",
            "polygon(pt(0, 0), 4, 60).with_hole(circle(pt(0, -15), 9))",
            |path: Path, hole: Path| path.with_hole(hole),
        ),
        word(
            ".close()",
            "Closes every open contour, for example a trail that returns to its start or an open list of points.",
            "open([[0, 0], [40, 0], [20, 30]]).close()",
            |path: Path| path.close(),
        ),
        word(
            ".reversed()",
            "The path with the direction of every contour reversed.",
            "circle(pt(0, 0), 9).reversed()",
            |path: Path| path.reversed(),
        ),
        word(
            ".turn_holes()",
            "Reorients contours by how they are nested: outer contours run clockwise, holes anticlockwise.",
            "circle(pt(0, 0), 20).and(circle(pt(0, 0), 9)).turn_holes()",
            |path: Path| path.turn_holes(),
        ),
        word(
            ".joined(within)",
            "Joins open contours whose ends lie within a distance of each other.",
            "open([[0, 0], [9, 0]]).and(open([[9, 0], [9, 9]])).joined(0)",
            |path: Path, within: f64| path.joined(within),
        ),
        word(
            ".moved(step)",
            "Translates a path, an item or a group by a vector; returns the same kind of value.",
            "circle(pt(0, 0), 9).moved([30, 0])",
            |thing: Thing, step: Point| each!(thing, one => one.moved(step)),
        ),
        word(
            ".rotated(angle)",
            "Rotates about the origin; positive angles turn clockwise on screen.",
            "polygon(pt(0, 0), 5, 40).rotated(deg(36))",
            |thing: Thing, angle: Angle| each!(thing, one => one.rotated(angle)),
        ),
        word(
            ".rotated_about(centre, angle)",
            "Rotates about a point; positive angles turn clockwise on screen.",
            "polygon(pt(50, 0), 5, 40).rotated_about(pt(50, 0), deg(36))",
            |thing: Thing, centre: Point, angle: Angle| each!(thing, one => one.rotated_about(centre, angle)),
        ),
        word(
            ".scaled(factor)",
            "Scales uniformly about the origin. Items and groups are scaled with their strokes; to keep the stroke width, scale the path before styling it.",
            "circle(pt(0, 0), 9).scaled(2)",
            |thing: Thing, factor: f64| each!(thing, one => one.scaled(factor)),
        ),
        word(
            ".snapped(side)",
            "Moves the shape by less than one grid spacing so that the centre of its bounds lands on the centre of a grid square. On a coarse pixel grid it then looks the same wherever it is.",
            r##"circle(pt(12.3, 4.9), 3).snapped(10)"##,
            |thing: Thing, side: f64| each!(thing, one => one.snapped(side)),
        ),
        word(
            ".scaled_about(centre, factor)",
            "Scales uniformly about a point, which stays fixed.",
            r##"circle(pt(30, 0), 10).scaled_about(pt(30, 0), 1.5)"##,
            |thing: Thing, centre: Point, factor: f64| each!(thing, one => one.scaled_about(centre, factor)),
        ),
        word(
            ".scaled_by(factors)",
            "Scales about the origin by separate factors along x and y; a negative factor mirrors.",
            "star(pt(0, 0), 5, 40, 18).scaled_by([1, -1])",
            |thing: Thing, factors: Point| each!(thing, one => one.scaled_by(factors)),
        ),
        word(
            ".sheared(x, y)",
            "Skews along the axes: `x` tilts vertical lines, `y` tilts horizontal ones.",
            "rectangle(pt(0, 0), 40, 20).sheared(deg(15), deg(0))",
            |thing: Thing, x: Angle, y: Angle| each!(thing, one => one.sheared(x, y)),
        ),
    ]
}
