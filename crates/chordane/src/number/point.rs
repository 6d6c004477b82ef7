//! Points: positions on the sheet, or steps from one position to another.

use super::Angle;

/// A position or a step, in sheet units; x runs to the right, y runs down unless the sheet says otherwise.
///
/// Wherever a point is taken, a pair `(x, y)` is taken too, and any other type that implements [`IntoPoint`].
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

/// A value that can be used as a point: a pair or an array of two numbers of any type, a glam vector of either precision, or a reference to a point.
/// Implement it for your own types.
///
/// ```
/// use chordane::prelude::*;
/// struct Post { east: f32, north: f32 }
///
/// impl IntoPoint for Post {
///     fn into_point(self) -> Point {
///         pt(self.east.into(), -f64::from(self.north))
///     }
/// }
///
/// let hoops = [circle((3, 4), 1.0), circle([3.0_f32, 4.0], 1.0), circle(&pt(3.0, 4.0), 1.0), circle(Post { east: 3.0, north: -4.0 }, 1.0)];
/// assert!(hoops.iter().all(|hoop| *hoop == hoops[0]));
/// ```
pub trait IntoPoint {
    /// Converts the value to a point.
    fn into_point(self) -> Point;
}

impl IntoPoint for Point {
    #[inline]
    fn into_point(self) -> Point {
        self
    }
}

impl IntoPoint for &Point {
    #[inline]
    fn into_point(self) -> Point {
        *self
    }
}

impl IntoPoint for glam::Vec2 {
    #[inline]
    fn into_point(self) -> Point {
        self.as_dvec2()
    }
}

macro_rules! pairs {
    ($($number:ty)*) => {$(
        impl IntoPoint for ($number, $number) {
            #[inline]
            fn into_point(self) -> Point {
                pt(self.0 as f64, self.1 as f64)
            }
        }

        impl IntoPoint for [$number; 2] {
            #[inline]
            fn into_point(self) -> Point {
                pt(self[0] as f64, self[1] as f64)
            }
        }
    )*};
}

pairs! { f64 f32 i8 i16 i32 i64 isize u8 u16 u32 u64 usize }

/// Conversions from the points and vectors of mint, the exchange format of maths libraries.
#[cfg(feature = "mint")]
macro_rules! mint_points {
    ($($theirs:ty)*) => {$(
        impl IntoPoint for $theirs {
            #[inline]
            fn into_point(self) -> Point {
                self.into()
            }
        }
    )*};
}

#[cfg(feature = "mint")]
mint_points! { mint::Point2<f64> mint::Vector2<f64> }
