//! The live page in a real browser, against the program as it is run. Run with `--include-ignored` where Chromium and its driver are installed.

use std::io::{Read, Write};
use std::net::TcpStream;
use std::path::PathBuf;
use std::time::Duration;

use crate::pages::{Live, Page, wait, wait_for_file};
use crate::support::loft;
use tempfile::TempDir;

pub(crate) const SHEET: (f64, f64) = (640.0, 480.0);

pub(crate) const SAILS: &str = r##"// Sails on a line.
let size = knob("size", 100, 20, 160);
fn corner_of(a) { pt(320, 260) + polar(deg(a), 170) }
let page = sheet(640, 480).ground("#f4efe6");
page.add(closed([[80, 90], [220, 60], [250, 200], [90, 210]]).fill("#c8553d").stroke("#20303c", 3));
page.add(polygon(pt(480, 130), 4, 70).fill("#2f6f73"));   // a quarter turn
page.add(circle(pt(320, 300), size * 0.3).fill("#e8b04b"));
page.add(open([corner_of(20), corner_of(160)]).stroke("#20303c", 4));
page
"##;

pub(crate) fn sails() -> (TempDir, PathBuf, Live, Page) {
    let (folder, score) = loft(SAILS);
    let live = Live::of(&score);
    let page = Page::open(&live.address);
    page.wait_for_picture();
    (folder, score, live, page)
}

/// The text of the picture that is shown.
fn picture(page: &Page) -> String {
    page.run("return document.querySelector('#paper').shadowRoot.innerHTML")
        .as_str()
        .unwrap_or_default()
        .to_owned()
}

#[test]
#[ignore = "needs Chromium"]
fn what_is_saved_is_seen_and_what_is_typed_is_saved() {
    let (_folder, score, _live, page) = sails();
    assert!(picture(&page).contains("#2f6f73"));
    std::fs::write(&score, SAILS.replace("#2f6f73", "#123456")).unwrap();
    wait("the other colour", || picture(&page).contains("#123456"));
    assert!(page.text(".cm-content").contains("#123456"));
    // Typed at the end of the first line.
    page.run("document.querySelector('.cm-content').focus()");
    page.keys(&[], &['\u{e010}', ' ', 'n', 'o', 'w']);
    let text = wait_for_file(&score, |text| text.starts_with("// Sails on a line. now\n"));
    assert_eq!(text, SAILS.replace("#2f6f73", "#123456").replacen("line.", "line. now", 1));
    // All of it can be taken back. How many changes the typing is depends on how long it rested.
    let all = |way: &str| {
        let mut count = 0;
        while page.run(&format!("return document.querySelector('#{way}').disabled")) == false {
            page.click(&format!("#{way}"));
            count += 1;
            std::thread::sleep(Duration::from_millis(150));
        }
        count
    };
    let count = all("undo");
    assert!((2..=10).contains(&count), "{count}");
    wait_for_file(&score, |text| text == SAILS);
    assert_eq!(all("redo"), count);
    wait_for_file(&score, |now| now == text);
    page.keep("live-edited");
}

#[test]
#[ignore = "needs Chromium"]
fn line_ends_of_other_systems_are_kept() {
    let held = format!("\u{feff}{}", SAILS.replace('\n', "\r\n"));
    let (_folder, score) = loft(&held);
    let live = Live::of(&score);
    let page = Page::open(&live.address);
    page.wait_for_picture();
    page.run("document.querySelector('.cm-content').focus()");
    page.keys(&[], &['\u{e010}', ' ', 'n', 'o', 'w']);
    let typed = held.replacen("line.", "line. now", 1);
    wait_for_file(&score, |text| text == typed);
    // Nothing is rewritten because of what another hand saves.
    std::fs::write(&score, typed.replace("#2f6f73", "#123456")).unwrap();
    wait("the other colour", || picture(&page).contains("#123456"));
    std::thread::sleep(Duration::from_millis(400));
    assert_eq!(std::fs::read_to_string(&score).unwrap(), typed.replace("#2f6f73", "#123456"));
}

