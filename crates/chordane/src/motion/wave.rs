//! Values that go with the phase and come round: after a whole round they are where they were.

use super::Keyed;
use crate::number::turns;

/// The place in a round, from 0 up to 1, when there are so many rounds in the whole and each begins later by a share of a round.
///
/// With a whole number of rounds the whole comes round too. A number that is not finite counts as 0.
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!([0.0, 0.25, 0.5, 1.0].map(|phase| rounds(phase, 2.0, 0.0)), [0.0, 0.5, 0.0, 0.0]);
/// assert_eq!(rounds(0.25, 1.0, 0.5), 0.75);
/// ```
#[must_use]
pub fn rounds(phase: f64, count: f64, delay: f64) -> f64 {
    let place = phase * count - delay;
    let place = place - place.floor();
    // What lies a hair below 0 would be at 1.
    if place.is_finite() && place < 1.0 { place } else { 0.0 }
}

/// From one value smoothly to another in the first half of a round, and smoothly back in the second; see [`rounds`] for more of them and
/// later ones.
///
/// Numbers, angles, points, colours, extents, poses and paths can swing: see [`Keyed`].
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!([0.0, 0.25, 0.5, 1.0].map(|phase| swing(phase, 10.0, 30.0)), [10.0, 20.0, 30.0, 10.0]);
/// assert_eq!(swing(rounds(0.25, 2.0, 0.0), deg(-20.0), deg(20.0)), deg(20.0));
/// ```
#[must_use]
pub fn swing<T: Keyed>(phase: f64, low: T, high: T) -> T {
    let share = 0.5 - 0.5 * turns(rounds(phase, 1.0, 0.0)).cos();
    low.part_way(&high, share)
}

/// A beat: smoothly to another value and back in the first half of a round, and at rest in the second.
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!([0.0, 0.25, 0.5, 0.75].map(|phase| pulse(phase, 1.0, 3.0)), [1.0, 3.0, 1.0, 1.0]);
/// ```
#[must_use]
pub fn pulse<T: Keyed>(phase: f64, low: T, high: T) -> T {
    let place = rounds(phase, 1.0, 0.0);
    if place < 0.5 { swing(place * 2.0, low, high) } else { low }
}

/// Evenly from one value to another, and with a jump back at the end of the round: without a seam where both look alike, as a full turn does.
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!([0.0, 0.25, 1.0].map(|phase| saw(phase, 0.0, 40.0)), [0.0, 10.0, 0.0]);
/// assert_eq!(saw(0.5, turns(0.0), turns(1.0)), turns(0.5));
/// ```
#[must_use]
pub fn saw<T: Keyed>(phase: f64, low: T, high: T) -> T {
    low.part_way(&high, rounds(phase, 1.0, 0.0))
}

/// One value after the other, each for the same part of a round; `None` of none.
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!([0.0, 0.3, 0.5, 1.0].map(|phase| hold(phase, &[1, 5, 9]).copied()), [Some(1), Some(1), Some(5), Some(1)]);
/// assert_eq!(hold(0.5, &[] as &[f64]), None);
/// ```
#[must_use]
pub fn hold<T>(phase: f64, values: &[T]) -> Option<&T> {
    values.get((rounds(phase, 1.0, 0.0) * values.len() as f64) as usize)
}
