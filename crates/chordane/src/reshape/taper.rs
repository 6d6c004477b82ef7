//! Strokes whose width changes along the line.

use std::fmt;
use std::sync::Arc as Shared;

use super::Reshape;
use super::chain::reshaped;
use super::edging::outlined;
use super::line_style::{FINE, LineStyle};
use crate::ground::{Fault, FaultKind, FaultSlot, unlimited};
use crate::path::{FillRule, Path};

type Width = Shared<dyn Fn(f64) -> f64 + Send + Sync>;

/// A stroke's area with a width that is a function of the share of the length; see [`LineStyle::tapered`].
///
/// ```
/// use chordane::prelude::*;
/// let spar = Path::open([(0.0, 0.0), (40.0, 0.0)]);
/// let blade = spar.then(LineStyle::new(1.0).tapered(|share| 8.0 * (1.0 - share)));
/// assert!((blade.area()? - 160.0).abs() < 1e-6);
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone)]
pub struct Taper {
    /// The line style, without dashes; its width is multiplied by `width`.
    pub line: LineStyle,
    /// The factor of the width at a fraction of a contour's length from 0 at its start to 1 at its end.
    pub width: Width,
    /// How near the edges are to the true ones, in sheet units, though no coarser than a hundredth of the width and no finer than
    /// a millionth of the whole; 0.005 by default. Zero and below are a fault.
    pub tolerance: f64,
}

impl fmt::Debug for Taper {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        out.debug_struct("Taper").field("line", &self.line).finish_non_exhaustive()
    }
}

impl LineStyle {
    /// The same with a width that changes along the line: the function gives, for the share of each contour's length from
    /// 0 at its start to 1 at its end, what the width is multiplied with. Dashes are a fault.
    ///
    /// Negative widths count as none. The edges are cubics to within 0.005 sheet units, and sides where the line is straight
    /// and the width changes evenly; ends are joined and capped by the width that they have there. Contours and the limit of
    /// crossings are as in [`LineStyle`]. Cost: as there, and the function is asked some hundreds of times for each
    /// segment.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let tail = start((0.0, 0.0)).line((100.0, 0.0)).open();
    /// let thin = tail.then(LineStyle::new(10.0).tapered(|share| 1.0 - share));
    /// assert_eq!(thin.data(), "M0-5 100 0 0 5Z");
    /// ```
    #[must_use]
    pub fn tapered(self, width: impl Fn(f64) -> f64 + Send + Sync + 'static) -> Taper {
        Taper { line: self, width: Shared::new(width), tolerance: FINE }
    }
}

impl Reshape for Taper {
    fn reshape(&self, path: &Path) -> Path {
        let check = |fault: &mut FaultSlot| {
            self.line.check("tapered", fault);
            fault.positive("tapered", "tolerance", self.tolerance);
            if !self.line.dash.is_empty() {
                let message = "a line whose width changes has no dashes; dash the path first".to_owned();
                fault.note(Fault::of("tapered", FaultKind::Told { message }));
            }
        };
        let width = |fraction: f64| unlimited(|| (self.width)(fraction));
        let area = reshaped("tapered", path, check, |fault| {
            outlined(&self.line, path, Some(&width), self.tolerance, fault)
        });
        area.with_fill_rule(FillRule::Nonzero)
    }
}