#[test]
#[ignore = "needs Chromium"]
fn a_knob_moves_the_picture_and_is_written_into_the_score() {
    let (_folder, score, _live, page) = sails();
    let move_to = |value: &str, event: &str| {
        page.run(&format!(
            "const knob = document.querySelector('#knob-size'); knob.value = {value}; knob.dispatchEvent(new Event('{event}'))"
        ));
    };
    let before = picture(&page);
    move_to("60", "input");
    wait("another circle", || picture(&page) != before);
    move_to("150", "input");
    move_to("150", "change");
    page.wait("document.querySelector('#knobs output').value === '150'");
    assert_eq!(std::fs::read_to_string(&score).unwrap(), SAILS);
    page.click("#keep-knobs");
    wait_for_file(&score, |text| text == SAILS.replace("\"size\", 100", "\"size\", 150"));
    // One gesture is one step back; keeping was another.
    page.click("#undo");
    wait_for_file(&score, |text| text == SAILS);
    page.wait("document.querySelector('#knobs output').value === '150'");
    page.click("#undo");
    page.wait("document.querySelector('#knobs output').value === '100'");
    wait("the circle as it was", || picture(&page) == before);
    move_to("50", "change");
    page.wait("document.querySelector('#knobs output').value === '50'");
    page.run("document.querySelector('.knob').dispatchEvent(new Event('dblclick'))");
    page.wait("document.querySelector('#knobs output').value === '100'");
}

#[test]
#[ignore = "needs Chromium"]
fn what_is_dragged_changes_the_numbers_that_it_hangs_on() {
    let (_folder, score, _live, page) = sails();
    let at = |x: f64, y: f64| page.place(SHEET, (x, y));
    let line = |number: usize, text: &str| text.lines().nth(number).unwrap().to_owned();
    let numbers = |text: &str| -> Vec<f64> {
        text.split(|c: char| !(c.is_ascii_digit() || c == '.' || c == '-'))
            .filter_map(|n| n.parse().ok())
            .collect()
    };
    let other_lines = |text: &str, changed: usize| -> Vec<String> {
        text.lines().enumerate().filter(|(i, _)| *i != changed).map(|(_, line)| line.to_owned()).collect()
    };
    // A typed vertex: its two numbers.
    page.hover_grip(at(220.0, 60.0));
    page.wait("document.querySelectorAll('.held-number').length === 2");
    page.keep("live-hover");
    page.drag(at(220.0, 60.0), at(260.0, 40.0));
    let text = wait_for_file(&score, |text| text != SAILS);
    let typed = numbers(&line(4, &text));
    // The pointer goes in whole pixels of the screen, which are longer than 1 here; the numbers have one decimal at most.
    let pixel = page.run("return 640 / document.querySelector('#paper').clientWidth").as_f64().unwrap();
    assert!((typed[2] - 260.0).abs() <= pixel && (typed[3] - 40.0).abs() <= pixel, "{typed:?}");
    let is_short = |number: &f64| ((number * 10.0).round() - number * 10.0).abs() < 1e-9;
    assert!(typed[2..4].iter().all(is_short), "{typed:?}");
    assert_eq!(other_lines(&text, 4), other_lines(SAILS, 4));
    page.click("#undo");
    wait_for_file(&score, |text| text == SAILS);
    // The right corner of a polygon, straight outwards: its radius.
    page.drag(at(550.0, 130.0), at(580.0, 130.0));
    let text = wait_for_file(&score, |text| text != SAILS);
    let of_polygon = numbers(&line(5, &text));
    assert_eq!(of_polygon[..3], [480.0, 130.0, 4.0]);
    assert!((of_polygon[3] - 100.0).abs() <= pixel, "{of_polygon:?}");
    assert!(line(5, &text).ends_with("// a quarter turn"));
    page.click("#undo");
    wait_for_file(&score, |text| text == SAILS);
    // The line of an item that is clicked is the cursor's, and what it makes is marked in the picture.
    page.click_at(at(480.0, 130.0));
    page.wait("document.querySelector('.cm-activeLine')?.textContent.includes('polygon')");
    page.wait("document.querySelectorAll('#overlay .lined').length === 1");
    // A point placed by a function that is called twice.
    let spot = |degrees: f64| {
        let angle = degrees.to_radians();
        (320.0 + 170.0 * angle.cos(), 260.0 + 170.0 * angle.sin())
    };
    let (x, y) = spot(20.0);
    page.drag(at(x, y), at(spot(32.0).0, spot(32.0).1));
    let text = wait_for_file(&score, |text| text != SAILS);
    assert_eq!(other_lines(&text, 2)[..2], other_lines(SAILS, 2)[..2]);
    page.hover_grip(page.place(SHEET, spot(32.0)));
    page.keep("live-dragged");
    let told = || page.run("return document.querySelector('#stage').dataset.held");
    // Its angle moves it along a circle, and it is said so where it is wanted elsewhere.
    page.drag(at(spot(32.0).0, spot(32.0).1), at(spot(32.0).0 + 60.0, spot(32.0).1 + 30.0));
    let told = told().as_str().unwrap().to_owned();
    assert!(told.starts_with("only the number in line ") && told.ends_with("only along one line"), "{told}");
}

