//! The file on the disk: written whole, and looked at before, so that what others wrote is not lost.

use std::collections::VecDeque;
use std::io::{self, Write};
use std::path::{Path, PathBuf};
use std::sync::Arc;

use chordane::write::WholeFile;

use super::text::shared;
use crate::failure::Failure;
use crate::input::read_file;

/// A file, and what of it is known.
#[derive(Debug)]
pub(crate) struct Paper {
    file: PathBuf,
    known: Arc<str>,
    /// Its earlier texts, as they were written here, oldest first.
    older: VecDeque<Arc<str>>,
    manner: Manner,
}

/// The number of earlier texts that are kept.
const MAX_OLDER: usize = 20;

/// How a file holds its text: whether a byte order mark stands in front, and whether lines end with a carriage return. Pages see neither; both are put
/// back when the file is written. A file with mixed line ends is written with one kind throughout.
#[derive(Clone, Copy, Debug, Default)]
struct Manner {
    marked: bool,
    returns: bool,
}

impl Manner {
    /// The text that a file holds, and how.
    fn read(held: &str) -> (Self, Arc<str>) {
        let text = held.strip_prefix('\u{feff}').unwrap_or(held);
        let manner = Self { marked: text.len() < held.len(), returns: text.contains("\r\n") };
        (manner, text.replace("\r\n", "\n").replace('\r', "\n").into())
    }

    fn written(self, text: &str) -> String {
        let mark = if self.marked { "\u{feff}" } else { "" };
        let end = if self.returns { "\r\n" } else { "\n" };
        format!("{mark}{}", text.replace('\n', end))
    }
}

/// A text that is longer than this is not shown in a page.
pub(crate) const LONGEST: usize = 8 << 20;

/// What was found on the disk.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(crate) enum Look {
    /// What was known.
    Same,
    /// Another text.
    Other(Arc<str>),
    /// No file.
    Gone,
    /// Something that the page cannot show, and that is not written over.
    Unreadable(String),
}

impl Paper {
    /// A file that holds this.
    pub(crate) fn new(file: &Path, held: &str) -> Self {
        let (manner, known) = Manner::read(held);
        Self { file: file.to_owned(), known, older: VecDeque::new(), manner }
    }

    pub(crate) fn file(&self) -> &Path {
        &self.file
    }

    /// The text that the file held when it was read or written last.
    pub(crate) fn known(&self) -> &Arc<str> {
        &self.known
    }

    /// Takes a text that another program wrote for what the file holds.
    pub(crate) fn know(&mut self, text: &Arc<str>) {
        self.known = Arc::clone(text);
        self.older.clear();
    }

    /// The text that another program made its own from, as far as can be told: it may have read the file before it was written here last, and then what was
    /// written here since is not what it took out. A text that is an older one altogether is meant so.
    pub(crate) fn base_of(&self, theirs: &str) -> &Arc<str> {
        if self.older.iter().any(|text| **text == *theirs) {
            return &self.known;
        }
        let differs = |text: &Arc<str>| {
            let (head, tail) = shared(text, theirs);
            text.len().max(theirs.len()) - head - tail
        };
        self.older
            .iter()
            .rev()
            .fold(&self.known, |best, text| if differs(text) < differs(best) { text } else { best })
    }

    /// Looks what the file holds now.
    pub(crate) fn look(&mut self) -> Look {
        let Ok(held) = std::fs::metadata(&self.file) else { return Look::Gone };
        let unreadable = |why: &str| Look::Unreadable(format!("{} is {why}", self.file.display()));
        if !held.is_file() {
            return unreadable("not a file any more");
        }
        if held.len() > LONGEST as u64 {
            return unreadable(&format!("larger than {} MB now", LONGEST >> 20));
        }
        match read_file(&self.file).map(String::from_utf8) {
            Ok(Ok(held)) => {
                let (manner, text) = Manner::read(&held);
                self.manner = manner;
                if text == self.known { Look::Same } else { Look::Other(text) }
            }
            Ok(Err(_)) => unreadable("not text any more"),
            Err(failure) => Look::Unreadable(failure.to_string()),
        }
    }

