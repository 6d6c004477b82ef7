//! The bones: a drawing's construction made visible.
//!
//! Over the dimmed drawing lie graph paper, the sheet's axes, each path's bounds and centre, handles with their arms,
//! arrows in the direction of travel, and every vertex with its number. All of it is drawn with items of our own, so
//! SVG and pixels show the same.

mod grid;
mod room;
mod trail;

use crate::ground::{Fault, FaultSlot, Named, limited, named};
use crate::number::{Cell, Point};
use crate::path::{Affine, Contour, Path, Segment, start};
use crate::reshape::{Cap, Join};
use crate::scene::Placed;
use crate::shape::{circle, lettering, lettering_width, rectangle};
use crate::sheet::{Colour, GivenPaint, Group, Item, Sheet, group, sheet};
use crate::sheet::{Layered, Styled};
use room::Room;

/// How the bones are drawn.
///
/// ```
/// use chordane::prelude::*;
/// let page = sheet(100.0, 80.0).add(circle((50.0, 40.0), 20.0).fill("teal"));
/// let bones = page.bones(&BonesOptions::default().size(800, 640))?;
/// assert!(bones.svg()?.starts_with("<svg"));
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct BonesOptions {
    shown: Option<(u32, u32)>,
    /// Which layers are drawn, by their places; all where nothing is said.
    only: Option<[bool; BoneLayer::VALUES.len()]>,
}

/// A part of the bones, which can be drawn without the others.
///
/// ```
/// use chordane::ground::Named;
/// use chordane::picture::BoneLayer;
/// assert_eq!(BoneLayer::NAMES, ["grid", "vertices", "handles", "directions", "bounds"]);
/// ```
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
#[non_exhaustive]
pub enum BoneLayer {
    /// Graph paper, axes and their numbers.
    Grid,
    /// Vertices, their numbers, and where each contour starts.
    Vertices,
    /// Handles and their arms.
    Handles,
    /// Arrows in the direction of travel, and sides that are implied.
    Directions,
    /// The box of each path, its size and its centre.
    Bounds,
}

named! {
    BoneLayer: "layer of bones";
    "grid" => Grid, "vertices" => Vertices, "handles" => Handles, "directions" => Directions,
    "bounds" => Bounds
}

impl BonesOptions {
    /// The size in pixels that the picture will be shown at, so that labels and lines come out readable; the sheet's
    /// own size in pixels if it is not said.
    #[must_use]
    pub fn size(mut self, width: u32, height: u32) -> Self {
        self.shown = Some((width, height));
        self
    }

    /// Only some layers, and a legend of those; all of them where this is not said.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// use chordane::picture::BoneLayer;
    /// let page = sheet(100.0, 80.0).add(circle((50.0, 40.0), 20.0).fill("teal"));
    /// let all = page.bones(&BonesOptions::default())?;
    /// let grid = page.bones(&BonesOptions::default().only([BoneLayer::Grid]))?;
    /// assert!(grid.items().len() < all.items().len());
    /// # Ok::<(), Fault>(())
    /// ```
    #[must_use]
    pub fn only(mut self, layers: impl IntoIterator<Item = BoneLayer>) -> Self {
        let layers: Vec<BoneLayer> = layers.into_iter().collect();
        let mut only = [false; BoneLayer::VALUES.len()];
        for (chosen, layer) in only.iter_mut().zip(BoneLayer::VALUES) {
            *chosen = layers.contains(layer);
        }
        self.only = Some(only);
        self
    }

    /// Whether a layer is drawn.
    #[must_use]
    pub fn shows(&self, layer: BoneLayer) -> bool {
        let place = BoneLayer::VALUES.iter().position(|one| *one == layer);
        self.only.is_none_or(|only| place.and_then(|place| only.get(place).copied()).unwrap_or(false))
    }
}

/// The colours, distinguishable without seeing red from green: they differ in lightness, and marks in shape.
const INK: &str = "#16232b";
const START: &str = "#c7410a";
const HANDLE: &str = "#0a6c9c";
const ARROW: &str = "#6a4fb0";
const BOUNDS: &str = "#6d6a5f";
const PAPER: Colour = Colour { red: 1.0, green: 1.0, blue: 1.0, alpha: 1.0 };

/// How much of the drawing the veil over it hides.
const VEIL: f64 = 0.62;

