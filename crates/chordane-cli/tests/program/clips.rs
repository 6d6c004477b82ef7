//! Clips of a score that moves: all formats, parts, going on after a kill, and what goes wrong on the way.

use std::collections::BTreeMap;
use std::path::Path;

use predicates::prelude::PredicateBooleanExt as _;
use predicates::str::{contains, starts_with};

use crate::browser::pixels;
use crate::support::{chordane, loft};

/// A bead that swings, and a line that draws itself.
const SWING: &str = r##"let t = phase();
sheet(64, 48).centred().ground("#f4efe6")
    .add(circle(pt(swing(t, -20, 20), 0), 6).fill("#c8553d"))
    .add(open([[-28, 18], [28, 18]]).drawn_in(t).stroke("#20303c", 2))
"##;

/// The files of a folder that end so.
fn files(folder: &Path, ending: &str) -> BTreeMap<String, Vec<u8>> {
    let entries = std::fs::read_dir(folder).unwrap().flatten();
    let named = entries.map(|entry| (entry.file_name().to_string_lossy().into_owned(), entry.path()));
    named
        .filter(|(name, _)| name.ends_with(ending))
        .map(|(name, file)| (name, std::fs::read(file).unwrap()))
        .collect()
}

#[test]
fn one_call_makes_every_kind_of_clip() {
    let (folder, score) = loft(SWING);
    let at = |name: &str| folder.path().join(name);
    let mut call = chordane();
    call.arg("draw").arg(&score).args(["--frames", "10", "--seconds", "2"]);
    for name in ["swing.gif", "swing.apng", "swing.y4m", "swing.png"] {
        call.arg("-o").arg(at(name));
    }
    call.assert().success().stderr(contains("swing-0001.png .. swing-0010.png  10 frames"));
    assert!(std::fs::read(at("swing.gif")).unwrap().starts_with(b"GIF89a"));
    assert!(std::fs::read(at("swing.y4m")).unwrap().starts_with(b"YUV4MPEG2 W64 H48 F5:1 "));
    assert_eq!(files(folder.path(), ".png").len(), 10);
    // Each frame is the picture of its phase, and the first of the clip is that of phase 0.
    let still = |phase: &str| {
        let out = at(&format!("at-{phase}.png"));
        chordane()
            .arg("draw")
            .arg(&score)
            .args(["--phase", phase, "--seconds", "2", "-o"])
            .arg(&out)
            .assert()
            .success();
        std::fs::read(out).unwrap()
    };
    assert_eq!(still("0.3"), std::fs::read(at("swing-0004.png")).unwrap());
    assert_eq!(still("0"), still("1"));
    // Through a pipe too.
    let piped = chordane()
        .arg("draw")
        .arg(&score)
        .args(["--frames", "10", "--seconds", "2", "-o", "-", "--as", "y4m"])
        .assert()
        .success();
    assert_eq!(piped.get_output().stdout, std::fs::read(at("swing.y4m")).unwrap());
}

#[test]
fn parts_put_together_are_the_whole_and_a_lost_one_is_drawn_again() {
    let (folder, score) = loft(SWING);
    let draw = |place: &str, more: &[&str]| {
        let into = folder.path().join(place);
        std::fs::create_dir_all(&into).unwrap();
        let mut call = chordane();
        call.arg("draw")
            .arg(&score)
            .args(["--frames", "11"])
            .args(more)
            .arg("-o")
            .arg(into.join("swing.png"));
        (call.assert().success(), into)
    };
    let (_, whole) = draw("whole", &[]);
    for part in ["1/4", "2/4", "3/4", "4/4"] {
        draw("parts", &["--part", part]);
    }
    let parts = folder.path().join("parts");
    assert_eq!((files(&parts, ".png"), files(&parts, ".png").len()), (files(&whole, ".png"), 11));
    // More parts than frames: some have none.
    let (none, _) = draw("none", &["--part", "1/40"]);
    none.stderr(contains("no file  0 frames"));
    // One that is lost, one that was drawn with another seed, and one that is no picture are drawn again; the others stay.
    std::fs::remove_file(parts.join("swing-0003.png")).unwrap();
    std::fs::write(parts.join("swing-0005.png"), b"half").unwrap();
    chordane()
        .arg("draw")
        .arg(&score)
        .args(["--seed", "5", "--phase", "0.1", "-o"])
        .arg(parts.join("swing-0002.png"))
        .assert()
        .success();
    let (again, _) = draw("parts", &["--resume"]);
    again.stderr(contains("3 frames, 8 were there"));
    assert_eq!(files(&parts, ".png"), files(&whole, ".png"));
}

