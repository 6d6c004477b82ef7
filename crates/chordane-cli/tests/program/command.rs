//! The command as it is called from a terminal or a script.

use std::io::Read;
use std::path::Path;
use std::process::{Command as Process, Stdio};

use assert_cmd::Command;
use predicates::prelude::PredicateBooleanExt;
use predicates::str::{contains, starts_with};

use crate::support::{SAIL, chordane, demo, demo_scores, loft};

fn png_size(file: &Path) -> (u32, u32) {
    let reader =
        png::Decoder::new(std::io::BufReader::new(std::fs::File::open(file).unwrap())).read_info().unwrap();
    reader.info().size()
}

fn pixel(file: &Path, (x, y): (u32, u32)) -> [u8; 4] {
    let mut reader =
        png::Decoder::new(std::io::BufReader::new(std::fs::File::open(file).unwrap())).read_info().unwrap();
    let mut bytes = vec![0; reader.output_buffer_size().unwrap()];
    let info = reader.next_frame(&mut bytes).unwrap();
    let at = (y * info.width + x) as usize * 4;
    bytes[at..at + 4].try_into().unwrap()
}

fn names(folder: &Path) -> Vec<String> {
    let mut names: Vec<String> = std::fs::read_dir(folder)
        .unwrap()
        .map(|entry| entry.unwrap().file_name().into_string().unwrap())
        .collect();
    names.sort();
    names
}

#[test]
fn draw_writes_several_files_and_says_so() {
    let (folder, score) = loft(SAIL);
    let (svg, png) = (folder.path().join("kite.svg"), folder.path().join("kite.png"));
    let done = chordane().arg("draw").arg(&score).arg("-o").arg(&svg).arg("-o").arg(&png).assert().success();
    let told = String::from_utf8(done.get_output().stderr.clone()).unwrap();
    assert!(done.get_output().stdout.is_empty());
    let lines: Vec<&str> = told.lines().collect();
    assert_eq!(lines.len(), 2, "{told}");
    assert!(lines[0].starts_with(&format!("{}  ", svg.display())) && lines[0].ends_with(" ms"), "{told}");
    assert!(lines[0].contains(" B  "), "{told}");
    assert_eq!(png_size(&png), (64, 48));
    assert!(std::fs::read_to_string(&svg).unwrap().starts_with("<svg"));
    assert_eq!(names(folder.path()), ["kite.chord", "kite.png", "kite.svg"]);
}

#[test]
fn size_decimals_and_pipes() {
    let (folder, score) = loft(SAIL);
    let png = folder.path().join("kite.png");
    chordane().arg("draw").arg(&score).arg("-o").arg(&png).args(["--size", "128x200"]).assert().success();
    assert_eq!(png_size(&png), (128, 200));
    chordane()
        .args(["draw", "-", "-o", "-", "--as", "svg", "--size", "128x96", "--decimals", "0"])
        .write_stdin(SAIL)
        .assert()
        .success()
        .stdout(contains("width=\"128\" height=\"96\""))
        .stderr(contains("standard output  "));
    let bytes =
        chordane().args(["draw", "-", "-o", "-", "--as", "png"]).write_stdin(SAIL).output().unwrap().stdout;
    assert_eq!(&bytes[..4], b"\x89PNG");
    // An ending that says nothing is helped out by --as.
    let plain = folder.path().join("kite");
    chordane().arg("draw").arg(&score).arg("-o").arg(&plain).args(["--as", "png"]).assert().success();
    assert_eq!(png_size(&plain), (64, 48));
}

#[test]
fn mistakes_in_a_score_are_shown_in_its_text() {
    let (folder, score) =
        loft("let sail = polygon(pt(0, 0), 4, 12);\nsheet(64, 48)\n    .add(sial.fill(\"teal\"))\n");
    let out = folder.path().join("kite.svg");
    let done = chordane().arg("draw").arg(&score).arg("-o").arg(&out).assert().code(1);
    let told = String::from_utf8(done.get_output().stderr.clone()).unwrap();
    for part in [
        "there is nothing called `sial`",
        "kite.chord:3:10",
        ".add(sial.fill(\"teal\"))",
        "here",
        "did you mean `sail`?",
    ] {
        assert!(told.contains(part), "{part} is missing in\n{told}");
    }
    assert!(!told.contains('\u{1b}'), "no colour where standard error is not a terminal");
    assert_eq!(names(folder.path()), ["kite.chord"]);
}

#[test]
fn items_without_paint_are_noted() {
    chordane()
        .args(["draw", "-", "-o", "-", "--as", "svg"])
        .write_stdin("sheet(64, 48).add(circle([9, 9], 5))")
        .assert()
        .success()
        .stderr(contains("note: 1 item has neither fill nor stroke"));
}

