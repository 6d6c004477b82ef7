//! `chordane check`: the figures of what is on a sheet, and what looks wrong.

use std::fmt::Write;
use std::io::IsTerminal;

use chordane::check::{Level, PathFigures, Report};
use chordane::ground::trimmed;
use chordane::measure::Direction;
use chordane::number::{Angle, Cell, Point};
use chordane::path::FillRule;
use chordane::read::SvgNote;
use chordane::sheet::{Colour, Paint};
use chordane_score::Runner;
use serde::Serialize;

use crate::failure::Failure;
use crate::input::Input;
use crate::knobs;
use crate::options::{CheckFileOptions, CheckOptions};
use crate::output::{print, terminal_width};

/// Whether anything was found.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Outcome {
    Sound,
    Found,
}

/// Checks the score or document in a file.
pub(crate) fn file(options: &CheckFileOptions) -> Result<Outcome, Failure> {
    let opened = Input::read(&options.input)?.open(options.limits.limits())?;
    opened.say_notes();
    score(&options.check, &opened.runner, &opened.notes)
}

/// Checks what a score makes.
pub(crate) fn score(
    options: &CheckOptions,
    runner: &Runner<'_>,
    notes: &[SvgNote],
) -> Result<Outcome, Failure> {
    let run = knobs::run(runner, &options.knobs.settings()?)?;
    let checked = run.sheet()?.check();
    let mut report = checked.map_err(|fault| Failure::input(fault.to_string(), "mend it in the input"))?;
    report.findings.extend(runner.knob_findings(&run));
    let text = if options.json { json(&report, notes)? } else { table(&report, coloured()) };
    print(text.as_bytes())?;
    Ok(if report.findings.is_empty() { Outcome::Sound } else { Outcome::Found })
}

fn coloured() -> bool {
    std::io::stdout().is_terminal() && std::env::var_os("NO_COLOR").is_none_or(|value| value.is_empty())
}

#[derive(Serialize)]
struct JsonReport<'a> {
    paths: Vec<JsonPath<'a>>,
    findings: Vec<JsonFinding<'a>>,
    notes: Vec<JsonNote<'a>>,
}

#[derive(Serialize)]
struct JsonNote<'a> {
    line: usize,
    message: &'a str,
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

fn fill_rule(rule: FillRule) -> &'static str {
    match rule {
        FillRule::Nonzero => "nonzero",
        FillRule::EvenOdd => "evenodd",
    }
}

fn direction(direction: Direction) -> &'static str {
    match direction {
        Direction::Clockwise => "clockwise",
        Direction::Anticlockwise => "anticlockwise",
        Direction::Flat => "flat",
    }
}

/// The report as one JSON object. A path without a contour has bounds of zeros.
fn json(report: &Report, notes: &[SvgNote]) -> Result<String, Failure> {
    fn path(figures: &PathFigures) -> JsonPath<'_> {
        let sides = |bounds: Option<Cell>| {
            let bounds = bounds.map_or([Point::ZERO; 2], |bounds| [bounds.min, bounds.max]);
            let [[x0, y0], [x1, y1]] = bounds.map(pair);
            [x0, y0, x1, y1]
        };
        let colour = |paint: &Option<Paint>| paint.as_ref().and_then(Paint::colour).map(Colour::hex);
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
    let notes = notes.iter().map(|note| JsonNote { line: note.line, message: &note.what }).collect();
    let mut text = serde_json::to_string(&JsonReport { paths, findings, notes })
        .map_err(|error| Failure::machine(format!("the report cannot be written: {error}"), "report this"))?;
    text.push('\n');
    Ok(text)
}

/// More paths or contours than these are only counted for people; `--json` has all.
const MOST_SHOWN: usize = 40;

/// After so many findings, those of further paths are only counted for people.
const MOST_TOLD: usize = 200;

