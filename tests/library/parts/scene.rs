//! Single routines of `chordane::scene`.

mod linked {
    use chordane::prelude::*;

    use chordane::sheet::Item;

    fn top_at(page: &Sheet, spot: Point) -> Option<String> {
        page.item_at(spot).and_then(|hit| hit.placed.item.name().map(str::to_owned))
    }

    #[test]
    fn every_loop_goes_over_and_under_in_turn() {
        let hoop = |i: usize| {
            let at = polar(turns(i as f64 / 6.0), 60.0);
            circle(at, 42.0).stroke("teal", 8.0).named(format!("hoop-{i}"))
        };
        let page = sheet(240.0, 240.0).centred().add(linked((0..6).map(hoop)));
        for i in 0..6 {
            let own = hoop(i);
            let mut met: Vec<(f64, bool)> = Vec::new();
            for j in (0..6).filter(|j| *j != i) {
                for crossing in own.path().crossings_with(hoop(j).path()).unwrap() {
                    let along = own.path().survey().unwrap().nearest(crossing.at).unwrap().distance();
                    let top = top_at(&page, crossing.at).unwrap();
                    // Where three hoops lie on one another there is no saying.
                    let many =
                        page.items_at(crossing.at).filter(|hit| hit.placed.item.name() == Some(&top)).count();
                    assert!(many > 0);
                    met.push((along, top == format!("hoop-{i}")));
                }
            }
            met.sort_by(|a, b| a.0.total_cmp(&b.0));
            assert!(met.len() > 3);
            assert!(met.windows(2).all(|pair| pair[0].1 != pair[1].1), "hoop {i}: {met:?}");
        }
    }

    #[test]
    fn bands_link_as_strokes_do_and_others_lie_as_given() {
        let band = |x: f64, name: &str| ring((x, 0.0), 30.0, 22.0).fill("gold").named(name);
        let page = sheet(200.0, 100.0).centred().add(linked([band(-20.0, "left"), band(20.0, "right")]));
        let crossing = pt(0.0, (26.0_f64 * 26.0 - 20.0 * 20.0).sqrt());
        let (above, below) = (top_at(&page, -crossing), top_at(&page, crossing));
        assert!(above != below && above.is_some() && below.is_some());
        assert_eq!(
            linked([circle((0.0, 0.0), 5.0).fill("red"), circle((90.0, 0.0), 5.0).fill("red")]).nodes().len(),
            2
        );
        assert_eq!(linked(Vec::<Item>::new()).nodes().len(), 0);
    }
}
