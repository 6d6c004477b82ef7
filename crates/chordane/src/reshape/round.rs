//! Softening corners.

use super::Reshape;
use super::chain::reshaped;
use super::corners::{MIN_CORNER_ANGLE, jump};
use crate::ground::FaultSlot;
use crate::number::{Angle, Point};
use crate::path::{ArcSegment, Contour, ContourBuilder, Path, Segment};

/// How often a radius is tried smaller until it fits between two curves.
const TRIES: usize = 40;

/// Corners made round: an arc of a radius touches both sides, as far as there is room.
///
/// No corner takes more than half of a side that the next one needs too, so corners never overlap; a radius that does
/// not fit is made as small as it must be, for that corner alone. Corners between curves are rounded as well. The ends
/// of open contours stay, as do spots where a contour turns straight back.
///
/// ```
/// use chordane::prelude::*;
/// let banner = rectangle((0.0, 0.0), 40.0, 10.0).then(Round::new(3.0));
/// assert_eq!(banner.data(), "M3 0H37A3 3 0 0 1 40 3V7A3 3 0 0 1 37 10H3A3 3 0 0 1 0 7V3A3 3 0 0 1 3 0Z");
/// // Twice the radius does not fit: each end becomes a half circle.
/// assert_eq!(rectangle((0.0, 0.0), 40.0, 10.0).rounded(6.0).contours()[0].vertex_count(), 7);
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Round {
    /// The radius of corners, in sheet units. Zero changes nothing; a negative one is a fault.
    pub radius: f64,
    /// Whether corners ease in and out: the bend grows from nothing and dies away, where an arc begins at
    /// once. They come as near to the corner as the arc of the radius does, and take more of the sides for it.
    pub eased: bool,
}

impl Round {
    /// Corners of a radius in sheet units. Zero changes nothing; a negative one is a fault.
    #[must_use]
    pub fn new(radius: f64) -> Self {
        Self { radius, eased: false }
    }
}

impl Reshape for Round {
    fn reshape(&self, path: &Path) -> Path {
        let check = |fault: &mut FaultSlot| _ = fault.not_negative("rounded", "radius", self.radius);
        let round = |contour: &Contour| rounded(contour, self);
        reshaped("rounded", path, check, |_| {
            if self.radius == 0.0 {
                path.contours().to_vec()
            } else {
                path.contours().iter().map(round).collect()
            }
        })
    }
}

impl Path {
    /// The path with its corners made round by arcs of a radius; see [`Round`].
    #[must_use]
    pub fn rounded(&self, radius: f64) -> Self {
        self.then(Round::new(radius))
    }
}

/// What stands in for a corner: where the sides end and begin, as parameters, and the way between.
struct Corner {
    leave: f64,
    arrive: f64,
    way: Segment,
}

fn rounded(contour: &Contour, round: &Round) -> Contour {
    let segments: Vec<Segment> =
        contour.segments().filter(|segment| segment.leaving() != Point::ZERO).collect();
    let n = segments.len();
    let closed = contour.is_closed();
    let sharp: Vec<bool> = (0..n)
        .map(|i| {
            let before = if i > 0 { Some(i - 1) } else { closed.then(|| n - 1) };
            let pair = before.and_then(|before| segments.get(before)).zip(segments.get(i));
            pair.is_some_and(|(a, b)| jump(a, b).abs() > MIN_CORNER_ANGLE)
        })
        .collect();
    let is_sharp = |i: usize| sharp.get(i % n.max(1)).copied().unwrap_or(false);
    // The corner at the start of each segment.
    let corners: Vec<Option<Corner>> = (0..n)
        .map(|i| {
            let before = (i + n - 1) % n;
            let (a, b) = (segments.get(before)?, segments.get(i)?);
            // Half of a side where its other end is rounded too; an open contour's ends are not.
            let room_before = if is_sharp(before) { 0.5 } else { 0.0 };
            let room_behind = if is_sharp(i + 1) { 0.5 } else { 1.0 };
            if is_sharp(i) { corner(a, b, [room_before, room_behind], round) } else { None }
        })
        .collect();
    let corner_at = |i: usize| corners.get(i % n.max(1)).and_then(Option::as_ref);
    let begin = match corner_at(0) {
        Some(first) => first.way.to(),
        None => contour.start(),
    };
    let mut builder = ContourBuilder::new(begin);
    for (i, segment) in segments.iter().enumerate() {
        let from = corner_at(i).map_or(0.0, |corner| corner.arrive);
        let last = i + 1 == n;
        let next = if last && !closed { None } else { corner_at(i + 1) };
        let to = next.map_or(1.0, |corner| corner.leave);
        let begin = corner_at(i).map_or(segment.from(), |corner| corner.way.to());
        let end = next.map_or(segment.to(), |corner| corner.way.from());
        let part = segment.stretch(from, to).with_ends(begin, end);
        let closing = last && closed && next.is_none() && matches!(part, Segment::Line { .. });
        if from < to && !closing {
            builder.segment(&part);
        }
        if let Some(corner) = next {
            builder.segment(&corner.way);
        }
    }
    builder.finish(closed)
}

