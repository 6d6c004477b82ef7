//! How quick the live page is, in a real browser: figures that are printed, not judged. Run with `--include-ignored --nocapture`.

#![allow(clippy::print_stdout, reason = "the figures are printed")]

use std::path::Path;
use std::time::{Duration, SystemTime, UNIX_EPOCH};

use crate::pages::{Live, Page};
use crate::support::loft;

/// Scores of the demo, still ones and such that move.
const SCORES: [&str; 6] =
    ["first-sail", "star-vents", "stencil-hem", "dusk", "dipping-kite", "spinning-ring"];

/// 20,000 vertices by one word, and computed one by one.
const BY_ONE_WORD: &str = r##"let wide = knob("wide", 180, 100, 220);
let rim = wheel(wide, 1, deg(0)).wheel(6, 240, deg(0)).centre([320, 240]).points(20000);
sheet(640, 480).ground("#f4efe6").add(closed(rim).fill("#c8553d"))
"##;

const ONE_BY_ONE: &str = r##"let wide = knob("wide", 180, 100, 220);
let rim = (0..20000).map(|i| pt(320, 240) + polar(deg(i * 0.018), wide + 6 * sin(deg(i * 7))));
sheet(640, 480).ground("#f4efe6").add(closed(rim).fill("#c8553d"))
"##;

fn median(mut times: Vec<f64>) -> f64 {
    times.sort_by(f64::total_cmp);
    times[times.len() / 2]
}

fn now() -> f64 {
    SystemTime::now().duration_since(UNIX_EPOCH).unwrap().as_secs_f64() * 1e3
}

/// Marks the time at which each picture is shown.
fn watch_pictures(page: &Page) {
    page.run(
        "window.painted = []; document.querySelector('#stage').addEventListener('painted', \
         () => window.painted.push(performance.timeOrigin + performance.now()))",
    );
}

/// From the saving of a file to its new picture, in milliseconds.
fn from_saving(page: &Page, score: &Path) -> f64 {
    let text = std::fs::read_to_string(score).unwrap();
    let mut times = Vec::new();
    for round in 0..9 {
        // Another ground each time, so that there is something new to see.
        let other =
            format!("{}\n    .add(circle([{}, 30], 9).fill(\"#20303c\"))\n", text.trim_end(), 30 + round);
        page.run("window.painted = []");
        let begin = now();
        std::fs::write(score, other).unwrap();
        page.wait("window.painted.length > 0");
        times.push(page.run("return window.painted[0]").as_f64().unwrap() - begin);
        std::thread::sleep(Duration::from_millis(60));
    }
    std::fs::write(score, text).unwrap();
    median(times)
}

/// From one picture to the next while a knob is moved as often as the screen shows, in milliseconds.
fn by_a_knob(page: &Page) -> Option<f64> {
    let script = "const done = arguments[arguments.length - 1]; \
        const knob = document.querySelector('#knob-list input[type=range]'); if (knob === null) { done(null); return; } \
        const stage = document.querySelector('#stage'); const times = []; let count = 0; \
        const painted = () => times.push(performance.now()); stage.addEventListener('painted', painted); \
        const step = () => { count += 1; const share = 0.3 + 0.4 * ((count * 7) % 31) / 31; \
            knob.value = Number(knob.min) + share * (knob.max - knob.min); knob.dispatchEvent(new Event('input')); \
            if (count < 150) requestAnimationFrame(step); \
            else { stage.removeEventListener('painted', painted); done(times); } }; step()";
    let times = page.run_long(script);
    let times: Vec<f64> = times.as_array()?.iter().filter_map(serde_json::Value::as_f64).collect();
    Some(median(times.windows(2).map(|two| two[1] - two[0]).collect()))
}

