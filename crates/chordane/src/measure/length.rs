//! Lengths, to a stated accuracy.
//!
//! A curve's length is the integral of its speed, which has no closed form for cubics and ellipses. It is summed by
//! Gauss and Legendre's rule, with just as many places as the accuracy asks for: how fast the rule converges is set
//! by how near the speed comes to zero in the complex plane, and those places are known in closed form. Where one
//! is too near, the stretch is halved.

use std::f64::consts::{FRAC_PI_2, PI};
use std::sync::LazyLock;

use crate::ground::Fault;
use crate::number::Point;
use crate::path::{Arc, Contour, Path, Segment};

/// The relative accuracy of [`Path::length`].
const ACCURACY: f64 = 1e-9;

/// How often a stretch is halved at most: beyond this it is shorter than the accuracy can show.
const MOST_HALVINGS: u32 = 40;

/// A zero of the speed this near to the real line, against the length of the stretch, counts as on it. Leaving it
/// out then changes the length by about the square of this.
const ON_THE_LINE: f64 = 2e-6;

/// A rule's places on -1 to 1, and their weights.
struct Rule<const N: usize> {
    places: [f64; N],
    weights: [f64; N],
}

impl<const N: usize> Rule<N> {
    /// The zeros of the Legendre polynomial by Newton's method, and the weights.
    fn new() -> Self {
        let (mut places, mut weights) = ([0.0; N], [0.0; N]);
        for (i, (place, weight)) in places.iter_mut().zip(&mut weights).enumerate() {
            let mut x = (PI * (i as f64 + 0.75) / (N as f64 + 0.5)).cos();
            let mut slope = 1.0;
            for _ in 0..20 {
                let (mut before, mut value) = (0.0, 1.0);
                for k in 1..=N {
                    let k = k as f64;
                    (before, value) = (value, ((2.0 * k - 1.0) * x * value - (k - 1.0) * before) / k);
                }
                slope = N as f64 * (x * value - before) / (x * x - 1.0);
                x -= value / slope;
            }
            (*place, *weight) = (x, 2.0 / ((1.0 - x * x) * slope * slope));
        }
        Self { places, weights }
    }

    /// The rule over a stretch. First all values, which the compiler computes several at a time, then their sum.
    #[inline(always)]
    fn apply(&self, speed: &impl Fn(f64) -> f64, from: f64, to: f64) -> f64 {
        let (middle, half) = (0.5 * (from + to), 0.5 * (to - from));
        let mut values = [0.0; N];
        for ((value, place), weight) in values.iter_mut().zip(&self.places).zip(&self.weights) {
            *value = speed(middle + half * place) * weight;
        }
        let mut sums = [0.0; 4];
        for four in values.chunks_exact(4) {
            for (sum, value) in sums.iter_mut().zip(four) {
                *sum += value;
            }
        }
        half * (sums[0] + sums[1] + sums[2] + sums[3])
    }
}

/// The numbers of places of the rules there are; multiples of four.
const PLACES: [usize; 5] = [12, 16, 24, 32, 40];

struct Rules(Rule<12>, Rule<16>, Rule<24>, Rule<32>, Rule<40>);

static RULES: LazyLock<Rules> =
    LazyLock::new(|| Rules(Rule::new(), Rule::new(), Rule::new(), Rule::new(), Rule::new()));

/// The sixteen places of a rule between two parameters, with their weights: exact for polynomials up to
/// degree 31.
pub(super) fn sixteen_places((from, to): (f64, f64)) -> impl Iterator<Item = (f64, f64)> {
    let (middle, half) = (0.5 * (from + to), 0.5 * (to - from));
    let rule = &RULES.1;
    rule.places.iter().zip(&rule.weights).map(move |(place, weight)| (middle + half * place, half * weight))
}

