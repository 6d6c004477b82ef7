//! Outlines in curves: what they are made of, and what they paint.

use std::f64::consts::PI;

use crate::support::point;
use chordane::prelude::*;
use proptest::prelude::*;

/// How many sides, quadratics, cubics and arcs a path is made of.
fn kinds(path: &Path) -> [usize; 4] {
    path.segments().fold([0; 4], |mut counts, segment| {
        let kind = match segment {
            Segment::Line { .. } => 0,
            Segment::Quad { .. } => 1,
            Segment::Cubic { .. } => 2,
            Segment::Arc(_) => 3,
        };
        counts[kind] += 1;
        counts
    })
}

/// The slow twin for butt ends: whether a spot lies on a normal of a smooth line that is short enough.
fn on_a_normal(line: &Segment, half: impl Fn(f64) -> f64, spot: Point) -> bool {
    const LOOKS: u32 = 20_000;
    let ahead = |t: f64| (spot - line.at(t)).dot(line.velocity(t));
    let mut before = ahead(0.0);
    (1..=LOOKS).any(|i| {
        let t = f64::from(i) / f64::from(LOOKS);
        let now = ahead(t);
        let passed = (now > 0.0) != (before > 0.0);
        before = now;
        passed && line.at(t).distance(spot) <= half(t)
    })
}

#[test]
fn straight_lines_have_straight_outlines() {
    let bent = start((0.0, 0.0)).line((100.0, 0.0)).line((100.0, 50.0)).open();
    let with = |join: Join, cap: Cap| bent.then(LineStyle { join, cap, ..LineStyle::new(6.0) }).data();
    assert_eq!(with(Join::Mitre, Cap::Butt), "M0-3H103V50H97V3H0Z");
    assert_eq!(with(Join::Bevel, Cap::Butt), "M0-3H100L103 0V50H97V3H0Z");
    assert_eq!(with(Join::Round, Cap::Square), "M100-3A3 3 0 0 1 103 0V53H97V3H-3V-3Z");
    assert_eq!(
        start((0.0, 0.0))
            .line((20.0, 0.0))
            .open()
            .then(LineStyle { cap: Cap::Round, ..LineStyle::new(6.0) })
            .data(),
        "M0-3H20A3 3 0 0 1 23 0 3 3 0 0 1 20 3H0A3 3 0 0 1-3 0 3 3 0 0 1 0-3Z"
    );
    // A closed line has an outer and an inner rim, and one that is too thick for its hole only the outer.
    let frame = rectangle((0.0, 0.0), 40.0, 20.0);
    assert_eq!(frame.then(LineStyle::new(4.0)).data(), "M42-2V22H-2V-2ZM2 2V18H38V2Z");
    assert_eq!(frame.then(LineStyle::new(24.0)).data(), "M52-12V32H-12V-12Z");
}

#[test]
fn arcs_of_circles_have_arcs_beside_them() {
    let hoop = circle((0.0, 0.0), 20.0).then(LineStyle::new(6.0));
    assert_eq!(kinds(&hoop), [0, 0, 0, 8]);
    assert!((hoop.area().unwrap() - PI * (23.0 * 23.0 - 17.0 * 17.0)).abs() < 1e-9);
    // Thicker than it is wide: a disc, and nothing of the far side is lost.
    let disc = circle((0.0, 0.0), 2.0).then(LineStyle::new(6.0));
    assert_eq!(kinds(&disc), [0, 0, 0, 4]);
    assert!((disc.area().unwrap() - PI * 25.0).abs() < 1e-9);
    // Half a turn about a centre that is nearer than half the width: a half disc of radius 4 on the outer side and, beyond
    // the centre, one of radius 2.
    let bow = start((0.0, 0.0)).arc_about((1.0, 0.0), deg(180.0)).open().then(LineStyle::new(6.0));
    assert_eq!(bow.data(), "M-3 0A4 4 0 0 1 1-4 4 4 0 0 1 5 0H3A2 2 0 0 1 1 2 2 2 0 0 1-1 0Z");
    // An arc of an ellipse has curves beside it that are no ellipse.
    let squashed = ellipse((0.0, 0.0), 20.0, 10.0).then(LineStyle::new(6.0));
    assert_eq!(squashed.contours().len(), 2);
    assert_eq!(kinds(&squashed)[0], 0);
    // The area of a band along a closed line is its length times its width, while no bend is tighter than half of that.
    let length = ellipse((0.0, 0.0), 20.0, 10.0).length().unwrap();
    assert!((squashed.area().unwrap() - 6.0 * length).abs() < 1e-3 * length);
}

#[test]
fn curves_have_few_cubics_beside_them() {
    let line = start((0.0, 0.0)).cubic((40.0, 0.0), (60.0, 30.0), (80.0, 30.0)).open();
    let area = line.then(LineStyle::new(6.0));
    assert_eq!(kinds(&area)[..2], [2, 0]);
    assert!(kinds(&area)[2] <= 8, "{:?}", kinds(&area));
    assert!((area.area().unwrap() - 6.0 * line.length().unwrap()).abs() < 0.02);
    let tail = line.then(LineStyle::new(6.0).tapered(|share| 1.0 - share));
    assert!((tail.area().unwrap() - 3.0 * line.length().unwrap()).abs() < 0.02);
    assert!(kinds(&tail)[2] <= 8 && kinds(&tail)[0] <= 2, "{:?}", kinds(&tail));
}

