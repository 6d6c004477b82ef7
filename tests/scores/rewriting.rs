//! Scores rewritten: knobs and seeds where they are declared, findings mended, vertices put in and taken out. All else of the text stays.

use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::time::{Duration, Instant};

use chordane::chance::Dice;
use chordane::check::Finding;
use chordane::ground::{Budget, Stopped};
use chordane::number::{Point, pt};
use chordane_score::{Holds, Limits, Runner, Score, Script, Settings, Stage, mended};

const LONG: Duration = Duration::from_secs(60);

fn script(text: &str) -> Script {
    Script::read("kite.chord", text, Limits::default()).unwrap()
}

fn with_knobs(text: &str, set: &[(&str, &str)]) -> String {
    let settings = set.iter().fold(Settings::new(), |settings, (name, value)| settings.set(*name, *value));
    let mut stage = Stage::new(settings);
    let script = script(text);
    script.perform(&mut stage).unwrap();
    script.with_knobs(stage.knobs())
}

const KNOBS: &str = r##"// knob("sag", 9) is only told of here
let sag = knob("sag", 0.30, 0, 1); /* and here: knob("tail", "plain") */
let tail = knob( "tail" , "bows", ["bows", "plain"] );
let dots = knob("dots", true);
let cloth = knob("cloth", "#c8553d");
let vent = knob("vent", pt(0, -20 * 1));
let hem = knob("hem", [4, 5.5]);
let told = "knob(\"sag\", 7, 0, 9)";
let page = sheet(400, 300).centred().ground("#f4efe6");
if dots { page.add(circle(vent, 9 + 20 * sag).fill(cloth)); }
page.add(circle(hem, if tail == "bows" { 5 } else { 9 }).fill("teal"))
"##;

#[test]
fn knobs_of_every_kind_are_written_where_they_are_declared() {
    let set = [
        ("sag", "0.725"),
        ("tail", "plain"),
        ("dots", "off"),
        ("cloth", "teal"),
        ("vent", "12,-7.5"),
        ("hem", "1,2"),
    ];
    let wanted = KNOBS
        .replace("knob(\"sag\", 0.30, 0, 1)", "knob(\"sag\", 0.725, 0, 1)")
        .replace("\"tail\" , \"bows\"", "\"tail\" , \"plain\"")
        .replace("\"dots\", true", "\"dots\", false")
        .replace("\"cloth\", \"#c8553d\"", "\"cloth\", \"teal\"")
        .replace("\"vent\", pt(0, -20 * 1)", "\"vent\", pt(12, -7.5)")
        .replace("\"hem\", [4, 5.5]", "\"hem\", [1, 2]");
    assert_eq!(with_knobs(KNOBS, &set), wanted);
    assert_eq!(with_knobs(KNOBS, &[]), KNOBS);
    assert_eq!(with_knobs(KNOBS, &[("sag", "0.5")]), KNOBS.replace("0.30", "0.50"));
}

#[test]
fn declarations_within_declarations_are_written_over_as_one() {
    let nested = "let a = knob(\"a\", knob(\"b\", 2, 0, 5), 0, 9);\nseed(seed(3));\nsheet(9, 9)";
    assert_eq!(with_knobs(nested, &[("b", "4")]), nested.replace("2, 0", "4, 0"));
    assert_eq!(with_knobs(nested, &[("a", "7"), ("b", "4")]), nested.replace("knob(\"b\", 2, 0, 5)", "7"));
    assert_eq!(script(nested).with_seed(12), nested.replace("seed(3)", "12"));
    assert_eq!(
        script(nested).without_knob("a"),
        nested.replace("knob(\"a\", knob(\"b\", 2, 0, 5), 0, 9)", "knob(\"b\", 2, 0, 5)")
    );
    // A switch is on by any of its texts, and texts are written as the score reads them.
    let told = "let dots = knob(\"dots\", false);\nlet way = knob(\"way\", \"a\", [\"a\", \"b\\n\\\"c\\\"\"]);\nsheet(9, 9)";
    assert_eq!(with_knobs(told, &[("dots", "yes")]), told.replace("false", "true"));
    assert_eq!(with_knobs(told, &[("way", "b\n\"c\"")]), told.replace("\"a\", [", "\"b\\n\\\"c\\\"\", ["));
}

