//! The engine that runs scripts, made from the table of words.

use std::io::Write;
use std::sync::atomic::{AtomicU64, Ordering};
use std::sync::{Arc, Mutex};
use std::time::Instant;

use chordane::ground::nearest;
use chordane::prelude::*;
use rhai::packages::{BasicArrayPackage, BasicIteratorPackage, BasicMapPackage, CorePackage, Package};
use rhai::{Dynamic, Engine, EvalAltResult, NativeCallContext, Position};

use crate::values::{self, Builder, description};
use crate::words::{self, Args, Refusal, ScoreStamp, Word};
use crate::{Limits, Stage};

/// The tag of errors that are ours: the message, then the advice after this separator.
const ADVICE: char = '\u{1}';

/// An engine with all words, and nothing else that reaches outside the script.
pub(crate) fn engine(limits: &Limits, stage: &Arc<Mutex<Stage>>) -> Engine {
    let mut engine = Engine::new_raw();
    CorePackage::new().register_into_engine(&mut engine);
    BasicIteratorPackage::new().register_into_engine(&mut engine);
    BasicArrayPackage::new().register_into_engine(&mut engine);
    BasicMapPackage::new().register_into_engine(&mut engine);
    engine.disable_symbol("eval");
    engine.on_print(note).on_debug(|text, _, _| note(text));
    // Built-in operators would divide whole numbers without their remainder.
    engine.set_fast_operators(false);
    bound(&mut engine, limits);
    types(&mut engine);
    operators(&mut engine);
    let longest_list = limits.list;
    let mut done: Vec<(&str, usize)> = Vec::new();
    for word in words::all() {
        let arity = word.takes.len() + usize::from(!word.on.is_empty());
        if !done.contains(&(word.name, arity)) {
            done.push((word.name, arity));
            register(&mut engine, word.name, arity, longest_list, stage);
        }
    }
    engine
}

/// Notes of a script go to standard error; where that is closed, there is nobody to tell.
fn note(text: &str) {
    let _ = writeln!(std::io::stderr(), "{text}");
}

fn bound(engine: &mut Engine, limits: &Limits) {
    engine.set_max_operations(limits.steps);
    engine.set_max_call_levels(limits.depth);
    engine.set_max_expr_depths(256, 128);
    engine.set_max_array_size(limits.list);
    engine.set_max_map_size(limits.list);
    engine.set_max_string_size(limits.text);
    engine.set_max_variables(10_000);
    engine.set_max_functions(10_000);
}

/// Stops a script that runs too long or takes too much memory. The clock is looked at in every step, the memory
/// when a millisecond has gone by: a script can double what it holds in one step, but not without taking time for it.
pub(crate) fn watch(engine: &mut Engine, limits: Limits) {
    let begin = Instant::now();
    let held_before = held_memory();
    let last_look = AtomicU64::new(0);
    engine.on_progress(move |_| {
        let elapsed = begin.elapsed();
        if elapsed > limits.time {
            let seconds = limits.time.as_secs_f64();
            return Some(stop(
                &format!("the score runs for more than {seconds} seconds"),
                "look for a loop that never ends, or raise the limit with --max-seconds",
            ));
        }
        let now = elapsed.as_millis() as u64;
        if last_look.swap(now, Ordering::Relaxed) != now
            && held_memory().saturating_sub(held_before) > limits.memory
        {
            let megabytes = limits.memory >> 20;
            return Some(stop(
                &format!("the score takes more than {megabytes} MB of memory"),
                "look for a list or a path that grows without end, or raise the limit with --max-memory",
            ));
        }
        None
    });
}

fn stop(message: &str, advice: &str) -> Dynamic {
    format!("{message}{ADVICE}{advice}").into()
}

/// The memory that the program holds, where the system tells.
fn held_memory() -> usize {
    memory_stats::memory_stats().map_or(0, |held| held.physical_mem)
}

