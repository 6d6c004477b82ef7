//! Nothing panics, whatever it is given; what cannot be comes back as a fault, what is merely empty as nothing.

use chordane::ground::FaultKind;
use chordane::measure::Direction;
use chordane::path::{Arc, Ends};
use chordane::prelude::*;
use chordane::raster::DrawError;

/// Numbers that break things.
const HARD: [f64; 10] = [0.0, -0.0, 1.0, -1.0, 0.5, 5e-324, 1e15, f64::MAX, f64::NAN, f64::NEG_INFINITY];

/// Every three of them where `PROPTEST_CASES` asks for a longer run; else one in three, in which every two of them are.
fn every_triple() -> impl Iterator<Item = (f64, f64, f64)> {
    let every = if std::env::var_os("PROPTEST_CASES").is_some() { 1 } else { 3 };
    HARD.into_iter()
        .flat_map(|a| HARD.into_iter().flat_map(move |b| HARD.into_iter().map(move |c| (a, b, c))))
        .step_by(every)
}

/// Everything that can be asked of a path, and everything that leaves the library.
fn use_all_of(path: &Path) {
    let finite = path.sound().is_ok();
    let bounds = path.bounds();
    for contour in path.contours() {
        assert!(!finite || contour.vertices().all(|p| p.is_finite()), "{path:?}");
        // Where there is no turn, nothing is enclosed.
        let flat = contour.direction() == Direction::Flat;
        assert!(
            !finite || !flat || contour.signed_area() == 0.0 || !contour.signed_area().is_finite(),
            "{path:?}"
        );
    }
    // What is so large that its digits end before a unit begins only has to come back.
    let small = |p: Point| p.abs().max_element() < 1e12;
    let tame = |segment: Segment| match segment {
        Segment::Arc(arc) => small(arc.radii) && small(arc.from) && small(arc.to),
        other => small(other.from()) && small(other.to()),
    };
    let tame = path.segments().all(tame);
    if finite && tame {
        assert_eq!(bounds.is_none(), path.is_empty(), "{path:?}");
        let within = |p: Point| bounds.is_some_and(|cell| cell.contains(p));
        assert!(path.contours().iter().flat_map(Contour::vertices).all(within), "{path:?}");
        assert!(!path.inside((0.1, 0.2)) || within(pt(0.1, 0.2)), "{path:?}");
        assert_eq!(path.reversed().reversed(), *path);
        let again = Path::from_data(&path.data()).unwrap_or_else(|error| panic!("{error}: {}", path.data()));
        assert_eq!(again.data(), path.data());
        assert!(Path::from_data(&path.data_rounded(3)).is_ok(), "{}", path.data_rounded(3));
    }
    let more = path.reversed().with_hole(path).and(path);
    assert_eq!(more.sound().is_ok(), finite, "{path:?}");
    // What is huge is cut into as many chords as there may be; a few of those are enough.
    let size = path.bounds().map_or(0.0, |bounds| bounds.size().max_element());
    // Also where the size of an arc is beyond all numbers.
    let tolerance = if size.is_nan() { 0.1 } else { (size * 1e-4).clamp(0.1, 1e300) };
    let flat = path.flattened(tolerance);
    assert_eq!(flat.contours().len(), path.contours().len());
    assert!(!finite || flat.segments().all(|side| matches!(side, Segment::Line { .. })), "{path:?}");
    let stroke = path.stroke_chords(
        &LineStyle {
            cap: Cap::Round,
            join: Join::Round,
            dash: vec![3.0, 2.0],
            dash_offset: 1.0,
            ..LineStyle::new(2.0)
        },
        tolerance,
    );
    assert!(stroke.contours().iter().all(Contour::is_closed), "{path:?}");
    let sheet = sheet(20.0, 16.0).add(path.clone().fill("teal").stroke("black", 1.5).dash([2.0, 1.0]));
    let svg = sheet.svg();
    assert_eq!(svg.is_ok(), finite, "{path:?}");
    if let Ok(svg) = svg {
        assert!(!svg.contains("NaN") && !svg.contains("inf"), "{svg}");
    }
    drawn(&sheet);
}

