//! Every word's example in a script, and its twin in Rust, give the same drawing.

use chordane::measure::Crossing;
use chordane::number::Cell;
use chordane::path::Ends;
use chordane::prelude::*;
use chordane_score::{Limits, Runner, Settings, Stage, words};

/// A value that can be drawn: how a script draws what it made, and the same in Rust.
trait Shown {
    const SCRIPT: &'static str;

    fn shown(self) -> Sheet;
}

fn page() -> Sheet {
    sheet(99.0, 99.0)
}

fn dot(at: impl IntoPoint) -> Item {
    circle(at, 1.0).fill("teal")
}

macro_rules! shown {
    ($($type:ty, $script:literal, |$value:ident| $sheet:expr;)*) => {$(
        impl Shown for $type {
            const SCRIPT: &'static str = $script;

            fn shown(self) -> Sheet {
                let $value = self;
                $sheet
            }
        }
    )*};
}

shown! {
    f64, r#"sheet(99, 99).add(circle([made, 0], 1).fill("teal"))"#, |x| page().add(dot((x, 0.0)));
    bool, r#"sheet(99, 99).add(circle([if made { 1 } else { 2 }, 0], 1).fill("teal"))"#,
        |yes| page().add(dot((if yes { 1.0 } else { 2.0 }, 0.0)));
    Point, r#"sheet(99, 99).add(circle(made, 1).fill("teal"))"#, |at| page().add(dot(at));
    Angle, r#"sheet(99, 99).add(circle(polar(made, 30), 1).fill("teal"))"#, |angle| page().add(dot(polar(angle, 30.0)));
    String, r#"sheet(99, 99).add(lettering(made, [0, 0], 9).fill("teal"))"#,
        |text| page().add(lettering(&text, (0.0, 0.0), 9.0).fill("teal"));
    Path, r#"sheet(99, 99).add(made.fill("teal"))"#, |path| page().add(path.fill("teal"));
    Item, "sheet(99, 99).add(made)", |item| page().add(item);
    Group, "sheet(99, 99).add(made)", |group| page().add(group);
    Sheet, "made", |sheet| sheet;
    Colour, r#"sheet(99, 99).add(circle([0, 0], 9).fill(made))"#, |colour| page().add(circle(O, 9.0).fill(colour));
    Vec<Colour>, r#"sheet(99, 99).add_all(made.map(|c| circle([0, 0], 9).fill(c)))"#,
        |all| page().add_all(all.into_iter().map(|colour| circle(O, 9.0).fill(colour)));
    Vec<f64>, r#"sheet(99, 99).add_all(made.map(|x| circle([x, 0], 1).fill("teal")))"#,
        |all| page().add_all(all.into_iter().map(|x| dot((x, 0.0))));
    Vec<Point>, r#"sheet(99, 99).add_all(made.map(|p| circle(p, 1).fill("teal")))"#,
        |all| page().add_all(all.into_iter().map(dot));
    Vec<Path>, r#"sheet(99, 99).add_all(made.map(|p| p.fill("teal")))"#,
        |all| page().add_all(all.into_iter().map(|path| path.fill("teal")));
    Vec<Item>, "sheet(99, 99).add_all(made)", |all| page().add_all(all);
    Cell, r#"sheet(99, 99).add(made.path().fill("teal"))"#, |cell| page().add(cell.path().fill("teal"));
    Vec<Cell>, r#"sheet(99, 99).add_all(made.map(|c| c.path().fill("teal")))"#,
        |all| page().add_all(all.into_iter().map(|cell| cell.path().fill("teal")));
}

/// How a script draws what it made, and the drawing that it has to give.
type Twin = (&'static str, &'static str, Sheet);

fn twin<T: Shown>(word: &'static str, value: T) -> Twin {
    (word, T::SCRIPT, value.shown())
}

const O: (f64, f64) = (0.0, 0.0);

fn bead() -> Item {
    circle(O, 4.0).fill("teal")
}

fn spar() -> Item {
    rectangle((-3.0, -6.0), 6.0, 12.0).fill("teal")
}

fn hoop() -> Path {
    circle(O, 60.0)
}

fn line() -> Path {
    Path::open([O, (90.0, 0.0)])
}

fn wave() -> [(f64, f64); 4] {
    [O, (40.0, 30.0), (80.0, -30.0), (120.0, 0.0)]
}

fn box_200() -> Cell {
    cell(O, 200.0, 100.0)
}

fn leg() -> Triangle {
    Triangle::by_legs(40.0, 30.0).unwrap()
}

fn three() -> Triangle {
    Triangle::by_sides(70.0, 80.0, 90.0).unwrap()
}

fn quarter(degrees: f64) -> Path {
    pie(O, 40.0, deg(0.0), deg(degrees))
}

fn tip() -> Path {
    start(O).line((40.0, 30.0)).tagged("tip").line((0.0, 60.0)).close().shifted("tip", (10.0, 0.0))
}

fn numbers() -> Vec<Twin> {
    vec![
        twin("deg", polar(deg(90.0), 10.0)),
        twin("rad", rad(std::f64::consts::PI / 2.0)),
        twin("turns", turns(0.25)),
        twin("pt", pt(3.0, 4.0).length()),
        twin("polar", pt(100.0, 50.0) + polar(deg(30.0), 80.0)),
        twin("around", around(6).map(|a| polar(a, 80.0)).collect::<Vec<_>>()),
        twin("between", between(deg(-30.0), deg(30.0), 5).map(|a| polar(a, 30.0)).collect::<Vec<_>>()),
        twin("sin", deg(30.0).sin() * 100.0),
        twin("cos", deg(60.0).cos() * 100.0),
        twin("tan", deg(45.0).tan()),
        twin("degrees", turns(0.25).degrees()),
        twin("radians", deg(180.0).radians()),
        twin("turns", deg(180.0).turns()),
        twin("wrapped", deg(370.0).wrapped()),
        twin("length", (pt(9.0, 9.0) - pt(6.0, 5.0)).length()),
        twin("angle", Angle::of(pt(0.0, 10.0))),
        twin("sqrt", 2.0_f64.sqrt()),
        twin("asin", rad(0.5_f64.asin())),
        twin("acos", rad(0.5_f64.acos())),
        twin("atan", Angle::of((40.0, 30.0))),
        twin("atan", rad(1.0_f64.atan())),
        twin("pow", 2.0_f64.powf(0.5)),
        twin("exp", 1.0_f64.exp()),
        twin("log", 10.0_f64.ln()),
        twin("log", 8.0_f64.log(2.0)),
        twin("abs", 3.5),
        twin("min", 2.5),
        twin("max", 3.0),
        twin("clamp", 100.0),
        twin("rescale", rescale(5.0, (0.0, 10.0), (100.0, 300.0))),
        twin("smoothstep", smoothstep(0.0, 10.0, 4.0)),
        twin("floor", 3.0),
        twin("ceil", 4.0),
        twin("round", 3.0),
        twin("golden_places", golden_places(90, 5.0).collect::<Vec<_>>()),
    ]
}

