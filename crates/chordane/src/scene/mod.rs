//! The display list of a sheet: its items in drawing order with all that they inherit, the layers that they are drawn on, what is under a point,
//! and the same sheet with other paths.
//!
//! This is the one place where the tree of a sheet is walked. Drawing, writing, checking, bones, contact sheets, woven
//! rings and stamps read the list.

mod build;
mod edit;
mod grips;
mod hits;
mod linked;
mod list;
mod placed;
mod sheets;
mod stamps;
mod woven;

pub use grips::{Grip, GripKind};
pub use hits::{Hit, HitPart, Hits, Index};
pub use linked::linked;
pub(crate) use list::Coordinates;
pub use list::{Command, Layer, LayerKind, Scene};
pub(crate) use placed::largest_scale;
pub use placed::{Address, Placed};
pub use woven::woven;
