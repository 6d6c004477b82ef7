//! A run of a script while it goes on.

use std::sync::{Arc, Mutex, PoisonError};

use crate::Limits;
use crate::stage::Stage;

/// A run of a script: what it is given, and what it may use up.
#[derive(Debug)]
pub(crate) struct Running {
    pub(crate) limits: Limits,
    stage: Mutex<Stage>,
}

impl Running {
    pub(crate) fn new(limits: Limits, stage: Stage) -> Arc<Self> {
        Arc::new(Self { limits, stage: Mutex::new(stage) })
    }

    pub(crate) fn stage<R>(&self, look: impl FnOnce(&mut Stage) -> R) -> R {
        look(&mut self.stage.lock().unwrap_or_else(PoisonError::into_inner))
    }
}
