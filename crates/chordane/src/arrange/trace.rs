//! The rim of what is kept, as contours: edges in a row, and what was cut on the way put together again.

use super::edges::{Arrangement, Edge};
use super::sources::Source;
use crate::ground::exhausted;
use crate::number::Point;
use crate::path::{Contour, ContourBuilder, MAX_SEGMENT_SWEEP_DEGREES, Segment};

/// An edge of the rim, travelled toward higher y or the other way, with the kept side on the right.
#[derive(Clone, Copy, Debug)]
pub(crate) struct DirectedEdge {
    pub(crate) edge: usize,
    pub(crate) up: bool,
}

/// A stretch of a source, in the direction of travel.
#[derive(Clone, Copy)]
struct Run {
    source: usize,
    /// Parameters at its start and its end; the second is smaller where it runs against the source.
    from: f64,
    to: f64,
    start: Point,
    end: Point,
}

/// The nearest way on over a gap is looked for among so many steps.
const MAX_GAP_CANDIDATES: usize = 1000;

fn ends(edge: &Edge, up: bool) -> (usize, usize) {
    if up { (edge.low, edge.high) } else { (edge.high, edge.low) }
}

/// The contours of a rim.
pub(crate) struct Rim {
    /// Each contour with the first source in it, in the order of what they were made from.
    pub(crate) contours: Vec<(usize, Contour)>,
    /// How long the gaps were, together, that had to be closed by straight sides: rounding had mixed up what lies where.
    pub(crate) gaps: f64,
}

/// The contours of a rim. Where it is not closed they are open, unless all are to be closed: then a gap leads on to the
/// nearest step that nothing arrives at, or home.
pub(crate) fn contours(
    arrangement: &Arrangement,
    sources: &[Source],
    steps: &[DirectedEdge],
    off: f64,
    all_closed: bool,
) -> Rim {
    let leaving = Leaving::new(arrangement, steps);
    let (order, loose) = leaving.begins_first(arrangement, steps);
    let mut used = vec![false; steps.len()];
    let mut rim = Rim { contours: Vec::new(), gaps: 0.0 };
    let start_of = |number: usize| {
        let step = steps.get(number)?;
        Some(ends(arrangement.edges.get(step.edge)?, step.up).0)
    };
    let place = |vertex: usize| arrangement.vertices.get(vertex).copied().unwrap_or_default();
    for first in &order {
        let first = *first;
        if used.get(first) != Some(&false) {
            continue;
        }
        let begin = start_of(first);
        let mut runs: Vec<Run> = Vec::new();
        let mut at = Some(first);
        let mut last = None;
        while let Some(number) = at.filter(|_| !exhausted(20)) {
            let Some(step) = steps.get(number) else { break };
            if let Some(slot) = used.get_mut(number) {
                *slot = true;
            }
            let Some(edge) = arrangement.edges.get(step.edge) else { break };
            runs.extend(run(arrangement, edge, step.up));
            last = Some(ends(edge, step.up).1);
            at = leaving.next(arrangement, sources, steps, (&used, first), *step);
            if at.is_none()
                && all_closed
                && let (Some(end), Some(home)) = (last, begin)
            {
                let here = place(end);
                let open = order
                    .iter()
                    .take(loose.min(MAX_GAP_CANDIDATES))
                    .filter(|number| used.get(**number) == Some(&false));
                let _ = exhausted(loose.min(MAX_GAP_CANDIDATES));
                let ways =
                    open.filter_map(|number| Some((*number, place(start_of(*number)?).distance(here))));
                let way = ways.min_by(|a, b| a.1.total_cmp(&b.1));
                let way = way.filter(|(_, gap)| *gap < place(home).distance(here));
                rim.gaps += way.map_or(place(home).distance(here), |(_, gap)| gap);
                at = way.map(|(number, _)| number);
            }
            // Back at the first step, the contour is round.
            at = at.filter(|next| *next != first);
        }
        rim.contours.extend(contour(sources, runs, off, all_closed || begin == last));
    }
    rim.contours.sort_by_key(|(source, _)| *source);
    rim
}

fn run(arrangement: &Arrangement, edge: &Edge, up: bool) -> Option<Run> {
    let (start, end) = ends(edge, up);
    let (start, end) = (*arrangement.vertices.get(start)?, *arrangement.vertices.get(end)?);
    let along = edge.rising == up;
    let (from, to) = if along { (edge.from, edge.to) } else { (edge.to, edge.from) };
    Some(Run { source: edge.source, from, to, start, end })
}

