//! Watching the file, and marks that come in.

use std::io::BufRead;
use std::path::Path;
use std::sync::mpsc::Sender;

use chordane::read::{MarkFrame, Marks, MarksReader};
use notify::event::{ModifyKind, RenameMode};
use notify::{Event, EventKind, RecursiveMode, Watcher};

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
    for line in std::io::stdin().lock().lines() {
        let Ok(line) = line else { break };
        let Some(mut frame) = reader.read(&line) else { continue };
        if held {
            // A lost mark is where it was last seen.
            let both = last.points().filter(|(number, _)| frame.at(*number).is_none()).chain(frame.points());
            frame = MarkFrame::new(both.collect::<Vec<_>>());
            last.clone_from(&frame);
        }
        if let Some(frames) = smoothed {
            // Over those that came in last.
            recent.push(frame.clone());
            let most = (2.0 * frames).ceil().clamp(1.0, 100.0) as usize;
            recent.drain(..recent.len().saturating_sub(most));
            frame = Marks::from(recent.clone()).smoothed(frames).frames().last().cloned().unwrap_or(frame);
        }
        if !told_outside(jobs, What::Marks(frame, reader.skipped())) {
            return;
        }
    }
    if reader.skipped() > 0 {
        let lines =
            if reader.skipped() == 1 { "1 line".to_owned() } else { format!("{} lines", reader.skipped()) };
        say(&format!("note: skipped {lines} of marks that were not frames"));
    }
}
