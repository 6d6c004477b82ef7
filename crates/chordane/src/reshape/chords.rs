//! The area that a stroke paints, as straight sides: what drawing and broad nibs use.
//!
//! The outline is built so that its nonzero winding number is that of a sum of convex pieces, all turned the same
//! way: one rectangle for each side and one wedge for each join. So no spot of the stroke can cancel to zero,
//! however short the sides are against the width. On the inner side of a corner the outline goes through the
//! vertex itself, which leaves those pieces whole; where both sides are long enough it takes the short cut over
//! the crossing of the two inner lines, which removes only what was covered twice.

use super::flat::{FlatPath, Polyline};
use super::line_style::{Cap, Join, LineStyle};
use super::pattern::dashed;
use crate::ground::exhausted;
use crate::number::Point;
use crate::path::{ContourBuilder, FillRule, Path};

impl LineStyle {
    /// Adds the stroke's area to `out` as polygons for the nonzero rule.
    pub(crate) fn outline_into(&self, path: &Path, tolerance: f64, out: &mut FlatPath) {
        let half = self.width * 0.5;
        if !half.is_finite() || half <= 0.0 {
            return;
        }
        let mut line = Polyline::default();
        let mut sides = Sides::new(self, half, tolerance);
        for contour in path.contours() {
            // A lone vertex draws nothing; a side of no length draws its caps.
            if contour.vertex_count() == 1 && !contour.is_closed() {
                continue;
            }
            line.fill_from(contour, tolerance);
            if self.dash.is_empty() {
                sides.stroke(&line, out);
            } else {
                dashed(&line, &self.dash, self.dash_offset, |part| sides.stroke(part, out));
            }
        }
    }
}

impl Path {
    /// The area that a stroke of this path paints, as straight sides under the nonzero rule; no point of its rim
    /// is farther from the true rim than about `tolerance`, in sheet units. Empty where the width or the tolerance is not
    /// above zero. Cost: linear in the number of chords.
    ///
    /// What drawing uses, without the promise of a word: for tests and benches.
    #[doc(hidden)]
    #[must_use]
    pub fn stroke_chords(&self, outline: &LineStyle, tolerance: f64) -> Self {
        let mut flat = FlatPath::default();
        if tolerance > 0.0 {
            outline.outline_into(self, tolerance, &mut flat);
        }
        let contours = flat
            .polygons()
            .filter_map(|polygon| ContourBuilder::polyline(polygon.to_vec()))
            .map(|builder| builder.finish(true))
            .collect();
        Self::from_parts(contours, FillRule::Nonzero, self.carried().clone())
    }
}

/// One side of a line: where it begins, its direction, its length, and the step to its left edge.
#[derive(Clone, Copy)]
struct Side {
    from: Point,
    to: Point,
    along: Point,
    length: f64,
    /// From the line to the edge on the left as seen when travelling with y down, half a width away.
    left: Point,
}

/// Builds the two edges of one line after the other.
struct Sides<'a> {
    outline: &'a LineStyle,
    half: f64,
    /// Cosine and sine of the angle between the points of a round join or cap.
    step: Point,
    /// A joint of chords that turns less than this (as a cosine) is mitred without a visible difference.
    smooth_cos: f64,
    left: Vec<Point>,
    right: Vec<Point>,
}

impl<'a> Sides<'a> {
    fn new(outline: &'a LineStyle, half: f64, tolerance: f64) -> Self {
        let ratio = (tolerance / half).clamp(1e-9, 0.5);
        let angle = 4.0 * (ratio * 0.5).sqrt().asin();
        // A mitre of turning angle a stands out by half (1 / cos(a / 2) - 1), about half a^2 / 8.
        let smooth = (8.0 * ratio).sqrt().min(0.5);
        Self {
            outline,
            half,
            step: Point::new(angle.cos(), angle.sin()),
            smooth_cos: smooth.cos(),
            left: Vec::new(),
            right: Vec::new(),
        }
    }

    #[inline]
    fn side(&self, from: Point, to: Point) -> Side {
        let step = to - from;
        let length = step.length();
        let along = step / length;
        Side { from, to, along, length, left: Point::new(along.y, -along.x) * self.half }
    }

    fn stroke(&mut self, line: &Polyline, out: &mut FlatPath) {
        let [first, rest @ ..] = &line.points[..] else { return };
        if rest.is_empty() {
            return self.dot(*first, out);
        }
        self.left.clear();
        self.right.clear();
        let before = out.points.len();
        let mut sides = line.points.windows(2).map(|pair| (pair[0], pair[1]));
        let Some((from, to)) = sides.next() else { return };
        let opening = self.side(from, to);
        let mut last = opening;
        if !line.closed {
            self.left.push(from + opening.left);
            self.right.push(from - opening.left);
        }
        for ((from, to), corner) in sides.zip(line.corners.iter().skip(1)) {
            let next = self.side(from, to);
            let before = self.left.len() + self.right.len();
            self.turn(&last, &next, *corner);
            last = next;
            // A round join of a very wide line has thousands of points.
            let added = self.left.len() + self.right.len() - before;
            if added > 8 && exhausted(added) {
                return;
            }
        }
        if line.closed {
            let corner = |at: Option<&bool>| at.copied().unwrap_or(true);
            let closing = self.side(last.to, *first);
            self.turn(&last, &closing, corner(line.corners.last()));
            self.turn(&closing, &opening, corner(line.corners.first()));
            out.points.extend_from_slice(&self.left);
            out.end_polygon();
            out.points.extend(self.right.iter().rev());
            out.end_polygon();
        } else {
            self.left.push(last.to + last.left);
            self.right.push(last.to - last.left);
            out.points.extend_from_slice(&self.left);
            self.cap(last.to, last.along, last.left, out);
            out.points.extend(self.right.iter().rev());
            self.cap(opening.from, -opening.along, -opening.left, out);
            out.end_polygon();
        }
        let _ = exhausted(out.points.len() - before);
    }