#[test]
fn calls_that_cannot_be_are_refused_with_code_2() {
    let (folder, score) = loft(SAIL);
    let at = |name: &str| folder.path().join(name).display().to_string();
    let score = score.display().to_string();
    let cases: &[(&[&str], &str)] = &[
        (&["draw", &score, "-o", &at("kite.txt")], "cannot tell the format"),
        (&["draw", &score, "-o", &at("kite")], "end the name in .svg or .png"),
        (&["draw", &score, "-o", "-"], "say the format with --as"),
        (&["draw", &score, "-o", &at("nowhere/kite.svg")], "there is no folder"),
        (&["draw", &score, "-o", &at("")], "is a folder"),
        (&["draw", &at("none.chord"), "-o", "x.svg"], "there is no file"),
        (&["draw", &at("kite.jpg"), "-o", "x.svg"], "its name ends in neither .chord nor .svg"),
        (&["draw", &score], "--out"),
        (&["draw", &score, "-o", "x.svg", "--size", "0x5"], "1280x960"),
        (&["draw", &score, "-o", "x.svg", "--max-seconds", "0"], "above 0"),
        (&["words", "circel"], "did you mean `circle`?"),
        (&["words", "qqqqqqqq"], "see them all with"),
        (&["drow"], "draw"),
        (&[], "Usage"),
    ];
    for (arguments, told) in cases {
        chordane().args(*arguments).assert().code(2).stderr(contains(*told));
    }
    assert_eq!(names(folder.path()), ["kite.chord"]);
}

#[test]
fn inputs_at_fault_end_with_code_1() {
    let cases = [
        ("loop { }", &["--max-steps", "10000"][..], "--max-steps"),
        ("loop { }", &["--max-seconds", "0.2"][..], "--max-seconds"),
        (
            "let a = []; loop { a.push(polygon([0, 0], 100000, 5)); }",
            &["--max-memory", "50"][..],
            "--max-memory",
        ),
        ("sheet(20000, 10)", &[][..], "the limit is 16384 x 16384"),
        ("sheet(20000, 10)", &[][..], "--max-side"),
        ("sheet(9, 9).add(circle([0, 0], 1e300).fill(\"red\"))", &[][..], "bring it within"),
        ("circle(pt(0, 0), -1)", &[][..], "the radius -1 is negative"),
    ];
    for (source, more, told) in cases {
        let mut call = chordane();
        call.args(["draw", "-", "-o", "-", "--as", "png"]).args(more).write_stdin(source);
        call.assert().code(1).stdout("").stderr(contains(told));
    }
    chordane()
        .args(["draw", "-", "-o", "-", "--as", "svg"])
        .write_stdin(&b"sheet(9, 9) // \xff"[..])
        .assert()
        .code(1)
        .stderr(contains("byte 15 is not UTF-8"));
    chordane()
        .args(["draw", "-", "-o", "-", "--as", "png", "--max-side", "20000"])
        .write_stdin("sheet(20000, 10)")
        .assert()
        .success();
}

#[test]
fn a_machine_at_fault_ends_with_code_3_and_loses_nothing() {
    let (folder, score) = loft(SAIL);
    if Path::new("/dev/full").exists() {
        chordane()
            .arg("draw")
            .arg(&score)
            .args(["-o", "/dev/full", "--as", "png"])
            .assert()
            .code(3)
            .stderr(contains("/dev/full cannot be written"));
        let full = std::fs::OpenOptions::new().write(true).open("/dev/full").unwrap();
        let program = assert_cmd::cargo::cargo_bin("chordane");
        let done = Process::new(&program).arg("words").stdout(full).stderr(Stdio::piped()).output().unwrap();
        assert_eq!(done.status.code(), Some(3));
        assert!(String::from_utf8_lossy(&done.stderr).contains("standard output cannot be written"));
    }
    // A folder in which nobody can make a file, not even the administrator.
    if Path::new("/proc").exists() {
        chordane()
            .arg("draw")
            .arg(&score)
            .args(["-o", "/proc/kite.svg"])
            .assert()
            .code(3)
            .stderr(contains("cannot be written"));
    }
    // An older file stays when the new one fails.
    let kept = folder.path().join("kite.svg");
    chordane().arg("draw").arg(&score).arg("-o").arg(&kept).assert().success();
    let before = std::fs::read(&kept).unwrap();
    std::fs::write(&score, "sheet(9, 9).add(circle([0, 0], 1e300).fill(\"red\"))").unwrap();
    let png = folder.path().join("kite.png");
    std::fs::copy(&kept, &png).unwrap();
    chordane().arg("draw").arg(&score).arg("-o").arg(&png).assert().code(1);
    assert_eq!(std::fs::read(&png).unwrap(), before);
    assert_eq!(names(folder.path()), ["kite.chord", "kite.png", "kite.svg"]);
}

#[test]
fn standard_output_closed_early_is_told_without_a_panic() {
    let program = assert_cmd::cargo::cargo_bin("chordane");
    let mut child = Process::new(&program)
        .args(["draw", "-", "-o", "-", "--as", "png"])
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .unwrap();
    drop(child.stdout.take());
    let mut input = child.stdin.take().unwrap();
    std::io::Write::write_all(
        &mut input,
        b"sheet(2000, 2000).add(star([900, 900], 99, 800, 200).fill(\"red\"))",
    )
    .unwrap();
    drop(input);
    let mut told = String::new();
    child.stderr.take().unwrap().read_to_string(&mut told).unwrap();
    assert_eq!(child.wait().unwrap().code(), Some(3), "{told}");
    assert!(told.contains("standard output cannot be written") && !told.contains("panicked"), "{told}");
}