#[test]
fn numbers_are_known_however_they_are_written() {
    let text = "let a = [3., -4.5, 1_000, 2.5e1, 0..7, 8.abs()]; sheet(9., 9)";
    let script = script(text);
    let values: Vec<f64> = script.numbers().iter().map(|number| number.value).collect();
    assert_eq!(values, [3.0, -4.5, 1000.0, 25.0, 0.0, 7.0, 8.0, 9.0, 9.0]);
    let changed: Vec<(usize, f64)> = values.iter().enumerate().map(|(at, value)| (at, value + 1.0)).collect();
    let after = script.with_numbers(&changed);
    assert_eq!(after, "let a = [4, -3.5, 1001, 26, 1..8, 9.abs()]; sheet(10, 10)");
}

/// Whatever knobs are set to: written into the score they draw the same.
#[test]
fn kept_knobs_draw_the_same() {
    let mut dice = Dice::new(17, "knobs");
    for _ in 0..60 {
        let colours = ["#123456", "teal", "rgb(1 2 3 / 50%)"];
        let set = [
            ("sag", dice.between(0.0, 1.0).to_string()),
            ("tail", (*dice.pick(&["bows", "plain"]).unwrap()).to_owned()),
            ("dots", (*dice.pick(&["on", "off"]).unwrap()).to_owned()),
            ("cloth", (*dice.pick(&colours).unwrap()).to_owned()),
            ("vent", format!("{},{}", dice.between(-90.0, 90.0), dice.whole(-9, 9))),
        ];
        let set: Vec<(&str, &str)> = set.iter().map(|(name, value)| (*name, value.as_str())).collect();
        let settings =
            set.iter().fold(Settings::new(), |settings, (name, value)| settings.set(*name, *value));
        let shown = Runner::new(script(KNOBS)).run(&settings).into_sheet().unwrap();
        let kept = with_knobs(KNOBS, &set);
        let drawn = script(&kept).sheet().unwrap();
        // Nine decimals are written.
        let near = |a: Point, b: Point| a.distance(b) < 1e-7;
        for (a, b) in shown.items().zip(drawn.items()) {
            assert_eq!(a.item.style(), b.item.style(), "{kept}");
            let (a, b) = (a.path().bounds().unwrap(), b.path().bounds().unwrap());
            assert!(near(a.min, b.min) && near(a.max, b.max), "{kept}");
        }
        assert_eq!(shown.items().len(), drawn.items().len());
    }
}

#[test]
fn a_seed_is_kept_in_the_score() {
    let text = "// pebbles\nlet at = dice(\"pebbles\");\nsheet(90, 60).add(circle([at.between(9, 80), 30], 9).fill(\"teal\"))";
    let seven = Runner::new(script(text)).run(&Settings::new().seed(7));
    let kept = script(text).with_seed(7);
    assert_eq!(kept, format!("seed(7);\n{text}"));
    let run = Runner::new(script(&kept)).run(&Settings::new());
    assert_eq!(run.seed(), 7);
    assert!(run.rolls() && !Runner::new(script("sheet(9, 9)")).run(&Settings::new().seed(7)).rolls());
    assert_eq!(run.sheet().unwrap().svg(), seven.sheet().unwrap().svg());
    assert_eq!(script(&kept).with_seed(12), format!("seed(12);\n{text}"));
    // One that is asked for goes before it.
    assert_eq!(Runner::new(script(&kept)).run(&Settings::new().seed(3)).seed(), 3);
    let refused = script("seed(1.5);\nsheet(9, 9)").sheet().unwrap_err();
    assert_eq!(refused.to_string(), "the seed must be a whole number from 0 up, got 1.5");
}

fn found(text: &str) -> Vec<Finding> {
    let runner = Runner::new(script(text));
    let run = runner.run(&Settings::new());
    let mut findings = run.sheet().unwrap().check().unwrap().findings;
    findings.extend(runner.knob_findings(&run));
    findings
}

