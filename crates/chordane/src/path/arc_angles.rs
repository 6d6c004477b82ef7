//! Arcs by what is known of them, and their two kinds of angle: as seen from the centre, and before squashing.

use super::Arc;
use crate::number::{Angle, Cell, IntoPoint, Point, pt};

impl Arc {
    /// An arc of a circle: round a centre, from an angle over a sweep, both clockwise as seen from +x.
    #[must_use]
    pub fn round(centre: impl IntoPoint, radius: f64, start: Angle, sweep: Angle) -> Self {
        Self { centre: centre.into_point(), radii: Point::splat(radius), tilt: Angle::ZERO, start, sweep }
    }

    /// An arc of the ellipse that touches the four sides of a cell. The angles are those before squashing; see
    /// [`Arc::unsquashed`].
    #[must_use]
    pub fn inscribed(cell: &Cell, start: Angle, sweep: Angle) -> Self {
        Self { centre: cell.centre(), radii: cell.size() * 0.5, tilt: Angle::ZERO, start, sweep }
    }

    /// The same ellipse from one angle to another, both as they are seen from the centre (clockwise from +x).
    ///
    /// The sweep is from the first to the second as given: from 30 to 390 degrees is once round.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// use chordane::path::Arc;
    /// let squashed = Arc::inscribed(&cell((-20.0, -10.0), 40.0, 20.0), deg(0.0), deg(360.0));
    /// let part = squashed.between_seen(deg(45.0), deg(90.0));
    /// let from = part.at(0.0);
    /// assert!((from.x - from.y).abs() < 1e-12); // it begins at 45 degrees as seen
    /// ```
    #[must_use]
    pub fn between_seen(&self, from: Angle, to: Angle) -> Self {
        let start = self.unsquashed(from);
        Self { start, sweep: self.unsquashed(to) - start, ..*self }
    }

    /// The angle before squashing of the point that is seen in a direction from the centre.
    ///
    /// On a circle the two are the same. On an ellipse they agree at the ends of its axes and differ between
    /// them: where the ellipse is flat, much of the seen angle belongs to little of the angle before squashing.
    #[must_use]
    pub fn unsquashed(&self, seen: Angle) -> Angle {
        let (sin, cos) = (seen - self.tilt).sin_cos();
        nearest_lap(Angle::of(pt(cos * self.radii.y, sin * self.radii.x)), seen - self.tilt)
    }

    /// The direction from the centre in which the point at an angle before squashing is seen.
    #[must_use]
    pub fn seen(&self, unsquashed: Angle) -> Angle {
        let (sin, cos) = unsquashed.sin_cos();
        nearest_lap(Angle::of(pt(cos * self.radii.x, sin * self.radii.y)), unsquashed) + self.tilt
    }
}

/// The same direction as an angle, on the lap that another angle is on.
fn nearest_lap(angle: Angle, by: Angle) -> Angle {
    by + (angle - by).wrapped_signed()
}
