//! The pointer as an input to a score, and a track of where it was.

use std::sync::Arc;

use chordane::number::{IntoPoint, Point};
use serde_json::Value;

use crate::ScoreError;

/// Where a pointer is, and whether it is down.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize))]
pub struct Pointer {
    /// Where it is, in the sheet's coordinates.
    pub at: Point,
    /// Whether its button is pressed, or a finger touches.
    pub down: bool,
}

impl Pointer {
    /// A pointer at a place that is not down.
    #[must_use]
    pub fn at(at: impl IntoPoint) -> Self {
        Self { at: at.into_point(), down: false }
    }

    /// A pointer that is down at a place.
    #[must_use]
    pub fn down(at: impl IntoPoint) -> Self {
        Self { at: at.into_point(), down: true }
    }
}

/// The maximum number of moments in a track.
const MAX_MOMENTS: usize = 1_000_000;

const MOMENT: &str = "write a line for each moment: {\"seconds\": 0.1, \"at\": [12, 40], \"down\": true}";

/// Parses one line of a track.
fn moment(line: &str) -> Result<(f64, Pointer), String> {
    let value: Value = serde_json::from_str(line).map_err(|error| error.to_string())?;
    let field = |name: &str| value.get(name).ok_or_else(|| format!("missing field `{name}`"));
    let seconds = field("seconds")?.as_f64().ok_or("`seconds` is not a number")?;
    let position = |value: &Value| match value.as_array()?.as_slice() {
        [x, y] => Some(Point::new(x.as_f64()?, y.as_f64()?)),
        _ => None,
    };
    let at = position(field("at")?).ok_or("`at` is not two numbers")?;
    let down = value.get("down").map_or(Some(false), Value::as_bool).ok_or("`down` is not true or false")?;
    Ok((seconds, Pointer { at, down }))
}

/// Where a pointer was at which time: what was driven by hand once can be drawn again, at any rate.
///
/// ```
/// use chordane_score::{Pointer, PointerTrack};
/// let track = PointerTrack::new([(0.0, Pointer::at((0.0, 0.0))), (2.0, Pointer::down((10.0, 40.0)))]);
/// assert_eq!(track.at(0.5), Pointer::at((2.5, 10.0)));
/// assert_eq!((track.at(9.0), track.seconds()), (Pointer::down((10.0, 40.0)), 2.0));
/// ```
#[derive(Clone, Debug, Default, PartialEq)]
pub struct PointerTrack {
    samples: Arc<[(f64, Pointer)]>,
}

impl PointerTrack {
    /// A track of what was seen at some times, in seconds. They are put in order; what is not finite is left out.
    #[must_use]
    pub fn new(samples: impl IntoIterator<Item = (f64, Pointer)>) -> Self {
        let sound = |(seconds, pointer): &(f64, Pointer)| seconds.is_finite() && pointer.at.is_finite();
        let mut samples: Vec<(f64, Pointer)> = samples.into_iter().filter(sound).collect();
        samples.sort_by(|a, b| a.0.total_cmp(&b.0));
        Self { samples: samples.into() }
    }

    /// Reads JSON Lines: for each moment an object with the time in `seconds`, the position `at`, and `down` where the pointer is down.
    ///
    /// ```
    /// use chordane_score::{Pointer, PointerTrack};
    /// let track = PointerTrack::read_json_lines("{\"seconds\": 0.5, \"at\": [12, 40], \"down\": true}\n")?;
    /// assert_eq!(track.samples(), [(0.5, Pointer::down((12.0, 40.0)))]);
    /// let mistake = PointerTrack::read_json_lines("{\"at\": [0, 0]}").unwrap_err();
    /// assert_eq!(mistake.to_string(), "line 1: missing field `seconds`");
    /// # Ok::<(), chordane_score::ScoreError>(())
    /// ```
    ///
    /// # Errors
    ///
    /// A line that is anything else, a text without a moment, and one with more than a million.
    pub fn read_json_lines(text: &str) -> Result<Self, ScoreError> {
        let failed = |message: String| ScoreError::new(message).advise(Some(MOMENT.to_owned()));
        let mut samples = Vec::new();
        for (number, line) in (1..).zip(text.lines()).filter(|(_, line)| !line.trim().is_empty()) {
            samples.push(moment(line).map_err(|why| failed(format!("line {number}: {why}")))?);
            if samples.len() > MAX_MOMENTS {
                return Err(failed(format!("the track has more than {MAX_MOMENTS} moments")));
            }
        }
        if samples.is_empty() {
            return Err(failed("the track has no moments".to_owned()));
        }
        Ok(Self::new(samples))
    }

    /// The pointer at a time: on the straight way between the samples around it, and down or up as it was last; before the first and after the last
    /// as in those. Of an empty track, up at the origin.
    #[must_use]
    pub fn at(&self, seconds: f64) -> Pointer {
        let behind = self.samples.partition_point(|(time, _)| *time <= seconds);
        let before = behind.checked_sub(1).and_then(|at| self.samples.get(at));
        match (before, self.samples.get(behind)) {
            (Some((from, a)), Some((to, b))) => {
                Pointer { at: a.at.lerp(b.at, (seconds - from) / (to - from)), down: a.down }
            }
            (Some((_, only)), None) | (None, Some((_, only))) => *only,
            (None, None) => Pointer::default(),
        }
    }

    /// The samples in order.
    #[must_use]
    pub fn samples(&self) -> &[(f64, Pointer)] {
        &self.samples
    }

    /// When the last sample was taken.
    #[must_use]
    pub fn seconds(&self) -> f64 {
        self.samples.last().map_or(0.0, |(seconds, _)| *seconds)
    }
}
