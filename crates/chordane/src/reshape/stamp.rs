//! A thing set down again and again along a path.

use std::fmt;
use std::sync::Arc as Shared;

use super::Reshape;
use super::chain::reshaped;
use super::warp::beside;
use crate::ground::{Fault, FaultKind, FaultSlot, exhausted, unlimited};
use crate::measure::{Station, Survey};
use crate::number::{Angle, Point, kept};
use crate::path::{Affine, Contour, Path, by};

/// More stamps than these fill the memory before they are seen.
pub(crate) const MAX_STAMPS: usize = 1_000_000;

/// Where stamps are set down on each contour.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::reshape::StampSpacing;
/// let beads = Stamp::new(circle((0.0, 0.0), 2.0)).every(12.0);
/// assert_eq!(beads.spacing, StampSpacing::Every(12.0));
/// ```
#[derive(Clone, Debug, PartialEq)]
pub enum StampSpacing {
    /// At this distance from one another, in sheet units, as many as there is room for.
    Every(f64),
    /// This many, evenly.
    Count(usize),
    /// At these fractions of the contour's length.
    At(Vec<f64>),
}

/// How a stamp sits on its path.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::reshape::StampOrientation;
/// assert_eq!(Stamp::new(circle((0.0, 0.0), 2.0)).orientation, StampOrientation::Turned);
/// ```
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum StampOrientation {
    /// As it is, whatever the path's direction.
    Upright,
    /// Turned with the path: its x axis along the tangent.
    #[default]
    Turned,
    /// Bent to the path: its x axis along the line itself.
    Bent,
}

/// The position of one stamp, passed to the functions of a [`Stamp`].
///
/// ```
/// use chordane::prelude::*;
/// let bows = Stamp::new(circle((0.0, 0.0), 2.0)).count(5).scale(|place| 1.0 - place.share() / 2.0);
/// let tail = Path::open([(0.0, 0.0), (40.0, 0.0)]).then(bows);
/// assert_eq!(tail.contours().len(), 5);
/// ```
#[derive(Clone, Copy, Debug)]
pub struct StampPlace<'a> {
    /// The stamp, counted from 0 along the whole path.
    pub number: usize,
    /// The place on its contour. Its share and distance are those along the contour.
    pub station: Station<'a>,
}

impl StampPlace<'_> {
    /// How far along its contour it is, from 0 at the start to 1 at the end.
    #[must_use]
    pub fn share(&self) -> f64 {
        self.station.share()
    }
}

type Rule<T> = Shared<dyn Fn(&StampPlace<'_>) -> T + Send + Sync>;

/// A thing set down along a path: a path here, which gives a path, or an item or group, which gives a group
/// (`Stamp::along`).
///
/// The stamp's own origin comes to the line, its x axis along it. The stamps come in order, contour by contour. More than
/// a million, a spacing of zero or below, and rules that give no finite number are faults; on a path without a length there
/// is not a stamp.
///
/// ```
/// use chordane::prelude::*;
/// let bow = Path::closed([(0.0, 0.0), (-8.0, -5.0), (-8.0, 5.0)]);
/// let tail = start((0.0, 0.0)).line((0.0, 100.0)).open();
/// let bows = tail.then(Stamp::new(bow).every(25.0).lead_in(10.0).scale(|at| 1.0 - 0.5 * at.share()));
/// assert_eq!(bows.contours().len(), 4);
/// assert_eq!(bows.contours()[0].start(), pt(0.0, 10.0));
/// ```
#[derive(Clone)]
pub struct Stamp<T> {
    /// What is set down.
    pub thing: T,
    /// Where on each contour; ten, evenly, by default.
    pub spacing: StampSpacing,
    /// The distance from the start of a contour to the first stamp, in sheet units.
    pub lead_in: f64,
    /// The distance that all stamps are moved on by, in sheet units; see [`Stamp::drift`].
    pub drift: f64,
    /// How the stamps sit on the path.
    pub orientation: StampOrientation,
    scale: Option<Rule<f64>>,
    turn: Option<Rule<Angle>>,
    skip: Option<Rule<bool>>,
}

impl<T: fmt::Debug> fmt::Debug for Stamp<T> {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        out.debug_struct("Stamp")
            .field("thing", &self.thing)
            .field("spacing", &self.spacing)
            .field("lead_in", &self.lead_in)
            .field("drift", &self.drift)
            .field("orientation", &self.orientation)
            .finish_non_exhaustive()
    }
}

