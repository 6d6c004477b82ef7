//! Gaussian blur of planes of numbers.
//!
//! Where the curve is wide, the plane is first averaged over squares of 2, 4, 8, .. pixels, blurred there and drawn large again: what is
//! wide is smooth, so that nothing is lost, and a wide blur costs no more than a narrow one. What averaging and enlarging blur by themselves
//! is taken off the curve's variance.

use crate::ground::{buffer, exhausted, threads};
use crate::number::Point;

/// Curves of up to this standard deviation, in pixels, are summed as they are.
const MAX_DIRECT_SIGMA: f64 = 6.0;

/// The curve is cut off beyond so many standard deviations, where less than 3 in 10,000 of it are left.
const KERNEL_RADIUS_SIGMAS: f64 = 3.7;

/// No curve is wider than a million pixels: nothing is left of it anywhere.
const MAX_VARIANCE: f64 = 1e12;

/// Rows that are blurred together.
const ROWS: usize = 16;

/// Numbers of a row that are summed together.
const RUN: usize = 512;

/// Rows of pixels of `N` numbers each.
#[derive(Clone, Debug)]
pub(super) struct Plane<const N: usize> {
    pub(super) width: usize,
    pub(super) pixels: Vec<[f32; N]>,
}

/// How much and which way a curve spreads, in square pixels: along x, along y, and together.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Variance {
    pub(super) x: f64,
    pub(super) y: f64,
    pub(super) both: f64,
}

impl<const N: usize> Plane<N> {
    pub(super) fn height(&self) -> usize {
        self.pixels.len() / self.width.max(1)
    }

    /// A transparent plane; without rows if its memory is refused.
    fn clear(width: usize, height: usize) -> Self {
        Self { width, pixels: buffer([0.0; N], width * height).unwrap_or_default() }
    }

    fn row(&self, y: i64) -> Option<&[[f32; N]]> {
        let begin = usize::try_from(y).ok()?.checked_mul(self.width)?;
        self.pixels.get(begin..begin + self.width)
    }

    /// Blurred, and moved by a step. What lies outside counts as nothing. Cost: linear in the pixels, whatever the variance.
    pub(super) fn blurred(self, variance: Variance, step: Point) -> Self {
        let Variance { x, y, both } = variance;
        if self.width == 0 || exhausted(self.pixels.len() / 8) {
            return self;
        }
        if both.abs() > 1e-6 * (x + y) {
            // One of the two leans is at most 1, so that no plane grows beyond its width and height together.
            return if both.abs() <= y {
                self.blurred_aslant(variance, step)
            } else {
                let turned = Variance { x: y, y: x, both };
                self.transposed().blurred_aslant(turned, Point::new(step.y, step.x)).transposed()
            };
        }
        let (across, down) = (Way::new(x, step.x), Way::new(y, step.y));
        if across.is_nothing() && down.is_nothing() {
            return self;
        }
        let (width, height) = (self.width, self.height());
        let mut small =
            if across.factor * down.factor > 1 { self.averaged(across.factor, down.factor) } else { self };
        small.blur_rows(&kernel(across.variance));
        let small = small.blur_columns(&kernel(down.variance));
        if across.stays() && down.stays() { small } else { small.enlarged((width, height), &across, &down) }
    }

    /// Rows for columns.
    fn transposed(&self) -> Self {
        let (width, height) = (self.width, self.height());
        let mut out = Self::clear(height, width);
        for (x, column) in out.pixels.chunks_mut(height.max(1)).enumerate() {
            let own = self.pixels.iter().skip(x).step_by(width.max(1));
            column.iter_mut().zip(own).for_each(|(pixel, from)| *pixel = *from);
        }
        out
    }

