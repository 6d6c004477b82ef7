//! Parts of circles and ellipses: open arcs, pies, segments that a chord cuts off, and rings.

use crate::ground::{Fault, FaultKind, FaultSlot};
use crate::number::{Angle, IntoPoint, Point, deg, rad};
use crate::path::{Arc, ContourBuilder, Path};

/// How a part of an ellipse is closed.
#[derive(Clone, Copy, PartialEq)]
enum Ends {
    Open,
    ByChord,
    ByCentre,
}

impl Arc {
    /// The arc as an open path.
    ///
    /// A sweep of a full turn or more gives the whole ellipse, closed. A sweep or radius of zero gives an empty
    /// path; a negative radius is a fault. A negative sweep runs anticlockwise as seen.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// use chordane::path::Arc;
    /// let brow = Arc::inscribed(&cell((0.0, 0.0), 40.0, 20.0), deg(180.0), deg(90.0)).path();
    /// assert_eq!(brow.data(), "M0 10A20 10 0 0 1 20 0");
    /// ```
    #[must_use]
    pub fn path(&self) -> Path {
        build("arc", self, Ends::Open)
    }

    /// A slice: the arc and two straight sides to the centre. At its limits as [`Arc::path`]; a full turn has no
    /// sides.
    #[must_use]
    pub fn pie(&self) -> Path {
        build("pie", self, Ends::ByCentre)
    }

    /// What the chord cuts off: the arc and the straight side between its ends. At its limits as [`Arc::path`].
    #[must_use]
    pub fn chord_cut(&self) -> Path {
        build("chord_cut", self, Ends::ByChord)
    }
}

/// An open arc of a circle, from an angle over a sweep, clockwise as seen from +x; at its limits as [`Arc::path`].
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!(arc((0.0, 0.0), 10.0, deg(0.0), deg(90.0)).data(), "M10 0A10 10 0 0 1 0 10");
/// ```
#[must_use]
pub fn arc(centre: impl IntoPoint, radius: f64, start: Angle, sweep: Angle) -> Path {
    Arc::round(centre, radius, start, sweep).path()
}

/// An open arc of an ellipse with its axes along x and y, from an angle over a sweep as seen from its centre, clockwise as seen
/// from +x; at its limits as [`Arc::path`]. [`squashed_arc`] takes the angles before squashing.
///
/// ```
/// use chordane::prelude::*;
/// let brow = elliptic_arc((0.0, 0.0), 60.0, 20.0, deg(-180.0), deg(135.0));
/// let end = brow.contours()[0].end();
/// assert!((end.y / end.x + 1.0).abs() < 1e-12, "seen 45 degrees up from the centre");
/// ```
#[must_use]
pub fn elliptic_arc(
    centre: impl IntoPoint,
    radius_x: f64,
    radius_y: f64,
    start: Angle,
    sweep: Angle,
) -> Path {
    // Before squashing, in the same quarter of the same turn.
    let unsquashed = |seen: Angle| {
        let (sin, cos) = seen.sin_cos();
        let before = rad((radius_x * sin).atan2(radius_y * cos));
        let off = (before - seen).degrees();
        seen + deg(off - 360.0 * (off / 360.0).round())
    };
    let sound =
        radius_x > 0.0 && radius_y > 0.0 && start.degrees().is_finite() && sweep.degrees().is_finite();
    let (begin, end) =
        if sound { (unsquashed(start), unsquashed(start + sweep)) } else { (start, start + sweep) };
    let (centre, radii) = (centre.into_point(), Point::new(radius_x, radius_y));
    build(
        "elliptic_arc",
        &Arc { centre, radii, tilt: Angle::ZERO, start: begin, sweep: end - begin },
        Ends::Open,
    )
}

/// An open arc of a circle, from an angle over a sweep, squashed into an ellipse with its axes along x and y: even angles are even
/// in the ellipse's parameter, not as seen from its centre, for which there is [`elliptic_arc`]. At its limits as [`Arc::path`].
///
/// ```
/// use chordane::prelude::*;
/// let brow = squashed_arc((0.0, 0.0), 60.0, 20.0, deg(-180.0), deg(135.0));
/// assert!(brow.contours()[0].end().distance(pt(60.0, 20.0) * polar(deg(-45.0), 1.0)) < 1e-12);
/// ```
#[must_use]
pub fn squashed_arc(
    centre: impl IntoPoint,
    radius_x: f64,
    radius_y: f64,
    start: Angle,
    sweep: Angle,
) -> Path {
    let (centre, radii) = (centre.into_point(), Point::new(radius_x, radius_y));
    build("squashed_arc", &Arc { centre, radii, tilt: Angle::ZERO, start, sweep }, Ends::Open)
}

/// A slice of a disc, from an angle over a sweep, clockwise as seen from +x; at its limits as [`Arc::pie`].
///
/// ```
/// use chordane::prelude::*;
/// let quarter = pie((0.0, 0.0), 20.0, deg(0.0), deg(90.0));
/// assert!((quarter.area()? - 100.0 * std::f64::consts::PI).abs() < 1e-9);
/// # Ok::<(), Fault>(())
/// ```
#[must_use]
pub fn pie(centre: impl IntoPoint, radius: f64, start: Angle, sweep: Angle) -> Path {
    Arc::round(centre, radius, start, sweep).pie()
}

