//! Words for turning wheels.

use chordane::prelude::*;
use rhai::Dynamic;

use super::pen::path;
use super::{Args, Kind, Refusal, Section, Word};

pub(super) const SECTION: Section = Section {
    title: "Wheels",
    about: "Turning radii, each on the rim of the one before: lace, rounded shapes, rolling circles. A lap is one turn of a wheel of one turn.",
    words: WORDS,
};

const WORDS: &[Word] = &[
    Word {
        name: "wheel",
        on: &[],
        takes: &[("radius", Kind::Number), ("turns", Kind::Number), ("start", Kind::Angle)],
        gives: Kind::Wheels,
        about: "A turning radius: so many turns in each lap, from an angle on. Negative turns are anticlockwise.",
        example: r##"wheel(60, 1, deg(0)).wheel(18, -5, deg(0)).path()"##,
        run: |a| made(wheel(a.number(0), a.number(1), a.angle(2))),
    },
    Word {
        name: "wheel",
        on: &[Kind::Wheels],
        takes: &[("radius", Kind::Number), ("turns", Kind::Number), ("start", Kind::Angle)],
        gives: Kind::Wheels,
        about: "One more wheel, on the rim of those there are.",
        example: r##"wheel(60, 1, deg(0)).wheel(18, -5, deg(0)).wheel(6, 13, deg(90)).path()"##,
        run: |a| made(a.wheels().wheel(a.number(1), a.number(2), a.angle(3))),
    },
    Word {
        name: "wheels_inside",
        on: &[],
        takes: &[
            ("centre", Kind::Point),
            ("ring", Kind::Number),
            ("roller", Kind::Number),
            ("pen", Kind::Number),
        ],
        gives: Kind::Wheels,
        about: "A pen in a wheel that rolls inside a ring: at the roller's rim it makes cusps, nearer curves, farther loops. It closes by itself.",
        example: r##"wheels_inside(pt(0, 0), 60, 25, 20).path()"##,
        run: |a| made(wheels_inside(a.point(0), a.number(1), a.number(2), a.number(3))),
    },
    Word {
        name: "wheels_outside",
        on: &[],
        takes: &[
            ("centre", Kind::Point),
            ("ring", Kind::Number),
            ("roller", Kind::Number),
            ("pen", Kind::Number),
        ],
        gives: Kind::Wheels,
        about: "A pen in a wheel that rolls round the outside of a ring; it closes by itself.",
        example: r##"wheels_outside(pt(0, 0), 40, 16, 20).path()"##,
        run: |a| made(wheels_outside(a.point(0), a.number(1), a.number(2), a.number(3))),
    },
    Word {
        name: "centre",
        on: &[Kind::Wheels],
        takes: &[("at", Kind::Point)],
        gives: Kind::Wheels,
        about: "The point that the first wheel turns about.",
        example: r##"wheel(40, 1, deg(0)).centre([50, 50]).path()"##,
        run: |a| made(a.wheels().centre(a.point(1))),
    },
    Word {
        name: "laps",
        on: &[Kind::Wheels],
        takes: &[("laps", Kind::Number)],
        gives: Kind::Wheels,
        about: "So many laps instead of those after which it closes.",
        example: r##"wheel(40, 1, deg(0)).wheel(9, 7.5, deg(0)).laps(0.5).path()"##,
        run: |a| made(a.wheels().laps(a.number(1))),
    },
    Word {
        name: "closing_laps",
        on: &[Kind::Wheels],
        takes: &[],
        gives: Kind::Number,
        about: "After how many laps it comes round; 0 where it does not within 1000.",
        example: r##"wheels_inside(pt(0, 0), 60, 25, 20).closing_laps()"##,
        run: |a| {
            let closing = a.wheels().closing();
            Ok(i64::from(if closing.exact { closing.laps } else { 0 }).into())
        },
    },
    Word {
        name: "at",
        on: &[Kind::Wheels],
        takes: &[("share", Kind::Number)],
        gives: Kind::Point,
        about: "The point after a share of a lap.",
        example: r##"wheel(40, 1, deg(0)).at(0.25)"##,
        run: |a| {
            a.wheels().sound()?;
            Ok(Dynamic::from(a.wheels().at(a.number(1))))
        },
    },
    Word {
        name: "points",
        on: &[Kind::Wheels],
        takes: &[("n", Kind::Count)],
        gives: Kind::Points,
        about: "So many points at even steps of time over all laps.",
        example: r##"wheel(40, 1, deg(0)).points(12)"##,
        run: |a| {
            let (n, most) = (a.count(1), a.longest_list);
            if n > most {
                return Err(Refusal::new(format!("{n} points are too many; give at most {most}")));
            }
            a.wheels().sound()?;
            Ok(a.wheels().points(n).into_iter().map(Dynamic::from).collect::<rhai::Array>().into())
        },
    },
    Word {
        name: "path",
        on: &[Kind::Wheels],
        takes: &[],
        gives: Kind::Path,
        about: "The curve, closed where it comes round. Where it never does, that is said on standard error, with the nearest laps that would.",
        example: r##"wheel(60, 1, deg(0)).wheel(18, -5, deg(0)).path()"##,
        run: |a| {
            let wheels = a.wheels();
            remark(a, &wheels);
            path(wheels.path())
        },
    },
];

fn made(wheels: Wheels) -> Result<Dynamic, Refusal> {
    wheels.sound()?;
    Ok(Dynamic::from(wheels))
}

/// Says that wheels never come round, and which turns nearly would.
fn remark(a: &Args<'_, '_>, wheels: &Wheels) {
    let closing = wheels.closing();
    if closing.exact || wheels.laps_given() {
        return;
    }
    let line = a.line.map_or(String::new(), |line| format!("line {line}: "));
    let turns: Vec<String> = closing.turns.iter().map(i64::to_string).collect();
    let text = format!(
        "{line}these wheels do not come round within 1000 laps, and stay open; after {} they nearly do, with {} turns",
        closing.laps,
        turns.join(" and ")
    );
    a.stage(|stage| stage.remark(text));
}
