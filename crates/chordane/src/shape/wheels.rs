//! Sums of turning radii: a wheel on the rim of a wheel on the rim of a wheel.

use std::f64::consts::TAU;

use crate::ground::{Fault, FaultSlot};
use crate::number::{Angle, IntoPoint, Point, deg, pt};
use crate::path::Path;
use crate::path::smooth;

/// More points than these fill the memory before they are seen.
const MAX_POINTS: usize = 100_000_000;

/// A turning radius: how long, how many turns in one lap (negative ones are anticlockwise as seen), where it begins.
#[derive(Clone, Copy, Debug, PartialEq)]
struct Wheel {
    radius: f64,
    turns: f64,
    start: Angle,
}

/// A sum of turning radii round a centre; made by [`wheel`], [`wheels_inside`] and [`wheels_outside`].
///
/// A lap is one turn of a wheel of one turn. The curve closes by itself after as many laps as make all turns whole; see
/// [`Wheels::closing`].
///
/// ```
/// use chordane::prelude::*;
/// let wheels: Wheels = wheel(40.0, 1.0, deg(0.0)).wheel(12.0, 6.0, deg(0.0));
/// assert_eq!(wheels.at(0.0), pt(52.0, 0.0));
/// assert!(wheels.path().contours()[0].is_closed());
/// ```
#[derive(Clone, Debug, Default)]
pub struct Wheels {
    centre: Point,
    wheels: Vec<Wheel>,
    laps: Option<f64>,
    fault: FaultSlot,
}

/// After how many laps a curve comes round; given by [`Wheels::closing`].
///
/// ```
/// use chordane::prelude::*;
/// let closing = wheels_inside((0.0, 0.0), 60.0, 24.0, 16.0).closing();
/// assert_eq!((closing.laps, closing.exact), (2, true));
/// ```
#[derive(Clone, Debug, PartialEq)]
pub struct Closing {
    /// How many laps.
    pub laps: u32,
    /// How many whole turns each wheel makes in them.
    pub turns: Vec<i64>,
    /// Whether it really closes; otherwise these are the nearest laps that nearly do.
    pub exact: bool,
}

/// More laps than these are not looked through for one that closes.
const MAX_LAPS: u32 = 1000;

/// Where none closes, the nearest is looked for among so many laps: more than these only fill a disc.
const MAX_APPROXIMATE_LAPS: u32 = 100;

/// Turns that miss a whole number by less than this, against their own number, are whole.
const INTEGER_TOLERANCE: f64 = 1e-9;

/// A wheel round the origin: a radius that makes some turns in each lap, and starts at an angle. Add more with
/// [`Wheels::wheel`].
///
/// Turns may be negative (anticlockwise as seen) or broken. A number that is not finite is a fault.
///
/// ```
/// use chordane::prelude::*;
/// let lace = wheel(80.0, 1.0, deg(0.0)).wheel(24.0, -7.0, deg(0.0)).wheel(9.0, 13.0, deg(90.0));
/// assert_eq!(lace.at(0.0), pt(104.0, 9.0));
/// assert_eq!(lace.closing().laps, 1);
/// ```
#[must_use]
pub fn wheel(radius: f64, turns: f64, start: Angle) -> Wheels {
    Wheels::default().wheel(radius, turns, start)
}

/// The curve of a pen in a wheel that rolls inside a ring (a hypotrochoid). `pen` is the pen's distance from the rolling
/// wheel's centre: at its rim the curve has cusps (a hypocycloid), nearer it is rounded, farther it loops. The first
/// point is at the ring's right.
///
/// A radius that is zero or negative is a fault. Source: J. D. Lawrence, A catalog of special plane curves, 1972.
///
/// ```
/// use chordane::prelude::*;
/// let astroid = wheels_inside((0.0, 0.0), 40.0, 10.0, 10.0);
/// assert_eq!(astroid.closing().laps, 1);
/// assert_eq!(wheels_inside((0.0, 0.0), 40.0, 15.0, 10.0).closing().laps, 3);
/// ```
#[must_use]
pub fn wheels_inside(centre: impl IntoPoint, ring: f64, roller: f64, pen: f64) -> Wheels {
    rolling("wheels_inside", centre.into_point(), ring, roller, pen, -1.0)
}