/// Sizes in pixels.
const LABEL_HEIGHT: f64 = 9.0;
const RIM_LABEL_HEIGHT: f64 = 8.0;
const VERTEX_RADIUS: f64 = 3.2;
const HANDLE_SIDE: f64 = 5.0;
const ARROW_LENGTH: f64 = 8.0;

/// More vertices than this are not all numbered, but every second, fifth, tenth and so on.
const MAX_NUMBERED: usize = 200;

/// More paths than this do not each get bounds.
const MAX_BOUNDED_PATHS: usize = 16;

impl Sheet {
    /// The sheet's bones as another sheet of the same size: over the dimmed drawing every vertex numbered in order
    /// per contour, handles with their arms, arrows in the direction of travel, the start of each contour marked, closing
    /// sides that are not drawn but implied dashed, bounds with their sizes, centres, a labelled grid at round steps, the
    /// axes, and a legend. Of a sheet that was read from a document, coordinates and sizes are those of the document.
    ///
    /// Where a path has several contours, the first vertex of each also has its contour's number: `1:0`. Labels never
    /// cover one another or a vertex; where there is no room they are left out, and beyond 200 vertices only every second,
    /// fifth, tenth (and so on) has one. Cost: linear in the vertices.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let drawing = sheet(640.0, 480.0).centred().add(polygon((0.0, 0.0), 5, 150.0).fill("teal"));
    /// let bones = drawing.bones(&BonesOptions::default())?;
    /// assert_eq!(bones.size, drawing.size);
    /// # Ok::<(), Fault>(())
    /// ```
    ///
    /// # Errors
    ///
    /// The first fault of what is on the sheet, or a size without a pixel.
    pub fn bones(&self, options: &BonesOptions) -> Result<Self, Fault> {
        self.bones_after(&[], options)
    }

    /// As [`Sheet::bones`], after earlier moments of what moves, the oldest first: they are drawn dimmed under the present one, and the way that each vertex
    /// has come is a line with a dot for each moment. Items are followed by their place in the order of drawing, as long as they have as
    /// many vertices; of more than 120 ways every second, third and so on is drawn.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let at = |x: f64| sheet(100.0, 80.0).add(circle((x, 40.0), 9.0).fill("teal"));
    /// let bones = at(60.0).bones_after(&[at(20.0), at(40.0)], &BonesOptions::default())?;
    /// assert!(bones.items().len() > at(60.0).bones(&BonesOptions::default())?.items().len());
    /// # Ok::<(), Fault>(())
    /// ```
    ///
    /// # Errors
    ///
    /// As [`Sheet::bones`], of each moment.
    pub fn bones_after(&self, earlier: &[Self], options: &BonesOptions) -> Result<Self, Fault> {
        let pixels = options
            .shown
            .map_or(self.size * self.unit.pixels(), |(w, h)| Point::new(f64::from(w), f64::from(h)));
        let mut fault = FaultSlot::default();
        fault.positive("bones", "width in pixels", pixels.x);
        fault.positive("bones", "height in pixels", pixels.y);
        fault.sound()?;
        limited("bones", || self.with_overlay(earlier, options, pixels))?
    }

