//! The handles of a run of a smooth curve: for each stretch, the steps from its first point to the first control
//! point, and from the second control point to its last point.

use crate::number::Point;

/// How a run begins or ends.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) enum End {
    /// Without bending there.
    Natural,
    /// Straight toward the neighbour.
    Held,
    /// As if the curve went on to this point.
    Led(Point),
    /// In this direction of travel.
    Along(Point),
}

/// Points that one smooth curve goes through, no two neighbours the same; a cyclic run goes on from the last point
/// to the first.
#[derive(Debug)]
pub(super) struct Run {
    pub(super) points: Vec<Point>,
    pub(super) first: End,
    pub(super) last: End,
    pub(super) cyclic: bool,
}

impl Run {
    /// The steps from each point to the next.
    fn steps(&self) -> Vec<Point> {
        let ends = self.points.iter().skip(1).chain(self.cyclic.then(|| self.points.first()).flatten());
        self.points.iter().zip(ends).map(|(a, b)| *b - *a).collect()
    }
}

/// The velocity at a point between two steps, each with the time it takes: that of the parabola through the three
/// points.
fn middle_velocity(before: Point, time_before: f64, behind: Point, time_behind: f64) -> Point {
    (before * (time_behind / time_before) + behind * (time_before / time_behind))
        / (time_before + time_behind)
}

/// Handles from the neighbours alone. The time of a step is its length to a power: 0, a half, or 1.
pub(super) fn local(run: &Run, power: f64) -> Vec<(Point, Point)> {
    let steps = run.steps();
    let time = |step: Point| step.length().powf(power);
    let times: Vec<f64> = steps.iter().map(|step| time(*step)).collect();
    let n = run.points.len();
    let stretches = steps.len();
    let velocity = |before: usize, behind: usize| {
        middle_velocity(steps[before], times[before], steps[behind], times[behind])
    };
    let mut velocities: Vec<Point> = (0..n)
        .map(|i| match i {
            _ if run.cyclic => velocity((i + n - 1) % n, i),
            _ if i > 0 && i < stretches => velocity(i - 1, i),
            _ => Point::ZERO,
        })
        .collect();
    if !run.cyclic && stretches > 0 {
        // Both ends are the same seen from outside: the step away from the end, its time, and the velocity there.
        let end = |end: End, point: Point, away: Point, took: f64, inner: Option<Point>| match end {
            End::Held => away / took,
            End::Along(direction) => direction.normalize_or_zero() * (away.length() / took),
            End::Led(guide) if guide != point => {
                middle_velocity(point - guide, time(point - guide), away, took)
            }
            // A cubic that does not bend at its end has its velocity from the other end's.
            End::Natural | End::Led(_) => inner.map_or(away / took, |v| (away / took * 3.0 - v) * 0.5),
        };
        let last = stretches - 1;
        let inner = |at: usize| (stretches > 1).then(|| velocities[at]);
        let first = end(run.first, run.points[0], steps[0], times[0], inner(1));
        // Travelled backwards, the last step leads away from the end; directions of travel turn round with it.
        let back = match run.last {
            End::Along(direction) => End::Along(-direction),
            other => other,
        };
        let final_one = -end(back, run.points[n - 1], -steps[last], times[last], inner(n - 2).map(|v| -v));
        velocities[0] = first;
        velocities[n - 1] = final_one;
    }
    (0..stretches)
        .map(|i| (velocities[i] * (times[i] / 3.0), velocities[(i + 1) % n] * (times[i] / 3.0)))
        .collect()
}

/// Handles that keep the mock curvature of neighbouring stretches the same (J. D. Hobby, 1986, sections 3 and 4).
///
/// The unknowns are the angles between each stretch's chord and the direction in which the curve leaves along it; a
/// tridiagonal system, cyclic for a closed run, gives them in linear time.
pub(super) fn low_bending(run: &Run) -> Vec<(Point, Point)> {
    let steps = run.steps();
    let lengths: Vec<f64> = steps.iter().map(|step| step.length()).collect();
    let (n, stretches) = (run.points.len(), steps.len());
    let between = |a: Point, b: Point| a.perp_dot(b).atan2(a.dot(b));
    let bends: Vec<f64> = (0..n)
        .map(|i| match i {
            _ if run.cyclic => between(steps[(i + n - 1) % n], steps[i]),
            _ if i > 0 && i < stretches => between(steps[i - 1], steps[i]),
            _ => 0.0,
        })
        .collect();
    // Rows of the system: before, own, behind, right side.
    let inner = |i: usize, before: usize, behind: usize| {
        let (a, b) = (1.0 / lengths[before], 1.0 / lengths[behind]);
        [a, 2.0 * (a + b), b, -2.0 * a * bends[i] - b * bends[(i + 1) % n]]
    };
    let rows: Vec<[f64; 4]> = (0..n)
        .map(|i| match i {
            _ if run.cyclic => inner(i, (i + n - 1) % n, i),
            0 => match given_direction(run.first, run.points[0], run.points[1], steps[0]) {
                Some(direction) => [0.0, 1.0, 0.0, between(steps[0], direction)],
                None => [0.0, 1.0, 1.0, -bends.get(1).copied().unwrap_or(0.0)],
            },
            _ if i == stretches => {
                let (last, point) = (steps[stretches - 1], run.points[n - 1]);
                match given_direction_at_end(run.last, run.points[n - 2], point, last) {
                    Some(direction) => [0.0, 1.0, 0.0, between(last, direction)],
                    None => [1.0, 1.0, 0.0, 0.0],
                }
            }
            _ => inner(i, i - 1, i),
        })
        .collect();
    let leaving = if run.cyclic { solve_cyclic(&rows) } else { solve(&rows) };
    (0..stretches)
        .map(|i| {
            let theta = leaving[i];
            let phi = -bends[(i + 1) % n] - leaving[(i + 1) % n];
            let turned = |angle: f64| Point::from_angle(angle).rotate(steps[i]);
            (turned(theta) * reach(theta, phi), turned(-phi) * reach(phi, theta))
        })
        .collect()
}

