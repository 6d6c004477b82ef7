//! Words for smooth curves through points.

use chordane::path::Ends;
use chordane::prelude::*;

use super::entry::{Section, Word, word};
use crate::call::Call;
use crate::call_error::CallError;

pub(super) fn section() -> Section {
    Section {
        title: "Smooth curves",
        about: "The curve passes through every listed point, including the first and the last. Plain points are smooth; corners and rounded vertices can be mixed with them in one contour.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            "through(vertices)",
            "A smooth curve through all points; each piece depends only on nearby points.",
            "through([[0, 0], [40, 30], [80, -30], [120, 0]]).open()",
            |vertices: Vec<Vertex>| through(vertices),
        ),
        word(
            "flowing(vertices)",
            "A rounder smooth curve through all points that avoids sharp bends; every point influences the whole curve a little.",
            "flowing([[0, 0], [40, 30], [80, -30], [120, 0]]).close()",
            |vertices: Vec<Vertex>| flowing(vertices),
        ),
        word(
            "soft(at)",
            "A smooth vertex, the same as a plain point.",
            "through([corner([0, 0]), soft([40, -30]), corner([80, 0])]).close()",
            |at: Point| soft(at),
        ),
        word(
            "corner(at)",
            "A vertex at which the curve has a corner; two corners in a row are joined by a straight side.",
            "through([corner([0, 0]), corner([40, 0]), [60, 30], [20, 50]]).close()",
            |at: Point| corner(at),
        ),
        word(
            "rounded(at, radius)",
            "A corner rounded by an arc of the given radius; a radius that is too large is reduced to fit.",
            "through([rounded([0, 0], 12), rounded([60, 0], 12), corner([30, 50])]).close()",
            |at: Point, radius: f64| rounded(at, radius),
        ),
        word(
            ".spacing(name)",
            "The parameterisation by the distances between points: `uniform`, `centripetal` (the default) or `chordal`.",
            r##"through([[0, 0], [40, 30], [80, -30], [120, 0]]).spacing("chordal").open()"##,
            |call: &Call<'_>, curve: Through, name: String| {
                Ok::<_, CallError>(curve.spacing(call.choice::<Spacing>(&name)?))
            },
        ),
        word(
            ".tension(share)",
            "The tension of the curve: 0 (the default) is loose, 1 gives straight segments.",
            "through([[0, 0], [40, 30], [80, -30], [120, 0]]).tension(0.5).open()",
            |curve: Through, share: f64| curve.tension(share),
        ),
        word(
            ".held()",
            "Makes the curve start and end in the direction of the neighbouring vertex.",
            "through([[0, 0], [40, 30], [80, -30], [120, 0]]).held().open()",
            |curve: Through| curve.ends(Ends::Held),
        ),
        word(
            ".led(before, behind)",
            "Makes the curve start as if it came from one guide point and end as if it continued to another.",
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
            "The closed curve through all vertices. Do not repeat the first vertex.",
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
