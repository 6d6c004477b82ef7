//! The pen: the one builder of contours.
//!
//! A pen stands at a point and has a heading. Segments move it; its heading is then the direction in which the
//! last segment arrived. It starts out heading along +x.

use super::{Arc, ArcSegment, Contour, ContourBuilder, FillRule, Path, Segment};
use crate::ground::{Fault, FaultKind, FaultSlot};
use crate::number::{Angle, IntoPoint, Point, polar, rad};

/// Sets a pen down at a point, to begin a path.
///
/// ```
/// use chordane::prelude::*;
///
/// let sail = start(pt(0.0, -120.0))
///     .line(pt(90.0, -30.0))
///     .line(pt(0.0, 120.0))
///     .line(pt(-90.0, -30.0))
///     .close();
/// assert_eq!(sail.data(), "M0-120 90-30 0 120-90-30Z");
/// ```
pub fn start(at: impl IntoPoint) -> Pen {
    Pen::continuing(Path::empty(), at.into_point())
}

/// A contour in the making. Every call adds to it and gives it back; [`Pen::close`] and [`Pen::open`] end it.
///
/// In a loop, write `pen = pen.line(p)`. Growing is linear: a million calls cost a million times one.
///
/// A number that is not finite is remembered as the path's fault, and the pen stays where it was.
///
/// ```
/// use chordane::prelude::*;
/// let pen: Pen = start((0.0, 0.0)).line((60.0, 0.0)).turn(deg(90.0)).ahead(40.0);
/// assert_eq!(pen.position(), pt(60.0, 40.0));
/// assert_eq!(pen.close().data(), "M0 0H60V40Z");
/// ```
#[derive(Clone, Debug)]
#[must_use = "a pen draws nothing until `close()` or `open()` makes a path of it"]
pub struct Pen {
    done: Vec<Contour>,
    fill_rule: FillRule,
    current: ContourBuilder,
    heading: Angle,
    fault: FaultSlot,
}

impl Pen {
    pub(crate) fn continuing(path: Path, at: Point) -> Self {
        let (done, fill_rule, mut fault) = path.into_parts();
        let at = if fault.point("start", at) { at } else { Point::ZERO };
        Self { done, fill_rule, current: ContourBuilder::new(at), heading: Angle::ZERO, fault }
    }

    /// Where the pen stands.
    #[must_use]
    pub fn position(&self) -> Point {
        self.current.end()
    }

    /// The direction in which the pen is heading.
    #[must_use]
    pub fn direction(&self) -> Angle {
        self.heading
    }

    fn sound_point(&mut self, call: &'static str, point: Point) -> bool {
        if point.is_finite() {
            return true;
        }
        let kind = FaultKind::PointNotFinite { x: point.x, y: point.y };
        self.fault.note(Fault::of(call, kind).at_vertex(self.current.vertex_count()));
        false
    }

    fn sound_number(&mut self, call: &'static str, what: &'static str, value: f64) -> bool {
        if value.is_finite() {
            return true;
        }
        let kind = FaultKind::NotFinite { what, value };
        self.fault.note(Fault::of(call, kind).at_vertex(self.current.vertex_count()));
        false
    }

    /// Remembers that a point was not finite; draws nothing.
    pub(super) fn refuse(mut self, call: &'static str, point: Point) -> Self {
        self.sound_point(call, point);
        self
    }

    /// Remembers a fault when the number is not finite or negative; true when it is sound.
    pub(super) fn not_negative(&mut self, call: &'static str, what: &'static str, value: f64) -> bool {
        if self.sound_number(call, what, value) && value < 0.0 {
            let kind = FaultKind::Negative { what, value };
            self.fault.note(Fault::of(call, kind).at_vertex(self.current.vertex_count()));
        }
        value >= 0.0 && value.is_finite()
    }

    /// Draws an arc that begins where the pen stands.
    pub(super) fn push_arc(mut self, arc: &ArcSegment) -> Self {
        self.current.arc(arc);
        self.head_along(Segment::Arc(*arc).arriving());
        self
    }

