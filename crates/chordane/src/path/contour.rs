//! The storage of a contour: one byte of verb and the points that it consumes, in two parallel arrays.
//!
//! A straight vertex takes 17 bytes. Copies of a contour share the arrays.

use std::iter::FusedIterator;
use std::sync::Arc as Shared;

use super::counted::Counted;
use super::{ArcSegment, Segment};
use crate::number::{Cell, Point, deg};

/// What a segment is, and so how many points it takes: a line 1, a quadratic 2, a cubic 3, and an arc 3 (its
/// radii, then its tilt in degrees as an x, then its end).
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[repr(u8)]
pub(crate) enum Verb {
    Line,
    Quad,
    Cubic,
    ArcShortAnticlockwise,
    ArcShortClockwise,
    ArcLargeAnticlockwise,
    ArcLargeClockwise,
}

impl Verb {
    /// Returns the number of points it uses.
    #[inline(always)]
    fn points(self) -> usize {
        match self {
            Self::Line => 1,
            Self::Quad => 2,
            _ => 3,
        }
    }

    /// Returns its segment; `None` if there are too few points, which the builder prevents.
    #[inline(always)]
    fn segment(self, from: Point, points: &[Point]) -> Option<Segment> {
        Some(match (self, points) {
            (Self::Line, &[to, ..]) => Segment::Line { from, to },
            (Self::Quad, &[control, to, ..]) => Segment::Quad { from, control, to },
            (Self::Cubic, &[control1, control2, to, ..]) => Segment::Cubic { from, control1, control2, to },
            (arc, &[radii, tilt, to, ..]) => Segment::Arc(ArcSegment {
                from,
                radii,
                tilt: deg(tilt.x),
                large: arc.is_large(),
                clockwise: arc.is_clockwise(),
                to,
            }),
            _ => return None,
        })
    }

    pub(crate) fn arc(large: bool, clockwise: bool) -> Self {
        match (large, clockwise) {
            (false, false) => Self::ArcShortAnticlockwise,
            (false, true) => Self::ArcShortClockwise,
            (true, false) => Self::ArcLargeAnticlockwise,
            (true, true) => Self::ArcLargeClockwise,
        }
    }

    fn is_large(self) -> bool {
        matches!(self, Self::ArcLargeAnticlockwise | Self::ArcLargeClockwise)
    }

    fn is_clockwise(self) -> bool {
        matches!(self, Self::ArcShortClockwise | Self::ArcLargeClockwise)
    }
}

/// One run of the pen: a first vertex and the segments that follow, open or closed.
///
/// A closed contour goes back to its first vertex by a straight side, unless it ends there already.
///
/// ```
/// use chordane::prelude::*;
/// let ring = ring((0.0, 0.0), 20.0, 10.0);
/// assert_eq!(ring.contours().len(), 2);
/// assert!(ring.contours().iter().all(Contour::is_closed));
/// ```
#[derive(Clone, Debug)]
pub struct Contour {
    data: Shared<ContourData>,
}

#[derive(Clone, Debug, Default)]
struct ContourData {
    verbs: Vec<Verb>,
    /// The first vertex, then the points of each verb in turn.
    points: Vec<Point>,
    closed: bool,
    tags: Vec<Tag>,
}

/// A vertex's tag, and the vertex counted from 0.
pub(crate) type Tag = (Shared<str>, usize);

/// Tags are names for vertices, not shape: they are not compared.
impl PartialEq for Contour {
    fn eq(&self, other: &Self) -> bool {
        let (a, b) = (&*self.data, &*other.data);
        std::ptr::eq(a, b) || (a.closed == b.closed && a.verbs == b.verbs && a.points == b.points)
    }
}

impl Contour {
    /// Where the contour begins.
    #[must_use]
    pub fn start(&self) -> Point {
        self.data.points.first().copied().unwrap_or_default()
    }

    /// The last vertex: for a closed contour the one before the closing side.
    #[must_use]
    pub fn end(&self) -> Point {
        self.data.points.last().copied().unwrap_or_default()
    }

