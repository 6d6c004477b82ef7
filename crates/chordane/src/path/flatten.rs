//! Flattening: chords in place of curves, as few as the tolerance allows.
//!
//! Each curve is walked from its start. The longest chord that keeps the tolerance is searched from where the
//! last one ended: that greedy walk needs the fewest chords of any that put their ends on the curve. The error
//! of a chord is known in closed form, so a chord is never longer than allowed and at most a few per cent
//! shorter than it could be.
//!
//! What is measured is the distance of the curve from the chord itself, not from its endless line: where a curve
//! doubles back (at a cusp), the part that runs past the chord's end counts.

use super::bounds::quadratic_roots;
use super::{Arc, Contour, ContourBuilder, Path, Segment};
use crate::number::{Angle, Point, deg, rad};

/// No curve is cut into more chords than about this, however small the tolerance.
const MAX_CHORDS: f64 = 65_536.0;

/// A chord is taken when its error is at least this share of the tolerance: the length goes with the root of
/// the error, so it is then within 3 per cent of the longest.
const MIN_ERROR_FRACTION: f64 = 0.94;

/// A part of a curve that can say how far a chord over it strays.
trait Walk {
    /// The greatest distance of the curve over `[t, t + h]` from the chord between those two places.
    fn stray(&self, t: f64, h: f64) -> f64;
    /// A guess at the parameter step from `t` that strays by the tolerance.
    fn guess(&self, t: f64, tolerance: f64) -> f64;
}

/// Calls `place` with the parameters at which the chords end, the last one, 1, not included.
fn walk(curve: &impl Walk, tolerance: f64, mut place: impl FnMut(f64)) {
    let least = 1.0 / MAX_CHORDS;
    let mut t = 0.0;
    let mut guess = curve.guess(0.0, tolerance);
    loop {
        let rest = 1.0 - t;
        // The last chord: try it as soon as the guess comes near.
        if rest <= least || guess >= rest * 0.7 && curve.stray(t, rest) <= tolerance {
            return;
        }
        let (mut good, mut bad) = (0.0, rest);
        let mut h = guess.min(rest * 0.97).max(least);
        for trial in 0..64 {
            let stray = curve.stray(t, h);
            if stray <= tolerance {
                good = h;
                if stray >= tolerance * MIN_ERROR_FRACTION {
                    break;
                }
            } else {
                bad = h;
            }
            if bad - good <= 0.01 * bad || bad <= least {
                break;
            }
            // The error goes with the square of the step where the curve bends evenly.
            let next = if stray > 0.0 { h * (tolerance * 0.975 / stray).sqrt() } else { h * 4.0 };
            // It does not where the curve doubles back: longer chords stray by the same. Then halving finds the turn.
            let even = trial < 4 || good > 0.0;
            h = if even && next > good && next < bad { next } else { 0.5 * (good + bad) };
        }
        let step = if good > 0.0 { good } else { bad.max(least) };
        if t + step >= 1.0 {
            return;
        }
        t += step;
        place(t);
        guess = step;
    }
}

/// A quadratic or cubic as `((a t + b) t + c) t`, from its own start.
struct Polynomial {
    a: Point,
    b: Point,
    c: Point,
}

impl Polynomial {
    fn at(&self, t: f64) -> Point {
        ((self.a * t + self.b) * t + self.c) * t
    }
}

