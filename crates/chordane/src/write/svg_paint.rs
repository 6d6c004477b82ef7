//! Paints that an SVG document defines before they are used: gradients, and wedges for what goes round a centre.

use std::collections::HashMap;

use super::element::Sink;
use super::svg_text::{Ids, plain};
use crate::ground::Fault;
use crate::number::{Cell, Point};
use crate::path::{Affine, Path};
use crate::raster::path_colours;
use crate::sheet::{Colour, ColourSpace, Frame, Gradient, GradientKind, Picture, Sampling, Shades, Spread};

/// So often the way between two colours that are not mixed in sRGB is halved at most.
const MAX_SUBDIVISIONS: usize = 9;

/// So far from the gradient's own colour, of 1, a mixture in sRGB may be: with the rounding of stops to eight bits, less than a level of those.
const COLOUR_TOLERANCE: f32 = 0.4 / 255.0;

/// Wedges of a sweep. Its colours are then no more than a level or two from one to the next.
const WEDGES: usize = 360;

/// What a paint is put on: its bounds, how far paint reaches beyond them, and the maps from its coordinates to the sheet's and to
/// those in which the document has it.
#[derive(Clone, Copy, Debug)]
pub(super) struct Place {
    pub(super) bounds: Option<Cell>,
    pub(super) reach: f64,
    pub(super) placed: Affine,
    pub(super) outer: Affine,
}

/// Definitions that were written, by what they say.
#[derive(Debug, Default)]
pub(super) struct Definitions {
    known: HashMap<String, String>,
    /// Patterns by the drawing and the transform.
    pub(super) patterns: HashMap<(usize, [u64; 6]), String>,
}

/// The colours of a path, drawn as a picture, are so many pixels wide or high.
const VERTEX_COLOUR_PIXELS: f64 = 512.0;

impl Definitions {
    /// The id of an element, written into the document where nothing that says the same was before; where tags are recorded, for one item alone.
    fn define(
        &mut self,
        (name, word): (&str, &str),
        (ids, out): (&mut Ids, &mut Sink),
        body: impl FnOnce(&mut Sink),
    ) -> String {
        let mut own = Sink::Text(String::new());
        if out.records() {
            let id = ids.numbered(word);
            out.begin(name);
            out.attribute("id", &id);
            body(out);
            out.close(name);
            return id;
        }
        body(&mut own);
        let Sink::Text(rest) = own else { return String::new() };
        if let Some(id) = self.known.get(&rest) {
            return id.clone();
        }
        let id = ids.numbered(word);
        out.begin(name);
        out.attribute("id", &id);
        out.text(&rest);
        out.close(name);
        out.line();
        self.known.insert(rest, id.clone());
        id
    }

    /// The id of a gradient, written into the document where it is new. `None` where it is one colour all over.
    pub(super) fn gradient(
        &mut self,
        gradient: &Gradient,
        place: &Place,
        to: (&mut Ids, &mut Sink),
    ) -> Option<String> {
        if gradient.is_flat() {
            return None;
        }
        let frame = gradient.frame_of(place.bounds, &place.placed)?;
        let what = match gradient.kind {
            GradientKind::Sweep { centre, .. } => {
                let wedges = Wedges::of(centre, place, &frame)?;
                return Some(
                    self.define(("pattern", "sweep"), to, |out| wedges.write(gradient, place, &frame, out)),
                );
            }
            GradientKind::Linear { .. } => "linearGradient",
            GradientKind::Radial { .. } => "radialGradient",
        };
        Some(self.define((what, "gradient"), to, |out| plain_gradient(gradient, place, &frame, out)))
    }

    /// The id of a picture as paint, written into the document where it is new. `None` where nothing of it is seen.
    pub(super) fn picture(
        &mut self,
        picture: &Picture,
        place: &Place,
        to: (&mut Ids, &mut Sink),
    ) -> Result<Option<String>, Fault> {
        let Some((area, bounds)) = picture.area(place.bounds).zip(place.bounds) else { return Ok(None) };
        let url = super::data_url::of_picture(picture)?;
        // One tile that reaches over all that is painted, so that nothing is repeated.
        let painted = bounds.grown(place.reach).union(area).grown(1.0);
        // What is in a pattern begins at its cell's corner.
        let own = Cell { min: area.min - painted.min, max: area.max - painted.min };
        Ok(Some(self.define(("pattern", "picture"), to, |out| {
            out.attribute("patternUnits", "userSpaceOnUse");
            out.rectangle(&painted);
            out.matrix("patternTransform", &place.outer);
            out.open();
            out.begin("image");
            image_attributes((picture, &url), &own, true, out);
            out.alone();
        })))
    }
}

