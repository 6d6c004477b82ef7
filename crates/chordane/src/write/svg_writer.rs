//! The text of an SVG document as it grows, and what every element is written with.

use std::fmt::Write;

use super::svg_paint::Definitions;
use super::svg_text::{Ids, escaped, plain};
use crate::ground::Carried;
use crate::path::Affine;

/// A document that is being written.
pub(super) struct Writer {
    pub(super) out: String,
    pub(super) decimals: usize,
    pub(super) ids: Ids,
    pub(super) definitions: Definitions,
    /// Whether anything is mixed with what is below it.
    pub(super) mixes: bool,
    /// The first thing that cannot be written.
    pub(super) fault: Carried,
}

impl Writer {
    /// Enlarged later, a path needs more decimals; reduced, it can do with fewer.
    pub(super) fn decimals_at(&self, scale: f64) -> usize {
        let more = if scale > 0.0 { scale.log10().ceil() } else { 0.0 };
        (self.decimals as f64 + more).clamp(0.0, 12.0) as usize
    }

    pub(super) fn name(&mut self, name: Option<&str>) {
        if let Some(name) = name {
            let id = self.ids.named(name);
            let _ = write!(self.out, " id=\"{}\"", escaped(&id));
        }
    }

    pub(super) fn attribute(&mut self, name: &str, value: &str, default: &str) {
        if value != default {
            let _ = write!(self.out, " {name}=\"{value}\"");
        }
    }

    pub(super) fn transform(&mut self, by: &Affine) {
        if *by == Affine::IDENTITY {
            return;
        }
        let [a, b, c, d, e, f] = by.to_cols_array();
        if [a, b, c, d] == [1.0, 0.0, 0.0, 1.0] {
            let _ = write!(self.out, " transform=\"translate({} {})\"", plain(e), plain(f));
        } else {
            let numbers = [a, b, c, d, e, f].map(plain);
            let _ = write!(self.out, " transform=\"matrix({})\"", numbers.join(" "));
        }
    }
}
