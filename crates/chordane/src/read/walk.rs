//! What is known while a document is gone through: its elements by their ids, what is noted, and how much was made.

use std::collections::HashMap;

use roxmltree::NodeId;

use super::document::Document;
use super::error::{ReadError, SvgNote};
use super::properties::Properties;
use crate::ground::{exhausted, visible};
use crate::number::Point;
use crate::sheet::BlendMode;

/// What a document can stand for, at most: a few lines that use one another can stand for billions.
const MAX_SHAPES: usize = 2_000_000;
const MAX_ELEMENTS: usize = 5_000_000;
const MAX_VERTICES: usize = 40_000_000;

/// So many kinds of things that are not understood are noted.
const MAX_NOTES: usize = 200;

/// What is handed down to the elements inside.
#[derive(Clone)]
pub(super) struct Inherited {
    pub(super) properties: Properties,
    /// What the element around says of itself alone, for those that ask to have it too.
    pub(super) own: Own,
    /// What shares of lengths are taken of.
    pub(super) viewport: Point,
}

/// The properties of an element that are not handed down.
#[derive(Clone)]
pub(super) struct Own {
    pub(super) opacity: f64,
    pub(super) shown: bool,
    /// The ids of what it is clipped and masked by, and of its filter.
    pub(super) clip: Option<String>,
    pub(super) mask: Option<String>,
    pub(super) filter: Option<String>,
    pub(super) blend: BlendMode,
    pub(super) isolated: bool,
    /// Whether its stroke is as wide as it says, however it is transformed.
    pub(super) unscaled: bool,
}

impl Default for Own {
    fn default() -> Self {
        let (clip, mask, filter, blend) = Default::default();
        Self { opacity: 1.0, shown: true, clip, mask, filter, blend, isolated: false, unscaled: false }
    }
}

/// A document that is gone through.
pub(super) struct Walk<'a> {
    pub(super) document: &'a Document<'a>,
    pub(super) newlines: Vec<usize>,
    pub(super) notes: Vec<SvgNote>,
    /// Where each note stands in the list.
    pub(super) noted: HashMap<String, usize>,
    /// Whether nothing is to be noted just now.
    pub(super) quiet: bool,
    /// How many elements were looked at, what is used by others each time; and what was made of them.
    pub(super) elements: usize,
    pub(super) shapes: usize,
    pub(super) vertices: usize,
    /// How often something was used.
    pub(super) used: usize,
    /// The elements that `use` is inside of just now.
    pub(super) uses: Vec<NodeId>,
    /// Paints that do not depend on what they are put on, by their element, opacity and viewport.
    pub(super) paints: HashMap<(NodeId, [u64; 3]), crate::sheet::Paint>,
    /// Decoded pictures, or why they are left out, by their elements. A picture that is used many times is decoded once.
    pub(super) pictures: HashMap<NodeId, Result<crate::sheet::Picture, String>>,
    /// How deep inside one another elements are just now, what is used counted.
    pub(super) depth: usize,
}

impl<'a> Walk<'a> {
    pub(super) fn line(&self, at: usize) -> usize {
        self.newlines.partition_point(|newline| *newline < at) + 1
    }

    pub(super) fn note(&mut self, at: usize, what: String) {
        self.note_below(at, 0, what);
    }

    /// Notes what is so many lines below a place.
    pub(super) fn note_below(&mut self, at: usize, lines: usize, what: String) {
        if self.quiet {
            return;
        }
        let what = if self.notes.len() < MAX_NOTES || self.noted.contains_key(&what) {
            what
        } else {
            "more that is not understood: left out".to_owned()
        };
        match self.noted.get(&what).and_then(|place| self.notes.get_mut(*place)) {
            Some(note) => note.count += 1,
            None => {
                let line = self.line(at) + lines;
                self.noted.insert(what.clone(), self.notes.len());
                self.notes.push(SvgNote { what: visible(&what).into_owned(), count: 1, line });
            }
        }
    }

    /// Counts what is made of the document, and ends where that is too much.
    pub(super) fn made(&mut self, at: usize, shapes: usize, vertices: usize) -> Result<(), ReadError> {
        self.elements += 1;
        self.shapes += shapes;
        self.vertices += vertices;
        if exhausted(50) {
            return Err(ReadError::stopped(self.line(at)));
        }
        let used = self.used > 0;
        for (what, count, limit) in [
            ("shapes", self.shapes, MAX_SHAPES),
            ("elements", self.elements, MAX_ELEMENTS),
            ("vertices", self.vertices, MAX_VERTICES),
        ] {
            if count > limit {
                return Err(ReadError::TooMany { what, limit, used });
            }
        }
        Ok(())
    }
}
