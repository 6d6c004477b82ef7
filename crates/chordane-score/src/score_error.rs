//! What went wrong in a score, where, and what to do about it.

#[cfg(feature = "miette")]
use std::sync::Arc;

use chordane::ground::visible;

use crate::call_error::CallError;
#[cfg(feature = "miette")]
use crate::diagnostic::Marked;
use crate::edits::edited;

/// An error of a score: a message, the place in the source, and advice, where they are known.
///
/// ```
/// use chordane_score::{Limits, Runner, ScoreError};
/// let Err(error) = Runner::read("tail.chord", "let a = ;", Limits::default()) else { panic!("it cannot be read") };
/// assert_eq!((error.line(), error.column()), (Some(1), Some(9)));
/// // A score in Rust makes its own.
/// let own = ScoreError::new("there is no sail 7").advised("give 1 to 5").at_line(12);
/// assert_eq!((own.to_string().as_str(), own.advice(), own.line()), ("there is no sail 7", Some("give 1 to 5"), Some(12)));
/// ```
#[derive(Clone, Debug, thiserror::Error)]
#[error("{message}")]
pub struct ScoreError {
    message: String,
    advice: Option<String>,
    setting: Option<&'static str>,
    place: Option<Place>,
    /// The line, if there is no source to show.
    line: Option<u32>,
}

#[derive(Clone, Debug)]
struct Place {
    #[cfg(feature = "miette")]
    marked: Arc<Marked>,
    line: usize,
    column: usize,
}

impl ScoreError {
    /// Returns an error with a message, without a place and advice. Control characters are made visible.
    #[must_use]
    pub fn new(message: impl Into<String>) -> Self {
        let message = visible(&message.into()).into_owned();
        Self { message, advice: None, setting: None, place: None, line: None }
    }

    pub(crate) fn advise(mut self, advice: Option<String>) -> Self {
        self.advice = advice.map(|advice| visible(&advice).into_owned());
        self
    }

    /// Converts the error of a word, without its position.
    pub(crate) fn of_call(refusal: CallError) -> Self {
        Self { setting: refusal.setting, ..Self::new(refusal.message).advise(refusal.advice) }
    }

    pub(crate) fn set(self, setting: &'static str, advice: impl Into<String>) -> Self {
        Self { setting: Some(setting), ..self.advise(Some(advice.into())) }
    }

    /// The same error with other advice, for example how a program changes a [setting](ScoreError::setting).
    #[must_use]
    pub fn advised(self, advice: impl Into<String>) -> Self {
        self.advise(Some(advice.into()))
    }

    /// The same error at a line, counted from 1, of a source that is not at hand.
    #[must_use]
    pub fn at_line(mut self, line: usize) -> Self {
        self.line = u32::try_from(line).ok();
        self
    }

    /// Puts the error at a line and a column of the source, both counted from 1, columns in characters.
    pub(crate) fn at(mut self, name: &str, source: &str, line: usize, column: usize) -> Self {
        #[cfg(feature = "miette")]
        let marked = Arc::new(Marked::new(name, source, line, column));
        #[cfg(not(feature = "miette"))]
        let _ = (name, source);
        self.place = Some(Place {
            #[cfg(feature = "miette")]
            marked,
            line,
            column,
        });
        self
    }

    /// The setting that would change it, where there is one: `steps`, `time`, `memory`, `list` or `text` for a limit, `marks`, `marks held` or
    /// `picture` for what the score is given. The advice names it in words; a program can add how it is set there.
    ///
    /// ```
    /// use chordane_score::{Limits, Runner, Settings};
    /// let limits = Limits { steps: 100, ..Limits::default() };
    /// let endless = Runner::read("tail.chord", "loop { }", limits)?.run(&Settings::new()).into_sheet().unwrap_err();
    /// assert_eq!(endless.setting(), Some("steps"));
    /// # Ok::<(), chordane_score::ScoreError>(())
    /// ```
    #[must_use]
    pub fn setting(&self) -> Option<&'static str> {
        self.setting
    }

    /// What could be done about it, where that is known.
    #[must_use]
    pub fn advice(&self) -> Option<&str> {
        self.advice.as_deref()
    }

    /// The source with the misspelt word replaced by the one that the message or the advice suggests. `None` if there is no suggestion, or if the
    /// word is not in the source.
    ///
    /// ```
    /// use chordane_score::{Limits, Runner, Settings};
    /// let text = "sheet(90, 60).add(circl(pt(4, 4), 3))";
    /// let run = Runner::read("tail.chord", text, Limits::default())?.run(&Settings::new());
    /// let mistake = run.into_sheet().unwrap_err();
    /// assert_eq!(mistake.advice(), Some("did you mean `circle`?"));
    /// assert_eq!(mistake.corrected(text).unwrap(), text.replace("circl", "circle"));
    /// # Ok::<(), chordane_score::ScoreError>(())
    /// ```
    #[must_use]
    pub fn corrected(&self, source: &str) -> Option<String> {
        let (wrong, meant) = self.meant()?;
        let place = self.place.as_ref()?;
        let begin: usize = source.split_inclusive('\n').take(place.line.checked_sub(1)?).map(str::len).sum();
        let line = source.get(begin..)?.split('\n').next()?;
        let skipped: usize = line.chars().take(place.column.checked_sub(1)?).map(char::len_utf8).sum();
        // The position of a method is its dot, and that of a text argument is the call.
        let at = begin + skipped + line.get(skipped..)?.find(&wrong)?;
        Some(edited(source, [(at..at + wrong.len(), meant)]))
    }

    /// The wrong word and the suggested one, as written in a source.
    fn meant(&self) -> Option<(String, String)> {
        let within = |text: &str, quote: char| text.split(quote).nth(1).map(str::to_owned);
        let advice = self.advice.as_deref().unwrap_or_default();
        if advice.starts_with(DID_YOU_MEAN) {
            return Some((within(&self.message, '`')?, within(advice, '`')?));
        }
        if self.message.starts_with(NO_OPERATOR) {
            return Some((within(&self.message, '`')?, advice.strip_prefix("write ")?.to_owned()));
        }
        let (before, after) = self.message.split_once("(did you mean ")?;
        let quoted = |text: &str| within(text, '"').map(|text| format!("\"{text}\""));
        Some((quoted(before)?, quoted(after)?))
    }

    /// Returns the excerpt of the source with the position marked.
    #[cfg(feature = "miette")]
    pub(crate) fn marked(&self) -> Option<&Marked> {
        self.place.as_ref().map(|place| &*place.marked)
    }

    /// Returns the line of the place in the source, counted from 1.
    #[must_use]
    pub fn line(&self) -> Option<usize> {
        self.place.as_ref().map(|place| place.line).or(self.line.map(|line| line as usize))
    }

    /// The column of the place in the source, counted in characters from 1.
    #[must_use]
    pub fn column(&self) -> Option<usize> {
        self.place.as_ref().map(|place| place.column)
    }
}

/// The beginning of advice that suggests a word, and of a message about an unknown operator.
pub(crate) const DID_YOU_MEAN: &str = "did you mean `";
pub(crate) const NO_OPERATOR: &str = "there is no operator `";

impl From<chordane::Fault> for ScoreError {
    fn from(fault: chordane::Fault) -> Self {
        Self::new(fault.to_string())
    }
}
