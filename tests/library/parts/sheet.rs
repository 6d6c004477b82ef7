//! Single routines of `chordane::sheet`.

mod paper {
    use chordane::ground::short;
    use chordane::path::Path;
    use chordane::prelude::*;

    #[test]
    fn lines_stand_at_the_multiples_of_the_step() {
        let page = sheet(100.0, 60.0).add(paper(&cell((0.0, 0.0), 100.0, 60.0), 10.0));
        let lines: Vec<Path> = page.items().map(|item| item.path()).take(2).collect();
        let count: usize = lines.iter().map(|path| path.contours().len()).sum();
        assert_eq!(count, 9 + 5);
        let at: Vec<f64> = lines.iter().flat_map(|path| path.contours()).map(|line| line.start().x).collect();
        assert!(at.iter().all(|x| x % 10.0 == 0.0), "{at:?}");
        // Numbers computed with a step that has no exact double are the numbers that were meant.
        assert_eq!(short(3.0 * 0.1, 6), "0.3");
        assert_eq!(page.check().unwrap().findings, []);
    }

    #[test]
    fn what_cannot_be_is_a_fault_or_empty() {
        let fault = |step: f64| {
            let page = sheet(100.0, 60.0).add(paper(&cell((0.0, 0.0), 100.0, 60.0), step));
            page.sound().map(|_| ()).map_err(|fault| fault.to_string())
        };
        assert!(fault(0.0).unwrap_err().contains("step 0 is not positive"), "{:?}", fault(0.0));
        assert!(fault(f64::NAN).is_err() && fault(-3.0).is_err() && fault(1e-6).is_err());
        assert_eq!(fault(1e9), Ok(()), "none but an axis");
        assert!(paper(&cell((0.0, 0.0), 0.0, 60.0), 5.0).nodes().is_empty());
    }
}
