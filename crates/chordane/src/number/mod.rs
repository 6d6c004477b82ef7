//! Numbers with a meaning: angles that know their unit, and points.
//!
//! The ground floor of the street: nothing here knows what a path is.

mod angle;
mod cell;
mod extent;
#[cfg(feature = "mint")]
mod mint;
mod places;
mod point;
mod range;
mod roots;

pub use angle::{Angle, around, between, deg, rad, turns};
pub use cell::{Cell, cell};
pub use extent::{Along, Extent, Inset, part};
#[cfg(feature = "mint")]
pub use mint::{affine_from_mint, affine_to_mint, point_from_mint, point_to_mint};
pub use places::golden_places;
pub use point::{Point, polar, pt};
pub(crate) use range::kept;
pub use range::{rescale, smoothstep};
pub(crate) use roots::{product, roots};
