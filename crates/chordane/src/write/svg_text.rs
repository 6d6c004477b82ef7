//! What SVG text is made of: ids, numbers and texts that stand in it as they should.

use std::collections::{HashMap, HashSet};

use crate::ground::{is_xml, short};
use crate::scene::Scene;

/// The ids of a document, each given once: a name that is used again gets a number behind it, and neither that nor the id
/// of a clip is one that was given as a name.
pub(super) struct Ids {
    names: HashSet<Box<str>>,
    /// How often each name was used.
    used: HashMap<Box<str>, usize>,
}

impl Ids {
    pub(super) fn of(scene: &Scene<'_>) -> Self {
        Self { names: scene.names().map(Into::into).collect(), used: HashMap::new() }
    }

    /// The id for a name that was given.
    pub(super) fn named(&mut self, name: &str) -> String {
        if self.used.contains_key(name) {
            return self.numbered(name);
        }
        self.used.insert(name.into(), 1);
        name.to_owned()
    }

    /// A word with the next number behind it that nobody has.
    pub(super) fn numbered(&mut self, word: &str) -> String {
        let count = self.used.entry(word.into()).or_default();
        loop {
            *count += 1;
            let id = format!("{word}-{count}");
            if !self.names.contains(id.as_str()) {
                return id;
            }
        }
    }
}

/// A number of an attribute: nine significant digits, in the shortest form.
pub(super) fn plain(value: f64) -> String {
    let text = short(value, 9);
    match (text.strip_prefix("0."), text.strip_prefix("-0.")) {
        (Some(rest), _) => format!(".{rest}"),
        (_, Some(rest)) => format!("-.{rest}"),
        _ => text,
    }
}

/// A number with as many decimals as the tolerance asks for.
pub(super) fn rounded(value: f64, tolerance: f64) -> String {
    let factor = 10_f64.powf((-tolerance.log10()).ceil().clamp(0.0, 12.0));
    plain((value * factor).round() / factor)
}

/// A text between elements. What cannot stand in XML is shown as a character that could not be.
pub(super) fn escaped_text(text: &str) -> String {
    let text = text.replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;");
    // XML parsers turn a literal one into a line feed.
    let text = text.replace('\r', "&#13;");
    text.replace(|c| !is_xml(c), "\u{fffd}")
}

/// A text as an attribute's value.
pub(super) fn escaped(text: &str) -> String {
    let mut out = String::with_capacity(text.len());
    for c in text.chars() {
        match c {
            '&' => out.push_str("&amp;"),
            '<' => out.push_str("&lt;"),
            '"' => out.push_str("&quot;"),
            // Control characters have no place in XML.
            c if c.is_control() => out.push(' '),
            c if !is_xml(c) => out.push('\u{fffd}'),
            c => out.push(c),
        }
    }
    out
}