    /// Along lines that lean by at most as much as they rise, the plane is sheared so that they stand upright.
    fn blurred_aslant(self, Variance { x, y, both }: Variance, step: Point) -> Self {
        let lean = (both / y).clamp(-1.0, 1.0);
        let (width, height) = (self.width, self.height());
        let more = (lean.abs() * height as f64).ceil() as usize + 2;
        let upright = self.sheared(width + more, |row| {
            // Upright lines keep what they are at the top or at the bottom, so that nothing leaves the plane.
            -lean * (row as f64 - if lean > 0.0 { height as f64 } else { 0.0 })
        });
        let upright = upright.blurred(Variance { x: 0.0, y, both: 0.0 }, Point::ZERO);
        let back =
            upright.sheared(width, |row| lean * (row as f64 - if lean > 0.0 { height as f64 } else { 0.0 }));
        // Shearing there and back blurs by a third of a square pixel.
        let rest = (x - both * both / y - 1.0 / 3.0).max(0.0);
        back.blurred(Variance { x: rest, y: 0.0, both: 0.0 }, step)
    }

    /// Every row moved to the right by what a function says.
    fn sheared(&self, width: usize, by: impl Fn(usize) -> f64 + Send + Sync) -> Self {
        let mut out = Self::clear(width, self.height());
        threads::change_chunks(
            &mut out.pixels,
            width.max(1),
            || (),
            |(), y, row| {
                let Some(from) = self.row(y as i64) else { return };
                let by = by(y);
                let share = (by - by.floor()) as f32;
                for (pixel, x) in row.iter_mut().zip(0_i64..) {
                    let at = |x: i64| {
                        usize::try_from(x).ok().and_then(|x| from.get(x)).copied().unwrap_or([0.0; N])
                    };
                    let begin = x - by.floor() as i64;
                    *pixel = mixed(&at(begin), &at(begin - 1), share);
                }
            },
        );
        out
    }

    /// The mean of every rectangle of so many pixels.
    fn averaged(&self, across: usize, down: usize) -> Self {
        let (width, height) = (self.width.div_ceil(across), self.height().div_ceil(down));
        let mut out = Self::clear(width, height);
        let share = 1.0 / (across * down) as f32;
        threads::change_chunks(
            &mut out.pixels,
            width,
            || (),
            |(), y, row| {
                for from in (y * down..(y + 1) * down).filter_map(|y| self.row(y as i64)) {
                    for (sum, pixels) in row.iter_mut().zip(from.chunks(across)) {
                        for pixel in pixels {
                            for (sum, value) in sum.iter_mut().zip(pixel) {
                                *sum += value;
                            }
                        }
                    }
                }
                row.iter_mut().flatten().for_each(|sum| *sum *= share);
            },
        );
        out
    }

    fn blur_rows(&mut self, kernel: &[f32]) {
        let reach = kernel.len().saturating_sub(1);
        if reach == 0 {
            return;
        }
        threads::change_chunks(&mut self.pixels, self.width, Vec::<f32>::new, |padded, _, row| {
            let row = row.as_flattened_mut();
            if exhausted(row.len() / 16) {
                return;
            }
            // Nothing on either side, so that sums need not look where they are.
            padded.clear();
            padded.resize(reach * N, 0.0);
            padded.extend_from_slice(row);
            padded.resize(row.len() + 2 * reach * N, 0.0);
            let length = row.len();
            let from = |k: usize| padded.get(k * N..k * N + length).unwrap_or_default();
            row.iter_mut().zip(from(reach)).for_each(|(out, value)| *out = value * weight(kernel, 0));
            for k in 1..=reach {
                let (before, after, share) = (from(reach - k), from(reach + k), weight(kernel, k));
                for (out, (a, b)) in row.iter_mut().zip(before.iter().zip(after)) {
                    *out += (a + b) * share;
                }
            }
        });
    }

    fn blur_columns(self, kernel: &[f32]) -> Self {
        let reach = kernel.len().saturating_sub(1) as i64;
        if reach == 0 {
            return self;
        }
        let mut out = Self::clear(self.width, self.height());
        threads::change_chunks(
            &mut out.pixels,
            self.width * ROWS,
            || (),
            |(), block, rows| {
                if exhausted(rows.len() / 4) {
                    return;
                }
                // So few columns at a time that what is summed stays at hand.
                for begin in (0..self.width * N).step_by(RUN) {
                    for (row, y) in rows.chunks_mut(self.width).zip((block * ROWS) as i64..) {
                        let row = row.as_flattened_mut();
                        let end = row.len().min(begin + RUN);
                        let Some(row) = row.get_mut(begin..end) else { continue };
                        for k in -reach..=reach {
                            let from = self.row(y + k).and_then(|from| from.as_flattened().get(begin..end));
                            let share = weight(kernel, k.unsigned_abs() as usize);
                            for (out, value) in row.iter_mut().zip(from.unwrap_or_default()) {
                                *out += value * share;
                            }
                        }
                    }
                }
            },
        );
        out
    }

