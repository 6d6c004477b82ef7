//! Where two segments meet: in places, or along stretches that they share.
//!
//! Sides and curves meet at the roots of a polynomial. Two curves are halved again and again, keeping the pairs whose
//! strips along their chords still overlap, until both are nearly straight: then they either cross plainly, and the
//! place is polished by Newton's method, or run side by side, and touch if they come near enough.

use super::beside::{Beside, beside};
use super::circles::{Round, rounds};
use super::place::Meet;
use crate::ground::exhausted;
use crate::number::{Cell, Point, roots};
use crate::path::{Segment, quadratic_roots};

/// Pieces of curves that run side by side and are shorter than this many times the tolerance are taken to touch. The
/// gap between a curve and its chord shrinks with the square of the length, and is then below the tolerance.
const TOUCH_LENGTH_FACTOR: f64 = 1e5;

/// Curves that run side by side for more than this many times the tolerance share a stretch; for less, they touch.
const LONG_ROW: f64 = 16.0 * TOUCH_LENGTH_FACTOR;

/// Pieces that bend by less than this, as the sine of an angle, are compared point by point where they run side by side.
const STRAIGHT: f64 = 0.2;

/// At most this many pairs of pieces are looked at; only stretches that are shared unrecognised come near it.
const MAX_PAIRS: usize = 50_000;

/// Pieces that touch lie in rows along a stretch that is nearly shared: after so many, more of them say nothing new.
const MAX_TOUCHES: usize = 500;

/// Parameters that differ by more than this are two places of a curve, though they may be one spot.
const MIN_PARAMETER_GAP: f64 = 1e-3;

/// Interior places at which a stretch must lie on the other segment to count as shared.
const OVERLAP_SAMPLES: usize = 7;

/// Calls `found` with all that two segments have in common, to within a distance.
pub(crate) fn meets(a: &Segment, b: &Segment, off: f64, found: &mut impl FnMut(Meet)) {
    if exhausted(5) {
        return;
    }
    if let (Segment::Line { from: p, to: q }, Segment::Line { from: r, to: s }) = (*a, *b)
        && plain_sides([p, q], [r, s], off, found)
    {
        return;
    }
    if let (Some(p), Some(q)) = (Round::of(a), Round::of(b))
        && rounds(&p, &q, off, found)
    {
        return;
    }
    let mut ends = ends_on(a, b, off);
    if shared(a, b, off, &ends, found) {
        return;
    }
    let mut places: Vec<(f64, f64)> = Vec::new();
    let mut stretches: Vec<Row> = Vec::new();
    match (a, b) {
        (Segment::Line { from: p, to: q }, Segment::Line { from: r, to: s }) => {
            places.extend(slow_crossing([*p, *q], [*r, *s]));
        }
        (Segment::Line { from, to }, curve) => {
            side_and_curve(*from, *to, curve, off, |s, t| places.push((s, t)));
        }
        (curve, Segment::Line { from, to }) => {
            side_and_curve(*from, *to, curve, off, |s, t| places.push((t, s)));
        }
        _ => stretches = curves(a, b, off, &ends, &mut places),
    }
    places.retain(|place| stretches.iter().all(|stretch| !stretch.holds(place)));
    // A curve may come through one spot twice: places are the same only where both parameters are near too.
    let same = |p: &(f64, f64), q: &(f64, f64), far: f64| {
        let near = |segment: &Segment, s: f64, t: f64| {
            (s - t).abs() < MIN_PARAMETER_GAP && segment.at(s).distance(segment.at(t)) <= far
        };
        near(a, p.0, q.0) && near(b, p.1, q.1)
    };
    // A place at an end is known best from the end.
    let snapped = |segment: &Segment, t: f64| {
        let at_end = |end: &f64| {
            segment.at(t).distance(segment.at(*end)) <= off && (t - end).abs() < MIN_PARAMETER_GAP
        };
        [0.0, 1.0].into_iter().find(at_end).unwrap_or(t)
    };
    places.iter_mut().for_each(|(s, t)| (*s, *t) = (snapped(a, *s), snapped(b, *t)));
    places.retain(|place| ends.iter().all(|end| !same(place, end, 8.0 * off)));
    ends.append(&mut places);
    ends.sort_by(|p, q| p.0.total_cmp(&q.0).then(p.1.total_cmp(&q.1)));
    ends.dedup_by(|q, p| same(p, q, 4.0 * off));
    ends.into_iter().for_each(|(s, t)| found(Meet::At(s, t)));
    stretches.into_iter().for_each(|stretch| found(Meet::Along(stretch.of_a, stretch.of_b)));
}

