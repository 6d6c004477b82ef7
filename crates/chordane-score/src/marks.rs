//! Marks: numbered points that move from frame to frame, as something that is tracked gives them; shapes are made by listing their numbers.

use std::collections::BTreeMap;
use std::fmt;

use serde_json::Value;

use chordane::number::Point;
use chordane::path::Path;

/// So many frames that were skipped are told one by one; the others are counted.
const MOST_TOLD: usize = 100;

/// Frames farther off than so many times the width of a smoothing add nothing that can be seen.
const FAR: f64 = 3.5;

/// The marks of one frame: points by their numbers. Numbers that are missing were not seen in it.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct MarkFrame {
    points: BTreeMap<usize, Point>,
    seconds: Option<f64>,
}

impl MarkFrame {
    /// A frame of numbered points.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// use chordane_score::MarkFrame;
    /// let frame = MarkFrame::new([(0, pt(0.0, 0.0)), (1, pt(30.0, 0.0)), (3, pt(0.0, 40.0))]);
    /// // Mark 2 was not seen, and is left out.
    /// assert_eq!(frame.closed(&[0, 1, 2, 3]).area()?, 600.0);
    /// # Ok::<(), Fault>(())
    /// ```
    #[must_use]
    pub fn new(points: impl IntoIterator<Item = (usize, Point)>) -> Self {
        Self { points: points.into_iter().collect(), seconds: None }
    }

    /// Where a mark is; `None` where it was not seen.
    #[must_use]
    pub fn at(&self, number: usize) -> Option<Point> {
        self.points.get(&number).copied()
    }

    /// The marks in the order of their numbers.
    pub fn points(&self) -> impl ExactSizeIterator<Item = (usize, Point)> + '_ {
        self.points.iter().map(|(number, point)| (*number, *point))
    }

    /// When the frame was taken, in seconds from a beginning, where that is known.
    #[must_use]
    pub fn seconds(&self) -> Option<f64> {
        self.seconds
    }

    /// The closed path through some marks, in the order in which they are listed. Those that were not seen are left out; without any the path is
    /// empty.
    #[must_use]
    pub fn closed(&self, numbers: &[usize]) -> Path {
        Path::closed(self.listed(numbers))
    }

    /// The open path through some marks; see [`MarkFrame::closed`].
    #[must_use]
    pub fn open(&self, numbers: &[usize]) -> Path {
        Path::open(self.listed(numbers))
    }

    fn listed(&self, numbers: &[usize]) -> Vec<Point> {
        numbers.iter().filter_map(|number| self.at(*number)).collect()
    }

    /// The same with marks that were not seen where they were in another frame.
    fn or_as_in(mut self, before: &Self) -> Self {
        for (number, point) in &before.points {
            self.points.entry(*number).or_insert(*point);
        }
        self
    }
}

/// Numbered points over many frames.
///
/// As JSON Lines each line is a frame: a list of points, `null` for those that were not seen, or an object with such a list, or with points by their
/// numbers, as `marks`, and the time as `seconds` where it is known. As CSV each row is one mark, under a first row with the names `frame`,
/// `mark`, `x`, `y` and, where it is known, `seconds`. Positions are taken as they are. With the feature `marks`.
///
/// ```
/// use chordane::prelude::*;
/// use chordane_score::Marks;
/// let text = "[[0,0],[30,0],null]\n{\"marks\":{\"0\":[1,0],\"2\":[0,40]},\"seconds\":0.04}\nwhat was that?\n";
/// let reading = Marks::read_json_lines(text);
/// assert_eq!((reading.marks.frames().len(), reading.skipped), (2, 1));
/// assert_eq!(reading.told[0].to_string(), "line 3: not a frame: expected value at line 1 column 1");
/// // Held, mark 1 stays where it was seen last.
/// assert_eq!(reading.marks.held().frames()[1].at(1), Some(pt(30.0, 0.0)));
/// ```
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Marks {
    frames: Vec<MarkFrame>,
}

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
        if self.told.len() < MOST_TOLD {
            self.told.push(Skipped { line, why });
        }
    }
}

impl From<Vec<MarkFrame>> for Marks {
    fn from(frames: Vec<MarkFrame>) -> Self {
        Self { frames }
    }
}

impl Marks {
    /// Reads JSON Lines. Empty lines are no frames; lines that are none otherwise are skipped and told.
    #[must_use]
    pub fn read_json_lines(text: &str) -> MarksReading {
        let mut reader = MarksReader::default();
        let frames = text.lines().filter_map(|line| reader.read(line)).collect();
        MarksReading { marks: Self { frames }, ..reader.reading }
    }

