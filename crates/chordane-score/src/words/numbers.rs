//! Words for angles, points and plain numbers.

use chordane::ground::plain_number;
use chordane::prelude::*;

use super::entry::{Section, Word, word};
use crate::call_error::CallError;
use crate::values::Tidy;

pub(super) fn section() -> Section {
    Section {
        title: "Angles, points and numbers",
        about: "Whole numbers and decimals mix freely, and `1/2` is a half. Angle 0 points along +x, and a positive angle \
            turns clockwise as seen. `PI` is the half turn in radians. Points and angles are added, subtracted and \
            multiplied with `+`, `-`, `*`, `/`; a point has an `x` and a `y`.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            "deg(degrees)",
            "An angle in degrees: `deg(360)` is a full turn.",
            "polar(deg(90), 10)",
            |degrees: f64| deg(degrees),
        ),
        word(
            "rad(radians)",
            "An angle in radians: `rad(2 * PI)` is a full turn.",
            "rad(PI / 2)",
            |radians: f64| rad(radians),
        ),
        word("turns(turns)", "An angle in turns: `turns(1)` is a full turn.", "turns(1/4)", |count: f64| {
            turns(count)
        }),
        word(
            "pt(x, y)",
            "A point. A pair `[x, y]` works too wherever a point is expected.",
            "pt(3, 4).length()",
            |x: f64, y: f64| pt(x, y),
        ),
        word(
            "polar(angle, distance)",
            "The point at a given distance from the origin in the direction of an angle. Add a centre to offset it.",
            "pt(100, 50) + polar(deg(30), 80)",
            |angle: Angle, distance: f64| polar(angle, distance),
        ),
        word(
            "around(n)",
            "`n` evenly spaced angles of a full turn, starting at 0; the first is not repeated at the end.",
            "around(6).map(|a| polar(a, 80))",
            |n: usize| around(n).collect::<Vec<_>>(),
        ),
        word(
            "between(from, to, n)",
            "`n` evenly spaced angles from one angle to another, both ends included.",
            "between(deg(-30), deg(30), 5)",
            |from: Angle, to: Angle, n: usize| between(from, to, n).collect::<Vec<_>>(),
        ),
        word(
            "sin(angle)",
            "The sine of an angle, exact at multiples of 90 degrees.",
            "sin(deg(30)) * 100",
            |angle: Angle| angle.sin(),
        ),
        word(
            "cos(angle)",
            "The cosine of an angle, exact at multiples of 90 degrees.",
            "cos(deg(60)) * 100",
            |angle: Angle| angle.cos(),
        ),
        word("tan(angle)", "The tangent of an angle: sine over cosine.", "tan(deg(45))", |angle: Angle| {
            angle.tan()
        }),
        word(".degrees()", "The size of an angle in degrees.", "turns(1/4).degrees()", |angle: Angle| {
            angle.degrees()
        }),
        word(".radians()", "The size of an angle in radians.", "deg(180).radians()", |angle: Angle| {
            angle.radians()
        }),
        word(".turns()", "The size of an angle in turns.", "deg(180).turns()", |angle: Angle| angle.turns()),
        word(
            ".wrapped()",
            "The equivalent angle in the range from 0 (included) to a full turn (excluded).",
            "deg(370).wrapped()",
            |angle: Angle| angle.wrapped(),
        ),
        word(
            ".length()",
            "The distance of a point from the origin.",
            "(pt(9, 9) - pt(6, 5)).length()",
            |point: Point| point.length(),
        ),
        word(
            ".angle()",
            "The direction from the origin to a point; zero for the origin itself.",
            "pt(0, 10).angle()",
            |point: Point| Angle::of(point),
        ),
        word(
            "sqrt(number)",
            "The square root of a number, which must be 0 or more.",
            "sqrt(2)",
            |number: f64| {
                if number < 0.0 {
                    return Err(CallError::new(format!(
                        "`sqrt`: the number {} is negative; give 0 or more",
                        plain_number(number)
                    )));
                }
                Ok(number.sqrt())
            },
        ),
        word(
            "asin(number)",
            "The arc sine: the angle from -90 to 90 degrees whose sine is the given number (-1 to 1).",
            "asin(0.5)",
            |number: f64| within_one("asin", number).map(|number| rad(number.asin())),
        ),
        word(
            "acos(number)",
            "The arc cosine: the angle from 0 to 180 degrees whose cosine is the given number (-1 to 1).",
            "acos(0.5)",
            |number: f64| within_one("acos", number).map(|number| rad(number.acos())),
        ),
        word(
            "atan(y, x)",
            "The direction from the origin to the point (x, y), from -180 to 180 degrees; note that y comes first. Zero for the origin itself. Same as `pt(x, y).angle()`.",
            "atan(30, 40)",
            |y: f64, x: f64| Angle::of((x, y)),
        ),
        word(
            "atan(slope)",
            "The arc tangent: the angle from -90 to 90 degrees whose tangent is the given number.",
            "atan(1)",
            |slope: f64| rad(slope.atan()),
        ),
        word(
            "pow(base, exponent)",
            "A number raised to a power, the same as `base ** exponent`. A result that is not a finite number is an error.",
            "pow(2, 0.5)",
            |base: f64, exponent: f64| {
                let power = base.powf(exponent);
                let told = || {
                    let (base, exponent) = (plain_number(base), plain_number(exponent));
                    CallError::new(format!(
                        "`pow`: {base} to the power of {exponent} is not a number that can be computed with"
                    ))
                };
                power.is_finite().then_some(Tidy(power)).ok_or_else(told)
            },
        ),
        word("exp(number)", "e (2.718..) raised to a power.", "exp(1)", |number: f64| {
            let told = || {
                CallError::new(format!(
                    "`exp`: e to the power of {} is too large; give at most 709",
                    plain_number(number)
                ))
            };
            Some(number.exp()).filter(|power| power.is_finite()).ok_or_else(told)
        }),
        word("log(number)", "The natural logarithm of a number above 0.", "log(10)", |number: f64| {
            positive("log", "number", number).map(f64::ln)
        }),
        word(
            "log(number, base)",
            "The logarithm, to a given base, of a number above 0.",
            "log(8, 2)",
            |number: f64, base: f64| {
                let told = || CallError::new("`log`: no power of 1 gives another number; give another base");
                let (number, base) = (positive("log", "number", number)?, positive("log", "base", base)?);
                (base != 1.0).then(|| Tidy(number.log(base))).ok_or_else(told)
            },
        ),
        word("abs(number)", "The absolute value of a number.", "abs(-3.5)", |number: f64| Tidy(number.abs())),
        word("min(a, b)", "The smaller of two numbers.", "min(3, 2.5)", |a: f64, b: f64| Tidy(a.min(b))),
        word("max(a, b)", "The larger of two numbers.", "max(3, 2.5)", |a: f64, b: f64| Tidy(a.max(b))),
        word(
            "clamp(value, low, high)",
            "The value limited to the range from `low` to `high`.",
            "clamp(130, 0, 100)",
            |value: f64, low: f64, high: f64| value.min(high).max(low),
        ),
        word(
            "rescale(value, from, to)",
            "Maps a number linearly from one range to another; a range is written `[0, 1]`.",
            "rescale(5, [0, 10], [100, 300])",
            |value: f64, from: Point, to: Point| rescale(value, (from.x, from.y), (to.x, to.y)),
        ),
        word(
            "smoothstep(low, high, value)",
            "0 below `low`, 1 above `high`, and a smooth S-curve between them.",
            "smoothstep(0, 10, 4)",
            |low: f64, high: f64, value: f64| smoothstep(low, high, value),
        ),
        word("floor(number)", "Rounds down to a whole number.", "floor(3.7)", |number: f64| {
            Tidy(number.floor())
        }),
        word("ceil(number)", "Rounds up to a whole number.", "ceil(3.2)", |number: f64| Tidy(number.ceil())),
        word(
            "round(number)",
            "Rounds to the nearest whole number; halves round away from zero.",
            "round(2.5)",
            |number: f64| Tidy(number.round()),
        ),
        word(
            "golden_places(n, spacing)",
            "`n` points that fill a disc about the origin evenly, each turned by the golden angle from the one before (a sunflower pattern).",
            r##"golden_places(90, 5)"##,
            |n: usize, spacing: f64| golden_places(n, spacing).collect::<Vec<_>>(),
        ),
    ]
}

/// A sine or cosine; what rounding left beyond 1 counts as 1.
fn within_one(word: &str, number: f64) -> Result<f64, CallError> {
    let told =
        || CallError::new(format!("`{word}`: the number {} is not from -1 to 1", plain_number(number)));
    (number.abs() <= 1.0 + 1e-9).then(|| number.clamp(-1.0, 1.0)).ok_or_else(told)
}

fn positive(word: &str, what: &str, number: f64) -> Result<f64, CallError> {
    let told =
        || CallError::new(format!("`{word}`: the {what} must be above 0, got {}", plain_number(number)));
    (number > 0.0).then_some(number).ok_or_else(told)
}
