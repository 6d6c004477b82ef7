//! Parallel curves and grown or shrunk areas.
//!
//! A spot beside a line that is no farther than the distance lies on the ribbon between the line and its parallel, or in a
//! sector at a corner that points its way: that is where the nearest place of the line is. So the area is joined with the
//! ribbons and sectors on its outside, or loses those on its inside, and no loop can be left. Where a line bends toward the
//! ribbon more than the distance allows, the ribbon ends at the centre of the bend.

use super::Reshape;
use super::chain::reshaped;
use super::corners::{MIN_CORNER_ANGLE, jump};
use super::flank::parallel;
use super::line_style::{FINE, Join};
use crate::arrange::{
    Arrangement, DirectedEdge, Edge, MAX_INTERSECTIONS, Part, arranged, combined, contours, lefts, right_of,
    scaled_to_numbers, sources, too_many, without_slivers,
};
use crate::ground::FaultSlot;
use crate::measure::tolerance_of;
use crate::number::{Angle, Cell, Point};
use crate::path::{ArcSegment, Contour, ContourBuilder, FillRule, Path, Segment};

/// A corner that turns by more than this, in radians, is taken for a cusp.
const TURNED_BACK: f64 = 3.05;

/// The parallel curve at a distance: areas grown or shrunk, open lines doubled.
///
/// Closed contours are taken as an area under the fill rule: a positive distance grows it, a negative one shrinks it, holes
/// the other way, and what is nowhere thick enough vanishes; shrunk to nothing it is an empty path. [`Offset::both`] gives
/// the rim instead: all that is no farther from the line, on either side. Open contours give the line beside them, to the
/// right of the way on for a positive distance, without loops and without what comes nearer than the distance to another
/// part; `both` gives the lines on both sides.
///
/// Sides stay sides and arcs of circles arcs; parallels of other curves are cubics to within a tolerance. Corners that
/// point outward are joined by a mitre, by an arc, or straight.
///
/// ```
/// use chordane::prelude::*;
/// let sail = rectangle((0.0, 0.0), 40.0, 30.0);
/// assert_eq!(sail.then(Offset::new(5.0)).data(), "M-5-5H45V35H-5Z");
/// assert_eq!(sail.then(Offset::new(-5.0)).data(), "M5 5H35V25H5Z");
/// assert!(sail.then(Offset::new(-20.0)).is_empty());
/// let hem = sail.then(Offset { join: Join::Round, ..Offset::new(5.0) });
/// assert_eq!(hem.data(), "M-5 0A5 5 0 0 1 0-5H40A5 5 0 0 1 45 0V30A5 5 0 0 1 40 35H0A5 5 0 0 1-5 30Z");
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Offset {
    /// The distance in sheet units. Zero gives the area without its crossings, and open lines as they are.
    pub distance: f64,
    /// How corners that point outward are joined.
    pub join: Join,
    /// The longest mitre, from the corner of a stroke twice as wide as the distance to
    /// its tip, as a multiple of that width; 4 by default. Beyond it the corner is cut straight.
    pub mitre_limit: f64,
    /// Whether both sides are given.
    pub both: bool,
    /// How near the parallels of curves are to the true ones, in sheet units, 0.005 by default; no finer
    /// than a millionth of the curve's size and the distance.
    pub tolerance: f64,
}

impl Offset {
    /// At a distance in sheet units, with mitre joins up to a limit of 4. Zero gives the area without its crossings, and
    /// open lines as they are.
    #[must_use]
    pub fn new(distance: f64) -> Self {
        Self { distance, join: Join::Mitre, mitre_limit: 4.0, both: false, tolerance: FINE }
    }

    fn check(&self) -> FaultSlot {
        let mut fault = FaultSlot::default();
        fault.finite("offset", "distance", self.distance);
        fault.not_negative("offset", "mitre limit", self.mitre_limit);
        fault.positive("offset", "tolerance", self.tolerance);
        fault
    }
}

impl Reshape for Offset {
    fn reshape(&self, path: &Path) -> Path {
        let parallel = reshaped(
            "offset",
            path,
            |fault| fault.take_from(&self.check()),
            |fault| {
                let made = self.of_path(path);
                fault.take_from(made.carried());
                made.into_parts().0
            },
        );
        parallel.with_fill_rule(FillRule::Nonzero)
    }
}

