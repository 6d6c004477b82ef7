//! Choices that can be given as a value or by name: `Cap::Round` or `"round"`.

use super::{Fault, FaultKind};

/// A choice whose values have names. `FromStr` and `Display` use these names.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::ground::Named;
/// assert_eq!(Cap::NAMES, ["butt", "round", "square"]);
/// assert_eq!("round".parse::<Cap>()?, Cap::Round);
/// assert_eq!(Cap::Round.to_string(), "round");
/// # Ok::<(), Fault>(())
/// ```
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
///
/// ```
/// use chordane::prelude::*;
/// use chordane::ground::Given;
/// assert_eq!(Given::<Cap>::from("round").resolve("cap")?, Cap::Round);
/// let wrong = Given::<Cap>::from("pointed").resolve("cap").unwrap_err();
/// assert_eq!(wrong.to_string(), "`cap`: \"pointed\" is not a cap; give \"butt\", \"round\" or \"square\"");
/// # Ok::<(), Fault>(())
/// ```
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
        at.and_then(|at| T::VALUES.get(at).copied())
            .ok_or_else(|| Fault::of(call, FaultKind::UnknownName { what: T::WHAT, text, allowed: T::NAMES }))
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

/// Defines the names of a choice's values: `named! { Cap: "cap"; "butt" => Butt, "round" => Round }`.
macro_rules! named {
    ($choice:ident: $what:literal; $($name:literal => $value:ident),* $(,)?) => {
        impl $crate::ground::Named for $choice {
            const WHAT: &'static str = $what;
            const NAMES: &'static [&'static str] = &[$($name),*];
            const VALUES: &'static [Self] = &[$(Self::$value),*];
        }

        impl std::fmt::Display for $choice {
            fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
                // If a value has two names, the first is printed.
                #[allow(unreachable_patterns, reason = "only where there are two names")]
                f.pad(match self {
                    $(Self::$value => $name,)*
                })
            }
        }

        impl std::str::FromStr for $choice {
            type Err = $crate::ground::Fault;

            fn from_str(text: &str) -> Result<Self, Self::Err> {
                $crate::ground::Given::from(text).resolve("parse")
            }
        }

        #[cfg(feature = "serde")]
        impl serde::Serialize for $choice {
            fn serialize<S: serde::Serializer>(&self, to: S) -> Result<S::Ok, S::Error> {
                to.collect_str(self)
            }
        }

        #[cfg(feature = "serde")]
        impl<'de> serde::Deserialize<'de> for $choice {
            fn deserialize<D: serde::Deserializer<'de>>(from: D) -> Result<Self, D::Error> {
                let name = std::borrow::Cow::<str>::deserialize(from)?;
                name.parse().map_err(serde::de::Error::custom)
            }
        }
    };
}

pub(crate) use named;
