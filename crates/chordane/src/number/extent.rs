//! Extents: a fraction of a length that is known later, plus a fixed length.

use std::ops::{Add, Div, Mul, Neg, Sub};

/// A share of a length that is not known yet, plus a fixed length.
///
/// ```
/// use chordane::prelude::*;
/// let shaft = part(0.75) + 12.0;
/// assert_eq!((shaft.of(100.0), shaft.of(10.0)), (87.0, 19.5));
/// assert_eq!((part(1.0) - shaft).of(100.0), 13.0);
/// ```
#[derive(Clone, Copy, Debug, Default, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize))]
pub struct Extent {
    share: f64,
    fixed: f64,
}

/// A share of a length: 0.7 of whatever it turns out to be.
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!((part(0.5) + 12.0).of(80.0), 52.0);
/// ```
#[must_use]
pub fn part(share: f64) -> Extent {
    Extent { share, fixed: 0.0 }
}

impl Extent {
    /// The length itself, once it is known what the share is of.
    #[must_use]
    pub fn of(self, whole: f64) -> f64 {
        self.share * whole + self.fixed
    }
}

/// A plain number is a fixed length.
impl From<f64> for Extent {
    fn from(fixed: f64) -> Self {
        Self { share: 0.0, fixed }
    }
}

impl<E: Into<Extent>> Add<E> for Extent {
    type Output = Self;

    fn add(self, other: E) -> Self {
        let other = other.into();
        Self { share: self.share + other.share, fixed: self.fixed + other.fixed }
    }
}

impl<E: Into<Extent>> Sub<E> for Extent {
    type Output = Self;

    fn sub(self, other: E) -> Self {
        self + -other.into()
    }
}

impl Neg for Extent {
    type Output = Self;

    fn neg(self) -> Self {
        self * -1.0
    }
}

impl Mul<f64> for Extent {
    type Output = Self;

    fn mul(self, factor: f64) -> Self {
        Self { share: self.share * factor, fixed: self.fixed * factor }
    }
}

impl Div<f64> for Extent {
    type Output = Self;

    fn div(self, by: f64) -> Self {
        self * (1.0 / by)
    }
}

/// How far along a side of a cell: a plain number is a share of the side, an [`Extent`] what it says.
///
/// ```
/// use chordane::prelude::*;
/// let tag = cell((10.0, 10.0), 80.0, 40.0);
/// assert_eq!(tag.at(0.5, part(1.0) - 6.0), pt(50.0, 44.0));
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Along(pub(super) Extent);

impl From<f64> for Along {
    fn from(share: f64) -> Self {
        Self(part(share))
    }
}

impl From<Extent> for Along {
    fn from(extent: Extent) -> Self {
        Self(extent)
    }
}

/// How much is taken off each side of a cell: one extent for all four, or two for left and right and for top and
/// bottom, or four for the top, right, bottom and left one.
///
/// ```
/// use chordane::prelude::*;
/// let tag = cell((10.0, 10.0), 80.0, 40.0);
/// assert_eq!(tag.inset(5.0).size(), pt(70.0, 30.0));
/// assert_eq!(tag.inset([5.0, 10.0]).size(), tag.inset([10.0, 5.0, 10.0, 5.0]).size());
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Inset(pub(super) [Extent; 4]);

impl<E: Into<Extent>> From<E> for Inset {
    fn from(all: E) -> Self {
        Self([all.into(); 4])
    }
}

impl<E: Into<Extent>> From<[E; 2]> for Inset {
    fn from([beside, above]: [E; 2]) -> Self {
        let (x, y) = (beside.into(), above.into());
        Self([y, x, y, x])
    }
}

impl<E: Into<Extent>> From<[E; 4]> for Inset {
    fn from(sides: [E; 4]) -> Self {
        Self(sides.map(Into::into))
    }
}
