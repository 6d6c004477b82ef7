//! The runner: one score, any number of runs with other settings and on any thread, each within limits of its own.

use chordane::prelude::*;
use chordane_score::{Limits, Runner, Score, Settings, Stage};

const SAIL: &str = r##"
    print("once");
    let sag = knob("sag", 0.3, 0, 1);
    let size = asked_size(40, 30);
    let spot = dice("spot").between(0, 9);
    sheet(size.x, size.y).add(circle([spot, 20 * sag], 3).fill("teal"))
"##;

#[test]
fn a_run_depends_on_its_settings_alone() {
    let runner = Runner::read("sail.chord", SAIL, Limits::default()).unwrap();
    let ways = |i: usize| {
        Settings::new()
            .seed(i as u64 % 3)
            .set("sag", ["0.1", "0.9"][i % 2])
            .size((40.0 + (i % 2) as f64, 30.0))
    };
    let alone: Vec<Sheet> = (0..24).map(|i| runner.run(&ways(i)).into_sheet().unwrap()).collect();
    assert!(alone[0] != alone[1] && alone[0] != alone[2] && alone[0] == alone[6]);
    std::thread::scope(|scope| {
        for thread in 0..4 {
            let (runner, alone, ways) = (&runner, &alone, &ways);
            scope.spawn(move || {
                for i in (thread..24).chain(0..thread) {
                    assert_eq!(runner.run(&ways(i)).sheet().unwrap(), &alone[i]);
                }
            });
        }
    });
}

#[test]
fn a_run_tells_what_the_score_asked_for() {
    let runner = Runner::read("sail.chord", SAIL, Limits::default()).unwrap();
    let run = runner.run(&Settings::new().set("sag", "0.5"));
    assert_eq!((run.printed(), run.knobs().len()), (&["once".to_owned()][..], 1));
    assert_eq!(run.knobs()[0].set.as_deref(), Some("0.5"));
    assert_eq!((run.settings().knob("sag"), run.settings().size), (Some("0.5"), None));
    // What is wrong with how it was run is told when it has run.
    let wrong = runner.run(&Settings::new().set("sga", "1"));
    let problem = wrong.problem().unwrap();
    assert_eq!(
        (problem.message.as_str(), problem.mend.as_str()),
        ("there is no knob \"sga\"", "did you mean \"sag\"?")
    );
    let error = wrong.sheet().unwrap_err();
    assert_eq!((error.to_string(), error.advice()), (problem.message, Some("did you mean \"sag\"?")));
    assert_eq!(wrong.lenient_sheet().unwrap(), runner.run(&Settings::new()).sheet().unwrap());
    for value in ["2", "deep"] {
        let error = runner.run(&Settings::new().set("sag", value)).into_sheet().unwrap_err();
        assert_eq!(error.to_string(), format!("the knob \"sag\" cannot be set to {value}"));
        assert_eq!(error.advice(), Some("give 0 to 1"));
    }
    // A score that fails has said what it said before.
    let failing = Runner::read("x.chord", "print(\"before\");\nsheet(0, 1)", Limits::default()).unwrap();
    let run = failing.run(&Settings::new().set("nothing", "1"));
    assert_eq!((run.printed(), run.problem()), (&["before".to_owned()][..], None));
    assert!(run.sheet().unwrap_err().to_string().contains("the width 0"));
}

#[test]
fn a_score_in_rust_runs_alike() {
    let score = |stage: &mut Stage| {
        stage.print("once");
        let radius = stage.knob("radius", 3.0, 1.0, 9.0);
        let _ = stage.switch("dots", true);
        sheet(40.0, 30.0).add(circle((20.0, 15.0), radius).fill("teal"))
    };
    assert_eq!(score.sheet().unwrap(), Runner::new(score).run(&Settings::new()).into_sheet().unwrap());
    let runner = Runner::new(score);
    let run = runner.run(&Settings::new());
    let found = runner.knob_findings(&run);
    assert_eq!(found.len(), 1);
    assert_eq!((found[0].path, found[0].contour, found[0].at), (None, None, pt(20.0, 15.0)));
    assert_eq!(found[0].message, "the knob \"dots\" changes nothing of the drawing");
}

#[test]
fn a_program_hands_in_paths_points_and_numbers() {
    let text = r#"
        let outline = given("outline", circle([50, 40], 30));
        let spots = given("spots", []);
        let sizes = given("sizes", [1, 2]);
        let page = sheet(100, given("height", 80)).add(outline.fill("teal"));
        for i in 0..spots.len { page.add(circle(spots[i], sizes[i]).fill("gold")); }
        page
    "#;
    let runner = Runner::read("badge.chord", text, Limits::default()).unwrap();
    let plain = runner.run(&Settings::new()).into_sheet().unwrap();
    assert_eq!((plain.items().len(), plain.size.y), (1, 80.0));
    let kite = star((50.0, 40.0), 5, 30.0, 14.0);
    let given = Settings::new()
        .give("outline", kite.clone())
        .give("spots", vec![pt(40.0, 40.0), pt(60.0, 40.0)])
        .give("sizes", [3.0, 4.0])
        .give("height", 60.0);
    let drawn = runner.run(&given).into_sheet().unwrap();
    assert_eq!((drawn.items().len(), drawn.size.y), (3, 60.0));
    let paths: Vec<Path> = drawn.items().map(|placed| placed.item.path().clone()).collect();
    assert_eq!(paths, [kite, circle((40.0, 40.0), 3.0), circle((60.0, 40.0), 4.0)]);
    // A name that is not asked for, and a value of another kind.
    let error = |settings: Settings| runner.run(&settings).into_sheet().unwrap_err();
    let unused = error(Settings::new().give("outlin", 3.0));
    assert_eq!(unused.to_string(), "the score does not ask for \"outlin\"");
    assert_eq!(unused.advice(), Some("did you mean \"outline\"?"));
    let wrong = error(Settings::new().give("outline", 3.0));
    assert_eq!(wrong.to_string(), "\"outline\" must be a path, and the program gave a number");
    assert_eq!(wrong.line(), Some(2));
}
