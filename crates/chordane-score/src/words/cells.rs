//! Words for cells and extents, and for triangles.

use chordane::prelude::*;
use rhai::Dynamic;

use super::pen::path;
use super::{Kind, Refusal, Section, Word};

pub(super) const SECTION: Section = Section {
    title: "Cells and triangles",
    about: "A cell is a box that a shape is made to fit; an extent is a share of it plus a fixed length: `part(0.7) + 12`. In `at`, plain numbers are shares.",
    words: WORDS,
};

const WORDS: &[Word] = &[
    Word {
        name: "cell",
        on: &[],
        takes: &[("corner", Kind::Point), ("width", Kind::Number), ("height", Kind::Number)],
        gives: Kind::Cell,
        about: "A cell by its top left corner, its width and its height.",
        example: "cell(pt(0, 0), 200, 100).at(0.5, 1)",
        run: |a| Ok(Dynamic::from(cell(a.point(0), a.number(1), a.number(2)))),
    },
    Word {
        name: "cell",
        on: &[Kind::Sheet],
        takes: &[],
        gives: Kind::Cell,
        about: "The whole sheet as a cell.",
        example: "sheet(640, 480).cell().centre()",
        run: |a| Ok(Dynamic::from(a.sheet(0).cell())),
    },
    Word {
        name: "part",
        on: &[],
        takes: &[("share", Kind::Number)],
        gives: Kind::Extent,
        about: "A share of a length that is not known yet. Lengths can be added to it.",
        example: "cell(pt(0, 0), 200, 100).at(part(1) - 12, 0.5)",
        run: |a| Ok(Dynamic::from(part(a.number(0)))),
    },
    Word {
        name: "at",
        on: &[Kind::Cell],
        takes: &[("across", Kind::Extent), ("down", Kind::Extent)],
        gives: Kind::Point,
        about: "A place in the cell: shares from 0 to 1 across and down, or extents.",
        example: "cell(pt(0, 0), 200, 100).at(0, 1)",
        run: |a| Ok(Dynamic::from(a.cell(0).at(a.along(1), a.along(2)))),
    },
    Word {
        name: "centre",
        on: &[Kind::Cell],
        takes: &[],
        gives: Kind::Point,
        about: "The middle of the cell.",
        example: "cell(pt(0, 0), 200, 100).centre()",
        run: |a| Ok(Dynamic::from(a.cell(0).centre())),
    },
    Word {
        name: "size",
        on: &[Kind::Cell],
        takes: &[],
        gives: Kind::Point,
        about: "Width and height of the cell.",
        example: "cell(pt(0, 0), 200, 100).size().x",
        run: |a| Ok(Dynamic::from(a.cell(0).size())),
    },
    Word {
        name: "inset",
        on: &[Kind::Cell],
        takes: &[("by", Kind::Extent)],
        gives: Kind::Cell,
        about: "The cell with a margin taken off inside: a length, or an extent.",
        example: "cell(pt(0, 0), 200, 100).inset(10)",
        run: |a| Ok(Dynamic::from(a.cell(0).inset(a.extent(1)))),
    },
    Word {
        name: "inset",
        on: &[Kind::Cell],
        takes: &[("beside", Kind::Extent), ("above", Kind::Extent)],
        gives: Kind::Cell,
        about: "One margin for left and right, another for top and bottom.",
        example: "cell(pt(0, 0), 200, 100).inset(part(0.1), 10)",
        run: |a| Ok(Dynamic::from(a.cell(0).inset([a.extent(1), a.extent(2)]))),
    },
    Word {
        name: "inset",
        on: &[Kind::Cell],
        takes: &[
            ("top", Kind::Extent),
            ("right", Kind::Extent),
            ("bottom", Kind::Extent),
            ("left", Kind::Extent),
        ],
        gives: Kind::Cell,
        about: "A margin for each side.",
        example: "cell(pt(0, 0), 200, 100).inset(10, 0, 10, part(0.5))",
        run: |a| Ok(Dynamic::from(a.cell(0).inset([a.extent(1), a.extent(2), a.extent(3), a.extent(4)]))),
    },
    Word {
        name: "grid",
        on: &[Kind::Cell],
        takes: &[("columns", Kind::Count), ("rows", Kind::Count)],
        gives: Kind::Cells,
        about: "The cell cut into columns and rows of even size, row by row.",
        example: "cell(pt(0, 0), 200, 100).grid(4, 2).map(|c| circle(c.centre(), 20))",
        run: |a| {
            let (columns, rows) = (a.count(1), a.count(2));
            if columns.saturating_mul(rows) > a.longest_list {
                let told =
                    format!("{columns} by {rows} cells are more than the {} of a list", a.longest_list);
                return Err(Refusal::new(told));
            }
            Ok(cells(a.cell(0).grid(columns, rows)))
        },
    },
    Word {
        name: "split_across",
        on: &[Kind::Cell],
        takes: &[("widths", Kind::Extents)],
        gives: Kind::Cells,
        about: "The cell cut into columns of these widths; what is left over is one more.",
        example: "cell(pt(0, 0), 200, 100).split_across([part(0.2), 30])",
        run: |a| Ok(cells(a.cell(0).split_across(a.extents(1)))),
    },
    Word {
        name: "split_down",
        on: &[Kind::Cell],
        takes: &[("heights", Kind::Extents)],
        gives: Kind::Cells,
        about: "The cell cut into rows of these heights; what is left over is one more.",
        example: "cell(pt(0, 0), 200, 100).split_down([part(0.5)])",
        run: |a| Ok(cells(a.cell(0).split_down(a.extents(1)))),
    },
    Word {
        name: "path",
        on: &[Kind::Cell],
        takes: &[],
        gives: Kind::Path,
        about: "The cell as a rectangle.",
        example: "cell(pt(0, 0), 200, 100).inset(10).path()",
        run: |a| path(a.cell(0).path()),
    },
    Word {
        name: "rounded",
        on: &[Kind::Cell],
        takes: &[("radius", Kind::Number)],
        gives: Kind::Path,
        about: "The cell as a rectangle with rounded corners; a radius that does not fit shrinks.",
        example: "cell(pt(0, 0), 200, 100).rounded(12)",
        run: |a| path(a.cell(0).rounded(a.number(1))),
    },
    Word {
        name: "fitted",
        on: &[Kind::Path],
        takes: &[("cell", Kind::Cell), ("how", Kind::Text)],
        gives: Kind::Path,
        about: "The path moved and scaled to fit a cell: `contain`, `cover` or `stretch`.",
        example: r#"star(pt(0, 0), 5, 9, 4).fitted(cell(pt(0, 0), 200, 100), "contain")"#,
        run: |a| {
            let fit = chordane::ground::Given::<Fit>::from(a.text(2).as_str()).resolve("fitted")?;
            path(a.path(0).fitted(&a.cell(1), fit))
        },
    },
    Word {
        name: "triangle_by_sides",
        on: &[],
        takes: &[("a", Kind::Number), ("b", Kind::Number), ("c", Kind::Number)],
        gives: Kind::Triangle,
        about: "A triangle by its three sides.",
        example: "triangle_by_sides(70, 80, 90).centred([0, 0])",
        run: |a| triangle(Triangle::by_sides(a.number(0), a.number(1), a.number(2))),
    },
    Word {
        name: "triangle_by_two_sides",
        on: &[],
        takes: &[("a", Kind::Number), ("b", Kind::Number), ("between", Kind::Angle)],
        gives: Kind::Triangle,
        about: "A triangle by two sides and the angle between them.",
        example: "triangle_by_two_sides(70, 80, deg(60)).area()",
        run: |a| triangle(Triangle::by_two_sides(a.number(0), a.number(1), a.angle(2))),
    },
    Word {
        name: "triangle_by_angles",
        on: &[],
        takes: &[("at_a", Kind::Angle), ("at_b", Kind::Angle), ("c", Kind::Number)],
        gives: Kind::Triangle,
        about: "A triangle by a side and the two angles at its ends.",
        example: "triangle_by_angles(deg(50), deg(60), 90).sides()",
        run: |a| triangle(Triangle::by_angles(a.angle(0), a.angle(1), a.number(2))),
    },
    Word {
        name: "triangle_by_legs",
        on: &[],
        takes: &[("level", Kind::Number), ("upright", Kind::Number)],
        gives: Kind::Triangle,
        about: "A triangle with a right angle between two legs.",
        example: "triangle_by_legs(40, 30).placed([0, 0], deg(0))",
        run: |a| triangle(Triangle::by_legs(a.number(0), a.number(1))),
    },
    Word {
        name: "sides",
        on: &[Kind::Triangle],
        takes: &[],
        gives: Kind::Numbers,
        about: "The sides a, b and c.",
        example: "triangle_by_legs(40, 30).sides()[2]",
        run: |a| Ok(a.triangle()?.sides().into_iter().map(Dynamic::from).collect::<rhai::Array>().into()),
    },
    Word {
        name: "angles",
        on: &[Kind::Triangle],
        takes: &[],
        gives: Kind::Angles,
        about: "The angles A, B and C, each across from its side.",
        example: "triangle_by_legs(40, 30).angles()[0]",
        run: |a| Ok(a.triangle()?.angles().into_iter().map(Dynamic::from).collect::<rhai::Array>().into()),
    },
    Word {
        name: "turns",
        on: &[Kind::Triangle],
        takes: &[],
        gives: Kind::Angles,
        about: "By how much a pen that walks round it turns at A, B and C.",
        example: "start(pt(0, 0)).ahead(40).turn(triangle_by_legs(40, 30).turns()[2]).ahead(30).close()",
        run: |a| Ok(a.triangle()?.turns().into_iter().map(Dynamic::from).collect::<rhai::Array>().into()),
    },
    Word {
        name: "heights",
        on: &[Kind::Triangle],
        takes: &[],
        gives: Kind::Numbers,
        about: "The heights over the sides a, b and c.",
        example: "triangle_by_sides(70, 80, 90).heights()[2]",
        run: |a| Ok(a.triangle()?.heights().into_iter().map(Dynamic::from).collect::<rhai::Array>().into()),
    },
    Word {
        name: "vertices",
        on: &[Kind::Triangle],
        takes: &[],
        gives: Kind::Points,
        about: "The vertices A, B and C: A at the origin, B along +x, C above.",
        example: "closed(triangle_by_sides(70, 80, 90).vertices())",
        run: |a| Ok(a.triangle()?.vertices().into_iter().map(Dynamic::from).collect::<rhai::Array>().into()),
    },
    Word {
        name: "area",
        on: &[Kind::Triangle],
        takes: &[],
        gives: Kind::Number,
        about: "The area.",
        example: "triangle_by_legs(40, 30).area()",
        run: |a| Ok(a.triangle()?.area().into()),
    },
    Word {
        name: "incircle",
        on: &[Kind::Triangle],
        takes: &[],
        gives: Kind::Path,
        about: "The circle that touches all sides.",
        example: "triangle_by_sides(70, 80, 90).incircle()",
        run: |a| {
            let triangle = a.triangle()?;
            path(circle(triangle.incentre(), triangle.inradius()))
        },
    },
    Word {
        name: "circumcircle",
        on: &[Kind::Triangle],
        takes: &[],
        gives: Kind::Path,
        about: "The circle through all vertices.",
        example: "triangle_by_sides(70, 80, 90).circumcircle()",
        run: |a| {
            let triangle = a.triangle()?;
            path(circle(triangle.circumcentre(), triangle.circumradius()))
        },
    },
    Word {
        name: "mirrored",
        on: &[Kind::Triangle],
        takes: &[],
        gives: Kind::Triangle,
        about: "The mirror image.",
        example: "triangle_by_legs(40, 30).mirrored().path()",
        run: |a| Ok(Dynamic::from(a.triangle()?.mirrored())),
    },
    Word {
        name: "path",
        on: &[Kind::Triangle],
        takes: &[],
        gives: Kind::Path,
        about: "The triangle as a closed path, with its side c along +x from the origin.",
        example: "triangle_by_sides(70, 80, 90).path()",
        run: |a| path(a.triangle()?.path()),
    },
    Word {
        name: "centred",
        on: &[Kind::Triangle],
        takes: &[("at", Kind::Point)],
        gives: Kind::Path,
        about: "The same with the middle of its box at a point.",
        example: "triangle_by_sides(70, 80, 90).centred([100, 100])",
        run: |a| path(a.triangle()?.centred(a.point(1))),
    },
    Word {
        name: "placed",
        on: &[Kind::Triangle],
        takes: &[("corner", Kind::Point), ("along", Kind::Angle)],
        gives: Kind::Path,
        about: "Turned so that C, where legs meet, is at a point and the side b leads away from it in a direction.",
        example: "triangle_by_legs(40, 30).placed([10, 10], deg(90))",
        run: |a| path(a.triangle()?.placed(a.point(1), a.angle(2))),
    },
    Word {
        name: "honeycomb",
        on: &[Kind::Cell],
        takes: &[("columns", Kind::Count), ("rows", Kind::Count)],
        gives: Kind::Cells,
        about: "Cells of a honeycomb, as large as fit; each bounds a hexagon.",
        example: r##"cell(pt(0, 0), 300, 200).honeycomb(4, 3)"##,
        run: |a| {
            let (columns, rows, most) = (a.count(1), a.count(2), a.longest_list);
            if columns.saturating_mul(rows) > most {
                return Err(Refusal::new(format!(
                    "{columns} by {rows} cells are too many; give at most {most}"
                )));
            }
            Ok(a.cell(0).honeycomb(columns, rows).map(Dynamic::from).collect::<rhai::Array>().into())
        },
    },
    Word {
        name: "hexagon",
        on: &[Kind::Cell],
        takes: &[],
        gives: Kind::Path,
        about: "The hexagon that stands on a corner and fills the cell.",
        example: r##"cell(pt(0, 0), 52, 60).hexagon()"##,
        run: |a| path(a.cell(0).hexagon()),
    },
];

fn cells(cells: impl Iterator<Item = Cell>) -> Dynamic {
    cells.map(Dynamic::from).collect::<rhai::Array>().into()
}

fn triangle(made: Result<Triangle, TriangleError>) -> Result<Dynamic, Refusal> {
    made.map(Dynamic::from).map_err(|error| Refusal::new(error.to_string()))
}
