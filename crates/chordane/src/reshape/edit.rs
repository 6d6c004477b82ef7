//! Changing single vertices: by tag, or by their place in the contour.
//!
//! A vertex moves with its own handles: the control point of a cubic next to it keeps its arm. The control point of a
//! quadratic belongs to both ends and moves only when both do; an arc is turned and scaled with its chord, so that it keeps its shape.

use std::sync::Arc as Shared;

use crate::ground::{Fault, FaultKind, FaultSlot};
use crate::number::{IntoPoint, Point, rad};
use crate::path::{ArcSegment, Contour, ContourBuilder, Path, Pen, Segment, Tag};

/// Which vertex of a path: its contour and its number there, both counted from 0, as the bones number them.
///
/// A plain number is a vertex of the first contour, a pair a contour and a vertex.
///
/// ```
/// use chordane::prelude::*;
/// let sail = Path::closed([(0.0, 0.0), (60.0, 0.0), (0.0, 80.0)]);
/// // A number alone means the first contour.
/// assert_eq!(sail.replaced(1, (50.0, 0.0)), sail.replaced((0, 1), (50.0, 0.0)));
/// ```
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub struct VertexAt {
    /// The contour.
    pub contour: usize,
    /// The vertex of that contour; the first one is 0.
    pub vertex: usize,
}

impl From<usize> for VertexAt {
    fn from(vertex: usize) -> Self {
        Self { contour: 0, vertex }
    }
}

impl From<(usize, usize)> for VertexAt {
    fn from((contour, vertex): (usize, usize)) -> Self {
        Self { contour, vertex }
    }
}

impl Pen {
    /// Tags the vertex that the pen stands on, so that [`Path::shifted`] finds it again. A vertex may carry several
    /// tags, and a tag may be on many vertices.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let sail = start((0.0, 0.0)).line((40.0, 30.0)).tagged("right").line((0.0, 90.0)).line((-40.0, 30.0)).tagged("left").close();
    /// let wide = sail.shifted("right", (9.0, 0.0)).shifted("left", (-9.0, 0.0));
    /// assert_eq!(wide.data(), "M0 0 49 30 0 90-49 30Z");
    /// ```
    pub fn tagged(self, tag: &str) -> Self {
        self.tag(tag.into())
    }
}

impl Path {
    /// The path with a tag on each of some vertices; see [`Path::shifted`]. A vertex that is not there is a fault.
    #[must_use]
    pub fn tagged<V: Into<VertexAt>>(&self, tag: &str, vertices: impl IntoIterator<Item = V>) -> Self {
        let tag: Shared<str> = tag.into();
        let mut added: Vec<Vec<Tag>> = vec![Vec::new(); self.contours().len()];
        let mut fault = self.carried().clone();
        for at in vertices {
            let at = at.into();
            if self.there("tagged", at, 0, &mut fault)
                && let Some(tags) = added.get_mut(at.contour)
            {
                tags.push((tag.clone(), at.vertex));
            }
        }
        let contours = self.contours().iter().zip(added).map(|(contour, tags)| {
            let mut builder = ContourBuilder::from_parts(contour.verbs().to_vec(), contour.points().to_vec());
            builder.tags(contour.tags().iter().cloned().chain(tags));
            builder.finish(contour.is_closed())
        });
        Self::from_parts(contours.collect(), self.fill_rule(), fault)
    }

    /// The tags of the path's vertices, each once, in the order of the vertices that first carry them.
    #[must_use]
    pub fn tags(&self) -> Vec<&str> {
        let mut all: Vec<&str> = Vec::new();
        for (tag, _) in self.contours().iter().flat_map(|contour| contour.tags()) {
            if !all.contains(&&**tag) {
                all.push(tag);
            }
        }
        all
    }

