//! The lines beside a segment: its parallels, and the edges of a stroke along it.
//!
//! A line that is set off by more than the radius of a bend, on the inside of it, folds back over itself: there it runs the
//! other way, and what lies between would be counted the wrong way round. The edges here go round each fold such that all
//! of the stroke is wound the same way: to the centres of the bend, back along the folded stretch, and along the centres
//! again.

use crate::number::{Point, product, roots, turns};
use crate::path::{Arc, ArcSegment, Contour, ContourBuilder, Segment, smooth};

/// A step in the parameter for rates of change.
const DIFFERENCE_STEP: f64 = 1e-6;

/// Where a segment is so slow that its heading turns within this stretch of the parameter, it is cut there.
const CUSP_PARAMETER_SPAN: f64 = 1e-3;

/// The stretch that is left out at such a place, as a share of the tolerance.
const LEFT_OUT: f64 = 0.1;

/// What is straighter than this share of the tolerance counts as straight.
const STRAIGHT_FRACTION: f64 = 1e-6;

/// A fold shorter than this fraction of the tolerance stays as it is: the edge on either side covers it.
const SHORT_FOLD: f64 = 0.2;

/// So many places of a stretch are looked at for folds.
const FOLD_SAMPLES: usize = 24;

/// Returns the unit normal to the right of the direction of travel.
pub(super) fn across(segment: &Segment, t: f64) -> Point {
    let tangent = match t {
        0.0 => segment.leaving(),
        1.0 => segment.arriving(),
        _ => segment.velocity(t),
    };
    tangent.normalize_or_zero().perp()
}

/// The curvature, positive where the segment turns clockwise as seen.
fn bend(segment: &Segment, t: f64) -> f64 {
    let (v, w) = (segment.velocity(t), segment.acceleration(t));
    v.perp_dot(w) / v.length().powi(3)
}

/// An arc of a circle by its centre.
fn circle_of(segment: &Segment) -> Option<Arc> {
    let Segment::Arc(arc) = segment else { return None };
    arc.centred().filter(|whole| (whole.radii.x - whole.radii.y).abs() <= 1e-12 * whole.radii.x)
}

/// A curve through places and along the ways between them, `parts` even stretches or finer.
fn followed((from, to): (f64, f64), parts: usize, tolerance: f64, place: impl Fn(f64) -> Point) -> Contour {
    let motion = |t: f64| {
        let (a, b) = ((t - DIFFERENCE_STEP).max(from), (t + DIFFERENCE_STEP).min(to));
        (place(t), (place(b) - place(a)) / (b - a))
    };
    smooth((from, to), parts, false, tolerance, motion)
}

/// The parallel of a segment at a distance to its right, to its left for a negative one: as far as the centre of the bend
/// at most.
pub(super) fn parallel(segment: &Segment, distance: f64, tolerance: f64) -> Contour {
    if let Some(exact) = exact_parallel(segment, distance) {
        return exact;
    }
    let reach = |t: f64| {
        let bend = bend(segment, t);
        let reach = if bend * distance > 1.0 { 1.0 / bend } else { distance };
        // A handle that lies on its end has no bend to go by.
        if reach.is_finite() { reach } else { distance }
    };
    let place = |t: f64| segment.at(t) + across(segment, t) * reach(t);
    let mut run = Run::default();
    let mut from = 0.0;
    for to in slowest(segment).into_iter().filter(|t| swift(segment, *t)).chain([1.0]) {
        let parts = if to - from > 0.5 { 2 } else { 1 };
        run.append(&followed((from, to), parts, tolerance, place));
        from = to;
    }
    run.finish(false).unwrap_or_else(|| ContourBuilder::new(place(0.0)).finish(false))
}

