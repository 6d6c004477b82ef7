//! What the writers of clips have in common: what a clip is, and what changes from frame to frame.

use std::io::{self, Write};

use crate::raster::Pixels;

/// What a clip is: how many frames it has, how long it takes, and, for GIF files, its colours.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::write::{Clip, Format, ClipOptions};
/// let (frames, mut bytes) = (8, Vec::new());
/// let mut clip = Clip::begin(&mut bytes, Format::Y4m, (16, 12), ClipOptions::new(frames, 2.0))?;
/// for k in 0..frames {
///     let phase = k as f64 / frames as f64;
///     let page = sheet(16.0, 12.0).add(circle((swing(phase, 3.0, 13.0), 6.0), 3.0).fill("teal"));
///     clip.push(&page.pixels().map_err(std::io::Error::other)?)?;
/// }
/// clip.end()?;
/// assert!(bytes.starts_with(b"YUV4MPEG2 W16 H12 F4:1 "));
/// # Ok::<(), std::io::Error>(())
/// ```
#[derive(Clone, Debug, PartialEq)]
pub struct ClipOptions {
    /// The number of frames, at least 1.
    pub frames: usize,
    /// The length of the clip, in seconds.
    pub seconds: f64,
    /// The colours of all frames of a GIF file; where they are not given, each frame has its own.
    #[cfg(feature = "gif")]
    pub palette: Option<super::Palette>,
    /// How colours that a GIF file does not have are made up from those that it has.
    #[cfg(feature = "gif")]
    pub dither: super::Dither,
}

impl ClipOptions {
    /// So many frames in so many seconds, going round for ever.
    #[must_use]
    pub fn new(frames: usize, seconds: f64) -> Self {
        Self {
            frames,
            seconds,
            #[cfg(feature = "gif")]
            palette: None,
            #[cfg(feature = "gif")]
            dither: super::Dither::default(),
        }
    }

    /// Returns the duration of a frame in units of 1/`parts` second. The durations are whole numbers that add up to the length of the clip.
    #[cfg(any(feature = "png", feature = "gif"))]
    pub(super) fn delay(&self, frame: usize, parts: f64) -> u16 {
        let until = |frame: usize| (frame as f64 * self.seconds * parts / self.frames.max(1) as f64).round();
        (until(frame + 1) - until(frame)).clamp(0.0, f64::from(u16::MAX)) as u16
    }
}

/// Where a clip goes. A trait object, so that its writers are compiled here, once and optimised.
pub(super) type Out<'w> = Box<dyn Write + Send + 'w>;

/// What writes the frames of one format.
pub(super) trait ClipWriter {
    fn push(&mut self, frame: &Pixels) -> io::Result<()>;

    fn end(&mut self) -> io::Result<()>;
}

/// The least rectangle of pixels in which two frames differ: left, top, right and bottom, the last two not included.
#[cfg(any(feature = "png", feature = "gif"))]
pub(super) fn changed<T: PartialEq>(before: &[T], after: &[T], width: usize) -> Option<[usize; 4]> {
    let mut found: Option<[usize; 4]> = None;
    let rows = before.chunks(width.max(1)).zip(after.chunks(width.max(1)));
    for (y, (a, b)) in rows.enumerate().filter(|(_, (a, b))| a != b) {
        let differs = |(a, b): (&T, &T)| a != b;
        let left = a.iter().zip(b).position(differs).unwrap_or(0);
        let right = a.iter().zip(b).rposition(differs).map_or(width, |at| at + 1);
        found =
            Some(found.map_or([left, y, right, y + 1], |[l, t, r, _]| [l.min(left), t, r.max(right), y + 1]));
    }
    found
}
