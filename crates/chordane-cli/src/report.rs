//! What `chordane check` says to people: first what looks wrong, then the figures, as many as a screen holds.

use std::fmt::Write;

use chordane::check::{Finding, Level, PathFigures, Report};
use chordane::ground::trimmed;
use chordane::measure::Direction;
use chordane::number::{Angle, Point};
use chordane::path::FillRule;

use crate::output::terminal_width;

/// So few paths are shown with all their figures, more in a table.
const MAX_DETAILED_PATHS: usize = 3;

/// More paths or contours than these are only counted; `--json` has all.
const MAX_ROWS: usize = 20;

/// After so many groups of findings the rest is only counted.
const MAX_FINDING_GROUPS: usize = 60;

/// So many places of one kind of finding on one path are named.
const MAX_POSITIONS: usize = 8;

/// Shown as zero: what is left of rounding.
const ZERO_THRESHOLD: f64 = 1e-9;

/// A fill rule, for people and programs alike.
pub(crate) fn fill_rule(rule: FillRule) -> &'static str {
    match rule {
        FillRule::Nonzero => "nonzero",
        FillRule::EvenOdd => "evenodd",
    }
}

/// Which way round a contour runs, for people and programs alike.
pub(crate) fn direction(direction: Direction) -> &'static str {
    match direction {
        Direction::Clockwise => "clockwise",
        Direction::Anticlockwise => "anticlockwise",
        Direction::Flat => "flat",
    }
}

/// The report; `notes` is how many kinds of things of a document were not understood, `untried` how many knobs were not tried.
pub(crate) fn text(report: &Report, notes: usize, untried: usize, coloured: bool) -> String {
    let mut text = String::new();
    let paint = |code: &str, shown: &str| {
        if coloured { format!("\u{1b}[{code}m{shown}\u{1b}[0m") } else { shown.to_owned() }
    };
    let _ = writeln!(text, "{}\n", paint("1", &summary(report, notes, untried)));
    // Findings come in the order of the paths; those of one kind on one path stand together.
    let one_kind = |a: &Finding, b: &Finding| (a.path, a.code, &a.mend) == (b.path, b.code, &b.mend);
    let groups: Vec<&[Finding]> = report.findings.chunk_by(one_kind).collect();
    for group in groups.iter().take(MAX_FINDING_GROUPS) {
        let Some(first) = group.first() else { continue };
        let colour = if first.level == Level::Warning { "1;35" } else { "36" };
        let level = paint(colour, first.level.name());
        let place = match (first.path, first.contour) {
            (Some(path), Some(contour)) => {
                format!("  path {path}, contour {contour}, at {}", point(first.at))
            }
            (Some(path), None) => format!("  path {path}, at {}", point(first.at)),
            (None, _) => String::new(),
        };
        let _ = writeln!(text, "{level} {}{place}", paint("1", first.code.name()));
        told(&mut text, &first.message);
        told(&mut text, &also(group));
        told(&mut text, &format!("mend: {}", first.mend));
        text.push('\n');
    }
    if groups.len() > MAX_FINDING_GROUPS {
        let _ = writeln!(text, "and {} more; --json has them all\n", groups.len() - MAX_FINDING_GROUPS);
    }
    if report.paths.len() <= MAX_DETAILED_PATHS {
        for (number, figures) in report.paths.iter().enumerate() {
            let _ = writeln!(text, "{}", paint("1", &heading(number, figures)));
            details(&mut text, figures);
        }
    } else {
        table(&mut text, &report.paths);
    }
    text
}

fn count(n: usize, what: &str) -> String {
    if n == 1 { format!("1 {what}") } else { format!("{n} {what}s") }
}

/// What was found in one line.
fn summary(report: &Report, notes: usize, untried: usize) -> String {
    let paths = count(report.paths.len(), "path");
    let mut left_out = String::new();
    for (number, what, how) in [
        (notes, "kind of thing", "of the document not understood"),
        (report.left_out.len(), "path", "checked only in part"),
        (untried, "knob", "not tried"),
    ] {
        if number > 0 {
            let _ = write!(left_out, "; {} {how}", count(number, what));
        }
    }
    let hints = report.findings.iter().filter(|finding| finding.level == Level::Hint).count();
    let warnings = report.findings.len() - hints;
    let found = match (report.paths.len(), warnings, hints) {
        (0, 0, 0) => return format!("no paths, so there is nothing to check{left_out}"),
        (_, 0, 0) if report.left_out.is_empty() => "nothing looks wrong".to_owned(),
        (_, 0, 0) => "nothing looks wrong in what was checked".to_owned(),
        (_, warnings, 0) => count(warnings, "warning"),
        (_, 0, hints) => count(hints, "hint"),
        (_, warnings, hints) => format!("{}, {}", count(warnings, "warning"), count(hints, "hint")),
    };
    format!("{found}: {paths}{left_out}")
}