#[test]
#[ignore = "needs Chromium"]
fn vertices_are_put_in_taken_out_and_moved_by_keys() {
    let (_folder, score, _live, page) = sails();
    let at = |x: f64, y: f64| page.place(SHEET, (x, y));
    page.hover_grip(at(220.0, 60.0));
    page.click_at(at(220.0, 60.0));
    page.wait("document.querySelector('#overlay .chosen')");
    const RIGHT: char = '\u{e014}';
    const UP: char = '\u{e013}';
    const SHIFT: char = '\u{e008}';
    const ALT: char = '\u{e00a}';
    const DELETE: char = '\u{e017}';
    let has = |what: &'static str| wait_for_file(&score, move |text| text.contains(what));
    page.keys(&[], &[RIGHT]);
    has("[221, 60]");
    page.keys(&[SHIFT], &[UP]);
    has("[221, 50]");
    page.keys(&[ALT], &[RIGHT]);
    has("[221.1, 50]");
    page.keys(&[], &[DELETE]);
    has("closed([[80, 90], [250, 200], [90, 210]])");
    page.run("document.querySelector('#stage').focus()");
    page.hover(at(85.0, 150.0));
    page.wait("document.querySelector('#under').textContent.includes('3 vertices')");
    page.keys(&[], &['i']);
    let text = wait_for_file(&score, |text| text.contains("[90, 210], ["));
    assert!(text.contains("closed([[80, 90], [250, 200], [90, 210], [8"), "{text}");
    // Vertices one after the other, by keys alone.
    page.keys(&[], &['\u{e00c}', 'n']);
    page.wait("document.querySelector('#under').textContent.startsWith('vertex 0')");
    page.keys(&[], &['n', 'n']);
    page.wait("document.querySelector('#under').textContent.startsWith('vertex 2')");
}

#[test]
#[ignore = "needs Chromium"]
fn a_mistake_stands_over_the_last_picture_until_it_is_mended() {
    let (_folder, score, _live, page) = sails();
    let before = picture(&page);
    std::fs::write(&score, SAILS.replace("polygon(", "polygn(")).unwrap();
    page.wait("!document.querySelector('#mistake').hidden");
    assert_eq!(page.text("#mistake button"), "Line 6: there is no word `polygn`");
    assert_eq!(page.text("#mistake p"), "did you mean `polygon`?");
    page.wait("document.querySelector('.cm-lint-marker-error')");
    assert_eq!(picture(&page), before);
    assert_eq!(page.text("#finding-list"), "Looked for once the mistake is mended.");
    page.keep("live-mistake");
    std::fs::write(&score, SAILS).unwrap();
    page.wait("document.querySelector('#mistake').hidden");
    assert_eq!(picture(&page), before);
}

