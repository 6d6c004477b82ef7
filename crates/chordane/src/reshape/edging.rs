//! The area of a stroke, in curves.
//!
//! Both edges of the line are put together with its joins and caps, always wound one way, and what overlaps is then united.
//! On the inside of a corner the edge goes through the vertex, so that the corner's two sides stay whole.

use std::cell::Cell;

use super::chain::reshaped;
use super::flank::{Flank, Run, across, without_standstills};
use super::line_style::{Cap, FINE, Join, LineStyle};
use super::{Dash, Reshape};
use crate::arrange::{Part, arranged_within, scaled_to_numbers, without_slivers};
use crate::ground::{Fault, FaultKind, FaultSlot};
use crate::number::{Angle, Point};
use crate::path::{ArcSegment, Contour, FillRule, Path, Segment};

/// No tolerance is finer than this share of the size.
const MIN_RELATIVE_TOLERANCE: f64 = 1e-6;

/// No tolerance is coarser than this share of the width.
const MAX_TOLERANCE_PER_WIDTH: f64 = 0.01;

/// Edges that cross more often are not united.
const MAX_CROSSINGS: usize = 300_000;

/// The width is looked at in so many places along a contour to see how often it rises and falls.
const WIDTH_SAMPLES: f64 = 256.0;

pub(super) type Width<'a> = &'a dyn Fn(f64) -> f64;

/// The area of a line under the nonzero rule, its width times that of a place where there is such a function.
pub(super) fn outlined(
    outline: &LineStyle,
    path: &Path,
    width: Option<Width<'_>>,
    tolerance: f64,
    fault: &mut FaultSlot,
) -> Vec<Contour> {
    if outline.width == 0.0 {
        return Vec::new();
    }
    if let Some((path, factor)) = scaled_to_numbers(&[path], outline.width) {
        let [path] = &path[..] else { return Vec::new() };
        let scaled = LineStyle { width: outline.width * factor, ..outline.clone() };
        let area = outlined(&scaled, path, width, tolerance * factor, fault);
        return Path::from_contours(area).scaled(1.0 / factor).into_parts().0;
    }
    let size = path.bounds().map_or(0.0, |bounds| bounds.size().max_element()) + outline.width;
    let tolerance = tolerance.min(MAX_TOLERANCE_PER_WIDTH * outline.width).max(MIN_RELATIVE_TOLERANCE * size);
    let bad = Cell::new(None);
    let stroke = Stroke { outline, width, bad: &bad, tolerance };
    let edges: Vec<Contour> = path.contours().iter().flat_map(|contour| stroke.edges(contour)).collect();
    if let Some(value) = bad.get() {
        fault.note(Fault::of("tapered", FaultKind::NotFinite { what: "width", value }));
        return Vec::new();
    }
    let one = |contour| Part { contour, operand: 0, weight: 1 };
    let parts: Vec<Part<'_>> = edges.iter().map(one).collect();
    let united = arranged_within(&parts, MAX_CROSSINGS, &|[winding, _]| winding != 0);
    // Where too much crosses, the same area is given with its overlaps.
    match united {
        Some(rims) => without_slivers(rims, edges.iter(), tolerance),
        None => edges,
    }
}

struct Stroke<'a> {
    outline: &'a LineStyle,
    /// What the width is multiplied with at a share of a contour's length.
    width: Option<Width<'a>>,
    /// A width that was no number.
    bad: &'a Cell<Option<f64>>,
    tolerance: f64,
}

/// A stretch of a line without corners: one segment, or a piece of it.
struct Stretch {
    segment: Segment,
    /// How far along the contour it begins, and its length, as shares of the whole; zero where the width is even.
    from: f64,
    share: f64,
    /// Whether a vertex of the path is where it begins.
    corner: bool,
}

/// Where an edge turns: the ends of two stretches and half the width there.
#[derive(Clone, Copy)]
struct Side {
    along: Point,
    half: f64,
}

impl Side {
    /// The step to the edge on the left, in the direction of the line.
    fn left(self) -> Point {
        -self.along.perp() * self.half
    }
}

