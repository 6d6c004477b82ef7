//! What meets, what is painted and what is near, against counting and sampling.

use crate::coverage::drawn_coverage;
use crate::support::{any_path, point};
use chordane::measure::{Crossing, CrossingKind, Place};
use chordane::prelude::*;
use proptest::prelude::*;

/// The crossings of straight sides by looking at every pair.
fn pairs_that_cross(path: &Path) -> Vec<Point> {
    let sides: Vec<(Point, Point)> = path.segments().map(|s| (s.from(), s.to())).collect();
    let mut found = Vec::new();
    for (i, (a, b)) in sides.iter().enumerate() {
        for (c, d) in &sides[i + 1..] {
            let side = |p: Point, q: Point, r: Point| (q - p).perp_dot(r - p);
            let (s, t) = (side(*a, *b, *c), side(*a, *b, *d));
            if s * t < 0.0 && side(*c, *d, *a) * side(*c, *d, *b) < 0.0 {
                found.push(c.lerp(*d, s / (s - t)));
            }
        }
    }
    found
}

proptest! {
    #![proptest_config(crate::support::cases(150))]

    #[test]
    fn crossings_of_straight_sides_are_those_of_all_pairs(
        points in prop::collection::vec((0.0..100.0_f64, 0.0..100.0_f64), 3..24),
    ) {
        let path = Path::closed(points);
        let (found, wanted) = (path.crossings().unwrap(), pairs_that_cross(&path));
        prop_assert_eq!(found.len(), wanted.len());
        for spot in wanted {
            prop_assert!(found.iter().any(|crossing| crossing.at.distance(spot) < 1e-7));
        }
        prop_assert!(found.iter().all(|crossing| crossing.kind == CrossingKind::Across));
    }

    #[test]
    fn a_crossing_is_on_both_lines(path in any_path(60.0), other in any_path(60.0)) {
        let at = |path: &Path, place: &Place| {
            path.contours()[place.contour].segments().nth(place.segment).unwrap().at(place.parameter)
        };
        for crossing in path.crossings().unwrap() {
            prop_assert!(at(&path, &crossing.first).distance(crossing.at) < 1e-6, "{crossing:?}");
            prop_assert!(at(&path, &crossing.second).distance(crossing.at) < 1e-6, "{crossing:?}");
        }
        let (one, two) = (path.crossings_with(&other).unwrap(), other.crossings_with(&path).unwrap());
        prop_assert_eq!(one.len(), two.len());
        for crossing in one {
            prop_assert!(at(&path, &crossing.first).distance(crossing.at) < 1e-6);
            prop_assert!(at(&other, &crossing.second).distance(crossing.at) < 1e-6);
        }
    }

    /// The painted area against the sum of the coverage of all pixels.
    #[test]
    fn the_painted_area_is_what_the_filler_covers(path in any_path(40.0)) {
        let (area, size) = (path.area().unwrap(), 200);
        let moved = path.moved((80.0, 80.0));
        // Only what lies on the picture can be compared.
        let bounds = moved.bounds().unwrap();
        prop_assume!(bounds.min.min_element() > 0.0 && bounds.max.max_element() < f64::from(size));
        let covered: f64 = drawn_coverage(moved.clone().fill("black"), size).iter().sum();
        let rim = moved.length().unwrap();
        prop_assert!((covered - area).abs() < 0.02 * rim + 0.5, "{} painted and {} covered", area, covered);
    }

    /// The same from the laws: areas do not depend on direction, place or rule of one simple contour.
    #[test]
    fn the_painted_area_keeps_its_laws(path in any_path(40.0), angle in 0.0..360.0_f64) {
        let area = path.area().unwrap();
        let near = |other: f64| (other - area).abs() < 1e-6 * (1.0 + area);
        prop_assert!(near(path.reversed().area().unwrap()));
        prop_assert!(near(path.rotated(deg(angle)).moved((30.0, -7.0)).area().unwrap()));
        let even_odd = path.clone().with_fill_rule(FillRule::EvenOdd).area().unwrap();
        let nonzero = path.clone().with_fill_rule(FillRule::Nonzero).area().unwrap();
        prop_assert!(even_odd <= nonzero * (1.0 + 1e-9) + 1e-6);
        // Twice the same contours: everything cancels under the even-odd rule.
        let twice = path.clone().and(&path);
        prop_assert!(twice.clone().with_fill_rule(FillRule::EvenOdd).area().unwrap() < 1e-4 * (1.0 + nonzero));
    }

    #[test]
    fn the_nearest_place_is_no_farther_than_any_sample(path in any_path(60.0), spot in point(80.0)) {
        let survey = path.survey().unwrap();
        let Some(nearest) = survey.nearest(spot) else { return Ok(()) };
        let least = nearest.point().distance(spot);
        prop_assert!((path.distance(spot).unwrap() - least).abs() < 1e-9);
        for segment in path.segments() {
            for i in 0..=64 {
                let sample = segment.at(f64::from(i) / 64.0).distance(spot);
                prop_assert!(least <= sample + 1e-9, "{} and {}", least, sample);
            }
        }
        // And its distance along the path leads back to it.
        let back = survey.station(nearest.distance()).unwrap();
        // Where contours meet in distance, the end of the earlier one stands for both.
        prop_assert!(back.contour() < nearest.contour() || back.point().distance(nearest.point()) < 1e-4);
        prop_assert_eq!(path.on_stroke(spot, 2.0 * least * (1.0 + 1e-9) + 1e-9).unwrap(), true);
    }
}

