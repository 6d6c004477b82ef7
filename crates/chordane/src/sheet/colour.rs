//! Colours, read from the text of the CSS Color 4 syntax.

use std::fmt;
use std::str::FromStr;

use super::colour_names::NAMES;
use crate::ground::{Fault, FaultKind, FaultSlot, nearest};

/// A colour: red, green, blue and alpha from 0 to 1, in sRGB as screens and files have it, alpha not multiplied
/// in.
///
/// ```
/// use chordane::prelude::*;
/// let teal = Colour::parse("teal")?;
/// assert_eq!((teal.hex().as_str(), teal.to_rgba8()), ("#008080", [0, 128, 128, 255]));
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Colour {
    /// Red, 0 to 1.
    pub red: f32,
    /// Green, 0 to 1.
    pub green: f32,
    /// Blue, 0 to 1.
    pub blue: f32,
    /// Opacity: 0 is invisible, 1 covers all.
    pub alpha: f32,
}

impl Colour {
    /// Reads a colour of the CSS Color 4 syntax: `#c8553d`, `teal`, `rgb(200 85 61 / 50%)`, `oklch(60% 0.1 200)`.
    ///
    /// # Errors
    ///
    /// A fault that names the text, and the colour name that comes nearest.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// assert_eq!(Colour::parse("#ff000080")?.hex(), "#ff000080");
    /// assert_eq!(
    ///     Colour::parse("tael").unwrap_err().to_string(),
    ///     "`colour`: \"tael\" is not a colour (did you mean \"teal\"?); \
    ///      give a CSS colour such as \"#c8553d\", \"teal\" or \"rgb(200 85 61 / 50%)\""
    /// );
    /// # Ok::<(), Fault>(())
    /// ```
    pub fn parse(text: &str) -> Result<Self, Fault> {
        Self::read_for("colour", text)
    }

    /// As [`Colour::parse`]; the fault names a call that the text was given to.
    ///
    /// # Errors
    ///
    /// As [`Colour::parse`].
    pub fn read_for(call: &'static str, text: &str) -> Result<Self, Fault> {
        let trimmed = text.trim();
        let lower = trimmed.to_ascii_lowercase();
        if lower == "transparent" {
            return Ok(Self::CLEAR);
        }
        if let Ok(at) = NAMES.binary_search_by_key(&lower.as_str(), |(name, _)| name) {
            let code = NAMES.get(at).map_or(0, |(_, code)| *code);
            return Ok(Self::from_rgba8([(code >> 16) as u8, (code >> 8) as u8, code as u8, 255]));
        }
        // The parser also takes bare hexadecimal digits, which CSS does not.
        let parsed = if trimmed.starts_with('#') || trimmed.contains('(') {
            csscolorparser::parse(trimmed).ok()
        } else {
            None
        };
        let wide = ["lab(", "lch(", "oklab(", "oklch("].iter().any(|name| lower.starts_with(name));
        let made = |c: csscolorparser::Color| match wide {
            true => Self::shown(&c).clamped(),
            false => Self { red: c.r, green: c.g, blue: c.b, alpha: c.a }.clamped(),
        };
        parsed.map(made).ok_or_else(|| {
            Fault::of(
                call,
                FaultKind::UnknownColour {
                    text: text.to_owned(),
                    near: nearest(&lower, NAMES.iter().map(|(name, _)| *name)),
                },
            )
        })
    }

    /// A colour from four bytes: red, green, blue, alpha.
    #[must_use]
    pub fn from_rgba8([red, green, blue, alpha]: [u8; 4]) -> Self {
        let share = |byte: u8| f32::from(byte) / 255.0;
        Self { red: share(red), green: share(green), blue: share(blue), alpha: share(alpha) }
    }

    /// The nearest four bytes: red, green, blue, alpha.
    #[must_use]
    pub fn to_rgba8(self) -> [u8; 4] {
        [self.red, self.green, self.blue, self.alpha].map(|share| (share * 255.0 + 0.5) as u8)
    }

