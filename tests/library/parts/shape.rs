//! Single routines of `chordane::shape`.

mod arcs {
    use chordane::number::cell;
    use chordane::number::deg;
    use chordane::path::Arc;
    use chordane::prelude::*;

    use std::f64::consts::PI;

    #[test]
    fn areas_of_parts_have_their_closed_forms() {
        let part = |sweep: f64| Arc::round((3.0, -2.0), 10.0, deg(25.0), deg(sweep));
        for sweep in [30.0, 90.0, 179.0, 180.0, 260.0, 359.0] {
            let angle = deg(sweep).radians();
            assert!((part(sweep).pie().signed_area() - 50.0 * angle).abs() < 1e-9, "{sweep}");
            assert!(
                (part(sweep).chord_cut().signed_area() - 50.0 * (angle - angle.sin())).abs() < 1e-9,
                "{sweep}"
            );
            assert!((part(-sweep).pie().signed_area() + 50.0 * angle).abs() < 1e-9, "{sweep}");
            let band = ring_part((3.0, -2.0), 10.0, 6.0, deg(25.0), deg(sweep));
            assert!((band.signed_area() - 32.0 * angle).abs() < 1e-9, "{sweep}");
        }
        for whole in [360.0, 800.0, -360.0] {
            for shape in [part(whole).path(), part(whole).pie(), part(whole).chord_cut()] {
                assert!((shape.signed_area().abs() - 100.0 * PI).abs() < 1e-9);
                assert!(shape.contours()[0].is_closed());
            }
        }
        let squashed =
            Arc { tilt: deg(20.0), ..Arc::inscribed(&cell((0.0, 0.0), 30.0, 10.0), deg(10.0), deg(200.0)) };
        assert!((squashed.pie().signed_area() - 37.5 * deg(200.0).radians()).abs() < 1e-9);
    }

    #[test]
    fn nothing_and_what_cannot_be() {
        for shape in [
            pie((0.0, 0.0), 0.0, deg(0.0), deg(90.0)),
            pie((0.0, 0.0), 5.0, deg(0.0), deg(0.0)),
            ring((0.0, 0.0), 5.0, 5.0),
            ring_part((0.0, 0.0), 5.0, 3.0, deg(0.0), deg(0.0)),
        ] {
            assert!(shape.is_empty() && shape.sound().is_ok());
        }
        assert_eq!(ring((0.0, 0.0), 3.0, 5.0), ring((0.0, 0.0), 5.0, 3.0));
        assert_eq!(
            ring((0.0, 0.0), 5.0, -1.0).sound().unwrap_err().to_string(),
            "`ring`: the inner radius -1 is negative; give 0 or more"
        );
        assert_eq!(
            arc((0.0, 0.0), 5.0, deg(0.0), deg(f64::NAN)).sound().unwrap_err().to_string(),
            "`arc`: the sweep NaN is not finite; give a finite number"
        );
    }
}

mod curves {
    use chordane::number::pt;
    use chordane::prelude::*;

    use std::f64::consts::PI;

    #[test]
    fn roses_have_the_area_of_their_integral() {
        // Odd roses cover a quarter of the disc, even ones half of it.
        for (n, share) in [(1, 0.25), (3, 0.25), (5, 0.25), (2, 0.5), (4, 0.5)] {
            let area = rose((3.0, 4.0), n, 1, 50.0).area().unwrap();
            assert!((area / (PI * 2500.0 * share) - 1.0).abs() < 2e-4, "{n}: {area}");
        }
        assert_eq!(rose((0.0, 0.0), 6, 2, 50.0), rose((0.0, 0.0), 3, 1, 50.0));
        assert!(rose((0.0, 0.0), 5, 3, 50.0).contours()[0].is_closed());
        assert!(rose((0.0, 0.0), 0, 1, 5.0).is_empty() && rose((0.0, 0.0), 1, 0, 5.0).is_empty());
        assert!(rose((0.0, 0.0), usize::MAX, 1, 5.0).sound().is_err());
    }

