//! `chordane words`: the words of a score.

use std::fmt::Write;

use chordane::ground::nearest;
use chordane_score::words;
use textwrap::wrap;

use crate::failure::Failure;
use crate::options::WordsOptions;
use crate::output::{print, terminal_width};

pub(crate) fn show(options: &WordsOptions) -> Result<(), Failure> {
    let text = match &options.word {
        _ if options.markdown => words::markdown(),
        Some(word) => one(word)?,
        None => all(),
    };
    print(text.as_bytes())
}

/// The width up to which a word's form stands beside what it does.
const FORM_WIDTH: usize = 34;

/// The width of a line where there is no terminal to fit into.
const PLAIN_WIDTH: usize = 100;

/// The width of a line: that of the terminal, as long as it leaves room for both columns and is easy to read.
fn line_width() -> usize {
    terminal_width().unwrap_or(PLAIN_WIDTH).clamp(FORM_WIDTH + 30, 120)
}

fn all() -> String {
    let about_width = line_width() - FORM_WIDTH - 5;
    let mut text = String::new();
    for section in words::sections() {
        let _ = writeln!(text, "{}", section.title.to_uppercase());
        for word in &section.words {
            let form = word.form();
            let mut about = wrap(word.about, about_width).into_iter();
            if form.len() > FORM_WIDTH {
                let _ = writeln!(text, "  {form}");
            } else {
                let _ = writeln!(text, "  {form:FORM_WIDTH$}  {}", about.next().unwrap_or_default());
            }
            for line in about {
                let _ = writeln!(text, "  {:FORM_WIDTH$}  {line}", "");
            }
        }
        text.push('\n');
    }
    text.push_str("One word with an example: chordane words circle\n");
    text
}

fn one(name: &str) -> Result<String, Failure> {
    let mut text = String::new();
    for word in words::named(name) {
        let _ = writeln!(text, "{}", word.form());
        let _ = writeln!(text, "  gives {}", word.gives.described());
        for (what, kind) in &word.takes {
            let _ = writeln!(text, "  {what:12} {}", kind.described());
        }
        text.push('\n');
        for line in wrap(word.about, line_width().min(PLAIN_WIDTH) - 3) {
            let _ = writeln!(text, "  {line}");
        }
        text.push('\n');
        for line in word.example.lines() {
            let _ = writeln!(text, "      {line}");
        }
        text.push('\n');
    }
    if text.is_empty() {
        let near = nearest(name, words::all().map(|word| word.name));
        return Err(Failure::call(
            format!("there is no word `{name}`"),
            near.map_or_else(
                || "see them all with: chordane words".to_owned(),
                |near| format!("did you mean `{near}`? See them all with: chordane words"),
            ),
        ));
    }
    Ok(text)
}