    /// The path with all vertices of a tag moved by a step, with their handles. A tag that no vertex has is a fault.
    ///
    /// Tags are given by [`Pen::tagged`], [`Path::tagged`], [`Vertex::tagged`](crate::path::Vertex::tagged) and
    /// [`tagged`](crate::path::tagged). They stay with their vertices when the path is moved, turned, reversed or
    /// edited.
    #[must_use]
    pub fn shifted(&self, tag: &str, by: impl IntoPoint) -> Self {
        let by = by.into_point();
        let mut fault = self.carried().clone();
        if !fault.point("shifted", by) {
            return Self::from_parts(self.contours().to_vec(), self.fill_rule(), fault);
        }
        let mut known = false;
        let contours = self.contours().iter().map(|contour| {
            let of_tag = contour.tags().iter().filter(|(name, _)| &**name == tag).map(|(_, vertex)| *vertex);
            let vertices: Vec<usize> = of_tag.collect();
            known |= !vertices.is_empty();
            if vertices.is_empty() { contour.clone() } else { moved(contour, &vertices, by) }
        });
        let contours = contours.collect();
        if !known {
            let known = self.tags().into_iter().map(str::to_owned).collect();
            fault.note(Fault::of("shifted", FaultKind::UnknownTag { tag: tag.to_owned(), known }));
        }
        Self::from_parts(contours, self.fill_rule(), fault).within_numbers("shifted")
    }

    /// The path with a vertex moved to a point, with its handles. A vertex that is not there is a fault.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let sail = Path::closed([(0.0, 0.0), (40.0, 30.0), (0.0, 90.0)]);
    /// assert_eq!(sail.replaced(1, (50.0, 20.0)).data(), "M0 0 50 20 0 90Z");
    /// assert_eq!(
    ///     sail.replaced(7, (50.0, 20.0)).sound().unwrap_err().to_string(),
    ///     "`replaced`: contour 0 has no vertex 7; give 0 to 2"
    /// );
    /// ```
    #[must_use]
    pub fn replaced(&self, vertex: impl Into<VertexAt>, with: impl IntoPoint) -> Self {
        let (at, to) = (vertex.into(), with.into_point());
        self.edited("replaced", at, 0, Some(to), |contour| {
            let here = contour.vertices().nth(at.vertex).unwrap_or(to);
            Some(moved(contour, &[at.vertex], to - here))
        })
    }

    /// The path with a new vertex, which gets the number given; those from there on count one up. One past the last is
    /// allowed: it then stands on the closing side, or is the new end of an open contour.
    ///
    /// A straight side becomes two. A curve is split where it is nearest to the point and passes through it, with its
    /// shape kept on either side.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let sail = Path::closed([(0.0, 0.0), (40.0, 30.0), (0.0, 90.0)]);
    /// assert_eq!(sail.inserted(1, (25.0, 5.0)).data(), "M0 0 25 5 40 30 0 90Z");
    /// assert_eq!(sail.inserted(3, (-5.0, 40.0)).data(), "M0 0 40 30 0 90-5 40Z");
    /// ```
    #[must_use]
    pub fn inserted(&self, vertex: impl Into<VertexAt>, point: impl IntoPoint) -> Self {
        let (at, point) = (vertex.into(), point.into_point());
        self.edited("inserted", at, 1, Some(point), |contour| Some(inserted(contour, at.vertex, point)))
    }

    /// The path without a vertex; its neighbours are joined. A contour whose only vertex goes is gone.
    ///
    /// Two straight sides become one. Where there is a curve on either side, one curve takes the place of both: the
    /// very one that was split there, if they were made by a split.
    #[must_use]
    pub fn removed(&self, vertex: impl Into<VertexAt>) -> Self {
        let at = vertex.into();
        self.edited("removed", at, 0, None, |contour| removed(contour, at.vertex))
    }

    /// Whether there is such a vertex, or so many beyond the last; notes a fault when not.
    fn there(&self, call: &'static str, at: VertexAt, beyond: usize, fault: &mut FaultSlot) -> bool {
        let count = self.contours().get(at.contour).map(Contour::vertex_count);
        let there = count.is_some_and(|count| at.vertex < count + beyond);
        if !there {
            let kind = FaultKind::NoVertex {
                contour: at.contour,
                vertex: at.vertex,
                contours: self.contours().len(),
                vertices: count.map_or(0, |count| count + beyond),
            };
            fault.note(Fault::of(call, kind));
        }
        there
    }

