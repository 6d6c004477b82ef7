//! The [`Path`]: contours, the rule that says what they enclose, and the first fault of their making.

use std::iter::FusedIterator;

use super::counted::Counted;
use super::{Contour, ContourBuilder, Pen, Segment};
use crate::ground::{Fault, FaultKind, FaultSlot, limited, named};
use crate::number::{IntoPoint, Point};

/// The rule that decides which points are inside a path.
///
/// ```
/// use chordane::prelude::*;
/// assert!(FillRule::Nonzero.encloses(2));
/// assert!(!FillRule::EvenOdd.encloses(2));
/// ```
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
pub enum FillRule {
    /// A spot is inside when the contours wind round it at all: clockwise turns count +1, anticlockwise -1, and
    /// the sum is not zero. A hole runs the other way round than what it is cut from.
    #[default]
    Nonzero,
    /// A spot is inside when a line from it to far away crosses the contours an odd number of times. Every
    /// overlap opens a hole, whatever the directions.
    EvenOdd,
}

named! { FillRule: "fill rule"; "nonzero" => Nonzero, "evenodd" => EvenOdd }

impl FillRule {
    /// Whether a winding number means inside.
    #[inline]
    #[must_use]
    pub fn encloses(self, winding: i32) -> bool {
        match self {
            Self::Nonzero => winding != 0,
            Self::EvenOdd => winding & 1 != 0,
        }
    }
}

/// Any number of contours with a fill rule. A value: every call that changes something gives a new path, and
/// copies share their storage.
///
/// Contours of lines, curves and arcs, and the rule that says what they enclose.
///
/// Equal are paths with the same contours and the same rule; what went wrong in their making is not compared.
///
/// # Its methods, by question
///
/// | question | methods |
/// | --- | --- |
/// | make one | [`Path::closed`], [`Path::open`], [`start`](super::start), [`Path::from_data`], [`Path::from_segments`], the [shapes](crate::shape) |
/// | what is it made of? | [`Path::contours`], [`Path::segments`], [`Path::data`], [`Path::fill_rule`], [`Path::tags`] |
/// | is it sound? | [`Path::sound`], [`Path::fault`] |
/// | how large, how long? | [`Path::bounds`], [`Path::length`], [`Path::area`], [`Path::signed_area`], [`Path::centroid`] |
/// | what is where on it? | [`Path::survey`], [`Path::distance`], [`Path::on_stroke`], [`Path::inside`], [`Path::winding`] |
/// | where does it meet? | [`Path::crossings`], [`Path::crossings_with`], [`Path::crosses_itself`], [`Path::vertex_gap`] |
/// | move it | [`Path::moved`], [`Path::rotated`], [`Path::scaled`], [`Path::sheared`], [`Path::transformed`], [`Path::fitted`] |
/// | change its vertices | [`Path::replaced`], [`Path::inserted`], [`Path::removed`], [`Path::tagged`], [`Path::shifted`] |
/// | reshape it | [`Path::then`], and a word for each [reshape](crate::reshape): [`Path::rounded`], [`Path::dashed`], [`Path::outlined`], .. |
/// | combine it | [`Path::and`], [`Path::with_hole`], [`Path::union`], [`Path::intersection`], [`Path::difference`], [`Path::xor`], [`Path::simplified`], [`Path::morph`] |
/// | paint it | [`Path::fill`], [`Path::stroke`], [`Path::styled`] |
///
/// # A path that carries a fault
///
/// It goes on answering for what is left of it, which may be nothing: [`Path::data`], [`Path::bounds`], [`Path::inside`],
/// [`Path::winding`], [`Path::signed_area`], [`Path::contours`], [`Path::segments`] and [`Path::is_empty`] do not look at
/// the fault. What measures or leaves the library returns it: [`Path::length`], [`Path::area`], [`Path::survey`],
/// [`Path::crossings`], and all of a sheet. A path that is put together from contours taken out of another one does not
/// carry the other's fault: ask [`Path::sound`] first, or hand it on with [`Path::with_fault`].
///
/// # As JSON
///
/// With the feature `serde` a path is `{"data": "M0 0H60L0 80Z", "fill_rule": "nonzero"}`, exact to the last bit; a
/// point is `[x, y]`, an angle its degrees, a [`Cell`](crate::number::Cell) `{"min": [x, y], "max": [x, y]}`, and a colour its four
/// shares by name.
///
/// ```
/// use chordane::prelude::*;
/// let sail = Path::closed([(0.0, 0.0), (60.0, 0.0), (0.0, 80.0)]);
/// assert_eq!((sail.data().as_str(), sail.length()?, sail.area()?), ("M0 0H60L0 80Z", 240.0, 2400.0));
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Debug, Default)]
pub struct Path {
    contours: Vec<Contour>,
    fill_rule: FillRule,
    fault: FaultSlot,
}

impl PartialEq for Path {
    fn eq(&self, other: &Self) -> bool {
        self.contours == other.contours && self.fill_rule == other.fill_rule
    }
}

impl Path {
    /// The path without a contour: it paints nothing and has no bounds.
    #[must_use]
    pub fn empty() -> Self {
        Self::default()
    }

    /// A path of these contours, under the nonzero rule.
    #[must_use]
    pub fn from_contours(contours: impl IntoIterator<Item = Contour>) -> Self {
        Self { contours: contours.into_iter().collect(), ..Self::default() }
    }

    /// A closed contour of straight sides through all of the points in order; empty without a point.
    ///
    /// The last point is joined to the first; do not list the first one twice. A last point that is the first one but for
    /// rounding is taken as the first one; see [`Pen::close`].
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let sail = Path::closed(around(4).map(|a| polar(a, 50.0)));
    /// assert_eq!(sail.data(), "M50 0 0 50-50 0 0-50Z");
    /// ```
    #[must_use]
    pub fn closed<P: IntoPoint>(points: impl IntoIterator<Item = P>) -> Self {
        Self::polyline("closed", points, true)
    }

