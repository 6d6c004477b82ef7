//! Another program saves the file while someone types: neither change is lost, and Undo never reaches a partly written text.

use std::fs::{File, OpenOptions};
use std::io::Write;
use std::path::Path;
use std::time::Duration;

use chordane::chance::Dice;
use chordane_score::{Limits, Words};

use super::What;
use super::tests::{Desk, with_session};
use crate::live::message::{Asked, FileState};
use crate::live::outside::watch;
use crate::live::paper::Paper;
use crate::live::runs::Subject;

/// How another program saves.
#[derive(Clone, Copy, Debug)]
enum Manner {
    /// It empties the file, and writes it a while later.
    Emptied,
    /// It empties the file and closes it, and opens it again.
    EmptiedAndClosed,
    /// It writes in three parts with rests between them.
    InParts,
    /// It puts another file in its place.
    Renamed,
}

fn rest(milliseconds: u64) {
    std::thread::sleep(Duration::from_millis(milliseconds));
}

fn save(manner: Manner, file: &Path, text: &str, gap: u64) {
    match manner {
        Manner::Emptied => {
            let mut open = File::create(file).unwrap();
            rest(gap);
            open.write_all(text.as_bytes()).unwrap();
        }
        Manner::EmptiedAndClosed => {
            std::fs::write(file, "").unwrap();
            rest(gap);
            std::fs::write(file, text).unwrap();
        }
        Manner::InParts => {
            let mut open = File::create(file).unwrap();
            for part in text.as_bytes().chunks(text.len().div_ceil(3)) {
                rest(gap);
                open.write_all(part).unwrap();
            }
        }
        Manner::Renamed => {
            let other = file.with_extension("other");
            std::fs::write(&other, text).unwrap();
            rest(gap);
            std::fs::rename(&other, file).unwrap();
        }
    }
}

/// A score of twenty lines.
fn long_score() -> String {
    let lines: String = (1..20).map(|line| format!("// line {line}\n")).collect();
    format!("{lines}sheet(9, 9)\n")
}

/// A session whose file is watched.
fn with_watched(test: impl FnOnce(&Desk, &Path, &str)) {
    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("hem.chord");
    let text = long_score();
    std::fs::write(&file, &text).unwrap();
    let subject =
        Subject::Score { name: "hem.chord".to_owned(), limits: Limits::default(), words: Words::new() };
    with_session(subject, &text, Some(Paper::new(&file, &text)), |desk| {
        let watcher = watch(&file, desk.jobs.clone()).unwrap();
        desk.wait("a picture", |shown| shown.picture.is_some());
        test(desk, &file, &text);
        drop(watcher);
    });
}

/// Six trials of each, or a hundred where `PROPTEST_CASES` asks for a longer run; all at once, since they mostly wait.
fn trials(trial: impl Fn(u64, u64, u64) + Sync) {
    let count = if std::env::var_os("PROPTEST_CASES").is_some() { 100 } else { 6 };
    let mut dice = Dice::new(11, "saved outside");
    let mut between = |most: f64| dice.between(0.0, most) as u64;
    let waits: Vec<(u64, u64, u64)> =
        (0..count).map(|at| (at, 500 * at / (count - 1), between(600.0))).collect();
    for some in waits.chunks(25) {
        std::thread::scope(|scope| {
            for (at, gap, typed) in some {
                let trial = &trial;
                scope.spawn(move || trial(*at, *gap, *typed));
            }
        });
    }
}

fn typing(desk: &Desk, after: u64) {
    rest(after);
    let shown = desk.shown.borrow().clone();
    let text = shown.text.replacen("line 1\n", "line 1, typed\n", 1);
    desk.ask(What::Asked(Asked::Edit { base: shown.version, text }));
}

fn both_arrive(manner: Manner) {
    trials(|_, gap, typed| {
        with_watched(|desk, file, text| {
            let theirs = text.replacen("line 15\n", "line 15, saved\n", 1);
            std::thread::scope(|scope| {
                scope.spawn(|| save(manner, file, &theirs, gap));
                typing(desk, typed);
            });
            let is_all = |text: &str| text.contains("line 1, typed\n") && text.contains("line 15, saved\n");
            desk.wait("both changes", |shown| is_all(&shown.text) && shown.file.0 == FileState::Saved);
            let begin = std::time::Instant::now();
            while !is_all(&std::fs::read_to_string(file).unwrap()) {
                assert!(
                    begin.elapsed() < Duration::from_secs(20),
                    "{manner:?} {gap} {typed}: it is never written"
                );
                rest(5);
            }
            // All the way back there is no text that is not whole.
            while desk.shown.borrow().history.0.is_some() {
                let before = desk.shown.borrow().clone();
                desk.ask(What::Asked(Asked::Undo));
                let shown = desk.wait("one step back", |shown| {
                    shown.history != before.history || shown.version != before.version
                });
                assert_eq!(shown.text.lines().count(), 20, "{manner:?} {gap} {typed}: {}", shown.text);
            }
            assert_eq!(*desk.shown.borrow().text, *text, "{manner:?} {gap} {typed}");
        });
    });
}

#[test]
fn a_program_that_empties_the_file_first_loses_nothing() {
    both_arrive(Manner::Emptied);
}

#[test]
fn a_program_that_opens_the_file_twice_loses_nothing() {
    both_arrive(Manner::EmptiedAndClosed);
}

#[test]
fn a_program_that_writes_in_parts_loses_nothing() {
    both_arrive(Manner::InParts);
}

#[test]
fn a_program_that_renames_loses_nothing() {
    both_arrive(Manner::Renamed);
}

/// A program that dies in the middle of writing: it is asked which text is wanted, and both are there.
#[test]
fn a_program_that_is_killed_half_way_loses_nothing() {
    trials(|at, gap, typed| {
        with_watched(|desk, file, text| {
            let theirs = text.replacen("line 15\n", "line 15, saved\n", 1);
            // Within a line, or nothing at all.
            let half = if at % 2 == 0 { "" } else { theirs.split_once("ine 10").unwrap().0 };
            let open = OpenOptions::new().write(true).truncate(true).open(file).unwrap();
            std::thread::scope(|scope| {
                scope.spawn(|| {
                    let mut open = open;
                    rest(gap);
                    open.write_all(half.as_bytes()).unwrap();
                });
                typing(desk, typed);
            });
            desk.wait("a question", |shown| shown.file.0 == FileState::Asking);
            assert_eq!(std::fs::read_to_string(file).unwrap(), half);
            let own = text.replacen("line 1\n", "line 1, typed\n", 1);
            assert_eq!(*desk.shown.borrow().text, own);
            desk.ask(What::Asked(Asked::Keep { own: true }));
            desk.wait("its own text", |shown| shown.file.0 == FileState::Saved);
            let begin = std::time::Instant::now();
            while std::fs::read_to_string(file).unwrap() != own {
                assert!(begin.elapsed() < Duration::from_secs(20), "{gap} {typed}: it is never written");
                rest(5);
            }
            // The other one is on the way back.
            desk.ask(What::Asked(Asked::Undo));
            desk.wait("what was left", |shown| *shown.text == *half);
            desk.ask(What::Asked(Asked::Undo));
            desk.wait("its own text", |shown| *shown.text == own);
        });
    });
}
