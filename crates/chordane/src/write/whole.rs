//! Files, written whole or not at all.

use std::collections::BTreeSet;
use std::fs::{File, OpenOptions};
use std::io::{self, Write};
use std::path::{Path as FilePath, PathBuf};
use std::sync::atomic::{AtomicUsize, Ordering};
use std::sync::{Mutex, PoisonError};

/// Writes a file whole or not at all: beside its place under another name, then moved there. A device, a pipe or
/// the like, which cannot be replaced, is written to directly. What another program was killed over, in the same folder,
/// is removed.
///
/// # Errors
///
/// What the system reports; the folder then holds what it held before.
///
/// ```
/// use chordane::write::write_whole;
/// let file = std::env::temp_dir().join("skerry-note.txt");
/// write_whole(&file, b"hem first, then the vents")?;
/// assert_eq!(std::fs::read(&file)?, b"hem first, then the vents");
/// # std::fs::remove_file(&file)?;
/// # Ok::<(), std::io::Error>(())
/// ```
pub fn write_whole(file: &FilePath, bytes: &[u8]) -> io::Result<()> {
    let mut out = WholeFile::create(file)?;
    out.write_all(bytes)?;
    out.finish()
}

/// A file that is being written under another name, and takes its place when it is finished; see [`write_whole`]. Dropped before
/// that, it leaves nothing behind.
///
/// ```
/// use std::io::Write;
/// use chordane::write::WholeFile;
/// let file = std::env::temp_dir().join("skerry-list.txt");
/// let mut out = WholeFile::create(&file)?;
/// writeln!(out, "hem")?;
/// assert!(!file.exists());
/// out.finish()?;
/// assert_eq!(std::fs::read(&file)?, b"hem\n");
/// # std::fs::remove_file(&file)?;
/// # Ok::<(), std::io::Error>(())
/// ```
#[derive(Debug)]
pub struct WholeFile {
    out: File,
    /// Where it is written, and where it goes; none for a device.
    part: Option<(PathBuf, PathBuf)>,
}

impl WholeFile {
    /// Begins a file.
    ///
    /// # Errors
    ///
    /// What the system reports.
    pub fn create(file: &FilePath) -> io::Result<Self> {
        let special = file.metadata().is_ok_and(|there| !there.is_file() && !there.is_dir());
        if special {
            return Ok(Self { out: OpenOptions::new().write(true).open(file)?, part: None });
        }
        // A link is followed, so that what it points to is replaced and the link stays.
        let place = if file.is_symlink() { file.canonicalize()? } else { file.to_owned() };
        swept(&place);
        let (out, part) = part_beside(&place)?;
        Ok(Self { out, part: Some((part, place)) })
    }

    /// Puts the file in its place.
    ///
    /// # Errors
    ///
    /// What the system reports; the place then holds what it held before.
    pub fn finish(self) -> io::Result<()> {
        self.finish_if(|| true).map(drop)
    }

    /// Moves the file into place if `holds` returns true once the file is fully written. Returns whether it was moved.
    ///
    /// # Errors
    ///
    /// What the system reports; the place then holds what it held before.
    ///
    /// ```
    /// use std::io::Write;
    /// use chordane::write::WholeFile;
    /// let file = std::env::temp_dir().join("skerry-wish.txt");
    /// let mut out = WholeFile::create(&file)?;
    /// writeln!(out, "hem")?;
    /// assert!(!out.finish_if(|| false)?);
    /// assert!(!file.exists());
    /// # Ok::<(), std::io::Error>(())
    /// ```
    pub fn finish_if(mut self, holds: impl FnOnce() -> bool) -> io::Result<bool> {
        self.out.flush()?;
        let Some((part, place)) = &self.part else { return Ok(true) };
        self.out.sync_all()?;
        if !holds() {
            return Ok(false);
        }
        std::fs::rename(part, place)?;
        self.part = None;
        Ok(true)
    }
}

impl Write for WholeFile {
    fn write(&mut self, bytes: &[u8]) -> io::Result<usize> {
        self.out.write(bytes)
    }

    fn flush(&mut self) -> io::Result<()> {
        self.out.flush()
    }
}

impl Drop for WholeFile {
    fn drop(&mut self) {
        if let Some((part, _)) = &self.part {
            // What went wrong first is what counts.
            let _ = std::fs::remove_file(part);
        }
    }
}

/// How often another name is tried for the file that is moved into place.
const MAX_NAME_ATTEMPTS: usize = 1000;

const TEMP_PREFIX: &str = ".chordane-";
const TEMP_SUFFIX: &str = ".part";

/// A new file beside a place, with the permissions of the file there, or those of any new file. It is locked as long as it is
/// open, so that others know that it is being written.
fn part_beside(place: &FilePath) -> io::Result<(File, PathBuf)> {
    static COUNT: AtomicUsize = AtomicUsize::new(0);
    let mut options = OpenOptions::new();
    options.write(true).create_new(true);
    let old = place.metadata().ok().map(|old| old.permissions());
    for _ in 0..MAX_NAME_ATTEMPTS {
        let number = COUNT.fetch_add(1, Ordering::Relaxed);
        let name = format!("{TEMP_PREFIX}{}-{number}{TEMP_SUFFIX}", std::process::id());
        let part = place.with_file_name(name);
        match options.open(&part) {
            Ok(file) => {
                // Where files cannot be locked, none is swept either. Swept before it was locked, it is made anew.
                let _ = file.lock();
                if !part.exists() {
                    continue;
                }
                if let Some(old) = old {
                    file.set_permissions(old).inspect_err(|_| drop(std::fs::remove_file(&part)))?;
                }
                return Ok((file, part));
            }
            Err(error) if error.kind() == io::ErrorKind::AlreadyExists => {}
            Err(error) => return Err(error),
        }
    }
    Err(io::Error::other("the folder holds too many files that were never finished"))
}

/// Whether a name is one of those that [`part_beside`] gives: two numbers, and nothing that a person would choose.
fn is_part(name: &str) -> bool {
    let numbers = name.strip_prefix(TEMP_PREFIX).and_then(|rest| rest.strip_suffix(TEMP_SUFFIX));
    let is_number = |text: &str| !text.is_empty() && text.bytes().all(|byte| byte.is_ascii_digit());
    numbers
        .and_then(|numbers| numbers.split_once('-'))
        .is_some_and(|(run, count)| is_number(run) && is_number(count))
}

/// Removes what runs that were killed have left in the folder of a place; once for each folder, since looking through one takes
/// time.
fn swept(place: &FilePath) {
    static DONE: Mutex<BTreeSet<PathBuf>> = Mutex::new(BTreeSet::new());
    let folder = match place.parent() {
        Some(folder) if !folder.as_os_str().is_empty() => folder,
        _ => FilePath::new("."),
    };
    if !DONE.lock().unwrap_or_else(PoisonError::into_inner).insert(folder.to_owned()) {
        return;
    }
    let Ok(entries) = std::fs::read_dir(folder) else { return };
    for entry in entries.flatten() {
        // Opening a pipe would wait for a writer.
        if !entry.file_name().to_str().is_some_and(is_part)
            || !entry.file_type().is_ok_and(|kind| kind.is_file())
        {
            continue;
        }
        // Whoever is writing it holds its lock.
        let left = OpenOptions::new().write(true).open(entry.path());
        if left.is_ok_and(|left| left.try_lock().is_ok()) {
            let _ = std::fs::remove_file(entry.path());
        }
    }
}
