//! The text of an SVG document as it grows, and what every element is written with.

use std::fmt::Write;

use super::svg_paint::Definitions;
use super::svg_text::{Ids, escaped, plain};
use crate::ground::Carried;
use crate::path::{Affine, Path};
use crate::scene::Placed;

/// A document that is being written.
pub(super) struct Writer {
    pub(super) out: String,
    pub(super) decimals: usize,
    pub(super) ids: Ids,
    pub(super) definitions: Definitions,
    /// Whether anything is blended with what is below it.
    pub(super) blends: bool,
    /// The first thing that cannot be written.
    pub(super) fault: Carried,
    /// What stands beside the text of a frame.
    pub(super) apart: Option<Apart>,
}

/// What stands beside the text of a frame, to be laid on other frames.
#[derive(Clone, Debug, Default)]
pub(super) struct Apart {
    /// Paths with their decimals, by the numbers that stand in place of their data.
    pub(super) paths: Vec<(Path, usize)>,
    pub(super) sources: Vec<Source>,
}

/// Where an item stands in the text, and what it comes from.
#[derive(Clone, Debug)]
#[cfg_attr(not(feature = "svg-read"), expect(dead_code, reason = "read where frames are laid together"))]
pub(super) struct Source {
    pub(super) at: usize,
    pub(super) name: Option<String>,
    pub(super) line: Option<usize>,
}

impl Writer {
    /// Enlarged later, a path needs more decimals; reduced, it can do with fewer.
    pub(super) fn decimals_at(&self, scale: f64) -> usize {
        let more = if scale > 0.0 { scale.log10().ceil() } else { 0.0 };
        (self.decimals as f64 + more).clamp(0.0, 12.0) as usize
    }

    /// The data of a path as an attribute has it.
    pub(super) fn data(&mut self, path: &Path, scale: f64) -> String {
        let decimals = self.decimals_at(scale);
        let Some(apart) = &mut self.apart else { return path.data_rounded(decimals) };
        apart.paths.push((path.clone(), decimals));
        format!("@{}", apart.paths.len() - 1)
    }

    /// Keeps where an item begins, before it is written.
    pub(super) fn source(&mut self, placed: &Placed<'_>) {
        if let Some(apart) = &mut self.apart {
            let name = placed.item().name().map(str::to_owned);
            apart.sources.push(Source { at: self.out.len(), name, line: placed.line() });
        }
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
