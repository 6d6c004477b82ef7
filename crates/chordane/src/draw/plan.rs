//! The plan of a picture: the sheet's items as polygons in pixels, in the order of drawing.
//!
//! Making the plan is spread over threads item by item, drawing it band by band. Neither depends on how many
//! threads there are: the items are grouped and the bands cut by fixed counts.

use rayon::prelude::*;

use super::blend::{self, Ink, Rgba};
use super::cover::{BAND_ROWS, Band, Edge, Filler};
use crate::fault::{Fault, FaultKind};
use crate::number::Point;
use crate::path::{Affine, Contour, FillRule, Path, flatten_segment};
use crate::reshape::{FlatPath, Outline};
use crate::sheet::{Colour, Item, Node, Sheet};

/// No vertex may lie farther out than this many pixels: beyond it, the places where edges meet the picture's rim
/// are no longer known to a fraction of a pixel.
pub(super) const FARTHEST: f64 = 1e9;

/// Items that are flattened together.
const ITEMS_A_CHUNK: usize = 256;

/// From this many edges on, a polygon's edges are sorted into the bands beforehand.
const MANY_EDGES: usize = 512;

/// What an item without fill and stroke is drawn with.
pub(super) const DRAFT_COLOUR: Colour = Colour { red: 0.42, green: 0.45, blue: 0.5, alpha: 1.0 };

/// The size of the picture, how the sheet lies in it, and how far chords may stray, in pixels.
#[derive(Clone, Copy, Debug)]
pub(super) struct View {
    pub(super) width: usize,
    pub(super) height: usize,
    pub(super) to_pixels: Affine,
    pub(super) tolerance: f64,
}

/// One thing to do, in order.
enum Step<'a> {
    Item {
        item: &'a Item,
        to_pixels: Affine,
    },
    /// Begins a layer that is put on what is below it when it ends.
    Begin,
    End {
        opacity: f32,
    },
    /// Cuts the layer off where a path would not be filled.
    Clip {
        path: &'a Path,
        to_pixels: Affine,
    },
}

/// A polygon in the storage of its chunk.
struct Shape {
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
struct SortedEdges {
    edges: Vec<Edge>,
    /// Where each band's edges end, and the first band.
    ends: Vec<usize>,
    first_band: usize,
}

/// Polygons of a group of items.
#[derive(Default)]
struct Chunk {
    points: Vec<[f32; 2]>,
    ends: Vec<u32>,
    tasks: Vec<Task>,
}

enum Task {
    Fill(Shape),
    Begin,
    End {
        opacity: f32,
    },
    /// Ends a layer and leaves of the one below only what it covers.
    Mask,
}

/// A picture ready to be drawn.
pub(super) struct Plan {
    chunks: Vec<Chunk>,
    /// Which tasks (chunk, place in it) each band has to do.
    bands: Vec<Vec<(u32, u32)>>,
    ground: Option<Ink>,
    width: usize,
}

impl Plan {
    /// Plans the drawing of a sheet.
    pub(super) fn of(sheet: &Sheet, view: &View) -> Result<Self, Fault> {
        sheet.sound()?;
        let mut steps = Vec::new();
        let to_pixels = view.to_pixels * sheet.upright();
        sheet.nodes.iter().for_each(|node| gather(node, &to_pixels, &mut steps));
        let chunks: Vec<Chunk> =
            steps.par_chunks(ITEMS_A_CHUNK).map(|steps| plan_chunk(steps, view)).collect::<Result<_, _>>()?;
        let mut bands = vec![Vec::new(); view.height.div_ceil(BAND_ROWS)];
        for (c, chunk) in chunks.iter().enumerate() {
            for (t, task) in chunk.tasks.iter().enumerate() {
                let touched = match task {
                    Task::Fill(shape) => shape.bands(view.height),
                    Task::Begin | Task::End { .. } | Task::Mask => 0..bands.len(),
                };
                for band in bands.get_mut(touched).unwrap_or_default() {
                    band.push((c as u32, t as u32));
                }
            }
        }
        Ok(Self { chunks, bands, ground: sheet.ground.map(Ink::new), width: view.width })
    }

