//! Findings on the vertices of a contour and on how contours lie to one another.

use super::Drawn;
use super::finding::{Code, Findings, Level};
use super::wording::{place, short};
use crate::arrange::Filling;
use crate::measure::{CrossingKind, Direction};
use crate::number::Point;
use crate::path::{Contour, FillRule, Path, Segment};
use crate::reshape::Cap;

/// Ends that are this near, as a share of the path's extent, are one place for the eye.
const COINCIDENCE_RATIO: f64 = 1e-6;

/// Ends of a stroked outline that come this near, as a share of its extent, were meant to meet: nobody leaves a gap so
/// small on purpose.
const MAX_CLOSING_GAP_RATIO: f64 = 0.02;

/// A side is crowded when it is this small a share of the median side of its contour: no shape has such a side among
/// hundredfold longer ones for its looks.
const CROWDED_RATIO: f64 = 0.002;

/// And no longer than this in sheet units: longer ones can be seen, and may be meant.
const CROWDED_LENGTH: f64 = 0.5;

/// Minimum length of both neighbours relative to a crowded side. Toward a cusp, sides get shorter gradually and do not count.
const MIN_NEIGHBOUR_RATIO: f64 = 20.0;

pub(super) fn look(drawn: &Drawn<'_>, filling: &Filling, findings: &mut Findings) {
    for (number, contour) in drawn.path.contours().iter().enumerate() {
        if lone_vertex(drawn, number, contour, findings) {
            continue;
        }
        open_outline(drawn, number, contour, findings);
        doubled_end(drawn, number, contour, findings);
        crowded_vertices(drawn, number, contour, findings);
        self_crossing(drawn, (number, contour), filling, findings);
    }
    closed_hole(drawn, findings);
}

/// A contour of one place alone. A dot that a round or square cap draws is meant.
fn lone_vertex(drawn: &Drawn<'_>, number: usize, contour: &Contour, findings: &mut Findings) -> bool {
    let here = contour.start();
    if contour.points().iter().any(|p| *p != here) {
        return false;
    }
    let a_dot = drawn.half_stroke.is_some()
        && drawn.item.style().line.cap != Cap::Butt
        && (contour.is_closed() || contour.vertex_count() > 1);
    if !a_dot {
        let seen = "a contour is one vertex alone and draws nothing";
        let mend =
            ("add sides to it with line(..) and the like, or take it out", "add sides to it, or take it out");
        findings.add((Code::LoneVertex, Level::Warning), drawn, (number, here), seen, mend);
    }
    true
}

/// A stroked contour that is open though its shape is closed. An open line that is only stroked, and an open area that
/// is only filled, are what they look like.
fn open_outline(drawn: &Drawn<'_>, number: usize, contour: &Contour, findings: &mut Findings) {
    let sides = contour.verbs().len();
    if contour.is_closed() || drawn.half_stroke.is_none() || sides < 2 {
        return;
    }
    let (first, last) = (contour.start(), contour.end());
    let gap = first.distance(last);
    let size = contour.bounds().size().max_element();
    let mend = (
        "end it with close() instead of open(), or call close() on the path",
        "end it with Z in its path data",
    );
    let kind = (Code::OpenOutline, Level::Warning);
    if gap <= size * COINCIDENCE_RATIO {
        let seen =
            "the outline ends where it began but is not closed: its ends have caps where a corner should be";
        findings.add(kind, drawn, (number, first), seen, mend);
    } else if drawn.filled && contour.signed_area().abs() > size * size * COINCIDENCE_RATIO {
        let seen = format!(
            "the outline is open: it is filled, but its last side, from ({}) to ({}), is not stroked",
            place(last),
            place(first)
        );
        findings.add(kind, drawn, (number, last), seen, mend);
    } else if !drawn.filled && gap <= size * MAX_CLOSING_GAP_RATIO && contour.length() > 2.0 * size {
        let seen = format!("the line ends {} short of where it began", short(gap));
        findings.add(kind, drawn, (number, last), seen, mend);
    }
}

/// A closed contour whose last straight side comes back to the first vertex, exactly or nearly.
fn doubled_end(drawn: &Drawn<'_>, number: usize, contour: &Contour, findings: &mut Findings) {
    let drawn_sides = contour.verbs().len();
    let last = contour.segments().take(drawn_sides).next_back();
    if !contour.is_closed() || drawn_sides < 3 || !matches!(last, Some(Segment::Line { .. })) {
        return;
    }
    // At a cusp vertices stand close by themselves.
    let seam = contour.segments().take(drawn_sides).next_back().zip(contour.segments().next());
    if seam.is_some_and(|(before, behind)| turns_back(&before, &behind)) {
        return;
    }
    let (first, end) = (contour.start(), contour.end());
    let gap = first.distance(end);
    let size = contour.bounds().size().max_element();
    let mend = (
        "leave the last vertex out: close() goes back to the first one by itself",
        "leave the last vertex out: Z goes back to the first one by itself",
    );
    if gap == 0.0 {
        let seen = "the first vertex is listed again at the end of a closed contour";
        findings.add((Code::DoubledEnd, Level::Hint), drawn, (number, first), seen, mend);
    } else if gap <= size * 1e-4 {
        let seen = format!("the last vertex of a closed contour stands {} beside the first one", short(gap));
        findings.add((Code::DoubledEnd, Level::Warning), drawn, (number, first), seen, mend);
    }
}

/// Whether a line turns back between two segments by more than 150 degrees, as at a cusp.
fn turns_back(before: &Segment, behind: &Segment) -> bool {
    let (a, b) = (before.arriving(), behind.leaving());
    a.dot(b) < -0.87 * a.length() * b.length()
}

