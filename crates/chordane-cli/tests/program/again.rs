//! What was written is read back to the same picture.

use super::support::{chordane, demo_scores};

/// The demo's scores that SVG cannot say exactly, with how far the mean of their pixels may be off: colours that go round a centre, that follow a path,
/// and pictures in a path's bounds are drawn as pictures and wedges.
const NEARLY: f64 = 0.5;

#[test]
fn every_picture_of_the_demo_is_read_back_as_it_was_written() {
    let folder = tempfile::tempdir().unwrap();
    let (first, again) = (folder.path().join("first.png"), folder.path().join("again.png"));
    for score in demo_scores() {
        chordane().arg("draw").arg(&score).arg("-o").arg(&first).assert().success();
        let drawn =
            chordane().arg("draw").arg(score.with_extension("svg")).arg("-o").arg(&again).assert().success();
        let said = String::from_utf8_lossy(&drawn.get_output().stderr).into_owned();
        assert!(!said.contains("note:"), "{score:?}: {said}");
        let (ours, theirs) = (super::browser::pixels(&again), super::browser::pixels(&first));
        assert_eq!(ours.len(), theirs.len(), "{score:?}");
        let (mut sum, mut much) = (0.0, 0);
        // Rows that are equal are passed over at once.
        for (ours, theirs) in
            ours.chunks(1024).zip(theirs.chunks(1024)).filter(|(ours, theirs)| ours != theirs)
        {
            for (a, b) in ours.iter().zip(theirs) {
                let off = f64::from(a.abs_diff(*b));
                sum += off;
                much += usize::from(off > 24.0);
            }
        }
        let (count, much) = (ours.len() as f64, much as f64);
        assert!(sum < NEARLY * count && much < 0.001 * count, "{score:?}: {sum}, {much} much, of {count}");
    }
}
