//! Files: one file for each format, one table of them, and the routine that writes files whole or not at all.

mod data_url;
mod format;
#[cfg(feature = "png")]
mod png;
mod svg;
mod svg_layers;
mod svg_paint;
mod svg_text;
mod svg_writer;
mod whole;

#[cfg(all(feature = "png", feature = "svg-read"))]
pub(crate) use png::METADATA;

pub use format::{Format, SaveError, WriteOptions};
pub use svg::SvgOptions;
pub use whole::write_whole;
