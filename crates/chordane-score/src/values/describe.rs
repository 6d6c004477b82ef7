//! What a value is, in plain words, for messages.

use chordane::number::{Angle, Extent, Point};
use chordane::path::Vertex;
use chordane::sheet::Colour;
use rhai::Dynamic;

use super::Kind;
use super::plain::any_number;
use chordane::ground::plain_number;

/// What a value is, in plain words, for messages.
pub(crate) fn description(value: &Dynamic) -> String {
    if let Some(number) = any_number(value) {
        return match number {
            _ if number.is_nan() => "NaN, which is not a number".to_owned(),
            _ if number.is_infinite() => "an infinite number".to_owned(),
            _ => format!("the number {}", plain_number(number)),
        };
    }
    if let Some(text) = value.read_lock::<rhai::ImmutableString>() {
        let shown: String = text.chars().take(24).collect();
        return format!("the text \"{shown}\"");
    }
    if value.is::<Extent>() {
        return "an extent".to_owned();
    }
    if value.is::<Vertex>() {
        return "a vertex".to_owned();
    }
    let ours = [
        Kind::Point,
        Kind::Angle,
        Kind::Pen,
        Kind::Path,
        Kind::Item,
        Kind::Style,
        Kind::Group,
        Kind::Sheet,
        Kind::Curve,
        Kind::Cell,
        Kind::Triangle,
        Kind::Dice,
        Kind::Wheels,
        Kind::Stamp,
        Kind::Keys,
        Kind::Pose,
        Kind::Timeline,
        Kind::Colour,
        Kind::Gradient,
        Kind::Picture,
        Kind::Pattern,
        Kind::Paint,
    ];
    match ours.into_iter().find(|kind| kind.accepts(value)) {
        Some(kind) if !value.is_array() => kind.described().to_owned(),
        _ => plain_type(value.type_name()).to_owned(),
    }
}

/// A value as it is printed and put into texts.
pub(crate) fn shown(value: &Dynamic) -> String {
    if let Some(list) = value.read_lock::<rhai::Array>() {
        return format!("[{}]", list.iter().map(shown).collect::<Vec<_>>().join(", "));
    }
    if let Some(map) = value.read_lock::<rhai::Map>() {
        let entries: Vec<String> =
            map.iter().map(|(name, value)| format!("{name}: {}", shown(value))).collect();
        return format!("#{{{}}}", entries.join(", "));
    }
    if let Some(point) = value.read_lock::<Point>() {
        return format!("pt({}, {})", point.x, point.y);
    }
    if let Some(angle) = value.read_lock::<Angle>() {
        return format!("deg({})", angle.degrees());
    }
    if let Some(colour) = value.read_lock::<Colour>() {
        return colour.hex();
    }
    if let Some(number) = any_number(value) {
        return number.to_string();
    }
    if let Some(text) = value.read_lock::<rhai::ImmutableString>() {
        return text.to_string();
    }
    if let Ok(truth) = value.as_bool() {
        return truth.to_string();
    }
    description(value)
}

/// The engine's name of a type, in plain words.
pub(crate) fn plain_type(name: &str) -> &str {
    match name {
        "i64" | "f64" => "a number",
        "string" | "&str" | "ImmutableString" | "char" => "a text",
        "array" | "Array" => "a list",
        "map" => "a map",
        "bool" => "true or false",
        "()" => "nothing",
        "range" | "range=" => "a range",
        "Fn" => "a function",
        "point" => "a point",
        "angle" => "an angle",
        several if several.contains("String") => "a text",
        // Never a name of Rust's.
        other => KNOWN_TYPES
            .iter()
            .find(|(name, _)| *name == other)
            .map_or(if other.contains("::") { "a value" } else { other }, |(_, plain)| plain),
    }
}

const KNOWN_TYPES: &[(&str, &str)] = &[
    ("colour", "a colour"),
    ("gradient", "a gradient"),
    ("pen", "a pen"),
    ("path", "a path"),
    ("item", "an item"),
    ("style", "a style"),
    ("group", "a group"),
    ("sheet", "a sheet"),
    ("vertex", "a vertex"),
    ("curve", "a smooth curve"),
    ("cell", "a cell"),
    ("extent", "an extent"),
    ("triangle", "a triangle"),
    ("dice", "dice"),
    ("wheels", "wheels"),
    ("stamp", "a stamp"),
    ("keys", "keys"),
    ("pose", "a pose"),
    ("timeline", "a timeline"),
];
