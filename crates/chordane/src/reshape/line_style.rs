//! Line styles. A line style is also a reshape, from a line to the area of its stroke; `edging` makes that area.

use crate::ground::{FaultSlot, named};

/// How a stroke ends at the ends of an open contour.
///
/// ```
/// use chordane::prelude::*;
/// let spar = Path::open([(0.0, 0.0), (10.0, 0.0)]);
/// assert_eq!(spar.then(LineStyle { cap: Cap::Square, ..LineStyle::new(4.0) }).area()?, 4.0 * 14.0);
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
pub enum Cap {
    /// Straight across, at the end itself.
    #[default]
    Butt,
    /// A half circle beyond the end.
    Round,
    /// A half square beyond the end.
    Square,
}

named! { Cap: "cap"; "butt" => Butt, "round" => Round, "square" => Square }

/// How a stroke turns a corner.
///
/// ```
/// use chordane::prelude::*;
/// let elbow = Path::open([(0.0, 0.0), (10.0, 0.0), (10.0, 10.0)]);
/// let area = |join: Join| elbow.then(LineStyle { join, ..LineStyle::new(4.0) }).area();
/// assert!(area(Join::Mitre)? > area(Join::Round)? && area(Join::Round)? > area(Join::Bevel)?);
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
#[non_exhaustive]
pub enum Join {
    /// The outer edges go on until they meet; beyond the mitre limit, as [`Join::Bevel`].
    #[default]
    Mitre,
    /// Round about the vertex.
    Round,
    /// Straight across the corner.
    Bevel,
}

named! { Join: "join"; "mitre" => Mitre, "round" => Round, "bevel" => Bevel }

/// How a line is drawn: its width, ends, corners and dashes. As a reshape it turns a line into the area that its stroke paints.
///
/// The area comes in contours that do not cross: sides beside sides, arcs beside arcs of
/// circles, round joins and caps, and cubics within 0.005 sheet units beside other curves (a hundredth of the width where
/// that is less, though no finer than a millionth of the whole). Dashes are cut out of the curves. A line that goes over
/// itself so often that its edges cross 300,000 times comes with its overlaps, for the nonzero rule.
///
/// A width of zero draws nothing. A contour of no length gives a dot with round caps, a
/// square with square ones and nothing with butt ones; a lone vertex gives nothing. The fields are checked when they are used: a number that is
/// negative or not finite, or a mitre limit below 1, is a fault. Cost of the reshape: n log n and the number of crossings.
///
/// ```
/// use chordane::prelude::*;
/// let spar = start((0.0, 0.0)).line((100.0, 0.0)).open();
/// let area = spar.then(LineStyle { cap: Cap::Round, ..LineStyle::new(6.0) });
/// assert_eq!(area.data(), "M0-3H100A3 3 0 0 1 103 0 3 3 0 0 1 100 3H0A3 3 0 0 1-3 0 3 3 0 0 1 0-3Z");
/// ```
#[derive(Clone, Debug, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize), serde(default))]
pub struct LineStyle {
    /// The width, half of it on either side of the line; 1 by default.
    pub width: f64,
    /// How open ends look.
    pub cap: Cap,
    /// How corners look.
    pub join: Join,
    /// The longest mitre, from inner to outer corner, as a multiple of the width, 1 or more; 4 by default. Corners whose mitre would be longer
    /// are bevelled.
    pub mitre_limit: f64,
    /// Lengths of line and gap in turn. A pattern without a length above zero is not a dash. Each contour begins the pattern anew, and on a closed one
    /// it runs on over the start.
    pub dash: Vec<f64>,
    /// How far into the pattern the line begins; negative begins before it.
    pub dash_offset: f64,
}

/// The default tolerance of curves beside curves, in sheet units.
pub(crate) const FINE: f64 = 0.005;

impl Default for LineStyle {
    fn default() -> Self {
        let (cap, join, dash) = Default::default();
        Self { width: 1.0, cap, join, mitre_limit: 4.0, dash, dash_offset: 0.0 }
    }
}

impl From<f64> for LineStyle {
    fn from(width: f64) -> Self {
        Self::new(width)
    }
}

impl LineStyle {
    /// A line of a width in sheet units, with butt caps and mitre joins, not dashed.
    #[must_use]
    pub fn new(width: f64) -> Self {
        Self { width, ..Self::default() }
    }

    /// Notes the first field that is out of its range.
    pub(crate) fn check(&self, call: &'static str, fault: &mut FaultSlot) {
        fault.not_negative(call, "width", self.width);
        fault.in_range(call, "mitre limit", self.mitre_limit, 1.0, f64::MAX);
        fault.finite(call, "dash offset", self.dash_offset);
        for length in &self.dash {
            fault.not_negative(call, "dash length", *length);
        }
    }
}
