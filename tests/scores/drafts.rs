//! The score of a draft draws what the draft is.

use chordane::chance::Dice;
use chordane::draft::{Draft, Step, VertexKind};
use chordane::number::pt;
use chordane_score::{Limits, Score, Script, drafts};

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
            let id = draft.shapes().last().unwrap().id;
            if closed && draft.shape(id).unwrap().hole_of.is_none() && dice.whole(0, 1) == 1 {
                draft.apply(Step::Hole { shape: id }).unwrap();
            }
        }
        let text = drafts::score(&draft, 100.0, 100.0);
        let score = Script::read("draft.chord", text.as_str(), Limits::default()).unwrap().sheet().unwrap();
        assert_eq!(score.pixels().unwrap(), draft.sheet(100.0, 100.0).pixels().unwrap(), "{text}");
    }
}

#[test]
fn the_texts_of_a_draft_say_what_it_is() {
    let at = |x: f64, y: f64, kind| Step::Add { at: pt(x, y), kind };
    let (corner, finish) = (VertexKind::Corner, |closed| Step::Finish { closed });
    let draft = Draft::of([
        at(10.0, 10.0, corner),
        at(90.0, 20.5, VertexKind::Rounded(8.0)),
        at(2.0, 45.0, VertexKind::Soft),
        finish(true),
        Step::Hole { shape: 1 },
        at(20.0, 20.0, corner),
        at(30.0, 20.0, corner),
        at(25.0, 24.0, corner),
        finish(true),
        at(5.0, 95.0, corner),
        at(95.0, 97.5, corner),
    ]);
    assert_eq!(
        drafts::rust(&draft, 100.0, 100.0),
        "let shape_1 = through([corner((10.0, 10.0)), rounded((90.0, 20.5), 8.0), soft((2.0, 45.0))]).close();\n\
         let shape_2 = Path::closed([(20.0, 20.0), (30.0, 20.0), (25.0, 24.0)]);\n\
         let shape_3 = Path::open([(5.0, 95.0), (95.0, 97.5)]);\n\n\
         sheet(100.0, 100.0)\n    \
         .add(shape_1.with_hole(shape_2).fill(\"#c8553d\"))\n    \
         .add(shape_3.stroke(\"#20303c\", 2.0))\n"
    );
    let items = drafts::items(&draft);
    assert_eq!(items.len(), 2);
    let end = ".close().with_hole(closed([[20, 20], [30, 20], [25, 24]])).fill(\"#c8553d\")";
    assert!(items[0].ends_with(end), "{}", items[0]);
}
