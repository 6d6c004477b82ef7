//! Pixels as they are kept: eight bits a channel in the picture itself, four numbers with alpha multiplied in on the layers inside it,
//! so that what lies on many of them is rounded once only.

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
    const IS_FLOAT: bool;

    /// A colour that hides what is below, whatever its alpha.
    fn opaque(colour: Rgba) -> Self;

    /// A colour over it, with a share of [`FULL`]; the colour's own alpha is in the share.
    fn over(self, above: Rgba, share: u32) -> Self;

    fn deep(self) -> Deep;

    fn of_deep(deep: Deep) -> Self;
}

impl Pixel for Rgba {
    const CLEAR: Self = [0; 4];
    const IS_FLOAT: bool = false;

    #[inline]
    fn opaque([red, green, blue, _]: Rgba) -> Self {
        [red, green, blue, 255]
    }

    #[inline]
    fn over(self, above: Rgba, share: u32) -> Self {
        over(self, above, share)
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
    const IS_FLOAT: bool = true;

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

/// The colour over a pixel, with a share of `FULL`.
#[inline]
pub(super) fn over(below: Rgba, above: Rgba, share: u32) -> Rgba {
    if below[3] == 255 {
        let rest = FULL - share;
        let mix = |d: u8, s: u8| ((u32::from(d) * rest + u32::from(s) * share + FULL / 2) >> 16) as u8;
        return [mix(below[0], above[0]), mix(below[1], above[1]), mix(below[2], above[2]), 255];
    }
    over_transparent(below, above, share)
}

/// Source-over for straight alpha: the colours are weighted by what each contributes to the joint opacity.
fn over_transparent(below: Rgba, above: Rgba, share: u32) -> Rgba {
    let source = share as f32 / FULL as f32;
    let rest = f32::from(below[3]) / 255.0 * (1.0 - source);
    let alpha = source + rest;
    let mix = |d: u8, s: u8| ((f32::from(d) * rest + f32::from(s) * source) / alpha + 0.5) as u8;
    let alpha_byte = (alpha * 255.0 + 0.5) as u8;
    [mix(below[0], above[0]), mix(below[1], above[1]), mix(below[2], above[2]), alpha_byte]
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn source_over_matches_the_formula_of_the_compositing_recommendation() {
        let cases = [
            // below, above, share, want
            ([255, 255, 255, 255], [0, 0, 0, 255], FULL / 2, [128, 128, 128, 255]),
            ([0, 0, 0, 0], [200, 100, 50, 255], FULL / 2, [200, 100, 50, 128]),
            ([0, 0, 255, 128], [255, 0, 0, 255], FULL / 2, [170, 0, 85, 192]),
        ];
        for (below, above, share, want) in cases {
            assert_eq!(over(below, above, share), want);
            let deep = below.deep().over(above, share);
            for (given, want) in Rgba::of_deep(deep).iter().zip(want) {
                assert!(given.abs_diff(want) <= 1, "{deep:?}");
            }
        }
    }

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
