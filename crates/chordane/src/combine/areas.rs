//! Union, intersection, difference, exclusive or; and a path without crossings.

use crate::arrange::{Part, arranged, combined, scaled_to_numbers, too_many};
use crate::ground::FaultSlot;
use crate::number::Point;
use crate::path::{Contour, FillRule, MAX_SEGMENT_SWEEP_DEGREES, Path, Segment};

impl Path {
    /// The union: the area that this path or `other` encloses, each under its own fill rule. Open contours are treated as closed.
    ///
    /// The result has no crossings: outlines run clockwise as seen and holes anticlockwise, under the nonzero rule, and
    /// contours touch in single spots at most. Curves stay curves: pieces of arcs are arcs, pieces of cubics cubics.
    /// Tags are not kept. Anything nearer together than 1e-10 of the extent of both counts as one place, so slivers
    /// thinner than that may go, and the rim is that exact. Where curves touch so closely for so long that their sides cannot be
    /// told apart, gaps of up to 1e-6 of the extent are closed by straight sides, or all is done again with up to 3e4 times the
    /// tolerance. Nothing and nothing gives an empty path.
    ///
    /// Cost: n log n and the number of crossings; more than four million of those are a fault.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let sail = rectangle((0.0, 0.0), 10.0, 10.0);
    /// let both = sail.union(&rectangle((6.0, 0.0), 10.0, 10.0));
    /// assert_eq!(both.data(), "M0 0H16V10H0Z");
    /// ```
    #[must_use]
    pub fn union(&self, other: impl AsRef<Self>) -> Self {
        combined("union", self, other.as_ref(), |a, b| a || b)
    }

    /// What both paths enclose; as [`Path::union`] otherwise.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let lens = circle((0.0, 0.0), 10.0).intersection(&circle((12.0, 0.0), 10.0));
    /// let bounds = lens.bounds().unwrap();
    /// assert!((bounds.size() - pt(8.0, 16.0)).length() < 1e-9);
    /// ```
    #[must_use]
    pub fn intersection(&self, other: impl AsRef<Self>) -> Self {
        combined("intersection", self, other.as_ref(), |a, b| a && b)
    }

    /// What this path encloses and the other does not; as [`Path::union`] otherwise.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let hoop = circle((0.0, 0.0), 10.0).difference(&circle((0.0, 0.0), 7.0));
    /// assert_eq!(hoop.contours().len(), 2);
    /// assert!(hoop.difference(&hoop).is_empty());
    /// ```
    #[must_use]
    pub fn difference(&self, other: impl AsRef<Self>) -> Self {
        combined("difference", self, other.as_ref(), |a, b| a && !b)
    }

    /// What exactly one of the two paths encloses; as [`Path::union`] otherwise.
    #[must_use]
    pub fn xor(&self, other: impl AsRef<Self>) -> Self {
        combined("xor", self, other.as_ref(), |a, b| a != b)
    }

    /// The same painted area without crossings or overlaps, for the nonzero rule; as [`Path::union`] otherwise.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let bow = start((0.0, 0.0)).line((10.0, 10.0)).line((10.0, 0.0)).line((0.0, 10.0)).close();
    /// assert_eq!(bow.simplified().data(), "M0 0 5 5 0 10ZM10 10 5 5 10 0Z");
    /// ```
    #[must_use]
    pub fn simplified(&self) -> Self {
        combined("simplified", self, &Self::empty(), |a, _| a)
    }
}

/// What any of many paths encloses, each under its own fill rule, found in one go: n log n and the number of crossings,
/// not pair by pair. As [`Path::union`] otherwise.
///
/// ```
/// use chordane::prelude::*;
/// let beads = (0..100).map(|i| circle((f64::from(i) * 8.0, 0.0), 5.0));
/// assert_eq!(union_all(beads).contours().len(), 1);
/// ```
#[must_use]
pub fn union_all<P: AsRef<Path>>(paths: impl IntoIterator<Item = P>) -> Path {
    let paths: Vec<P> = paths.into_iter().collect();
    let paths: Vec<&Path> = paths.iter().map(AsRef::as_ref).collect();
    Path::limited("union_all", || united(&paths))
}

fn united(paths: &[&Path]) -> Path {
    if let Some((scaled, factor)) = scaled_to_numbers(paths, 0.0) {
        return united(&scaled.iter().collect::<Vec<_>>()).scaled(1.0 / factor);
    }
    let mut fault = FaultSlot::default();
    let mut all: Vec<Contour> = Vec::new();
    let mut weights: Vec<i32> = Vec::new();
    for path in paths {
        fault.take_from(path.carried());
        match path.contours() {
            // Turning one way only, and once: nothing of it can cancel.
            [only] if turns_once(only).is_some() => {
                weights.push(if turns_once(only) == Some(true) { 1 } else { -1 });
                all.push(only.clone());
            }
            _ => {
                let (plain, _, own) = path.simplified().into_parts();
                fault.take_from(&own);
                weights.extend(plain.iter().map(|_| 1));
                all.extend(plain);
            }
        }
    }
    let parts: Vec<Part<'_>> =
        all.iter().zip(weights).map(|(contour, weight)| Part { contour, operand: 0, weight }).collect();
    if fault.get().is_some() {
        return Path::from_parts(Vec::new(), FillRule::Nonzero, fault);
    }
    match arranged(&parts, &|[a, _]| a != 0) {
        Some(contours) => Path::from_contours(contours),
        None => too_many("union_all", fault),
    }
}

/// Whether a closed contour bends one way only and comes round once, and then whether that is clockwise.
fn turns_once(contour: &Contour) -> Option<bool> {
    let mut directions: Vec<Point> = Vec::new();
    for segment in contour.segments() {
        match segment {
            Segment::Line { from, to } => directions.push(to - from),
            Segment::Quad { from, control, to } => directions.extend([control - from, to - control]),
            Segment::Cubic { from, control1, control2, to } => {
                directions.extend([control1 - from, control2 - control1, to - control2]);
            }
            Segment::Arc(arc) => {
                let whole = arc.centred()?;
                if whole.sweep.degrees().abs() > MAX_SEGMENT_SWEEP_DEGREES {
                    return None;
                }
                directions.extend([whole.velocity(0.0), whole.velocity(1.0)]);
            }
        }
    }
    if !contour.is_closed() && contour.end() != contour.start() {
        directions.push(contour.start() - contour.end());
    }
    directions.retain(|step| *step != Point::ZERO);
    let (first, last) = (*directions.first()?, *directions.last()?);
    let (mut sum, mut least, mut most) = (0.0, 0.0_f64, 0.0_f64);
    for (a, b) in std::iter::once((last, first)).chain(directions.windows(2).map(|pair| (pair[0], pair[1]))) {
        let turn = a.perp_dot(b).atan2(a.dot(b));
        // Straight back: it may lie on either side.
        if turn.abs() > 3.1 {
            return None;
        }
        (least, most, sum) = (least.min(turn), most.max(turn), sum + turn);
    }
    const SLACK: f64 = 1e-9;
    let once = (sum.abs() - std::f64::consts::TAU).abs() < 1e-6;
    let one_way = least >= -SLACK || most <= SLACK;
    (once && one_way).then_some(sum > 0.0)
}