/// Where two straight sides cross that are nearly parallel, if they do.
fn slow_crossing([p, q]: [Point; 2], [r, s]: [Point; 2]) -> Option<(f64, f64)> {
    let share = |[from, to]: [Point; 2], [p, q]: [Point; 2]| {
        let height = |spot: Point| (to - from).perp_dot(spot - from);
        let (low, high) = (height(p), height(q));
        (low * high < 0.0).then(|| low / (low - high))
    };
    share([r, s], [p, q]).zip(share([p, q], [r, s]))
}

/// Two straight sides that are not nearly parallel: the one place, if any. False where they need a closer look.
fn plain_sides([p, q]: [Point; 2], [r, s]: [Point; 2], off: f64, found: &mut impl FnMut(Meet)) -> bool {
    let (along, other, arm) = (q - p, s - r, r - p);
    let turn = along.perp_dot(other);
    let (long, short) = (along.length(), other.length());
    if turn.abs() <= 1e-7 * long * short {
        return false;
    }
    let (at, on) = (arm.perp_dot(other) / turn, arm.perp_dot(along) / turn);
    // How far a parameter may overshoot for the place to be within the tolerance of the side's end.
    let (slack_a, slack_b) = (off / long, off / short);
    if at >= -slack_a && at <= 1.0 + slack_a && on >= -slack_b && on <= 1.0 + slack_b {
        found(Meet::At(at.clamp(0.0, 1.0), on.clamp(0.0, 1.0)));
    }
    true
}

/// The ends of either segment that lie on the other, as pairs of parameters in the order of the first.
fn ends_on(a: &Segment, b: &Segment, off: f64) -> Vec<(f64, f64)> {
    let mut pairs: Vec<(f64, f64)> = Vec::new();
    let near = |bounds: &Cell, p: Point| (bounds.min - p).max(p - bounds.max).max_element() <= off;
    let (box_a, box_b) = (a.bounds(), b.bounds());
    for s in [0.0, 1.0] {
        if !near(&box_b, a.at(s)) {
            continue;
        }
        let t = b.nearest(a.at(s));
        if b.at(t).distance(a.at(s)) <= off {
            // At the other's end too: then the end itself, not a place a hair before it.
            let end = [0.0, 1.0].into_iter().find(|end| b.at(*end).distance(a.at(s)) <= off);
            pairs.push((s, end.unwrap_or(t)));
        }
    }
    for t in [0.0, 1.0] {
        if !near(&box_a, b.at(t)) {
            continue;
        }
        let s = a.nearest(b.at(t));
        if a.at(s).distance(b.at(t)) <= off {
            let end = [0.0, 1.0].into_iter().find(|end| a.at(*end).distance(b.at(t)) <= off);
            pairs.push((end.unwrap_or(s), t));
        }
    }
    pairs.sort_by(|p, q| p.0.total_cmp(&q.0).then(p.1.total_cmp(&q.1)));
    pairs.dedup();
    pairs
}

/// Reports the stretches between neighbouring ends that both segments run along, and the ends outside them. Curves
/// that share a stretch are parts of one curve, and have nothing else in common.
fn shared(a: &Segment, b: &Segment, off: f64, ends: &[(f64, f64)], found: &mut impl FnMut(Meet)) -> bool {
    let mut stretches: Vec<([f64; 2], [f64; 2])> = Vec::new();
    for pair in ends.windows(2) {
        let &[(s0, t0), (s1, t1)] = pair else { continue };
        if a.at(s0).distance(a.at(s1)) <= 4.0 * off && (s1 - s0) < 0.5 {
            continue;
        }
        let on_both = (1..=OVERLAP_SAMPLES).all(|i| {
            let p = a.at(s0 + (s1 - s0) * i as f64 / (OVERLAP_SAMPLES + 1) as f64);
            let t = b.nearest(p);
            b.at(t).distance(p) <= 2.0 * off && t >= t0.min(t1) - 1e-6 && t <= t0.max(t1) + 1e-6
        });
        if on_both {
            stretches.push(([s0, s1], [t0, t1]));
        }
    }
    if stretches.is_empty() {
        return false;
    }
    for (s, t) in ends {
        let within = |stretch: &([f64; 2], [f64; 2])| *s >= stretch.0[0] && *s <= stretch.0[1];
        if !stretches.iter().any(within) {
            found(Meet::At(*s, *t));
        }
    }
    stretches.into_iter().for_each(|(s, t)| found(Meet::Along(s, t)));
    true
}

