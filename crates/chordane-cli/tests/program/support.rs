//! What the tests of the command share.

use std::path::PathBuf;

use assert_cmd::Command;
use tempfile::TempDir;

/// A score of one sail.
pub(crate) const SAIL: &str = r##"let sail = start(pt(0, -120)).line(pt(90, -30)).line(pt(0, 120)).line(pt(-90, -30)).close();
sheet(64, 48).centred().ground("#f4efe6").add(sail.fill("#c8553d"))
"##;

/// The command.
pub(crate) fn chordane() -> Command {
    Command::cargo_bin("chordane").unwrap()
}

/// A folder with a score in it.
pub(crate) fn loft(source: &str) -> (TempDir, PathBuf) {
    let folder = tempfile::tempdir().unwrap();
    let score = folder.path().join("kite.chord");
    std::fs::write(&score, source).unwrap();
    (folder, score)
}