    /// Heads along a step, unless it has no length.
    fn head_along(&mut self, step: Point) {
        if step != Point::ZERO {
            self.heading = rad(step.y.atan2(step.x));
        }
    }

    fn line_as(mut self, call: &'static str, to: Point) -> Self {
        if self.sound_point(call, to) {
            self.head_along(to - self.position());
            self.current.line(to);
        }
        self
    }

    /// A straight side to a point.
    pub fn line(self, to: impl IntoPoint) -> Self {
        self.line_as("line", to.into_point())
    }

    /// A straight side by a step from where the pen stands.
    pub fn line_by(self, step: impl IntoPoint) -> Self {
        let to = self.position() + step.into_point();
        self.line_as("line_by", to)
    }

    /// A straight side in the direction of an angle on the sheet (clockwise as seen from +x), however the pen is
    /// heading. A negative distance goes backwards.
    pub fn ray(mut self, angle: Angle, distance: f64) -> Self {
        if !self.sound_number("ray", "angle", angle.degrees()) {
            return self;
        }
        let to = self.position() + polar(angle, distance);
        let mut pen = self.line_as("ray", to);
        pen.heading = angle;
        pen
    }

    /// Turns the heading by an angle, clockwise as seen; draws nothing.
    pub fn turn(mut self, by: Angle) -> Self {
        if self.sound_number("turn", "angle", by.degrees()) {
            self.heading += by;
        }
        self
    }

    /// Sets the heading to an angle on the sheet, clockwise as seen from +x; draws nothing.
    pub fn heading(mut self, to: Angle) -> Self {
        if self.sound_number("heading", "angle", to.degrees()) {
            self.heading = to;
        }
        self
    }

    /// A straight side along the heading. A negative distance backs up; the heading stays as it is.
    pub fn ahead(self, distance: f64) -> Self {
        let heading = self.heading;
        let to = self.position() + polar(heading, distance);
        let mut pen = self.line_as("ahead", to);
        pen.heading = heading;
        pen
    }

    /// A straight side so far ahead and so far to the right of the heading, which stays as it is; negative numbers go back and
    /// to the left. (After [`Pen::line_by`] the pen heads along the step.)
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let steps = start((0.0, 0.0)).step_by(10.0, 5.0).step_by(10.0, -5.0).open();
    /// assert_eq!(steps.data(), "M0 0 10 5 20 0");
    /// ```
    pub fn step_by(mut self, ahead: f64, aside: f64) -> Self {
        if !self.sound_number("step_by", "step ahead", ahead)
            || !self.sound_number("step_by", "step aside", aside)
        {
            return self;
        }
        let heading = self.heading;
        let to = self.position() + polar(heading, ahead) + polar(heading, aside).perp();
        let mut pen = self.line_as("step_by", to);
        pen.heading = heading;
        pen
    }

    /// A quadratic curve: toward the control point, then to the end.
    pub fn quad(mut self, control: impl IntoPoint, to: impl IntoPoint) -> Self {
        let (control, to) = (control.into_point(), to.into_point());
        if self.sound_point("quad", control) && self.sound_point("quad", to) {
            self.head_along(control - self.position());
            self.head_along(to - control);
            self.current.quad(control, to);
        }
        self
    }

    /// A cubic curve: leaving toward the first control point, arriving from the second.
    pub fn cubic(mut self, control1: impl IntoPoint, control2: impl IntoPoint, to: impl IntoPoint) -> Self {
        let (control1, control2, to) = (control1.into_point(), control2.into_point(), to.into_point());
        if [control1, control2, to].into_iter().all(|p| self.sound_point("cubic", p)) {
            self.head_along(control1 - self.position());
            self.head_along(control2 - control1);
            self.head_along(to - control2);
            self.current.cubic(control1, control2, to);
        }
        self
    }