/// The further places of one kind of finding on one path.
fn also(group: &[Finding]) -> String {
    let rest = group.get(1..).unwrap_or_default();
    let places: Vec<String> = rest.iter().take(MAX_POSITIONS).map(|finding| point(finding.at)).collect();
    match rest.len() {
        0 => String::new(),
        n if n > MAX_POSITIONS => {
            format!("also at {} and at {} more places", places.join(", "), n - MAX_POSITIONS)
        }
        _ => format!("also at {}", places.join(", ")),
    }
}

/// A sentence on as many lines as the terminal needs, set in.
fn told(text: &mut String, sentence: &str) {
    if sentence.is_empty() {
        return;
    }
    let width = terminal_width().map_or(usize::MAX, |width| width.saturating_sub(3).max(30));
    for line in textwrap::wrap(sentence, width) {
        let _ = writeln!(text, "  {line}");
    }
}

/// One row a path, each column as wide as what stands in it.
fn table(text: &mut String, paths: &[PathFigures]) {
    let titles =
        ["path", "line", "name", "length", "area", "from", "wide", "high", "contours"].map(str::to_owned);
    let mut rows = vec![titles];
    rows.extend(paths.iter().enumerate().take(MAX_ROWS).map(|(i, figures)| row(i, figures)));
    // A column of nothing but its title tells nothing.
    let shown =
        |column: usize| rows.iter().skip(1).any(|row| row.get(column).is_some_and(|cell| !cell.is_empty()));
    let columns: Vec<usize> = (0..9).filter(|column| shown(*column)).collect();
    let cell = |row: &[String; 9], column: usize| row.get(column).cloned().unwrap_or_default();
    let width = |column: usize| rows.iter().map(|row| cell(row, column).chars().count()).max().unwrap_or(0);
    for row in &rows {
        let mut line = String::new();
        for column in &columns {
            let (cell, width) = (cell(row, *column), width(*column));
            // Words stand to the left, numbers to the right.
            let _ = match column {
                2 | 8 => write!(line, "{cell:<width$}  "),
                _ => write!(line, "{cell:>width$}  "),
            };
        }
        let _ = writeln!(text, "{}", line.trim_end());
    }
    if paths.len() > MAX_ROWS {
        let _ = writeln!(text, "and {} more paths; --json has them all", paths.len() - MAX_ROWS);
    }
}

fn row(i: usize, figures: &PathFigures) -> [String; 9] {
    let size = figures.bounds.map(|bounds| bounds.size());
    let side = |side: Option<f64>| side.map_or(String::new(), number);
    let closed = figures.contours.iter().filter(|contour| contour.closed).count();
    let open = figures.contours.len() - closed;
    let ends = match (closed, open) {
        (0, 0) => "none".to_owned(),
        (closed, 0) => format!("{closed} closed"),
        (0, open) => format!("{open} open"),
        (closed, open) => format!("{closed} closed, {open} open"),
    };
    [
        i.to_string(),
        figures.line.map_or(String::new(), |line| line.to_string()),
        figures.name.clone().unwrap_or_default(),
        number(figures.length),
        number(figures.area),
        figures.bounds.map_or(String::new(), |bounds| point(bounds.min)),
        side(size.map(|size| size.x)),
        side(size.map(|size| size.y)),
        ends,
    ]
}

fn heading(number: usize, figures: &PathFigures) -> String {
    let name = figures.name.as_ref().map_or(String::new(), |name| format!(" \"{name}\""));
    let line = figures.line.map_or(String::new(), |line| format!(", line {line}"));
    format!("path {number}{name}{line}")
}

fn details(text: &mut String, figures: &PathFigures) {
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
    for (i, contour) in figures.contours.iter().enumerate().take(MAX_ROWS) {
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
    if figures.contours.len() > MAX_ROWS {
        let _ = writeln!(text, "  and {} more contours", figures.contours.len() - MAX_ROWS);
    }
}

fn point(p: Point) -> String {
    format!("({}, {})", number(p.x), number(p.y))
}

/// A number for people: two decimals, more for small ones.
fn number(value: f64) -> String {
    let size = value.abs();
    // What is left of rounding is nothing.
    if size < ZERO_THRESHOLD {
        return "0".to_owned();
    }
    if !(1e-3..1e9).contains(&size) {
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
        let shown = [0.0, -0.0, 7.1e-15, -3e-12, 1.0, 12.345_6, 0.012_34, -5.0, 1e-5, 2.5e9].map(number);
        assert_eq!(shown, ["0", "0", "0", "0", "1", "12.35", "0.0123", "-5", "1.000e-5", "2.500e9"]);
    }
}
