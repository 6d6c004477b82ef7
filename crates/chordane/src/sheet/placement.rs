//! The placement of an item or a group: its transform, name and compositing, and the words that set them, which are the same for both.

use std::num::NonZeroU32;
use std::sync::Arc;

use super::compositing::DEFAULT_COMPOSITING;
use super::{BlendMode, Compositing, Effect, GivenColour, MAX_DEPTH, Mask, MaskKind, Node, group};
use crate::ground::{Fault, FaultKind, FaultSlot, Given};
use crate::number::{Angle, IntoPoint, Point};
use crate::path::{Affine, Path, by};

/// The properties that items and groups have in common: transform, name and compositing. The words of [`Layered`] set them.
///
/// ```
/// use chordane::prelude::*;
/// let vent = circle((0.0, 0.0), 9.0).fill("teal").moved((30.0, 20.0)).named("vent");
/// assert_eq!(vent.placement().transform.translation, pt(30.0, 20.0));
/// ```
#[derive(Clone, Debug, Default, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize), serde(default))]
pub struct Placement {
    /// From its own coordinates to those around it. Strokes are transformed with it.
    pub transform: Affine,
    /// The `id` in an SVG file, and what findings call it.
    pub name: Option<Box<str>>,
    /// The line of the score or document that made it, counted from 1.
    pub line: Option<NonZeroU32>,
    /// How it is put on what is below it; `None` if it is simply drawn over it.
    pub compositing: Option<Box<Compositing>>,
    /// The first fault of its making.
    #[cfg_attr(feature = "serde", serde(skip_deserializing, skip_serializing_if = "FaultSlot::is_empty"))]
    pub fault: FaultSlot,
}

impl Placement {
    /// With another clip in place of its own, where it has one.
    pub(crate) fn map_clip(&mut self, change: impl FnOnce(&Path) -> Path) {
        if let Some(compositing) = &mut self.compositing {
            compositing.clip = compositing.clip.as_ref().map(change);
        }
    }

    /// Notes the first fault of its making, then of its fields; what is drawn for a mask is not looked at.
    /// Whether [`Placement::check`] finds nothing.
    pub(super) fn is_sound(&self) -> bool {
        let sound = |compositing: &Compositing| {
            let mut fault = FaultSlot::default();
            compositing.check(&mut fault);
            fault.get().is_none()
        };
        self.fault.get().is_none()
            && self.transform.is_finite()
            && self.compositing.as_deref().is_none_or(sound)
    }

    pub(super) fn check(&self, fault: &mut FaultSlot) {
        fault.take_from(&self.fault);
        if !self.transform.is_finite() {
            not_finite("transformed", &self.transform, fault);
        }
        if let Some(compositing) = &self.compositing {
            compositing.check(fault);
        }
    }
}

/// Notes the number of a transform that is not finite.
fn not_finite(call: &'static str, by: &Affine, fault: &mut FaultSlot) {
    let value = by.to_cols_array().into_iter().find(|v| !v.is_finite()).unwrap_or(f64::INFINITY);
    fault.note(Fault::of(call, FaultKind::NotFinite { what: "number", value }));
}

/// The words that mean the same for an item and for a group. Transforms come after those that there are.
///
/// ```
/// use chordane::prelude::*;
/// fn lowered<T: Layered>(kite: T) -> T {
///     kite.moved((0.0, 40.0)).order(-1.0)
/// }
/// let kite = polygon((0.0, 0.0), 4, 20.0).fill("teal");
/// let page = sheet(90.0, 90.0).add(lowered(kite.clone())).add(lowered(group().add(kite)));
/// assert_eq!(page.items().count(), 2);
/// ```
pub trait Layered: Sized {
    /// Its transform, name and compositing.
    #[must_use]
    fn placement(&self) -> &Placement;

    /// The same, to be changed.
    fn placement_mut(&mut self) -> &mut Placement;

    /// The name, if it was given one.
    #[must_use]
    fn name(&self) -> Option<&str> {
        self.placement().name.as_deref()
    }

    /// The line of the score or document that made it, counted from 1, where it was made by one.
    #[must_use]
    fn line(&self) -> Option<usize> {
        self.placement().line.map(|line| line.get() as usize)
    }

    /// How it is put on what is below it.
    #[must_use]
    fn compositing(&self) -> &Compositing {
        self.placement().compositing.as_deref().unwrap_or(&DEFAULT_COMPOSITING)
    }

    /// The same, to be changed.
    fn compositing_mut(&mut self) -> &mut Compositing {
        self.placement_mut().compositing.get_or_insert_default()
    }

    /// With a name: the `id` in an SVG file, and what findings call it.
    #[must_use]
    fn named(mut self, name: impl Into<String>) -> Self {
        self.placement_mut().name = Some(name.into().into());
        self
    }

    /// Made by a line of a score or document, counted from 1, which findings then name.
    #[must_use]
    fn at_line(mut self, line: usize) -> Self {
        self.placement_mut().line = u32::try_from(line).ok().and_then(NonZeroU32::new);
        self
    }

    /// Carrying a fault, unless it has one already.
    #[must_use]
    fn with_fault(mut self, fault: Fault) -> Self {
        self.placement_mut().fault.note(fault);
        self
    }

    /// Moved by a step.
    #[must_use]
    fn moved(self, step: impl IntoPoint) -> Self {
        then_by(self, "moved", Affine::from_translation(step.into_point()))
    }

    /// Turned about the origin; a positive angle turns clockwise as seen on a sheet with y down.
    #[must_use]
    fn rotated(self, angle: Angle) -> Self {
        then_by(self, "rotated", by::rotation(angle))
    }

