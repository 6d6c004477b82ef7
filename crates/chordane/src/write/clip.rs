//! Clips: frames in a row, written one after the other.

use std::fmt;
use std::io::{self, Write};

use super::Format;
use super::frames::{ClipOptions, ClipWriter};
use crate::raster::Pixels;

/// What writes a clip in some format.
pub(super) type AnyClip<'w> = Box<dyn ClipWriter + Send + 'w>;

/// A clip that is being written. Only a few frames are held at a time, however long it is.
pub struct Clip<'w> {
    writer: AnyClip<'w>,
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
    /// What the writer reports; and that the clip has no frame, takes no time, or is larger than its format can hold, or that this is a format of stills.
    pub fn begin(
        out: impl Write + Send + 'w,
        format: Format,
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
        let writer = format.begin(Box::new(out), size, options)?;
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
