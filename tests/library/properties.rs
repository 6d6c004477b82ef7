//! Laws that hold for any path: there and back, bounds, areas.

use crate::support::{any_path, point};
use chordane::number::Cell;
use chordane::prelude::*;
use proptest::prelude::*;

/// Any finite number at all, also the odd ones.
fn any_number() -> impl Strategy<Value = f64> {
    prop_oneof![
        4 => -1e4..1e4_f64,
        2 => (-100_000..100_000_i32).prop_map(|steps| f64::from(steps) / 100.0),
        1 => prop::num::f64::NORMAL | prop::num::f64::SUBNORMAL | prop::num::f64::ZERO,
    ]
}

fn any_point() -> impl Strategy<Value = Point> {
    (any_number(), any_number()).prop_map(|(x, y)| pt(x, y))
}

/// A path of any finite numbers, arcs by their raw parts included.
fn raw_path() -> impl Strategy<Value = Path> {
    let contour = (
        any_point(),
        prop::collection::vec((0..6_u8, any_point(), any_point(), any_point()), 0..8),
        any::<bool>(),
    );
    prop::collection::vec(contour, 0..4).prop_map(|contours| {
        contours.into_iter().fold(Path::empty(), |path, (at, steps, closed)| {
            let pen = steps.into_iter().fold(path.start(at), |pen, (kind, a, b, c)| match kind {
                0 | 1 => pen.line(a),
                2 => pen.quad(a, b),
                3 => pen.cubic(a, b, c),
                4 => {
                    let here = pen.position();
                    pen.line((a.x, here.y))
                }
                _ => {
                    let here = pen.position();
                    pen.line((here.x, a.y))
                }
            });
            if closed { pen.close() } else { pen.open() }
        })
    })
}

/// Path data with arcs, whose parts only path data can say freely.
fn arc_data() -> impl Strategy<Value = String> {
    let arc = (any_point(), any_number(), any::<bool>(), any::<bool>(), any_point());
    (any_point(), prop::collection::vec(arc, 1..5)).prop_map(|(at, arcs)| {
        let mut data = format!("M{} {}", at.x, at.y);
        for (radii, tilt, large, clockwise, to) in arcs {
            let flags = format!("{} {}", u8::from(large), u8::from(clockwise));
            data += &format!("A{} {} {tilt} {flags} {} {}", radii.x, radii.y, to.x, to.y);
        }
        data
    })
}

/// Equal to the last bit: `==` alone would take 0 for -0.
fn assert_same_bits(a: &Path, b: &Path) -> Result<(), TestCaseError> {
    prop_assert_eq!(a, b);
    prop_assert_eq!(format!("{:?}", a.contours()), format!("{:?}", b.contours()));
    Ok(())
}

proptest! {
    #![proptest_config(crate::support::cases(60))]

    /// Whatever the numbers, every reshape and every way to combine ends, with a path or a fault.
    #[test]
    fn reshapes_end_whatever_the_numbers(a in raw_path(), b in raw_path(), x in any_number(), y in any_number()) {
        let all = [
            a.rounded(x),
            a.then(Round { eased: true, ..Round::new(x) }),
            a.then(Dash { offset: x, ..Dash::new([x, y]) }),
            a.then(Dash { fit: DashFit::Whole, ..Dash::new([x, y]) }),
            a.then(Dash { fit: DashFit::Corners, ..Dash::new([x, y]) }),
            a.trimmed(x, y),
            a.then(Trim { distances: true, each: true, offset: x, ..Trim::new(x, y) }),
            a.then(Stamp::new(b.clone()).every(x).drift(y)),
            a.then(Stamp::new(b.clone()).count(3).lead_in(x)),
            a.offset(x),
            a.then(Offset { both: true, join: Join::Round, ..Offset::new(x) }),
            a.then(LineStyle::new(1.0).tapered(move |share| x * share)),
            a.shaken(x, 1e4, 3),
            a.thinned(x),
            a.curve_fitted(x),
            a.subdivided(3),
            a.mirrored((x, y), deg(x)),
            a.spun(3, (x, y)),
            a.bent(&b),
            a.union(&b),
            a.difference(&b),
            a.clip_line(&b),
            a.morphed(&b, x),
        ];
        for path in &all {
            if path.sound().is_ok() {
                prop_assert!(path.contours().iter().flat_map(Contour::vertices).all(|p| p.is_finite()));
            }
        }
    }
}

