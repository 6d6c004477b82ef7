//! The plan of a picture: the scene's items as polygons in pixels, in the order of drawing.
//!
//! Making the plan is spread over threads item by item, drawing it band by band. Neither depends on how many
//! threads there are: the items are grouped and the bands cut by fixed counts. A layer with effects needs all its pixels at once: it is
//! a plan of its own, drawn between what is drawn band by band before it and after it.

use std::sync::Arc;

use super::blend;
use super::blur::Plane;
use super::cover::{BAND_ROWS, Filler};
use super::effects::PixelEffect;
use super::ink::{Ink, Stores, Surface};
use super::items::{Drawn, View};
use super::jobs::{Job, JobList};
use super::layers::{Ending, Extent, Layer, Stack, Top};
use super::parts::{LayerPart, MaskPart, Part, parts};
use super::pixel::{Deep, Pixel};
use super::sampler::Sampler;
use super::shapes::Shape;
use crate::ground::{Fault, spent, threads};
use crate::number::{Cell, Point};
use crate::path::Affine;
use crate::scene::Scene;
use crate::shape::rectangle;
use crate::sheet::{Level, Paint, Pattern, Sheet};

/// Steps that are planned together.
const STEPS_A_CHUNK: usize = 256;

/// A job with polygons.
#[derive(Debug)]
enum Task {
    Fill(Shape),
    Begin(usize),
    End(usize),
    /// One of the chunk's [`Whole`]s.
    Whole(usize),
}

/// Polygons of a group of items.
#[derive(Default)]
struct Chunk {
    drawn: Drawn,
    tasks: Vec<Task>,
    wholes: Vec<Whole>,
}

/// A layer that is drawn with all its pixels at once.
struct Whole {
    plan: Plan,
    /// Where its top left corner lies in the picture that it is put on.
    corner: (i64, i64),
    effects: Vec<PixelEffect>,
    ending: Ending,
}

/// So many translucent things over one another in a band are painted on pixels that keep more than eight bits, so that the picture's are rounded
/// once.
const MANY_CLEAR: usize = 6;

/// What a band has to do: tasks (chunk, place in it), and how many of them are translucent.
#[derive(Clone, Default)]
struct Duties {
    tasks: Vec<(u32, u32)>,
    clear: usize,
}

/// What is drawn band by band, and the layer that comes after it.
struct Stretch {
    bands: Vec<Duties>,
    then: Option<(u32, u32)>,
}

/// A picture ready to be drawn.
pub(super) struct Plan {
    chunks: Vec<Chunk>,
    layers: Vec<Layer>,
    stretches: Vec<Stretch>,
    ground: Option<Ink>,
    size: (usize, usize),
    /// Whether pixels are painted whole or not at all.
    whole: bool,
}

impl Plan {
    /// Plans the drawing of a sheet, which a transform puts on the picture.
    pub(super) fn of(sheet: &Sheet, to_pixels: &Affine, view: &View) -> Result<Self, Fault> {
        let scene = sheet.seen_through(&(*to_pixels * sheet.upright()))?;
        let mut plan = Self::of_parts(&parts(&scene), &scene, None, view)?;
        let cell = sheet.cell();
        // Whatever the sheet's y, its ground is measured as it is seen.
        let surface = Surface {
            path: &rectangle(cell.min, cell.size().x, cell.size().y),
            bounds: Some(cell),
            placed: Affine::IDENTITY,
            to_pixels: *to_pixels,
            half_width: None,
            size: view.size(),
        };
        let mut stores = Stores::default();
        plan.ground = match &sheet.ground {
            Some(Paint::Pattern(pattern)) => {
                Some(tile(pattern, &(*to_pixels * *pattern.transform()), 1.0, &mut stores, view.tolerance)?)
            }
            Some(paint) => Some(Ink::new(paint, 1.0, &surface, &mut stores)),
            None => None,
        };
        Ok(plan)
    }

    /// Plans the drawing of parts of a scene, and of what cuts a layer of them off.
    fn of_parts<'a>(
        parts: &[Part<'a>],
        scene: &Scene<'a>,
        cut_by: Option<&LayerPart<'a>>,
        view: &View,
    ) -> Result<Self, Fault> {
        let mut list = JobList::default();
        list.add_all(parts, scene);
        if let Some(layer) = cut_by {
            list.cut(layer);
        }
        let (jobs, mut layers) = (list.jobs, list.layers);
        let chunks: Vec<Chunk> = threads::map(0..jobs.len().div_ceil(STEPS_A_CHUNK), 1, |i| {
            plan_chunk(jobs.chunks(STEPS_A_CHUNK).nth(i).unwrap_or_default(), view)
        })
        .into_iter()
        .collect::<Result<_, _>>()?;
        measure_layers(&chunks, &mut layers, view.size());
        let stretches = stretches(&chunks, &layers, view.size());
        Ok(Self { chunks, layers, stretches, ground: None, size: view.size(), whole: view.whole })
    }

