//! The ways in which a pen draws an arc to a point: by what is known of it.
//!
//! Each says which way round it goes and what happens at its limits, and each falls back to straight sides where
//! no circle can do what is asked, so that the pen always arrives.

use super::{Arc, ArcSegment, Pen};
use crate::ground::named;
use crate::number::{Angle, IntoPoint, Point, deg, rad};

/// Which of the four ways between two points an arc of given radii takes.
///
/// ```
/// use chordane::prelude::*;
/// let way = ArcWay::ShortClockwise;
/// let tail = start((0.0, 0.0)).arc_radii((20.0, 0.0), (15.0, 15.0), deg(0.0), way).open();
/// assert_eq!(tail.contours()[0].end(), pt(20.0, 0.0));
/// ```
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum ArcWay {
    /// The shorter way, clockwise as seen on a sheet with y down.
    ShortClockwise,
    /// The shorter way, anticlockwise.
    ShortAnticlockwise,
    /// The longer way, clockwise.
    LongClockwise,
    /// The longer way, anticlockwise.
    LongAnticlockwise,
}

named! {
    ArcWay: "way";
    "short clockwise" => ShortClockwise, "short anticlockwise" => ShortAnticlockwise,
    "long clockwise" => LongClockwise, "long anticlockwise" => LongAnticlockwise
}

impl ArcWay {
    fn is_long(self) -> bool {
        matches!(self, Self::LongClockwise | Self::LongAnticlockwise)
    }

    fn is_clockwise(self) -> bool {
        matches!(self, Self::ShortClockwise | Self::LongClockwise)
    }
}

/// A rise or a radius below this share of the chord, or above its inverse, is a straight side: the arc would
/// differ from it by less than the digits of its ends.
const MIN_RISE_RATIO: f64 = 1e-13;

impl Pen {
    /// A circular arc through a point to an end.
    ///
    /// Three points on a line have no circle: straight sides lead through them. An end that is where the pen
    /// stands gives the full circle that has the point opposite, clockwise as seen; a point that is one of the ends
    /// gives a straight side.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let bow = start((-10.0, 0.0)).arc_via((0.0, -10.0), (10.0, 0.0)).open();
    /// assert_eq!(bow.bounds().unwrap().min, pt(-10.0, -10.0));
    /// ```
    pub fn arc_via(self, via: impl IntoPoint, end: impl IntoPoint) -> Self {
        let (from, via, end) = (self.position(), via.into_point(), end.into_point());
        if !via.is_finite() || !end.is_finite() {
            return self.refuse("arc_via", if via.is_finite() { end } else { via });
        }
        if end == from && via != from {
            return self.round_about("arc_via", from.midpoint(via), Angle::FULL, end);
        }
        let (to_via, to_end) = (via - from, end - from);
        let cross = to_via.perp_dot(to_end);
        let flat = to_via.length() * to_end.length() * MIN_RISE_RATIO;
        if cross.abs() <= flat {
            return if via == from || via == end { self.line(end) } else { self.line(via).line(end) };
        }
        // The centre is as far from all three: the crossing of two perpendicular bisectors.
        let (a, b) = (to_via.length_squared(), to_end.length_squared());
        let arm = Point::new(to_end.y * a - to_via.y * b, to_via.x * b - to_end.x * a) / (2.0 * cross);
        let centre = from + arm;
        // Which way round: the point lies on the clockwise side when the turn from it to the end is clockwise.
        let swept = (-arm).perp_dot(end - centre).atan2((-arm).dot(end - centre));
        let sweep = turned(rad(swept), cross > 0.0);
        self.round_about("arc_via", centre, sweep, end)
    }

    /// A circular arc to an end, over the chord, with a rise: how far its middle stands from the chord's middle.
    ///
    /// A positive rise bows out to the left as travelled on a sheet with y down, so the arc runs clockwise as seen:
    /// from left to right it goes over the top. A negative one bows out to the right. Zero is a straight side; half
    /// of the chord is a half circle; more gives more than a half circle.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let roof = start((0.0, 0.0)).bow((20.0, 0.0), 4.0).open();
    /// assert!((roof.bounds().unwrap().min.y + 4.0).abs() < 1e-12);
    /// ```
    pub fn bow(self, end: impl IntoPoint, rise: f64) -> Self {
        let (from, end) = (self.position(), end.into_point());
        if !end.is_finite() || !rise.is_finite() {
            return self.refuse("bow", if end.is_finite() { Point::new(rise, rise) } else { end });
        }
        let chord = end - from;
        let length = chord.length();
        if length == 0.0 || rise.abs() <= MIN_RISE_RATIO * length {
            return self.line(end);
        }
        let half = length * 0.5;
        // A quarter of the sweep has the tangent rise / half.
        let sweep = rad(4.0 * (rise / half).atan());
        // From the chord's middle to the centre, against the rise.
        let off = (half / rise * half - rise) * 0.5;
        let right = Point::new(-chord.y, chord.x) / length;
        self.round_about("bow", from.midpoint(end) + right * off, sweep, end)
    }

