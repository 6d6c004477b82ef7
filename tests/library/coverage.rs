//! Pictures made the slow and obvious way. The checks of the fuzzer (`fuzz/`) use them too.

use chordane::prelude::*;
use chordane::sheet::Node;

/// The share of a pixel that a path of straight sides encloses: counted over a grid of spots.
pub(crate) fn counted_coverage(path: &Path, x: u32, y: u32, spots: u32) -> f64 {
    let share = |k: u32| (f64::from(k) + 0.5) / f64::from(spots);
    let grid = (0..spots).flat_map(|j| (0..spots).map(move |i| (i, j)));
    let hits =
        grid.filter(|(i, j)| path.inside((f64::from(x) + share(*i), f64::from(y) + share(*j)))).count();
    hits as f64 / f64::from(spots * spots)
}

/// The share of each pixel that the filler covers, in steps of 1/255.
pub(crate) fn drawn_coverage(item: impl Into<Node>, size: u32) -> Vec<f64> {
    let picture = sheet(f64::from(size), f64::from(size)).add(item).pixels().expect("the sheet is sound");
    picture.as_slice().iter().map(|pixel| f64::from(pixel[3]) / 255.0).collect()
}
