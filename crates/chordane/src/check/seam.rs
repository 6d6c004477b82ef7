//! Findings on loops: what is seen over a whole round, and whether its end goes over into its beginning.

use std::collections::BTreeMap;

use super::finding::{Code, Finding, Findings, Level};
use super::wording::short;
use super::{DocumentSpace, Drawn};
use crate::ground::{Fault, limited, visible};
use crate::number::{Cell, Point};
use crate::path::Path;
use crate::sheet::{Colour, Layered, Paint, Sheet};

/// So many places of a line are compared.
const SAMPLES: usize = 24;

/// More items than this are not compared at the seam.
const MAX_COMPARED_ITEMS: usize = 5_000;

/// A jump by less than this share of the sheet cannot be seen.
const MIN_VISIBLE_JUMP: f64 = 1.0 / 400.0;

/// A jump is meant where one at least this large comes within the loop too.
const TYPICAL_JUMP_RATIO: f64 = 0.5;

/// Moments of a loop.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::check::LoopMoments;
/// let at = |phase: f64| sheet(100.0, 80.0).add(circle((saw(phase, 20.0, 80.0), 40.0), 9.0).fill("teal"));
/// let moments: Vec<Sheet> = (0..24).map(|k| at(f64::from(k) / 24.0)).collect();
/// let findings = LoopMoments { moments: &moments, last: &at(0.9999) }.findings()?;
/// assert_eq!(findings[0].code.name(), "loop-seam");
/// assert!(findings[0].message.contains("60 units"), "{}", findings[0].message);
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Copy, Debug)]
pub struct LoopMoments<'s> {
    /// The loop at even phases, the first of them 0.
    pub moments: &'s [Sheet],
    /// The loop a hair before its end.
    pub last: &'s Sheet,
}

impl LoopMoments<'_> {
    /// What looks wrong over the loop: items that jump where it begins again, items that leave the sheet and do not come back before that, and
    /// moments at which nothing is to be seen while there is something at others.
    ///
    /// A jump does not count where what is there at the end looks as something else does at the beginning, as on a belt that moves on by one; where
    /// jumps half as large come within the loop too, as with values that are held; and where it is less than a four-hundredth of the sheet.
    ///
    /// # Errors
    ///
    /// The first fault of a moment.
    pub fn findings(&self) -> Result<Vec<Finding>, Fault> {
        limited("check", || self.all_findings())?
    }

    fn all_findings(&self) -> Result<Vec<Finding>, Fault> {
        let Some(first) = self.moments.first() else { return Ok(Vec::new()) };
        let spaces: Vec<DocumentSpace> = self.moments.iter().map(DocumentSpace::of).collect();
        let scenes = self.moments.iter().map(Sheet::scene).collect::<Result<Vec<_>, _>>()?;
        let drawn: Vec<Vec<Drawn<'_>>> = scenes
            .iter()
            .zip(&spaces)
            .map(|(scene, space)| scene.items().iter().map(|placed| Drawn::of(placed, space)).collect())
            .collect();
        let last_space = DocumentSpace::of(self.last);
        let last_scene = self.last.scene()?;
        let last: Vec<Drawn<'_>> =
            last_scene.items().iter().map(|placed| Drawn::of(placed, &last_space)).collect();
        let mut findings = Findings::new(false);
        let Some(begin) = drawn.first() else { return Ok(Vec::new()) };
        if let Some(space) = spaces.first() {
            let of = |all: &[Drawn<'_>], space: &DocumentSpace| {
                all.iter().map(|one| is_seen(one, space)).collect()
            };
            let seen = Seen { begin: of(begin, space), last: of(&last, &last_space) };
            seam((begin, &last), &seen, &drawn, first, &mut findings);
        }
        let shows =
            |one: &Drawn<'_>, moment: usize| spaces.get(moment).is_some_and(|space| is_seen(one, space));
        leaving(&drawn, &shows, &mut findings);
        let empty: Vec<bool> =
            drawn.iter().enumerate().map(|(moment, all)| !all.iter().any(|one| shows(one, moment))).collect();
        if let Some(moment) = empty.iter().position(|empty| *empty).filter(|_| empty.contains(&false)) {
            let count = empty.iter().filter(|empty| **empty).count();
            let seen = format!(
                "nothing can be seen from phase {} on, for {} of the loop",
                phase(moment, empty.len()),
                share(count, empty.len())
            );
            let mend = "keep something visible all through the loop";
            findings.push(finding(Code::Unpainted, Level::Hint, first.cell().centre(), seen, mend));
        }
        Ok(findings.in_order())
    }
}

