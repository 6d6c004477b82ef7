//! A run of a script while it goes on.

use std::sync::{Arc, Mutex, PoisonError};

use chordane::ground::Allowance;
use rhai::NativeCallContext;

use crate::Limits;
use crate::budget::told;
use crate::refusal::Refusal;
use crate::stage::Stage;

/// A run of a script: what it is given, and what it may use up.
#[derive(Debug)]
pub(crate) struct Running {
    pub(crate) limits: Limits,
    allowance: Allowance,
    stage: Mutex<Stage>,
}

impl Running {
    pub(crate) fn new(limits: Limits, allowance: Allowance, stage: Stage) -> Arc<Self> {
        Arc::new(Self { limits, allowance, stage: Mutex::new(stage) })
    }

    /// Why the run has to stop, if it has, asked after each of its steps.
    pub(crate) fn spent(&self) -> Option<Refusal> {
        self.allowance.ask().map(told)
    }

    /// Why the run was stopped while a word was at work, if it was.
    pub(crate) fn stopped_in(&self, word: &str) -> Option<Refusal> {
        let why = told(self.allowance.stopped()?);
        Some(Refusal { message: format!("{}: stopped in `{word}`", why.message), ..why })
    }

    pub(crate) fn stage<R>(&self, look: impl FnOnce(&mut Stage) -> R) -> R {
        look(&mut self.stage.lock().unwrap_or_else(PoisonError::into_inner))
    }
}

/// How the engine hands a run to the words.
#[derive(Clone)]
pub(crate) struct Tag(pub(crate) Arc<Running>);

/// The run that a call is part of.
pub(crate) fn running_of(context: &NativeCallContext<'_>) -> Result<Arc<Running>, Refusal> {
    let running = context.tag().and_then(|tag| tag.read_lock::<Tag>().map(|tag| Arc::clone(&tag.0)));
    running.ok_or_else(|| Refusal::new("this word runs in a score only"))
}

/// The limits of the run that a call is part of.
pub(crate) fn limits_of(context: &NativeCallContext<'_>) -> Result<Limits, Refusal> {
    Ok(running_of(context)?.limits)
}
