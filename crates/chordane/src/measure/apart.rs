//! Whether a shape keeps clear of itself.

use super::CrossingKind;
use crate::ground::{Fault, exhausted, limited};
use crate::number::Point;
use crate::path::{Contour, Path};

impl Path {
    /// Whether the path crosses itself, or runs along itself; touching is not crossing.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// assert!(star_polygon((0.0, 0.0), 5, 2, 40.0).crosses_itself()?);
    /// assert!(!star((0.0, 0.0), 5, 40.0, 16.0).crosses_itself()?);
    /// # Ok::<(), Fault>(())
    /// ```
    ///
    /// # Errors
    ///
    /// The path's first fault.
    pub fn crosses_itself(&self) -> Result<bool, Fault> {
        Ok(self.crossings()?.iter().any(|crossing| crossing.kind != CrossingKind::Touching))
    }

    /// The least distance between two vertices; none where there are fewer than two. The end of a closed contour that
    /// comes back to its start is not counted again. Cost: that of sorting, unless very many lie in one line.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// assert_eq!(rectangle((0.0, 0.0), 30.0, 8.0).vertex_gap()?, Some(8.0));
    /// # Ok::<(), Fault>(())
    /// ```
    ///
    /// # Errors
    ///
    /// The path's first fault.
    pub fn vertex_gap(&self) -> Result<Option<f64>, Fault> {
        self.sound()?;
        limited("vertex_gap", || self.least_gap())
    }

    fn least_gap(&self) -> Option<f64> {
        let of = |contour: &Contour| {
            let again = contour.is_closed() && contour.vertex_count() > 1 && contour.end() == contour.start();
            contour.vertices().take(contour.vertex_count() - usize::from(again)).collect::<Vec<_>>()
        };
        let mut vertices: Vec<Point> = self.contours().iter().flat_map(of).collect();
        // In order along the longer side of their box, a near one is soon found.
        let size = self.control_bounds()?.size();
        let along = |p: &Point| if size.x >= size.y { p.x } else { p.y };
        vertices.sort_by(|a, b| along(a).total_cmp(&along(b)));
        let mut least: Option<f64> = None;
        for (i, a) in vertices.iter().enumerate() {
            for b in vertices.iter().skip(i + 1) {
                if exhausted(1) {
                    return least;
                }
                if least.is_some_and(|least| along(b) - along(a) >= least) {
                    break;
                }
                let distance = a.distance(*b);
                least = Some(least.map_or(distance, |least| least.min(distance)));
            }
        }
        least
    }
}
