//! A check of the messages of pages: of a live page and of a tracing page.

use std::sync::LazyLock;
use std::time::Duration;

use chordane::prelude::*;
use chordane_cli::replay;
use chordane_score::Limits;
use serde_json::Value;

/// The score that a live page shows at first.
const SCORE: &str = r##"let s = sheet(100, 80);
let size = knob("size", 12, 4, 30);
let tip = knob("tip", [70, 20]);
let sail = closed([[20, 60], tip, [80, 64.5]]).fill(linear_gradient([20, 60], [80, 60]).colours(["teal", "gold"]));
s.add(sail);
s.add(start([10, 10]).line([30, 12]).cubic([40, 0], [50, 30], [60, 12]).open().stroke("#d14", 2));
for i in 0..8 {
    s.add(circle([50 + size * cos(turns(i / 8)), 40 + size * sin(turns(i / 8))], 2).fill("black"));
}
s.add(closed([[5, 70], [5, 70], [12, 78]]).fill("red"));
s.add(circle([dice("dot").between(10, 90), 70], 3).fill("teal"));
s
"##;

/// The picture that a tracing page shows.
static PHOTO: LazyLock<Vec<u8>> = LazyLock::new(|| {
    let kite =
        start((8.0, 20.0)).line((20.0, 4.0)).line((32.0, 20.0)).line((20.0, 26.0)).close().fill("teal");
    let page = sheet(40.0, 30.0).ground("white").add(kite);
    page.pixels().unwrap_or_else(|error| panic!("{error}")).png().unwrap_or_else(|error| panic!("{error}"))
});

/// The first line names the page; each other line is a message. Answers can be read, nothing is lost, and everything can be
/// undone and redone.
pub fn messages(bytes: &[u8]) {
    let text = String::from_utf8_lossy(bytes);
    let mut lines = text.lines();
    let page = lines.next().unwrap_or_default();
    let messages: Vec<&str> = lines.take(40).collect();
    match page {
        "live" => live(&messages),
        "trace" => trace(&messages),
        _ => {}
    }
}

fn live(messages: &[&str]) {
    let limits =
        Limits { steps: 300_000, time: Duration::from_secs(2), memory: 256 << 20, ..Limits::default() };
    let replay = replay::live(SCORE, messages, limits).unwrap_or_else(|error| panic!("{error}"));
    are_answers(&replay.answers);
    if let Some(saved) = &replay.saved {
        assert_eq!(saved, &replay.text, "what is shown is in the file");
    }
    assert_eq!(replay.undone, SCORE, "all of it undone");
    assert_eq!(replay.redone, replay.text, "all of it redone");
}

fn trace(messages: &[&str]) {
    let replay = replay::trace(&PHOTO, messages).unwrap_or_else(|error| panic!("{error}"));
    are_answers(&replay.answers);
    assert_eq!(replay.reopened, replay.draft, "what the journal gives back");
    let value =
        |text: &str| serde_json::from_str::<Value>(text).unwrap_or_else(|error| panic!("{error}: {text}"));
    let undone = value(&replay.undone);
    assert_eq!((&undone["shapes"], &undone["undo"]), (&Value::Array(Vec::new()), &Value::from(0)));
    assert_eq!(value(&replay.redone)["shapes"], value(&replay.draft)["shapes"], "all of it redone");
}

/// Each is JSON with a kind and with finite numbers.
fn are_answers(answers: &[String]) {
    for text in answers {
        let answer: Value = serde_json::from_str(text).unwrap_or_else(|error| panic!("{error}: {text}"));
        assert!(answer["tell"].is_string(), "{text}");
        for key in ["at", "put"] {
            let at = &answer[key];
            assert!(
                at.is_null() || at.as_array().is_some_and(|at| at.iter().all(Value::is_number)),
                "{text}"
            );
        }
    }
}
