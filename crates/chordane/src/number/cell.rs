//! Cells: rectangles that shapes are made to fit; and extents, which mix shares of them with fixed lengths.

use std::ops::{Add, Div, Mul, Neg, Sub};

use super::{Point, pt};

/// A share of a length that is not known yet, plus a fixed length.
///
/// ```
/// use chordane::prelude::*;
/// let shaft = part(0.75) + 12.0;
/// assert_eq!((shaft.of(100.0), shaft.of(10.0)), (87.0, 19.5));
/// assert_eq!((part(1.0) - shaft).of(100.0), 13.0);
/// ```
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct Extent {
    share: f64,
    fixed: f64,
}

/// A share of a length: 0.7 of whatever it turns out to be.
#[must_use]
pub fn part(share: f64) -> Extent {
    Extent { share, fixed: 0.0 }
}

impl Extent {
    /// The length itself, once it is known what the share is of.
    #[must_use]
    pub fn of(self, whole: f64) -> f64 {
        self.share * whole + self.fixed
    }
}

/// A plain number is a fixed length.
impl From<f64> for Extent {
    fn from(fixed: f64) -> Self {
        Self { share: 0.0, fixed }
    }
}

impl<E: Into<Extent>> Add<E> for Extent {
    type Output = Self;

    fn add(self, other: E) -> Self {
        let other = other.into();
        Self { share: self.share + other.share, fixed: self.fixed + other.fixed }
    }
}

impl<E: Into<Extent>> Sub<E> for Extent {
    type Output = Self;

    fn sub(self, other: E) -> Self {
        self + -other.into()
    }
}

impl Neg for Extent {
    type Output = Self;

    fn neg(self) -> Self {
        self * -1.0
    }
}

impl Mul<f64> for Extent {
    type Output = Self;

    fn mul(self, factor: f64) -> Self {
        Self { share: self.share * factor, fixed: self.fixed * factor }
    }
}

impl Div<f64> for Extent {
    type Output = Self;

    fn div(self, by: f64) -> Self {
        self * (1.0 / by)
    }
}

/// How far along a side of a cell: a plain number is a share of the side, an [`Extent`] what it says.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Along(Extent);

impl From<f64> for Along {
    fn from(share: f64) -> Self {
        Self(part(share))
    }
}

impl From<Extent> for Along {
    fn from(extent: Extent) -> Self {
        Self(extent)
    }
}

/// How much is taken off each side of a cell: one extent for all four, or two for left and right and for top and
/// bottom, or four for the top, right, bottom and left one.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Inset([Extent; 4]);

impl<E: Into<Extent>> From<E> for Inset {
    fn from(all: E) -> Self {
        Self([all.into(); 4])
    }
}

impl<E: Into<Extent>> From<[E; 2]> for Inset {
    fn from([beside, above]: [E; 2]) -> Self {
        let (x, y) = (beside.into(), above.into());
        Self([y, x, y, x])
    }
}

impl<E: Into<Extent>> From<[E; 4]> for Inset {
    fn from(sides: [E; 4]) -> Self {
        Self(sides.map(Into::into))
    }
}

/// An upright rectangle that a shape is made to fit, by its corner with the least x and y and its size.
///
/// A shape that is written once as a function of a cell comes out right at every size:
///
/// ```
/// use chordane::prelude::*;
/// fn pennant(cell: Cell) -> Path {
///     Path::closed([cell.at(0.0, 0.0), cell.at(part(1.0) - 12.0, 0.5), cell.at(0.0, 1.0)])
/// }
/// assert_eq!(pennant(cell((10.0, 20.0), 100.0, 40.0)).data(), "M10 20 98 40 10 60Z");
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Cell {
    /// The corner with the least x and y: top left on a sheet with y down.
    pub corner: Point,
    /// Width and height, never negative.
    pub size: Point,
}

/// A cell by its corner with the least x and y, its width and its height. A negative size counts as zero.
#[must_use]
pub fn cell(corner: impl Into<Point>, width: f64, height: f64) -> Cell {
    Cell { corner: corner.into(), size: pt(width.max(0.0), height.max(0.0)) }
}

impl Cell {
    /// A place in the cell: 0 to 1 across and down for plain numbers, which may also lie outside, or extents.
    #[must_use]
    pub fn at(&self, across: impl Into<Along>, down: impl Into<Along>) -> Point {
        self.corner + pt(across.into().0.of(self.size.x), down.into().0.of(self.size.y))
    }

    /// The left side's x.
    #[must_use]
    pub fn left(&self) -> f64 {
        self.corner.x
    }

    /// The right side's x.
    #[must_use]
    pub fn right(&self) -> f64 {
        self.corner.x + self.size.x
    }

    /// The y of the side with the least y: the upper one on a sheet with y down.
    #[must_use]
    pub fn top(&self) -> f64 {
        self.corner.y
    }

    /// The y of the side with the greatest y: the lower one on a sheet with y down.
    #[must_use]
    pub fn bottom(&self) -> f64 {
        self.corner.y + self.size.y
    }

