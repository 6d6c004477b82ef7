//! Fitting a path into a cell.

use super::{Affine, Path};
use crate::ground::{Fault, FaultKind, named};
use crate::number::{Cell, Point};

/// How a path is fitted into a cell; see [`Path::fitted`].
///
/// ```
/// use chordane::prelude::*;
/// let tag = cell((0.0, 0.0), 80.0, 40.0);
/// let size = |fit: Fit| circle((0.0, 0.0), 5.0).fitted(&tag, fit).bounds().map(|bounds| bounds.size().round());
/// assert_eq!(size(Fit::Contain), Some(pt(40.0, 40.0)));
/// assert_eq!(size(Fit::Cover), Some(pt(80.0, 80.0)));
/// assert_eq!(size(Fit::Stretch), Some(pt(80.0, 40.0)));
/// ```
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
pub enum Fit {
    /// As large as it can be inside the cell, in its own proportions, in the middle.
    #[default]
    Contain,
    /// As small as it can be and still reach all sides, in its own proportions, in the middle.
    Cover,
    /// To the cell's own proportions: it is stretched if it has others.
    Stretch,
}

named! { Fit: "way to fit"; "contain" => Contain, "cover" => Cover, "stretch" => Stretch }

impl Path {
    /// The path moved and scaled to fit a cell, by its tight bounds.
    ///
    /// A direction in which the path has no size is not scaled but centred. An empty path stays empty; a cell that is not
    /// finite is a fault.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let sail = rectangle((5.0, 5.0), 20.0, 10.0);
    /// let page = cell((0.0, 0.0), 100.0, 100.0);
    /// let size = |fit| sail.fitted(&page, fit).bounds().unwrap().size();
    /// assert_eq!(size(Fit::Contain), pt(100.0, 50.0));
    /// assert_eq!(size(Fit::Cover), pt(200.0, 100.0));
    /// assert_eq!(size(Fit::Stretch), pt(100.0, 100.0));
    /// ```
    #[must_use]
    pub fn fitted(&self, cell: &Cell, fit: Fit) -> Self {
        if !cell.min.is_finite() || !cell.max.is_finite() {
            let (contours, rule, mut fault) = self.clone().into_parts();
            let bad = if cell.min.is_finite() { cell.size() } else { cell.min };
            fault.note(Fault::of("fitted", FaultKind::PointNotFinite { x: bad.x, y: bad.y }));
            return Self::from_parts(contours, rule, fault);
        }
        let Some(bounds) = self.bounds() else { return self.clone() };
        let size = bounds.size();
        let has_size = [size.x > 0.0, size.y > 0.0];
        let ratio = cell.size() / size;
        let even = match (fit, has_size) {
            (_, [false, false]) => 1.0,
            (_, [true, false]) => ratio.x,
            (_, [false, true]) => ratio.y,
            (Fit::Contain, _) => ratio.min_element(),
            (Fit::Cover | Fit::Stretch, _) => ratio.max_element(),
        };
        let scale = match fit {
            Fit::Stretch => {
                Point::new(if has_size[0] { ratio.x } else { even }, if has_size[1] { ratio.y } else { even })
            }
            _ => Point::splat(even),
        };
        let map = Affine::from_translation(cell.centre())
            * Affine::from_scale(scale)
            * Affine::from_translation(-bounds.centre());
        self.transformed(&map).within_numbers("fitted")
    }
}
