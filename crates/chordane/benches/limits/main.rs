//! How close the library comes to what the machine allows.
//!
//! Each pair runs our routine and a yardstick in turn, in one process, and compares the medians. The ratio is
//! what counts: on a shared machine absolute times mean nothing.
//!
//!     cargo bench -p chordane --bench limits [-- --only NAME] [--json] [--enforce]
//!
//! `--enforce` ends with exit code 1 where a ratio is past its bar. `--rounds N` takes N rounds instead of the
//! pair's own number.

#![allow(
    clippy::print_stdout,
    clippy::print_stderr,
    clippy::unwrap_used,
    reason = "a bench prints and stops"
)]

mod clips;
mod draw;
mod inputs;
mod layers;
mod many;
mod measure;
mod reshape;
mod scenes;
mod text;

use std::time::Instant;

/// What a pair measured, and the bar that its ratio is held to.
struct Outcome {
    name: &'static str,
    ours: f64,
    yardstick: f64,
    unit: &'static str,
    bar: f64,
}

impl Outcome {
    fn ratio(&self) -> f64 {
        self.ours / self.yardstick
    }
}

/// Runs the two in turn and compares the medians of their times, in milliseconds.
fn compare(
    name: &'static str,
    bar: f64,
    rounds: usize,
    mut ours: impl FnMut(),
    mut yardstick: impl FnMut(),
) -> Outcome {
    let rounds = option("--rounds").and_then(|n| n.parse().ok()).unwrap_or(rounds);
    let (mut a, mut b) = (Vec::new(), Vec::new());
    for round in 0..=rounds {
        let times = [time(&mut ours), time(&mut yardstick)];
        // The first round warms up.
        if round > 0 {
            a.push(times[0]);
            b.push(times[1]);
        }
    }
    Outcome { name, ours: median(&mut a), yardstick: median(&mut b), unit: "ms", bar }
}

fn time(run: &mut impl FnMut()) -> f64 {
    let begin = Instant::now();
    run();
    begin.elapsed().as_secs_f64() * 1e3
}

fn median(values: &mut [f64]) -> f64 {
    values.sort_by(f64::total_cmp);
    values[values.len() / 2]
}

fn option(name: &str) -> Option<String> {
    let mut arguments = std::env::args();
    arguments.find(|argument| argument == name)?;
    arguments.next()
}

/// A pair's name, and what measures it.
type Pair = (&'static str, fn() -> Outcome);

const PAIRS: &[Pair] = &[
    ("fill-large", draw::fill_large),
    ("gradient", draw::gradient),
    ("blur", layers::blur),
    ("layers", layers::layers),
    ("png", layers::png),
    ("fill-many", draw::fill_many),
    ("stroke-long", draw::stroke_long),
    ("flatten", draw::flatten),
    ("sample-wheels", many::sample_wheels),
    ("length", measure::length),
    ("length-tame", measure::length_tame),
    ("station", measure::station),
    ("crossings", measure::crossings),
    ("nearest", measure::nearest),
    ("parse", text::parse),
    ("write", text::write),
    ("memory", text::memory),
    ("threads", many::threads),
    ("outline", reshape::outline),
    ("union-grid", reshape::union_grid),
    ("stamp", reshape::stamp),
    ("fit", reshape::fit),
    ("scene", scenes::scene),
    ("rerun", scenes::rerun),
    ("frames", clips::frames),
    ("gif", clips::gif),
    ("apng", clips::apng),
];

fn main() {
    let given = |flag: &str| std::env::args().any(|argument| argument == flag);
    let only = option("--only");
    if let Some(name) = &only
        && !PAIRS.iter().any(|(pair, _)| pair == name)
    {
        let names: Vec<_> = PAIRS.iter().map(|(pair, _)| *pair).collect();
        eprintln!("no pair {name}; there are {}", names.join(", "));
        std::process::exit(2);
    }
    let chosen = PAIRS.iter().filter(|(name, _)| only.as_deref().is_none_or(|wanted| wanted == *name));
    let json = given("--json");
    if !json {
        println!("name | ours | yardstick | ratio | bar");
    }
    // A row is printed as soon as it is measured: all of them take minutes.
    let show = |o: &Outcome| {
        let (ours, yardstick, ratio, unit) = (o.ours, o.yardstick, o.ratio(), o.unit);
        println!("{} | {ours:.3} {unit} | {yardstick:.3} {unit} | {ratio:.3} | {}", o.name, o.bar);
    };
    let measured = chosen.map(|(_, run)| run()).inspect(|outcome| {
        if !json {
            show(outcome)
        }
    });
    let outcomes: Vec<Outcome> = measured.collect();
    if json {
        let rows = outcomes.iter().map(|o| {
            format!(
                r#"{{"name":"{}","ours":{:.4},"yardstick":{:.4},"unit":"{}","ratio":{:.4},"bar":{}}}"#,
                o.name,
                o.ours,
                o.yardstick,
                o.unit,
                o.ratio(),
                o.bar
            )
        });
        println!("[{}]", rows.collect::<Vec<_>>().join(",\n "));
    }
    if given("--enforce") && outcomes.iter().any(|o| o.ratio() > o.bar) {
        std::process::exit(1);
    }
}
