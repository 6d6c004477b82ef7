//! Waves, zigzags, ripples, scallops, teeth and coils along a path.
//!
//! A path is taken run by run, from corner to corner, and each run carries a whole number of waves: so the waves meet at
//! corners, and close where the path does.

use std::f64::consts::{PI, TAU};

use super::Reshape;
use super::chain::reshaped;
use crate::ground::{Fault, FaultKind, FaultSlot};
use crate::measure::Survey;
use crate::number::{Point, rad};
use crate::path::smooth;
use crate::path::{Contour, ContourBuilder, Path, start};

/// What a [`Ripple`] looks like.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
#[non_exhaustive]
pub enum RippleShape {
    /// Waves; see [`Path::waved`].
    #[default]
    Wave,
    /// Waves that grow from nothing at each end of a run and die away; see [`Path::rippled`].
    Swell,
    /// A zigzag; see [`Path::zigzagged`].
    Zigzag,
    /// Bows on one side; see [`Path::scalloped`].
    Scallops,
    /// Square teeth; see [`Path::toothed`].
    Teeth,
    /// A coil, the height its radius; see [`Path::coiled`].
    Coil,
}

/// Waves along a path as a reshape: smooth ones unless another shape is said.
///
/// ```
/// use chordane::prelude::*;
/// let line = start((0.0, 0.0)).line((100.0, 0.0)).open();
/// assert_eq!(line.then(Ripple::new(5.0, 24.0)), line.waved(5.0, 24.0));
/// assert_eq!(line.then(Ripple { shape: RippleShape::Zigzag, ..Ripple::new(5.0, 24.0) }), line.zigzagged(5.0, 24.0));
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Ripple {
    /// By how much it swings to either side, in sheet units.
    pub height: f64,
    /// About how long one wave is, in sheet units.
    pub length: f64,
    /// What it looks like.
    pub shape: RippleShape,
}

impl Ripple {
    /// Waves that swing by a height to either side, each about so long, in sheet units; see [`Path::waved`].
    #[must_use]
    pub fn new(height: f64, length: f64) -> Self {
        Self { height, length, shape: RippleShape::Wave }
    }
}

impl Reshape for Ripple {
    fn reshape(&self, path: &Path) -> Path {
        let (height, length) = (self.height, self.length);
        match self.shape {
            RippleShape::Wave => path.waved(height, length),
            RippleShape::Swell => path.rippled(height, length),
            RippleShape::Zigzag => path.zigzagged(height, length),
            RippleShape::Scallops => path.scalloped(height, length),
            RippleShape::Teeth => path.toothed(height, length),
            RippleShape::Coil => path.coiled(height, length),
        }
    }
}

/// Where the heading jumps by more than this, one run ends and the next begins.
const MIN_CORNER_ANGLE: f64 = 10.0 * PI / 180.0;

/// More waves than these fill the memory before they are seen.
const MAX_WAVES: usize = 5_000_000;

/// How far a curve may lie from the true one, against its height.
const RELATIVE_TOLERANCE: f64 = 2e-3;

/// A stretch of a contour without a corner in it.
struct Run {
    survey: Survey,
    /// Whether it is a whole closed contour.
    round: bool,
    waves: usize,
}

/// A place on a run: where it is, the way on, and how the line bends there.
struct Place {
    point: Point,
    tangent: Point,
    curvature: f64,
}

impl Place {
    fn normal(&self) -> Point {
        self.tangent.perp()
    }
}

impl Run {
    fn length(&self) -> f64 {
        self.survey.length()
    }

    fn place(&self, distance: f64) -> Place {
        let station = self.survey.station(distance);
        station.map_or(Place { point: Point::ZERO, tangent: Point::X, curvature: 0.0 }, |station| Place {
            point: station.point(),
            tangent: station.tangent(),
            curvature: station.curvature(),
        })
    }

    /// A curve beside the run: a function gives, for a distance, how far it lies to the right of the way on and how far
    /// ahead, and how fast both change.
    fn beside(&self, tolerance: f64, parts: usize, at: impl Fn(f64) -> (Point, Point)) -> Contour {
        let motion = |distance: f64| {
            let place = self.place(distance);
            let (t, n, bend) = (place.tangent, place.normal(), place.curvature);
            let (off, pace) = at(distance);
            // Frenet's formulas: the tangent turns toward the normal as the line bends, and the normal back.
            let velocity = t * (1.0 + pace.y - bend * off.x) + n * (pace.x + bend * off.y);
            (place.point + n * off.x + t * off.y, velocity)
        };
        smooth((0.0, self.length()), parts, self.round, tolerance, motion)
    }
}