#[test]
#[ignore = "needs Chromium"]
fn a_document_is_shown_and_its_text_coloured() {
    let folder = tempfile::tempdir().unwrap();
    let drawing = folder.path().join("kite.svg");
    let text = r##"<svg xmlns="http://www.w3.org/2000/svg" width="90" height="60">
  <!-- the kite,
       without its tail -->
  <path d="M45 9L70 28
L45 54L20 28Z" fill="#c8553d"/>
</svg>
"##;
    std::fs::write(&drawing, text).unwrap();
    let live = Live::of(&drawing);
    let page = Page::open(&live.address);
    page.wait_for_picture();
    assert!(picture(&page).contains("#c8553d"));
    let all = |class: &str| {
        let spans =
            format!("return [...document.querySelectorAll('.{class}')].map(span => span.textContent)");
        let told = page.run(&spans);
        told.as_array().unwrap().iter().map(|one| one.as_str().unwrap().trim().to_owned()).collect::<Vec<_>>()
    };
    page.wait("document.querySelector('.tok-keyword')");
    assert_eq!(all("tok-keyword"), ["<svg", ">", "<path", "/>", "</svg>"]);
    assert_eq!(all("tok-word"), ["xmlns", "width", "height", "d", "fill"]);
    assert_eq!(all("tok-comment"), ["<!-- the kite,", "without its tail -->"]);
    assert!(all("tok-string").contains(&"L45 54L20 28Z\"".to_owned()));
    assert_eq!(
        page.run("return document.querySelector('#dice').hidden && document.querySelector('#knobs').hidden"),
        true
    );
    page.keep("live-document");
    std::fs::write(&drawing, text.replace("#c8553d", "#2f6f73")).unwrap();
    wait("the other colour", || picture(&page).contains("#2f6f73"));
    std::fs::write(&drawing, text.replace("</svg>", "</sgv>")).unwrap();
    page.wait("!document.querySelector('#mistake').hidden");
    assert!(picture(&page).contains("#2f6f73"));
}

#[test]
#[ignore = "needs Chromium"]
fn a_finding_is_mended_by_a_click() {
    let open = SAILS
        .replace(
            "polygon(pt(480, 130), 4, 70)",
            "start([400, 100]).line([560, 100]).line([480, 200]).line([400, 100]).open()",
        )
        .replace("fill(\"#2f6f73\")", "stroke(\"#2f6f73\", 5)");
    let (_folder, score) = loft(&open);
    let live = Live::of(&score);
    let page = Page::open(&live.address);
    page.wait("document.querySelector('[data-code=open-outline]')");
    page.click("[data-code=open-outline] .go");
    page.wait("document.querySelector('#overlay .found') && document.querySelector('.cm-activeLine')?.textContent.includes('480, 200')");
    page.keep("live-finding");
    page.click("[data-code=open-outline] .mend");
    wait_for_file(&score, |text| text == open.replace(".open()", ".close()"));
    page.wait("document.querySelector('#finding-list').textContent === 'Nothing looks wrong.'");
    // The focus is where one goes on: at the next finding, or in the text.
    page.wait("document.activeElement.closest('.cm-editor') !== null");
}

