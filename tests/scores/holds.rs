//! What places hang on, and drags: the numbers of the script change, and nothing else of its text.

use std::time::Duration;

use chordane::number::{Point, polar, pt, turns};
use chordane::scene::GripKind;
use chordane_score::{Hold, Holds, Limits, Script, Settings};

const LONG: Duration = Duration::from_secs(60);

fn holds(text: &str) -> Holds {
    let script = Script::read("kite.chord", text, Limits::default()).unwrap();
    let mut holds = Holds::new(script, Settings::new()).unwrap();
    assert!(holds.learn(LONG));
    holds
}

/// The place nearest to a point.
fn near(holds: &Holds, at: Point) -> usize {
    let apart = |i: &usize| holds.grips()[*i].at.distance(at);
    (0..holds.grips().len()).min_by(|a, b| apart(a).total_cmp(&apart(b))).unwrap()
}

fn dragged(text: &str, from: Point, to: Point) -> String {
    let holds = holds(text);
    let grip = near(&holds, from);
    let hold = holds.of(grip).into_iter().next().unwrap();
    let dragged = holds.drag(grip, &hold).to(to, 0.5);
    assert_eq!(dragged.held_back, None);
    assert!(dragged.at.distance(to) <= 0.5);
    dragged.text
}

#[test]
fn a_typed_vertex_is_two_numbers() {
    let text = "// sail\nsheet(200, 100)\n    .add(closed([[10, 20], [50.5, -20], [90, 60]])   // three\n    .fill(\"teal\"))";
    let after = dragged(text, pt(50.5, -20.0), pt(58.0, 7.0));
    assert_eq!(after, text.replace("[50.5, -20]", "[58, 7]"));
    let back = dragged(&after, pt(58.0, 7.0), pt(50.5, -20.0));
    assert_eq!(back, text);
}

#[test]
fn numbers_keep_their_style_and_get_decimals_where_they_must() {
    let text = "sheet(200, 100).add(circle(pt(60 - 20, 50), 30).fill(\"teal\"))";
    assert_eq!(dragged(text, pt(40.0, 50.0), pt(65.0, 50.0)), text.replace("60 - 20", "85 - 20"));
    let holds = holds(text);
    let grip = near(&holds, pt(40.0, 50.0));
    // The one that is taken away.
    let away = holds.script().numbers().iter().position(|number| number.value == 20.0).unwrap();
    let up = holds.script().numbers().iter().position(|number| number.value == 50.0).unwrap();
    let hold = holds.of(grip).into_iter().find(|hold| hold.numbers == [away, up]).unwrap();
    let fine = holds.drag(grip, &hold).to(pt(65.25, 50.0), 0.01);
    assert_eq!(fine.text, text.replace("60 - 20", "60 - (-5.25)"));
    assert_eq!(fine.held_back, None);
}

#[test]
fn a_corner_hangs_on_the_radius_and_a_turned_one_on_the_angle_too() {
    let text =
        "sheet(200, 100).add(polygon(pt(60, 50), 6, 30).rotated_about(pt(60, 50), deg(15)).fill(\"teal\"))";
    let holds = holds(text);
    let corner = near(&holds, pt(60.0, 50.0) + polar(turns(-0.25) + turns(15.0 / 360.0), 30.0));
    let by: Vec<Vec<f64>> = holds
        .of(corner)
        .iter()
        .map(|hold| hold.numbers.iter().map(|n| holds.script().numbers()[*n].value).collect())
        .collect();
    // Radius and angle together leave the centre where it is; so does either alone.
    assert_eq!(by[0], [30.0, 15.0]);
    assert!(by[1..3].contains(&vec![30.0]) && by[1..3].contains(&vec![15.0]), "{by:?}");
    let one = Hold { numbers: holds.of(corner)[0].numbers[..1].to_vec(), ..holds.of(corner)[0].clone() };
    let aside = holds.drag(corner, &one).to(pt(95.0, 5.0), 0.5);
    assert_eq!(
        aside.held_back.as_deref(),
        Some("only the number in line 1 moves it, and only along one line")
    );
    // As near as it can come.
    let ray = polar(turns(-0.25) + turns(15.0 / 360.0), 1.0);
    let foot = pt(60.0, 50.0) + ray * (pt(95.0, 5.0) - pt(60.0, 50.0)).dot(ray);
    assert!(aside.at.distance(foot) < 0.5, "{}", aside.at);
}

