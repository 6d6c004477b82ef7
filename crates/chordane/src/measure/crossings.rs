//! Where a path crosses, touches or runs along itself or another path.

use std::ops::ControlFlow;

use super::meet::{loop_of, meets};
use super::place::{Meet, Place};
use super::tree::{BoxTree, overlap};
use crate::ground::{Fault, FaultKind, exhausted, limited};
use crate::number::{Cell, Point};
use crate::path::{Contour, Path, Segment};

/// Places nearer together than this share of the paths' extent count as one.
const RELATIVE_TOLERANCE: f64 = 1e-10;

/// More crossings than this are refused rather than filling the memory.
const MAX_CROSSINGS: usize = 1_000_000;

/// How two lines meet; see [`Crossing`].
///
/// ```
/// use chordane::prelude::*;
/// use chordane::measure::CrossingKind;
/// let spar = Path::open([(-50.0, 20.0), (50.0, 20.0)]);
/// let touching = circle((0.0, 0.0), 20.0).crossings_with(&spar)?;
/// assert_eq!(touching[0].kind, CrossingKind::Touching);
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
#[non_exhaustive]
pub enum CrossingKind {
    /// The paths cross to each other's other side.
    Across,
    /// They meet, and stay on their sides or end there.
    Touching,
    /// The paths coincide from here to another point.
    Along {
        /// Where the shared stretch ends.
        to: Point,
        /// The same on the first path.
        first: Place,
        /// The same on the second path.
        second: Place,
    },
}

/// A place at which a path meets itself or another path.
///
/// ```
/// use chordane::prelude::*;
/// let cross = Path::open([(0.0, 0.0), (10.0, 10.0)]).crossings_with(&Path::open([(0.0, 10.0), (10.0, 0.0)]))?;
/// assert_eq!((cross[0].at, cross[0].first.parameter), (pt(5.0, 5.0), 0.5));
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Crossing {
    /// Where it is.
    pub at: Point,
    /// The place on the first path; on the earlier part of a path that meets itself.
    pub first: Place,
    /// The place on the second path, or on the later part.
    pub second: Place,
    /// How they meet.
    pub kind: CrossingKind,
}

impl Path {
    /// Where the path crosses, touches or runs along itself, in order along it; closing sides of closed contours
    /// included. That neighbouring segments share their joint is not counted.
    ///
    /// Places are found to within 1e-10 of the path's size; lines that come nearer than that to one another touch, and
    /// run along one another where they stay so near. Cost: n log n, and the number of crossings. More than a million
    /// of them are a fault.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let bow = start((0.0, 0.0)).line((10.0, 10.0)).line((10.0, 0.0)).line((0.0, 10.0)).close();
    /// let crossings = bow.crossings()?;
    /// assert_eq!((crossings.len(), crossings[0].at), (1, pt(5.0, 5.0)));
    /// # Ok::<(), Fault>(())
    /// ```
    ///
    /// # Errors
    ///
    /// The path's first fault, or too many crossings.
    pub fn crossings(&self) -> Result<Vec<Crossing>, Fault> {
        self.sound()?;
        let (found, all) = limited("crossings", || self_crossings(self, MAX_CROSSINGS))?;
        if all { Ok(found) } else { Err(too_many("crossings")) }
    }

    /// Where the path crosses, touches or runs along another, in order along this one; otherwise as
    /// [`Path::crossings`].
    ///
    /// # Errors
    ///
    /// The first fault of either path, or too many crossings.
    pub fn crossings_with(&self, other: &Self) -> Result<Vec<Crossing>, Fault> {
        self.sound()?;
        other.sound()?;
        let (found, all) = limited("crossings_with", || crossings_between(self, other))?;
        if all { Ok(found) } else { Err(too_many("crossings_with")) }
    }
}

/// The crossings of two paths, and whether that is all of them.
fn crossings_between(one: &Path, other: &Path) -> (Vec<Crossing>, bool) {
    let (first, second) = (Lines::of(one), Lines::of(other));
    let off = tolerance(&[&first, &second]);
    let tree = BoxTree::new(second.list.iter().map(|line| line.bounds));
    let mut found = Vec::new();
    for a in &first.list {
        let reach = a.bounds.grown(off);
        let whole = tree.each(
            |bounds| overlap(bounds, &reach),
            |j| {
                if let Some(b) = second.list.get(j) {
                    meets(&a.segment, &b.segment, off, &mut |meet| {
                        found.push(crossing(&first, a, &second, b, meet));
                    });
                }
                enough(found.len(), MAX_CROSSINGS)
            },
        );
        if whole.is_break() {
            return (found, false);
        }
    }
    (once_each(found, off), true)
}

