//! Numbers of path data: read quickly and exactly, written as short as they can be.

/// A number that was read, and where it ended.
pub(super) enum NumberRead {
    /// The value and the position after it.
    Value(f64, usize),
    /// No number stands here.
    Missing,
    /// It is beyond the range of numbers.
    TooLarge,
}

/// Powers of ten that a double holds exactly.
const EXACT_POWERS: [f64; 16] =
    [1e0, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9, 1e10, 1e11, 1e12, 1e13, 1e14, 1e15];

/// Reads the number at a position: a sign, digits, a point with digits after it, an exponent.
///
/// Up to 19 digits are gathered in a whole number. Where that fits in 53 bits, one division by an exact power of ten rounds
/// correctly (W. D. Clinger, "How to read floating point numbers accurately", 1990): that is a third less work than a reader of
/// all numbers does, and what path data mostly has. All else goes to such a reader.
#[inline]
pub(super) fn read_number(bytes: &[u8], begin: usize) -> NumberRead {
    match read_plainly(bytes, begin) {
        (_, 0) => read_otherwise(bytes, begin),
        (value, end) => NumberRead::Value(value, end),
    }
}

/// Reads a number of at most 19 digits, 15 of them decimals, and no exponent: its value and where it ended, 0 when
/// it is not of that kind.
#[inline(always)]
fn read_plainly(bytes: &[u8], begin: usize) -> (f64, usize) {
    let first = bytes.get(begin).copied().unwrap_or(0);
    let negative = first == b'-';
    let digits_begin = begin + usize::from(negative);
    let (mut mantissa, whole) = read_digits(bytes, digits_begin, 0);
    let mut at = digits_begin + whole;
    let mut next = bytes.get(at).copied().unwrap_or(0);
    let mut decimals = 0;
    if next == b'.' {
        (mantissa, decimals) = read_digits(bytes, at + 1, mantissa);
        if decimals == 0 {
            return (0.0, 0);
        }
        at += 1 + decimals;
        next = bytes.get(at).copied().unwrap_or(0);
    }
    let plain = whole + decimals <= 19 && decimals < 16 && mantissa <= 1 << 53 && next | 32 != b'e';
    if whole + decimals == 0 || !plain {
        return (0.0, 0);
    }
    let value = mantissa as f64 / EXACT_POWERS[decimals & 15];
    (if negative { -value } else { value }, at)
}

/// Reads a number with an exponent, a plus sign, or many digits.
#[cold]
fn read_otherwise(bytes: &[u8], begin: usize) -> NumberRead {
    let text = bytes.get(begin..).unwrap_or_default();
    let signed = usize::from(matches!(text.first(), Some(b'-' | b'+')));
    let digits = |text: &[u8]| text.iter().take_while(|byte| byte.is_ascii_digit()).count();
    // The names of no numbers are none here, and a point needs digits behind it.
    let whole = signed + digits(text.get(signed..).unwrap_or_default());
    let decimals = match text.get(whole) {
        Some(b'.') => digits(text.get(whole + 1..).unwrap_or_default()),
        _ => 0,
    };
    let text = match (whole - signed, text.get(whole), decimals) {
        (0, _, 0) => return NumberRead::Missing,
        (_, Some(b'.'), 0) => text.get(..whole).unwrap_or_default(),
        _ => text,
    };
    match fast_float2::parse_partial::<f64, _>(text) {
        Ok((value, length)) if value.is_finite() => NumberRead::Value(value, begin + length),
        Ok(_) => NumberRead::TooLarge,
        Err(_) => NumberRead::Missing,
    }
}

/// Reads the digits at a position behind those of a number; gives the joint number (wrapping) and their count.
///
/// Eight bytes are looked at together. How many digits they begin with varies from number to number, so a loop
/// over them would be mispredicted at nearly every end; this has no branch but the one for a ninth digit.
#[inline(always)]
fn read_digits(bytes: &[u8], begin: usize, before: u64) -> (u64, usize) {
    let (mut number, mut at) = (before, begin);
    loop {
        let values = eight_bytes(bytes, at) ^ 0x3030_3030_3030_3030;
        // A byte above 9 gets its top bit set; what carries out of it only reaches bytes behind it.
        let others = (values.wrapping_add(0x7676_7676_7676_7676) | values) & 0x8080_8080_8080_8080;
        let count = others.trailing_zeros() / 8;
        if count == 0 {
            return (number, at - begin);
        }
        // The digits moved to the end, zeros before them; then neighbours joined, in pairs, fours and eights.
        let mut joined = values << (64 - 8 * count);
        joined = (joined.wrapping_mul((10 << 8) + 1)) >> 8 & 0x00ff_00ff_00ff_00ff;
        joined = (joined.wrapping_mul((100 << 16) + 1)) >> 16 & 0x0000_ffff_0000_ffff;
        joined = (joined.wrapping_mul((10_000 << 32) + 1)) >> 32;
        let power = WHOLE_POWERS.get(count as usize).copied().unwrap_or(1);
        number = number.wrapping_mul(power).wrapping_add(joined);
        at += count as usize;
        if count < 8 {
            return (number, at - begin);
        }
    }
}

