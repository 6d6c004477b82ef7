//! Curves that go far beyond the picture, without their chords out there.
//!
//! What lies wholly to one side of the picture is never seen; all that counts is that the path goes on from its start to its
//! end there. So it may as well go straight.

use std::borrow::Cow;

use crate::ground::exhausted;
use crate::number::{Cell, Point};
use crate::path::{Affine, ContourBuilder, Path, Segment};

/// A path that reaches no farther than so many times the picture is left as it is.
const MAX_EXTENT_RATIO: f64 = 4.0;

/// So often a curve is halved at most to find the parts of it that can be seen.
const MAX_SUBDIVISIONS: u32 = 48;

/// The path with straight sides for curves, and parts of curves, that lie beyond one side of the picture by more than a margin;
/// both in pixels.
pub(super) fn seen<'a>(path: &'a Path, to_pixels: &Affine, size: Point, margin: f64) -> Cow<'a, Path> {
    let frame = Cell { min: Point::ZERO, max: size }.grown(margin);
    let large = frame.size() * MAX_EXTENT_RATIO;
    let all = path.control_bounds().map(|bounds| bounds.corners().map(|p| to_pixels.transform_point2(p)));
    let small = all.is_none_or(|corners| {
        let (low, high) = corners
            .into_iter()
            .fold((Point::INFINITY, Point::NEG_INFINITY), |(low, high), p| (low.min(p), high.max(p)));
        (high - low).cmple(large).all()
    });
    if small {
        return Cow::Borrowed(path);
    }
    let contours = path.contours().iter().map(|contour| {
        let mut builder =
            ContourBuilder::with_capacity(contour.start(), contour.verbs().len(), contour.points().len());
        for segment in contour.segments().take(contour.verbs().len()) {
            push(&mut builder, &segment, to_pixels, (&frame, large), 0);
        }
        builder.finish(contour.is_closed())
    });
    Cow::Owned(Path::from_contours(contours).with_fill_rule(path.fill_rule()))
}

fn push(
    builder: &mut ContourBuilder,
    segment: &Segment,
    to_pixels: &Affine,
    (frame, large): (&Cell, Point),
    halvings: u32,
) {
    let Segment::Line { .. } = segment else {
        let hull = hull(&segment.transformed(to_pixels));
        if hull.max.cmple(frame.min).any() || hull.min.cmpge(frame.max).any() {
            builder.line(segment.to());
        } else if hull.size().cmple(large).all() || halvings >= MAX_SUBDIVISIONS || exhausted(20) {
            builder.segment(segment);
        } else {
            let (first, second) = segment.split(0.5);
            push(builder, &first, to_pixels, (frame, large), halvings + 1);
            push(builder, &second, to_pixels, (frame, large), halvings + 1);
        }
        return;
    };
    builder.segment(segment);
}

/// A box round a segment, quickly found.
fn hull(segment: &Segment) -> Cell {
    let of = |points: &[Point]| {
        let (low, high) = points
            .iter()
            .fold((Point::INFINITY, Point::NEG_INFINITY), |(low, high), p| (low.min(*p), high.max(*p)));
        Cell { min: low, max: high }
    };
    match *segment {
        Segment::Quad { from, control, to } => of(&[from, control, to]),
        Segment::Cubic { from, control1, control2, to } => of(&[from, control1, control2, to]),
        _ => segment.bounds(),
    }
}