#[test]
fn words_are_listed_and_shown_one_by_one() {
    chordane()
        .arg("words")
        .assert()
        .success()
        .stdout(contains("circle(centre, radius)"))
        .stdout(contains("THE PEN"));
    chordane()
        .args(["words", "circle"])
        .assert()
        .success()
        .stdout(contains("circle(pt(0, 0), 40)"))
        .stdout(contains("gives a path"));
    for (asked, part) in [
        (&["stamp.at"][..], "stamp.at("),
        (&["path.vertex_gap"], "The least distance between two vertices"),
        (&["elliptic", "arc"], "elliptic_arc(centre, radius_x, radius_y, start, sweep)"),
        (&["oval"], "there is no word `oval`; write ellipse(centre, radius_x, radius_y)\n\nellipse("),
        (&["hue"], "write hsl(hue, saturation, lightness)"),
        (&["cusps"], "these speak of it"),
        (&["zzyzx"], ""),
        (&["balance"], "centroid()"),
        (&["language"], "## Functions"),
    ] {
        let done = chordane().arg("words").args(asked).assert();
        match asked[0] {
            "zzyzx" => done.code(2).stderr(contains("there is no word `zzyzx`, and none speaks of it")),
            _ => done.success().stdout(contains(part)),
        };
    }
}

#[test]
fn the_demo_makes_every_picture_and_a_page() {
    let out = demo();
    let folder = tempfile::tempdir().unwrap();
    let page = std::fs::read_to_string(out.join("index.html")).unwrap();
    assert!(names(out).iter().filter(|name| name.ends_with(".gif")).count() >= 6);
    for score in demo_scores() {
        let name = score.file_stem().unwrap().to_str().unwrap();
        let clip = out.join(format!("{name}.gif"));
        if clip.exists() {
            // What moves plays, is no larger than what one would send on, and is at rest for who has asked for that.
            assert!(std::fs::metadata(&clip).unwrap().len() < 1_000_000, "{name}");
            assert!(page.contains(&format!("<img src=\"{name}.gif\"")), "{name}");
            assert!(
                page.contains(&format!("(prefers-reduced-motion: reduce)\" srcset=\"{name}.svg\"")),
                "{name}"
            );
        } else {
            assert!(page.contains(&format!("src=\"{name}.svg\"")), "{name}");
        }
        assert_eq!(png_size(&out.join(format!("{name}.png"))), (1280, 960));
        let again = folder.path().join("again.svg");
        chordane().arg("draw").arg(&score).arg("-o").arg(&again).assert().success();
        assert_eq!(std::fs::read(&again).unwrap(), std::fs::read(out.join(format!("{name}.svg"))).unwrap());
    }
}

#[test]
fn completions_and_manual_pages_are_printed() {
    for shell in ["bash", "zsh", "fish"] {
        chordane().args(["completions", shell]).assert().success().stdout(contains("chordane"));
    }
    chordane().arg("man").assert().success().stdout(contains(".TH chordane"));
    let folder = tempfile::tempdir().unwrap();
    chordane().args(["man", "--out"]).arg(folder.path()).assert().success();
    assert!(names(folder.path()).contains(&"chordane-draw.1".to_owned()));
}

#[test]
fn help_teaches_by_example() {
    chordane()
        .arg("--help")
        .assert()
        .success()
        .stdout(contains("chordane demo"))
        .stdout(contains("sheet(640, 480)"));
    chordane().args(["draw", "--help"]).assert().success().stdout(contains("--size 1280x960"));
}

#[test]
fn a_score_in_rust_takes_the_same_options() {
    let folder = tempfile::tempdir().unwrap();
    let mut program = assert_cmd::cargo::cargo_bin("chordane");
    program.pop();
    program.push("examples");
    program.push(format!("own_kite{}", std::env::consts::EXE_SUFFIX));
    let png = folder.path().join("kite.png");
    Command::new(&program)
        .arg("-o")
        .arg(&png)
        .args(["--size", "320x240"])
        .assert()
        .success()
        .stderr(contains("kite.png"));
    assert_eq!(png_size(&png), (320, 240));
    Command::new(&program).assert().code(2);
    Command::new(&program).arg("check").assert().success().stdout(contains("nothing looks wrong: 1 path\n"));
    Command::new(&program).arg("--list-knobs").assert().success().stdout(contains("width  0.7  0.2 to 1"));
    Command::new(&program)
        .args(["check", "--set", "width=7"])
        .assert()
        .code(2)
        .stderr(contains("give 0.2 to 1"));
}

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

/// As a browser shows an image of that size: where the view box lies says its preserveAspectRatio.
#[test]
fn documents_are_drawn_at_a_size_as_they_say() {
    let folder = tempfile::tempdir().unwrap();
    let (document, png) = (folder.path().join("kite.svg"), folder.path().join("kite.png"));
    let red_at = |ratio: &str, at: (u32, u32)| {
        let text = format!(
            "<svg viewBox=\"10 10 40 30\" preserveAspectRatio=\"{ratio}\"><path d=\"M10 10H50V40H10Z\" fill=\"red\"/></svg>"
        );
        std::fs::write(&document, text).unwrap();
        chordane()
            .arg("draw")
            .arg(&document)
            .arg("-o")
            .arg(&png)
            .args(["--size", "200x60"])
            .assert()
            .success();
        assert_eq!(png_size(&png), (200, 60));
        pixel(&png, at) == [255, 0, 0, 255]
    };
    assert!(red_at("xMinYMid", (5, 30)) && !red_at("xMinYMid", (100, 30)));
    assert!(red_at("xMidYMid meet", (100, 30)) && !red_at("xMidYMid meet", (5, 30)));
    assert!(red_at("xMaxYMid", (195, 30)) && !red_at("xMaxYMid", (100, 30)));
    assert!(red_at("none", (5, 30)) && red_at("none", (195, 30)));
    assert!(red_at("xMidYMid slice", (5, 5)) && red_at("xMidYMid slice", (195, 55)));
}