impl<T> Stamp<T> {
    /// Ten of a thing, evenly, turned with the path.
    pub fn new(thing: T) -> Self {
        Self {
            thing,
            spacing: StampSpacing::Count(10),
            lead_in: 0.0,
            drift: 0.0,
            orientation: StampOrientation::Turned,
            scale: None,
            turn: None,
            skip: None,
        }
    }

    /// One every so far along each contour, in sheet units, as many as there is room for.
    #[must_use]
    pub fn every(mut self, spacing: f64) -> Self {
        self.spacing = StampSpacing::Every(spacing);
        self
    }

    /// So many on each contour, evenly: on an open one from its start to its end, on a closed one all round.
    #[must_use]
    pub fn count(mut self, count: usize) -> Self {
        self.spacing = StampSpacing::Count(count);
        self
    }

    /// At these shares of each contour's length, from 0 to 1; on closed contours shares beyond come round.
    #[must_use]
    pub fn at(mut self, shares: impl Into<Vec<f64>>) -> Self {
        self.spacing = StampSpacing::At(shares.into());
        self
    }

    /// The first stamp only after such a distance.
    #[must_use]
    pub fn lead_in(mut self, distance: f64) -> Self {
        self.lead_in = distance;
        self
    }

    /// All stamps moved on by such a distance. On a closed contour they come round; on an open one, with [`Stamp::every`],
    /// new ones follow at the start as others leave at the end: a drift of one spacing looks like none, which makes a loop.
    #[must_use]
    pub fn drift(mut self, distance: f64) -> Self {
        self.drift = distance;
        self
    }

    /// Set down as it is, whatever the path's direction.
    #[must_use]
    pub fn upright(mut self) -> Self {
        self.orientation = StampOrientation::Upright;
        self
    }

    /// Turned with the path: its x axis along the tangent.
    #[must_use]
    pub fn turned(mut self) -> Self {
        self.orientation = StampOrientation::Turned;
        self
    }

    /// Bent to the path: its x axis lies along the line itself, over the stamp's whole width.
    #[must_use]
    pub fn bent(mut self) -> Self {
        self.orientation = StampOrientation::Bent;
        self
    }

