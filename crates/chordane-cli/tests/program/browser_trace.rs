//! Tracing and marks in a real browser, against the program as it is run. Run with `--include-ignored` where Chromium and its driver are installed.

use std::path::{Path, PathBuf};
use std::process::{Command, Stdio};
use std::time::{Duration, Instant};

use crate::pages::{Live, Page, wait, wait_for_file};
use crate::support::{chordane, loft};
use predicates::str::contains;

const SIZE: (f64, f64) = (640.0, 480.0);

/// The demo's picture to trace.
fn photo(folder: &Path) -> PathBuf {
    let score = concat!(env!("CARGO_MANIFEST_DIR"), "/demo/kite-photo.chord");
    let photo = folder.join("kite-photo.png");
    chordane().args(["draw", score, "-o"]).arg(&photo).assert().success();
    photo
}

fn vertices(page: &Page) -> u64 {
    page.run("return document.querySelectorAll('#overlay .vertex').length").as_u64().unwrap()
}

/// A picture being traced to a file.
fn traced(name: &str) -> (tempfile::TempDir, std::path::PathBuf, Live, Page) {
    let folder = tempfile::tempdir().unwrap();
    let (photo, out) = (photo(folder.path()), folder.path().join(name));
    let live = Live::start(&["trace", photo.to_str().unwrap(), "-o", out.to_str().unwrap()]);
    let page = Page::open(&live.address);
    page.wait_for_picture();
    (folder, out, live, page)
}

#[test]
#[ignore = "needs Chromium"]
fn a_picture_is_traced_and_nothing_is_lost_when_the_program_is_killed() {
    let folder = tempfile::tempdir().unwrap();
    let (photo, out) = (photo(folder.path()), folder.path().join("kite.svg"));
    let score = folder.path().join("kite.chord");
    let arguments =
        ["trace", photo.to_str().unwrap(), "-o", out.to_str().unwrap(), "-o", score.to_str().unwrap()];
    let live = Live::start(&arguments);
    let page = Page::open(&live.address);
    page.wait_for_picture();
    let at = |x: f64, y: f64| page.place(SIZE, (x, y));
    let count = |wanted: u64| wait(&format!("{wanted} vertices"), || vertices(&page) == wanted);
    for (number, (x, y)) in [(337.0, 60.0), (417.0, 193.0), (300.0, 320.0), (258.0, 369.0), (202.0, 139.0)]
        .into_iter()
        .enumerate()
    {
        page.click_at(at(x, y));
        count(number as u64 + 1);
    }
    page.keep("trace-five");
    page.keys(&[], &['z', 'z']);
    count(3);
    page.keys(&[], &['y']);
    count(4);
    page.keys(&[], &['\u{e007}']);
    page.wait("document.querySelector('#shapes').textContent.includes('4 vertices, closed')");
    let svg = wait_for_file(&out, |text| text.contains('Z'));
    live.kill();
    // The page says so, and the same call goes on where it ended.
    page.wait("document.querySelector('#state').textContent.includes('No connection')");
    let live = Live::start(&arguments);
    page.go("about:blank");
    page.go(&live.address);
    page.wait_for_picture();
    count(4);
    assert_eq!(std::fs::read_to_string(&out).unwrap(), svg);
    assert!(std::fs::read_to_string(&score).unwrap().contains("closed"), "the score has the shape");
    // All of it can still be taken back; empty shapes vanish.
    for _ in 0..5 {
        page.click("#undo");
    }
    count(0);
    assert_eq!(page.run("return document.querySelector('#shapes').children.length"), 0);
}

