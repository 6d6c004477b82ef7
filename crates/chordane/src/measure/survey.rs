//! A path measured by length: which place is so far along.
//!
//! The survey of a curve is a list of stretches, each with a polynomial of degree five that gives the parameter for
//! a distance. It is fitted to place, speed and change of speed at both ends, and a stretch is halved until the
//! polynomial agrees with the length half way. A station is then found by a search among the stretches and a few
//! multiplications.

use std::sync::OnceLock;

use super::tree::BoxTree;
use crate::ground::{Fault, FaultSlot, exhausted, limited};
use crate::number::{Angle, Point, kept};
use crate::path::{Contour, ContourBuilder, Path, Segment};

/// A stretch's polynomial may be off by this much of the path's whole length.
const RELATIVE_TOLERANCE: f64 = 1e-10;

/// How often a stretch is halved at most.
const MAX_BISECTIONS: u32 = 24;

/// A path measured by length; see [`Path::survey`].
///
/// ```
/// use chordane::prelude::*;
/// let survey = Path::open([(0.0, 0.0), (30.0, 0.0), (30.0, 40.0)]).survey()?;
/// assert_eq!(survey.length(), 70.0);
/// let at: Vec<f64> = survey.every(20.0).map(|station| station.distance()).collect();
/// assert_eq!(at, [0.0, 20.0, 40.0, 60.0]);
/// assert_eq!(survey.section(10.0, 40.0).data(), "M10 0H30V10");
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Debug)]
pub struct Survey {
    segments: Vec<(Segment, usize)>,
    stretches: Vec<Stretch>,
    length: f64,
    /// Whether the path is one closed contour, so that its end is its start.
    one_closed: bool,
    /// The segments by place, sorted when they are first asked for.
    index: OnceLock<BoxTree>,
}

#[derive(Clone, Copy, Debug)]
struct Stretch {
    /// The distance at which it begins, and its length.
    begin: f64,
    length: f64,
    segment: u32,
    /// The parameter over the share of the length, lowest power first.
    powers: [f64; 6],
}

impl Stretch {
    #[inline]
    fn parameter(&self, distance: f64) -> f64 {
        let u = if self.length > 0.0 { ((distance - self.begin) / self.length).clamp(0.0, 1.0) } else { 0.0 };
        let [a, b, c, d, e, f] = self.powers;
        (((((f * u + e) * u + d) * u + c) * u + b) * u + a).clamp(0.0, 1.0)
    }
}

/// A place on a surveyed path.
///
/// ```
/// use chordane::prelude::*;
/// let survey = Path::open([(0.0, 0.0), (30.0, 0.0), (30.0, 40.0)]).survey()?;
/// let station = survey.station(50.0).ok_or("the path is empty")?;
/// assert_eq!((station.point(), station.tangent()), (pt(30.0, 20.0), pt(0.0, 1.0)));
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[derive(Clone, Copy, Debug)]
pub struct Station<'a> {
    segment: &'a Segment,
    contour: usize,
    parameter: f64,
    distance: f64,
    whole: f64,
}

