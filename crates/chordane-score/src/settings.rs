//! What a score is run with.

use std::collections::BTreeMap;

use chordane::number::Point;

use crate::pictures::Pictures;

/// What a score is run with: the seed of its dice, its knobs, and the size that is asked for. What is not said is as the
/// score has it.
///
/// ```
/// use chordane_score::Settings;
/// let settings = Settings::new().seed(7).set("sag", "0.2").size((640.0, 480.0));
/// assert_eq!((settings.get_seed(), settings.knob("sag")), (7, Some("0.2")));
/// ```
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Settings {
    seed: u64,
    knobs: BTreeMap<String, String>,
    size: Option<Point>,
    pictures: Pictures,
}

impl Settings {
    /// The seed 0, all knobs at their starts, and the score's own size.
    #[must_use]
    pub fn new() -> Self {
        Self::default()
    }

    /// The same with another seed, which all dice come from.
    #[must_use]
    pub fn seed(mut self, seed: u64) -> Self {
        self.seed = seed;
        self
    }

    /// The same with a knob set, by its name; what it can be is known when the score declares it.
    #[must_use]
    pub fn set(mut self, name: &str, value: &str) -> Self {
        self.knobs.insert(name.to_owned(), value.trim().to_owned());
        self
    }

    /// The same with a size asked for, where the score can have any; see [`Stage::asked_size`](crate::Stage::asked_size).
    #[must_use]
    pub fn size(mut self, size: impl Into<Point>) -> Self {
        self.size = Some(size.into());
        self
    }

    /// The same with other pictures to paint with.
    #[must_use]
    pub fn pictures(mut self, pictures: Pictures) -> Self {
        self.pictures = pictures;
        self
    }

    /// The pictures there are to paint with.
    #[must_use]
    pub fn get_pictures(&self) -> &Pictures {
        &self.pictures
    }

    /// The seed.
    #[must_use]
    pub fn get_seed(&self) -> u64 {
        self.seed
    }

    /// What the knobs are set to, by name.
    #[must_use]
    pub fn knobs(&self) -> &BTreeMap<String, String> {
        &self.knobs
    }

    /// What a knob is set to, where it is.
    #[must_use]
    pub fn knob(&self, name: &str) -> Option<&str> {
        self.knobs.get(name).map(String::as_str)
    }

    /// The size that is asked for, where one is.
    #[must_use]
    pub fn get_size(&self) -> Option<Point> {
        self.size
    }
}
