//! The sinks of the SVG writer: text, or the tags of a frame that is laid on others.

use std::fmt::Write;

use super::svg_text::plain;
use crate::number::Cell;
use crate::path::{Affine, Path};
use crate::scene::Placed;
use crate::sheet::Layered;

/// The value of an attribute in one frame.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Value {
    /// Not written: what SVG takes for granted.
    Absent,
    /// Its text, escaped.
    Text(String),
    /// Path data, with a number of decimals.
    Path(Path, usize),
}

impl Value {
    pub(super) fn text(&self) -> Option<&str> {
        match self {
            Self::Text(text) => Some(text),
            _ => None,
        }
    }

    pub(super) fn path(&self) -> Option<&Path> {
        match self {
            Self::Path(path, _) => Some(path),
            _ => None,
        }
    }
}

/// Where a tag begins or ends an element, or both.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Side {
    Open,
    Close,
    /// An element without anything in it.
    Alone,
    /// No tag: text between two of them.
    Text,
}

/// A tag.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Tag {
    pub(super) side: Side,
    /// The element's name; of text, the text, escaped.
    pub(super) name: String,
    pub(super) attributes: Vec<(&'static str, Value)>,
}

/// The item that is written from a tag on; what is defined for it comes before that.
#[derive(Clone, Debug)]
pub(super) struct Source {
    pub(super) tag: usize,
    pub(super) name: Option<String>,
    pub(super) line: Option<usize>,
}

/// A frame as its tags.
#[derive(Clone, Debug, Default)]
pub(super) struct Recording {
    pub(super) tags: Vec<Tag>,
    pub(super) sources: Vec<Source>,
}

/// The place that elements are written to.
pub(super) enum Sink {
    Text(String),
    Tags(Recording),
}

impl Sink {
    /// Whether tags are recorded.
    pub(super) fn records(&self) -> bool {
        matches!(self, Self::Tags(_))
    }

    /// Notes that an item begins here.
    pub(super) fn source(&mut self, placed: &Placed<'_>) {
        if let Self::Tags(recording) = self {
            let name = placed.item.name().map(str::to_owned);
            recording.sources.push(Source { tag: recording.tags.len(), name, line: placed.line() });
        }
    }

    fn push(&mut self, side: Side, name: &str) {
        if let Self::Tags(Recording { tags, .. }) = self {
            tags.push(Tag { side, name: name.to_owned(), attributes: Vec::new() });
        }
    }

    fn write(&mut self, parts: &[&str]) {
        if let Self::Text(out) = self {
            out.extend(parts.iter().copied());
        }
    }

    /// Begins a tag, for its attributes.
    pub(super) fn begin(&mut self, name: &str) {
        self.push(Side::Alone, name);
        self.write(&["<", name]);
    }

    /// An attribute, its text escaped.
    pub(super) fn attribute(&mut self, name: &'static str, value: &str) {
        match self {
            Self::Text(out) => out.extend([" ", name, "=\"", value, "\""]),
            Self::Tags(Recording { tags, .. }) => {
                tags.last_mut()
                    .into_iter()
                    .for_each(|tag| tag.attributes.push((name, Value::Text(value.to_owned()))));
            }
        }
    }

    /// An attribute where it is not what SVG takes for granted.
    pub(super) fn attribute_unless(&mut self, name: &'static str, value: &str, default: &str) {
        if value != default {
            self.attribute(name, value);
        }
    }

    pub(super) fn number(&mut self, name: &'static str, value: f64) {
        self.attribute(name, &plain(value));
    }

    /// A reference to what was defined under an id.
    pub(super) fn reference(&mut self, name: &'static str, id: &str) {
        self.attribute(name, &format!("url(#{id})"));
    }

    /// The data of a path.
    pub(super) fn data(&mut self, path: &Path, decimals: usize) {
        match self {
            Self::Text(out) => {
                let _ = write!(out, " d=\"{}\"", path.data_rounded(decimals));
            }
            Self::Tags(Recording { tags, .. }) => {
                let value = Value::Path(path.clone(), decimals);
                tags.last_mut().into_iter().for_each(|tag| tag.attributes.push(("d", value.clone())));
            }
        }
    }

    pub(super) fn rectangle(&mut self, cell: &Cell) {
        let size = cell.size();
        for (name, value) in [("x", cell.min.x), ("y", cell.min.y), ("width", size.x), ("height", size.y)] {
            self.number(name, value);
        }
    }

    pub(super) fn matrix(&mut self, name: &'static str, by: &Affine) {
        if *by != Affine::IDENTITY {
            self.attribute(name, &format!("matrix({})", by.to_cols_array().map(plain).join(" ")));
        }
    }

    /// Ends the tag that was begun; what follows is in the element.
    pub(super) fn open(&mut self) {
        if let Self::Tags(Recording { tags, .. }) = self {
            tags.last_mut().into_iter().for_each(|tag| tag.side = Side::Open);
        }
        self.write(&[">"]);
    }

    /// Ends the tag that was begun, and its element.
    pub(super) fn alone(&mut self) {
        self.write(&["/>"]);
    }

    pub(super) fn close(&mut self, name: &str) {
        self.push(Side::Close, name);
        self.write(&["</", name, ">"]);
    }

    /// Text between tags, escaped.
    pub(super) fn text(&mut self, text: &str) {
        self.push(Side::Text, text);
        self.write(&[text]);
    }

    /// Ends a line of the text.
    pub(super) fn line(&mut self) {
        self.write(&["\n"]);
    }

    /// An element of nothing but text, on a line of its own.
    pub(super) fn text_element(&mut self, name: &str, text: &str) {
        self.begin(name);
        self.open();
        self.text(text);
        self.close(name);
        self.line();
    }
}