/// The parallel of a segment at a distance to its right, to its left for a negative one, where that is a line or an arc of
/// a circle; it ends at the centre of the arc.
fn exact_parallel(segment: &Segment, distance: f64) -> Option<Contour> {
    let (from, to) =
        (segment.from() + across(segment, 0.0) * distance, segment.to() + across(segment, 1.0) * distance);
    let mut builder = ContourBuilder::new(from);
    if let Segment::Line { .. } = segment {
        builder.line(to);
        return Some(builder.finish(false));
    }
    let (whole, Segment::Arc(arc)) = (circle_of(segment)?, segment) else { return None };
    // To the right of a clockwise arc is its centre.
    let radius = whole.radii.x - if arc.clockwise { distance } else { -distance };
    if radius <= 1e-9 * whole.radii.x {
        builder = ContourBuilder::new(whole.centre);
    } else {
        builder.arc(&ArcSegment { from, radii: Point::splat(radius), to, ..*arc });
    }
    Some(builder.finish(false))
}

/// The two edges of a stroke along a segment.
pub(super) struct Flank<'a> {
    pub(super) segment: &'a Segment,
    /// Half the width at a parameter.
    pub(super) half: &'a dyn Fn(f64) -> f64,
    /// Half the width where it is the same everywhere.
    pub(super) even: Option<f64>,
    /// Into so many stretches an edge is cut at least.
    pub(super) parts: usize,
    pub(super) tolerance: f64,
}

impl Flank<'_> {
    /// The edge on the right (`side` 1) or on the left (-1), in the direction of the segment.
    pub(super) fn edge(&self, side: f64) -> Contour {
        if let Some(half) = self.even
            && let Some(edge) = self.plain_edge(side * half)
        {
            return edge;
        }
        let place = |t: f64| self.segment.at(t) + across(self.segment, t) * (side * (self.half)(t));
        if let Segment::Line { .. } = self.segment {
            return straightened(&followed((0.0, 1.0), self.parts, self.tolerance, place), self.tolerance);
        }
        // The centre of the bend: nearer than the edge, as the stretch is folded.
        let centre = |t: f64| {
            let half = (self.half)(t);
            self.segment.at(t)
                + across(self.segment, t) * (side * (1.0 / bend(self.segment, t).abs()).min(half))
        };
        let mut run = Run::default();
        let cuts = self.folds();
        for pair in cuts.windows(2) {
            let &[from, to] = pair else { continue };
            if to - from <= 1e-9 {
                continue;
            }
            let parts = ((self.parts as f64 * (to - from)).ceil() as usize).max(1);
            let middle = from.midpoint(to);
            let plain = followed((from, to), parts, self.tolerance, place);
            let is_short = plain.start().distance(plain.end()) <= SHORT_FOLD * self.tolerance;
            if is_short || bend(self.segment, middle) * side * (self.half)(middle) <= 1.0 {
                run.append(&plain);
            } else {
                let centres = followed((from, to), parts, self.tolerance, centre);
                run.append(&centres);
                run.append(&plain.reversed());
                run.append(&centres);
            }
        }
        run.finish(false).unwrap_or_else(|| ContourBuilder::new(place(0.0)).finish(false))
    }

    /// The edge of even width beside a line or an arc of a circle.
    fn plain_edge(&self, distance: f64) -> Option<Contour> {
        let edge = exact_parallel(self.segment, distance)?;
        if edge.vertex_count() > 1 {
            return Some(edge);
        }
        // Beyond the centre lies the arc on its other side; it is gone along backward.
        let (whole, Segment::Arc(arc)) = (circle_of(self.segment)?, self.segment) else { return Some(edge) };
        let beyond = distance.abs() - whole.radii.x;
        if beyond <= 1e-9 * whole.radii.x {
            return Some(edge);
        }
        let at = |t: f64, end: Point| end + across(self.segment, t) * distance;
        let (from, to) = (at(0.0, arc.from), at(1.0, arc.to));
        let mut builder = ContourBuilder::new(whole.centre);
        builder.line(to);
        builder.arc(&ArcSegment { from, radii: Point::splat(beyond), to, ..*arc }.reversed());
        builder.line(whole.centre);
        Some(builder.finish(false))
    }

    /// The parameters between which an edge is folded or not, from 0 to 1: where half the width is the radius of the bend,
    /// and where the segment is so slow that it turns all at once.
    fn folds(&self) -> Vec<f64> {
        // Between these the bend hardly rises and falls.
        let mut looks = slowest(self.segment);
        let mut cuts: Vec<f64> = looks.iter().copied().filter(|t| swift(self.segment, *t)).collect();
        match *self.segment {
            Segment::Line { .. } | Segment::Quad { .. } => {}
            Segment::Cubic { from, control1, control2, to } => {
                let (u, v, w) = (control1 - from, control2 - control1, to - control2);
                // The velocity across the acceleration, which is of degree two.
                roots([u.perp_dot(v), 0.5 * u.perp_dot(w), v.perp_dot(w)], |t| {
                    // From one tight bend into another there may be no room to see that it is straight.
                    if self.tight(t - DIFFERENCE_STEP) || self.tight(t + DIFFERENCE_STEP) {
                        cuts.push(t);
                    }
                    looks.push(t);
                });
            }
            // The bend of an ellipse is most and least at its axes.
            Segment::Arc(arc) => looks.extend(arc.centred().into_iter().flat_map(|whole| {
                [0.0, 0.25, 0.5, 0.75].map(|axis| whole.share_of(turns(axis))).into_iter().flatten()
            })),
        }
        looks.extend([0.0, 1.0]);
        looks.sort_by(f64::total_cmp);
        cuts.extend(looks.windows(2).flat_map(|pair| self.changes(pair[0], pair[1])));
        cuts.extend([0.0, 1.0]);
        cuts.sort_by(f64::total_cmp);
        cuts
    }

    /// Whether a bend is tighter than half the width.
    fn tight(&self, t: f64) -> bool {
        bend(self.segment, t).abs() * (self.half)(t) > 1.0
    }

    /// The folds between two parameters as far as looking finds them, nearer together toward both.
    fn changes(&self, from: f64, to: f64) -> Vec<f64> {
        let look = |i: usize| {
            let share = 0.5 - 0.5 * (std::f64::consts::PI * i as f64 / FOLD_SAMPLES as f64).cos();
            from + (to - from) * share.clamp(DIFFERENCE_STEP, 1.0 - DIFFERENCE_STEP)
        };
        let mut found = Vec::new();
        for i in 0..FOLD_SAMPLES {
            let (mut low, mut high) = (look(i), look(i + 1));
            let begin = self.tight(low);
            if begin != self.tight(high) {
                for _ in 0..50 {
                    let middle = low.midpoint(high);
                    if self.tight(middle) == begin { low = middle } else { high = middle }
                }
                found.push(low);
            }
        }
        found
    }
}

