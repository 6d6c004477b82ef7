//! Style as a value: what an item is painted with.

use super::{GivenPaint, Paint};
use crate::ground::{Fault, FaultKind, FaultSlot, Given};
use crate::reshape::{Cap, Join, LineStyle};

/// Fill, stroke and opacity of an item. Nothing is inherited and nothing is current: what an item does not say is
/// the default.
///
/// ```
/// use chordane::prelude::*;
/// let seam: Style = style().stroke("navy", 2.0).cap("round").dash([6.0, 4.0]);
/// let item = Path::open([(0.0, 0.0), (60.0, 0.0)]).styled(&seam);
/// assert_eq!(item.style(), &seam);
/// ```
#[derive(Clone, Debug, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize), serde(default))]
pub struct Style {
    /// What the inside is filled with; `None` where it is not.
    pub fill: Option<Paint>,
    /// What the line is stroked with; `None` where it is not.
    pub stroke: Option<Paint>,
    /// How the line is stroked, in the item's own units. A width of 0 is no stroke.
    pub line: LineStyle,
    /// The opacity of fill and stroke together, from 0 to 1.
    pub opacity: f64,
    /// The first fault of its making, such as an unknown colour.
    #[cfg_attr(feature = "serde", serde(skip_deserializing, skip_serializing_if = "FaultSlot::is_empty"))]
    pub fault: FaultSlot,
}

/// A style of nothing yet: no fill, no stroke. Give it to any number of items with `styled`.
///
/// ```
/// use chordane::prelude::*;
/// let canvas = style().fill("#c8553d").stroke("#20303c", 3.0);
/// let (big, small) = (circle((0.0, 0.0), 9.0).styled(&canvas), circle((0.0, 0.0), 3.0).styled(&canvas));
/// assert_eq!(big.style(), small.style());
/// ```
#[must_use]
pub fn style() -> Style {
    Style::default()
}

impl Default for Style {
    fn default() -> Self {
        let (fill, stroke, line, fault) = Default::default();
        Self { fill, stroke, line, opacity: 1.0, fault }
    }
}

impl Style {
    /// What the line is stroked with, where it has a width.
    pub(crate) fn seen_stroke(&self) -> Option<&Paint> {
        self.stroke.as_ref().filter(|_| self.line.width > 0.0)
    }

    /// Whether anything that is painted lets what is below show through.
    pub(crate) fn lets_through(&self) -> bool {
        let clear = |paint: &Option<Paint>| paint.as_ref().is_some_and(|paint| !paint.is_opaque());
        self.opacity < 1.0 || clear(&self.fill) || clear(&self.stroke)
    }

    /// Whether there is neither a fill nor a stroke that has a width.
    #[must_use]
    pub fn paints_nothing(&self) -> bool {
        self.fill.is_none() && self.seen_stroke().is_none()
    }

    /// The same without a fill.
    #[cfg(feature = "svg-read")]
    pub(crate) fn unfilled(self) -> Self {
        Self { fill: None, ..self }
    }
}

/// The words of a style, on a style itself and on what has one.
///
/// ```
/// use chordane::prelude::*;
/// fn hemmed<T: Styled>(on: T) -> T {
///     on.stroke("#20303c", 3.0).cap("round").dash([12.0, 6.0])
/// }
/// let hem = hemmed(style());
/// assert_eq!(hemmed(circle((0.0, 0.0), 9.0).fill("gold")).style().line, hem.line);
/// ```
pub trait Styled: Sized {
    /// The style, to be changed.
    fn style_mut(&mut self) -> &mut Style;

    /// Fills the inside with a colour, or CSS colour text.
    #[must_use]
    fn fill(mut self, paint: impl Into<GivenPaint>) -> Self {
        match paint.into().resolve("fill") {
            Ok(paint) => self.style_mut().fill = Some(paint),
            Err(fault) => self.style_mut().fault.note(fault),
        }
        self
    }

    /// Draws the line with a colour and a width, half of it on either side of the line. A width of 0 is no
    /// stroke; a negative one is a fault.
    #[must_use]
    fn stroke(mut self, paint: impl Into<GivenPaint>, width: f64) -> Self {
        match paint.into().resolve("stroke") {
            Ok(paint) => self.style_mut().stroke = Some(paint),
            Err(fault) => self.style_mut().fault.note(fault),
        }
        self.style_mut().line.width = width;
        self
    }

    /// How the stroke ends: `Cap` or `"butt"`, `"round"`, `"square"`.
    #[must_use]
    fn cap(mut self, cap: impl Into<Given<Cap>>) -> Self {
        match cap.into().resolve("cap") {
            Ok(cap) => self.style_mut().line.cap = cap,
            Err(fault) => self.style_mut().fault.note(fault),
        }
        self
    }

