//! A small alphabet of single strokes, for labels.

use crate::ground::{Carried, Fault, FaultKind};
use crate::number::Point;
use crate::path::{Affine, FillRule, Path};

/// The height of digits and tall letters in the alphabet's own units.
const TALL: f64 = 6.0;

/// The room between two letters.
const GAP: f64 = 1.5;

/// The room that a letter takes where there is no such letter.
const BLANK: f64 = 2.2;

/// Letters on a baseline at 0, y down: what they are, their width, and their strokes as path data.
const LETTERS: &[(char, f64, &str)] = &[
    ('0', 4.0, "M2-6C.6-6 0-4.8 0-3S.6 0 2 0 4-1.2 4-3 3.4-6 2-6Z"),
    ('1', 2.4, "M.6-4.8 2.2-6V0"),
    ('2', 4.0, "M.2-4.6C.4-5.5 1.1-6 2-6 3.1-6 3.9-5.3 3.9-4.3 3.9-2.8 1.5-1.8 0 0H4"),
    (
        '3',
        4.0,
        "M.2-5.2C.6-5.7 1.2-6 2-6 3.1-6 3.8-5.4 3.8-4.6 3.8-3.7 3-3.2 1.6-3.2 3.1-3.2 4-2.6 4-1.6 4-.6 3.1 0 2 0 \
         1.1 0 .4-.3 0-.9",
    ),
    ('4', 4.0, "M2.9 0V-6L0-1.7H4"),
    ('5', 4.0, "M3.6-6H.7L.4-3.3C.9-3.7 1.4-3.9 2-3.9 3.2-3.9 4-3.1 4-2 4-.8 3.1 0 1.9 0 1.1 0 .4-.3 0-.8"),
    (
        '6',
        4.0,
        "M3.5-5.4C3.1-5.8 2.7-6 2.2-6 .8-6 0-4.7 0-2.6 0-.9.8 0 2.1 0 3.2 0 4-.8 4-1.9S3.2-3.7 2.1-3.7C1.1-3.7.2-3 \
         0-2.2",
    ),
    ('7', 4.0, "M0-6H4L1.5 0"),
    (
        '8',
        4.0,
        "M2-3.2C.9-3.2.3-3.8.3-4.6.3-5.4 1-6 2-6S3.7-5.4 3.7-4.6C3.7-3.8 3.1-3.2 2-3.2.8-3.2 0-2.5 0-1.6 0-.7.8 0 2 \
         0S4-.7 4-1.6C4-2.5 3.2-3.2 2-3.2Z",
    ),
    (
        '9',
        4.0,
        "M.5-.6C.9-.2 1.3 0 1.8 0 3.2 0 4-1.3 4-3.4 4-5.1 3.2-6 1.9-6 .8-6 0-5.2 0-4.1S.8-2.3 1.9-2.3C2.9-2.3 3.8-3 \
         4-3.8",
    ),
    ('a', 3.4, "M3.4-4V0M3.4-2C3.4-3.2 2.7-4 1.7-4S0-3.2 0-2 .7 0 1.7 0 3.4-.8 3.4-2Z"),
    ('b', 3.4, "M0-6V0M0-2C0-.8.7 0 1.7 0S3.4-.8 3.4-2 2.7-4 1.7-4 0-3.2 0-2Z"),
    ('c', 3.0, "M3-3.3C2.6-3.8 2.2-4 1.7-4 .7-4 0-3.2 0-2S.7 0 1.7 0C2.2 0 2.6-.2 3-.7"),
    ('d', 3.4, "M3.4-6V0M3.4-2C3.4-3.2 2.7-4 1.7-4S0-3.2 0-2 .7 0 1.7 0 3.4-.8 3.4-2Z"),
    ('e', 3.4, "M0-2.1H3.4C3.4-3.3 2.7-4 1.7-4S0-3.2 0-2 .7 0 1.8 0C2.4 0 2.9-.2 3.2-.7"),
    ('f', 2.4, "M2.4-5.8C1.4-6.3.9-5.8.9-4.8V0M0-4H2.2"),
    (
        'g',
        3.4,
        "M3.4-4V.4C3.4 1.5 2.7 2 1.7 2 1.1 2 .5 1.8.2 1.4M3.4-2C3.4-3.2 2.7-4 1.7-4S0-3.2 0-2 .7 0 1.7 0 3.4-.8 3.4-2Z",
    ),
    ('h', 3.1, "M0-6V0M0-2.4C.3-3.5.9-4 1.7-4 2.6-4 3.1-3.4 3.1-2.5V0"),
    ('i', 0.2, "M.1-4V0M.1-5.7V-5.6"),
    ('j', 1.0, "M1-4V.8C1 1.7.5 2 0 1.9M1-5.7V-5.6"),
    ('k', 3.0, "M0-6V0M2.8-4 0-1.6M1-2.4 3 0"),
    ('l', 0.9, "M0-6V-.9C0-.2.4 0 .9 0"),
    (
        'm',
        4.8,
        "M0-4V0M0-2.5C.2-3.5.7-4 1.3-4 2-4 2.4-3.5 2.4-2.6V0M2.4-2.5C2.6-3.5 3.1-4 3.7-4 4.4-4 4.8-3.5 4.8-2.6V0",
    ),
    ('n', 3.1, "M0-4V0M0-2.4C.3-3.5.9-4 1.7-4 2.6-4 3.1-3.4 3.1-2.5V0"),
    ('o', 3.4, "M1.7-4C.7-4 0-3.2 0-2S.7 0 1.7 0 3.4-.8 3.4-2 2.7-4 1.7-4Z"),
    ('p', 3.4, "M0-4V2M0-2C0-.8.7 0 1.7 0S3.4-.8 3.4-2 2.7-4 1.7-4 0-3.2 0-2Z"),
    ('q', 3.4, "M3.4-4V2M3.4-2C3.4-3.2 2.7-4 1.7-4S0-3.2 0-2 .7 0 1.7 0 3.4-.8 3.4-2Z"),
    ('r', 2.0, "M0-4V0M0-2.3C.2-3.4.8-4 2-4"),
    (
        's',
        2.9,
        "M2.8-3.4C2.4-3.8 2-4 1.5-4 .7-4 .2-3.6.2-3 .2-2.3.9-2.2 1.5-2 2.3-1.8 2.9-1.6 2.9-1 2.9-.4 2.3 0 1.5 0 .9 0 \
         .4-.2 0-.6",
    ),
    ('t', 2.2, "M.9-5.4V-1C.9-.2 1.4 0 2.2-.1M0-4H2.2"),
    ('u', 3.1, "M0-4V-1.5C0-.6.5 0 1.4 0 2.2 0 2.8-.5 3.1-1.6M3.1-4V0"),
    ('v', 3.2, "M0-4 1.6 0 3.2-4"),
    ('w', 4.8, "M0-4 1.2 0 2.4-3.6 3.6 0 4.8-4"),
    ('x', 3.0, "M0-4 3 0M3-4 0 0"),
    ('y', 3.2, "M0-4 1.6 0M3.2-4 1.2 1.2C1 1.8.6 2 0 1.9"),
    ('z', 3.0, "M0-4H3L0 0H3"),
    ('-', 2.4, "M.1-2.4H2.3"),
    ('.', 0.4, "M.2-.4V0"),
    (':', 1.4, "M.7-4V-3.4M.7-1V-.4"),
    ('/', 2.6, "M0 .8 2.6-6.6"),
    (',', 0.6, "M.5-.2.1 1"),
    ('_', 3.2, "M0 1H3.2"),
    ('=', 3.0, "M0-3.4H3M0-1.6H3"),
    ('+', 3.0, "M0-2.5H3M1.5-4V-1"),
    ('(', 1.6, "M1.5-6.4C.4-5.2 0-4 0-2.6 0-1.2.4 0 1.5 1"),
    (')', 1.6, "M.1-6.4C1.2-5.2 1.6-4 1.6-2.6 1.6-1.2 1.2 0 .1 1"),
    (
        '%',
        4.6,
        "M4-6 .6 0M1-6C.4-6 0-5.5 0-4.8S.4-3.6 1-3.6 2-4.1 2-4.8 1.6-6 1-6ZM3.6-2.4C3-2.4 2.6-1.9 2.6-1.2S3 0 3.6 0 4.6-.5 4.6-1.2 4.2-2.4 3.6-2.4Z",
    ),
];

