//! Items, groups and paints as elements of SVG.

use std::ops::Range;
use std::sync::Arc;

use super::data_url;
use super::svg_layers::Layering;
use super::svg_paint::{PIXELATED, Place, image_attributes, reach, shades_picture};
use super::svg_text::plain;
use super::svg_writer::Writer;
use crate::ground::Fault;
use crate::number::Point;
use crate::path::{Affine, FillRule, Path};
use crate::raster::DRAFT_COLOUR;
use crate::reshape::{Cap, Join};
use crate::scene::{Command, Layer, LayerKind, Placed, Scene, largest_scale};
use crate::shape::rectangle;
use crate::sheet::{BlendMode, Colour, Item, Layered, Paint, Pattern, Sampling};

/// A paint as an element can name it.
pub(super) enum Defined {
    None,
    Colour(Colour),
    Id(String),
}

/// The attributes of a paint and of its opacity.
pub(super) type Painted = (&'static str, &'static str);
pub(super) const FILL: Painted = ("fill", "fill-opacity");
const STROKE: Painted = ("stroke", "stroke-opacity");

impl Writer {
    /// Writes what some commands draw. An item carries what its own layer says, and what cuts a layer is written before it.
    pub(super) fn commands(&mut self, scene: &Scene<'_>, range: Range<usize>) {
        // How much the groups around it enlarge what is written.
        let mut scales = vec![1.0];
        let scale = |scales: &Vec<f64>| scales.last().copied().unwrap_or(1.0);
        let group = |number: usize| scene.layers().get(number).filter(|layer| layer.kind == LayerKind::Group);
        for (_, command) in scene.walk(range, Layer::cuts) {
            match command {
                Command::Draw(_) | Command::DrawInMask(_) => {
                    if let Some(placed) = scene.drawn(command) {
                        self.item(scene, placed, scale(&scales));
                    }
                }
                Command::Push(number) => {
                    let Some(layer) = group(number) else { continue };
                    scales.push(scale(&scales) * largest_scale(layer.own_transform()));
                    self.begin(scene, layer, scale(&scales));
                }
                Command::Pop(number) => {
                    if group(number).is_some() {
                        scales.pop();
                        self.close("g");
                    }
                }
            }
        }
    }

    fn item(&mut self, scene: &Scene<'_>, placed: &Placed<'_>, scale: f64) {
        let item = placed.item;
        let style = &item.style;
        let shaded = |paint: &Option<Paint>| paint.as_ref().is_some_and(|paint| paint.colour().is_none());
        let bounds = (shaded(&style.fill) || shaded(&style.stroke)).then(|| item.path.bounds()).flatten();
        let line = &style.line;
        let beyond = style.seen_stroke().map_or(0.0, |_| reach(line.width, line.mitre_limit));
        let place = Place { bounds, reach: beyond, placed: placed.transform, outer: Affine::IDENTITY };
        let inner = scale * largest_scale(&item.placement.transform);
        if self.picture_item(scene, placed, inner) {
            return;
        }
        let half_width = 0.5 * line.width;
        let fill = style.fill.as_ref().map(|paint| self.defined(paint, &place, (&item.path, None)));
        let stroke =
            style.seen_stroke().map(|paint| self.defined(paint, &place, (&item.path, Some(half_width))));
        let layer = self.item_layer(scene, placed, inner);
        self.out.source(placed);
        self.out.begin("path");
        self.name(item.name());
        self.transform(&item.placement.transform);
        if let Some((layer, defined)) = &layer {
            self.layering(layer, defined, None);
        }
        self.style(item, (fill, stroke), item.path.fill_rule());
        let opacity = if item.fades_as_one() { style.opacity } else { 1.0 };
        self.out.attribute_unless("opacity", &plain(opacity), "1");
        self.data(&item.path, inner);
        self.out.alone();
        self.out.line();
    }

    /// The layer of an item's own, where it has one, and what was written for it.
    fn item_layer<'s, 'a>(
        &mut self,
        scene: &'s Scene<'a>,
        placed: &Placed<'a>,
        scale: f64,
    ) -> Option<(&'s Layer<'a>, Layering)> {
        let layer = scene.own_layer(placed)?;
        Some((layer, self.defined_layering(scene, layer, || placed.own_reach(), scale)))
    }

    fn style(&mut self, item: &Item, (fill, stroked): (Option<Defined>, Option<Defined>), rule: FillRule) {
        let style = item.style();
        if style.paints_nothing() {
            self.paint(FILL, None, 1.0);
            self.paint(STROKE, Some(&Defined::Colour(DRAFT_COLOUR)), 1.0);
            self.out.attribute("vector-effect", "non-scaling-stroke");
            return;
        }
        // One paint alone can carry the opacity itself.
        let share = if item.fades_as_one() { 1.0 } else { style.opacity };
        self.paint(FILL, fill.as_ref(), share);
        if rule == FillRule::EvenOdd && style.fill.is_some() {
            self.out.attribute("fill-rule", "evenodd");
        }
        let Some(paint) = stroked else { return };
        self.paint(STROKE, Some(&paint), share);
        let line = &style.line;
        self.out.attribute_unless("stroke-width", &plain(line.width), "1");
        match line.cap {
            Cap::Butt => {}
            Cap::Round => self.out.attribute("stroke-linecap", "round"),
            Cap::Square => self.out.attribute("stroke-linecap", "square"),
        }
        match line.join {
            Join::Mitre => self.out.attribute_unless("stroke-miterlimit", &plain(line.mitre_limit), "4"),
            Join::Round => self.out.attribute("stroke-linejoin", "round"),
            Join::Bevel => self.out.attribute("stroke-linejoin", "bevel"),
        }
        if line.dash.iter().any(|length| *length > 0.0) {
            let lengths: Vec<String> = line.dash.iter().map(|length| plain(*length)).collect();
            self.out.attribute("stroke-dasharray", &lengths.join(" "));
            self.out.attribute_unless("stroke-dashoffset", &plain(line.dash_offset), "0");
        }
    }

