//! The edges of an arrangement: the sources cut wherever they meet, between vertices that are shared exactly.

use std::ops::ControlFlow;
use std::sync::atomic::{AtomicUsize, Ordering};

use super::sources::{Source, turn};
use crate::ground::{exhausted, threads};
use crate::measure::{BoxTree, Meet, meets, overlap, rounds};
use crate::number::{Cell, Point, kept};
use crate::path::Segment;

/// More places where segments meet than this are refused.
pub(crate) const MAX_INTERSECTIONS: usize = 4_000_000;

/// A piece of a source that meets nothing between its ends, and only rises or only falls (in the turned frame).
#[derive(Clone, Debug)]
pub(crate) struct Edge {
    pub(crate) source: usize,
    pub(crate) from: f64,
    pub(crate) to: f64,
    /// The vertices at its lower and higher y.
    pub(crate) low: usize,
    pub(crate) high: usize,
    /// Whether the source runs toward higher y.
    pub(crate) rising: bool,
    /// How often each operand runs along it toward higher y.
    pub(crate) windings: [i32; 2],
    pub(crate) bounds: Cell,
}

/// Vertices and edges.
#[derive(Debug, Default)]
pub(crate) struct Arrangement {
    pub(crate) vertices: Vec<Point>,
    pub(crate) turned: Vec<Point>,
    pub(crate) edges: Vec<Edge>,
}

/// Nodes that turn out to be one place are joined; each group is known by its lowest number.
struct Groups(Vec<u32>);

impl Groups {
    fn top(&mut self, node: usize) -> usize {
        let mut at = node as u32;
        while let Some(up) = self.0.get(at as usize).copied().filter(|up| *up != at) {
            // Halving the way keeps it short.
            let above = self.0.get(up as usize).copied().unwrap_or(up);
            if let Some(slot) = self.0.get_mut(at as usize) {
                *slot = above;
            }
            at = above;
        }
        at as usize
    }

    fn join(&mut self, a: usize, b: usize) {
        let (a, b) = (self.top(a), self.top(b));
        if let Some(slot) = self.0.get_mut(a.max(b)) {
            *slot = a.min(b) as u32;
        }
    }

    fn add(&mut self) -> usize {
        self.0.push(self.0.len() as u32);
        self.0.len() - 1
    }
}

/// A place on a source.
#[derive(Clone, Copy)]
struct Cut {
    source: usize,
    parameter: f64,
    node: usize,
}

/// All that pairs of sources have in common, in the order of the sources; `None` where it is more than `most`.
fn all_meets(sources: &[Source], off: f64, most: usize) -> Option<Vec<(usize, usize, Meet)>> {
    let tree = BoxTree::new(sources.iter().map(|source| source.bounds));
    // All that is found is counted as it is found: it is much only where each finds much.
    let total = AtomicUsize::new(0);
    let of_one = |i: usize| {
        let mut found = Vec::new();
        let Some(a) = sources.get(i) else { return (found, false) };
        let reach = a.bounds.grown(off);
        let round = a.round();
        let whole = tree.each(
            |bounds| overlap(bounds, &reach),
            |j| {
                if let Some(b) = sources.get(j).filter(|_| j > i) {
                    let before = found.len();
                    let mut add = |meet| {
                        // That neighbours share their joint is known.
                        let joint = match meet {
                            Meet::At(1.0, 0.0) => a.next == j,
                            Meet::At(0.0, 1.0) => b.next == i,
                            _ => false,
                        };
                        if !joint {
                            found.push((i, j, meet));
                        }
                    };
                    let both = round.as_ref().zip(b.round());
                    if !both.is_some_and(|(a, b)| rounds(a, &b, off, &mut add)) {
                        meets(&a.segment, &b.segment, off, &mut add);
                    }
                    if found.len() > before {
                        total.fetch_add(found.len() - before, Ordering::Relaxed);
                    }
                }
                if total.load(Ordering::Relaxed) > most {
                    ControlFlow::Break(())
                } else {
                    ControlFlow::Continue(())
                }
            },
        );
        found.sort_by_key(|(_, j, _)| *j);
        (found, whole.is_break())
    };
    const CHUNK: usize = 4096;
    let mut all = Vec::new();
    let mut begin = 0;
    while begin < sources.len() {
        let end = (begin + CHUNK).min(sources.len());
        let found: Vec<_> = threads::map(begin..end, 64, of_one);
        for (mut found, too_many) in found {
            if too_many {
                return None;
            }
            all.append(&mut found);
        }
        begin = end;
    }
    Some(all)
}

