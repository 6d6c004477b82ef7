//! Measures against closed forms that others can work out, and against laws that hold for any path.

use std::f64::consts::PI;

use crate::support::{any_path, point};
use chordane::measure::CrossingKind;
use chordane::prelude::*;
use proptest::prelude::*;

#[test]
fn a_parabola_has_the_length_of_its_closed_form() {
    // y = x^2 from -1 to 1, as one quadratic; its length is sqrt(5) + asinh(2) / 2.
    let parabola = start((-1.0, 1.0)).quad((0.0, -1.0), (1.0, 1.0)).open();
    let want = 5.0_f64.sqrt() + 0.5 * 2.0_f64.asinh();
    assert!((parabola.length().unwrap() - want).abs() < 1e-9, "{}", parabola.length().unwrap());
    assert!((parabola.signed_area().abs() - 4.0 / 3.0).abs() < 1e-12);
}

#[test]
fn circles_arcs_and_polygons_have_theirs() {
    for radius in [1e-6, 0.5, 7.0, 1e4, 1e9] {
        let round = circle((radius, -3.0 * radius), radius);
        assert!((round.length().unwrap() - 2.0 * PI * radius).abs() < 1e-9 * radius);
        assert!((round.signed_area() - PI * radius * radius).abs() < 1e-9 * radius * radius);
        let slice = pie((0.0, 0.0), radius, deg(10.0), deg(72.0));
        assert!((slice.length().unwrap() - radius * (2.0 + 0.4 * PI)).abs() < 1e-9 * radius);
    }
    for n in [3, 4, 6, 17, 100] {
        let (side, half) = (2.0 * (PI / n as f64).sin(), (PI / n as f64).cos());
        let shape = polygon((5.0, 5.0), n, 1.0);
        assert!((shape.length().unwrap() - n as f64 * side).abs() < 1e-12 * n as f64);
        assert!((shape.signed_area() - 0.5 * n as f64 * side * half).abs() < 1e-12 * n as f64);
    }
    let tips = star((0.0, 0.0), 5, 2.0, 1.0);
    assert!((tips.signed_area() - 10.0 * deg(36.0).sin()).abs() < 1e-12);
}

proptest! {
    #![proptest_config(crate::support::cases(120))]

    #[test]
    fn the_station_at_the_nearest_distance_is_the_nearest(path in any_path(100.0), spot in point(100.0)) {
        let survey = path.survey().unwrap();
        let ends = path.contours().iter().flat_map(|contour| [contour.start(), contour.end()]);
        // The ends of contours too, where one distance could mean two places.
        for spot in ends.chain([spot]) {
            if let Some(nearest) = survey.nearest(spot) {
                let again = survey.station(nearest.distance()).unwrap();
                prop_assert!(again.point().distance(nearest.point()) < 1e-6, "{} {}", again.point(), nearest.point());
                prop_assert_eq!(again.contour(), nearest.contour());
            }
        }
    }

    #[test]
    fn length_does_not_change_with_direction_or_place(path in any_path(100.0), angle in 0.0..360.0_f64) {
        let length = path.length().unwrap();
        let moved = path.reversed().rotated(deg(angle)).moved((300.0, -200.0));
        // Reversed open contours have no closing side to lose, and closed ones keep theirs.
        prop_assert!((moved.length().unwrap() - length).abs() <= 4e-9 * length.max(1.0));
        prop_assert!((path.scaled(3.0).length().unwrap() - 3.0 * length).abs() <= 1e-8 * length.max(1.0));
    }

    #[test]
    fn length_is_at_least_the_chords_and_at_most_the_handles(path in any_path(100.0)) {
        for segment in path.segments() {
            let (length, chord) = (segment.length(), segment.from().distance(segment.to()));
            prop_assert!(length >= chord * (1.0 - 1e-9));
            if let Segment::Cubic { from, control1, control2, to } = segment {
                let handles = from.distance(control1) + control1.distance(control2) + control2.distance(to);
                prop_assert!(length <= handles * (1.0 + 1e-9));
            }
        }
    }

    #[test]
    fn length_adds_up_over_a_split(path in any_path(100.0), t in 0.02..0.98_f64) {
        for segment in path.segments() {
            let (left, right) = segment.split(t);
            let sum = left.length() + right.length();
            prop_assert!((sum - segment.length()).abs() <= 1e-8 * segment.length().max(1.0), "{} {:?}", sum, segment);
        }
    }

    #[test]
    fn a_station_lies_on_the_path_at_its_distance(path in any_path(100.0), share in 0.0..1.0_f64) {
        let survey = path.survey().unwrap();
        prop_assume!(survey.length() > 1.0);
        let distance = survey.length() * share;
        let before = survey.section(0.0, distance);
        prop_assert!((before.length().unwrap() - distance).abs() <= 1e-7 * survey.length(), "{}", before.length().unwrap());
        if let (Some(station), Some(contour)) = (survey.station(distance), before.contours().last()) {
            prop_assert!((station.point() - contour.end()).length() <= 1e-6 * survey.length());
        }
    }

    /// Nested circles in any order and direction: after turning, nonzero paints what even-odd would.
    #[test]
    fn turned_holes_paint_as_even_odd_does(
        radii in prop::collection::vec((1.0..60.0_f64, any::<bool>()), 1..7), spot in 0.0..65.0_f64,
    ) {
        let rings = radii.iter().fold(Path::empty(), |path, (radius, turned)| {
            let ring = circle((0.0, 0.0), *radius);
            path.and(&if *turned { ring.reversed() } else { ring })
        });
        prop_assume!(radii.iter().all(|(radius, _)| (radius - spot).abs() > 1e-6));
        let even_odd = rings.clone().with_fill_rule(FillRule::EvenOdd);
        prop_assert_eq!(rings.turn_holes().inside((spot, 0.0)), even_odd.inside((spot, 0.0)));
    }

    /// Cut into open pieces and joined again, a polygon is the same polygon.
    #[test]
    fn pieces_of_a_polygon_join_again(n in 3_usize..12, cut in 1_usize..11, turned in any::<bool>()) {
        let corners: Vec<Point> = polygon((3.0, 4.0), n, 20.0).contours()[0].vertices().collect();
        let at = 1 + cut % (n - 1);
        let mut rest: Vec<Point> = corners[at..].to_vec();
        rest.push(corners[0]);
        if turned {
            rest.reverse();
        }
        let joined = Path::open(corners[..=at].to_vec()).and(&Path::open(rest)).joined(0.0);
        prop_assert_eq!(joined.contours().len(), 1);
        prop_assert!(joined.contours()[0].is_closed());
        prop_assert!((joined.signed_area().abs() - polygon((3.0, 4.0), n, 20.0).signed_area()).abs() < 1e-9);
    }
}