    fn edited(
        &self,
        call: &'static str,
        at: VertexAt,
        beyond: usize,
        point: Option<Point>,
        edit: impl FnOnce(&Contour) -> Option<Contour>,
    ) -> Self {
        let mut fault = self.carried().clone();
        let mut contours = self.contours().to_vec();
        if self.there(call, at, beyond, &mut fault)
            && point.is_none_or(|point| fault.point(call, point))
            && let Some(contour) = self.contours().get(at.contour)
        {
            contours.splice(at.contour..=at.contour, edit(contour));
        }
        Self::from_parts(contours, self.fill_rule(), fault).within_numbers(call)
    }
}

/// The segments without a closing side.
fn drawn(contour: &Contour) -> Vec<Segment> {
    contour.segments().take(contour.verbs().len()).collect()
}

/// Whether the last vertex of a closed contour stands on the first, so that there is no closing side.
fn comes_home(contour: &Contour) -> bool {
    contour.is_closed() && contour.vertex_count() > 1 && contour.start() == contour.end()
}

/// A contour of segments, with tags.
fn built(start: Point, segments: &[Segment], closed: bool, tags: impl IntoIterator<Item = Tag>) -> Contour {
    let mut builder = ContourBuilder::new(start);
    for segment in segments {
        builder.segment(segment);
    }
    builder.tags(tags);
    builder.finish(closed)
}

/// Some vertices moved by a step.
fn moved(contour: &Contour, vertices: &[usize], by: Point) -> Contour {
    let last = contour.vertex_count() - 1;
    let home = comes_home(contour);
    let goes = |i: usize| {
        let seam = home && (i == 0 || i == last);
        vertices.contains(&i) || (seam && (vertices.contains(&0) || vertices.contains(&last)))
    };
    let step = |i: usize| if goes(i) { by } else { Point::ZERO };
    let segments: Vec<Segment> = drawn(contour)
        .into_iter()
        .enumerate()
        .map(|(i, segment)| with_ends_moved(&segment, step(i), step(i + 1)))
        .collect();
    built(contour.start() + step(0), &segments, contour.is_closed(), contour.tags().iter().cloned())
}

fn with_ends_moved(segment: &Segment, first: Point, last: Point) -> Segment {
    match *segment {
        Segment::Line { from, to } => Segment::Line { from: from + first, to: to + last },
        Segment::Quad { from, control, to } => {
            let both = if first == last { first } else { Point::ZERO };
            Segment::Quad { from: from + first, control: control + both, to: to + last }
        }
        Segment::Cubic { from, control1, control2, to } => Segment::Cubic {
            from: from + first,
            control1: control1 + first,
            control2: control2 + last,
            to: to + last,
        },
        Segment::Arc(arc) => {
            let (from, to) = (arc.from + first, arc.to + last);
            let (before, after) = (arc.to - arc.from, to - from);
            // As complex numbers: what the chord is multiplied with.
            let by = if before == after || before == Point::ZERO {
                Point::X
            } else {
                Point::new(before.dot(after), before.perp_dot(after)) / before.length_squared()
            };
            let (radii, tilt) = (arc.radii * by.length(), arc.tilt + rad(by.y.atan2(by.x)));
            Segment::Arc(ArcSegment { from, to, radii, tilt, ..arc })
        }
    }
}

fn inserted(contour: &Contour, vertex: usize, point: Point) -> Contour {
    let mut segments = drawn(contour);
    let count = segments.len() + 1;
    let mut start = contour.start();
    let raised = |from: usize| {
        contour.tags().iter().map(move |(tag, i)| (tag.clone(), if *i >= from { i + 1 } else { *i }))
    };
    if vertex == 0 {
        if comes_home(contour)
            && let Some(last) = segments.pop()
        {
            // The new vertex stands on the segment that comes home, and the contour begins there.
            let (before, behind) = through(&last, point);
            segments.insert(0, behind);
            segments.push(before);
        } else {
            segments.insert(0, Segment::Line { from: point, to: start });
        }
        start = point;
    } else if vertex == count {
        segments.push(Segment::Line { from: contour.end(), to: point });
    } else if let Some(segment) = segments.get(vertex - 1).copied() {
        let (before, behind) = through(&segment, point);
        segments.splice(vertex - 1..vertex, [before, behind]);
    }
    built(start, &segments, contour.is_closed(), raised(vertex))
}

