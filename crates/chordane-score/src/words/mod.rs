//! The words of a score, in one table.
//!
//! The engine, the command's help on words, and the page of words in the docs are all made from it, so they
//! cannot disagree. An entry says how the word is written, in plain words what it does, shows an example that runs, and is
//! one call into the library, whose Rust types say what it takes and gives.

mod along;
mod cells;
mod chance;
mod colours;
mod combine;
mod curves;
mod edits;
mod entry;
mod gradients;
mod knobs;
mod layers;
mod marks;
mod meanings;
mod measure;
mod motion;
mod numbers;
mod own;
mod page;
mod paths;
mod pen;
mod pictures;
mod reshapes;
mod shapes;
mod sheets;
mod stamps;
mod styles;
mod wheels;

use std::sync::OnceLock;

pub use crate::values::Kind;
pub use entry::{Section, Word};
pub use meanings::by_meaning;
pub use own::Words;
pub use page::markdown;

/// The page on the language itself, for the docs: numbers, texts, lists, functions, and what else is no word.
///
/// ```
/// assert!(chordane_score::words::LANGUAGE_MD.contains("## Functions"));
/// ```
pub const LANGUAGE_MD: &str = include_str!("language.md");

/// Every word there is, section by section. The table is made when it is first asked for.
///
/// ```
/// use chordane_score::words;
/// assert!(words::sections().iter().all(|section| !section.words.is_empty()));
/// ```
pub fn sections() -> &'static [Section] {
    static SECTIONS: OnceLock<Vec<Section>> = OnceLock::new();
    SECTIONS.get_or_init(|| {
        vec![
            numbers::section(),
            pen::section(),
            curves::section(),
            paths::section(),
            edits::section(),
            shapes::section(),
            wheels::section(),
            along::section(),
            reshapes::section(),
            combine::section(),
            cells::section(),
            measure::section(),
            styles::section(),
            colours::section(),
            gradients::section(),
            pictures::section(),
            layers::section(),
            stamps::section(),
            sheets::section(),
            knobs::section(),
            chance::section(),
            motion::section(),
            marks::section(),
        ]
    })
}

/// Every word there is.
///
/// ```
/// use chordane_score::words;
/// assert!(words::all().any(|word| word.name == "polygon"));
/// ```
pub fn all() -> impl Iterator<Item = &'static Word> {
    sections().iter().flat_map(|section| &section.words)
}

/// Whether a name is one of the words of motion.
pub(crate) fn is_of_motion(name: &str) -> bool {
    let motion = sections().iter().find(|section| section.title == motion::TITLE);
    motion.is_some_and(|motion| motion.words.iter().any(|word| word.name == name))
}

/// The words of a name; several where it means something on different kinds of value or takes more or less.
///
/// ```
/// use chordane_score::words;
/// assert_eq!(words::named("circel").count(), 0);
/// ```
pub fn named(name: &str) -> impl Iterator<Item = &'static Word> {
    all().filter(move |word| word.name == name)
}
