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
    /// Crossing it once, at these parameters.
    Crossing(f64, f64),
    /// On one side, farther away than the tolerance but for an end at which it comes nearer.
    Apart,
    /// Neither, as far as can be seen.
    Unclear,
}

/// The least change of the gap per unit of length at which the gap counts as plainly growing or shrinking.
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
        *gap = gap_at(b, found, spot);
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
        let crossing = crossing((a, [s0, s1]), (b, [feet[0], feet[PARTS]]), [gaps[0], gaps[PARTS]], off);
        return crossing.map_or(Beside::Unclear, |(s, t)| Beside::Crossing(s, t));
    }
    let (low, high) =
        gaps.iter().fold((f64::MAX, f64::MIN), |(low, high), gap| (low.min(*gap), high.max(*gap)));
    if low - stray > off || high + stray < -off { Beside::Apart } else { Beside::Unclear }
}

/// The distance of a spot from its foot on a curve, negative on the left.
fn gap_at(curve: &Segment, foot: f64, spot: Point) -> f64 {
    curve.velocity(foot).normalize_or_zero().perp_dot(spot - curve.at(foot))
}

/// The place where the gap between two pieces is 0, from the gaps at the ends of the first, by the Illinois method. The first
/// piece is given by its parameters, the second by the feet of its ends.
fn crossing(
    (a, [mut s0, mut s1]): (&Segment, [f64; 2]),
    (b, [mut t0, mut t1]): (&Segment, [f64; 2]),
    [mut low, mut high]: [f64; 2],
    off: f64,
) -> Option<(f64, f64)> {
    let mut kept_end = 0;
    let (mut s, mut t) = if low == 0.0 { (s0, t0) } else { (s1, t1) };
    for _ in 0..60 {
        if low == 0.0 || high == 0.0 || s1 - s0 <= f64::EPSILON * s1 {
            break;
        }
        let share = low / (low - high);
        s = s0 + (s1 - s0) * share;
        let spot = a.at(s);
        t = foot_of(b, spot, t0 + (t1 - t0) * share, off)?;
        let gap = gap_at(b, t, spot);
        if gap == 0.0 {
            break;
        }
        // An end that is kept twice in a row counts half, so that the other end moves too.
        if (gap < 0.0) == (low < 0.0) {
            high *= if kept_end == 1 { 0.5 } else { 1.0 };
            (s0, t0, low, kept_end) = (s, t, gap, 1);
        } else {
            low *= if kept_end == -1 { 0.5 } else { 1.0 };
            (s1, t1, high, kept_end) = (s, t, gap, -1);
        }
    }
    (a.at(s).distance(b.at(t)) <= off).then_some((s, t))
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
