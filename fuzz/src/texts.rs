//! Checks of what is read.

use std::time::Duration;

use chordane::path::DataError;
use chordane::prelude::*;
use chordane::read::read_metadata;
use chordane_score::{Knob, KnobKind, Limits, MarkFrame, Marks, PointerTrack, Runner, Script, Settings};

use crate::shapes::outlives;

/// A text out of bytes.
fn text(bytes: &[u8]) -> String {
    String::from_utf8_lossy(bytes).into_owned()
}

/// A message that can be shown, and read.
fn is_plain(message: &str) {
    let odd = |c: char| c.is_control() && !"\n\t".contains(c);
    assert!(!message.is_empty() && !message.contains(odd), "{message:?}");
    assert!(message.chars().count() < 1500, "{message}");
}

/// Path data is read, up to the place of a mistake; and what is written reads as the same.
pub fn path_data(bytes: &[u8]) {
    let text = text(bytes);
    let path = match Path::from_data(&text) {
        Ok(path) => path,
        Err(mistake) => so_far(&text, &mistake),
    };
    if path.sound().is_err() {
        return;
    }
    let again =
        Path::from_data(&path.data()).unwrap_or_else(|mistake| panic!("{mistake} in {}", path.data()));
    assert_eq!(again.data(), path.data(), "written once more");
    let size = path.control_bounds().map_or(1.0, |bounds| bounds.size().max_element());
    for (one, other) in path.segments().zip(again.segments()) {
        let gap = one.at(0.5).distance(other.at(0.5));
        // What is too large for numbers is not a number in its middle.
        assert!(gap.is_nan() || gap <= 1e-6 * size, "{}", path.data());
    }
    outlives(&path);
}

fn so_far(text: &str, mistake: &DataError) -> Path {
    is_plain(&mistake.to_string());
    assert!(text.is_char_boundary(mistake.position()), "{} of {text:?}", mistake.position());
    mistake.so_far().clone()
}

fn limits() -> Limits {
    Limits { steps: 300_000, time: Duration::from_secs(2), memory: 256 << 20, ..Limits::default() }
}

/// Documents are read or told; what was read is drawn, looked through and written, and what was written is read.
pub fn documents(bytes: &[u8]) {
    limits().within(|| {
        let reading = match Sheet::read_svg(bytes) {
            Ok(reading) => reading,
            Err(mistake) => return is_plain(&mistake.to_string()),
        };
        reading.notes.iter().for_each(|note| is_plain(&note.what));
        let _ = Sheet::read_svg_at(bytes, (30.0, 20.0));
        draw(&reading.sheet);
        if let Ok(svg) = reading.sheet.svg() {
            let again = Sheet::read_svg(svg.as_bytes()).unwrap_or_else(|mistake| panic!("{mistake}: {svg}"));
            assert!(again.notes.is_empty(), "{:?}: {svg}", again.notes);
        }
        assert_eq!(read_metadata(bytes), read_metadata(bytes));
    });
}

/// A sheet is drawn and looked through, or tells its fault.
fn draw(sheet: &Sheet) {
    match sheet.pixels_with(&WriteOptions::sized(24, 18)) {
        Ok(picture) => assert_eq!((picture.width(), picture.height()), (24, 18)),
        Err(mistake) => is_plain(&mistake.to_string()),
    }
    match sheet.check() {
        Ok(report) => report.findings.iter().for_each(|finding| {
            is_plain(&finding.message);
            is_plain(&finding.mend);
        }),
        Err(fault) => is_plain(&fault.to_string()),
    }
}

/// Scores run, or tell their mistake in plain words.
pub fn scores(bytes: &[u8]) {
    let source = text(bytes);
    let is_told = |message: &str| is_told(message, &source);
    let runner = match Runner::read("fuzz.chord", source.clone(), limits()) {
        Ok(runner) => runner,
        Err(mistake) => return is_told(&mistake.to_string()),
    };
    let run = runner.run(&Settings::new());
    match run.sheet() {
        Ok(sheet) => limits().within(|| draw(sheet)),
        Err(mistake) => is_told(&mistake.to_string()),
    }
}

