//! Words for groups and the sheet.

use chordane::prelude::*;
use rhai::Dynamic;

use crate::values::Builder;

use super::{Args, Kind, Refusal, Section, Word};

pub(super) const SECTION: Section = Section {
    title: "Groups and the sheet",
    about: "Groups and sheets are builders: `sheet.add(item)` alone is enough in a loop.",
    words: WORDS,
};

const WORDS: &[Word] = &[
    Word {
        name: "group",
        on: &[],
        takes: &[],
        gives: Kind::Group,
        about: "A group of nothing yet. What is added to it moves and fades together.",
        example: r##"group().add(circle(pt(0, 0), 9).fill("teal")).moved([50, 50])"##,
        run: |_| group_value(group()),
    },
    Word {
        name: "ring_of",
        on: &[],
        takes: &[("node", Kind::Node), ("n", Kind::Count), ("radius", Kind::Number)],
        gives: Kind::Group,
        about: "Copies evenly on a ring round the origin, each turned with it, the first straight above.",
        example: r##"ring_of(circle(pt(0, 0), 6).fill("teal"), 12, 50)"##,
        run: |a| {
            let (n, most) = (a.count(1), a.longest_list);
            if n > most {
                return Err(Refusal::new(format!("{n} copies are too many; give at most {most}")));
            }
            group_value(ring_of(a.node(0), n, a.number(2)))
        },
    },
    Word {
        name: "copies_at",
        on: &[],
        takes: &[("node", Kind::Node), ("points", Kind::Points)],
        gives: Kind::Group,
        about: "Copies with their origin at each of some points.",
        example: r##"copies_at(circle(pt(0, 0), 2).fill("teal"), golden_places(90, 5))"##,
        run: |a| group_value(copies_at(a.node(0), a.points(1))),
    },
    Word {
        name: "woven",
        on: &[],
        takes: &[("nodes", Kind::Nodes)],
        gives: Kind::Group,
        about: "A ring of overlapping things, in order: each lies over the one before it, and the first over the last, without a seam.",
        example: r##"let hoops = [];
for angle in around(9) { hoops.push(ring(polar(angle, 40), 26, 18).fill("teal").stroke("white", 2)); }
woven(hoops)"##,
        run: |a| group_value(woven(a.nodes(0))),
    },
    Word {
        name: "clipped",
        on: &[Kind::Group],
        takes: &[("by", Kind::Path)],
        gives: Kind::Group,
        about: "Shows the group only where a path would be filled; the path moves with the group.",
        example: r##"group().add(polygon(pt(0, 0), 4, 40).fill("teal")).clipped(circle(pt(0, 0), 30))"##,
        run: |a| {
            let by = a.path(1);
            change_group(a, |group| group.clipped(by))
        },
    },
    Word {
        name: "add",
        on: &[Kind::Sheet, Kind::Group],
        takes: &[("node", Kind::Node)],
        gives: Kind::Sheet,
        about: "Adds a path, an item or a group on top of what there is.",
        example: r##"sheet(100, 80).add(circle(pt(50, 40), 30).fill("teal"))"##,
        run: |a| {
            let node = a.node(1);
            if a.is::<Builder<Group>>(0) {
                change_group(a, |group| group.add(node))
            } else {
                change_sheet(a, |sheet| sheet.add(node))
            }
        },
    },
    Word {
        name: "add_all",
        on: &[Kind::Sheet, Kind::Group],
        takes: &[("nodes", Kind::Nodes)],
        gives: Kind::Sheet,
        about: "Adds each of a list, in order.",
        example: r##"sheet(200, 80).add_all([40, 100, 160].map(|x| circle(pt(x, 40), 25).fill("teal")))"##,
        run: |a| {
            let nodes = a.nodes(1);
            if a.is::<Builder<Group>>(0) {
                change_group(a, |group| group.add_all(nodes))
            } else {
                change_sheet(a, |sheet| sheet.add_all(nodes))
            }
        },
    },
    Word {
        name: "sheet",
        on: &[],
        takes: &[("width", Kind::Number), ("height", Kind::Number)],
        gives: Kind::Sheet,
        about: "A sheet to draw on. Its origin is the top left corner and y runs down. The last value of a score is its sheet.",
        example: "sheet(640, 480)",
        run: |a| {
            let sheet = sheet(a.number(0), a.number(1));
            sheet.sound()?;
            Ok(Dynamic::from(Builder::new(sheet)))
        },
    },
    Word {
        name: "centred",
        on: &[Kind::Sheet],
        takes: &[],
        gives: Kind::Sheet,
        about: "Puts the origin in the middle of the sheet.",
        example: "sheet(640, 480).centred()",
        run: |a| change_sheet(a, |sheet| sheet.centred()),
    },
    Word {
        name: "y_up",
        on: &[Kind::Sheet],
        takes: &[],
        gives: Kind::Sheet,
        about: "Lets y run up. Positive angles then turn anticlockwise as seen.",
        example: "sheet(640, 480).y_up()",
        run: |a| change_sheet(a, |sheet| sheet.y_up()),
    },
    Word {
        name: "unit",
        on: &[Kind::Sheet],
        takes: &[("name", Kind::Text)],
        gives: Kind::Sheet,
        about: "What one sheet unit is: `px`, `mm` or `in`. Files are then made at true size.",
        example: r##"sheet(210, 297).unit("mm")"##,
        run: |a| {
            let n = a.text(1);
            change_sheet(a, |sheet| sheet.unit(n.as_str()))
        },
    },
    Word {
        name: "ground",
        on: &[Kind::Sheet],
        takes: &[("colour", Kind::Text)],
        gives: Kind::Sheet,
        about: "Covers the whole sheet with a CSS colour, under everything else.",
        example: r##"sheet(640, 480).ground("#f4efe6")"##,
        run: |a| {
            let c = a.text(1);
            change_sheet(a, |sheet| sheet.ground(c))
        },
    },
    Word {
        name: "size",
        on: &[Kind::Sheet],
        takes: &[],
        gives: Kind::Point,
        about: "Width and height of the sheet.",
        example: "sheet(640, 480).size().x",
        run: |a| Ok(Dynamic::from(a.sheet(0).size())),
    },
];

/// A group as a script holds it, unless something went wrong in its making.
pub(super) fn group_value(group: Group) -> Result<Dynamic, Refusal> {
    unfaulted(group.own_fault())?;
    Ok(Dynamic::from(Builder::new(group)))
}

/// What is added has been looked at when it was made, so only the fault of the builder itself can be new.
fn unfaulted(fault: Option<&Fault>) -> Result<(), Refusal> {
    fault.map_or(Ok(()), |fault| Err(fault.clone().into()))
}

/// Changes the group that the word is called on.
fn change_group(a: &mut Args<'_, '_>, change: impl FnOnce(Group) -> Group) -> Result<Dynamic, Refusal> {
    let changed = a.change(group, change)?;
    if let Some(group) = changed.read_lock::<Builder<Group>>() {
        group.look(|group| unfaulted(group.own_fault()))?;
    }
    Ok(changed)
}

/// Changes the sheet that the word is called on.
fn change_sheet(a: &mut Args<'_, '_>, change: impl FnOnce(Sheet) -> Sheet) -> Result<Dynamic, Refusal> {
    let changed = a.change(|| sheet(1.0, 1.0), change)?;
    if let Some(sheet) = changed.read_lock::<Builder<Sheet>>() {
        sheet.look(|sheet| unfaulted(sheet.own_fault()))?;
    }
    Ok(changed)
}