proptest! {
    #![proptest_config(crate::support::cases(400))]

    #[test]
    fn what_is_written_reads_back_to_the_last_bit(path in raw_path()) {
        assert_same_bits(&Path::from_data(&path.data()).unwrap(), &path)?;
    }

    #[test]
    fn arcs_read_back_to_the_last_bit(data in arc_data()) {
        let path = Path::from_data(&data).unwrap();
        assert_same_bits(&Path::from_data(&path.data()).unwrap(), &path)?;
    }

    #[test]
    fn rounded_data_is_off_by_half_a_step_at_most(path in any_path(500.0), decimals in 0..6_usize) {
        let back = Path::from_data(&path.data_rounded(decimals)).unwrap();
        prop_assert_eq!(back.contours().len(), path.contours().len());
        let half = 0.5 / 10_f64.powi(decimals as i32) + 1e-9;
        for (a, b) in path.contours().iter().zip(back.contours()) {
            for (p, q) in a.vertices().zip(b.vertices()) {
                prop_assert!((p - q).abs().max_element() <= half, "{} and {}", p, q);
            }
        }
    }

    #[test]
    fn reversing_twice_is_the_identity(path in any_path(100.0)) {
        assert_same_bits(&path.reversed().reversed(), &path)?;
    }

    #[test]
    fn reversing_turns_the_sign_of_the_area(path in any_path(100.0)) {
        let (there, back) = (path.signed_area(), path.reversed().signed_area());
        prop_assert!((there + back).abs() < 1e-7, "{} and {}", there, back);
    }

    #[test]
    fn bounds_contain_every_sample_and_touch_the_curve(path in any_path(100.0)) {
        for segment in path.segments() {
            let bounds = segment.bounds();
            let mut sampled = Cell { min: segment.from(), max: segment.from() };
            for i in 0..=2000 {
                let p = segment.at(f64::from(i) / 2000.0);
                sampled = sampled.union(Cell { min: p, max: p });
            }
            let slack = 1e-9 * (1.0 + bounds.min.abs().max(bounds.max.abs()).max_element());
            prop_assert!(sampled.min.cmpge(bounds.min - slack).all(), "{:?} {:?}", sampled, bounds);
            prop_assert!(sampled.max.cmple(bounds.max + slack).all(), "{:?} {:?}", sampled, bounds);
            // Samples miss the farthest point by the bending within a step.
            let reach = 1e-3 * (1.0 + bounds.size().max_element() + segment.velocity(0.5).length());
            prop_assert!((sampled.min - bounds.min).max_element() <= reach, "{:?} {:?}", sampled, bounds);
            prop_assert!((bounds.max - sampled.max).max_element() <= reach, "{:?} {:?}", sampled, bounds);
        }
        if let (Some(tight), Some(control)) = (path.bounds(), path.control_bounds()) {
            prop_assert!(tight.min.cmpge(control.min - 1e-9).all() && tight.max.cmple(control.max + 1e-9).all());
        }
    }

    #[test]
    fn area_scales_by_the_determinant(
        corners in prop::collection::vec(point(50.0), 3..9),
        columns in prop::array::uniform6(-3.0..3.0_f64),
        bow in point(50.0),
    ) {
        let by = Affine::from_cols_array(&columns);
        let polygon = Path::closed(corners.clone());
        let curved = start(corners[0]).quad(bow, corners[1]).arc_about(bow, deg(100.0)).close();
        for path in [polygon, curved] {
            let want = path.signed_area() * by.matrix2.determinant();
            let got = path.transformed(&by).signed_area();
            prop_assert!((want - got).abs() < 1e-6 * (1.0 + want.abs()), "{} and {}", want, got);
        }
    }

    #[test]
    fn a_transform_and_its_inverse_lead_back(path in any_path(100.0), columns in prop::array::uniform4(0.2..3.0_f64)) {
        let by = Affine::from_cols_array(&[columns[0] + 3.0, columns[1], -columns[2], columns[3] + 3.0, 7.0, -9.0]);
        let back = path.transformed(&by).transformed(&by.inverse());
        for (a, b) in path.segments().zip(back.segments()) {
            for share in [0.0, 0.25, 0.5, 1.0] {
                // An arc is travelled at another pace after a squash and back; its ends stay.
                if share == 0.0 || share == 1.0 || !matches!(a, Segment::Arc(_)) {
                    prop_assert!((a.at(share) - b.at(share)).length() < 1e-8);
                }
            }
        }
    }

    #[test]
    fn splitting_and_joining_is_the_same_curve(path in any_path(100.0), t in 0.01..0.99_f64, s in 0.0..1.0_f64) {
        for segment in path.segments() {
            let (left, right) = segment.split(t);
            prop_assert_eq!(left.to(), right.from());
            prop_assert!((left.at(s) - segment.at(t * s)).length() < 1e-6);
            prop_assert!((right.at(s) - segment.at(t + (1.0 - t) * s)).length() < 1e-6);
        }
    }

    #[test]
    fn chords_stray_no_farther_than_the_tolerance(path in any_path(200.0), tolerance in 0.01..2.0_f64) {
        for segment in path.segments() {
            let single = Path::from_contours(one(&segment).contours().to_vec());
            let chords: Vec<Segment> = single.flattened(tolerance).segments().collect();
            for i in 0..=300 {
                let p = segment.at(f64::from(i) / 300.0);
                let nearest = chords.iter().map(|chord| distance(p, chord.from(), chord.to())).fold(f64::INFINITY, f64::min);
                prop_assert!(nearest <= tolerance * 1.001 + 1e-9, "{} from {:?}", nearest, segment);
            }
        }
    }
}

