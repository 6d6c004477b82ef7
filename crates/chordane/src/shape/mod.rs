//! Ready shapes. Each is a function that gives a [`Path`](crate::path::Path), most of them of one closed contour,
//! clockwise as seen on a sheet with y down.
//!
//! A size of zero gives an empty path; a negative size is a fault.

mod arcs;
mod curves;
mod lettering;
mod letters;
mod plot;
mod polygon;
mod rectangle;
mod rims;
mod round;
mod spiral;
mod triangle;
mod wheels;

pub use arcs::{arc, chord_cut, elliptic_arc, pie, ring, ring_part, squashed_arc};
pub use curves::{lissajous, rose, superellipse};
pub use lettering::{lettering, lettering_lacks, lettering_width};
pub use plot::{plot, traced_trail, trail};
pub use polygon::{
    polygon, polygon_about, polygon_of_side, rounded_polygon, rounded_star, star, star_polygon,
};
pub use rectangle::{CornerRadii, rectangle, rectangle_about, rounded_rectangle};
pub use rims::{band, blob, gear, scallop};
pub use round::{circle, ellipse};
pub use spiral::{growing_spiral, sided_spiral, spiral};
pub use triangle::{Triangle, TriangleError};
pub use wheels::{Closing, Wheels, cycloid, wheel, wheel_polygon, wheels_inside, wheels_outside};
