//! Blending in sRGB, as browsers do: a finished layer on what is below it, and what a mask leaves.

use super::pixel::{Deep, Pixel};
use crate::sheet::{BlendMode, MaskKind};

/// Puts a finished layer on the pixels below it, faded to a share from 0 to 1.
pub(super) fn layer<P: Pixel>(below: &mut [P], above: &[Deep], opacity: f32, mode: BlendMode) {
    let pairs = below.iter_mut().zip(above).filter(|(_, top)| top[3] > 0.0);
    if mode == BlendMode::Normal {
        for (pixel, top) in pairs {
            let under = pixel.deep();
            let rest = 1.0 - top[3] * opacity;
            *pixel = P::of_deep(std::array::from_fn(|i| under[i] * rest + top[i] * opacity));
        }
        return;
    }
    let mixed = mixer(mode);
    for (pixel, top) in pairs {
        *pixel = P::of_deep(mixed_over(pixel.deep(), top.map(|channel| channel * opacity), mixed));
    }
}

/// Multiplies a layer's pixel by the value of a mask's pixel.
pub(super) fn mask(layer: &mut Deep, by: Deep, kind: MaskKind) {
    let shown = match kind {
        MaskKind::Alpha => by[3],
        // The weights of the recommendation "CSS Masking"; alpha is multiplied in already.
        MaskKind::Luminance => 0.2125 * by[0] + 0.7154 * by[1] + 0.0721 * by[2],
    };
    *layer = layer.map(|channel| channel * shown);
}

type Colour = [f32; 3];

/// The general formula of "Compositing and Blending Level 1": what is mixed counts as far as both are there.
fn mixed_over(below: Deep, above: Deep, mix: fn(Colour, Colour) -> Colour) -> Deep {
    let colour = |[red, green, blue, alpha]: Deep| {
        let back = if alpha > 0.0 { 1.0 / alpha } else { 0.0 };
        [red, green, blue].map(|channel| (channel * back).min(1.0))
    };
    let (under, over) = (below[3], above[3]);
    let mixed = mix(colour(below), colour(above));
    std::array::from_fn(|i| match mixed.get(i) {
        Some(mixed) => above[i] * (1.0 - under) + below[i] * (1.0 - over) + mixed * under * over,
        None => over + under * (1.0 - over),
    })
}

/// What a mode makes of the colour below and the one above.
fn mixer(mode: BlendMode) -> fn(Colour, Colour) -> Colour {
    match mode {
        BlendMode::Normal => |_, above| above,
        BlendMode::Multiply => |b, s| each(b, s, |b, s| b * s),
        BlendMode::Screen => |b, s| each(b, s, screen),
        BlendMode::Overlay => |b, s| each(b, s, |b, s| hard_light(s, b)),
        BlendMode::Darken => |b, s| each(b, s, f32::min),
        BlendMode::Lighten => |b, s| each(b, s, f32::max),
        BlendMode::ColorDodge => |b, s| each(b, s, dodge),
        BlendMode::ColorBurn => |b, s| each(b, s, burn),
        BlendMode::HardLight => |b, s| each(b, s, hard_light),
        BlendMode::SoftLight => |b, s| each(b, s, soft_light),
        BlendMode::Difference => |b, s| each(b, s, |b, s| (b - s).abs()),
        BlendMode::Exclusion => |b, s| each(b, s, |b, s| b + s - 2.0 * b * s),
        BlendMode::Hue => |b, s| lit(saturated(s, saturation(b)), light(b)),
        BlendMode::Saturation => |b, s| lit(saturated(b, saturation(s)), light(b)),
        BlendMode::Color => |b, s| lit(s, light(b)),
        BlendMode::Luminosity => |b, s| lit(b, light(s)),
    }
}

fn each(below: Colour, above: Colour, one: impl Fn(f32, f32) -> f32) -> Colour {
    std::array::from_fn(|i| one(below[i], above[i]))
}

fn screen(b: f32, s: f32) -> f32 {
    b + s - b * s
}

fn hard_light(b: f32, s: f32) -> f32 {
    if s <= 0.5 { b * 2.0 * s } else { screen(b, 2.0 * s - 1.0) }
}

fn dodge(b: f32, s: f32) -> f32 {
    if b <= 0.0 {
        0.0
    } else if s >= 1.0 {
        1.0
    } else {
        (b / (1.0 - s)).min(1.0)
    }
}

