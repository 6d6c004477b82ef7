//! Messages of a page replayed without a page, for the checks of the fuzzer.

use std::io;

use chordane::draft::PictureEdges;
use chordane::sheet::Picture;
use tokio::sync::mpsc::unbounded_channel;

use super::host::{Board, Output, Photo};
use super::journal::Journal;
use super::message::DraftTold;
use crate::record::digest;
use crate::web::Host;

/// The outcome of the messages of a tracing page. Drafts are as the page is sent them, as JSON.
#[derive(Debug, Default)]
pub struct TraceReplay {
    /// The answers to the page, as JSON.
    pub answers: Vec<String>,
    /// The draft after the last message.
    pub draft: String,
    /// The draft as the journal gives it back.
    pub reopened: String,
    /// The draft after everything was undone.
    pub undone: String,
    /// The draft after what was undone was redone.
    pub redone: String,
}

/// Handles the messages of a page that traces a picture, one after the other, then undoes all steps and redoes them.
///
/// # Errors
///
/// What the system reports about the temporary files, and a picture that cannot be read.
pub fn trace(picture: &[u8], messages: &[&str]) -> io::Result<TraceReplay> {
    let folder = tempfile::tempdir()?;
    let read = Picture::read(picture).map_err(io::Error::other)?;
    let names = ["kite.svg", "kite.chord", "kite.rs"];
    let out = names.map(|name| Output::new(folder.path().join(name), name.to_owned(), Vec::new()));
    let place = Journal::place(&folder.path().join("kite.svg"));
    let digest = digest(picture);
    let (journal, opened) = Journal::open(&place, &digest)?;
    let photo = Photo {
        name: "photo.png".to_owned(),
        kind: "image/png",
        bytes: picture.to_vec(),
        size: [read.width(), read.height()],
        edges: PictureEdges::of(&read),
    };
    let board = Board::new(photo, out.into(), journal, opened.draft, None);
    let (answer, mut answers) = unbounded_channel();
    let ask = |message: &str| drop(board.asked(1, message, &answer));
    let shown = || board.shown().borrow().draft().clone();
    messages.iter().for_each(|message| ask(message));
    let draft = shown();
    let (_, reopened) = Journal::open(&place, &digest)?;
    // One undo may take several steps back.
    for _ in 0..draft.undo {
        ask(r#"{"ask": "undo"}"#);
    }
    let undone = shown();
    let mut redos = 0..draft.undo;
    while shown().undo < draft.undo && redos.next().is_some() {
        ask(r#"{"ask": "redo"}"#);
    }
    let json = |draft: &DraftTold| serde_json::to_string(draft).unwrap_or_default();
    let mut replay = TraceReplay {
        draft: json(&draft),
        reopened: json(&(&reopened.draft).into()),
        undone: json(&undone),
        redone: json(&shown()),
        answers: Vec::new(),
    };
    while let Ok(told) = answers.try_recv() {
        replay.answers.push(told);
    }
    Ok(replay)
}
