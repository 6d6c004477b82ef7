//! Curves of functions.

use crate::ground::{Fault, FaultKind, FaultSlot, exhausted, unlimited};
use crate::number::{Point, pt};
use crate::path::Path;

/// Even steps that are looked at before anything is halved: what happens between two of them only is missed.
const FIRST_STEPS: usize = 64;

/// How often such a step is halved at most.
const MAX_BISECTIONS: u32 = 12;

/// The graph of a function: the points `(x, f(x))` from one x to another, in straight sides.
///
/// No place of the graph is farther than the tolerance from its sides, as far as halving steps shows: the function is
/// looked at in 64 even steps, and in halves of them where it bends, down to a 4096th of a step. Where it is not finite
/// the path ends, and goes on in a new contour behind; where it jumps the two sides are joined. An upside-down range runs
/// from right to left; an empty one gives an empty path.
///
/// A tolerance of zero or less is a fault.
///
/// ```
/// use chordane::prelude::*;
/// let swell = plot(0.0, 6.3, 0.01, |x| x.sin());
/// assert!(swell.contours()[0].vertex_count() < 200);
/// // A pole: two branches.
/// assert_eq!(plot(-1.0, 1.0, 0.01, |x| 1.0 / x).contours().len(), 2);
/// ```
#[must_use]
pub fn plot(from: f64, to: f64, tolerance: f64, f: impl Fn(f64) -> f64) -> Path {
    let call = "plot";
    let mut fault = FaultSlot::default();
    let sound = fault.finite(call, "range's begin", from) & fault.finite(call, "range's end", to);
    traced(call, fault, sound && from != to, (from, to), tolerance, |x| pt(x, f(x)))
}

/// The way of a point that a function gives for shares from 0 to 1, in straight sides, none farther than the tolerance
/// from it; otherwise as [`plot`].
///
/// ```
/// use chordane::prelude::*;
/// let swirl = traced_trail(0.05, |share| polar(turns(3.0 * share), 40.0 * share));
/// assert!((swirl.contours()[0].end() - pt(40.0, 0.0)).length() < 1e-9);
/// ```
#[must_use]
pub fn traced_trail(tolerance: f64, f: impl Fn(f64) -> Point) -> Path {
    traced("traced_trail", FaultSlot::default(), true, (0.0, 1.0), tolerance, f)
}

/// The way of a point that a function gives for shares from 0 to 1, in `n` even steps: an open path of `n` sides.
///
/// No steps give an empty path. A point that is not finite is a fault at its vertex. One call of the function for each
/// vertex, and one allocation.
///
/// ```
/// use chordane::prelude::*;
/// let hoop = trail(90, |share| polar(turns(share), 40.0));
/// assert_eq!(hoop.contours()[0].vertex_count(), 91);
/// ```
#[must_use]
pub fn trail(n: usize, mut f: impl FnMut(f64) -> Point) -> Path {
    let call = "trail";
    let mut fault = FaultSlot::default();
    if !fault.at_most(call, "steps", n, super::polygon::MAX_VERTICES) || n == 0 {
        return Path::from_parts(Vec::new(), Default::default(), fault);
    }
    let points: Vec<Point> = (0..=n).map(|i| f(i as f64 / n as f64)).collect();
    if let Some(bad) = points.iter().position(|point| !point.is_finite()) {
        let p = points.get(bad).copied().unwrap_or(Point::NAN);
        fault.note(Fault::of(call, FaultKind::PointNotFinite { x: p.x, y: p.y }).at_vertex(bad));
        return Path::from_parts(Vec::new(), Default::default(), fault);
    }
    Path::open(points)
}

fn traced(
    call: &'static str,
    mut fault: FaultSlot,
    sound: bool,
    (from, to): (f64, f64),
    tolerance: f64,
    f: impl Fn(f64) -> Point,
) -> Path {
    let sound = sound & fault.positive(call, "tolerance", tolerance);
    if !sound {
        return Path::from_parts(Vec::new(), Default::default(), fault);
    }
    let mut tracer = Tracer { f: |time| unlimited(|| f(time)), tolerance, runs: vec![Vec::new()] };
    let place = |i: usize| from + (to - from) * (i as f64 / FIRST_STEPS as f64);
    let done = fault.limited(call, || {
        let mut begin = (from, (tracer.f)(from));
        tracer.take(begin.1);
        for i in 1..=FIRST_STEPS {
            let time = if i == FIRST_STEPS { to } else { place(i) };
            let end = (time, (tracer.f)(time));
            tracer.step(begin, end, 0);
            begin = end;
        }
    });
    let runs = tracer.runs.into_iter().filter(|run| done.is_some() && run.len() > 1);
    let path = Path::from_parts(Vec::new(), Default::default(), fault);
    path.and(&Path::from_contours(runs.flat_map(|run| Path::open(run).contours().to_vec())))
}

struct Tracer<F> {
    f: F,
    tolerance: f64,
    /// Points of contours; the last one grows.
    runs: Vec<Vec<Point>>,
}

impl<F: Fn(f64) -> Point> Tracer<F> {
    fn take(&mut self, point: Point) {
        match self.runs.last_mut() {
            Some(run) if point.is_finite() => run.push(point),
            Some(run) if run.is_empty() => {}
            _ => self.runs.push(Vec::new()),
        }
    }

    fn step(&mut self, begin: (f64, Point), end: (f64, Point), halvings: u32) {
        let middle = 0.5 * (begin.0 + end.0);
        let at = (self.f)(middle);
        if exhausted(20) {
            return;
        }
        let bad = [begin.1, at, end.1].iter().filter(|point| !point.is_finite()).count();
        let straight = || {
            // A place off the middle too, so that a wave about its own middle is not missed.
            let off = (self.f)(begin.0 + (end.0 - begin.0) * 0.3);
            let finest = 1e-12 * begin.1.abs().max(end.1.abs()).max_element();
            [at, off].into_iter().all(|p| beside(p, begin.1, end.1) <= self.tolerance.max(finest))
        };
        if bad == 3 || halvings >= MAX_BISECTIONS || (bad == 0 && straight()) {
            if bad > 0 && bad < 3 {
                self.take(at);
            }
            self.take(end.1);
            return;
        }
        self.step(begin, (middle, at), halvings + 1);
        self.step((middle, at), end, halvings + 1);
    }
}

/// How far a point is from a side.
fn beside(point: Point, from: Point, to: Point) -> f64 {
    let side = to - from;
    let square = side.length_squared();
    let along = if square > 0.0 { ((point - from).dot(side) / square).clamp(0.0, 1.0) } else { 0.0 };
    point.distance(from + side * along)
}
