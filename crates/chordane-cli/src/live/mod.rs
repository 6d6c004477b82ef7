//! `chordane live`: a page on this machine that shows a score while it is written.
//!
//! One thread works: it takes what pages ask for in order, changes the text or what the score is run with, runs it, and publishes what came of it. Another
//! serves the pages: each is told what is news to it, and what comes faster than a page can take is left out.

mod desk;
mod export;
mod exports;
mod findings;
mod flags;
mod host;
mod latest;
mod message;
mod outside;
mod paper;
mod places;
pub(crate) mod replay;
mod runs;
mod session;
mod shown;
mod strip;
mod text;

use std::path::Path;
use std::sync::Arc;
use std::sync::mpsc;

use chordane_score::{Limits, Runner, Words};

use crate::failure::Failure;
use crate::input::{Input, Origin};
use crate::options::{LiveFileOptions, LiveOptions};
use crate::output::say;
use crate::web::Place;
use flags::Flags;
use host::Desktop;
use paper::{LONGEST, Paper};
use runs::Subject;
use session::Session;

/// Shows the score or document in a file.
pub(crate) fn file(options: &LiveFileOptions, words: &Words) -> Result<(), Failure> {
    let file = &options.input;
    if file == Path::new("-") {
        return Err(Failure::call(
            "standard input cannot be watched",
            "name a .chord or .svg file; it is shown, and written when it is edited in the page",
        ));
    }
    let limits = options.limits.limits();
    let (subject, text) = match Input::read(file, words)? {
        Input::Score(name, text, words) => (Subject::Score { name, limits, words }, text),
        Input::Svg(name, bytes) => {
            let text = String::from_utf8(bytes).map_err(|_| {
                Failure::input(format!("{name} is not text in UTF-8"), "save the document as UTF-8")
            })?;
            (Subject::Document { name, limits }, text)
        }
    };
    if text.len() > LONGEST {
        let told = format!("{} is larger than {} MB", file.display(), LONGEST >> 20);
        return Err(Failure::input(told, "draw it with chordane draw"));
    }
    let paper = Paper::new(file, &text);
    let text = Arc::clone(paper.known());
    serve(&options.live, subject, &text, Some(paper), Some(limits))
}

/// Shows a score that is compiled in.
pub(crate) fn score(options: &LiveOptions, origin: &Origin, runner: &Runner<'_>) -> Result<(), Failure> {
    serve(options, Subject::Compiled { name: origin.name.clone(), runner }, "", None, None)
}

fn serve(
    options: &LiveOptions,
    subject: Subject<'_>,
    text: &str,
    paper: Option<Paper>,
    limits: Option<Limits>,
) -> Result<(), Failure> {
    // Marks on standard input come in as they are made.
    let streams = options.knobs.marks.as_deref() == Some(Path::new("-"));
    let settings = options.knobs.settings_but_marks(streams)?;
    let place = Place::open(&options.page)?;
    let (jobs, taken) = mpsc::channel();
    let flags = Flags::default();
    let watched = paper.as_ref().map(|paper| outside::watch(paper.file(), jobs.clone()));
    if let Some(Err(why)) = &watched {
        say(&format!("note: cannot watch the file for changes: {why}"));
    }
    if streams {
        let (jobs, held, smoothed) = (jobs.clone(), options.knobs.marks_held, options.knobs.marks_smoothed);
        std::thread::spawn(move || outside::stream_marks(&jobs, held, smoothed));
    }
    let desktop_of = (subject.name().to_owned(), subject.kind(), limits, subject.words());
    let (session, shown, slow) = Session::new(subject, text, paper, settings, (flags.clone(), taken));
    let host = Desktop::new(desktop_of, (flags, jobs), (shown, slow));
    place.serve(host.into(), || session.work())
}