impl Walk for Polynomial {
    fn stray(&self, t: f64, h: f64) -> f64 {
        let from = self.at(t);
        let chord = self.at(t + h) - from;
        let length = chord.length();
        if length == 0.0 {
            // A loop that ends where it began, or a curve of no size: measured from the point.
            return [0.25, 0.5, 0.75]
                .iter()
                .map(|s| (self.at(t + h * s) - from).length())
                .fold(0.0, f64::max);
        }
        let along = chord / length;
        // Off the chord's line, over s from 0 to 1, the curve stands at -h^2 s (1 - s) (alpha + beta s).
        let across_a = self.a.perp_dot(along);
        let alpha = across_a * (3.0 * t + h) + self.b.perp_dot(along);
        let beta = across_a * h;
        let off = |s: f64| (s * (1.0 - s) * (alpha + beta * s)).abs();
        let aside = if beta.abs() < 1e-9 * alpha.abs() {
            off(0.5)
        } else {
            let peaks = quadratic_roots(3.0 * beta, 2.0 * (alpha - beta), -alpha);
            peaks.into_iter().flatten().filter(|s| *s > 0.0 && *s < 1.0).map(off).fold(0.0, f64::max)
        } * (h * h);
        // Along the chord the curve may run past an end and come back.
        let (a, b, c) = (3.0 * self.a.dot(along), 2.0 * self.b.dot(along), self.c.dot(along));
        let speed = |u: f64| (a * u + b) * u + c;
        let lowest = -b / (2.0 * a);
        let dips = a > 0.0 && lowest > t && lowest < t + h && speed(lowest) < 0.0;
        if speed(t) >= 0.0 && speed(t + h) >= 0.0 && !dips {
            return aside;
        }
        let past = quadratic_roots(a, b, c)
            .into_iter()
            .flatten()
            .filter(|u| *u > t && *u < t + h)
            .map(|u| (self.at(u) - from).dot(along))
            .map(|d| (-d).max(d - length).max(0.0))
            .fold(0.0, f64::max);
        aside.hypot(past)
    }

    fn guess(&self, t: f64, tolerance: f64) -> f64 {
        let velocity = (self.a * (3.0 * t) + self.b * 2.0) * t + self.c;
        let bend = (self.a * (3.0 * t) + self.b).perp_dot(velocity).abs() / velocity.length();
        let guess = (4.0 * tolerance / bend).sqrt();
        if guess.is_finite() { guess } else { 1.0 }
    }
}

impl Walk for Arc {
    fn stray(&self, t: f64, h: f64) -> f64 {
        let half = self.sweep * (0.5 * h);
        if half.degrees().abs() > 60.0 {
            // A chord over more than a third of the turn would lose small ellipses altogether.
            return f64::INFINITY;
        }
        // On the unit circle the arc stands farthest from its chord half way, by 1 - cos; squashing keeps the
        // place, and turns that step into one across the squashed chord.
        let (sin, cos) = (self.start + self.sweep * (t + 0.5 * h)).sin_cos();
        let tangent = Point::new(self.radii.x * sin, self.radii.y * cos).length();
        // 1 - cos, without cancellation.
        let rise = 2.0 * (half * 0.5).sin().powi(2);
        let aside = rise * self.radii.x * self.radii.y / tangent;
        // Round the tip of a thin ellipse the arc runs past the chord's end and comes back.
        let (from, to) = (self.start + self.sweep * t, self.start + self.sweep * (t + h));
        let own = |angle: Angle| Point::new(angle.cos(), angle.sin()) * self.radii;
        let tangent =
            |angle: Angle| Point::new(-angle.sin(), angle.cos()) * self.radii * self.sweep.degrees().signum();
        let chord = own(to) - own(from);
        if tangent(from).dot(chord) >= 0.0 && tangent(to).dot(chord) >= 0.0 {
            return aside;
        }
        let length = chord.length();
        let along = chord / length;
        let turning = Angle::of((self.radii.x * chord.x, self.radii.y * chord.y));
        let past = [turning, turning + deg(180.0)]
            .into_iter()
            .filter(|angle| self.share_of(*angle).is_some_and(|share| share > t && share < t + h))
            .map(|angle| (own(angle) - own(from)).dot(along))
            .map(|d| (-d).max(d - length).max(0.0))
            .fold(0.0, f64::max);
        aside.hypot(past)
    }

    fn guess(&self, t: f64, tolerance: f64) -> f64 {
        let (sin, cos) = (self.start + self.sweep * t).sin_cos();
        let tangent = Point::new(self.radii.x * sin, self.radii.y * cos).length();
        let angle = (8.0 * tolerance * tangent / (self.radii.x * self.radii.y)).sqrt();
        rad(angle) / deg(self.sweep.degrees().abs())
    }
}

