//! Smooth curves through points: [`through`] and [`flowing`].
//!
//! Vertices of three kinds mix in one contour. Between hard vertices (corners and rounded ones) the curve is a run
//! of its own: straight when there is no soft vertex between them, else one smooth curve through all of those.
//! Every corner and soft vertex is on the curve; a closed contour of soft vertices alone has no seam.

use std::sync::Arc as Shared;

use super::contour::one_but_for_rounding;
use super::tangents::{self, End, Run};
use super::{ArcSegment, ContourBuilder, Path, Tag};
use crate::ground::{Fault, FaultKind, FaultSlot, named};
use crate::number::{Angle, IntoPoint, Point, rad};

/// A vertex of a smooth curve: where it is, and how the curve passes it.
///
/// Wherever one is taken, a plain point is a soft one.
///
/// ```
/// use chordane::prelude::*;
/// let line = through([soft((0.0, 0.0)), corner((40.0, 30.0)).tagged("tip"), soft((80.0, 0.0))]).open();
/// assert_eq!(line.contours()[0].vertex_count(), 3);
/// ```
#[derive(Clone, Debug, PartialEq)]
pub struct Vertex {
    at: Point,
    kind: Kind,
    tag: Option<Shared<str>>,
}

impl Vertex {
    fn new(at: Point, kind: Kind) -> Self {
        Self { at, kind, tag: None }
    }

    /// The same vertex with a tag, by which [`Path::shifted`] moves it. The two ends of a rounding both have it.
    #[must_use]
    pub fn tagged(mut self, tag: &str) -> Self {
        self.tag = Some(tag.into());
        self
    }
}

/// A list of vertices that all carry a tag, by which [`Path::shifted`] moves them together.
///
/// ```
/// use chordane::prelude::*;
/// let left = tagged("left", [(-40.0, 10.0), (-50.0, 40.0)]);
/// let sail = through([soft((0.0, 0.0))].into_iter().chain(left).chain([corner((0.0, 80.0))])).close();
/// assert_eq!(sail.shifted("left", (-5.0, 0.0)).bounds().unwrap().min.x, sail.bounds().unwrap().min.x - 5.0);
/// ```
#[must_use]
pub fn tagged<V: Into<Vertex>>(tag: &str, vertices: impl IntoIterator<Item = V>) -> Vec<Vertex> {
    let tag: Shared<str> = tag.into();
    let tagged = |vertex: V| Vertex { tag: Some(tag.clone()), ..vertex.into() };
    vertices.into_iter().map(tagged).collect()
}

#[derive(Clone, Copy, Debug, PartialEq)]
enum Kind {
    Soft,
    Corner,
    Rounded(f64),
}

/// A vertex that the curve passes without a corner.
///
/// ```
/// use chordane::prelude::*;
/// let arch = through([soft((0.0, 0.0)), soft((40.0, 30.0)), soft((80.0, 0.0))]).open();
/// assert!(arch.segments().all(|segment| matches!(segment, Segment::Cubic { .. })));
/// ```
#[must_use]
pub fn soft(at: impl IntoPoint) -> Vertex {
    Vertex::new(at.into_point(), Kind::Soft)
}

/// A vertex at which the curve has a corner; two of them in a row have a straight side between them.
///
/// ```
/// use chordane::prelude::*;
/// let tent = through([corner((0.0, 0.0)), corner((40.0, 30.0)), corner((80.0, 0.0))]).open();
/// assert_eq!(tent.data(), "M0 0 40 30 80 0");
/// ```
#[must_use]
pub fn corner(at: impl IntoPoint) -> Vertex {
    Vertex::new(at.into_point(), Kind::Corner)
}

/// A corner that an arc of a radius cuts short, touching the lines to both neighbours; where it does not fit, the
/// radius shrinks. The curve does not reach the vertex itself. At the end of an open contour it is a plain corner.
///
/// ```
/// use chordane::prelude::*;
/// let bend = through([corner((0.0, 0.0)), rounded((40.0, 0.0), 10.0), corner((40.0, 40.0))]).open();
/// assert_eq!(bend.data(), "M0 0H30A10 10 0 0 1 40 10V40");
/// ```
#[must_use]
pub fn rounded(at: impl IntoPoint, radius: f64) -> Vertex {
    Vertex::new(at.into_point(), Kind::Rounded(radius))
}

impl<P: IntoPoint> From<P> for Vertex {
    fn from(at: P) -> Self {
        soft(at)
    }
}

