//! Findings on rings: vertices or copies that should stand evenly round a centre.

use super::Drawn;
use super::finding::{Code, Findings, Level};
use super::wording::short;
use crate::number::Point;
use crate::path::{Contour, Segment};

/// How many points make a ring.
const FEWEST: usize = 5;

/// How far, as a share of the radius, points may be off the circle.
const OFF_CIRCLE: f64 = 1e-4;

/// How far, as a share of the step, steps may differ and still be the same.
const SAME_STEP: f64 = 1e-3;

/// A last step that differs by less than this share of the others is not seen.
const UNEVEN: f64 = 0.02;

/// A last step larger than so many others was left out on purpose: half a ring is a shape of its own.
const LARGEST_GAP: f64 = 2.2;

pub(super) fn look(drawn: &Drawn<'_>, findings: &mut Findings) {
    for (number, contour) in drawn.path.contours().iter().enumerate() {
        let vertices: Vec<Point> = contour.vertices().collect();
        // In a star the tips are a ring, and so are the valleys.
        let tips: Vec<Point> = vertices.iter().step_by(2).copied().collect();
        if let Some(ring) = Ring::of(&vertices).or_else(|| Ring::of(&tips)) {
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
    for row in drawn.chunk_by(alike).filter(|row| row.len() >= FEWEST) {
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
struct Ring {
    count: usize,
    /// Degrees from one to the next, positive when clockwise as seen, at most half a turn.
    step: f64,
    /// Degrees from the last to the first, going on the same way; negative where the ring overshoots.
    last_step: f64,
    last: Point,
}

impl Ring {
    fn of(points: &[Point]) -> Option<Self> {
        // The first one again at the end is another mistake, told elsewhere.
        let points = match points {
            [first, rest @ .., last] if first == last => points.get(..=rest.len())?,
            _ => points,
        };
        let (&first, &last) = (points.first()?, points.last()?);
        if points.len() < FEWEST {
            return None;
        }
        let (b, c) = (*points.get(points.len() / 3)?, *points.get(2 * points.len() / 3)?);
        let centre = centre_of(first, b, c)?;
        let radius = centre.distance(first);
        if points.iter().any(|p| (p.distance(centre) - radius).abs() > OFF_CIRCLE * radius) {
            return None;
        }
        let angle = |from: Point, to: Point| {
            let (u, v) = (from - centre, to - centre);
            u.perp_dot(v).atan2(u.dot(v)).to_degrees()
        };
        let step = angle(first, *points.get(1)?);
        let even = points.windows(2).all(|pair| match pair {
            [a, b] => (angle(*a, *b) - step).abs() <= SAME_STEP * step.abs(),
            _ => true,
        });
        if !even || step == 0.0 {
            return None;
        }
        let gone = step.abs() * (points.len() - 1) as f64;
        Some(Self { count: points.len(), step, last_step: 360.0 - gone, last })
    }
}

/// Whether the vertices stand on a circle, each the same step on, and come round after several laps: a star that is
/// drawn in one go, and crosses itself for its looks.
pub(super) fn star_in_one_go(contour: &Contour) -> bool {
    let vertices: Vec<Point> = contour.vertices().collect();
    Ring::of(&vertices).is_some_and(|ring| {
        let laps = ring.step.abs() * ring.count as f64 / 360.0;
        laps > 1.5 && (laps - laps.round()).abs() < 1e-3
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
    let step = ring.step.abs();
    if let Some(meant) = radians_for_degrees(ring) {
        let seen = format!(
            "{} {what} jump round their centre by {} degrees, which is {meant} taken as radians",
            ring.count,
            short(ring.step.rem_euclid(360.0))
        );
        let mend = format!("write deg({meant}) for the step, or use around(n)");
        findings.add((Code::AngleUnit, Level::Warning), drawn, (number, ring.last), seen, mend);
        return;
    }
    if let Some(n) = degrees_for_radians(ring) {
        let seen = format!(
            "{} {what} crowd into {} degrees: {} radians for one of {n} steps were taken as degrees",
            ring.count,
            short(step * (ring.count - 1) as f64),
            short(step)
        );
        let mend = format!("write rad({}) or turns(1/{n}) for the step, or use around({n})", short(step));
        findings.add((Code::AngleUnit, Level::Warning), drawn, (number, ring.last), seen, mend);
        return;
    }
    // Stars in one go turn by more than a third, and come round several times.
    let comparable = (-1.0..LARGEST_GAP).contains(&(ring.last_step / step));
    if closed && step < 100.0 && comparable && (ring.last_step / step - 1.0).abs() > UNEVEN {
        let amount = short(ring.last_step.abs());
        let seen = if ring.last_step > step * SAME_STEP {
            format!(
                "{} {what} stand {} degrees apart, but the last and the first {amount}",
                ring.count,
                short(step)
            )
        } else if ring.last_step < -step * SAME_STEP {
            format!("{} {what} {} degrees apart overshoot the full turn by {amount}", ring.count, short(step))
        } else {
            format!("the last of {} {what} stands on the first", ring.count)
        };
        let mend = format!(
            "use around({}): even angles of a full turn, the first one not repeated",
            best_count(ring)
        );
        findings.add((Code::UnevenRing, Level::Warning), drawn, (number, ring.last), seen, mend);
    }
}

fn best_count(ring: &Ring) -> usize {
    (360.0 / ring.step.abs()).round().max(1.0) as usize
}

/// A step that is a round number of degrees taken as radians: 30 radians are 1719 degrees. The number.
fn radians_for_degrees(ring: &Ring) -> Option<u32> {
    const ROUND: [u32; 17] = [5, 6, 8, 9, 10, 12, 15, 18, 20, 24, 30, 36, 40, 45, 60, 72, 90];
    ROUND.into_iter().find(|degrees| {
        let taken = f64::from(*degrees).to_degrees().rem_euclid(360.0);
        let step = ring.step.rem_euclid(360.0);
        (taken - step).abs() < 1e-3
    })
}

/// A step of a whole part of a turn in radians taken as degrees: the parts.
fn degrees_for_radians(ring: &Ring) -> Option<u32> {
    let n = std::f64::consts::TAU / ring.step.abs();
    let whole = n.round();
    // Rounded to a few digits when it was typed; and nobody draws so small a part of a ring of so few points.
    let near = (n - whole).abs() < 2e-3 * n && (3.0..=120.0).contains(&whole);
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
            return;
        }
    }
}
