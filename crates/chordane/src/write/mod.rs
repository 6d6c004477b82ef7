//! Files: one file for each format, one table of them, and the routine that writes files whole or not at all.

#[cfg(feature = "png")]
mod apng;
mod clip;
mod data_url;
mod format;
mod frames;
#[cfg(feature = "gif")]
mod gif;
#[cfg(feature = "gif")]
mod palette;
#[cfg(feature = "png")]
mod png;
mod svg;
#[cfg(feature = "svg-read")]
mod svg_drawn;
#[cfg(feature = "svg-read")]
mod svg_frames;
#[cfg(feature = "svg-read")]
mod svg_keys;
mod svg_layers;
#[cfg(feature = "svg-read")]
mod svg_motion;
mod svg_paint;
#[cfg(feature = "svg-read")]
mod svg_pattern;
#[cfg(feature = "svg-read")]
mod svg_refine;
#[cfg(feature = "svg-read")]
mod svg_tags;
mod svg_text;
mod svg_writer;
mod whole;
mod y4m;

#[cfg(all(feature = "png", feature = "svg-read"))]
pub(crate) use png::METADATA;

pub use clip::{Clip, ClipFormat};
pub use format::{Format, SaveError, WriteOptions};
pub use frames::ClipOptions;
#[cfg(feature = "gif")]
pub use palette::{Dither, Palette};
pub use svg::SvgOptions;
#[cfg(feature = "svg-read")]
pub use svg_frames::{StillOnly, SvgFrames, Unsaid};
pub use whole::{WholeFile, write_whole};
