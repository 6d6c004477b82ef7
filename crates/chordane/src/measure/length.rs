//! Lengths, to a stated accuracy.
//!
//! A curve's length is the integral of its speed, which has no closed form for cubics and ellipses; the places in the
//! complex plane at which the speed is zero have one.

use std::f64::consts::{FRAC_PI_2, PI};
use std::sync::LazyLock;

use super::quadrature::{Demand, Ratio, Zero, cut_integral, integral_of_ratios};
use crate::ground::{Fault, exhausted, limited};
use crate::number::Point;
use crate::path::{Affine, Arc, Contour, Path, Segment};

/// The relative accuracy of [`Path::length`].
const ACCURACY: f64 = 1e-9;

static DEMAND: LazyLock<Demand> = LazyLock::new(|| Demand::of(ACCURACY));

/// The integral of the speed `|a t^2 + b t + c|`.
#[inline]
fn curve_length([a, b, c]: [Point; 3], stretch: (f64, f64), demand: &Demand) -> f64 {
    let under = b.rotate(b) - a.rotate(c) * 4.0;
    let square = (under.length() + under.x.abs()) * 0.5;
    let large = square.sqrt();
    // The root of `under` as a complex number times its larger part, on the side of b, so that the sum does not cancel.
    let half = under.y * 0.5;
    let root = if under.x >= 0.0 { Point::new(square, half) } else { Point::new(half, square) };
    let sum = b * large + if root.dot(b) < 0.0 { -root } else { root };
    let twice = -2.0 * large;
    let ratios = [Ratio { over: sum, under: a * twice }, Ratio { over: c * twice, under: sum }];
    integral_of_ratios(
        &|t| ((a * t + b) * t + c).length(),
        ratios,
        || zeros_of_velocity(a, b, c),
        stretch,
        demand,
    )
}

/// The zeros of `|a t^2 + b t + c|` for vectors taken as complex numbers.
#[cold]
fn zeros_of_velocity(a: Point, b: Point, c: Point) -> [Zero; 2] {
    let under = b.rotate(b) - a.rotate(c) * 4.0;
    let length = under.length();
    // The complex root, on the side of b, so that the sum does not cancel.
    let long = ((length + under.x.abs()) * 0.5).sqrt();
    let short = if long > 0.0 { under.y * 0.5 / long } else { 0.0 };
    let root = if under.x >= 0.0 { Point::new(long, short) } else { Point::new(short, long) };
    let root = if root.dot(b) < 0.0 { -root } else { root };
    let q = (b + root) * -0.5;
    [Ratio { over: q, under: a }, Ratio { over: c, under: q }].map(Ratio::place)
}

/// Derivatives larger than this are rescaled first, because their squares would overflow.
const RESCALE_LIMIT: f64 = 1e150;

/// What has left the numbers is far too.
fn is_far(steps: Point) -> bool {
    let size = steps.x + steps.y;
    size > RESCALE_LIMIT || size.is_nan()
}

impl Segment {
    /// The length between two parameters, to a relative accuracy.
    pub(crate) fn length_between(&self, from: f64, to: f64, accuracy: f64) -> f64 {
        self.length_by(from, to, &Demand::of(accuracy))
    }

    #[inline]
    fn length_by(&self, from: f64, to: f64, demand: &Demand) -> f64 {
        match *self {
            Self::Line { from: a, to: b } => a.distance(b) * (to - from),
            Self::Quad { from: a, control, to: b } => {
                let (bend, pace) = ((a - control * 2.0 + b) * 2.0, (control - a) * 2.0);
                if is_far(bend.abs() + pace.abs()) {
                    return self.far_length((from, to), demand);
                }
                let zeros = zeros_of_velocity(Point::ZERO, bend, pace);
                cut_integral(&|t| (bend * t + pace).length(), &zeros, (from, to), demand)
            }
            Self::Cubic { from: p, control1, control2, to: q } => {
                let a = (q - p + (control1 - control2) * 3.0) * 3.0;
                let b = (p - control1 * 2.0 + control2) * 6.0;
                let c = (control1 - p) * 3.0;
                if is_far(a.abs() + b.abs() + c.abs()) {
                    return self.far_length((from, to), demand);
                }
                curve_length([a, b, c], (from, to), demand)
            }
            Self::Arc(arc) => match arc.centred() {
                Some(whole) => arc_length(&whole, from, to, demand),
                None => arc.from.distance(arc.to) * (to - from),
            },
        }
    }

