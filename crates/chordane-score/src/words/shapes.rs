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
        about: "Each gives a path, most of them of one closed contour. A size of zero gives an empty path; a negative one is a mistake.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            "circle(centre, radius)",
            "A circle. Starts at the right, clockwise as seen.",
            "circle(pt(0, 0), 40)",
            |centre: Point, radius: f64| circle(centre, radius),
        ),
        word(
            "ellipse(centre, radius_x, radius_y)",
            "An ellipse with its axes along x and y. Starts at the right, clockwise as seen.",
            "ellipse(pt(0, 0), 60, 25)",
            |centre: Point, radius_x: f64, radius_y: f64| ellipse(centre, radius_x, radius_y),
        ),
        word(
            "arc(centre, radius, start, sweep)",
            "An open arc of a circle, from an angle over a sweep, clockwise as seen.",
            "arc(pt(0, 0), 40, deg(-90), deg(120))",
            |centre: Point, radius: f64, start: Angle, sweep: Angle| arc(centre, radius, start, sweep),
        ),
        word(
            "elliptic_arc(centre, radius_x, radius_y, start, sweep)",
            "An open arc of an ellipse, from an angle over a sweep as seen from its centre, clockwise as seen. For angles before squashing: squashed_arc.",
            "elliptic_arc(pt(0, 0), 60, 25, deg(-90), deg(135))",
            |centre: Point, radius_x: f64, radius_y: f64, start: Angle, sweep: Angle| {
                elliptic_arc(centre, radius_x, radius_y, start, sweep)
            },
        ),
        word(
            "squashed_arc(centre, radius_x, radius_y, start, sweep)",
            "An open arc of a circle, squashed into an ellipse: the angles are those on the circle.",
            "squashed_arc(pt(0, 0), 60, 25, deg(-90), deg(135))",
            |centre: Point, radius_x: f64, radius_y: f64, start: Angle, sweep: Angle| {
                squashed_arc(centre, radius_x, radius_y, start, sweep)
            },
        ),
        word(
            "pie(centre, radius, start, sweep)",
            "A slice of a disc: an arc and two sides to the centre.",
            "pie(pt(0, 0), 40, deg(-90), deg(120))",
            |centre: Point, radius: f64, start: Angle, sweep: Angle| pie(centre, radius, start, sweep),
        ),
        word(
            "chord_cut(centre, radius, start, sweep)",
            "The part of a disc that a chord cuts off.",
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
            "A part of a ring, from an angle over a sweep.",
            "ring_part(pt(0, 0), 40, 28, deg(180), deg(180))",
            |centre: Point, outer: f64, inner: f64, start: Angle, sweep: Angle| {
                ring_part(centre, outer, inner, start, sweep)
            },
        ),
        word(
            "polygon(centre, sides, radius)",
            "A regular polygon with its corners at a distance from the centre, the first one straight above it.",
            "polygon(pt(0, 0), 6, 50)",
            |centre: Point, sides: usize, radius: f64| polygon(centre, sides, radius),
        ),
        word(
            "star(centre, tips, outer, inner)",
            "A star: tips at the outer distance from the centre, valleys between them at the inner one, the first tip straight above.",
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
            "A rectangle with rounded corners; radii that do not fit shrink until they do.",
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
            "A regular polygon whose sides touch the circle of the radius, the first corner straight above.",
            r##"polygon_about(pt(0, 0), 6, 50)"##,
            |centre: Point, sides: usize, radius: f64| polygon_about(centre, sides, radius),
        ),
        word(
            "polygon_of_side(centre, sides, length)",
            "A regular polygon by the length of its sides, the first corner straight above.",
            r##"polygon_of_side(pt(0, 0), 6, 40)"##,
            |centre: Point, sides: usize, length: f64| polygon_of_side(centre, sides, length),
        ),
        word(
            "rounded_polygon(centre, sides, radius, rounding)",
            "A regular polygon with rounded corners; a rounding that does not fit shrinks.",
            r##"rounded_polygon(pt(0, 0), 6, 50, 8)"##,
            |centre: Point, sides: usize, radius: f64, rounding: f64| {
                rounded_polygon(centre, sides, radius, rounding)
            },
        ),
        word(
            "wheel_polygon(centre, sides, radius, pinch)",
            "A polygon with round sides from two turning circles: a pinch of 0 is a circle, 1 has cusps for corners, more makes loops.",
            r##"wheel_polygon(pt(0, 0), 3, 50, 0.5)"##,
            |centre: Point, sides: usize, radius: f64, pinch: f64| {
                wheel_polygon(centre, sides, radius, pinch)
            },
        ),
        word(
            "rounded_star(centre, tips, outer, inner, tip_rounding, valley_rounding)",
            "A star with rounded tips and valleys; roundings that do not fit shrink.",
            r##"rounded_star(pt(0, 0), 5, 50, 20, 4, 3)"##,
            |centre: Point, tips: usize, outer: f64, inner: f64, tip_rounding: f64, valley_rounding: f64| {
                rounded_star(centre, tips, outer, inner, tip_rounding, valley_rounding)
            },
        ),
        word(
            "star_polygon(centre, points, step, radius)",
            "Points evenly on a circle, each joined to one so many steps on; as many contours as it takes.",
            r##"star_polygon(pt(0, 0), 7, 3, 50)"##,
            |centre: Point, points: usize, step: usize, radius: f64| {
                star_polygon(centre, points, step, radius)
            },
        ),
        word(
            "gear(centre, teeth, outer, inner)",
            "A disc with even teeth, the first one straight above.",
            r##"gear(pt(0, 0), 16, 50, 42)"##,
            |centre: Point, teeth: usize, outer: f64, inner: f64| gear(centre, teeth, outer, inner),
        ),
        word(
            "scallop(centre, bumps, radius, depth)",
            "A disc with a rim of round bumps that rise by the depth, or cut in where it is negative.",
            r##"scallop(pt(0, 0), 12, 44, 6)"##,
            |centre: Point, bumps: usize, radius: f64, depth: f64| scallop(centre, bumps, radius, depth),
        ),
        word(
            "blob(centre, radii)",
            "A soft closed curve through places evenly round the centre, at these distances from it.",
            r##"blob(pt(0, 0), [40, 52, 38, 47, 44])"##,
            |centre: Point, radii: Vec<f64>| blob(centre, radii),
        ),
        word(
            "band(one, other)",
            "The band between two curves: along one, across, and back along the other.",
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
            "Between a star (below 1), a rhomb (1), an ellipse (2) and a rectangle (much more).",
            r##"superellipse(pt(0, 0), 60, 40, 4)"##,
            |centre: Point, radius_x: f64, radius_y: f64, exponent: f64| {
                superellipse(centre, radius_x, radius_y, exponent)
            },
        ),
        word(
            "lissajous(centre, radius_x, radius_y, across, down, phase)",
            "A closed curve that swings so often across and down; the phase is how far ahead it begins across.",
            r##"lissajous(pt(0, 0), 60, 40, 3, 2, deg(90))"##,
            |centre: Point, radius_x: f64, radius_y: f64, across: usize, down: usize, phase: Angle| {
                lissajous(centre, radius_x, radius_y, across, down, phase)
            },
        ),
        word(
            "spiral(centre, inner, outer, turns)",
            "A spiral of even spacing, clockwise as seen; negative turns run the other way.",
            r##"spiral(pt(0, 0), 5, 50, 4)"##,
            |centre: Point, inner: f64, outer: f64, turns: f64| spiral(centre, inner, outer, turns),
        ),
        word(
            "growing_spiral(centre, inner, outer, turns)",
            "A spiral that grows by the same factor in each turn.",
            r##"growing_spiral(pt(0, 0), 3, 50, 3)"##,
            |centre: Point, inner: f64, outer: f64, turns: f64| growing_spiral(centre, inner, outer, turns),
        ),
        word(
            "sided_spiral(centre, sides, inner, outer, turns)",
            "A spiral of straight sides, so many to a turn.",
            r##"sided_spiral(pt(0, 0), 4, 5, 50, 4)"##,
            |centre: Point, sides: usize, inner: f64, outer: f64, turns: f64| {
                sided_spiral(centre, sides, inner, outer, turns)
            },
        ),
        word(
            "cycloid(start, radius, pen, turns)",
            "The way of a pen in a wheel that rolls along a line to the right; pen is its distance from the hub.",
            r##"cycloid(pt(0, 0), 10, 10, 3)"##,
            |start: Point, radius: f64, pen: f64, turns: f64| cycloid(start, radius, pen, turns),
        ),
        word(
            "plot(start, end, tolerance, f)",
            "The graph of a function over a range, in sides that stay within the tolerance of it.",
            r##"plot(-90, 90, 0.1, |x| 20 * sin(rad(x / 20)))"##,
            |call: &Call<'_>, start: f64, end: f64, tolerance: f64, f: FnPtr| {
                plot(start, end, tolerance, |x| call.ask(&f, (x,)))
            },
        ),
        word(
            "trail(n, f)",
            "The way of a point that a function gives for shares from 0 to 1, in so many even steps.",
            r##"trail(90, |share| polar(turns(share), 40)).close()"##,
            |call: &Call<'_>, n: usize, f: FnPtr| trail(n, |share| call.ask(&f, (share,))),
        ),
        word(
            "traced_trail(tolerance, f)",
            "The way of a point that a function gives for shares from 0 to 1, in as many sides as stay within the tolerance of it.",
            r##"traced_trail(0.1, |share| polar(turns(3 * share), 40 * share))"##,
            |call: &Call<'_>, tolerance: f64, f: FnPtr| {
                traced_trail(tolerance, |share| call.ask(&f, (share,)))
            },
        ),
        word(
            "lettering(text, baseline, height)",
            "A text or a number as open strokes, for labels: Latin letters with their accents, Greek, digits, arrows and signs; it says which others it lacks.",
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
            "How wide a text is as lettering of a height.",
            r##"lettering_width("sail 7", 9)"##,
            |text: Dynamic, height: f64| lettering_width(&shown(&text), height),
        ),
    ]
}
