//! Gradients: colours that go over into one another along a line, from a centre outward, or round it.

use std::sync::Arc;

use super::{Colour, ColourSpace, GivenColour};
use crate::ground::{Fault, FaultKind, FaultSlot, Given, named};
use crate::number::{Angle, Cell, IntoPoint, Point};
use crate::path::Affine;

/// Colours that go over into one another. Give it to `fill`, `stroke` or `ground`.
///
/// A gradient has stops: a colour at each share of the way, 0 at its beginning and 1 at its end. Between them the colours are
/// mixed in sRGB, as SVG does; see [`Gradient::mixed`]. One without stops is a fault of what it is given to, one with a single
/// stop is that colour all over. A stop at a smaller share than the one before it counts as at the same. Where beginning and end
/// coincide, or the radius is 0, all has the last colour.
///
/// ```
/// use chordane::prelude::*;
/// let dusk = linear_gradient((0.0, 0.0), (0.0, 60.0)).colours(["#20303c", "#c8553d", "#f4efe6"]);
/// let page = sheet(80.0, 60.0).ground(&dusk).add(circle((40.0, 30.0), 20.0).fill(dusk.reversed()));
/// let pixels = page.pixels()?;
/// assert_eq!(pixels.at(0, 0).map(|[red, ..]| red), Some(35));
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[derive(Clone, Debug, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize))]
pub struct Gradient {
    /// Its shape, with the points that give its position.
    pub kind: GradientKind,
    #[cfg_attr(feature = "serde", serde(deserialize_with = "sound_stops"))]
    stops: Vec<(f64, Colour)>,
    /// What comes before its beginning and after its end.
    pub spread: Spread,
    /// The colour space in which colours are mixed.
    pub space: ColourSpace,
    /// What its coordinates are measured in.
    pub frame: Frame,
    /// The transform within that.
    pub transform: Affine,
    #[cfg_attr(feature = "serde", serde(skip_deserializing, skip_serializing_if = "FaultSlot::is_empty"))]
    fault: FaultSlot,
}

/// How a gradient lies.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::sheet::GradientKind;
/// let glow = radial_gradient((0.0, 0.0), 9.0);
/// assert!(matches!(glow.kind, GradientKind::Radial { radius: 9.0, .. }));
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
#[non_exhaustive]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize), serde(rename_all = "kebab-case"))]
pub enum GradientKind {
    /// From one point to another; the same all along each line across.
    Linear {
        /// Where it begins.
        from: Point,
        /// Where it ends.
        to: Point,
    },
    /// From a focal circle to an end circle. If neither contains the other, the gradient is a cone, and nothing is painted outside it.
    Radial {
        /// The circle's centre.
        centre: Point,
        /// The circle's radius.
        radius: f64,
        /// The centre of the focal circle, where the gradient begins.
        focus: Point,
        /// The radius of the focal circle; 0 by default.
        focus_radius: f64,
    },
    /// Once round a centre, clockwise as seen.
    Sweep {
        /// The centre.
        centre: Point,
        /// The direction in which it begins and ends.
        start: Angle,
    },
}

/// What comes before the beginning of a gradient and after its end.
///
/// ```
/// use chordane::prelude::*;
/// let stripes = linear_gradient((0.0, 0.0), (9.0, 0.0)).colours(["teal", "white"]).spread("reflect");
/// assert_eq!(stripes.spread, Spread::Reflect);
/// ```
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Spread {
    /// The first and the last colour.
    #[default]
    Pad,
    /// The same again.
    Repeat,
    /// The same there and back.
    Reflect,
}

named! { Spread: "spread"; "pad" => Pad, "repeat" => Repeat, "reflect" => Reflect }

/// What the coordinates of a gradient are measured in.
///
/// ```
/// use chordane::prelude::*;
/// let sheen = linear_gradient((0.0, 0.0), (1.0, 1.0)).colours(["white", "teal"]).measured("box");
/// assert_eq!(sheen.frame, Frame::Box);
/// ```
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Frame {
    /// The coordinates of the path: the gradient moves and turns with its item.
    #[default]
    Item,
    /// Shares of the path's own bounds: `(0, 0)` is their upper left corner, `(1, 1)` the lower right one.
    Box,
    /// The coordinates of the sheet: wherever an item stands, it shows its part.
    Sheet,
}

