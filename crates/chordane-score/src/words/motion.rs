//! Words for motion.

use chordane::prelude::*;
use rhai::Array;

use super::entry::{Section, Word, word};
use super::paths::each;
use crate::call::Call;
use crate::call_error::CallError;
use crate::values::{End, Moving, ScoreKeys, Stroked, Thing};

pub(super) const TITLE: &str = "Motion";

pub(super) fn section() -> Section {
    Section {
        title: TITLE,
        about: "A score that asks for its `phase()` moves: the phase goes from 0 to 1 and comes round, and everything else follows from it. A still \
            shows one moment of the loop, a clip all of them. Numbers, angles, points, colours, extents, poses and paths can swing and have keys. An easing is a text as \
            in CSS: \"ease-in-out\", \"cubic-bezier(0.4, 0, 0.2, 1)\", \"steps(4)\", \"linear(0, 0.5 25%, 1)\"; or \"spring(120, 9)\" with a stiffness and a damping.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    let mut all = phases();
    all.extend(keyed());
    all.extend(timelines());
    all.extend(riding());
    all
}

fn phases() -> Vec<Word> {
    vec![
        word(
            "phase()",
            "The position in the loop, from 0 (included) to 1 (excluded): frame k of n is at k / n.",
            r##"circle(pt(0, 0), 30).fill("teal").moved([swing(phase(), -40, 40), 0])"##,
            |call: &Call<'_>| call.stage(|stage| stage.phase()),
        ),
        word(
            "seconds()",
            "The seconds since the loop began: the phase times its length.",
            r##"polygon(pt(0, 0), 5, 30).rotated(deg(90 * seconds()))"##,
            |call: &Call<'_>| call.stage(|stage| stage.seconds()),
        ),
        word(
            "frame()",
            "The frame number, counted from 0.",
            r##"circle(pt(0, 0), 20 + frame())"##,
            |call: &Call<'_>| call.stage(|stage| stage.frame()) as f64,
        ),
        word(
            "pointer()",
            "Where the pointer is: at the point that is asked for, or as a track has it at this moment. Its `x` and `y` are those of the sheet.",
            r##"circle(pointer(), 12).fill("teal")"##,
            |call: &Call<'_>| call.stage(|stage| stage.pointer().at),
        ),
        word(
            "pointer_down()",
            "True while the pointer is pressed.",
            r##"circle(pt(0, 0), if pointer_down() { 12 } else { 30 })"##,
            |call: &Call<'_>| call.stage(|stage| stage.pointer().down),
        ),
        word(
            "rounds(phase, count, delay)",
            "The phase within a cycle when the loop holds `count` cycles; `delay` shifts it by a fraction of a cycle. With a whole `count` it loops seamlessly.",
            r##"around(5).map(|a| circle(polar(a, 40), swing(rounds(phase(), 2, a.turns()), 3, 9)).fill("teal"))"##,
            |phase: f64, count: f64, delay: f64| rounds(phase, count, delay),
        ),
        word(
            "swing(phase, low, high)",
            "Moves smoothly from one value to another and back again.",
            r##"start(pt(0, 0)).line([swing(phase(), 20, 60), 40]).open()"##,
            |phase: f64, low: End, high: End| {
                Moving::pair(&low, &high, "swing").map(|(low, high)| swing(phase, low, high))
            },
        ),
        word(
            "pulse(phase, low, high)",
            "A beat: moves smoothly to another value and back in the first half of the cycle, and rests in the second.",
            r##"circle(pt(0, 0), pulse(phase(), 20, 30))"##,
            |phase: f64, low: End, high: End| {
                Moving::pair(&low, &high, "pulse").map(|(low, high)| pulse(phase, low, high))
            },
        ),
        word(
            "saw(phase, low, high)",
            "Moves linearly from one value to another and jumps back at the end (a sawtooth). There is no seam if both ends look the same, as with a full turn.",
            r##"polygon(pt(0, 0), 5, 40).rotated(saw(phase(), deg(0), deg(72)))"##,
            |phase: f64, low: End, high: End| {
                Moving::pair(&low, &high, "saw").map(|(low, high)| saw(phase, low, high))
            },
        ),
        word(
            "hold(phase, values)",
            "Steps through a list, holding each value for an equal part of the cycle.",
            r##"circle(pt(0, 0), 30).fill(hold(phase(), ["gold", "teal", "#c8553d"]))"##,
            |phase: f64, values: Array| {
                hold(phase, &values)
                    .cloned()
                    .ok_or_else(|| CallError::new("`hold`: the list is empty; give one value at least"))
            },
        ),
        word(
            "ease(share, easing)",
            "The eased progress at a fraction of the time.",
            r##"circle(pt(60 * ease(phase(), "ease-in-out"), 0), 9)"##,
            |share: f64, easing: String| {
                let easing = Easing::from(easing);
                easing.sound()?;
                Ok::<_, CallError>(easing.at(share))
            },
        ),
    ]
}

fn keyed() -> Vec<Word> {
    vec![
        word(
            "keys(list)",
            "Keyframes: each a time from 0 to 1, a value and, optionally, the easing up to the next key. Values in between are interpolated.",
            r##"circle(pt(0, keys([[0, 0], [0.25, -40, "ease-in-out"], [1, 0]]).at(phase())), 12)"##,
            |list: Array| ScoreKeys::of(&list, "keys"),
        ),
        word(
            ".eased(easing)",
            "Applies an easing between every two keys.",
            r##"keys([[0, deg(0)], [0.5, deg(40)], [1, deg(0)]]).eased("ease-in-out").at(0.25)"##,
            |keys: ScoreKeys, easing: String| keys.eased(&easing),
        ),
        word(
            ".stretch(number, easing)",
            "Applies an easing between one key, counted from 0, and the next.",
            r##"keys([[0, 0], [0.5, 40], [1, 0]]).stretch(1, "ease-out").at(0.75)"##,
            |keys: ScoreKeys, number: usize, easing: String| keys.stretch(number, &easing),
        ),
        word(
            ".looped()",
            "Interpolates from the last key across the end of the loop to the first.",
            r##"keys([[0, 10], [0.3, 40], [0.6, 20]]).looped().at(0.9)"##,
            |keys: ScoreKeys| keys.looped(),
        ),
        word(
            ".there_and_back()",
            "Plays forward in the first half and backward in the second.",
            r##"keys([[0, 10], [1, 40]]).eased("ease-in").there_and_back().at(0.75)"##,
            |keys: ScoreKeys| keys.there_and_back(),
        ),
        word(
            ".repeated(count)",
            "Plays this many times per loop.",
            r##"keys([[0, 10], [0.5, 40], [1, 10]]).repeated(3).at(0.5)"##,
            |keys: ScoreKeys, count: f64| keys.repeated(count),
        ),
        word(
            ".delayed(share)",
            "Delays by a fraction of a cycle, wrapping round from the end to the beginning.",
            r##"keys([[0, 10], [0.5, 40], [1, 10]]).delayed(0.2).at(0.5)"##,
            |keys: ScoreKeys, share: f64| keys.delayed(share),
        ),
        word(
            ".way(name)",
            "The direction in which angles turn from key to key: `as-given` (the default), `shorter`, `clockwise` or `anticlockwise`.",
            r##"keys([[0, deg(350)], [1, deg(10)]]).way("shorter").at(0.5)"##,
            |keys: ScoreKeys, name: String| keys.way(&name),
        ),
        word(
            ".at(phase)",
            "The value at a phase.",
            r##"keys([[0, "gold"], [0.5, "navy"], [1, "gold"]]).at(0.25)"##,
            |keys: ScoreKeys, phase: f64| keys.at(phase),
        ),
        word(
            "pose(step, turn, scale)",
            "A translation, a rotation (clockwise on screen) and a scale in one value. Poses can have keyframes.",
            r##"star(pt(0, 0), 5, 20, 9).posed(pose([40, 0], deg(30), 1.5))"##,
            |step: Point, turn: Angle, scale: f64| pose(step, turn, scale),
        ),
        word(
            ".posed(pose)",
            "Applies a pose: scales, rotates about the origin, then translates. Returns the same kind of value.",
            r##"star(pt(0, 0), 5, 20, 9).posed(keys([[0, pose([0, 0], deg(0), 1)], [1, pose([60, 0], deg(72), 1)]]).at(phase()))"##,
            |thing: Thing, pose: Pose| each!(thing, one => one.posed(pose)),
        ),
    ]
}

fn timelines() -> Vec<Word> {
    vec![
        word(
            "timeline()",
            "A timeline of named spans that together fill the loop: in sequence, in parallel or staggered. Only the ratio of their lengths matters.",
            r##"let flight = timeline().then("rise", 1).then("turn", 2);
polygon(pt(0, -40 * flight.share("rise", phase())), 4, 20).rotated(deg(90 * flight.share("turn", phase())))"##,
            timeline,
        ),
        word(
            ".then(name, length)",
            "Adds a span that begins when everything before it has ended.",
            r##"timeline().then("rise", 1).then("turn", 2).share("turn", 0.5)"##,
            |line: Timeline, name: String, length: f64| line.then(&name, length),
        ),
        word(
            ".together(name, length)",
            "Adds a span that begins together with the one before it.",
            r##"timeline().then("rise", 1).together("fade", 2).share("fade", 0.5)"##,
            |line: Timeline, name: String, length: f64| line.together(&name, length),
        ),
        word(
            ".after(pause, name, length)",
            "Adds a span that begins `pause` after everything before it has ended, or earlier if the pause is negative.",
            r##"timeline().then("rise", 1).after(0.5, "turn", 2).share("turn", 0.5)"##,
            |line: Timeline, pause: f64, name: String, length: f64| line.after(pause, &name, length),
        ),
        word(
            ".staggered(name, count, length, step)",
            "Adds `count` spans with one name, each beginning `step` after the one before it.",
            r##"let line = timeline().staggered("vent", 5, 2, 0.5);
[0, 1, 2, 3, 4].map(|i| circle(pt(20 * i, 0), 9 * line.share_of("vent", i, phase())))"##,
            |line: Timeline, name: String, count: usize, length: f64, step: f64| {
                line.staggered(&name, count, length, step)
            },
        ),
        word(
            ".share(name, phase)",
            "The progress of a span at a phase: 0 before it begins, 1 after it has ended.",
            r##"ease(timeline().then("rise", 1).then("turn", 2).share("rise", 0.2), "ease-out")"##,
            |line: Timeline, name: String, phase: f64| {
                line.find(&name, 0)?;
                Ok::<_, CallError>(line.share(&name, phase))
            },
        ),
        word(
            ".share_of(name, number, phase)",
            "The progress, at a phase, of one of several spans with the same name, counted from 0.",
            r##"timeline().staggered("vent", 5, 2, 0.5).share_of("vent", 3, 0.6)"##,
            |line: Timeline, name: String, number: usize, phase: f64| {
                line.find(&name, number)?;
                Ok::<_, CallError>(line.share_of(&name, number, phase))
            },
        ),
    ]
}

fn riding() -> Vec<Word> {
    vec![
        word(
            ".riding(path, share)",
            "Places a shape on a path: its origin at a fraction of the length, turned so that +x follows the direction of travel. On a closed path the fraction wraps round.",
            r##"star(pt(0, 0), 5, 12, 5).riding(ellipse(pt(0, 0), 80, 40), phase())"##,
            |thing: Thing, path: Path, share: f64| each!(thing, one => one.riding(&path, share)),
        ),
        word(
            ".riding_upright(path, share)",
            "Places a shape on a path at a fraction of the length, without turning it.",
            r##"star(pt(0, 0), 5, 12, 5).riding_upright(ellipse(pt(0, 0), 80, 40), phase())"##,
            |thing: Thing, path: Path, share: f64| each!(thing, one => one.riding_upright(&path, share)),
        ),
        word(
            ".drawn_in(share)",
            "The part of a path up to a fraction of its length: nothing at 0, all of it at 1.",
            r##"star(pt(0, 0), 5, 40, 18).drawn_in(0.6).stroke("teal", 3)"##,
            |path: Path, share: f64| path.drawn_in(share),
        ),
        word(
            ".drawn_out(share)",
            "The part of a path after a fraction of its length: all of it at 0, nothing at 1.",
            r##"star(pt(0, 0), 5, 40, 18).drawn_out(0.6).stroke("teal", 3)"##,
            |path: Path, share: f64| path.drawn_out(share),
        ),
        word(
            ".marching(phase)",
            "Moves the dashes along by a fraction of their pattern, so that a full phase brings them back to where they were. Set the dashes first.",
            r##"circle(pt(0, 0), 40).stroke("teal", 3).dash([9, 6]).marching(phase())"##,
            |on: Stroked, phase: f64| on.marching(phase),
        ),
    ]
}
