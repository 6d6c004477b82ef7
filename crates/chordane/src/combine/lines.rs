//! Lines cut by an area.

use std::ops::ControlFlow;

use crate::arrange::all_closed;
use crate::arrange::{crossing_at, scaled_to_numbers};
use crate::ground::FaultSlot;
use crate::measure::{BoxTree, Meet, meets, overlap, tolerance_of, winding_in};
use crate::number::{Cell, Point};
use crate::path::{Contour, ContourBuilder, Path, Segment};

impl Path {
    /// The parts of the line that lie in an area, under its fill rule; closed contours count as lines that come back.
    ///
    /// The parts are open contours in the line's order and direction, with arcs and curves kept; a closed contour that is
    /// inside as a whole stays closed. What runs along the rim counts as inside. Places nearer together than 1e-10 of the
    /// extent of both count as one.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let thread = Path::open([(-16.0, 5.0), (48.0, 5.0)]);
    /// let hoops = rectangle((0.0, 0.0), 10.0, 10.0).and(&rectangle((20.0, 0.0), 10.0, 10.0));
    /// assert_eq!(thread.clip_line(&hoops).data(), "M0 5H10M20 5H30");
    /// assert_eq!(thread.clip_line_outside(&hoops).data(), "M-16 5H0M10 5H20M30 5H48");
    /// ```
    #[must_use]
    pub fn clip_line(&self, area: impl AsRef<Self>) -> Self {
        Self::limited("clip_line", || cut(self, area.as_ref(), true))
    }

    /// The parts of the line that lie outside an area; as [`Path::clip_line`] otherwise.
    #[must_use]
    pub fn clip_line_outside(&self, area: impl AsRef<Self>) -> Self {
        Self::limited("clip_line_outside", || cut(self, area.as_ref(), false))
    }
}

fn cut(line: &Path, area: &Path, inside: bool) -> Path {
    let mut fault: FaultSlot = line.carried().clone();
    fault.take_from(area.carried());
    let extent = [line, area].into_iter().filter_map(Path::bounds).reduce(Cell::union);
    let (Some(extent), None) = (extent, fault.get()) else {
        return Path::from_parts(Vec::new(), line.fill_rule(), fault);
    };
    if let Some((scaled, factor)) = scaled_to_numbers(&[line, area], 0.0) {
        let [line, area] = &scaled[..] else { return Path::empty() };
        return cut(line, area, inside).scaled(1.0 / factor);
    }
    let off = tolerance_of(&extent);
    let closed = all_closed(area);
    let rim: Vec<Segment> = closed.segments().collect();
    let tree = BoxTree::new(rim.iter().map(Segment::bounds));
    let rule = area.fill_rule();
    let kept = |piece: &Segment| {
        let spot = piece.at(0.5);
        let bounds = Cell { min: spot, max: spot }.grown(4.0 * off);
        let on_rim = tree.each(
            |b| overlap(b, &bounds),
            |i| match rim.get(i).filter(|side| side.distance(spot) <= 4.0 * off) {
                Some(_) => ControlFlow::Break(()),
                None => ControlFlow::Continue(()),
            },
        );
        (on_rim.is_break() || rule.encloses(winding_in(&rim, &tree, spot))) == inside
    };
    let mut parts: Vec<Contour> = Vec::new();
    for contour in line.contours() {
        let mut own: Vec<Vec<Segment>> = Vec::new();
        let (mut whole, mut going) = (true, false);
        for segment in contour.segments() {
            let mut last = (0.0, segment.from());
            let mut pieces: Vec<(f64, f64, Segment)> = Vec::new();
            // Where on this segment the part that goes on was begun.
            let mut begun = 0.0;
            for (at, spot) in cuts(&segment, &rim, &tree, off).into_iter().chain([(1.0, segment.to())]) {
                if at < 1.0 && spot.distance(last.1) <= 2.0 * off && at - last.0 < 0.5 {
                    continue;
                }
                pieces.push((last.0, at, segment.stretch(last.0, at).with_ends(last.1, spot)));
                last = (at, spot);
            }
            for (from, to, piece) in pieces {
                if !kept(&piece) {
                    (whole, going) = (false, false);
                    continue;
                }
                match own.last_mut().filter(|_| going) {
                    // A cut that changed nothing leaves no vertex.
                    Some(run) if from > 0.0 => {
                        let begin = run.pop().map_or(piece.from(), |before| before.from());
                        run.push(segment.stretch(begun, to).with_ends(begin, piece.to()));
                    }
                    Some(run) => {
                        begun = from;
                        run.push(piece);
                    }
                    None => {
                        begun = from;
                        own.push(vec![piece]);
                    }
                }
                going = true;
            }
        }
        if whole {
            parts.extend((!own.is_empty()).then(|| contour.clone()));
            continue;
        }
        // Over the seam of a closed contour the last part goes on with the first.
        let seam = contour.is_closed() && going && own.len() > 1;
        if seam
            && own.first().and_then(|run| run.first()).is_some_and(|first| first.from() == contour.start())
        {
            let first = own.remove(0);
            if let Some(last) = own.last_mut() {
                last.extend(first);
            }
        }
        parts.extend(own.into_iter().filter_map(|run| {
            let mut builder = ContourBuilder::new(run.first()?.from());
            run.iter().for_each(|segment| builder.segment(segment));
            Some(builder.finish(false))
        }));
    }
    Path::from_parts(parts, line.fill_rule(), fault)
}

/// Where a segment meets a rim, in order.
fn cuts(segment: &Segment, rim: &[Segment], tree: &BoxTree, off: f64) -> Vec<(f64, Point)> {
    let reach = segment.bounds().grown(off);
    let mut cuts = Vec::new();
    let _ = tree.each(
        |bounds| overlap(bounds, &reach),
        |i| {
            if let Some(side) = rim.get(i) {
                meets(segment, side, off, &mut |meet| match meet {
                    Meet::At(s, t) => cuts.push((s, crossing_at((segment, s), (side, t)))),
                    Meet::Along(s, _) => cuts.extend(s.map(|s| (s, segment.at(s)))),
                });
            }
            ControlFlow::Continue(())
        },
    );
    cuts.retain(|(at, _)| *at > 0.0 && *at < 1.0);
    cuts.sort_by(|a, b| a.0.total_cmp(&b.0));
    cuts
}
