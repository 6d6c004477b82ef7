//! What was written is read back to the same picture.

use super::support::chordane;

/// The demo's scores that SVG cannot say exactly, with how far the mean of their pixels may be off: colours that go round a centre, that follow a path,
/// and pictures in a path's bounds are drawn as pictures and wedges.
const NEARLY: f64 = 0.5;

#[test]
fn every_picture_of_the_demo_is_read_back_as_it_was_written() {
    let folder = tempfile::tempdir().unwrap();
    chordane().args(["demo", "--out"]).arg(folder.path()).assert().success();
    let mut count = 0;
    for entry in std::fs::read_dir(folder.path()).unwrap().flatten() {
        let file = entry.path();
        if file.extension().is_none_or(|ending| ending != "chord") {
            continue;
        }
        let at = |name: &str| folder.path().join(name);
        let (svg, first, again) = (at("written.svg"), at("first.png"), at("again.png"));
        chordane().arg("draw").arg(&file).arg("-o").arg(&svg).arg("-o").arg(&first).assert().success();
        let drawn = chordane().arg("draw").arg(&svg).arg("-o").arg(&again).assert().success();
        let said = String::from_utf8_lossy(&drawn.get_output().stderr).into_owned();
        assert!(!said.contains("note:"), "{file:?}: {said}");
        let (ours, theirs) = (super::browser::pixels(&again), super::browser::pixels(&first));
        assert_eq!(ours.len(), theirs.len(), "{file:?}");
        let off: Vec<f64> = ours.iter().zip(&theirs).map(|(a, b)| f64::from(a.abs_diff(*b))).collect();
        let (mean, much) =
            (off.iter().sum::<f64>() / off.len() as f64, off.iter().filter(|d| **d > 24.0).count());
        assert!(mean < NEARLY && (much as f64) < 0.001 * off.len() as f64, "{file:?}: {mean}, {much} much");
        count += 1;
    }
    assert!(count >= 20);
}