    /// The text `#rrggbb`, or `#rrggbbaa` where it is not opaque; shortened to one digit each where that is the
    /// same colour.
    #[must_use]
    pub fn hex(self) -> String {
        let bytes = self.to_rgba8();
        let shown = if bytes[3] == 255 { &bytes[..3] } else { &bytes[..] };
        let short = shown.iter().all(|byte| byte >> 4 == byte & 15);
        let digits =
            shown.iter().map(|byte| if short { format!("{:x}", byte & 15) } else { format!("{byte:02x}") });
        format!("#{}", digits.collect::<String>())
    }

    /// The same colour with its alpha multiplied by a share from 0 to 1.
    #[must_use]
    pub fn faded(self, share: f64) -> Self {
        Self { alpha: self.alpha * share.clamp(0.0, 1.0) as f32, ..self }
    }

    pub(super) fn is_finite(self) -> bool {
        [self.red, self.green, self.blue, self.alpha].into_iter().all(f32::is_finite)
    }

    /// Refuses what is not a number.
    pub(super) fn finite(self, call: &'static str) -> Result<(), Fault> {
        let mut fault = FaultSlot::default();
        for (what, value) in
            [("red", self.red), ("green", self.green), ("blue", self.blue), ("alpha", self.alpha)]
        {
            fault.finite(call, what, f64::from(value));
        }
        fault.sound()
    }

    pub(super) fn clamped(self) -> Self {
        let share = |v: f32| if v.is_nan() { 0.0 } else { v.clamp(0.0, 1.0) };
        Self {
            red: share(self.red),
            green: share(self.green),
            blue: share(self.blue),
            alpha: share(self.alpha),
        }
    }
}

/// As [`Colour::parse`].
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!("teal".parse::<Colour>()?.to_string(), "#008080");
/// # Ok::<(), Fault>(())
/// ```
impl FromStr for Colour {
    type Err = Fault;

    fn from_str(text: &str) -> Result<Self, Fault> {
        Self::parse(text)
    }
}

impl TryFrom<&str> for Colour {
    type Error = Fault;

    fn try_from(text: &str) -> Result<Self, Fault> {
        Self::parse(text)
    }
}

/// As [`Colour::hex`].
impl fmt::Display for Colour {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(&self.hex())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_css_syntax_is_read() {
        let cases = [
            ("#fff", [255, 255, 255, 255]),
            ("#C8553D", [200, 85, 61, 255]),
            ("RebeccaPurple", [102, 51, 153, 255]),
            ("transparent", [0, 0, 0, 0]),
            ("rgb(200 85 61 / 50%)", [200, 85, 61, 128]),
            ("rgba(200, 85, 61, 0.5)", [200, 85, 61, 128]),
            ("hsl(120deg 100% 25%)", [0, 128, 0, 255]),
            ("hwb(0 0% 0%)", [255, 0, 0, 255]),
            ("oklab(100% 0 0)", [255, 255, 255, 255]),
        ];
        for (text, want) in cases {
            assert_eq!(Colour::parse(text).map(Colour::to_rgba8), Ok(want), "{text}");
        }
        for text in ["", "fff", "c8553d", "#12", "rgb(", "currentcolor", "redd dish"] {
            assert!(Colour::parse(text).is_err(), "{text}");
        }
    }

    #[test]
    fn hex_is_short_where_it_can_be() {
        assert_eq!(Colour::from_rgba8([255, 0, 17, 255]).hex(), "#f01");
        assert_eq!(Colour::from_rgba8([255, 0, 18, 255]).hex(), "#ff0012");
        assert_eq!(Colour::from_rgba8([255, 0, 17, 0]).hex(), "#f010");
    }

    #[test]
    fn names_are_in_order() {
        assert_eq!(NAMES.len(), 148);
        assert!(NAMES.windows(2).all(|pair| pair[0].0 < pair[1].0));
    }
}