/// Each by the change that is expected; none of them is found after it.
#[test]
fn findings_are_mended_by_a_change_of_the_text() {
    let drawn =
        |shape: &str, style: &str| format!("let page = sheet(400, 300);\npage.add({shape}{style});\npage");
    let stroke = ".stroke(\"teal\", 4)";
    let fill = ".fill(\"teal\")";
    let cases = [
        (
            "open-outline",
            drawn(
                "start([50, 50]).line([300, 60]).line([200, 250]).open()",
                ".fill(\"gold\").stroke(\"teal\", 4)",
            ),
            (".open()", ".close()"),
        ),
        (
            "open-outline",
            drawn("open([[50, 50], [300, 60], [200, 250]])", ".fill(\"gold\").stroke(\"teal\", 4)"),
            ("open([[", "closed([["),
        ),
        (
            "doubled-end",
            drawn("start([50, 50]).line([300, 60]).line([200, 250]).line([50.01, 50]).close()", stroke),
            (".line([50.01, 50]).close()", ".close()"),
        ),
        (
            "doubled-end",
            drawn("closed([[50, 50], [300, 60], [200, 250], [50.01, 50]])", stroke),
            (", [50.01, 50]])", "])"),
        ),
        (
            "angle-unit",
            drawn("closed((0..7).map(|i| pt(200, 150) + polar(rad(i * 360 / 7), 100)))", fill),
            ("rad(", "deg("),
        ),
        (
            "uneven-ring",
            drawn("closed((0..7).map(|i| pt(200, 150) + polar(deg(i * 51), 100)))", fill),
            ("i * 51", "i * 360 / 7"),
        ),
        ("unpainted", drawn("circle([200, 150], 60)", ""), ("60))", "60).fill(\"#c8553d\"))")),
        (
            "unpainted",
            drawn("open([[50, 50], [300, 60]])", ".fill(\"gold\")"),
            (".fill(\"gold\")", ".stroke(\"#20303c\", 3)"),
        ),
        // A stroke without a width gets one, and nothing is filled.
        (
            "unpainted",
            drawn("circle([200, 150], 60)", ".stroke(\"#20303c\", 0)"),
            ("\"#20303c\", 0)", "\"#20303c\", 3)"),
        ),
        (
            "closed-hole",
            drawn("circle([200, 150], 90).and(circle([200, 150], 40))", fill),
            (".fill(", ".turn_holes().fill("),
        ),
        (
            "unused-knob",
            format!("let sag = knob(\"sag\", 0.3, 0, 1);\n{}", drawn("circle([200, 150], 60)", fill)),
            ("knob(\"sag\", 0.3, 0, 1)", "0.3"),
        ),
    ];
    for (code, text, (from, to)) in cases {
        let all = found(&text);
        let finding = all.iter().find(|finding| finding.code.name() == code);
        let finding = finding.unwrap_or_else(|| panic!("{code} is not found in {text}: {all:?}"));
        let after = mended(&script(&text), &Settings::new(), finding, LONG);
        assert_eq!(after.as_deref(), Some(text.replace(from, to).as_str()), "{code}");
        let left = found(&after.unwrap());
        assert!(left.iter().all(|finding| finding.code.name() != code), "{left:?}");
    }
    // Nothing is known to do here, and there is no time there.
    let far = drawn("circle([900, 150], 60)", fill);
    assert_eq!(mended(&script(&far), &Settings::new(), &found(&far)[0], LONG), None);
    let open = drawn("open([[50, 50], [300, 60], [200, 250]])", ".fill(\"gold\").stroke(\"teal\", 4)");
    assert_eq!(mended(&script(&open), &Settings::new(), &found(&open)[0], Duration::ZERO), None);
}

fn holds(text: &str) -> Holds {
    let mut holds = Holds::new(script(text), Settings::new()).unwrap();
    holds.learn(LONG);
    holds
}

/// Where a vertex is, by where it stands.
fn near(holds: &Holds, at: Point) -> usize {
    let apart = |i: &usize| holds.grips()[*i].at.distance(at);
    (0..holds.grips().len()).min_by(|a, b| apart(a).total_cmp(&apart(b))).unwrap()
}

