//! From one path to another, step by step.
//!
//! Contours are matched by how they run, by size and by place; one that has no partner grows from a point. Of two matched
//! contours the corners are matched first, in order, then what lies between two of them is cut at the same shares of its
//! length on both; every piece then goes straight from the one to the other.

use crate::ground::{Fault, FaultKind, FaultSlot, exhausted};
use crate::measure::Survey;
use crate::number::Point;
use crate::path::{Contour, ContourBuilder, FillRule, Path, Segment};
use crate::reshape::{Reshape, jump};

/// Headings that jump by more than this, in radians, make a corner that is kept: about 9 degrees.
const MIN_CORNER_ANGLE: f64 = 0.16;

/// Corners are matched one by one up to so many on either contour; beyond, places are matched by their share of the length.
const MAX_CORNERS: usize = 200;

/// Contours are matched one by one up to so many on either path; beyond, in their order.
const MAX_MATCHED: usize = 500;

/// So many places along two round contours say how the one is best turned onto the other.
const PROBES: usize = 64;

/// A morph between two paths: matched once, then evaluated at any fraction; see [`Path::morph`].
///
/// ```
/// use chordane::prelude::*;
/// let (sail, hoop) = (rectangle((0.0, 0.0), 40.0, 40.0), circle((20.0, 20.0), 25.0));
/// let way = sail.morph(&hoop);
/// let half = way.at(0.5);
/// assert!(half.area()? > sail.area()? && half.area()? < hoop.area()?);
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Debug)]
pub struct Morph {
    pairs: Vec<Pair>,
    ends: [Path; 2],
    fault: FaultSlot,
}

/// Two contours cut into the same number of pieces.
#[derive(Clone, Debug)]
struct Pair {
    pieces: Vec<[Segment; 2]>,
    closed: bool,
}

impl Path {
    /// The way from this path to another one, whatever their vertices.
    ///
    /// Where both have corners these go to one another, as many as the one with fewer has, and stay corners all the way;
    /// starting points are chosen so that nothing twists. Outlines go to outlines, holes to holes; those left over grow from
    /// their middle or shrink to it. Straight sides that go to straight sides stay straight, all else goes as cubics. The
    /// fill rule is that of the nearer end. Cost: linear in the segments, and the product of the numbers of corners.
    #[must_use]
    pub fn morph(&self, to: &Self) -> Morph {
        let mut fault = self.carried().clone();
        fault.take_from(to.carried());
        let pairs = match fault.get() {
            Some(_) => Vec::new(),
            None => fault.limited("morph", || pairs(self, to)).unwrap_or_default(),
        };
        Morph { pairs, ends: [self.clone(), to.clone()], fault }
    }

    /// The path a share of the way to another one: this one at 0, the other at 1; see [`Path::morph`].
    #[must_use]
    pub fn morphed(&self, to: &Self, share: f64) -> Self {
        self.morph(to).at(share)
    }
}

impl Morph {
    /// The path at a share of the way: at 0 and 1 the two paths themselves. Shares beyond go on the same way; one that is not
    /// finite is a fault.
    #[must_use]
    pub fn at(&self, share: f64) -> Path {
        let [from, to] = &self.ends;
        if share == 0.0 {
            return from.clone();
        }
        if share == 1.0 {
            return to.clone();
        }
        let mut fault = self.fault.clone();
        if !share.is_finite() {
            fault.note(Fault::of("morphed", FaultKind::NotFinite { what: "share", value: share }));
            return Path::from_parts(Vec::new(), FillRule::Nonzero, fault);
        }
        let rule = if share < 0.5 { from.fill_rule() } else { to.fill_rule() };
        let contours = self.pairs.iter().filter_map(|pair| pair.at(share)).collect();
        Path::from_parts(contours, rule, fault).within_numbers("morphed")
    }
}

