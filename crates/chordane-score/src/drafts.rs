//! Drafts as text: a score, Rust, and single items.

use chordane::draft::{Draft, DraftShape, VertexKind};
use chordane::ground::short;
use chordane::number::Point;

/// Positions are written with so many significant digits.
const DIGITS: u32 = 6;

/// The two languages in which a draft can be written.
#[derive(Clone, Copy, PartialEq, Eq)]
enum Language {
    Score,
    Rust,
}

/// Writes a draft as a score for a sheet of a size.
///
/// ```
/// use chordane::draft::{Draft, Step, VertexKind};
/// use chordane::prelude::*;
/// let corner = |x, y| Step::Add { at: pt(x, y), kind: VertexKind::Corner };
/// let draft = Draft::of([corner(0.0, 0.0), corner(40.0, 0.0), corner(40.0, 30.5), Step::Finish { closed: true }]);
/// assert_eq!(
///     chordane_score::drafts::score(&draft, 90.0, 60.0),
///     "let shape_1 = closed([[0, 0], [40, 0], [40, 30.5]]);\n\nsheet(90, 60)\n    .add(shape_1.fill(\"#c8553d\"))\n"
/// );
/// ```
#[must_use]
pub fn score(draft: &Draft, width: f64, height: f64) -> String {
    written(draft, width, height, Language::Score)
}

/// Writes a draft as Rust for a sheet of a size: statements, and the sheet as their value.
#[must_use]
pub fn rust(draft: &Draft, width: f64, height: f64) -> String {
    written(draft, width, height, Language::Rust)
}

/// Writes the shapes of a draft as expressions of a score, one for each shape with its holes and its paint.
///
/// ```
/// use chordane::draft::{Draft, Step, VertexKind};
/// use chordane::prelude::*;
/// let corner = |x, y| Step::Add { at: pt(x, y), kind: VertexKind::Corner };
/// let draft = Draft::of([corner(0.0, 0.0), corner(40.0, 0.0), corner(40.0, 30.5), Step::Finish { closed: true }]);
/// assert_eq!(chordane_score::drafts::items(&draft), ["closed([[0, 0], [40, 0], [40, 30.5]]).fill(\"#c8553d\")"]);
/// ```
#[must_use]
pub fn items(draft: &Draft) -> Vec<String> {
    let of = |shape: &DraftShape| outline(shape, Language::Score);
    let item = |shape: &DraftShape| {
        let holes: String = draft.holes(shape.id).map(|hole| format!(".with_hole({})", of(hole))).collect();
        format!("{}{holes}{}", of(shape), paint(shape, Language::Score))
    };
    draft.outlines().map(item).collect()
}

fn written(draft: &Draft, width: f64, height: f64, language: Language) -> String {
    let mut out = String::new();
    for shape in draft.shapes() {
        out.push_str(&format!("let shape_{} = {};\n", shape.id, outline(shape, language)));
    }
    if !out.is_empty() {
        out.push('\n');
    }
    let number = |value: f64| number(value, language);
    out.push_str(&format!("sheet({}, {})", number(width), number(height)));
    for shape in draft.outlines() {
        let holes: String =
            draft.holes(shape.id).map(|hole| format!(".with_hole(shape_{})", hole.id)).collect();
        out.push_str(&format!("\n    .add(shape_{}{holes}{})", shape.id, paint(shape, language)));
    }
    out.push('\n');
    out
}

/// The words that paint a shape.
fn paint(shape: &DraftShape, language: Language) -> String {
    if shape.closed {
        format!(".fill(\"{}\")", shape.fill())
    } else {
        format!(".stroke(\"{}\", {})", DraftShape::STROKE, number(2.0, language))
    }
}

/// The words that make an outline.
fn outline(shape: &DraftShape, language: Language) -> String {
    let vertices = &shape.vertices;
    let at = |point: Point| {
        let (x, y) = (number(point.x, language), number(point.y, language));
        if language == Language::Score { format!("[{x}, {y}]") } else { format!("({x}, {y})") }
    };
    if vertices.iter().all(|vertex| vertex.kind == VertexKind::Corner) {
        let list: Vec<String> = vertices.iter().map(|vertex| at(vertex.at)).collect();
        let word = if shape.closed { "closed" } else { "open" };
        let word = if language == Language::Score { word.to_owned() } else { format!("Path::{word}") };
        return format!("{word}([{}])", list.join(", "));
    }
    let list: Vec<String> = vertices
        .iter()
        .map(|vertex| match vertex.kind {
            VertexKind::Soft => format!("soft({})", at(vertex.at)),
            VertexKind::Rounded(radius) => {
                format!("rounded({}, {})", at(vertex.at), number(radius, language))
            }
            // A corner, and kinds that have no word yet.
            _ => format!("corner({})", at(vertex.at)),
        })
        .collect();
    format!("through([{}]).{}()", list.join(", "), if shape.closed { "close" } else { "open" })
}

fn number(value: f64, language: Language) -> String {
    let text = short(value, DIGITS);
    if language == Language::Rust && !text.contains('.') { text + ".0" } else { text }
}