#[test]
fn documents_are_drawn_and_checked_as_scores_are() {
    let folder = tempfile::tempdir().unwrap();
    let document = folder.path().join("kite.svg");
    std::fs::write(
        &document,
        "<svg viewBox=\"0 0 40 30\">\n<path d=\"M5 5H35V25Z\" fill=\"teal\"/><text>x</text></svg>",
    )
    .unwrap();
    let png = folder.path().join("kite.png");
    let drawn = chordane()
        .arg("draw")
        .arg(&document)
        .arg("-o")
        .arg(&png)
        .args(["--size", "80x60"])
        .assert()
        .success();
    let told = String::from_utf8(drawn.get_output().stderr.clone()).unwrap();
    assert!(told.contains("line 2: the element <text> is not understood: left out"), "{told}");
    assert_eq!(png_size(&png), (80, 60));
    chordane().arg("check").arg(&document).assert().success().stdout(contains("path 0, line 2"));
    let done = chordane().args(["check", "--json"]).arg(&document).assert().success();
    let report: serde_json::Value = serde_json::from_slice(&done.get_output().stdout).unwrap();
    assert_eq!(
        report["notes"],
        serde_json::json!([{"line": 2, "message": "the element <text> is not understood: left out"}])
    );
    assert_eq!(report["paths"][0]["fill"], "#008080");
    // Through a pipe, a document is known by its first character.
    let bytes = std::fs::read(&document).unwrap();
    chordane().args(["check", "-"]).write_stdin(bytes).assert().success();
    chordane()
        .args(["draw", "-", "-o", "-", "--as", "svg"])
        .write_stdin("<svg><g></svg>")
        .assert()
        .code(1)
        .stderr(contains("standard input: line 1: this is not well-formed XML"));
    std::fs::write(&document, "<html/>").unwrap();
    chordane().arg("check").arg(&document).assert().code(1).stderr(contains("there is no <svg> element"));
}

#[test]
fn bones_are_drawn_at_a_readable_size_over_the_same_sheet() {
    let (folder, score) = loft(SAIL);
    let (png, svg) = (folder.path().join("bones.png"), folder.path().join("bones.svg"));
    chordane()
        .arg("draw")
        .arg(&score)
        .arg("-o")
        .arg(&png)
        .arg("-o")
        .arg(&svg)
        .arg("--bones")
        .assert()
        .success();
    // The sheet is 64 by 48: too small for labels, so the picture is larger.
    assert_eq!(png_size(&png), (1280, 960));
    let text = std::fs::read_to_string(&svg).unwrap();
    assert!(
        text.contains("viewBox=\"-32 -24 64 48\"") && text.contains("width=\"1280\""),
        "{}",
        &text[..200]
    );
    assert!(text.len() > 5_000 && text.contains("stroke-dasharray"));
    chordane()
        .arg("draw")
        .arg(&score)
        .arg("-o")
        .arg(&png)
        .args(["--bones", "--size", "320x240"])
        .assert()
        .success();
    assert_eq!(png_size(&png), (320, 240));
}