    fn with_overlay(&self, earlier: &[Self], options: &BonesOptions, pixels: Point) -> Result<Self, Fault> {
        let scale = (pixels / self.size).min_element();
        let corner = self.corner();
        let mut bare = sheet(self.size.x, self.size.y).unit(self.unit);
        if self.centred {
            bare = bare.centred();
        }
        if let Some(ground) = &self.ground {
            bare = bare.ground(ground);
        }
        let drawing: Group = group().add_all(self.nodes.iter().cloned()).transformed(&self.upright());
        let veil = rectangle(corner, self.size.x, self.size.y).fill(PAPER.faded(VEIL));
        // The overlay is laid out in pixels from the top left corner, and then put onto the sheet.
        let to_pixels = Affine::from_scale(Point::splat(scale)) * Affine::from_translation(-corner);
        let scene = self.seen_through(&(to_pixels * self.upright()))?;
        let page = Cell { min: Point::ZERO, max: self.size * scale };
        let mut overlay = Overlay {
            layer: group(),
            room: Room::default(),
            page,
            options: *options,
            has_ways: !earlier.is_empty(),
        };
        // What coordinates and sizes are told in: the sheet's units, or those of the document that it was read from.
        let view = self.document_view().copied().filter(Affine::is_finite).unwrap_or_default();
        let told = to_pixels * self.upright() * view;
        let to_told = told.inverse();
        if options.shows(BoneLayer::Grid) {
            overlay.graph_paper(&told);
        }
        if !earlier.is_empty() {
            let all: Vec<&Self> = earlier.iter().chain([self]).collect();
            trail::ways(&all, &to_pixels, &page, &mut overlay)?;
        }
        let bone =
            |placed: &Placed<'_>| Bone { path: placed.path(), filled: placed.item.style.fill.is_some() };
        let paths: Vec<Bone> = scene.items().iter().map(bone).filter(|bone| !bone.path.is_empty()).collect();
        overlay.paths(&paths, Point::new(to_told.matrix2.x_axis.length(), to_told.matrix2.y_axis.length()));
        let on_sheet = to_pixels.inverse();
        let under = (!earlier.is_empty()).then(|| trail::ghosts(earlier));
        Ok(bare.add_all(under).add(drawing).add(veil).add(overlay.layer.transformed(&on_sheet)))
    }
}

/// A path where it stands in the picture, in pixels; whether it is filled.
struct Bone {
    path: Path,
    filled: bool,
}

struct Overlay {
    layer: Group,
    room: Room,
    page: Cell,
    options: BonesOptions,
    /// Whether the ways of vertices are drawn.
    has_ways: bool,
}

impl Overlay {
    fn add(&mut self, item: Item) {
        self.layer = std::mem::replace(&mut self.layer, group()).add(item);
    }

    /// A text in a box, with a rim of paper round its strokes so that it reads over anything.
    fn text(&mut self, text: &str, at: Point, height: f64, colour: &str) {
        let strokes = lettering(text, at, height);
        let pen = |path: Path, colour: GivenPaint, width: f64| {
            path.stroke(colour, width).cap(Cap::Round).join(Join::Round)
        };
        self.add(pen(strokes.clone(), PAPER.into(), height * 0.42));
        self.add(pen(strokes, colour.into(), height * 0.135));
    }

    /// A label beside a spot, where there is room. Whether there was.
    fn label(
        &mut self,
        text: &str,
        spot: Point,
        preferred: Point,
        nearest: f64,
        height: f64,
        colour: &str,
    ) -> bool {
        let margin = 1.5;
        let size = Point::new(lettering_width(text, height), height) + Point::splat(2.0 * margin);
        let Some(bounds) = room::place(&self.room, &self.page, spot, size, preferred, nearest) else {
            return false;
        };
        self.room.take(bounds);
        self.text(text, Point::new(bounds.min.x + margin, bounds.max.y - margin), height, colour);
        true
    }

    /// Grid, coordinates at the upper and left rim, and axes. `to_picture` leads from the coordinates that are told to pixels.
    fn graph_paper(&mut self, to_picture: &Affine) {
        let back = to_picture.inverse();
        let (a, b) = (back.transform_point2(self.page.min), back.transform_point2(self.page.max));
        let page = Cell { min: a.min(b), max: a.max(b) };
        let step = grid::step((self.page.size() / page.size()).min_element());
        let put = |p: Point| to_picture.transform_point2(p);
        let (upright, level) =
            (grid::lines(step, page.min.x, page.max.x), grid::lines(step, page.min.y, page.max.y));
        let mut lines = Path::empty();
        for x in &upright.at {
            lines =
                lines.and(&Path::open([put(Point::new(*x, page.min.y)), put(Point::new(*x, page.max.y))]));
        }
        for y in &level.at {
            lines =
                lines.and(&Path::open([put(Point::new(page.min.x, *y)), put(Point::new(page.max.x, *y))]));
        }
        self.add(lines.stroke("rgb(22 35 43 / 16%)", 1.0));
        let (x_axis, y_axis) = grid::axis(&page);
        let mut axes = Path::empty();
        if let Some(x) = x_axis {
            axes = axes.and(&Path::open([put(Point::new(x, page.min.y)), put(Point::new(x, page.max.y))]));
        }
        if let Some(y) = y_axis {
            axes = axes.and(&Path::open([put(Point::new(page.min.x, y)), put(Point::new(page.max.x, y))]));
        }
        self.add(axes.stroke("rgb(22 35 43 / 55%)", 1.3));
        // Arrow heads and names at the far ends of the axes.
        if y_axis.is_some() {
            self.axis_end("x", put(Point::new(page.max.x, 0.0)), Point::X);
        }
        if x_axis.is_some() {
            let far = put(Point::new(0.0, page.max.y));
            self.axis_end("y", far, Point::Y * (far.y - put(Point::ZERO).y).signum());
        }
        let height = RIM_LABEL_HEIGHT;
        for x in &upright.at {
            let text = grid::label(*x, upright.step);
            let wide = lettering_width(&text, height);
            let at = Point::new(put(Point::new(*x, 0.0)).x - 0.5 * wide, 4.0 + height);
            self.rim_label(&text, at, wide, height);
        }
        for y in &level.at {
            let text = grid::label(*y, level.step);
            let wide = lettering_width(&text, height);
            let at = Point::new(4.0, put(Point::new(0.0, *y)).y + 0.5 * height);
            self.rim_label(&text, at, wide, height);
        }
    }

