//! What a score is told when a word cannot be carried out: what is wrong, and what to do.

use chordane::Fault;
use chordane::ground::{FaultKind, Stopped};
use chordane::shape::TriangleError;
use rhai::{Dynamic, EvalAltResult, Position};

use crate::ScoreError;

/// Why a word could not be carried out.
#[derive(Clone, Debug)]
pub struct CallError {
    pub(crate) message: String,
    pub(crate) advice: Option<String>,
    /// The setting that would change it; see [`ScoreError::setting`](crate::ScoreError::setting).
    pub(crate) setting: Option<&'static str>,
}

impl CallError {
    pub(crate) fn new(message: impl Into<String>) -> Self {
        Self { message: message.into(), advice: None, setting: None }
    }

    pub(crate) fn advise(self, advice: impl Into<String>) -> Self {
        Self { advice: Some(advice.into()), ..self }
    }

    /// With advice that a setting carries out.
    pub(crate) fn set(self, setting: &'static str, advice: &str) -> Self {
        Self { setting: Some(setting), ..self.advise(advice) }
    }
}

/// The engine carries it as a value, and fills in the place of the call.
impl From<CallError> for Box<EvalAltResult> {
    fn from(refusal: CallError) -> Self {
        Self::new(EvalAltResult::ErrorRuntime(Dynamic::from(refusal), Position::NONE))
    }
}

impl From<Stopped> for CallError {
    fn from(stopped: Stopped) -> Self {
        let given = |text: &str| !text.is_empty();
        let setting = Some(stopped.setting).filter(|setting| given(setting));
        Self { message: stopped.what, advice: Some(stopped.advice).filter(|advice| given(advice)), setting }
    }
}

impl From<ScoreError> for CallError {
    fn from(mistake: ScoreError) -> Self {
        let advice = mistake.advice().map(str::to_owned);
        Self { message: mistake.to_string(), advice, setting: mistake.setting() }
    }
}

impl From<Fault> for CallError {
    fn from(fault: Fault) -> Self {
        match fault.kind() {
            FaultKind::Stopped(why) => why.clone().into(),
            _ => Self::new(fault.to_string()),
        }
    }
}

impl From<TriangleError> for CallError {
    fn from(error: TriangleError) -> Self {
        Self::new(error.to_string())
    }
}
