//! What a score is run with.

use std::collections::BTreeMap;
use std::sync::Arc;

use crate::marks::{MarkFrame, Marks};
use chordane::number::{IntoPoint, Point};

use crate::pictures::Pictures;
use crate::pointer::{Pointer, PointerTrack};
use crate::{GivenValue, KnobValue};

/// What a score is run with: the seed of its dice, its knobs, the moment of its loop, the pointer, and the size that is asked for. What is not said is as the
/// score has it.
///
/// With the feature `serde` they can be serialised, except for pictures, pointer tracks and marks, which come from files.
///
/// ```
/// use chordane_score::Settings;
/// let settings = Settings::new().seed(7).set("sag", 0.2).size((640.0, 480.0));
/// assert_eq!((settings.seed, settings.knob("sag")), (Some(7), Some("0.2")));
/// ```
#[derive(Clone, Debug, Default, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize), serde(default))]
pub struct Settings {
    /// The seed that is asked for; the score's own, or 0, where there is none.
    pub seed: Option<u64>,
    /// The values of knobs by their names, as text.
    pub knobs: BTreeMap<String, String>,
    /// The values that are handed to the score, by their names.
    pub given: BTreeMap<String, GivenValue>,
    /// The size that is asked for, in sheet units.
    pub size: Option<Point>,
    /// The pictures that the score may paint with.
    #[cfg_attr(feature = "serde", serde(skip))]
    pub pictures: Pictures,
    /// The moment of the loop.
    pub moment: Moment,
    /// The pointer of a still; a track goes over it.
    pub pointer: Pointer,
    /// The recorded track of the pointer that a clip follows.
    #[cfg_attr(feature = "serde", serde(skip))]
    pub track: Option<PointerTrack>,
    /// The marks of all frames.
    #[cfg_attr(feature = "serde", serde(skip))]
    pub marks: Option<Arc<Marks>>,
}

/// A moment of a loop, and the loop that it is of.
///
/// ```
/// use chordane_score::Settings;
/// let third = Settings::new().frame(2, 8).moment;
/// assert_eq!((third.phase, third.frame, third.frames, third.seconds), (0.25, 2, 8, 4.0));
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize), serde(default))]
pub struct Moment {
    /// The position in the loop, from 0 up to 1.
    pub phase: f64,
    /// The length of the loop, in seconds.
    pub seconds: f64,
    /// The number of the frame, counted from 0.
    pub frame: usize,
    /// The number of frames of the loop, at least 1.
    pub frames: usize,
}

impl Default for Moment {
    /// The beginning of a loop of four seconds with one frame.
    fn default() -> Self {
        Self { phase: 0.0, seconds: 4.0, frame: 0, frames: 1 }
    }
}

impl Settings {
    /// No seed asked for, all knobs at their starts, and the score's own size.
    #[must_use]
    pub fn new() -> Self {
        Self::default()
    }

    /// The same with another seed, which all dice come from.
    #[must_use]
    pub fn seed(mut self, seed: u64) -> Self {
        self.seed = Some(seed);
        self
    }

    /// The same with a knob set, by its name, to a number, a text, a switch, a point, a colour or an angle.
    ///
    /// The score says what a knob can be: a value that does not fit is an error of [`Run::sheet`](crate::Run::sheet).
    ///
    /// ```
    /// use chordane::prelude::*;
    /// use chordane_score::Settings;
    /// let settings = Settings::new().set("sag", 0.2).set("bows", true).set("tip", pt(40.0, 9.0)).set("cloth", "teal");
    /// assert_eq!((settings.knob("sag"), settings.knob("tip")), (Some("0.2"), Some("40,9")));
    /// ```
    #[must_use]
    pub fn set(mut self, name: impl Into<String>, value: impl Into<KnobValue>) -> Self {
        self.knobs.insert(name.into(), value.into().into_text());
        self
    }

    /// The same with a path, a list of points or numbers, or a number handed to the score, which asks for it by its name.
    ///
    /// A name that the score does not ask for, and a value of another kind than it asks for, are errors of
    /// [`Run::sheet`](crate::Run::sheet).
    ///
    /// ```
    /// use chordane::prelude::*;
    /// use chordane_score::{Limits, Runner, Settings};
    /// let text = r#"
    ///     let outline = given("outline", circle([50, 40], 30));
    ///     let spots = given("spots", [[50, 40]]);
    ///     sheet(100, 80).add(outline.fill("teal")).add_all(spots.map(|spot| circle(spot, 2).fill("gold")))
    /// "#;
    /// let runner = Runner::read("badge.chord", text, Limits::default())?;
    /// assert_eq!(runner.run(&Settings::new()).sheet()?.items().len(), 2);
    /// let settings =
    ///     Settings::new().give("outline", star((50.0, 40.0), 5, 30.0, 14.0)).give("spots", [(40.0, 40.0), (60.0, 40.0)]);
    /// assert_eq!(runner.run(&settings).sheet()?.items().len(), 3);
    /// # Ok::<(), chordane_score::ScoreError>(())
    /// ```
    #[must_use]
    pub fn give(mut self, name: impl Into<String>, value: impl Into<GivenValue>) -> Self {
        self.given.insert(name.into(), value.into());
        self
    }

