//! Words for chance.

use chordane::prelude::*;
use rhai::Dynamic;

use super::{Args, Kind, Refusal, Section, Word};
use crate::values::{self, Builder};
use chordane::chance::Dice;

pub(super) const SECTION: Section = Section {
    title: "Chance",
    about: "Dice fall the same way every time, by the seed: --seed 7 draws another one, --seed new picks one and says which. Dice of different names do not disturb one another.",
    words: WORDS,
};

const WORDS: &[Word] = &[
    Word {
        name: "dice",
        on: &[],
        takes: &[("name", Kind::Text)],
        gives: Kind::Dice,
        about: "The dice of a name, from the seed.",
        example: r#"dice("tail").between(10, 20)"#,
        run: |a| {
            let name = a.text(0);
            Ok(Dynamic::from(Builder::new(a.stage(|stage| stage.dice(&name)))))
        },
    },
    Word {
        name: "between",
        on: &[Kind::Dice],
        takes: &[("low", Kind::Number), ("high", Kind::Number)],
        gives: Kind::Number,
        about: "A number from one up to another, evenly.",
        example: r#"dice("tail").between(10, 20)"#,
        run: |a| {
            let (low, high) = (a.number(1), a.number(2));
            thrown(a, |dice| dice.between(low, high).into())
        },
    },
    Word {
        name: "whole",
        on: &[Kind::Dice],
        takes: &[("low", Kind::Number), ("high", Kind::Number)],
        gives: Kind::Number,
        about: "A whole number from one to another, both included.",
        example: r#"dice("tail").whole(1, 6)"#,
        run: |a| {
            let (low, high) = (a.number(1).ceil() as i64, a.number(2).floor() as i64);
            thrown(a, |dice| dice.whole(low, high).into())
        },
    },
    Word {
        name: "pick",
        on: &[Kind::Dice],
        takes: &[("list", Kind::List)],
        gives: Kind::Value,
        about: "One of a list.",
        example: r##"dice("cloth").pick(["#c8553d", "#2f6f73"])"##,
        run: |a| {
            let list = a.array(1);
            let empty = || Refusal::new("the list is empty: there is nothing to pick");
            let place = throw(a, |dice| dice.place(list.len()))?.ok_or_else(empty)?;
            list.get(place).cloned().ok_or_else(empty)
        },
    },
    Word {
        name: "weighted",
        on: &[Kind::Dice],
        takes: &[("list", Kind::List), ("weights", Kind::Numbers)],
        gives: Kind::Value,
        about: "One of a list, each as likely as its weight.",
        example: r##"dice("cloth").weighted(["#c8553d", "#2f6f73"], [3, 1])"##,
        run: |a| {
            let (list, weights) = (a.array(1), a.numbers(2));
            if list.len() != weights.len() {
                let told = format!("there are {} values and {} weights", list.len(), weights.len());
                return Err(Refusal { message: told, advice: Some("give one weight for each".to_owned()) });
            }
            let none = || Refusal::new("no weight is above 0: there is nothing to pick");
            let place = throw(a, |dice| dice.weighted(&weights))?.ok_or_else(none)?;
            list.get(place).cloned().ok_or_else(none)
        },
    },
    Word {
        name: "shuffle",
        on: &[Kind::Dice],
        takes: &[("list", Kind::List)],
        gives: Kind::List,
        about: "The list in another order, each order as likely.",
        example: r#"dice("order").shuffle([1, 2, 3, 4])"#,
        run: |a| {
            let mut list = a.array(1);
            throw(a, |dice| dice.shuffle(&mut list))?;
            Ok(list.into())
        },
    },
    Word {
        name: "normal",
        on: &[Kind::Dice],
        takes: &[("mean", Kind::Number), ("spread", Kind::Number)],
        gives: Kind::Number,
        about: "A number that clusters round a mean: two thirds lie within the spread of it.",
        example: r#"dice("tail").normal(100, 15)"#,
        run: |a| {
            let (mean, spread) = (a.number(1), a.number(2));
            thrown(a, |dice| dice.normal(mean, spread).into())
        },
    },
    Word {
        name: "inside",
        on: &[Kind::Dice],
        takes: &[("path", Kind::Path)],
        gives: Kind::Point,
        about: "A point within a path, every spot as likely.",
        example: r##"dice("dot").inside(circle(pt(0, 0), 40))"##,
        run: |a| {
            let path = a.path(1);
            let none = || Refusal::new("the path has no inside: there is no point to give");
            throw(a, |dice| dice.inside(&path))?.map(Dynamic::from).ok_or_else(none)
        },
    },
    Word {
        name: "scatter",
        on: &[Kind::Dice],
        takes: &[("path", Kind::Path), ("n", Kind::Count)],
        gives: Kind::Points,
        about: "So many points within a path, each for itself.",
        example: r##"dice("dots").scatter(circle(pt(0, 0), 40), 50)"##,
        run: |a| {
            let (path, n) = (a.path(1), a.count(2).min(a.longest_list));
            thrown(a, |dice| point_list(dice.scatter(&path, n)))
        },
    },
    Word {
        name: "scatter_apart",
        on: &[Kind::Dice],
        takes: &[("path", Kind::Path), ("distance", Kind::Number)],
        gives: Kind::Points,
        about: "As many points within a path as keep a distance from one another: even, but without a pattern.",
        example: r##"dice("dots").scatter_apart(circle(pt(0, 0), 40), 6)"##,
        run: |a| {
            let (path, distance) = (a.path(1), a.number(2));
            thrown(a, |dice| point_list(dice.scatter_apart(&path, distance)))
        },
    },
    Word {
        name: "wander",
        on: &[Kind::Dice],
        takes: &[("x", Kind::Number)],
        gives: Kind::Number,
        about: "A number from -1 to 1 that wanders smoothly with x: about one hill or dale between two whole numbers.",
        example: r##"dice("gust").wander(0.4)"##,
        run: |a| {
            let x = a.number(1);
            thrown(a, |dice| dice.wander(x).into())
        },
    },
    Word {
        name: "wander",
        on: &[Kind::Dice],
        takes: &[("x", Kind::Number), ("y", Kind::Number)],
        gives: Kind::Number,
        about: "A number from -1 to 1 that wanders smoothly over a plane.",
        example: r##"dice("gust").wander(0.4, 2.7)"##,
        run: |a| {
            let (x, y) = (a.number(1), a.number(2));
            thrown(a, |dice| dice.wander_over(x, y).into())
        },
    },
    Word {
        name: "wander_loop",
        on: &[Kind::Dice],
        takes: &[("phase", Kind::Number), ("busy", Kind::Number)],
        gives: Kind::Number,
        about: "A number from -1 to 1 that wanders smoothly and comes round: a phase of 1 gives what 0 gave. Busy is about how many hills and dales.",
        example: r##"dice("gust").wander_loop(0.25, 5)"##,
        run: |a| {
            let (phase, busy) = (a.number(1), a.number(2));
            thrown(a, |dice| dice.wander_loop(phase, busy).into())
        },
    },
    Word {
        name: "keep_if",
        on: &[Kind::Dice],
        takes: &[("tries", Kind::Count), ("make", Kind::Function), ("keep", Kind::Function)],
        gives: Kind::Value,
        about: "Makes something from the dice again and again until it is to be kept, at most so many times.",
        example: r##"dice("patch").keep_if(200, |dice| closed(dice.scatter(rectangle(pt(0, 0), 90, 90), 5)), |patch| !patch.crosses_itself() && patch.vertex_gap() > 20)"##,
        run: |a| {
            let tries = a.count(1);
            let dice = a.dice().ok_or_else(|| Refusal::new("these are no dice"))?;
            for _ in 0..tries {
                let Some(made) = a.call(2, (dice.same(),)) else { return Ok(Dynamic::UNIT) };
                let Some(kept) = a.call(3, (made.clone(),)) else { return Ok(Dynamic::UNIT) };
                match kept.as_bool() {
                    Ok(true) => return Ok(made),
                    Ok(false) => {}
                    Err(_) => {
                        let given = values::description(&kept);
                        let told = format!("the keep of `keep_if` must give true or false, and gave {given}");
                        return Err(Refusal::new(told));
                    }
                }
            }
            Err(Refusal {
                message: format!("none of {tries} tries was kept"),
                advice: Some("ease the condition, or give more tries".to_owned()),
            })
        },
    },
];

fn point_list(points: Vec<Point>) -> Dynamic {
    points.into_iter().map(Dynamic::from).collect::<rhai::Array>().into()
}

/// Throws the dice that the word is called on.
fn throw<R>(a: &Args<'_, '_>, throw: impl FnOnce(&mut Dice) -> R) -> Result<R, Refusal> {
    a.dice().map(|dice| dice.with(throw)).ok_or_else(|| Refusal::new("these are no dice"))
}

fn thrown(a: &Args<'_, '_>, how: impl FnOnce(&mut Dice) -> Dynamic) -> Result<Dynamic, Refusal> {
    throw(a, how)
}