/// The curve of a pen in a wheel that rolls round the outside of a ring (an epitrochoid); as [`wheels_inside`]. The pen
/// starts between the two centres.
///
/// ```
/// use chordane::prelude::*;
/// let edge = wheels_outside((0.0, 0.0), 30.0, 10.0, 10.0);
/// assert!((edge.at(0.0).length() - 30.0).abs() < 1e-9);
/// ```
#[must_use]
pub fn wheels_outside(centre: impl IntoPoint, ring: f64, roller: f64, pen: f64) -> Wheels {
    rolling("wheels_outside", centre.into_point(), ring, roller, pen, 1.0)
}

fn rolling(call: &'static str, centre: Point, ring: f64, roller: f64, pen: f64, side: f64) -> Wheels {
    let mut fault = FaultSlot::default();
    let sound = fault.positive(call, "ring's radius", ring)
        & fault.positive(call, "roller's radius", roller)
        & fault.finite(call, "pen's distance", pen);
    if !sound {
        return Wheels { fault, ..Wheels::default() };
    }
    let arm = ring + side * roller;
    let start = if side > 0.0 { deg(180.0) } else { deg(0.0) };
    wheel(arm, 1.0, deg(0.0)).wheel(pen, side * arm / roller, start).centre(centre)
}

/// The way of a point of a wheel that rolls along a line to the right: a cycloid for a pen at the rim, below it waves,
/// beyond it loops. It begins at the lowest place, at a point of the line for a pen at the rim; the wheel rolls on the
/// upper side, and comes farther by its rim with each turn.
///
/// No turns, or a radius of zero, give an empty path; negative ones are a fault, as are more than 100,000 turns.
///
/// ```
/// use chordane::prelude::*;
/// let arch = cycloid((0.0, 0.0), 10.0, 10.0, 1.0);
/// // C. Wren, 1658: an arch is as long as four diameters of its wheel.
/// assert!((arch.length()? - 80.0).abs() < 1e-3);
/// # Ok::<(), Fault>(())
/// ```
#[must_use]
pub fn cycloid(from: impl IntoPoint, radius: f64, pen: f64, turns: f64) -> Path {
    let (call, from) = ("cycloid", from.into_point());
    let mut fault = FaultSlot::default();
    let sound = fault.point(call, from)
        & fault.not_negative(call, "radius", radius)
        & fault.finite(call, "pen's distance", pen)
        & fault.not_negative(call, "number of turns", turns)
        && fault.at_most(call, "turns", turns.ceil() as usize, 100_000);
    let mut contours = Vec::new();
    if sound && radius > 0.0 && turns > 0.0 {
        let hub = from - pt(0.0, radius);
        let at = |angle: f64| {
            let (sin, cos) = angle.sin_cos();
            (hub + pt(radius * angle - pen * sin, pen * cos), pt(radius - pen * cos, -pen * sin))
        };
        let tolerance = FINE * (radius + pen.abs());
        contours.extend(fault.limited(call, || {
            smooth((0.0, TAU * turns), (2.0 * turns).ceil() as usize, false, tolerance, at)
        }));
    }
    Path::from_parts(contours, Default::default(), fault).within_numbers(call)
}

/// A polygon with rounded sides and corners from two turning circles: a large one forward, a small one backward.
///
/// A pinch of 0 gives a circle; 1 over one less than the sides straightens the sides in their middles; 1 gives cusps for
/// corners, more makes them loops. Negative pinches turn the corners by half a step. The corners stand at the radius,
/// the first straight above the centre. No sides or a radius of zero give an empty path, a negative radius is a fault.
///
/// ```
/// use chordane::prelude::*;
/// let triangle = wheel_polygon((0.0, 0.0), 3, 60.0, 0.5);
/// assert_eq!(triangle.contours()[0].start(), pt(0.0, -60.0));
/// ```
#[must_use]
pub fn wheel_polygon(centre: impl IntoPoint, sides: usize, radius: f64, pinch: f64) -> Path {
    let call = "wheel_polygon";
    let mut fault = FaultSlot::default();
    let sound = fault.not_negative(call, "radius", radius)
        & fault.finite(call, "pinch", pinch)
        & fault.at_most(call, "sides", sides, MAX_SIDES);
    if !sound || sides == 0 || radius == 0.0 {
        return Path::from_parts(Vec::new(), Default::default(), fault);
    }
    // One side is a circle: the small wheel would not turn.
    let back = sides as f64 - 1.0;
    let share = if sides > 1 { pinch / back } else { 0.0 };
    let large = if share == -1.0 { radius } else { radius / (1.0 + share) };
    wheel(large, 1.0, deg(-90.0)).wheel(large * share, -back, deg(-90.0)).centre(centre).path()
}

