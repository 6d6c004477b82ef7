//! Shapes by their rims: teeth, scallops, blobs, and bands between two curves.

use super::polygon::MAX_VERTICES;
use crate::ground::FaultSlot;
use crate::number::{IntoPoint, around, deg, polar, turns};
use crate::path::{ContourBuilder, FillRule, Path, flowing, start};

/// A disc with even teeth: between the inner and the outer radius, tooth and gap equally wide, the teeth's tips half as
/// wide as their roots. The first tooth stands straight above the centre.
///
/// No teeth or two radii of zero give an empty path; a negative radius is a fault.
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!(gear((0.0, 0.0), 12, 50.0, 40.0).contours()[0].vertex_count(), 48);
/// ```
#[must_use]
pub fn gear(centre: impl IntoPoint, teeth: usize, outer: f64, inner: f64) -> Path {
    let (call, centre) = ("gear", centre.into_point());
    let mut fault = FaultSlot::default();
    let sound = fault.point(call, centre)
        & fault.not_negative(call, "outer radius", outer)
        & fault.not_negative(call, "inner radius", inner)
        & fault.at_most(call, "teeth", teeth, MAX_VERTICES / 4);
    if !sound || teeth == 0 || outer.max(inner) == 0.0 {
        return Path::from_parts(Vec::new(), Default::default(), fault);
    }
    let one = turns(1.0 / teeth as f64);
    let corners = around(teeth).flat_map(|middle| {
        let spots = [(-0.25, inner), (-0.125, outer), (0.125, outer), (0.25, inner)];
        spots.map(|(share, radius)| centre + polar(middle - deg(90.0) + one * share, radius))
    });
    Path::closed(corners).within_numbers(call)
}

/// A disc with a rim of even round bumps: their feet lie at the radius, and they rise by the depth, or cut in where it
/// is negative. The first bump stands straight above the centre.
///
/// Fewer than 2 bumps or a radius of zero give an empty path; a negative radius is a fault.
///
/// ```
/// use chordane::prelude::*;
/// let edge = scallop((0.0, 0.0), 9, 40.0, 6.0);
/// assert!(edge.contours()[0].is_closed());
/// ```
#[must_use]
pub fn scallop(centre: impl IntoPoint, bumps: usize, radius: f64, depth: f64) -> Path {
    let (call, centre) = ("scallop", centre.into_point());
    let mut fault = FaultSlot::default();
    let sound = fault.point(call, centre)
        & fault.not_negative(call, "radius", radius)
        & fault.finite(call, "depth", depth)
        & fault.at_most(call, "bumps", bumps, MAX_VERTICES / 4);
    if !sound || bumps < 2 || radius == 0.0 {
        return Path::from_parts(Vec::new(), Default::default(), fault);
    }
    let half = turns(0.5 / bumps as f64);
    // The bump rises from the chord between its feet.
    let rise = radius * (1.0 - half.cos()) + depth;
    let foot = |angle| centre + polar(angle - deg(90.0) - half, radius);
    let mut feet = around(bumps).map(foot);
    let Some(first) = feet.next() else { return Path::empty() };
    let pen = feet.chain([first]).fold(start(first), |pen, foot| pen.bow(foot, rise));
    pen.close().within_numbers(call)
}

/// A soft blob: a closed curve through places evenly round the centre, at these distances from it. The first is
/// straight above the centre.
///
/// Fewer than 3 distances give an empty path; a negative one is a fault. With distances from dice, each seed has a blob
/// of its own.
///
/// ```
/// use chordane::prelude::*;
/// let patch = blob((0.0, 0.0), [40.0, 52.0, 38.0, 47.0, 44.0]);
/// assert_eq!(patch.contours()[0].segments().count(), 5);
/// ```
#[must_use]
pub fn blob(centre: impl IntoPoint, radii: impl IntoIterator<Item = f64>) -> Path {
    let (call, centre) = ("blob", centre.into_point());
    let radii: Vec<f64> = radii.into_iter().collect();
    let mut fault = FaultSlot::default();
    let sound = radii
        .iter()
        .fold(fault.point(call, centre), |sound, r| sound & fault.not_negative(call, "radius", *r));
    if !sound || radii.len() < 3 {
        return Path::from_parts(Vec::new(), Default::default(), fault);
    }
    let places = around(radii.len()).zip(&radii).map(|(angle, r)| centre + polar(angle - deg(90.0), *r));
    flowing(places).close().within_numbers(call)
}