/// How much smaller the error is than the ellipse alone promises. A zero of a speed is a mild break (a square root),
/// and the error has a small factor for it: over 100,000 random cubics at accuracies from 1e-9 to 1e-4 it stayed below
/// a sixtieth of the promise where the accuracy is 1e-7 or finer.
const MILD: f64 = 60.0;

/// What an accuracy asks of each rule: an ellipse round the stretch's ends that must hold no zero of the speed, by
/// the inverse squares of its half axes, over a stretch from -1 to 1.
///
/// The error of a rule of n places shrinks as the 2n-th power of the sum of the ellipse's half axes (L. N. Trefethen,
/// "Is Gauss quadrature better than Clenshaw-Curtis?", 2008, theorem 4.5).
#[derive(Clone, Copy)]
struct Demand([(f64, f64); PLACES.len()]);

impl Demand {
    fn of(accuracy: f64) -> Self {
        Self(PLACES.map(|n| {
            let sum = (1.0 / (MILD * accuracy)).powf(0.5 / (n as f64 - 0.5));
            let (long, short) = (0.5 * (sum + 1.0 / sum), 0.5 * (sum - 1.0 / sum));
            (1.0 / (long * long), 1.0 / (short * short))
        }))
    }
}

static DEMAND: LazyLock<Demand> = LazyLock::new(|| Demand::of(ACCURACY));

/// A place in the complex plane, at which a speed is zero. Its mirror image below the real line is one too.
#[derive(Clone, Copy, Debug)]
struct Zero {
    x: f64,
    y: f64,
}

/// The integral of a speed over a stretch: by the smallest rule that is good enough, or in halves.
#[inline]
fn integral<const N: usize>(
    speed: &impl Fn(f64) -> f64,
    zeros: &[Zero; N],
    (from, to): (f64, f64),
    demand: &Demand,
    halvings: u32,
) -> f64 {
    let (middle, scale) = (0.5 * (from + to), 2.0 / (to - from));
    // Squares over a stretch from -1 to 1, of the zeros that count: those on the real line itself have been made
    // ends of stretches, and there the speed goes through zero without a bend.
    let squares = zeros.map(|zero| {
        let (x, y) = ((zero.x - middle) * scale, zero.y * scale);
        (x * x, y * y, y <= 2.0 * ON_THE_LINE)
    });
    // What is not a number is nowhere near, and so is not less either: speeds past the largest numbers have such zeros.
    let near = |(long, short): (f64, f64)| {
        squares.iter().any(|(x, y, on_the_line)| x * long + y * short < 1.0 && !on_the_line)
    };
    let clear_of = |demand| !near(demand);
    let rules = &*RULES;
    let [fewest, few, some, many, most] = demand.0;
    if clear_of(few) {
        if clear_of(fewest) { rules.0.apply(speed, from, to) } else { rules.1.apply(speed, from, to) }
    } else if clear_of(some) {
        rules.2.apply(speed, from, to)
    } else if clear_of(many) {
        rules.3.apply(speed, from, to)
    } else if clear_of(most) || halvings >= MOST_HALVINGS {
        rules.4.apply(speed, from, to)
    } else {
        halves(speed, zeros, (from, to), demand, halvings + 1)
    }
}

#[cold]
fn halves<const N: usize>(
    speed: &impl Fn(f64) -> f64,
    zeros: &[Zero; N],
    (from, to): (f64, f64),
    demand: &Demand,
    halvings: u32,
) -> f64 {
    let middle = 0.5 * (from + to);
    integral(speed, zeros, (from, middle), demand, halvings)
        + integral(speed, zeros, (middle, to), demand, halvings)
}

