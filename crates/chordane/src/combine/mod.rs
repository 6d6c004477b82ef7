//! Combining shapes: what several areas cover together, what they share, what one leaves of another; lines cut by areas;
//! and shapes on the way from one to another.

mod areas;
mod lines;
mod morph;
mod triangles;

pub use areas::union_all;
pub use morph::{Blend, Morph};
pub(crate) use triangles::Triangles;
