//! Colours that follow the path itself: one for each vertex, or along its length.

use std::sync::Arc;

use super::{Colour, GivenColour, Gradient, Paint};
use crate::ground::{Fault, FaultKind, FaultSlot};

/// Colours that follow a path; see [`by_vertex`] and [`along`].
///
/// ```
/// use chordane::prelude::*;
/// assert_eq!(by_vertex(["gold", "teal"]).colours().len(), 2);
/// ```
#[derive(Clone, Debug, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize))]
pub struct Shades {
    kind: ShadesKind,
    #[cfg_attr(feature = "serde", serde(skip_deserializing, skip_serializing_if = "FaultSlot::is_empty"))]
    fault: FaultSlot,
}

#[derive(Clone, Debug, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize), serde(rename_all = "kebab-case"))]
enum ShadesKind {
    ByVertex(Arc<[Colour]>),
    Along(Arc<Gradient>),
}

/// A paint with a colour for each vertex of a path, in the order of its contours and vertices, begun again where there are fewer; inside
/// they go over into one another. On a stroke the colours go along the line.
///
/// The inside is cut into triangles (constrained to its sides, and as even as they can be), and in each of them the colours of its
/// corners are mixed by how near they are, in sRGB. Where sides cross, the colour is that of the nearer one. A list without colours is a fault
/// of what is painted with it. A path of more than 20,000 vertices has the colours of its rim alone. Cost: with the square of the vertices, and linear
/// in the pixels of the path's bounds.
///
/// ```
/// use chordane::prelude::*;
/// let sail = Path::closed([(20.0, 2.0), (38.0, 20.0), (20.0, 38.0), (2.0, 20.0)]);
/// let page = sheet(40.0, 40.0).add(sail.fill(by_vertex(["#ff0000", "#0000ff", "#ff0000", "#0000ff"])));
/// let [red, _, blue, alpha] = page.pixels().unwrap().at(20, 4).unwrap();
/// assert!(red > 200 && blue < 60 && alpha == 255);
/// ```
#[must_use]
pub fn by_vertex<C: Into<GivenColour>>(colours: impl IntoIterator<Item = C>) -> Shades {
    let mut fault = FaultSlot::default();
    let mut given = Vec::new();
    for colour in colours {
        match colour.into().resolve("by_vertex") {
            Ok(colour) => given.push(colour),
            Err(wrong) => fault.note(wrong),
        }
    }
    if given.is_empty() {
        let message = "there are no colours; give one for each vertex".to_owned();
        fault.note(Fault::of("by_vertex", FaultKind::Told { message }));
    }
    Shades { kind: ShadesKind::ByVertex(given.into()), fault }
}

/// A paint with the colours of a gradient along the length of a line, from its start to its end: for strokes. Contours follow one another.
/// Where the gradient itself begins and ends is ignored. On a fill, each row goes on with the colours of the rim.
///
/// ```
/// use chordane::prelude::*;
/// let tail = start((5.0, 20.0)).cubic((30.0, -20.0), (10.0, 60.0), (35.0, 20.0)).open();
/// let fading = along(linear_gradient((0.0, 0.0), (1.0, 0.0)).colours(["#ff0000", "#0000ff"]));
/// let page = sheet(40.0, 40.0).add(tail.stroke(fading, 4.0));
/// let pixels = page.pixels().unwrap();
/// assert!(pixels.at(5, 19).unwrap()[0] > 240 && pixels.at(34, 20).unwrap()[2] > 240);
/// ```
#[must_use]
pub fn along(gradient: impl Into<Gradient>) -> Shades {
    let gradient = gradient.into();
    let mut fault = FaultSlot::default();
    if let Err(wrong) = gradient.sound() {
        fault.note(wrong);
    } else if gradient.stops().is_empty() {
        let message =
            "the gradient has no colours; give it some, as in .colours([\"gold\", \"teal\"])".to_owned();
        fault.note(Fault::of("along", FaultKind::Told { message }));
    }
    Shades { kind: ShadesKind::Along(Arc::new(gradient)), fault }
}

impl Shades {
    /// The colours: those of the vertices, or of the gradient's stops.
    #[must_use]
    pub fn colours(&self) -> Vec<Colour> {
        match &self.kind {
            ShadesKind::ByVertex(colours) => colours.to_vec(),
            ShadesKind::Along(gradient) => gradient.stops().iter().map(|(_, colour)| *colour).collect(),
        }
    }

    /// The gradient that goes along the line; `None` where there is a colour for each vertex.
    #[must_use]
    pub fn gradient(&self) -> Option<&Gradient> {
        match &self.kind {
            ShadesKind::ByVertex(_) => None,
            ShadesKind::Along(gradient) => Some(gradient),
        }
    }

    /// The paint itself when nothing went wrong in its making, else the first fault.
    ///
    /// # Errors
    ///
    /// The first fault.
    pub fn sound(&self) -> Result<&Self, Fault> {
        self.fault.sound().map(|()| self)
    }
}

impl From<Shades> for Paint {
    fn from(shades: Shades) -> Self {
        Self::Shades(Box::new(shades))
    }
}
