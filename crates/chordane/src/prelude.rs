//! All the words at once: `use chordane::prelude::*;`.

pub use crate::chance::Dice;
pub use crate::check::{Code, ContourFigures, Finding, Level, PathFigures, Report};
pub use crate::combine::{Blend, Morph, union_all};
pub use crate::ground::{Fault, FaultKind};
pub use crate::measure::{Crossing, CrossingKind, Direction, Place, Station, Survey};
pub use crate::number::{
    Angle, Cell, Extent, Point, around, between, cell, deg, golden_places, part, polar, pt, rad, rescale,
    smoothstep, turns,
};
pub use crate::path::{
    Affine, Arc, ArcSegment, ArcWay, Contour, DataError, DataErrorKind, Ends, FillRule, Fit, Path, Pen,
    Segment, Spacing, Through, Vertex, corner, flowing, rounded, soft, start, tagged, through,
};
pub use crate::picture::{BonesOptions, ContactAxes, contact_sheet};
pub use crate::raster::{DrawError, PixelOptions, Pixels};
#[cfg(feature = "svg-read")]
pub use crate::read::{ReadError, SvgNote, SvgReading};
pub use crate::reshape::{
    Bend, Cap, CurveFit, Dash, Join, Mirror, Nib, Offset, Outline, Reshape, Ripple, Round, Shake, Spin,
    Stamp, StampPlace, Subdivide, Taper, Thin, Trim, VertexAt, Warp,
};
pub use crate::scene::{Address, Hit, HitPart, Placed, Scene, woven};
pub use crate::shape::{
    Closing, CornerRadii, Triangle, TriangleError, Wheels, arc, band, blob, chord_cut, circle, cycloid,
    ellipse, gear, growing_spiral, lettering, lettering_width, lissajous, pie, plot, polygon, polygon_about,
    polygon_of_side, rectangle, ring, ring_part, rose, rounded_polygon, rounded_rectangle, rounded_star,
    scallop, sided_spiral, spiral, star, star_polygon, superellipse, traced_trail, trail, wheel,
    wheel_polygon, wheels_inside, wheels_outside,
};
pub use crate::sheet::{
    Colour, Group, Item, Node, Paint, Sheet, Stroke, Style, Unit, copies_at, group, ring_of, sheet, style,
};
pub use crate::write::{Format, SaveError, SvgOptions};
