//! What a score is given when it runs, and the log of what it asked for.
//!
//! A knob is a named value with a range, declared where the score first asks for it. Who runs the score can set it to
//! something else within the range, by name.

use std::collections::BTreeSet;

use crate::marks::MarkFrame;
use chordane::chance::Dice;
use chordane::ground::nearest;
use chordane::number::{IntoPoint, Point};
use chordane::sheet::{Colour, Picture};

use crate::knob::{Knob, KnobKind, KnobProblem, on_or_off, place};
use crate::pointer::Pointer;
use crate::settings::Settings;
use crate::{GivenValue, ScoreError};

/// More lines than these are not kept of what a score prints.
const MAX_PRINTED_LINES: usize = 10_000;

/// What a score is given when it runs, and what it asked for: its knobs, remarks, and what it printed.
///
/// ```
/// use chordane_score::{Settings, Stage};
/// let mut stage = Stage::new(Settings::new().set("sag", "0.2"));
/// assert_eq!(stage.knob("sag", 0.3, 0.0, 1.0), 0.2);
/// assert_eq!(stage.choice("tail", "bows", &["bows", "plain"]), "bows");
/// assert!(stage.problem().is_none());
/// let mut stage = Stage::new(Settings::new().set("sgo", "0.2"));
/// stage.knob("sag", 0.3, 0.0, 1.0);
/// assert_eq!(stage.problem().unwrap().message, "there is no knob \"sgo\"");
/// ```
#[derive(Clone, Debug, Default)]
pub struct Stage {
    settings: Settings,
    own_seed: u64,
    knobs: Vec<Knob>,
    problem: Option<KnobProblem>,
    remarks: Vec<String>,
    printed: Vec<String>,
    pictures: BTreeSet<String>,
    /// The names under which given values were asked for.
    given: BTreeSet<String>,
    moves: bool,
    points: bool,
    rolls: bool,
    /// What words of motion gave, where that is kept.
    trace: Option<Vec<Traced>>,
}

/// What a word gave.
#[derive(Clone, Debug)]
pub(crate) struct Traced {
    pub(crate) word: &'static str,
    pub(crate) line: Option<usize>,
    pub(crate) values: Vec<f64>,
}

/// So many marks are listed in a message.
const MAX_LISTED_MARKS: usize = 12;

/// So much is kept of what words gave.
const MAX_TRACED_CALLS: usize = 10_000;

impl Stage {
    /// A stage for one run with these settings.
    #[must_use]
    pub fn new(settings: Settings) -> Self {
        Self { settings, ..Self::default() }
    }

    /// What the score is run with.
    #[must_use]
    pub fn settings(&self) -> &Settings {
        &self.settings
    }

    /// The dice of a name, from the seed. Asked for again, they begin again.
    pub fn dice(&mut self, name: &str) -> Dice {
        self.rolls = true;
        Dice::new(self.seed_in_use(), name)
    }

    /// Sets the score's own seed, for the dice made after it; one that is asked for overrides it. Gives the seed in use.
    pub fn seed(&mut self, own: u64) -> u64 {
        (self.own_seed, self.rolls) = (own, true);
        self.seed_in_use()
    }

    /// The seed in use: the one that is asked for, else the score's own, else 0.
    pub(crate) fn seed_in_use(&self) -> u64 {
        self.settings.seed.unwrap_or(self.own_seed)
    }

    /// The picture of a name: one that was handed in, else a file below the score's folder.
    ///
    /// # Errors
    ///
    /// What is wrong and how to mend it; see [`Pictures::find`](crate::Pictures::find).
    pub fn picture(&mut self, name: &str) -> Result<Picture, ScoreError> {
        let found = self.settings.pictures.find(name)?;
        self.pictures.insert(name.to_owned());
        Ok(found)
    }

    /// The names of the pictures that were found.
    #[must_use]
    pub fn pictures(&self) -> &BTreeSet<String> {
        &self.pictures
    }