const WHOLE_POWERS: [u64; 9] = [1, 10, 100, 1000, 10_000, 100_000, 1_000_000, 10_000_000, 100_000_000];

/// The eight bytes at a position, the first one lowest; zeros beyond the end.
#[inline(always)]
fn eight_bytes(bytes: &[u8], at: usize) -> u64 {
    if let Some(Ok(eight)) = bytes.get(at..at + 8).map(<[u8; 8]>::try_from) {
        return u64::from_le_bytes(eight);
    }
    let rest = bytes.get(at..).unwrap_or_default().iter();
    rest.rev().fold(0, |word, byte| word << 8 | u64::from(*byte))
}

/// Whole numbers up to here are written digit by digit.
const PLAIN_WHOLE: f64 = 1e15;

/// The text of a number with as few digits as read back to the same bits, without a leading zero.
pub(super) fn shortest(value: f64, buffer: &mut NumberText) {
    buffer.clear();
    if value.is_sign_negative() {
        buffer.push(b'-');
    }
    let size = value.abs();
    if size < PLAIN_WHOLE && size.trunc() == size {
        buffer.push_whole(size as u64);
        return;
    }
    let mut text = zmij::Buffer::new();
    compact(text.format_finite(size).as_bytes(), buffer);
}

/// Copies digits without the zero before the point, a `.0` at the end, or a plus in the exponent; long runs of
/// zeros become an exponent.
fn compact(text: &[u8], buffer: &mut NumberText) {
    let (digits, exponent) = match text.iter().position(|b| *b == b'e') {
        Some(at) => text.split_at(at),
        None => (text, &[][..]),
    };
    let digits = digits.strip_suffix(b".0").unwrap_or(digits);
    if let Some(decimals) = digits.strip_prefix(b"0.") {
        let zeros = decimals.iter().take_while(|b| **b == b'0').count();
        let figures = decimals.get(zeros..).unwrap_or_default();
        if zeros >= 3 && exponent.is_empty() {
            buffer.extend(figures);
            buffer.extend(b"e-");
            buffer.push_whole(decimals.len() as u64);
            return;
        }
        buffer.push(b'.');
        buffer.extend(decimals);
    } else {
        buffer.extend(digits);
    }
    for byte in exponent {
        if *byte != b'+' {
            buffer.push(*byte);
        }
    }
}

/// The text of a whole number of steps of 10^-decimals, without leading or trailing zeros.
pub(super) fn scaled(steps: i64, decimals: usize, buffer: &mut NumberText) {
    buffer.clear();
    if steps < 0 {
        buffer.push(b'-');
    }
    let mut size = steps.unsigned_abs();
    let mut decimals = decimals;
    while decimals > 0 && size.is_multiple_of(10) {
        size /= 10;
        decimals -= 1;
    }
    let mut reversed = [b'0'; 24];
    let mut count = 0;
    while size > 0 || count < decimals {
        if let Some(slot) = reversed.get_mut(count) {
            *slot = b'0' + (size % 10) as u8;
        }
        size /= 10;
        count += 1;
    }
    if count == 0 {
        buffer.push(b'0');
    }
    for place in (0..count).rev() {
        if place + 1 == decimals {
            buffer.push(b'.');
        }
        buffer.push(reversed.get(place).copied().unwrap_or(b'0'));
    }
}

/// A small buffer for one number's text.
pub(super) struct NumberText {
    bytes: [u8; 40],
    length: usize,
}

impl NumberText {
    pub(super) fn new() -> Self {
        Self { bytes: [0; 40], length: 0 }
    }

    fn clear(&mut self) {
        self.length = 0;
    }

