//! What the places of a drawing hang on: which of the numbers that are written in a script move them, and how far. It is found by trying.
//!
//! Each number is changed a little and the script run again; what moved is compared. A drag then solves for the numbers that bring a place to where it is
//! wanted, and checks by running the script with them.

use std::borrow::Borrow;
use std::ops::Range;
use std::time::Duration;

use chordane::ground::Budget;
use chordane::number::Point;
use chordane::scene::{Grip, GripKind};
use chordane::sheet::Sheet;

#[cfg(feature = "parallel")]
use rayon::prelude::*;

use crate::clock::Instant;
use crate::edits::edited;
use crate::numbers::MAX_DECIMALS;
use crate::{Score, ScoreError, Script, Settings, Stage};

/// A number is changed by this share of itself, or of 1 where it is smaller, to see what it moves.
const PERTURBATION: f64 = 1e-4;

/// What moves by less than this for a change of 1 does not hang on a number.
const MIN_SENSITIVITY: f64 = 1e-7;

/// Two numbers that move a place in directions with a smaller sine between them do not move it freely.
const MIN_DIRECTION_SINE: f64 = 0.05;

/// So many of the nearest numbers are looked at in pairs.
const MAX_PAIRED_NUMBERS: usize = 24;

/// The most grips of an item that can be moved by the numbers of its vertices.
const MAX_TOGETHER: usize = 600;

/// So many ways to hold a place are given.
const MAX_BINDINGS: usize = 24;

/// Runs of the script for one step of a drag.
const MAX_RUNS_PER_STEP: usize = 16;

/// A place is near enough at this share of what cannot be seen.
const STOP_FRACTION: f64 = 0.75;

/// The share of the tolerance that rounding may use up. The rest is for the error of the linear estimate.
const ROUNDED_BY: f64 = 0.6;

/// So many decimals more than needed are tried where a place comes no nearer.
const MAX_EXTRA_DECIMALS: usize = 2;

/// So many numbers are tried at once, on as many threads as there are.
const PARALLEL_RUNS: usize = 4;

/// So much of what was learned is kept, in places that numbers move.
const MAX_STORED_SENSITIVITIES: usize = 8_000_000;

/// A script at some settings, and what is known of its numbers.
///
/// ```
/// use std::time::Duration;
/// use chordane_score::{Holds, Limits, Script, Settings};
///
/// let text = "sheet(200, 100).add(polygon(pt(60, 50), 6, 30).fill(\"teal\"))";
/// let script = Script::read("vent.chord", text, Limits::default())?;
/// let mut holds = Holds::new(script, Settings::new())?;
/// holds.learn(Duration::from_secs(9));
/// // The corner to the right hangs on the radius; the centre on two numbers.
/// let corner = holds.grips().iter().position(|grip| (grip.at.x - 60.0).abs() < 1e-9 && grip.at.y < 30.0).unwrap();
/// let hold = &holds.of(corner)[0];
/// let dragged = holds.drag(corner, hold).to((60.0, 10.0).into(), 0.01);
/// assert_eq!(dragged.text, text.replace("30)", "40)"));
/// # Ok::<(), chordane_score::ScoreError>(())
/// ```
#[derive(Debug)]
pub struct Holds {
    script: Script,
    settings: Settings,
    grips: Vec<Grip>,
    /// The line of each item.
    lines: Vec<Option<usize>>,
    /// For each number that was tried, the places that it moves, in their order, and how far for a change of 1.
    tried: Vec<Option<Vec<(u32, Point)>>>,
    kept: usize,
}

/// Numbers that bring a place to where it is wanted.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Hold {
    /// One number, which moves the place along a line; two, which move it freely; or more, which carry a shape along by all of its vertices. By their
    /// places in [`Script::numbers`].
    pub numbers: Vec<usize>,
    /// The places that move with them, this one among them, by their places in [`Holds::grips`].
    pub moved: Vec<usize>,
}

