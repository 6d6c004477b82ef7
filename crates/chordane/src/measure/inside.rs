//! Winding numbers: how often the contours go round a spot.

use std::ops::ControlFlow;

use super::tree::BoxTree;
use crate::number::{Cell, IntoPoint, Point};
use crate::path::{Contour, Path, Segment};

/// How often a stretch is halved to find where it passes a height: beyond this the parameter's digits are used up.
const BISECTION_STEPS: u32 = 56;

impl Contour {
    /// How often the contour goes round a spot, clockwise as seen on a sheet with y down counted positive.
    ///
    /// An open contour counts as if it were closed. On the line itself either side may be reported, but the areas
    /// of neighbours that share a line never both claim or both lose a spot. Cost: linear in the segments.
    #[must_use]
    pub fn winding(&self, spot: Point) -> i32 {
        let sides: i32 = self.segments().map(|segment| crossing(&segment, spot)).sum();
        let closing = if self.is_closed() { 0 } else { line_crossing(self.end(), self.start(), spot) };
        sides + closing
    }
}

impl Path {
    /// The winding number of a spot: the sum over the contours; see [`Contour::winding`].
    #[must_use]
    pub fn winding(&self, spot: impl IntoPoint) -> i32 {
        let spot = spot.into_point();
        self.contours().iter().map(|contour| contour.winding(spot)).sum()
    }

    /// Whether the path encloses a spot under its fill rule.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let sail = circle((0.0, 0.0), 50.0).with_hole(circle((0.0, 0.0), 10.0));
    /// assert!(sail.inside((30.0, 0.0)));
    /// assert!(!sail.inside((3.0, 0.0)));
    /// ```
    ///
    /// Of a path that carries a fault it answers for what is left.
    #[must_use]
    pub fn inside(&self, spot: impl IntoPoint) -> bool {
        self.fill_rule().encloses(self.winding(spot))
    }
}

/// +1 when the ray from the spot toward +x is crossed downward (toward +y), -1 when upward.
fn line_crossing(from: Point, to: Point, spot: Point) -> i32 {
    let down = from.y <= spot.y && spot.y < to.y;
    let up = to.y <= spot.y && spot.y < from.y;
    let side = (to - from).perp_dot(spot - from);
    match (down, up) {
        (true, _) if side > 0.0 => 1,
        (_, true) if side < 0.0 => -1,
        _ => 0,
    }
}

/// The crossings of the ray with a segment. Between the places where a curve turns round along y it passes each
/// height once: there the place is found by halving, and counts when it lies to the right.
pub(super) fn crossing(segment: &Segment, spot: Point) -> i32 {
    if let Segment::Line { from, to } = *segment {
        return line_crossing(from, to, spot);
    }
    let [_, along_y] = segment.turns();
    let mut cuts = [along_y[0].unwrap_or(0.0), along_y[1].unwrap_or(0.0), 0.0, 1.0];
    cuts.sort_by(f64::total_cmp);
    let whole = if let Segment::Arc(arc) = segment { arc.centred() } else { None };
    let at = |t: f64| match &whole {
        Some(arc) if t > 0.0 && t < 1.0 => arc.at(t),
        _ => segment.at(t),
    };
    let passes = |from: f64, to: f64| {
        let (a, b) = (at(from), at(to));
        let down = a.y <= spot.y && spot.y < b.y;
        let up = b.y <= spot.y && spot.y < a.y;
        if !down && !up {
            return 0;
        }
        let (mut before, mut behind) = (from, to);
        for _ in 0..BISECTION_STEPS {
            let middle = before.midpoint(behind);
            if (at(middle).y <= spot.y) == down {
                before = middle;
            } else {
                behind = middle;
            }
        }
        match at(before).x > spot.x {
            true if down => 1,
            true => -1,
            false => 0,
        }
    };
    cuts.windows(2).map(|pair| passes(pair[0], pair[1])).sum()
}

/// The winding number of a spot, looking only at segments that a line to the right meets.
pub(crate) fn winding_in(segments: &[Segment], tree: &BoxTree, spot: Point) -> i32 {
    let mut sum = 0;
    let reached = |b: &Cell| b.min.y <= spot.y && b.max.y >= spot.y && b.max.x >= spot.x;
    let _ = tree.each(reached, |i| {
        sum += segments.get(i).map_or(0, |segment| crossing(segment, spot));
        ControlFlow::Continue(())
    });
    sum
}
