//! Where the heading of a contour jumps.

use crate::number::Point;
use crate::path::{Contour, Segment};

/// Headings that differ by less than this, in radians, go on smoothly.
pub(crate) const MIN_CORNER_ANGLE: f64 = 1e-3;

/// By how much the heading jumps from one segment to the next, in radians, positive when it turns clockwise as seen.
pub(crate) fn jump(before: &Segment, behind: &Segment) -> f64 {
    let (a, b) = (before.arriving(), behind.leaving());
    a.perp_dot(b).atan2(a.dot(b))
}

/// The segments of a contour that have a length, each with its length, and whether there is a corner where it begins.
/// The start of an open contour counts as one.
pub(crate) fn with_corners(contour: &Contour) -> Vec<(Segment, f64, bool)> {
    let sized = contour.segments().filter(|segment| segment.leaving() != Point::ZERO);
    let mut list: Vec<(Segment, f64, bool)> =
        sized.map(|segment| (segment, segment.length(), true)).collect();
    let mut before = list.last().map(|(segment, ..)| *segment).filter(|_| contour.is_closed());
    for (segment, _, corner) in &mut list {
        *corner = before.is_none_or(|before| jump(&before, segment).abs() > MIN_CORNER_ANGLE);
        before = Some(*segment);
    }
    list
}

/// How far along a contour its corners are; the start and the end of an open one are among them.
pub(crate) fn corner_distances(contour: &Contour) -> (Vec<f64>, f64) {
    let mut at = 0.0;
    let mut corners = Vec::new();
    for (_, length, corner) in with_corners(contour) {
        if corner {
            corners.push(at);
        }
        at += length;
    }
    if !contour.is_closed() {
        corners.push(at);
    }
    (corners, at)
}
