//! What swings and keys hold in a score: values of one of several kinds.

use chordane::ground::Fault;
use chordane::motion::{Keyed, Keys};
use chordane::prelude::*;
use rhai::{Array, Dynamic};

use super::plain::{any_number, number, point};
use super::{Give, Kind, Take, description};
use crate::call::Call;
use crate::call_error::CallError;

/// A value that can be part of the way to another of its kind.
#[derive(Clone, Debug)]
pub(crate) enum Moving {
    Number(f64),
    Angle(Angle),
    Point(Point),
    Colour(Colour),
    Extent(Extent),
    Pose(Pose),
    Path(Path),
}

impl Moving {
    /// The value, or why it is none; `call` is the word that it was given to.
    fn of(value: &Dynamic, call: &'static str) -> Result<Self, CallError> {
        let held = if let Some(number) = number(value) {
            Some(Self::Number(number))
        } else if let Some(point) = point(value) {
            Some(Self::Point(point))
        } else if let Ok(text) = value.clone().into_string() {
            Some(Self::Colour(Colour::read_for(call, &text)?))
        } else {
            macro_rules! held {
                ($($kind:ident)*) => { None$(.or_else(|| value.read_lock::<$kind>().map(|held| Self::$kind(held.clone()))))* };
            }
            held!(Angle Colour Extent Pose Path)
        };
        held.ok_or_else(|| {
            CallError::new(format!(
                "`{call}` wants {}, and was given {}",
                Kind::Moving.described(),
                description(value)
            ))
        })
    }

    fn kind(&self) -> Kind {
        match self {
            Self::Number(_) => Kind::Number,
            Self::Angle(_) => Kind::Angle,
            Self::Point(_) => Kind::Point,
            Self::Colour(_) => Kind::Colour,
            Self::Extent(_) => Kind::Extent,
            Self::Pose(_) => Kind::Pose,
            Self::Path(_) => Kind::Path,
        }
    }

    /// As an extent, so that numbers and extents can stand together.
    fn or_extent(self, extents: bool) -> Self {
        match self {
            Self::Number(number) if extents => Self::Extent(number.into()),
            other => other,
        }
    }

    /// Two values of one kind, as they were given to a word.
    pub(crate) fn pair(first: &End, second: &End, call: &'static str) -> Result<(Self, Self), CallError> {
        let mut both =
            Self::alike(vec![Self::of(&first.0, call)?, Self::of(&second.0, call)?], call)?.into_iter();
        match (both.next(), both.next()) {
            (Some(first), Some(second)) => Ok((first, second)),
            _ => Err(CallError::new(format!("`{call}` wants two values"))),
        }
    }

    /// Values of one kind; numbers among extents are extents.
    fn alike(all: Vec<Self>, call: &'static str) -> Result<Vec<Self>, CallError> {
        let extents = all.iter().any(|value| matches!(value, Self::Extent(_)));
        let all: Vec<Self> = all.into_iter().map(|value| value.or_extent(extents)).collect();
        let first = all.first().map(Self::kind);
        match all.iter().position(|value| Some(value.kind()) != first) {
            None => Ok(all),
            Some(other) => {
                let of = |at: usize| all.get(at).map_or("nothing", |value| value.kind().described());
                let told = format!(
                    "`{call}`: value {other} is {}, and value 0 {}; give values of one kind",
                    of(other),
                    of(0)
                );
                Err(CallError::new(told))
            }
        }
    }
}

impl Keyed for Moving {
    fn part_way(&self, to: &Self, share: f64) -> Self {
        macro_rules! part_way {
            ($($kind:ident)*) => {
                match (self, to) {
                    $((Self::$kind(from), Self::$kind(to)) => Self::$kind(from.part_way(to, share)),)*
                    // Kinds were looked at before.
                    _ => self.clone(),
                }
            };
        }
        part_way!(Number Angle Point Colour Extent Pose Path)
    }

    fn sound_for(&self, call: &'static str) -> Result<(), Fault> {
        macro_rules! sound_for {
            ($($kind:ident)*) => { match self { $(Self::$kind(value) => value.sound_for(call),)* } };
        }
        sound_for!(Number Angle Point Colour Extent Pose Path)
    }
}

impl Give for Moving {
    const KIND: Kind = Kind::Moving;

