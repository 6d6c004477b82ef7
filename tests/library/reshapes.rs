//! Reshapes: what each promises, on shapes of known measures and on random ones.

use std::f64::consts::PI;

use crate::coverage::drawn_coverage;
use crate::support::{any_path, coordinate, point};
use chordane::prelude::*;
use proptest::prelude::*;

/// Closed polygons and mixed contours that turn some corners.
fn outlines() -> impl Strategy<Value = Path> {
    prop::collection::vec(point(60.0), 3..8).prop_map(Path::closed)
}

/// Convex shapes: the corners of a circle's points, in order.
fn convex() -> impl Strategy<Value = Path> {
    (point(60.0), 5.0..40.0_f64, prop::collection::vec(0.0..360.0_f64, 3..9)).prop_map(
        |(at, radius, mut turns)| {
            turns.sort_by(f64::total_cmp);
            turns.dedup_by(|a, b| (*a - *b).abs() < 1.0);
            Path::closed(turns.into_iter().map(|turn| at + polar(deg(turn), radius)))
        },
    )
}

/// How much the heading jumps at most from one segment to the next, in degrees.
fn sharpest(contour: &Contour) -> f64 {
    let segments: Vec<Segment> = contour.segments().filter(|s| s.length() > 1e-6).collect();
    let n = segments.len();
    let pairs = (0..n).map(|i| (segments[i], segments[(i + 1) % n]));
    pairs.map(|(a, b)| a.arriving().angle_to(b.leaving()).to_degrees().abs()).fold(0.0, f64::max)
}

