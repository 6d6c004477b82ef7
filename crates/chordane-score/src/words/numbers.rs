//! Words for angles, points and plain numbers.

use chordane::prelude::*;
use rhai::{Array, Dynamic};

use super::{Args, Kind, Refusal, Section, Word};

pub(super) const SECTION: Section = Section {
    title: "Angles, points and numbers",
    about: "Whole numbers and decimals mix freely, and `1/2` is a half. Angle 0 points along +x, and a positive angle \
            turns clockwise as seen. `PI` is the half turn in radians. Points and angles are added, subtracted and \
            multiplied with `+`, `-`, `*`, `/`; a point has an `x` and a `y`.",
    words: WORDS,
};

const WORDS: &[Word] = &[
    Word {
        name: "deg",
        on: &[],
        takes: &[("degrees", Kind::Number)],
        gives: Kind::Angle,
        about: "An angle in degrees: `deg(360)` is a full turn.",
        example: "polar(deg(90), 10)",
        run: |a| Ok(Dynamic::from(deg(a.number(0)))),
    },
    Word {
        name: "rad",
        on: &[],
        takes: &[("radians", Kind::Number)],
        gives: Kind::Angle,
        about: "An angle in radians: `rad(2 * PI)` is a full turn.",
        example: "rad(PI / 2)",
        run: |a| Ok(Dynamic::from(rad(a.number(0)))),
    },
    Word {
        name: "turns",
        on: &[],
        takes: &[("turns", Kind::Number)],
        gives: Kind::Angle,
        about: "An angle in turns: `turns(1)` goes once round.",
        example: "turns(1/4)",
        run: |a| Ok(Dynamic::from(turns(a.number(0)))),
    },
    Word {
        name: "pt",
        on: &[],
        takes: &[("x", Kind::Number), ("y", Kind::Number)],
        gives: Kind::Point,
        about: "A point; `[x, y]` is the same wherever a point is taken.",
        example: "pt(3, 4).length()",
        run: |a| Ok(Dynamic::from(pt(a.number(0), a.number(1)))),
    },
    Word {
        name: "polar",
        on: &[],
        takes: &[("angle", Kind::Angle), ("distance", Kind::Number)],
        gives: Kind::Point,
        about: "The point at a distance from the origin in the direction of an angle. Add a centre to move it.",
        example: "pt(100, 50) + polar(deg(30), 80)",
        run: |a| Ok(Dynamic::from(polar(a.angle(0), a.number(1)))),
    },
    Word {
        name: "around",
        on: &[],
        takes: &[("n", Kind::Count)],
        gives: Kind::Angles,
        about: "n angles that divide a full turn evenly, from 0, never the first one twice.",
        example: "around(6).map(|a| polar(a, 80))",
        run: |a| {
            let n = list_room(a, "around", a.count(0))?;
            Ok(Dynamic::from_array(around(n).map(Dynamic::from).collect()))
        },
    },
    Word {
        name: "between",
        on: &[],
        takes: &[("from", Kind::Angle), ("to", Kind::Angle), ("n", Kind::Count)],
        gives: Kind::Angles,
        about: "n angles from one to another, evenly spaced, both ends included.",
        example: "between(deg(-30), deg(30), 5)",
        run: |a| {
            let n = list_room(a, "between", a.count(2))?;
            let angles: Array = between(a.angle(0), a.angle(1), n).map(Dynamic::from).collect();
            Ok(Dynamic::from_array(angles))
        },
    },
    Word {
        name: "sin",
        on: &[],
        takes: &[("angle", Kind::Angle)],
        gives: Kind::Number,
        about: "The sine of an angle, exact at multiples of 90 degrees.",
        example: "sin(deg(30)) * 100",
        run: |a| Ok(a.angle(0).sin().into()),
    },
    Word {
        name: "cos",
        on: &[],
        takes: &[("angle", Kind::Angle)],
        gives: Kind::Number,
        about: "The cosine of an angle, exact at multiples of 90 degrees.",
        example: "cos(deg(60)) * 100",
        run: |a| Ok(a.angle(0).cos().into()),
    },
    Word {
        name: "tan",
        on: &[],
        takes: &[("angle", Kind::Angle)],
        gives: Kind::Number,
        about: "The tangent of an angle: sine over cosine.",
        example: "tan(deg(45))",
        run: |a| Ok(a.angle(0).tan().into()),
    },
    Word {
        name: "degrees",
        on: &[Kind::Angle],
        takes: &[],
        gives: Kind::Number,
        about: "The size of an angle in degrees.",
        example: "turns(1/4).degrees()",
        run: |a| Ok(a.angle(0).degrees().into()),
    },
    Word {
        name: "radians",
        on: &[Kind::Angle],
        takes: &[],
        gives: Kind::Number,
        about: "The size of an angle in radians.",
        example: "deg(180).radians()",
        run: |a| Ok(a.angle(0).radians().into()),
    },
    Word {
        name: "turns",
        on: &[Kind::Angle],
        takes: &[],
        gives: Kind::Number,
        about: "The size of an angle in turns.",
        example: "deg(180).turns()",
        run: |a| Ok(a.angle(0).turns().into()),
    },
    Word {
        name: "wrapped",
        on: &[Kind::Angle],
        takes: &[],
        gives: Kind::Angle,
        about: "The same direction as an angle from 0 up to, not including, a full turn.",
        example: "deg(370).wrapped()",
        run: |a| Ok(Dynamic::from(a.angle(0).wrapped())),
    },
    Word {
        name: "length",
        on: &[Kind::Point],
        takes: &[],
        gives: Kind::Number,
        about: "The distance of a point from the origin.",
        example: "(pt(9, 9) - pt(6, 5)).length()",
        run: |a| Ok(a.point(0).length().into()),
    },
    Word {
        name: "angle",
        on: &[Kind::Point],
        takes: &[],
        gives: Kind::Angle,
        about: "The direction from the origin to a point; zero for the origin itself.",
        example: "pt(0, 10).angle()",
        run: |a| Ok(Dynamic::from(Angle::of(a.point(0)))),
    },
    Word {
        name: "sqrt",
        on: &[],
        takes: &[("number", Kind::Number)],
        gives: Kind::Number,
        about: "The square root of a number from 0 up.",
        example: "sqrt(2)",
        run: |a| match a.number(0) {
            n if n < 0.0 => Err(Refusal::new(format!("`sqrt`: the number {n} is negative; give 0 or more"))),
            n => Ok(n.sqrt().into()),
        },
    },
    Word {
        name: "abs",
        on: &[],
        takes: &[("number", Kind::Number)],
        gives: Kind::Number,
        about: "A number without its sign.",
        example: "abs(-3.5)",
        run: |a| Ok(tidy(a.number(0).abs())),
    },
    Word {
        name: "min",
        on: &[],
        takes: &[("a", Kind::Number), ("b", Kind::Number)],
        gives: Kind::Number,
        about: "The smaller of two numbers.",
        example: "min(3, 2.5)",
        run: |a| Ok(tidy(a.number(0).min(a.number(1)))),
    },
    Word {
        name: "max",
        on: &[],
        takes: &[("a", Kind::Number), ("b", Kind::Number)],
        gives: Kind::Number,
        about: "The larger of two numbers.",
        example: "max(3, 2.5)",
        run: |a| Ok(tidy(a.number(0).max(a.number(1)))),
    },
    Word {
        name: "clamp",
        on: &[],
        takes: &[("value", Kind::Number), ("low", Kind::Number), ("high", Kind::Number)],
        gives: Kind::Number,
        about: "The number itself, or the end of the range that it is beyond.",
        example: "clamp(130, 0, 100)",
        run: |a| Ok(a.number(0).min(a.number(2)).max(a.number(1)).into()),
    },
    Word {
        name: "rescale",
        on: &[],
        takes: &[("value", Kind::Number), ("from", Kind::Point), ("to", Kind::Point)],
        gives: Kind::Number,
        about: "A number of one range turned into the same place of another: `[0, 1]` is a range.",
        example: "rescale(5, [0, 10], [100, 300])",
        run: |a| {
            let (from, to) = (a.point(1), a.point(2));
            Ok(rescale(a.number(0), (from.x, from.y), (to.x, to.y)).into())
        },
    },
    Word {
        name: "smoothstep",
        on: &[],
        takes: &[("low", Kind::Number), ("high", Kind::Number), ("value", Kind::Number)],
        gives: Kind::Number,
        about: "0 up to one number, 1 from another on, and a smooth curve between them.",
        example: "smoothstep(0, 10, 4)",
        run: |a| Ok(smoothstep(a.number(0), a.number(1), a.number(2)).into()),
    },
    Word {
        name: "floor",
        on: &[],
        takes: &[("number", Kind::Number)],
        gives: Kind::Number,
        about: "The whole number at or below a number.",
        example: "floor(3.7)",
        run: |a| Ok(tidy(a.number(0).floor())),
    },
    Word {
        name: "ceil",
        on: &[],
        takes: &[("number", Kind::Number)],
        gives: Kind::Number,
        about: "The whole number at or above a number.",
        example: "ceil(3.2)",
        run: |a| Ok(tidy(a.number(0).ceil())),
    },
    Word {
        name: "round",
        on: &[],
        takes: &[("number", Kind::Number)],
        gives: Kind::Number,
        about: "The nearest whole number; halves go away from zero.",
        example: "round(2.5)",
        run: |a| Ok(tidy(a.number(0).round())),
    },
    Word {
        name: "golden_places",
        on: &[],
        takes: &[("n", Kind::Count), ("spacing", Kind::Number)],
        gives: Kind::Points,
        about: "Points that fill a disc evenly round the origin, each a golden angle on from the one before.",
        example: r##"golden_places(90, 5)"##,
        run: |a| {
            let (n, most) = (a.count(0), a.longest_list);
            if n > most {
                return Err(Refusal::new(format!("{n} points are too many; give at most {most}")));
            }
            Ok(golden_places(n, a.number(1)).map(Dynamic::from).collect::<rhai::Array>().into())
        },
    },
];

/// A number as the engine's whole one where it is whole, so that it can count and index.
pub(crate) fn tidy(value: f64) -> Dynamic {
    if value.trunc() == value && value.abs() < 1e15 { (value as i64).into() } else { value.into() }
}

fn list_room(a: &Args<'_, '_>, call: &str, n: usize) -> Result<usize, Refusal> {
    let most = a.longest_list;
    if n <= most {
        return Ok(n);
    }
    Err(Refusal {
        message: format!("`{call}`: a list of {n} angles is too long; give at most {most}"),
        advice: Some("the limit can be raised with --max-list".to_owned()),
    })
}
