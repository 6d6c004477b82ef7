//! Single routines of `chordane::measure`.

mod apart {

    use chordane::number::Point;
    use chordane::path::Path;
    use chordane::prelude::*;

    #[test]
    fn gaps_are_those_of_all_pairs() {
        for n in [2, 3, 5, 50] {
            let path = trail(n, |share| pt((share * 97.0).sin() * 50.0, (share * 61.0).cos() * 9.0));
            let vertices: Vec<Point> = path.contours()[0].vertices().collect();
            let pairs = vertices.iter().enumerate();
            let slow = pairs.flat_map(|(i, a)| vertices[i + 1..].iter().map(|b| a.distance(*b)));
            assert_eq!(path.vertex_gap().unwrap(), slow.reduce(f64::min));
        }
        assert_eq!(Path::empty().vertex_gap().unwrap(), None);
        assert_eq!(start((1.0, 1.0)).close().vertex_gap().unwrap(), None);
    }
}

mod area {
    use chordane::measure::Direction;

    use chordane::path::Path;
    use chordane::prelude::*;

    #[test]
    fn closed_forms() {
        let area = |path: Path| path.signed_area();
        assert!((area(circle((1e3, 2e3), 7.0)) - std::f64::consts::PI * 49.0).abs() < 1e-9);
        assert!(
            (area(ellipse((0.0, 0.0), 3.0, 5.0).rotated(deg(20.0))) - std::f64::consts::PI * 15.0).abs()
                < 1e-12
        );
        // A parabola over its chord holds two thirds of the box round it.
        let bow = start((0.0, 0.0)).quad((5.0, -10.0), (10.0, 0.0)).close();
        assert!((area(bow) - 10.0 * 5.0 * 2.0 / 3.0).abs() < 1e-12);
        // The same curve written as a cubic.
        let third = 1.0 / 3.0;
        let cubic = start((0.0, 0.0))
            .cubic((10.0 * third, -20.0 * third), (20.0 * third, -20.0 * third), (10.0, 0.0))
            .close();
        assert!((area(cubic) - 100.0 * third).abs() < 1e-12);
    }

    #[test]
    fn directions() {
        assert_eq!(polygon((0.0, 0.0), 5, 3.0).contours()[0].direction(), Direction::Clockwise);
        assert_eq!(
            polygon((0.0, 0.0), 5, 3.0).reversed().contours()[0].direction(),
            Direction::Anticlockwise
        );
        assert_eq!(start((0.0, 0.0)).line((3.0, 3.0)).close().contours()[0].direction(), Direction::Flat);
    }
}

mod inside {

    use chordane::number::Point;
    use chordane::path::Path;
    use chordane::prelude::*;

    /// The slow twin: the angle that the direction from the spot to the contour turns through.
    fn turned(path: &Path, spot: Point) -> i32 {
        let mut total = 0.0;
        for segment in path.segments() {
            for i in 0..400 {
                let a = segment.at(f64::from(i) / 400.0) - spot;
                let b = segment.at(f64::from(i + 1) / 400.0) - spot;
                total += a.perp_dot(b).atan2(a.dot(b));
            }
        }
        (total / std::f64::consts::TAU).round() as i32
    }

    #[test]
    fn winding_agrees_with_the_angle_turned_through() {
        let knot = start((0.0, 0.0))
            .cubic((120.0, -40.0), (-60.0, 90.0), (50.0, 60.0))
            .quad((90.0, -80.0), (20.0, -30.0))
            .arc_about((0.0, -10.0), deg(-250.0))
            .close();
        let both = knot.clone().and(&circle((20.0, 10.0), 25.0));
        for x in -12..14 {
            for y in -12..14 {
                let spot = pt(f64::from(x) * 7.3 + 0.2, f64::from(y) * 6.1 + 0.1);
                assert_eq!(both.winding(spot), turned(&both, spot), "{spot}");
            }
        }
    }
}

mod length {

    use chordane::path::Path;
    use chordane::path::Segment;
    use chordane::prelude::*;
    use std::f64::consts::PI;

    /// Numbers from 0 up to 100 from a seed (a linear congruential generator, Knuth's constants).
    fn random_to_100(mut seed: u64) -> impl FnMut() -> f64 {
        move || {
            seed = seed.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
            (seed >> 33) as f64 / f64::from(1_u32 << 31) * 100.0
        }
    }

