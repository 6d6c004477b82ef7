//! Combining shapes: areas add up, every spot is where it belongs, and what coincides gives no slivers.

use crate::coverage::drawn_coverage;
use crate::support::{any_path, point};
use chordane::prelude::*;
use proptest::prelude::*;

/// Shapes whose sides and curves coincide, touch and cross in the same few places.
fn on_squared_paper() -> impl Strategy<Value = Path> {
    let at = || (0..7_i32, 0..7_i32).prop_map(|(x, y)| pt(f64::from(x) * 10.0, f64::from(y) * 10.0));
    let polygon = prop::collection::vec(at(), 3..9).prop_map(Path::closed);
    let box_of = (at(), 1..4_i32, 1..4_i32)
        .prop_map(|(p, w, h)| rectangle(p, f64::from(w) * 10.0, f64::from(h) * 10.0));
    let disc = (at(), 1..4_i32).prop_map(|(p, r)| circle(p, f64::from(r) * 10.0));
    let turned = (at(), 0..4_i32).prop_map(|(p, quarter)| {
        pie(p, 20.0, deg(f64::from(quarter) * 90.0), deg(90.0 * f64::from(1 + quarter % 3)))
    });
    let bow = (at(), at(), at()).prop_map(|(a, b, c)| start(a).quad(b, c).close());
    let one = prop_oneof![3 => polygon, 2 => box_of, 2 => disc, 1 => turned, 1 => bow];
    (prop::collection::vec(one, 1..4), any::<bool>()).prop_map(|(all, even)| {
        let path = all.iter().fold(Path::empty(), |path, one| path.and(one));
        if even { path.with_fill_rule(FillRule::EvenOdd) } else { path }
    })
}

fn shapes() -> impl Strategy<Value = Path> {
    prop_oneof![3 => on_squared_paper(), 2 => any_path(60.0)]
}

/// Whether a spot is too near to a line to ask on which side it is.
fn on_the_line(paths: &[&Path], spot: Point) -> bool {
    paths.iter().any(|path| path.segments().any(|segment| segment.distance(spot) < 1e-5))
}

proptest! {
    #![proptest_config(crate::support::cases(300))]

    #[test]
    fn areas_add_up(a in shapes(), b in shapes(), spots in prop::collection::vec(point(60.0), 12)) {
        let (both, shared) = (a.union(&b), a.intersection(&b));
        let (left, either) = (a.difference(&b), a.xor(&b));
        let area = |path: &Path| path.signed_area();
        let alone = area(&a.simplified()) + area(&b.simplified());
        let size = both.bounds().map_or(1.0, |bounds| bounds.size().length_squared()).max(1.0);
        let near = |x: f64, y: f64| (x - y).abs() <= 1e-8 * size;
        prop_assert!(near(area(&both) + area(&shared), alone), "{} {}", area(&both) + area(&shared), alone);
        prop_assert!(near(area(&left) + area(&shared), area(&a.simplified())));
        prop_assert!(near(area(&either) + area(&shared), area(&both)));
        for spot in spots {
            if on_the_line(&[&a, &b], spot) {
                continue;
            }
            let (p, q) = (a.inside(spot), b.inside(spot));
            prop_assert_eq!(both.inside(spot), p || q, "union at {}", spot);
            prop_assert_eq!(shared.inside(spot), p && q, "intersection at {}", spot);
            prop_assert_eq!(left.inside(spot), p && !q, "difference at {}", spot);
            prop_assert_eq!(either.inside(spot), p != q, "xor at {}", spot);
            let winding = both.winding(spot);
            prop_assert!(winding == 0 || winding == 1, "{}", winding);
        }
    }

    /// The pixel filler says what is where: in a pixel that both shapes fill wholly or not at all there is no doubt.
    #[test]
    fn every_pixel_is_as_both_inputs_say(a in shapes(), b in shapes()) {
        const SIZE: u32 = 48;
        let painted = |path: &Path| drawn_coverage(path.clone().fill("black"), SIZE);
        let (first, second) = (painted(&a), painted(&b));
        type Rule = fn(bool, bool) -> bool;
        let ways: [(Path, Rule); 4] = [
            (a.union(&b), |p, q| p || q),
            (a.intersection(&b), |p, q| p && q),
            (a.difference(&b), |p, q| p && !q),
            (a.xor(&b), |p, q| p != q),
        ];
        let plain = |coverage: f64| coverage == 0.0 || coverage == 1.0;
        for (path, keep) in ways {
            for (i, got) in painted(&path).into_iter().enumerate() {
                if plain(first[i]) && plain(second[i]) {
                    let expected = f64::from(u8::from(keep(first[i] == 1.0, second[i] == 1.0)));
                    // A contour that only touches a pixel may round to nothing in one and to a step in the other.
                    prop_assert!((got - expected).abs() <= 4.0 / 255.0, "pixel {} is {}", i, got);
                }
            }
        }
    }

    #[test]
    fn a_cut_line_adds_up(line in any_path(60.0), area in shapes()) {
        let (inside, outside) = (line.clip_line(&area), line.clip_line_outside(&area));
        let length = |path: &Path| path.length().unwrap();
        let whole = length(&line);
        let sum = length(&inside) + length(&outside);
        prop_assert!((sum - whole).abs() <= 1e-6 * whole.max(1.0), "{} {}", sum, whole);
        for (parts, expected) in [(&inside, true), (&outside, false)] {
            for segment in parts.segments() {
                let spot = segment.at(0.37);
                let off_the_rim = area.distance(spot).unwrap() > 1e-5 && !on_the_line(&[&area], spot);
                let closing = area.contours().iter().any(|contour| {
                    let side = Segment::Line { from: contour.end(), to: contour.start() };
                    side.distance(spot) < 1e-5
                });
                if off_the_rim && !closing {
                    prop_assert_eq!(area.inside(spot), expected, "{}", spot);
                }
            }
        }
    }

    #[test]
    fn a_shape_and_itself(a in shapes()) {
        let plain = a.simplified();
        prop_assert!(a.difference(&a).is_empty(), "{}", a.difference(&a).data());
        prop_assert!(a.xor(&a).is_empty());
        for same in [a.union(&a), a.intersection(&a), plain.simplified()] {
            prop_assert!((same.signed_area() - plain.signed_area()).abs() <= 1e-6);
        }
    }
}

