//! A small alphabet of single strokes, for labels.

use crate::ground::{Fault, FaultKind, FaultSlot};
use crate::number::{IntoPoint, Point};
use crate::path::{Affine, FillRule, Path};

use super::letters::{Strokes, marking, strokes};

/// The height of digits and tall letters in the alphabet's own units.
const CAP_HEIGHT: f64 = 6.0;

/// The room between two letters.
const LETTER_SPACING: f64 = 1.5;

/// The room that a letter takes where there is no such letter.
const MISSING_GLYPH_WIDTH: f64 = 2.2;

/// Each character of a text that has strokes, with where its letter begins, in the alphabet's units; and how wide all is.
fn set(text: &str) -> (Vec<(f64, Path)>, f64) {
    let (mut placed, mut x, mut before) = (Vec::new(), 0.0, None);
    for c in text.chars() {
        match (strokes(c), &before) {
            (Some(Strokes::Letter { wide, path }), _) => {
                placed.push((x, path.clone()));
                before = Some((x, wide, path));
                x += wide + LETTER_SPACING;
            }
            (Some(Strokes::Mark(mark)), Some((x, wide, letter))) => {
                placed.push((*x, marking(mark, *wide, letter)))
            }
            (Some(Strokes::Mark(_)), None) => {}
            (None, _) => {
                before = None;
                x += MISSING_GLYPH_WIDTH + LETTER_SPACING;
            }
        }
        if placed.len() > MAX_STROKES {
            break;
        }
    }
    (placed, (x - LETTER_SPACING).max(0.0))
}

/// How wide a text of [`lettering`] is when its digits have a height.
///
/// ```
/// use chordane::prelude::*;
/// let label = lettering("Sail 7", (10.0, 20.0), 9.0);
/// assert!((label.bounds().unwrap().size().x - lettering_width("Sail 7", 9.0)).abs() < 1.0);
/// ```
#[must_use]
pub fn lettering_width(text: &str, height: f64) -> f64 {
    set(text).1 * height / CAP_HEIGHT
}

/// A text as open strokes, for labels: Latin letters in both cases with their accents, Greek, digits, arrows, and the signs of a
/// keyboard and of arithmetic. Capitals and digits are `height` high and stand on a line that begins at a point; stroke it a
/// seventh to a tenth of the height wide, with round caps.
///
/// Characters that it does not have leave a gap; [`lettering_lacks`] lists them. An empty text, or a height of zero, gives an empty
/// path; a negative height is a fault.
///
/// ```
/// use chordane::prelude::*;
/// let label = lettering("Größe → 7", (10.0, 20.0), 9.0).stroke("black", 1.0).cap("round");
/// assert!(!label.path().is_empty());
/// ```
#[must_use]
pub fn lettering(text: &str, baseline: impl IntoPoint, height: f64) -> Path {
    let at = baseline.into_point();
    let mut fault = FaultSlot::default();
    let sound = fault.point("lettering", at) && fault.not_negative("lettering", "height", height);
    let mut contours = Vec::new();
    if sound && height > 0.0 {
        let scale = height / CAP_HEIGHT;
        for (x, path) in set(text).0 {
            let place = Affine::from_translation(at + Point::new(x * scale, 0.0));
            let by = place * Affine::from_scale(Point::splat(scale));
            contours.extend_from_slice(path.transformed(&by).contours());
        }
        if contours.len() > MAX_STROKES {
            let kind = FaultKind::TooMany { what: "strokes", count: contours.len(), limit: MAX_STROKES };
            fault.note(Fault::of("lettering", kind));
        }
    }
    Path::from_parts(contours, FillRule::default(), fault).within_numbers("lettering")
}

/// The characters of a text that [`lettering`] leaves blank since it does not have them, each once.
///
/// ```
/// use chordane::shape::lettering_lacks;
/// assert_eq!(lettering_lacks("Größe → 7: 10 %"), []);
/// assert_eq!(lettering_lacks("帆 → 帆"), ['帆']);
/// ```
#[must_use]
pub fn lettering_lacks(text: &str) -> Vec<char> {
    let mut lacking = Vec::new();
    for c in text.chars().filter(|c| !c.is_whitespace()) {
        if !lacking.contains(&c) && strokes(c).is_none() {
            lacking.push(c);
        }
    }
    lacking
}

/// A label longer than this is not a label.
const MAX_STROKES: usize = 100_000;
