//! Single routines of `chordane::path`.

mod arc_angles {
    use chordane::number::Angle;
    use chordane::number::cell;
    use chordane::number::deg;
    use chordane::path::*;

    #[test]
    fn the_angle_seen_and_the_angle_before_squashing_lead_to_one_another() {
        let ellipse = Arc {
            tilt: deg(30.0),
            ..Arc::inscribed(&cell((-40.0, -10.0), 80.0, 20.0), deg(0.0), deg(360.0))
        };
        for i in -80..80 {
            let seen = deg(f64::from(i) * 9.7);
            let there = ellipse.unsquashed(seen);
            assert!((ellipse.seen(there) - seen).abs() < deg(1e-9), "{seen}");
            let direction = Angle::of(ellipse.point(there) - ellipse.centre);
            assert!((direction - seen).wrapped_signed().abs() < deg(1e-9), "{seen}");
        }
        let part = ellipse.between_seen(deg(0.0), deg(360.0));
        assert!((part.sweep - deg(360.0)).abs() < deg(1e-9));
    }
}

mod arc_ways {
    use chordane::number::Point;
    use chordane::number::deg;
    use chordane::number::polar;
    use chordane::number::pt;
    use chordane::path::*;
    use chordane::prelude::Path;
    use chordane::prelude::start;

    /// The slow twin: every point of the drawn arc is as far from the centre.
    fn assert_round(path: &Path, centre: Point, radius: f64) {
        for segment in path.segments() {
            for i in 0..=20 {
                let off = segment.at(f64::from(i) / 20.0).distance(centre) - radius;
                assert!(off.abs() < 1e-9 * radius.max(1.0), "{off} at {i} of {segment:?}");
            }
        }
    }

    #[test]
    fn an_arc_via_a_point_goes_through_it_either_way_round() {
        for i in 0..36 {
            for (share, sweep) in [(0.3, 100.0), (0.5, -100.0), (0.7, 300.0), (0.2, -300.0), (0.5, 180.0)] {
                let at = |s: f64| pt(7.0, -3.0) + polar(deg(f64::from(i) * 10.0 + sweep * s), 25.0);
                let arc = start(at(0.0)).arc_via(at(share), at(1.0)).open();
                assert_round(&arc, pt(7.0, -3.0), 25.0);
                let near =
                    arc.flattened(1e-4).segments().map(|s| s.from().distance(at(share))).fold(9e9, f64::min);
                assert!(near < 0.2, "{i} {sweep}: {near}");
            }
        }
    }

    #[test]
    fn arcs_at_their_limits_are_straight_or_whole() {
        let data = |pen: Pen| pen.open().data();
        assert_eq!(data(start((0.0, 0.0)).arc_via((5.0, 0.0), (9.0, 0.0))), "M0 0H5 9");
        assert_eq!(data(start((0.0, 0.0)).arc_via((20.0, 0.0), (9.0, 0.0))), "M0 0H20 9");
        assert_eq!(data(start((0.0, 0.0)).arc_via((0.0, 0.0), (9.0, 3.0))), "M0 0 9 3");
        assert_eq!(data(start((0.0, 0.0)).bow((9.0, 3.0), 0.0)), "M0 0 9 3");
        assert_eq!(data(start((0.0, 0.0)).arc_on((9.0, 0.0))), "M0 0H9");
        assert_eq!(data(start((0.0, 0.0)).arc_on((-9.0, 0.0))), "M0 0H-9");
        assert_eq!(data(start((0.0, 0.0)).fillet((9.0, 0.0), (20.0, 0.0), 3.0)), "M0 0H9 20");
        assert_eq!(data(start((0.0, 0.0)).fillet((9.0, 0.0), (9.0, 9.0), 0.0)), "M0 0H9V9");
        // Too large a radius shrinks until the arc fills the shorter side.
        let tight = start((0.0, 0.0)).fillet((9.0, 0.0), (9.0, 4.0), 50.0).open();
        assert_eq!(tight.data_rounded(9), "M0 0H5A4 4 0 0 1 9 4");
        assert_eq!(
            data(start((0.0, 0.0)).arc_radii((9.0, 0.0), (0.0, 5.0), deg(0.0), ArcWay::LongClockwise)),
            "M0 0H9"
        );
        assert_eq!(
            data(start((0.0, 0.0)).arc_radii((0.0, 0.0), (5.0, 5.0), deg(0.0), ArcWay::LongClockwise)),
            "M0 0"
        );
        let whole = start((-5.0, 0.0)).arc_via((5.0, 0.0), (-5.0, 0.0)).close();
        assert_round(&whole, pt(0.0, 0.0), 5.0);
        assert!((whole.signed_area() - 25.0 * std::f64::consts::PI).abs() < 1e-9);
    }