fn colours() -> Vec<Twin> {
    let named = |text: &str| Colour::parse(text).unwrap();
    let (gold, navy, teal) = (named("gold"), named("navy"), named("teal"));
    let loft = [named("#c8553d"), named("#f4efe6"), named("#2f6f73")];
    vec![
        twin("rgb", rgb(200.0, 85.0, 61.0)),
        twin("hsl", around(6).map(|hue| hsl(hue, 60.0, 50.0)).collect::<Vec<_>>()),
        twin("hwb", hwb(deg(20.0), 20.0, 30.0)),
        twin("lab", lab(50.0, 40.0, 30.0)),
        twin("lch", lch(50.0, 60.0, deg(40.0))),
        twin("oklab", oklab(0.6, 0.1, 0.08)),
        twin("oklch", around(12).map(|hue| oklch(0.7, 0.12, hue)).collect::<Vec<_>>()),
        twin("mix", mix(gold, navy, 0.5)),
        twin("mix_in", mix_in("oklch", gold, navy, 0.5).unwrap()),
        twin("palette", palette(&loft, 7).collect::<Vec<_>>()),
        twin("lighter", teal.lighter(0.3)),
        twin("darker", teal.darker(0.3)),
        twin("hue_turned", teal.hue_turned(deg(180.0))),
        twin("faded", teal.faded(0.5)),
        twin("rgb", teal.rgb()[1]),
        twin("hsl", teal.hsl().0),
        twin("hwb", teal.hwb().2),
        twin("lab", teal.lab()[0]),
        twin("lch", teal.lch().1),
        twin("oklab", teal.oklab()[0]),
        twin("oklch", teal.oklch().2),
        twin("alpha", f64::from(named("rgb(200 85 61 / 50%)").alpha)),
        twin("hex", mix(gold, navy, 0.5).hex()),
    ]
}

fn gradients() -> Vec<Twin> {
    let filled = |gradient: Gradient| circle(O, 40.0).fill(gradient);
    let across = || linear_gradient((-40.0, 0.0), (40.0, 0.0));
    let two = ["gold", "teal"];
    vec![
        twin("linear_gradient", filled(linear_gradient((0.0, -40.0), (0.0, 40.0)).colours(two))),
        twin("radial_gradient", filled(radial_gradient(O, 40.0).colours(two))),
        twin("sweep_gradient", filled(sweep_gradient(O, deg(-90.0)).colours(["gold", "teal", "gold"]))),
        twin("colours", filled(across().colours(["gold", "white", "teal"]))),
        twin("stop", filled(across().stop(0.2, "gold").stop(0.6, "teal"))),
        twin("focus", filled(radial_gradient(O, 40.0).colours(["white", "teal"]).focus((-15.0, -15.0)))),
        twin(
            "focus_circle",
            filled(radial_gradient(O, 40.0).colours(["white", "teal"]).focus_circle((-10.0, -10.0), 12.0)),
        ),
        twin("spread", filled(linear_gradient(O, (9.0, 9.0)).colours(two).spread("reflect"))),
        twin("mixed", filled(across().colours(["gold", "navy"]).mixed("oklab"))),
        twin(
            "measured",
            circle((50.0, 50.0), 40.0).fill(linear_gradient(O, (1.0, 1.0)).colours(two).measured("box")),
        ),
        twin("reversed", filled(across().colours(two).reversed())),
        twin("at", linear_gradient(O, (1.0, 0.0)).colours(two).at(0.3)),
    ]
}

fn pens() -> Vec<Twin> {
    let star_of_five = (0..5).fold(start(O), |pen, _| pen.ahead(40.0).turn(deg(144.0))).close();
    let flag = || start(O).line((40.0, 0.0)).line((20.0, 30.0));
    vec![
        twin("start", flag().close()),
        twin("start", circle(O, 9.0).start((20.0, 0.0)).line((30.0, 0.0)).open()),
        twin("start", start(O).line((9.0, 0.0)).start((0.0, 5.0)).line((9.0, 5.0)).open()),
        twin("line", start(O).line((40.0, 0.0)).open()),
        twin("line_by", start((5.0, 5.0)).line_by((40.0, 0.0)).line_by((0.0, 10.0)).open()),
        twin("ray", start(O).ray(deg(30.0), 80.0).open()),
        twin("turn", start(O).ahead(10.0).turn(deg(90.0)).ahead(10.0).open()),
        twin("heading", start(O).heading(deg(-90.0)).ahead(50.0).open()),
        twin("step_by", start(O).step_by(30.0, 10.0).step_by(30.0, -10.0).open()),
        twin("ahead", star_of_five),
        twin("quad", start(O).quad((20.0, -30.0), (40.0, 0.0)).open()),
        twin("cubic", start(O).cubic((0.0, 30.0), (40.0, -30.0), (40.0, 0.0)).open()),
        twin("arc_about", start((50.0, 0.0)).arc_about(O, deg(120.0)).open()),
        twin("arc_via", start((-40.0, 0.0)).arc_via((0.0, -30.0), (40.0, 0.0)).open()),
        twin("bow", start((-40.0, 0.0)).bow((40.0, 0.0), 20.0).open()),
        twin("arc_on", start(O).line((40.0, 0.0)).arc_on((40.0, 30.0)).open()),
        twin("fillet", start(O).fillet((40.0, 0.0), (40.0, 30.0), 12.0).open()),
        twin(
            "arc_radii",
            start(O).arc_radii((40.0, 20.0), (30.0, 20.0), deg(0.0), ArcWay::LongClockwise).open(),
        ),
        twin("close", flag().close()),
        twin("open", flag().open()),
        twin("position", start((3.0, 4.0)).line_by((10.0, 0.0)).position()),
        twin("direction", start(O).line((0.0, 9.0)).direction()),
        twin("through", through(wave()).open()),
        twin("flowing", flowing(wave()).close()),
        twin("soft", through([corner(O), soft((40.0, -30.0)), corner((80.0, 0.0))]).close()),
        twin(
            "corner",
            through([corner(O), corner((40.0, 0.0)), soft((60.0, 30.0)), soft((20.0, 50.0))]).close(),
        ),
        twin(
            "rounded",
            through([rounded(O, 12.0), rounded((60.0, 0.0), 12.0), corner((30.0, 50.0))]).close(),
        ),
        twin("spacing", through(wave()).spacing(Spacing::Chordal).open()),
        twin("tension", through(wave()).tension(0.5).open()),
        twin("held", through(wave()).ends(Ends::Held).open()),
        twin("led", through(wave()).ends(Ends::Led(pt(0.0, -50.0), pt(120.0, -50.0))).open()),
        twin("open", flowing(wave()).open()),
        twin("close", through(wave()).close()),
    ]
}

