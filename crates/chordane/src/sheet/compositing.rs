//! How an item or a group is put on what is below it: clips, masks, blend modes, effects, and its place among its siblings.

use std::sync::Arc;

use super::{Colour, GivenColour, Group, Item, MOST_DEPTH, Node, group};
use crate::ground::{Fault, FaultKind, FaultSlot, Given, Named};
use crate::number::Point;
use crate::path::{Affine, Path};

/// The modes in which colours are mixed with those below: all sixteen of the recommendation "Compositing and Blending PictureLevel 1" of the
/// W3C, by its names.
///
/// ```
/// use chordane::prelude::*;
/// let shade = circle((40.0, 30.0), 20.0).fill("gold").blend("multiply");
/// assert_eq!(shade.compositing().blend(), BlendMode::Multiply);
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

impl Named for BlendMode {
    const WHAT: &'static str = "blend mode";
    const NAMES: &'static [&'static str] = &[
        "normal",
        "multiply",
        "screen",
        "overlay",
        "darken",
        "lighten",
        "color-dodge",
        "color-burn",
        "hard-light",
        "soft-light",
        "difference",
        "exclusion",
        "hue",
        "saturation",
        "color",
        "luminosity",
    ];
    const VALUES: &'static [Self] = &[
        Self::Normal,
        Self::Multiply,
        Self::Screen,
        Self::Overlay,
        Self::Darken,
        Self::Lighten,
        Self::ColorDodge,
        Self::ColorBurn,
        Self::HardLight,
        Self::SoftLight,
        Self::Difference,
        Self::Exclusion,
        Self::Hue,
        Self::Saturation,
        Self::Color,
        Self::Luminosity,
    ];
}

/// Which property of a mask decides how much is shown.
///
/// ```
/// use chordane::prelude::*;
/// let fade = linear_gradient((0.0, 0.0), (0.0, 1.0)).colours(["white", "black"]).measured("box");
/// let item = circle((40.0, 30.0), 20.0).fill("teal").masked(rectangle((0.0, 0.0), 80.0, 60.0).fill(fade));
/// assert_eq!(item.compositing().mask().map(Mask::kind), Some(MaskKind::Luminance));
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

impl Named for MaskKind {
    const WHAT: &'static str = "kind of mask";
    const NAMES: &'static [&'static str] = &["luminance", "alpha"];
    const VALUES: &'static [Self] = &[Self::Luminance, Self::Alpha];
}

/// A drawing that says how much of another one is shown; see [`Item::masked`].
///
/// ```
/// use chordane::prelude::*;
/// let item = circle((40.0, 30.0), 20.0).fill("teal").masked_by(circle((40.0, 30.0), 9.0).fill("red"), "alpha");
/// assert_eq!(item.compositing().mask().map(|mask| mask.nodes().len()), Some(1));
/// ```
#[derive(Clone, Debug, PartialEq)]
pub struct Mask {
    drawing: Group,
    kind: MaskKind,
}

impl Mask {
    /// What is drawn for it, in the coordinates of what is masked.
    #[must_use]
    pub fn nodes(&self) -> &[Node] {
        self.drawing.nodes()
    }

    /// Which of its properties decides how much is shown.
    #[must_use]
    pub fn kind(&self) -> MaskKind {
        self.kind
    }
}

/// What is done with a drawing when it is finished, before it is put on what is below it.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::sheet::Effect;
/// let lantern = circle((40.0, 30.0), 9.0).fill("#ffe9a8").glow(6.0, "gold");
/// assert!(matches!(lantern.compositing().effects(), [Effect::Shadow { radius: 6.0, .. }]));
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
#[non_exhaustive]
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

/// So many standard deviations away, a blurred edge is no longer seen.
const SEEN: f64 = 3.2;

impl Effect {
    /// Whether it changes what is seen.
    pub(crate) fn shows(&self) -> bool {
        !matches!(self, Self::Shadow { colour, .. } if colour.to_rgba8()[3] == 0)
    }