    /// The quick accuracy against the best there is.
    #[test]
    fn lengths_are_as_accurate_as_they_say() {
        let mut random = random_to_100(99);
        for _ in 0..20_000 {
            let mut p = || (random(), random());
            let path = start(p()).cubic(p(), p(), p()).open();
            let (quick, best) = (path.length().unwrap(), path.length_within(1e-13).unwrap());
            assert!((quick - best).abs() <= 1e-9 * best, "{} for {path:?}", (quick - best) / best);
        }
    }

    /// The slow twin: chords between very many places, with the next order of their error taken off (Richardson).
    fn chords(segment: &Segment) -> f64 {
        let sum = |n: u32| -> f64 {
            (0..n)
                .map(|i| {
                    segment
                        .at(f64::from(i) / f64::from(n))
                        .distance(segment.at(f64::from(i + 1) / f64::from(n)))
                })
                .sum()
        };
        let (coarse, fine) = (sum(20_000), sum(40_000));
        fine + (fine - coarse) / 3.0
    }

    #[test]
    fn lengths_agree_with_adding_up_chords() {
        let mut random = random_to_100(12345);
        for i in 0..120 {
            let mut p = || (random(), random());
            let path = match i % 3 {
                0 => start(p()).cubic(p(), p(), p()).open(),
                1 => start(p()).quad(p(), p()).open(),
                _ => start(p()).arc_radii(p(), p(), deg(30.0), ArcWay::LongClockwise).open(),
            };
            let segment = path.segments().next().unwrap();
            let (ours, slow) = (segment.length(), chords(&segment));
            assert!((ours - slow).abs() <= 3e-9 * slow, "{ours} and {slow} for {segment:?}");
        }
    }

    #[test]
    fn cusps_and_folds_have_their_lengths() {
        // A curve that runs out and back on one line: the speed is zero where it turns.
        let fold = start((0.0, 0.0)).quad((10.0, 0.0), (0.0, 0.0)).open();
        assert!((fold.length().unwrap() - 10.0).abs() < 1e-9);
        let uneven = start((0.0, 0.0)).quad((9.0, 0.0), (3.0, 0.0)).open();
        let turn = 9.0_f64 / 15.0;
        let far = 2.0 * turn * (1.0 - turn) * 9.0 + turn * turn * 3.0;
        assert!((uneven.length().unwrap() - (2.0 * far - 3.0)).abs() < 1e-8);
        // The cusp of (t - 1/2)^2, (t - 1/2)^3: the length of a semicubical parabola is known (W. Neile, 1657).
        let cusp =
            start((0.25, -0.125)).cubic((-0.25 / 3.0, 0.125), (-0.25 / 3.0, -0.125), (0.25, 0.125)).open();
        let half = |t: f64| ((4.0 + 9.0 * t * t).powf(1.5) - 8.0) / 27.0;
        assert!((cusp.length().unwrap() - 2.0 * half(0.5)).abs() < 1e-9, "{}", cusp.length().unwrap());
        for data in ["M0 0C100 100 0 100 100 0", "M0 0C100 99.9 0 100 100 0", "M0 0C101 100 0 100 100 0"] {
            let segment = Path::from_data(data).unwrap().segments().next().unwrap();
            let slow = chords(&segment);
            assert!((segment.length() - slow).abs() < 1e-7 * slow, "{data}: {} and {slow}", segment.length());
        }
    }

    /// The complete elliptic integral by the arithmetic-geometric mean: quadratic convergence, independent of ours.
    fn perimeter(a: f64, b: f64) -> f64 {
        let (mut x, mut y, mut sum, mut power) = (a, b, 0.0, 0.5);
        let mut c2 = (a * a - b * b).abs();
        for _ in 0..40 {
            sum += power * c2;
            let half = 0.5 * (x - y);
            c2 = half * half;
            (x, y, power) = (0.5 * (x + y), (x * y).sqrt(), power * 2.0);
        }
        2.0 * PI * (a.max(b).powi(2) - sum) / x
    }

    #[test]
    fn ellipses_have_the_perimeters_of_the_elliptic_integral() {
        for (a, b) in
            [(1.0, 1.0), (2.0, 1.0), (1.0, 3.0), (10.0, 1.0), (100.0, 1.0), (1e4, 1.0), (5.0, 4.999)]
        {
            let want = if a > b { perimeter(a, b) } else { perimeter(b, a) };
            let got = ellipse((3.0, 4.0), a, b).length().unwrap();
            assert!((got - want).abs() < 2e-9 * want, "{a} x {b}: {got} and {want}");
        }
        assert!((perimeter(2.0, 1.0) - 9.688_448_220_547_675).abs() < 1e-12);
    }

