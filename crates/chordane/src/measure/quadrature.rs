//! The integral of a speed along a curve, to a stated accuracy.
//!
//! It is summed by Gauss and Legendre's rule, with just as many places as the accuracy asks for: how fast the rule
//! converges is set by how near the speed comes to zero in the complex plane, and whoever asks knows those places.
//! Where one is too near, the stretch is halved.

use std::f64::consts::PI;
use std::sync::LazyLock;

use crate::number::Point;

/// How often a stretch is halved at most: beyond this it is shorter than the accuracy can show.
const MAX_BISECTIONS: u32 = 40;

/// A zero of the speed this near to the real line, against the length of the stretch, counts as on it. Leaving it
/// out then changes the length by about the square of this.
const REAL_AXIS_TOLERANCE: f64 = 2e-6;

/// A rule's places on -1 to 1, and their weights.
struct Rule<const N: usize> {
    places: [f64; N],
    weights: [f64; N],
}

impl<const N: usize> Rule<N> {
    /// The zeros of the Legendre polynomial by Newton's method, and the weights.
    fn new() -> Self {
        let (mut places, mut weights) = ([0.0; N], [0.0; N]);
        let n = N as f64;
        for (i, (place, weight)) in places.iter_mut().zip(&mut weights).enumerate() {
            let mut x = (PI * (i as f64 + 0.75) / (n + 0.5)).cos();
            let mut slope = 1.0;
            for _ in 0..20 {
                let (mut before, mut value) = (0.0, 1.0);
                for k in 1..=N {
                    let k = k as f64;
                    (before, value) = (value, ((2.0 * k - 1.0) * x * value - (k - 1.0) * before) / k);
                }
                slope = n * (x * value - before) / (x * x - 1.0);
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
const NODE_COUNTS: [usize; 5] = [12, 16, 24, 32, 40];

struct Rules(Rule<12>, Rule<16>, Rule<24>, Rule<32>, Rule<40>);

static RULES: LazyLock<Rules> =
    LazyLock::new(|| Rules(Rule::new(), Rule::new(), Rule::new(), Rule::new(), Rule::new()));

/// The sixteen places of a rule between two parameters, with their weights: exact for polynomials up to
/// degree 31.
pub(crate) fn sixteen_places((from, to): (f64, f64)) -> impl Iterator<Item = (f64, f64)> {
    let (middle, half) = (0.5 * (from + to), 0.5 * (to - from));
    let rule = &RULES.1;
    rule.places.iter().zip(&rule.weights).map(move |(place, weight)| (middle + half * place, half * weight))
}

/// How much smaller the error is than the ellipse alone promises. A zero of a speed is a mild break (a square root),
/// and the error has a small factor for it: over 100,000 random cubics at accuracies from 1e-9 to 1e-4 it stayed below
/// a sixtieth of the promise where the accuracy is 1e-7 or finer.
const BRANCH_POINT_GAIN: f64 = 60.0;

/// What an accuracy asks of each rule: an ellipse round the stretch's ends that must hold no zero of the speed, by
/// the inverse squares of its half axes, over a stretch from -1 to 1.
///
/// The error of a rule of n places shrinks as the 2n-th power of the sum of the ellipse's half axes (L. N. Trefethen,
/// "Is Gauss quadrature better than Clenshaw-Curtis?", 2008, theorem 4.5).
#[derive(Clone, Copy)]
pub(super) struct Demand([(f64, f64); NODE_COUNTS.len()]);

impl Demand {
    pub(super) fn of(accuracy: f64) -> Self {
        Self(NODE_COUNTS.map(|n| {
            let sum = (1.0 / (BRANCH_POINT_GAIN * accuracy)).powf(0.5 / (n as f64 - 0.5));
            let (long, short) = (0.5 * (sum + 1.0 / sum), 0.5 * (sum - 1.0 / sum));
            (1.0 / (long * long), 1.0 / (short * short))
        }))
    }
}

/// A place in the complex plane, at which a speed is zero. Its mirror image below the real line is one too.
#[derive(Clone, Copy, Debug)]
pub(super) struct Zero {
    pub(super) x: f64,
    pub(super) y: f64,
}

/// A zero that is nowhere near.
pub(super) const FAR: Zero = Zero { x: f64::MAX, y: f64::MAX };

/// The integral of a speed over a stretch by the smallest rule whose ellipse no zero is in, or otherwise as said.
#[inline(always)]
fn by_rule(
    speed: &impl Fn(f64) -> f64,
    (from, to): (f64, f64),
    Demand([fewest, few, some, many, most]): &Demand,
    near: impl Fn((f64, f64)) -> bool,
    otherwise: impl FnOnce(&Rules) -> f64,
) -> f64 {
    let rules = &*RULES;
    if !near(*few) {
        if near(*fewest) { rules.1.apply(speed, from, to) } else { rules.0.apply(speed, from, to) }
    } else if !near(*some) {
        rules.2.apply(speed, from, to)
    } else if !near(*many) {
        rules.3.apply(speed, from, to)
    } else if !near(*most) {
        rules.4.apply(speed, from, to)
    } else {
        otherwise(rules)
    }
}

/// The integral of a speed over a stretch: by the smallest rule that is good enough, or in halves.
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
        (x * x, y * y, y <= 2.0 * REAL_AXIS_TOLERANCE)
    });
    // What is not a number is nowhere near, and so is not less either: speeds past the largest numbers have such zeros.
    let near = |(long, short): (f64, f64)| {
        squares.iter().any(|(x, y, on_the_line)| x * long + y * short < 1.0 && !on_the_line)
    };
    by_rule(speed, (from, to), demand, near, |rules| {
        if halvings >= MAX_BISECTIONS {
            return rules.4.apply(speed, from, to);
        }
        halves(speed, zeros, (from, to), demand, halvings + 1)
    })
}

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

/// A zero of a speed as one vector over another, both taken as complex numbers.
#[derive(Clone, Copy, Debug)]
pub(super) struct Ratio {
    pub(super) over: Point,
    pub(super) under: Point,
}

impl Ratio {
    /// Where it is; far off where what is under the line vanishes.
    #[inline]
    pub(super) fn place(self) -> Zero {
        let scale = 1.0 / self.under.length_squared();
        let (x, y) = (self.over.dot(self.under) * scale, (self.under.perp_dot(self.over) * scale).abs());
        if x.is_finite() && y.is_finite() { Zero { x, y } } else { FAR }
    }
}

/// The integral over a stretch, of a speed whose zeros are ratios. Most are far enough off to be told without dividing;
/// where it takes a closer look, their places are asked for.
#[inline(always)]
pub(super) fn integral_of_ratios(
    speed: &impl Fn(f64) -> f64,
    ratios: [Ratio; 2],
    places: impl Fn() -> [Zero; 2],
    stretch: (f64, f64),
    demand: &Demand,
) -> f64 {
    let (from, to) = stretch;
    let (middle, half) = (0.5 * (from + to), 0.5 * (to - from));
    // How far they are from the middle, and what this is compared with, half of the stretch, both multiplied by the square
    // of what is under the line.
    let [(x, y, size), (x2, y2, size2)] = ratios.map(|Ratio { over, under }| {
        let over = over - under * middle;
        (over.dot(under), under.perp_dot(over), under.length_squared() * half)
    });
    let (xx, yy, square) = (x * x, y * y, size * size);
    let (xx2, yy2, square2) = (x2 * x2, y2 * y2, size2 * size2);
    // Near the real line, or with squares that may be past what numbers hold.
    let near_line =
        |yy: f64, square: f64| yy <= (4.0 * REAL_AXIS_TOLERANCE) * (4.0 * REAL_AXIS_TOLERANCE) * square;
    let past = |square: f64| !(1e-250..1e250).contains(&square);
    if near_line(yy, square) | near_line(yy2, square2) | past(square) | past(square2) {
        return cut_integral(speed, &places(), stretch, demand);
    }
    let near =
        |(long, short): (f64, f64)| (xx * long + yy * short < square) | (xx2 * long + yy2 * short < square2);
    by_rule(speed, stretch, demand, near, |_| halves(speed, &ratios.map(Ratio::place), stretch, demand, 1))
}

/// The integral over a stretch that is first cut at those zeros that lie on it.
#[inline]
pub(super) fn cut_integral<const N: usize>(
    speed: &impl Fn(f64) -> f64,
    zeros: &[Zero; N],
    (from, to): (f64, f64),
    demand: &Demand,
) -> f64 {
    let near = |zero: &Zero| zero.y <= REAL_AXIS_TOLERANCE * (to - from) && zero.x > from && zero.x < to;
    if zeros.iter().any(near) {
        let mut cuts: Vec<f64> = zeros.iter().filter(|zero| near(zero)).map(|zero| zero.x).collect();
        cuts.extend([from, to]);
        cuts.sort_by(f64::total_cmp);
        return cuts.windows(2).map(|pair| integral(speed, zeros, (pair[0], pair[1]), demand, 0)).sum();
    }
    integral(speed, zeros, (from, to), demand, 0)
}
