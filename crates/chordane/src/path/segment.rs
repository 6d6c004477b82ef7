//! The four kinds of segment and what can be asked of one alone.
//!
//! A segment runs over a parameter from 0 to 1. The parameter is not a share of the length, except on a line
//! and on a circular arc.

use super::{Affine, ArcSegment};
use crate::number::Point;

/// One piece of a contour, from one vertex to the next.
///
/// ```
/// use chordane::prelude::*;
/// let side = Segment::Line { from: pt(0.0, 0.0), to: pt(30.0, 40.0) };
/// assert_eq!((side.at(0.5), side.velocity(0.5)), (pt(15.0, 20.0), pt(30.0, 40.0)));
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Segment {
    /// A straight side.
    Line {
        /// Where it begins.
        from: Point,
        /// Where it ends.
        to: Point,
    },
    /// A quadratic curve with one control point.
    Quad {
        /// Where it begins.
        from: Point,
        /// The control point, which the curve is drawn toward.
        control: Point,
        /// Where it ends.
        to: Point,
    },
    /// A cubic curve with two control points.
    Cubic {
        /// Where it begins.
        from: Point,
        /// The control point that it leaves toward.
        control1: Point,
        /// The control point that it arrives from.
        control2: Point,
        /// Where it ends.
        to: Point,
    },
    /// A piece of an ellipse.
    Arc(ArcSegment),
}

impl Segment {
    /// Where the segment begins.
    #[must_use]
    pub fn from(&self) -> Point {
        match *self {
            Self::Line { from, .. } | Self::Quad { from, .. } | Self::Cubic { from, .. } => from,
            Self::Arc(arc) => arc.from,
        }
    }

    /// Where the segment ends.
    #[must_use]
    pub fn to(&self) -> Point {
        match *self {
            Self::Line { to, .. } | Self::Quad { to, .. } | Self::Cubic { to, .. } => to,
            Self::Arc(arc) => arc.to,
        }
    }

    /// The point at a parameter from 0 to 1; the ends are exact.
    #[must_use]
    pub fn at(&self, t: f64) -> Point {
        if t == 0.0 {
            return self.from();
        }
        if t == 1.0 {
            return self.to();
        }
        match *self {
            Self::Line { from, to } => from.lerp(to, t),
            Self::Quad { from, control, to } => from.lerp(control, t).lerp(control.lerp(to, t), t),
            Self::Cubic { from, control1, control2, to } => {
                let middle = control1.lerp(control2, t);
                let left = from.lerp(control1, t).lerp(middle, t);
                left.lerp(middle.lerp(control2.lerp(to, t), t), t)
            }
            Self::Arc(arc) => match arc.centred() {
                Some(whole) => whole.at(t),
                None => arc.from.lerp(arc.to, t),
            },
        }
    }

    /// The change of the point for a change of the parameter; it points along the direction of travel.
    ///
    /// Zero where a control point lies on its end, and everywhere on a segment of no size.
    #[must_use]
    pub fn velocity(&self, t: f64) -> Point {
        match *self {
            Self::Line { from, to } => to - from,
            Self::Quad { from, control, to } => ((control - from) * (1.0 - t) + (to - control) * t) * 2.0,
            Self::Cubic { from, control1, control2, to } => {
                let u = 1.0 - t;
                ((control1 - from) * (u * u)
                    + (control2 - control1) * (2.0 * u * t)
                    + (to - control2) * (t * t))
                    * 3.0
            }
            Self::Arc(arc) => match arc.centred() {
                Some(whole) => whole.velocity(t),
                None => arc.to - arc.from,
            },
        }
    }

    /// The change of the velocity for a change of the parameter; zero on a straight side.
    #[must_use]
    pub fn acceleration(&self, t: f64) -> Point {
        match *self {
            Self::Line { .. } => Point::ZERO,
            Self::Quad { from, control, to } => (from - control * 2.0 + to) * 2.0,
            Self::Cubic { from, control1, control2, to } => {
                ((from - control1 * 2.0 + control2) * (1.0 - t) + (control1 - control2 * 2.0 + to) * t) * 6.0
            }
            Self::Arc(arc) => arc.centred().map_or(Point::ZERO, |whole| {
                // The second derivative of an ellipse points back at its centre.
                (whole.centre - whole.at(t)) * whole.sweep.radians().powi(2)
            }),
        }
    }

    /// The direction in which the segment leaves its first point: a step of unknown length, zero only when the
    /// whole segment is one point.
    #[must_use]
    pub fn leaving(&self) -> Point {
        match *self {
            Self::Line { from, to } => to - from,
            Self::Quad { from, control, to } => first_step(from, &[control, to]),
            Self::Cubic { from, control1, control2, to } => first_step(from, &[control1, control2, to]),
            Self::Arc(_) => self.velocity(0.0),
        }
    }

    /// The direction in which the segment arrives at its last point; as [`Segment::leaving`].
    #[must_use]
    pub fn arriving(&self) -> Point {
        match self {
            Self::Arc(_) => self.velocity(1.0),
            _ => -self.reversed().leaving(),
        }
    }

