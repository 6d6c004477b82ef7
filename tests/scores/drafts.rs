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
            let id = draft.shapes().last().unwrap().id();
            if closed && draft.shape(id).unwrap().hole_of().is_none() && dice.whole(0, 1) == 1 {
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
    let add = |x: f64, y: f64| Step::Add { at: pt(x, y), kind: VertexKind::Corner };
    let draft = Draft::of([
        add(10.0, 10.0),
        Step::Add { at: pt(90.0, 20.0), kind: VertexKind::Rounded(8.0) },
        add(80.0, 90.0),
        add(15.0, 80.0),
        Step::Finish { closed: true },
        Step::Insert { shape: 1, side: 3, at: pt(2.0, 45.0), kind: VertexKind::Soft },
        Step::Hole { shape: 1 },
        add(40.0, 40.0),
        add(60.0, 40.0),
        add(50.0, 60.0),
        Step::Finish { closed: true },
        add(5.0, 95.0),
        add(95.0, 97.5),
    ]);
    assert_eq!(
        drafts::rust(&draft, 100.0, 100.0),
        "let shape_1 = through([corner((10.0, 10.0)), rounded((90.0, 20.0), 8.0), corner((80.0, 90.0)), corner((15.0, 80.0)), soft((2.0, 45.0))]).close();\n\
         let shape_2 = Path::closed([(40.0, 40.0), (60.0, 40.0), (50.0, 60.0)]);\n\
         let shape_3 = Path::open([(5.0, 95.0), (95.0, 97.5)]);\n\n\
         sheet(100.0, 100.0)\n    \
         .add(shape_1.with_hole(shape_2).fill(\"#c8553d\"))\n    \
         .add(shape_3.stroke(\"#20303c\", 2.0))\n"
    );
    let items = drafts::items(&draft);
    assert_eq!(items.len(), 2);
    assert!(
        items[0].ends_with(".close().with_hole(closed([[40, 40], [60, 40], [50, 60]])).fill(\"#c8553d\")"),
        "{}",
        items[0]
    );
}
