//! The document as a tree of elements, in one list.

use std::borrow::Cow;
use std::ops::Range;

use quick_xml::events::{BytesStart, Event};
use quick_xml::{Reader, XmlVersion};

use super::error::{ReadError, line_of};
use crate::ground::{spent, stopped};

/// Elements inside one another: deeper is a document gone wrong, and each level takes some of the machine's stack.
const MOST_DEPTH: usize = 128;

/// One element. Names are without their prefix; text between elements is not kept.
#[derive(Debug)]
pub(super) struct Element<'a> {
    pub(super) name: Cow<'a, str>,
    attributes: Range<usize>,
    /// The elements inside it are those that follow, up to here.
    end: usize,
    /// Where it begins in the text.
    pub(super) at: usize,
}

/// All elements in the order of the text.
#[derive(Debug, Default)]
pub(super) struct Document<'a> {
    elements: Vec<Element<'a>>,
    attributes: Vec<(Cow<'a, str>, Cow<'a, str>)>,
    /// The text of the document's own `title` and of its `desc`.
    pub(super) said: [Option<String>; 2],
    /// Names of entities that stand in the text and mean nothing here.
    pub(super) unknown_entities: Vec<(String, usize)>,
}

impl<'a> Document<'a> {
    /// Reads all elements. Entities that the document defines are not expanded: a few bytes of them can stand for
    /// gigabytes.
    pub(super) fn read(text: &'a str) -> Result<Self, ReadError> {
        let mut reader = Reader::from_str(text);
        reader.config_mut().expand_empty_elements = false;
        let mut document = Self::default();
        let mut open: Vec<usize> = Vec::new();
        loop {
            let at = reader.buffer_position() as usize;
            if spent(20) {
                let why = stopped().unwrap_or_default();
                return Err(ReadError::Stopped { line: line_of(text, at), why });
            }
            let event = reader.read_event().map_err(|error| {
                ReadError::broken(text, reader.error_position() as usize, &error.to_string())
            })?;
            match event {
                Event::Start(start) => {
                    if open.len() >= MOST_DEPTH {
                        return Err(ReadError::TooDeep { line: line_of(text, at), limit: MOST_DEPTH });
                    }
                    open.push(document.elements.len());
                    document.push(&start, text, at)?;
                }
                Event::Empty(start) => {
                    document.push(&start, text, at)?;
                    document.end_of(document.elements.len() - 1);
                }
                Event::End(_) => {
                    if let Some(ended) = open.pop() {
                        document.end_of(ended);
                    }
                }
                Event::Text(part) => {
                    if let Some(said) = document.said_in(&open) {
                        said.push_str(&part);
                    }
                }
                Event::GeneralRef(entity) => {
                    let name: &str = &entity;
                    let part = quick_xml::escape::unescape(&format!("&{name};")).ok().map(Cow::into_owned);
                    if let (Some(said), Some(part)) = (document.said_in(&open), part) {
                        said.push_str(&part);
                    }
                    if !name.starts_with('#') && !["lt", "gt", "amp", "apos", "quot"].contains(&name) {
                        document.unknown_entities.push((name.to_owned(), at));
                    }
                }
                Event::Eof => break,
                _ => {}
            }
        }
        if let Some(left) = open.pop().and_then(|left| document.elements.get(left)) {
            let what = format!("<{}> of line {} is never closed", left.name, line_of(text, left.at));
            return Err(ReadError::broken(text, text.len(), &what));
        }
        Ok(document)
    }

    /// Where the text goes that stands right inside the document's title or description.
    fn said_in(&mut self, open: &[usize]) -> Option<&mut String> {
        let &[0, inside] = open else { return None };
        let slot = match &*self.elements.get(inside)?.name {
            "title" => 0,
            "desc" => 1,
            _ => return None,
        };
        self.said.get_mut(slot).map(|said| said.get_or_insert_default())
    }

    fn push(&mut self, start: &BytesStart<'_>, text: &str, at: usize) -> Result<(), ReadError> {
        let begin = self.attributes.len();
        for attribute in start.attributes() {
            let broken = |error: &dyn std::fmt::Display| ReadError::broken(text, at, &error.to_string());
            let attribute = attribute.map_err(|error| broken(&error))?;
            let mut unknown = Vec::new();
            let value = attribute
                .normalized_value_with(XmlVersion::Implicit1_0, 1, |name| {
                    quick_xml::escape::resolve_predefined_entity(name).or_else(|| {
                        unknown.push((name.to_owned(), at));
                        Some("")
                    })
                })
                .map_err(|error| broken(&error))?;
            self.unknown_entities.append(&mut unknown);
            let key = attribute.key.as_ref();
            // Of prefixed names only the old way to write a link has a meaning here.
            let key = if key == "xlink:href" { "href" } else { key };
            self.attributes.push((Cow::Owned(key.to_owned()), Cow::Owned(value.into_owned())));
        }
        let name = start.local_name().as_ref().to_owned();
        let attributes = begin..self.attributes.len();
        self.elements.push(Element { name: Cow::Owned(name), attributes, end: usize::MAX, at });
        Ok(())
    }

    fn end_of(&mut self, element: usize) {
        let end = self.elements.len();
        if let Some(element) = self.elements.get_mut(element) {
            element.end = end;
        }
    }

    pub(super) fn element(&self, number: usize) -> Option<&Element<'a>> {
        self.elements.get(number)
    }

    pub(super) fn elements(&self) -> impl Iterator<Item = (usize, &Element<'a>)> {
        self.elements.iter().enumerate()
    }

    /// The numbers of the elements right inside one.
    pub(super) fn children(&self, of: usize) -> impl Iterator<Item = usize> + '_ {
        let end = self.elements.get(of).map_or(0, |element| element.end);
        let mut next = of + 1;
        std::iter::from_fn(move || {
            let child = next;
            let element = self.elements.get(child).filter(|_| child < end)?;
            next = element.end;
            Some(child)
        })
    }

    pub(super) fn attributes(&self, of: &Element<'a>) -> impl Iterator<Item = (&str, &str)> {
        let list = self.attributes.get(of.attributes.clone()).unwrap_or_default();
        list.iter().map(|(name, value)| (&**name, &**value))
    }

    pub(super) fn attribute(&self, of: &Element<'a>, name: &str) -> Option<&str> {
        self.attributes(of).find(|(key, _)| *key == name).map(|(_, value)| value)
    }
}
