//! Curves that only look like curves.

use crate::number::Point;
use crate::path::{Affine, Segment};

/// The ends of the straight sides that a curve is, where no control point lies farther than this from one line: the places
/// where it turns round, and its end. `None` of sides and of true curves.
pub(crate) fn straight_stops(segment: &Segment, off: f64) -> Option<impl Iterator<Item = Point>> {
    let (from, to) = (segment.from(), segment.to());
    let handles: &[Point] = match segment {
        Segment::Quad { control, .. } => &[*control],
        Segment::Cubic { control1, control2, .. } => &[*control1, *control2],
        _ => return None,
    };
    let arms = handles.iter().chain([&to]).map(|p| *p - from);
    let longest = arms.clone().max_by(|a, b| a.length_squared().total_cmp(&b.length_squared()));
    let along = longest.unwrap_or(Point::ZERO).normalize_or_zero();
    if arms.clone().any(|arm| along.perp_dot(arm).abs() > off) {
        return None;
    }
    let level =
        segment.transformed(&Affine::from_mat2(glam::DMat2::from_cols(along, along.perp()).inverse()));
    let mut turns: Vec<f64> = level.turns()[0].into_iter().flatten().collect();
    turns.sort_by(f64::total_cmp);
    let segment = *segment;
    Some(turns.into_iter().map(move |t| segment.at(t)).chain([to]))
}
