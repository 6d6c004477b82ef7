//! Words for ready shapes.

use chordane::prelude::*;

use super::pen::path;
use super::{Args, Kind, Refusal, Section, Word};
use crate::values;

pub(super) const SECTION: Section = Section {
    title: "Shapes",
    about: "Each gives a path, most of them of one closed contour. A size of zero gives an empty path; a negative one is a mistake.",
    words: WORDS,
};

const WORDS: &[Word] = &[
    Word {
        name: "circle",
        on: &[],
        takes: &[("centre", Kind::Point), ("radius", Kind::Number)],
        gives: Kind::Path,
        about: "A circle. Starts at the right, clockwise as seen.",
        example: "circle(pt(0, 0), 40)",
        run: |a| path(circle(a.point(0), a.number(1))),
    },
    Word {
        name: "ellipse",
        on: &[],
        takes: &[("centre", Kind::Point), ("radius_x", Kind::Number), ("radius_y", Kind::Number)],
        gives: Kind::Path,
        about: "An ellipse with its axes along x and y. Starts at the right, clockwise as seen.",
        example: "ellipse(pt(0, 0), 60, 25)",
        run: |a| path(ellipse(a.point(0), a.number(1), a.number(2))),
    },
    Word {
        name: "arc",
        on: &[],
        takes: &[
            ("centre", Kind::Point),
            ("radius", Kind::Number),
            ("start", Kind::Angle),
            ("sweep", Kind::Angle),
        ],
        gives: Kind::Path,
        about: "An open arc of a circle, from an angle over a sweep, clockwise as seen.",
        example: "arc(pt(0, 0), 40, deg(-90), deg(120))",
        run: |a| path(arc(a.point(0), a.number(1), a.angle(2), a.angle(3))),
    },
    Word {
        name: "pie",
        on: &[],
        takes: &[
            ("centre", Kind::Point),
            ("radius", Kind::Number),
            ("start", Kind::Angle),
            ("sweep", Kind::Angle),
        ],
        gives: Kind::Path,
        about: "A slice of a disc: an arc and two sides to the centre.",
        example: "pie(pt(0, 0), 40, deg(-90), deg(120))",
        run: |a| path(pie(a.point(0), a.number(1), a.angle(2), a.angle(3))),
    },
    Word {
        name: "chord_cut",
        on: &[],
        takes: &[
            ("centre", Kind::Point),
            ("radius", Kind::Number),
            ("start", Kind::Angle),
            ("sweep", Kind::Angle),
        ],
        gives: Kind::Path,
        about: "The part of a disc that a chord cuts off.",
        example: "chord_cut(pt(0, 0), 40, deg(-90), deg(120))",
        run: |a| path(chord_cut(a.point(0), a.number(1), a.angle(2), a.angle(3))),
    },
    Word {
        name: "ring",
        on: &[],
        takes: &[("centre", Kind::Point), ("outer", Kind::Number), ("inner", Kind::Number)],
        gives: Kind::Path,
        about: "A disc with a round hole.",
        example: "ring(pt(0, 0), 40, 28)",
        run: |a| path(ring(a.point(0), a.number(1), a.number(2))),
    },
    Word {
        name: "ring_part",
        on: &[],
        takes: &[
            ("centre", Kind::Point),
            ("outer", Kind::Number),
            ("inner", Kind::Number),
            ("start", Kind::Angle),
            ("sweep", Kind::Angle),
        ],
        gives: Kind::Path,
        about: "A part of a ring, from an angle over a sweep.",
        example: "ring_part(pt(0, 0), 40, 28, deg(180), deg(180))",
        run: |a| path(ring_part(a.point(0), a.number(1), a.number(2), a.angle(3), a.angle(4))),
    },
    Word {
        name: "polygon",
        on: &[],
        takes: &[("centre", Kind::Point), ("sides", Kind::Count), ("radius", Kind::Number)],
        gives: Kind::Path,
        about: "A regular polygon with its corners at a distance from the centre, the first one straight above it.",
        example: "polygon(pt(0, 0), 6, 50)",
        run: |a| {
            roomy(a, 1)?;
            path(polygon(a.point(0), a.count(1), a.number(2)))
        },
    },
    Word {
        name: "star",
        on: &[],
        takes: &[
            ("centre", Kind::Point),
            ("tips", Kind::Count),
            ("outer", Kind::Number),
            ("inner", Kind::Number),
        ],
        gives: Kind::Path,
        about: "A star: tips at the outer distance from the centre, valleys between them at the inner one, the first tip straight above.",
        example: "star(pt(0, 0), 5, 50, 20)",
        run: |a| {
            roomy(a, 1)?;
            path(star(a.point(0), a.count(1), a.number(2), a.number(3)))
        },
    },
    Word {
        name: "rectangle",
        on: &[],
        takes: &[("corner", Kind::Point), ("width", Kind::Number), ("height", Kind::Number)],
        gives: Kind::Path,
        about: "A rectangle by its top left corner and its size.",
        example: "rectangle(pt(0, 0), 80, 30)",
        run: |a| path(rectangle(a.point(0), a.number(1), a.number(2))),
    },
    Word {
        name: "rounded_rectangle",
        on: &[],
        takes: &[
            ("corner", Kind::Point),
            ("width", Kind::Number),
            ("height", Kind::Number),
            ("radius", Kind::Number),
        ],
        gives: Kind::Path,
        about: "A rectangle with rounded corners; radii that do not fit shrink until they do.",
        example: "rounded_rectangle(pt(0, 0), 80, 30, 8)",
        run: |a| path(rounded_rectangle(a.point(0), a.number(1), a.number(2), a.number(3))),
    },
    Word {
        name: "rounded_rectangle",
        on: &[],
        takes: &[
            ("corner", Kind::Point),
            ("width", Kind::Number),
            ("height", Kind::Number),
            ("radii", Kind::Numbers),
        ],
        gives: Kind::Path,
        about: "A rectangle with a radius for each corner: top left, top right, bottom right, bottom left.",
        example: "rounded_rectangle(pt(0, 0), 80, 30, [8, 8, 0, 0])",
        run: |a| match a.numbers(3)[..] {
            [p, q, r, s] => path(rounded_rectangle(a.point(0), a.number(1), a.number(2), [p, q, r, s])),
            _ => Err(Refusal::new("`rounded_rectangle`: give one radius or a list of four")),
        },
    },
    Word {
        name: "polygon_about",
        on: &[],
        takes: &[("centre", Kind::Point), ("sides", Kind::Count), ("radius", Kind::Number)],
        gives: Kind::Path,
        about: "A regular polygon whose sides touch the circle of the radius, the first corner straight above.",
        example: r##"polygon_about(pt(0, 0), 6, 50)"##,
        run: |a| {
            roomy(a, 1)?;
            path(polygon_about(a.point(0), a.count(1), a.number(2)))
        },
    },
    Word {
        name: "polygon_of_side",
        on: &[],
        takes: &[("centre", Kind::Point), ("sides", Kind::Count), ("length", Kind::Number)],
        gives: Kind::Path,
        about: "A regular polygon by the length of its sides, the first corner straight above.",
        example: r##"polygon_of_side(pt(0, 0), 6, 40)"##,
        run: |a| {
            roomy(a, 1)?;
            path(polygon_of_side(a.point(0), a.count(1), a.number(2)))
        },
    },
    Word {
        name: "rounded_polygon",
        on: &[],
        takes: &[
            ("centre", Kind::Point),
            ("sides", Kind::Count),
            ("radius", Kind::Number),
            ("rounding", Kind::Number),
        ],
        gives: Kind::Path,
        about: "A regular polygon with rounded corners; a rounding that does not fit shrinks.",
        example: r##"rounded_polygon(pt(0, 0), 6, 50, 8)"##,
        run: |a| {
            roomy(a, 1)?;
            path(rounded_polygon(a.point(0), a.count(1), a.number(2), a.number(3)))
        },
    },
    Word {
        name: "wheel_polygon",
        on: &[],
        takes: &[
            ("centre", Kind::Point),
            ("sides", Kind::Count),
            ("radius", Kind::Number),
            ("pinch", Kind::Number),
        ],
        gives: Kind::Path,
        about: "A polygon with round sides from two turning circles: a pinch of 0 is a circle, 1 has cusps for corners, more makes loops.",
        example: r##"wheel_polygon(pt(0, 0), 3, 50, 0.5)"##,
        run: |a| {
            roomy(a, 1)?;
            path(wheel_polygon(a.point(0), a.count(1), a.number(2), a.number(3)))
        },
    },
    Word {
        name: "rounded_star",
        on: &[],
        takes: &[
            ("centre", Kind::Point),
            ("tips", Kind::Count),
            ("outer", Kind::Number),
            ("inner", Kind::Number),
            ("tip_rounding", Kind::Number),
            ("valley_rounding", Kind::Number),
        ],
        gives: Kind::Path,
        about: "A star with rounded tips and valleys; roundings that do not fit shrink.",
        example: r##"rounded_star(pt(0, 0), 5, 50, 20, 4, 3)"##,
        run: |a| {
            roomy(a, 1)?;
            path(rounded_star(a.point(0), a.count(1), a.number(2), a.number(3), a.number(4), a.number(5)))
        },
    },
    Word {
        name: "star_polygon",
        on: &[],
        takes: &[
            ("centre", Kind::Point),
            ("points", Kind::Count),
            ("step", Kind::Count),
            ("radius", Kind::Number),
        ],
        gives: Kind::Path,
        about: "Points evenly on a circle, each joined to one so many steps on; as many contours as it takes.",
        example: r##"star_polygon(pt(0, 0), 7, 3, 50)"##,
        run: |a| {
            roomy(a, 1)?;
            path(star_polygon(a.point(0), a.count(1), a.count(2), a.number(3)))
        },
    },
    Word {
        name: "gear",
        on: &[],
        takes: &[
            ("centre", Kind::Point),
            ("teeth", Kind::Count),
            ("outer", Kind::Number),
            ("inner", Kind::Number),
        ],
        gives: Kind::Path,
        about: "A disc with even teeth, the first one straight above.",
        example: r##"gear(pt(0, 0), 16, 50, 42)"##,
        run: |a| {
            roomy(a, 1)?;
            path(gear(a.point(0), a.count(1), a.number(2), a.number(3)))
        },
    },
    Word {
        name: "scallop",
        on: &[],
        takes: &[
            ("centre", Kind::Point),
            ("bumps", Kind::Count),
            ("radius", Kind::Number),
            ("depth", Kind::Number),
        ],
        gives: Kind::Path,
        about: "A disc with a rim of round bumps that rise by the depth, or cut in where it is negative.",
        example: r##"scallop(pt(0, 0), 12, 44, 6)"##,
        run: |a| {
            roomy(a, 1)?;
            path(scallop(a.point(0), a.count(1), a.number(2), a.number(3)))
        },
    },
    Word {
        name: "blob",
        on: &[],
        takes: &[("centre", Kind::Point), ("radii", Kind::Numbers)],
        gives: Kind::Path,
        about: "A soft closed curve through places evenly round the centre, at these distances from it.",
        example: r##"blob(pt(0, 0), [40, 52, 38, 47, 44])"##,
        run: |a| path(blob(a.point(0), a.numbers(1))),
    },
    Word {
        name: "band",
        on: &[],
        takes: &[("one", Kind::Path), ("other", Kind::Path)],
        gives: Kind::Path,
        about: "The band between two curves: along one, across, and back along the other.",
        example: r##"band(start([0, 0]).bow([90, 0], 20).open(), start([0, 30]).line([90, 30]).open())"##,
        run: |a| path(band(&a.path(0), &a.path(1))),
    },
    Word {
        name: "rose",
        on: &[],
        takes: &[("centre", Kind::Point), ("n", Kind::Count), ("d", Kind::Count), ("radius", Kind::Number)],
        gives: Kind::Path,
        about: "A rose: the distance from the centre is the radius times the cosine of n / d times the angle.",
        example: r##"rose(pt(0, 0), 5, 1, 50)"##,
        run: |a| path(rose(a.point(0), a.count(1), a.count(2), a.number(3))),
    },
    Word {
        name: "superellipse",
        on: &[],
        takes: &[
            ("centre", Kind::Point),
            ("radius_x", Kind::Number),
            ("radius_y", Kind::Number),
            ("exponent", Kind::Number),
        ],
        gives: Kind::Path,
        about: "Between a star (below 1), a rhomb (1), an ellipse (2) and a rectangle (much more).",
        example: r##"superellipse(pt(0, 0), 60, 40, 4)"##,
        run: |a| path(superellipse(a.point(0), a.number(1), a.number(2), a.number(3))),
    },
    Word {
        name: "lissajous",
        on: &[],
        takes: &[
            ("centre", Kind::Point),
            ("radius_x", Kind::Number),
            ("radius_y", Kind::Number),
            ("across", Kind::Count),
            ("down", Kind::Count),
            ("phase", Kind::Angle),
        ],
        gives: Kind::Path,
        about: "A closed curve that swings so often across and down; the phase is how far ahead it begins across.",
        example: r##"lissajous(pt(0, 0), 60, 40, 3, 2, deg(90))"##,
        run: |a| path(lissajous(a.point(0), a.number(1), a.number(2), a.count(3), a.count(4), a.angle(5))),
    },
    Word {
        name: "spiral",
        on: &[],
        takes: &[
            ("centre", Kind::Point),
            ("inner", Kind::Number),
            ("outer", Kind::Number),
            ("turns", Kind::Number),
        ],
        gives: Kind::Path,
        about: "A spiral of even spacing, clockwise as seen; negative turns run the other way.",
        example: r##"spiral(pt(0, 0), 5, 50, 4)"##,
        run: |a| path(spiral(a.point(0), a.number(1), a.number(2), a.number(3))),
    },
    Word {
        name: "growing_spiral",
        on: &[],
        takes: &[
            ("centre", Kind::Point),
            ("inner", Kind::Number),
            ("outer", Kind::Number),
            ("turns", Kind::Number),
        ],
        gives: Kind::Path,
        about: "A spiral that grows by the same factor in each turn.",
        example: r##"growing_spiral(pt(0, 0), 3, 50, 3)"##,
        run: |a| path(growing_spiral(a.point(0), a.number(1), a.number(2), a.number(3))),
    },
    Word {
        name: "sided_spiral",
        on: &[],
        takes: &[
            ("centre", Kind::Point),
            ("sides", Kind::Count),
            ("inner", Kind::Number),
            ("outer", Kind::Number),
            ("turns", Kind::Number),
        ],
        gives: Kind::Path,
        about: "A spiral of straight sides, so many to a turn.",
        example: r##"sided_spiral(pt(0, 0), 4, 5, 50, 4)"##,
        run: |a| path(sided_spiral(a.point(0), a.count(1), a.number(2), a.number(3), a.number(4))),
    },
    Word {
        name: "cycloid",
        on: &[],
        takes: &[
            ("start", Kind::Point),
            ("radius", Kind::Number),
            ("pen", Kind::Number),
            ("turns", Kind::Number),
        ],
        gives: Kind::Path,
        about: "The way of a pen in a wheel that rolls along a line to the right; pen is its distance from the hub.",
        example: r##"cycloid(pt(0, 0), 10, 10, 3)"##,
        run: |a| path(cycloid(a.point(0), a.number(1), a.number(2), a.number(3))),
    },
    Word {
        name: "plot",
        on: &[],
        takes: &[
            ("start", Kind::Number),
            ("end", Kind::Number),
            ("tolerance", Kind::Number),
            ("f", Kind::Function),
        ],
        gives: Kind::Path,
        about: "The graph of a function over a range, in sides that stay within the tolerance of it.",
        example: r##"plot(-90, 90, 0.1, |x| 20 * sin(rad(x / 20)))"##,
        run: |a| {
            let (start, end, tolerance) = (a.number(0), a.number(1), a.number(2));
            let value = |x: f64| a.call(3, (x,)).as_ref().and_then(values::number).unwrap_or(f64::NAN);
            path(plot(start, end, tolerance, value))
        },
    },
    Word {
        name: "trail",
        on: &[],
        takes: &[("n", Kind::Count), ("f", Kind::Function)],
        gives: Kind::Path,
        about: "The way of a point that a function gives for shares from 0 to 1, in so many even steps.",
        example: r##"trail(90, |share| polar(turns(share), 40))"##,
        run: |a| {
            roomy(a, 0)?;
            path(trail(a.count(0), |share| point_of(a, 1, share)))
        },
    },
    Word {
        name: "traced_trail",
        on: &[],
        takes: &[("tolerance", Kind::Number), ("f", Kind::Function)],
        gives: Kind::Path,
        about: "The way of a point that a function gives for shares from 0 to 1, in as many sides as stay within the tolerance of it.",
        example: r##"traced_trail(0.1, |share| polar(turns(3 * share), 40 * share))"##,
        run: |a| path(traced_trail(a.number(0), |share| point_of(a, 1, share))),
    },
    Word {
        name: "lettering",
        on: &[],
        takes: &[("text", Kind::Text), ("baseline", Kind::Point), ("height", Kind::Number)],
        gives: Kind::Path,
        about: "A text as open strokes, for labels: small letters, digits and a few signs.",
        example: r##"lettering("sail 7", pt(0, 0), 9).stroke("#20303c", 1).cap("round")"##,
        run: |a| path(lettering(&a.text(0), a.point(1), a.number(2))),
    },
    Word {
        name: "lettering_width",
        on: &[],
        takes: &[("text", Kind::Text), ("height", Kind::Number)],
        gives: Kind::Number,
        about: "How wide a text is as lettering of a height.",
        example: r##"lettering_width("sail 7", 9)"##,
        run: |a| Ok(lettering_width(&a.text(0), a.number(1)).into()),
    },
];

/// The point that a function of the score gives for a share.
fn point_of(a: &Args<'_, '_>, at: usize, share: f64) -> Point {
    a.call(at, (share,)).as_ref().and_then(values::point).unwrap_or(Point::NAN)
}

/// Refuses a count of corners that would fill the memory before anything is seen.
fn roomy(a: &Args<'_, '_>, at: usize) -> Result<(), Refusal> {
    let (n, most) = (a.count(at), a.longest_list.saturating_mul(10));
    if n <= most {
        return Ok(());
    }
    Err(Refusal {
        message: format!("{n} corners are too many; give at most {most}"),
        advice: Some("the limit is ten times that of lists, which can be raised with --max-list".to_owned()),
    })
}
