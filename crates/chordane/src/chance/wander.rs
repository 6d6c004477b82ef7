//! Smooth chance: gradient noise.
//!
//! Source: K. Perlin, Improving noise, 2002. The slopes at whole numbers come from the dice's key, so that they do not
//! depend on what was thrown before.

use std::f64::consts::{FRAC_1_SQRT_2, TAU};

use super::Dice;
use crate::ground::{GOLDEN_GAMMA, mixed};

/// From 0 to 1 with no slope and no bend at either end.
fn ease(t: f64) -> f64 {
    t * t * t * (t * (t * 6.0 - 15.0) + 10.0)
}

/// The whole number below, and how far above it.
fn cut(value: f64) -> (i64, f64) {
    let whole = value.floor();
    (whole as i64, value - whole)
}

/// Offset of the noise lattice: the noise is zero once per unit, and this moves the zeros away from whole numbers, the inputs people try first.
const LATTICE_OFFSET: (f64, f64) = (0.37, 0.61);

impl Dice {
    fn bits(&self, x: i64, y: i64) -> u64 {
        mixed(mixed(self.key ^ (x as u64).wrapping_mul(GOLDEN_GAMMA)) ^ (y as u64).wrapping_mul(GOLDEN_GAMMA))
    }

    /// A number from -1 to 1 that wanders smoothly as `x` grows: about one hill or dale for each
    /// unit. 0 where `x` is not finite. Throws nothing: the same `x` gives the same number.
    ///
    /// ```
    /// use chordane::chance::Dice;
    /// let dice = Dice::new(7, "gust");
    /// assert!(dice.wander(3.0) != dice.wander(4.0));
    /// assert!((dice.wander(3.4) - dice.wander(3.401)).abs() < 0.01);
    /// ```
    #[must_use]
    pub fn wander(&self, x: f64) -> f64 {
        if !x.is_finite() {
            return 0.0;
        }
        let (whole, t) = cut(x + LATTICE_OFFSET.0);
        let slope = |x: i64| (self.bits(x, 0) >> 11) as f64 / (1_u64 << 52) as f64 - 1.0;
        let (before, behind) = (slope(whole) * t, slope(whole.wrapping_add(1)) * (t - 1.0));
        2.0 * (before + (behind - before) * ease(t))
    }

    /// As [`Dice::wander`], over a plane.
    #[must_use]
    pub fn wander_over(&self, x: f64, y: f64) -> f64 {
        if !x.is_finite() || !y.is_finite() {
            return 0.0;
        }
        let ((column, u), (row, v)) = (cut(x + LATTICE_OFFSET.0), cut(y + LATTICE_OFFSET.1));
        // Eight directions of the same length.
        let hill = |dx: i64, dy: i64| {
            let (x, y) = (u - dx as f64, v - dy as f64);
            let bits = self.bits(column.wrapping_add(dx), row.wrapping_add(dy));
            let sign = |bit: u64| if bits >> bit & 1 == 0 { 1.0 } else { -1.0 };
            match bits >> 60 & 3 {
                0 => sign(0) * x,
                1 => sign(0) * y,
                _ => (sign(0) * x + sign(1) * y) * FRAC_1_SQRT_2,
            }
        };
        let (eu, ev) = (ease(u), ease(v));
        let upper = hill(0, 0) + (hill(1, 0) - hill(0, 0)) * eu;
        let lower = hill(0, 1) + (hill(1, 1) - hill(0, 1)) * eu;
        ((upper + (lower - upper) * ev) * std::f64::consts::SQRT_2).clamp(-1.0, 1.0)
    }

    /// As [`Dice::wander`], but it comes round: a phase of 1 gives what 0 gave, without a jump. `busy` says how much goes
    /// on in one round: about so many hills and dales.
    ///
    /// ```
    /// use chordane::chance::Dice;
    /// let dice = Dice::new(7, "gust");
    /// assert_eq!(dice.wander_loop(0.25, 5.0), dice.wander_loop(1.25, 5.0));
    /// ```
    #[must_use]
    pub fn wander_loop(&self, phase: f64, busy: f64) -> f64 {
        let share = phase - phase.floor();
        // Round a circle on the plane, which is so long.
        let radius = busy / TAU;
        let (x, y) = (libm::cos(share * TAU), libm::sin(share * TAU));
        self.wander_over(radius * x, radius * y)
    }
}
