//! The words of a score are those of Rust: each draws the very same path, with its arguments in the same order.

use chordane::path::Ends;
use chordane::prelude::*;
use chordane::sheet::Node;
use chordane_score::{Limits, Score, Script};

/// The path that an expression of a score gives.
fn scored(expression: &str) -> Path {
    let source = format!("let made = {{ {expression} }};\nsheet(100, 100).add(made.fill(\"black\"))");
    let script = Script::read("same.chord", source, Limits::default());
    let sheet = script
        .and_then(|script| script.sheet())
        .unwrap_or_else(|mistake| panic!("{expression}: {mistake:?}"));
    let [Node::Item(item)] = sheet.nodes() else { panic!("{expression} is one item") };
    item.path().clone()
}

fn same<const N: usize>(pairs: [(&str, Path); N]) {
    for (expression, path) in pairs {
        path.sound().unwrap();
        assert!(!path.is_empty(), "{expression}");
        assert_eq!(scored(expression).data(), path.data(), "{expression}");
    }
}

#[test]
fn the_pen() {
    let pen = || start((3.0, 4.0));
    same([
        (
            "start([3, 4]).line([40, 0]).line([20, 30]).close()",
            pen().line((40.0, 0.0)).line((20.0, 30.0)).close(),
        ),
        (
            "start([3, 4]).line_by([40, 0]).line_by([0, 9]).open()",
            pen().line_by((40.0, 0.0)).line_by((0.0, 9.0)).open(),
        ),
        ("start([3, 4]).ray(deg(30), 80).open()", pen().ray(deg(30.0), 80.0).open()),
        (
            "start([3, 4]).ahead(9).turn(deg(50)).ahead(7).open()",
            pen().ahead(9.0).turn(deg(50.0)).ahead(7.0).open(),
        ),
        ("start([3, 4]).heading(deg(-60)).ahead(5).open()", pen().heading(deg(-60.0)).ahead(5.0).open()),
        ("start([3, 4]).quad([20, -30], [40, 0]).open()", pen().quad((20.0, -30.0), (40.0, 0.0)).open()),
        (
            "start([3, 4]).cubic([0, 30], [40, -30], [41, 1]).close()",
            pen().cubic((0.0, 30.0), (40.0, -30.0), (41.0, 1.0)).close(),
        ),
        ("start([3, 4]).arc_about([9, 2], deg(120)).open()", pen().arc_about((9.0, 2.0), deg(120.0)).open()),
        ("start([3, 4]).arc_via([0, -30], [40, 0]).open()", pen().arc_via((0.0, -30.0), (40.0, 0.0)).open()),
        ("start([3, 4]).bow([40, 0], 20).open()", pen().bow((40.0, 0.0), 20.0).open()),
        (
            "start([3, 4]).line([40, 0]).arc_on([60, 30]).open()",
            pen().line((40.0, 0.0)).arc_on((60.0, 30.0)).open(),
        ),
        (
            "start([3, 4]).fillet([40, 0], [40, 50], 7).open()",
            pen().fillet((40.0, 0.0), (40.0, 50.0), 7.0).open(),
        ),
        (
            "start([3, 4]).line([9, 9]).start([20, 0]).line([30, 0]).close()",
            pen().line((9.0, 9.0)).start((20.0, 0.0)).line((30.0, 0.0)).close(),
        ),
    ]);
}

#[test]
fn smooth_curves() {
    let points = [(0.0, 0.0), (40.0, 30.0), (80.0, -30.0), (120.0, 9.0)];
    let list = "[[0, 0], [40, 30], [80, -30], [120, 9]]";
    same([
        (&format!("through({list}).open()"), through(points).open()),
        (&format!("through({list}).close()"), through(points).close()),
        (&format!("flowing({list}).close()"), flowing(points).close()),
        (&format!("through({list}).tension(0.4).open()"), through(points).tension(0.4).open()),
        (&format!("through({list}).held().open()"), through(points).ends(Ends::Held).open()),
        (
            &format!("through({list}).led([-9, 5], [130, 0]).open()"),
            through(points).ends(Ends::Led(pt(-9.0, 5.0), pt(130.0, 0.0))).open(),
        ),
        (
            "through([corner([0, 0]), soft([40, -30]), rounded([80, 0], 6), [90, 40]]).close()",
            through([corner((0.0, 0.0)), soft((40.0, -30.0)), rounded((80.0, 0.0), 6.0), soft((90.0, 40.0))])
                .close(),
        ),
    ]);
}

