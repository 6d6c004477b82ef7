//! The plan of a picture: the scene's items as polygons in pixels, in the order of drawing.
//!
//! Making the plan is spread over threads item by item, drawing it band by band. Neither depends on how many
//! threads there are: the items are grouped and the bands cut by fixed counts.

use std::borrow::Cow;

use super::blend::Rgba;
use super::cover::{BAND_ROWS, Band, Filler};
use super::gradients::Tables;
use super::ink::Ink;
use super::layers::{Ending, Layer, Stack};
use super::reach::seen;
use super::shapes::{Polygons, Shape, within_reach};
use crate::ground::{Fault, spent, threads};
use crate::number::Point;
use crate::path::{Affine, Contour, FillRule, Path, flatten_segment};
use crate::reshape::{FlatPath, Outline};
use crate::scene::{Placed, Scene, Step, largest_scale};
use crate::sheet::{Colour, Paint, Sheet};

/// Steps that are planned together.
const STEPS_A_CHUNK: usize = 256;

/// What an item without fill and stroke is drawn with.
pub(crate) const DRAFT: Colour = Colour { red: 0.42, green: 0.45, blue: 0.5, alpha: 1.0 };

/// The size of the picture, how the sheet lies in it, and how far chords may stray, in pixels.
#[derive(Clone, Copy, Debug)]
pub(super) struct View {
    pub(super) width: usize,
    pub(super) height: usize,
    pub(super) to_pixels: Affine,
    /// From pixels back to the coordinates of what is added to the sheet.
    pub(super) to_sheet: Affine,
    pub(super) tolerance: f64,
}

/// One thing to do, in order.
#[derive(Clone, Copy)]
enum Job<'s, 'a> {
    Item(&'s Placed<'a>),
    /// The area of a clip, in a layer of its own.
    Clip(&'a Path, Affine),
    Begin(usize),
    End(usize),
}

/// The same with polygons.
#[derive(Debug)]
enum Task {
    Fill(Shape),
    Begin(usize),
    End(usize),
}

/// Polygons of a group of items.
#[derive(Default)]
struct Chunk {
    polygons: Polygons,
    tables: Tables,
    tasks: Vec<Task>,
}

/// A picture ready to be drawn.
pub(super) struct Plan {
    chunks: Vec<Chunk>,
    layers: Vec<Layer>,
    /// Which tasks (chunk, place in it) each band has to do.
    bands: Vec<Vec<(u32, u32)>>,
    ground: Option<Ink>,
    width: usize,
}

impl Plan {
    /// Plans the drawing of a sheet.
    pub(super) fn of(sheet: &Sheet, view: &View) -> Result<Self, Fault> {
        let to_pixels = view.to_pixels * sheet.upright();
        let scene = sheet.seen_through(&to_pixels)?;
        let (jobs, mut layers) = jobs(&scene);
        let chunks: Vec<Chunk> = threads::map(0..jobs.len().div_ceil(STEPS_A_CHUNK), 1, |i| {
            plan_chunk(jobs.chunks(STEPS_A_CHUNK).nth(i).unwrap_or_default(), view)
        })
        .into_iter()
        .collect::<Result<_, _>>()?;
        measure_layers(&chunks, &mut layers, (view.width, view.height));
        let mut bands = vec![Vec::new(); view.height.div_ceil(BAND_ROWS)];
        let mut open: Vec<usize> = Vec::new();
        for (c, chunk) in chunks.iter().enumerate() {
            for (t, task) in chunk.tasks.iter().enumerate() {
                let reached =
                    |number: &usize| layers.get(*number).map_or(0..0, |l| l.extent.bands(BAND_ROWS));
                let touched = match task {
                    Task::Fill(shape) => {
                        let own = shape.extent((view.width, view.height)).bands(BAND_ROWS);
                        // What cuts a layer off may reach farther than the layer does.
                        let layer = open.last().map_or(0..bands.len(), reached);
                        own.start.max(layer.start)..own.end.min(layer.end)
                    }
                    Task::Begin(layer) => {
                        open.push(*layer);
                        reached(layer)
                    }
                    Task::End(layer) => {
                        open.pop();
                        reached(layer)
                    }
                };
                for band in bands.get_mut(touched).unwrap_or_default() {
                    band.push((c as u32, t as u32));
                }
            }
        }
        let on = (Some(sheet.cell()), &Affine::IDENTITY, &to_pixels);
        let ground = sheet.ground.as_ref().map(|paint| Ink::new(paint, 1.0, on, &mut Tables::default()));
        Ok(Self { chunks, layers, bands, ground, width: view.width })
    }

