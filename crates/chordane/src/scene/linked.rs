//! Loops that pass over and under one another in turn.

use std::collections::VecDeque;

use crate::ground::{exhausted, limited};
use crate::number::Cell;
use crate::path::Path;
use crate::sheet::{Group, Item, Layered, Node, group};

/// More loops than these lie as they were given: every two that overlap are looked at.
const MAX_LOOPS: usize = 2000;

/// Where two loops overlap.
struct Meeting {
    loops: [usize; 2],
    /// The area that both paint.
    area: Path,
    /// How far along each of them it is.
    along: [f64; 2],
    /// Its place among the meetings of each, in that order.
    place: [usize; 2],
}

/// Closed loops, stroked or filled as bands, that pass over and under one another in turn wherever they overlap: rings in a row become a
/// chain whose links really hang in one another.
///
/// All are drawn in order, and where the lower one should be on top, it is drawn once more within what both paint there. Two closed loops cross an
/// even number of times, so that this always comes out. Three loops that overlap on one spot have no defined order there. What is translucent or
/// faded shows what lies under it twice. Loops that overlap nothing stay as given, as do all of them if there are more than 2,000. Cost: with the
/// square of the loops, and one combination for each pair that overlaps.
///
/// ```
/// use chordane::prelude::*;
/// let hoop = |x: f64, colour: &str| circle((x, 40.0), 24.0).stroke(colour, 8.0);
/// let chain = linked([hoop(40.0, "#ff0000"), hoop(70.0, "#0000ff")]);
/// let pixels = sheet(110.0, 80.0).add(chain).pixels().unwrap();
/// // They cross above and below one another's middles: once the one lies over, once the other.
/// let (above, below) = (pixels.at(55, 21).unwrap(), pixels.at(55, 59).unwrap());
/// assert_ne!(above, below);
/// ```
#[must_use]
pub fn linked<I: Into<Item>>(items: impl IntoIterator<Item = I>) -> Group {
    let items: Vec<Item> = items.into_iter().map(Into::into).collect();
    limited("linked", || hung_together(&items)).unwrap_or_else(|stopped| group().with_fault(stopped))
}

fn hung_together(items: &[Item]) -> Group {
    let meetings = if items.len() > MAX_LOOPS { Vec::new() } else { meetings(items) };
    let over = over(items.len(), &meetings);
    let mut all = group().add_all(items.iter().cloned());
    for (meeting, first) in meetings.iter().zip(over) {
        // The second of the two was drawn later.
        if first && let Some(item) = items.get(meeting.loops[0]) {
            // A little more than both paint, so that nothing of the lower one shines through at the rim.
            let more = 0.02 * meeting.area.bounds().map_or(0.0, |bounds| bounds.size().max_element());
            let shown: Node = item.clone().into();
            all = all.add(group().add(shown).clipped(meeting.area.offset(more)));
        }
    }
    all
}

/// All places where two loops overlap.
fn meetings(items: &[Item]) -> Vec<Meeting> {
    let painted: Vec<Path> = items.iter().map(painted).collect();
    let bounds: Vec<Option<Cell>> = painted.iter().map(Path::bounds).collect();
    let lines: Vec<_> = items
        .iter()
        .map(|item| {
            item.path().transformed(&item.placement.transform).contours().first().map(|rim| rim.survey())
        })
        .collect();
    let mut found: Vec<Meeting> = Vec::new();
    for (i, a) in painted.iter().enumerate() {
        for (j, b) in painted.iter().enumerate().skip(i + 1) {
            if exhausted(50) {
                return found;
            }
            let near = bounds[i].zip(bounds[j]).is_some_and(|(a, b)| crate::measure::overlap(&a, &b));
            if !near {
                continue;
            }
            for area in pieces(&a.intersection(b)) {
                let Some(middle) = area.centroid().ok().flatten() else { continue };
                let along = |line: usize| {
                    let survey = lines.get(line)?.as_ref()?;
                    survey.nearest(middle).map(|station| station.distance())
                };
                if let (Some(on_a), Some(on_b)) = (along(i), along(j)) {
                    found.push(Meeting { loops: [i, j], area, along: [on_a, on_b], place: [0, 0] });
                }
            }
        }
    }
    for number in 0..items.len() {
        let mut on: Vec<(f64, usize, usize)> = Vec::new();
        for (at, meeting) in found.iter().enumerate() {
            for side in [0, 1] {
                if meeting.loops[side] == number {
                    on.push((meeting.along[side], at, side));
                }
            }
        }
        on.sort_by(|a, b| a.0.total_cmp(&b.0));
        for (place, (_, at, side)) in on.into_iter().enumerate() {
            if let Some(meeting) = found.get_mut(at) {
                meeting.place[side] = place;
            }
        }
    }
    found
}

/// What an item paints.
fn painted(item: &Item) -> Path {
    let style = item.style();
    let stroked = style.seen_stroke().map(|_| item.path().then(style.line.clone()));
    let filled = style.fill.as_ref().map(|_| item.path().clone());
    let area = match (filled, stroked) {
        (Some(filled), Some(stroked)) => filled.union(stroked),
        (Some(one), None) | (None, Some(one)) => one,
        (None, None) => Path::empty(),
    };
    area.transformed(&item.placement.transform)
}

/// The parts of an area that do not hang together, each with its holes.
fn pieces(area: &Path) -> Vec<Path> {
    let depths = area.depths();
    let contours = area.contours();
    let outlines = contours.iter().zip(&depths).filter(|(_, depth)| *depth % 2 == 0).map(|(outline, _)| {
        let frame = Path::from_contours([outline.clone()]);
        let holes = contours.iter().zip(&depths).filter(|(_, depth)| *depth % 2 == 1);
        let own = holes.filter(|(hole, _)| frame.inside(hole.start())).map(|(hole, _)| hole.clone());
        Path::from_contours(std::iter::once(outline.clone()).chain(own.collect::<Vec<_>>()))
    });
    outlines.collect()
}

/// Whether at each meeting the first of the two lies over the second. Along every loop it is over and under in turn; of loops that hang together
/// the first begins under.
fn over(count: usize, meetings: &[Meeting]) -> Vec<bool> {
    let mut begins: Vec<Option<bool>> = vec![None; count];
    let mut touching: Vec<Vec<usize>> = vec![Vec::new(); count];
    for (at, meeting) in meetings.iter().enumerate() {
        for number in meeting.loops {
            if let Some(own) = touching.get_mut(number) {
                own.push(at);
            }
        }
    }
    for first in 0..count {
        if begins.get(first).copied().flatten().is_some() {
            continue;
        }
        begins[first] = Some(false);
        let mut open = VecDeque::from([first]);
        while let Some(number) = open.pop_front() {
            let Some(own) = begins.get(number).copied().flatten() else { continue };
            for meeting in touching.get(number).into_iter().flatten().filter_map(|at| meetings.get(*at)) {
                let side = usize::from(meeting.loops[1] == number);
                let (other, odd) = (meeting.loops[1 - side], |side: usize| meeting.place[side] % 2 == 1);
                // One of the two is over where the other is under.
                let wanted = !(own ^ odd(side)) ^ odd(1 - side);
                if let Some(slot @ None) = begins.get_mut(other) {
                    *slot = Some(wanted);
                    open.push_back(other);
                }
            }
        }
    }
    let begin = |number: usize| begins.get(number).copied().flatten().unwrap_or(false);
    meetings.iter().map(|meeting| begin(meeting.loops[0]) ^ (meeting.place[0] % 2 == 1)).collect()
}
