//! Tracks of the pointer as files.

use std::path::Path;

use chordane_score::PointerTrack;

use crate::failure::Failure;
use crate::input::read_file;

/// The track in a file.
pub(crate) fn read(file: &Path) -> Result<PointerTrack, Failure> {
    let bytes = read_file(file)?;
    PointerTrack::read_json_lines(&String::from_utf8_lossy(&bytes))
        .map_err(|mistake| Failure::in_file(&file.display(), &mistake))
}