    /// The same with all knobs at their starts and no seed asked for.
    #[must_use]
    pub fn unset(mut self) -> Self {
        self.knobs.clear();
        self.seed = None;
        self
    }

    /// The same with a size asked for, where the score can have any; see [`Stage::asked_size`](crate::Stage::asked_size).
    #[must_use]
    pub fn size(mut self, size: impl IntoPoint) -> Self {
        self.size = Some(size.into_point());
        self
    }

    /// The same with other pictures to paint with.
    #[must_use]
    pub fn pictures(mut self, pictures: Pictures) -> Self {
        self.pictures = pictures;
        self
    }

    /// The same at a place of the loop, from 0 to 1, where 1 is the beginning again; see [`Stage::phase`](crate::Stage::phase).
    #[must_use]
    pub fn phase(mut self, phase: f64) -> Self {
        self.moment.phase = phase;
        self.moment.frame = (phase * self.moment.frames as f64 + 1e-9) as usize;
        self
    }

    /// The same at one of so many frames, counted from 0: the phase is the frame over their number.
    ///
    /// ```
    /// use chordane_score::Settings;
    /// let third = Settings::new().frame(2, 8);
    /// assert_eq!((third.moment.phase, third.moment.frame), (0.25, 2));
    /// ```
    #[must_use]
    pub fn frame(mut self, frame: usize, of: usize) -> Self {
        let of = of.max(1);
        self.moment = Moment { phase: frame as f64 / of as f64, frame, frames: of, ..self.moment };
        self
    }

    /// The same with another length of the loop, in seconds; 4 by default.
    #[must_use]
    pub fn seconds(mut self, seconds: f64) -> Self {
        self.moment.seconds = seconds;
        self
    }

    /// The same with the pointer somewhere; see [`Stage::pointer`](crate::Stage::pointer).
    #[must_use]
    pub fn pointer(mut self, pointer: Pointer) -> Self {
        (self.pointer, self.track) = (pointer, None);
        self
    }

    /// The same with the pointer where a track has it at each moment of the loop.
    ///
    /// ```
    /// use chordane_score::{Pointer, PointerTrack, Settings};
    /// let track = PointerTrack::new([(0.0, Pointer::at((0.0, 0.0))), (4.0, Pointer::at((80.0, 0.0)))]);
    /// let half = Settings::new().track(track).seconds(4.0).phase(0.5);
    /// assert_eq!(half.pointer_now(), Pointer::at((40.0, 0.0)));
    /// ```
    #[must_use]
    pub fn track(mut self, track: PointerTrack) -> Self {
        self.track = Some(track);
        self
    }

    /// Where the pointer is: as the track has it where there is one.
    #[must_use]
    pub fn pointer_now(&self) -> Pointer {
        let seconds = self.moment.phase * self.moment.seconds;
        self.track.as_ref().map_or(self.pointer, |track| track.at(seconds))
    }

    /// The same with marks, which the score can ask for at each moment; see [`Stage::marks`](crate::Stage::marks).
    ///
    /// ```
    /// use chordane_score::Marks;
    /// use chordane_score::Settings;
    /// let marks = Marks::read_json_lines("[[0,0]]\n[[9,0]]\n")?.marks;
    /// let half = Settings::new().marks(marks).phase(0.5);
    /// assert_eq!(half.marks_now().and_then(|frame| frame.at(0)), Some((9.0, 0.0).into()));
    /// # Ok::<(), chordane_score::ScoreError>(())
    /// ```
    #[must_use]
    pub fn marks(mut self, marks: Marks) -> Self {
        self.marks = Some(Arc::new(marks));
        self
    }

    /// The marks of this moment: of its time where they have times, else of the frame that comes then when all of them fill the loop. `None` where
    /// there are none.
    #[must_use]
    pub fn marks_now(&self) -> Option<&MarkFrame> {
        let marks = self.marks.as_ref()?;
        let count = marks.frames().len();
        let frame = (self.moment.phase * count as f64 + 1e-9).max(0.0) as usize;
        marks
            .at_seconds(self.moment.phase * self.moment.seconds)
            .or_else(|| marks.frames().get(frame.min(count.saturating_sub(1))))
    }

    /// What a knob is set to, where it is.
    #[must_use]
    pub fn knob(&self, name: &str) -> Option<&str> {
        self.knobs.get(name).map(String::as_str)
    }
}