impl Pair {
    fn at(&self, share: f64) -> Option<Contour> {
        let mix = |a: Point, b: Point| a + (b - a) * share;
        let [first, first_to] = self.pieces.first()?;
        let home = mix(first.from(), first_to.from());
        let mut builder = ContourBuilder::new(home);
        for (i, [a, b]) in self.pieces.iter().enumerate() {
            let last = i + 1 == self.pieces.len();
            match (a, b) {
                (Segment::Line { to, .. }, Segment::Line { to: other, .. }) => {
                    if !(last && self.closed) {
                        builder.line(mix(*to, *other));
                    }
                }
                _ => {
                    let ((p1, p2), (q1, q2)) = (a.handles(), b.handles());
                    let end = if last && self.closed { home } else { mix(a.to(), b.to()) };
                    builder.cubic(mix(p1, q1), mix(p2, q2), end);
                }
            }
        }
        Some(builder.finish(self.closed))
    }
}

/// What contours are matched by.
struct Outline<'a> {
    contour: &'a Contour,
    /// Whether it is a hole in what is round it.
    hole: bool,
    middle: Point,
    size: f64,
}

fn outlines(path: &Path) -> Vec<Outline<'_>> {
    let depths = if path.contours().len() <= MAX_MATCHED { path.depths() } else { Vec::new() };
    path.contours()
        .iter()
        .enumerate()
        .filter(|(_, contour)| contour.segments().next().is_some())
        .map(|(i, contour)| {
            let bounds = contour.bounds();
            let hole = depths.get(i).is_some_and(|depth| depth % 2 == 1);
            Outline { contour, hole, middle: bounds.centre(), size: bounds.size().length() }
        })
        .collect()
}

/// The contours of two paths in pairs.
fn pairs(from: &Path, to: &Path) -> Vec<Pair> {
    let (firsts, seconds) = (outlines(from), outlines(to));
    let mut free: Vec<Option<&Outline<'_>>> = seconds.iter().map(Some).collect();
    let mut all = Vec::new();
    // The large ones choose first.
    let mut order: Vec<&Outline<'_>> = firsts.iter().collect();
    let few = firsts.len().max(seconds.len()) <= MAX_MATCHED;
    if few {
        order.sort_by(|a, b| b.size.total_cmp(&a.size));
    }
    for (number, one) in order.into_iter().enumerate() {
        if exhausted(100 + free.len()) {
            break;
        }
        // How far apart they are, and how unlike in size, against their sizes.
        let cost = |other: &Outline<'_>| {
            let size = (one.size + other.size).max(1e-300);
            one.middle.distance(other.middle) / size + 2.0 * (one.size - other.size).abs() / size
        };
        let alike = |other: &Outline<'_>| {
            other.hole == one.hole && other.contour.is_closed() == one.contour.is_closed()
        };
        let partner = if few {
            let candidates = free.iter().enumerate().filter_map(|(i, other)| Some((i, (*other)?)));
            let alike = candidates.filter(|(_, other)| alike(other));
            alike.map(|(i, other)| (i, cost(other))).min_by(|a, b| a.1.total_cmp(&b.1)).map(|(i, _)| i)
        } else {
            Some(number)
        };
        let other = partner.and_then(|i| free.get_mut(i)).and_then(Option::take);
        all.extend(match other {
            Some(other) => Some(matched(one.contour, other.contour)),
            None => grown(one.contour, one.middle, false),
        });
    }
    all.extend(free.into_iter().flatten().filter_map(|other| grown(other.contour, other.middle, true)));
    all
}

/// A contour and the point that it grows from, or shrinks to.
fn grown(contour: &Contour, middle: Point, from_point: bool) -> Option<Pair> {
    let point = |segment: &Segment| match segment {
        Segment::Line { .. } => Segment::Line { from: middle, to: middle },
        _ => Segment::Cubic { from: middle, control1: middle, control2: middle, to: middle },
    };
    let parts = |segment: Segment| {
        let count = segment.eighths();
        (0..count).map(move |k| segment.stretch(k as f64 / count as f64, (k + 1) as f64 / count as f64))
    };
    let pieces: Vec<[Segment; 2]> = contour
        .segments()
        .flat_map(parts)
        .map(|part| if from_point { [point(&part), part] } else { [part, point(&part)] })
        .collect();
    (!pieces.is_empty()).then(|| Pair { pieces, closed: contour.is_closed() })
}

