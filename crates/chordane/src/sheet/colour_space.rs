//! Colours by the functions of the CSS recommendation, mixed, and brought into what a screen can show.
//!
//! The conversions are those of [CSS Color 4](https://www.w3.org/TR/css-color-4/), taken from a package; so is the way in which
//! a colour beyond sRGB is brought into it (its section on gamut mapping).

use super::Colour;
use crate::ground::named;
use crate::number::{Angle, deg};

/// A space in which colours are written and mixed.
///
/// ```
/// use chordane::prelude::*;
/// let (day, dusk) = (Colour::parse("gold")?, Colour::parse("navy")?);
/// assert_ne!(mix_in("oklch", day, dusk, 0.5)?, mix(day, dusk, 0.5));
/// assert_eq!(mix_in(ColourSpace::Srgb, day, dusk, 0.5)?.hex(), "#806c40");
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub enum ColourSpace {
    /// Red, green and blue as screens have them.
    Srgb,
    /// Red, green and blue in proportion to light.
    SrgbLinear,
    /// Hue, saturation and lightness of sRGB.
    Hsl,
    /// Hue, whiteness and blackness of sRGB.
    Hwb,
    /// Lightness and two axes of colour, of 1976.
    Lab,
    /// The same by chroma and hue.
    Lch,
    /// Lightness and two axes of colour, evenly as the eye sees them.
    Oklab,
    /// The same by chroma and hue.
    Oklch,
}

named! {
    ColourSpace: "colour space";
    "srgb" => Srgb, "srgb-linear" => SrgbLinear, "hsl" => Hsl, "hwb" => Hwb, "lab" => Lab, "lch" => Lch,
    "oklab" => Oklab, "oklch" => Oklch
}

impl ColourSpace {
    /// Which of the three coordinates is a hue, in degrees.
    fn hue(self) -> Option<usize> {
        match self {
            Self::Hsl | Self::Hwb => Some(0),
            Self::Lch | Self::Oklch => Some(2),
            _ => None,
        }
    }

    /// Whether coordinates are of a grey, whose hue says nothing.
    fn is_grey(self, [a, b, c]: [f64; 3]) -> bool {
        match self {
            Self::Hsl => b < 1e-3,
            Self::Hwb => b + c > 100.0 - 1e-3,
            Self::Lch => b < 0.02,
            Self::Oklch => b < 2e-4,
            _ => a.is_nan(),
        }
    }
}

/// So far apart, two colours look the same (CSS Color 4: a just noticeable difference in OKLab).
const JND: f32 = 0.02;

/// How finely the chroma is sought that can be shown.
const CHROMA_EPSILON: f32 = 1e-4;

/// A colour of red, green and blue, each from 0 to 255 as the CSS function `rgb` takes them. What lies beyond is cut off.
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!(rgb(200.0, 85.0, 61.0), Colour::parse("rgb(200 85 61)")?);
/// assert_eq!(rgb(200.0, 85.0, 61.0).rgb().map(f64::round), [200.0, 85.0, 61.0]);
/// # Ok::<(), Fault>(())
/// ```
#[must_use]
pub fn rgb(red: f64, green: f64, blue: f64) -> Colour {
    Colour::in_space(ColourSpace::Srgb, [red / 255.0, green / 255.0, blue / 255.0])
}

/// A colour of a hue, and of saturation and lightness from 0 to 100, as the CSS function `hsl` takes them.
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!(hsl(deg(120.0), 100.0, 25.0).hex(), "#008000");
/// ```
#[must_use]
pub fn hsl(hue: Angle, saturation: f64, lightness: f64) -> Colour {
    Colour::in_space(ColourSpace::Hsl, [hue.degrees(), saturation, lightness])
}

/// A colour of a hue, and of whiteness and blackness from 0 to 100, as the CSS function `hwb` takes them.
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!(hwb(deg(0.0), 0.0, 0.0).hex(), "#f00");
/// ```
#[must_use]
pub fn hwb(hue: Angle, whiteness: f64, blackness: f64) -> Colour {
    Colour::in_space(ColourSpace::Hwb, [hue.degrees(), whiteness, blackness])
}

/// A colour of lightness from 0 to 100 and two axes from about -125 to 125, green to red and blue to yellow, as the CSS function
/// `lab` takes them. One that no screen shows is brought to the nearest of its lightness and hue.
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!(lab(50.0, 0.0, 0.0).hex(), "#777");
/// ```
#[must_use]
pub fn lab(lightness: f64, a: f64, b: f64) -> Colour {
    Colour::in_space(ColourSpace::Lab, [lightness, a, b])
}

