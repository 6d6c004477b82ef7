//! Watching the file, and marks that come in.

use std::io::{self, BufRead, Read};
use std::path::Path;
use std::sync::Arc;
use std::sync::mpsc::Sender;

use chordane_score::{MarkFrame, Marks, MarksReader};
use notify::event::{ModifyKind, RenameMode};
use notify::{Event, EventKind, RecursiveMode, Watcher};

use super::latest::{LatestMarks, NewMarks};
use super::session::{Job, What};
use crate::output::say;

/// Tells something that happened outside of the pages; whether there is still somebody to tell.
pub(crate) fn told_outside(jobs: &Sender<Job>, what: What) -> bool {
    let (answer, _) = tokio::sync::mpsc::unbounded_channel();
    jobs.send(Job { page: 0, what, answer }).is_ok()
}

/// Watches a file for changes by others, and pictures beside it. The folder is watched, since many programs put a new file in place of the old one.
pub(crate) fn watch(file: &Path, jobs: Sender<Job>) -> Result<notify::RecommendedWatcher, String> {
    let name = file.file_name().map(ToOwned::to_owned);
    let folder = file.parent().filter(|folder| !folder.as_os_str().is_empty()).unwrap_or(Path::new("."));
    let is_picture = |path: &Path| {
        let ending = path.extension().and_then(|ending| ending.to_str()).unwrap_or_default();
        matches!(ending, "png" | "jpg" | "jpeg")
    };
    let seen = move |event: notify::Result<Event>| {
        let Ok(event) = event else { return };
        let changes = !matches!(
            event.kind,
            EventKind::Access(notify::event::AccessKind::Open(_) | notify::event::AccessKind::Read)
        );
        if !changes {
            return;
        }
        if event.paths.iter().any(|path| path.file_name() == name.as_deref()) {
            // A file that was renamed to this name came whole.
            let whole =
                matches!(event.kind, EventKind::Modify(ModifyKind::Name(RenameMode::To | RenameMode::Both)));
            told_outside(&jobs, What::Outside { whole });
        }
        if event.paths.iter().any(|path| is_picture(path)) {
            told_outside(&jobs, What::Pictures);
        }
    };
    let mut watcher = notify::recommended_watcher(seen).map_err(|error| error.to_string())?;
    watcher.watch(folder, RecursiveMode::NonRecursive).map_err(|error| error.to_string())?;
    Ok(watcher)
}

/// Hands on the marks that come in on standard input, line by line. What is no frame is left out and counted.
pub(crate) fn stream_marks(jobs: &Sender<Job>, held: bool, smoothed: Option<f64>) {
    let mut recent: Vec<MarkFrame> = Vec::new();
    let (mut reader, mut last) = (MarksReader::default(), MarkFrame::default());
    let (newest, mut left_out, mut too_long) = (Arc::new(LatestMarks::default()), 0, 0);
    let mut input = io::stdin().lock();
    let mut line = Vec::new();
    while let Ok(Some(whole)) = next_line(&mut input, &mut line) {
        if !whole {
            too_long += 1;
            continue;
        }
        let Some(mut frame) = reader.read(&String::from_utf8_lossy(&line)) else { continue };
        if held {
            // A lost mark is where it was last seen.
            frame = frame.or_as_in(&last);
            last.clone_from(&frame);
        }
        if let Some(frames) = smoothed {
            // Over those that came in last.
            recent.push(frame.clone());
            let most = (2.0 * frames).ceil().clamp(1.0, 100.0) as usize;
            recent.drain(..recent.len().saturating_sub(most));
            frame = Marks::from(recent.clone()).smoothed(frames).frames().last().cloned().unwrap_or(frame);
        }
        let taken = newest.put(NewMarks { frame, skipped: reader.skipped() + too_long, left_out });
        left_out += usize::from(!taken);
        if taken && !told_outside(jobs, What::Marks(Arc::clone(&newest))) {
            return;
        }
    }
    let skipped = reader.skipped() + too_long;
    if skipped > 0 {
        let lines = if skipped == 1 { "1 line".to_owned() } else { format!("{skipped} lines") };
        say(&format!("note: skipped {lines} of marks that were not frames"));
    }
}

const LONGEST: u64 = MarksReader::MAX_LINE as u64;

/// Reads a line without its line end. Returns false for a line that is too long, whose rest is skipped, and `None` at the end.
fn next_line(input: &mut impl BufRead, line: &mut Vec<u8>) -> io::Result<Option<bool>> {
    line.clear();
    if input.by_ref().take(LONGEST + 1).read_until(b'\n', line)? == 0 {
        return Ok(None);
    }
    if line.ends_with(b"\n") {
        line.pop();
        return Ok(Some(true));
    }
    if line.len() as u64 <= LONGEST {
        return Ok(Some(true));
    }
    loop {
        let some = input.fill_buf()?;
        let end = some.iter().position(|byte| *byte == b'\n');
        let passed = end.map_or(some.len(), |end| end + 1);
        if passed == 0 {
            return Ok(Some(false));
        }
        input.consume(passed);
        if end.is_some() {
            return Ok(Some(false));
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn lines_that_are_too_long_are_passed_over() {
        let long = "x".repeat(3 << 20);
        let text = format!("first\n{long}\nsecond\n\nlast");
        let mut input = io::BufReader::with_capacity(1 << 10, text.as_bytes());
        let (mut line, mut lines) = (Vec::new(), Vec::new());
        while let Some(whole) = next_line(&mut input, &mut line).unwrap() {
            assert!(line.len() as u64 <= LONGEST + 1);
            lines.push(if whole {
                String::from_utf8_lossy(&line).into_owned()
            } else {
                "too long".to_owned()
            });
        }
        assert_eq!(lines, ["first", "too long", "second", "", "last"]);
        // A line without an end.
        let mut input = io::BufReader::new(long.as_bytes());
        assert_eq!(next_line(&mut input, &mut line).unwrap(), Some(false));
        assert_eq!(next_line(&mut input, &mut line).unwrap(), None);
    }
}
