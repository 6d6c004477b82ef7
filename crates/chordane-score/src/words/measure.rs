//! Words that measure a path.

use chordane::measure::{Crossing, Station};
use chordane::number::Cell;
use chordane::prelude::*;

use super::entry::{Section, Word, word};
use crate::call_error::CallError;
use crate::values::Thing;

pub(super) fn section() -> Section {
    Section { title: "Measures", about: "", words: words() }
}

fn words() -> Vec<Word> {
    vec![
        word(
            ".inside(spot)",
            "True if a path or an item encloses a point, or if anything in a group does.",
            "circle(pt(0, 0), 40).inside([10, 10])",
            |thing: Thing, spot: Point| placed(thing).iter().any(|path| path.inside(spot)),
        ),
        word(
            ".vertices()",
            "The vertices of all contours in order, numbered as `--bones` shows them.",
            "closed(circle(pt(0, 0), 40).vertices())",
            |path: Path| path.contours().iter().flat_map(numbered).collect::<Vec<_>>(),
        ),
        word(
            ".crosses_itself()",
            "True if the path crosses itself or overlaps itself along a stretch; touching does not count.",
            r##"star_polygon(pt(0, 0), 5, 2, 40).crosses_itself()"##,
            |path: Path| path.crosses_itself(),
        ),
        word(
            ".vertex_gap()",
            "The smallest distance between any two vertices; 0 if there are fewer than two.",
            r##"rectangle(pt(0, 0), 30, 8).vertex_gap()"##,
            |path: Path| path.vertex_gap().map(|gap| gap.unwrap_or(0.0)),
        ),
        word(
            ".signed_area()",
            "The enclosed area, minus holes that run the other way; positive when clockwise on screen.",
            "circle(pt(0, 0), 10).signed_area()",
            |path: Path| path.signed_area(),
        ),
        word(
            ".area()",
            "The area that a path, an item or a group encloses under its fill rule; overlaps count once.",
            "circle(pt(0, 0), 10).and(circle(pt(5, 0), 10)).area()",
            |thing: Thing| match &placed(thing)[..] {
                [only] => only.area(),
                several => union_all(several.iter().cloned()).area(),
            },
        ),
        word(
            ".centroid()",
            "The centroid of the filled area: the point at which a flat cut-out of it would balance.",
            "pie(pt(0, 0), 40, deg(0), deg(90)).centroid()",
            |path: Path| {
                path.centroid()?.ok_or_else(|| CallError::new("the path paints nothing: it has no middle"))
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
            "The part of the path from one distance along it to another; `part(0.5)` is half of its length.",
            "circle(pt(0, 0), 10).section(part(0.25), part(0.5) + 10)",
            |path: Path, begin: Extent, end: Extent| {
                path.survey().map(|survey| {
                    let whole = survey.length();
                    survey.section(begin.of(whole), end.of(whole))
                })
            },
        ),
        word(
            ".point_along(distance)",
            "The point at a distance along the path; `part(0.5)` is half of its length.",
            "circle(pt(0, 0), 10).point_along(part(0.5))",
            |path: Path, distance: Extent| along(&path, distance, |station| station.point()),
        ),
        word(
            ".heading_along(distance)",
            "The direction of travel at a distance along the path; `part(0.5)` is half of its length.",
            "circle(pt(0, 0), 10).heading_along(part(0.5) + 5)",
            |path: Path, distance: Extent| along(&path, distance, |station| station.heading()),
        ),
        word(
            ".nearest_along(spot)",
            "The distance along the path to its point nearest to a given point.",
            "let hoop = circle(pt(0, 0), 10);\nhoop.point_along(hoop.nearest_along([30, 20]))",
            |path: Path, spot: Point| {
                let distance = path.survey()?.nearest(spot).map(|station| station.distance());
                distance.ok_or_else(|| CallError::new("the path is empty: nothing on it is near"))
            },
        ),
        word(
            ".on_stroke(spot, width)",
            "True if a stroke of this width along the path, with round caps and joins, covers a point.",
            "circle(pt(0, 0), 40).on_stroke([41, 0], 4)",
            |path: Path, spot: Point, width: f64| path.on_stroke(spot, width),
        ),
        word(
            ".crossings()",
            "The points at which the path crosses or touches itself; for an overlap, the point where it begins.",
            "closed([[0, 0], [40, 40], [40, 0], [0, 40]]).crossings()",
            |path: Path| path.crossings().map(places),
        ),
        word(
            ".crossings_with(other)",
            "The points at which the path crosses or touches another path.",
            "circle(pt(0, 0), 40).crossings_with(open([[-50, 0], [50, 10]]))",
            |path: Path, other: Path| path.crossings_with(&other).map(places),
        ),
        word(
            ".centre()",
            "The centre of the bounding box of a path, an item or a group.",
            "star(pt(10, 20), 5, 50, 20).centre()",
            |thing: Thing| bounds(thing).map(|bounds| bounds.centre()),
        ),
        word(
            ".size()",
            "The width and height of the bounding box of a path, an item or a group.",
            "star(pt(10, 20), 5, 50, 20).size().x",
            |thing: Thing| bounds(thing).map(|bounds| bounds.size()),
        ),
        word(
            ".bounds()",
            "The bounding box of a path, an item or a group, as a cell; stroke width is not included.",
            "star(pt(10, 20), 5, 50, 20).bounds().inset(-5)",
            bounds,
        ),
    ]
}

/// The vertices of a contour as the bones number them: where a curve comes back to the first one, that is not another.
fn numbered(contour: &Contour) -> Vec<Point> {
    let mut vertices: Vec<Point> = contour.vertices().collect();
    if contour.is_closed() && vertices.len() > 1 && vertices.first() == vertices.last() {
        vertices.pop();
    }
    vertices
}

fn places(crossings: Vec<Crossing>) -> Vec<Point> {
    crossings.into_iter().map(|crossing| crossing.at).collect()
}

/// The paths of something, where they stand.
fn placed(thing: Thing) -> Vec<Path> {
    match thing {
        Thing::Path(path) => vec![path],
        Thing::Item(item) => vec![item.path().transformed(&item.placement().transform)],
        Thing::Group(group) => sheet(1.0, 1.0).add(group).items().map(|item| item.path()).collect(),
    }
}

fn bounds(thing: Thing) -> Result<Cell, CallError> {
    let all = placed(thing).iter().filter_map(Path::bounds).reduce(Cell::union);
    all.ok_or_else(|| CallError::new("there is nothing in it to measure"))
}

/// What stands at a distance along a path.
fn along<T>(path: &Path, distance: Extent, what: impl FnOnce(Station<'_>) -> T) -> Result<T, CallError> {
    let survey = path.survey()?;
    let station = survey.station(distance.of(survey.length())).map(what);
    station.ok_or_else(|| CallError::new("the path is empty: there is nothing along it"))
}
