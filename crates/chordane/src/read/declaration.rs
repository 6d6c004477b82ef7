//! What a style says: one property, for some media.

/// A property and what it is to be.
#[derive(Debug)]
pub(super) struct Declaration {
    pub(super) name: String,
    pub(super) value: String,
    pub(super) important: bool,
}

/// Whether what is meant for some media is meant for a picture on a screen; none where that depends on more.
pub(super) fn is_shown(media: &str) -> Option<bool> {
    let one = |query: &str| {
        let words: Vec<String> = query.split_ascii_whitespace().map(str::to_ascii_lowercase).collect();
        let words: Vec<&str> = words.iter().map(String::as_str).collect();
        match words.as_slice() {
            [] | ["all" | "screen"] | ["only", "all" | "screen"] | ["not", "print" | "speech"] => Some(true),
            ["print" | "speech"] | ["only", "print" | "speech"] | ["not", "all" | "screen"] => Some(false),
            _ => None,
        }
    };
    let all: Vec<Option<bool>> = media.split(',').map(one).collect();
    if all.contains(&Some(true)) { Some(true) } else { all.into_iter().try_fold(false, |_, shown| shown) }
}
