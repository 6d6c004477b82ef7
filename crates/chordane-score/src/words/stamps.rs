//! Words that set a thing down along a path.

use chordane::prelude::*;
use chordane::sheet::Node;

use rhai::FnPtr;

use super::entry::{Section, Word, word};
use crate::call::Call;
use crate::values::ScoreStamp;

pub(super) fn section() -> Section {
    Section {
        title: "Stamps",
        about: "Copies of a drawing placed along a path: its origin lies on the line and its x axis follows it. Functions are called with the fraction of the contour's length, from 0 to 1.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            "stamp(thing)",
            "A drawing to place along a path. By default ten copies are placed, turned with the path.",
            r##"stamp(circle(pt(0, 0), 4).fill("teal")).every(15).along(open([[0, 0], [90, 0]]))"##,
            |thing: Node| ScoreStamp::new(thing),
        ),
        word(
            ".every(spacing)",
            "Places copies at this spacing along each contour.",
            r##"stamp(circle(pt(0, 0), 4).fill("teal")).every(15).along(open([[0, 0], [90, 0]]))"##,
            |stamp: ScoreStamp, spacing: f64| stamp.set(|stamp| stamp.every(spacing)),
        ),
        word(
            ".count(count)",
            "Places this many copies evenly on each contour.",
            r##"stamp(circle(pt(0, 0), 4).fill("teal")).count(7).along(circle(pt(0, 0), 60))"##,
            |stamp: ScoreStamp, count: usize| stamp.set(|stamp| stamp.count(count)),
        ),
        word(
            ".at(shares)",
            "Places copies at these fractions of each contour's length.",
            r##"stamp(circle(pt(0, 0), 4).fill("teal")).at([0, 0.1, 0.3, 0.6]).along(circle(pt(0, 0), 60))"##,
            |stamp: ScoreStamp, shares: Vec<f64>| stamp.set(|stamp| stamp.at(shares)),
        ),
        word(
            ".lead_in(distance)",
            "Leaves this distance before the first copy.",
            r##"stamp(circle(pt(0, 0), 4).fill("teal")).every(20).lead_in(10).along(open([[0, 0], [90, 0]]))"##,
            |stamp: ScoreStamp, distance: f64| stamp.set(|stamp| stamp.lead_in(distance)),
        ),
        word(
            ".drift(distance)",
            "Shifts all copies along the path by this distance: round a closed contour; on an open one, new copies enter at the start.",
            r##"stamp(circle(pt(0, 0), 4).fill("teal")).every(20).drift(5).along(open([[0, 0], [90, 0]]))"##,
            |stamp: ScoreStamp, distance: f64| stamp.set(|stamp| stamp.drift(distance)),
        ),
        word(
            ".upright()",
            "Keeps the copies upright, whatever the path's direction.",
            r##"stamp(rectangle(pt(-3, -6), 6, 12).fill("teal")).count(9).upright().along(circle(pt(0, 0), 60))"##,
            |stamp: ScoreStamp| stamp.set(Stamp::upright),
        ),
        word(
            ".turned()",
            "Turns each copy with the path (the default).",
            r##"stamp(rectangle(pt(-3, -6), 6, 12).fill("teal")).count(9).turned().along(circle(pt(0, 0), 60))"##,
            |stamp: ScoreStamp| stamp.set(Stamp::turned),
        ),
        word(
            ".bent()",
            "Bends each copy along the path over its whole width.",
            r##"stamp(rectangle(pt(-15, -6), 30, 12).fill("teal")).count(9).bent().along(circle(pt(0, 0), 60))"##,
            |stamp: ScoreStamp| stamp.set(Stamp::bent),
        ),
        word(
            ".scale(f)",
            "Scales each copy by a function of its fraction along the path.",
            r##"stamp(circle(pt(0, 0), 8).fill("teal")).count(9).scale(|share| 1 - 0.8 * share).along(open([[0, 0], [90, 0]]))"##,
            |stamp: ScoreStamp, f: FnPtr| ScoreStamp { scale: Some(f), ..stamp },
        ),
        word(
            ".turn(f)",
            "Turns each copy further by the angle that a function returns for its fraction, clockwise on screen.",
            r##"stamp(rectangle(pt(-3, -6), 6, 12).fill("teal")).count(9).turn(|share| turns(share)).along(open([[0, 0], [90, 0]]))"##,
            |stamp: ScoreStamp, f: FnPtr| ScoreStamp { turn: Some(f), ..stamp },
        ),
        word(
            ".skip(f)",
            "Leaves out every copy for whose index, counted from 0, a function returns true.",
            r##"stamp(circle(pt(0, 0), 4).fill("teal")).count(9).skip(|number| number % 3 == 1).along(open([[0, 0], [90, 0]]))"##,
            |stamp: ScoreStamp, f: FnPtr| ScoreStamp { skip: Some(f), ..stamp },
        ),
        word(
            ".fill(f)",
            "Fills each copy with the colour that a function returns for its fraction. Groups keep their own colours.",
            r##"stamp(circle(pt(0, 0), 8)).count(9).fill(|share| if share < 0.5 { "teal" } else { "#c8553d" }).along(open([[0, 0], [90, 0]]))"##,
            |stamp: ScoreStamp, f: FnPtr| ScoreStamp { fill: Some(f), ..stamp },
        ),
        word(
            ".along(path)",
            "Places the copies along a path and returns them as a group.",
            r##"stamp(circle(pt(0, 0), 4).fill("teal")).every(15).along(open([[0, 0], [90, 0]]))"##,
            |call: &Call<'_>, stamp: ScoreStamp, path: Path| along(call, &stamp, &path),
        ),
        word(
            ".stamped(thing, spacing)",
            "Places copies of a path along this one at a spacing, turned with it; returns one path.",
            r##"circle(pt(0, 0), 60).stamped(closed([[0, -4], [8, 0], [0, 4]]), 16).fill("teal")"##,
            |path: Path, thing: Path, spacing: f64| path.stamped(&thing, spacing),
        ),
    ]
}

/// The functions of a score can be asked only here and now: every place is gone through first, and what they say is looked
/// up by its number then.
fn along(call: &Call<'_>, made: &ScoreStamp, path: &Path) -> Group {
    let mut places: Vec<f64> = Vec::new();
    let _ = made.stamp.along_with(path, |place, node| {
        places.push(place.share());
        node
    });
    let mut stamp = made.stamp.clone();
    if let Some(function) = &made.skip {
        let said: Vec<bool> = (0..places.len()).map(|number| call.ask(function, (number as i64,))).collect();
        stamp = stamp.skip(move |at| said.get(at.number).copied().unwrap_or(false));
    }
    if let Some(function) = &made.scale {
        let said: Vec<f64> = places.iter().map(|share| call.ask(function, (*share,))).collect();
        stamp = stamp.scale(move |at| said.get(at.number).copied().unwrap_or(f64::NAN));
    }
    if let Some(function) = &made.turn {
        let said: Vec<Angle> = places.iter().map(|share| call.ask(function, (*share,))).collect();
        stamp = stamp.turn(move |at| said.get(at.number).copied().unwrap_or(deg(f64::NAN)));
    }
    stamp.along_with(path, |place, node| match (node, &made.fill) {
        (Node::Item(item), Some(function)) => {
            let colour: String = call.ask(function, (place.share(),));
            item.fill(colour.as_str()).into()
        }
        (node, _) => node,
    })
}