    #[test]
    fn superellipses_have_the_area_of_the_gamma_function() {
        // 4 a b Γ(1 + 1/n)² / Γ(1 + 2/n), by known values of Γ.
        let half = PI.sqrt() / 2.0;
        for (exponent, share) in [
            (2.0, PI / 4.0),
            (1.0, 0.5),
            (2.0 / 3.0, 3.0 * PI / 32.0),
            (0.5, 1.0 / 6.0),
            (4.0, 0.906_402_477_055_477_f64.powi(2) / half),
        ] {
            let area = superellipse((1.0, 2.0), 30.0, 20.0, exponent).area().unwrap();
            assert!((area / (4.0 * 600.0 * share) - 1.0).abs() < 3e-4, "{exponent}: {area}");
        }
        for exponent in [0.1, 0.3, 0.99, 1.01, 1.5, 3.0, 20.0, 100.0] {
            let shape = superellipse((0.0, 0.0), 30.0, 20.0, exponent);
            let bounds = shape.bounds().unwrap();
            assert!((bounds.size() - pt(60.0, 40.0)).length() < 0.01, "{exponent}: {bounds:?}");
            let count = shape.contours()[0].vertex_count();
            assert!(count < 400, "{exponent}: {count} vertices");
        }
        assert_eq!(
            superellipse((0.0, 0.0), 3.0, 2.0, 0.0).sound().unwrap_err().to_string(),
            "`superellipse`: the exponent 0 is out of range; give 0.1 to 100"
        );
    }

    #[test]
    fn swings_close() {
        let figure = lissajous((0.0, 0.0), 50.0, 30.0, 3, 2, deg(90.0));
        assert!(figure.contours()[0].is_closed() && figure.contours()[0].start() == pt(50.0, 0.0));
        let circle = lissajous((0.0, 0.0), 10.0, 10.0, 4, 4, deg(90.0));
        assert!((circle.length().unwrap() - 20.0 * PI).abs() < 1e-2);
        assert!(lissajous((0.0, 0.0), 10.0, 10.0, 0, 0, deg(0.0)).is_empty());
    }
}

mod lettering {
    use chordane::number::Point;
    use chordane::prelude::*;

    #[test]
    fn letters_stand_on_their_line_and_marks_on_their_letters() {
        assert_eq!(lettering_width("", 6.0), 0.0);
        assert!((lettering_width("10", 6.0) - 7.9).abs() < 1e-12);
        assert_eq!(lettering("7", (5.0, 5.0), 12.0).bounds().unwrap().min, Point::new(5.0, -7.0));
        // Capitals are as high as digits, small letters two thirds of that.
        let high = |text: &str| lettering(text, (0.0, 0.0), 6.0).bounds().unwrap().size().y;
        assert_eq!((high("S"), high("s"), high("Σ"), high("σ")), (6.0, 4.0, 6.0, 4.0));
        // A letter and the mark that follows it are the accented letter.
        for (apart, whole) in [("e\u{301}", "é"), ("O\u{308}", "Ö"), ("c\u{327}", "ç")] {
            assert_eq!(lettering(apart, (0.0, 0.0), 9.0), lettering(whole, (0.0, 0.0), 9.0), "{whole}");
            assert_eq!(lettering_width(apart, 9.0), lettering_width(whole, 9.0));
        }
        // Not the dot and the accent.
        assert_eq!(lettering("í", (0.0, 0.0), 9.0).contours().len(), 2);
    }

    #[test]
    fn limits() {
        assert!(lettering("", (0.0, 0.0), 9.0).is_empty());
        assert!(lettering("sail", (0.0, 0.0), 0.0).is_empty());
        assert!(lettering(" \u{1f3a3}", (0.0, 0.0), 9.0).is_empty());
        assert_eq!(
            lettering("sail", (0.0, 0.0), -9.0).sound().unwrap_err().to_string(),
            "`lettering`: the height -9 is negative; give 0 or more"
        );
        assert!(lettering(&"x".repeat(200_000), (0.0, 0.0), 9.0).sound().is_err());
    }
}

mod plot {
    use chordane::number::pt;
    use chordane::prelude::*;

