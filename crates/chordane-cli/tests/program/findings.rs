//! What `check` finds, and how it shows it.

use predicates::prelude::PredicateBooleanExt;
use predicates::str::{contains, starts_with};

use crate::support::{SAIL, chordane, loft};

const FAULTY: &str = r##"let sail = start(pt(10, 10)).line([90, 10]).line([50, 70]).open();
sheet(100, 80)
    .add(sail.fill("teal").stroke("black", 2).named("sail"))
    .add(circle([50, 20], 9))
"##;

#[test]
fn check_shows_figures_and_findings_and_ends_with_code_1() {
    let (_folder, score) = loft(FAULTY);
    let done = chordane().arg("check").arg(&score).assert().code(1);
    let told = String::from_utf8(done.get_output().stdout.clone()).unwrap();
    for part in [
        "2 warnings: 2 paths\n\n",
        "path 0 \"sail\", line 1\n  length 152.11   area 2400 (nonzero)\n",
        "        0         2       152.11         2400  clockwise, open\n",
        "warning open-outline  path 0, contour 0, at (50, 70)\n  \"sail\", line 1: the outline is open",
        "  mend: end it with close() instead of open(), or call close() on the path\n",
        "warning unpainted  path 1, contour 0, at (59, 20)\n  line 4: ",
    ] {
        assert!(told.contains(part), "{part:?} in {told}");
    }
    assert!(!told.contains('\u{1b}'), "no colour into a pipe");
    let (_sound, score) = loft(SAIL);
    chordane().arg("check").arg(&score).assert().success().stdout(contains("nothing looks wrong: 1 path\n"));
}

#[test]
fn check_tells_repeats_together_and_many_paths_in_a_table() {
    // Every place is a finding for programs, and one group for people.
    let (_folder, score) = loft(
        "let kite = from_data(\"M10 10H60L60 10L60 50L60 50L10 50L10 50Z\");\nsheet(100, 80).add(kite.fill(\"teal\"))\n",
    );
    let told = "3 hints: 1 path\n\nhint crowded-vertices  path 0, contour 0, at (60, 10)\n  line 1: vertices 1 and 2 stand in one place\n  also at (60, 50), (10, 50)\n  mend: take one of the two out\n";
    chordane().arg("check").arg(&score).assert().success().stdout(starts_with(told));
    let done = chordane().args(["check", "--json"]).arg(&score).assert().success();
    let report: serde_json::Value = serde_json::from_slice(&done.get_output().stdout).unwrap();
    assert_eq!(report["findings"].as_array().map(Vec::len), Some(3));
    let (_folder, score) = loft(
        "let page = sheet(100, 100);\nfor i in 0..30 { page.add(circle(pt(10 + i, 50), 5).fill(\"teal\").named(\"dot\")); }\npage\n",
    );
    let done = chordane().arg("check").arg(&score).assert().success();
    let told = String::from_utf8(done.get_output().stdout.clone()).unwrap();
    assert!(told.starts_with("nothing looks wrong: 30 paths\n\npath  line  name  length   area      from  wide  high  contours\n"), "{told}");
    assert!(
        told.ends_with("and 10 more paths; --json has them all\n") && told.lines().count() < 25,
        "{told}"
    );
    // What a score asks the size of is checked at any size.
    let (_folder, score) = loft(
        "let size = asked_size(100, 80);\nsheet(size.x, size.y).add(circle([50, 40], 9).fill(\"teal\"))\n",
    );
    chordane()
        .arg("check")
        .arg(&score)
        .args(["--size", "40x30"])
        .assert()
        .code(1)
        .stdout(contains("off-sheet"));
}

#[test]
fn check_json_is_what_programs_parse() {
    let (_folder, score) = loft(FAULTY);
    let done = chordane().args(["check", "--json"]).arg(&score).assert().code(1);
    let report: serde_json::Value = serde_json::from_slice(&done.get_output().stdout).unwrap();
    let keys = |value: &serde_json::Value| {
        value.as_object().unwrap().keys().map(String::as_str).collect::<Vec<_>>().join(" ")
    };
    assert_eq!(keys(&report), "findings notes paths");
    let sail = &report["paths"][0];
    assert_eq!(
        keys(sail),
        "area bounds contours fill fill_rule half_point half_tangent length line name painted_bounds stroke stroke_width"
    );
    // The stroke reaches half its width beyond the line, its mitres farther, and the butt cap not at all.
    let painted: Vec<f64> =
        sail["painted_bounds"].as_array().unwrap().iter().map(|side| side.as_f64().unwrap()).collect();
    assert!(painted[0] == 10.0 && painted[1] == 9.0 && painted[2] >= 91.0, "{painted:?}");
    assert_eq!((sail["line"].as_u64(), sail["stroke_width"].as_f64()), (Some(1), Some(2.0)));
    assert_eq!((sail["name"].as_str(), sail["fill_rule"].as_str()), (Some("sail"), Some("nonzero")));
    assert_eq!(
        (sail["area"].as_f64(), sail["bounds"].to_string()),
        (Some(2400.0), "[10.0,10.0,90.0,70.0]".into())
    );
    assert_eq!(report["paths"][1]["name"], serde_json::Value::Null);
    let contour = &sail["contours"][0];
    assert_eq!(keys(contour), "closed direction length segments signed_area");
    assert_eq!(
        (contour["closed"].as_bool(), contour["direction"].as_str()),
        (Some(false), Some("clockwise"))
    );
    let finding = &report["findings"][0];
    assert_eq!(keys(finding), "at code contour level line mend message path");
    assert_eq!((finding["path"].as_u64(), finding["line"].as_u64()), (Some(0), Some(1)));
    assert_eq!(
        (finding["code"].as_str(), finding["level"].as_str()),
        (Some("open-outline"), Some("warning"))
    );
    assert!(finding["message"].as_str().unwrap().contains("line 1"));
}

#[test]
fn a_knob_that_changes_nothing_is_found() {
    let (_folder, score) =
        loft("let sag = knob(\"sag\", 20, 1, 30);\nsheet(100, 80).add(circle([50, 40], 9).fill(\"teal\"))\n");
    let told = "hint unused-knob\n  the knob \"sag\" changes nothing of the drawing\n  mend: use its value somewhere";
    // A hint alone is no fault.
    chordane().arg("check").arg(&score).assert().success().stdout(contains(told));
    chordane()
        .args(["check", "--json"])
        .arg(&score)
        .assert()
        .success()
        .stdout(contains("\"code\":\"unused-knob\""));
}

#[test]
fn check_says_what_it_left_out() {
    let (_folder, score) = loft(
        "sheet(200, 200).centred().add(star(pt(0, 0), 500000, 90, 50).fill(\"teal\")).add(circle(pt(0, 0), 40).fill(\"teal\"))",
    );
    let told = "path 0: the path is too large to search for crossings";
    chordane()
        .arg("check")
        .arg(&score)
        .assert()
        .stderr(contains(told))
        .stdout(contains("; 1 path checked only in part\n").and(contains("not understood").not()));
    chordane().args(["check", "--json"]).arg(&score).assert().stdout(contains(told));
}

#[test]
fn wheels_that_never_come_round_are_told_of() {
    let (folder, score) =
        loft("sheet(99, 99).add(wheels_inside(pt(50, 50), 40, PI * 3, 9).path().stroke(\"teal\", 1))");
    chordane()
        .arg("draw")
        .arg(&score)
        .arg("-o")
        .arg(folder.path().join("x.svg"))
        .assert()
        .success()
        .stderr(contains("line 1: these wheels do not come round within 1000 laps"));
}
