//! Dashes as a reshape: the pieces that a pattern of lengths leaves, with curves kept.

use super::Reshape;
use super::chain::reshaped;
use super::corners::corner_distances;
use super::pattern::{MAX_DASHES, even, is_whole, joined, lay};
use crate::ground::FaultSlot;
use crate::path::{Contour, Path};

/// How dashes are made to fit a contour.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize), serde(rename_all = "kebab-case"))]
pub enum DashFit {
    /// Not at all: the lengths are as given.
    #[default]
    None,
    /// Stretched or squeezed so that a whole number of patterns goes on each contour: round a closed one, or
    /// from a whole dash at the start of an open one to a whole dash at its end.
    Whole,
    /// Stretched or squeezed from corner to corner, so that the middle of a dash lies on every corner. The
    /// offset is not used then.
    Corners,
}

/// A line in pieces: lengths of line and gap in turn, in sheet units, along each contour from its start.
///
/// An odd number of lengths is gone through twice. A pattern without a length above zero leaves the path whole, as does
/// one that would give more than [`MAX_DASHES`] dashes on a contour. The pieces are open contours; arcs and curves stay
/// what they are. With the whole length in the pattern a line is drawn in from nothing; [`Trim`](super::Trim) says it
/// plainly.
///
/// ```
/// use chordane::prelude::*;
/// let spar = start((0.0, 0.0)).line((32.0, 0.0)).open();
/// assert_eq!(spar.then(Dash::new([10.0, 5.0])).data(), "M0 0H10M15 0H25M30 0H32");
/// assert_eq!(spar.then(Dash { offset: 8.0, ..Dash::new([10.0, 5.0]) }).data(), "M0 0H2M7 0H17M22 0H32");
/// // Stretched a little, so that it ends with a whole dash.
/// let spar = start((0.0, 0.0)).line((28.0, 0.0)).open();
/// assert_eq!(spar.then(Dash { fit: DashFit::Whole, ..Dash::new([8.0, 4.0]) }).data(), "M0 0H7M10.5 0H17.5M21 0H28");
/// ```
#[derive(Clone, Debug, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize))]
pub struct Dash {
    /// Lengths of line and gap in turn, in sheet units. A negative length is a fault.
    pub pattern: Vec<f64>,
    /// How far into the pattern each contour begins. Counting it up draws the dashes back toward the start.
    pub offset: f64,
    /// How they are made to fit.
    pub fit: DashFit,
}

impl Dash {
    /// Lengths of line and gap in turn. A negative length is a fault.
    #[must_use]
    pub fn new(pattern: impl Into<Vec<f64>>) -> Self {
        Self { pattern: pattern.into(), offset: 0.0, fit: DashFit::None }
    }

    fn check(&self) -> FaultSlot {
        let mut fault = FaultSlot::default();
        fault.finite("dashed", "dash offset", self.offset);
        for length in &self.pattern {
            fault.not_negative("dashed", "dash length", *length);
        }
        fault
    }

    /// The stretches of a line of some length that are drawn: from where to where.
    fn stretches(&self, contour: &Contour, corners: &[f64], length: f64) -> Option<Vec<(f64, f64)>> {
        let (pattern, period) = even(&self.pattern, length)?;
        let first = pattern.first().copied().unwrap_or(0.0);
        let mut drawn = Vec::new();
        match self.fit {
            DashFit::None => lay(&mut drawn, &pattern, 1.0, self.offset, (0.0, length)),
            DashFit::Whole if contour.is_closed() => {
                let scale = length / (period * (length / period).round().max(1.0));
                lay(&mut drawn, &pattern, scale, self.offset * scale, (0.0, length));
            }
            DashFit::Whole => {
                let whole = period * ((length - first) / period).round().max(0.0) + first;
                let scale = length / whole;
                lay(&mut drawn, &pattern, scale, self.offset * scale, (0.0, length));
            }
            DashFit::Corners => {
                let mut ends = corners.to_vec();
                match (contour.is_closed(), ends.first()) {
                    (true, Some(first)) => ends.push(first + length),
                    (true, None) => ends.extend([0.0, length]),
                    _ => {}
                }
                for pair in ends.windows(2) {
                    let &[from, to] = pair else { continue };
                    let scale = (to - from) / (period * ((to - from) / period).round().max(1.0));
                    lay(&mut drawn, &pattern, scale, 0.5 * first * scale, (from, to));
                }
            }
        }
        Some(joined(drawn, contour.is_closed(), length))
    }
}

impl Reshape for Dash {
    fn reshape(&self, path: &Path) -> Path {
        reshaped(
            "dashed",
            path,
            |fault| fault.take_from(&self.check()),
            |fault| {
                let mut dashes: Vec<Contour> = Vec::new();
                for contour in path.contours() {
                    let (corners, length) = corner_distances(contour);
                    let Some(stretches) = self.stretches(contour, &corners, length) else {
                        dashes.push(contour.clone());
                        continue;
                    };
                    if !fault.at_most("dashed", "dashes", dashes.len() + stretches.len(), MAX_DASHES) {
                        break;
                    }
                    let survey = contour.survey();
                    for (from, to) in stretches {
                        if is_whole((from, to), contour.is_closed(), length) {
                            dashes.push(contour.clone());
                            continue;
                        }
                        let within =
                            |at: f64| if contour.is_closed() && at > length { at - length } else { at };
                        // A dash of no length is a dot; it keeps its direction by being drawn out by next to nothing.
                        let to = to.max(from + 1e-9 * length);
                        dashes.extend(survey.section(within(from), within(to)).contours().iter().cloned());
                    }
                }
                dashes
            },
        )
    }
}

impl Path {
    /// The path in dashes: lengths of line and gap in turn; see [`Dash`].
    #[must_use]
    pub fn dashed(&self, pattern: impl Into<Vec<f64>>) -> Self {
        self.then(Dash::new(pattern))
    }
}