    #[test]
    fn a_bow_rises_by_its_rise_to_the_left_as_travelled() {
        for rise in [0.001, 2.0, 5.0, 10.0, 40.0, -3.0, -12.0] {
            let arc = start((0.0, 0.0)).bow((20.0, 0.0), rise).open();
            let bounds = arc.bounds().unwrap();
            let reached = if rise > 0.0 { -bounds.min.y } else { -bounds.max.y };
            assert!((reached - rise).abs() < 1e-9, "{rise}: {reached}");
            assert_eq!(arc.contours()[0].end(), pt(20.0, 0.0));
            let radius = (100.0 + rise * rise) / (2.0 * rise.abs());
            assert_round(&arc, pt(10.0, (radius - rise.abs()) * rise.signum()), radius);
        }
    }

    #[test]
    fn an_arc_on_leaves_along_the_heading_and_a_fillet_joins_smoothly() {
        for i in 1..36 {
            let end = polar(deg(f64::from(i) * 10.0), 12.0);
            let hook = start((-4.0, 0.0)).line((0.0, 0.0)).arc_on(end).open();
            let leaving = hook.segments().nth(1).unwrap().leaving().normalize();
            if i != 18 {
                assert!((leaving - pt(1.0, 0.0)).length() < 1e-9, "{i}: {leaving}");
            }
            let round = start((-40.0, 0.0)).fillet((0.0, 0.0), end * 4.0, 3.0).open();
            let segments: Vec<_> = round.segments().collect();
            for pair in segments.windows(2) {
                let (a, b) = (pair[0].arriving().normalize(), pair[1].leaving().normalize());
                assert!((a - b).length() < 1e-6 || i == 18, "{i}: {a} then {b}");
            }
        }
    }

    #[test]
    fn the_heading_after_an_arc_is_its_tangent() {
        let pen = start((0.0, 0.0)).bow((20.0, 0.0), 10.0);
        assert!((pen.direction() - deg(90.0)).abs() < deg(1e-9));
        let told =
            start((0.0, 0.0)).fillet((1.0, 0.0), (2.0, 2.0), -1.0).open().sound().unwrap_err().to_string();
        assert_eq!(told, "`fillet` at vertex 1: the radius -1 is negative; give 0 or more");
        let told = start((0.0, 0.0)).bow((1.0, 0.0), f64::NAN).open().sound().unwrap_err().to_string();
        assert_eq!(told, "`bow` at vertex 1: the point (NaN, NaN) is not finite; give finite numbers");
    }
}

mod fit {
    use chordane::path::*;
    use chordane::prelude::*;

    #[test]
    fn lines_dots_and_nothing_are_fitted_too() {
        let page = cell((10.0, 10.0), 40.0, 20.0);
        let line = Path::open([(0.0, 0.0), (4.0, 0.0)]);
        for fit in [Fit::Contain, Fit::Cover, Fit::Stretch] {
            assert_eq!(line.fitted(&page, fit).data(), "M10 20H50");
            assert_eq!(start((7.0, 7.0)).open().fitted(&page, fit).data(), "M30 20");
            assert!(Path::empty().fitted(&page, fit).is_empty());
        }
        assert!(line.fitted(&cell((0.0, 0.0), f64::INFINITY, 1.0), Fit::Contain).sound().is_err());
        let drop = circle((3.0, 9.0), 5.0).fitted(&page, Fit::Stretch);
        assert!(drop.bounds().unwrap().size().distance(pt(40.0, 20.0)) < 1e-12);
        assert!(drop.segments().all(|segment| matches!(segment, Segment::Arc(_))), "an arc stays an arc");
    }
}

