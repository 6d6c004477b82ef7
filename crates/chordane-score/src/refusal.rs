//! What a score is told when a word cannot be carried out: what is wrong, and what to do.

use chordane::Fault;
use chordane::shape::TriangleError;
use rhai::{EvalAltResult, Position};

/// What parts message and advice where the engine carries them as one text.
const ADVICE: char = '\u{1}';

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

    /// Message and advice as one text, which [`Refusal::read`] takes apart.
    pub(crate) fn text(self) -> String {
        match self.advice {
            Some(advice) => format!("{}{ADVICE}{advice}", self.message),
            None => self.message,
        }
    }

    /// What [`Refusal::text`] put together.
    pub(crate) fn read(text: &str) -> Self {
        match text.split_once(ADVICE) {
            Some((message, advice)) => Self::new(message).advise(advice),
            None => Self::new(text),
        }
    }
}

/// The engine fills in the place of the call.
impl From<Refusal> for Box<EvalAltResult> {
    fn from(refusal: Refusal) -> Self {
        Self::new(EvalAltResult::ErrorRuntime(refusal.text().into(), Position::NONE))
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
