//! Choices that can be given as a value or by name: `Cap::Round` or `"round"`.

use super::Unit;
use crate::fault::{Fault, FaultKind};
use crate::path::{ArcWay, FillRule, Fit, Spacing};
use crate::reshape::{Cap, Join};

/// A choice whose values have names.
pub trait Named: Copy + 'static {
    /// What is chosen, for messages.
    const WHAT: &'static str;
    /// The names, in the order of [`Named::VALUES`].
    const NAMES: &'static [&'static str];
    /// The values.
    const VALUES: &'static [Self];
}

/// A choice as it was given: the value itself, or a text that should name it. A text that names none becomes a
/// fault of what it was given to.
#[derive(Clone, Debug)]
pub struct Given<T>(Result<T, String>);

impl<T: Named> Given<T> {
    /// The value that was given or named; `call` is what a fault's message calls the place.
    ///
    /// # Errors
    ///
    /// A fault that lists the names there are.
    pub fn resolve(self, call: &'static str) -> Result<T, Fault> {
        let text = match self.0 {
            Ok(value) => return Ok(value),
            Err(text) => text,
        };
        let at = T::NAMES.iter().position(|name| *name == text);
        at.and_then(|at| T::VALUES.get(at).copied()).ok_or_else(|| {
            Fault::new(call, FaultKind::UnknownName { what: T::WHAT, text, allowed: T::NAMES })
        })
    }
}

impl<T: Named> From<T> for Given<T> {
    fn from(value: T) -> Self {
        Self(Ok(value))
    }
}

impl<T: Named> From<&str> for Given<T> {
    fn from(text: &str) -> Self {
        Self(Err(text.to_owned()))
    }
}

impl Named for Fit {
    const WHAT: &'static str = "way to fit";
    const NAMES: &'static [&'static str] = &["contain", "cover", "stretch"];
    const VALUES: &'static [Self] = &[Self::Contain, Self::Cover, Self::Stretch];
}

impl Named for Cap {
    const WHAT: &'static str = "cap";
    const NAMES: &'static [&'static str] = &["butt", "round", "square"];
    const VALUES: &'static [Self] = &[Self::Butt, Self::Round, Self::Square];
}

impl Named for Join {
    const WHAT: &'static str = "join";
    const NAMES: &'static [&'static str] = &["mitre", "round", "bevel"];
    const VALUES: &'static [Self] = &[Self::Mitre, Self::Round, Self::Bevel];
}

impl Named for FillRule {
    const WHAT: &'static str = "fill rule";
    const NAMES: &'static [&'static str] = &["nonzero", "evenodd"];
    const VALUES: &'static [Self] = &[Self::Nonzero, Self::EvenOdd];
}

impl Named for ArcWay {
    const WHAT: &'static str = "way";
    const NAMES: &'static [&'static str] =
        &["short clockwise", "short anticlockwise", "long clockwise", "long anticlockwise"];
    const VALUES: &'static [Self] =
        &[Self::ShortClockwise, Self::ShortAnticlockwise, Self::LongClockwise, Self::LongAnticlockwise];
}

impl Named for Spacing {
    const WHAT: &'static str = "spacing";
    const NAMES: &'static [&'static str] = &["uniform", "centripetal", "chordal"];
    const VALUES: &'static [Self] = &[Self::Uniform, Self::Centripetal, Self::Chordal];
}

impl Named for Unit {
    const WHAT: &'static str = "unit";
    const NAMES: &'static [&'static str] = &["px", "mm", "in"];
    const VALUES: &'static [Self] = &[Self::Px, Self::Mm, Self::In];
}
