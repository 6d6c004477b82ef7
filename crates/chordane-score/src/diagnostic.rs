//! Errors with an excerpt of their source, for miette.

use chordane::ground::visible;
use miette::{Diagnostic, LabeledSpan, NamedSource, SourceCode, SourceSpan};

use crate::ScoreError;

/// An excerpt of a source with a marked range.
#[derive(Debug)]
pub(crate) struct Marked {
    source: NamedSource<String>,
    offset: usize,
    length: usize,
}

impl Marked {
    /// Marks the word at a line and a column of a source.
    pub(crate) fn new(name: &str, source: &str, line: usize, column: usize) -> Self {
        let (source, line, column) = excerpt(source, line, column);
        let begin: usize = source.split_inclusive('\n').take(line.saturating_sub(1)).map(str::len).sum();
        let text = source.get(begin..).unwrap_or_default();
        let text = text.split('\n').next().unwrap_or_default();
        let skipped: usize = text.chars().take(column.saturating_sub(1)).map(char::len_utf8).sum();
        let rest = text.get(skipped..).unwrap_or_default();
        let word: usize =
            rest.chars().take_while(|c| c.is_alphanumeric() || *c == '_').map(char::len_utf8).sum();
        // If there is no word here, mark a single character.
        let length = if word > 0 { word } else { rest.chars().next().map_or(0, char::len_utf8) };
        Self { source: NamedSource::new(visible(name), source), offset: begin + skipped, length }
    }
}

impl Diagnostic for ScoreError {
    fn help<'a>(&'a self) -> Option<Box<dyn std::fmt::Display + 'a>> {
        self.advice().map(|advice| Box::new(advice) as Box<dyn std::fmt::Display>)
    }

    fn source_code(&self) -> Option<&dyn SourceCode> {
        self.marked().map(|marked| &marked.source as &dyn SourceCode)
    }

    fn labels(&self) -> Option<Box<dyn Iterator<Item = LabeledSpan> + '_>> {
        let marked = self.marked()?;
        let span = SourceSpan::from((marked.offset, marked.length));
        Some(Box::new(std::iter::once(LabeledSpan::new_with_span(Some("here".to_owned()), span))))
    }
}

/// Maximum length of a line that is shown whole, in bytes.
const LONGEST_LINE: usize = 300;

/// Returns the lines around a position, with control characters made visible and long lines shortened, and the position
/// within the result.
fn excerpt(source: &str, line: usize, column: usize) -> (String, usize, usize) {
    let long = |text: &str| text.len() > LONGEST_LINE;
    let mut shown_column = column;
    let mut text = String::with_capacity(source.len().min(1 << 16));
    for (i, one) in source.split('\n').enumerate() {
        // Only the line and its neighbours are shown.
        if i + 2 < line {
            text.push('\n');
            continue;
        }
        if i > line {
            break;
        }
        // A skipped line has its line break already.
        if i > 0 && i + 1 >= line {
            text.push('\n');
        }
        let one = one.strip_suffix('\r').unwrap_or(one);
        if !long(one) {
            text.push_str(&visible(one));
            continue;
        }
        let first = if i + 1 == line { column.saturating_sub(LONGEST_LINE / 2) } else { 0 };
        if first > 0 {
            text.push('…');
            shown_column = column - first + 1;
        }
        text.push_str(&visible(&one.chars().skip(first).take(LONGEST_LINE).collect::<String>()));
        text.push('…');
    }
    (text, line, shown_column)
}