impl Holds {
    /// Runs a script, to learn of it.
    ///
    /// # Errors
    ///
    /// The mistake that ends the run.
    pub fn new(script: Script, settings: Settings) -> Result<Self, ScoreError> {
        let sheet = perform(&script, &settings)?;
        let scene = sheet.scene().map_err(ScoreError::from)?;
        let (grips, lines) = (scene.grips(), scene.items().iter().map(|placed| placed.line()).collect());
        let tried = vec![None; script.numbers().len()];
        Ok(Self { script, settings, grips, lines, tried, kept: 0 })
    }

    /// The script.
    #[must_use]
    pub fn script(&self) -> &Script {
        &self.script
    }

    /// What it is run with.
    #[must_use]
    pub fn settings(&self) -> &Settings {
        &self.settings
    }

    /// The places that can be taken hold of.
    #[must_use]
    pub fn grips(&self) -> &[Grip] {
        &self.grips
    }

    /// Tries numbers that were not tried yet, for so long; whether all are now. Cost: a reading and a run of the script for each.
    pub fn learn(&mut self, within: Duration) -> bool {
        let all: Vec<usize> = (0..self.tried.len()).collect();
        self.learn_of(&all, within)
    }

    /// As [`Holds::learn`], the numbers nearest to the line of a place first.
    pub fn learn_near(&mut self, grip: usize, within: Duration) -> bool {
        let mut all: Vec<usize> = (0..self.tried.len()).collect();
        all.sort_by_key(|number| self.apart(grip, *number));
        self.learn_of(&all, within)
    }

    fn learn_of(&mut self, numbers: &[usize], within: Duration) -> bool {
        let begin = Instant::now();
        let untried: Vec<usize> =
            numbers.iter().copied().filter(|number| matches!(self.tried.get(*number), Some(None))).collect();
        for some in untried.chunks(PARALLEL_RUNS) {
            if begin.elapsed() >= within {
                return false;
            }
            let enough = self.kept >= MAX_STORED_SENSITIVITIES;
            let budget = Budget::current();
            let moved_by = |number: &usize| match &budget {
                _ if enough => Vec::new(),
                Some(budget) => budget.within(|| self.moved_by(*number)),
                None => self.moved_by(*number),
            };
            #[cfg(feature = "parallel")]
            let moved: Vec<Vec<(u32, Point)>> = some.par_iter().map(moved_by).collect();
            #[cfg(not(feature = "parallel"))]
            let moved: Vec<Vec<(u32, Point)>> = some.iter().map(moved_by).collect();
            // What was called off says nothing.
            if budget.as_ref().is_some_and(|budget| budget.ask().is_some()) {
                return false;
            }
            for (number, moved) in some.iter().zip(moved) {
                self.kept += moved.len();
                if let Some(tried) = self.tried.get_mut(*number) {
                    *tried = Some(moved);
                }
            }
        }
        true
    }

    /// What a number moves, by a run with another one. Nothing where the drawing is then made of other parts.
    fn moved_by(&self, number: usize) -> Vec<(u32, Point)> {
        let Some(value) = self.script.numbers().get(number).map(|number| number.value) else {
            return Vec::new();
        };
        let step = PERTURBATION * value.abs().max(1.0);
        let Some(grips) = run(&self.script, &self.settings, &[(number, value + step)]) else {
            return Vec::new();
        };
        let same = |(a, b): (&Grip, &Grip)| a.item == b.item && a.kind == b.kind;
        if grips.len() != self.grips.len() || !self.grips.iter().zip(&grips).all(same) {
            return Vec::new();
        }
        let by = |(own, other): (&Grip, &Grip)| (other.at - own.at) / step;
        let all = self.grips.iter().zip(&grips).map(by).enumerate();
        all.filter(|(_, by)| by.length() > MIN_SENSITIVITY).map(|(at, by)| (at as u32, by)).collect()
    }

    /// How far the line of a number is from that of a place's item.
    fn apart(&self, grip: usize, number: usize) -> usize {
        let line = self.grips.get(grip).and_then(|grip| self.lines.get(grip.item).copied().flatten());
        let own = self.script.numbers().get(number).map_or(0, |number| number.line);
        line.map_or(own, |line| line.abs_diff(own))
    }

