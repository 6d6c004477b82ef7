//! Paint and stroke properties: read from attributes and `style`, handed down to what is inside.

use std::rc::Rc;

use super::attributes::{Along, length, numbers, share};
use super::tree::id_of;
use crate::number::Point;
use crate::path::FillRule;
use crate::reshape::{Cap, Join};
use crate::sheet::{self, Colour, Style, Styled, style};

/// A paint as it is handed down: what `currentColor` is, is only known where it is used.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Paint {
    None,
    Plain(Colour),
    Current,
    /// An element by its id, and what is painted with where it cannot be.
    Server(Rc<str>, Option<Box<Self>>),
}

/// The properties that elements hand down.
#[derive(Clone, Debug)]
pub(super) struct Properties {
    colour: Colour,
    fill: Paint,
    fill_opacity: f64,
    pub(super) fill_rule: FillRule,
    stroke: Paint,
    stroke_opacity: f64,
    width: f64,
    cap: Cap,
    join: Join,
    mitre_limit: f64,
    dash: Vec<f64>,
    dash_offset: f64,
    pub(super) visible: bool,
    /// Whether the stroke lies under the fill.
    pub(super) stroke_first: bool,
}

pub(super) const BLACK: Colour = Colour { red: 0.0, green: 0.0, blue: 0.0, alpha: 1.0 };

impl Default for Properties {
    fn default() -> Self {
        let (fill_rule, cap, join, dash) = Default::default();
        Self {
            colour: BLACK,
            fill: Paint::Plain(BLACK),
            fill_opacity: 1.0,
            fill_rule,
            stroke: Paint::None,
            stroke_opacity: 1.0,
            width: 1.0,
            cap,
            join,
            mitre_limit: 4.0,
            dash,
            dash_offset: 0.0,
            visible: true,
            stroke_first: false,
        }
    }
}

/// What became of a property.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Taken {
    /// It was understood.
    Yes,
    /// Its value was not.
    BadValue,
    /// It is not one of these properties.
    Unknown,
}

impl Properties {
    /// Takes a property over; `around` is what was handed down.
    pub(super) fn take(&mut self, name: &str, value: &str, around: &Self, viewport: Point) -> Taken {
        let value = value.trim();
        match value {
            "inherit" | "unset" | "revert" | "revert-layer" => return self.take_from(name, around),
            "initial" => return self.take_from(name, &Self::default()),
            _ => {}
        }
        let good = match name {
            "fill" => set(&mut self.fill, given_paint(value)),
            "stroke" => set(&mut self.stroke, given_paint(value)),
            "paint-order" => {
                let stroke = value.find("stroke");
                self.stroke_first = stroke.is_some_and(|at| value.find("fill").is_none_or(|fill| at < fill));
                true
            }
            "color" => match paint_of(value) {
                Some(Paint::Plain(colour)) => set(&mut self.colour, Some(colour)),
                Some(Paint::Current) => set(&mut self.colour, Some(around.colour)),
                _ => false,
            },
            "fill-opacity" => set(&mut self.fill_opacity, share(value)),
            "stroke-opacity" => set(&mut self.stroke_opacity, share(value)),
            "fill-rule" => set(
                &mut self.fill_rule,
                match value {
                    "nonzero" => Some(FillRule::Nonzero),
                    "evenodd" => Some(FillRule::EvenOdd),
                    _ => None,
                },
            ),
            "stroke-width" => {
                set(&mut self.width, length(value, Along::Both, viewport).filter(|width| *width >= 0.0))
            }
            "stroke-linecap" => set(
                &mut self.cap,
                match value {
                    "butt" => Some(Cap::Butt),
                    "round" => Some(Cap::Round),
                    "square" => Some(Cap::Square),
                    _ => None,
                },
            ),
            "stroke-linejoin" => set(
                &mut self.join,
                match value {
                    "miter" => Some(Join::Mitre),
                    "round" => Some(Join::Round),
                    "bevel" => Some(Join::Bevel),
                    _ => None,
                },
            ),
            "stroke-miterlimit" => {
                let limit = numbers(value).and_then(|all| all.first().copied());
                set(&mut self.mitre_limit, limit.filter(|limit| *limit >= 1.0))
            }
            "stroke-dasharray" => set(&mut self.dash, dashes(value, viewport)),
            "stroke-dashoffset" => set(&mut self.dash_offset, length(value, Along::Both, viewport)),
            "visibility" => set(
                &mut self.visible,
                match value {
                    "visible" => Some(true),
                    "hidden" | "collapse" => Some(false),
                    _ => None,
                },
            ),
            _ => return Taken::Unknown,
        };
        if good { Taken::Yes } else { Taken::BadValue }
    }

