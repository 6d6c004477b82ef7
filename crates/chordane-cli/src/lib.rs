//! The `chordane` command as a library: a thin layer over the drawing library and the scores.
//!
//! A score that was written in Rust gets the same options from [`run`]:
//!
//! ```no_run
//! use chordane::prelude::*;
//!
//! fn main() -> std::process::ExitCode {
//!     chordane_cli::run("sail", |stage: &mut chordane_cli::Stage| {
//!         let radius = stage.knob("radius", 30.0, 1.0, 40.0);
//!         sheet(100.0, 80.0).add(circle((50.0, 40.0), radius).fill("teal"))
//!     })
//! }
//! ```
//!
//! Exit codes: 0 done; 1 the input is at fault; 2 the call is at fault; 3 the machine is at fault (disk,
//! permission). Results go to standard output or to the files named, everything else to standard error.

mod check;
mod clip;
mod demo;
mod draw;
mod drawing;
mod failure;
mod frames;
mod input;
mod knobs;
mod live;
mod manual;
mod marks;
mod memory;
mod moving_svg;
mod options;
mod output;
mod record;
mod report;
mod trace;
mod track;
mod tracker;
mod vary;
mod web;
mod words;

/// Messages of pages without a page, for the checks of the fuzzer. Not part of the public interface.
#[doc(hidden)]
pub mod replay {
    pub use crate::live::replay::{LiveReplay, live};
    pub use crate::trace::replay::{TraceReplay, trace};
}

use std::ffi::OsString;
use std::process::ExitCode;

pub use chordane;
pub use chordane_score;
pub use chordane_score::Stage;
use chordane_score::{Runner, Score, Settings, Words};
use clap::FromArgMatches;

use check::Outcome;
use failure::Failure;
use input::Origin;
use options::{Action, Options};

/// Runs the command with the arguments that the process was given.
///
/// ```no_run
/// fn main() -> std::process::ExitCode {
///     chordane_cli::main()
/// }
/// ```
#[must_use]
pub fn main() -> ExitCode {
    Program::new("chordane").main()
}

/// Runs a score that was written in Rust, as `draw` runs a script: `-o` names the files, and so on; `check` checks it.
///
/// `name` is what the score is called in messages and help.
///
/// ```no_run
/// use chordane::prelude::*;
///
/// fn main() -> std::process::ExitCode {
///     let page = |_: &mut chordane_cli::Stage| sheet(100.0, 80.0).add(circle((50.0, 40.0), 20.0).fill("teal"));
///     chordane_cli::run("vent", page)
/// }
/// ```
#[must_use]
pub fn run(name: &'static str, score: impl Score + Send + Sync) -> ExitCode {
    Program::new(name).run(score)
}

/// The command as part of another program, with its own name, words and arguments.
///
/// ```
/// use chordane_cli::Program;
/// use chordane_cli::chordane::prelude::*;
/// use chordane_cli::chordane_score::Words;
///
/// let words = Words::new().add("knot(at)", "A knot in the line.", "knot([0, 0])", |at: Point| circle(at, 2.0));
/// let code = Program::new("loft").words(words).arguments(["words", "knot"]).main();
/// assert_eq!(code, std::process::ExitCode::SUCCESS);
/// ```
#[derive(Clone, Debug)]
pub struct Program {
    name: &'static str,
    words: Words,
    arguments: Option<Vec<OsString>>,
}

impl Program {
    /// Creates a program with a name, which its help shows.
    #[must_use]
    pub fn new(name: &'static str) -> Self {
        Self { name, words: Words::new(), arguments: None }
    }

    /// Adds words for its scores. The `words` command and the live page list them too.
    #[must_use]
    pub fn words(self, words: Words) -> Self {
        Self { words, ..self }
    }

    /// Sets the arguments, without the program's name. By default they are the process's own.
    #[must_use]
    pub fn arguments<A: Into<OsString>>(self, arguments: impl IntoIterator<Item = A>) -> Self {
        let arguments = arguments.into_iter().map(Into::into).collect();
        Self { arguments: Some(arguments), ..self }
    }

