//! Numbers with a meaning: angles that know their unit, and points.
//!
//! This module knows nothing about paths.

mod angle;
mod cell;
mod extent;
mod places;
mod point;
mod range;
mod roots;

pub use angle::{Angle, around, between, deg, rad, turns};
pub use cell::{Cell, cell};
pub use extent::{Along, Extent, Inset, part};
pub use places::golden_places;
pub use point::{IntoPoint, Point, polar, pt};
pub(crate) use range::kept;
pub use range::{rescale, smoothstep};
pub(crate) use roots::{product, roots};
