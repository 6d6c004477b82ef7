//! Places on paths, and what two segments have in common.

/// A place on a path, by its contour, the segment of the contour and the parameter on that.
///
/// ```
/// use chordane::prelude::*;
/// let spar = Path::open([(0.0, 0.0), (10.0, 0.0), (10.0, 10.0)]);
/// let cross = spar.crossings_with(&Path::open([(0.0, 5.0), (20.0, 5.0)]))?;
/// let place = cross[0].first;
/// assert_eq!((place.contour, place.segment, place.parameter), (0, 1, 0.5));
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Place {
    /// The contour, counted from 0.
    pub contour: usize,
    /// The segment of the contour, counted from 0; a closing side is the last one.
    pub segment: usize,
    /// The parameter on the segment, from 0 up to 1.
    pub parameter: f64,
}

/// What two segments have in common: parameters on the one and on the other.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) enum Meet {
    /// A place.
    At(f64, f64),
    /// A stretch, from one end to the other.
    Along([f64; 2], [f64; 2]),
}