fn too_many(call: &'static str) -> Fault {
    let kind = FaultKind::TooMany { what: "crossings", count: MAX_CROSSINGS + 1, limit: MAX_CROSSINGS };
    Fault::of(call, kind)
}

fn enough(count: usize, limit: usize) -> ControlFlow<()> {
    if count > limit { ControlFlow::Break(()) } else { ControlFlow::Continue(()) }
}

/// The crossings of a path with itself, and whether that is all of them: the search ends beyond the limit.
pub(crate) fn self_crossings(path: &Path, limit: usize) -> (Vec<Crossing>, bool) {
    let lines = Lines::of(path);
    let off = tolerance(&[&lines]);
    if exhausted(10 * lines.list.len()) {
        return (Vec::new(), false);
    }
    let tree = BoxTree::new(lines.list.iter().map(|line| line.bounds));
    if exhausted(10 * lines.list.len()) {
        return (Vec::new(), false);
    }
    // Neighbours in place are then neighbours in memory too: what is looked at is at hand.
    let lines = lines.arranged(tree.by_place());
    let mut found = Vec::with_capacity(lines.list.len().min(limit));
    for line in &lines.list {
        // A curve that is a closed contour by itself has its joint where it crosses itself.
        let all_of_it = lines.next(line).is_some_and(|next| next.index == line.index);
        let joint = |s: f64, t: f64| all_of_it && s < 1e-9 && t > 1.0 - 1e-9;
        if let Some((s, t)) = loop_of(&line.segment).filter(|(s, t)| !joint(*s, *t)) {
            found.push(earlier_first(crossing(&lines, line, &lines, line, Meet::At(s, t))));
        }
    }
    let whole = tree.each_two(off, |p, q| {
        let (Some(p), Some(q)) = (lines.list.get(p), lines.list.get(q)) else {
            return ControlFlow::Continue(());
        };
        let (a, b) = if p.index < q.index { (p, q) } else { (q, p) };
        meets(&a.segment, &b.segment, off, &mut |meet| {
            let joint = match meet {
                Meet::At(1.0, 0.0) => lines.next(a).is_some_and(|next| next.index == b.index),
                Meet::At(0.0, 1.0) => lines.next(b).is_some_and(|next| next.index == a.index),
                _ => false,
            };
            if !joint {
                found.push(earlier_first(crossing(&lines, a, &lines, b, meet)));
            }
        });
        enough(found.len(), limit)
    });
    drop((lines, tree));
    (once_each(found, off), whole.is_continue())
}

/// A segment that has a size, and where it stands in its path.
#[derive(Clone, Copy)]
struct Line {
    segment: Segment,
    bounds: Cell,
    /// Which of the path's lines it is, in order along the path.
    index: u32,
    contour: u32,
    number: u32,
}

/// The segments of a path that have a size.
struct Lines {
    list: Vec<Line>,
    /// Where in the list each line stands, by its index; empty where they stand in the order of the path.
    places: Vec<u32>,
    /// For each contour, the index of its first line, and whether it comes round.
    contours: Vec<(u32, bool)>,
}

impl Lines {
    fn of(path: &Path) -> Self {
        let sides = |contour: &Contour| contour.vertex_count() - usize::from(!contour.is_closed());
        let mut list = Vec::with_capacity(path.contours().iter().map(sides).sum());
        let mut contours = Vec::with_capacity(path.contours().len());
        for (contour, drawn) in (0..).zip(path.contours()) {
            contours.push((list.len() as u32, drawn.is_closed()));
            for (number, segment) in (0..).zip(drawn.segments()) {
                if exhausted(2) {
                    break;
                }
                let bounds = segment.bounds();
                if bounds.size() != Point::ZERO {
                    list.push(Line { segment, bounds, index: list.len() as u32, contour, number });
                }
            }
        }
        Self { list, places: Vec::new(), contours }
    }

