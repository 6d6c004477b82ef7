//! Paths sent through a function of the point, and bent along another path.

use super::Reshape;
use super::chain::reshaped;
use crate::ground::{Fault, FaultKind, unlimited};
use crate::measure::Survey;
use crate::number::Point;
use crate::path::smooth;
use crate::path::{ContourBuilder, Path, Segment};

/// How near a warped path is to the true one where nothing else is said, in sheet units.
pub(super) const FINE: f64 = 0.01;

/// A straight side of the image is one where it strays from its chord by no more than this share of the tolerance.
const STRAIGHT_FRACTION: f64 = 1e-3;

/// How far apart on a segment, in its parameter, two points are looked at to see how the image moves.
const DIFFERENCE_STEP: f64 = 1e-5;

/// A path with every point sent through a function.
///
/// Segments come out as cubics, as many as it takes to come within a tolerance; what is straight in the image is a straight
/// side. The function should be smooth along the path; where it jumps, the path does as nearly as cubics can. A result that is
/// not finite is a fault.
///
/// ```
/// use chordane::prelude::*;
/// // A swell that rises with x.
/// let swell = Warp::new(|p: Point| pt(p.x, p.y + 8.0 * (p.x / 20.0).sin()));
/// let line = Path::open([(0.0, 0.0), (120.0, 0.0)]).then(swell);
/// assert!((line.bounds().unwrap().size().y - 16.0).abs() < 0.05);
/// ```
#[derive(Clone, Copy, Debug)]
pub struct Warp<F> {
    /// Where each point comes to.
    pub function: F,
    /// How near the cubics are to the true curves, in sheet units; 0.01 by default, and zero and below are a fault.
    pub tolerance: f64,
}

impl<F: Fn(Point) -> Point> Warp<F> {
    /// Through a function, to within 0.01 sheet units.
    #[must_use]
    pub fn new(function: F) -> Self {
        Self { function, tolerance: FINE }
    }
}

impl<F: Fn(Point) -> Point> Reshape for Warp<F> {
    fn reshape(&self, path: &Path) -> Path {
        warped("warped", path, self.tolerance, &|p| unlimited(|| (self.function)(p)))
    }
}

impl Path {
    /// The path with every point sent through a function, to within a tolerance in sheet units; see [`Warp`].
    #[must_use]
    pub fn warped(&self, tolerance: f64, function: impl Fn(Point) -> Point) -> Self {
        self.then(Warp { tolerance, ..Warp::new(function) })
    }

    /// The path bent along another; see [`Bend`].
    #[must_use]
    pub fn bent(&self, spine: &Self) -> Self {
        self.then(Bend::along(spine))
    }
}

fn warped(call: &'static str, path: &Path, tolerance: f64, to: &impl Fn(Point) -> Point) -> Path {
    reshaped(
        call,
        path,
        |fault| _ = fault.positive(call, "tolerance", tolerance),
        |fault| {
            let mut contours = Vec::with_capacity(path.contours().len());
            for contour in path.contours() {
                let mut builder = ContourBuilder::new(to(contour.start()));
                for segment in contour.segments() {
                    if let Some(side) = straight(&segment, tolerance, to) {
                        // The side home is the closing one.
                        if !(contour.is_closed() && segment.to() == contour.start()) {
                            builder.line(side);
                        }
                        continue;
                    }
                    let motion = |t: f64| {
                        let (a, b) = ((t - DIFFERENCE_STEP).max(0.0), (t + DIFFERENCE_STEP).min(1.0));
                        (to(segment.at(t)), (to(segment.at(b)) - to(segment.at(a))) / (b - a))
                    };
                    let image = smooth((0.0, 1.0), 1, false, tolerance, motion);
                    image.segments().for_each(|piece| builder.segment(&piece));
                }
                let whole = builder.finish(contour.is_closed());
                if let Some(bad) = whole.points().iter().find(|p| !p.is_finite()) {
                    fault.note(Fault::of(call, FaultKind::PointNotFinite { x: bad.x, y: bad.y }));
                    break;
                }
                contours.push(whole);
            }
            contours
        },
    )
}

/// The end of a straight side that is straight in the image too.
fn straight(segment: &Segment, tolerance: f64, to: &impl Fn(Point) -> Point) -> Option<Point> {
    let Segment::Line { from, to: end } = segment else { return None };
    let (a, b) = (to(*from), to(*end));
    let near = |share: f64| {
        let image = to(from.lerp(*end, share));
        (Segment::Line { from: a, to: b }).distance(image) <= STRAIGHT_FRACTION * tolerance
    };
    [0.5, 0.21, 0.37, 0.68, 0.86].into_iter().all(near).then_some(b)
}

/// A path bent along another one: its x is how far along the spine it is, its y how far aside, to the right as travelled.
///
/// Beyond the ends of an open spine it goes on straight; on a closed one it comes round. Round a corner of the spine the
/// path tears, as there is no smooth way round it. A spine without a length gives an empty path; of several contours the
/// first one counts.
///
/// ```
/// use chordane::prelude::*;
/// let ribbon = rectangle((0.0, -4.0), 60.0, 8.0);
/// let bow = start((0.0, 0.0)).arc_about((40.0, 0.0), deg(90.0)).open();
/// let bent = ribbon.then(Bend { fitted: true, ..Bend::along(&bow) });
/// assert!(bent.inside((39.0, -40.0 + 3.0)) && !bent.inside((39.0, -40.0 + 5.0)));
/// ```
#[derive(Clone, Debug)]
pub struct Bend {
    /// The path that it is bent along.
    pub spine: Path,
    /// Whether the path is made longer or shorter so that its width lies along the whole spine.
    pub fitted: bool,
    /// How near the cubics are to the true curves, in sheet units; 0.01 by default, and zero and below are a fault.
    pub tolerance: f64,
}

impl Bend {
    /// Along a spine, lengths kept: x 0 comes to its start.
    #[must_use]
    pub fn along(spine: impl AsRef<Path>) -> Self {
        Self { spine: spine.as_ref().clone(), fitted: false, tolerance: FINE }
    }
}

impl Reshape for Bend {
    fn reshape(&self, path: &Path) -> Path {
        if let Some(fault) = self.spine.fault() {
            return path.clone().with_fault(fault.clone());
        }
        let first = Path::from_contours(self.spine.contours().first().cloned());
        let spine = match first.survey() {
            Ok(spine) if spine.length() > 0.0 => spine,
            Ok(_) => return Path::empty().with_fill_rule(path.fill_rule()),
            Err(fault) => return path.clone().with_fault(fault),
        };
        let round = first.contours().first().is_some_and(crate::path::Contour::is_closed);
        let (from, width) = match path.bounds().filter(|_| self.fitted) {
            Some(bounds) => (bounds.min.x, bounds.size().x),
            None => (0.0, spine.length()),
        };
        let scale = if width > 0.0 { spine.length() / width } else { 1.0 };
        // A closed spine's end and start are one place, which the path may lie on either side of.
        warped("bent", path, self.tolerance, &|p: Point| beside(&spine, round, (p.x - from) * scale, p.y))
    }
}

/// The place so far along a line and so far to its right.
pub(super) fn beside(line: &Survey, round: bool, along: f64, aside: f64) -> Point {
    let length = line.length();
    let on = if round && (along < 0.0 || along > length) { along.rem_euclid(length) } else { along };
    let Some(station) = line.station(on) else { return Point::ZERO };
    let beyond = on - station.distance();
    station.point() + station.tangent() * beyond + station.normal() * aside
}
