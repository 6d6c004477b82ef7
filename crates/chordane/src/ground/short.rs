//! Numbers as text, short enough for people and files.

/// A number with this many significant digits in its shortest form, with at most twelve decimals and no exponent: what is
/// nearer to zero than that, and what is not finite, is `0`.
///
/// ```
/// use chordane::ground::short;
/// assert_eq!([12.345_678, 0.25, -0.0, 1e-15, 3_000_000.0].map(|n| short(n, 4)), ["12.35", "0.25", "0", "0", "3000000"]);
/// ```
#[must_use]
pub fn short(value: f64, digits: u32) -> String {
    if value == 0.0 || !value.is_finite() {
        return "0".to_owned();
    }
    trimmed(value, (f64::from(digits) - 1.0 - value.abs().log10().floor()).clamp(0.0, 12.0) as usize)
}

/// A number as it would be written: with an exponent where it would have very many digits without one.
///
/// ```
/// use chordane::ground::plain_number;
/// assert_eq!([12.5, -3.0, 1e300, 2.5e-9, 0.0].map(plain_number), ["12.5", "-3", "1e300", "2.5e-9", "0"]);
/// ```
#[must_use]
pub fn plain_number(value: f64) -> String {
    let size = value.abs();
    if value != 0.0 && value.is_finite() && !(1e-6..1e16).contains(&size) {
        format!("{value:e}")
    } else {
        value.to_string()
    }
}

/// A number with at most this many decimals and no trailing zeros.
///
/// ```
/// use chordane::ground::trimmed;
/// assert_eq!([12.5, 3.0, 0.004, -0.0].map(|n| trimmed(n, 2)), ["12.5", "3", "0", "0"]);
/// ```
#[must_use]
pub fn trimmed(value: f64, decimals: usize) -> String {
    let text = format!("{value:.decimals$}");
    let text = if text.contains('.') { text.trim_end_matches('0').trim_end_matches('.') } else { &text };
    if text == "-0" { "0".to_owned() } else { text.to_owned() }
}