    /// A paint and its opacity. Black fill and no stroke are what SVG begins with.
    pub(super) fn paint(&mut self, (which, opacity): Painted, paint: Option<&Defined>, share: f64) {
        let (text, alpha) = match paint {
            None | Some(Defined::None) => ("none".to_owned(), 1.0),
            Some(Defined::Colour(c)) => (Colour { alpha: 1.0, ..*c }.hex(), f64::from(c.alpha) * share),
            Some(Defined::Id(id)) => (format!("url(#{id})"), share),
        };
        self.out.attribute(which, &text);
        // Three decimals are finer than the steps of eight bits.
        let alpha = (alpha * 1000.0).round() / 1000.0;
        self.out.attribute_unless(opacity, &plain(alpha), "1");
    }

    /// A paint as an element can name it; what has to be defined first is written now.
    pub(super) fn defined(
        &mut self,
        paint: &Paint,
        place: &Place,
        (path, half_width): (&Path, Option<f64>),
    ) -> Defined {
        let id = match paint {
            Paint::Solid(colour) => return Defined::Colour(*colour),
            Paint::Gradient(gradient) => {
                let id = self.definitions.gradient(gradient, place, (&mut self.ids, &mut self.out));
                return id.map_or_else(|| Defined::Colour(gradient.at(1.0)), Defined::Id);
            }
            Paint::Picture(picture) => {
                self.definitions.picture(picture, place, (&mut self.ids, &mut self.out))
            }
            Paint::Pattern(pattern) => self.pattern(pattern, place),
            Paint::Shades(shades) => match shades_picture(shades, path, half_width) {
                Some(picture) => self.definitions.picture(&picture, place, (&mut self.ids, &mut self.out)),
                None => Ok(None),
            },
        };
        match id {
            Ok(id) => id.map_or(Defined::None, Defined::Id),
            Err(fault) => {
                self.fault.note(fault);
                Defined::None
            }
        }
    }

    /// The id of a pattern, written into the document where it is new.
    fn pattern(&mut self, pattern: &Pattern, place: &Place) -> Result<Option<String>, Fault> {
        let by = place.outer * pattern.transform;
        let key = (Arc::as_ptr(pattern.drawing()) as usize, by.to_cols_array().map(f64::to_bits));
        if let Some(id) = self.definitions.patterns.get(&key).filter(|_| !self.out.records()) {
            return Ok(Some(id.clone()));
        }
        let scene = Scene::of(pattern.nodes(), &Affine::IDENTITY).sound()?;
        let id = self.ids.numbered("pattern");
        self.out.begin("pattern");
        self.out.attribute("id", &id);
        self.out.attribute("patternUnits", "userSpaceOnUse");
        let cell = pattern.cell;
        self.out.rectangle(&cell);
        self.out.matrix("patternTransform", &by);
        self.open();
        // What is in a pattern begins at its cell's corner.
        let moved = cell.min != Point::ZERO;
        if moved {
            self.out.begin("g");
            self.transform(&Affine::from_translation(-cell.min));
            self.open();
        }
        self.commands(&scene, scene.all());
        if moved {
            self.close("g");
        }
        self.close("pattern");
        self.definitions.patterns.insert(key, id.clone());
        Ok(Some(id))
    }

    /// A picture that is just its own rectangle, as an element for itself.
    fn picture_item(&mut self, scene: &Scene<'_>, placed: &Placed<'_>, inner: f64) -> bool {
        let (item, style) = (placed.item, placed.item.style());
        let Some(Paint::Picture(picture)) = style.fill.as_ref().filter(|_| style.seen_stroke().is_none())
        else {
            return false;
        };
        let bounds = item.path().bounds();
        let alone = picture.area(bounds).zip(bounds).filter(|(area, bounds)| {
            let close = |a: Point, b: Point| a.distance(b) <= 1e-9 * bounds.size().length();
            let frame = rectangle(bounds.min, bounds.size().x, bounds.size().y);
            close(area.min, bounds.min) && close(area.max, bounds.max) && *item.path() == frame
        });
        let Some((area, _)) = alone else { return false };
        let url = match data_url::of_picture(picture) {
            Ok(url) => url,
            Err(fault) => {
                self.fault.note(fault);
                return true;
            }
        };
        let layer = self.item_layer(scene, placed, inner);
        self.out.source(placed);
        self.out.begin("image");
        self.name(item.name());
        self.transform(&item.placement.transform);
        self.out.attribute_unless("opacity", &plain(style.opacity), "1");
        let styled = layer.as_ref().is_none_or(|(layer, _)| layer.blend == BlendMode::Normal);
        if let Some((layer, defined)) = &layer {
            let hard = picture.sampling == Sampling::Nearest;
            self.layering(layer, defined, Some(PIXELATED).filter(|_| hard && !styled));
        }
        image_attributes((picture, &url), &area, styled, &mut self.out);
        self.out.alone();
        self.out.line();
        true
    }
}
