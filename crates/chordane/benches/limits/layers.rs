//! The pairs of layers and effects.

use std::hint::black_box;

use chordane::prelude::*;

use crate::inputs::blob;
use crate::{Outcome, compare};

const SIDE: u32 = 2048;

/// A blur of radius 20 of a whole sheet, drawing and all, against copying the pixels of the layer six times: four numbers each.
pub(crate) fn blur() -> Outcome {
    let side = f64::from(SIDE);
    let sheet = sheet(side, side).add(blob(side).fill("#c8553d").blurred(20.0));
    let mut picture = Pixels::new(SIDE, SIDE).unwrap();
    let mut buffers = [0, 1].map(|_| vec![[0.5_f32; 4]; (SIDE * SIDE) as usize]);
    compare(
        "blur",
        2.5,
        9,
        || picture.draw(black_box(&sheet)).unwrap(),
        || {
            let [from, to] = &mut buffers;
            for _ in 0..3 {
                black_box(&mut *to).copy_from_slice(black_box(from));
                black_box(&mut *from).copy_from_slice(black_box(to));
            }
        },
    )
}

/// Twenty translucent groups that each cover the sheet, against laying twenty such buffers over the picture's bytes in a bare loop.
pub(crate) fn layers() -> Outcome {
    let side = f64::from(SIDE);
    let cover = |i: i32| {
        let cloth = rectangle((0.0, 0.0), side, side).fill(hsl(deg(f64::from(i * 18)), 60.0, 50.0));
        group().add(cloth).opacity(0.5)
    };
    let sheet = sheet(side, side).ground("white").add_all((0..20).map(cover));
    let mut picture = Pixels::new(SIDE, SIDE).unwrap();
    let layer = vec![[0.4_f32, 0.2, 0.1, 1.0]; (SIDE * SIDE) as usize];
    let mut below = Pixels::new(SIDE, SIDE).unwrap();
    below.as_mut_slice().fill([255; 4]);
    compare(
        "layers",
        0.6,
        9,
        || picture.draw(black_box(&sheet)).unwrap(),
        || {
            for _ in 0..20 {
                for (pixel, above) in below.as_mut_slice().iter_mut().zip(black_box(&layer)) {
                    let rest = 1.0 - above[3] * 0.5;
                    let mix = |i: usize| (f32::from(pixel[i]) * rest + above[i] * 127.5 + 0.5) as u8;
                    *pixel = [mix(0), mix(1), mix(2), 255];
                }
            }
        },
    )
}

/// A picture as a PNG file, against packing the same rows, filtered beforehand, with the same deflate crate at the same level.
pub(crate) fn png() -> Outcome {
    use std::io::Write;
    let side = f64::from(SIDE);
    let glow =
        radial_gradient((side * 0.5, side * 0.5), side * 0.4).colours(["#ffe9a8", "#c8553d", "#20303c"]);
    let sheet = sheet(side, side).ground("#f4efe6").add(blob(side).fill(glow).stroke("#20303c", 9.0));
    let picture = sheet.pixels().unwrap();
    let row = SIDE as usize * 4;
    let mut filtered = Vec::new();
    for (y, line) in picture.bytes().chunks(row).enumerate() {
        filtered.push(2);
        let above = y.checked_sub(1).and_then(|above| picture.bytes().get(above * row..(above + 1) * row));
        let up = |x: usize| above.map_or(0, |above| above[x]);
        filtered.extend(line.iter().enumerate().map(|(x, byte)| byte.wrapping_sub(up(x))));
    }
    compare(
        "png",
        0.7,
        9,
        || {
            black_box(black_box(&picture).png().unwrap());
        },
        || {
            let mut packer = flate2::write::ZlibEncoder::new(Vec::new(), flate2::Compression::default());
            packer.write_all(black_box(&filtered)).unwrap();
            black_box(packer.finish().unwrap());
        },
    )
}
