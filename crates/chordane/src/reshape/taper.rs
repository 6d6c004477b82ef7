//! Strokes whose width changes along the line.

use std::fmt;
use std::sync::Arc as Shared;

use super::Reshape;
use super::edging::outlined;
use super::outline::{FINE, Outline};
use crate::path::Path;

type Width = Shared<dyn Fn(f64) -> f64 + Send + Sync>;

/// A stroke's area with a width that is a function of the share of the length; see [`Outline::tapered`].
///
/// ```
/// use chordane::prelude::*;
/// let spar = Path::open([(0.0, 0.0), (40.0, 0.0)]);
/// let blade = spar.then(Outline::new(1.0).tapered(|share| 8.0 * (1.0 - share)));
/// assert!((blade.area()? - 160.0).abs() < 1e-6);
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone)]
pub struct Taper {
    pub(crate) outline: Outline,
    pub(crate) width: Width,
    pub(crate) tolerance: f64,
}

impl fmt::Debug for Taper {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        out.debug_struct("Taper").field("outline", &self.outline).finish_non_exhaustive()
    }
}

impl Outline {
    /// The same with a width that changes along the line: the function gives, for the share of each contour's length from
    /// 0 at its start to 1 at its end, what the width is multiplied with. Dashes are not drawn.
    ///
    /// Negative widths count as none. The edges are cubics to within 0.005 sheet units, and sides where the line is straight
    /// and the width changes evenly; ends are joined and capped by the width that they have there. Contours and the limit of
    /// crossings are as in [`Outline`]. Cost: as there, and the function is asked some hundreds of times for each
    /// segment.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let tail = start((0.0, 0.0)).line((100.0, 0.0)).open();
    /// let thin = tail.then(Outline::new(10.0).tapered(|share| 1.0 - share));
    /// assert_eq!(thin.data(), "M0-5 100 0 0 5Z");
    /// ```
    #[must_use]
    pub fn tapered(self, width: impl Fn(f64) -> f64 + Send + Sync + 'static) -> Taper {
        Taper { outline: self, width: Shared::new(width), tolerance: FINE }
    }
}

impl Taper {
    /// The same within another tolerance, in sheet units, though no coarser than a hundredth of the width and no finer than
    /// a millionth of the whole: zero and below are a fault.
    #[must_use]
    pub fn tolerance(mut self, tolerance: f64) -> Self {
        self.tolerance = tolerance;
        self
    }

    /// The stroke whose width changes.
    #[must_use]
    pub fn outline(&self) -> &Outline {
        &self.outline
    }

    /// The tolerance in sheet units.
    #[must_use]
    pub fn get_tolerance(&self) -> f64 {
        self.tolerance
    }
}

impl Reshape for Taper {
    fn reshape(&self, path: &Path) -> Path {
        let mut fault = self.outline.check();
        fault.positive("tapered", "tolerance", self.tolerance);
        let outline = Outline { dash: Vec::new(), ..self.outline.clone() };
        outlined(&outline, path, Some(&*self.width), self.tolerance, fault)
    }
}
