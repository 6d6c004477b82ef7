//! What went wrong: who is at fault, what is said, and the exit code.

use std::fmt::Write as _;
use std::io::{self, IsTerminal, Write as _};
use std::path::Path;

use chordane::ground::{Fault, FaultKind, visible};
use chordane::raster::DrawError;
use chordane::read::ReadError;
use chordane_score::Mistake;
use miette::{GraphicalReportHandler, GraphicalTheme, ThemeStyles};

/// Why the command did not do what it was asked for.
#[derive(Debug, thiserror::Error)]
pub(crate) enum Failure {
    /// The score has a mistake, with its place.
    #[error(transparent)]
    Score(Box<Mistake>),
    /// The input is at fault in another way.
    #[error("{message}")]
    Input { message: String, mend: String },
    /// The call is at fault.
    #[error("{message}")]
    Call { message: String, mend: String },
    /// The machine is at fault.
    #[error("{message}")]
    Machine { message: String, mend: String },
}

impl From<Mistake> for Failure {
    fn from(mistake: Mistake) -> Self {
        Self::Score(Box::new(mistake))
    }
}

impl Failure {
    pub(crate) fn input(message: impl Into<String>, mend: impl Into<String>) -> Self {
        Self::Input { message: message.into(), mend: mend.into() }
    }

    pub(crate) fn call(message: impl Into<String>, mend: impl Into<String>) -> Self {
        Self::Call { message: message.into(), mend: mend.into() }
    }

    pub(crate) fn machine(message: impl Into<String>, mend: impl Into<String>) -> Self {
        Self::Machine { message: message.into(), mend: mend.into() }
    }

    /// A fault of what is drawn. That the work was stopped says itself what to do.
    pub(crate) fn of_fault(fault: &Fault, mend: &str) -> Self {
        match fault.kind() {
            FaultKind::Stopped { why } => {
                let (message, mend) = why.split_once("; ").unwrap_or((why, mend));
                Self::input(message, mend)
            }
            _ => Self::input(fault.to_string(), mend),
        }
    }

    /// Why a document could not be read.
    pub(crate) fn of_reading(name: &str, error: &ReadError) -> Self {
        let told = format!("{name}: {error}");
        let (message, mend) = match error {
            ReadError::Stopped { .. } => told.split_once("; ").unwrap_or((&told, "mend the document")),
            _ => (told.as_str(), "mend the document"),
        };
        Self::input(message, mend)
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

    /// The same once more.
    pub(crate) fn again(&self) -> Self {
        match self {
            Self::Score(mistake) => Self::Score(mistake.clone()),
            Self::Input { message, mend } => Self::input(message, mend),
            Self::Call { message, mend } => Self::call(message, mend),
            Self::Machine { message, mend } => Self::machine(message, mend),
        }
    }

    /// 1 the input, 2 the call, 3 the machine is at fault.
    pub(crate) fn code(&self) -> u8 {
        match self {
            Self::Score(_) | Self::Input { .. } => 1,
            Self::Call { .. } => 2,
            Self::Machine { .. } => 3,
        }
    }

    /// Says it on standard error.
    pub(crate) fn report(&self) {
        let coloured =
            io::stderr().is_terminal() && std::env::var_os("NO_COLOR").is_none_or(|v| v.is_empty());
        // The terminal's own colours, which its owner has made legible on its ground.
        let styles = if coloured { ThemeStyles::ansi() } else { ThemeStyles::none() };
        let theme = GraphicalTheme { styles, ..GraphicalTheme::unicode_nocolor() };
        let mut text = String::new();
        match self {
            Self::Score(mistake) => {
                let handler = GraphicalReportHandler::new_themed(theme).with_width(100).with_links(false);
                if handler.render_report(&mut text, mistake.as_ref()).is_err() {
                    let _ = write!(text, "{mistake}");
                }
            }
            Self::Input { message, mend }
            | Self::Call { message, mend }
            | Self::Machine { message, mend } => {
                let _ = writeln!(text, "error: {}\n  help: {}", visible(message), visible(mend));
            }
        }
        // Where standard error is closed too, there is nobody to tell.
        let _ = io::stderr().write_all(text.trim_start_matches('\n').as_bytes());
    }
}
