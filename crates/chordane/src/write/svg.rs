//! SVG text.
//!
//! Small and plain: path data rounded to what the sheet's size can show, attributes only where they differ from
//! their default, a `viewBox` that keeps the sheet's own coordinates, and the true size where the unit has one.

use std::fmt::Write;
use std::ops::Range;
use std::sync::Arc;

use super::svg_layers::Layering;
use super::svg_paint::{
    Definitions, Place, image, reach, rectangle_attributes, shades_picture, transform, whole,
};
use super::svg_text::{Ids, escaped_text, plain};
use super::svg_writer::{Apart, Writer};
use crate::ground::{Carried, Fault};
use crate::number::Point;
use crate::path::{Affine, FillRule, Path};
use crate::raster::DRAFT;
use crate::reshape::{Cap, Join};
use crate::scene::{Command, Layer, LayerKind, Placed, Scene, largest_scale};
use crate::shape::rectangle;
use crate::sheet::{Colour, Item, Paint, Pattern, Sheet};

/// How SVG text is written.
///
/// ```
/// use chordane::prelude::*;
/// let page = sheet(90.0, 60.0).add(circle((45.0, 30.0), 20.0).fill("teal"));
/// let text = page.svg_with(&SvgOptions::default().size(900, 600))?;
/// assert!(text.contains(r#"width="900""#));
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct SvgOptions {
    decimals: Option<usize>,
    size: Option<(u32, u32)>,
    hard: bool,
}

impl SvgOptions {
    /// The number of decimals of coordinates, at most 12. By default, as many as show a millionth of the sheet's
    /// longer side.
    #[must_use]
    pub fn decimals(mut self, decimals: usize) -> Self {
        self.decimals = Some(decimals);
        self
    }

    /// Whether who shows the picture may smooth its edges, as by default; else the file asks for crisp ones.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let page = sheet(90.0, 60.0).add(circle((45.0, 30.0), 20.0).fill("teal"));
    /// assert!(page.svg_with(&SvgOptions::default().antialias(false))?.contains(r#"shape-rendering="crispEdges""#));
    /// # Ok::<(), Fault>(())
    /// ```
    #[must_use]
    pub fn antialias(mut self, antialias: bool) -> Self {
        self.hard = !antialias;
        self
    }

    /// The size at which the picture is shown, in pixels; the sheet is fitted into it evenly. By default the size of
    /// the sheet, in its own unit.
    #[must_use]
    pub fn size(mut self, width: u32, height: u32) -> Self {
        self.size = Some((width, height));
        self
    }
}

impl Sheet {
    /// The sheet as SVG text.
    ///
    /// # Errors
    ///
    /// The first fault of what is drawn.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let sheet = sheet(40.0, 30.0).add(rectangle((0.0, 0.0), 20.0, 10.0).fill("teal"));
    /// assert_eq!(
    ///     sheet.svg()?,
    ///     "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"40\" height=\"30\" viewBox=\"0 0 40 30\">\n\
    ///      <path fill=\"#008080\" d=\"M0 0H20V10H0Z\"/>\n</svg>\n"
    /// );
    /// # Ok::<(), Fault>(())
    /// ```
    pub fn svg(&self) -> Result<String, Fault> {
        self.svg_with(&SvgOptions::default())
    }

    /// The sheet as SVG text; see [`SvgOptions`].
    ///
    /// # Errors
    ///
    /// The first fault of what is drawn.
    pub fn svg_with(&self, options: &SvgOptions) -> Result<String, Fault> {
        if let Some((width, height)) = options.size {
            let mut fault = Carried::default();
            fault.positive("svg", "width in pixels", width.into());
            fault.positive("svg", "height in pixels", height.into());
            fault.sound()?;
        }
        Ok(self.document(options, STILL, None)?.out)
    }

    /// The sheet as a frame among others: nothing stands in it for two items, and paths stand beside the text.
    #[cfg(feature = "svg-read")]
    pub(super) fn svg_apart(&self, options: &SvgOptions) -> Result<Writer, Fault> {
        self.document(options, MOVING, Some(Apart::default()))
    }

    fn document(&self, options: &SvgOptions, finest: f64, apart: Option<Apart>) -> Result<Writer, Fault> {
        let scene = self.scene()?;
        let finest = self.size.max_element() * finest;
        let decimals = options.decimals.unwrap_or_else(|| (-finest.log10()).ceil().clamp(0.0, 12.0) as usize);
        let mut writer = Writer {
            out: String::new(),
            decimals,
            ids: Ids::of(&scene),
            definitions: Definitions::new(apart.is_some()),
            blends: scene.blends(),
            fault: Carried::default(),
            apart,
        };
        writer.document(self, &scene, options);
        writer.fault.sound()?;
        Ok(writer)
    }
}

/// Coordinates have as many decimals as show this share of the sheet's longer side: a millionth in a picture that may be enlarged, less where
/// every number stands there for many frames.
const STILL: f64 = 1e-6;
#[cfg(feature = "svg-read")]
const MOVING: f64 = 1e-5;

