//! Dashes: the parts of a line that a pattern of lengths leaves.

use super::flat::Polyline;
use crate::number::Point;

/// A contour that would fall into more dashes than this is left whole: they would be finer than anything that can
/// be seen, and would fill the memory.
pub const MOST_DASHES: usize = 1_000_000;

/// Calls `dash` with each part of a line that the pattern leaves.
///
/// The pattern is lengths of line and gap in turn; an odd number of lengths is gone through twice, as the SVG
/// recommendation says. A positive offset begins that far into the pattern. Without any length above zero, and
/// where there would be more than [`MOST_DASHES`], the line is left whole. On a closed contour the pattern begins
/// at its first vertex.
pub(super) fn dashed(line: &Polyline, pattern: &[f64], offset: f64, mut dash: impl FnMut(&Polyline)) {
    let period: f64 = pattern.iter().sum();
    let length: f64 = sides(line).map(|(a, b, _)| a.distance(b)).sum();
    let even_period = if pattern.len() % 2 == 1 { 2.0 * period } else { period };
    let dashes = length / even_period * pattern.len().max(1) as f64;
    if !(period > 0.0 && period.is_finite() && dashes < MOST_DASHES as f64) || line.points.len() < 2 {
        return dash(line);
    }
    let mut lengths = pattern.iter().copied().enumerate().cycle();
    let mut drawing = true;
    let mut left = {
        let mut into = offset.rem_euclid(even_period);
        loop {
            let Some((_, length)) = lengths.next() else { return };
            // A length of zero is a dot, and counts when the line begins right on it.
            if into < length || (into == 0.0 && length == 0.0) {
                break length - into;
            }
            into -= length;
            drawing = !drawing;
        }
    };
    let mut part = Polyline::default();
    if drawing {
        part.push(line.points.first().copied().unwrap_or_default(), true);
    }
    for (from, to, corner) in sides(line) {
        let side = from.distance(to);
        let mut done = 0.0;
        while left < side - done {
            done += left;
            let here = from.lerp(to, done / side);
            if drawing {
                part.push(here, true);
                finish(&mut part, to - from, &mut dash);
            } else {
                part.clear();
                part.push(here, true);
            }
            drawing = !drawing;
            left = lengths.next().map_or(f64::INFINITY, |(_, length)| length);
        }
        left -= side - done;
        if drawing {
            part.push(to, corner);
        }
    }
    if drawing {
        let direction = line.points.last().copied().unwrap_or_default()
            - part.points.first().copied().unwrap_or_default();
        finish(&mut part, direction, &mut dash);
    }
}

/// Hands over a dash. One of no length keeps the direction of its line: it is drawn out by next to nothing.
fn finish(part: &mut Polyline, direction: Point, dash: &mut impl FnMut(&Polyline)) {
    if let [only] = part.points[..] {
        let step = direction.normalize_or_zero() * 1e-9 * only.abs().max_element().max(1.0);
        part.push(only + step, true);
    }
    dash(part);
    part.clear();
}

/// The sides of a line with whether they end at a corner, closing side included.
fn sides(line: &Polyline) -> impl Iterator<Item = (Point, Point, bool)> {
    let pairs = line.points.windows(2).zip(line.corners.iter().skip(1));
    let home = match (line.points.first(), line.points.last()) {
        (Some(first), Some(last)) if line.closed && first != last => Some((*last, *first, true)),
        _ => None,
    };
    pairs.map(|(pair, corner)| (pair[0], pair[1], *corner)).chain(home)
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
    }
}
