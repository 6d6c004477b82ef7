//! Checks of shapes: reshapes, combinations, the filler.

use std::time::{Duration, Instant};

use arbitrary::{Result, Unstructured};
use chordane::ground::{Budget, Stopped};
use chordane::prelude::*;
use chordane::raster::DrawError;

use crate::drawing::Numbers;

#[path = "../../tests/library/coverage.rs"]
mod coverage;

/// A chain of reshapes ends at a path with more vertices: many short runs find more than a few long ones.
const MAX_VERTICES: usize = 400;

/// The time after which a chain is stopped.
const MAX_TIME: Duration = Duration::from_millis(100);

/// Whatever a path is put through: what comes out is finite and can be measured, written and drawn, or it carries a fault; and
/// it ends in time.
pub fn reshapes(bytes: &[u8]) {
    let mut bytes = Unstructured::new(bytes);
    let Ok((path, numbers)) = start_of_chain(&mut bytes) else { return };
    let begin = Instant::now();
    let budget = Budget::new(move || (begin.elapsed() > MAX_TIME).then(|| Stopped::new("enough")));
    budget.within(|| {
        let mut path = path;
        for _ in 0..4 {
            let Ok(next) = step(numbers, &mut bytes, &path) else { break };
            path = next;
            if path.contours().iter().map(|contour| contour.vertices().count()).sum::<usize>() > MAX_VERTICES
            {
                break;
            }
            if path.sound().is_ok() {
                for contour in path.contours() {
                    assert!(contour.vertices().all(|p| p.is_finite()), "{}", path.data());
                }
            }
        }
        outlives(&path);
    });
}

fn start_of_chain(bytes: &mut Unstructured<'_>) -> Result<(Path, Numbers)> {
    let numbers = if bytes.arbitrary()? { Numbers::Any } else { Numbers::Near(100.0) };
    Ok((numbers.path(bytes)?, numbers))
}

/// The path after one more reshape.
fn step(numbers: Numbers, bytes: &mut Unstructured<'_>, path: &Path) -> Result<Path> {
    let mut one = || numbers.one(bytes);
    let [a, b, c] = [one()?, one()?, one()?];
    let other = |bytes: &mut Unstructured<'_>| numbers.path(bytes);
    let share = |number: f64| number.abs() / 100.0;
    let line = LineStyle {
        cap: [Cap::Butt, Cap::Round, Cap::Square][bytes.int_in_range(0..=2)?],
        join: [Join::Mitre, Join::Round, Join::Bevel][bytes.int_in_range(0..=2)?],
        ..LineStyle::new(a)
    };
    Ok(match bytes.int_in_range(0..=24)? {
        0 => path.rounded(a),
        1 => path.then(Round { eased: true, ..Round::new(a) }),
        2 => path.dashed([a, b]),
        3 => path.then(Dash { offset: c, fit: DashFit::Whole, ..Dash::new([a, b]) }),
        4 => path.trimmed(share(a), share(b)),
        5 => path.then(Trim { distances: true, each: true, ..Trim::new(a, b) }),
        6 => path.then(line),
        7 => path.offset(a),
        8 => path.then(Offset { both: true, ..Offset::new(a) }),
        9 => path.nibbed(&Nib { slant: deg(c), ..Nib::new(a, b) }, 0.05),
        10 => path.shaken(a, b, 7),
        11 => path.waved(a, b),
        12 => path.rippled(a, b),
        13 => path.zigzagged(a, b),
        14 => path.scalloped(a, b),
        15 => path.toothed(a, b),
        16 => path.coiled(a, b),
        17 => path.thinned(a),
        18 => path.curve_fitted(a),
        19 => path.mirrored((a, b), deg(c)),
        20 => path.stamped(&other(bytes)?, a),
        21 => path.bent(&other(bytes)?),
        22 => path.morphed(&other(bytes)?, share(a)),
        23 => path.then(line.tapered(move |share| b + (c - b) * share)),
        _ => path.joined(a).turn_holes().simplified(),
    })
}