/// A paint as an element can name it.
enum Defined {
    None,
    Colour(Colour),
    Id(String),
}

impl Writer {
    fn document(&mut self, sheet: &Sheet, scene: &Scene<'_>, options: &SvgOptions) {
        let shown = options.size;
        let crisp = if options.hard { " shape-rendering=\"crispEdges\"" } else { "" };
        let suffix = match sheet.unit.suffix() {
            "px" => "",
            other => other,
        };
        let (size, corner) = (sheet.size, sheet.corner());
        let [x, y, width, height] = [corner.x, corner.y, size.x, size.y].map(plain);
        let (wide, high) = match shown {
            Some((wide, high)) => (wide.to_string(), high.to_string()),
            None => (format!("{width}{suffix}"), format!("{height}{suffix}")),
        };
        let _ = writeln!(
            self.out,
            "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{wide}\" height=\"{high}\" \
             viewBox=\"{x} {y} {width} {height}\"{crisp}>"
        );
        for (name, text) in [("title", &sheet.title), ("desc", &sheet.description)] {
            if let Some(text) = text {
                let _ = writeln!(self.out, "<{name}>{}</{name}>", escaped_text(text));
            }
        }
        if let Some(text) = &sheet.metadata {
            let _ = writeln!(self.out, "<metadata>{}</metadata>", escaped_text(text));
        }
        if self.blends {
            // So that nothing is mixed with the page that shows the picture.
            self.out.push_str("<g style=\"isolation:isolate\">\n");
        }
        if let Some(ground) = &sheet.ground {
            // Shown in another shape, the sheet lies in the middle and its ground reaches over the margins.
            let margin = shown.map_or(Point::ZERO, |(wide, high)| {
                let shown = Point::new(f64::from(wide), f64::from(high));
                (shown / (shown / size).min_element() - size) * 0.5
            });
            let (corner, size) = (corner - margin, size + margin * 2.0);
            let [x, y, width, height] = [corner.x, corner.y, size.x, size.y].map(plain);
            let cell = sheet.cell();
            let frame = rectangle(cell.min, cell.size().x, cell.size().y);
            let painted = self.defined(ground, &whole(cell, margin, sheet.upright()), (&frame, None));
            self.out.push_str("<rect");
            self.attribute("x", &x, "0");
            self.attribute("y", &y, "0");
            let _ = write!(self.out, " width=\"{width}\" height=\"{height}\"");
            self.paint("fill", Some(&painted), 1.0);
            self.out.push_str("/>\n");
        }
        if sheet.y_up {
            self.out.push_str("<g");
            self.transform(&sheet.upright());
            self.out.push_str(">\n");
        }
        self.commands(scene, scene.all());
        if sheet.y_up {
            self.out.push_str("</g>\n");
        }
        if self.blends {
            self.out.push_str("</g>\n");
        }
        self.out.push_str("</svg>\n");
    }

