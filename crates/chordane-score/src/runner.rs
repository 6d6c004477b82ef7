//! The one way to run a score.

use std::collections::BTreeSet;

use std::fmt;
use std::time::Duration;

use chordane::check::{Code, Finding, Level};
use chordane::ground::visible;
use chordane::sheet::Sheet;

use crate::clock::Instant;
use crate::stage::Traced;
use crate::{Knob, KnobProblem, Limits, Score, ScoreError, Script, Settings, Stage, Words};

/// The code of the finding on a knob that changes nothing: `unused-knob`.
pub const UNUSED_KNOB: Code = Code::Own("unused-knob");

/// A score ready to run, any number of times with other settings and on any thread: a script that was read once, or one
/// that was written in Rust.
///
/// ```
/// use chordane_score::{Limits, Runner, Settings};
///
/// let runner = Runner::read("sail.chord", r#"
///     let sag = knob("sag", 0.3, 0, 1);
///     sheet(100, 80).add(start([0, 0]).quad([50, 60 * sag], [100, 0]).open().stroke("teal", 2))
/// "#, Limits::default())?;
/// let (flat, deep) = (runner.run(&Settings::new().set("sag", "0")), runner.run(&Settings::new().set("sag", "1")));
/// assert_ne!(flat.sheet()?, deep.sheet()?);
/// assert_eq!(flat.knobs()[0].name, "sag");
/// # Ok::<(), chordane_score::ScoreError>(())
/// ```
pub struct Runner<'a> {
    score: Box<dyn Score + Send + Sync + 'a>,
}

impl fmt::Debug for Runner<'_> {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        out.debug_struct("Runner").finish_non_exhaustive()
    }
}

/// The moments at which the knobs of a score that moves are tried, in no simple relation to one another.
const KNOB_PHASES: &[f64] = &[0.0, 0.137, 0.291, 0.463, 0.618, 0.844];

/// What a run of a score came to: its sheet, or the mistake that ended it; and what it asked for on the way.
///
/// ```
/// use chordane::prelude::*;
/// use chordane_score::{Runner, Settings, Stage};
/// let runner = Runner::new(|stage: &mut Stage| {
///     let side = stage.knob("side", 40.0, 1.0, 90.0);
///     sheet(100.0, 80.0).add(circle((50.0, 40.0), side).fill("teal"))
/// });
/// let run = runner.run(&Settings::new());
/// assert_eq!((run.knobs().len(), run.printed().len()), (1, 0));
/// assert_eq!(run.into_sheet()?.items().len(), 1);
/// # Ok::<(), chordane_score::ScoreError>(())
/// ```
#[derive(Clone, Debug)]
pub struct Run {
    made: Result<Sheet, ScoreError>,
    stage: Stage,
}

/// A runner is a score itself, so that it can be run by another one.
impl Score for &Runner<'_> {
    fn perform(&self, stage: &mut Stage) -> Result<Sheet, ScoreError> {
        self.score.perform(stage)
    }
}

impl<'a> Runner<'a> {
    /// A runner of a score.
    pub fn new(score: impl Score + Send + Sync + 'a) -> Self {
        Self { score: Box::new(score) }
    }

    /// Reads a script. `name` is what messages call it: its file's name.
    ///
    /// # Errors
    ///
    /// The first place that cannot be read.
    pub fn read(
        name: impl Into<String>,
        source: impl Into<String>,
        limits: Limits,
    ) -> Result<Runner<'static>, ScoreError> {
        Script::read(name, source, limits).map(Runner::new)
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
    ) -> Result<Runner<'static>, ScoreError> {
        Script::read_with(name, source, limits, words).map(Runner::new)
    }

    /// Runs the score.
    #[must_use]
    pub fn run(&self, settings: &Settings) -> Run {
        let mut stage = Stage::new(settings.clone());
        let made = self.score.perform(&mut stage);
        Run { made, stage }
    }

    /// Runs the score, and gives what its words of motion gave too.
    pub(crate) fn traced(&self, settings: &Settings) -> (Result<Sheet, ScoreError>, Vec<Traced>) {
        let mut stage = Stage::new(settings.clone());
        stage.trace();
        let made = self.score.perform(&mut stage);
        (made, stage.into_trace())
    }

    /// Findings on the knobs of a run: those that change nothing of its drawing, whatever else they are set to. A knob costs one
    /// more run, and one that changes nothing a few (six times as many where the score moves); one that only matters together with others may be among them. They belong
    /// to no path, and their place is the sheet's middle.
    #[must_use]
    pub fn knob_findings(&self, run: &Run) -> Vec<Finding> {
        self.knob_findings_within(run, Duration::MAX).0
    }

    /// As [`Runner::knob_findings`], within a time; and the names of those knobs that there was no time for.
    #[must_use]
    pub fn knob_findings_within(&self, run: &Run, within: Duration) -> (Vec<Finding>, Vec<String>) {
        let Ok(sheet) = &run.made else { return Default::default() };
        let begin = Instant::now();
        // What moves is compared at several moments: at one alone a knob may well change nothing.
        let at = |phase: &f64| {
            let own = run.settings().clone().phase(*phase);
            self.run(&own).made.ok().map(|sheet| (own, sheet))
        };
        let still = || vec![(run.settings().clone(), sheet.clone())];
        let moments: Vec<(Settings, Sheet)> =
            if run.moves() { KNOB_PHASES.iter().filter_map(at).collect() } else { still() };
        let idle = |knob: &Knob| {
            let value = knob.set.clone().unwrap_or_else(|| knob.kind.start());
            let others = knob.kind.others(&value);
            for other in &others {
                if begin.elapsed() > within {
                    return None;
                }
                let same = |(own, sheet): &(Settings, Sheet)| {
                    let other = self.run(&own.clone().set(&knob.name, other)).made;
                    other.is_ok_and(|other| other == *sheet)
                };
                if !moments.iter().all(same) {
                    return Some(false);
                }
            }
            Some(!others.is_empty())
        };
        let finding = |knob: &Knob| Finding {
            code: UNUSED_KNOB,
            level: Level::Hint,
            path: None,
            contour: None,
            at: sheet.cell().centre(),
            line: None,
            message: format!("the knob \"{}\" changes nothing of the drawing", visible(&knob.name)),
            mend: "use its value somewhere, or take the knob out".to_owned(),
        };
        let (mut findings, mut untried) = (Vec::new(), Vec::new());
        for knob in run.knobs() {
            match idle(knob) {
                Some(true) => findings.push(finding(knob)),
                Some(false) => {}
                None => untried.push(knob.name.clone()),
            }
        }
        (findings, untried)
    }
}

