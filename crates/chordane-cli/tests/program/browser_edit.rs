//! Editing on the live page by everybody: by touch, by keys alone, by those who listen; and new shapes. Run with `--include-ignored` where Chromium is
//! installed.

use std::path::PathBuf;

use crate::browser_trace::processor_time;
use crate::pages::{Live, Page, wait_for_file};
use crate::support::loft;

/// A sail whose vertices are typed, on a sheet that the page shows somewhat smaller.
const SAIL: &str = r##"let sail = closed([[100, 100], [300, 60], [260, 300]]);
sheet(400, 400).ground("#f4efe6").add(sail.fill("#c8553d").named("sail"))
"##;

const SHEET: (f64, f64) = (400.0, 400.0);
const ENTER: char = '\u{e007}';
const ESCAPE: char = '\u{e00c}';
const TAB: char = '\u{e004}';
const SHIFT: char = '\u{e008}';
const CONTROL: char = '\u{e009}';
const BACKSPACE: char = '\u{e003}';
const DELETE: char = '\u{e017}';
const LEFT: char = '\u{e012}';
const RIGHT: char = '\u{e014}';
const DOWN: char = '\u{e015}';

fn open(text: &str) -> (tempfile::TempDir, PathBuf, Live, Page) {
    let (folder, score) = loft(text);
    let live = Live::of(&score);
    let page = Page::open(&live.address);
    page.wait_for_picture();
    (folder, score, live, page)
}

/// The numbers of the first line of a text.
fn numbers(text: &str) -> Vec<f64> {
    let line = text.lines().next().unwrap();
    line.split(|c: char| !(c.is_ascii_digit() || c == '.' || c == '-'))
        .filter_map(|n| n.parse().ok())
        .collect()
}

fn is_near(text: &str, at: usize, (x, y): (f64, f64)) -> bool {
    let all = numbers(text);
    all.len() > at + 1 && (all[at] - x).abs() <= 2.0 && (all[at + 1] - y).abs() <= 2.0
}

#[test]
#[ignore = "needs Chromium"]
fn a_finger_drags_and_chooses_and_two_move_and_zoom() {
    let (_folder, score, _live, page) = open(SAIL);
    let at = |x: f64, y: f64| page.place(SHEET, (x, y));
    // A finger that comes down a little beside a vertex takes it along.
    let (x, y) = at(300.0, 60.0);
    page.fingers(&[&[(x + 8.0, y - 6.0), (x + 20.0, y + 20.0), (x + 48.0, y + 34.0)]]);
    let moved = (300.0 + 40.0 * pixel(&page), 60.0 + 40.0 * pixel(&page));
    let text = wait_for_file(&score, |text| is_near(text, 2, moved));
    assert!(is_near(&text, 0, (100.0, 100.0)) && is_near(&text, 4, (260.0, 300.0)), "{text}");
    page.click("#undo");
    wait_for_file(&score, |text| text == SAIL);
    // A tap chooses.
    page.fingers(&[&[at(260.0, 300.0)]]);
    page.wait("document.querySelector('#overlay .chosen')");
    page.wait("document.querySelector('#said').textContent.startsWith('vertex 2 of sail, at 260, 300')");
    // Beside all points a finger moves the picture, and two zoom it.
    let left = || page.run("return document.querySelector('#paper').offsetLeft").as_f64().unwrap();
    let before = left();
    let (x, y) = at(180.0, 380.0);
    page.fingers(&[&[(x, y), (x + 15.0, y), (x + 60.0, y)]]);
    assert!((left() - before - 60.0).abs() <= 2.0, "{} after {before}", left());
    let zoom = || page.run("return document.querySelector('#paper').clientWidth").as_f64().unwrap();
    let before = zoom();
    let (x, y) = at(200.0, 200.0);
    page.fingers(&[
        &[(x - 40.0, y), (x - 60.0, y), (x - 80.0, y)],
        &[(x + 40.0, y), (x + 60.0, y), (x + 80.0, y)],
    ]);
    assert!((zoom() / before - 2.0).abs() < 0.1, "{} after {before}", zoom());
    assert_eq!(std::fs::read_to_string(&score).unwrap(), SAIL);
}

/// How long a pixel of the screen is on the sheet.
fn pixel(page: &Page) -> f64 {
    page.run("return 400 / document.querySelector('#paper').clientWidth").as_f64().unwrap()
}

