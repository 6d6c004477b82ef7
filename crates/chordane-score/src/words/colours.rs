//! Words for colours.

use chordane::prelude::*;
use rhai::{Array, Dynamic};

use super::entry::{Section, Word, word};
use crate::call_error::CallError;
use crate::values::Tint;

pub(super) fn section() -> Section {
    Section {
        title: "Colours",
        about: "A colour is a CSS text such as `\"#c8553d\"`, `\"teal\"` or `\"rgb(200 85 61 / 50%)\"`, or a value made by a word of the same \
            name as in CSS. Either can stand wherever a colour is taken. What no screen shows is brought to the nearest that it can.",
        words: words(),
    }
}

/// Three parts of a colour, as a word takes them.
fn parts<A: Into<Dynamic>, B: Into<Dynamic>, C: Into<Dynamic>>(a: A, b: B, c: C) -> Array {
    vec![a.into(), b.into(), c.into()]
}

fn angle(angle: Angle) -> Dynamic {
    Dynamic::from(angle)
}

fn words() -> Vec<Word> {
    vec![
        word(
            "rgb(red, green, blue)",
            "A colour from red, green and blue, each from 0 to 255.",
            "rgb(200, 85, 61)",
            |red: f64, green: f64, blue: f64| rgb(red, green, blue),
        ),
        word(
            "hsl(hue, saturation, lightness)",
            "A colour from a hue angle, and saturation and lightness from 0 to 100.",
            "around(6).map(|hue| hsl(hue, 60, 50))",
            |hue: Angle, saturation: f64, lightness: f64| hsl(hue, saturation, lightness),
        ),
        word(
            "hwb(hue, whiteness, blackness)",
            "A colour from a hue angle, and whiteness and blackness from 0 to 100.",
            "hwb(deg(20), 20, 30)",
            |hue: Angle, whiteness: f64, blackness: f64| hwb(hue, whiteness, blackness),
        ),
        word(
            "lab(lightness, a, b)",
            "A CIE Lab colour: lightness from 0 to 100 and two axes from about -125 to 125, green to red and blue to yellow.",
            "lab(50, 40, 30)",
            |lightness: f64, a: f64, b: f64| lab(lightness, a, b),
        ),
        word(
            "lch(lightness, chroma, hue)",
            "A CIE LCh colour: lightness from 0 to 100, chroma from 0 to about 150, and a hue angle.",
            "lch(50, 60, deg(40))",
            |lightness: f64, chroma: f64, hue: Angle| lch(lightness, chroma, hue),
        ),
        word(
            "oklab(lightness, a, b)",
            "An Oklab colour: lightness from 0 to 1 and two axes from about -0.4 to 0.4, green to red and blue to yellow.",
            "oklab(0.6, 0.1, 0.08)",
            |lightness: f64, a: f64, b: f64| oklab(lightness, a, b),
        ),
        word(
            "oklch(lightness, chroma, hue)",
            "A colour of lightness from 0 to 1, chroma from 0 to about 0.4, and a hue as an angle. Colours of the same lightness look equally light, \
             whatever their hue: best for colours that go with an angle.",
            "around(12).map(|hue| oklch(0.7, 0.12, hue))",
            |lightness: f64, chroma: f64, hue: Angle| oklch(lightness, chroma, hue),
        ),
        word(
            "mix(first, second, share)",
            "The mix of two colours at a fraction from 0 to 1, perceptually even (in Oklab).",
            r##"mix("gold", "navy", 0.5)"##,
            |first: Tint, second: Tint, share: f64| {
                Ok::<_, CallError>(mix(first.of("mix")?, second.of("mix")?, share))
            },
        ),
        word(
            "mix_in(space, first, second, share)",
            "The mix of two colours in a named colour space: `srgb`, `srgb-linear`, `hsl`, `hwb`, `lab`, `lch`, `oklab` or `oklch`. Hues take the shorter way round.",
            r##"mix_in("oklch", "gold", "navy", 0.5)"##,
            |space: String, first: Tint, second: Tint, share: f64| {
                let (first, second) = (first.of("mix_in")?, second.of("mix_in")?);
                Ok::<_, CallError>(mix_in(space.as_str(), first, second, share)?)
            },
        ),
        word(
            "palette(colours, n)",
            "`n` evenly spaced colours interpolated through the given ones, including the first and the last.",
            r##"palette(["#c8553d", "#f4efe6", "#2f6f73"], 7)"##,
            |colours: Vec<Tint>, n: usize| {
                let colours =
                    colours.into_iter().map(|one| one.of("palette")).collect::<Result<Vec<_>, _>>()?;
                Ok::<_, CallError>(palette(&colours, n).collect::<Vec<_>>())
            },
        ),
        word(
            ".lighter(share)",
            "Lightens by a fraction of the way to white, keeping the hue.",
            r##""teal".lighter(0.3)"##,
            |on: Tint, share: f64| Ok::<_, CallError>(on.of("lighter")?.lighter(share)),
        ),
        word(
            ".darker(share)",
            "Darkens by a fraction of the way to black, keeping the hue.",
            r##""teal".darker(0.3)"##,
            |on: Tint, share: f64| Ok::<_, CallError>(on.of("darker")?.darker(share)),
        ),
        word(
            ".hue_turned(angle)",
            "Rotates the hue, from red through yellow and green to blue; half a turn gives the complement.",
            r##""teal".hue_turned(deg(180))"##,
            |on: Tint, by: Angle| Ok::<_, CallError>(on.of("hue_turned")?.hue_turned(by)),
        ),
        word(
            ".faded(share)",
            "Multiplies the opacity by a factor from 0 to 1.",
            r##""teal".faded(0.5)"##,
            |on: Tint, share: f64| Ok::<_, CallError>(on.of("faded")?.faded(share)),
        ),
        word(
            ".rgb()",
            "Red, green and blue as a list, as `rgb` takes them.",
            r##""teal".rgb()[1]"##,
            |on: Tint| {
                let [red, green, blue] = on.of("rgb")?.rgb();
                Ok::<_, CallError>(parts(red, green, blue))
            },
        ),
        word(
            ".hsl()",
            "Hue, saturation and lightness as a list, as `hsl` takes them.",
            r##""teal".hsl()[0]"##,
            |on: Tint| {
                let (hue, saturation, lightness) = on.of("hsl")?.hsl();
                Ok::<_, CallError>(parts(angle(hue), saturation, lightness))
            },
        ),
        word(
            ".hwb()",
            "Hue, whiteness and blackness as a list, as `hwb` takes them.",
            r##""teal".hwb()[2]"##,
            |on: Tint| {
                let (hue, whiteness, blackness) = on.of("hwb")?.hwb();
                Ok::<_, CallError>(parts(angle(hue), whiteness, blackness))
            },
        ),
        word(
            ".lab()",
            "Lightness and the two axes as a list, as `lab` takes them.",
            r##""teal".lab()[0]"##,
            |on: Tint| {
                let [lightness, a, b] = on.of("lab")?.lab();
                Ok::<_, CallError>(parts(lightness, a, b))
            },
        ),
        word(
            ".lch()",
            "Lightness, chroma and hue as a list, as `lch` takes them.",
            r##""teal".lch()[1]"##,
            |on: Tint| {
                let (lightness, chroma, hue) = on.of("lch")?.lch();
                Ok::<_, CallError>(parts(lightness, chroma, angle(hue)))
            },
        ),
        word(
            ".oklab()",
            "Lightness and the two axes as a list, as `oklab` takes them.",
            r##""teal".oklab()[0]"##,
            |on: Tint| {
                let [lightness, a, b] = on.of("oklab")?.oklab();
                Ok::<_, CallError>(parts(lightness, a, b))
            },
        ),
        word(
            ".oklch()",
            "Lightness, chroma and hue as a list, as `oklch` takes them.",
            r##""teal".oklch()[2]"##,
            |on: Tint| {
                let (lightness, chroma, hue) = on.of("oklch")?.oklch();
                Ok::<_, CallError>(parts(lightness, chroma, angle(hue)))
            },
        ),
        word(".alpha()", "The opacity, from 0 to 1.", r##""rgb(200 85 61 / 50%)".alpha()"##, |on: Tint| {
            Ok::<_, CallError>(f64::from(on.of("alpha")?.alpha))
        }),
        word(
            ".hex()",
            "The colour as a string: `#rrggbb`, or `#rrggbbaa` if it is not opaque.",
            r##"mix("gold", "navy", 0.5).hex()"##,
            |on: Tint| Ok::<_, CallError>(on.of("hex")?.hex()),
        ),
    ]
}
