//! The table of formats, and saving in one of them.

use std::fmt;
use std::io;
use std::path::{Path as FilePath, PathBuf};

use super::write_whole;
use crate::ground::{Fault, nearest};
use crate::raster::DrawError;
use crate::sheet::{Sheet, WriteOptions};

/// A kind of file that a sheet can be saved as.
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!(Format::of_ending("SVG"), Some(Format::Svg));
/// assert_eq!(Format::Svg.name(), "SVG");
/// ```
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
#[non_exhaustive]
pub enum Format {
    /// Vector shapes as text, by the SVG 2 recommendation.
    Svg,
    /// Pixels without loss, by the PNG recommendation. With the feature `png`.
    #[cfg(feature = "png")]
    Png,
}

type Writer = fn(&Sheet, &WriteOptions) -> Result<Vec<u8>, DrawError>;

/// One format a line: its ending, what people call it, and what writes it.
const TABLE: &[(Format, &str, &str, Writer)] = &[
    (Format::Svg, "svg", "SVG", svg),
    #[cfg(feature = "png")]
    (Format::Png, "png", "PNG", png),
];

fn svg(sheet: &Sheet, options: &WriteOptions) -> Result<Vec<u8>, DrawError> {
    Ok(sheet.svg_with(options)?.into_bytes())
}

#[cfg(feature = "png")]
fn png(sheet: &Sheet, options: &WriteOptions) -> Result<Vec<u8>, DrawError> {
    let written = sheet.pixels_with(options)?.png();
    written.map_err(|error| DrawError::NotWritten { format: "PNG", message: error.to_string() })
}

impl Format {
    /// The formats there are.
    pub fn all() -> impl Iterator<Item = Self> {
        TABLE.iter().map(|row| row.0)
    }

    fn row(self) -> &'static (Self, &'static str, &'static str, Writer) {
        TABLE.iter().find(|row| row.0 == self).unwrap_or(&TABLE[0])
    }

    /// The ending of such a file's name, without the point.
    #[must_use]
    pub fn ending(self) -> &'static str {
        self.row().1
    }

    /// What people call it.
    #[must_use]
    pub fn name(self) -> &'static str {
        self.row().2
    }

    /// The format of an ending, in small or large letters.
    #[must_use]
    pub fn of_ending(ending: &str) -> Option<Self> {
        Self::all().find(|format| format.ending().eq_ignore_ascii_case(ending))
    }

    /// The format of a file's name, by its ending.
    #[must_use]
    pub fn of_file(file: &FilePath) -> Option<Self> {
        file.extension().and_then(|ending| ending.to_str()).and_then(Self::of_ending)
    }

    /// The endings there are, as a sentence has them: `.svg or .png`.
    #[must_use]
    pub fn endings() -> String {
        let all: Vec<String> = TABLE.iter().map(|row| format!(".{}", row.1)).collect();
        match all.split_last() {
            Some((last, rest)) if !rest.is_empty() => format!("{} or {last}", rest.join(", ")),
            _ => all.join(""),
        }
    }
}

/// Why a sheet was not saved. No file was left behind, and none that was there before is lost.
///
/// ```
/// use chordane::prelude::*;
/// let error = sheet(90.0, 60.0).save("sail.txt").unwrap_err();
/// assert!(error.to_string().contains("sail.txt"), "{error}");
/// ```
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
                let name = file.display();
                write!(
                    f,
                    "{name}: cannot tell the format from the file name; end it in {}",
                    Format::endings()
                )?;
                let ending = file.extension().and_then(|ending| ending.to_str()).unwrap_or_default();
                match nearest(ending, TABLE.iter().map(|row| row.1)) {
                    Some(near) => write!(f, " (did you mean .{near}?)"),
                    None => Ok(()),
                }
            }
            Self::Draw(error) => error.fmt(f),
            Self::Write { file, .. } => write!(f, "{} cannot be written", file.display()),
        }
    }
}

impl std::error::Error for SaveError {
    fn source(&self) -> Option<&(dyn std::error::Error + 'static)> {
        match self {
            // What could not be drawn speaks for itself: its text is this one's.
            Self::Ending { .. } | Self::Draw(_) => None,
            Self::Write { source, .. } => Some(source),
        }
    }
}

impl From<Fault> for SaveError {
    fn from(fault: Fault) -> Self {
        Self::Draw(fault.into())
    }
}

impl From<DrawError> for SaveError {
    fn from(error: DrawError) -> Self {
        Self::Draw(error)
    }
}

impl Sheet {
    /// The bytes of a file of a format.
    ///
    /// # Errors
    ///
    /// The first fault of what is drawn, or a picture beyond the limit.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// use chordane::raster::DrawError;
    /// let small = WriteOptions::sized(32, 24);
    /// let bytes = sheet(64.0, 48.0).ground("teal").written(Format::Png, &small)?;
    /// assert!(bytes.starts_with(b"\x89PNG"));
    /// # Ok::<(), DrawError>(())
    /// ```
    pub fn written(&self, format: Format, options: &WriteOptions) -> Result<Vec<u8>, DrawError> {
        (format.row().3)(self, options)
    }

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
        let bytes = self.written(format, &WriteOptions::default())?;
        write_whole(file, &bytes).map_err(|source| SaveError::Write { file: file.to_owned(), source })
    }
}
