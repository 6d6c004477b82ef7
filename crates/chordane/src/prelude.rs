//! The words that people write: `use chordane::prelude::*;`.
//!
//! Types that calls return but programs rarely name (figures, findings, errors, hits) stay in their modules. So do
//! [`Arc`](crate::path::Arc) and [`Cell`](crate::number::Cell), whose names the standard library has too; [`Path`] is the one
//! that a program of shapes cannot do without.

pub use crate::chance::Dice;
pub use crate::combine::{Blend, Morph, union_all};
pub use crate::ground::Fault;
pub use crate::motion::{
    Easing, Jump, Keys, Marching, Pose, Posed, Timeline, Way, ease, hold, keys, pose, pulse, rounds, saw,
    swing, timeline,
};
pub use crate::number::{
    Angle, Extent, IntoPoint, Point, around, between, cell, deg, golden_places, part, polar, pt, rad,
    rescale, smoothstep, turns,
};
pub use crate::path::{
    Affine, ArcWay, Contour, FillRule, Fit, Path, Pen, Segment, Spacing, Through, Vertex, corner, flowing,
    rounded, soft, start, tagged, through,
};
pub use crate::picture::{BonesOptions, contact_sheet};
pub use crate::raster::Pixels;
pub use crate::reshape::{
    Bend, Cap, CurveFit, Dash, DashFit, Join, LineStyle, Mirror, Nib, Offset, Reshape, ReshapeFn, Ripple,
    RippleShape, Round, Shake, Spin, Stamp, Subdivide, Taper, Thin, Trim, Warp,
};
pub use crate::scene::{linked, woven};
pub use crate::shape::{
    CornerRadii, Triangle, Wheels, arc, band, blob, chord_cut, circle, cycloid, ellipse, elliptic_arc, gear,
    growing_spiral, lettering, lettering_width, lissajous, pie, plot, polygon, polygon_about,
    polygon_of_side, rectangle, rectangle_about, ring, ring_part, rose, rounded_polygon, rounded_rectangle,
    rounded_star, scallop, sided_spiral, spiral, squashed_arc, star, star_polygon, superellipse,
    traced_trail, trail, wheel, wheel_polygon, wheels_inside, wheels_outside,
};
pub use crate::sheet::{
    BlendMode, Colour, ColourSpace, Frame, Gradient, Group, Item, Layered, Mask, MaskKind, Paint, Pattern,
    Picture, Placement, Sampling, Shades, Sheet, Spread, Style, Styled, Unit, WriteOptions, along, by_vertex,
    copies_at, group, hsl, hwb, lab, lch, linear_gradient, mix, mix_in, oklab, oklch, palette, paper,
    pattern, radial_gradient, rgb, ring_of, sheet, style, sweep_gradient,
};
pub use crate::write::Format;
