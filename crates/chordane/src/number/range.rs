//! Numbers in ranges.

/// A number kept from a low one to a high one. Unlike `f64::clamp` it stops at nothing: where the low one is the higher, the high
/// one is given, and what is not a number counts as far off.
pub(crate) fn kept(value: f64, low: f64, high: f64) -> f64 {
    value.max(low).min(high)
}

/// A value of one range turned into the same place of another: the range's start and end, either way round. Beyond the
/// ends it goes on in proportion.
///
/// A range without a size gives the start of the other.
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!(rescale(5.0, (0.0, 10.0), (100.0, 300.0)), 200.0);
/// assert_eq!(rescale(2.5, (0.0, 10.0), (1.0, 0.0)), 0.75);
/// assert_eq!(rescale(7.0, (3.0, 3.0), (1.0, 2.0)), 1.0);
/// ```
#[must_use]
pub fn rescale(value: f64, from: (f64, f64), to: (f64, f64)) -> f64 {
    let size = from.1 - from.0;
    if size == 0.0 {
        return to.0;
    }
    let share = (value - from.0) / size;
    // Exact at both ends.
    to.0 * (1.0 - share) + to.1 * share
}

/// A smooth step: 0 up to one number, 1 from another on, and between them the curve 3 t^2 - 2 t^3, which is level at both
/// ends. Where the two are one number, a plain step.
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!([0.0, 2.0, 3.0, 4.0, 9.0].map(|x| smoothstep(2.0, 4.0, x)), [0.0, 0.0, 0.5, 1.0, 1.0]);
/// ```
#[must_use]
pub fn smoothstep(low: f64, high: f64, value: f64) -> f64 {
    if low == high {
        return if value < low { 0.0 } else { 1.0 };
    }
    let t = ((value - low) / (high - low)).clamp(0.0, 1.0);
    t * t * (3.0 - 2.0 * t)
}
