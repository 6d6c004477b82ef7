//! A document: its elements, and what holds for each of them.

use std::collections::HashMap;

use super::cascade::Cascade;
use super::style_sheets::Told;
use super::tree::{Element, children, name, start_of, text_in};

/// The elements of a document, and what style sheets and `style` say of them.
#[derive(Debug)]
pub(super) struct Document<'a> {
    pub(super) root: Element<'a>,
    /// The first element with each id.
    ids: HashMap<&'a str, Element<'a>>,
    cascade: Cascade,
    /// What was not understood of the text and of its styles.
    pub(super) told: Vec<Told>,
}

impl<'a> Document<'a> {
    pub(super) fn of(tree: &'a roxmltree::Document<'a>) -> Self {
        let mut told = Vec::new();
        let sheets = tree.root().children().filter_map(|node| Some((node, node.pi()?)));
        for (node, _) in sheets.filter(|(_, instruction)| instruction.target == "xml-stylesheet") {
            let what = "a style sheet that lies elsewhere is not fetched: left out".to_owned();
            told.push(Told { at: start_of(node), lines: 0, what });
        }
        let mut ids = HashMap::new();
        for element in tree.descendants() {
            if let Some(id) = element.attribute("id") {
                ids.entry(id).or_insert(element);
            }
        }
        let cascade = Cascade::of(tree, &mut told);
        Self { root: tree.root_element(), ids, cascade, told }
    }

    /// Returns the first element with an id.
    pub(super) fn by_id(&self, id: &str) -> Option<Element<'a>> {
        self.ids.get(id).copied()
    }

    /// Returns the text of the document's `title` or `desc`.
    pub(super) fn said(&self, what: &str) -> Option<String> {
        let said = children(self.root).find(|child| name(*child) == what)?;
        Some(text_in(said).trim().to_owned())
    }

    /// What style sheets and `style` say of an element, the winning ones last.
    pub(super) fn styled(&self, of: Element<'_>) -> impl DoubleEndedIterator<Item = (&str, &str)> {
        self.cascade.held(of.id())
    }

    /// A property that an element says of itself, in style sheets, in `style` or as an attribute.
    pub(super) fn property<'s>(&'s self, of: Element<'a>, name: &str) -> Option<&'s str> {
        match self.own(of, name)? {
            "inherit" => self.property(of.parent_element()?, name),
            value => Some(value),
        }
    }

    /// Returns the value of a property as written on the element, in a style or as an attribute.
    pub(super) fn own<'s>(&'s self, of: Element<'s>, name: &str) -> Option<&'s str> {
        let said = self.styled(of).rev().find(|(key, _)| *key == name).map(|(_, value)| value);
        said.or_else(|| of.attribute(name)).map(str::trim)
    }

    /// A property that is handed down, as an element or the nearest one around it says it.
    pub(super) fn inherited<'s>(&'s self, of: Element<'a>, name: &str) -> Option<&'s str> {
        let around = std::iter::successors(Some(of), Element::parent_element);
        around.into_iter().find_map(|element| self.property(element, name))
    }
}
