//! Offsets and round outlines: every point of the rim is at the right distance from the line, and no rim is too small to see.

use chordane::prelude::*;
use proptest::prelude::*;

/// The minimum length of a contour of the rim of curves; anything shorter comes from the fitting tolerance. Rims of straight sides may have any size.
const SHORTEST: f64 = 0.05;

/// Returns what is wrong with a rim that should be at a distance from a line: a point that is off, or a contour that is too short.
fn wrong(line: &Path, rim: &Path, distance: f64) -> Option<String> {
    let curved = |segment: Segment| match segment {
        Segment::Line { .. } => false,
        Segment::Arc(arc) => arc.radii.x != arc.radii.y,
        Segment::Quad { .. } | Segment::Cubic { .. } => true,
    };
    let shortest = if line.segments().any(curved) { SHORTEST } else { 0.0 };
    for contour in rim.contours() {
        if contour.length() < shortest {
            return Some(format!("a contour of {} at {}", contour.length(), contour.start()));
        }
        for spot in contour.segments().flat_map(|segment| (0..6).map(move |i| segment.at(f64::from(i) / 6.0)))
        {
            let off = (line.distance(spot).unwrap() - distance).abs();
            if off > 0.02 {
                return Some(format!("{spot} is off by {off}"));
            }
        }
    }
    None
}

fn offset_round(path: &Path, by: f64) -> Option<String> {
    wrong(path, &path.then(Offset { join: Join::Round, ..Offset::new(by) }), by.abs())
}

fn outlined_round(path: &Path, width: f64) -> Option<String> {
    let line = LineStyle { join: Join::Round, cap: Cap::Round, ..LineStyle::new(width) };
    wrong(path, &path.outlined(line), 0.5 * width)
}

/// Shapes of every kind, turned and sheared.
fn shapes() -> impl Strategy<Value = Path> {
    let radius = || 10.0..70.0_f64;
    let two = move || (radius(), radius());
    let corner = || (-60.0..60.0_f64, -60.0..60.0_f64);
    let shape = prop_oneof![
        (3..9_usize, radius()).prop_map(|(n, r)| polygon((0.0, 0.0), n, r)),
        (3..9_usize, two()).prop_map(|(n, (a, b))| star((0.0, 0.0), n, a, b)),
        prop::collection::vec(20.0..90.0_f64, 3..12).prop_map(|radii| blob((0.0, 0.0), radii)),
        (two(), 0.5..6.0_f64).prop_map(|((a, b), e)| superellipse((0.0, 0.0), a, b, e)),
        (5..20_usize, two()).prop_map(|(n, (a, b))| gear((0.0, 0.0), n, a, b)),
        (radius(), 0.0..360.0_f64, 10.0..350.0_f64).prop_map(|(r, a, s)| pie((0.0, 0.0), r, deg(a), deg(s))),
        two().prop_map(|(a, b)| ring((0.0, 0.0), a + 50.0, b)),
        prop::collection::vec(corner(), 4..8).prop_map(Path::closed),
        (3..8_usize, two(), 0.5..8.0_f64, 0.5..8.0_f64).prop_map(|(n, (a, b), c, d)| rounded_star(
            (0.0, 0.0),
            n,
            a,
            b,
            c,
            d
        )),
    ];
    (shape, corner(), prop::option::of(0.0..360.0_f64), prop::option::of(-35.0..35.0_f64)).prop_map(
        |(shape, by, turn, shear)| {
            let turned = turn.map_or(shape.clone(), |turn| shape.rotated(deg(turn)));
            let sheared = shear.map_or(turned.clone(), |shear| turned.sheared(deg(shear), deg(0.0)));
            sheared.moved(by).simplified()
        },
    )
}

proptest! {
    #![proptest_config(crate::support::cases(200))]

    #[test]
    fn rims_lie_at_their_distance(path in shapes(), share in -0.6..0.5_f64, width in 0.5..30.0_f64) {
        let size = path.bounds().map_or(0.0, |bounds| bounds.size().min_element());
        prop_assert_eq!(offset_round(&path, share * size), None, "by {} of {}", share * size, path.data());
        prop_assert_eq!(outlined_round(&path, width), None, "{} wide, {}", width, path.data());
    }
}

/// Regressions: these had slivers, or rim points on the line itself.
#[test]
fn rims_of_shapes_with_tight_bends_and_cusps() {
    let star =
        rounded_star((-3.817, -36.3915), 4, 45.1681, 22.184, 5.0, 4.0).sheared(deg(-20.8073), deg(0.0));
    let near_rhomb = superellipse((-13.479, 26.2873), 59.4006, 42.4397, 1.0282).rotated(deg(304.2531));
    let sheared = superellipse((-8.0401, 37.8518), 40.1615, 20.4821, 1.2551).sheared(deg(-29.6398), deg(0.0));
    let radii = [41.1387, 82.349, 59.9324, 82.1626, 59.2488, 20.3353, 56.8861, 33.6169, 84.3241];
    let spot = blob((53.0118, 49.9279), radii);
    for (path, by) in [(star, -19.552), (near_rhomb, -7.973), (sheared, -19.197), (spot, -17.903)] {
        assert_eq!(offset_round(&path.simplified(), by), None, "by {by}");
    }
    let cusps = superellipse((-59.1125, -53.2786), 49.8812, 21.5421, 0.601)
        .rotated(deg(261.3131))
        .sheared(deg(-3.0255), deg(0.0));
    let others = superellipse((-58.6178, -38.2864), 63.6667, 27.2088, 0.6085).rotated(deg(281.9034));
    for (path, width) in [(cusps, 15.17), (others, 2.041)] {
        assert_eq!(outlined_round(&path.simplified(), width), None, "{width} wide");
    }
    // With a handle of length zero the curvature at the end is infinite.
    let tip = start((2.2890400749509223, 9.611774118040813))
        .cubic((0.7518969341362491, 9.867154800933957), (0.0, 10.0), (0.0, 10.0))
        .cubic(
            (0.0, 10.0),
            (-0.7518969341362467, 9.867154800933957),
            (-2.2890400749509188, 9.611774118040813),
        )
        .open();
    assert_eq!(outlined_round(&tip, 9.059056338561863), None);
    // The sides of this cusp cross 0.0005 before its tip, so it turns the wrong way.
    let cusp = start((0.0, 0.0))
        .cubic((0.0, 0.0), (-0.358, -0.00276), (-1.0268, 0.3961))
        .line((-1.0268, -0.3961))
        .cubic((-0.358, 0.00277), (0.0, 0.0), (0.0, 0.0))
        .close();
    assert_eq!(offset_round(&cusp, 4.4), None);
}
