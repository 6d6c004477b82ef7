//! The figures of a path: what it measures.

use super::{DocumentSpace, Drawn};
use crate::ground::{Fault, exhausted};
use crate::measure::Direction;
use crate::number::{Cell, Point};
use crate::path::{ContourBuilder, FillRule, Path};
use crate::sheet::{Layered, Paint};

/// What a path measures, where it stands on the sheet.
///
/// ```
/// use chordane::prelude::*;
/// let page = sheet(100.0, 100.0).add(rectangle((10.0, 10.0), 60.0, 40.0).fill("teal").named("sail"));
/// let figures = page.check()?.paths.remove(0);
/// assert_eq!((figures.name.as_deref(), figures.area, figures.length), (Some("sail"), 2400.0, 200.0));
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct PathFigures {
    /// The item's name, if it was given one.
    pub name: Option<String>,
    /// The line of the score or document that made it, where there is one.
    pub line: Option<usize>,
    /// What the inside is seen filled with, if it is.
    pub fill: Option<Paint>,
    /// What the line is seen stroked with, if it is.
    pub stroke: Option<Paint>,
    /// The stroke's width on the sheet, where it is widest; 0 without a stroke.
    pub stroke_width: f64,
    /// What the contours enclose.
    pub fill_rule: FillRule,
    /// What a pen would draw, closing sides included.
    pub length: f64,
    /// What is painted under the fill rule, each spot once.
    pub area: f64,
    /// Tight bounds of the line; `None` for a path without a contour.
    pub bounds: Option<Cell>,
    /// The bounds of fill and stroke together; `None` where nothing is painted.
    pub painted_bounds: Option<Cell>,
    /// The point half way along the whole length; the first vertex where there is no length.
    pub half_point: Point,
    /// The direction of travel there, of length 1; zero where there is no length.
    pub half_tangent: Point,
    /// The figures of each contour.
    pub contours: Vec<ContourFigures>,
}

/// What a contour measures.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::measure::Direction;
/// let page = sheet(100.0, 100.0).add(rectangle((10.0, 10.0), 60.0, 40.0).fill("teal"));
/// let contour = &page.check()?.paths[0].contours[0];
/// assert_eq!((contour.segments, contour.closed, contour.direction), (4, true, Direction::Clockwise));
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct ContourFigures {
    /// Whether it is joined to its start.
    pub closed: bool,
    /// The number of segments, a closing side that has a length counted.
    pub segments: usize,
    /// What a pen would draw.
    pub length: f64,
    /// The area that it goes round, positive when clockwise as seen on a sheet with y down.
    pub signed_area: f64,
    /// Which way round it runs.
    pub direction: Direction,
}

pub(super) fn of(drawn: &Drawn<'_>, area: f64, space: &DocumentSpace) -> Result<PathFigures, Fault> {
    let path = &drawn.path;
    let lengths: Vec<f64> =
        path.segments().take_while(|_| !exhausted(5)).map(|segment| segment.length()).collect();
    let mut rest = lengths.iter();
    let contours: Vec<ContourFigures> = path
        .contours()
        .iter()
        .map(|contour| {
            let segments = contour.segments().count();
            ContourFigures {
                closed: contour.is_closed(),
                segments,
                length: rest.by_ref().take(segments).sum(),
                signed_area: contour.signed_area(),
                direction: contour.direction(),
            }
        })
        .collect();
    let half = half_way(path, &lengths)?;
    let first = path.contours().first().map_or(Point::ZERO, |contour| contour.start());
    Ok(PathFigures {
        name: drawn.item.name().map(str::to_owned),
        line: drawn.item.line(),
        fill: drawn.placed.fill().cloned(),
        stroke: drawn.placed.stroke().cloned(),
        stroke_width: drawn.placed.stroke_width() * space.scale,
        painted_bounds: drawn.placed.painted_bounds().map(|bounds| space.bounds(bounds)),
        fill_rule: path.fill_rule(),
        length: contours.iter().map(|contour| contour.length).sum(),
        area,
        bounds: drawn.bounds,
        half_point: half.map_or(first, |(point, _)| point),
        half_tangent: half.map_or(Point::ZERO, |(_, tangent)| tangent),
        contours,
    })
}

/// The point and the tangent half way along. Only the segment that it is on needs to be surveyed.
fn half_way(path: &Path, lengths: &[f64]) -> Result<Option<(Point, Point)>, Fault> {
    let mut left = 0.5 * lengths.iter().sum::<f64>();
    for (segment, length) in path.segments().zip(lengths) {
        if left > *length || *length == 0.0 {
            left -= length;
            continue;
        }
        let mut alone = ContourBuilder::new(segment.from());
        alone.segment(&segment);
        let survey = Path::from_contours([alone.finish(false)]).survey()?;
        return Ok(survey.station(left).map(|station| (station.point(), station.tangent())));
    }
    Ok(None)
}
