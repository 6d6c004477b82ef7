//! Roots of polynomials on the stretch from 0 to 1, none lost.
//!
//! A polynomial is given by its Bernstein coefficients. Their changes of sign bound the number of roots (Descartes'
//! rule): with none there is no root, with one there is exactly one, and otherwise the stretch is halved.

/// How often a stretch is halved at most; roots nearer together than this count as one.
const MAX_BISECTIONS: u32 = 44;

/// Calls `found` with the roots from 0 to 1 in order. A double root may be found once, twice or, where rounding lifts
/// it off zero, not at all. A polynomial that is zero throughout has none.
pub(crate) fn roots<const N: usize>(coefficients: [f64; N], mut found: impl FnMut(f64)) {
    if coefficients.iter().all(|c| *c == 0.0) || coefficients.iter().any(|c| !c.is_finite()) {
        return;
    }
    // Both ends belong to the stretch; inside it, a root at a joint is left to the half on its left.
    if coefficients.first() == Some(&0.0) {
        found(0.0);
    }
    isolate(coefficients, 0.0, 1.0, 0, &mut found);
}

fn isolate<const N: usize>(
    coefficients: [f64; N],
    from: f64,
    to: f64,
    halvings: u32,
    found: &mut dyn FnMut(f64),
) {
    let signs = coefficients.iter().filter(|c| **c != 0.0).map(|c| *c > 0.0);
    let changes = signs.clone().zip(signs.skip(1)).filter(|(a, b)| a != b).count();
    let last = coefficients.last().copied().unwrap_or(1.0);
    match changes {
        0 if last == 0.0 => found(to),
        0 => {}
        1 if coefficients.first() != Some(&0.0) && last != 0.0 => {
            found(from + (to - from) * only_root(&coefficients));
        }
        _ if halvings >= MAX_BISECTIONS => found(from.midpoint(to)),
        _ => {
            let (left, right) = halves(coefficients);
            let middle = from.midpoint(to);
            isolate(left, from, middle, halvings + 1, found);
            isolate(right, middle, to, halvings + 1, found);
        }
    }
}

/// The two halves of a polynomial, each over 0 to 1 again (de Casteljau).
fn halves<const N: usize>(coefficients: [f64; N]) -> ([f64; N], [f64; N]) {
    let (mut left, mut right) = ([0.0; N], coefficients);
    for (i, slot) in left.iter_mut().enumerate() {
        *slot = right.first().copied().unwrap_or(0.0);
        let rest = N - 1 - i;
        for k in 0..rest {
            if let [a, b, ..] = right.get_mut(k..).unwrap_or_default() {
                *a = a.midpoint(*b);
            }
        }
    }
    (left, right)
}

/// The value at a parameter (de Casteljau).
fn value<const N: usize>(coefficients: &[f64; N], t: f64) -> f64 {
    let mut work = *coefficients;
    for rest in (1..N).rev() {
        for k in 0..rest {
            if let [a, b, ..] = work.get_mut(k..).unwrap_or_default() {
                *a += (*b - *a) * t;
            }
        }
    }
    work.first().copied().unwrap_or(0.0)
}

/// The one root between ends of different sign: false position, with the weight of an end that stays halved (the
/// Illinois rule), and halving where that is slow.
fn only_root<const N: usize>(coefficients: &[f64; N]) -> f64 {
    let (mut a, mut b) = (0.0, 1.0);
    let mut at_a = coefficients.first().copied().unwrap_or(0.0);
    let mut at_b = coefficients.last().copied().unwrap_or(0.0);
    for turn in 0..100 {
        if b - a <= 1e-16 {
            break;
        }
        let guess = a + (b - a) * (at_a / (at_a - at_b));
        // An end that is nearly zero draws the guess onto itself, though the root may be far from it.
        let t = if turn % 4 == 3 || guess <= a || guess >= b { a.midpoint(b) } else { guess };
        let at_t = value(coefficients, t);
        if at_t == 0.0 {
            return t;
        }
        if (at_t > 0.0) == (at_b > 0.0) {
            (b, at_b) = (t, at_t);
            at_a *= 0.5;
        } else {
            (a, at_a) = (t, at_t);
            at_b *= 0.5;
        }
    }
    a.midpoint(b)
}