#[test]
#[ignore = "needs Chromium"]
fn seeds_are_rolled_and_kept_and_time_goes_on() {
    let text = r##"let pebbles = dice("pebbles");
let page = sheet(640, 480).ground("#f4efe6");
for i in 0..9 { page.add(circle([60 + 60 * i, 240 + 90 * wave(turns(phase())) + pebbles.between(-90, 90)], 20).fill("#c8553d")); }
page
"##;
    let text = text.replace("wave(turns(phase()))", "sin(turns(phase()))");
    let (_folder, score) = loft(&text);
    let live = Live::of(&score);
    let page = Page::open(&live.address);
    page.wait_for_picture();
    page.wait("!document.querySelector('#dice').hidden");
    for seed in ["1", "2", "3"] {
        page.click("#roll");
        page.wait(&format!("document.querySelector('#seed').value === '{seed}'"));
        page.wait(&format!(
            "document.querySelector('#strip [aria-pressed=true] img')?.alt === 'Seed {seed}'"
        ));
    }
    page.click("#roll-back");
    page.wait("document.querySelector('#seed').value === '2'");
    page.click("#keep-seed");
    wait_for_file(&score, |now| now == format!("seed(2);\n{text}"));
    page.wait("document.querySelector('#keep-seed').hidden");
    // Played, the picture changes by itself; stopped, it rests.
    page.wait("!document.querySelector('#time').hidden");
    page.click("#play");
    let begin = page.run("return document.querySelector('#stage').dataset.serial");
    page.wait(&format!(
        "Number(document.querySelector('#stage').dataset.serial) > {} + 10",
        begin.as_str().unwrap()
    ));
    page.keep("live-playing");
    page.click("#play");
    page.run("const slider = document.querySelector('#phase'); slider.value = 0.25; slider.dispatchEvent(new Event('input'))");
    page.wait("document.querySelector('#phase-told').value === '0.25 · 1 s'");
    page.click("#step");
    page.wait("document.querySelector('#phase-told').value === '0.26 · 1.04 s'");
    page.click("[data-layer=vertices]");
    page.wait("document.querySelector('[data-layer=vertices][aria-pressed=true]')");
}

#[test]
#[ignore = "needs Chromium"]
fn the_pointer_is_recorded_replayed_and_drawn_again() {
    let text = "sheet(640, 480).ground(\"#f4efe6\").add(circle(pointer(), if pointer_down() { 60 } else { 20 }).fill(\"#c8553d\"))\n";
    let (folder, score) = loft(text);
    let live = Live::of(&score);
    let page = Page::open(&live.address);
    page.wait_for_picture();
    page.wait("!document.querySelector('#pointer').hidden");
    page.click("#record");
    page.wait("document.querySelector('#record').getAttribute('aria-pressed') === 'true'");
    let at = |x: f64, y: f64| page.place(SHEET, (x, y));
    for step in 0..8 {
        page.hover(at(100.0 + 50.0 * f64::from(step), 200.0));
    }
    page.click("#record");
    page.click("#replay");
    page.wait("document.querySelector('#replay').getAttribute('aria-pressed') === 'true'");
    let get = |name: &str, query: &str| {
        let (status, body) = ask(&live, &format!("/save/{name}?token={}{query}", live.token()), &[]);
        assert_eq!(status, 200, "{}", String::from_utf8_lossy(&body));
        body
    };
    let track = folder.path().join("hand.jsonl");
    std::fs::write(&track, get("hand.jsonl", "")).unwrap();
    let clip = get("hand.gif", "&frames=6");
    let again = folder.path().join("again.gif");
    crate::support::chordane()
        .arg("draw")
        .arg(&score)
        .arg("--track")
        .arg(&track)
        .args(["--frames", "6", "-o"])
        .arg(&again)
        .assert()
        .success();
    assert!(std::fs::read(&again).unwrap() == clip, "the clip from the page is another one");
}

#[test]
#[ignore = "needs Chromium"]
fn what_is_shown_is_saved_in_every_format() {
    let (folder, score, live, page) = sails();
    page.run("const knob = document.querySelector('#knob-size'); knob.value = 150; knob.dispatchEvent(new Event('change'))");
    page.wait("document.querySelector('#knobs output').value === '150'");
    for ending in ["svg", "png", "gif", "apng", "y4m"] {
        let file = folder.path().join(format!("own.{ending}"));
        let mut call = crate::support::chordane();
        call.arg("draw").arg(&score).args(["--set", "size=150", "--frames", "2", "-o"]).arg(&file);
        let mut query = "&frames=2";
        if matches!(ending, "svg" | "png") {
            call = crate::support::chordane();
            call.arg("draw").arg(&score).args(["--set", "size=150", "-o"]).arg(&file);
            query = "";
        }
        call.assert().success();
        let (status, body) = ask(&live, &format!("/save/kite.{ending}?token={}{query}", live.token()), &[]);
        assert_eq!(status, 200);
        assert!(std::fs::read(&file).unwrap() == body, "{ending}");
    }
    page.click("[data-format=svg]");
    page.wait("document.querySelector('#export-told').textContent.startsWith('kite.svg is saved')");
}

