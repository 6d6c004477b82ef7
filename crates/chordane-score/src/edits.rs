//! A text with other text in place of some of its bytes.

use std::cmp::Reverse;
use std::ops::Range;

/// Replaces ranges of bytes in a text. Where ranges are nested only the outermost is replaced; a range that does not lie within the text is skipped.
pub(crate) fn edited(text: &str, edits: impl IntoIterator<Item = (Range<usize>, String)>) -> String {
    replaced(text, edits.into_iter().collect())
}

fn replaced(text: &str, mut edits: Vec<(Range<usize>, String)>) -> String {
    edits.sort_by_key(|(range, _)| (range.start, Reverse(range.end)));
    let mut out = String::with_capacity(text.len() + 8 * edits.len());
    let mut at = 0;
    for (range, by) in edits {
        let Some(before) = text.get(at..range.start).filter(|_| text.get(range.clone()).is_some()) else {
            continue;
        };
        out.push_str(before);
        out.push_str(&by);
        at = range.end;
    }
    out.push_str(text.get(at..).unwrap_or_default());
    out
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn ranges_are_replaced_and_the_outermost_counts() {
        let edits = |all: &[(Range<usize>, &str)]| {
            edited("sail(kite, 3)", all.iter().map(|(range, by)| (range.clone(), (*by).to_owned())))
        };
        assert_eq!(edits(&[]), "sail(kite, 3)");
        assert_eq!(edits(&[(11..12, "7"), (0..4, "hem"), (4..4, "_")]), "hem_(kite, 7)");
        assert_eq!(edits(&[(5..9, "inner"), (5..12, "outer"), (11..12, "7")]), "sail(outer)");
        assert_eq!(edits(&[(5..90, "too far"), (13..13, ";")]), "sail(kite, 3);");
        assert_eq!(edited("küste", [(2..3, "x".to_owned())]), "küste");
    }
}
