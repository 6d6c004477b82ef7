//! Words for groups and the sheet.

use chordane::number::Cell;
use chordane::prelude::*;
use chordane::sheet::{GivenPaint, Node};

use super::entry::{Section, Word, word};
use crate::call_error::CallError;
use crate::values::{Builder, Holder};

pub(super) fn section() -> Section {
    Section {
        title: "Groups and the sheet",
        about: "Groups and sheets are builders: a bare `sheet.add(item)` is enough in a loop.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            "group()",
            "An empty group. Everything added to it moves and fades as one.",
            r##"group().add(circle(pt(0, 0), 9).fill("teal")).moved([50, 50])"##,
            group,
        ),
        word(
            "paper(cell, step)",
            "Graph paper to put under a drawing: grid lines at every multiple of a spacing, labelled with their coordinates.",
            "paper(cell(pt(-160, -100), 320, 200), 20)",
            |cell: Cell, step: f64| {
                let squares = paper(&cell, step);
                sheet(1.0, 1.0).add(squares.clone()).sound()?;
                Ok::<_, CallError>(squares)
            },
        ),
        word(
            "ring_of(node, n, radius)",
            "`n` copies spaced evenly on a ring about the origin, each turned with the ring; the first is at the top.",
            r##"ring_of(circle(pt(0, 0), 6).fill("teal"), 12, 50)"##,
            |node: Node, n: usize, radius: f64| ring_of(node, n, radius),
        ),
        word(
            "copies_at(node, points)",
            "A copy at each of the given points, with its origin on the point.",
            r##"copies_at(circle(pt(0, 0), 2).fill("teal"), golden_places(90, 5))"##,
            |node: Node, points: Vec<Point>| copies_at(node, points),
        ),
        word(
            "woven(nodes)",
            "A ring of overlapping shapes: each lies over the one before it in the list, and the first over the last, so there is no seam.",
            r##"let hoops = [];
for angle in around(9) { hoops.push(ring(polar(angle, 40), 26, 18).fill("teal").stroke("white", 2)); }
woven(hoops)"##,
            |nodes: Vec<Node>| {
                let ring = woven(nodes);
                sheet(1.0, 1.0).add(ring.clone()).sound()?;
                Ok::<_, CallError>(ring)
            },
        ),
        word(
            "linked(items)",
            "Closed loops, drawn as strokes or filled bands, that pass alternately over and under one another, so rings form a chain.",
            r##"linked([-30, 0, 30].map(|x| circle(pt(x, 0), 22).stroke("teal", 7)))"##,
            |items: Vec<Item>| {
                let chain = linked(items);
                sheet(1.0, 1.0).add(chain.clone()).sound()?;
                Ok::<_, CallError>(chain)
            },
        ),
        word(
            ".add(node)",
            "Adds a path, an item or a group on top of the existing contents.",
            r##"sheet(100, 80).add(circle(pt(50, 40), 30).fill("teal"))"##,
            |holder: Holder, node: Node| match holder {
                Holder::Group(group) => Holder::Group(group.grow(|group| group.add(node))),
                Holder::Sheet(sheet) => Holder::Sheet(sheet.set(|sheet| sheet.add(node))),
            },
        ),
        word(
            ".add_all(nodes)",
            "Adds every element of a list, in order.",
            r##"sheet(200, 80).add_all([40, 100, 160].map(|x| circle(pt(x, 40), 25).fill("teal")))"##,
            |holder: Holder, nodes: Vec<Node>| match holder {
                Holder::Group(group) => Holder::Group(group.grow(|group| group.add_all(nodes))),
                Holder::Sheet(sheet) => Holder::Sheet(sheet.set(|sheet| sheet.add_all(nodes))),
            },
        ),
        word(
            "sheet(width, height)",
            "A sheet to draw on. Its origin is the top left corner and y points down. A score must end with its sheet.",
            "sheet(640, 480)",
            |width: f64, height: f64| sheet(width, height),
        ),
        word(
            "sheet(size)",
            "A sheet whose width and height are the x and y of a point.",
            "sheet(pt(640, 480))",
            |size: Point| sheet(size.x, size.y),
        ),
        word(
            ".items_at(spot)",
            "The items of a sheet that are painted at a point, topmost first.",
            r##"sheet(90, 60).add(circle(pt(30, 30), 20).fill("teal")).items_at([30, 30])"##,
            |sheet: Sheet, spot: Point| {
                sheet.items_at(spot).map(|hit| hit.placed.item.clone()).collect::<Vec<_>>()
            },
        ),
        word(
            ".grained(columns, rows)",
            "The sheet rendered on a coarse grid of `columns` by `rows` pixels, as a new sheet with one hard-edged picture: each pixel is painted completely or not at all.",
            r##"sheet(90, 90).ground("#f4efe6").add(polygon(pt(45, 45), 4, 40).fill("teal")).grained(15, 15)"##,
            |sheet: Sheet, columns: usize, rows: usize| {
                let side = |count: usize| u32::try_from(count).unwrap_or(u32::MAX);
                sheet
                    .grained(side(columns), side(rows), false)
                    .map_err(|error| CallError::new(error.to_string()))
            },
        ),
        word(
            ".title(text)",
            "The title of the picture, written as the title of an SVG file, for screen readers.",
            r##"sheet(90, 60).title("A vent").add(circle(pt(45, 30), 20).fill("teal"))"##,
            |sheet: Builder<Sheet>, text: String| sheet.set(|sheet| sheet.title(&text)),
        ),
        word(
            ".description(text)",
            "A description for those who cannot see the picture, written as the description of an SVG file.",
            r##"sheet(90, 60).description("A round hole in a red sail.").add(circle(pt(45, 30), 20).fill("teal"))"##,
            |sheet: Builder<Sheet>, text: String| sheet.set(|sheet| sheet.description(&text)),
        ),
        word(
            ".centred()",
            "Puts the origin at the centre of the sheet.",
            "sheet(640, 480).centred()",
            |sheet: Builder<Sheet>| sheet.set(Sheet::centred),
        ),
        word(
            ".y_up()",
            "Makes y point up. Positive angles then turn anticlockwise on screen.",
            "sheet(640, 480).y_up()",
            |sheet: Builder<Sheet>| sheet.set(Sheet::y_up),
        ),
        word(
            ".unit(name)",
            "The unit of lengths: `px`, `mm` or `in`. Files then have true size.",
            r##"sheet(210, 297).unit("mm")"##,
            |sheet: Builder<Sheet>, name: String| sheet.set(|sheet| sheet.unit(name.as_str())),
        ),
        word(
            ".ground(paint)",
            "Paints the background of the whole sheet with a colour or another paint.",
            r##"sheet(640, 480).ground("#f4efe6")"##,
            |sheet: Builder<Sheet>, paint: GivenPaint| sheet.set(|sheet| sheet.ground(paint)),
        ),
        word(".size()", "The width and height of the sheet.", "sheet(640, 480).size().x", |sheet: Sheet| {
            sheet.size
        }),
    ]
}
