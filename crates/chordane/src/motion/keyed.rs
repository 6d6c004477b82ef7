//! What can be part of the way to another of its kind.

use super::{Parts, Pose};
use crate::ground::Fault;
use crate::number::{Angle, Extent, Point};
use crate::path::{Affine, Path};
use crate::sheet::{Colour, mix};

/// A value that keys and swings can hold: one that can be part of the way to another.
///
/// Numbers, angles, points, extents and poses go straight, and beyond their ends where the share does; an angle goes the way that its number
/// says (see [`Keys::way`](super::Keys::way)). Colours are mixed as [`mix`] does, paths morphed as [`Path::morphed`] does, each at their ends
/// for shares beyond them. Transforms are taken apart into a step, a turn (the shorter way), scales and a slant, and put together again.
///
/// ```
/// use chordane::motion::Keyed;
/// use chordane::prelude::*;
/// assert_eq!(deg(10.0).part_way(&deg(370.0), 0.5), deg(190.0));
/// assert_eq!(pt(0.0, 8.0).part_way(&pt(4.0, 0.0), 0.25), pt(1.0, 6.0));
/// ```
pub trait Keyed: Clone {
    /// The value that is so much of the way to another: itself at 0, the other at 1.
    #[must_use]
    fn part_way(&self, to: &Self, share: f64) -> Self;

    /// The first thing that is wrong with it.
    ///
    /// # Errors
    ///
    /// Numbers that are not finite, and the fault that a path carries.
    fn sound_for(&self, call: &'static str) -> Result<(), Fault>;
}

/// Exactly the ends at 0 and 1.
fn straight(from: f64, to: f64, share: f64) -> f64 {
    from * (1.0 - share) + to * share
}

fn finite(call: &'static str, numbers: &[f64]) -> Result<(), Fault> {
    match numbers.iter().find(|number| !number.is_finite()) {
        None => Ok(()),
        Some(wrong) => Err(Fault::new(call, format!("the value {wrong} is not finite; give finite numbers"))),
    }
}

impl Keyed for f64 {
    fn part_way(&self, to: &Self, share: f64) -> Self {
        straight(*self, *to, share)
    }

    fn sound_for(&self, call: &'static str) -> Result<(), Fault> {
        finite(call, &[*self])
    }
}

impl Keyed for Angle {
    fn part_way(&self, to: &Self, share: f64) -> Self {
        *self * (1.0 - share) + *to * share
    }

    fn sound_for(&self, call: &'static str) -> Result<(), Fault> {
        finite(call, &[self.radians()])
    }
}

impl Keyed for Point {
    fn part_way(&self, to: &Self, share: f64) -> Self {
        Self::new(straight(self.x, to.x, share), straight(self.y, to.y, share))
    }

    fn sound_for(&self, call: &'static str) -> Result<(), Fault> {
        finite(call, &[self.x, self.y])
    }
}

impl Keyed for Extent {
    fn part_way(&self, to: &Self, share: f64) -> Self {
        *self * (1.0 - share) + *to * share
    }

    fn sound_for(&self, call: &'static str) -> Result<(), Fault> {
        finite(call, &[self.of(0.0), self.of(1.0)])
    }
}

impl Keyed for Colour {
    fn part_way(&self, to: &Self, share: f64) -> Self {
        mix(*self, *to, share)
    }

    fn sound_for(&self, call: &'static str) -> Result<(), Fault> {
        finite(call, &[self.red, self.green, self.blue, self.alpha].map(f64::from))
    }
}

impl Keyed for Path {
    fn part_way(&self, to: &Self, share: f64) -> Self {
        self.morphed(to, share.clamp(0.0, 1.0))
    }

    fn sound_for(&self, _: &'static str) -> Result<(), Fault> {
        self.sound().map(|_| ())
    }
}

impl Keyed for Pose {
    fn part_way(&self, to: &Self, share: f64) -> Self {
        Self {
            step: self.step.part_way(&to.step, share),
            turn: self.turn.part_way(&to.turn, share),
            scale: self.scale.part_way(&to.scale, share),
        }
    }

    fn sound_for(&self, call: &'static str) -> Result<(), Fault> {
        finite(call, &[self.step.x, self.step.y, self.turn.radians(), self.scale.x, self.scale.y])
    }
}

impl Keyed for Affine {
    fn part_way(&self, to: &Self, share: f64) -> Self {
        let numbers = |a: &Self, b: &Self| {
            let (a, b) = (a.to_cols_array(), b.to_cols_array());
            Self::from_cols_array(&std::array::from_fn(|i| {
                straight(a.get(i).copied().unwrap_or(0.0), b.get(i).copied().unwrap_or(0.0), share)
            }))
        };
        if share == 0.0 || share == 1.0 {
            return if share == 0.0 { *self } else { *to };
        }
        let (Some(from), Some(end)) = (Parts::of(self), Parts::of(to)) else { return numbers(self, to) };
        let around = from.turn + (end.turn - from.turn).wrapped_signed() * share;
        Parts {
            step: from.step.part_way(&end.step, share),
            turn: around,
            scale: from.scale.part_way(&end.scale, share),
            slant: straight(from.slant, end.slant, share),
        }
        .whole()
    }

    fn sound_for(&self, call: &'static str) -> Result<(), Fault> {
        finite(call, &self.to_cols_array())
    }
}
