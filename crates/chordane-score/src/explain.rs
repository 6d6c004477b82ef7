//! Errors of the engine in plain words.

use chordane::ground::{self, nearest};
use rhai::{EvalAltResult, LexError, ParseErrorType, Position};

use crate::Limits;
use crate::call_error::CallError;
use crate::engine::{MAX_NAMES, MAX_TOKEN_LEN};
use crate::score_error::{DID_YOU_MEAN, NO_OPERATOR};
use crate::values::{description, plain_type};
use crate::words::{self, Words};

/// The context of an error: the limits and words of the score, and the names that it defines.
pub(crate) struct ErrorContext<'a> {
    pub(crate) limits: &'a Limits,
    pub(crate) words: &'a Words,
    pub(crate) names: &'a [String],
}

/// Explains an error of the engine: message, advice and position.
pub(crate) fn explain(error: &EvalAltResult, known: &ErrorContext<'_>) -> (CallError, Position) {
    use EvalAltResult as E;
    let place = error.position();
    let plain = |message: String| (message, None);
    let (message, advice) = match error {
        E::ErrorInFunctionCall(_, _, inner, _) => return explain(inner, known),
        E::ErrorParsing(kind, _) => unreadable(kind),
        E::ErrorVariableNotFound(name, _) if known.names.contains(name) => (
            format!("`{name}` is not known here: it is made further down, or within braces that end before"),
            Some(format!("make it above: let {name} = ..")),
        ),
        E::ErrorVariableNotFound(name, _) => {
            (format!("there is nothing called `{name}`"), meant(name, known.names.iter().map(String::as_str)))
        }
        E::ErrorArrayBounds(count, at, _) => {
            let values = if *count == 1 { "1 value".to_owned() } else { format!("{count} values") };
            (
                format!("there is no place {at} in a list of {values}"),
                Some("places are counted from 0, and from -1 at the end".to_owned()),
            )
        }
        E::ErrorDataRace(name, _) => {
            let value = if name.contains('#') { "a value".to_owned() } else { format!("`{name}`") };
            (
                format!("{value} cannot be used in a function that one of its own words is running"),
                Some(
                    "take out what the function needs first: let n = list.len(); list.map(|v| v / n)"
                        .to_owned(),
                ),
            )
        }
        E::ErrorTooManyVariables(_) => (
            format!("there are more than {MAX_NAMES} names of values at once"),
            Some("keep values in a list".to_owned()),
        ),
        E::ErrorPropertyNotFound(name, _) | E::ErrorDotExpr(name, _) => {
            let (property, of) = property(name);
            (format!("{of} has no `{property}`"), meant(&property, known.words.all().map(|word| word.name)))
        }
        E::ErrorAssignmentToConstant(name, _) => (
            format!("`{name}` was made with const and cannot be changed"),
            Some(format!("make it with let {name} = ..")),
        ),
        E::ErrorFunctionNotFound(signature, _) => not_found(signature, known),
        E::ErrorMismatchDataType(wanted, given, _) if plain_type(wanted) == plain_type(given) => (
            format!("a whole number is needed here, and this is {} that is not whole", plain_type(given)),
            Some("write floor(..) around it, or round(..)".to_owned()),
        ),
        E::ErrorMismatchDataType(wanted, given, _) => {
            plain(format!("{} is needed here, and this is {}", plain_type(wanted), plain_type(given)))
        }
        E::ErrorFor(_) => (LOOP.to_owned(), Some(LOOP_FIX.to_owned())),
        E::ErrorTooManyOperations(_) => {
            let told = CallError::new(format!("the score takes more than {} steps", known.limits.steps));
            return (told.set("steps", "look for a loop that never ends, or raise the limit"), place);
        }
        E::ErrorStackOverflow(_) => (
            format!("functions call each other more than {} deep", known.limits.depth),
            Some("look for a function that calls itself without end".to_owned()),
        ),
        E::ErrorDataTooLarge(what, _) => {
            let told = CallError::new(format!("{} here", lower(what)));
            return (
                told.set("list", "a list or text grows too long; shorten it, or raise the limit"),
                place,
            );
        }
        E::ErrorTerminated(value, _) | E::ErrorRuntime(value, _) => {
            if let Some(refusal) = value.clone().try_cast::<CallError>() {
                return (refusal, place);
            }
            plain(value.clone().into_string().unwrap_or_else(|_| description(value)))
        }
        other => {
            let mut bare = other.to_string();
            if let Some(at) = bare.find(" (line ") {
                bare.truncate(at);
            }
            plain(lower(&bare))
        }
    };
    (CallError { message, advice, setting: None }, place)
}

