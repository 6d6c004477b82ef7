//! Findings on what was made too small to be anything: the radius that was forgotten.

use std::collections::HashMap;

use super::finding::{Code, Findings, Level};
use super::rings::Ring;
use super::wording::short;
use super::{DocumentSpace, Drawn};
use crate::number::{Cell, Point};
use crate::sheet::Layered;

/// A line no larger than this share of its sheet is a dot.
const MAX_DOT_RATIO: f64 = 0.02;

/// And no larger than this in units: twice what cosine and sine alone reach.
const MAX_DOT_SIZE: f64 = 4.0;

/// Unless its stroke makes more than this of it.
const MAX_PAINTED_RATIO: f64 = 0.08;

/// How far from 1 the radius of a circle of plain cosines and sines may be.
const UNIT_RADIUS_TOLERANCE: f64 = 1e-6;

pub(super) fn look(drawn: &[Drawn<'_>], space: &DocumentSpace, findings: &mut Findings) {
    let seen = || drawn.iter().filter(|d| (d.filled || d.half_stroke.is_some()) && d.bounds.is_some());
    let all = seen().filter_map(|d| d.bounds).reduce(Cell::union);
    let width = seen().filter_map(|d| d.half_stroke).fold(0.0, f64::max) * 2.0;
    let side = space.page.size().min_element();
    let is_dot = |bounds: &Cell| {
        let size = bounds.size().max_element();
        size > 0.0
            && size <= MAX_DOT_SIZE
            && size <= side * MAX_DOT_RATIO
            && size + width <= side * MAX_PAINTED_RATIO
    };
    // A wrong unit of angles makes things small too, and is told as that.
    let all = all.filter(|bounds| is_dot(bounds) && !findings.has(Code::AngleUnit));
    if let (Some(bounds), Some(first)) = (all, seen().next()) {
        let size = space.page.size();
        let seen = format!(
            "the whole drawing is a dot: {} units across on a sheet of {} by {}",
            short(bounds.size().max_element()),
            short(size.x),
            short(size.y)
        );
        findings.without(Code::Speck);
        findings.add((Code::Speck, Level::Warning), first, (0, bounds.centre()), seen, mend(space));
        return;
    }
    let mut made_at: HashMap<usize, Vec<&Drawn<'_>>> = HashMap::new();
    let mut alone = Vec::new();
    for one in drawn {
        match one.item.line() {
            Some(line) => made_at.entry(line).or_default().push(one),
            None => alone.push(vec![one]),
        }
    }
    for together in made_at.into_values().chain(alone) {
        nothing_drawn(&together, space, findings);
        unit_circle(&together, &is_dot, space, findings);
    }
    copies_on_a_dot(drawn, &is_dot, space, findings);
}

/// What is made too small is made larger where it stands, so that it stays on the sheet.
fn mend(space: &DocumentSpace) -> (String, &'static str) {
    let radius = short((space.page.size().min_element() / 3.0).round().max(1.0));
    (
        format!("make it larger: were cosine and sine not multiplied by a radius, as in cos(a) * {radius}?"),
        "make it larger: were its numbers meant as shares of a larger size?",
    )
}

/// Everything that one line made is empty, though it was painted.
fn nothing_drawn(together: &[&Drawn<'_>], space: &DocumentSpace, findings: &mut Findings) {
    let is_nothing = |d: &&Drawn<'_>| d.path.is_empty() && (d.filled || d.half_stroke.is_some());
    if let (true, Some(first)) = (together.iter().all(is_nothing), together.first()) {
        let seen =
            "the path is empty, so that nothing is drawn: a shape without a size, or nothing left of one";
        let mend = "give it a size above 0, or take it out";
        findings.add((Code::Speck, Level::Hint), first, (0, space.page.centre()), seen, mend);
    }
}

/// A polygon on a circle of radius 1, small as a dot: cosine and sine that nothing was multiplied by. One among several
/// of its making is meant.
fn unit_circle(
    together: &[&Drawn<'_>],
    is_dot: &impl Fn(&Cell) -> bool,
    space: &DocumentSpace,
    findings: &mut Findings,
) {
    let [one] = together else { return };
    let painted = one.filled || one.half_stroke.is_some();
    if !painted || !one.bounds.is_some_and(|bounds| is_dot(&bounds)) {
        return;
    }
    let polygon = one.path.contours().iter().find(|contour| {
        let vertices: Vec<Point> = contour.vertices().collect();
        Ring::of(&vertices)
            .is_some_and(|ring| ring.count >= 5 && (ring.radius - 1.0).abs() < UNIT_RADIUS_TOLERANCE)
    });
    if let (Some(contour), Some(bounds)) = (polygon, one.bounds) {
        let seen = format!("{} vertices stand on a circle of radius 1: a dot", contour.vertex_count());
        findings.add((Code::Speck, Level::Warning), one, (0, bounds.centre()), seen, mend(space));
    }
}

/// Copies whose middles stand on a circle of radius 1, all over one another.
fn copies_on_a_dot(
    drawn: &[Drawn<'_>],
    is_dot: &impl Fn(&Cell) -> bool,
    space: &DocumentSpace,
    findings: &mut Findings,
) {
    let made_together = |a: &Drawn<'_>, b: &Drawn<'_>| a.item.line() == b.item.line() && alike(a, b);
    for row in drawn.chunk_by(made_together).filter(|row| row.len() >= 5) {
        let middles: Vec<Point> = row.iter().filter_map(|d| Some(d.bounds?.centre())).collect();
        let Some(bounds) = Cell::of(middles.iter().copied()).filter(is_dot) else { continue };
        let on_circle =
            Ring::of(&middles).is_some_and(|ring| (ring.radius - 1.0).abs() < UNIT_RADIUS_TOLERANCE);
        if let (true, Some(last)) = (on_circle, row.last()) {
            let seen = format!("{} copies stand on a circle of radius 1, all over one another", row.len());
            findings.add((Code::Speck, Level::Warning), last, (0, bounds.centre()), seen, mend(space));
        }
    }
}

fn alike(a: &Drawn<'_>, b: &Drawn<'_>) -> bool {
    let size = |d: &Drawn<'_>| d.bounds.map_or(Point::ZERO, |bounds| bounds.size());
    (size(a) - size(b)).abs().max_element() <= 1e-6 * size(a).max_element()
}
