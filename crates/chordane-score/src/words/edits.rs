//! Words that change single vertices, and the broad nib.

use chordane::prelude::*;
use rhai::Dynamic;

use super::pen::{draw, path};
use super::{Args, Kind, Refusal, Section, Word};

pub(super) const SECTION: Section = Section {
    title: "Vertices and nibs",
    about: "A vertex is known by its tag, or by its number in its contour, counted from 0 as the bones show it. A vertex moves with its handles.",
    words: WORDS,
};

const WORDS: &[Word] = &[
    Word {
        name: "tagged",
        on: &[Kind::Pen],
        takes: &[("tag", Kind::Text)],
        gives: Kind::Pen,
        about: "Tags the vertex that the pen stands on, so that `shifted` finds it again.",
        example: r#"start(pt(0, 0)).line([40, 30]).tagged("tip").line([0, 60]).close().shifted("tip", [10, 0])"#,
        run: |a| {
            let tag = a.text(1);
            draw(a, |pen| pen.tagged(&tag))
        },
    },
    Word {
        name: "tagged",
        on: &[Kind::Path],
        takes: &[("tag", Kind::Text), ("vertices", Kind::Numbers)],
        gives: Kind::Path,
        about: "Tags several vertices of the first contour, by their numbers.",
        example: r#"polygon(pt(0, 0), 6, 40).tagged("right", [0, 1]).shifted("right", [12, 0])"#,
        run: |a| {
            let counts = a.numbers(2);
            if let Some(bad) = counts.iter().find(|n| n.trunc() != **n || **n < 0.0) {
                return Err(Refusal::new(format!(
                    "a vertex has a whole number from 0 up, and {bad} is none"
                )));
            }
            path(a.path(0).tagged(&a.text(1), counts.into_iter().map(|n| n as usize)))
        },
    },
    Word {
        name: "tagged",
        on: &[Kind::Vertex],
        takes: &[("tag", Kind::Text)],
        gives: Kind::Vertex,
        about: "Tags a vertex of a smooth curve.",
        example: r#"through([[0, 0], soft([40, 30]).tagged("belly"), [0, 60]]).close().shifted("belly", [10, 0])"#,
        run: |a| Ok(Dynamic::from(a.vertex(0).tagged(&a.text(1)))),
    },
    Word {
        name: "tagged",
        on: &[],
        takes: &[("tag", Kind::Text), ("vertices", Kind::Vertices)],
        gives: Kind::Vertices,
        about: "A list of vertices of a smooth curve that all carry a tag.",
        example: r#"through([[0, 0]] + tagged("belly", [[40, 20], [40, 40]]) + [[0, 60]]).close().shifted("belly", [10, 0])"#,
        run: |a| {
            let list = tagged(&a.text(0), a.vertices(1));
            Ok(list.into_iter().map(Dynamic::from).collect::<rhai::Array>().into())
        },
    },
    Word {
        name: "shifted",
        on: &[Kind::Path],
        takes: &[("tag", Kind::Text), ("step", Kind::Point)],
        gives: Kind::Path,
        about: "All vertices of a tag moved by a step, with their handles.",
        example: r#"start(pt(0, 0)).line([40, 30]).tagged("tip").line([0, 60]).close().shifted("tip", [10, 0])"#,
        run: |a| path(a.path(0).shifted(&a.text(1), a.point(2))),
    },
    Word {
        name: "replaced",
        on: &[Kind::Path],
        takes: &[("vertex", Kind::Count), ("with", Kind::Point)],
        gives: Kind::Path,
        about: "A vertex of the first contour moved to a point, with its handles.",
        example: "polygon(pt(0, 0), 4, 40).replaced(0, [60, 0])",
        run: |a| path(a.path(0).replaced(a.count(1), a.point(2))),
    },
    Word {
        name: "replaced",
        on: &[Kind::Path],
        takes: &[("contour", Kind::Count), ("vertex", Kind::Count), ("with", Kind::Point)],
        gives: Kind::Path,
        about: "A vertex of any contour moved to a point.",
        example: "ring(pt(0, 0), 40, 20).replaced(1, 2, [-5, 0])",
        run: |a| path(a.path(0).replaced((a.count(1), a.count(2)), a.point(3))),
    },
    Word {
        name: "inserted",
        on: &[Kind::Path],
        takes: &[("vertex", Kind::Count), ("point", Kind::Point)],
        gives: Kind::Path,
        about: "A new vertex of the first contour that gets this number; a curve is split and goes through it.",
        example: "polygon(pt(0, 0), 4, 40).inserted(1, [30, 30])",
        run: |a| path(a.path(0).inserted(a.count(1), a.point(2))),
    },
    Word {
        name: "inserted",
        on: &[Kind::Path],
        takes: &[("contour", Kind::Count), ("vertex", Kind::Count), ("point", Kind::Point)],
        gives: Kind::Path,
        about: "A new vertex of any contour.",
        example: "ring(pt(0, 0), 40, 20).inserted(1, 1, [12, 12])",
        run: |a| path(a.path(0).inserted((a.count(1), a.count(2)), a.point(3))),
    },
    Word {
        name: "removed",
        on: &[Kind::Path],
        takes: &[("vertex", Kind::Count)],
        gives: Kind::Path,
        about: "Without a vertex of the first contour; its neighbours are joined.",
        example: "polygon(pt(0, 0), 6, 40).removed(2)",
        run: |a| path(a.path(0).removed(a.count(1))),
    },
    Word {
        name: "removed",
        on: &[Kind::Path],
        takes: &[("contour", Kind::Count), ("vertex", Kind::Count)],
        gives: Kind::Path,
        about: "Without a vertex of any contour.",
        example: "ring(pt(0, 0), 40, 20).removed(1, 2)",
        run: |a| path(a.path(0).removed((a.count(1), a.count(2)))),
    },
    Word {
        name: "nibbed",
        on: &[Kind::Path],
        takes: &[("across", Kind::Number), ("down", Kind::Number)],
        gives: Kind::Path,
        about: "The area that a broad nib paints along the path: upright strokes `across` wide, level ones `down` high.",
        example: "open([[0, 60], [0, 0], [40, 0]]).nibbed(12, 4)",
        run: |a| nibbed(a, |nib| nib),
    },
    Word {
        name: "nibbed",
        on: &[Kind::Path],
        takes: &[("across", Kind::Number), ("down", Kind::Number), ("slant", Kind::Angle)],
        gives: Kind::Path,
        about: "The same with the nib turned, clockwise as seen.",
        example: "flowing([[0, 0], [40, 30], [80, 0]]).open().nibbed(12, 3, deg(-40))",
        run: |a| {
            let slant = a.angle(3);
            nibbed(a, |nib| nib.slant(slant))
        },
    },
    Word {
        name: "nibbed",
        on: &[Kind::Path],
        takes: &[
            ("across", Kind::Number),
            ("down", Kind::Number),
            ("slant", Kind::Angle),
            ("cap", Kind::Text),
            ("join", Kind::Text),
        ],
        gives: Kind::Path,
        about: "The same with caps and joins of these names.",
        example: r#"open([[0, 60], [0, 0], [40, 0]]).nibbed(12, 4, deg(0), "round", "round")"#,
        run: |a| {
            let slant = a.angle(3);
            let cap = chordane::ground::Given::<Cap>::from(a.text(4).as_str()).resolve("nibbed")?;
            let join = chordane::ground::Given::<Join>::from(a.text(5).as_str()).resolve("nibbed")?;
            nibbed(a, |nib| nib.slant(slant).cap(cap).join(join))
        },
    },
];

/// Under a nib, true to a five-hundredth of its size.
fn nibbed(a: &Args<'_, '_>, shaped: impl FnOnce(Nib) -> Nib) -> Result<Dynamic, Refusal> {
    let (across, down) = (a.number(1), a.number(2));
    let tolerance = (across.max(down) / 500.0).max(f64::MIN_POSITIVE);
    path(a.path(0).nibbed(&shaped(Nib::new(across, down)), tolerance))
}