    #[test]
    fn graphs_stay_within_their_tolerance() {
        let graphs: [fn(f64) -> f64; 4] =
            [|x| x.sin(), |x| x * x, |x| x.abs(), |x| (5.0 * x).sin() / (x * x + 0.01)];
        for f in graphs {
            for tolerance in [1.0, 0.1, 0.01, 0.001] {
                let graph = plot(-3.0, 3.0, tolerance, f);
                for i in 0..=3000 {
                    let x = -3.0 + f64::from(i) / 500.0;
                    let distance = graph.distance(pt(x, f(x))).unwrap();
                    assert!(distance <= 1.05 * tolerance, "{distance} past {tolerance} at {x}");
                }
            }
        }
        let line = plot(0.0, 10.0, 0.1, |x| 2.0 * x);
        assert_eq!(line.contours()[0].start(), pt(0.0, 0.0));
        assert_eq!(line.contours()[0].end(), pt(10.0, 20.0));
        assert_eq!(plot(10.0, 0.0, 0.1, |x| x).contours()[0].start(), pt(10.0, 10.0));
    }

    #[test]
    fn graphs_break_where_there_is_nothing() {
        let root = plot(-1.0, 1.0, 0.01, f64::sqrt);
        assert_eq!(root.contours().len(), 1);
        assert!(root.contours()[0].start().x.abs() < 1e-3);
        assert!(plot(0.0, 1.0, 0.01, |_| f64::NAN).is_empty());
        assert!(plot(1.0, 1.0, 0.01, |x| x).is_empty());
        assert_eq!(
            plot(0.0, 1.0, 0.0, |x| x).sound().unwrap_err().to_string(),
            "`plot`: the tolerance 0 is not positive; give more than 0"
        );
        assert!(plot(0.0, f64::INFINITY, 0.1, |x| x).sound().is_err());
    }

    #[test]
    fn trails_have_their_steps() {
        assert!(trail(0, |_| pt(0.0, 0.0)).is_empty());
        assert_eq!(trail(1, |share| pt(share, 0.0)).data(), "M0 0H1");
        assert_eq!(
            trail(4, |share| pt(1.0 / (share - 0.5), 0.0)).sound().unwrap_err().to_string(),
            "`trail` at vertex 2: the point (inf, 0) is not finite; give finite numbers"
        );
        assert!(trail(usize::MAX, |_| pt(0.0, 0.0)).sound().is_err());
        let circle = traced_trail(0.01, |share| polar(turns(share), 10.0));
        assert!((circle.length().unwrap() / (20.0 * std::f64::consts::PI) - 1.0).abs() < 1e-3);
    }
}

mod polygon {
    use chordane::number::pt;
    use chordane::prelude::*;

    #[test]
    fn counts_of_nothing_and_little() {
        assert!(polygon((0.0, 0.0), 0, 5.0).is_empty());
        assert!(polygon((0.0, 0.0), 5, 0.0).is_empty());
        assert_eq!(polygon((0.0, 0.0), 1, 5.0).contours()[0].vertex_count(), 1);
        assert_eq!(polygon((0.0, 0.0), 2, 5.0).data(), "M0-5V5Z");
        assert!(star((0.0, 0.0), 0, 5.0, 2.0).is_empty());
        assert!(star((0.0, 0.0), usize::MAX, 5.0, 2.0).sound().is_err());
    }

    #[test]
    fn a_negative_radius_is_a_fault() {
        assert_eq!(
            polygon((0.0, 0.0), 5, -3.0).sound().unwrap_err().to_string(),
            "`polygon`: the radius -3 is negative; give 0 or more"
        );
        assert_eq!(
            star((0.0, 0.0), 5, 3.0, f64::NAN).sound().unwrap_err().to_string(),
            "`star`: the inner radius NaN is not finite; give a finite number"
        );
    }

    #[test]
    fn polygons_by_other_measures() {
        for n in 3..20 {
            let about = polygon_about((3.0, 4.0), n, 10.0);
            let half = std::f64::consts::PI / n as f64;
            assert!((about.area().unwrap() / (n as f64 * 100.0 * half.tan()) - 1.0).abs() < 1e-12);
            assert!((about.length().unwrap() / (2.0 * n as f64 * 10.0 * half.tan()) - 1.0).abs() < 1e-12);
            let sided = polygon_of_side((3.0, 4.0), n, 7.0);
            assert!((sided.length().unwrap() - 7.0 * n as f64).abs() < 1e-9);
            // Rounding takes the corners off: what lies between an arc and its two tangents.
            let sharp = polygon((0.0, 0.0), n, 40.0);
            let round = rounded_polygon((0.0, 0.0), n, 40.0, 5.0);
            let taken = 25.0 * n as f64 * (half.tan() - half);
            assert!((sharp.area().unwrap() - round.area().unwrap() - taken).abs() < 1e-6, "{n}");
        }
        assert!(
            polygon_about((0.0, 0.0), 2, 5.0).is_empty() && polygon_of_side((0.0, 0.0), 1, 5.0).is_empty()
        );
        assert_eq!(polygon_of_side((0.0, 0.0), 5, -1.0).sound().unwrap_err().call(), "polygon_of_side");
        // Too much rounding leaves the circle within.
        let most = rounded_polygon((0.0, 0.0), 6, 40.0, 1e6);
        let within = std::f64::consts::PI * 1200.0;
        assert!((most.area().unwrap() / within - 1.0).abs() < 1e-6);
        let soft = rounded_star((0.0, 0.0), 5, 40.0, 16.0, 3.0, 2.0);
        assert_eq!(soft.contours()[0].segments().count(), 20);
        assert_eq!(
            rounded_star((0.0, 0.0), 5, 40.0, 16.0, 3.0, -2.0).sound().unwrap_err().to_string(),
            "`rounded_star`: the valley rounding -2 is negative; give 0 or more"
        );
    }