/// The report for people.
fn table(report: &Report, coloured: bool) -> String {
    let mut text = String::new();
    let paint = |code: &str, shown: &str| {
        if coloured { format!("\u{1b}[{code}m{shown}\u{1b}[0m") } else { shown.to_owned() }
    };
    // Findings come in the order of the paths, and then those that belong to none.
    let of_paths = report.findings.iter().take_while(|finding| finding.path.is_some()).count();
    let mut findings = report.findings.get(..of_paths).unwrap_or_default();
    let told = |rest: &[_]| of_paths - rest.len();
    let (mut silent, mut untold) = (0, 0);
    for (number, figures) in report.paths.iter().enumerate() {
        let (found, rest) =
            findings.split_at(findings.partition_point(|finding| finding.path <= Some(number)));
        findings = rest;
        // Beyond the first few, only paths with findings are shown, and of those no more than anyone reads.
        if number >= MOST_SHOWN && (found.is_empty() || told(rest) > MOST_TOLD) {
            silent += 1;
            untold += found.len();
            continue;
        }
        let _ = writeln!(text, "{}", paint("1", &heading(number, figures)));
        path_rows(&mut text, figures);
        for finding in found {
            let level = match finding.level {
                Level::Warning => paint("1;35", "warning"),
                Level::Hint => paint("36", "hint"),
            };
            let contour = finding.contour.map_or(String::new(), |contour| format!(", contour {contour}"));
            let place = format!("at {}{contour}", point(finding.at));
            let _ = writeln!(text, "  {level} {}  {place}", paint("1", finding.code.name()));
            told_lines(&mut text, 4, &finding.message);
            told_lines(&mut text, 4, &format!("mend: {}", finding.mend));
        }
        text.push('\n');
    }
    for finding in report.findings.iter().filter(|finding| finding.path.is_none()) {
        let _ = writeln!(text, "{} {}", paint("36", "hint"), paint("1", finding.code.name()));
        told_lines(&mut text, 2, &finding.message);
        told_lines(&mut text, 2, &format!("mend: {}", finding.mend));
        text.push('\n');
    }
    if silent > 0 {
        let with = if untold > 0 { format!("with {untold} findings") } else { "without findings".to_owned() };
        let _ = writeln!(text, "{silent} more paths {with}; --json has them all\n");
    }
    let count = |n: usize, what: &str| if n == 1 { format!("1 {what}") } else { format!("{n} {what}s") };
    let found = match report.findings.len() {
        0 => "nothing looks wrong".to_owned(),
        n => count(n, "finding"),
    };
    let _ = writeln!(text, "{}, {found}", count(report.paths.len(), "path"));
    text
}

/// A sentence on as many lines as the terminal needs, each so far in.
fn told_lines(text: &mut String, indent: usize, sentence: &str) {
    let width = terminal_width().map_or(usize::MAX, |width| width.saturating_sub(indent + 1).max(30));
    for line in textwrap::wrap(sentence, width) {
        let _ = writeln!(text, "{:indent$}{line}", "");
    }
}

fn heading(number: usize, figures: &PathFigures) -> String {
    let name = figures.name.as_ref().map_or(String::new(), |name| format!(" \"{name}\""));
    let line = figures.line.map_or(String::new(), |line| format!(", line {line}"));
    format!("path {number}{name}{line}")
}

fn path_rows(text: &mut String, figures: &PathFigures) {
    let _ = writeln!(
        text,
        "  length {}   area {} ({})",
        number(figures.length),
        number(figures.area),
        fill_rule(figures.fill_rule)
    );
    if let Some(bounds) = figures.bounds {
        let size = bounds.size();
        let _ = writeln!(
            text,
            "  bounds {} to {}   {} wide, {} high",
            point(bounds.min),
            point(bounds.max),
            number(size.x),
            number(size.y)
        );
    }
    if figures.half_tangent != Point::ZERO {
        let heading = Angle::of(figures.half_tangent).degrees();
        let _ =
            writeln!(text, "  half way {} heading {} degrees", point(figures.half_point), number(heading));
    }
    if figures.contours.is_empty() {
        let _ = writeln!(text, "  no contour");
        return;
    }
    let _ = writeln!(text, "  contour  segments       length  signed area  direction");
    for (i, contour) in figures.contours.iter().enumerate().take(MOST_SHOWN) {
        let ends = if contour.closed { "closed" } else { "open" };
        let _ = writeln!(
            text,
            "  {i:>7}  {:>8}  {:>11}  {:>11}  {}, {ends}",
            contour.segments,
            number(contour.length),
            number(contour.signed_area),
            direction(contour.direction)
        );
    }
    if figures.contours.len() > MOST_SHOWN {
        let _ = writeln!(text, "  and {} more contours", figures.contours.len() - MOST_SHOWN);
    }
}

fn point(p: Point) -> String {
    format!("({}, {})", number(p.x), number(p.y))
}

/// A number for people: two decimals, more for small ones.
fn number(value: f64) -> String {
    let size = value.abs();
    if size != 0.0 && !(1e-3..1e9).contains(&size) {
        return format!("{value:.3e}");
    }
    let decimals = if size < 1.0 { 4 } else { 2 };
    trimmed(value, decimals)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn numbers_for_people() {
        let shown = [0.0, -0.0, 1.0, 12.345_6, 0.012_34, -5.0, 1e-5, 2.5e9].map(number);
        assert_eq!(shown, ["0", "0", "1", "12.35", "0.0123", "-5", "1.000e-5", "2.500e9"]);
    }
}