impl Path {
    /// A smooth wave along the path: it swings by the height to either side, first to the right of the way on, each wave
    /// about as long as said: each run between two corners carries the whole number of waves that comes nearest, at least
    /// one.
    ///
    /// A height of zero gives the path again, in cubics. A wave length of zero or less is a fault. Cost: grows with the
    /// number of waves.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let swell = start((0.0, 0.0)).line((100.0, 0.0)).open().waved(5.0, 24.0);
    /// // Four waves of 25.
    /// assert!((swell.bounds().unwrap().size() - pt(100.0, 10.0)).length() < 0.1);
    /// ```
    #[must_use]
    pub fn waved(&self, height: f64, length: f64) -> Self {
        self.along("waved", height, length, |run| {
            let pace = TAU * run.waves as f64 / run.length();
            run.beside(RELATIVE_TOLERANCE * height.abs().max(1e-9), 4 * run.waves, |distance| {
                let (sin, cos) = (pace * distance).sin_cos();
                (Point::new(height * sin, 0.0), Point::new(height * pace * cos, 0.0))
            })
        })
    }

    /// A wave that swells and dies away: as [`Path::waved`], but it grows from nothing at each end of a run to the full
    /// height in its middle. Along a closed path without corners, that is where it begins and ends.
    #[must_use]
    pub fn rippled(&self, height: f64, length: f64) -> Self {
        self.along("rippled", height, length, |run| {
            let (whole, half) = (TAU * run.waves as f64 / run.length(), PI / run.length());
            run.beside(RELATIVE_TOLERANCE * height.abs().max(1e-9), 4 * run.waves, |distance| {
                let ((sin, cos), (swell, change)) =
                    ((whole * distance).sin_cos(), (half * distance).sin_cos());
                let pace = height * (whole * cos * swell + half * change * sin);
                (Point::new(height * sin * swell, 0.0), Point::new(pace, 0.0))
            })
        })
    }

    /// A zigzag along the path: straight sides between tips that stand by the height to either side, first to the right of
    /// the way on; as [`Path::waved`] otherwise.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let saw = start((0.0, 0.0)).line((40.0, 0.0)).open().zigzagged(5.0, 20.0);
    /// assert_eq!(saw.data(), "M0 0 5 5 15-5 25 5 35-5 40 0");
    /// ```
    #[must_use]
    pub fn zigzagged(&self, height: f64, length: f64) -> Self {
        self.along("zigzagged", height, length, |run| {
            let step = run.length() / (4.0 * run.waves as f64);
            let tip = |i: usize| {
                let place = run.place(step * (2 * i + 1) as f64);
                let side = if i.is_multiple_of(2) { height } else { -height };
                place.point + place.normal() * side
            };
            let (first, last) = (run.place(0.0).point, run.place(run.length()).point);
            // All round, only the tips; with ends, from end to end.
            let mut builder = ContourBuilder::new(if run.round { tip(0) } else { first });
            (usize::from(run.round)..2 * run.waves).for_each(|i| builder.line(tip(i)));
            if !run.round {
                builder.line(last);
            }
            builder.finish(run.round)
        })
    }

    /// Even round bumps along the path, each an arc between two places of it that rises by the height to the left of the
    /// way on (outward, for shapes that run clockwise as seen), or to the right for a negative one; as [`Path::waved`]
    /// otherwise.
    #[must_use]
    pub fn scalloped(&self, height: f64, length: f64) -> Self {
        self.along("scalloped", height, length, |run| {
            let step = run.length() / run.waves as f64;
            let foot = |i: usize| run.place(step * i as f64).point;
            let pen = (1..=run.waves).fold(start(foot(0)), |pen, i| {
                let to = if run.round && i == run.waves { foot(0) } else { foot(i) };
                pen.bow(to, height)
            });
            let path = if run.round { pen.close() } else { pen.open() };
            path.contours().first().cloned().unwrap_or_else(|| ContourBuilder::new(foot(0)).finish(run.round))
        })
    }

    /// Even teeth along the path, to the left of the way on (outward, for shapes that run clockwise as seen), or to the
    /// right for a negative height: a quarter each for the rise, the top, the fall and the gap; as [`Path::waved`]
    /// otherwise.
    #[must_use]
    pub fn toothed(&self, height: f64, length: f64) -> Self {
        self.along("toothed", height, length, |run| {
            let quarter = run.length() / (4.0 * run.waves as f64);
            let corner = |i: usize| {
                let place = run.place(quarter * (i as f64 + 0.5));
                let raised = i % 4 == 1 || i % 4 == 2;
                place.point - place.normal() * if raised { height } else { 0.0 }
            };
            let mut builder = ContourBuilder::new(if run.round { corner(0) } else { run.place(0.0).point });
            (usize::from(run.round)..4 * run.waves).for_each(|i| builder.line(corner(i)));
            if !run.round {
                builder.line(run.place(run.length()).point);
            }
            builder.finish(run.round)
        })
    }

