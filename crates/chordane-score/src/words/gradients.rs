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
            "A linear gradient from one point to another.",
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
            "A conic gradient: one turn about a centre, clockwise on screen, from a start angle. There is no seam if the first and last colours are equal.",
            r##"circle(pt(0, 0), 40).fill(sweep_gradient(pt(0, 0), deg(-90)).colours(["gold", "teal", "gold"]))"##,
            |centre: Point, start: Angle| sweep_gradient(centre, start),
        ),
        word(
            ".colours(colours)",
            "Evenly spaced colours, the first at the start of the gradient and the last at its end.",
            r##"circle(pt(0, 0), 40).fill(linear_gradient([-40, 0], [40, 0]).colours(["gold", "white", "teal"]))"##,
            |gradient: Gradient, colours: Vec<Tint>| {
                let colours =
                    colours.into_iter().map(|one| one.of("colours")).collect::<Result<Vec<_>, _>>()?;
                Ok::<_, CallError>(gradient.colours(colours))
            },
        ),
        word(
            ".stop(share, colour)",
            "Adds a colour stop at a fraction from 0 to 1. Two stops at the same fraction make a hard edge.",
            r##"circle(pt(0, 0), 40).fill(linear_gradient([-40, 0], [40, 0]).stop(0.2, "gold").stop(0.6, "teal"))"##,
            |gradient: Gradient, share: f64, colour: Tint| {
                Ok::<_, CallError>(gradient.stop(share, colour.of("stop")?))
            },
        ),
        word(
            ".focus(point)",
            "The focal point of a radial gradient, if it is not the centre. From a point beyond its circle it is a cone, and nothing is painted outside that.",
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
            "How the gradient continues beyond its ends: `pad` (with the first and last colour, the default), `repeat` or `reflect`.",
            r##"circle(pt(0, 0), 40).fill(linear_gradient([0, 0], [9, 9]).colours(["gold", "teal"]).spread("reflect"))"##,
            |gradient: Gradient, name: String| gradient.spread(name.as_str()),
        ),
        word(
            ".mixed(space)",
            "The colour space of interpolation: `srgb` (the default), `srgb-linear`, `oklab`, `oklch`, `lab`, `lch`, `hsl` or `hwb`.",
            r##"circle(pt(0, 0), 40).fill(linear_gradient([-40, 0], [40, 0]).colours(["gold", "navy"]).mixed("oklab"))"##,
            |gradient: Gradient, space: String| gradient.mixed(space.as_str()),
        ),
        word(
            ".measured(name)",
            "The coordinate system of the gradient: that of the path (`item`, the default), fractions of the path's bounds (`box`), or that of the `sheet`.",
            r##"circle(pt(50, 50), 40).fill(linear_gradient([0, 0], [1, 1]).colours(["gold", "teal"]).measured("box"))"##,
            |gradient: Gradient, name: String| gradient.measured(name.as_str()),
        ),
        word(
            ".reversed()",
            "The gradient with its colours in reverse order.",
            r##"circle(pt(0, 0), 40).fill(linear_gradient([-40, 0], [40, 0]).colours(["gold", "teal"]).reversed())"##,
            |gradient: Gradient| gradient.reversed(),
        ),
        word(
            ".at(share)",
            "The colour of a gradient at a fraction from 0 to 1.",
            r##"linear_gradient([0, 0], [1, 0]).colours(["gold", "teal"]).at(0.3)"##,
            |gradient: Gradient, share: f64| gradient.at(share),
        ),
    ]
}