    fn rim_label(&mut self, text: &str, at: Point, wide: f64, height: f64) {
        let bounds = Cell { min: at - Point::new(2.0, height + 2.0), max: at + Point::new(wide + 2.0, 2.0) };
        if self.page.contains(bounds.min) && self.page.contains(bounds.max) && self.room.is_free(&bounds) {
            self.room.take(bounds);
            self.text(text, at, height, "#56636b");
        }
    }

    /// The head and the name at the end of an axis, kept on the page where the axis runs along its rim.
    fn axis_end(&mut self, name: &str, end: Point, direction: Point) {
        let inset = Point::splat(6.0);
        let tip = (end - direction * 2.0).clamp(self.page.min + inset, self.page.max - inset);
        self.add(arrow(tip, direction, 10.0).fill(INK));
        // The name stands beside the head: above the x axis, to the left of the y axis, or else on the other side.
        let aside = if direction.x > 0.0 { Point::new(-4.0, -8.0) } else { Point::new(-14.0, 3.0) };
        let other = if direction.x > 0.0 { Point::new(-4.0, 17.0) } else { Point::new(9.0, 3.0) };
        let at = tip - direction * 6.0;
        let room =
            |at: Point| Cell { min: at - Point::new(2.0, LABEL_HEIGHT), max: at + Point::new(9.0, 4.0) };
        let first = room(at + aside);
        let fits = self.page.contains(first.min) && self.page.contains(first.max);
        let at = at + if fits { aside } else { other };
        self.room.take(room(at));
        self.room.take(Cell { min: tip - Point::splat(6.0), max: tip + Point::splat(6.0) });
        self.text(name, at, LABEL_HEIGHT, INK);
    }

    fn paths(&mut self, bones: &[Bone], per_pixel: Point) {
        let vertices: usize =
            bones.iter().flat_map(|bone| bone.path.contours()).map(Contour::vertex_count).sum();
        let step = numbering_step(vertices);
        // Marks need less room than numbers.
        let marked = if vertices <= 10 * MAX_NUMBERED { 1 } else { step };
        // What no label may cover comes first: all marks of all paths.
        for bone in bones {
            self.occupy(&bone.path, marked);
        }
        let legend = self.legend_place(bones.iter().map(|bone| &bone.path));
        self.room.take(legend.0);
        let bounded = bones.len() <= MAX_BOUNDED_PATHS && self.options.shows(BoneLayer::Bounds);
        let vertices = self.options.shows(BoneLayer::Vertices);
        for bone in bones {
            if bounded {
                self.bounds(&bone.path);
            }
        }
        for bone in bones {
            self.lines(bone);
        }
        for bone in bones.iter().filter(|_| vertices) {
            self.marks(&bone.path, marked);
        }
        for bone in bones.iter().filter(|_| vertices) {
            self.numbers(&bone.path, step);
        }
        for (number, bone) in bones.iter().enumerate() {
            if bounded {
                let name = if bones.len() > 1 { format!("path {number}: ") } else { String::new() };
                self.bounds_label(&bone.path, &name, per_pixel);
            }
        }
        self.legend(legend, step);
    }

