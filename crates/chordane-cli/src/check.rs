//! `chordane check`: the figures of what is on a sheet, and what looks wrong.

use std::io::IsTerminal;
use std::time::Duration;

use chordane::check::{LeftOut, Level, PathFigures, Report};
use chordane::ground::{short, visible};
use chordane::number::{Cell, Point};
use chordane::read::SvgNote;
use chordane::sheet::{Colour, Paint, Sheet};
use chordane_score::{Limits, Run, Runner, Words};
use serde::Serialize;

use crate::drawing::within;
use crate::failure::Failure;
use crate::input::Input;
use crate::knobs;
use crate::options::{CheckFileOptions, CheckOptions};
use crate::output::{print, say};
use crate::report::{self, direction, fill_rule};

/// Whether anything was found that is hardly meant.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Outcome {
    Sound,
    Found,
}

/// Checks the score or document in a file.
pub(crate) fn file(options: &CheckFileOptions, words: &Words) -> Result<Outcome, Failure> {
    let opened = Input::read(&options.input, words)?.open(options.limits.limits())?;
    opened.say_notes();
    score(&options.check, &opened.runner, &opened.notes, Some(options.limits.limits()))
}

/// Checks what a score makes.
pub(crate) fn score(
    options: &CheckOptions,
    runner: &Runner<'_>,
    notes: &[SvgNote],
    limits: Option<Limits>,
) -> Result<Outcome, Failure> {
    let mut settings = options.knobs.settings()?;
    if let Some((width, height)) = options.size {
        settings = settings.size((f64::from(width), f64::from(height)));
    }
    let run = knobs::run(runner, &settings)?;
    let time = limits.unwrap_or_default().time;
    let (report, untried) = looked_over(runner, &run, options.knobs.phase.is_none(), limits, time)?;
    let mut notes: Vec<Note> =
        notes.iter().map(|note| Note { line: note.line, message: note.what.clone() }).collect();
    let told = notes.len();
    let of_path = |left: &LeftOut| Note {
        line: left.line.unwrap_or(1),
        message: format!("path {}: {}", left.path, left.message),
    };
    notes.extend(report.left_out.iter().map(of_path));
    if !untried.is_empty() {
        let message = format!(
            "there was not enough time to find out whether these knobs change anything: {}",
            untried.join(", ")
        );
        notes.push(Note { line: 1, message });
    }
    notes.iter().skip(told).for_each(|note| say(&format!("note: line {}: {}", note.line, note.message)));
    let text = if options.json {
        json(&report, &notes)?
    } else {
        report::text(&made_visible(report.clone()), told, untried.len(), coloured())
    };
    print(text.as_bytes())?;
    let warned = report.findings.iter().any(|finding| finding.level == Level::Warning);
    Ok(if warned { Outcome::Found } else { Outcome::Sound })
}

/// The report of a run, of one moment or over the whole loop of what moves, and the names of those knobs that there was no time for.
pub(crate) fn looked_over(
    runner: &Runner<'_>,
    run: &Run,
    whole_loop: bool,
    limits: Option<Limits>,
    for_knobs: Duration,
) -> Result<(Report, Vec<String>), Failure> {
    let sheet = run.sheet()?;
    let check = |sheet: &Sheet| within(limits, 0, || sheet.check());
    let mut report = if run.moves() && whole_loop {
        runner.over_loop(run.settings(), &check).map_err(|failed| {
            say(&format!("at phase {}:", short(failed.phase, 3)));
            Failure::from(failed.error)
        })?
    } else {
        check(sheet).map_err(|fault| Failure::of_fault(&fault, "mend it in the input"))?
    };
    let (findings, untried) = runner.knob_findings_within(run, for_knobs);
    report.findings.extend(findings);
    Ok((report, untried))
}

/// The report with names that do nothing to a terminal.
fn made_visible(mut report: Report) -> Report {
    for name in report.paths.iter_mut().filter_map(|path| path.name.as_mut()) {
        *name = visible(name).into_owned();
    }
    report
}