fn paths() -> Vec<Twin> {
    let belly = |vertices: Vec<Vertex>| through(vertices).close().shifted("belly", (10.0, 0.0));
    let list = |vertices: &[(f64, f64)]| tagged("belly", vertices.to_vec()).into_iter().collect::<Vec<_>>();
    let corner_path = || Path::open([(0.0, 60.0), O, (40.0, 0.0)]);
    let under = |path: Path, nib: Nib| path.nibbed(&nib, 12.0 / 500.0);
    vec![
        twin("closed", Path::closed(around(5).map(|a| polar(a, 40.0)))),
        twin("open", Path::open([O, (20.0, 10.0), (40.0, 0.0)])),
        twin("from_data", Path::from_data("M0-30 40 0 0 60-40 0z").unwrap()),
        twin("data", circle(O, 9.0).data()),
        twin("and", circle(O, 9.0).and(&circle((30.0, 0.0), 9.0))),
        twin("with_hole", polygon(O, 4, 60.0).with_hole(circle((0.0, -15.0), 9.0))),
        twin("close", Path::open([(0.0, 0.0), (40.0, 0.0), (20.0, 30.0)]).close()),
        twin("reversed", circle(O, 9.0).reversed()),
        twin("turn_holes", circle(O, 20.0).and(&circle(O, 9.0)).turn_holes()),
        twin("joined", Path::open([O, (9.0, 0.0)]).and(&Path::open([(9.0, 0.0), (9.0, 9.0)])).joined(0.0)),
        twin("moved", circle(O, 9.0).moved((30.0, 0.0))),
        twin("rotated", polygon(O, 5, 40.0).rotated(deg(36.0))),
        twin("rotated_about", polygon((50.0, 0.0), 5, 40.0).rotated_about((50.0, 0.0), deg(36.0))),
        twin("scaled", circle(O, 9.0).scaled(2.0)),
        twin("snapped", circle((12.3, 4.9), 3.0).snapped(10.0)),
        twin("scaled_about", circle((30.0, 0.0), 10.0).scaled_about((30.0, 0.0), 1.5)),
        twin("scaled_by", star(O, 5, 40.0, 18.0).scaled_by((1.0, -1.0))),
        twin("sheared", rectangle(O, 40.0, 20.0).sheared(deg(15.0), deg(0.0))),
        twin("tagged", tip()),
        twin("tagged", polygon(O, 6, 40.0).tagged("right", [0, 1]).shifted("right", (12.0, 0.0))),
        twin("tagged", belly(vec![soft(O), soft((40.0, 30.0)).tagged("belly"), soft((0.0, 60.0))])),
        twin(
            "tagged",
            belly([vec![soft(O)], list(&[(40.0, 20.0), (40.0, 40.0)]), vec![soft((0.0, 60.0))]].concat()),
        ),
        twin("shifted", tip()),
        twin("replaced", polygon(O, 4, 40.0).replaced(0, (60.0, 0.0))),
        twin("replaced", ring(O, 40.0, 20.0).replaced((1, 2), (-5.0, 0.0))),
        twin("inserted", polygon(O, 4, 40.0).inserted(1, (30.0, 30.0))),
        twin("inserted", ring(O, 40.0, 20.0).inserted((1, 1), (5.0, 5.0))),
        twin("removed", polygon(O, 6, 40.0).removed(2)),
        twin("removed", ring(O, 40.0, 20.0).removed((1, 2))),
        twin("nibbed", under(corner_path(), Nib::new(12.0, 4.0))),
        twin(
            "nibbed",
            under(
                flowing([O, (40.0, 30.0), (80.0, 0.0)]).open(),
                Nib { slant: deg(-40.0), ..Nib::new(12.0, 3.0) },
            ),
        ),
        twin(
            "nibbed",
            under(corner_path(), Nib { cap: Cap::Round, join: Join::Round, ..Nib::new(12.0, 4.0) }),
        ),
    ]
}

