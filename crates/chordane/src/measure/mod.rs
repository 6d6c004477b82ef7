//! Measures: what encloses what, how large and how long it is, which way round it runs, and what is how far along.

mod apart;
mod area;
mod beside;
mod circles;
mod crossings;
mod inside;
mod length;
mod meet;
mod nearest;
mod nesting;
mod place;
mod quadrature;
mod straight;
mod survey;
mod tree;

pub use area::Direction;
pub use crossings::{Crossing, CrossingKind};
pub use place::Place;
pub use survey::{Station, Survey};

pub(crate) use area::doubled_area;
pub(crate) use circles::{Round, rounds};
pub(crate) use crossings::{self_crossings, tolerance_of};
pub(crate) use inside::winding_in;
pub(crate) use meet::{loop_of, meets};
pub(crate) use place::Meet;
pub(crate) use quadrature::sixteen_places;
pub(crate) use straight::straight_stops;
pub(crate) use tree::{BoxTree, distance_to, overlap};
