//! Words for style.

use chordane::prelude::*;
use chordane::sheet::GivenPaint;

use super::entry::{Section, Word, word};
use super::layers::layered;
use crate::call::Call;
use crate::call_error::CallError;
use crate::values::{Fading, Painted, Stroked, Thing};

pub(super) fn section() -> Section {
    Section {
        title: "Style",
        about: "Style is a value on each item: there is no current style, so nothing leaks from one shape into the next. A path becomes an item by its first style word.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            "style()",
            "A style that paints nothing yet; give it to any number of items with `styled`.",
            r##"let canvas = style().fill("#c8553d").stroke("#20303c", 3);
circle(pt(0, 0), 20).styled(canvas)"##,
            style,
        ),
        word(
            ".styled(style)",
            "In a style that was made before.",
            r##"let thin = style().stroke("#20303c", 1);
polygon(pt(0, 0), 6, 30).styled(thin)"##,
            |item: Item, style: Style| item.styled(&style),
        ),
        word(
            ".fill(paint)",
            "Filled with a colour, a gradient, a picture, a pattern, or colours that follow the path.",
            r##"circle(pt(0, 0), 20).fill("rgb(200 85 61 / 50%)")"##,
            |on: Painted, paint: GivenPaint| on.fill(paint),
        ),
        word(
            ".stroke(paint, width)",
            "Stroked with a colour or another paint, half of the width on either side of the line.",
            r##"circle(pt(0, 0), 20).stroke("#20303c", 3)"##,
            |on: Painted, paint: GivenPaint, width: f64| on.stroke(paint, width),
        ),
        word(
            ".cap(name)",
            "How the stroke ends: `butt`, `round` or `square`.",
            r##"open([[0, 0], [40, 0]]).stroke("teal", 8).cap("round")"##,
            |on: Stroked, name: String| on.cap(name.as_str()),
        ),
        word(
            ".join(name)",
            "How the stroke turns corners: `mitre`, `round` or `bevel`.",
            r##"polygon(pt(0, 0), 3, 40).stroke("teal", 8).join("round")"##,
            |on: Stroked, name: String| on.join(name.as_str()),
        ),
        word(
            ".mitre_limit(limit)",
            "The longest mitre as a multiple of the width, 1 or more; longer ones are bevelled. 4 by default.",
            r##"star(pt(0, 0), 5, 40, 12).stroke("teal", 4).mitre_limit(10)"##,
            |on: Stroked, limit: f64| on.mitre_limit(limit),
        ),
        word(
            ".dash(lengths)",
            "Dashed: lengths of line and gap in turn.",
            r##"circle(pt(0, 0), 40).stroke("teal", 4).dash([12, 6])"##,
            |on: Stroked, lengths: Vec<f64>| on.dash(lengths),
        ),
        word(
            ".dash_offset(offset)",
            "How far into the dash pattern the line begins.",
            r##"circle(pt(0, 0), 40).stroke("teal", 4).dash([12, 6]).dash_offset(6)"##,
            |on: Stroked, offset: f64| on.dash_offset(offset),
        ),
        word(
            ".opacity(share)",
            "The opacity from 0 to 1 of fill and stroke together, or of a whole group.",
            r##"circle(pt(0, 0), 20).fill("teal").opacity(0.5)"##,
            |on: Fading, share: f64| match on {
                Fading::Item(item) => Fading::Item(item.opacity(share)),
                Fading::Style(style) => Fading::Style(style.opacity(share)),
                Fading::Group(group) => Fading::Group(group.opacity(share)),
            },
        ),
        word(
            ".fill_rule(name)",
            "What a path or an item encloses where contours overlap: `nonzero` or `evenodd`.",
            r##"circle(pt(0, 0), 20).and(circle(pt(15, 0), 20)).fill("teal").fill_rule("evenodd")"##,
            |call: &Call<'_>, thing: Thing, name: String| {
                Ok::<_, CallError>(match thing {
                    Thing::Path(path) => Thing::Path(path.with_fill_rule(call.choice(&name)?)),
                    Thing::Item(item) => Thing::Item(item.fill_rule(name.as_str())),
                    Thing::Group(_) => {
                        return Err(CallError::new(
                            "a group has no fill rule of its own; set it on what is in it",
                        ));
                    }
                })
            },
        ),
        word(
            ".named(name)",
            "With a name: the id in an SVG file.",
            r##"circle(pt(0, 0), 20).fill("teal").named("vent")"##,
            |thing: Thing, name: String| layered(thing, |node| node.named(&name)),
        ),
    ]
}
