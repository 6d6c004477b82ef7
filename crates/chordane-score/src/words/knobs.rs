//! Words for knobs.

use rhai::Dynamic;

use super::{Args, Kind, Refusal, Section, Word};
use crate::Stage;

pub(super) const SECTION: Section = Section {
    title: "Knobs",
    about: "A knob is a named value that whoever draws the score can set, with --set sag=0.2. Declare it once and use its value wherever you like; --list-knobs shows them.",
    words: WORDS,
};

const WORDS: &[Word] = &[
    Word {
        name: "knob",
        on: &[],
        takes: &[
            ("name", Kind::Text),
            ("start", Kind::Number),
            ("low", Kind::Number),
            ("high", Kind::Number),
        ],
        gives: Kind::Number,
        about: "A number within a range.",
        example: r#"let sag = knob("sag", 0.3, 0, 1);
start(pt(0, 0)).quad([50, 60 * sag], [100, 0]).open()"#,
        run: |a| {
            let (start, low, high) = (a.number(1), a.number(2), a.number(3));
            declared(a, |stage, name| stage.number(name, start, low, high))
        },
    },
    Word {
        name: "knob",
        on: &[],
        takes: &[("name", Kind::Text), ("start", Kind::Text), ("choices", Kind::Texts)],
        gives: Kind::Text,
        about: "One of several names.",
        example: r#"knob("tail", "bows", ["bows", "plain"])"#,
        run: |a| {
            let (start, choices) = (a.text(1), a.texts(2));
            declared(a, |stage, name| stage.one_of(name, &start, choices))
        },
    },
    Word {
        name: "knob",
        on: &[],
        takes: &[("name", Kind::Text), ("start", Kind::Flag)],
        gives: Kind::Flag,
        about: "On or off: true or false.",
        example: r#"knob("dots", true)"#,
        run: |a| {
            let start = a.flag(1);
            declared(a, |stage, name| stage.on_or_off(name, start))
        },
    },
    Word {
        name: "knob",
        on: &[],
        takes: &[("name", Kind::Text), ("start", Kind::Text)],
        gives: Kind::Text,
        about: "A CSS colour.",
        example: r##"circle(pt(0, 0), 20).fill(knob("cloth", "#c8553d"))"##,
        run: |a| {
            let start = a.text(1);
            declared(a, |stage, name| stage.css_colour(name, &start))
        },
    },
    Word {
        name: "knob",
        on: &[],
        takes: &[("name", Kind::Text), ("start", Kind::Point)],
        gives: Kind::Point,
        about: "A point.",
        example: r#"circle(knob("vent", pt(0, -20)), 9)"#,
        run: |a| {
            let start = a.point(1);
            declared(a, |stage, name| stage.place(name, start))
        },
    },
    Word {
        name: "asked_size",
        on: &[],
        takes: &[("width", Kind::Number), ("height", Kind::Number)],
        gives: Kind::Point,
        about: "The size that is asked for by --size or vary --sizes, or else this one: a score that lays itself out within it looks right at any size.",
        example: r##"let size = asked_size(640, 480);
sheet(size.x, size.y).ground("#f4efe6")"##,
        run: |a| {
            let own = chordane::number::pt(a.number(0), a.number(1));
            Ok(Dynamic::from(a.stage(|stage| stage.asked_size(own))))
        },
    },
];

fn declared<T: Clone + Send + Sync + 'static>(
    a: &Args<'_, '_>,
    declare: impl FnOnce(&mut Stage, &str) -> Result<T, String>,
) -> Result<Dynamic, Refusal> {
    let name = a.text(0);
    a.stage(|stage| declare(stage, &name)).map(Dynamic::from).map_err(Refusal::new)
}
