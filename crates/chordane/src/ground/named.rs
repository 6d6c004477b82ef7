//! Choices that can be given as a value or by name: `Cap::Round` or `"round"`.

use super::{Fault, FaultKind};

/// A choice whose values have names.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::ground::Named;
/// assert_eq!(Cap::NAMES, ["butt", "round", "square"]);
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
