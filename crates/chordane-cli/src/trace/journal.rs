//! Every step of a draft on the disk, one line of JSON each, only ever added to: whatever happens, no step is lost. Lines between say over which picture was
//! drawn, and what was written of it into which file.

use std::collections::BTreeMap;
use std::fs::{File, OpenOptions};
use std::io::{self, BufRead, BufReader, Read, Write};
use std::path::{Path, PathBuf};

use chordane::draft::{Draft, Step};
use serde::{Deserialize, Serialize};

/// No journal is larger than this.
const MAX_BYTES: u64 = 256 << 20;

/// No line of a journal is longer than this.
const MAX_LINE: u64 = 1 << 20;

/// After a kill a file may hold what was written so many times ago.
const MAX_WRITTEN: usize = 3;

/// What was done.
#[derive(Clone, Copy, Debug, Deserialize, PartialEq, Serialize)]
#[serde(rename_all = "kebab-case")]
pub(crate) enum Entry {
    Step(Step),
    Undo,
    Redo,
}

/// A line that is no step.
#[derive(Clone, Debug, Deserialize, PartialEq, Serialize)]
#[serde(rename_all = "kebab-case")]
enum Line {
    /// The first line: what file this is, and the digest of the picture that is drawn over.
    Tracing { version: u32, picture: String },
    /// From here on over another picture.
    Picture(String),
    /// The digests of the outputs as they are written after the step before.
    Wrote(BTreeMap<String, String>),
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

/// The contents of a journal.
#[derive(Debug, Default)]
pub(crate) struct Opened {
    pub(crate) draft: Draft,
    /// Lines that were done again, and lines that could not be.
    pub(crate) done: usize,
    pub(crate) lost: usize,
    /// The digest of the picture that was drawn over last.
    pub(crate) picture: String,
    /// The latest digests of each output, by its name in the journal.
    pub(crate) wrote: BTreeMap<String, Vec<String>>,
}

impl Opened {
    fn line(&mut self, line: &str) {
        if let Ok(entry) = serde_json::from_str::<Entry>(line) {
            match entry.apply(&mut self.draft) {
                Ok(()) => self.done += 1,
                Err(_) => self.lost += 1,
            }
            return;
        }
        match serde_json::from_str(line) {
            Ok(Line::Tracing { picture, .. } | Line::Picture(picture)) => self.picture = picture,
            Ok(Line::Wrote(wrote)) => {
                for (name, digest) in wrote {
                    let all = self.wrote.entry(name).or_default();
                    all.push(digest);
                    all.drain(..all.len().saturating_sub(MAX_WRITTEN));
                }
            }
            Err(_) => self.lost += 1,
        }
    }
}

impl Journal {
    /// Where the journal of an output is.
    pub(crate) fn place(out: &Path) -> PathBuf {
        let mut name = out.file_name().unwrap_or_default().to_owned();
        name.push(".steps");
        out.with_file_name(name)
    }

    /// Opens the journal of an output, or begins one over a picture of this digest, and does again what stands in it. A last line that was not written whole is
    /// left out, and others that cannot be read or done. Takes time in proportion to what stands in it.
    ///
    /// # Errors
    ///
    /// What the system reports; and a file that is not a journal, which is left as it is.
    pub(crate) fn open(place: &Path, picture: &str) -> io::Result<(Self, Opened)> {
        let foreign = |why: &str| Err(io::Error::new(io::ErrorKind::InvalidData, why.to_owned()));
        if place.metadata().is_ok_and(|held| !held.is_file()) {
            return foreign("it is not a file");
        }
        let file = OpenOptions::new().read(true).append(true).create(true).open(place)?;
        if file.metadata()?.len() > MAX_BYTES {
            return foreign("it is larger than 256 MB");
        }
        let mut reader = BufReader::new(&file);
        let (mut opened, mut line, mut number, mut is_whole) = (Opened::default(), Vec::new(), 0, true);
        loop {
            line.clear();
            if (&mut reader).take(MAX_LINE).read_until(b'\n', &mut line)? == 0 {
                break;
            }
            is_whole = line.ends_with(b"\n");
            let text = String::from_utf8_lossy(&line);
            if number == 0 && !matches!(serde_json::from_str(&text), Ok(Line::Tracing { version: 1, .. })) {
                return foreign("it was not made by chordane trace");
            }
            number += 1;
            if !text.trim().is_empty() {
                opened.line(&text);
            }
        }
        let mut journal = Self { file, waiting: String::new(), broken_off: !is_whole };
        if number == 0 {
            picture.clone_into(&mut opened.picture);
            journal.line(&Line::Tracing { version: 1, picture: picture.to_owned() })?;
            journal.write()?;
        }
        Ok((journal, opened))
    }

