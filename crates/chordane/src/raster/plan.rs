//! The plan of a picture: a display list's items as polygons in pixels, in drawing order.
//!
//! Making the plan is spread over threads item by item, drawing it band by band. Neither depends on how many
//! threads there are: the commands are grouped and the bands cut by fixed counts. A layer with effects needs all its pixels at once: it is
//! a plan of its own, drawn between what is drawn band by band before it and after it.

use std::ops::Range;
use std::sync::Arc;

use super::blend;
use super::blur::Plane;
use super::cover::{BAND_ROWS, Filler};
use super::effects::{self, PixelEffect};
use super::ink::{Ink, Stores, Surface};
use super::items::{Drawn, Target};
use super::layers::{Ending, LayerStack, PixelRect, PlaneLayer, Top};
use super::pixel::{Deep, Pixel};
use super::sampler::Sampler;
use super::shapes::Shape;
use crate::ground::{Fault, buffer, exhausted, threads};
use crate::number::{Cell, Point};
use crate::path::Affine;
use crate::scene::{Command, Coordinates, LayerKind, Scene};
use crate::shape::rectangle;
use crate::sheet::{Effect, Layered, Paint, Pattern, PictureLevel, Sheet};

/// Commands that are planned together.
const COMMANDS_A_CHUNK: usize = 256;

/// A command with its polygons.
enum Task {
    Fill(Shape),
    /// Begins or ends a layer of the plan.
    Begin(usize),
    End(usize),
    Isolated(Box<IsolatedLayer>),
}

/// The tasks of some commands, with their polygons.
#[derive(Default)]
struct Chunk {
    drawn: Drawn,
    tasks: Vec<Task>,
}

/// A layer that is drawn with all its pixels at once.
struct IsolatedLayer {
    plan: Plan,
    /// Where its top left corner lies in the picture that it is put on.
    corner: (i64, i64),
    effects: Vec<PixelEffect>,
    ending: Ending,
}

/// So many translucent things over one another in a band are painted on pixels that keep more than eight bits, so that the picture's are rounded
/// once.
const FLOAT_LAYER_THRESHOLD: usize = 6;

/// The tasks of a band (chunk, place in it), and how many of them are translucent.
#[derive(Clone, Default)]
struct BandCommands {
    tasks: Vec<(u32, u32)>,
    clear: usize,
}

/// The tasks that are drawn band by band, and the isolated layer that comes after them.
struct Pass {
    bands: Vec<BandCommands>,
    then: Option<(u32, u32)>,
}

/// A picture ready to be drawn.
pub(super) struct Plan {
    chunks: Vec<Chunk>,
    layers: Vec<PlaneLayer>,
    passes: Vec<Pass>,
    ground: Option<Ink>,
    size: (usize, usize),
    /// Whether pixels are painted whole or not at all.
    whole: bool,
}

impl Plan {
    /// Plans the drawing of a sheet, which a transform puts on the picture, from its display list in pixels.
    pub(super) fn of(
        sheet: &Sheet,
        scene: &Scene<'_>,
        to_pixels: &Affine,
        target: &Target,
    ) -> Result<Self, Fault> {
        let mut plan = Self::of_commands(scene, scene.all(), 0, target)?;
        let cell = sheet.cell();
        // Whatever the sheet's y, its ground is measured as it is seen.
        let surface = Surface {
            path: &rectangle(cell.min, cell.size().x, cell.size().y),
            bounds: Some(cell),
            placed: Affine::IDENTITY,
            to_pixels: *to_pixels,
            half_width: None,
            size: target.size(),
        };
        let mut stores = Stores::default();
        plan.ground = match &sheet.ground {
            Some(Paint::Pattern(pattern)) => {
                Some(tile(pattern, &(*to_pixels * pattern.transform), 1.0, &mut stores, target.tolerance)?)
            }
            Some(paint) => Some(Ink::new(paint, 1.0, &surface, &mut stores)),
            None => None,
        };
        Ok(plan)
    }

