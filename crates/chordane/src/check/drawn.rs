//! The items of a sheet where they stand on it.

use crate::number::{Cell, Point};
use crate::path::{Affine, Path};
use crate::scene::Placed;
use crate::sheet::{Item, Paint, Sheet};

/// An item, and its path in the sheet's coordinates.
pub(super) struct Drawn<'a> {
    /// The place in the order of drawing, counted from 0.
    pub(super) number: usize,
    pub(super) item: &'a Item,
    pub(super) placed: Placed<'a>,
    pub(super) path: Path,
    /// Tight bounds of the line; none where there is nothing.
    pub(super) bounds: Option<Cell>,
    /// Half the width of a visible stroke on the sheet, where it is widest.
    pub(super) half_stroke: Option<f64>,
    /// How many times as wide a visible stroke is one way as the other; 1 where it was scaled evenly.
    pub(super) stretch: f64,
    /// Whether there is a fill that can be seen.
    pub(super) filled: bool,
    /// Whether the fill hides all that lies under it.
    pub(super) opaque: bool,
}

impl Drawn<'_> {
    /// The bounds with the stroke.
    pub(super) fn painted_bounds(&self) -> Option<Cell> {
        let bounds = self.bounds?;
        let by = Point::splat(self.half_stroke.unwrap_or(0.0));
        Some(Cell { min: bounds.min - by, max: bounds.max + by })
    }

    /// The longer side of the bounds.
    pub(super) fn extent(&self) -> f64 {
        self.bounds.map_or(0.0, |bounds| bounds.size().max_element())
    }
}

impl<'a> Drawn<'a> {
    /// An item of a scene in the coordinates that are looked at.
    pub(super) fn of(placed: &Placed<'a>, space: &DocumentSpace) -> Self {
        let path = space.path(placed.path());
        let width = placed.stroke_width() * space.scale;
        Self {
            number: placed.number,
            item: placed.item,
            placed: *placed,
            bounds: path.bounds(),
            path,
            stretch: placed.stroke().map_or(1.0, |_| stretch(&placed.transform)),
            half_stroke: placed.stroke().map(|_| 0.5 * width),
            filled: placed.fill().is_some(),
            // What is clipped may be cut off where it would hide something, and what is mixed hides nothing.
            opaque: placed.plain && placed.opacity >= 1.0 && placed.fill().is_some_and(Paint::is_opaque),
        }
    }
}

/// What is looked at: the sheet in its own coordinates, or in those of the document that it was read from.
pub(super) struct DocumentSpace {
    /// From the sheet's coordinates; `None` where they are the ones.
    own: Option<Affine>,
    /// How long a length of the sheet is in them.
    pub(super) scale: f64,
    /// The sheet's rectangle in them.
    pub(super) page: Cell,
    /// How many pixels of 1/96 inch a unit of them is.
    pub(super) pixels: f64,
}

impl DocumentSpace {
    pub(super) fn of(sheet: &Sheet) -> Self {
        let own = sheet.document_view().map(Affine::inverse).filter(Affine::is_finite);
        let scale = own.map_or(1.0, |own| own.matrix2.determinant().abs().sqrt());
        let corner = sheet.corner();
        let page = Cell { min: corner, max: corner + sheet.size };
        let back = own.unwrap_or(Affine::IDENTITY) * sheet.upright().inverse();
        Self { own, scale, page: mapped(&page, &back), pixels: sheet.unit.pixels() / scale }
    }

    fn path(&self, path: Path) -> Path {
        self.own.map_or(path.clone(), |own| path.transformed(&own))
    }

    /// Bounds in the sheet's coordinates.
    pub(super) fn bounds(&self, bounds: Cell) -> Cell {
        self.own.map_or(bounds, |own| mapped(&bounds, &own))
    }
}

fn mapped(cell: &Cell, by: &Affine) -> Cell {
    let (a, b) = (by.transform_point2(cell.min), by.transform_point2(cell.max));
    Cell { min: a.min(b), max: a.max(b) }
}

/// The ratio of the longest to the shortest image of a unit step: that of the singular values of the map.
fn stretch(by: &Affine) -> f64 {
    let (a, b) = (by.matrix2.x_axis, by.matrix2.y_axis);
    let (even, turned) =
        (Point::new(a.x + b.y, a.y - b.x).length(), Point::new(a.x - b.y, a.y + b.x).length());
    let (most, least) = (even + turned, (even - turned).abs());
    if least > 0.0 { most / least } else { 1.0 }
}
