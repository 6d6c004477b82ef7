//! Reading: an SVG document becomes a sheet, and a file of pixels a picture.

#[cfg(feature = "svg-read")]
mod attributes;
#[cfg(feature = "svg-read")]
mod cascade;
#[cfg(feature = "svg-read")]
mod clips;
#[cfg(feature = "svg-read")]
mod document;
#[cfg(feature = "svg-read")]
mod entities;
#[cfg(feature = "svg-read")]
mod error;
#[cfg(feature = "svg-read")]
mod images;
#[cfg(feature = "svg-read")]
mod layers;
#[cfg(feature = "svg-read")]
mod metadata;
#[cfg(feature = "png")]
mod picture;
#[cfg(feature = "svg-read")]
mod properties;
#[cfg(feature = "svg-read")]
mod selectors;
#[cfg(feature = "svg-read")]
mod servers;
#[cfg(feature = "svg-read")]
mod shapes;
#[cfg(feature = "svg-read")]
mod style_sheets;
#[cfg(feature = "svg-read")]
mod styled;
#[cfg(feature = "svg-read")]
mod svg;
#[cfg(feature = "svg-read")]
mod transforms;
#[cfg(feature = "svg-read")]
mod tree;
#[cfg(feature = "svg-read")]
mod viewport;
#[cfg(feature = "svg-read")]
mod walk;

#[cfg(feature = "svg-read")]
pub use error::{ReadError, SvgNote, SvgReading};
#[cfg(all(feature = "svg-read", feature = "png"))]
pub use metadata::is_whole_png;
#[cfg(feature = "svg-read")]
pub use metadata::read_metadata;
#[cfg(feature = "png")]
pub use picture::PictureError;
