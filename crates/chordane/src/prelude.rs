//! All the words at once: `use chordane::prelude::*;`.

pub use crate::check::{Code, ContourFigures, Finding, Level, PathFigures, Report};
pub use crate::draw::{BonesOptions, DrawError, Format, PixelOptions, Pixels, SaveError, SvgOptions};
pub use crate::fault::{Fault, FaultKind};
pub use crate::measure::{Crossing, CrossingKind, Direction, Place, Station, Survey};
pub use crate::number::{
    Angle, Cell, Extent, Point, around, between, cell, deg, part, polar, pt, rad, rescale, smoothstep, turns,
};
pub use crate::path::{
    Affine, Arc, ArcSegment, ArcWay, Bounds, Contour, DataError, DataErrorKind, Ends, FillRule, Fit, Path,
    Pen, Segment, Spacing, Through, Vertex, corner, flowing, rounded, soft, start, tagged, through,
};
pub use crate::read::{ReadError, SvgNote, SvgReading};
pub use crate::reshape::{Cap, Join, Nib, Outline, VertexAt};
pub use crate::shape::{
    CornerRadii, Triangle, TriangleError, arc, chord_cut, circle, ellipse, lettering, lettering_width, pie,
    polygon, rectangle, ring, ring_part, rounded_rectangle, star,
};
pub use crate::sheet::{Colour, Group, Item, Node, Sheet, Style, Unit, group, sheet, style};