    /// Takes up the room of the marks, and marks the lines.
    fn occupy(&mut self, path: &Path, step: usize) {
        let square = |p: Point, half: f64| Cell { min: p - Point::splat(half), max: p + Point::splat(half) };
        let near_page =
            Cell { min: self.page.min - Point::splat(40.0), max: self.page.max + Point::splat(40.0) };
        for contour in path.contours() {
            for vertex in contour.vertices().step_by(step).filter(|p| near_page.contains(*p)) {
                self.room.take(square(vertex, VERTEX_RADIUS + 0.5));
            }
            for segment in
                contour.segments().filter(|segment| crate::measure::overlap(&segment.bounds(), &near_page))
            {
                for handle in handles(&segment).into_iter().flatten() {
                    if step == 1 {
                        self.room.take(square(handle.1, HANDLE_SIDE * 0.5 + 0.5));
                    }
                }
                let size = segment.bounds().size().length();
                let spots = (size / 4.0).clamp(1.0, 600.0) as usize;
                for i in 0..=spots {
                    let spot = segment.at(i as f64 / spots as f64);
                    if near_page.contains(spot) {
                        self.room.mark(spot);
                    }
                }
            }
        }
    }

    /// Cell that are worth showing: on the page, and larger than a mark.
    fn shown_bounds(&self, path: &Path) -> Option<Cell> {
        let on_page = |b: &Cell| crate::measure::overlap(b, &self.page) && b.size().max_element() >= 8.0;
        path.bounds().filter(on_page)
    }

    /// The box round a path, and its centre.
    fn bounds(&mut self, path: &Path) {
        let Some(bounds) = self.shown_bounds(path) else { return };
        let size = bounds.size();
        self.add(rectangle(bounds.min, size.x, size.y).stroke(BOUNDS, 1.0).dash([2.0, 3.0]));
        let (centre, arm) = (bounds.centre(), 5.0);
        let cross = start(centre - Point::X * arm)
            .line(centre + Point::X * arm)
            .start(centre - Point::Y * arm)
            .line(centre + Point::Y * arm)
            .open();
        self.add(cross.clone().stroke(PAPER, 3.6));
        self.add(cross.stroke(BOUNDS, 1.6));
        self.room.take(Cell { min: centre - Point::splat(arm), max: centre + Point::splat(arm) });
        // Labels had better not lie on the lower and upper side, where they are put.
        let spots = (size.x / 5.0).clamp(1.0, 500.0) as usize;
        for i in 0..=spots {
            let x = bounds.min.x + size.x * i as f64 / spots as f64;
            self.room.mark(Point::new(x, bounds.max.y));
            self.room.mark(Point::new(x, bounds.min.y));
        }
    }

    /// The size of the box: under it, else over it.
    fn bounds_label(&mut self, path: &Path, name: &str, per_pixel: Point) {
        let Some(bounds) = self.shown_bounds(path) else { return };
        let text = format!("{name}{}", grid::size_label(bounds.size() * per_pixel));
        let middle = bounds.centre().x;
        let spots = [
            (Point::new(middle, bounds.max.y.min(self.page.max.y)), Point::Y),
            (Point::new(middle, bounds.min.y.max(self.page.min.y)), -Point::Y),
        ];
        for (spot, way) in spots {
            if self.label(&text, spot, way, 4.0, RIM_LABEL_HEIGHT, BOUNDS) {
                return;
            }
        }
    }