#[test]
fn what_a_function_places_twice_moves_twice() {
    let text = "fn dart(x) { closed([[x, 10], [x + 20, 10], [x + 10, 40]]) }\nlet page = sheet(200, 100);\npage.add(dart(20).fill(\"teal\"));\npage.add(dart(90).fill(\"gold\"));\npage";
    let holds = holds(text);
    let tip = near(&holds, pt(30.0, 40.0));
    let hold = &holds.of(tip)[0];
    // The numbers of the function move both tips, that of the call the whole of one: three of its corners and its centre.
    let moved = |hold: &Hold| hold.moved.len();
    let values: Vec<f64> = hold.numbers.iter().map(|n| holds.script().numbers()[*n].value).collect();
    assert_eq!((values, moved(hold)), (vec![10.0, 40.0], 4));
    let dragged = holds.drag(tip, hold).to(pt(33.0, 50.0), 0.5);
    assert_eq!(dragged.text, text.replace("[x + 10, 40]", "[x + 13, 50]"));
}

#[test]
fn gradients_and_knobs_are_held_too() {
    let text = "let reach = knob(\"reach\", 40, 10, 90);\nsheet(200, 100).add(rectangle(pt(0, 0), 2 * reach, 20).fill(linear_gradient(pt(0, 0), pt(70, 5)).colours([\"teal\", \"gold\"])))";
    let holds = holds(text);
    let end = holds.grips().iter().position(|grip| grip.kind == GripKind::Gradient { stroke: false, end: 1 });
    let moved = holds.drag(end.unwrap(), &holds.of(end.unwrap())[0]).to(pt(90.0, 9.0), 0.5);
    assert_eq!(moved.text, text.replace("pt(70, 5)", "pt(90, 9)"));
    let corner = near(&holds, pt(80.0, 20.0));
    let knob = holds.script().numbers().iter().position(|number| number.value == 40.0).unwrap();
    let hold = holds.of(corner).into_iter().find(|hold| hold.numbers == [knob]).unwrap();
    assert_eq!(holds.drag(corner, &hold).to(pt(120.0, 20.0), 0.5).text, text.replace("40, 10", "60, 10"));
    // Beyond its range it does not run.
    let beyond = holds.drag(corner, &hold).to(pt(400.0, 20.0), 0.5);
    let why = beyond.held_back.unwrap();
    assert!(why.starts_with("the score fails with the numbers this would need: "), "{why}");
    assert!(beyond.at.x > 120.0 && beyond.at.x <= 180.0, "{}", beyond.at);
}

#[test]
fn nothing_is_held_that_no_number_moves() {
    let holds = holds("let page = sheet(200, 100);\npage.add(circle(pt(PI, PI), PI));\npage");
    let corner = near(&holds, pt(0.0, 0.0));
    assert_eq!(holds.of(corner), []);
    let none = Hold { numbers: Vec::new(), moved: Vec::new() };
    let why = holds.drag(corner, &none).to(pt(5.0, 5.0), 0.5).held_back;
    assert_eq!(why.as_deref(), Some("no number of the score moves it"));
}

#[test]
fn a_dragged_place_gets_the_fewest_decimals_that_bring_it_there() {
    let text = "sheet(200, 100).add(closed([[10.25, 20.125], [50, 20], [90, 60]]).fill(\"teal\"))";
    // Half a pixel off the whole numbers, more, and much nearer than half a pixel can tell.
    for (to, within, written) in [
        (pt(30.2, 40.1), 0.5, "[30, 40]"),
        (pt(30.4, 40.4), 0.5, "[30.4, 40.4]"),
        (pt(30.4, 40.4), 1.0, "[30, 40]"),
        (pt(31.26, 39.74), 0.02, "[31.26, 39.74]"),
        (pt(131.0, 39.0), 4.0, "[131, 39]"),
    ] {
        let holds = holds(text);
        let grip = near(&holds, pt(10.25, 20.125));
        let dragged = holds.drag(grip, &holds.of(grip)[0]).to(to, within);
        assert_eq!(dragged.text, text.replace("[10.25, 20.125]", written), "{to} within {within}");
        assert!(dragged.at.distance(to) <= within);
    }
}

