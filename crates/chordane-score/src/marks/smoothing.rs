//! Smoothing marks over time with a Gaussian.

use std::collections::BTreeMap;

use chordane::number::Point;

use super::{MarkFrame, Marks};

/// Frames further away than this many widths contribute nothing visible.
const REACH: f64 = 3.5;

/// Up to this width, in frames, the sum runs frame by frame. For greater widths, frames are first averaged in groups.
const MAX_EXACT: f64 = 32.0;

/// The number of groups in one width.
const GROUPS_PER_WIDTH: f64 = 16.0;

/// The positions of one mark: frame number, counted from 0, and point.
type Track = Vec<(f64, Point)>;

impl Marks {
    /// The same with the trembling taken out: each mark is the mean of where it was in the frames around, those further away counting less, by a
    /// Gaussian curve of this standard deviation in frames. What was not seen stays missing. A width of 0, or of less, changes nothing; over an infinite
    /// width all frames count alike.
    ///
    /// Cost: linear in the points, whatever the width.
    #[must_use]
    pub fn smoothed(&self, frames: f64) -> Self {
        if frames.is_nan() || frames <= 0.0 {
            return self.clone();
        }
        // Over a thousand times as many frames as there are, all weights are the same.
        let width = frames.min(1e3 * self.frames.len() as f64);
        let mut tracks: BTreeMap<usize, Track> = BTreeMap::new();
        for (frame, at) in self.frames.iter().zip(0_u32..) {
            for (number, point) in frame.points() {
                tracks.entry(number).or_default().push((f64::from(at), point));
            }
        }
        let mut smooth: BTreeMap<usize, _> =
            tracks.into_iter().map(|(number, track)| (number, smooth(&track, width).into_iter())).collect();
        // Sums of coordinates near the largest number overflow.
        let mut mean = |(number, own): (usize, Point)| {
            let mean = smooth.get_mut(&number).and_then(Iterator::next).filter(|mean| mean.is_finite());
            (number, mean.unwrap_or(own))
        };
        let smoothed = |frame: &MarkFrame| MarkFrame {
            points: frame.points().map(&mut mean).collect(),
            seconds: frame.seconds,
        };
        Self { frames: self.frames.iter().map(smoothed).collect() }
    }
}

/// The smoothed points of a track.
fn smooth(track: &Track, width: f64) -> Vec<Point> {
    if width <= MAX_EXACT {
        // The distances between frames are whole numbers.
        let weights: Vec<f64> = (0..=(REACH * width) as usize).map(|off| weight(off as f64, width)).collect();
        let all: Vec<(f64, Point, f64)> = track.iter().map(|(at, point)| (*at, *point, 1.0)).collect();
        return means(&all, REACH * width, |off| weights.get(off as usize).copied().unwrap_or(0.0));
    }
    let size = (width / GROUPS_PER_WIDTH).floor();
    let groups = grouped(track, size);
    // Averaging a group already blurs by the variance of its frames.
    let rest = (width * width - (size * size - 1.0) / 12.0).sqrt();
    let means = means(&groups, REACH * rest, |off| weight(off, rest));
    let place = |k: usize| Some((groups.get(k)?.0, *means.get(k)?));
    let mut next = 1;
    let between = |(at, _): &(f64, Point)| {
        while next + 1 < groups.len() && groups.get(next).is_some_and(|group| group.0 < *at) {
            next += 1;
        }
        match (place(next - 1), place(next)) {
            (Some((from, a)), Some((to, b))) => a.lerp(b, (at - from) / (to - from)),
            (one, _) => one.map_or(Point::ZERO, |(_, point)| point),
        }
    };
    track.iter().map(between).collect()
}

/// The height of a Gaussian curve at a distance from its middle, where it is 1.
fn weight(off: f64, width: f64) -> f64 {
    (-0.5 * (off / width).powi(2)).exp()
}

/// The mean place, the mean point and the number of the points in each group of `size` frames that has any.
fn grouped(track: &Track, size: f64) -> Vec<(f64, Point, f64)> {
    let groups = track.chunk_by(|(a, _), (b, _)| (a / size).floor() == (b / size).floor());
    let mean = |group: &[(f64, Point)]| {
        let count = group.len() as f64;
        let at = group.iter().map(|(at, _)| at).sum::<f64>() / count;
        (at, group.iter().map(|(_, point)| *point).sum::<Point>() / count, count)
    };
    groups.map(mean).collect()
}

/// The weighted mean around each point, as far as the reach. What is summed is the distance from it, so that what stands still stays exactly.
fn means(all: &[(f64, Point, f64)], reach: f64, weight: impl Fn(f64) -> f64) -> Vec<Point> {
    let mut first = 0;
    let mean = |(at, own, _): &(f64, Point, f64)| {
        while all.get(first).is_some_and(|one| one.0 < at - reach) {
            first += 1;
        }
        let around = all.iter().skip(first).take_while(|one| one.0 <= at + reach);
        let (mut sum, mut weights) = (Point::ZERO, 0.0);
        for (place, point, count) in around {
            let weight = count * weight((place - at).abs());
            sum += (*point - *own) * weight;
            weights += weight;
        }
        *own + sum / weights
    };
    all.iter().map(mean).collect()
}