#[test]
fn tapers_of_straight_lines() {
    let line = start((0.0, 0.0)).line((100.0, 0.0)).open();
    let with =
        |cap: Cap| line.then(LineStyle { cap, ..LineStyle::new(10.0) }.tapered(|share| 1.0 - share)).data();
    assert_eq!(with(Cap::Butt), "M0-5 100 0 0 5Z");
    assert_eq!(with(Cap::Square), "M0-5 100 0 0 5H-5V-5Z");
    assert_eq!(with(Cap::Round), "M0-5 100 0 0 5A5 5 0 0 1-5 0 5 5 0 0 1 0-5Z");
    // A width that stays, and one that rises and falls often: a string of beads.
    let even = line.then(LineStyle::new(10.0).tapered(|_| 0.5));
    assert_eq!(even.data(), "M0-2.5H100V2.5H0Z");
    let beads = line.then(LineStyle::new(10.0).tapered(|share| (share * 10.0 * PI).sin().abs()));
    assert_eq!(beads.contours().len(), 10);
    assert!((beads.area().unwrap() - 100.0 * 10.0 * 2.0 / PI).abs() < 0.5);
    // A jump in the width is a step in the edge.
    let step = line.then(LineStyle::new(10.0).tapered(|share| if share < 0.3 { 1.0 } else { 0.4 }));
    assert!(step.inside((29.9, 4.9)) && !step.inside((30.1, 2.1)) && step.inside((30.1, 1.9)));
    // Across corners the width goes on, and closed lines may have a step at their seam.
    let bent = start((0.0, 0.0)).line((50.0, 0.0)).line((50.0, 50.0)).open();
    let tail = bent.then(LineStyle::new(10.0).tapered(|share| 1.0 - share));
    assert!(tail.inside((52.4, -2.4)) && !tail.inside((52.6, -2.4)) && tail.inside((48.9, 25.0)));
    let ring = circle((0.0, 0.0), 40.0).then(LineStyle::new(10.0).tapered(|share| share));
    assert!(ring.inside((44.9, -0.5)) && !ring.inside((40.3, 0.5)) && ring.inside((-42.4, 0.0)));
}

#[test]
fn dashes_are_outlined_one_by_one() {
    let hoop = circle((0.0, 0.0), 20.0);
    let dashes = hoop.then(LineStyle { dash: vec![10.0, 5.0], dash_offset: 3.0, ..LineStyle::new(4.0) });
    let pieces = hoop.then(Dash { offset: 3.0, ..Dash::new([10.0, 5.0]) });
    assert_eq!(dashes.contours().len(), pieces.contours().len());
    assert!((dashes.area().unwrap() - 4.0 * pieces.length().unwrap()).abs() < 1e-6);
    assert_eq!(kinds(&dashes)[1..3], [0, 0]);
    // A pattern without a length is not a dash.
    assert_eq!(
        hoop.then(LineStyle { dash: vec![0.0, 0.0], ..LineStyle::new(4.0) }),
        hoop.then(LineStyle::new(4.0))
    );
}

#[test]
fn cusps_and_lines_that_turn_back_are_joined_round() {
    // The handles cross: the line stands still in the middle and comes back, upright there.
    let cusp = start((0.0, 0.0)).cubic((40.0, 30.0), (0.0, 30.0), (40.0, 0.0)).open();
    let area = cusp.then(LineStyle { join: Join::Bevel, ..LineStyle::new(8.0) });
    let tip = cusp.bounds().unwrap().max.y;
    assert!((area.bounds().unwrap().max.y - tip - 4.0).abs() < 0.01);
    assert!(area.inside((20.0, tip + 3.9)) && area.inside((22.7, tip + 2.7)));
    // Along one line, out and back over itself.
    let back = start((0.0, 0.0)).cubic((60.0, 0.0), (-20.0, 0.0), (20.0, 0.0)).open();
    let area = back.then(LineStyle::new(4.0));
    let reach = back.bounds().unwrap();
    assert!(reach.max.x > 22.0);
    assert!((area.bounds().unwrap().max.x - reach.max.x - 2.0).abs() < 0.01);
    assert_eq!(area.contours().len(), 1);
}

#[test]
fn near_cusps_keep_both_half_discs() {
    // Two places where the line turns back within a hundredth of its parameters; each sweeps a half disc on either side.
    let line = start((6.0, 5.0))
        .cubic((8.003_873_442, 5.033_531_551), (6.0, 5.041_278_435), (8.0, 5.0))
        .open()
        .then(LineStyle { join: Join::Bevel, ..LineStyle::new(5.774) });
    assert!(line.inside((8.267, 5.026)) && line.inside((9.0, 5.0)) && line.inside((5.0, 5.0)));
    assert_eq!(line.contours().len(), 1);
}

