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
        4.0,
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
        2.0,
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
