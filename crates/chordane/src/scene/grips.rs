//! Places of a drawing that can be taken hold of: vertices, control points, centres and the ends of gradients.

use super::{Placed, Scene};
use crate::number::Point;
use crate::path::Segment;
use crate::sheet::{GradientKind, Paint};

/// What is taken hold of on an item.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
#[non_exhaustive]
pub enum GripKind {
    /// A vertex.
    Vertex {
        /// The contour, counted from 0.
        contour: usize,
        /// The vertex of the contour, counted from 0.
        vertex: usize,
    },
    /// A control point of a curve.
    Control {
        /// The contour, counted from 0.
        contour: usize,
        /// The segment of the contour, counted from 0.
        segment: usize,
        /// Which of its control points, 0 or 1.
        point: usize,
    },
    /// The middle of its line's bounds.
    Centre,
    /// A place of the gradient that it is filled or stroked with.
    Gradient {
        /// Whether it is the stroke's.
        stroke: bool,
        /// Of a linear one the beginning (0) and the end (1); of others the centre (0); of a radial one its rim to the right (1).
        end: usize,
    },
}

/// A place that can be taken hold of.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::scene::GripKind;
/// let page = sheet(90.0, 60.0).add(group().add(rectangle((10.0, 10.0), 30.0, 20.0).fill("teal")).moved((5.0, 0.0)));
/// let grips = page.scene()?.grips();
/// assert_eq!((grips[2].item, grips[2].kind), (0, GripKind::Vertex { contour: 0, vertex: 2 }));
/// assert_eq!((grips[2].at, grips[4].kind, grips[4].at), (pt(45.0, 30.0), GripKind::Centre, pt(30.0, 20.0)));
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Grip {
    /// The item, in the order of drawing, counted from 0.
    pub item: usize,
    /// What of the item.
    pub kind: GripKind,
    /// Where it is, in the sheet's coordinates.
    pub at: Point,
}

impl Scene<'_> {
    /// All places that can be taken hold of, item by item: vertices, control points, the centre, the ends of gradients. Cost: linear in the
    /// segments.
    #[must_use]
    pub fn grips(&self) -> Vec<Grip> {
        self.items().iter().flat_map(Placed::grips).collect()
    }
}

impl Placed<'_> {
    /// The places of this item that can be taken hold of; see [`Scene::grips`].
    #[must_use]
    pub fn grips(&self) -> Vec<Grip> {
        let (item, to_sheet) = (self.number, self.transform);
        let mut all = Vec::new();
        let mut add = |kind: GripKind, at: Point| {
            all.push(Grip { item, kind, at: to_sheet.transform_point2(at) });
        };
        let path = self.item.path();
        for (contour, own) in path.contours().iter().enumerate() {
            for (vertex, at) in own.vertices().enumerate() {
                add(GripKind::Vertex { contour, vertex }, at);
            }
            for (segment, own) in own.segments().enumerate() {
                let points = match own {
                    Segment::Quad { control, .. } => [Some(control), None],
                    Segment::Cubic { control1, control2, .. } => [Some(control1), Some(control2)],
                    _ => [None, None],
                };
                for (point, at) in points.into_iter().enumerate() {
                    if let Some(at) = at {
                        add(GripKind::Control { contour, segment, point }, at);
                    }
                }
            }
        }
        let bounds = path.bounds();
        if let Some(bounds) = bounds {
            add(GripKind::Centre, bounds.centre());
        }
        let style = self.item.style();
        for (stroke, paint) in [(false, style.fill.as_ref()), (true, style.stroke.as_ref())] {
            if let Some(Paint::Gradient(gradient)) = paint
                && let Some(frame) = gradient.frame_of(bounds, &to_sheet)
            {
                let ends = match gradient.kind {
                    GradientKind::Linear { from, to } => vec![from, to],
                    GradientKind::Radial { centre, radius, .. } => vec![centre, centre + Point::X * radius],
                    GradientKind::Sweep { centre, .. } => vec![centre],
                };
                for (end, at) in ends.into_iter().enumerate() {
                    add(GripKind::Gradient { stroke, end }, frame.transform_point2(at));
                }
            }
        }
        all
    }
}