/// The integral over a stretch that is first cut at those zeros that lie on it.
#[inline]
fn length_between<const N: usize>(
    speed: &impl Fn(f64) -> f64,
    zeros: &[Zero; N],
    from: f64,
    to: f64,
    demand: &Demand,
) -> f64 {
    let near = |zero: &Zero| zero.y <= ON_THE_LINE * (to - from) && zero.x > from && zero.x < to;
    if zeros.iter().any(near) {
        let mut cuts: Vec<f64> = zeros.iter().filter(|zero| near(zero)).map(|zero| zero.x).collect();
        cuts.extend([from, to]);
        cuts.sort_by(f64::total_cmp);
        return cuts.windows(2).map(|pair| integral(speed, zeros, (pair[0], pair[1]), demand, 0)).sum();
    }
    integral(speed, zeros, (from, to), demand, 0)
}

/// A zero that is nowhere near.
const FAR: Zero = Zero { x: f64::MAX, y: f64::MAX };

/// The zeros of `|a t^2 + b t + c|` for vectors taken as complex numbers.
#[inline]
fn zeros_of_velocity(a: Point, b: Point, c: Point) -> [Zero; 2] {
    // One over the other, as complex numbers; far off where the lower one vanishes.
    let over = |p: Point, q: Point| {
        let scale = 1.0 / q.length_squared();
        let z = Zero { x: p.dot(q) * scale, y: (q.perp_dot(p) * scale).abs() };
        if z.x.is_finite() && z.y.is_finite() { z } else { FAR }
    };
    let under = b.rotate(b) - a.rotate(c) * 4.0;
    let length = under.length();
    // The complex root, on the side of b, so that the sum does not cancel.
    let long = ((length + under.x.abs()) * 0.5).sqrt();
    let short = if long > 0.0 { under.y * 0.5 / long } else { 0.0 };
    let root = if under.x >= 0.0 { Point::new(long, short) } else { Point::new(short, long) };
    let root = if root.dot(b) < 0.0 { -root } else { root };
    let q = (b + root) * -0.5;
    [over(q, a), over(c, q)]
}

impl Segment {
    /// The length between two parameters, to a relative accuracy.
    pub(crate) fn length_between(&self, from: f64, to: f64, accuracy: f64) -> f64 {
        self.length_by(from, to, &Demand::of(accuracy))
    }

    #[inline]
    fn length_by(&self, from: f64, to: f64, demand: &Demand) -> f64 {
        match *self {
            Self::Line { from: a, to: b } => a.distance(b) * (to - from),
            Self::Quad { from: a, control, to: b } => {
                let (bend, pace) = ((a - control * 2.0 + b) * 2.0, (control - a) * 2.0);
                let zeros = zeros_of_velocity(Point::ZERO, bend, pace);
                length_between(&|t| (bend * t + pace).length(), &zeros, from, to, demand)
            }
            Self::Cubic { from: p, control1, control2, to: q } => {
                let a = (q - p + (control1 - control2) * 3.0) * 3.0;
                let b = (p - control1 * 2.0 + control2) * 6.0;
                let c = (control1 - p) * 3.0;
                let zeros = zeros_of_velocity(a, b, c);
                length_between(&|t| ((a * t + b) * t + c).length(), &zeros, from, to, demand)
            }
            Self::Arc(arc) => match arc.centred() {
                Some(whole) => arc_length(&whole, from, to, demand),
                None => arc.from.distance(arc.to) * (to - from),
            },
        }
    }

    /// The length of the segment, to 1e-9 of itself.
    #[must_use]
    pub fn length(&self) -> f64 {
        self.length_by(0.0, 1.0, &DEMAND)
    }
}

