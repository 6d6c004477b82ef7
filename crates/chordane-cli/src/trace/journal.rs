//! Every step of a draft on the disk, one line of JSON each, only ever added to: whatever happens, no step is lost.

use std::fs::{File, OpenOptions};
use std::io::{self, Write};
use std::path::{Path, PathBuf};

use chordane::draft::{Draft, Step};
use serde::{Deserialize, Serialize};

/// What was done.
#[derive(Clone, Copy, Debug, Deserialize, PartialEq, Serialize)]
#[serde(rename_all = "kebab-case")]
pub(crate) enum Entry {
    Step(Step),
    Undo,
    Redo,
}

impl Entry {
    /// Does it.
    ///
    /// # Errors
    ///
    /// Why it cannot be done.
    pub(crate) fn apply(&self, draft: &mut Draft) -> Result<(), String> {
        let none = |way: &str| format!("there is nothing to {way}");
        match self {
            Self::Step(step) => draft.apply(*step).map_err(|error| error.to_string()),
            Self::Undo => draft.undo().then_some(()).ok_or_else(|| none("undo")),
            Self::Redo => draft.redo().then_some(()).ok_or_else(|| none("redo")),
        }
    }
}

/// The journal beside the output.
#[derive(Debug)]
pub(crate) struct Journal {
    file: File,
    /// Lines that could not be written yet.
    waiting: String,
    /// Whether a line was broken off as it was written.
    broken_off: bool,
}

impl Journal {
    /// Where the journal of an output is.
    pub(crate) fn place(out: &Path) -> PathBuf {
        let mut name = out.file_name().unwrap_or_default().to_owned();
        name.push(".steps");
        out.with_file_name(name)
    }

    /// Opens the journal of an output, and does again what stands in it. A last line that was not written whole is left out, and others that cannot be read or done.
    pub(crate) fn open(place: &Path) -> io::Result<(Self, Draft, Recovered)> {
        let mut file = OpenOptions::new().read(true).append(true).create(true).open(place)?;
        let text = io::read_to_string(&mut file)?;
        let (mut draft, mut recovered) = (Draft::new(), Recovered::default());
        for line in text.lines().filter(|line| !line.trim().is_empty()) {
            let done = serde_json::from_str::<Entry>(line).map_err(|error| error.to_string());
            match done.and_then(|entry| entry.apply(&mut draft)) {
                Ok(()) => recovered.done += 1,
                Err(_) => recovered.lost += 1,
            }
        }
        if !text.is_empty() && !text.ends_with('\n') {
            file.write_all(b"\n")?;
        }
        Ok((Self { file, waiting: String::new(), broken_off: false }, draft, recovered))
    }

    /// Adds a line, after those that could not be written before.
    pub(crate) fn add(&mut self, entry: &Entry) -> io::Result<()> {
        let mut line = serde_json::to_string(entry).map_err(io::Error::other)?;
        line.push('\n');
        self.waiting.push_str(&line);
        // What was broken off is ended, so that only that line is lost when it is read.
        let begin = if self.broken_off { "\n" } else { "" };
        self.broken_off = true;
        self.file.write_all(format!("{begin}{}", self.waiting).as_bytes())?;
        self.broken_off = false;
        self.waiting.clear();
        self.file.sync_data()
    }
}

/// What stood in a journal: lines that were done again, and lines that could not be.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(crate) struct Recovered {
    pub(crate) done: usize,
    pub(crate) lost: usize,
}

#[cfg(test)]
mod tests {
    use super::*;
    use chordane::draft::VertexKind;
    use chordane::number::pt;

    #[test]
    fn what_was_done_is_there_again() {
        let folder = tempfile::tempdir().unwrap();
        let place = Journal::place(&folder.path().join("kite.svg"));
        assert!(place.ends_with("kite.svg.steps"));
        let (mut journal, mut draft, recovered) = Journal::open(&place).unwrap();
        assert_eq!(recovered, Recovered::default());
        let add = |x: f64| Entry::Step(Step::Add { at: pt(x, 0.1 + 0.2), kind: VertexKind::Rounded(x) });
        for entry in [add(1.0), add(1.0 / 3.0), add(3.0), Entry::Undo, Entry::Undo, Entry::Redo] {
            entry.apply(&mut draft).unwrap();
            journal.add(&entry).unwrap();
        }
        drop(journal);
        // Broken off in the middle of a line, as when the machine stops.
        let mut text = std::fs::read_to_string(&place).unwrap();
        text.push_str("{\"step\": {\"add\": {\"at\": [4");
        std::fs::write(&place, &text).unwrap();
        let (mut journal, again, recovered) = Journal::open(&place).unwrap();
        assert_eq!((&again, recovered), (&draft, Recovered { done: 6, lost: 1 }));
        assert_eq!((again.steps().len(), again.undone()), (2, 1));
        let last = add(9.0);
        let mut more = again;
        last.apply(&mut more).unwrap();
        journal.add(&last).unwrap();
        let (_, again, recovered) = Journal::open(&place).unwrap();
        assert_eq!((again, recovered), (more, Recovered { done: 7, lost: 1 }));
    }
}
