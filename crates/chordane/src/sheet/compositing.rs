//! How an item or a group is put on what is below it: clips, masks, blend modes, effects, and its place among its siblings.

use std::sync::Arc;

use super::{Colour, Group, Layered, Node};
use crate::ground::{FaultSlot, named};
use crate::number::Point;
use crate::path::{Affine, Path};

/// The modes in which colours are mixed with those below: all sixteen of the recommendation "Compositing and Blending Level 1" of the
/// W3C, by its names.
///
/// ```
/// use chordane::prelude::*;
/// let shade = circle((40.0, 30.0), 20.0).fill("gold").blend("multiply");
/// assert_eq!(shade.compositing().blend, BlendMode::Multiply);
/// ```
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
#[non_exhaustive]
#[allow(missing_docs, reason = "the recommendation says what each of them does")]
pub enum BlendMode {
    #[default]
    Normal,
    Multiply,
    Screen,
    Overlay,
    Darken,
    Lighten,
    ColorDodge,
    ColorBurn,
    HardLight,
    SoftLight,
    Difference,
    Exclusion,
    Hue,
    Saturation,
    Color,
    Luminosity,
}

named! {
    BlendMode: "blend mode";
    "normal" => Normal, "multiply" => Multiply, "screen" => Screen, "overlay" => Overlay,
    "darken" => Darken, "lighten" => Lighten, "color-dodge" => ColorDodge, "color-burn" => ColorBurn,
    "hard-light" => HardLight, "soft-light" => SoftLight, "difference" => Difference,
    "exclusion" => Exclusion, "hue" => Hue, "saturation" => Saturation, "color" => Color,
    "luminosity" => Luminosity
}

/// Which property of a mask decides how much is shown.
///
/// ```
/// use chordane::prelude::*;
/// let fade = linear_gradient((0.0, 0.0), (0.0, 1.0)).colours(["white", "black"]).measured("box");
/// let item = circle((40.0, 30.0), 20.0).fill("teal").masked(rectangle((0.0, 0.0), 80.0, 60.0).fill(fade));
/// assert_eq!(item.compositing().mask.as_ref().map(|mask| mask.kind), Some(MaskKind::Luminance));
/// ```
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
#[non_exhaustive]
pub enum MaskKind {
    /// How bright it is, times how opaque: white shows, black and nothing hide.
    #[default]
    Luminance,
    /// How opaque it is, whatever its colours.
    Alpha,
}

named! { MaskKind: "kind of mask"; "luminance" => Luminance, "alpha" => Alpha }

/// A drawing that says how much of another one is shown; see [`Layered::masked`].
///
/// ```
/// use chordane::prelude::*;
/// let item = circle((40.0, 30.0), 20.0).fill("teal").masked_by(circle((40.0, 30.0), 9.0).fill("red"), "alpha");
/// assert_eq!(item.compositing().mask.as_ref().map(|mask| mask.drawing.nodes().len()), Some(1));
/// ```
#[derive(Clone, Debug, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize))]
pub struct Mask {
    /// What is drawn for it, in the coordinates of what is masked.
    pub drawing: Group,
    /// Which of its properties decides how much is shown.
    pub kind: MaskKind,
}

/// What is done with a drawing when it is finished, before it is put on what is below it.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::sheet::Effect;
/// let lantern = circle((40.0, 30.0), 9.0).fill("#ffe9a8").glow(6.0, "gold");
/// assert!(matches!(lantern.compositing().effects[..], [Effect::Shadow { radius: 6.0, .. }]));
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
#[non_exhaustive]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize), serde(rename_all = "kebab-case"))]
pub enum Effect {
    /// It is blurred by a Gaussian curve.
    Blur {
        /// The standard deviation of the curve, in the drawing's own units. What is seen reaches about three times as far.
        radius: f64,
    },
    /// Its shape, in one colour, moved and blurred, is laid under it.
    Shadow {
        /// How far the shadow is moved, in the drawing's own units.
        step: Point,
        /// The standard deviation of the curve it is blurred by, in the drawing's own units; 0 leaves it sharp.
        radius: f64,
        /// Its colour where the shape is opaque.
        colour: Colour,
    },
}

/// Visible extent of a blurred edge, in standard deviations.
const BLUR_EXTENT_SIGMAS: f64 = 3.2;

impl Effect {
    /// Whether it changes what is seen.
    pub(crate) fn shows(&self) -> bool {
        !matches!(self, Self::Shadow { colour, .. } if colour.to_rgba8()[3] == 0)
    }

    /// How far what several make, one after the other, may lie from what they are made of.
    pub(crate) fn reach_of_all(effects: &[Self], to: &Affine) -> Point {
        effects.iter().map(|effect| effect.reach(to)).sum()
    }

