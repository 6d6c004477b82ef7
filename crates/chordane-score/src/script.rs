//! Scripts: the text of a `.chord` file, read once and run as often as needed.

use std::sync::{Arc, Mutex};

use chordane::ground::FaultKind;
use chordane::sheet::Sheet;
use rhai::{AST, Dynamic, EvalAltResult, ParseErrorType, Position, Scope};

use crate::brackets::{Bracket, Unclosed, unclosed};
use crate::budget::{Memory, Work};
use crate::call_error::CallError;
use crate::declarations::{self, Declaration, Gathered, Known};
use crate::edits::edited;
use crate::engine::{MAX_NAMES, MAX_TOKEN_LEN, engine, reader};
use crate::explain::{ErrorContext, explain};
use crate::numbers::{MAX_DECIMALS, Number};
use crate::outer::{self, outer_names};
use crate::running::Running;
use crate::unkept::unkept;
use crate::values::Builder;
use crate::worker::on_large_stack;
use crate::{Knob, Limits, Score, ScoreError, Stage, Words, values};

/// A score in the script language, read and ready to run.
///
/// ```
/// use chordane_score::{Limits, Score, Script};
/// let script = Script::read("page.chord", "sheet(90, 60)", Limits::default())?;
/// assert_eq!(script.sheet()?.size.x, 90.0);
/// # Ok::<(), chordane_score::ScoreError>(())
/// ```
#[derive(Clone, Debug)]
pub struct Script(Arc<Inner>);

#[derive(Debug)]
struct Inner {
    name: String,
    source: String,
    compiled: AST,
    /// The names of its own values that its functions use.
    outer: Vec<String>,
    known: Known,
    limits: Limits,
    words: Words,
}

impl Inner {
    fn read(name: String, source: String, limits: Limits, words: Words) -> Result<Self, ScoreError> {
        words.sound()?;
        let gathered = Arc::new(Mutex::new(Gathered::default()));
        let budget = limits.budget(Work::Score, Memory::of(&limits));
        let (compiled, outer) = budget.within(|| {
            let compiled = reader(&limits, &budget, &gathered).compile(&source);
            if let Some(why) = budget.stopped() {
                let why = CallError::from(why.clone());
                let message = format!("{}: stopped while it was read", why.message);
                return Err(ScoreError::of_call(CallError { message, ..why }));
            }
            let compiled = compiled.map_err(|error| {
                let error: Box<EvalAltResult> = error.into();
                mistake(&name, &source, &error, (&limits, &words))
            })?;
            if let Some(lost) = unkept(&compiled, &words) {
                return Err(ScoreError::new(lost.message).advise(Some(lost.mend)).at(
                    &name,
                    &source,
                    lost.place.line().unwrap_or(1),
                    lost.place.position().unwrap_or(1),
                ));
            }
            let outer = outer_names(&compiled);
            Ok((compiled, outer))
        })?;
        let known = gathered.lock().map(|gathered| gathered.of(&source)).unwrap_or_default();
        Ok(Self { name, source, compiled, outer, known, limits, words })
    }

    /// Runs the script, and gives what its last value is.
    fn run(&self, running: &Arc<Running>) -> Result<Sheet, ScoreError> {
        let mut scope = Scope::new();
        let mut engine = engine(running, &self.words);
        let last = if self.outer.is_empty() {
            engine.eval_ast_with_scope::<Dynamic>(&mut scope, &self.compiled)
        } else {
            outer::run(&mut engine, &mut scope, &self.compiled, &self.outer, running)
        };
        let last =
            last.map_err(|error| mistake(&self.name, &self.source, &error, (&self.limits, &self.words)))?;
        // The variable that it stands in holds on to it.
        scope.clear();
        if last.is::<Builder<Sheet>>() {
            let sheet = last.cast::<Builder<Sheet>>().into_inside();
            sheet.sound().map_err(|fault| {
                let line = fault.line().unwrap_or_else(|| self.source.trim_end().lines().count().max(1));
                let mistake = match fault.kind() {
                    FaultKind::Stopped(why) => ScoreError::of_call(why.clone().into()),
                    _ => ScoreError::from(fault),
                };
                mistake.at(&self.name, &self.source, line, 1)
            })?;
            return Ok(sheet);
        }
        let what = match values::description(&last).as_str() {
            "nothing" => format!("nothing ({})", why_nothing(&self.source)),
            other => other.to_owned(),
        };
        let line = self.source.trim_end().lines().count().max(1);
        let column = self
            .source
            .lines()
            .nth(line - 1)
            .map_or(1, |text| text.chars().take_while(|c| c.is_whitespace()).count() + 1);
        Err(ScoreError::new(format!("the last value of a score is its sheet, and this is {what}"))
            .advise(Some("end the score with a sheet: sheet(640, 480).add(..)".to_owned()))
            .at(&self.name, &self.source, line, column))
    }
}

