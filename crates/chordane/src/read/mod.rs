//! Reading: an SVG document becomes a sheet.

mod attributes;
mod clips;
mod document;
mod error;
mod metadata;
mod properties;
mod shapes;
mod svg;
mod viewport;

pub use error::{ReadError, SvgNote, SvgReading};
pub use metadata::read_metadata;
