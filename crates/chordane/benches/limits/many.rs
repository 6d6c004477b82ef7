//! The pairs of doing things very often.

use std::f64::consts::TAU;
use std::hint::black_box;

use chordane::prelude::*;
use rayon::prelude::*;

use crate::inputs::Random;
use crate::{Outcome, compare};

/// A million points of a three-wheel curve, against the same sum by sine and cosine in a bare loop.
pub(crate) fn sample_wheels() -> Outcome {
    let n = 1_000_000;
    let wheels = [(80.0, 1.0, 0.0), (24.0, -7.0, 0.5), (9.0, 13.0, 1.0)];
    let lace = wheel(wheels[0].0, wheels[0].1, rad(wheels[0].2))
        .wheel(wheels[1].0, wheels[1].1, rad(wheels[1].2))
        .wheel(wheels[2].0, wheels[2].1, rad(wheels[2].2));
    compare(
        "sample-wheels",
        0.25,
        21,
        || {
            black_box(black_box(&lace).points(n));
        },
        || {
            let mut points = Vec::with_capacity(n);
            for i in 0..n {
                let share = i as f64 / n as f64;
                let mut sum = Point::ZERO;
                for (radius, turns, start) in black_box(&wheels) {
                    let (sin, cos) = (turns * share * TAU + start).sin_cos();
                    sum += pt(cos, sin) * *radius;
                }
                points.push(sum);
            }
            black_box(points);
        },
    )
}

/// A kite of a seed, with some work to it.
fn kite(seed: u64) -> Sheet {
    let mut random = Random::new(seed);
    let mut lace = wheel(90.0, 1.0, deg(0.0));
    for _ in 0..3 {
        lace = lace.wheel(random.between(5.0, 30.0), random.between(-12.0, 12.0).round(), deg(0.0));
    }
    let dots = copies_at(circle((0.0, 0.0), 2.0).fill("#d9a441"), golden_places(300, 8.0));
    let page = sheet(320.0, 320.0).centred().ground("#20303c");
    page.add(dots).add(lace.path().waved(3.0, 9.0).stroke("#f4efe6", 1.5))
}

/// A contact sheet of 64 seeds on two threads, against half of the time that it takes on one.
pub(crate) fn threads() -> Outcome {
    let sheet_of_64 = || {
        let tiles: Vec<(String, Sheet)> =
            (0..64_u64).into_par_iter().map(|seed| (format!("seed {seed}"), kite(seed))).collect();
        contact_sheet(&tiles, 10, None).pixels().unwrap()
    };
    let pool = |threads| rayon::ThreadPoolBuilder::new().num_threads(threads).build().unwrap();
    let (one, two) = (pool(1), pool(2));
    let mut outcome = compare(
        "threads",
        1.15,
        11,
        || {
            black_box(two.install(sheet_of_64));
        },
        || {
            black_box(one.install(sheet_of_64));
        },
    );
    outcome.yardstick *= 0.5;
    outcome
}