    /// Returns how far the effect can paint beyond its source, along x and y, under a transform.
    fn reach(&self, to: &Affine) -> Point {
        let (step, radius) = match *self {
            Self::Blur { radius } => (Point::ZERO, radius),
            Self::Shadow { step, radius, .. } => (step, radius),
        };
        let map = to.matrix2;
        let spread = Point::new(map.row(0).length(), map.row(1).length()) * radius;
        spread * BLUR_EXTENT_SIGMAS + (map * step).abs()
    }
}

/// How an item or a group is put on what is below it. In order: its effects, one after the other; what its clip and its mask
/// leave; its opacity; its blend mode. To do it in another order, put it into a group and give that group what comes later.
///
/// ```
/// use chordane::prelude::*;
/// let plain = circle((40.0, 30.0), 20.0).fill("teal");
/// assert!(plain.compositing().is_plain());
/// let above = plain.order(2.0);
/// assert_eq!(above.compositing().order, 2.0);
/// ```
#[derive(Clone, Debug, Default, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize), serde(default))]
pub struct Compositing {
    /// The path that it is clipped by, in the coordinates of what is clipped.
    pub clip: Option<Path>,
    /// What it is masked by.
    pub mask: Option<Arc<Mask>>,
    /// How its colours are blended with those below.
    pub blend: BlendMode,
    /// Whether what is in it is blended only with what is in it; see [`Group::isolated`].
    pub isolated: bool,
    /// What is done with it when it is finished, in order; 50 at most.
    pub effects: Vec<Effect>,
    /// Its place among its siblings: those with larger numbers lie over those with smaller ones, and equal ones as they were added.
    pub order: f64,
}

/// The compositing of what has none.
pub(super) static DEFAULT_COMPOSITING: Compositing = Compositing {
    clip: None,
    mask: None,
    blend: BlendMode::Normal,
    isolated: false,
    effects: Vec::new(),
    order: 0.0,
};

/// Most effects on one thing.
const MAX_EFFECTS: usize = 50;

impl Compositing {
    /// Whether it is put on what is below it just as it is.
    #[must_use]
    pub fn is_plain(&self) -> bool {
        self.clip.is_none()
            && self.mask.is_none()
            && self.blend == BlendMode::Normal
            && !self.isolated
            && self.effects.is_empty()
    }

    /// Groups inside one another in its mask.
    pub(super) fn depth(&self) -> usize {
        self.mask.as_ref().map_or(0, |mask| mask.drawing.depth())
    }

    /// Notes the first fault of its fields; what is drawn for a mask is not looked at.
    pub(super) fn check(&self, fault: &mut FaultSlot) {
        if let Some(clip) = &self.clip {
            fault.take_from(clip.carried());
        }
        if let Some(mask) = &self.mask {
            fault.take_from(&mask.drawing.placement.fault);
        }
        for (number, effect) in self.effects.iter().enumerate() {
            let (call, step, radius) = match *effect {
                Effect::Blur { radius } => ("blurred", Point::ZERO, radius),
                Effect::Shadow { step, radius, .. } => ("shadow", step, radius),
            };
            let _ = fault.point(call, step)
                && fault.not_negative(call, "radius", radius)
                && fault.at_most(call, "effects on one thing", number + 1, MAX_EFFECTS);
        }
        fault.finite("order", "order", self.order);
    }
}

impl Group {
    /// Lets what is in the group mix only with what is in it, where it has blend modes: the group is drawn for itself and then laid on
    /// what is below.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let shade = rectangle((0.0, 0.0), 20.0, 20.0).fill("#00ffff").blend("multiply");
    /// let over = |group: Group| sheet(20.0, 20.0).ground("#ffff00").add(group).pixels().unwrap().at(5, 5);
    /// assert_eq!(over(group().add(shade.clone())), Some([0, 255, 0, 255]));
    /// assert_eq!(over(group().add(shade).isolated()), Some([0, 255, 255, 255]));
    /// ```
    #[must_use]
    pub fn isolated(mut self) -> Self {
        self.compositing_mut().isolated = true;
        self
    }
}

impl Node {
    /// The places of some nodes in the order in which they are drawn. Cost: linear where they stand in order.
    pub(crate) fn drawing_order(nodes: &[Self]) -> impl Iterator<Item = usize> + use<> {
        let order = |at: usize| nodes.get(at).map_or(0.0, |node| node.compositing().order);
        let sorted = (1..nodes.len()).all(|at| order(at - 1) <= order(at));
        let mut places: Vec<usize> = if sorted { Vec::new() } else { (0..nodes.len()).collect() };
        places.sort_by(|a, b| order(*a).total_cmp(&order(*b)));
        (0..nodes.len()).map(move |at| places.get(at).copied().unwrap_or(at))
    }
}