/// A contour measured: its segments, and where along it its corners are, as shares of its length.
struct Measured {
    survey: Survey,
    corners: Vec<f64>,
    /// Where every segment begins.
    vertices: Vec<f64>,
}

fn measured(contour: &Contour) -> Option<Measured> {
    let survey = contour.survey();
    let segments: Vec<Segment> = contour.segments().collect();
    let whole = survey.length();
    let (mut vertices, mut corners, mut at) = (Vec::new(), Vec::new(), 0.0);
    let mut before = segments.last().filter(|_| contour.is_closed());
    for segment in &segments {
        let share = if whole > 0.0 { at / whole } else { 0.0 };
        vertices.push(share);
        if before.is_none_or(|before| jump(before, segment).abs() > MIN_CORNER_ANGLE) {
            corners.push(share);
        }
        let parts = segment.eighths();
        vertices.extend(
            (1..parts)
                .map(|k| (at + segment.stretch(0.0, k as f64 / parts as f64).length()) / whole.max(1e-300)),
        );
        at += segment.length();
        before = Some(segment);
    }
    Some(Measured { survey, corners, vertices })
}

impl Measured {
    fn point(&self, share: f64) -> Point {
        let length = self.survey.length();
        self.survey.station(share.rem_euclid(1.0) * length).map_or(Point::ZERO, |station| station.point())
    }
}

fn matched(a: &Contour, b: &Contour) -> Pair {
    // Both run the same way round.
    let turned = b.is_closed() && a.signed_area() * b.signed_area() < 0.0;
    let b = if turned { b.reversed() } else { b.clone() };
    let closed = a.is_closed();
    let (Some(first), Some(second)) = (measured(a), measured(&b)) else {
        return Pair { pieces: Vec::new(), closed };
    };
    let anchors = if closed {
        round_anchors(&first, &second)
    } else {
        let (corners, others) = (inner(&first.corners), inner(&second.corners));
        let mut anchors = vec![[0.0, 0.0]];
        anchors.extend(in_order(&first, &second, &corners, &others));
        anchors.push([1.0, 1.0]);
        anchors
    };
    let mut cuts: Vec<[f64; 2]> = Vec::new();
    for pair in anchors.windows(2) {
        let &[begin, end] = pair else { continue };
        cuts.push(begin);
        // The vertices of both between the anchors, by their share of the way there.
        let mut shares: Vec<f64> = Vec::new();
        for (i, side) in [&first, &second].into_iter().enumerate() {
            let (Some(from), Some(to)) = (begin.get(i), end.get(i)) else { continue };
            let between = |at: f64| {
                let lifted = [at, at + 1.0].into_iter().find(|at| *at > from + 1e-9 && *at < to - 1e-9);
                lifted.map(|at| (at - from) / (to - from))
            };
            shares.extend(side.vertices.iter().filter_map(|at| between(*at)));
        }
        shares.sort_by(f64::total_cmp);
        shares.dedup_by(|a, b| (*a - *b).abs() < 1e-6);
        cuts.extend(shares.into_iter().map(|share| {
            [0, 1].map(|i| {
                let (from, to) = (begin.get(i).copied().unwrap_or(0.0), end.get(i).copied().unwrap_or(1.0));
                from + (to - from) * share
            })
        }));
    }
    cuts.extend(anchors.last());
    let piece = |side: &Measured, from: f64, to: f64| {
        let length = side.survey.length();
        let turns = if from >= 1.0 { 1.0 } else { 0.0 };
        let (from, to) = ((from - turns) * length, (to - turns) * length);
        let part = if to > length && from < length {
            side.survey.section(from, to - length)
        } else {
            side.survey.section(from, to)
        };
        // A cut that is a hair off a vertex leaves a stub: the longest piece is meant.
        let whole = part.segments().max_by(|a, b| a.length().total_cmp(&b.length()));
        let spot = side.point(from / length.max(1e-300));
        whole.unwrap_or(Segment::Line { from: spot, to: spot })
    };
    let mut pieces: Vec<[Segment; 2]> = cuts
        .windows(2)
        .map(|pair| {
            let [from, to] = [pair[0], pair[1]];
            [piece(&first, from[0], to[0]), piece(&second, from[1], to[1])]
        })
        .collect();
    // What a stub took off is put right: each piece begins where the last one ends.
    for i in 1..pieces.len() {
        let ends = pieces.get(i - 1).map(|before| [before[0].to(), before[1].to()]);
        if let (Some(ends), Some(piece)) = (ends, pieces.get_mut(i)) {
            for (side, start) in piece.iter_mut().zip(ends) {
                *side = side.with_ends(start, side.to());
            }
        }
    }
    Pair { pieces, closed }
}

