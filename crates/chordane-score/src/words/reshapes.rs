//! Words that reshape a path: corners, dashes, parts, outlines, unsteady lines, and what follows another path.

use chordane::ground::Given;
use chordane::prelude::*;
use rhai::Dynamic;

use super::pen::path;
use super::{Args, Kind, Refusal, Section, Word};
use crate::values;

pub(super) const SECTION: Section = Section {
    title: "Reshapes",
    about: "A path in, a path out, in the order in which they are read: `sail.rounded(6).dashed([12, 6])` rounds first. Arcs and curves stay what they are where they can.",
    words: WORDS,
};

const WORDS: &[Word] = &[
    Word {
        name: "rounded",
        on: &[Kind::Path],
        takes: &[("radius", Kind::Number)],
        gives: Kind::Path,
        about: "The corners made round by arcs of a radius; where it does not fit it is made smaller, for that corner alone.",
        example: r##"polygon(pt(0, 0), 5, 60).rounded(15)"##,
        run: |a| path(a.path(0).rounded(a.number(1))),
    },
    Word {
        name: "rounded_eased",
        on: &[Kind::Path],
        takes: &[("radius", Kind::Number)],
        gives: Kind::Path,
        about: "The same with corners whose bend grows from nothing and dies away.",
        example: r##"polygon(pt(0, 0), 5, 60).rounded_eased(15)"##,
        run: |a| path(a.path(0).then(Round::new(a.number(1)).eased())),
    },
    Word {
        name: "dashed",
        on: &[Kind::Path],
        takes: &[("pattern", Kind::Numbers)],
        gives: Kind::Path,
        about: "The path in pieces: lengths of line and gap in turn.",
        example: r##"circle(pt(0, 0), 40).dashed([12, 6])"##,
        run: |a| path(a.path(0).dashed(a.numbers(1))),
    },
    Word {
        name: "dashed",
        on: &[Kind::Path],
        takes: &[("pattern", Kind::Numbers), ("offset", Kind::Number)],
        gives: Kind::Path,
        about: "The same, begun so far into the pattern.",
        example: r##"circle(pt(0, 0), 40).dashed([12, 6], 4)"##,
        run: |a| path(a.path(0).then(Dash::new(a.numbers(1)).offset(a.number(2)))),
    },
    Word {
        name: "dashed_fitted",
        on: &[Kind::Path],
        takes: &[("pattern", Kind::Numbers)],
        gives: Kind::Path,
        about: "Dashes stretched or squeezed until a whole number of patterns goes on each contour.",
        example: r##"circle(pt(0, 0), 40).dashed_fitted([12, 6])"##,
        run: |a| path(a.path(0).then(Dash::new(a.numbers(1)).fitted())),
    },
    Word {
        name: "dashed_to_corners",
        on: &[Kind::Path],
        takes: &[("pattern", Kind::Numbers)],
        gives: Kind::Path,
        about: "Dashes stretched or squeezed from corner to corner, so that the middle of one lies on every corner.",
        example: r##"polygon(pt(0, 0), 4, 60).dashed_to_corners([12, 6])"##,
        run: |a| path(a.path(0).then(Dash::new(a.numbers(1)).to_corners())),
    },
    Word {
        name: "trimmed",
        on: &[Kind::Path],
        takes: &[("from", Kind::Number), ("to", Kind::Number)],
        gives: Kind::Path,
        about: "The part between two shares of the length, from 0 to 1; on one closed contour it runs on over the start.",
        example: r##"circle(pt(0, 0), 40).trimmed(0.1, 0.6)"##,
        run: |a| path(a.path(0).trimmed(a.number(1), a.number(2))),
    },
    Word {
        name: "trimmed",
        on: &[Kind::Path],
        takes: &[("from", Kind::Number), ("to", Kind::Number), ("offset", Kind::Number)],
        gives: Kind::Path,
        about: "The same part moved on along the line by a share.",
        example: r##"circle(pt(0, 0), 40).trimmed(0, 0.25, 0.9)"##,
        run: |a| path(a.path(0).then(Trim::new(a.number(1), a.number(2)).offset(a.number(3)))),
    },
    Word {
        name: "trimmed_each",
        on: &[Kind::Path],
        takes: &[("from", Kind::Number), ("to", Kind::Number)],
        gives: Kind::Path,
        about: "The part between two shares of every contour by itself.",
        example: r##"ring(pt(0, 0), 40, 20).trimmed_each(0, 0.5)"##,
        run: |a| path(a.path(0).then(Trim::new(a.number(1), a.number(2)).each())),
    },
    Word {
        name: "trimmed_at",
        on: &[Kind::Path],
        takes: &[("from", Kind::Number), ("to", Kind::Number)],
        gives: Kind::Path,
        about: "The part between two distances along the path.",
        example: r##"circle(pt(0, 0), 40).trimmed_at(20, 120)"##,
        run: |a| path(a.path(0).then(Trim::new(a.number(1), a.number(2)).distances())),
    },
    Word {
        name: "offset",
        on: &[Kind::Path],
        takes: &[("distance", Kind::Number)],
        gives: Kind::Path,
        about: "Areas grown, or shrunk by a negative distance, without loops; an open line's parallel, to the right of the way on.",
        example: r##"star(pt(0, 0), 5, 60, 30).offset(8)"##,
        run: |a| path(a.path(0).offset(a.number(1))),
    },
    Word {
        name: "offset",
        on: &[Kind::Path],
        takes: &[("distance", Kind::Number), ("join", Kind::Text)],
        gives: Kind::Path,
        about: "The same with corners joined by \"mitre\", \"round\" or \"bevel\".",
        example: r##"star(pt(0, 0), 5, 60, 30).offset(8, "round")"##,
        run: |a| path(a.path(0).then(Offset::new(a.number(1)).join(join(a, 2, "offset")?))),
    },
    Word {
        name: "offset_both",
        on: &[Kind::Path],
        takes: &[("distance", Kind::Number)],
        gives: Kind::Path,
        about: "The rim: all that is no farther from the area's line, on either side; the parallels of an open line on both sides.",
        example: r##"polygon(pt(0, 0), 6, 50).offset_both(5)"##,
        run: |a| path(a.path(0).then(Offset::new(a.number(1)).both())),
    },
    Word {
        name: "outlined",
        on: &[Kind::Path],
        takes: &[("width", Kind::Number)],
        gives: Kind::Path,
        about: "The area that a stroke of a width paints, with butt caps and mitre joins.",
        example: r##"open([[0, 0], [60, 20], [0, 50]]).outlined(12)"##,
        run: |a| path(a.path(0).then(Outline::new(a.number(1)))),
    },
    Word {
        name: "outlined",
        on: &[Kind::Path],
        takes: &[("width", Kind::Number), ("cap", Kind::Text), ("join", Kind::Text)],
        gives: Kind::Path,
        about: "The same with caps and joins of these names.",
        example: r##"open([[0, 0], [60, 20], [0, 50]]).outlined(12, "round", "round")"##,
        run: |a| {
            let outline = Outline::new(a.number(1)).cap(cap(a, 2, "outlined")?).join(join(a, 3, "outlined")?);
            path(a.path(0).then(outline))
        },
    },
    Word {
        name: "tapered",
        on: &[Kind::Path],
        takes: &[("width", Kind::Number), ("f", Kind::Function)],
        gives: Kind::Path,
        about: "A stroke's area whose width is multiplied with what a function gives for the share of the length; round caps and joins.",
        example: r##"open([[0, 0], [60, 20], [120, 0]]).tapered(14, |share| 1 - share)"##,
        run: |a| {
            // The function is asked for so many even shares, and what it gives goes evenly between them.
            const ASKED: usize = 512;
            let value = |i: usize| {
                let share = i as f64 / ASKED as f64;
                a.call(2, (share,)).as_ref().and_then(values::number).unwrap_or(f64::NAN)
            };
            let asked: Vec<f64> = (0..=ASKED).map(value).collect();
            let width = move |share: f64| {
                let at = share.clamp(0.0, 1.0) * ASKED as f64;
                let (before, rest) = (at.floor(), at.fract());
                let get = |i: f64| asked.get(i as usize).copied().unwrap_or(0.0);
                if rest == 0.0 { get(before) } else { get(before) * (1.0 - rest) + get(before + 1.0) * rest }
            };
            let outline = Outline::new(a.number(1)).cap(Cap::Round).join(Join::Round);
            path(a.path(0).then(outline.tapered(width)))
        },
    },
    Word {
        name: "shaken",
        on: &[Kind::Path],
        takes: &[("amount", Kind::Number), ("length", Kind::Number), ("seed", Kind::Count)],
        gives: Kind::Path,
        about: "The line made unsteady: put aside by up to an amount at places about a length apart, by chance from a seed.",
        example: r##"polygon(pt(0, 0), 4, 50).shaken(3, 12, 7)"##,
        run: |a| path(a.path(0).shaken(a.number(1), a.number(2), a.count(3) as u64)),
    },
    Word {
        name: "shaken_jagged",
        on: &[Kind::Path],
        takes: &[("amount", Kind::Number), ("length", Kind::Number), ("seed", Kind::Count)],
        gives: Kind::Path,
        about: "The same with straight sides from place to place.",
        example: r##"polygon(pt(0, 0), 4, 50).shaken_jagged(3, 12, 7)"##,
        run: |a| path(a.path(0).then(Shake::new(a.number(1), a.number(2), a.count(3) as u64).jagged())),
    },
    Word {
        name: "thinned",
        on: &[Kind::Path],
        takes: &[("tolerance", Kind::Number)],
        gives: Kind::Path,
        about: "Fewer points along straight sides: none that goes was farther than the tolerance from the line that is left.",
        example: r##"open([[0, 0], [10, 0.2], [20, -0.2], [30, 0]]).thinned(0.5)"##,
        run: |a| path(a.path(0).thinned(a.number(1))),
    },
    Word {
        name: "curve_fitted",
        on: &[Kind::Path],
        takes: &[("tolerance", Kind::Number)],
        gives: Kind::Path,
        about: "Few smooth curves in place of many points, as of a line drawn by hand; corners stay.",
        example: r##"trail(90, |share| polar(turns(share), 40)).curve_fitted(0.2)"##,
        run: |a| path(a.path(0).curve_fitted(a.number(1))),
    },
    Word {
        name: "subdivided",
        on: &[Kind::Path],
        takes: &[("pieces", Kind::Count)],
        gives: Kind::Path,
        about: "Every segment split into so many.",
        example: r##"polygon(pt(0, 0), 4, 50).subdivided(6).shaken(2, 9, 1)"##,
        run: |a| path(a.path(0).subdivided(a.count(1))),
    },
    Word {
        name: "mirrored",
        on: &[Kind::Path],
        takes: &[("through", Kind::Point), ("direction", Kind::Angle)],
        gives: Kind::Path,
        about: "The mirror image across the line through a point in a direction: an upright line is at deg(90).",
        example: r##"pie(pt(0, 0), 40, deg(0), deg(60)).mirrored([0, 0], deg(90))"##,
        run: |a| path(a.path(0).mirrored(a.point(1), a.angle(2))),
    },
    Word {
        name: "mirrored_beside",
        on: &[Kind::Path],
        takes: &[("through", Kind::Point), ("direction", Kind::Angle)],
        gives: Kind::Path,
        about: "The path and its mirror image.",
        example: r##"pie(pt(0, 0), 40, deg(0), deg(60)).mirrored_beside([0, 0], deg(90))"##,
        run: |a| path(a.path(0).then(Mirror::new(a.point(1), a.angle(2)).beside())),
    },
    Word {
        name: "spun",
        on: &[Kind::Path],
        takes: &[("copies", Kind::Count), ("centre", Kind::Point)],
        gives: Kind::Path,
        about: "Copies turned evenly round a centre, the first as it is.",
        example: r##"ellipse(pt(40, 0), 20, 6).spun(8, [0, 0])"##,
        run: |a| path(a.path(0).spun(a.count(1), a.point(2))),
    },
    Word {
        name: "warped",
        on: &[Kind::Path],
        takes: &[("tolerance", Kind::Number), ("f", Kind::Function)],
        gives: Kind::Path,
        about: "Every point sent through a function, to within a tolerance.",
        example: r##"rectangle(pt(-60, -20), 120, 40).warped(0.1, |p| pt(p.x, p.y + 12 * sin(deg(p.x * 3))))"##,
        run: |a| {
            let to = |p: Point| {
                a.call(2, (Dynamic::from(p),)).as_ref().and_then(values::point).unwrap_or(Point::NAN)
            };
            path(a.path(0).warped(a.number(1), to))
        },
    },
    Word {
        name: "bent",
        on: &[Kind::Path],
        takes: &[("spine", Kind::Path)],
        gives: Kind::Path,
        about: "The path laid along another: its x is how far along it is, its y how far to the right.",
        example: r##"rectangle(pt(0, -6), 90, 12).bent(circle(pt(0, 0), 40))"##,
        run: |a| path(a.path(0).bent(&a.path(1))),
    },
    Word {
        name: "bent_fitted",
        on: &[Kind::Path],
        takes: &[("spine", Kind::Path)],
        gives: Kind::Path,
        about: "The same with the path's width laid along the whole of the other.",
        example: r##"rectangle(pt(0, -6), 90, 12).toothed(3, 10).bent_fitted(circle(pt(0, 0), 40).trimmed(0, 0.75))"##,
        run: |a| path(a.path(0).then(Bend::along(&a.path(1)).fitted())),
    },
];

/// A join by its name.
fn join(a: &Args<'_, '_>, at: usize, call: &'static str) -> Result<Join, Refusal> {
    Ok(Given::<Join>::from(a.text(at).as_str()).resolve(call)?)
}

fn cap(a: &Args<'_, '_>, at: usize, call: &'static str) -> Result<Cap, Refusal> {
    Ok(Given::<Cap>::from(a.text(at).as_str()).resolve(call)?)
}
