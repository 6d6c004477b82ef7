//! Angles. An [`Angle`] is made by [`deg`], [`rad`] or [`turns`] and carries no sheet with it: on a sheet whose
//! y runs down, angle 0 points along +x and a positive angle turns clockwise as seen.
//!
//! Degrees are what is stored, because a quarter turn is a whole number of them: sine and cosine are then exact
//! at every multiple of 90 degrees.

use crate::number::IntoPoint;
use std::f64::consts::FRAC_1_SQRT_2;
use std::fmt;
use std::iter::{FusedIterator, Sum};
use std::ops::{Add, AddAssign, Div, Mul, Neg, Rem, Sub, SubAssign};

/// An angle. Positive is clockwise as seen on a sheet with y down.
///
/// ```
/// use chordane::prelude::*;
///
/// assert_eq!(deg(90.0), turns(0.25));
/// assert_eq!(deg(90.0).sin_cos(), (1.0, 0.0)); // exact, not 6e-17
/// assert_eq!((deg(350.0) + deg(20.0)).wrapped(), deg(10.0));
/// ```
#[derive(Clone, Copy, Debug, Default, PartialEq, PartialOrd)]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize), serde(transparent))]
pub struct Angle {
    degrees: f64,
}

/// An angle in degrees: `deg(360.0)` is a full turn.
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!(deg(30.0) + turns(0.25), deg(120.0));
/// ```
#[inline]
#[must_use]
pub const fn deg(degrees: f64) -> Angle {
    Angle { degrees }
}

/// An angle in radians: `rad(std::f64::consts::TAU)` is a full turn.
///
/// The angle is kept in degrees, so reading the radians back may differ in the last digit.
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!(rad(std::f64::consts::PI), deg(180.0));
/// ```
#[inline]
#[must_use]
pub const fn rad(radians: f64) -> Angle {
    Angle { degrees: radians.to_degrees() }
}

/// An angle in turns: `turns(1.0)` goes once round.
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!(turns(0.5), deg(180.0));
/// ```
#[inline]
#[must_use]
pub const fn turns(turns: f64) -> Angle {
    Angle { degrees: turns * 360.0 }
}

impl Angle {
    /// The angle that points along +x.
    pub const ZERO: Self = deg(0.0);
    /// Once round.
    pub const FULL: Self = deg(360.0);

    /// The size in degrees.
    #[inline]
    #[must_use]
    pub const fn degrees(self) -> f64 {
        self.degrees
    }

    /// The size in radians.
    #[inline]
    #[must_use]
    pub const fn radians(self) -> f64 {
        self.degrees.to_radians()
    }

    /// The size in turns.
    #[inline]
    #[must_use]
    pub const fn turns(self) -> f64 {
        self.degrees / 360.0
    }

    /// The direction from the origin to a point, above -180 up to 180 degrees; zero for the origin itself.
    ///
    /// Exact for directions along an axis.
    #[must_use]
    pub fn of(direction: impl IntoPoint) -> Self {
        let d = direction.into_point();
        if d.x == 0.0 && d.y == 0.0 {
            return Self::ZERO;
        }
        rad(d.y.atan2(d.x))
    }

    /// The sine. Exact at multiples of 90 degrees, and at 30 degrees from the x axis.
    #[inline]
    #[must_use]
    pub fn sin(self) -> f64 {
        self.sin_cos().0
    }

    /// The cosine. Exact at multiples of 90 degrees, and at 60 degrees from the x axis.
    #[inline]
    #[must_use]
    pub fn cos(self) -> f64 {
        self.sin_cos().1
    }

    /// The tangent: sine over cosine, so infinite at a quarter turn. Exact at multiples of 45 degrees.
    #[must_use]
    pub fn tan(self) -> f64 {
        let (sin, cos) = self.sin_cos();
        sin / cos
    }

    /// Sine and cosine together; not a number when the angle is not finite.
    ///
    /// The angle is first brought within 45 degrees of the nearest axis, where the reduction is exact.
    #[must_use]
    pub fn sin_cos(self) -> (f64, f64) {
        let turned = self.degrees % 360.0;
        let quarter = (turned / 90.0).round();
        let rest = turned - quarter * 90.0;
        let (sin, cos) = if rest.abs() == 30.0 {
            // The nearest doubles to the true values; the general formula misses a half by one digit.
            (rest.signum() * 0.5, 0.75_f64.sqrt())
        } else if rest.abs() == 45.0 {
            (rest.signum() * FRAC_1_SQRT_2, FRAC_1_SQRT_2)
        } else {
            rest.to_radians().sin_cos()
        };
        // Adding zero turns a negative zero into a plain one.
        match (quarter as i64).rem_euclid(4) {
            0 => (sin + 0.0, cos),
            1 => (cos, 0.0 - sin),
            2 => (0.0 - sin, 0.0 - cos),
            _ => (0.0 - cos, sin + 0.0),
        }
    }

