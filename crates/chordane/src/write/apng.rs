//! PNG files with more than one picture.

use std::io;

use png::{BlendOp, DisposeOp};

use super::clip::AnyClip;
use super::frames::{ClipOptions, ClipWriter, Out, changed};
use super::png::{described, filter_of, packed_size};
use crate::raster::Pixels;

/// Writes the first frame whole, and of each later one the least rectangle in which it differs from the one before, with or without the pixels in
/// there that did not change.
pub(super) struct ApngWriter<'w> {
    /// Until the first frame is there, whose metadata the file gets.
    out: Option<Out<'w>>,
    writer: Option<png::Writer<Out<'w>>>,
    size: (u32, u32),
    options: ClipOptions,
    number: usize,
    before: Vec<[u8; 4]>,
}

/// Begins a file.
pub(super) fn begin(out: Out<'_>, size: (u32, u32), options: ClipOptions) -> io::Result<AnyClip<'_>> {
    let (writer, number, before) = (None, 0, Vec::new());
    Ok(Box::new(ApngWriter { out: Some(out), writer, size, options, number, before }))
}

impl<'w> ApngWriter<'w> {
    fn first(&mut self, out: Out<'w>, frame: &Pixels) -> io::Result<()> {
        let mut encoder = png::Encoder::new(out, self.size.0, self.size.1);
        described(&mut encoder, frame)?;
        encoder.set_animated(self.options.frames as u32, 0).map_err(io::Error::from)?;
        encoder.set_frame_delay(self.options.delay(0, 1000.0), 1000).map_err(io::Error::from)?;
        encoder.set_dispose_op(DisposeOp::None).map_err(io::Error::from)?;
        encoder.set_blend_op(BlendOp::Source).map_err(io::Error::from)?;
        let mut writer = encoder.write_header().map_err(io::Error::from)?;
        writer.write_image_data(frame.bytes()).map_err(io::Error::from)?;
        self.writer = Some(writer);
        Ok(())
    }

    fn next(&mut self, pixels: &[[u8; 4]]) -> io::Result<()> {
        let Some(writer) = &mut self.writer else { return Ok(()) };
        let width = self.size.0 as usize;
        // A frame that is as the one before is a pixel of it.
        let [left, top, right, bottom] = changed(&self.before, pixels, width).unwrap_or([0, 0, 1, 1]);
        let cut = |all: &[[u8; 4]]| -> Vec<[u8; 4]> {
            let rows = all.chunks(width.max(1)).take(bottom).skip(top);
            rows.flat_map(|row| row.get(left..right).unwrap_or_default()).copied().collect()
        };
        let (mut new, old) = (cut(pixels), cut(&self.before));
        let filter = filter_of(&new, right - left);
        // What did not change can be left out where what did is opaque: smaller or not, as it comes.
        let mut over = false;
        if new.iter().zip(&old).all(|(new, old)| new == old || new[3] == 255) {
            let changes = |(new, old): (&[u8; 4], &[u8; 4])| if new == old { [0; 4] } else { *new };
            let less: Vec<[u8; 4]> = new.iter().zip(&old).map(changes).collect();
            let size = |pixels: &[[u8; 4]]| packed_size(pixels, right - left, filter);
            if size(&less)? < size(&new)? {
                (new, over) = (less, true);
            }
        }
        let told = io::Error::from;
        writer.reset_frame_position().map_err(told)?;
        writer.set_frame_dimension((right - left) as u32, (bottom - top) as u32).map_err(told)?;
        writer.set_frame_position(left as u32, top as u32).map_err(told)?;
        writer.set_frame_delay(self.options.delay(self.number, 1000.0), 1000).map_err(told)?;
        writer.set_blend_op(if over { BlendOp::Over } else { BlendOp::Source }).map_err(told)?;
        writer.write_image_data(new.as_flattened()).map_err(told)
    }
}

impl ClipWriter for ApngWriter<'_> {
    fn push(&mut self, frame: &Pixels) -> io::Result<()> {
        match self.out.take() {
            Some(out) => self.first(out, frame)?,
            None => self.next(frame.as_slice())?,
        }
        self.before.clear();
        self.before.extend_from_slice(frame.as_slice());
        self.number += 1;
        Ok(())
    }

    fn end(&mut self) -> io::Result<()> {
        self.writer.take().map_or(Ok(()), |writer| writer.finish().map_err(io::Error::from))
    }
}
