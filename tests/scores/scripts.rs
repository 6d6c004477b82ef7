//! Scripts as people write them: what they draw, and what they are told when something is wrong.

use chordane::sheet::Layered;
use std::time::{Duration, Instant};

use chordane_score::{Limits, Runner, Score, ScoreError, Script, Settings, words};

use crate::memory::megabytes;

fn run(source: &str) -> Result<chordane::sheet::Sheet, ScoreError> {
    Script::read("kite.chord", source, Limits::default())?.sheet()
}

/// What a mistake says, with its place.
fn told(source: &str) -> String {
    told_within(source, Limits::default())
}

fn told_within(source: &str, limits: Limits) -> String {
    let mistake = Script::read("kite.chord", source, limits).and_then(|script| script.sheet()).unwrap_err();
    let place = mistake.line().zip(mistake.column()).map(|(line, column)| format!("{line}:{column} "));
    let advice = mistake.advice().map(|advice| format!(" ({advice})"));
    format!("{}{mistake}{}", place.unwrap_or_default(), advice.unwrap_or_default())
}

fn svg(source: &str) -> String {
    run(source).unwrap_or_else(|mistake| panic!("{mistake:?}")).svg().unwrap()
}

/// The path data of one path that a script makes.
fn data(expression: &str) -> String {
    let svg = svg(&format!("let made = {{ {expression} }};\nsheet(100, 100).add(made.fill(\"black\"))"));
    svg.split(" d=\"").nth(1).and_then(|rest| rest.split('"').next()).unwrap_or_default().to_owned()
}

#[test]
fn every_example_of_the_table_runs_and_gives_what_the_table_says() {
    for word in words::all() {
        let source = format!("let made = {{ {} }};\nprint(type_of(made));\nsheet(9, 9)", word.example);
        let runner = Runner::read("kite.chord", source, Limits::default());
        let made = runner.and_then(|runner| runner.run(&super::support::with_kite()).into_sheet());
        made.unwrap_or_else(|mistake| panic!("{}: {mistake:?}", word.form()));
        assert!(word.example.contains(word.name), "the example of {} shows it", word.form());
    }
}