fn types(engine: &mut Engine) {
    engine.register_type_with_name::<Point>("point");
    engine.register_type_with_name::<Angle>("angle");
    engine.register_type_with_name::<Path>("path");
    engine.register_type_with_name::<Item>("item");
    engine.register_type_with_name::<Style>("style");
    engine.register_type_with_name::<Vertex>("vertex");
    engine.register_type_with_name::<Through>("curve");
    engine.register_type_with_name::<Cell>("cell");
    engine.register_type_with_name::<Extent>("extent");
    engine.register_type_with_name::<Triangle>("triangle");
    engine.register_type_with_name::<Wheels>("wheels");
    engine.register_type_with_name::<ScoreStamp>("stamp");
    engine.register_type_with_name::<Builder<chordane::chance::Dice>>("dice");
    engine.register_type_with_name::<Builder<Pen>>("pen");
    engine.register_type_with_name::<Builder<Group>>("group");
    engine.register_type_with_name::<Builder<Sheet>>("sheet");
    engine.register_get("x", |p: &mut Point| p.x);
    engine.register_get("y", |p: &mut Point| p.y);
    engine.register_fn("to_string", |p: &mut Point| format!("pt({}, {})", p.x, p.y));
    engine.register_fn("to_string", |a: &mut Angle| format!("deg({})", a.degrees()));
}

/// Operators on our own kinds, and division as people mean it.
fn operators(engine: &mut Engine) {
    engine.register_fn("/", |a: i64, b: i64| match a.checked_rem(b) {
        Some(0) => Dynamic::from_int(a / b),
        _ => Dynamic::from_float(a as f64 / b as f64),
    });
    engine.register_fn("**", |a: i64, b: i64| {
        let whole = u32::try_from(b).ok().and_then(|b| a.checked_pow(b));
        whole.map_or_else(|| Dynamic::from_float((a as f64).powf(b as f64)), Dynamic::from_int)
    });
    engine.register_fn("!", |a: bool| !a);
    // A number in a text, as people write it: without needless decimals.
    engine.register_fn("+", |a: &str, b: i64| format!("{a}{b}"));
    engine.register_fn("+", |a: &str, b: f64| format!("{a}{b}"));
    engine.register_fn("+", |a: i64, b: &str| format!("{a}{b}"));
    engine.register_fn("+", |a: f64, b: &str| format!("{a}{b}"));
    engine.register_fn("+", |a: Point, b: Point| a + b);
    engine.register_fn("-", |a: Point, b: Point| a - b);
    engine.register_fn("-", |a: Point| -a);
    // A pair is a point here too; a list on the left stays a list.
    let pair = |list: rhai::Array| {
        values::point(&Dynamic::from_array(list)).ok_or_else(|| {
            let advice = Some("write pt(x, y) or [x, y]".to_owned());
            refusal(Refusal { message: "this list is no point".to_owned(), advice })
        })
    };
    engine.register_fn("+", move |a: Point, b: rhai::Array| Ok::<_, Box<EvalAltResult>>(a + pair(b)?));
    engine.register_fn("-", move |a: Point, b: rhai::Array| Ok::<_, Box<EvalAltResult>>(a - pair(b)?));
    engine.register_fn("==", |a: Point, b: Point| a == b);
    engine.register_fn("!=", |a: Point, b: Point| a != b);
    engine.register_fn("+", |a: Angle, b: Angle| a + b);
    engine.register_fn("-", |a: Angle, b: Angle| a - b);
    engine.register_fn("-", |a: Angle| -a);
    engine.register_fn("+", |a: Extent, b: Extent| a + b);
    engine.register_fn("-", |a: Extent, b: Extent| a - b);
    engine.register_fn("-", |a: Extent| -a);
    engine.register_fn("/", |a: Angle, b: Angle| a / b);
    engine.register_fn("==", |a: Angle, b: Angle| a == b);
    engine.register_fn("!=", |a: Angle, b: Angle| a != b);
    engine.register_fn("<", |a: Angle, b: Angle| a < b);
    engine.register_fn(">", |a: Angle, b: Angle| a > b);
    engine.register_fn("<=", |a: Angle, b: Angle| a <= b);
    engine.register_fn(">=", |a: Angle, b: Angle| a >= b);
    macro_rules! scaled_by {
        ($number:ty) => {
            engine.register_fn("*", |a: Point, k: $number| a * k as f64);
            engine.register_fn("*", |k: $number, a: Point| a * k as f64);
            engine.register_fn("/", |a: Point, k: $number| a / k as f64);
            engine.register_fn("*", |a: Angle, k: $number| a * k as f64);
            engine.register_fn("*", |k: $number, a: Angle| a * k as f64);
            engine.register_fn("/", |a: Angle, k: $number| a / k as f64);
            engine.register_fn("+", |a: Extent, k: $number| a + k as f64);
            engine.register_fn("+", |k: $number, a: Extent| a + k as f64);
            engine.register_fn("-", |a: Extent, k: $number| a - k as f64);
            engine.register_fn("-", |k: $number, a: Extent| Extent::from(k as f64) - a);
            engine.register_fn("*", |a: Extent, k: $number| a * k as f64);
            engine.register_fn("*", |k: $number, a: Extent| a * k as f64);
            engine.register_fn("/", |a: Extent, k: $number| a / k as f64);
        };
    }
    scaled_by!(i64);
    scaled_by!(f64);
    // Ends of a range that were computed, and so may be whole numbers written as decimals.
    let end = |n: f64| -> Result<i64, Box<EvalAltResult>> {
        if n.trunc() == n && n.abs() < 1e15 {
            Ok(n as i64)
        } else {
            Err(refusal(Refusal {
                message: format!("a range counts in whole numbers, and {n} is none"),
                advice: Some("round it first: round(..), floor(..) or ceil(..)".to_owned()),
            }))
        }
    };
    engine.register_fn("..", move |a: f64, b: f64| Ok::<_, Box<EvalAltResult>>(end(a)?..end(b)?));
    engine.register_fn("..", move |a: i64, b: f64| Ok::<_, Box<EvalAltResult>>(a..end(b)?));
    engine.register_fn("..=", move |a: i64, b: f64| Ok::<_, Box<EvalAltResult>>(a..=end(b)?));
    engine.register_fn("..=", move |a: f64, b: f64| Ok::<_, Box<EvalAltResult>>(end(a)?..=end(b)?));
}

