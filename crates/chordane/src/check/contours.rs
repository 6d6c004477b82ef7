//! Findings on the vertices of a contour and on how contours lie to one another.

use super::Drawn;
use super::finding::{Code, Findings, Level};
use super::wording::{place, short};
use crate::measure::{CrossingKind, Direction, Filling};
use crate::number::Point;
use crate::path::{Contour, FillRule, Path, Segment};
use crate::reshape::Cap;

/// Ends that are this near, as a share of the path's extent, are one place for the eye.
const SAME_PLACE: f64 = 1e-6;

/// Ends of a stroked outline that come this near, as a share of its extent, were meant to meet: nobody leaves a gap so
/// small on purpose.
const NEARLY_CLOSED: f64 = 0.02;

/// A side is crowded when it is this small a share of the median side of its contour: no shape has such a side among
/// hundredfold longer ones for its looks.
const CROWDED_SHARE: f64 = 0.002;

/// And no longer than this in sheet units: longer ones can be seen, and may be meant.
const CROWDED_LENGTH: f64 = 0.5;

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
        && drawn.item.style().get_stroke().cap() != Cap::Butt
        && (contour.is_closed() || contour.vertex_count() > 1);
    if !a_dot {
        let seen = "a contour is one vertex alone and draws nothing";
        let mend = "add sides to it with line(..) and the like, or take it out";
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
    let mend = "end it with close() instead of open(), or Z in path data";
    let kind = (Code::OpenOutline, Level::Warning);
    if gap <= size * SAME_PLACE {
        let seen =
            "the outline ends where it began but is not closed: its ends have caps where a corner should be";
        findings.add(kind, drawn, (number, first), seen, mend);
    } else if drawn.filled && contour.signed_area().abs() > size * size * SAME_PLACE {
        let seen = format!(
            "the outline is open: it is filled, but its last side, from ({}) to ({}), is not stroked",
            place(last),
            place(first)
        );
        findings.add(kind, drawn, (number, last), seen, mend);
    } else if !drawn.filled && gap <= size * NEARLY_CLOSED && contour.length() > 2.0 * size {
        let seen = format!("the line ends {} short of where it began", short(gap));
        findings.add(kind, drawn, (number, last), seen, mend);
    }
}

/// A closed contour whose last straight side comes back to the first vertex, exactly or nearly.
fn doubled_end(drawn: &Drawn<'_>, number: usize, contour: &Contour, findings: &mut Findings) {
    let drawn_sides = contour.verbs().len();
    let last = contour.segments().take(drawn_sides).last();
    if !contour.is_closed() || drawn_sides < 3 || !matches!(last, Some(Segment::Line { .. })) {
        return;
    }
    let (first, end) = (contour.start(), contour.end());
    let gap = first.distance(end);
    let size = contour.bounds().size().max_element();
    let mend = "leave the last vertex out: close() goes back to the first one by itself";
    if gap == 0.0 {
        let seen = "the first vertex is listed again at the end of a closed contour";
        findings.add((Code::DoubledEnd, Level::Hint), drawn, (number, first), seen, mend);
    } else if gap <= size * 1e-4 {
        let seen = format!("the last vertex of a closed contour stands {} beside the first one", short(gap));
        findings.add((Code::DoubledEnd, Level::Warning), drawn, (number, first), seen, mend);
    }
}

/// Sides of no length, or very short straight ones among long ones.
fn crowded_vertices(drawn: &Drawn<'_>, number: usize, contour: &Contour, findings: &mut Findings) {
    let segments: Vec<Segment> = contour.segments().take(contour.verbs().len()).collect();
    // Not the length: a curve that comes back to where it began has one.
    let reach = |segment: &Segment| segment.bounds().size().max_element();
    let mut sizes: Vec<f64> = segments.iter().map(reach).filter(|size| *size > 0.0).collect();
    if sizes.is_empty() {
        return;
    }
    let middle = sizes.len() / 2;
    let (_, median, _) = sizes.select_nth_unstable_by(middle, f64::total_cmp);
    let limit = (*median * CROWDED_SHARE).min(CROWDED_LENGTH);
    // The end that is listed twice is told as that.
    let last = segments.len() - 1;
    let crowded = |(i, segment): &(usize, &Segment)| {
        let size = reach(segment);
        let straight = matches!(segment, Segment::Line { .. });
        size == 0.0 || (straight && size <= limit && !(*i == last && contour.is_closed()))
    };
    let all: Vec<(usize, &Segment)> = segments.iter().enumerate().filter(crowded).collect();
    if let Some((i, segment)) = all.first() {
        let more = match all.len() {
            1 => String::new(),
            n => format!(" (and {} more such pairs)", n - 1),
        };
        let apart = segment.from().distance(segment.to());
        let seen = if apart == 0.0 {
            format!("vertices {i} and {} stand in one place{more}", i + 1)
        } else {
            format!("vertices {i} and {} stand only {} apart{more}", i + 1, short(apart))
        };
        let at = segment.from();
        findings.add(
            (Code::CrowdedVertices, Level::Hint),
            drawn,
            (number, at),
            seen,
            "take one of the two out",
        );
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
        let mend = "put the vertices in the order of the rim; the bones show their numbers";
        findings.add((Code::SelfCrossing, Level::Hint), drawn, (number, *first), seen, mend);
    }
}

/// A contour right inside another that runs the same way round, under the nonzero rule: it opens no hole.
fn closed_hole(drawn: &Drawn<'_>, findings: &mut Findings) {
    let contours = drawn.path.contours();
    if !drawn.filled || contours.len() < 2 || drawn.path.fill_rule() != FillRule::Nonzero {
        return;
    }
    let nesting = drawn.path.nesting();
    for (i, contour) in contours.iter().enumerate() {
        if nesting.get(i) != Some(&1) || contour.direction() == Direction::Flat {
            continue;
        }
        let around = |(j, other): &(usize, &Contour)| {
            *j != i && nesting.get(*j) == Some(&0) && other.winding(contour.start()) != 0
        };
        let Some((_, outer)) = contours.iter().enumerate().find(around) else { continue };
        // Wholly inside: contours that overlap make one shape of both.
        let wholly = contour.vertices().all(|vertex| outer.winding(vertex) != 0) && outer != contour;
        let both = Path::from_contours([outer.clone()]);
        let clear =
            || both.crossings_with(&Path::from_contours([contour.clone()])).is_ok_and(|all| all.is_empty());
        if wholly && contour.direction() == outer.direction() && clear() {
            let seen = "a contour inside another runs the same way round, so it opens no hole";
            let mend = "make it with with_hole(..), or turn it with turn_holes() or reversed(), or use the evenodd rule";
            findings.add((Code::ClosedHole, Level::Warning), drawn, (i, contour.start()), seen, mend);
        }
    }
}
