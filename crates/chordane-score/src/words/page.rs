//! The page of words, as the docs have it.

use std::fmt::Write;

use super::sections;

/// All words as a page of Markdown.
///
/// ```
/// assert!(chordane_score::words::markdown().contains("circle(centre, radius)"));
/// ```
#[must_use]
pub fn markdown() -> String {
    let mut page = String::from(
        "# The words of a score\n\n\
         Made from the table that the engine itself is made from (`chordane words --markdown`); do not edit.\n\n\
         A score is a `.chord` file: lines of `let name = value;`, loops and functions, and as its last value the \
         sheet. The words are the same in Rust.\n",
    );
    for section in sections() {
        let _ = write!(page, "\n## {}\n\n", section.title);
        if !section.about.is_empty() {
            let _ = write!(page, "{}\n\n", section.about);
        }
        page.push_str("| word | gives | what it does | example |\n| --- | --- | --- | --- |\n");
        for word in &section.words {
            let form = word.form().replace('|', "\\|");
            let example = word.example.replace('\n', " ").replace('|', "\\|");
            let _ = writeln!(page, "| `{form}` | {} | {} | `{example}` |", word.gives.plain(), word.about);
        }
    }
    page
}