/// Registers all words of a name that take so many values, the one they are called on counted.
fn register(
    engine: &mut Engine,
    name: &'static str,
    arity: usize,
    longest_list: usize,
    stage: &Arc<Mutex<Stage>>,
) {
    let stage = Arc::clone(stage);
    let forms: Vec<&'static Word> = words::named(name)
        .filter(|word| word.takes.len() + usize::from(!word.on.is_empty()) == arity)
        .collect();
    let any = vec![std::any::TypeId::of::<Dynamic>(); arity];
    engine.register_raw_fn(name, any, move |context: NativeCallContext<'_>, values| {
        let line = context.call_position().line();
        let mut args = Args::new(values, longest_list, line, &stage, &context);
        let fitting = forms.iter().find(|word| args.stands_on(word) && args.mismatch(word).is_none());
        match fitting {
            Some(word) => {
                let made = (word.run)(&mut args);
                // What went wrong in a function of the score is told as it is, at its own place.
                match args.failure() {
                    Some(failure) => Err(failure),
                    None => made.map(|made| made_by(made, line)).map_err(refusal),
                }
            }
            None => Err(refusal(unfitting(&forms, &args))),
        }
    });
}

/// An item remembers the line of the word that first made it one.
fn made_by(made: Dynamic, line: Option<usize>) -> Dynamic {
    match (made.read_lock::<Item>().filter(|item| item.line().is_none()).map(|item| item.clone()), line) {
        (Some(item), Some(line)) => Dynamic::from(item.at_line(line)),
        _ => made,
    }
}