fn shapes() -> Vec<Twin> {
    let lettered = lettering("sail 7", O, 9.0).stroke("#20303c", 1.0).cap("round");
    let two = || wheel(60.0, 1.0, deg(0.0)).wheel(18.0, -5.0, deg(0.0));
    let one = || wheel(40.0, 1.0, deg(0.0));
    let inside = || wheels_inside(O, 60.0, 25.0, 20.0);
    vec![
        twin("circle", circle(O, 40.0)),
        twin("ellipse", ellipse(O, 60.0, 25.0)),
        twin("arc", arc(O, 40.0, deg(-90.0), deg(120.0))),
        twin("elliptic_arc", elliptic_arc(O, 60.0, 25.0, deg(-90.0), deg(135.0))),
        twin("squashed_arc", squashed_arc(O, 60.0, 25.0, deg(-90.0), deg(135.0))),
        twin("pie", pie(O, 40.0, deg(-90.0), deg(120.0))),
        twin("chord_cut", chord_cut(O, 40.0, deg(-90.0), deg(120.0))),
        twin("ring", ring(O, 40.0, 28.0)),
        twin("ring_part", ring_part(O, 40.0, 28.0, deg(180.0), deg(180.0))),
        twin("polygon", polygon(O, 6, 50.0)),
        twin("star", star(O, 5, 50.0, 20.0)),
        twin("rectangle", rectangle(O, 80.0, 30.0)),
        twin("rectangle_about", rectangle_about(O, 80.0, 30.0)),
        twin("rounded_rectangle", rounded_rectangle(O, 80.0, 30.0, 8.0)),
        twin("rounded_rectangle", rounded_rectangle(O, 80.0, 30.0, [8.0, 8.0, 0.0, 0.0])),
        twin("polygon_about", polygon_about(O, 6, 50.0)),
        twin("polygon_of_side", polygon_of_side(O, 6, 40.0)),
        twin("rounded_polygon", rounded_polygon(O, 6, 50.0, 8.0)),
        twin("wheel_polygon", wheel_polygon(O, 3, 50.0, 0.5)),
        twin("rounded_star", rounded_star(O, 5, 50.0, 20.0, 4.0, 3.0)),
        twin("star_polygon", star_polygon(O, 7, 3, 50.0)),
        twin("gear", gear(O, 16, 50.0, 42.0)),
        twin("scallop", scallop(O, 12, 44.0, 6.0)),
        twin("blob", blob(O, [40.0, 52.0, 38.0, 47.0, 44.0])),
        twin(
            "band",
            band(start(O).bow((90.0, 0.0), 20.0).open(), start((0.0, 30.0)).line((90.0, 30.0)).open()),
        ),
        twin("rose", rose(O, 5, 1, 50.0)),
        twin("superellipse", superellipse(O, 60.0, 40.0, 4.0)),
        twin("lissajous", lissajous(O, 60.0, 40.0, 3, 2, deg(90.0))),
        twin("spiral", spiral(O, 5.0, 50.0, 4.0)),
        twin("growing_spiral", growing_spiral(O, 3.0, 50.0, 3.0)),
        twin("sided_spiral", sided_spiral(O, 4, 5.0, 50.0, 4.0)),
        twin("cycloid", cycloid(O, 10.0, 10.0, 3.0)),
        twin("plot", plot(-90.0, 90.0, 0.1, |x| 20.0 * rad(x / 20.0).sin())),
        twin("trail", trail(90, |share| polar(turns(share), 40.0)).close()),
        twin("traced_trail", traced_trail(0.1, |share| polar(turns(3.0 * share), 40.0 * share))),
        twin("lettering", lettered),
        twin("lettering_width", lettering_width("sail 7", 9.0)),
        twin("wheel", two().path()),
        twin("wheel", two().wheel(6.0, 13.0, deg(90.0)).path()),
        twin("wheels_inside", inside().path()),
        twin("wheels_outside", wheels_outside(O, 40.0, 16.0, 20.0).path()),
        twin("centre", one().centre((50.0, 50.0)).path()),
        twin("laps", one().wheel(9.0, 7.5, deg(0.0)).laps(0.5).path()),
        twin("closing_laps", f64::from(inside().closing().laps)),
        twin("at", one().at(0.25)),
        twin("points", one().points(12)),
        twin("path", two().path()),
    ]
}

fn reshapes() -> Vec<Twin> {
    let disc = || circle(O, 40.0);
    let level = || start(O).line((90.0, 0.0)).open();
    let four = |r: f64| polygon(O, 4, r);
    let bar = |height: f64| rectangle((0.0, -6.0), 90.0, height);
    let bent_line = || Path::open([O, (60.0, 20.0), (0.0, 50.0)]);
    let points = || Path::open([O, (10.0, 0.2), (20.0, -0.2), (30.0, 0.0)]);
    let wave = || Path::open([(-60.0, 0.0), (60.0, 0.0)]).waved(8.0, 20.0);
    let fine = |x: f64, y: f64| pt(x, y + 12.0 * deg(x * 3.0).sin());
    let taper =
        LineStyle { cap: Cap::Round, join: Join::Round, ..LineStyle::new(14.0) }.tapered(|share| 1.0 - share);
    let big = || star(O, 5, 60.0, 30.0);
    vec![
        twin("waved", disc().waved(4.0, 15.0)),
        twin("rippled", level().rippled(8.0, 10.0)),
        twin("zigzagged", disc().zigzagged(4.0, 12.0)),
        twin("scalloped", four(50.0).scalloped(4.0, 12.0)),
        twin("toothed", disc().toothed(4.0, 12.0)),
        twin("coiled", level().coiled(9.0, 10.0)),
        twin("rounded", polygon(O, 5, 60.0).rounded(15.0)),
        twin("rounded_eased", polygon(O, 5, 60.0).then(Round { eased: true, ..Round::new(15.0) })),
        twin("dashed", disc().dashed([12.0, 6.0])),
        twin("dashed", disc().then(Dash { offset: 4.0, ..Dash::new([12.0, 6.0]) })),
        twin("dashed_fitted", disc().then(Dash { fit: DashFit::Whole, ..Dash::new([12.0, 6.0]) })),
        twin("dashed_to_corners", four(60.0).then(Dash { fit: DashFit::Corners, ..Dash::new([12.0, 6.0]) })),
        twin("trimmed", disc().trimmed(0.1, 0.6)),
        twin("trimmed", disc().then(Trim { offset: 0.9, ..Trim::new(0.0, 0.25) })),
        twin("trimmed_each", ring(O, 40.0, 20.0).then(Trim { each: true, ..Trim::new(0.0, 0.5) })),
        twin("trimmed_at", disc().then(Trim { distances: true, ..Trim::new(20.0, 120.0) })),
        twin("offset", big().offset(8.0)),
        twin("offset", big().then(Offset { join: Join::Round, ..Offset::new(8.0) })),
        twin("offset_both", polygon(O, 6, 50.0).then(Offset { both: true, ..Offset::new(5.0) })),
        twin("outlined", bent_line().outlined(12.0)),
        twin(
            "outlined",
            bent_line().then(LineStyle { cap: Cap::Round, join: Join::Round, ..LineStyle::new(12.0) }),
        ),
        twin("tapered", Path::open([O, (60.0, 20.0), (120.0, 0.0)]).then(taper)),
        twin("shaken", four(50.0).shaken(3.0, 12.0, 7)),
        twin("shaken_jagged", four(50.0).then(Shake { jagged: true, ..Shake::new(3.0, 12.0, 7) })),
        twin("thinned", points().thinned(0.5)),
        twin("curve_fitted", trail(90, |share| polar(turns(share), 40.0)).close().curve_fitted(0.2)),
        twin("subdivided", four(50.0).subdivided(6).shaken(2.0, 9.0, 1)),
        twin("mirrored", quarter(60.0).mirrored(O, deg(90.0))),
        twin("mirrored_beside", quarter(60.0).then(Mirror { beside: true, ..Mirror::new(O, deg(90.0)) })),
        twin("spun", ellipse((40.0, 0.0), 20.0, 6.0).spun(8, O)),
        twin("warped", rectangle((-60.0, -20.0), 120.0, 40.0).warped(0.1, |p| fine(p.x, p.y))),
        twin("bent", bar(12.0).bent(&disc())),
        twin(
            "bent_fitted",
            bar(12.0)
                .toothed(3.0, 10.0)
                .then(Bend { fitted: true, ..Bend::along(disc().trimmed(0.0, 0.75)) }),
        ),
        twin("union", disc().union(rectangle((0.0, -20.0), 80.0, 40.0))),
        twin("intersection", disc().intersection(circle((40.0, 0.0), 40.0))),
        twin("difference", disc().difference(star(O, 5, 30.0, 14.0))),
        twin("xor", disc().xor(circle((40.0, 0.0), 40.0))),
        twin("union_all", union_all([circle(O, 30.0), circle((40.0, 0.0), 30.0), rectangle(O, 40.0, 60.0)])),
        twin("simplified", Path::closed([O, (60.0, 60.0), (60.0, 0.0), (0.0, 60.0)]).simplified()),
        twin("clip_line", wave().clip_line(disc())),
        twin("clip_line_outside", wave().clip_line_outside(disc())),
        twin("morphed", four(50.0).morphed(&star(O, 5, 60.0, 25.0), 0.5)),
    ]
}

