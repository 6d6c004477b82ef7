//! Few smooth cubics through many points: for lines that were drawn by hand or sampled.
//!
//! A stretch of points gets one cubic whose ends and end directions are given and whose two arm lengths are the best in the
//! sense of least squares; where it is not near enough, the points are looked up again on it, and then the stretch is split
//! at the worst point (Schneider, "An algorithm for automatically fitting digitized curves", 1990).

use super::Reshape;
use super::chain::reshaped;
use crate::ground::{FaultSlot, exhausted};
use crate::number::{Angle, Point, deg, kept};
use crate::path::{Contour, ContourBuilder, Path, Segment, flatten_segment};

/// How often the points are looked up again on the cubic.
const MAX_REPARAMETRIZATIONS: usize = 4;

/// A point that is far enough to see a corner from is looked for among so many.
const FAR_STEPS: usize = 64;

/// Radius, in tolerances, of the window whose points are averaged for the position and direction at a split; single points are noisy.
const SMOOTHING_WINDOW: f64 = 8.0;

/// A run is split no nearer to its ends than this share of it.
const MIN_SPLIT_FRACTION: f64 = 0.25;

/// Few smooth cubics in place of many points, within a tolerance; corners stay corners.
///
/// A rough line comes as straight sides between its points; curves among them count as points along them. Where the line
/// turns by more than the corner angle, seen over a few tolerances, it has a corner.
///
/// ```
/// use chordane::prelude::*;
/// let sampled = Path::open((0..=200).map(|i| polar(deg(f64::from(i)), 50.0)));
/// let smooth = sampled.then(CurveFit::within(0.1));
/// assert!(smooth.contours()[0].vertex_count() < 8);
/// assert!((smooth.length()? - sampled.length()?).abs() < 0.5);
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct CurveFit {
    /// How far a point may be from the cubics, in sheet units; zero and below are a fault.
    pub tolerance: f64,
    /// A vertex where the line turns by more than this is a corner: 60 degrees by default; 180 degrees and more make no corners.
    pub corner: Angle,
}

impl CurveFit {
    /// No point farther than a tolerance from the cubics, in sheet units; zero and below are a fault. Corners are turns by
    /// more than 60 degrees.
    #[must_use]
    pub fn within(tolerance: f64) -> Self {
        Self { tolerance, corner: deg(60.0) }
    }

    fn fitted(&self, contour: &Contour) -> Contour {
        let mut points = vec![contour.start()];
        for segment in contour.segments() {
            flatten_segment(&segment, 0.25 * self.tolerance, |p| points.push(p));
        }
        points.dedup();
        if points.len() < 3 {
            return contour.clone();
        }
        let closed = contour.is_closed();
        if closed && points.first() == points.last() {
            points.pop();
        }
        let mut corners = self.find_corners(&points, closed);
        if closed {
            // Begin at a corner; without one, go round once from the first point to itself.
            let first = corners.first().copied().unwrap_or(0);
            points.rotate_left(first);
            corners.iter_mut().for_each(|corner| *corner -= first);
            points.extend(points.first().copied());
        }
        let last = points.len() - 1;
        let smooth_seam = closed && corners.is_empty();
        if corners.first() != Some(&0) {
            corners.insert(0, 0);
        }
        if corners.last() != Some(&last) {
            corners.push(last);
        }
        let whole = points.as_slice();
        let seam = self.joint(whole, 0, smooth_seam);
        let mut builder = ContourBuilder::new(seam.0);
        for pair in corners.windows(2) {
            let &[from, to] = pair else { continue };
            let run = whole.get(from..=to).unwrap_or_default();
            let (first, last) =
                (run.first().copied().unwrap_or_default(), run.last().copied().unwrap_or_default());
            let window = SMOOTHING_WINDOW * self.tolerance;
            let mut begin = (first, toward(run.iter(), window));
            let mut end = (last, -toward(run.iter().rev(), window));
            if smooth_seam {
                (begin, end) = (seam, seam);
            }
            self.fit(run, begin, end, &mut builder);
        }
        builder.finish(closed)
    }

