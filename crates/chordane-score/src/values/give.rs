//! Values as words give them: one conversion for each Rust type. What is at fault is told at the place of the call.

use chordane::chance::Dice;
use chordane::number::Cell;
use chordane::prelude::*;
use rhai::{Array, Dynamic};

use super::stamp::ScoreStamp;
use super::take::{Fading, Holder, Painted, Stroked, Thing};
use super::{Builder, Kind};
use crate::call::{Call, made_in};
use crate::call_error::CallError;

/// What a word can give.
pub(crate) trait Give {
    /// The kind of value that it becomes.
    const KIND: Kind;

    /// Whether it is what the word was called on, changed where it stands.
    const IN_PLACE: bool = false;

    /// The value, unless something went wrong in its making.
    fn give(self, call: &Call<'_>) -> Result<Dynamic, CallError>;
}

macro_rules! give {
    ($($type:ty, $kind:ident;)*) => {$(
        impl Give for $type {
            const KIND: Kind = Kind::$kind;

            fn give(self, _: &Call<'_>) -> Result<Dynamic, CallError> {
                Ok(Dynamic::from(self))
            }
        }
    )*};
}

give! {
    f64, Number;
    bool, Flag;
    String, Text;
    Point, Point;
    Angle, Angle;
    Colour, Colour;
    Vertex, Vertex;
    Cell, Cell;
    Extent, Extent;
    Triangle, Triangle;
    Pose, Pose;
    ScoreStamp, Stamp;
    Array, List;
    Dynamic, Value;
}

macro_rules! give_sound {
    ($($type:ty, $kind:ident;)*) => {$(
        impl Give for $type {
            const KIND: Kind = Kind::$kind;

            fn give(self, _: &Call<'_>) -> Result<Dynamic, CallError> {
                self.sound()?;
                Ok(Dynamic::from(self))
            }
        }
    )*};
}

give_sound! {
    Style, Style;
    Through, Curve;
    Gradient, Gradient;
    Picture, Picture;
    Pattern, Pattern;
    Shades, Paint;
    Wheels, Wheels;
    Timeline, Timeline;
}

/// A whole number where it is one, so that it can count and index.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Tidy(pub(crate) f64);

impl Give for Tidy {
    const KIND: Kind = Kind::Number;

    fn give(self, _: &Call<'_>) -> Result<Dynamic, CallError> {
        let whole = self.0.trunc() == self.0 && self.0.abs() < 1e15;
        Ok(if whole { (self.0 as i64).into() } else { self.0.into() })
    }
}

/// Counts are whole numbers in scores.
impl Give for usize {
    const KIND: Kind = Kind::Count;

    fn give(self, _: &Call<'_>) -> Result<Dynamic, CallError> {
        Ok(i64::try_from(self).unwrap_or(i64::MAX).into())
    }
}

/// A path remembers the line of the word that made it.
impl Give for Path {
    const KIND: Kind = Kind::Path;

    fn give(self, call: &Call<'_>) -> Result<Dynamic, CallError> {
        self.sound()?;
        Ok(made_in(self, call.line()))
    }
}

/// An item remembers the line that made its path, else that of the word that first made it an item.
impl Give for Item {
    const KIND: Kind = Kind::Item;

    fn give(self, call: &Call<'_>) -> Result<Dynamic, CallError> {
        self.sound()?;
        Ok(Dynamic::from(match call.origin().filter(|_| self.line().is_none()) {
            Some(line) => self.at_line(line),
            None => self,
        }))
    }
}

/// What is in it has been looked at when it was made: only its own fault can be new.
impl Give for Group {
    const KIND: Kind = Kind::Group;

    fn give(self, _: &Call<'_>) -> Result<Dynamic, CallError> {
        self.own_fault().map_or(Ok(()), |fault| Err(fault.clone()))?;
        Ok(Dynamic::from(Builder::new(self)))
    }
}

impl Give for Pen {
    const KIND: Kind = Kind::Pen;

