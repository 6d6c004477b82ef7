//! Files: one file for each format, one table of them, and the routine that writes files whole or not at all.

#[cfg(feature = "png")]
mod apng;
mod clip;
mod data_url;
mod element;
mod format;
mod frames;
#[cfg(feature = "gif")]
mod gif;
mod moving;
#[cfg(feature = "gif")]
mod palette;
#[cfg(feature = "png")]
mod png;
mod svg;
mod svg_items;
mod svg_layers;
mod svg_paint;
mod svg_text;
mod svg_writer;
mod whole;
mod y4m;

#[cfg(all(feature = "png", feature = "svg-read"))]
pub(crate) use png::METADATA_KEYWORD;

pub use clip::Clip;
pub use format::{Format, OwnFormat, SaveError};
pub use frames::ClipOptions;
pub use moving::{StillOnly, SvgFrames, Unsaid};
#[cfg(feature = "gif")]
pub use palette::{Dither, Palette};
pub use whole::{WholeFile, write_whole};