/// A frame counts as drawn only where it is whole and was drawn with all the same.
#[test]
fn damaged_frames_and_those_drawn_otherwise_are_drawn_again() {
    let (folder, score) = loft(
        "let t = phase();\nlet weave = picture(\"weave.png\");\nsheet(64, 48).add(rectangle([4 + 20 * t, 4], 40, 40).fill(weave.over(cell([4, 4], 40, 40))))\n",
    );
    let weave = folder.path().join("weave.png");
    let paint = |colour: &str| {
        let (_other, source) = loft(&format!("sheet(4, 4).add(rectangle([0, 0], 4, 4).fill(\"{colour}\"))"));
        chordane().arg("draw").arg(&source).arg("-o").arg(&weave).assert().success();
    };
    paint("teal");
    let out = folder.path().join("frame.png");
    let draw = |more: &[&str], told: &str| {
        let mut call = chordane();
        call.arg("draw").arg(&score).args(["--frames", "6", "--resume", "-o"]).arg(&out).args(more);
        call.assert().success().stderr(contains(told.to_owned()));
    };
    draw(&[], "6 frames  ");
    draw(&[], "0 frames, 6 were there");
    let frame = |number: usize| folder.path().join(format!("frame-{number:04}.png"));
    let whole: Vec<Vec<u8>> = (1..=6).map(|number| std::fs::read(frame(number)).unwrap()).collect();
    // Cut in half, without its end, with a byte flipped, and zeros inside.
    let half = whole[0].len() / 2;
    std::fs::write(frame(1), &whole[0][..half]).unwrap();
    std::fs::write(frame(2), &whole[1][..whole[1].len() - 12]).unwrap();
    let mut flipped = whole[2].clone();
    let place = flipped.windows(4).position(|four| four == b"IDAT").unwrap() + 9;
    flipped[place] ^= 4;
    std::fs::write(frame(3), flipped).unwrap();
    let mut zeros = whole[3].clone();
    let end = zeros.len() - 20;
    zeros[end - 16..end].fill(0);
    std::fs::write(frame(4), zeros).unwrap();
    draw(&[], "4 frames, 2 were there");
    for (number, bytes) in (1..=6).zip(&whole) {
        assert!(std::fs::read(frame(number)).unwrap() == *bytes, "{number}");
    }
    // Every option that changes pixels counts, and so does the picture.
    for more in [["--dpi", "48"].as_slice(), &["--grain", "16x12"], &["--no-antialias"]] {
        draw(more, "6 frames  ");
        draw(more, "0 frames, 6 were there");
    }
    draw(&[], "6 frames  ");
    paint("gold");
    draw(&[], "6 frames  ");
    draw(&[], "0 frames, 6 were there");
}