    /// A circular arc to an end that leaves along the present heading, so that it joins smoothly.
    ///
    /// An end straight ahead gives a straight side; one straight behind cannot be reached by a circle, and gives a
    /// straight side back. The arc turns toward the end: clockwise when it lies to the right.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let hook = start((0.0, 0.0)).line((10.0, 0.0)).arc_on((10.0, 8.0)).open();
    /// assert_eq!(hook.bounds().unwrap().max, pt(14.0, 8.0));
    /// ```
    pub fn arc_on(self, end: impl IntoPoint) -> Self {
        let (from, end) = (self.position(), end.into_point());
        if !end.is_finite() {
            return self.refuse("arc_on", end);
        }
        let chord = end - from;
        let (sin, cos) = self.direction().sin_cos();
        let (ahead, aside) = (chord.dot(Point::new(cos, sin)), Point::new(cos, sin).perp_dot(chord));
        if aside.abs() <= MIN_RISE_RATIO * chord.length() {
            return self.line(end);
        }
        // The chord makes half the sweep's angle with the heading; the centre lies square to the heading.
        let sweep = rad(2.0 * aside.atan2(ahead));
        let radius = chord.length_squared() / (2.0 * aside);
        self.round_about("arc_on", from + Point::new(-sin, cos) * radius, sweep, end)
    }

    /// A rounded corner: a straight side toward the corner, an arc of a radius that touches both sides, and a
    /// straight side to the end.
    ///
    /// A radius that does not fit on the sides shrinks to the largest that does. A radius of zero gives the sharp
    /// corner, and so do three points on a line; a negative radius is a fault.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let round = start((0.0, 0.0)).fillet((10.0, 0.0), (10.0, 10.0), 3.0).open();
    /// assert_eq!(round.data(), "M0 0H7A3 3 0 0 1 10 3V10");
    /// ```
    pub fn fillet(self, corner: impl IntoPoint, end: impl IntoPoint, radius: f64) -> Self {
        let (from, corner, end) = (self.position(), corner.into_point(), end.into_point());
        if !corner.is_finite() || !end.is_finite() {
            return self.refuse("fillet", if corner.is_finite() { end } else { corner });
        }
        let mut pen = self;
        if !pen.not_negative("fillet", "radius", radius) {
            return pen;
        }
        let (back, on) = (from - corner, end - corner);
        let (back_length, on_length) = (back.length(), on.length());
        let turn = rad(back.perp_dot(on).atan2(back.dot(on)));
        let half = (turn.abs() * 0.5).tan();
        // Where the arc touches, measured from the corner; the sides end where they end.
        let touch = (radius / half).min(back_length).min(on_length);
        let straight = back.perp_dot(on).abs() <= MIN_RISE_RATIO * back_length * on_length;
        if straight || radius == 0.0 || touch == 0.0 {
            return pen.line(corner).line(end);
        }
        let (begin, stop) = (corner + back / back_length * touch, corner + on / on_length * touch);
        if begin != pen.position() {
            pen = pen.line(begin);
        }
        let radii = Point::splat(if touch < radius / half { touch * half } else { radius });
        let clockwise = turn.degrees() < 0.0;
        let (tilt, large) = (Angle::ZERO, false);
        pen = pen.push_arc(&ArcSegment { from: begin, radii, tilt, large, clockwise, to: stop });
        if stop == end { pen } else { pen.line(end) }
    }

    /// An arc of an ellipse to an end, by its two radii, the direction of the first one, and which of the four ways
    /// it takes.
    ///
    /// As in the SVG recommendation (section 9.5.1): a radius of zero gives a straight side; the signs of the radii
    /// do not matter; radii too small to reach are scaled up evenly until they do; an end where the pen stands draws
    /// nothing.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let wing = start((0.0, 0.0)).arc_radii((30.0, 15.0), (30.0, 20.0), deg(0.0), ArcWay::ShortClockwise).open();
    /// assert_eq!(wing.data(), "M0 0A30 20 0 0 1 30 15");
    /// ```
    pub fn arc_radii(self, end: impl IntoPoint, radii: impl IntoPoint, tilt: Angle, way: ArcWay) -> Self {
        let (from, end, radii) = (self.position(), end.into_point(), radii.into_point());
        let tilted = Point::splat(tilt.degrees());
        if let Some(bad) = [end, radii, tilted].into_iter().find(|p| !p.is_finite()) {
            return self.refuse("arc_radii", bad);
        }
        if end == from {
            return self;
        }
        if radii.x == 0.0 || radii.y == 0.0 {
            return self.line(end);
        }
        let (large, clockwise) = (way.is_long(), way.is_clockwise());
        self.push_arc(&ArcSegment { from, radii: radii.abs(), tilt, large, clockwise, to: end })
    }

    /// The arc round a centre over a sweep, ending exactly at `end`.
    fn round_about(self, call: &'static str, centre: Point, sweep: Angle, end: Point) -> Self {
        let arm = self.position() - centre;
        let radius = arm.length();
        // A centre so far off that the arc cannot be told from its chord.
        if !radius.is_finite() {
            return self.line(end);
        }
        let arc =
            Arc { centre, radii: Point::splat(radius), tilt: Angle::ZERO, start: Angle::of(arm), sweep };
        let from = self.position();
        let mut pen = self;
        let mut pieces = Vec::new();
        arc.pieces(from, end, |piece| pieces.push(piece));
        if pieces.iter().any(|piece| !piece.to.is_finite()) {
            return pen.refuse(call, centre + radius);
        }
        for piece in &pieces {
            pen = pen.push_arc(piece);
        }
        // The heading is known better than a short piece could tell.
        let quarter = deg(90.0) * sweep.degrees().signum();
        pen.heading((Angle::of(end - centre) + quarter).wrapped_signed())
    }
}

/// An angle from 0 to a full turn, in the wanted direction.
fn turned(angle: Angle, clockwise: bool) -> Angle {
    let ahead = angle.wrapped();
    if clockwise || ahead == Angle::ZERO { ahead } else { ahead - Angle::FULL }
}