#[test]
#[ignore = "needs Chromium"]
fn another_hand_and_another_picture_are_asked_about() {
    let folder = tempfile::tempdir().unwrap();
    let (photo, out) = (photo(folder.path()), folder.path().join("kite.svg"));
    let call = ["trace", photo.to_str().unwrap(), "-o", out.to_str().unwrap()];
    let live = Live::start(&call);
    let page = Page::open(&live.address);
    page.wait_for_picture();
    let at = |x: f64, y: f64| page.place(SIZE, (x, y));
    let count = |wanted: u64| wait(&format!("{wanted} vertices"), || vertices(&page) == wanted);
    let places =
        [(337.0, 60.0), (417.0, 193.0), (300.0, 320.0), (202.0, 139.0), (258.0, 369.0), (120.0, 420.0)];
    let add = |number: usize| {
        page.click_at(at(places[number].0, places[number].1));
        count(number as u64 + 1);
    };
    (0..3).for_each(add);
    wait("the outline", || out.exists());
    // An edit by hand, while it is being traced: asked about, and meanwhile every step is kept.
    let edited = "<!-- by hand --><svg xmlns='http://www.w3.org/2000/svg'/>";
    std::fs::write(&out, edited).unwrap();
    add(3);
    page.wait(
        "document.querySelector('#answer')?.textContent.includes('kite.svg holds what was not written here')",
    );
    page.keep("trace-asked");
    assert_eq!(std::fs::read_to_string(&out).unwrap(), edited);
    page.click("#answer button:last-child");
    page.wait("document.querySelector('#answer') === null");
    add(4);
    assert_eq!(std::fs::read_to_string(&out).unwrap(), edited);
    // Started again, it is asked about again; now it is written over.
    live.kill();
    let live = Live::start(&call);
    page.go("about:blank");
    page.go(&live.address);
    page.wait_for_picture();
    count(5);
    page.click("#answer button");
    let svg = wait_for_file(&out, |text| text.contains("<path"));
    live.kill();
    // Another picture under the same outlines: nothing is drawn before that is answered.
    let other = folder.path().join("other.png");
    chordane()
        .args(["draw", "-", "--as", "png", "-o"])
        .arg(&other)
        .write_stdin("sheet(640, 480).ground(\"#dfe9ee\")")
        .assert()
        .success();
    let call = ["trace", other.to_str().unwrap(), "-o", out.to_str().unwrap()];
    chordane()
        .args(call)
        .args(["--auto", "--no-page"])
        .assert()
        .code(2)
        .stderr(contains("were drawn over another picture"));
    let live = Live::start(&call);
    page.go("about:blank");
    page.go(&live.address);
    page.wait_for_picture();
    page.wait("document.querySelector('#answer')?.textContent.includes('another picture')");
    page.click_at(at(120.0, 420.0));
    page.wait("document.querySelector('#toast').textContent.includes('answer the question above first')");
    assert_eq!((vertices(&page), std::fs::read_to_string(&out).unwrap()), (5, svg));
    page.click("#answer button");
    page.wait("document.querySelector('#answer') === null");
    add(5);
    live.kill();
    chordane().args(call).args(["--auto", "--no-page"]).assert().success();
}

/// Held arrow keys move the chosen vertex by every press.
#[test]
#[ignore = "needs Chromium"]
fn held_arrow_keys_move_the_traced_vertex_by_every_press() {
    let (_folder, out, _live, page) = traced("kite.txt");
    let at = |x: f64, y: f64| page.place(SIZE, (x, y));
    for (number, (x, y)) in [(100.0, 100.0), (300.0, 100.0), (300.0, 300.0)].into_iter().enumerate() {
        page.click_at(at(x, y));
        wait("a vertex", || vertices(&page) == number as u64 + 1);
    }
    page.keys(&[], &['\u{e007}', 'v']);
    let first = wait_for_file(&out, |text| text.contains('Z'));
    let x = |text: &str| -> f64 {
        text.trim_start_matches('M').split([' ', ',']).next().unwrap().parse().unwrap()
    };
    page.burst('\u{e014}', 30, 33);
    wait("all presses", || {
        std::fs::read_to_string(&out).is_ok_and(|text| (x(&text) - x(&first) - 30.0).abs() < 0.02)
    });
    // They are taken back and done again together, wherever the focus is.
    page.click("#surround");
    page.keys(&['\u{e009}'], &['z']);
    wait_for_file(&out, |text| text == first);
    page.keys(&['\u{e009}', '\u{e008}'], &['z']);
    wait("all presses", || {
        std::fs::read_to_string(&out).is_ok_and(|text| (x(&text) - x(&first) - 30.0).abs() < 0.02)
    });
}