    #[test]
    fn star_polygons_have_a_contour_for_each_component() {
        let star = star_polygon((0.0, 0.0), 5, 2, 10.0);
        // Its sides are the diagonals of the pentagon.
        let diagonal = 20.0 * (std::f64::consts::PI * 0.4).sin();
        assert!((star.length().unwrap() - 5.0 * diagonal).abs() < 1e-9);
        assert_eq!(star_polygon((0.0, 0.0), 12, 4, 10.0).contours().len(), 4);
        assert_eq!(star_polygon((0.0, 0.0), 12, 16, 10.0), star_polygon((0.0, 0.0), 12, 4, 10.0));
        for (n, k) in [(0, 0), (5, 0), (5, 5), (5, 10), (1, 1)] {
            assert!(star_polygon((0.0, 0.0), n, k, 10.0).is_empty());
        }
    }

    #[test]
    fn corners_lie_on_the_circle() {
        for n in [3, 5, 7, 12, 360] {
            let shape = polygon((3.0, 4.0), n, 25.0);
            for p in shape.contours()[0].vertices() {
                assert!((p.distance(pt(3.0, 4.0)) - 25.0).abs() < 1e-12);
            }
        }
    }
}

mod rectangle {
    use chordane::prelude::*;

    #[test]
    fn corner_radii_may_differ() {
        let tab = rounded_rectangle((0.0, 0.0), 20.0, 10.0, [0.0, 5.0, 0.0, 2.0]);
        assert_eq!(tab.data(), "M0 0H15A5 5 0 0 1 20 5V10H2A2 2 0 0 1 0 8Z");
    }

    #[test]
    fn sizes_of_nothing_are_empty_and_negative_ones_faults() {
        assert!(rectangle((0.0, 0.0), 0.0, 5.0).is_empty());
        assert!(rectangle((0.0, 0.0), 0.0, 5.0).sound().is_ok());
        assert_eq!(
            rectangle((0.0, 0.0), 4.0, -5.0).sound().unwrap_err().to_string(),
            "`rectangle`: the height -5 is negative; give 0 or more"
        );
    }
}

mod spiral {

    use chordane::prelude::*;

    use std::f64::consts::TAU;

    #[test]
    fn spirals_have_the_lengths_of_their_integrals() {
        // From the centre: a / 2 (x sqrt(1 + x^2) + asinh x) with the growth a per radian.
        let a = 40.0 / (TAU * 3.0);
        let x = TAU * 3.0;
        let want = 0.5 * a * (x * x.hypot(1.0) + x.asinh());
        for turns in [3.0, -3.0] {
            let length = spiral((1.0, 2.0), 0.0, 40.0, turns).length().unwrap();
            assert!((length / want - 1.0).abs() < 1e-4, "{length} and {want}");
        }
        let pace = 8.0_f64.ln() / (TAU * 2.0);
        let want = (40.0 - 5.0) * (1.0 / pace).hypot(1.0);
        let length = growing_spiral((1.0, 2.0), 5.0, 40.0, 2.0).length().unwrap();
        assert!((length / want - 1.0).abs() < 1e-4, "{length} and {want}");
        let inward = growing_spiral((1.0, 2.0), 40.0, 5.0, 2.0).length().unwrap();
        assert!((inward / want - 1.0).abs() < 1e-4);
        // Few cubics.
        let count = spiral((0.0, 0.0), 5.0, 60.0, 4.0).contours()[0].vertex_count();
        assert!(count < 40, "{count}");
    }

