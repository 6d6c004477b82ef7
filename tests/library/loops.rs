//! Loops: which of them have a seam, and which only look as if; and what is seen over a round.

use chordane::check::{Code, Finding, LoopMoments};
use chordane::prelude::*;
use proptest::prelude::*;

/// What is found on a loop of 24 moments on a page of 200 by 100.
fn found(score: impl Fn(f64) -> Vec<Item>) -> Vec<Finding> {
    let at = |phase: f64| sheet(200.0, 100.0).add_all(score(phase));
    let moments: Vec<Sheet> = (0..24).map(|k| at(f64::from(k) / 24.0)).collect();
    LoopMoments { moments: &moments, last: &at(0.9999) }.findings().unwrap()
}

fn codes(score: impl Fn(f64) -> Vec<Item>) -> Vec<Code> {
    found(score).into_iter().map(|finding| finding.code).collect()
}

fn bead(at: (f64, f64)) -> Item {
    circle(at, 8.0).fill("#c8553d")
}

/// What is on the page at a phase.
type Moving = Box<dyn Fn(f64) -> Vec<Item>>;

#[test]
fn what_comes_round_has_no_seam() {
    let sound: Vec<(&str, Moving)> = vec![
        ("still", Box::new(|_| vec![bead((50.0, 50.0))])),
        ("swing", Box::new(|t| vec![bead((swing(t, 20.0, 180.0), 50.0))])),
        (
            "full turn",
            Box::new(|t| {
                vec![
                    polygon((0.0, 0.0), 5, 30.0)
                        .rotated(saw(t, turns(0.0), turns(1.0)))
                        .moved((90.0, 50.0))
                        .fill("teal"),
                ]
            }),
        ),
        (
            "a turn by one corner",
            Box::new(|t| {
                vec![
                    polygon((0.0, 0.0), 5, 30.0)
                        .rotated(saw(t, deg(0.0), deg(72.0)))
                        .moved((90.0, 50.0))
                        .fill("teal"),
                ]
            }),
        ),
        (
            "riding",
            Box::new(|t| {
                vec![
                    star((0.0, 0.0), 5, 9.0, 4.0).fill("teal").riding(&ellipse((100.0, 50.0), 70.0, 30.0), t),
                ]
            }),
        ),
        // Each takes the place of the next, and what goes off one end comes in at the other.
        ("belt", Box::new(|t| (0..6).map(|i| bead((-20.0 + 40.0 * (f64::from(i) + t), 50.0))).collect())),
        // Values that are held jump all the time, and are meant to.
        ("held", Box::new(|t| vec![bead((*hold(t, &[30.0, 90.0, 150.0]).unwrap(), 50.0))])),
        (
            "held colours",
            Box::new(|t| vec![circle((50.0, 50.0), 9.0).fill(*hold(t, &["gold", "teal", "navy"]).unwrap())]),
        ),
        (
            "by chance",
            Box::new(|t| {
                let mut dice = Dice::new((t * 240.0) as u64, "jitter");
                vec![bead((100.0 + dice.between(-30.0, 30.0), 50.0))]
            }),
        ),
        (
            "wandering",
            Box::new(|t| vec![bead((100.0 + 60.0 * Dice::new(1, "gust").wander_loop(t, 4.0), 50.0))]),
        ),
        (
            "looped keys",
            Box::new(|t| vec![bead((keys([(0.1, 20.0), (0.4, 160.0)]).looped().at(t).unwrap(), 50.0))]),
        ),
        (
            "marching",
            Box::new(|t| vec![circle((50.0, 50.0), 30.0).stroke("teal", 3.0).dash([9.0, 6.0]).marching(t)]),
        ),
        ("less than is seen", Box::new(|t| vec![bead((100.0 + 0.2 * t, 50.0))])),
        (
            "drawn in and out",
            Box::new(|t| {
                let line = start((20.0, 50.0)).line((180.0, 50.0)).open();
                let part = if t < 0.5 { line.drawn_in(2.0 * t) } else { line.drawn_out(2.0 * t - 1.0) };
                vec![part.stroke("teal", 3.0), bead((100.0, 20.0))]
            }),
        ),
    ];
    for (name, score) in sound {
        let found = found(score);
        let seams: Vec<_> = found.iter().filter(|finding| finding.code == Code::LoopSeam).collect();
        assert!(seams.is_empty(), "{name}: {seams:?}");
    }
}

