//! A draft as paths, as a sheet, and as path data.

use super::{Draft, DraftShape};
use crate::path::Path;
use crate::sheet::{Sheet, sheet};

impl Draft {
    /// The paths of the shapes, each with its holes, in the order in which they were begun.
    #[must_use]
    pub fn paths(&self) -> Vec<Path> {
        self.outlines().map(|shape| self.path(shape)).collect()
    }

    /// The shapes that are no holes, in the order in which they were begun.
    pub fn outlines(&self) -> impl Iterator<Item = &DraftShape> {
        self.shapes().filter(|shape| shape.hole_of.is_none())
    }

    /// The holes of a shape, by its id.
    pub fn holes(&self, of: usize) -> impl Iterator<Item = &DraftShape> {
        self.shapes().filter(move |shape| shape.hole_of == Some(of))
    }

    fn path(&self, shape: &DraftShape) -> Path {
        self.holes(shape.id).fold(shape.outline(), |path, hole| path.with_hole(hole.outline()))
    }

    /// The draft on a sheet of a size: closed shapes filled, open ones as lines.
    #[must_use]
    pub fn sheet(&self, width: f64, height: f64) -> Sheet {
        let item = |shape: &DraftShape| {
            let path = self.path(shape);
            if shape.closed { path.fill(shape.fill().as_str()) } else { path.stroke(DraftShape::STROKE, 2.0) }
        };
        sheet(width, height).add_all(self.outlines().map(item))
    }

    /// The draft as path data, a path a line.
    #[must_use]
    pub fn data(&self) -> String {
        self.paths().iter().map(|path| path.data_rounded(3) + "\n").collect()
    }
}

impl DraftShape {
    /// The colour of the lines of open shapes.
    pub const STROKE: &str = "#20303c";

    /// The colour that it is filled with where it is closed: its own, or one for all that have none.
    #[must_use]
    pub fn fill(&self) -> String {
        let hex = |[red, green, blue]: [u8; 3]| format!("#{red:02x}{green:02x}{blue:02x}");
        self.colour.map_or_else(|| "#c8553d".to_owned(), hex)
    }
}
