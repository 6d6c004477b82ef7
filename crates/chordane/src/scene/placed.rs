//! An item where it stands on its sheet.

use crate::measure::Place;
use crate::number::{Cell, Point};
use crate::path::{Affine, Path};
use crate::sheet::{Item, Layered, Paint};

/// Minimum stroke width assumed for conservative bounds; the draft outline of unpainted items is this wide.
const DRAFT_OUTLINE_WIDTH: f64 = 2.0;

/// Which item of a sheet is meant, and which place on its path: what listing, hitting and editing name things by.
///
/// ```
/// use chordane::prelude::*;
/// let page = sheet(100.0, 80.0).add(group().opacity(0.5).add(circle((50.0, 40.0), 20.0).fill("teal").stroke("navy", 4.0).named("vent")));
/// let hit = page.item_at((50.0, 40.0)).ok_or("nothing lies there")?;
/// assert_eq!(hit.address().item, 0);
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Address {
    /// The item, in the order of drawing, counted from 0.
    pub item: usize,
    /// The place on the item's path, where one is meant.
    pub place: Option<Place>,
}

/// An item where it stands: with the transforms, the opacity and the clips of the groups that it is in.
///
/// ```
/// use chordane::prelude::*;
/// let page = sheet(100.0, 80.0).add(group().opacity(0.5).add(circle((50.0, 40.0), 20.0).fill("teal").stroke("navy", 4.0).named("vent")));
/// let placed = page.items().next().ok_or("the sheet is empty")?;
/// assert_eq!((placed.opacity, placed.stroke_width()), (0.5, 4.0));
/// assert_eq!(placed.line_bounds().map(|bounds| bounds.size()), Some(pt(40.0, 40.0)));
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[derive(Clone, Copy, Debug)]
#[non_exhaustive]
pub struct Placed<'a> {
    /// The item itself: its path before all transforms, its style, its name.
    pub item: &'a Item,
    /// From the item's own coordinates to the sheet's.
    pub transform: Affine,
    /// The position in the order of drawing, counted from 0.
    pub number: usize,
    /// The innermost layer that the item is in, as a number for [`Scene::layers`](super::Scene::layers).
    pub layer: Option<usize>,
    /// The opacity of the item and of all groups that it is in, from 0 to 1.
    pub opacity: f64,
    /// Whether the item or a group that it is in is clipped.
    pub clipped: bool,
    /// Whether the item or a group that it is in is clipped or masked.
    pub cut_off: bool,
    /// Whether neither the item nor a group that it is in is clipped, masked, isolated or mixed with what is below, or has effects.
    pub plain: bool,
}

impl<'a> Placed<'a> {
    /// The item's address.
    #[must_use]
    pub fn address(&self) -> Address {
        Address { item: self.number, place: None }
    }

    /// The line of the score or document that made the item, counted from 1, where it was made by one.
    #[must_use]
    pub fn line(&self) -> Option<usize> {
        self.item.line()
    }

    /// The path in the sheet's coordinates. Cost: linear in the segments.
    #[must_use]
    pub fn path(&self) -> Path {
        self.item.path.transformed(&self.transform)
    }

    /// What the inside is seen painted with; `None` where nothing of it can be seen.
    #[must_use]
    pub fn fill(&self) -> Option<&'a Paint> {
        self.item.style.fill.as_ref().filter(|paint| self.is_seen(paint))
    }

    /// What the line is seen painted with; `None` where nothing of it can be seen, as with a width of 0.
    #[must_use]
    pub fn stroke(&self) -> Option<&'a Paint> {
        self.item.style.seen_stroke().filter(|paint| self.is_seen(paint))
    }

    fn is_seen(&self, paint: &Paint) -> bool {
        self.opacity > 0.0 && !paint.is_invisible()
    }

    /// The stroke's width in the sheet's coordinates, where it is widest; 0 where no stroke is seen.
    #[must_use]
    pub fn stroke_width(&self) -> f64 {
        self.stroke().map_or(0.0, |_| self.item.style.line.width * self.largest_scale())
    }

    /// How many times as long the transform makes what it makes longest, along x or y.
    pub(crate) fn largest_scale(&self) -> f64 {
        largest_scale(&self.transform)
    }

    /// The tight bounds of the line in the sheet's coordinates; `None` for an empty path. Cost: linear in the segments.
    #[must_use]
    pub fn line_bounds(&self) -> Option<Cell> {
        self.path().bounds()
    }

    /// The bounds of what is painted, fill and stroke together, in the sheet's coordinates: those of the stroke's own
    /// area, with its mitres, caps and dashes, to a hundredth of a unit. `None` where nothing is painted. What a clip
    /// takes off is counted, and what effects add is not. Cost: linear in the segments and dashes.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let page = sheet(90.0, 90.0).add(circle((40.0, 40.0), 10.0).stroke("teal", 4.0));
    /// let painted = page.items().next().unwrap().painted_bounds().unwrap();
    /// assert!((painted.size() - pt(24.0, 24.0)).length() < 0.02);
    /// ```
    #[must_use]
    pub fn painted_bounds(&self) -> Option<Cell> {
        let filled = self.fill().and_then(|_| self.line_bounds());
        let scale = self.largest_scale();
        let stroked = self.stroke().filter(|_| scale > 0.0).and_then(|_| {
            let area = self.item.path.stroke_chords(&self.item.style.line, 0.01 / scale);
            area.transformed(&self.transform).bounds()
        });
        filled.into_iter().chain(stroked).reduce(Cell::union)
    }

    /// Bounds that hold all that is painted, quickly and with room to spare: by control points, and as far as any mitre
    /// could reach.
    pub(crate) fn reach(&self) -> Option<Cell> {
        Cell::of(self.own_reach()?.corners().map(|corner| self.transform.transform_point2(corner)))
    }

    /// The same in the item's own coordinates.
    pub(crate) fn own_reach(&self) -> Option<Cell> {
        let bounds = self.item.path.control_bounds()?;
        // A draft's line is thin, whatever the scale.
        let line = &self.item.style.line;
        let by = 0.5 * line.width.max(DRAFT_OUTLINE_WIDTH) * line.mitre_limit.max(std::f64::consts::SQRT_2);
        Some(bounds.grown(by))
    }

    /// A spot of the sheet in the item's own coordinates; `None` where the transform squashes the item flat.
    pub(super) fn own(&self, spot: Point) -> Option<Point> {
        let sound = self.transform.matrix2.determinant() != 0.0;
        Some(self.transform.inverse().transform_point2(spot)).filter(|p| sound && p.is_finite())
    }
}

/// How many times as long a transform makes what it makes longest, along x or y.
pub(crate) fn largest_scale(by: &Affine) -> f64 {
    by.matrix2.x_axis.length().max(by.matrix2.y_axis.length())
}
