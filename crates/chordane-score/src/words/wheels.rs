//! Words for turning wheels.

use chordane::prelude::*;

use super::entry::{Section, Word, word};
use crate::call::Call;
use crate::values::Tidy;

pub(super) fn section() -> Section {
    Section {
        title: "Wheels",
        about: "Turning radii, each on the rim of the one before: lace, rounded shapes, rolling circles. A lap is one turn of a wheel of one turn.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            "wheel(radius, turns, start)",
            "A turning radius: so many turns in each lap, from an angle on. Negative turns are anticlockwise.",
            r##"wheel(60, 1, deg(0)).wheel(18, -5, deg(0)).path()"##,
            |radius: f64, turns: f64, start: Angle| wheel(radius, turns, start),
        ),
        word(
            ".wheel(radius, turns, start)",
            "One more wheel, on the rim of those there are.",
            r##"wheel(60, 1, deg(0)).wheel(18, -5, deg(0)).wheel(6, 13, deg(90)).path()"##,
            |wheels: Wheels, radius: f64, turns: f64, start: Angle| wheels.wheel(radius, turns, start),
        ),
        word(
            "wheels_inside(centre, ring, roller, pen)",
            "A pen in a wheel that rolls inside a ring: at the roller's rim it makes cusps, nearer curves, farther loops. It closes by itself.",
            r##"wheels_inside(pt(0, 0), 60, 25, 20).path()"##,
            |centre: Point, ring: f64, roller: f64, pen: f64| wheels_inside(centre, ring, roller, pen),
        ),
        word(
            "wheels_outside(centre, ring, roller, pen)",
            "A pen in a wheel that rolls round the outside of a ring; it closes by itself.",
            r##"wheels_outside(pt(0, 0), 40, 16, 20).path()"##,
            |centre: Point, ring: f64, roller: f64, pen: f64| wheels_outside(centre, ring, roller, pen),
        ),
        word(
            ".centre(at)",
            "The point that the first wheel turns about.",
            r##"wheel(40, 1, deg(0)).centre([50, 50]).path()"##,
            |wheels: Wheels, at: Point| wheels.centre(at),
        ),
        word(
            ".laps(laps)",
            "So many laps instead of those after which it closes.",
            r##"wheel(40, 1, deg(0)).wheel(9, 7.5, deg(0)).laps(0.5).path()"##,
            |wheels: Wheels, laps: f64| wheels.laps(laps),
        ),
        word(
            ".closing_laps()",
            "After how many laps it comes round; 0 where it does not within 1000.",
            r##"wheels_inside(pt(0, 0), 60, 25, 20).closing_laps()"##,
            |wheels: Wheels| {
                let closing = wheels.closing();
                Tidy(f64::from(if closing.exact { closing.laps } else { 0 }))
            },
        ),
        word(
            ".at(share)",
            "The point after a share of a lap.",
            r##"wheel(40, 1, deg(0)).at(0.25)"##,
            |wheels: Wheels, share: f64| wheels.sound().map(|()| wheels.at(share)),
        ),
        word(
            ".points(n)",
            "So many points at even steps of time over all laps.",
            r##"wheel(40, 1, deg(0)).points(12)"##,
            |wheels: Wheels, n: usize| wheels.sound().map(|()| wheels.points(n)),
        ),
        word(
            ".path()",
            "The curve, closed where it comes round. Where it never does, that is said on standard error, with the nearest laps that would.",
            r##"wheel(60, 1, deg(0)).wheel(18, -5, deg(0)).path()"##,
            |call: &Call<'_>, wheels: Wheels| {
                remark(call, &wheels);
                wheels.path()
            },
        ),
    ]
}

/// Says that wheels never come round, and which turns nearly would.
fn remark(call: &Call<'_>, wheels: &Wheels) {
    let closing = wheels.closing();
    if closing.exact || wheels.laps_given() {
        return;
    }
    let line = call.line().map_or(String::new(), |line| format!("line {line}: "));
    let turns: Vec<String> = closing.turns.iter().map(i64::to_string).collect();
    let text = format!(
        "{line}these wheels do not come round within 1000 laps, and stay open; after {} they nearly do, with {} turns",
        closing.laps,
        turns.join(" and ")
    );
    call.stage(|stage| stage.remark(text));
}