    /// The line itself, implied closing sides, handles and arrows.
    fn lines(&mut self, bone: &Bone) {
        self.add(bone.path.clone().stroke(INK, 1.2).join(Join::Round));
        let mut implied = Path::empty();
        let (mut arms, mut squares, mut arrows) = (Path::empty(), Path::empty(), Path::empty());
        let vertices: usize = bone.path.contours().iter().map(Contour::vertex_count).sum();
        for contour in bone.path.contours() {
            let comes_back = contour.is_closed() || bone.filled;
            if comes_back && contour.start() != contour.end() {
                implied = implied.and(&Path::open([contour.end(), contour.start()]));
            }
            if vertices > 10 * MAX_NUMBERED {
                continue;
            }
            let mut gone = f64::INFINITY;
            for segment in contour.segments() {
                for (from, handle) in handles(&segment).into_iter().flatten() {
                    arms = arms.and(&Path::open([from, handle]));
                    let half = Point::splat(HANDLE_SIDE * 0.5);
                    squares = squares.and(&rectangle(handle - half, HANDLE_SIDE, HANDLE_SIDE));
                }
                // An arrow on each segment that has room for one, or else every so often along the contour.
                let size = segment.bounds().size().length();
                gone += size;
                let direction = segment.velocity(0.5).normalize_or_zero();
                if direction != Point::ZERO && (size > 34.0 || (size > 12.0 && gone > 60.0)) {
                    gone = 0.0;
                    let tip = segment.at(0.5) + direction * (ARROW_LENGTH * 0.5);
                    arrows = arrows.and(&arrow(tip, direction, ARROW_LENGTH));
                }
            }
        }
        // A side that is only implied stays visible as such where the line has just been drawn over it.
        let (handled, directed) =
            (self.options.shows(BoneLayer::Handles), self.options.shows(BoneLayer::Directions));
        if directed {
            self.add(implied.clone().stroke(PAPER, 2.2));
            self.add(implied.stroke(INK, 1.4).dash([6.0, 4.0]));
        }
        if handled {
            self.add(arms.stroke(HANDLE, 1.0));
            self.add(squares.fill(PAPER).stroke(HANDLE, 1.3));
        }
        if directed {
            self.add(arrows.fill(ARROW));
        }
    }

    fn marks(&mut self, path: &Path, step: usize) {
        let (mut dots, mut starts) = (Path::empty(), Path::empty());
        for contour in path.contours() {
            let spread = contour.bounds().size().length() / contour.vertex_count() as f64;
            let radius = if step > 1 || spread < 5.0 { VERTEX_RADIUS * 0.6 } else { VERTEX_RADIUS };
            for vertex in contour.vertices().step_by(step).skip(1) {
                if self.page.contains(vertex) {
                    dots = dots.and(&circle(vertex, radius));
                }
            }
            // A lozenge round the first vertex.
            let arm = VERTEX_RADIUS * 1.9;
            let at = contour.start();
            let corners = [Point::X, Point::Y, -Point::X, -Point::Y].map(|way| at + way * arm);
            starts = starts.and(&Path::closed(corners));
        }
        self.add(dots.fill(PAPER).stroke(INK, 1.3));
        self.add(starts.fill(START).stroke(PAPER, 1.0));
    }

    fn numbers(&mut self, path: &Path, step: usize) {
        let several = path.contours().len() > 1;
        for (number, contour) in path.contours().iter().enumerate() {
            let vertices: Vec<Point> = contour.vertices().collect();
            // A last vertex that stands on the first has no label of its own.
            let count = if vertices.len() > 1 && vertices.first() == vertices.last() {
                vertices.len() - 1
            } else {
                vertices.len()
            };
            let at = |i: usize| vertices.get(i % vertices.len().max(1)).copied().unwrap_or_default();
            for i in (0..count).step_by(step) {
                let spot = at(i);
                if !self.page.contains(spot) {
                    continue;
                }
                // Outward: away from the middle between the neighbours, or from the contour's middle.
                let middle = at(i + count - 1).midpoint(at(i + 1));
                let away =
                    (spot - middle).normalize_or((spot - contour.bounds().centre()).normalize_or(-Point::Y));
                let (text, colour) = match i {
                    0 if several => (format!("{number}:0"), START),
                    0 => ("0".to_owned(), START),
                    _ => (i.to_string(), INK),
                };
                self.label(&text, spot, away, VERTEX_RADIUS + 2.0, LABEL_HEIGHT, colour);
            }
        }
    }