#[test]
#[ignore = "needs Chromium"]
fn a_vertex_is_dragged_that_the_pointer_was_not_over_before() {
    let (_folder, score, _live, page) = open(SAIL);
    let at = |x: f64, y: f64| page.place(SHEET, (x, y));
    page.snatch(at(300.0, 60.0), at(340.0, 100.0));
    wait_for_file(&score, |text| is_near(text, 2, (340.0, 100.0)));
    page.click("#undo");
    wait_for_file(&score, |text| text == SAIL);
    // With Shift on the crossings of a grid, whose lines are 8 pixels apart at least: 10 units here.
    page.drag_with(SHIFT, at(300.0, 60.0), at(343.0, 96.0));
    let text = wait_for_file(&score, |text| text != SAIL);
    assert!(numbers(&text)[2..4].iter().all(|number| number % 10.0 == 0.0), "{text}");
    page.click("#undo");
    wait_for_file(&score, |text| text == SAIL);
    // The middle of typed vertices takes them all along.
    page.drag(at(200.0, 180.0), at(240.0, 200.0));
    let text = wait_for_file(&score, |text| text != SAIL);
    let (before, after) = (numbers(SAIL), numbers(&text));
    let by = [after[0] - before[0], after[1] - before[1]];
    for (vertex, was) in after.chunks(2).zip(before.chunks(2)) {
        let off = (vertex[0] - was[0] - by[0]).abs() + (vertex[1] - was[1] - by[1]).abs();
        assert!(off < 1e-9, "{text}");
    }
    assert!((by[0] - 40.0).abs() <= 2.0 && (by[1] - 20.0).abs() <= 2.0, "{by:?}");
}

#[test]
#[ignore = "needs Chromium"]
fn all_points_are_reached_by_keys_and_told_to_those_who_listen() {
    let text = r##"let sail = start([100, 100]).line([300, 60]).cubic([360, 160], [330, 260], [260, 300]).close();
sheet(400, 400).ground("#f4efe6").add(sail.fill(linear_gradient([100, 100], [200, 250]).colours(["gold", "teal"])).named("sail"))
"##;
    let (_folder, score, _live, page) = open(text);
    let said =
        |what: &str| page.wait(&format!("document.querySelector('#said').textContent.startsWith('{what}')"));
    page.run("document.querySelector('#stage').focus()");
    page.keys(&[], &['n']);
    said("vertex 0 of sail, at 100, 100. Arrow keys move it.");
    for what in [
        "vertex 1 of sail, at 300, 60.",
        "vertex 2 of sail",
        "control point 1 of segment 1 of sail, at 360, 160.",
        "control point 2 of segment 1",
        "centre of sail",
        // It lies under the first vertex.
        "beginning of the gradient of sail, at 100, 100.",
        "end of the gradient of sail, at 200, 250.",
    ] {
        page.keys(&[], &['n']);
        said(what);
    }
    page.keys(&[], &[RIGHT]);
    wait_for_file(&score, |now| now == text.replace("[200, 250]", "[201, 250]"));
    said("201, 250");
    // After the last comes the first, and before the first the last.
    page.keys(&[], &['n', 'p', 'p']);
    said("beginning of the gradient of sail, at 100, 100.");
    // It is still what is moved once the vertex does not lie under it any more.
    page.keys(&[SHIFT], &[DOWN, DOWN]);
    let moved = wait_for_file(&score, |now| now.contains("linear_gradient([100, 120], [201, 250])"));
    assert!(moved.contains("start([100, 100])"), "{moved}");
    // From wherever the focus is, but not from the editor.
    page.run("document.querySelector('#surround').focus()");
    page.keys(&[CONTROL], &['z']);
    wait_for_file(&score, |now| now == text);
    page.keys(&[CONTROL, SHIFT], &['z']);
    wait_for_file(&score, |now| now == moved);
}

