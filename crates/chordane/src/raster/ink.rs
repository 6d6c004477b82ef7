//! Paints ready to be put on pixels.

use super::gradients::{Shading, Tables};
use super::pixel::Pixel;
use super::shader::{Ground, Shader, Solid};
use crate::sheet::{Colour, Paint};

/// A paint ready to be put on pixels.
#[derive(Debug)]
pub(super) enum Ink {
    Solid(Solid),
    Shading(Box<Shading>),
}

impl Ink {
    /// A paint faded by an opacity from 0 to 1, on something.
    pub(super) fn new(paint: &Paint, opacity: f64, on: Ground<'_>, tables: &mut Tables) -> Self {
        match paint {
            Paint::Solid(colour) => Self::solid(*colour, opacity),
            Paint::Gradient(gradient) => Self::Shading(Box::new(Shading::new(gradient, opacity, on, tables))),
        }
    }

    /// One colour all over.
    pub(super) fn solid(colour: Colour, opacity: f64) -> Self {
        Self::Solid(Solid::new(colour.faded(opacity)))
    }

    pub(super) fn is_invisible(&self) -> bool {
        match self {
            Self::Solid(solid) => solid.is_invisible(),
            Self::Shading(_) => false,
        }
    }

    /// Paints whole rows of pixels, from a row of the picture on.
    pub(super) fn rows<P: Pixel>(&self, top: usize, width: usize, pixels: &mut [P]) {
        match self {
            Self::Solid(solid) => solid.span(0, top, pixels, 1.0),
            Self::Shading(shading) => {
                pixels
                    .chunks_mut(width)
                    .zip(top..)
                    .for_each(|(row, y)| shading.as_ref().span(0, y, row, 1.0));
            }
        }
    }
}
