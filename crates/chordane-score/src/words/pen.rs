//! Words for the pen.

use chordane::prelude::*;

use super::entry::{Section, Word, word};
use crate::call::Call;
use crate::call_error::CallError;
use crate::values::Builder;

pub(super) fn section() -> Section {
    Section {
        title: "The pen",
        about: "A pen is a builder: each call continues the path and returns the same pen, so a bare `pen.line(p)` is enough in a loop. `close()` or `open()` finishes the path.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            "start(point)",
            "Puts a pen down at a point to begin a path. Its heading is along +x.",
            "start(pt(0, 0)).line([40, 0]).line([20, 30]).close()",
            |point: Point| start(point),
        ),
        word(
            ".start(point)",
            "Begins another contour of a path and returns the pen for it.",
            "circle(pt(0, 0), 9).start(pt(20, 0)).line(pt(30, 0)).open()",
            |path: Path, point: Point| path.start(point),
        ),
        word(
            ".start(point)",
            "Leaves the current contour open and begins the next contour of the same path.",
            "start(pt(0, 0)).line(pt(9, 0)).start(pt(0, 5)).line(pt(9, 5)).open()",
            |pen: Builder<Pen>, point: Point| pen.draw(|pen| pen.start(point)),
        ),
        word(
            ".line(to)",
            "Draws a straight segment to a point.",
            "start(pt(0, 0)).line(pt(40, 0)).open()",
            |pen: Builder<Pen>, to: Point| pen.draw(|pen| pen.line(to)),
        ),
        word(
            ".line_by(step)",
            "Draws a straight segment to a point relative to the pen's position.",
            "start(pt(5, 5)).line_by([40, 0]).line_by([0, 10]).open()",
            |pen: Builder<Pen>, step: Point| pen.draw(|pen| pen.line_by(step)),
        ),
        word(
            ".ray(angle, distance)",
            "Draws a straight segment at an absolute angle, whatever the pen's heading.",
            "start(pt(0, 0)).ray(deg(30), 80).open()",
            |pen: Builder<Pen>, angle: Angle, distance: f64| pen.draw(|pen| pen.ray(angle, distance)),
        ),
        word(
            ".turn(by)",
            "Turns the heading, clockwise on screen; draws nothing.",
            "start(pt(0, 0)).ahead(10).turn(deg(90)).ahead(10).open()",
            |pen: Builder<Pen>, by: Angle| pen.draw(|pen| pen.turn(by)),
        ),
        word(
            ".heading(to)",
            "Sets the heading to an absolute angle; draws nothing.",
            "start(pt(0, 0)).heading(deg(-90)).ahead(50).open()",
            |pen: Builder<Pen>, to: Angle| pen.draw(|pen| pen.heading(to)),
        ),
        word(
            ".step_by(ahead, aside)",
            "Draws a straight segment to a point that lies `ahead` along the heading and `aside` to its right; the heading does not change.",
            "start(pt(0, 0)).step_by(30, 10).step_by(30, -10).open()",
            |pen: Builder<Pen>, ahead: f64, aside: f64| pen.draw(|pen| pen.step_by(ahead, aside)),
        ),
        word(
            ".ahead(distance)",
            "Draws a straight segment along the heading, which is the end direction of the previous segment.",
            r##"let pen = start(pt(0, 0));
for i in 0..5 { pen.ahead(40).turn(deg(144)); }
pen.close()"##,
            |pen: Builder<Pen>, distance: f64| pen.draw(|pen| pen.ahead(distance)),
        ),
        word(
            ".quad(control, to)",
            "Draws a quadratic curve to a point, with one control point.",
            "start(pt(0, 0)).quad(pt(20, -30), pt(40, 0)).open()",
            |pen: Builder<Pen>, control: Point, to: Point| pen.draw(|pen| pen.quad(control, to)),
        ),
        word(
            ".cubic(control1, control2, to)",
            "Draws a cubic curve to a point; it leaves toward the first control point and arrives from the second.",
            "start(pt(0, 0)).cubic(pt(0, 30), pt(40, -30), pt(40, 0)).open()",
            |pen: Builder<Pen>, control1: Point, control2: Point, to: Point| {
                pen.draw(|pen| pen.cubic(control1, control2, to))
            },
        ),
        word(
            ".arc_about(centre, sweep)",
            "Draws an arc about a centre, from the pen's position, through a sweep angle; a positive sweep is clockwise on screen.",
            "start(pt(50, 0)).arc_about(pt(0, 0), deg(120)).open()",
            |pen: Builder<Pen>, centre: Point, sweep: Angle| pen.draw(|pen| pen.arc_about(centre, sweep)),
        ),
        word(
            ".arc_via(via, end)",
            "Draws a circular arc through a point to an end point. Three collinear points give straight segments.",
            "start(pt(-40, 0)).arc_via(pt(0, -30), pt(40, 0)).open()",
            |pen: Builder<Pen>, via: Point, end: Point| pen.draw(|pen| pen.arc_via(via, end)),
        ),
        word(
            ".bow(end, rise)",
            "Draws a circular arc to an end point, given how far its middle rises above the chord. A positive rise is to the left of the direction of travel, so an arc from left to right curves over the top.",
            "start(pt(-40, 0)).bow(pt(40, 0), 20).open()",
            |pen: Builder<Pen>, end: Point, rise: f64| pen.draw(|pen| pen.bow(end, rise)),
        ),
        word(
            ".arc_on(end)",
            "Draws a circular arc to an end point that starts along the current heading, so it joins smoothly.",
            "start(pt(0, 0)).line(pt(40, 0)).arc_on(pt(40, 30)).open()",
            |pen: Builder<Pen>, end: Point| pen.draw(|pen| pen.arc_on(end)),
        ),
        word(
            ".fillet(corner, end, radius)",
            "Draws to an end point by way of a corner rounded with a radius. A radius that is too large is reduced to fit.",
            "start(pt(0, 0)).fillet(pt(40, 0), pt(40, 30), 12).open()",
            |pen: Builder<Pen>, corner: Point, end: Point, radius: f64| {
                pen.draw(|pen| pen.fillet(corner, end, radius))
            },
        ),
        word(
            ".arc_radii(end, radii, tilt, way)",
            "Draws an elliptical arc to an end point, given its two radii, the angle of the first one, and the direction: `short clockwise`, `short anticlockwise`, `long clockwise` or `long anticlockwise`.",
            r##"start(pt(0, 0)).arc_radii(pt(40, 20), [30, 20], deg(0), "long clockwise").open()"##,
            |call: &Call<'_>, pen: Builder<Pen>, end: Point, radii: Point, tilt: Angle, way: String| {
                let way = call.choice::<ArcWay>(&way)?;
                Ok::<_, CallError>(pen.draw(|pen| pen.arc_radii(end, radii, tilt, way)))
            },
        ),
        word(
            ".close()",
            "Closes the contour with a straight segment back to its start and returns the path. Do not repeat the first vertex.",
            "start(pt(0, 0)).line(pt(40, 0)).line(pt(20, 30)).close()",
            |pen: Pen| pen.close(),
        ),
        word(
            ".open()",
            "Ends the contour at the pen's position, without closing it, and returns the path.",
            "start(pt(0, 0)).line(pt(40, 0)).line(pt(20, 30)).open()",
            |pen: Pen| pen.open(),
        ),
        word(
            ".position()",
            "The pen's position.",
            "start(pt(3, 4)).line_by([10, 0]).position()",
            |pen: Pen| pen.position(),
        ),
        word(
            ".direction()",
            "The pen's heading.",
            "start(pt(0, 0)).line(pt(0, 9)).direction()",
            |pen: Pen| pen.direction(),
        ),
    ]
}