/// The places that a straight side and a curve have in common, tangencies included.
fn side_and_curve(from: Point, to: Point, curve: &Segment, off: f64, mut found: impl FnMut(f64, f64)) {
    let step = to - from;
    let length = step.length();
    if length == 0.0 {
        return;
    }
    let along = step / length;
    let mut look = |t: f64| {
        let arm = curve.at(t) - from;
        let (at, aside) = (arm.dot(along), along.perp_dot(arm));
        if aside.abs() <= off && at >= -off && at <= length + off {
            found((at / length).clamp(0.0, 1.0), t);
        }
    };
    let aside = |p: Point| along.perp_dot(p - from);
    match *curve {
        Segment::Line { .. } => {}
        Segment::Quad { from, control, to } => {
            let heights = [from, control, to].map(aside);
            roots(heights, &mut look);
            let slopes: [f64; 2] = differences(heights);
            roots(slopes, &mut look);
        }
        Segment::Cubic { from, control1, control2, to } => {
            let heights = [from, control1, control2, to].map(aside);
            roots(heights, &mut look);
            let slopes: [f64; 3] = differences(heights);
            roots(slopes, &mut look);
        }
        Segment::Arc(arc) => {
            let Some(whole) = arc.centred() else { return };
            // The height over the line at an angle before squashing: level + size * cos(angle - top).
            let p = along.perp_dot(whole.turned(Point::new(whole.radii.x, 0.0)));
            let q = along.perp_dot(whole.turned(Point::new(0.0, whole.radii.y)));
            let (level, size, top) = (aside(whole.centre), p.hypot(q), q.atan2(p));
            let swing = (-level / size).clamp(-1.0, 1.0).acos();
            for angle in [top + swing, top - swing, top, top + std::f64::consts::PI] {
                if let Some(share) = whole.share_of(crate::number::rad(angle)) {
                    look(share);
                }
            }
        }
    }
}

/// The Bernstein coefficients of the derivative, but for a factor.
fn differences<const N: usize, const M: usize>(coefficients: [f64; N]) -> [f64; M] {
    let mut slopes = [0.0; M];
    for (slope, pair) in slopes.iter_mut().zip(coefficients.windows(2)) {
        if let [a, b] = pair {
            *slope = b - a;
        }
    }
    slopes
}

/// A piece of a curve between two parameters, and the corners of a polygon round it.
#[derive(Clone, Copy)]
struct Piece {
    segment: Segment,
    from: f64,
    to: f64,
    hull: [Point; 4],
}

impl Piece {
    fn new(segment: Segment, from: f64, to: f64) -> Self {
        let hull = match segment {
            Segment::Line { from, to } => [from, from, to, to],
            Segment::Quad { from, control, to } => [from, control, control, to],
            Segment::Cubic { from, control1, control2, to } => [from, control1, control2, to],
            Segment::Arc(arc) => {
                // Where the tangents at the ends meet; the piece is at most a quarter turn.
                let apex = arc.centred().map_or(arc.from, |whole| {
                    let half = whole.sweep * 0.5;
                    whole.centre + (whole.at(0.5) - whole.centre) / half.cos()
                });
                [arc.from, apex, apex, arc.to]
            }
        };
        Self { segment, from, to, hull }
    }

    fn bounds(&self) -> Cell {
        let [a, b, c, d] = self.hull;
        Cell { min: a.min(b).min(c).min(d), max: a.max(b).max(c).max(d) }
    }

    fn chord(&self) -> Point {
        let [from, _, _, to] = self.hull;
        to - from
    }

    fn size(&self) -> f64 {
        self.bounds().size().length()
    }

    fn halves(&self) -> [Self; 2] {
        let (left, right) = self.segment.split(0.5);
        let middle = self.from.midpoint(self.to);
        [Self::new(left, self.from, middle), Self::new(right, middle, self.to)]
    }