    #[test]
    fn closed_contours_count_their_closing_side() {
        let open = start((0.0, 0.0)).line((3.0, 0.0)).line((3.0, 4.0));
        assert_eq!(open.clone().open().length().unwrap(), 7.0);
        assert_eq!(open.close().length().unwrap(), 12.0);
        assert_eq!(Path::empty().length().unwrap(), 0.0);
        assert_eq!(start((5.0, 5.0)).close().length().unwrap(), 0.0);
        assert!(circle((0.0, 0.0), -1.0).length().is_err());
    }
}

mod nearest {

    use chordane::path::Path;
    use chordane::prelude::*;

    #[test]
    fn the_middle_of_an_arc_is_on_it() {
        let hoop = ellipse((0.0, 0.0), 10.0, 5.0).rotated(deg(20.0));
        for segment in hoop.segments() {
            for i in 0..=64 {
                let spot = segment.at(f64::from(i) / 64.0);
                assert!(segment.distance(spot) < 1e-12, "{i}");
            }
        }
    }

    #[test]
    fn the_nearest_place_of_an_arc_is_found_whichever_side_the_spot_is_on() {
        let arc = start((80.0, 0.0))
            .arc_radii((-60.0, 20.0), (90.0, 40.0), deg(25.0), ArcWay::LongClockwise)
            .open();
        let segment = arc.segments().next().unwrap();
        for spot in around(60).map(|a| polar(a * 7.0, 3.0 + a.degrees() * 0.4)) {
            let samples = (0..=4000).map(|i| segment.at(f64::from(i) / 4000.0).distance(spot));
            let least = samples.fold(f64::INFINITY, f64::min);
            let found = segment.distance(spot);
            assert!(found <= least + 1e-12 && found > least - 0.01, "{spot}: {found} and {least}");
        }
    }

    #[test]
    fn the_middle_of_a_circle_is_equally_near_to_all() {
        let hoop = circle((5.0, 5.0), 20.0).survey().unwrap();
        assert_eq!(hoop.nearest((5.0, 5.0)).unwrap().distance(), 0.0);
        assert!(hoop.nearest((f64::NAN, 5.0)).is_none());
        assert!(Path::empty().survey().unwrap().nearest((0.0, 0.0)).is_none());
        assert_eq!(Path::empty().distance((0.0, 0.0)).unwrap(), f64::INFINITY);
    }

    #[test]
    fn a_station_knows_how_far_along_the_nearest_place_is() {
        let curve = start((0.0, 0.0))
            .cubic((120.0, 10.0), (-40.0, 90.0), (60.0, 80.0))
            .quad((90.0, 70.0), (95.0, -20.0))
            .open();
        let survey = curve.survey().unwrap();
        for station in survey.split(40, false) {
            let found = survey.nearest(station.point()).unwrap();
            assert!(
                (found.distance() - station.distance()).abs() < 1e-6,
                "{} {}",
                found.distance(),
                station.distance()
            );
        }
    }
}

mod nesting {

    use chordane::path::Path;
    use chordane::prelude::*;

    #[test]
    fn nesting_sets_the_directions_whatever_they_were() {
        let rings = [50.0, 40.0, 30.0, 20.0].map(|r| circle((0.0, 0.0), r));
        let aside = circle((200.0, 0.0), 30.0).and(&circle((200.0, 0.0), 10.0).reversed());
        let mixed = rings[2].reversed().and(&rings[0]).and(&rings[3]).and(&rings[1]).and(&aside);
        assert_eq!(mixed.nesting().unwrap(), [2, 0, 3, 1, 0, 1]);
        let turned = mixed.turn_holes();
        for (x, painted) in
            [(45.0, true), (35.0, false), (25.0, true), (5.0, false), (220.0, true), (201.0, false)]
        {
            assert_eq!(turned.inside((x, 1.0)), painted, "{x}");
        }
        assert_eq!(turned, turned.turn_holes());
    }

