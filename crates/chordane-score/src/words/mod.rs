//! The words of a score, in one table.
//!
//! The engine, the command's help on words, and the page of words in the docs are all made from it, so they
//! cannot disagree. An entry says what the word is called on, what it takes and gives, in plain words what it
//! does, and shows an example that runs; what it *does* is one call into the library.

mod along;
mod args;
mod cells;
mod chance;
mod combine;
mod curves;
mod edits;
mod knobs;
mod measure;
mod numbers;
mod page;
mod paths;
mod pen;
mod reshapes;
mod shapes;
mod sheets;
mod stamps;
mod styles;
mod wheels;

pub use crate::values::Kind;
pub use page::markdown;

pub(crate) use args::{Args, Refusal};
use rhai::Dynamic;
pub(crate) use stamps::ScoreStamp;

/// One word of a score.
#[derive(Debug)]
pub struct Word {
    /// What it is called.
    pub name: &'static str,
    /// The kinds of value it is called on, as in `path.moved(..)`; none for a word that stands alone.
    pub on: &'static [Kind],
    /// What it takes: a name and a kind for each.
    pub takes: &'static [(&'static str, Kind)],
    /// What it gives.
    pub gives: Kind,
    /// What it does, in a sentence or two.
    pub about: &'static str,
    /// An example that runs.
    pub example: &'static str,
    pub(crate) run: fn(&mut Args<'_, '_>) -> Result<Dynamic, Refusal>,
}

impl Word {
    /// The word as it is written: `circle(centre, radius)` or `path.moved(step)`.
    #[must_use]
    pub fn form(&self) -> String {
        let takes: Vec<&str> = self.takes.iter().map(|(name, _)| *name).collect();
        let on: Vec<&str> = self.on.iter().map(|kind| kind.plain()).collect();
        let dot = if on.is_empty() { "" } else { "." };
        format!("{}{dot}{}({})", on.join("|"), self.name, takes.join(", "))
    }
}

/// Words that belong together.
#[derive(Debug)]
pub struct Section {
    /// The heading.
    pub title: &'static str,
    /// What they have in common.
    pub about: &'static str,
    /// The words, in the order in which they are best met.
    pub words: &'static [Word],
}

/// Every word there is, section by section.
pub const SECTIONS: &[Section] = &[
    numbers::SECTION,
    pen::SECTION,
    curves::SECTION,
    paths::SECTION,
    edits::SECTION,
    shapes::SECTION,
    wheels::SECTION,
    along::SECTION,
    reshapes::SECTION,
    combine::SECTION,
    cells::SECTION,
    measure::SECTION,
    styles::SECTION,
    stamps::SECTION,
    sheets::SECTION,
    knobs::SECTION,
    chance::SECTION,
];

/// Every word there is.
pub fn all() -> impl Iterator<Item = &'static Word> {
    SECTIONS.iter().flat_map(|section| section.words)
}

/// The words of a name; several where it means something on different kinds of value or takes more or less.
pub fn named(name: &str) -> impl Iterator<Item = &'static Word> {
    all().filter(move |word| word.name == name)
}
