//! Measures against closed forms that others can work out, and against laws that hold for any path.

#![allow(clippy::unwrap_used, clippy::expect_used, reason = "a test stops where it fails")]

mod support;

use std::f64::consts::PI;

use chordane::prelude::*;
use proptest::prelude::*;
use support::any_path;

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
    #![proptest_config(support::cases(120))]

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
