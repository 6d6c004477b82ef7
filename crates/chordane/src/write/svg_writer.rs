//! An SVG document as it grows, and what every element is written with.

use super::element::Sink;
use super::svg_paint::Definitions;
use super::svg_text::{Ids, escaped, plain};
use crate::ground::FaultSlot;
use crate::path::{Affine, Path};

/// A document that is being written.
pub(super) struct Writer {
    pub(super) out: Sink,
    pub(super) decimals: usize,
    pub(super) ids: Ids,
    pub(super) definitions: Definitions,
    /// Whether anything is blended with what is below it.
    pub(super) blends: bool,
    /// The first thing that cannot be written.
    pub(super) fault: FaultSlot,
}

impl Writer {
    /// Ends the tag that was begun, and its line.
    pub(super) fn open(&mut self) {
        self.out.open();
        self.out.line();
    }

    /// Closes an element, and ends the line.
    pub(super) fn close(&mut self, name: &str) {
        self.out.close(name);
        self.out.line();
    }

    /// Enlarged later, a path needs more decimals; reduced, it can do with fewer.
    pub(super) fn decimals_at(&self, scale: f64) -> usize {
        let more = if scale > 0.0 { scale.log10().ceil() } else { 0.0 };
        (self.decimals as f64 + more).clamp(0.0, 12.0) as usize
    }

    /// The data of a path, with the decimals that a scale asks for.
    pub(super) fn data(&mut self, path: &Path, scale: f64) {
        let decimals = self.decimals_at(scale);
        self.out.data(path, decimals);
    }

    pub(super) fn name(&mut self, name: Option<&str>) {
        if let Some(name) = name {
            let id = self.ids.named(name);
            self.out.attribute("id", &escaped(&id));
        }
    }

    pub(super) fn transform(&mut self, by: &Affine) {
        let [a, b, c, d, e, f] = by.to_cols_array();
        if [a, b, c, d] != [1.0, 0.0, 0.0, 1.0] {
            self.out.matrix("transform", by);
        } else if [e, f] != [0.0, 0.0] {
            self.out.attribute("transform", &format!("translate({} {})", plain(e), plain(f)));
        }
    }
}
