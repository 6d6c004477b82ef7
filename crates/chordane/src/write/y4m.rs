//! Plain video frames, for any encoder to read.

use std::io::{self, Write};

use super::clip::AnyClip;
use super::frames::{ClipOptions, ClipWriter, Out};
use crate::raster::Pixels;

pub(super) struct Y4mWriter<'w> {
    out: Out<'w>,
    planes: Vec<u8>,
}

fn common_divisor(a: u64, b: u64) -> u64 {
    if b == 0 { a.max(1) } else { common_divisor(b, a % b) }
}

/// Luminance and the two colour differences of a pixel on white, by ITU-R BT.601 in eight bits.
fn planes([red, green, blue, alpha]: [u8; 4]) -> [u8; 3] {
    let share = f64::from(alpha) / 255.0;
    let [red, green, blue] = [red, green, blue].map(|level| f64::from(level) / 255.0 * share + 1.0 - share);
    let luminance = 0.299 * red + 0.587 * green + 0.114 * blue;
    let level = |value: f64| value.round().clamp(0.0, 255.0) as u8;
    [
        level(16.0 + 219.0 * luminance),
        level(128.0 + 224.0 * (blue - luminance) / 1.772),
        level(128.0 + 224.0 * (red - luminance) / 1.402),
    ]
}

/// Begins a file.
pub(super) fn begin(mut out: Out<'_>, size: (u32, u32), options: ClipOptions) -> io::Result<AnyClip<'_>> {
    // Frames a second as a fraction, with the seconds to the thousandth.
    let (mut over, mut under) =
        (options.frames as u64 * 1000, ((options.seconds * 1000.0).round() as u64).max(1));
    let common = common_divisor(over, under);
    (over, under) = (over / common, under / common);
    let (width, height) = size;
    writeln!(out, "YUV4MPEG2 W{width} H{height} F{over}:{under} Ip A1:1 C444 XCOLORRANGE=LIMITED")?;
    Ok(Box::new(Y4mWriter { out, planes: Vec::new() }))
}

impl ClipWriter for Y4mWriter<'_> {
    fn push(&mut self, frame: &Pixels) -> io::Result<()> {
        let pixels = frame.as_slice();
        let count = pixels.len();
        self.planes.clear();
        self.planes.resize(count * 3, 0);
        // Neighbours are mostly alike.
        let mut last = ([0; 4], planes([0; 4]));
        let (luminance, differences) = self.planes.split_at_mut(count);
        let (blues, reds) = differences.split_at_mut(count);
        for (((pixel, y), u), v) in pixels.iter().zip(luminance).zip(blues).zip(reds) {
            if *pixel != last.0 {
                last = (*pixel, planes(*pixel));
            }
            [*y, *u, *v] = last.1;
        }
        self.out.write_all(b"FRAME\n")?;
        self.out.write_all(&self.planes)
    }

    fn end(&mut self) -> io::Result<()> {
        self.out.flush()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_levels_are_those_of_the_recommendation() {
        assert_eq!(planes([0, 0, 0, 255]), [16, 128, 128]);
        assert_eq!(planes([255, 255, 255, 255]), [235, 128, 128]);
        assert_eq!(planes([255, 0, 0, 255]), [81, 90, 240]);
        assert_eq!(planes([0, 255, 0, 255]), [145, 54, 34]);
        assert_eq!(planes([0, 0, 255, 255]), [41, 240, 110]);
        assert_eq!(planes([9, 9, 9, 0]), [235, 128, 128]);
    }
}
