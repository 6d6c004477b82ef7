//! Paths of straight sides in one flat storage, for the inner loops of stroking and filling.

use crate::ground::has_room;
use crate::number::Point;
use crate::path::{Contour, flatten_segment};

/// Arrays of fewer points than this grow without asking for memory.
const LARGE: usize = 1 << 20;

/// Closed polygons, one after the other in one array.
#[derive(Clone, Debug, Default)]
pub(crate) struct FlatPath {
    pub(crate) points: Vec<Point>,
    /// The end of each polygon in `points`.
    pub(crate) ends: Vec<usize>,
}

impl FlatPath {
    pub(crate) fn clear(&mut self) {
        self.points.clear();
        self.ends.clear();
    }

    /// Ends the polygon whose points were pushed last; nothing for one without points.
    pub(crate) fn end_polygon(&mut self) {
        let (begin, end) = (self.ends.last().copied().unwrap_or(0), self.points.len());
        if end > begin {
            self.ends.push(end);
        }
        // Asks for the memory of the next larger array before this one is full.
        let nearly_full = self.points.capacity() / 8 * 7;
        if (begin..end).contains(&nearly_full) && nearly_full > LARGE {
            let _ = has_room(2 * self.points.capacity() * size_of::<Point>());
        }
    }

    pub(crate) fn polygons(&self) -> impl Iterator<Item = &[Point]> {
        let mut begin = 0;
        self.ends.iter().map(move |&end| {
            let polygon = self.points.get(begin..end).unwrap_or_default();
            begin = end;
            polygon
        })
    }
}

/// One contour as a line of different points, each marked as a corner (a vertex of the path) or as a mere joint
/// of chords.
#[derive(Clone, Debug, Default)]
pub(crate) struct Polyline {
    pub(crate) points: Vec<Point>,
    pub(crate) corners: Vec<bool>,
    pub(crate) closed: bool,
}

impl Polyline {
    pub(crate) fn clear(&mut self) {
        self.points.clear();
        self.corners.clear();
        self.closed = false;
    }

    /// Adds a point unless the line stands there already; a corner stays one.
    #[inline]
    pub(crate) fn push(&mut self, p: Point, corner: bool) {
        if self.points.last() == Some(&p) {
            if let Some(last) = self.corners.last_mut() {
                *last |= corner;
            }
        } else {
            self.points.push(p);
            self.corners.push(corner);
        }
    }

    /// Takes over a contour, flattened.
    pub(crate) fn fill_from(&mut self, contour: &Contour, tolerance: f64) {
        self.clear();
        self.push(contour.start(), true);
        for segment in contour.segments() {
            flatten_segment(&segment, tolerance, |p| self.push(p, false));
            if let Some(last) = self.corners.last_mut() {
                *last = true;
            }
        }
        self.closed = contour.is_closed();
        if self.closed && self.points.len() > 1 && self.points.first() == self.points.last() {
            self.points.pop();
            self.corners.pop();
        }
    }
}