    /// Drawn large again, with even steps between its pixels.
    fn enlarged(&self, (width, height): (usize, usize), across: &Way, down: &Way) -> Self {
        let mut out = Self::clear(width, height);
        let columns: Vec<(i64, f32)> = (0..width).map(|x| across.place(x)).collect();
        let none = vec![[0.0; N]; self.width];
        threads::change_chunks(&mut out.pixels, width, Vec::<[f32; N]>::new, |line, y, row| {
            let (at, share) = down.place(y);
            let (above, below) = (self.row(at).unwrap_or(&none), self.row(at + 1).unwrap_or(&none));
            // With nothing on either side.
            line.clear();
            line.push([0.0; N]);
            line.extend(above.iter().zip(below).map(|(a, b)| mixed(a, b, share)));
            line.extend([[0.0; N]; 2]);
            for (pixel, (at, share)) in row.iter_mut().zip(&columns) {
                let at = (at + 1).clamp(0, self.width as i64 + 1) as usize;
                if let Some([a, b]) = line.get(at..at + 2) {
                    *pixel = mixed(a, b, *share);
                }
            }
        });
        out
    }
}

#[inline]
fn mixed<const N: usize>(a: &[f32; N], b: &[f32; N], share: f32) -> [f32; N] {
    std::array::from_fn(|i| a[i] + (b[i] - a[i]) * share)
}

fn weight(kernel: &[f32], at: usize) -> f32 {
    kernel.get(at).copied().unwrap_or(0.0)
}

/// What is done along one axis.
struct Way {
    /// Pixels that are averaged.
    factor: usize,
    /// What is left to blur by, in what is averaged.
    variance: f64,
    step: f64,
}

impl Way {
    fn new(variance: f64, step: f64) -> Self {
        let variance = variance.clamp(0.0, MAX_VARIANCE);
        let factor = (variance.sqrt() / MAX_DIRECT_SIGMA).max(1.0).log2().ceil().clamp(0.0, 20.0).exp2();
        let fraction = step - step.floor();
        // Averaging squares, and going evenly between them; a part of a pixel moved.
        let own = if factor > 1.0 {
            (factor * factor - 1.0) / 12.0 + (factor * factor) / 6.0 + 1.0 / 12.0
        } else {
            fraction * (1.0 - fraction)
        };
        let variance = (variance - own).max(0.0) / (factor * factor);
        Self { factor: factor as usize, variance, step }
    }

    fn is_nothing(&self) -> bool {
        self.stays() && self.variance == 0.0
    }

    fn stays(&self) -> bool {
        self.factor == 1 && self.step == 0.0
    }

    /// Between which two places of what was averaged a pixel lies, and how far on the way.
    fn place(&self, at: usize) -> (i64, f32) {
        let place = (at as f64 + 0.5 - self.step) / self.factor as f64 - 0.5;
        (place.floor() as i64, (place - place.floor()) as f32)
    }
}