    /// The same lines, in another order in memory.
    fn arranged(self, order: impl Iterator<Item = usize>) -> Self {
        let mut list: Vec<Line> = Vec::with_capacity(self.list.len());
        list.extend(order.filter_map(|i| self.list.get(i)));
        let mut places = vec![0; list.len()];
        for (place, line) in (0..).zip(&list) {
            if let Some(slot) = places.get_mut(line.index as usize) {
                *slot = place;
            }
        }
        Self { list, places, contours: self.contours }
    }

    fn bounds(&self) -> Option<Cell> {
        self.list.iter().map(|line| line.bounds).reduce(Cell::union)
    }

    fn line(&self, index: u32) -> Option<&Line> {
        let place = self.places.get(index as usize).copied().unwrap_or(index);
        self.list.get(place as usize)
    }

    /// The line that goes on where one ends.
    fn next(&self, line: &Line) -> Option<&Line> {
        if let Some(next) = self.line(line.index + 1).filter(|next| next.contour == line.contour) {
            return Some(next);
        }
        let (first, closed) = self.contours.get(line.contour as usize)?;
        closed.then(|| self.line(*first)).flatten()
    }

    /// The line that ends where one goes on.
    fn previous(&self, line: &Line) -> Option<&Line> {
        let before = line.index.checked_sub(1).and_then(|before| self.line(before));
        if let Some(before) = before.filter(|before| before.contour == line.contour) {
            return Some(before);
        }
        let (_, closed) = self.contours.get(line.contour as usize)?;
        let behind = match self.contours.get(line.contour as usize + 1) {
            Some((first, _)) => *first,
            None => self.list.len() as u32,
        };
        closed.then(|| self.line(behind.checked_sub(1)?)).flatten()
    }

    /// The place at a parameter of a line; the end of one is the start of the next.
    fn place(&self, line: &Line, parameter: f64) -> Place {
        match (parameter == 1.0).then(|| self.next(line)).flatten() {
            Some(next) => next.place(0.0),
            None => line.place(parameter),
        }
    }

    /// Where the path is a little before and a little behind a place.
    fn around(&self, line: &Line, parameter: f64) -> Option<(Point, Point)> {
        const STEP: f64 = 0.01;
        let before = if parameter > 0.0 {
            line.segment.at((parameter - STEP).max(parameter * 0.5))
        } else {
            self.previous(line)?.segment.at(1.0 - STEP)
        };
        let behind = if parameter < 1.0 {
            line.segment.at((parameter + STEP).min(parameter.midpoint(1.0)))
        } else {
            self.next(line)?.segment.at(STEP)
        };
        Some((before, behind))
    }
}

impl Line {
    fn place(&self, parameter: f64) -> Place {
        Place { contour: self.contour as usize, segment: self.number as usize, parameter }
    }
}

/// How near two places must be to count as one, in sheet units.
fn tolerance(all: &[&Lines]) -> f64 {
    let bounds = all.iter().filter_map(|lines| lines.bounds()).reduce(Cell::union);
    bounds.map_or(0.0, |bounds| tolerance_of(&bounds))
}

/// The same for everything within some bounds.
pub(crate) fn tolerance_of(bounds: &Cell) -> f64 {
    // No finer than what is left of the digits far from the origin.
    let far = bounds.min.abs().max(bounds.max.abs()).max_element();
    bounds.size().max_element() * RELATIVE_TOLERANCE + far * 8.0 * f64::EPSILON
}

fn crossing(first: &Lines, a: &Line, second: &Lines, b: &Line, meet: Meet) -> Crossing {
    match meet {
        Meet::At(s, t) => Crossing {
            at: a.segment.at(s),
            first: first.place(a, s),
            second: second.place(b, t),
            kind: if goes_across(first, a, s, second, b, t) {
                CrossingKind::Across
            } else {
                CrossingKind::Touching
            },
        },
        Meet::Along([s0, s1], [t0, t1]) => Crossing {
            at: a.segment.at(s0),
            first: a.place(s0),
            second: b.place(t0),
            kind: CrossingKind::Along { to: a.segment.at(s1), first: a.place(s1), second: b.place(t1) },
        },
    }
}

