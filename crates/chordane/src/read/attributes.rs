//! Numbers, lengths, lists and transforms in attributes.

use crate::number::Point;

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
}