fn given_direction(end: End, point: Point, next: Point, step: Point) -> Option<Point> {
    match end {
        End::Natural => None,
        End::Held => Some(step),
        End::Led(guide) => Some(next - guide).filter(|d| *d != Point::ZERO && guide != point),
        End::Along(direction) => Some(direction),
    }
}

fn given_direction_at_end(end: End, before: Point, point: Point, step: Point) -> Option<Point> {
    match end {
        End::Led(guide) => Some(guide - before).filter(|d| *d != Point::ZERO && guide != point),
        other => given_direction(other, point, before, step),
    }
}

/// How long a handle is against its chord, by the angles at both ends of the stretch: Hobby's velocity function.
fn reach(theta: f64, phi: f64) -> f64 {
    let ((st, ct), (sp, cp)) = (theta.sin_cos(), phi.sin_cos());
    let root5 = 5.0_f64.sqrt();
    let above = 2.0 + 2.0_f64.sqrt() * (st - sp / 16.0) * (sp - st / 16.0) * (ct - cp);
    let below = 3.0 * (1.0 + 0.5 * (root5 - 1.0) * ct + 0.5 * (3.0 - root5) * cp);
    // Where the curve turns right back on itself the formula leaves its range.
    (above / below).clamp(0.0, 4.0)
}

/// Solves a tridiagonal system (rows of before, own, behind, right side) by elimination.
fn solve(rows: &[[f64; 4]]) -> Vec<f64> {
    let mut reduced: Vec<(f64, f64)> = Vec::with_capacity(rows.len());
    let (mut ratio, mut value) = (0.0, 0.0);
    for [before, own, behind, right] in rows {
        let pivot = own - before * ratio;
        value = (right - before * value) / pivot;
        ratio = behind / pivot;
        reduced.push((ratio, value));
    }
    let mut result = vec![0.0; rows.len()];
    let mut next = 0.0;
    for (slot, (ratio, value)) in result.iter_mut().zip(&reduced).rev() {
        next = value - ratio * next;
        *slot = next;
    }
    result
}

/// Solves a cyclic tridiagonal system as a plain one and a correction of rank one (Sherman and Morrison).
fn solve_cyclic(rows: &[[f64; 4]]) -> Vec<f64> {
    let n = rows.len();
    let [Some(&first), Some(&last)] = [rows.first(), rows.last()] else { return Vec::new() };
    let (corner_first, corner_last) = (first[0], last[2]);
    let gamma = -first[1];
    let mut plain = rows.to_vec();
    plain[0] = [0.0, first[1] - gamma, first[2], first[3]];
    plain[n - 1] = [last[0], last[1] - corner_first * corner_last / gamma, 0.0, last[3]];
    let x = solve(&plain);
    for (i, row) in plain.iter_mut().enumerate() {
        row[3] = match i {
            0 => gamma,
            _ if i == n - 1 => corner_last,
            _ => 0.0,
        };
    }
    let z = solve(&plain);
    let off = corner_first / gamma;
    let share = (x[0] + off * x[n - 1]) / (1.0 + z[0] + off * z[n - 1]);
    x.iter().zip(&z).map(|(x, z)| x - share * z).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    /// The slow twin: put the solution back into every row.
    #[test]
    fn systems_are_solved() {
        let rows: Vec<[f64; 4]> = (0..9_u32)
            .map(|i| [1.0, 4.0 + f64::from(i % 3), 0.5 + f64::from(i % 2), f64::from(i) - 3.0])
            .collect();
        for cyclic in [false, true] {
            let x = if cyclic { solve_cyclic(&rows) } else { solve(&rows) };
            for (i, [before, own, behind, right]) in rows.iter().enumerate() {
                let left = if i > 0 || cyclic { before * x[(i + 8) % 9] } else { 0.0 };
                let after = if i < 8 || cyclic { behind * x[(i + 1) % 9] } else { 0.0 };
                assert!((left + own * x[i] + after - right).abs() < 1e-12, "row {i}, cyclic {cyclic}");
            }
        }
    }
}
