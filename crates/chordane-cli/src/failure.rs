//! What went wrong: who is at fault, what is said, and the exit code.

use std::fmt::{self, Write as _};
use std::io::{self, IsTerminal, Write as _};
use std::path::Path;

use chordane::ground::{Fault, FaultKind, visible};
use chordane::raster::DrawError;
use chordane::read::ReadError;
use chordane_score::ScoreError;
use miette::{GraphicalReportHandler, GraphicalTheme, ThemeStyles};

/// Why the command did not do what it was asked for.
#[derive(Clone, Debug, thiserror::Error)]
#[error("{message}")]
pub(crate) struct Failure {
    pub(crate) cause: Cause,
    pub(crate) message: String,
    /// What to do about it.
    pub(crate) mend: String,
    /// The mistake in a score, with its place.
    pub(crate) mistake: Option<Box<ScoreError>>,
}

/// The party at fault; the value is the exit code.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Cause {
    Input = 1,
    Call = 2,
    Machine = 3,
}

/// The options that change the settings which errors name.
const OPTIONS: [(&str, &str); 8] = [
    ("steps", "--max-steps"),
    ("time", "--max-seconds"),
    ("memory", "--max-memory"),
    ("list", "--max-list"),
    ("text", "--max-text"),
    ("marks", "--marks FILE"),
    ("marks held", "--marks-held"),
    ("picture", "--picture NAME=FILE"),
];

/// Advice with the option that carries it out.
fn with_option(advice: &str, setting: &str) -> String {
    match OPTIONS.iter().find(|(name, _)| *name == setting) {
        Some((_, option)) => format!("{advice} with {option}"),
        None => advice.to_owned(),
    }
}

impl From<ScoreError> for Failure {
    fn from(mistake: ScoreError) -> Self {
        let mistake = match (mistake.advice(), mistake.setting()) {
            (Some(advice), Some(setting)) => {
                let advice = with_option(advice, setting);
                mistake.advised(advice)
            }
            _ => mistake,
        };
        let mend = mistake.advice().unwrap_or_default().to_owned();
        Self { cause: Cause::Input, message: mistake.to_string(), mend, mistake: Some(Box::new(mistake)) }
    }
}

impl Failure {
    fn new(cause: Cause, message: impl Into<String>, mend: impl Into<String>) -> Self {
        Self { cause, message: message.into(), mend: mend.into(), mistake: None }
    }

    pub(crate) fn input(message: impl Into<String>, mend: impl Into<String>) -> Self {
        Self::new(Cause::Input, message, mend)
    }

    /// An error in a file that is read along with a score.
    pub(crate) fn in_file(name: &dyn fmt::Display, mistake: &ScoreError) -> Self {
        Self::input(format!("{name}: {mistake}"), mistake.advice().unwrap_or_default())
    }

    pub(crate) fn call(message: impl Into<String>, mend: impl Into<String>) -> Self {
        Self::new(Cause::Call, message, mend)
    }

    pub(crate) fn machine(message: impl Into<String>, mend: impl Into<String>) -> Self {
        Self::new(Cause::Machine, message, mend)
    }

    /// A fault of what is drawn. That the work was stopped says itself what to do.
    pub(crate) fn of_fault(fault: &Fault, mend: &str) -> Self {
        match fault.kind() {
            FaultKind::Stopped(why) => Self::input(&why.what, with_option(&why.advice, why.setting)),
            _ => Self::input(fault.to_string(), mend),
        }
    }

    /// Why a document could not be read.
    pub(crate) fn of_reading(name: &str, error: &ReadError) -> Self {
        match error {
            ReadError::Stopped { line, why } => Self::input(
                format!("{name}: line {line}: {}", why.what),
                with_option(&why.advice, why.setting),
            ),
            _ => Self::input(format!("{name}: {error}"), "mend the document"),
        }
    }

    /// Why something could not be drawn. A size that was asked for is the call's fault.
    pub(crate) fn of_draw(error: &DrawError, asked: bool, max_side: u32) -> Self {
        match error {
            DrawError::NoPixels { .. } => Self::call(error.to_string(), "ask for another size"),
            DrawError::TooLarge { .. } if asked || max_side == 0 => Self::call(
                error.to_string(),
                "give a --size within it; the pixels a side are limited by --max-side",
            ),
            DrawError::TooLarge { .. } => Self::input(
                error.to_string(),
                "make the sheet smaller, give a smaller --size, or raise the limit with --max-side",
            ),
            DrawError::Fault(fault) => Self::of_fault(fault, "mend it in the input"),
            other => Self::input(other.to_string(), "draw it in another format"),
        }
    }

    /// A file that could not be written.
    pub(crate) fn writing(file: &Path, error: &io::Error) -> Self {
        let name = file.display();
        let folder = file.parent().filter(|folder| !folder.as_os_str().is_empty() && !folder.exists());
        if let Some(folder) = folder {
            return Self::call(
                format!("{name} cannot be written: there is no folder {}", folder.display()),
                "make the folder first, or name another place with -o",
            );
        }
        match error.kind() {
            _ if file.is_dir() => return Self::call(format!("{name} is a folder"), "name a file with -o"),
            io::ErrorKind::NotADirectory => {
                return Self::call(
                    format!("{name} cannot be written: part of that path is a file, not a folder"),
                    "name a place in a folder with -o",
                );
            }
            io::ErrorKind::InvalidFilename => {
                return Self::call(
                    format!("{name} cannot be written: no file can have such a name"),
                    "give a shorter name, without unusual characters",
                );
            }
            _ => {}
        }
        Self::machine(
            format!("{name} cannot be written: {error}"),
            "make room or get permission there, or name another place with -o",
        )
    }

    pub(crate) fn standard_output(error: &io::Error) -> Self {
        Self::machine(
            format!("standard output cannot be written: {error}"),
            "what reads it stopped before the end, or its disk is full; write to a file with -o",
        )
    }

    /// The exit code.
    pub(crate) fn code(&self) -> u8 {
        self.cause as u8
    }

    /// Says it on standard error.
    pub(crate) fn report(&self) {
        let coloured =
            io::stderr().is_terminal() && std::env::var_os("NO_COLOR").is_none_or(|v| v.is_empty());
        // The terminal's own colours, which its owner has made legible on its ground.
        let styles = if coloured { ThemeStyles::ansi() } else { ThemeStyles::none() };
        let theme = GraphicalTheme { styles, ..GraphicalTheme::unicode_nocolor() };
        let mut text = String::new();
        match &self.mistake {
            Some(mistake) => {
                let handler = GraphicalReportHandler::new_themed(theme).with_width(100).with_links(false);
                if handler.render_report(&mut text, mistake.as_ref()).is_err() {
                    let _ = write!(text, "{mistake}");
                }
            }
            None => {
                let (message, mend) = (visible(&self.message), visible(&self.mend));
                let _ = writeln!(text, "error: {message}\n  help: {mend}");
            }
        }
        // Where standard error is closed too, there is nobody to tell.
        let _ = io::stderr().write_all(text.trim_start_matches('\n').as_bytes());
    }
}