mod pen {
    use chordane::number::deg;
    use chordane::number::pt;
    use chordane::path::*;

    #[test]
    fn the_heading_follows_what_was_drawn() {
        assert_eq!(start((3.0, 4.0)).direction(), deg(0.0));
        assert_eq!(start((0.0, 0.0)).line((0.0, 5.0)).direction(), deg(90.0));
        assert_eq!(start((0.0, 0.0)).quad((5.0, 0.0), (5.0, 5.0)).direction(), deg(90.0));
        // A control point on its end leaves the direction to the one before.
        assert_eq!(start((0.0, 0.0)).quad((5.0, 0.0), (5.0, 0.0)).direction(), deg(0.0));
        let round = start((10.0, 0.0)).arc_about((0.0, 0.0), deg(-90.0));
        assert_eq!(round.direction(), deg(180.0));
        assert_eq!(round.position(), pt(0.0, -10.0));
    }

    #[test]
    fn turn_and_ahead_walk_a_square_exactly() {
        let mut pen = start((0.0, 0.0));
        for _ in 0..3 {
            pen = pen.ahead(10.0).turn(deg(90.0));
        }
        assert_eq!(pen.close().data(), "M0 0H10V10H0Z");
    }

    #[test]
    fn a_fault_names_the_call_and_the_vertex_and_the_first_one_stays() {
        let path =
            start((0.0, 0.0)).line((1.0, 1.0)).quad((f64::INFINITY, 0.0), (1.0, 2.0)).ahead(f64::NAN).open();
        let fault = path.sound().unwrap_err();
        assert_eq!((fault.call(), fault.vertex()), ("quad", Some(2)));
        assert_eq!(
            fault.to_string(),
            "`quad` at vertex 2: the point (inf, 0) is not finite; give finite numbers"
        );
        assert_eq!(
            start((0.0, 0.0)).ray(deg(f64::NAN), 1.0).sound().unwrap_err().to_string(),
            "`ray` at vertex 1: the angle NaN is not finite; give a finite number"
        );
        assert_eq!(
            start((1.0, 0.0)).arc_about((0.0, 0.0), deg(1e9)).sound().unwrap_err().to_string(),
            "`arc_about` at vertex 1: the sweep in turns 2777777.777777778 is out of range; give -10000 to 10000"
        );
    }

    #[test]
    fn a_full_turn_ends_where_it_began() {
        let round = start((10.0, 3.0)).arc_about((1.0, 2.0), deg(360.0)).close();
        let contour = &round.contours()[0];
        assert_eq!(contour.start(), contour.end());
        assert_eq!(contour.segments().count(), 4);
        assert_eq!(start((1.0, 2.0)).arc_about((1.0, 2.0), deg(90.0)).open().segments().count(), 0);
    }
}

mod through {
    use chordane::number::Point;
    use chordane::number::around;
    use chordane::number::deg;
    use chordane::number::polar;
    use chordane::number::pt;
    use chordane::path::Segment;
    use chordane::path::*;

    fn blob(n: usize) -> Vec<Point> {
        around(n).enumerate().map(|(i, a)| polar(a, 40.0 + 15.0 * ((i * 7) % 5) as f64)).collect()
    }

    fn assert_smooth(path: &Path, closed: bool) {
        let segments: Vec<Segment> = path.segments().collect();
        let wrap = closed.then(|| (segments.last().unwrap(), &segments[0]));
        for (a, b) in segments.windows(2).map(|w| (&w[0], &w[1])).chain(wrap) {
            let (before, behind) = (a.arriving().normalize(), b.leaving().normalize());
            assert!((before - behind).length() < 1e-6, "{before} then {behind}");
        }
    }