    /// Each scaled by a function of its place.
    #[must_use]
    pub fn scale(mut self, rule: impl Fn(&StampPlace<'_>) -> f64 + Send + Sync + 'static) -> Self {
        self.scale = Some(Shared::new(rule));
        self
    }

    /// Each turned further by a function of its place, about its own origin, clockwise as seen.
    #[must_use]
    pub fn turn(mut self, rule: impl Fn(&StampPlace<'_>) -> Angle + Send + Sync + 'static) -> Self {
        self.turn = Some(Shared::new(rule));
        self
    }

    /// Leaves out the stamps for which `rule` returns `true`.
    #[must_use]
    pub fn skip(mut self, rule: impl Fn(&StampPlace<'_>) -> bool + Send + Sync + 'static) -> Self {
        self.skip = Some(Shared::new(rule));
        self
    }

    /// The distances along a contour of some length.
    fn distances(&self, length: f64, closed: bool, fault: &mut FaultSlot) -> Vec<f64> {
        let count = match &self.spacing {
            StampSpacing::Every(spacing) if !fault.positive("stamped", "spacing", *spacing) => {
                return Vec::new();
            }
            StampSpacing::Every(spacing) => {
                ((length - self.lead_in).max(0.0) / spacing + 1.0).min(1e18) as usize
            }
            StampSpacing::Count(count) => *count,
            StampSpacing::At(shares) => shares.len(),
        };
        if !fault.at_most("stamped", "stamps", count, MAX_STAMPS) {
            return Vec::new();
        }
        let room = length - self.lead_in;
        let near = length * 1e-12;
        let lay = |at: f64| {
            if closed {
                return Some((at + self.drift).rem_euclid(length));
            }
            let on = at + self.drift;
            (on >= -near && on <= length + near).then(|| kept(on, 0.0, length))
        };
        match &self.spacing {
            StampSpacing::Every(spacing) => {
                // A closed line's end is its start: a stamp there would lie on the first one.
                let within =
                    |at: f64| if closed { at < length - 1e-9 * spacing } else { at <= length + near };
                if closed {
                    let row = (0..count).map(|i| self.lead_in + spacing * i as f64);
                    return row.filter(|at| within(*at)).filter_map(lay).collect();
                }
                let begin = self.lead_in + self.drift.rem_euclid(*spacing);
                let row = (0..count).map(|i| begin + spacing * i as f64);
                row.filter(|at| *at >= -near && within(*at)).map(|at| kept(at, 0.0, length)).collect()
            }
            StampSpacing::Count(count) => {
                let gaps = if closed { *count } else { count.saturating_sub(1) }.max(1) as f64;
                (0..*count).filter_map(|i| lay(self.lead_in + room * i as f64 / gaps)).collect()
            }
            StampSpacing::At(shares) => {
                shares.iter().filter_map(|share| lay(self.lead_in + room * share)).collect()
            }
        }
    }

    /// Calls `set` for every stamp with its place, its transform on it, and the contour's survey for those that are bent.
    pub(crate) fn each(
        &self,
        path: &Path,
        fault: &mut FaultSlot,
        mut set: impl FnMut(&StampPlace<'_>, &Affine, &Line<'_>),
    ) {
        for (what, value) in [("lead-in", self.lead_in), ("drift", self.drift)] {
            fault.finite("stamped", what, value);
        }
        let mut number = 0;
        for contour in path.contours() {
            if fault.get().is_some() {
                return;
            }
            let survey = contour.survey();
            let closed = contour.is_closed();
            if survey.length() == 0.0 {
                continue;
            }
            for distance in self.distances(survey.length(), closed, fault) {
                let Some(station) = survey.station(distance) else { continue };
                let place = StampPlace { number, station };
                number += 1;
                if exhausted(10) {
                    return;
                }
                if self.skip.as_ref().is_some_and(|skip| unlimited(|| skip(&place))) {
                    continue;
                }
                let scale = self.scale.as_ref().map_or(1.0, |scale| unlimited(|| scale(&place)));
                let turn = self.turn.as_ref().map_or(Angle::ZERO, |turn| unlimited(|| turn(&place)));
                if !fault.finite("stamped", "scale", scale)
                    || !fault.finite("stamped", "turn", turn.degrees())
                {
                    return;
                }
                let own = match (&self.scale, &self.turn) {
                    (None, None) => Affine::IDENTITY,
                    _ => by::rotation(turn) * Affine::from_scale(Point::splat(scale)),
                };
                let on = match self.orientation {
                    StampOrientation::Upright => Affine::from_translation(station.point()),
                    StampOrientation::Turned => {
                        let tangent = station.tangent();
                        Affine::from_cols(tangent, tangent.perp(), station.point())
                    }
                    StampOrientation::Bent => Affine::IDENTITY,
                };
                set(&place, &(on * own), &Line { survey: &survey, closed, distance });
                if number > MAX_STAMPS {
                    let kind = FaultKind::TooMany { what: "stamps", count: number, limit: MAX_STAMPS };
                    fault.note(Fault::of("stamped", kind));
                    return;
                }
            }
        }
    }
}

/// The line that a stamp is bent along, and how far along it is.
pub(crate) struct Line<'a> {
    survey: &'a Survey,
    closed: bool,
    distance: f64,
}

impl Line<'_> {
    /// A path with its x axis laid along the line.
    pub(crate) fn bend(&self, path: &Path) -> Path {
        path.warped(super::warp::FINE, |p| beside(self.survey, self.closed, self.distance + p.x, p.y))
    }
}

impl Reshape for Stamp<Path> {
    fn reshape(&self, path: &Path) -> Path {
        let check = |fault: &mut FaultSlot| fault.take_from(self.thing.carried());
        let stamped = reshaped("stamped", path, check, |fault| {
            let mut contours: Vec<Contour> = Vec::new();
            let mut made = FaultSlot::default();
            let own = self.thing.contours();
            self.each(path, fault, |_, affine, line| {
                if self.orientation == StampOrientation::Bent {
                    let bent = line.bend(&self.thing.transformed(affine));
                    made.take_from(bent.carried());
                    contours.extend_from_slice(bent.contours());
                } else {
                    contours.extend(own.iter().map(|contour| contour.transformed(affine)));
                }
            });
            fault.take_from(&made);
            contours
        });
        stamped.with_fill_rule(self.thing.fill_rule())
    }
}

impl Path {
    /// Copies of a path set down along this one, one every so far, turned with it; see [`Stamp`].
    #[must_use]
    pub fn stamped(&self, thing: &Self, spacing: f64) -> Self {
        self.then(Stamp::new(thing.clone()).every(spacing))
    }
}
