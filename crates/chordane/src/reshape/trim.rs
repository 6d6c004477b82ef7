//! A part of a line, by shares or by distances.

use super::Reshape;
use super::chain::reshaped;
use crate::ground::FaultSlot;
use crate::path::{Contour, Path};

/// The part of a path from one place to another, by shares of its length from 0 to 1 or by distances.
///
/// On a path of one closed contour, and with [`Trim::each`] on every closed contour, the part runs on over the start: with
/// places beyond 0 and 1, with an end before the start, or by the offset. On other paths places are kept within the line, and
/// an end before the start gives an empty path. A part of a whole turn or more gives the path itself. Arcs and curves stay
/// what they are.
///
/// ```
/// use chordane::prelude::*;
/// let tail = start((0.0, 0.0)).line((40.0, 0.0)).open();
/// assert_eq!(tail.then(Trim::new(0.25, 0.5)).data(), "M10 0H20");
/// assert_eq!(tail.then(Trim { distances: true, ..Trim::new(5.0, 12.0) }).data(), "M5 0H12");
/// let hem = rectangle((0.0, 0.0), 10.0, 10.0);
/// assert_eq!(hem.then(Trim { offset: 0.875, ..Trim::new(0.0, 0.25) }).data(), "M0 5V0H5");
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Trim {
    /// Where the part begins: a fraction of the length, or a distance in sheet units.
    pub from: f64,
    /// Where the part ends.
    pub to: f64,
    /// By how much the part is moved on along the line; on closed contours it comes round.
    pub offset: f64,
    /// Whether start, end and offset are distances in sheet units, not fractions.
    pub distances: bool,
    /// Whether each contour is trimmed by itself; otherwise all contours count as one line, one after the other.
    pub each: bool,
}

impl Trim {
    /// From one share of the whole length to another.
    #[must_use]
    pub fn new(from: f64, to: f64) -> Self {
        Self { from, to, offset: 0.0, distances: false, each: false }
    }

    fn part(&self, path: &Path) -> Vec<Contour> {
        let Ok(survey) = path.survey() else { return Vec::new() };
        let length = survey.length();
        let unit = if self.distances { 1.0 } else { length };
        let (from, to) = ((self.from + self.offset) * unit, (self.to + self.offset) * unit);
        let round = matches!(path.contours(), [only] if only.is_closed());
        if !round {
            return survey.section(from, to).contours().to_vec();
        }
        if to - from >= length {
            return path.contours().to_vec();
        }
        let (from, to) = (from.rem_euclid(length), to.rem_euclid(length));
        let part = if from == to {
            Path::empty()
        } else if to == 0.0 {
            survey.section(from, length)
        } else {
            survey.section(from, to)
        };
        part.contours().to_vec()
    }
}

impl Reshape for Trim {
    fn reshape(&self, path: &Path) -> Path {
        let check = |fault: &mut FaultSlot| {
            for (what, value) in [("start", self.from), ("end", self.to), ("offset", self.offset)] {
                fault.finite("trimmed", what, value);
            }
        };
        reshaped("trimmed", path, check, |_| {
            if self.each {
                let one = |contour: &Contour| self.part(&Path::from_contours([contour.clone()]));
                path.contours().iter().flat_map(one).collect()
            } else {
                self.part(path)
            }
        })
    }
}

impl Path {
    /// The part of the path between two shares of its length; see [`Trim`].
    #[must_use]
    pub fn trimmed(&self, from: f64, to: f64) -> Self {
        self.then(Trim::new(from, to))
    }
}
