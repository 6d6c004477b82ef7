//! Errors of the engine in plain words.

use chordane::ground::nearest;
use rhai::{EvalAltResult, Position};

use crate::Limits;
use crate::refusal::Refusal;
use crate::values::{description, plain_type};
use crate::words;

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
        E::ErrorMismatchDataType(wanted, given, _) => {
            plain(format!("{} is needed here, and this is {}", plain_type(wanted), plain_type(given)))
        }
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
            let told = Refusal::read(&text);
            (told.message, told.advice, place)
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
    let given: Vec<&str> =
        given.trim_end_matches(')').split(", ").filter(|kind| !kind.is_empty()).map(plain_type).collect();
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