#[test]
#[ignore = "needs Chromium"]
fn changes_from_two_sides_are_brought_together_or_asked_about() {
    let (_folder, score, live, page) = sails();
    let other = Page::open(&live.address);
    other.wait_for_picture();
    // Two pages at once, at different lines.
    page.run("document.querySelector('.cm-content').focus()");
    page.keys(&[], &['\u{e010}', ' ', 'o', 'n', 'e']);
    other.run("document.querySelector('.cm-content').focus()");
    const CONTROL: char = '\u{e009}';
    other.keys(&[CONTROL], &['\u{e010}']);
    other.keys(&[], &['/', '/', ' ', 't', 'w', 'o']);
    let both = wait_for_file(&score, |text| text.contains("line. one") && text.contains("// two"));
    wait("one text in both pages", || {
        page.text(".cm-content") == other.text(".cm-content") && page.text(".cm-content").contains("// two")
    });
    // The file and a page, in the same line: asked about.
    page.cut();
    drop(other);
    page.keys(&[], &['!']);
    std::fs::write(&score, both.replace("line. one", "line. three")).unwrap();
    wait("the program has seen it", || {
        let fresh = Page::open(&live.address);
        fresh.wait_for_picture();
        fresh.text(".cm-content").contains("three")
    });
    page.join();
    page.wait("document.querySelector('#clash')?.textContent.includes('changed elsewhere')");
    assert!(page.text(".cm-content").contains("three"));
    page.click("#clash button");
    wait_for_file(&score, |text| text.contains("line. one!"));
}

#[test]
#[ignore = "needs Chromium"]
fn a_file_that_is_gone_is_told_and_written_again() {
    let (folder, score, _live, page) = sails();
    std::fs::rename(&score, folder.path().join("elsewhere.chord")).unwrap();
    page.wait("document.querySelector('#file').dataset.state === 'gone'");
    page.run("document.querySelector('.cm-content').focus()");
    page.keys(&[], &['\u{e010}', '!']);
    wait_for_file(&score, |text| text.starts_with("// Sails on a line.!"));
    page.wait("document.querySelector('#file').dataset.state === 'saved'");
}

#[test]
#[ignore = "needs Chromium"]
fn a_score_that_runs_long_can_be_stopped() {
    let (_folder, score, _live, page) = sails();
    let before = picture(&page);
    std::fs::write(
        &score,
        SAILS.replace("// Sails on a line.", "let n = 0; loop { n += 1; if n > 90000000 { break; } }"),
    )
    .unwrap();
    page.wait("!document.querySelector('#stop').hidden");
    // The page lives on meanwhile.
    page.click("#surround");
    page.click("#stop");
    page.wait("!document.querySelector('#mistake').hidden");
    assert!(page.text("#mistake").contains("the run was stopped"), "{}", page.text("#mistake"));
    assert_eq!(picture(&page), before);
    page.wait("document.querySelector('#stop').hidden");
    std::fs::write(&score, SAILS).unwrap();
    page.wait("document.querySelector('#mistake').hidden");
}

#[test]
#[ignore = "needs Chromium"]
fn no_text_of_a_score_runs_in_the_page() {
    let text = r##"print("<img src=x onerror='document.title=1'>");
sheet(640, 480).title("</title><script>document.title=2</script>")
    .add(circle([320, 240], 90).fill("#c8553d").named("<b onclick='x'>sail</b>"))
    .add(lettering("<script>", [40, 60], 20).fill("teal"))
"##;
    let (_folder, score) = loft(text);
    let live = Live::of(&score);
    let page = Page::open(&live.address);
    page.wait_for_picture();
    page.hover(page.place(SHEET, (320.0, 240.0)));
    page.wait("document.querySelector('#under').textContent.includes('<b onclick=')");
    assert_eq!(page.run("return document.title"), "kite.chord – Chordane");
    assert_eq!(page.run("return document.querySelectorAll('img:not([alt]), main b').length"), 0);
    // A page that asks for too much is let go.
    let flood = "const done = arguments[arguments.length - 1]; \
        const socket = new WebSocket(`ws://${location.host}/socket?token=${location.hash.slice(1)}`); \
        socket.onclose = (event) => done(event.code); \
        socket.onopen = () => { for (let i = 0; i < 4000; i += 1) socket.send('{\"ask\": \"stop\"}'); }";
    assert_eq!(page.run_long(flood), 1008);
    // Scripts that are put into the page are not run either.
    page.run("const own = document.createElement('script'); own.textContent = 'document.title = 3'; document.body.append(own)");
    assert_eq!(page.run("return document.title"), "kite.chord – Chordane");
}