/// The steps that leave each vertex.
struct Leaving {
    /// Where the steps of each vertex begin in the list.
    begins: Vec<usize>,
    list: Vec<usize>,
}

impl Leaving {
    fn new(arrangement: &Arrangement, steps: &[DirectedEdge]) -> Self {
        let start =
            |step: &DirectedEdge| arrangement.edges.get(step.edge).map_or(0, |edge| ends(edge, step.up).0);
        let mut begins = vec![0; arrangement.vertices.len() + 2];
        for step in steps {
            if let Some(count) = begins.get_mut(start(step) + 2) {
                *count += 1;
            }
        }
        let mut sum = 0;
        for count in &mut begins {
            sum += *count;
            *count = sum;
        }
        let mut list = vec![0; steps.len()];
        for (number, step) in steps.iter().enumerate() {
            if let Some(place) = begins.get_mut(start(step) + 1) {
                if let Some(slot) = list.get_mut(*place) {
                    *slot = number;
                }
                *place += 1;
            }
        }
        Self { begins, list }
    }

    /// The numbers of all steps, those first that begin where nothing arrives, and how many these are.
    fn begins_first(&self, arrangement: &Arrangement, steps: &[DirectedEdge]) -> (Vec<usize>, usize) {
        let mut arrive = vec![0_usize; arrangement.vertices.len()];
        let of = |step: &DirectedEdge| arrangement.edges.get(step.edge).map(|edge| ends(edge, step.up));
        for (_, end) in steps.iter().filter_map(of) {
            if let Some(count) = arrive.get_mut(end) {
                *count += 1;
            }
        }
        let begins = |number: &usize| {
            let start = steps.get(*number).and_then(of).map(|(start, _)| start);
            start.is_some_and(|start| {
                let leave = self.begins.get(start + 1).zip(self.begins.get(start)).map_or(0, |(a, b)| a - b);
                arrive.get(start).is_some_and(|arrive| *arrive < leave)
            })
        };
        let (mut first, rest): (Vec<usize>, Vec<usize>) = (0..steps.len()).partition(begins);
        let loose = first.len();
        first.extend(rest);
        (first, loose)
    }

    /// The step that goes on: the first one anticlockwise as seen from where the last one came, so that the rim goes
    /// round what is kept on its right, and areas that touch in a spot stay apart.
    fn next(
        &self,
        arrangement: &Arrangement,
        sources: &[Source],
        steps: &[DirectedEdge],
        (used, first): (&[bool], usize),
        last: DirectedEdge,
    ) -> Option<usize> {
        let edge = arrangement.edges.get(last.edge)?;
        let (_, vertex) = ends(edge, last.up);
        let (begin, end) = (*self.begins.get(vertex)?, *self.begins.get(vertex + 1)?);
        let open = |number: &usize| *number == first || used.get(*number) == Some(&false);
        let mut free = self.list.get(begin..end)?.iter().copied().filter(open);
        let one = free.next()?;
        let Some(other) = free.next() else { return Some(one) };
        let mut ways: Vec<usize> = vec![one, other];
        ways.extend(free);
        // A spot on each edge at a height that all of those on the same side of the vertex reach.
        let here = *arrangement.turned.get(vertex)?;
        let of = |number: usize| {
            let step = steps.get(number)?;
            Some((arrangement.edges.get(step.edge)?, step.up))
        };
        let all = || ways.iter().filter_map(|number| of(*number)).chain([(edge, !last.up)]);
        let above = all().filter(|(_, up)| *up).map(|(e, _)| e.bounds.max.y).fold(f64::INFINITY, f64::min);
        let below =
            all().filter(|(_, up)| !*up).map(|(e, _)| e.bounds.min.y).fold(f64::NEG_INFINITY, f64::max);
        // Places round the vertex, clockwise as seen: edges to lower y from left to right, then those to higher y from
        // right to left.
        let place = |(edge, up): (&Edge, bool)| {
            let y = here.y.midpoint(if up { above } else { below });
            let x = arrangement.across(sources, edge, y);
            (up, if up { -x } else { x })
        };
        let back = place((edge, !last.up));
        let later = |a: &(bool, f64), b: &(bool, f64)| a.0.cmp(&b.0).then(a.1.total_cmp(&b.1));
        let places = ways.iter().filter_map(|number| Some((*number, place(of(*number)?))));
        // Anticlockwise from the way back: the last one before it, else the last of all.
        let before =
            places.clone().filter(|(_, at)| later(at, &back).is_lt()).max_by(|a, b| later(&a.1, &b.1));
        before.or_else(|| places.max_by(|a, b| later(&a.1, &b.1))).map(|(number, _)| number)
    }
}