    /// Draws over what the pixels hold.
    pub(super) fn draw(&self, pixels: &mut [Rgba]) {
        threads::change_chunks(pixels, BAND_ROWS * self.width, Filler::default, |filler, b, rows| {
            let (top, width) = (b * BAND_ROWS, self.width);
            if let Some(ground) = &self.ground {
                ground.rows(top, width, rows);
            }
            let mut stack = Stack::new(rows, width);
            for &(c, t) in self.bands.get(b).map_or(&[][..], Vec::as_slice) {
                if spent(20 + width / 16) {
                    break;
                }
                let Some(chunk) = self.chunks.get(c as usize) else { continue };
                match chunk.tasks.get(t as usize) {
                    Some(Task::Fill(shape)) => {
                        let mut band = Band { top, width, pixels: stack.current() };
                        chunk.polygons.fill(shape, filler, &mut band, b);
                    }
                    Some(Task::Begin(_)) => stack.begin(),
                    Some(Task::End(layer)) => self.layers.get(*layer).into_iter().for_each(|l| stack.end(l)),
                    None => {}
                }
            }
        });
    }
}

/// What is to be done, in order, and the layers that it takes.
fn jobs<'s, 'a>(scene: &'s Scene<'a>) -> (Vec<Job<'s, 'a>>, Vec<Layer>) {
    let mut jobs = Vec::with_capacity(scene.steps().len());
    let mut layers: Vec<Layer> = Vec::new();
    let mut begun: Vec<usize> = Vec::new();
    for step in scene.steps() {
        let mut begin = |jobs: &mut Vec<_>, begun: &mut Vec<usize>, ending| {
            jobs.push(Job::Begin(layers.len()));
            let parent = begun.last().copied();
            begun.push(layers.len());
            layers.push(Layer { parent, ending, extent: Default::default(), margin: 0 });
        };
        let end = |jobs: &mut Vec<_>, begun: &mut Vec<usize>| jobs.extend(begun.pop().map(Job::End));
        match *step {
            Step::Item(number) => {
                let Some(placed) = scene.items().get(number) else { continue };
                let style = placed.item().style();
                // Fill and stroke fade together; one alone fades by its colour.
                let apart = style.opacity < 1.0 && style.fill.is_some() && style.stroke_paint.is_some();
                if apart {
                    begin(&mut jobs, &mut begun, Ending::Over(style.opacity as f32));
                }
                jobs.push(Job::Item(placed));
                if apart {
                    end(&mut jobs, &mut begun);
                }
            }
            Step::Begin(number) => {
                let layer = scene.layers().get(number).filter(|layer| layer.is_apart());
                if let Some(layer) = layer {
                    begin(&mut jobs, &mut begun, Ending::Over(layer.group().opacity as f32));
                }
            }
            Step::End(number) => {
                let Some(layer) = scene.layers().get(number).filter(|layer| layer.is_apart()) else {
                    continue;
                };
                if let Some(path) = layer.group().clip_path() {
                    begin(&mut jobs, &mut begun, Ending::Mask);
                    jobs.push(Job::Clip(path, *layer.transform()));
                    end(&mut jobs, &mut begun);
                }
                end(&mut jobs, &mut begun);
            }
        }
    }
    (jobs, layers)
}

/// Finds out which pixels each layer reaches: those that are drawn on in it and in the layers in it. A mask is looked at
/// wherever the layer that it cuts is.
fn measure_layers(chunks: &[Chunk], layers: &mut [Layer], size: (usize, usize)) {
    let mut open: Vec<usize> = Vec::new();
    for task in chunks.iter().flat_map(|chunk| &chunk.tasks) {
        match task {
            Task::Begin(number) => open.push(*number),
            Task::Fill(shape) => {
                if let Some(layer) = open.last().and_then(|number| layers.get_mut(*number)) {
                    layer.extent = layer.extent.union(shape.extent(size));
                }
            }
            Task::End(number) => {
                open.pop();
                let Some(layer) = layers.get_mut(*number) else { continue };
                layer.extent = layer.extent.grown(layer.margin, size);
                let (done, parent) = (*layer, layer.parent);
                if let (Ending::Over(_), Some(parent)) =
                    (done.ending, parent.and_then(|at| layers.get_mut(at)))
                {
                    parent.extent = parent.extent.union(done.extent);
                }
            }
        }
    }
    for number in 0..layers.len() {
        let cut =
            layers.get(number).filter(|layer| matches!(layer.ending, Ending::Mask)).and_then(|l| l.parent);
        let extent = cut.and_then(|at| layers.get(at)).map(|layer| layer.extent);
        if let (Some(extent), Some(layer)) = (extent, layers.get_mut(number)) {
            layer.extent = extent;
        }
    }
}

fn plan_chunk(jobs: &[Job<'_, '_>], view: &View) -> Result<Chunk, Fault> {
    let mut chunk = Chunk::default();
    let mut flat = FlatPath::default();
    for job in jobs {
        if spent(20) {
            break;
        }
        match job {
            Job::Begin(layer) => chunk.tasks.push(Task::Begin(*layer)),
            Job::End(layer) => chunk.tasks.push(Task::End(*layer)),
            Job::Clip(path, to_pixels) => {
                reachable(path, to_pixels)?;
                flat.clear();
                path.contours()
                    .iter()
                    .for_each(|contour| push_transformed(contour, to_pixels, view.tolerance, &mut flat));
                chunk.push(&flat, path.fill_rule(), Ink::solid(DRAFT, 1.0), view)?;
            }
            Job::Item(placed) => {
                let named = |fault: Fault| fault.on_item(placed.item().name(), placed.line());
                plan_item(placed, view, &mut flat, &mut chunk).map_err(named)?;
            }
        }
    }
    Ok(chunk)
}

/// Adds the polygons of an item's fill and stroke.
fn plan_item(placed: &Placed<'_>, view: &View, flat: &mut FlatPath, chunk: &mut Chunk) -> Result<(), Fault> {
    let (item, to_pixels) = (placed.item(), placed.transform());
    let style = item.style();
    reachable(item.path(), to_pixels)?;
    let opacity = if style.fill.is_some() && style.stroke_paint.is_some() { 1.0 } else { style.opacity };
    let size = Point::new(view.width as f64, view.height as f64);
    // What one colour covers does not depend on where it lies.
    let shaded = |paint: &Option<Paint>| paint.as_ref().is_some_and(|paint| paint.colour().is_none());
    let bounds = (shaded(&style.fill) || shaded(&style.stroke_paint)).then(|| item.path().bounds()).flatten();
    let placed_on_sheet = view.to_sheet * *to_pixels;
    let on = (bounds, &placed_on_sheet, to_pixels);
    if let Some(paint) = &style.fill {
        flat.clear();
        seen(item.path(), to_pixels, size, 2.0)
            .contours()
            .iter()
            .for_each(|contour| push_transformed(contour, to_pixels, view.tolerance, flat));
        let ink = Ink::new(paint, opacity, on, &mut chunk.tables);
        chunk.push(flat, item.path().fill_rule(), ink, view)?;
    }
    if style.paints_nothing() {
        flat.clear();
        Outline::new(1.0).outline_into(&placed.path(), view.tolerance, flat);
        chunk.push(flat, FillRule::Nonzero, Ink::solid(DRAFT, 1.0), view)?;
    } else if let Some(paint) = &style.stroke_paint {
        flat.clear();
        let outline = style.get_stroke().outline();
        let reach = 0.5 * outline.width * outline.mitre_limit.max(2.0) * largest_scale(to_pixels) + 2.0;
        // Dashes go by the length, which must be that of the path as it is.
        let path = if outline.dash.is_empty() && reach.is_finite() {
            seen(item.path(), to_pixels, size, reach)
        } else {
            Cow::Borrowed(item.path())
        };
        stroke(&path, outline, to_pixels, view.tolerance, flat);
        let ink = Ink::new(paint, opacity, on, &mut chunk.tables);
        chunk.push(flat, FillRule::Nonzero, ink, view)?;
    }
    Ok(())
}

/// Refuses a path that reaches too far out, before the work of flattening it.
fn reachable(path: &Path, to_pixels: &Affine) -> Result<(), Fault> {
    let Some(bounds) = path.control_bounds() else { return Ok(()) };
    let far = bounds.corners().map(|corner| to_pixels.transform_point2(corner).abs().max_element());
    within_reach(far.into_iter().fold(0.0, f64::max))
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
    let scale = largest_scale(to_pixels);
    if scale > 0.0 {
        outline.outline_into(path, tolerance / scale, flat);
        flat.points.iter_mut().for_each(|p| *p = to_pixels.transform_point2(*p));
    }
}

impl Chunk {
    /// Adds a polygon to be filled. Nothing where it cannot be seen.
    fn push(&mut self, flat: &FlatPath, rule: FillRule, ink: Ink, view: &View) -> Result<(), Fault> {
        let shape = self.polygons.push(flat, rule, ink, (view.width, view.height))?;
        self.tasks.extend(shape.map(Task::Fill));
        Ok(())
    }
}