#[test]
fn curves_stay_curves() {
    let lens = circle((0.0, 0.0), 10.0).intersection(circle((12.0, 0.0), 10.0));
    assert!(lens.segments().all(|segment| matches!(segment, Segment::Arc(_))), "{}", lens.data());
    let bitten = circle((0.0, 0.0), 10.0).difference(circle((0.0, 9.0), 4.0));
    assert!(bitten.segments().all(|segment| matches!(segment, Segment::Arc(_))), "{}", bitten.data());
    let swell = start((0.0, 0.0)).cubic((30.0, -40.0), (60.0, 40.0), (90.0, 0.0)).line((45.0, 80.0)).close();
    let cut = swell.difference(rectangle((40.0, -50.0), 10.0, 200.0));
    let kinds = cut.segments().filter(|segment| matches!(segment, Segment::Cubic { .. })).count();
    assert_eq!((cut.contours().len(), kinds), (2, 2), "{}", cut.data());
}

/// A cubic that comes back to its start is a loop, also where rounding puts the place at which it crosses itself before its
/// start.
#[test]
fn loops_that_come_back_to_their_start_are_areas() {
    let hooks = [(-24.0, 62.0, 124.0, 100.0), (-24.416_342_412_451_36, 62.5, 124.420_920_119_020_37, 100.0)];
    for (a, b, c, d) in hooks {
        let hook = start((0.0, 0.0)).cubic((a, b), (c, d), (0.0, 0.0)).close();
        let area = hook.signed_area().abs();
        assert!(area > 1000.0 && (hook.simplified().signed_area() - area).abs() < 1e-6);
        assert_eq!(hook.crossings().unwrap(), []);
        let tailed = start((-25.0, -24.0))
            .line((0.0, 0.0))
            .cubic((a, b), (c, d), (0.0, 0.0))
            .line((-23.0, 0.0))
            .close();
        assert!((tailed.simplified().signed_area() - tailed.area().unwrap()).abs() < 1e-6);
        assert!((tailed.area().unwrap() - area - 276.0).abs() < 1e-6);
    }
}

/// An arc of exactly half a turn, as radii that are too short make it, is the same arc in the frame in which combining looks at
/// it: here a curve all but touches it.
#[test]
fn half_turns_by_too_short_radii() {
    let sail = Path::from_data(
        "M122.07255664911878 0Q50-21.48661020828565 0-12.69741359578851-24.535362783245592 50 0 100-23.23071641107805-22.067978942549782 0 15 50 50 66.66666666666667 0 50 100 22.5 124.41634241245137A52.5 22.653925383382926 7.5 1 1 124.82146944380865 50",
    );
    let tail = Path::from_data(
        "M50-21.914625772487984C124.70016021972992 50 0 2.5 124.41634241245137-24.41634241245136Q0 0 37.126344701304646 125Z",
    );
    let (sail, tail) = (sail.unwrap().with_fill_rule(FillRule::EvenOdd), tail.unwrap());
    let area = |path: Path| path.signed_area();
    let (all, both) = (area(sail.union(&tail)), area(sail.intersection(&tail)));
    let parts = area(sail.simplified()) + area(tail.simplified());
    assert!((all + both - parts).abs() < 1e-6, "{} of {parts}", all + both);
}