    /// How far what several make, one after the other, may lie from what they are made of.
    pub(crate) fn reach_of_all(effects: &[Self], to: &Affine) -> Point {
        effects.iter().map(|effect| effect.reach(to)).sum()
    }

    /// How far what it makes may lie from what it is made of, along x and y, under a transform.
    fn reach(&self, to: &Affine) -> Point {
        let (step, radius) = match *self {
            Self::Blur { radius } => (Point::ZERO, radius),
            Self::Shadow { step, radius, .. } => (step, radius),
        };
        let map = to.matrix2;
        let spread = Point::new(map.row(0).length(), map.row(1).length()) * radius;
        spread * SEEN + (map * step).abs()
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
/// assert_eq!(above.compositing().order(), 2.0);
/// ```
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Compositing {
    clip: Option<Path>,
    mask: Option<Arc<Mask>>,
    blend: BlendMode,
    isolated: bool,
    effects: Vec<Effect>,
    order: f64,
}

/// The compositing of what has none.
static PLAIN: Compositing = Compositing {
    clip: None,
    mask: None,
    blend: BlendMode::Normal,
    isolated: false,
    effects: Vec::new(),
    order: 0.0,
};

/// Most effects on one thing.
const MOST_EFFECTS: usize = 50;

impl Compositing {
    /// The path that it is clipped by, if there is one, in the coordinates of what is clipped.
    #[must_use]
    pub fn clip(&self) -> Option<&Path> {
        self.clip.as_ref()
    }

    /// What it is masked by, if anything.
    #[must_use]
    pub fn mask(&self) -> Option<&Mask> {
        self.mask.as_deref()
    }

    /// How its colours are mixed with those below.
    #[must_use]
    pub fn blend(&self) -> BlendMode {
        self.blend
    }

    /// Whether what is in it is mixed only with what is in it; see [`Group::isolated`].
    #[must_use]
    pub fn is_isolated(&self) -> bool {
        self.isolated
    }

    /// What is done with it when it is finished, in order.
    #[must_use]
    pub fn effects(&self) -> &[Effect] {
        &self.effects
    }

    /// Its place among its siblings: those with larger numbers lie over those with smaller ones, and equal ones as they were added.
    #[must_use]
    pub fn order(&self) -> f64 {
        self.order
    }

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

    fn add_effect(&mut self, call: &'static str, effect: Effect, fault: &mut FaultSlot) {
        if fault.at_most(call, "effects on one thing", self.effects.len() + 1, MOST_EFFECTS) {
            self.effects.push(effect);
        }
    }
}

/// What items and groups keep of it: nothing where there is nothing to say.
pub(super) type Kept = Option<Box<Compositing>>;

pub(super) fn kept(kept: &Kept) -> &Compositing {
    kept.as_deref().unwrap_or(&PLAIN)
}

/// The words mean the same for an item and for a group.
macro_rules! compositing_words {
    ($type:ty) => {
        impl $type {
            /// How it is put on what is below it.
            #[must_use]
            pub fn compositing(&self) -> &Compositing {
                kept(&self.compositing)
            }

            /// With another clip in place of its own, where it has one.
            pub(crate) fn map_clip(&mut self, change: impl FnOnce(&Path) -> Path) {
                if let Some(compositing) = &mut self.compositing {
                    compositing.clip = compositing.clip.as_ref().map(change);
                }
            }

            fn composed(mut self, change: impl FnOnce(&mut Compositing, &mut FaultSlot)) -> Self {
                change(self.compositing.get_or_insert_default(), &mut self.fault);
                self
            }

            /// Shows it only where a path would be filled, strokes and all; the path moves with it. An empty path
            /// shows nothing. A clip takes the place of one given before.
            ///
            /// ```
            /// use chordane::prelude::*;
            /// let window = group().add(polygon((0.0, 0.0), 4, 40.0).fill("teal")).clipped(circle((0.0, 0.0), 30.0));
            /// assert!(sheet(80.0, 80.0).centred().add(window).svg()?.contains("<clipPath"));
            /// # Ok::<(), Fault>(())
            /// ```
            #[must_use]
            pub fn clipped(self, by: Path) -> Self {
                self.composed(|compositing, fault| {
                    fault.take_from(by.carried());
                    compositing.clip = Some(by);
                })
            }

            /// The path that it is clipped by, if there is one.
            #[must_use]
            pub fn clip_path(&self) -> Option<&Path> {
                self.compositing().clip()
            }

            /// Shows it as far as another drawing is bright: white shows, black and nothing hide, and what lies between shows in part.
            /// The mask moves with it. A mask takes the place of one given before.
            ///
            /// ```
            /// use chordane::prelude::*;
            /// let sail = polygon((0.0, 0.0), 4, 40.0).fill("teal");
            /// let fade = radial_gradient((0.0, 0.0), 40.0).colours(["white", "black"]);
            /// let page = sheet(80.0, 80.0).centred().add(sail.masked(rectangle((-40.0, -40.0), 80.0, 80.0).fill(fade)));
            /// let alpha = |x| page.pixels().unwrap().at(x, 40).unwrap()[3];
            /// assert!(alpha(40) > 240 && (110..140).contains(&alpha(60)) && alpha(78) < 20);
            /// # Ok::<(), Fault>(())
            /// ```
            #[must_use]
            pub fn masked(self, by: impl Into<Node>) -> Self {
                self.masked_by(by, MaskKind::Luminance)
            }

            /// The same by what counts in the mask: `MaskKind` or `"luminance"`, `"alpha"`.
            #[must_use]
            pub fn masked_by(self, by: impl Into<Node>, kind: impl Into<Given<MaskKind>>) -> Self {
                let (drawing, kind) = (group().add(by), kind.into().resolve("masked_by"));
                self.composed(|compositing, fault| {
                    fault.take_from(&drawing.fault);
                    let depth = drawing.depth();
                    match kind {
                        Err(wrong) => fault.note(wrong),
                        Ok(_) if depth >= MOST_DEPTH => {
                            let what = "groups and masks inside one another";
                            let kind = FaultKind::TooMany { what, count: depth, limit: MOST_DEPTH };
                            fault.note(Fault::of("masked", kind));
                        }
                        Ok(kind) => compositing.mask = Some(Arc::new(Mask { drawing, kind })),
                    }
                })
            }

            /// Mixes its colours with those below: `BlendMode` or the name of one, such as `"multiply"`. In a group that fades, is clipped,
            /// masked or isolated, or has effects, that is what lies below in the group; elsewhere it is all that lies below.
            ///
            /// ```
            /// use chordane::prelude::*;
            /// let page = sheet(20.0, 20.0).ground("#ffff00").add(rectangle((0.0, 0.0), 20.0, 20.0).fill("#00ffff").blend("multiply"));
            /// assert_eq!(page.pixels().unwrap().at(5, 5), Some([0, 255, 0, 255]));
            /// let told = circle((0.0, 0.0), 9.0).fill("teal").blend("multipy").sound().unwrap_err().to_string();
            /// assert!(told.contains("did you mean \"multiply\"?"));
            /// ```
            #[must_use]
            pub fn blend(self, mode: impl Into<Given<BlendMode>>) -> Self {
                let mode = mode.into().resolve("blend");
                self.composed(|compositing, fault| match mode {
                    Ok(mode) => compositing.blend = mode,
                    Err(wrong) => fault.note(wrong),
                })
            }

            /// Blurs it by a Gaussian curve whose standard deviation is the radius, in its own units. What is seen reaches about three
            /// times as far. 0 changes nothing; a negative radius is a fault. What lies more than 4,096 pixels outside the picture
            /// adds nothing to it, however large the radius.
            ///
            /// ```
            /// use chordane::prelude::*;
            /// let page = sheet(80.0, 80.0).centred().add(circle((0.0, 0.0), 20.0).fill("teal").blurred(5.0));
            /// let alpha = |x| page.pixels().unwrap().at(x, 40).unwrap()[3];
            /// assert!(alpha(40) > 240 && (90..130).contains(&alpha(60)) && alpha(79) == 0);
            /// ```
            #[must_use]
            pub fn blurred(self, radius: f64) -> Self {
                self.composed(|compositing, fault| {
                    if fault.not_negative("blurred", "radius", radius) && radius > 0.0 {
                        compositing.add_effect("blurred", Effect::Blur { radius }, fault);
                    }
                })
            }

            /// Lays its shape, in one colour, moved by a step and blurred by a radius, under it; see [`Effect::Shadow`]. Called again it adds
            /// another shadow, of the shape together with the shadows it already has.
            ///
            /// ```
            /// use chordane::prelude::*;
            /// let page = sheet(80.0, 80.0).centred().add(circle((0.0, 0.0), 20.0).fill("white").shadow((6.0, 8.0), 2.0, "#20303c"));
            /// assert_eq!(page.pixels().unwrap().at(53, 57).map(|pixel| pixel[3] > 200), Some(true));
            /// ```
            #[must_use]
            pub fn shadow(self, step: impl Into<Point>, radius: f64, colour: impl Into<GivenColour>) -> Self {
                self.shadow_for("shadow", step.into(), radius, colour.into())
            }

            /// Makes it shine: its shape in one colour, blurred by a radius, lies under it. Several glows of different radii shine more than one.
            ///
            /// ```
            /// use chordane::prelude::*;
            /// let lantern = circle((0.0, 0.0), 9.0).fill("#fff6d8").glow(4.0, "gold").glow(16.0, "#c8553d");
            /// assert_eq!(lantern.compositing().effects().len(), 2);
            /// ```
            #[must_use]
            pub fn glow(self, radius: f64, colour: impl Into<GivenColour>) -> Self {
                self.shadow_for("glow", Point::ZERO, radius, colour.into())
            }

            fn shadow_for(self, call: &'static str, step: Point, radius: f64, colour: GivenColour) -> Self {
                let colour = colour.resolve(call);
                self.composed(|compositing, fault| match colour {
                    Ok(colour) => {
                        if fault.point(call, step) && fault.not_negative(call, "radius", radius) {
                            compositing.add_effect(call, Effect::Shadow { step, radius, colour }, fault);
                        }
                    }
                    Err(wrong) => fault.note(wrong),
                })
            }

            /// Its place among its siblings, whatever the order in which they are added: larger numbers lie over smaller ones, equal
            /// ones as they were added. 0 at first.
            ///
            /// ```
            /// use chordane::prelude::*;
            /// let page = sheet(90.0, 60.0)
            ///     .add(circle((45.0, 30.0), 9.0).fill("gold").named("vent").order(1.0))
            ///     .add(circle((45.0, 30.0), 20.0).fill("teal").named("sail"));
            /// assert_eq!(page.item_at((45.0, 30.0)).and_then(|hit| hit.item().name()), Some("vent"));
            /// ```
            #[must_use]
            pub fn order(self, order: f64) -> Self {
                self.composed(|compositing, fault| {
                    if fault.finite("order", "order", order) {
                        compositing.order = order;
                    }
                })
            }
        }
    };
}

compositing_words!(Item);
compositing_words!(Group);

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
    pub fn isolated(self) -> Self {
        self.composed(|compositing, _| compositing.isolated = true)
    }
}

impl Node {
    /// How it is put on what is below it.
    #[must_use]
    pub fn compositing(&self) -> &Compositing {
        match self {
            Self::Item(item) => item.compositing(),
            Self::Group(group) => group.compositing(),
        }
    }

    /// The places of some nodes in the order in which they are drawn. Cost: linear where they stand in order.
    pub(crate) fn drawing_order(nodes: &[Self]) -> impl Iterator<Item = usize> + use<> {
        let order = |at: usize| nodes.get(at).map_or(0.0, |node| node.compositing().order());
        let sorted = (1..nodes.len()).all(|at| order(at - 1) <= order(at));
        let mut places: Vec<usize> = if sorted { Vec::new() } else { (0..nodes.len()).collect() };
        places.sort_by(|a, b| order(*a).total_cmp(&order(*b)));
        (0..nodes.len()).map(move |at| places.get(at).copied().unwrap_or(at))
    }
}
