//! Polygons ready to be filled: cut to the picture, their edges sorted where there are many.

use super::cover::{BAND_ROWS, Band, Edge, Filler};
use super::ink::Ink;
use super::layers::PixelRect;
use super::pixel::Pixel;
use super::shader::Shader;
use crate::ground::{Fault, FaultKind};
use crate::number::Point;
use crate::path::FillRule;
use crate::reshape::FlatPath;

/// No vertex may lie farther out than this many pixels: beyond it, the places where edges meet the picture's rim
/// are no longer known to a fraction of a pixel.
const MAX_COORDINATE_PIXELS: f64 = 1e9;

/// From this many edges on, a polygon's edges are sorted into the bands beforehand.
const BUCKET_THRESHOLD: usize = 512;

/// Polygons, one after the other in one storage.
#[derive(Debug, Default)]
pub(super) struct Polygons {
    points: Vec<[f32; 2]>,
    ends: Vec<u32>,
}

/// A polygon in the storage of its chunk.
#[derive(Debug)]
pub(super) struct Shape {
    /// Where its points, and its entries in `ends`, begin and end.
    points: (u32, u32),
    ends: (u32, u32),
    /// Pixels from left to right, which may reach one beyond the picture on either side, and rows from top to
    /// bottom, ends not included.
    across: (i32, i32),
    down: (i32, i32),
    rule: FillRule,
    convex: bool,
    ink: Ink,
    sorted: Option<Box<SortedEdges>>,
}

/// The edges of a large polygon, band by band; one that runs through several bands stands in each.
#[derive(Debug)]
struct SortedEdges {
    edges: Vec<Edge>,
    /// Where each band's edges end, and the first band.
    ends: Vec<usize>,
    first_band: usize,
}

/// Refuses what lies too far out.
pub(super) fn within_reach(value: f64) -> Result<(), Fault> {
    if value <= MAX_COORDINATE_PIXELS {
        Ok(())
    } else {
        Err(Fault::of("draw", FaultKind::TooFar { value, limit: MAX_COORDINATE_PIXELS }))
    }
}

impl Polygons {
    /// Adds a polygon to be filled, cut to the picture. Nothing where it cannot be seen.
    pub(super) fn push(
        &mut self,
        flat: &FlatPath,
        rule: FillRule,
        ink: Ink,
        (width, height): (usize, usize),
    ) -> Result<Option<Shape>, Fault> {
        if ink.is_invisible() {
            return Ok(None);
        }
        let (mut low, mut high) = (Point::INFINITY, Point::NEG_INFINITY);
        for p in &flat.points {
            (low, high) = (low.min(*p), high.max(*p));
        }
        let value = low.abs().max(high.abs()).max_element();
        if flat.points.is_empty() {
            return Ok(None);
        }
        within_reach(value)?;
        let size = Point::new(width as f64, height as f64);
        if high.cmple(Point::ZERO).any() || low.cmpge(size).any() {
            return Ok(None);
        }
        let (points, ends) = (self.points.len() as u32, self.ends.len() as u32);
        // One pixel beyond the rim, what lies outside is drawn onto the rim's line: it keeps its winding and
        // costs nothing.
        let rim = (Point::NEG_ONE, size + 1.0);
        let clear = low.cmpge(rim.0).all() && high.cmple(rim.1).all();
        for polygon in flat.polygons() {
            if clear {
                self.points.extend(polygon.iter().map(|p| [p.x as f32, p.y as f32]));
            } else {
                self.push_cut(polygon, rim);
            }
            self.ends.push(self.points.len() as u32);
        }
        let (low, high) = (low.max(rim.0), high.min(rim.1));
        let mut shape = Shape {
            points: (points, self.points.len() as u32),
            ends: (ends, self.ends.len() as u32),
            across: (low.x.floor() as i32, high.x.ceil() as i32),
            down: (low.y.floor().max(0.0) as i32, (high.y.ceil() as i32).min(height as i32)),
            rule,
            convex: false,
            ink,
            sorted: None,
        };
        shape.convex = ends + 1 == self.ends.len() as u32 && is_convex(self.polygon(&shape));
        if shape.points.1 - shape.points.0 >= BUCKET_THRESHOLD as u32 && shape.bands(height).len() > 1 {
            shape.sorted = Some(Box::new(self.sort(&shape, height)));
        }
        Ok(Some(shape))
    }