    /// An open contour of straight sides through all of the points in order; empty without a point.
    #[must_use]
    pub fn open<P: IntoPoint>(points: impl IntoIterator<Item = P>) -> Self {
        Self::polyline("open", points, false)
    }

    fn polyline<P: IntoPoint>(call: &'static str, points: impl IntoIterator<Item = P>, closed: bool) -> Self {
        let points: Vec<Point> = points.into_iter().map(IntoPoint::into_point).collect();
        let mut path = Self::empty();
        if let Some(bad) = points.iter().position(|p| !p.is_finite()) {
            let Point { x, y } = points.get(bad).copied().unwrap_or_default();
            path.fault.note(Fault::of(call, FaultKind::PointNotFinite { x, y }).at_vertex(bad));
            return path;
        }
        let contour = |builder: ContourBuilder| if closed { builder.close() } else { builder.finish(false) };
        path.contours.extend(ContourBuilder::polyline(points).map(contour));
        path
    }

    /// The same path with every open contour closed, as [`Pen::close`] does it: a trail that comes back to where it began, or an
    /// open list of points.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let sail = Path::open([(0.0, 0.0), (60.0, 0.0), (0.0, 80.0), (0.0, 0.0)]).close();
    /// assert_eq!(sail.data(), "M0 0H60L0 80Z");
    /// ```
    #[must_use]
    pub fn close(&self) -> Self {
        let close = |contour: &Contour| {
            if contour.is_closed() { contour.clone() } else { ContourBuilder::of(contour).close() }
        };
        let contours = self.contours.iter().map(close).collect();
        Self { contours, fill_rule: self.fill_rule, fault: self.fault.clone() }
    }

    pub(crate) fn from_parts(contours: Vec<Contour>, fill_rule: FillRule, fault: FaultSlot) -> Self {
        Self { contours, fill_rule, fault }
    }

    /// Records a fault, and drops the contours, if a coordinate has overflowed; records a fault if the budget is exhausted.
    pub(crate) fn within_numbers(mut self, call: &'static str) -> Self {
        if let Some(p) = self.contours.iter().flat_map(Contour::points).find(|p| !p.is_finite()) {
            self.fault.point(call, *p);
            self.contours.clear();
        }
        self
    }

    /// A path made by work that a budget may end; empty with that fault where it does.
    pub(crate) fn limited(call: &'static str, make: impl FnOnce() -> Self) -> Self {
        limited(call, make).unwrap_or_else(|stopped| Self::empty().with_fault(stopped))
    }

    pub(crate) fn into_parts(self) -> (Vec<Contour>, FillRule, FaultSlot) {
        (self.contours, self.fill_rule, self.fault)
    }

    pub(crate) fn carried(&self) -> &FaultSlot {
        &self.fault
    }

    /// The contours in the order in which they were drawn.
    #[must_use]
    pub fn contours(&self) -> &[Contour] {
        &self.contours
    }

    /// The segments of all contours in order, closing sides included.
    ///
    /// For a path with a fault, these are the remaining segments.
    pub fn segments(
        &self,
    ) -> impl DoubleEndedIterator<Item = Segment> + ExactSizeIterator + FusedIterator + Clone {
        let count = self.contours.iter().map(|contour| contour.segments().len()).sum();
        Counted::new(self.contours.iter().flat_map(Contour::segments), count)
    }

    /// Whether there is no contour at all.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        self.contours.is_empty()
    }

    /// What the contours enclose.
    #[must_use]
    pub fn fill_rule(&self) -> FillRule {
        self.fill_rule
    }

    /// The same path under another fill rule.
    #[must_use]
    pub fn with_fill_rule(mut self, rule: FillRule) -> Self {
        self.fill_rule = rule;
        self
    }

    /// The path itself when nothing went wrong in its making, else the first fault.
    ///
    /// # Errors
    ///
    /// The first fault of any call that this path was made by.
    pub fn sound(&self) -> Result<&Self, Fault> {
        self.fault.sound().map(|()| self)
    }

    /// The path's fault, if it carries one.
    #[must_use]
    pub fn fault(&self) -> Option<&Fault> {
        self.fault.get()
    }

    /// The path with a fault, unless it carries one already: what a [`Reshape`](crate::reshape::Reshape) of your own does
    /// with what cannot be.
    #[must_use]
    pub fn with_fault(mut self, fault: Fault) -> Self {
        self.fault.note(fault);
        self
    }

    /// This path's contours, then the other's; the fill rule is this one's.
    #[must_use]
    pub fn and(mut self, other: &Self) -> Self {
        self.contours.extend_from_slice(&other.contours);
        self.fault.take_from(&other.fault);
        self
    }

    /// Every contour travelled the other way; see [`Contour::reversed`]. Twice is the identity.
    #[must_use]
    pub fn reversed(&self) -> Self {
        Self { contours: self.contours.iter().map(Contour::reversed).collect(), ..self.clone() }
    }

    /// A pen that begins the next contour of this path at a point.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let two = start(pt(0.0, 0.0)).line(pt(5.0, 0.0)).open().start(pt(0.0, 9.0)).line(pt(5.0, 9.0)).open();
    /// assert_eq!(two.contours().len(), 2);
    /// ```
    pub fn start(self, at: impl IntoPoint) -> Pen {
        Pen::continuing(self, at.into_point())
    }
}

impl AsRef<Self> for Path {
    fn as_ref(&self) -> &Self {
        self
    }
}
