//! Findings on how smooth a contour is.

use super::Drawn;
use super::finding::{Code, Findings, Level};
use super::wording::short;
use crate::number::Point;
use crate::path::{Contour, Segment};

/// A joint of a curve that turns by an angle between these is neither smooth nor a corner: below, rounding alone turns
/// as much; above, it can be told from a smooth one at a glance and is meant.
const KINK_DEGREES: std::ops::Range<f64> = 1.5..12.0;

/// A straight side that is only a share of the extent this long has no direction that anyone sees.
const MIN_SIDE_RATIO: f64 = 0.005;

/// So many straight sides in a row that turn the same way by much the same angle stand for a curve.
const MIN_COARSE_SIDES: usize = 10;

/// Polygons with corners sharper than this are meant as polygons: it is that of twenty sides.
const MAX_COARSE_TURN_DEGREES: f64 = 18.1;

/// A segment no longer than this in sheet units, aside of a curve, is no part of its shape.
const MAX_HOOK_LENGTH: f64 = 2.5;

/// How far a kink strays from an even bend, in sheet units, before it is seen.
const MIN_VISIBLE_KINK: f64 = 0.2;

/// How far a side cuts the curve short, in sheet units, before its corners are seen.
const MIN_VISIBLE_SAGITTA: f64 = 0.35;

pub(super) fn look(drawn: &Drawn<'_>, findings: &mut Findings) {
    for (number, contour) in drawn.path.contours().iter().enumerate() {
        let segments: Vec<Segment> = contour.segments().filter(|s| s.leaving() != Point::ZERO).collect();
        kink(drawn, number, contour, &segments, findings);
        hook(drawn, number, contour, &segments, findings);
        coarse(drawn, number, contour, &segments, findings);
    }
}

/// The joints of a contour: the segment before, the one behind.
fn joints<'a>(
    contour: &Contour,
    segments: &'a [Segment],
) -> impl Iterator<Item = (&'a Segment, &'a Segment)> {
    let seam = contour.is_closed().then(|| segments.last().zip(segments.first())).flatten();
    segments.windows(2).filter_map(|pair| Some((pair.first()?, pair.get(1)?))).chain(seam)
}

/// By how much a joint turns, in degrees, positive when clockwise as seen.
fn turn(before: &Segment, behind: &Segment) -> f64 {
    let (a, b) = (before.arriving(), behind.leaving());
    a.perp_dot(b).atan2(a.dot(b)).to_degrees()
}

fn kink(drawn: &Drawn<'_>, number: usize, contour: &Contour, segments: &[Segment], findings: &mut Findings) {
    let curved = |segment: &Segment| !matches!(segment, Segment::Line { .. });
    let least = drawn.extent() * MIN_SIDE_RATIO;
    let kinks: Vec<(Point, f64)> = joints(contour, segments)
        .filter(|(before, behind)| curved(before) || curved(behind))
        .filter(|(before, behind)| [before, behind].iter().all(|s| s.bounds().size().max_element() >= least))
        .map(|(before, behind)| (before, behind, turn(before, behind).abs()))
        .filter(|(_, _, turn)| KINK_DEGREES.contains(turn))
        .filter(|(before, behind, turn)| {
            // How far the bend strays from one that turns evenly: what is small on the sheet cannot be seen.
            let size = before.bounds().size().max_element().min(behind.bounds().size().max_element());
            0.25 * size * turn.to_radians() >= MIN_VISIBLE_KINK
        })
        .map(|(before, _, turn)| (before.to(), turn))
        .collect();
    for (at, angle) in kinks {
        let seen = format!("the curve has a kink of {} degrees where it looks smooth", short(angle));
        findings.add((Code::Kink, Level::Hint), drawn, (number, at), seen, smooth_mend());
    }
}

fn smooth_mend() -> (&'static str, &'static str) {
    (
        "put both handles on one line through the vertex, or give the points to through([..])",
        "put both handles on one line through the vertex",
    )
}

/// A hook: a short segment aside in a line that otherwise runs on smoothly.
fn hook(drawn: &Drawn<'_>, number: usize, contour: &Contour, segments: &[Segment], findings: &mut Findings) {
    let reach = |segment: &Segment| segment.bounds().size().max_element();
    let count = segments.len();
    let rounds = if contour.is_closed() { count } else { count.saturating_sub(2) };
    for i in 0..rounds {
        let [Some(before), Some(short_one), Some(behind)] =
            [i, i + 1, i + 2].map(|i| segments.get(i % count))
        else {
            continue;
        };
        let size = reach(short_one);
        let curved = [before, behind].iter().any(|s| !matches!(s, Segment::Line { .. }));
        if !curved || count < 3 || size > MAX_HOOK_LENGTH || size * 10.0 > reach(before).min(reach(behind)) {
            continue;
        }
        let aside = turn(before, short_one).abs().min(turn(short_one, behind).abs());
        if aside > 30.0 && turn(before, behind).abs() < 30.0 {
            let seen = format!("the curve has a hook of {} in it where it otherwise runs on", short(size));
            let mend = "take the vertex out that stands aside";
            findings.add((Code::Kink, Level::Hint), drawn, (number, short_one.to()), seen, mend);
        }
    }
}

fn coarse(
    drawn: &Drawn<'_>,
    number: usize,
    contour: &Contour,
    segments: &[Segment],
    findings: &mut Findings,
) {
    // Every side and every corner the same, all the way round: a polygon, and meant as one.
    let regular = || {
        let vertices: Vec<Point> = contour.vertices().collect();
        super::rings::Ring::of(&vertices).is_some_and(|ring| ring.comes_round())
    };
    let (mut run, mut worst, mut last): (usize, Option<(Point, f64)>, f64) = (0, None, 0.0);
    let mut found: Option<(usize, Point, f64)> = None;
    for (before, behind) in joints(contour, segments) {
        let straight = matches!((before, behind), (Segment::Line { .. }, Segment::Line { .. }));
        let angle = turn(before, behind);
        let alike = run == 0 || (angle * last > 0.0 && (0.5..2.0).contains(&(angle / last)));
        if straight && (0.5..MAX_COARSE_TURN_DEGREES).contains(&angle.abs()) && alike {
            run += 1;
            // How far the curve through both ends bulges over the side.
            let side = before.from().distance(before.to()).min(behind.from().distance(behind.to()));
            let bulge = side * 0.25 * (angle.abs().to_radians() * 0.5).tan();
            if worst.is_none_or(|(_, most)| bulge > most) {
                worst = Some((before.from().midpoint(before.to()), bulge));
            }
            last = angle;
        } else {
            (run, worst, last) = (0, None, 0.0);
        }
        if let Some((at, bulge)) =
            worst.filter(|(_, bulge)| run >= MIN_COARSE_SIDES && *bulge > MIN_VISIBLE_SAGITTA)
        {
            found = Some((run + 1, at, bulge));
        }
    }
    if let Some((sides, at, bulge)) = found.filter(|_| !contour.is_closed() || !regular()) {
        let seen = format!(
            "{sides} straight sides stand for a curve, and cut it {} short: their corners can be seen",
            short(bulge)
        );
        let mend = (
            "use more points, or give these to through([..]) or draw arcs",
            "use more points, or curves or arcs (C or A in path data)",
        );
        findings.add((Code::CoarseCurve, Level::Hint), drawn, (number, at), seen, mend);
    }
}
