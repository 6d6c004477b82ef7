//! Single routines of `chordane::number`.

mod angle {
    use chordane::number::*;

    #[test]
    fn quarter_turns_are_exact_far_out_too() {
        for k in -400_i32..400 {
            let (sin, cos) = deg(90.0 * f64::from(k)).sin_cos();
            let want = [(0.0, 1.0), (1.0, 0.0), (0.0, -1.0), (-1.0, 0.0)][k.rem_euclid(4) as usize];
            assert_eq!((sin, cos), want, "at {k} quarters");
            assert!(sin.to_bits() != (-0.0_f64).to_bits() && cos.to_bits() != (-0.0_f64).to_bits());
        }
    }

    #[test]
    fn sine_and_cosine_agree_with_the_plain_formula() {
        for k in -3600..3600 {
            let angle = deg(f64::from(k) * 0.37);
            let plain = (angle.degrees() % 360.0).to_radians();
            assert!((angle.sin() - plain.sin()).abs() < 1e-14, "{angle}");
            assert!((angle.cos() - plain.cos()).abs() < 1e-14, "{angle}");
        }
        assert_eq!(deg(30.0).sin(), 0.5);
        assert_eq!(deg(-60.0).cos(), 0.5);
        assert_eq!(deg(150.0).sin(), 0.5);
        assert_eq!((deg(45.0).tan(), deg(-135.0).tan()), (1.0, 1.0));
    }

    #[test]
    fn wrapping_keeps_the_direction() {
        assert_eq!(deg(-90.0).wrapped(), deg(270.0));
        assert_eq!(deg(720.0).wrapped(), deg(0.0));
        assert_eq!(deg(-1e-20).wrapped(), deg(0.0));
        assert_eq!(deg(270.0).wrapped_signed(), deg(-90.0));
        assert_eq!(deg(180.0).wrapped_signed(), deg(180.0));
        assert_eq!(deg(-180.0).wrapped_signed(), deg(180.0));
    }

    #[test]
    fn around_and_between_have_the_counts_and_ends_they_promise() {
        assert_eq!(around(0).count(), 0);
        assert_eq!(around(1).collect::<Vec<_>>(), [deg(0.0)]);
        for n in [3, 7, 12, 97, 1000] {
            let angles: Vec<_> = around(n).collect();
            for pair in angles.windows(2) {
                assert!(((pair[1] - pair[0]).turns() * n as f64 - 1.0).abs() < 1e-12);
            }
        }
        assert_eq!(between(deg(5.0), deg(9.0), 0).count(), 0);
        assert_eq!(between(deg(5.0), deg(9.0), 1).collect::<Vec<_>>(), [deg(5.0)]);
        assert_eq!(between(deg(0.1), deg(0.3), 3).last(), Some(deg(0.3)));
    }

    #[test]
    fn units_read_back() {
        assert_eq!(rad(std::f64::consts::PI), deg(180.0));
        assert_eq!(turns(0.125).degrees(), 45.0);
        assert_eq!(deg(45.0).radians(), std::f64::consts::FRAC_PI_4);
        assert_eq!(Angle::of((0.0, -3.0)), deg(-90.0));
        assert_eq!(Angle::of((0.0, 0.0)), deg(0.0));
        assert!(deg(f64::INFINITY).sin().is_nan());
    }
}

mod cell {
    use chordane::number::part;
    use chordane::number::*;

    #[test]
    fn a_grid_covers_its_cell_without_gaps() {
        let page = cell((3.0, -7.0), 100.0, 37.0);
        let cells: Vec<Cell> = page.grid(7, 3).collect();
        assert_eq!((cells.len(), cells[0].min), (21, page.min));
        for row in cells.chunks(7) {
            for pair in row.windows(2) {
                assert!((pair[0].right() - pair[1].left()).abs() < 1e-12);
            }
            assert!((row[6].right() - page.right()).abs() < 1e-12);
        }
        assert!((cells[20].bottom() - page.bottom()).abs() < 1e-12);
        assert_eq!(page.grid(0, 4).count() + page.grid(4, 0).count(), 0);
    }

    #[test]
    fn extents_add_up_and_places_may_lie_outside() {
        let extent = (part(0.5) + 4.0) * 2.0 - part(0.25) / 2.0;
        assert_eq!(extent.of(80.0), 80.0 + 8.0 - 10.0);
        let page = cell((0.0, 0.0), 10.0, 20.0);
        assert_eq!(page.at(1.5, -0.5), pt(15.0, -10.0));
        assert_eq!(page.at(part(1.0) - 1.0, Extent::from(3.0)), pt(9.0, 3.0));
        assert_eq!(cell((1.0, 2.0), -5.0, 5.0).size(), pt(0.0, 5.0));
        assert_eq!(page.inset([part(0.5), part(0.75)]).min, pt(5.0, 10.0));
        assert_eq!(page.split_down([15.0, 15.0]).map(|c| c.size().y).collect::<Vec<_>>(), [15.0, 5.0]);
        assert_eq!(page.split_across([-3.0]).map(|c| c.size().x).collect::<Vec<_>>(), [0.0, 10.0]);
    }
}

mod places {
    use chordane::number::cell;
    use chordane::number::*;

    #[test]
    fn golden_places_keep_their_distance() {
        let places: Vec<Point> = golden_places(1000, 1.0).collect();
        let nearest = |i: usize| {
            let others = places.iter().enumerate().filter(|(j, _)| *j != i);
            others.map(|(_, p)| p.distance(places[i])).fold(f64::MAX, f64::min)
        };
        assert!((0..1000).all(|i| nearest(i) > 1.2));
        assert_eq!(golden_places(0, 1.0).count(), 0);
    }

    #[test]
    fn honeycombs_fit_their_cell() {
        for (columns, rows) in [(1, 1), (4, 1), (1, 4), (5, 3), (2, 9)] {
            let whole = cell((10.0, 20.0), 300.0, 200.0);
            let cells: Vec<Cell> = whole.honeycomb(columns, rows).collect();
            assert_eq!(cells.len(), columns * rows);
            for one in &cells {
                assert!(one.left() > 10.0 - 1e-9 && one.right() < 310.0 + 1e-9);
                assert!(one.top() > 20.0 - 1e-9 && one.bottom() < 220.0 + 1e-9);
            }
        }
        assert_eq!(cell((0.0, 0.0), 3.0, 2.0).honeycomb(0, 5).count(), 0);
    }
}
