//! Words for turning wheels.

use chordane::prelude::*;

use super::entry::{Section, Word, word};
use crate::call::Call;
use crate::values::Tidy;

pub(super) fn section() -> Section {
    Section {
        title: "Wheels",
        about: "Rotating radii, each attached to the end of the one before: lace, rounded shapes, rolling circles. A lap is the time in which a wheel with `turns` of 1 turns once.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            "wheel(radius, turns, start)",
            "A rotating radius that makes `turns` turns per lap, from a start angle. Negative turns are anticlockwise.",
            r##"wheel(60, 1, deg(0)).wheel(18, -5, deg(0)).path()"##,
            |radius: f64, turns: f64, start: Angle| wheel(radius, turns, start),
        ),
        word(
            ".wheel(radius, turns, start)",
            "Adds a wheel at the end of the previous one.",
            r##"wheel(60, 1, deg(0)).wheel(18, -5, deg(0)).wheel(6, 13, deg(90)).path()"##,
            |wheels: Wheels, radius: f64, turns: f64, start: Angle| wheels.wheel(radius, turns, start),
        ),
        word(
            "wheels_inside(centre, ring, roller, pen)",
            "A pen on a wheel that rolls inside a ring (a hypotrochoid): on the roller's rim it draws cusps, closer to the hub smooth curves, further out loops. The curve closes automatically.",
            r##"wheels_inside(pt(0, 0), 60, 25, 20).path()"##,
            |centre: Point, ring: f64, roller: f64, pen: f64| wheels_inside(centre, ring, roller, pen),
        ),
        word(
            "wheels_outside(centre, ring, roller, pen)",
            "A pen on a wheel that rolls round the outside of a ring (an epitrochoid). The curve closes automatically.",
            r##"wheels_outside(pt(0, 0), 40, 16, 20).path()"##,
            |centre: Point, ring: f64, roller: f64, pen: f64| wheels_outside(centre, ring, roller, pen),
        ),
        word(
            ".centre(at)",
            "The point about which the first wheel rotates.",
            r##"wheel(40, 1, deg(0)).centre([50, 50]).path()"##,
            |wheels: Wheels, at: Point| wheels.centre(at),
        ),
        word(
            ".laps(laps)",
            "Draws this many laps instead of as many as the curve takes to close.",
            r##"wheel(40, 1, deg(0)).wheel(9, 7.5, deg(0)).laps(0.5).path()"##,
            |wheels: Wheels, laps: f64| wheels.laps(laps),
        ),
        word(
            ".closing_laps()",
            "The number of laps after which the curve closes; 0 if it does not within 1000.",
            r##"wheels_inside(pt(0, 0), 60, 25, 20).closing_laps()"##,
            |wheels: Wheels| {
                let closing = wheels.closing();
                Tidy(f64::from(if closing.exact { closing.laps } else { 0 }))
            },
        ),
        word(
            ".at(share)",
            "The point after a fraction of a lap.",
            r##"wheel(40, 1, deg(0)).at(0.25)"##,
            |wheels: Wheels, share: f64| wheels.sound().map(|()| wheels.at(share)),
        ),
        word(
            ".points(n)",
            "`n` points at equal time steps over all laps.",
            r##"wheel(40, 1, deg(0)).points(12)"##,
            |wheels: Wheels, n: usize| wheels.sound().map(|()| wheels.points(n)),
        ),
        word(
            ".path()",
            "The curve as a path, closed if it returns to its start. If it never does, a note on standard error gives the number of laps that comes closest.",
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
