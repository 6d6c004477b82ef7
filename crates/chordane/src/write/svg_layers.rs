//! How SVG says that something is clipped, masked, blended and has effects.

use std::fmt::Write;

use super::svg_text::plain;
use super::svg_writer::Writer;
use crate::ground::Named;
use crate::number::{Cell, Point};
use crate::path::{Affine, FillRule, Path};
use crate::scene::{Frame, Layer, LayerKind, Scene};
use crate::sheet::{BlendMode, Colour, Effect, MaskKind};

/// The ids of what was written for it.
#[derive(Default)]
pub(super) struct Layering {
    clip: Option<String>,
    mask: Option<String>,
    filter: Option<String>,
}

impl Writer {
    /// Writes a group up to what is in it.
    pub(super) fn begin(&mut self, scene: &Scene<'_>, layer: &Layer<'_>, scale: f64) {
        let reach = || scene.reach(scene.content(layer), Frame::Own, Effect::reach_of_all);
        let defined = self.defined_layering(scene, layer, reach, scale);
        self.out.push_str("<g");
        self.name(layer.name());
        self.transform(layer.own_transform());
        self.attribute("opacity", &plain(layer.opacity), "1");
        self.layering(layer, &defined);
        self.out.push_str(">\n");
    }

    /// Writes what has to come before something that is clipped, masked or has effects, and paints within some bounds.
    pub(super) fn defined_layering(
        &mut self,
        scene: &Scene<'_>,
        layer: &Layer<'_>,
        reach: impl FnOnce() -> Option<Cell>,
        scale: f64,
    ) -> Layering {
        let compositing = layer.compositing();
        if compositing.is_plain() {
            return Layering::default();
        }
        Layering {
            clip: compositing.clip().map(|path| self.clip(path, scale)),
            mask: layer.mask.and_then(|mask| scene.layers().get(mask)).map(|mask| self.mask(scene, mask)),
            filter: reach().and_then(|reach| self.filter(compositing.effects(), &reach)),
        }
    }

    /// The attributes that go with it.
    pub(super) fn layering(&mut self, layer: &Layer<'_>, defined: &Layering) {
        let compositing = layer.compositing();
        let ids = [("clip-path", &defined.clip), ("mask", &defined.mask), ("filter", &defined.filter)];
        for (name, id) in ids {
            if let Some(id) = id {
                let _ = write!(self.out, " {name}=\"url(#{id})\"");
            }
        }
        let mut style = Vec::new();
        let mode = compositing.blend();
        if mode != BlendMode::Normal {
            let at = BlendMode::VALUES.iter().position(|known| *known == mode).unwrap_or(0);
            style.push(format!("mix-blend-mode:{}", BlendMode::NAMES.get(at).unwrap_or(&"normal")));
        }
        // A clip alone does not keep apart what is in a group.
        let group = layer.kind() == LayerKind::Group;
        if compositing.is_isolated() || (group && self.blends && compositing.clip().is_some()) {
            style.push("isolation:isolate".to_owned());
        }
        if !style.is_empty() {
            let _ = write!(self.out, " style=\"{}\"", style.join(";"));
        }
    }

    /// Writes a clip and gives its id.
    fn clip(&mut self, path: &Path, scale: f64) -> String {
        let id = self.ids.numbered("clip");
        let _ = write!(self.out, "<clipPath id=\"{id}\"><path");
        if path.fill_rule() == FillRule::EvenOdd {
            self.out.push_str(" clip-rule=\"evenodd\"");
        }
        let data = self.data(path, scale);
        let _ = writeln!(self.out, " d=\"{data}\"/></clipPath>");
        id
    }

    /// Writes a mask and gives its id.
    fn mask(&mut self, scene: &Scene<'_>, mask: &Layer<'_>) -> String {
        let id = self.ids.numbered("mask");
        let _ = write!(self.out, "<mask id=\"{id}\" maskUnits=\"userSpaceOnUse\"");
        let reach = scene.reach(mask.commands.clone(), Frame::Own, Effect::reach_of_all);
        self.region(&reach.unwrap_or(Cell { min: Point::ZERO, max: Point::ZERO }));
        if mask.kind() == LayerKind::Mask(MaskKind::Alpha) {
            self.out.push_str(" style=\"mask-type:alpha\"");
        }
        self.out.push_str(">\n");
        self.commands(scene, mask.commands.clone());
        self.out.push_str("</mask>\n");
        id
    }

    /// Writes a filter and gives its id; `None` where there is nothing to do.
    fn filter(&mut self, effects: &[Effect], reach: &Cell) -> Option<String> {
        if effects.is_empty() {
            return None;
        }
        let beyond = Effect::reach_of_all(effects, &Affine::IDENTITY);
        let id = self.ids.numbered("filter");
        let _ = write!(
            self.out,
            "<filter id=\"{id}\" filterUnits=\"userSpaceOnUse\" color-interpolation-filters=\"sRGB\""
        );
        self.region(&Cell { min: reach.min - beyond, max: reach.max + beyond });
        self.out.push('>');
        for effect in effects {
            match *effect {
                Effect::Blur { radius } => {
                    let _ = write!(self.out, "<feGaussianBlur stdDeviation=\"{}\"/>", plain(radius));
                }
                Effect::Shadow { step, radius, colour } => {
                    let [x, y, radius] = [step.x, step.y, radius].map(plain);
                    let _ = write!(
                        self.out,
                        "<feDropShadow dx=\"{x}\" dy=\"{y}\" stdDeviation=\"{radius}\" flood-color=\"{}\"",
                        Colour { alpha: 1.0, ..colour }.hex()
                    );
                    let alpha = (f64::from(colour.alpha) * 1000.0).round() / 1000.0;
                    self.attribute("flood-opacity", &plain(alpha), "1");
                    self.out.push_str("/>");
                }
            }
        }
        self.out.push_str("</filter>\n");
        Some(id)
    }

    /// A rectangle that holds another one, in whole units.
    fn region(&mut self, cell: &Cell) {
        let (min, max) = (cell.min.floor(), cell.max.ceil());
        let [x, y, width, height] = [min.x, min.y, max.x - min.x, max.y - min.y].map(plain);
        let _ = write!(self.out, " x=\"{x}\" y=\"{y}\" width=\"{width}\" height=\"{height}\"");
    }
}
