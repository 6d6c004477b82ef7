//! Lines made unsteady, as if drawn by hand.

use super::Reshape;
use super::chain::reshaped;
use super::corners::corner_distances;
use crate::ground::{Fault, FaultKind, FaultSlot, in_row};
use crate::number::Point;
use crate::path::{Contour, Path, Vertex, corner, soft, through};

/// More vertices than these fill the memory before they are seen.
const MAX_VERTICES: usize = 5_000_000;

/// A line that strays from the true one: at even places along it, it is put aside by up to an amount, by chance that a
/// seed decides.
///
/// The places are about a given length apart, a whole number of them between corners; corners move too, and stay
/// corners. The same path, numbers and seed give the same line. An amount of zero gives the path through its places.
///
/// ```
/// use chordane::prelude::*;
/// let sail = rectangle((0.0, 0.0), 80.0, 60.0);
/// let rough = sail.then(Shake::new(2.0, 10.0, 7));
/// assert_eq!(rough, sail.then(Shake::new(2.0, 10.0, 7)));
/// assert!(rough.contours()[0].vertices().all(|p| sail.distance(p).unwrap() <= 2.0 + 1e-9));
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Shake {
    /// By how much the line strays at most, in sheet units. A negative amount is a fault.
    pub amount: f64,
    /// About how far apart the places are, in sheet units. Zero and below are a fault.
    pub length: f64,
    /// The seed.
    pub seed: u64,
    /// Whether sides are straight from place to place, where they are smooth curves otherwise.
    pub jagged: bool,
}

impl Shake {
    /// By up to an amount in sheet units, at places about a length apart, from a seed. A negative amount, and a length of
    /// zero or less, are faults.
    #[must_use]
    pub fn new(amount: f64, length: f64, seed: u64) -> Self {
        Self { amount, length, seed, jagged: false }
    }

    /// How far along the places are, and which are corners.
    fn places(&self, contour: &Contour) -> Vec<(f64, bool)> {
        let (corners, length) = corner_distances(contour);
        let even = |from: f64, to: f64, least: usize| {
            let count = (((to - from) / self.length).round() as usize).max(least);
            (0..count).map(move |i| from + (to - from) * i as f64 / count as f64)
        };
        let Some(first) = corners.first().copied() else {
            // A round line needs three places to be one.
            return even(0.0, length, 3).map(|at| (at, false)).collect();
        };
        let home = contour.is_closed().then_some(first + length);
        let ends: Vec<f64> = corners.into_iter().chain(home).collect();
        let runs = ends.windows(2).flat_map(|pair| even(pair[0], pair[1], 1).enumerate());
        let mut places: Vec<(f64, bool)> = runs.map(|(i, at)| (at, i == 0)).collect();
        places.iter_mut().for_each(|(at, _)| *at = if *at > length { *at - length } else { *at });
        places.extend((!contour.is_closed()).then_some((length, true)));
        places
    }
}

impl Reshape for Shake {
    fn reshape(&self, path: &Path) -> Path {
        let check = |fault: &mut FaultSlot| {
            fault.not_negative("shaken", "amount", self.amount);
            fault.positive("shaken", "length", self.length);
        };
        reshaped("shaken", path, check, |fault| {
            let mut contours = Vec::with_capacity(path.contours().len());
            let mut number = 0;
            for contour in path.contours() {
                let survey = contour.survey();
                if survey.length() == 0.0 {
                    contours.push(contour.clone());
                    continue;
                }
                let count = survey.length() / self.length;
                if count > MAX_VERTICES as f64 {
                    let (what, limit) = ("vertices", MAX_VERTICES);
                    fault
                        .note(Fault::of("shaken", FaultKind::TooMany { what, count: count as usize, limit }));
                    return path.contours().to_vec();
                }
                let mut place = |(distance, is_corner): (f64, bool)| {
                    number += 1;
                    let at = survey.station(distance)?.point() + chance(self.seed, number) * self.amount;
                    Some(if is_corner || self.jagged { corner(at) } else { soft(at) })
                };
                let vertices: Vec<Vertex> = self.places(contour).into_iter().filter_map(&mut place).collect();
                let line = through(vertices);
                let line = if contour.is_closed() { line.close() } else { line.open() };
                fault.take_from(line.carried());
                contours.extend_from_slice(line.contours());
            }
            contours
        })
    }
}

impl Path {
    /// The path made unsteady by up to an amount at places about a length apart; see [`Shake`].
    #[must_use]
    pub fn shaken(&self, amount: f64, length: f64, seed: u64) -> Self {
        self.then(Shake::new(amount, length, seed))
    }
}

/// A step of at most 1 in any direction, for a seed and a number: even over the disc.
fn chance(seed: u64, number: u64) -> Point {
    let share = |k: u64| (in_row(seed, 2 * number + k) >> 11) as f64 / (1_u64 << 53) as f64;
    let (turn, reach) = (share(0) * std::f64::consts::TAU, share(1).sqrt());
    Point::from_angle(turn) * reach
}
