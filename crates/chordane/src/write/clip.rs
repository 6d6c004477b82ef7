//! Clips: frames in a row, written one after the other.

use std::fmt;
use std::io::{self, Write};

#[cfg(feature = "png")]
use super::apng::ApngWriter;
use super::frames::{ClipOptions, ClipWriter, Out};
#[cfg(feature = "gif")]
use super::gif::GifWriter;
use super::y4m::Y4mWriter;
use crate::raster::Pixels;

/// A kind of file that holds a clip.
///
/// ```
/// use chordane::write::ClipFormat;
/// assert_eq!(ClipFormat::of_ending("Y4M"), Some(ClipFormat::Y4m));
/// ```
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
#[non_exhaustive]
pub enum ClipFormat {
    /// A PNG file with more than one picture, by the PNG recommendation: without loss; only what changes is in it. With the feature `png`.
    #[cfg(feature = "png")]
    Apng,
    /// A GIF file: 255 colours at most in each picture, pixels opaque or not at all. With the feature `gif`.
    #[cfg(feature = "gif")]
    Gif,
    /// Plain video frames for any encoder: luminance and two colour differences for each pixel, by ITU-R BT.601. What is transparent lies on white.
    Y4m,
}

/// One format a line: its ending and what people call it.
const TABLE: &[(ClipFormat, &str, &str)] = &[
    #[cfg(feature = "png")]
    (ClipFormat::Apng, "apng", "animated PNG"),
    #[cfg(feature = "gif")]
    (ClipFormat::Gif, "gif", "GIF"),
    (ClipFormat::Y4m, "y4m", "Y4M"),
];

impl ClipFormat {
    /// The formats there are.
    pub fn all() -> impl Iterator<Item = Self> {
        TABLE.iter().map(|row| row.0)
    }

    /// The ending of such a file's name, without the point.
    #[must_use]
    pub fn ending(self) -> &'static str {
        TABLE.iter().find(|row| row.0 == self).map_or("", |row| row.1)
    }

    /// What people call it.
    #[must_use]
    pub fn name(self) -> &'static str {
        TABLE.iter().find(|row| row.0 == self).map_or("", |row| row.2)
    }

    /// The format of an ending, in small or large letters.
    #[must_use]
    pub fn of_ending(ending: &str) -> Option<Self> {
        Self::all().find(|format| format.ending().eq_ignore_ascii_case(ending))
    }
}

/// A clip that is being written. Only a few frames are held at a time, however long it is.
pub struct Clip<'w> {
    writer: Box<dyn ClipWriter + Send + 'w>,
    size: (u32, u32),
    left: usize,
}

impl fmt::Debug for Clip<'_> {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        out.debug_struct("Clip").field("size", &self.size).field("left", &self.left).finish_non_exhaustive()
    }
}

impl<'w> Clip<'w> {
    /// Begins a clip of a size in pixels.
    ///
    /// # Errors
    ///
    /// What the writer reports; and that the clip has no frame, takes no time, or is larger than its format can hold.
    pub fn begin(
        out: impl Write + Send + 'w,
        format: ClipFormat,
        size: (u32, u32),
        options: ClipOptions,
    ) -> io::Result<Self> {
        let wrong = |what: String| Err(io::Error::new(io::ErrorKind::InvalidInput, what));
        if options.frames == 0 || options.frames > u32::MAX as usize {
            return wrong(format!("a clip has 1 to {} frames, not {}", u32::MAX, options.frames));
        }
        if !(options.seconds > 0.0 && options.seconds.is_finite()) {
            return wrong(format!("a clip takes more than 0 seconds, not {}", options.seconds));
        }
        let left = options.frames;
        let out: Out<'w> = Box::new(out);
        let writer: Box<dyn ClipWriter + Send + 'w> = match format {
            #[cfg(feature = "png")]
            ClipFormat::Apng => Box::new(ApngWriter::begin(out, size, options)?),
            #[cfg(feature = "gif")]
            ClipFormat::Gif => Box::new(GifWriter::begin(out, size, options)?),
            ClipFormat::Y4m => Box::new(Y4mWriter::begin(out, size, &options)?),
        };
        Ok(Self { writer, size, left })
    }

    /// Writes the next frame.
    ///
    /// # Errors
    ///
    /// What the writer reports; and a frame of another size, or one too many.
    pub fn push(&mut self, frame: &Pixels) -> io::Result<()> {
        let wrong = |what: &str| Err(io::Error::new(io::ErrorKind::InvalidInput, what));
        if (frame.width(), frame.height()) != self.size {
            return wrong("a frame is not of the size of its clip");
        }
        if self.left == 0 {
            return wrong("the clip has all its frames already");
        }
        self.left -= 1;
        self.writer.push(frame)
    }

    /// Ends the clip.
    ///
    /// # Errors
    ///
    /// What the writer reports; and that frames are missing.
    pub fn end(mut self) -> io::Result<()> {
        if self.left > 0 {
            let what = format!("{} frames of the clip are missing", self.left);
            return Err(io::Error::new(io::ErrorKind::InvalidInput, what));
        }
        self.writer.end()
    }
}