#[test]
fn what_jumps_is_told_with_how_far() {
    let one = |score: Box<dyn Fn(f64) -> Item>| {
        let found = found(move |t| vec![score(t).at_line(7)]);
        let seams: Vec<_> = found.into_iter().filter(|finding| finding.code == Code::LoopSeam).collect();
        assert_eq!(seams.len(), 1, "{seams:?}");
        assert_eq!((seams[0].path, seams[0].line), (Some(0), Some(7)));
        seams[0].message.clone()
    };
    assert_eq!(
        one(Box::new(|t| bead((saw(t, 40.0, 120.0), 50.0)))),
        "line 7: the loop has a seam: where it begins again this jumps by 80 units"
    );
    assert!(
        one(Box::new(|t| polygon((0.0, 0.0), 5, 30.0)
            .rotated(deg(60.0 * t))
            .moved((90.0, 50.0))
            .fill("teal")))
        .contains("jumps by 3.")
    );
    assert!(
        one(Box::new(|t| circle((50.0, 50.0), 10.0 + 30.0 * t).stroke("teal", 2.0)))
            .contains("jumps by 30 units")
    );
    let faded =
        |t: f64| circle((50.0, 50.0), 9.0).fill(mix(rgb(200.0, 85.0, 61.0), rgb(47.0, 111.0, 115.0), t));
    assert!(one(Box::new(faded)).contains("suddenly changes colour"));
    // Several of a line are told once.
    let many = found(|t| {
        (0..5).map(|i| bead((saw(t, 10.0, 30.0) + 35.0 * f64::from(i), 50.0)).at_line(3)).collect()
    });
    assert_eq!(many.len(), 1);
    assert!(
        many[0].message.ends_with("jumps by 20 units, and so do 4 other paths of this line"),
        "{}",
        many[0].message
    );
}

#[test]
fn what_leaves_and_what_vanishes_is_told() {
    let away = found(|t| vec![bead((100.0 + 400.0 * t, 50.0)), bead((20.0, 20.0))]);
    let told = away.iter().find(|finding| finding.code == Code::OffSheet).unwrap();
    assert_eq!(
        told.message,
        "this leaves the sheet at phase 0.292 and does not come back before the loop ends"
    );
    // Through, from off one side to off the other, is meant.
    assert_eq!(codes(|t| vec![bead((-20.0 + 240.0 * t, 50.0)), bead((20.0, 20.0))]), []);
    let blink = found(|t| vec![bead((50.0, 50.0)).opacity(if t > 0.4 && t < 0.6 { 0.0 } else { 1.0 })]);
    assert_eq!(blink.len(), 1);
    assert_eq!((blink[0].code, blink[0].path), (Code::Unpainted, None));
    assert_eq!(blink[0].message, "nothing can be seen from phase 0.417 on, for 21 % of the loop");
    assert_eq!(LoopMoments { moments: &[], last: &sheet(9.0, 9.0) }.findings().unwrap(), []);
}

proptest! {
    #![proptest_config(crate::support::cases(40))]

    /// A loop of any continuous closed motion is sound, and the same with a jump of any size that can be seen is not.
    #[test]
    fn jumps_are_found_and_nothing_else(x in 20.0..80.0_f64, wide in 0.0..60.0_f64, count in 1_i32..4, jump in 6.0..40.0_f64, corners in 3_usize..7) {
        let place = move |t: f64| pt(x + 30.0 + swing(rounds(t, f64::from(count), 0.3), 0.0, wide), 50.0 + swing(t, -10.0, 10.0));
        let shape = polygon((0.0, 0.0), corners, 12.0);
        let sound = |t: f64| vec![shape.moved(place(t)).fill("teal")];
        prop_assert!(!codes(sound).contains(&Code::LoopSeam));
        // A jump that the loop itself does not make in a twenty-fourth of it.
        let usual = wide * f64::from(count) * std::f64::consts::PI / 24.0 + 4.0;
        let far = jump.max(3.0 * usual);
        let step = |t: f64| vec![shape.moved(place(t) + pt(far * t, 0.0)).fill("teal")];
        prop_assert!(codes(step).contains(&Code::LoopSeam) || far < 2.0 * (usual + far / 24.0));
    }
}
