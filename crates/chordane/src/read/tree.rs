//! The document as a tree of elements, in one list.

use std::borrow::Cow;
use std::ops::Range;

use quick_xml::events::{BytesStart, Event};
use quick_xml::{Reader, XmlVersion};

use super::declaration::is_shown;
use super::error::{ReadError, line_of};
use crate::ground::{exhausted, is_xml};

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
    /// Its own number in the list, that of the element around it, and that of the one before it in there.
    pub(super) number: usize,
    pub(super) parent: Option<usize>,
    #[cfg_attr(not(feature = "svg-styles"), allow(dead_code))]
    pub(super) before: Option<usize>,
    /// Its place among the elements right inside the one around it, counted from 1.
    pub(super) nth: usize,
}

/// The text of a style sheet.
#[derive(Debug)]
pub(super) struct StyleText {
    pub(super) text: String,
    /// Where it begins in the text of the document, and how far it was taken over.
    pub(super) at: usize,
    end: usize,
    /// Its element.
    of: usize,
}

/// Something that was not understood, so many lines below a place.
#[derive(Debug)]
pub(super) struct Told {
    pub(super) at: usize,
    pub(super) lines: usize,
    pub(super) what: String,
}

/// All elements in the order of the text.
#[derive(Debug, Default)]
pub(super) struct Tree<'a> {
    elements: Vec<Element<'a>>,
    attributes: Vec<(Cow<'a, str>, Cow<'a, str>)>,
    pub(super) sheets: Vec<StyleText>,
    /// The text of the document's own `title` and of its `desc`.
    pub(super) said: [Option<String>; 2],
    /// What was not understood so far.
    pub(super) told: Vec<Told>,
}

impl<'a> Tree<'a> {
    /// Reads all elements. Entities that the document defines are not expanded: a few bytes of them can stand for
    /// gigabytes.
    pub(super) fn read(text: &'a str) -> Result<Self, ReadError> {
        let mut reader = Reader::from_str(text);
        reader.config_mut().expand_empty_elements = false;
        let mut tree = Self::default();
        // The elements that are open, each with the last one in it.
        let mut open: Vec<(usize, Option<usize>)> = Vec::new();
        loop {
            let at = reader.buffer_position() as usize;
            if exhausted(20) {
                return Err(ReadError::stopped(line_of(text, at)));
            }
            let event = reader.read_event().map_err(|error| {
                ReadError::broken(text, reader.error_position() as usize, &error.to_string())
            })?;
            match event {
                Event::Start(start) => {
                    if open.len() >= MOST_DEPTH {
                        return Err(ReadError::TooDeep { line: line_of(text, at), limit: MOST_DEPTH });
                    }
                    let number = tree.push(&start, text, at, open.last_mut())?;
                    tree.begin_sheet(number, reader.buffer_position() as usize);
                    open.push((number, None));
                }
                Event::Empty(start) => {
                    let number = tree.push(&start, text, at, open.last_mut())?;
                    tree.end_of(number);
                }
                Event::End(_) => {
                    if let Some((ended, _)) = open.pop() {
                        tree.end_of(ended);
                    }
                }
                Event::Text(part) => tree.say(&open, &part, (text, at)),
                Event::CData(part) => tree.say(&open, &part, (text, at)),
                Event::GeneralRef(entity) => {
                    let name: &str = &entity;
                    let part = quick_xml::escape::unescape(&format!("&{name};")).ok().map(Cow::into_owned);
                    if let Some(part) = part {
                        tree.say(&open, &part, (text, at));
                    }
                    if !name.starts_with('#') && !["lt", "gt", "amp", "apos", "quot"].contains(&name) {
                        tree.unknown_entity(name, at);
                    }
                }
                Event::PI(instruction) if instruction.starts_with("xml-stylesheet") => {
                    let what = "a style sheet that lies elsewhere is not fetched: left out".to_owned();
                    tree.told.push(Told { at, lines: 0, what });
                }
                Event::Eof => break,
                _ => {}
            }
        }
        if let Some(left) = open.pop().and_then(|(left, _)| tree.elements.get(left)) {
            let what = format!("<{}> of line {} is never closed", left.name, line_of(text, left.at));
            return Err(ReadError::broken(text, text.len(), &what));
        }
        if let Some((at, c)) = text.char_indices().find(|(_, c)| !is_xml(*c)) {
            let what = format!("the character U+{:04X} cannot stand in a document", c as u32);
            return Err(ReadError::broken(text, at, &what));
        }
        Ok(tree)
    }