impl Arrangement {
    /// The arrangement of sources, with all within `off` taken for one place. `None` where more
    /// than `most` meet.
    pub(crate) fn new(sources: &[Source], off: f64, most: usize) -> Option<Self> {
        let found = all_meets(sources, off, most)?;
        // A node for each start of a source, then one for each cut.
        let mut groups = Groups((0..sources.len() as u32).collect());
        let mut points: Vec<Point> = sources.iter().map(|source| source.segment.from()).collect();
        let mut cuts: Vec<Cut> = Vec::with_capacity(2 * found.len());
        let mut cut = |(i, s): (usize, f64), (j, t): (usize, f64)| {
            let Some((a, b)) = sources.get(i).zip(sources.get(j)) else { return };
            let end_of = |source: &Source, own: usize, at: f64| match at {
                0.0 => Some(own),
                1.0 => Some(source.next),
                _ => None,
            };
            let node = match (end_of(a, i, s), end_of(b, j, t)) {
                (Some(p), Some(q)) => return groups.join(p, q),
                (Some(p), None) => p,
                (None, Some(q)) => q,
                (None, None) => {
                    points.push(crossing_at((&a.segment, s), (&b.segment, t)));
                    groups.add()
                }
            };
            cuts.push(Cut { source: i, parameter: s, node });
            cuts.push(Cut { source: j, parameter: t, node });
        };
        for (i, j, meet) in &found {
            match *meet {
                Meet::At(s, t) => cut((*i, s), (*j, t)),
                Meet::Along([s0, s1], [t0, t1]) => {
                    cut((*i, s0), (*j, t0));
                    cut((*i, s1), (*j, t1));
                }
            }
        }
        sort(&mut cuts);
        let mirrored = mirrored(sources, &cuts, &found, most)?;
        if !mirrored.is_empty() {
            cuts.extend(mirrored);
            sort(&mut cuts);
        }
        let stops = stops(sources, &cuts, off, &mut groups, &mut points);
        Some(Self::of_stops(sources, &stops, off, &mut groups, &points))
    }

    /// The edges between neighbouring stops of each source.
    fn of_stops(
        sources: &[Source],
        stops: &[(usize, f64, usize)],
        off: f64,
        groups: &mut Groups,
        points: &[Point],
    ) -> Self {
        let mut arrangement = Self::default();
        let mut vertex_of: Vec<Option<usize>> = vec![None; points.len()];
        let turn = turn();
        let mut vertex = |node: usize, all: &mut Self| {
            let top = groups.top(node);
            let slot = vertex_of.get_mut(top)?;
            if slot.is_none() {
                let point = points.get(top).copied()?;
                *slot = Some(all.vertices.len());
                all.vertices.push(point);
                all.turned.push(turn.transform_point2(point));
            }
            *slot
        };
        for pair in stops.windows(2) {
            let &[(source, from, start), (same, to, end)] = pair else { continue };
            if source != same {
                continue;
            }
            let (Some(a), Some(b)) = (vertex(start, &mut arrangement), vertex(end, &mut arrangement)) else {
                continue;
            };
            let Some(edge) = sources.get(source).filter(|_| a != b) else { continue };
            arrangement.add(edge, (source, from, to), [a, b]);
        }
        arrangement.merge(sources, off);
        arrangement
    }

    fn add(&mut self, of: &Source, (source, from, to): (usize, f64, f64), [a, b]: [usize; 2]) {
        let (Some(start), Some(end)) = (self.turned.get(a).copied(), self.turned.get(b).copied()) else {
            return;
        };
        let rising = (start.y, start.x) < (end.y, end.x);
        let (low, high) = if rising { (a, b) } else { (b, a) };
        let mut windings = [0; 2];
        if let Some(slot) = windings.get_mut(of.operand) {
            *slot = if rising { of.weight } else { -of.weight };
        }
        let mut bounds = Cell { min: start.min(end), max: start.max(end) };
        let turns = if matches!(of.turned, Segment::Line { .. }) { [None; 2] } else { of.turned.turns()[0] };
        for t in turns.into_iter().flatten().filter(|t| *t > from && *t < to) {
            bounds.min.x = bounds.min.x.min(of.turned.at(t).x);
            bounds.max.x = bounds.max.x.max(of.turned.at(t).x);
        }
        self.edges.push(Edge { source, from, to, low, high, rising, windings, bounds });
    }