impl Run {
    /// Returns the sheet.
    ///
    /// # Errors
    ///
    /// The error that ended the run, or the first [problem](Run::problem) with the settings: a name that the score does not know, or
    /// a value that is out of range or of the wrong kind.
    ///
    /// ```
    /// use chordane_score::{Limits, Runner, Settings};
    /// let text = r#"sheet(90, 60).add(circle([45, 30], knob("radius", 20, 1, 30)).fill("teal"))"#;
    /// let runner = Runner::read("tail.chord", text, Limits::default())?;
    /// let error = runner.run(&Settings::new().set("radius", 45)).into_sheet().unwrap_err();
    /// assert_eq!(error.to_string(), "the knob \"radius\" cannot be set to 45");
    /// assert_eq!(error.advice(), Some("give 1 to 30"));
    /// # Ok::<(), chordane_score::ScoreError>(())
    /// ```
    pub fn sheet(&self) -> Result<&Sheet, ScoreError> {
        match self.problem() {
            Some(problem) => Err(problem.into()),
            None => self.lenient_sheet(),
        }
    }

    /// Returns the sheet and drops the rest.
    ///
    /// # Errors
    ///
    /// As [`Run::sheet`].
    pub fn into_sheet(self) -> Result<Sheet, ScoreError> {
        match self.problem() {
            Some(problem) => Err(problem.into()),
            None => self.into_lenient_sheet(),
        }
    }

    /// Returns the sheet even if there is a [problem](Run::problem) with the settings. A knob that was set to an invalid value keeps
    /// its start value.
    ///
    /// # Errors
    ///
    /// The error that ended the run.
    pub fn lenient_sheet(&self) -> Result<&Sheet, ScoreError> {
        self.made.as_ref().map_err(Clone::clone)
    }

    /// As [`Run::lenient_sheet`], and drops the rest.
    ///
    /// # Errors
    ///
    /// The error that ended the run.
    pub fn into_lenient_sheet(self) -> Result<Sheet, ScoreError> {
        self.made
    }

    /// What the score was run with.
    #[must_use]
    pub fn settings(&self) -> &Settings {
        self.stage.settings()
    }

    /// The knobs that were declared, in that order.
    #[must_use]
    pub fn knobs(&self) -> &[Knob] {
        self.stage.knobs()
    }

    /// Returns the first problem with the settings; see [`Stage::problem`]. `None` after an error.
    #[must_use]
    pub fn problem(&self) -> Option<KnobProblem> {
        self.stage.problem().filter(|_| self.made.is_ok())
    }

    /// The seed that its dice came from; see [`Stage::seed`].
    #[must_use]
    pub fn seed(&self) -> u64 {
        self.stage.seed_in_use()
    }

    /// Whether the score asked where in its loop it is; see [`Stage::moves`].
    #[must_use]
    pub fn moves(&self) -> bool {
        self.stage.moves()
    }

    /// Whether the score asked for dice or set a seed; see [`Stage::rolls`].
    #[must_use]
    pub fn rolls(&self) -> bool {
        self.stage.rolls()
    }

    /// Whether the score asked where the pointer is; see [`Stage::pointer`].
    #[must_use]
    pub fn points(&self) -> bool {
        self.stage.points()
    }

    /// Remarks on what the score asked for; see [`Stage::remarks`].
    #[must_use]
    pub fn remarks(&self) -> &[String] {
        self.stage.remarks()
    }

    /// The names of the pictures that the score painted with.
    #[must_use]
    pub fn pictures(&self) -> &BTreeSet<String> {
        self.stage.pictures()
    }

    /// What the score printed; see [`Stage::printed`].
    #[must_use]
    pub fn printed(&self) -> &[String] {
        self.stage.printed()
    }
}