    /// Reads CSV. Rows that are no marks are skipped and told. Frames stand in the order of their numbers, which need not follow one another.
    #[must_use]
    pub fn read_csv(text: &str) -> MarksReading {
        let mut reading = MarksReading::default();
        let mut rows =
            csv::ReaderBuilder::new().trim(csv::Trim::All).flexible(true).from_reader(text.as_bytes());
        let names = match rows.headers() {
            Ok(names) => names.clone(),
            Err(error) => {
                reading.skip(1, error.to_string());
                return reading;
            }
        };
        let place = |name: &str| names.iter().position(|own| own.eq_ignore_ascii_case(name));
        let (Some(frame), Some(mark), Some(x), Some(y)) =
            (place("frame"), place("mark"), place("x"), place("y"))
        else {
            reading.skip(1, "the first row must name the columns frame, mark, x and y".to_owned());
            return reading;
        };
        let seconds = place("seconds");
        let mut frames: BTreeMap<usize, MarkFrame> = BTreeMap::new();
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
            own.points.insert(mark, Point::new(x, y));
            own.seconds = own.seconds.or(seconds.and_then(number));
        }
        reading.marks.frames = frames.into_values().collect();
        reading
    }

    /// The frames in order.
    #[must_use]
    pub fn frames(&self) -> &[MarkFrame] {
        &self.frames
    }

    /// The frame at a time: the last one that was taken by then, where all have their times; else `None`.
    #[must_use]
    pub fn at_seconds(&self, seconds: f64) -> Option<&MarkFrame> {
        if self.frames.iter().any(|frame| frame.seconds.is_none()) {
            return None;
        }
        let is_past = |frame: &&MarkFrame| frame.seconds.is_some_and(|own| own <= seconds);
        self.frames.iter().rev().find(is_past).or(self.frames.first())
    }

    /// The same with each mark that was not seen where it was seen last. Those that were not seen yet stay missing.
    #[must_use]
    pub fn held(&self) -> Self {
        let mut last = MarkFrame::default();
        let hold = |frame: &MarkFrame| {
            last = frame.clone().or_as_in(&last);
            last.clone()
        };
        Self { frames: self.frames.iter().map(hold).collect() }
    }

    /// The same with the trembling taken out: each mark is the mean of where it was in the frames around, those farther off counting less, by a
    /// Gaussian curve of so many frames' width (its standard deviation). What was not seen stays missing. A width of 0, or of less, changes nothing.
    ///
    /// Cost: the frames times the width.
    #[must_use]
    pub fn smoothed(&self, frames: f64) -> Self {
        if frames.is_nan() || frames <= 0.0 {
            return self.clone();
        }
        let reach = (FAR * frames).ceil().min(self.frames.len() as f64) as usize;
        let weight = |off: usize| (-0.5 * (off as f64 / frames).powi(2)).exp();
        let weights: Vec<f64> = (0..=reach).map(weight).collect();
        let mean = |at: usize, number: usize, own: Point| {
            let from = at.saturating_sub(reach);
            let around = self.frames.iter().enumerate().skip(from).take(at + reach + 1 - from);
            let (mut sum, mut all) = (Point::ZERO, 0.0);
            for (i, frame) in around {
                if let (Some(point), Some(weight)) = (frame.at(number), weights.get(i.abs_diff(at))) {
                    sum += (point - own) * *weight;
                    all += weight;
                }
            }
            if all > 0.0 { own + sum / all } else { own }
        };
        let smooth = |(at, frame): (usize, &MarkFrame)| MarkFrame {
            points: frame.points().map(|(number, own)| (number, mean(at, number, own))).collect(),
            seconds: frame.seconds,
        };
        Self { frames: self.frames.iter().enumerate().map(smooth).collect() }
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
    /// The frame of the next line; `None` where the line is empty or is no frame, which is then counted.
    pub fn read(&mut self, line: &str) -> Option<MarkFrame> {
        self.line += 1;
        if line.trim().is_empty() {
            return None;
        }
        match frame(line) {
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
    let mut frame = MarkFrame { seconds, ..MarkFrame::default() };
    match marks {
        Value::Array(list) => {
            for (number, value) in list.iter().enumerate().filter(|(_, value)| !value.is_null()) {
                frame.points.insert(number, point(value).ok_or_else(|| wrong(&number.to_string()))?);
            }
        }
        Value::Object(object) => {
            for (name, value) in object.iter().filter(|(_, value)| !value.is_null()) {
                let number = name.parse().map_err(|_| wrong(name))?;
                frame.points.insert(number, point(value).ok_or_else(|| wrong(name))?);
            }
        }
        _ => return Err("not a frame: give a list of points, as in [[0, 0], [30, 0]]".to_owned()),
    }
    Ok(frame)
}

fn wrong(mark: &str) -> String {
    format!("mark {mark} is not a point: write two numbers, as in {{\"3\": [12.5, 40]}}")
}

fn point(value: &Value) -> Option<Point> {
    match value.as_array()?.as_slice() {
        [x, y] => Some(Point::new(x.as_f64()?, y.as_f64()?)).filter(|point| point.is_finite()),
        _ => None,
    }
}
