//! The table of formats, and saving in one of them.

use std::fmt;
use std::hash::{Hash, Hasher};
use std::io;
use std::path::{Path as FilePath, PathBuf};

#[cfg(feature = "png")]
use super::apng;
use super::clip::AnyClip;
use super::frames::{ClipOptions, Out};
#[cfg(feature = "gif")]
use super::gif;
use super::write_whole;
use super::y4m;
use crate::ground::{Fault, nearest};
use crate::raster::DrawError;
use crate::sheet::{Sheet, WriteOptions};

/// A kind of file that a sheet or a clip can be saved as.
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
    /// A clip: a PNG file with more than one picture, by the PNG recommendation: without loss; only what changes is in it. With the feature `png`.
    #[cfg(feature = "png")]
    Apng,
    /// A clip as a GIF file: 255 colours at most in each picture, pixels opaque or not at all. With the feature `gif`.
    #[cfg(feature = "gif")]
    Gif,
    /// A clip as plain video frames for any encoder: luminance and two colour differences for each pixel, by ITU-R BT.601. What is transparent
    /// lies on white.
    Y4m,
    /// A program's own format for stills.
    Own(&'static OwnFormat),
}

/// A program's own format for stills. [`Sheet::save_as`] writes its files atomically, like all others.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::raster::DrawError;
/// use chordane::write::OwnFormat;
/// /// The names of all items, one a line.
/// static NAMES: OwnFormat = OwnFormat { ending: "names", name: "list of names", write: names };
///
/// fn names(sheet: &Sheet, _: &WriteOptions) -> Result<Vec<u8>, DrawError> {
///     let scene = sheet.scene()?;
///     let all = scene.items().iter().filter_map(|placed| placed.item.name());
///     Ok(all.map(|name| format!("{name}\n")).collect::<String>().into_bytes())
/// }
///
/// let page = sheet(9.0, 6.0).add(circle((4.0, 3.0), 2.0).fill("teal").named("vent"));
/// assert_eq!(page.written(Format::Own(&NAMES), &WriteOptions::default())?, b"vent\n");
/// # Ok::<(), DrawError>(())
/// ```
#[derive(Debug)]
pub struct OwnFormat {
    /// The file extension, without the dot.
    pub ending: &'static str,
    /// The display name.
    pub name: &'static str,
    /// Returns the contents of a file.
    pub write: fn(&Sheet, &WriteOptions) -> Result<Vec<u8>, DrawError>,
}

/// Two formats are equal if they have the same extension and name.
impl PartialEq for OwnFormat {
    fn eq(&self, other: &Self) -> bool {
        (self.ending, self.name) == (other.ending, other.name)
    }
}

impl Eq for OwnFormat {}

impl Hash for OwnFormat {
    fn hash<H: Hasher>(&self, state: &mut H) {
        (self.ending, self.name).hash(state);
    }
}

/// A format: its ending, its name, and what writes it.
#[derive(Clone, Copy)]
struct Row {
    format: Format,
    ending: &'static str,
    name: &'static str,
    writer: Writer,
}

#[derive(Clone, Copy)]
enum Writer {
    Still(fn(&Sheet, &WriteOptions) -> Result<Vec<u8>, DrawError>),
    Clip(for<'w> fn(Out<'w>, (u32, u32), ClipOptions) -> io::Result<AnyClip<'w>>),
}

/// One format a line.
const TABLE: &[Row] = &[
    Row { format: Format::Svg, ending: "svg", name: "SVG", writer: Writer::Still(svg) },
    #[cfg(feature = "png")]
    Row { format: Format::Png, ending: "png", name: "PNG", writer: Writer::Still(png) },
    #[cfg(feature = "gif")]
    Row { format: Format::Gif, ending: "gif", name: "GIF", writer: Writer::Clip(gif::begin) },
    #[cfg(feature = "png")]
    Row { format: Format::Apng, ending: "apng", name: "animated PNG", writer: Writer::Clip(apng::begin) },
    Row { format: Format::Y4m, ending: "y4m", name: "Y4M", writer: Writer::Clip(y4m::begin) },
];

/// The extensions of formats that are not compiled in; each is also the name of its feature.
const LEFT_OUT: &[&str] = if cfg!(feature = "png") { &[] } else { &["png"] };

fn svg(sheet: &Sheet, options: &WriteOptions) -> Result<Vec<u8>, DrawError> {
    Ok(sheet.svg_with(options)?.into_bytes())
}