    /// The heights of a hull over this piece's chord: lowest and highest, in units of length.
    fn heights(&self, hull: &[Point; 4]) -> (f64, f64) {
        let along = self.chord().normalize_or_zero();
        let [from, ..] = self.hull;
        hull.iter()
            .map(|p| along.perp_dot(*p - from))
            .fold((f64::MAX, f64::MIN), |(a, b), h| (a.min(h), b.max(h)))
    }

    /// How much the piece's direction may differ from its chord's, as the sine of the angle; infinite where it is a
    /// right angle or more. The direction stays between those of the hull's sides.
    fn bend(&self) -> f64 {
        let along = self.chord().normalize_or_zero();
        let sides = self.hull.windows(2).map(|pair| match pair {
            [a, b] => (*b - *a).normalize_or_zero(),
            _ => Point::ZERO,
        });
        sides.filter(|side| *side != Point::ZERO).fold(0.0, |most: f64, side| {
            if side.dot(along) > 0.0 { most.max(along.perp_dot(side).abs()) } else { f64::INFINITY }
        })
    }

    fn strip_misses(&self, other: &Self, off: f64) -> bool {
        let (low, high) = self.heights(&self.hull);
        let (other_low, other_high) = self.heights(&other.hull);
        other_low > high + off || other_high < low - off
    }
}

/// The pieces of a curve to begin with: an arc in pieces of at most a quarter turn.
fn pieces(segment: &Segment) -> Vec<Piece> {
    let quarters = match segment {
        Segment::Arc(arc) => arc.centred().map_or(1.0, |whole| (whole.sweep.degrees().abs() / 90.0).ceil()),
        _ => 1.0,
    };
    let count = quarters.max(1.0) as usize;
    let mut rest = *segment;
    let mut begin = 0.0;
    let mut pieces = Vec::with_capacity(count);
    for i in 1..count {
        let end = i as f64 / count as f64;
        let (left, right) = rest.split((end - begin) / (1.0 - begin));
        pieces.push(Piece::new(left, begin, end));
        (rest, begin) = (right, end);
    }
    pieces.push(Piece::new(rest, begin, 1.0));
    pieces
}

/// A stretch of two curves that lie within the tolerance of each other; a touch where both ends are the same.
#[derive(Clone, Copy)]
struct Row {
    of_a: [f64; 2],
    of_b: [f64; 2],
}

impl Row {
    fn touch(s: f64, t: f64) -> Self {
        Self { of_a: [s, s], of_b: [t, t] }
    }

    /// Whether a place lies in it.
    fn holds(&self, &(s, t): &(f64, f64)) -> bool {
        let [t0, t1] = self.of_b;
        (self.of_a[0]..=self.of_a[1]).contains(&s) && (t0.min(t1)..=t0.max(t1)).contains(&t)
    }
}

/// Finds the places that two curves have in common, and returns the long stretches along which they run side by side.
fn curves(a: &Segment, b: &Segment, off: f64, ends: &[(f64, f64)], found: &mut Vec<(f64, f64)>) -> Vec<Row> {
    let firsts = pieces(a);
    let mut rest: Vec<(Piece, Piece)> =
        pieces(b).into_iter().flat_map(|q| firsts.iter().map(move |p| (*p, q))).collect();
    let mut looked = 0;
    let mut touches: Vec<(f64, f64)> = Vec::new();
    let mut rows: Vec<Row> = Vec::new();
    while let Some((p, q)) = rest.pop() {
        looked += 1;
        let (box_p, box_q) = (p.bounds(), q.bounds());
        let apart = (box_p.min - Point::splat(off)).cmpgt(box_q.max).any()
            || (box_q.min - Point::splat(off)).cmpgt(box_p.max).any();
        if apart || looked > MAX_PAIRS || p.strip_misses(&q, off) || q.strip_misses(&p, off) {
            continue;
        }
        let (long, short) = (p.size().max(q.size()), p.size().min(q.size()));
        let turn = p.chord().perp_dot(q.chord()).abs() / (p.chord().length() * q.chord().length());
        let straight = p.bend().max(q.bend()) < STRAIGHT;
        // No direction of the one is one of the other: one place at most, which may have to be come nearer to.
        if turn > 2.0 * (p.bend() + q.bend())
            && let Polished::Done(place) = polished(a, b, &p, &q, off)
        {
            found.extend(place);
        } else if straight
            && let how = beside(a, [p.from, p.to], b, [q.from, q.to], off)
            && how != Beside::Unclear
        {
            match how {
                Beside::Along(of_b) => rows.push(Row { of_a: [p.from, p.to], of_b }),
                Beside::Crossing(s, t) => found.push((s, t)),
                Beside::Apart | Beside::Unclear => {}
            }
        } else if long <= off || (straight && long <= TOUCH_LENGTH_FACTOR * off) {
            if touches.len() >= MAX_TOUCHES {
                continue;
            }
            let s = p.from.midpoint(p.to);
            let t = b.nearest(a.at(s));
            let s = a.nearest(b.at(t));
            let t = b.nearest(a.at(s));
            if a.at(s).distance(b.at(t)) <= off {
                touches.push((s, t));
            }
        } else if short * 4.0 < long {
            if p.size() > q.size() {
                rest.extend(p.halves().map(|half| (half, q)));
            } else {
                rest.extend(q.halves().map(|half| (p, half)));
            }
        } else {
            for left in p.halves() {
                rest.extend(q.halves().map(|right| (left, right)));
            }
        }
    }
    add_touches([a, b], off, (touches, rows), ends, found)
}