    fn give(self, _: &Call<'_>) -> Result<Dynamic, CallError> {
        self.sound()?;
        Ok(Dynamic::from(Builder::new(self)))
    }
}

impl Give for Sheet {
    const KIND: Kind = Kind::Sheet;

    fn give(self, _: &Call<'_>) -> Result<Dynamic, CallError> {
        self.own_fault().map_or(Ok(()), |fault| Err(fault.clone()))?;
        Ok(Dynamic::from(Builder::new(self)))
    }
}

impl Give for Dice {
    const KIND: Kind = Kind::Dice;

    fn give(self, _: &Call<'_>) -> Result<Dynamic, CallError> {
        Ok(Dynamic::from(Builder::new(self)))
    }
}

macro_rules! give_in_place {
    ($($type:ty, $kind:ident, |$inside:ident| $fault:expr;)*) => {$(
        impl Give for Builder<$type> {
            const KIND: Kind = Kind::$kind;
            const IN_PLACE: bool = true;

            fn give(self, _: &Call<'_>) -> Result<Dynamic, CallError> {
                self.look(|$inside| $fault.map_or(Ok(()), |fault| Err(fault.clone())))?;
                Ok(Dynamic::from(self.same()))
            }
        }
    )*};
}

give_in_place! {
    Pen, Pen, |pen| pen.sound().err();
    Group, Group, |group| group.own_fault();
    Sheet, Sheet, |sheet| sheet.own_fault();
}

impl Give for Holder {
    const KIND: Kind = Kind::Sheet;
    const IN_PLACE: bool = true;

    fn give(self, call: &Call<'_>) -> Result<Dynamic, CallError> {
        match self {
            Self::Group(group) => group.give(call),
            Self::Sheet(sheet) => sheet.give(call),
        }
    }
}

impl Give for Thing {
    const KIND: Kind = Kind::Node;

    fn give(self, call: &Call<'_>) -> Result<Dynamic, CallError> {
        match self {
            // What was moved was made where it was before.
            Self::Path(path) => {
                path.sound()?;
                Ok(made_in(path, call.origin()))
            }
            Self::Item(item) => item.give(call),
            Self::Group(group) => group.give(call),
        }
    }
}

impl Give for Painted {
    const KIND: Kind = Kind::Item;

    fn give(self, call: &Call<'_>) -> Result<Dynamic, CallError> {
        match self {
            Self::Item(item) => item.give(call),
            Self::Style(style) => style.give(call),
        }
    }
}

impl Give for Stroked {
    const KIND: Kind = Kind::Item;

    fn give(self, call: &Call<'_>) -> Result<Dynamic, CallError> {
        self.0.give(call)
    }
}

impl Give for Fading {
    const KIND: Kind = Kind::Item;

    fn give(self, call: &Call<'_>) -> Result<Dynamic, CallError> {
        match self {
            Self::Item(item) => item.give(call),
            Self::Style(style) => style.give(call),
            Self::Group(group) => group.give(call),
        }
    }
}

macro_rules! give_list {
    ($($type:ty, $kind:ident;)*) => {$(
        impl Give for Vec<$type> {
            const KIND: Kind = Kind::$kind;

            fn give(self, call: &Call<'_>) -> Result<Dynamic, CallError> {
                call.room_for(self.len())?;
                let list = self.into_iter().map(|one| one.give(call)).collect::<Result<Array, _>>()?;
                Ok(Dynamic::from_array(list))
            }
        }
    )*};
}

give_list! {
    f64, Numbers;
    Point, Points;
    Angle, Angles;
    Colour, Colours;
    Cell, Cells;
    Item, Items;
    Vertex, Vertices;
    String, Texts;
}

impl<T: Give, E: Into<CallError>> Give for Result<T, E> {
    const KIND: Kind = T::KIND;
    const IN_PLACE: bool = T::IN_PLACE;

    fn give(self, call: &Call<'_>) -> Result<Dynamic, CallError> {
        self.map_err(Into::into)?.give(call)
    }
}