    #[test]
    fn every_soft_vertex_is_on_the_curve_and_no_joint_shows() {
        for n in [3, 4, 9, 40] {
            for spacing in [Spacing::Uniform, Spacing::Centripetal, Spacing::Chordal] {
                let path = through(blob(n)).spacing(spacing).close();
                assert_eq!(path.contours()[0].vertices().take(n).collect::<Vec<_>>(), blob(n));
                assert_smooth(&path, true);
                assert_smooth(&through(blob(n)).spacing(spacing).open(), false);
            }
            assert_smooth(&flowing(blob(n)).close(), true);
            assert_smooth(&flowing(blob(n)).open(), false);
        }
    }

    /// Where the seam of a closed curve is does not matter.
    #[test]
    fn a_closed_curve_has_no_seam() {
        for make in [through::<Point>, flowing::<Point>] {
            let mut turned = blob(9);
            turned.rotate_left(4);
            let (a, b) = (make(blob(9)).close(), make(turned).close());
            assert!((a.signed_area() - b.signed_area()).abs() < 1e-8);
            let first: Vec<Segment> = a.segments().skip(4).take(1).collect();
            assert!((first[0].at(0.3) - b.segments().next().unwrap().at(0.3)).length() < 1e-9);
        }
    }

    #[test]
    fn corners_and_straight_sides_mix_with_soft_vertices() {
        let path = through([
            corner((0.0, 0.0)),
            corner((50.0, 0.0)),
            soft((80.0, 30.0)),
            soft((50.0, 60.0)),
            rounded((0.0, 60.0), 10.0),
        ])
        .close();
        let kinds: Vec<&str> = path
            .segments()
            .map(|segment| match segment {
                Segment::Line { .. } => "line",
                Segment::Cubic { .. } => "cubic",
                Segment::Arc(_) => "arc",
                Segment::Quad { .. } => "quad",
            })
            .collect();
        assert_eq!(kinds, ["line", "cubic", "cubic", "cubic", "arc", "line"]);
        // The rounding joins both its neighbours smoothly.
        let segments: Vec<Segment> = path.segments().collect();
        for pair in segments[3..].windows(2) {
            let (a, b) = (pair[0].arriving().normalize(), pair[1].leaving().normalize());
            assert!((a - b).length() < 1e-6, "{a} then {b}");
        }
        let tight = through([
            rounded((0.0, 0.0), 50.0),
            rounded((10.0, 0.0), 50.0),
            rounded((10.0, 10.0), 50.0),
            rounded((0.0, 10.0), 50.0),
        ]);
        assert!(
            (tight.close().signed_area() - 25.0 * std::f64::consts::PI).abs() < 1e-6,
            "a square becomes a disc"
        );
    }

    #[test]
    fn ends_are_natural_held_or_led() {
        let points = [(0.0, 0.0), (30.0, 20.0), (60.0, 0.0)];
        let first = |path: Path| match path.segments().next() {
            Some(Segment::Cubic { from, control1, control2, .. }) => (from, control1, control2),
            other => panic!("{other:?}"),
        };
        let (from, control1, control2) = first(through(points).open());
        let to = pt(30.0, 20.0);
        // No bending at a natural end: the second difference there is zero.
        assert!((from - control1 * 2.0 + control2).length() < 1e-9, "{to}");
        let (_, control1, _) = first(through(points).ends(Ends::Held).open());
        assert!(control1.perp_dot(to).abs() < 1e-9);
        for curve in [through(points), flowing(points)] {
            let (_, control1, _) = first(curve.ends(Ends::Led(pt(0.0, -50.0), pt(60.0, -50.0))).open());
            assert!(control1.normalize().y > 0.6, "{control1}");
        }
        // The end points are on the curve, led or not.
        let led = through(points).ends(Ends::Led(pt(0.0, -50.0), pt(60.0, -50.0))).open();
        assert_eq!((led.contours()[0].start(), led.contours()[0].end()), (pt(0.0, 0.0), pt(60.0, 0.0)));
    }

