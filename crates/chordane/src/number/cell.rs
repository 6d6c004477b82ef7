//! Cells: rectangles that shapes are made to fit, and the bounds of what there is.

use super::extent::{Along, Extent, Inset};
use super::kept;
use super::{IntoPoint, Point, pt};

/// An upright rectangle: one that a shape is made to fit, or the bounds of what there is.
///
/// A shape that is written once as a function of a cell comes out right at every size:
///
/// ```
/// use chordane::prelude::*;
/// use chordane::number::Cell;
/// fn pennant(cell: Cell) -> Path {
///     Path::closed([cell.at(0.0, 0.0), cell.at(part(1.0) - 12.0, 0.5), cell.at(0.0, 1.0)])
/// }
/// assert_eq!(pennant(cell((10.0, 20.0), 100.0, 40.0)).data(), "M10 20 98 40 10 60Z");
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize))]
pub struct Cell {
    /// The corner with the least x and y: top left on a sheet with y down.
    pub min: Point,
    /// The corner with the greatest x and y: bottom right on a sheet with y down.
    pub max: Point,
}

/// A cell by its corner with the least x and y, its width and its height. A negative size counts as zero.
///
/// ```
/// use chordane::prelude::*;
/// let tag = cell((10.0, 10.0), 80.0, 40.0);
/// assert_eq!((tag.centre(), tag.size()), (pt(50.0, 30.0), pt(80.0, 40.0)));
/// ```
#[must_use]
pub fn cell(corner: impl IntoPoint, width: f64, height: f64) -> Cell {
    let min = corner.into_point();
    Cell { min, max: min + pt(width.max(0.0), height.max(0.0)) }
}

impl Cell {
    /// The bounds of some points; `None` without a point.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// use chordane::number::Cell;
    /// assert_eq!(Cell::of([pt(3.0, 9.0), pt(8.0, 1.0)]), Some(cell((3.0, 1.0), 5.0, 8.0)));
    /// ```
    #[must_use]
    pub fn of(points: impl IntoIterator<Item = Point>) -> Option<Self> {
        let mut points = points.into_iter();
        let first = points.next()?;
        let mut bounds = Self { min: first, max: first };
        points.for_each(|p| bounds.reach(p));
        Some(bounds)
    }

    /// Width and height.
    #[must_use]
    pub fn size(&self) -> Point {
        self.max - self.min
    }

    /// Whether a point lies inside or on the rim.
    #[must_use]
    pub fn contains(&self, p: Point) -> bool {
        p.cmpge(self.min).all() && p.cmple(self.max).all()
    }

    /// The smallest cell that holds both.
    #[must_use]
    pub fn union(self, other: Self) -> Self {
        Self { min: self.min.min(other.min), max: self.max.max(other.max) }
    }

    /// The cell with so much more on every side.
    pub(crate) fn grown(self, by: f64) -> Self {
        Self { min: self.min - Point::splat(by), max: self.max + Point::splat(by) }
    }

    /// Grows to reach a point.
    pub(crate) fn reach(&mut self, p: Point) {
        self.min = self.min.min(p);
        self.max = self.max.max(p);
    }

    /// The four corners, in the order in which a rectangle is drawn.
    pub(crate) fn corners(&self) -> [Point; 4] {
        [self.min, pt(self.max.x, self.min.y), self.max, pt(self.min.x, self.max.y)]
    }

    /// A place in the cell: 0 to 1 across and down for plain numbers, which may also lie outside, or extents.
    #[must_use]
    pub fn at(&self, across: impl Into<Along>, down: impl Into<Along>) -> Point {
        let size = self.size();
        self.min + pt(across.into().0.of(size.x), down.into().0.of(size.y))
    }

    /// The left side's x.
    #[must_use]
    pub fn left(&self) -> f64 {
        self.min.x
    }

    /// The right side's x.
    #[must_use]
    pub fn right(&self) -> f64 {
        self.max.x
    }

    /// The y of the side with the least y: the upper one on a sheet with y down.
    #[must_use]
    pub fn top(&self) -> f64 {
        self.min.y
    }

