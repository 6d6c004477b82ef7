//! Circles and ellipses.

use crate::ground::FaultSlot;
use crate::number::{Angle, IntoPoint, Point};
use crate::path::{Arc, ContourBuilder, Path};

/// A circle: four quarter arcs, starting at the centre's right (+x), clockwise as seen.
///
/// A radius of zero gives an empty path; a negative one is a fault.
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!(circle(pt(0.0, 0.0), 5.0).data(), "M5 0A5 5 0 0 1 0 5 5 5 0 0 1-5 0 5 5 0 0 1 0-5 5 5 0 0 1 5 0Z");
/// ```
#[must_use]
pub fn circle(centre: impl IntoPoint, radius: f64) -> Path {
    let mut fault = FaultSlot::default();
    let sound = fault.not_negative("circle", "radius", radius);
    round("circle", centre.into_point(), Point::splat(radius), fault, sound)
}

/// An ellipse with its axes along x and y: four quarter arcs, starting at the centre's right (+x), clockwise as
/// seen. Tilt it with [`Path::rotated_about`].
///
/// A radius of zero gives an empty path; a negative one is a fault.
///
/// ```
/// use chordane::prelude::*;
/// let vent = ellipse((0.0, 0.0), 30.0, 20.0);
/// assert!((vent.area()? - 600.0 * std::f64::consts::PI).abs() < 1e-9);
/// # Ok::<(), Fault>(())
/// ```
#[must_use]
pub fn ellipse(centre: impl IntoPoint, radius_x: f64, radius_y: f64) -> Path {
    let mut fault = FaultSlot::default();
    let sound = fault.not_negative("ellipse", "x radius", radius_x)
        & fault.not_negative("ellipse", "y radius", radius_y);
    round("ellipse", centre.into_point(), Point::new(radius_x, radius_y), fault, sound)
}

fn round(call: &'static str, centre: Point, radii: Point, mut fault: FaultSlot, sound: bool) -> Path {
    let mut contours = Vec::new();
    if fault.point(call, centre) && sound && radii.min_element() > 0.0 {
        let whole = Arc { centre, radii, tilt: Angle::ZERO, start: Angle::ZERO, sweep: Angle::FULL };
        let home = whole.at(0.0);
        let mut builder = ContourBuilder::with_capacity(home, 4, 13);
        whole.pieces(home, home, |piece| builder.arc(&piece));
        contours.push(builder.finish(true));
    }
    Path::from_parts(contours, Default::default(), fault).within_numbers(call)
}