    /// A circular arc round a centre, from where the pen stands, over an angle: positive is clockwise as seen.
    ///
    /// The radius is the pen's distance from the centre; at the centre itself, and for a sweep of zero, nothing
    /// is drawn. Up to 175 degrees it is one segment, beyond that even pieces of at most a quarter turn. A sweep
    /// of a full turn ends exactly where it began; beyond a full turn it goes round again.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let bow = start(pt(10.0, 0.0)).arc_about(pt(0.0, 0.0), deg(90.0)).open();
    /// assert_eq!(bow.data(), "M10 0A10 10 0 0 1 0 10");
    /// ```
    pub fn arc_about(mut self, centre: impl IntoPoint, sweep: Angle) -> Self {
        let centre = centre.into_point();
        if !self.sound_point("arc_about", centre) || !self.sound_number("arc_about", "sweep", sweep.degrees())
        {
            return self;
        }
        let arm = self.position() - centre;
        let radius = arm.length();
        let reach = centre + centre.signum() * radius;
        if !self.sound_point("arc_about", reach) {
            return self;
        }
        if radius == 0.0 || sweep == Angle::ZERO {
            return self;
        }
        let laps = sweep.turns().abs();
        if laps > MAX_TURNS {
            let kind = FaultKind::OutOfRange {
                what: "sweep in turns",
                value: sweep.turns(),
                low: -MAX_TURNS,
                high: MAX_TURNS,
            };
            self.fault.note(Fault::of("arc_about", kind).at_vertex(self.current.vertex_count()));
            return self;
        }
        let first = Angle::of(arm);
        let whole_laps = laps.trunc();
        let lap = Angle::FULL * sweep.degrees().signum();
        let rest = sweep - lap * whole_laps;
        let radii = Point::splat(radius);
        let mut arc = Arc { centre, radii, tilt: Angle::ZERO, start: first, sweep: lap };
        let home = self.position();
        for _ in 0..whole_laps as usize {
            arc.pieces(home, home, |piece| self.current.arc(&piece));
        }
        if rest != Angle::ZERO {
            arc.sweep = rest;
            let end = centre + polar(first + rest, radius);
            arc.pieces(home, end, |piece| self.current.arc(&piece));
        }
        let quarter = crate::number::deg(90.0) * sweep.degrees().signum();
        self.heading = (first + rest + quarter).wrapped_signed();
        self
    }

    /// Tags the vertex that the pen stands on.
    pub(crate) fn tag(mut self, tag: std::sync::Arc<str>) -> Self {
        let vertex = self.current.vertex_count() - 1;
        self.current.tags([(tag, vertex)]);
        self
    }

    /// Makes room for a number of straight sides to come, so that a long loop allocates once.
    pub fn reserve(mut self, lines: usize) -> Self {
        self.current.reserve(lines.min(MAX_RESERVED));
        self
    }

    /// Ends the contour open here and begins the next one of the same path.
    pub fn start(self, at: impl IntoPoint) -> Self {
        self.open().start(at)
    }

    /// Ends the contour with a straight side back to its start, joined there. Do not repeat the first vertex.
    ///
    /// A last vertex that is the first one but for rounding, nearer to it than a billionth of the contour's size, is taken as
    /// the first one.
    pub fn close(self) -> Path {
        self.end(true)
    }

    /// Ends the contour where the pen stands.
    pub fn open(self) -> Path {
        self.end(false)
    }

    fn end(self, closed: bool) -> Path {
        let Self { mut done, fill_rule, current, fault, .. } = self;
        done.push(if closed { current.close() } else { current.finish(false) });
        Path::from_parts(done, fill_rule, fault)
    }

    /// Returns the first fault of the calls on this pen, if any.
    ///
    /// # Errors
    ///
    /// The first fault of the calls that this pen was given.
    pub fn sound(&self) -> Result<(), Fault> {
        self.fault.sound()
    }
}

/// The most that [`Pen::reserve`] sets aside at once, so that a wrong count does not exhaust the memory.
const MAX_RESERVED: usize = 1 << 26;

/// An arc that goes round more often than this is taken for a mistake in the angle's unit.
const MAX_TURNS: f64 = 10_000.0;