    /// Whether the contour goes back to its start and is joined there.
    #[must_use]
    pub fn is_closed(&self) -> bool {
        self.data.closed
    }

    /// The number of vertices: the first one and the end of each segment, closing side not counted.
    #[must_use]
    pub fn vertex_count(&self) -> usize {
        self.data.verbs.len() + 1
    }

    /// The segments in order. A closed contour's closing side comes last, where it has a length.
    #[must_use]
    pub fn segments(&self) -> Segments<'_> {
        Segments {
            verbs: &self.data.verbs,
            points: self.data.points.get(1..).unwrap_or_default(),
            at: self.start(),
            home: self.data.closed.then(|| self.start()),
        }
    }

    /// The segments in order, without the closing side of a closed contour.
    pub(crate) fn stored_segments(&self) -> Segments<'_> {
        Segments { home: None, ..self.segments() }
    }

    /// The vertices in order: the first one, then the end of each segment.
    pub fn vertices(
        &self,
    ) -> impl DoubleEndedIterator<Item = Point> + ExactSizeIterator + FusedIterator + Clone {
        let ends = self.stored_segments().map(|segment| segment.to());
        Counted::new(std::iter::once(self.start()).chain(ends), self.vertex_count())
    }

    /// The same contour travelled the other way, beginning at its last vertex; the closing side of a closed
    /// contour is reversed with it. Twice is the identity, to the last bit.
    #[must_use]
    pub fn reversed(&self) -> Self {
        let segments: Vec<Segment> = self.stored_segments().collect();
        let (verbs, points) = (self.data.verbs.len(), self.data.points.len());
        let mut builder = ContourBuilder::with_capacity(self.end(), verbs, points);
        for segment in segments.iter().rev() {
            builder.segment(&segment.reversed());
        }
        builder.tags(self.tags().iter().map(|(tag, vertex)| (tag.clone(), verbs - vertex)));
        builder.finish(self.is_closed())
    }

    /// Open contours in a row as one, each but the first without its first vertex. `None` of none.
    pub(crate) fn in_a_row(list: &[Self]) -> Option<Self> {
        let [only] = list else {
            let start = list.first()?.start();
            let verbs: Vec<Verb> = list.iter().flat_map(|one| one.verbs()).copied().collect();
            let later = list.iter().flat_map(|one| one.points().get(1..).unwrap_or_default()).copied();
            let points: Vec<Point> = std::iter::once(start).chain(later).collect();
            let mut builder = ContourBuilder::from_parts(verbs, points);
            let mut before = 0;
            for one in list {
                builder.tags(one.tags().iter().map(|(tag, vertex)| (tag.clone(), vertex + before)));
                before += one.verbs().len();
            }
            return Some(builder.finish(false));
        };
        Some(only.clone())
    }

    /// The contour closed, its last vertex moved onto its first. A straight last segment becomes the closing side.
    pub(crate) fn closed_at_start(&self) -> Self {
        let (mut verbs, mut points) = (self.verbs().to_vec(), self.points().to_vec());
        if verbs.last() == Some(&Verb::Line) {
            verbs.pop();
            points.pop();
        } else if let Some(last) = points.last_mut() {
            *last = self.start();
        }
        let vertices = verbs.len() + 1;
        let mut builder = ContourBuilder::from_parts(verbs, points);
        // A last vertex that was dropped is the first one now.
        builder.tags(self.tags().iter().map(|(tag, vertex)| (tag.clone(), vertex % vertices)));
        builder.finish(true)
    }

    /// The tags of the vertices, in the order in which they were given.
    pub(crate) fn tags(&self) -> &[Tag] {
        &self.data.tags
    }

    /// The verb array, for the writer and the transforms.
    pub(crate) fn verbs(&self) -> &[Verb] {
        &self.data.verbs
    }

    /// The point array: the first vertex, then what each verb consumes.
    pub(crate) fn points(&self) -> &[Point] {
        &self.data.points
    }

    /// The bytes that the contour's storage holds, counting what is reserved but unused.
    #[must_use]
    pub fn heap_bytes(&self) -> usize {
        size_of::<ContourData>()
            + self.data.verbs.capacity() * size_of::<Verb>()
            + self.data.points.capacity() * size_of::<Point>()
    }
}

