//! Paths that are cut in more pieces, so that they have as many as others: at the ends of a morph a path has the segments of what it becomes, and
//! between them more.

use crate::number::Point;
use crate::path::{Contour, ContourBuilder, Path, Segment};
use crate::write::element::Value;

/// A vertex is the same in two frames where it moves by no more than this share of the size of the path.
const VERTEX_MATCH_RATIO: f64 = 0.08;

/// The same values, where the paths of some frames can be cut into the segments that those of others have: their vertices are among those of the
/// nearest frame with the most segments, or nearly so. What they look like does not change.
pub(super) fn refined(values: &[Value]) -> Option<Vec<Value>> {
    let counts: Vec<Vec<usize>> =
        values.iter().map(|value| value.path().map(counts)).collect::<Option<_>>()?;
    let most = counts.iter().max_by_key(|counts| counts.iter().sum::<usize>())?;
    let full: Vec<usize> = (0..counts.len()).filter(|i| counts.get(*i) == Some(most)).collect();
    let mut all = values.to_vec();
    for (i, own) in counts.iter().enumerate().filter(|(_, own)| *own != most) {
        if own.len() != most.len() {
            return None;
        }
        let around = |at: usize| at.abs_diff(i).min(counts.len() - at.abs_diff(i));
        let nearest = full.iter().copied().min_by_key(|at| around(*at))?;
        let (Value::Path(path, decimals), Some(like)) = (values.get(i)?, values.get(nearest)?.path()) else {
            return None;
        };
        let contours = path.contours().iter().zip(like.contours()).map(|(own, like)| cut(own, like));
        let cut = Path::from_contours(contours.collect::<Option<Vec<_>>>()?).with_fill_rule(path.fill_rule());
        *all.get_mut(i)? = Value::Path(cut, *decimals);
    }
    Some(all)
}

fn counts(path: &Path) -> Vec<usize> {
    path.contours().iter().map(|contour| contour.stored_segments().count()).collect()
}

/// A contour cut as another one is.
fn cut(own: &Contour, like: &Contour) -> Option<Contour> {
    if own.is_closed() != like.is_closed() {
        return None;
    }
    let closed = own.is_closed();
    let (segments, others): (Vec<Segment>, Vec<Segment>) =
        (own.segments().collect(), like.segments().collect());
    let count = others.len();
    let near = VERTEX_MATCH_RATIO * like.bounds().size().max_element();
    // The vertex of the other one that each vertex is.
    let vertices = others.iter().map(Segment::from).chain(others.last().filter(|_| !closed).map(Segment::to));
    let vertices: Vec<Point> = vertices.collect();
    let place = |point: Point| {
        let apart = |at: &usize| vertices.get(*at).map_or(f64::INFINITY, |vertex| vertex.distance(point));
        (0..vertices.len()).min_by(|a, b| apart(a).total_cmp(&apart(b))).filter(|at| apart(at) <= near)
    };
    let begins: Vec<usize> = segments.iter().map(|segment| place(segment.from())).collect::<Option<_>>()?;
    let first = *begins.first()?;
    let ends = closed || segments.last().and_then(|segment| place(segment.to())) == Some(count);
    if !ends || (!closed && first != 0) {
        return None;
    }
    let mut pieces = Vec::with_capacity(count);
    for (i, segment) in segments.iter().enumerate() {
        let from = *begins.get(i)?;
        let to = begins.get(i + 1).copied().unwrap_or(if closed { first } else { count });
        let parts = match (to + count - from) % count.max(1) {
            0 => count,
            parts => parts,
        };
        for k in 0..parts {
            let part = segment.stretch(k as f64 / parts as f64, (k + 1) as f64 / parts as f64);
            pieces.push(match part {
                // What arcs go over into are curves.
                Segment::Arc(arc) => {
                    let (control1, control2) = part.handles();
                    Segment::Cubic { from: arc.from, control1, control2, to: arc.to }
                }
                _ => part,
            });
        }
    }
    if pieces.len() != count {
        return None;
    }
    pieces.rotate_right(first);
    // A closing side that is not stored there is not stored here.
    let stored = like.stored_segments().count();
    if stored < count && !matches!(pieces.last(), Some(Segment::Line { .. })) {
        return None;
    }
    let mut builder = ContourBuilder::new(pieces.first()?.from());
    for piece in pieces.iter().take(stored) {
        builder.segment(piece);
    }
    Some(builder.finish(closed))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::prelude::*;

    #[test]
    fn the_ends_of_a_morph_are_cut_as_what_is_between() -> Result<(), Fault> {
        let (kite, disc) = (polygon((0.0, 0.0), 4, 40.0), circle((3.0, 2.0), 30.0));
        let morph = kite.morph(&disc);
        let count = 24;
        let values: Vec<Value> = (0..count)
            .map(|k| Value::Path(morph.at(swing(f64::from(k) / f64::from(count), 0.0, 1.0)), 3))
            .collect();
        assert_ne!(counts(values[0].path().unwrap()), counts(values[5].path().unwrap()));
        let cut = refined(&values).unwrap();
        for (value, cut) in values.iter().zip(&cut) {
            let (value, cut) = (value.path().unwrap(), cut.path().unwrap());
            assert_eq!(counts(cut), counts(values[5].path().unwrap()));
            assert!(value.xor(cut).area()? < 0.05);
        }
        Ok(())
    }

    #[test]
    fn other_shapes_are_not() {
        let values = [4, 5].map(|sides| Value::Path(polygon((0.0, 0.0), sides, 40.0), 3));
        assert_eq!(refined(&values), None);
        let open = |count: usize| {
            let points: Vec<Point> = (0..count).map(|i| pt(20.0 * i as f64, 0.0)).collect();
            Value::Path(Path::open(points), 3)
        };
        assert_eq!(refined(&[open(3), open(7)]), None);
    }
}