/// The corner between two segments. The first may be cut back to a parameter, the second up to one.
fn corner(a: &Segment, b: &Segment, [least, most]: [f64; 2], round: &Round) -> Option<Corner> {
    let turn = jump(a, b);
    // Straight back: no circle touches both.
    if turn.abs() > std::f64::consts::PI - MIN_CORNER_ANGLE {
        return None;
    }
    let mut radius = round.radius;
    let (mut start, mut end) = (None, None);
    let (leave, arrive) = match (a, b) {
        (Segment::Line { from, to }, Segment::Line { to: stop, .. }) => {
            let (back, on) = (*from - *to, *stop - *to);
            let (back_length, on_length) = (back.length(), on.length());
            let (back, on) = (back / back_length, on / on_length);
            // How far the arc reaches along the sides, and how far the eased corner does that comes as near. The tangent of
            // half the turn is its sine over one plus its cosine.
            let half = back.perp_dot(on).abs() / (1.0 - back.dot(on));
            let (sin, cos) = (std::f64::consts::PI * 0.5 - 0.5 * turn.abs()).sin_cos();
            let asked = if round.eased { 4.0 * radius * (1.0 - sin) / (sin * cos) } else { radius * half };
            let reach = asked.min(back_length * (1.0 - least)).min(on_length * most);
            if reach < asked {
                radius = reach / half;
            }
            (start, end) = (Some(*to + back * reach), Some(*to + on * reach));
            (1.0 - reach / back_length, reach / on_length)
        }
        _ => {
            radius *= if round.eased { 2.0 } else { 1.0 };
            let mut found = None;
            for _ in 0..TRIES {
                found = touching(a, b, radius * turn.signum())
                    .filter(|(s, t)| *s >= least && *t <= most && *s < 1.0 && *t > 0.0);
                if found.is_some() {
                    break;
                }
                radius *= 0.8;
            }
            found?
        }
    };
    let (start, end) = (start.unwrap_or_else(|| a.at(leave)), end.unwrap_or_else(|| b.at(arrive)));
    let (out, home) = (a.velocity(leave).normalize_or_zero(), b.velocity(arrive).normalize_or_zero());
    let way = if round.eased {
        // Toward where the two tangents meet.
        let (tip, back) = meeting(start, out, end, home)?;
        Segment::Cubic { from: start, control1: start + out * tip, control2: end - home * back, to: end }
    } else {
        let sweep = out.perp_dot(home).atan2(out.dot(home));
        Segment::Arc(ArcSegment {
            from: start,
            radii: Point::splat(radius),
            tilt: Angle::ZERO,
            large: false,
            clockwise: sweep > 0.0,
            to: end,
        })
    };
    Some(Corner { leave, arrive, way })
}

/// How far it is along two tangents to where they meet; `None` where that is not ahead of the one and behind the other.
fn meeting(start: Point, out: Point, end: Point, home: Point) -> Option<(f64, f64)> {
    let turn = out.perp_dot(home);
    let arm = end - start;
    let (tip, back) = (arm.perp_dot(home) / turn, out.perp_dot(arm) / turn);
    (tip > 0.0 && back > 0.0 && tip.is_finite() && back.is_finite()).then_some((tip, back))
}

/// Where a circle touches both segments near their joint, as parameters: its centre lies a radius to the right of both,
/// or to the left for a negative one. Newton's method from the joint.
fn touching(a: &Segment, b: &Segment, radius: f64) -> Option<(f64, f64)> {
    let centre =
        |segment: &Segment, t: f64| segment.at(t) + segment.velocity(t).normalize_or_zero().perp() * radius;
    // How a centre moves with the parameter: along the tangent, the slower the more the segment bends its way.
    let slope = |segment: &Segment, t: f64| {
        let (v, w) = (segment.velocity(t), segment.acceleration(t));
        let speed = v.length();
        v * (1.0 - radius * v.perp_dot(w) / speed.powi(3))
    };
    let reach = radius.abs() * (0.5 * jump(a, b).abs()).tan();
    let mut s = 1.0 - reach / a.velocity(1.0).length();
    let mut t = reach / b.velocity(0.0).length();
    if !(s.is_finite() && t.is_finite()) {
        return None;
    }
    (s, t) = (s.max(0.0), t.min(1.0));
    for _ in 0..30 {
        let gap = centre(b, t) - centre(a, s);
        let (u, v) = (slope(a, s), slope(b, t));
        let turn = u.perp_dot(v);
        let (step_s, step_t) = (gap.perp_dot(v) / turn, gap.perp_dot(u) / turn);
        if !(step_s.is_finite() && step_t.is_finite()) {
            return None;
        }
        (s, t) = ((s + step_s).clamp(0.0, 1.0), (t + step_t).clamp(0.0, 1.0));
        if step_s.abs() + step_t.abs() < 1e-15 {
            break;
        }
    }
    let near = centre(a, s).distance(centre(b, t)) <= 1e-9 * radius.abs();
    near.then_some((s, t))
}
