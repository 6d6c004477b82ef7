//! Closed curves with names of their own: roses, superellipses, Lissajous figures.

use std::f64::consts::{FRAC_PI_2, PI, TAU};

use super::wheels::FINE;
use crate::ground::FaultSlot;
use crate::number::{Angle, IntoPoint, pt};
use crate::path::smooth;
use crate::path::{Contour, Path};

/// More petals or swings than these only fill a disc.
const MAX_OSCILLATIONS: usize = 100_000;

/// A rose: the distance from the centre is the radius times the cosine of `n / d` times the angle.
///
/// For `d` of 1 it has `n` petals if `n` is odd and twice as many if it is even; other `d` make petals that overlap, in
/// as many laps as it takes to close. The first petal points straight up. `n` or `d` of 0, or a radius of zero, give an
/// empty path; a negative radius is a fault. Source: G. Grandi, Flores geometrici, 1728.
///
/// ```
/// use chordane::prelude::*;
/// let rose = rose((0.0, 0.0), 3, 1, 50.0);
/// assert!((rose.area()? / (std::f64::consts::PI * 2500.0 / 4.0) - 1.0).abs() < 1e-4);
/// # Ok::<(), Fault>(())
/// ```
#[must_use]
pub fn rose(centre: impl IntoPoint, n: usize, d: usize, radius: f64) -> Path {
    let (call, centre) = ("rose", centre.into_point());
    let mut fault = FaultSlot::default();
    let sound = fault.point(call, centre)
        & fault.not_negative(call, "radius", radius)
        & fault.at_most(call, "petals", n, MAX_OSCILLATIONS)
        & fault.at_most(call, "laps", d, MAX_OSCILLATIONS);
    let mut contours = Vec::new();
    if sound && n > 0 && d > 0 && radius > 0.0 {
        let shared = common(n, d);
        let (n, d) = (n / shared, d / shared);
        let pace = n as f64 / d as f64;
        let end = if n * d % 2 == 1 { PI } else { TAU } * d as f64;
        let at = |angle: f64| {
            let (sin, cos) = (angle - FRAC_PI_2).sin_cos();
            let (fall, swing) = (pace * angle).sin_cos();
            let (out, across) = (pt(cos, sin), pt(-sin, cos));
            (centre + out * (radius * swing), (across * swing - out * (pace * fall)) * radius)
        };
        let parts = (4.0 * pace.max(1.0) * end / TAU).ceil() as usize;
        contours.extend(fault.limited(call, || smooth((0.0, end), parts, true, FINE * radius, at)));
    }
    Path::from_parts(contours, Default::default(), fault).within_numbers(call)
}