#[test]
fn round_and_straight_shapes() {
    let at = (3.0, 4.0);
    same([
        ("circle([3, 4], 40)", circle(at, 40.0)),
        ("ellipse([3, 4], 40, 25)", ellipse(at, 40.0, 25.0)),
        ("arc([3, 4], 40, deg(-90), deg(120))", arc(at, 40.0, deg(-90.0), deg(120.0))),
        ("pie([3, 4], 40, deg(-90), deg(120))", pie(at, 40.0, deg(-90.0), deg(120.0))),
        ("chord_cut([3, 4], 40, deg(-90), deg(120))", chord_cut(at, 40.0, deg(-90.0), deg(120.0))),
        ("ring([3, 4], 40, 28)", ring(at, 40.0, 28.0)),
        ("ring_part([3, 4], 40, 28, deg(180), deg(70))", ring_part(at, 40.0, 28.0, deg(180.0), deg(70.0))),
        ("polygon([3, 4], 7, 40)", polygon(at, 7, 40.0)),
        ("polygon_about([3, 4], 7, 40)", polygon_about(at, 7, 40.0)),
        ("polygon_of_side([3, 4], 7, 40)", polygon_of_side(at, 7, 40.0)),
        ("rounded_polygon([3, 4], 7, 40, 5)", rounded_polygon(at, 7, 40.0, 5.0)),
        ("wheel_polygon([3, 4], 5, 40, 0.3)", wheel_polygon(at, 5, 40.0, 0.3)),
        ("star([3, 4], 7, 40, 20)", star(at, 7, 40.0, 20.0)),
        ("rounded_star([3, 4], 7, 40, 20, 3, 2)", rounded_star(at, 7, 40.0, 20.0, 3.0, 2.0)),
        ("star_polygon([3, 4], 7, 3, 40)", star_polygon(at, 7, 3, 40.0)),
        ("rectangle([3, 4], 80, 30)", rectangle(at, 80.0, 30.0)),
        ("rounded_rectangle([3, 4], 80, 30, 6)", rounded_rectangle(at, 80.0, 30.0, 6.0)),
        (
            "rounded_rectangle([3, 4], 80, 30, [1, 2, 3, 4])",
            rounded_rectangle(at, 80.0, 30.0, [1.0, 2.0, 3.0, 4.0]),
        ),
        ("gear([3, 4], 16, 50, 42)", gear(at, 16, 50.0, 42.0)),
        ("scallop([3, 4], 11, 50, 6)", scallop(at, 11, 50.0, 6.0)),
        ("blob([3, 4], [40, 52, 38, 47])", blob(at, [40.0, 52.0, 38.0, 47.0])),
    ]);
}

#[test]
fn curves_by_formulas() {
    let at = (3.0, 4.0);
    same([
        ("rose([3, 4], 5, 2, 40)", rose(at, 5, 2, 40.0)),
        ("superellipse([3, 4], 40, 30, 2.5)", superellipse(at, 40.0, 30.0, 2.5)),
        ("lissajous([3, 4], 40, 30, 3, 2, deg(20))", lissajous(at, 40.0, 30.0, 3, 2, deg(20.0))),
        ("spiral([3, 4], 5, 50, 3.5)", spiral(at, 5.0, 50.0, 3.5)),
        ("growing_spiral([3, 4], 5, 50, 3.5)", growing_spiral(at, 5.0, 50.0, 3.5)),
        ("sided_spiral([3, 4], 5, 6, 50, 3.5)", sided_spiral(at, 5, 6.0, 50.0, 3.5)),
        ("cycloid([3, 4], 9, 12, 3)", cycloid(at, 9.0, 12.0, 3.0)),
        ("wheels_inside([3, 4], 60, 25, 20).path()", wheels_inside(at, 60.0, 25.0, 20.0).path()),
        ("wheels_outside([3, 4], 60, 20, 30).path()", wheels_outside(at, 60.0, 20.0, 30.0).path()),
        (
            "wheel(60, 1, deg(10)).wheel(18, -5, deg(20)).centre([3, 4]).path()",
            wheel(60.0, 1.0, deg(10.0)).wheel(18.0, -5.0, deg(20.0)).centre(at).path(),
        ),
        (
            "wheel(40, 1, deg(0)).wheel(9, 7.5, deg(0)).laps(0.5).path()",
            wheel(40.0, 1.0, deg(0.0)).wheel(9.0, 7.5, deg(0.0)).laps(0.5).path(),
        ),
        ("plot(-9, 9, 0.01, |x| x * x / 9)", plot(-9.0, 9.0, 0.01, |x| x * x / 9.0)),
        ("trail(90, |s| pt(s * 10, s * s))", trail(90, |s| pt(s * 10.0, s * s))),
        ("traced_trail(0.01, |s| pt(s * 10, s * s))", traced_trail(0.01, |s| pt(s * 10.0, s * s))),
        (
            "band(start([0, 0]).bow([90, 0], 20).open(), open([[0, 30], [90, 30]]))",
            band(&start((0.0, 0.0)).bow((90.0, 0.0), 20.0).open(), &Path::open([(0.0, 30.0), (90.0, 30.0)])),
        ),
        ("lettering(\"sail 7\", [3, 4], 9)", lettering("sail 7", at, 9.0)),
    ]);
}