fn burn(b: f32, s: f32) -> f32 {
    if b >= 1.0 {
        1.0
    } else if s <= 0.0 {
        0.0
    } else {
        1.0 - ((1.0 - b) / s).min(1.0)
    }
}

fn soft_light(b: f32, s: f32) -> f32 {
    if s <= 0.5 {
        return b - (1.0 - 2.0 * s) * b * (1.0 - b);
    }
    let lifted = if b <= 0.25 { ((16.0 * b - 12.0) * b + 4.0) * b } else { b.sqrt() };
    b + (2.0 * s - 1.0) * (lifted - b)
}

fn light([red, green, blue]: Colour) -> f32 {
    0.3 * red + 0.59 * green + 0.11 * blue
}

fn saturation([red, green, blue]: Colour) -> f32 {
    red.max(green).max(blue) - red.min(green).min(blue)
}

/// A colour brought to a lightness, and back among the colours there are.
fn lit(colour: Colour, to: f32) -> Colour {
    let more = to - light(colour);
    let mut colour = colour.map(|channel| channel + more);
    let (l, [red, green, blue]) = (light(colour), colour);
    let (low, high) = (red.min(green).min(blue), red.max(green).max(blue));
    if low < 0.0 {
        colour = colour.map(|channel| l + (channel - l) * l / (l - low));
    }
    if high > 1.0 {
        colour = colour.map(|channel| l + (channel - l) * (1.0 - l) / (high - l));
    }
    colour
}

/// A colour brought to a saturation: its least channel 0, its greatest the saturation.
fn saturated(colour: Colour, to: f32) -> Colour {
    let [red, green, blue] = colour;
    let (low, high) = (red.min(green).min(blue), red.max(green).max(blue));
    if high <= low { [0.0; 3] } else { colour.map(|channel| (channel - low) * to / (high - low)) }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ground::Named;

    #[test]
    fn every_mode_leaves_what_nothing_lies_under_or_over() {
        let (colour, other) = ([0.2, 0.1, 0.3, 0.5], [0.6, 0.1, 0.0, 1.0]);
        for mode in BlendMode::VALUES {
            let near = |given: Deep, want: Deep| {
                given.iter().zip(want).all(|(given, want)| (given - want).abs() < 1e-6)
            };
            assert!(near(mixed_over(Deep::CLEAR, colour, mixer(*mode)), colour), "{mode:?}");
            assert!(near(mixed_over(other, Deep::CLEAR, mixer(*mode)), other), "{mode:?}");
            let both = mixed_over(other, colour, mixer(*mode));
            assert!(both.iter().all(|channel| (-1e-6..=1.0 + 1e-6).contains(channel)), "{mode:?}: {both:?}");
        }
    }

    /// Values worked out by hand from the formulas of the recommendation, at full opacity.
    #[test]
    fn modes_give_what_the_recommendation_says() {
        let (b, s) = ([0.8, 0.4, 0.2], [0.5, 0.75, 0.1]);
        let cases = [
            ("multiply", [0.4, 0.3, 0.02]),
            ("screen", [0.9, 0.85, 0.28]),
            ("overlay", [0.8, 0.6, 0.04]),
            ("darken", [0.5, 0.4, 0.1]),
            ("lighten", [0.8, 0.75, 0.2]),
            ("color-dodge", [1.0, 1.0, 0.222_222]),
            ("color-burn", [0.6, 0.2, 0.0]),
            ("hard-light", [0.8, 0.7, 0.04]),
            ("soft-light", [0.8, 0.516_228, 0.072]),
            ("difference", [0.3, 0.35, 0.1]),
            ("exclusion", [0.5, 0.55, 0.26]),
            // Lightness of b is 0.498, of s 0.6035.
            ("luminosity", [0.9055, 0.5055, 0.3055]),
            ("color", [0.3945, 0.6445, -0.0055]),
        ];
        for (name, want) in cases {
            let at = BlendMode::NAMES.iter().position(|known| *known == name).unwrap();
            let given = mixer(BlendMode::VALUES[at])(b, s);
            for (given, want) in given.iter().zip(want) {
                assert!((given - want).abs() < 6e-3, "{name}: {given} {want}");
            }
        }
        let hue = mixer(BlendMode::Hue)(b, s);
        assert!((saturation(hue) - saturation(b)).abs() < 1e-5 && (light(hue) - light(b)).abs() < 1e-5);
        let saturated = mixer(BlendMode::Saturation)(b, s);
        assert!((light(saturated) - light(b)).abs() < 1e-5);
    }
}
