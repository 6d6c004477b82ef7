//! One call of a word: where it stands, what the score was given, and the score's own functions.

use std::cell::RefCell;

use chordane::ground::{Given, Named};
use chordane::path::Path;
use rhai::{Dynamic, EvalAltResult, FnPtr, FuncArgs, NativeCallContext, Position};

use crate::Limits;
use crate::call_error::CallError;
use crate::running::Running;
use crate::stage::Stage;

/// The line that made a path, which its value carries along.
pub(crate) fn line_of(value: &Dynamic) -> Option<usize> {
    let made = usize::try_from(value.tag()).ok().filter(|line| *line > 0);
    made.filter(|_| value.is::<Path>())
}

/// A path as a value, with the line that made it.
pub(crate) fn made_in(path: Path, line: Option<usize>) -> Dynamic {
    let mut value = Dynamic::from(path);
    value.set_tag(line.and_then(|line| line.try_into().ok()).unwrap_or_default());
    value
}

/// A call of a word.
#[expect(
    missing_debug_implementations,
    reason = "the run that it is part of has none, and no program sees it"
)]
pub struct Call<'a> {
    name: &'static str,
    context: &'a NativeCallContext<'a>,
    running: &'a Running,
    /// The line that made the path that the word is called on.
    origin: Option<usize>,
    /// What went wrong in a function of the score.
    failure: RefCell<Option<Box<EvalAltResult>>>,
}

impl<'a> Call<'a> {
    pub(crate) fn new(name: &'static str, context: &'a NativeCallContext<'a>, running: &'a Running) -> Self {
        Self { name, context, running, origin: None, failure: RefCell::default() }
    }

    /// The same call, on the first of some values.
    pub(crate) fn on(self, values: &[&Dynamic]) -> Self {
        Self { origin: values.first().and_then(|value| line_of(value)), ..self }
    }

    /// The line that made what the word is called on, where it is a path: a style word has a line of its own, but
    /// what looks wrong stands where the path was made.
    pub(crate) fn origin(&self) -> Option<usize> {
        self.origin.or_else(|| self.line())
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

    /// Refuses a list of this many values if that is too long.
    pub(crate) fn room_for(&self, count: usize) -> Result<(), CallError> {
        let most = self.longest_list();
        if count <= most {
            return Ok(());
        }
        let told = format!("`{}`: a list of {count} values is too long; give at most {most}", self.name);
        Err(CallError::new(told).set("list", "make it shorter, or raise the limit"))
    }

    /// Looks at what the score is given.
    pub(crate) fn stage<R>(&self, look: impl FnOnce(&mut Stage) -> R) -> R {
        self.running.stage(look)
    }

    /// A choice by its name.
    pub(crate) fn choice<T: Named>(&self, name: &str) -> Result<T, CallError> {
        Ok(Given::<T>::from(name).resolve(self.name)?)
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

    /// Notes that a function of the score went wrong; the first time counts.
    pub(crate) fn fail(&self, wrong: Box<EvalAltResult>) {
        self.failure.borrow_mut().get_or_insert(wrong);
    }

    /// Where in the score the call stands.
    pub(crate) fn place(&self) -> Position {
        self.context.call_position()
    }

    /// What went wrong in a function of the score.
    pub(crate) fn failure(&self) -> Option<Box<EvalAltResult>> {
        self.failure.borrow_mut().take()
    }
}