/// The most sides of a polygon from turning circles.
const MAX_SIDES: usize = 100_000;

/// How fine curves are made, against their size: nowhere farther from the true curve than this share of their radius.
pub(super) const FINE: f64 = 2e-5;

impl Wheels {
    /// One more wheel, on the rim of those there are.
    #[must_use]
    pub fn wheel(mut self, radius: f64, turns: f64, start: Angle) -> Self {
        let call = "wheel";
        let sound = self.fault.finite(call, "radius", radius)
            & self.fault.finite(call, "number of turns", turns)
            & self.fault.finite(call, "start angle", start.degrees());
        if sound {
            self.wheels.push(Wheel { radius, turns, start });
        }
        self
    }

    /// The point that the first wheel turns about; the origin by default.
    #[must_use]
    pub fn centre(mut self, centre: impl IntoPoint) -> Self {
        let centre = centre.into_point();
        if self.fault.point("centre", centre) {
            self.centre = centre;
        }
        self
    }

    /// Sets the number of laps, which need not be whole, instead of the number after which the curve closes. Zero or less is a fault.
    #[must_use]
    pub fn laps(mut self, laps: f64) -> Self {
        if self.fault.positive("laps", "number of laps", laps) {
            self.laps = Some(laps);
        }
        self
    }

    /// The fault of what was given, if there is one.
    ///
    /// # Errors
    ///
    /// The first fault.
    pub fn sound(&self) -> Result<(), Fault> {
        self.fault.sound()
    }

    /// The least number of laps after which all wheels have made whole turns, up to 1000 laps. Where there is none, the
    /// number up to 100 that comes nearest, not [`exact`](Closing::exact).
    #[must_use]
    pub fn closing(&self) -> Closing {
        let miss = |laps: u32| {
            let misses = self.wheels.iter().filter(|wheel| wheel.radius != 0.0).map(|wheel| {
                let turns = wheel.turns * f64::from(laps);
                (turns - turns.round()).abs()
            });
            misses.fold(0.0, f64::max)
        };
        let fastest = self.wheels.iter().map(|wheel| wheel.turns.abs()).fold(1.0, f64::max);
        let exact = (1..=MAX_LAPS).find(|laps| miss(*laps) <= INTEGER_TOLERANCE * fastest * f64::from(*laps));
        let nearest = || (1..=MAX_APPROXIMATE_LAPS).min_by(|a, b| miss(*a).total_cmp(&miss(*b)));
        let laps = exact.or_else(nearest).unwrap_or(1);
        let turns = |wheel: &Wheel| (wheel.turns * f64::from(laps)).round() as i64;
        Closing { laps, turns: self.wheels.iter().map(turns).collect(), exact: exact.is_some() }
    }

    /// Whether the laps were given, by [`Wheels::laps`].
    #[must_use]
    pub fn laps_given(&self) -> bool {
        self.laps.is_some()
    }

    /// The laps that are drawn, and whether they end where they began.
    fn drawn_laps(&self) -> (f64, bool) {
        let Some(laps) = self.laps else {
            let closing = self.closing();
            return (f64::from(closing.laps), closing.exact);
        };
        let whole = |wheel: &Wheel| {
            let turns = wheel.turns * laps;
            (turns - turns.round()).abs() <= INTEGER_TOLERANCE * turns.abs().max(1.0)
        };
        (laps, self.wheels.iter().all(whole))
    }