#[test]
fn lines_of_no_length_and_faults() {
    let dot =
        |cap: Cap| start((5.0, 5.0)).line((5.0, 5.0)).open().then(LineStyle { cap, ..LineStyle::new(4.0) });
    assert!(dot(Cap::Butt).is_empty());
    assert_eq!(dot(Cap::Square).data(), "M7 3V7H3V3Z");
    assert!((dot(Cap::Round).area().unwrap() - 4.0 * PI).abs() < 1e-9);
    assert!(start((5.0, 5.0)).open().then(LineStyle { cap: Cap::Round, ..LineStyle::new(4.0) }).is_empty());
    let line = Path::open([(0.0, 0.0), (10.0, 0.0)]);
    assert!(line.then(LineStyle::new(0.0)).is_empty() && line.then(LineStyle::new(0.0)).sound().is_ok());
    let told = |outline: LineStyle| line.then(outline).sound().unwrap_err().to_string();
    assert_eq!(told(LineStyle::new(-2.0)), "`outlined`: the width -2 is negative; give 0 or more");
    assert_eq!(
        told(LineStyle { dash: vec![3.0, -1.0], ..LineStyle::new(2.0) }),
        "`outlined`: the dash length -1 is negative; give 0 or more"
    );
    // A fault of the line is carried on.
    let broken = start((0.0, 0.0)).line((f64::NAN, 0.0)).open();
    assert!(broken.then(LineStyle::new(2.0)).sound().is_err());
    // Tiny, huge and very thin.
    for size in [1e-6, 1.0, 1e9, 1e100] {
        let area = line.scaled(size).then(LineStyle::new(2.0 * size)).area().unwrap();
        assert!((area / (20.0 * size * size) - 1.0).abs() < 1e-9, "{size}");
    }
    assert!((line.then(LineStyle::new(1e-6)).area().unwrap() - 1e-5).abs() < 1e-9);
}

#[test]
fn many_lines_over_one_another_come_with_their_overlaps() {
    // Too much meets to be united; the area is the same under the nonzero rule.
    let line = start((0.0, 0.0)).line((10.0, 0.0));
    let pen = (0..400).fold(line, |pen, i| pen.line((if i % 2 == 0 { 0.0 } else { 10.0 }, 0.0)));
    let area = pen.open().then(LineStyle { join: Join::Bevel, ..LineStyle::new(2.0) });
    assert!(area.sound().is_ok());
    assert!(area.segments().count() > 800, "it came united");
    assert!(area.inside((5.0, 0.9)) && area.inside((5.0, -0.9)) && !area.inside((5.0, 1.1)));
}

proptest! {
    #![proptest_config(crate::support::cases(150))]

    #[test]
    fn a_cubic_with_butt_ends_paints_its_normals(
        points in [point(12.0), point(12.0), point(12.0), point(12.0)],
        width in 0.5..16.0_f64,
        spots in prop::collection::vec(point(16.0), 12),
    ) {
        let [from, a, b, to] = points;
        let line = start(from).cubic(a, b, to).open();
        let area = line.then(LineStyle::new(width));
        let taper = line.then(LineStyle::new(width).tapered(|share| 1.0 - 0.5 * share));
        prop_assert!(area.sound().is_ok() && taper.sound().is_ok());
        let Some(segment) = line.segments().next() else { return Ok(()) };
        let length = segment.length();
        let shares: Vec<f64> = (0..=200_u32).scan((0.0, from), |state, i| {
            let at = segment.at(f64::from(i) / 200.0);
            *state = (state.0 + at.distance(state.1), at);
            Some(state.0 / length)
        }).collect();
        let share = |t: f64| shares.get((t * 200.0).round() as usize).copied().unwrap_or(1.0);
        for spot in spots {
            // On the very rim it may go either way.
            let rim = |area: &Path| area.survey().ok().and_then(|all| {
                all.nearest(spot).map(|nearest| nearest.point().distance(spot))
            }).unwrap_or(f64::INFINITY);
            if rim(&area) > 0.03 {
                prop_assert_eq!(area.inside(spot), on_a_normal(&segment, |_| 0.5 * width, spot), "{}", spot);
            }
            if rim(&taper) > 0.03 + 0.02 * width {
                let half = |t: f64| 0.5 * width * (1.0 - 0.5 * share(t));
                prop_assert_eq!(taper.inside(spot), on_a_normal(&segment, half, spot), "tapered {}", spot);
            }
        }
    }

    #[test]
    fn outlines_of_turned_moved_and_reversed_lines_are_so_too(
        path in crate::support::any_path(40.0), width in 0.5..10.0_f64, angle in 0.0..360.0_f64,
    ) {
        let outline = LineStyle { join: Join::Round, cap: Cap::Round, ..LineStyle::new(width) };
        let area = path.then(outline.clone()).area().unwrap();
        let turned = path.rotated(deg(angle)).moved((7.0, -3.0)).then(outline.clone()).area().unwrap();
        let reversed = path.reversed().then(outline).area().unwrap();
        let slack = 0.02 * (path.length().unwrap() + width);
        prop_assert!((area - turned).abs() <= slack, "{} {}", area, turned);
        prop_assert!((area - reversed).abs() <= slack, "{} {}", area, reversed);
    }
}
