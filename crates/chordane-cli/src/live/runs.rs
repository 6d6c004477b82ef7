//! Runs of what is looked at: its text made ready once, run as often as settings change, and what came of it.

use std::sync::Arc;
use std::time::Instant;

use chordane::number::Point;
use chordane::path::Affine;
use chordane::sheet::{Colour, Sheet};
use chordane_score::{Knob, KnobKind, Limits, Runner, ScoreError, Script, Settings, Words};

use super::message::{KnobShape, KnobTold, MistakeTold, RunTold};
use crate::drawing::{bones, size_at, within};
use crate::failure::Failure;
use crate::input::Input;

/// What is looked at.
#[derive(Debug)]
pub(crate) enum Subject<'a> {
    /// A score, run from its text.
    Score { name: String, limits: Limits, words: Words },
    /// An SVG document.
    Document { name: String, limits: Limits },
    /// A score that is compiled in, without a text.
    Compiled { name: String, runner: &'a Runner<'a> },
}

impl Subject<'_> {
    pub(crate) fn name(&self) -> &str {
        match self {
            Self::Score { name, .. } | Self::Document { name, .. } | Self::Compiled { name, .. } => name,
        }
    }

    /// What the page calls it.
    pub(crate) fn kind(&self) -> &'static str {
        match self {
            Self::Score { .. } => "score",
            Self::Document { .. } => "document",
            Self::Compiled { .. } => "compiled",
        }
    }

    pub(crate) fn limits(&self) -> Option<Limits> {
        match self {
            Self::Score { limits, .. } | Self::Document { limits, .. } => Some(*limits),
            Self::Compiled { .. } => None,
        }
    }

    /// Returns the words that the score may use.
    pub(crate) fn words(&self) -> Words {
        match self {
            Self::Score { words, .. } => words.clone(),
            Self::Document { .. } | Self::Compiled { .. } => Words::new(),
        }
    }

    /// Parses a text as a script; `None` if this is not a score or there is a syntax error.
    pub(crate) fn script(&self, text: &str) -> Option<Script> {
        let Self::Score { name, limits, words } = self else { return None };
        Script::read_with(name.clone(), text, *limits, words).ok()
    }

    /// Reads a text of it; nothing to read where it is compiled in.
    fn read(&self, text: &str) -> Result<Option<(Runner<'static>, Vec<String>)>, Failure> {
        let input = match self {
            Self::Score { name, words, .. } => Input::Score(name.clone(), text.to_owned(), words.clone()),
            Self::Document { name, .. } => Input::Svg(name.clone(), text.as_bytes().to_vec()),
            Self::Compiled { .. } => return Ok(None),
        };
        let opened = input.open(self.limits().unwrap_or_default())?;
        let notes = opened.notes.iter().map(ToString::to_string).collect();
        Ok(Some((opened.runner, notes)))
    }
}

/// A subject with its text read.
#[derive(Debug)]
pub(crate) struct Ready<'a> {
    subject: Subject<'a>,
    read: Option<(Arc<str>, Result<Read, MistakeTold>)>,
}

#[derive(Debug)]
struct Read {
    runner: Option<Runner<'static>>,
    notes: Vec<String>,
}

/// What a run came to.
#[derive(Debug)]
pub(crate) struct Ran {
    pub(crate) sheet: Sheet,
    pub(crate) svg: Arc<str>,
    /// What puts the coordinates that are told on the sheet.
    pub(crate) view: Affine,
    pub(crate) told: RunTold,
    pub(crate) knobs: Vec<KnobTold>,
    pub(crate) declared: Vec<Knob>,
    pub(crate) seed: u64,
}

impl<'a> Ready<'a> {
    pub(crate) fn new(subject: Subject<'a>) -> Self {
        Self { subject, read: None }
    }

