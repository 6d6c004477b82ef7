//! Drawing: a sheet becomes SVG text, pixels or a file.

mod blend;
mod bones;
mod cover;
mod pixels;
mod plan;
mod png;
mod save;
mod svg;

pub use bones::BonesOptions;
pub use pixels::{DrawError, MOST_PIXELS_A_SIDE, PixelOptions, Pixels};
pub(crate) use png::METADATA;
pub use save::{Format, SaveError, write_whole};
pub use svg::SvgOptions;