#[test]
#[ignore = "needs Chromium"]
fn fingers_place_and_move_vertices() {
    let (_folder, out, _live, page) = traced("kite.chord");
    let at = |x: f64, y: f64| page.place(SIZE, (x, y));
    for (number, (x, y)) in [(100.0, 100.0), (300.0, 100.0), (300.0, 300.0)].into_iter().enumerate() {
        page.fingers(&[&[at(x, y)]]);
        wait("a vertex", || vertices(&page) == number as u64 + 1);
    }
    // A finger a little beside a vertex takes it along.
    let (x, y) = at(300.0, 100.0);
    page.fingers(&[&[(x + 6.0, y - 6.0), (x + 20.0, y + 10.0), at(340.0, 140.0)]]);
    wait_for_file(&out, |text| {
        let numbers =
            text.split(|c: char| !(c.is_ascii_digit() || c == '.')).filter_map(|n| n.parse::<f64>().ok());
        // After the number of the shape and the first vertex.
        numbers.skip(3).take(2).zip([340.0, 140.0]).all(|(now, meant)| (now - meant).abs() < 8.0)
    });
    assert_eq!(vertices(&page), 3);
    page.keys(&[], &['v']);
    page.wait("document.querySelector('#said').textContent.startsWith('shape 1, vertex 0, at ')");
}

#[test]
#[ignore = "needs Chromium"]
fn what_was_just_closed_becomes_a_hole_or_it_is_said_why_not() {
    let (_folder, out, _live, page) = traced("kite.chord");
    let at = |x: f64, y: f64| page.place(SIZE, (x, y));
    let square = |(x, y): (f64, f64), side: f64| {
        for (right, down) in [(0.0, 0.0), (side, 0.0), (side, side), (0.0, side)] {
            page.click_at(at(x + right, y + down));
        }
        page.keys(&[], &['\u{e007}']);
    };
    square((100.0, 80.0), 240.0);
    page.wait("document.querySelector('#shapes').textContent.includes('4 vertices, closed')");
    page.keys(&[], &['h']);
    page.wait("document.querySelector('#toast').textContent === 'shape 1 cannot be a hole: it has to be closed, and to lie in another closed shape'");
    square((160.0, 140.0), 90.0);
    page.wait("document.querySelectorAll('#shapes li').length === 2");
    page.keys(&[], &['h']);
    page.wait("document.querySelector('#shapes').textContent.includes('hole in 1')");
    wait_for_file(&out, |text| text.contains(".with_hole(shape_2)"));
}

#[test]
#[ignore = "needs Chromium"]
fn shapes_are_bent_have_holes_and_are_drawn_by_keys() {
    let (folder, out, live, page) = traced("kite.svg");
    let at = |x: f64, y: f64| page.place(SIZE, (x, y));
    let says =
        |what: &str| page.wait(&format!("document.querySelector('#shapes').textContent.includes('{what}')"));
    for (x, y) in [(330.0, 60.0), (420.0, 190.0), (260.0, 370.0), (200.0, 140.0)] {
        page.click_at(at(x, y));
    }
    says("4 vertices, open");
    // A click on the first one closes.
    page.click_at(at(330.0, 60.0));
    says("4 vertices, closed");
    // A side pulled into a curve.
    page.hover(at(340.0, 280.0));
    page.wait("document.querySelector('#under').textContent.includes('side 1')");
    page.pull(at(340.0, 280.0), at(370.0, 300.0));
    says("5 vertices, closed");
    let svg = wait_for_file(&out, |text| text.contains('c') || text.contains('C'));
    assert!(svg.contains("<path"), "{svg}");
    // A vertex moved, settled on an edge.
    page.click("#snap-edges");
    page.hover(at(200.0, 140.0));
    page.wait("document.querySelector('#under').textContent.includes('vertex 4')");
    page.pull(at(200.0, 140.0), at(224.0, 240.0));
    page.wait("document.querySelector('#overlay .vertex')");
    let steps = wait_for_file(&folder.path().join("kite.svg.steps"), |text| text.contains("\"move\""));
    let moved: serde_json::Value =
        serde_json::from_str(steps.lines().rfind(|line| line.contains("\"move\"")).unwrap()).unwrap();
    let x = moved["step"]["move"]["to"][0].as_f64().unwrap();
    // The panel's left edge is a line from (202, 139) to (258, 369).
    let y = moved["step"]["move"]["to"][1].as_f64().unwrap();
    let edge = 202.4 + (y - 139.3) * (258.9 - 202.4) / (370.0 - 139.3);
    assert!((x - edge).abs() < 1.5, "({x}, {y}), the edge is at {edge}");
    page.click("#snap-edges");
    // A hole, by keys: the cross is moved from the middle, and vertices are placed there.
    page.click("#shapes button");
    page.click("#hole");
    page.run("document.querySelector('#stage').focus()");
    const LEFT: char = '\u{e012}';
    const DOWN: char = '\u{e015}';
    const SHIFT: char = '\u{e008}';
    page.keys(&[], &[LEFT, 'a']);
    page.keys(&[SHIFT], &[LEFT, LEFT]);
    page.keys(&[], &['a']);
    page.keys(&[SHIFT], &[DOWN, DOWN]);
    page.keys(&[], &['a', '\u{e007}']);
    says("3 vertices, closed, hole in 1");
    page.keep("trace-hole");
    // Kinds, picking, deleting.
    page.keys(&[], &['n']);
    page.wait("document.querySelector('#shapes [data-shape=\"1\"]').getAttribute('aria-pressed') === 'true'");
    page.keys(&[], &['v', 's']);
    wait_for_file(&folder.path().join("kite.svg.steps"), |text| text.contains("\"change\""));
    page.click("#delete");
    wait("no shape", || vertices(&page) == 0);
    page.click("#undo");
    says("3 vertices, closed, hole in 1");
    for (ending, what) in [("chord", "with_hole"), ("rs", "with_hole"), ("txt", "M"), ("svg", "<svg")] {
        let script = format!(
            "const done = arguments[arguments.length - 1]; fetch('/save/outline.{ending}?token={}').then((a) => a.text()).then(done)",
            live.token()
        );
        let text = page.run_long(&script);
        assert!(text.as_str().unwrap().contains(what), "{ending}: {text}");
    }
}