    pub(crate) fn subject(&self) -> &Subject<'a> {
        &self.subject
    }

    /// The runner of a text.
    pub(crate) fn runner(&mut self, text: &Arc<str>) -> Result<(&Runner<'a>, &[String]), MistakeTold> {
        if self.read.as_ref().is_none_or(|(known, _)| known != text) {
            let read = self.subject.read(text).map_err(|failure| mistake_of(&failure, text)).map(|read| {
                let (runner, notes) =
                    read.map_or((None, Vec::new()), |(runner, notes)| (Some(runner), notes));
                Read { runner, notes }
            });
            self.read = Some((Arc::clone(text), read));
        }
        match (&self.read, &self.subject) {
            (Some((_, Err(mistake))), _) => Err(mistake.clone()),
            (Some((_, Ok(Read { runner: Some(runner), notes }))), _) => Ok((runner, notes)),
            (_, Subject::Compiled { runner, .. }) => Ok((runner, &[])),
            _ => Err(MistakeTold { message: "there is nothing to run".to_owned(), ..MistakeTold::default() }),
        }
    }

    /// Runs a text, and draws what it makes with these layers of its bones.
    pub(crate) fn run(
        &mut self,
        text: &Arc<str>,
        settings: &Settings,
        layers: &[String],
    ) -> Result<Ran, MistakeTold> {
        let begin = Instant::now();
        let limits = self.subject.limits();
        let (runner, notes) = self.runner(text)?;
        let run = runner.run(settings);
        let problem = run.problem().filter(|_| unknown(&run, settings).is_empty());
        let remarks = run.remarks().iter().cloned();
        let notes = notes
            .iter()
            .cloned()
            .chain(remarks)
            .chain(problem.map(|problem| format!("{}: {}", problem.message, problem.mend)))
            .collect();
        let printed = run.printed().to_vec();
        let (moves, points, rolls) = (run.moves(), run.points(), run.rolls());
        let (declared, seed) = (run.knobs().to_vec(), run.seed());
        let sheet = run.into_lenient_sheet().map_err(|mistake| mistake_of(&mistake.into(), text))?;
        let dressed = if layers.is_empty() {
            None
        } else {
            let size = size_at(&sheet, 96.0);
            let made = within(limits, 0, || bones(&sheet, &[], Some(size), layers));
            Some(made.map_err(|failure| mistake_of(&failure, text))?)
        };
        let svg = within(limits, 0, || dressed.as_ref().unwrap_or(&sheet).svg());
        let svg =
            svg.map_err(|fault| mistake_of(&Failure::of_fault(&fault, "mend it in the score"), text))?;
        let view = sheet.document_view().copied().filter(Affine::is_finite).unwrap_or_default();
        let told = RunTold {
            milliseconds: begin.elapsed().as_secs_f64() * 1e3,
            moves,
            points,
            rolls,
            items: sheet.items().len(),
            printed,
            notes,
        };
        let knobs = declared.iter().map(knob).collect();
        Ok(Ran { sheet, svg: svg.into(), view, told, knobs, declared, seed })
    }
}

impl Ran {
    /// The coordinates that are told at the left upper and the right lower corner.
    pub(crate) fn corners(&self) -> [[f64; 2]; 2] {
        let (cell, up) = (self.sheet.cell(), self.sheet.y_up);
        let (top, bottom) = if up { (cell.max.y, cell.min.y) } else { (cell.min.y, cell.max.y) };
        [Point::new(cell.min.x, top), Point::new(cell.max.x, bottom)]
            .map(|corner| self.told(corner).to_array())
    }

    /// Its size in pixels.
    pub(crate) fn size(&self) -> [f64; 2] {
        (self.sheet.size * self.sheet.unit.pixels()).to_array()
    }

    /// A place as it is told, of one on the sheet.
    pub(crate) fn told(&self, at: Point) -> Point {
        self.view.inverse().transform_point2(at)
    }

    /// A place on the sheet, of one as it is told.
    pub(crate) fn on_sheet(&self, at: [f64; 2]) -> Point {
        self.view.transform_point2(Point::from(at))
    }
}

/// The knobs that are set and that the score does not declare: those of a text before.
fn unknown<'s>(run: &chordane_score::Run, settings: &'s Settings) -> Vec<&'s str> {
    let known = |name: &&str| run.knobs().iter().any(|knob| knob.name == *name);
    settings.knobs.keys().map(String::as_str).filter(|name| !known(name)).collect()
}

fn knob(knob: &Knob) -> KnobTold {
    let value = knob.set.clone().unwrap_or_else(|| knob.kind.start());
    let shape = match &knob.kind {
        KnobKind::Number { low, high, .. } => KnobShape::Number { low: *low, high: *high },
        KnobKind::Choice { choices, .. } => KnobShape::Choice { choices: choices.clone() },
        KnobKind::Switch { .. } => KnobShape::Switch,
        KnobKind::Colour { .. } => {
            KnobShape::Colour { hex: Colour::parse(&value).map_or_else(|_| value.clone(), Colour::hex) }
        }
        _ => KnobShape::Point,
    };
    KnobTold { name: knob.name.clone(), start: knob.kind.start(), value, shape, at: None }
}

/// Converts a failure to the message that pages show.
pub(crate) fn mistake_of(failure: &Failure, text: &str) -> MistakeTold {
    let mistake = failure.mistake.as_deref();
    let mended = mistake.and_then(|mistake| mistake.corrected(text));
    MistakeTold {
        click: mended.is_some(),
        mended,
        message: failure.message.clone(),
        help: Some(failure.mend.clone()).filter(|mend| !mend.is_empty()),
        line: mistake.and_then(ScoreError::line),
        column: mistake.and_then(ScoreError::column),
    }
}
