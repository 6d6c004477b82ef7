//! Strokes of a broad nib, whose width differs with the direction of the line.

use super::chain::reshaped;
use super::line_style::{Cap, Join, LineStyle};
use crate::ground::{Fault, FaultKind, FaultSlot};
use crate::number::{Angle, Point};
use crate::path::{Affine, FillRule, Path, by};

/// An elliptical nib: the widths of vertical and horizontal strokes, and the angle of the ellipse.
///
/// ```
/// use chordane::prelude::*;
/// let cross = start((0.0, -50.0)).line((0.0, 50.0)).start((-50.0, 0.0)).line((50.0, 0.0)).open();
/// let bars = cross.nibbed(&Nib::new(12.0, 4.0), 0.05);
/// // The upright bar is 12 wide, the level one 4 high.
/// assert!(bars.inside((5.9, 30.0)) && !bars.inside((6.1, 30.0)));
/// assert!(bars.inside((30.0, 1.9)) && !bars.inside((30.0, 2.1)));
/// ```
#[derive(Clone, Debug, PartialEq)]
pub struct Nib {
    /// The width of upright strokes, in sheet units.
    pub across: f64,
    /// The height of level strokes, in sheet units.
    pub down: f64,
    /// The angle of the nib, clockwise on screen: `across` is its extent in this direction.
    pub slant: Angle,
    /// How open ends look. A round one is the nib itself set down at the end.
    pub cap: Cap,
    /// How corners look. A round one is the nib itself turning the corner.
    pub join: Join,
    /// The mitre limit, as in [`LineStyle`], measured with the ellipse stretched to a circle.
    pub mitre_limit: f64,
}

/// The thinnest a nib may be, as a share of its width: an edge without a thickness has no area to give out.
const MIN_ASPECT: f64 = 1e-6;

impl Nib {
    /// A nib that makes upright strokes `across` wide and level strokes `down` high, in sheet units, with butt caps
    /// and mitre joins up to a limit of 4.
    ///
    /// If one of them is zero the nib is an edge, as thin as can be; if both are, it draws nothing. Negative ones are
    /// a fault.
    #[must_use]
    pub fn new(across: f64, down: f64) -> Self {
        let (slant, cap, join) = Default::default();
        Self { across, down, slant, cap, join, mitre_limit: 4.0 }
    }

    fn check(&self) -> FaultSlot {
        let mut fault = FaultSlot::default();
        for (what, value) in
            [("width across", self.across), ("width down", self.down), ("mitre limit", self.mitre_limit)]
        {
            fault.not_negative("nibbed", what, value);
        }
        fault.finite("nibbed", "slant", self.slant.degrees());
        fault
    }
}

impl Path {
    /// The area that a broad nib paints along the path, as straight sides under the nonzero rule; no point of its rim
    /// is farther from the true rim than about `tolerance`, in sheet units.
    ///
    /// The plane is stretched so that the nib is a circle, the line is stroked there, and the area is brought back: so
    /// sides, joins and caps are those of the ellipse. Cost: linear in the number of chords.
    #[must_use]
    pub fn nibbed(&self, nib: &Nib, tolerance: f64) -> Self {
        let check = |fault: &mut FaultSlot| {
            fault.take_from(&nib.check());
            if tolerance.is_nan() || tolerance <= 0.0 {
                fault.note(Fault::of(
                    "nibbed",
                    FaultKind::NotPositive { what: "tolerance", value: tolerance },
                ));
            }
        };
        let area = reshaped("nibbed", self, check, |_| {
            let widest = nib.across.max(nib.down);
            if widest == 0.0 {
                return Vec::new();
            }
            let half = Point::new(nib.across, nib.down).max(Point::splat(widest * MIN_ASPECT)) * 0.5;
            let to_nib = by::rotation(nib.slant) * Affine::from_scale(half);
            let outline = LineStyle {
                cap: nib.cap,
                join: nib.join,
                mitre_limit: nib.mitre_limit,
                ..LineStyle::new(2.0)
            };
            // Nothing is farther apart on the sheet than in the stretched plane times the longer half axis.
            let area =
                self.transformed(&to_nib.inverse()).stroke_chords(&outline, tolerance / (0.5 * widest));
            area.transformed(&to_nib).into_parts().0
        });
        // A stretch that mirrors nothing keeps all turns: the nonzero rule still holds.
        area.with_fill_rule(FillRule::Nonzero)
    }
}
