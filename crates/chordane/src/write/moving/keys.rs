//! Numbers that change from frame to frame, as few keys that a straight way between them goes back to.

/// A step this many times as large as the ones beside it is a jump, and no motion.
const JUMP_RATIO: f64 = 8.0;

/// The keys of a loop: when, from 0 to 1, and the numbers then.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Keys {
    pub(super) times: Vec<f64>,
    pub(super) values: Vec<Vec<f64>>,
}

/// The keys of numbers that are given for evenly many frames of a loop and for its end, where the first comes again (angles by whole turns
/// more). Between two keys the straight way is nowhere farther than the tolerance from a frame. Where the numbers jump, they stay as they are
/// until the next frame, and are others from then on, as in a row of pictures.
pub(super) fn keys(frames: &[Vec<f64>], end: &[f64], tolerance: f64) -> Keys {
    let count = frames.len();
    let at = |i: usize| frames.get(i).map_or(end, Vec::as_slice);
    let steps: Vec<f64> = (0..count).map(|i| apart(at(i), at(i + 1))).collect();
    let step = |i: usize| steps.get(i % count.max(1)).copied().unwrap_or(0.0);
    let jumps = |i: usize| step(i) > JUMP_RATIO * step(i + 1).max(step(i + count - 1)).max(tolerance);
    let mut all = Keys { times: Vec::new(), values: Vec::new() };
    let mut begin = 0;
    while begin < count {
        // A stretch without a jump.
        let last = (begin..count).find(|i| jumps(*i)).unwrap_or(count);
        for i in thinned(begin, last, &at, tolerance) {
            all.push(i as f64 / count as f64, at(i));
        }
        if last < count {
            // What was there stays until the jump.
            all.push((last + 1) as f64 / count as f64, at(last));
        }
        begin = last + 1;
    }
    all
}

impl Keys {
    fn push(&mut self, time: f64, value: &[f64]) {
        self.times.push(time);
        self.values.push(value.to_vec());
    }
}

fn apart(a: &[f64], b: &[f64]) -> f64 {
    a.iter().zip(b).map(|(a, b)| (a - b).abs()).fold(0.0, f64::max)
}

/// Which frames of a stretch are enough. A straight way from one is followed as long as its slope can pass all frames within the
/// tolerance.
fn thinned<'v>(first: usize, last: usize, at: &impl Fn(usize) -> &'v [f64], tolerance: f64) -> Vec<usize> {
    let mut kept = vec![first];
    let mut from = first;
    let mut slopes = vec![(f64::NEG_INFINITY, f64::INFINITY); at(first).len()];
    let mut i = first + 1;
    while i <= last {
        let time = (i - from) as f64;
        let passes = at(i).iter().zip(at(from)).zip(&slopes).all(|((to, from), (low, high))| {
            let slope = (to - from) / time;
            (*low..=*high).contains(&slope)
        });
        if !passes && i - 1 > from {
            from = i - 1;
            kept.push(from);
            slopes.fill((f64::NEG_INFINITY, f64::INFINITY));
            continue;
        }
        for ((to, from), (low, high)) in at(i).iter().zip(at(from)).zip(&mut slopes) {
            *low = low.max((to - tolerance - from) / time);
            *high = high.min((to + tolerance - from) / time);
        }
        i += 1;
    }
    if last > from {
        kept.push(last);
    }
    kept
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::motion::{hold, saw, swing};

    fn of(count: u32, at: impl Fn(f64) -> f64) -> (Vec<Vec<f64>>, Keys) {
        let frames: Vec<Vec<f64>> = (0..count).map(|k| vec![at(f64::from(k) / f64::from(count))]).collect();
        let end = frames.first().cloned().unwrap_or_default();
        let keys = keys(&frames, &end, 1e-3);
        (frames, keys)
    }

    /// What a player makes of keys at a time: of two at the same time, the later one.
    fn played(keys: &Keys, time: f64) -> f64 {
        let i = keys.times.iter().rposition(|t| *t <= time).unwrap_or(0);
        let (from, to) = (keys.values[i][0], keys.values.get(i + 1).map_or(f64::NAN, |v| v[0]));
        let (a, b) = (keys.times[i], keys.times.get(i + 1).copied().unwrap_or(1.0));
        if time > a { from + (to - from) * (time - a) / (b - a) } else { from }
    }

    #[test]
    fn every_frame_is_met_within_the_tolerance() {
        for at in [
            |t: f64| swing(t, 0.0, 100.0),
            |t: f64| saw(t, 0.0, 50.0),
            |t: f64| hold(t, &[3.0, 9.0, 1.0]).copied().unwrap_or(0.0),
            |t: f64| (t * 9.0).sin().max(0.0),
            |_| 4.0,
        ] {
            for count in [1, 2, 3, 24, 45] {
                let (frames, keys) = of(count, at);
                assert_eq!(keys.times.first(), Some(&0.0));
                assert_eq!(keys.times.last(), Some(&1.0));
                assert!(keys.times.is_sorted() && keys.times.len() == keys.values.len());
                for (i, frame) in frames.iter().enumerate() {
                    let played = played(&keys, i as f64 / frames.len() as f64);
                    assert!((played - frame[0]).abs() <= 1.001e-3, "{i} of {count}: {played}, {frame:?}");
                }
            }
        }
    }

    #[test]
    fn straight_ways_take_two_keys_and_jumps_stay_jumps() {
        assert_eq!(of(24, |_| 4.0).1.times, [0.0, 1.0]);
        // A saw jumps where it begins again.
        assert_eq!(of(24, |t| saw(t, 0.0, 48.0)).1.values, [[0.0], [46.0], [46.0]]);
        let held = of(24, |t| hold(t, &[1.0, 5.0]).copied().unwrap_or(0.0)).1;
        assert_eq!(held.times, [0.0, 11.0 / 24.0, 0.5, 0.5, 23.0 / 24.0, 1.0]);
        assert_eq!(held.values, [[1.0], [1.0], [1.0], [5.0], [5.0], [5.0]]);
        // A quick start is none.
        let kept = of(45, |t| swing(t, 0.0, 1.0)).1;
        assert!(kept.times.len() < 46 && kept.times.is_sorted_by(|a, b| a < b));
    }
}
