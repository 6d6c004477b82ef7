//! Ready shapes against numbers that anyone can work out, and against bad input.

use std::f64::consts::PI;

use chordane::prelude::*;
use proptest::prelude::*;

const O: Point = Point::ZERO;

fn close(got: f64, want: f64, share: f64, what: &str) {
    assert!((got - want).abs() <= share * want.abs(), "{what}: {got}, not {want}");
}

#[test]
fn areas_and_perimeters_of_polygons_and_stars() {
    for n in 3..40_usize {
        let (count, half) = (n as f64, PI / n as f64);
        let shape = polygon(O, n, 10.0);
        close(shape.area().unwrap(), 0.5 * count * 100.0 * (2.0 * half).sin(), 1e-12, "polygon");
        close(shape.length().unwrap(), 2.0 * count * 10.0 * half.sin(), 1e-12, "polygon");
        // A star is 2n triangles with the two radii and half a step between them.
        close(star(O, n, 10.0, 4.0).area().unwrap(), count * 40.0 * half.sin(), 1e-12, "star");
        for k in 1..=(n - 1) / 2 {
            let sides = star_polygon(O, n, k, 10.0).length().unwrap();
            close(sides, 2.0 * count * 10.0 * (half * k as f64).sin(), 1e-9, "star polygon");
        }
    }
}

#[test]
fn curves_by_their_closed_forms() {
    // Epicycloids and hypocycloids of k cusps: 8 (k + 1) r and 8 (k - 1) r long, and so large.
    for k in 2..8 {
        let (roller, count) = (5.0, f64::from(k));
        let outside = wheels_outside(O, roller * count, roller, roller).path();
        close(outside.length().unwrap(), 8.0 * (count + 1.0) * roller, 1e-4, "epicycloid");
        close(
            outside.area().unwrap(),
            PI * roller * roller * (count + 1.0) * (count + 2.0),
            1e-4,
            "epicycloid",
        );
        if k > 2 {
            let inside = wheels_inside(O, roller * count, roller, roller).path();
            close(inside.length().unwrap(), 8.0 * (count - 1.0) * roller, 1e-4, "hypocycloid");
            close(
                inside.area().unwrap(),
                PI * roller * roller * (count - 1.0) * (count - 2.0),
                2e-4,
                "hypocycloid",
            );
        }
    }
    // In a ring of twice its size a pen draws an ellipse: two circles, of N. Copernicus.
    let ellipse_of_wheels = wheels_inside(O, 20.0, 10.0, 4.0).path();
    close(ellipse_of_wheels.area().unwrap(), PI * 14.0 * 6.0, 1e-4, "ellipse");
    close(ellipse_of_wheels.length().unwrap(), ellipse(O, 14.0, 6.0).length().unwrap(), 1e-4, "ellipse");
    // Even petals overlap nowhere: as long as an ellipse each (of half axes r and r / n, all of them together).
    for n in [2, 3, 4, 5, 7] {
        let petals = if n % 2 == 1 { 1.0 } else { 2.0 };
        let wide = 30.0 * n as f64;
        let together = ellipse(O, 30.0, wide).length().unwrap() * 0.5 * petals;
        close(rose(O, n, 1, 30.0).length().unwrap(), together, 1e-4, "rose");
    }
}

#[test]
fn the_number_of_anything_may_be_anything() {
    let shapes: [fn(usize) -> Path; 11] = [
        |n| polygon(O, n, 5.0),
        |n| polygon_about(O, n, 5.0),
        |n| polygon_of_side(O, n, 5.0),
        |n| rounded_polygon(O, n.min(100_000), 5.0, 1.0),
        |n| wheel_polygon(O, n, 5.0, 0.5),
        |n| star(O, n, 5.0, 2.0),
        |n| star_polygon(O, n, 2, 5.0),
        |n| rose(O, n, 1, 5.0),
        |n| gear(O, n, 5.0, 4.0),
        |n| sided_spiral(O, n, 1.0, 5.0, 2.0),
        |n| trail(n, |share| polar(turns(share), 5.0)),
    ];
    for (i, shape) in shapes.iter().enumerate() {
        for n in [0, 1, 2, 3, 1000, 20_000] {
            assert!(shape(n).sound().is_ok(), "shape {i} with {n}");
        }
        // Far too many are refused before any is made.
        assert!(shape(usize::MAX).sound().is_err() || i == 3, "shape {i}");
    }
}