impl Script {
    /// Reads a script. `name` is what messages call it: its file's name.
    ///
    /// # Errors
    ///
    /// The first place that cannot be read.
    pub fn read(
        name: impl Into<String>,
        source: impl Into<String>,
        limits: Limits,
    ) -> Result<Self, ScoreError> {
        Self::read_with(name, source, limits, &Words::new())
    }

    /// Reads a script that may also use the words of a program.
    ///
    /// # Errors
    ///
    /// The first syntax error, or a problem with the words.
    pub fn read_with(
        name: impl Into<String>,
        source: impl Into<String>,
        limits: Limits,
        words: &Words,
    ) -> Result<Self, ScoreError> {
        let (name, source, words) = (name.into(), source.into(), words.clone());
        // A byte order mark is no part of the text.
        let source = source.strip_prefix('\u{feff}').map_or_else(|| source.clone(), str::to_owned);
        fits(&source)?;
        on_large_stack(move || Inner::read(name, source, limits, words)).map(|inner| Self(Arc::new(inner)))
    }

    /// Reads another text with the same name, limits and words.
    ///
    /// # Errors
    ///
    /// The first place that cannot be read.
    pub fn reread(&self, source: impl Into<String>) -> Result<Self, ScoreError> {
        Self::read_with(self.name(), source, self.limits(), &self.0.words)
    }

    /// What messages call it.
    #[must_use]
    pub fn name(&self) -> &str {
        &self.0.name
    }

    /// Its text.
    #[must_use]
    pub fn source(&self) -> &str {
        &self.0.source
    }

    /// What it may take.
    #[must_use]
    pub fn limits(&self) -> Limits {
        self.0.limits
    }

    /// The numbers that are written in it, in their order.
    #[must_use]
    pub fn numbers(&self) -> &[Number] {
        &self.0.known.numbers
    }

    pub(crate) fn brackets(&self) -> &[Bracket] {
        &self.0.known.brackets
    }

    /// The names of the knobs that are declared in it, as far as they are written out.
    pub fn knob_names(&self) -> impl Iterator<Item = &str> {
        self.0.known.declared.iter().filter_map(|own| own.name.as_deref())
    }

    /// Its text with other values in place of some numbers, by their places in [`Script::numbers`]. Nothing else is changed; a number keeps its
    /// decimals and gets more where the value has them, nine at most.
    #[must_use]
    pub fn with_numbers(&self, values: &[(usize, f64)]) -> String {
        let edit = |(at, value): &(usize, f64)| {
            let number = self.0.known.numbers.get(*at)?;
            Some((number.bytes.clone(), number.text(*value, MAX_DECIMALS)))
        };
        edited(&self.0.source, values.iter().filter_map(edit))
    }

    /// Its text with what knobs are set to written where they are declared, in place of what they started with. Nothing else is changed; a knob that is
    /// declared at several places is changed at each.
    ///
    /// ```
    /// use chordane_score::{Limits, Score, Script, Settings, Stage};
    /// let script = Script::read("page.chord", "let wide = knob(\"wide\", 90, 10, 200);\nsheet(wide, 60)", Limits::default())?;
    /// let mut stage = Stage::new(Settings::new().set("wide", "120"));
    /// script.perform(&mut stage)?;
    /// assert_eq!(script.with_knobs(stage.knobs()), "let wide = knob(\"wide\", 120, 10, 200);\nsheet(wide, 60)");
    /// # Ok::<(), chordane_score::ScoreError>(())
    /// ```
    #[must_use]
    pub fn with_knobs(&self, knobs: &[Knob]) -> String {
        let edit = |own: &Declaration| {
            let knob = knobs.iter().find(|knob| own.name.as_ref() == Some(&knob.name))?;
            let before = self.0.source.get(own.start.clone())?;
            let written = declarations::written(knob, before, &self.0.known.numbers, &own.start)?;
            Some((own.start.clone(), written))
        };
        edited(&self.0.source, self.0.known.declared.iter().filter_map(edit))
    }