/// One contour of the runs, and the first source in it; `None` where nothing is left of it.
fn contour(sources: &[Source], mut runs: Vec<Run>, off: f64, closed: bool) -> Option<(usize, Contour)> {
    if runs.is_empty() {
        return None;
    }
    let of = |run: &Run| sources.get(run.source).map(|source| &source.segment);
    let goes_on = |a: &Run, b: &Run| {
        let same = a.source == b.source && a.to == b.from && (a.to > a.from) == (b.to > b.from);
        same && match of(a) {
            Some(Segment::Arc(arc)) => {
                let sweep = arc.centred().map_or(360.0, |whole| whole.sweep.degrees().abs());
                sweep * (b.to - a.from).abs() <= MAX_SEGMENT_SWEEP_DEGREES
            }
            _ => true,
        }
    };
    // Begin where the input began, else at the first joint.
    let first_source = runs.iter().map(|run| run.source).min()?;
    let joint = |i: usize| {
        let before = runs.get((i + runs.len() - 1) % runs.len());
        runs.get(i).zip(before).is_some_and(|(run, before)| !goes_on(before, run))
    };
    let begin = (0..runs.len())
        .filter(|i| joint(*i))
        .min_by(|i, j| {
            // The end of a source is the start of the next.
            let key = |i: &usize| match runs.get(*i) {
                Some(run) if run.from == 1.0 => {
                    (sources.get(run.source).map_or(usize::MAX, |of| of.next), 0.0)
                }
                Some(run) => (run.source, run.from),
                None => (usize::MAX, 0.0),
            };
            let (a, b) = (key(i), key(j));
            a.0.cmp(&b.0).then(a.1.total_cmp(&b.1))
        })
        .unwrap_or(0);
    runs.rotate_left(if closed { begin } else { 0 });
    let mut joined: Vec<Run> = Vec::with_capacity(runs.len());
    for run in runs {
        match joined.last_mut().filter(|last| goes_on(last, &run)) {
            Some(last) => (last.to, last.end) = (run.to, run.end),
            None => joined.push(run),
        }
    }
    let mut segments: Vec<Segment> = Vec::with_capacity(joined.len());
    for run in &joined {
        let Some(segment) = of(run) else { continue };
        let part = segment.stretch(run.from.min(run.to), run.from.max(run.to));
        let part = if run.to < run.from { part.reversed() } else { part };
        let part = part.with_ends(run.start, run.end);
        match segments.last_mut().and_then(|last| in_line(last, &part, off)) {
            Some(one) => {
                segments.pop();
                segments.push(one);
            }
            None => segments.push(part),
        }
    }
    if !closed {
        let mut builder = ContourBuilder::new(segments.first()?.from());
        segments.iter().for_each(|segment| builder.segment(segment));
        return Some((first_source, builder.finish(false)));
    }
    // The seam.
    if segments.len() > 2
        && let (Some(first), Some(last)) = (segments.first().copied(), segments.last().copied())
        && let Some(one) = in_line(&last, &first, off)
    {
        // The first corner is the start then.
        segments.pop();
        segments.remove(0);
        segments.push(one);
    }
    let straight = segments.iter().all(|segment| matches!(segment, Segment::Line { .. }));
    if segments.len() < if straight { 3 } else { 1 } {
        return None;
    }
    let mut builder = ContourBuilder::new(segments.first()?.from());
    // A straight last side is the closing side.
    let closing = matches!(segments.last(), Some(Segment::Line { .. }));
    let drawn = segments.len() - usize::from(closing);
    segments.iter().take(drawn).for_each(|segment| builder.segment(segment));
    let contour = builder.finish(true);
    // Thinner than what counts as one place.
    let length: f64 = segments.iter().map(|segment| segment.at(0.5).distance(segment.from()) * 2.0).sum();
    (contour.signed_area().abs() > length * off).then_some((first_source, contour))
}

/// Two straight sides that lie in one line, as one.
fn in_line(a: &Segment, b: &Segment, off: f64) -> Option<Segment> {
    let (Segment::Line { from, to: joint }, Segment::Line { to, .. }) = (*a, *b) else { return None };
    let step = to - from;
    let ahead = (joint - from).dot(to - joint) > 0.0;
    let aside = step.normalize_or_zero().perp_dot(joint - from).abs();
    (ahead && aside <= 0.5 * off).then_some(Segment::Line { from, to })
}