/// The knot spacing (parametrization) of a spline.
///
/// ```
/// use chordane::prelude::*;
/// let points = [(0.0, 0.0), (40.0, 30.0), (80.0, 0.0), (82.0, 0.0)];
/// let even = through(points).spacing(Spacing::Uniform).open();
/// assert_ne!(even, through(points).spacing(Spacing::Centripetal).open());
/// ```
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
pub enum Spacing {
    /// Every stretch counts the same, however long: tends to overshoot, and to loop where points stand close.
    Uniform,
    /// A stretch counts by the root of its length: no loop or cusp between neighbours (C. Yuksel, S. Schaefer and
    /// J. Keyser, "Parameterization and applications of Catmull-Rom curves", 2011).
    #[default]
    Centripetal,
    /// A stretch counts by its length: round, with wide bows between far points.
    Chordal,
}

named! { Spacing: "spacing"; "uniform" => Uniform, "centripetal" => Centripetal, "chordal" => Chordal }

/// How an open run begins and ends.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::path::Ends;
/// let points = [(0.0, 0.0), (40.0, 30.0), (80.0, 0.0)];
/// let led = through(points).ends(Ends::Led(pt(-20.0, 0.0), pt(100.0, 0.0))).open();
/// assert_ne!(led, through(points).ends(Ends::Natural).open());
/// ```
#[derive(Clone, Copy, Debug, Default, PartialEq)]
#[non_exhaustive]
pub enum Ends {
    /// Without bending at the end itself.
    #[default]
    Natural,
    /// Straight toward the neighbour.
    Held,
    /// As if the curve came from the first guide point and went on to the second; they are not drawn. At corners
    /// inside the contour the runs are natural.
    Led(Point, Point),
}

/// A smooth curve in the making: how it passes its vertices. [`Through::open`] and [`Through::close`] make a path.
///
/// ```
/// use chordane::prelude::*;
/// let curve: Through = through([(0.0, 0.0), (40.0, 30.0), (80.0, 0.0)]).tension(0.5);
/// assert_eq!(curve.open().contours()[0].end(), pt(80.0, 0.0));
/// ```
#[derive(Clone, Debug)]
#[must_use = "a curve draws nothing until `close()` or `open()` makes a path of it"]
pub struct Through {
    vertices: Vec<Vertex>,
    /// How it is paced; centripetal by default.
    pub spacing: Spacing,
    /// How tight it is, from 0, the default, to 1, which gives straight sides; other numbers are a fault.
    pub tension: f64,
    /// How it begins and ends where it is open; natural by default.
    pub ends: Ends,
    low_bending: bool,
    call: &'static str,
    fault: FaultSlot,
}

/// A smooth curve through vertices, each stretch shaped by its neighbours alone: moving one vertex changes the curve
/// over two stretches on either side.
///
/// ```
/// use chordane::prelude::*;
/// let tail = through([(0.0, 0.0), (40.0, 30.0), (80.0, -30.0), (120.0, 0.0)]).open();
/// assert_eq!(tail.contours()[0].vertices().nth(1), Some(pt(40.0, 30.0)));
///
/// let wing = through([corner((0.0, 0.0)), soft((40.0, -30.0)), soft((80.0, -20.0)), corner((120.0, 0.0))]).close();
/// assert!(matches!(wing.segments().last(), Some(Segment::Line { .. })));
/// ```
pub fn through<V: Into<Vertex>>(vertices: impl IntoIterator<Item = V>) -> Through {
    Through::new("through", vertices, false)
}

/// A smooth curve through vertices that keeps bending low: rounder than [`through`], each stretch depending a little
/// on all others. Points of a regular polygon give very nearly a circle.
///
/// The interpolation is that of J. D. Hobby, "Smooth, easy to compute interpolating splines", Discrete &
/// Computational Geometry 1, 1986. [`Through::spacing`] does not matter here.
///
/// ```
/// use chordane::prelude::*;
/// let loop_of_line = flowing([(0.0, 0.0), (40.0, 30.0), (80.0, 0.0)]).close();
/// assert!(loop_of_line.contours()[0].is_closed());
/// ```
pub fn flowing<V: Into<Vertex>>(vertices: impl IntoIterator<Item = V>) -> Through {
    Through::new("flowing", vertices, true)
}

impl Through {
    fn new<V: Into<Vertex>>(
        call: &'static str,
        vertices: impl IntoIterator<Item = V>,
        low_bending: bool,
    ) -> Self {
        let vertices: Vec<Vertex> = vertices.into_iter().map(Into::into).collect();
        let (spacing, ends, mut fault) = Default::default();
        for (i, vertex) in vertices.iter().enumerate() {
            note(&mut fault, call, i, vertex);
        }
        Self { vertices, spacing, tension: 0.0, ends, low_bending, call, fault }
    }

    /// The same curve, paced in another way; centripetal by default.
    pub fn spacing(mut self, spacing: Spacing) -> Self {
        self.spacing = spacing;
        self
    }