/// Marks and tracks are read line by line, held and smoothed; what cannot be read is counted.
pub fn marks(bytes: &[u8]) {
    let text = text(bytes);
    match PointerTrack::read_json_lines(&text) {
        Ok(track) => assert!(track.samples().len() <= text.lines().count() && track.at(0.5).at.is_finite()),
        Err(mistake) => is_plain(&mistake.to_string()),
    }
    for reading in [Marks::read_json_lines(&text), Marks::read_csv(&text)] {
        let reading = match reading {
            Ok(reading) => reading,
            Err(mistake) => return is_plain(&mistake.to_string()),
        };
        reading.told.iter().for_each(|skipped| is_plain(&skipped.to_string()));
        let frames = reading.marks.frames();
        assert!(frames.len() + reading.skipped <= text.lines().count().max(1) * 2, "{text:?}");
        let Ok(held) = reading.marks.held() else { continue };
        for (frame, held) in frames.iter().zip(held.frames()) {
            assert!(frame.points().all(|(number, point)| held.at(number) == Some(point)), "{text:?}");
        }
        for smooth in [0.5, 40.0, f64::INFINITY].map(|width| reading.marks.smoothed(width)) {
            for (frame, smooth) in frames.iter().zip(smooth.frames()) {
                let numbers =
                    |frame: &MarkFrame| frame.points().map(|(number, _)| number).collect::<Vec<_>>();
                assert_eq!(numbers(frame), numbers(smooth), "{text:?}");
                assert!(smooth.points().all(|(_, point)| point.is_finite()), "{text:?}");
            }
        }
    }
}

/// A score rewritten is a score: with other numbers, another seed, knobs kept or thrown out.
pub fn rewriting(bytes: &[u8]) {
    let source = text(bytes);
    let read = |text: &str| Script::read("fuzz.chord", text, limits());
    let Ok(script) = read(&source) else { return };
    let same =
        |text: &str| read(text).unwrap_or_else(|mistake| panic!("{mistake}\nwas:\n{source}\nis:\n{text}"));
    assert_eq!(script.with_numbers(&[]), script.source());
    for (at, number) in script.numbers().iter().enumerate().take(8) {
        let after = same(&script.with_numbers(&[(at, number.value + 1.5)]));
        assert_eq!(after.numbers().len(), script.numbers().len(), "{source}");
    }
    let seeded = script.with_seed(7);
    assert_eq!(same(&seeded).with_seed(7), seeded);
    let names: Vec<String> = script.knob_names().map(str::to_owned).collect();
    for name in &names {
        same(&script.without_knob(name));
    }
    let run = Runner::new(same(&source)).run(&Settings::new());
    let settings =
        run.knobs().iter().fold(Settings::new(), |settings, knob| settings.set(&knob.name, end(knob)));
    let run = Runner::new(same(&source)).run(&settings);
    same(&script.with_knobs(run.knobs()));
}

/// A value that a knob can have, and does not start with where there is a choice.
fn end(knob: &Knob) -> String {
    match &knob.kind {
        KnobKind::Number { high, .. } => high.to_string(),
        KnobKind::Choice { start, choices } => choices.last().unwrap_or(start).clone(),
        KnobKind::Switch { start } => if *start { "off" } else { "on" }.to_owned(),
        KnobKind::Colour { .. } => "teal".to_owned(),
        _ => "3,-4.5".to_owned(),
    }
}

/// What the engine calls things is nobody's business, unless the score says it.
fn is_told(message: &str, source: &str) {
    is_plain(message);
    for inner in ["anon$", "rhai", "Dynamic", "alloc::", "ImmutableString", "data race"] {
        assert!(source.contains(inner) || !message.contains(inner), "{message}");
    }
}

/// Any bytes are asked for the text that a picture carries; and any text that a picture carries is found in it, in a document without what none can hold.
pub fn metadata(bytes: &[u8]) {
    let _ = read_metadata(bytes);
    let text = text(bytes);
    let page = sheet(2.0, 2.0).add(circle((1.0, 1.0), 1.0).fill("teal")).metadata(&text);
    match page.svg() {
        Ok(svg) => {
            let held = text.replace(
                |c: char| c < ' ' && !"\t\n\r".contains(c) || "\u{fffe}\u{ffff}".contains(c),
                "\u{fffd}",
            );
            assert_eq!(read_metadata(svg.as_bytes()).as_deref(), Some(&*held), "{svg}");
        }
        Err(fault) => is_plain(&fault.to_string()),
    }
    if let Ok(Ok(png)) = page.pixels().map(|pixels| pixels.png()) {
        assert_eq!(read_metadata(&png).as_deref(), Some(&*text));
    }
}