fn letter(c: char) -> Option<&'static (char, f64, &'static str)> {
    let small = c.to_ascii_lowercase();
    LETTERS.iter().find(|(own, _, _)| *own == small)
}

/// How wide a text of [`lettering`] is when its digits have a height.
///
/// ```
/// use chordane::prelude::*;
/// let label = lettering("sail 7", (10.0, 20.0), 9.0);
/// assert!((label.bounds().unwrap().size().x - lettering_width("sail 7", 9.0)).abs() < 1.0);
/// ```
#[must_use]
pub fn lettering_width(text: &str, height: f64) -> f64 {
    let wide: f64 = text.chars().map(|c| letter(c).map_or(BLANK, |(_, wide, _)| *wide) + GAP).sum();
    (wide - GAP).max(0.0) * height / TALL
}

/// A text as open strokes, for labels: small letters, digits and the signs `- + = . , : / ( ) % _`. Digits are
/// `height` high and stand on a line that begins at a point; stroke it a seventh to a tenth of the height wide, with
/// round caps.
///
/// Capitals come out as small letters; characters that it does not have leave a gap. An empty text, or a height of
/// zero, gives an empty path; a negative height is a fault.
///
/// ```
/// use chordane::prelude::*;
/// let label = lettering("sail 7", (10.0, 20.0), 9.0).stroke("black", 1.0).cap("round");
/// assert!(!label.path().is_empty());
/// ```
#[must_use]
pub fn lettering(text: &str, baseline: impl Into<Point>, height: f64) -> Path {
    let at = baseline.into();
    let mut fault = Carried::default();
    let sound = fault.point("lettering", at) && fault.not_negative("lettering", "height", height);
    let mut contours = Vec::new();
    if sound && height > 0.0 {
        let scale = height / TALL;
        let mut x = 0.0;
        for c in text.chars() {
            let known = letter(c);
            if let Some(strokes) = known.and_then(|(_, _, data)| Path::from_data(data).ok()) {
                let place = Affine::from_translation(at + Point::new(x * scale, 0.0));
                let by = place * Affine::from_scale(Point::splat(scale));
                contours.extend_from_slice(strokes.transformed(&by).contours());
            }
            x += known.map_or(BLANK, |(_, wide, _)| *wide) + GAP;
            if contours.len() > MOST_STROKES {
                let kind = FaultKind::TooMany { what: "strokes", count: contours.len(), limit: MOST_STROKES };
                fault.note(Fault::of("lettering", kind));
                break;
            }
        }
    }
    Path::from_parts(contours, FillRule::default(), fault).within_numbers("lettering")
}