/// The length of a part of an ellipse. The speed at an angle is zero at whole (or odd) quarter turns, as far off the
/// real line as the ellipse is round.
fn arc_length(arc: &Arc, from: f64, to: f64, demand: &Demand) -> f64 {
    let (rx, ry) = (arc.radii.x, arc.radii.y);
    if rx == ry {
        return rx * arc.sweep.radians().abs() * (to - from);
    }
    let angle = |share: f64| (arc.start + arc.sweep * share).radians();
    let (low, high) = (angle(from).min(angle(to)), angle(from).max(angle(to)));
    let flat = (rx.min(ry) / rx.max(ry)).atanh();
    let shift = if rx > ry { 0.0 } else { FRAC_PI_2 };
    let speed = |t: f64| (rx * t.sin()).hypot(ry * t.cos());
    // Quarter by quarter, so that only the zeros at its two sides matter.
    let mut sum = 0.0;
    let mut begin = low;
    while begin < high {
        let quarter = (begin / FRAC_PI_2 + 1e-9).floor();
        let end = high.min((quarter + 1.0) * FRAC_PI_2);
        let nearest = ((begin - shift) / PI).floor() * PI + shift;
        let zeros = [0.0, 1.0, 2.0].map(|k| Zero { x: nearest + k * PI, y: flat });
        sum += length_between(&speed, &zeros, begin, end, demand);
        if end <= begin {
            break;
        }
        begin = end;
    }
    sum
}

impl Contour {
    /// The length that a pen would draw, the closing side of a closed contour included, to 1e-9 of itself.
    #[must_use]
    pub fn length(&self) -> f64 {
        self.segments().map(|segment| segment.length()).sum()
    }
}

impl Path {
    /// The length that a pen would draw, closing sides of closed contours included, to 1e-9 of itself.
    ///
    /// # Errors
    ///
    /// The path's first fault.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let hoop = circle((0.0, 0.0), 10.0);
    /// assert!((hoop.length()? - 20.0 * std::f64::consts::PI).abs() < 1e-9);
    /// # Ok::<(), Fault>(())
    /// ```
    pub fn length(&self) -> Result<f64, Fault> {
        self.length_within(ACCURACY)
    }

