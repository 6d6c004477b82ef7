//! Effects on finished layers: blurs and shadows, in pixels.

use super::blur::{Plane, Variance};
use super::pixel::{Deep, Rgba};
use crate::number::Point;
use crate::path::Affine;
use crate::sheet::Effect;

/// No effects reach farther than this round a picture, in pixels.
const FARTHEST: f64 = 4096.0;

/// How far the effects of a layer reach beyond what is in it, in whole pixels along x and y.
pub(super) fn reach(effects: &[Effect], to_pixels: &Affine) -> Point {
    if !effects.iter().any(Effect::shows) {
        return Point::ZERO;
    }
    (Effect::reach_of_all(effects, to_pixels) + 1.0).ceil().min(Point::splat(FARTHEST))
}

/// An effect as it falls on pixels.
#[derive(Clone, Copy, Debug)]
pub(super) enum PixelEffect {
    Blur(Variance),
    Shadow { step: Point, variance: Variance, colour: Deep },
}

impl PixelEffect {
    /// An effect of something that a transform puts on the pixels.
    pub(super) fn of(effect: &Effect, to_pixels: &Affine) -> Self {
        let map = to_pixels.matrix2;
        let variance = |radius: f64| {
            let (x, y) = (map.x_axis * radius, map.y_axis * radius);
            Variance { x: x.x * x.x + y.x * y.x, y: x.y * x.y + y.y * y.y, both: x.x * x.y + y.x * y.y }
        };
        match *effect {
            Effect::Blur { radius } => Self::Blur(variance(radius)),
            Effect::Shadow { step, radius, colour } => {
                let rgba: Rgba = colour.to_rgba8();
                let colour = super::pixel::Pixel::deep(rgba);
                Self::Shadow { step: map * step, variance: variance(radius), colour }
            }
        }
    }

    /// Carries it out.
    pub(super) fn apply(&self, plane: Plane<4>) -> Plane<4> {
        match *self {
            Self::Blur(variance) => plane.blurred(variance, Point::ZERO),
            Self::Shadow { step, variance, colour } => {
                let mut plane = plane;
                let shape = plane.pixels.iter().map(|pixel| [pixel[3]]).collect();
                let shadow = Plane { width: plane.width, pixels: shape }.blurred(variance, step);
                for (pixel, [shade]) in plane.pixels.iter_mut().zip(shadow.pixels) {
                    let rest = (1.0 - pixel[3]) * shade;
                    *pixel = std::array::from_fn(|i| pixel[i] + colour[i] * rest);
                }
                plane
            }
        }
    }
}
