//! Which contour lies in which.

use std::ops::ControlFlow;

use super::tree::BoxTree;
use crate::ground::{Fault, limited};
use crate::path::{Contour, Path};

impl Path {
    /// How many other contours each contour lies in, in order: 0 for an outline, 1 for a hole in it, 2 for an island
    /// in the hole, and so on.
    ///
    /// A contour lies where its first vertex does: what contours that cross each other give depends on where they
    /// begin. Contours that are the same lie in one another. Cost: the contours times those whose bounds hold them.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let hoop = circle((0.0, 0.0), 9.0).and(&circle((0.0, 0.0), 5.0)).and(&circle((0.0, 0.0), 2.0));
    /// assert_eq!(hoop.nesting()?, [0, 1, 2]);
    /// # Ok::<(), Fault>(())
    /// ```
    ///
    /// # Errors
    ///
    /// The path's first fault.
    pub fn nesting(&self) -> Result<Vec<usize>, Fault> {
        self.sound()?;
        limited("nesting", || self.depths())
    }

    /// As [`Path::nesting`], as far as a budget of the work around allows.
    pub(crate) fn depths(&self) -> Vec<usize> {
        let tree = BoxTree::new(self.contours().iter().map(Contour::bounds));
        let depth = |(i, contour): (usize, &Contour)| {
            let (spot, mut count) = (contour.start(), 0);
            let _ = tree.each(
                |bounds| bounds.contains(spot),
                |j| {
                    let around = self.contours().get(j).filter(|_| j != i);
                    count += usize::from(around.is_some_and(|other| other.winding(spot) != 0));
                    ControlFlow::Continue(())
                },
            );
            count
        };
        self.contours().iter().enumerate().map(depth).collect()
    }
}