#[test]
fn outlines_are_proposed() {
    let folder = tempfile::tempdir().unwrap();
    let (photo, out) = (photo(folder.path()), folder.path().join("kite.svg"));
    let score = folder.path().join("kite.chord");
    let mut call = chordane();
    call.arg("trace").arg(&photo).arg("-o").arg(&out).arg("-o").arg(&score).args(["--auto", "--no-page"]);
    call.assert().success().stderr(predicates::str::contains("shapes were found"));
    assert!(std::fs::read_to_string(&out).unwrap().matches("<path").count() >= 8);
    // The score draws the same.
    let again = folder.path().join("again.svg");
    chordane().arg("draw").arg(&score).arg("-o").arg(&again).assert().success();
    // Asked again, it goes on with what there is.
    call.assert().success().stderr(predicates::str::contains("note: continuing an earlier tracing: "));
    // A file that was not traced is left alone.
    let own = folder.path().join("own.svg");
    std::fs::write(&own, "<svg/>").unwrap();
    let mut call = chordane();
    call.arg("trace").arg(&photo).arg("-o").arg(&own).args(["--auto", "--no-page"]);
    call.assert()
        .failure()
        .code(2)
        .stderr(predicates::str::contains("own.svg already exists, and was not made by chordane trace"));
    assert_eq!(std::fs::read_to_string(&own).unwrap(), "<svg/>");
    let mut call = chordane();
    call.arg("trace").arg(&photo).args(["-o", "outline.exe"]);
    call.assert()
        .failure()
        .code(2)
        .stderr(predicates::str::contains("cannot tell from the name outline.exe what to write"));
    let mut call = chordane();
    call.arg("trace").arg(&score).arg("-o").arg(&out);
    call.assert().failure().code(1).stderr(predicates::str::contains("name a picture, a .png or .jpg file"));
}

const MARKED: &str = r##"let page = sheet(640, 480).ground("#f4efe6");
page.add(marks_closed([0, 1, 2, 3]).fill("#2f6f73"));
page
"##;