/// The weights of a curve from its middle on, all of both sides together 1.
fn kernel(variance: f64) -> Vec<f32> {
    if variance <= 1e-9 {
        return vec![1.0];
    }
    if variance <= 0.5 {
        // Three weights of just this variance: the curve itself, taken at whole pixels, would be too narrow.
        return vec![1.0 - variance as f32, 0.5 * variance as f32];
    }
    let reach = (variance.sqrt() * KERNEL_RADIUS_SIGMAS).ceil() as usize;
    let at = |k: usize| (-0.5 * (k * k) as f64 / variance).exp();
    let sum = at(0) + 2.0 * (1..=reach).map(at).sum::<f64>();
    (0..=reach).map(|k| (at(k) / sum) as f32).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    /// The slow twin: every pixel asks every other one.
    fn slowly(plane: &Plane<1>, v: Variance, step: Point) -> Vec<f64> {
        let spread = v.x * v.y - v.both * v.both;
        let height = plane.height() as i64;
        let curve = |x: f64, y: f64| {
            (-0.5 * (v.y * x * x - 2.0 * v.both * x * y + v.x * y * y) / spread).exp()
                / (2.0 * std::f64::consts::PI * spread.sqrt())
        };
        let mut out = Vec::new();
        for y in 0..height {
            for x in 0..plane.width as i64 {
                let mut sum = 0.0;
                for (from, pixel) in plane.pixels.iter().enumerate().filter(|(_, pixel)| pixel[0] > 0.0) {
                    let (fx, fy) = ((from % plane.width) as f64, (from / plane.width) as f64);
                    sum += f64::from(pixel[0]) * curve(x as f64 - fx - step.x, y as f64 - fy - step.y);
                }
                out.push(sum);
            }
        }
        out
    }

    /// A disc and a bar, hard-edged.
    fn shapes(side: usize) -> Plane<1> {
        let mut plane = Plane::clear(side, side);
        for (at, pixel) in plane.pixels.iter_mut().enumerate() {
            let (x, y) = ((at % side) as f64, (at / side) as f64);
            let disc = (x - side as f64 * 0.45).hypot(y - side as f64 * 0.5) < side as f64 * 0.13;
            let bar = x > side as f64 * 0.62
                && x < side as f64 * 0.65
                && y > side as f64 * 0.3
                && y < side as f64 * 0.6;
            pixel[0] = if disc || bar { 1.0 } else { 0.0 };
        }
        plane
    }

    #[test]
    fn blurs_are_within_a_level_of_the_true_curve() {
        let round = |radius: f64| Variance { x: radius * radius, y: radius * radius, both: 0.0 };
        let cases = [
            (round(1.0), Point::ZERO),
            (round(2.5), Point::new(3.0, -2.0)),
            (round(5.9), Point::ZERO),
            (round(6.1), Point::ZERO),
            (round(9.0), Point::new(2.4, 1.3)),
            (round(14.0), Point::ZERO),
            (Variance { x: 9.0, y: 100.0, both: 0.0 }, Point::ZERO),
            (Variance { x: 60.0, y: 30.0, both: 25.0 }, Point::ZERO),
            (Variance { x: 30.0, y: 60.0, both: -25.0 }, Point::new(1.0, 2.0)),
            (Variance { x: 120.0, y: 20.0, both: 40.0 }, Point::new(-2.0, 1.0)),
        ];
        for (variance, step) in cases {
            let plane = shapes(90);
            let want = slowly(&plane, variance, step);
            let given = plane.blurred(variance, step);
            let worst =
                given.pixels.iter().zip(&want).map(|(a, b)| (f64::from(a[0]) - b).abs()).fold(0.0, f64::max);
            assert!(worst < 1.0 / 255.0, "{variance:?}: {} of 255", worst * 255.0);
        }
    }

    #[test]
    fn a_blur_keeps_what_there_is() {
        for radius in [0.3_f64, 0.7, 3.0, 11.0, 25.0] {
            let mut plane = Plane::<4>::clear(301, 299);
            plane.pixels[150 * 301 + 150] = [1.0, 0.5, 0.25, 1.0];
            let variance = radius * radius;
            let given = plane.blurred(Variance { x: variance, y: variance, both: 0.0 }, Point::ZERO);
            let sum: f32 = given.pixels.iter().map(|pixel| pixel[0]).sum();
            assert!((sum - 1.0).abs() < 2e-3, "{radius}: {sum}");
            let spread: f64 = given
                .pixels
                .iter()
                .enumerate()
                .map(|(at, p)| ((at % 301) as f64 - 150.0).powi(2) * f64::from(p[0]))
                .sum();
            assert!((spread / variance - 1.0).abs() < 0.02, "{radius}: {spread} for {variance}");
        }
    }
}