fn coloured() -> bool {
    std::io::stdout().is_terminal() && std::env::var_os("NO_COLOR").is_none_or(|value| value.is_empty())
}

#[derive(Serialize)]
struct JsonReport<'a> {
    paths: Vec<JsonPath<'a>>,
    findings: Vec<JsonFinding<'a>>,
    notes: &'a [Note],
}

/// What was not understood of a document, or not looked at.
#[derive(Serialize)]
struct Note {
    line: usize,
    message: String,
}

#[derive(Serialize)]
struct JsonPath<'a> {
    name: Option<&'a str>,
    line: Option<usize>,
    fill_rule: &'static str,
    fill: Option<String>,
    stroke: Option<String>,
    stroke_width: f64,
    length: f64,
    area: f64,
    bounds: [f64; 4],
    painted_bounds: [f64; 4],
    half_point: [f64; 2],
    half_tangent: [f64; 2],
    contours: Vec<JsonContour>,
}

#[derive(Serialize)]
struct JsonContour {
    closed: bool,
    segments: usize,
    length: f64,
    signed_area: f64,
    direction: &'static str,
}

#[derive(Serialize)]
struct JsonFinding<'a> {
    code: &'static str,
    level: &'static str,
    path: Option<usize>,
    contour: Option<usize>,
    line: Option<usize>,
    at: [f64; 2],
    message: &'a str,
    mend: &'a str,
}

/// Adding zero makes minus zero plain.
fn pair(p: Point) -> [f64; 2] {
    [p.x + 0.0, p.y + 0.0]
}

/// The report as one JSON object. A path without a contour has bounds of zeros.
fn json(report: &Report, notes: &[Note]) -> Result<String, Failure> {
    fn path(figures: &PathFigures) -> JsonPath<'_> {
        let sides = |bounds: Option<Cell>| {
            let bounds = bounds.map_or([Point::ZERO; 2], |bounds| [bounds.min, bounds.max]);
            let [[x0, y0], [x1, y1]] = bounds.map(pair);
            [x0, y0, x1, y1]
        };
        // What has more than one colour is named by what it is.
        let colour = |paint: &Option<Paint>| {
            paint.as_ref().map(|paint| paint.colour().map_or_else(|| paint.kind().to_owned(), Colour::hex))
        };
        JsonPath {
            name: figures.name.as_deref(),
            line: figures.line,
            fill_rule: fill_rule(figures.fill_rule),
            fill: colour(&figures.fill),
            stroke: colour(&figures.stroke),
            stroke_width: figures.stroke_width + 0.0,
            length: figures.length + 0.0,
            area: figures.area + 0.0,
            bounds: sides(figures.bounds),
            painted_bounds: sides(figures.painted_bounds),
            half_point: pair(figures.half_point),
            half_tangent: pair(figures.half_tangent),
            contours: figures
                .contours
                .iter()
                .map(|contour| JsonContour {
                    closed: contour.closed,
                    segments: contour.segments,
                    length: contour.length + 0.0,
                    signed_area: contour.signed_area + 0.0,
                    direction: direction(contour.direction),
                })
                .collect(),
        }
    }
    let findings = report
        .findings
        .iter()
        .map(|one| {
            let (code, level, at) = (one.code.name(), one.level.name(), pair(one.at));
            let (message, mend) = (one.message.as_str(), one.mend.as_str());
            JsonFinding {
                code,
                level,
                path: one.path,
                contour: one.contour,
                line: one.line,
                at,
                message,
                mend,
            }
        })
        .collect();
    let paths = report.paths.iter().map(path).collect();
    let mut text = serde_json::to_string(&JsonReport { paths, findings, notes })
        .map_err(|error| Failure::machine(format!("the report cannot be written: {error}"), "report this"))?;
    text.push('\n');
    Ok(text)
}
