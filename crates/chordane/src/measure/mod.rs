//! Measures: what encloses what, how large and how long it is, which way round it runs, and what is how far along.

mod area;
mod inside;
mod length;
mod nesting;
mod survey;

pub use area::Direction;
pub use survey::{Station, Survey};
