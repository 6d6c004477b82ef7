//! The pairs of measuring.

use std::hint::black_box;

use chordane::measure::Survey;
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

/// Cubics as people draw them: handles of 0.2 to 0.6 of the chord, turned away from it by up to 60 degrees.
fn tame_cubics(n: usize) -> Vec<Segment> {
    let mut random = Random::new(19);
    let mut one = || {
        let (from, to) = (random.point(400.0), random.point(400.0));
        let (mut handle, chord) =
            (|| (random.between(0.2, 0.6), deg(random.between(-60.0, 60.0))), to - from);
        let turned = |(share, turn): (f64, Angle), chord: Point| {
            Point::from_angle(turn.radians()).rotate(chord) * share
        };
        let (out, back) = (turned(handle(), chord), turned(handle(), chord));
        Segment::Cubic { from, control1: from + out, control2: to - back, to }
    };
    (0..n).map(|_| one()).collect()
}

/// The lengths of ten thousand cubics at random to 1e-9, against the cheapest fixed rule that reaches it for most of them.
pub(crate) fn length() -> Outcome {
    lengths("length", 2.0, &cubics(10_000))
}

/// The same of cubics as people draw them.
pub(crate) fn length_tame() -> Outcome {
    lengths("length-tame", 0.6, &tame_cubics(10_000))
}

fn lengths(name: &'static str, bar: f64, cubics: &[Segment]) -> Outcome {
    let rule = rule(48);
    compare(
        name,
        bar,
        41,
        || {
            black_box(black_box(cubics).iter().map(Segment::length).sum::<f64>());
        },
        || {
            let fixed = |segment: &Segment| {
                let Segment::Cubic { from, control1, control2, to } = *segment else { return 0.0 };
                let a = (to - from + (control1 - control2) * 3.0) * 3.0;
                let b = (from - control1 * 2.0 + control2) * 6.0;
                let c = (control1 - from) * 3.0;
                rule.iter().map(|(t, weight)| weight * ((a * *t + b) * *t + c).length()).sum::<f64>()
            };
            black_box(black_box(cubics).iter().map(fixed).sum::<f64>());
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
        2.2,
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

/// So many short sides at random over a field that grows with them, so that each crosses about as many others.
fn sides(n: usize) -> Path {
    let mut random = Random::new(23);
    let field = (n as f64).sqrt() * 10.0;
    let mut side = || {
        let from = random.point(field);
        let step = random.point(40.0) - Point::splat(20.0);
        [from, from + step]
    };
    Path::from_contours((0..n).flat_map(|_| Path::open(side()).contours().to_vec()))
}

/// All crossings of twice as many random sides against those of half: n log n stays near two.
pub(crate) fn crossings() -> Outcome {
    let (twice, once) = (sides(200_000), sides(100_000));
    compare(
        "crossings",
        2.3,
        11,
        || {
            black_box(black_box(&twice).crossings().unwrap());
        },
        || {
            black_box(black_box(&once).crossings().unwrap());
        },
    )
}

/// Ten thousand nearest-station queries on a path of ten thousand segments, against the same on a thousand: a search
/// of all segments would take ten times as long, one that halves them four thirds.
pub(crate) fn nearest() -> Outcome {
    // A curve that goes to and fro over the field, row after row.
    let survey = |rows: usize| {
        let mut random = Random::new(31);
        let step = 800.0 / rows as f64;
        let place = |row: usize, i: usize| {
            let column = if row.is_multiple_of(2) { i } else { rows - 1 - i };
            (pt(column as f64, row as f64) + random.point(0.8)) * step
        };
        let mut place = place;
        let places: Vec<Point> = (0..rows)
            .flat_map(|row| (0..rows).map(move |i| (row, i)))
            .map(|(row, i)| place(row, i))
            .collect();
        let survey = through(places).open().survey().unwrap();
        black_box(survey.nearest((0.0, 0.0)).unwrap().distance());
        survey
    };
    let (many, few) = (survey(100), survey(32));
    let mut random = Random::new(29);
    let spots: Vec<Point> = (0..10_000).map(|_| random.point(800.0)).collect();
    let ask = |survey: &Survey| {
        let sum: f64 =
            spots.iter().filter_map(|spot| survey.nearest(*spot)).map(|station| station.distance()).sum();
        black_box(sum);
    };
    compare("nearest", 2.0, 11, || ask(&many), || ask(&few))
}
