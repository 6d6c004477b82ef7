//! What of a draft is near a point: vertices, sides, shapes; and the point that it is drawn to.

use super::{Draft, DraftShape};
use crate::measure::Survey;
use crate::number::Point;

impl Draft {
    /// The vertex nearest to a point within a distance: its shape's id and its place. Of several at one spot, that of the active shape, else the one
    /// that was begun last.
    #[must_use]
    pub fn vertex_near(&self, at: Point, within: f64) -> Option<(usize, usize)> {
        let active = self.active().map(|shape| shape.id);
        let all = self.shapes().flat_map(|shape| {
            let own = shape.vertices.iter().enumerate();
            own.map(move |(vertex, own)| (own.at.distance(at), (shape.id, vertex)))
        });
        all.filter(|(apart, _)| *apart <= within)
            .min_by(|a, b| {
                let later = |(_, (shape, _)): &(f64, (usize, usize))| (Some(*shape) == active, *shape);
                a.0.total_cmp(&b.0).then_with(|| later(b).cmp(&later(a)))
            })
            .map(|(_, found)| found)
    }

    /// The side nearest to a point within a distance: its shape's id, its number and the nearest point on it. Cost: linear in the segments.
    #[must_use]
    pub fn side_near(&self, at: Point, within: f64) -> Option<(usize, usize, Point)> {
        let all = self.shapes().filter_map(|shape| {
            let survey = shape.outline().contours().first()?.survey();
            let nearest = survey.nearest(at)?;
            let apart = nearest.point().distance(at);
            let side = shape.side_at(&survey, nearest.distance());
            (apart <= within).then_some((apart, (shape.id, side, nearest.point())))
        });
        all.min_by(|a, b| a.0.total_cmp(&b.0)).map(|(_, found)| found)
    }

    /// The shape that a point lies in, the last of several; a hole where it lies in one.
    #[must_use]
    pub fn shape_at(&self, at: Point) -> Option<usize> {
        let inside = |shape: &&DraftShape| shape.closed && shape.outline().inside(at);
        let all: Vec<&DraftShape> = self.shapes().filter(inside).collect();
        let hole = all.iter().rev().find(|shape| shape.hole_of.is_some());
        hole.or(all.last()).map(|shape| shape.id)
    }

    /// The point that a pointer is drawn to: a vertex of another place within a distance, else the nearest knot of a grid of that step, else
    /// where it is. A vertex that is being moved is given, so that it is not drawn to itself.
    #[must_use]
    pub fn snapped(&self, at: Point, grid: Option<f64>, within: f64, moved: Option<(usize, usize)>) -> Point {
        let others = self.shapes().flat_map(|shape| {
            let own = shape.vertices.iter().enumerate();
            own.filter(move |(vertex, _)| moved != Some((shape.id, *vertex))).map(|(_, own)| own.at)
        });
        let near = others.filter(|other| other.distance(at) <= within);
        let vertex = near.min_by(|a, b| a.distance(at).total_cmp(&b.distance(at)));
        vertex.unwrap_or_else(|| match grid {
            Some(step) if step > 0.0 && step.is_finite() => (at / step).round() * step,
            _ => at,
        })
    }
}

impl DraftShape {
    /// The side on which a place of the outline lies, by its distance from the beginning: the side of the last vertex before it.
    fn side_at(&self, survey: &Survey, distance: f64) -> usize {
        let of = |at: Point| survey.nearest(at).map_or(0.0, |station| station.distance());
        let vertices = self.vertices.iter().enumerate().skip(1);
        let before = vertices.filter(|(_, vertex)| of(vertex.at) <= distance).map(|(number, _)| number);
        before.max().unwrap_or(0).min(self.sides().saturating_sub(1))
    }
}