/// A superellipse: the points with `|x / rx| ^ exponent + |y / ry| ^ exponent = 1` round the centre.
///
/// An exponent of 2 is an ellipse; more bulges toward the rectangle, 1 is a rhomb, less is a star with four cusps.
/// It starts at the right, clockwise as seen. A radius of zero gives an empty path; a negative one is a fault, as is an
/// exponent outside 0.1 to 100. Source: G. Lamé, 1818.
///
/// ```
/// use chordane::prelude::*;
/// let sail = superellipse((0.0, 0.0), 40.0, 30.0, 4.0);
/// assert!(sail.inside((30.0, 20.0)) && !ellipse((0.0, 0.0), 40.0, 30.0).inside((30.0, 20.0)));
/// ```
#[must_use]
pub fn superellipse(centre: impl IntoPoint, radius_x: f64, radius_y: f64, exponent: f64) -> Path {
    let (call, centre) = ("superellipse", centre.into_point());
    let mut fault = FaultSlot::default();
    let sound = fault.point(call, centre)
        & fault.not_negative(call, "x radius", radius_x)
        & fault.not_negative(call, "y radius", radius_y)
        & fault.in_range(call, "exponent", exponent, 0.1, 100.0);
    let radii = pt(radius_x, radius_y);
    let mut contours: Vec<Contour> = Vec::new();
    if sound && radii.min_element() > 0.0 {
        // Below 1 by powers of sine and cosine, which stand still at the cusps; else by the distance at an angle, which
        // has no corner anywhere.
        let at = |angle: f64| {
            let (sin, cos) = angle.sin_cos();
            // An axis is met exactly.
            let (sin, cos) =
                (if sin.abs() < 1e-14 { 0.0 } else { sin }, if cos.abs() < 1e-14 { 0.0 } else { cos });
            let (unit, velocity) = if exponent < 1.0 {
                let power = 2.0 / exponent;
                let rise = |base: f64| power * base.abs().powf(power - 1.0);
                let unit = pt(cos.abs().powf(power) * cos.signum(), sin.abs().powf(power) * sin.signum());
                (unit, pt(-sin * rise(cos), cos * rise(sin)))
            } else {
                let (x, y) = (cos.abs(), sin.abs());
                let sum = x.powf(exponent) + y.powf(exponent);
                let distance = sum.powf(-1.0 / exponent);
                let slope =
                    y.powf(exponent - 1.0) * sin.signum() * cos - x.powf(exponent - 1.0) * cos.signum() * sin;
                let change = -distance / sum * slope;
                (pt(cos, sin) * distance, pt(-sin, cos) * distance + pt(cos, sin) * change)
            };
            (centre + unit * radii, velocity * radii)
        };
        contours.extend(fault.limited(call, || smooth((0.0, TAU), 8, true, FINE * radii.max_element(), at)));
    }
    Path::from_parts(contours, Default::default(), fault).within_numbers(call)
}

/// A Lissajous figure: one closed curve that swings `across` times across and `down` times down.
///
/// `phase` is how far ahead the swing across begins. Equal swings with a phase of 0 run there and back on one line.
/// No swings, or a radius of zero both ways, give an empty path; a negative radius is a fault. Source: N. Bowditch, 1815;
/// J. A. Lissajous, 1857.
///
/// ```
/// use chordane::prelude::*;
/// let knot = lissajous((0.0, 0.0), 40.0, 30.0, 3, 2, deg(90.0));
/// assert!(knot.contours()[0].is_closed() && knot.crosses_itself()?);
/// # Ok::<(), Fault>(())
/// ```
#[must_use]
pub fn lissajous(
    centre: impl IntoPoint,
    radius_x: f64,
    radius_y: f64,
    across: usize,
    down: usize,
    phase: Angle,
) -> Path {
    let (call, centre) = ("lissajous", centre.into_point());
    let mut fault = FaultSlot::default();
    let sound = fault.point(call, centre)
        & fault.not_negative(call, "x radius", radius_x)
        & fault.not_negative(call, "y radius", radius_y)
        & fault.finite(call, "phase", phase.degrees())
        & fault.at_most(call, "swings", across.max(down), MAX_OSCILLATIONS);
    let radii = pt(radius_x, radius_y);
    let mut contours = Vec::new();
    if sound && across + down > 0 && radii.max_element() > 0.0 {
        let shared = common(across, down).max(1);
        let (a, b) = ((across / shared) as f64, (down / shared) as f64);
        let at = |time: f64| {
            let (sin_x, cos_x) = (a * time + phase.radians()).sin_cos();
            let (sin_y, cos_y) = (b * time).sin_cos();
            (centre + pt(sin_x, sin_y) * radii, pt(a * cos_x, b * cos_y) * radii)
        };
        let parts = 4 * (across / shared).max(down / shared);
        contours
            .extend(fault.limited(call, || smooth((0.0, TAU), parts, true, FINE * radii.max_element(), at)));
    }
    Path::from_parts(contours, Default::default(), fault).within_numbers(call)
}

/// The greatest common divisor (Euclid).
pub(super) fn common(a: usize, b: usize) -> usize {
    if b == 0 { a } else { common(b, a % b) }
}
