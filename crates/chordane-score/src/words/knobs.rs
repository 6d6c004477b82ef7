//! Words for knobs.

use chordane::number::{Point, pt};

use super::entry::{Section, Word, word};
use crate::call::Call;
use crate::refusal::Refusal;
use crate::stage::Stage;

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
            "A number within a range.",
            r#"let sag = knob("sag", 0.3, 0, 1);
start(pt(0, 0)).quad([50, 60 * sag], [100, 0]).open()"#,
            |call: &Call<'_>, name: String, start: f64, low: f64, high: f64| {
                declared(call, &name, |stage, name| stage.number(name, start, low, high))
            },
        ),
        word(
            "knob(name, start, choices)",
            "One of several names.",
            r#"knob("tail", "bows", ["bows", "plain"])"#,
            |call: &Call<'_>, name: String, start: String, choices: Vec<String>| {
                declared(call, &name, |stage, name| stage.one_of(name, &start, choices))
            },
        ),
        word(
            "knob(name, start)",
            "On or off: true or false.",
            r#"knob("dots", true)"#,
            |call: &Call<'_>, name: String, start: bool| {
                declared(call, &name, |stage, name| stage.on_or_off(name, start))
            },
        ),
        word(
            "knob(name, start)",
            "A CSS colour.",
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
) -> Result<T, Refusal> {
    call.stage(|stage| declare(stage, name)).map_err(Refusal::new)
}