#[test]
fn a_clip_that_is_killed_is_gone_on_with() {
    let slow =
        SWING.replace("let t = phase();", "let t = phase(); let sum = 0; for i in 0..50000 { sum += i; }");
    let (folder, score) = loft(&slow);
    let (killed, whole) = (folder.path().join("killed"), folder.path().join("whole"));
    std::fs::create_dir_all(&killed).unwrap();
    std::fs::create_dir_all(&whole).unwrap();
    let call = |into: &Path| {
        let mut call = std::process::Command::new(assert_cmd::cargo::cargo_bin("chordane"));
        call.arg("draw").arg(&score).args(["--frames", "40", "--resume", "-o"]).arg(into.join("swing.png"));
        call
    };
    assert!(call(&whole).output().unwrap().status.success());
    let mut run = call(&killed).spawn().unwrap();
    let begin = std::time::Instant::now();
    while files(&killed, ".png").len() < 3 && begin.elapsed().as_secs() < 60 {
        std::thread::sleep(std::time::Duration::from_millis(5));
    }
    run.kill().unwrap();
    run.wait().unwrap();
    let there = files(&killed, ".png");
    assert!((1..40).contains(&there.len()), "{}", there.len());
    let all = files(&whole, ".png");
    assert!(there.iter().all(|(name, bytes)| all.get(name) == Some(bytes)), "no frame is half");
    assert!(call(&killed).output().unwrap().status.success());
    assert_eq!(files(&killed, ".png"), all);
    assert!(files(&killed, ".part").is_empty());
    // One file is there whole or not at all.
    let gif = killed.join("swing.gif");
    let mut run = std::process::Command::new(assert_cmd::cargo::cargo_bin("chordane"));
    let mut run = run.arg("draw").arg(&score).args(["--frames", "400", "-o"]).arg(&gif).spawn().unwrap();
    std::thread::sleep(std::time::Duration::from_millis(150));
    run.kill().unwrap();
    run.wait().unwrap();
    assert!(!gif.exists());
}

#[test]
fn a_frame_that_fails_is_told_with_its_phase_and_the_others_are_kept() {
    let (folder, score) =
        loft(&SWING.replace(
            "let t = phase();",
            "let t = phase();\nif t > 0.45 && t < 0.65 { circle(pt(0, 0), -1); }",
        ));
    let out = folder.path().join("swing.png");
    let draw = |out: &Path| {
        let mut call = chordane();
        call.arg("draw").arg(&score).args(["--frames", "10", "-o"]).arg(out);
        call.assert()
    };
    draw(&out)
        .code(1)
        .stderr(contains("in frame 6 of 10, at phase 0.5:"))
        .stderr(contains("the radius -1 is negative"))
        .stderr(contains("2 of 10 frames could not be drawn: 6, 7"))
        .stderr(contains("draw the rest with --resume"));
    assert_eq!(files(folder.path(), ".png").len(), 8);
    let gif = folder.path().join("swing.gif");
    draw(&gif).code(1).stderr(contains("in frame 6 of 10, at phase 0.5:"));
    assert!(!gif.exists());
}

#[test]
fn calls_that_cannot_be_are_told() {
    let (folder, score) = loft(SWING);
    let told = |more: &[&str]| {
        let mut call = chordane();
        call.current_dir(folder.path()).arg("draw").arg(&score).args(more);
        call.assert().code(2)
    };
    told(&["--frames", "0", "-o", "a.gif"])
        .stderr(contains("give a whole number from 1 to 100000000, as in 48"));
    told(&["--frames", "x", "-o", "a.gif"]).stderr(contains("invalid value 'x' for '--frames <N>'"));
    told(&["--part", "5/4", "-o", "a.png"])
        .stderr(contains("give a part and how many there are, as in 3/16"));
    told(&["--phase", "1.5", "-o", "a.png"]).stderr(contains("give a number from 0 to 1, as in 0.25"));
    told(&["--seconds", "0", "-o", "a.gif"]).stderr(contains("give a number above 0, as in 2.5"));
    told(&["--frames", "4", "--phase", "0.5", "-o", "a.gif"])
        .stderr(starts_with("error: a clip goes through all phases"));
    told(&["--part", "1/2", "-o", "a.gif"])
        .stderr(starts_with("error: a.gif cannot be drawn in parts: it is one file"));
    told(&["--resume", "-o", "a.y4m"]).stderr(starts_with("error: a.y4m cannot be resumed: it is one file"));
    told(&["--frames", "4", "-o", "a.gif", "-o", "a.gif"]).stderr(contains("-o a.gif is given twice"));
    told(&["--seconds", "1e9", "-o", "a.gif"])
        .stderr(contains("1000000000 seconds are 25000000000 frames, which is too many"));
    told(&["--frames", "4", "-o", "a.txt"]).stderr(starts_with("error: a.txt cannot hold a clip"));
    told(&["--frames", "4", "-o", "-", "--as", "png"])
        .stderr(starts_with("error: many pictures cannot go to standard output"));
    told(&["--frames", "4", "-o", "gone/a.gif"]).stderr(contains("there is no folder gone"));
    assert_eq!(std::fs::read_dir(folder.path()).unwrap().count(), 1);
    // What does not move is drawn, and told of.
    let (still, score) = loft(crate::support::SAIL);
    let gif = still.path().join("sail.gif");
    chordane()
        .arg("draw")
        .arg(&score)
        .args(["--frames", "3", "-o"])
        .arg(&gif)
        .assert()
        .success()
        .stderr(contains("all its frames are alike"));
    assert!(gif.exists());
}

