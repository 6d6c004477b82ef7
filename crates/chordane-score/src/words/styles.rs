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
        about: "Each item has its own style. There is no current style, so nothing leaks from one shape into the next. The first style word turns a path into an item.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            "style()",
            "An empty style, to be applied to any number of items with `styled`.",
            r##"let canvas = style().fill("#c8553d").stroke("#20303c", 3);
circle(pt(0, 0), 20).styled(canvas)"##,
            style,
        ),
        word(
            ".styled(style)",
            "Applies a style made with `style()`.",
            r##"let thin = style().stroke("#20303c", 1);
polygon(pt(0, 0), 6, 30).styled(thin)"##,
            |item: Item, style: Style| item.styled(&style),
        ),
        word(
            ".fill(paint)",
            "Fills with a colour, a gradient, a picture, a pattern, or colours that follow the path.",
            r##"circle(pt(0, 0), 20).fill("rgb(200 85 61 / 50%)")"##,
            |on: Painted, paint: GivenPaint| on.fill(paint),
        ),
        word(
            ".stroke(paint, width)",
            "Strokes with a colour or another paint; half of the width lies on either side of the line.",
            r##"circle(pt(0, 0), 20).stroke("#20303c", 3)"##,
            |on: Painted, paint: GivenPaint, width: f64| on.stroke(paint, width),
        ),
        word(
            ".cap(name)",
            "The shape of the stroke's ends: `butt`, `round` or `square`.",
            r##"open([[0, 0], [40, 0]]).stroke("teal", 8).cap("round")"##,
            |on: Stroked, name: String| on.cap(name.as_str()),
        ),
        word(
            ".join(name)",
            "The shape of the stroke's corners: `mitre`, `round` or `bevel`.",
            r##"polygon(pt(0, 0), 3, 40).stroke("teal", 8).join("round")"##,
            |on: Stroked, name: String| on.join(name.as_str()),
        ),
        word(
            ".mitre_limit(limit)",
            "The maximum mitre length as a multiple of the stroke width, 1 or more; longer mitres are bevelled. The default is 4.",
            r##"star(pt(0, 0), 5, 40, 12).stroke("teal", 4).mitre_limit(10)"##,
            |on: Stroked, limit: f64| on.mitre_limit(limit),
        ),
        word(
            ".dash(lengths)",
            "A dash pattern: alternating lengths of dash and gap.",
            r##"circle(pt(0, 0), 40).stroke("teal", 4).dash([12, 6])"##,
            |on: Stroked, lengths: Vec<f64>| on.dash(lengths),
        ),
        word(
            ".dash_offset(offset)",
            "The distance into the dash pattern at which the line starts.",
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
            "The fill rule for overlapping contours: `nonzero` or `evenodd`.",
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
            "Sets the name, written as the id in an SVG file.",
            r##"circle(pt(0, 0), 20).fill("teal").named("vent")"##,
            |thing: Thing, name: String| layered(thing, |node| node.named(&name)),
        ),
    ]
}
