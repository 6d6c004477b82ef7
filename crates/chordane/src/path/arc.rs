//! Elliptical arcs in their two forms: by centre ([`Arc`]) and by ends ([`ArcSegment`]).
//!
//! A contour stores arcs by their ends, because that is what joins exactly with its neighbours and what path
//! data says; the form by centre is computed when it is needed. The conversions follow the notes on elliptical
//! arcs of the SVG 2 recommendation, appendix B.2.

use super::Affine;
use crate::number::{Angle, Point, deg, rad};

/// A piece of an ellipse, given by its centre.
///
/// `start` and `sweep` are angles before squashing: the ellipse is a circle of radius 1 that is scaled by the
/// radii, then turned by `tilt`. A positive sweep runs clockwise as seen on a sheet with y down.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::path::Arc;
/// let quarter = Arc { centre: pt(0.0, 0.0), radii: pt(40.0, 40.0), tilt: deg(0.0), start: deg(0.0), sweep: deg(90.0) };
/// assert_eq!((quarter.at(0.0), quarter.at(1.0)), (pt(40.0, 0.0), pt(0.0, 40.0)));
/// assert_eq!(quarter.pie().area()?, 400.0 * std::f64::consts::PI);
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Arc {
    /// The middle of the whole ellipse.
    pub centre: Point,
    /// The two radii, along the tilted x and y axes.
    pub radii: Point,
    /// The direction of the first radius.
    pub tilt: Angle,
    /// Where the arc begins, before squashing.
    pub start: Angle,
    /// How far it goes, before squashing; at most a full turn either way.
    pub sweep: Angle,
}

/// A piece of an ellipse, given by its two ends, as path data has it.
///
/// ```
/// use chordane::prelude::*;
/// let quarter = arc((0.0, 0.0), 40.0, deg(0.0), deg(90.0));
/// let Some(Segment::Arc(segment)) = quarter.segments().next() else { panic!("an arc") };
/// assert_eq!((segment.from, segment.to, segment.clockwise), (pt(40.0, 0.0), pt(0.0, 40.0), true));
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct ArcSegment {
    /// Where it begins.
    pub from: Point,
    /// The two radii. Their signs do not matter; a zero makes a straight line; radii too small to reach are
    /// scaled up evenly until they do.
    pub radii: Point,
    /// The direction of the first radius.
    pub tilt: Angle,
    /// `true` if the arc spans more than 180 degrees (SVG's large-arc flag).
    pub large: bool,
    /// Whether it runs clockwise as seen on a sheet with y down.
    pub clockwise: bool,
    /// Where it ends.
    pub to: Point,
}

/// Up to this sweep an arc is stored as one segment.
///
/// Near a half turn the two ends do not say well where the centre is (half the digits are lost at 180 degrees
/// exactly), and at a full turn not at all. Up to 175 degrees fewer than two digits are lost.
pub(crate) const MAX_SEGMENT_SWEEP_DEGREES: f64 = 175.0;

impl Arc {
    /// The point at a share of the sweep, from 0 to 1.
    #[must_use]
    pub fn at(&self, t: f64) -> Point {
        self.point(self.start + self.sweep * t)
    }

    /// The point of the whole ellipse at an angle before squashing.
    #[must_use]
    pub fn point(&self, angle: Angle) -> Point {
        let (sin, cos) = angle.sin_cos();
        self.centre + self.turned(self.radii * Point::new(cos, sin))
    }

    /// The change of the point for a change of the share of the sweep.
    #[must_use]
    pub fn velocity(&self, t: f64) -> Point {
        let (sin, cos) = (self.start + self.sweep * t).sin_cos();
        self.turned(self.radii * Point::new(-sin, cos)) * self.sweep.radians()
    }

    /// A step along the ellipse's own axes, as a step on the sheet.
    pub(crate) fn turned(&self, step: Point) -> Point {
        let (sin, cos) = self.tilt.sin_cos();
        Point::new(cos * step.x - sin * step.y, sin * step.x + cos * step.y)
    }

