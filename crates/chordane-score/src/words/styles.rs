//! Words for style.

use chordane::prelude::*;
use rhai::Dynamic;

use super::sheets::group_value;
use crate::values::Builder;

use super::{Args, Kind, Refusal, Section, Word};

pub(super) const SECTION: Section = Section {
    title: "Style",
    about: "Style is a value on each item: there is no current style, so nothing leaks from one shape into the next. A path becomes an item by its first style word.",
    words: WORDS,
};

const WORDS: &[Word] = &[
    Word {
        name: "style",
        on: &[],
        takes: &[],
        gives: Kind::Style,
        about: "A style of nothing yet, to be given to any number of items with `styled`.",
        example: r##"let canvas = style().fill("#c8553d").stroke("#20303c", 3);
circle(pt(0, 0), 20).styled(canvas)"##,
        run: |_| Ok(Dynamic::from(style())),
    },
    Word {
        name: "styled",
        on: &[Kind::Path, Kind::Item],
        takes: &[("style", Kind::Style)],
        gives: Kind::Item,
        about: "In a style that was made before.",
        example: r##"let thin = style().stroke("#20303c", 1);
polygon(pt(0, 0), 6, 30).styled(thin)"##,
        run: |a| item(a.item().styled(&a.style(1))),
    },
    Word {
        name: "fill",
        on: &[Kind::Path, Kind::Item, Kind::Style],
        takes: &[("colour", Kind::Text)],
        gives: Kind::Item,
        about: "Filled with a CSS colour.",
        example: r##"circle(pt(0, 0), 20).fill("rgb(200 85 61 / 50%)")"##,
        run: |a| {
            let c = a.text(1);
            styled(a, |item| item.fill(c.as_str()), |style| style.fill(c.as_str()))
        },
    },
    Word {
        name: "stroke",
        on: &[Kind::Path, Kind::Item, Kind::Style],
        takes: &[("colour", Kind::Text), ("width", Kind::Number)],
        gives: Kind::Item,
        about: "Stroked with a CSS colour, half of the width on either side of the line.",
        example: r##"circle(pt(0, 0), 20).stroke("#20303c", 3)"##,
        run: |a| {
            let (c, width) = (a.text(1), a.number(2));
            styled(a, |item| item.stroke(c.as_str(), width), |style| style.stroke(c.as_str(), width))
        },
    },
    Word {
        name: "cap",
        on: &[Kind::Item, Kind::Style],
        takes: &[("name", Kind::Text)],
        gives: Kind::Item,
        about: "How the stroke ends: `butt`, `round` or `square`.",
        example: r##"open([[0, 0], [40, 0]]).stroke("teal", 8).cap("round")"##,
        run: |a| {
            let n = a.text(1);
            styled(a, |item| item.cap(n.as_str()), |style| style.cap(n.as_str()))
        },
    },
    Word {
        name: "join",
        on: &[Kind::Item, Kind::Style],
        takes: &[("name", Kind::Text)],
        gives: Kind::Item,
        about: "How the stroke turns corners: `mitre`, `round` or `bevel`.",
        example: r##"polygon(pt(0, 0), 3, 40).stroke("teal", 8).join("round")"##,
        run: |a| {
            let n = a.text(1);
            styled(a, |item| item.join(n.as_str()), |style| style.join(n.as_str()))
        },
    },
    Word {
        name: "mitre_limit",
        on: &[Kind::Item, Kind::Style],
        takes: &[("limit", Kind::Number)],
        gives: Kind::Item,
        about: "The longest mitre as a multiple of the width, 1 or more; longer ones are bevelled. At first 4.",
        example: r##"star(pt(0, 0), 5, 40, 12).stroke("teal", 4).mitre_limit(10)"##,
        run: |a| {
            let n = a.number(1);
            styled(a, |item| item.mitre_limit(n), |style| style.mitre_limit(n))
        },
    },
    Word {
        name: "dash",
        on: &[Kind::Item, Kind::Style],
        takes: &[("lengths", Kind::Numbers)],
        gives: Kind::Item,
        about: "Dashed: lengths of line and gap in turn.",
        example: r##"circle(pt(0, 0), 40).stroke("teal", 4).dash([12, 6])"##,
        run: |a| {
            let n = a.numbers(1);
            styled(a, |item| item.dash(n.as_slice()), |style| style.dash(n.as_slice()))
        },
    },
    Word {
        name: "dash_offset",
        on: &[Kind::Item, Kind::Style],
        takes: &[("offset", Kind::Number)],
        gives: Kind::Item,
        about: "How far into the dash pattern the line begins.",
        example: r##"circle(pt(0, 0), 40).stroke("teal", 4).dash([12, 6]).dash_offset(6)"##,
        run: |a| {
            let n = a.number(1);
            styled(a, |item| item.dash_offset(n), |style| style.dash_offset(n))
        },
    },
    Word {
        name: "opacity",
        on: &[Kind::Item, Kind::Style, Kind::Group],
        takes: &[("share", Kind::Number)],
        gives: Kind::Item,
        about: "The opacity from 0 to 1 of fill and stroke together, or of a whole group.",
        example: r##"circle(pt(0, 0), 20).fill("teal").opacity(0.5)"##,
        run: |a| {
            let share = a.number(1);
            if a.is::<Builder<Group>>(0) {
                group_value(a.group(0).opacity(share))
            } else {
                styled(a, |item| item.opacity(share), |style| style.opacity(share))
            }
        },
    },
    Word {
        name: "fill_rule",
        on: &[Kind::Path, Kind::Item],
        takes: &[("name", Kind::Text)],
        gives: Kind::Item,
        about: "What the path encloses where contours overlap: `nonzero` or `evenodd`.",
        example: r##"circle(pt(0, 0), 20).and(circle(pt(15, 0), 20)).fill("teal").fill_rule("evenodd")"##,
        run: |a| {
            let n = a.text(1);
            item(a.item().fill_rule(n.as_str()))
        },
    },
    Word {
        name: "named",
        on: &[Kind::Path, Kind::Item, Kind::Group],
        takes: &[("name", Kind::Text)],
        gives: Kind::Item,
        about: "With a name: the id in an SVG file.",
        example: r##"circle(pt(0, 0), 20).fill("teal").named("vent")"##,
        run: |a| {
            let n = a.text(1);
            if a.is::<Builder<Group>>(0) {
                group_value(a.group(0).named(&n))
            } else {
                item(a.item().named(&n))
            }
        },
    },
];

/// An item as a script holds it, unless something went wrong in its making.
pub(super) fn item(item: Item) -> Result<Dynamic, Refusal> {
    item.sound()?;
    Ok(Dynamic::from(item))
}

/// Carries out a word that means the same on a path or an item, and on a style.
fn styled(
    a: &mut Args<'_, '_>,
    on_item: impl FnOnce(Item) -> Item,
    on_style: impl FnOnce(Style) -> Style,
) -> Result<Dynamic, Refusal> {
    if a.is::<Style>(0) {
        let style = on_style(a.style(0));
        style.sound()?;
        return Ok(Dynamic::from(style));
    }
    item(on_item(a.item()))
}