    /// How a place moves for a change of a number by 1.
    fn by(&self, grip: usize, number: usize) -> Option<Point> {
        let moved = self.tried.get(number)?.as_ref()?;
        let at = moved.binary_search_by_key(&(grip as u32), |(at, _)| *at).ok()?;
        moved.get(at).map(|(_, by)| *by)
    }

    fn moves(&self, number: usize) -> impl Iterator<Item = usize> + '_ {
        self.tried.get(number).into_iter().flatten().flatten().map(|(at, _)| *at as usize)
    }

    /// The ways to hold a place, of what was learned so far, the best first: those that move the fewest vertices; of these those that do not carry the
    /// whole item along (for its centre, those that do); then two numbers before one, since they move it freely; then those nearest to the line of
    /// its item. Numbers that [count](crate::Number::counts) come last. The centre of a shape whose vertices are all written as numbers is held by
    /// all of these first, where no two carry it. None where no number moves it.
    #[must_use]
    pub fn of(&self, grip: usize) -> Vec<Hold> {
        let mut numbers: Vec<usize> = (0..self.tried.len()).filter(|n| self.by(grip, *n).is_some()).collect();
        numbers.sort_by_key(|number| self.apart(grip, *number));
        numbers.truncate(MAX_PAIRED_NUMBERS);
        let carries: Vec<bool> = numbers.iter().map(|number| self.carries(grip, *number)).collect();
        let centre = self.grips.get(grip).is_some_and(|grip| grip.kind == GripKind::Centre);
        let counting = |number: usize| self.script.numbers().get(number).is_some_and(|number| number.counts);
        let mut holds: Vec<(Hold, bool, usize)> = Vec::new();
        for (i, first) in numbers.iter().enumerate() {
            let alone = vec![*first];
            let moved: Vec<usize> = self.moves(*first).collect();
            let along = |i: usize| carries.get(i).is_some_and(|carries| *carries);
            let hold = Hold { numbers: alone, moved: moved.clone() };
            holds.push((hold, along(i) != centre, self.apart(grip, *first)));
            for (j, second) in numbers.iter().enumerate().skip(i + 1) {
                let (Some(a), Some(b)) = (self.by(grip, *first), self.by(grip, *second)) else { continue };
                if a.perp_dot(b).abs() < MIN_DIRECTION_SINE * a.length() * b.length() {
                    continue;
                }
                let mut both = moved.clone();
                both.extend(self.moves(*second));
                both.sort_unstable();
                both.dedup();
                let far = self.apart(grip, *first) + self.apart(grip, *second);
                let mut numbers = vec![*first, *second];
                numbers.sort_unstable();
                holds.push((Hold { numbers, moved: both }, (along(i) || along(j)) != centre, far));
            }
        }
        let vertices = |hold: &Hold| {
            let is_vertex =
                |at: &&usize| self.grips.get(**at).is_some_and(|grip| grip.kind != GripKind::Centre);
            hold.moved.iter().filter(is_vertex).count()
        };
        holds.sort_by_cached_key(|(hold, unfit, far)| {
            let counting = hold.numbers.iter().filter(|number| counting(**number)).count();
            (counting, vertices(hold), *unfit, 2 - hold.numbers.len(), *far)
        });
        let carried = holds.iter().any(|(hold, unfit, _)| !unfit && hold.numbers.len() == 2);
        let together = if centre && !carried { self.together(grip) } else { None };
        let whole = together.map(|shares| {
            let numbers: Vec<usize> = shares.iter().map(|(number, _)| *number).collect();
            let mut moved: Vec<usize> = numbers.iter().flat_map(|number| self.moves(*number)).collect();
            moved.sort_unstable();
            moved.dedup();
            Hold { numbers, moved }
        });
        let holds = holds.into_iter().map(|(hold, ..)| hold);
        whole.into_iter().chain(holds).take(MAX_BINDINGS).collect()
    }

    /// Where the handle of a point knob belongs: a grip, by its place in [`Holds::grips`], and a hold by the knob's two numbers, by its place in
    /// [`Holds::of`]. The grip is the first vertex that the knob moves, or the centre of the vertex's item if the knob moves all of it. `None` for any other
    /// knob, and for one that moves nothing as far as has been learned.
    #[must_use]
    pub fn of_knob(&self, name: &str) -> Option<(usize, usize)> {
        let numbers = self.script.start_numbers(name).filter(|numbers| numbers.len() == 2)?;
        let moves = |at: usize| numbers.iter().all(|number| self.by(at, *number).is_some());
        let is_vertex = |grip: &Grip| matches!(grip.kind, GripKind::Vertex { .. });
        let all = || self.grips.iter().enumerate();
        let (first, item) =
            all().find(|(at, grip)| is_vertex(grip) && moves(*at)).map(|(at, grip)| (at, grip.item))?;
        let of_item = || all().filter(|(_, grip)| grip.item == item);
        let whole = of_item().filter(|(_, grip)| is_vertex(grip)).all(|(at, _)| moves(at));
        let centre = of_item().find(|(_, grip)| grip.kind == GripKind::Centre).map(|(at, _)| at);
        let grip = centre.filter(|_| whole).unwrap_or(first);
        let hold = self.of(grip).iter().position(|hold| hold.numbers == numbers)?;
        Some((grip, hold))
    }

    /// Whether a number moves the whole item of a place, all of it alike.
    fn carries(&self, grip: usize, number: usize) -> bool {
        let (Some(own), Some(by)) = (self.grips.get(grip), self.by(grip, number)) else { return false };
        let alike =
            |at: usize| self.by(at, number).is_some_and(|other| other.distance(by) <= 1e-3 * by.length());
        let all = self.grips.iter().enumerate().filter(|(_, other)| other.item == own.item);
        all.filter(|(_, other)| matches!(other.kind, GripKind::Vertex { .. })).all(|(at, _)| alike(at))
    }

    /// Numbers that together move a whole item, by moving each of its vertices and control points alike: with each number, how much it changes for a
    /// move of 1 to the right and of 1 down. `None` if the numbers of the item cannot do that. Cost: quadratic in the item's grips, at most
    /// `MAX_TOGETHER` of them.
    fn together(&self, grip: usize) -> Option<Vec<(usize, Point)>> {
        let item = self.grips.get(grip)?.item;
        let is_part = |own: &Grip| {
            matches!(own.kind, GripKind::Vertex { .. } | GripKind::Control { .. }) && own.item == item
        };
        let parts: Vec<usize> =
            (0..self.grips.len()).filter(|at| self.grips.get(*at).is_some_and(is_part)).collect();
        if parts.len() > MAX_TOGETHER {
            return None;
        }
        let mut shares: Vec<(usize, Point)> = Vec::new();
        // How much of a unit move a grip does not make yet with the numbers so far.
        let left = |shares: &[(usize, Point)], part: usize| {
            let gone = |(number, share): &(usize, Point)| {
                self.by(part, *number).map(|by| (by * share.x, by * share.y))
            };
            let all = shares.iter().filter_map(gone);
            all.fold((Point::X, Point::Y), |(x, y), (across, down)| (x - across, y - down))
        };
        let is_left = |(x, y): (Point, Point)| x.length().max(y.length()) > 1e-3;
        for part in &parts {
            let (x, y) = left(&shares, *part);
            if !is_left((x, y)) {
                continue;
            }
            let is_new = |number: &usize| shares.iter().all(|(own, _)| own != number);
            let mut numbers: Vec<usize> =
                (0..self.tried.len()).filter(|n| is_new(n) && self.by(*part, *n).is_some()).collect();
            // Numbers that move little else come first.
            numbers.sort_by_key(|number| self.moves(*number).count());
            let by = |number: usize| self.by(*part, number).unwrap_or_default();
            let alone = |number: &&usize| {
                let by = by(**number);
                x.perp_dot(by).abs().max(y.perp_dot(by).abs()) <= 1e-3 * by.length()
            };
            if let Some(number) = numbers.iter().find(alone) {
                let by = by(*number) / by(*number).length_squared();
                shares.push((*number, Point::new(x.dot(by), y.dot(by))));
                continue;
            }
            let pairs = numbers.iter().enumerate().flat_map(|(i, a)| {
                numbers.iter().skip(i + 1).take(MAX_PAIRED_NUMBERS).map(move |b| (*a, *b))
            });
            let apart = |(a, b): &(usize, usize)| {
                by(*a).perp_dot(by(*b)).abs() >= MIN_DIRECTION_SINE * by(*a).length() * by(*b).length()
            };
            let (first, second) = pairs.take(MAX_PAIRED_NUMBERS * MAX_PAIRED_NUMBERS).find(apart)?;
            let (a, b) = (by(first), by(second));
            let det = a.perp_dot(b);
            shares.push((first, Point::new(x.perp_dot(b), y.perp_dot(b)) / det));
            shares.push((second, Point::new(a.perp_dot(x), a.perp_dot(y)) / det));
        }
        let carried = parts.iter().all(|part| !is_left(left(&shares, *part)));
        (carried && shares.len() > 2).then_some(shares)
    }

    /// Begins to drag a place by numbers that hold it.
    #[must_use]
    pub fn drag(&self, grip: usize, hold: &Hold) -> Drag<&Self> {
        Drag::new(self, grip, hold)
    }

    /// As [`Holds::drag`], but the drag owns what is known of the script, so that it can be stored.
    #[must_use]
    pub fn into_drag(self, grip: usize, hold: &Hold) -> Drag<Self> {
        Drag::new(self, grip, hold)
    }
}