/// The segments of a contour in order; see [`Contour::segments`].
///
/// ```
/// use chordane::prelude::*;
/// let sail = Path::closed([(0.0, 0.0), (60.0, 0.0), (0.0, 80.0)]);
/// assert_eq!(sail.contours()[0].segments().count(), 3);
/// ```
#[derive(Clone, Debug)]
pub struct Segments<'a> {
    verbs: &'a [Verb],
    points: &'a [Point],
    at: Point,
    /// Where a closing side still has to go.
    home: Option<Point>,
}

impl Iterator for Segments<'_> {
    type Item = Segment;

    #[inline]
    fn next(&mut self) -> Option<Segment> {
        let from = self.at;
        let Some((&verb, verbs)) = self.verbs.split_first() else {
            let home = self.home.take()?;
            return (home != from).then_some(Segment::Line { from, to: home });
        };
        let segment = verb.segment(from, self.points)?;
        self.verbs = verbs;
        self.points = self.points.get(verb.points()..).unwrap_or_default();
        self.at = segment.to();
        Some(segment)
    }

    fn size_hint(&self) -> (usize, Option<usize>) {
        let count = self.verbs.len() + usize::from(self.home.is_some_and(|home| home != self.end()));
        (count, Some(count))
    }
}

impl DoubleEndedIterator for Segments<'_> {
    fn next_back(&mut self) -> Option<Segment> {
        let end = self.end();
        if let Some(home) = self.home.take().filter(|home| *home != end) {
            return Some(Segment::Line { from: end, to: home });
        }
        let (&verb, verbs) = self.verbs.split_last()?;
        let (before, own) = self.points.split_at_checked(self.points.len().checked_sub(verb.points())?)?;
        self.verbs = verbs;
        self.points = before;
        verb.segment(self.end(), own)
    }
}

impl ExactSizeIterator for Segments<'_> {}

impl FusedIterator for Segments<'_> {}

impl Segments<'_> {
    /// Returns the end of the last segment, not counting the closing side.
    fn end(&self) -> Point {
        self.points.last().copied().unwrap_or(self.at)
    }
}

/// Returns `true` if `a` and `b` differ by less than 1e-9 of the size of the bounding box of `all`.
pub(super) fn one_but_for_rounding(a: Point, b: Point, all: impl IntoIterator<Item = Point>) -> bool {
    const ROUNDING: f64 = 1e-9;
    let near = |bounds: Cell| a.distance(b) <= bounds.size().max_element() * ROUNDING;
    a == b || Cell::of(all).is_some_and(near)
}

/// A contour in the making. Takes what it is given: whoever holds it has checked that the numbers are finite.
#[derive(Clone, Debug)]
pub(crate) struct ContourBuilder {
    data: ContourData,
}

impl ContourBuilder {
    pub(crate) fn new(start: Point) -> Self {
        Self { data: ContourData { points: vec![start], ..ContourData::default() } }
    }

    pub(crate) fn with_capacity(start: Point, verbs: usize, points: usize) -> Self {
        let mut all = Vec::with_capacity(points.max(1));
        all.push(start);
        let verbs = Vec::with_capacity(verbs);
        Self { data: ContourData { verbs, points: all, ..ContourData::default() } }
    }

    /// What a contour is made of, to go on with.
    pub(crate) fn of(contour: &Contour) -> Self {
        Self { data: ContourData::clone(&contour.data) }
    }

    /// A contour of straight sides through all of the points, in order; `None` without a point.
    pub(crate) fn polyline(points: Vec<Point>) -> Option<Self> {
        let sides = points.len().checked_sub(1)?;
        Some(Self::from_parts(vec![Verb::Line; sides], points))
    }

