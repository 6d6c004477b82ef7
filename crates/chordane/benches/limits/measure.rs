//! The pairs of measuring.

use std::hint::black_box;

use chordane::prelude::*;

use crate::inputs::Random;
use crate::{Outcome, compare};

fn cubics(n: usize) -> Vec<Segment> {
    let mut random = Random::new(17);
    let mut point = || random.point(400.0);
    (0..n)
        .map(|_| Segment::Cubic { from: point(), control1: point(), control2: point(), to: point() })
        .collect()
}

/// The places and weights of a Gauss-Legendre rule on 0 to 1.
fn rule(n: usize) -> Vec<(f64, f64)> {
    let place = |i: usize| {
        let mut x = (std::f64::consts::PI * (i as f64 + 0.75) / (n as f64 + 0.5)).cos();
        let mut slope = 1.0;
        for _ in 0..50 {
            let (mut before, mut value) = (0.0, 1.0);
            for k in 1..=n {
                let k = k as f64;
                (before, value) = (value, ((2.0 * k - 1.0) * x * value - (k - 1.0) * before) / k);
            }
            slope = n as f64 * (x * value - before) / (x * x - 1.0);
            x -= value / slope;
        }
        (0.5 + 0.5 * x, 1.0 / ((1.0 - x * x) * slope * slope))
    };
    (0..n).map(place).collect()
}

/// The lengths of ten thousand cubics to 1e-9, against the cheapest fixed rule that reaches it for most of them.
pub(crate) fn length() -> Outcome {
    let cubics = cubics(10_000);
    let rule = rule(48);
    compare(
        "length",
        0.6,
        41,
        || {
            black_box(black_box(&cubics).iter().map(Segment::length).sum::<f64>());
        },
        || {
            let fixed = |segment: &Segment| {
                let Segment::Cubic { from, control1, control2, to } = *segment else { return 0.0 };
                let a = (to - from + (control1 - control2) * 3.0) * 3.0;
                let b = (from - control1 * 2.0 + control2) * 6.0;
                let c = (control1 - from) * 3.0;
                rule.iter().map(|(t, weight)| weight * ((a * *t + b) * *t + c).length()).sum::<f64>()
            };
            black_box(black_box(&cubics).iter().map(fixed).sum::<f64>());
        },
    )
}

/// A million even stations on a surveyed path, against evaluating the same curve at as many known parameters.
pub(crate) fn station() -> Outcome {
    let n = 1_000_000;
    let curve = through(cubics(100).iter().map(|segment| segment.at(0.0))).close();
    let survey = curve.survey().unwrap();
    let segments: Vec<Segment> = curve.segments().collect();
    let known: Vec<(usize, f64)> =
        (0..n).map(|i| (i * segments.len() / n, (i % 10_000) as f64 / 1e4)).collect();
    compare(
        "station",
        3.0,
        21,
        || {
            black_box(black_box(&survey).split(n, true).map(|station| station.point()).sum::<Point>());
        },
        || {
            let at = |(segment, t): &(usize, f64)| segments[*segment].at(*t);
            black_box(black_box(&known).iter().map(at).sum::<Point>());
        },
    )
}