#[test]
#[ignore = "needs Chromium"]
fn vertices_go_in_and_out_by_keys_and_the_way_out_of_the_editor_is_told() {
    let (_folder, score, _live, page) = open(SAIL);
    page.run("document.querySelector('#stage').focus()");
    page.keys(&[], &['n', 'n']);
    page.wait("document.querySelector('#said').textContent.startsWith('vertex 1 of sail')");
    page.keys(&[], &['i']);
    wait_for_file(&score, |text| text.contains("[300, 60], [280, 180], [260, 300]"));
    // Backspace, with the focus on a button that was pressed.
    page.wait("document.querySelector('#overlay .chosen')");
    page.click("#surround");
    page.keys(&[], &[BACKSPACE]);
    wait_for_file(&score, |text| text.contains("[[100, 100], [280, 180], [260, 300]]"));
    page.wait("!document.querySelector('#overlay .chosen')");
    // Nothing is chosen any more, and that is said.
    page.keys(&[], &[DELETE]);
    page.wait("document.querySelector('#under').textContent.startsWith('Nothing is chosen')");
    // What was chosen is not marked any more once the change before is taken back.
    page.click("#undo");
    page.wait("!document.querySelector('#overlay .chosen')");
    assert_eq!(
        page.text("#help"),
        "Escape, then Tab: out of the editor. Control and Space: the words of scores."
    );
    page.run("document.querySelector('.cm-content').focus()");
    page.keys(&[], &[ESCAPE, TAB]);
    page.wait("document.activeElement.closest('.cm-editor') === null");
}

#[test]
#[ignore = "needs Chromium"]
fn double_clicks_say_what_is_true() {
    let text = "sheet(400, 400).add(start([50, 50]).cubic([150, 20], [250, 20], [350, 50]).line([200, 300]).close().fill(\"teal\"))\n";
    let (_folder, score, _live, page) = open(text);
    let at = |x: f64, y: f64| page.place(SHEET, (x, y));
    let told =
        |what: &str| page.wait(&format!("document.querySelector('#toast').textContent.startsWith('{what}')"));
    page.click_twice(at(380.0, 380.0));
    told("there is no side of a shape here");
    // Through what is said there, too.
    page.click_twice(at(200.0, 27.5));
    told("cannot put a vertex in here: this side is a curve");
    assert_eq!(std::fs::read_to_string(&score).unwrap(), text);
}

#[test]
#[ignore = "needs Chromium"]
fn w_changes_how_a_point_is_held_and_never_the_text() {
    let text = "sheet(400, 400).ground(\"#f4efe6\").add(polygon(pt(200, 200), 5, 120).fill(\"#2f6f73\"))\n";
    let (_folder, score, _live, page) = open(text);
    let at = |x: f64, y: f64| page.place(SHEET, (x, y));
    page.click(".cm-content");
    page.hover_grip(at(200.0, 80.0));
    page.wait("document.querySelector('#under').textContent.includes('(way 1 of')");
    page.keys(&[], &['w']);
    page.wait("document.querySelector('#under').textContent.includes('(way 2 of')");
    // Of what is chosen.
    page.click_at(at(200.0, 80.0));
    page.hover(at(350.0, 390.0));
    page.keys(&[], &[ESCAPE, 'n']);
    page.wait("document.querySelector('#overlay .chosen')");
    page.keys(&[], &['w']);
    page.wait("document.querySelector('#under').textContent.includes('(way 2 of')");
    std::thread::sleep(std::time::Duration::from_millis(400));
    assert_eq!(std::fs::read_to_string(&score).unwrap(), text);
    // What is shown before the drag is what it changes, also across the line on which the number moves it.
    page.hover_grip(at(200.0, 80.0));
    page.wait("document.querySelectorAll('.held-number').length > 0");
    let shown =
        page.run("return [...document.querySelectorAll('.held-number')].map((one) => one.textContent)");
    page.pull(at(200.0, 80.0), at(240.0, 82.0));
    let after = std::fs::read_to_string(&score).unwrap();
    let shown: Vec<&str> = shown.as_array().unwrap().iter().filter_map(|one| one.as_str()).collect();
    if shown == ["120"] {
        assert!(after.contains("pt(200, 200), 5, "), "{after}");
    }
}

