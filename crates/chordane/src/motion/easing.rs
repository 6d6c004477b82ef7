//! Easings: how the share of the time becomes the share of the way.

use super::curve::{Curve, Jump};
use super::easing_text::read;
use crate::ground::{Fault, Given};

/// How the share of the time becomes the share of the way: one of the easings of the recommendation "CSS Easing Functions", or a spring.
///
/// Wherever an easing is taken, its CSS text is too: `linear`, `ease`, `ease-in`, `ease-out`, `ease-in-out`, `step-start`, `step-end`,
/// `cubic-bezier(0.4, 0, 0.2, 1)`, `steps(4, jump-both)`, `linear(0, 0.5 25%, 1)`, and beside them `spring(120, 9)`. A text that is none, and numbers
/// that cannot be, are faults of what the easing is given to.
///
/// ```
/// use chordane::prelude::*;
/// let slow = Easing::from("ease-in");
/// assert!(slow.at(0.5) < 0.5 && slow.at(1.0) == 1.0);
/// assert_eq!(Easing::steps(4, "jump-end").at(0.3), 0.25);
/// assert_eq!(Easing::from("linear(0, 0.8 20%, 1)").at(0.1), 0.4);
/// ```
#[derive(Clone, Debug, PartialEq)]
pub struct Easing(Result<Curve, Fault>);

impl Easing {
    /// The same share: no easing at all.
    #[must_use]
    pub fn linear() -> Self {
        Self(Ok(Curve::Linear))
    }

    /// A cubic from (0, 0) to (1, 1) with these control points between them: time across, way up.
    ///
    /// An x that is not from 0 to 1 is a fault, since time does not run back; a y may be beyond.
    #[must_use]
    pub fn cubic_bezier(x1: f64, y1: f64, x2: f64, y2: f64) -> Self {
        Self(Curve::cubic_bezier(x1, y1, x2, y2))
    }

    /// So many even steps, and where they jump: a [`Jump`] or its CSS name. Without a step, or with one and `jump-none`, it is a fault.
    #[must_use]
    pub fn steps(count: usize, jump: impl Into<Given<Jump>>) -> Self {
        Self(Curve::steps(count, jump.into()))
    }

    /// Straight from point to point: each a share of the time and what is reached then. Fewer than two points, and times that fall, are faults.
    #[must_use]
    pub fn through(points: impl IntoIterator<Item = (f64, f64)>) -> Self {
        Self(Curve::through(points))
    }

    /// A spring of a stiffness and a damping, with a weight of 1: it overshoots where it is damped little, and has settled at the end. Only the
    /// relation of the two shows in the curve; [`Easing::settles_in`] tells how long such a spring takes.
    #[must_use]
    pub fn spring(stiffness: f64, damping: f64) -> Self {
        Self(Curve::spring(stiffness, damping))
    }

    /// The seconds after which a spring stays within a thousandth of its end; `None` for other easings.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let tail = Easing::spring(120.0, 9.0);
    /// assert!((1.4..1.7).contains(&tail.settles_in().unwrap_or(0.0)));
    /// ```
    #[must_use]
    pub fn settles_in(&self) -> Option<f64> {
        match &self.0 {
            Ok(Curve::Spring(spring)) => Some(spring.seconds()),
            _ => None,
        }
    }

    /// `Ok` when it is an easing.
    ///
    /// # Errors
    ///
    /// A text or a number that cannot be.
    pub fn sound(&self) -> Result<(), Fault> {
        self.0.as_ref().map_or_else(|fault| Err(fault.clone()), |_| Ok(()))
    }

    /// The share of the way at a share of the time. Both may be beyond 0 and 1; a time beyond goes on as the recommendation says. Of what is no
    /// easing it is the share itself.
    #[must_use]
    pub fn at(&self, share: f64) -> f64 {
        self.0.as_ref().map_or(share, |curve| curve.at(share))
    }
}

/// The share of the way at a share of the time; see [`Easing`].
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!(ease(0.5, "steps(2)"), 0.5);
/// ```
#[must_use]
pub fn ease(share: f64, easing: impl Into<Easing>) -> f64 {
    easing.into().at(share)
}

impl Default for Easing {
    fn default() -> Self {
        Self::linear()
    }
}

impl From<&str> for Easing {
    fn from(text: &str) -> Self {
        Self(read(text))
    }
}

impl From<String> for Easing {
    fn from(text: String) -> Self {
        Self::from(text.as_str())
    }
}
