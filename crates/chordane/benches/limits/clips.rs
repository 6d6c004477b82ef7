//! The pairs of clips: drawing their frames, and writing them.

use std::hint::black_box;

use chordane::raster::Pixels;
use chordane::sheet::WriteOptions;
use chordane::write::{Clip, ClipOptions, Format, Palette};
use chordane_score::{Limits, Runner, Settings};
use rayon::prelude::*;

use crate::{Outcome, compare};

const DIPPING_KITE: &str = include_str!("../../../../demo/dipping-kite.chord");

/// The clips of the demo.
const CLIPS: &[&str] = &[
    DIPPING_KITE,
    include_str!("../../../../demo/line-drawing-itself.chord"),
    include_str!("../../../../demo/opening-banner.chord"),
    include_str!("../../../../demo/spinning-ring.chord"),
    include_str!("../../../../demo/coarse-flight.chord"),
    include_str!("../../../../demo/windy-flight.chord"),
];

/// One frame of so many, at a size or the sheet's own.
fn frame(runner: &Runner<'_>, number: usize, of: usize, size: Option<(u32, u32)>) -> Pixels {
    let sheet = runner.run(&Settings::new().frame(number, of)).into_sheet().unwrap();
    let options = size.map_or(WriteOptions::default(), |(w, h)| WriteOptions::sized(w, h));
    sheet.pixels_with(&options).unwrap()
}

fn runner(source: &str) -> Runner<'static> {
    Runner::read("clip.chord", source, Limits::default()).unwrap()
}

/// 120 frames of a demo clip as PNG files on two threads, against half of the time that they take on one.
pub(crate) fn frames() -> Outcome {
    let runner = runner(DIPPING_KITE);
    let all = || {
        let bytes = |k: usize| frame(&runner, k, 120, Some((1280, 720))).png().unwrap().len();
        (0..120_usize).into_par_iter().with_max_len(1).map(bytes).sum::<usize>()
    };
    let pool = |threads| rayon::ThreadPoolBuilder::new().num_threads(threads).build().unwrap();
    let (one, two) = (pool(1), pool(2));
    let mut outcome = compare(
        "frames",
        1.15,
        5,
        || {
            black_box(two.install(all));
        },
        || {
            black_box(one.install(all));
        },
    );
    outcome.yardstick *= 0.5;
    outcome
}

/// A GIF file of frames, against PNG files of the same.
pub(crate) fn gif() -> Outcome {
    let runner = runner(DIPPING_KITE);
    let frames: Vec<Pixels> = (0..24).map(|k| frame(&runner, k, 24, Some((1280, 720)))).collect();
    let palette = Palette::of(frames.iter().step_by(4));
    compare(
        "gif",
        1.5,
        7,
        || {
            let options = ClipOptions { palette: Some(palette.clone()), ..ClipOptions::new(24, 1.0) };
            let mut bytes = Vec::new();
            let mut clip = Clip::begin(&mut bytes, Format::Gif, (1280, 720), options).unwrap();
            frames.iter().for_each(|frame| clip.push(frame).unwrap());
            clip.end().unwrap();
            black_box(bytes);
        },
        || {
            let bytes: usize = frames.iter().map(|frame| frame.png().unwrap().len()).sum();
            black_box(bytes);
        },
    )
}

/// The bytes of the demo's clips as animated PNG files, against those of a PNG file for each frame.
pub(crate) fn apng() -> Outcome {
    let (mut ours, mut yardstick) = (0, 0);
    for source in CLIPS {
        let runner = runner(source);
        let frames: Vec<Pixels> = (0..60).into_par_iter().map(|k| frame(&runner, k, 60, None)).collect();
        let size = (frames[0].width(), frames[0].height());
        let mut bytes = Vec::new();
        let mut clip = Clip::begin(&mut bytes, Format::Apng, size, ClipOptions::new(60, 3.0)).unwrap();
        frames.iter().for_each(|frame| clip.push(frame).unwrap());
        clip.end().unwrap();
        ours += bytes.len();
        yardstick += frames.iter().map(|frame| frame.png().unwrap().len()).sum::<usize>();
    }
    let kilobytes = |bytes: usize| bytes as f64 / 1e3;
    Outcome { name: "apng", ours: kilobytes(ours), yardstick: kilobytes(yardstick), unit: "kB", bar: 0.6 }
}