proptest! {
    #![proptest_config(crate::support::cases(200))]

    #[test]
    fn pieces_of_a_trim_add_up(path in any_path(60.0), a in 0.0..1.0_f64, b in 0.0..1.0_f64) {
        let (a, b) = (a.min(b), a.max(b));
        let length = |path: Path| path.length().unwrap();
        let whole = length(path.clone());
        let sum = length(path.trimmed(0.0, a)) + length(path.trimmed(a, b)) + length(path.trimmed(b, 1.0));
        prop_assert!((sum - whole).abs() <= 1e-7 * whole.max(1.0), "{} {}", sum, whole);
    }

    #[test]
    fn rounded_corners_go_on_smoothly(path in outlines(), radius in 0.1..30.0_f64, eased in any::<bool>()) {
        let round = if eased { Round { eased: true, ..Round::new(radius) } } else { Round::new(radius) };
        let soft = path.then(round);
        for (contour, sharp) in soft.contours().iter().zip(path.contours()) {
            // Where the line turns straight back it stays as it is.
            if sharpest(sharp) < 179.0 {
                prop_assert!(sharpest(contour) < 0.1, "{} {}", sharpest(contour), soft.data());
            }
        }
        // No corner reaches beyond its sides.
        let bounds = path.bounds().unwrap();
        let inner = soft.bounds().unwrap();
        prop_assert!(inner.min.cmpge(bounds.min - Point::splat(1e-6)).all());
        prop_assert!(inner.max.cmple(bounds.max + Point::splat(1e-6)).all());
    }

    #[test]
    fn what_grows_and_shrinks_again_holds_a_convex_shape(path in convex(), by in 0.1..20.0_f64) {
        for join in [Join::Round, Join::Mitre, Join::Bevel] {
            let offset = |by: f64| Offset { join, mitre_limit: 1e9, ..Offset::new(by) };
            let grown = path.then(offset(by));
            prop_assert!(path.difference(&grown).area().unwrap() < 1e-6);
            // A corner that is cut straight takes away more than it gave.
            if join != Join::Bevel {
                let lost = path.difference(grown.then(offset(-by))).area().unwrap();
                prop_assert!(lost < 1e-5, "{:?} {}", join, lost);
            }
        }
    }

    #[test]
    fn what_is_grown_is_no_farther_and_what_is_shrunk_no_nearer(
        path in any_path(60.0), by in -15.0..15.0_f64, spots in prop::collection::vec(point(60.0), 8),
    ) {
        let closed = Path::from_contours(
            path.contours().iter().filter(|contour| contour.is_closed()).cloned()
        ).with_fill_rule(path.fill_rule());
        let plain = closed.simplified();
        let moved = closed.then(Offset { join: Join::Round, ..Offset::new(by) });
        for spot in spots {
            let away = plain.distance(spot).unwrap();
            if (away - by.abs()).abs() < 0.02 || away < 1e-6 {
                continue;
            }
            let inside = plain.inside(spot);
            let expected = if by > 0.0 { inside || away < by } else { inside && away > -by };
            prop_assert_eq!(moved.inside(spot), expected, "{} away {} by {}", spot, away, by);
        }
    }

    #[test]
    fn dashes_and_gaps_take_up_the_whole_line(
        path in any_path(60.0), dash in 0.5..20.0_f64, gap in 0.5..20.0_f64, offset in -50.0..50.0_f64,
    ) {
        let drawn = path.then(Dash { offset, ..Dash::new([dash, gap]) }).length().unwrap();
        let left_out = path.then(Dash { offset: offset - dash, ..Dash::new([gap, dash]) }).length().unwrap();
        let whole = path.length().unwrap();
        prop_assert!((drawn + left_out - whole).abs() <= 1e-6 * whole.max(1.0), "{} {} {}", drawn, left_out, whole);
    }

    #[test]
    fn a_tapered_outline_of_even_width_is_the_outline(path in any_path(60.0), width in 0.5..15.0_f64, spots in prop::collection::vec(point(60.0), 8)) {
        let outline = LineStyle { join: Join::Round, cap: Cap::Round, ..LineStyle::new(width) };
        let (even, curved, tapered) = (
            path.stroke_chords(&outline, 0.01),
            path.then(outline.clone()),
            path.then(Taper { tolerance: 0.01, ..outline.clone().tapered(|_| 1.0) }),
        );
        for spot in spots {
            let away = path.distance(spot).unwrap();
            if (away - 0.5 * width).abs() > 0.03 {
                prop_assert_eq!(even.inside(spot), curved.inside(spot), "{}", spot);
                prop_assert_eq!(even.inside(spot), tapered.inside(spot), "{} tapered", spot);
            }
        }
    }

    #[test]
    fn an_outline_paints_what_the_stroke_paints(path in any_path(48.0), width in 0.5..12.0_f64, round in any::<bool>()) {
        let (cap, join) = if round { (Cap::Round, Join::Round) } else { (Cap::Square, Join::Bevel) };
        let outline = LineStyle { cap, join, ..LineStyle::new(width) };
        let stroke = drawn_coverage(path.clone().stroke("black", width).cap(cap).join(join), 48);
        // The outline in curves goes by the very tangents at the ends, as do only the shortest chords.
        let chords = path.stroke_chords(&outline, 0.01);
        let fine = drawn_coverage(path.stroke_chords(&outline, 1e-7).fill("black"), 48);
        let curves = path.then(outline);
        // Each of four edges that pass a pixel may be 0.005 off, and colours are rounded.
        for (area, painted, off) in [(chords.simplified(), &stroke, 3.5), (chords, &stroke, 3.5), (curves, &fine, 6.5)] {
            for (i, (a, b)) in drawn_coverage(area.fill("black"), 48).into_iter().zip(painted).enumerate() {
                prop_assert!((a - b).abs() < off / 255.0, "pixel {}: {} and {}, {}", i, a, b, off);
            }
        }
    }

    #[test]
    fn thinning_stays_within_its_tolerance(path in outlines(), tolerance in 0.0..8.0_f64, x in coordinate(60.0)) {
        let path = path.subdivided(7).moved((x, 0.0));
        let thin = path.thinned(tolerance);
        for vertex in path.contours()[0].vertices() {
            prop_assert!(thin.distance(vertex).unwrap() <= tolerance + 1e-9);
        }
        prop_assert!(thin.contours()[0].vertex_count() <= path.contours()[0].vertex_count());
    }

    #[test]
    fn a_fitted_curve_is_near_all_points(path in any_path(60.0), tolerance in 0.05..2.0_f64) {
        let points = path.flattened(0.02);
        let fit = points.curve_fitted(tolerance);
        prop_assert!(fit.sound().is_ok());
        for (contour, line) in fit.contours().iter().zip(points.contours()) {
            let fitted = Path::from_contours([contour.clone()]);
            for vertex in line.vertices().step_by(3) {
                prop_assert!(fitted.distance(vertex).unwrap() <= tolerance * 1.01 + 1e-9);
            }
        }
    }
}