impl Station<'_> {
    /// Where it is.
    #[inline]
    #[must_use]
    pub fn point(&self) -> Point {
        self.segment.at(self.parameter)
    }

    /// The direction of travel there, of length 1; zero on a path of no length.
    ///
    /// At a corner it is the direction in which the path arrives; at a cusp that in which it leaves.
    #[must_use]
    pub fn tangent(&self) -> Point {
        let velocity = self.segment.velocity(self.parameter);
        if velocity != Point::ZERO {
            return velocity.normalize_or_zero();
        }
        // At a handle on its end, or a cusp: the direction right behind it, or before it at the very end.
        let step = if self.parameter < 0.5 { self.segment.leaving() } else { self.segment.arriving() };
        step.normalize_or_zero()
    }

    /// The direction square to the tangent, to the right as travelled on a sheet with y down, of length 1.
    #[must_use]
    pub fn normal(&self) -> Point {
        self.tangent().perp()
    }

    /// The direction of travel as an angle, clockwise as seen from +x.
    #[must_use]
    pub fn heading(&self) -> Angle {
        Angle::of(self.tangent())
    }

    /// How much the path turns for each unit of length, in radians, positive when it turns clockwise as seen: one
    /// over the radius. Infinite at a cusp, zero on a straight side and at a corner.
    #[must_use]
    pub fn curvature(&self) -> f64 {
        let (velocity, change) =
            (self.segment.velocity(self.parameter), self.segment.acceleration(self.parameter));
        let turn = velocity.perp_dot(change);
        if turn == 0.0 { 0.0 } else { turn / velocity.length().powi(3) }
    }

    /// How far along the path it is, from the start of the first contour.
    #[must_use]
    pub fn distance(&self) -> f64 {
        self.distance
    }

    /// How far along as a share of the whole length, from 0 to 1.
    #[must_use]
    pub fn share(&self) -> f64 {
        if self.whole > 0.0 { self.distance / self.whole } else { 0.0 }
    }

    /// Which contour it is on, counted from 0.
    #[must_use]
    pub fn contour(&self) -> usize {
        self.contour
    }
}

impl Path {
    /// Measures the path, so that places on it can be found by their distance: contours in order, closing sides
    /// included.
    ///
    /// A station is off by at most about 1e-10 of the whole length along the path. Cost: linear in the segments, a
    /// few dozen evaluations for each curve.
    ///
    /// # Errors
    ///
    /// The path's first fault.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let tail = start((0.0, 0.0)).line((30.0, 0.0)).line((30.0, 40.0)).open().survey()?;
    /// let half = tail.station(tail.length() * 0.5).unwrap();
    /// assert_eq!(half.point(), pt(30.0, 5.0));
    /// assert_eq!(half.heading(), deg(90.0));
    /// # Ok::<(), Fault>(())
    /// ```
    pub fn survey(&self) -> Result<Survey, Fault> {
        self.sound()?;
        let mut fault = FaultSlot::default();
        let far = far_out(self.contours());
        fault.in_range("survey", "coordinate farthest out", far, 0.0, MAX_COORDINATE);
        fault.sound()?;
        limited("survey", || surveyed(self.contours()))
    }
}

impl Contour {
    /// Measures the contour by itself; as [`Path::survey`]. One with coordinates beyond 1e150 has no length.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let hoop = ring((0.0, 0.0), 50.0, 30.0);
    /// let inner = hoop.contours()[1].survey();
    /// assert!((inner.length() - turns(1.0).radians() * 30.0).abs() < 1e-9);
    /// ```
    #[must_use]
    pub fn survey(&self) -> Survey {
        let own = std::slice::from_ref(self);
        surveyed(if far_out(own) <= MAX_COORDINATE { own } else { &[] })
    }
}

/// Beyond this, squares of coordinates leave the numbers.
const MAX_COORDINATE: f64 = 1e150;

/// The coordinate farthest from zero.
fn far_out(contours: &[Contour]) -> f64 {
    let points = contours.iter().flat_map(|contour| contour.points());
    points.map(|p| p.abs().max_element()).fold(0.0, f64::max)
}

fn surveyed(contours: &[Contour]) -> Survey {
    let segments: Vec<(Segment, usize)> = contours
        .iter()
        .enumerate()
        .flat_map(|(i, contour)| contour.segments().map(move |segment| (segment, i)))
        .collect();
    let whole: f64 = segments.iter().map(|(segment, _)| segment.length_between(0.0, 1.0, 1e-6)).sum();
    let one_closed = matches!(contours, [only] if only.is_closed());
    let stretches = Vec::with_capacity(segments.len());
    let mut survey =
        Survey { segments: Vec::new(), stretches, length: 0.0, one_closed, index: OnceLock::new() };
    for (i, (segment, _)) in segments.iter().enumerate() {
        if exhausted(20) {
            break;
        }
        survey.add(segment, i as u32, (whole * RELATIVE_TOLERANCE).max(rounding(segment)));
    }
    survey.segments = segments;
    survey
}