    /// As [`Path::length`], to another relative accuracy, from 1e-13 to 0.1. Cost: linear, and growing with the
    /// number of digits.
    ///
    /// # Errors
    ///
    /// The path's first fault.
    pub fn length_within(&self, accuracy: f64) -> Result<f64, Fault> {
        self.sound()?;
        let accuracy = if accuracy.is_nan() { ACCURACY } else { accuracy.clamp(1e-13, 0.1) };
        let demand = Demand::of(accuracy);
        Ok(self.segments().map(|segment| segment.length_by(0.0, 1.0, &demand)).sum())
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::prelude::*;

    /// Numbers from 0 up to 100 from a seed (a linear congruential generator, Knuth's constants).
    fn random_to_100(mut seed: u64) -> impl FnMut() -> f64 {
        move || {
            seed = seed.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
            (seed >> 33) as f64 / f64::from(1_u32 << 31) * 100.0
        }
    }

    /// The quick accuracy against the best there is.
    #[test]
    fn lengths_are_as_accurate_as_they_say() {
        let mut random = random_to_100(99);
        for _ in 0..20_000 {
            let mut p = || (random(), random());
            let path = start(p()).cubic(p(), p(), p()).open();
            let (quick, best) = (path.length().unwrap(), path.length_within(1e-13).unwrap());
            assert!((quick - best).abs() <= 1e-9 * best, "{} for {path:?}", (quick - best) / best);
        }
    }

    /// The slow twin: chords between very many places, with the next order of their error taken off (Richardson).
    fn chords(segment: &Segment) -> f64 {
        let sum = |n: u32| -> f64 {
            (0..n)
                .map(|i| {
                    segment
                        .at(f64::from(i) / f64::from(n))
                        .distance(segment.at(f64::from(i + 1) / f64::from(n)))
                })
                .sum()
        };
        let (coarse, fine) = (sum(20_000), sum(40_000));
        fine + (fine - coarse) / 3.0
    }

    #[test]
    fn lengths_agree_with_adding_up_chords() {
        let mut random = random_to_100(12345);
        for i in 0..120 {
            let mut p = || (random(), random());
            let path = match i % 3 {
                0 => start(p()).cubic(p(), p(), p()).open(),
                1 => start(p()).quad(p(), p()).open(),
                _ => start(p()).arc_radii(p(), p(), deg(30.0), ArcWay::LongClockwise).open(),
            };
            let segment = path.segments().next().unwrap();
            let (ours, slow) = (segment.length(), chords(&segment));
            assert!((ours - slow).abs() <= 3e-9 * slow, "{ours} and {slow} for {segment:?}");
        }
    }

    #[test]
    fn cusps_and_folds_have_their_lengths() {
        // A curve that runs out and back on one line: the speed is zero where it turns.
        let fold = start((0.0, 0.0)).quad((10.0, 0.0), (0.0, 0.0)).open();
        assert!((fold.length().unwrap() - 10.0).abs() < 1e-9);
        let uneven = start((0.0, 0.0)).quad((9.0, 0.0), (3.0, 0.0)).open();
        let turn = 9.0_f64 / 15.0;
        let far = 2.0 * turn * (1.0 - turn) * 9.0 + turn * turn * 3.0;
        assert!((uneven.length().unwrap() - (2.0 * far - 3.0)).abs() < 1e-8);
        // The cusp of (t - 1/2)^2, (t - 1/2)^3: the length of a semicubical parabola is known (W. Neile, 1657).
        let cusp =
            start((0.25, -0.125)).cubic((-0.25 / 3.0, 0.125), (-0.25 / 3.0, -0.125), (0.25, 0.125)).open();
        let half = |t: f64| ((4.0 + 9.0 * t * t).powf(1.5) - 8.0) / 27.0;
        assert!((cusp.length().unwrap() - 2.0 * half(0.5)).abs() < 1e-9, "{}", cusp.length().unwrap());
        for data in ["M0 0C100 100 0 100 100 0", "M0 0C100 99.9 0 100 100 0", "M0 0C101 100 0 100 100 0"] {
            let segment = Path::from_data(data).unwrap().segments().next().unwrap();
            let slow = chords(&segment);
            assert!((segment.length() - slow).abs() < 1e-7 * slow, "{data}: {} and {slow}", segment.length());
        }
    }

    /// The complete elliptic integral by the arithmetic-geometric mean: quadratic convergence, independent of ours.
    fn perimeter(a: f64, b: f64) -> f64 {
        let (mut x, mut y, mut sum, mut power) = (a, b, 0.0, 0.5);
        let mut c2 = (a * a - b * b).abs();
        for _ in 0..40 {
            sum += power * c2;
            let half = 0.5 * (x - y);
            c2 = half * half;
            (x, y, power) = (0.5 * (x + y), (x * y).sqrt(), power * 2.0);
        }
        2.0 * PI * (a.max(b).powi(2) - sum) / x
    }

    #[test]
    fn ellipses_have_the_perimeters_of_the_elliptic_integral() {
        for (a, b) in
            [(1.0, 1.0), (2.0, 1.0), (1.0, 3.0), (10.0, 1.0), (100.0, 1.0), (1e4, 1.0), (5.0, 4.999)]
        {
            let want = if a > b { perimeter(a, b) } else { perimeter(b, a) };
            let got = ellipse((3.0, 4.0), a, b).length().unwrap();
            assert!((got - want).abs() < 2e-9 * want, "{a} x {b}: {got} and {want}");
        }
        assert!((perimeter(2.0, 1.0) - 9.688_448_220_547_675).abs() < 1e-12);
    }

    #[test]
    fn closed_contours_count_their_closing_side() {
        let open = start((0.0, 0.0)).line((3.0, 0.0)).line((3.0, 4.0));
        assert_eq!(open.clone().open().length().unwrap(), 7.0);
        assert_eq!(open.close().length().unwrap(), 12.0);
        assert_eq!(Path::empty().length().unwrap(), 0.0);
        assert_eq!(start((5.0, 5.0)).close().length().unwrap(), 0.0);
        assert!(circle((0.0, 0.0), -1.0).length().is_err());
    }
}
