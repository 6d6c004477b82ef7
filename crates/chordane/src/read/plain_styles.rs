//! Without the feature `svg-styles`: `style` is taken apart at its signs, and style sheets are told of and left out.

use super::declaration::Declaration;
use super::tree::{StyleText, Told, Tree};

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
    pub(super) fn of(&self, _: &Tree<'_>, _: usize) -> impl Iterator<Item = ([u32; 3], usize)> {
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
