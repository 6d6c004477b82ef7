//! Where things were a little before: earlier drawings dimmed, and the ways of their vertices.

use super::Overlay;
use crate::ground::Fault;
use crate::number::{Cell, Point};
use crate::path::{Affine, Path};
use crate::shape::circle;
use crate::sheet::{Group, Sheet, group};
use crate::sheet::{Layered, Styled};

/// More ways than this are not all drawn, but every second, fifth and so on.
const MAX_TRACKS: usize = 120;

pub(super) const TRACK_COLOUR: &str = "#0b7a5a";

/// Earlier drawings under one another, the older the fainter.
pub(super) fn ghosts(earlier: &[Sheet]) -> Group {
    let count = earlier.len() as f64;
    let faint = |(i, sheet): (usize, &Sheet)| {
        let nodes = group().add_all(sheet.nodes.iter().cloned()).transformed(&sheet.upright());
        nodes.opacity(0.12 + 0.3 * (i + 1) as f64 / count)
    };
    group().add_all(earlier.iter().enumerate().map(faint))
}

/// The way of each vertex through some drawings and the present one, in pixels: a line, and a dot where it was. Items are followed by their number,
/// as long as they have as many vertices.
pub(super) fn ways(
    all: &[&Sheet],
    to_pixels: &Affine,
    page: &Cell,
    overlay: &mut Overlay,
) -> Result<(), Fault> {
    let mut places: Vec<Vec<Vec<Point>>> = Vec::new();
    for sheet in all {
        let scene = sheet.seen_through(&(*to_pixels * sheet.upright()))?;
        let of = |path: Path| {
            path.contours().iter().flat_map(|contour| contour.vertices().collect::<Vec<_>>()).collect()
        };
        places.push(scene.items().iter().map(|placed| of(placed.path())).collect());
    }
    let Some(last) = places.last() else { return Ok(()) };
    let mut found: Vec<Vec<Point>> = Vec::new();
    for (item, vertices) in last.iter().enumerate() {
        for vertex in 0..vertices.len() {
            let way: Vec<Point> = places
                .iter()
                .rev()
                .map_while(|moment| {
                    let own = moment.get(item).filter(|own| own.len() == vertices.len())?;
                    own.get(vertex).copied()
                })
                .collect();
            let moves = way.windows(2).any(|pair| matches!(pair, [a, b] if (*a - *b).length() > 0.5));
            if moves && way.iter().any(|place| page.contains(*place)) {
                found.push(way);
            }
        }
    }
    let every = found.len().div_ceil(MAX_TRACKS).max(1);
    for way in found.iter().step_by(every) {
        overlay.add(Path::open(way.iter().copied()).stroke(TRACK_COLOUR, 1.2).opacity(0.8));
        let dots = way.iter().skip(1).map(|place| circle(*place, 1.8));
        overlay.add(dots.fold(Path::empty(), |all, dot| all.and(&dot)).fill(TRACK_COLOUR));
    }
    Ok(())
}
