//! What looks wrong over the whole loop of a score that moves.

use std::collections::BTreeMap;

use chordane::check::{Code, Finding, LoopMoments, Report};
use chordane::ground::{Fault, short};
use chordane::sheet::Sheet;

use crate::stage::Traced;
use crate::{Runner, ScoreError, Settings};

/// So many moments are looked at, and every other one of them is checked.
const LOOP_SAMPLES: usize = 24;

/// So near to its end a loop is looked at, to compare that with its beginning.
const SEAM_EPSILON: f64 = 1e-4;

/// Codes that only count where they hold at every moment: what moves may well be off the sheet for a while.
const WHOLE_LOOP_CODES: &[Code] =
    &[Code::OffSheet, Code::Unpainted, Code::Speck, Code::Covered, Code::CutStroke];

/// What a finding is about: findings of several moments are the same where this is.
type Key = (Code, Option<usize>, Option<usize>);

/// Why the loop of a score could not be looked over: what went wrong, and at which phase.
///
/// ```
/// use chordane_score::{Limits, Runner, Settings};
/// let source = "let t = phase();\nsheet(90, 60).add(circle(pt(40, 30), if t > 0.5 { -1 } else { 9 }))";
/// let runner = Runner::read("kite.chord", source, Limits::default())?;
/// let failed = runner.over_loop(&Settings::new(), &|sheet| sheet.check()).unwrap_err();
/// assert!(failed.phase > 0.5 && failed.error.to_string().contains("the radius -1 is negative"));
/// # Ok::<(), chordane_score::ScoreError>(())
/// ```
#[derive(Clone, Debug)]
pub struct LoopError {
    /// The phase, from 0 to 1.
    pub phase: f64,
    /// What went wrong.
    pub error: ScoreError,
}

impl Runner<'_> {
    /// The report of a score that moves, over its whole loop: the figures are those of its beginning, and the findings those that hold for half of it
    /// at least (for all of it where something cannot be seen), with those of [`LoopMoments`]. Where something jumps at the seam, the words of the
    /// score are told that do. `check` is what each moment is checked by. Cost: 26 runs and 12 checks.
    ///
    /// # Errors
    ///
    /// The first error or fault, and the phase at which it comes.
    pub fn over_loop(
        &self,
        settings: &Settings,
        check: &dyn Fn(&Sheet) -> Result<Report, Fault>,
    ) -> Result<Report, LoopError> {
        let at = |phase: f64| move |error: ScoreError| LoopError { phase, error };
        let of_fault =
            |phase: f64| move |fault: Fault| LoopError { phase, error: ScoreError::new(fault.to_string()) };
        let mut moments = Vec::with_capacity(LOOP_SAMPLES);
        for moment in 0..LOOP_SAMPLES {
            let own = settings.clone().frame(moment, LOOP_SAMPLES);
            moments.push(self.run(&own).into_lenient_sheet().map_err(at(own.moment.phase))?);
        }
        let end = 1.0 - SEAM_EPSILON;
        let (first, last) =
            (self.traced(&settings.clone().phase(0.0)), self.traced(&settings.clone().phase(end)));
        let last_sheet = last.0.map_err(at(end))?;
        let mut whole: Option<Report> = None;
        let mut counts: BTreeMap<Key, (usize, Finding)> = BTreeMap::new();
        let mut checked = 0;
        for (moment, sheet) in moments.iter().enumerate().step_by(2) {
            let phase = moment as f64 / LOOP_SAMPLES as f64;
            let report = check(sheet).map_err(of_fault(phase))?;
            checked += 1;
            let mut seen = Vec::new();
            for finding in &report.findings {
                let key = (finding.code, finding.path, finding.contour);
                if seen.contains(&key) {
                    continue;
                }
                seen.push(key);
                let told = if moment == 0 { finding.clone() } else { finding.clone().at_phase(phase) };
                counts.entry(key).or_insert((0, told)).0 += 1;
            }
            whole.get_or_insert(report);
        }
        let holds = |code: Code, path: Option<usize>, contour: Option<usize>| {
            let count = counts.get(&(code, path, contour)).map_or(0, |(count, _)| *count);
            if WHOLE_LOOP_CODES.contains(&code) { count == checked } else { 2 * count >= checked }
        };
        let Some(mut report) = whole else { unreachable!("the first moment was checked") };
        report.findings.retain(|finding| holds(finding.code, finding.path, finding.contour));
        let later: Vec<Finding> = counts
            .iter()
            .filter(|((code, path, contour), _)| {
                let there = |finding: &Finding| {
                    (finding.code, finding.path, finding.contour) == (*code, *path, *contour)
                };
                holds(*code, *path, *contour) && !report.findings.iter().any(there)
            })
            .map(|(_, (_, finding))| finding.clone())
            .collect();
        report.findings.extend(later);
        let round = LoopMoments { moments: &moments, last: &last_sheet }.findings().map_err(of_fault(0.0))?;
        let jumping = jumping(&first.1, &last.1);
        let lines: Vec<usize> = report.paths.iter().filter_map(|path| path.line).collect();
        report.findings.extend(round.into_iter().map(|mut finding| {
            if finding.code == Code::LoopSeam {
                finding.message += &culprits(&jumping, finding.line, &lines);
            }
            finding
        }));
        Ok(report)
    }
}

/// A word whose value jumps from the end of the loop to its beginning, and what it gives there.
type Jumping<'t> = (&'t Traced, &'t Traced);

fn jumping<'t>(first: &'t [Traced], last: &'t [Traced]) -> Vec<Jumping<'t>> {
    let same = |(end, begin): (&Traced, &Traced)| (end.word, end.line) == (begin.word, begin.line);
    if first.len() != last.len() || !last.iter().zip(first).all(same) {
        return Vec::new();
    }
    let jumps = |(end, begin): &Jumping<'_>| {
        let far = |(a, b): (&f64, &f64)| (a - b).abs() > 0.02 * a.abs().max(b.abs()).max(1e-6);
        end.values.iter().zip(&begin.values).any(far)
    };
    last.iter().zip(first).filter(jumps).collect()
}

/// Which of these words a path hangs on that jumps: those of its own line, else those that stand in no line of a path. The phase itself is only
/// told where nothing else is.
fn culprits(jumping: &[Jumping<'_>], line: Option<usize>, lines: &[usize]) -> String {
    let own: Vec<_> = jumping.iter().filter(|(end, _)| line.is_some() && end.line == line).collect();
    let apart =
        || jumping.iter().filter(|(end, _)| end.line.is_none_or(|line| !lines.contains(&line))).collect();
    let near: Vec<_> = if own.is_empty() { apart() } else { own };
    let others: Vec<_> = near.iter().filter(|(end, _)| end.word != "phase").copied().collect();
    let mut texts: Vec<String> = Vec::new();
    for (end, begin) in if others.is_empty() { near } else { others } {
        let line = end.line.map_or(String::new(), |line| format!(" in line {line}"));
        let values =
            |one: &Traced| one.values.iter().map(|value| short(*value, 3)).collect::<Vec<_>>().join(", ");
        // One word of one line may be called very often.
        let word = format!("`{}`{line} ", end.word);
        if texts.len() < 3 && !texts.iter().any(|other| other.starts_with(&word)) {
            texts.push(format!("{word}goes from {} to {}", values(end), values(begin)));
        }
    }
    if texts.is_empty() { String::new() } else { format!("; there {}", texts.join(", and ")) }
}