#[test]
fn an_area_that_is_rounded_has_the_size_of_its_arcs() {
    let banner = rectangle((0.0, 0.0), 100.0, 60.0).rounded(10.0);
    assert!((banner.area().unwrap() - (6000.0 - (4.0 - PI) * 100.0)).abs() < 1e-9);
    // Each corner for itself: the short side holds 15 at most.
    let step =
        Path::closed([(0.0, 0.0), (100.0, 0.0), (100.0, 60.0), (70.0, 60.0), (70.0, 30.0), (0.0, 30.0)]);
    let radii = |path: &Path| -> Vec<f64> {
        let arc = |segment| if let Segment::Arc(arc) = segment { Some(arc.radii.x.round()) } else { None };
        path.segments().filter_map(arc).collect()
    };
    assert_eq!(radii(&step.rounded(25.0)), [25.0, 15.0, 15.0, 15.0, 15.0, 15.0]);
    // Between an arc and a side the circle touches both.
    let half = pie((0.0, 0.0), 50.0, deg(0.0), deg(180.0)).rounded(8.0);
    assert!(sharpest(&half.contours()[0]) < 1e-4, "{}", half.data());
    assert_eq!(radii(&half).iter().filter(|r| **r == 8.0).count(), 2, "{}", half.data());
    // Open lines keep their ends.
    assert_eq!(
        Path::open([(0.0, 0.0), (20.0, 0.0), (20.0, 20.0)]).rounded(5.0).data(),
        "M0 0H15A5 5 0 0 1 20 5V20"
    );
}

#[test]
fn offsets_of_shapes_with_known_areas() {
    let hoop = ring((0.0, 0.0), 40.0, 20.0);
    let area = |path: &Path| path.area().unwrap();
    assert!((area(&hoop.offset(5.0)) - PI * (45.0 * 45.0 - 15.0 * 15.0)).abs() < 1e-6);
    assert!((area(&hoop.offset(-5.0)) - PI * (35.0 * 35.0 - 25.0 * 25.0)).abs() < 1e-6);
    assert!((area(&hoop.offset(25.0)) - PI * 65.0 * 65.0).abs() < 1e-6);
    assert!(hoop.offset(-10.5).is_empty(), "{}", hoop.offset(-10.5).data());
    assert!(hoop.offset(5.0).segments().all(|segment| matches!(segment, Segment::Arc(_))));
    let both = hoop.then(Offset { both: true, ..Offset::new(2.0) });
    assert!((area(&both) - PI * (42.0 * 42.0 - 38.0 * 38.0 + 22.0 * 22.0 - 18.0 * 18.0)).abs() < 1e-6);
    // Two squares with a bridge fall apart.
    let bell = rectangle((0.0, 0.0), 20.0, 20.0).union(rectangle((20.0, 9.0), 20.0, 2.0)).union(rectangle(
        (40.0, 0.0),
        20.0,
        20.0,
    ));
    assert_eq!(bell.offset(-2.0).contours().len(), 2);
    // An open line beside another: without the loop in the corner.
    let bend = Path::open([(0.0, 0.0), (50.0, 0.0), (50.0, 50.0)]);
    assert_eq!(bend.offset(5.0).data(), "M0 5H45V50");
    assert_eq!(bend.offset(-5.0).data(), "M0-5H55V50");
    assert_eq!(bend.then(Offset { both: true, ..Offset::new(5.0) }).contours().len(), 2);
    assert_eq!(bend.offset(0.0), bend);
}

