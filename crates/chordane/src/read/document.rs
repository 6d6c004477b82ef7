//! A document: its elements, and what holds for each of them.

use std::ops::Deref;

use super::cascade::Cascade;
use super::error::ReadError;
use super::tree::{Element, Told, Tree};

/// The elements of a document, and what style sheets and `style` say of them.
#[derive(Debug)]
pub(super) struct Document<'a> {
    tree: Tree<'a>,
    cascade: Cascade,
    /// What was not understood of the text and of its styles.
    pub(super) told: Vec<Told>,
}

impl<'a> Deref for Document<'a> {
    type Target = Tree<'a>;

    fn deref(&self) -> &Tree<'a> {
        &self.tree
    }
}

impl<'a> Document<'a> {
    /// Reads a document.
    pub(super) fn read(text: &'a str) -> Result<Self, ReadError> {
        let mut tree = Tree::read(text)?;
        let mut told = std::mem::take(&mut tree.told);
        let cascade = Cascade::of(&tree, &mut told);
        Ok(Self { tree, cascade, told })
    }

    /// What style sheets and `style` say of an element, the winning ones last.
    pub(super) fn styled(&self, of: &Element<'a>) -> impl DoubleEndedIterator<Item = (&str, &str)> {
        self.cascade.held(of.number)
    }

    /// A property that an element says of itself, in style sheets, in `style` or as an attribute.
    pub(super) fn property(&self, of: &Element<'a>, name: &str) -> Option<&str> {
        let said = self.styled(of).rev().find(|(key, _)| *key == name).map(|(_, value)| value);
        match said.or_else(|| self.attribute(of, name))? {
            "inherit" => self.property(self.element(of.parent?)?, name),
            value => Some(value),
        }
    }

    /// A property that is handed down, as an element or the nearest one around it says it.
    pub(super) fn inherited(&self, of: &Element<'a>, name: &str) -> Option<&str> {
        let around = std::iter::successors(Some(of), |element| self.element(element.parent?));
        around.into_iter().find_map(|element| self.property(element, name))
    }
}
