//! Words for the pen.

use chordane::ground::Given;
use chordane::prelude::*;
use rhai::Dynamic;

use crate::values::Builder;

use super::{Args, Kind, Refusal, Section, Word};

pub(super) const SECTION: Section = Section {
    title: "The pen",
    about: "A pen is a builder: every call draws on and gives the pen back, so `pen.line(p)` alone is enough in a loop. `close()` and `open()` make a path of it.",
    words: WORDS,
};

const WORDS: &[Word] = &[
    Word {
        name: "start",
        on: &[],
        takes: &[("point", Kind::Point)],
        gives: Kind::Pen,
        about: "Sets a pen down at a point, to begin a path. It heads along +x.",
        example: "start(pt(0, 0)).line([40, 0]).line([20, 30]).close()",
        run: |a| pen(start(a.point(0))),
    },
    Word {
        name: "start",
        on: &[Kind::Path],
        takes: &[("point", Kind::Point)],
        gives: Kind::Pen,
        about: "A pen that begins the next contour of a path.",
        example: "circle(pt(0, 0), 9).start(pt(20, 0)).line(pt(30, 0)).open()",
        run: |a| pen(a.path(0).start(a.point(1))),
    },
    Word {
        name: "start",
        on: &[Kind::Pen],
        takes: &[("point", Kind::Point)],
        gives: Kind::Pen,
        about: "Ends the contour open and begins the next one of the same path.",
        example: "start(pt(0, 0)).line(pt(9, 0)).start(pt(0, 5)).line(pt(9, 5)).open()",
        run: |a| {
            let p = a.point(1);
            draw(a, |pen| pen.start(p))
        },
    },
    Word {
        name: "line",
        on: &[Kind::Pen],
        takes: &[("to", Kind::Point)],
        gives: Kind::Pen,
        about: "A straight side to a point.",
        example: "start(pt(0, 0)).line(pt(40, 0)).open()",
        run: |a| {
            let p = a.point(1);
            draw(a, |pen| pen.line(p))
        },
    },
    Word {
        name: "line_by",
        on: &[Kind::Pen],
        takes: &[("step", Kind::Point)],
        gives: Kind::Pen,
        about: "A straight side by a step from where the pen stands.",
        example: "start(pt(5, 5)).line_by([40, 0]).line_by([0, 10]).open()",
        run: |a| {
            let p = a.point(1);
            draw(a, |pen| pen.line_by(p))
        },
    },
    Word {
        name: "ray",
        on: &[Kind::Pen],
        takes: &[("angle", Kind::Angle), ("distance", Kind::Number)],
        gives: Kind::Pen,
        about: "A straight side in the direction of an angle on the sheet, however the pen is heading.",
        example: "start(pt(0, 0)).ray(deg(30), 80).open()",
        run: |a| {
            let (angle, d) = (a.angle(1), a.number(2));
            draw(a, |pen| pen.ray(angle, d))
        },
    },
    Word {
        name: "turn",
        on: &[Kind::Pen],
        takes: &[("by", Kind::Angle)],
        gives: Kind::Pen,
        about: "Turns the heading, clockwise as seen; draws nothing.",
        example: "start(pt(0, 0)).ahead(10).turn(deg(90)).ahead(10).open()",
        run: |a| {
            let angle = a.angle(1);
            draw(a, |pen| pen.turn(angle))
        },
    },
    Word {
        name: "heading",
        on: &[Kind::Pen],
        takes: &[("to", Kind::Angle)],
        gives: Kind::Pen,
        about: "Sets the heading to an angle on the sheet; draws nothing.",
        example: "start(pt(0, 0)).heading(deg(-90)).ahead(50).open()",
        run: |a| {
            let angle = a.angle(1);
            draw(a, |pen| pen.heading(angle))
        },
    },
    Word {
        name: "ahead",
        on: &[Kind::Pen],
        takes: &[("distance", Kind::Number)],
        gives: Kind::Pen,
        about: "A straight side along the heading, which is the direction in which the last segment arrived.",
        example: r##"let pen = start(pt(0, 0));
for i in 0..5 { pen.ahead(40).turn(deg(144)); }
pen.close()"##,
        run: |a| {
            let d = a.number(1);
            draw(a, |pen| pen.ahead(d))
        },
    },
    Word {
        name: "quad",
        on: &[Kind::Pen],
        takes: &[("control", Kind::Point), ("to", Kind::Point)],
        gives: Kind::Pen,
        about: "A quadratic curve: toward the control point, then to the end.",
        example: "start(pt(0, 0)).quad(pt(20, -30), pt(40, 0)).open()",
        run: |a| {
            let (c, p) = (a.point(1), a.point(2));
            draw(a, |pen| pen.quad(c, p))
        },
    },
    Word {
        name: "cubic",
        on: &[Kind::Pen],
        takes: &[("control1", Kind::Point), ("control2", Kind::Point), ("to", Kind::Point)],
        gives: Kind::Pen,
        about: "A cubic curve: leaving toward the first control point, arriving from the second.",
        example: "start(pt(0, 0)).cubic(pt(0, 30), pt(40, -30), pt(40, 0)).open()",
        run: |a| {
            let (c, d, p) = (a.point(1), a.point(2), a.point(3));
            draw(a, |pen| pen.cubic(c, d, p))
        },
    },
    Word {
        name: "arc_about",
        on: &[Kind::Pen],
        takes: &[("centre", Kind::Point), ("sweep", Kind::Angle)],
        gives: Kind::Pen,
        about: "An arc round a centre, from where the pen stands, over an angle; positive is clockwise as seen.",
        example: "start(pt(50, 0)).arc_about(pt(0, 0), deg(120)).open()",
        run: |a| {
            let (c, angle) = (a.point(1), a.angle(2));
            draw(a, |pen| pen.arc_about(c, angle))
        },
    },
    Word {
        name: "arc_via",
        on: &[Kind::Pen],
        takes: &[("via", Kind::Point), ("end", Kind::Point)],
        gives: Kind::Pen,
        about: "An arc of a circle through a point to an end. Three points on a line give straight sides.",
        example: "start(pt(-40, 0)).arc_via(pt(0, -30), pt(40, 0)).open()",
        run: |a| {
            let (via, end) = (a.point(1), a.point(2));
            draw(a, |pen| pen.arc_via(via, end))
        },
    },
    Word {
        name: "bow",
        on: &[Kind::Pen],
        takes: &[("end", Kind::Point), ("rise", Kind::Number)],
        gives: Kind::Pen,
        about: "An arc to an end whose middle rises over the chord: to the left as travelled when positive, so from left to right over the top.",
        example: "start(pt(-40, 0)).bow(pt(40, 0), 20).open()",
        run: |a| {
            let (end, rise) = (a.point(1), a.number(2));
            draw(a, |pen| pen.bow(end, rise))
        },
    },
    Word {
        name: "arc_on",
        on: &[Kind::Pen],
        takes: &[("end", Kind::Point)],
        gives: Kind::Pen,
        about: "An arc to an end that leaves along the present heading, so that it joins smoothly.",
        example: "start(pt(0, 0)).line(pt(40, 0)).arc_on(pt(40, 30)).open()",
        run: |a| {
            let end = a.point(1);
            draw(a, |pen| pen.arc_on(end))
        },
    },
    Word {
        name: "fillet",
        on: &[Kind::Pen],
        takes: &[("corner", Kind::Point), ("end", Kind::Point), ("radius", Kind::Number)],
        gives: Kind::Pen,
        about: "A rounded corner on the way to an end. A radius that does not fit shrinks until it does.",
        example: "start(pt(0, 0)).fillet(pt(40, 0), pt(40, 30), 12).open()",
        run: |a| {
            let (corner, end, radius) = (a.point(1), a.point(2), a.number(3));
            draw(a, |pen| pen.fillet(corner, end, radius))
        },
    },
    Word {
        name: "arc_radii",
        on: &[Kind::Pen],
        takes: &[("end", Kind::Point), ("radii", Kind::Point), ("tilt", Kind::Angle), ("way", Kind::Text)],
        gives: Kind::Pen,
        about: "An arc of an ellipse to an end, by its radii, the direction of the first, and its way: `short clockwise`, `short anticlockwise`, `long clockwise` or `long anticlockwise`.",
        example: r##"start(pt(0, 0)).arc_radii(pt(40, 20), [30, 20], deg(0), "long clockwise").open()"##,
        run: |a| {
            let (end, radii, tilt) = (a.point(1), a.point(2), a.angle(3));
            let way = Given::<ArcWay>::from(a.text(4).as_str()).resolve("arc_radii")?;
            draw(a, |pen| pen.arc_radii(end, radii, tilt, way))
        },
    },
    Word {
        name: "close",
        on: &[Kind::Pen],
        takes: &[],
        gives: Kind::Path,
        about: "Ends the contour with a straight side back to its start, joined there. Do not repeat the first vertex.",
        example: "start(pt(0, 0)).line(pt(40, 0)).line(pt(20, 30)).close()",
        run: |a| path(a.pen().close()),
    },
    Word {
        name: "open",
        on: &[Kind::Pen],
        takes: &[],
        gives: Kind::Path,
        about: "Ends the contour where the pen stands.",
        example: "start(pt(0, 0)).line(pt(40, 0)).line(pt(20, 30)).open()",
        run: |a| path(a.pen().open()),
    },
    Word {
        name: "position",
        on: &[Kind::Pen],
        takes: &[],
        gives: Kind::Point,
        about: "Where the pen stands.",
        example: "start(pt(3, 4)).line_by([10, 0]).position()",
        run: |a| Ok(Dynamic::from(a.pen().position())),
    },
    Word {
        name: "direction",
        on: &[Kind::Pen],
        takes: &[],
        gives: Kind::Angle,
        about: "The direction in which the pen is heading.",
        example: "start(pt(0, 0)).line(pt(0, 9)).direction()",
        run: |a| Ok(Dynamic::from(a.pen().direction())),
    },
];

/// A pen as a script holds it, unless something went wrong in its making.
fn pen(pen: Pen) -> Result<Dynamic, Refusal> {
    pen.sound()?;
    Ok(Dynamic::from(Builder::new(pen)))
}

/// A path as a script holds it, unless something went wrong in its making.
pub(super) fn path(path: Path) -> Result<Dynamic, Refusal> {
    path.sound()?;
    Ok(Dynamic::from(path))
}

/// Draws on with the pen that the word is called on.
pub(super) fn draw(a: &mut Args<'_, '_>, on: impl FnOnce(Pen) -> Pen) -> Result<Dynamic, Refusal> {
    let drawn = a.change(|| start(Point::ZERO), on)?;
    if let Some(pen) = drawn.read_lock::<Builder<Pen>>() {
        pen.look(Pen::sound)?;
    }
    Ok(drawn)
}
