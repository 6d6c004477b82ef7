//! The curves of easings: by the algorithms of the recommendation "CSS Easing Functions", and springs.

use std::sync::Arc;

use super::spring::Spring;
use crate::ground::{Fault, FaultKind, Given, named};

#[derive(Clone, Debug, PartialEq)]
pub(super) enum Curve {
    Linear,
    /// The two inner control points of a cubic from (0, 0) to (1, 1).
    Bezier([f64; 4]),
    Steps(u32, Jump),
    /// Places in time, never falling, and what is reached there.
    Points(Arc<[(f64, f64)]>),
    Spring(Spring),
}

/// Where steps jump.
///
/// ```
/// use chordane::prelude::*;
/// let at_start = |jump| Easing::steps(3, jump).at(0.0);
/// assert_eq!((at_start(Jump::End), at_start(Jump::Start)), (0.0, 1.0 / 3.0));
/// ```
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Jump {
    /// At the end of each step.
    #[default]
    End,
    /// At the start of each.
    Start,
    /// Neither at the very start nor at the very end.
    None,
    /// At both.
    Both,
}

named! {
    Jump: "kind of jump";
    "jump-end" => End, "jump-start" => Start, "jump-none" => None, "jump-both" => Both, "end" => End,
    "start" => Start
}

/// So many steps at most.
const MAX_STEPS: usize = 1_000_000;

impl Curve {
    pub(super) fn cubic_bezier(x1: f64, y1: f64, x2: f64, y2: f64) -> Result<Self, Fault> {
        for (what, value) in [("first x", x1), ("second x", x2)] {
            if !(0.0..=1.0).contains(&value) {
                let kind = FaultKind::OutOfRange { what, value, low: 0.0, high: 1.0 };
                return Err(Fault::of("cubic-bezier", kind));
            }
        }
        for (what, value) in [("first y", y1), ("second y", y2)] {
            if !value.is_finite() {
                return Err(Fault::of("cubic-bezier", FaultKind::NotFinite { what, value }));
            }
        }
        Ok(Self::Bezier([x1, y1, x2, y2]))
    }

    pub(super) fn steps(count: usize, jump: Given<Jump>) -> Result<Self, Fault> {
        let jump = jump.resolve("steps")?;
        let least = if jump == Jump::None { 2 } else { 1 };
        if count < least || count > MAX_STEPS {
            let (low, high) = (least as f64, MAX_STEPS as f64);
            let kind = FaultKind::OutOfRange { what: "number of steps", value: count as f64, low, high };
            return Err(Fault::of("steps", kind));
        }
        Ok(Self::Steps(count as u32, jump))
    }

    pub(super) fn through(points: impl IntoIterator<Item = (f64, f64)>) -> Result<Self, Fault> {
        let points: Arc<[(f64, f64)]> = points.into_iter().collect();
        let told = |message: &str| Err(Fault::new("linear", message));
        if points.len() < 2 {
            return told("an easing through points needs two of them at least; give the first and the last");
        }
        if points.iter().any(|(time, way)| !time.is_finite() || !way.is_finite()) {
            return told("a point is not finite; give finite numbers");
        }
        if points.windows(2).any(|pair| matches!(pair, [a, b] if a.0 > b.0)) {
            return told("the points are not in the order of their times; sort them");
        }
        Ok(Self::Points(points))
    }

    pub(super) fn spring(stiffness: f64, damping: f64) -> Result<Self, Fault> {
        for (what, value) in [("stiffness", stiffness), ("damping", damping)] {
            if !(1e-6..=1e9).contains(&value) {
                let kind = FaultKind::OutOfRange { what, value, low: 1e-6, high: 1e9 };
                return Err(Fault::of("spring", kind));
            }
        }
        // Hundreds of swings could not be seen.
        let least = 0.01 * 2.0 * stiffness.sqrt();
        if damping < least {
            let kind = FaultKind::OutOfRange { what: "damping", value: damping, low: least, high: f64::MAX };
            return Err(Fault::of("spring", kind));
        }
        Ok(Self::Spring(Spring::new(stiffness, damping)))
    }

    /// The share of the way at a share of the time.
    pub(super) fn at(&self, share: f64) -> f64 {
        match self {
            Self::Linear => share,
            Self::Bezier(control) => bezier(*control, share),
            Self::Steps(count, jump) => stepped(f64::from(*count), *jump, share),
            Self::Points(points) => along(points, share),
            Self::Spring(_) if share <= 0.0 || share >= 1.0 => share.clamp(0.0, 1.0),
            Self::Spring(spring) => spring.at(share),
        }
    }
}