    /// Adds a polygon that reaches beyond the rim: its sides are cut where they pass the rim's four lines, and
    /// the parts outside moved onto the rim.
    fn push_cut(&mut self, polygon: &[Point], rim: (Point, Point)) {
        let begin = self.points.len();
        let mut from = polygon.last().copied().unwrap_or_default();
        for &to in polygon {
            let step = to - from;
            let mut shares = [
                (rim.0.x - from.x) / step.x,
                (rim.1.x - from.x) / step.x,
                (rim.0.y - from.y) / step.y,
                (rim.1.y - from.y) / step.y,
                1.0,
            ];
            shares.sort_by(f64::total_cmp);
            for share in shares {
                if share > 0.0 && share <= 1.0 {
                    let p = if share == 1.0 { to } else { from + step * share };
                    let p = p.clamp(rim.0, rim.1);
                    let p = [p.x as f32, p.y as f32];
                    // The same point twice is left out, but not one that ends the polygon before.
                    if self.points.len() == begin || self.points.last() != Some(&p) {
                        self.points.push(p);
                    }
                }
            }
            from = to;
        }
    }

    fn polygon(&self, shape: &Shape) -> &[[f32; 2]] {
        self.points.get(shape.points.0 as usize..shape.points.1 as usize).unwrap_or_default()
    }

    /// The edges of a shape's polygons, each closed.
    fn edges<'a>(&'a self, shape: &Shape) -> impl Iterator<Item = Edge> + Clone + 'a {
        let ends = self.ends.get(shape.ends.0 as usize..shape.ends.1 as usize).unwrap_or_default();
        let first = shape.points.0;
        ends.iter().enumerate().flat_map(move |(i, &end)| {
            let begin = i.checked_sub(1).and_then(|at| ends.get(at)).copied().unwrap_or(first);
            closed_edges(self.points.get(begin as usize..end as usize).unwrap_or_default())
        })
    }

    fn sort(&self, shape: &Shape, height: usize) -> SortedEdges {
        let bands = shape.bands(height);
        let first_band = bands.start;
        let touched = |edge: &Edge| {
            let top = (edge.y0.max(0.0) as usize / BAND_ROWS).clamp(first_band, bands.end - 1);
            let bottom = (edge.y1.max(0.0) as usize / BAND_ROWS).clamp(first_band, bands.end - 1);
            top - first_band..bottom - first_band + 1
        };
        let mut ends = vec![0_usize; bands.len()];
        for edge in self.edges(shape) {
            for count in ends.get_mut(touched(&edge)).unwrap_or_default() {
                *count += 1;
            }
        }
        let mut sum = 0;
        for end in &mut ends {
            sum += std::mem::replace(end, sum);
        }
        let mut edges = vec![Edge { x0: 0.0, y0: 0.0, x1: 0.0, y1: 0.0, winding: 0 }; sum];
        for edge in self.edges(shape) {
            for at in ends.get_mut(touched(&edge)).unwrap_or_default() {
                if let Some(place) = edges.get_mut(*at) {
                    *place = edge;
                }
                *at += 1;
            }
        }
        SortedEdges { edges, ends, first_band }
    }

    /// Fills a shape into a band.
    pub(super) fn fill<P: Pixel>(
        &self,
        shape: &Shape,
        filler: &mut Filler,
        band: &mut Band<'_, P>,
        (number, whole): (usize, bool),
    ) {
        let number = (number, whole);
        match &shape.ink {
            Ink::Solid(solid) => self.fill_with(shape, filler, band, number, *solid),
            Ink::Shading(shading) => self.fill_with(shape, filler, band, number, &**shading),
            Ink::Sampler(sampler) => self.fill_with(shape, filler, band, number, &**sampler),
        }
    }

    fn fill_with<P: Pixel>(
        &self,
        shape: &Shape,
        filler: &mut Filler,
        band: &mut Band<'_, P>,
        (number, whole): (usize, bool),
        ink: impl Shader,
    ) {
        if let Some(sorted) = &shape.sorted {
            let at = number - sorted.first_band;
            let begin = at.checked_sub(1).and_then(|before| sorted.ends.get(before)).copied().unwrap_or(0);
            let end = sorted.ends.get(at).copied().unwrap_or(0);
            let edges = sorted.edges.get(begin..end).unwrap_or_default();
            filler.fill(band, edges.iter().copied(), (shape.rule, whole), ink);
            return;
        }
        if shape.convex && !whole {
            let edges = closed_edges(self.polygon(shape));
            if filler.convex(band, edges, shape.across, shape.down, ink) {
                return;
            }
        }
        filler.fill(band, self.edges(shape), (shape.rule, whole), ink);
    }
}