/// Where the speed of a segment is least, ends not counted: near there a curve may turn all at once.
fn slowest(segment: &Segment) -> Vec<f64> {
    let (v, w): ([Point; 3], [Point; 2]) = match *segment {
        Segment::Quad { from, control, to } => {
            let (a, b) = (control - from, to - control);
            ([a, a.midpoint(b), b], [b - a; 2])
        }
        Segment::Cubic { from, control1, control2, to } => {
            let v = [control1 - from, control2 - control1, to - control2];
            (v, [v[1] - v[0], v[2] - v[1]])
        }
        _ => return Vec::new(),
    };
    let size = v.iter().map(|v| v.length()).fold(0.0, f64::max);
    let (v, w) = (v.map(|v| v / size), w.map(|w| w / size));
    let along_x = product(&v.map(|v| v.x), &w.map(|w| w.x));
    let along_y = product(&v.map(|v| v.y), &w.map(|w| w.y));
    let mut found = Vec::new();
    if let ([a, b, c, d], [e, f, g, h]) = (&along_x[..], &along_y[..]) {
        roots([a + e, b + f, c + g, d + h], |t| found.push(t));
    }
    found.retain(|t| *t > 0.0 && *t < 1.0);
    found
}

/// Whether a segment's heading turns by much within a quarter of its parameters.
fn swift(segment: &Segment, t: f64) -> bool {
    segment.velocity(t).length() <= 0.25 * segment.acceleration(t).length()
}