#[test]
#[ignore = "needs Chromium"]
fn a_new_shape_is_clicked_and_written_into_the_score() {
    let text = format!("{SAIL}// the end\n");
    let (_folder, score, _live, page) = open(&text);
    let at = |x: f64, y: f64| page.place(SHEET, (x, y));
    page.click("#new-shape");
    for place in [(40.0, 320.0), (160.0, 300.0), (150.0, 380.0)] {
        page.click_at(at(place.0, place.1));
    }
    page.click("#outline-soft");
    page.click_at(at(60.0, 390.0));
    // Taken back, and put elsewhere.
    page.keys(&[], &[BACKSPACE]);
    page.click_at(at(50.0, 380.0));
    page.wait("document.querySelector('#outline-told').textContent === 'New shape: 4 vertices.'");
    page.wait("document.querySelector('#overlay .traced.active')");
    page.keep("live-new-shape");
    // A click on the first vertex closes it.
    page.click_at(at(40.0, 320.0));
    let written = wait_for_file(&score, |now| now != text);
    let lines: Vec<&str> = written.lines().collect();
    assert!(lines[2].starts_with("    .add(through([corner([") && lines[2].contains("soft(["), "{written}");
    assert!(lines[2].ends_with(".close().fill(\"#c8553d\"))"), "{written}");
    assert_eq!(lines[3], "// the end");
    let all: Vec<f64> = lines[2]
        .split(|c: char| !(c.is_ascii_digit() || c == '.' || c == '-'))
        .filter_map(|number| number.parse().ok())
        .take(8)
        .collect();
    let meant = [40.0, 320.0, 160.0, 300.0, 150.0, 380.0, 50.0, 380.0];
    assert!(
        all.iter().zip(meant).all(|(own, meant)| own.fract() == 0.0 && (own - meant).abs() <= 2.0),
        "{all:?}"
    );
    page.wait("document.querySelector('#outline-bar').hidden");
    page.wait("document.querySelector('#file').textContent.startsWith('saved ')");
    // By keys alone: a line from the middle of the sheet.
    let before = written;
    page.run("document.querySelector('#stage').focus()");
    page.keys(&[], &['a', 'c', 'a', 'a']);
    page.keys(&[SHIFT], &[LEFT]);
    page.keys(&[], &['a']);
    page.keys(&[SHIFT], &[ENTER]);
    let written = wait_for_file(&score, |now| now != before);
    assert!(
        written.contains("\n    .add(open([[200, 200], [190, 200]]).stroke(\"#20303c\", 2))\n// the end"),
        "{written}"
    );
    page.wait("document.querySelector('#outline-bar').hidden");
    // Called off, it can be brought back.
    page.keys(&[], &['a', 'a', 'a', ESCAPE]);
    page.click("#toast button");
    page.wait("document.querySelector('#outline-told').textContent === 'New shape: 1 vertex.'");
    // The page is loaded again in the middle of it.
    page.keys(&[SHIFT], &[LEFT]);
    page.keys(&[], &['a']);
    page.wait("document.querySelector('#outline-told').textContent === 'New shape: 2 vertices.'");
    page.run("location.reload()");
    page.wait("document.querySelector('#shape-offer')");
    page.click("#shape-offer button");
    page.wait("document.querySelector('#outline-told').textContent === 'New shape: 2 vertices.'");
    page.click("#outline-cancel");
    page.wait("document.querySelector('#outline-bar').hidden");
}

#[test]
#[ignore = "needs Chromium"]
fn exports_are_checked_shown_and_called_off() {
    let text = "let t = phase();\nlet sum = 0;\nfor i in 0..40000 { sum += i; }\nsheet(400, 400).ground(\"#f4efe6\").add(circle(pt(200 + 90 * t, 200), 60).fill(\"teal\"))\n";
    let (_folder, _score, live, page) = open(text);
    page.wait("document.querySelector('[data-format=y4m]')");
    let frames = |count: &str| {
        page.run(&format!("document.querySelector('#frames').value = '{count}'"));
        page.click("[data-format=y4m]");
    };
    let told =
        |what: &str| page.wait(&format!("document.querySelector('#export-told').textContent === '{what}'"));
    frames("100000000");
    told("Frames: give a whole number from 1 to 2000.");
    frames("2000");
    page.wait("document.querySelector('#exports progress')?.value > 0");
    page.keep("live-export");
    // Small ones do not wait for it.
    page.click("[data-format=png]");
    told("kite.png is saved where the browser puts downloads.");
    page.click("#exports [data-export=\"kite.y4m\"] button");
    told("kite.y4m was cancelled; nothing is saved.");
    // Nothing goes on.
    let busy = || processor_time(live.process());
    crate::pages::wait("rest", || {
        let before = busy();
        std::thread::sleep(std::time::Duration::from_millis(400));
        busy() - before <= 2
    });
    // The server checks for itself.
    frames("2");
    told("kite.y4m is saved where the browser puts downloads.");
}

