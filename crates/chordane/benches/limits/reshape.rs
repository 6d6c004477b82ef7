//! The pairs of reshaping and combining.

use std::hint::black_box;

use chordane::prelude::*;

use crate::inputs::Random;
use crate::{Outcome, compare};

/// A line of sides, quadratics, cubics and arcs in turn.
fn mixed_line(segments: usize) -> Path {
    let mut random = Random::new(29);
    let mut at = pt(0.0, 0.0);
    let mut pen = start(at);
    for i in 0..segments {
        let mut near = |size: f64| at + random.point(2.0 * size) - pt(size, size);
        let (a, b, to) = (near(20.0), near(20.0), near(20.0));
        pen = match i % 4 {
            0 => pen.line(to),
            1 => pen.quad(a, to),
            2 => pen.cubic(a, b, to),
            _ => pen.bow(to, 5.0),
        };
        at = to;
    }
    pen.open()
}

/// The outline of a line of 100,000 mixed segments, against flattening it.
pub(crate) fn outline() -> Outcome {
    let line = mixed_line(100_000);
    let outline = LineStyle { join: Join::Round, ..LineStyle::new(3.0) };
    compare(
        "outline",
        2.0,
        11,
        || {
            black_box(black_box(&line).stroke_chords(&outline, 0.1));
        },
        || {
            black_box(black_box(&line).flattened(0.1));
        },
    )
}

/// Discs in a grid, each over its eight neighbours.
fn discs(rows: usize) -> Vec<Path> {
    let mut random = Random::new(31);
    let disc = |i: usize| {
        let at = pt((i % 100) as f64, (i / 100) as f64) * 10.0 + random.point(2.0);
        circle(at, random.between(6.0, 7.0))
    };
    (0..100 * rows).map(disc).collect()
}

/// The union of 20,000 overlapping discs, against that of 10,000.
pub(crate) fn union_grid() -> Outcome {
    let (all, half) = (discs(200), discs(100));
    compare(
        "union-grid",
        2.4,
        7,
        || {
            black_box(union_all(black_box(&all)));
        },
        || {
            black_box(union_all(black_box(&half)));
        },
    )
}

/// A hundred thousand stamps along a wavy line, against copying the points transformed.
pub(crate) fn stamp() -> Outcome {
    let bow = star((0.0, 0.0), 12, 6.0, 3.0);
    let line = Path::open([(0.0, 0.0), (100_000.0, 0.0)]).waved(20.0, 400.0);
    let spacing = line.length().unwrap() / 99_999.5;
    let survey = line.survey().unwrap();
    let places: Vec<Affine> = survey
        .every(spacing)
        .map(|station| Affine::from_cols(station.tangent(), station.normal(), station.point()))
        .collect();
    assert_eq!(places.len(), 100_000);
    let stamp = Stamp::new(bow.clone()).every(spacing);
    compare(
        "stamp",
        1.1,
        11,
        || {
            black_box(black_box(&line).then(stamp.clone()));
        },
        || {
            let copies = black_box(&places).iter().map(|place| {
                let points = bow.contours()[0].vertices().map(|p| place.transform_point2(p));
                Path::closed(points)
            });
            black_box(copies.collect::<Vec<_>>());
        },
    )
}

/// A wavy line sampled in so many places, with a little unrest.
fn sampled(n: usize) -> Path {
    let mut random = Random::new(37);
    Path::open((0..n).map(|i| {
        let x = 4000.0 * i as f64 / n as f64;
        pt(x, 60.0 * (x / 50.0).sin()) + random.point(0.2)
    }))
}

/// Fitting cubics to 400,000 points, against 200,000: twice the points, twice the time.
pub(crate) fn fit() -> Outcome {
    let (all, half) = (sampled(400_000), sampled(200_000));
    compare(
        "fit",
        2.3,
        11,
        || {
            black_box(black_box(&all).curve_fitted(0.5));
        },
        || {
            black_box(black_box(&half).curve_fitted(0.5));
        },
    )
}