    /// Draws over what the pixels hold.
    pub(super) fn draw<P: Pixel>(&self, pixels: &mut [P]) {
        let width = self.size.0;
        if pixels.is_empty() || width == 0 {
            return;
        }
        for (number, stretch) in self.stretches.iter().enumerate() {
            let idle = number > 0 && stretch.bands.iter().all(|duties| duties.tasks.is_empty());
            let drawn_on = if idle { &mut [][..] } else { &mut *pixels };
            threads::change_chunks(drawn_on, BAND_ROWS * width, Filler::default, |filler, b, rows| {
                let top = b * BAND_ROWS;
                if let Some(ground) = self.ground.as_ref().filter(|_| number == 0) {
                    ground.rows(top, width, rows);
                }
                let Some(duties) = stretch.bands.get(b) else { return };
                if P::DEEP || duties.clear < MANY_CLEAR {
                    self.draw_band(duties, rows, b, filler);
                    return;
                }
                let mut deep: Vec<Deep> = rows.iter().map(|pixel| pixel.deep()).collect();
                self.draw_band(duties, &mut deep, b, filler);
                rows.iter_mut().zip(deep).for_each(|(pixel, deep)| *pixel = P::of_deep(deep));
            });
            let whole = stretch.then.and_then(|(c, t)| {
                let chunk = self.chunks.get(c as usize)?;
                let Some(Task::Whole(number)) = chunk.tasks.get(t as usize) else { return None };
                chunk.wholes.get(*number)
            });
            if let Some(whole) = whole {
                whole.draw(pixels, width);
            }
        }
    }
}

impl Plan {
    /// Does what a band has to do, on its pixels.
    fn draw_band<P: Pixel>(&self, duties: &Duties, rows: &mut [P], b: usize, filler: &mut Filler) {
        let width = self.size.0;
        let mut stack = Stack::new(rows, b * BAND_ROWS, width);
        for &(c, t) in &duties.tasks {
            if spent(20 + width / 16) {
                break;
            }
            let Some(chunk) = self.chunks.get(c as usize) else { continue };
            match chunk.tasks.get(t as usize) {
                Some(Task::Fill(shape)) => match stack.top() {
                    Top::Base(mut band) => {
                        chunk.drawn.polygons.fill(shape, filler, &mut band, (b, self.whole));
                    }
                    Top::Layer(mut band) => {
                        chunk.drawn.polygons.fill(shape, filler, &mut band, (b, self.whole));
                    }
                },
                Some(Task::Begin(layer)) => {
                    self.layers.get(*layer).into_iter().for_each(|layer| stack.begin(layer));
                }
                Some(Task::End(layer)) => {
                    self.layers.get(*layer).into_iter().for_each(|layer| stack.end(layer));
                }
                Some(Task::Whole(_)) | None => {}
            }
        }
    }
}

