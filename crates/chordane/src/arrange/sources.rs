//! The segments that an arrangement is made of: closed contours, cleaned of what only looks like a curve.

use crate::measure::{Round, loop_of, straight_stops};
use crate::number::{Angle, Cell, Point, deg};
use crate::path::{Affine, Arc, Contour, MAX_SEGMENT_SWEEP_DEGREES, Segment, by};

/// A contour that takes part, and as what.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Part<'a> {
    pub(crate) contour: &'a Contour,
    /// Which of the two operands it belongs to.
    pub(crate) operand: usize,
    /// What one clockwise turn counts.
    pub(crate) weight: i32,
}

/// A segment of the input.
#[derive(Clone, Debug)]
pub(crate) struct Source {
    pub(crate) segment: Segment,
    /// An arc by its centre.
    pub(crate) own: Option<Arc>,
    /// The same turned, so that next to nothing is level.
    pub(crate) turned: Segment,
    /// The turned arc by its centre, and the angle before squashing at which it is at its highest y.
    pub(crate) whole: Option<(Arc, Angle)>,
    pub(crate) bounds: Cell,
    pub(crate) operand: usize,
    pub(crate) weight: i32,
    /// The source that goes on where this one ends.
    pub(crate) next: usize,
    /// Which part it is of, and which segment of that.
    pub(crate) part: usize,
    pub(crate) number: usize,
}

/// The angle by which everything is turned for looking along level lines: no side that people draw is level then.
const FRAME_ROTATION_DEGREES: f64 = 23.708_518_301_7;

pub(crate) fn turn() -> Affine {
    by::rotation(deg(FRAME_ROTATION_DEGREES))
}

impl Source {
    fn new(segment: Segment, (part, of): (usize, &Part<'_>), number: usize, next: usize) -> Self {
        let turned = segment.transformed(&turn());
        let whole = if let Segment::Arc(arc) = &turned { arc.centred() } else { None };
        let whole = whole.map(|whole| (whole, whole.extreme_angles()[1]));
        let own = if let Segment::Arc(arc) = &segment { arc.centred() } else { None };
        let (operand, weight) = (of.operand, of.weight);
        Self { bounds: segment.bounds(), segment, own, turned, whole, operand, weight, next, part, number }
    }
}

impl Source {
    /// The place at a parameter.
    pub(crate) fn at(&self, t: f64) -> Point {
        match &self.own {
            Some(whole) if t > 0.0 && t < 1.0 => whole.at(t),
            _ => self.segment.at(t),
        }
    }

    /// As an arc of a circle.
    pub(crate) fn round(&self) -> Option<Round<'_>> {
        Round::known(&self.segment, self.own.as_ref()?)
    }
}

/// The sources of all contours, each closed, as filling takes them. A contour without a size gives none.
pub(crate) fn sources(parts: &[Part<'_>], off: f64) -> Vec<Source> {
    let mut all: Vec<Source> = Vec::new();
    let mut own: Vec<(Segment, usize)> = Vec::new();
    let mut pieces: Vec<Segment> = Vec::new();
    for (at, part) in parts.iter().enumerate() {
        own.clear();
        let contour = part.contour;
        let mut count = 0;
        for (number, segment) in contour.segments().enumerate() {
            plain_pieces(&segment, off, &mut pieces);
            own.extend(pieces.drain(..).map(|piece| (piece, number)));
            count = number + 1;
        }
        if !contour.is_closed() && contour.end() != contour.start() {
            own.push((Segment::Line { from: contour.end(), to: contour.start() }, count));
        }
        own.retain(|(segment, _)| segment.bounds().size() != Point::ZERO);
        let first = all.len();
        for (i, (segment, number)) in own.iter().enumerate() {
            let next = if i + 1 < own.len() { first + i + 1 } else { first };
            all.push(Source::new(*segment, (at, part), *number, next));
        }
    }
    all
}

/// A segment as pieces that do not cross themselves; a curve that is straight becomes straight sides over the places
/// where it turns round.
fn plain_pieces(segment: &Segment, off: f64, out: &mut Vec<Segment>) {
    let (from, to) = (segment.from(), segment.to());
    match segment {
        Segment::Line { .. } => return out.push(*segment),
        Segment::Arc(arc) => {
            let whole = arc.centred().filter(|_| arc.large || from.distance(to) > off);
            return match whole {
                None => out.push(Segment::Line { from, to }),
                // Of half a turn or nearly a whole one the ends do not say well where the centre is: turned, it would be another
                // arc.
                Some(whole) if whole.sweep.degrees().abs() > MAX_SEGMENT_SWEEP_DEGREES => {
                    whole.pieces(from, to, |piece| out.push(Segment::Arc(piece)));
                }
                Some(_) => out.push(*segment),
            };
        }
        Segment::Quad { .. } | Segment::Cubic { .. } => {}
    }
    if let Some(stops) = straight_stops(segment, 0.25 * off) {
        let mut at = from;
        for spot in stops {
            out.push(Segment::Line { from: at, to: spot });
            at = spot;
        }
        // One that comes back to its start is a loop, whatever rounding makes of the parameters.
    } else if let Some((s, t)) = loop_of(segment).or((from.distance(to) <= off).then_some((0.0, 1.0))) {
        let (left, right) = segment.split(s.midpoint(t));
        out.extend([left, right]);
    } else {
        out.push(*segment);
    }
}