/// Calls `place` with the end of each chord of a segment, its own end last and exact.
///
/// A tolerance that is not above zero gives the most chords there may be.
#[inline]
pub(crate) fn flatten_segment(segment: &Segment, tolerance: f64, mut place: impl FnMut(Point)) {
    match *segment {
        Segment::Line { to, .. } => place(to),
        Segment::Quad { from, control, to } => {
            let curve =
                Polynomial { a: Point::ZERO, b: from - control * 2.0 + to, c: (control - from) * 2.0 };
            flatten_polynomial(&curve, tolerance, from, to, place);
        }
        Segment::Cubic { from, control1, control2, to } => {
            let curve = Polynomial {
                a: to - from + (control1 - control2) * 3.0,
                b: (from - control1 * 2.0 + control2) * 3.0,
                c: (control1 - from) * 3.0,
            };
            flatten_polynomial(&curve, tolerance, from, to, place);
        }
        Segment::Arc(arc) => {
            if let Some(whole) = arc.centred() {
                if whole.radii.x == whole.radii.y {
                    flatten_circle(&whole, tolerance, &mut place);
                } else {
                    walk(&whole, tolerance.max(0.0), |t| place(whole.at(t)));
                }
            }
            place(arc.to);
        }
    }
}

fn flatten_polynomial(
    curve: &Polynomial,
    tolerance: f64,
    from: Point,
    to: Point,
    mut place: impl FnMut(Point),
) {
    walk(curve, tolerance.max(0.0), |t| place(from + curve.at(t)));
    place(to);
}

/// Even chords over a circle's arc, as many as the tolerance asks for.
fn flatten_circle(arc: &Arc, tolerance: f64, mut place: impl FnMut(Point)) {
    let ratio = (tolerance / arc.radii.x).clamp(0.0, 0.5);
    // acos(1 - x), which loses its digits near 1, as 2 asin(sqrt(x / 2)).
    let step = 4.0 * (ratio * 0.5).sqrt().asin();
    let count = (arc.sweep.radians().abs() / step - 1e-9).ceil().clamp(1.0, MAX_CHORDS) as usize;
    for i in 1..count {
        place(arc.at(i as f64 / count as f64));
    }
}

impl Contour {
    /// The contour as straight sides; no point of the curves is farther from them than `tolerance`, in sheet
    /// units. Every vertex stays one; the last one of a closed contour that stands on the first is not repeated.
    #[must_use]
    pub fn flattened(&self, tolerance: f64) -> Self {
        let mut builder = ContourBuilder::with_capacity(self.start(), 0, 1);
        let mut segments = self.segments();
        for _ in 0..self.verbs().len() {
            if let Some(segment) = segments.next() {
                flatten_segment(&segment, tolerance, |p| builder.line(p));
            }
        }
        let flat = builder.finish(self.is_closed());
        // The last chord of a curve that comes back to the start of a closed contour is its closing side.
        let comes_home = flat.is_closed() && flat.vertex_count() > 3 && flat.start() == flat.end();
        if comes_home { flat.closed_at_start() } else { flat }
    }
}

impl Path {
    /// The path as straight sides; no point of its curves is farther from them than `tolerance`, in sheet units.
    ///
    /// The chords are about as few as any method could do with, up to 65,536 a segment; a tolerance of zero
    /// gives that many, one below zero is a fault. Cost: linear in the number of chords.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let round = circle(pt(0.0, 0.0), 100.0);
    /// assert_eq!(round.flattened(0.1).segments().count(), 72);
    /// ```
    #[must_use]
    pub fn flattened(&self, tolerance: f64) -> Self {
        let mut fault = self.carried().clone();
        if !fault.not_negative("flattened", "tolerance", tolerance) {
            return Self::from_parts(self.contours().to_vec(), self.fill_rule(), fault);
        }
        let contours = self.contours().iter().map(|contour| contour.flattened(tolerance)).collect();
        Self::from_parts(contours, self.fill_rule(), fault)
    }
}
