//! Single routines of `chordane::chance`.

mod dice {
    use chordane::chance::*;

    /// What the dice give is part of what a version promises: these change only on purpose.
    #[test]
    fn results_are_pinned() {
        let mut dice = Dice::new(1, "tail");
        let shown = format!(
            "{:.6} {:.6} {} {} {:?} {:.6}",
            dice.between(0.0, 1.0),
            dice.between(-50.0, 50.0),
            dice.whole(1, 6),
            dice.whole(-1000, 1000),
            dice.weighted(&[1.0, 5.0, 2.0]),
            dice.normal(0.0, 1.0)
        );
        assert_eq!(shown, "0.994556 -0.078751 5 -97 Some(2) 0.923762");
        let mut order: Vec<u32> = (0..8).collect();
        dice.shuffle(&mut order);
        assert_eq!(format!("{order:?}"), "[4, 1, 6, 7, 0, 2, 5, 3]");
    }

    #[test]
    fn throws_are_even_and_streams_apart() {
        let mut dice = Dice::new(9, "rim");
        let mut counts = [0_u32; 6];
        let mut sum = 0.0;
        for _ in 0..60_000 {
            counts[usize::try_from(dice.whole(0, 5)).unwrap()] += 1;
            sum += dice.normal(3.0, 2.0);
        }
        assert!(counts.iter().all(|count| (9_600..10_400).contains(count)), "{counts:?}");
        assert!((sum / 60_000.0 - 3.0).abs() < 0.05);
        let mut weighted = [0_u32; 3];
        for _ in 0..30_000 {
            weighted[dice.weighted(&[1.0, 0.0, 2.0]).unwrap()] += 1;
        }
        assert!((9_600..10_400).contains(&weighted[0]) && weighted[1] == 0, "{weighted:?}");
        // Another name, or another seed, falls otherwise; the same falls the same.
        let first = |seed, name: &str| Dice::new(seed, name).between(0.0, 1.0);
        assert_eq!(first(1, "tail"), first(1, "tail"));
        assert!(first(1, "tail") != first(2, "tail") && first(1, "tail") != first(1, "tails"));
        assert_eq!(
            (dice.place(0), dice.pick::<u8>(&[]), dice.weighted(&[0.0, -1.0, f64::NAN])),
            (None, None, None)
        );
        assert_eq!(dice.whole(4, 4), 4);
        assert!((i64::MIN..=i64::MAX).contains(&dice.whole(i64::MAX, i64::MIN)));
    }
}

mod scatter {
    use chordane::chance::*;
    use chordane::number::Point;
    use chordane::number::pt;
    use chordane::path::Path;
    use chordane::prelude::*;

    #[test]
    fn scattered_points_lie_within() {
        let mut dice = Dice::new(3, "dots");
        let hoop = ring((10.0, 20.0), 50.0, 30.0);
        let points = dice.scatter(&hoop, 4000).unwrap();
        assert_eq!(points.len(), 4000);
        assert!(points.iter().all(|p| (30.0..=50.0).contains(&p.distance(pt(10.0, 20.0)))));
        // Even: as many in each quarter, and half of them within the circle that halves the area.
        let right = points.iter().filter(|p| p.x > 10.0).count();
        let middle = (0.5 * (2500.0 + 900.0_f64)).sqrt();
        let inner = points.iter().filter(|p| p.distance(pt(10.0, 20.0)) < middle).count();
        assert!((1850..2150).contains(&right) && (1850..2150).contains(&inner), "{right} {inner}");
        assert_eq!(dice.inside(Path::empty()).unwrap(), None);
        assert_eq!(dice.inside(start((0.0, 0.0)).line((5.0, 5.0)).open()).unwrap(), None);
    }

    #[test]
    fn blue_noise_keeps_its_distance_and_leaves_no_gap() {
        let mut dice = Dice::new(3, "dots");
        let two = circle((0.0, 0.0), 40.0).and(&circle((200.0, 0.0), 40.0));
        let dots = dice.scatter_apart(&two, 6.0).unwrap();
        for (i, a) in dots.iter().enumerate() {
            assert!(two.inside(*a));
            assert!(dots[i + 1..].iter().all(|b| a.distance(*b) >= 6.0));
        }
        // Both discs are full: no spot is farther than two distances from a dot.
        for spot in dice.scatter(&two, 2000).unwrap() {
            assert!(dots.iter().any(|dot| dot.distance(spot) < 12.0), "{spot}");
        }
        assert!(dice.scatter_apart(&two, 0.0).unwrap().is_empty());
        let pinned = Dice::new(1, "dots").scatter_apart(rectangle((0.0, 0.0), 40.0, 40.0), 9.0).unwrap();
        let sum: Point = pinned.iter().sum();
        assert_eq!(format!("{} {:.6} {:.6}", pinned.len(), sum.x, sum.y), "15 320.451555 308.232065");
    }

    #[test]
    fn conditions_that_never_hold_end() {
        let mut dice = Dice::new(1, "never");
        let mut made = 0;
        let told = dice.keep_if(50, |_| made += 1, |()| false).unwrap_err();
        assert_eq!(told.to_string(), "none of 50 tries was kept; ease the condition, or give more tries");
        assert_eq!(made, 50);
        assert!(dice.keep_if(50, |dice| dice.whole(1, 6), |n| *n == 6).is_ok());
    }
}

mod wander {
    use chordane::chance::*;

    #[test]
    fn wandering_is_pinned_smooth_and_within_its_range() {
        let dice = Dice::new(1, "gust");
        let shown = format!(
            "{:.6} {:.6} {:.6}",
            dice.wander(0.5),
            dice.wander_over(0.3, 7.6),
            dice.wander_loop(0.2, 6.0)
        );
        assert_eq!(shown, "-0.238795 -0.236929 -0.057237");
        // Where people look first it is not nothing.
        assert!(
            (0..20).all(|i| dice.wander(f64::from(i)) != 0.0 && dice.wander_over(f64::from(i), 3.0) != 0.0)
        );
        let (mut low, mut high) = (0.0_f64, 0.0_f64);
        for i in 0..200_000 {
            let x = f64::from(i) * 0.01 - 1000.0;
            let (here, there) = (dice.wander(x), dice.wander(x + 1e-6));
            assert!((here - there).abs() < 1e-4 && here.abs() <= 1.0);
            let (here, there) = (dice.wander_over(x, 0.7 * x), dice.wander_over(x + 1e-6, 0.7 * x));
            assert!((here - there).abs() < 1e-4 && here.abs() <= 1.0);
            (low, high) = (low.min(here), high.max(here));
        }
        assert!(low < -0.8 && high > 0.8, "{low} {high}");
        assert_eq!(dice.wander(f64::NAN), 0.0);
        assert!(dice.wander(1e300).abs() <= 1.0);
        assert!((dice.wander_loop(0.0, 8.0) - dice.wander_loop(1.0 - 1e-9, 8.0)).abs() < 1e-6);
        assert_ne!(dice.wander(0.5), Dice::new(2, "gust").wander(0.5));
    }
}