    /// A coil along the path, as a spring seen from the side: a circle of the radius that is carried on while it turns
    /// once in about each step, clockwise as seen; as [`Path::waved`] otherwise.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let spring = start((0.0, 0.0)).line((100.0, 0.0)).open().coiled(12.0, 10.0);
    /// assert!(spring.bounds().unwrap().size().y > 23.9);
    /// ```
    #[must_use]
    pub fn coiled(&self, radius: f64, step: f64) -> Self {
        self.along("coiled", radius, step, |run| {
            let pace = TAU * run.waves as f64 / run.length();
            run.beside(RELATIVE_TOLERANCE * radius.abs().max(1e-9), 4 * run.waves, |distance| {
                let (sin, cos) = rad(pace * distance).sin_cos();
                // It starts behind the path's begin, and ends behind its end.
                let off = Point::new(-sin, -cos) * radius;
                (off, Point::new(-cos, sin) * (radius * pace))
            })
        })
    }

    /// Takes a path run by run, and joins what is made of them.
    fn along(&self, call: &'static str, height: f64, length: f64, make: impl Fn(&Run) -> Contour) -> Self {
        let check = |fault: &mut FaultSlot| {
            fault.finite(call, "height", height);
            fault.positive(call, "length of a wave", length);
        };
        reshaped(call, self, check, |fault| {
            let mut contours = Vec::new();
            for contour in self.contours() {
                match runs(contour, length, call) {
                    Ok(runs) => contours.extend(joined(&runs, contour.is_closed(), &make)),
                    Err(wrong) => fault.note(wrong),
                }
            }
            contours
        })
    }
}

/// What is made of each run, as one contour.
fn joined(runs: &[Run], closed: bool, make: &impl Fn(&Run) -> Contour) -> Option<Contour> {
    let mut made = runs.iter().map(make);
    let first = made.next()?;
    if first.is_closed() {
        return Some(first);
    }
    let mut builder = ContourBuilder::new(first.start());
    let home = first.start();
    for contour in std::iter::once(first).chain(made) {
        let near = builder.end().distance(contour.start()) <= 1e-9 * contour.start().length().max(1.0);
        if !near {
            builder.line(contour.start());
        }
        contour.segments().for_each(|segment| builder.segment(&segment));
    }
    if closed && builder.end() != home {
        builder.line(home);
    }
    Some(builder.finish(closed))
}

/// The runs of a contour between its corners; one that has none and is closed begins where the contour does.
fn runs(contour: &Contour, length: f64, call: &'static str) -> Result<Vec<Run>, Fault> {
    let segments: Vec<_> = contour.segments().filter(|segment| segment.length() > 0.0).collect();
    let heading = |segment: &crate::path::Segment, at_end: bool| {
        let survey = Path::from_contours([alone(std::slice::from_ref(segment))]).survey().ok();
        let place = survey.as_ref().and_then(|survey| {
            survey.station(if at_end { survey.length() } else { 0.0 }).map(|station| station.tangent())
        });
        place.unwrap_or(Point::X)
    };
    let sharp = |a: Point, b: Point| a.angle_to(b).abs() > MIN_CORNER_ANGLE;
    // Where runs begin.
    let n = segments.len();
    let begins: Vec<usize> = (0..n)
        .filter(|i| match i.checked_sub(1) {
            Some(before) => sharp(heading(&segments[before], true), heading(&segments[*i], false)),
            None => {
                !contour.is_closed() || sharp(heading(&segments[n - 1], true), heading(&segments[0], false))
            }
        })
        .collect();
    let run = |list: &[crate::path::Segment], round: bool| {
        let mut path = alone(list);
        if round {
            path = path.closed_at_start();
        }
        let survey = Path::from_contours([path]).survey()?;
        let waves = (survey.length() / length).round().max(1.0);
        if waves > MAX_WAVES as f64 {
            let (what, limit) = ("waves", MAX_WAVES);
            return Err(Fault::of(call, FaultKind::TooMany { what, count: waves as usize, limit }));
        }
        Ok(Run { survey, round, waves: waves as usize })
    };
    if n == 0 {
        return Ok(Vec::new());
    }
    if begins.is_empty() {
        return Ok(vec![run(&segments, true)?]);
    }
    // A closed contour is turned round to begin at a corner.
    let first = begins.first().copied().unwrap_or(0);
    let mut list = segments;
    list.rotate_left(first);
    let ends = begins.iter().skip(1).map(|begin| begin - first).chain([n]);
    begins
        .iter()
        .zip(ends)
        .map(|(begin, end)| run(list.get(begin - first..end).unwrap_or_default(), false))
        .collect()
}

/// Segments that follow one another as an open contour.
fn alone(segments: &[crate::path::Segment]) -> Contour {
    let mut builder = ContourBuilder::new(segments.first().map_or(Point::ZERO, |segment| segment.at(0.0)));
    segments.iter().for_each(|segment| builder.segment(segment));
    builder.finish(false)
}