fn inner(corners: &[f64]) -> Vec<f64> {
    corners.iter().copied().filter(|at| *at > 1e-9 && *at < 1.0 - 1e-9).collect()
}

/// How far apart two places are, seen each from the middle of its contour and against its size; and how far along.
fn apart(first: &Measured, second: &Measured, at: f64, other: f64, frames: &[(Point, f64); 2]) -> f64 {
    let [(middle, size), (other_middle, other_size)] = frames;
    let seen = (first.point(at) - *middle) / *size - (second.point(other) - *other_middle) / *other_size;
    seen.length_squared()
}

fn frames(first: &Measured, second: &Measured) -> [(Point, f64); 2] {
    [first, second].map(|side| {
        let points: Vec<Point> = (0..PROBES).map(|i| side.point(i as f64 / PROBES as f64)).collect();
        let middle = points.iter().sum::<Point>() / PROBES as f64;
        let size = points.iter().map(|p| p.distance(middle)).sum::<f64>() / PROBES as f64;
        (middle, size.max(1e-300))
    })
}

/// Pairs of corners in order, as many as the side with fewer has, that are together as near to one another as can be.
fn in_order(first: &Measured, second: &Measured, a: &[f64], b: &[f64]) -> Vec<[f64; 2]> {
    best_in_order(first, second, a, b, &frames(first, second)).0
}

fn best_in_order(
    first: &Measured,
    second: &Measured,
    a: &[f64],
    b: &[f64],
    frames: &[(Point, f64); 2],
) -> (Vec<[f64; 2]>, f64) {
    if a.len() > b.len() {
        let (pairs, cost) = best_in_order(second, first, b, a, &[frames[1], frames[0]]);
        return (pairs.into_iter().map(|[q, p]| [p, q]).collect(), cost);
    }
    if a.is_empty() || b.len() > MAX_CORNERS {
        return (Vec::new(), 0.0);
    }
    // least[i][j]: the first i corners of the one matched among the first j of the other.
    let width = b.len() + 1;
    let mut least = vec![f64::INFINITY; (a.len() + 1) * width];
    least.iter_mut().take(width).for_each(|cost| *cost = 0.0);
    let get = |least: &[f64], i: usize, j: usize| least.get(i * width + j).copied().unwrap_or(f64::INFINITY);
    for (i, at) in a.iter().enumerate() {
        if exhausted(10 * width) {
            break;
        }
        for (j, other) in b.iter().enumerate() {
            let here = get(&least, i, j) + apart(first, second, *at, *other, frames);
            let best = here.min(get(&least, i + 1, j));
            if let Some(slot) = least.get_mut((i + 1) * width + j + 1) {
                *slot = best;
            }
        }
    }
    let (mut i, mut j) = (a.len(), b.len());
    let total = get(&least, i, j);
    let mut pairs = Vec::with_capacity(a.len());
    while i > 0 && j > 0 {
        if get(&least, i, j) == get(&least, i, j - 1) {
            j -= 1;
            continue;
        }
        if let (Some(at), Some(other)) = (a.get(i - 1), b.get(j - 1)) {
            pairs.push([*at, *other]);
        }
        (i, j) = (i - 1, j - 1);
    }
    pairs.reverse();
    (pairs, total)
}

