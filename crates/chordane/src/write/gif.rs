//! GIF files.

use std::borrow::Cow;
use std::io;

use gif::{DisposalMethod, Encoder, Frame, Repeat};

use super::clip::AnyClip;
use super::frames::{ClipOptions, ClipWriter, Out, changed};
use super::palette::{MAX_COLOURS, Matcher, Palette};
use crate::raster::Pixels;

/// The number that stands for what is transparent.
const TRANSPARENT_INDEX: u8 = MAX_COLOURS as u8;

/// Writes each frame when the next one is known: what has to be cleared before it is cleared by the one before it.
pub(super) struct GifWriter<'w> {
    encoder: Encoder<Out<'w>>,
    size: (u16, u16),
    options: ClipOptions,
    /// The colours of all frames, where they have them in common.
    shared: Option<Matcher>,
    number: usize,
    /// The frame that is not written yet.
    waiting: Option<Waiting>,
    /// What is to be seen when the waiting frame begins; nothing after it was cleared.
    before: Option<Vec<u8>>,
}

struct Waiting {
    numbers: Vec<u8>,
    /// Its own colours, where it has some.
    palette: Option<Palette>,
}

/// Begins a file.
pub(super) fn begin(out: Out<'_>, size: (u32, u32), options: ClipOptions) -> io::Result<AnyClip<'_>> {
    let side = |side: u32| {
        u16::try_from(side).map_err(|_| {
            let what = format!("a GIF file has at most 65535 pixels a side, not {side}");
            io::Error::new(io::ErrorKind::InvalidInput, what)
        })
    };
    let (width, height) = (side(size.0)?, side(size.1)?);
    let shared = options.palette.clone().map(Matcher::new);
    let table = shared.as_ref().map_or(Vec::new(), |shared| table(shared.palette()));
    let mut encoder = Encoder::new(out, width, height, &table).map_err(told)?;
    encoder.set_repeat(Repeat::Infinite).map_err(told)?;
    let (size, number, waiting, before) = ((width, height), 0, None, None);
    Ok(Box::new(GifWriter { encoder, size, options, shared, number, waiting, before }))
}

impl<'w> GifWriter<'w> {
    /// Writes the waiting frame, before one that clears some of it or not.
    fn write(&mut self, clears: bool) -> io::Result<()> {
        let Some(waiting) = self.waiting.take() else { return Ok(()) };
        let (width, height) = (usize::from(self.size.0), usize::from(self.size.1));
        let alike = self.before.as_ref().filter(|_| self.shared.is_some());
        let whole = [0, 0, width, height];
        let [left, top, right, bottom] = match alike {
            Some(before) if !clears => changed(before, &waiting.numbers, width).unwrap_or([0, 0, 1, 1]),
            _ => whole,
        };
        let rows = |all: &[u8]| -> Vec<u8> {
            let rows = all.chunks(width.max(1)).take(bottom).skip(top);
            rows.flat_map(|row| row.get(left..right).unwrap_or_default()).copied().collect()
        };
        let mut buffer = rows(&waiting.numbers);
        if let Some(before) = alike {
            let old = rows(before);
            buffer
                .iter_mut()
                .zip(old)
                .filter(|(new, old)| **new == *old)
                .for_each(|(new, _)| *new = TRANSPARENT_INDEX);
        }
        // Hundredths of a second; what shows less than two is shown slowly by browsers.
        let frame = Frame {
            delay: self.options.delay(self.number, 100.0),
            dispose: if clears { DisposalMethod::Background } else { DisposalMethod::Keep },
            transparent: Some(TRANSPARENT_INDEX),
            left: left as u16,
            top: top as u16,
            width: (right - left) as u16,
            height: (bottom - top) as u16,
            palette: waiting.palette.as_ref().map(table),
            buffer: Cow::Owned(buffer),
            ..Frame::default()
        };
        self.encoder.write_frame(&frame).map_err(told)?;
        self.number += 1;
        self.before = if clears { None } else { Some(waiting.numbers) };
        Ok(())
    }
}

impl ClipWriter for GifWriter<'_> {
    fn push(&mut self, frame: &Pixels) -> io::Result<()> {
        let dither = self.options.dither;
        let next = match &mut self.shared {
            Some(shared) => {
                Waiting { numbers: shared.numbers(frame, dither, TRANSPARENT_INDEX), palette: None }
            }
            None => {
                let mut own = Matcher::new(Palette::of([frame]));
                Waiting {
                    numbers: own.numbers(frame, dither, TRANSPARENT_INDEX),
                    palette: Some(own.palette().clone()),
                }
            }
        };
        let shows = |before: &Waiting| {
            before
                .numbers
                .iter()
                .zip(&next.numbers)
                .any(|(old, new)| *old != TRANSPARENT_INDEX && *new == TRANSPARENT_INDEX)
        };
        let clears = self.waiting.as_ref().is_some_and(shows);
        self.write(clears)?;
        self.waiting = Some(next);
        Ok(())
    }

    fn end(&mut self) -> io::Result<()> {
        self.write(false)
    }
}

/// The colours of a palette as a GIF file has them: as many as its numbers can name.
fn table(palette: &Palette) -> Vec<u8> {
    let mut table = palette.colours().as_flattened().to_vec();
    table.resize((MAX_COLOURS + 1) * 3, 0);
    table
}

fn told(error: gif::EncodingError) -> io::Error {
    match error {
        gif::EncodingError::Io(error) => error,
        other => io::Error::other(other),
    }
}
