//! Measures: what encloses what, how large it is, and which way round it runs.

mod area;
mod inside;
mod nesting;

pub use area::Direction;