    #[test]
    fn open_contours_that_meet_are_joined_whichever_way_they_run() {
        let path = Path::open([(0.0, 0.0), (10.0, 0.0)])
            .and(&Path::open([(10.0, 10.0), (10.0, 0.0)]))
            .and(&circle((50.0, 50.0), 3.0))
            .and(&Path::open([(10.0, 10.0), (0.0, 10.0)]))
            .and(&Path::open([(90.0, 90.0), (99.0, 99.0)]))
            .and(&Path::open([(0.0, 0.0), (0.0, 10.0)]));
        let joined = path.joined(0.0);
        assert_eq!(joined.contours().len(), 3);
        assert_eq!(Path::from_contours(joined.contours()[..1].to_vec()).data(), "M0 0H10V10H0Z");
        // Ends that only nearly meet are joined within a distance, at the earlier one's end.
        let apart = Path::open([(0.0, 0.0), (10.0, 0.0)]).and(&Path::open([(10.2, 0.0), (10.0, 9.0)]));
        assert_eq!(apart.joined(0.1).contours().len(), 2);
        assert_eq!(apart.joined(0.3).data(), "M0 0H10V9");
        let there_and_back =
            Path::open([(0.0, 0.0), (10.0, 0.0)]).and(&Path::open([(10.0, 0.0), (0.0, 0.0)]));
        assert!(there_and_back.joined(0.0).contours()[0].is_closed());
    }
}

mod survey {
    use chordane::measure::Station;

    use chordane::path::Path;
    use chordane::prelude::*;

    fn paths() -> Vec<Path> {
        vec![
            start((0.0, 0.0))
                .cubic((120.0, 10.0), (-40.0, 90.0), (60.0, 80.0))
                .quad((90.0, 70.0), (95.0, -20.0))
                .open(),
            ellipse((10.0, 20.0), 80.0, 9.0),
            through([(0.0, 0.0), (50.0, 60.0), (90.0, 5.0), (200.0, 44.0)])
                .close()
                .and(&circle((5.0, 5.0), 20.0)),
            start((0.0, 0.0)).line((30.0, 0.0)).arc_about((30.0, 10.0), deg(250.0)).close(),
            // A cusp, and handles on their ends.
            start((0.0, 0.0))
                .cubic((100.0, 100.0), (0.0, 100.0), (100.0, 0.0))
                .cubic((100.0, 0.0), (150.0, 50.0), (150.0, 50.0))
                .open(),
        ]
    }

    /// The slow twin: the length of the flattened path up to the place.
    #[test]
    fn a_station_is_as_far_along_as_it_says() {
        for path in paths() {
            let survey = path.survey().unwrap();
            assert!((survey.length() - path.length().unwrap()).abs() < 1e-8 * survey.length());
            let mut before = 0.0;
            let mut last = survey.station(0.0).unwrap().point();
            let fine = 20_000;
            for i in 1..=fine {
                let distance = survey.length() * f64::from(i) / f64::from(fine);
                let station = survey.station(distance).unwrap();
                let gap = station.point().distance(last);
                let step = survey.length() / f64::from(fine);
                // A chord is at most as long as the way along; shorter only where the path bends or jumps.
                assert!(
                    gap <= step + 4e-10 * survey.length() || station.contour() > 0,
                    "{gap} for {step} at {distance}"
                );
                before += gap;
                last = station.point();
                assert!(
                    (station.distance() - distance).abs() < 1e-9
                        && (station.share() - distance / survey.length()).abs() < 1e-12
                );
            }
            if path.contours().len() == 1 {
                assert!(
                    (before - survey.length()).abs() < 1e-4 * survey.length(),
                    "{before} of {}",
                    survey.length()
                );
            }
        }
    }

    #[test]
    fn tangents_and_curvatures_are_those_of_the_curve() {
        for path in paths() {
            let survey = path.survey().unwrap();
            for i in 1..97 {
                let distance = survey.length() * f64::from(i) / 97.0;
                let h = survey.length() * 1e-5;
                let [before, here, behind] =
                    [distance - h, distance, distance + h].map(|d| survey.station(d).unwrap());
                if before.contour() != behind.contour() {
                    continue;
                }
                let chord = behind.point() - before.point();
                let turn =
                    before.tangent().perp_dot(behind.tangent()).atan2(before.tangent().dot(behind.tangent()));
                // Away from corners and cusps, where the direction jumps.
                if turn.abs() < 0.02 {
                    assert!((here.tangent() - chord.normalize()).length() < 1e-3, "{distance}");
                    let bend = turn / (2.0 * h);
                    assert!(
                        (here.curvature() - bend).abs() < 1e-2 * (0.1 + bend.abs()),
                        "{} and {bend}",
                        here.curvature()
                    );
                }
                assert!((here.tangent().length() - 1.0).abs() < 1e-12);
                assert_eq!(here.normal(), here.tangent().perp());
            }
        }
        let round = circle((0.0, 0.0), 20.0).survey().unwrap();
        let station = round.station(7.0).unwrap();
        assert!((station.curvature() - 0.05).abs() < 1e-12, "clockwise as seen is positive");
        assert!((station.normal() + station.point() / 20.0).length() < 1e-9, "the centre is to the right");
    }

