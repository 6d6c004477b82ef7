//! A draft as paths, as a sheet, and as text: a score, Rust, path data.

use super::{Draft, DraftShape, VertexKind};
use crate::ground::short;
use crate::number::Point;
use crate::path::Path;
use crate::sheet::{Sheet, sheet};

/// Positions are written with so many significant digits.
const DIGITS: u32 = 6;

/// How shapes are painted where nothing is said of it.
const FILL: &str = "#c8553d";
const STROKE: &str = "#20303c";

/// The two languages in which a draft can be written.
#[derive(Clone, Copy, PartialEq, Eq)]
enum Language {
    Score,
    Rust,
}

impl Draft {
    /// The paths of the shapes, each with its holes, in the order in which they were begun.
    #[must_use]
    pub fn paths(&self) -> Vec<Path> {
        self.whole().map(|shape| self.path(shape)).collect()
    }

    fn whole(&self) -> impl Iterator<Item = &DraftShape> {
        self.shapes().filter(|shape| shape.hole_of().is_none())
    }

    fn holes(&self, of: usize) -> impl Iterator<Item = &DraftShape> {
        self.shapes().filter(move |shape| shape.hole_of() == Some(of))
    }

    fn path(&self, shape: &DraftShape) -> Path {
        self.holes(shape.id()).fold(shape.outline(), |path, hole| path.with_hole(hole.outline()))
    }

    /// The draft on a sheet of a size: closed shapes filled, open ones as lines.
    #[must_use]
    pub fn sheet(&self, width: f64, height: f64) -> Sheet {
        let item = |shape: &DraftShape| {
            let path = self.path(shape);
            if shape.is_closed() { path.fill(fill(shape).as_str()) } else { path.stroke(STROKE, 2.0) }
        };
        sheet(width, height).add_all(self.whole().map(item))
    }

    /// The draft as path data, a path a line.
    #[must_use]
    pub fn data(&self) -> String {
        self.paths().iter().map(|path| path.data_rounded(3) + "\n").collect()
    }

    /// The draft as a score for a sheet of a size.
    ///
    /// ```
    /// use chordane::draft::{Draft, Step, VertexKind};
    /// use chordane::prelude::*;
    /// let mut draft = Draft::new();
    /// for at in [pt(0.0, 0.0), pt(40.0, 0.0), pt(40.0, 30.5)] {
    ///     draft.apply(Step::Add { at, kind: VertexKind::Corner })?;
    /// }
    /// draft.apply(Step::Finish { closed: true })?;
    /// assert_eq!(
    ///     draft.score(90.0, 60.0),
    ///     "let shape_1 = closed([[0, 0], [40, 0], [40, 30.5]]);\n\nsheet(90, 60)\n    .add(shape_1.fill(\"#c8553d\"))\n"
    /// );
    /// # Ok::<(), chordane::draft::StepError>(())
    /// ```
    #[must_use]
    pub fn score(&self, width: f64, height: f64) -> String {
        self.written(width, height, Language::Score)
    }

    /// The shapes as expressions of a score, one for each shape with its holes and its paint.
    ///
    /// ```
    /// use chordane::draft::{Draft, Step, VertexKind};
    /// use chordane::prelude::*;
    /// let corner = |x, y| Step::Add { at: pt(x, y), kind: VertexKind::Corner };
    /// let draft = Draft::of([corner(0.0, 0.0), corner(40.0, 0.0), corner(40.0, 30.5), Step::Finish { closed: true }]);
    /// assert_eq!(draft.items(), ["closed([[0, 0], [40, 0], [40, 30.5]]).fill(\"#c8553d\")"]);
    /// ```
    #[must_use]
    pub fn items(&self) -> Vec<String> {
        let of = |shape: &DraftShape| outline(shape, Language::Score);
        let item = |shape: &DraftShape| {
            let holes: String =
                self.holes(shape.id()).map(|hole| format!(".with_hole({})", of(hole))).collect();
            format!("{}{holes}{}", of(shape), paint(shape, Language::Score))
        };
        self.whole().map(item).collect()
    }

    /// The draft as Rust, for a sheet of a size: statements, and the sheet as their value.
    #[must_use]
    pub fn rust(&self, width: f64, height: f64) -> String {
        self.written(width, height, Language::Rust)
    }

    fn written(&self, width: f64, height: f64, language: Language) -> String {
        let mut out = String::new();
        for shape in self.shapes() {
            out.push_str(&format!("let shape_{} = {};\n", shape.id(), outline(shape, language)));
        }
        if !out.is_empty() {
            out.push('\n');
        }
        let number = |value: f64| number(value, language);
        out.push_str(&format!("sheet({}, {})", number(width), number(height)));
        for shape in self.whole() {
            let holes: String =
                self.holes(shape.id()).map(|hole| format!(".with_hole(shape_{})", hole.id())).collect();
            out.push_str(&format!("\n    .add(shape_{}{holes}{})", shape.id(), paint(shape, language)));
        }
        out.push('\n');
        out
    }
}

fn fill(shape: &DraftShape) -> String {
    let hex = |[red, green, blue]: [u8; 3]| format!("#{red:02x}{green:02x}{blue:02x}");
    shape.colour().map_or_else(|| FILL.to_owned(), hex)
}

/// The words that paint a shape.
fn paint(shape: &DraftShape, language: Language) -> String {
    if shape.is_closed() {
        format!(".fill(\"{}\")", fill(shape))
    } else {
        format!(".stroke(\"{STROKE}\", {})", number(2.0, language))
    }
}

/// The words that make an outline.
fn outline(shape: &DraftShape, language: Language) -> String {
    let vertices = shape.vertices();
    let at = |point: Point| {
        let (x, y) = (number(point.x, language), number(point.y, language));
        if language == Language::Score { format!("[{x}, {y}]") } else { format!("({x}, {y})") }
    };
    if vertices.iter().all(|vertex| vertex.kind == VertexKind::Corner) {
        let list: Vec<String> = vertices.iter().map(|vertex| at(vertex.at)).collect();
        let word = if shape.is_closed() { "closed" } else { "open" };
        let word = if language == Language::Score { word.to_owned() } else { format!("Path::{word}") };
        return format!("{word}([{}])", list.join(", "));
    }
    let list: Vec<String> = vertices
        .iter()
        .map(|vertex| match vertex.kind {
            VertexKind::Corner => format!("corner({})", at(vertex.at)),
            VertexKind::Soft => format!("soft({})", at(vertex.at)),
            VertexKind::Rounded(radius) => {
                format!("rounded({}, {})", at(vertex.at), number(radius, language))
            }
        })
        .collect();
    format!("through([{}]).{}()", list.join(", "), if shape.is_closed() { "close" } else { "open" })
}

fn number(value: f64, language: Language) -> String {
    let text = short(value, DIGITS);
    if language == Language::Rust && !text.contains('.') { text + ".0" } else { text }
}