    /// Turned about a point; a positive angle turns clockwise as seen on a sheet with y down.
    #[must_use]
    fn rotated_about(self, centre: impl IntoPoint, angle: Angle) -> Self {
        then_by(self, "rotated_about", by::about(centre.into_point(), by::rotation(angle)))
    }

    /// Scaled evenly from the origin, strokes and all.
    #[must_use]
    fn scaled(self, factor: f64) -> Self {
        then_by(self, "scaled", Affine::from_scale(Point::splat(factor)))
    }

    /// Scaled from the origin by a factor along x and one along y, strokes and all.
    #[must_use]
    fn scaled_by(self, factors: impl IntoPoint) -> Self {
        then_by(self, "scaled_by", Affine::from_scale(factors.into_point()))
    }

    /// Scaled evenly from a point, strokes and all: the point stays where it is.
    #[must_use]
    fn scaled_about(self, centre: impl IntoPoint, factor: f64) -> Self {
        let by = by::about(centre.into_point(), Affine::from_scale(Point::splat(factor)));
        then_by(self, "scaled_about", by)
    }

    /// Sheared; see [`Path::sheared`].
    #[must_use]
    fn sheared(self, x: Angle, y: Angle) -> Self {
        then_by(self, "sheared", by::shear(x, y))
    }

    /// Under an affine transform.
    #[must_use]
    fn transformed(self, by: &Affine) -> Self {
        then_by(self, "transformed", *by)
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
    fn clipped(mut self, by: Path) -> Self {
        self.placement_mut().fault.take_from(by.carried());
        self.compositing_mut().clip = Some(by);
        self
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
    fn masked(self, by: impl Into<Node>) -> Self {
        self.masked_by(by, MaskKind::Luminance)
    }

    /// The same by what counts in the mask: `MaskKind` or `"luminance"`, `"alpha"`.
    #[must_use]
    fn masked_by(mut self, by: impl Into<Node>, kind: impl Into<Given<MaskKind>>) -> Self {
        let (drawing, kind) = (group().add(by), kind.into().resolve("masked_by"));
        let (depth, fault) = (drawing.depth(), &mut self.placement_mut().fault);
        fault.take_from(&drawing.placement.fault);
        match kind {
            Err(wrong) => fault.note(wrong),
            Ok(_) if depth >= MAX_DEPTH => {
                let what = "groups and masks inside one another";
                let kind = FaultKind::TooMany { what, count: depth, limit: MAX_DEPTH };
                fault.note(Fault::of("masked", kind));
            }
            Ok(kind) => self.compositing_mut().mask = Some(Arc::new(Mask { drawing, kind })),
        }
        self
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
    fn blend(mut self, mode: impl Into<Given<BlendMode>>) -> Self {
        match mode.into().resolve("blend") {
            Ok(mode) => self.compositing_mut().blend = mode,
            Err(wrong) => self.placement_mut().fault.note(wrong),
        }
        self
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
    fn blurred(mut self, radius: f64) -> Self {
        if self.placement_mut().fault.not_negative("blurred", "radius", radius) && radius > 0.0 {
            self.compositing_mut().effects.push(Effect::Blur { radius });
        }
        self
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
    fn shadow(self, step: impl IntoPoint, radius: f64, colour: impl Into<GivenColour>) -> Self {
        with_shadow(self, "shadow", step.into_point(), radius, colour.into())
    }

    /// Makes it shine: its shape in one colour, blurred by a radius, lies under it. Several glows of different radii shine more than one.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let lantern = circle((0.0, 0.0), 9.0).fill("#fff6d8").glow(4.0, "gold").glow(16.0, "#c8553d");
    /// assert_eq!(lantern.compositing().effects.len(), 2);
    /// ```
    #[must_use]
    fn glow(self, radius: f64, colour: impl Into<GivenColour>) -> Self {
        with_shadow(self, "glow", Point::ZERO, radius, colour.into())
    }

    /// Its place among its siblings, whatever the order in which they are added: larger numbers lie over smaller ones, equal
    /// ones as they were added. 0 at first.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let page = sheet(90.0, 60.0)
    ///     .add(circle((45.0, 30.0), 9.0).fill("gold").named("vent").order(1.0))
    ///     .add(circle((45.0, 30.0), 20.0).fill("teal").named("sail"));
    /// assert_eq!(page.item_at((45.0, 30.0)).and_then(|hit| hit.placed.item.name()), Some("vent"));
    /// ```
    #[must_use]
    fn order(mut self, order: f64) -> Self {
        if self.placement_mut().fault.finite("order", "order", order) {
            self.compositing_mut().order = order;
        }
        self
    }
}

fn then_by<T: Layered>(mut on: T, call: &'static str, by: Affine) -> T {
    let placement = on.placement_mut();
    let next = by * placement.transform;
    if next.is_finite() {
        placement.transform = next;
    } else {
        not_finite(call, &by, &mut placement.fault);
    }
    on
}

fn with_shadow<T: Layered>(
    mut on: T,
    call: &'static str,
    step: Point,
    radius: f64,
    colour: GivenColour,
) -> T {
    match colour.resolve(call) {
        Ok(colour) => {
            let fault = &mut on.placement_mut().fault;
            if fault.point(call, step) && fault.not_negative(call, "radius", radius) {
                on.compositing_mut().effects.push(Effect::Shadow { step, radius, colour });
            }
        }
        Err(wrong) => on.placement_mut().fault.note(wrong),
    }
    on
}