    #[test]
    fn corners_lie_on_the_even_spiral() {
        let sides = sided_spiral((0.0, 0.0), 5, 0.0, 50.0, 2.5);
        for (i, corner) in sides.contours()[0].vertices().enumerate() {
            assert!((corner.length() - 50.0 * (i as f64 / 12.5).min(1.0)).abs() < 1e-9);
        }
        assert_eq!(sides.contours()[0].vertex_count(), 14);
        assert!(sided_spiral((0.0, 0.0), 1, 0.0, 50.0, 2.5).is_empty());
        assert!(spiral((0.0, 0.0), 0.0, 50.0, 0.0).is_empty());
        assert!(spiral((0.0, 0.0), 0.0, 50.0, 1e12).sound().is_err());
        assert_eq!(
            growing_spiral((0.0, 0.0), 0.0, 50.0, 1.0).sound().unwrap_err().to_string(),
            "`growing_spiral`: the inner radius 0 is not positive; give more than 0"
        );
    }
}

mod triangle {
    use chordane::number::deg;
    use chordane::number::pt;
    use chordane::prelude::*;
    use chordane::shape::*;

    #[test]
    fn every_way_to_give_it_is_the_same_triangle() {
        let sides = Triangle::by_sides(7.0, 8.0, 9.0).unwrap();
        let [at_a, at_b, at_c] = sides.angles();
        assert!(((at_a + at_b + at_c).degrees() - 180.0).abs() < 1e-12);
        for other in [
            Triangle::by_two_sides(7.0, 8.0, at_c).unwrap(),
            Triangle::by_angles(at_a, at_b, 9.0).unwrap(),
            sides.mirrored().mirrored(),
        ] {
            for (x, y) in other.sides().into_iter().zip(sides.sides()) {
                assert!((x - y).abs() < 1e-12, "{other:?}");
            }
        }
        // Heron's formula, and the two circles.
        assert!((sides.area() - 720.0_f64.sqrt()).abs() < 1e-12);
        assert!((sides.inradius() - 720.0_f64.sqrt() / 12.0).abs() < 1e-12);
        for vertex in sides.vertices() {
            assert!((sides.circumcentre().distance(vertex) - sides.circumradius()).abs() < 1e-12);
        }
        let walked = sides.turns().iter().map(|turn| turn.degrees()).sum::<f64>();
        assert!((walked - 360.0).abs() < 1e-12);
        assert!(
            (sides.path().area().unwrap() - sides.area()).abs() < 1e-12 && sides.path().signed_area() > 0.0
        );
        for segment in sides.path().segments() {
            assert!((segment.distance(sides.incentre()) - sides.inradius()).abs() < 1e-12);
        }
        assert!((sides.placed((5.0, 5.0), deg(70.0)).area().unwrap() - sides.area()).abs() < 1e-12);
        assert!(sides.centred((3.0, 4.0)).bounds().unwrap().centre().distance(pt(3.0, 4.0)) < 1e-12);
        let even = Triangle::by_sides(2.0, 2.0, 2.0).unwrap();
        assert!(even.heights().into_iter().all(|height| (height - 3.0_f64.sqrt()).abs() < 1e-12));
    }

    #[test]
    fn impossible_ones_are_refused_with_the_reason() {
        let told = |made: Result<Triangle, TriangleError>| made.unwrap_err().to_string();
        assert_eq!(
            told(Triangle::by_sides(1.0, 2.0, 5.0)),
            "the sides do not meet: the longest is 5, and the other two together are 3; shorten it below that"
        );
        assert!(Triangle::by_sides(1.0, 2.0, 3.0).is_err());
        assert_eq!(told(Triangle::by_legs(0.0, 2.0)), "a side of 0 makes no triangle; give a length above 0");
        assert!(told(Triangle::by_legs(f64::NAN, 2.0)).starts_with("a side of NaN"));
        assert_eq!(
            told(Triangle::by_angles(deg(100.0), deg(80.0), 5.0)),
            "angles of 180 degrees together leave nothing for the rest; give angles above 0 that stay below 180 together"
        );
        assert!(Triangle::by_two_sides(1.0, 1.0, deg(0.0)).is_err());
    }
}

