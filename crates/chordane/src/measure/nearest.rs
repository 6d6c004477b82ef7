//! The place on a path that is nearest to a spot.
//!
//! Where the line from the spot meets a curve squarely, the distance is least, most or level: those places are the
//! roots of a polynomial, all of which are found. The least of them and of the two ends is the nearest place.

use super::survey::{Station, Survey};
use super::tree::distance_to;
use crate::ground::Fault;
use crate::number::{IntoPoint, Point, roots};
use crate::path::{Arc, Path, Segment};

/// Whether the line from the spot meets a segment squarely, as a polynomial in Bernstein form: position less spot,
/// times velocity.
fn quad_squarely([p, q, r]: [Point; 3]) -> [f64; 4] {
    let (d, e) = ((q - p) * 2.0, (r - q) * 2.0);
    [p.dot(d), (2.0 * q.dot(d) + p.dot(e)) / 3.0, (r.dot(d) + 2.0 * q.dot(e)) / 3.0, r.dot(e)]
}

fn cubic_squarely([p, q, r, s]: [Point; 4]) -> [f64; 6] {
    let (d, e, f) = ((q - p) * 3.0, (r - q) * 3.0, (s - r) * 3.0);
    [
        p.dot(d),
        (3.0 * q.dot(d) + 2.0 * p.dot(e)) / 5.0,
        (3.0 * r.dot(d) + 6.0 * q.dot(e) + p.dot(f)) / 10.0,
        (s.dot(d) + 6.0 * r.dot(e) + 3.0 * q.dot(f)) / 10.0,
        (2.0 * s.dot(e) + 3.0 * r.dot(f)) / 5.0,
        s.dot(f),
    ]
}

/// The same for the piece of an ellipse between two angles, at most a quarter turn: with `u` the tangent of half the
/// angle from the piece's middle, everything is a polynomial over (1 + u^2)^2.
fn arc_squarely(arc: &Arc, spot: Point, middle: f64, reach: f64) -> [f64; 5] {
    let arm = arc.untilted(spot - arc.centre);
    let (sin, cos) = middle.sin_cos();
    let (a, b) = (arc.radii.x, arc.radii.y);
    let k = b * b - a * a;
    // At the angle middle + v: k sin cos + a x sin - b y cos, with the sine and cosine of v split off.
    let (twice_sin, twice_cos) = (2.0 * sin * cos, cos * cos - sin * sin);
    // Half of k sin(2 middle + 2 v) + the two single terms, as coefficients of
    // 1, cos v, sin v and cos 2v, sin 2v.
    let of_cos = a * arm.x * sin - b * arm.y * cos;
    let of_sin = a * arm.x * cos + b * arm.y * sin;
    let of_cos2 = 0.5 * k * twice_sin;
    let of_sin2 = 0.5 * k * twice_cos;
    // cos v = (1 - u^2) / (1 + u^2), sin v = 2 u / (1 + u^2); times (1 + u^2)^2, lowest power first.
    let powers = [
        of_cos + of_cos2,
        2.0 * of_sin + 4.0 * of_sin2,
        -6.0 * of_cos2,
        2.0 * of_sin - 4.0 * of_sin2,
        of_cos2 - of_cos,
    ];
    // Over u = reach (2 t - 1).
    let mut moved = [0.0; 5];
    for (i, power) in powers.into_iter().enumerate() {
        // (2 t - 1)^i, expanded.
        let mut binomial = 1.0;
        for (j, slot) in moved.iter_mut().enumerate().take(i + 1) {
            let sign = if (i - j) % 2 == 0 { 1.0 } else { -1.0 };
            *slot += power * reach.powi(i as i32) * binomial * 2.0_f64.powi(j as i32) * sign;
            binomial *= (i - j) as f64 / (j + 1) as f64;
        }
    }
    bernstein(moved)
}

/// From powers, lowest first, to Bernstein coefficients of degree 4.
fn bernstein(powers: [f64; 5]) -> [f64; 5] {
    const CHOOSE: [[f64; 5]; 5] = [
        [1.0, 0.0, 0.0, 0.0, 0.0],
        [1.0, 1.0, 0.0, 0.0, 0.0],
        [1.0, 2.0, 1.0, 0.0, 0.0],
        [1.0, 3.0, 3.0, 1.0, 0.0],
        [1.0, 4.0, 6.0, 4.0, 1.0],
    ];
    CHOOSE.map(|row| row.iter().zip(&CHOOSE[4]).zip(powers).map(|((a, b), power)| a / b * power).sum())
}