/// Why no form of a word fits what it was called with.
fn unfitting(forms: &[&'static Word], args: &Args<'_, '_>) -> Refusal {
    let Some(word) = forms.iter().find(|word| args.stands_on(word)).or(forms.first()) else {
        return Refusal::new("this word has no form");
    };
    let name = word.name;
    let Some((what, kind, given)) = args.mismatch(word).filter(|_| args.stands_on(word)) else {
        let mut on: Vec<&str> = Vec::new();
        for kind in forms.iter().flat_map(|word| word.on) {
            if !on.contains(&kind.described()) {
                on.push(kind.described());
            }
        }
        let given = args.description_of_first();
        let advice = word.on.first().and_then(|kind| kind.mend()).map(str::to_owned);
        return Refusal {
            message: format!("`{name}` is called on {}, and this is {given}", on.join(" or ")),
            advice,
        };
    };
    Refusal {
        message: format!("`{name}` wants {} for its {what}, and was given {given}", kind.described()),
        advice: kind.mend().map(str::to_owned),
    }
}

fn refusal(refusal: Refusal) -> Box<EvalAltResult> {
    let text = match refusal.advice {
        Some(advice) => format!("{}{ADVICE}{advice}", refusal.message),
        None => refusal.message,
    };
    // The engine fills in the place of the call.
    Box::new(EvalAltResult::ErrorRuntime(text.into(), Position::NONE))
}

/// An error of the engine in plain words: message, advice, place.
pub(crate) fn explain(
    error: &EvalAltResult,
    limits: &Limits,
    known: &[String],
) -> (String, Option<String>, Position) {
    use EvalAltResult as E;
    let place = error.position();
    let plain = |text: String| (text, None, place);
    match error {
        E::ErrorInFunctionCall(_, _, inner, _) => explain(inner, limits, known),
        E::ErrorParsing(kind, _) => plain(format!("this cannot be read: {}", lower(&kind.to_string()))),
        E::ErrorVariableNotFound(name, _) => {
            let advice = nearest(name, known.iter().map(String::as_str));
            (
                format!("there is nothing called `{name}`"),
                advice.map(|word| format!("did you mean `{word}`?")),
                place,
            )
        }
        E::ErrorFunctionNotFound(signature, _) => {
            let (message, advice) = not_found(signature, known);
            (message, advice, place)
        }
        E::ErrorMismatchDataType(wanted, given, _) => plain(format!(
            "{} is needed here, and this is {}",
            values::plain_type(wanted),
            values::plain_type(given)
        )),
        E::ErrorFor(_) => plain("a loop goes over a range or a list, and this is neither".to_owned()),
        E::ErrorTooManyOperations(_) => (
            format!("the score takes more than {} steps", limits.steps),
            Some("look for a loop that never ends, or raise the limit with --max-steps".to_owned()),
            place,
        ),
        E::ErrorStackOverflow(_) => (
            format!("functions call each other more than {} deep", limits.depth),
            Some("look for a function that calls itself without end".to_owned()),
            place,
        ),
        E::ErrorDataTooLarge(what, _) => (
            format!("{} here", lower(what)),
            Some(
                "a list or text grows too long; the limits can be raised with --max-list and --max-text"
                    .to_owned(),
            ),
            place,
        ),
        E::ErrorTerminated(text, _) | E::ErrorRuntime(text, _) => {
            let text = text.clone().into_string().unwrap_or_else(|_| description(text));
            match text.split_once(ADVICE) {
                Some((message, advice)) => (message.to_owned(), Some(advice.to_owned()), place),
                None => plain(text),
            }
        }
        other => {
            let mut bare = other.to_string();
            if let Some(at) = bare.find(" (line ") {
                bare.truncate(at);
            }
            plain(lower(&bare))
        }
    }
}

/// What to say of a call such as `circel (i64, f64)` that fits no function.
fn not_found(signature: &str, known: &[String]) -> (String, Option<String>) {
    let (name, given) = signature.split_once(" (").unwrap_or((signature, ""));
    let name = name.trim();
    let given: Vec<&str> = given
        .trim_end_matches(')')
        .split(", ")
        .filter(|kind| !kind.is_empty())
        .map(values::plain_type)
        .collect();
    let forms: Vec<String> = words::named(name).map(|word| format!("`{}`", word.form())).collect();
    if !forms.is_empty() {
        let given = if given.is_empty() { "nothing".to_owned() } else { given.join(", ") };
        return (
            format!("`{name}` does not fit what it is given: {given}"),
            Some(format!("write {}", forms.join(" or "))),
        );
    }
    if name.chars().all(|c| !c.is_alphanumeric()) {
        return (format!("`{name}` does not work on {}", given.join(" and ")), None);
    }
    let known = words::all().map(|word| word.name).chain(known.iter().map(String::as_str));
    let advice = nearest(name, known).map(|word| format!("did you mean `{word}`?"));
    (format!("there is no word `{name}`"), advice)
}

/// The first letter small, so that it reads on after a colon.
fn lower(text: &str) -> String {
    let mut chars = text.chars();
    chars.next().map_or_else(String::new, |first| first.to_lowercase().chain(chars).collect())
}