/// A segment in two parts that meet at a point: split at its nearest place, which is then moved.
fn through(segment: &Segment, point: Point) -> (Segment, Segment) {
    if let Segment::Line { from, to } = *segment {
        return (Segment::Line { from, to: point }, Segment::Line { from: point, to });
    }
    let (before, behind) = segment.split(segment.nearest(point));
    let step = point - before.to();
    (with_ends_moved(&before, Point::ZERO, step), with_ends_moved(&behind, step, Point::ZERO))
}

fn removed(contour: &Contour, vertex: usize) -> Option<Contour> {
    let mut segments = drawn(contour);
    let last = segments.len();
    if last == 0 {
        return None;
    }
    let mut start = contour.start();
    let at_seam = vertex == 0 || (vertex == last && comes_home(contour));
    if at_seam && comes_home(contour) {
        if last == 1 {
            return None;
        }
        // The contour begins at what was its second vertex.
        let first = segments.remove(0);
        start = first.to();
        let home = segments.pop();
        segments.extend(home.map(|home| merged(&home, &first)));
    } else if vertex == 0 {
        let first = segments.remove(0);
        start = first.to();
        if contour.is_closed() && !matches!(first, Segment::Line { .. }) {
            let closing = Segment::Line { from: contour.end(), to: first.from() };
            segments.push(merged(&closing, &first));
        }
    } else if vertex == last {
        let end = segments.pop();
        if let Some(end) = end.filter(|end| contour.is_closed() && !matches!(end, Segment::Line { .. })) {
            segments.push(merged(&end, &Segment::Line { from: end.to(), to: start }));
        }
    } else if let [before, behind] = segments.get(vertex - 1..=vertex).unwrap_or_default() {
        let one = merged(before, behind);
        segments.splice(vertex - 1..=vertex, [one]);
    }
    let kept = contour.tags().iter().filter(|(_, i)| *i != vertex);
    let tags = kept.map(|(tag, i)| (tag.clone(), if *i > vertex { i - 1 } else { *i }));
    Some(built(start, &segments, contour.is_closed(), tags))
}

/// One segment in place of two that meet: the inverse of a split where they were split off one another.
fn merged(before: &Segment, behind: &Segment) -> Segment {
    let (from, to) = (before.from(), behind.to());
    match (before, behind) {
        (Segment::Line { .. }, Segment::Line { .. }) => return Segment::Line { from, to },
        (Segment::Arc(a), Segment::Arc(b)) => {
            if let (Some(first), Some(second)) = (a.centred(), b.centred())
                && a.clockwise == b.clockwise
                && (a.tilt - b.tilt).degrees().abs() < 1e-9
                && first.radii.distance(second.radii) + first.centre.distance(second.centre)
                    < 1e-9 * first.radii.length()
            {
                let sweep = (first.sweep + second.sweep).degrees().abs();
                if sweep < 350.0 {
                    let mut arc = *a;
                    (arc.to, arc.large) = (b.to, sweep > 180.0);
                    return Segment::Arc(arc);
                }
            }
        }
        _ => {}
    }
    // Where between the ends the joint was: by the arms that meet there, else by the chords.
    let joint = before.to();
    let ((first, into), (out, last)) = (before.handles(), behind.handles());
    let share = |a: f64, b: f64| if a + b > 0.0 { a / (a + b) } else { 0.5 };
    let (arm_in, arm_out) = (joint.distance(into), joint.distance(out));
    let t = if arm_in > 0.0 && arm_out > 0.0 {
        share(arm_in, arm_out)
    } else {
        share(from.distance(joint), joint.distance(to))
    };
    // Longer handles than these would throw the curve far out.
    let t = t.clamp(1.0 / 64.0, 63.0 / 64.0);
    if let (Segment::Quad { control: a, .. }, Segment::Quad { control: b, .. }) = (before, behind) {
        let ahead = from + (*a - from) / t;
        let back = to + (*b - to) / (1.0 - t);
        return Segment::Quad { from, control: ahead.midpoint(back), to };
    }
    Segment::Cubic { from, control1: from + (first - from) / t, control2: to + (last - to) / (1.0 - t), to }
}