named! { Frame: "frame"; "item" => Item, "box" => Box, "sheet" => Sheet }

/// A gradient from one point to another; add colours.
///
/// ```
/// use chordane::prelude::*;
/// let sail = polygon((40.0, 30.0), 4, 25.0).fill(linear_gradient((40.0, 5.0), (40.0, 55.0)).colours(["gold", "teal"]));
/// assert!(sheet(80.0, 60.0).add(sail).svg()?.contains("<linearGradient"));
/// # Ok::<(), Fault>(())
/// ```
#[must_use]
pub fn linear_gradient(from: impl IntoPoint, to: impl IntoPoint) -> Gradient {
    Gradient::new(GradientKind::Linear { from: from.into_point(), to: to.into_point() })
}

/// A gradient from a centre out to a circle; add colours. A negative radius is a fault.
///
/// ```
/// use chordane::prelude::*;
/// let lantern = radial_gradient((0.0, 0.0), 20.0).colours(["#ffe9a8", "#c8553d"]).focus((-5.0, -5.0));
/// assert!(circle((0.0, 0.0), 20.0).fill(lantern).sound().is_ok());
/// ```
#[must_use]
pub fn radial_gradient(centre: impl IntoPoint, radius: f64) -> Gradient {
    let centre = centre.into_point();
    Gradient::new(GradientKind::Radial { centre, radius, focus: centre, focus_radius: 0.0 })
}

/// A gradient once round a centre, clockwise as seen, from a direction back to it; add colours. For no seam, let the first
/// colour be the last one too.
///
/// ```
/// use chordane::prelude::*;
/// let hues = (0..=12).map(|i| oklch(0.7, 0.12, turns(f64::from(i) / 12.0)));
/// let wheel = circle((0.0, 0.0), 20.0).fill(sweep_gradient((0.0, 0.0), deg(-90.0)).colours(hues));
/// assert!(wheel.sound().is_ok());
/// ```
#[must_use]
pub fn sweep_gradient(centre: impl IntoPoint, start: Angle) -> Gradient {
    Gradient::new(GradientKind::Sweep { centre: centre.into_point(), start })
}

impl Gradient {
    fn new(kind: GradientKind) -> Self {
        let (stops, spread, frame, fault) = Default::default();
        let (space, transform) = (ColourSpace::Srgb, Affine::IDENTITY);
        Self { kind, stops, spread, space, frame, transform, fault }
    }

    /// Adds a colour at a share of the way, from 0 to 1.
    #[must_use]
    pub fn stop(mut self, share: f64, colour: impl Into<GivenColour>) -> Self {
        let sound = self.fault.finite("stop", "share", share);
        if sound && !(0.0..=1.0).contains(&share) {
            let kind = FaultKind::OutOfRange { what: "share", value: share, low: 0.0, high: 1.0 };
            self.fault.note(Fault::of("stop", kind));
        }
        self.push("stop", share, colour.into());
        self
    }

    /// Colours evenly along the way, the first at its beginning and the last at its end, in place of those there were.
    #[must_use]
    pub fn colours<C: Into<GivenColour>>(mut self, colours: impl IntoIterator<Item = C>) -> Self {
        let colours: Vec<GivenColour> = colours.into_iter().map(Into::into).collect();
        let last = colours.len().saturating_sub(1).max(1) as f64;
        self.stops.clear();
        for (i, colour) in colours.into_iter().enumerate() {
            self.push("colours", i as f64 / last, colour);
        }
        self
    }

    fn push(&mut self, call: &'static str, share: f64, colour: GivenColour) {
        match colour.resolve(call) {
            Ok(colour) => {
                let before = self.stops.last().map_or(0.0, |(share, _)| *share);
                self.stops.push((share.max(before), colour));
            }
            Err(fault) => self.fault.note(fault),
        }
    }

    /// Sets the point at which a radial gradient begins, usually inside its circle. With a focus outside the circle the gradient is a cone, and nothing is
    /// painted outside it. Does nothing to other gradients.
    #[must_use]
    pub fn focus(self, at: impl IntoPoint) -> Self {
        self.focus_circle(at, 0.0)
    }