    /// The same curve, tighter: 0, the default, is loose, 1 gives straight sides. Other numbers are a fault.
    pub fn tension(mut self, tension: f64) -> Self {
        self.tension = tension;
        self
    }

    /// The same curve with other ends; natural by default. A closed contour has none, but for its corners.
    pub fn ends(mut self, ends: Ends) -> Self {
        self.ends = ends;
        self
    }

    /// The fault of the vertices, or of a setting.
    fn check(&self) -> FaultSlot {
        let mut fault = self.fault.clone();
        fault.in_range("tension", "tension", self.tension, 0.0, 1.0);
        if let Ends::Led(first, last) = self.ends {
            fault.point("ends", first);
            fault.point("ends", last);
        }
        fault
    }

    /// The curve from the first vertex to the last.
    ///
    /// Vertices that repeat their neighbour count once. No vertex gives an empty path, one a lone vertex, two a
    /// straight side (unless the ends are led). Cost: linear in the vertices.
    #[must_use]
    pub fn open(self) -> Path {
        self.build(false)
    }

    /// The curve through all vertices and back to the first. Do not repeat it. At its limits as [`Through::open`].
    #[must_use]
    pub fn close(self) -> Path {
        self.build(true)
    }

    /// The curve so far when nothing went wrong, else the first fault.
    ///
    /// # Errors
    ///
    /// The first fault of what it was made of.
    pub fn sound(&self) -> Result<(), Fault> {
        self.check().sound()
    }

    fn build(mut self, closed: bool) -> Path {
        let fault = self.check();
        if fault.get().is_some() {
            return Path::from_parts(Vec::new(), Default::default(), fault);
        }
        self.vertices.dedup_by(|b, a| a.at == b.at);
        if let (true, [first, .., last]) = (closed, &self.vertices[..])
            && one_but_for_rounding(first.at, last.at, self.vertices.iter().map(|v| v.at))
        {
            self.vertices.pop();
        }
        let contours = self.contour(closed).map(|builder| builder.finish(closed));
        Path::from_parts(contours.into_iter().collect(), Default::default(), fault).within_numbers(self.call)
    }

    fn contour(&self, closed: bool) -> Option<ContourBuilder> {
        let first_hard = self.vertices.iter().position(|v| v.kind != Kind::Soft);
        let first = self.vertices.first()?;
        if self.vertices.len() == 1 {
            return Some(ContourBuilder::new(first.at));
        }
        if closed && first_hard.is_none() && self.vertices.len() > 2 {
            let mut builder = ContourBuilder::new(first.at);
            let points = self.vertices.iter().map(|v| v.at).collect();
            self.draw(&Run { points, first: End::Natural, last: End::Natural, cyclic: true }, &mut builder);
            // The last segment comes back to the first vertex.
            let home = self.vertices.len();
            let places = self.vertices.iter().enumerate().chain([(home, first)]);
            builder.tags(places.filter_map(|(i, vertex)| Some((vertex.tag.clone()?, i))));
            return Some(builder);
        }
        // A closed contour is gone round from its first hard vertex, which then stands at both ends.
        let mut order = self.vertices.clone();
        if closed {
            order.rotate_left(first_hard.unwrap_or(0));
            order.extend(order.first().cloned());
        }
        let roundings = roundings(&order, closed);
        let place = |i: usize, leaving: bool| match roundings.get(i) {
            Some(Some(rounding)) => {
                if leaving {
                    rounding.out
                } else {
                    rounding.into
                }
            }
            _ => order.get(i).map_or(Point::ZERO, |v| v.at),
        };
        let mut builder = ContourBuilder::new(place(0, true));
        let last = order.len() - 1;
        let mut tags: Vec<Tag> = Vec::new();
        let mut tag = |i: usize, place: usize| {
            tags.extend(order.get(i).and_then(|vertex| Some((vertex.tag.clone()?, place))));
        };
        tag(0, 0);
        let mut begin = 0;
        while begin < last {
            let before = builder.vertex_count() - 1;
            let is_hard = |i: &usize| *i == last || order.get(*i).is_some_and(|v| v.kind != Kind::Soft);
            let end = (begin + 1..=last).find(is_hard).unwrap_or(last);
            let mut points = vec![place(begin, true)];
            points.extend(order.get(begin + 1..end).unwrap_or_default().iter().map(|v| v.at));
            points.push(place(end, false));
            let open_end = |at_first: bool| match self.ends {
                _ if closed => End::Natural,
                Ends::Natural => End::Natural,
                Ends::Held => End::Held,
                Ends::Led(first, last) => End::Led(if at_first { first } else { last }),
            };
            let end_of = |i: usize, at_first: bool| match roundings.get(i) {
                Some(Some(rounding)) if at_first => End::Along(rounding.out - rounding.at),
                Some(Some(rounding)) => End::Along(rounding.at - rounding.into),
                _ if i == 0 || i == last => open_end(at_first),
                _ => End::Natural,
            };
            let run = Run { points, first: end_of(begin, true), last: end_of(end, false), cyclic: false };
            let led = matches!((run.first, run.last), (End::Led(_), _) | (_, End::Led(_)));
            if end == begin + 1 && !led {
                // A straight side back to where the contour began is its closing side.
                let closing = closed && end == last && matches!(roundings.get(last), Some(None));
                if !closing && run.points.first() != run.points.last() {
                    builder.line(run.points[1]);
                }
            } else {
                self.draw(&run, &mut builder);
            }
            for i in begin + 1..=end {
                tag(i, before + i - begin);
            }
            if let Some(Some(rounding)) = roundings.get(end)
                && (closed || end < last)
            {
                builder.arc(&rounding.arc());
                tag(end, builder.vertex_count() - 1);
            }
            begin = end;
        }
        builder.tags(tags);
        Some(builder)
    }

