//! What a stroke covers: the spots that are near enough to its line.

use crate::coverage::drawn_coverage;
use crate::support::point;
use chordane::prelude::*;
use proptest::prelude::*;

/// The distance of a spot from a path's line.
fn distance(path: &Path, spot: Point) -> f64 {
    let to_side = |a: Point, b: Point| {
        let along = b - a;
        let share = if along == Point::ZERO { 0.0 } else { (spot - a).dot(along) / along.length_squared() };
        (spot - a - along * share.clamp(0.0, 1.0)).length()
    };
    path.flattened(1e-3).segments().map(|side| to_side(side.from(), side.to())).fold(f64::INFINITY, f64::min)
}

proptest! {
    #![proptest_config(crate::support::cases(120))]

    /// With round caps and joins, a stroke is the set of spots within half a width of the line: whatever the line
    /// does, and however short its sides are against the width.
    #[test]
    fn a_round_stroke_is_what_lies_within_half_a_width(
        path in crate::support::any_path(16.0),
        width in 0.5..9.0_f64,
    ) {
        let area = path.stroke_chords(&LineStyle { cap: Cap::Round, join: Join::Round, ..LineStyle::new(width) }, 0.005);
        for x in -4..20 {
            for y in -4..20 {
                let spot = pt(f64::from(x) + 0.37, f64::from(y) + 0.41);
                let off = distance(&path, spot) - width * 0.5;
                if off.abs() > 0.02 {
                    prop_assert_eq!(area.inside(spot), off < 0.0, "{} is {} off", spot, off);
                }
            }
        }
    }

    /// No spot of the outline is wound round against its direction, so none can cancel to nothing.
    #[test]
    fn outlines_wind_one_way(corners in prop::collection::vec(point(16.0), 2..8), width in 0.5..12.0_f64, closed in any::<bool>()) {
        let line = if closed { Path::closed(corners) } else { Path::open(corners) };
        for join in [Join::Mitre, Join::Round, Join::Bevel] {
            let area = line.stroke_chords(&LineStyle { join, ..LineStyle::new(width) }, 0.05);
            for x in 0..16 {
                for y in 0..16 {
                    prop_assert!(area.winding((f64::from(x) + 0.123, f64::from(y) + 0.321)) >= 0);
                }
            }
        }
    }

    /// Where the dashes are is where the stroke is, and the lengths of line and gap are as asked.
    #[test]
    fn dashes_cover_their_share_of_the_line(on in 1.0..6.0_f64, off in 1.0..6.0_f64, offset in -20.0..20.0_f64) {
        let line = start((0.0, 0.0)).line((1000.0, 0.0)).open();
        let area = line.stroke_chords(&LineStyle { dash: vec![on, off], dash_offset: offset, ..LineStyle::new(2.0) }, 0.01).signed_area().abs();
        let want = 2000.0 * on / (on + off);
        prop_assert!((area - want).abs() <= 2.0 * on + 1e-6, "{} for {}", area, want);
    }
}

#[test]
fn caps_and_joins_have_their_areas() {
    let line = Path::open([(0.0, 0.0), (10.0, 0.0)]);
    let area = |outline: &LineStyle| line.stroke_chords(outline, 1e-4).signed_area().abs();
    assert!((area(&LineStyle::new(4.0)) - 40.0).abs() < 1e-9);
    assert!((area(&LineStyle { cap: Cap::Square, ..LineStyle::new(4.0) }) - 56.0).abs() < 1e-9);
    assert!(
        (area(&LineStyle { cap: Cap::Round, ..LineStyle::new(4.0) }) - (40.0 + 4.0 * std::f64::consts::PI))
            .abs()
            < 1e-2
    );

    let corner = Path::open([(0.0, 0.0), (10.0, 0.0), (10.0, 10.0)]);
    let area = |outline: &LineStyle| corner.stroke_chords(outline, 1e-4).signed_area().abs();
    // Two bars that overlap in a quarter of the width squared, and the corner.
    assert!((area(&LineStyle::new(4.0)) - 80.0).abs() < 1e-9);
    assert!((area(&LineStyle { join: Join::Bevel, ..LineStyle::new(4.0) }) - 78.0).abs() < 1e-9);
    assert!(
        (area(&LineStyle { join: Join::Round, ..LineStyle::new(4.0) }) - (76.0 + std::f64::consts::PI)).abs()
            < 1e-2
    );
    // The mitre of a right angle is the root of two long: a limit just below it bevels.
    assert!((area(&LineStyle { mitre_limit: 1.41, ..LineStyle::new(4.0) }) - 78.0).abs() < 1e-9);
    assert!((area(&LineStyle { mitre_limit: 1.42, ..LineStyle::new(4.0) }) - 80.0).abs() < 1e-9);
}

#[test]
fn lines_of_no_length_draw_their_caps() {
    let dot = Path::open([(5.0, 5.0), (5.0, 5.0)]);
    let total = |cap: Cap| drawn_coverage(dot.clone().stroke("black", 4.0).cap(cap), 10).iter().sum::<f64>();
    assert_eq!(total(Cap::Butt), 0.0);
    assert_eq!(total(Cap::Square), 16.0);
    assert!((total(Cap::Round) - 4.0 * std::f64::consts::PI).abs() < 0.1);
    let lone = start((5.0, 5.0)).open();
    assert!(drawn_coverage(lone.stroke("black", 4.0).cap("round"), 10).iter().all(|share| *share == 0.0));
    let closed = start((5.0, 5.0)).close();
    assert!(drawn_coverage(closed.stroke("black", 4.0).cap("round"), 10).contains(&1.0));
}

#[test]
fn strokes_that_cannot_be_are_faults_and_empty_ones_empty() {
    let line = Path::open([(0.0, 0.0), (10.0, 0.0)]);
    assert!(line.stroke_chords(&LineStyle::new(0.0), 0.1).is_empty());
    assert!(Path::empty().stroke_chords(&LineStyle::new(3.0), 0.1).is_empty());
    let told = |outline: LineStyle| line.then(outline).sound().unwrap_err().to_string();
    assert_eq!(told(LineStyle::new(-1.0)), "`outlined`: the width -1 is negative; give 0 or more");
    assert_eq!(
        told(LineStyle { dash: vec![3.0, -1.0], ..LineStyle::new(1.0) }),
        "`outlined`: the dash length -1 is negative; give 0 or more"
    );
    // A stroke without width paints nothing, so the item counts as unpainted and is drawn as a draft.
    assert_eq!(sheet(9.0, 9.0).add(line.stroke("black", 0.0)).unpainted().len(), 1);
}

#[test]
fn a_squashed_item_has_a_squashed_stroke() {
    let ring = circle((0.0, 0.0), 10.0).stroke("black", 4.0).scaled_by((0.5, 1.0)).moved((20.0, 20.0));
    let drawn = drawn_coverage(ring, 40);
    let at = |x: usize, y: usize| drawn[y * 40 + x];
    // The band is two wide across and four high.
    for (x, y, low, high) in [(24, 20, 0.97, 1.0), (25, 20, 0.97, 1.0), (26, 20, 0.0, 0.03)] {
        assert!((low..=high).contains(&at(x, y)), "({x}, {y}) is {}", at(x, y));
    }
    for (x, y, low, high) in [(20, 28, 0.9, 1.0), (20, 31, 0.9, 1.0), (20, 32, 0.0, 0.1)] {
        assert!((low..=high).contains(&at(x, y)), "({x}, {y}) is {}", at(x, y));
    }
}