impl Stroke<'_> {
    /// Half the width at a share of the length.
    fn half(&self, share: f64) -> f64 {
        let Some(width) = self.width else { return 0.5 * self.outline.width };
        let factor = width(share);
        if !factor.is_finite() {
            self.bad.set(self.bad.get().or(Some(factor * self.outline.width)));
            return 0.0;
        }
        0.5 * self.outline.width * factor.max(0.0)
    }

    fn stretches(&self, contour: &Contour) -> Vec<Stretch> {
        let mut stretches: Vec<Stretch> = Vec::new();
        for segment in contour.segments().filter(|segment| segment.leaving() != Point::ZERO) {
            let pieces = without_standstills(&segment, self.outline.width, self.tolerance);
            stretches.extend(pieces.into_iter().enumerate().map(|(i, segment)| Stretch {
                share: if self.width.is_some() { segment.length() } else { 0.0 },
                from: 0.0,
                corner: i == 0,
                segment,
            }));
        }
        if self.width.is_some() {
            let length: f64 = stretches.iter().map(|stretch| stretch.share).sum();
            let mut from = 0.0;
            for stretch in &mut stretches {
                stretch.share /= length;
                stretch.from = from;
                from += stretch.share;
            }
            if let Some(last) = stretches.last_mut() {
                // Exactly the whole, whatever the sum of the shares.
                last.share = 1.0 - last.from;
            }
        }
        stretches
    }

    /// The rim of a stroke along one contour, with its overlaps: no spot is wound round against its direction.
    fn edges(&self, contour: &Contour) -> Vec<Contour> {
        // A lone vertex draws nothing; a line of no length draws its caps.
        if contour.vertex_count() == 1 && !contour.is_closed() {
            return Vec::new();
        }
        let stretches = self.stretches(contour);
        let (Some(first), Some(last)) = (stretches.first(), stretches.last()) else {
            return self.dot(contour.start());
        };
        let start = |stretch: &Stretch| self.side(stretch, 0.0);
        let end = |stretch: &Stretch| self.side(stretch, 1.0);
        let (mut left, mut right) = (Run::default(), Run::default());
        let mut before: Option<&Stretch> = None;
        for stretch in &stretches {
            if let Some(before) = before {
                self.turn(stretch, end(before), start(stretch), &mut left, &mut right);
            }
            before = Some(stretch);
            let (on_left, on_right) = self.flanks(stretch);
            left.append(&on_left);
            right.append(&on_right);
        }
        if contour.is_closed() {
            self.turn(first, end(last), start(first), &mut left, &mut right);
            return left
                .finish(true)
                .into_iter()
                .chain(right.finish(true).map(|run| run.reversed()))
                .collect();
        }
        let (at_end, at_start) = (last.segment.to(), first.segment.from());
        left.to(at_end + end(last).left());
        self.cap(at_end, end(last), &mut left);
        let back = right.finish(false).map(|run| run.reversed());
        left.to(at_end - end(last).left());
        back.iter().for_each(|back| left.append(back));
        let Side { along, half } = start(first);
        let home = Side { along: -along, half };
        left.to(at_start + home.left());
        self.cap(at_start, home, &mut left);
        left.finish(true).into_iter().collect()
    }

    fn side(&self, stretch: &Stretch, t: f64) -> Side {
        // A quarter turn back from the way across is the way along.
        let across = across(&stretch.segment, t);
        Side { along: Point::new(across.y, -across.x), half: self.half(stretch.from + stretch.share * t) }
    }

    fn flanks(&self, stretch: &Stretch) -> (Contour, Contour) {
        let segment = &stretch.segment;
        let whole = if self.width.is_some() { segment.length() } else { 1.0 };
        let half = |t: f64| {
            if self.width.is_none() || t == 0.0 || t == 1.0 {
                return self.half(stretch.from + stretch.share * t);
            }
            self.half(stretch.from + stretch.share * (segment.length_between(0.0, t, 1e-9) / whole))
        };
        let (even, parts) = match self.width {
            None => (Some(0.5 * self.outline.width), 2),
            Some(_) => (None, 2 * (1 + self.swings(stretch))),
        };
        let flank = Flank { segment, half: &half, even, parts, tolerance: self.tolerance };
        (flank.edge(-1.0), flank.edge(1.0))
    }

    /// How often the width turns from rising to falling or back along a stretch.
    fn swings(&self, stretch: &Stretch) -> usize {
        let looks = (WIDTH_SAMPLES * stretch.share).ceil().max(4.0);
        let halves: Vec<f64> = (0..=looks as usize)
            .map(|i| self.half(stretch.from + stretch.share * (i as f64 / looks)))
            .collect();
        let mut rising = halves.windows(2).filter(|pair| pair[0] != pair[1]).map(|pair| pair[1] > pair[0]);
        let mut last = rising.next().unwrap_or_default();
        rising.filter(|now| std::mem::replace(&mut last, *now) != *now).count()
    }

    /// What a line of no length paints.
    fn dot(&self, at: Point) -> Vec<Contour> {
        let side = Side { along: Point::X, half: self.half(0.0) };
        if self.outline.cap == Cap::Butt || side.half <= 0.0 {
            return Vec::new();
        }
        let mut run = Run::default();
        run.to(at + side.left());
        self.cap(at, side, &mut run);
        self.cap(at, Side { along: -side.along, ..side }, &mut run);
        run.finish(true).into_iter().collect()
    }

    /// The end of a stroke: clockwise from the left edge, which the run has come to, to the right one.
    fn cap(&self, at: Point, side: Side, run: &mut Run) {
        let (left, beyond) = (side.left(), side.along * side.half);
        match self.outline.cap {
            _ if side.half <= 0.0 => {}
            Cap::Butt => {}
            Cap::Square => {
                run.to(at + left + beyond);
                run.to(at - left + beyond);
            }
            Cap::Round => {
                round(run, at, [left, beyond], true);
                round(run, at, [beyond, -left], true);
            }
        }
        run.to(at - left);
    }

    /// The corner before a stretch, on both edges.
    fn turn(&self, stretch: &Stretch, a: Side, b: Side, left: &mut Run, right: &mut Run) {
        let at = stretch.segment.from();
        let (cos, sin) = (a.along.dot(b.along), a.along.perp_dot(b.along));
        let even = (a.half - b.half).abs() <= 1e-9 * a.half.max(b.half);
        if sin.abs() <= 1e-9 && cos > 0.0 && even {
            return;
        }
        // Turning clockwise, the left edge is the outer one.
        let clockwise = sin >= 0.0;
        let (side, outer, inner) = if clockwise { (1.0, left, right) } else { (-1.0, right, left) };
        inner.to(at);
        let (from, to) = (a.left() * side, b.left() * side);
        outer.to(at + from);
        match if stretch.corner { self.outline.join } else { Join::Round } {
            // The mitre's length over the width is 1 / cos(a / 2), and cos(a / 2)^2 is (1 + cos a) / 2.
            Join::Mitre
                if even && 2.0 <= self.outline.mitre_limit.powi(2) * (1.0 + cos) && cos > -1.0 + 1e-12 =>
            {
                outer.to(at + (from + to) / (1.0 + cos));
            }
            Join::Round if even && cos < 0.0 => {
                let middle = (a.along - b.along).normalize_or(a.along) * a.half;
                round(outer, at, [from, middle], clockwise);
                round(outer, at, [middle, to], clockwise);
            }
            Join::Round if even => round(outer, at, [from, to], clockwise),
            _ => {}
        }
        outer.to(at + to);
    }
}

