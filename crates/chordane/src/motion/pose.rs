//! A pose: where a thing is, how it is turned, and how large it is.

use crate::number::{Angle, IntoPoint, Point};
use crate::path::{Affine, Path, by};

/// Where a thing is, how far it is turned and how large it is: scaled first, then turned about its origin, then moved.
///
/// ```
/// use chordane::prelude::*;
/// let dip = pose((40.0, 0.0), deg(90.0), 2.0);
/// assert_eq!(dip.affine().transform_point2(pt(10.0, 0.0)), pt(40.0, 20.0));
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Pose {
    /// How far it is moved.
    pub step: Point,
    /// How far it is turned; positive is clockwise as seen on a sheet with y down. More than a full turn goes round more than once.
    pub turn: Angle,
    /// The factors along its own x and y.
    pub scale: Point,
}

/// A pose of a step, a turn and an even scale; see [`Pose`].
#[must_use]
pub fn pose(step: impl IntoPoint, turn: Angle, scale: f64) -> Pose {
    Pose { step: step.into_point(), turn, scale: Point::splat(scale) }
}

impl Default for Pose {
    /// As it is: not moved, not turned, at its own size.
    fn default() -> Self {
        pose((0.0, 0.0), Angle::ZERO, 1.0)
    }
}

impl Pose {
    /// The same pose as a transform.
    #[must_use]
    pub fn affine(&self) -> Affine {
        Affine::from_translation(self.step) * by::rotation(self.turn) * Affine::from_scale(self.scale)
    }
}

impl Path {
    /// The path in a pose.
    #[must_use]
    pub fn posed(&self, pose: Pose) -> Self {
        self.transformed(&pose.affine())
    }
}