    /// Plans the drawing of some commands, whose layers have numbers from `first` on.
    fn of_commands(
        scene: &Scene<'_>,
        range: Range<usize>,
        first: usize,
        target: &Target,
    ) -> Result<Self, Fault> {
        let places = scene.walk(range.clone(), |layer| layer.needs_plane).map(|(at, _)| at);
        let starts: Vec<usize> = places.step_by(COMMANDS_A_CHUNK).collect();
        let chunks: Vec<Chunk> = threads::map(0..starts.len(), 1, |i| {
            let start = starts.get(i).copied().unwrap_or(range.end);
            plan_chunk(scene, start..range.end, first, target)
        })
        .into_iter()
        .collect::<Result<_, _>>()?;
        let mut layers = plane_layers(scene, range.end, first);
        measure_layers(&chunks, &mut layers, target.size());
        let passes = passes(&chunks, &layers, target.size());
        Ok(Self { chunks, layers, passes, ground: None, size: target.size(), whole: target.whole })
    }

    /// Draws over what the pixels hold.
    pub(super) fn draw<P: Pixel>(&self, pixels: &mut [P]) {
        let width = self.size.0;
        if pixels.is_empty() || width == 0 {
            return;
        }
        for (number, pass) in self.passes.iter().enumerate() {
            let idle = number > 0 && pass.bands.iter().all(|band| band.tasks.is_empty());
            let drawn_on = if idle { &mut [][..] } else { &mut *pixels };
            threads::change_chunks(drawn_on, BAND_ROWS * width, Filler::default, |filler, b, rows| {
                let top = b * BAND_ROWS;
                if let Some(ground) = self.ground.as_ref().filter(|_| number == 0) {
                    ground.rows(top, width, rows);
                }
                let Some(commands) = pass.bands.get(b) else { return };
                if P::IS_FLOAT || commands.clear < FLOAT_LAYER_THRESHOLD {
                    self.draw_band(commands, rows, b, filler);
                    return;
                }
                let mut deep: Vec<Deep> = rows.iter().map(|pixel| pixel.deep()).collect();
                self.draw_band(commands, &mut deep, b, filler);
                rows.iter_mut().zip(deep).for_each(|(pixel, deep)| *pixel = P::of_deep(deep));
            });
            let task = pass.then.and_then(|(c, t)| self.chunks.get(c as usize)?.tasks.get(t as usize));
            if let Some(Task::Isolated(layer)) = task {
                layer.draw(pixels, width);
            }
        }
    }
}

impl Plan {
    /// Does what a band has to do, on its pixels.
    fn draw_band<P: Pixel>(&self, commands: &BandCommands, rows: &mut [P], b: usize, filler: &mut Filler) {
        let width = self.size.0;
        let mut stack = LayerStack::new(rows, b * BAND_ROWS, width);
        for &(c, t) in &commands.tasks {
            if exhausted(20 + width / 16) {
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
                Some(Task::Isolated(_)) | None => {}
            }
        }
    }
}

impl IsolatedLayer {
    /// Plans a layer of a list, by its number; `None` where nothing of it can be seen.
    fn of(scene: &Scene<'_>, number: usize, target: &Target) -> Result<Option<Self>, Fault> {
        let Some(layer) = scene.layers().get(number) else { return Ok(None) };
        let beyond = effects::reach(layer.effects, &layer.transform);
        let painted = scene.reach(layer.commands.clone(), Coordinates::List, effects::reach);
        let reach = painted.map(|cell| Cell { min: cell.min - beyond, max: cell.max + beyond });
        let (own, corner) = match (window(reach, beyond, target), layer.kind) {
            (Some(window), _) => window,
            // Where nothing of a mask is seen, nothing is left of what it masks.
            (None, LayerKind::Mask(_)) => (Target { width: 0, height: 0, ..*target }, (0, 0)),
            (None, _) => return Ok(None),
        };
        let plan = Plan::of_commands(scene, layer.commands.clone(), number + 1, &own)?;
        let shown = layer.effects.iter().filter(|effect| Effect::shows(effect));
        let effects = shown.map(|effect| PixelEffect::of(effect, &layer.transform)).collect();
        Ok(Some(Self { plan, corner, effects, ending: Ending::of(layer) }))
    }

