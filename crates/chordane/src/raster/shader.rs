//! What colour goes where: the shaders that the filler asks as it goes along a row.

use super::pixel::{FULL, Pixel, Rgba};
use crate::number::Cell;
use crate::path::Affine;
use crate::sheet::Colour;

/// Puts paint on pixels that are covered by a share. It is told where they are, so that it can be of another colour at
/// every spot.
pub(super) trait Shader: Copy {
    /// Paints a run of pixels that are all covered by the same share, 0 to 1; it begins at a column and a row of the
    /// picture, and is as long as `pixels`.
    fn span<P: Pixel>(self, x: usize, y: usize, pixels: &mut [P], coverage: f32);

    /// Paints one pixel; as [`Shader::span`].
    fn dot<P: Pixel>(self, x: usize, y: usize, pixel: &mut P, coverage: f32);
}

/// Where what is painted lies: its own bounds, and the maps from its coordinates to the sheet's and to pixels.
pub(super) type Ground<'a> = (Option<Cell>, &'a Affine, &'a Affine);

/// One colour all over.
#[derive(Clone, Copy, Debug)]
pub(super) struct Solid {
    rgba: Rgba,
    /// The colour's own opacity in parts of 65,536.
    strength: f32,
}

impl Solid {
    pub(super) fn is_invisible(self) -> bool {
        self.strength <= 0.0
    }

    pub(super) fn is_opaque(self) -> bool {
        self.strength >= FULL as f32
    }

    pub(super) fn new(colour: Colour) -> Self {
        Self { rgba: colour.to_rgba8(), strength: colour.alpha * FULL as f32 }
    }
}

impl Shader for Solid {
    #[inline]
    fn span<P: Pixel>(self, _: usize, _: usize, pixels: &mut [P], coverage: f32) {
        let share = (coverage * self.strength + 0.5) as u32;
        if share >= FULL {
            pixels.fill(P::opaque(self.rgba));
        } else if share > 0 {
            for pixel in pixels {
                *pixel = pixel.over(self.rgba, share);
            }
        }
    }

    #[inline]
    fn dot<P: Pixel>(self, _: usize, _: usize, pixel: &mut P, coverage: f32) {
        let share = (coverage * self.strength + 0.5) as u32;
        if share > 0 {
            *pixel = pixel.over(self.rgba, share.min(FULL));
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_full_share_replaces_and_none_leaves() {
        let ink = Solid::new(Colour::from_rgba8([9, 8, 7, 255]));
        let mut row = [[1, 2, 3, 4]; 3];
        ink.span(0, 0, &mut row[..1], 1.0);
        ink.span(0, 0, &mut row[1..2], 0.0);
        assert_eq!(row, [[9, 8, 7, 255], [1, 2, 3, 4], [1, 2, 3, 4]]);
    }
}
