//! A drawing that is repeated as paint.

use std::sync::Arc;

use super::{Group, MAX_DEPTH, Node, Paint, Sheet, group};
use crate::ground::{Fault, FaultKind, FaultSlot};
use crate::number::{Angle, Cell, IntoPoint, Point};
use crate::path::{Affine, by};
use crate::shape::rectangle;

/// A drawing that is repeated over what it paints, cell beside cell; what reaches over the cell is cut off. It lies in the
/// coordinates of what is painted.
///
/// ```
/// use chordane::prelude::*;
/// let dots = pattern(cell((0.0, 0.0), 10.0, 10.0), circle((5.0, 5.0), 3.0).fill("teal"));
/// let page = sheet(60.0, 40.0).add(rectangle((0.0, 0.0), 60.0, 40.0).fill(dots));
/// let pixels = page.pixels().unwrap();
/// assert_eq!((pixels.at(5, 5), pixels.at(45, 25), pixels.at(9, 9)), (Some([0, 128, 128, 255]), Some([0, 128, 128, 255]), Some([0; 4])));
/// ```
#[derive(Clone, Debug, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize))]
pub struct Pattern {
    drawing: Arc<Group>,
    /// The cell that is repeated; without a size it is a fault.
    pub cell: Cell,
    /// From the pattern's coordinates to those of what it paints; one that squashes it flat is a fault.
    pub transform: Affine,
    #[cfg_attr(feature = "serde", serde(skip_deserializing, skip_serializing_if = "FaultSlot::is_empty"))]
    fault: FaultSlot,
}

/// A drawing that is repeated; see [`Pattern`]. A cell without a size is a fault of what is painted with it.
///
/// ```
/// use chordane::prelude::*;
/// let bars = pattern(cell((0.0, 0.0), 8.0, 8.0), rectangle((0.0, 0.0), 8.0, 4.0).fill("gold")).rotated(deg(45.0));
/// assert_eq!(bars.nodes().len(), 1);
/// ```
#[must_use]
pub fn pattern(cell: Cell, drawing: impl Into<Node>) -> Pattern {
    Pattern::of(cell, group().add(drawing))
}

impl Pattern {
    fn of(cell: Cell, drawing: Group) -> Self {
        let mut fault = FaultSlot::default();
        fault.take_from(&drawing.placement.fault);
        let depth = drawing.depth();
        if depth >= MAX_DEPTH {
            let what = "groups and patterns inside one another";
            fault.note(Fault::of("pattern", FaultKind::TooMany { what, count: depth, limit: MAX_DEPTH }));
        }
        let drawing = if fault.get().is_some() { group() } else { drawing };
        Self { drawing: Arc::new(drawing), cell, transform: Affine::IDENTITY, fault }
    }

    /// The whole of a sheet, ground and all, that is repeated.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let tile = sheet(10.0, 10.0).ground("gold").add(circle((5.0, 5.0), 3.0).fill("teal"));
    /// let page = sheet(60.0, 40.0).ground(Pattern::of_sheet(&tile));
    /// assert_eq!(page.pixels().unwrap().at(31, 31), Some([255, 215, 0, 255]));
    /// ```
    #[must_use]
    pub fn of_sheet(sheet: &Sheet) -> Self {
        let cell = sheet.cell();
        let size = cell.size();
        let ground = sheet.ground.clone().map(|paint| rectangle(cell.min, size.x, size.y).fill(paint));
        let drawing = group().add_all(ground).add_all(sheet.nodes().iter().cloned());
        let mut made = Self::of(cell, drawing);
        if sheet.y_up {
            let middle = cell.centre();
            made.transform = by::about(middle, Affine::from_scale(Point::new(1.0, -1.0)));
        }
        let mut fault = sheet.fault.clone();
        fault.take_from(&made.fault);
        Self { fault, ..made }
    }

    /// What is drawn in each cell.
    #[must_use]
    pub fn nodes(&self) -> &[Node] {
        self.drawing.nodes()
    }

    /// Under an affine transform, after those that there are.
    #[must_use]
    pub fn transformed(mut self, by: &Affine) -> Self {
        self.transform = *by * self.transform;
        self
    }

    /// Moved by a step.
    #[must_use]
    pub fn moved(self, step: impl IntoPoint) -> Self {
        self.transformed(&Affine::from_translation(step.into_point()))
    }

    /// Turned about the origin; a positive angle turns clockwise as seen on a sheet with y down.
    #[must_use]
    pub fn rotated(self, angle: Angle) -> Self {
        self.transformed(&by::rotation(angle))
    }

    /// Scaled evenly from the origin.
    #[must_use]
    pub fn scaled(self, factor: f64) -> Self {
        self.transformed(&Affine::from_scale(Point::splat(factor)))
    }

    /// The pattern itself when nothing went wrong in its making, else the first fault. What is drawn in it is not looked at.
    ///
    /// # Errors
    ///
    /// The first fault.
    pub fn sound(&self) -> Result<&Self, Fault> {
        let mut fault = self.fault.clone();
        let size = self.cell.size();
        if fault.point("pattern", self.cell.min) && fault.point("pattern", self.cell.max) {
            for (what, value) in [("width", size.x), ("height", size.y)] {
                fault.positive("pattern", what, value);
            }
        }
        if !self.transform.is_finite() || self.transform.matrix2.determinant() == 0.0 {
            let message =
                "the transform squashes the pattern flat; scale it by other factors than 0".to_owned();
            fault.note(Fault::of("pattern", FaultKind::Told { message }));
        }
        fault.sound().map(|()| self)
    }

    pub(super) fn depth(&self) -> usize {
        self.drawing.depth()
    }

    /// The drawing, which what is drawn from it is known by.
    pub(crate) fn drawing(&self) -> &Arc<Group> {
        &self.drawing
    }
}

impl From<Pattern> for Paint {
    fn from(pattern: Pattern) -> Self {
        Self::Pattern(Box::new(pattern))
    }
}
