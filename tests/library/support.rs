//! What the tests share: seeded random paths.

#![allow(dead_code, reason = "each test file uses its part")]

use chordane::prelude::*;
use proptest::prelude::*;

/// A quarter of this many cases from a fixed seed: enough to notice what breaks outright. `PROPTEST_CASES` sets the number for a longer run,
/// `PROPTEST_RNG_SEED` the seed. A case that fails is printed; it becomes a test with a name.
pub(crate) fn cases(cases: u32) -> ProptestConfig {
    let plain = ProptestConfig::default();
    let asked = |name: &str| std::env::var(name).is_ok();
    ProptestConfig {
        cases: if asked("PROPTEST_CASES") { plain.cases } else { cases.div_ceil(4) },
        rng_seed: if asked("PROPTEST_RNG_SEED") {
            plain.rng_seed
        } else {
            proptest::test_runner::RngSeed::Fixed(0x5ce77)
        },
        failure_persistence: None,
        ..plain
    }
}

/// A coordinate within a small picture, now and then one that repeats or lies on a pixel's edge.
pub(crate) fn coordinate(size: f64) -> impl Strategy<Value = f64> {
    prop_oneof![
        6 => -0.25 * size..1.25 * size,
        1 => (0..=size as i32).prop_map(f64::from),
        1 => (0..=2 * size as i32).prop_map(|half| f64::from(half) * 0.5),
    ]
}

pub(crate) fn point(size: f64) -> impl Strategy<Value = Point> {
    (coordinate(size), coordinate(size)).prop_map(|(x, y)| pt(x, y))
}

/// One step of the pen.
#[derive(Clone, Debug)]
pub(crate) enum Step {
    Line(Point),
    Quad(Point, Point),
    Cubic(Point, Point, Point),
    ArcAbout(Point, f64),
}

pub(crate) fn step(size: f64) -> impl Strategy<Value = Step> {
    prop_oneof![
        3 => point(size).prop_map(Step::Line),
        1 => (point(size), point(size)).prop_map(|(a, b)| Step::Quad(a, b)),
        1 => (point(size), point(size), point(size)).prop_map(|(a, b, c)| Step::Cubic(a, b, c)),
        1 => (point(size), -400.0..400.0).prop_map(|(a, s)| Step::ArcAbout(a, s)),
    ]
}

pub(crate) fn drawn(start_at: Point, steps: &[Step], closed: bool) -> Path {
    let pen = steps.iter().fold(start(start_at), |pen, step| match step {
        Step::Line(to) => pen.line(*to),
        Step::Quad(control, to) => pen.quad(*control, *to),
        Step::Cubic(a, b, to) => pen.cubic(*a, *b, *to),
        Step::ArcAbout(centre, sweep) => pen.arc_about(*centre, deg(*sweep)),
    });
    if closed { pen.close() } else { pen.open() }
}

/// A path of one to three contours of any kind of segment.
pub(crate) fn any_path(size: f64) -> impl Strategy<Value = Path> {
    let contour = (point(size), prop::collection::vec(step(size), 1..6), any::<bool>());
    let contour = contour.prop_map(|(at, steps, closed)| drawn(at, &steps, closed));
    (prop::collection::vec(contour, 1..4), any::<bool>()).prop_map(|(parts, even_odd)| {
        let rule = if even_odd { FillRule::EvenOdd } else { FillRule::Nonzero };
        parts.iter().fold(Path::empty(), |path, part| path.and(part)).with_fill_rule(rule)
    })
}