/// The Bernstein coefficients of the product of two polynomials.
pub(crate) fn product(a: &[f64], b: &[f64]) -> Vec<f64> {
    let (m, n) = (a.len().saturating_sub(1), b.len().saturating_sub(1));
    // One factor's coefficients times their binomials are coefficients of t^i (1 - t)^(m - i), which multiply plainly.
    let mut sums = vec![0.0; m + n + 1];
    for (i, a) in a.iter().enumerate() {
        for (k, b) in b.iter().enumerate() {
            if let Some(sum) = sums.get_mut(i + k) {
                *sum += choose(m, i) * a * choose(n, k) * b;
            }
        }
    }
    sums.iter().enumerate().map(|(i, sum)| sum / choose(m + n, i)).collect()
}

/// How many ways there are to choose so many out of some.
fn choose(of: usize, many: usize) -> f64 {
    (0..many.min(of)).fold(1.0, |ways, i| ways * (of - i) as f64 / (i + 1) as f64)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn of<const N: usize>(coefficients: [f64; N]) -> Vec<f64> {
        let mut all = Vec::new();
        roots(coefficients, |t| all.push(t));
        all
    }

    /// The Bernstein coefficients of a product of linear factors `t - root`.
    fn with_roots(roots: [f64; 5]) -> [f64; 6] {
        let mut coefficients = vec![1.0];
        for root in roots {
            let n = coefficients.len();
            let raised = |k: usize| {
                let left = if k > 0 { coefficients[k - 1] * k as f64 * (1.0 - root) } else { 0.0 };
                let right = if k < n { coefficients[k] * (n - k) as f64 * -root } else { 0.0 };
                (left + right) / n as f64
            };
            coefficients = (0..=n).map(raised).collect();
        }
        coefficients.try_into().unwrap()
    }

    #[test]
    fn all_roots_are_found_in_order() {
        for wanted in [
            [0.1, 0.25, 0.5, 0.75, 0.9],
            [0.3, 0.300_001, 0.6, 2.0, -1.0],
            [0.001, 0.999, 5.0, 6.0, 7.0],
            [0.2, 0.4, 0.8, -0.3, 1.4],
        ] {
            let inside: Vec<f64> = wanted.into_iter().filter(|t| (0.0..=1.0).contains(t)).collect();
            let got = of(with_roots(wanted));
            assert_eq!(got.len(), inside.len(), "{wanted:?}: {got:?}");
            for (a, b) in got.iter().zip(&inside) {
                assert!((a - b).abs() < 1e-9, "{wanted:?}: {got:?}");
            }
        }
    }

    #[test]
    fn a_product_is_worth_the_product() {
        let (a, b) = ([1.0, -2.0, 0.5, 3.0], [0.25, 4.0, -1.0]);
        let both: [f64; 6] = product(&a, &b).try_into().unwrap();
        for i in 0..=20 {
            let t = f64::from(i) / 20.0;
            assert!((value(&both, t) - value(&a, t) * value(&b, t)).abs() < 1e-13);
        }
    }

    #[test]
    fn ends_and_nothing() {
        assert_eq!(of([0.0, 1.0]), [0.0]);
        assert_eq!(of([-1.0, 0.0]), [1.0]);
        assert_eq!(of([1.0, 1.0, 1.0]), [] as [f64; 0]);
        assert_eq!(of([0.0, 0.0]), [] as [f64; 0]);
        assert_eq!(of([f64::NAN, 1.0]), [] as [f64; 0]);
        assert_eq!(of([-1.0, 3.0]), [0.25]);
    }
}
