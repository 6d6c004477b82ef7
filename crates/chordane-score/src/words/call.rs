//! One call of a word: where it stands, what the score was given, and the score's own functions.

use std::cell::RefCell;

use chordane::number::{Angle, Point, deg};
use chordane::shape::TriangleError;
use chordane::{Fault, ground::Given, ground::Named};
use rhai::{Dynamic, EvalAltResult, FnPtr, FuncArgs, NativeCallContext};

use crate::Limits;
use crate::engine::Running;
use crate::stage::Stage;
use crate::values::{Take, description};

/// Why a word could not be carried out.
#[derive(Debug)]
pub(crate) struct Refusal {
    pub(crate) message: String,
    pub(crate) advice: Option<String>,
}

impl Refusal {
    pub(crate) fn new(message: impl Into<String>) -> Self {
        Self { message: message.into(), advice: None }
    }

    pub(crate) fn advise(mut self, advice: impl Into<String>) -> Self {
        self.advice = Some(advice.into());
        self
    }
}

impl From<Fault> for Refusal {
    fn from(fault: Fault) -> Self {
        Self::new(fault.to_string())
    }
}

impl From<TriangleError> for Refusal {
    fn from(error: TriangleError) -> Self {
        Self::new(error.to_string())
    }
}

/// A call of a word.
pub(crate) struct Call<'a> {
    name: &'static str,
    context: &'a NativeCallContext<'a>,
    running: &'a Running,
    /// What went wrong in a function of the score.
    failure: RefCell<Option<Box<EvalAltResult>>>,
}

impl<'a> Call<'a> {
    pub(crate) fn new(name: &'static str, context: &'a NativeCallContext<'a>, running: &'a Running) -> Self {
        Self { name, context, running, failure: RefCell::default() }
    }

    /// The line of the call, counted from 1.
    pub(crate) fn line(&self) -> Option<usize> {
        self.context.call_position().line()
    }

    /// The word.
    pub(crate) fn name(&self) -> &'static str {
        self.name
    }

    fn limits(&self) -> &Limits {
        &self.running.limits
    }

    /// The most values of a list that a word may make.
    pub(crate) fn longest_list(&self) -> usize {
        self.limits().list
    }

    /// Refuses a list of so many values where that is too long.
    pub(crate) fn room_for(&self, count: usize) -> Result<(), Refusal> {
        let most = self.longest_list();
        if count <= most {
            return Ok(());
        }
        let told = format!("`{}`: a list of {count} values is too long; give at most {most}", self.name);
        Err(Refusal::new(told).advise("the limit can be raised with --max-list"))
    }

    /// Looks at what the score is given.
    pub(crate) fn stage<R>(&self, look: impl FnOnce(&mut Stage) -> R) -> R {
        self.running.stage(look)
    }

    /// A choice by its name.
    pub(crate) fn choice<T: Named>(&self, name: &str) -> Result<T, Refusal> {
        Ok(Given::<T>::from(name).resolve(self.name)?)
    }

    /// Asks a function of the score. Where it goes wrong, or gives another kind of value, that is the word's failure, and
    /// it is not asked again: the answer is then none.
    pub(crate) fn ask<T: Answer>(&self, function: &FnPtr, with: impl FuncArgs) -> T {
        let Some(said) = self.ask_for_any(function, with) else { return T::none() };
        T::take(&said, self).unwrap_or_else(|| {
            let wants = T::KINDS.first().map_or("a value", |kind| kind.described());
            let told = format!(
                "the function that `{}` is given has to give {wants}, and gave {}",
                self.name,
                description(&said)
            );
            self.fail(Box::new(EvalAltResult::ErrorRuntime(told.into(), self.context.call_position())));
            T::none()
        })
    }

    /// Asks a function of the score for whatever it gives. `None` where it went wrong, or did before.
    pub(crate) fn ask_for_any(&self, function: &FnPtr, with: impl FuncArgs) -> Option<Dynamic> {
        if self.failure.borrow().is_some() {
            return None;
        }
        match function.call_within_context::<Dynamic>(self.context, with) {
            Ok(said) => Some(said),
            Err(wrong) => {
                self.fail(wrong);
                None
            }
        }
    }

    fn fail(&self, wrong: Box<EvalAltResult>) {
        self.failure.borrow_mut().get_or_insert(wrong);
    }

    /// What went wrong in a function of the score.
    pub(crate) fn failure(&self) -> Option<Box<EvalAltResult>> {
        self.failure.borrow_mut().take()
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