/// A place that is being dragged: each step goes on from where the one before it ended. `H` is `&Holds` or `Holds`.
#[derive(Clone, Debug)]
pub struct Drag<H> {
    holds: H,
    grip: Option<Grip>,
    numbers: Vec<usize>,
    values: Vec<f64>,
    /// How far the grip moves if a number changes by 1; or, for numbers that move an item together, how much each changes for a unit move.
    columns: Vec<Point>,
    together: bool,
    at: Point,
    text: String,
}

/// What a step of a drag came to.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct Dragged {
    /// The script's text with the numbers as they are now. It differs from the text before in these alone.
    pub text: String,
    /// The numbers, by their places in [`Script::numbers`], and what they are now.
    pub values: Vec<(usize, f64)>,
    /// Where the place is now.
    pub at: Point,
    /// Why it is not where it is wanted, in plain words.
    pub held_back: Option<String>,
}

impl<H: Borrow<Holds>> Drag<H> {
    fn new(holds: H, grip: usize, hold: &Hold) -> Self {
        let known = holds.borrow();
        let own = known.grips.get(grip).copied();
        let of = |number: &usize| known.script.numbers().get(*number).map_or(0.0, |number| number.value);
        let together = if hold.numbers.len() > 2 { known.together(grip) } else { None };
        let column = |number: &usize| known.by(grip, *number).unwrap_or_default();
        let columns = match &together {
            Some(shares) => shares.iter().map(|(_, share)| *share).collect(),
            None => hold.numbers.iter().map(column).collect(),
        };
        let numbers = together.as_ref().map(|shares| shares.iter().map(|(number, _)| *number).collect());
        let numbers: Vec<usize> = numbers.unwrap_or_else(|| hold.numbers.clone());
        let (values, text) = (numbers.iter().map(of).collect(), known.script.source().to_owned());
        let (at, together) = (own.map_or(Point::ZERO, |grip| grip.at), together.is_some());
        Self { holds, grip: own, numbers, values, columns, together, at, text }
    }

