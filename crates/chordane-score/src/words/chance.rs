//! Words for chance.

use rhai::Dynamic;

use super::{Args, Kind, Refusal, Section, Word};
use crate::Dice;
use crate::values::Builder;

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
];

/// Throws the dice that the word is called on.
fn throw<R>(a: &Args<'_, '_>, throw: impl FnOnce(&mut Dice) -> R) -> Result<R, Refusal> {
    a.dice().map(|dice| dice.with(throw)).ok_or_else(|| Refusal::new("these are no dice"))
}

fn thrown(a: &Args<'_, '_>, how: impl FnOnce(&mut Dice) -> Dynamic) -> Result<Dynamic, Refusal> {
    throw(a, how)
}
