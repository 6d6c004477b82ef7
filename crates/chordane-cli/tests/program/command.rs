//! The command as it is called from a terminal or a script.

use std::io::Read;
use std::path::Path;
use std::process::{Command as Process, Stdio};

use assert_cmd::Command;
use predicates::str::contains;

use crate::support::{SAIL, chordane, demo, demo_scores, loft};

pub(super) fn png_size(file: &Path) -> (u32, u32) {
    let reader =
        png::Decoder::new(std::io::BufReader::new(std::fs::File::open(file).unwrap())).read_info().unwrap();
    reader.info().size()
}

pub(super) fn pixel(file: &Path, (x, y): (u32, u32)) -> [u8; 4] {
    let mut reader =
        png::Decoder::new(std::io::BufReader::new(std::fs::File::open(file).unwrap())).read_info().unwrap();
    let mut bytes = vec![0; reader.output_buffer_size().unwrap()];
    let info = reader.next_frame(&mut bytes).unwrap();
    let at = (y * info.width + x) as usize * 4;
    bytes[at..at + 4].try_into().unwrap()
}

pub(super) fn names(folder: &Path) -> Vec<String> {
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
        (&["live", &score, "--port", "x"], "give a whole number from 0 to 65535"),
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
        (&["path.vertex_gap"], "The smallest distance between any two vertices"),
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

/// The executable of an example, which Cargo builds with the tests.
fn example(name: &str) -> std::path::PathBuf {
    let mut program = assert_cmd::cargo::cargo_bin("chordane");
    program.pop();
    program.push("examples");
    program.push(format!("{name}{}", std::env::consts::EXE_SUFFIX));
    program
}

#[test]
fn a_program_adds_words_to_the_command() {
    let call = || Command::new(example("own_words"));
    call().arg("--help").assert().success().stdout(contains("  own_words draw sail.chord -o sail.png"));
    let listed = call().arg("words").assert().success();
    let listed = String::from_utf8_lossy(&listed.get_output().stdout).into_owned();
    let (_, own) = listed.split_once("ADDED BY THIS PROGRAM\n").unwrap();
    assert!(own.starts_with("  tassel(at, threads)") && own.contains("  path.roped(width)"), "{own}");
    call().args(["words", "roped"]).assert().success().stdout(contains("gives a group"));
    call().args(["words", "tasel"]).assert().code(2).stderr(contains("did you mean `tassel`?"));
    let (folder, score) = loft(
        "let line = start([10, 10]).line([90, 30]).open();\nsheet(100, 60).add(line.roped(3)).add(tassel([90, 30], 5).stroke(\"teal\", 1))\n",
    );
    let out = folder.path().join("mast.svg");
    call().arg("draw").arg(&score).arg("-o").arg(&out).assert().success();
    assert!(std::fs::read_to_string(&out).unwrap().contains("M90 30 86 44M90 30 88 44"));
    // The command itself has no such words.
    chordane()
        .arg("draw")
        .arg(&score)
        .arg("-o")
        .arg(&out)
        .assert()
        .code(1)
        .stderr(contains("there is no word `roped`"));
}

#[test]
fn a_score_in_rust_takes_the_same_options() {
    let folder = tempfile::tempdir().unwrap();
    let program = example("own_kite");
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
    std::fs::write(folder.path().join("weave.png"), HUGE_JPEG).unwrap();
    draw(&[]).failure().code(1).stderr(told("the picture has 65535 x 65535 pixels, and no more than"));
    // Links that lead nowhere, links that lead out, paths that lead out.
    std::fs::remove_file(folder.path().join("weave.png")).unwrap();
    std::os::unix::fs::symlink("weave.png", folder.path().join("weave.png")).unwrap();
    draw(&[]).failure().code(1).stderr(told("the picture \"weave.png\" is a broken link"));
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
/// The beginning of a JPEG file of one grey channel, up to where its pixels begin.
const HUGE_JPEG: [u8; 27] = [
    0xff, 0xd8, // begin
    0xff, 0xc0, 0, 11, 8, 0xff, 0xff, 0xff, 0xff, 1, 1, 0x11, 0, // the size
    0xff, 0xda, 0, 8, 1, 1, 0, 0, 63, 0, 0, 0, // the pixels
];

fn huge_png() -> Vec<u8> {
    let mut bytes = Vec::new();
    let mut encoder = png::Encoder::new(&mut bytes, 60_000, 60_000);
    encoder.set_color(png::ColorType::Rgba);
    let mut writer = encoder.write_header().unwrap();
    let _ = writer.write_chunk(png::chunk::IDAT, &[120, 1]);
    drop(writer);
    bytes
}