#[test]
fn ten_million_corners() {
    assert_eq!(polygon(O, 10_000_000, 5.0).contours()[0].vertex_count(), 10_000_000);
    let points = wheel(5.0, 1.0, deg(0.0)).wheel(2.0, -3.0, deg(0.0)).points(10_000_000);
    assert_eq!((points.len(), points.capacity()), (10_000_000, 10_000_000));
}

fn any_number() -> impl Strategy<Value = f64> {
    prop_oneof![
        4 => -200.0..200.0_f64,
        1 => Just(0.0),
        1 => Just(-0.0),
        1 => Just(f64::NAN),
        1 => Just(f64::INFINITY),
        1 => Just(1e300),
        1 => Just(1e-300),
        1 => prop_oneof![Just(1e9), Just(-1e9), Just(1e-6)],
    ]
}

proptest! {
    #![proptest_config(crate::support::cases(150))]

    /// Whatever it is given, a shape is a path of finite numbers or has a fault.
    #[test]
    fn no_number_breaks_a_shape(a in any_number(), b in any_number(), c in any_number(), d in any_number(), n in 0_usize..40) {
        let line = start((0.0, 0.0)).line((50.0, 3.0)).bow((90.0, 40.0), 12.0).open();
        let made = [
            polygon_about((a, b), n, c), polygon_of_side((a, b), n, c), rounded_polygon((a, b), n, c, d),
            rounded_star((a, b), n, c, d, a, b), wheel_polygon((a, b), n, c, d), star_polygon((a, b), n, 3, c),
            rose((a, b), n, 3, c), superellipse((a, b), c, d, a), lissajous((a, b), c, d, n, 3, deg(a)),
            spiral((a, b), c, d, (n as f64) - 7.5), growing_spiral((a, b), c, d, 0.3 * n as f64),
            sided_spiral((a, b), n, c, d, 3.7), cycloid((a, b), c, d, n as f64), gear((a, b), n, c, d),
            scallop((a, b), n, c, d), blob((a, b), [a, b, c, d]), wheel(a, b, deg(c)).wheel(d, 3.0, deg(0.0)).laps(2.0).path(),
            wheels_inside((a, b), c, d, a).laps(3.0).path(), wheels_outside((a, b), c, d, a).laps(3.0).path(),
            plot(a, b, c.max(1.0), |x| x.sin() * d), line.waved(a, b.max(0.5)), line.zigzagged(a, b.max(0.5)),
            line.rippled(a, b.max(0.5)), line.scalloped(a, b.max(0.5)), line.toothed(a, b.max(0.5)), line.coiled(a, b.max(0.5)),
        ];
        for (i, path) in made.iter().enumerate() {
            if path.sound().is_ok() {
                let finite = path.contours().iter().flat_map(Contour::vertices).all(|p| p.is_finite());
                prop_assert!(finite, "shape {i}");
            }
        }
    }

    /// Waves come back to the path: each run begins and ends on it, and no wave leaves it by more than its height.
    #[test]
    fn waves_stay_by_their_path(x in 20.0..90.0_f64, y in -60.0..60.0_f64, rise in -15.0..15.0_f64, height in 0.5..6.0_f64, length in 4.0..30.0_f64) {
        let path = start((0.0, 0.0)).line((x, 10.0)).bow((100.0, y), rise).line((50.0, 90.0)).close();
        for waved in [path.waved(height, length), path.rippled(height, length)] {
            prop_assert!(waved.sound().is_ok() && waved.contours().len() == 1);
            let survey = waved.survey().unwrap();
            for station in survey.split(60, true) {
                prop_assert!(path.distance(station.point()).unwrap() <= 1.02 * height + 1e-6);
            }
        }
    }
}
