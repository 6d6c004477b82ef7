//! Scripts: the text of a `.chord` file, read once and run as often as needed.

use std::sync::Arc;

use chordane::sheet::Sheet;
use rhai::{AST, Dynamic, EvalAltResult, Position, Scope};

use crate::budget::Account;
use crate::engine::{engine, reader};
use crate::explain::explain;
use crate::outer::{self, outer_names};
use crate::running::Running;
use crate::unkept::unkept;
use crate::values::Builder;
use crate::{Limits, Mistake, Score, Stage, values};

/// A score in the script language, read and ready to run.
///
/// ```
/// use chordane_score::{Limits, Score, Script};
/// let script = Script::read("page.chord", "sheet(90, 60)", Limits::default())?;
/// assert_eq!(script.sheet()?.size().x, 90.0);
/// # Ok::<(), chordane_score::Mistake>(())
/// ```
#[derive(Debug)]
pub struct Script {
    name: String,
    source: String,
    compiled: AST,
    /// The names of its own values that its functions use.
    outer: Vec<String>,
    limits: Limits,
}

impl Script {
    /// Reads a script. `name` is what messages call it: its file's name.
    ///
    /// # Errors
    ///
    /// The first place that cannot be read.
    pub fn read(name: impl Into<String>, source: impl Into<String>, limits: Limits) -> Result<Self, Mistake> {
        let (name, source) = (name.into(), source.into());
        let compiled = reader(&limits).compile(&source).map_err(|error| {
            let error: Box<EvalAltResult> = error.into();
            mistake(&name, &source, &error, &limits)
        })?;
        match unkept(&compiled) {
            Some(lost) => Err(Mistake::new(lost.message).advise(Some(lost.mend)).at(
                &name,
                &source,
                lost.place.line().unwrap_or(1),
                lost.place.position().unwrap_or(1),
            )),
            None => Ok(Self { outer: outer_names(&compiled), name, source, compiled, limits }),
        }
    }

    /// Runs the script and gives its last value.
    fn run(&self, running: &Arc<Running>) -> Result<Dynamic, Mistake> {
        Account::open().within(self.limits, |budget| {
            let mut scope = Scope::new();
            let mut engine = engine(running, budget.clone());
            let last = if self.outer.is_empty() {
                engine.eval_ast_with_scope::<Dynamic>(&mut scope, &self.compiled)
            } else {
                let spent = move || budget.spent();
                outer::run(&mut engine, &mut scope, &self.compiled, &self.outer, self.limits.steps, spent)
            };
            last.map_err(|error| mistake(&self.name, &self.source, &error, &self.limits))
        })
    }
}

impl Score for Script {
    fn perform(&self, stage: &mut Stage) -> Result<Sheet, Mistake> {
        let running = Running::new(self.limits, std::mem::take(stage));
        let last = self.run(&running);
        *stage = running.stage(std::mem::take);
        let last = last?;
        if let Some(sheet) = last.clone().try_cast::<Builder<Sheet>>() {
            let sheet = sheet.get();
            sheet.sound().map_err(Mistake::from)?;
            return Ok(sheet);
        }
        let what = match values::description(&last).as_str() {
            "nothing" => "nothing (is there a semicolon after it?)".to_owned(),
            other => other.to_owned(),
        };
        let line = self.source.trim_end().lines().count().max(1);
        let column = self
            .source
            .lines()
            .nth(line - 1)
            .map_or(1, |text| text.chars().take_while(|c| c.is_whitespace()).count() + 1);
        Err(Mistake::new(format!("the last value of a score is its sheet, and this is {what}"))
            .advise(Some("end the score with a sheet: sheet(640, 480).add(..)".to_owned()))
            .at(&self.name, &self.source, line, column))
    }
}

fn mistake(name: &str, source: &str, error: &EvalAltResult, limits: &Limits) -> Mistake {
    let (message, advice, place) = explain(error, limits, &names_in(source));
    let mistake = Mistake::new(message).advise(advice);
    match (place.line(), place.position()) {
        (Some(line), column) => mistake.at(name, source, line, column.unwrap_or(1)),
        _ if place == Position::NONE => mistake,
        _ => mistake.at(name, source, 1, 1),
    }
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
