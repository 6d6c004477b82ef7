//! Words that measure a path.

use chordane::measure::{Crossing, Station};
use chordane::number::Cell;
use chordane::prelude::*;

use super::entry::{Section, Word, word};
use crate::refusal::Refusal;

pub(super) fn section() -> Section {
    Section { title: "Measures", about: "", words: words() }
}

fn words() -> Vec<Word> {
    vec![
        word(
            ".inside(spot)",
            "Whether the path encloses a spot: true or false.",
            "circle(pt(0, 0), 40).inside([10, 10])",
            |path: Path, spot: Point| path.inside(spot),
        ),
        word(
            ".vertices()",
            "The vertices of all contours in order, as the bones number them.",
            "closed(circle(pt(0, 0), 40).vertices())",
            |path: Path| path.contours().iter().flat_map(Contour::vertices).collect::<Vec<_>>(),
        ),
        word(
            ".crosses_itself()",
            "Whether the path crosses itself or runs along itself; touching is not crossing.",
            r##"star_polygon(pt(0, 0), 5, 2, 40).crosses_itself()"##,
            |path: Path| path.crosses_itself(),
        ),
        word(
            ".vertex_gap()",
            "The least distance between two vertices; 0 where there are fewer than two.",
            r##"rectangle(pt(0, 0), 30, 8).vertex_gap()"##,
            |path: Path| path.vertex_gap().unwrap_or(0.0),
        ),
        word(
            ".signed_area()",
            "The area inside, holes that run the other way taken off; positive when clockwise as seen.",
            "circle(pt(0, 0), 10).signed_area()",
            |path: Path| path.signed_area(),
        ),
        word(
            ".area()",
            "The area that is painted under the fill rule, each spot once.",
            "circle(pt(0, 0), 10).and(circle(pt(5, 0), 10)).area()",
            |path: Path| path.area(),
        ),
        word(
            ".centroid()",
            "The middle of what is painted: where a sheet cut to this shape would balance.",
            "pie(pt(0, 0), 40, deg(0), deg(90)).centroid()",
            |path: Path| {
                path.centroid()?.ok_or_else(|| Refusal::new("the path paints nothing: it has no middle"))
            },
        ),
        word(
            ".length()",
            "The length that a pen would draw, closing sides included.",
            "circle(pt(0, 0), 10).length()",
            |path: Path| path.length(),
        ),
        word(
            ".section(begin, end)",
            "The part of the path from one distance along it to another.",
            "circle(pt(0, 0), 10).section(0, 20)",
            |path: Path, begin: f64, end: f64| path.survey().map(|survey| survey.section(begin, end)),
        ),
        word(
            ".point_along(distance)",
            "The point at a distance along the path.",
            "circle(pt(0, 0), 10).point_along(5)",
            |path: Path, distance: f64| along(&path, distance, |station| station.point()),
        ),
        word(
            ".heading_along(distance)",
            "The direction of travel at a distance along the path.",
            "circle(pt(0, 0), 10).heading_along(5)",
            |path: Path, distance: f64| along(&path, distance, |station| station.heading()),
        ),
        word(
            ".nearest_along(spot)",
            "The distance along the path to the place nearest to a spot.",
            "let hoop = circle(pt(0, 0), 10);\nhoop.point_along(hoop.nearest_along([30, 20]))",
            |path: Path, spot: Point| {
                let distance = path.survey()?.nearest(spot).map(|station| station.distance());
                distance.ok_or_else(|| Refusal::new("the path is empty: nothing on it is near"))
            },
        ),
        word(
            ".on_stroke(spot, width)",
            "Whether a round pen of a width that draws the path touches a spot: true or false.",
            "circle(pt(0, 0), 40).on_stroke([41, 0], 4)",
            |path: Path, spot: Point, width: f64| path.on_stroke(spot, width),
        ),
        word(
            ".crossings()",
            "The points at which the path crosses or touches itself; where a shared stretch begins.",
            "closed([[0, 0], [40, 40], [40, 0], [0, 40]]).crossings()",
            |path: Path| path.crossings().map(places),
        ),
        word(
            ".crossings_with(other)",
            "The points at which the path crosses or touches another.",
            "circle(pt(0, 0), 40).crossings_with(open([[-50, 0], [50, 10]]))",
            |path: Path, other: Path| path.crossings_with(&other).map(places),
        ),
        word(
            ".centre()",
            "The middle of the box round the path.",
            "star(pt(10, 20), 5, 50, 20).centre()",
            |path: Path| bounds(&path).map(|bounds| bounds.centre()),
        ),
        word(
            ".size()",
            "Width and height of the box round the path.",
            "star(pt(10, 20), 5, 50, 20).size().x",
            |path: Path| bounds(&path).map(|bounds| bounds.size()),
        ),
    ]
}

fn places(crossings: Vec<Crossing>) -> Vec<Point> {
    crossings.into_iter().map(|crossing| crossing.at).collect()
}

fn bounds(path: &Path) -> Result<Cell, Refusal> {
    path.bounds().ok_or_else(|| Refusal::new("the path is empty: there is nothing to measure"))
}

/// What stands at a distance along a path.
fn along<T>(path: &Path, distance: f64, what: impl FnOnce(Station<'_>) -> T) -> Result<T, Refusal> {
    let survey = path.survey()?;
    let station = survey.station(distance).map(what);
    station.ok_or_else(|| Refusal::new("the path is empty: there is nothing along it"))
}