    /// The length of a curve whose squares would leave the numbers: of the same made smaller by a power of two.
    #[cold]
    fn far_length(&self, (from, to): (f64, f64), demand: &Demand) -> f64 {
        let smaller = 2.0_f64.powi(-600);
        let near = self.transformed(&Affine::from_scale(Point::splat(smaller)));
        near.length_by(from, to, demand) / smaller
    }

    /// The length of the segment, to 1e-9 of itself.
    #[must_use]
    pub fn length(&self) -> f64 {
        self.length_by(0.0, 1.0, &DEMAND)
    }
}

/// The length of a part of an ellipse. The speed at an angle is zero at whole (or odd) quarter turns, as far off the
/// real line as the ellipse is round.
fn arc_length(arc: &Arc, from: f64, to: f64, demand: &Demand) -> f64 {
    let (rx, ry) = (arc.radii.x, arc.radii.y);
    if rx == ry {
        return rx * arc.sweep.radians().abs() * (to - from);
    }
    let angle = |share: f64| (arc.start + arc.sweep * share).radians();
    let (low, high) = (angle(from).min(angle(to)), angle(from).max(angle(to)));
    let flat = (rx.min(ry) / rx.max(ry)).atanh();
    let shift = if rx > ry { 0.0 } else { FRAC_PI_2 };
    let speed = |t: f64| (rx * t.sin()).hypot(ry * t.cos());
    // Quarter by quarter, so that only the zeros at its two sides matter.
    let mut sum = 0.0;
    let mut begin = low;
    while begin < high {
        let quarter = (begin / FRAC_PI_2 + 1e-9).floor();
        let end = high.min((quarter + 1.0) * FRAC_PI_2);
        let nearest = ((begin - shift) / PI).floor() * PI + shift;
        let zeros = [0.0, 1.0, 2.0].map(|k| Zero { x: nearest + k * PI, y: flat });
        sum += cut_integral(&speed, &zeros, (begin, end), demand);
        if end <= begin {
            break;
        }
        begin = end;
    }
    sum
}

impl Contour {
    /// The length that a pen would draw, the closing side of a closed contour included, to 1e-9 of itself.
    #[must_use]
    pub fn length(&self) -> f64 {
        self.segments().map(|segment| segment.length()).sum()
    }
}

impl Path {
    /// The length that a pen would draw, closing sides of closed contours included, to 1e-9 of itself.
    ///
    /// # Errors
    ///
    /// The path's first fault.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let hoop = circle((0.0, 0.0), 10.0);
    /// assert!((hoop.length()? - 20.0 * std::f64::consts::PI).abs() < 1e-9);
    /// # Ok::<(), Fault>(())
    /// ```
    pub fn length(&self) -> Result<f64, Fault> {
        self.length_within(ACCURACY)
    }

    /// As [`Path::length`], to another relative accuracy, from 1e-13 to 0.1. Cost: linear, and growing with the
    /// number of digits.
    ///
    /// # Errors
    ///
    /// The path's first fault.
    pub fn length_within(&self, accuracy: f64) -> Result<f64, Fault> {
        self.sound()?;
        let accuracy = if accuracy.is_nan() { ACCURACY } else { accuracy.clamp(1e-13, 0.1) };
        let demand = Demand::of(accuracy);
        let lengths = self.segments().map(|segment| segment.length_by(0.0, 1.0, &demand));
        limited("length", || lengths.take_while(|_| !exhausted(20)).sum())
    }
}