/// What is asked of every path. Whether it is as it should be is for other checks.
pub(crate) fn outlives(path: &Path) {
    let page = sheet(20.0, 16.0).add(path.clone().fill("teal").stroke("black", 1.5));
    if path.sound().is_ok() {
        let size = |contour: &Contour| contour.bounds().size().max_element();
        let size = path.contours().iter().map(size).fold(0.0, f64::max);
        // What is lost to rounding far from the origin, and to underflow, is not to be had.
        let far = path.control_bounds().map_or(0.0, |b| b.min.abs().max(b.max.abs()).max_element());
        if let Ok(length) = path.length() {
            let least = 0.99 * size - 1e-9 * far - 1e-150;
            assert!(length >= least, "the length {length} of {size}: {}", path.data());
        }
        let _ = (path.area(), path.centroid(), path.inside((0.5, 0.7)), path.distance((3.0, 4.0)));
        if let Ok(svg) = page.svg() {
            assert!(!svg.contains("NaN") && !svg.contains("inf"), "{svg}");
        }
    } else {
        assert!(page.svg().is_err(), "{}", path.data());
    }
    match page.pixels() {
        Ok(_) | Err(DrawError::Fault(_)) => {}
        Err(other) => panic!("{other}"),
    }
}

/// Areas add up, and spots lie in what is combined as they do in its parts.
pub fn combining(bytes: &[u8]) {
    let mut bytes = Unstructured::new(bytes);
    let Ok((a, b)) = pair(&mut bytes) else { return };
    if a.sound().is_err() || b.sound().is_err() {
        return;
    }
    // So much of 100 by 100 may be amiss.
    const SAME: f64 = 1e-3;
    let same = |x: f64, y: f64, what: &str| {
        assert!(
            (x - y).abs() <= SAME,
            "{what}: {x} and {y}, of {:?} {} and {:?} {}",
            a.fill_rule(),
            a.data(),
            b.fill_rule(),
            b.data()
        );
    };
    let area = |path: &Path| {
        path.sound()
            .map(Path::signed_area)
            .unwrap_or_else(|fault| panic!("{fault}: {} {}", a.data(), b.data()))
    };
    let (union, both) = (a.union(&b), a.intersection(&b));
    let (of_a, of_b) = (area(&a.simplified()), area(&b.simplified()));
    same(area(&union) + area(&both), of_a + of_b, "one and the other are the union and what they share");
    same(area(&a.difference(&b)), of_a - area(&both), "less what they share");
    same(area(&a.xor(&b)), area(&union) - area(&both), "either, not both");
    same(of_a, a.area().unwrap_or(f64::NAN), "the painted area");
    // Filling closes what is open.
    let (rim_a, rim_b) = (a.close(), b.close());
    for _ in 0..24 {
        let Ok(spot) = Numbers::Near(100.0).point(&mut bytes) else { break };
        let far = |path: &Path| path.distance(spot).is_ok_and(|distance| distance > 1e-3);
        if far(&rim_a) && far(&rim_b) {
            let (in_a, in_b) = (a.inside(spot), b.inside(spot));
            let given = (union.inside(spot), both.inside(spot));
            assert_eq!(given, (in_a || in_b, in_a && in_b), "{spot} of {} and {}", a.data(), b.data());
        }
    }
}

fn pair(bytes: &mut Unstructured<'_>) -> Result<(Path, Path)> {
    let numbers = Numbers::Near(100.0);
    Ok((numbers.path(bytes)?, numbers.path(bytes)?))
}

/// What each pixel is covered by, against counting spots.
pub fn filling(bytes: &[u8]) {
    const SIDE: u32 = 5;
    let Ok(path) = Numbers::Near(f64::from(SIDE)).path(&mut Unstructured::new(bytes)) else { return };
    if path.sound().is_err() {
        return;
    }
    let drawn = coverage::drawn_coverage(path.clone().fill("black"), SIDE);
    let sides = path.flattened(0.005);
    for (place, share) in drawn.into_iter().enumerate() {
        let (x, y) = (place as u32 % SIDE, place as u32 / SIDE);
        if (share - coverage::counted_coverage(&sides, x, y, 8)).abs() > 0.06 {
            let counted = coverage::counted_coverage(&sides, x, y, 200);
            assert!(
                (share - counted).abs() <= 0.02,
                "pixel ({x}, {y}): drawn {share}, counted {counted}, of {:?} {}",
                path.fill_rule(),
                path.data()
            );
        }
    }
}
