//! How SVG says that something is clipped, masked, blended and has effects.

use super::svg_text::plain;
use super::svg_writer::Writer;
use crate::ground::Named;
use crate::number::{Cell, Point};
use crate::path::{Affine, FillRule, Path};
use crate::scene::{Coordinates, Layer, LayerKind, Scene};
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
        let reach = || scene.reach(scene.content(layer), Coordinates::Own, Effect::reach_of_all);
        let defined = self.defined_layering(scene, layer, reach, scale);
        self.out.begin("g");
        self.name(layer.name());
        self.transform(layer.own_transform());
        self.out.attribute_unless("opacity", &plain(layer.opacity), "1");
        self.layering(layer, &defined, None);
        self.open();
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
            clip: compositing.clip.as_ref().map(|path| self.clip(path, scale)),
            mask: layer.mask.and_then(|mask| scene.layers().get(mask)).map(|mask| self.mask(scene, mask)),
            filter: reach().and_then(|reach| self.filter(&compositing.effects, &reach)),
        }
    }

    /// The attributes that go with it, one of them with more that is said in it.
    pub(super) fn layering(&mut self, layer: &Layer<'_>, defined: &Layering, more: Option<&str>) {
        let compositing = layer.compositing();
        let ids = [("clip-path", &defined.clip), ("mask", &defined.mask), ("filter", &defined.filter)];
        for (name, id) in ids {
            if let Some(id) = id {
                self.out.reference(name, id);
            }
        }
        let mut style = Vec::new();
        let mode = compositing.blend;
        if mode != BlendMode::Normal {
            let at = BlendMode::VALUES.iter().position(|known| *known == mode).unwrap_or(0);
            style.push(format!("mix-blend-mode:{}", BlendMode::NAMES.get(at).unwrap_or(&"normal")));
        }
        // A clip alone does not keep apart what is in a group.
        let group = layer.kind == LayerKind::Group;
        if compositing.isolated || (group && self.blends && compositing.clip.is_some()) {
            style.push("isolation:isolate".to_owned());
        }
        style.extend(more.map(str::to_owned));
        if !style.is_empty() {
            self.out.attribute("style", &style.join(";"));
        }
    }

    /// Writes a clip and gives its id.
    fn clip(&mut self, path: &Path, scale: f64) -> String {
        let id = self.ids.numbered("clip");
        self.out.begin("clipPath");
        self.out.attribute("id", &id);
        self.out.open();
        self.out.begin("path");
        if path.fill_rule() == FillRule::EvenOdd {
            self.out.attribute("clip-rule", "evenodd");
        }
        self.data(path, scale);
        self.out.alone();
        self.close("clipPath");
        id
    }

    /// Writes a mask and gives its id.
    fn mask(&mut self, scene: &Scene<'_>, mask: &Layer<'_>) -> String {
        let id = self.ids.numbered("mask");
        self.out.begin("mask");
        self.out.attribute("id", &id);
        self.out.attribute("maskUnits", "userSpaceOnUse");
        let reach = scene.reach(mask.commands.clone(), Coordinates::Own, Effect::reach_of_all);
        self.region(&reach.unwrap_or(Cell { min: Point::ZERO, max: Point::ZERO }));
        if mask.kind == LayerKind::Mask(MaskKind::Alpha) {
            self.out.attribute("style", "mask-type:alpha");
        }
        self.open();
        self.commands(scene, mask.commands.clone());
        self.close("mask");
        id
    }

    /// Writes a filter and gives its id; `None` where there is nothing to do.
    fn filter(&mut self, effects: &[Effect], reach: &Cell) -> Option<String> {
        if effects.is_empty() {
            return None;
        }
        let beyond = Effect::reach_of_all(effects, &Affine::IDENTITY);
        let id = self.ids.numbered("filter");
        self.out.begin("filter");
        self.out.attribute("id", &id);
        self.out.attribute("filterUnits", "userSpaceOnUse");
        self.out.attribute("color-interpolation-filters", "sRGB");
        self.region(&Cell { min: reach.min - beyond, max: reach.max + beyond });
        self.out.open();
        for effect in effects {
            match *effect {
                Effect::Blur { radius } => {
                    self.out.begin("feGaussianBlur");
                    self.out.number("stdDeviation", radius);
                }
                Effect::Shadow { step, radius, colour } => {
                    self.out.begin("feDropShadow");
                    for (name, value) in [("dx", step.x), ("dy", step.y), ("stdDeviation", radius)] {
                        self.out.number(name, value);
                    }
                    self.out.attribute("flood-color", &Colour { alpha: 1.0, ..colour }.hex());
                    let alpha = (f64::from(colour.alpha) * 1000.0).round() / 1000.0;
                    self.out.attribute_unless("flood-opacity", &plain(alpha), "1");
                }
            }
            self.out.alone();
        }
        self.close("filter");
        Some(id)
    }

    /// A rectangle that holds another one, in whole units.
    fn region(&mut self, cell: &Cell) {
        self.out.rectangle(&Cell { min: cell.min.floor(), max: cell.max.ceil() });
    }
}
