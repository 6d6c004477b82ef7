//! Spirals.

use std::f64::consts::TAU;

use super::wheels::FINE;
use crate::ground::FaultSlot;
use crate::number::{IntoPoint, Point, polar, pt, turns};
use crate::path::smooth;
use crate::path::{Contour, Path};

/// More turns than these only fill a disc.
const MAX_TURNS: usize = 100_000;

/// A spiral of even spacing (Archimedes), from the inner to the outer radius in the given number of turns.
///
/// It begins at the centre's right and runs clockwise as seen; negative turns run the other way. The inner radius may be
/// the larger one. In few cubics, nowhere farther from the spiral than a fifty-thousandth of the larger radius;
/// [`Path::flattened`] gives sides. No turns give an empty path; a negative radius is a fault.
///
/// ```
/// use chordane::prelude::*;
/// let line = spiral((0.0, 0.0), 5.0, 60.0, 4.0);
/// assert_eq!(line.contours()[0].start(), pt(5.0, 0.0));
/// ```
#[must_use]
pub fn spiral(centre: impl IntoPoint, inner: f64, outer: f64, turns: f64) -> Path {
    let (call, centre) = ("spiral", centre.into_point());
    let mut fault = FaultSlot::default();
    let sound = given(&mut fault, call, centre, inner, outer, turns);
    let at = |angle: f64| {
        let (sin, cos) = angle.sin_cos();
        let growth = (outer - inner) / (TAU * turns);
        let radius = inner + growth * angle;
        (centre + pt(cos, sin) * radius, pt(-sin, cos) * radius + pt(cos, sin) * growth)
    };
    drawn(call, fault, sound, inner.max(outer), turns, at)
}

/// A spiral that grows by the same factor in each turn (Bernoulli's logarithmic one), from the inner to the outer radius.
///
/// As [`spiral`] otherwise; a radius of zero is a fault, since no factor leads away from it.
///
/// ```
/// use chordane::prelude::*;
/// let line = growing_spiral((0.0, 0.0), 5.0, 40.0, 3.0);
/// assert!((line.contours()[0].end().length() - 40.0).abs() < 1e-9);
/// ```
#[must_use]
pub fn growing_spiral(centre: impl IntoPoint, inner: f64, outer: f64, turns: f64) -> Path {
    let (call, centre) = ("growing_spiral", centre.into_point());
    let mut fault = FaultSlot::default();
    let sound = given(&mut fault, call, centre, inner, outer, turns)
        && fault.positive(call, "inner radius", inner) & fault.positive(call, "outer radius", outer);
    let pace = (outer / inner).ln() / (TAU * turns);
    let at = |angle: f64| {
        let (sin, cos) = angle.sin_cos();
        let radius = inner * (pace * angle).exp();
        (centre + pt(cos, sin) * radius, (pt(-sin, cos) + pt(cos, sin) * pace) * radius)
    };
    drawn(call, fault, sound, inner.max(outer), turns, at)
}

/// A spiral of straight sides, with the given number to a turn: its corners lie on [`spiral`]'s curve.
///
/// Fewer than 2 sides to a turn, or no turns, give an empty path; a negative radius is a fault.
///
/// ```
/// use chordane::prelude::*;
/// let square = sided_spiral((0.0, 0.0), 4, 10.0, 60.0, 3.0);
/// assert_eq!(square.contours()[0].vertex_count(), 13);
/// ```
#[must_use]
pub fn sided_spiral(centre: impl IntoPoint, sides: usize, inner: f64, outer: f64, laps: f64) -> Path {
    let (call, centre) = ("sided_spiral", centre.into_point());
    let mut fault = FaultSlot::default();
    let sound = given(&mut fault, call, centre, inner, outer, laps);
    let steps = laps.abs() * sides as f64;
    let sound = sound && fault.at_most(call, "sides", steps as usize, 10_000_000);
    if !sound || sides < 2 || steps == 0.0 {
        return Path::from_parts(Vec::new(), Default::default(), fault);
    }
    // The last side is a part of one where the turns are no whole number of sides.
    let whole = (steps + 1e-9).floor();
    let places = (0..=whole as usize).map(|i| i as f64).chain((steps > whole + 1e-9).then_some(steps));
    let corner = |place: f64| {
        let radius = inner + (outer - inner) * (place / steps);
        centre + polar(turns(place / sides as f64 * laps.signum()), radius)
    };
    Path::open(places.map(corner)).within_numbers(call)
}

fn given(
    fault: &mut FaultSlot,
    call: &'static str,
    centre: Point,
    inner: f64,
    outer: f64,
    turns: f64,
) -> bool {
    fault.point(call, centre)
        & fault.not_negative(call, "inner radius", inner)
        & fault.not_negative(call, "outer radius", outer)
        & fault.finite(call, "number of turns", turns)
        && fault.at_most(call, "turns", turns.abs().ceil() as usize, MAX_TURNS)
}

fn drawn(
    call: &'static str,
    mut fault: FaultSlot,
    sound: bool,
    size: f64,
    turns: f64,
    at: impl Fn(f64) -> (Point, Point),
) -> Path {
    let mut contours: Vec<Contour> = Vec::new();
    if sound && turns != 0.0 && size > 0.0 {
        let parts = (4.0 * turns.abs()).ceil() as usize;
        contours.extend(fault.limited(call, || smooth((0.0, TAU * turns), parts, false, FINE * size, at)));
    }
    Path::from_parts(contours, Default::default(), fault).within_numbers(call)
}