#[test]
fn vertices_are_put_in_and_taken_out_where_they_are_written() {
    let pen = "sheet(400, 300).add(start([50, 50]).line([300, 60]).soft_line([1, 2]).close().fill(\"teal\"))";
    let pen = &pen.replace(".soft_line([1, 2])", "\n    .line(pt(200, 250)) // low\n    .line([90, 200])");
    let own = holds(pen);
    let without = own.without_vertex(near(&own, pt(200.0, 250.0))).unwrap();
    assert_eq!(without, pen.replace("\n    .line(pt(200, 250))", ""));
    let with = own.with_vertex(near(&own, pt(300.0, 60.0)), pt(310.0, 150.0), 0.1).unwrap();
    assert_eq!(with, pen.replace(".line([300, 60])", ".line([300, 60]).line([310, 150])"));
    let kinds = "sheet(400, 300).add(through([corner([50, 50]), soft([300, 60]), [330, 160], [200, 250]]).close().fill(\"teal\"))";
    let own = holds(kinds);
    let without = own.without_vertex(near(&own, pt(200.0, 250.0))).unwrap();
    assert_eq!(without, kinds.replace(", [200, 250]]", "]"));
    let with = own.with_vertex(near(&own, pt(300.0, 60.0)), pt(290.0, 140.0), 0.1).unwrap();
    assert_eq!(with, kinds.replace("soft([300, 60])", "soft([300, 60]), soft([290, 140])"));
    // Moved: the numbers are those of the place before it is moved.
    let moved = "sheet(400, 300).add(closed([[0, 0], [90, 0], [40, 80]]).moved([100, 50]).fill(\"teal\"))";
    let own = holds(moved);
    let with = own.with_vertex(near(&own, pt(190.0, 50.0)), pt(180.0, 90.0), 0.1).unwrap();
    assert_eq!(with, moved.replace("[90, 0]", "[90, 0], [80, 40]"));
    // Computed ones are written nowhere.
    let own = holds("sheet(400, 300).add(polygon([200, 150], 6, 90).fill(\"teal\"))");
    assert_eq!(own.without_vertex(0), None);
    assert_eq!(own.with_vertex(0, pt(200.0, 40.0), 0.1), None);
}

/// A vertex that is put in and taken out again leaves the text as it was.
#[test]
fn taking_out_undoes_putting_in() {
    let mut dice = Dice::new(23, "vertices");
    for _ in 0..12 {
        let points: Vec<String> = (0..dice.whole(3, 7))
            .map(|i| format!("[{}, {}]", 40 * i + dice.whole(0, 30), dice.whole(20, 280)))
            .collect();
        let text = format!("sheet(400, 300)\n    .add(open([{}]).stroke(\"teal\", 3))", points.join(", "));
        let own = holds(&text);
        let behind = dice.place(points.len()).unwrap();
        let at = pt(dice.between(0.0, 400.0), dice.between(0.0, 300.0));
        let with = own.with_vertex(behind, at, 0.1).unwrap();
        let more = holds(&with);
        assert!(more.grips()[behind + 1].at.distance(at) <= 0.1, "{with}");
        assert_eq!(more.without_vertex(behind + 1).unwrap(), text);
    }
}

/// Whoever asks for a run can call it off.
#[test]
fn a_run_is_called_off_from_outside() {
    let stop = Arc::new(AtomicBool::new(false));
    let asked = Arc::clone(&stop);
    let stopped = || Stopped { advice: "go on".to_owned(), ..Stopped::new("enough of that") };
    let budget = Budget::new(move || asked.load(Ordering::Relaxed).then(stopped));
    let endless = script("let n = 0; loop { n += 1; }");
    let begin = Instant::now();
    std::thread::spawn(move || {
        std::thread::sleep(Duration::from_millis(80));
        stop.store(true, Ordering::Relaxed);
    });
    let mistake = budget.within(|| endless.sheet()).unwrap_err();
    assert_eq!((mistake.to_string().as_str(), mistake.advice()), ("enough of that", Some("go on")));
    assert!(begin.elapsed() < Duration::from_secs(10));
}