/// The band between two curves: along the first contour of one, straight to the other's end, back along it, and closed.
///
/// Of closed contours the band is the area between them, by the even-odd rule. An empty path on either side gives an
/// empty path. Curves that run opposite ways make a crossed band; reverse one of them then.
///
/// ```
/// use chordane::prelude::*;
/// let upper = start((0.0, 0.0)).bow((100.0, 0.0), 20.0).open();
/// let lower = start((0.0, 30.0)).line((100.0, 30.0)).open();
/// assert!(band(&upper, &lower).contours()[0].is_closed());
/// ```
#[must_use]
pub fn band(one: impl AsRef<Path>, other: impl AsRef<Path>) -> Path {
    let (one, other) = (one.as_ref(), other.as_ref());
    let mut fault: FaultSlot = one.carried().clone();
    fault.take_from(other.carried());
    let (Some(a), Some(b)) = (one.contours().first(), other.contours().first()) else {
        return Path::from_parts(Vec::new(), Default::default(), fault);
    };
    if a.is_closed() && b.is_closed() {
        return Path::from_parts(vec![a.clone(), b.clone()], FillRule::EvenOdd, fault);
    }
    let mut builder = ContourBuilder::new(a.start());
    a.segments().for_each(|segment| builder.segment(&segment));
    if b.end() != builder.end() {
        builder.line(b.end());
    }
    b.reversed().segments().for_each(|segment| builder.segment(&segment));
    Path::from_parts(vec![builder.finish(true)], Default::default(), fault)
}

#[cfg(test)]
mod tests {
    use std::f64::consts::PI;

    use crate::prelude::*;

    #[test]
    fn rims_reach_from_radius_to_radius() {
        let wheel = gear((5.0, 5.0), 10, 50.0, 40.0);
        for corner in wheel.contours()[0].vertices() {
            let distance = corner.distance(pt(5.0, 5.0));
            assert!((distance - 50.0).abs() < 1e-9 || (distance - 40.0).abs() < 1e-9);
        }
        // Without depth a scalloped rim is the circle.
        let flat = scallop((0.0, 0.0), 8, 30.0, 0.0);
        assert!((flat.area().unwrap() / (900.0 * PI) - 1.0).abs() < 1e-9);
        let bumps = scallop((0.0, 0.0), 8, 30.0, 5.0);
        assert!((bumps.bounds().unwrap().size().y - 70.0).abs() < 1e-9);
        assert!(
            bumps.area().unwrap() > flat.area().unwrap()
                && scallop((0.0, 0.0), 8, 30.0, -3.0).area().unwrap() < flat.area().unwrap()
        );
        assert!(gear((0.0, 0.0), 0, 5.0, 4.0).is_empty() && scallop((0.0, 0.0), 1, 5.0, 4.0).is_empty());
        assert_eq!(
            gear((0.0, 0.0), 4, 5.0, -4.0).sound().unwrap_err().to_string(),
            "`gear`: the inner radius -4 is negative; give 0 or more"
        );
    }

    #[test]
    fn blobs_go_through_their_radii() {
        let radii = [40.0, 52.0, 38.0, 47.0];
        let blob = blob((1.0, 2.0), radii);
        for (vertex, radius) in blob.contours()[0].vertices().zip(radii) {
            assert!((vertex.distance(pt(1.0, 2.0)) - radius).abs() < 1e-9);
        }
        assert!(super::blob((0.0, 0.0), [1.0, 2.0]).is_empty());
        assert!(super::blob((0.0, 0.0), [1.0, 2.0, f64::NAN]).sound().is_err());
    }

    #[test]
    fn bands_have_the_area_between() {
        let line = |y: f64| start((0.0, y)).line((100.0, y)).open();
        assert!((band(line(0.0), line(30.0)).area().unwrap() - 3000.0).abs() < 1e-9);
        let hoop = band(circle((0.0, 0.0), 20.0), circle((0.0, 0.0), 10.0));
        assert!((hoop.area().unwrap() - 300.0 * PI).abs() < 1e-6);
        assert!(band(Path::empty(), line(1.0)).is_empty());
    }
}