/// The y of a cubic at an x; beyond its ends it goes on straight.
fn bezier([x1, y1, x2, y2]: [f64; 4], x: f64) -> f64 {
    if x <= 0.0 || x >= 1.0 {
        // The direction of the first control point that is not the end itself.
        let slope = |places: [(f64, f64); 3]| {
            let found = places.into_iter().find(|place| *place != (0.0, 0.0));
            found.map_or(0.0, |(dx, dy)| if dx == 0.0 { 0.0 } else { dy / dx })
        };
        return if x <= 0.0 {
            x * slope([(x1, y1), (x2, y2), (1.0, 1.0)])
        } else {
            1.0 + (x - 1.0) * slope([(1.0 - x2, 1.0 - y2), (1.0 - x1, 1.0 - y1), (1.0, 1.0)])
        };
    }
    let value = |a: f64, b: f64, t: f64| {
        let u = 1.0 - t;
        3.0 * u * u * t * a + 3.0 * u * t * t * b + t * t * t
    };
    let steepness = |t: f64| {
        let u = 1.0 - t;
        3.0 * u * u * x1 + 6.0 * u * t * (x2 - x1) + 3.0 * t * t * (1.0 - x2)
    };
    // x never falls along the curve. Newton's steps, kept between bounds that are halved where a step leaves them.
    let (mut low, mut high, mut t) = (0.0, 1.0, x);
    for _ in 0..64 {
        let off = value(x1, x2, t) - x;
        if off.abs() < 1e-15 {
            break;
        }
        if off < 0.0 {
            low = t
        } else {
            high = t
        }
        let next = t - off / steepness(t);
        t = if next > low && next < high { next } else { (low + high) / 2.0 };
        if high - low < 1e-16 {
            break;
        }
    }
    value(y1, y2, t)
}

/// The algorithm of the recommendation, without its flag for times just before the beginning.
fn stepped(count: f64, jump: Jump, share: f64) -> f64 {
    let jumps = match jump {
        Jump::End | Jump::Start => count,
        Jump::None => count - 1.0,
        Jump::Both => count + 1.0,
    };
    let mut step = (share * count).floor();
    if matches!(jump, Jump::Start | Jump::Both) {
        step += 1.0;
    }
    if share >= 0.0 && step < 0.0 {
        step = 0.0;
    }
    if share <= 1.0 && step > jumps {
        step = jumps;
    }
    step / jumps
}

fn along(points: &[(f64, f64)], share: f64) -> f64 {
    // Of two points at one time the later counts.
    let after = points.partition_point(|(time, _)| *time <= share);
    let last = points.len().saturating_sub(2);
    let begin = after.saturating_sub(1).min(last);
    let (Some(a), Some(b)) = (points.get(begin), points.get(begin + 1)) else { return share };
    if a.0 == b.0 {
        return if share < a.0 { a.1 } else { b.1 };
    }
    a.1 + (share - a.0) / (b.0 - a.0) * (b.1 - a.1)
}

#[cfg(test)]
mod tests {
    use super::super::Easing;

    #[test]
    fn cubics_are_those_of_the_recommendation() {
        for [x1, y1, x2, y2] in [
            [0.25, 0.1, 0.25, 1.0],
            [0.42, 0.0, 1.0, 1.0],
            [0.0, 0.0, 0.58, 1.0],
            [0.0, 2.0, 1.0, -1.0],
            [1.0, 0.0, 0.0, 1.0],
        ] {
            let easing = Easing::cubic_bezier(x1, y1, x2, y2);
            // Points of the curve by its parameter.
            for i in 0..=1000 {
                let t = f64::from(i) / 1000.0;
                let of = |a: f64, b: f64| {
                    3.0 * (1.0 - t).powi(2) * t * a + 3.0 * (1.0 - t) * t * t * b + t.powi(3)
                };
                let (x, y) = (of(x1, x2), of(y1, y2));
                // Where the curve is upright a hair of x is much of y.
                let steep =
                    3.0 * (1.0 - t).powi(2) * x1 + 6.0 * (1.0 - t) * t * (x2 - x1) + 3.0 * t * t * (1.0 - x2);
                if steep > 1e-4 {
                    assert!(
                        (easing.at(x) - y).abs() < 1e-9,
                        "{x1} {y1} {x2} {y2} at {x}: {} {y}",
                        easing.at(x)
                    );
                }
            }
        }
        // Beyond the ends it goes on straight.
        assert_eq!(Easing::from("ease-in").at(-0.5), 0.0);
        assert_eq!(Easing::cubic_bezier(0.5, 1.0, 1.0, 1.0).at(-0.5), -1.0);
        assert_eq!(Easing::cubic_bezier(0.0, 0.0, 0.5, 0.0).at(1.5), 2.0);
        assert_eq!(Easing::cubic_bezier(0.0, 1.0, 1.0, 0.0).at(1.5), 1.0);
    }

    #[test]
    fn steps_jump_where_the_recommendation_says() {
        let at = |count: usize, jump: &str| {
            [-0.1, 0.0, 0.3, 0.5, 1.0, 1.1].map(|x| Easing::steps(count, jump).at(x))
        };
        assert_eq!(at(2, "jump-end"), [-0.5, 0.0, 0.0, 0.5, 1.0, 1.0]);
        assert_eq!(at(2, "start"), [0.0, 0.5, 0.5, 1.0, 1.0, 1.5]);
        assert_eq!(at(2, "jump-none"), [-1.0, 0.0, 0.0, 1.0, 1.0, 2.0]);
        assert_eq!(at(3, "jump-both"), [0.0, 0.25, 0.25, 0.5, 1.0, 1.0]);
    }

    #[test]
    fn points_are_gone_through_straight() {
        let easing = Easing::through([(0.0, 0.0), (0.5, 0.2), (0.5, 0.8), (1.0, 1.0)]);
        assert_eq!([0.25, 0.5, 0.75, 2.0, -1.0].map(|x| easing.at(x)), [0.1, 0.8, 0.9, 1.4, -0.4]);
        assert_eq!(Easing::through([(0.5, 0.1), (0.5, 0.9)]).at(0.5), 0.9);
    }
}
