//! Words for chance.

use chordane::chance::Dice;
use chordane::ground::plain_number;
use chordane::prelude::*;
use rhai::{Array, Dynamic, FnPtr};

use super::entry::{Section, Word, word};
use crate::call::Call;
use crate::call_error::CallError;
use crate::values::{Builder, Tidy, description};

pub(super) fn section() -> Section {
    Section {
        title: "Chance",
        about: "Dice fall the same way every time, by the seed: another seed draws another one. Dice of different names do not disturb one another.",
        words: words(),
    }
}

/// Whole numbers are exact up to this.
const MAX_SEED: f64 = 9_007_199_254_740_992.0;

fn words() -> Vec<Word> {
    vec![
        word(
            "dice(name)",
            "Named dice (a seeded random number generator).",
            r#"dice("tail").between(10, 20)"#,
            |call: &Call<'_>, name: String| call.stage(|stage| stage.dice(&name)),
        ),
        word(
            "seed(number)",
            "Sets the score's own seed, for the dice made after it; a seed that is asked for overrides it. Gives the seed in use, a whole number.",
            r#"seed(7);
dice("tail").between(10, 20)"#,
            |call: &Call<'_>, number: f64| {
                let whole = number.fract() == 0.0 && (0.0..=MAX_SEED).contains(&number);
                if !whole {
                    let told =
                        format!("the seed must be a whole number from 0 up, got {}", plain_number(number));
                    return Err(CallError::new(told));
                }
                Ok(call.stage(|stage| stage.seed(number as u64)) as f64)
            },
        ),
        word(
            ".between(low, high)",
            "A uniformly distributed number from `low` to `high`.",
            r#"dice("tail").between(10, 20)"#,
            |dice: Builder<Dice>, low: f64, high: f64| dice.with(|dice| dice.between(low, high)),
        ),
        word(
            ".whole(low, high)",
            "A random whole number from `low` to `high`, both included.",
            r#"dice("tail").whole(1, 6)"#,
            |dice: Builder<Dice>, low: f64, high: f64| {
                Tidy(dice.with(|dice| dice.whole(low.ceil() as i64, high.floor() as i64)) as f64)
            },
        ),
        word(
            ".pick(list)",
            "A random element of a list.",
            r##"dice("cloth").pick(["#c8553d", "#2f6f73"])"##,
            |dice: Builder<Dice>, list: Array| {
                let empty = || CallError::new("the list is empty: there is nothing to pick");
                dice.with(|dice| dice.pick(&list).cloned()).ok_or_else(empty)
            },
        ),
        word(
            ".weighted(list, weights)",
            "A random element of a list, each with a probability proportional to its weight.",
            r##"dice("cloth").weighted(["#c8553d", "#2f6f73"], [3, 1])"##,
            |dice: Builder<Dice>, list: Array, weights: Vec<f64>| {
                if list.len() != weights.len() {
                    let told = format!("there are {} values and {} weights", list.len(), weights.len());
                    return Err(CallError::new(told).advise("give one weight for each"));
                }
                let none = || CallError::new("no weight is above 0: there is nothing to pick");
                let place = dice.with(|dice| dice.weighted(&weights)).ok_or_else(none)?;
                list.get(place).cloned().ok_or_else(none)
            },
        ),
        word(
            ".shuffle(list)",
            "The list in random order; every order is equally likely.",
            r#"dice("order").shuffle([1, 2, 3, 4])"#,
            |dice: Builder<Dice>, mut list: Array| {
                dice.with(|dice| dice.shuffle(&mut list));
                list
            },
        ),
        word(
            ".take(list, n)",
            "`n` different elements of a list in random order; all of them if there are fewer.",
            r#"dice("order").take([1, 2, 3, 4], 2)"#,
            |dice: Builder<Dice>, list: Array, n: usize| dice.with(|dice| dice.take(&list, n)),
        ),
        word(
            ".normal(mean, spread)",
            "A normally distributed number; `spread` is the standard deviation.",
            r#"dice("tail").normal(100, 15)"#,
            |dice: Builder<Dice>, mean: f64, spread: f64| dice.with(|dice| dice.normal(mean, spread)),
        ),
        word(
            ".inside(path)",
            "A random point inside a path, uniformly distributed.",
            r##"dice("dot").inside(circle(pt(0, 0), 40))"##,
            |dice: Builder<Dice>, path: Path| {
                let none = || CallError::new("the path has no inside: there is no point to give");
                dice.with(|dice| dice.inside(&path))?.ok_or_else(none)
            },
        ),
        word(
            ".scatter(path, n)",
            "`n` independent random points inside a path.",
            r##"dice("dots").scatter(circle(pt(0, 0), 40), 50)"##,
            |call: &Call<'_>, dice: Builder<Dice>, path: Path, n: usize| {
                call.room_for(n)?;
                Ok::<_, CallError>(dice.with(|dice| dice.scatter(&path, n))?)
            },
        ),
        word(
            ".scatter_apart(path, distance)",
            "As many random points inside a path as fit at this minimum distance from one another: evenly spread, but without a pattern (blue noise).",
            r##"dice("dots").scatter_apart(circle(pt(0, 0), 40), 6)"##,
            |dice: Builder<Dice>, path: Path, distance: f64| {
                above_zero(distance)?;
                Ok::<_, CallError>(dice.with(|dice| dice.scatter_apart(&path, distance))?)
            },
        ),
        word(
            ".scatter_apart(path, distance, n)",
            "At most `n` random points inside a path at this minimum distance from one another.",
            r##"dice("dots").scatter_apart(circle(pt(0, 0), 40), 6, 12)"##,
            |dice: Builder<Dice>, path: Path, distance: f64, n: usize| {
                above_zero(distance)?;
                dice.with(|dice| {
                    let all = dice.scatter_apart(&path, distance)?;
                    Ok::<_, CallError>(dice.take(&all, n))
                })
            },
        ),
        word(
            ".wander(x)",
            "Smooth noise from -1 to 1 along x, with about one peak or trough per unit.",
            r##"dice("gust").wander(0.4)"##,
            |dice: Builder<Dice>, x: f64| dice.with(|dice| dice.wander(x)),
        ),
        word(
            ".wander(x, y)",
            "Smooth two-dimensional noise from -1 to 1.",
            r##"dice("gust").wander(0.4, 2.7)"##,
            |dice: Builder<Dice>, x: f64, y: f64| dice.with(|dice| dice.wander_over(x, y)),
        ),
        word(
            ".wander_loop(phase, busy)",
            "Smooth noise from -1 to 1 that loops: a phase of 1 gives the same as 0. `busy` is roughly the number of peaks and troughs.",
            r##"dice("gust").wander_loop(0.25, 5)"##,
            |dice: Builder<Dice>, phase: f64, busy: f64| dice.with(|dice| dice.wander_loop(phase, busy)),
        ),
        word(
            ".keep_if(tries, make, keep)",
            "Calls `make` with the dice until `keep` returns true for the result, at most `tries` times.",
            r##"dice("patch").keep_if(200, |dice| closed(dice.scatter(rectangle(pt(0, 0), 90, 90), 5)), |patch| !patch.crosses_itself() && patch.vertex_gap() > 20)"##,
            |call: &Call<'_>, dice: Builder<Dice>, tries: u64, make: FnPtr, keep: FnPtr| {
                keep_if(call, &dice, tries, &make, &keep)
            },
        ),
    ]
}

/// Refuses a distance that keeps nothing apart.
fn above_zero(distance: f64) -> Result<(), CallError> {
    if distance > 0.0 {
        return Ok(());
    }
    Err(CallError::new(format!("`scatter_apart`: the distance must be above 0, got {distance}"))
        .advise("scatter(path, n) gives points that may lie anywhere"))
}

fn keep_if(
    call: &Call<'_>,
    dice: &Builder<Dice>,
    tries: u64,
    make: &FnPtr,
    keep: &FnPtr,
) -> Result<Dynamic, CallError> {
    for _ in 0..tries {
        let Some(made) = call.ask_for_any(make, (dice.same(),)) else { return Ok(Dynamic::UNIT) };
        let Some(kept) = call.ask_for_any(keep, (made.clone(),)) else { return Ok(Dynamic::UNIT) };
        match kept.as_bool() {
            Ok(true) => return Ok(made),
            Ok(false) => {}
            Err(_) => {
                let given = description(&kept);
                return Err(CallError::new(format!(
                    "the keep of `keep_if` must give true or false, and gave {given}"
                )));
            }
        }
    }
    Err(CallError::new(format!("none of {tries} tries was kept"))
        .advise("ease the condition, or give more tries"))
}