    /// A step on the sheet, along the ellipse's own axes: the inverse of [`Arc::turned`].
    pub(crate) fn untilted(&self, step: Point) -> Point {
        let (sin, cos) = self.tilt.sin_cos();
        Point::new(cos * step.x + sin * step.y, cos * step.y - sin * step.x)
    }

    /// The arc as segments that end exactly at `to` (and begin at `from`), calling `push` for each.
    ///
    /// One up to 175 degrees, else even pieces of at most a quarter turn.
    pub(crate) fn pieces(&self, from: Point, to: Point, mut push: impl FnMut(ArcSegment)) {
        let size = self.sweep.degrees().abs();
        let count = if size <= MAX_SEGMENT_SWEEP_DEGREES { 1 } else { (size / 90.0).ceil() as usize };
        let mut begin = from;
        for i in 1..=count {
            let end = if i == count { to } else { self.at(i as f64 / count as f64) };
            push(ArcSegment {
                from: begin,
                radii: self.radii,
                tilt: self.tilt,
                large: false,
                clockwise: self.sweep.degrees() > 0.0,
                to: end,
            });
            begin = end;
        }
    }

    /// The angles before squashing at which the ellipse is farthest along x and along y.
    pub(crate) fn extreme_angles(&self) -> [Angle; 2] {
        let (sin, cos) = self.tilt.sin_cos();
        let x = rad((-sin * self.radii.y).atan2(cos * self.radii.x));
        let y = rad((cos * self.radii.y).atan2(sin * self.radii.x));
        [x, y]
    }

    /// The share of the sweep at which the arc passes an angle, where it does.
    pub(crate) fn share_of(&self, angle: Angle) -> Option<f64> {
        let ahead = if self.sweep.degrees() >= 0.0 { angle - self.start } else { self.start - angle };
        let share = ahead.wrapped().degrees() / self.sweep.degrees().abs();
        (share <= 1.0).then_some(share)
    }
}

/// The ratio of chord to diameter below which an arc counts as its chord. The height of such an arc is less than a quarter of this
/// ratio times the chord, which is as much as its points move when its angles are rounded.
const FLAT: f64 = 1e-8;

impl ArcSegment {
    /// The same arc by its centre; `None` where it is a straight line (a radius of zero, ends that coincide, or radii so large that
    /// the arc cannot be told from its chord).
    ///
    /// Its radii are those that are drawn: positive, and scaled up where the given ones do not reach.
    #[must_use]
    pub fn centred(&self) -> Option<Arc> {
        let mut radii = self.radii.abs();
        if self.from == self.to || radii.x == 0.0 || radii.y == 0.0 {
            return None;
        }
        let (sin, cos) = self.tilt.sin_cos();
        // Half the step between the ends, seen along the axes of the ellipse and unsquashed: on a unit circle.
        let half = (self.from - self.to) * 0.5;
        let own = Point::new(cos * half.x + sin * half.y, cos * half.y - sin * half.x);
        let mut unit = own / radii;
        let reach = unit.length();
        if !reach.is_finite() || reach == 0.0 {
            return None;
        }
        if reach > 1.0 {
            radii *= reach;
            unit /= reach;
        }
        if !radii.is_finite() || (!self.large && unit.length() < FLAT) {
            return None;
        }
        // The centre lies off the middle of the chord, on the side that the two flags choose.
        let off = (1.0 - unit.length_squared()).max(0.0).sqrt() / unit.length();
        let side = if self.large == self.clockwise { -off } else { off };
        let centre_unit = Point::new(unit.y, -unit.x) * side;
        let a = unit - centre_unit;
        let b = -unit - centre_unit;
        let start = rad(a.y.atan2(a.x));
        let mut sweep = rad(a.perp_dot(b).atan2(a.dot(b)));
        if self.clockwise && sweep.degrees() < 0.0 {
            sweep += Angle::FULL;
        } else if !self.clockwise && sweep.degrees() > 0.0 {
            sweep -= Angle::FULL;
        }
        // The ends of a short arc that are a last digit apart may come out in the wrong order.
        if !self.large && sweep.degrees().abs() > 270.0 {
            return None;
        }
        let own_centre = centre_unit * radii;
        let centre =
            Point::new(cos * own_centre.x - sin * own_centre.y, sin * own_centre.x + cos * own_centre.y)
                + (self.from + self.to) * 0.5;
        Some(Arc { centre, radii, tilt: self.tilt, start, sweep })
    }

