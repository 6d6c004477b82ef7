//! Reading: an SVG document becomes a sheet.

mod attributes;
mod document;
mod metadata;
mod properties;
mod shapes;
mod svg;
mod viewport;

pub use metadata::read_metadata;
pub use svg::{ReadError, SvgNote, SvgReading};
