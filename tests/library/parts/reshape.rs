//! Single routines of `chordane::reshape`.

mod edit {
    use chordane::number::Point;
    use chordane::path::Path;
    use chordane::path::Segment;
    use chordane::prelude::*;

    fn close_to(a: &Path, b: &Path) {
        assert_eq!(a.contours().len(), b.contours().len());
        for (p, q) in a.segments().zip(b.segments()) {
            for i in 0..=8 {
                let t = f64::from(i) / 8.0;
                assert!(p.at(t).distance(q.at(t)) < 1e-9, "{} and {}", a.data(), b.data());
            }
        }
    }

    #[test]
    fn inserting_on_the_line_and_removing_again_gives_the_path_back() {
        for data in [
            "M0 0L40 10 20 60Z",
            "M0 0C30-20 60 20 80 0C90 30 60 70 40 50Z",
            "M0 0Q40-50 80 0Q60 60 0 0Z",
            "M0 0A50 30 20 0 1 60 40L0 40Z",
            "M0 0C30-20 60 20 80 0L40 90",
        ] {
            let path = Path::from_data(data).unwrap();
            let segments: Vec<Segment> = path.segments().collect();
            for (i, segment) in segments.iter().enumerate() {
                let wider = path.inserted(i + 1, segment.at(0.3));
                assert_eq!(wider.contours()[0].vertex_count(), path.contours()[0].vertex_count() + 1);
                close_to(&wider.removed(i + 1), &path);
            }
        }
    }

    #[test]
    fn the_seam_of_a_closed_contour_is_like_any_other_joint() {
        let hoop = circle((0.0, 0.0), 10.0);
        let (first, last) = (hoop.removed(0), hoop.removed(4));
        assert_eq!(first.contours()[0].vertex_count(), 4);
        assert!((first.area().unwrap() - 100.0 * std::f64::consts::PI).abs() < 1e-9);
        assert!((last.area().unwrap() - 100.0 * std::f64::consts::PI).abs() < 1e-9);
        // Moving the first vertex takes the last one, which stands on it, along.
        let drop = hoop.replaced(0, (15.0, 0.0));
        assert_eq!(drop.contours()[0].start(), drop.contours()[0].end());
        let more = hoop.inserted(0, polar(deg(-45.0), 10.0));
        assert_eq!(more.contours()[0].start(), polar(deg(-45.0), 10.0));
        assert!((more.area().unwrap() - 100.0 * std::f64::consts::PI).abs() < 1e-9);
        let triangle = Path::closed([(0.0, 0.0), (9.0, 0.0), (0.0, 9.0)]);
        assert_eq!(triangle.removed(0).data(), "M9 0 0 9Z");
        assert_eq!(triangle.removed(2).data(), "M0 0H9Z");
        assert_eq!(triangle.inserted(0, (-3.0, 3.0)).data(), "M-3 3 0 0H9L0 9Z");
        assert!(start((1.0, 1.0)).close().removed(0).is_empty());
        assert_eq!(Path::open([(0.0, 0.0), (9.0, 0.0)]).removed(0).data(), "M9 0");
    }

    #[test]
    fn an_arc_keeps_its_shape_when_an_end_moves() {
        for data in ["M0 0A50 30 20 0 1 60 40", "M0 0A50 30 20 1 0 60 40L0 40Z", "M10 0A10 10 0 0 1 0 10"] {
            let path = Path::from_data(data).unwrap();
            let first = path.segments().next().unwrap();
            let moved = path.replaced(1, first.to() + pt(13.0, -8.0)).segments().next().unwrap();
            // Every place has kept its place over the chord.
            let over = |segment: &Segment, t: f64| {
                let (chord, place) = (segment.to() - segment.from(), segment.at(t) - segment.from());
                pt(chord.dot(place), chord.perp_dot(place)) / chord.length_squared()
            };
            for i in 0..=8 {
                let t = f64::from(i) / 8.0;
                assert!(over(&first, t).distance(over(&moved, t)) < 1e-12, "{data} at {t}");
            }
            assert_eq!(moved.to(), first.to() + pt(13.0, -8.0));
        }
    }

