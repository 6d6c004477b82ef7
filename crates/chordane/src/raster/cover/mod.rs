//! The pixel filler: how much of each pixel a polygon covers, exactly.
//!
//! A row of pixels is filled from the pieces of the edges that run through it. Where the pieces bound a region
//! that is simply inside or outside on either side, the area to the right of each piece is added up pixel by
//! pixel, and a running sum along the row is the coverage. That sum is only right where the winding number steps
//! between inside and outside; so pieces that overlap are first cut at their crossings into strips, sorted, and
//! only those that bound the painted region are kept. That makes both fill rules exact within a pixel too, and
//! costs nothing where nothing overlaps.
//!
//! - `row` holds the running sums of one row;
//! - `resolve` finds the pieces that bound the painted region;
//! - `filler` walks the edges of a polygon through the rows of a band;
//! - `tile` is the short way for small convex polygons, where nothing can overlap.

mod filler;
mod resolve;
mod row;
mod tile;

pub(super) use filler::{Band, Filler};

/// The height of the bands in which pictures are drawn; each is drawn on its own, whatever the number of threads.
pub(super) const BAND_ROWS: usize = 64;

/// A polygon's edge in pixels, running down: `y0 < y1`.
#[derive(Clone, Copy, Debug)]
pub(super) struct Edge {
    pub(super) x0: f32,
    pub(super) y0: f32,
    pub(super) x1: f32,
    pub(super) y1: f32,
    /// +1 where the polygon runs down along it, -1 where it runs up.
    pub(super) winding: i32,
}

impl Edge {
    /// The edge between two points; `None` for a level one, which bounds no area.
    #[inline]
    pub(super) fn between(a: [f32; 2], b: [f32; 2]) -> Option<Self> {
        let [(x0, y0), (x1, y1)] = [(a[0], a[1]), (b[0], b[1])];
        if y0 < y1 {
            Some(Self { x0, y0, x1, y1, winding: 1 })
        } else if y1 < y0 {
            Some(Self { x0: x1, y0: y1, x1: x0, y1: y0, winding: -1 })
        } else {
            None
        }
    }
}
