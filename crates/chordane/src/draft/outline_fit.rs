//! Few vertices for a rim of many points: corners where it turns sharply, soft vertices between.

use super::{DraftShape, DraftVertex, VertexKind};
use crate::number::Point;

/// How far along the rim is looked to each side to see how it turns.
const TURN_WINDOW: f64 = 5.0;

/// A turn by more than this is a corner: 42 degrees.
const CORNER_ANGLE: f64 = 0.733;

/// Corners are where the lines of both sides meet, if that is as near as this.
const MAX_CORNER_SHIFT: f64 = 3.0;

/// No outline gets more vertices than this.
const MAX_VERTICES: usize = 160;

/// So many points of a rim are compared with the outline.
const MAX_SAMPLES: usize = 600;

/// The vertices of an outline that keeps within a distance of a closed rim.
pub(super) fn fitted(rim: &[Point], within: f64) -> Vec<DraftVertex> {
    let rim = Rim::of(rim);
    let mut places = rim.corners();
    if places.is_empty() {
        // Round: four soft vertices to begin with.
        places = (0..4).map(|quarter| rim.soft(rim.points.len() * quarter / 4)).collect();
    }
    loop {
        let errors = rim.errors(&places, within);
        let worst: Vec<usize> = errors.into_iter().flatten().collect();
        if worst.is_empty() || places.len() + worst.len() > MAX_VERTICES {
            break;
        }
        places.extend(worst.into_iter().map(|at| rim.soft(at)));
        places.sort_by_key(|place| place.at);
        places.dedup_by_key(|place| place.at);
    }
    // Those that are not needed are taken out again.
    let mut at = 0;
    while at < places.len() && places.len() > 3 {
        let is_soft = places.get(at).is_some_and(|place| place.vertex.kind == VertexKind::Soft);
        let mut fewer = places.clone();
        if is_soft {
            fewer.remove(at);
            if rim.errors(&fewer, within).into_iter().flatten().next().is_none() {
                places = fewer;
                continue;
            }
        }
        at += 1;
    }
    places.into_iter().map(|place| place.vertex).collect()
}

/// A vertex, and the point of the rim that it stands for.
#[derive(Clone, Copy)]
struct Placed {
    at: usize,
    vertex: DraftVertex,
}

/// A closed rim, with how far along each of its points is.
struct Rim {
    points: Vec<Point>,
    along: Vec<f64>,
    length: f64,
}

impl Rim {
    fn of(points: &[Point]) -> Self {
        let mut along = Vec::with_capacity(points.len());
        let mut length = 0.0;
        for (at, point) in points.iter().enumerate() {
            along.push(length);
            length += points.get((at + 1) % points.len()).map_or(0.0, |next| next.distance(*point));
        }
        Self { points: points.to_vec(), along, length }
    }

    /// The point so far along the rim.
    fn at(&self, distance: f64) -> Point {
        let distance = distance.rem_euclid(self.length.max(f64::MIN_POSITIVE));
        let next = self.along.partition_point(|along| *along <= distance);
        let (Some(a), Some(from)) =
            (self.points.get(next.wrapping_sub(1)), self.along.get(next.wrapping_sub(1)))
        else {
            return self.points.first().copied().unwrap_or_default();
        };
        let b = self.points.get(next % self.points.len()).unwrap_or(a);
        let step = a.distance(*b);
        if step > 0.0 { a.lerp(*b, ((distance - from) / step).min(1.0)) } else { *a }
    }

    fn soft(&self, at: usize) -> Placed {
        let own = self.points.get(at).copied().unwrap_or_default();
        Placed { at, vertex: DraftVertex { at: own, kind: VertexKind::Soft } }
    }

    /// How far the rim turns at a place, over some distance.
    fn turn(&self, distance: f64) -> f64 {
        let look = TURN_WINDOW.min(self.length / 8.0);
        // Not the very place: there the rim is rounded by its pixels.
        let (near, far) = (look * 0.2, look);
        let before = self.at(distance - near) - self.at(distance - far);
        let behind = self.at(distance + far) - self.at(distance + near);
        before.perp_dot(behind).atan2(before.dot(behind)).abs()
    }

    /// Where it turns sharply, more than beside.
    fn corners(&self) -> Vec<Placed> {
        let turns: Vec<f64> = self.along.iter().map(|along| self.turn(*along)).collect();
        let mut all: Vec<usize> =
            (0..turns.len()).filter(|at| turns.get(*at).is_some_and(|turn| *turn > CORNER_ANGLE)).collect();
        all.sort_by(|a, b| {
            let turn = |at: &usize| turns.get(*at).copied().unwrap_or(0.0);
            turn(b).total_cmp(&turn(a)).then(a.cmp(b))
        });
        let mut corners: Vec<usize> = Vec::new();
        for at in all {
            let apart = |other: &usize| {
                let own = |at: usize| self.along.get(at).copied().unwrap_or(0.0);
                let apart = (own(at) - own(*other)).abs();
                apart.min(self.length - apart)
            };
            if corners.iter().all(|other| apart(other) > TURN_WINDOW) {
                corners.push(at);
            }
        }
        corners.sort_unstable();
        corners.into_iter().map(|at| self.corner(at)).collect()
    }

    /// A corner, where the lines of both sides meet.
    fn corner(&self, at: usize) -> Placed {
        let along = self.along.get(at).copied().unwrap_or(0.0);
        let own = self.points.get(at).copied().unwrap_or_default();
        let line = |sign: f64| (self.at(along + sign * 2.0), self.at(along + sign * 7.0));
        let ((a, b), (c, d)) = (line(-1.0), line(1.0));
        let (u, v) = (b - a, d - c);
        let cross = u.perp_dot(v);
        let met = a + u * ((c - a).perp_dot(v) / cross);
        let sound = met.is_finite() && met.distance(own) <= MAX_CORNER_SHIFT;
        let kind = VertexKind::Corner;
        Placed { at, vertex: DraftVertex { at: if sound { met } else { own }, kind } }
    }

    /// For each side of an outline, the point of the rim that is farthest from it, where that is farther than allowed.
    fn errors(&self, places: &[Placed], within: f64) -> Vec<Option<usize>> {
        let vertices = places.iter().map(|place| place.vertex).collect();
        let outline = DraftShape { id: 0, vertices, closed: true, hole_of: None, colour: None }.outline();
        let Ok(survey) = outline.survey() else { return Vec::new() };
        let mut worst: Vec<Option<(f64, usize)>> = vec![None; places.len()];
        let step = self.points.len().div_ceil(MAX_SAMPLES).max(1);
        for (at, point) in self.points.iter().enumerate().step_by(step) {
            let off = survey.nearest(*point).map_or(0.0, |nearest| nearest.point().distance(*point));
            // At a corner the pixels round the rim off.
            let near = |place: &Placed| {
                place.vertex.kind == VertexKind::Corner && place.vertex.at.distance(*point) < MAX_CORNER_SHIFT
            };
            if off <= within || places.iter().any(near) {
                continue;
            }
            let side = places.partition_point(|place| place.at <= at);
            let side = if side == 0 { places.len() } else { side } - 1;
            if let Some(own) = worst.get_mut(side)
                && own.is_none_or(|(most, _)| off > most)
            {
                *own = Some((off, at));
            }
        }
        worst.into_iter().map(|worst| worst.map(|(_, at)| at)).collect()
    }
}
