//! A stamp as a score holds it.

use chordane::prelude::*;
use chordane::sheet::Node;
use rhai::FnPtr;

/// A thing to be set down, how, and what the score's functions say about each.
#[derive(Clone, Debug)]
pub(crate) struct ScoreStamp {
    pub(crate) stamp: Stamp<Node>,
    pub(crate) scale: Option<FnPtr>,
    pub(crate) turn: Option<FnPtr>,
    pub(crate) skip: Option<FnPtr>,
    pub(crate) fill: Option<FnPtr>,
}

impl ScoreStamp {
    pub(crate) fn new(thing: Node) -> Self {
        let (scale, turn, skip, fill) = Default::default();
        Self { stamp: Stamp::new(thing), scale, turn, skip, fill }
    }

    /// The same set down otherwise.
    pub(crate) fn set(mut self, change: impl FnOnce(Stamp<Node>) -> Stamp<Node>) -> Self {
        self.stamp = change(self.stamp);
        self
    }
}
