//! Text from elsewhere, shown so that a terminal takes nothing of it for a command.

use std::borrow::Cow;

/// A text with signs in place of the characters that a terminal would take for commands, or that turn the direction of writing
/// round. Tabs and ends of lines stay.
///
/// ```
/// use chordane::ground::visible;
/// assert_eq!(visible("a \u{1b}[31mred\u{1b}[0m sail"), "a ␛[31mred␛[0m sail");
/// assert_eq!(visible("hem\tand vents\n"), "hem\tand vents\n");
/// ```
#[must_use]
pub fn visible(text: &str) -> Cow<'_, str> {
    if text.chars().all(|c| sign(c) == c) {
        return Cow::Borrowed(text);
    }
    Cow::Owned(text.chars().map(sign).collect())
}

/// A text for a message: made [`visible`], and cut after this many characters, with `..` in place of the rest.
///
/// ```
/// use chordane::ground::shortened;
/// assert_eq!(shortened("hem", 4), "hem");
/// assert_eq!(shortened("hem and vents", 4), "hem ..");
/// ```
#[must_use]
pub fn shortened(text: &str, max_chars: usize) -> String {
    let kept = text.char_indices().nth(max_chars).and_then(|(end, _)| text.get(..end));
    match kept {
        Some(kept) => format!("{}..", visible(kept)),
        None => visible(text).into_owned(),
    }
}

fn sign(c: char) -> char {
    match c {
        '\t' | '\n' => c,
        // The signs for the first characters stand in their order.
        '\0'..='\u{1f}' => char::from_u32(0x2400 + u32::from(c)).unwrap_or(char::REPLACEMENT_CHARACTER),
        '\u{7f}' => '\u{2421}',
        '\u{80}'..='\u{9f}' | '\u{202a}'..='\u{202e}' | '\u{2066}'..='\u{2069}' => {
            char::REPLACEMENT_CHARACTER
        }
        _ => c,
    }
}