/// The pieces of a segment between places where it all but stands still and turns on the spot; those are left out. Pieces
/// that are straight as far as a stroke of such a width shows are sides.
pub(super) fn without_standstills(segment: &Segment, width: f64, tolerance: f64) -> Vec<Segment> {
    let mut slow: Vec<(f64, f64)> = Vec::new();
    for t in [0.0].into_iter().chain(slowest(segment)).chain([1.0]) {
        let (speed, change) = (segment.velocity(t).length(), segment.acceleration(t).length());
        if speed <= CUSP_PARAMETER_SPAN * change {
            let reach = (0.5 * LEFT_OUT * tolerance / change).sqrt();
            slow.push((t, reach.min(0.5 * LEFT_OUT * tolerance / speed).clamp(1e-9, 0.1)));
        }
    }
    let mut pieces = Vec::with_capacity(slow.len() + 1);
    let mut from = 0.0;
    for (t, reach) in slow {
        if t - reach > from {
            pieces.push(segment.stretch(from, t - reach));
        }
        from = t + reach;
    }
    if from < 1.0 {
        pieces.push(if from == 0.0 { *segment } else { segment.stretch(from, 1.0) });
    }
    for piece in &mut pieces {
        let (from, to) = (piece.from(), piece.to());
        // The heading turns by about four times the height over the length.
        let off = STRAIGHT_FRACTION * tolerance * from.distance(to).min(width) / width;
        if straight(piece, off)
            && piece.leaving().dot(to - from) > 0.0
            && piece.arriving().dot(to - from) > 0.0
        {
            *piece = Segment::Line { from, to };
        }
    }
    pieces
}

/// Whether the handles of a curve lie as near as that to the straight way between its ends.
fn straight(segment: &Segment, off: f64) -> bool {
    let (from, to) = (segment.from(), segment.to());
    let along = (to - from).normalize_or_zero();
    let near = |p: Point| (p - from).perp_dot(along).abs() <= off;
    match *segment {
        Segment::Line { .. } => true,
        Segment::Quad { control, .. } => near(control),
        Segment::Cubic { control1, control2, .. } => near(control1) && near(control2),
        Segment::Arc(_) => false,
    }
}

/// Cubics that are straight become sides, and sides in one line become one.
fn straightened(curve: &Contour, tolerance: f64) -> Contour {
    let off = STRAIGHT_FRACTION * tolerance;
    let mut builder = ContourBuilder::new(curve.start());
    let mut side: Option<Segment> = None;
    for segment in curve.segments() {
        let (from, to) = (segment.from(), segment.to());
        if !straight(&segment, off) {
            side.take().iter().for_each(|side| builder.segment(side));
            builder.segment(&segment);
            continue;
        }
        side = match side {
            Some(side) if straight(&Segment::Quad { from: side.from(), control: side.to(), to }, off) => {
                Some(Segment::Line { from: side.from(), to })
            }
            other => {
                other.iter().for_each(|side| builder.segment(side));
                Some(Segment::Line { from, to })
            }
        };
    }
    side.iter().for_each(|side| builder.segment(side));
    builder.finish(false)
}

/// A contour that is put together from runs and single places, with straight sides where they do not meet.
#[derive(Default)]
pub(super) struct Run {
    builder: Option<ContourBuilder>,
}

impl Run {
    pub(super) fn to(&mut self, place: Point) {
        match &mut self.builder {
            Some(builder) if builder.end() != place => builder.line(place),
            Some(_) => {}
            none => *none = Some(ContourBuilder::new(place)),
        }
    }

    pub(super) fn segment(&mut self, segment: &Segment) {
        self.to(segment.from());
        if let Some(builder) = &mut self.builder {
            builder.segment(segment);
        }
    }

    pub(super) fn append(&mut self, contour: &Contour) {
        self.to(contour.start());
        contour.segments().for_each(|segment| self.segment(&segment));
    }

    pub(super) fn finish(self, closed: bool) -> Option<Contour> {
        self.builder.map(|builder| builder.finish(closed))
    }
}