#[test]
fn dashes_fit_and_lie_round_corners() {
    let square = rectangle((0.0, 0.0), 40.0, 40.0);
    let corners = square.then(Dash { fit: DashFit::Corners, ..Dash::new([8.0, 4.0]) });
    // Every corner has a dash that goes round it, evenly.
    for corner in square.contours()[0].vertices() {
        let dash = corners
            .contours()
            .iter()
            .find(|dash| dash.vertices().nth(1) == Some(corner))
            .expect("a dash round the corner");
        let arms = [dash.start().distance(corner), dash.end().distance(corner)];
        assert!((arms[0] - arms[1]).abs() < 1e-9 && arms[0] > 3.0, "{arms:?}");
    }
    let round = square.then(Dash { fit: DashFit::Whole, ..Dash::new([9.0, 5.0]) });
    assert_eq!(round.contours().len(), 11);
    let whole = square.length().unwrap();
    assert!((round.length().unwrap() - whole * 9.0 / 14.0).abs() < 1e-9);
    // Drawn in from nothing: half of it.
    let half = square.then(Dash::new([0.5 * whole, whole]));
    assert_eq!(half.data(), "M0 0H40V40");
    assert_eq!(square.dashed([0.0, 0.0]), square);
    assert!(Path::empty().dashed([3.0]).is_empty());
    assert_eq!(
        square.dashed([-1.0]).sound().unwrap_err().to_string(),
        "`dashed`: the dash length -1 is negative; give 0 or more"
    );
}

#[test]
fn stamps_stand_where_they_are_asked_for() {
    let bow = Path::closed([(0.0, 0.0), (-4.0, -3.0), (-4.0, 3.0)]);
    let line = Path::open([(0.0, 0.0), (0.0, 100.0)]);
    let starts =
        |path: &Path| -> Vec<f64> { path.contours().iter().map(|contour| contour.start().y).collect() };
    assert_eq!(starts(&line.stamped(&bow, 30.0)), [0.0, 30.0, 60.0, 90.0]);
    assert_eq!(starts(&line.then(Stamp::new(bow.clone()).count(3))), [0.0, 50.0, 100.0]);
    assert_eq!(starts(&line.then(Stamp::new(bow.clone()).every(40.0).drift(50.0))), [10.0, 50.0, 90.0]);
    assert_eq!(starts(&line.then(Stamp::new(bow.clone()).at([0.25, 0.5]).lead_in(20.0))), [40.0, 60.0]);
    let odd = Stamp::new(bow.clone()).every(20.0).skip(|at| at.number % 2 == 1);
    assert_eq!(starts(&line.then(odd)), [0.0, 40.0, 80.0]);
    let hoop = circle((0.0, 0.0), 50.0);
    assert_eq!(hoop.then(Stamp::new(bow.clone()).count(12)).contours().len(), 12);
    let turned = hoop.then(Stamp::new(bow.clone()).count(4));
    let upright = hoop.then(Stamp::new(bow.clone()).count(4).upright());
    let near = |p: Point, q: (f64, f64)| p.distance(q.into()) < 1e-9;
    assert!(near(turned.contours()[0].vertices().nth(1).unwrap(), (53.0, -4.0)), "{}", turned.data());
    assert!(near(upright.contours()[0].vertices().nth(1).unwrap(), (46.0, -3.0)));
    // Bent: the corners of a long stamp stay as far from the line.
    let ribbon = rectangle((-20.0, -5.0), 40.0, 5.0);
    let bent = hoop.then(Stamp::new(ribbon).count(1).bent());
    for vertex in bent.contours()[0].vertices() {
        let away = vertex.length() - 50.0;
        assert!(away.abs() < 1e-3 || (away - 5.0).abs() < 1e-3, "{away}");
    }
    assert!(Path::empty().stamped(&bow, 5.0).is_empty());
    assert_eq!(
        line.stamped(&bow, 0.0).sound().unwrap_err().to_string(),
        "`stamped`: the spacing 0 is not positive; give more than 0"
    );
    assert!(line.stamped(&bow, 1e-9).sound().unwrap_err().to_string().contains("1000000"));
    assert!(line.then(Stamp::new(bow).scale(|_| f64::NAN)).sound().is_err());
}

#[test]
fn bending_and_warping_keep_lengths_where_they_should() {
    let spine = start((0.0, 0.0)).arc_about((50.0, 0.0), deg(180.0)).open();
    let line = Path::open([(0.0, 0.0), (100.0, 0.0)]).bent(&spine);
    assert!((line.length().unwrap() - 100.0).abs() < 1e-2);
    assert!(line.contours()[0].vertices().all(|p| spine.distance(p).unwrap() < 0.01));
    // Beyond the end it goes on straight.
    let long = Path::open([(0.0, 0.0), (200.0, 0.0)]).bent(&spine);
    assert!(
        (long.contours()[0].end() - pt(100.0, 200.0 - 50.0 * PI)).length() < 1e-6,
        "{}",
        long.contours()[0].end()
    );
    let same = rectangle((3.0, 4.0), 5.0, 6.0);
    assert_eq!(same.warped(0.01, |p| p), same);
    assert!(same.warped(0.01, |_| pt(f64::NAN, 0.0)).sound().is_err());
    assert!(same.bent(&Path::empty()).is_empty());
    let wild = same.warped(0.01, |p| pt(p.x, if p.x > 5.0 { p.y + 10.0 } else { p.y }));
    assert!(wild.sound().is_ok() && wild.segments().count() < 500);
}

