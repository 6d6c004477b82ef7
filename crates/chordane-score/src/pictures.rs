//! The pictures that a score may paint with: files below its own folder, and those that are handed in.

use std::collections::{BTreeMap, HashMap};
use std::io::Read;
use std::path::{Component, Path, PathBuf};
use std::sync::{Arc, Mutex};

use chordane::ground::{nearest, shortened};
use chordane::sheet::Picture;

use crate::ScoreError;

/// No file of a picture is read beyond this.
const MAX_PICTURE_BYTES: u64 = 64 << 20;

/// Where the pictures of a score are: in files below its own folder, or handed in by name. Those that were read are kept, and shared by
/// copies.
///
/// ```
/// use chordane::prelude::*;
/// use chordane_score::{Pictures, Settings, Stage};
/// let dot = Picture::from_rgba(1, 1, &[200, 85, 61, 255]).unwrap();
/// let mut stage = Stage::new(Settings::new().pictures(Pictures::new().with("dot.png", dot)));
/// assert_eq!(stage.picture("dot.png").unwrap().width(), 1);
/// assert!(stage.picture("dto.png").unwrap_err().to_string().contains("did you mean \"dot.png\"?"));
/// ```
#[derive(Clone, Debug, Default)]
pub struct Pictures {
    folder: Option<PathBuf>,
    files: BTreeMap<String, PathBuf>,
    given: BTreeMap<String, Picture>,
    read: Arc<Mutex<HashMap<PathBuf, Picture>>>,
}

impl PartialEq for Pictures {
    fn eq(&self, other: &Self) -> bool {
        self.folder == other.folder && self.files == other.files && self.given == other.given
    }
}

impl Pictures {
    /// The same with nothing read yet: files that were changed since are read again.
    #[must_use]
    pub fn unread(mut self) -> Self {
        self.read = Arc::default();
        self
    }

    /// No pictures.
    #[must_use]
    pub fn new() -> Self {
        Self::default()
    }

    /// The same, and those of a folder and all folders below it, by their paths from there.
    #[must_use]
    pub fn below(mut self, folder: &Path) -> Self {
        self.folder = Some(folder.to_owned());
        self
    }

    /// The same, and a picture by a name.
    #[must_use]
    pub fn with(mut self, name: &str, picture: Picture) -> Self {
        self.given.insert(name.to_owned(), picture);
        self
    }

    /// The same, and a file, wherever it lies, by a name.
    #[must_use]
    pub fn with_file(mut self, name: &str, file: &Path) -> Self {
        self.files.insert(name.to_owned(), file.to_owned());
        self
    }

    /// The picture of a name: one that was handed in, else a file below the folder.
    ///
    /// # Errors
    ///
    /// What is wrong and how to mend it: a name of no picture, a file outside the folder (also by a link), or one that is no picture.
    pub fn find(&self, name: &str) -> Result<Picture, ScoreError> {
        if let Some(given) = self.given.get(name) {
            return Ok(given.clone());
        }
        self.load(name, &self.place(name)?)
    }

    /// Where the file of a name lies.
    fn place(&self, name: &str) -> Result<PathBuf, ScoreError> {
        if let Some(file) = self.files.get(name) {
            return Ok(file.clone());
        }
        let Some(folder) = &self.folder else {
            return Err(self.missing(name, "", Vec::new()));
        };
        let outside = || {
            let message = format!("the picture \"{}\" lies outside the score's folder", shown(name));
            ScoreError::new(message).set("picture", "put it below that folder, or hand it in")
        };
        let path = Path::new(name);
        let plain = path.components().all(|part| matches!(part, Component::Normal(_) | Component::CurDir));
        if !plain || name.is_empty() {
            return Err(outside());
        }
        let folder = if folder.as_os_str().is_empty() { Path::new(".") } else { folder };
        let Ok(file) = folder.join(path).canonicalize() else {
            if folder.join(path).is_symlink() {
                let message = format!("the picture \"{}\" is a broken link", shown(name));
                return Err(
                    ScoreError::new(message).set("picture", "put the file there itself, or hand it in")
                );
            }
            return Err(self.missing(name, " in the score's folder", files_of(folder)));
        };
        // Links may lead anywhere.
        let within = folder.canonicalize().is_ok_and(|folder| file.starts_with(folder));
        if within { Ok(file) } else { Err(outside()) }
    }

    /// The file of a picture by its name; `None` if the picture is not a file, or may not be read.
    #[must_use]
    pub fn file_of(&self, name: &str) -> Option<PathBuf> {
        if self.given.contains_key(name) { None } else { self.place(name).ok() }
    }

    /// The error for a missing picture, with the name that may have been meant.
    fn missing(&self, name: &str, place: &str, files: Vec<String>) -> ScoreError {
        let known = self.given.keys().chain(self.files.keys()).cloned().chain(files).collect::<Vec<_>>();
        let message = format!("there is no picture \"{}\"{place}", shown(name));
        match nearest(name, known.iter().map(String::as_str)) {
            Some(near) => ScoreError::new(format!("{message}: did you mean \"{}\"?", shown(near))),
            None => ScoreError::new(message).set("picture", "hand it in"),
        }
    }

    fn load(&self, name: &str, file: &Path) -> Result<Picture, ScoreError> {
        if let Ok(read) = self.read.lock()
            && let Some(known) = read.get(file)
        {
            return Ok(known.clone());
        }
        let told =
            |why: String| ScoreError::new(format!("the picture \"{}\" cannot be read: {why}", shown(name)));
        if file.is_dir() {
            return Err(told("it is a folder; name a file".to_owned()));
        }
        // Whoever opens a pipe into which nobody writes waits for ever.
        if file.metadata().is_ok_and(|held| !held.is_file()) {
            return Err(told("it is a pipe or a device; name a file".to_owned()));
        }
        let mut bytes = Vec::new();
        std::fs::File::open(file)
            .and_then(|file| file.take(MAX_PICTURE_BYTES + 1).read_to_end(&mut bytes))
            .map_err(|error| told(error.to_string()))?;
        let picture = read(&bytes).map_err(told)?;
        if let Ok(mut read) = self.read.lock() {
            read.insert(file.to_owned(), picture.clone());
        }
        Ok(picture)
    }
}

#[cfg(feature = "png")]
fn read(bytes: &[u8]) -> Result<Picture, String> {
    Picture::read(bytes).map_err(|error| error.to_string())
}

#[cfg(not(feature = "png"))]
fn read(_: &[u8]) -> Result<Picture, String> {
    Err("that needs the feature `png` of chordane-score".to_owned())
}

fn shown(name: &str) -> String {
    shortened(name, 80)
}

/// The names of a folder's own files, for a hint; the first thousand.
fn files_of(folder: &Path) -> Vec<String> {
    let entries = std::fs::read_dir(folder).into_iter().flatten().flatten().take(1000);
    entries.filter_map(|entry| entry.file_name().into_string().ok()).collect()
}