/// The colours of a path as a picture over a cell: SVG has no paint that follows a path.
pub(super) fn shades_picture(shades: &Shades, path: &Path, half_width: Option<f64>) -> Option<Picture> {
    let bounds = path.bounds()?.grown(half_width.unwrap_or(0.0));
    let scale = VERTEX_COLOUR_PIXELS / bounds.size().max_element();
    if !(scale.is_finite() && scale > 0.0) {
        return None;
    }
    let to_pixels = Affine::from_scale(Point::splat(scale)) * Affine::from_translation(-bounds.min);
    let window = Cell { min: Point::splat(-4.0), max: bounds.size() * scale + 4.0 };
    let ((left, top), level) =
        path_colours(shades, path, &to_pixels, window, half_width.map(|half| half * scale))?;
    let (width, height) = (level.width, level.height());
    let corner = Point::new(left as f64, top as f64);
    let size = Point::new(width as f64, height as f64);
    let back = to_pixels.inverse();
    let area = Cell { min: back.transform_point2(corner), max: back.transform_point2(corner + size) };
    Some(Picture::of_pixels(width as u32, height as u32, level.pixels).fitted("stretch").over(area))
}

/// How hard squares are asked for.
pub(super) const PIXELATED: &str = "image-rendering:pixelated";

/// A picture over a cell; whether its squares are hard is said here where no other style is.
pub(super) fn image_attributes((picture, url): (&Picture, &str), area: &Cell, styled: bool, out: &mut Sink) {
    out.rectangle(area);
    out.attribute("preserveAspectRatio", "none");
    if styled && picture.sampling == Sampling::Nearest {
        out.attribute("style", PIXELATED);
    }
    out.attribute("href", url);
}