/// The distance below which positions on a segment differ by rounding alone. For an arc it depends on the radius: a short arc of a
/// large ellipse has few significant digits left in its angles.
fn rounding(segment: &Segment) -> f64 {
    let radius = match segment {
        Segment::Arc(arc) => arc.radii.max_element(),
        _ => 0.0,
    };
    let bounds = segment.from().abs().max(segment.to().abs()).max_element();
    8.0 * f64::EPSILON * bounds.max(radius)
}

impl Survey {
    /// The whole length.
    #[must_use]
    pub fn length(&self) -> f64 {
        self.length
    }

    fn add(&mut self, segment: &Segment, number: u32, off: f64) {
        let straight = match segment {
            Segment::Line { .. } => true,
            Segment::Arc(arc) => arc.centred().is_none_or(|whole| whole.radii.x == whole.radii.y),
            _ => false,
        };
        if straight {
            // Even in the parameter: no need to fit anything.
            let length = segment.length();
            self.push(length, number, [0.0, 1.0, 0.0, 0.0, 0.0, 0.0]);
        } else {
            let length = segment.length_between(0.0, 1.0, 1e-12);
            self.fit(segment, number, (0.0, 1.0, length), off, 0);
        }
    }

    fn push(&mut self, length: f64, segment: u32, powers: [f64; 6]) {
        self.stretches.push(Stretch { begin: self.length, length, segment, powers });
        self.length += length;
    }

    /// Adds the stretch between two parameters, of a known length, halved until its polynomial fits.
    fn fit(
        &mut self,
        segment: &Segment,
        number: u32,
        (from, to, length): (f64, f64, f64),
        off: f64,
        halvings: u32,
    ) {
        let middle = 0.5 * (from + to);
        let powers = inverse(segment, from, to, length);
        let first = segment.length_between(from, middle, 1e-12);
        let trial = Stretch { begin: 0.0, length, segment: number, powers };
        let speed = segment.velocity(middle).length();
        let places = [(middle, first), (0.5 * (from + middle), 0.0), (0.5 * (middle + to), 0.0)];
        let fits = places.into_iter().enumerate().all(|(i, (t, known))| {
            let distance = if i == 0 { known } else { segment.length_between(from, t, 1e-12) };
            let found = trial.parameter(distance);
            // Never running back, which at a cusp a polynomial might.
            (found - t).abs() * speed.max(segment.velocity(t).length()) <= off && found > from && found < to
        });
        if fits || halvings >= MAX_BISECTIONS || length <= off {
            let line = [from, to - from, 0.0, 0.0, 0.0, 0.0];
            self.push(length, number, if fits { powers } else { line });
        } else {
            self.fit(segment, number, (from, middle, first), off, halvings + 1);
            self.fit(segment, number, (middle, to, length - first), off, halvings + 1);
        }
    }

    pub(super) fn index(&self) -> &BoxTree {
        self.index.get_or_init(|| BoxTree::new(self.segments.iter().map(|(segment, _)| segment.bounds())))
    }

    pub(super) fn segment(&self, number: usize) -> Option<&Segment> {
        self.segments.get(number).map(|(segment, _)| segment)
    }

