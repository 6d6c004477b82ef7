//! What lies to the left and right of each edge: how often the operands wind round there.
//!
//! From the middle of an edge one looks left, in the turned frame, for the next edge: what lies right of that one lies
//! left of this one. So one look for each edge is enough.

use super::edges::{Arrangement, Edge};
use super::sources::Source;
use crate::ground::{exhausted, threads};
use crate::measure::BoxTree;
use crate::number::{Point, kept};

/// Winding numbers of the two operands.
pub(crate) type Windings = [i32; 2];

/// Where along an edge one looks from, as shares of its rise; the later ones where the first is a close call. Odd ones:
/// at the middle, a symmetric drawing has the vertices of others.
const PROBE_HEIGHTS: [f64; 4] = [0.482_713_669, 0.313_951_277, 0.731_190_853, 0.090_417_233];

#[derive(Clone, Copy, PartialEq)]
enum Known {
    No,
    Asked,
    Left(Windings),
}

/// The windings to the left of every edge.
pub(crate) fn lefts(arrangement: &Arrangement, sources: &[Source], off: f64) -> Vec<Windings> {
    let edges = &arrangement.edges;
    let tree = BoxTree::new(edges.iter().map(|edge| edge.bounds));
    let neighbours = neighbours(arrangement, sources, &tree, off);
    let mut known = vec![Known::No; edges.len()];
    let mut way = Vec::new();
    for i in 0..edges.len() {
        way.push(i);
        while let Some(&at) = way.last() {
            let left = match neighbours.get(at).copied().flatten() {
                _ if matches!(known.get(at), Some(Known::Left(_))) => {
                    way.pop();
                    continue;
                }
                None => [0, 0],
                Some(next) => match known.get(next) {
                    Some(Known::Left(left)) => right_of(*left, edges.get(next)),
                    Some(Known::No) => {
                        if let Some(slot) = known.get_mut(at) {
                            *slot = Known::Asked;
                        }
                        way.push(next);
                        continue;
                    }
                    // Edges that each stand left of the other: only where rounding has mixed them up.
                    _ => counted(arrangement, sources, at),
                },
            };
            if let Some(slot) = known.get_mut(at) {
                *slot = Known::Left(left);
            }
            way.pop();
        }
    }
    known.into_iter().map(|known| if let Known::Left(left) = known { left } else { [0, 0] }).collect()
}

/// What lies right of an edge, from what lies left: an edge toward higher y has its inside on the left.
pub(crate) fn right_of(left: Windings, edge: Option<&Edge>) -> Windings {
    let [a, b] = edge.map_or([0, 0], |edge| edge.windings);
    [left[0] - a, left[1] - b]
}

/// Where an edge stands on a level line, if it reaches it: of two edges that meet there only one does.
fn reach(arrangement: &Arrangement, sources: &[Source], edge: &Edge, y: f64) -> Option<f64> {
    (edge.bounds.min.y <= y && y < edge.bounds.max.y).then(|| arrangement.across(sources, edge, y))
}

/// The next edge to the left of the middle of each.
fn neighbours(arrangement: &Arrangement, sources: &[Source], tree: &BoxTree, off: f64) -> Vec<Option<usize>> {
    let edges = &arrangement.edges;
    let look = |i: usize| {
        let edge = edges.get(i)?;
        let mut best: Option<(f64, Option<usize>)> = None;
        for share in PROBE_HEIGHTS {
            let (low, high) = (edge.bounds.min.y, edge.bounds.max.y);
            let y = kept(low + (high - low) * share, low, high);
            let x = arrangement.across(sources, edge, y);
            // The two places farthest right: where two edges stand in one place, it may be their end.
            let (mut most, mut second) = (f64::NEG_INFINITY, f64::NEG_INFINITY);
            let found = tree.next_left(Point::new(x, y), |j| {
                let other = edges.get(j).filter(|_| j != i)?;
                let at = reach(arrangement, sources, other, y)?;
                // Where both stand in one place the order is that of their numbers.
                let left = at < x || (at == x && j < i);
                if left {
                    second = second.max(at.min(most));
                    most = most.max(at);
                }
                left.then_some(at)
            });
            let gap = (x - most).min(if second.is_finite() { most - second } else { f64::INFINITY });
            if best.is_none_or(|(most, _)| gap > most) {
                best = Some((gap, found.map(|(j, _)| j)));
            }
            if gap > 64.0 * off {
                break;
            }
        }
        best.and_then(|(_, found)| found)
    };
    threads::map(0..edges.len(), 256, look)
}

/// The slow way: all edges to the left of the middle of one.
fn counted(arrangement: &Arrangement, sources: &[Source], of: usize) -> Windings {
    let Some(edge) = arrangement.edges.get(of) else { return [0, 0] };
    let y = edge.bounds.min.y.midpoint(edge.bounds.max.y);
    let x = arrangement.across(sources, edge, y);
    let mut left = [0, 0];
    for (j, other) in arrangement.edges.iter().enumerate() {
        if exhausted(1) {
            break;
        }
        let at = if j == of { None } else { reach(arrangement, sources, other, y) };
        if at.is_some_and(|at| at < x || (at == x && j < of)) {
            left = right_of(left, Some(other));
        }
    }
    left
}