    fn draw(&self, run: &Run, builder: &mut ContourBuilder) {
        let handles = if self.low_bending {
            tangents::low_bending(run)
        } else {
            tangents::local(
                run,
                match self.spacing {
                    Spacing::Uniform => 0.0,
                    Spacing::Centripetal => 0.5,
                    Spacing::Chordal => 1.0,
                },
            )
        };
        let loose = 1.0 - self.tension;
        let ends = run.points.iter().skip(1).chain(run.cyclic.then(|| run.points.first()).flatten());
        for ((from, to), (leaving, arriving)) in run.points.iter().zip(ends).zip(handles) {
            builder.cubic(*from + leaving * loose, *to - arriving * loose, *to);
        }
    }
}

fn note(fault: &mut FaultSlot, call: &'static str, i: usize, vertex: &Vertex) {
    let kind = match vertex.kind {
        _ if !vertex.at.is_finite() => FaultKind::PointNotFinite { x: vertex.at.x, y: vertex.at.y },
        Kind::Rounded(radius) if !radius.is_finite() => {
            FaultKind::NotFinite { what: "radius", value: radius }
        }
        Kind::Rounded(radius) if radius < 0.0 => FaultKind::Negative { what: "radius", value: radius },
        _ => return,
    };
    fault.note(Fault::of(call, kind).at_vertex(i));
}

/// Where the arc of a rounded vertex begins and ends.
struct Rounding {
    at: Point,
    into: Point,
    out: Point,
    radius: f64,
    clockwise: bool,
}

impl Rounding {
    fn arc(&self) -> ArcSegment {
        let radii = Point::splat(self.radius);
        let (tilt, large) = (Angle::ZERO, false);
        ArcSegment { from: self.into, radii, tilt, large, clockwise: self.clockwise, to: self.out }
    }
}

/// The arcs of the rounded vertices; none at the ends of an open contour, or where the sides go straight on or
/// straight back.
fn roundings(order: &[Vertex], closed: bool) -> Vec<Option<Rounding>> {
    let last = order.len().saturating_sub(1);
    let is_rounded = |v: &Vertex| matches!(v.kind, Kind::Rounded(_));
    let rounding = |i: usize| {
        let vertex = order.get(i)?;
        let Kind::Rounded(radius) = vertex.kind else { return None };
        // The first vertex of a closed contour stands at the end too.
        let before = if i > 0 { i - 1 } else { last.checked_sub(1).filter(|_| closed)? };
        let behind = if i < last { i + 1 } else { Some(1).filter(|_| closed)? };
        let (before, behind) = (order.get(before)?, order.get(behind)?);
        let (back, on) = (before.at - vertex.at, behind.at - vertex.at);
        // Two rounded neighbours share the side between them.
        let room = |step: Point, other: &Vertex| step.length() * if is_rounded(other) { 0.5 } else { 1.0 };
        let turn = rad(back.perp_dot(on).atan2(back.dot(on)));
        let half = (turn.abs() * 0.5).tan();
        let touch = (radius / half).min(room(back, before)).min(room(on, behind));
        let straight = back.perp_dot(on).abs() <= 1e-13 * back.length() * on.length();
        (touch > 0.0 && !straight).then(|| Rounding {
            at: vertex.at,
            into: vertex.at + back.normalize_or_zero() * touch,
            out: vertex.at + on.normalize_or_zero() * touch,
            radius: if touch < radius / half { touch * half } else { radius },
            clockwise: turn.degrees() < 0.0,
        })
    };
    (0..order.len()).map(rounding).collect()
}
