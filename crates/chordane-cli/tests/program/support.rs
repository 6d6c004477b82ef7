//! What the tests of the command share.

use std::path::{Path, PathBuf};
use std::sync::LazyLock;

use assert_cmd::Command;
use predicates::str::contains;
use tempfile::TempDir;

/// A score of one sail.
pub(crate) const SAIL: &str = r##"let sail = start(pt(0, -120)).line(pt(90, -30)).line(pt(0, 120)).line(pt(-90, -30)).close();
sheet(64, 48).centred().ground("#f4efe6").add(sail.fill("#c8553d"))
"##;

/// The command.
pub(crate) fn chordane() -> Command {
    Command::cargo_bin("chordane").unwrap()
}

/// The demo's folder, made once for each built command. Tests read it and write elsewhere.
pub(crate) fn demo() -> &'static Path {
    static DEMO: LazyLock<PathBuf> = LazyLock::new(|| {
        let folder = Path::new(env!("CARGO_TARGET_TMPDIR")).join("demo");
        let made_by = folder.with_extension("made-by");
        let command = std::fs::metadata(assert_cmd::cargo::cargo_bin("chordane")).unwrap();
        let command = format!("{:?} {}", command.modified().unwrap(), command.len());
        if std::fs::read_to_string(&made_by).is_ok_and(|before| before == command) {
            return folder;
        }
        let _ = std::fs::remove_dir_all(&folder);
        let made =
            chordane().args(["demo", "--out"]).arg(&folder).assert().success().stderr(contains("look at "));
        assert!(made.get_output().stdout.is_empty());
        std::fs::write(made_by, command).unwrap();
        folder
    });
    &DEMO
}

/// The scores that the demo drew.
pub(crate) fn demo_scores() -> Vec<PathBuf> {
    let mut scores: Vec<PathBuf> =
        std::fs::read_dir(demo()).unwrap().map(|entry| entry.unwrap().path()).collect();
    scores.retain(|file| file.extension().is_some_and(|ending| ending == "chord"));
    assert!(scores.len() >= 30);
    scores
}

/// A folder with a score in it.
pub(crate) fn loft(source: &str) -> (TempDir, PathBuf) {
    let folder = tempfile::tempdir().unwrap();
    let score = folder.path().join("kite.chord");
    std::fs::write(&score, source).unwrap();
    (folder, score)
}
