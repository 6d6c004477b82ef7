//! Dash patterns: where on a line of some length they draw. One rule for the dashes that are drawn and for those that are
//! cut.

use super::flat::Polyline;
use crate::ground::exhausted;
use crate::number::Point;

/// A contour that would fall into more dashes than this is left whole: they would be finer than anything that can
/// be seen, and would fill the memory.
pub const MAX_DASHES: usize = 1_000_000;

/// A pattern with an even number of lengths (an odd number is gone through twice, as the SVG recommendation says), and
/// its whole length. `None` where it leaves a line of some length whole: it has no length above zero, or would cut the
/// line into more than [`MAX_DASHES`] dashes.
pub(super) fn even(pattern: &[f64], length: f64) -> Option<(Vec<f64>, f64)> {
    let mut pattern = pattern.to_vec();
    if pattern.len() % 2 == 1 {
        pattern.extend_from_within(..);
    }
    let period: f64 = pattern.iter().sum();
    let sound = period > 0.0 && period.is_finite() && length > 0.0;
    let few = length / period * pattern.len() as f64 <= 2.0 * MAX_DASHES as f64;
    (sound && few).then_some((pattern, period))
}

/// Whether a line of some length would fall into more than [`MAX_DASHES`] dashes, and is left whole.
pub(crate) fn is_too_fine(pattern: &[f64], length: f64) -> bool {
    let period: f64 = pattern.iter().sum();
    period > 0.0 && length > 0.0 && even(pattern, length).is_none()
}

/// The dashes of a pattern from one distance to another, begun so far into it.
pub(super) fn lay(
    drawn: &mut Vec<(f64, f64)>,
    pattern: &[f64],
    scale: f64,
    offset: f64,
    (from, to): (f64, f64),
) {
    let period: f64 = pattern.iter().sum::<f64>() * scale;
    let mut at = from - offset.rem_euclid(period);
    // A last digit too long is not a dash of its own.
    let close = to - 1e-9 * (to - from);
    while at < close && !exhausted(5) {
        for pair in pattern.chunks(2) {
            let &[dash, gap] = pair else { continue };
            let (begin, end) = (at, at + dash * scale);
            // A dash of no length is a dot, also right at the start.
            let drawn_on = end > from || (begin == end && begin >= from);
            if drawn_on && begin < close {
                drawn.push((begin.max(from), end.min(to)));
            }
            at = end + gap * scale;
        }
    }
}

/// Stretches that touch become one; on a closed contour those at its end run on over its start.
pub(super) fn joined(drawn: Vec<(f64, f64)>, closed: bool, length: f64) -> Vec<(f64, f64)> {
    let near = 1e-9 * length;
    let mut all: Vec<(f64, f64)> = Vec::with_capacity(drawn.len());
    for (from, to) in drawn {
        match all.last_mut().filter(|(_, end)| from - *end <= near) {
            Some((_, end)) => *end = to,
            None => all.push((from, to)),
        }
    }
    if closed
        && all.len() > 1
        && let (Some(&(first, end)), Some(&(_, last))) = (all.first(), all.last())
        && first + length - last <= near
    {
        all.remove(0);
        if let Some((_, to)) = all.last_mut() {
            *to = end + length;
        }
    }
    all
}

/// Whether a stretch of a closed line is all of it.
pub(super) fn is_whole((from, to): (f64, f64), closed: bool, length: f64) -> bool {
    closed && to - from >= length * (1.0 - 1e-12)
}

