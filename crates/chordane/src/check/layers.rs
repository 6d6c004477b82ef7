//! Findings on where paths lie on the sheet and over one another.

use std::ops::ControlFlow;

use super::Drawn;
use super::finding::{Code, Findings, Level};
use super::wording::short;
use crate::measure::BoxTree;
use crate::number::{Cell, Point};
use crate::path::Path;
use crate::sheet::{Paint, Sheet};

/// Smaller than this both ways, in pixels of 1/96 inch, a path covers less than one of them.
const SPECK: f64 = 0.75;

/// A stroke so many times as wide one way as the other is seen to be uneven.
const STRETCHED: f64 = 1.25;

/// More items than this are not looked through for those that are covered.
const MOST_COVERED: usize = 20_000;

pub(super) fn look(drawn: &Drawn<'_>, sheet: &Sheet, findings: &mut Findings) {
    let Some(bounds) = drawn.bounds else { return };
    let start = (0, bounds.centre());
    if !drawn.filled && drawn.half_stroke.is_none() {
        let seen = "the path has neither fill nor stroke and would be invisible";
        let mend = "give it fill(\"#c8553d\") or stroke(\"#20303c\", 3)";
        let at = drawn.path.contours().first().map_or(bounds.min, |contour| contour.start());
        findings.add((Code::Unpainted, Level::Warning), drawn, (0, at), seen, mend);
        return;
    }
    let page = page(sheet);
    let Some(painted) = drawn.painted_bounds() else { return };
    if !crate::measure::overlap(&painted, &page) {
        let step = (page.min - painted.max).max(painted.min - page.max).max(Point::ZERO);
        let seen = format!("the path lies wholly off the sheet, {} away from it", short(step.length()));
        let mend = "move it onto the sheet; its origin is the top left corner unless the sheet is centred()";
        findings.add((Code::OffSheet, Level::Warning), drawn, start, seen, mend);
        return;
    }
    let size = painted.size().max_element() * sheet.get_unit().pixels();
    if size < SPECK && bounds.size() != Point::ZERO {
        let seen = format!("the path is a speck, {} units across", short(painted.size().max_element()));
        let mend = "scale it up with scaled(..): were its numbers meant as shares of a larger size?";
        findings.add((Code::Speck, Level::Warning), drawn, start, seen, mend);
    }
    if drawn.stretch >= STRETCHED && size >= SPECK {
        let seen = format!(
            "the stroke is stretched: it is {} times as wide one way as the other",
            short(drawn.stretch)
        );
        let mend = "fit the path itself, with path.fitted(cell, \"stretch\") or path.scaled_by(..), and stroke it then";
        findings.add((Code::Stretched, Level::Hint), drawn, start, seen, mend);
    }
    cut_stroke(drawn, &bounds, &painted, &page, findings);
}

/// The sheet's own rectangle, in the coordinates of what is on it.
fn page(sheet: &Sheet) -> Cell {
    let corner = sheet.corner();
    let back = sheet.upright().inverse();
    let (a, b) = (back.transform_point2(corner), back.transform_point2(corner + sheet.size()));
    Cell { min: a.min(b), max: a.max(b) }
}

/// A line that lies on the sheet, to its very edge, with a stroke that does not. A path that goes on beyond the edge
/// is meant to.
fn cut_stroke(drawn: &Drawn<'_>, bounds: &Cell, painted: &Cell, page: &Cell, findings: &mut Findings) {
    let slack = page.size().max_element() * 1e-9;
    let inside = bounds.min.cmpge(page.min - slack).all() && bounds.max.cmple(page.max + slack).all();
    let over = (page.min - painted.min).max(painted.max - page.max);
    let Some(half) = drawn.half_stroke.filter(|_| inside && over.max_element() > slack) else { return };
    // A mitre or cap reaches elsewhere; what counts is the line itself near the edge.
    let (edge, at) = if page.min.x - painted.min.x > slack {
        ("left", Point::new(page.min.x, bounds.centre().y))
    } else if painted.max.x - page.max.x > slack {
        ("right", Point::new(page.max.x, bounds.centre().y))
    } else if page.min.y - painted.min.y > slack {
        (if drawn.path.is_empty() { "" } else { "upper" }, Point::new(bounds.centre().x, page.min.y))
    } else {
        ("lower", Point::new(bounds.centre().x, page.max.y))
    };
    let seen = format!(
        "the stroke is cut by the {edge} edge of the sheet: {} of its width are lost",
        short(over.max_element())
    );
    let mend = format!("keep the line {} away from the edge, or make the sheet larger", short(half));
    findings.add((Code::CutStroke, Level::Warning), drawn, (0, at), seen, mend);
}

/// Paths whose whole box is under the opaque fill of one later path, and paths under their own likeness.
pub(super) fn covered(drawn: &[Drawn<'_>], findings: &mut Findings) {
    if drawn.len() > MOST_COVERED {
        return;
    }
    let covers: Vec<&Drawn<'_>> = drawn.iter().filter(|d| d.opaque && d.bounds.is_some()).collect();
    let tree = BoxTree::new(covers.iter().filter_map(|d| d.bounds));
    for under in drawn.iter().filter(|d| d.filled || d.half_stroke.is_some()) {
        let (Some(painted), Some(bounds)) = (under.painted_bounds(), under.bounds) else { continue };
        let mut by = None;
        let _ = tree.each(
            |b| b.contains(bounds.min) && b.contains(bounds.max),
            |i| match covers.get(i) {
                Some(over) if over.number > under.number && hides(over, under, &painted) => {
                    by = Some(over.number);
                    ControlFlow::Break(())
                }
                _ => ControlFlow::Continue(()),
            },
        );
        if let Some(over) = by.and_then(|number| drawn.get(number)) {
            let which = match (over.item.name(), over.item.line()) {
                (Some(name), _) => format!("\"{name}\""),
                (None, Some(line)) => format!("that of line {line}"),
                (None, None) => format!("path {}", over.number),
            };
            let seen = format!("the path lies wholly under another, {which}, and is not seen");
            let mend = "add it to the sheet after what covers it, or take it out";
            findings.add((Code::Covered, Level::Warning), under, (0, bounds.centre()), seen, mend);
        }
    }
}

fn hides(over: &Drawn<'_>, under: &Drawn<'_>, painted: &Cell) -> bool {
    let wide_enough = under.half_stroke.is_none_or(|half| {
        let solid = over
            .item
            .style()
            .stroke_paint()
            .and_then(Paint::colour)
            .is_some_and(|colour| colour.alpha >= 1.0);
        solid && over.half_stroke.is_some_and(|other| other >= half)
    });
    if over.path == under.path {
        return wide_enough;
    }
    let Some(around) = over.bounds.filter(|b| b.contains(painted.min) && b.contains(painted.max)) else {
        return false;
    };
    // The whole box is painted when the cover's rim does not come into it and one corner is.
    let (min, max) = (painted.min, painted.max);
    let frame = Path::closed([min, Point::new(max.x, min.y), max, Point::new(min.x, max.y)]);
    let clear = around == *painted || over.path.crossings_with(&frame).is_ok_and(|all| all.is_empty());
    let rim_outside = over.path.contours().iter().all(|contour| !inner(painted, contour.start()));
    clear && rim_outside && over.path.inside(painted.centre()) && over.path.inside(min.lerp(max, 0.01))
}

fn inner(bounds: &Cell, p: Point) -> bool {
    p.cmpgt(bounds.min).all() && p.cmplt(bounds.max).all()
}