    /// Published property: no loop or cusp between neighbours, however close they stand.
    #[test]
    fn centripetal_curves_do_not_loop_where_points_stand_close() {
        let path = through([(0.0, 0.0), (100.0, 0.0), (101.0, 1.0), (102.0, 60.0), (0.0, 61.0)]).open();
        for segment in path.segments() {
            let turns = (0..200).map(|i| {
                (segment.velocity(f64::from(i) / 200.0), segment.velocity(f64::from(i + 1) / 200.0))
            });
            let turned: f64 = turns.map(|(a, b)| a.perp_dot(b).atan2(a.dot(b)).abs()).sum();
            assert!(turned < std::f64::consts::PI, "{turned}");
        }
    }

    /// Hobby's own example of what the method is for: points of a circle give a circle, to one part in a thousand.
    #[test]
    fn flowing_through_a_regular_polygon_is_nearly_round() {
        for (n, most) in [(3, 4e-3), (4, 1e-3), (6, 1e-4), (12, 1e-5)] {
            let path = flowing(around(n).map(|a| polar(a, 1.0))).close();
            for segment in path.segments() {
                for i in 0..=50 {
                    let off = (segment.at(f64::from(i) / 50.0).length() - 1.0).abs();
                    assert!(off < most, "{n}: {off}");
                }
            }
            let arc =
                flowing(chordane::number::between(deg(10.0), deg(170.0), 5).map(|a| polar(a, 1.0))).open();
            assert!(arc.segments().all(|s| (s.at(0.5).length() - 1.0).abs() < 1e-3));
        }
    }

    #[test]
    fn few_vertices_and_wrong_ones() {
        assert!(through(Vec::<Point>::new()).close().is_empty());
        assert_eq!(through([(3.0, 4.0)]).open().data(), "M3 4");
        assert_eq!(through([(3.0, 4.0), (3.0, 4.0)]).close().data(), "M3 4Z");
        assert_eq!(through([(0.0, 0.0), (9.0, 3.0)]).open().data(), "M0 0 9 3");
        assert_eq!(through([(0.0, 0.0), (9.0, 3.0), (0.0, 0.0)]).close().segments().count(), 2);
        assert_eq!(through([(0.0, 0.0), (9.0, 3.0), (5.0, 9.0)]).tension(1.0).open().segments().count(), 2);
        let told = |curve: Through| curve.open().sound().unwrap_err().to_string();
        assert_eq!(
            told(through([soft((0.0, 0.0)), rounded((1.0, 1.0), -2.0)])),
            "`through` at vertex 1: the radius -2 is negative; give 0 or more"
        );
        assert_eq!(
            told(flowing([(0.0, f64::NAN)])),
            "`flowing` at vertex 0: the point (0, NaN) is not finite; give finite numbers"
        );
        assert_eq!(
            told(through([(0.0, 0.0)]).tension(2.0)),
            "`tension`: the tension 2 is out of range; give 0 to 1"
        );
    }
}

mod transform {
    use chordane::number::Cell;
    use chordane::path::*;
    use chordane::prelude::*;

    #[test]
    fn a_circle_flattened_to_a_line_still_reaches_as_far() {
        let flat = circle(pt(0.0, 0.0), 10.0).scaled_by((1.0, 0.0));
        assert_eq!(flat.bounds().unwrap(), Cell::of([pt(-10.0, 0.0), pt(10.0, 0.0)]).unwrap());
    }

    #[test]
    fn a_transform_that_is_not_finite_is_a_fault() {
        let path = start((1.0, 1.0)).line((2.0, 2.0)).open();
        assert_eq!(
            path.scaled(f64::NAN).sound().unwrap_err().to_string(),
            "`scaled`: the number NaN is not finite; give a finite number"
        );
        assert!(path.scaled(1e308).scaled(1e308).sound().is_err());
    }
}