    /// The same direction as an angle from 0 up to, not including, a full turn.
    #[must_use]
    pub fn wrapped(self) -> Self {
        let degrees = self.degrees.rem_euclid(360.0);
        // A tiny negative angle rounds up to a whole turn.
        deg(if degrees >= 360.0 { 0.0 } else { degrees })
    }

    /// The same direction as an angle above -180 up to 180 degrees: the short way round.
    #[must_use]
    pub fn wrapped_signed(self) -> Self {
        let degrees = self.wrapped().degrees;
        deg(if degrees > 180.0 { degrees - 360.0 } else { degrees })
    }

    /// The size without its sign.
    #[must_use]
    pub const fn abs(self) -> Self {
        deg(self.degrees.abs())
    }

    /// Whether the size is a finite number.
    #[must_use]
    pub const fn is_finite(self) -> bool {
        self.degrees.is_finite()
    }
}

impl Add for Angle {
    type Output = Self;
    fn add(self, other: Self) -> Self {
        deg(self.degrees + other.degrees)
    }
}

impl AddAssign for Angle {
    fn add_assign(&mut self, other: Self) {
        *self = *self + other;
    }
}

impl Sub for Angle {
    type Output = Self;
    fn sub(self, other: Self) -> Self {
        deg(self.degrees - other.degrees)
    }
}

impl SubAssign for Angle {
    fn sub_assign(&mut self, other: Self) {
        *self = *self - other;
    }
}

impl Neg for Angle {
    type Output = Self;
    fn neg(self) -> Self {
        deg(-self.degrees)
    }
}

impl Mul<f64> for Angle {
    type Output = Self;
    fn mul(self, factor: f64) -> Self {
        deg(self.degrees * factor)
    }
}

impl Mul<Angle> for f64 {
    type Output = Angle;
    fn mul(self, angle: Angle) -> Angle {
        angle * self
    }
}

impl Div<f64> for Angle {
    type Output = Self;
    fn div(self, divisor: f64) -> Self {
        deg(self.degrees / divisor)
    }
}

impl Div for Angle {
    type Output = f64;
    fn div(self, other: Self) -> f64 {
        self.degrees / other.degrees
    }
}

impl Rem for Angle {
    type Output = Self;
    fn rem(self, other: Self) -> Self {
        deg(self.degrees % other.degrees)
    }
}

impl Sum for Angle {
    fn sum<I: Iterator<Item = Self>>(angles: I) -> Self {
        angles.fold(Self::ZERO, Add::add)
    }
}

impl fmt::Display for Angle {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{} deg", self.degrees)
    }
}

/// `n` angles that divide a full turn evenly, from 0, never the first one twice.
///
/// None for `n` of 0. Each is computed from its index, so nothing adds up along the way and the last step is as
/// wide as the first. Add a start with `.map(|a| a + deg(15.0))`.
///
/// ```
/// use chordane::prelude::*;
///
/// let hexagon: Vec<_> = around(6).map(|a| polar(a, 80.0)).collect();
/// assert_eq!(hexagon.len(), 6);
/// assert_eq!(around(4).last(), Some(deg(270.0)));
/// ```
pub fn around(
    n: usize,
) -> impl ExactSizeIterator<Item = Angle> + DoubleEndedIterator + FusedIterator + Clone {
    (0..n).map(move |i| deg(360.0 * i as f64 / n as f64))
}

/// `n` angles from `a` to `b`, evenly spaced, both ends included exactly.
///
/// None for `n` of 0, only `a` for 1. `b` below `a` runs anticlockwise as seen.
///
/// ```
/// use chordane::prelude::*;
///
/// let fan: Vec<_> = between(deg(-30.0), deg(30.0), 3).collect();
/// assert_eq!(fan, [deg(-30.0), deg(0.0), deg(30.0)]);
/// ```
pub fn between(
    a: Angle,
    b: Angle,
    n: usize,
) -> impl ExactSizeIterator<Item = Angle> + DoubleEndedIterator + FusedIterator + Clone {
    let last = n.saturating_sub(1);
    (0..n).map(move |i| match i {
        0 => a,
        _ if i == last => b,
        _ => a + (b - a) * (i as f64 / last as f64),
    })
}
