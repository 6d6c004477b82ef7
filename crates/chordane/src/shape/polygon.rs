//! Shapes of straight sides round a centre.

use crate::fault::{Carried, Fault, FaultKind};
use crate::number::{Point, around, deg, polar};
use crate::path::Path;

/// More corners than this are taken for a mistake: they would fill the memory before they were seen.
pub(super) const MOST_CORNERS: usize = 50_000_000;

/// A regular polygon with its corners at a distance from the centre.
///
/// The first corner stands straight above the centre (towards -y), the others follow clockwise as seen. No sides
/// or a radius of zero give an empty path; 1 and 2 sides give that many corners, which enclose nothing. A negative
/// radius is a fault.
///
/// ```
/// use chordane::prelude::*;
/// let square = polygon(pt(0.0, 0.0), 4, 10.0);
/// assert_eq!(square.data(), "M0-10 10 0 0 10-10 0Z");
/// ```
#[must_use]
pub fn polygon(centre: impl Into<Point>, sides: usize, radius: f64) -> Path {
    rim("polygon", centre.into(), sides, &[("radius", radius)])
}

/// A star: tips at the outer distance from the centre, valleys half way between them at the inner one.
///
/// The first tip stands straight above the centre (towards -y), the others follow clockwise as seen. No tips or
/// both radii zero give an empty path. A negative radius is a fault. The inner radius may be the larger one: the
/// valleys then are the tips.
///
/// ```
/// use chordane::prelude::*;
/// let star = star(pt(0.0, 0.0), 5, 40.0, 16.0);
/// assert_eq!(star.contours()[0].vertex_count(), 10);
/// ```
#[must_use]
pub fn star(centre: impl Into<Point>, tips: usize, outer: f64, inner: f64) -> Path {
    rim("star", centre.into(), tips.saturating_mul(2), &[("outer radius", outer), ("inner radius", inner)])
}

/// Corners evenly round a centre, the radii taking turns, the first corner above.
fn rim(call: &'static str, centre: Point, corners: usize, radii: &[(&'static str, f64)]) -> Path {
    let mut fault = Carried::default();
    let sound = fault.point(call, centre)
        & radii.iter().fold(true, |sound, (what, radius)| sound & fault.not_negative(call, what, *radius));
    if corners > MOST_CORNERS {
        let kind = FaultKind::TooMany { what: "corners", count: corners, limit: MOST_CORNERS };
        fault.note(Fault::new(call, kind));
    }
    if !sound || corners > MOST_CORNERS || radii.iter().all(|(_, radius)| *radius == 0.0) {
        return Path::from_parts(Vec::new(), Default::default(), fault);
    }
    let distances = radii.iter().map(|(_, radius)| *radius).cycle();
    Path::closed(around(corners).zip(distances).map(|(angle, r)| centre + polar(angle - deg(90.0), r)))
        .within_numbers(call)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::number::pt;

    #[test]
    fn counts_of_nothing_and_little() {
        assert!(polygon((0.0, 0.0), 0, 5.0).is_empty());
        assert!(polygon((0.0, 0.0), 5, 0.0).is_empty());
        assert_eq!(polygon((0.0, 0.0), 1, 5.0).contours()[0].vertex_count(), 1);
        assert_eq!(polygon((0.0, 0.0), 2, 5.0).data(), "M0-5V5Z");
        assert!(star((0.0, 0.0), 0, 5.0, 2.0).is_empty());
        assert!(star((0.0, 0.0), usize::MAX, 5.0, 2.0).sound().is_err());
    }

    #[test]
    fn a_negative_radius_is_a_fault() {
        assert_eq!(
            polygon((0.0, 0.0), 5, -3.0).sound().unwrap_err().to_string(),
            "`polygon`: the radius -3 is negative; give 0 or more"
        );
        assert_eq!(
            star((0.0, 0.0), 5, 3.0, f64::NAN).sound().unwrap_err().to_string(),
            "`star`: the inner radius NaN is not finite; give a finite number"
        );
    }

    #[test]
    fn corners_lie_on_the_circle() {
        for n in [3, 5, 7, 12, 360] {
            let shape = polygon((3.0, 4.0), n, 25.0);
            for p in shape.contours()[0].vertices() {
                assert!((p.distance(pt(3.0, 4.0)) - 25.0).abs() < 1e-12);
            }
        }
    }
}