#[test]
#[ignore = "needs Chromium"]
fn a_mistake_is_mended_by_the_word_that_is_meant_and_a_missing_bracket_is_told_where_it_opens() {
    let text = "sheet(400, 400)\n    .add(circl(pt(200, 200), 60).fill(\"teal\"))\n";
    let (_folder, score, _live, page) = open_broken(text);
    page.wait("!document.querySelector('#mistake').hidden");
    page.click("#mistake .mend");
    wait_for_file(&score, |now| now == text.replace("circl(", "circle("));
    page.wait("document.querySelector('#mistake').hidden");
    std::fs::write(
        &score,
        "let sail = circle(pt(200, 200), 60;\nlet bow = 3;\nsheet(400, 400).add(sail.fill(\"teal\"))\n",
    )
    .unwrap();
    page.wait("!document.querySelector('#mistake').hidden");
    assert_eq!(page.text("#mistake .go"), "Line 1: `)` is missing: this `(` is not closed");
    assert_eq!(page.text("#mistake p"), "write `)` before the `;`");
}

fn open_broken(text: &str) -> (tempfile::TempDir, PathBuf, Live, Page) {
    let (folder, score) = loft(text);
    let live = Live::of(&score);
    let page = Page::open(&live.address);
    (folder, score, live, page)
}

/// A score that takes long: what is pressed is taken along once it is known what it depends on.
#[test]
#[ignore = "needs Chromium"]
fn a_vertex_of_a_slow_score_is_dragged_once_its_numbers_are_known() {
    let slow = SAIL.replace("sheet(400", "let sum = 0;\nfor i in 0..400000 { sum += i; }\nsheet(400");
    let (_folder, score, _live, page) = open(&slow);
    let at = |x: f64, y: f64| page.place(SHEET, (x, y));
    page.snatch_and_hold(at(300.0, 60.0), at(340.0, 100.0));
    page.wait("!document.querySelector('.cm-content').textContent.includes('[300, 60]')");
    page.release();
    let text = wait_for_file(&score, |text| is_near(text, 2, (340.0, 100.0)));
    assert!(is_near(&text, 0, (100.0, 100.0)) && is_near(&text, 4, (260.0, 300.0)), "{text}");
}

#[test]
#[ignore = "needs Chromium"]
fn knobs_take_numbers_alone_and_a_document_says_that_it_is_one() {
    let text = "let size = knob(\"size\", 60, 10, 90);\nsheet(400, 400).add(circle(pt(200, 200), size).fill(\"teal\"))\n";
    let (folder, _score, live, page) = open(text);
    let script = format!(
        "const done = arguments[0]; const socket = new WebSocket('ws://{}/socket?token={}'); \
         socket.onopen = () => socket.send(JSON.stringify({{ ask: 'knob', name: 'size', value: 'NaN', more: false }})); \
         socket.onmessage = (event) => {{ const told = JSON.parse(event.data); if (told.tell === 'refused') done(told.message); }};",
        live.host(),
        live.token()
    );
    assert_eq!(page.run_long(&script), "the knob size takes numbers, and NaN is none");
    let drawing = folder.path().join("kite.svg");
    std::fs::write(&drawing, "<svg xmlns='http://www.w3.org/2000/svg' width='400' height='400'><rect x='100' y='100' width='200' height='200' fill='teal'/></svg>").unwrap();
    let live = Live::of(&drawing);
    let page = Page::open(&live.address);
    page.wait_for_picture();
    page.hover(page.place(SHEET, (200.0, 200.0)));
    page.wait("document.querySelector('#under').textContent.endsWith('points of an .svg document cannot be dragged: change its text')");
}

