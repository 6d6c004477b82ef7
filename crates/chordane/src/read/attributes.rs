//! Numbers, lengths, lists and transforms in attributes.

use crate::number::{Angle, Point, deg};
use crate::path::{Affine, by};

/// Takes a number off the front of a text, after spaces; what is left begins behind it.
fn number<'a>(text: &mut &'a str) -> Option<f64> {
    *text = text.trim_start();
    let bytes = text.as_bytes();
    let digits = |from: usize| bytes.iter().skip(from).take_while(|b| b.is_ascii_digit()).count();
    let sign = usize::from(matches!(bytes.first(), Some(b'+' | b'-')));
    let mut end = sign + digits(sign);
    if bytes.get(end) == Some(&b'.') {
        end += 1 + digits(end + 1);
    }
    if matches!(bytes.get(end), Some(b'e' | b'E')) {
        let signed = usize::from(matches!(bytes.get(end + 1), Some(b'+' | b'-')));
        let exponent = digits(end + 1 + signed);
        if exponent > 0 {
            end += 1 + signed + exponent;
        }
    }
    let (taken, rest): (&'a str, &'a str) = text.split_at_checked(end)?;
    let value = taken.parse().ok().filter(|value: &f64| value.is_finite())?;
    *text = rest;
    Some(value)
}

/// Numbers with spaces and commas between them. None where there is anything else.
pub(super) fn numbers(text: &str) -> Option<Vec<f64>> {
    let mut rest = text.trim();
    let mut all = Vec::new();
    while !rest.is_empty() {
        all.push(number(&mut rest)?);
        rest = rest.trim_start();
        rest = rest.strip_prefix(',').unwrap_or(rest).trim_start();
    }
    Some(all)
}

/// What a share of a length is taken of.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) enum Along {
    X,
    Y,
    /// Neither: the diagonal over the root of two.
    Both,
}

impl Along {
    pub(super) fn of(self, viewport: Point) -> f64 {
        match self {
            Self::X => viewport.x,
            Self::Y => viewport.y,
            Self::Both => viewport.length() / std::f64::consts::SQRT_2,
        }
    }
}

/// A length in user units: a number with a unit of CSS, or a share of the viewport.
pub(super) fn length(text: &str, along: Along, viewport: Point) -> Option<f64> {
    let mut rest = text;
    let value = number(&mut rest)?;
    let unit = match rest.trim() {
        "" | "px" => 1.0,
        "%" => along.of(viewport) / 100.0,
        // The font is not known; this is what it is at first.
        "em" | "rem" => 16.0,
        "ex" => 8.0,
        other => inches(other)? * 96.0,
    };
    Some(value * unit).filter(|length| length.is_finite())
}

/// An absolute unit in inches.
fn inches(unit: &str) -> Option<f64> {
    Some(match unit {
        "in" => 1.0,
        "cm" => 1.0 / 2.54,
        "mm" => 1.0 / 25.4,
        "q" | "Q" => 1.0 / 101.6,
        "pt" => 1.0 / 72.0,
        "pc" => 1.0 / 6.0,
        _ => return None,
    })
}

/// A number and its unit, for the size of the document.
pub(super) fn with_unit(text: &str) -> Option<(f64, &str)> {
    let mut rest = text;
    let value = number(&mut rest)?;
    Some((value, rest.trim()))
}

/// A share from 0 to 1, as a number or in per cent.
pub(super) fn share(text: &str) -> Option<f64> {
    let (value, unit) = with_unit(text)?;
    match unit {
        "" => Some(value.clamp(0.0, 1.0)),
        "%" => Some((value / 100.0).clamp(0.0, 1.0)),
        _ => None,
    }
}

/// A list of transforms; the first one written is done last. None where it cannot be read.
pub(super) fn transform(text: &str) -> Option<Affine> {
    let mut rest = text.trim();
    let mut whole = Affine::IDENTITY;
    if rest == "none" {
        return Some(whole);
    }
    while !rest.is_empty() {
        let (name, behind) = rest.split_once('(')?;
        let (values, behind) = behind.split_once(')')?;
        whole *= one_transform(name.trim(), &numbers(values)?)?;
        rest = behind.trim_start();
        rest = rest.strip_prefix(',').unwrap_or(rest).trim_start();
    }
    whole.is_finite().then_some(whole)
}

fn one_transform(name: &str, values: &[f64]) -> Option<Affine> {
    let flat = Angle::ZERO;
    Some(match (name, values) {
        ("matrix", &[a, b, c, d, e, f]) => Affine::from_cols_array(&[a, b, c, d, e, f]),
        ("translate", &[x]) => Affine::from_translation(Point::new(x, 0.0)),
        ("translate", &[x, y]) => Affine::from_translation(Point::new(x, y)),
        ("scale", &[k]) => Affine::from_scale(Point::splat(k)),
        ("scale", &[x, y]) => Affine::from_scale(Point::new(x, y)),
        ("rotate", &[angle]) => by::rotation(deg(angle)),
        ("rotate", &[angle, x, y]) => by::about(Point::new(x, y), by::rotation(deg(angle))),
        ("skewX", &[angle]) => by::shear(deg(angle), flat),
        ("skewY", &[angle]) => by::shear(flat, deg(angle)),
        _ => return None,
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn numbers_and_lengths() {
        assert_eq!(numbers("1,2 3-4.5e1 .5"), Some(vec![1.0, 2.0, 3.0, -45.0, 0.5]));
        assert_eq!(numbers(""), Some(vec![]));
        assert_eq!(numbers("1 x"), None);
        assert_eq!(numbers("1e999"), None);
        let size = Point::new(200.0, 100.0);
        let of = |text: &str| length(text, Along::X, size);
        assert_eq!(of("10"), Some(10.0));
        assert_eq!(of(" 1in "), Some(96.0));
        assert_eq!(of("25.4mm").map(f64::round), Some(96.0));
        assert_eq!(of("50%"), Some(100.0));
        assert_eq!(of("2em"), Some(32.0));
        assert_eq!(of("2ells"), None);
        assert_eq!(of(""), None);
        assert_eq!((share("40%"), share("3"), share("x")), (Some(0.4), Some(1.0), None));
    }

    #[test]
    fn transforms_are_done_from_the_last_to_the_first() {
        let at = |text: &str| transform(text).unwrap().transform_point2(Point::new(1.0, 0.0));
        assert_eq!(at("translate(10 5) scale(2)"), Point::new(12.0, 5.0));
        assert_eq!(at("scale(2),translate(10)"), Point::new(22.0, 0.0));
        assert_eq!(at("rotate(90 1 1)"), Point::new(2.0, 1.0));
        assert_eq!(at("matrix(0 1 -1 0 7 8)"), Point::new(7.0, 9.0));
        assert_eq!(at(""), Point::new(1.0, 0.0));
        for bad in ["scale(", "turn(3)", "scale()", "matrix(1 2)", "scale(1e308) scale(1e308)", "1"] {
            assert_eq!(transform(bad), None, "{bad}");
        }
    }
}
