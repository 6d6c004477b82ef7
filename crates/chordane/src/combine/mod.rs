//! Combining shapes: what several areas cover together, what they share, and what one leaves of another.
//!
//! All sides are cut where they meet, next to every piece it is found out how often each shape winds round there, and
//! the pieces between what is kept and what is not are the new rim. Curves stay curves: a piece of an arc is an arc.

mod edges;
mod flank;
mod lines;
mod morph;
mod offset;
mod outlined;
mod sides;
mod sources;
mod together;
mod trace;

pub use morph::{Blend, Morph};
pub use offset::Offset;
pub use together::union_all;
