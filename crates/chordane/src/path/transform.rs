//! Affine transforms of paths. Arcs stay arcs.

use super::{ArcSegment, Contour, ContourBuilder, Path, Segment, Tag, Verb};
use crate::ground::{Fault, FaultKind};
use crate::number::{Angle, IntoPoint, Point, deg};

/// An affine transform: a linear map (its columns are the images of the x and y steps), then a move.
///
/// `a * b` does `b` first, then `a`.
///
/// ```
/// use chordane::prelude::*;
/// let map = Affine::from_translation(pt(5.0, 0.0));
/// assert_eq!(Path::open([(0.0, 0.0), (9.0, 0.0)]).transformed(&map).data(), "M5 0H14");
/// ```
pub type Affine = glam::DAffine2;

/// The words for transforms, in one place: what they mean is the same for a path, an item and a group.
pub(crate) mod by {
    use super::{Affine, Angle, Point};

    pub(crate) fn rotation(angle: Angle) -> Affine {
        let (sin, cos) = angle.sin_cos();
        Affine::from_mat2(glam::DMat2::from_cols_array(&[cos, sin, -sin, cos]))
    }

    pub(crate) fn about(centre: Point, map: Affine) -> Affine {
        Affine::from_translation(centre) * map * Affine::from_translation(-centre)
    }

    pub(crate) fn shear(x: Angle, y: Angle) -> Affine {
        Affine::from_mat2(glam::DMat2::from_cols_array(&[1.0, y.tan(), x.tan(), 1.0]))
    }
}

impl Path {
    /// The path under an affine transform. Arcs stay arcs.
    ///
    /// A number of the transform that is not finite is a fault.
    #[must_use]
    pub fn transformed(&self, by: &Affine) -> Self {
        self.transformed_as("transformed", by)
    }

    fn transformed_as(&self, call: &'static str, by: &Affine) -> Self {
        let (contours, rule, mut fault) = self.clone().into_parts();
        if !by.is_finite() {
            let value = by.to_cols_array().into_iter().find(|v| !v.is_finite()).unwrap_or(f64::NAN);
            fault.note(Fault::of(call, FaultKind::NotFinite { what: "number", value }));
            return Self::from_parts(contours, rule, fault);
        }
        let moved: Vec<Contour> = contours.iter().map(|contour| contour.transformed(by)).collect();
        Self::from_parts(moved, rule, fault).within_numbers(call)
    }

    /// The path moved by a step.
    #[must_use]
    pub fn moved(&self, step: impl IntoPoint) -> Self {
        self.transformed_as("moved", &Affine::from_translation(step.into_point()))
    }

    /// The path turned about the origin; a positive angle turns clockwise as seen on a sheet with y down.
    #[must_use]
    pub fn rotated(&self, angle: Angle) -> Self {
        self.transformed_as("rotated", &by::rotation(angle))
    }

    /// The path turned about a point; a positive angle turns clockwise as seen on a sheet with y down.
    #[must_use]
    pub fn rotated_about(&self, centre: impl IntoPoint, angle: Angle) -> Self {
        self.transformed_as("rotated_about", &by::about(centre.into_point(), by::rotation(angle)))
    }

    /// The path scaled evenly from the origin. A negative factor turns it by half a turn as well.
    #[must_use]
    pub fn scaled(&self, factor: f64) -> Self {
        self.transformed_as("scaled", &Affine::from_scale(Point::splat(factor)))
    }

    /// The path scaled evenly from a point, which stays where it is.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let grown = circle((30.0, 0.0), 10.0).scaled_about((30.0, 0.0), 1.5);
    /// assert_eq!(grown.bounds().map(|bounds| bounds.centre()), Some(pt(30.0, 0.0)));
    /// ```
    #[must_use]
    pub fn scaled_about(&self, centre: impl IntoPoint, factor: f64) -> Self {
        let by = by::about(centre.into_point(), Affine::from_scale(Point::splat(factor)));
        self.transformed_as("scaled_about", &by)
    }

    /// The path scaled from the origin by a factor along x and one along y. A negative factor mirrors.
    #[must_use]
    pub fn scaled_by(&self, factors: impl IntoPoint) -> Self {
        self.transformed_as("scaled_by", &Affine::from_scale(factors.into_point()))
    }

    /// Shears the path: `x` tilts vertical lines (toward +x further down), `y` tilts horizontal lines.
    #[must_use]
    pub fn sheared(&self, x: Angle, y: Angle) -> Self {
        self.transformed_as("sheared", &by::shear(x, y))
    }
}

impl Contour {
    pub(crate) fn transformed(&self, by: &Affine) -> Self {
        let map = |p: Point| by.transform_point2(p);
        if self.verbs().iter().all(|verb| matches!(verb, Verb::Line | Verb::Quad | Verb::Cubic)) {
            let points = self.points().iter().map(|p| map(*p)).collect();
            let mut builder = ContourBuilder::from_parts(self.verbs().to_vec(), points);
            builder.tags(self.tags().iter().cloned());
            return builder.finish(self.is_closed());
        }
        let mut builder =
            ContourBuilder::with_capacity(map(self.start()), self.verbs().len(), self.points().len());
        // Where each vertex is now: an arc that is flattened becomes several sides.
        let mut places = vec![0];
        for segment in self.segments().take(self.verbs().len()) {
            match segment {
                Segment::Arc(arc) => squash(&arc, by, &mut builder),
                segment => builder.segment(&segment.transformed(by)),
            }
            places.push(builder.vertex_count() - 1);
        }
        let moved = |(tag, vertex): &Tag| Some((tag.clone(), *places.get(*vertex)?));
        builder.tags(self.tags().iter().filter_map(moved));
        builder.finish(self.is_closed())
    }
}

/// Adds the image of an arc. Under a transform that flattens the plane the image runs to and fro on a line, and
/// can reach farther than its ends: it is then written as straight sides over its turning points.
fn squash(arc: &ArcSegment, by: &Affine, builder: &mut ContourBuilder) {
    let image = arc.transformed(by);
    let flat = image.radii.min_element() <= 1e-14 * image.radii.max_element();
    match arc.centred().filter(|_| flat) {
        None => builder.arc(&image),
        Some(whole) => {
            // Along the line, the image swings like a sine; it turns where the ellipse is farthest along it.
            let p = by.transform_vector2(whole.turned(Point::new(whole.radii.x, 0.0)));
            let q = by.transform_vector2(whole.turned(Point::new(0.0, whole.radii.y)));
            let axis = if p.length_squared() >= q.length_squared() { p } else { q };
            let far = crate::number::rad(q.dot(axis).atan2(p.dot(axis)));
            let mut shares: Vec<f64> =
                [far, far + deg(180.0)].into_iter().filter_map(|angle| whole.share_of(angle)).collect();
            shares.sort_by(f64::total_cmp);
            for share in shares {
                builder.line(by.transform_point2(whole.at(share)));
            }
            builder.line(image.to);
        }
    }
}
