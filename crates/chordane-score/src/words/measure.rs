//! Words that measure a path.

use chordane::prelude::*;
use rhai::Dynamic;

use super::pen::path;
use super::{Args, Kind, Refusal, Section, Word};

pub(super) const SECTION: Section = Section { title: "Measures", about: "", words: WORDS };

const WORDS: &[Word] = &[
    Word {
        name: "inside",
        on: &[Kind::Path],
        takes: &[("spot", Kind::Point)],
        gives: Kind::Number,
        about: "Whether the path encloses a spot: true or false.",
        example: "circle(pt(0, 0), 40).inside([10, 10])",
        run: |a| Ok(a.path(0).inside(a.point(1)).into()),
    },
    Word {
        name: "vertices",
        on: &[Kind::Path],
        takes: &[],
        gives: Kind::Points,
        about: "The vertices of all contours in order, as the bones number them.",
        example: "closed(circle(pt(0, 0), 40).vertices())",
        run: |a| {
            let path = a.path(0);
            let all = path.contours().iter().flat_map(|contour| contour.vertices());
            Ok(all.map(Dynamic::from).collect::<rhai::Array>().into())
        },
    },
    Word {
        name: "crosses_itself",
        on: &[Kind::Path],
        takes: &[],
        gives: Kind::Flag,
        about: "Whether the path crosses itself or runs along itself; touching is not crossing.",
        example: r##"star_polygon(pt(0, 0), 5, 2, 40).crosses_itself()"##,
        run: |a| Ok(a.path(0).crosses_itself()?.into()),
    },
    Word {
        name: "vertex_gap",
        on: &[Kind::Path],
        takes: &[],
        gives: Kind::Number,
        about: "The least distance between two vertices; 0 where there are fewer than two.",
        example: r##"rectangle(pt(0, 0), 30, 8).vertex_gap()"##,
        run: |a| Ok(a.path(0).vertex_gap().unwrap_or(0.0).into()),
    },
    Word {
        name: "signed_area",
        on: &[Kind::Path],
        takes: &[],
        gives: Kind::Number,
        about: "The area inside, holes that run the other way taken off; positive when clockwise as seen.",
        example: "circle(pt(0, 0), 10).signed_area()",
        run: |a| Ok(a.path(0).signed_area().into()),
    },
    Word {
        name: "area",
        on: &[Kind::Path],
        takes: &[],
        gives: Kind::Number,
        about: "The area that is painted under the fill rule, each spot once.",
        example: "circle(pt(0, 0), 10).and(circle(pt(5, 0), 10)).area()",
        run: |a| Ok(a.path(0).area()?.into()),
    },
    Word {
        name: "centroid",
        on: &[Kind::Path],
        takes: &[],
        gives: Kind::Point,
        about: "The middle of what is painted: where a sheet cut to this shape would balance.",
        example: "pie(pt(0, 0), 40, deg(0), deg(90)).centroid()",
        run: |a| {
            let middle = a.path(0).centroid()?;
            middle.map(Dynamic::from).ok_or_else(|| Refusal::new("the path paints nothing: it has no middle"))
        },
    },
    Word {
        name: "length",
        on: &[Kind::Path],
        takes: &[],
        gives: Kind::Number,
        about: "The length that a pen would draw, closing sides included.",
        example: "circle(pt(0, 0), 10).length()",
        run: |a| Ok(a.path(0).length()?.into()),
    },
    Word {
        name: "section",
        on: &[Kind::Path],
        takes: &[("begin", Kind::Number), ("end", Kind::Number)],
        gives: Kind::Path,
        about: "The part of the path from one distance along it to another.",
        example: "circle(pt(0, 0), 10).section(0, 20)",
        run: |a| path(a.path(0).survey()?.section(a.number(1), a.number(2))),
    },
    Word {
        name: "point_along",
        on: &[Kind::Path],
        takes: &[("distance", Kind::Number)],
        gives: Kind::Point,
        about: "The point at a distance along the path.",
        example: "circle(pt(0, 0), 10).point_along(5)",
        run: |a| along(a, |station| Dynamic::from(station.point())),
    },
    Word {
        name: "heading_along",
        on: &[Kind::Path],
        takes: &[("distance", Kind::Number)],
        gives: Kind::Angle,
        about: "The direction of travel at a distance along the path.",
        example: "circle(pt(0, 0), 10).heading_along(5)",
        run: |a| along(a, |station| Dynamic::from(station.heading())),
    },
    Word {
        name: "nearest_along",
        on: &[Kind::Path],
        takes: &[("spot", Kind::Point)],
        gives: Kind::Number,
        about: "The distance along the path to the place nearest to a spot.",
        example: "let hoop = circle(pt(0, 0), 10);\nhoop.point_along(hoop.nearest_along([30, 20]))",
        run: |a| {
            let survey = a.path(0).survey()?;
            let distance = survey.nearest(a.point(1)).map(|station| station.distance().into());
            distance.ok_or_else(|| Refusal::new("the path is empty: nothing on it is near"))
        },
    },
    Word {
        name: "on_stroke",
        on: &[Kind::Path],
        takes: &[("spot", Kind::Point), ("width", Kind::Number)],
        gives: Kind::Number,
        about: "Whether a round pen of a width that draws the path touches a spot: true or false.",
        example: "circle(pt(0, 0), 40).on_stroke([41, 0], 4)",
        run: |a| Ok(a.path(0).on_stroke(a.point(1), a.number(2))?.into()),
    },
    Word {
        name: "crossings",
        on: &[Kind::Path],
        takes: &[],
        gives: Kind::Points,
        about: "The points at which the path crosses or touches itself; where a shared stretch begins.",
        example: "closed([[0, 0], [40, 40], [40, 0], [0, 40]]).crossings()",
        run: |a| Ok(points(a.path(0).crossings()?)),
    },
    Word {
        name: "crossings_with",
        on: &[Kind::Path],
        takes: &[("other", Kind::Path)],
        gives: Kind::Points,
        about: "The points at which the path crosses or touches another.",
        example: "circle(pt(0, 0), 40).crossings_with(open([[-50, 0], [50, 10]]))",
        run: |a| Ok(points(a.path(0).crossings_with(&a.path(1))?)),
    },
    Word {
        name: "centre",
        on: &[Kind::Path],
        takes: &[],
        gives: Kind::Point,
        about: "The middle of the box round the path.",
        example: "star(pt(10, 20), 5, 50, 20).centre()",
        run: |a| bounds(a).map(|b| Dynamic::from(b.centre())),
    },
    Word {
        name: "size",
        on: &[Kind::Path],
        takes: &[],
        gives: Kind::Point,
        about: "Width and height of the box round the path.",
        example: "star(pt(10, 20), 5, 50, 20).size().x",
        run: |a| bounds(a).map(|b| Dynamic::from(b.size())),
    },
];

fn points(crossings: Vec<Crossing>) -> Dynamic {
    crossings.into_iter().map(|crossing| Dynamic::from(crossing.at)).collect::<rhai::Array>().into()
}

fn bounds(a: &Args<'_, '_>) -> Result<Cell, Refusal> {
    a.path(0).bounds().ok_or_else(|| Refusal::new("the path is empty: there is nothing to measure"))
}

/// What stands at a distance along a path.
fn along(a: &Args<'_, '_>, what: impl FnOnce(Station<'_>) -> Dynamic) -> Result<Dynamic, Refusal> {
    let survey = a.path(0).survey()?;
    survey
        .station(a.number(1))
        .map(what)
        .ok_or_else(|| Refusal::new("the path is empty: there is nothing along it"))
}