    #[test]
    fn tags_stay_with_their_vertices() {
        let sail = start((0.0, 0.0))
            .line((40.0, 30.0))
            .tagged("right")
            .line((0.0, 90.0))
            .line((-40.0, 30.0))
            .tagged("left")
            .close();
        let step = pt(5.0, 0.0);
        let moved = sail.reversed().moved((100.0, 0.0)).shifted("right", step);
        assert_eq!(moved.data(), sail.shifted("right", step).reversed().moved((100.0, 0.0)).data());
        let edited = sail.inserted(1, (20.0, 0.0)).removed(0).shifted("left", step);
        assert_eq!(edited.data(), "M20 0 40 30 0 90-35 30Z");
        let several = sail.tagged("both", [1, 3]).shifted("both", (0.0, 1.0));
        assert_eq!(several.data(), "M0 0 40 31 0 90-40 31Z");
        assert_eq!(several.tags(), ["right", "left", "both"]);
        let curve =
            through([soft((0.0, 0.0)), rounded((50.0, 0.0), 10.0).tagged("tip"), soft((50.0, 50.0))]).close();
        let shifted = curve.shifted("tip", (7.0, 0.0));
        let both = curve.contours()[0].vertices().zip(shifted.contours()[0].vertices());
        let went: Vec<Point> = both.filter(|(a, b)| a != b).map(|(a, _)| a).collect();
        // The two ends of the arc that rounds the tip; the contour begins and ends at one of them.
        assert_eq!(
            (went.len(), went[0].distance(went[1]) < 15.0, went[0] == went[2]),
            (3, true, true),
            "{went:?}"
        );
        let closing = circle((0.0, 0.0), 5.0).tagged("seam", [0]).shifted("seam", (3.0, 0.0));
        assert_eq!(closing.contours()[0].end(), pt(8.0, 0.0));
    }

    #[test]
    fn what_is_not_there_is_a_fault() {
        let sail = start((0.0, 0.0)).line((40.0, 30.0)).tagged("right").line((0.0, 90.0)).close();
        let fault = |path: Path| path.sound().unwrap_err().to_string();
        assert_eq!(
            fault(sail.shifted("rigth", (1.0, 1.0))),
            "`shifted`: no vertex is tagged \"rigth\"; the tags are \"right\""
        );
        assert_eq!(
            fault(circle((0.0, 0.0), 5.0).shifted("left", (1.0, 1.0))),
            "`shifted`: no vertex is tagged \"left\", nor is any other; tag some with tagged(..) first"
        );
        assert_eq!(fault(sail.inserted((1, 0), (1.0, 1.0))), "`inserted`: there is no contour 1; give 0");
        assert_eq!(fault(Path::empty().removed(0)), "`removed`: there is no contour 0; the path is empty");
        assert_eq!(fault(sail.removed(3)), "`removed`: contour 0 has no vertex 3; give 0 to 2");
        assert_eq!(fault(sail.tagged("x", [9])), "`tagged`: contour 0 has no vertex 9; give 0 to 2");
        assert!(
            fault(sail.replaced(0, (f64::NAN, 0.0)))
                .starts_with("`replaced`: the point (NaN, 0) is not finite")
        );
        assert!(
            fault(sail.shifted("right", (f64::MAX, 0.0)).shifted("right", (f64::MAX, 0.0)))
                .contains("not finite")
        );
    }
}

mod nib {
    use chordane::number::Point;
    use chordane::path::Path;
    use chordane::prelude::*;

    /// The slow twin: the nib set down at very many places.
    fn under_the_nib(path: &Path, nib: &Path, spot: Point) -> bool {
        let places =
            path.segments().flat_map(|segment| (0..=250).map(move |i| segment.at(f64::from(i) / 250.0)));
        places.into_iter().any(|place| nib.inside(spot - place))
    }

    #[test]
    fn a_nib_paints_where_it_is_set_down() {
        let line =
            start((0.0, 0.0)).cubic((60.0, -20.0), (-20.0, 60.0), (50.0, 50.0)).line((80.0, 10.0)).open();
        let nib = Nib { slant: deg(-35.0), cap: Cap::Round, join: Join::Round, ..Nib::new(14.0, 5.0) };
        let (area, ellipse) = (line.nibbed(&nib, 0.01), ellipse((0.0, 0.0), 7.0, 2.5).rotated(deg(-35.0)));
        let mut hits = 0;
        for x in -4..40 {
            for y in -6..28 {
                let spot = pt(f64::from(x) * 2.5 + 0.3, f64::from(y) * 2.5 + 0.7);
                // Spots on the very rim may go either way.
                let near = ellipse.scaled(1.03);
                let far = ellipse.scaled(0.97);
                let painted = area.inside(spot);
                hits += usize::from(painted);
                assert!(!painted || under_the_nib(&line, &near, spot), "{spot}");
                assert!(painted || !under_the_nib(&line, &far, spot), "{spot}");
            }
        }
        assert!(hits > 100, "{hits}");
    }

