//! What a score is given when it runs: its knobs, and its dice.
//!
//! A knob is a named value with a range, declared where the score first asks for it. Who runs the score can set it to
//! something else within the range, by name.

use std::collections::BTreeMap;

use chordane::number::{Point, pt};
use chordane::sheet::{Colour, Sheet};
use chordane::write::SvgOptions;

use chordane::ground::nearest;

use chordane::chance::Dice;

/// What a knob can be set to, and what it is when it is not set.
#[derive(Clone, Debug, PartialEq)]
pub enum KnobKind {
    /// A number in a range, both ends included.
    Number {
        /// What it is when it is not set.
        start: f64,
        /// The least.
        low: f64,
        /// The most.
        high: f64,
    },
    /// One of several names.
    Choice {
        /// What it is when it is not set.
        start: String,
        /// The names.
        choices: Vec<String>,
    },
    /// On or off.
    Switch {
        /// What it is when it is not set.
        start: bool,
    },
    /// A CSS colour.
    Colour {
        /// What it is when it is not set.
        start: String,
    },
    /// A point.
    Point {
        /// What it is when it is not set.
        start: Point,
    },
}

impl KnobKind {
    /// What it can be set to, in plain words.
    #[must_use]
    pub fn allowed(&self) -> String {
        match self {
            Self::Number { low, high, .. } => format!("{low} to {high}"),
            Self::Choice { choices, .. } => choices.join(", "),
            Self::Switch { .. } => "on or off".to_owned(),
            Self::Colour { .. } => "a CSS colour".to_owned(),
            Self::Point { .. } => "two numbers, as in 12,30".to_owned(),
        }
    }

    /// What it is when it is not set, as it would be set.
    #[must_use]
    pub fn start(&self) -> String {
        match self {
            Self::Number { start, .. } => start.to_string(),
            Self::Choice { start, .. } | Self::Colour { start } => start.clone(),
            Self::Switch { start } => if *start { "on" } else { "off" }.to_owned(),
            Self::Point { start } => format!("{},{}", start.x, start.y),
        }
    }

    /// Something else that it can be set to than what it is now, as far from it as it goes; none where there is no other.
    pub(crate) fn another(&self, now: &str) -> Option<String> {
        match self {
            Self::Number { low, high, .. } => {
                let now: f64 = now.parse().ok()?;
                let far = if (now - low).abs() >= (now - high).abs() { low } else { high };
                (*far != now).then(|| far.to_string())
            }
            Self::Choice { choices, .. } => choices.iter().find(|choice| *choice != now).cloned(),
            Self::Switch { start } => {
                let on = match now {
                    "on" | "true" | "yes" | "1" => true,
                    "off" | "false" | "no" | "0" => false,
                    _ => *start,
                };
                Some(if on { "off" } else { "on" }.to_owned())
            }
            Self::Colour { .. } => {
                let own = Colour::parse(now).ok()?;
                let other = if own.hex() == "#123456" { "#654321" } else { "#123456" };
                Some(other.to_owned())
            }
            Self::Point { .. } => {
                let (x, y) = now.split_once(',')?;
                let (x, y): (f64, f64) = (x.trim().parse().ok()?, y.trim().parse().ok()?);
                Some(format!("{},{}", x + 1.0 + x.abs(), y + 1.0 + y.abs()))
            }
        }
    }

    /// The start itself must be something that it can be set to.
    fn sound(&self) -> Result<(), String> {
        match self {
            Self::Number { start, low, high } if !(low <= start && start <= high) => {
                Err(format!("its start {start} is not within its range, {low} to {high}"))
            }
            Self::Choice { start, choices } if !choices.contains(start) => {
                Err(format!("its start \"{start}\" is none of its choices: {}", choices.join(", ")))
            }
            Self::Colour { start } if Colour::parse(start).is_err() => {
                Err(format!("its start \"{start}\" is no CSS colour"))
            }
            Self::Point { start } if !start.is_finite() => Err("its start is no point".to_owned()),
            _ => Ok(()),
        }
    }
}

/// A knob that a score has declared, and what it was set to.
#[derive(Clone, Debug, PartialEq)]
pub struct Knob {
    /// The name.
    pub name: String,
    /// What it can be set to.
    pub kind: KnobKind,
    /// What it was set to, where it was.
    pub set: Option<String>,
}

/// What is wrong with how the knobs were set, and how to mend it.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct KnobProblem {
    /// What is wrong.
    pub message: String,
    /// What to do.
    pub mend: String,
}