    /// The station at a parameter of a segment.
    pub(super) fn station_at(&self, number: usize, parameter: f64) -> Option<Station<'_>> {
        let (segment, contour) = self.segments.get(number)?;
        let first = self.stretches.partition_point(|stretch| (stretch.segment as usize) < number);
        let mut stretches = self.stretches.iter().skip(first).take_while(|s| s.segment as usize == number);
        // The stretch whose end is at or behind the parameter, and the distance at which its polynomial gives it.
        let stretch = stretches.find(|s| s.parameter(s.begin + s.length) >= parameter);
        let distance = match stretch {
            // Not past the stretch by rounding: the next one may be on another contour.
            Some(stretch) => {
                let [first, ..] = stretch.powers;
                stretch.begin + segment.length_between(first, parameter, 1e-12).min(stretch.length)
            }
            None => self
                .stretches
                .iter()
                .skip(first)
                .find(|s| s.segment as usize > number)
                .map_or(self.length, |s| s.begin),
        };
        // At exactly the distance where a contour begins, `station` gives the end of the contour before.
        let before = number.checked_sub(1).and_then(|before| self.segments.get(before));
        let begins = before.is_some_and(|(_, before)| before != contour)
            && self.stretches.get(first).is_some_and(|stretch| distance <= stretch.begin);
        let distance = if begins { distance.next_up() } else { distance };
        Some(Station { segment, contour: *contour, parameter, distance, whole: self.length })
    }

    fn station_on(&self, stretch: usize, distance: f64) -> Option<Station<'_>> {
        let stretch = self.stretches.get(stretch)?;
        let (segment, contour) = self.segments.get(stretch.segment as usize)?;
        let parameter = stretch.parameter(distance);
        Some(Station { segment, contour: *contour, parameter, distance, whole: self.length })
    }

    /// Returns the station at a fraction of the whole length, from 0 to 1, as [`Survey::station`] does at a distance.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let survey = Path::open([(0.0, 0.0), (10.0, 0.0)]).survey()?;
    /// assert_eq!(survey.at(0.25).map(|station| station.point()), Some(pt(2.5, 0.0)));
    /// # Ok::<(), Fault>(())
    /// ```
    #[must_use]
    pub fn at(&self, fraction: f64) -> Option<Station<'_>> {
        self.station(fraction * self.length)
    }

    /// The place at a distance from the start, contours in order. Distances below 0 and beyond the length give the
    /// first and the last place; a path without a segment, or a distance that is not a number, gives none.
    ///
    /// Where two contours meet in distance, the end of the earlier one. Cost: logarithmic in the segments.
    #[must_use]
    pub fn station(&self, distance: f64) -> Option<Station<'_>> {
        if distance.is_nan() {
            return None;
        }
        let distance = kept(distance, 0.0, self.length);
        let behind = self.stretches.partition_point(|stretch| stretch.begin < distance);
        self.station_on(behind.saturating_sub(1), distance)
    }

    /// Stations at even spacing from the start, as many as fit: the first at 0. None for a spacing of zero or
    /// below. Cost: constant for each.
    pub fn every(&self, spacing: f64) -> impl Iterator<Item = Station<'_>> {
        let sound = spacing > 0.0 && spacing.is_finite() && !self.segments.is_empty();
        let count = if sound { (self.length / spacing * (1.0 + 1e-12)).floor() as usize + 1 } else { 0 };
        self.at_steps(spacing, count)
    }

    /// `n` stations that split the whole length evenly, the first at the start and the last at the end; for a path
    /// of one closed contour the end is not repeated. One station stands at the start.
    pub fn split(&self, n: usize, closed: bool) -> impl Iterator<Item = Station<'_>> {
        let gaps = if closed { n } else { n.saturating_sub(1) };
        let spacing = if gaps > 0 { self.length / gaps as f64 } else { 0.0 };
        self.at_steps(spacing, if self.segments.is_empty() { 0 } else { n })
    }

    /// The part of the path from one distance to another, contours in order; each piece is an open contour, and
    /// arcs and curves stay what they are.
    ///
    /// Distances are clamped to the path. On a path of one closed contour, a part that ends before it begins runs on
    /// over the start, in one piece; on other paths it is empty, as is a part of no length.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let square = rectangle((0.0, 0.0), 10.0, 10.0).survey()?;
    /// assert_eq!(square.section(5.0, 15.0).data(), "M5 0H10V5");
    /// assert_eq!(square.section(35.0, 5.0).data(), "M0 5V0H5");
    /// # Ok::<(), Fault>(())
    /// ```
    #[must_use]
    pub fn section(&self, from: f64, to: f64) -> Path {
        let (from, to) = (kept(from, 0.0, self.length), kept(to, 0.0, self.length));
        if from < to {
            return Path::from_contours(self.pieces(from, to));
        }
        if from > to && self.one_closed {
            let before = self.pieces(from, self.length).into_iter();
            let whole = Contour::in_a_row(&before.chain(self.pieces(0.0, to)).collect::<Vec<_>>());
            return Path::from_contours(whole);
        }
        Path::empty()
    }

    fn pieces(&self, from: f64, to: f64) -> Vec<Contour> {
        let mut contours: Vec<Contour> = Vec::new();
        let mut open: Option<(usize, ContourBuilder)> = None;
        let mut at = self.stretches.partition_point(|stretch| stretch.begin + stretch.length <= from);
        while let Some(stretch) = self.stretches.get(at).filter(|stretch| stretch.begin < to) {
            let number = stretch.segment;
            let same = self.stretches.iter().skip(at).take_while(|next| next.segment == number);
            let ends = same.clone().filter(|next| next.begin < to).last().unwrap_or(stretch);
            at += same.count();
            // A curve has several stretches; one that is begun in the middle begins where its distance is.
            let begin = stretch.parameter(from.max(stretch.begin));
            let Some((segment, contour)) = self.segments.get(number as usize) else { break };
            let piece = segment.stretch(begin, ends.parameter(to));
            match &mut open {
                Some((current, builder)) if current == contour => builder.segment(&piece),
                _ => {
                    contours.extend(open.take().map(|(_, builder)| builder.finish(false)));
                    let mut builder = ContourBuilder::new(piece.from());
                    builder.segment(&piece);
                    open = Some((*contour, builder));
                }
            }
        }
        contours.extend(open.map(|(_, builder)| builder.finish(false)));
        contours
    }

    fn at_steps(&self, spacing: f64, count: usize) -> Steps<'_> {
        Steps { survey: self, spacing, count, next: 0, run: None, stretch: 0 }
    }
}