/// A path of one segment.
fn one(segment: &Segment) -> Path {
    match *segment {
        Segment::Line { from, to } => start(from).line(to).open(),
        Segment::Quad { from, control, to } => start(from).quad(control, to).open(),
        Segment::Cubic { from, control1, control2, to } => start(from).cubic(control1, control2, to).open(),
        Segment::Arc(arc) => Path::from_data(&format!(
            "M{} {}A{} {} {} {} {} {} {}",
            arc.from.x,
            arc.from.y,
            arc.radii.x,
            arc.radii.y,
            arc.tilt.degrees(),
            u8::from(arc.large),
            u8::from(arc.clockwise),
            arc.to.x,
            arc.to.y
        ))
        .unwrap(),
    }
}

fn distance(p: Point, a: Point, b: Point) -> f64 {
    let along = b - a;
    let share = if along == Point::ZERO {
        0.0
    } else {
        ((p - a).dot(along) / along.length_squared()).clamp(0.0, 1.0)
    };
    (p - a - along * share).length()
}

#[test]
fn cusps_loops_and_doubled_points_are_flattened_within_the_tolerance() {
    let hard = [
        "M0 0C100 100 0 100 100 0", // a loop that is nearly a cusp
        "M0 0C100 0 0 0 100 0",     // there, back and there again on one line
        "M0 0C0 0 0 0 50 20",
        "M0 0C50 100 50 -100 100 0",
        "M0 0Q100 0 0 0",
        "M0 0C80 80 20 80 100 0",
        "M0 0C0 0 0 0 0 0",
        "M0 0A1e-3 50 20 1 0 30 4",
        "M5 5A20 20 0 1 1 5.0001 5",
        // Doubles back so near its start that no longer chord strays more than a short one: the search for the first
        // chord gave up and took one that was too long.
        "M123.4787-8.8319Q135.8173-27.503 0 179.4017",
    ];
    for data in hard {
        let path = Path::from_data(data).unwrap();
        let chords: Vec<Segment> = path.flattened(0.1).segments().collect();
        assert!(chords.len() < 400, "{data} gave {} chords", chords.len());
        for segment in path.segments() {
            for i in 0..=1000 {
                let p = segment.at(f64::from(i) / 1000.0);
                let nearest =
                    chords.iter().map(|c| distance(p, c.from(), c.to())).fold(f64::INFINITY, f64::min);
                assert!(nearest <= 0.1001 || chords.is_empty(), "{data}: {nearest}");
            }
        }
    }
    // A tolerance of nothing gives many chords, not endlessly many.
    assert!(Path::from_data(hard[0]).unwrap().flattened(0.0).segments().count() <= 70_000);
}
