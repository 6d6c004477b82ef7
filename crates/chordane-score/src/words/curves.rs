//! Words for smooth curves through points.

use chordane::ground::Given;
use chordane::prelude::*;
use rhai::Dynamic;

use super::pen::path;
use super::{Kind, Refusal, Section, Word};

pub(super) const SECTION: Section = Section {
    title: "Smooth curves",
    about: "Every point listed is on the curve, the first and the last one too. Plain points are soft; corners and rounded vertices mix with them in one contour.",
    words: WORDS,
};

const WORDS: &[Word] = &[
    Word {
        name: "through",
        on: &[],
        takes: &[("vertices", Kind::Vertices)],
        gives: Kind::Curve,
        about: "A smooth curve through all of the points, each stretch shaped by its neighbours alone.",
        example: "through([[0, 0], [40, 30], [80, -30], [120, 0]]).open()",
        run: |a| curve(through(a.vertices(0))),
    },
    Word {
        name: "flowing",
        on: &[],
        takes: &[("vertices", Kind::Vertices)],
        gives: Kind::Curve,
        about: "A smooth curve through all of the points that keeps bending low: rounder.",
        example: "flowing([[0, 0], [40, 30], [80, -30], [120, 0]]).close()",
        run: |a| curve(flowing(a.vertices(0))),
    },
    Word {
        name: "soft",
        on: &[],
        takes: &[("at", Kind::Point)],
        gives: Kind::Vertex,
        about: "A vertex that the curve passes without a corner, as it does a plain point.",
        example: "through([corner([0, 0]), soft([40, -30]), corner([80, 0])]).close()",
        run: |a| Ok(Dynamic::from(soft(a.point(0)))),
    },
    Word {
        name: "corner",
        on: &[],
        takes: &[("at", Kind::Point)],
        gives: Kind::Vertex,
        about: "A vertex at which the curve has a corner; two in a row have a straight side between them.",
        example: "through([corner([0, 0]), corner([40, 0]), [60, 30], [20, 50]]).close()",
        run: |a| Ok(Dynamic::from(corner(a.point(0)))),
    },
    Word {
        name: "rounded",
        on: &[],
        takes: &[("at", Kind::Point), ("radius", Kind::Number)],
        gives: Kind::Vertex,
        about: "A corner that an arc of a radius cuts short; where it does not fit, the radius shrinks.",
        example: "through([rounded([0, 0], 12), rounded([60, 0], 12), corner([30, 50])]).close()",
        run: |a| Ok(Dynamic::from(rounded(a.point(0), a.number(1)))),
    },
    Word {
        name: "spacing",
        on: &[Kind::Curve],
        takes: &[("name", Kind::Text)],
        gives: Kind::Curve,
        about: "How distances pace the curve: `uniform`, `centripetal` (at first) or `chordal`.",
        example: r##"through([[0, 0], [40, 30], [80, -30], [120, 0]]).spacing("chordal").open()"##,
        run: |a| {
            let name = a.text(1);
            let spacing = Given::<Spacing>::from(name.as_str()).resolve("spacing")?;
            curve(a.curve().spacing(spacing))
        },
    },
    Word {
        name: "tension",
        on: &[Kind::Curve],
        takes: &[("share", Kind::Number)],
        gives: Kind::Curve,
        about: "How tight the curve is: 0 is loose, 1 gives straight sides.",
        example: "through([[0, 0], [40, 30], [80, -30], [120, 0]]).tension(0.5).open()",
        run: |a| {
            let tension = a.number(1);
            curve(a.curve().tension(tension))
        },
    },
    Word {
        name: "held",
        on: &[Kind::Curve],
        takes: &[],
        gives: Kind::Curve,
        about: "The curve begins and ends straight toward its neighbours.",
        example: "through([[0, 0], [40, 30], [80, -30], [120, 0]]).held().open()",
        run: |a| curve(a.curve().ends(Ends::Held)),
    },
    Word {
        name: "led",
        on: &[Kind::Curve],
        takes: &[("before", Kind::Point), ("behind", Kind::Point)],
        gives: Kind::Curve,
        about: "The curve begins and ends as if it came from one guide point and went on to another.",
        example: "through([[0, 0], [40, 30], [80, -30], [120, 0]]).led([0, -50], [120, -50]).open()",
        run: |a| {
            let (before, behind) = (a.point(1), a.point(2));
            curve(a.curve().ends(Ends::Led(before, behind)))
        },
    },
    Word {
        name: "open",
        on: &[Kind::Curve],
        takes: &[],
        gives: Kind::Path,
        about: "The curve from the first vertex to the last.",
        example: "flowing([[0, 0], [40, 30], [80, -30], [120, 0]]).open()",
        run: |a| path(a.curve().open()),
    },
    Word {
        name: "close",
        on: &[Kind::Curve],
        takes: &[],
        gives: Kind::Path,
        about: "The curve through all vertices and back to the first. Do not repeat it.",
        example: "through([[0, 0], [40, 30], [80, -30], [120, 0]]).close()",
        run: |a| path(a.curve().close()),
    },
];

/// A curve as a script holds it, unless something went wrong in its making.
fn curve(curve: Through) -> Result<Dynamic, Refusal> {
    curve.sound()?;
    Ok(Dynamic::from(curve))
}