/// How many stations are found at once.
const RUN: usize = 32;

/// Stations at even steps, run by run: all that stand on one stretch know it without looking.
struct Steps<'a> {
    survey: &'a Survey,
    spacing: f64,
    count: usize,
    next: usize,
    run: Option<Run<'a>>,
    /// The stretch that is looked at next.
    stretch: usize,
}

/// Stations one after the other on one stretch. Their parameters are found together: none waits for another, and several
/// are computed at a time.
struct Run<'a> {
    segment: &'a Segment,
    contour: usize,
    /// The first station of the run, and the first that is not in it.
    first: usize,
    end: usize,
    parameters: [f64; RUN],
}

impl Stretch {
    /// As [`Stretch::parameter`] at distances of even steps, none of them before the stretch, to the last digits: without a
    /// division, and with the powers in pairs, which need not wait for one another.
    fn parameters(&self, spacing: f64, first: usize, found: &mut [f64]) {
        let per_length = if self.length > 0.0 { 1.0 / self.length } else { 0.0 };
        let [a, b, c, d, e, f] = self.powers;
        let (begin, first) = (self.begin, first as f64);
        for (i, parameter) in (0_i32..).zip(found) {
            let share = (spacing * (first + f64::from(i)) - begin) * per_length;
            let u = if share > 1.0 { 1.0 } else { share };
            let square = u * u;
            let low = (a + b * u) + square * (c + d * u);
            *parameter = (low + (square * square) * (e + f * u)).clamp(0.0, 1.0);
        }
    }
}

impl<'a> Steps<'a> {
    #[inline]
    fn distance(&self, number: usize) -> f64 {
        (self.spacing * number as f64).min(self.survey.length)
    }

