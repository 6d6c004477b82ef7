//! Strokes whose width changes along the line.

use std::fmt;
use std::sync::Arc as Shared;

use super::Reshape;
use super::flat::{FlatPath, Polyline};
use super::outline::Outline;
use crate::fault::{Fault, FaultKind};
use crate::number::Point;
use crate::path::{ContourBuilder, FillRule, Path};

/// The width is looked at in at least so many places along each contour, and in more where it changes fast.
const LOOKS: f64 = 64.0;

/// How often a stretch is halved at most to follow the width.
const MOST_HALVINGS: u32 = 12;

/// How near the chords are to the true rim where nothing else is said, in sheet units.
const FINE: f64 = 0.02;

type Width = Shared<dyn Fn(f64) -> f64 + Send + Sync>;

/// A stroke's area with a width that is a function of the share of the length; see [`Outline::tapered`].
#[derive(Clone)]
pub struct Taper {
    outline: Outline,
    width: Width,
    tolerance: f64,
}

impl fmt::Debug for Taper {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        out.debug_struct("Taper").field("outline", &self.outline).finish_non_exhaustive()
    }
}

impl Outline {
    /// The same with a width that changes along the line: the function gives, for the share of each contour's length from
    /// 0 at its start to 1 at its end, what the width is multiplied with. Dashes are not drawn.
    ///
    /// Negative widths count as none. The area comes as straight sides under the nonzero rule, to within 0.02 sheet units.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let tail = start((0.0, 0.0)).line((100.0, 0.0)).open();
    /// let thin = tail.then(Outline::new(10.0).tapered(|share| 1.0 - share));
    /// assert!(thin.inside((10.0, 4.4)) && !thin.inside((90.0, 0.6)));
    /// ```
    #[must_use]
    pub fn tapered(self, width: impl Fn(f64) -> f64 + Send + Sync + 'static) -> Taper {
        Taper { outline: self, width: Shared::new(width), tolerance: FINE }
    }
}

impl Taper {
    /// The same within another tolerance, in sheet units: zero and below are a fault.
    #[must_use]
    pub fn tolerance(mut self, tolerance: f64) -> Self {
        self.tolerance = tolerance;
        self
    }

    /// The half width at a share of the length.
    fn half(&self, share: f64) -> f64 {
        let factor = (self.width)(share);
        0.5 * self.outline.width * if factor < 0.0 { 0.0 } else { factor }
    }

    /// The line with more points where the width changes, and the half width at each.
    fn widths(&self, line: &Polyline) -> (Polyline, Vec<f64>) {
        let n = line.points.len();
        let sides = if line.closed { n } else { n.saturating_sub(1) };
        let point = |i: usize| line.points.get(i % n.max(1)).copied().unwrap_or_default();
        let length: f64 = (0..sides).map(|i| point(i).distance(point(i + 1))).sum();
        let mut finer = Polyline { closed: line.closed, ..Polyline::default() };
        let mut halves = Vec::new();
        let mut at = 0.0;
        finer.push(point(0), true);
        halves.push(self.half(0.0));
        for i in 0..sides {
            let (from, to) = (point(i), point(i + 1));
            let next = at + from.distance(to);
            let mut add = |share: f64, last: bool| {
                let p = if last { to } else { from.lerp(to, (share * length - at) / (next - at)) };
                let corner = last && line.corners.get((i + 1) % n.max(1)).copied().unwrap_or(true);
                let count = finer.points.len();
                // The seam of a closed line is there already.
                if !(last && line.closed && i + 1 == sides) {
                    finer.push(p, corner);
                }
                if finer.points.len() > count {
                    halves.push(self.half(share));
                }
            };
            self.halve(at / length, next / length, 0, &mut add);
            add(next / length, true);
            at = next;
        }
        (finer, halves)
    }

    /// Calls `add` for places between two shares, as close as the width's changes need.
    fn halve(&self, from: f64, to: f64, depth: u32, add: &mut impl FnMut(f64, bool)) {
        let middle = from.midpoint(to);
        let bent = (self.half(middle) - self.half(from).midpoint(self.half(to))).abs() > 0.5 * self.tolerance;
        if depth < MOST_HALVINGS && (to - from > 1.0 / LOOKS || bent) {
            self.halve(from, middle, depth + 1, add);
            add(middle, false);
            self.halve(middle, to, depth + 1, add);
        }
    }
}

impl Reshape for Taper {
    fn reshape(&self, path: &Path) -> Path {
        let mut fault = path.carried().clone();
        fault.take_from(&self.outline.check());
        if self.tolerance.is_nan() || self.tolerance <= 0.0 {
            let kind = FaultKind::NotPositive { what: "tolerance", value: self.tolerance };
            fault.note(Fault::new("tapered", kind));
        }
        let mut flat = FlatPath::default();
        let mut line = Polyline::default();
        for contour in path.contours().iter().filter(|_| fault.get().is_none()) {
            line.fill_from(contour, self.tolerance);
            if line.points.len() < 2 {
                continue;
            }
            let (line, halves) = self.widths(&line);
            if let Some(bad) = halves.iter().find(|half| !half.is_finite()) {
                fault.note(Fault::new("tapered", FaultKind::NotFinite { what: "width", value: 2.0 * bad }));
                break;
            }
            self.outline.tapered_into(&line, &halves, self.tolerance, &mut flat);
        }
        // Where the width is next to nothing, both edges and the line are one place.
        let near = |a: Point, b: Point| a.distance(b) <= 0.05 * self.tolerance;
        let apart = |polygon: &[Point]| {
            let mut points = polygon.to_vec();
            points.dedup_by(|a, b| near(*a, *b));
            while points.len() > 1 && points.first().zip(points.last()).is_some_and(|(a, b)| near(*a, *b)) {
                points.pop();
            }
            points
        };
        let built = |polygon: &[Point]| ContourBuilder::polyline(apart(polygon));
        let contours = flat.polygons().filter_map(built).map(|builder| builder.finish(true)).collect();
        Path::from_parts(contours, FillRule::Nonzero, fault).within_numbers("tapered")
    }
}
