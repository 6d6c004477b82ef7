//! The rim of what is kept of several areas, without crossings.

use std::collections::HashMap;
use std::hash::{DefaultHasher, Hash, Hasher};

use super::edges::{Arrangement, MAX_INTERSECTIONS};
use super::sides::{lefts, right_of};
use super::sources::{Part, sources};
use super::trace::{DirectedEdge, Rim, contours};
use crate::ground::{Fault, FaultKind, FaultSlot};
use crate::measure::tolerance_of;
use crate::number::Cell;
use crate::path::{Contour, FillRule, Path, Segment};

/// Where rounding has mixed up what lies where, all is done again with this many times the tolerance.
const TOLERANCE_GROWTH: f64 = 30.0;

/// Gaps that are together no longer than this many times the tolerance are closed by straight sides.
const MAX_GAP_FACTOR: f64 = 1e4;

/// How often it is tried.
const TRIES: usize = 4;

/// Beyond these sizes products of four lengths would leave the numbers: shapes are scaled before they are combined.
const RESCALE_LIMIT: f64 = 1e60;

pub(crate) fn too_many(call: &'static str, mut fault: FaultSlot) -> Path {
    fault.note(Fault::of(
        call,
        FaultKind::TooMany { what: "crossings", count: MAX_INTERSECTIONS + 1, limit: MAX_INTERSECTIONS },
    ));
    Path::from_parts(Vec::new(), FillRule::Nonzero, fault)
}

/// Paths scaled by one factor, and the factor, where products of their coordinates, or of a distance, would leave the
/// numbers.
pub(crate) fn scaled_to_numbers(paths: &[&Path], distance: f64) -> Option<(Vec<Path>, f64)> {
    let extent = paths.iter().filter_map(|path| path.bounds()).reduce(Cell::union)?;
    let far = extent.min.abs().max(extent.max.abs()).max_element().max(distance.abs());
    if far == 0.0 || (1.0 / RESCALE_LIMIT..=RESCALE_LIMIT).contains(&far) {
        return None;
    }
    // A power of two changes no digit.
    let factor = (-far.log2().floor()).clamp(-1020.0, 1020.0).exp2();
    Some((paths.iter().map(|path| path.scaled(factor)).collect(), factor))
}

/// The same parts, each contour once for each operand, with how often it counts: what many equal contours have in common grows
/// with the square of their number.
fn once_each<'a>(parts: &[Part<'a>]) -> Vec<Part<'a>> {
    let mut known: HashMap<u64, Vec<usize>> = HashMap::with_capacity(parts.len());
    let mut kept: Vec<Part<'_>> = Vec::with_capacity(parts.len());
    for part in parts {
        let mut hasher = DefaultHasher::new();
        part.operand.hash(&mut hasher);
        for p in part.contour.points() {
            (p.x.to_bits(), p.y.to_bits()).hash(&mut hasher);
        }
        let alike = known.entry(hasher.finish()).or_default();
        let same = |i: &&usize| {
            kept.get(**i).is_some_and(|other| (other.operand, other.contour) == (part.operand, part.contour))
        };
        match alike.iter().find(same).and_then(|i| kept.get_mut(*i)) {
            Some(first) => first.weight = first.weight.saturating_add(part.weight),
            None => {
                alike.push(kept.len());
                kept.push(*part);
            }
        }
    }
    kept.retain(|part| part.weight != 0);
    kept
}

/// The rim of what is kept of contours, by the windings of the two operands. `None` where too much meets.
pub(crate) fn arranged(parts: &[Part<'_>], keep: &dyn Fn([i32; 2]) -> bool) -> Option<Vec<Contour>> {
    arranged_within(parts, MAX_INTERSECTIONS, keep)
}

/// The same; `None` where more than so much meets.
pub(crate) fn arranged_within(
    parts: &[Part<'_>],
    most: usize,
    keep: &dyn Fn([i32; 2]) -> bool,
) -> Option<Vec<Contour>> {
    let Some(extent) = parts.iter().map(|part| part.contour.bounds()).reduce(Cell::union) else {
        return Some(Vec::new());
    };
    let parts = once_each(parts);
    let mut off = tolerance_of(&extent);
    let slight = off * MAX_GAP_FACTOR;
    let mut best: Option<Rim> = None;
    for _ in 0..TRIES {
        let sources = sources(&parts, off);
        let arrangement = Arrangement::new(&sources, off, most)?;
        let lefts = lefts(&arrangement, &sources, off);
        let rim = |(number, (edge, left)): (usize, (_, &[i32; 2]))| {
            let up = keep(*left);
            (up != keep(right_of(*left, Some(edge)))).then_some(DirectedEdge { edge: number, up })
        };
        let steps: Vec<DirectedEdge> =
            arrangement.edges.iter().zip(&lefts).enumerate().filter_map(rim).collect();
        let rim = contours(&arrangement, &sources, &steps, off, true);
        let closed = rim.gaps <= slight;
        if best.as_ref().is_none_or(|best| rim.gaps < best.gaps) {
            best = Some(rim);
        }
        if closed {
            break;
        }
        off *= TOLERANCE_GROWTH;
    }
    best.map(|rim| rim.contours.into_iter().map(|(_, contour)| contour).collect())
}

/// The area that is kept of two paths, by whether each of them encloses a place; empty with a fault where either has one.
pub(crate) fn combined(call: &'static str, a: &Path, b: &Path, keep: fn(bool, bool) -> bool) -> Path {
    let mut fault = a.carried().clone();
    fault.take_from(b.carried());
    if fault.get().is_some() {
        return Path::from_parts(Vec::new(), FillRule::Nonzero, fault);
    }
    Path::limited(call, || joined(call, a, b, keep))
}

fn joined(call: &'static str, a: &Path, b: &Path, keep: fn(bool, bool) -> bool) -> Path {
    if let Some((scaled, factor)) = scaled_to_numbers(&[a, b], 0.0) {
        let [a, b] = &scaled[..] else { return Path::empty() };
        return joined(call, a, b, keep).scaled(1.0 / factor);
    }
    let part = |operand: usize| move |contour| Part { contour, operand, weight: 1 };
    let parts: Vec<Part<'_>> =
        a.contours().iter().map(part(0)).chain(b.contours().iter().map(part(1))).collect();
    let (rule_a, rule_b) = (a.fill_rule(), b.fill_rule());
    match arranged(&parts, &|[p, q]| keep(rule_a.encloses(p), rule_b.encloses(q))) {
        Some(contours) => Path::from_contours(contours),
        None => too_many(call, FaultSlot::default()),
    }
}

/// Drops rims thinner than the fitting tolerance, which fitted curves leave where they should just touch. Exact parts leave none.
pub(crate) fn without_slivers<'a>(
    mut rims: Vec<Contour>,
    mut parts: impl Iterator<Item = &'a Contour>,
    tolerance: f64,
) -> Vec<Contour> {
    let is_fitted = |part: &Contour| part.segments().any(|piece| matches!(piece, Segment::Cubic { .. }));
    if parts.any(is_fitted) {
        // The area of a thin strip is half its perimeter times its width.
        rims.retain(|rim| rim.signed_area().abs() > tolerance * rim.length());
    }
    rims
}
