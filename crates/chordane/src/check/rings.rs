//! Findings on rings: vertices or copies that should stand evenly round a centre.

use super::Drawn;
use super::finding::{Code, Findings, Level};
use super::wording::short;
use crate::number::Point;
use crate::path::{Contour, Segment};

/// How many points make a ring whose last step is looked at: three or four stand as a shape of their own.
const MIN_RING_POINTS: usize = 5;

/// How far, as a share of the radius, points may be off the circle.
const CIRCLE_TOLERANCE: f64 = 1e-4;

/// How far, as a share of the step, steps may differ and still be the same.
const STEP_TOLERANCE: f64 = 1e-3;

/// A last step that differs by less than this share of the others is not seen.
const MIN_UNEVENNESS: f64 = 0.02;

/// A last step larger than so many others was left out on purpose: half a ring is a shape of its own.
const MAX_GAP_STEPS: f64 = 2.2;

/// A ring that runs round more often than this is one of threads, not of vertices.
const MAX_LAPS: f64 = 3.5;

pub(super) fn look(drawn: &Drawn<'_>, findings: &mut Findings) {
    for (number, contour) in drawn.path.contours().iter().enumerate() {
        let vertices: Vec<Point> = contour.vertices().collect();
        // In a star the tips are a ring, and so are the valleys.
        let tips = || Ring::of(&vertices.iter().step_by(2).copied().collect::<Vec<_>>());
        if let Some(ring) =
            Ring::of(&vertices).or_else(|| tips().filter(|ring| ring.count >= MIN_RING_POINTS))
        {
            tell(drawn, number, &ring, contour.is_closed(), "vertices", findings);
        }
        sweeps(drawn, number, contour, findings);
    }
}

/// Rings of items of the same size, one after the other.
pub(super) fn of_items(drawn: &[Drawn<'_>], findings: &mut Findings) {
    // The size of the box changes when a copy turns; what it is made of and its length do not.
    let alike = |a: &Drawn<'_>, b: &Drawn<'_>| {
        let verbs = |d: &Drawn<'_>| d.path.contours().iter().map(|c| c.verbs().len()).sum::<usize>();
        let length = |d: &Drawn<'_>| d.path.contours().iter().map(Contour::length).sum::<f64>();
        verbs(a) == verbs(b) && verbs(a) < 200 && (length(a) - length(b)).abs() <= 1e-6 * length(a)
    };
    for row in drawn.chunk_by(alike).filter(|row| row.len() >= MIN_RING_POINTS) {
        let middle = |d: &Drawn<'_>| {
            let vertices: Vec<Point> = d.path.contours().iter().flat_map(Contour::vertices).collect();
            let count = vertices.len().max(1) as f64;
            vertices.into_iter().sum::<Point>() / count
        };
        let middles: Vec<Point> = row.iter().map(middle).collect();
        if let (Some(ring), Some(last)) = (Ring::of(&middles), row.last()) {
            tell(last, 0, &ring, true, "copies", findings);
        }
    }
}

/// Points at one distance from a centre, each a step on from the one before.
pub(super) struct Ring {
    /// How many there are; the first one again at the end is not counted.
    pub(super) count: usize,
    pub(super) radius: f64,
    /// Whether the first one stands at the end again.
    repeated: bool,
    /// Degrees from one to the next, positive when clockwise as seen, at most half a turn.
    step: f64,
    last: Point,
}

impl Ring {
    pub(super) fn of(points: &[Point]) -> Option<Self> {
        let (mut points, mut repeated) = (points, false);
        if let [first, rest @ .., last] = points
            && first.distance(*last) <= 1e-9 * (first.length() + rest.first()?.distance(*first))
        {
            points = points.get(..=rest.len())?;
            repeated = true;
        }
        let (&first, &last) = (points.first()?, points.last()?);
        if points.len() < 3 {
            return None;
        }
        let (b, c) = (*points.get(points.len() / 3)?, *points.get(2 * points.len() / 3)?);
        let centre = centre_of(first, b, c)?;
        let radius = centre.distance(first);
        if points.iter().any(|p| (p.distance(centre) - radius).abs() > CIRCLE_TOLERANCE * radius) {
            return None;
        }
        let angle = |from: Point, to: Point| {
            let (u, v) = (from - centre, to - centre);
            u.perp_dot(v).atan2(u.dot(v)).to_degrees()
        };
        let step = angle(first, *points.get(1)?);
        let even = points.windows(2).all(|pair| match pair {
            [a, b] => (angle(*a, *b) - step).abs() <= STEP_TOLERANCE * step.abs(),
            _ => true,
        });
        let count = points.len();
        (even && step != 0.0).then_some(Self { count, radius, repeated, step, last })
    }