fn finding(code: Code, level: Level, at: Point, message: String, mend: &str) -> Finding {
    let (path, contour, line, mend) = (None, None, None, mend.to_owned());
    Finding { code, level, path, contour, at, line, message, mend }
}

fn phase(moment: usize, count: usize) -> String {
    short(moment as f64 / count.max(1) as f64)
}

fn share(some: usize, of: usize) -> String {
    format!("{} %", (100.0 * some as f64 / of.max(1) as f64).round())
}

/// Which items can be seen on the sheet when the loop begins, and a hair before its end.
struct Seen {
    begin: Vec<bool>,
    last: Vec<bool>,
}

fn is_seen(one: &Drawn<'_>, space: &DocumentSpace) -> bool {
    let meets =
        |painted: Cell| painted.min.cmple(space.page.max).all() && painted.max.cmpge(space.page.min).all();
    one.painted_bounds().is_some_and(meets)
        && one.placed.opacity > f64::from(COLOUR_TOLERANCE)
        && (one.filled || one.half_stroke.is_some())
}

/// How an item that is not there any more, or not yet, differs.
#[derive(Clone, Copy, PartialEq)]
enum Leap {
    Moved(f64),
    Coloured(f32),
    Vanishes,
    Appears,
}

fn seam(
    (begin, last): (&[Drawn<'_>], &[Drawn<'_>]),
    seen: &Seen,
    all: &[Vec<Drawn<'_>>],
    sheet: &Sheet,
    findings: &mut Findings,
) {
    if begin.len().max(last.len()) > MAX_COMPARED_ITEMS {
        return;
    }
    let tolerance = sheet.size.min_element() * MIN_VISIBLE_JUMP;
    // What is too small or too faint to be seen may come and go.
    let there = |seen: &[bool], all: &[Drawn<'_>], i: usize| {
        let large = all.get(i).is_some_and(|one| one.extent() > tolerance);
        large && seen.get(i).copied().unwrap_or(false)
    };
    let in_begin = |i: usize| there(&seen.begin, begin, i);
    let in_last = |i: usize| there(&seen.last, last, i);
    let alike = |a: &Drawn<'_>, b: &Drawn<'_>| {
        paint_step(a, b) <= COLOUR_TOLERANCE && apart(&a.path, &b.path, tolerance) <= tolerance
    };
    // Each is compared with the one of its own number, and then with those that are left over, by where they are.
    let differs = |i: &usize| !matches!((begin.get(*i), last.get(*i)), (Some(a), Some(b)) if alike(a, b));
    let left: Vec<usize> = (0..begin.len().max(last.len())).filter(differs).collect();
    if left.is_empty() {
        return;
    }
    let mut by_place: BTreeMap<(i64, i64), Vec<usize>> = BTreeMap::new();
    let square = |point: Point| {
        ((point.x / (8.0 * tolerance)).floor() as i64, (point.y / (8.0 * tolerance)).floor() as i64)
    };
    for i in left.iter().filter(|i| in_last(**i)) {
        if let Some(bounds) = last.get(*i).and_then(|one| one.bounds) {
            by_place.entry(square(bounds.centre())).or_default().push(*i);
        }
    }
    let mut taken = Vec::new();
    let mut missing = Vec::new();
    for i in left.iter().filter(|i| in_begin(**i)) {
        let Some(one) = begin.get(*i) else { continue };
        let middle = one.bounds.map_or(Point::ZERO, |bounds| bounds.centre());
        let (x, y) = square(middle);
        let near = (x - 1..=x + 1).flat_map(|x| (y - 1..=y + 1).map(move |y| (x, y)));
        let found = near
            .filter_map(|square| by_place.get(&square))
            .flatten()
            .find(|j| !taken.contains(*j) && last.get(**j).is_some_and(|other| alike(one, other)));
        match found {
            Some(other) => taken.push(*other),
            None => missing.push(*i),
        }
    }
    let gone: Vec<usize> = left.iter().copied().filter(|i| in_last(*i) && !taken.contains(i)).collect();
    let usual = usual_steps(all);
    let mut told = Vec::new();
    for i in missing.iter().chain(gone.iter().filter(|i| !missing.contains(i))).copied() {
        let (leap, one) = match (
            begin.get(i).filter(|_| missing.contains(&i)),
            last.get(i).filter(|_| gone.contains(&i)),
        ) {
            (Some(a), Some(b)) => {
                let far = apart(&a.path, &b.path, 0.0);
                (if far > tolerance { Leap::Moved(far) } else { Leap::Coloured(paint_step(a, b)) }, a)
            }
            (Some(a), None) => (Leap::Appears, a),
            (None, Some(b)) => (Leap::Vanishes, b),
            (None, None) => continue,
        };
        let meant = match (leap, &usual) {
            (Leap::Moved(far), Some(steps)) => {
                steps.get(i).is_some_and(|(step, _)| *step >= TYPICAL_JUMP_RATIO * far)
            }
            (Leap::Coloured(far), Some(steps)) => {
                steps.get(i).is_some_and(|(_, step)| f64::from(*step) >= TYPICAL_JUMP_RATIO * f64::from(far))
            }
            // Where items come and go, nobody can tell which is which.
            (_, None) => true,
            _ => false,
        };
        if !meant {
            told.push((leap, one));
        }
    }
    // What belongs together jumps together: the one that jumps farthest stands for those of its line.
    told.sort_by_key(|(_, one)| one.item.line());
    for group in told.chunk_by(|a, b| a.1.item.line().is_some() && a.1.item.line() == b.1.item.line()) {
        let far = |leap: &Leap| if let Leap::Moved(far) = leap { *far } else { 0.0 };
        let Some((leap, one)) = group.iter().max_by(|a, b| far(&a.0).total_cmp(&far(&b.0))) else { continue };
        let others = match group.len() {
            1 => String::new(),
            2 => ", and so does another path of this line".to_owned(),
            more => format!(", and so do {} other paths of this line", more - 1),
        };
        let seen = match leap {
            Leap::Moved(far) => format!(
                "the loop has a seam: where it begins again this jumps by {} units{others}",
                short(*far)
            ),
            Leap::Coloured(_) => {
                format!("the loop has a seam: where it begins again this suddenly changes colour{others}")
            }
            Leap::Vanishes => {
                format!("the loop has a seam: where it begins again this suddenly vanishes{others}")
            }
            Leap::Appears => {
                format!("the loop has a seam: where it begins again this suddenly appears{others}")
            }
        };
        let at = one.bounds.map_or(Point::ZERO, |bounds| bounds.centre());
        let mend = "make it come round: use swing(..), keys that end as they begin or are looped(), a whole number in rounds(..), or saw(..) between two values that look alike";
        findings.add((Code::LoopSeam, Level::Warning), one, (0, at), seen, mend);
    }
}

/// The largest step of each item from one moment to the next, and that of its colour; `None` where their number changes.
fn usual_steps(all: &[Vec<Drawn<'_>>]) -> Option<Vec<(f64, f32)>> {
    let count = all.first()?.len();
    if all.iter().any(|moment| moment.len() != count) {
        return None;
    }
    let mut steps = vec![(0.0_f64, 0.0_f32); count];
    for (a, b) in all.iter().zip(all.iter().skip(1)) {
        for ((a, b), step) in a.iter().zip(b).zip(&mut steps) {
            let far = match (a.bounds, b.bounds) {
                (Some(a), Some(b)) => (a.min - b.min).abs().max((a.max - b.max).abs()).max_element(),
                _ => 0.0,
            };
            let start = |one: &Drawn<'_>| one.path.contours().first().map(|contour| contour.start());
            let begun = start(a).zip(start(b)).map_or(0.0, |(a, b)| (a - b).length());
            *step = (step.0.max(far).max(begun), step.1.max(paint_step(a, b)));
        }
    }
    Some(steps)
}

/// Colours that differ by less cannot be told apart at once.
const COLOUR_TOLERANCE: f32 = 8.0 / 255.0;

/// How differently two items are painted: the most that a level differs, from 0 to 1. Gradients and the like may move along, and count as alike.
fn paint_step(a: &Drawn<'_>, b: &Drawn<'_>) -> f32 {
    let step = |a: Option<&Paint>, b: Option<&Paint>| match (a, b) {
        (Some(Paint::Solid(a)), Some(Paint::Solid(b))) => {
            let of = |colour: &Colour| [colour.red, colour.green, colour.blue, colour.alpha];
            of(a).iter().zip(of(b)).map(|(a, b)| (a - b).abs()).fold(0.0, f32::max)
        }
        (Some(_), Some(_)) | (None, None) => 0.0,
        _ => 1.0,
    };
    let opacity = (a.placed.opacity - b.placed.opacity).abs() as f32;
    step(a.placed.fill(), b.placed.fill()).max(step(a.placed.stroke(), b.placed.stroke())).max(opacity)
}

/// How far the lines of two paths are apart, as far as some places on them tell: the farthest that any of these is from the other line. What is
/// less than a bound need not be exact.
fn apart(a: &Path, b: &Path, bound: f64) -> f64 {
    if a == b {
        return 0.0;
    }
    let (Ok(ours), Ok(theirs)) = (a.survey(), b.survey()) else { return f64::INFINITY };
    if a.is_empty() || b.is_empty() {
        return if a.is_empty() == b.is_empty() { 0.0 } else { f64::INFINITY };
    }
    let mut far = 0.0_f64;
    for (of, from) in [(&ours, &theirs), (&theirs, &ours)] {
        for i in 0..SAMPLES {
            let place = of.station(of.length() * i as f64 / SAMPLES as f64).map(|station| station.point());
            let Some(place) = place else { continue };
            far = far.max(from.nearest(place).map_or(f64::INFINITY, |near| (near.point() - place).length()));
            if far > bound && bound > 0.0 {
                return far;
            }
        }
    }
    far
}

/// Items that are on the sheet when the loop begins, leave it, and do not come back before it begins again.
fn leaving(all: &[Vec<Drawn<'_>>], shows: &dyn Fn(&Drawn<'_>, usize) -> bool, findings: &mut Findings) {
    let count = all.len();
    let Some(begin) = all.first().filter(|begin| all.iter().all(|moment| moment.len() == begin.len())) else {
        return;
    };
    let mut lines = Vec::new();
    for (i, one) in begin.iter().enumerate().filter(|(_, one)| shows(one, 0)) {
        let off: Vec<bool> = all
            .iter()
            .enumerate()
            .map(|(moment, all)| all.get(i).is_some_and(|one| !shows(one, moment) && one.bounds.is_some()))
            .collect();
        let Some(last_seen) = off.iter().rposition(|off| !off).filter(|last| last + 1 < count) else {
            continue;
        };
        if one.item.line().is_some_and(|line| lines.contains(&line)) {
            continue;
        }
        lines.extend(one.item.line());
        let seen = format!(
            "this leaves the sheet at phase {} and does not come back before the loop ends",
            phase(last_seen + 1, count)
        );
        let at = one.bounds.map_or(Point::ZERO, |bounds| bounds.centre());
        let mend = "bring it back before the end: use swing(..), or keys that end as they begin";
        findings.add((Code::OffSheet, Level::Hint), one, (0, at), seen, mend);
    }
}

impl Finding {
    /// The same, found at a phase of a loop.
    #[must_use]
    pub fn at_phase(mut self, phase: f64) -> Self {
        let place = format!("at phase {}", short(phase));
        self.message = match self.message.split_once(": ").filter(|_| self.line.is_some()) {
            Some((begin, rest)) => format!("{begin}: {place} {rest}"),
            None => format!("{place} {}", self.message),
        };
        self.message = visible(&self.message).into_owned();
        self
    }
}