    /// The middle.
    #[must_use]
    pub fn centre(&self) -> Point {
        self.corner + self.size * 0.5
    }

    /// The cell with a margin taken off inside. Margins that meet leave a cell of no size, where they meet in
    /// proportion; negative ones make it larger.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let page = cell((0.0, 0.0), 200.0, 100.0);
    /// assert_eq!(page.inset(10.0), cell((10.0, 10.0), 180.0, 80.0));
    /// assert_eq!(page.inset([part(0.25), 10.0.into()]), cell((50.0, 10.0), 100.0, 80.0));
    /// assert_eq!(page.inset([0.0, 50.0, 0.0, 250.0]).size.x, 0.0);
    /// ```
    #[must_use]
    pub fn inset(&self, by: impl Into<Inset>) -> Self {
        let Inset([top, right, bottom, left]) = by.into();
        let (x, width) = narrowed(self.size.x, left.of(self.size.x), right.of(self.size.x));
        let (y, height) = narrowed(self.size.y, top.of(self.size.y), bottom.of(self.size.y));
        Self { corner: self.corner + pt(x, y), size: pt(width, height) }
    }

    /// The cell cut into columns and rows of even size, row by row from the top left. None without a column or a row.
    pub fn grid(&self, columns: usize, rows: usize) -> impl Iterator<Item = Self> + use<> {
        let (whole, counts) = (*self, pt(columns as f64, rows as f64));
        let one = move |row: usize, column: usize| {
            let (from, to) =
                (pt(column as f64, row as f64) / counts, pt(column as f64 + 1.0, row as f64 + 1.0) / counts);
            let corner = whole.corner + whole.size * from;
            Self { corner, size: whole.corner + whole.size * to - corner }
        };
        (0..rows).flat_map(move |row| (0..columns).map(move |column| one(row, column)))
    }

    /// The cell cut into columns of the given extents, from the left; what is left over is one more, at the end, where
    /// it has a width.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let page = cell((0.0, 0.0), 100.0, 40.0);
    /// let widths: Vec<f64> = page.split_across([part(0.2), 30.0.into()]).map(|cell| cell.size.x).collect();
    /// assert_eq!(widths, [20.0, 30.0, 50.0]);
    /// ```
    pub fn split_across<E: Into<Extent>>(
        &self,
        widths: impl IntoIterator<Item = E>,
    ) -> impl Iterator<Item = Self> {
        let whole = *self;
        pieces(whole.size.x, widths).map(move |(from, width)| Self {
            corner: whole.corner + pt(from, 0.0),
            size: pt(width, whole.size.y),
        })
    }

    /// The cell cut into rows of the given extents, from the top; as [`Cell::split_across`].
    pub fn split_down<E: Into<Extent>>(
        &self,
        heights: impl IntoIterator<Item = E>,
    ) -> impl Iterator<Item = Self> {
        let whole = *self;
        pieces(whole.size.y, heights).map(move |(from, height)| Self {
            corner: whole.corner + pt(0.0, from),
            size: pt(whole.size.x, height),
        })
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
            let length = length.into().of(whole).clamp(0.0, (whole - begin).max(0.0));
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

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_grid_covers_its_cell_without_gaps() {
        let page = cell((3.0, -7.0), 100.0, 37.0);
        let cells: Vec<Cell> = page.grid(7, 3).collect();
        assert_eq!((cells.len(), cells[0].corner), (21, page.corner));
        for row in cells.chunks(7) {
            for pair in row.windows(2) {
                assert!((pair[0].right() - pair[1].left()).abs() < 1e-12);
            }
            assert!((row[6].right() - page.right()).abs() < 1e-12);
        }
        assert!((cells[20].bottom() - page.bottom()).abs() < 1e-12);
        assert_eq!(page.grid(0, 4).count() + page.grid(4, 0).count(), 0);
    }

    #[test]
    fn extents_add_up_and_places_may_lie_outside() {
        let extent = (part(0.5) + 4.0) * 2.0 - part(0.25) / 2.0;
        assert_eq!(extent.of(80.0), 80.0 + 8.0 - 10.0);
        let page = cell((0.0, 0.0), 10.0, 20.0);
        assert_eq!(page.at(1.5, -0.5), pt(15.0, -10.0));
        assert_eq!(page.at(part(1.0) - 1.0, Extent::from(3.0)), pt(9.0, 3.0));
        assert_eq!(cell((1.0, 2.0), -5.0, 5.0).size, pt(0.0, 5.0));
        assert_eq!(page.inset([part(0.5), part(0.75)]).corner, pt(5.0, 10.0));
        assert_eq!(page.split_down([15.0, 15.0]).map(|c| c.size.y).collect::<Vec<_>>(), [15.0, 5.0]);
        assert_eq!(page.split_across([-3.0]).map(|c| c.size.x).collect::<Vec<_>>(), [0.0, 10.0]);
    }
}
