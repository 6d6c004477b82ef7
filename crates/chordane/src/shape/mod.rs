//! Ready shapes. Each is a function that gives a [`Path`](crate::path::Path), most of them of one closed contour,
//! clockwise as seen on a sheet with y down.
//!
//! A size of zero gives an empty path; a negative size is a fault.

mod arcs;
mod lettering;
mod polygon;
mod rectangle;
mod round;
mod triangle;

pub use arcs::{arc, chord_cut, pie, ring, ring_part};
pub use lettering::{lettering, lettering_width};
pub use polygon::{polygon, star};
pub use rectangle::{CornerRadii, rectangle, rounded_rectangle};
pub use round::{circle, ellipse};
pub use triangle::{Triangle, TriangleError};
