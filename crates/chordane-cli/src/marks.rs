//! Marks as files.

use std::path::Path;

use chordane_score::{MarkFrame, Marks, ScoreError};

use crate::failure::Failure;
use crate::input::{STANDARD_INPUT, read_file, read_standard_input};
use crate::output::say;

/// So many lines that were skipped are told one by one.
const MAX_LISTED_LINES: usize = 3;

/// The marks in a file, JSON Lines but for the ending .csv; what is no frame is skipped and told.
pub(crate) fn read(file: &Path, held: bool, smoothed: Option<f64>) -> Result<Marks, Failure> {
    let is_input = file == Path::new("-");
    let name = if is_input { STANDARD_INPUT.to_owned() } else { file.display().to_string() };
    let mend = "give marks as JSON Lines, a frame a line: [[0, 0], [30, 0], null], or as CSV with the columns frame, mark, x, y";
    let bytes = if is_input { read_standard_input()? } else { read_file(file)? };
    let text =
        std::str::from_utf8(&bytes).map_err(|_| Failure::input(format!("{name} is not text"), mend))?;
    let is_csv = file.extension().is_some_and(|ending| ending.eq_ignore_ascii_case("csv"));
    let failed = |mistake: ScoreError| Failure::in_file(&name, &mistake);
    let reading = if is_csv { Marks::read_csv(text) } else { Marks::read_json_lines(text) };
    let reading = reading.map_err(failed)?;
    if reading.skipped > 0 {
        let told: Vec<String> =
            reading.told.iter().take(MAX_LISTED_LINES).map(|one| format!("\n  {one}")).collect();
        let lines = if reading.skipped == 1 {
            "1 line was".to_owned()
        } else {
            format!("{} lines were", reading.skipped)
        };
        say(&format!("note: {name}: {lines} skipped{}", told.concat()));
    }
    if reading.marks.frames().is_empty() {
        return Err(Failure::input(format!("{name} holds no frames of marks"), mend));
    }
    let marks = if held { reading.marks.held().map_err(failed)? } else { reading.marks };
    Ok(match smoothed {
        Some(frames) => marks.smoothed(frames),
        None => marks,
    })
}

/// How long marks with times go on: to the end of the last frame. `None` of those without.
pub(crate) fn seconds(marks: &Marks) -> Option<f64> {
    let (first, last) = (marks.frames().first()?, marks.frames().last()?);
    let (begin, end) = (MarkFrame::seconds(first)?, MarkFrame::seconds(last)?);
    let steps = marks.frames().len() as f64 - 1.0;
    let long = (end - begin) * (steps + 1.0) / steps;
    (long.is_finite() && long > 0.0).then_some(begin + long)
}
