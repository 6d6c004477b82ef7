//! Findings on where paths lie on the sheet and over one another.

use std::ops::ControlFlow;

use super::finding::{Code, Findings, Level};
use super::wording::short;
use super::{DocumentSpace, Drawn};
use crate::arrange::Filling;
use crate::ground::Fault;
use crate::measure::BoxTree;
use crate::number::{Cell, Point};
use crate::path::Path;
use crate::sheet::{Layered, Paint};

/// Smaller than this both ways, in pixels of 1/96 inch, a path covers less than one of them.
const SPECK_PIXELS: f64 = 0.75;

/// A stroke so many times as wide one way as the other is seen to be uneven.
const MIN_STRETCH_RATIO: f64 = 1.25;

/// A shape of which less than this share lies on the sheet was put there by mistake.
const MIN_ON_SHEET_FRACTION: f64 = 0.12;

/// More items than this are not looked through for those that are covered.
const MAX_COVER_ITEMS: usize = 20_000;

pub(super) fn look(drawn: &Drawn<'_>, filling: &Filling, space: &DocumentSpace, findings: &mut Findings) {
    let Some(bounds) = drawn.bounds else { return };
    let start = (0, bounds.centre());
    if unpainted(drawn, filling, &bounds, findings) {
        return;
    }
    let page = space.page;
    let Some(painted) = drawn.painted_bounds() else { return };
    // Of what is clipped or masked, parts are meant to lie beyond.
    let whole = !drawn.placed.cut_off;
    if whole && off_sheet(drawn, &bounds, &painted, &page, findings) {
        return;
    }
    let size = painted.size().max_element() * space.pixels;
    if size < SPECK_PIXELS && bounds.size() != Point::ZERO {
        let seen = format!("the path is a speck, {} units across", short(painted.size().max_element()));
        let mend = (
            "scale it up with scaled(..): were its numbers meant as shares of a larger size?",
            "scale it up with a transform: were its numbers meant as shares of a larger size?",
        );
        findings.add((Code::Speck, Level::Warning), drawn, start, seen, mend);
    }
    if whole && drawn.stretch >= MIN_STRETCH_RATIO && size >= SPECK_PIXELS {
        let seen = format!(
            "the stroke is stretched: it is {} times as wide one way as the other",
            short(drawn.stretch)
        );
        let mend = (
            "fit the path itself, with path.fitted(cell, \"stretch\") or path.scaled_by(..), and stroke it then",
            "scale the coordinates themselves instead of scaling by a transform",
        );
        findings.add((Code::Stretched, Level::Hint), drawn, start, seen, mend);
    }
    super::edges::cut_stroke(drawn, &bounds, &page, findings);
}

/// A path of which nothing can be seen wherever it lies, and why.
fn unpainted(drawn: &Drawn<'_>, filling: &Filling, bounds: &Cell, findings: &mut Findings) -> bool {
    let style = drawn.item.style();
    let given = style.fill.as_ref().is_some() || style.stroke.as_ref().is_some();
    let (seen, words, markup) = if drawn.half_stroke.is_some() {
        return false;
    } else if drawn.filled {
        // A line of no area at all; what is merely slim is painted.
        let flat = bounds.size().min_element() == 0.0 || filling.painted().area == 0.0;
        if !flat || bounds.size() == Point::ZERO {
            return false;
        }
        (
            "the path is filled but encloses nothing, so that nothing is painted",
            "give it stroke(\"#20303c\", 3) instead of a fill",
            "give it a stroke instead of a fill",
        )
    } else if drawn.placed.opacity == 0.0 && given {
        (
            "the opacity is 0, so that nothing is seen",
            "give it an opacity above 0, or take it out",
            "give it an opacity above 0, or take it out",
        )
    } else if given && style.stroke.as_ref().is_some_and(is_seen) && style.line.width == 0.0 {
        (
            "the stroke is 0 wide and there is no fill, so that nothing is seen",
            "give the stroke a width above 0",
            "give it a stroke-width above 0",
        )
    } else if given {
        (
            "its paint is fully transparent, so that nothing is seen",
            "give it a colour that can be seen",
            "give it a colour that can be seen",
        )
    } else {
        (
            "the path has neither fill nor stroke, so that nothing is seen",
            "give it fill(\"#c8553d\") or stroke(\"#20303c\", 3)",
            "give it a fill or a stroke",
        )
    };
    let at = drawn.path.contours().first().map_or(bounds.min, |contour| contour.start());
    findings.add((Code::Unpainted, Level::Warning), drawn, (0, at), seen, (words, markup));
    true
}

fn is_seen(paint: &Paint) -> bool {
    !paint.is_invisible()
}

/// A path wholly off the sheet, or nearly so: a shape of which hardly a tenth lies on it, its middle not. What is larger
/// than the sheet is meant to reach over it.
fn off_sheet(drawn: &Drawn<'_>, bounds: &Cell, painted: &Cell, page: &Cell, findings: &mut Findings) -> bool {
    let start = (0, bounds.centre());
    let mend = (
        "move it onto the sheet; its origin is the top left corner unless the sheet is centred()",
        "move it into the viewBox, by its coordinates or a transform",
    );
    if !crate::measure::overlap(painted, page) {
        let step = (page.min - painted.max).max(painted.min - page.max).max(Point::ZERO);
        let seen = format!("the path lies wholly off the sheet, {} away from it", short(step.length()));
        findings.add((Code::OffSheet, Level::Warning), drawn, start, seen, mend);
        return true;
    }
    let (size, room) = (bounds.size(), page.size());
    if size.cmpgt(room).any() || page.contains(bounds.centre()) || size.min_element() <= 0.0 {
        return false;
    }
    let shared = bounds.max.min(page.max) - bounds.min.max(page.min);
    let of_box = (shared.x.max(0.0) * shared.y.max(0.0)) / (size.x * size.y);
    if of_box > MIN_ON_SHEET_FRACTION * 3.0 {
        return false;
    }
    let frame = Path::closed([
        page.min,
        Point::new(page.max.x, page.min.y),
        page.max,
        Point::new(page.min.x, page.max.y),
    ]);
    let part =
        |on: Result<f64, Fault>, all: Result<f64, Fault>| Some(on.ok()? / all.ok().filter(|all| *all > 0.0)?);
    let on_it = if drawn.filled {
        part(drawn.path.intersection(&frame).area(), drawn.path.area())
    } else {
        part(drawn.path.clip_line(&frame).length(), drawn.path.length())
    };
    let Some(on_it) = on_it.filter(|on_it| *on_it < MIN_ON_SHEET_FRACTION) else { return false };
    let seen = format!("only {} % of the path lies on the sheet", short((on_it * 100.0).round()));
    findings.add((Code::OffSheet, Level::Warning), drawn, start, seen, mend);
    false
}

/// Paths whose whole box is under the opaque fill of one later path, and paths under their own likeness.
pub(super) fn covered(drawn: &[Drawn<'_>], findings: &mut Findings) {
    if drawn.len() > MAX_COVER_ITEMS {
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
            let mend = (
                "add it to the sheet after what covers it, or take it out",
                "put its element after what covers it, or take it out",
            );
            findings.add((Code::Covered, Level::Warning), under, (0, bounds.centre()), seen, mend);
        }
    }
}

fn hides(over: &Drawn<'_>, under: &Drawn<'_>, painted: &Cell) -> bool {
    let wide_enough = under.half_stroke.is_none_or(|half| {
        let solid = over
            .item
            .style()
            .stroke
            .as_ref()
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