#[test]
fn tangencies_ends_and_shared_stretches_are_told_apart() {
    let kinds = |a: &Path, b: &Path| -> Vec<CrossingKind> {
        a.crossings_with(b).unwrap().into_iter().map(|crossing| crossing.kind).collect()
    };
    let hoop = circle((0.0, 0.0), 10.0);
    assert_eq!(kinds(&hoop, &circle((20.0, 0.0), 10.0)), [CrossingKind::Touching]);
    assert_eq!(kinds(&hoop, &Path::open([(-20.0, 10.0), (20.0, 10.0)])), [CrossingKind::Touching]);
    assert_eq!(kinds(&hoop, &Path::open([(0.0, 0.0), (10.0, 0.0)])), [CrossingKind::Touching]);
    assert_eq!(kinds(&hoop, &Path::open([(0.0, 0.0), (20.0, 0.0)])), [CrossingKind::Across]);
    assert_eq!(kinds(&hoop, &Path::open([(-20.0, 0.0), (20.0, 0.0)])), [CrossingKind::Across; 2]);
    // Through a vertex of each: across, or with the tips only touching.
    let tip = Path::open([(0.0, 0.0), (5.0, 5.0), (10.0, 0.0)]);
    assert_eq!(kinds(&tip, &Path::open([(0.0, 10.0), (5.0, 5.0), (10.0, 10.0)])), [CrossingKind::Touching]);
    assert_eq!(kinds(&tip, &Path::open([(5.0, 9.0), (5.0, 5.0), (5.0, 0.0)])), [CrossingKind::Across]);
    let along = kinds(&rectangle((0.0, 0.0), 10.0, 10.0), &rectangle((10.0, 5.0), 10.0, 10.0));
    assert!(matches!(along[..], [CrossingKind::Along { to, .. }] if to == pt(10.0, 10.0)), "{along:?}");
}

