//! A path beside its mirror image, and turned round a centre many times.

use super::Reshape;
use super::chain::reshaped;
use crate::ground::{FaultSlot, exhausted};
use crate::number::{Angle, IntoPoint, Point, around};
use crate::path::{Affine, Path, by};

/// More copies than these fill the memory before they are seen.
const MAX_COPIES: usize = 1_000_000;

/// The mirror image across a line.
///
/// ```
/// use chordane::prelude::*;
/// let wing = Path::closed([(0.0, 0.0), (30.0, 10.0), (0.0, 40.0)]);
/// let mirror = Mirror::new((0.0, 0.0), deg(90.0));
/// assert_eq!(wing.then(mirror).data(), "M0 0-30 10 0 40Z");
/// assert_eq!(wing.then(Mirror { beside: true, ..mirror }).contours().len(), 2);
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Mirror {
    /// A point of the line.
    pub through: Point,
    /// The direction of the line, clockwise as seen from +x.
    pub direction: Angle,
    /// Whether the path itself is kept, the image after it.
    pub beside: bool,
}

impl Mirror {
    /// Across the line through a point in a direction: an upright line at 90 degrees mirrors left and right.
    #[must_use]
    pub fn new(through: impl IntoPoint, direction: Angle) -> Self {
        Self { through: through.into_point(), direction, beside: false }
    }
}

impl Reshape for Mirror {
    fn reshape(&self, path: &Path) -> Path {
        let turn = by::rotation(self.direction);
        // At right angles the tiny rest of the cosine would show in every coordinate.
        let (sin, cos) = (self.direction * 2.0).sin_cos();
        let flip = Affine::from_mat2(glam::DMat2::from_cols_array(&[cos, sin, sin, -cos]));
        let flip = if turn.is_finite() { flip } else { turn };
        let image = path.transformed(&by::about(self.through, flip));
        if self.beside { path.clone().and(&image) } else { image }
    }
}

/// Copies turned evenly round a centre, the first as it is, the others following clockwise as seen.
///
/// No copies give an empty path.
///
/// ```
/// use chordane::prelude::*;
/// let blade = Path::closed([(0.0, 0.0), (60.0, -5.0), (60.0, 5.0)]);
/// assert_eq!(blade.then(Spin::new(6)).contours().len(), 6);
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Spin {
    /// How many copies there are, the first one counted; more than a million are a fault.
    pub copies: usize,
    /// The point that they are turned round; the origin by default.
    pub centre: Point,
}

impl Spin {
    /// So many copies round the origin; more than a million are a fault.
    #[must_use]
    pub fn new(copies: usize) -> Self {
        Self { copies, centre: Point::ZERO }
    }
}

impl Reshape for Spin {
    fn reshape(&self, path: &Path) -> Path {
        let check = |fault: &mut FaultSlot| {
            fault.at_most("spun", "copies", self.copies, MAX_COPIES);
            fault.point("spun", self.centre);
        };
        reshaped("spun", path, check, |fault| {
            let mut contours = Vec::new();
            for angle in around(self.copies).take_while(|_| !exhausted(10)) {
                let copy = path.rotated_about(self.centre, angle);
                fault.take_from(copy.carried());
                contours.extend_from_slice(copy.contours());
            }
            contours
        })
    }
}

impl Path {
    /// The mirror image across the line through a point in a direction; see [`Mirror`].
    #[must_use]
    pub fn mirrored(&self, through: impl IntoPoint, direction: Angle) -> Self {
        self.then(Mirror::new(through, direction))
    }

    /// Copies turned evenly round a centre; see [`Spin`].
    #[must_use]
    pub fn spun(&self, copies: usize, centre: impl IntoPoint) -> Self {
        self.then(Spin { centre: centre.into_point(), ..Spin::new(copies) })
    }
}
