//! Files, written whole or not at all.

use std::fmt;
use std::io::{self, Write};
use std::path::{Path as FilePath, PathBuf};

use super::{DrawError, PixelOptions, SvgOptions};
use crate::sheet::Sheet;

/// A kind of file that a sheet can be saved as.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
#[non_exhaustive]
pub enum Format {
    /// Vector shapes as text, by the SVG 2 recommendation.
    Svg,
    /// Pixels without loss, by the PNG recommendation.
    Png,
}

impl Format {
    /// The formats there are.
    pub const ALL: &'static [Self] = &[Self::Svg, Self::Png];

    /// The ending of such a file's name, without the point.
    #[must_use]
    pub fn ending(self) -> &'static str {
        match self {
            Self::Svg => "svg",
            Self::Png => "png",
        }
    }

    /// The format of an ending, in small or large letters.
    #[must_use]
    pub fn of_ending(ending: &str) -> Option<Self> {
        Self::ALL.iter().copied().find(|format| format.ending().eq_ignore_ascii_case(ending))
    }

    /// The format of a file's name, by its ending.
    #[must_use]
    pub fn of_file(file: &FilePath) -> Option<Self> {
        file.extension().and_then(|ending| ending.to_str()).and_then(Self::of_ending)
    }
}

/// Why a sheet was not saved. No file was left behind, and none that was there before is lost.
#[derive(Debug)]
#[non_exhaustive]
pub enum SaveError {
    /// The name's ending is of no known format.
    Ending {
        /// The file's name.
        file: PathBuf,
    },
    /// The sheet could not be drawn.
    Draw(DrawError),
    /// The file could not be written.
    Write {
        /// The file's name.
        file: PathBuf,
        /// What the system reported.
        source: io::Error,
    },
}

impl fmt::Display for SaveError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Ending { file } => {
                write!(f, "{}: the ending says no format; use .svg or .png", file.display())
            }
            Self::Draw(error) => error.fmt(f),
            Self::Write { file, source } => write!(f, "{}: {source}", file.display()),
        }
    }
}

impl std::error::Error for SaveError {
    fn source(&self) -> Option<&(dyn std::error::Error + 'static)> {
        match self {
            Self::Ending { .. } => None,
            Self::Draw(error) => Some(error),
            Self::Write { source, .. } => Some(source),
        }
    }
}

impl From<DrawError> for SaveError {
    fn from(error: DrawError) -> Self {
        Self::Draw(error)
    }
}

impl Sheet {
    /// Saves the sheet; the ending chooses the format: `.svg` or `.png`.
    ///
    /// The file is written beside its place under another name and then moved there: whoever looks sees the old
    /// file or the whole new one.
    ///
    /// # Errors
    ///
    /// An ending of no format, a fault on the sheet, or what the system reports.
    pub fn save(&self, file: impl AsRef<FilePath>) -> Result<(), SaveError> {
        let file = file.as_ref();
        let format = Format::of_file(file).ok_or_else(|| SaveError::Ending { file: file.to_owned() })?;
        let bytes = match format {
            Format::Svg => self.svg_with(&SvgOptions::default()).map_err(DrawError::from)?.into_bytes(),
            Format::Png => self.pixels_with(&PixelOptions::default())?.png(),
        };
        write_whole(file, &bytes).map_err(|source| SaveError::Write { file: file.to_owned(), source })
    }
}

/// Writes a file whole or not at all: beside its place under another name, then moved there. A device, a pipe or
/// the like, which cannot be replaced, is written to directly.
///
/// # Errors
///
/// What the system reports; the folder then holds what it held before.
pub fn write_whole(file: &FilePath, bytes: &[u8]) -> io::Result<()> {
    let special = file.metadata().is_ok_and(|there| !there.is_file() && !there.is_dir());
    if special {
        let mut out = std::fs::OpenOptions::new().write(true).open(file)?;
        out.write_all(bytes)?;
        return out.flush();
    }
    // A link is followed, so that what it points to is replaced and the link stays.
    let place = if file.is_symlink() { file.canonicalize()? } else { file.to_owned() };
    let folder = place.parent().filter(|folder| !folder.as_os_str().is_empty());
    let mut builder = tempfile::Builder::new();
    builder.prefix(".chordane-").suffix(".part");
    #[cfg(unix)]
    {
        use std::os::unix::fs::PermissionsExt;
        // As a plain new file would have it, or as the old one has it; the system takes its mask off the former.
        let mode = place.metadata().map_or(0o666, |old| old.permissions().mode() & 0o777);
        builder.permissions(std::fs::Permissions::from_mode(mode));
    }
    let mut part = builder.tempfile_in(folder.unwrap_or(FilePath::new(".")))?;
    part.write_all(bytes)?;
    part.persist(&place).map(drop).map_err(|error| error.error)
}
