//! A transform taken apart into what it does.

use crate::number::deg;
use crate::number::{Angle, Point};
use crate::path::Affine;

/// A transform taken apart as the recommendation "CSS Transforms Module Level 1" does in two dimensions: first slanted along x, then scaled,
/// turned and moved.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Parts {
    pub(crate) step: Point,
    pub(crate) turn: Angle,
    pub(crate) scale: Point,
    pub(crate) slant: f64,
}

impl Parts {
    /// `None` where the transform leaves no area.
    pub(crate) fn of(by: &Affine) -> Option<Self> {
        let (x, y) = (by.matrix2.x_axis, by.matrix2.y_axis);
        let along = x.length();
        let area = by.matrix2.determinant();
        if along == 0.0 || area == 0.0 {
            return None;
        }
        Some(Self {
            step: by.translation,
            turn: Angle::of(x),
            scale: Point::new(along, area / along),
            slant: x.dot(y) / area,
        })
    }

    /// The parts of a transform that leaves no area; what cannot be told from it is turned as given, and not slanted.
    pub(crate) fn of_flat(by: &Affine, turn: Angle) -> Self {
        let (x, y) = (by.matrix2.x_axis, by.matrix2.y_axis);
        let turn = if x == Point::ZERO { turn } else { Angle::of(x) };
        let (sin, cos) = turn.sin_cos();
        let scale = Point::new(x.length(), y.dot(Point::new(-sin, cos)));
        Self { step: by.translation, turn, scale, slant: 0.0 }
    }

    /// The same transform, turned as near to a turn as it can be: by whole turns more or less, and by half a turn and mirrored where that is much
    /// nearer.
    pub(crate) fn near(self, turn: Angle) -> Self {
        let way = (self.turn - turn).wrapped_signed();
        if way.degrees().abs() <= 135.0 {
            return Self { turn: turn + way, ..self };
        }
        let way = (way + deg(180.0)).wrapped_signed();
        Self { turn: turn + way, scale: -self.scale, ..self }
    }

    pub(crate) fn whole(&self) -> Affine {
        let (sin, cos) = self.turn.sin_cos();
        let (right, down) = (Point::new(cos, sin), Point::new(-sin, cos));
        let x = right * self.scale.x;
        let y = (down + right * self.slant) * self.scale.y;
        Affine::from_cols(x, y, self.step)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::motion::Keyed;
    use crate::number::{deg, pt};

    #[test]
    fn transforms_are_taken_apart_and_put_together() {
        for (sx, sy, turn, slant) in [(1.0, 1.0, 0.0, 0.0), (2.0, -3.0, 40.0, 0.3), (0.5, 4.0, -170.0, -2.0)]
        {
            let parts = Parts { step: pt(3.0, 4.0), turn: deg(turn), scale: pt(sx, sy), slant };
            let whole = parts.whole();
            let again = Parts::of(&whole).map(|parts| parts.whole()).unwrap_or_default();
            assert!(whole.abs_diff_eq(again, 1e-12), "{whole} {again}");
        }
        let turned = Affine::from_angle(deg(170.0).radians());
        let beyond = Affine::from_angle(deg(-170.0).radians());
        let half = turned.part_way(&beyond, 0.5);
        assert!(half.abs_diff_eq(Affine::from_angle(std::f64::consts::PI), 1e-12), "{half}");
        let flat = Affine::from_scale(pt(1.0, 0.0));
        assert_eq!(flat.part_way(&Affine::IDENTITY, 0.5), Affine::from_scale(pt(1.0, 0.5)));
    }
}