    /// Sets the focal circle of a radial gradient; see [`Gradient::focus`]. The inside of the focal circle has the first colour. A negative radius is a fault.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let lamp = radial_gradient((20.0, 20.0), 15.0).focus_circle((20.0, 20.0), 5.0).colours(["white", "black"]);
    /// let pixels = sheet(40.0, 40.0).ground(lamp).pixels()?;
    /// assert_eq!((pixels.at(22, 20), pixels.at(37, 20)), (Some([255; 4]), Some([0, 0, 0, 255])));
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    #[must_use]
    pub fn focus_circle(mut self, at: impl IntoPoint, radius: f64) -> Self {
        if let GradientKind::Radial { focus, focus_radius, .. } = &mut self.kind {
            (*focus, *focus_radius) = (at.into_point(), radius);
        }
        self
    }

    /// What comes before the beginning and after the end: [`Spread`] or `"pad"` (the default), `"repeat"`, `"reflect"`.
    #[must_use]
    pub fn spread(mut self, spread: impl Into<Given<Spread>>) -> Self {
        match spread.into().resolve("spread") {
            Ok(spread) => self.spread = spread,
            Err(fault) => self.fault.note(fault),
        }
        self
    }

    /// The space in which colours are mixed: [`ColourSpace`] or its name; `"srgb"` by default. SVG files, which know only that
    /// one, are given so many stops that no difference can be seen.
    #[must_use]
    pub fn mixed(mut self, space: impl Into<Given<ColourSpace>>) -> Self {
        match space.into().resolve("mixed") {
            Ok(space) => self.space = space,
            Err(fault) => self.fault.note(fault),
        }
        self
    }

    /// What the coordinates are measured in: [`Frame`] or `"item"` (the default), `"box"`, `"sheet"`.
    #[must_use]
    pub fn measured(mut self, frame: impl Into<Given<Frame>>) -> Self {
        match frame.into().resolve("measured") {
            Ok(frame) => self.frame = frame,
            Err(fault) => self.fault.note(fault),
        }
        self
    }

    /// Under an affine transform within what it is measured in, after those that there are: squashed, a radial gradient becomes elliptic.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let flat = radial_gradient((0.0, 0.0), 20.0).colours(["gold", "teal"]).transformed(&Affine::from_scale(Point::new(1.0, 0.5)));
    /// assert_eq!(flat.transform.transform_point2(pt(0.0, 20.0)), pt(0.0, 10.0));
    /// ```
    #[must_use]
    pub fn transformed(mut self, by: &Affine) -> Self {
        self.transform = *by * self.transform;
        self
    }

    /// The same the other way round.
    #[must_use]
    pub fn reversed(mut self) -> Self {
        self.stops.reverse();
        self.stops.iter_mut().for_each(|(share, _)| *share = 1.0 - *share);
        self
    }

    /// The stops: a share of the way and a colour each, in order.
    #[must_use]
    pub fn stops(&self) -> &[(f64, Colour)] {
        &self.stops
    }

    /// The gradient itself when nothing went wrong in its making, else the first fault.
    ///
    /// # Errors
    ///
    /// The first fault.
    pub fn sound(&self) -> Result<&Self, Fault> {
        let mut fault = self.fault.clone();
        match self.kind {
            GradientKind::Linear { from, to } => {
                fault.point("linear_gradient", from);
                fault.point("linear_gradient", to);
            }
            GradientKind::Radial { centre, radius, focus, focus_radius } => {
                fault.point("radial_gradient", centre);
                fault.not_negative("radial_gradient", "radius", radius);
                fault.point("focus", focus);
                fault.not_negative("focus_circle", "radius", focus_radius);
            }
            GradientKind::Sweep { centre, start } => {
                fault.point("sweep_gradient", centre);
                fault.finite("sweep_gradient", "angle in degrees", start.degrees());
            }
        }
        if !self.transform.is_finite() {
            let value = f64::INFINITY;
            fault.note(Fault::of("transformed", FaultKind::NotFinite { what: "number", value }));
        }
        fault.sound().map(|()| self)
    }

