//! Points and transforms from and to the types of mint, which other libraries of numbers understand too.

use super::Point;

/// A point of mint.
///
/// ```
/// use chordane::number::{point_from_mint, point_to_mint, pt};
/// let theirs = mint::Point2 { x: 3.0, y: 4.0 };
/// assert_eq!(point_from_mint(theirs), pt(3.0, 4.0));
/// assert_eq!(point_to_mint(pt(3.0, 4.0)), theirs);
/// ```
#[must_use]
pub fn point_from_mint(point: impl Into<mint::Vector2<f64>>) -> Point {
    let point = point.into();
    Point::new(point.x, point.y)
}

/// The point for mint.
///
/// ```
/// use chordane::number::{point_to_mint, pt};
/// assert_eq!(point_to_mint(pt(3.0, 4.0)), mint::Point2 { x: 3.0, y: 4.0 });
/// ```
#[must_use]
pub fn point_to_mint(point: Point) -> mint::Point2<f64> {
    mint::Point2 { x: point.x, y: point.y }
}

/// A transform of mint: its columns are the images of the x and the y step, and the move.
///
/// ```
/// use chordane::number::{affine_from_mint, affine_to_mint, pt};
/// let theirs = affine_to_mint(&chordane::path::Affine::from_translation(pt(3.0, 4.0)));
/// assert_eq!(affine_from_mint(theirs).transform_point2(pt(1.0, 1.0)), pt(4.0, 5.0));
/// ```
#[must_use]
pub fn affine_from_mint(map: mint::ColumnMatrix2x3<f64>) -> glam::DAffine2 {
    glam::DAffine2::from_cols(
        Point::new(map.x.x, map.x.y),
        Point::new(map.y.x, map.y.y),
        Point::new(map.z.x, map.z.y),
    )
}

/// The transform for mint.
///
/// ```
/// use chordane::number::{affine_from_mint, affine_to_mint, pt};
/// let theirs = affine_to_mint(&chordane::path::Affine::from_translation(pt(3.0, 4.0)));
/// assert_eq!(affine_from_mint(theirs).transform_point2(pt(1.0, 1.0)), pt(4.0, 5.0));
/// ```
#[must_use]
pub fn affine_to_mint(map: &glam::DAffine2) -> mint::ColumnMatrix2x3<f64> {
    let vector = |p: Point| mint::Vector2 { x: p.x, y: p.y };
    mint::ColumnMatrix2x3 {
        x: vector(map.matrix2.x_axis),
        y: vector(map.matrix2.y_axis),
        z: vector(map.translation),
    }
}