/// Asks the program for something, as any program can.
fn ask(live: &Live, path: &str, headers: &[(&str, &str)]) -> (u16, Vec<u8>) {
    let mut stream = TcpStream::connect(live.host()).unwrap();
    stream.set_read_timeout(Some(Duration::from_secs(30))).unwrap();
    let host = [("Host", live.host())];
    let own_host = headers.iter().any(|(name, _)| *name == "Host");
    let all = host.iter().filter(|_| !own_host).chain(headers);
    let lines: String = all.map(|(name, value)| format!("{name}: {value}\r\n")).collect();
    write!(stream, "GET {path} HTTP/1.1\r\n{lines}\r\n").unwrap();
    // The head, and as much of the body as it says there is.
    let mut bytes = Vec::new();
    let mut chunk = [0; 1 << 16];
    loop {
        let read = stream.read(&mut chunk).unwrap_or(0);
        bytes.extend_from_slice(&chunk[..read]);
        let Some(end) = bytes.windows(4).position(|four| four == b"\r\n\r\n") else {
            assert!(read > 0, "the answer breaks off");
            continue;
        };
        let head = String::from_utf8_lossy(&bytes[..end]).to_ascii_lowercase();
        let length = head.lines().find_map(|line| line.strip_prefix("content-length: ")?.parse().ok());
        let status = head.split(' ').nth(1).unwrap().parse().unwrap();
        if head.contains("transfer-encoding: chunked") {
            if let Some(body) = unchunked(&bytes[end + 4..]) {
                return (status, body);
            }
            assert!(read > 0, "the answer breaks off");
        } else if read == 0 || bytes.len() >= end + 4 + length.unwrap_or(0) {
            return (status, bytes[end + 4..].to_vec());
        }
    }
}

/// Not in a browser: requests that are not sent whole end, and there is room for so many connections.
#[test]
fn half_sent_requests_end_and_connections_are_limited() {
    let (_folder, score) = loft(SAILS);
    let live = Live::of(&score);
    let begin = std::time::Instant::now();
    let mut half = TcpStream::connect(live.host()).unwrap();
    half.set_read_timeout(Some(Duration::from_secs(30))).unwrap();
    write!(half, "GET / HTTP/1.1\r\nHost: ").unwrap();
    let others: Vec<TcpStream> = (0..199).map(|_| TcpStream::connect(live.host()).unwrap()).collect();
    // One more has no room, and is told so.
    let mut answer = String::new();
    let mut more = TcpStream::connect(live.host()).unwrap();
    more.set_read_timeout(Some(Duration::from_secs(30))).unwrap();
    more.read_to_string(&mut answer).unwrap();
    assert!(answer.starts_with("HTTP/1.1 503 "), "{answer}");
    assert!(answer.ends_with("too many connections to this program; close some of its pages"), "{answer}");
    drop(others);
    let mut rest = Vec::new();
    let _ = half.read_to_end(&mut rest);
    assert!((9..20).contains(&begin.elapsed().as_secs()), "{:?}", begin.elapsed());
    // There is room again.
    assert_eq!(ask(&live, "/", &[]).0, 200);
}

