//! Single routines of `chordane::picture`.

mod contact {
    use chordane::picture::ContactAxes;
    use chordane::picture::*;
    use chordane::prelude::*;
    use chordane::sheet::sheet;

    #[test]
    fn tiles_of_any_size_and_number() {
        let one = |w: f64, h: f64| {
            (format!("{w}x{h}"), sheet(w, h).ground("teal").add(circle((0.0, 0.0), 500.0).fill("gold")))
        };
        assert_eq!(contact_sheet(&[], 4, None).size.x, 28.0);
        let faulty = ("no cloth".to_owned(), sheet(9.0, 9.0).ground("tael"));
        assert_eq!(contact_sheet(&[faulty], 1, None).sound().unwrap_err().call(), "ground");
        let many: Vec<_> = (0..100).map(|_| one(320.0, 200.0)).collect();
        assert_eq!(contact_sheet(&many, 100, None).size.x, 101.0 * 14.0 + 100.0 * 40.0);
        let sizes = [one(320.0, 200.0), one(1280.0, 200.0), one(200.0, 600.0)];
        let all = contact_sheet(&sizes, 3, None);
        assert_eq!(all.size.x, 1280.0);
        // What reaches over a tile's rim does not reach into the next.
        let pixels = all.pixels_with(&WriteOptions::default()).unwrap();
        assert_eq!(pixels.at(7, 100), Some([251, 248, 241, 255]));
        assert_eq!(contact_sheet(&sizes, 0, None).size.x, contact_sheet(&sizes, 1, None).size.x);
        let axes = ContactAxes {
            across: ("sag".to_owned(), vec!["0".to_owned(), "1".to_owned()]),
            down: ("tail".to_owned(), vec!["bows".to_owned(), "plain".to_owned()]),
        };
        let four = [one(10.0, 10.0), one(10.0, 10.0), one(10.0, 10.0), one(10.0, 10.0)];
        let grid = contact_sheet(&four, 2, Some(&axes));
        assert!(grid.svg().is_ok() && grid.nodes().len() == 16);
    }
}