    /// How the stroke turns corners: `Join` or `"mitre"`, `"round"`, `"bevel"`.
    #[must_use]
    fn join(mut self, join: impl Into<Given<Join>>) -> Self {
        match join.into().resolve("join") {
            Ok(join) => self.style_mut().line.join = join,
            Err(fault) => self.style_mut().fault.note(fault),
        }
        self
    }

    /// The longest mitre as a multiple of the width, 1 or more (4 by default); longer ones are bevelled.
    #[must_use]
    fn mitre_limit(mut self, limit: f64) -> Self {
        self.style_mut().line.mitre_limit = limit;
        self
    }

    /// Dashes the stroke: lengths of line and gap in turn, in sheet units. None, or all zero, is not a dash; a
    /// negative length is a fault.
    #[must_use]
    fn dash(mut self, pattern: impl Into<Vec<f64>>) -> Self {
        self.style_mut().line.dash = pattern.into();
        self
    }

    /// How far into the dash pattern the line begins, in sheet units; negative begins before it.
    #[must_use]
    fn dash_offset(mut self, offset: f64) -> Self {
        self.style_mut().line.dash_offset = offset;
        self
    }

    /// The opacity of fill and stroke together, from 0 to 1: where they overlap, neither shows through the other.
    #[must_use]
    fn opacity(mut self, opacity: f64) -> Self {
        self.style_mut().opacity = opacity;
        self
    }
}

impl Styled for Style {
    fn style_mut(&mut self) -> &mut Style {
        self
    }
}

impl Style {
    /// The style itself where nothing went wrong in its making and its numbers are in their ranges.
    ///
    /// # Errors
    ///
    /// The first fault of its making; then of its fields.
    pub fn sound(&self) -> Result<&Self, Fault> {
        if self.is_sound() { Ok(self) } else { self.first_fault() }
    }

    /// Whether there is no fault, without looking for the first one.
    pub(super) fn is_sound(&self) -> bool {
        let line = &self.line;
        let size = |length: f64| (0.0..f64::INFINITY).contains(&length);
        self.fault.get().is_none()
            && self.fill.as_ref().is_none_or(Paint::is_sound)
            && self.stroke.as_ref().is_none_or(Paint::is_sound)
            && size(line.width)
            && line.dash.iter().all(|length| size(*length))
            && (1.0..f64::INFINITY).contains(&line.mitre_limit)
            && line.dash_offset.is_finite()
            && (0.0..=1.0).contains(&self.opacity)
    }

    #[cold]
    fn first_fault(&self) -> Result<&Self, Fault> {
        self.fault.sound()?;
        for (call, paint) in [("fill", &self.fill), ("stroke", &self.stroke)] {
            paint.iter().try_for_each(|paint| paint.check(call))?;
        }
        let (mut fault, line) = (FaultSlot::default(), &self.line);
        fault.not_negative("stroke", "width", line.width);
        fault.in_range("mitre_limit", "mitre limit", line.mitre_limit, 1.0, f64::MAX);
        for length in &line.dash {
            fault.not_negative("dash", "dash length", *length);
        }
        fault.finite("dash_offset", "dash offset", line.dash_offset);
        fault.in_range("opacity", "opacity", self.opacity, 0.0, 1.0);
        fault.sound().map(|()| self)
    }
}

/// Notes a fault unless the number is from 0 to 1.
pub(super) fn share(call: &'static str, value: f64, fault: &mut FaultSlot) -> bool {
    let sound = fault.finite(call, call, value);
    let within = (0.0..=1.0).contains(&value);
    if sound && !within {
        fault.note(Fault::of(call, FaultKind::OutOfRange { what: call, value, low: 0.0, high: 1.0 }));
    }
    within
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::sheet::rgb;

    #[test]
    fn soundness_is_that_no_fault_is_found() {
        let hard = [0.0, -0.0, 1.0, 0.5, -1.0, 5e-324, f64::MAX, f64::NAN, f64::INFINITY, f64::NEG_INFINITY];
        for value in hard {
            let with = |change: fn(&mut Style, f64)| {
                let mut style = Style::default();
                change(&mut style, value);
                style
            };
            for style in [
                with(|style, value| style.line.width = value),
                with(|style, value| style.line.mitre_limit = value),
                with(|style, value| style.line.dash = vec![1.0, value]),
                with(|style, value| style.line.dash_offset = value),
                with(|style, value| style.opacity = value),
                with(|style, value| style.fill = Some(Paint::Solid(rgb(value, 0.5, 0.5)))),
            ] {
                assert_eq!(style.is_sound(), style.first_fault().is_ok(), "{style:?}");
            }
        }
    }
}