impl Shape {
    /// Whether it hides what is below it.
    pub(super) fn is_opaque(&self) -> bool {
        self.ink.is_opaque()
    }

    /// The pixels that it lies in, cut to the picture.
    pub(super) fn extent(&self, (width, height): (usize, usize)) -> PixelRect {
        let cut =
            |(from, to): (i32, i32), most: usize| (from.max(0) as usize, (to.max(0) as usize).min(most));
        PixelRect { across: cut(self.across, width), down: cut(self.down, height) }
    }

    /// The bands that the shape's rows lie in.
    fn bands(&self, height: usize) -> std::ops::Range<usize> {
        let top = self.down.0.max(0) as usize;
        let bottom = (self.down.1.max(0) as usize).min(height);
        if bottom <= top { 0..0 } else { top / BAND_ROWS..bottom.div_ceil(BAND_ROWS) }
    }
}

/// The edges of one polygon, its closing side included.
#[inline]
fn closed_edges(points: &[[f32; 2]]) -> impl Iterator<Item = Edge> + Clone + '_ {
    let closing = points.last().zip(points.first()).and_then(|(a, b)| Edge::between(*a, *b));
    points.windows(2).filter_map(|pair| Edge::between(pair[0], pair[1])).chain(closing)
}

/// Whether a polygon turns one way only, and once: then its winding number is the same wherever it is not zero.
///
/// All turns of one sign are not enough: a line that doubles back on itself turns by nothing, and so may go round
/// more than once. One round goes to and fro once along x and once along y.
fn is_convex(points: &[[f32; 2]]) -> bool {
    if points.len() < 3 || points.len() > 64 {
        return false;
    }
    let last = |back: usize| points.get(points.len() - back).copied().unwrap_or_default();
    let (mut before, mut here) = (last(2), last(1));
    let mut turned = 0.0_f32;
    let mut heading = [here[0] - before[0], here[1] - before[1]];
    let mut reversals = [0; 2];
    for &next in points {
        let (came, goes) =
            ([here[0] - before[0], here[1] - before[1]], [next[0] - here[0], next[1] - here[1]]);
        let cross = came[0] * goes[1] - came[1] * goes[0];
        if cross * turned < 0.0 {
            return false;
        }
        if cross != 0.0 {
            turned = cross;
        }
        for axis in 0..2 {
            if goes[axis] * heading[axis] < 0.0 {
                reversals[axis] += 1;
            }
            if goes[axis] != 0.0 {
                heading[axis] = goes[axis];
            }
        }
        (before, here) = (here, next);
    }
    reversals[0] <= 2 && reversals[1] <= 2
}

#[cfg(test)]
mod tests {
    use super::is_convex;

    #[test]
    fn only_what_goes_round_once_is_convex() {
        assert!(is_convex(&[[0.0, 0.0], [4.0, 0.0], [4.0, 0.0], [5.0, 3.0], [0.0, 4.0]]));
        assert!(!is_convex(&[[0.0, 0.0], [4.0, 4.0], [4.0, 0.0], [0.0, 4.0]]));
        assert!(!is_convex(&[[0.0, 0.0], [5.0, 0.0], [2.0, 1.0], [2.0, 5.0]]));
        // Twice round.
        let star = [0.0_f32, 144.0, 288.0, 72.0, 216.0].map(|a| [a.to_radians().cos(), a.to_radians().sin()]);
        assert!(!is_convex(&star));
    }

    /// A crossed shape whose lower half was cut off at the rim: its cut side doubles back on itself, so that no
    /// corner turned the wrong way, and the two halves were filled as if they did not overlap.
    #[test]
    fn a_side_that_doubles_back_is_not_convex() {
        assert!(!is_convex(&[
            [6.46, 11.0],
            [1.0, 0.0],
            [7.14, 0.0],
            [0.79, 11.0],
            [0.0, 11.0],
            [6.76, 11.0]
        ]));
    }
}