fn cells() -> Vec<Twin> {
    let grid = box_200().grid(4, 2).map(|cell| circle(cell.centre(), 20.0)).collect::<Vec<_>>();
    let walked = start(O).ahead(40.0).turn(leg().turns()[2]).ahead(30.0).close();
    vec![
        twin("cell", box_200().at(0.5, 1.0)),
        twin("cell", sheet(640.0, 480.0).cell().centre()),
        twin("part", box_200().at(part(1.0) - 12.0, 0.5)),
        twin("at", box_200().at(0.0, 1.0)),
        twin("centre", box_200().centre()),
        twin("size", box_200().size().x),
        twin("inset", vec![box_200().inset(10.0)]),
        twin("inset", vec![box_200().inset([part(0.1), 10.0.into()])]),
        twin("inset", vec![box_200().inset([10.0.into(), 0.0.into(), 10.0.into(), part(0.5)])]),
        twin("grid", grid),
        twin("split_across", box_200().split_across([part(0.2), 30.0.into()]).collect::<Vec<_>>()),
        twin("split_down", box_200().split_down([part(0.5)]).collect::<Vec<_>>()),
        twin("path", box_200().inset(10.0).path()),
        twin("rounded", box_200().rounded(12.0)),
        twin("rounded", box_200().rounded([40.0, 0.0, 40.0, 0.0])),
        twin("fitted", star(O, 5, 9.0, 4.0).fitted(&box_200(), Fit::Contain)),
        twin("triangle_by_sides", three().centred(O)),
        twin("triangle_by_two_sides", Triangle::by_two_sides(70.0, 80.0, deg(60.0)).unwrap().area()),
        twin("triangle_by_angles", Triangle::by_angles(deg(50.0), deg(60.0), 90.0).unwrap().sides().to_vec()),
        twin("triangle_by_legs", leg().placed(O, deg(0.0))),
        twin("sides", leg().sides()[2]),
        twin("angles", leg().angles()[0]),
        twin("turns", walked),
        twin("heights", three().heights()[2]),
        twin("vertices", Path::closed(three().vertices())),
        twin("area", leg().area()),
        twin("incircle", circle(three().incentre(), three().inradius())),
        twin("circumcircle", circle(three().circumcentre(), three().circumradius())),
        twin("mirrored", leg().mirrored().path()),
        twin("path", three().path()),
        twin("centred", three().centred((100.0, 100.0))),
        twin("placed", leg().placed((10.0, 10.0), deg(90.0))),
        twin("honeycomb", cell(O, 300.0, 200.0).honeycomb(4, 3).collect::<Vec<_>>()),
        twin("hexagon", cell(O, 52.0, 60.0).hexagon()),
    ]
}

fn measures() -> Vec<Twin> {
    let ten = || circle(O, 10.0);
    let survey = ten().survey().unwrap();
    let whole = survey.length();
    let places = |crossings: Vec<Crossing>| crossings.into_iter().map(|one| one.at).collect::<Vec<_>>();
    let near = survey.station(survey.nearest((30.0, 20.0)).unwrap().distance()).unwrap().point();
    let bow = Path::closed([O, (40.0, 40.0), (40.0, 0.0), (0.0, 40.0)]);
    let thread = Path::open([(-50.0, 0.0), (50.0, 10.0)]);
    let bounds = || star((10.0, 20.0), 5, 50.0, 20.0).bounds().unwrap();
    vec![
        twin("inside", circle(O, 40.0).inside((10.0, 10.0))),
        twin("vertices", Path::closed(circle(O, 40.0).contours()[0].vertices())),
        twin("crosses_itself", star_polygon(O, 5, 2, 40.0).crosses_itself().unwrap()),
        twin("vertex_gap", rectangle(O, 30.0, 8.0).vertex_gap().unwrap().unwrap()),
        twin("signed_area", ten().signed_area()),
        twin("area", ten().and(&circle((5.0, 0.0), 10.0)).area().unwrap()),
        twin("centroid", quarter(90.0).centroid().unwrap().unwrap()),
        twin("length", ten().length().unwrap()),
        twin("section", survey.section(0.25 * whole, 0.5 * whole + 10.0)),
        twin("point_along", survey.station(0.5 * whole).unwrap().point()),
        twin("heading_along", survey.station(0.5 * whole + 5.0).unwrap().heading()),
        twin("nearest_along", near),
        twin("on_stroke", circle(O, 40.0).on_stroke((41.0, 0.0), 4.0).unwrap()),
        twin("crossings", places(bow.crossings().unwrap())),
        twin("crossings_with", places(circle(O, 40.0).crossings_with(&thread).unwrap())),
        twin("centre", bounds().centre()),
        twin("size", bounds().size().x),
        twin("bounds", bounds().inset(-5.0)),
    ]
}

