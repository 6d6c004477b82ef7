//! Squared paper to draw on.

use super::{Group, Style, Styled, group};
use crate::ground::{Fault, FaultKind, FaultSlot, short};
use crate::number::{Cell, Point, pt};
use crate::path::Path;
use crate::shape::{lettering, lettering_width};

/// More lines than this one way are a fault: nobody could tell them apart.
const MAX_LINES: usize = 2000;

/// Approximate number of labelled lines along the longer side.
const TARGET_LABELS: f64 = 12.0;

const INK: &str = "#20303c";

/// Squared paper over a cell, to lie under a drawing: a line at every multiple of a step within it, every fifth of them
/// stronger, and numbers at some, which are the coordinates of what is drawn on it. The axes are the strongest.
///
/// Empty for a cell of no size. A step of zero or less, or so small that there would be more than 2,000 lines one way, is a
/// fault. Cost: linear in the lines.
///
/// ```
/// use chordane::prelude::*;
/// let page = sheet(200.0, 120.0).centred();
/// let squares = paper(&page.cell(), 20.0);
/// let page = page.add(squares).add(circle((0.0, 0.0), 40.0).stroke("teal", 2.0));
/// assert_eq!(page.check()?.findings, []);
/// # Ok::<(), Fault>(())
/// ```
#[must_use]
pub fn paper(cell: &Cell, step: f64) -> Group {
    let mut fault = FaultSlot::default();
    let size = cell.size();
    let mut sound = fault.point("paper", cell.min);
    sound &= fault.point("paper", cell.max);
    sound &= fault.positive("paper", "step", step);
    let count = (size.max_element() / step).ceil();
    if sound && count > MAX_LINES as f64 {
        let kind = FaultKind::TooMany { what: "lines", count: count.min(1e15) as usize, limit: MAX_LINES };
        fault.note(Fault::of("paper", kind));
        sound = false;
    }
    if !sound {
        return group().add(Path::from_parts(Vec::new(), Default::default(), fault).stroke(INK, 1.0));
    }
    if size.min_element() <= 0.0 {
        return group();
    }
    let whole = |low: f64, high: f64| {
        // Not on the rim itself, where half of a line would be cut off.
        let first = (low / step + 1e-9).floor() as i64 + 1;
        let last = (high / step - 1e-9).ceil() as i64 - 1;
        first..=last
    };
    let (columns, rows) = (whole(cell.min.x, cell.max.x), whole(cell.min.y, cell.max.y));
    let upright = |i: i64| [pt(i as f64 * step, cell.min.y), pt(i as f64 * step, cell.max.y)];
    let level = |i: i64| [pt(cell.min.x, i as f64 * step), pt(cell.max.x, i as f64 * step)];
    // How strong a line is: an axis, every fifth, or any other.
    let strength = |i: i64| {
        if i == 0 {
            0
        } else if i % 5 == 0 {
            1
        } else {
            2
        }
    };
    let unit = size.max_element() / 1000.0;
    let styles = [(1.6, 0.6), (1.0, 0.4), (0.6, 0.25)];
    let mut all = group();
    for (kind, (width, opacity)) in styles.into_iter().enumerate().rev() {
        let across = columns.clone().filter(|i| strength(*i) == kind).map(upright);
        let down = rows.clone().filter(|i| strength(*i) == kind).map(level);
        let lines =
            Path::from_contours(across.chain(down).flat_map(|line| Path::open(line).contours().to_vec()));
        if !lines.is_empty() {
            all = all.add(lines.stroke(INK, width * unit).opacity(opacity));
        }
    }
    all.add_all(numbers(cell, step, unit * 14.0, (columns, rows)))
}

type Counts = std::ops::RangeInclusive<i64>;

/// The coordinates along the upper and the left side.
fn numbers(cell: &Cell, step: f64, height: f64, (columns, rows): (Counts, Counts)) -> Option<super::Item> {
    let least = cell.size().max_element() / (step * TARGET_LABELS);
    let every = [1, 2, 5, 10, 20, 50, 100, 200, 500].into_iter().find(|every| f64::from(*every) >= least)?;
    let text = |i: i64| short(i as f64 * step, 6);
    let gap = height * 0.4;
    let above = columns.filter(|i| i % i64::from(every) == 0).filter_map(|i| {
        let at = pt(i as f64 * step + gap, cell.min.y + height + gap);
        (at.x + lettering_width(&text(i), height) <= cell.max.x).then(|| lettering(&text(i), at, height))
    });
    // The uppermost one would stand on those of the other side.
    let beside = rows.filter(|i| i % i64::from(every) == 0).filter_map(|i| {
        let at = Point::new(cell.min.x + gap, i as f64 * step - gap);
        (at.y - height > cell.min.y + 2.0 * height).then(|| lettering(&text(i), at, height))
    });
    let all = Path::from_contours(above.chain(beside).flat_map(|number| number.contours().to_vec()));
    let style = Style::default().stroke(INK, height * 0.1).opacity(0.7);
    (!all.is_empty()).then(|| all.styled(&style))
}