    #[inline]
    fn push(&mut self, byte: u8) {
        if let Some(slot) = self.bytes.get_mut(self.length) {
            *slot = byte;
            self.length += 1;
        }
    }

    fn extend(&mut self, bytes: &[u8]) {
        if let Some(room) = self.bytes.get_mut(self.length..self.length + bytes.len()) {
            room.copy_from_slice(bytes);
            self.length += bytes.len();
        }
    }

    fn push_whole(&mut self, mut value: u64) {
        let begin = self.length;
        loop {
            self.push(b'0' + (value % 10) as u8);
            value /= 10;
            if value == 0 {
                break;
            }
        }
        if let Some(written) = self.bytes.get_mut(begin..self.length) {
            written.reverse();
        }
    }

    #[inline]
    pub(super) fn as_bytes(&self) -> &[u8] {
        self.bytes.get(..self.length).unwrap_or_default()
    }

    #[inline]
    pub(super) fn as_str(&self) -> &str {
        // Only ASCII is pushed.
        std::str::from_utf8(self.as_bytes()).unwrap_or_default()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn text(value: f64) -> String {
        let mut buffer = NumberText::new();
        shortest(value, &mut buffer);
        buffer.as_str().to_owned()
    }

    #[test]
    fn numbers_are_written_short() {
        let cases = [
            (0.0, "0"),
            (-0.0, "-0"),
            (0.5, ".5"),
            (-0.25, "-.25"),
            (120.0, "120"),
            (0.0001, "1e-4"),
            (0.00012, "12e-5"),
            (1e16, "1e16"),
            (1.5e300, "1.5e300"),
            (5e-324, "5e-324"),
            (123456.789, "123456.789"),
        ];
        for (value, want) in cases {
            assert_eq!(text(value), want);
            assert_eq!(want.parse::<f64>().unwrap().to_bits(), f64::to_bits(value));
        }
    }

    #[test]
    fn steps_are_written_as_decimals() {
        let cases = [
            (0, 3, "0"),
            (1500, 3, "1.5"),
            (-50, 3, "-.05"),
            (7, 0, "7"),
            (120_000, 3, "120"),
            (-7, 2, "-.07"),
        ];
        for (steps, decimals, want) in cases {
            let mut buffer = NumberText::new();
            scaled(steps, decimals, &mut buffer);
            assert_eq!(buffer.as_str(), want);
        }
    }

    #[test]
    fn the_fast_reader_agrees_with_the_standard_library() {
        let texts = [
            "1",
            "-1",
            "+1",
            ".5",
            "-.5",
            "00012.50",
            "9007199254740993",
            "9007199254740992",
            "1e22",
            "1e23",
            "3e-22",
            "123456789012345678901234567890",
            "0.1e1",
            "4.35",
            "0.000001",
            "1.7976931348623157e308",
            "2.2250738585072011e-308",
            "9223372036854775807.5",
            "18446744073709551616",
            "99999999999999999999.9e-3",
            "1e-400",
        ];
        for text in texts {
            match read_number(text.as_bytes(), 0) {
                NumberRead::Value(value, end) => {
                    assert_eq!(value.to_bits(), text.parse::<f64>().unwrap().to_bits(), "{text}");
                    assert_eq!(end, text.len(), "{text}");
                }
                _ => panic!("{text} was not read"),
            }
        }
        assert!(matches!(read_number(b"1e999", 0), NumberRead::TooLarge));
        assert!(matches!(read_number(b".", 0), NumberRead::Missing));
        assert!(matches!(read_number(b"-", 0), NumberRead::Missing));
        assert!(matches!(read_number(b"3.", 0), NumberRead::Value(3.0, 1)));
        assert!(matches!(read_number(b"3e", 0), NumberRead::Value(3.0, 1)));
        assert!(matches!(read_number(b"1.5.5", 0), NumberRead::Value(1.5, 3)));
        assert!(matches!(read_number(b"3.e5", 0), NumberRead::Value(3.0, 1)));
        assert!(matches!(read_number(b"+3.", 0), NumberRead::Value(3.0, 2)));
        assert!(matches!(read_number(b"1e+", 0), NumberRead::Value(1.0, 1)));
        for none in ["inf", "-nan", "+infinity", "e5", "+.e5"] {
            assert!(matches!(read_number(none.as_bytes(), 0), NumberRead::Missing), "{none}");
        }
    }
}
