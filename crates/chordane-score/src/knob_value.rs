//! The values that a program sets knobs to.

use chordane::ground::plain_number;
use chordane::number::{Angle, Point};
use chordane::sheet::Colour;

/// A value that a knob is set to, as text.
///
/// It is made from a number, a text, a switch, a point, a colour or an angle (in degrees), so that
/// [`Settings::set`](crate::Settings::set) takes any of them.
///
/// ```
/// use chordane::prelude::*;
/// use chordane_score::KnobValue;
/// assert_eq!(KnobValue::from(0.25).as_str(), "0.25");
/// assert_eq!(KnobValue::from(true).as_str(), "on");
/// assert_eq!(KnobValue::from((3.0, 4.5)).as_str(), "3,4.5");
/// assert_eq!(KnobValue::from(deg(30.0)).as_str(), "30");
/// assert_eq!(KnobValue::from(Colour::from_rgba8([255, 0, 0, 255])).as_str(), "#f00");
/// ```
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct KnobValue(String);

impl KnobValue {
    /// The text.
    #[must_use]
    pub fn as_str(&self) -> &str {
        &self.0
    }

    pub(crate) fn into_text(self) -> String {
        self.0
    }
}

impl From<&str> for KnobValue {
    fn from(text: &str) -> Self {
        Self(text.trim().to_owned())
    }
}

impl From<&String> for KnobValue {
    fn from(text: &String) -> Self {
        Self::from(text.as_str())
    }
}

impl From<String> for KnobValue {
    fn from(text: String) -> Self {
        Self::from(text.as_str())
    }
}

impl From<f64> for KnobValue {
    fn from(number: f64) -> Self {
        Self(plain_number(number))
    }
}

impl From<i32> for KnobValue {
    fn from(number: i32) -> Self {
        Self(number.to_string())
    }
}

impl From<bool> for KnobValue {
    fn from(on: bool) -> Self {
        Self(if on { "on" } else { "off" }.to_owned())
    }
}

impl From<Point> for KnobValue {
    fn from(at: Point) -> Self {
        Self(format!("{},{}", plain_number(at.x), plain_number(at.y)))
    }
}

impl From<(f64, f64)> for KnobValue {
    fn from(at: (f64, f64)) -> Self {
        Self::from(Point::from(at))
    }
}

impl From<Angle> for KnobValue {
    fn from(angle: Angle) -> Self {
        Self::from(angle.degrees())
    }
}

impl From<Colour> for KnobValue {
    fn from(colour: Colour) -> Self {
        Self(colour.hex())
    }
}