    /// The place and direction of the line at one of its points, from the points near to it; over the seam of a line that
    /// ends where it begins.
    fn joint(&self, points: &[Point], at: usize, round: bool) -> (Point, Point) {
        let here = points.get(at).copied().unwrap_or_default();
        let reach = SMOOTHING_WINDOW * self.tolerance;
        let near = |p: &&Point| p.distance(here) <= reach;
        let (before, behind) = (points.get(..at).unwrap_or_default(), points.get(at..).unwrap_or_default());
        let ahead: Vec<Point> = behind.iter().take_while(near).copied().collect();
        // The point at the seam is there twice.
        let back: Vec<Point> = if round {
            points.iter().rev().skip(1).take_while(near).copied().collect()
        } else {
            before.iter().rev().take_while(near).copied().collect()
        };
        // As many on either side, so that the middle is the point's own.
        let count = ahead.len().saturating_sub(1).min(back.len());
        let mean = |list: &[Point]| list.iter().take(count).sum::<Point>() / count.max(1) as f64;
        let next = ahead.get(1..).unwrap_or_default();
        if count == 0 {
            let before = back.first().copied().or_else(|| before.last().copied()).unwrap_or(here);
            let behind = next.first().or_else(|| behind.get(1)).copied().unwrap_or(here);
            return (here, (behind - before).normalize_or(Point::X));
        }
        let direction = (mean(next) - mean(&back)).normalize_or(Point::X);
        // Only aside from the line: a bend would otherwise draw the place inward by much.
        let few = count.min(3);
        let aside =
            |list: &[Point]| list.iter().take(few).map(|p| direction.perp_dot(*p - here)).sum::<f64>();
        let off = (aside(next) + aside(&back)) / (2 * few + 1) as f64;
        // The point itself stays within the tolerance.
        let most = 0.9 * self.tolerance;
        (here + direction.perp() * kept(off, -most, most), direction)
    }

    /// The points at which the line turns by more than the corner angle, in order.
    fn find_corners(&self, points: &[Point], closed: bool) -> Vec<usize> {
        let least = self.corner.radians();
        let reach = 4.0 * self.tolerance;
        // Looked for among points some way apart: however dense they are, the work stays in proportion.
        let mut sparse: Vec<(usize, Point)> = Vec::new();
        for (i, point) in points.iter().enumerate() {
            if sparse.last().is_none_or(|(_, last)| last.distance(*point) >= 0.25 * reach) {
                sparse.push((i, *point));
            }
        }
        if let Some(end) = points.last().filter(|_| !closed) {
            sparse.push((points.len() - 1, *end));
        }
        let n = sparse.len();
        let at = |i: usize| sparse.get(i % n).copied().unwrap_or_default();
        // The first one on either side that is far enough away.
        let away = |i: usize, ahead: bool| {
            let here = at(i).1;
            let steps = if closed {
                n - 1
            } else if ahead {
                n - 1 - i
            } else {
                i
            };
            let place = |k: usize| if ahead { i + k } else { i + n - k };
            let far = (1..=steps.min(FAR_STEPS)).find(|k| at(place(*k)).1.distance(here) >= reach);
            at(place(far.unwrap_or(steps.min(FAR_STEPS))))
        };
        let inner = if closed { 0..n } else { 1..n.saturating_sub(1) };
        let turning = inner.filter_map(|i| {
            let (into, out) = (at(i).1 - away(i, false).1, away(i, true).1 - at(i).1);
            let turn = into.perp_dot(out).atan2(into.dot(out)).abs();
            (turn > least).then_some((i, turn))
        });
        // Of points in a row that all see the corner, the one that sees most of it.
        let near = |a: usize, b: usize| at(a).1.distance(at(b).1) < 2.0 * reach;
        let mut corners: Vec<(usize, f64)> = Vec::new();
        for (i, turn) in turning {
            match corners.last_mut().filter(|(last, _)| near(*last, i)) {
                Some(best) if turn > best.1 => *best = (i, turn),
                Some(_) => {}
                None => corners.push((i, turn)),
            }
        }
        if closed
            && corners.len() > 1
            && let (Some(first), Some(last)) = (corners.first().copied(), corners.last().copied())
            && near(first.0, last.0)
        {
            if first.1 >= last.1 {
                corners.pop()
            } else {
                Some(corners.remove(0))
            };
        }
        // The tip itself: the point that stands out most between those next to it.
        let tip = |(i, _): (usize, f64)| {
            let (a, b) = (away(i, false).1, away(i, true).1);
            let whole = points.len();
            let from = if closed || i > 0 { at(i + n - 1).0 } else { 0 };
            let to = if closed || i + 1 < n { at(i + 1).0 } else { whole - 1 };
            let count = (to + whole - from) % whole;
            let out = |k: usize| {
                let p = points.get((from + k) % whole).copied().unwrap_or_default();
                (b - a).normalize_or_zero().perp_dot(p - a).abs()
            };
            let best = (0..=count)
                .map(|k| (k, out(k)))
                .fold((0, f64::MIN), |m, one| if one.1 > m.1 { one } else { m });
            (from + best.0) % whole
        };
        let mut tips: Vec<usize> = corners.into_iter().map(tip).collect();
        tips.sort_unstable();
        tips.dedup();
        tips.retain(|tip| closed || (*tip > 0 && *tip + 1 < points.len()));
        tips
    }

