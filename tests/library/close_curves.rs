//! Combinations of shapes whose curves lie very close to each other over their whole length.

use chordane::prelude::*;
use proptest::prelude::*;

fn area(path: &Path) -> f64 {
    path.sound().unwrap().signed_area()
}

/// Returns how far the areas of the combinations of two shapes are from adding up, in the worst case.
fn worst(a: &Path, b: &Path) -> f64 {
    let (union, both) = (area(&a.union(b)), area(&a.intersection(b)));
    let (of_a, of_b) = (area(&a.simplified()), area(&b.simplified()));
    let laws = [
        (union + both) - (of_a + of_b),
        area(&a.difference(b)) - (of_a - both),
        area(&b.difference(a)) - (of_b - both),
        area(&a.xor(b)) - (union - both),
    ];
    laws.into_iter().map(f64::abs).fold(0.0, f64::max)
}

/// Two shapes whose curves are no farther apart than twice a gap.
fn close_shapes() -> impl Strategy<Value = (Path, Path)> {
    let point = || (0.0..100.0_f64, 0.0..100.0_f64).prop_map(Point::from);
    let step = || (-1.0..1.0_f64, -1.0..1.0_f64).prop_map(Point::from);
    let points = [point(), point(), point(), point()];
    let steps = [step(), step(), step(), step()];
    (points, steps, -12.0..-2.0_f64, 0..8_usize).prop_map(|([p, q, r, s], [d, e, f, g], size, kind)| {
        let gap = 10.0_f64.powf(size);
        let [near_p, near_q, near_r, near_s] = [p + d * gap, q + e * gap, r + f * gap, s + g * gap];
        let cubic = start(p).cubic(q, r, s).close();
        match kind {
            0 => (cubic, start(near_p).cubic(near_q, near_r, near_s).close()),
            1 => (cubic, start(near_s).cubic(near_r, near_q, near_p).close()),
            2 => (cubic, start(p).cubic(near_q, near_r, s).close()),
            3 => (cubic, start(near_p).cubic(q + d * gap, r + d * gap, s + d * gap).line(q).close()),
            4 => (start(p).quad(q, s).close(), start(near_p).quad(near_q, near_s).close()),
            5 => (circle(p, 20.0), circle(near_p, 20.0)),
            6 => (circle(p, 20.0), circle(p, 20.0 + gap)),
            _ => (ellipse(p, 20.0, 11.0), ellipse(near_p, 20.0, 11.0 + gap)),
        }
    })
}

proptest! {
    #![proptest_config(crate::support::cases(200))]

    #[test]
    fn areas_add_up((a, b) in close_shapes()) {
        let off = worst(&a, &b);
        prop_assert!(off <= 1e-3, "off by {}: {} and {}", off, a.data(), b.data());
    }
}

/// Regressions: the intersection was empty, since a crossing at a very small angle was missed.
#[test]
fn curves_that_cross_within_the_tolerance() {
    let pairs = [
        (
            "M46.310463295711116 29.498543465365433Q22.09851422202278 44.428054781846086 65.75200462926307 85.29825383067133Z",
            "M46.31046328635139 29.49854347269747Q22.098514231888224 44.42805478586765 65.75200462423771 85.2982538377623Z",
        ),
        (
            "M65.50303727327133 29.840608400461154C85.28772929528527 55.43311182815055 59.27136843603146 42.88843400556427 63.66505711384713 25.83518777200704Z",
            "M65.5030372674238 29.840608404460788C85.28772930256588 55.43311181958063 59.27136843343323 42.88843400721892 63.665057111996525 25.83518776663213Z",
        ),
    ];
    for (a, b) in pairs.map(|(a, b)| (Path::from_data(a).unwrap(), Path::from_data(b).unwrap())) {
        assert!(worst(&a, &b) < 1e-6);
        let lost = area(&a.simplified()) - area(&a.intersection(&b));
        assert!((0.0..1e-5).contains(&lost), "{lost}");
    }
}
