//! Words that reshape a path: corners, dashes, parts, outlines, unsteady lines, and what follows another path.

use chordane::prelude::*;

use rhai::{Dynamic, FnPtr};

use super::entry::{Section, Word, word};
use crate::call::Call;
use crate::call_error::CallError;

pub(super) fn section() -> Section {
    Section {
        title: "Reshapes",
        about: "Each takes a path and returns a path, and they apply in reading order: `sail.rounded(6).dashed([12, 6])` rounds first. Arcs and curves are preserved where possible.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            ".rounded(radius)",
            "Rounds the corners with arcs of a radius; where the radius is too large, it is reduced for that corner only.",
            r##"polygon(pt(0, 0), 5, 60).rounded(15)"##,
            |path: Path, radius: f64| path.rounded(radius),
        ),
        word(
            ".rounded_eased(radius)",
            "Rounds the corners with curves whose curvature rises from zero and falls back to zero.",
            r##"polygon(pt(0, 0), 5, 60).rounded_eased(15)"##,
            |path: Path, radius: f64| path.then(Round { eased: true, ..Round::new(radius) }),
        ),
        word(
            ".dashed(pattern)",
            "Cuts the path into dashes: alternating lengths of dash and gap.",
            r##"circle(pt(0, 0), 40).dashed([12, 6])"##,
            |path: Path, pattern: Vec<f64>| path.dashed(pattern),
        ),
        word(
            ".dashed(pattern, offset)",
            "Cuts the path into dashes, starting at this distance into the pattern.",
            r##"circle(pt(0, 0), 40).dashed([12, 6], 4)"##,
            |path: Path, pattern: Vec<f64>, offset: f64| path.then(Dash { offset, ..Dash::new(pattern) }),
        ),
        word(
            ".dashed_fitted(pattern)",
            "Cuts the path into dashes, with the pattern stretched or compressed so that it repeats a whole number of times on each contour.",
            r##"circle(pt(0, 0), 40).dashed_fitted([12, 6])"##,
            |path: Path, pattern: Vec<f64>| path.then(Dash { fit: DashFit::Whole, ..Dash::new(pattern) }),
        ),
        word(
            ".dashed_to_corners(pattern)",
            "Cuts the path into dashes, with the pattern stretched or compressed between corners so that a dash is centred on every corner.",
            r##"polygon(pt(0, 0), 4, 60).dashed_to_corners([12, 6])"##,
            |path: Path, pattern: Vec<f64>| path.then(Dash { fit: DashFit::Corners, ..Dash::new(pattern) }),
        ),
        word(
            ".trimmed(from, to)",
            "The part between two fractions of the length, from 0 to 1; on a single closed contour it may run across the start.",
            r##"circle(pt(0, 0), 40).trimmed(0.1, 0.6)"##,
            |path: Path, from: f64, to: f64| path.trimmed(from, to),
        ),
        word(
            ".trimmed(from, to, offset)",
            "The part between two fractions of the length, shifted along the path by a third fraction.",
            r##"circle(pt(0, 0), 40).trimmed(0, 0.25, 0.9)"##,
            |path: Path, from: f64, to: f64, offset: f64| path.then(Trim { offset, ..Trim::new(from, to) }),
        ),
        word(
            ".trimmed_each(from, to)",
            "The part between two fractions of the length of each contour separately.",
            r##"ring(pt(0, 0), 40, 20).trimmed_each(0, 0.5)"##,
            |path: Path, from: f64, to: f64| path.then(Trim { each: true, ..Trim::new(from, to) }),
        ),
        word(
            ".trimmed_at(from, to)",
            "The part between two distances along the path.",
            r##"circle(pt(0, 0), 40).trimmed_at(20, 120)"##,
            |path: Path, from: f64, to: f64| path.then(Trim { distances: true, ..Trim::new(from, to) }),
        ),
        word(
            ".offset(distance)",
            "Grows a closed shape, or shrinks it for a negative distance, without self-intersections. For an open path: its parallel, to the right of the direction of travel.",
            r##"star(pt(0, 0), 5, 60, 30).offset(8)"##,
            |path: Path, distance: f64| path.offset(distance),
        ),
        word(
            ".offset(distance, join)",
            "The same with corners joined by \"mitre\", \"round\" or \"bevel\".",
            r##"star(pt(0, 0), 5, 60, 30).offset(8, "round")"##,
            |call: &Call<'_>, path: Path, distance: f64, join: String| {
                Ok::<_, CallError>(path.then(Offset { join: call.choice(&join)?, ..Offset::new(distance) }))
            },
        ),
        word(
            ".offset_both(distance)",
            "The band within this distance of a closed shape's outline, on both sides of it. For an open path: its parallels on both sides.",
            r##"polygon(pt(0, 0), 6, 50).offset_both(5)"##,
            |path: Path, distance: f64| path.then(Offset { both: true, ..Offset::new(distance) }),
        ),
        word(
            ".outlined(width)",
            "The outline of a stroke of this width, with butt caps and mitre joins.",
            r##"open([[0, 0], [60, 20], [0, 50]]).outlined(12)"##,
            |path: Path, width: f64| path.outlined(width),
        ),
        word(
            ".outlined(width, cap, join)",
            "The outline of a stroke of this width, with the named cap and join.",
            r##"open([[0, 0], [60, 20], [0, 50]]).outlined(12, "round", "round")"##,
            |call: &Call<'_>, path: Path, width: f64, cap: String, join: String| {
                Ok::<_, CallError>(path.then(LineStyle {
                    cap: call.choice(&cap)?,
                    join: call.choice(&join)?,
                    ..LineStyle::new(width)
                }))
            },
        ),
        word(
            ".tapered(width, f)",
            "The outline of a stroke whose width is multiplied by a function of the fraction along the path; round caps and joins.",
            r##"open([[0, 0], [60, 20], [120, 0]]).tapered(14, |share| 1 - share)"##,
            |call: &Call<'_>, path: Path, width: f64, f: FnPtr| tapered(call, &path, width, &f),
        ),
        word(
            ".shaken(amount, length, seed)",
            "Roughens the line: displaces it sideways by up to `amount` at points about `length` apart, at random from a seed.",
            r##"polygon(pt(0, 0), 4, 50).shaken(3, 12, 7)"##,
            |path: Path, amount: f64, length: f64, seed: u64| path.shaken(amount, length, seed),
        ),
        word(
            ".shaken_jagged(amount, length, seed)",
            "Roughens the line at random from a seed, with straight segments between the displaced points.",
            r##"polygon(pt(0, 0), 4, 50).shaken_jagged(3, 12, 7)"##,
            |path: Path, amount: f64, length: f64, seed: u64| {
                path.then(Shake { jagged: true, ..Shake::new(amount, length, seed) })
            },
        ),
        word(
            ".thinned(tolerance)",
            "Simplifies runs of straight segments: no removed point is further than the tolerance from the remaining line.",
            r##"open([[0, 0], [10, 0.2], [20, -0.2], [30, 0]]).thinned(0.5)"##,
            |path: Path, tolerance: f64| path.thinned(tolerance),
        ),
        word(
            ".curve_fitted(tolerance)",
            "Fits a few smooth curves to many points, such as a freehand line, to within a tolerance; corners are kept.",
            r##"trail(90, |share| polar(turns(share), 40)).close().curve_fitted(0.2)"##,
            |path: Path, tolerance: f64| path.curve_fitted(tolerance),
        ),
        word(
            ".subdivided(pieces)",
            "Splits every segment into this many pieces.",
            r##"polygon(pt(0, 0), 4, 50).subdivided(6).shaken(2, 9, 1)"##,
            |path: Path, pieces: usize| path.subdivided(pieces),
        ),
        word(
            ".mirrored(through, direction)",
            "The mirror image in the line through a point at an angle; a vertical line is deg(90).",
            r##"pie(pt(0, 0), 40, deg(0), deg(60)).mirrored([0, 0], deg(90))"##,
            |path: Path, through: Point, direction: Angle| path.mirrored(through, direction),
        ),
        word(
            ".mirrored_beside(through, direction)",
            "The path and its mirror image.",
            r##"pie(pt(0, 0), 40, deg(0), deg(60)).mirrored_beside([0, 0], deg(90))"##,
            |path: Path, through: Point, direction: Angle| {
                path.then(Mirror { beside: true, ..Mirror::new(through, direction) })
            },
        ),
        word(
            ".spun(copies, centre)",
            "Copies rotated evenly about a centre; the first is the path itself.",
            r##"ellipse(pt(40, 0), 20, 6).spun(8, [0, 0])"##,
            |path: Path, copies: usize, centre: Point| path.spun(copies, centre),
        ),
        word(
            ".warped(tolerance, f)",
            "Maps every point of the path through a function, accurate to a tolerance.",
            r##"rectangle(pt(-60, -20), 120, 40).warped(0.1, |p| pt(p.x, p.y + 12 * sin(deg(p.x * 3))))"##,
            |call: &Call<'_>, path: Path, tolerance: f64, f: FnPtr| {
                path.warped(tolerance, |p| call.ask(&f, (Dynamic::from(p),)))
            },
        ),
        word(
            ".bent(spine)",
            "Bends the path along a spine: x becomes the distance along the spine, y the distance to its right.",
            r##"rectangle(pt(0, -6), 90, 12).bent(circle(pt(0, 0), 40))"##,
            |path: Path, spine: Path| path.bent(&spine),
        ),
        word(
            ".bent_fitted(spine)",
            "Bends the path along a spine, stretched so that its width spans the whole spine.",
            r##"rectangle(pt(0, -6), 90, 12).toothed(3, 10).bent_fitted(circle(pt(0, 0), 40).trimmed(0, 0.75))"##,
            |path: Path, spine: Path| path.then(Bend { fitted: true, ..Bend::along(&spine) }),
        ),
    ]
}

/// A stroke whose width is multiplied with what a function of the score gives. The function is asked for so many even
/// shares, and what it gives goes evenly between them.
fn tapered(call: &Call<'_>, path: &Path, width: f64, f: &FnPtr) -> Path {
    const TAPER_SAMPLES: usize = 512;
    let asked: Vec<f64> =
        (0..=TAPER_SAMPLES).map(|i| call.ask(f, (i as f64 / TAPER_SAMPLES as f64,))).collect();
    let factor = move |share: f64| {
        let at = share.clamp(0.0, 1.0) * TAPER_SAMPLES as f64;
        let (before, rest) = (at.floor(), at.fract());
        let get = |i: f64| asked.get(i as usize).copied().unwrap_or(0.0);
        if rest == 0.0 { get(before) } else { get(before) * (1.0 - rest) + get(before + 1.0) * rest }
    };
    path.then(LineStyle { cap: Cap::Round, join: Join::Round, ..LineStyle::new(width) }.tapered(factor))
}
