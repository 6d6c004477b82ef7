//! Shapes of straight sides round a centre.

use crate::ground::FaultSlot;
use crate::number::{IntoPoint, Point, around, deg, polar};
use crate::path::{Path, rounded, through};

use super::curves::common;

/// More corners than this are taken for a mistake: they would fill the memory before they were seen.
pub(super) const MAX_VERTICES: usize = 50_000_000;

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
pub fn polygon(centre: impl IntoPoint, sides: usize, radius: f64) -> Path {
    rim("polygon", centre.into_point(), sides, &[("radius", radius)])
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
pub fn star(centre: impl IntoPoint, tips: usize, outer: f64, inner: f64) -> Path {
    rim(
        "star",
        centre.into_point(),
        tips.saturating_mul(2),
        &[("outer radius", outer), ("inner radius", inner)],
    )
}

/// A regular polygon round a circle: the middles of its sides touch the circle of the radius.
///
/// The first corner stands straight above the centre. Fewer than 3 sides have no such circle and give an empty path, as
/// does a radius of zero; a negative radius is a fault.
///
/// ```
/// use chordane::prelude::*;
/// let hexagon = polygon_about((0.0, 0.0), 6, 10.0);
/// assert!((hexagon.bounds().unwrap().size().x - 20.0).abs() < 1e-12);
/// ```
#[must_use]
pub fn polygon_about(centre: impl IntoPoint, sides: usize, radius: f64) -> Path {
    let to_corner = (deg(180.0) / sides.max(3) as f64).cos();
    let sides = if sides < 3 { 0 } else { sides };
    rim("polygon_about", centre.into_point(), sides, &[("radius", radius / to_corner)])
}

/// A regular polygon by the length of its sides.
///
/// The first corner stands straight above the centre. Fewer than 2 sides, or a length of zero, give an empty path; a
/// negative length is a fault.
///
/// ```
/// use chordane::prelude::*;
/// let hexagon = polygon_of_side((0.0, 0.0), 6, 10.0);
/// assert!((hexagon.length()? - 60.0).abs() < 1e-9);
/// # Ok::<(), Fault>(())
/// ```
#[must_use]
pub fn polygon_of_side(centre: impl IntoPoint, sides: usize, length: f64) -> Path {
    let radius = 0.5 * length / (deg(180.0) / sides.max(2) as f64).sin();
    rim("polygon_of_side", centre.into_point(), if sides < 2 { 0 } else { sides }, &[("side length", radius)])
}

/// A regular polygon with rounded corners: the sides are those of [`polygon`], and arcs of the rounding's radius join
/// them. A rounding that does not fit shrinks until the arcs meet.
///
/// As [`polygon`] otherwise; a negative rounding is a fault.
///
/// ```
/// use chordane::prelude::*;
/// let tile = rounded_polygon((0.0, 0.0), 6, 40.0, 8.0);
/// assert_eq!(tile.contours()[0].segments().count(), 12);
/// ```
#[must_use]
pub fn rounded_polygon(centre: impl IntoPoint, sides: usize, radius: f64, rounding: f64) -> Path {
    let sharp = rim("rounded_polygon", centre.into_point(), sides, &[("radius", radius)]);
    with_roundings("rounded_polygon", &sharp, &[("rounding", rounding)])
}

/// A star with rounded tips and valleys; a radius for each. A rounding that does not fit shrinks until the arcs meet.
///
/// As [`star`] otherwise; a negative rounding is a fault.
///
/// ```
/// use chordane::prelude::*;
/// let vent = rounded_star((0.0, 0.0), 5, 30.0, 15.0, 4.0, 2.0);
/// assert!(vent.area()? < star((0.0, 0.0), 5, 30.0, 15.0).area()?);
/// # Ok::<(), Fault>(())
/// ```
#[must_use]
pub fn rounded_star(
    centre: impl IntoPoint,
    tips: usize,
    outer: f64,
    inner: f64,
    tip_rounding: f64,
    valley_rounding: f64,
) -> Path {
    let radii = [("outer radius", outer), ("inner radius", inner)];
    let sharp = rim("rounded_star", centre.into_point(), tips.saturating_mul(2), &radii);
    let roundings = [("tip rounding", tip_rounding), ("valley rounding", valley_rounding)];
    with_roundings("rounded_star", &sharp, &roundings)
}

/// Rounds the corners of a contour, the radii taking turns.
fn with_roundings(call: &'static str, sharp: &Path, roundings: &[(&'static str, f64)]) -> Path {
    let mut fault = sharp.carried().clone();
    let sound =
        roundings.iter().fold(true, |sound, (what, radius)| sound & fault.not_negative(call, what, *radius));
    let Some(contour) = sharp.contours().first().filter(|contour| sound && contour.vertex_count() > 2) else {
        return Path::from_parts(
            if sound { sharp.contours().to_vec() } else { Vec::new() },
            Default::default(),
            fault,
        );
    };
    let radii = roundings.iter().map(|(_, radius)| *radius).cycle();
    through(contour.vertices().zip(radii).map(|(at, radius)| rounded(at, radius))).close()
}

/// A star polygon `{n/k}`: `n` points evenly on a circle, each joined to the `k`-th after it; one closed contour where
/// that meets all points, else as many as it takes.
///
/// The first point stands straight above the centre. Steps of 0, or as many as points, lead nowhere and give an empty
/// path, as does a radius of zero; a negative radius is a fault. Under the even-odd rule its middle is open.
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!(star_polygon((0.0, 0.0), 7, 3, 50.0).contours().len(), 1);
/// assert_eq!(star_polygon((0.0, 0.0), 6, 2, 50.0).contours().len(), 2);
/// ```
#[must_use]
pub fn star_polygon(centre: impl IntoPoint, points: usize, step: usize, radius: f64) -> Path {
    let rim = rim("star_polygon", centre.into_point(), points, &[("radius", radius)]);
    let (Some(contour), true) = (rim.contours().first(), points > 0 && !step.is_multiple_of(points.max(1)))
    else {
        return Path::from_parts(Vec::new(), Default::default(), rim.carried().clone());
    };
    let corners: Vec<Point> = contour.vertices().collect();
    let step = step % points;
    let components = common(points, step);
    (0..components).fold(Path::empty(), |path, first| {
        let places = (0..points / components).map(|i| (first + i * step) % points);
        path.and(&Path::closed(places.filter_map(|place| corners.get(place).copied())))
    })
}

/// Corners evenly round a centre, the radii taking turns, the first corner above.
fn rim(call: &'static str, centre: Point, corners: usize, radii: &[(&'static str, f64)]) -> Path {
    let mut fault = FaultSlot::default();
    let sound = fault.point(call, centre)
        & radii.iter().fold(true, |sound, (what, radius)| sound & fault.not_negative(call, what, *radius));
    let sound = sound & fault.at_most(call, "corners", corners, MAX_VERTICES);
    if !sound || radii.iter().all(|(_, radius)| *radius == 0.0) {
        return Path::from_parts(Vec::new(), Default::default(), fault);
    }
    let distances = radii.iter().map(|(_, radius)| *radius).cycle();
    Path::closed(around(corners).zip(distances).map(|(angle, r)| centre + polar(angle - deg(90.0), r)))
        .within_numbers(call)
}
