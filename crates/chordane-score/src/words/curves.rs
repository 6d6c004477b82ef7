//! Words for smooth curves through points.

use chordane::path::Ends;
use chordane::prelude::*;

use super::entry::{Section, Word, word};
use crate::call::Call;
use crate::call_error::CallError;

pub(super) fn section() -> Section {
    Section {
        title: "Smooth curves",
        about: "Every point listed is on the curve, the first and the last one too. Plain points are soft; corners and rounded vertices mix with them in one contour.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            "through(vertices)",
            "A smooth curve through all of the points, each stretch shaped by its neighbours alone.",
            "through([[0, 0], [40, 30], [80, -30], [120, 0]]).open()",
            |vertices: Vec<Vertex>| through(vertices),
        ),
        word(
            "flowing(vertices)",
            "A smooth curve through all of the points that keeps bending low: rounder.",
            "flowing([[0, 0], [40, 30], [80, -30], [120, 0]]).close()",
            |vertices: Vec<Vertex>| flowing(vertices),
        ),
        word(
            "soft(at)",
            "A vertex that the curve passes without a corner, as it does a plain point.",
            "through([corner([0, 0]), soft([40, -30]), corner([80, 0])]).close()",
            |at: Point| soft(at),
        ),
        word(
            "corner(at)",
            "A vertex at which the curve has a corner; two in a row have a straight side between them.",
            "through([corner([0, 0]), corner([40, 0]), [60, 30], [20, 50]]).close()",
            |at: Point| corner(at),
        ),
        word(
            "rounded(at, radius)",
            "A corner that an arc of a radius cuts short; where it does not fit, the radius shrinks.",
            "through([rounded([0, 0], 12), rounded([60, 0], 12), corner([30, 50])]).close()",
            |at: Point, radius: f64| rounded(at, radius),
        ),
        word(
            ".spacing(name)",
            "How the distances between points pace the curve: `uniform`, `centripetal` (the default) or `chordal`.",
            r##"through([[0, 0], [40, 30], [80, -30], [120, 0]]).spacing("chordal").open()"##,
            |call: &Call<'_>, curve: Through, name: String| {
                Ok::<_, CallError>(curve.spacing(call.choice::<Spacing>(&name)?))
            },
        ),
        word(
            ".tension(share)",
            "How tight the curve is: 0 is loose, 1 gives straight sides.",
            "through([[0, 0], [40, 30], [80, -30], [120, 0]]).tension(0.5).open()",
            |curve: Through, share: f64| curve.tension(share),
        ),
        word(
            ".held()",
            "The curve begins and ends straight toward its neighbours.",
            "through([[0, 0], [40, 30], [80, -30], [120, 0]]).held().open()",
            |curve: Through| curve.ends(Ends::Held),
        ),
        word(
            ".led(before, behind)",
            "The curve begins and ends as if it came from one guide point and went on to another.",
            "through([[0, 0], [40, 30], [80, -30], [120, 0]]).led([0, -50], [120, -50]).open()",
            |curve: Through, before: Point, behind: Point| curve.ends(Ends::Led(before, behind)),
        ),
        word(
            ".open()",
            "The curve from the first vertex to the last.",
            "flowing([[0, 0], [40, 30], [80, -30], [120, 0]]).open()",
            |curve: Through| curve.open(),
        ),
        word(
            ".close()",
            "The curve through all vertices and back to the first. Do not repeat it.",
            "through([[0, 0], [40, 30], [80, -30], [120, 0]]).close()",
            |call: &Call<'_>, curve: Through| {
                if matches!(curve.ends, Ends::Led(..)) {
                    let told = "the guides of `led` are not used: a closed curve has no ends; end it with .open() to use them";
                    call.stage(|stage| stage.remark(told.to_owned()));
                }
                curve.close()
            },
        ),
    ]
}