    /// The same segment travelled the other way. Twice is the identity, to the last bit.
    #[must_use]
    pub fn reversed(&self) -> Self {
        match *self {
            Self::Line { from, to } => Self::Line { from: to, to: from },
            Self::Quad { from, control, to } => Self::Quad { from: to, control, to: from },
            Self::Cubic { from, control1, control2, to } => {
                Self::Cubic { from: to, control1: control2, control2: control1, to: from }
            }
            Self::Arc(arc) => Self::Arc(arc.reversed()),
        }
    }

    /// The two parts before and after a parameter from 0 to 1, each of the same kind as the whole.
    ///
    /// They meet exactly. The parts of an arc have the radii and tilt of the whole.
    #[must_use]
    pub fn split(&self, t: f64) -> (Self, Self) {
        let joint = self.at(t);
        // Keeps a control point that coincides with an end exactly there: a handle one rounding error long has a random direction.
        let between = |a: Point, b: Point| if a == b { a } else { a.lerp(b, t) };
        match *self {
            Self::Line { from, to } => (Self::Line { from, to: joint }, Self::Line { from: joint, to }),
            Self::Quad { from, control, to } => (
                Self::Quad { from, control: between(from, control), to: joint },
                Self::Quad { from: joint, control: between(control, to), to },
            ),
            Self::Cubic { from, control1, control2, to } => {
                let (a, b, c) = (between(from, control1), between(control1, control2), between(control2, to));
                (
                    Self::Cubic { from, control1: a, control2: between(a, b), to: joint },
                    Self::Cubic { from: joint, control1: between(b, c), control2: c, to },
                )
            }
            Self::Arc(arc) => {
                let (left, right) = arc.split_at(t, joint);
                (Self::Arc(left), Self::Arc(right))
            }
        }
    }

    /// The same segment with its ends moved slightly. A control point that coincides with an end moves with it; otherwise its handle would
    /// have a random direction.
    pub(crate) fn with_ends(&self, start: Point, end: Point) -> Self {
        let moved = |control: Point| match control {
            _ if control == self.from() => start,
            _ if control == self.to() => end,
            _ => control,
        };
        match *self {
            Self::Line { .. } => Self::Line { from: start, to: end },
            Self::Quad { control, .. } => Self::Quad { from: start, control: moved(control), to: end },
            Self::Cubic { control1, control2, .. } => {
                Self::Cubic { from: start, control1: moved(control1), control2: moved(control2), to: end }
            }
            Self::Arc(arc) => Self::Arc(ArcSegment { from: start, to: end, ..arc }),
        }
    }

    /// The part between two parameters, the first one smaller.
    pub(crate) fn stretch(&self, from: f64, to: f64) -> Self {
        let front = if to < 1.0 { self.split(to).0 } else { *self };
        if from > 0.0 && to > 0.0 { front.split((from / to).min(1.0)).1 } else { front }
    }

    /// The control points of a segment seen as a cubic: a straight side's lie a third in, an arc's on its tangents.
    pub(crate) fn handles(&self) -> (Point, Point) {
        let (from, to) = (self.from(), self.to());
        match *self {
            Segment::Line { .. } => (from.lerp(to, 1.0 / 3.0), to.lerp(from, 1.0 / 3.0)),
            Segment::Quad { control, .. } => (from.lerp(control, 2.0 / 3.0), to.lerp(control, 2.0 / 3.0)),
            Segment::Cubic { control1, control2, .. } => (control1, control2),
            Segment::Arc(arc) => {
                // The usual cubic for an arc: handles of 4/3 tan(sweep / 4).
                let sweep = arc.centred().map_or(1.0, |whole| whole.sweep.radians().abs());
                let arm = 4.0 / 3.0 * (0.25 * sweep).tan() / sweep;
                (from + self.velocity(0.0) * arm, to - self.velocity(1.0) * arm)
            }
        }
    }

    /// In how many parts a segment is near to a cubic: an arc over an eighth of a turn.
    pub(crate) fn eighths(&self) -> usize {
        let Segment::Arc(arc) = self else { return 1 };
        let sweep = arc.centred().map_or(0.0, |whole| whole.sweep.degrees().abs());
        (sweep / 45.0 - 1e-9).ceil().max(1.0) as usize
    }

    /// The segment under an affine transform. An arc stays an arc, also under a transform that squashes it; under
    /// one that flattens the plane to a line it becomes a curve on that line.
    #[must_use]
    pub fn transformed(&self, by: &Affine) -> Self {
        let map = |p| by.transform_point2(p);
        match *self {
            Self::Line { from, to } => Self::Line { from: map(from), to: map(to) },
            Self::Quad { from, control, to } => {
                Self::Quad { from: map(from), control: map(control), to: map(to) }
            }
            Self::Cubic { from, control1, control2, to } => {
                Self::Cubic { from: map(from), control1: map(control1), control2: map(control2), to: map(to) }
            }
            Self::Arc(arc) => Self::Arc(arc.transformed(by)),
        }
    }
}

/// The step to the first of the points that is somewhere else.
fn first_step(from: Point, others: &[Point]) -> Point {
    others.iter().map(|p| *p - from).find(|step| *step != Point::ZERO).unwrap_or(Point::ZERO)
}