    /// Cubics along a run of points between two places with directions. Runs that wait to be fitted stand on a list, so that
    /// no depth is too much.
    fn fit(&self, run: &[Point], begin: (Point, Point), end: (Point, Point), builder: &mut ContourBuilder) {
        let mut rest = vec![(0, run.len().saturating_sub(1), begin, end)];
        while let Some((from, to, begin, end)) = rest.pop() {
            if exhausted(100 + 20 * to.saturating_sub(from)) {
                break;
            }
            let points = run.get(from + 1..to).unwrap_or_default();
            if points.is_empty() {
                builder.line(end.0);
                continue;
            }
            match best_cubic(points, begin, end, self.tolerance) {
                Ok(cubic) => builder.segment(&cubic),
                Err(worst) => {
                    let count = to - from;
                    let edge = ((count as f64 * MIN_SPLIT_FRACTION) as usize).max(1);
                    let at = from + (worst + 1).clamp(edge, count - edge);
                    let own = run.get(from..=to).unwrap_or_default();
                    let joint = self.joint(own, at - from, false);
                    rest.push((at, to, joint, end));
                    rest.push((from, at, begin, joint));
                }
            }
        }
    }
}

/// The direction from the first of some points to those next to it, within a distance.
fn toward<'a>(mut points: impl Iterator<Item = &'a Point>, reach: f64) -> Point {
    let Some(first) = points.next() else { return Point::X };
    let mut sum = Point::ZERO;
    for (i, point) in points.enumerate() {
        if i > 0 && point.distance(*first) > reach {
            break;
        }
        sum += *point - *first;
    }
    sum.normalize_or(Point::X)
}

/// One cubic along points between two places with directions, or the number of the point that is farthest from it.
fn best_cubic(
    points: &[Point],
    begin: (Point, Point),
    end: (Point, Point),
    tolerance: f64,
) -> Result<Segment, usize> {
    let mut shares = Vec::with_capacity(points.len());
    let (mut sum, mut last) = (0.0, begin.0);
    for point in points {
        sum += point.distance(last);
        shares.push(sum);
        last = *point;
    }
    sum += last.distance(end.0);
    shares.iter_mut().for_each(|share| *share /= sum);
    let mut worst = (points.len() / 2, f64::INFINITY);
    for _ in 0..=MAX_REPARAMETRIZATIONS {
        let cubic = squares(points, &shares, begin, end);
        let off = points.iter().zip(&shares).map(|(p, t)| cubic.at(*t).distance_squared(*p)).enumerate();
        let far = off.fold((0, 0.0), |most, one| if one.1 > most.1 { one } else { most });
        if far.1 <= tolerance * tolerance {
            return Ok(cubic);
        }
        // No hope of getting there, or no better than the time before.
        if far.1 > worst.1 * 0.9 || far.1 > 100.0 * tolerance * tolerance {
            return Err(far.0);
        }
        worst = far;
        for (point, t) in points.iter().zip(&mut shares) {
            // One step of Newton's method toward the nearest place.
            let arm = cubic.at(*t) - *point;
            let (v, w) = (cubic.velocity(*t), cubic.acceleration(*t));
            let slope = v.length_squared() + arm.dot(w);
            let step = arm.dot(v) / slope;
            if step.is_finite() && slope > 0.0 {
                *t = (*t - step).clamp(0.0, 1.0);
            }
        }
    }
    Err(worst.0)
}

/// The cubic of given ends and end directions whose arms are the best for points at given parameters.
fn squares(
    points: &[Point],
    shares: &[f64],
    (from, out): (Point, Point),
    (to, home): (Point, Point),
) -> Segment {
    let (mut aa, mut ab, mut bb, mut ax, mut bx) = (0.0, 0.0, 0.0, 0.0, 0.0);
    for (point, t) in points.iter().zip(shares) {
        let u = 1.0 - t;
        let (b1, b2) = (3.0 * t * u * u, 3.0 * t * t * u);
        let (a, b) = (out * b1, -home * b2);
        let rest = *point - from * (u * u * u + b1) - to * (b2 + t * t * t);
        aa += a.length_squared();
        ab += a.dot(b);
        bb += b.length_squared();
        ax += a.dot(rest);
        bx += b.dot(rest);
    }
    let whole = aa * bb - ab * ab;
    let (mut first, mut second) = ((ax * bb - bx * ab) / whole, (aa * bx - ab * ax) / whole);
    // Arms that run backward, or far past one another, make loops: a third of the chord is always sound.
    let chord = from.distance(to);
    let sound = |arm: f64| arm.is_finite() && arm > 1e-6 * chord && arm < 4.0 * chord.max(1e-300);
    if !(sound(first) && sound(second)) {
        (first, second) = (chord / 3.0, chord / 3.0);
    }
    Segment::Cubic { from, control1: from + out * first, control2: to - home * second, to }
}

impl Reshape for CurveFit {
    fn reshape(&self, path: &Path) -> Path {
        let check = |fault: &mut FaultSlot| {
            fault.positive("curve_fitted", "tolerance", self.tolerance);
            fault.finite("curve_fitted", "corner angle", self.corner.degrees());
        };
        reshaped("curve_fitted", path, check, |_| {
            path.contours().iter().map(|contour| self.fitted(contour)).collect()
        })
    }
}

impl Path {
    /// Few smooth cubics in place of many points, within a tolerance; see [`CurveFit`].
    #[must_use]
    pub fn curve_fitted(&self, tolerance: f64) -> Self {
        self.then(CurveFit::within(tolerance))
    }
}
