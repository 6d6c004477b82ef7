//! The area that a stroke paints, as a reshape: what can be said of it. How it is made stands in `edging`.

use crate::ground::{Carried, Named};

/// How a stroke ends at the ends of an open contour.
///
/// ```
/// use chordane::prelude::*;
/// let spar = Path::open([(0.0, 0.0), (10.0, 0.0)]);
/// assert_eq!(spar.then(Outline::new(4.0).cap(Cap::Square)).area()?, 4.0 * 14.0);
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

impl Named for Cap {
    const WHAT: &'static str = "cap";
    const NAMES: &'static [&'static str] = &["butt", "round", "square"];
    const VALUES: &'static [Self] = &[Self::Butt, Self::Round, Self::Square];
}

/// How a stroke turns a corner.
///
/// ```
/// use chordane::prelude::*;
/// let elbow = Path::open([(0.0, 0.0), (10.0, 0.0), (10.0, 10.0)]);
/// let area = |join: Join| elbow.then(Outline::new(4.0).join(join)).area();
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

impl Named for Join {
    const WHAT: &'static str = "join";
    const NAMES: &'static [&'static str] = &["mitre", "round", "bevel"];
    const VALUES: &'static [Self] = &[Self::Mitre, Self::Round, Self::Bevel];
}

/// The stroke's area as a reshape: a line in, an area out.
///
/// The area is that which the stroke paints, in contours that do not cross: sides beside sides, arcs beside arcs of
/// circles, round joins and caps, and cubics within 0.005 sheet units beside other curves (a hundredth of the width where
/// that is less, though no finer than a millionth of the whole). Dashes are cut out of the curves. A line that goes over
/// itself so often that its edges cross 300,000 times comes with its overlaps, for the nonzero rule.
///
/// A width of zero gives an empty path; a negative one is a fault. A contour of no length gives a dot with round caps, a
/// square with square ones and nothing with butt ones; a lone vertex gives nothing. Cost: n log n and the number of
/// crossings.
///
/// ```
/// use chordane::prelude::*;
/// let spar = start((0.0, 0.0)).line((100.0, 0.0)).open();
/// let area = spar.then(Outline::new(6.0).cap(Cap::Round));
/// assert_eq!(area.data(), "M0-3H100A3 3 0 0 1 103 0 3 3 0 0 1 100 3H0A3 3 0 0 1-3 0 3 3 0 0 1 0-3Z");
/// ```
#[derive(Clone, Debug, PartialEq)]
pub struct Outline {
    pub(crate) width: f64,
    pub(crate) cap: Cap,
    pub(crate) join: Join,
    pub(crate) mitre_limit: f64,
    pub(crate) dash: Vec<f64>,
    pub(crate) dash_offset: f64,
}

/// How near curves beside curves are to the true ones where nothing else is said, in sheet units.
pub(crate) const FINE: f64 = 0.005;

impl Outline {
    /// A stroke of a width in sheet units, with butt caps and mitre joins up to a limit of 4, not dashed.
    #[must_use]
    pub fn new(width: f64) -> Self {
        let (cap, join) = Default::default();
        Self { width, cap, join, mitre_limit: 4.0, dash: Vec::new(), dash_offset: 0.0 }
    }

    /// The same with another cap.
    #[must_use]
    pub fn cap(mut self, cap: Cap) -> Self {
        self.cap = cap;
        self
    }

    /// The same with another join.
    #[must_use]
    pub fn join(mut self, join: Join) -> Self {
        self.join = join;
        self
    }

    /// The same with another mitre limit: the longest mitre, from inner to outer corner, as a multiple of the
    /// width. At 1 and below every corner is bevelled.
    #[must_use]
    pub fn mitre_limit(mut self, limit: f64) -> Self {
        self.mitre_limit = limit;
        self
    }

    /// The same, dashed: lengths of line and gap in turn, beginning so far into the pattern.
    ///
    /// A pattern without a length above zero is not a dash. Each contour begins the pattern anew, and on a closed one it runs on
    /// over the start.
    #[must_use]
    pub fn dash(mut self, pattern: impl Into<Vec<f64>>, offset: f64) -> Self {
        self.dash = pattern.into();
        self.dash_offset = offset;
        self
    }

    pub(crate) fn check(&self) -> Carried {
        let mut fault = Carried::default();
        fault.not_negative("outlined", "width", self.width);
        fault.not_negative("outlined", "mitre limit", self.mitre_limit);
        fault.finite("outlined", "dash offset", self.dash_offset);
        for length in &self.dash {
            fault.not_negative("outlined", "dash length", *length);
        }
        fault
    }

    /// The width in sheet units.
    #[must_use]
    pub fn width(&self) -> f64 {
        self.width
    }

    /// How open ends look.
    #[must_use]
    pub fn get_cap(&self) -> Cap {
        self.cap
    }

    /// How corners look.
    #[must_use]
    pub fn get_join(&self) -> Join {
        self.join
    }

    /// The longest mitre as a multiple of the width.
    #[must_use]
    pub fn get_mitre_limit(&self) -> f64 {
        self.mitre_limit
    }

    /// Lengths of line and gap in turn, and how far into the pattern the line begins, in sheet units.
    #[must_use]
    pub fn get_dash(&self) -> (&[f64], f64) {
        (&self.dash, self.dash_offset)
    }
}
