//! Values as words take them: one conversion for each Rust type, with the kind that messages and the docs call it, and with
//! the limits of counts.

use chordane::chance::Dice;
use chordane::number::Cell;
use chordane::prelude::*;
use chordane::sheet::{GivenColour, GivenPaint, Node};
use rhai::{Array, Dynamic, FnPtr};

use super::plain::{count, extent, node, number, point, vertex};
use super::stamp::ScoreStamp;
use super::{Builder, Kind};
use crate::call::{Call, line_of};
use crate::call_error::CallError;

/// What a word can take.
pub(crate) trait Take: Sized {
    /// The kinds of value that it is taken from.
    const KINDS: &'static [Kind];

    /// Takes the value; `None` where it is of another kind.
    fn take(value: &Dynamic, call: &Call<'_>) -> Option<Self>;

    /// What is too much of it, where there is a limit: how many there are, and how many there may be.
    fn too_much(&self, _: &Call<'_>) -> Option<(usize, usize)> {
        None
    }
}

macro_rules! take {
    ($($type:ty, $kind:ident, |$value:ident| $take:expr;)*) => {$(
        impl Take for $type {
            const KINDS: &'static [Kind] = &[Kind::$kind];

            fn take($value: &Dynamic, _: &Call<'_>) -> Option<Self> {
                $take
            }
        }
    )*};
}

/// A copy of a value of ours.
fn held<T: Clone + Send + Sync + 'static>(value: &Dynamic) -> Option<T> {
    value.read_lock::<T>().map(|held| held.clone())
}

/// The builder itself, not a copy.
fn same<T: Clone + Send + Sync + 'static>(value: &Dynamic) -> Option<Builder<T>> {
    value.read_lock::<Builder<T>>().map(|builder| builder.same())
}

/// What a builder has become by now.
fn become_by_now<T: Clone + Send + Sync + 'static>(value: &Dynamic) -> Option<T> {
    value.read_lock::<Builder<T>>().map(|builder| builder.get())
}

take! {
    f64, Number, |value| number(value);
    u64, Count, |value| count(value).map(|n| n as u64);
    Point, Point, |value| point(value);
    Angle, Angle, |value| held(value);
    String, Text, |value| value.clone().into_string().ok();
    bool, Flag, |value| value.as_bool().ok();
    Path, Path, |value| held(value);
    Style, Style, |value| held(value);
    Vertex, Vertex, |value| vertex(value);
    Gradient, Gradient, |value| held(value);
    Picture, Picture, |value| held(value);
    Pattern, Pattern, |value| held(value);
    Through, Curve, |value| held(value);
    Cell, Cell, |value| held(value);
    Extent, Extent, |value| extent(value);
    Triangle, Triangle, |value| held(value);
    Wheels, Wheels, |value| held(value);
    ScoreStamp, Stamp, |value| held(value);
    Pose, Pose, |value| held(value);
    Timeline, Timeline, |value| held(value);
    FnPtr, Function, |value| value.clone().try_cast();
    Dynamic, Value, |value| Some(value.clone());
    Array, List, |value| held(value);
    Pen, Pen, |value| become_by_now(value);
    Group, Group, |value| become_by_now(value);
    Sheet, Sheet, |value| become_by_now(value);
    Builder<Pen>, Pen, |value| same(value);
    Builder<Group>, Group, |value| same(value);
    Builder<Sheet>, Sheet, |value| same(value);
    Builder<Dice>, Dice, |value| same(value);
}

/// A count makes so many of something: as many as a list may hold.
impl Take for usize {
    const KINDS: &'static [Kind] = &[Kind::Count];

    fn take(value: &Dynamic, _: &Call<'_>) -> Option<Self> {
        count(value)
    }

    fn too_much(&self, call: &Call<'_>) -> Option<(usize, usize)> {
        let most = call.longest_list();
        (*self > most).then_some((*self, most))
    }
}

/// How far along a side of a cell: a plain number is a share.
impl Take for chordane::number::Along {
    const KINDS: &'static [Kind] = &[Kind::Extent];

    fn take(value: &Dynamic, _: &Call<'_>) -> Option<Self> {
        number(value).map(Into::into).or_else(|| extent(value).map(Into::into))
    }
}

/// An item that no line is known for yet was made by this call.
impl Take for Node {
    const KINDS: &'static [Kind] = &[Kind::Node];

    fn take(value: &Dynamic, call: &Call<'_>) -> Option<Self> {
        Some(match (node(value)?, line_of(value).or_else(|| call.line())) {
            (Node::Item(item), Some(line)) if item.line().is_none() => item.at_line(line).into(),
            (node, _) => node,
        })
    }
}

/// A colour: a value, or a text that has still to be read.
#[derive(Clone, Debug)]
pub(crate) enum Tint {
    Colour(Colour),
    Text(String),
}

impl Tint {
    /// The colour; `call` is the word that it was given to.
    pub(crate) fn of(&self, call: &'static str) -> Result<Colour, CallError> {
        match self {
            Self::Colour(colour) => Ok(*colour),
            Self::Text(text) => Ok(Colour::read_for(call, text)?),
        }
    }
}

