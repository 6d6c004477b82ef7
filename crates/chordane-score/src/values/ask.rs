//! What functions of a score give, as the kind that a word needs.

use chordane::number::{Angle, Point, deg};
use rhai::{EvalAltResult, FnPtr, FuncArgs};

use super::describe::description;
use super::plain::any_number;
use super::take::Take;
use crate::call::Call;

impl Call<'_> {
    /// Asks a function of the score. Where it goes wrong, or gives another kind of value, that is the word's failure, and
    /// it is not asked again: the answer is then none.
    pub(crate) fn ask<T: Answer>(&self, function: &FnPtr, with: impl FuncArgs) -> T {
        let Some(said) = self.ask_for_any(function, with) else { return T::none() };
        // A place where a function has no value is one without an answer.
        if any_number(&said).is_some_and(|number| !number.is_finite()) {
            return T::none();
        }
        T::take(&said, self).unwrap_or_else(|| {
            let wants = T::KINDS.first().map_or("a value", |kind| kind.described());
            let told = format!(
                "the function that `{}` is given has to give {wants}, and gave {}",
                self.name(),
                description(&said)
            );
            self.fail(Box::new(EvalAltResult::ErrorRuntime(told.into(), self.place())));
            T::none()
        })
    }
}

/// What a function of a score can be asked for.
pub(crate) trait Answer: Take {
    /// What stands in where there is no answer.
    fn none() -> Self;
}

macro_rules! answer {
    ($($type:ty => $none:expr;)*) => {$(
        impl Answer for $type {
            fn none() -> Self {
                $none
            }
        }
    )*};
}

answer! {
    f64 => f64::NAN;
    Point => Point::NAN;
    Angle => deg(f64::NAN);
    bool => false;
    String => String::new();
}