#[test]
#[ignore = "needs Chromium"]
fn marks_that_stream_in_are_shown_and_picked() {
    let (_folder, score) = loft(MARKED);
    let mut tracker = Command::new(assert_cmd::cargo::cargo_bin("chordane"))
        .args(["demo", "--tracker"])
        .stdout(Stdio::piped())
        .spawn()
        .unwrap();
    let marks = tracker.stdout.take().unwrap();
    let live =
        Live::start_with(&["live", score.to_str().unwrap(), "--marks", "-", "--marks-held"], marks.into());
    let page = Page::open(&live.address);
    page.wait("document.querySelectorAll('#overlay .mark').length === 8");
    // They move, and the picture with them.
    let place = || page.run("return document.querySelector('#overlay .mark').getAttribute('cx')");
    let (before, serial) = (place(), page.run("return document.querySelector('#stage').dataset.serial"));
    wait("another place", || place() != before);
    wait("another picture", || page.run("return document.querySelector('#stage').dataset.serial") != serial);
    // Held still they can be clicked; what comes in meanwhile is shown afterwards.
    page.click("#marks-pause");
    page.wait("document.querySelector('#marks-pause').textContent === 'Play'");
    let still = place();
    let pick = |number: usize| {
        let script = format!(
            "const box = document.querySelector('[data-mark=\"{number}\"]').getBoundingClientRect(); \
             return [box.left + box.width / 2 + 9, box.top + box.height / 2 - 9]"
        );
        let at = page.run(&script);
        // A little beside it.
        page.click_at((at[0].as_f64().unwrap(), at[1].as_f64().unwrap()));
    };
    [4, 5, 6, 7].into_iter().for_each(pick);
    // A second click on the same mark adds nothing.
    pick(7);
    page.wait("document.querySelector('#marked').textContent === '4 5 6 7'");
    assert_eq!(place(), still);
    page.click("#marks-back");
    page.wait("document.querySelector('#marked').textContent === '4 5 6'");
    page.keep("live-marks");
    page.click("#marks-open");
    [0, 1].into_iter().for_each(pick);
    page.click("#marks-delete");
    page.click("#toast button");
    page.wait("document.querySelector('#marked [aria-pressed=true]')?.textContent === '0 1'");
    page.click("#marks-delete");
    page.click("#marks-pause");
    wait("another place", || place() != still);
    page.click("#marks-previous");
    page.wait("document.querySelector('#marked [aria-pressed=true]')?.textContent === '4 5 6'");
    page.click("#marks-keep");
    let text = wait_for_file(&score, |text| text.contains("marks_open"));
    assert_eq!(
        text,
        format!("{MARKED}    .add(marks_open([4, 5, 6]).stroke(\"#20303c\", 3))\n")
            .replace("page\n    .", "page\n    .")
    );
    let _ = tracker.kill();
    let _ = tracker.wait();
}

#[test]
#[ignore = "needs Chromium"]
fn ten_pages_show_the_same_and_rest_costs_nothing() {
    let (_folder, score) = loft(
        MARKED
            .lines()
            .next()
            .map(|line| format!("{line}\npage.add(circle([320, 240], 90).fill(\"teal\"))\n"))
            .as_deref()
            .unwrap(),
    );
    let live = Live::of(&score);
    let page = Page::open(&live.address);
    page.wait_for_picture();
    let pages: Vec<Page> = (0..9).map(|_| Page::open(&live.address)).collect();
    pages.iter().for_each(Page::wait_for_picture);
    for size in 0..30 {
        std::fs::write(
            &score,
            format!("sheet(640, 480).add(circle([320, 240], {}).fill(\"teal\"))\n", 60 + size),
        )
        .unwrap();
        std::thread::sleep(Duration::from_millis(7));
    }
    for page in pages.iter().chain([&page]) {
        page.wait("document.querySelector('.cm-content').textContent.includes('240], 89)')");
    }
    drop(pages);
    // Nothing is done while nothing happens.
    std::thread::sleep(Duration::from_millis(1500));
    let (before, begin) = (processor_time(live.process()), Instant::now());
    std::thread::sleep(Duration::from_secs(3));
    let used = processor_time(live.process()) - before;
    assert!(used <= 1, "{used} hundredths of a second of {:?} at rest", begin.elapsed());
}

/// The processor time of a process, in hundredths of a second.
pub(crate) fn processor_time(process: u32) -> u64 {
    let text = std::fs::read_to_string(format!("/proc/{process}/stat")).unwrap();
    let fields: Vec<&str> = text.rsplit(')').next().unwrap().split_whitespace().collect();
    fields[11].parse::<u64>().unwrap() + fields[12].parse::<u64>().unwrap()
}