    /// The colour at a share of the way, from 0 to 1; transparent where there are no stops.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let dusk = linear_gradient((0.0, 0.0), (0.0, 60.0)).colours(["#000", "#fff"]);
    /// assert_eq!(dusk.at(0.5).hex(), "#808080");
    /// ```
    #[must_use]
    pub fn at(&self, share: f64) -> Colour {
        let next = self.stops.partition_point(|(stop, _)| *stop <= share);
        let stop = |at: usize| self.stops.get(at).copied();
        match (next.checked_sub(1).and_then(stop), stop(next)) {
            (Some((a, before)), Some((b, after))) => {
                let along = (share - a) / (b - a);
                // SVG mixes each channel alone.
                let straight = |p: f32, q: f32| p + (q - p) * along as f32;
                match self.space {
                    ColourSpace::Srgb => Colour {
                        red: straight(before.red, after.red),
                        green: straight(before.green, after.green),
                        blue: straight(before.blue, after.blue),
                        alpha: straight(before.alpha, after.alpha),
                    },
                    space => before.mixed(after, along, space),
                }
            }
            (Some((_, only)), None) | (None, Some((_, only))) => only,
            (None, None) => Colour::CLEAR,
        }
    }

    /// From the coordinates in which the gradient is given to those of the path, for what is painted within some bounds and stands
    /// where a transform puts it. `None` where it is in the sheet's coordinates and the transform cannot be undone.
    pub(crate) fn frame_of(&self, bounds: Option<Cell>, placed: &Affine) -> Option<Affine> {
        Some(self.own_frame(bounds, placed)? * self.transform)
    }

    fn own_frame(&self, bounds: Option<Cell>, placed: &Affine) -> Option<Affine> {
        match self.frame {
            Frame::Item => Some(Affine::IDENTITY),
            Frame::Box => {
                let bounds = bounds.unwrap_or(Cell { min: Point::ZERO, max: Point::ONE });
                let size = bounds.size();
                // What has no height is as high as it is wide.
                let full = if size.max_element() > 0.0 { size.max_element() } else { 1.0 };
                let size = Point::new(
                    if size.x > 0.0 { size.x } else { full },
                    if size.y > 0.0 { size.y } else { full },
                );
                Some(Affine::from_scale_angle_translation(size, 0.0, bounds.min))
            }
            Frame::Sheet => (placed.matrix2.determinant().abs() > 0.0)
                .then(|| placed.inverse())
                .filter(glam::DAffine2::is_finite),
        }
    }

    /// Returns `true` if the gradient has an abrupt colour change: at two stops with the same offset, or where it repeats.
    pub(crate) fn is_edged(&self) -> bool {
        let ends = self.stops.first().map(|stop| stop.1) != self.stops.last().map(|stop| stop.1);
        let again = self.spread == Spread::Repeat || matches!(self.kind, GradientKind::Sweep { .. });
        let between = |pair: &[(f64, Colour)]| matches!(pair, [a, b] if b.0 - a.0 < 1e-3 && a.1 != b.1);
        (again && ends) || self.stops.windows(2).any(between)
    }

    /// Whether all is of the last colour: the way has no length.
    pub(crate) fn is_flat(&self) -> bool {
        match self.kind {
            GradientKind::Linear { from, to } => from == to,
            GradientKind::Radial { radius, .. } => radius <= 0.0,
            GradientKind::Sweep { .. } => false,
        }
    }
}

/// Deserialises stops, whose offsets must be in order and from 0 to 1.
#[cfg(feature = "serde")]
fn sound_stops<'de, D: serde::Deserializer<'de>>(from: D) -> Result<Vec<(f64, Colour)>, D::Error> {
    let stops: Vec<(f64, Colour)> = serde::Deserialize::deserialize(from)?;
    let sound =
        stops.iter().all(|(share, _)| (0.0..=1.0).contains(share)) && stops.is_sorted_by_key(|stop| stop.0);
    let wrong = || serde::de::Error::custom("gradient stops must be in order, with offsets from 0 to 1");
    if sound { Ok(stops) } else { Err(wrong()) }
}

impl From<Gradient> for super::Paint {
    fn from(gradient: Gradient) -> Self {
        Self::Gradient(Arc::new(gradient))
    }
}

impl From<Gradient> for super::GivenPaint {
    fn from(gradient: Gradient) -> Self {
        Self::from(super::Paint::from(gradient))
    }
}

impl From<&Gradient> for super::GivenPaint {
    fn from(gradient: &Gradient) -> Self {
        Self::from(gradient.clone())
    }
}
