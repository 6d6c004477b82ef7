//! Places to put things at.

use super::{Cell, Point, deg, polar, pt};

/// `n` places that fill a disc evenly round the origin, each a golden angle farther round than the one before: place `i`
/// is at the spacing times the square root of `i + 1/2`, so that each has the same share of the disc.
///
/// Source: H. Vogel, A better way to construct the sunflower head, 1979. None for `n` of 0.
///
/// ```
/// use chordane::prelude::*;
/// let seeds: Vec<Point> = golden_places(200, 5.0).collect();
/// assert!(seeds.iter().all(|seed| seed.length() < 5.0 * 200.0_f64.sqrt()));
/// ```
pub fn golden_places(n: usize, spacing: f64) -> impl ExactSizeIterator<Item = Point> + Clone {
    // A full turn over the golden number squared; whole turns taken off before they grow large.
    let step = 2.0 / (3.0 + 5.0_f64.sqrt());
    (0..n).map(move |i| polar(deg(360.0 * (i as f64 * step).fract()), spacing * (i as f64 + 0.5).sqrt()))
}

impl Cell {
    /// Cells of a honeycomb within the cell: as large as fit, in the middle of it, row by row from the top left, every
    /// second row half a cell to the right. Each bounds a regular hexagon that stands on a corner, its neighbours'
    /// sides on its own; see [`Cell::hexagon`]. None without a column or a row.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// use chordane::number::Cell;
    /// let comb: Vec<Cell> = cell((0.0, 0.0), 350.0, 200.0).honeycomb(3, 2).collect();
    /// assert_eq!(comb.len(), 6);
    /// // Of the same width, and half a cell apart.
    /// assert!((comb[3].left() - comb[0].left() - 0.5 * comb[0].size().x).abs() < 1e-9);
    /// ```
    pub fn honeycomb(&self, columns: usize, rows: usize) -> impl Iterator<Item = Self> + use<> {
        let shift = if rows > 1 { 0.5 } else { 0.0 };
        let (across, down) = (columns as f64 + shift, 0.75 * rows.saturating_sub(1) as f64 + 1.0);
        // A hexagon that stands on a corner is so much higher than wide.
        let slender = 2.0 / 3.0_f64.sqrt();
        let whole = self.size();
        let width = (whole.x / across).min(whole.y / (down * slender));
        let size = pt(width, width * slender);
        let corner = self.centre() - size * pt(across, down) * 0.5;
        let one = move |row: usize, column: usize| {
            let right = column as f64 + if row % 2 == 1 { shift } else { 0.0 };
            super::cell(corner + size * pt(right, 0.75 * row as f64), size.x, size.y)
        };
        (0..rows).flat_map(move |row| (0..columns).map(move |column| one(row, column)))
    }
}
