//! Places of the demo's drawings, dragged: the numbers of the scores change, and nothing else of their texts.

use std::time::Duration;

use chordane::chance::Dice;
use chordane::number::{polar, turns};
use chordane_score::{Holds, Limits, Script, Settings};

const LONG: Duration = Duration::from_secs(60);

/// A text with a mark in place of each of its numbers.
fn without_numbers(text: &str) -> String {
    let script = Script::read("kite.chord", text, Limits::default()).unwrap();
    let mut out = String::new();
    let mut at = 0;
    for number in script.numbers() {
        out.push_str(&text[at..number.bytes.start]);
        out.push('#');
        at = number.bytes.end;
    }
    // In brackets a number has its minus to itself.
    (out + &text[at..]).replace("(#)", "#")
}

/// After any drag a place is where it is wanted, or it is said why not; and the text differs in numbers alone.
#[test]
fn any_place_of_the_demo_can_be_dragged() {
    let mut random = Dice::new(17, "drags");
    let (mut reached, mut all) = (0, 0);
    for name in ["first-sail", "banner", "opening-banner", "spinning-ring", "dipping-kite", "stencil-hem"] {
        let file = format!("{}/demo/{name}.chord", env!("CARGO_MANIFEST_DIR"));
        let text = std::fs::read_to_string(file).unwrap();
        let script = Script::read(name, text.as_str(), Limits::default()).unwrap();
        let mut holds = Holds::new(script, Settings::new()).unwrap();
        let pattern = without_numbers(&text);
        for _ in 0..6 {
            let grip = random.place(holds.grips().len()).unwrap();
            holds.learn_near(grip, LONG);
            let Some(hold) = holds.of(grip).into_iter().next() else { continue };
            let wanted = holds.grips()[grip].at
                + polar(turns(random.between(0.0, 1.0)), 12.0 * random.between(0.0, 1.0));
            let mut drag = holds.drag(grip, &hold);
            // Two steps: the second goes on from the first.
            let _ = drag.to(holds.grips()[grip].at.lerp(wanted, 0.5), 0.5);
            let dragged = drag.to(wanted, 0.5);
            assert_eq!(without_numbers(&dragged.text), pattern, "{name}");
            let off = dragged.at.distance(wanted);
            assert_eq!(off > 0.5, dragged.held_back.is_some(), "{name}: {off} {:?}", dragged.held_back);
            // What is told is what the text draws.
            let script = Script::read(name, dragged.text.as_str(), Limits::default()).unwrap();
            let drawn = Holds::new(script, Settings::new()).unwrap();
            let own = holds.grips()[grip];
            let there = drawn.grips().iter().find(|g| g.item == own.item && g.kind == own.kind).unwrap();
            assert!(there.at.distance(dragged.at) < 1e-9);
            if hold.numbers.len() == 2 {
                (reached, all) = (reached + usize::from(off <= 0.5), all + 1);
            }
        }
    }
    // Where two numbers hold it, it goes nearly everywhere.
    assert!(all >= 20 && reached * 10 >= all * 9, "{reached} of {all}");
}