/// From opening the page until it is known what a vertex hangs on, in milliseconds.
fn until_known(page: &Page) -> f64 {
    let script = "const done = arguments[arguments.length - 1]; const begin = performance.now(); \
        const socket = new WebSocket(`ws://${location.host}/socket?token=${location.hash.slice(1)}`); \
        socket.onmessage = (event) => { const told = JSON.parse(event.data); \
            if (told.tell === 'picture') socket.send(JSON.stringify({ ask: 'next', from: null, reach: 1, way: 0, by: 1, items: false })); \
            if (told.tell === 'hovered') { socket.close(); done(performance.now() - begin); } }";
    page.run_long(script).as_f64().unwrap()
}

/// From one step of a drag to the next, each asked for when the one before is done, in milliseconds; the first vertex goes round in a small circle.
fn by_a_drag(page: &Page) -> f64 {
    let script = "const done = arguments[arguments.length - 1]; const times = []; let at; let begin; \
        const socket = new WebSocket(`ws://${location.host}/socket?token=${location.hash.slice(1)}`); \
        const send = (asked) => socket.send(JSON.stringify(asked)); \
        const step = () => { begin = performance.now(); const turn = times.length * 0.3; \
            send({ ask: 'drag', to: [at[0] + 9 * Math.cos(turn), at[1] + 9 * Math.sin(turn)], within: 0.5 }); }; \
        socket.onopen = () => send({ ask: 'next', from: null, reach: 1, way: 0, by: 1, items: false }); \
        socket.onmessage = (event) => { const told = JSON.parse(event.data); \
            if (told.tell === 'hovered') { at = told.grip.at; send({ ask: 'grab', at, reach: 1, way: 0 }); step(); } \
            if (told.tell === 'held') { times.push(performance.now() - begin); \
                if (times.length < 60) step(); else { send({ ask: 'let-go', keep: false }); done(times); } } }";
    let times = page.run_long(script);
    median(times.as_array().unwrap().iter().filter_map(serde_json::Value::as_f64).collect())
}

/// From the last of 30 presses of an arrow key, 30 a second, to the picture with all of them, in milliseconds.
fn by_a_burst(page: &Page) -> f64 {
    page.run("document.querySelector('#stage').focus()");
    page.keys(&[], &['n']);
    page.wait("document.querySelector('#overlay .chosen')");
    page.run(
        "window.painted = []; window.pressed = 0; document.querySelector('#stage').addEventListener('keydown', \
         () => { window.pressed = performance.timeOrigin + performance.now(); })",
    );
    page.burst('\u{e014}', 30, 33);
    std::thread::sleep(Duration::from_millis(1500));
    page.run("return window.painted.at(-1) - window.pressed").as_f64().unwrap_or(f64::NAN)
}

#[test]
#[ignore = "needs Chromium; prints figures"]
fn the_page_is_quick() {
    println!(
        "{:<16} {:>14} {:>10} {:>10} {:>10} {:>10}",
        "score", "saved to seen", "known", "knob", "drag", "30 keys"
    );
    for name in SCORES {
        let source = format!("{}/demo/{name}.chord", env!("CARGO_MANIFEST_DIR"));
        let (_folder, score) = loft(&std::fs::read_to_string(source).unwrap());
        let live = Live::of(&score);
        let page = Page::open(&live.address);
        page.wait_for_picture();
        watch_pictures(&page);
        let known = until_known(&page);
        let saved = from_saving(&page, &score);
        let knob = by_a_knob(&page).map_or("-".to_owned(), |time| format!("{time:.0} ms"));
        let drag = by_a_drag(&page);
        let burst = by_a_burst(&page);
        let [saved, known, drag, burst] = [saved, known, drag, burst].map(|time| format!("{time:.0} ms"));
        println!("{name:<16} {saved:>14} {known:>10} {knob:>10} {drag:>10} {burst:>10}");
    }
    for (name, text) in [("20,000, one word", BY_ONE_WORD), ("20,000, each", ONE_BY_ONE)] {
        let (_folder, score) = loft(text);
        let live = Live::of(&score);
        let page = Page::open(&live.address);
        page.wait_for_picture();
        page.wait("document.querySelector('#knob-list input')");
        let knob = by_a_knob(&page).unwrap();
        println!("{name:<16} {:>14} {:>10} {:>10}", "", "", format!("{knob:.0} ms"));
    }
}
