//! Scores that move, looked over as a whole.

use chordane::check::Code;
use chordane::prelude::*;
use chordane_score::{Limits, Runner, Settings, Stage};

fn over(source: &str) -> Vec<String> {
    let runner = Runner::read("kite.chord", source, Limits::default()).unwrap();
    let report = runner.over_loop(&Settings::new(), &|sheet| sheet.check()).unwrap();
    report.findings.iter().map(|finding| format!("{}: {}", finding.code, finding.message)).collect()
}

#[test]
fn the_word_that_jumps_is_told() {
    let seam = "the loop has a seam: where it begins again this jumps by";
    assert_eq!(
        over("let x = saw(phase(), 20, 60);\nsheet(100, 80).add(circle(pt(x, 40), 9).fill(\"teal\"))"),
        [format!("loop-seam: line 2: {seam} 40 units; there `saw` in line 1 goes from 60 to 20")]
    );
    assert_eq!(
        over("let x = 10 * seconds();\nsheet(100, 80).add(circle(pt(30 + x, 40), 9).fill(\"teal\"))"),
        [format!("loop-seam: line 2: {seam} 40 units; there `seconds` in line 1 goes from 4 to 0")]
    );
    assert_eq!(
        over("sheet(100, 80).add(circle(pt(30 + 40 * phase(), 40), 9).fill(\"teal\"))"),
        [format!("loop-seam: line 1: {seam} 40 units; there `phase` in line 1 goes from 1 to 0")]
    );
    assert_eq!(
        over(
            "let at = keys([[0, pt(20, 20)], [1, pt(20, 60)]]).at(phase());\nsheet(100, 80).add(circle(at, 9).fill(\"teal\"))"
        ),
        [format!("loop-seam: line 2: {seam} 40 units; there `at` in line 1 goes from 20, 60 to 20, 20")]
    );
}

#[test]
fn a_mend_takes_the_seam_away() {
    for mended in [
        "let x = swing(phase(), 20, 60);",
        "let x = keys([[0, 20], [0.5, 60], [1, 20]]).at(phase());",
        "let x = keys([[0, 20], [0.5, 60]]).looped().at(phase());",
        "let x = 40 + 20 * sin(turns(rounds(phase(), 2, 0)));",
        "let x = saw(phase(), 20, 20);",
    ] {
        let found = over(&format!("{mended}\nsheet(100, 80).add(circle(pt(x, 40), 9).fill(\"teal\"))"));
        assert_eq!(found, [] as [String; 0], "{mended}");
    }
}

#[test]
fn what_holds_for_a_while_only_is_no_finding() {
    // Off the sheet when the loop begins, and flown through later.
    let through = "sheet(100, 80).add(circle(pt(saw(phase(), -20, 120), 40), 9).fill(\"teal\")).add(circle(pt(50, 10), 5).fill(\"gold\"))";
    assert_eq!(over(through), [] as [String; 0]);
    // Off it all the time.
    let away = "sheet(100, 80).add(circle(pt(swing(phase(), 400, 500), 40), 9).fill(\"teal\")).add(circle(pt(50, 10), 5).fill(\"gold\"))";
    assert!(over(away)[0].starts_with("off-sheet: line 1:"), "{:?}", over(away));
    // What is wrong with a path for most of the loop, though not when it begins.
    let crossed = "let y = keys([[0, 10], [0.1, 70], [0.9, 70], [1, 10]]).at(phase());\nsheet(100, 80).add(closed([[10, 10], [90, y], [90, 80 - y], [10, 70]]).fill(\"teal\"))";
    assert!(
        over(crossed).iter().any(|told| told.starts_with("self-crossing: line 2: at phase 0.")),
        "{:?}",
        over(crossed)
    );
}

#[test]
fn scores_in_rust_move_too() {
    let runner = Runner::new(|stage: &mut Stage| {
        let x = saw(stage.phase(), 20.0, 60.0);
        sheet(100.0, 80.0).add(circle((x, 40.0), 9.0).fill("teal"))
    });
    let run = runner.run(&Settings::new().frame(3, 12));
    assert!(run.moves() && run.settings().moment.phase == 0.25);
    let report = runner.over_loop(&Settings::new(), &|sheet| sheet.check()).unwrap();
    assert_eq!(report.findings[0].code, Code::LoopSeam);
    assert!(!Runner::new(|_: &mut Stage| sheet(9.0, 9.0)).run(&Settings::new()).moves());
    let mut stage = Stage::new(Settings::new().frame(5, 20).seconds(2.0));
    assert_eq!((stage.phase(), stage.seconds(), stage.frame()), (0.25, 0.5, 5));
}