    /// Where along the rims of the picture the legend covers least, and in how many columns; corners first.
    fn legend_place<'a>(&self, paths: impl Iterator<Item = &'a Path>) -> (Cell, usize) {
        const STEPS: usize = 8;
        let vertices: Vec<Point> =
            paths.flat_map(Path::contours).flat_map(Contour::vertices).take(10_000).collect();
        let cost = |bounds: &Cell| {
            // A little air round it.
            let bounds = Cell { min: bounds.min - Point::splat(6.0), max: bounds.max + Point::splat(6.0) };
            let covered = vertices.iter().filter(|vertex| bounds.contains(**vertex)).count();
            covered * 1000 + usize::from(!self.room.is_free(&bounds)) * 100 + self.room.spots_in(&bounds)
        };
        let entries = self.legend_entries().count().max(1);
        let size = |columns: usize| {
            let rows = entries.div_ceil(columns);
            Point::new(LEGEND_WIDTH * columns as f64, LEGEND_ROW * rows as f64 + 10.0)
        };
        let margin = Point::splat(8.0);
        // Room for the numbers along the upper and the left rim.
        let (min, max) = (self.page.min + Point::splat(22.0), self.page.max - margin);
        let mut best = (usize::MAX, Cell { min: max - size(1), max }, 1);
        for columns in [1, 2, 3, 6] {
            let size = size(columns);
            let free = max - min - size;
            if free.min_element() < 0.0 {
                continue;
            }
            for i in 0..=STEPS {
                let share = 1.0 - i as f64 / STEPS as f64;
                for way in [(share, 1.0), (1.0, share), (share, 0.0), (0.0, share)] {
                    let corner = min + free * Point::from(way);
                    let bounds = Cell { min: corner, max: corner + size };
                    // Off the corners only where that covers less.
                    let cost = cost(&bounds) + usize::from(i % STEPS != 0);
                    if cost < best.0 {
                        best = (cost, bounds, columns);
                    }
                }
            }
        }
        (best.1, best.2)
    }

    /// The marks of the layers that are drawn.
    fn legend_entries(&self) -> impl Iterator<Item = (Mark, &'static str)> + '_ {
        LEGEND.iter().copied().filter(|(mark, _)| {
            self.options.shows(match mark {
                Mark::Start | Mark::Vertex => BoneLayer::Vertices,
                Mark::Handle => BoneLayer::Handles,
                Mark::Arrow | Mark::Implied => BoneLayer::Directions,
                Mark::Bounds => BoneLayer::Bounds,
                Mark::Way => return self.has_ways,
            })
        })
    }

    fn legend(&mut self, (place, columns): (Cell, usize), step: usize) {
        // A picture too small for it goes without.
        if (self.page.size() * 0.5).cmplt(place.size().min(Point::new(LEGEND_WIDTH, f64::MAX))).any() {
            return;
        }
        let entries: Vec<(Mark, &str)> = self.legend_entries().collect();
        if entries.is_empty() {
            return;
        }
        let size = place.size();
        self.add(
            rectangle(place.min, size.x, size.y).fill(PAPER.faded(0.88)).stroke("rgb(22 35 43 / 30%)", 1.0),
        );
        let rows = entries.len().div_ceil(columns);
        for (i, (mark, text)) in entries.iter().enumerate() {
            let (column, row) = ((i / rows) as f64, (i % rows) as f64);
            let middle = place.min + Point::new(20.0 + LEGEND_WIDTH * column, 5.0 + LEGEND_ROW * (row + 0.5));
            let (left, right) = (middle - Point::X * 10.0, middle + Point::X * 10.0);
            match mark {
                Mark::Vertex => self.add(circle(middle, VERTEX_RADIUS).fill(PAPER).stroke(INK, 1.3)),
                Mark::Start => {
                    let arm = VERTEX_RADIUS * 1.9;
                    let corners = [Point::X, Point::Y, -Point::X, -Point::Y].map(|way| middle + way * arm);
                    self.add(Path::closed(corners).fill(START));
                }
                Mark::Handle => {
                    self.add(Path::open([left, right]).stroke(HANDLE, 1.0));
                    let half = Point::splat(HANDLE_SIDE * 0.5);
                    let square = rectangle(right - Point::X * 2.5 - half, HANDLE_SIDE, HANDLE_SIDE);
                    self.add(square.fill(PAPER).stroke(HANDLE, 1.3));
                }
                Mark::Arrow => self.add(arrow(middle + Point::X * 4.0, Point::X, ARROW_LENGTH).fill(ARROW)),
                Mark::Way => {
                    self.add(Path::open([left, right]).stroke(trail::TRACK_COLOUR, 1.2));
                    let dots = circle(left, 1.8).and(&circle(middle, 1.8));
                    self.add(dots.fill(trail::TRACK_COLOUR));
                }
                Mark::Implied => self.add(Path::open([left, right]).stroke(INK, 1.4).dash([6.0, 4.0])),
                Mark::Bounds => {
                    let (box_end, cross) = (middle - Point::X, middle + Point::X * 6.0);
                    self.add(Path::open([left, box_end]).stroke(BOUNDS, 1.0).dash([2.0, 3.0]));
                    let (across, down) = (Point::X * 4.5, Point::Y * 4.5);
                    let arms = Path::open([cross - across, cross + across])
                        .and(&Path::open([cross - down, cross + down]));
                    self.add(arms.stroke(BOUNDS, 1.6));
                }
            }
            let text = match (mark, step) {
                (Mark::Vertex, 2) => "every 2nd vertex".to_owned(),
                (Mark::Vertex, 3..) => format!("every {step}th vertex"),
                _ => (*text).to_owned(),
            };
            self.text(&text, middle + Point::new(18.0, LABEL_HEIGHT * 0.4), LABEL_HEIGHT * 0.95, INK);
        }
    }
}