/// Draws a sheet: it is drawn where it is sound, but for what is too far out or too large; else its first fault comes back.
fn drawn(sheet: &Sheet) {
    match (sheet.sound().err(), sheet.pixels()) {
        (None, Ok(picture)) => {
            let size = (sheet.size * sheet.unit.pixels()).ceil();
            assert_eq!(
                (f64::from(picture.width()), f64::from(picture.height())),
                (size.x.max(1.0), size.y.max(1.0))
            );
        }
        (None, Err(DrawError::Fault(fault))) => {
            assert!(matches!(fault.kind(), FaultKind::TooFar { .. }), "{fault}")
        }
        (None, Err(error)) => assert!(matches!(error, DrawError::TooLarge { .. }), "{error}"),
        (Some(fault), Err(DrawError::Fault(told))) => assert_eq!(told.to_string(), fault.to_string()),
        (Some(fault), other) => panic!("{fault}, and {other:?}"),
    }
}

#[test]
fn shapes_of_hard_numbers() {
    for (a, b, c) in every_triple() {
        for shape in [
            circle((a, b), c),
            ellipse((1.0, 2.0), a, b),
            polygon((a, b), 5, c),
            star((1.0, a), 4, b, c),
            rectangle((a, 1.0), b, c),
            rounded_rectangle((1.0, 2.0), a, b, c),
            pie((a, 1.0), b, deg(c), deg(100.0)),
            chord_cut((1.0, 1.0), a, deg(b), turns(c)),
            ring_part((1.0, 1.0), a, b, deg(30.0), deg(c)),
            Arc::inscribed(&cell((a, 2.0), b, 4.0), deg(0.0), deg(300.0))
                .between_seen(deg(c), deg(200.0))
                .path(),
        ] {
            use_all_of(&shape);
        }
    }
}

#[test]
fn pens_of_hard_numbers() {
    for (a, b, c) in every_triple() {
        let begun = || start((1.0, 2.0)).line((5.0, 3.0));
        for path in [
            start((a, b)).line((c, 1.0)).line((2.0, 3.0)).close(),
            begun().ray(deg(a), b).ahead(c).close(),
            begun().turn(rad(a)).heading(turns(b)).ahead(c).open(),
            begun().quad((a, b), (c, 4.0)).close(),
            begun().arc_about((a, b), deg(c)).close(),
            begun().arc_via((a, b), (c, 4.0)).close(),
            begun().bow((a, b), c).close(),
            begun().heading(deg(c)).arc_on((a, b)).close(),
            begun().fillet((a, 3.0), (b, 9.0), c).close(),
            begun().arc_radii((a, 5.0), (b, c), deg(c), ArcWay::LongClockwise).close(),
            through([(0.0, 0.0), (a, b), (c, 5.0), (9.0, 1.0)]).close(),
            flowing([(0.0, 0.0), (a, b), (c, 5.0), (9.0, 1.0)]).tension(a).open(),
            flowing([(0.0, 0.0), (a, b), (0.0, 0.0)]).ends(Ends::Led(pt(c, 0.0), pt(a, a))).close(),
            through([corner((0.0, 0.0)), rounded((a, b), c), soft((c, 5.0)), rounded((9.0, 1.0), a)]).close(),
        ] {
            use_all_of(&path);
        }
    }
    for (a, b, c) in every_triple().step_by(7) {
        use_all_of(
            &start((0.0, a)).cubic((a, b), (b, c), (c, 1.0)).open().start((1.0, c)).line_by((a, b)).close(),
        );
    }
}

#[test]
fn transforms_of_hard_numbers() {
    let shape = start((1.0, 2.0)).line((8.0, 3.0)).arc_about((4.0, 9.0), deg(170.0)).close();
    for (a, b, c) in every_triple() {
        for path in [
            shape.scaled_by((a, b)).moved((c, 0.0)),
            shape.rotated_about((a, b), deg(c)),
            shape.sheared(deg(a), deg(b)).scaled(c),
        ] {
            use_all_of(&path);
        }
        let item = shape.clone().stroke("teal", 2.0).scaled_by((a, b)).rotated(deg(c));
        let page = sheet(12.0, 12.0).add(group().add(item).moved((b, c)));
        assert_eq!(page.svg().is_ok(), page.sound().is_ok());
        drawn(&page);
    }
}