#[test]
fn moments_of_a_score_stand_side_by_side() {
    let (folder, score) = loft(SWING);
    let strip = folder.path().join("strip.svg");
    chordane().arg("vary").arg(&score).args(["--phases", "8", "-o"]).arg(&strip).assert().success();
    let text = std::fs::read_to_string(&strip).unwrap();
    assert!(text.contains("phase"), "the record has the score");
    let again = folder.path().join("again.png");
    chordane()
        .arg("draw")
        .arg("--again")
        .arg(&strip)
        .args(["--tile", "3", "-o"])
        .arg(&again)
        .assert()
        .success();
    let still = folder.path().join("still.png");
    chordane().arg("draw").arg(&score).args(["--phase", "0.25", "-o"]).arg(&still).assert().success();
    let read = |file: &Path| crate::browser::pixels(file);
    assert_eq!(read(&again), read(&still));
    chordane()
        .arg("vary")
        .arg(&score)
        .args(["--phases", "8", "--seeds", "2", "-o"])
        .arg(&strip)
        .assert()
        .code(2)
        .stderr(contains("--phases 12"));
}

#[test]
fn the_tracker_streams_frames_and_ends_where_nobody_reads() {
    use std::io::{BufRead, BufReader};
    let two = chordane().args(["demo", "--tracker", "--frames", "2"]).assert().success();
    let text = String::from_utf8(two.get_output().stdout.clone()).unwrap();
    assert_eq!(text.lines().count(), 2);
    let mut child = std::process::Command::new(assert_cmd::cargo::cargo_bin("chordane"))
        .args(["demo", "--tracker"])
        .stdout(std::process::Stdio::piped())
        .spawn()
        .unwrap();
    let mut lines = BufReader::new(child.stdout.take().unwrap()).lines();
    assert_eq!(lines.next().unwrap().unwrap(), text.lines().next().unwrap());
    drop(lines);
    assert_eq!(child.wait().unwrap().code(), Some(0));
    chordane().args(["demo", "--frames", "2"]).assert().failure().code(2);
}

#[test]
fn a_track_of_the_pointer_is_drawn_again_exactly() {
    let (folder, score) = loft(
        r##"let at = pointer();
sheet(64, 48).ground("#f4efe6").add(circle(at, if pointer_down() { 9 } else { 4 }).fill("#c8553d"))
"##,
    );
    let at = |name: &str| folder.path().join(name);
    std::fs::write(
        at("track.jsonl"),
        "{\"seconds\": 0, \"at\": [8, 8]}\n{\"seconds\": 1, \"at\": [40, 8], \"down\": true}\n\n{\"seconds\": 2, \"at\": [40, 40]}\n",
    )
    .unwrap();
    let draw = |out: &str, more: &[&str]| {
        chordane().arg("draw").arg(&score).args(more).arg("-o").arg(at(out)).assert().success()
    };
    draw("frame.png", &["--frames", "8", "--track", at("track.jsonl").to_str().unwrap()]);
    // The loop is as long as the track: frame 3 of 8 is at 0.5 seconds, frame 6 at 1.25.
    for (frame, pointer) in [(1, "8,8"), (3, "24,8"), (6, "40,16,down")] {
        draw("still.png", &["--pointer", pointer]);
        let name = format!("frame-{frame:04}.png");
        assert_eq!(pixels(&at("still.png")), pixels(&at(&name)), "frame {frame}");
        // And from the picture alone.
        chordane().args(["draw", "--again"]).arg(at(&name)).arg("-o").arg(at("again.png")).assert().success();
        assert_eq!(pixels(&at("again.png")), pixels(&at(&name)));
    }
    let refused = |more: &[&str], code: i32, told: &str| {
        let mut call = chordane();
        call.arg("draw").arg(&score).args(more).arg("-o").arg(at("none.png"));
        call.assert().failure().code(code).stderr(contains(told));
    };
    refused(&["--pointer", "12"], 2, "give two numbers, as in 120,80, or 120,80,down if it is pressed");
    std::fs::write(at("bad.jsonl"), "{\"seconds\": 0, \"at\": [8, 8]}\n{\"seconds\": 1}\n").unwrap();
    refused(&["--track", at("bad.jsonl").to_str().unwrap()], 1, "bad.jsonl: line 2: missing field `at`");
    std::fs::write(at("bad.jsonl"), "\n").unwrap();
    refused(&["--track", at("bad.jsonl").to_str().unwrap()], 1, "bad.jsonl: the track has no moments");
}

