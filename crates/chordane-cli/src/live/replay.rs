//! Messages of a page replayed without a page, for the checks of the fuzzer.

use std::sync::mpsc;
use std::sync::mpsc::RecvTimeoutError;
use std::time::Duration;

use chordane::write::write_whole;
use chordane_score::{Limits, Settings, Words};
use tokio::sync::mpsc::unbounded_channel;

use super::Session;
use super::flags::Flags;
use super::host::Desktop;
use super::message::FileState;
use super::paper::Paper;
use super::runs::Subject;
use crate::web::Host;

/// The outcome of the messages of a live page.
#[derive(Debug, Default)]
pub struct LiveReplay {
    /// The answers to the page, as JSON.
    pub answers: Vec<String>,
    /// The text after the last message.
    pub text: String,
    /// The contents of the file after the last message, if the page says that it is saved.
    pub saved: Option<String>,
    /// The text after everything was undone.
    pub undone: String,
    /// The text after what was undone was redone.
    pub redone: String,
}

/// Handles the messages of a page that shows a score, one after the other, then undoes all changes and redoes them.
///
/// # Errors
///
/// What the system reports about the temporary file.
pub fn live(score: &str, messages: &[&str], limits: Limits) -> std::io::Result<LiveReplay> {
    let folder = tempfile::tempdir()?;
    let file = folder.path().join("kite.chord");
    write_whole(&file, score.as_bytes())?;
    let name = file.display().to_string();
    let subject = Subject::Score { name: name.clone(), limits, words: Words::new() };
    let (jobs, received) = mpsc::channel();
    let flags = Flags::default();
    let paper = Paper::new(&file, score);
    let (session, shown, slow) =
        Session::new(subject, score, Some(paper), Settings::new(), (flags.clone(), received));
    let host =
        Desktop::new((name, "score", Some(limits), Words::new()), (flags, jobs), (shown.clone(), slow));
    let (answer, mut answers) = unbounded_channel();
    let mut batches = batches(messages);
    let mut replay = LiveReplay::default();
    let (mut ended, mut undone, mut undos) = (false, false, 0);
    session.work_with(|jobs, patience| {
        if patience == Some(Duration::ZERO) {
            return Err(RecvTimeoutError::Timeout);
        }
        loop {
            if let Some(batch) = batches.next() {
                // What cannot be read is refused, and the next message goes on.
                batch.iter().for_each(|message| drop(host.asked(1, message, &answer)));
                // A drag that has no end would wait for it.
                if batch.iter().any(|message| may_begin_drag(message)) {
                    host.left(1);
                }
            } else {
                let shown = shown.borrow();
                if !ended {
                    ended = true;
                    replay.text = shown.text.to_string();
                    let is_saved = shown.file.0 == FileState::Saved;
                    replay.saved = is_saved.then(|| std::fs::read_to_string(&file).unwrap_or_default());
                }
                if !undone && shown.history.0.is_none() {
                    undone = true;
                    replay.undone = shown.text.to_string();
                }
                if undone && undos == 0 {
                    replay.redone = shown.text.to_string();
                    return Err(RecvTimeoutError::Disconnected);
                }
                drop(shown);
                undos = if undone { undos - 1 } else { undos + 1 };
                let message = if undone { r#"{"ask": "redo"}"# } else { r#"{"ask": "undo"}"# };
                let _ = host.asked(1, message, &answer);
            }
            if let Ok(job) = jobs.try_recv() {
                return Ok(job);
            }
        }
    });
    while let Ok(told) = answers.try_recv() {
        replay.answers.push(told);
    }
    Ok(replay)
}

/// The messages one by one; a drag, from the press to the release, at once.
fn batches<'a>(messages: &[&'a str]) -> impl Iterator<Item = Vec<&'a str>> + use<'a> {
    let mut batches: Vec<Vec<&str>> = Vec::new();
    let mut drags = false;
    for message in messages {
        match batches.last_mut() {
            Some(batch) if drags => batch.push(message),
            _ => batches.push(vec![message]),
        }
        drags = (drags || may_begin_drag(message)) && !message.contains("let-go");
    }
    batches.into_iter()
}

/// Whether a message asks for a drag, perhaps in escaped characters.
fn may_begin_drag(message: &str) -> bool {
    message.contains("grab") || message.contains("\\u")
}
