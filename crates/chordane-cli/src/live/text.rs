//! Texts as they change: where two differ, changes of two hands brought together, and places as the page counts them.

/// So many units of UTF-16 a text has.
pub(crate) fn units(text: &str) -> usize {
    text.chars().map(char::len_utf16).sum()
}

/// How many bytes two texts share at their beginnings, and at their ends behind that; whole characters.
pub(crate) fn shared(before: &str, after: &str) -> (usize, usize) {
    let same = |(a, b): &(&u8, &u8)| a == b;
    let mut head = before.bytes().zip(after.bytes()).take_while(|(a, b)| a == b).count();
    while !(before.is_char_boundary(head) && after.is_char_boundary(head)) {
        head -= 1;
    }
    let rest = before.len().min(after.len()) - head;
    let mut tail =
        before.as_bytes().iter().rev().zip(after.as_bytes().iter().rev()).take(rest).take_while(same).count();
    while !(before.is_char_boundary(before.len() - tail) && after.is_char_boundary(after.len() - tail)) {
        tail -= 1;
    }
    (head, tail)
}

/// What of a text stays, at its beginning and at its end in units of UTF-16, and what stands between them in the other.
pub(crate) fn change(before: &str, after: &str) -> (usize, usize, String) {
    let (head, tail) = shared(before, after);
    let part = |from: usize, to: usize, text: &str| text.get(from..to).unwrap_or_default().to_owned();
    let kept_tail = part(before.len() - tail, before.len(), before);
    (units(&part(0, head, before)), units(&kept_tail), part(head, after.len() - tail, after))
}

/// Two changes of one text brought together, where they touch different lines.
pub(crate) fn merged(before: &str, own: &str, other: &str) -> Option<String> {
    if own == other || other == before {
        return Some(own.to_owned());
    }
    if own == before {
        return Some(other.to_owned());
    }
    diffy::merge(before, own, other).ok()
}

#[cfg(test)]
mod tests {
    use super::*;
    use chordane::chance::Dice;

    /// A change put into the text that it was made from.
    fn put(before: &str, (head, tail, text): &(usize, usize, String)) -> String {
        let all: Vec<u16> = before.encode_utf16().collect();
        let (head, tail) = (&all[..*head], &all[all.len() - tail..]);
        String::from_utf16(&[head, &text.encode_utf16().collect::<Vec<_>>(), tail].concat()).unwrap()
    }

    #[test]
    fn a_change_put_into_the_text_before_gives_the_text_after() {
        let mut dice = Dice::new(3, "texts");
        let pieces = ["kite", "π", "🪁", "\n", "aa", "a", "é"];
        let mut text = |most: usize| -> String {
            (0..dice.place(most).unwrap()).map(|_| *dice.pick(&pieces).unwrap()).collect()
        };
        for _ in 0..2000 {
            let (before, after) = (text(12), text(12));
            assert_eq!(put(&before, &change(&before, &after)), after, "{before:?}");
        }
        assert_eq!(change("let a = 40;", "let a = 41;"), (9, 1, "1".to_owned()));
        assert_eq!(change("aa", "aaa"), (2, 0, "a".to_owned()));
    }

    #[test]
    fn changes_of_other_lines_go_together_and_of_the_same_do_not() {
        let before = "hem\nvent\ntail\nbow\nspar\n";
        let own = before.replace("hem", "hem 4");
        let other = before.replace("spar", "spar 9");
        assert_eq!(merged(before, &own, &other).unwrap(), "hem 4\nvent\ntail\nbow\nspar 9\n");
        assert_eq!(merged(before, &own, &before.replace("hem", "hem 5")), None);
        assert_eq!(merged(before, before, &other), Some(other.clone()));
        assert_eq!(merged(before, &own, before), Some(own.clone()));
        assert_eq!(merged(before, &own, &own), Some(own));
    }
}