/// The characters of a text that [`lettering`] leaves blank since it does not have them, each once.
///
/// ```
/// use chordane::shape::lettering_lacks;
/// assert_eq!(lettering_lacks("Sail 7: 10 %"), []);
/// assert_eq!(lettering_lacks("é → é"), ['é', '→']);
/// ```
#[must_use]
pub fn lettering_lacks(text: &str) -> Vec<char> {
    let mut lacking = Vec::new();
    for c in text.chars().filter(|c| !c.is_whitespace() && letter(*c).is_none()) {
        if !lacking.contains(&c) {
            lacking.push(c);
        }
    }
    lacking
}

/// A label longer than this is not a label.
const MOST_STROKES: usize = 100_000;

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_letter_fits_its_width_and_its_lines() {
        for (c, wide, data) in LETTERS {
            let path = Path::from_data(data).unwrap();
            let bounds = path.bounds().unwrap();
            assert!(bounds.min.x >= -0.05 && bounds.max.x <= wide + 0.05, "{c}: {bounds:?}");
            assert!(bounds.min.y >= -6.7 && bounds.max.y <= 2.1, "{c}: {bounds:?}");
        }
        assert_eq!(lettering_width("", 6.0), 0.0);
        assert!((lettering_width("10", 6.0) - 7.9).abs() < 1e-12);
        assert_eq!(lettering("7", (5.0, 5.0), 12.0).bounds().unwrap().min, Point::new(5.0, -7.0));
        assert_eq!(lettering("SAIL", (0.0, 0.0), 12.0), lettering("sail", (0.0, 0.0), 12.0));
    }

    #[test]
    fn limits() {
        assert!(lettering("", (0.0, 0.0), 9.0).is_empty());
        assert!(lettering("sail", (0.0, 0.0), 0.0).is_empty());
        assert!(lettering(" \u{1f3a3}", (0.0, 0.0), 9.0).is_empty());
        assert_eq!(
            lettering("sail", (0.0, 0.0), -9.0).sound().unwrap_err().to_string(),
            "`lettering`: the height -9 is negative; give 0 or more"
        );
        assert!(lettering(&"x".repeat(200_000), (0.0, 0.0), 9.0).sound().is_err());
    }
}
