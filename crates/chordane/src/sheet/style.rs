//! Style as a value: what an item is painted with.

use super::{Colour, Given, Paint};
use crate::fault::{Carried, Fault, FaultKind};
use crate::reshape::{Cap, Join, Outline};

/// Fill, stroke and opacity of an item. Nothing is inherited and nothing is current: what an item does not say is
/// the default.
#[derive(Clone, Debug, PartialEq)]
pub struct Style {
    pub(crate) fill: Option<Colour>,
    pub(crate) stroke: Option<Colour>,
    pub(crate) outline: Outline,
    pub(crate) opacity: f64,
    pub(crate) fault: Carried,
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
        let (fill, stroke, fault) = Default::default();
        Self { fill, stroke, outline: Outline::new(1.0), opacity: 1.0, fault }
    }
}

impl Style {
    /// The fill's colour, if there is one.
    #[must_use]
    pub fn fill_colour(&self) -> Option<Colour> {
        self.fill
    }

    /// The stroke's colour, if there is one.
    #[must_use]
    pub fn stroke_colour(&self) -> Option<Colour> {
        self.stroke
    }

    /// The stroke's width, cap, join and dash.
    #[must_use]
    pub fn outline(&self) -> &Outline {
        &self.outline
    }

    /// Whether anything that is painted lets what is below show through.
    pub(crate) fn lets_through(&self) -> bool {
        let clear = |colour: &Option<Colour>| colour.is_some_and(|colour| colour.to_rgba8()[3] < 255);
        self.opacity < 1.0 || clear(&self.fill) || clear(&self.stroke)
    }

    /// Whether there is neither a fill nor a stroke that has a width.
    #[must_use]
    pub fn paints_nothing(&self) -> bool {
        self.fill.is_none() && (self.stroke.is_none() || self.outline.width == 0.0)
    }

    /// Fills the inside with a colour, or CSS colour text.
    #[must_use]
    pub fn fill(mut self, paint: impl Into<Paint>) -> Self {
        match paint.into().resolve("fill") {
            Ok(colour) => self.fill = Some(colour),
            Err(fault) => self.fault.note(fault),
        }
        self
    }

    /// Draws the line with a colour and a width, half of it on either side of the line. A width of 0 is no
    /// stroke; a negative one is a fault.
    #[must_use]
    pub fn stroke(mut self, paint: impl Into<Paint>, width: f64) -> Self {
        match paint.into().resolve("stroke") {
            Ok(colour) => self.stroke = Some(colour),
            Err(fault) => self.fault.note(fault),
        }
        if self.fault.not_negative("stroke", "width", width) {
            self.outline.width = width;
        }
        self
    }

    /// How the stroke ends: `Cap` or `"butt"`, `"round"`, `"square"`.
    #[must_use]
    pub fn cap(mut self, cap: impl Into<Given<Cap>>) -> Self {
        match cap.into().resolve("cap") {
            Ok(cap) => self.outline.cap = cap,
            Err(fault) => self.fault.note(fault),
        }
        self
    }

    /// How the stroke turns corners: `Join` or `"mitre"`, `"round"`, `"bevel"`.
    #[must_use]
    pub fn join(mut self, join: impl Into<Given<Join>>) -> Self {
        match join.into().resolve("join") {
            Ok(join) => self.outline.join = join,
            Err(fault) => self.fault.note(fault),
        }
        self
    }

    /// The longest mitre as a multiple of the width, 1 or more (4 at first); longer ones are bevelled.
    #[must_use]
    pub fn mitre_limit(mut self, limit: f64) -> Self {
        if self.fault.finite("mitre_limit", "mitre limit", limit) {
            if limit >= 1.0 {
                self.outline.mitre_limit = limit;
            } else {
                let kind =
                    FaultKind::OutOfRange { what: "mitre limit", value: limit, low: 1.0, high: f64::MAX };
                self.fault.note(Fault::new("mitre_limit", kind));
            }
        }
        self
    }

    /// Dashes the stroke: lengths of line and gap in turn, in sheet units. None, or all zero, is no dash; a
    /// negative length is a fault.
    #[must_use]
    pub fn dash(mut self, pattern: impl Into<Vec<f64>>) -> Self {
        let pattern = pattern.into();
        if pattern.iter().all(|length| self.fault.not_negative("dash", "dash length", *length)) {
            self.outline.dash = pattern;
        }
        self
    }

    /// How far into the dash pattern the line begins, in sheet units; negative begins before it.
    #[must_use]
    pub fn dash_offset(mut self, offset: f64) -> Self {
        if self.fault.finite("dash_offset", "dash offset", offset) {
            self.outline.dash_offset = offset;
        }
        self
    }

    /// The opacity of fill and stroke together, from 0 to 1: where they overlap, neither shows through the other.
    #[must_use]
    pub fn opacity(mut self, opacity: f64) -> Self {
        if share("opacity", opacity, &mut self.fault) {
            self.opacity = opacity;
        }
        self
    }
}

/// Notes a fault unless the number is from 0 to 1.
pub(super) fn share(call: &'static str, value: f64, fault: &mut Carried) -> bool {
    let sound = fault.finite(call, call, value);
    let within = (0.0..=1.0).contains(&value);
    if sound && !within {
        fault.note(Fault::new(call, FaultKind::OutOfRange { what: call, value, low: 0.0, high: 1.0 }));
    }
    within
}
