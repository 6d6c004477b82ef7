//! What style sheets and `style` attributes say of each element, the winning declarations last.

use super::document::Document;
#[cfg(feature = "svg-styles")]
use super::style_sheets::{Rules, declarations};
use crate::ground::spent;

/// So many declarations that hold for elements at most, all elements together.
const MOST_HELD: usize = 20_000_000;

/// A property and what it is to be.
#[derive(Debug)]
pub(super) struct Declaration {
    pub(super) name: String,
    pub(super) value: String,
    pub(super) important: bool,
}

/// Something that was not understood, so many lines below a place.
#[derive(Debug)]
pub(super) struct Told {
    pub(super) at: usize,
    pub(super) lines: usize,
    pub(super) what: String,
}

/// The declarations of a document, and for each element those that hold for it.
#[derive(Debug, Default)]
pub(super) struct Cascade {
    declarations: Vec<Declaration>,
    /// For each element in turn, the numbers of its declarations, and where they begin and end.
    order: Vec<usize>,
    ends: Vec<usize>,
}

impl Cascade {
    /// The cascade of a document: what is important goes over what is not, `style` over style sheets, a more specific selector over a less
    /// specific one, and the later over the earlier.
    pub(super) fn of(document: &Document<'_>, told: &mut Vec<Told>) -> Self {
        let mut cascade = Self::default();
        let rules = Rules::read(&document.sheets, told);
        let selectors = &rules.selectors;
        let ranges: Vec<std::ops::Range<usize>> = rules
            .rules
            .into_iter()
            .map(|rule| {
                let start = cascade.declarations.len();
                cascade.declarations.extend(rule);
                start..cascade.declarations.len()
            })
            .collect();
        let mut held = Vec::new();
        for (number, element) in document.elements() {
            if spent(20) {
                break;
            }
            if cascade.order.len() > MOST_HELD {
                let what = "style sheets that say very much of very many elements: from here on left out";
                told.push(Told { at: element.at, lines: 0, what: what.to_owned() });
                break;
            }
            for (specificity, rule) in selectors.of(document, number) {
                let range = ranges.get(rule).cloned().unwrap_or_default();
                held.extend(range.map(|declaration| (false, specificity, declaration)));
            }
            if let Some(style) = document.attribute(element, "style") {
                let start = cascade.declarations.len();
                cascade.declarations.extend(declarations(style));
                held.extend((start..cascade.declarations.len()).map(|own| (true, [0; 3], own)));
            }
            let important = |number: usize| {
                cascade.declarations.get(number).is_some_and(|declaration| declaration.important)
            };
            held.sort_by_key(|&(inline, specificity, number)| {
                (important(number), inline, specificity, number)
            });
            cascade.order.extend(held.drain(..).map(|(.., number)| number));
            cascade.ends.push(cascade.order.len());
        }
        cascade
    }

    /// What holds for an element, the winning ones last.
    pub(super) fn held(&self, element: usize) -> impl DoubleEndedIterator<Item = (&str, &str)> {
        let end_of = |number: usize| self.ends.get(number).copied().unwrap_or(self.order.len());
        let start = element.checked_sub(1).map_or(0, end_of);
        let numbers = self.order.get(start..end_of(element)).unwrap_or_default();
        let declarations = numbers.iter().filter_map(|number| self.declarations.get(*number));
        declarations.map(|declaration| (declaration.name.as_str(), declaration.value.as_str()))
    }
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

/// Without the feature `svg-styles`, `style` is taken apart at its signs, and style sheets are told of and left out.
#[cfg(not(feature = "svg-styles"))]
mod plain {
    use super::super::document::{Document, StyleText};
    use super::{Declaration, Told};

    #[derive(Debug, Default)]
    pub(super) struct Rules {
        pub(super) selectors: Selectors,
        pub(super) rules: Vec<Vec<Declaration>>,
    }

    #[derive(Debug, Default)]
    pub(super) struct Selectors;

    impl Rules {
        pub(super) fn read(sheets: &[StyleText], told: &mut Vec<Told>) -> Self {
            let what = "a style sheet is not read: that needs the feature `svg-styles` of the library";
            told.extend(sheets.iter().map(|sheet| Told { at: sheet.at, lines: 0, what: what.to_owned() }));
            Self::default()
        }
    }

    impl Selectors {
        pub(super) fn of(&self, _: &Document<'_>, _: usize) -> impl Iterator<Item = ([u32; 3], usize)> {
            std::iter::empty()
        }
    }

    pub(super) fn declarations(text: &str) -> Vec<Declaration> {
        let parts = text.split(';').filter_map(|part| part.split_once(':'));
        let made = parts.map(|(name, value)| {
            let marked = value.rsplit_once('!').filter(|(_, mark)| mark.trim() == "important");
            let (name, value) = (name.trim().to_owned(), marked.map_or(value, |(value, _)| value));
            Declaration { name, value: value.trim().to_owned(), important: marked.is_some() }
        });
        made.collect()
    }
}

#[cfg(not(feature = "svg-styles"))]
use plain::{Rules, declarations};
