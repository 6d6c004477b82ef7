//! What things are painted with.

use std::sync::Arc;

use super::{Colour, Gradient, Pattern, Picture, Shades};
use crate::ground::{Fault, FaultKind};

/// What an item, a stroke or a ground is painted with.
///
/// There will be more kinds: match with a last arm for those, or ask for what you need, as [`Paint::colour`] does.
///
/// ```
/// use chordane::prelude::*;
/// let vent = circle((0.0, 0.0), 9.0).fill("#c8553d");
/// assert_eq!(vent.style().fill.as_ref().and_then(Paint::colour).map(Colour::hex), Some("#c8553d".to_owned()));
/// ```
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize), serde(rename_all = "kebab-case"))]
pub enum Paint {
    /// One colour all over.
    Solid(Colour),
    /// Colours that go over into one another.
    Gradient(Arc<Gradient>),
    /// A picture of pixels.
    Picture(Box<Picture>),
    /// A drawing that is repeated.
    Pattern(Box<Pattern>),
    /// Colours that follow the path itself.
    Shades(Box<Shades>),
}

impl Paint {
    /// The colour, where it is one all over.
    #[must_use]
    pub fn colour(&self) -> Option<Colour> {
        match self {
            Self::Solid(colour) => Some(*colour),
            _ => None,
        }
    }

    /// What kind of paint it is, in one word: `colour`, `gradient`, `picture`, `pattern` or `shades`.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// assert_eq!(Paint::from(by_vertex(["gold", "teal"])).kind(), "shades");
    /// ```
    #[must_use]
    pub fn kind(&self) -> &'static str {
        match self {
            Self::Solid(_) => "colour",
            Self::Gradient(_) => "gradient",
            Self::Picture(_) => "picture",
            Self::Pattern(_) => "pattern",
            Self::Shades(_) => "shades",
        }
    }

    /// Whether nothing of it can be seen.
    #[must_use]
    pub fn is_invisible(&self) -> bool {
        match self {
            Self::Solid(colour) => colour.alpha <= 0.0,
            Self::Gradient(gradient) => gradient.stops().iter().all(|(_, colour)| colour.alpha <= 0.0),
            Self::Picture(picture) => picture.is_invisible(),
            Self::Pattern(pattern) => pattern.nodes().is_empty(),
            Self::Shades(shades) => shades.colours().iter().all(|colour| colour.alpha <= 0.0),
        }
    }

    /// Whether it hides all that lies under it.
    #[must_use]
    pub fn is_opaque(&self) -> bool {
        match self {
            Self::Solid(colour) => colour.to_rgba8()[3] == 255,
            Self::Gradient(gradient) => {
                gradient.stops().iter().all(|(_, colour)| colour.to_rgba8()[3] == 255)
            }
            Self::Picture(picture) => picture.is_opaque(),
            Self::Pattern(_) => false,
            Self::Shades(shades) => shades.colours().iter().all(|colour| colour.to_rgba8()[3] == 255),
        }
    }
}

impl Paint {
    /// Groups inside one another in what it is made of.
    pub(super) fn depth(&self) -> usize {
        match self {
            Self::Pattern(pattern) => pattern.depth(),
            _ => 0,
        }
    }
}

impl Paint {
    /// Whether it can be painted with.
    pub(super) fn is_sound(&self) -> bool {
        match self {
            Self::Solid(colour) => colour.is_finite(),
            other => other.check("paint").is_ok(),
        }
    }

    /// Checks that it can be painted with; `call` is the place that a fault's message names.
    pub(super) fn check(&self, call: &'static str) -> Result<(), Fault> {
        match self {
            Self::Solid(colour) => colour.finite(call),
            Self::Gradient(gradient) if gradient.stops().is_empty() => {
                gradient.sound()?;
                let message =
                    "the gradient has no colours; give it some, as in .colours([\"gold\", \"teal\"])";
                Err(Fault::of(call, FaultKind::Told { message: message.to_owned() }))
            }
            Self::Gradient(gradient) => gradient.sound().map(drop),
            Self::Picture(picture) => picture.sound().map(drop),
            Self::Pattern(pattern) => pattern.sound().map(drop),
            Self::Shades(shades) => shades.sound().map(drop),
        }
    }
}

/// A paint as it is given: a [`Paint`], a [`Colour`], or a text that is read as a colour there and then. A text that is no
/// colour becomes a fault of what it was given to.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::sheet::GivenPaint;
/// assert_eq!(GivenPaint::from("teal").resolve("fill")?, Paint::Solid(Colour::parse("teal")?));
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Debug)]
pub struct GivenPaint(Result<Paint, String>);

impl GivenPaint {
    /// The paint that was given or named; `call` is what a fault's message calls the place.
    ///
    /// # Errors
    ///
    /// A fault that names the text, and the colour name that comes nearest.
    pub fn resolve(self, call: &'static str) -> Result<Paint, Fault> {
        let paint = match self.0 {
            Ok(paint) => paint,
            Err(text) => return Colour::read_for(call, &text).map(Paint::Solid),
        };
        paint.check(call).map(|()| paint)
    }
}

/// A colour as it is given: a [`Colour`], or a text that is read there and then.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::sheet::GivenColour;
/// assert_eq!(GivenColour::from("teal").resolve("stop")?, Colour::parse("teal")?);
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Debug)]
pub struct GivenColour(Result<Colour, String>);

impl GivenColour {
    /// The colour that was given or named; `call` is what a fault's message calls the place.
    ///
    /// # Errors
    ///
    /// As [`GivenPaint::resolve`].
    pub fn resolve(self, call: &'static str) -> Result<Colour, Fault> {
        match self.0 {
            Ok(colour) => colour.finite(call).map(|()| colour),
            Err(text) => Colour::read_for(call, &text),
        }
    }
}

impl From<Colour> for GivenColour {
    fn from(colour: Colour) -> Self {
        Self(Ok(colour))
    }
}

impl From<&str> for GivenColour {
    fn from(text: &str) -> Self {
        Self(Err(text.to_owned()))
    }
}

impl From<String> for GivenColour {
    fn from(text: String) -> Self {
        Self(Err(text))
    }
}

impl From<Paint> for GivenPaint {
    fn from(paint: Paint) -> Self {
        Self(Ok(paint))
    }
}

impl From<&Paint> for GivenPaint {
    fn from(paint: &Paint) -> Self {
        Self(Ok(paint.clone()))
    }
}

impl From<Colour> for GivenPaint {
    fn from(colour: Colour) -> Self {
        Self(Ok(Paint::Solid(colour)))
    }
}

macro_rules! given_as_paint {
    ($($type:ty),*) => {$(
        impl From<$type> for GivenPaint {
            fn from(paint: $type) -> Self {
                Self(Ok(Paint::from(paint)))
            }
        }

        impl From<&$type> for GivenPaint {
            fn from(paint: &$type) -> Self {
                Self::from(paint.clone())
            }
        }
    )*};
}

given_as_paint!(Picture, Pattern, Shades);

impl From<&str> for GivenPaint {
    fn from(text: &str) -> Self {
        Self(Err(text.to_owned()))
    }
}

impl From<String> for GivenPaint {
    fn from(text: String) -> Self {
        Self(Err(text))
    }
}