impl Whole {
    /// Plans a layer of a scene; `None` where nothing of it can be seen.
    fn of<'a>(layer: &LayerPart<'a>, scene: &Scene<'a>, view: &View) -> Result<Option<Self>, Fault> {
        let ending = Ending::Over(layer.opacity as f32, layer.blend);
        let Some(window) = window(layer.reach(scene), layer.beyond, view) else { return Ok(None) };
        let plan = Plan::of_parts(&layer.parts, scene, Some(layer), &window.0)?;
        Ok(Some(Self { plan, corner: window.1, effects: layer.effects.clone(), ending }))
    }

    /// Plans the drawing of a mask. Where nothing of it is seen, nothing is left of what it masks.
    fn of_mask(mask: &MaskPart<'_>, view: &View) -> Result<Self, Fault> {
        let window = window(super::parts::reach(&mask.parts, &mask.scene), Point::ZERO, view);
        let (view, corner) = window.unwrap_or((View { width: 0, height: 0, ..*view }, (0, 0)));
        let plan = Plan::of_parts(&mask.parts, &mask.scene, None, &view)?;
        Ok(Self { plan, corner, effects: Vec::new(), ending: Ending::Mask(mask.kind) })
    }

    fn draw<P: Pixel>(&self, below: &mut [P], width: usize) {
        let (own, rows) = self.plan.size;
        if spent(own * rows / 4) {
            return;
        }
        let mut plane = Plane { width: own, pixels: vec![Deep::CLEAR; own * rows] };
        self.plan.draw(&mut plane.pixels);
        for effect in &self.effects {
            plane = effect.apply(plane);
        }
        let (left, top) = self.corner;
        let row_of = |y: usize| {
            let y = usize::try_from(y as i64 - top).ok()?;
            plane.pixels.get(y * own..(y + 1) * own).filter(|row| !row.is_empty())
        };
        // Its columns that lie on the picture.
        let from = usize::try_from(-left).unwrap_or(0);
        let begin = usize::try_from(left).unwrap_or(0);
        threads::change_chunks(
            below,
            BAND_ROWS * width.max(1),
            || (),
            |(), b, rows| {
                for (row, y) in rows.chunks_mut(width.max(1)).zip(b * BAND_ROWS..) {
                    let above = row_of(y).and_then(|above| above.get(from..)).unwrap_or_default();
                    match self.ending {
                        Ending::Over(opacity, mode) => {
                            if let Some(row) = row.get_mut(begin..) {
                                blend::layer(row, above, opacity, mode);
                            }
                        }
                        Ending::Mask(kind) => {
                            for (pixel, x) in row.iter_mut().zip(0_usize..) {
                                let shown = x.checked_sub(begin).and_then(|x| above.get(x)).copied();
                                let mut deep = pixel.deep();
                                blend::mask(&mut deep, shown.unwrap_or(Deep::CLEAR), kind);
                                *pixel = P::of_deep(deep);
                            }
                        }
                    }
                }
            },
        );
    }
}

/// The part of the plane on which something is drawn that is seen in a picture, or makes what is seen by effects that reach so far; and
/// where its corner lies in that picture.
fn window(reach: Option<Cell>, by: Point, view: &View) -> Option<(View, (i64, i64))> {
    let reach = reach?;
    let room = Cell { min: -by, max: Point::new(view.width as f64, view.height as f64) + by };
    let (min, max) =
        ((reach.min + view.shift).max(room.min).floor(), (reach.max + view.shift).min(room.max).ceil());
    if !min.cmplt(max).all() {
        return None;
    }
    let size = max - min;
    let own = View { width: size.x as usize, height: size.y as usize, shift: view.shift - min, ..*view };
    Some((own, (min.x as i64, min.y as i64)))
}

/// What each band has to do, between the layers that are drawn whole.
fn stretches(chunks: &[Chunk], layers: &[Layer], size: (usize, usize)) -> Vec<Stretch> {
    let count = size.1.div_ceil(BAND_ROWS);
    let begin = || Stretch { bands: vec![Duties::default(); count], then: None };
    let mut stretches: Vec<Stretch> = Vec::new();
    let mut now = begin();
    let mut open: Vec<usize> = Vec::new();
    for (c, chunk) in chunks.iter().enumerate() {
        for (t, task) in chunk.tasks.iter().enumerate() {
            let reached = |number: &usize| layers.get(*number).map_or(0..0, |l| l.extent.bands(BAND_ROWS));
            let touched = match task {
                Task::Fill(shape) => {
                    let own = shape.extent(size).bands(BAND_ROWS);
                    // What cuts a layer off may reach farther than the layer does.
                    let layer = open.last().map_or(0..count, reached);
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
                Task::Whole(_) => {
                    now.then = Some((c as u32, t as u32));
                    stretches.push(std::mem::replace(&mut now, begin()));
                    continue;
                }
            };
            let clear = match task {
                Task::Fill(shape) => open.is_empty() && !shape.is_opaque(),
                Task::End(_) => open.is_empty(),
                Task::Begin(_) | Task::Whole(_) => false,
            };
            for band in now.bands.get_mut(touched).unwrap_or_default() {
                band.tasks.push((c as u32, t as u32));
                band.clear += usize::from(clear);
            }
        }
    }
    stretches.push(now);
    stretches
}

/// Finds out which pixels each layer reaches: those that are drawn on in it and in the layers in it, and that its masks and the layers around it
/// may leave. A mask is looked at wherever the layer that it cuts is.
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
                let Some(&done) = layers.get(*number) else { continue };
                if let Some(parent) = done.parent.and_then(|at| layers.get_mut(at)) {
                    parent.extent = match done.ending {
                        Ending::Over(..) => parent.extent.union(done.extent),
                        Ending::Mask(_) => parent.extent.shared(done.extent),
                    };
                }
            }
            Task::Whole(_) => {}
        }
    }
    // Nothing in a layer is drawn where the layer itself is not; those around come first.
    for number in 0..layers.len() {
        let Some(&Layer { parent, ending, extent }) = layers.get(number) else { continue };
        let around = parent.map_or(Some(Extent::whole(size)), |at| layers.get(at).map(|layer| layer.extent));
        if let (Some(around), Some(layer)) = (around, layers.get_mut(number)) {
            layer.extent = match ending {
                Ending::Over(..) => extent.shared(around),
                Ending::Mask(_) => around,
            };
        }
    }
}