#[test]
fn waves_along_a_path() {
    let hoop = circle((0.0, 0.0), 40.0);
    same([
        ("circle([0, 0], 40).waved(4, 12)", hoop.waved(4.0, 12.0)),
        ("circle([0, 0], 40).rippled(4, 12)", hoop.rippled(4.0, 12.0)),
        ("circle([0, 0], 40).zigzagged(4, 12)", hoop.zigzagged(4.0, 12.0)),
        ("circle([0, 0], 40).scalloped(4, 12)", hoop.scalloped(4.0, 12.0)),
        ("circle([0, 0], 40).toothed(4, 12)", hoop.toothed(4.0, 12.0)),
        ("circle([0, 0], 40).coiled(4, 12)", hoop.coiled(4.0, 12.0)),
    ]);
}

#[test]
fn transforms_and_edits() {
    let sail = || Path::closed([(0.0, 0.0), (60.0, 0.0), (0.0, 80.0)]);
    let own = "closed([[0, 0], [60, 0], [0, 80]])";
    let hole = || circle((10.0, 10.0), 4.0);
    same([
        (&format!("{own}.moved([3, 4])"), sail().moved((3.0, 4.0))),
        (&format!("{own}.rotated(deg(30))"), sail().rotated(deg(30.0))),
        (&format!("{own}.rotated_about([9, 2], deg(30))"), sail().rotated_about((9.0, 2.0), deg(30.0))),
        (&format!("{own}.scaled(1.5)"), sail().scaled(1.5)),
        (&format!("{own}.scaled_by([2, -3])"), sail().scaled_by((2.0, -3.0))),
        (&format!("{own}.sheared(deg(20), deg(5))"), sail().sheared(deg(20.0), deg(5.0))),
        (&format!("{own}.reversed()"), sail().reversed()),
        (&format!("{own}.and(circle([10, 10], 4))"), sail().and(&hole())),
        (&format!("{own}.with_hole(circle([10, 10], 4))"), sail().with_hole(hole())),
        (&format!("{own}.and(circle([10, 10], 4)).turn_holes()"), sail().and(&hole()).turn_holes()),
        (&format!("{own}.replaced(1, [70, 5])"), sail().replaced(1, (70.0, 5.0))),
        (&format!("{own}.inserted(1, [30, -5])"), sail().inserted(1, (30.0, -5.0))),
        (&format!("{own}.inserted(1, [30, -5]).removed(0)"), sail().inserted(1, (30.0, -5.0)).removed(0)),
        (
            &format!("{own}.and(circle([10, 10], 4)).replaced(1, 2, [4, 9])"),
            sail().and(&hole()).replaced((1, 2), (4.0, 9.0)),
        ),
        (
            &format!("{own}.tagged(\"tip\", [1, 2]).shifted(\"tip\", [5, -5])"),
            sail().tagged("tip", [1, 2]).shifted("tip", (5.0, -5.0)),
        ),
        (
            "open([[0, 0], [9, 0]]).and(open([[9, 0], [9, 9]])).joined(0.1)",
            Path::open([(0.0, 0.0), (9.0, 0.0)]).and(&Path::open([(9.0, 0.0), (9.0, 9.0)])).joined(0.1),
        ),
    ]);
}

#[test]
fn reshapes_and_combinations() {
    let bow = || start((0.0, 0.0)).bow((80.0, 0.0), 25.0).line((80.0, 40.0)).open();
    let own = "start([0, 0]).bow([80, 0], 25).line([80, 40]).open()";
    let disc = || circle((40.0, 0.0), 20.0);
    same([
        (&format!("{own}.outlined(12)"), bow().then(LineStyle::new(12.0))),
        (
            &format!("{own}.outlined(12, \"square\", \"bevel\")"),
            bow().then(LineStyle { cap: Cap::Square, join: Join::Bevel, ..LineStyle::new(12.0) }),
        ),
        (&format!("{own}.rounded(5)"), bow().then(Round::new(5.0))),
        (&format!("{own}.rounded_eased(5)"), bow().then(Round { eased: true, ..Round::new(5.0) })),
        (&format!("{own}.dashed([9, 4], 3)"), bow().then(Dash { offset: 3.0, ..Dash::new([9.0, 4.0]) })),
        (
            &format!("{own}.dashed_fitted([9, 4])"),
            bow().then(Dash { fit: DashFit::Whole, ..Dash::new([9.0, 4.0]) }),
        ),
        (&format!("{own}.trimmed_at(20, 70)"), bow().then(Trim { distances: true, ..Trim::new(20.0, 70.0) })),
        (&format!("{own}.offset(-6)"), bow().then(Offset::new(-6.0))),
        (&format!("{own}.mirrored([9, 2], deg(30))"), bow().then(Mirror::new((9.0, 2.0), deg(30.0)))),
        (&format!("circle([40, 0], 20).difference({own})"), disc().difference(bow())),
        (&format!("circle([40, 0], 20).intersection({own})"), disc().intersection(bow())),
        (&format!("{own}.clip_line_outside(circle([40, 0], 20))"), bow().clip_line_outside(disc())),
        (&format!("{own}.simplified()"), bow().simplified()),
    ]);
}