    /// Returns the value that the program handed in under a name; see [`Settings::give`].
    ///
    /// ```
    /// use chordane::prelude::*;
    /// use chordane_score::{Settings, Stage};
    /// let mut stage = Stage::new(Settings::new().give("outline", circle((0.0, 0.0), 5.0)));
    /// let outline = stage.given("outline").and_then(|value| value.as_path().cloned());
    /// assert_eq!(outline, Some(circle((0.0, 0.0), 5.0)));
    /// assert_eq!(stage.given("spots"), None);
    /// ```
    pub fn given(&mut self, name: &str) -> Option<&GivenValue> {
        self.given.insert(name.to_owned());
        self.settings.given.get(name)
    }

    /// The size that is asked for, or the score's own where none is: a score that lays itself out within it looks right at
    /// any size.
    #[must_use]
    pub fn asked_size(&self, own: impl IntoPoint) -> Point {
        self.settings.size.unwrap_or_else(|| own.into_point())
    }

    /// The place in the loop, from 0 up to 1: frame k of n is at k / n, so that the frame after the last would be the first again.
    pub fn phase(&mut self) -> f64 {
        self.moves = true;
        self.settings.moment.phase
    }

    /// The seconds since the loop began: the phase times its length.
    pub fn seconds(&mut self) -> f64 {
        self.phase() * self.settings.moment.seconds
    }

    /// The number of the frame, counted from 0.
    pub fn frame(&mut self) -> usize {
        self.moves = true;
        self.settings.moment.frame
    }

    /// Where the pointer is and whether it is down: in the live page the visitor's, in a clip that of a track. A score that asks for it moves where there
    /// is a track.
    pub fn pointer(&mut self) -> Pointer {
        self.points = true;
        self.moves |= self.settings.track.as_ref().is_some();
        self.settings.pointer_now()
    }

    /// The marks of this moment. A score that asks for them moves.
    ///
    /// # Errors
    ///
    /// That there are none.
    pub fn marks(&mut self) -> Result<&MarkFrame, ScoreError> {
        self.moves = true;
        self.settings
            .marks_now()
            .ok_or_else(|| ScoreError::new("there are no marks").set("marks", "give some"))
    }

    /// Where a mark is at this moment.
    ///
    /// # Errors
    ///
    /// That there are no marks, or that this one is not seen.
    pub fn mark(&mut self, number: usize) -> Result<Point, ScoreError> {
        let frame = self.marks()?;
        frame.at(number).ok_or_else(|| {
            let seen: Vec<String> =
                frame.points().take(MAX_LISTED_MARKS).map(|(number, _)| number.to_string()).collect();
            let more = if frame.points().len() > MAX_LISTED_MARKS { ", .." } else { "" };
            let message =
                format!("mark {number} is missing at this moment (seen: {}{more})", seen.join(", "));
            ScoreError::new(message).set("marks held", "keep lost marks where they were")
        })
    }

    /// Whether the score has asked for dice or has set a seed: if not, all seeds draw alike.
    #[must_use]
    pub fn rolls(&self) -> bool {
        self.rolls
    }

    /// Whether the score has asked where the pointer is.
    #[must_use]
    pub fn points(&self) -> bool {
        self.points
    }

    /// Whether the score has asked for the phase, the seconds or the frame: if not, all its frames are alike.
    #[must_use]
    pub fn moves(&self) -> bool {
        self.moves
    }

    /// Keeps from now on what words of motion give.
    pub(crate) fn trace(&mut self) {
        self.trace = Some(Vec::new());
    }

    /// Keeps what a word gave, where that is asked for.
    pub(crate) fn gave(&mut self, traced: impl FnOnce() -> Traced) {
        if let Some(trace) = self.trace.as_mut().filter(|trace| trace.len() < MAX_TRACED_CALLS) {
            trace.push(traced());
        }
    }

    pub(crate) fn into_trace(self) -> Vec<Traced> {
        self.trace.unwrap_or_default()
    }

    /// Remarks on what the score asked for, such as wheels that never come round: each once, in their order.
    #[must_use]
    pub fn remarks(&self) -> &[String] {
        &self.remarks
    }

    pub(crate) fn remark(&mut self, text: String) {
        if !self.remarks.contains(&text) {
            self.remarks.push(text);
        }
    }

