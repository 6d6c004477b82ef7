//! Words for ready shapes.

use chordane::prelude::*;
use chordane::shape::lettering_lacks;

use rhai::{Dynamic, FnPtr};

use super::entry::{Section, Word, word};
use crate::call::Call;
use crate::call_error::CallError;
use crate::values::shown;

pub(super) fn section() -> Section {
    Section {
        title: "Shapes",
        about: "Each returns a path, usually with one closed contour. A size of zero gives an empty path; a negative size is an error.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            "circle(centre, radius)",
            "A circle. It starts at its rightmost point and runs clockwise on screen.",
            "circle(pt(0, 0), 40)",
            |centre: Point, radius: f64| circle(centre, radius),
        ),
        word(
            "ellipse(centre, radius_x, radius_y)",
            "An ellipse with its axes along x and y. It starts at its rightmost point and runs clockwise on screen.",
            "ellipse(pt(0, 0), 60, 25)",
            |centre: Point, radius_x: f64, radius_y: f64| ellipse(centre, radius_x, radius_y),
        ),
        word(
            "arc(centre, radius, start, sweep)",
            "An open circular arc from a start angle through a sweep, clockwise on screen.",
            "arc(pt(0, 0), 40, deg(-90), deg(120))",
            |centre: Point, radius: f64, start: Angle, sweep: Angle| arc(centre, radius, start, sweep),
        ),
        word(
            "elliptic_arc(centre, radius_x, radius_y, start, sweep)",
            "An open elliptical arc from a start angle through a sweep, both measured at its centre, clockwise on screen. `squashed_arc` takes the angles of the circle before scaling.",
            "elliptic_arc(pt(0, 0), 60, 25, deg(-90), deg(135))",
            |centre: Point, radius_x: f64, radius_y: f64, start: Angle, sweep: Angle| {
                elliptic_arc(centre, radius_x, radius_y, start, sweep)
            },
        ),
        word(
            "squashed_arc(centre, radius_x, radius_y, start, sweep)",
            "An open circular arc scaled into an ellipse; the angles are those on the circle before scaling.",
            "squashed_arc(pt(0, 0), 60, 25, deg(-90), deg(135))",
            |centre: Point, radius_x: f64, radius_y: f64, start: Angle, sweep: Angle| {
                squashed_arc(centre, radius_x, radius_y, start, sweep)
            },
        ),
        word(
            "pie(centre, radius, start, sweep)",
            "A sector (slice) of a disc: an arc and two sides to the centre.",
            "pie(pt(0, 0), 40, deg(-90), deg(120))",
            |centre: Point, radius: f64, start: Angle, sweep: Angle| pie(centre, radius, start, sweep),
        ),
        word(
            "chord_cut(centre, radius, start, sweep)",
            "A circular segment: the part of a disc cut off by a chord.",
            "chord_cut(pt(0, 0), 40, deg(-90), deg(120))",
            |centre: Point, radius: f64, start: Angle, sweep: Angle| chord_cut(centre, radius, start, sweep),
        ),
        word(
            "ring(centre, outer, inner)",
            "A disc with a round hole.",
            "ring(pt(0, 0), 40, 28)",
            |centre: Point, outer: f64, inner: f64| ring(centre, outer, inner),
        ),
        word(
            "ring_part(centre, outer, inner, start, sweep)",
            "Part of a ring, from a start angle through a sweep, clockwise on screen.",
            "ring_part(pt(0, 0), 40, 28, deg(180), deg(180))",
            |centre: Point, outer: f64, inner: f64, start: Angle, sweep: Angle| {
                ring_part(centre, outer, inner, start, sweep)
            },
        ),
        word(
            "polygon(centre, sides, radius)",
            "A regular polygon with its vertices at a radius from the centre; the first one is at the top.",
            "polygon(pt(0, 0), 6, 50)",
            |centre: Point, sides: usize, radius: f64| polygon(centre, sides, radius),
        ),
        word(
            "star(centre, tips, outer, inner)",
            "A star with its tips at the outer radius and the valleys between them at the inner radius; the first tip is at the top.",
            "star(pt(0, 0), 5, 50, 20)",
            |centre: Point, tips: usize, outer: f64, inner: f64| star(centre, tips, outer, inner),
        ),
        word(
            "rectangle(corner, width, height)",
            "A rectangle by its top left corner and its size; rectangle_about takes the centre.",
            "rectangle(pt(0, 0), 80, 30)",
            |corner: Point, width: f64, height: f64| rectangle(corner, width, height),
        ),
        word(
            "rectangle_about(centre, width, height)",
            "A rectangle by its centre and its size; rectangle takes the top left corner.",
            "rectangle_about(pt(0, 0), 80, 30)",
            |centre: Point, width: f64, height: f64| rectangle_about(centre, width, height),
        ),
        word(
            "rounded_rectangle(corner, width, height, radius)",
            "A rectangle with rounded corners; a radius that is too large is reduced to fit.",
            "rounded_rectangle(pt(0, 0), 80, 30, 8)",
            |corner: Point, width: f64, height: f64, radius: f64| {
                rounded_rectangle(corner, width, height, radius)
            },
        ),
        word(
            "rounded_rectangle(corner, width, height, radii)",
            "A rectangle with a radius for each corner: top left, top right, bottom right, bottom left.",
            "rounded_rectangle(pt(0, 0), 80, 30, [8, 8, 0, 0])",
            |corner: Point, width: f64, height: f64, radii: Vec<f64>| match radii[..] {
                [p, q, r, s] => Ok(rounded_rectangle(corner, width, height, [p, q, r, s])),
                _ => Err(CallError::new("`rounded_rectangle`: give one radius or a list of four")),
            },
        ),
        word(
            "polygon_about(centre, sides, radius)",
            "A regular polygon circumscribed about a circle of this radius; the first vertex is at the top.",
            r##"polygon_about(pt(0, 0), 6, 50)"##,
            |centre: Point, sides: usize, radius: f64| polygon_about(centre, sides, radius),
        ),
        word(
            "polygon_of_side(centre, sides, length)",
            "A regular polygon with sides of this length; the first vertex is at the top.",
            r##"polygon_of_side(pt(0, 0), 6, 40)"##,
            |centre: Point, sides: usize, length: f64| polygon_of_side(centre, sides, length),
        ),
        word(
            "rounded_polygon(centre, sides, radius, rounding)",
            "A regular polygon with rounded corners; a rounding radius that is too large is reduced to fit.",
            r##"rounded_polygon(pt(0, 0), 6, 50, 8)"##,
            |centre: Point, sides: usize, radius: f64, rounding: f64| {
                rounded_polygon(centre, sides, radius, rounding)
            },
        ),
        word(
            "wheel_polygon(centre, sides, radius, pinch)",
            "A polygon with curved sides, traced by two rotating radii: a pinch of 0 gives a circle, 1 gives cusps at the corners, more gives loops.",
            r##"wheel_polygon(pt(0, 0), 3, 50, 0.5)"##,
            |centre: Point, sides: usize, radius: f64, pinch: f64| {
                wheel_polygon(centre, sides, radius, pinch)
            },
        ),
        word(
            "rounded_star(centre, tips, outer, inner, tip_rounding, valley_rounding)",
            "A star with rounded tips and valleys; rounding radii that are too large are reduced to fit.",
            r##"rounded_star(pt(0, 0), 5, 50, 20, 4, 3)"##,
            |centre: Point, tips: usize, outer: f64, inner: f64, tip_rounding: f64, valley_rounding: f64| {
                rounded_star(centre, tips, outer, inner, tip_rounding, valley_rounding)
            },
        ),
        word(
            "star_polygon(centre, points, step, radius)",
            "Evenly spaced points on a circle, each joined to the one `step` points further on; as many contours as needed.",
            r##"star_polygon(pt(0, 0), 7, 3, 50)"##,
            |centre: Point, points: usize, step: usize, radius: f64| {
                star_polygon(centre, points, step, radius)
            },
        ),
        word(
            "gear(centre, teeth, outer, inner)",
            "A disc with evenly spaced teeth, the first one at the top.",
            r##"gear(pt(0, 0), 16, 50, 42)"##,
            |centre: Point, teeth: usize, outer: f64, inner: f64| gear(centre, teeth, outer, inner),
        ),
        word(
            "scallop(centre, bumps, radius, depth)",
            "A disc with a scalloped edge: round bumps of this depth, or notches if it is negative.",
            r##"scallop(pt(0, 0), 12, 44, 6)"##,
            |centre: Point, bumps: usize, radius: f64, depth: f64| scallop(centre, bumps, radius, depth),
        ),
        word(
            "blob(centre, radii)",
            "A smooth closed curve through points at evenly spaced angles about the centre, at these distances from it.",
            r##"blob(pt(0, 0), [40, 52, 38, 47, 44])"##,
            |centre: Point, radii: Vec<f64>| blob(centre, radii),
        ),
        word(
            "band(one, other)",
            "The area between two curves: along one, straight across, and back along the other.",
            r##"band(start([0, 0]).bow([90, 0], 20).open(), start([0, 30]).line([90, 30]).open())"##,
            |one: Path, other: Path| band(&one, &other),
        ),
        word(
            "rose(centre, n, d, radius)",
            "A rose: the distance from the centre is the radius times the cosine of n / d times the angle.",
            r##"rose(pt(0, 0), 5, 1, 50)"##,
            |centre: Point, n: usize, d: usize, radius: f64| rose(centre, n, d, radius),
        ),
        word(
            "superellipse(centre, radius_x, radius_y, exponent)",
            "A superellipse: a four-cusped star for exponents below 1, a rhombus at 1, an ellipse at 2, nearly a rectangle for large ones.",
            r##"superellipse(pt(0, 0), 60, 40, 4)"##,
            |centre: Point, radius_x: f64, radius_y: f64, exponent: f64| {
                superellipse(centre, radius_x, radius_y, exponent)
            },
        ),
        word(
            "lissajous(centre, radius_x, radius_y, across, down, phase)",
            "A Lissajous figure with `across` oscillations horizontally and `down` vertically; `phase` is the lead of the horizontal oscillation.",
            r##"lissajous(pt(0, 0), 60, 40, 3, 2, deg(90))"##,
            |centre: Point, radius_x: f64, radius_y: f64, across: usize, down: usize, phase: Angle| {
                lissajous(centre, radius_x, radius_y, across, down, phase)
            },
        ),
        word(
            "spiral(centre, inner, outer, turns)",
            "An Archimedean spiral (evenly spaced turns), clockwise on screen; negative turns run the other way.",
            r##"spiral(pt(0, 0), 5, 50, 4)"##,
            |centre: Point, inner: f64, outer: f64, turns: f64| spiral(centre, inner, outer, turns),
        ),
        word(
            "growing_spiral(centre, inner, outer, turns)",
            "A logarithmic spiral: it grows by the same factor with each turn.",
            r##"growing_spiral(pt(0, 0), 3, 50, 3)"##,
            |centre: Point, inner: f64, outer: f64, turns: f64| growing_spiral(centre, inner, outer, turns),
        ),
        word(
            "sided_spiral(centre, sides, inner, outer, turns)",
            "A spiral of straight sides, with `sides` of them per turn.",
            r##"sided_spiral(pt(0, 0), 4, 5, 50, 4)"##,
            |centre: Point, sides: usize, inner: f64, outer: f64, turns: f64| {
                sided_spiral(centre, sides, inner, outer, turns)
            },
        ),
        word(
            "cycloid(start, radius, pen, turns)",
            "The path of a pen on a wheel that rolls to the right along a line; `pen` is its distance from the hub.",
            r##"cycloid(pt(0, 0), 10, 10, 3)"##,
            |start: Point, radius: f64, pen: f64, turns: f64| cycloid(start, radius, pen, turns),
        ),
        word(
            "plot(start, end, tolerance, f)",
            "The graph of a function over a range, as straight segments within a tolerance of it.",
            r##"plot(-90, 90, 0.1, |x| 20 * sin(rad(x / 20)))"##,
            |call: &Call<'_>, start: f64, end: f64, tolerance: f64, f: FnPtr| {
                plot(start, end, tolerance, |x| call.ask(&f, (x,)))
            },
        ),
        word(
            "trail(n, f)",
            "The curve traced by a function of a parameter from 0 to 1, in `n` equal steps.",
            r##"trail(90, |share| polar(turns(share), 40)).close()"##,
            |call: &Call<'_>, n: usize, f: FnPtr| trail(n, |share| call.ask(&f, (share,))),
        ),
        word(
            "traced_trail(tolerance, f)",
            "The curve traced by a function of a parameter from 0 to 1, with as many straight segments as the tolerance needs.",
            r##"traced_trail(0.1, |share| polar(turns(3 * share), 40 * share))"##,
            |call: &Call<'_>, tolerance: f64, f: FnPtr| {
                traced_trail(tolerance, |share| call.ask(&f, (share,)))
            },
        ),
        word(
            "lettering(text, baseline, height)",
            "A string or a number as open single-line strokes, for labels. Covers Latin letters with accents, Greek, digits, arrows and symbols; characters it lacks are reported.",
            r##"lettering("sail 7", pt(0, 0), 9).stroke("#20303c", 1).cap("round")"##,
            |call: &Call<'_>, text: Dynamic, baseline: Point, height: f64| {
                let text = shown(&text);
                let lacking: Vec<String> = lettering_lacks(&text).iter().map(char::to_string).collect();
                if !lacking.is_empty() {
                    let lacking = lacking.join(" ");
                    call.stage(|stage| {
                        stage.remark(format!("lettering has no {lacking}, and leaves that blank"))
                    });
                }
                lettering(&text, baseline, height)
            },
        ),
        word(
            "lettering_width(text, height)",
            "The width of a string as lettering of this height.",
            r##"lettering_width("sail 7", 9)"##,
            |text: Dynamic, height: f64| lettering_width(&shown(&text), height),
        ),
    ]
}
