//! Words that set a thing down along a path.

use chordane::prelude::*;
use rhai::{Dynamic, FnPtr};

use super::{Args, Kind, Refusal, Section, Word};
use crate::values::{self, Builder};

pub(super) const SECTION: Section = Section {
    title: "Stamps",
    about: "A thing set down again and again along a path: its origin comes to the line, its x axis along it. Functions are asked with the share of the contour's length, from 0 to 1.",
    words: WORDS,
};

/// A thing to be set down, how, and what the score's functions say about each.
#[derive(Clone, Debug)]
pub(crate) struct ScoreStamp {
    stamp: Stamp<Node>,
    scale: Option<FnPtr>,
    turn: Option<FnPtr>,
    skip: Option<FnPtr>,
    fill: Option<FnPtr>,
}

const WORDS: &[Word] = &[
    Word {
        name: "stamp",
        on: &[],
        takes: &[("thing", Kind::Node)],
        gives: Kind::Stamp,
        about: "A thing to set down along a path: ten of them, turned with it, unless something else is said.",
        example: r##"stamp(circle(pt(0, 0), 4).fill("teal")).every(20).along(circle(pt(0, 0), 60))"##,
        run: |a| {
            let stamp = Stamp::new(a.node(0));
            let (scale, turn, skip, fill) = Default::default();
            Ok(Dynamic::from(ScoreStamp { stamp, scale, turn, skip, fill }))
        },
    },
    Word {
        name: "every",
        on: &[Kind::Stamp],
        takes: &[("spacing", Kind::Number)],
        gives: Kind::Stamp,
        about: "One every so far along each contour.",
        example: r##"stamp(circle(pt(0, 0), 4).fill("teal")).every(20).along(circle(pt(0, 0), 60))"##,
        run: |a| {
            let spacing = a.number(1);
            with(a, |stamp| stamp.every(spacing))
        },
    },
    Word {
        name: "count",
        on: &[Kind::Stamp],
        takes: &[("count", Kind::Count)],
        gives: Kind::Stamp,
        about: "So many on each contour, evenly.",
        example: r##"stamp(circle(pt(0, 0), 4).fill("teal")).count(7).along(circle(pt(0, 0), 60))"##,
        run: |a| {
            let count = a.count(1);
            with(a, |stamp| stamp.count(count))
        },
    },
    Word {
        name: "at",
        on: &[Kind::Stamp],
        takes: &[("shares", Kind::Numbers)],
        gives: Kind::Stamp,
        about: "At these shares of each contour's length.",
        example: r##"stamp(circle(pt(0, 0), 4).fill("teal")).at([0, 0.1, 0.3, 0.6]).along(circle(pt(0, 0), 60))"##,
        run: |a| {
            let shares = a.numbers(1);
            with(a, |stamp| stamp.at(shares))
        },
    },
    Word {
        name: "lead_in",
        on: &[Kind::Stamp],
        takes: &[("distance", Kind::Number)],
        gives: Kind::Stamp,
        about: "The first stamp only after such a distance.",
        example: r##"stamp(circle(pt(0, 0), 4).fill("teal")).every(20).lead_in(10).along(open([[0, 0], [90, 0]]))"##,
        run: |a| {
            let distance = a.number(1);
            with(a, |stamp| stamp.lead_in(distance))
        },
    },
    Word {
        name: "drift",
        on: &[Kind::Stamp],
        takes: &[("distance", Kind::Number)],
        gives: Kind::Stamp,
        about: "All moved on by such a distance: round a closed contour; on an open one new ones follow at the start.",
        example: r##"stamp(circle(pt(0, 0), 4).fill("teal")).every(20).drift(5).along(open([[0, 0], [90, 0]]))"##,
        run: |a| {
            let distance = a.number(1);
            with(a, |stamp| stamp.drift(distance))
        },
    },
    Word {
        name: "upright",
        on: &[Kind::Stamp],
        takes: &[],
        gives: Kind::Stamp,
        about: "Set down as it is, whatever the path's direction.",
        example: r##"stamp(rectangle(pt(-3, -6), 6, 12).fill("teal")).count(9).upright().along(circle(pt(0, 0), 60))"##,
        run: |a| with(a, Stamp::upright),
    },
    Word {
        name: "turned",
        on: &[Kind::Stamp],
        takes: &[],
        gives: Kind::Stamp,
        about: "Turned with the path, which is how it is unless something else is said.",
        example: r##"stamp(rectangle(pt(-3, -6), 6, 12).fill("teal")).count(9).turned().along(circle(pt(0, 0), 60))"##,
        run: |a| with(a, Stamp::turned),
    },
    Word {
        name: "bent",
        on: &[Kind::Stamp],
        takes: &[],
        gives: Kind::Stamp,
        about: "Bent to the path over its whole width.",
        example: r##"stamp(rectangle(pt(-15, -6), 30, 12).fill("teal")).count(9).bent().along(circle(pt(0, 0), 60))"##,
        run: |a| with(a, Stamp::bent),
    },
    Word {
        name: "scale",
        on: &[Kind::Stamp],
        takes: &[("f", Kind::Function)],
        gives: Kind::Stamp,
        about: "Each scaled by what a function gives for its share of the length.",
        example: r##"stamp(circle(pt(0, 0), 8).fill("teal")).count(9).scale(|share| 1 - 0.8 * share).along(open([[0, 0], [90, 0]]))"##,
        run: |a| with_function(a, |stamp, function| stamp.scale = Some(function)),
    },
    Word {
        name: "turn",
        on: &[Kind::Stamp],
        takes: &[("f", Kind::Function)],
        gives: Kind::Stamp,
        about: "Each turned further by the angle that a function gives for its share, clockwise as seen.",
        example: r##"stamp(rectangle(pt(-3, -6), 6, 12).fill("teal")).count(9).turn(|share| turns(share)).along(open([[0, 0], [90, 0]]))"##,
        run: |a| with_function(a, |stamp, function| stamp.turn = Some(function)),
    },
    Word {
        name: "skip",
        on: &[Kind::Stamp],
        takes: &[("f", Kind::Function)],
        gives: Kind::Stamp,
        about: "Those left out for whose number, counted from 0, a function gives true.",
        example: r##"stamp(circle(pt(0, 0), 4).fill("teal")).count(9).skip(|number| number % 3 == 1).along(open([[0, 0], [90, 0]]))"##,
        run: |a| with_function(a, |stamp, function| stamp.skip = Some(function)),
    },
    Word {
        name: "fill",
        on: &[Kind::Stamp],
        takes: &[("f", Kind::Function)],
        gives: Kind::Stamp,
        about: "Each filled with the colour that a function gives for its share. Groups keep their colours.",
        example: r##"stamp(circle(pt(0, 0), 8)).count(9).fill(|share| if share < 0.5 { "teal" } else { "#c8553d" }).along(open([[0, 0], [90, 0]]))"##,
        run: |a| with_function(a, |stamp, function| stamp.fill = Some(function)),
    },
    Word {
        name: "along",
        on: &[Kind::Stamp],
        takes: &[("path", Kind::Path)],
        gives: Kind::Group,
        about: "The stamps along a path, as a group.",
        example: r##"stamp(circle(pt(0, 0), 4).fill("teal")).every(20).along(circle(pt(0, 0), 60))"##,
        run: along,
    },
    Word {
        name: "stamped",
        on: &[Kind::Path],
        takes: &[("thing", Kind::Path), ("spacing", Kind::Number)],
        gives: Kind::Path,
        about: "Copies of a path set down along this one, one every so far, turned with it: as one path.",
        example: r##"circle(pt(0, 0), 60).stamped(closed([[0, -4], [8, 0], [0, 4]]), 16).fill("teal")"##,
        run: |a| super::pen::path(a.path(0).stamped(&a.path(1), a.number(2))),
    },
];