    /// What the score printed, line by line; the first ten thousand lines.
    #[must_use]
    pub fn printed(&self) -> &[String] {
        &self.printed
    }

    /// Prints a line for who runs the score: it stands in [`Stage::printed`].
    pub fn print(&mut self, line: &str) {
        if self.printed.len() < MAX_PRINTED_LINES {
            self.printed.push(line.to_owned());
        }
    }

    /// The knobs that were declared, in that order.
    #[must_use]
    pub fn knobs(&self) -> &[Knob] {
        &self.knobs
    }

    /// Returns the first problem with the settings, once the score has run: a value that a knob cannot have, a name that no knob
    /// has, or a given value that the score did not ask for. A knob with an invalid value keeps its start value.
    #[must_use]
    pub fn problem(&self) -> Option<KnobProblem> {
        if self.problem.is_some() {
            return self.problem.clone();
        }
        if let Some(unused) = self.settings.given.keys().find(|name| !self.given.contains(*name)) {
            let names = || self.given.iter().map(String::as_str);
            let mend = match nearest(unused, names()) {
                Some(near) => format!("did you mean \"{near}\"?"),
                None if self.given.is_empty() => "the score asks for no given values".to_owned(),
                None => format!("it asks for {}", names().collect::<Vec<_>>().join(", ")),
            };
            return Some(KnobProblem { message: format!("the score does not ask for \"{unused}\""), mend });
        }
        let unknown =
            self.settings.knobs.keys().find(|name| self.knobs.iter().all(|knob| knob.name != **name))?;
        let names = || self.knobs.iter().map(|knob| knob.name.as_str());
        let mend = match nearest(unknown, names()) {
            Some(near) => format!("did you mean \"{near}\"?"),
            None if self.knobs.is_empty() => "the score declares none: knob(\"sag\", 0.3, 0, 1)".to_owned(),
            None => format!("the knobs are {}", names().collect::<Vec<_>>().join(", ")),
        };
        Some(KnobProblem { message: format!("there is no knob \"{unknown}\""), mend })
    }

    /// Declares a knob, or finds it again, and gives the text that it was set to.
    pub(crate) fn declare(&mut self, name: &str, kind: KnobKind) -> Result<Option<String>, String> {
        kind.sound().map_err(|what| format!("the knob \"{name}\" cannot be: {what}"))?;
        if let Some(known) = self.knobs.iter().find(|knob| knob.name == name) {
            if known.kind != kind {
                return Err(format!(
                    "the knob \"{name}\" was declared otherwise before; declare it once, and use its value"
                ));
            }
            return Ok(known.set.clone());
        }
        let set = self.settings.knobs.get(name).cloned();
        self.knobs.push(Knob { name: name.to_owned(), kind, set: set.clone() });
        Ok(set)
    }

    /// Remembers that a knob cannot have the value it was set to.
    fn refuse(&mut self, name: &str, given: &str, kind: &KnobKind) {
        if self.problem.is_none() {
            let message = format!("the knob \"{name}\" cannot be set to {given}");
            self.problem = Some(KnobProblem { message, mend: format!("give {}", kind.allowed()) });
        }
    }

    /// The value that a text stands for, or the start.
    pub(crate) fn value<T>(
        &mut self,
        name: &str,
        kind: KnobKind,
        start: T,
        read: impl FnOnce(&str) -> Option<T>,
    ) -> Result<T, String> {
        let Some(text) = self.declare(name, kind.clone())? else { return Ok(start) };
        match read(&text) {
            Some(value) => Ok(value),
            None => {
                self.refuse(name, &text, &kind);
                Ok(start)
            }
        }
    }

    /// A number with a range.
    pub fn knob(&mut self, name: &str, start: f64, low: f64, high: f64) -> f64 {
        let number = self.number(name, start, low, high);
        self.or_start(number, name, start)
    }

    /// One of several names.
    pub fn choice(&mut self, name: &str, start: &str, choices: &[&str]) -> String {
        let choices = choices.iter().map(|choice| (*choice).to_owned()).collect();
        let chosen = self.one_of(name, start, choices);
        self.or_start(chosen, name, start.to_owned())
    }

