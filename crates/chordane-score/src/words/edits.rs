//! Words that change single vertices, and the broad nib.

use chordane::prelude::*;

use super::entry::{Section, Word, word};
use crate::call::Call;
use crate::call_error::CallError;
use crate::values::Builder;

pub(super) fn section() -> Section {
    Section {
        title: "Vertices and nibs",
        about: "A vertex is identified by its tag, or by its index within its contour, counted from 0 as `--bones` shows it. Moving a vertex moves its handles too.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            ".tagged(tag)",
            "Tags the vertex at the pen's position, so that `shifted` can refer to it.",
            r#"start(pt(0, 0)).line([40, 30]).tagged("tip").line([0, 60]).close().shifted("tip", [10, 0])"#,
            |pen: Builder<Pen>, tag: String| pen.draw(|pen| pen.tagged(&tag)),
        ),
        word(
            ".tagged(tag, vertices)",
            "Tags vertices of the first contour by their indices.",
            r#"polygon(pt(0, 0), 6, 40).tagged("right", [0, 1]).shifted("right", [12, 0])"#,
            |path: Path, tag: String, vertices: Vec<f64>| {
                if let Some(bad) = vertices.iter().find(|n| n.trunc() != **n || **n < 0.0) {
                    return Err(CallError::new(format!(
                        "vertices are counted in whole numbers from 0 up, and {bad} is not one"
                    )));
                }
                Ok(path.tagged(&tag, vertices.into_iter().map(|n| n as usize)))
            },
        ),
        word(
            ".tagged(tag)",
            "Tags a vertex of a smooth curve.",
            r#"through([[0, 0], soft([40, 30]).tagged("belly"), [0, 60]]).close().shifted("belly", [10, 0])"#,
            |vertex: Vertex, tag: String| vertex.tagged(&tag),
        ),
        word(
            "tagged(tag, vertices)",
            "A list of smooth-curve vertices that all have the same tag.",
            r#"through([[0, 0]] + tagged("belly", [[40, 20], [40, 40]]) + [[0, 60]]).close().shifted("belly", [10, 0])"#,
            |tag: String, vertices: Vec<Vertex>| tagged(&tag, vertices).into_iter().collect::<Vec<_>>(),
        ),
        word(
            ".shifted(tag, step)",
            "Moves all vertices with a tag, and their handles, by a vector.",
            r#"start(pt(0, 0)).line([40, 30]).tagged("tip").line([0, 60]).close().shifted("tip", [10, 0])"#,
            |path: Path, tag: String, step: Point| path.shifted(&tag, step),
        ),
        word(
            ".replaced(vertex, with)",
            "Moves a vertex of the first contour, with its handles, to a point.",
            "polygon(pt(0, 0), 4, 40).replaced(0, [60, 0])",
            |path: Path, vertex: usize, with: Point| path.replaced(vertex, with),
        ),
        word(
            ".replaced(contour, vertex, with)",
            "Moves a vertex of any contour, with its handles, to a point.",
            "ring(pt(0, 0), 40, 20).replaced(1, 2, [-5, 0])",
            |path: Path, contour: usize, vertex: usize, with: Point| path.replaced((contour, vertex), with),
        ),
        word(
            ".inserted(vertex, point)",
            "Inserts a vertex into the first contour at this index; a curve there is split so that it passes through the point.",
            "polygon(pt(0, 0), 4, 40).inserted(1, [30, 30])",
            |path: Path, vertex: usize, point: Point| path.inserted(vertex, point),
        ),
        word(
            ".inserted(contour, vertex, point)",
            "Inserts a vertex into any contour at this index.",
            "ring(pt(0, 0), 40, 20).inserted(1, 1, [5, 5])",
            |path: Path, contour: usize, vertex: usize, point: Point| path.inserted((contour, vertex), point),
        ),
        word(
            ".removed(vertex)",
            "Removes a vertex of the first contour and joins its neighbours.",
            "polygon(pt(0, 0), 6, 40).removed(2)",
            |path: Path, vertex: usize| path.removed(vertex),
        ),
        word(
            ".removed(contour, vertex)",
            "Removes a vertex of any contour and joins its neighbours.",
            "ring(pt(0, 0), 40, 20).removed(1, 2)",
            |path: Path, contour: usize, vertex: usize| path.removed((contour, vertex)),
        ),
        word(
            ".nibbed(across, down)",
            "The area that a broad nib covers along the path: vertical strokes are `across` wide, horizontal ones `down` high.",
            "open([[0, 60], [0, 0], [40, 0]]).nibbed(12, 4)",
            |path: Path, across: f64, down: f64| nibbed(&path, across, down, |nib| nib),
        ),
        word(
            ".nibbed(across, down, slant)",
            "The area that a broad nib covers along the path, with the nib turned by an angle, clockwise on screen.",
            "flowing([[0, 0], [40, 30], [80, 0]]).open().nibbed(12, 3, deg(-40))",
            |path: Path, across: f64, down: f64, slant: Angle| {
                nibbed(&path, across, down, |nib| Nib { slant, ..nib })
            },
        ),
        word(
            ".nibbed(across, down, slant, cap, join)",
            "The area that a turned broad nib covers along the path, with the named cap and join.",
            r#"open([[0, 60], [0, 0], [40, 0]]).nibbed(12, 4, deg(0), "round", "round")"#,
            |call: &Call<'_>, path: Path, across: f64, down: f64, slant: Angle, cap: String, join: String| {
                let (cap, join) = (call.choice(&cap)?, call.choice(&join)?);
                Ok::<_, CallError>(nibbed(&path, across, down, |nib| Nib { slant, cap, join, ..nib }))
            },
        ),
    ]
}

/// Under a nib, true to a five-hundredth of its size.
fn nibbed(path: &Path, across: f64, down: f64, shaped: impl FnOnce(Nib) -> Nib) -> Path {
    let tolerance = (across.max(down) / 500.0).max(f64::MIN_POSITIVE);
    path.nibbed(&shaped(Nib::new(across, down)), tolerance)
}