#[test]
fn marks_are_followed_frame_by_frame() {
    let (folder, score) = loft(
        r##"sheet(640, 480).ground("#f4efe6").add(marks_closed([0, 1, 2, 3]).fill("#c8553d")).add(circle(mark(4), 9))
"##,
    );
    let at = |name: &str| folder.path().join(name);
    let stream = chordane().args(["demo", "--tracker", "--frames", "12"]).assert().success();
    let mut lines = stream.get_output().stdout.clone();
    lines.extend(b"[[0,0]\n");
    std::fs::write(at("kite.jsonl"), &lines).unwrap();
    let call = |more: &[&str]| {
        let mut call = chordane();
        call.arg("draw").arg(&score).args(more).current_dir(folder.path());
        call.assert()
    };
    let clip_of = |marks: &str, out: &str| {
        call(&["--marks", marks, "--marks-held", "--marks-smoothed", "1.5", "--frames", "12", "-o", out])
    };
    clip_of("kite.jsonl", "kite.png")
        .success()
        .stderr(contains("note: kite.jsonl: 1 line was skipped\n  line 13: not a frame: "));
    let clip = files(folder.path(), ".png");
    assert_eq!(clip.len(), 12);
    // From standard input, as they stream out of another program.
    let mut call_in = chordane();
    call_in.arg("draw").arg(&score).current_dir(folder.path()).write_stdin(lines.clone());
    call_in.args([
        "--marks",
        "-",
        "--marks-held",
        "--marks-smoothed",
        "1.5",
        "--frames",
        "12",
        "-o",
        "in/kite.png",
    ]);
    std::fs::create_dir(at("in")).unwrap();
    call_in.assert().success().stderr(contains("note: standard input: 1 line was skipped"));
    assert_eq!(files(&at("in"), ".png"), clip);
    // Each frame has its own marks.
    assert!(clip.values().collect::<std::collections::BTreeSet<_>>().len() == 12);
    // The same as rows.
    let reading = chordane_score::Marks::read_json_lines(std::str::from_utf8(&lines).unwrap()).unwrap();
    let mut rows = "frame,mark,x,y,seconds\n".to_owned();
    for (i, frame) in reading.marks.frames().iter().enumerate() {
        for (number, p) in frame.points() {
            rows.push_str(&format!("{i},{number},{},{},{}\n", p.x, p.y, frame.seconds().unwrap()));
        }
    }
    std::fs::write(at("kite.csv"), rows).unwrap();
    std::fs::create_dir(at("rows")).unwrap();
    clip_of("kite.csv", "rows/kite.png").success();
    assert_eq!(files(&at("rows"), ".png"), clip);
    call(&["-o", "none.png"])
        .failure()
        .code(1)
        .stderr(contains("there are no marks").and(contains("help: give some with --marks FILE")));
    std::fs::write(at("few.jsonl"), "[[0,0],[9,0],null,[1,1]]\n").unwrap();
    call(&["--marks", "few.jsonl", "-o", "none.png"])
        .failure()
        .code(1)
        .stderr(contains("mark 4 is missing at this moment (seen: 0, 1, 3)"));
    std::fs::write(at("none.jsonl"), "x\n").unwrap();
    call(&["--marks", "none.jsonl", "-o", "none.png"])
        .failure()
        .code(1)
        .stderr(contains("none.jsonl holds no frames of marks"));
}