    fn give(self, call: &Call<'_>) -> Result<Dynamic, CallError> {
        match self {
            Self::Number(number) => number.give(call),
            Self::Angle(angle) => angle.give(call),
            Self::Point(point) => point.give(call),
            Self::Colour(colour) => colour.give(call),
            Self::Extent(extent) => extent.give(call),
            Self::Pose(pose) => pose.give(call),
            Self::Path(path) => path.give(call),
        }
    }
}

/// One of two values that a thing goes between, before it is known whether they are of one kind.
#[derive(Clone, Debug)]
pub(crate) struct End(Dynamic);

impl Take for End {
    const KINDS: &'static [Kind] = &[Kind::Moving];

    fn take(value: &Dynamic, _: &Call<'_>) -> Option<Self> {
        Some(Self(value.clone()))
    }
}

/// Keys of a score.
#[derive(Clone, Debug)]
pub(crate) enum ScoreKeys {
    Angles(Keys<Angle>),
    Others(Keys<Moving>),
}

impl ScoreKeys {
    /// Keys from a list of times, values and, where they are given, the easings of the stretches that begin there.
    pub(crate) fn of(list: &Array, call: &'static str) -> Result<Self, CallError> {
        let (mut times, mut values, mut easings) = (Vec::new(), Vec::new(), Vec::new());
        for (i, key) in list.iter().enumerate() {
            let told = || {
                let told = format!(
                    "`{call}`: key {i} is {}; give a time, a value and perhaps an easing",
                    description(key)
                );
                CallError::new(told).advise("write keys([[0, 10], [0.4, 60, \"ease-in\"], [1, 10]])")
            };
            let parts = key.read_lock::<Array>().ok_or_else(told)?;
            let (time, value, easing) = match parts.as_slice() {
                [time, value] => (time, value, None),
                [time, value, easing] => {
                    (time, value, Some(easing.clone().into_string().map_err(|_| told())?))
                }
                _ => return Err(told()),
            };
            times.push(any_number(time).ok_or_else(told)?);
            values.push(Moving::of(value, call)?);
            easings.extend(easing.map(|easing| (i, easing)));
        }
        let values = Moving::alike(values, call)?;
        let angles: Option<Vec<Angle>> = values
            .iter()
            .map(|value| if let Moving::Angle(angle) = value { Some(*angle) } else { None })
            .collect();
        let made = match angles {
            Some(angles) if !angles.is_empty() => Self::Angles(keys(times.into_iter().zip(angles))),
            _ => Self::Others(keys(times.into_iter().zip(values))),
        };
        Ok(easings.into_iter().fold(made, |keys, (at, easing)| keys.stretch(at, &easing)))
    }

    pub(crate) fn way(self, name: &str) -> Result<Self, CallError> {
        match self {
            Self::Angles(keys) => Ok(Self::Angles(keys.way(name))),
            Self::Others(_) => {
                Err(CallError::new("`way` is called on keys of angles, and these are of something else"))
            }
        }
    }

    pub(crate) fn at(&self, phase: f64) -> Result<Moving, CallError> {
        let value = match self {
            Self::Angles(keys) => keys.at(phase).map(Moving::Angle),
            Self::Others(keys) => keys.at(phase),
        };
        value.ok_or_else(|| {
            CallError::new("`at`: there are no keys, and so there is no value; give one at least")
        })
    }
}

macro_rules! both {
    ($($name:ident($($argument:ident: $type:ty),*);)*) => {
        impl ScoreKeys {$(
            pub(crate) fn $name(self, $($argument: $type),*) -> Self {
                match self {
                    Self::Angles(keys) => Self::Angles(keys.$name($($argument),*)),
                    Self::Others(keys) => Self::Others(keys.$name($($argument),*)),
                }
            }
        )*}
    };
}

both! {
    eased(easing: &str);
    stretch(number: usize, easing: &str);
    looped();
    there_and_back();
    repeated(count: f64);
    delayed(share: f64);
}

impl Take for ScoreKeys {
    const KINDS: &'static [Kind] = &[Kind::Keys];

    fn take(value: &Dynamic, _: &Call<'_>) -> Option<Self> {
        value.read_lock::<Self>().map(|held| held.clone())
    }
}

impl Give for ScoreKeys {
    const KIND: Kind = Kind::Keys;

    fn give(self, _: &Call<'_>) -> Result<Dynamic, CallError> {
        match &self {
            Self::Angles(keys) => keys.sound()?,
            Self::Others(keys) => keys.sound()?,
        }
        Ok(Dynamic::from(self))
    }
}
