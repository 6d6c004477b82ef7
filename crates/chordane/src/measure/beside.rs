//! Whether a piece of a curve runs beside another curve, decided from a few of its points.

use crate::number::Point;
use crate::path::Segment;

/// The number of equal parts between the points that are looked at.
const PARTS: usize = 6;

/// How a piece of a curve lies beside another curve.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) enum Beside {
    /// Within the tolerance all along; the parameters of the other curve opposite the ends of the piece.
    Along([f64; 2]),
    /// Crossing it once, near these parameters.
    Crossing(f64, f64),
    /// On one side, farther away than the tolerance but for an end at which it comes nearer.
    Apart,
    /// Neither, as far as can be seen.
    Unclear,
}

/// A gap that changes by less than this for a step of 1 along a piece is not taken to cross or to widen plainly.
const MIN_SLOPE: f64 = 1e-5;

/// Returns how the piece of `a` between two parameters lies beside the piece of `b` between two others. Both pieces must be
/// nearly straight and nearly parallel.
pub(super) fn beside(a: &Segment, [s0, s1]: [f64; 2], b: &Segment, [t0, t1]: [f64; 2], off: f64) -> Beside {
    let (origin, chord) = (b.at(t0), b.at(t1) - b.at(t0));
    let mut gaps = [0.0; PARTS + 1];
    let mut feet = [0.0; PARTS + 1];
    for (i, (gap, foot)) in gaps.iter_mut().zip(&mut feet).enumerate() {
        let spot = a.at(s0 + (s1 - s0) * i as f64 / PARTS as f64);
        let share = (spot - origin).dot(chord) / chord.length_squared();
        if !(-0.5..=1.5).contains(&share) {
            return Beside::Unclear;
        }
        let Some(found) = foot_of(b, spot, t0 + (t1 - t0) * share, off) else { return Beside::Unclear };
        *foot = found;
        *gap = b.velocity(found).normalize_or_zero().perp_dot(spot - b.at(found));
    }
    if gaps.iter().all(|gap| gap.abs() <= off) {
        return Beside::Along([feet[0], feet[PARTS]]);
    }
    // Between two points the gap strays from a straight line by an eighth of this, where it is smooth.
    let stray = gaps.windows(3).map(|three| match three {
        [a, b, c] => (a - 2.0 * b + c).abs(),
        _ => 0.0,
    });
    let stray = stray.fold(0.0, f64::max);
    let whole = gaps[PARTS] - gaps[0];
    let steps = gaps.windows(2).map(|two| match two {
        [a, b] => (b - a) * whole.signum(),
        _ => 0.0,
    });
    if steps.fold(f64::MAX, f64::min) > stray && whole.abs() > MIN_SLOPE * a.at(s0).distance(a.at(s1)) {
        // The gap only grows or only shrinks.
        if gaps[0] * gaps[PARTS] > 0.0 {
            return Beside::Apart;
        }
        let share = gaps[0] / -whole;
        return Beside::Crossing(s0 + (s1 - s0) * share, feet[0] + (feet[PARTS] - feet[0]) * share);
    }
    let (low, high) =
        gaps.iter().fold((f64::MAX, f64::MIN), |(low, high), gap| (low.min(*gap), high.max(*gap)));
    if low - stray > off || high + stray < -off { Beside::Apart } else { Beside::Unclear }
}

/// The parameter of the foot of the perpendicular from a spot to a curve, from a guess; `None` where there is none nearby.
fn foot_of(curve: &Segment, spot: Point, guess: f64, off: f64) -> Option<f64> {
    let mut t = guess.clamp(0.0, 1.0);
    for _ in 0..8 {
        let velocity = curve.velocity(t);
        let speed = velocity.length();
        let step = (spot - curve.at(t)).dot(velocity) / (speed * speed);
        let next = t + step;
        let beyond = (next - next.clamp(0.0, 1.0)).abs() * speed;
        if beyond.is_nan() || beyond > off {
            return None;
        }
        t = next.clamp(0.0, 1.0);
        if step.abs() * speed <= 1e-3 * off {
            return Some(t);
        }
    }
    None
}