#[test]
fn mirrors_spins_and_chains() {
    let sail = Path::closed([(10.0, 0.0), (40.0, 20.0), (10.0, 60.0)]);
    let mirror = Mirror::new((0.0, 0.0), deg(90.0));
    assert_eq!(sail.then(mirror).then(mirror), sail);
    assert_eq!(sail.mirrored((0.0, 0.0), deg(0.0)).data(), "M10 0 40-20 10-60Z");
    assert_eq!(sail.spun(4, (0.0, 0.0)).contours().len(), 4);
    assert!(sail.spun(0, (0.0, 0.0)).is_empty());
    let chain = Round::new(4.0).then(Dash::new([6.0, 3.0])).then(Mirror::new((0.0, 0.0), deg(90.0)));
    assert_eq!(
        sail.then(ReshapeFn(|path: &Path| path.rounded(4.0)))
            .dashed([6.0, 3.0])
            .mirrored((0.0, 0.0), deg(90.0)),
        sail.then(chain)
    );
    assert_eq!(
        sail.then(Ripple { shape: RippleShape::Teeth, ..Ripple::new(3.0, 8.0) }),
        sail.toothed(3.0, 8.0)
    );
}

#[test]
fn a_shaken_line_comes_from_its_seed() {
    let hoop = circle((0.0, 0.0), 50.0);
    let line = |seed| hoop.shaken(3.0, 12.0, seed);
    assert_eq!(line(4), line(4));
    assert_ne!(line(4), line(5));
    assert!(line(4).contours()[0].vertices().all(|p| (p.length() - 50.0).abs() <= 3.0 + 1e-9));
    assert_eq!(sharpest(&line(4).contours()[0]).round(), 0.0);
    let box_of = rectangle((0.0, 0.0), 60.0, 40.0);
    assert_eq!(box_of.shaken(0.0, 10.0, 1).bounds(), box_of.bounds());
    assert_eq!(
        box_of.then(Shake { jagged: true, ..Shake::new(1.0, 10.0, 1) }).contours()[0].vertex_count(),
        20
    );
    assert_eq!(
        box_of.shaken(1.0, 0.0, 1).sound().unwrap_err().to_string(),
        "`shaken`: the length 0 is not positive; give more than 0"
    );
}

#[test]
fn a_freehand_line_becomes_few_cubics() {
    // A wave with a corner in its middle, drawn with an unsteady hand.
    let unsteady = |i: u32| f64::from((i * 7919) % 101) * 0.004 - 0.2;
    let drawn = Path::open((0..=400).map(|i| {
        let x = f64::from(i) * 0.5;
        pt(x, 30.0 * (x / 40.0).sin().abs() + unsteady(i))
    }));
    let smooth = drawn.curve_fitted(0.8);
    assert!(smooth.contours()[0].vertex_count() <= 14, "{}", smooth.contours()[0].vertex_count());
    let corner =
        smooth.contours()[0].vertices().map(|p| p.distance(pt(40.0 * PI, 0.0))).fold(f64::MAX, f64::min);
    assert!(corner < 1.5, "{corner}");
    assert_eq!(Path::open([(0.0, 0.0), (5.0, 5.0)]).curve_fitted(1.0).data(), "M0 0 5 5");
    let hoop = Path::closed(around(300).map(|a| polar(a, 50.0))).curve_fitted(0.05);
    assert!(hoop.contours()[0].vertex_count() <= 9 && sharpest(&hoop.contours()[0]) < 1.0, "{}", hoop.data());
    let square = Path::closed(rectangle((0.0, 0.0), 40.0, 40.0).subdivided(50).contours()[0].vertices())
        .curve_fitted(0.1);
    assert!((square.area().unwrap() - 1600.0).abs() < 1.0, "{}", square.data());
}