/// What to say of a call such as `circel (i64, f64)` that fits no function.
fn not_found(signature: &str, known: &ErrorContext<'_>) -> (String, Option<String>) {
    let (name, given) = signature.split_once(" (").unwrap_or((signature, ""));
    let name = name.trim();
    if name.starts_with("anon$") {
        let takes = "this function takes a different number of values than it is given here".to_owned();
        return (takes, Some("write as many names between its bars, as in |value, number| ..".to_owned()));
    }
    let given: Vec<&str> =
        given.trim_end_matches(')').split(", ").filter(|kind| !kind.is_empty()).map(plain_type).collect();
    let forms: Vec<String> = known.words.named(name).map(|word| format!("`{}`", word.form())).collect();
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
    if known.names.iter().any(|own| own == name) {
        return (
            format!("`{name}` is a value with a name, and not a word that can be called"),
            Some(format!(
                "if it is a function, write {name}.call(..); fn {name}(..) {{ .. }} makes a word of it"
            )),
        );
    }
    let known = known.words.all().map(|word| word.name).chain(known.names.iter().map(String::as_str));
    (format!("there is no word `{name}`"), meant(name, known))
}

/// What may have been meant by a name: by what it means elsewhere, or by its spelling.
fn meant<'a>(name: &str, known: impl Iterator<Item = &'a str>) -> Option<String> {
    if let Some(write) = words::by_meaning(name) {
        return Some(format!("write {write}"));
    }
    nearest(name, known.filter(|word| *word != name)).map(|word| format!("{DID_YOU_MEAN}{word}`?"))
}

const LOOP: &str = "a loop goes over a range or a list, and this is neither";
const LOOP_FIX: &str = "write for i in 0..5, or for one in list";

/// What to say of text that cannot be read.
fn unreadable(kind: &ParseErrorType) -> (String, Option<String>) {
    use ParseErrorType as P;
    let told = |text: String, advice: &str| (text, Some(advice.to_owned()));
    match kind {
        P::Reserved(name) if name == "var" => told("there is no `var`".to_owned(), "write let sail = .."),
        P::Reserved(name) | P::ForbiddenVariable(name) => {
            told(format!("`{name}` is a name that the language keeps for itself"), "choose another name")
        }
        P::MismatchedType(wanted, _) if wanted.contains("iterable") => told(LOOP.to_owned(), LOOP_FIX),
        P::MismatchedType(wanted, given) => {
            let wanted = if wanted.contains("boolean") { "true or false" } else { plain_type(wanted) };
            let advice = "compare it, as in x > 0";
            (format!("{wanted} is needed here, and this is {}", plain_type(given)), Some(advice.to_owned()))
        }
        P::UnexpectedEOF => told(
            "the score ends in the middle of something".to_owned(),
            "close what is open: a bracket, a brace or a text",
        ),
        P::VariableExpected => {
            told("a name is missing here".to_owned(), "write let sail = .., or for i in 0..5")
        }
        P::MissingToken(token, _) => told(
            format!("`{token}` is missing here"),
            "look at the brackets, commas and semicolons before it",
        ),
        P::AssignmentToConstant(name) => {
            told(format!("`{name}` was made with const and cannot be changed"), "make it with let")
        }
        P::LiteralTooLarge(..) => told(
            format!("a text that stands in the score is longer than {MAX_TOKEN_LEN} characters"),
            "split it into several",
        ),
        P::ExprTooDeep => {
            told("expressions are nested too deep".to_owned(), "keep parts of it in names: let part = ..")
        }
        P::TooManyFunctions => told(
            format!("there are more than {MAX_NAMES} functions"),
            "write one function for what is similar",
        ),
        P::BadInput(bad) => unreadable_text(bad),
        P::UnknownOperator(sign) => told(
            format!("there is no operator `{sign}`"),
            "see `chordane words language` for those that there are",
        ),
        P::PropertyExpected => told("a name is missing after the dot".to_owned(), "write pen.close()"),
        P::FnMissingName => told("the function has no name".to_owned(), "write fn sail(width) { .. }"),
        P::FnMissingParams(name) => told(
            format!("the function `{name}` has no brackets behind its name"),
            "write fn sail(width) { .. }, or fn sail() { .. } if it takes nothing",
        ),
        P::FnMissingBody(name) => {
            told(format!("the function `{name}` has no body"), "write it in braces: fn sail(width) { .. }")
        }
        P::FnDuplicatedDefinition(name, _) => told(
            format!("two functions are called `{name}` and take the same number of values"),
            "rename one of them",
        ),
        P::FnDuplicatedParam(name, value) => {
            told(format!("the function `{name}` takes two values called `{value}`"), "rename one of them")
        }
        P::WrongFnDefinition => told(
            "a function cannot be defined inside another or inside braces".to_owned(),
            "move it out, or keep it in a name: let f = |x| x * 2",
        ),
        P::DuplicatedProperty(name) => {
            told(format!("the map has two entries called `{name}`"), "rename one of them")
        }
        P::AssignmentToInvalidLHS(_) => told(
            "nothing can be assigned to what stands before the `=`".to_owned(),
            "assign to a name; two values are compared with ==",
        ),
        other => (format!("this cannot be read: {}", lower(&other.to_string())), None),
    }
}