    /// How often it runs round with the step that closes it, and by how many degrees it goes past that; below zero where
    /// it falls short.
    fn laps(&self) -> (f64, f64) {
        let gone = self.step.abs() * self.count as f64;
        let laps = (gone / 360.0).round().max(1.0);
        (laps, gone - 360.0 * laps)
    }

    /// Whether it goes all the way round, evenly or not.
    pub(super) fn comes_round(&self) -> bool {
        let (laps, past) = self.laps();
        laps > 1.0 || past >= (1.0 - MAX_GAP_STEPS) * self.step.abs()
    }

    /// Whether the last step is like the others.
    pub(super) fn is_even(&self) -> bool {
        self.laps().1.abs() <= MIN_UNEVENNESS * self.step.abs()
    }
}

/// Whether the vertices stand on a circle, each the same step on, and come round after several laps: a star that is
/// drawn in one go, and crosses itself for its looks.
pub(super) fn star_in_one_go(contour: &Contour) -> bool {
    let vertices: Vec<Point> = contour.vertices().collect();
    Ring::of(&vertices).is_some_and(|ring| {
        let (laps, past) = ring.laps();
        ring.count >= MIN_RING_POINTS && laps > 1.0 && past.abs() < 0.36
    })
}

/// The centre of the circle through three points.
fn centre_of(a: Point, b: Point, c: Point) -> Option<Point> {
    let (u, v) = (b - a, c - a);
    let turn = 2.0 * u.perp_dot(v);
    let arm = Point::new(
        v.y * u.length_squared() - u.y * v.length_squared(),
        u.x * v.length_squared() - v.x * u.length_squared(),
    ) / turn;
    let flat = turn.abs() <= 1e-9 * u.length() * v.length();
    (!flat && arm.is_finite()).then_some(a + arm)
}

fn tell(drawn: &Drawn<'_>, number: usize, ring: &Ring, closed: bool, what: &str, findings: &mut Findings) {
    let (count, step) = (ring.count, ring.step.abs());
    if let Some(meant) = radians_for_degrees(ring) {
        let jump = format!("{count} {what} jump round their centre by {} degrees", short(step));
        let (seen, mend) = if meant == 1.0 {
            let seen = format!("{jump}, which is 1 radian: counts or degrees were taken as radians");
            let words =
                format!("use around({count}) for {count} even angles, or deg(1) for steps of one degree");
            (
                seen,
                (
                    words,
                    format!(
                        "compute the {count} vertices anew, {} degrees apart",
                        short(360.0 / count as f64)
                    ),
                ),
            )
        } else {
            let meant = degrees(meant);
            let seen = format!("{jump}, which is what {meant} radians come to: degrees taken as radians");
            let words = format!("write deg({meant}) for the step, or use around({count})");
            (seen, (words, format!("compute the {count} vertices anew, {meant} degrees apart")))
        };
        findings.add((Code::AngleUnit, Level::Warning), drawn, (number, ring.last), seen, mend);
        return;
    }
    if let Some(n) = degrees_for_radians(ring) {
        let seen = format!(
            "{count} {what} crowd into {} degrees: {} radians for one of {n} steps were taken as degrees",
            short(step * (count - 1) as f64),
            short(step)
        );
        let mend = (
            format!("write turns(1 / {n}) for the step, or use around({n})"),
            format!("compute the {n} vertices anew, {} degrees apart", short(360.0 / f64::from(n))),
        );
        findings.add((Code::AngleUnit, Level::Warning), drawn, (number, ring.last), seen, mend);
        return;
    }
    if !closed || count < MIN_RING_POINTS {
        return;
    }
    let (laps, past) = ring.laps();
    if ring.repeated && what == "copies" && ring.is_even() {
        let seen = format!("the last of {} {what} stands on the first", count + 1);
        let mend = once_round(count);
        findings.add((Code::UnevenRing, Level::Warning), drawn, (number, ring.last), seen, mend);
        return;
    }
    if ring.is_even() || !ring.comes_round() || laps > MAX_LAPS {
        return;
    }
    let last = short((step - past).abs());
    let (seen, mend) = if laps > 1.0 {
        let seen = format!(
            "{count} {what} stand {} degrees apart, {laps} times round, but the last and the first {last}",
            short(step)
        );
        let words =
            format!("write turns({laps} / {count}) for the step, or use around({count}) for one time round");
        (
            seen,
            (
                words,
                format!(
                    "compute the {count} vertices anew, {} degrees apart",
                    short(360.0 * laps / count as f64)
                ),
            ),
        )
    } else {
        let seen = if past < step {
            format!("{count} {what} stand {} degrees apart, but the last and the first {last}", short(step))
        } else {
            format!("{count} {what} {} degrees apart overshoot the full turn by {last}", short(step))
        };
        (seen, once_round(count))
    };
    findings.add((Code::UnevenRing, Level::Warning), drawn, (number, ring.last), seen, mend);
}

