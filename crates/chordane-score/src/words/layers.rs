//! Words for how things are put on what is below them.

use chordane::prelude::*;
use chordane::sheet::Node;

use super::entry::{Section, Word, word};
use crate::call_error::CallError;
use crate::values::{Thing, Tint};

/// Carries out a word that means the same on an item and on a group; a path becomes an item by it.
pub(super) fn layered(thing: Thing, change: impl FnOnce(Node) -> Node) -> Thing {
    let node = match thing {
        Thing::Path(path) => path.into(),
        Thing::Item(item) => item.into(),
        Thing::Group(group) => group.into(),
    };
    match change(node) {
        Node::Item(item) => Thing::Item(*item),
        Node::Group(group) => Thing::Group(*group),
    }
}

pub(super) fn section() -> Section {
    Section {
        title: "Layers",
        about: "How an item or a group is put on what is below it. In order: its effects, one after the other; what its clip and its mask leave; \
            its opacity; its blend mode. For another order put it into a group, and give the group what comes later.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            ".clipped(by)",
            "Clips a path, an item or a group to the filled area of another path. The clip moves with it.",
            r##"polygon(pt(0, 0), 4, 40).fill("teal").clipped(circle(pt(0, 0), 30))"##,
            |thing: Thing, by: Path| layered(thing, |node| node.clipped(by)),
        ),
        word(
            ".masked(by)",
            "Masks it by the luminance of another drawing: white shows, black or empty hides. The mask moves with it.",
            r##"let fade = radial_gradient(pt(0, 0), 40).colours(["white", "black"]);
polygon(pt(0, 0), 4, 40).fill("teal").masked(circle(pt(0, 0), 40).fill(fade))"##,
            |thing: Thing, by: Node| layered(thing, |node| node.masked(by)),
        ),
        word(
            ".masked_by(by, kind)",
            "Masks it by another drawing's `luminance` (brightness) or `alpha` (opacity).",
            r##"polygon(pt(0, 0), 4, 40).fill("teal").masked_by(circle(pt(0, 0), 30).fill("navy"), "alpha")"##,
            |thing: Thing, by: Node, kind: String| layered(thing, |node| node.masked_by(by, kind.as_str())),
        ),
        word(
            ".blend(mode)",
            "The blend mode with what is below: `multiply`, `screen`, `overlay`, `darken`, `lighten`, `color-dodge`, `color-burn`, `hard-light`, \
            `soft-light`, `difference`, `exclusion`, `hue`, `saturation`, `color`, `luminosity` or `normal`.",
            r##"group().add(circle(pt(-10, 0), 20).fill("gold")).add(circle(pt(10, 0), 20).fill("teal").blend("multiply"))"##,
            |thing: Thing, mode: String| layered(thing, |node| node.blend(mode.as_str())),
        ),
        word(
            ".isolated()",
            "Isolates a group: blend modes inside it mix only with the group's own contents.",
            r##"group().add(circle(pt(0, 0), 20).fill("teal").blend("multiply")).isolated()"##,
            |group: Group| group.isolated(),
        ),
        word(
            ".blurred(radius)",
            "Applies a Gaussian blur with the radius as its standard deviation; it is visible to about three times that distance.",
            r##"circle(pt(0, 0), 20).fill("teal").blurred(4)"##,
            |thing: Thing, radius: f64| layered(thing, |node| node.blurred(radius)),
        ),
        word(
            ".shadow(step, radius, colour)",
            "Adds a shadow underneath: its shape in one colour, offset by a vector and blurred by a radius.",
            r##"circle(pt(0, 0), 20).fill("white").shadow([4, 6], 3, "rgb(32 48 60 / 60%)")"##,
            |thing: Thing, step: Point, radius: f64, colour: Tint| {
                let colour = colour.of("shadow")?;
                Ok::<_, CallError>(layered(thing, |node| node.shadow(step, radius, colour)))
            },
        ),
        word(
            ".glow(radius, colour)",
            "Adds a glow underneath: its shape in one colour, blurred by a radius. Several glows of different radii look brighter than one.",
            r##"circle(pt(0, 0), 9).fill("#fff6d8").glow(4, "gold").glow(12, "#c8553d")"##,
            |thing: Thing, radius: f64, colour: Tint| {
                let colour = colour.of("glow")?;
                Ok::<_, CallError>(layered(thing, |node| node.glow(radius, colour)))
            },
        ),
        word(
            ".order(number)",
            "The stacking order among siblings: larger numbers lie above smaller ones; equal numbers keep the order in which they were added. The default is 0.",
            r##"group().add(circle(pt(0, 0), 9).fill("gold").order(1)).add(circle(pt(0, 0), 20).fill("teal"))"##,
            |thing: Thing, number: f64| layered(thing, |node| node.order(number)),
        ),
    ]
}