/// What Newton's method came to.
enum Polished {
    /// The curves meet in one place, which lies on both pieces or on neither.
    Done(Option<(f64, f64)>),
    /// It did not converge, or converged elsewhere: a curve has no speed near there, or ends.
    Unsure,
}

/// Newton's method for the place where two nearly straight pieces cross, from where their chords do.
fn polished(a: &Segment, b: &Segment, p: &Piece, q: &Piece, off: f64) -> Polished {
    let (along, other) = (p.chord(), q.chord());
    let arm = q.hull[0] - p.hull[0];
    let turn = along.perp_dot(other);
    let (at, on) = (arm.perp_dot(other) / turn, arm.perp_dot(along) / turn);
    let s = p.from + (p.to - p.from) * at.clamp(0.0, 1.0);
    let t = q.from + (q.to - q.from) * on.clamp(0.0, 1.0);
    let Some((s, t)) = crossing(a, b, (s, t), off) else { return Polished::Unsure };
    // Within both pieces, give or take what belongs to the neighbours too.
    let (slack_s, slack_t) = ((p.to - p.from) * 1e-3, (q.to - q.from) * 1e-3);
    let inside = s >= p.from - slack_s && s <= p.to + slack_s && t >= q.from - slack_t && t <= q.to + slack_t;
    // Elsewhere, though the chords cross here: the method may have left the place that it was to find.
    let chords_cross = [at, on].iter().all(|share| (-0.1..=1.1).contains(share));
    if inside || !chords_cross { Polished::Done(inside.then_some((s, t))) } else { Polished::Unsure }
}

/// Newton's method for the place where two curves cross, from parameters near it; `None` where it does not converge.
fn crossing(a: &Segment, b: &Segment, (mut s, mut t): (f64, f64), off: f64) -> Option<(f64, f64)> {
    for _ in 0..12 {
        let gap = b.at(t) - a.at(s);
        let (u, v) = (a.velocity(s), b.velocity(t));
        let turn = u.perp_dot(v);
        if turn == 0.0 {
            break;
        }
        let (step_s, step_t) = (gap.perp_dot(v) / turn, gap.perp_dot(u) / turn);
        let next = ((s + step_s).clamp(0.0, 1.0), (t + step_t).clamp(0.0, 1.0));
        let settled = (next.0 - s).abs() + (next.1 - t).abs() < 1e-16;
        (s, t) = next;
        if settled {
            break;
        }
    }
    (a.at(s).distance(b.at(t)) <= off).then_some((s, t))
}

