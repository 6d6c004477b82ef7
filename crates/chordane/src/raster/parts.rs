//! What a scene is made of when it is drawn: items, and layers of items inside one another.

use super::effects::PixelEffect;
use crate::number::{Cell, Point};
use crate::path::{Affine, Path};
use crate::scene::{Placed, Scene, Step};
use crate::sheet::{BlendMode, Compositing, MaskKind};

/// No effects look farther than this round a picture, in pixels.
const FARTHEST: f64 = 4096.0;

/// One thing that is drawn.
pub(super) enum Part<'a> {
    /// An item; its number in the scene.
    Item(usize),
    /// Several, drawn for themselves first.
    Layer(Box<LayerPart<'a>>),
}

/// What is drawn for itself before it is put on what is below it.
pub(super) struct LayerPart<'a> {
    pub(super) parts: Vec<Part<'a>>,
    pub(super) effects: Vec<PixelEffect>,
    /// How far they reach, in pixels.
    pub(super) beyond: Point,
    pub(super) clip: Option<(&'a Path, Affine)>,
    pub(super) mask: Option<MaskPart<'a>>,
    pub(super) opacity: f64,
    pub(super) blend: BlendMode,
    /// Whether it needs all its pixels at once, since it or something in it has effects.
    pub(super) whole: bool,
}

/// The drawing of a mask.
pub(super) struct MaskPart<'a> {
    pub(super) scene: Scene<'a>,
    pub(super) parts: Vec<Part<'a>>,
    pub(super) kind: MaskKind,
}

/// The parts of a scene, in the order of drawing.
pub(super) fn parts<'a>(scene: &Scene<'a>) -> Vec<Part<'a>> {
    let mut open: Vec<Vec<Part<'a>>> = Vec::new();
    let mut parts = Vec::with_capacity(scene.steps().len());
    for step in scene.steps() {
        match *step {
            Step::Item(number) => {
                let Some(placed) = scene.items().get(number) else { continue };
                let (item, style) = (placed.item(), placed.item().style());
                let fades = style.get_opacity() < 1.0 && item.fades_as_one();
                let one = Part::Item(number);
                parts.push(if fades || !item.compositing().is_plain() {
                    let opacity = if fades { style.get_opacity() } else { 1.0 };
                    layer(vec![one], item.compositing(), placed.transform(), opacity)
                } else {
                    one
                });
            }
            Step::Begin(number) => {
                if scene.layers().get(number).is_some_and(|layer| layer.is_apart()) {
                    open.push(std::mem::take(&mut parts));
                }
            }
            Step::End(number) => {
                let Some(group) = scene.layers().get(number).filter(|layer| layer.is_apart()) else {
                    continue;
                };
                let inside = std::mem::replace(&mut parts, open.pop().unwrap_or_default());
                let opacity = group.group().get_opacity();
                parts.push(layer(inside, group.group().compositing(), group.transform(), opacity));
            }
        }
    }
    parts
}

fn layer<'a>(
    parts: Vec<Part<'a>>,
    compositing: &'a Compositing,
    transform: &Affine,
    opacity: f64,
) -> Part<'a> {
    let effects: Vec<PixelEffect> =
        compositing.effects().iter().filter_map(|effect| PixelEffect::of(effect, transform)).collect();
    let far: Point = compositing.effects().iter().map(|effect| effect.reach(transform)).sum();
    let beyond =
        if effects.is_empty() { Point::ZERO } else { (far + 1.0).ceil().min(Point::splat(FARTHEST)) };
    let clip = compositing.clip().map(|path| (path, *transform));
    let mask = compositing.mask().map(|mask| {
        let scene = Scene::of(mask.nodes(), transform);
        let parts = self::parts(&scene);
        MaskPart { scene, parts, kind: mask.kind() }
    });
    let inner =
        |parts: &[Part<'_>]| parts.iter().any(|part| matches!(part, Part::Layer(layer) if layer.whole));
    let whole = !effects.is_empty() || inner(&parts) || mask.as_ref().is_some_and(|mask| inner(&mask.parts));
    let blend = compositing.blend();
    if effects.is_empty() || (clip.is_none() && mask.is_none()) {
        return Part::Layer(Box::new(LayerPart {
            parts,
            effects,
            beyond,
            clip,
            mask,
            opacity,
            blend,
            whole,
        }));
    }
    // Effects come before what cuts off.
    let (clipped, masked) = (None, None);
    let within = LayerPart {
        parts,
        effects,
        beyond,
        clip: clipped,
        mask: masked,
        opacity: 1.0,
        blend: BlendMode::Normal,
        whole,
    };
    let parts = vec![Part::Layer(Box::new(within))];
    Part::Layer(Box::new(LayerPart {
        parts,
        effects: Vec::new(),
        beyond: Point::ZERO,
        clip,
        mask,
        opacity,
        blend,
        whole,
    }))
}

impl LayerPart<'_> {
    /// Bounds of all that is seen of it, in the scene's coordinates, with room to spare, effects and all.
    pub(super) fn reach(&self, scene: &Scene<'_>) -> Option<Cell> {
        let all = reach(&self.parts, scene)?;
        Some(Cell { min: all.min - self.beyond, max: all.max + self.beyond })
    }
}

/// Bounds of what some parts paint.
pub(super) fn reach(parts: &[Part<'_>], scene: &Scene<'_>) -> Option<Cell> {
    let of = |part: &Part<'_>| match part {
        Part::Item(number) => scene.items().get(*number).and_then(Placed::reach),
        Part::Layer(layer) => layer.reach(scene),
    };
    parts.iter().filter_map(of).reduce(Cell::union)
}