mod wheels {
    use chordane::number::deg;
    use chordane::prelude::*;

    #[test]
    fn laps_of_rolling_circles() {
        // The ring over the roller in lowest terms: its lower number is the laps.
        for (ring, roller, laps) in
            [(60.0, 20.0, 1), (60.0, 25.0, 5), (96.0, 36.0, 3), (100.0, 63.0, 63), (1.0, 0.7, 7)]
        {
            let (inside, outside) =
                (wheels_inside((0.0, 0.0), ring, roller, 5.0), wheels_outside((0.0, 0.0), ring, roller, 5.0));
            assert_eq!((inside.closing().laps, inside.closing().exact), (laps, true));
            assert_eq!(outside.closing().laps, laps);
            assert!(inside.path().contours()[0].is_closed());
        }
        let never = wheels_inside((0.0, 0.0), 100.0, 10.0 * 2.0_f64.sqrt() * 3.0, 9.0);
        let closing = never.closing();
        assert!(!closing.exact && closing.laps <= 100 && !never.path().contours()[0].is_closed());
        let astroid = wheels_inside((0.0, 0.0), 40.0, 10.0, 10.0).path();
        // Three eighths of the ring's disc, and six times its radius round.
        assert!((astroid.area().unwrap() / (std::f64::consts::PI * 1600.0 * 3.0 / 8.0) - 1.0).abs() < 1e-4);
        assert!((astroid.length().unwrap() - 240.0).abs() < 0.02);
        let cardioid = wheels_outside((0.0, 0.0), 10.0, 10.0, 10.0).path();
        assert!((cardioid.length().unwrap() - 160.0).abs() < 0.02);
        assert!((cardioid.area().unwrap() / (6.0 * std::f64::consts::PI * 100.0) - 1.0).abs() < 1e-4);
        let arch = cycloid((0.0, 0.0), 10.0, 10.0, 1.0);
        assert!((arch.area().unwrap() / (300.0 * std::f64::consts::PI) - 1.0).abs() < 1e-4);
    }

    #[test]
    fn quick_points_are_the_slow_ones() {
        let lace = wheel(80.0, 1.0, deg(10.0))
            .wheel(24.0, -7.0, deg(20.0))
            .wheel(9.5, 13.0, deg(90.0))
            .centre((3.0, 4.0));
        let points = lace.points(1001);
        assert_eq!((points.len(), points.capacity()), (1001, 1001));
        for (i, point) in points.iter().enumerate() {
            assert!(point.distance(lace.at(i as f64 / 1001.0)) < 1e-12);
        }
        // An open one ends at its end.
        let part = lace.clone().laps(0.25).points(101);
        assert!(part[100].distance(lace.at(0.25)) < 1e-12);
        assert!(lace.points(0).is_empty() && lace.points(1).len() == 1);
        let path = lace.path();
        let survey = path.survey().unwrap();
        assert!(points.iter().all(|point| survey.nearest(*point).unwrap().point().distance(*point) < 0.003));
    }

    #[test]
    fn what_cannot_be_and_what_is_nothing() {
        assert!(wheel(0.0, 1.0, deg(0.0)).path().is_empty());
        assert!(wheel(5.0, 0.0, deg(0.0)).path().is_empty());
        assert_eq!(
            wheel(f64::NAN, 1.0, deg(0.0)).path().sound().unwrap_err().to_string(),
            "`wheel`: the radius NaN is not finite; give a finite number"
        );
        assert_eq!(
            wheels_inside((0.0, 0.0), 5.0, 0.0, 1.0).path().sound().unwrap_err().to_string(),
            "`wheels_inside`: the roller's radius 0 is not positive; give more than 0"
        );
        assert!(wheel(5.0, 1e9, deg(0.0)).path().sound().is_err());
        for sides in [0, 1, 2, 3, 8] {
            for pinch in [-1.0, 0.0, 0.3, 1.0, 4.0] {
                let shape = wheel_polygon((0.0, 0.0), sides, 10.0, pinch);
                assert_eq!(shape.is_empty(), sides == 0);
                assert!(shape.sound().is_ok());
            }
        }
        let round = wheel_polygon((0.0, 0.0), 5, 10.0, 0.0);
        assert!((round.area().unwrap() / (100.0 * std::f64::consts::PI) - 1.0).abs() < 1e-4);
    }
}