/// Calls `dash` with each part of a line of chords that the pattern leaves, beginning so far into it at the line's first
/// vertex; with the line itself where it is left whole. On a closed line a dash at the end runs on over the start.
pub(super) fn dashed(line: &Polyline, pattern: &[f64], offset: f64, mut dash: impl FnMut(&Polyline)) {
    let count = line.points.len();
    let side = |i: usize| Some((*line.points.get(i)?, *line.points.get((i + 1) % count)?));
    // How far along each vertex is, the first one again at the end of a closed line.
    let mut at = vec![0.0];
    let mut length = 0.0;
    for (a, b) in (0..if line.closed { count } else { count.saturating_sub(1) }).filter_map(side) {
        length += a.distance(b);
        at.push(length);
    }
    let Some((pattern, _)) = even(pattern, length) else { return dash(line) };
    let mut drawn = Vec::new();
    lay(&mut drawn, &pattern, 1.0, offset, (0.0, length));
    let mut part = Polyline::default();
    let mut begin = 0;
    for (from, to) in joined(drawn, line.closed, length) {
        if exhausted(1) {
            return;
        }
        if is_whole((from, to), line.closed, length) {
            dash(line);
            continue;
        }
        // The side on which the dash begins.
        while at.get(begin + 1).is_some_and(|end| *end <= from) {
            begin += 1;
        }
        part.clear();
        let (mut number, mut gone) = (begin, 0.0);
        let mut here = from;
        while let (Some((a, b)), Some(first), Some(last)) = (side(number), at.get(number), at.get(number + 1))
        {
            let whole = last - first;
            let place = |along: f64| {
                if whole > 0.0 { a.lerp(b, ((along - gone - first) / whole).min(1.0)) } else { a }
            };
            if part.points.is_empty() {
                part.push(place(here), true);
            }
            if to <= gone + last {
                part.push(place(to), true);
                drawn_out(&mut part, b - a);
                break;
            }
            here = gone + last;
            part.push(b, line.corners.get((number + 1) % count).copied().unwrap_or(true));
            number += 1;
            if number + 1 >= at.len() {
                if !line.closed {
                    break;
                }
                (number, gone) = (0, length);
            }
        }
        dash(&part);
    }
}

/// A dash of no length is a dot; it keeps the direction of its line by being drawn out by next to nothing.
fn drawn_out(part: &mut Polyline, direction: Point) {
    if let [only] = part.points[..] {
        let step = direction.normalize_or_zero() * 1e-9 * only.abs().max_element().max(1.0);
        part.push(only + step, true);
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::number::pt;

    fn parts(points: &[(f64, f64)], closed: bool, pattern: &[f64], offset: f64) -> Vec<Vec<Point>> {
        let mut line = Polyline { closed, ..Polyline::default() };
        points.iter().for_each(|p| line.push((*p).into(), true));
        let mut all = Vec::new();
        dashed(&line, pattern, offset, |part| all.push(part.points.clone()));
        all
    }

    #[test]
    fn lengths_and_gaps_take_turns_round_corners() {
        let bent = [(0.0, 0.0), (10.0, 0.0), (10.0, 10.0)];
        assert_eq!(
            parts(&bent, false, &[8.0, 4.0], 0.0),
            [vec![pt(0.0, 0.0), pt(8.0, 0.0)], vec![pt(10.0, 2.0), pt(10.0, 10.0)]]
        );
        // An odd pattern takes turns with itself; an offset begins inside it.
        assert_eq!(parts(&bent, false, &[7.0], 7.0), [vec![pt(7.0, 0.0), pt(10.0, 0.0), pt(10.0, 4.0)]]);
        assert_eq!(parts(&bent, false, &[7.0], -7.0), [vec![pt(7.0, 0.0), pt(10.0, 0.0), pt(10.0, 4.0)]]);
    }

    #[test]
    fn a_pattern_without_length_leaves_the_line_whole() {
        let line = [(0.0, 0.0), (10.0, 0.0)];
        for pattern in [&[][..], &[0.0, 0.0], &[1e-12]] {
            assert_eq!(parts(&line, false, pattern, 0.0), [vec![pt(0.0, 0.0), pt(10.0, 0.0)]]);
        }
    }

    #[test]
    fn dashes_of_no_length_are_dots_with_a_direction() {
        let dots = parts(&[(0.0, 0.0), (10.0, 0.0)], false, &[0.0, 4.0], 0.0);
        assert_eq!(dots.len(), 3);
        assert!(dots.iter().all(|dot| dot.len() == 2 && dot[1].x > dot[0].x && dot[1].y == dot[0].y));
    }

    #[test]
    fn a_closed_line_is_dashed_over_its_closing_side() {
        let square = [(0.0, 0.0), (10.0, 0.0), (10.0, 10.0), (0.0, 10.0)];
        assert_eq!(parts(&square, true, &[2.0, 8.0], 0.0).len(), 4);
        // What is drawn at the end and at the start is one dash, round the corner there.
        let round = parts(&square, true, &[2.0, 6.0, 2.0, 0.0], 1.0);
        let want = [pt(0.0, 3.0), pt(0.0, 0.0), pt(1.0, 0.0)];
        assert_eq!(round[3].len(), 3);
        assert!(round[3].iter().zip(want).all(|(p, q)| p.distance(q) < 1e-12), "{:?}", round[3]);
        assert_eq!(
            parts(&square, true, &[50.0, 1.0], 3.0),
            [[pt(0.0, 0.0), pt(10.0, 0.0), pt(10.0, 10.0), pt(0.0, 10.0)]]
        );
    }
}