fn styles() -> Vec<Twin> {
    let disc = || circle(O, 20.0);
    let round = || circle(O, 40.0).stroke("teal", 4.0);
    let canvas = style().fill("#c8553d").stroke("#20303c", 3.0);
    vec![
        twin("style", disc().styled(&canvas)),
        twin("styled", polygon(O, 6, 30.0).styled(&style().stroke("#20303c", 1.0))),
        twin("fill", disc().fill("rgb(200 85 61 / 50%)")),
        twin("stroke", disc().stroke("#20303c", 3.0)),
        twin("cap", Path::open([O, (40.0, 0.0)]).stroke("teal", 8.0).cap("round")),
        twin("join", polygon(O, 3, 40.0).stroke("teal", 8.0).join("round")),
        twin("mitre_limit", star(O, 5, 40.0, 12.0).stroke("teal", 4.0).mitre_limit(10.0)),
        twin("dash", round().dash([12.0, 6.0])),
        twin("dash_offset", round().dash([12.0, 6.0]).dash_offset(6.0)),
        twin("opacity", disc().fill("teal").opacity(0.5)),
        twin("fill_rule", disc().and(&circle((15.0, 0.0), 20.0)).fill("teal").fill_rule("evenodd")),
        twin("named", disc().fill("teal").named("vent")),
    ]
}

fn pictures() -> Vec<Twin> {
    let colours = |names: &[&str], columns: u32| {
        let pixels: Vec<[u8; 4]> = names.iter().map(|name| Colour::parse(name).unwrap().to_rgba8()).collect();
        Picture::from_rgba(columns, pixels.len() as u32 / columns, pixels.as_flattened()).unwrap()
    };
    let two = || colours(&["gold", "teal"], 2);
    let four = || colours(&["gold", "teal", "teal", "gold"], 2);
    let on = |paint: Paint| circle(O, 40.0).fill(paint);
    let dots =
        |side: f64, middle: f64| pattern(cell(O, side, side), circle((middle, middle), 3.0).fill("teal"));
    let bars = || pattern(cell(O, 8.0, 8.0), rectangle(O, 8.0, 4.0).fill("teal"));
    let tile = sheet(10.0, 10.0).ground("gold").add(circle((5.0, 5.0), 3.0).fill("teal"));
    let fading = linear_gradient(O, (1.0, 0.0)).colours(["gold", "navy"]);
    vec![
        twin("picture", on(super::support::kite_picture().into())),
        twin("picture", on(four().sampled("nearest").into())),
        twin("fitted", on(two().fitted("stretch").into())),
        twin("sampled", on(two().sampled("nearest").into())),
        twin("over", on(two().over(cell((-60.0, -40.0), 120.0, 80.0)).into())),
        twin("shown_in", four().fitted("contain").shown_in(cell(O, 60.0, 40.0))),
        twin("size", 2.0),
        twin("pattern", on(dots(10.0, 5.0).into())),
        twin("pattern", on(Pattern::of_sheet(&tile).into())),
        twin("moved", on(dots(9.0, 4.0).moved((2.0, 2.0)).into())),
        twin("rotated", on(bars().rotated(deg(30.0)).into())),
        twin("scaled", on(bars().scaled(0.5).into())),
        twin("by_vertex", polygon(O, 5, 40.0).fill(by_vertex(["gold", "teal", "navy", "white", "#c8553d"]))),
        twin("along", spiral(O, 5.0, 40.0, 2.0).stroke(along(fading), 6.0)),
    ]
}

fn layers() -> Vec<Twin> {
    let sail = || polygon(O, 4, 40.0).fill("teal");
    let disc = |radius: f64, colour: &str| circle(O, radius).fill(colour);
    let side = |x: f64, colour: &str| circle((x, 0.0), 20.0).fill(colour);
    let fade = radial_gradient(O, 40.0).colours(["white", "black"]);
    vec![
        twin("clipped", sail().clipped(circle(O, 30.0))),
        twin("masked", sail().masked(circle(O, 40.0).fill(fade))),
        twin("masked_by", sail().masked_by(disc(30.0, "navy"), "alpha")),
        twin("blend", group().add(side(-10.0, "gold")).add(side(10.0, "teal").blend("multiply"))),
        twin("isolated", group().add(disc(20.0, "teal").blend("multiply")).isolated()),
        twin("blurred", disc(20.0, "teal").blurred(4.0)),
        twin("shadow", disc(20.0, "white").shadow((4.0, 6.0), 3.0, "rgb(32 48 60 / 60%)")),
        twin("glow", disc(9.0, "#fff6d8").glow(4.0, "gold").glow(12.0, "#c8553d")),
        twin("order", group().add(disc(9.0, "gold").order(1.0)).add(disc(20.0, "teal"))),
    ]
}