    /// Writes what some commands draw. An item carries what its own layer says, and what cuts a layer is written before it.
    pub(super) fn commands(&mut self, scene: &Scene<'_>, range: Range<usize>) {
        // How much the groups around it enlarge what is written.
        let mut scales = vec![1.0];
        let scale = |scales: &Vec<f64>| scales.last().copied().unwrap_or(1.0);
        let group =
            |number: usize| scene.layers().get(number).filter(|layer| layer.kind() == LayerKind::Group);
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
                        self.out.push_str("</g>\n");
                    }
                }
            }
        }
    }

    fn item(&mut self, scene: &Scene<'_>, placed: &Placed<'_>, scale: f64) {
        let item = placed.item();
        let style = &item.style;
        let shaded = |paint: &Option<Paint>| paint.as_ref().is_some_and(|paint| paint.colour().is_none());
        let bounds =
            (shaded(&style.fill) || shaded(&style.stroke_paint)).then(|| item.path.bounds()).flatten();
        let stroke = style.get_stroke();
        let beyond = style.seen_stroke().map_or(0.0, |_| reach(stroke.width(), stroke.mitre_limit()));
        let place = Place { bounds, reach: beyond, placed: *placed.transform(), outer: Affine::IDENTITY };
        let inner = scale * largest_scale(&item.transform);
        if self.picture_item(scene, placed, inner) {
            return;
        }
        let half_width = 0.5 * style.get_stroke().width();
        let fill = style.fill.as_ref().map(|paint| self.defined(paint, &place, (&item.path, None)));
        let stroke =
            style.seen_stroke().map(|paint| self.defined(paint, &place, (&item.path, Some(half_width))));
        let layer = self.item_layer(scene, placed, inner);
        self.source(placed);
        self.out.push_str("<path");
        self.name(item.name());
        self.transform(&item.transform);
        if let Some((layer, defined)) = &layer {
            self.layering(layer, defined);
        }
        self.style(item, (fill, stroke), item.path.fill_rule());
        let opacity = if item.fades_as_one() { style.opacity } else { 1.0 };
        self.attribute("opacity", &plain(opacity), "1");
        let data = self.data(&item.path, inner);
        let _ = writeln!(self.out, " d=\"{data}\"/>");
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
            self.paint("fill", None, 1.0);
            self.paint("stroke", Some(&Defined::Colour(DRAFT)), 1.0);
            self.out.push_str(" vector-effect=\"non-scaling-stroke\"");
            return;
        }
        // One paint alone can carry the opacity itself.
        let share = if item.fades_as_one() { 1.0 } else { style.opacity };
        self.paint("fill", fill.as_ref(), share);
        if rule == FillRule::EvenOdd && style.fill.is_some() {
            self.out.push_str(" fill-rule=\"evenodd\"");
        }
        if let Some(paint) = stroked {
            self.paint("stroke", Some(&paint), share);
            let stroke = style.get_stroke();
            self.attribute("stroke-width", &plain(stroke.width()), "1");
            match stroke.cap() {
                Cap::Butt => {}
                Cap::Round => self.out.push_str(" stroke-linecap=\"round\""),
                Cap::Square => self.out.push_str(" stroke-linecap=\"square\""),
            }
            match stroke.join() {
                Join::Mitre => self.attribute("stroke-miterlimit", &plain(stroke.mitre_limit()), "4"),
                Join::Round => self.out.push_str(" stroke-linejoin=\"round\""),
                Join::Bevel => self.out.push_str(" stroke-linejoin=\"bevel\""),
            }
            if stroke.dash().iter().any(|length| *length > 0.0) {
                let lengths: Vec<String> = stroke.dash().iter().map(|length| plain(*length)).collect();
                let _ = write!(self.out, " stroke-dasharray=\"{}\"", lengths.join(" "));
                self.attribute("stroke-dashoffset", &plain(stroke.dash_offset()), "0");
            }
        }
    }

    /// A paint and its opacity. Black fill and no stroke are what SVG begins with.
    fn paint(&mut self, which: &str, paint: Option<&Defined>, share: f64) {
        let (text, alpha) = match paint {
            None | Some(Defined::None) => ("none".to_owned(), 1.0),
            Some(Defined::Colour(c)) => (Colour { alpha: 1.0, ..*c }.hex(), f64::from(c.alpha) * share),
            Some(Defined::Id(id)) => (format!("url(#{id})"), share),
        };
        let _ = write!(self.out, " {which}=\"{text}\"");
        // Three decimals are finer than the steps of eight bits.
        let alpha = (alpha * 1000.0).round() / 1000.0;
        self.attribute(&format!("{which}-opacity"), &plain(alpha), "1");
    }

    /// A paint as an element can name it; what has to be defined first is written now.
    fn defined(&mut self, paint: &Paint, place: &Place, (path, half_width): (&Path, Option<f64>)) -> Defined {
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
        let by = place.outer * *pattern.transform();
        let key = (Arc::as_ptr(pattern.drawing()) as usize, by.to_cols_array().map(f64::to_bits));
        if let Some(id) = self.definitions.patterns.get(&key).filter(|_| self.apart.is_none()) {
            return Ok(Some(id.clone()));
        }
        let scene = Scene::of(pattern.nodes(), &Affine::IDENTITY).sound()?;
        let id = self.ids.numbered("pattern");
        let _ = write!(self.out, "<pattern id=\"{id}\" patternUnits=\"userSpaceOnUse\"");
        let cell = pattern.cell();
        rectangle_attributes(&cell, &mut self.out);
        transform("patternTransform", &by, &mut self.out);
        self.out.push_str(">\n");
        // What is in a pattern begins at its cell's corner.
        let moved = cell.min != Point::ZERO;
        if moved {
            self.out.push_str("<g");
            self.transform(&Affine::from_translation(-cell.min));
            self.out.push_str(">\n");
        }
        self.commands(&scene, scene.all());
        if moved {
            self.out.push_str("</g>\n");
        }
        self.out.push_str("</pattern>\n");
        self.definitions.patterns.insert(key, id.clone());
        Ok(Some(id))
    }

    /// A picture that is just its own rectangle, as an element for itself.
    fn picture_item(&mut self, scene: &Scene<'_>, placed: &Placed<'_>, inner: f64) -> bool {
        let (item, style) = (placed.item(), placed.item().style());
        let Some(Paint::Picture(picture)) = style.fill_paint().filter(|_| style.seen_stroke().is_none())
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
        let mut element = String::new();
        if let Err(fault) = image(picture, &area, &mut element) {
            self.fault.note(fault);
            return true;
        }
        let layer = self.item_layer(scene, placed, inner);
        self.source(placed);
        self.out.push_str("<image");
        self.name(item.name());
        self.transform(item.transform());
        self.attribute("opacity", &plain(style.opacity), "1");
        if let Some((layer, defined)) = &layer {
            self.layering(layer, defined);
        }
        self.out.push_str(element.trim_start_matches("<image"));
        self.out.push('\n');
        true
    }
}