#[cfg(feature = "png")]
fn png(sheet: &Sheet, options: &WriteOptions) -> Result<Vec<u8>, DrawError> {
    let written = sheet.pixels_with(options)?.png();
    written.map_err(|error| DrawError::NotWritten { format: "PNG", message: error.to_string() })
}

impl Format {
    /// The formats of stills: those that [`Sheet::save`] writes.
    pub fn stills() -> impl Iterator<Item = Self> {
        TABLE.iter().filter(|row| matches!(row.writer, Writer::Still(_))).map(|row| row.format)
    }

    /// The formats of clips: those that a [`Clip`](super::Clip) is begun in.
    pub fn clips() -> impl Iterator<Item = Self> {
        TABLE.iter().filter(|row| matches!(row.writer, Writer::Clip(_))).map(|row| row.format)
    }

    /// Whether it is a format of clips.
    #[must_use]
    pub fn is_clip(self) -> bool {
        matches!(self.row().writer, Writer::Clip(_))
    }

    fn row(self) -> Row {
        if let Self::Own(&OwnFormat { ending, name, write }) = self {
            return Row { format: self, ending, name, writer: Writer::Still(write) };
        }
        TABLE.iter().find(|row| row.format == self).copied().unwrap_or(TABLE[0])
    }

    /// Begins a clip; a format of stills is an error.
    pub(super) fn begin(
        self,
        out: Out<'_>,
        size: (u32, u32),
        options: ClipOptions,
    ) -> io::Result<AnyClip<'_>> {
        match self.row().writer {
            Writer::Clip(begin) => begin(out, size, options),
            Writer::Still(_) => {
                let what = format!("a {} file holds one picture and no clip", self.name());
                Err(io::Error::new(io::ErrorKind::InvalidInput, what))
            }
        }
    }

    /// The ending of such a file's name, without the point.
    #[must_use]
    pub fn ending(self) -> &'static str {
        self.row().ending
    }

    /// What people call it.
    #[must_use]
    pub fn name(self) -> &'static str {
        self.row().name
    }

    /// The format of an ending, in small or large letters.
    #[must_use]
    pub fn of_ending(ending: &str) -> Option<Self> {
        TABLE.iter().find(|row| row.ending.eq_ignore_ascii_case(ending)).map(|row| row.format)
    }

    /// The format of a file's name, by its ending.
    #[must_use]
    pub fn of_file(file: &FilePath) -> Option<Self> {
        file.extension().and_then(|ending| ending.to_str()).and_then(Self::of_ending)
    }

    /// The endings of stills, as a sentence has them: `.svg or .png`.
    #[must_use]
    pub fn endings() -> String {
        let all: Vec<String> = Self::stills().map(|format| format!(".{}", format.ending())).collect();
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
                let ending = file.extension().and_then(|ending| ending.to_str()).unwrap_or_default();
                if let Some(feature) = LEFT_OUT.iter().find(|own| own.eq_ignore_ascii_case(ending)) {
                    return write!(f, "{name}: saving this format needs the feature `{feature}` of chordane");
                }
                write!(
                    f,
                    "{name}: cannot tell the format from the file name; end it in {}",
                    Format::endings()
                )?;
                match nearest(ending, Format::stills().map(Format::ending)) {
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
    /// The first fault of what is drawn, a picture beyond the limit, or a format of clips.
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
        match format.row().writer {
            Writer::Still(write) => write(self, options),
            Writer::Clip(_) => {
                let message = "it holds clips; see `Clip`".to_owned();
                Err(DrawError::NotWritten { format: format.name(), message })
            }
        }
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
        let format = Format::of_file(file).filter(|format| !format.is_clip());
        let format = format.ok_or_else(|| SaveError::Ending { file: file.to_owned() })?;
        self.save_as(file, format, &WriteOptions::default())
    }

    /// Saves the sheet in a given format, regardless of the file extension, with options such as a size in pixels.
    ///
    /// # Errors
    ///
    /// The errors of [`Sheet::written`], or an error from writing the file.
    pub fn save_as(
        &self,
        file: impl AsRef<FilePath>,
        format: Format,
        options: &WriteOptions,
    ) -> Result<(), SaveError> {
        let file = file.as_ref();
        let bytes = self.written(format, options)?;
        write_whole(file, &bytes).map_err(|source| SaveError::Write { file: file.to_owned(), source })
    }
}
