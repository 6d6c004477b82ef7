//! Marks from JSON Lines and CSV.

use std::collections::BTreeMap;
use std::fmt;

use chordane::ground::shortened;
use chordane::number::Point;
use serde_json::Value;

use super::{MarkFrame, Marks, within_limits};
use crate::ScoreError;

/// The number of skipped lines that are reported one by one; the rest are only counted.
const MAX_REPORTED: usize = 100;

/// What came of reading marks.
#[derive(Clone, Debug, Default, PartialEq)]
#[non_exhaustive]
pub struct MarksReading {
    /// The frames that could be read.
    pub marks: Marks,
    /// How many lines could not.
    pub skipped: usize,
    /// Why; of the first hundred.
    pub told: Vec<Skipped>,
}

/// A line that was skipped.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Skipped {
    /// The line, counted from 1.
    pub line: usize,
    /// What is wrong with it.
    pub why: String,
}

impl fmt::Display for Skipped {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(out, "line {}: {}", self.line, self.why)
    }
}

impl MarksReading {
    fn skip(&mut self, line: usize, why: String) {
        self.skipped += 1;
        if self.told.len() < MAX_REPORTED {
            self.told.push(Skipped { line, why });
        }
    }
}

impl Marks {
    /// Reads JSON Lines. Empty lines are no frames; lines that are none otherwise are skipped and told.
    ///
    /// # Errors
    ///
    /// More than a million frames, or ten million points in all frames together.
    pub fn read_json_lines(text: &str) -> Result<MarksReading, ScoreError> {
        let (mut reader, mut marks, mut points) = (MarksReader::default(), Self::default(), 0);
        for line in text.lines() {
            let Some(frame) = reader.read(line) else { continue };
            points += frame.points.len();
            within_limits(marks.frames.len() + 1, points)?;
            marks.frames.push(frame);
        }
        Ok(MarksReading { marks, ..reader.reading })
    }

    /// Reads CSV. Rows that are no marks are skipped and told. Frames stand in the order of their numbers, which need not follow one another.
    ///
    /// # Errors
    ///
    /// As [`Marks::read_json_lines`].
    pub fn read_csv(text: &str) -> Result<MarksReading, ScoreError> {
        let mut reading = MarksReading::default();
        let mut rows =
            csv::ReaderBuilder::new().trim(csv::Trim::All).flexible(true).from_reader(text.as_bytes());
        let names = match rows.headers() {
            Ok(names) => names.clone(),
            Err(error) => {
                reading.skip(1, error.to_string());
                return Ok(reading);
            }
        };
        let place = |name: &str| names.iter().position(|own| own.eq_ignore_ascii_case(name));
        let (Some(frame), Some(mark), Some(x), Some(y)) =
            (place("frame"), place("mark"), place("x"), place("y"))
        else {
            reading.skip(1, "the first row must name the columns frame, mark, x and y".to_owned());
            return Ok(reading);
        };
        let seconds = place("seconds");
        let (mut frames, mut points): (BTreeMap<usize, MarkFrame>, usize) = (BTreeMap::new(), 0);
        for row in rows.records() {
            let row = match row {
                Ok(row) => row,
                Err(error) => {
                    let line = error.position().map_or(0, |place| place.line() as usize);
                    reading.skip(line, error.to_string());
                    continue;
                }
            };
            let line = row.position().map_or(0, |place| place.line() as usize);
            let number =
                |at: usize| row.get(at).and_then(|text| text.parse::<f64>().ok()).filter(|n| n.is_finite());
            let whole = |at: usize| row.get(at).and_then(|text| text.parse::<usize>().ok());
            let (Some(frame), Some(mark), Some(x), Some(y)) =
                (whole(frame), whole(mark), number(x), number(y))
            else {
                reading.skip(
                    line,
                    "not a mark: frame and mark must be whole numbers, x and y numbers".to_owned(),
                );
                continue;
            };
            let own = frames.entry(frame).or_default();
            own.points.push((mark, Point::new(x, y)));
            own.seconds = own.seconds.or(seconds.and_then(number));
            points += 1;
            within_limits(frames.len(), points)?;
        }
        let sorted = |MarkFrame { points, seconds }| MarkFrame { seconds, ..MarkFrame::new(points) };
        reading.marks.frames = frames.into_values().map(sorted).collect();
        Ok(reading)
    }
}

/// Reads frames line by line as they come; see [`Marks`].
///
/// ```
/// use chordane_score::MarksReader;
/// let mut reader = MarksReader::default();
/// let seen = ["[[0,0]]", "[[0,", "", "[[5,0]]"].map(|line| reader.read(line).is_some());
/// assert_eq!((seen, reader.skipped()), ([true, false, false, true], 1));
/// ```
#[derive(Clone, Debug, Default)]
pub struct MarksReader {
    line: usize,
    reading: MarksReading,
}

impl MarksReader {
    /// The longest line that is read, in bytes.
    pub const MAX_LINE: usize = 1 << 20;

    /// The frame of the next line; `None` where the line is empty or is no frame, which is then counted.
    pub fn read(&mut self, line: &str) -> Option<MarkFrame> {
        self.line += 1;
        if line.trim().is_empty() {
            return None;
        }
        let read = if line.len() > Self::MAX_LINE {
            Err("not a frame: it is longer than 1 MB".to_owned())
        } else {
            frame(line)
        };
        match read {
            Ok(frame) => Some(frame),
            Err(why) => {
                self.reading.skip(self.line, why);
                None
            }
        }
    }

    /// How many lines were no frames.
    #[must_use]
    pub fn skipped(&self) -> usize {
        self.reading.skipped
    }

    /// Why; of the first hundred.
    #[must_use]
    pub fn told(&self) -> &[Skipped] {
        &self.reading.told
    }
}

/// The frame of a line of JSON.
fn frame(line: &str) -> Result<MarkFrame, String> {
    let value: Value = serde_json::from_str(line).map_err(|error| format!("not a frame: {error}"))?;
    let (marks, seconds) = match &value {
        Value::Object(object) => {
            let marks = object.get("marks").ok_or("not a frame: it has no \"marks\"")?;
            (marks, object.get("seconds").and_then(Value::as_f64))
        }
        other => (other, None),
    };
    let mut points = Vec::new();
    match marks {
        Value::Array(list) => {
            for (number, value) in list.iter().enumerate().filter(|(_, value)| !value.is_null()) {
                points.push((number, point(value).ok_or_else(|| wrong(&number.to_string()))?));
            }
        }
        Value::Object(object) => {
            for (name, value) in object.iter().filter(|(_, value)| !value.is_null()) {
                let number = name.parse().map_err(|_| wrong(name))?;
                points.push((number, point(value).ok_or_else(|| wrong(name))?));
            }
        }
        _ => return Err("not a frame: give a list of points, as in [[0, 0], [30, 0]]".to_owned()),
    }
    Ok(MarkFrame { seconds, ..MarkFrame::new(points) })
}

fn wrong(mark: &str) -> String {
    let mark = shortened(mark, 32);
    format!("mark {mark} is not a point: write two numbers, as in {{\"3\": [12.5, 40]}}")
}

fn point(value: &Value) -> Option<Point> {
    match value.as_array()?.as_slice() {
        [x, y] => Some(Point::new(x.as_f64()?, y.as_f64()?)).filter(|point| point.is_finite()),
        _ => None,
    }
}
