//! `chordane words`: the words of a score.

use std::fmt::Write;

use chordane::ground::nearest;
use chordane_score::Words;
use chordane_score::words::{self, Word};
use textwrap::wrap;

use crate::failure::Failure;
use crate::options::WordsOptions;
use crate::output::{print, terminal_width};

pub(crate) fn show(options: &WordsOptions, words: &Words) -> Result<(), Failure> {
    let asked = options.word.join(" ");
    let text = match asked.as_str() {
        "language" if options.markdown => words::LANGUAGE_MD.to_owned(),
        _ if options.markdown => words::markdown(),
        "" => all(words),
        "language" => words::LANGUAGE_MD.to_owned(),
        asked => found(asked, words)?,
    };
    print(text.as_bytes())
}

/// The options that go with a word.
const OPTIONS: [(&str, &str); 14] = [
    ("asked_size", "Asked for with --size WxH, or with --sizes of chordane vary."),
    ("dice", "--seed 7 sets the seed; --seed new picks one and reports it."),
    ("given", "Handed in by a program in Rust; the command draws with the second argument."),
    ("knob", "Set with --set NAME=VALUE; --list-knobs shows all knobs of a score."),
    ("mark", "Marks are handed in with --marks FILE."),
    ("mark_numbers", "Marks are handed in with --marks FILE."),
    ("marks_closed", "Marks are handed in with --marks FILE."),
    ("marks_open", "Marks are handed in with --marks FILE."),
    ("phase", "One moment is drawn with --phase 0.25, a clip with --frames 24."),
    ("picture", "A picture is handed in with --picture NAME=FILE."),
    ("pointer", "Given with --pointer X,Y, or moved by --track FILE."),
    ("pointer_down", "Given with --pointer X,Y, or moved by --track FILE."),
    ("seconds", "The length of the loop is set with --seconds."),
    ("seed", "--seed 7 sets the seed; --seed new picks one and reports it."),
];

/// The width up to which a word's form stands beside what it does.
const FORM_WIDTH: usize = 34;

/// The width of a line where there is no terminal to fit into.
const PLAIN_WIDTH: usize = 100;

/// The width of a line: that of the terminal, as long as it leaves room for both columns and is easy to read.
fn line_width() -> usize {
    terminal_width().unwrap_or(PLAIN_WIDTH).clamp(FORM_WIDTH + 30, 120)
}

fn all(words: &Words) -> String {
    let mut text = String::new();
    for section in words::sections() {
        let _ = writeln!(text, "{}", section.title.to_uppercase());
        section.words.iter().for_each(|word| row(&mut text, word));
        text.push('\n');
    }
    if words.own().next().is_some() {
        text.push_str("ADDED BY THIS PROGRAM\n");
        words.own().for_each(|word| row(&mut text, word));
        text.push('\n');
    }
    text.push_str("One word with an example: chordane words circle; numbers, lists, functions: chordane words language\n");
    text
}

/// A word's form, and what it does beside it.
fn row(text: &mut String, word: &Word) {
    let form = word.form();
    let mut about = wrap(word.about, line_width() - FORM_WIDTH - 5).into_iter();
    if form.len() > FORM_WIDTH {
        let _ = writeln!(text, "  {form}");
    } else {
        let _ = writeln!(text, "  {form:FORM_WIDTH$}  {}", about.next().unwrap_or_default());
    }
    for line in about {
        let _ = writeln!(text, "  {:FORM_WIDTH$}  {line}", "");
    }
}

/// The word of a name, as it is listed or by another name that it has elsewhere; else all that speak of what was asked.
fn found(asked: &str, words: &Words) -> Result<String, Failure> {
    let name = asked.to_lowercase().replace([' ', '-'], "_");
    // As it stands in the list: `path.vertex_gap`, `stamp.at(share)`.
    let name = name.split('(').next().unwrap_or_default();
    let (on, name) = name.rsplit_once('.').map_or((None, name), |(on, name)| (Some(on), name));
    let listed = |word: &&Word| on.is_none_or(|on| on.is_empty() || word.form().starts_with(on));
    let mut text: String = words.named(name).filter(listed).map(one).collect();
    if text.is_empty() {
        text = words.named(name).map(one).collect();
    }
    if !text.is_empty() {
        text.extend(
            OPTIONS.iter().filter(|(word, _)| *word == name).map(|(_, said)| format!("  {said}\n\n")),
        );
        return Ok(text);
    }
    if let Some(write) = words::by_meaning(name) {
        let shown: String = words.all().filter(|word| is_called(word, write)).map(one).collect();
        return Ok(format!("there is no word `{name}`; write {write}\n\n{shown}"));
    }
    let terms: Vec<String> = asked.to_lowercase().split_whitespace().map(str::to_owned).collect();
    let speaks = |word: &&Word| {
        let all = format!("{} {}", word.form(), word.about).to_lowercase();
        terms.iter().all(|term| all.contains(term.as_str()))
    };
    let near = nearest(name, words.all().map(|word| word.name));
    if let (Some(near), [_]) = (near, &terms[..]) {
        let advice = format!("did you mean `{near}`? See them all with: chordane words");
        return Err(Failure::call(format!("there is no word `{name}`"), advice));
    }
    let speaking: Vec<&Word> = words.all().filter(speaks).collect();
    if !speaking.is_empty() {
        let _ = writeln!(text, "there is no word `{name}`; these speak of it:\n");
        speaking.into_iter().for_each(|word| row(&mut text, word));
        return Ok(text);
    }
    Err(Failure::call(
        format!("there is no word `{name}`, and none speaks of it"),
        "see them all with: chordane words",
    ))
}

/// Whether a word is called in a text, on something or by itself as the word is.
fn is_called(word: &Word, text: &str) -> bool {
    let on_something = !word.form().starts_with(word.name);
    text.match_indices(word.name).any(|(at, _)| {
        let before = text.get(..at).and_then(|before| before.chars().next_back());
        let behind = text.get(at + word.name.len()..).unwrap_or_default();
        let alone = before.is_none_or(|c| !c.is_alphanumeric() && c != '_');
        behind.starts_with('(') && alone && (before == Some('.')) == on_something
    })
}

fn one(word: &Word) -> String {
    let mut text = String::new();
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
    text
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn options_go_with_words_that_there_are() {
        for (word, said) in OPTIONS {
            assert!(
                found(word, &Words::new())
                    .is_ok_and(|text| text.contains("gives") && text.ends_with(&format!("  {said}\n\n"))),
                "{word}"
            );
        }
    }
}