    /// Takes a property over from other ones.
    fn take_from(&mut self, name: &str, other: &Self) -> Taken {
        match name {
            "fill" => self.fill.clone_from(&other.fill),
            "stroke" => self.stroke.clone_from(&other.stroke),
            "paint-order" => self.stroke_first = other.stroke_first,
            "color" => self.colour = other.colour,
            "fill-opacity" => self.fill_opacity = other.fill_opacity,
            "stroke-opacity" => self.stroke_opacity = other.stroke_opacity,
            "fill-rule" => self.fill_rule = other.fill_rule,
            "stroke-width" => self.width = other.width,
            "stroke-linecap" => self.cap = other.cap,
            "stroke-linejoin" => self.join = other.join,
            "stroke-miterlimit" => self.mitre_limit = other.mitre_limit,
            "stroke-dasharray" => self.dash.clone_from(&other.dash),
            "stroke-dashoffset" => self.dash_offset = other.dash_offset,
            "visibility" => self.visible = other.visible,
            _ => return Taken::Unknown,
        }
        Taken::Yes
    }

    /// With dashes that are so many times as long.
    pub(super) fn with_dashes_scaled(mut self, factor: f64) -> Self {
        self.dash.iter_mut().for_each(|length| *length *= factor);
        self.dash_offset *= factor;
        self
    }

    /// The style of a shape, whose paint servers are asked for by their ids and the opacity that they are painted with. A shape without any
    /// paint is meant to be invisible, and stays so.
    pub(super) fn style(
        &self,
        opacity: f64,
        mut server: impl FnMut(&str, f64) -> Option<sheet::Paint>,
    ) -> Style {
        let mut paint = |paint: &Paint, share: f64| {
            let plain = |paint: &Paint| match paint {
                Paint::Plain(colour) => Some(sheet::Paint::Solid(colour.faded(share))),
                Paint::Current => Some(sheet::Paint::Solid(self.colour.faded(share))),
                Paint::None | Paint::Server(..) => None,
            };
            match paint {
                Paint::Server(id, instead) => {
                    server(id, share).or_else(|| instead.as_deref().and_then(plain))
                }
                other => plain(other),
            }
        };
        let fill = paint(&self.fill, self.fill_opacity);
        let stroke = if self.width > 0.0 { paint(&self.stroke, self.stroke_opacity) } else { None };
        let invisible = fill.is_none() && stroke.is_none();
        let mut made = style().opacity(opacity);
        if let Some(stroke) = stroke {
            made =
                made.stroke(stroke, self.width).cap(self.cap).join(self.join).mitre_limit(self.mitre_limit);
            if self.dash.iter().any(|length| *length > 0.0) {
                made = made.dash(self.dash.as_slice()).dash_offset(self.dash_offset);
            }
        }
        match fill {
            Some(fill) => made.fill(fill),
            None if invisible => made.fill(Colour { alpha: 0.0, ..BLACK }),
            None => made,
        }
    }
}

fn set<T>(slot: &mut T, value: Option<T>) -> bool {
    let good = value.is_some();
    if let Some(value) = value {
        *slot = value;
    }
    good
}

/// A paint, or a reference to one with what comes in its place.
fn given_paint(value: &str) -> Option<Paint> {
    let Some((target, instead)) = value.strip_prefix("url(").and_then(|rest| rest.split_once(')')) else {
        return paint_of(value);
    };
    let instead = match instead.trim() {
        "" => None,
        text => Some(Box::new(paint_of(text).unwrap_or(Paint::None))),
    };
    Some(Paint::Server(id_of(target).into(), instead))
}

/// The id that a value refers to, where it is a reference and nothing else.
pub(super) fn reference(value: &str) -> Option<&str> {
    value.trim().strip_prefix("url(").and_then(|rest| rest.strip_suffix(')')).map(id_of)
}

pub(super) fn paint_of(text: &str) -> Option<Paint> {
    if text.eq_ignore_ascii_case("none") {
        return Some(Paint::None);
    }
    if text.eq_ignore_ascii_case("currentcolor") {
        return Some(Paint::Current);
    }
    Colour::parse(text).ok().map(Paint::Plain)
}

/// A dash pattern; an odd number of lengths goes round twice.
fn dashes(text: &str, viewport: Point) -> Option<Vec<f64>> {
    if text == "none" {
        return Some(Vec::new());
    }
    let parts = text.split(|c: char| c == ',' || c.is_whitespace()).filter(|part| !part.is_empty());
    let lengths: Option<Vec<f64>> =
        parts.map(|part| length(part, Along::Both, viewport).filter(|length| *length >= 0.0)).collect();
    let mut lengths = lengths?;
    if lengths.len() % 2 == 1 {
        lengths.extend_from_within(..);
    }
    Some(lengths)
}
