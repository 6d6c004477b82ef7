//! Words for gradients.

use chordane::prelude::*;

use super::entry::{Section, Word, word};
use crate::call_error::CallError;
use crate::values::Tint;

pub(super) fn section() -> Section {
    Section {
        title: "Gradients",
        about: "Colours that go over into one another; give one wherever a colour is taken to paint with: to `fill`, `stroke` and `ground`. \
            Between its stops colours are mixed in sRGB, as SVG does, unless `mixed` says otherwise.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            "linear_gradient(from, to)",
            "A gradient from one point to another, the same all along each line across.",
            r##"circle(pt(0, 0), 40).fill(linear_gradient(pt(0, -40), pt(0, 40)).colours(["gold", "teal"]))"##,
            |from: Point, to: Point| linear_gradient(from, to),
        ),
        word(
            "radial_gradient(centre, radius)",
            "A gradient from a centre out to a circle.",
            r##"circle(pt(0, 0), 40).fill(radial_gradient(pt(0, 0), 40).colours(["gold", "teal"]))"##,
            |centre: Point, radius: f64| radial_gradient(centre, radius),
        ),
        word(
            "sweep_gradient(centre, start)",
            "A gradient once round a centre, clockwise as seen, from a direction back to it. Without a seam where the first colour is also the last.",
            r##"circle(pt(0, 0), 40).fill(sweep_gradient(pt(0, 0), deg(-90)).colours(["gold", "teal", "gold"]))"##,
            |centre: Point, start: Angle| sweep_gradient(centre, start),
        ),
        word(
            ".colours(colours)",
            "Colours evenly along the way, the first at its beginning and the last at its end.",
            r##"circle(pt(0, 0), 40).fill(linear_gradient([-40, 0], [40, 0]).colours(["gold", "white", "teal"]))"##,
            |gradient: Gradient, colours: Vec<Tint>| {
                let colours =
                    colours.into_iter().map(|one| one.of("colours")).collect::<Result<Vec<_>, _>>()?;
                Ok::<_, CallError>(gradient.colours(colours))
            },
        ),
        word(
            ".stop(share, colour)",
            "One more colour, at a share of the way from 0 to 1. Two at the same share make a hard edge.",
            r##"circle(pt(0, 0), 40).fill(linear_gradient([-40, 0], [40, 0]).stop(0.2, "gold").stop(0.6, "teal"))"##,
            |gradient: Gradient, share: f64, colour: Tint| {
                Ok::<_, CallError>(gradient.stop(share, colour.of("stop")?))
            },
        ),
        word(
            ".focus(point)",
            "Where a radial gradient begins, if not in its centre. From a point beyond its circle it is a cone, and nothing is painted outside that.",
            r##"circle(pt(0, 0), 40).fill(radial_gradient(pt(0, 0), 40).colours(["white", "teal"]).focus([-15, -15]))"##,
            |gradient: Gradient, at: Point| gradient.focus(at),
        ),
        word(
            ".focus_circle(point, radius)",
            "As `focus`, with a circle round that point that the gradient begins at.",
            r##"circle(pt(0, 0), 40).fill(radial_gradient(pt(0, 0), 40).colours(["white", "teal"]).focus_circle([-10, -10], 12))"##,
            |gradient: Gradient, at: Point, radius: f64| gradient.focus_circle(at, radius),
        ),
        word(
            ".spread(name)",
            "What comes before the beginning and after the end: `pad` (the first and the last colour, by default), `repeat` or `reflect`.",
            r##"circle(pt(0, 0), 40).fill(linear_gradient([0, 0], [9, 9]).colours(["gold", "teal"]).spread("reflect"))"##,
            |gradient: Gradient, name: String| gradient.spread(name.as_str()),
        ),
        word(
            ".mixed(space)",
            "The space in which colours are mixed: `srgb` (by default), `srgb-linear`, `oklab`, `oklch`, `lab`, `lch`, `hsl` or `hwb`.",
            r##"circle(pt(0, 0), 40).fill(linear_gradient([-40, 0], [40, 0]).colours(["gold", "navy"]).mixed("oklab"))"##,
            |gradient: Gradient, space: String| gradient.mixed(space.as_str()),
        ),
        word(
            ".measured(name)",
            "What its coordinates are measured in: those of the path (`item`, by default), shares of the path's bounds (`box`), or those of the `sheet`.",
            r##"circle(pt(50, 50), 40).fill(linear_gradient([0, 0], [1, 1]).colours(["gold", "teal"]).measured("box"))"##,
            |gradient: Gradient, name: String| gradient.measured(name.as_str()),
        ),
        word(
            ".reversed()",
            "The same the other way round.",
            r##"circle(pt(0, 0), 40).fill(linear_gradient([-40, 0], [40, 0]).colours(["gold", "teal"]).reversed())"##,
            |gradient: Gradient| gradient.reversed(),
        ),
        word(
            ".at(share)",
            "The colour of a gradient at a share of the way.",
            r##"linear_gradient([0, 0], [1, 0]).colours(["gold", "teal"]).at(0.3)"##,
            |gradient: Gradient, share: f64| gradient.at(share),
        ),
    ]
}
