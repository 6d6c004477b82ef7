//! Small convex polygons: no two of their edges overlap, so the areas are added up edge by edge for all rows at
//! once, without sorting.

use super::Edge;

/// The most cells of a tile; beyond it the rows are filled one by one.
pub(super) const MAX_CELLS: usize = 4096;

/// The changes of coverage of a small rectangle of pixels, row after row.
#[derive(Debug)]
pub(super) struct Tile {
    changes: Vec<f32>,
    left: i32,
    top: i32,
    /// Cells a row: two more than pixels.
    stride: usize,
}

impl Default for Tile {
    fn default() -> Self {
        Self { changes: vec![0.0; MAX_CELLS + 8], left: 0, top: 0, stride: 1 }
    }
}

impl Tile {
    /// Takes the place for a new polygon; what was there must have been drained.
    pub(super) fn place(&mut self, left: i32, top: i32, width: usize) {
        (self.left, self.top, self.stride) = (left, top, width + 2);
    }

    /// Adds an edge within the rows `top..bottom` of the picture.
    #[inline]
    pub(super) fn edge(&mut self, edge: &Edge, bottom: i32) {
        let (top, bottom) = (edge.y0.max(self.top as f32), edge.y1.min(bottom as f32));
        if top >= bottom {
            return;
        }
        let slope = (edge.x1 - edge.x0) / (edge.y1 - edge.y0);
        let winding = edge.winding as f32;
        let (x0, y0) = (edge.x0 - self.left as f32, edge.y0);
        let x_at = |y: f32| x0 + (y - y0) * slope;
        let mut y = top;
        let mut x = x_at(y);
        let mut row = y as i32;
        let mut base = (row - self.top) as usize * self.stride;
        while y < bottom {
            let next_y = ((row + 1) as f32).min(bottom);
            let next_x = x_at(next_y);
            let dy = (next_y - y) * winding;
            let (left, right) = if x < next_x { (x, next_x) } else { (next_x, x) };
            let (left, right) = (left.max(0.0), right.max(0.0).min((self.stride - 2) as f32));
            let (first, last) = (left as usize, right as usize);
            if first == last {
                let beyond = ((left + right) * 0.5 - first as f32) * dy;
                self.add(base + first, dy - beyond);
                self.add(base + first + 1, beyond);
            } else {
                self.shallow(base, left, right, dy);
            }
            (x, y) = (next_x, next_y);
            row += 1;
            base += self.stride;
        }
    }

    #[inline]
    fn add(&mut self, cell: usize, change: f32) {
        if let Some(sum) = self.changes.get_mut(cell) {
            *sum += change;
        }
    }

    /// A piece over several pixels of a row; see `Row::piece`.
    fn shallow(&mut self, base: usize, left: f32, right: f32, dy: f32) {
        let slope = dy / (right - left);
        let (mut covered, mut before) = (0.0, 0.0);
        let (first, last) = (left as usize, right as usize);
        for slot in first..=last {
            let begin = left.max(slot as f32);
            let end = right.min((slot + 1) as f32);
            let height = (end - begin) * slope;
            let area = covered + height * ((slot + 1) as f32 - 0.5 * (begin + end));
            self.add(base + slot, area - before);
            before = area;
            covered += height;
        }
        self.add(base + last + 1, dy - before);
    }

    /// The cells of the first `rows` rows, to be read and set to zero.
    pub(super) fn rows(&mut self, rows: usize) -> impl Iterator<Item = &mut [f32]> {
        let stride = self.stride;
        self.changes.chunks_exact_mut(stride).take(rows)
    }
}
