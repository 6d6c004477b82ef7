//! The basic shapes as paths, beginning and running as the recommendation says.

use super::attributes::{Along, length, numbers};
use super::document::Document;
use super::error::shortened;
use super::tree::{Element, name as name_of};
use crate::number::{Angle, Point};
use crate::path::{ArcWay, Path, start};
use crate::shape::ellipse;

/// A shape, and what could not be understood of it.
pub(super) struct Drawn {
    pub(super) path: Path,
    pub(super) complaint: Option<String>,
}

/// The path of a shape; none for an element that is not a shape.
pub(super) fn drawn<'a>(document: &Document<'a>, element: Element<'a>, viewport: Point) -> Option<Drawn> {
    let mut complaint: Option<String> = None;
    let mut size = |name: &str, along: Along| -> Option<f64> {
        let text = document.property(element, name).filter(|text| text.trim() != "auto")?;
        let value = length(text, along, viewport);
        if value.is_none() {
            complaint = Some(format!("{name}=\"{}\"", shortened(text)));
        }
        value
    };
    let path = match name_of(element) {
        "path" => {
            let data = document.property(element, "d").unwrap_or_default();
            let quoted = data.strip_prefix("path(").and_then(|rest| rest.strip_suffix(')'));
            let data = quoted.map_or(data, |data| data.trim().trim_matches(['"', '\'']));
            match Path::from_data(if data == "none" { "" } else { data }) {
                Ok(path) => path,
                Err(error) => {
                    complaint = Some(format!("path data: {error}"));
                    error.so_far().clone()
                }
            }
        }
        "rect" => {
            let corner = Point::new(size("x", Along::X).unwrap_or(0.0), size("y", Along::Y).unwrap_or(0.0));
            let sides =
                Point::new(size("width", Along::X).unwrap_or(0.0), size("height", Along::Y).unwrap_or(0.0));
            let (rx, ry) = (size("rx", Along::X), size("ry", Along::Y));
            let given = Point::new(rx.or(ry).unwrap_or(0.0), ry.or(rx).unwrap_or(0.0));
            rectangle(corner, sides, given.max(Point::ZERO).min(sides * 0.5))
        }
        "circle" | "ellipse" => {
            let centre = Point::new(size("cx", Along::X).unwrap_or(0.0), size("cy", Along::Y).unwrap_or(0.0));
            let (rx, ry) = if name_of(element) == "circle" {
                let radius = size("r", Along::Both).unwrap_or(0.0);
                (radius, radius)
            } else {
                let (rx, ry) = (size("rx", Along::X), size("ry", Along::Y));
                (rx.or(ry).unwrap_or(0.0), ry.or(rx).unwrap_or(0.0))
            };
            if rx > 0.0 && ry > 0.0 { ellipse(centre, rx, ry) } else { Path::empty() }
        }
        "line" => {
            let mut end = |x: &str, y: &str| {
                Point::new(size(x, Along::X).unwrap_or(0.0), size(y, Along::Y).unwrap_or(0.0))
            };
            let from = end("x1", "y1");
            start(from).line(end("x2", "y2")).open()
        }
        "polyline" | "polygon" => {
            let text = element.attribute("points").unwrap_or_default();
            let read = numbers(text);
            if read.as_ref().is_none_or(|all| all.len() % 2 == 1) {
                complaint = Some("points that are not pairs of numbers".to_owned());
            }
            let pairs = read.unwrap_or_default();
            let points = pairs.chunks_exact(2).filter_map(|pair| match pair {
                [x, y] => Some(Point::new(*x, *y)),
                _ => None,
            });
            if name_of(element) == "polygon" { Path::closed(points) } else { Path::open(points) }
        }
        _ => return None,
    };
    Some(Drawn { path, complaint })
}

fn rectangle(corner: Point, sides: Point, radii: Point) -> Path {
    if sides.min_element() <= 0.0 {
        return Path::empty();
    }
    let at = |x: f64, y: f64| corner + Point::new(x, y);
    let (width, height) = (sides.x, sides.y);
    if radii.min_element() <= 0.0 {
        return Path::closed([at(0.0, 0.0), at(width, 0.0), at(width, height), at(0.0, height)]);
    }
    let (rx, ry) = (radii.x, radii.y);
    let round = |pen: crate::path::Pen, to| pen.arc_radii(to, radii, Angle::ZERO, ArcWay::ShortClockwise);
    let mut pen = start(at(rx, 0.0)).line(at(width - rx, 0.0));
    pen = round(pen, at(width, ry)).line(at(width, height - ry));
    pen = round(pen, at(width - rx, height)).line(at(rx, height));
    pen = round(pen, at(0.0, height - ry)).line(at(0.0, ry));
    round(pen, at(rx, 0.0)).close()
}