fn stamp(a: &Args<'_, '_>) -> Result<ScoreStamp, Refusal> {
    a.stamp().ok_or_else(|| Refusal::new("this is no stamp"))
}

fn with(a: &Args<'_, '_>, change: impl FnOnce(Stamp<Node>) -> Stamp<Node>) -> Result<Dynamic, Refusal> {
    let mut made = stamp(a)?;
    made.stamp = change(made.stamp);
    Ok(Dynamic::from(made))
}

fn with_function(a: &Args<'_, '_>, change: impl FnOnce(&mut ScoreStamp, FnPtr)) -> Result<Dynamic, Refusal> {
    let mut made = stamp(a)?;
    let function = a.function(1).ok_or_else(|| Refusal::new("this is no function"))?;
    change(&mut made, function);
    Ok(Dynamic::from(made))
}

/// The functions of a score can be asked only here and now: every place is gone through first, and what they say is looked
/// up by its number then.
fn along(a: &mut Args<'_, '_>) -> Result<Dynamic, Refusal> {
    let made = stamp(a)?;
    let path = a.path(1);
    let mut places: Vec<f64> = Vec::new();
    let _ = made.stamp.along_with(&path, |place, node| {
        places.push(place.share());
        node
    });
    let mut stamp = made.stamp.clone();
    if let Some(function) = &made.skip {
        let said = (0..places.len()).map(|number| {
            let said = a.ask(function, (number as i64,));
            said.and_then(|value| value.as_bool().ok()).unwrap_or(false)
        });
        let said: Vec<bool> = said.collect();
        stamp = stamp.skip(move |at| said.get(at.number).copied().unwrap_or(false));
    }
    if let Some(function) = &made.scale {
        let number =
            |share: &f64| a.ask(function, (*share,)).as_ref().and_then(values::number).unwrap_or(f64::NAN);
        let said: Vec<f64> = places.iter().map(number).collect();
        stamp = stamp.scale(move |at| said.get(at.number).copied().unwrap_or(f64::NAN));
    }
    if let Some(function) = &made.turn {
        let angle = |share: &f64| {
            let said = a.ask(function, (*share,)).and_then(|value| value.try_cast::<Angle>());
            said.unwrap_or(deg(f64::NAN))
        };
        let said: Vec<Angle> = places.iter().map(angle).collect();
        stamp = stamp.turn(move |at| said.get(at.number).copied().unwrap_or(deg(f64::NAN)));
    }
    let colour = |share: f64| {
        let function = made.fill.as_ref()?;
        a.ask(function, (share,)).and_then(|value| value.into_string().ok())
    };
    let all = stamp.along_with(&path, |place, node| match (node, made.fill.is_some()) {
        (Node::Item(item), true) => item.fill(colour(place.share()).unwrap_or_default().as_str()).into(),
        (node, _) => node,
    });
    Ok(Dynamic::from(Builder::new(all)))
}
