//! Files: one file for each format, one table of them, and the routine that writes files whole or not at all.

mod format;
mod png;
mod svg;
mod whole;

pub use format::{Format, SaveError, WriteOptions};
pub(crate) use png::METADATA;
pub use svg::SvgOptions;
pub use whole::write_whole;