#[test]
fn keys_and_swings_of_mixed_kinds_are_told() {
    let told = |line: &str| {
        let source = format!("let made = {line};\nsheet(9, 9)");
        let runner = Runner::read("kite.chord", source, Limits::default()).unwrap();
        runner.run(&Settings::new()).into_sheet().unwrap_err().to_string()
    };
    for (line, message) in [
        (
            "swing(0.2, 3, deg(4))",
            "`swing`: value 1 is an angle, and value 0 a number; give values of one kind",
        ),
        (
            "swing(0.2, 3, [1, 2, 3])",
            "`swing` wants a number, an angle, a point, a colour, an extent, a pose or a path",
        ),
        ("swing(0.2, \"tael\", \"gold\")", "`swing`: \"tael\" is not a colour (did you mean \"teal\"?)"),
        (
            "keys([[0, 1], [0.5, pt(3, 4)]])",
            "`keys`: value 1 is a point, and value 0 a number; give values of one kind",
        ),
        (
            "keys([[0.5, 1], [0.2, 2]])",
            "`keys`: key 1 is at 0.2, and the one before it at 0.5; give them in the order of their times",
        ),
        ("keys([[0, 1], [0, 2]])", "give times that rise, and for a jump the easing \"step-start\""),
        ("keys([[0, 1, \"ease-inn\"]])", "\"ease-inn\" is not an easing (did you mean \"ease-in\"?)"),
        ("keys([[0, 1, 2]])", "`keys`: key 0 is a list; give a time, a value and perhaps an easing"),
        ("keys([3])", "`keys`: key 0 is the number 3; give a time, a value and perhaps an easing"),
        ("keys([]).at(0.5)", "`at`: there are no keys, and so there is no value; give one at least"),
        (
            "keys([[0, 1], [1, 2]]).way(\"shorter\")",
            "`way` is called on keys of angles, and these are of something else",
        ),
        ("keys([[0, deg(1)]]).way(\"shortest\")", "`way`: \"shortest\" is not a way round"),
        ("keys([[0, 1]]).repeated(0)", "`repeated`: the count 0 is not positive; give more than 0"),
        ("hold(0.3, [])", "`hold`: the list is empty; give one value at least"),
        (
            "ease(0.3, \"cubic-bezier(2, 0, 0, 1)\")",
            "`cubic-bezier`: the first x 2 is out of range; give 0 to 1",
        ),
        ("timeline().then(\"rise\", 0)", "`then`: the length 0 is not positive; give more than 0"),
        (
            "timeline().then(\"rise\", 1).share(\"rice\", 0.5)",
            "`share`: there is no span \"rice\"; did you mean \"rise\"?",
        ),
        (
            "timeline().staggered(\"vent\", 3, 1, 1).share_of(\"vent\", 3, 0.5)",
            "`share`: there is no span 3 of \"vent\"; give 0 to 2",
        ),
    ] {
        let said = told(line);
        assert!(said.contains(message), "{line}: {said}");
    }
}

#[test]
fn a_knob_that_matters_at_some_moments_only_is_used() {
    let findings = |source: &str| {
        let runner = Runner::read("kite.chord", source, Limits::default()).unwrap();
        runner.knob_findings(&runner.run(&Settings::new())).len()
    };
    let swings = "let far = knob(\"far\", 20, 0, 40);\nsheet(100, 80).add(circle(pt(20 + swing(phase(), 0, X), 40), 9).fill(\"teal\"))";
    assert_eq!(findings(&swings.replace('X', "far")), 0);
    assert_eq!(findings(&swings.replace('X', "30")), 1);
}

#[test]
fn mends_of_what_leaves_and_vanishes_end_the_finding() {
    let page = |bead: &str| format!("sheet(100, 80).add(circle(pt(30, 10), 5).fill(\"gold\")).add({bead})");
    let away = page("circle(pt(20 + 300 * phase(), 40), 9).fill(\"teal\")");
    assert!(
        over(&away).iter().any(|told| told.starts_with("off-sheet: line 1: this leaves the sheet")),
        "{:?}",
        over(&away)
    );
    for mended in ["swing(phase(), 20, 320)", "keys([[0, 20], [0.5, 320], [1, 20]]).at(phase())"] {
        let mended = page(&format!("circle(pt({mended}, 40), 9).fill(\"teal\")"));
        assert_eq!(over(&mended), [] as [String; 0], "{mended}");
    }
    let blinking =
        "sheet(100, 80).add(circle(pt(30, 40), 9).fill(\"teal\").opacity(if phase() > 0.6 { 0 } else { 1 }))";
    assert!(
        over(blinking).iter().any(|told| told.starts_with("unpainted: nothing can be seen")),
        "{:?}",
        over(blinking)
    );
    let mended = format!("{blinking}.add(circle(pt(70, 40), 9).fill(\"gold\"))");
    assert!(!over(&mended).iter().any(|told| told.starts_with("unpainted")), "{:?}", over(&mended));
}
