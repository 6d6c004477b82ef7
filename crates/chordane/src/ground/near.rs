//! Which known name was probably meant.

/// The name that comes nearest to what was written, where it is near enough to be worth a question: at most a
/// third of its letters changed, added, dropped or swapped. `None` for a text of more than 60 letters, which is not a name.
///
/// ```
/// use chordane::ground::nearest;
/// assert_eq!(nearest("tael", ["teal", "gold"]), Some("teal"));
/// ```
#[must_use]
pub fn nearest<'a>(written: &str, words: impl IntoIterator<Item = &'a str>) -> Option<&'a str> {
    let folded = written.to_lowercase();
    let letters = folded.chars().count();
    // Measuring a long text against all names would take its time.
    if letters > 60 {
        return None;
    }
    let most = (letters / 3).max(1);
    words
        .into_iter()
        .map(|word| (strsim::damerau_levenshtein(&folded, &word.to_lowercase()), word))
        .filter(|(apart, _)| *apart <= most)
        .min()
        .map(|(_, word)| word)
}

#[cfg(test)]
mod tests {
    use super::nearest;

    #[test]
    fn near_words_are_found_and_far_ones_are_not() {
        let words = ["circle", "star", "stroke", "start"];
        assert_eq!(nearest("cricle", words), Some("circle"));
        assert_eq!(nearest("Circle", words), Some("circle"));
        assert_eq!(nearest("stra", words), Some("star"));
        assert_eq!(nearest("kite", words), None);
        assert_eq!(nearest("", words), None);
    }
}