    /// The same arc travelled the other way.
    #[must_use]
    pub fn reversed(&self) -> Self {
        Self { from: self.to, to: self.from, clockwise: !self.clockwise, ..*self }
    }

    pub(crate) fn split_at(&self, t: f64, joint: Point) -> (Self, Self) {
        // The radii that are drawn: those given may have been scaled up, and each part would scale its own.
        let drawn = self.centred().map(|arc| (arc.radii, arc.sweep.degrees().abs()));
        let (radii, sweep) = drawn.unwrap_or((self.radii, 0.0));
        (
            Self { radii, to: joint, large: sweep * t > 180.0, ..*self },
            Self { radii, from: joint, large: sweep * (1.0 - t) > 180.0, ..*self },
        )
    }

    /// The arc under an affine transform.
    ///
    /// The image of an ellipse is an ellipse; its radii and tilt come from the singular values of the transform
    /// times the ellipse's own axes. A transform that mirrors turns the direction round.
    #[must_use]
    pub fn transformed(&self, by: &Affine) -> Self {
        let (sin, cos) = self.tilt.sin_cos();
        let radii = self.radii.abs();
        let linear = by.matrix2;
        let p = linear * (Point::new(cos, sin) * radii.x);
        let q = linear * (Point::new(-sin, cos) * radii.y);
        let (radii, tilt) = principal_axes(p, q, self.tilt, radii);
        Self {
            from: by.transform_point2(self.from),
            radii,
            tilt,
            large: self.large,
            clockwise: self.clockwise != (linear.determinant() < 0.0),
            to: by.transform_point2(self.to),
        }
    }
}

/// The radii and tilt of the ellipse with the conjugate radii `p` and `q`.
fn principal_axes(p: Point, q: Point, tilt: Angle, radii: Point) -> (Point, Angle) {
    // Squares of these would leave the numbers.
    let size = p.abs().max(q.abs()).max_element();
    if size > 1e120 || (size > 0.0 && size < 1e-120) {
        let (unit, tilt) = principal_axes(p / size, q / size, tilt, radii);
        return (unit * size, tilt);
    }
    let (pp, qq, pq) = (p.length_squared(), q.length_squared(), p.dot(q));
    // Still at right angles, as under any turn or even scaling: keep the axes in their order.
    if pq.abs() <= 1e-15 * (pp * qq).sqrt() {
        let same_length = pp == qq || (pp - qq).abs() <= 1e-15 * pp;
        if same_length && radii.x == radii.y {
            return (Point::splat(p.length()), if tilt == Angle::ZERO { tilt } else { axis_angle(p) });
        }
        return (Point::new(p.length(), q.length()), axis_angle(p));
    }
    let twice = (2.0 * pq).atan2(pp - qq);
    let (sin, cos) = (twice * 0.5).sin_cos();
    let (long, short) = (p * cos + q * sin, q * cos - p * sin);
    (Point::new(long.length(), short.length()), axis_angle(long))
}