    /// Splits a script whose numbers were changed into its text and the knobs that were changed. `set` is this script with the current values of its
    /// knobs as their starts, and `changed` is `set` with other numbers. Returns the changed text with this script's own starts, and the name and new
    /// value of each knob whose start differs from `set`. A start that is neither a number nor a point stays in the text.
    ///
    /// ```
    /// use chordane_score::{Limits, Script};
    /// let read = |text: &str| Script::read("page.chord", text, Limits::default());
    /// let text = "let wide = knob(\"wide\", 90, 10, 200);\nsheet(wide, 60)";
    /// let (own, set) = (read(text)?, read(&text.replace("90", "120"))?);
    /// let changed = read(&text.replace("90", "130").replace("60", "70"))?;
    /// assert_eq!(own.split_knobs(&set, &changed), (text.replace("60", "70"), vec![("wide".to_owned(), "130".to_owned())]));
    /// # Ok::<(), chordane_score::ScoreError>(())
    /// ```
    #[must_use]
    pub fn split_knobs(&self, set: &Script, changed: &Script) -> (String, Vec<(String, String)>) {
        let (mut edits, mut knobs) = (Vec::new(), Vec::new());
        let all = self.0.known.declared.iter().zip(&set.0.known.declared).zip(&changed.0.known.declared);
        for ((own, set_to), now) in all.filter(|((own, _), now)| own.name.is_some() && own.name == now.name) {
            let start =
                |script: &Script, of: &Declaration| script.0.source.get(of.start.clone()).map(str::to_owned);
            let (Some(own_text), Some(name)) = (start(self, own), &own.name) else { continue };
            let is_other = start(set, set_to) != start(changed, now);
            let value = changed.plain_start(now);
            match value {
                Some(value) if is_other => knobs.push((name.clone(), value)),
                None if is_other => continue,
                _ => {}
            }
            edits.push((now.start.clone(), own_text));
        }
        (edited(&changed.0.source, edits), knobs)
    }

    /// The indices in [`Script::numbers`] of a knob's start, if that is a number or a point.
    pub(crate) fn start_numbers(&self, name: &str) -> Option<Vec<usize>> {
        let own = self.0.known.declared.iter().find(|own| own.name.as_deref() == Some(name))?;
        self.plain_start(own)?;
        let within = |at: &usize| {
            self.0.known.numbers.get(*at).is_some_and(|number| own.start.contains(&number.bytes.start))
        };
        Some((0..self.0.known.numbers.len()).filter(within).collect())
    }

    /// A knob's start as text for [`Settings::set`], if it is written as a number or a point.
    fn plain_start(&self, own: &Declaration) -> Option<String> {
        let text = self.0.source.get(own.start.clone())?.trim();
        let within = |number: &&Number| own.start.contains(&number.bytes.start);
        let numbers: Vec<&Number> = self.0.known.numbers.iter().filter(within).collect();
        let is_plain = match *numbers.as_slice() {
            [number] => self.0.source.get(number.bytes.clone())? == text,
            [_, _] => text.starts_with('[') || text.starts_with("pt("),
            _ => false,
        };
        let values: Vec<String> = numbers.iter().map(|number| number.value.to_string()).collect();
        is_plain.then(|| values.join(","))
    }

    /// Its text with another seed of its own: written where it says `seed(..)`, or as its first line where it does not.
    ///
    /// ```
    /// use chordane_score::{Limits, Script};
    /// let script = Script::read("page.chord", "// kites\nseed(3); // liked\nsheet(9, 6)", Limits::default())?;
    /// assert_eq!(script.with_seed(7), "// kites\nseed(7); // liked\nsheet(9, 6)");
    /// # Ok::<(), chordane_score::ScoreError>(())
    /// ```
    #[must_use]
    pub fn with_seed(&self, seed: u64) -> String {
        let mut own = self.0.known.declared.iter().filter(|own| own.name.is_none()).peekable();
        if own.peek().is_none() {
            return format!("seed({seed});\n{}", self.0.source);
        }
        edited(&self.0.source, own.map(|own| (own.start.clone(), seed.to_string())))
    }

    /// Its text with a knob taken out: what it started with stands in place of its declaration.
    ///
    /// ```
    /// use chordane_score::{Limits, Script};
    /// let script = Script::read("page.chord", "let wide = knob(\"wide\", 90, 10, 200);\nsheet(9, 6)", Limits::default())?;
    /// assert_eq!(script.without_knob("wide"), "let wide = 90;\nsheet(9, 6)");
    /// # Ok::<(), chordane_score::ScoreError>(())
    /// ```
    #[must_use]
    pub fn without_knob(&self, name: &str) -> String {
        let own = self.0.known.declared.iter().filter(|own| own.name.as_deref() == Some(name));
        let start = |own: &Declaration| self.0.source.get(own.start.clone()).unwrap_or_default().to_owned();
        edited(&self.0.source, own.map(|own| (own.call.clone(), start(own))))
    }
}