/// Where two closed contours are held together, as shares of their lengths: from one round to the next, both rising.
fn round_anchors(first: &Measured, second: &Measured) -> Vec<[f64; 2]> {
    let frames = frames(first, second);
    let close = |mut pairs: Vec<[f64; 2]>| {
        // Past the seam of either the shares go on beyond 1.
        let mut last = pairs.first().copied().unwrap_or_default();
        for pair in pairs.iter_mut().skip(1) {
            for (share, before) in pair.iter_mut().zip(last) {
                while *share < before {
                    *share += 1.0;
                }
            }
            last = *pair;
        }
        let home = pairs.first().map(|pair| pair.map(|share| share + 1.0));
        pairs.extend(home);
        pairs
    };
    let (few, many) =
        (first.corners.len().min(second.corners.len()), first.corners.len().max(second.corners.len()));
    if few > 0 && many <= MAX_CORNERS {
        // Every corner of the side with fewer has a partner: try each for the first one.
        let swapped = first.corners.len() > second.corners.len();
        let (one, other) = if swapped { (second, first) } else { (first, second) };
        let frames = if swapped { [frames[1], frames[0]] } else { frames };
        let mut best: Option<(f64, Vec<[f64; 2]>)> = None;
        for begin in 0..other.corners.len() {
            if exhausted(other.corners.len()) {
                break;
            }
            let mut turned = other.corners.clone();
            turned.rotate_left(begin);
            let (head, rest) = (one.corners.first().copied(), one.corners.get(1..).unwrap_or_default());
            let (Some(head), Some(first_of), others) =
                (head, turned.first().copied(), turned.get(1..).unwrap_or_default())
            else {
                continue;
            };
            let (mut pairs, cost) = best_in_order(one, other, rest, others, &frames);
            if pairs.len() != rest.len() {
                continue;
            }
            let cost = cost + apart(one, other, head, first_of, &frames);
            pairs.insert(0, [head, first_of]);
            if best.as_ref().is_none_or(|(least, _)| cost < *least) {
                best = Some((cost, pairs));
            }
        }
        if let Some((_, pairs)) = best {
            let pairs = pairs.into_iter().map(|[p, q]| if swapped { [q, p] } else { [p, q] }).collect();
            return close(pairs);
        }
    }
    // Round ones: the second turned so that places at the same shares lie nearest together.
    let cost = |turn: f64| -> f64 {
        (0..PROBES)
            .map(|i| i as f64 / PROBES as f64)
            .map(|share| apart(first, second, share, share + turn, &frames))
            .sum()
    };
    let turns =
        (0..PROBES).map(|i| i as f64 / PROBES as f64).chain(second.vertices.iter().take(PROBES).copied());
    let best =
        turns.map(|turn| (cost(turn), turn)).min_by(|a, b| a.0.total_cmp(&b.0)).map_or(0.0, |(_, turn)| turn);
    close(vec![[0.0, best]])
}

/// Part of one reshape and part of another: the path that lies a share of the way from what the first makes to what the
/// second makes.
///
/// ```
/// use chordane::prelude::*;
/// let line = Path::open([(0.0, 0.0), (100.0, 0.0)]);
/// let calm = Blend::new(Ripple::new(8.0, 25.0), Subdivide::into(4), 0.75);
/// assert!((line.then(calm).bounds().unwrap().size().y - 4.0).abs() < 0.1);
/// ```
#[derive(Clone, Copy, Debug)]
pub struct Blend<A, B> {
    first: A,
    second: B,
    share: f64,
}

impl<A: Reshape, B: Reshape> Blend<A, B> {
    /// The first reshape at a share of 0, the second at 1, and [`Path::morph`] between.
    #[must_use]
    pub fn new(first: A, second: B, share: f64) -> Self {
        Self { first, second, share }
    }
}

impl<A: Reshape, B: Reshape> Reshape for Blend<A, B> {
    fn reshape(&self, path: &Path) -> Path {
        path.then(&self.first).morphed(&path.then(&self.second), self.share)
    }
}
