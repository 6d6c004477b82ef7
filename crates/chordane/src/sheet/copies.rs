//! One thing many times.

use super::{Group, Layered, Node, group};
use crate::ground::{Fault, FaultKind};
use crate::number::{Angle, IntoPoint, around, pt};
use crate::path::{Affine, by};

/// More copies than these fill the memory before they are seen.
const MAX_COPIES: usize = 10_000_000;

/// Copies of a path, item or group evenly on a ring round the origin, so far from it, each turned with the ring: the
/// first stands straight above, as it is, the others follow clockwise as seen.
///
/// No copies give an empty group. A radius that is not finite is a fault. Move the ring with [`moved`](super::Layered::moved). Put copies
/// of rings on a ring for rings of rings.
///
/// ```
/// use chordane::prelude::*;
/// let vents = ring_of(circle((0.0, 0.0), 6.0).fill("teal"), 12, 80.0);
/// assert_eq!(vents.nodes().len(), 12);
/// ```
#[must_use]
pub fn ring_of(node: impl Into<Node>, n: usize, radius: f64) -> Group {
    let mut ring = group();
    if !ring.placement.fault.finite("ring_of", "radius", radius) {
        return ring;
    }
    let node = node.into();
    let up = Affine::from_translation(pt(0.0, -radius));
    let raised = |angle: Angle| node.clone().transformed(&(by::rotation(angle) * up));
    several("ring_of", ring, n, around(n.min(MAX_COPIES)).map(raised))
}

/// Copies of a path, item or group, its origin at each of some points.
///
/// ```
/// use chordane::prelude::*;
/// let seeds = copies_at(circle((0.0, 0.0), 2.0).fill("teal"), golden_places(90, 6.0));
/// assert_eq!(seeds.nodes().len(), 90);
/// ```
#[must_use]
pub fn copies_at<P: IntoPoint>(node: impl Into<Node>, points: impl IntoIterator<Item = P>) -> Group {
    let node = node.into();
    let put = |point: P| node.clone().transformed(&Affine::from_translation(point.into_point()));
    group().add_all(points.into_iter().map(put))
}

fn several(call: &'static str, mut group: Group, n: usize, nodes: impl Iterator<Item = Node>) -> Group {
    if n > MAX_COPIES {
        let kind = FaultKind::TooMany { what: "copies", count: n, limit: MAX_COPIES };
        group.placement.fault.note(Fault::of(call, kind));
        return group;
    }
    group.add_all(nodes)
}