/// Pieces that touch lie next to one another and report the same touch: one for each short row of them, in its middle, and
/// none where the curves cross plainly, or one of them ends on the other, close by. Returns the long rows.
fn add_touches(
    [a, b]: [&Segment; 2],
    off: f64,
    (mut touches, mut rows): (Vec<(f64, f64)>, Vec<Row>),
    ends: &[(f64, f64)],
    found: &mut Vec<(f64, f64)>,
) -> Vec<Row> {
    let near = |p: &(f64, f64), q: &(f64, f64)| {
        a.at(p.0).distance(a.at(q.0)) <= 2.0 * TOUCH_LENGTH_FACTOR * off && (p.1 - q.1).abs() < 0.05
    };
    touches.retain(|touch| !found.iter().chain(ends).any(|place| near(touch, place)));
    rows.extend(touches.into_iter().map(|(s, t)| Row::touch(s, t)));
    rows.sort_by(|p, q| p.of_a[0].total_cmp(&q.of_a[0]));
    let goes_on = |p: &Row, q: &Row| near(&(p.of_a[1], p.of_b[1]), &(q.of_a[0], q.of_b[0]));
    let mut long = Vec::new();
    for row in rows.chunk_by(goes_on) {
        let (Some(first), Some(last)) = (row.first(), row.last()) else { continue };
        let row = Row { of_a: [first.of_a[0], last.of_a[1]], of_b: [first.of_b[0], last.of_b[1]] };
        let [s0, s1] = row.of_a;
        if a.at(s0).distance(a.at(s1)) > LONG_ROW * off {
            long.push(row);
            continue;
        }
        // The middles of the two rows are not quite opposite one another.
        let (s, middle) = (s0.midpoint(s1), row.of_b[0].midpoint(row.of_b[1]));
        let t = b.nearest(a.at(s));
        found.push((s, if (t - middle).abs() < 0.05 { t } else { middle }));
    }
    long
}