/// Whether one line changes to the other side of the other: of the four ways out of the place, theirs alternate.
fn goes_across(first: &Lines, a: &Line, s: f64, second: &Lines, b: &Line, t: f64) -> bool {
    let inside = |parameter: f64| parameter > 0.0 && parameter < 1.0;
    if inside(s) && inside(t) {
        let (u, v) = (a.segment.velocity(s), b.segment.velocity(t));
        if u.perp_dot(v).abs() > 1e-3 * u.length() * v.length() {
            return true;
        }
    }
    let at = a.segment.at(s);
    let (Some((a_in, a_out)), Some((b_in, b_out))) = (first.around(a, s), second.around(b, t)) else {
        return false;
    };
    let from_out = |p: Point| {
        let (u, v) = (a_out - at, p - at);
        u.perp_dot(v).atan2(u.dot(v)).rem_euclid(std::f64::consts::TAU)
    };
    let way_in = from_out(a_in);
    (from_out(b_in) < way_in) != (from_out(b_out) < way_in)
}

/// Where a place is along its path, to be compared.
fn key(place: &Place) -> (usize, f64) {
    (place.contour, place.segment as f64 + place.parameter)
}

/// At the seam of a contour, the later place of a path that meets itself may have come first.
fn earlier_first(mut crossing: Crossing) -> Crossing {
    let (a, b) = (key(&crossing.first), key(&crossing.second));
    if !matches!(crossing.kind, CrossingKind::Along { .. }) && a.0 == b.0 && a.1 > b.1 {
        std::mem::swap(&mut crossing.first, &mut crossing.second);
    }
    crossing
}

/// In order along the first path, each place once.
fn once_each(mut found: Vec<Crossing>, off: f64) -> Vec<Crossing> {
    // Crossings are large: their places are sorted, and each is then moved once.
    let mut order: Vec<(usize, f64, usize, f64, u32)> = (0..)
        .zip(&found)
        .map(|(i, crossing)| {
            let (a, b) = (key(&crossing.first), key(&crossing.second));
            (a.0, a.1, b.0, b.1, i)
        })
        .collect();
    order.sort_unstable_by(|p, q| {
        p.0.cmp(&q.0)
            .then(p.1.total_cmp(&q.1))
            .then(p.2.cmp(&q.2))
            .then(p.3.total_cmp(&q.3))
            .then(p.4.cmp(&q.4))
    });
    // Cycle by cycle each is swapped to its place, so that they need not be copied.
    for start in 0..found.len() {
        let mut place = start;
        while let Some((.., next)) = order.get_mut(place) {
            let from = std::mem::replace(next, place as u32) as usize;
            if from == start || from == place {
                break;
            }
            found.swap(place, from);
            place = from;
        }
    }
    let near = |a: &Place, b: &Place| {
        let (a, b) = (key(a), key(b));
        a.0 == b.0 && (a.1 - b.1).abs() < 1e-6
    };
    found.dedup_by(|q, p| {
        // Stretches may begin together, at a joint where the line turns back, and be two all the same.
        let same_kind = match (&p.kind, &q.kind) {
            (CrossingKind::Along { to, .. }, CrossingKind::Along { to: other, .. }) => {
                let segments = |crossing: &Crossing| (crossing.first.segment, crossing.second.segment);
                segments(p) == segments(q) && to.distance(*other) <= 16.0 * off
            }
            (CrossingKind::Along { .. }, _) | (_, CrossingKind::Along { .. }) => false,
            _ => true,
        };
        same_kind
            && near(&p.first, &q.first)
            && near(&p.second, &q.second)
            && p.at.distance(q.at) <= 16.0 * off
    });
    // The sides next to a shared stretch meet at its ends; that is part of the stretch.
    let ends: Vec<Point> = found
        .iter()
        .filter_map(|crossing| match crossing.kind {
            CrossingKind::Along { to, .. } => Some([crossing.at, to]),
            _ => None,
        })
        .flatten()
        .collect();
    if !ends.is_empty() {
        let tree = BoxTree::new(ends.iter().map(|end| Cell { min: *end, max: *end }.grown(16.0 * off)));
        found.retain(|crossing| {
            matches!(crossing.kind, CrossingKind::Along { .. })
                || tree.each(|b| b.contains(crossing.at), |_| ControlFlow::Break(())).is_continue()
        });
    }
    found
}
