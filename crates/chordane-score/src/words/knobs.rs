//! Words for knobs.

use chordane::number::{Point, pt};
use chordane::path::Path;
use rhai::Array;

use super::entry::{Section, Word, word};
use crate::GivenValue;
use crate::call::Call;
use crate::call_error::CallError;
use crate::stage::Stage;
use crate::values::Give;

pub(super) fn section() -> Section {
    Section {
        title: "Knobs",
        about: "A knob is a named value that whoever draws the score can set without a change to its text. Declare it once and use its value wherever you like.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            "knob(name, start, low, high)",
            "A number knob with a start value and a range.",
            r#"let sag = knob("sag", 0.3, 0, 1);
start(pt(0, 0)).quad([50, 60 * sag], [100, 0]).open()"#,
            |call: &Call<'_>, name: String, start: f64, low: f64, high: f64| {
                declared(call, &name, |stage, name| stage.number(name, start, low, high))
            },
        ),
        word(
            "knob(name, start, choices)",
            "A choice knob: one of several names.",
            r#"knob("tail", "bows", ["bows", "plain"])"#,
            |call: &Call<'_>, name: String, start: String, choices: Vec<String>| {
                declared(call, &name, |stage, name| stage.one_of(name, &start, choices))
            },
        ),
        word(
            "knob(name, start)",
            "A switch knob: true or false.",
            r#"knob("dots", true)"#,
            |call: &Call<'_>, name: String, start: bool| {
                declared(call, &name, |stage, name| stage.on_or_off(name, start))
            },
        ),
        word(
            "knob(name, start)",
            "A colour knob, given as a CSS colour.",
            r##"circle(pt(0, 0), 20).fill(knob("cloth", "#c8553d"))"##,
            |call: &Call<'_>, name: String, start: String| {
                declared(call, &name, |stage, name| stage.css_colour(name, &start))
            },
        ),
        word(
            "knob(name, start)",
            "A point.",
            r#"circle(knob("vent", pt(0, -20)), 9)"#,
            |call: &Call<'_>, name: String, start: Point| {
                declared(call, &name, |stage, name| stage.place(name, start))
            },
        ),
        word(
            "given(name, otherwise)",
            "The path that the program around the score hands in under a name, or else this one.",
            r##"given("badge", circle(pt(0, 0), 20)).fill("teal")"##,
            |call: &Call<'_>, name: String, otherwise: Path| {
                handed_in(call, &name, "a path", |value| value.as_path().cloned().map(Ok))
                    .unwrap_or(Ok(otherwise))
            },
        ),
        word(
            "given(name, otherwise)",
            "The list of points or numbers that the program around the score hands in under a name, or else this one.",
            r##"given("bows", [[0, 0], [30, 12]]).map(|bow| circle(bow, 4).fill("teal"))"##,
            |call: &Call<'_>, name: String, otherwise: Array| {
                let list = |value: &GivenValue| match value {
                    GivenValue::Points(points) => Some(as_list(call, points.clone())),
                    GivenValue::Numbers(numbers) => Some(as_list(call, numbers.clone())),
                    _ => None,
                };
                handed_in(call, &name, "a list", list).unwrap_or(Ok(otherwise))
            },
        ),
        word(
            "given(name, otherwise)",
            "The number that the program around the score hands in under a name, or else this one.",
            r##"circle(pt(0, 0), given("radius", 20))"##,
            |call: &Call<'_>, name: String, otherwise: f64| {
                handed_in(call, &name, "a number", |value| value.as_number().map(Ok)).unwrap_or(Ok(otherwise))
            },
        ),
        word(
            "asked_size(width, height)",
            "The size that is asked for, or else this one: a score that lays itself out within it looks right at any size.",
            r##"let size = asked_size(640, 480);
sheet(size.x, size.y).ground("#f4efe6")"##,
            |call: &Call<'_>, width: f64, height: f64| {
                call.stage(|stage| stage.asked_size(pt(width, height)))
            },
        ),
    ]
}

fn declared<T>(
    call: &Call<'_>,
    name: &str,
    declare: impl FnOnce(&mut Stage, &str) -> Result<T, String>,
) -> Result<T, CallError> {
    call.stage(|stage| declare(stage, name)).map_err(CallError::new)
}

/// The value that was handed in under a name, as the kind that the score asks for; `None` if there is none.
fn handed_in<T>(
    call: &Call<'_>,
    name: &str,
    kind: &str,
    read: impl FnOnce(&GivenValue) -> Option<Result<T, CallError>>,
) -> Option<Result<T, CallError>> {
    let value = call.stage(|stage| stage.given(name).cloned())?;
    let wrong = || {
        let message = format!("\"{name}\" must be {kind}, and the program gave {}", value.described());
        Err(CallError::new(message))
    };
    Some(read(&value).unwrap_or_else(wrong))
}

fn as_list<T: Give>(call: &Call<'_>, values: Vec<T>) -> Result<Array, CallError>
where
    Vec<T>: Give,
{
    Ok(values.give(call)?.into_array().unwrap_or_default())
}
