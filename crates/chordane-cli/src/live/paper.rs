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
    pub(crate) fn new(file: &Path, text: &str) -> Self {
        Self { file: file.to_owned(), known: text.into() }
    }

    pub(crate) fn file(&self) -> &Path {
        &self.file
    }

    /// What the file held when it was read or written last.
    pub(crate) fn known(&self) -> &Arc<str> {
        &self.known
    }

    /// Takes a text for what the file holds.
    pub(crate) fn know(&mut self, text: &Arc<str>) {
        self.known = Arc::clone(text);
    }

    /// Looks what the file holds now.
    pub(crate) fn look(&self) -> Look {
        if !self.file.exists() {
            return Look::Gone;
        }
        match read_file(&self.file).map(String::from_utf8) {
            Ok(Ok(text)) if *text == *self.known => Look::Same,
            Ok(Ok(text)) => Look::Other(text.into()),
            Ok(Err(_)) => Look::Unreadable(format!("{} is not text any more", self.file.display())),
            Err(failure) => Look::Unreadable(failure.to_string()),
        }
    }

    /// Writes a text.
    pub(crate) fn write(&mut self, text: &Arc<str>) -> Result<(), Failure> {
        let written = write_whole(&self.file, text.as_bytes());
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
}