/// The two parameters at which a cubic crosses itself, where it does (its double point, in closed form).
pub(crate) fn loop_of(segment: &Segment) -> Option<(f64, f64)> {
    let Segment::Cubic { from, control1, control2, to } = *segment else { return None };
    let a = to - from + (control1 - control2) * 3.0;
    let b = (from - control1 * 2.0 + control2) * 3.0;
    let c = (control1 - from) * 3.0;
    // With u = s + t and w = s^2 + s t + t^2: a w + b u + c = 0 along x and along y.
    let turn = a.perp_dot(b);
    if turn == 0.0 {
        return None;
    }
    let (w, u) = (b.perp_dot(c) / turn, c.perp_dot(a) / turn);
    let [first, second] = quadratic_roots(1.0, -u, u * u - w);
    let (s, t) = (first?.min(second?), first?.max(second?));
    (s >= 0.0 && t <= 1.0 && t - s > 1e-9).then_some((s, t))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::prelude::*;

    fn all(a: &Segment, b: &Segment) -> Vec<Meet> {
        let mut found = Vec::new();
        meets(a, b, 1e-9, &mut |meet| found.push(meet));
        found
    }

    fn first(path: &Path) -> Segment {
        path.segments().next().unwrap()
    }

    /// The slow twin: crossings of very many chords.
    fn chords_cross(a: &Segment, b: &Segment) -> usize {
        let chords = |segment: &Segment| -> Vec<Segment> {
            let at = |i: u32| segment.at(((f64::from(i) - 0.37) / 599.0).clamp(0.0, 1.0));
            (0..600).map(|i| Segment::Line { from: at(i), to: at(i + 1) }).collect()
        };
        let (firsts, seconds) = (chords(a), chords(b));
        firsts.iter().map(|p| seconds.iter().map(|q| all(p, q).len()).sum::<usize>()).sum()
    }

    #[test]
    fn random_curves_cross_where_their_chords_do() {
        let mut seed = 4711_u64;
        let mut random = || {
            seed = seed.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
            (seed >> 33) as f64 / f64::from(1_u32 << 31) * 100.0
        };
        let mut point = || (random(), random());
        for i in 0..150 {
            let mut curve = |kind: usize| match kind % 4 {
                0 | 1 => first(&start(point()).cubic(point(), point(), point()).open()),
                2 => first(&start(point()).quad(point(), point()).open()),
                _ => first(
                    &start(point()).arc_radii(point(), point(), deg(30.0), ArcWay::LongClockwise).open(),
                ),
            };
            let (a, b) = (curve(i), curve(i / 4));
            let found = all(&a, &b);
            assert_eq!(found.len(), chords_cross(&a, &b), "{i} {a:?} {b:?}: {found:?}");
            assert_eq!(found.len(), all(&b, &a).len());
        }
    }

    #[test]
    fn two_cubics_can_cross_nine_times() {
        let a = first(&Path::from_data("M0 0C130 150-30 150 100 0").unwrap());
        let wave = first(&Path::from_data("M10-40C-30 160 130 160 90-40").unwrap());
        for pair in [(a, wave), (wave, a)] {
            let found = all(&pair.0, &pair.1);
            for meet in &found {
                let Meet::At(s, t) = meet else { panic!("{meet:?}") };
                assert!(pair.0.at(*s).distance(pair.1.at(*t)) < 1e-9);
            }
            assert_eq!(found.len(), chords_cross(&a, &wave), "{found:?}");
        }
        // Chebyshev's polynomial of degree three, along x and along y.
        let upright =
            first(&start((-30.0, -30.0)).cubic((-10.0, 150.0), (10.0, -150.0), (30.0, 30.0)).open());
        let level = first(&start((-30.0, -30.0)).cubic((150.0, -10.0), (-150.0, 10.0), (30.0, 30.0)).open());
        assert_eq!(all(&upright, &level).len(), 9);
    }

    #[test]
    fn tangencies_are_found_once() {
        let bow = first(&Path::from_data("M-10 10Q0-10 10 10").unwrap());
        assert_eq!(all(&bow, &Segment::Line { from: pt(-5.0, 0.0), to: pt(5.0, 0.0) }), [Meet::At(0.5, 0.5)]);
        let under = first(&Path::from_data("M-10-30Q0 30 10-30").unwrap());
        let found = all(&bow, &under);
        assert_eq!(found.len(), 1, "{found:?}");
        let half = |x: f64| first(&start((x, 5.0)).arc_about((x, 0.0), deg(-170.0)).open());
        let found = all(&half(0.0), &first(&start((10.0, 5.0)).arc_about((10.0, 0.0), deg(170.0)).open()));
        assert_eq!(found.len(), 1, "{found:?}");
        let hoops = (circle((0.0, 0.0), 5.0), circle((10.0, 0.0), 5.0));
        let touches: usize =
            hoops.0.segments().map(|a| hoops.1.segments().map(|b| all(&a, &b).len()).sum::<usize>()).sum();
        assert_eq!(touches, 4, "the four quarters that end in the one spot");
    }

    #[test]
    fn shared_stretches_are_stretches() {
        let line = |a: f64, b: f64| Segment::Line { from: pt(a, 1.0), to: pt(b, 1.0) };
        assert_eq!(all(&line(0.0, 10.0), &line(20.0, 5.0)), [Meet::Along([0.5, 1.0], [1.0, 2.0 / 3.0])]);
        assert_eq!(all(&line(0.0, 10.0), &line(10.0, 15.0)), [Meet::At(1.0, 0.0)]);
        assert_eq!(all(&line(0.0, 10.0), &line(11.0, 15.0)), []);
        let curve = first(&Path::from_data("M0 0C30 50 60-50 90 10").unwrap());
        let (early, late) = (curve.split(0.6).0, curve.split(0.3).1);
        let found = all(&early, &late);
        let [Meet::Along([s0, s1], [t0, t1])] = found[..] else { panic!("{found:?}") };
        assert!((s0 - 0.5).abs() < 1e-6 && s1 == 1.0 && t0 == 0.0 && (t1 - 3.0 / 7.0).abs() < 1e-6);
    }

    #[test]
    fn a_curve_through_the_end_of_another_and_back_to_it() {
        let arc = first(&Path::from_data("M40 50A20 20 0 0 1 20 30").unwrap());
        let loop_to = first(&Path::from_data("M40 50C10 40 20 0 20 30").unwrap());
        let found = all(&arc, &loop_to);
        assert_eq!(found.len(), 3, "{found:?}");
        assert!(
            found.iter().any(|meet| matches!(meet, Meet::At(1.0, t) if (t - 0.4).abs() < 1e-6)),
            "{found:?}"
        );
    }

    #[test]
    fn a_loop_is_known_in_closed_form() {
        let knot = first(&Path::from_data("M0 0C100 100-50 100 50 0").unwrap());
        let (s, t) = loop_of(&knot).unwrap();
        assert!(knot.at(s).distance(knot.at(t)) < 1e-12);
        assert_eq!(loop_of(&first(&Path::from_data("M0 0C10 10 20 10 30 0").unwrap())), None);
    }
}
