//! Words for paint that is itself drawn: pictures, patterns, and colours that follow a path.

use chordane::number::Cell;
use chordane::prelude::*;
use chordane::sheet::Node;

use super::entry::{Section, Word, word};
use crate::call::Call;
use crate::call_error::CallError;
use crate::values::Tint;

pub(super) fn section() -> Section {
    Section {
        title: "Pictures and patterns",
        about: "Paint that is itself drawn: give it to `fill`, `stroke` and `ground`. A picture as paint lies in the bounds of what it paints, unless `over` says \
            otherwise; a pattern lies in the coordinates of the path.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            "picture(name)",
            "A picture from a PNG or JPEG file below the score's own folder, or one that is handed in under a name.",
            r##"circle(pt(0, 0), 40).fill(picture("kite.png"))"##,
            |call: &Call<'_>, name: String| call.stage(|stage| stage.picture(&name)).map_err(CallError::from),
        ),
        word(
            "picture(colours, columns)",
            "A picture made of pixels, one per colour, in rows of `columns` pixels.",
            r##"circle(pt(0, 0), 40).fill(picture(["gold", "teal", "teal", "gold"], 2).sampled("nearest"))"##,
            |colours: Vec<Tint>, columns: usize| {
                let pixels = colours.iter().map(|one| one.of("picture")).collect::<Result<Vec<_>, _>>()?;
                let rows = pixels
                    .len()
                    .checked_div(columns)
                    .filter(|rows| *rows > 0 && rows * columns == pixels.len());
                let Some(rows) = rows else {
                    let told =
                        format!("`picture`: {} colours do not fill whole rows of {columns}", pixels.len());
                    return Err(
                        CallError::new(told).advise("give as many colours for each row, at least one")
                    );
                };
                let pixels: Vec<[u8; 4]> = pixels.into_iter().map(Colour::to_rgba8).collect();
                Ok(Picture::from_rgba(columns as u32, rows as u32, pixels.as_flattened())?)
            },
        ),
        word(
            ".fitted(way)",
            "How the picture fits the bounds of the shape it paints, or its cell: `cover` (the default), `contain` or `stretch`.",
            r##"circle(pt(0, 0), 40).fill(picture(["gold", "teal"], 2).fitted("stretch"))"##,
            |picture: Picture, way: String| picture.fitted(way.as_str()),
        ),
        word(
            ".sampled(way)",
            "How the picture is resampled when enlarged: `smooth` (the default), or `nearest`, which keeps pixels as squares.",
            r##"circle(pt(0, 0), 40).fill(picture(["gold", "teal"], 2).sampled("nearest"))"##,
            |picture: Picture, way: String| picture.sampled(way.as_str()),
        ),
        word(
            ".over(cell)",
            "Places the picture, as paint, over a cell instead of over the bounds of the shape it paints.",
            r##"circle(pt(0, 0), 40).fill(picture(["gold", "teal"], 2).over(cell(pt(-60, -40), 120, 80)))"##,
            |picture: Picture, cell: Cell| picture.over(cell),
        ),
        word(
            ".shown_in(cell)",
            "A picture as an item, fitted into a cell.",
            r##"picture(["gold", "teal", "teal", "gold"], 2).fitted("contain").shown_in(cell(pt(0, 0), 60, 40))"##,
            |picture: Picture, cell: Cell| picture.shown_in(cell),
        ),
        word(
            ".size()",
            "The width and height of a picture in pixels.",
            r##"picture(["gold", "teal"], 2).size().x"##,
            |picture: Picture| pt(f64::from(picture.width()), f64::from(picture.height())),
        ),
        word(
            "pattern(cell, node)",
            "A pattern that repeats a drawing cell by cell; parts outside the cell are clipped.",
            r##"circle(pt(0, 0), 40).fill(pattern(cell(pt(0, 0), 10, 10), circle(pt(5, 5), 3).fill("teal")))"##,
            |cell: Cell, node: Node| {
                sheet(1.0, 1.0).add(node.clone()).sound()?;
                Ok::<_, CallError>(pattern(cell, node))
            },
        ),
        word(
            "pattern(sheet)",
            "A pattern that repeats a whole sheet, including its background.",
            r##"circle(pt(0, 0), 40).fill(pattern(sheet(10, 10).ground("gold").add(circle(pt(5, 5), 3).fill("teal"))))"##,
            |tile: Sheet| {
                tile.sound()?;
                Ok::<_, CallError>(Pattern::of_sheet(&tile))
            },
        ),
        word(
            ".moved(step)",
            "Translates a pattern by a vector.",
            r##"circle(pt(0, 0), 40).fill(pattern(cell(pt(0, 0), 9, 9), circle(pt(4, 4), 3).fill("teal")).moved([2, 2]))"##,
            |pattern: Pattern, step: Point| pattern.moved(step),
        ),
        word(
            ".rotated(angle)",
            "Rotates a pattern about the origin; positive angles turn clockwise on screen.",
            r##"circle(pt(0, 0), 40).fill(pattern(cell(pt(0, 0), 8, 8), rectangle(pt(0, 0), 8, 4).fill("teal")).rotated(deg(30)))"##,
            |pattern: Pattern, angle: Angle| pattern.rotated(angle),
        ),
        word(
            ".scaled(factor)",
            "Scales a pattern uniformly about the origin.",
            r##"circle(pt(0, 0), 40).fill(pattern(cell(pt(0, 0), 8, 8), rectangle(pt(0, 0), 8, 4).fill("teal")).scaled(0.5))"##,
            |pattern: Pattern, factor: f64| pattern.scaled(factor),
        ),
        word(
            "by_vertex(colours)",
            "Paint with one colour per vertex of a path, in order; a shorter list is repeated. Between vertices the colours blend into one another.",
            r##"polygon(pt(0, 0), 5, 40).fill(by_vertex(["gold", "teal", "navy", "white", "#c8553d"]))"##,
            |colours: Vec<Tint>| {
                let colours =
                    colours.into_iter().map(|one| one.of("by_vertex")).collect::<Result<Vec<_>, _>>()?;
                Ok::<_, CallError>(by_vertex(colours))
            },
        ),
        word(
            "along(gradient)",
            "Stroke paint that runs a gradient along the length of the line, from its start to its end.",
            r##"spiral(pt(0, 0), 5, 40, 2).stroke(along(linear_gradient([0, 0], [1, 0]).colours(["gold", "navy"])), 6)"##,
            |gradient: Gradient| along(gradient),
        ),
    ]
}