    /// Takes over text that stands in a style sheet, or right inside the document's title or description.
    fn say(&mut self, open: &[(usize, Option<usize>)], part: &str, (text, at): (&str, usize)) {
        let inside = open.last().map(|(inside, _)| *inside);
        if let Some(sheet) = self.sheets.last_mut().filter(|sheet| Some(sheet.of) == inside) {
            // Lines that are not taken over, of comments, are counted all the same.
            let left_out = text.get(sheet.end..at).unwrap_or_default().matches('\n').count();
            sheet.text.extend(std::iter::repeat_n('\n', left_out));
            sheet.text.push_str(part);
            sheet.end = at + part.len();
        }
        if let Some(said) = self.said_in(open) {
            said.push_str(part);
        }
    }

    /// Begins a style sheet, where an element is one that is meant for what is seen here.
    fn begin_sheet(&mut self, of: usize, at: usize) {
        let Some(element) = self.element(of).filter(|element| element.name == "style") else { return };
        if !["", "text/css"].contains(&self.attribute(element, "type").unwrap_or_default().trim()) {
            return;
        }
        match self.attribute(element, "media").map_or(Some(true), is_shown) {
            Some(true) => self.sheets.push(StyleText { text: String::new(), at, end: at, of }),
            Some(false) => {}
            None => {
                let what = "a style sheet whose `media` has conditions is left out".to_owned();
                self.told.push(Told { at, lines: 0, what });
            }
        }
    }

    fn unknown_entity(&mut self, name: &str, at: usize) {
        let what = format!("the entity &{name}; is not expanded: left out");
        self.told.push(Told { at, lines: 0, what });
    }

    /// The text of the document's title or description, where that is what is open.
    fn said_in(&mut self, open: &[(usize, Option<usize>)]) -> Option<&mut String> {
        let &[(0, _), (inside, _)] = open else { return None };
        let slot = match &*self.elements.get(inside)?.name {
            "title" => 0,
            "desc" => 1,
            _ => return None,
        };
        self.said.get_mut(slot).map(|said| said.get_or_insert_default())
    }

    fn push(
        &mut self,
        start: &BytesStart<'_>,
        text: &str,
        at: usize,
        around: Option<&mut (usize, Option<usize>)>,
    ) -> Result<usize, ReadError> {
        let begin = self.attributes.len();
        for attribute in start.attributes() {
            let broken = |error: &dyn std::fmt::Display| ReadError::broken(text, at, &error.to_string());
            let attribute = attribute.map_err(|error| broken(&error))?;
            let mut unknown = Vec::new();
            let value = attribute
                .normalized_value_with(XmlVersion::Implicit1_0, 1, |name| {
                    quick_xml::escape::resolve_predefined_entity(name).or_else(|| {
                        unknown.push(name.to_owned());
                        Some("")
                    })
                })
                .map_err(|error| broken(&error))?;
            unknown.iter().for_each(|name| self.unknown_entity(name, at));
            let key = attribute.key.as_ref();
            // Of prefixed names only the old way to write a link has a meaning here.
            let key = if key == "xlink:href" { "href" } else { key };
            self.attributes.push((Cow::Owned(key.to_owned()), Cow::Owned(value.into_owned())));
        }
        let name = start.local_name().as_ref().to_owned();
        let attributes = begin..self.attributes.len();
        let number = self.elements.len();
        let parent = around.as_ref().map(|(parent, _)| *parent);
        let before = around.and_then(|(_, last)| last.replace(number));
        let nth = before.and_then(|before| self.element(before)).map_or(0, |before| before.nth) + 1;
        let (name, end) = (Cow::Owned(name), usize::MAX);
        self.elements.push(Element { name, attributes, end, at, number, parent, before, nth });
        Ok(number)
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
    /// Whether nothing comes after an element in the one around it.
    #[cfg(feature = "svg-styles")]
    pub(super) fn is_last(&self, number: usize) -> bool {
        let Some(element) = self.element(number) else { return false };
        let around = element.parent.and_then(|parent| self.element(parent));
        around.is_none_or(|around| element.end >= around.end)
    }
}
