//! Rectangles, with and without rounded corners.

use crate::ground::FaultSlot;
use crate::number::{Angle, Cell, IntoPoint, Point, pt};
use crate::path::{ArcSegment, ContourBuilder, Path};

/// The radii of a rectangle's corners; made from one number for all, or from four: top left, top right, bottom
/// right, bottom left, as seen on a sheet with y down.
///
/// ```
/// use chordane::prelude::*;
/// let even = rounded_rectangle((0.0, 0.0), 60.0, 40.0, 8.0);
/// assert_eq!(even, rounded_rectangle((0.0, 0.0), 60.0, 40.0, [8.0, 8.0, 8.0, 8.0]));
/// ```
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct CornerRadii([f64; 4]);

impl From<f64> for CornerRadii {
    fn from(radius: f64) -> Self {
        Self([radius; 4])
    }
}

impl From<[f64; 4]> for CornerRadii {
    fn from(radii: [f64; 4]) -> Self {
        Self(radii)
    }
}

/// A rectangle by its corner with the least x and y (top left on a sheet with y down), its width and its height;
/// [`rectangle_about`] takes the centre.
///
/// Starts at that corner, clockwise as seen. A width or height of zero gives an empty path; a negative one is a
/// fault.
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!(rectangle(pt(10.0, 20.0), 30.0, 5.0).data(), "M10 20H40V25H10Z");
/// ```
#[must_use]
pub fn rectangle(corner: impl IntoPoint, width: f64, height: f64) -> Path {
    build("rectangle", corner.into_point(), pt(width, height), CornerRadii::default())
}

/// A rectangle by its centre, its width and its height; [`rectangle`] takes a corner.
///
/// Starts at the corner with the least x and y, clockwise as seen. A width or height of zero gives an empty path; a negative one
/// is a fault.
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!(rectangle_about(pt(10.0, 20.0), 30.0, 5.0).data(), "M-5 17.5H25V22.5H-5Z");
/// ```
#[must_use]
pub fn rectangle_about(centre: impl IntoPoint, width: f64, height: f64) -> Path {
    let size = pt(width, height);
    build("rectangle_about", centre.into_point() - 0.5 * size, size, CornerRadii::default())
}

/// A rectangle with rounded corners; see [`rectangle`] and [`CornerRadii`].
///
/// Starts after the rounding of the top left corner, clockwise as seen. Where the roundings of two corners do not
/// fit on a side, all radii shrink evenly until they do. A negative radius is a fault.
///
/// ```
/// use chordane::prelude::*;
/// let spar = rounded_rectangle(pt(0.0, 0.0), 100.0, 20.0, 50.0); // 50 does not fit; 10 does
/// assert_eq!(spar.bounds().unwrap().max, pt(100.0, 20.0));
/// assert_eq!(spar.contours()[0].start(), pt(10.0, 0.0));
/// ```
#[must_use]
pub fn rounded_rectangle(
    corner: impl IntoPoint,
    width: f64,
    height: f64,
    radii: impl Into<CornerRadii>,
) -> Path {
    build("rounded_rectangle", corner.into_point(), pt(width, height), radii.into())
}

impl Cell {
    /// The hexagon that stands on a corner and fills the cell: regular in a cell of [`Cell::honeycomb`]. Empty for a cell
    /// of no size.
    #[must_use]
    pub fn hexagon(&self) -> Path {
        let corners = [(0.5, 0.0), (1.0, 0.25), (1.0, 0.75), (0.5, 1.0), (0.0, 0.75), (0.0, 0.25)];
        if self.size().min_element() <= 0.0 {
            return Path::empty();
        }
        Path::closed(corners.map(|(across, down)| self.at(across, down)))
    }

    /// The cell as a rectangle; see [`rectangle`].
    #[must_use]
    pub fn path(&self) -> Path {
        build("path", self.min, self.size(), CornerRadii::default())
    }

    /// The cell as a rectangle with rounded corners, which shrink where they do not fit; see [`rounded_rectangle`].
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let tab = cell((0.0, 0.0), 40.0, 20.0).inset(4.0).rounded(50.0);
    /// assert_eq!(tab.bounds().unwrap().size(), pt(32.0, 12.0));
    /// ```
    #[must_use]
    pub fn rounded(&self, radii: impl Into<CornerRadii>) -> Path {
        build("rounded", self.min, self.size(), radii.into())
    }
}

fn build(call: &'static str, corner: Point, size: Point, radii: CornerRadii) -> Path {
    let mut fault = FaultSlot::default();
    let mut sound = fault.point(call, corner);
    sound &= fault.not_negative(call, "width", size.x);
    sound &= fault.not_negative(call, "height", size.y);
    for radius in radii.0 {
        sound &= fault.not_negative(call, "corner radius", radius);
    }
    let mut contours = Vec::new();
    if sound && size.min_element() > 0.0 {
        let far = corner + size;
        let corners = [corner, pt(far.x, corner.y), far, pt(corner.x, far.y)];
        let along = [pt(1.0, 0.0), pt(0.0, 1.0), pt(-1.0, 0.0), pt(0.0, -1.0)];
        let [a, b, c, d] = radii.0;
        let room = [(size.x, a + b), (size.y, b + c), (size.x, c + d), (size.y, d + a)];
        let shrink = room.iter().map(|(side, need)| if need > side { side / need } else { 1.0 });
        let shrink = shrink.fold(1.0, f64::min);
        let radii = radii.0.map(|radius| radius * shrink);
        let mut builder = ContourBuilder::new(corner + along[0] * radii[0]);
        for i in 1..=4 {
            let (from, at, radius) = (along[(i + 3) % 4], corners[i % 4], radii[i % 4]);
            let begin = at - from * radius;
            if begin != builder.end() && (i < 4 || radius > 0.0) {
                builder.line(begin);
            }
            if radius > 0.0 {
                let (radii, tilt) = (Point::splat(radius), Angle::ZERO);
                let to = if i == 4 { builder.start() } else { at + along[i % 4] * radius };
                builder.arc(&ArcSegment { from: begin, radii, tilt, large: false, clockwise: true, to });
            }
        }
        contours.push(builder.finish(true));
    }
    Path::from_parts(contours, Default::default(), fault).within_numbers(call)
}