/// The direction of an axis, from -90 up to 90 degrees: an axis has no front.
fn axis_angle(axis: Point) -> Angle {
    let degrees = Angle::of(axis).degrees();
    if degrees > 90.0 {
        deg(degrees - 180.0)
    } else if degrees <= -90.0 {
        deg(degrees + 180.0)
    } else {
        deg(degrees)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::number::{polar, pt};

    fn arc(from: Point, radii: Point, tilt: f64, large: bool, clockwise: bool, to: Point) -> ArcSegment {
        ArcSegment { from, radii, tilt: deg(tilt), large, clockwise, to }
    }

    /// Appendix B.2.5 of the SVG 2 recommendation: out-of-range radii are scaled up until they just reach.
    #[test]
    fn radii_that_do_not_reach_are_scaled_up() {
        let short = arc(pt(0.0, 0.0), pt(1.0, 1.0), 0.0, false, true, pt(10.0, 0.0));
        let whole = short.centred().unwrap();
        assert_eq!(whole.radii, pt(5.0, 5.0));
        assert_eq!(whole.centre, pt(5.0, 0.0));
        assert_eq!(whole.sweep, deg(180.0));
    }

    /// The four ways of the two flags between the same ends have the centres and sweeps of the recommendation's
    /// figure: large arcs sweep more than a half turn, and the sweep flag alone gives the sign.
    #[test]
    fn the_flags_choose_one_of_four_ways() {
        for (large, clockwise) in [(false, false), (false, true), (true, false), (true, true)] {
            let way = arc(pt(3.0, 4.0), pt(40.0, 25.0), 20.0, large, clockwise, pt(30.0, 10.0));
            let whole = way.centred().unwrap();
            assert_eq!(whole.sweep.degrees() > 0.0, clockwise);
            assert_eq!(whole.sweep.degrees().abs() > 180.0, large);
            assert!((whole.at(0.0) - way.from).length() < 1e-12);
            assert!((whole.at(1.0) - way.to).length() < 1e-12);
        }
    }

    #[test]
    fn degenerate_arcs_have_no_centre() {
        assert_eq!(arc(pt(1.0, 1.0), pt(5.0, 5.0), 0.0, true, true, pt(1.0, 1.0)).centred(), None);
        assert_eq!(arc(pt(1.0, 1.0), pt(0.0, 5.0), 0.0, true, true, pt(2.0, 1.0)).centred(), None);
    }

    #[test]
    fn a_transformed_arc_passes_through_the_transformed_points() {
        let cases = [
            Affine::from_scale(glam::DVec2::new(2.0, 0.5)),
            Affine::from_scale(glam::DVec2::new(-1.0, 1.0)),
            Affine::from_angle(0.7),
            Affine::from_mat2(glam::DMat2::from_cols_array(&[1.0, 0.3, -0.9, 1.4])),
            Affine::from_mat2(glam::DMat2::from_cols_array(&[0.0, 2.0, 3.0, 0.1])),
        ];
        let whole = Arc {
            centre: pt(7.0, -2.0),
            radii: pt(9.0, 4.0),
            tilt: deg(33.0),
            start: deg(10.0),
            sweep: deg(130.0),
        };
        whole.pieces(whole.at(0.0), whole.at(1.0), |piece| {
            for by in &cases {
                let image = piece.transformed(by).centred().unwrap();
                let middle = by.transform_point2(whole.at(0.5));
                // The middle of the image is on the image's ellipse, though at another share of its sweep.
                let (sin, cos) = (-image.tilt).sin_cos();
                let d = middle - image.centre;
                let unit = pt(cos * d.x - sin * d.y, sin * d.x + cos * d.y) / image.radii;
                assert!((unit.length() - 1.0).abs() < 1e-12, "{by:?}");
                assert!(image.share_of(Angle::of(unit)).is_some());
            }
        });
    }

    #[test]
    fn long_sweeps_are_split_so_that_the_centre_stays_exact() {
        for sweep in [10.0, 175.0, 176.0, 180.0, 270.0, 359.0, 360.0, -360.0] {
            let whole = Arc {
                centre: pt(100.0, 50.0),
                radii: pt(80.0, 80.0),
                tilt: deg(0.0),
                start: deg(15.0),
                sweep: deg(sweep),
            };
            let mut total = 0.0;
            whole.pieces(whole.at(0.0), whole.at(1.0), |piece| {
                let back = piece.centred().unwrap();
                assert!((back.centre - whole.centre).length() < 1e-11, "{sweep}");
                total += back.sweep.degrees();
            });
            assert!((total - sweep).abs() < 1e-9, "{sweep}");
        }
        assert_eq!(polar(deg(0.0), 1.0), pt(1.0, 0.0));
    }
}