fn plan_chunk(jobs: &[Job<'_, '_>], view: &View) -> Result<Chunk, Fault> {
    let mut chunk = Chunk::default();
    for job in jobs {
        if spent(20) {
            break;
        }
        match job {
            Job::Begin(layer) => chunk.tasks.push(Task::Begin(*layer)),
            Job::End(layer) => chunk.tasks.push(Task::End(*layer)),
            Job::Clip(path, to_pixels) => {
                let shape = chunk.drawn.clip(path, to_pixels, view)?;
                chunk.tasks.extend(shape.map(Task::Fill));
            }
            Job::Whole(layer, scene) => {
                let whole = Whole::of(layer, scene, view)?;
                chunk.push_whole(whole);
            }
            Job::WholeMask(mask) => {
                let whole = Whole::of_mask(mask, view)?;
                chunk.push_whole(Some(whole));
            }
            Job::Item(placed) => {
                let named = |fault: Fault| fault.on_item(placed.item().name(), placed.line());
                let tiled = |pattern: &Pattern, map: &Affine, opacity: f64, stores: &mut Stores| {
                    tile(pattern, map, opacity, stores, view.tolerance)
                };
                let tasks = &mut chunk.tasks;
                chunk
                    .drawn
                    .item(placed, view, &tiled, |shape| tasks.push(Task::Fill(shape)))
                    .map_err(named)?;
            }
        }
    }
    Ok(chunk)
}

/// So many numbers of pixels a tile may have before it is drawn less finely.
const MOST_FINE: f64 = 4e6;

/// A pattern ready to be put on pixels by a map: its drawing, several times as fine as they are.
fn tile(
    pattern: &Pattern,
    map: &Affine,
    opacity: f64,
    stores: &mut Stores,
    tolerance: f64,
) -> Result<Ink, Fault> {
    let cell = pattern.cell();
    let size = cell.size() * Point::new(map.matrix2.x_axis.length(), map.matrix2.y_axis.length());
    let sound = map.is_finite() && map.matrix2.determinant() != 0.0 && size.min_element() > 0.0;
    if !sound || pattern.nodes().is_empty() {
        return Ok(Ink::nothing());
    }
    let fine = |spots: u32| size.x * size.y * f64::from(spots * spots) <= MOST_FINE;
    let spots = [4, 2].into_iter().find(|spots| fine(*spots)).unwrap_or(1);
    // A tile that is larger than most pictures is drawn as coarsely as it must be.
    let less = (4.0 * MOST_FINE / (size.x * size.y)).sqrt().min(1.0);
    let most = MOST_FINE.sqrt() * 4.0;
    let drawn = (size * less * f64::from(spots)).ceil().clamp(Point::splat(8.0), Point::splat(most));
    let to_tile = Affine::from_scale(drawn / cell.size()) * Affine::from_translation(-cell.min);
    let key = (Arc::as_ptr(pattern.drawing()) as usize, map.matrix2.to_cols_array().map(f64::to_bits));
    let (level, spots) = match stores.tiles.get(&key) {
        Some(known) => known.clone(),
        None => {
            let scene = Scene::of(pattern.nodes(), &to_tile).sound()?;
            let (width, height) = (drawn.x as usize, drawn.y as usize);
            let view = View {
                width,
                height,
                shift: Point::ZERO,
                to_sheet: to_tile.inverse(),
                tolerance,
                whole: false,
            };
            let plan = Plan::of_parts(&parts(&scene), &scene, None, &view)?;
            let mut deep = vec![Deep::CLEAR; width * height];
            plan.draw(&mut deep);
            let byte = |channel: f32| (channel * 255.0 + 0.5) as u8;
            let pixels = deep.into_iter().map(|pixel| pixel.map(byte)).collect();
            let made = (Arc::new(Level { width, pixels }), spots);
            stores.tiles.insert(key, made.clone());
            made
        }
    };
    let to_pixels = *map * to_tile.inverse();
    Ok(Ink::Sampler(Box::new(Sampler::tile(level, spots, opacity, &to_pixels))))
}

impl Chunk {
    fn push_whole(&mut self, whole: Option<Whole>) {
        if let Some(whole) = whole {
            self.tasks.push(Task::Whole(self.wholes.len()));
            self.wholes.push(whole);
        }
    }
}