    /// The next station, and those after it that stand on the same stretch.
    fn next_run(&mut self) -> Option<Run<'a>> {
        if self.next >= self.count {
            return None;
        }
        let survey = self.survey;
        let here = self.distance(self.next);
        while survey.stretches.get(self.stretch + 1).is_some_and(|next| next.begin < here) {
            self.stretch += 1;
        }
        let stretch = survey.stretches.get(self.stretch)?;
        let (segment, contour) = survey.segments.get(stretch.segment as usize)?;
        let most = self.count.min(self.next + RUN);
        // The first one behind where the next stretch begins, as dividing says, and then exactly.
        let end = match survey.stretches.get(self.stretch + 1) {
            Some(next) if self.spacing > 0.0 => {
                let guess = (next.begin / self.spacing) as usize;
                let mut end = guess.saturating_sub(1).clamp(self.next + 1, most);
                while end < most && self.distance(end) <= next.begin {
                    end += 1;
                }
                end
            }
            _ => most,
        };
        let mut run = Run { segment, contour: *contour, first: self.next, end, parameters: [0.0; RUN] };
        let found = run.parameters.get_mut(..end - self.next)?;
        stretch.parameters(self.spacing, self.next, found);
        Some(run)
    }

    #[inline]
    fn station(&self, run: &Run<'a>, number: usize, parameter: f64) -> Station<'a> {
        Station {
            segment: run.segment,
            contour: run.contour,
            parameter,
            distance: self.distance(number),
            whole: self.survey.length,
        }
    }
}

impl<'a> Iterator for Steps<'a> {
    type Item = Station<'a>;

    #[inline]
    fn next(&mut self) -> Option<Station<'a>> {
        if self.run.as_ref().is_none_or(|run| self.next >= run.end) {
            self.run = self.next_run();
        }
        let run = self.run.as_ref()?;
        let station = self.station(run, self.next, *run.parameters.get(self.next - run.first)?);
        self.next += 1;
        Some(station)
    }

    fn size_hint(&self) -> (usize, Option<usize>) {
        (0, Some(self.count - self.next))
    }

    #[inline]
    fn fold<B, F: FnMut(B, Station<'a>) -> B>(mut self, begin: B, mut join: F) -> B {
        let mut all = begin;
        while let Some(run) = self.run.take().filter(|run| self.next < run.end).or_else(|| self.next_run()) {
            for (number, parameter) in (run.first..run.end).zip(run.parameters).skip(self.next - run.first) {
                all = join(all, self.station(&run, number, parameter));
            }
            self.next = run.end;
        }
        all
    }
}

/// The polynomial of degree five of the parameter over the share of a stretch's length that has the right place,
/// slope and bend at both ends.
fn inverse(segment: &Segment, from: f64, to: f64, length: f64) -> [f64; 6] {
    // Over the share u of the length: dt/du = length / speed, and its change from the change of the speed.
    let slopes = |t: f64| {
        let (velocity, change) = (segment.velocity(t), segment.acceleration(t));
        let speed = velocity.length();
        let slope = length / speed;
        (slope, -slope * slope * velocity.dot(change) / (speed * speed))
    };
    let ((slope0, bend0), (slope1, bend1)) = (slopes(from), slopes(to));
    let powers = {
        // What is left after the place, slope and bend of the start, at the end.
        let place = to - from - slope0 - 0.5 * bend0;
        let slope = slope1 - slope0 - bend0;
        let bend = bend1 - bend0;
        [
            from,
            slope0,
            0.5 * bend0,
            10.0 * place - 4.0 * slope + 0.5 * bend,
            -15.0 * place + 7.0 * slope - bend,
            6.0 * place - 3.0 * slope + 0.5 * bend,
        ]
    };
    if powers.iter().all(|power| power.is_finite()) { powers } else { [from, to - from, 0.0, 0.0, 0.0, 0.0] }
}
