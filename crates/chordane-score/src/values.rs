//! The values that scripts hold, and how they are taken out of the engine's own.
//!
//! Paths and items are values: a call gives a new one. Pens, groups and sheets are builders: a call changes the
//! one it is made on and gives that same one back, so that `pen = pen.line(p)`, a plain `pen.line(p)` and a chain of
//! calls all draw on. A copy in another variable goes its own way. Growing one in a loop is linear.

use std::sync::{Arc, Mutex, PoisonError};

use chordane::prelude::*;

use crate::words::ScoreStamp;
use chordane::chance::Dice;
use rhai::{Array, Dynamic};

/// A pen, group or sheet. What a call gives back is the same one; a copy in another variable goes its own way.
#[derive(Debug)]
pub(crate) struct Builder<T>(Arc<Mutex<T>>);

/// The engine clones a value when it is put into another variable.
impl<T: Clone> Clone for Builder<T> {
    fn clone(&self) -> Self {
        Self::new(self.get())
    }
}

impl<T: Clone> Builder<T> {
    pub(crate) fn new(inside: T) -> Self {
        Self(Arc::new(Mutex::new(inside)))
    }

    /// What it has become by now, as a value of its own.
    pub(crate) fn get(&self) -> T {
        self.look(T::clone)
    }

    pub(crate) fn look<R>(&self, look: impl FnOnce(&T) -> R) -> R {
        look(&self.0.lock().unwrap_or_else(PoisonError::into_inner))
    }

    /// The same one again, for what a call gives back.
    pub(crate) fn same(&self) -> Self {
        Self(Arc::clone(&self.0))
    }

    /// Changes it in place.
    pub(crate) fn with<R>(&self, change: impl FnOnce(&mut T) -> R) -> R {
        change(&mut self.0.lock().unwrap_or_else(PoisonError::into_inner))
    }

    /// Changes it where it stands. `empty` stands in for a moment.
    pub(crate) fn change(&self, empty: impl FnOnce() -> T, change: impl FnOnce(T) -> T) {
        let mut inside = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        *inside = change(std::mem::replace(&mut *inside, empty()));
    }
}

/// What kind of value something is, as far as the words care.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Kind {
    /// A number, whole or not.
    Number,
    /// A whole number from 0 up.
    Count,
    /// A point: `pt(x, y)` or `[x, y]`.
    Point,
    /// An angle.
    Angle,
    /// A text.
    Text,
    /// A pen that draws a contour.
    Pen,
    /// A path.
    Path,
    /// A path with a style.
    Item,
    /// A style.
    Style,
    /// A group.
    Group,
    /// A sheet.
    Sheet,
    /// A path, an item or a group: what can be added.
    Node,
    /// A list of what can be added.
    Nodes,
    /// A list of points.
    Points,
    /// A list of numbers.
    Numbers,
    /// A list of angles.
    Angles,
    /// A vertex of a smooth curve; a point is a soft one.
    Vertex,
    /// A list of vertices of a smooth curve.
    Vertices,
    /// A smooth curve before it is closed or left open.
    Curve,
    /// A cell.
    Cell,
    /// A list of cells.
    Cells,
    /// An extent; a number is one too.
    Extent,
    /// A list of extents.
    Extents,
    /// A triangle.
    Triangle,
    /// True or false.
    Flag,
    /// A list of texts.
    Texts,
    /// Dice.
    Dice,
    /// Turning wheels.
    Wheels,
    /// A thing to set down along a path.
    Stamp,
    /// A function of a score: `|share| pt(share, 0)`.
    Function,
    /// A list of anything.
    List,
    /// Anything.
    Value,
}