#[test]
fn a_path_that_runs_back_over_itself_shares_a_stretch() {
    let spike = Path::open([(0.0, 0.0), (10.0, 0.0), (4.0, 0.0)]);
    let crossings = spike.crossings().unwrap();
    assert_eq!(crossings.len(), 1);
    assert!(matches!(crossings[0].kind, CrossingKind::Along { .. }));
    // Lines that are parallel but for the last digits run along one another too.
    let nearly = Path::open([(0.0, 0.0), (100.0, 0.0)]).and(&Path::open([(0.0, 1e-12), (100.0, -1e-12)]));
    assert!(matches!(nearly.crossings().unwrap()[..], [Crossing { kind: CrossingKind::Along { .. }, .. }]));
    let loop_of_one = Path::from_data("M0 0C100 100-50 100 50 0").unwrap().crossings().unwrap();
    assert_eq!(loop_of_one.len(), 1);
    assert_eq!(circle((0.0, 0.0), 5.0).crossings().unwrap(), []);
    assert_eq!(Path::empty().crossings().unwrap(), []);
}

/// Sizes from very small to very large, and far from the origin: the same answers.
#[test]
fn scale_does_not_matter() {
    let pentagram = Path::closed(around(5).map(|a| polar(a * 2.0, 1.0)));
    let area = pentagram.area().unwrap();
    for scale in [1e-6, 1e-3, 1.0, 1e5, 1e9] {
        let path = pentagram.scaled(scale);
        assert_eq!(path.crossings().unwrap().len(), 5, "{scale}");
        assert!((path.area().unwrap() / (scale * scale) - area).abs() < 1e-6);
        let centroid = path.centroid().unwrap().unwrap();
        assert!(centroid.length() < 1e-6 * scale);
    }
    assert_eq!(pentagram.moved((1e6, -1e6)).crossings().unwrap().len(), 5);
}

#[test]
fn what_cannot_be_measured_says_why() {
    let broken = start((0.0, 0.0)).line((f64::NAN, 0.0)).close();
    for fault in [
        broken.crossings().unwrap_err(),
        broken.area().unwrap_err(),
        broken.distance((0.0, 0.0)).unwrap_err(),
    ] {
        assert_eq!(fault.call(), "line");
    }
    // A net of lines that cross more than a million times.
    let net = (0..1100).fold(Path::empty(), |net, i| {
        let x = f64::from(i);
        net.and(&Path::open([(x, -1.0), (x, 1100.0)])).and(&Path::open([(-1.0, x + 0.5), (1100.0, x + 0.5)]))
    });
    assert_eq!(
        net.crossings().unwrap_err().to_string(),
        "`crossings`: 1000001 crossings are too many; give at most 1000000"
    );
}

/// Near an end on which its handle lies a curve stands still, and Newton's method runs past the end.
#[test]
fn curves_cross_near_an_end_where_one_stands_still() {
    let cap = start((17.0, 20.0)).cubic((124.0, -25.0), (0.0, 100.0 / 3.0), (0.0, 100.0 / 3.0)).open();
    let bow = start((-25.0, 3.0)).quad((96.0, 125.0), (8.0, 125.0)).open();
    let found = bow.crossings_with(&cap).unwrap();
    assert_eq!(found.len(), 1);
    assert!(found[0].at.distance(pt(2.486_985, 32.160_068)) < 1e-5, "{}", found[0].at);
    let sail = start((-25.0, 3.0))
        .quad((96.0, 125.0), (8.0, 125.0))
        .quad((124.0, 124.0), (17.0, 20.0))
        .cubic((124.0, -25.0), (0.0, 100.0 / 3.0), (0.0, 100.0 / 3.0))
        .close();
    assert!((sail.area().unwrap() - 2544.829).abs() < 0.01, "{:?}", sail.area());
    assert!((sail.simplified().signed_area() - sail.flattened(1e-3).simplified().signed_area()).abs() < 0.1);
}

/// Sides that turn back on one line, so that three of them share a stretch that ends at a joint of two.
#[test]
fn stretches_that_end_at_a_joint_are_told_apart() {
    let folded = Path::open([(60.0, 0.0), (20.0, 0.0), (40.0, 0.0), (0.0, 0.0)]);
    let along =
        folded.crossings().unwrap().iter().filter(|c| matches!(c.kind, CrossingKind::Along { .. })).count();
    assert_eq!(along, 3, "each two of the three sides");
}