    /// The point after a share of a lap, from 0 to 1 (and beyond: further laps).
    #[must_use]
    pub fn at(&self, share: f64) -> Point {
        self.wheels.iter().fold(self.centre, |sum, wheel| {
            let (sin, cos) = turned(wheel, share);
            sum + pt(cos, sin) * wheel.radius
        })
    }

    /// `n` points at even steps of time over all laps, from the first one on; a curve that closes does not list it again at
    /// the end, one that does not ends at its last place. One allocation; two multiplications of complex numbers a
    /// wheel and point. More than a hundred million, which would fill the memory, give none.
    #[must_use]
    pub fn points(&self, n: usize) -> Vec<Point> {
        if n > MAX_POINTS {
            return Vec::new();
        }
        let (laps, closed) = self.drawn_laps();
        let steps = if closed { n } else { n.saturating_sub(1) };
        let step = laps / steps.max(1) as f64;
        let mut points = Vec::with_capacity(n);
        self.points_into(step, n, &mut points);
        points
    }

    /// Block by block: where each wheel stands at the block's begin by sine and cosine, and from there by rotations that
    /// are the same in every block.
    fn points_into(&self, step: f64, n: usize, points: &mut Vec<Point>) {
        const BLOCK: usize = 64;
        let rotation = |wheel: &Wheel, share: f64| {
            let still = Wheel { start: Angle::ZERO, ..*wheel };
            let (sin, cos) = turned(&still, share);
            pt(cos, sin)
        };
        let tables: Vec<[Point; BLOCK]> = self
            .wheels
            .iter()
            .map(|wheel| std::array::from_fn(|i| rotation(wheel, step * i as f64)))
            .collect();
        for begin in (0..n).step_by(BLOCK) {
            let mut block = [self.centre; BLOCK];
            for (wheel, table) in self.wheels.iter().zip(&tables) {
                let (sin, cos) = turned(wheel, step * begin as f64);
                let (x, y) = (cos * wheel.radius, sin * wheel.radius);
                for (point, turn) in block.iter_mut().zip(table) {
                    point.x += x * turn.x - y * turn.y;
                    point.y += x * turn.y + y * turn.x;
                }
            }
            points.extend_from_slice(block.get(..BLOCK.min(n - begin)).unwrap_or(&block));
        }
    }

    /// The curve in cubics, nowhere farther from the true one than a fifty-thousandth of the sum of the radii; closed
    /// where it comes round. Empty without a wheel that turns.
    #[must_use]
    pub fn path(&self) -> Path {
        let call = "path";
        let size: f64 = self.wheels.iter().map(|wheel| wheel.radius.abs()).sum();
        let turning = |wheel: &&Wheel| wheel.radius != 0.0 && wheel.turns != 0.0;
        let fastest = self.wheels.iter().filter(turning).map(|wheel| wheel.turns.abs()).fold(0.0, f64::max);
        let mut fault = self.fault.clone();
        let (laps, closed) = self.drawn_laps();
        let parts = (4.0 * fastest * laps).ceil();
        let mut contours = Vec::new();
        if fault.get().is_none() && size > 0.0 && fault.at_most(call, "cubics", parts as usize, 5_000_000) {
            let at = |share: f64| {
                let mut motion = (self.centre, Point::ZERO);
                for wheel in &self.wheels {
                    let (sin, cos) = turned(wheel, share);
                    motion.0 += pt(cos, sin) * wheel.radius;
                    motion.1 += pt(-sin, cos) * (wheel.radius * wheel.turns * TAU);
                }
                motion
            };
            if parts > 0.0 {
                contours.extend(
                    fault.limited(call, || smooth((0.0, laps), parts as usize, closed, FINE * size, at)),
                );
            }
        }
        Path::from_parts(contours, Default::default(), fault).within_numbers(call)
    }
}

/// Sine and cosine of where a wheel stands; whole turns are taken off first, so that many laps cost no accuracy.
fn turned(wheel: &Wheel, share: f64) -> (f64, f64) {
    let turns = wheel.turns * share;
    (crate::number::turns(turns - turns.round()) + wheel.start).sin_cos()
}