/// A colour of lightness from 0 to 100, chroma from 0 to about 150 and hue, as the CSS function `lch` takes them; beyond what is
/// shown as [`lab`].
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!(lch(50.0, 30.0, deg(40.0)).hex(), "#a26757");
/// ```
#[must_use]
pub fn lch(lightness: f64, chroma: f64, hue: Angle) -> Colour {
    Colour::in_space(ColourSpace::Lch, [lightness, chroma, hue.degrees()])
}

/// A colour of lightness from 0 to 1 and two axes from about -0.4 to 0.4, green to red and blue to yellow, as the CSS function
/// `oklab` takes them; beyond what is shown as [`lab`].
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!(oklab(1.0, 0.0, 0.0).hex(), "#fff");
/// ```
#[must_use]
pub fn oklab(lightness: f64, a: f64, b: f64) -> Colour {
    Colour::in_space(ColourSpace::Oklab, [lightness, a, b])
}

/// A colour of lightness from 0 to 1, chroma from 0 to about 0.4 and hue, as the CSS function `oklch` takes them; beyond what is
/// shown as [`lab`].
///
/// ```
/// use chordane::prelude::*;
/// let hues = around(6).map(|hue| oklch(0.7, 0.12, hue).hex());
/// assert_eq!(hues.collect::<Vec<_>>(), ["#da7d9b", "#d58b4b", "#95a94e", "#24b6a1", "#4fa8e1", "#aa8dde"]);
/// ```
#[must_use]
pub fn oklch(lightness: f64, chroma: f64, hue: Angle) -> Colour {
    Colour::in_space(ColourSpace::Oklch, [lightness, chroma, hue.degrees()])
}

/// The colour that lies between two at a share of the way, evenly as the eye sees it (in OKLab). A share of 0 gives the first, 1
/// the second; beyond that it is as at 0 or 1. A translucent colour counts as much as it covers.
///
/// ```
/// use chordane::prelude::*;
/// let (day, dusk) = (Colour::parse("gold")?, Colour::parse("navy")?);
/// assert_eq!(mix(day, dusk, 0.5).hex(), "#6e7e7c");
/// assert_eq!((mix(day, dusk, 0.0), mix(day, dusk, 1.0)), (day, dusk));
/// # Ok::<(), Fault>(())
/// ```
#[must_use]
pub fn mix(first: Colour, second: Colour, share: f64) -> Colour {
    first.mixed(second, share, ColourSpace::Oklab)
}

/// As [`mix`] in another space: a [`ColourSpace`] or its CSS name. Hues go the shorter way round, and a grey takes the other's.
///
/// # Errors
///
/// A name that is none, with those there are.
pub fn mix_in(
    space: impl Into<crate::ground::Given<ColourSpace>>,
    first: Colour,
    second: Colour,
    share: f64,
) -> Result<Colour, crate::ground::Fault> {
    Ok(first.mixed(second, share, space.into().resolve("mix_in")?))
}

/// So many colours evenly between given ones, the first and the last of which are among them: each as [`mix`] makes it. One
/// alone is the first; none of none.
///
/// ```
/// use chordane::prelude::*;
/// let given = [rgb(200.0, 85.0, 61.0), rgb(244.0, 239.0, 230.0), rgb(47.0, 111.0, 115.0)];
/// let loft = palette(&given, 5);
/// assert_eq!(loft.map(Colour::hex).collect::<Vec<_>>(), ["#c8553d", "#e3a491", "#f4efe6", "#92adab", "#2f6f73"]);
/// ```
pub fn palette(colours: &[Colour], count: usize) -> impl ExactSizeIterator<Item = Colour> + Clone + use<'_> {
    let steps = count.saturating_sub(1).max(1) as f64;
    let pieces = colours.len().saturating_sub(1);
    let count = if colours.is_empty() { 0 } else { count };
    (0..count).map(move |i| {
        let along = i as f64 / steps * pieces as f64;
        let begin = (along.floor() as usize).min(pieces.saturating_sub(1));
        let at = |at: usize| colours.get(at.min(pieces)).copied().unwrap_or(Colour::CLEAR);
        mix(at(begin), at(begin + 1), along - begin as f64)
    })
}

impl Colour {
    /// Nothing to be seen.
    pub(crate) const CLEAR: Self = Self { red: 0.0, green: 0.0, blue: 0.0, alpha: 0.0 };

