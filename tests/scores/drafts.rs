//! The score of a draft draws what the draft is.

use chordane::chance::Dice;
use chordane::draft::{Draft, Step, VertexKind};
use chordane::number::pt;
use chordane_score::{Limits, Score, Script};

#[test]
fn the_score_of_a_draft_draws_it() {
    let mut dice = Dice::new(8, "drafts");
    for _ in 0..40 {
        let mut draft = Draft::new();
        for _ in 0..dice.whole(1, 4) {
            for _ in 0..dice.whole(2, 7) {
                let kind = match dice.whole(0, 3) {
                    0 => VertexKind::Soft,
                    1 => VertexKind::Rounded((dice.between(2.0, 20.0) * 10.0).round() / 10.0),
                    _ => VertexKind::Corner,
                };
                // As many digits as are written.
                let at = pt(dice.whole(0, 200) as f64 / 2.0, dice.whole(0, 2000) as f64 / 20.0);
                draft.apply(Step::Add { at, kind }).unwrap();
            }
            let closed = dice.whole(0, 2) > 0;
            draft.apply(Step::Finish { closed }).unwrap();
            let id = draft.shapes().last().unwrap().id();
            if closed && draft.shape(id).unwrap().hole_of().is_none() && dice.whole(0, 1) == 1 {
                draft.apply(Step::Hole { shape: id }).unwrap();
            }
        }
        let text = draft.score(100.0, 100.0);
        let score = Script::read("draft.chord", text.as_str(), Limits::default()).unwrap().sheet().unwrap();
        assert_eq!(score.pixels().unwrap(), draft.sheet(100.0, 100.0).pixels().unwrap(), "{text}");
    }
}
