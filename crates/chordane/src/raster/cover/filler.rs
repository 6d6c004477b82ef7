//! Walking the edges of a polygon through the rows of a band.

use super::resolve::{Piece, Resolver};
use super::row::Row;
use super::tile::{MAX_CELLS, Tile};
use super::{BAND_ROWS, Edge};
use crate::ground::exhausted;
use crate::path::FillRule;
use crate::raster::pixel::Pixel;
use crate::raster::shader::Shader;

/// Fills polygons into one band of a picture. Holds the storage that is used again for each.
#[derive(Debug, Default)]
pub(in crate::raster) struct Filler {
    row: Row,
    tile: Tile,
    resolver: Resolver,
    /// The edges in the order of the row in which they begin.
    edges: Vec<Edge>,
    begins: Vec<u32>,
    active: Vec<u32>,
    pieces: Vec<Piece>,
    /// Where edges cross the middle of a row, and their windings.
    crossing: Vec<(f64, i32)>,
}

/// A part of a picture: its first column and row, its width, and its pixels, row after row.
pub(in crate::raster) struct Band<'a, P> {
    pub(in crate::raster) left: usize,
    pub(in crate::raster) top: usize,
    pub(in crate::raster) width: usize,
    pub(in crate::raster) pixels: &'a mut [P],
}

impl<P> Band<'_, P> {
    pub(in crate::raster) fn rows(&self) -> usize {
        self.pixels.len() / self.width.max(1)
    }
}

impl Filler {
    /// Fills a convex polygon whose pixels, at most [`MAX_CELLS`] with two more a row, lie from `left` to
    /// `right` and in the rows from `top` to `bottom` of the picture, ends not included. False when it is too
    /// large for that.
    #[inline]
    pub(in crate::raster) fn convex<P: Pixel>(
        &mut self,
        band: &mut Band<'_, P>,
        edges: impl Iterator<Item = Edge>,
        across: (i32, i32),
        down: (i32, i32),
        ink: impl Shader,
    ) -> bool {
        let (left, right) = across;
        let (top, bottom) = (down.0.max(band.top as i32), down.1.min((band.top + band.rows()) as i32));
        if right <= left || bottom <= top {
            return true;
        }
        let (width, height) = ((right - left) as usize, (bottom - top) as usize);
        if (width + 2) * height > MAX_CELLS {
            return false;
        }
        self.tile.place(left, top, width);
        for edge in edges {
            self.tile.edge(&edge, bottom);
        }
        // A part may lie outside the picture: on the left its cells are summed, on the right dropped.
        let hidden = (band.left as i32 - left).max(0) as usize;
        let first_row = (top - band.top as i32) as usize;
        let lines = band.pixels.chunks_exact_mut(band.width).skip(first_row);
        for ((cells, line), y) in self.tile.rows(height).zip(lines).zip(top as usize..) {
            let mut sum = 0.0;
            let (off, on) = cells.split_at_mut(hidden.min(cells.len()));
            off.iter_mut().for_each(|cell| sum += std::mem::take(cell));
            let begin = ((left - band.left as i32).max(0) as usize).min(line.len());
            let end = line.len().min(begin + width.saturating_sub(hidden));
            let pixels = line.get_mut(begin..end).unwrap_or_default();
            let mut run = 0;
            let mut cells = on.iter_mut();
            // Inside a convex shape the coverage is whole from its left edge to its right one: those runs are
            // painted at once, and only the pixels of the edges one by one.
            for (i, cell) in cells.by_ref().take(pixels.len()).enumerate() {
                let change = std::mem::take(cell);
                sum += change;
                let covered = f32::abs(sum);
                if covered > 0.9998 {
                    run += 1;
                    continue;
                }
                if run > 0 {
                    ink.span(
                        band.left + begin + i - run,
                        y,
                        pixels.get_mut(i - run..i).unwrap_or_default(),
                        1.0,
                    );
                    run = 0;
                }
                if covered > 0.0002
                    && let Some(pixel) = pixels.get_mut(i)
                {
                    ink.dot(band.left + begin + i, y, pixel, covered);
                }
            }
            if run > 0 {
                let end = pixels.len();
                ink.span(
                    band.left + begin + end - run,
                    y,
                    pixels.get_mut(end - run..).unwrap_or_default(),
                    1.0,
                );
            }
            cells.for_each(|cell| *cell = 0.0);
        }
        true
    }