impl Segment {
    /// The parameter from 0 to 1 of the place nearest to a spot; of several that are equally near, the first.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let side = Segment::Line { from: pt(0.0, 0.0), to: pt(10.0, 0.0) };
    /// assert_eq!(side.nearest((4.0, 3.0)), 0.4);
    /// ```
    #[must_use]
    pub fn nearest(&self, spot: impl IntoPoint) -> f64 {
        let spot = spot.into_point();
        let mut best = (0.0, self.from().distance_squared(spot));
        let mut look = |t: f64| {
            let distance = self.at(t).distance_squared(spot);
            if distance < best.1 {
                best = (t, distance);
            }
        };
        match *self {
            Self::Line { from, to } => {
                let (step, arm) = (to - from, spot - from);
                look((arm.dot(step) / step.length_squared()).clamp(0.0, 1.0));
            }
            Self::Quad { from, control, to } => {
                roots(quad_squarely([from, control, to].map(|p| p - spot)), &mut look);
            }
            Self::Cubic { from, control1, control2, to } => {
                roots(cubic_squarely([from, control1, control2, to].map(|p| p - spot)), &mut look);
            }
            Self::Arc(arc) => match arc.centred() {
                None => return Self::Line { from: arc.from, to: arc.to }.nearest(spot),
                Some(whole) => {
                    // A quarter turn may come out a last digit too long.
                    let pieces = (whole.sweep.degrees().abs() / 90.0 - 1e-9).ceil().max(1.0);
                    let step = whole.sweep.radians() / pieces;
                    let reach = (0.25 * step).tan();
                    for i in 0..pieces as usize {
                        // Rounding can leave a root at the joint of two pieces to neither.
                        look(i as f64 / pieces);
                        let middle = whole.start.radians() + step * (i as f64 + 0.5);
                        roots(arc_squarely(&whole, spot, middle, reach), |t| {
                            let v = 2.0 * (reach * (2.0 * t - 1.0)).atan() / step;
                            look(((i as f64 + 0.5 + v) / pieces).clamp(0.0, 1.0));
                        });
                    }
                }
            },
        }
        look(1.0);
        best.0
    }

    /// The distance from a spot to the nearest place of the segment.
    #[must_use]
    pub fn distance(&self, spot: impl IntoPoint) -> f64 {
        let spot = spot.into_point();
        self.at(self.nearest(spot)).distance(spot)
    }
}

impl Path {
    /// The distance from a spot to the nearest place of the path's line, closing sides included; infinite for a path
    /// without a segment. Cost: linear; for many spots, use [`Survey::nearest`].
    ///
    /// # Errors
    ///
    /// The path's first fault.
    pub fn distance(&self, spot: impl IntoPoint) -> Result<f64, Fault> {
        self.sound()?;
        let spot = spot.into_point();
        let mut least = f64::INFINITY;
        for segment in self.segments() {
            if distance_to(&segment.bounds(), spot) <= least {
                least = least.min(segment.distance(spot));
            }
        }
        Ok(least)
    }

    /// Whether a round pen of a width that draws the path touches a spot: it is no farther than half the width from
    /// the line, whatever the fill. Cost: linear.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let hoop = circle((0.0, 0.0), 50.0);
    /// assert!(hoop.on_stroke((51.0, 0.0), 4.0)? && !hoop.on_stroke((0.0, 0.0), 4.0)?);
    /// # Ok::<(), Fault>(())
    /// ```
    ///
    /// # Errors
    ///
    /// The path's first fault.
    pub fn on_stroke(&self, spot: impl IntoPoint, width: f64) -> Result<bool, Fault> {
        Ok(self.distance(spot)? <= width * 0.5)
    }
}

impl Survey {
    /// The station nearest to a spot; of several that are equally near, the one on the first segment. `None` on a
    /// path without a segment, and for a spot that is not finite. [`Survey::station`] at its distance gives the
    /// same point. At the start of a later contour, the distance is therefore the next larger number: the distance itself belongs to the end
    /// of the contour before.
    ///
    /// The first call sorts the segments by place; from then on each takes logarithmic time in practice.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let sail = rectangle((0.0, 0.0), 30.0, 20.0).survey()?;
    /// let station = sail.nearest((35.0, 5.0)).unwrap();
    /// assert_eq!((station.point(), station.distance()), (pt(30.0, 5.0), 35.0));
    /// # Ok::<(), Fault>(())
    /// ```
    #[must_use]
    pub fn nearest(&self, spot: impl IntoPoint) -> Option<Station<'_>> {
        let spot = spot.into_point();
        if !spot.is_finite() {
            return None;
        }
        let (segment, _) =
            self.index().nearest(spot, |i| self.segment(i).map_or(f64::INFINITY, |s| s.distance(spot)))?;
        self.station_at(segment, self.segment(segment)?.nearest(spot))
    }
}