/// Sides of no length, or very short ones among long ones. At a cusp they stand close by themselves, each a little nearer
/// than the one before.
fn crowded_vertices(drawn: &Drawn<'_>, number: usize, contour: &Contour, findings: &mut Findings) {
    let segments: Vec<Segment> = contour.segments().collect();
    let drawn_sides = contour.verbs().len();
    // Not the length: a curve that comes back to where it began has one.
    let reach = |segment: &Segment| segment.bounds().size().max_element();
    let mut sizes: Vec<f64> =
        segments.iter().take(drawn_sides).map(reach).filter(|size| *size > 0.0).collect();
    if sizes.is_empty() {
        return;
    }
    let middle = sizes.len() / 2;
    let (_, median, _) = sizes.select_nth_unstable_by(middle, f64::total_cmp);
    let limit = (*median * CROWDED_RATIO).min(CROWDED_LENGTH);
    let count = segments.len();
    // The segments before and behind one, round the seam of a closed contour.
    let beside = |i: usize| {
        let closed = contour.is_closed();
        let before = i.checked_sub(1).or(closed.then_some(count - 1)).and_then(|i| segments.get(i));
        let behind = segments.get(i + 1).or(segments.first().filter(|_| closed));
        before.zip(behind)
    };
    for (i, segment) in segments.iter().enumerate().take(drawn_sides) {
        let size = reach(segment);
        // The end that is listed twice is told as that.
        let at_seam = i + 1 == drawn_sides && contour.is_closed();
        if size > limit || (size > 0.0 && at_seam) {
            continue;
        }
        let at_cusp = beside(i).is_some_and(|(before, behind)| {
            turns_back(before, behind) || reach(before).min(reach(behind)) < size * MIN_NEIGHBOUR_RATIO
        });
        if size > 0.0 && at_cusp {
            continue;
        }
        let (at, apart) = (segment.from(), segment.from().distance(segment.to()));
        let next = i + 1;
        let seen = if apart == 0.0 {
            format!("vertices {i} and {next} stand in one place")
        } else {
            format!("vertices {i} and {next} stand only {} apart", short(apart))
        };
        let mend = "take one of the two out";
        findings.add((Code::CrowdedVertices, Level::Hint), drawn, (number, at), seen, mend);
    }
}

/// A filled contour that crosses itself so that it is painted otherwise than its rim looks: it goes round one part one
/// way and another the other, as a bow does, or leaves parts out under the even-odd rule. A line that is only stroked may
/// loop, a star may be drawn in one go, and an outline that laps over itself is painted as one.
fn self_crossing(
    drawn: &Drawn<'_>,
    (number, contour): (usize, &Contour),
    filling: &Filling,
    findings: &mut Findings,
) {
    if !drawn.filled {
        return;
    }
    if super::rings::star_in_one_go(contour) {
        return;
    }
    let crossings = filling.own_crossings(number);
    let across: Vec<Point> = crossings.filter(|c| c.kind == CrossingKind::Across).map(|c| c.at).collect();
    if let Some(first) = across.first() {
        let turned = || {
            let windings = filling.own_windings(number);
            let all = || windings.iter().flatten();
            all().any(|winding| *winding > 0) && all().any(|winding| *winding < 0)
        };
        if drawn.path.fill_rule() == FillRule::Nonzero && !turned() {
            return;
        }
        let times = match across.len() {
            1 => "once".to_owned(),
            2 => "twice".to_owned(),
            n => format!("{n} times"),
        };
        let seen = format!("a filled contour crosses itself {times}, first at ({})", place(*first));
        let mend = (
            "put the vertices in the order of the rim; the bones show their numbers",
            "put the vertices in the order of the rim",
        );
        findings.add((Code::SelfCrossing, Level::Hint), drawn, (number, *first), seen, mend);
    }
}

/// A contour right inside another that runs the same way round, under the nonzero rule: it opens no hole.
fn closed_hole(drawn: &Drawn<'_>, findings: &mut Findings) {
    let contours = drawn.path.contours();
    if !drawn.filled || contours.len() < 2 || drawn.path.fill_rule() != FillRule::Nonzero {
        return;
    }
    let nesting = drawn.path.depths();
    for (i, contour) in contours.iter().enumerate() {
        if nesting.get(i) != Some(&1) || contour.direction() == Direction::Flat {
            continue;
        }
        let around = |(j, other): &(usize, &Contour)| {
            *j != i && nesting.get(*j) == Some(&0) && other.winding(contour.start()) != 0
        };
        let Some((_, outer)) = contours.iter().enumerate().find(around) else { continue };
        // Wholly inside, and across none of the others: contours that overlap make one shape of both.
        let wholly = contour.vertices().all(|vertex| outer.winding(vertex) != 0) && outer != contour;
        let alone = Path::from_contours([contour.clone()]);
        let others = contours.iter().enumerate().filter(|(j, _)| *j != i).map(|(_, other)| other.clone());
        let others = Path::from_contours(others);
        let clear = || others.crossings_with(&alone).is_ok_and(|all| all.is_empty());
        if wholly && contour.direction() == outer.direction() && clear() {
            let seen = "a contour inside another runs the same way round, so it opens no hole";
            let mend = (
                "make it with with_hole(..), or call turn_holes() on the path, or use the evenodd rule",
                "turn the order of its vertices round, or set fill-rule=\"evenodd\"",
            );
            findings.add((Code::ClosedHole, Level::Warning), drawn, (i, contour.start()), seen, mend);
        }
    }
}