    fn draw<P: Pixel>(&self, below: &mut [P], width: usize) {
        let (own, rows) = self.plan.size;
        if exhausted(own * rows / 4) {
            return;
        }
        let Some(pixels) = buffer(Deep::CLEAR, own * rows) else { return };
        let mut plane = Plane { width: own, pixels };
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
fn window(reach: Option<Cell>, by: Point, target: &Target) -> Option<(Target, (i64, i64))> {
    let reach = reach?;
    let room = Cell { min: -by, max: Point::new(target.width as f64, target.height as f64) + by };
    let (min, max) =
        ((reach.min + target.shift).max(room.min).floor(), (reach.max + target.shift).min(room.max).ceil());
    if !min.cmplt(max).all() {
        return None;
    }
    let size = max - min;
    let own =
        Target { width: size.x as usize, height: size.y as usize, shift: target.shift - min, ..*target };
    Some((own, (min.x as i64, min.y as i64)))
}

/// The tasks of each band, in passes that end at isolated layers.
fn passes(chunks: &[Chunk], layers: &[PlaneLayer], size: (usize, usize)) -> Vec<Pass> {
    let count = size.1.div_ceil(BAND_ROWS);
    let begin = || Pass { bands: vec![BandCommands::default(); count], then: None };
    let mut passes: Vec<Pass> = Vec::new();
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
                Task::Isolated(_) => {
                    now.then = Some((c as u32, t as u32));
                    passes.push(std::mem::replace(&mut now, begin()));
                    continue;
                }
            };
            let clear = match task {
                Task::Fill(shape) => open.is_empty() && !shape.is_opaque(),
                Task::End(_) => open.is_empty(),
                Task::Begin(_) | Task::Isolated(_) => false,
            };
            for band in now.bands.get_mut(touched).unwrap_or_default() {
                band.tasks.push((c as u32, t as u32));
                band.clear += usize::from(clear);
            }
        }
    }
    passes.push(now);
    passes
}

/// Finds out which pixels each layer reaches: those that are drawn on in it and in the layers in it, and that its masks and the layers around it
/// may leave. A mask is looked at wherever the layer that it cuts is.
fn measure_layers(chunks: &[Chunk], layers: &mut [PlaneLayer], size: (usize, usize)) {
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
            Task::Isolated(_) => {}
        }
    }
    // Nothing in a layer is drawn where the layer itself is not; those around come first.
    for number in 0..layers.len() {
        let Some(&PlaneLayer { parent, ending, extent }) = layers.get(number) else { continue };
        let around =
            parent.map_or(Some(PixelRect::whole(size)), |at| layers.get(at).map(|layer| layer.extent));
        if let (Some(around), Some(layer)) = (around, layers.get_mut(number)) {
            layer.extent = match ending {
                Ending::Over(..) => extent.shared(around),
                Ending::Mask(_) => around,
            };
        }
    }
}

/// The layers of a plan, as those of the list from `first` on that lie before a place in it. A layer that does not isolate is one in name only.
fn plane_layers(scene: &Scene<'_>, end: usize, first: usize) -> Vec<PlaneLayer> {
    let mut layers: Vec<PlaneLayer> = Vec::new();
    for layer in scene.layers().iter().skip(first).take_while(|layer| layer.commands.start <= end) {
        let above = layer.parent.and_then(|at| at.checked_sub(first));
        let isolated = |at: usize| match scene.layers().get(first + at) {
            Some(layer) if layer.isolates => Some(at),
            _ => layers.get(at).and_then(|plain| plain.parent),
        };
        let parent = above.and_then(isolated);
        layers.push(PlaneLayer { parent, ending: Ending::of(layer), extent: PixelRect::default() });
    }
    layers
}