#[test]
fn knobs_are_listed_and_set() {
    let (folder, score) = loft(
        "let size = knob(\"size\", 20, 1, 30);\nlet cloth = knob(\"cloth\", \"teal\");\n\
         sheet(100, 80).add(circle([50, 40], size).fill(cloth))\n",
    );
    let list =
        chordane().arg("draw").arg(&score).args(["--list-knobs", "--set", "size=5"]).assert().success();
    let told = String::from_utf8(list.get_output().stdout.clone()).unwrap();
    assert_eq!(told, "size   5     1 to 30\ncloth  teal  a CSS colour\n");
    let svg = folder.path().join("kite.svg");
    chordane()
        .arg("draw")
        .arg(&score)
        .arg("-o")
        .arg(&svg)
        .args(["--set", "size=5", "--set", "cloth=#ff0000"])
        .assert()
        .success();
    let drawn = std::fs::read_to_string(&svg).unwrap();
    assert!(drawn.contains("M55 40") && drawn.contains("#f00"), "{drawn}");
    // What cannot be set is the call's fault, with the range in the message, and nothing is written.
    std::fs::remove_file(&svg).unwrap();
    for (setting, message) in [
        ("size=99", "the knob \"size\" cannot be set to 99\n  help: give 1 to 30"),
        ("sise=5", "there is no knob \"sise\"\n  help: did you mean \"size\"?"),
        ("size", "--set size has no value"),
        ("cloth=tael", "the knob \"cloth\" cannot be set to tael\n  help: give a CSS colour"),
    ] {
        let call = || {
            let mut call = chordane();
            call.arg("draw").arg(&score).arg("-o").arg(&svg).args(["--set", setting]);
            call
        };
        call().assert().code(2).stderr(contains(message));
        assert!(!svg.exists());
    }
    chordane()
        .arg("check")
        .arg(&score)
        .args(["--set", "size=5"])
        .assert()
        .success()
        .stdout(contains("bounds (45, 35)"));
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
fn the_seed_is_in_the_call_and_a_new_one_is_told() {
    let (_folder, score) = loft(
        "let r = dice(\"size\").between(5, 30);\nsheet(100, 80).add(circle([50, 40], r).fill(\"teal\"))\n",
    );
    let drawn = |seed: &[&str]| {
        let done =
            chordane().arg("draw").arg(&score).args(["-o", "-", "--as", "svg"]).args(seed).assert().success();
        let output = done.get_output().clone();
        (String::from_utf8(output.stdout).unwrap(), String::from_utf8(output.stderr).unwrap())
    };
    let (plain, _) = drawn(&[]);
    assert_eq!(plain, drawn(&["--seed", "0"]).0);
    assert_ne!(plain, drawn(&["--seed", "7"]).0);
    let (new, told) = drawn(&["--seed", "new"]);
    let seed = told.lines().next().unwrap().rsplit(' ').next().unwrap().to_owned();
    assert_eq!(new, drawn(&["--seed", &seed]).0, "{told}");
    let refused = "--seed -3x is not a seed\n  help: give a whole number from 0 up, or new";
    chordane()
        .arg("draw")
        .arg(&score)
        .args(["-o", "-", "--as", "svg", "--seed=-3x"])
        .assert()
        .code(2)
        .stderr(contains(refused));
}

const KNOBBED: &str = r##"
let pinch = knob("pinch", 0.5, 0, 1);
let sides = knob("sides", 5, 3, 9);
let size = asked_size(120, 90);
let spot = dice("spot").between(-20, 20);
sheet(size.x, size.y).centred().add(wheel_polygon(pt(spot, 0), sides, 20, pinch).fill("teal"))
"##;

#[test]
fn bones_are_drawn_layer_by_layer() {
    let (folder, score) = loft(SAIL);
    let out = folder.path().join("bones.svg");
    let size = |arguments: &[&str]| {
        chordane().arg("draw").args(arguments).arg(&score).arg("-o").arg(&out).assert().success();
        std::fs::read(&out).unwrap().len()
    };
    // The score's name may stand right behind.
    let all = size(&["--bones"]);
    assert_eq!((size(&["--bones", "all"]), size(&["--bones=all"])), (all, all));
    let (grid, both) = (size(&["--bones", "grid"]), size(&["--bones", "grid,vertices"]));
    assert!(grid < both && both < all, "{grid} {both} {all}");
    let told = "`--bones`: \"gird\" is not a layer of bones (did you mean \"grid\"?); give \"grid\", \"vertices\", \"handles\", \"directions\" or \"bounds\"";
    chordane()
        .arg("draw")
        .arg("--bones=gird")
        .arg(&score)
        .arg("-o")
        .arg(&out)
        .assert()
        .code(2)
        .stderr(contains(told));
}

#[test]
fn pictures_that_cannot_be_made_are_left_blank_and_told() {
    let (folder, score) = loft(
        "let n = knob(\"n\", 3, 1, 9);\nlet r = 40 / (5 - n);\nsheet(120, 90).centred().add(circle(pt(0, 0), r).fill(\"teal\"))\n",
    );
    let out = folder.path().join("all.png");
    let vary = |range: &str| {
        chordane()
            .arg("vary")
            .arg(&score)
            .arg("-o")
            .arg(&out)
            .args(["--over", range, "--keep", "all"])
            .assert()
    };
    vary("n=2..7:6")
        .code(1)
        .stderr(contains("in picture 5, n=6:").and(contains("the radius -40 is negative")))
        .stderr(contains("error: 3 of 6 pictures could not be made: 4, 5, 6"));
    assert_eq!(names(folder.path()), ["all-1.png", "all-2.png", "all-3.png", "all.png", "kite.chord"]);
    std::fs::remove_file(&out).unwrap();
    vary("n=6..7:2").code(1).stderr(contains("is negative"));
    assert!(!out.exists(), "nothing could be drawn");
}

#[test]
fn pictures_of_sheets_in_millimetres_hold_their_resolution() {
    let (folder, score) = loft("sheet(50.8, 25.4).unit(\"mm\").ground(\"teal\")\n");
    let png = folder.path().join("card.png");
    let physical = |arguments: &[&str]| {
        chordane().arg("draw").arg(&score).arg("-o").arg(&png).args(arguments).assert().success();
        let bytes = std::fs::read(&png).unwrap();
        let at = bytes.windows(4).position(|four| four == b"pHYs").unwrap();
        (png_size(&png), u32::from_be_bytes(bytes[at + 4..at + 8].try_into().unwrap()), bytes[at + 12])
    };
    // 96 pixels to the inch are 3780 to the metre.
    assert_eq!(physical(&[]), ((192, 96), 3780, 1));
    assert_eq!(physical(&["--dpi", "300"]), ((600, 300), 11811, 1));
    chordane().arg("draw").arg(&score).arg("-o").arg(&png).args(["--dpi", "0"]).assert().code(2);
}

#[test]
fn vary_draws_contact_sheets_and_keeps_what_is_asked_for() {
    let (folder, score) = loft(KNOBBED);
    let out = folder.path().join("all.png");
    let vary = |arguments: &[&str]| {
        let mut command = chordane();
        command.arg("vary").arg(&score).arg("-o").arg(&out).args(arguments);
        command.assert()
    };
    vary(&["--seeds", "6", "--keep", "2,5", "--set", "sides=4"]).success().stderr(contains("6 pictures"));
    assert_eq!(names(folder.path()), ["all-2.png", "all-5.png", "all.png", "kite.chord"]);
    assert_eq!(png_size(&folder.path().join("all-5.png")), (120, 90));
    let seeds = std::fs::read(&out).unwrap();
    vary(&["--seeds", "6", "--set", "sides=4"]).success();
    assert_eq!(std::fs::read(&out).unwrap(), seeds, "the same bytes again");
    vary(&["--over", "pinch=0..1:3", "--over", "sides=3,4"]).success().stderr(contains("6 pictures"));
    vary(&["--sizes", "120x90,300x90,60x200"]).success().stderr(contains("3 pictures"));
    vary(&["--over", "pinch=0..1:3", "--seeds", "2"]).success().stderr(contains("6 pictures"));
    vary(&["--seeds", "12", "--keep", "3,9..10,all", "--bones"]).success().stderr(contains("12 pictures"));
    let kept = names(folder.path()).into_iter().filter(|name| name.starts_with("all-")).collect::<Vec<_>>();
    assert!(kept.len() == 14 && kept.contains(&"all-03.png".to_owned()), "{kept:?}");
    for (wrong, told) in [
        (&[][..], "it is not said what to vary"),
        (&["--seeds", "0"], "0 is not in 1..=1000"),
        (&["--seeds", "10000000"], "is not in 1..=1000"),
        (&["--seeds", "x"], "invalid"),
        (&["--seeds", "2", "--sizes", "5x5"], "more than one thing"),
        (&["--sizes", "0x5"], "two whole numbers above 0"),
        (&["--over", "pinch=0..1"], "does not say in how many steps"),
        (&["--over", "pinch=0..9:3"], "the knob \"pinch\" cannot be set to"),
        (&["--over", "pinhc=0..1:3"], "did you mean \"pinch\"?"),
        (&["--over", "pinch=0..1:3", "--over", "pinch=0..1:2"], "is given twice"),
        (
            &["--seeds", "2", "-o", "all.gif"],
            "cannot tell the format from the file name all.gif\n  help: end the name in .svg or .png\n",
        ),
        (&["--seeds", "3", "--keep", "4"], "there is no picture 4 to keep"),
        (&["--seeds", "3", "--keep", "1..4"], "there is no picture 4 to keep"),
        (
            &["--seeds", "3", "--keep", "3..1"],
            "--keep 3..1 is not a picture's number\n  help: write 7, 2..5 or all",
        ),
        (
            &["--seeds", "3", "--over", "pinch=0..1:2", "--over", "sides=3,4"],
            "--over is given 2 times beside --seeds",
        ),
        (&["--seeds", "3", "--set", "pinch=1", "--set", "pinch=0"], "is set twice"),
    ] {
        vary(wrong).code(2).stderr(contains(told));
    }
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
fn any_picture_of_a_contact_sheet_can_be_made_again() {
    let source = r##"let top = knob("top", pt(50, 10));
let cloth = knob("cloth", "teal");
sheet(100, 80).add(closed([top, [90, 70], [10, 70]]).fill(cloth))
"##;
    let (folder, score) = loft(source);
    let at = |name: &str| folder.path().join(name);
    for sheet in ["all.svg", "all.png"] {
        chordane()
            .args(["vary", "--over", "top=(20,10),(80,10)", "--over", "cloth=rgb(200, 85, 61),teal", "-o"])
            .arg(at(sheet))
            .arg(&score)
            .assert()
            .success();
        chordane()
            .args(["draw", "--again", "--tile", "2", "-o"])
            .arg(at("tile.svg"))
            .arg(at(sheet))
            .assert()
            .success();
        chordane()
            .args(["draw", "--set", "top=80,10", "--set", "cloth=rgb(200, 85, 61)", "-o"])
            .arg(at("own.svg"))
            .arg(&score)
            .assert()
            .success();
        assert_eq!(std::fs::read(at("tile.svg")).unwrap(), std::fs::read(at("own.svg")).unwrap(), "{sheet}");
    }
    let svg = std::fs::read_to_string(at("all.svg")).unwrap();
    assert_eq!(svg.matches("let cloth").count(), 1, "the score's text stands in it once");
    for (tile, message) in [
        (&[][..], "is a contact sheet of 4 pictures\n  help: say which one with --tile, 1 to 4\n"),
        (&["--tile", "0"], "has no tile 0\n  help: give 1 to 4\n"),
        (&["--tile", "5"], "has no tile 5\n  help: give 1 to 4\n"),
    ] {
        chordane()
            .args(["draw", "--again", "-o"])
            .arg(at("tile.svg"))
            .arg(at("all.png"))
            .args(tile)
            .assert()
            .code(2)
            .stderr(contains(message));
    }
    chordane()
        .args(["draw", "--again", "--tile", "1", "-o"])
        .arg(at("again.svg"))
        .arg(at("own.svg"))
        .assert()
        .code(2)
        .stderr(contains("is one picture, without a tile 1\n  help: leave out --tile\n"));
}

#[test]
fn a_kept_picture_can_be_made_again_from_its_file_alone() {
    let (folder, score) = loft(KNOBBED);
    let at = |name: &str| folder.path().join(name);
    chordane()
        .arg("draw")
        .arg(&score)
        .args(["--seed", "9", "--set", "pinch=0.25", "--size", "200x100", "-o"])
        .arg(at("first.png"))
        .arg("-o")
        .arg(at("first.svg"))
        .assert()
        .success();
    // The score is gone; each file still knows all of it.
    std::fs::remove_file(&score).unwrap();
    for from in ["first.png", "first.svg"] {
        chordane().arg("draw").arg("--again").arg(at(from)).arg("-o").arg(at("again.svg")).assert().success();
        let (first, again) =
            (std::fs::read_to_string(at("first.svg")), std::fs::read_to_string(at("again.svg")));
        assert_eq!(first.unwrap(), again.unwrap());
    }
    // So it is where the score has a size of its own.
    let (other, fixed) = loft(SAIL);
    let at_other = |name: &str| other.path().join(name);
    chordane()
        .arg("draw")
        .arg(&fixed)
        .args(["--size", "200x100", "-o"])
        .arg(at_other("a.png"))
        .assert()
        .success();
    chordane()
        .arg("draw")
        .arg("--again")
        .arg(at_other("a.png"))
        .arg("-o")
        .arg(at_other("b.png"))
        .assert()
        .success();
    assert_eq!(std::fs::read(at_other("a.png")).unwrap(), std::fs::read(at_other("b.png")).unwrap());
    // A setting of the call goes before that of the file.
    chordane()
        .arg("draw")
        .arg("--again")
        .arg(at("first.png"))
        .args(["--set", "pinch=1", "-o"])
        .arg(at("other.svg"))
        .assert()
        .success();
    assert_ne!(std::fs::read(at("other.svg")).unwrap(), std::fs::read(at("first.svg")).unwrap());
    std::fs::write(at("plain.svg"), "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"9\" height=\"9\"/>")
        .unwrap();
    chordane()
        .arg("draw")
        .arg("--again")
        .arg(at("plain.svg"))
        .args(["-o", "x.svg"])
        .assert()
        .code(2)
        .stderr(contains("does not say how it was made"));
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

#[test]
fn what_the_call_asks_for_and_cannot_be_is_the_calls_fault() {
    let (folder, score) = loft(SAIL);
    let out = folder.path().join("sail.png");
    let draw = || {
        let mut call = chordane();
        call.arg("draw").arg(&score).arg("-o").arg(&out);
        call
    };
    for (words, told) in [
        (
            &["--size", "99999x99999"][..],
            "a picture of 99999 x 99999 pixels is too large; the limit is 16384",
        ),
        (&["--size", "16385x1"], "a picture of 16385 x 1 pixels is too large"),
        (&["--max-side", "0"], "the limit is 0 x 0"),
        (
            &["--size", "100000x100000", "--max-side", "4294967295"],
            "no picture has more than 1073741824 in all",
        ),
        (&["--seed", "-1"], "--seed -1 is not a seed\n  help: give a whole number from 0 up, or new"),
    ] {
        draw().args(words).assert().code(2).stderr(contains(told));
        assert!(!out.exists());
    }
    let long = "x".repeat(300);
    let place = |name: &str| folder.path().join(name);
    for (input, out, told) in [
        (folder.path().to_owned(), place("o.png"), "is neither a score nor an SVG document"),
        (place(&format!("{long}.chord")), place("o.png"), "no file can be called"),
        (place("kite.chord/kite.chord"), place("o.png"), "no file can be called"),
        (score.clone(), place("kite.chord/o.png"), "part of that path is a file, not a folder"),
        (score.clone(), place(&format!("{long}.png")), "no file can have such a name"),
        (score.clone(), place("nowhere/o.png"), "there is no folder"),
        (score.clone(), folder.path().to_owned(), "is a folder\n  help: name a file with -o"),
    ] {
        chordane().arg("draw").arg(input).arg("-o").arg(out).assert().code(2).stderr(contains(told));
    }
    std::fs::create_dir(place("folder.chord")).unwrap();
    chordane().arg("check").arg(place("folder.chord")).assert().code(2).stderr(contains("is a folder"));
}

#[test]
fn a_grain_is_enlarged_by_whole_factors_with_hard_edges() {
    let source =
        "sheet(64, 48).centred().ground(\"#f4efe6\").add(polygon(pt(0, 0), 4, 18).fill(\"#c8553d\"))";
    let (folder, score) = loft(source);
    let out = folder.path().join("coarse.png");
    let draw = |more: &[&str]| {
        chordane().arg("draw").arg(&score).arg("-o").arg(&out).args(["--grain", "16x12"]).args(more).assert()
    };
    draw(&["--size", "100x100"]).success();
    let picture = png_of(&out);
    assert_eq!((picture.width, picture.height), (96, 72));
    let colours: std::collections::BTreeSet<&[u8]> = picture.bytes.chunks(4).collect();
    assert_eq!(colours.len(), 2, "no pixel is covered in part");
    for (i, pixel) in picture.bytes.chunks(4).enumerate() {
        let (x, y) = (i % 96 / 6 * 6, i / 96 / 6 * 6);
        assert_eq!(pixel, &picture.bytes[(y * 96 + x) * 4..][..4]);
    }
    draw(&["--size", "100x100", "--partial"]).success();
    let colours: std::collections::BTreeSet<Vec<u8>> =
        png_of(&out).bytes.chunks(4).map(<[u8]>::to_vec).collect();
    assert!(colours.len() > 2);
    let svg = folder.path().join("coarse.svg");
    chordane().arg("draw").arg(&score).arg("-o").arg(&svg).args(["--grain", "16x12"]).assert().success();
    let text = std::fs::read_to_string(&svg).unwrap();
    assert!(text.contains("<image") && text.contains("image-rendering:pixelated"));
    draw(&["--bones"]).failure().code(2);
    draw(&["--no-antialias"]).failure().code(2);
    // Without a grain, at the size of the sheet.
    chordane()
        .arg("draw")
        .arg(&score)
        .arg("-o")
        .arg(&out)
        .arg("-o")
        .arg(&svg)
        .arg("--no-antialias")
        .assert()
        .success();
    let colours: std::collections::BTreeSet<Vec<u8>> =
        png_of(&out).bytes.chunks(4).map(<[u8]>::to_vec).collect();
    assert_eq!(colours.len(), 2);
    assert!(std::fs::read_to_string(&svg).unwrap().contains("shape-rendering=\"crispEdges\""));
}

#[test]
fn pictures_lie_below_the_score_or_are_handed_in() {
    let (folder, score) = loft("sheet(8, 8).ground(picture(\"weave.png\"))");
    let draw = |more: &[&str]| {
        let out = folder.path().join("out.png");
        chordane().arg("draw").arg(&score).arg("-o").arg(out).args(more).assert()
    };
    let told = |text: &'static str| predicates::str::contains(text);
    draw(&[]).failure().code(1).stderr(told("there is no picture \"weave.png\" in the score's folder"));
    let (elsewhere, dots) = loft("sheet(4, 4).ground(\"teal\")");
    let file = elsewhere.path().join("dots.png");
    chordane().arg("draw").arg(&dots).arg("-o").arg(&file).assert().success();
    draw(&["--picture", &format!("weave.png={}", file.display())]).success();
    std::fs::copy(&file, folder.path().join("weave.png")).unwrap();
    draw(&[]).success();
    // Cut off, no picture at all, a picture of four thousand million pixels in a few bytes.
    let bytes = std::fs::read(&file).unwrap();
    std::fs::write(folder.path().join("weave.png"), &bytes[..bytes.len() / 2]).unwrap();
    draw(&[]).failure().code(1).stderr(told("it is cut off or damaged"));
    std::fs::write(folder.path().join("weave.png"), b"<svg/>").unwrap();
    draw(&[]).failure().code(1).stderr(told("it is neither a PNG nor a JPEG file"));
    std::fs::write(folder.path().join("weave.png"), huge_png()).unwrap();
    draw(&[]).failure().code(1).stderr(told("the picture has 60000 x 60000 pixels, and no more than"));
    // Links that lead out, paths that lead out.
    std::fs::remove_file(folder.path().join("weave.png")).unwrap();
    std::os::unix::fs::symlink(&file, folder.path().join("weave.png")).unwrap();
    draw(&[]).failure().code(1).stderr(told("lies outside the score's folder"));
    for name in ["../weave.png", file.to_str().unwrap(), ""] {
        std::fs::write(&score, format!("sheet(8, 8).ground(picture(\"{name}\"))")).unwrap();
        draw(&[]).failure().code(1).stderr(told("lies outside the score's folder"));
    }
    draw(&["--picture", "weave.png"]).failure().code(2).stderr(told("write --picture NAME=FILE"));
    let input = "sheet(8, 8).ground(picture(\"weave.png\"))";
    chordane()
        .args(["draw", "-", "-o", "-", "--as", "svg"])
        .write_stdin(input)
        .assert()
        .failure()
        .code(1)
        .stderr(told("hand it in with --picture NAME=FILE"));
}

struct Png {
    width: u32,
    height: u32,
    bytes: Vec<u8>,
}

fn png_of(file: &std::path::Path) -> Png {
    let file = std::io::BufReader::new(std::fs::File::open(file).unwrap());
    let mut reader = png::Decoder::new(file).read_info().unwrap();
    let mut bytes = vec![0; reader.output_buffer_size().unwrap()];
    let info = reader.next_frame(&mut bytes).unwrap();
    Png { width: info.width, height: info.height, bytes }
}

/// The head of a picture of 60,000 by 60,000 pixels, with hardly anything behind it.
fn huge_png() -> Vec<u8> {
    let mut bytes = Vec::new();
    let mut encoder = png::Encoder::new(&mut bytes, 60_000, 60_000);
    encoder.set_color(png::ColorType::Rgba);
    let mut writer = encoder.write_header().unwrap();
    let _ = writer.write_chunk(png::chunk::IDAT, &[120, 1]);
    drop(writer);
    bytes
}