    #[test]
    fn a_nib_at_its_limits() {
        let line = Path::open([(0.0, 0.0), (100.0, 0.0)]);
        assert!(line.nibbed(&Nib::new(0.0, 0.0), 0.1).is_empty());
        assert!((line.nibbed(&Nib::new(0.0, 6.0), 0.1).area().unwrap() - 600.0).abs() < 1e-3);
        assert!(line.nibbed(&Nib::new(6.0, 0.0), 0.1).area().unwrap() < 1e-3);
        let fault = |nib: &Nib, tolerance: f64| line.nibbed(nib, tolerance).sound().unwrap_err().to_string();
        assert_eq!(
            fault(&Nib::new(-1.0, 2.0), 0.1),
            "`nibbed`: the width across -1 is negative; give 0 or more"
        );
        assert_eq!(
            fault(&Nib::new(1.0, 2.0), 0.0),
            "`nibbed`: the tolerance 0 is not positive; give more than 0"
        );
        assert_eq!(
            fault(&Nib { slant: deg(f64::NAN), ..Nib::new(1.0, 2.0) }, 0.1),
            "`nibbed`: the slant NaN is not finite; give a finite number"
        );
    }
}

mod waves {
    use chordane::path::Path;
    use chordane::path::start;
    use chordane::prelude::*;

    #[test]
    fn waves_close_and_meet_at_corners() {
        let square = polygon((0.0, 0.0), 4, 50.0);
        for path in [
            square.waved(4.0, 15.0),
            square.zigzagged(4.0, 15.0),
            square.scalloped(4.0, 15.0),
            square.toothed(4.0, 15.0),
        ] {
            assert!(path.sound().is_ok() && path.contours().len() == 1 && path.contours()[0].is_closed());
            // All corners of the square are on it.
            for corner in square.contours()[0].vertices() {
                assert!(path.distance(corner).unwrap() < 1e-6, "{corner}");
            }
        }
        let hoop = circle((0.0, 0.0), 50.0);
        let wavy = hoop.waved(3.0, 20.0);
        assert!(wavy.contours()[0].is_closed());
        let distances: Vec<f64> =
            wavy.survey().unwrap().split(1000, true).map(|s| s.point().length()).collect();
        let (low, high) = distances.iter().fold((f64::MAX, 0.0_f64), |(l, h), d| (l.min(*d), h.max(*d)));
        assert!((low - 47.0).abs() < 0.02 && (high - 53.0).abs() < 0.02, "{low} {high}");
        // 314 / 20 is nearest to 16 waves: as many crossings of the circle, twice.
        assert_eq!(wavy.crossings_with(&hoop).unwrap().len(), 32);
        assert_eq!(hoop.zigzagged(3.0, 20.0).contours()[0].vertex_count(), 32);
        assert_eq!(hoop.toothed(3.0, 20.0).contours()[0].vertex_count(), 64);
        assert!(hoop.scalloped(3.0, 20.0).area().unwrap() > hoop.area().unwrap());
        assert!(hoop.rippled(3.0, 20.0).contours()[0].is_closed());
    }

    #[test]
    fn waves_of_nothing_and_what_cannot_be() {
        assert!(Path::empty().waved(3.0, 5.0).is_empty());
        assert!(start((1.0, 1.0)).open().waved(3.0, 5.0).is_empty());
        let line = start((0.0, 0.0)).line((100.0, 0.0)).open();
        assert!((line.waved(0.0, 5.0).length().unwrap() - 100.0).abs() < 1e-9);
        assert_eq!(
            line.waved(1.0, 0.0).sound().unwrap_err().to_string(),
            "`waved`: the length of a wave 0 is not positive; give more than 0"
        );
        assert!(line.coiled(1.0, 1e-9).sound().is_err());
        // A wave longer than the line is one wave.
        assert_eq!(line.zigzagged(5.0, 1e9).data(), "M0 0 25 5 75-5 100 0");
        let spring = line.coiled(12.0, 10.0);
        assert_eq!(spring.contours()[0].start(), pt(-12.0, 0.0));
    }
}