    /// An opaque colour by its coordinates in a space, as the CSS function of that name takes them, hues in degrees, and sRGB as
    /// shares. It is brought into what can be shown. What is not a number stays so, and is a fault of what is painted with it.
    pub(crate) fn in_space(space: ColourSpace, [a, b, c]: [f64; 3]) -> Self {
        use csscolorparser::Color;
        if !(a.is_finite() && b.is_finite() && c.is_finite()) {
            return Self { red: f32::NAN, green: f32::NAN, blue: f32::NAN, alpha: 1.0 };
        }
        let share = |percent: f64| (percent / 100.0) as f32;
        let turn = |degrees: f64| degrees.rem_euclid(360.0) as f32;
        let (x, y, z) = (a as f32, b as f32, c as f32);
        let made = match space {
            ColourSpace::Srgb => return Self::of(Color::new(x, y, z, 1.0)).clamped(),
            ColourSpace::SrgbLinear => return Self::of(Color::from_linear_rgba(x, y, z, 1.0)).clamped(),
            ColourSpace::Hsl => return Self::of(Color::from_hsla(turn(a), share(b), share(c), 1.0)),
            ColourSpace::Hwb => return Self::of(Color::from_hwba(turn(a), share(b), share(c), 1.0)),
            ColourSpace::Lab => Color::from_laba(x.clamp(0.0, 100.0), y, z, 1.0),
            ColourSpace::Lch => Color::from_lcha(x.clamp(0.0, 100.0), y.max(0.0), turn(c).to_radians(), 1.0),
            ColourSpace::Oklab => Color::from_oklaba(x.clamp(0.0, 1.0), y, z, 1.0),
            ColourSpace::Oklch => {
                Color::from_oklcha(x.clamp(0.0, 1.0), y.max(0.0), turn(c).to_radians(), 1.0)
            }
        };
        Self::shown(&made)
    }

    /// The coordinates in a space, as [`Colour::in_space`] takes them.
    pub(crate) fn to_space(self, space: ColourSpace) -> [f64; 3] {
        let color = self.parsed();
        let turn = |radians: f32| f64::from(radians).to_degrees().rem_euclid(360.0);
        let [a, b, c, _] = match space {
            ColourSpace::Srgb => [self.red, self.green, self.blue, 1.0],
            ColourSpace::SrgbLinear => color.to_linear_rgba(),
            ColourSpace::Hsl => color.to_hsla(),
            ColourSpace::Hwb => color.to_hwba(),
            ColourSpace::Lab => color.to_laba(),
            ColourSpace::Lch => color.to_lcha(),
            ColourSpace::Oklab => color.to_oklaba(),
            ColourSpace::Oklch => color.to_oklcha(),
        };
        let [a, b, c] = [a, b, c].map(f64::from);
        match space {
            ColourSpace::Hsl | ColourSpace::Hwb => [a, b * 100.0, c * 100.0],
            ColourSpace::Lch | ColourSpace::Oklch => [a, b, turn(c as f32)],
            _ => [a, b, c],
        }
    }

    /// Red, green and blue from 0 to 255, as [`rgb`] takes them.
    #[must_use]
    pub fn rgb(self) -> [f64; 3] {
        self.to_space(ColourSpace::Srgb).map(|share| share * 255.0)
    }

    /// Hue, saturation and lightness, as [`hsl`] takes them. A grey has a hue of 0.
    #[must_use]
    pub fn hsl(self) -> (Angle, f64, f64) {
        let [hue, saturation, lightness] = self.to_space(ColourSpace::Hsl);
        (deg(hue), saturation, lightness)
    }

    /// Hue, whiteness and blackness, as [`hwb`] takes them. A grey has a hue of 0.
    #[must_use]
    pub fn hwb(self) -> (Angle, f64, f64) {
        let [hue, whiteness, blackness] = self.to_space(ColourSpace::Hwb);
        (deg(hue), whiteness, blackness)
    }

    /// Lightness and the two axes, as [`lab`] takes them.
    #[must_use]
    pub fn lab(self) -> [f64; 3] {
        self.to_space(ColourSpace::Lab)
    }

    /// Lightness, chroma and hue, as [`lch`] takes them.
    #[must_use]
    pub fn lch(self) -> (f64, f64, Angle) {
        let [lightness, chroma, hue] = self.to_space(ColourSpace::Lch);
        (lightness, chroma, deg(hue))
    }