    /// Returns the script as it was when the drag began, and what is known of its numbers.
    #[must_use]
    pub fn holds(&self) -> &Holds {
        self.holds.borrow()
    }

    /// Brings the place to a point, or as near as its numbers can, and no nearer than a distance that cannot be seen: half a pixel. Numbers get the
    /// fewest decimals with which the place comes that near, and numbers that count stay whole. Cost: a few runs of the script.
    pub fn to(&mut self, wanted: Point, within: f64) -> Dragged {
        let within = within.max(1e-9);
        let (mut refused, mut runs, mut more) = (None, 0, 0);
        // After a move, anything within the tolerance is near enough.
        let near_enough = |runs: usize| if runs == 0 { STOP_FRACTION * within } else { within };
        while runs < MAX_RUNS_PER_STEP && self.at.distance(wanted) > near_enough(runs) {
            let Some(step) = self.step(wanted - self.at, within) else { break };
            let mut share = 1.0;
            let before = self.at.distance(wanted);
            let mut nearer = false;
            while runs < MAX_RUNS_PER_STEP && share > 0.05 {
                runs += 1;
                let values: Vec<f64> = self.values.iter().zip(&step).map(|(v, s)| v + s * share).collect();
                let (text, values) = self.written(&values, within, more);
                match self.place(&text) {
                    Ok(Some(at)) if at.distance(wanted) < before * (1.0 - 1e-6) => {
                        self.learn(&values, at);
                        (self.values, self.at, self.text, nearer) = (values, at, text, true);
                        break;
                    }
                    Ok(_) => {}
                    Err(mistake) => refused = Some(mistake.to_string()),
                }
                share *= 0.5;
            }
            if !nearer {
                // It may be that the decimals do not suffice.
                if self.at.distance(wanted) <= within || more == MAX_EXTRA_DECIMALS || refused.is_some() {
                    break;
                }
                more += 1;
            }
        }
        let held_back = (self.at.distance(wanted) > within).then(|| self.why(refused));
        let values = self.numbers.iter().copied().zip(self.values.iter().copied()).collect();
        Dragged { text: self.text.clone(), values, at: self.at, held_back }
    }

