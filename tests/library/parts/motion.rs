//! Single routines of `chordane::motion`.

mod keys {
    use chordane::motion::*;

    /// The values at some phases, to six places.
    fn at<const N: usize>(keys: &Keys<f64>, phases: [f64; N]) -> [f64; N] {
        phases.map(|phase| (keys.at(phase).unwrap_or(f64::NAN) * 1e6).round() / 1e6)
    }

    #[test]
    fn keys_are_reached_and_left() {
        let plain = keys([(0.2, 10.0), (0.6, 30.0)]);
        assert_eq!(at(&plain, [0.0, 0.2, 0.4, 0.6, 1.0]), [10.0, 10.0, 20.0, 30.0, 30.0]);
        let looped = plain.clone().looped();
        assert_eq!(at(&looped, [0.6, 0.9, 0.0, 0.2, 1.0]), [30.0, 20.0, 16.666_667, 10.0, 16.666_667]);
        let back = plain.there_and_back();
        assert_eq!(
            at(&back, [0.1, 0.2, 0.3, 0.5, 0.7, 0.8, 0.9]),
            [10.0, 20.0, 30.0, 30.0, 30.0, 20.0, 10.0]
        );
        let ends = keys([(0.0, 0.0), (1.0, 8.0)]);
        assert_eq!(at(&ends, [0.0, 0.5, 1.0]), [0.0, 4.0, 8.0]);
        assert_eq!(at(&ends.clone().repeated(2.0), [0.25, 0.5, 0.75, 1.0]), [4.0, 0.0, 4.0, 8.0]);
        assert_eq!(at(&ends.clone().delayed(0.25), [0.25, 0.5, 0.0]), [0.0, 2.0, 6.0]);
        assert_eq!(at(&ends.clone().looped(), [0.0, 0.5, 1.0]), [0.0, 4.0, 0.0]);
        assert_eq!(keys([(0.3, 5.0)]).looped().at(0.9), Some(5.0));
        assert_eq!(keys(Vec::<(f64, f64)>::new()).at(0.5), None);
        assert_eq!(ends.at(f64::NAN), Some(0.0));
    }

    #[test]
    fn each_stretch_is_eased() {
        let eased = keys([(0.0, 0.0), (0.5, 1.0), (1.0, 3.0)]).eased("ease-in").stretch(1, "step-end");
        assert_eq!(eased.at(0.25), Some(Easing::from("ease-in").at(0.5)));
        assert_eq!((eased.at(0.9), eased.at(1.0)), (Some(1.0), Some(3.0)));
        let told = |keys: Keys<f64>| keys.sound().unwrap_err().to_string();
        assert_eq!(
            told(keys([(0.0, 0.0)]).stretch(1, "ease")),
            "`stretch`: no stretch begins at key 1; give 0 to 0"
        );
        assert!(told(keys([(0.0, 0.0)]).eased("eas")).contains("is not an easing"));
        assert_eq!(
            told(keys([(0.5, 0.0), (0.2, 1.0)])),
            "`keys`: key 1 is at 0.2, and the one before it at 0.5; give them in the order of their times"
        );
        assert_eq!(told(keys([(1.5, 0.0)])), "`keys`: the time 1.5 is out of range; give 0 to 1");
        assert!(told(keys([(0.5, f64::NAN)])).contains("not finite"));
        assert_eq!(
            told(keys([(0.5, 1.0)]).repeated(0.0)),
            "`repeated`: the count 0 is not positive; give more than 0"
        );
    }
}

mod timeline {
    use chordane::motion::*;

    #[test]
    fn spans_lie_where_they_were_put() {
        let line = timeline().then("a", 2.0).after(1.0, "b", 1.0).after(-1.0, "c", 2.0);
        assert_eq!(line.length(), 5.0);
        assert_eq!([0.0, 0.2, 0.4, 1.0].map(|phase| line.share("a", phase)), [0.0, 0.5, 1.0, 1.0]);
        assert_eq!([0.6, 0.7, 0.8].map(|phase| (line.share("b", phase) * 100.0).round()), [0.0, 50.0, 100.0]);
        assert_eq!([0.6, 0.8, 1.0].map(|phase| (line.share("c", phase) * 100.0).round()), [0.0, 50.0, 100.0]);
        assert_eq!(line.find("a", 0), Ok(()));
        let told = |name: &str, number: usize| line.find(name, number).unwrap_err().to_string();
        assert_eq!(told("rising", 0), "`share`: there is no span \"rising\"; the spans are a, b, c");
        assert_eq!(told("a", 3), "`share`: there is no span 3 of \"a\"; give 0 to 0");
        let wrong = timeline().then("a", 0.0).sound().unwrap_err().to_string();
        assert_eq!(wrong, "`then`: the length 0 is not positive; give more than 0");
        assert_eq!(timeline().share("a", 0.5), 0.0);
        assert!(timeline().staggered("a", 1 << 30, 1.0, 0.1).sound().is_err());
    }
}