#[test]
fn the_first_sail_reads_as_in_rust() {
    let svg = svg(r##"
        let sail = start(pt(0, -120)).line(pt(90, -30)).line(pt(0, 120)).line(pt(-90, -30)).close();
        let vent = circle(pt(0, -30), 18);
        sheet(640, 480).centred().ground("#f4efe6")
            .add(sail.with_hole(vent).fill("#c8553d").stroke("#20303c", 3))
    "##);
    assert!(svg.contains("viewBox=\"-320 -240 640 480\""), "{svg}");
    assert!(svg.contains("M0-120 90-30 0 120-90-30Z"), "{svg}");
    assert!(svg.contains("stroke=\"#20303c\" stroke-width=\"3\""), "{svg}");
}

#[test]
fn whole_numbers_and_decimals_mix() {
    assert_eq!(data("open([[1/2, 2], [3.5, 7 / 7]])"), "M.5 2l3-1");
    assert_eq!(
        data("let p = start([0, 0]); for i in 0..6 / 2 { p.line_by([10, i * 0.5]); } p.open()"),
        "M0 0H10L20 .5l10 1"
    );
    assert_eq!(
        data("let n = 2.0; let p = start([0, 0]); for i in 0..n { p.line_by([1, 1]); } p.open()"),
        "M0 0 1 1 2 2"
    );
    assert_eq!(data("start(pt(2 ** 3, 2 ** -1)).line(pt(7 % 4, 2 * pt(1, 2).y)).open()"), "M8 .5 3 4");
    assert_eq!(data("closed(around(4.0).map(|a| pt(50, 50) + polar(a, 10)))"), "M60 50 50 60 40 50 50 40Z");
}

#[test]
fn pens_and_sheets_draw_on_where_they_stand_and_paths_do_not_change() {
    let drawn_on = data("let pen = start([0, 0]); pen.line([9, 0]); pen = pen.line([9, 9]); pen.close()");
    assert_eq!(drawn_on, "M0 0H9V9Z");
    // A copy goes its own way.
    let copied =
        data("let pen = start([0, 0]).line([9, 0]); let other = pen; other.line([9, 9]); pen.close()");
    assert_eq!(copied, "M0 0H9Z");
    let svg = svg(r#"let s = sheet(9, 9); for x in 0..3 { s.add(circle([x, 0], 1).fill("red")); } s"#);
    assert_eq!(svg.matches("<path").count(), 3);
    let moved = data("let a = circle([0, 0], 1); let b = a.moved([5, 0]); a");
    assert_eq!(moved, "M1 0A1 1 0 0 1 0 1 1 1 0 0 1-1 0 1 1 0 0 1 0-1 1 1 0 0 1 1 0Z");
}

#[test]
fn mistakes_show_their_place_and_the_word_that_was_meant() {
    let cases = [
        ("circel([0, 0], 5)", "1:1 there is no word `circel` (did you mean `circle`?)"),
        (
            "let sail = 5;\nsheet(9, 9).add(sial)",
            "2:17 there is nothing called `sial` (did you mean `sail`?)",
        ),
        ("let a = start([0, 0])\n  .lin([5, 5]);", "2:4 there is no word `lin` (did you mean `line`?)"),
        (
            "circle([0, 0])",
            "1:1 `circle` does not fit what it is given: a list (write `circle(centre, radius)`)",
        ),
        (
            "circle(5, 5)",
            "1:1 `circle` wants a point for its centre, and was given the number 5 (write pt(x, y) or [x, y])",
        ),
        (
            "polar(30, 5)",
            "1:1 `polar` wants an angle for its angle, and was given the number 30 (write deg(90), turns(0.25) or rad(PI / 2))",
        ),
        (
            "sin(30)",
            "1:1 `sin` wants an angle for its angle, and was given the number 30 (write deg(90), turns(0.25) or rad(PI / 2))",
        ),
        (
            "start([0, 0]).line([1, 1]).fill(\"red\")",
            "1:28 `fill` is called on a path or an item or a style or a stamp, and this is a pen (a pen or a smooth curve becomes a path by close() or open())",
        ),
        (
            "circle([0, 0], 5).fill(\"tael\")",
            "1:19 `fill`: \"tael\" is not a colour (did you mean \"teal\"?); give a CSS colour such as \"#c8553d\", \"teal\" or \"rgb(200 85 61 / 50%)\"",
        ),
        (
            "let a = 1;\nlet b = circle([0, 0], -5);",
            "2:9 `circle`: the radius -5 is negative; give 0 or more",
        ),
        (
            "open([]).with_hole(circle([0, 0], 5))",
            "1:10 `with_hole`: there is no contour to cut the hole into; make the outline first, then the hole",
        ),
        (
            "start([0, 0])\n  .line([1 / 0, 4])",
            "2:4 `line` at vertex 1: the point (inf, 4) is not finite; give finite numbers",
        ),
        (
            "from_data(\"M0 0 L5\")",
            "1:1 path data, byte 7: a number is missing; give every point its x and y",
        ),
        (
            "let a = ;",
            "1:9 `;` cannot stand here (something is missing before it, or it does not belong here)",
        ),
        (
            "circle([0, 0], 5).fill('teal')",
            "1:24 single quotes (') hold a single character (write texts in double quotes: \"teal\")",
        ),
        ("let a = 1 === 2", "1:11 there is no operator `===` (write ==)"),
        ("var a = 2", "1:1 there is no `var` (write let sail = ..)"),
        (
            "fn f {}",
            "1:6 the function `f` has no brackets behind its name (write fn sail(width) { .. }, or fn sail() { .. } if it takes nothing)",
        ),
        (
            "1 + 2 = 3",
            "1:3 nothing can be assigned to what stands before the `=` (assign to a name; two values are compared with ==)",
        ),
        (
            "for i in 5 { }",
            "1:10 a loop goes over a range or a list, and this is neither (write for i in 0..5, or for one in list)",
        ),
        (
            "let n = 5; for i in n { }",
            "1:21 a loop goes over a range or a list, and this is neither (write for i in 0..5, or for one in list)",
        ),
        ("deg(5) + 3", "1:8 `+` does not work on an angle and a number"),
        (
            "for i in 0..2.5 { }",
            "1:11 a range counts in whole numbers, and 2.5 is not one (round it first: round(..), floor(..) or ceil(..))",
        ),
        (
            "let s = sheet(9, 9);",
            "1:1 the last value of a score is its sheet, and this is nothing (is there a semicolon after it?) (end the score with a sheet: sheet(640, 480).add(..))",
        ),
        (
            "circle([0, 0], 5)",
            "1:1 the last value of a score is its sheet, and this is a path (end the score with a sheet: sheet(640, 480).add(..))",
        ),
        (
            "",
            "1:1 the last value of a score is its sheet, and this is nothing (is there a semicolon after it?) (end the score with a sheet: sheet(640, 480).add(..))",
        ),
        (
            "/* a sail\nsheet(9, 9)",
            "2:1 the last value of a score is its sheet, and this is nothing (a comment that begins with /* is never closed with */) (end the score with a sheet: sheet(640, 480).add(..))",
        ),
        (
            "exit(); sheet(9, 9)",
            "1:1 the last value of a score is its sheet, and this is nothing (exit() ends a score before its sheet) (end the score with a sheet: sheet(640, 480).add(..))",
        ),
        ("sheet(0, 9)", "1:1 `sheet`: the width 0 is not positive; give more than 0"),
        ("sheet(9, 9).unit(\"cm\")", "1:13 `unit`: \"cm\" is not a unit; give \"px\", \"mm\" or \"in\""),
        ("circle([0, 0], 5).stroke(\"red\", -2)", "1:19 `stroke`: the width -2 is negative; give 0 or more"),
        (
            "circle([0, 0], 5).fill(\"red\").opacity(2)",
            "1:31 `opacity`: the opacity 2 is out of range; give 0 to 1",
        ),
        (
            "fn kite(r) { circle([0, 0], 0 - r) }\nkite(5)",
            "1:14 `circle`: the radius -5 is negative; give 0 or more",
        ),
    ];
    for (source, want) in cases {
        assert_eq!(told(source), want, "{source}");
    }
}

#[test]
fn arcs_curves_and_measures_read_as_in_rust() {
    assert_eq!(data("start([0, 0]).fillet([10, 0], [10, 10], 3).open()"), "M0 0H7a3 3 0 0 1 3 3v7");
    assert_eq!(
        data("start([0, 0]).arc_radii([30, 15], [30, 20], deg(0), \"short clockwise\").open()"),
        "M0 0A30 20 0 0 1 30 15"
    );
    assert_eq!(data("through([corner([0, 0]), corner([9, 0]), corner([9, 9])]).close()"), "M0 0H9V9Z");
    assert_eq!(data("through([[0, 0], [9, 3]]).held().tension(0.5).spacing(\"chordal\").open()"), "M0 0 9 3");
    assert_eq!(data("rectangle([0, 0], 10, 10).section(5, 15)"), "M5 0h5V5");
    assert_eq!(
        data("let p = open([[0, 0], [30, 40]]); start(p.point_along(25)).line([p.length(), 0]).open()"),
        "M15 20 50 0"
    );
    assert_eq!(data("circle([0, 0], 9).and(circle([0, 0], 3)).turn_holes()").matches('Z').count(), 2);
    assert!(
        told("through([[0, 0]]).spacing(\"tight\")").contains("\"uniform\", \"centripetal\" or \"chordal\"")
    );
    assert!(told("start([0, 0]).arc_radii([9, 9], [5, 5], deg(0), \"up\")").contains("\"short clockwise\""));
    assert!(told("open([]).point_along(3)").contains("nothing along it"));
}

#[test]
fn scripts_reach_nothing_outside() {
    for source in [
        "import \"x\" as y; sheet(9, 9)",
        "eval(\"1\")",
        "timestamp()",
        "open(\"/etc/passwd\")",
        "env(\"HOME\")",
    ] {
        assert!(run(source).is_err(), "{source}");
    }
}

#[test]
fn scripts_are_bounded() {
    let begin = Instant::now();
    let few = Limits { steps: 100_000, ..Limits::default() };
    assert_eq!(
        told_within("loop { }", few),
        "1:6 the score takes more than 100000 steps (look for a loop that never ends, or raise the limit)"
    );
    let short = Limits { time: Duration::from_millis(200), steps: u64::MAX, ..Limits::default() };
    assert!(told_within("let a = 0; loop { a += 1; }", short).contains("runs for more than 0.2 seconds"));
    let small = megabytes(64);
    let hoard = "let all = []; loop { let more = []; more.pad(200000, 0); all.push(|| more); let x = around(900000); all.push(polygon([0, 0], 900000, 5)); }";
    assert!(
        told_within(hoard, small).contains("takes more than 64 MB of memory"),
        "{}",
        told_within(hoard, small)
    );
    assert!(
        told("let a = \"x\"; loop { a += a; }").contains("the text gets longer than 1000000 characters"),
        "{}",
        told("let a = \"x\"; loop { a += a; }")
    );
    // What doubles in each turn is caught before it doubles often.
    let some = megabytes(100);
    for doubling in [
        "let p = circle([0, 0], 5); loop { p = p.and(p); }",
        "let g = group().add(circle([0, 0], 5)); loop { g = group().add(g).add(g); }",
        "let a = #{}; loop { a = #{ b: a, c: a }; }",
    ] {
        let told = told_within(doubling, some);
        assert!(told.contains("takes more than 100 MB of memory"), "{told}");
    }
    // What is put into a list counts with all that is in it.
    for long in [
        "let a = []; loop { a.push(a); }",
        "let a = []; loop { a.insert(0, a); }",
        "let a = []; loop { a += [a]; }",
        "let a = []; a.pad(100000, 0); let b = []; b.pad(1000, a);",
        "let a = []; a.pad(100000, 0); let b = [1]; b.push(#{ all: [a, a, a, a, a, a, a, a, a, a] });",
    ] {
        let told = told(long);
        assert!(told.contains("the list gets longer than 1000000 values"), "{long}: {told}");
    }
    let nested = "let g = group(); loop { g = group().add(g); }";
    assert!(told(nested).contains("201 groups inside one another are too many"), "{}", told(nested));
    assert!(told("fn deeper(n) { deeper(n + 1) } deeper(0)").contains("more than 64 deep"));
    assert!(told("around(2000000)").contains("or raise the limit"));
    assert!(told("polygon([0, 0], 1000000000, 5)").contains("too many"));
    let nested = format!("{}1{}", "(".repeat(5000), ")".repeat(5000));
    assert!(told(&nested).contains("expressions are nested too deep"), "{}", told(&nested));
    assert!(begin.elapsed() < Duration::from_secs(60));
}

/// Growing a pen is linear: twice the vertices take about twice the time, not four times.
#[test]
fn a_pen_grows_linearly_in_a_loop() {
    let grow = |n: usize, form: &str| {
        let source = format!(
            "let pen = start([0, 0]); for i in 0..{n} {{ {form} }} sheet(9, 9).add(pen.open().stroke(\"red\", 1))"
        );
        // A busy machine may take its time.
        let limits = Limits { time: Duration::from_secs(600), ..Limits::default() };
        let script = Script::read("grow", source, limits).unwrap();
        let times = (0..3).map(|_| {
            let begin = Instant::now();
            script.sheet().unwrap();
            begin.elapsed().as_secs_f64()
        });
        times.fold(f64::INFINITY, f64::min)
    };
    for form in ["pen = pen.line([i, i % 7]);", "pen.line([i, i % 7]);"] {
        // Copying the pen at each turn would make this 16, whatever the machine; half way there is the bound. What else
        // the machine does may spoil a round, but not all of them.
        let linear = (0..5).any(|_| grow(40_000, form) / grow(10_000, form) < 8.0);
        assert!(linear, "{form}");
    }
}

/// A statement that chains several calls draws all of them, wherever the builder is held.
#[test]
fn builders_are_changed_in_place_by_chains_too() {
    use chordane::sheet::Node;
    let source = r#"
        let pen = start([0, 0]);
        for i in 1..4 { pen.line([i * 10, 0]).line([i * 10, 5]); }
        let other = pen;
        other.line([99, 99]);
        let same = pen.line([0, 9]);
        same.tagged("end");
        let page = sheet(50, 20);
        page.ground("white").add(pen.close().shifted("end", [1, 0]).stroke("black", 1));
        let both = group();
        both.add(circle([5, 5], 2)).add(circle([9, 5], 2));
        page.add(both).add(circle([20, 5], 2));
        both.add(circle([30, 5], 2));
        page
    "#;
    let sheet = Script::read("kite.chord", source, Limits::default()).unwrap().sheet().unwrap();
    let [Node::Item(line), Node::Group(both), Node::Item(_)] = sheet.nodes() else { panic!("{sheet:?}") };
    assert_eq!(line.path().data(), "M0 0H10V5L20 0V5L30 0V5L1 9Z");
    assert_eq!(both.nodes().len(), 2, "what is added is added as it is then");
    assert_eq!(line.line(), Some(9));
}

#[test]
fn knobs_are_declared_where_they_are_used_and_set_by_name() {
    let source = r##"
        let sag = knob("sag", 0.3, 0, 1);
        let cloth = knob("cloth", "#c8553d");
        let tail = if knob("tail", "bows", ["bows", "plain"]) == "bows" { 2 } else { 1 };
        let vent = knob("vent", pt(5, 5));
        let page = sheet(50, 50).add(start([0, 0]).quad([25, 50 * sag], [50, 0]).open().stroke(cloth, tail));
        if knob("dots", true) { page.add(circle(vent, 2).fill(cloth)); }
        page
    "##;
    let runner = Runner::read("kite.chord", source, Limits::default()).unwrap();
    let plain = runner.run(&Settings::new());
    let names: Vec<&str> = plain.knobs().iter().map(|knob| knob.name.as_str()).collect();
    assert_eq!((names, plain.problem()), (vec!["sag", "cloth", "tail", "vent", "dots"], None));
    let asked = [("sag", "1"), ("cloth", "teal"), ("tail", "plain"), ("dots", "off")];
    let settings = asked.into_iter().fold(Settings::new(), |all, (name, value)| all.set(name, value));
    let set = runner.run(&settings);
    assert_eq!(set.problem(), None);
    let set = set.sheet().unwrap().svg().unwrap();
    assert!(
        set.contains("M0 0Q25 50 50 0") && set.contains("#008080") && !set.contains("stroke-width"),
        "{set}"
    );
    assert!(!set.contains("A2 2"), "no dots");
    // All of them change the drawing; one whose value is not used does not.
    assert!(runner.knob_findings(&plain).is_empty());
    let source = "let a = knob(\"a\", 1, 0, 9); let b = knob(\"b\", 1, 0, 9);\nsheet(9, 9).add(circle([a, 4], 2).fill(\"red\"))";
    let forgetful = Runner::read("kite.chord", source, Limits::default()).unwrap();
    let run = forgetful.run(&Settings::new().set("b", "3"));
    let idle = forgetful.knob_findings(&run);
    let [idle] = idle.as_slice() else { panic!("{idle:?}") };
    assert_eq!((idle.path, idle.message.as_str()), (None, "the knob \"b\" changes nothing of the drawing"));
    // A range of a whole period begins and ends alike; a limit only chooses.
    let source = "let turn = knob(\"turn\", 0, 0, 360);\nlet least = knob(\"least\", 10, 0, 100);\nlet page = sheet(90, 90);\nfor r in [20, 30] { if r > least { page.add(ellipse(pt(45, 45), r, 5).rotated_about(pt(45, 45), deg(turn)).stroke(\"red\", 1)); } }\npage";
    let turning = Runner::read("kite.chord", source, Limits::default()).unwrap();
    assert_eq!(turning.knob_findings(&turning.run(&Settings::new())), []);
    // What cannot be declared is told at the place of the call.
    let told = told("let a = knob(\"a\", 5, 0, 1);\nsheet(9, 9)");
    assert!(told.contains("the knob \"a\" cannot be: its start 5 is not within its range, 0 to 1"), "{told}");
    assert!(told.starts_with("1:"), "{told}");
}

#[test]
fn an_item_names_the_line_that_made_its_path() {
    let source = "let sail = closed([[0, 0], [60, 0], [30, 50]]);\nlet turned = sail\n    .rotated(deg(10))\n    .rounded(4);\nsheet(90, 90)\n    .add(sail.moved([5, 5])\n        .fill(\"teal\"))\n    .add(turned\n        .stroke(\"red\", 1).named(\"turned\"))\n    .add(sail)";
    let runner = Runner::read("kite.chord", source, Limits::default()).unwrap();
    let run = runner.run(&Settings::new());
    let lines: Vec<Option<usize>> = run.sheet().unwrap().items().map(|placed| placed.line()).collect();
    assert_eq!(lines, [Some(1), Some(4), Some(1)], "where it was closed, and where it was rounded");
}

#[test]
fn dice_fall_by_the_seed_and_do_not_disturb_one_another() {
    let drawn = |source: &str, seed: u64| {
        let runner = Runner::read("kite.chord", source, Limits::default()).unwrap();
        runner.run(&Settings::new().seed(seed)).sheet().unwrap().svg().unwrap()
    };
    let source = r#"
        let tail = dice("tail");
        let points = [];
        for i in 0..5 { points.push([tail.between(0, 50), tail.whole(0, 50)]); }
        let cloth = dice("cloth").pick(["red", "teal", "gold"]);
        let order = dice("order").shuffle([1, 2, 3, 4, 5, 6]);
        sheet(50, 50).add(open(points).stroke(cloth, order[0]))
    "#;
    assert_eq!(drawn(source, 1), drawn(source, 1));
    assert_ne!(drawn(source, 1), drawn(source, 2));
    // One more throw of other dice changes nothing of these.
    let more = source.replace("let points", "let x = dice(\"other\").normal(0, 1); let points");
    assert_eq!(drawn(source, 3), drawn(&more, 3));
    let always = r#"let d = dice("a"); sheet(50, 50).add(circle([d.weighted([3, 7], [0, 1]), 5], d.whole(2, 2)).fill("red"))"#;
    assert!(drawn(always, 5).contains("M9 5"));
    for (wrong, message) in [
        ("dice(\"a\").pick([])", "the list is empty: there is nothing to pick"),
        ("dice(\"a\").weighted([1], [1, 2])", "there are 1 values and 2 weights"),
        ("dice(\"a\").weighted([1], [0])", "no weight is above 0"),
    ] {
        let told = told(&format!("let x = {wrong};\nsheet(9, 9)"));
        assert!(told.contains(message), "{told}");
    }
}

/// The example of chance leaves its two files, the same for the same seed.
#[test]
fn the_example_of_chance_runs() {
    let mut program = std::env::current_exe().unwrap();
    program.pop();
    program.pop();
    program.push(format!("examples/chance{}", std::env::consts::EXE_SUFFIX));
    let drawn = |seed: &str| {
        let folder = tempfile::tempdir().unwrap();
        let done = std::process::Command::new(&program).arg(folder.path()).arg(seed).output().unwrap();
        assert!(done.status.success(), "{}", String::from_utf8_lossy(&done.stderr));
        std::fs::read_to_string(folder.path().join("chance.svg")).unwrap()
    };
    assert_eq!(drawn("7"), drawn("7"));
    assert_ne!(drawn("7"), drawn("8"));
}

fn message_and_advice(source: &str) -> (String, String) {
    let mistake = run(source).unwrap_err();
    (mistake.to_string(), mistake.advice().unwrap_or_default().to_owned())
}

/// What a function of the score does wrong is told at its own place, and once.
#[test]
fn functions_given_to_words_keep_their_mistakes() {
    for source in [
        "plot(0, 9, 0.1, |x| circel(x))",
        "trail(9, |share| circel(share))",
        "traced_trail(0.1, |share| circel(share))",
        r#"dice("a").keep_if(9, |dice| circel(dice), |shape| true)"#,
        r#"dice("a").keep_if(9, |dice| 3, |shape| circel(shape))"#,
    ] {
        assert_eq!(
            message_and_advice(source),
            ("there is no word `circel`".to_owned(), "did you mean `circle`?".to_owned()),
            "{source}"
        );
    }
    // A function that gives another kind of value is told what it has to give.
    assert_eq!(
        message_and_advice("trail(9, |share| true)").0,
        "the function that `trail` is given has to give a point, and gave true or false"
    );
    assert_eq!(
        message_and_advice("plot(0, 9, 0.1, |x| true)").0,
        "the function that `plot` is given has to give a number, and gave true or false"
    );
    let endless = r#"dice("a").keep_if(1000000000, |dice| 3, |shape| false)"#;
    let limits = Limits { time: Duration::from_millis(200), ..Limits::default() };
    assert!(told_within(endless, limits).contains("the score runs for more than 0.2 seconds"));
}

/// A new value that nothing keeps is lost without a word, so it is pointed at.
/// The last line of a function is its value, whatever small functions stand inside it.
#[test]
fn a_function_with_functions_in_it_keeps_its_last_line() {
    let source = "fn bow(wide) {\n    let half = |x| x / 2;\n    let more = |x| circle([x, 0], 3);\n    group().add(more.call(half.call(wide))).opacity(0.5)\n}\nsheet(9, 9).add(bow(4))";
    let sheet = Runner::read("bow.chord", source, Limits::default()).unwrap().run(&Settings::new());
    assert_eq!(sheet.into_sheet().unwrap().nodes().len(), 1);
    let told = Runner::read("pick.chord", "let a = [1, 2]; sheet(a[3 / 2], 9)", Limits::default()).unwrap();
    let told = told.run(&Settings::new()).into_sheet().unwrap_err().to_string();
    assert!(told.contains("a whole number is needed here, and this is a number that is not whole"), "{told}");
}

#[test]
fn new_values_that_nothing_keeps_are_pointed_at() {
    let cases = [
        (
            "let g = group();\ng.moved([10, 0]);\nsheet(9, 9).add(g)",
            "2:3 `moved` gives a new value and leaves `g` as it was, and nothing keeps it here (write g = g.moved(..))",
        ),
        (
            "let g = group();\nfor i in 0..3 { g.opacity(0.5); }\nsheet(9, 9).add(g)",
            "2:19 `opacity` gives a new value and leaves `g` as it was, and nothing keeps it here (write g = g.opacity(..))",
        ),
        (
            "let p = circle([0, 0], 3);\nif true { p.scaled(2).rotated(deg(3)); p.fill(\"red\"); }\nsheet(9, 9).add(p)",
            "2:23 `rotated` gives a new value and leaves `p` as it was, and nothing keeps it here (write p = p.rotated(..))",
        ),
        (
            "fn kite(g) {\n  g.clipped(circle([0, 0], 3));\n  g\n}\nsheet(9, 9).add(kite(group()))",
            "2:5 `clipped` gives a new value and leaves `g` as it was, and nothing keeps it here (write g = g.clipped(..))",
        ),
        (
            "circle([0, 0], 3);\nsheet(9, 9)",
            "1:1 `circle` gives a path, and nothing keeps it here (give it a name, as in let sail = .., or add it to the sheet)",
        ),
        (
            "let pen = start([0, 0]).line([9, 9]);\npen.close();\nsheet(9, 9)",
            "2:5 `close` gives a new value and leaves `pen` as it was, and nothing keeps it here (write pen = pen.close(..))",
        ),
    ];
    for (source, want) in cases {
        assert_eq!(told(source), want, "{source}");
    }
    // What changes where it stands, what is a function's value, and functions of the score's own are as they were.
    for sound in [
        "let s = sheet(9, 9);\ns.add(circle([0, 0], 3));\ns.ground(\"white\");\ns",
        "fn ring(r) { circle([0, 0], r) }\nlet all = [1, 2].map(|r| ring(r));\nsheet(9, 9).add_all(all)",
        "fn moved(g, n) { g.add(circle([n, 0], 3)); }\nlet g = group();\nmoved(g, 3);\nsheet(9, 9).add(g)",
        "let d = dice(\"a\");\nd.between(0, 1);\nsheet(9, 9)",
        "let pen = start([0, 0]);\nfor i in 0..3 { pen.ahead(40).turn(deg(144)); }\nsheet(9, 9).add(pen.close())",
    ] {
        run(sound).unwrap_or_else(|mistake| panic!("{sound}: {mistake:?}"));
    }
}

/// A clip, a move and a fade give a new group and leave the old one, so that one thing can be set down at many places.
#[test]
fn groups_are_changed_by_adding_only() {
    let source = r##"
        let g = group().add(circle([0, 0], 3).fill("teal"));
        let cut = g.clipped(circle([0, 0], 2));
        let far = g.moved([5, 0]).opacity(0.5);
        g.add(circle([1, 1], 1).fill("gold"));
        sheet(20, 20).add(g).add(cut).add(far)
    "##;
    let drawn = svg(source);
    assert_eq!(drawn.matches("<clipPath").count(), 1);
    assert_eq!(drawn.matches("fill=\"#ffd700\"").count(), 1);
}

#[test]
fn conditions_that_never_hold_are_message_and_advice() {
    let (message, advice) =
        message_and_advice(r#"dice("a").keep_if(20, |dice| dice.between(0, 1), |x| x > 2)"#);
    assert_eq!(message, "none of 20 tries was kept");
    assert_eq!(advice, "ease the condition, or give more tries");
    let (message, _) = message_and_advice(r#"dice("a").keep_if(20, |dice| 3, |x| x)"#);
    assert_eq!(message, "the keep of `keep_if` must give true or false, and gave the number 3");
    assert_eq!(
        message_and_advice(r#"dice("a").inside(closed([]))"#).0,
        "the path has no inside: there is no point to give"
    );
}

#[test]
fn scores_say_no_and_write_numbers_into_texts() {
    assert!(
        svg(r##"sheet(9, 9).add(if !false { circle(pt(4, 4), 3).fill("#123456") } else { closed([]) })"##)
            .contains("#123456")
    );
    assert!(message_and_advice(r#""sail " + 7"#).0.contains("sail 7"));
    assert!(message_and_advice(r#"2.5 + " sails""#).0.contains("2.5 sails"));
}

/// A word that loops inside does what a loop in the score does.
#[test]
fn words_that_loop_inside_agree_with_loops() {
    let looped = r##"
        let points = [];
        for i in 0..=90 { let share = i / 90; points.push(polar(turns(share), 40)); }
        sheet(99, 99).add(open(points).stroke("teal", 1))
    "##;
    let inside = r##"sheet(99, 99).add(trail(90, |share| polar(turns(share), 40)).stroke("teal", 1))"##;
    assert_eq!(svg(looped), svg(inside));
    let ring = r##"sheet(99, 99).add(ring_of(circle(pt(0, 0), 3).fill("teal"), 5, 30))"##;
    assert_eq!(svg(ring).matches("<path").count(), 5);
    // Counts of nothing, and of far too much.
    assert_eq!(svg(r##"sheet(9, 9).add(ring_of(circle(pt(0, 0), 3), 0, 30))"##).matches("<path").count(), 0);
    for (source, what) in [
        (
            "ring_of(circle(pt(0, 0), 3), 10000000, 30)",
            "`ring_of`: 10000000 is too many for its n; give at most 1000000",
        ),
        (
            "golden_places(10000000, 3)",
            "`golden_places`: 10000000 is too many for its n; give at most 1000000",
        ),
        (
            "cell(pt(0, 0), 9, 9).honeycomb(100000, 100000)",
            "`honeycomb`: a list of 10000000000 values is too long; give at most 1000000",
        ),
        (
            "gear(pt(0, 0), 1000000000, 9, 8)",
            "`gear`: 1000000000 is too many for its teeth; give at most 1000000",
        ),
        (
            "trail(1000000000, |share| pt(0, 0))",
            "`trail`: 1000000000 is too many for its n; give at most 1000000",
        ),
        (
            "wheel(3, 1, deg(0)).points(100000000)",
            "`points`: 100000000 is too many for its n; give at most 1000000",
        ),
    ] {
        let told = message_and_advice(source);
        assert_eq!((told.0.as_str(), told.1.as_str()), (what, "make it shorter, or raise the limit"));
    }
}

/// The centres of what a script puts on its sheet.
fn centres(source: &str) -> Vec<(f64, f64)> {
    let sheet = run(source).unwrap_or_else(|mistake| panic!("{mistake:?}"));
    let mut all = Vec::new();
    for node in sheet.nodes() {
        let chordane::sheet::Node::Group(group) = node else { panic!("a group") };
        all.extend(group.nodes().iter().map(|node| {
            let centre = node.bounds().expect("something").centre();
            ((centre.x * 1e6).round() / 1e6, (centre.y * 1e6).round() / 1e6)
        }));
    }
    all
}

#[test]
fn stamps_ask_the_functions_of_the_score() {
    let along = |calls: &str| {
        format!(
            "let line = open([[0, 0], [100, 0]]);\n\
             sheet(100, 100).add(stamp(circle(pt(0, 0), 4)).every(25){calls}.along(line))"
        )
    };
    assert_eq!(centres(&along("")), [0.0, 25.0, 50.0, 75.0, 100.0].map(|x| (x, 0.0)));
    assert_eq!(centres(&along(".skip(|number| number % 2 == 1)")), [(0.0, 0.0), (50.0, 0.0), (100.0, 0.0)]);
    assert_eq!(centres(&along(".lead_in(60)")), [(60.0, 0.0), (85.0, 0.0)]);
    assert_eq!(centres(&along(".drift(30)")), [5.0, 30.0, 55.0, 80.0].map(|x| (x, 0.0)));
    let drawn = svg(&along(".fill(|share| if share < 0.4 { \"#ff0000\" } else { \"#0000ff\" })"));
    assert_eq!(
        (
            drawn.matches("#f00").count() + drawn.matches("#ff0000").count(),
            drawn.matches("#00f").count() + drawn.matches("#0000ff").count()
        ),
        (2, 3),
        "{drawn}"
    );
    let sizes = run(&along(".scale(|share| 1 - 0.5 * share)")).unwrap();
    let chordane::sheet::Node::Group(group) = &sizes.nodes()[0] else { panic!("a group") };
    let wide: Vec<f64> =
        group.nodes().iter().map(|node| node.bounds().expect("something").size().x).collect();
    for (wide, expected) in wide.iter().zip([8.0, 7.0, 6.0, 5.0, 4.0]) {
        assert!((wide - expected).abs() < 1e-9, "{wide}");
    }
    assert!(told(&along(".scale(|share| share.nothing)")).contains("nothing"));
    assert!(
        told(&along(".scale(3)")).contains("`scale` wants a function for its f, and was given the number 3")
    );
    assert!(told(&along(".every(0)")).contains("`stamped`: the spacing 0 is not positive; give more than 0"));
}

#[test]
fn reshapes_read_as_in_rust() {
    use chordane::prelude::*;
    let sail = "closed([[0, 0], [60, 0], [0, 80]])";
    let own = Path::closed([(0.0, 0.0), (60.0, 0.0), (0.0, 80.0)]);
    let same = [
        ("rounded(6).dashed([12, 6])", own.then(Round::new(6.0)).then(Dash::new([12.0, 6.0]))),
        ("dashed_to_corners([12, 6])", own.then(Dash { fit: DashFit::Corners, ..Dash::new([12.0, 6.0]) })),
        ("trimmed(0.2, 0.7, 0.5)", own.then(Trim { offset: 0.5, ..Trim::new(0.2, 0.7) })),
        ("offset(5, \"round\")", own.then(Offset { join: Join::Round, ..Offset::new(5.0) })),
        ("offset_both(3)", own.then(Offset { both: true, ..Offset::new(3.0) })),
        ("shaken(2, 9, 4)", own.shaken(2.0, 9.0, 4)),
        ("subdivided(3).thinned(0.1)", own.subdivided(3).thinned(0.1)),
        (
            "mirrored_beside([0, 0], deg(90))",
            own.then(Mirror { beside: true, ..Mirror::new((0.0, 0.0), deg(90.0)) }),
        ),
        ("spun(3, [5, 5])", own.spun(3, (5.0, 5.0))),
        ("union(circle([0, 0], 20))", own.union(circle((0.0, 0.0), 20.0))),
        ("xor(circle([0, 0], 20))", own.xor(circle((0.0, 0.0), 20.0))),
        ("clip_line(circle([0, 0], 20))", own.clip_line(circle((0.0, 0.0), 20.0))),
        ("morphed(circle([0, 0], 20), 0.5)", own.morphed(&circle((0.0, 0.0), 20.0), 0.5)),
        (
            "tapered(6, |share| 1)",
            own.then(
                LineStyle { cap: Cap::Round, join: Join::Round, ..LineStyle::new(6.0) }.tapered(|_| 1.0),
            ),
        ),
        ("warped(0.1, |p| p + [5, 0])", own.warped(0.1, |p| p + pt(5.0, 0.0))),
    ];
    for (call, path) in same {
        let drawn = sheet(100.0, 100.0).add(path.fill("black")).svg().unwrap();
        let drawn = drawn.split(" d=\"").nth(1).and_then(|rest| rest.split('"').next()).unwrap_or_default();
        assert_eq!(data(&format!("{sail}.{call}")), drawn, "{call}");
    }
    assert_eq!(data("closed(rectangle(pt(0, 0), 9, 5).vertices())"), "M0 0H9V5H0Z");
    assert_eq!(data("union_all([rectangle([0, 0], 9, 5), rectangle([5, 0], 9, 5)])"), "M0 0H14V5H0Z");
    assert!(
        told("let all = union_all([group()]);\nsheet(9, 9)")
            .contains("a group has no one outline; give a list of paths")
    );
    assert!(told(&format!("let hem = {sail}.offset(3, \"rund\");\nsheet(9, 9)")).contains("rund"));
    assert!(
        told(&format!("let hem = {sail}.dashed([-1]);\nsheet(9, 9)"))
            .contains("`dashed`: the dash length -1 is negative; give 0 or more")
    );
}

#[test]
fn numbers_that_have_no_answer_are_told_as_that() {
    for (call, message) in [
        ("asin(2)", "`asin`: the number 2 is not from -1 to 1"),
        ("acos(-1.5)", "`acos`: the number -1.5 is not from -1 to 1"),
        (
            "pow(-8, 1/3)",
            "`pow`: -8 to the power of 0.3333333333333333 is not a number that can be computed with",
        ),
        ("pow(10, 400)", "`pow`: 10 to the power of 400 is not a number that can be computed with"),
        ("exp(1000)", "`exp`: e to the power of 1000 is too large; give at most 709"),
        ("log(0)", "`log`: the number must be above 0, got 0"),
        ("log(8, -2)", "`log`: the base must be above 0, got -2"),
        ("log(8, 1)", "`log`: no power of 1 gives another number; give another base"),
        ("group().fill_rule(\"evenodd\")", "a group has no fill rule of its own; set it on what is in it"),
        ("group().bounds()", "there is nothing in it to measure"),
        ("squashed_arc([0, 0], -3, 25, deg(0), deg(90))", "the x radius -3 is negative; give 0 or more"),
        ("lettering(\"7\", [0, 0], -9)", "the height -9 is negative; give 0 or more"),
    ] {
        let message_of = told(&format!("let made = {call};\nsheet(9, 9)"));
        assert!(message_of.contains(message), "{call}: {message_of}");
    }
    let drawn = |source: &str| told_or_drawn(source);
    assert_eq!(
        drawn("elliptic_arc(pt(0, 0), 40, 0, deg(0), deg(90)).data()"),
        drawn("\"\""),
        "of no height: nothing"
    );
    assert_eq!(drawn("squashed_arc(pt(0, 0), 0, 25, deg(0), deg(90)).data()"), drawn("\"\""));
    assert_eq!(
        drawn("lettering(\"\", pt(0, 0), 9).data() + lettering(\"7\", pt(0, 0), 0).data()"),
        drawn("\"\"")
    );
    assert_eq!(drawn("asin(1.0000000000000002).degrees()"), drawn("90.0"), "rounding is forgiven");
}

/// What a value prints.
fn told_or_drawn(value: &str) -> Vec<String> {
    let runner =
        Runner::read("kite.chord", format!("print({value});\nsheet(9, 9)"), Limits::default()).unwrap();
    let run = runner.run(&Settings::new());
    run.sheet().unwrap();
    run.printed().to_vec()
}

/// What takes long is stopped in the middle of a word, and says in which.
#[test]
fn limits_hold_inside_words() {
    // Enough for a busy machine to come to the word.
    let short = Limits { time: Duration::from_secs(1), ..Limits::default() };
    let scribble = "let s = closed(dice(\"knot\").scatter(rectangle([0, 0], 99, 99), 6000));";
    for (word, call) in [
        ("simplified", "s.simplified()"),
        ("clip_line", "s.clip_line(s.moved([0.1, 0.1]))"),
        ("offset", "s.offset(1)"),
        ("coiled", "open([[0, 0], [1e6, 0]]).coiled(1, 0.5)"),
        ("union_all", "union_all((0..20000).map(|i| circle([0, 0], 1 + i)))"),
        ("turn_holes", "union_all([s]).turn_holes()"),
        ("scatter_apart", "dice(\"a\").scatter_apart(circle([0, 0], 9), 1e-6)"),
    ] {
        let begin = Instant::now();
        let message = told_within(&format!("{scribble}\nlet made = {call};\nsheet(9, 9)"), short);
        let stopped = message.contains("the score runs for more than 1 second:");
        assert!(stopped || message.contains("crossings are too many"), "{word}: {message}");
        assert!(message.starts_with("2:"), "{word}: {message}");
        assert!(begin.elapsed() < Duration::from_secs(30), "{word}: {:?}", begin.elapsed());
    }
    let message =
        told_within("let l = open([[0, 0], [1e6, 0]]);\nlet l = l.coiled(1, 0.5);\nsheet(9, 9)", short);
    assert!(message.starts_with("2:11 ") && message.contains("stopped in `coiled`"), "{message}");
}

#[test]
fn a_text_that_takes_long_to_read_is_refused() {
    let many =
        |count: usize, one: &str| (0..count).map(|i| one.replace('#', &i.to_string())).collect::<String>();
    for (source, message) in [
        (
            many(10_001, "let n# = 1;\n"),
            "the score has 10001 names made by let and const, which is too many; give at most 10000",
        ),
        ("\n".repeat(70_000), "the score has 70000 lines, which is too many; give at most 65000"),
        (
            "x".repeat(200_000),
            "the score has 200000 characters in one word, which is too many; give at most 100000",
        ),
        (format!("let a = {}1{};", "(".repeat(3000), ")".repeat(3000)), "expressions are nested too deep"),
    ] {
        assert!(told(&source).contains(message), "{}", told(&source));
    }
    // What is sound is not slowed down, nor refused.
    let chain = format!(
        "sheet(9, 9).add(start([0, 0]){}.open().stroke(\"teal\", 1))",
        ".line_by([1, 1])".repeat(400)
    );
    assert!(run(&chain).is_ok());
    let begin = Instant::now();
    assert!(run("let a = []; for i in 0..200000 { a.push(i); } sheet(9, 9)").is_ok());
    assert!(begin.elapsed() < Duration::from_secs(20), "{:?}", begin.elapsed());
}

#[test]
fn lists_are_sorted_and_taken_apart_without_surprises() {
    let printed = |source: &str| {
        let run = Runner::read("kite.chord", format!("{source}\nsheet(9, 9)"), Limits::default())
            .unwrap()
            .run(&Settings::new());
        run.sheet().unwrap_or_else(|mistake| panic!("{source}: {mistake:?}"));
        run.printed().to_vec()
    };
    for (source, shown) in [
        ("let a = [3, 1, 2.5]; a.sort(); print(a);", "[1, 2.5, 3]"),
        ("let a = [\"hem\", \"bow\"]; a.sort(); print(a);", "[bow, hem]"),
        ("let a = [3, 1, 2]; a.sort(|p, q| q - p); print(a);", "[3, 2, 1]"),
        ("let a = [3, 1, 2]; a.sort_desc(); print(a);", "[3, 2, 1]"),
        // Answers that contradict one another end too, with all that was there.
        ("let a = (0..100).map(|i| i); a.sort(|p, q| 1); a.sort(); print(a.len(), a[99]);", "100 99"),
        ("let a = [1, 2, 3, 4]; print(a.pop(), a.shift(), a.remove(0), a);", "4 1 2 [3]"),
        ("let a = [1, 2, 3, 4]; print(a.drain(|v| v > 2), a);", "[3, 4] [1, 2]"),
        ("let a = [1, 2, 3, 4]; print(a.retain(|v| v > 2), a);", "[1, 2] [3, 4]"),
        ("let a = [1, 2, 3, 4]; print(a.drain(1..3), a, a.split(1), a);", "[2, 3] [1, 4] [4] [1]"),
        (
            "let a = [1]; a.insert(0, 7); a.append([8, 9]); a.pad(6, 0); print(a + [5]);",
            "[7, 1, 8, 9, 0, 0, 5]",
        ),
    ] {
        assert_eq!(printed(source), [shown], "{source}");
    }
    for (source, message) in [
        (
            "let a = [1, \"b\"]; a.sort();",
            "a list can be sorted without a function only if it holds only numbers or only texts",
        ),
        ("let a = [1, 2]; a.sort(|p, q| \"x\");", "has to give a number, and gave the text"),
        ("let a = [1, 2]; a.sort(|p, q| sag);", "there is nothing called `sag`"),
        (
            "let a = [0]; for i in 0..600 { a = [a.drain(|v| true)]; }",
            "lists and maps are nested more than 500 deep",
        ),
        ("let a = []; a.pad(100000000, 0);", "the list gets longer than 1000000 values"),
        (
            "let a = [1, 2]; a.map(|v| v / a.len());",
            "cannot be used in a function that one of its own words is running",
        ),
        ("[1, 2].map(|a, b, c| a);", "this function takes a different number of values"),
    ] {
        assert!(told(source).contains(message), "{source}: {}", told(source));
    }
}

/// A long line is shown in part, and what a terminal would take for a command is made visible.
#[test]
fn what_is_shown_of_a_score_is_short_and_harmless() {
    use miette::Diagnostic;
    let source =
        format!("let a = 1;\nlet b = [{}sgo{}];\nsheet(9, 9)", "1, ".repeat(5000), ", 1".repeat(5000));
    let mistake = Runner::read("kite.chord", source, Limits::default())
        .unwrap()
        .run(&Settings::new())
        .into_sheet()
        .unwrap_err();
    assert_eq!((mistake.line(), mistake.column()), (Some(2), Some(15_010)));
    let label = mistake.labels().unwrap().next().unwrap();
    let shown = mistake.source_code().unwrap().read_span(label.inner(), 1, 1).unwrap();
    let text = String::from_utf8(shown.data().to_vec()).unwrap();
    assert!(text.len() < 1000 && text.contains("sgo") && text.contains('…'), "{text}");
    assert_eq!(shown.line(), 0);
    let hidden = Runner::read("kite.chord", "let a\u{1b}[31m = 3; sheet(9, 9)", Limits::default())
        .map(|_| ())
        .unwrap_err();
    assert!(!hidden.to_string().contains('\u{1b}'), "{hidden}");
    assert!(run("\u{feff}sheet(9, 9)").is_ok(), "a byte order mark is no part of the text");
}

/// Drawing that would take too much memory is refused before it is allocated.
#[test]
fn what_is_large_only_when_drawn_is_refused() {
    let limits = megabytes(256);
    for source in [
        // Each round cap of a very wide line has thousands of points.
        "sheet(9, 9).add(circle([50, 50], 400).stroke(\"teal\", 1000000).dash([0.003, 0.003]).cap(\"round\"))",
        "sheet(8000, 8000).add(circle([4000, 4000], 300).fill(\"teal\").blurred(2000))",
    ] {
        let run = Runner::read("wide.chord", source, limits).unwrap().run(&Settings::new());
        let sheet = run.into_sheet().unwrap();
        let refused = limits.within(|| sheet.pixels().map(drop)).unwrap_err().to_string();
        assert!(
            refused.ends_with("the drawing takes more than 256 MB of memory; draw less, or raise the limit"),
            "{refused}"
        );
    }
}
