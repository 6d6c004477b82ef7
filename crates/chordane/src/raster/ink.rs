//! Paints ready to be put on pixels.

use std::collections::HashMap;
use std::sync::Arc;

use super::gradients::{Shading, Tables};
use super::pixel::Pixel;
use super::sampler::Sampler;
use super::shader::{Shader, Solid};
use super::shades::path_colours;
use crate::number::{Cell, Point};
use crate::path::{Affine, Path};
use crate::sheet::{Colour, Paint, PictureLevel};

/// A paint ready to be put on pixels.
#[derive(Debug)]
pub(super) enum Ink {
    Solid(Solid),
    Shading(Box<Shading>),
    Sampler(Box<Sampler>),
}

/// What was worked out for paints, to be used again.
#[derive(Debug, Default)]
pub(super) struct Stores {
    tables: Tables,
    /// Tiles by the drawing that they are of and how it is put on pixels.
    pub(super) tiles: HashMap<(usize, [u64; 4]), (Arc<PictureLevel>, u32)>,
}

/// What is painted: its path and its bounds, and the maps from its coordinates to the sheet's and to pixels.
pub(super) struct Surface<'a> {
    pub(super) path: &'a Path,
    pub(super) bounds: Option<Cell>,
    pub(super) placed: Affine,
    pub(super) to_pixels: Affine,
    /// Half of a stroke's width, in pixels; `None` for a fill.
    pub(super) half_width: Option<f64>,
    /// The picture's size in pixels.
    pub(super) size: (usize, usize),
}

impl Ink {
    /// A paint faded by an opacity from 0 to 1, on something. Patterns are drawn by who has the means.
    pub(super) fn new(paint: &Paint, opacity: f64, on: &Surface<'_>, stores: &mut Stores) -> Self {
        match paint {
            Paint::Solid(colour) => Self::solid(*colour, opacity),
            Paint::Gradient(gradient) => {
                let ground = (on.bounds, &on.placed, &on.to_pixels);
                Self::Shading(Box::new(Shading::new(gradient, opacity, ground, &mut stores.tables)))
            }
            Paint::Picture(picture) => {
                let frame = picture.frame(on.bounds).map(|frame| on.to_pixels * frame);
                let usable = frame.filter(|map| map.is_finite() && map.matrix2.determinant() != 0.0);
                let slack = |area: Cell| area.grown(1e-9 * area.size().max_element());
                let filled =
                    picture.area(on.bounds).map(slack).zip(on.bounds).is_some_and(|(area, bounds)| {
                        on.half_width.is_none() && area.contains(bounds.min) && area.contains(bounds.max)
                    });
                let sampler = usable.map(|map| Box::new(Sampler::picture(picture, opacity, &map, filled)));
                sampler.map_or(Self::nothing(), Self::Sampler)
            }
            Paint::Shades(shades) => {
                let window = Cell { min: Point::ZERO, max: Point::new(on.size.0 as f64, on.size.1 as f64) };
                let made = path_colours(shades, on.path, &on.to_pixels, window, on.half_width);
                let sampler = |(corner, plane)| Box::new(Sampler::plane(corner, plane, opacity));
                made.map(sampler).map_or(Self::nothing(), Self::Sampler)
            }
            Paint::Pattern(_) => Self::nothing(),
        }
    }

    /// One colour all over.
    pub(super) fn solid(colour: Colour, opacity: f64) -> Self {
        Self::Solid(Solid::new(colour.faded(opacity)))
    }

    pub(super) fn nothing() -> Self {
        Self::solid(Colour { red: 0.0, green: 0.0, blue: 0.0, alpha: 0.0 }, 0.0)
    }

    pub(super) fn is_invisible(&self) -> bool {
        match self {
            Self::Solid(solid) => solid.is_invisible(),
            Self::Shading(_) | Self::Sampler(_) => false,
        }
    }

    /// Whether it hides what is below; what is not known does not.
    pub(super) fn is_opaque(&self) -> bool {
        matches!(self, Self::Solid(solid) if solid.is_opaque())
    }

    /// Paints whole rows of pixels, from a row of the picture on.
    pub(super) fn rows<P: Pixel>(&self, top: usize, width: usize, pixels: &mut [P]) {
        let rows = pixels.chunks_mut(width.max(1)).zip(top..);
        match self {
            Self::Solid(solid) => solid.span(0, top, pixels, 1.0),
            Self::Shading(shading) => rows.for_each(|(row, y)| shading.as_ref().span(0, y, row, 1.0)),
            Self::Sampler(sampler) => rows.for_each(|(row, y)| sampler.as_ref().span(0, y, row, 1.0)),
        }
    }
}