    /// Adds what was done, after what could not be written before, and what is written of it next.
    pub(crate) fn add(&mut self, entry: &Entry, wrote: &BTreeMap<String, String>) -> io::Result<()> {
        self.line(entry)?;
        self.wrote(wrote)
    }

    /// Adds what is written next.
    pub(crate) fn wrote(&mut self, wrote: &BTreeMap<String, String>) -> io::Result<()> {
        if !wrote.is_empty() {
            self.line(&Line::Wrote(wrote.clone()))?;
        }
        self.write()
    }

    /// From here on it is drawn over another picture.
    pub(crate) fn over(&mut self, picture: &str) -> io::Result<()> {
        self.line(&Line::Picture(picture.to_owned()))?;
        self.write()
    }

    fn line(&mut self, line: &impl Serialize) -> io::Result<()> {
        self.waiting.push_str(&serde_json::to_string(line).map_err(io::Error::other)?);
        self.waiting.push('\n');
        Ok(())
    }

    fn write(&mut self) -> io::Result<()> {
        // What was broken off is ended, so that only that line is lost when it is read.
        let begin = if self.broken_off { "\n" } else { "" };
        self.broken_off = true;
        self.file.write_all(format!("{begin}{}", self.waiting).as_bytes())?;
        self.broken_off = false;
        self.waiting.clear();
        self.file.sync_data()
    }
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
        let (mut journal, opened) = Journal::open(&place, "0a").unwrap();
        let mut draft = opened.draft;
        assert_eq!((opened.done, opened.lost, opened.picture.as_str()), (0, 0, "0a"));
        let add = |x: f64| Entry::Step(Step::Add { at: pt(x, 0.1 + 0.2), kind: VertexKind::Rounded(x) });
        let wrote = |digest: &str| BTreeMap::from([("kite.svg".to_owned(), digest.to_owned())]);
        for entry in [add(1.0), add(1.0 / 3.0), add(3.0), Entry::Undo, Entry::Undo, Entry::Redo] {
            entry.apply(&mut draft).unwrap();
            journal.add(&entry, &wrote("b1")).unwrap();
        }
        drop(journal);
        // Broken off in the middle of a line, as when the machine stops.
        let mut text = std::fs::read_to_string(&place).unwrap();
        text.push_str("{\"step\": {\"add\": {\"at\": [4");
        std::fs::write(&place, &text).unwrap();
        let (mut journal, again) = Journal::open(&place, "0b").unwrap();
        assert_eq!((&again.draft, again.done, again.lost), (&draft, 6, 1));
        assert_eq!((again.draft.steps().len(), again.draft.undone()), (2, 1));
        // It was drawn over the first picture.
        assert_eq!((again.picture.as_str(), again.wrote["kite.svg"].len()), ("0a", 3));
        let last = add(9.0);
        let mut more = again.draft;
        last.apply(&mut more).unwrap();
        journal.over("0b").unwrap();
        journal.add(&last, &wrote("b2")).unwrap();
        let (_, again) = Journal::open(&place, "0b").unwrap();
        assert_eq!((again.draft, again.done, again.lost, again.picture.as_str()), (more, 7, 1, "0b"));
        assert_eq!(again.wrote["kite.svg"], ["b1", "b1", "b2"]);
    }

    #[test]
    fn what_is_no_journal_is_left_alone() {
        let folder = tempfile::tempdir().unwrap();
        let place = folder.path().join("kite.svg.steps");
        for held in ["the steps up to the loft\n", "{\"step\": 1}\n", "{}"] {
            std::fs::write(&place, held).unwrap();
            let error = Journal::open(&place, "0a").unwrap_err();
            assert_eq!(error.to_string(), "it was not made by chordane trace");
            assert_eq!(std::fs::read_to_string(&place).unwrap(), held);
        }
    }

    /// Memory and time of a long tracing are in proportion to its steps.
    #[test]
    fn a_long_journal_is_opened() {
        let folder = tempfile::tempdir().unwrap();
        let place = folder.path().join("kite.svg.steps");
        drop(Journal::open(&place, "0a").unwrap());
        let mut text = std::fs::read_to_string(&place).unwrap();
        for i in 0..100_000 {
            let entry = Entry::Step(Step::Add { at: pt(f64::from(i), 0.5), kind: VertexKind::Corner });
            text += &serde_json::to_string(&entry).unwrap();
            text.push('\n');
        }
        std::fs::write(&place, text).unwrap();
        let (_, opened) = Journal::open(&place, "0a").unwrap();
        assert_eq!((opened.done, opened.draft.shapes().next().unwrap().vertices.len()), (100_000, 100_000));
    }
}