/// What to say of signs that make no word, number or text.
fn unreadable_text(bad: &LexError) -> (String, Option<String>) {
    let told = |text: String, advice: &str| (text, Some(advice.to_owned()));
    match bad {
        LexError::MalformedChar(_) => told(
            "single quotes (') hold a single character".to_owned(),
            "write texts in double quotes: \"teal\"",
        ),
        LexError::UnterminatedString => {
            told("a text is not closed on its line".to_owned(), "close it with the same quote")
        }
        LexError::MalformedEscapeSequence(sign) => told(
            format!("`{}` means nothing in a text", shortened(sign)),
            "write \\\\ for a backslash, \\\" for a quote, \\n for a new line",
        ),
        LexError::MalformedNumber(number) => {
            (format!("`{}` is not a number", shortened(number)), Some("write 12, 0.5 or 1e-3".to_owned()))
        }
        LexError::MalformedIdentifier(name) => told(
            format!("`{}` cannot be a name", shortened(name)),
            "use letters from a to z, digits and _ in names, and begin with a letter or _",
        ),
        LexError::UnexpectedInput(sign) => told(
            format!("`{}` cannot stand here", shortened(sign)),
            if sign.chars().any(char::is_alphabetic) {
                "use letters from a to z, digits and _ in names; other letters go only in texts and comments"
            } else {
                "something is missing before it, or it does not belong here"
            },
        ),
        LexError::ImproperSymbol(sign, told) => {
            let meant = told.split_once("Should it be '").and_then(|(_, rest)| rest.split_once('\''));
            (format!("{NO_OPERATOR}{}`", shortened(sign)), meant.map(|(sign, _)| format!("write {sign}")))
        }
        other => (format!("this cannot be read: {}", lower(&other.to_string())), None),
    }
}

/// A piece of the score, short enough for a message.
fn shortened(text: &str) -> String {
    ground::shortened(text, 32)
}

/// The name of a property and what was asked for it, of the engine's text.
fn property(text: &str) -> (String, String) {
    let mut quoted = text.split('\'').skip(1).step_by(2);
    let name = quoted.next().unwrap_or(text).to_owned();
    (name, quoted.next().map_or("this", plain_type).to_owned())
}

/// The first letter small, so that it reads on after a colon.
fn lower(text: &str) -> String {
    let mut chars = text.chars();
    chars.next().map_or_else(String::new, |first| first.to_lowercase().chain(chars).collect())
}
