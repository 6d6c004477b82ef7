//! Every word with numbers as nobody gives them on purpose, and with empty lists: it answers with a picture, or with a message at its place, within
//! the limits.

use std::sync::Mutex;
use std::sync::atomic::{AtomicUsize, Ordering};
use std::time::{Duration, Instant};

use chordane::Fault;
use chordane::ground::FaultKind;
use chordane::raster::DrawError;
use chordane::sheet::WriteOptions;
use chordane_score::{Limits, Runner, Settings};

use crate::memory::megabytes;
use crate::twins::drawn_examples;

/// What stands in the place of each number.
const EXTREMES: &[&str] =
    &["0", "-1", "1e-9", "1e6", "1e7", "1e308", "9223372036854775807", "(0.0/0.0)", "(1.0/0.0)"];

/// The places of the lists in a text, those in quotes and places in a list left out.
fn lists(text: &str) -> Vec<std::ops::Range<usize>> {
    let (mut found, mut open, mut quoted, mut before) = (Vec::new(), Vec::new(), false, ' ');
    for (at, c) in text.char_indices() {
        match c {
            '"' => quoted = !quoted,
            '[' if !quoted => open.push((at, before.is_alphanumeric() || before == ')' || before == ']')),
            ']' if !quoted => {
                if let Some((begin, false)) = open.pop() {
                    found.push(begin..at + 1);
                }
            }
            _ => {}
        }
        before = c;
    }
    found
}

/// The places of the numbers in a text, those in quotes and names left out.
fn numbers(text: &str) -> Vec<std::ops::Range<usize>> {
    let (mut found, mut quoted, mut at) = (Vec::new(), false, 0);
    let bytes = text.as_bytes();
    while at < bytes.len() {
        let begin = at;
        at += 1;
        match bytes[begin] {
            b'"' => quoted = !quoted,
            b'0'..=b'9' if !quoted => {
                while bytes.get(at).is_some_and(|c| c.is_ascii_alphanumeric() || *c == b'.')
                    && !text[at..].starts_with("..")
                {
                    at += 1;
                }
                let part_of_a_name =
                    begin > 0 && (bytes[begin - 1].is_ascii_alphanumeric() || bytes[begin - 1] == b'_');
                // A point and a name: a word of the number.
                let text = &text[begin..at];
                let end = text.find(|c: char| c.is_alphabetic()).map_or(at, |letter| begin + letter - 1);
                if !part_of_a_name {
                    found.push(begin..end.max(begin + 1));
                }
            }
            _ => {}
        }
    }
    found
}

#[test]
fn numbers_and_lists_of_a_text() {
    let text = "polar(deg(-90), 4.5).x2(\"7\") 0..12";
    let found: Vec<&str> = numbers(text).into_iter().map(|range| &text[range]).collect();
    assert_eq!(found, ["90", "4.5", "0", "12"]);
    let text = "closed([[0, 1], a[2]]).sides()[1] + \"[\"";
    let found: Vec<&str> = lists(text).into_iter().map(|range| &text[range]).collect();
    assert_eq!(found, ["[0, 1]", "[[0, 1], a[2]]"]);
}

/// Whether a fault says that a limit was reached.
fn is_limit(fault: &Fault) -> bool {
    matches!(
        fault.kind(),
        FaultKind::Stopped(_)
            | FaultKind::TooFar { .. }
            | FaultKind::OutOfRange { what: "coordinate farthest out", .. }
    )
}

#[test]
fn every_word_answers_whatever_it_is_given() {
    let limits = Limits { time: Duration::from_millis(300), ..megabytes(256) };
    let mut cases: Vec<(String, String)> = Vec::new();
    for (word, source, _) in drawn_examples() {
        let own = source.lines().take(word.example.lines().count()).map(|line| line.len() + 1).sum::<usize>();
        let example = source.get(..own - 1).unwrap_or_default();
        let mut put = |place: &std::ops::Range<usize>, with: &str| {
            let changed = format!("{}{with}{}", &source[..place.start], &source[place.end..]);
            cases.push((word.form().to_owned(), changed));
        };
        for place in numbers(example) {
            EXTREMES.iter().for_each(|extreme| put(&place, extreme));
        }
        lists(example).iter().for_each(|place| put(place, "[]"));
    }
    assert!(cases.len() > 5000, "{}", cases.len());
    // One case in thirty-seven, or all of them where `PROPTEST_CASES` asks for a longer run.
    let every = if std::env::var_os("PROPTEST_CASES").is_some() { 1 } else { 37 };
    let cases: Vec<(String, String)> = cases.into_iter().step_by(every).collect();
    let next = AtomicUsize::new(0);
    let all_wrong: Mutex<Vec<String>> = Mutex::default();
    let wrong = |what: String, source: &str| all_wrong.lock().unwrap().push(format!("{what}\n{source}\n"));
    let work = || {
        while let Some((word, source)) = cases.get(next.fetch_add(1, Ordering::Relaxed)) {
            let begin = Instant::now();
            let answer = Runner::read("extreme.chord", source.clone(), limits).and_then(|runner| {
                let run = runner.run(&Settings::new());
                run.into_sheet()
            });
            match answer {
                Ok(sheet) => {
                    // A sheet of any size, drawn small. What a run gives is sound: only the limits end what is done with it.
                    match limits.within(|| sheet.pixels_with(&WriteOptions::sized(64, 64))) {
                        Ok(pixels) => assert_eq!(pixels.as_slice().len(), 64 * 64),
                        Err(DrawError::Fault(fault)) if is_limit(&fault) => {}
                        Err(other) => wrong(format!("{word} is not drawn: {other}"), source),
                    }
                    if let Err(fault) = limits.within(|| sheet.check())
                        && !is_limit(&fault)
                    {
                        wrong(format!("{word} is not checked: {fault}"), source);
                    }
                }
                Err(mistake) => {
                    let message = mistake.to_string();
                    if mistake.line().is_none() || message.len() > 300 {
                        wrong(format!("{word}: {message}, at {:?}", mistake.line()), source);
                    }
                }
            }
            let took = begin.elapsed();
            // Three pieces of work with a limit of 300 ms each, on a machine that may have more to do.
            if took > Duration::from_secs(10) {
                wrong(format!("{word} took {took:?}"), source);
            }
        }
    };
    std::thread::scope(|scope| {
        let threads: Vec<_> = (0..2).map(|_| scope.spawn(work)).collect();
        for thread in threads {
            thread.join().unwrap_or_else(|panic| std::panic::resume_unwind(panic));
        }
    });
    let all_wrong = all_wrong.into_inner().unwrap();
    assert!(all_wrong.is_empty(), "{} of {}:\n{}", all_wrong.len(), cases.len(), all_wrong.join("\n"));
}