    /// Edges that run along one another become one; edges that cancel go.
    fn merge(&mut self, sources: &[Source], off: f64) {
        self.edges.sort_by_key(|edge| (edge.low, edge.high, edge.source));
        let mut kept: Vec<Edge> = Vec::with_capacity(self.edges.len());
        let mut group = 0;
        for edge in std::mem::take(&mut self.edges) {
            if exhausted(10 + (kept.len() - group.min(kept.len()))) {
                break;
            }
            if kept.get(group).is_none_or(|first| (first.low, first.high) != (edge.low, edge.high)) {
                group = kept.len();
            }
            let twin = kept
                .get_mut(group..)
                .unwrap_or_default()
                .iter_mut()
                .find(|other| alike(sources, other, &edge, off));
            match twin {
                Some(twin) => {
                    twin.windings[0] += edge.windings[0];
                    twin.windings[1] += edge.windings[1];
                }
                None => kept.push(edge),
            }
        }
        kept.retain(|edge| edge.windings != [0, 0]);
        self.edges = kept;
    }

    /// Where an edge stands at a height, in the turned frame.
    pub(crate) fn across(&self, sources: &[Source], edge: &Edge, y: f64) -> f64 {
        let (Some(low), Some(high)) = (self.turned.get(edge.low), self.turned.get(edge.high)) else {
            return 0.0;
        };
        match sources.get(edge.source) {
            Some(source) if !matches!(source.turned, Segment::Line { .. }) => {
                kept(source.across(edge, y), edge.bounds.min.x, edge.bounds.max.x)
            }
            _ => {
                let share = (y - low.y) / (high.y - low.y);
                if share.is_finite() { low.x + (high.x - low.x) * share } else { low.x }
            }
        }
    }
}

/// Where two segments cross. Level and upright sides keep their coordinate to the last digit.
pub(crate) fn crossing_at((a, s): (&Segment, f64), (b, t): (&Segment, f64)) -> Point {
    let straight = |segment: &Segment| matches!(segment, Segment::Line { .. });
    let mut place = if straight(b) && !straight(a) { b.at(t) } else { a.at(s) };
    for side in [a, b] {
        if let Segment::Line { from, to } = side {
            place.x = if from.x == to.x { from.x } else { place.x };
            place.y = if from.y == to.y { from.y } else { place.y };
        }
    }
    place
}

fn sort(cuts: &mut [Cut]) {
    cuts.sort_by(|p, q| {
        p.source.cmp(&q.source).then(p.parameter.total_cmp(&q.parameter)).then(p.node.cmp(&q.node))
    });
}

/// Where two sources run along one another, what cuts the one cuts the other in the same place: found on each alone, a
/// place where something touches them could differ. `None` where that is too much: many sources all along one another.
fn mirrored(
    sources: &[Source],
    cuts: &[Cut],
    found: &[(usize, usize, Meet)],
    most: usize,
) -> Option<Vec<Cut>> {
    let mut all = Vec::new();
    let mirror = |all: &mut Vec<Cut>, from: usize, [low, high]: [f64; 2], onto: usize, ends: [f64; 2]| {
        let begin = cuts.partition_point(|cut| (cut.source, cut.parameter) <= (from, low));
        let inside = |cut: &&Cut| cut.source == from && cut.parameter < high;
        let Some((a, b)) = sources.get(from).zip(sources.get(onto)) else { return };
        for cut in cuts.get(begin..).unwrap_or_default().iter().take_while(inside) {
            let place = b.segment.nearest(a.segment.at(cut.parameter));
            let parameter = kept(place, ends[0].min(ends[1]), ends[0].max(ends[1]));
            if parameter > 0.0 && parameter < 1.0 {
                all.push(Cut { source: onto, parameter, node: cut.node });
            }
            if all.len() > most || exhausted(20) {
                return;
            }
        }
    };
    for (i, j, meet) in found {
        if exhausted(10) {
            return None;
        }
        if let Meet::Along(s, t) = *meet {
            mirror(&mut all, *i, s, *j, t);
            mirror(&mut all, *j, [t[0].min(t[1]), t[0].max(t[1])], *i, s);
        }
        if all.len() > most {
            return None;
        }
    }
    Some(all)
}