/// The body of a chunked answer, once all of its chunks are there.
fn unchunked(mut chunks: &[u8]) -> Option<Vec<u8>> {
    let mut body = Vec::new();
    loop {
        let end = chunks.windows(2).position(|two| two == b"\r\n")?;
        let length = usize::from_str_radix(std::str::from_utf8(&chunks[..end]).unwrap(), 16).unwrap();
        if length == 0 {
            return Some(body);
        }
        body.extend_from_slice(chunks.get(end + 2..end + 2 + length)?);
        chunks = chunks.get(end + 4 + length..)?;
    }
}

/// Not in a browser: a port that is taken, and an address for others.
#[test]
fn ports_and_addresses_are_told() {
    let (_folder, score) = loft(SAILS);
    let live = Live::of(&score);
    let port = live.host().rsplit(':').next().unwrap();
    let mut call = crate::support::chordane();
    call.arg("live").arg(&score).args(["--port", port]);
    call.assert()
        .failure()
        .code(3)
        .stderr(predicates::str::contains(format!("port {port} is taken by another program")));
    let open = Live::start(&["live", score.to_str().unwrap(), "--host", "0.0.0.0"]);
    assert!(open.address.starts_with("http://127.0.0.1:"), "{}", open.address);
    assert_eq!(
        ask(
            &open,
            "/socket",
            &[
                ("Connection", "Upgrade"),
                ("Upgrade", "websocket"),
                ("Sec-WebSocket-Version", "13"),
                ("Sec-WebSocket-Key", "AAAAAAAAAAAAAAAAAAAAAA==")
            ]
        )
        .0,
        403
    );
    let mut call = crate::support::chordane();
    call.args(["live", "-"]);
    call.assert().failure().code(2).stderr(predicates::str::contains("standard input cannot be watched"));
}

/// Not in a browser: requests as others could send them.
#[test]
fn requests_of_others_are_refused() {
    let (_folder, score) = loft(SAILS);
    let live = Live::of(&score);
    let status = |path: &str, headers: &[(&str, &str)]| ask(&live, path, headers).0;
    let own = format!("http://{}", live.host());
    let token = live.token();
    assert_eq!(status("/", &[]), 200);
    assert_eq!(status("/", &[("Host", "kites.example")]), 403);
    // Two names, or another one in the first line.
    assert_eq!(status("/", &[("Host", live.host()), ("Host", "kites.example")]), 403);
    assert_eq!(status("http://kites.example/", &[]), 403);
    assert_eq!(status(&format!("{own}/"), &[]), 200);
    assert_eq!(status("/", &[("Origin", "http://kites.example")]), 403);
    assert_eq!(status("/live.js", &[("Origin", &own)]), 200);
    for path in
        ["/../kite.chord", "/kite.chord", "/%2e%2e/kite.chord", "/vendor/../../Cargo.toml", "/nothing"]
    {
        assert_eq!(status(path, &[]), 404, "{path}");
    }
    let open = |path: &str, origin: &str| {
        let upgrade = [
            ("Origin", origin),
            ("Connection", "Upgrade"),
            ("Upgrade", "websocket"),
            ("Sec-WebSocket-Version", "13"),
            ("Sec-WebSocket-Key", "AAAAAAAAAAAAAAAAAAAAAA=="),
        ];
        status(path, &upgrade)
    };
    assert_eq!(open(&format!("/socket?token={token}"), &own), 101);
    assert_eq!(open(&format!("/socket?token={token}"), "http://kites.example"), 403);
    assert_eq!(open(&format!("/socket?token={token}"), "null"), 403);
    assert_eq!(open("/socket", &own), 403);
    assert_eq!(open("/socket?token=0", &own), 403);
    assert_eq!(status("/save/kite.svg", &[]), 403);
    assert_eq!(status(&format!("/save/kite.svg?token={token}"), &[]), 200);
    assert_eq!(status(&format!("/save/kite.exe?token={token}"), &[]), 422);
    assert_eq!(status(&format!("/save/..%2fkite.svg?token={token}"), &[]), 200);
    assert_eq!(std::fs::read_to_string(&score).unwrap(), SAILS);
}