impl Score for Script {
    fn perform(&self, stage: &mut Stage) -> Result<Sheet, ScoreError> {
        let (inner, given) = (Arc::clone(&self.0), std::mem::take(stage));
        let (made, left) = on_large_stack(move || {
            let memory = Memory::of(&inner.limits);
            let budget = inner.limits.budget(Work::Score, Arc::clone(&memory));
            let running = Running::new(inner.limits, memory, budget.clone(), given);
            let made = budget.within(|| inner.run(&running));
            (made, running.stage(std::mem::take))
        });
        *stage = left;
        made
    }
}

/// Why a score gives nothing in the end.
fn why_nothing(source: &str) -> &'static str {
    let code = source.rsplit("*/").next().unwrap_or(source);
    if code.contains("/*") {
        "a comment that begins with /* is never closed with */"
    } else if source.contains("exit(") {
        "exit() ends a score before its sheet"
    } else {
        "is there a semicolon after it?"
    }
}

/// A text that can be read in a moment: of so many lines as the engine can tell apart, and with so many names as it finds quickly.
fn fits(source: &str) -> Result<(), ScoreError> {
    let counted = [
        ("lines", source.lines().count(), MAX_LINES, "write what repeats as a loop"),
        ("names made by let and const", names_made(source), MAX_NAMES, "keep values in a list"),
        ("characters in one word", longest_word(source), MAX_TOKEN_LEN, "split it into several"),
        ("bytes", source.len(), MAX_SOURCE_BYTES, "draw a large picture as an SVG document instead"),
    ];
    for (what, count, most, advice) in counted {
        if count > most {
            let told = format!("the score has {count} {what}, which is too many; give at most {most}");
            return Err(ScoreError::new(told).advise(Some(advice.to_owned())));
        }
    }
    Ok(())
}

fn longest_word(source: &str) -> usize {
    source.split(|c: char| !(c.is_alphanumeric() || c == '_')).map(str::len).max().unwrap_or(0)
}

fn names_made(source: &str) -> usize {
    let words = source.split(|c: char| !(c.is_alphanumeric() || c == '_'));
    words.filter(|word| matches!(*word, "let" | "const")).count()
}

const MAX_LINES: usize = 65_000;
const MAX_SOURCE_BYTES: usize = 16 << 20;

fn mistake(
    name: &str,
    source: &str,
    error: &EvalAltResult,
    (limits, words): (&Limits, &Words),
) -> ScoreError {
    let names = names_in(source);
    let (refusal, place) = explain(error, &ErrorContext { limits, words, names: &names });
    let is_text = matches!(error, EvalAltResult::ErrorParsing(ParseErrorType::BadInput(_), _));
    if matches!(error, EvalAltResult::ErrorParsing(..))
        && !is_text
        && let Some(open) = unclosed(source)
        && (place.line(), place.position()) >= (Some(open.at.0), Some(open.at.1))
    {
        return of_bracket(&open).at(name, source, open.at.0, open.at.1);
    }
    let mistake = ScoreError::of_call(refusal);
    match (place.line(), place.position()) {
        (Some(line), column) => mistake.at(name, source, line, column.unwrap_or(1)),
        _ if place == Position::NONE => mistake,
        _ => mistake.at(name, source, 1, 1),
    }
}

fn of_bracket(Unclosed { at, open, close, before }: &Unclosed) -> ScoreError {
    let end = match before {
        Some((sign, line)) if *line == at.0 => format!("before the `{sign}`"),
        Some((sign, line)) => format!("before the `{sign}` in line {line}"),
        None => "before the end of the score".to_owned(),
    };
    let message = format!("`{close}` is missing: this `{open}` is not closed");
    ScoreError::new(message).advise(Some(format!("write `{close}` {end}")))
}

/// The names that the script itself gives to values and functions.
fn names_in(source: &str) -> Vec<String> {
    let mut names = vec!["PI".to_owned()];
    let mut before = "";
    for word in source.split(|c: char| !(c.is_alphanumeric() || c == '_')).filter(|word| !word.is_empty()) {
        if matches!(before, "let" | "const" | "fn" | "for") {
            names.push(word.to_owned());
        }
        before = word;
    }
    names
}
