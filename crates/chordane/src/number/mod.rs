//! Numbers with a meaning: angles that know their unit, and points.
//!
//! The ground floor of the street: nothing here knows what a path is.

mod angle;
mod point;
mod roots;

pub use angle::{Angle, around, between, deg, rad, turns};
pub use point::{Point, polar, pt};
pub(crate) use roots::roots;