/// Where each source is cut, ends included: the source, the parameter and the node, in order along it. Places nearer
/// together than the tolerance become one; curves are also cut where they turn round between rising and falling.
fn stops(
    sources: &[Source],
    cuts: &[Cut],
    off: f64,
    groups: &mut Groups,
    points: &mut Vec<Point>,
) -> Vec<(usize, f64, usize)> {
    let mut all: Vec<(usize, f64, usize)> = Vec::with_capacity(2 * sources.len() + cuts.len());
    let mut rest = cuts;
    let mut turns: Vec<(Point, usize)> = Vec::new();
    for (i, source) in sources.iter().enumerate() {
        if exhausted(50) {
            break;
        }
        let count = rest.partition_point(|cut| cut.source <= i);
        let (own, others) = rest.split_at(count);
        rest = others;
        let begin = all.len();
        let mut last = (0.0, source.segment.from(), i);
        all.push((i, 0.0, i));
        let ends = [Cut { source: i, parameter: 1.0, node: source.next }];
        for cut in own.iter().chain(&ends) {
            let place = source.at(cut.parameter);
            if place.distance(last.1) <= 2.0 * off && (cut.parameter - last.0 < 0.5 || cut.parameter == 1.0) {
                groups.join(last.2, cut.node);
                if cut.parameter < 1.0 {
                    continue;
                }
            }
            all.push((i, cut.parameter, cut.node));
            last = (cut.parameter, place, cut.node);
        }
        if matches!(source.turned, Segment::Line { .. }) {
            continue;
        }
        for t in source.turned.turns()[1].into_iter().flatten() {
            let place = source.at(t);
            let taken = all
                .get(begin..)
                .unwrap_or_default()
                .iter()
                .any(|(_, s, _)| (s - t).abs() < 0.25 && source.at(*s).distance(place) <= 2.0 * off);
            if !taken {
                let node = groups.add();
                points.push(place);
                turns.push((place, node));
                all.push((i, t, node));
            }
        }
        if let Some(own) = all.get_mut(begin..) {
            own.sort_by(|p, q| p.1.total_cmp(&q.1));
        }
    }
    // Curves that run along one another turn round in one place.
    turns.sort_by(|p, q| p.0.x.total_cmp(&q.0.x).then(p.1.cmp(&q.1)));
    for (i, (place, node)) in turns.iter().enumerate() {
        let near =
            turns.get(i + 1..).unwrap_or_default().iter().take_while(|(p, _)| p.x - place.x <= 4.0 * off);
        for (_, other) in near.filter(|(p, _)| !exhausted(1) && (p.y - place.y).abs() <= 4.0 * off) {
            groups.join(*node, *other);
        }
    }
    all
}

/// Whether two edges with the same ends run along one another.
fn alike(sources: &[Source], a: &Edge, b: &Edge, off: f64) -> bool {
    let (Some(first), Some(second)) = (sources.get(a.source), sources.get(b.source)) else { return false };
    if matches!((&first.segment, &second.segment), (Segment::Line { .. }, Segment::Line { .. })) {
        return true;
    }
    [0.5, 0.25, 0.75].into_iter().all(|share| {
        let spot = first.segment.at(a.from + (a.to - a.from) * share);
        second.segment.distance(spot) <= 8.0 * off
    })
}

impl Source {
    /// Where a curve stands at a height, on the stretch of an edge.
    fn across(&self, edge: &Edge, y: f64) -> f64 {
        if let Some((whole, top)) = &self.whole {
            // The height is level + size * cos(angle - top).
            let top = *top;
            let size = whole.point(top).y - whole.centre.y;
            let swing = ((y - whole.centre.y) / size).clamp(-1.0, 1.0).acos();
            let middle = (whole.start + whole.sweep * edge.from.midpoint(edge.to) - top).wrapped_signed();
            let angle = if middle.degrees() < 0.0 { -swing } else { swing };
            return whole.point(top + crate::number::rad(angle)).x;
        }
        let sign = if edge.rising { 1.0 } else { -1.0 };
        let (mut a, mut b) = (edge.from, edge.to);
        let span = (self.turned.at(a).y, self.turned.at(b).y);
        let mut t = a + (b - a) * ((y - span.0) / (span.1 - span.0)).clamp(0.0, 1.0);
        if t.is_nan() {
            t = a.midpoint(b);
        }
        for _ in 0..60 {
            let gap = (self.turned.at(t).y - y) * sign;
            if gap == 0.0 {
                break;
            }
            if gap < 0.0 {
                a = t
            } else {
                b = t
            }
            let slope = self.turned.velocity(t).y * sign;
            let next = t - gap / slope;
            let next = if next > a && next < b { next } else { a.midpoint(b) };
            if (next - t).abs() <= 1e-16 {
                break;
            }
            t = next;
        }
        self.turned.at(t).x
    }
}