    /// Returns the program's name and its arguments.
    fn call(&self) -> Vec<OsString> {
        let given = || self.arguments.clone().unwrap_or_else(|| std::env::args_os().skip(1).collect());
        let name = OsString::from(self.name);
        options::words_of(std::iter::once(name).chain(given()))
    }

    /// Runs the whole command: `draw`, `check` and the others.
    #[must_use]
    pub fn main(self) -> ExitCode {
        handle_file_size_signal();
        let parsed = options::command(self.name)
            .try_get_matches_from(self.call())
            .and_then(|matches| Options::from_arg_matches(&matches));
        let options = match parsed {
            Ok(options) => options,
            Err(error) => return usage(&error),
        };
        let words = &self.words;
        if let Err(error) = words.sound() {
            return end(Err(error.into()));
        }
        end(match options.action {
            Action::Draw(mut options) => {
                options.draw.knobs.of_file(&options.input);
                draw::score_file(&options, words)
            }
            Action::Check(mut options) => {
                options.check.knobs.of_file(&options.input);
                return found(check::file(&options, words));
            }
            Action::Vary(mut options) => {
                options.vary.knobs.of_file(&options.input);
                vary::file(&options, words)
            }
            Action::Live(mut options) => {
                options.live.knobs.of_file(&options.input);
                live::file(&options, words)
            }
            Action::Trace(options) => trace::picture(&options),
            Action::Words(options) => words::show(&options, words),
            Action::Demo(options) => demo::write(&options),
            Action::Completions(options) => manual::completions(&options, self.name),
            Action::Man(options) => manual::pages(&options, self.name),
        })
    }

    /// Runs a score that was written in Rust; see [`run`].
    #[must_use]
    pub fn run(self, score: impl Score + Send + Sync) -> ExitCode {
        handle_file_size_signal();
        let parsed = options::command_of_one_score(self.name)
            .try_get_matches_from(self.call())
            .and_then(|matches| options::OneScore::from_arg_matches(&matches));
        let runner = Runner::new(score);
        let origin = Origin { name: self.name.to_owned(), source: None };
        match parsed {
            Ok(options::OneScore { action: Some(options::OneScoreAction::Check(options)), .. }) => {
                found(check::score(&options, &runner, &[], None))
            }
            Ok(options::OneScore { action: Some(options::OneScoreAction::Vary(options)), .. }) => {
                end(vary::score(&options, &origin, &runner, None))
            }
            Ok(options::OneScore { action: Some(options::OneScoreAction::Live(options)), .. }) => {
                end(live::score(&options, &origin, &runner))
            }
            Ok(options::OneScore { draw: options, .. }) => {
                end(draw::score(&options, Settings::new(), Some(origin), None, || Ok(runner)))
            }
            Err(error) => usage(&error),
        }
    }
}

/// Turns the signal of a file that is too large for the system's limit into an error of the write. By default the signal ends the program.
fn handle_file_size_signal() {
    #[cfg(unix)]
    {
        // The write itself fails too, so the flag is never read. If there can be no handler, the default stays.
        let raised = std::sync::Arc::default();
        let _ = signal_hook::flag::register(signal_hook::consts::SIGXFSZ, raised);
    }
}

/// A check that found something ends as an input at fault does.
fn found(result: Result<Outcome, Failure>) -> ExitCode {
    match result {
        Ok(Outcome::Found) => ExitCode::from(1),
        Ok(Outcome::Sound) => end(Ok(())),
        Err(failure) => end(Err(failure)),
    }
}

/// Prints help, or what is wrong with the call.
fn usage(error: &clap::Error) -> ExitCode {
    // Help goes to standard output, which may be closed; there is then nobody to tell.
    let _ = error.print();
    ExitCode::from(if error.use_stderr() { 2 } else { 0 })
}

fn end(result: Result<(), Failure>) -> ExitCode {
    match result {
        Ok(()) => ExitCode::SUCCESS,
        Err(failure) => {
            failure.report();
            ExitCode::from(failure.code())
        }
    }
}