    /// How the numbers change to move the place by a step.
    fn step(&self, by: Point, within: f64) -> Option<Vec<f64>> {
        let step = match *self.columns.as_slice() {
            _ if self.together => self.columns.iter().map(|share| share.dot(by)).collect(),
            // Along the line it is as near as it can be.
            [a] if a.dot(by).abs() <= 0.1 * within * a.length() => return None,
            [a] => vec![a.dot(by) / a.length_squared()],
            [a, b] => {
                let det = a.perp_dot(b);
                vec![by.perp_dot(b) / det, a.perp_dot(by) / det]
            }
            _ => return None,
        };
        let sound = step.iter().all(|change| change.is_finite()) && step.iter().any(|change| *change != 0.0);
        sound.then_some(step)
    }

    /// Corrects how the place moves by how it did move to some numbers (C. G. Broyden, 1965).
    fn learn(&mut self, values: &[f64], at: Point) {
        let step: Vec<f64> = values.iter().zip(&self.values).map(|(now, before)| now - before).collect();
        let size: f64 = step.iter().map(|change| change * change).sum();
        if size == 0.0 || self.together {
            return;
        }
        let told: Point = self.columns.iter().zip(&step).map(|(column, change)| *column * *change).sum();
        let off = (at - self.at - told) / size;
        for (column, change) in self.columns.iter_mut().zip(&step) {
            *column += off * *change;
        }
    }

    /// The script's text with other values, with as few decimals as will do and some more; and the values as they are written.
    fn written(&self, values: &[f64], within: f64, more: usize) -> (String, Vec<f64>) {
        let all = self.holds().script.numbers();
        let needed: Vec<usize> = (0..values.len()).map(|at| self.needed(at, within) + more).collect();
        let most = needed.iter().copied().max().unwrap_or(0);
        let rounded = |fewer: usize| -> Vec<f64> {
            let own = values.iter().zip(&needed).enumerate();
            own.map(|(at, (value, needed))| self.rounded(at, *value, needed.saturating_sub(fewer))).collect()
        };
        let near = |fewer: &usize| self.off(values, &rounded(*fewer)) <= ROUNDED_BY * within;
        // Coarsest first, unless that brought the grip no nearer.
        let fewer = if more > 0 { 0 } else { (1..=most).rev().find(near).unwrap_or(0) };
        let written = rounded(fewer);
        let text = |(number, value): (&usize, &f64)| {
            let number = all.get(*number)?;
            Some((number.bytes.clone(), number.rounded(*value, MAX_DECIMALS)))
        };
        let texts: Vec<(Range<usize>, String)> = self.numbers.iter().zip(&written).filter_map(text).collect();
        (edited(self.holds().script.source(), texts), written)
    }

