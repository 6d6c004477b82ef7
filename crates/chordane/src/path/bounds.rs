//! Bounds: the smallest upright rectangle round the points, or round the curve itself.

use super::{Contour, Path, Segment};
use crate::number::Cell;

impl Segment {
    /// The tight bounds of the segment.
    ///
    /// They contain every point that [`Segment::at`] gives, to the rounding of its last digit, and touch the
    /// curve on each side.
    #[must_use]
    pub fn bounds(&self) -> Cell {
        let mut bounds = Cell { min: self.from(), max: self.from() };
        bounds.reach(self.to());
        for share in self.turns().into_iter().flatten().flatten() {
            bounds.reach(self.at(share));
        }
        bounds
    }

    /// The parameters, between 0 and 1, at which the segment turns round along x, and along y.
    pub(crate) fn turns(&self) -> [[Option<f64>; 2]; 2] {
        let turns = match *self {
            Self::Line { .. } => [[None; 2]; 2],
            Self::Quad { from, control, to } => {
                let turn = (from - control) / (from - control * 2.0 + to);
                [[Some(turn.x), None], [Some(turn.y), None]]
            }
            Self::Cubic { from, control1, control2, to } => {
                let a = to - from + (control1 - control2) * 3.0;
                let b = (from - control1 * 2.0 + control2) * 2.0;
                let c = control1 - from;
                [quadratic_roots(a.x, b.x, c.x), quadratic_roots(a.y, b.y, c.y)]
            }
            Self::Arc(arc) => match arc.centred() {
                Some(whole) => whole.extreme_angles().map(|angle| {
                    [angle, angle + crate::number::deg(180.0)].map(|angle| whole.share_of(angle))
                }),
                None => [[None; 2]; 2],
            },
        };
        turns.map(|axis| axis.map(|share| share.filter(|t| *t > 0.0 && *t < 1.0)))
    }
}

/// The real roots of `a t^2 + b t + c`, computed without cancellation.
pub(crate) fn quadratic_roots(a: f64, b: f64, c: f64) -> [Option<f64>; 2] {
    let discriminant = b * b - 4.0 * a * c;
    if discriminant < 0.0 {
        return [None, None];
    }
    let q = -0.5 * (b + discriminant.sqrt().copysign(b));
    [Some(q / a).filter(|t| t.is_finite()), Some(c / q).filter(|t| t.is_finite())]
}

impl Contour {
    /// The tight bounds of the contour's line.
    #[must_use]
    pub fn bounds(&self) -> Cell {
        let mut bounds = Cell { min: self.start(), max: self.start() };
        for segment in self.segments() {
            match segment {
                Segment::Line { to, .. } => bounds.reach(to),
                _ => bounds = bounds.union(segment.bounds()),
            }
        }
        bounds
    }

    /// Cell of all the points that are stored, control points included: quick, and never smaller than the
    /// tight bounds. Arcs, which have no control points, count by their tight bounds.
    #[must_use]
    pub fn control_bounds(&self) -> Cell {
        let mut bounds = Cell { min: self.start(), max: self.start() };
        for segment in self.segments() {
            match segment {
                Segment::Line { to, .. } => bounds.reach(to),
                Segment::Quad { control, to, .. } => {
                    bounds.reach(control);
                    bounds.reach(to);
                }
                Segment::Cubic { control1, control2, to, .. } => {
                    bounds.reach(control1);
                    bounds.reach(control2);
                    bounds.reach(to);
                }
                Segment::Arc(_) => bounds = bounds.union(segment.bounds()),
            }
        }
        bounds
    }
}

impl Path {
    /// The tight bounds of the path's line, without any stroke's width; `None` for an empty path.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let bounds = circle(pt(10.0, 20.0), 5.0).bounds().unwrap();
    /// assert_eq!(bounds.min, pt(5.0, 15.0));
    /// assert_eq!(bounds.max, pt(15.0, 25.0));
    /// ```
    ///
    /// Of a path that carries a fault it answers for what is left.
    #[must_use]
    pub fn bounds(&self) -> Option<Cell> {
        self.contours().iter().map(Contour::bounds).reduce(Cell::union)
    }

    /// Cell of all stored points; see [`Contour::control_bounds`].
    #[must_use]
    pub fn control_bounds(&self) -> Option<Cell> {
        self.contours().iter().map(Contour::control_bounds).reduce(Cell::union)
    }
}