    pub(crate) fn from_parts(verbs: Vec<Verb>, points: Vec<Point>) -> Self {
        Self { data: ContourData { verbs, points, ..ContourData::default() } }
    }

    pub(crate) fn reserve(&mut self, lines: usize) {
        self.data.verbs.reserve(lines);
        self.data.points.reserve(lines);
    }

    pub(crate) fn start(&self) -> Point {
        self.data.points.first().copied().unwrap_or_default()
    }

    pub(crate) fn end(&self) -> Point {
        self.data.points.last().copied().unwrap_or_default()
    }

    pub(crate) fn vertex_count(&self) -> usize {
        self.data.verbs.len() + 1
    }

    #[inline]
    pub(crate) fn line(&mut self, to: Point) {
        self.data.verbs.push(Verb::Line);
        self.data.points.push(to);
    }

    pub(crate) fn quad(&mut self, control: Point, to: Point) {
        self.data.verbs.push(Verb::Quad);
        self.data.points.extend_from_slice(&[control, to]);
    }

    pub(crate) fn cubic(&mut self, control1: Point, control2: Point, to: Point) {
        self.data.verbs.push(Verb::Cubic);
        self.data.points.extend_from_slice(&[control1, control2, to]);
    }

    pub(crate) fn arc(&mut self, arc: &ArcSegment) {
        self.data.verbs.push(Verb::arc(arc.large, arc.clockwise));
        self.data.points.extend_from_slice(&[arc.radii, Point::new(arc.tilt.degrees(), 0.0), arc.to]);
    }

    /// Adds a segment by its kind; its `from` is taken to be where the contour stands.
    pub(crate) fn segment(&mut self, segment: &Segment) {
        match *segment {
            Segment::Line { to, .. } => self.line(to),
            Segment::Quad { control, to, .. } => self.quad(control, to),
            Segment::Cubic { control1, control2, to, .. } => self.cubic(control1, control2, to),
            Segment::Arc(arc) => self.arc(&arc),
        }
    }

    /// Names vertices; those that there are not, and names that they have already, are left out.
    pub(crate) fn tags(&mut self, tags: impl IntoIterator<Item = Tag>) {
        let vertices = self.vertex_count();
        for tag in tags {
            if tag.1 < vertices && !self.data.tags.contains(&tag) {
                self.data.tags.push(tag);
            }
        }
    }

    /// The contour, closed. A last vertex that is the first one but for rounding, nearer to it than a billionth of the
    /// contour's size, is taken as the first one.
    pub(crate) fn close(mut self) -> Contour {
        let (start, end, sides) = (self.start(), self.end(), self.data.verbs.len());
        if sides >= 2 && one_but_for_rounding(start, end, self.data.points.iter().copied()) {
            if self.data.verbs.last() == Some(&Verb::Line) {
                self.data.verbs.pop();
                self.data.points.pop();
                // A last vertex that was dropped is the first one now.
                let tags = std::mem::take(&mut self.data.tags);
                self.tags(tags.into_iter().map(|(tag, vertex)| (tag, vertex % sides)));
            } else if let Some(last) = self.data.points.last_mut() {
                *last = start;
            }
        }
        self.finish(true)
    }

    pub(crate) fn finish(mut self, closed: bool) -> Contour {
        self.data.closed = closed;
        // A growing vector reserves up to twice what it holds; a finished contour does not grow.
        self.data.verbs.shrink_to_fit();
        self.data.points.shrink_to_fit();
        Contour { data: Shared::new(self.data) }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_straight_vertex_costs_seventeen_bytes() {
        assert_eq!(size_of::<Verb>(), 1);
        assert_eq!(size_of::<Point>(), 16);
        let mut builder = ContourBuilder::new(Point::ZERO);
        for i in 0..100_000 {
            builder.line(Point::splat(f64::from(i)));
        }
        let contour = builder.finish(true);
        assert!(contour.heap_bytes() <= 100_001 * 18);
    }
}
