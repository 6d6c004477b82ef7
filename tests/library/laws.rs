//! Laws that hold for any shapes: the algebra of sets, and ways there that lead back.

use crate::support::{any_path, point};
use chordane::prelude::*;
use chordane::read::SvgReading;
use proptest::prelude::*;

/// How much of a picture two paths do not share, against the size of the picture.
fn apart(a: &Path, b: &Path) -> f64 {
    a.xor(b).signed_area() / 3600.0
}

/// Where the middle of the paper is, the numbers are handsome: shapes that share sides, corners and centres.
fn shapes() -> impl Strategy<Value = Path> {
    let at = || (0..6_i32, 0..6_i32).prop_map(|(x, y)| pt(f64::from(x) * 10.0, f64::from(y) * 10.0));
    prop_oneof![
        2 => (at(), 1..4_i32, 1..4_i32).prop_map(|(p, w, h)| rectangle(p, f64::from(w) * 10.0, f64::from(h) * 10.0)),
        2 => (at(), 1..3_i32).prop_map(|(p, r)| circle(p, f64::from(r) * 10.0)),
        1 => (at(), 3..8_usize).prop_map(|(p, tips)| star(p, tips, 20.0, 10.0)),
        1 => prop::collection::vec(at(), 3..7).prop_map(Path::closed),
        1 => any_path(60.0),
    ]
}

proptest! {
    #![proptest_config(crate::support::cases(80))]

    #[test]
    fn combining_is_an_algebra_of_sets(a in shapes(), b in shapes(), c in shapes()) {
        const SAME: f64 = 1e-7;
        prop_assert!(apart(&a.union(&b), &b.union(&a)) <= SAME, "either order");
        prop_assert!(apart(&a.intersection(&b), &b.intersection(&a)) <= SAME, "either order");
        prop_assert!(apart(&a.union(&b).union(&c), &a.union(b.union(&c))) <= SAME, "any brackets");
        prop_assert!(apart(&a.xor(&b).xor(&c), &a.xor(b.xor(&c))) <= SAME, "any brackets");
        let spread = a.intersection(&c).union(b.intersection(&c));
        prop_assert!(apart(&a.union(&b).intersection(&c), &spread) <= SAME, "spread over a union");
        prop_assert!(apart(&a.difference(b.union(&c)), &a.difference(&b).difference(&c)) <= SAME, "one after the other");
        prop_assert!(apart(&a.xor(&b), &a.union(&b).difference(a.intersection(&b))) <= SAME, "either, not both");
        prop_assert!(apart(&a.union(a.intersection(&b)), &a) <= SAME, "what is in it adds nothing");
        prop_assert!(apart(&a.simplified().simplified(), &a.simplified()) <= SAME, "plain stays plain");
        prop_assert!(apart(&a.xor(&b).xor(&b), &a) <= SAME, "twice is not at all");
        prop_assert!(apart(&union_all([&a, &b, &c]), &a.union(&b).union(&c)) <= SAME, "all at once");
    }

    #[test]
    fn what_is_combined_moves_along(a in shapes(), b in shapes(), angle in 0.0..360.0_f64, step in point(60.0)) {
        let carried = |path: &Path| path.rotated(deg(angle)).scaled(1.75).moved(step);
        let before = carried(&a.union(&b));
        let after = carried(&a).union(carried(&b));
        prop_assert!((before.signed_area() - after.signed_area()).abs() <= 1e-6 * 3600.0);
        prop_assert!(apart(&before, &after) <= 1e-6);
    }

    #[test]
    fn transforms_lead_back(path in any_path(60.0), angle in 0.0..360.0_f64, by in 0.1..9.0_f64, step in point(60.0)) {
        let back = path.moved(step).rotated(deg(angle)).scaled(by).scaled(1.0 / by).rotated(deg(-angle)).moved(-step);
        for (a, b) in path.segments().zip(back.segments()) {
            for t in [0.0, 0.3, 1.0] {
                prop_assert!(a.at(t).distance(b.at(t)) < 1e-9);
            }
        }
        prop_assert_eq!(&path.reversed().reversed(), &path);
        let about = path.rotated_about(step, deg(angle)).rotated_about(step, deg(-angle));
        prop_assert!((about.signed_area() - path.signed_area()).abs() < 1e-6);
    }

    #[test]
    fn finer_pieces_are_the_same_line(path in any_path(60.0), pieces in 2..6_usize, spots in prop::collection::vec(point(60.0), 5)) {
        let finer = path.subdivided(pieces);
        let length = path.length().unwrap();
        prop_assert!((finer.length().unwrap() - length).abs() <= 1e-7 * length.max(1.0));
        prop_assert!((finer.signed_area() - path.signed_area()).abs() < 1e-6);
        for spot in spots {
            let (a, b) = (path.distance(spot).unwrap(), finer.distance(spot).unwrap());
            prop_assert!((a - b).abs() < 1e-6, "{} {}", a, b);
            if a > 1e-6 {
                prop_assert_eq!(path.inside(spot), finer.inside(spot));
            }
        }
    }

    #[test]
    fn blends_and_morphs_end_where_they_should(path in any_path(60.0), other in any_path(60.0), share in 0.0..1.0_f64) {
        let (one, two) = (Round::new(4.0), Round::new(9.0));
        let at = |share: f64| path.then(Blend::new(one, two, share));
        let near = |a: &Path, b: &Path| {
            a.segments().all(|segment| b.is_empty() || b.distance(segment.at(0.5)).unwrap() < 1e-3)
        };
        prop_assert!(near(&at(0.0), &path.then(one)));
        prop_assert!(near(&at(1.0), &path.then(two)));
        let way = path.morph(&other);
        prop_assert!(near(&way.at(0.0), &path) && near(&way.at(1.0), &other));
        prop_assert!(way.at(share).sound().is_ok());
    }

    #[test]
    fn a_document_leads_back(path in any_path(60.0), width in 0.5..6.0_f64, even in any::<bool>()) {
        let path = if even { path.with_fill_rule(FillRule::EvenOdd) } else { path };
        let page = sheet(60.0, 60.0).add(path.fill("#207060").stroke("#602010", width));
        let SvgReading { sheet: back, notes, .. } = Sheet::read_svg(page.svg().unwrap().as_bytes()).unwrap();
        prop_assert!(notes.is_empty(), "{:?}", notes);
        // Numbers are written to four places: the pictures differ by next to nothing.
        let (a, b) = (page.pixels().unwrap(), back.pixels().unwrap());
        for (i, (p, q)) in a.as_slice().iter().zip(b.as_slice()).enumerate() {
            for (x, y) in p.iter().zip(q) {
                prop_assert!(x.abs_diff(*y) <= 3, "pixel {}: {:?} {:?}", i, p, q);
            }
        }
    }

    #[test]
    fn chains_are_read_in_order(path in any_path(60.0), radius in 0.5..9.0_f64, dash in 2.0..12.0_f64) {
        let steps = path.then(Round::new(radius)).then(Dash::new([dash, 3.0])).then(Mirror::new((30.0, 0.0), deg(90.0)));
        let named = path.rounded(radius).dashed([dash, 3.0]).mirrored((30.0, 0.0), deg(90.0));
        prop_assert_eq!(&steps, &named);
        // Any function of a path is a step, and gives the same as when called.
        prop_assert_eq!(path.then(ReshapeFn(|path: &Path| path.rounded(radius))), path.rounded(radius));
    }
}
