//! Blending: straight alpha, eight bits a channel, blended in sRGB as browsers do.

/// One pixel: red, green, blue, alpha, alpha not multiplied in.
pub(super) type Rgba = [u8; 4];

/// Full coverage, in the fixed-point shares that blending uses.
pub(super) const FULL: u32 = 1 << 16;

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

/// Puts a finished layer on the pixels below it, faded to a share from 0 to 1.
pub(super) fn layer(below: &mut [Rgba], above: &[Rgba], opacity: f32) {
    for (pixel, top) in below.iter_mut().zip(above) {
        let share = (f32::from(top[3]) / 255.0 * opacity * FULL as f32 + 0.5) as u32;
        if share > 0 {
            *pixel = over(*pixel, *top, share.min(FULL));
        }
    }
}

/// Leaves of a layer what another one covers.
pub(super) fn mask(layer: &mut [Rgba], by: &[Rgba]) {
    for (pixel, cover) in layer.iter_mut().zip(by) {
        pixel[3] = ((u16::from(pixel[3]) * u16::from(cover[3]) + 127) / 255) as u8;
    }
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
        }
    }
}