impl Path {
    /// The parallel curve at a distance in sheet units; see [`Offset`].
    #[must_use]
    pub fn offset(&self, distance: f64) -> Self {
        self.then(Offset::new(distance))
    }
}

impl Offset {
    fn of_path(&self, path: &Path) -> Path {
        if let Some((path, factor)) = scaled_to_numbers(&[path], self.distance) {
            let [path] = &path[..] else { return Path::empty() };
            let (distance, tolerance) = (self.distance * factor, self.tolerance * factor);
            return Self { distance, tolerance, ..*self }.of_path(path).scaled(1.0 / factor);
        }
        let (closed, open): (Vec<Contour>, Vec<Contour>) =
            path.contours().iter().cloned().partition(Contour::is_closed);
        let area = Path::from_contours(closed).with_fill_rule(path.fill_rule());
        let mut result = self.of_area(&area);
        for contour in open {
            result = result.and(&self.of_line(&contour));
        }
        result
    }

    fn of_area(&self, area: &Path) -> Path {
        let plain = combined("offset", area, &Path::empty(), |a, _| a);
        if self.distance == 0.0 || plain.is_empty() || plain.sound().is_err() {
            return plain;
        }
        // Outlines run clockwise as seen: their outside is on the left.
        let reach = self.distance.abs();
        let outer = || plain.contours().iter().flat_map(|contour| self.ribbons(contour, -reach));
        let inner = || plain.contours().iter().flat_map(|contour| self.ribbons(contour, reach));
        let (grow, shrink) = (self.both || self.distance > 0.0, self.both || self.distance < 0.0);
        let ribbons: Vec<Ribbon> = match (self.both, grow) {
            (true, _) => outer().chain(inner()).collect(),
            (false, true) => outer().collect(),
            (false, false) => inner().collect(),
        };
        let one = |operand: usize| move |contour| Part { contour, operand, weight: 1 };
        let parts: Vec<Part<'_>> = plain
            .contours()
            .iter()
            .map(one(0))
            .chain(ribbons.iter().map(|ribbon| &ribbon.outline).map(one(1)))
            .collect();
        let kept = arranged(&parts, &|[area, ribbon]| match (grow, shrink) {
            (true, true) => ribbon != 0,
            (true, false) => area != 0 || ribbon != 0,
            _ => area != 0 && ribbon == 0,
        });
        let Some(rims) = kept else { return too_many("offset", FaultSlot::default()) };
        let size = area.bounds().map_or(0.0, |bounds| bounds.size().max_element()) + reach;
        let outlines = ribbons.iter().map(|ribbon| &ribbon.outline);
        Path::from_contours(without_slivers(rims, outlines, self.tolerance_for(size)))
    }

    /// The tolerance for curves of a given size: at least a millionth of it, since a finer fit needs cubics too short to tell apart.
    fn tolerance_for(&self, size: f64) -> f64 {
        self.tolerance.max(1e-6 * size)
    }

    /// The lines beside an open contour: the rim of all that is near to it, as far as it is a parallel of the right side.
    fn of_line(&self, contour: &Contour) -> Path {
        if self.distance == 0.0 {
            return Path::from_contours([contour.clone()]);
        }
        let mut all = self.ribbons(contour, self.distance);
        let own = all.len();
        all.extend(self.ribbons(contour, -self.distance));
        let parts: Vec<Part<'_>> =
            all.iter().map(|ribbon| Part { contour: &ribbon.outline, operand: 0, weight: 1 }).collect();
        let Some(extent) = parts.iter().map(|part| part.contour.bounds()).reduce(Cell::union) else {
            return Path::empty();
        };
        let off = tolerance_of(&extent);
        let sources = sources(&parts, off);
        let Some(arrangement) = Arrangement::new(&sources, off, MAX_INTERSECTIONS) else {
            return too_many("offset", FaultSlot::default());
        };
        let lefts = lefts(&arrangement, &sources, off);
        let of = |source: usize| {
            sources.get(source).map_or((0, usize::MAX), |source| (source.part, source.number))
        };
        let wanted = |source: usize| {
            let (part, number) = of(source);
            let parallel = all.get(part).is_some_and(|ribbon| number < ribbon.parallel);
            parallel && (self.both || part < own)
        };
        let rim = |(number, (edge, left)): (usize, (&Edge, &[i32; 2]))| {
            let (inside_left, inside_right) = (left[0] != 0, right_of(*left, Some(edge))[0] != 0);
            (inside_left != inside_right && wanted(edge.source))
                .then_some(DirectedEdge { edge: number, up: inside_left })
        };
        let steps: Vec<DirectedEdge> =
            arrangement.edges.iter().zip(&lefts).enumerate().filter_map(rim).collect();
        let runs = contours(&arrangement, &sources, &steps, off, false).contours;
        // They run the way that the line does: the rim has its inside on the right.
        let turned = runs.into_iter().map(|(source, run)| {
            let right = (of(source).0 < own) == (self.distance > 0.0);
            if right { run.reversed() } else { run }
        });
        Path::from_contours(turned)
    }