    #[test]
    fn even_stations_have_their_counts_and_ends() {
        let survey = Path::open([(0.0, 0.0), (10.0, 0.0)]).survey().unwrap();
        let at = |stations: Vec<Station<'_>>| stations.iter().map(|s| s.point().x).collect::<Vec<_>>();
        assert_eq!(at(survey.every(2.5).collect()), [0.0, 2.5, 5.0, 7.5, 10.0]);
        assert_eq!(at(survey.every(4.0).collect()), [0.0, 4.0, 8.0]);
        assert_eq!(
            survey.every(0.0).count() + survey.every(-1.0).count() + survey.every(f64::NAN).count(),
            0
        );
        assert_eq!(at(survey.split(3, false).collect()), [0.0, 5.0, 10.0]);
        assert_eq!(at(survey.split(1, false).collect()), [0.0]);
        assert_eq!(at(survey.split(4, true).collect()), [0.0, 2.5, 5.0, 7.5]);
        assert_eq!(survey.split(0, true).count(), 0);
        for path in paths() {
            let survey = path.survey().unwrap();
            for (i, station) in survey.split(1000, false).enumerate() {
                let alone = survey.station(survey.length() * i as f64 / 999.0).unwrap();
                assert!((station.point() - alone.point()).length() < 1e-6 * survey.length());
            }
        }
    }

    /// Split and join: the lengths of the parts add up, and they lie end to end.
    #[test]
    fn sections_add_up() {
        for path in paths() {
            let survey = path.survey().unwrap();
            let cuts: Vec<f64> = (0..=13).map(|i| survey.length() * f64::from(i) / 13.0).collect();
            let parts: Vec<Path> = cuts.windows(2).map(|pair| survey.section(pair[0], pair[1])).collect();
            let total: f64 = parts.iter().map(|part| part.length().unwrap()).sum();
            assert!(
                (total - survey.length()).abs() < 1e-7 * survey.length(),
                "{total} of {}",
                survey.length()
            );
            for (part, cut) in parts.iter().zip(&cuts) {
                let begin = survey.station(*cut).unwrap().point();
                let first = part.contours().first().unwrap().start();
                assert!((first - begin).length() < 1e-5 || path.contours().len() > 1, "{first} and {begin}");
            }
            assert!(survey.section(5.0, 5.0).is_empty());
            let whole = survey.section(0.0, f64::MAX);
            assert!((whole.length().unwrap() - survey.length()).abs() < 1e-8 * survey.length());
            assert_eq!(whole.segments().count(), path.segments().count());
        }
        let open = Path::open([(0.0, 0.0), (10.0, 0.0)]).survey().unwrap();
        assert!(open.section(8.0, 2.0).is_empty());
        let round = circle((0.0, 0.0), 10.0).survey().unwrap().section(50.0, 10.0);
        assert_eq!(round.contours().len(), 1);
    }

    #[test]
    fn paths_of_nothing_have_no_stations_or_one_place() {
        assert!(Path::empty().survey().unwrap().station(0.0).is_none());
        assert!(start((1.0, 1.0)).open().survey().unwrap().station(0.0).is_none());
        let dot = Path::open([(3.0, 3.0), (3.0, 3.0)]).survey().unwrap();
        let station = dot.station(5.0).unwrap();
        assert_eq!((station.point(), station.tangent(), station.share()), (pt(3.0, 3.0), pt(0.0, 0.0), 0.0));
        let line = Path::open([(0.0, 0.0), (10.0, 0.0)]).survey().unwrap();
        assert_eq!(line.station(-5.0).unwrap().point(), pt(0.0, 0.0));
        assert_eq!(line.station(50.0).unwrap().point(), pt(10.0, 0.0));
        assert!(line.station(f64::NAN).is_none());
        assert!(circle((0.0, 0.0), f64::NAN).survey().is_err());
    }
}
