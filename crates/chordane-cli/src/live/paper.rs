//! The file on the disk: written whole, and looked at before, so that what others wrote is not lost.

use std::io;
use std::path::{Path, PathBuf};
use std::sync::Arc;

use chordane::write::write_whole;

use crate::failure::Failure;
use crate::input::read_file;

/// A file, and what of it is known.
#[derive(Debug)]
pub(crate) struct Paper {
    file: PathBuf,
    known: Arc<str>,
    manner: Manner,
}

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

/// What was found on the disk.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(crate) enum Look {
    /// What was known.
    Same,
    /// Another text.
    Other(Arc<str>),
    /// No file.
    Gone,
    /// Something that cannot be read as text.
    Unreadable(String),
}

impl Paper {
    /// A file that holds this.
    pub(crate) fn new(file: &Path, held: &str) -> Self {
        let (manner, known) = Manner::read(held);
        Self { file: file.to_owned(), known, manner }
    }

    pub(crate) fn file(&self) -> &Path {
        &self.file
    }

    /// The text that the file held when it was read or written last.
    pub(crate) fn known(&self) -> &Arc<str> {
        &self.known
    }

    /// Takes a text for what the file holds.
    pub(crate) fn know(&mut self, text: &Arc<str>) {
        self.known = Arc::clone(text);
    }

    /// Looks what the file holds now.
    pub(crate) fn look(&mut self) -> Look {
        if !self.file.exists() {
            return Look::Gone;
        }
        match read_file(&self.file).map(String::from_utf8) {
            Ok(Ok(held)) => {
                let (manner, text) = Manner::read(&held);
                self.manner = manner;
                if text == self.known { Look::Same } else { Look::Other(text) }
            }
            Ok(Err(_)) => Look::Unreadable(format!("{} is not text any more", self.file.display())),
            Err(failure) => Look::Unreadable(failure.to_string()),
        }
    }

    /// Writes a text.
    pub(crate) fn write(&mut self, text: &Arc<str>) -> Result<(), Failure> {
        let written = write_whole(&self.file, self.manner.written(text).as_bytes());
        written.map_err(|error: io::Error| Failure::writing(&self.file, &error))?;
        self.know(text);
        Ok(())
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