    /// What a line of no length paints.
    fn dot(&self, at: Point, out: &mut FlatPath) {
        let left = Point::new(0.0, -self.half);
        let along = Point::new(1.0, 0.0);
        if self.outline.cap != Cap::Butt {
            out.points.push(at + left);
            self.cap(at, along, left, out);
            out.points.push(at - left);
            self.cap(at, -along, -left, out);
            out.end_polygon();
        }
    }

    /// The points of a cap between `at + left` and `at - left`, both of which are there already or come next.
    fn cap(&self, at: Point, along: Point, left: Point, out: &mut FlatPath) {
        match self.outline.cap {
            Cap::Butt => {}
            Cap::Square => {
                let out_by = along * left.length();
                out.points.extend_from_slice(&[at + left + out_by, at - left + out_by]);
            }
            Cap::Round => {
                let beyond = along * left.length();
                self.fan(at, left, beyond, 1.0, &mut out.points);
                out.points.push(at + beyond);
                self.fan(at, beyond, -left, 1.0, &mut out.points);
            }
        }
    }

    /// Points on the circle strictly between two spokes, at fixed steps from the first; `turn` is +1 clockwise.
    ///
    /// The spokes are at most a quarter turn apart, so that stepping past the last one shows in the cross product.
    #[inline]
    fn fan(&self, centre: Point, from: Point, to: Point, turn: f64, points: &mut Vec<Point>) {
        let step = Point::new(self.step.x, self.step.y * turn);
        // Within next to nothing of the last spoke counts as there.
        let close = 1e-6 * from.length_squared();
        let mut spoke = step.rotate(from);
        while spoke.perp_dot(to) * turn > close {
            points.push(centre + spoke);
            spoke = step.rotate(spoke);
        }
    }

    /// The corner between two sides, on both edges.
    #[inline]
    fn turn(&mut self, a: &Side, b: &Side, corner: bool) {
        let at = b.from;
        let cos = a.along.dot(b.along);
        let sin = a.along.perp_dot(b.along);
        // Turning clockwise, the left edge is the outer one.
        let clockwise = sin >= 0.0;
        let side = if clockwise { 1.0 } else { -1.0 };
        let (from, to) = (a.left * side, b.left * side);
        let (mut outer, mut inner) = (std::mem::take(&mut self.left), std::mem::take(&mut self.right));
        if !clockwise {
            std::mem::swap(&mut outer, &mut inner);
        }

        // Inside, the two edges cross at tan(a / 2) half widths from the vertex.
        let reach = self.half * sin.abs();
        let room = (1.0 + cos) * 0.5 * a.length.min(b.length);
        if reach <= room && cos > -0.999 {
            inner.push(at - (from + to) / (1.0 + cos));
        } else {
            inner.extend_from_slice(&[at - from, at, at - to]);
        }

        let join = if corner { self.outline.join } else { Join::Round };
        let mitre = |outer: &mut Vec<Point>| outer.push(at + (from + to) / (1.0 + cos));
        if !corner && cos >= self.smooth_cos || corner && cos >= 1.0 - 1e-12 {
            mitre(&mut outer);
        } else {
            match join {
                // The mitre's length over the width is 1 / cos(a / 2), and cos(a / 2)^2 is (1 + cos a) / 2.
                Join::Mitre
                    if 2.0 <= self.outline.mitre_limit.powi(2) * (1.0 + cos) && cos > -1.0 + 1e-12 =>
                {
                    mitre(&mut outer);
                }
                Join::Round => {
                    outer.push(at + from);
                    if cos < 0.0 {
                        // In two parts, so that none is more than a quarter turn.
                        let middle = (a.along - b.along).normalize_or(a.along) * from.length();
                        self.fan(at, from, middle, side, &mut outer);
                        outer.push(at + middle);
                        self.fan(at, middle, to, side, &mut outer);
                    } else {
                        self.fan(at, from, to, side, &mut outer);
                    }
                    outer.push(at + to);
                }
                Join::Mitre | Join::Bevel => outer.extend_from_slice(&[at + from, at + to]),
            }
        }

        if !clockwise {
            std::mem::swap(&mut outer, &mut inner);
        }
        (self.left, self.right) = (outer, inner);
    }
}
