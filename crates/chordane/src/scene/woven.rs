//! Rings of overlapping things, each over the one before it all the way round.

use super::list::Scene;
use crate::number::{Angle, Cell, Point, deg, polar};
use crate::path::{Affine, Path};
use crate::shape::rectangle;
use crate::sheet::{Group, Layered, Node, group};

/// How many straight sides stand for the far rim of a wedge, per half turn.
const WEDGE_SIDES: usize = 16;

/// A ring of overlapping things, in order round it: each lies over the one before it, and the first over the last, so
/// that no seam shows, strokes included.
///
/// All are drawn in order, and then those near the first once more in an order that has the first after the last, clipped
/// to a wedge round the place where these two meet. Where the wedge ends, both orders paint the same. So it holds for
/// things that each overlap at most the next quarter of the ring (with an even number; a little less with an odd one).
/// Where something lets what is below show through, the first drawing is clipped to the rest of the plane, so that nothing is
/// painted twice. Fewer than 2 lie as they are.
///
/// ```
/// use chordane::prelude::*;
/// let hoop = |angle: Angle| ring(polar(angle, 60.0), 40.0, 30.0).fill("teal").stroke("white", 2.0);
/// let wreath = woven(around(9).map(hoop));
/// assert_eq!(wreath.nodes().len(), 2);
/// ```
#[must_use]
pub fn woven<N: Into<Node>>(items: impl IntoIterator<Item = N>) -> Group {
    let nodes: Vec<Node> = items.into_iter().map(Into::into).collect();
    let scenes: Vec<Scene<'_>> =
        nodes.iter().map(|node| Scene::of(std::slice::from_ref(node), &Affine::IDENTITY)).collect();
    let bounds: Vec<Cell> = scenes.iter().filter_map(Scene::line_bounds).collect();
    let n = nodes.len();
    let once = group().add_all(nodes.iter().cloned());
    let (Some(first), Some(last), true) = (bounds.first(), bounds.last(), n > 1 && bounds.len() == n) else {
        return once;
    };
    let centre = bounds.iter().map(Cell::centre).sum::<Point>() / n as f64;
    let all = bounds.iter().skip(1).fold(*first, |all, one| all.union(*one));
    let wedge = wedge(centre, first.centre(), last.centre(), n, &all);
    let clear = scenes.iter().flat_map(Scene::items).any(|placed| placed.item.style.lets_through());
    let once = if clear {
        let reach = 4.0 * all.size().length().max(1e-300);
        let plane = rectangle(centre - Point::splat(reach), 2.0 * reach, 2.0 * reach);
        once.clipped(plane.difference(&wedge))
    } else {
        once
    };
    // From the far side of the ring on: there the two orders disagree, but the wedge does not reach it.
    let mut turned = nodes;
    turned.rotate_left(n.div_ceil(2));
    group().add(once).add(group().add_all(turned).clipped(wedge))
}

/// The part of the plane, as far as anything reaches, round the place where the first and the last meet: half as wide as
/// the way to the place on the far side where the other order begins.
fn wedge(centre: Point, first: Point, last: Point, n: usize, all: &Cell) -> Path {
    let (a, b) = (first - centre, last - centre);
    let to_last = (Angle::of(b) - Angle::of(a)).wrapped_signed();
    let middle = Angle::of(a) + to_last * 0.5;
    let far_side = if n.is_multiple_of(2) { deg(180.0) } else { deg(180.0) - deg(180.0) / n as f64 };
    let half = far_side * 0.5;
    let reach = 2.0 * all.size().length().max(1e-300);
    let rim = (0..=WEDGE_SIDES).map(|i| {
        let turn = half * (2.0 * i as f64 / WEDGE_SIDES as f64 - 1.0);
        centre + polar(middle + turn, reach)
    });
    Path::closed(std::iter::once(centre).chain(rim))
}
