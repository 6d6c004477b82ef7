//! Words for cells and extents, and for triangles.

use chordane::ground::trimmed;
use chordane::number::Along;
use chordane::number::Cell;
use chordane::prelude::*;

use super::entry::{Section, Word, word};
use crate::call::Call;
use crate::call_error::CallError;

pub(super) fn section() -> Section {
    Section {
        title: "Cells and triangles",
        about: "A cell is a rectangle that shapes are fitted to. An extent is a fraction of a cell plus a fixed length: `part(0.7) + 12`. In `at`, plain numbers are fractions.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            "cell(corner, width, height)",
            "A cell given by its top left corner, its width and its height.",
            "cell(pt(0, 0), 200, 100).at(0.5, 1)",
            |corner: Point, width: f64, height: f64| cell(corner, width, height),
        ),
        word(".cell()", "The whole sheet as a cell.", "sheet(640, 480).cell().centre()", |sheet: Sheet| {
            sheet.cell()
        }),
        word(
            "part(share)",
            "A fraction of a length that is known only later. Fixed lengths can be added to it.",
            "cell(pt(0, 0), 200, 100).at(part(1) - 12, 0.5)",
            |share: f64| part(share),
        ),
        word(
            ".at(across, down)",
            "A point in the cell: fractions from 0 to 1 across and down, or extents.",
            "cell(pt(0, 0), 200, 100).at(0, 1)",
            |cell: Cell, across: Along, down: Along| cell.at(across, down),
        ),
        word(".centre()", "The centre of the cell.", "cell(pt(0, 0), 200, 100).centre()", |cell: Cell| {
            cell.centre()
        }),
        word(
            ".size()",
            "The width and height of the cell.",
            "cell(pt(0, 0), 200, 100).size().x",
            |cell: Cell| cell.size(),
        ),
        word(
            ".inset(by)",
            "The cell reduced by a margin on every side: a length or an extent.",
            "cell(pt(0, 0), 200, 100).inset(10)",
            |call: &Call<'_>, cell: Cell, by: Extent| inset(call, &cell, [by; 4]),
        ),
        word(
            ".inset(beside, above)",
            "The cell reduced by one margin left and right and another at top and bottom.",
            "cell(pt(0, 0), 200, 100).inset(part(0.1), 10)",
            |call: &Call<'_>, cell: Cell, beside: Extent, above: Extent| {
                inset(call, &cell, [above, beside, above, beside])
            },
        ),
        word(
            ".inset(top, right, bottom, left)",
            "The cell reduced by a separate margin on each side.",
            "cell(pt(0, 0), 200, 100).inset(10, 0, 10, part(0.5))",
            |call: &Call<'_>, cell: Cell, top: Extent, right: Extent, bottom: Extent, left: Extent| {
                inset(call, &cell, [top, right, bottom, left])
            },
        ),
        word(
            ".grid(columns, rows)",
            "Divides the cell into equal columns and rows; returns the cells row by row.",
            "cell(pt(0, 0), 200, 100).grid(4, 2).map(|c| circle(c.centre(), 20))",
            |call: &Call<'_>, cell: Cell, columns: usize, rows: usize| {
                call.room_for(columns.saturating_mul(rows))?;
                Ok::<_, CallError>(cell.grid(columns, rows).collect::<Vec<_>>())
            },
        ),
        word(
            ".split_across(widths)",
            "Divides the cell into columns of these widths; the remainder becomes one more column.",
            "cell(pt(0, 0), 200, 100).split_across([part(0.2), 30])",
            |cell: Cell, widths: Vec<Extent>| cell.split_across(widths).collect::<Vec<_>>(),
        ),
        word(
            ".split_down(heights)",
            "Divides the cell into rows of these heights; the remainder becomes one more row.",
            "cell(pt(0, 0), 200, 100).split_down([part(0.5)])",
            |cell: Cell, heights: Vec<Extent>| cell.split_down(heights).collect::<Vec<_>>(),
        ),
        word(
            ".path()",
            "The cell as a rectangle.",
            "cell(pt(0, 0), 200, 100).inset(10).path()",
            |cell: Cell| cell.path(),
        ),
        word(
            ".rounded(radius)",
            "The cell as a rectangle with rounded corners; a radius that is too large is reduced to fit.",
            "cell(pt(0, 0), 200, 100).rounded(12)",
            |cell: Cell, radius: f64| cell.rounded(radius),
        ),
        word(
            ".rounded(top_left, top_right, bottom_right, bottom_left)",
            "The cell as a rectangle with a radius for each corner; radii that are too large are reduced together.",
            "cell(pt(0, 0), 200, 100).rounded(40, 0, 40, 0)",
            |cell: Cell, a: f64, b: f64, c: f64, d: f64| cell.rounded([a, b, c, d]),
        ),
        word(
            ".fitted(cell, how)",
            "The path moved and scaled to fit a cell: `contain`, `cover` or `stretch`.",
            r#"star(pt(0, 0), 5, 9, 4).fitted(cell(pt(0, 0), 200, 100), "contain")"#,
            |call: &Call<'_>, path: Path, cell: Cell, how: String| {
                Ok::<_, CallError>(path.fitted(&cell, call.choice(&how)?))
            },
        ),
        word(
            "triangle_by_sides(a, b, c)",
            "A triangle with three given sides.",
            "triangle_by_sides(70, 80, 90).centred([0, 0])",
            |a: f64, b: f64, c: f64| Triangle::by_sides(a, b, c),
        ),
        word(
            "triangle_by_two_sides(a, b, between)",
            "A triangle with two given sides and the angle between them.",
            "triangle_by_two_sides(70, 80, deg(60)).area()",
            |a: f64, b: f64, between: Angle| Triangle::by_two_sides(a, b, between),
        ),
        word(
            "triangle_by_angles(at_a, at_b, c)",
            "A triangle with a given side and the two angles at its ends.",
            "triangle_by_angles(deg(50), deg(60), 90).sides()",
            |at_a: Angle, at_b: Angle, c: f64| Triangle::by_angles(at_a, at_b, c),
        ),
        word(
            "triangle_by_legs(level, upright)",
            "A right triangle with two given legs.",
            "triangle_by_legs(40, 30).placed([0, 0], deg(0))",
            |level: f64, upright: f64| Triangle::by_legs(level, upright),
        ),
        word(
            ".sides()",
            "The sides a, b and c.",
            "triangle_by_legs(40, 30).sides()[2]",
            |triangle: Triangle| triangle.sides().to_vec(),
        ),
        word(
            ".angles()",
            "The angles A, B and C, each opposite its side.",
            "triangle_by_legs(40, 30).angles()[0]",
            |triangle: Triangle| triangle.angles().to_vec(),
        ),
        word(
            ".turns()",
            "The exterior angles at A, B and C: how far a pen turns there on its way round.",
            "start(pt(0, 0)).ahead(40).turn(triangle_by_legs(40, 30).turns()[2]).ahead(30).close()",
            |triangle: Triangle| triangle.turns().to_vec(),
        ),
        word(
            ".heights()",
            "The heights onto the sides a, b and c.",
            "triangle_by_sides(70, 80, 90).heights()[2]",
            |triangle: Triangle| triangle.heights().to_vec(),
        ),
        word(
            ".vertices()",
            "The vertices A, B and C: A at the origin, B along +x, C above.",
            "closed(triangle_by_sides(70, 80, 90).vertices())",
            |triangle: Triangle| triangle.vertices().to_vec(),
        ),
        word(".area()", "The area.", "triangle_by_legs(40, 30).area()", |triangle: Triangle| triangle.area()),
        word(
            ".incircle()",
            "The inscribed circle, which touches all three sides.",
            "triangle_by_sides(70, 80, 90).incircle()",
            |triangle: Triangle| circle(triangle.incentre(), triangle.inradius()),
        ),
        word(
            ".circumcircle()",
            "The circumscribed circle, through all three vertices.",
            "triangle_by_sides(70, 80, 90).circumcircle()",
            |triangle: Triangle| circle(triangle.circumcentre(), triangle.circumradius()),
        ),
        word(
            ".mirrored()",
            "The mirror image.",
            "triangle_by_legs(40, 30).mirrored().path()",
            |triangle: Triangle| triangle.mirrored(),
        ),
        word(
            ".path()",
            "The triangle as a closed path, with its side c along +x from the origin.",
            "triangle_by_sides(70, 80, 90).path()",
            |triangle: Triangle| triangle.path(),
        ),
        word(
            ".centred(at)",
            "The triangle as a path, with the centre of its bounding box at a point.",
            "triangle_by_sides(70, 80, 90).centred([100, 100])",
            |triangle: Triangle, at: Point| triangle.centred(at),
        ),
        word(
            ".placed(corner, along)",
            "The triangle as a path, turned so that C (where legs meet) is at a point and side b points away from it at an angle.",
            "triangle_by_legs(40, 30).placed([10, 10], deg(90))",
            |triangle: Triangle, corner: Point, along: Angle| triangle.placed(corner, along),
        ),
        word(
            ".honeycomb(columns, rows)",
            "The cells of a honeycomb inside this cell, as large as fit; each is the bounding box of a regular hexagon.",
            r##"cell(pt(0, 0), 300, 200).honeycomb(4, 3)"##,
            |call: &Call<'_>, cell: Cell, columns: usize, rows: usize| {
                call.room_for(columns.saturating_mul(rows))?;
                Ok::<_, CallError>(cell.honeycomb(columns, rows).collect::<Vec<_>>())
            },
        ),
        word(
            ".hexagon()",
            "The hexagon with a vertex at the top that fills the cell.",
            r##"cell(pt(0, 0), 52, 60).hexagon()"##,
            |cell: Cell| cell.hexagon(),
        ),
    ]
}

/// A cell without its margins: top, right, bottom, left. Margins that leave nothing are remarked on.
fn inset(call: &Call<'_>, cell: &Cell, margins: [Extent; 4]) -> Cell {
    let [top, right, bottom, left] = margins;
    let size = cell.size();
    for (taken, whole, side) in [
        (left.of(size.x) + right.of(size.x), size.x, "width"),
        (top.of(size.y) + bottom.of(size.y), size.y, "height"),
    ] {
        if whole > 0.0 && taken >= whole {
            let (taken, whole) = (trimmed(taken, 2), trimmed(whole, 2));
            call.stage(|stage| {
                stage.remark(format!(
                    "`inset` leaves nothing of a cell: {taken} is taken from its {side} of {whole}"
                ));
            });
        }
    }
    cell.inset(margins)
}
