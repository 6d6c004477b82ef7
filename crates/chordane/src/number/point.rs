//! Points: positions on the sheet, or steps from one position to another.

use super::Angle;

/// A position or a step, in sheet units; x runs to the right, y runs down unless the sheet says otherwise.
///
/// Wherever a point is taken, a pair `(x, y)` is taken too.
///
/// ```
/// use chordane::prelude::*;
/// let at: Point = pt(3.0, 4.0);
/// assert_eq!((at.length(), at * 2.0), (5.0, pt(6.0, 8.0)));
/// ```
pub type Point = glam::DVec2;

/// The point at `x`, `y`.
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!(pt(3.0, 4.0).length(), 5.0);
/// ```
#[inline]
#[must_use]
pub const fn pt(x: f64, y: f64) -> Point {
    Point::new(x, y)
}

/// The point at a distance from the origin, in the direction of an angle (clockwise as seen from +x).
///
/// A negative distance lies on the opposite side. Add a centre to move it: `centre + polar(a, r)`.
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!(polar(deg(90.0), 10.0), pt(0.0, 10.0)); // straight down on a sheet with y down
/// ```
#[inline]
#[must_use]
pub fn polar(angle: Angle, distance: f64) -> Point {
    let (sin, cos) = angle.sin_cos();
    pt(cos * distance, sin * distance)
}