#[test]
fn styles_and_sheets_of_hard_numbers() {
    let shape = || polygon((5.0, 5.0), 3, 4.0);
    for (a, b, c) in every_triple() {
        let item =
            shape().fill("red").stroke("blue", a).mitre_limit(b).dash([b, c]).dash_offset(c).opacity(a);
        drawn(&sheet(10.0, 10.0).add(item));
        let faded = sheet(10.0, 10.0).add(group().add(shape()).opacity(b));
        assert_eq!(faded.svg().is_ok(), (0.0..=1.0).contains(&b), "{b}");
        drawn(&faded);
    }
    for a in HARD {
        for b in HARD {
            let page = sheet(a, b).y_up().centred().ground("white").add(shape().fill("red"));
            assert_eq!(page.svg().is_ok(), a.is_finite() && b.is_finite() && a > 0.0 && b > 0.0, "{a} {b}");
            drawn(&page);
        }
        let options = WriteOptions { tolerance: a, ..WriteOptions::default() };
        let picture = sheet(10.0, 10.0).add(shape().fill("red")).pixels_with(&options);
        assert_eq!(picture.is_ok(), a > 0.0 && a.is_finite(), "{a}");
    }
}

#[test]
fn counts_of_nothing_and_of_too_much() {
    for count in [0, 1, 2, 3] {
        use_all_of(&polygon((5.0, 5.0), count, 4.0));
        use_all_of(&star((5.0, 5.0), count, 4.0, 2.0));
    }
    let told = polygon((0.0, 0.0), usize::MAX, 4.0).sound().unwrap_err().to_string();
    assert_eq!(told, format!("`polygon`: {} corners are too many; give at most 50000000", usize::MAX));
    let line = Path::open([(0.0, 0.0), (9.0, 0.0)]);
    assert!(line.stroke_chords(&LineStyle::new(f64::INFINITY), 0.1).is_empty());
    use_all_of(&Path::empty());
    use_all_of(&Path::closed(Vec::<Point>::new()));
    use_all_of(&Path::closed([(3.0, 3.0)]));
    use_all_of(&Path::open([(3.0, 3.0); 5]));
    use_all_of(&start((3.0, 3.0)).close());
    use_all_of(&Path::open([(1.0, 1.0), (f64::NAN, 2.0)]));
}

#[test]
fn a_million_dashes_and_more_are_drawn_whole() {
    let line = Path::open([(0.0, 5.0), (1e8, 5.0)]);
    let picture = sheet(10.0, 10.0).add(line.stroke("black", 2.0).dash([1e-3, 1e-3])).pixels().unwrap();
    assert_eq!(picture.at(5, 5), Some([0, 0, 0, 255]));
}

#[test]
fn the_first_fault_is_the_one_that_comes_back() {
    let bad = circle((0.0, 0.0), -2.0);
    let made_of_it =
        polygon((0.0, 0.0), 3, 5.0).with_hole(&bad).moved((1.0, 1.0)).and(&circle((f64::NAN, 0.0), 1.0));
    let told = "`circle`: the radius -2 is negative; give 0 or more";
    assert_eq!(made_of_it.sound().unwrap_err().to_string(), told);
    let item = made_of_it.fill("no colour").cap("no cap");
    assert_eq!(item.sound().unwrap_err().to_string(), told);
    let page = sheet(10.0, 10.0).add(group().add(group().add(item)));
    assert_eq!(page.sound().unwrap_err().to_string(), told);
    assert_eq!(
        start((0.0, 0.0)).line((f64::NAN, 0.0)).open().start((5.0, 5.0)).sound().unwrap_err().vertex(),
        Some(1)
    );
}
