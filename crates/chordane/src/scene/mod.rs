//! A sheet in one pass: its items where they stand, the layers that they lie on, what is under a spot, and the same sheet
//! with other paths.
//!
//! This is the one place where the tree of a sheet is walked. Drawing, writing, checking, bones, contact sheets, woven
//! rings and stamps read the scene.

mod edit;
mod gather;
mod grips;
mod hits;
mod linked;
mod placed;
mod stamps;
mod woven;

pub use gather::{Layer, Scene, Step};
pub use grips::{Grip, GripKind};
pub use hits::{Hit, HitPart, Hits, Index};
pub use linked::linked;
pub(crate) use placed::largest_scale;
pub use placed::{Address, Placed};
pub use woven::woven;