#[test]
fn the_centre_of_typed_vertices_carries_them_all() {
    let text = "sheet(200, 100).add(start([10, 20.5]).line([50, 20]).cubic([70, 30], [70, 50], [60, 60]).close().fill(\"teal\"))";
    let holds = holds(text);
    let centre = holds.grips().iter().position(|grip| grip.kind == GripKind::Centre).unwrap();
    let hold = &holds.of(centre)[0];
    assert_eq!(hold.numbers.len(), 10);
    let from = holds.grips()[centre].at;
    let dragged = holds.drag(centre, hold).to(from + pt(7.1, -3.9), 0.5);
    assert_eq!(dragged.held_back, None);
    let after = "start([17, 16.5]).line([57, 16]).cubic([77, 26], [77, 46], [67, 56])";
    assert_eq!(dragged.text, format!("sheet(200, 100).add({after}.close().fill(\"teal\"))"));
    // Turned and with a number that two vertices share.
    let text = "let top = 20;\nsheet(200, 200).add(closed([[10, top], [50, top], [30, 60]]).rotated(deg(30)).fill(\"teal\"))";
    let holds = self::holds(text);
    let centre = holds.grips().iter().position(|grip| grip.kind == GripKind::Centre).unwrap();
    let hold = &holds.of(centre)[0];
    assert_eq!(hold.numbers.len(), 5);
    let before: Vec<Point> = holds.grips().iter().map(|grip| grip.at).collect();
    let dragged = holds.drag(centre, hold).to(before[centre] + pt(20.0, 5.0), 0.05);
    assert_eq!(dragged.held_back, None);
    for (grip, was) in self::holds(&dragged.text).grips().iter().zip(&before) {
        assert!((grip.at - *was).distance(pt(20.0, 5.0)) < 0.1, "{:?} {} {was}", grip.kind, grip.at);
    }
}

#[test]
fn numbers_that_count_come_last_and_stay_whole() {
    let text = "let lobes = 8;\nlet ring = (0..lobes).map(|i| polar(turns(i / 8), 40));\nsheet(200, 200).centred().add(closed(ring).fill(\"teal\"))";
    let holds = holds(text);
    let counting: Vec<f64> =
        holds.script().numbers().iter().filter(|number| number.counts).map(|number| number.value).collect();
    assert_eq!(counting, [8.0, 8.0]);
    let divisor = holds.script().numbers().iter().rposition(|number| number.counts).unwrap();
    let corner = near(&holds, polar(turns(0.25), 40.0));
    let of = holds.of(corner);
    let first = of.iter().position(|hold| hold.numbers.contains(&divisor)).unwrap();
    assert!(of[..first].iter().all(|hold| !hold.numbers.contains(&divisor)) && first > 0);
    assert!(of[first..].iter().all(|hold| hold.numbers.contains(&divisor)));
    let alone = of.iter().find(|hold| hold.numbers == [divisor]).unwrap();
    let to = polar(turns(0.4), 40.0);
    let dragged = holds.drag(corner, alone).to(to, 0.5);
    let value = dragged.values[0].1;
    assert!(value.fract() == 0.0 && value < 8.0, "{value}");
    assert!(dragged.text.contains(&format!("turns(i / {value})")), "{}", dragged.text);
    // A name that is divided by counts too.
    let named = "let lobes = 6;\nlet wide = 6;\nsheet(9, 9).add(polygon(pt(4, 4), 5, wide / lobes))";
    let script = Script::read("ring.chord", named, Limits::default()).unwrap();
    let counts: Vec<bool> = script.numbers().iter().map(|number| number.counts).collect();
    assert_eq!(counts[..2], [true, false]);
}