    /// Draws over what the pixels hold.
    pub(super) fn draw(&self, pixels: &mut [Rgba]) {
        pixels.par_chunks_mut(BAND_ROWS * self.width).enumerate().for_each_init(
            Filler::default,
            |filler, (b, rows)| {
                if let Some(ground) = self.ground {
                    ground.span(rows, 1.0);
                }
                let mut layers = Layers { base: rows, stack: Vec::new() };
                let (top, width) = (b * BAND_ROWS, self.width);
                for &(c, t) in self.bands.get(b).map_or(&[][..], Vec::as_slice) {
                    let Some(chunk) = self.chunks.get(c as usize) else { continue };
                    match chunk.tasks.get(t as usize) {
                        Some(Task::Fill(shape)) => {
                            let mut band = Band { top, width, pixels: layers.current() };
                            chunk.fill(shape, filler, &mut band, b);
                        }
                        Some(Task::Begin) => layers.stack.push(Vec::new()),
                        Some(Task::End { opacity }) => layers.end(*opacity),
                        Some(Task::Mask) => layers.mask(),
                        None => {}
                    }
                }
            },
        );
    }
}

/// The pixels of a band, and the layers on it that have begun. A layer takes no storage until it is drawn on.
struct Layers<'a> {
    base: &'a mut [Rgba],
    stack: Vec<Vec<Rgba>>,
}

impl Layers<'_> {
    fn current(&mut self) -> &mut [Rgba] {
        let size = self.base.len();
        match self.stack.last_mut() {
            Some(layer) => {
                layer.resize(size, [0; 4]);
                layer
            }
            None => self.base,
        }
    }

    fn mask(&mut self) {
        let (mask, layer) = (self.stack.pop(), self.stack.last_mut());
        if let (Some(mask), Some(layer)) = (mask, layer) {
            if mask.is_empty() {
                layer.clear();
            }
            blend::mask(layer, &mask);
        }
    }

    fn end(&mut self, opacity: f32) {
        if let Some(layer) = self.stack.pop()
            && !layer.is_empty()
        {
            blend::layer(self.current(), &layer, opacity);
        }
    }
}

/// Lists the items below a node, with their transforms, and the layers between them.
fn gather<'a>(node: &'a Node, to_pixels: &Affine, steps: &mut Vec<Step<'a>>) {
    match node {
        Node::Item(item) => {
            let to_pixels = *to_pixels * item.transform;
            let style = &item.style;
            // Fill and stroke fade together; one alone fades by its colour.
            let layered = style.opacity < 1.0 && style.fill.is_some() && style.stroke.is_some();
            if layered {
                steps.push(Step::Begin);
            }
            steps.push(Step::Item { item, to_pixels });
            if layered {
                steps.push(Step::End { opacity: style.opacity as f32 });
            }
        }
        Node::Group(group) => {
            let to_pixels = *to_pixels * group.transform;
            let layered = group.opacity < 1.0 || group.clip.is_some();
            if layered {
                steps.push(Step::Begin);
            }
            group.nodes.iter().for_each(|node| gather(node, &to_pixels, steps));
            if let Some(path) = &group.clip {
                steps.push(Step::Clip { path, to_pixels });
            }
            if layered {
                steps.push(Step::End { opacity: group.opacity as f32 });
            }
        }
    }
}