fn stamps() -> Vec<Twin> {
    let every = || Stamp::new(bead()).every(20.0);
    let nine = |item: Item| Stamp::new(item).count(9);
    let big = || circle(O, 8.0);
    let filled = nine(big().into())
        .along_with(line(), |at, item| item.fill(if at.share() < 0.5 { "teal" } else { "#c8553d" }));
    let hoops = around(9).map(|angle| ring(polar(angle, 40.0), 26.0, 18.0).fill("teal").stroke("white", 2.0));
    let shape = Path::closed([(0.0, -4.0), (8.0, 0.0), (0.0, 4.0)]);
    vec![
        twin("stamp", Stamp::new(bead()).every(15.0).along(line())),
        twin("every", Stamp::new(bead()).every(15.0).along(line())),
        twin("count", Stamp::new(bead()).count(7).along(hoop())),
        twin("at", Stamp::new(bead()).at([0.0, 0.1, 0.3, 0.6]).along(hoop())),
        twin("lead_in", every().lead_in(10.0).along(line())),
        twin("drift", every().drift(5.0).along(line())),
        twin("upright", nine(spar()).upright().along(hoop())),
        twin("turned", nine(spar()).turned().along(hoop())),
        twin("bent", nine(rectangle((-15.0, -6.0), 30.0, 12.0).fill("teal")).bent().along(hoop())),
        twin("scale", nine(big().fill("teal")).scale(|at| 1.0 - 0.8 * at.share()).along(line())),
        twin("turn", nine(spar()).turn(|at| turns(at.share())).along(line())),
        twin("skip", nine(bead()).skip(|at| at.number % 3 == 1).along(line())),
        twin("fill", filled),
        twin("along", Stamp::new(bead()).every(15.0).along(line())),
        twin("stamped", hoop().stamped(&shape, 16.0).fill("teal")),
        twin("group", group().add(circle(O, 9.0).fill("teal")).moved((50.0, 50.0))),
        twin("paper", paper(&cell((-160.0, -100.0), 320.0, 200.0), 20.0)),
        twin("ring_of", ring_of(circle(O, 6.0).fill("teal"), 12, 50.0)),
        twin("copies_at", copies_at(circle(O, 2.0).fill("teal"), golden_places(90, 5.0))),
        twin("woven", woven(hoops)),
        twin("linked", linked([-30.0, 0.0, 30.0].map(|x| circle((x, 0.0), 22.0).stroke("teal", 7.0)))),
        twin("add", sheet(100.0, 80.0).add(circle((50.0, 40.0), 30.0).fill("teal"))),
        twin(
            "add_all",
            sheet(200.0, 80.0).add_all([40.0, 100.0, 160.0].map(|x| circle((x, 40.0), 25.0).fill("teal"))),
        ),
        twin("sheet", sheet(640.0, 480.0)),
        twin("sheet", sheet(640.0, 480.0)),
        twin("items_at", vec![circle((30.0, 30.0), 20.0).fill("teal")]),
        twin(
            "grained",
            sheet(90.0, 90.0)
                .ground("#f4efe6")
                .add(polygon((45.0, 45.0), 4, 40.0).fill("teal"))
                .grained(15, 15, false)
                .unwrap(),
        ),
        twin("title", sheet(90.0, 60.0).title("A vent").add(circle((45.0, 30.0), 20.0).fill("teal"))),
        twin(
            "description",
            sheet(90.0, 60.0)
                .description("A round hole in a red sail.")
                .add(circle((45.0, 30.0), 20.0).fill("teal")),
        ),
        twin("centred", sheet(640.0, 480.0).centred()),
        twin("y_up", sheet(640.0, 480.0).y_up()),
        twin("unit", sheet(210.0, 297.0).unit("mm")),
        twin("ground", sheet(640.0, 480.0).ground("#f4efe6")),
        twin("size", sheet(640.0, 480.0).size.x),
    ]
}

fn given() -> Vec<Twin> {
    let mut stage = Stage::new(Settings::new());
    let sag = stage.knob("sag", 0.3, 0.0, 1.0);
    let size = stage.asked_size((640.0, 480.0));
    let dice = |name: &str| Dice::new(0, name);
    let cloths = ["#c8553d", "#2f6f73"];
    let mut order = vec![1.0, 2.0, 3.0, 4.0];
    dice("order").shuffle(&mut order);
    let mut kept = Stage::new(Settings::new());
    kept.seed(7);
    let mut dots = dice("dots");
    let apart = dots.scatter_apart(circle(O, 40.0), 6.0).unwrap();
    let few = dots.take(&apart, 12);
    let patch = dice("patch").keep_if(
        200,
        |dice| Path::closed(dice.scatter(rectangle(O, 90.0, 90.0), 5).unwrap()),
        |patch| !patch.crosses_itself().unwrap() && patch.vertex_gap().unwrap() > Some(20.0),
    );
    vec![
        twin("knob", start(O).quad((50.0, 60.0 * sag), (100.0, 0.0)).open()),
        twin("knob", stage.choice("tail", "bows", &["bows", "plain"])),
        twin("knob", stage.switch("dots", true)),
        twin("knob", circle(O, 20.0).fill(stage.colour("cloth", "#c8553d"))),
        twin("knob", circle(stage.point("vent", (0.0, -20.0)), 9.0)),
        twin("given", circle(O, 20.0).fill("teal")),
        twin("given", [(0.0, 0.0), (30.0, 12.0)].map(|bow| circle(bow, 4.0).fill("teal")).to_vec()),
        twin("given", circle(O, 20.0)),
        twin("asked_size", sheet(size.x, size.y).ground("#f4efe6")),
        twin("dice", stage.dice("tail").between(10.0, 20.0)),
        twin("seed", kept.dice("tail").between(10.0, 20.0)),
        twin("between", dice("tail").between(10.0, 20.0)),
        twin("whole", dice("tail").whole(1, 6) as f64),
        twin("pick", dice("cloth").pick(&cloths).unwrap().to_string()),
        twin("weighted", cloths[dice("cloth").weighted(&[3.0, 1.0]).unwrap()].to_owned()),
        twin("shuffle", order),
        twin("take", dice("order").take(&[1.0, 2.0, 3.0, 4.0], 2)),
        twin("normal", dice("tail").normal(100.0, 15.0)),
        twin("inside", dice("dot").inside(circle(O, 40.0)).unwrap().unwrap()),
        twin("scatter", dice("dots").scatter(circle(O, 40.0), 50).unwrap()),
        twin("scatter_apart", dice("dots").scatter_apart(circle(O, 40.0), 6.0).unwrap()),
        twin("scatter_apart", few),
        twin("wander", dice("gust").wander(0.4)),
        twin("wander", dice("gust").wander_over(0.4, 2.7)),
        twin("wander_loop", dice("gust").wander_loop(0.25, 5.0)),
        twin("keep_if", patch.unwrap()),
    ]
}