    /// On or off.
    pub fn switch(&mut self, name: &str, start: bool) -> bool {
        let on = self.on_or_off(name, start);
        self.or_start(on, name, start)
    }

    /// A CSS colour.
    pub fn colour(&mut self, name: &str, start: &str) -> String {
        let colour = self.css_colour(name, start);
        self.or_start(colour, name, start.to_owned())
    }

    /// A point.
    pub fn point(&mut self, name: &str, start: impl IntoPoint) -> Point {
        let start = start.into_point();
        let place = self.place(name, start);
        self.or_start(place, name, start)
    }

    /// In Rust a declaration that cannot be is a problem too, told when the score has run.
    fn or_start<T>(&mut self, value: Result<T, String>, name: &str, start: T) -> T {
        value.unwrap_or_else(|message| {
            let mend = format!("mend the declaration of \"{name}\" in the score");
            self.problem.get_or_insert(KnobProblem { message, mend });
            start
        })
    }

    pub(crate) fn number(&mut self, name: &str, start: f64, low: f64, high: f64) -> Result<f64, String> {
        let within = |value: &f64| (low..=high).contains(value);
        self.value(name, KnobKind::Number { start, low, high }, start, |text| {
            text.parse().ok().filter(within)
        })
    }

    pub(crate) fn one_of(&mut self, name: &str, start: &str, choices: Vec<String>) -> Result<String, String> {
        let kind = KnobKind::Choice { start: start.to_owned(), choices: choices.clone() };
        self.value(name, kind, start.to_owned(), |text| choices.into_iter().find(|choice| choice == text))
    }

    pub(crate) fn on_or_off(&mut self, name: &str, start: bool) -> Result<bool, String> {
        self.value(name, KnobKind::Switch { start }, start, on_or_off)
    }

    pub(crate) fn css_colour(&mut self, name: &str, start: &str) -> Result<String, String> {
        let kind = KnobKind::Colour { start: start.to_owned() };
        self.value(name, kind, start.to_owned(), |text| Colour::parse(text).is_ok().then(|| text.to_owned()))
    }

    pub(crate) fn place(&mut self, name: &str, start: Point) -> Result<Point, String> {
        self.value(name, KnobKind::Point { start }, start, place)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use chordane::number::pt;

    #[test]
    fn values_are_read_and_checked() {
        let asked = [("sag", "2"), ("dots", "on"), ("cloth", "teal"), ("at", "3, -4"), ("tail", "plain")];
        let settings = asked.into_iter().fold(Settings::new(), |all, (name, value)| all.set(name, value));
        let mut stage = Stage::new(settings);
        assert!(stage.switch("dots", false));
        assert_eq!(stage.colour("cloth", "red"), "teal");
        assert_eq!(stage.point("at", (0.0, 0.0)), pt(3.0, -4.0));
        assert_eq!(stage.choice("tail", "bows", &["bows", "plain"]), "plain");
        assert_eq!(stage.problem().unwrap().message, "there is no knob \"sag\"");
        assert_eq!(stage.problem().unwrap().mend, "the knobs are dots, cloth, at, tail");
        assert_eq!(stage.knob("sag", 0.3, 0.0, 1.0), 0.3);
        let problem = stage.problem().unwrap();
        assert_eq!(
            (problem.message.as_str(), problem.mend.as_str()),
            ("the knob \"sag\" cannot be set to 2", "give 0 to 1")
        );
        // Asked for again it is the same; declared otherwise it is a problem.
        assert_eq!(stage.knob("sag", 0.3, 0.0, 1.0), 0.3);
        assert_eq!(stage.knobs().len(), 5);
        let mut other = Stage::default();
        other.knob("sag", 0.3, 0.0, 1.0);
        other.knob("sag", 0.3, 0.0, 2.0);
        assert!(other.problem().unwrap().message.contains("declared otherwise"));
        let mut wrong = Stage::default();
        assert_eq!(wrong.knob("sag", 3.0, 0.0, 1.0), 3.0);
        assert_eq!(
            wrong.problem().unwrap().message,
            "the knob \"sag\" cannot be: its start 3 is not within its range, 0 to 1"
        );
    }
}