fn plan_chunk(steps: &[Step<'_>], view: &View) -> Result<Chunk, Fault> {
    let mut chunk = Chunk::default();
    let mut flat = FlatPath::default();
    for step in steps {
        match step {
            Step::Begin => chunk.tasks.push(Task::Begin),
            Step::End { opacity } => chunk.tasks.push(Task::End { opacity: *opacity }),
            Step::Clip { path, to_pixels } => plan_clip(path, to_pixels, view, &mut flat, &mut chunk)?,
            Step::Item { item, to_pixels } => plan_item(item, to_pixels, view, &mut flat, &mut chunk)?,
        }
    }
    Ok(chunk)
}

/// Adds a layer with the area of a clip, and what makes it a mask.
fn plan_clip(
    path: &Path,
    to_pixels: &Affine,
    view: &View,
    flat: &mut FlatPath,
    chunk: &mut Chunk,
) -> Result<(), Fault> {
    reachable(path, to_pixels)?;
    chunk.tasks.push(Task::Begin);
    flat.clear();
    path.contours().iter().for_each(|contour| push_transformed(contour, to_pixels, view.tolerance, flat));
    chunk.push(flat, path.fill_rule(), DRAFT_COLOUR, view)?;
    chunk.tasks.push(Task::Mask);
    Ok(())
}

/// Adds the polygons of an item's fill and stroke.
fn plan_item(
    item: &Item,
    to_pixels: &Affine,
    view: &View,
    flat: &mut FlatPath,
    chunk: &mut Chunk,
) -> Result<(), Fault> {
    let style = &item.style;
    reachable(&item.path, to_pixels)?;
    let opacity = if style.fill.is_some() && style.stroke.is_some() { 1.0 } else { style.opacity };
    if let Some(colour) = style.fill {
        flat.clear();
        item.path
            .contours()
            .iter()
            .for_each(|contour| push_transformed(contour, to_pixels, view.tolerance, flat));
        chunk.push(flat, item.path.fill_rule(), colour.faded(opacity), view)?;
    }
    if style.paints_nothing() {
        flat.clear();
        Outline::new(1.0).outline_into(&item.path.transformed(to_pixels), view.tolerance, flat);
        chunk.push(flat, FillRule::Nonzero, DRAFT_COLOUR, view)?;
    } else if let Some(colour) = style.stroke {
        flat.clear();
        stroke(&item.path, &style.outline, to_pixels, view.tolerance, flat);
        chunk.push(flat, FillRule::Nonzero, colour.faded(opacity), view)?;
    }
    Ok(())
}

/// Refuses a path that reaches too far out, before the work of flattening it.
fn reachable(path: &Path, to_pixels: &Affine) -> Result<(), Fault> {
    let Some(bounds) = path.control_bounds() else { return Ok(()) };
    let corners = [
        bounds.min,
        bounds.max,
        Point::new(bounds.min.x, bounds.max.y),
        Point::new(bounds.max.x, bounds.min.y),
    ];
    let farthest = |far: f64, p: Point| far.max(p.abs().max_element());
    within_reach(corners.into_iter().map(|p| to_pixels.transform_point2(p)).fold(0.0, farthest))
}

fn within_reach(value: f64) -> Result<(), Fault> {
    if value <= FARTHEST {
        Ok(())
    } else {
        Err(Fault::new("draw", FaultKind::TooFar { value, limit: FARTHEST }))
    }
}

/// Adds a contour, transformed and then flattened.
fn push_transformed(contour: &Contour, by: &Affine, tolerance: f64, flat: &mut FlatPath) {
    flat.points.push(by.transform_point2(contour.start()));
    for segment in contour.segments() {
        flatten_segment(&segment.transformed(by), tolerance, |p| flat.points.push(p));
    }
    flat.end_polygon();
}

/// The area of a stroke in pixels. The stroke is built before the transform, which may squash it.
fn stroke(path: &Path, outline: &Outline, to_pixels: &Affine, tolerance: f64, flat: &mut FlatPath) {
    let linear = to_pixels.matrix2;
    let scale = linear.x_axis.length().max(linear.y_axis.length());
    if scale > 0.0 {
        outline.outline_into(path, tolerance / scale, flat);
        flat.points.iter_mut().for_each(|p| *p = to_pixels.transform_point2(*p));
    }
}

impl Chunk {
    /// Adds a polygon to be filled, cut to the picture. Nothing where it cannot be seen.
    fn push(&mut self, flat: &FlatPath, rule: FillRule, colour: Colour, view: &View) -> Result<(), Fault> {
        let ink = Ink::new(colour);
        if ink.is_invisible() {
            return Ok(());
        }
        let (mut low, mut high) = (Point::INFINITY, Point::NEG_INFINITY);
        for p in &flat.points {
            (low, high) = (low.min(*p), high.max(*p));
        }
        let value = low.abs().max(high.abs()).max_element();
        if flat.points.is_empty() {
            return Ok(());
        }
        within_reach(value)?;
        let size = Point::new(view.width as f64, view.height as f64);
        if high.cmple(Point::ZERO).any() || low.cmpge(size).any() {
            return Ok(());
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
            down: (low.y.floor().max(0.0) as i32, (high.y.ceil() as i32).min(view.height as i32)),
            rule,
            convex: false,
            ink,
            sorted: None,
        };
        shape.convex = ends + 1 == self.ends.len() as u32 && is_convex(self.polygon(&shape));
        if shape.points.1 - shape.points.0 >= MANY_EDGES as u32 && shape.bands(view.height).len() > 1 {
            shape.sorted = Some(Box::new(self.sort(&shape, view.height)));
        }
        self.tasks.push(Task::Fill(shape));
        Ok(())
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
    fn fill(&self, shape: &Shape, filler: &mut Filler, band: &mut Band<'_>, number: usize) {
        if let Some(sorted) = &shape.sorted {
            let at = number - sorted.first_band;
            let begin = at.checked_sub(1).and_then(|before| sorted.ends.get(before)).copied().unwrap_or(0);
            let end = sorted.ends.get(at).copied().unwrap_or(0);
            let edges = sorted.edges.get(begin..end).unwrap_or_default();
            filler.fill(band, edges.iter().copied(), shape.rule, shape.ink);
            return;
        }
        if shape.convex {
            let edges = closed_edges(self.polygon(shape));
            if filler.convex(band, edges, shape.across, shape.down, shape.ink) {
                return;
            }
        }
        filler.fill(band, self.edges(shape), shape.rule, shape.ink);
    }
}

impl Shape {
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
