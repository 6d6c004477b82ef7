//! Knobs: the named values of a score that whoever runs it can set.

use chordane::ground::plain_number;
use chordane::number::Point;
use chordane::sheet::Colour;

use crate::ScoreError;

/// What a knob can be set to, and what it is when it is not set.
///
/// ```
/// use chordane::prelude::*;
/// use chordane_score::{Runner, Settings, Stage};
/// let runner = Runner::new(|stage: &mut Stage| {
///     let side = stage.knob("side", 40.0, 1.0, 90.0);
///     sheet(100.0, 80.0).add(circle((50.0, 40.0), side).fill("teal"))
/// });
/// let run = runner.run(&Settings::new());
/// assert_eq!((run.knobs()[0].kind.start().as_str(), run.knobs()[0].kind.allowed().as_str()), ("40", "1 to 90"));
/// ```
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
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

/// Whether a text says on or off.
pub(crate) fn on_or_off(text: &str) -> Option<bool> {
    match text {
        "on" | "true" | "yes" | "1" => Some(true),
        "off" | "false" | "no" | "0" => Some(false),
        _ => None,
    }
}

/// The point that a text says, as in `12,30`.
pub(crate) fn place(text: &str) -> Option<Point> {
    let (x, y) = text.split_once(',')?;
    let point = Point::new(x.trim().parse().ok()?, y.trim().parse().ok()?);
    point.is_finite().then_some(point)
}

impl KnobKind {
    /// What it can be set to, in plain words.
    #[must_use]
    pub fn allowed(&self) -> String {
        match self {
            Self::Number { low, high, .. } => format!("{} to {}", plain_number(*low), plain_number(*high)),
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

    /// Other things that it can be set to than what it is now: far from it and between, since a range may be a whole period, and
    /// a value may only choose. None where there is no other.
    pub(crate) fn others(&self, now: &str) -> Vec<String> {
        match self {
            Self::Number { low, high, .. } => {
                let Ok(now) = now.parse::<f64>() else { return Vec::new() };
                let mut values =
                    [0.0, 1.0, 0.382, 0.73, 0.5, 0.09, 0.91].map(|share| low + (high - low) * share);
                values.sort_by(|a, b| (b - now).abs().total_cmp(&(a - now).abs()));
                let whole = [*low, *high, now].iter().all(|value| value.fract() == 0.0);
                let between = if whole { values.map(f64::round).to_vec() } else { Vec::new() };
                let mut all: Vec<String> = Vec::new();
                for value in values.into_iter().chain(between).filter(|value| *value != now) {
                    let value = value.to_string();
                    if !all.contains(&value) {
                        all.push(value);
                    }
                }
                all
            }
            Self::Choice { choices, .. } => choices.iter().filter(|choice| *choice != now).cloned().collect(),
            _ => self.another(now).into_iter().collect(),
        }
    }

    fn another(&self, now: &str) -> Option<String> {
        match self {
            Self::Number { .. } | Self::Choice { .. } => None,
            Self::Switch { start } => {
                Some(if on_or_off(now).unwrap_or(*start) { "off" } else { "on" }.to_owned())
            }
            Self::Colour { .. } => {
                let own = Colour::parse(now).ok()?;
                let other = if own.hex() == "#123456" { "#654321" } else { "#123456" };
                Some(other.to_owned())
            }
            Self::Point { .. } => {
                let Point { x, y } = place(now)?;
                Some(format!("{},{}", x + 1.0 + x.abs(), y + 1.0 + y.abs()))
            }
        }
    }

    /// The start itself must be something that it can be set to.
    pub(crate) fn sound(&self) -> Result<(), String> {
        match self {
            Self::Number { start, low, high } if !(low <= start && start <= high) => {
                let (start, low, high) = (plain_number(*start), plain_number(*low), plain_number(*high));
                Err(format!("its start {start} is not within its range, {low} to {high}"))
            }
            Self::Choice { start, choices } if !choices.contains(start) => {
                Err(format!("its start \"{start}\" is none of its choices: {}", choices.join(", ")))
            }
            Self::Colour { start } if Colour::parse(start).is_err() => {
                Err(format!("its start \"{start}\" is not a CSS colour"))
            }
            Self::Point { start } if !start.is_finite() => Err("its start is not a point".to_owned()),
            _ => Ok(()),
        }
    }
}

/// A knob that a score has declared, and what it was set to.
///
/// ```
/// use chordane::prelude::*;
/// use chordane_score::{Runner, Settings, Stage};
/// let runner = Runner::new(|stage: &mut Stage| {
///     let side = stage.knob("side", 40.0, 1.0, 90.0);
///     sheet(100.0, 80.0).add(circle((50.0, 40.0), side).fill("teal"))
/// });
/// let run = runner.run(&Settings::new().set("side", "20"));
/// let knob = &run.knobs()[0];
/// assert_eq!((knob.name.as_str(), knob.set.as_deref()), ("side", Some("20")));
/// ```
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct Knob {
    /// The name.
    pub name: String,
    /// What it can be set to.
    pub kind: KnobKind,
    /// What it was set to, where it was.
    pub set: Option<String>,
}

/// What is wrong with how the knobs were set, and how to mend it.
///
/// ```
/// use chordane::prelude::*;
/// use chordane_score::{Runner, Settings, Stage};
/// let runner = Runner::new(|stage: &mut Stage| {
///     let side = stage.knob("side", 40.0, 1.0, 90.0);
///     sheet(100.0, 80.0).add(circle((50.0, 40.0), side).fill("teal"))
/// });
/// let problem = runner.run(&Settings::new().set("sied", "20")).problem().ok_or("no problem")?;
/// assert_eq!(problem.message, "there is no knob \"sied\"");
/// # Ok::<(), &str>(())
/// ```
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct KnobProblem {
    /// What is wrong.
    pub message: String,
    /// What to do.
    pub mend: String,
}

impl From<KnobProblem> for ScoreError {
    fn from(problem: KnobProblem) -> Self {
        Self::new(problem.message).advised(problem.mend)
    }
}