    /// The y of the side with the greatest y: the lower one on a sheet with y down.
    #[must_use]
    pub fn bottom(&self) -> f64 {
        self.max.y
    }

    /// The middle.
    #[must_use]
    pub fn centre(&self) -> Point {
        self.min.midpoint(self.max)
    }

    /// The cell with a margin taken off inside. Margins that meet leave a cell of no size, where they meet in
    /// proportion; negative ones make it larger.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let page = cell((0.0, 0.0), 200.0, 100.0);
    /// assert_eq!(page.inset(10.0), cell((10.0, 10.0), 180.0, 80.0));
    /// assert_eq!(page.inset([part(0.25), 10.0.into()]), cell((50.0, 10.0), 100.0, 80.0));
    /// assert_eq!(page.inset([0.0, 50.0, 0.0, 250.0]).size().x, 0.0);
    /// ```
    #[must_use]
    pub fn inset(&self, by: impl Into<Inset>) -> Self {
        let Inset([top, right, bottom, left]) = by.into();
        let size = self.size();
        let (x, width) = narrowed(size.x, left.of(size.x), right.of(size.x));
        let (y, height) = narrowed(size.y, top.of(size.y), bottom.of(size.y));
        cell(self.min + pt(x, y), width, height)
    }

    /// The cell cut into columns and rows of even size, row by row from the top left. None without a column or a row.
    pub fn grid(&self, columns: usize, rows: usize) -> impl Iterator<Item = Self> + use<> {
        let (whole, counts) = (*self, pt(columns as f64, rows as f64));
        let one = move |row: usize, column: usize| {
            let (from, to) =
                (pt(column as f64, row as f64) / counts, pt(column as f64 + 1.0, row as f64 + 1.0) / counts);
            Self { min: whole.min + whole.size() * from, max: whole.min + whole.size() * to }
        };
        (0..rows).flat_map(move |row| (0..columns).map(move |column| one(row, column)))
    }

    /// The cell cut into columns of the given extents, from the left; what is left over is one more, at the end, where
    /// it has a width.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let page = cell((0.0, 0.0), 100.0, 40.0);
    /// let widths: Vec<f64> = page.split_across([part(0.2), 30.0.into()]).map(|cell| cell.size().x).collect();
    /// assert_eq!(widths, [20.0, 30.0, 50.0]);
    /// ```
    pub fn split_across<E: Into<Extent>>(
        &self,
        widths: impl IntoIterator<Item = E>,
    ) -> impl Iterator<Item = Self> {
        let whole = *self;
        pieces(whole.size().x, widths)
            .map(move |(from, width)| cell(whole.min + pt(from, 0.0), width, whole.size().y))
    }

    /// The cell cut into rows of the given extents, from the top; as [`Cell::split_across`].
    pub fn split_down<E: Into<Extent>>(
        &self,
        heights: impl IntoIterator<Item = E>,
    ) -> impl Iterator<Item = Self> {
        let whole = *self;
        pieces(whole.size().y, heights)
            .map(move |(from, height)| cell(whole.min + pt(0.0, from), whole.size().x, height))
    }
}

/// Where a side begins and how long it is without its margins.
fn narrowed(whole: f64, before: f64, behind: f64) -> (f64, f64) {
    let rest = whole - before - behind;
    if rest >= 0.0 {
        return (before, rest);
    }
    let both = before + behind;
    (if both > 0.0 { whole * (before / both).clamp(0.0, 1.0) } else { 0.0 }, 0.0)
}

/// Where each piece of a length begins, and how long it is; no piece goes past the end.
fn pieces<E: Into<Extent>>(
    whole: f64,
    lengths: impl IntoIterator<Item = E>,
) -> impl Iterator<Item = (f64, f64)> {
    let mut begin = 0.0;
    let mut all: Vec<(f64, f64)> = lengths
        .into_iter()
        .map(|length| {
            let length = kept(length.into().of(whole), 0.0, (whole - begin).max(0.0));
            let piece = (begin, length);
            begin += length;
            piece
        })
        .collect();
    if whole - begin > 0.0 {
        all.push((begin, whole - begin));
    }
    all.into_iter()
}