#[derive(Clone, Copy)]
enum Mark {
    Vertex,
    Start,
    Handle,
    Arrow,
    Implied,
    Bounds,
    Way,
}

const LEGEND: [(Mark, &str); 7] = [
    (Mark::Start, "start"),
    (Mark::Vertex, "vertex"),
    (Mark::Handle, "handle"),
    (Mark::Arrow, "direction"),
    (Mark::Implied, "implied side"),
    (Mark::Bounds, "bounds, centre"),
    (Mark::Way, "vertex track"),
];
const LEGEND_ROW: f64 = 17.0;
const LEGEND_WIDTH: f64 = 144.0;

/// From how many vertices on only every second, fifth, tenth and so on is numbered.
fn numbering_step(vertices: usize) -> usize {
    let mut scale = 1;
    loop {
        for k in [1, 2, 5] {
            if vertices <= MAX_NUMBERED * k * scale {
                return k * scale;
            }
        }
        scale *= 10;
    }
}

/// The control points of a segment, each with the vertex that it belongs to.
fn handles(segment: &Segment) -> [Option<(Point, Point)>; 2] {
    match *segment {
        Segment::Quad { from, control, to } => [Some((from, control)), Some((to, control))],
        Segment::Cubic { from, control1, control2, to } => [Some((from, control1)), Some((to, control2))],
        _ => [None, None],
    }
}

/// An arrow head with its tip at a point.
fn arrow(tip: Point, direction: Point, length: f64) -> Path {
    let back = tip - direction * length;
    let aside = direction.perp() * (length * 0.42);
    Path::closed([tip, back + aside, back + direction * (length * 0.22), back - aside])
}

#[cfg(test)]
mod tests {
    use super::numbering_step;
    use crate::prelude::*;
    use crate::sheet::Node;

    #[test]
    fn many_vertices_are_numbered_in_round_steps() {
        assert_eq!([5, 200, 201, 401, 1001, 2001, 1_000_000].map(numbering_step), [1, 1, 2, 5, 10, 20, 5000]);
    }

    #[test]
    fn any_sheet_has_bones() {
        let options = BonesOptions::default().size(320, 240);
        for sheet in [
            sheet(100.0, 80.0),
            sheet(100.0, 80.0).y_up().add(Path::empty()).add(start((1.0, 1.0)).open()),
            sheet(1e-3, 1e-3).add(circle((0.0, 0.0), 1e-3).fill("teal")),
            sheet(1e6, 1e6)
                .centred()
                .unit("mm")
                .ground("black")
                .add(circle((9e9, 0.0), 1e9).stroke("teal", 5.0)),
        ] {
            let bones = sheet.bones(&options).unwrap();
            assert_eq!(bones.size, sheet.size);
            assert!(bones.svg().is_ok() && bones.pixels_with(&WriteOptions::sized(64, 64)).is_ok());
        }
        let broken = sheet(100.0, 80.0).add(circle((f64::NAN, 0.0), 3.0));
        assert_eq!(broken.bones(&options).unwrap_err().call(), "circle");
        // Very many vertices: the marks stay few.
        let many = sheet(100.0, 80.0).add(polygon((50.0, 40.0), 100_000, 30.0).fill("teal"));
        let drawn: usize = match &many.bones(&options).unwrap().nodes()[2] {
            Node::Group(overlay) => overlay.nodes().len(),
            Node::Item(_) => 0,
        };
        assert!((100..1000).contains(&drawn), "{drawn}");
    }
}