impl Kind {
    /// The kind in a sentence, with its article.
    #[must_use]
    pub fn described(self) -> &'static str {
        match self {
            Self::Number => "a number",
            Self::Count => "a whole number from 0 up",
            Self::Point => "a point",
            Self::Angle => "an angle",
            Self::Text => "a text",
            Self::Pen => "a pen",
            Self::Path => "a path",
            Self::Item => "an item",
            Self::Style => "a style",
            Self::Group => "a group",
            Self::Sheet => "a sheet",
            Self::Node => "a path, an item or a group",
            Self::Nodes => "a list of paths, items and groups",
            Self::Points => "a list of points",
            Self::Numbers => "a list of numbers",
            Self::Angles => "a list of angles",
            Self::Vertex => "a vertex",
            Self::Vertices => "a list of points and vertices",
            Self::Curve => "a smooth curve",
            Self::Cell => "a cell",
            Self::Cells => "a list of cells",
            Self::Extent => "a number or an extent",
            Self::Extents => "a list of numbers and extents",
            Self::Triangle => "a triangle",
            Self::Flag => "true or false",
            Self::Texts => "a list of texts",
            Self::Dice => "dice",
            Self::Wheels => "wheels",
            Self::Stamp => "a stamp",
            Self::Function => "a function",
            Self::List => "a list",
            Self::Value => "a value",
        }
    }

    /// The kind alone, as in a heading.
    #[must_use]
    pub fn plain(self) -> &'static str {
        let text = self.described();
        text.strip_prefix("a ").or_else(|| text.strip_prefix("an ")).unwrap_or(text)
    }

    /// How to write a value of the kind, where that is what people forget.
    pub(crate) fn mend(self) -> Option<&'static str> {
        match self {
            Self::Angle => Some("write deg(90), turns(0.25) or rad(PI / 2)"),
            Self::Point => Some("write pt(x, y) or [x, y]"),
            Self::Points => Some("write [[0, 0], [10, 0], [10, 10]]"),
            Self::Path => Some("a pen or a smooth curve becomes a path by close() or open()"),
            Self::Vertices => Some("write [[0, 0], soft([10, 5]), corner([20, 0])]"),
            Self::Cell => Some("write cell(pt(0, 0), 200, 100), or sheet.cell()"),
            Self::Extent => Some("write 12, part(0.5) or part(0.5) + 12"),
            Self::Node => Some("a pen becomes a path by close() or open(); add several with add_all([..])"),
            Self::Function => Some("write |share| pt(share, 0), or the name of a function as Fn(\"name\")"),
            Self::Text => Some("write it in quotes: \"#c8553d\""),
            _ => None,
        }
    }

    pub(crate) fn accepts(self, value: &Dynamic) -> bool {
        match self {
            Self::Number => number(value).is_some(),
            Self::Count => count(value).is_some(),
            Self::Point => point(value).is_some(),
            Self::Angle => value.is::<Angle>(),
            Self::Text => value.is_string(),
            Self::Pen => value.is::<Builder<Pen>>(),
            Self::Path => value.is::<Path>(),
            Self::Item => value.is::<Item>(),
            Self::Style => value.is::<Style>(),
            Self::Group => value.is::<Builder<Group>>(),
            Self::Sheet => value.is::<Builder<Sheet>>(),
            Self::Node => value.is::<Path>() || value.is::<Item>() || value.is::<Builder<Group>>(),
            Self::Nodes => list_of(value, Self::Node),
            Self::Points => list_of(value, Self::Point),
            Self::Numbers => list_of(value, Self::Number),
            Self::Angles => list_of(value, Self::Angle),
            Self::Vertex => vertex(value).is_some(),
            Self::Vertices => list_of(value, Self::Vertex),
            Self::Curve => value.is::<Through>(),
            Self::Cell => value.is::<Cell>(),
            Self::Cells => list_of(value, Self::Cell),
            Self::Extent => extent(value).is_some(),
            Self::Extents => list_of(value, Self::Extent),
            Self::Triangle => value.is::<Triangle>(),
            Self::Flag => value.is_bool(),
            Self::Texts => list_of(value, Self::Text),
            Self::Dice => value.is::<Builder<Dice>>(),
            Self::Wheels => value.is::<Wheels>(),
            Self::Stamp => value.is::<ScoreStamp>(),
            Self::Function => value.is_fnptr(),
            Self::List => value.is_array(),
            Self::Value => true,
        }
    }
}

fn list_of(value: &Dynamic, kind: Kind) -> bool {
    value.read_lock::<Array>().is_some_and(|list| list.iter().all(|one| kind.accepts(one)))
}

/// What a value is, in plain words, for messages.
pub(crate) fn description(value: &Dynamic) -> String {
    if let Some(number) = number(value) {
        return format!("the number {number}");
    }
    if let Some(text) = value.read_lock::<rhai::ImmutableString>() {
        let shown: String = text.chars().take(24).collect();
        return format!("the text \"{shown}\"");
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
    ];
    match ours.into_iter().find(|kind| kind.accepts(value)) {
        Some(kind) if !value.is_array() => kind.described().to_owned(),
        _ => plain_type(value.type_name()).to_owned(),
    }
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
        other => KNOWN_TYPES.iter().find(|(name, _)| *name == other).map_or(other, |(_, plain)| plain),
    }
}

const KNOWN_TYPES: &[(&str, &str)] = &[
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
];

pub(crate) fn number(value: &Dynamic) -> Option<f64> {
    value.as_float().ok().or_else(|| value.as_int().ok().map(|whole| whole as f64))
}

/// A whole number from 0 up, also when it is written `12.0`.
pub(crate) fn count(value: &Dynamic) -> Option<usize> {
    number(value).filter(|n| *n >= 0.0 && n.trunc() == *n && *n < 1e15).map(|n| n as usize)
}

pub(crate) fn point(value: &Dynamic) -> Option<Point> {
    if let Some(p) = value.read_lock::<Point>() {
        return Some(*p);
    }
    let list = value.read_lock::<Array>()?;
    match list.as_slice() {
        [x, y] => Some(pt(number(x)?, number(y)?)),
        _ => None,
    }
}

pub(crate) fn vertex(value: &Dynamic) -> Option<Vertex> {
    let made = value.read_lock::<Vertex>().map(|vertex| vertex.clone());
    made.or_else(|| point(value).map(soft))
}

/// An extent; a plain number is a fixed length.
pub(crate) fn extent(value: &Dynamic) -> Option<Extent> {
    let made = value.read_lock::<Extent>().map(|extent| *extent);
    made.or_else(|| number(value).map(Extent::from))
}

pub(crate) fn node(value: &Dynamic) -> Option<Node> {
    if let Some(path) = value.read_lock::<Path>() {
        return Some(path.clone().into());
    }
    if let Some(item) = value.read_lock::<Item>() {
        return Some(item.clone().into());
    }
    value.read_lock::<Builder<Group>>().map(|group| group.get().into())
}