/// What a score is given when it runs.
///
/// ```
/// use chordane_score::Stage;
/// let mut stage = Stage::default();
/// stage.set("sag", "0.2");
/// assert_eq!(stage.knob("sag", 0.3, 0.0, 1.0), 0.2);
/// assert_eq!(stage.choice("tail", "bows", &["bows", "plain"]), "bows");
/// assert!(stage.problem().is_none());
/// stage.set("tial", "plain");
/// assert_eq!(stage.problem().unwrap().message, "there is no knob \"tial\"");
/// ```
#[derive(Clone, Debug, Default)]
pub struct Stage {
    given: BTreeMap<String, String>,
    knobs: Vec<Knob>,
    problem: Option<KnobProblem>,
    seed: u64,
    remarks: Vec<String>,
    size: Option<Point>,
}

impl Stage {
    /// Sets the seed that all dice come from; 0 at first.
    pub fn seed(&mut self, seed: u64) {
        self.seed = seed;
    }

    /// The dice of a name, from the seed. Asked for again, they begin again.
    #[must_use]
    pub fn dice(&self, name: &str) -> Dice {
        Dice::new(self.seed, name)
    }

    /// What the knobs were set to, by name.
    #[must_use]
    pub fn settings(&self) -> &BTreeMap<String, String> {
        &self.given
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

    /// The seed.
    #[must_use]
    pub fn its_seed(&self) -> u64 {
        self.seed
    }

    /// Sets a knob by its name; what it can be is known when the score declares it.
    pub fn set(&mut self, name: &str, value: &str) {
        self.given.insert(name.to_owned(), value.trim().to_owned());
    }

    /// Asks the score for a sheet of this size, where it can have any; see [`Stage::asked_size`].
    pub fn ask_size(&mut self, size: impl Into<Point>) {
        self.size = Some(size.into());
    }

    /// The size that is asked for, where one is.
    #[must_use]
    pub fn size_asked(&self) -> Option<Point> {
        self.size
    }

    /// The size that is asked for, or the score's own where none is: a score that lays itself out within it looks right at
    /// any size.
    #[must_use]
    pub fn asked_size(&self, own: impl Into<Point>) -> Point {
        self.size.unwrap_or_else(|| own.into())
    }

    /// The same settings for another run.
    #[must_use]
    pub fn again(&self) -> Self {
        Self { given: self.given.clone(), seed: self.seed, size: self.size, ..Self::default() }
    }

    /// The knobs that change nothing: set to something else, `perform` makes the same drawing. Each knob that was declared
    /// costs a run of the score; a knob that only matters together with others may be among them.
    #[must_use]
    pub fn idle_knobs(&self, perform: impl Fn(&mut Self) -> Option<Sheet>) -> Vec<&Knob> {
        let drawn = |stage: &mut Self| {
            let sheet = perform(stage)?;
            sheet.svg_with(&SvgOptions::default().decimals(6)).ok()
        };
        let Some(now) = drawn(&mut self.again()) else { return Vec::new() };
        let idle = |knob: &&Knob| {
            let value = knob.set.clone().unwrap_or_else(|| knob.kind.start());
            let Some(other) = knob.kind.another(&value) else { return false };
            let mut stage = self.again();
            stage.set(&knob.name, &other);
            drawn(&mut stage).is_some_and(|other| other == now)
        };
        self.knobs.iter().filter(idle).collect()
    }

    /// The knobs that were declared, in that order.
    #[must_use]
    pub fn knobs(&self) -> &[Knob] {
        &self.knobs
    }

    /// What is wrong with how the knobs were set, when the score has run: a value that a knob cannot have, or a name that
    /// no knob has. A knob that cannot have its value is at its start.
    #[must_use]
    pub fn problem(&self) -> Option<KnobProblem> {
        if self.problem.is_some() {
            return self.problem.clone();
        }
        let unknown = self.given.keys().find(|name| self.knobs.iter().all(|knob| knob.name != **name))?;
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
        let set = self.given.get(name).cloned();
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
    pub fn point(&mut self, name: &str, start: impl Into<Point>) -> Point {
        let start = start.into();
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
        self.value(name, KnobKind::Switch { start }, start, |text| match text {
            "on" | "true" | "yes" | "1" => Some(true),
            "off" | "false" | "no" | "0" => Some(false),
            _ => None,
        })
    }

    pub(crate) fn css_colour(&mut self, name: &str, start: &str) -> Result<String, String> {
        let kind = KnobKind::Colour { start: start.to_owned() };
        self.value(name, kind, start.to_owned(), |text| Colour::parse(text).is_ok().then(|| text.to_owned()))
    }

    pub(crate) fn place(&mut self, name: &str, start: Point) -> Result<Point, String> {
        self.value(name, KnobKind::Point { start }, start, |text| {
            let (x, y) = text.split_once(',')?;
            let point = pt(x.trim().parse().ok()?, y.trim().parse().ok()?);
            point.is_finite().then_some(point)
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn values_are_read_and_checked() {
        let mut stage = Stage::default();
        for (name, value) in
            [("sag", "2"), ("dots", "on"), ("cloth", "teal"), ("at", "3, -4"), ("tail", "plain")]
        {
            stage.set(name, value);
        }
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
