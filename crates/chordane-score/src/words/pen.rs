//! Words for the pen.

use chordane::prelude::*;

use super::entry::{Section, Word, word};
use crate::call::Call;
use crate::call_error::CallError;
use crate::values::Builder;

pub(super) fn section() -> Section {
    Section {
        title: "The pen",
        about: "A pen is a builder: every call draws on and gives the pen back, so `pen.line(p)` alone is enough in a loop. `close()` and `open()` make a path of it.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            "start(point)",
            "Sets a pen down at a point, to begin a path. It heads along +x.",
            "start(pt(0, 0)).line([40, 0]).line([20, 30]).close()",
            |point: Point| start(point),
        ),
        word(
            ".start(point)",
            "A pen that begins the next contour of a path.",
            "circle(pt(0, 0), 9).start(pt(20, 0)).line(pt(30, 0)).open()",
            |path: Path, point: Point| path.start(point),
        ),
        word(
            ".start(point)",
            "Ends the contour open and begins the next one of the same path.",
            "start(pt(0, 0)).line(pt(9, 0)).start(pt(0, 5)).line(pt(9, 5)).open()",
            |pen: Builder<Pen>, point: Point| pen.draw(|pen| pen.start(point)),
        ),
        word(
            ".line(to)",
            "A straight side to a point.",
            "start(pt(0, 0)).line(pt(40, 0)).open()",
            |pen: Builder<Pen>, to: Point| pen.draw(|pen| pen.line(to)),
        ),
        word(
            ".line_by(step)",
            "A straight side by a step from where the pen stands.",
            "start(pt(5, 5)).line_by([40, 0]).line_by([0, 10]).open()",
            |pen: Builder<Pen>, step: Point| pen.draw(|pen| pen.line_by(step)),
        ),
        word(
            ".ray(angle, distance)",
            "A straight side in the direction of an angle on the sheet, however the pen is heading.",
            "start(pt(0, 0)).ray(deg(30), 80).open()",
            |pen: Builder<Pen>, angle: Angle, distance: f64| pen.draw(|pen| pen.ray(angle, distance)),
        ),
        word(
            ".turn(by)",
            "Turns the heading, clockwise as seen; draws nothing.",
            "start(pt(0, 0)).ahead(10).turn(deg(90)).ahead(10).open()",
            |pen: Builder<Pen>, by: Angle| pen.draw(|pen| pen.turn(by)),
        ),
        word(
            ".heading(to)",
            "Sets the heading to an angle on the sheet; draws nothing.",
            "start(pt(0, 0)).heading(deg(-90)).ahead(50).open()",
            |pen: Builder<Pen>, to: Angle| pen.draw(|pen| pen.heading(to)),
        ),
        word(
            ".step_by(ahead, aside)",
            "A straight side so far ahead and so far to the right of the heading, which stays as it is.",
            "start(pt(0, 0)).step_by(30, 10).step_by(30, -10).open()",
            |pen: Builder<Pen>, ahead: f64, aside: f64| pen.draw(|pen| pen.step_by(ahead, aside)),
        ),
        word(
            ".ahead(distance)",
            "A straight side along the heading, which is the direction in which the last segment arrived.",
            r##"let pen = start(pt(0, 0));
for i in 0..5 { pen.ahead(40).turn(deg(144)); }
pen.close()"##,
            |pen: Builder<Pen>, distance: f64| pen.draw(|pen| pen.ahead(distance)),
        ),
        word(
            ".quad(control, to)",
            "A quadratic curve: toward the control point, then to the end.",
            "start(pt(0, 0)).quad(pt(20, -30), pt(40, 0)).open()",
            |pen: Builder<Pen>, control: Point, to: Point| pen.draw(|pen| pen.quad(control, to)),
        ),
        word(
            ".cubic(control1, control2, to)",
            "A cubic curve: leaving toward the first control point, arriving from the second.",
            "start(pt(0, 0)).cubic(pt(0, 30), pt(40, -30), pt(40, 0)).open()",
            |pen: Builder<Pen>, control1: Point, control2: Point, to: Point| {
                pen.draw(|pen| pen.cubic(control1, control2, to))
            },
        ),
        word(
            ".arc_about(centre, sweep)",
            "An arc round a centre, from where the pen stands, over an angle; positive is clockwise as seen.",
            "start(pt(50, 0)).arc_about(pt(0, 0), deg(120)).open()",
            |pen: Builder<Pen>, centre: Point, sweep: Angle| pen.draw(|pen| pen.arc_about(centre, sweep)),
        ),
        word(
            ".arc_via(via, end)",
            "An arc of a circle through a point to an end. Three points on a line give straight sides.",
            "start(pt(-40, 0)).arc_via(pt(0, -30), pt(40, 0)).open()",
            |pen: Builder<Pen>, via: Point, end: Point| pen.draw(|pen| pen.arc_via(via, end)),
        ),
        word(
            ".bow(end, rise)",
            "An arc to an end whose middle rises over the chord: to the left as travelled when positive, so from left to right over the top.",
            "start(pt(-40, 0)).bow(pt(40, 0), 20).open()",
            |pen: Builder<Pen>, end: Point, rise: f64| pen.draw(|pen| pen.bow(end, rise)),
        ),
        word(
            ".arc_on(end)",
            "An arc to an end that leaves along the present heading, so that it joins smoothly.",
            "start(pt(0, 0)).line(pt(40, 0)).arc_on(pt(40, 30)).open()",
            |pen: Builder<Pen>, end: Point| pen.draw(|pen| pen.arc_on(end)),
        ),
        word(
            ".fillet(corner, end, radius)",
            "A rounded corner on the way to an end. A radius that does not fit shrinks until it does.",
            "start(pt(0, 0)).fillet(pt(40, 0), pt(40, 30), 12).open()",
            |pen: Builder<Pen>, corner: Point, end: Point, radius: f64| {
                pen.draw(|pen| pen.fillet(corner, end, radius))
            },
        ),
        word(
            ".arc_radii(end, radii, tilt, way)",
            "An arc of an ellipse to an end, by its radii, the direction of the first, and its way: `short clockwise`, `short anticlockwise`, `long clockwise` or `long anticlockwise`.",
            r##"start(pt(0, 0)).arc_radii(pt(40, 20), [30, 20], deg(0), "long clockwise").open()"##,
            |call: &Call<'_>, pen: Builder<Pen>, end: Point, radii: Point, tilt: Angle, way: String| {
                let way = call.choice::<ArcWay>(&way)?;
                Ok::<_, CallError>(pen.draw(|pen| pen.arc_radii(end, radii, tilt, way)))
            },
        ),
        word(
            ".close()",
            "Ends the contour with a straight side back to its start, joined there. Do not repeat the first vertex.",
            "start(pt(0, 0)).line(pt(40, 0)).line(pt(20, 30)).close()",
            |pen: Pen| pen.close(),
        ),
        word(
            ".open()",
            "Ends the contour where the pen stands.",
            "start(pt(0, 0)).line(pt(40, 0)).line(pt(20, 30)).open()",
            |pen: Pen| pen.open(),
        ),
        word(
            ".position()",
            "Where the pen stands.",
            "start(pt(3, 4)).line_by([10, 0]).position()",
            |pen: Pen| pen.position(),
        ),
        word(
            ".direction()",
            "The direction in which the pen is heading.",
            "start(pt(0, 0)).line(pt(0, 9)).direction()",
            |pen: Pen| pen.direction(),
        ),
    ]
}
