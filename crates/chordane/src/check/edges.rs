//! Findings on strokes at the edges of the sheet.

use super::Drawn;
use super::finding::{Code, Findings, Level};
use super::wording::short;
use crate::number::{Cell, Point};
use crate::path::{Contour, Segment};
use crate::reshape::Cap;

/// An edge of the sheet: what it is called, and how far inside it a point lies.
struct Edge {
    name: &'static str,
    /// The direction that leads off the sheet.
    out: Point,
    /// How far along that direction the edge stands.
    at: f64,
}

impl Edge {
    fn inside(&self, p: Point) -> f64 {
        self.at - p.dot(self.out)
    }
}

/// A line that lies on the sheet, to its very edge, with a stroke that does not: along the edge, at a corner, or where
/// a curve comes nearest to it. Where a line ends square at the edge nothing is cut, and a path that goes on beyond an edge
/// is meant to.
pub(super) fn cut_stroke(drawn: &Drawn<'_>, bounds: &Cell, page: &Cell, findings: &mut Findings) {
    let Some(half) = drawn.half_stroke else { return };
    let slack = page.size().max_element() * 1e-9;
    let edges = [
        Edge { name: "left", out: Point::NEG_X, at: -page.min.x },
        Edge { name: "right", out: Point::X, at: page.max.x },
        Edge { name: "upper", out: Point::NEG_Y, at: -page.min.y },
        Edge { name: "lower", out: Point::Y, at: page.max.y },
    ];
    let mut cuts: Vec<(&str, Point, f64)> = Vec::new();
    for edge in &edges {
        let farthest = edge.inside(bounds.min).min(edge.inside(bounds.max));
        // Only what reaches to within half of the width of it, and not past it.
        if farthest < -slack || farthest >= half - slack {
            continue;
        }
        let nearest = drawn
            .path
            .contours()
            .iter()
            .filter_map(|contour| nearest(contour, edge, drawn, page, half - slack))
            .min_by(|a, b| a.1.total_cmp(&b.1));
        if let Some((at, inside)) = nearest {
            cuts.push((edge.name, at, half - inside));
        }
    }
    let Some((_, at, most)) = cuts.iter().max_by(|a, b| a.2.total_cmp(&b.2)) else { return };
    let names: Vec<&str> = cuts.iter().map(|(name, ..)| *name).collect();
    let names = match &names[..] {
        [only] => format!("the {only} edge"),
        [rest @ .., last] => format!("the {} and {last} edges", rest.join(", ")),
        [] => return,
    };
    let seen = format!("the stroke is cut by {names} of the sheet: {} of its width are lost", short(*most));
    let keep = format!("keep the line {} away from the edge", short(half));
    let mend = (format!("{keep}, or make the sheet larger"), format!("{keep}, or make the viewBox larger"));
    findings.add((Code::CutStroke, Level::Warning), drawn, (0, *at), seen, mend);
}

/// Where the stroke of a contour is cut by an edge, and how far inside it the line lies there, if that is less than a limit.
fn nearest(
    contour: &Contour,
    edge: &Edge,
    drawn: &Drawn<'_>,
    page: &Cell,
    limit: f64,
) -> Option<(Point, f64)> {
    let slack = page.size().max_element() * 1e-9;
    let mut best: Option<(Point, f64)> = None;
    let mut offer = |at: Point| {
        let inside = edge.inside(at);
        if inside < limit && best.is_none_or(|(_, least)| inside < least) {
            best = Some((at, inside));
        }
    };
    let segments: Vec<Segment> = contour.segments().collect();
    for segment in &segments {
        let (from, to) = (segment.from(), segment.to());
        if matches!(segment, Segment::Line { .. }) {
            // Along the edge, over more than a corner of the sheet.
            let along = (edge.inside(from) - edge.inside(to)).abs() <= slack;
            let (low, high) = (from.min(to).max(page.min), from.max(to).min(page.max));
            if along && (high - low).max_element() > slack && (high - low).min_element() >= -slack {
                offer(low.midpoint(high));
            }
        } else {
            for t in segment.turns().into_iter().flatten().flatten() {
                offer(segment.at(t));
            }
        }
    }
    // Corners and round joints: one segment comes no farther away from the edge, the next comes no nearer.
    let seam = contour.is_closed().then(|| segments.last().zip(segments.first())).flatten();
    let joints = segments.windows(2).filter_map(|pair| Some((pair.first()?, pair.get(1)?))).chain(seam);
    for (before, behind) in joints {
        let (arriving, leaving) = (before.arriving(), behind.leaving());
        if arriving.dot(edge.out) >= -1e-9 * arriving.length()
            && leaving.dot(edge.out) <= 1e-9 * leaving.length()
        {
            offer(before.to());
        }
    }
    // Ends with a cap that reaches farther than the line, unless the line goes to the edge itself.
    if !contour.is_closed() && drawn.item.style().line.cap != Cap::Butt {
        let ends = segments.first().map(|s| (s.from(), -s.leaving()));
        let ends = ends.into_iter().chain(segments.last().map(|s| (s.to(), s.arriving())));
        for (end, outward) in ends {
            if edge.inside(end) > slack && outward.dot(edge.out) > 0.0 {
                offer(end);
            }
        }
    }
    best
}
