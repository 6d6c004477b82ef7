//! From one path to another: ends, corners, holes, twists.

use crate::support::any_path;
use chordane::prelude::*;
use proptest::prelude::*;

proptest! {
    #![proptest_config(crate::support::cases(150))]

    #[test]
    fn near_its_ends_a_morph_is_near_its_paths(a in any_path(60.0), b in any_path(60.0)) {
        let way = a.morph(&b);
        prop_assert_eq!(&way.at(0.0), &a);
        prop_assert_eq!(&way.at(1.0), &b);
        for (share, path) in [(1e-7, &a), (1.0 - 1e-7, &b)] {
            let near = way.at(share);
            prop_assert!(near.sound().is_ok());
            // Contours that shrink to a point add next to nothing.
            let (length, whole) = (near.length().unwrap(), path.length().unwrap());
            let other = a.length().unwrap() + b.length().unwrap();
            prop_assert!((length - whole).abs() <= 1e-3 * whole.max(1.0) + 1e-5 * other, "{} {}", length, whole);
        }
    }
}

#[test]
fn corners_stay_corners_and_nothing_twists() {
    let sail = rectangle((0.0, 0.0), 40.0, 40.0);
    // The same square begun at another corner, run the other way: it stays where it is all the way.
    let same = Path::closed([(40.0, 40.0), (40.0, 0.0), (0.0, 0.0), (0.0, 40.0)]);
    let half = sail.morphed(&same, 0.5);
    assert!((half.area().unwrap() - 1600.0).abs() < 1e-9, "{}", half.data());
    // A triangle and a square: three corners go to corners, and all sides stay straight.
    let triangle = Path::closed([(20.0, -10.0), (50.0, 40.0), (-10.0, 40.0)]);
    let between = sail.morphed(&triangle, 0.5);
    assert!(between.segments().all(|segment| matches!(segment, Segment::Line { .. })));
    assert!(between.contours()[0].vertex_count() <= 5, "{}", between.data());
    let hoop = circle((0.0, 0.0), 20.0);
    let larger = hoop.morphed(&circle((0.0, 0.0), 40.0).rotated(deg(77.0)), 0.5);
    for station in larger.survey().unwrap().split(100, true) {
        assert!((station.point().length() - 30.0).abs() < 0.1, "{}", station.point());
    }
}

#[test]
fn holes_grow_from_a_point_and_contours_find_their_partners() {
    let sail = rectangle((0.0, 0.0), 60.0, 60.0);
    let vented = sail.clone().with_hole(circle((30.0, 30.0), 10.0));
    let quarter = sail.morphed(&vented, 0.25);
    assert_eq!(quarter.contours().len(), 2);
    let hole = std::f64::consts::PI * 2.5 * 2.5;
    assert!((quarter.area().unwrap() - (3600.0 - hole)).abs() < 0.1, "{}", quarter.area().unwrap());
    let pair = circle((0.0, 0.0), 10.0).and(&circle((100.0, 0.0), 30.0));
    let swapped = circle((100.0, 5.0), 28.0).and(&circle((0.0, 5.0), 12.0));
    let half = pair.morphed(&swapped, 0.5);
    let middles: Vec<f64> =
        half.contours().iter().map(|contour| contour.bounds().centre().x.round()).collect();
    assert!(middles.iter().all(|x| *x == 0.0 || *x == 100.0), "{middles:?}");
    assert!(Path::empty().morphed(&sail, 0.5).area().unwrap() < 1000.0);
    assert!(Path::empty().morphed(&Path::empty(), 0.5).is_empty());
    assert_eq!(
        sail.morphed(&vented, f64::NAN).sound().unwrap_err().to_string(),
        "`morphed`: the share NaN is not finite; give a finite number"
    );
}