    /// Writes a text, if the file still holds what is known of it once that is written beside it; whether it did.
    pub(crate) fn write(&mut self, text: &Arc<str>) -> Result<bool, Failure> {
        let bytes = self.manner.written(text);
        let written = WholeFile::create(&self.file).and_then(|mut out| {
            out.write_all(bytes.as_bytes())?;
            out.finish_if(|| matches!(self.look(), Look::Same | Look::Gone))
        });
        if !written.map_err(|error: io::Error| Failure::writing(&self.file, &error))? {
            return Ok(false);
        }
        let before = std::mem::replace(&mut self.known, Arc::clone(text));
        if before != self.known {
            self.older.push_back(before);
            let more = self.older.len().saturating_sub(MAX_OLDER);
            self.older.drain(..more);
        }
        Ok(true)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_others_write_is_seen() {
        let folder = tempfile::tempdir().unwrap();
        let file = folder.path().join("hem.chord");
        std::fs::write(&file, "hem").unwrap();
        let mut paper = Paper::new(&file, "hem");
        assert_eq!(paper.look(), Look::Same);
        paper.write(&"hem 2".into()).unwrap();
        assert_eq!((paper.look(), std::fs::read_to_string(&file).unwrap().as_str()), (Look::Same, "hem 2"));
        std::fs::write(&file, "hem 3").unwrap();
        assert_eq!(paper.look(), Look::Other("hem 3".into()));
        std::fs::write(&file, [0xff, 0xfe]).unwrap();
        assert!(
            matches!(paper.look(), Look::Unreadable(why) if why.ends_with("hem.chord is not text any more"))
        );
        std::fs::remove_file(&file).unwrap();
        assert_eq!(paper.look(), Look::Gone);
    }

    #[test]
    fn what_was_written_since_another_program_read_the_file_is_not_taken_out() {
        let folder = tempfile::tempdir().unwrap();
        let file = folder.path().join("hem.chord");
        let mut paper = Paper::new(&file, "hem\nvent\ntail\n");
        for text in ["hem 2\nvent\ntail\n", "hem 23\nvent\ntail\n"] {
            paper.write(&text.into()).unwrap();
        }
        let base = |theirs: &str| paper.base_of(theirs).to_string();
        // Made from the first, from the last; and put back altogether.
        assert_eq!(base("hem\nvent\ntail 7\n"), "hem\nvent\ntail\n");
        assert_eq!(base("hem 2\nvent\ntail 7\n"), "hem 2\nvent\ntail\n");
        assert_eq!(base("hem 23\nvent\ntail 7\n"), "hem 23\nvent\ntail\n");
        assert_eq!(base("hem\nvent\ntail\n"), "hem 23\nvent\ntail\n");
        paper.know(&"hem 4\n".into());
        assert_eq!(paper.base_of("hem\nvent\ntail 7\n").to_string(), "hem 4\n");
    }

    #[test]
    fn marks_and_line_ends_are_kept() {
        let folder = tempfile::tempdir().unwrap();
        let file = folder.path().join("hem.chord");
        let held = "\u{feff}hem\r\n2\r\n";
        std::fs::write(&file, held).unwrap();
        let mut paper = Paper::new(&file, held);
        assert_eq!(paper.look(), Look::Same);
        assert_eq!(&**paper.known(), "hem\n2\n");
        paper.write(&"hem\n3\n".into()).unwrap();
        assert_eq!(std::fs::read_to_string(&file).unwrap(), "\u{feff}hem\r\n3\r\n");
        // As it is held now, though the text is the same.
        std::fs::write(&file, "hem\n3\n").unwrap();
        assert_eq!(paper.look(), Look::Same);
        paper.write(&"hem\n4\n".into()).unwrap();
        assert_eq!(std::fs::read_to_string(&file).unwrap(), "hem\n4\n");
    }
}
