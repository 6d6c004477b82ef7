//! The values that scripts hold, and how words take and give them.
//!
//! Paths, items and styles are values: a call gives a new one. Pens, groups, sheets and dice are builders.

mod ask;
mod builder;
mod describe;
mod give;
mod kind;
mod moving;
mod plain;
mod stamp;
mod take;

pub use kind::Kind;

pub(crate) use builder::Builder;
pub(crate) use describe::{description, plain_type, shown};
pub(crate) use give::{Give, Tidy};
pub(crate) use moving::{End, Moving, ScoreKeys};
pub(crate) use plain::{any_number, numbers_in, point};
pub(crate) use stamp::ScoreStamp;
pub(crate) use take::{Fading, Holder, Painted, Stroked, Take, Thing, Tint};
