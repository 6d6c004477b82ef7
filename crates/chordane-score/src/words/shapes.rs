//! Words for ready shapes.

use chordane::prelude::*;

use super::pen::path;
use super::{Args, Kind, Refusal, Section, Word};

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
        name: "lettering",
        on: &[],
        takes: &[("text", Kind::Text), ("baseline", Kind::Point), ("height", Kind::Number)],
        gives: Kind::Path,
        about: "A text as open strokes, for labels: small letters, digits and a few signs.",
        example: r##"lettering("sail 7", pt(0, 0), 9).stroke("#20303c", 1).cap("round")"##,
        run: |a| path(lettering(&a.text(0), a.point(1), a.number(2))),
    },
];

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
