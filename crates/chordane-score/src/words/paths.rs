//! Words for paths: making them of points and text, and moving them.

use chordane::prelude::*;
use rhai::Dynamic;

use super::pen::path;
use super::sheets::group_value;
use super::styles::item;
use crate::values::Builder;

use super::{Args, Kind, Refusal, Section, Word};

pub(super) const SECTION: Section = Section {
    title: "Paths",
    about: "A path is a value: a call gives a new path and leaves the old one as it was.",
    words: WORDS,
};

const WORDS: &[Word] = &[
    Word {
        name: "closed",
        on: &[],
        takes: &[("points", Kind::Points)],
        gives: Kind::Path,
        about: "A closed contour of straight sides through all of the points. Do not list the first one twice.",
        example: "closed(around(5).map(|a| polar(a, 40)))",
        run: |a| path(Path::closed(a.points(0))),
    },
    Word {
        name: "open",
        on: &[],
        takes: &[("points", Kind::Points)],
        gives: Kind::Path,
        about: "An open contour of straight sides through all of the points.",
        example: "open([[0, 0], [20, 10], [40, 0]])",
        run: |a| path(Path::open(a.points(0))),
    },
    Word {
        name: "from_data",
        on: &[],
        takes: &[("data", Kind::Text)],
        gives: Kind::Path,
        about: "The path that SVG path data describes.",
        example: r##"from_data("M0-30 40 0 0 60-40 0z")"##,
        run: |a| {
            Path::from_data(&a.text(0)).map(Dynamic::from).map_err(|error| Refusal::new(error.to_string()))
        },
    },
    Word {
        name: "data",
        on: &[Kind::Path],
        takes: &[],
        gives: Kind::Text,
        about: "The path as SVG path data.",
        example: "circle(pt(0, 0), 9).data()",
        run: |a| Ok(a.path(0).data().into()),
    },
    Word {
        name: "and",
        on: &[Kind::Path],
        takes: &[("other", Kind::Path)],
        gives: Kind::Path,
        about: "This path's contours, then the other's.",
        example: "circle(pt(0, 0), 9).and(circle(pt(30, 0), 9))",
        run: |a| path(a.path(0).and(&a.path(1))),
    },
    Word {
        name: "with_hole",
        on: &[Kind::Path],
        takes: &[("hole", Kind::Path)],
        gives: Kind::Path,
        about: "The path with a hole, which is turned by itself to run against the contour that it lies in.",
        example: "polygon(pt(0, 0), 4, 60).with_hole(circle(pt(0, -15), 9))",
        run: |a| path(a.path(0).with_hole(a.path(1))),
    },
    Word {
        name: "reversed",
        on: &[Kind::Path],
        takes: &[],
        gives: Kind::Path,
        about: "Every contour travelled the other way.",
        example: "circle(pt(0, 0), 9).reversed()",
        run: |a| path(a.path(0).reversed()),
    },
    Word {
        name: "turn_holes",
        on: &[Kind::Path],
        takes: &[],
        gives: Kind::Path,
        about: "Outlines clockwise, the holes in them the other way, by which contour lies in which.",
        example: "circle(pt(0, 0), 20).and(circle(pt(0, 0), 9)).turn_holes()",
        run: |a| path(a.path(0).turn_holes()),
    },
    Word {
        name: "joined",
        on: &[Kind::Path],
        takes: &[("within", Kind::Number)],
        gives: Kind::Path,
        about: "Open contours joined where their ends meet within a distance.",
        example: "open([[0, 0], [9, 0]]).and(open([[9, 0], [9, 9]])).joined(0)",
        run: |a| path(a.path(0).joined(a.number(1))),
    },
    Word {
        name: "moved",
        on: &[Kind::Path, Kind::Item, Kind::Group],
        takes: &[("step", Kind::Point)],
        gives: Kind::Node,
        about: "Moved by a step. Gives what it is called on: a path, an item or a group.",
        example: "circle(pt(0, 0), 9).moved([30, 0])",
        run: |a| {
            let p = a.point(1);
            moved(a, |path| path.moved(p), |item| item.moved(p), |group| group.moved(p))
        },
    },
    Word {
        name: "rotated",
        on: &[Kind::Path, Kind::Item, Kind::Group],
        takes: &[("angle", Kind::Angle)],
        gives: Kind::Node,
        about: "Turned about the origin; positive is clockwise as seen.",
        example: "polygon(pt(0, 0), 5, 40).rotated(deg(36))",
        run: |a| {
            let angle = a.angle(1);
            moved(a, |path| path.rotated(angle), |item| item.rotated(angle), |group| group.rotated(angle))
        },
    },
    Word {
        name: "rotated_about",
        on: &[Kind::Path, Kind::Item, Kind::Group],
        takes: &[("centre", Kind::Point), ("angle", Kind::Angle)],
        gives: Kind::Node,
        about: "Turned about a point; positive is clockwise as seen.",
        example: "polygon(pt(50, 0), 5, 40).rotated_about(pt(50, 0), deg(36))",
        run: |a| {
            let (p, angle) = (a.point(1), a.angle(2));
            moved(
                a,
                |path| path.rotated_about(p, angle),
                |item| item.rotated_about(p, angle),
                |group| group.rotated_about(p, angle),
            )
        },
    },
    Word {
        name: "scaled",
        on: &[Kind::Path, Kind::Item, Kind::Group],
        takes: &[("factor", Kind::Number)],
        gives: Kind::Node,
        about: "Scaled evenly from the origin. An item or group is scaled with its strokes; scale the path first to keep the width.",
        example: "circle(pt(0, 0), 9).scaled(2)",
        run: |a| {
            let k = a.number(1);
            moved(a, |path| path.scaled(k), |item| item.scaled(k), |group| group.scaled(k))
        },
    },
    Word {
        name: "scaled_by",
        on: &[Kind::Path, Kind::Item, Kind::Group],
        takes: &[("factors", Kind::Point)],
        gives: Kind::Node,
        about: "Scaled from the origin by a factor along x and one along y; a negative one mirrors.",
        example: "star(pt(0, 0), 5, 40, 18).scaled_by([1, -1])",
        run: |a| {
            let p = a.point(1);
            moved(a, |path| path.scaled_by(p), |item| item.scaled_by(p), |group| group.scaled_by(p))
        },
    },
    Word {
        name: "sheared",
        on: &[Kind::Path, Kind::Item, Kind::Group],
        takes: &[("x", Kind::Angle), ("y", Kind::Angle)],
        gives: Kind::Node,
        about: "Sheared: x leans upright lines over, y leans level ones.",
        example: "rectangle(pt(0, 0), 40, 20).sheared(deg(15), deg(0))",
        run: |a| {
            let (x, y) = (a.angle(1), a.angle(2));
            moved(a, |path| path.sheared(x, y), |item| item.sheared(x, y), |group| group.sheared(x, y))
        },
    },
];

/// Carries out a word that means the same on a path, an item and a group.
fn moved(
    a: &mut Args<'_, '_>,
    on_path: impl FnOnce(Path) -> Path,
    on_item: impl FnOnce(Item) -> Item,
    on_group: impl FnOnce(Group) -> Group,
) -> Result<Dynamic, Refusal> {
    if a.is::<Path>(0) {
        path(on_path(a.path(0)))
    } else if a.is::<Builder<Group>>(0) {
        group_value(on_group(a.group(0)))
    } else {
        item(on_item(a.item()))
    }
}