/// Tschirnhausen's cubic, x = 1 - 3 t^2 and y = 3 t - t^3: a cubic whose speed is a polynomial, so everything about its
/// loop is known in closed form.
#[test]
fn the_loop_of_a_classic_cubic() {
    let root = 3.0_f64.sqrt();
    let drop = start((-8.0, 0.0)).cubic((4.0, -4.0 * root), (4.0, 4.0 * root), (-8.0, 0.0)).close();
    assert!((drop.length().unwrap() - 12.0 * root).abs() < 1e-9);
    assert!((drop.area().unwrap() - 14.4 * root).abs() < 1e-9);
    assert!(drop.centroid().unwrap().unwrap().distance(pt(-20.0 / 7.0, 0.0)) < 1e-9);
    assert!(drop.bounds().unwrap().max.distance(pt(1.0, 2.0)) < 1e-9);
    // Half way along is t = 0; the quarter of the length is where 3 t + t^3 is half of what it is at the end.
    let survey = drop.survey().unwrap();
    assert!(survey.station(6.0 * root).unwrap().point().distance(pt(1.0, 0.0)) < 1e-8);
    assert!((survey.station(6.0 * root).unwrap().curvature().abs() - 2.0 / 3.0).abs() < 1e-6);
    // The y axis is crossed at t = 1 / sqrt(3), both ways.
    let axis = Path::open([(0.0, -50.0), (0.0, 50.0)]);
    let heights: Vec<f64> =
        drop.crossings_with(&axis).unwrap().iter().map(|crossing| crossing.at.y).collect();
    let height = 8.0 / (3.0 * root);
    assert!((heights[0] + height).abs() < 1e-9 && (heights[1] - height).abs() < 1e-9, "{heights:?}");
    // The whole curve beyond its loop crosses itself in the loop's end.
    let wider = start((-26.0, 18.0)).cubic((10.0, -30.0), (10.0, 30.0), (-26.0, -18.0)).open();
    assert!((wider.length().unwrap() - 72.0).abs() < 1e-9);
    let [crossing] = wider.crossings().unwrap()[..] else { panic!() };
    assert!(crossing.at.distance(pt(-8.0, 0.0)) < 1e-9 && crossing.kind == CrossingKind::Across);
}

#[test]
fn parts_of_discs_and_ellipses_balance_where_the_books_say() {
    for degrees in [30.0, 90.0, 200.0, 340.0_f64] {
        let half = degrees.to_radians() / 2.0;
        // A slice balances at 2/3 r sin(a) / a from its tip, a cut disc at 2/3 r sin^3(a) / (a - sin(a) cos(a)).
        let slice = pie((0.0, 0.0), 10.0, deg(-degrees / 2.0), deg(degrees)).centroid().unwrap().unwrap();
        assert!(slice.distance(pt(20.0 / 3.0 * half.sin() / half, 0.0)) < 1e-9, "{degrees}: {slice}");
        let cut = chord_cut((0.0, 0.0), 10.0, deg(-degrees / 2.0), deg(degrees)).centroid().unwrap().unwrap();
        let far = 20.0 / 3.0 * half.sin().powi(3) / (half - half.sin() * half.cos());
        assert!(cut.distance(pt(far, 0.0)) < 1e-8, "{degrees}: {cut} and {far}");
    }
    let tilted = ellipse((50.0, -20.0), 30.0, 4.0).rotated_about((50.0, -20.0), deg(33.0));
    assert!((tilted.area().unwrap() - 120.0 * PI).abs() < 1e-9);
    assert!(tilted.centroid().unwrap().unwrap().distance(pt(50.0, -20.0)) < 1e-9);
}

/// Regression: the angles of this arc have fewer digits than a survey of it asked for, and it was halved millions of times.
#[test]
fn a_short_arc_of_a_large_ellipse_is_surveyed() {
    let tip = start((-21.627086138262406, 28.375094126887408))
        .arc_radii(
            (-21.62708605157671, 28.375093950898506),
            (21.190800730236543, 30.438797926927318),
            deg(100.0 / 3.0),
            ArcWay::ShortClockwise,
        )
        .open();
    let survey = tip.survey().unwrap();
    assert!((survey.length() - 1.96e-7).abs() < 1e-9, "{}", survey.length());
    let middle = survey.at(0.5).unwrap().point();
    let [from, to] = [tip.contours()[0].start(), pt(-21.62708605157671, 28.375093950898506)];
    assert!(middle.distance(from.midpoint(to)) < 1e-9);
}
