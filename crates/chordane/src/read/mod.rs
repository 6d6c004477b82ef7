//! Reading: an SVG document becomes a sheet.

mod attributes;
mod document;
mod properties;
mod shapes;
mod svg;
mod viewport;

pub use svg::{ReadError, SvgNote, SvgReading};