#[test]
fn what_touches_shares_or_covers() {
    let sail = rectangle((0.0, 0.0), 10.0, 10.0);
    // A shared side, a corner that touches, one inside the other, and apart.
    assert_eq!(sail.union(rectangle((10.0, 0.0), 5.0, 10.0)).data(), "M0 0H15V10H0Z");
    assert_eq!(sail.union(rectangle((10.0, 10.0), 5.0, 5.0)).contours().len(), 2);
    assert_eq!(sail.union(rectangle((2.0, 2.0), 5.0, 5.0)).data(), sail.data());
    assert_eq!(sail.difference(rectangle((2.0, 2.0), 5.0, 5.0)).data(), "M0 0H10V10H0ZM2 2V7H7V2Z");
    assert!(sail.intersection(rectangle((20.0, 0.0), 5.0, 5.0)).is_empty());
    assert!(sail.intersection(rectangle((10.0, 0.0), 5.0, 5.0)).is_empty());
    assert!(Path::empty().union(Path::empty()).is_empty());
    assert_eq!(sail.union(Path::empty()).data(), sail.data());
    // The same circle begun elsewhere, and run the other way.
    let hoop = circle((3.0, 4.0), 10.0);
    let turned = hoop.rotated_about((3.0, 4.0), deg(31.0)).reversed();
    assert!(hoop.difference(&turned).is_empty(), "{}", hoop.difference(&turned).data());
    assert!((hoop.union(&turned).area().unwrap() - hoop.area().unwrap()).abs() < 1e-8);
    // A tangent circle inside leaves a crescent in one piece.
    let crescent = circle((0.0, 0.0), 10.0).difference(circle((5.0, 0.0), 5.0));
    assert!((crescent.area().unwrap() - 75.0 * std::f64::consts::PI).abs() < 1e-8);
    // Sides a hair apart count as one.
    let hair = sail.union(rectangle((10.0 + 1e-12, 1e-12), 5.0, 10.0));
    assert_eq!(hair.contours().len(), 1, "{}", hair.data());
    assert!((hair.area().unwrap() - 150.0).abs() < 1e-8);
}

#[test]
fn many_at_once_are_what_one_after_the_other_gives() {
    let all: Vec<Path> = (0..40)
        .map(|i| {
            let at = polar(deg(f64::from(i) * 137.5), 6.0 * f64::from(i).sqrt());
            let one = if i % 3 == 0 { star(at, 5, 9.0, 4.0) } else { circle(at, 6.0) };
            if i % 2 == 0 { one } else { one.reversed() }
        })
        .collect();
    let together = union_all(&all);
    let one_by_one = all.iter().fold(Path::empty(), |sum, one| sum.union(one));
    assert!((together.area().unwrap() - one_by_one.area().unwrap()).abs() < 1e-6);
    assert!(together.xor(&one_by_one).area().unwrap() < 1e-6);
    assert!(union_all(Vec::<Path>::new()).is_empty());
}

#[test]
fn sizes_at_both_ends_of_the_numbers() {
    let (a, b) = (circle((0.0, 0.0), 10.0), rectangle((0.0, 0.0), 20.0, 20.0));
    for factor in [1e-200, 1e-6, 1.0, 1e9, 1e200, 1e300] {
        let both = a.scaled(factor).union(b.scaled(factor)).scaled(1.0 / factor);
        let area = both.signed_area();
        assert!((area - (400.0 + 75.0 * std::f64::consts::PI)).abs() < 1e-6, "{factor}: {area}");
    }
    let far = pt(1e9, -1e9);
    let both = a.moved(far).intersection(b.moved(far)).moved(-far);
    assert!((both.signed_area() - 25.0 * std::f64::consts::PI).abs() < 1e-3, "{}", both.data());
}

#[test]
fn a_fault_is_carried_along() {
    let fault = rectangle((f64::NAN, 0.0), 1.0, 1.0).union(circle((0.0, 0.0), 1.0));
    assert!(fault.sound().unwrap_err().to_string().starts_with("`rectangle`"));
}