/// An arc of at most a quarter turn about a place, from one spoke to another of the same length.
fn round(run: &mut Run, at: Point, [from, to]: [Point; 2], clockwise: bool) {
    let radii = Point::splat(from.length());
    let (from, to) = (at + from, at + to);
    if from != to {
        run.segment(&Segment::Arc(ArcSegment {
            from,
            radii,
            tilt: Angle::ZERO,
            large: false,
            clockwise,
            to,
        }));
    }
}

impl Reshape for LineStyle {
    fn reshape(&self, path: &Path) -> Path {
        let area = reshaped(
            "outlined",
            path,
            |fault| self.check("outlined", fault),
            |fault| {
                if self.dash.is_empty() {
                    return outlined(self, path, None, FINE, fault);
                }
                let dashes = path.then(Dash { offset: self.dash_offset, ..Dash::new(self.dash.clone()) });
                fault.take_from(dashes.carried());
                outlined(&Self { dash: Vec::new(), ..self.clone() }, &dashes, None, FINE, fault)
            },
        );
        area.with_fill_rule(FillRule::Nonzero)
    }
}

impl Path {
    /// The area that a line of a style paints, or one of a width, with butt caps and mitre joins; see [`LineStyle`].
    #[must_use]
    pub fn outlined(&self, line: impl Into<LineStyle>) -> Self {
        self.then(line.into())
    }
}
