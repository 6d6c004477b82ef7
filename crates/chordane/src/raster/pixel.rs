//! Pixels as they are kept: eight bits a channel in the picture itself, four numbers with alpha multiplied in on the layers inside it,
//! so that what lies on many of them is rounded once only.

use super::blend;

/// One pixel of a picture: red, green, blue, alpha, alpha not multiplied in.
pub(super) type Rgba = [u8; 4];

/// One pixel of a layer: the same from 0 to 1, alpha multiplied in.
pub(super) type Deep = [f32; 4];

/// Full coverage, in the fixed-point shares that blending uses.
pub(super) const FULL: u32 = 1 << 16;

/// A pixel that can be painted on.
pub(super) trait Pixel: Copy + Send + Sync {
    /// What nothing was painted on.
    const CLEAR: Self;

    /// Whether it keeps more than it can show.
    const DEEP: bool;

    /// A colour that hides what is below, whatever its alpha.
    fn opaque(colour: Rgba) -> Self;

    /// A colour over it, with a share of [`FULL`]; the colour's own alpha is in the share.
    fn over(self, above: Rgba, share: u32) -> Self;

    fn deep(self) -> Deep;

    fn of_deep(deep: Deep) -> Self;
}

impl Pixel for Rgba {
    const CLEAR: Self = [0; 4];
    const DEEP: bool = false;

    #[inline]
    fn opaque([red, green, blue, _]: Rgba) -> Self {
        [red, green, blue, 255]
    }

    #[inline]
    fn over(self, above: Rgba, share: u32) -> Self {
        blend::over(self, above, share)
    }

    #[inline]
    fn deep(self) -> Deep {
        let [red, green, blue, alpha] = self.map(|channel| f32::from(channel) * (1.0 / 255.0));
        [red * alpha, green * alpha, blue * alpha, alpha]
    }

    #[inline]
    fn of_deep([red, green, blue, alpha]: Deep) -> Self {
        if alpha >= 1.0 {
            let byte = |value: f32| (value * 255.0 + 0.5) as u8;
            return [byte(red), byte(green), byte(blue), 255];
        }
        if alpha <= 0.0 {
            return Self::CLEAR;
        }
        let byte = |value: f32| (value * (255.0 / alpha) + 0.5) as u8;
        [byte(red), byte(green), byte(blue), (alpha * 255.0 + 0.5) as u8]
    }
}

impl Pixel for Deep {
    const CLEAR: Self = [0.0; 4];
    const DEEP: bool = true;

    #[inline]
    fn opaque([red, green, blue, _]: Rgba) -> Self {
        [red, green, blue, 255].map(|channel| f32::from(channel) * (1.0 / 255.0))
    }

    #[inline]
    fn over(self, above: Rgba, share: u32) -> Self {
        let share = share as f32 * (1.0 / FULL as f32);
        let [red, green, blue, alpha] = Self::opaque(above);
        let rest = 1.0 - share;
        [
            self[0] * rest + red * share,
            self[1] * rest + green * share,
            self[2] * rest + blue * share,
            self[3] * rest + alpha * share,
        ]
    }

    #[inline]
    fn deep(self) -> Deep {
        self
    }

    #[inline]
    fn of_deep(deep: Deep) -> Self {
        deep
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn eight_bits_survive_the_way_there_and_back() {
        for alpha in [1, 7, 128, 254, 255] {
            for channel in 0..=255 {
                let pixel = [channel, 255 - channel, 90, alpha];
                assert_eq!(Rgba::of_deep(pixel.deep()), pixel);
            }
        }
        assert_eq!(Rgba::of_deep(Deep::CLEAR), Rgba::CLEAR);
    }

    #[test]
    fn a_hundred_thin_coats_are_rounded_once_on_a_layer() {
        let (mut deep, mut want) = (Deep::opaque([255, 255, 255, 0]), 1.0_f64);
        for _ in 0..100 {
            deep = deep.over([0, 0, 0, 255], FULL / 50);
            want *= 1.0 - f64::from(FULL / 50) / f64::from(FULL);
        }
        assert!((f64::from(deep[0]) - want).abs() < 1e-4);
    }
}