    /// Lightness and the two axes, as [`oklab`] takes them.
    #[must_use]
    pub fn oklab(self) -> [f64; 3] {
        self.to_space(ColourSpace::Oklab)
    }

    /// Lightness, chroma and hue, as [`oklch`] takes them.
    #[must_use]
    pub fn oklch(self) -> (f64, f64, Angle) {
        let [lightness, chroma, hue] = self.to_space(ColourSpace::Oklch);
        (lightness, chroma, deg(hue))
    }

    /// Nearer to white by a share from 0 to 1 of the way, as the eye sees it (in OKLab), of the same hue.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// assert_eq!(rgb(200.0, 85.0, 61.0).lighter(0.3).hex(), "#dd8a77");
    /// ```
    #[must_use]
    pub fn lighter(self, share: f64) -> Self {
        let white = Self { red: 1.0, green: 1.0, blue: 1.0, alpha: self.alpha };
        self.mixed(white, share, ColourSpace::Oklab)
    }

    /// Nearer to black by a share from 0 to 1 of the way, as the eye sees it (in OKLab), of the same hue.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// assert_eq!(rgb(200.0, 85.0, 61.0).darker(0.3).hex(), "#7b3122");
    /// ```
    #[must_use]
    pub fn darker(self, share: f64) -> Self {
        let black = Self { red: 0.0, green: 0.0, blue: 0.0, alpha: self.alpha };
        self.mixed(black, share, ColourSpace::Oklab)
    }

    /// Of another hue, turned by an angle in OKLCh: from red by way of yellow and green to blue. A half turn gives the
    /// complement.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// assert_eq!(rgb(200.0, 85.0, 61.0).hue_turned(deg(180.0)).hex(), "#0090aa");
    /// ```
    #[must_use]
    pub fn hue_turned(self, angle: Angle) -> Self {
        let [lightness, chroma, hue] = self.to_space(ColourSpace::Oklch);
        let made = Self::in_space(ColourSpace::Oklch, [lightness, chroma, hue + angle.degrees()]);
        Self { alpha: self.alpha, ..made }
    }

    /// The colour at a share of the way to another, mixed in a space as CSS Color 4 says: alpha multiplied in, hues the shorter
    /// way round.
    pub(crate) fn mixed(self, other: Self, share: f64, space: ColourSpace) -> Self {
        let share = if share.is_nan() { 0.0 } else { share.clamp(0.0, 1.0) };
        if share == 0.0 || self == other {
            return self;
        }
        if share == 1.0 {
            return other;
        }
        let (mut a, mut b) = (self.to_space(space), other.to_space(space));
        if let Some(at) = space.hue() {
            let (grey_a, grey_b) = (space.is_grey(a), space.is_grey(b));
            if grey_a {
                a[at] = b[at];
            } else if grey_b {
                b[at] = a[at];
            }
            let step = b[at] - a[at];
            b[at] -= (step / 360.0).round() * 360.0;
        }
        let (alpha_a, alpha_b) = (f64::from(self.alpha), f64::from(other.alpha));
        let alpha = alpha_a + (alpha_b - alpha_a) * share;
        let weight = if alpha > 0.0 { alpha_b * share / alpha } else { share };
        let mut made = [0.0; 3];
        for (at, (value, (a, b))) in made.iter_mut().zip(a.into_iter().zip(b)).enumerate() {
            let share = if space.hue() == Some(at) { share } else { weight };
            *value = a + (b - a) * share;
        }
        Self { alpha: alpha as f32, ..Self::in_space(space, made) }
    }

    fn of(color: csscolorparser::Color) -> Self {
        Self { red: color.r, green: color.g, blue: color.b, alpha: color.a }
    }

    fn parsed(self) -> csscolorparser::Color {
        csscolorparser::Color::new(self.red, self.green, self.blue, self.alpha)
    }