    /// Fills a polygon of any kind from its edges. Edges outside the band's rows are passed over. Whole pixels alone are those whose
    /// middle lies inside.
    pub(in crate::raster) fn fill<P: Pixel>(
        &mut self,
        band: &mut Band<'_, P>,
        edges: impl Iterator<Item = Edge> + Clone,
        (rule, whole): (FillRule, bool),
        ink: impl Shader,
    ) {
        let rows = band.rows();
        let (top, bottom) = (band.top as f32, (band.top + rows) as f32);
        self.sort_by_row(edges.filter(|edge| edge.y1 > top && edge.y0 < bottom), top);
        self.row.fit(band.width);
        self.active.clear();
        let mut next = 0_usize;
        for (i, line) in band.pixels.chunks_exact_mut(band.width).enumerate() {
            if exhausted(2 * self.active.len()) {
                break;
            }
            let end = self.begins.get(i).map_or(0, |end| *end as usize);
            self.active.extend(next as u32..end as u32);
            next = next.max(end);
            if self.active.is_empty() {
                continue;
            }
            if whole {
                let y = top as f64 + i as f64 + 0.5;
                self.crossings(y);
                for run in self.whole_runs(rule, band.left as f64, band.width) {
                    let x = band.left + run.start;
                    if let Some(pixels) = line.get_mut(run) {
                        ink.span(x, band.top + i, pixels, 1.0);
                    }
                }
                let floor = top + (i + 1) as f32;
                let edges = &self.edges;
                self.active.retain(|&at| edges.get(at as usize).is_some_and(|edge| edge.y1 > floor));
                continue;
            }
            self.cut_row(band.left as f64, f64::from(top) + i as f64);
            self.resolver.resolve(&mut self.pieces, rule, &mut self.row);
            let floor = top + (i + 1) as f32;
            let edges = &self.edges;
            self.active.retain(|&at| edges.get(at as usize).is_some_and(|edge| edge.y1 > floor));
            self.row.drain(band.width, |x, length, coverage| {
                if let Some(pixels) = line.get_mut(x..x + length) {
                    ink.span(band.left + x, band.top + i, pixels, coverage);
                }
            });
        }
    }

    /// Where the active edges cross a height, from left to right.
    fn crossings(&mut self, y: f64) {
        self.crossing.clear();
        for edge in self.active.iter().filter_map(|&at| self.edges.get(at as usize)) {
            let (y0, y1) = (f64::from(edge.y0), f64::from(edge.y1));
            if y0 <= y && y < y1 {
                let (x0, x1) = (f64::from(edge.x0), f64::from(edge.x1));
                self.crossing.push((x0 + (x1 - x0) * (y - y0) / (y1 - y0), edge.winding));
            }
        }
        self.crossing.sort_unstable_by(|a, b| a.0.total_cmp(&b.0));
    }

    /// The runs of pixels whose middles lie inside, between those crossings.
    fn whole_runs(&self, rule: FillRule, left: f64, width: usize) -> Vec<std::ops::Range<usize>> {
        let column = |x: f64| (x - left - 0.5).ceil().clamp(0.0, width as f64) as usize;
        let (mut runs, mut winding, mut begin) = (Vec::new(), 0, 0.0);
        for &(x, change) in &self.crossing {
            let before = rule.encloses(winding);
            winding += change;
            match (before, rule.encloses(winding)) {
                (false, true) => begin = x,
                (true, false) => runs.push(column(begin)..column(x)),
                _ => {}
            }
        }
        runs
    }

    /// Sorts the edges by the row of the band in which they begin (a counting sort), and leaves in `begins` where
    /// each row's edges end.
    fn sort_by_row(&mut self, edges: impl Iterator<Item = Edge> + Clone, top: f32) {
        let row = |edge: &Edge| ((edge.y0 - top).max(0.0) as usize).min(BAND_ROWS - 1);
        self.begins.clear();
        self.begins.resize(BAND_ROWS, 0);
        let mut count = 0;
        for edge in edges.clone() {
            if let Some(slot) = self.begins.get_mut(row(&edge)) {
                *slot += 1;
            }
            count += 1;
        }
        let mut sum = 0;
        for slot in &mut self.begins {
            sum += std::mem::replace(slot, sum);
        }
        self.edges.clear();
        self.edges.resize(count, Edge { x0: 0.0, y0: 0.0, x1: 0.0, y1: 0.0, winding: 0 });
        for edge in edges {
            if let Some(slot) = self.begins.get_mut(row(&edge)) {
                if let Some(place) = self.edges.get_mut(*slot as usize) {
                    *place = edge;
                }
                *slot += 1;
            }
        }
    }

    /// Cuts the active edges to the row that begins at `top`, seen from the column `left`.
    #[inline]
    fn cut_row(&mut self, left: f64, top: f64) {
        self.pieces.clear();
        for &at in &self.active {
            let Some(edge) = self.edges.get(at as usize) else { continue };
            let (x0, y0) = (f64::from(edge.x0) - left, f64::from(edge.y0) - top);
            let (x1, y1) = (f64::from(edge.x1) - left, f64::from(edge.y1) - top);
            let slope = (x1 - x0) / (y1 - y0);
            let (xa, ya) = if y0 < 0.0 { (x0 - y0 * slope, 0.0) } else { (x0, y0) };
            let (xb, yb) = if y1 > 1.0 { (x0 + (1.0 - y0) * slope, 1.0) } else { (x1, y1) };
            if ya < yb {
                self.pieces.push(Piece { xa, ya, xb, yb, winding: edge.winding });
            }
        }
    }
}