/// A point knob's handle stands on what the knob moves, also where that is turned; and what comes from a knob changes the knob.
#[test]
#[ignore = "needs Chromium"]
fn points_of_knobs_are_dragged_where_they_are_seen() {
    let text = "let tip = knob(\"tip\", pt(0, -100));\nlet wide = knob(\"wide\", 60, 10, 150);\nlet sail = closed([tip, [wide, 0], [0, 120], [-60, 0]]).rotated(deg(90)).moved([200, 200]);\nsheet(400, 400).ground(\"#f4efe6\").add(sail.fill(\"#c8553d\"))\n";
    let (_folder, score, _live, page) = open(text);
    let at = |x: f64, y: f64| page.place(SHEET, (x, y));
    let value = |name: &str, what: &str| {
        page.wait(&format!("(() => {{ const [x, y] = document.querySelector('#knob-{name}').value.split(',').map(Number); return {what}; }})()"));
    };
    // The tip is to the right of the middle, and so is its handle.
    let place = "(() => { const box = document.querySelector('#overlay .handle').getBoundingClientRect(); const paper = document.querySelector('#paper').getBoundingClientRect(); return [(box.left + box.width / 2 - paper.left) / paper.width * 400, (box.top + box.height / 2 - paper.top) / paper.height * 400]; })()";
    page.wait(&format!("{place}[0] > 290"));
    let shown = page.run(&format!("return {place}"));
    assert!(
        (shown[0].as_f64().unwrap() - 300.0).abs() < 2.0 && (shown[1].as_f64().unwrap() - 200.0).abs() < 2.0,
        "{shown}"
    );
    page.pull(at(300.0, 200.0), at(340.0, 180.0));
    value("tip", "Math.abs(x + 20) <= 2 && Math.abs(y + 140) <= 2");
    page.wait(&format!("Math.abs({place}[0] - 340) < 2 && Math.abs({place}[1] - 180) < 2"));
    // The vertex to the right of it before it was turned: below now, and as far as the knob says.
    page.drag(at(200.0, 260.0), at(200.0, 300.0));
    value("wide", "Math.abs(x - 100) <= 2");
    // Once more, from where it is set now.
    page.drag(at(200.0, 300.0), at(200.0, 280.0));
    value("wide", "Math.abs(x - 80) <= 2");
    assert_eq!(std::fs::read_to_string(&score).unwrap(), text);
    page.click("#undo");
    value("wide", "Math.abs(x - 100) <= 2");
    page.click("#keep-knobs");
    wait_for_file(&score, |now| {
        now.contains("knob(\"wide\", 100")
            || now.contains("knob(\"wide\", 99")
            || now.contains("knob(\"wide\", 101")
    });
}

#[test]
#[ignore = "needs Chromium"]
fn the_columns_are_as_wide_as_one_makes_them() {
    let (_folder, _score, _live, page) = open(SAIL);
    let width = || page.run("return document.querySelector('#text-pane').clientWidth").as_f64().unwrap();
    // Sixty characters of the text are seen at first.
    let fits = page.run(
        "const ruler = document.createElement('span'); ruler.textContent = 'x'.repeat(60); ruler.style.position = 'absolute'; \
         const scroller = document.querySelector('.cm-scroller'); scroller.append(ruler); const wide = ruler.offsetWidth; ruler.remove(); \
         return wide > 300 && wide <= scroller.clientWidth - document.querySelector('.cm-gutters').offsetWidth",
    );
    assert_eq!(fits, true);
    let before = width();
    let edge = page.run("const box = document.querySelector('#text-edge').getBoundingClientRect(); return [box.left + 2, box.top + 200]");
    let edge = (edge[0].as_f64().unwrap(), edge[1].as_f64().unwrap());
    page.pull(edge, (edge.0 - 120.0, edge.1));
    assert!((before - width() - 120.0).abs() <= 3.0, "{} after {before}", width());
    let narrow = width();
    page.run("document.querySelector('#text-edge').focus()");
    page.keys(&[], &[RIGHT]);
    assert!((width() - narrow - 16.0).abs() <= 1.0, "{} after {narrow}", width());
    let kept = width();
    page.click("#wrap");
    page.wait("document.querySelector('.cm-lineWrapping')");
    page.click("#show-text");
    page.wait("document.querySelector('#text-pane').clientWidth === 0");
    page.run("location.reload()");
    page.wait_for_picture();
    assert_eq!(width(), 0.0);
    page.click("#show-text");
    assert!((width() - kept).abs() <= 1.0, "{} was {kept}", width());
    page.wait("document.querySelector('.cm-lineWrapping')");
}