/// A gradient after its id: how it lies, and its stops.
fn plain_gradient(gradient: &Gradient, place: &Place, frame: &Affine, out: &mut Sink) {
    // A box without width or height is none to SVG.
    let boxed = gradient.frame == Frame::Box
        && place.outer == Affine::IDENTITY
        && place.bounds.is_some_and(|bounds| bounds.size().min_element() > 0.0);
    if !boxed {
        out.attribute("gradientUnits", "userSpaceOnUse");
    }
    let mut numbers =
        |all: &[(&'static str, f64)]| all.iter().for_each(|(name, value)| out.number(name, *value));
    match gradient.kind {
        GradientKind::Linear { from, to } => {
            numbers(&[("x1", from.x), ("y1", from.y), ("x2", to.x), ("y2", to.y)]);
        }
        GradientKind::Radial { centre, radius, focus, focus_radius } => {
            numbers(&[("cx", centre.x), ("cy", centre.y), ("r", radius)]);
            if focus != centre {
                numbers(&[("fx", focus.x), ("fy", focus.y)]);
            }
            if focus_radius > 0.0 {
                numbers(&[("fr", focus_radius)]);
            }
        }
        GradientKind::Sweep { .. } => {}
    }
    match gradient.spread {
        Spread::Pad => {}
        Spread::Repeat => out.attribute("spreadMethod", "repeat"),
        Spread::Reflect => out.attribute("spreadMethod", "reflect"),
    }
    let by = if boxed { gradient.transform } else { place.outer * *frame };
    out.matrix("gradientTransform", &by);
    out.open();
    for (share, colour) in stops(gradient) {
        out.begin("stop");
        out.number("offset", (share * 1e6).round() / 1e6);
        colour_attributes("stop-color", "stop-opacity", colour, out);
        out.alone();
    }
}

/// The stops, with so many between them that mixing those in sRGB makes no difference that can be seen.
fn stops(gradient: &Gradient) -> Vec<(f64, Colour)> {
    let given = gradient.stops();
    if gradient.space == ColourSpace::Srgb {
        return given.to_vec();
    }
    let mut all: Vec<(f64, Colour)> = given.first().copied().into_iter().collect();
    for pair in given.windows(2) {
        let &[from, to] = pair else { continue };
        between(gradient, from, to, MAX_SUBDIVISIONS, &mut all);
        all.push(to);
    }
    all
}

/// Stops between two, as long as halfway between two of them their mean is not the gradient's colour.
fn between(
    gradient: &Gradient,
    from: (f64, Colour),
    to: (f64, Colour),
    halvings: usize,
    all: &mut Vec<(f64, Colour)>,
) {
    let apart = |share: f64| {
        let (want, t) = (gradient.at(from.0 + (to.0 - from.0) * share), share as f32);
        // Files hold colours clamped to the gamut.
        let shown = |value: f32| value.clamp(0.0, 1.0);
        let off = |a: f32, b: f32, want: f32| (shown(a) + (shown(b) - shown(a)) * t - shown(want)).abs();
        let ([a, b], want) = ([from.1, to.1], want);
        off(a.red, b.red, want.red)
            .max(off(a.green, b.green, want.green))
            .max(off(a.blue, b.blue, want.blue))
            .max(off(a.alpha, b.alpha, want.alpha))
    };
    if halvings == 0
        || to.0 - from.0 < 1e-6
        || [0.25, 0.5, 0.75].map(apart).into_iter().fold(0.0, f32::max) < COLOUR_TOLERANCE
    {
        return;
    }
    let share = from.0.midpoint(to.0);
    let middle = (share, gradient.at(share));
    between(gradient, from, middle, halvings - 1, all);
    all.push(middle);
    between(gradient, middle, to, halvings - 1, all);
}

/// A sweep as a pattern of wedges, which SVG has no gradient for.
struct Wedges {
    tile: Cell,
    centre: Point,
    /// How long they are.
    far: f64,
}

impl Wedges {
    /// Wedges that reach over all that is painted; `None` where that is nothing, or without end.
    fn of(centre: Point, place: &Place, frame: &Affine) -> Option<Self> {
        let painted = place.bounds?.grown(place.reach);
        let back = frame.inverse();
        let corners = painted.corners().map(|corner| back.transform_point2(corner));
        let tile = Cell::of(corners)?;
        let far = corners.iter().map(|corner| corner.distance(centre)).fold(0.0, f64::max) * 1.01;
        (far.is_finite() && far > 0.0).then_some(Self { tile, centre, far })
    }

    /// The pattern after its id.
    fn write(&self, gradient: &Gradient, place: &Place, frame: &Affine, out: &mut Sink) {
        let GradientKind::Sweep { start, .. } = gradient.kind else { return };
        let (tile, centre) = (&self.tile, self.centre);
        out.attribute("patternUnits", "userSpaceOnUse");
        out.rectangle(tile);
        let sides = [tile.min.x, tile.min.y, tile.size().x, tile.size().y];
        out.attribute("viewBox", &sides.map(plain).join(" "));
        out.matrix("patternTransform", &(place.outer * *frame));
        out.open();
        let clear = gradient.stops().iter().any(|(_, colour)| colour.alpha < 1.0);
        out.begin("g");
        // Wedges reach under the next one, so that nothing shows between them; translucent ones must not.
        if clear {
            out.attribute("shape-rendering", "crispEdges");
        }
        out.open();
        let rim = |turn: f64| centre + crate::number::polar(start + crate::number::turns(turn), self.far);
        for i in 0..WEDGES {
            let (from, to) = (i as f64 / WEDGES as f64, (i + 1) as f64 / WEDGES as f64);
            let under = if clear || i + 1 == WEDGES { to } else { (i + 2) as f64 / WEDGES as f64 };
            let (a, b) = (rim(from), rim(under));
            let [cx, cy, ax, ay, bx, by] = [centre.x, centre.y, a.x, a.y, b.x, b.y].map(plain);
            out.begin("path");
            colour_attributes("fill", "fill-opacity", gradient.at(from.midpoint(to)), out);
            out.attribute("d", &format!("M{cx} {cy}L{ax} {ay} {bx} {by}Z"));
            out.alone();
        }
        out.close("g");
    }
}

/// A colour, and its opacity where it is not opaque.
fn colour_attributes(name: &'static str, opacity: &'static str, colour: Colour, out: &mut Sink) {
    out.attribute(name, &Colour { alpha: 1.0, ..colour }.hex());
    if colour.alpha < 1.0 {
        out.number(opacity, (f64::from(colour.alpha) * 1000.0).round() / 1000.0);
    }
}

/// How far the paint of a stroke may reach beyond its line.
pub(super) fn reach(width: f64, mitre_limit: f64) -> f64 {
    0.5 * width * mitre_limit.max(std::f64::consts::SQRT_2)
}

/// The whole of a ground, whose margins reach beyond the sheet.
pub(super) fn whole(cell: Cell, margin: Point, outer: Affine) -> Place {
    Place { bounds: Some(cell), reach: margin.max_element(), placed: Affine::IDENTITY, outer }
}
