//! Fewer points, and more.

use super::Reshape;
use super::chain::reshaped;
use crate::ground::{FaultSlot, exhausted};
use crate::number::Point;
use crate::path::{Contour, ContourBuilder, Path, Segment};

/// More pieces than these fill the memory before they are seen.
const MAX_PIECES: usize = 10_000_000;

/// Fewer points along straight sides: none that is left out was farther than a tolerance from the line that is left.
///
/// Curves stay, and so do their ends. A closed contour keeps its first vertex and the one farthest from it. The method is
/// that of Ramer (1972) and of Douglas and Peucker (1973). Cost: n log n for lines that do not wind too much.
///
/// ```
/// use chordane::prelude::*;
/// let wavy = Path::open([(0.0, 0.0), (10.0, 0.2), (20.0, -0.2), (30.0, 0.0), (30.0, 20.0)]);
/// assert_eq!(wavy.then(Thin::new(0.5)).data(), "M0 0H30V20");
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Thin {
    /// In sheet units. Zero leaves out what lies exactly on a line; a negative one is a fault.
    pub tolerance: f64,
}

impl Thin {
    /// To within a tolerance in sheet units. Zero leaves out what lies exactly on a line; a negative one is a fault.
    #[must_use]
    pub fn new(tolerance: f64) -> Self {
        Self { tolerance }
    }
}

impl Reshape for Thin {
    fn reshape(&self, path: &Path) -> Path {
        let check = |fault: &mut FaultSlot| _ = fault.not_negative("thinned", "tolerance", self.tolerance);
        let thin = |contour: &Contour| thinned(contour, self.tolerance);
        reshaped("thinned", path, check, |_| path.contours().iter().map(thin).collect())
    }
}

fn thinned(contour: &Contour, tolerance: f64) -> Contour {
    let mut builder = ContourBuilder::new(contour.start());
    let mut points = vec![contour.start()];
    let flush = |points: &mut Vec<Point>, builder: &mut ContourBuilder, closed: bool| {
        // A line that comes round has no two ends to be measured from: it is taken in two halves.
        let far = if closed { farthest_from(points) } else { points.len().saturating_sub(1) };
        let (front, back) = (points.get(..=far).unwrap_or_default(), points.get(far..).unwrap_or_default());
        for line in [front, back] {
            kept(line, tolerance).into_iter().skip(1).for_each(|p| builder.line(p));
        }
        points.clear();
    };
    let straight = contour.segments().all(|segment| matches!(segment, Segment::Line { .. }));
    for segment in contour.segments() {
        match segment {
            Segment::Line { to, .. } => points.push(to),
            curve => {
                flush(&mut points, &mut builder, false);
                builder.segment(&curve);
                points.push(curve.to());
            }
        }
    }
    flush(&mut points, &mut builder, straight && contour.is_closed());
    let whole = builder.finish(contour.is_closed());
    // The closing side needs no vertex of its own.
    let ends_home = whole.is_closed() && whole.vertex_count() > 1 && whole.end() == whole.start();
    if ends_home && straight { whole.closed_at_start() } else { whole }
}

fn farthest_from(points: &[Point]) -> usize {
    let from = points.first().copied().unwrap_or_default();
    let by_distance = |a: &(usize, &Point), b: &(usize, &Point)| {
        a.1.distance_squared(from).total_cmp(&b.1.distance_squared(from))
    };
    points.iter().enumerate().max_by(by_distance).map_or(0, |(i, _)| i)
}

/// The points that a line keeps, both ends included.
fn kept(points: &[Point], tolerance: f64) -> Vec<Point> {
    let mut keep = vec![false; points.len()];
    if let Some(last) = points.len().checked_sub(1) {
        let mut mark = |i: usize| keep.get_mut(i).map(|slot| *slot = true);
        mark(0);
        mark(last);
        let mut rest = vec![(0, last)];
        while let Some((from, to)) = rest.pop() {
            if exhausted(1 + to.saturating_sub(from)) {
                break;
            }
            let (Some(a), Some(b)) = (points.get(from), points.get(to)) else { continue };
            let side = Segment::Line { from: *a, to: *b };
            let between = points.get(from + 1..to).unwrap_or_default();
            let far =
                between.iter().map(|p| side.distance(*p)).enumerate().max_by(|p, q| p.1.total_cmp(&q.1));
            if let Some((i, _)) = far.filter(|(_, distance)| *distance > tolerance) {
                let at = from + 1 + i;
                mark(at);
                rest.extend([(from, at), (at, to)]);
            }
        }
    }
    points.iter().zip(keep).filter_map(|(p, keep)| keep.then_some(*p)).collect()
}

/// More vertices on the same line: every segment is split, curves where their parameter says.
///
/// ```
/// use chordane::prelude::*;
/// let side = start((0.0, 0.0)).line((9.0, 0.0)).open();
/// assert_eq!(side.then(Subdivide::into(3)).data(), "M0 0H3 6 9");
/// assert_eq!(side.then(Subdivide::longest(5.0)).data(), "M0 0H4.5 9");
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Subdivide {
    /// Into how many pieces each segment is split at least; 0 and 1 change nothing.
    pub pieces: usize,
    /// How long a piece may be at most, in sheet units; infinite where that is not limited. Zero and below are a fault.
    pub longest: f64,
}

impl Subdivide {
    /// Every segment into `pieces` pieces; 0 and 1 change nothing.
    #[must_use]
    pub fn into(pieces: usize) -> Self {
        Self { pieces, longest: f64::INFINITY }
    }

    /// Every segment into as few pieces as it takes for none to be longer than this, in sheet units. Zero and below are a
    /// fault.
    #[must_use]
    pub fn longest(length: f64) -> Self {
        Self { pieces: 1, longest: length }
    }

    fn count(&self, segment: &Segment) -> f64 {
        let by_length =
            if self.longest == f64::INFINITY { 1.0 } else { (segment.length() / self.longest).ceil() };
        by_length.max(self.pieces as f64).max(1.0)
    }
}

impl Reshape for Subdivide {
    fn reshape(&self, path: &Path) -> Path {
        let check = |fault: &mut FaultSlot| {
            if self.longest != f64::INFINITY {
                fault.positive("subdivided", "longest piece", self.longest);
            }
            let pieces: f64 = path.segments().map(|segment| self.count(&segment)).sum();
            fault.at_most("subdivided", "pieces", pieces.min(1e18) as usize, MAX_PIECES);
        };
        let cut = |contour: &Contour| {
            let mut builder = ContourBuilder::new(contour.start());
            for segment in contour.segments() {
                let count = self.count(&segment) as usize;
                let mut rest = segment;
                for left in (2..=count).rev() {
                    let (piece, behind) = rest.split(1.0 / left as f64);
                    builder.segment(&piece);
                    rest = behind;
                }
                // The closing side ends where the contour begins, which is there already.
                let home = contour.is_closed()
                    && matches!(rest, Segment::Line { .. })
                    && rest.to() == contour.start();
                if !home {
                    builder.segment(&rest);
                }
            }
            builder.finish(contour.is_closed())
        };
        reshaped("subdivided", path, check, |_| path.contours().iter().map(cut).collect())
    }
}

impl Path {
    /// The path with fewer points along straight sides; see [`Thin`].
    #[must_use]
    pub fn thinned(&self, tolerance: f64) -> Self {
        self.then(Thin::new(tolerance))
    }

    /// The path with every segment split into `pieces` pieces; see [`Subdivide`].
    #[must_use]
    pub fn subdivided(&self, pieces: usize) -> Self {
        self.then(Subdivide::into(pieces))
    }
}
