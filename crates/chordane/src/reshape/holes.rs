//! Holes: contours that run against the ones around them.

use crate::ground::{Fault, FaultKind};
use crate::measure::Direction;
use crate::path::{Contour, Path};

impl Path {
    /// The path with a hole: the other path's contours, each turned to run against the contour that it lies in,
    /// so that the hole opens whichever way it was drawn.
    ///
    /// The contour that a hole lies in is the smallest one round the hole's first point; where there is none (the
    /// hole overlaps the rim), the one drawn last. A hole in an empty path is a fault; an empty hole changes
    /// nothing. Cost: the hole's contours times the segments of the path.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let sail = polygon((0.0, 0.0), 4, 90.0).with_hole(circle((0.0, -20.0), 12.0));
    /// assert!(!sail.inside((0.0, -20.0)));
    /// assert_eq!(
    ///     Path::empty().with_hole(circle((0.0, 0.0), 5.0)).sound().unwrap_err().to_string(),
    ///     "`with_hole`: there is no contour to cut the hole into; make the outline first, then the hole"
    /// );
    /// ```
    #[must_use]
    pub fn with_hole(&self, hole: impl AsRef<Self>) -> Self {
        let hole = hole.as_ref();
        let (mut contours, rule, mut fault) = self.clone().into_parts();
        fault.take_from(hole.carried());
        if contours.is_empty() && !hole.is_empty() {
            fault.note(Fault::of("with_hole", FaultKind::HoleInNothing));
        }
        let outlines = self.contours();
        for cut in hole.contours() {
            let against = surrounding(outlines, cut).map_or(0.0, Contour::signed_area);
            let same_way = against * cut.signed_area() > 0.0;
            contours.push(if same_way { cut.reversed() } else { cut.clone() });
        }
        Self::from_parts(contours, rule, fault)
    }

    /// The path with its contours' directions set by their nesting: outlines clockwise as seen, the holes in them
    /// anticlockwise, islands in holes clockwise again. Under the nonzero rule it then encloses what it would under
    /// the even-odd rule, where no contours cross.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let hoop = circle((0.0, 0.0), 9.0).and(&circle((0.0, 0.0), 5.0)).turn_holes();
    /// assert!(!hoop.inside((0.0, 0.0)));
    /// ```
    #[must_use]
    pub fn turn_holes(&self) -> Self {
        let (contours, rule, mut fault) = self.clone().into_parts();
        let Some(depths) = fault.limited("turn_holes", || self.depths()) else {
            return Self::from_parts(contours, rule, fault);
        };
        let turned = contours.iter().zip(depths).map(|(contour, depth)| {
            let wanted = if depth % 2 == 0 { Direction::Clockwise } else { Direction::Anticlockwise };
            let as_it_is = matches!(contour.direction(), direction if direction == wanted || direction == Direction::Flat);
            if as_it_is { contour.clone() } else { contour.reversed() }
        });
        Self::from_parts(turned.collect(), rule, fault)
    }
}

/// The smallest contour round the first point of another; the last contour where there is none.
fn surrounding<'a>(outlines: &'a [Contour], cut: &Contour) -> Option<&'a Contour> {
    let size = |contour: &Contour| contour.signed_area().abs();
    outlines
        .iter()
        .filter(|outline| outline.winding(cut.start()) != 0)
        .min_by(|a, b| size(a).total_cmp(&size(b)))
        .or(outlines.last())
}
