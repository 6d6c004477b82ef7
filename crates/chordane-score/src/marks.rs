//! Marks: numbered points that move from frame to frame, as something that is tracked gives them; shapes are made by listing their numbers.

mod reading;
mod smoothing;

use chordane::number::Point;
use chordane::path::Path;

pub use reading::{MarksReader, MarksReading, Skipped};

use crate::ScoreError;

/// The maximum number of frames.
const MAX_FRAMES: usize = 1_000_000;

/// The maximum number of points in all frames together.
const MAX_POINTS: usize = 10_000_000;

/// The marks of one frame: points by their numbers. Numbers that are missing were not seen in it.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct MarkFrame {
    /// Sorted by number, without duplicates.
    points: Vec<(usize, Point)>,
    seconds: Option<f64>,
}

impl MarkFrame {
    /// A frame of numbered points. Where a number occurs twice, the last point counts.
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
        let mut points: Vec<_> = points.into_iter().collect();
        // The last of equals comes first, and is kept.
        points.reverse();
        points.sort_by_key(|(number, _)| *number);
        points.dedup_by_key(|(number, _)| *number);
        Self { points, seconds: None }
    }

    /// Where a mark is; `None` where it was not seen.
    #[must_use]
    pub fn at(&self, number: usize) -> Option<Point> {
        let place = self.points.binary_search_by_key(&number, |(own, _)| *own).ok()?;
        self.points.get(place).map(|(_, point)| *point)
    }

    /// The marks in the order of their numbers.
    pub fn points(&self) -> impl ExactSizeIterator<Item = (usize, Point)> + '_ {
        self.points.iter().copied()
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
    #[must_use]
    pub fn or_as_in(&self, before: &Self) -> Self {
        let both = before.points().chain(self.points());
        Self { seconds: self.seconds, ..Self::new(both) }
    }
}

/// Numbered points over many frames.
///
/// As JSON Lines each line is a frame: a list of points, `null` for those that were not seen, or an object with such a list, or with points by their
/// numbers, as `marks`, and the time as `seconds` where it is known. As CSV each row is one mark, under a first row with the names `frame`,
/// `mark`, `x`, `y` and, where it is known, `seconds`. Positions are taken as they are. There are at most a million frames and ten million points.
///
/// ```
/// use chordane::prelude::*;
/// use chordane_score::Marks;
/// let text = "[[0,0],[30,0],null]\n{\"marks\":{\"0\":[1,0],\"2\":[0,40]},\"seconds\":0.04}\nwhat was that?\n";
/// let reading = Marks::read_json_lines(text)?;
/// assert_eq!((reading.marks.frames().len(), reading.skipped), (2, 1));
/// assert_eq!(reading.told[0].to_string(), "line 3: not a frame: expected value at line 1 column 1");
/// // Held, mark 1 stays where it was seen last.
/// assert_eq!(reading.marks.held()?.frames()[1].at(1), Some(pt(30.0, 0.0)));
/// # Ok::<(), chordane_score::ScoreError>(())
/// ```
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Marks {
    frames: Vec<MarkFrame>,
}

impl From<Vec<MarkFrame>> for Marks {
    fn from(frames: Vec<MarkFrame>) -> Self {
        Self { frames }
    }
}

impl Marks {
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
    ///
    /// # Errors
    ///
    /// More than ten million points in all frames together.
    pub fn held(&self) -> Result<Self, ScoreError> {
        let mut held = Self::default();
        let mut points = 0;
        for frame in &self.frames {
            let frame = held.frames.last().map_or_else(|| frame.clone(), |last| frame.or_as_in(last));
            points += frame.points.len();
            within_limits(held.frames.len() + 1, points)?;
            held.frames.push(frame);
        }
        Ok(held)
    }
}

/// Fails if there are more frames or points than the limits allow.
fn within_limits(frames: usize, points: usize) -> Result<(), ScoreError> {
    let (what, limit) = if frames > MAX_FRAMES {
        ("frames", MAX_FRAMES)
    } else {
        ("points in all frames together", MAX_POINTS)
    };
    if frames <= MAX_FRAMES && points <= MAX_POINTS {
        return Ok(());
    }
    let message = format!("the marks have more than {limit} {what}");
    Err(ScoreError::new(message).advise(Some("give fewer frames, or fewer marks in each".to_owned())))
}
