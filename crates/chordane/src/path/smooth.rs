//! Cubics along a moving point, few and within a tolerance.

use super::{Contour, ContourBuilder, Segment};
use crate::ground::exhausted;
use crate::number::{Point, kept};

/// Where a point is at a time, and how fast it moves there.
type Motion = (Point, Point);

/// How often a stretch is halved at most.
const MAX_BISECTIONS: u32 = 16;

/// So many cubics for each of the parts that were asked for are more than any sound curve takes: where numbers run past what
/// they can hold, halving would not end before.
const MAX_CUBICS_PER_PART: usize = 200;

/// No tolerance is finer than this share of the coordinates, which have no more digits.
const MIN_RELATIVE_TOLERANCE: f64 = 1e-12;

/// The way of a moving point from one time to another, in cubics that start and end as it does; `parts` even stretches
/// are then halved until no place of the curve is farther than the tolerance from them. A closed one ends at its very
/// first point.
pub(crate) fn smooth(
    (from, to): (f64, f64),
    parts: usize,
    closed: bool,
    tolerance: f64,
    at: impl Fn(f64) -> Motion,
) -> Contour {
    let parts = parts.max(1);
    let first = at(from);
    let most = MAX_CUBICS_PER_PART * parts + 2000;
    let mut builder = ContourBuilder::new(first.0);
    let mut begin = (from, first);
    for i in 1..=parts {
        if exhausted(20) {
            break;
        }
        let time = if i == parts { to } else { from + (to - from) * (i as f64 / parts as f64) };
        let mut end = (time, at(time));
        if closed && i == parts {
            end.1.0 = first.0;
        }
        stretch(&mut builder, begin, end, (tolerance, most), &at, 0);
        begin = end;
    }
    builder.finish(closed)
}

fn stretch(
    builder: &mut ContourBuilder,
    begin: (f64, Motion),
    end: (f64, Motion),
    (tolerance, most): (f64, usize),
    at: &impl Fn(f64) -> Motion,
    halvings: u32,
) {
    let (time, span) = (begin.0, end.0 - begin.0);
    let middle = time + 0.5 * span;
    let half = (middle, at(middle));
    let ((p, _), (q, _)) = (begin.1, end.1);
    let (out, back) = handles(begin.1, half.1.0, end.1, span);
    let (control1, control2) = (p + out, q - back);
    let cubic = Segment::Cubic { from: p, control1, control2, to: q };
    let tolerance = tolerance.max(MIN_RELATIVE_TOLERANCE * p.abs().max(q.abs()).max_element());
    // Lagging behind or running ahead along the curve is not an error: each place of the cubic is held against the nearest
    // place of the curve, by two steps of Newton's method.
    let within = |share: f64| {
        let place = cubic.at(share);
        let mut near = time + span * share;
        for _ in 0..2 {
            let (point, velocity) = at(near);
            let square = velocity.length_squared();
            if square > 0.0 {
                let step = (place - point).dot(velocity) / square;
                near += kept(step, -0.1 * span.abs(), 0.1 * span.abs());
            }
        }
        at(near).0.distance(place) <= tolerance
    };
    let lost = !(p + q + out + back).is_finite();
    if lost
        || halvings >= MAX_BISECTIONS
        || exhausted(20)
        || builder.vertex_count() >= most
        || [0.5, 0.25, 0.75, 0.1, 0.9].into_iter().all(within)
    {
        builder.cubic(control1, control2, q);
        return;
    }
    stretch(builder, begin, half, (tolerance, most), at, halvings + 1);
    stretch(builder, half, end, (tolerance, most), at, halvings + 1);
}

/// The steps from a stretch's begin to its first control point, and from its second to its end: along the velocities, and
/// so long that the cubic's middle is the curve's, which is right to the sixth order for even bends (as the usual arc
/// of a circle is). Where that has no sensible answer, a third of the velocities.
fn handles((p, u): Motion, middle: Point, (q, v): Motion, span: f64) -> (Point, Point) {
    let (third_u, third_v) = (u * (span / 3.0), v * (span / 3.0));
    // From B(1/2) = (p + q) / 2 + 3/8 (a third_u - b third_v).
    let reach = (middle - (p + q) * 0.5) * (8.0 / 3.0);
    let cross = third_u.perp_dot(third_v);
    let (a, b) = (reach.perp_dot(third_v) / cross, reach.perp_dot(third_u) / cross);
    let sensible = |k: f64| (0.6..1.7).contains(&k);
    if sensible(a) && sensible(b) { (third_u * a, third_v * b) } else { (third_u, third_v) }
}
