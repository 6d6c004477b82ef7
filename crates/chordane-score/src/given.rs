//! Values that a program hands to a score under names.

use chordane::number::Point;
use chordane::path::Path;

/// A value that a program hands to a score: see [`Settings::give`](crate::Settings::give).
///
/// ```
/// use chordane::prelude::*;
/// use chordane_score::GivenValue;
/// assert_eq!(GivenValue::from(circle((0.0, 0.0), 5.0)).as_path(), Some(&circle((0.0, 0.0), 5.0)));
/// assert_eq!(GivenValue::from([(0.0, 1.0), (2.0, 3.0)]).as_points(), Some(&[pt(0.0, 1.0), pt(2.0, 3.0)][..]));
/// assert_eq!(GivenValue::from([0.5, 2.0]).as_numbers(), Some(&[0.5, 2.0][..]));
/// assert_eq!(GivenValue::from(7.5).as_number(), Some(7.5));
/// ```
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize), serde(rename_all = "kebab-case"))]
pub enum GivenValue {
    /// A number.
    Number(f64),
    /// A list of numbers.
    Numbers(Vec<f64>),
    /// A list of points, in sheet units.
    Points(Vec<Point>),
    /// A path.
    Path(Path),
}

impl GivenValue {
    /// Returns the number, if it is one.
    #[must_use]
    pub fn as_number(&self) -> Option<f64> {
        if let Self::Number(number) = self { Some(*number) } else { None }
    }

    /// Returns the numbers, if it is a list of numbers.
    #[must_use]
    pub fn as_numbers(&self) -> Option<&[f64]> {
        if let Self::Numbers(numbers) = self { Some(numbers) } else { None }
    }

    /// Returns the points, if it is a list of points.
    #[must_use]
    pub fn as_points(&self) -> Option<&[Point]> {
        if let Self::Points(points) = self { Some(points) } else { None }
    }

    /// Returns the path, if it is one.
    #[must_use]
    pub fn as_path(&self) -> Option<&Path> {
        if let Self::Path(path) = self { Some(path) } else { None }
    }

    /// The kind of value, for messages.
    pub(crate) fn described(&self) -> &'static str {
        match self {
            Self::Number(_) => "a number",
            Self::Numbers(_) | Self::Points(_) => "a list",
            Self::Path(_) => "a path",
        }
    }
}

impl From<f64> for GivenValue {
    fn from(number: f64) -> Self {
        Self::Number(number)
    }
}

impl From<Vec<f64>> for GivenValue {
    fn from(numbers: Vec<f64>) -> Self {
        Self::Numbers(numbers)
    }
}

impl<const N: usize> From<[f64; N]> for GivenValue {
    fn from(numbers: [f64; N]) -> Self {
        Self::Numbers(numbers.into())
    }
}

impl From<Vec<Point>> for GivenValue {
    fn from(points: Vec<Point>) -> Self {
        Self::Points(points)
    }
}

impl From<Vec<(f64, f64)>> for GivenValue {
    fn from(points: Vec<(f64, f64)>) -> Self {
        Self::Points(points.into_iter().map(Point::from).collect())
    }
}

impl<const N: usize> From<[(f64, f64); N]> for GivenValue {
    fn from(points: [(f64, f64); N]) -> Self {
        Self::Points(points.map(Point::from).into())
    }
}

impl From<Path> for GivenValue {
    fn from(path: Path) -> Self {
        Self::Path(path)
    }
}
