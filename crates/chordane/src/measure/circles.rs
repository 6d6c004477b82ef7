//! Where two arcs of circles meet, in closed form.

use super::place::Meet;
use crate::number::{Angle, Point};
use crate::path::{Arc, Segment};

/// Circles whose centres and radii differ by less than this many times the tolerance may share stretches, which is
/// looked at elsewhere.
const NEAR_COINCIDENT_FACTOR: f64 = 64.0;

/// An arc of a circle, and the same by its centre.
pub(crate) struct Round<'a> {
    segment: &'a Segment,
    whole: Arc,
}

impl<'a> Round<'a> {
    /// `None` for what is not an arc, or one of an ellipse.
    pub(crate) fn of(segment: &'a Segment) -> Option<Self> {
        let Segment::Arc(arc) = segment else { return None };
        if arc.radii.x.abs() != arc.radii.y.abs() {
            return None;
        }
        Some(Self { segment, whole: arc.centred()? })
    }

    /// The same where the arc by its centre is known.
    pub(crate) fn known(segment: &'a Segment, whole: &Arc) -> Option<Self> {
        (whole.radii.x == whole.radii.y).then_some(Self { segment, whole: *whole })
    }

    fn at(&self, t: f64) -> Point {
        match t {
            0.0 => self.segment.from(),
            1.0 => self.segment.to(),
            _ => self.whole.at(t),
        }
    }

    fn radius(&self) -> f64 {
        self.whole.radii.x
    }

    /// The parameter of a spot that is on the circle: an end where it is within the tolerance of that, `None` beyond.
    fn share(&self, spot: Point, off: f64) -> Option<f64> {
        if spot.distance_squared(self.segment.from()) <= off * off {
            return Some(0.0);
        }
        if spot.distance_squared(self.segment.to()) <= off * off {
            return Some(1.0);
        }
        self.whole.share_of(Angle::of(self.whole.untilted(spot - self.whole.centre)))
    }
}

/// Calls `found` with the places that two arcs of circles have in common. False where the circles are so much alike
/// that they may share stretches: nothing is said then.
pub(crate) fn rounds(a: &Round<'_>, b: &Round<'_>, off: f64, found: &mut impl FnMut(Meet)) -> bool {
    let (r, s) = (a.radius(), b.radius());
    let step = b.whole.centre - a.whole.centre;
    let apart = step.length();
    if apart.max((r - s).abs()) <= NEAR_COINCIDENT_FACTOR * off {
        return neighbours(a, b, off, found);
    }
    if apart > r + s + off || apart < (r - s).abs() - off {
        return true;
    }
    let mut places: [Option<(f64, f64)>; 6] = [None; 6];
    let mut count = 0;
    let mut keep = |place: Option<(f64, f64)>| {
        let Some(place) = place else { return };
        let near = |other: &(f64, f64)| {
            a.at(other.0).distance(a.at(place.0)) <= 8.0 * off
                && b.at(other.1).distance(b.at(place.1)) <= 8.0 * off
        };
        if places.iter().flatten().any(near) {
            return;
        }
        if let Some(slot) = places.get_mut(count) {
            *slot = Some(place);
            count += 1;
        }
    };
    // What meets at an end is known best from the end.
    for end in [0.0, 1.0] {
        let spot = a.at(end);
        if (spot.distance(b.whole.centre) - s).abs() <= off {
            keep(b.share(spot, off).map(|t| (end, t)));
        }
        let spot = b.at(end);
        if (spot.distance(a.whole.centre) - r).abs() <= off {
            keep(a.share(spot, off).map(|t| (t, end)));
        }
    }
    // How far along the line of the centres the crossings lie, and how far aside.
    let along = step / apart;
    let ahead = 0.5 * (apart + (r - s) * (r + s) / apart);
    let touches = (apart - r - s).abs() <= off || (apart - (r - s).abs()).abs() <= off;
    let aside = if touches { 0.0 } else { ((r - ahead) * (r + ahead)).max(0.0).sqrt() };
    for side in [aside, -aside] {
        let spot = a.whole.centre + along * ahead + along.perp() * side;
        keep(a.share(spot, off).and_then(|t| Some((t, b.share(spot, off)?))));
    }
    places.sort_by(|p, q| p.map_or(f64::MAX, |p| p.0).total_cmp(&q.map_or(f64::MAX, |q| q.0)));
    places.iter().flatten().for_each(|(s, t)| found(Meet::At(*s, *t)));
    true
}

/// Two arcs of nearly one circle that have nothing but ends in common, which are told. False where there may be more.
fn neighbours(a: &Round<'_>, b: &Round<'_>, off: f64, found: &mut impl FnMut(Meet)) -> bool {
    let same = |s: f64, t: f64| a.at(s).distance(b.at(t)) <= off;
    let clear = |one: &Round<'_>, other: &Round<'_>| {
        [0.0, 0.5, 1.0].into_iter().all(|t| {
            let spot = one.at(t);
            let at_end = [0.0, 1.0].into_iter().any(|end| other.at(end).distance(spot) <= off);
            at_end && t != 0.5 || other.share(spot, off).is_none()
        })
    };
    // Near an end that is not shared the parameter could fall to either side.
    if !(clear(a, b) && clear(b, a)) {
        return false;
    }
    for (s, t) in [(0.0, 0.0), (0.0, 1.0), (1.0, 0.0), (1.0, 1.0)] {
        if same(s, t) {
            found(Meet::At(s, t));
        }
    }
    true
}