    /// The decimals of a number that are surely enough: rounding two numbers by half a unit of their last decimal moves the grip by no more than
    /// the tolerance.
    fn needed(&self, at: usize, within: f64) -> usize {
        let column = self.columns.get(at).map_or(0.0, |column| column.length());
        let moves = if self.together { 1.0 / column } else { column };
        let decimals = (0.71 * moves / within).log10().ceil();
        if decimals.is_finite() { decimals.clamp(0.0, MAX_DECIMALS as f64) as usize } else { 0 }
    }

    /// A value rounded to decimals. For numbers that move an item together the change is rounded, so that the item keeps its shape.
    fn rounded(&self, at: usize, value: f64, decimals: usize) -> f64 {
        let number = self.numbers.get(at).and_then(|number| self.holds().script.numbers().get(*number));
        let Some(number) = number else { return value };
        if number.counts {
            return value.round();
        }
        let to = |value: f64, decimals: usize| {
            format!("{value:.*}", decimals.min(MAX_DECIMALS)).parse().unwrap_or(value)
        };
        if self.together {
            return to(number.value + to(value - number.value, decimals), decimals.max(number.decimals));
        }
        to(value, decimals)
    }

    /// The estimated error of the grip's position with rounded values.
    fn off(&self, values: &[f64], rounded: &[f64]) -> f64 {
        let all = values.iter().zip(rounded).zip(&self.columns);
        if self.together {
            let off =
                all.map(|((value, rounded), share)| (rounded - value).abs() / share.length().max(1e-12));
            return std::f64::consts::SQRT_2 * off.fold(0.0, f64::max);
        }
        all.map(|((value, rounded), column)| *column * (rounded - value)).sum::<Point>().length()
    }

    /// Where the place is in a text; `None` where it is not there any more.
    fn place(&self, text: &str) -> Result<Option<Point>, ScoreError> {
        let script = self.holds().script.reread(text)?;
        let sheet = perform(&script, &self.holds().settings)?;
        Ok(self.grip.and_then(|grip| {
            let placed = sheet.items().nth(grip.item)?;
            placed.grips().into_iter().find(|own| own.kind == grip.kind).map(|own| own.at)
        }))
    }

    fn why(&self, refused: Option<String>) -> String {
        if let Some(refused) = refused {
            return format!("the score fails with the numbers this would need: {refused}");
        }
        let lines: Vec<usize> = self
            .numbers
            .iter()
            .filter_map(|number| self.holds().script.numbers().get(*number).map(|number| number.line))
            .collect();
        match lines.as_slice() {
            [] => "no number of the score moves it".to_owned(),
            _ if self.together => "the numbers of its vertices cannot bring it any closer".to_owned(),
            [line] => format!("only the number in line {line} moves it, and only along one line"),
            [first, rest @ ..] => {
                let last = rest.last().unwrap_or(first);
                let lines =
                    if first == last { format!("line {first}") } else { format!("lines {first} and {last}") };
                format!("the numbers in {lines} cannot bring it any closer")
            }
        }
    }
}

fn perform(script: &Script, settings: &Settings) -> Result<Sheet, ScoreError> {
    script.perform(&mut Stage::new(settings.clone()))
}

/// The places of a script with other numbers; `None` where it does not run.
fn run(script: &Script, settings: &Settings, values: &[(usize, f64)]) -> Option<Vec<Grip>> {
    let changed = script.reread(script.with_numbers(values)).ok()?;
    let sheet = perform(&changed, settings).ok()?;
    let scene = sheet.scene().ok()?;
    Some(scene.grips())
}
