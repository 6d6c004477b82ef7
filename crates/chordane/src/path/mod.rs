//! Paths: contours of lines, curves and arcs, the pen that makes them, and path-data text.
//!
//! A [`Path`] is a value: once built it does not change, and copies share their storage. The [`Pen`] is the one
//! builder.

mod arc;
mod arc_angles;
mod arc_ways;
mod bounds;
mod collect;
mod contour;
mod counted;
mod data_number;
mod data_read;
mod data_write;
mod fit;
mod flatten;
mod pen;
mod segment;
mod smooth;
mod tangents;
mod through;
mod transform;
mod whole;

pub use arc::{Arc, ArcSegment};
pub use arc_ways::ArcWay;
pub use contour::{Contour, Segments};
pub use data_read::{DataError, DataErrorKind};
pub use fit::Fit;
pub use pen::{Pen, start};
pub use segment::Segment;
pub use through::{Ends, Spacing, Through, Vertex, corner, flowing, rounded, soft, tagged, through};
pub use transform::Affine;
pub(crate) use transform::by;
pub use whole::{FillRule, Path};

pub(crate) use arc::MAX_SEGMENT_SWEEP_DEGREES;
pub(crate) use bounds::quadratic_roots;
pub(crate) use contour::{ContourBuilder, Tag, Verb};
pub(crate) use flatten::flatten_segment;
pub(crate) use smooth::smooth;
