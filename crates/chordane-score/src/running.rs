//! A run of a script while it goes on.

use std::sync::atomic::{AtomicU64, Ordering};
use std::sync::{Arc, Mutex, PoisonError};

use chordane::ground::Budget;
use rhai::NativeCallContext;

use crate::Limits;
use crate::budget::Memory;
use crate::call_error::CallError;
use crate::stage::Stage;

const STEPS_PER_LOOK: u64 = 32;

/// A run of a script: what it is given, and what it may use.
pub(crate) struct Running {
    pub(crate) limits: Limits,
    pub(crate) memory: Arc<Memory>,
    budget: Budget,
    steps: AtomicU64,
    stage: Mutex<Stage>,
}

impl Running {
    pub(crate) fn new(limits: Limits, memory: Arc<Memory>, budget: Budget, stage: Stage) -> Arc<Self> {
        Arc::new(Self { limits, memory, budget, steps: AtomicU64::new(0), stage: Mutex::new(stage) })
    }

    /// Returns why the run must stop after this step, if it must. Memory is checked every time, since one step can double it; time and the
    /// rest, which take longer, once in [`STEPS_PER_LOOK`] steps.
    pub(crate) fn exhausted(&self) -> Option<CallError> {
        // The engine's own count restarts whenever a word calls a function.
        let step = self.steps.fetch_add(1, Ordering::Relaxed);
        let within = self.budget.stopped().is_none() && self.memory.own() <= self.limits.memory;
        if within && !step.is_multiple_of(STEPS_PER_LOOK) {
            return None;
        }
        self.budget.ask().cloned().map(CallError::from)
    }

    /// Why the run was stopped while a word was at work, if it was.
    pub(crate) fn stopped_in(&self, word: &str) -> Option<CallError> {
        let why = CallError::from(self.budget.stopped()?.clone());
        Some(CallError { message: format!("{}: stopped in `{word}`", why.message), ..why })
    }

    pub(crate) fn stage<R>(&self, look: impl FnOnce(&mut Stage) -> R) -> R {
        look(&mut self.stage.lock().unwrap_or_else(PoisonError::into_inner))
    }
}

/// How the engine hands a run to the words.
#[derive(Clone)]
pub(crate) struct Tag(pub(crate) Arc<Running>);

/// The run that a call is part of.
pub(crate) fn running_of(context: &NativeCallContext<'_>) -> Result<Arc<Running>, CallError> {
    let running = context.tag().and_then(|tag| tag.read_lock::<Tag>().map(|tag| Arc::clone(&tag.0)));
    running.ok_or_else(|| CallError::new("this word runs in a score only"))
}

/// The limits of the run that a call is part of.
pub(crate) fn limits_of(context: &NativeCallContext<'_>) -> Result<Limits, CallError> {
    Ok(running_of(context)?.limits)
}
