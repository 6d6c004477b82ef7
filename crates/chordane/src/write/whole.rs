//! Files, written whole or not at all.

use std::fs::{File, OpenOptions};
use std::io::{self, Write};
use std::path::{Path as FilePath, PathBuf};
use std::sync::atomic::{AtomicUsize, Ordering};

/// Writes a file whole or not at all: beside its place under another name, then moved there. A device, a pipe or
/// the like, which cannot be replaced, is written to directly.
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
    let special = file.metadata().is_ok_and(|there| !there.is_file() && !there.is_dir());
    if special {
        let mut out = OpenOptions::new().write(true).open(file)?;
        out.write_all(bytes)?;
        return out.flush();
    }
    // A link is followed, so that what it points to is replaced and the link stays.
    let place = if file.is_symlink() { file.canonicalize()? } else { file.to_owned() };
    let (mut out, part) = part_beside(&place)?;
    let moved =
        out.write_all(bytes).and_then(|()| out.sync_all()).and_then(|()| std::fs::rename(&part, &place));
    if moved.is_err() {
        // What went wrong first is what counts.
        let _ = std::fs::remove_file(&part);
    }
    moved
}

/// How often another name is tried for the file that is moved into place.
const TRIES: usize = 1000;

/// A new file beside a place, with the permissions of the file there, or those of any new file.
fn part_beside(place: &FilePath) -> io::Result<(File, PathBuf)> {
    static COUNT: AtomicUsize = AtomicUsize::new(0);
    let mut options = OpenOptions::new();
    options.write(true).create_new(true);
    let old = place.metadata().ok().map(|old| old.permissions());
    for _ in 0..TRIES {
        let number = COUNT.fetch_add(1, Ordering::Relaxed);
        let part = place.with_file_name(format!(".chordane-{}-{number}.part", std::process::id()));
        match options.open(&part) {
            Ok(file) => {
                if let Some(old) = old {
                    file.set_permissions(old)?;
                }
                return Ok((file, part));
            }
            Err(error) if error.kind() == io::ErrorKind::AlreadyExists => {}
            Err(error) => return Err(error),
        }
    }
    Err(io::Error::other("the folder is full of unfinished files named .chordane-*.part; remove them"))
}