fn motion() -> Vec<Twin> {
    let mut stage = Stage::new(super::support::with_kite());
    let (phase, seconds, frame) = (stage.phase(), stage.seconds(), stage.frame());
    let kite = || star(O, 5, 20.0, 9.0);
    let bead = |angle: Angle| {
        circle(polar(angle, 40.0), swing(rounds(phase, 2.0, angle.turns()), 3.0, 9.0)).fill("teal")
    };
    let (gold, navy) = (Colour::parse("gold").unwrap(), Colour::parse("navy").unwrap());
    let back = |top: f64| keys([(0.0, 10.0), (0.5, top), (1.0, 10.0)]);
    let rise = || timeline().then("rise", 1.0);
    let line = || rise().then("turn", 2.0);
    let vents = || timeline().staggered("vent", 5, 2.0, 0.5);
    let vent = |i: usize| circle((20.0 * i as f64, 0.0), 9.0 * vents().share_of("vent", i, phase));
    let rail = ellipse(O, 80.0, 40.0);
    let sail = |small: f64| star(O, 5, 40.0, small);
    vec![
        twin("phase", circle(O, 30.0).fill("teal").moved((swing(phase, -40.0, 40.0), 0.0))),
        twin("seconds", polygon(O, 5, 30.0).rotated(deg(90.0 * seconds))),
        twin("frame", circle(O, 20.0 + frame as f64)),
        twin("pointer", circle(O, 12.0).fill("teal")),
        twin("pointer_down", circle(O, 30.0)),
        twin("rounds", around(5).map(bead).collect::<Vec<_>>()),
        twin("swing", start(O).line((swing(phase, 20.0, 60.0), 40.0)).open()),
        twin("pulse", circle(O, pulse(phase, 20.0, 30.0))),
        twin("saw", polygon(O, 5, 40.0).rotated(saw(phase, deg(0.0), deg(72.0)))),
        twin("hold", circle(O, 30.0).fill(*hold(phase, &["gold", "teal", "#c8553d"]).unwrap())),
        twin("ease", circle((60.0 * ease(phase, "ease-in-out"), 0.0), 9.0)),
        twin("keys", {
            let up = keys([(0.0, 0.0), (0.25, -40.0), (1.0, 0.0)]).stretch(1, "ease-in-out");
            circle((0.0, up.at(phase).unwrap()), 12.0)
        }),
        twin("eased", {
            let turn = keys([(0.0, deg(0.0)), (0.5, deg(40.0)), (1.0, deg(0.0))]);
            turn.eased("ease-in-out").at(0.25).unwrap()
        }),
        twin("stretch", {
            let there = keys([(0.0, 0.0), (0.5, 40.0), (1.0, 0.0)]);
            there.stretch(1, "ease-out").at(0.75).unwrap()
        }),
        twin("looped", keys([(0.0, 10.0), (0.3, 40.0), (0.6, 20.0)]).looped().at(0.9).unwrap()),
        twin("there_and_back", {
            keys([(0.0, 10.0), (1.0, 40.0)]).eased("ease-in").there_and_back().at(0.75).unwrap()
        }),
        twin("repeated", back(40.0).repeated(3.0).at(0.5).unwrap()),
        twin("delayed", back(40.0).delayed(0.2).at(0.5).unwrap()),
        twin("way", keys([(0.0, deg(350.0)), (1.0, deg(10.0))]).way("shorter").at(0.5).unwrap()),
        twin("at", keys([(0.0, gold), (0.5, navy), (1.0, gold)]).at(0.25).unwrap()),
        twin("pose", kite().posed(pose((40.0, 0.0), deg(30.0), 1.5))),
        twin("posed", {
            let still = pose(O, deg(0.0), 1.0);
            kite().posed(keys([(0.0, still), (1.0, pose((60.0, 0.0), deg(72.0), 1.0))]).at(phase).unwrap())
        }),
        twin("timeline", {
            let lifted = polygon((0.0, -40.0 * line().share("rise", phase)), 4, 20.0);
            lifted.rotated(deg(90.0 * line().share("turn", phase)))
        }),
        twin("then", line().share("turn", 0.5)),
        twin("together", rise().together("fade", 2.0).share("fade", 0.5)),
        twin("after", rise().after(0.5, "turn", 2.0).share("turn", 0.5)),
        twin("staggered", (0..5).map(vent).collect::<Vec<_>>()),
        twin("share", ease(line().share("rise", 0.2), "ease-out")),
        twin("share_of", vents().share_of("vent", 3, 0.6)),
        twin("riding", star(O, 5, 12.0, 5.0).riding(&rail, phase)),
        twin("riding_upright", star(O, 5, 12.0, 5.0).riding_upright(&rail, phase)),
        twin("drawn_in", sail(18.0).drawn_in(0.6).stroke("teal", 3.0)),
        twin("drawn_out", sail(18.0).drawn_out(0.6).stroke("teal", 3.0)),
        twin("marching", circle(O, 40.0).stroke("teal", 3.0).dash([9.0, 6.0]).marching(phase)),
    ]
}

/// Every word, a script that draws its example, and the same in Rust.
fn marked() -> Vec<Twin> {
    let marks = super::support::kite_marks();
    let frame = &marks.frames()[0];
    let all = frame.points().map(|(_, at)| circle(at, 4.0).fill("teal")).collect::<Vec<_>>();
    vec![
        twin("mark", circle(frame.at(0).unwrap(), 9.0).fill("teal")),
        twin("mark_numbers", all),
        twin("marks_closed", frame.closed(&[0, 1, 2, 3]).fill("#c8553d")),
        twin("marks_open", frame.open(&[2, 5, 6]).stroke("#20303c", 2.0)),
    ]
}

pub(crate) fn drawn_examples() -> Vec<(&'static words::Word, String, Sheet)> {
    let sections = [
        numbers(),
        pens(),
        paths(),
        shapes(),
        reshapes(),
        cells(),
        measures(),
        styles(),
        colours(),
        gradients(),
        pictures(),
        layers(),
        stamps(),
        given(),
        motion(),
        marked(),
    ];
    let twins = sections.concat();
    let table: Vec<_> = words::all().collect();
    let missing = table.iter().zip(&twins).find(|(word, (name, ..))| word.name != *name);
    assert!(missing.is_none(), "a word without its twin, or a twin in another place: {missing:?}");
    assert_eq!(table.len(), twins.len());
    let drawn = |(word, (_, script, twin)): (&'static words::Word, (_, &'static str, Sheet))| {
        let lists = word.name == "between" && word.on.is_empty();
        let made = if lists { "made.map(|a| polar(a, 30))" } else { "made" };
        let made = if word.name == "inset" { "[made]" } else { made };
        (word, format!("let made = {{ {} }};\nlet made = {made};\n{script}", word.example), twin)
    };
    table
        .into_iter()
        .zip(twins)
        .map(|(word, (name, script, twin))| drawn((word, (name, script, twin))))
        .collect()
}

#[test]
fn every_example_draws_what_its_twin_in_rust_draws() {
    for (word, source, twin) in drawn_examples() {
        let run =
            Runner::read("twin.chord", source, Limits::default()).unwrap().run(&super::support::with_kite());
        let drawn = run.sheet().unwrap_or_else(|mistake| panic!("{}: {mistake:?}", word.form()));
        let text = |sheet: &Sheet| {
            sheet.svg_with(&WriteOptions { decimals: Some(9), ..WriteOptions::default() }).unwrap()
        };
        assert_eq!(text(drawn), text(&twin), "{}", word.form());
    }
}