impl Take for Tint {
    const KINDS: &'static [Kind] = &[Kind::Colour];

    fn take(value: &Dynamic, _: &Call<'_>) -> Option<Self> {
        held(value).map(Self::Colour).or_else(|| value.clone().into_string().ok().map(Self::Text))
    }
}

/// A colour argument of an added word.
impl Take for GivenColour {
    const KINDS: &'static [Kind] = &[Kind::Colour];

    fn take(value: &Dynamic, call: &Call<'_>) -> Option<Self> {
        Some(match Tint::take(value, call)? {
            Tint::Colour(colour) => colour.into(),
            Tint::Text(text) => text.into(),
        })
    }
}

impl Take for GivenPaint {
    const KINDS: &'static [Kind] = &[Kind::Paint];

    fn take(value: &Dynamic, call: &Call<'_>) -> Option<Self> {
        let drawn = held::<Gradient>(value)
            .map(Self::from)
            .or_else(|| held::<Picture>(value).map(Self::from))
            .or_else(|| held::<Pattern>(value).map(Self::from))
            .or_else(|| held::<Shades>(value).map(Self::from));
        if drawn.is_some() {
            return drawn;
        }
        Some(match Tint::take(value, call)? {
            Tint::Colour(colour) => colour.into(),
            Tint::Text(text) => text.into(),
        })
    }
}

macro_rules! take_list {
    ($($type:ty, $kind:ident;)*) => {$(
        impl Take for Vec<$type> {
            const KINDS: &'static [Kind] = &[Kind::$kind];

            fn take(value: &Dynamic, call: &Call<'_>) -> Option<Self> {
                let list = value.read_lock::<Array>()?;
                list.iter().map(|one| <$type>::take(one, call)).collect()
            }
        }
    )*};
}

take_list! {
    f64, Numbers;
    Point, Points;
    Vertex, Vertices;
    Extent, Extents;
    Node, Nodes;
    Item, Items;
    String, Texts;
    Tint, Colours;
    GivenColour, Colours;
}

/// What is moved, turned and scaled alike: a path, an item or a group.
#[derive(Clone, Debug)]
pub(crate) enum Thing {
    Path(Path),
    Item(Item),
    Group(Group),
}

impl Take for Thing {
    const KINDS: &'static [Kind] = &[Kind::Path, Kind::Item, Kind::Group];

    fn take(value: &Dynamic, _: &Call<'_>) -> Option<Self> {
        held(value)
            .map(Self::Path)
            .or_else(|| held(value).map(Self::Item))
            .or_else(|| become_by_now(value).map(Self::Group))
    }
}

/// What a style word is called on: a path, which becomes an item, an item, or a style.
#[derive(Clone, Debug)]
pub(crate) enum Painted {
    Item(Item),
    Style(Style),
}

impl Styled for Painted {
    fn style_mut(&mut self) -> &mut Style {
        match self {
            Self::Item(item) => item.style_mut(),
            Self::Style(style) => style,
        }
    }
}

impl Take for Painted {
    const KINDS: &'static [Kind] = &[Kind::Path, Kind::Item, Kind::Style];

    fn take(value: &Dynamic, call: &Call<'_>) -> Option<Self> {
        Item::take(value, call).map(Self::Item).or_else(|| held(value).map(Self::Style))
    }
}

/// What is stroked already: an item or a style.
#[derive(Clone, Debug)]
pub(crate) struct Stroked(pub(crate) Painted);

impl Styled for Stroked {
    fn style_mut(&mut self) -> &mut Style {
        self.0.style_mut()
    }
}

impl Take for Stroked {
    const KINDS: &'static [Kind] = &[Kind::Item, Kind::Style];

    fn take(value: &Dynamic, _: &Call<'_>) -> Option<Self> {
        let item = held(value).map(Painted::Item);
        item.or_else(|| held(value).map(Painted::Style)).map(Self)
    }
}

/// What fades as a whole: an item, a style or a group.
#[derive(Clone, Debug)]
pub(crate) enum Fading {
    Item(Item),
    Style(Style),
    Group(Group),
}

impl Take for Fading {
    const KINDS: &'static [Kind] = &[Kind::Item, Kind::Style, Kind::Group];

    fn take(value: &Dynamic, _: &Call<'_>) -> Option<Self> {
        held(value)
            .map(Self::Item)
            .or_else(|| held(value).map(Self::Style))
            .or_else(|| become_by_now(value).map(Self::Group))
    }
}

/// A path becomes an item by its first style word.
impl Take for Item {
    const KINDS: &'static [Kind] = &[Kind::Path, Kind::Item];

    fn take(value: &Dynamic, _: &Call<'_>) -> Option<Self> {
        held(value).or_else(|| held::<Path>(value).map(Self::from))
    }
}

/// What things are added to.
#[derive(Debug)]
pub(crate) enum Holder {
    Group(Builder<Group>),
    Sheet(Builder<Sheet>),
}

impl Take for Holder {
    const KINDS: &'static [Kind] = &[Kind::Sheet, Kind::Group];

    fn take(value: &Dynamic, _: &Call<'_>) -> Option<Self> {
        same(value).map(Self::Sheet).or_else(|| same(value).map(Self::Group))
    }
}