    /// A colour that may lie beyond sRGB, brought into it: with less chroma, until cutting off what is left over makes no
    /// difference that can be noticed (CSS Color 4, gamut mapping).
    pub(super) fn shown(wide: &csscolorparser::Color) -> Self {
        use csscolorparser::Color;
        let within = |color: &Color| {
            [color.r, color.g, color.b].iter().all(|share| (-1e-5..=1.0 + 1e-5).contains(share))
        };
        let cut = |color: &Color| Self::of(*color).clamped();
        if within(wide) {
            return cut(wide);
        }
        let [lightness, chroma, hue, alpha] = wide.to_oklcha();
        if lightness >= 1.0 - CHROMA_EPSILON {
            return Self { red: 1.0, green: 1.0, blue: 1.0, alpha };
        }
        if lightness <= CHROMA_EPSILON {
            return Self { red: 0.0, green: 0.0, blue: 0.0, alpha };
        }
        let apart = |color: &Color| {
            let ([l, a, b, _], [m, c, d, _]) = (cut(color).parsed().to_oklaba(), color.to_oklaba());
            ((l - m).powi(2) + (a - c).powi(2) + (b - d).powi(2)).sqrt()
        };
        if apart(wide) < JND {
            return cut(wide);
        }
        let (mut low, mut high, mut low_is_within) = (0.0, chroma, true);
        while high - low > CHROMA_EPSILON {
            let middle = (low + high) * 0.5;
            let less = Color::from_oklcha(lightness, middle, hue, alpha);
            if low_is_within && within(&less) {
                low = middle;
                continue;
            }
            let off = apart(&less);
            if off >= JND {
                high = middle;
            } else if JND - off < CHROMA_EPSILON {
                return cut(&less);
            } else {
                low_is_within = false;
                low = middle;
            }
        }
        cut(&Color::from_oklcha(lightness, low, hue, alpha))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::ground::Named;

    #[test]
    fn every_space_leads_back() {
        for bytes in [[200, 85, 61, 255], [0, 128, 128, 255], [250, 250, 3, 255], [1, 2, 3, 255]] {
            let colour = Colour::from_rgba8(bytes);
            for space in ColourSpace::VALUES {
                assert_eq!(Colour::in_space(*space, colour.to_space(*space)).to_rgba8(), bytes, "{space:?}");
            }
        }
    }

    /// Values of the recommendation's own examples and of its sample code.
    #[test]
    fn the_functions_of_the_recommendation() {
        let near = |colour: Colour, want: [f64; 3]| {
            let given = colour.rgb();
            assert!(given.iter().zip(want).all(|(a, b)| (a - b).abs() < 0.6), "{given:?} for {want:?}");
        };
        near(lab(29.2345, 39.3825, 20.0664), [125.0, 35.0, 41.0]);
        near(lch(52.2345, 72.2, deg(56.2)), [198.0, 93.0, 6.0]);
        near(oklab(0.40101, 0.1147, 0.0453), [125.0, 35.0, 41.0]);
        near(oklch(0.59686, 0.15619, deg(49.7694)), [198.0, 93.0, 6.0]);
        near(hsl(deg(30.0), 100.0, 50.0), [255.0, 127.5, 0.0]);
        near(hwb(deg(90.0), 10.0, 10.0), [128.0, 229.5, 25.5]);
    }

    #[test]
    fn what_no_screen_shows_keeps_its_lightness_and_hue() {
        for hue in 0..36 {
            let wide = oklch(0.7, 0.4, deg(f64::from(hue) * 10.0));
            let (lightness, chroma, turned) = wide.oklch();
            assert!((lightness - 0.7).abs() < 0.03, "{hue}: {lightness}");
            let off = (turned.degrees() - f64::from(hue) * 10.0 + 180.0).rem_euclid(360.0) - 180.0;
            assert!(off.abs() < 8.0 && chroma > 0.1, "{hue}: {off} {chroma}");
        }
        assert_eq!(oklch(1.0, 0.4, deg(20.0)).hex(), "#fff");
        assert_eq!(oklch(-3.0, 0.4, deg(20.0)).hex(), "#000");
        assert_eq!(Colour::parse("oklch(70% 0.4 150)"), Ok(oklch(0.7, 0.4, deg(150.0))));
    }

    #[test]
    fn hues_go_the_shorter_way_and_greys_take_the_others() {
        let middle = |a: Colour, b: Colour| a.mixed(b, 0.5, ColourSpace::Hsl).hsl().0.degrees();
        let pure = |degrees: f64| hsl(deg(degrees), 100.0, 50.0);
        assert!((middle(pure(350.0), pure(30.0)) - 10.0).abs() < 0.01);
        assert!((middle(pure(30.0), pure(350.0)) - 10.0).abs() < 0.01);
        assert!((middle(pure(200.0), rgb(128.0, 128.0, 128.0)) - 200.0).abs() < 0.01);
        let half =
            rgb(255.0, 0.0, 0.0).faded(0.5).mixed(rgb(0.0, 0.0, 255.0).faded(0.0), 0.5, ColourSpace::Srgb);
        assert_eq!(half.to_rgba8(), [255, 0, 0, 64]);
    }
}
