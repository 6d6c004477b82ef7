//! Shapes drawn in the page, written into the score: shapes through marks, and shapes of clicked vertices.

use std::sync::Arc;

use chordane::draft::{Draft, Step, VertexKind};
use chordane_score::drafts;

use super::Session;
use crate::live::message::{MarkedShape, NewVertex, Told};
use crate::live::runs::Ran;
use crate::web::Answer;

impl Session<'_> {
    /// Adds shapes through marks to the sheet at the end of the score.
    pub(super) fn keep_shapes(&mut self, shapes: &[MarkedShape], answer: &Answer) {
        let item = |shape: &MarkedShape| {
            let numbers: Vec<String> = shape.numbers.iter().map(ToString::to_string).collect();
            let (word, paint) = if shape.closed {
                ("marks_closed", "fill(\"#c8553d\")")
            } else {
                ("marks_open", "stroke(\"#20303c\", 3)")
            };
            format!("{word}([{}]).{paint}", numbers.join(", "))
        };
        let items: Vec<String> = shapes.iter().map(item).collect();
        self.add_items("shapes through marks", &items, true, answer);
    }

    /// Reports the outline of a shape that is being drawn.
    pub(super) fn outline(&self, vertices: &[NewVertex], closed: bool, answer: &Answer) {
        let Some(ran) = &self.ran else { return };
        let draft = drawn(ran, vertices, closed);
        let outline = draft.shapes().next().map(|shape| shape.outline().transformed(&ran.view.inverse()));
        let outline = outline.map(|path| path.data_rounded(3)).unwrap_or_default();
        let _ = answer.send(Told::Outline { outline }.json());
    }

    /// Adds a shape of clicked vertices to the sheet at the end of the score.
    pub(super) fn new_shape(&mut self, vertices: &[NewVertex], closed: bool, answer: &Answer) {
        if self.stale.run {
            self.run();
        }
        let ran = self.ran.as_ref();
        let items = ran.map(|ran| drafts::items(&drawn(ran, vertices, closed))).unwrap_or_default();
        self.add_items("a new shape", &items, false, answer);
    }

    /// Adds items to the sheet at the end of the score, before any comments there.
    fn add_items(&mut self, what: &str, items: &[String], marks: bool, answer: &Answer) {
        let lines: String = items.iter().map(|item| format!("\n    .add({item})")).collect();
        let text = self.desk.text();
        let end = end_of_code(text);
        let (code, rest) = text.split_at_checked(end).unwrap_or((text, ""));
        let line = code.lines().count() + 1;
        let rest = if rest.trim().is_empty() { "\n" } else { rest };
        let text: Arc<str> = format!("{code}{lines}{rest}").into();
        let (settings, ready) = (self.settings(), &mut self.ready);
        let runs = !items.is_empty() && self.flags.running(|| ready.run(&text, &settings, &[])).is_ok();
        let why = "cannot add the shape here: end the score with its sheet, as in `page`, and try again";
        let made = runs.then(|| text.to_string());
        let done = made.is_some();
        self.take_text(what, made, why, answer);
        if done {
            let _ = answer.send(Told::Added { line, marks }.json());
        }
    }
}

/// A draft of one shape, its vertices in the sheet's own coordinates.
fn drawn(ran: &Ran, vertices: &[NewVertex], closed: bool) -> Draft {
    let add = |vertex: &NewVertex| Step::Add { at: ran.on_sheet(vertex.at), kind: vertex.kind };
    let finish = std::iter::once(Step::Finish { closed });
    Draft::of(vertices.iter().take(MAX_VERTICES).filter(|vertex| is_sound(vertex)).map(add).chain(finish))
}

/// The most vertices of a clicked shape.
const MAX_VERTICES: usize = 10_000;

fn is_sound(vertex: &NewVertex) -> bool {
    let radius = if let VertexKind::Rounded(radius) = vertex.kind { radius } else { 0.0 };
    vertex.at.iter().all(|value| value.is_finite()) && radius.is_finite()
}

/// Where a text ends without its trailing blank lines and whole-line comments.
fn end_of_code(text: &str) -> usize {
    let mut end = text.trim_end().len();
    while let Some(line) = text.get(..end).and_then(|text| text.lines().last())
        && line.trim_start().starts_with("//")
    {
        end = text.get(..end - line.len()).map_or(0, |before| before.trim_end().len());
    }
    end
}

#[cfg(test)]
mod tests {
    use super::end_of_code;

    #[test]
    fn comments_at_the_end_are_not_code() {
        for (text, code) in [
            ("page\n", "page"),
            ("let a = 1;\npage // of mine\n", "let a = 1;\npage // of mine"),
            ("page\n// one\n\n  // two\n\n", "page"),
            ("// one\n// two", ""),
            ("", ""),
        ] {
            assert_eq!(&text[..end_of_code(text)], code);
        }
    }
}