/// The part of a disc that a chord cuts off, from an angle over a sweep, clockwise as seen from +x; at its limits as
/// [`Arc::chord_cut`].
///
/// ```
/// use chordane::prelude::*;
/// let half = chord_cut((0.0, 0.0), 20.0, deg(0.0), deg(180.0));
/// assert!((half.area()? - 200.0 * std::f64::consts::PI).abs() < 1e-9);
/// # Ok::<(), Fault>(())
/// ```
#[must_use]
pub fn chord_cut(centre: impl IntoPoint, radius: f64, start: Angle, sweep: Angle) -> Path {
    Arc::round(centre, radius, start, sweep).chord_cut()
}

fn check(call: &'static str, part: &Arc, fault: &mut FaultSlot) -> bool {
    let mut sound = fault.point(call, part.centre);
    for (what, value) in [("x radius", part.radii.x), ("y radius", part.radii.y)] {
        sound &= fault.not_negative(call, what, value);
    }
    for (what, angle) in [("tilt", part.tilt), ("start", part.start), ("sweep", part.sweep)] {
        sound &= fault.finite(call, what, angle.degrees());
    }
    sound
}

fn build(call: &'static str, part: &Arc, ends: Ends) -> Path {
    let mut fault = FaultSlot::default();
    let mut contours = Vec::new();
    let sound = check(call, part, &mut fault);
    if sound && part.radii.min_element() > 0.0 && part.sweep != Angle::ZERO {
        let whole = part.sweep.abs() >= Angle::FULL;
        let sweep = if whole { Angle::FULL * part.sweep.degrees().signum() } else { part.sweep };
        let part = Arc { sweep, ..*part };
        let from = part.at(0.0);
        let to = if whole { from } else { part.at(1.0) };
        let mut builder = ContourBuilder::new(from);
        part.pieces(from, to, |piece| builder.arc(&piece));
        if ends == Ends::ByCentre && !whole {
            builder.line(part.centre);
        }
        contours.push(builder.finish(whole || ends != Ends::Open));
    }
    Path::from_parts(contours, Default::default(), fault).within_numbers(call)
}

/// A ring: a circle with a round hole, whose contour runs the other way.
///
/// The larger radius is the outer one, in whichever order they are given. An inner radius of zero gives a disc;
/// equal radii give an empty path; a negative one is a fault.
///
/// ```
/// use chordane::prelude::*;
/// let hoop = ring((0.0, 0.0), 50.0, 40.0);
/// assert!((hoop.signed_area() - std::f64::consts::PI * 900.0).abs() < 1e-9);
/// ```
#[must_use]
pub fn ring(centre: impl IntoPoint, outer: f64, inner: f64) -> Path {
    ring_as("ring", centre.into_point(), outer, inner, Angle::ZERO, Angle::FULL)
}

/// A part of a ring, from an angle over a sweep, clockwise as seen from +x: two arcs and two straight sides.
///
/// A sweep of a full turn or more gives the whole ring; a sweep of zero gives an empty path. Radii as in [`ring`].
///
/// ```
/// use chordane::prelude::*;
/// let half = ring_part((0.0, 0.0), 20.0, 10.0, deg(0.0), deg(180.0));
/// assert!((half.area()? - 150.0 * std::f64::consts::PI).abs() < 1e-9);
/// # Ok::<(), Fault>(())
/// ```
#[must_use]
pub fn ring_part(centre: impl IntoPoint, outer: f64, inner: f64, start: Angle, sweep: Angle) -> Path {
    ring_as("ring_part", centre.into_point(), outer, inner, start, sweep)
}

fn ring_as(call: &'static str, centre: Point, outer: f64, inner: f64, start: Angle, sweep: Angle) -> Path {
    let rim = Arc::round(centre, outer.max(inner), start, sweep);
    let mut fault = FaultSlot::default();
    if !check(call, &rim, &mut fault) {
        return Path::from_parts(Vec::new(), Default::default(), fault);
    }
    let small = outer.min(inner);
    if small.is_nan() || small < 0.0 {
        let kind = FaultKind::Negative { what: "inner radius", value: small };
        fault.note(Fault::of(call, kind));
        return Path::from_parts(Vec::new(), Default::default(), fault);
    }
    if outer == inner || sweep == Angle::ZERO {
        return Path::empty();
    }
    let hole = Arc { radii: Point::splat(small), ..rim };
    if sweep.abs() >= Angle::FULL {
        let disc = build(call, &rim, Ends::ByChord);
        return if small == 0.0 { disc } else { disc.and(&build(call, &hole, Ends::ByChord).reversed()) };
    }
    if small == 0.0 {
        return build(call, &rim, Ends::ByCentre);
    }
    let mut builder = ContourBuilder::new(rim.at(0.0));
    rim.pieces(rim.at(0.0), rim.at(1.0), |piece| builder.arc(&piece));
    builder.line(hole.at(1.0));
    let back = Arc { start: start + sweep, sweep: -sweep, ..hole };
    back.pieces(hole.at(1.0), hole.at(0.0), |piece| builder.arc(&piece));
    Path::from_contours([builder.finish(true)]).within_numbers(call)
}