    /// The ribbons along a contour on its right for a positive distance, else on its left, and the sectors at its corners.
    fn ribbons(&self, contour: &Contour, distance: f64) -> Vec<Ribbon> {
        let segments: Vec<Segment> =
            contour.segments().filter(|segment| segment.leaving() != Point::ZERO).collect();
        let mut all = Vec::with_capacity(2 * segments.len());
        let mut before = segments.last().filter(|_| contour.is_closed());
        for segment in &segments {
            all.extend(before.and_then(|before| self.sector(before, segment, distance)));
            before = Some(segment);
            all.push(self.ribbon(segment, distance));
        }
        all
    }

    fn ribbon(&self, segment: &Segment, distance: f64) -> Ribbon {
        let size = segment.bounds().size().max_element() + distance.abs();
        let parallel = parallel(segment, distance, self.tolerance_for(size));
        let count = parallel.vertex_count() - 1;
        let mut builder;
        if distance > 0.0 {
            // The parallel back, then the line itself: the inside lies between them, on the right of both.
            builder = ContourBuilder::new(parallel.end());
            parallel.reversed().segments().for_each(|piece| builder.segment(&piece));
            builder.line(segment.from());
            builder.segment(segment);
        } else {
            builder = ContourBuilder::new(parallel.start());
            parallel.segments().for_each(|piece| builder.segment(&piece));
            builder.line(segment.to());
            builder.segment(&segment.reversed());
        }
        Ribbon { outline: builder.finish(true), parallel: count }
    }

    /// The sector at a corner that points to the side of the distance.
    fn sector(&self, a: &Segment, b: &Segment, distance: f64) -> Option<Ribbon> {
        let turn = jump(a, b);
        // A turn away from the side leaves a gap between the ribbons, even where it is tiny. At a cusp, rounding can reverse the direction of
        // the turn, so both sides get a sector; every point of it is within the distance of the tip anyway.
        let (toward, back) = (turn * distance >= 0.0, turn.abs() >= TURNED_BACK);
        if toward && !back {
            return None;
        }
        let at = b.from();
        let (out, home) = (a.arriving().normalize_or_zero(), b.leaving().normalize_or_zero());
        let (mut from, mut to) = (at + out.perp() * distance, at + home.perp() * distance);
        // Clockwise: on the left side along the way on, on the right side back.
        if distance > 0.0 {
            (from, to) = (to, from);
        }
        let mut builder = ContourBuilder::new(from);
        let join = if turn.abs() <= MIN_CORNER_ANGLE { Join::Round } else { self.join };
        let half = (0.5 * turn.abs()).cos();
        match join {
            Join::Mitre if !toward && 1.0 <= self.mitre_limit * half && half > 1e-6 => {
                // Where the two parallels cross.
                builder.line(at + ((from - at) + (to - at)) / (1.0 + out.dot(home)));
                builder.line(to);
            }
            Join::Round => {
                let radii = Point::splat(distance.abs());
                let (large, clockwise) = (toward, true);
                builder.arc(&ArcSegment { from, radii, tilt: Angle::ZERO, large, clockwise, to });
            }
            Join::Mitre | Join::Bevel => builder.line(to),
        }
        let parallel = builder.vertex_count() - 1;
        builder.line(at);
        Some(Ribbon { outline: builder.finish(true), parallel })
    }
}

/// What lies between a line and its parallel, or in a sector: a contour that runs clockwise as seen, whose first segments
/// are the parallel.
struct Ribbon {
    outline: Contour,
    parallel: usize,
}