fn once_round(count: usize) -> (String, String) {
    (
        format!("use around({count}): even angles of a full turn, the first one not repeated"),
        format!("compute the {count} vertices anew, {} degrees apart", short(360.0 / count as f64)),
    )
}

/// A number of degrees as one writes it: whole, or as a part of the turn.
fn degrees(value: f64) -> String {
    let parts = 360.0 / value;
    let is_whole = |x: f64| (x - x.round()).abs() < 1e-9;
    if !is_whole(value) && is_whole(parts) { format!("360 / {}", parts.round()) } else { short(value) }
}

/// A step of degrees taken as radians, however often it went round: 30 radians are 1719 degrees. The degrees; 1 for a radian.
fn radians_for_degrees(ring: &Ring) -> Option<f64> {
    const ROUND: [f64; 17] =
        [5.0, 6.0, 8.0, 9.0, 10.0, 12.0, 15.0, 18.0, 20.0, 24.0, 30.0, 36.0, 40.0, 45.0, 60.0, 72.0, 90.0];
    let parts = [ring.count, ring.count + 1, ring.count - 1].map(|n| 360.0 / n as f64);
    let taken = |degrees: &f64| {
        let turn = degrees.to_degrees().rem_euclid(360.0);
        (turn.min(360.0 - turn) - ring.step.abs()).abs() < 1e-3
    };
    let mut meant = parts.into_iter().chain([1.0]).chain(ROUND);
    meant.find(taken).filter(|_| ring.laps().1.abs() > 1e-3)
}

/// A step of a whole part of a turn in radians taken as degrees: the parts.
fn degrees_for_radians(ring: &Ring) -> Option<u32> {
    let n = std::f64::consts::TAU / ring.step.abs();
    let whole = n.round();
    // Rounded to a few digits when it was typed; and nobody draws so small a part of a ring of so few points.
    let near = (n - whole).abs() < 2e-3 * n && (3.0..=720.0).contains(&whole);
    let few = (ring.count as f64) <= whole + 1.5 && (ring.count as f64) >= whole * 0.5;
    (near && few).then_some(whole as u32)
}

/// Arcs whose sweep is a part of a turn in radians taken as degrees.
fn sweeps(drawn: &Drawn<'_>, number: usize, contour: &Contour, findings: &mut Findings) {
    const PARTS: [(f64, &str); 9] = [
        (1.0 / 6.0, "PI / 6"),
        (0.25, "PI / 4"),
        (1.0 / 3.0, "PI / 3"),
        (0.5, "PI / 2"),
        (2.0 / 3.0, "2 * PI / 3"),
        (0.75, "3 * PI / 4"),
        (1.0, "PI"),
        (1.5, "3 * PI / 2"),
        (2.0, "2 * PI"),
    ];
    for segment in contour.segments() {
        let Segment::Arc(arc) = segment else { continue };
        let Some(whole) = arc.centred() else { continue };
        let sweep = whole.sweep.degrees().abs();
        let part = PARTS.iter().find(|(part, _)| (sweep - part * std::f64::consts::PI).abs() < 2e-4 * sweep);
        if let Some((part, name)) = part {
            let seen = format!(
                "an arc sweeps {} degrees only, which is {name}: radians taken as degrees",
                short(sweep)
            );
            let mend = format!("write rad({name}) or deg({})", short(part * 180.0));
            findings.add((Code::AngleUnit, Level::Warning), drawn, (number, segment.at(0.5)), seen, mend);
        }
    }
}