fn plan_chunk(scene: &Scene<'_>, range: Range<usize>, first: usize, target: &Target) -> Result<Chunk, Fault> {
    let mut chunk = Chunk::default();
    for (_, command) in scene.walk(range, |layer| layer.needs_plane).take(COMMANDS_A_CHUNK) {
        if exhausted(20) {
            break;
        }
        match command {
            Command::Push(number) => {
                let Some(layer) = scene.layers().get(number).filter(|layer| layer.isolates) else {
                    continue;
                };
                if layer.needs_plane {
                    let isolated = IsolatedLayer::of(scene, number, target)?;
                    chunk.tasks.extend(isolated.map(|layer| Task::Isolated(Box::new(layer))));
                    continue;
                }
                chunk.tasks.push(Task::Begin(number - first));
                if let Some(path) = layer.clip_path() {
                    let shape = chunk.drawn.clip(path, &layer.transform, target)?;
                    chunk.tasks.extend(shape.map(Task::Fill));
                }
            }
            Command::Pop(number) => {
                if scene.layers().get(number).is_some_and(|layer| layer.isolates) {
                    chunk.tasks.push(Task::End(number - first));
                }
            }
            Command::Draw(_) | Command::DrawInMask(_) => {
                let Some(placed) = scene.drawn(command) else { continue };
                let named = |fault: Fault| fault.on_item(placed.item.name(), placed.line());
                let tiled = |pattern: &Pattern, map: &Affine, opacity: f64, stores: &mut Stores| {
                    tile(pattern, map, opacity, stores, target.tolerance)
                };
                let tasks = &mut chunk.tasks;
                chunk
                    .drawn
                    .item(placed, target, &tiled, |shape| tasks.push(Task::Fill(shape)))
                    .map_err(named)?;
            }
        }
    }
    Ok(chunk)
}

/// So many numbers of pixels a tile may have before it is drawn less finely.
const MAX_SUPERSAMPLED_PIXELS: f64 = 4e6;

/// A pattern ready to be put on pixels by a map: its drawing, several times as fine as they are.
fn tile(
    pattern: &Pattern,
    map: &Affine,
    opacity: f64,
    stores: &mut Stores,
    tolerance: f64,
) -> Result<Ink, Fault> {
    let cell = pattern.cell;
    let size = cell.size() * Point::new(map.matrix2.x_axis.length(), map.matrix2.y_axis.length());
    let sound = map.is_finite() && map.matrix2.determinant() != 0.0 && size.min_element() > 0.0;
    if !sound || pattern.nodes().is_empty() {
        return Ok(Ink::nothing());
    }
    let fine = |spots: u32| size.x * size.y * f64::from(spots * spots) <= MAX_SUPERSAMPLED_PIXELS;
    let spots = [4, 2].into_iter().find(|spots| fine(*spots)).unwrap_or(1);
    // A tile that is larger than most pictures is drawn as coarsely as it must be.
    let less = (4.0 * MAX_SUPERSAMPLED_PIXELS / (size.x * size.y)).sqrt().min(1.0);
    let most = MAX_SUPERSAMPLED_PIXELS.sqrt() * 4.0;
    // Do not round up because of a rounding error.
    let drawn = (size * less * f64::from(spots) - 1e-6).ceil().clamp(Point::splat(8.0), Point::splat(most));
    let to_tile = Affine::from_scale(drawn / cell.size()) * Affine::from_translation(-cell.min);
    let key = (Arc::as_ptr(pattern.drawing()) as usize, map.matrix2.to_cols_array().map(f64::to_bits));
    let (level, spots) = match stores.tiles.get(&key) {
        Some(known) => known.clone(),
        None => {
            let scene = Scene::of(pattern.nodes(), &to_tile).sound()?;
            let (width, height) = (drawn.x as usize, drawn.y as usize);
            let target = Target {
                width,
                height,
                shift: Point::ZERO,
                to_sheet: to_tile.inverse(),
                tolerance,
                whole: false,
            };
            let plan = Plan::of_commands(&scene, scene.all(), 0, &target)?;
            let Some(mut deep) = buffer(Deep::CLEAR, width * height) else { return Ok(Ink::nothing()) };
            plan.draw(&mut deep);
            let byte = |channel: f32| (channel * 255.0 + 0.5) as u8;
            let pixels = deep.into_iter().map(|pixel| pixel.map(byte)).collect();
            let made = (Arc::new(PictureLevel { width, pixels }), spots);
            stores.tiles.insert(key, made.clone());
            made
        }
    };
    let to_pixels = *map * to_tile.inverse();
    Ok(Ink::Sampler(Box::new(Sampler::tile(level, spots, opacity, &to_pixels))))
}
