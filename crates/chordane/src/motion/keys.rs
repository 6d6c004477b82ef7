//! Keys: values at places of the phase, and what is between them.

use super::{Easing, Keyed, rounds};
use crate::ground::{Fault, FaultSlot, Given, named};
use crate::number::{Angle, turns};

/// Values at times from 0 to 1, and between them part of the way from one to the next; see [`keys`].
#[derive(Clone, Debug)]
pub struct Keys<T> {
    keys: Vec<(f64, T)>,
    /// How each stretch between two keys is eased.
    easings: Vec<Easing>,
    looped: bool,
    there_and_back: bool,
    count: f64,
    delay: f64,
    fault: FaultSlot,
}

/// Keys: each a time from 0 to 1 and the value that is to be reached then. Before the first and after the last the value stays.
///
/// Times that do not rise, that are not from 0 to 1, and values that are not finite are faults; without a key there is no value.
///
/// ```
/// use chordane::prelude::*;
/// let rise = keys([(0.0, 0.0), (0.25, 40.0), (1.0, 0.0)]).eased("ease-in-out");
/// assert_eq!((rise.at(0.0), rise.at(0.25), rise.at(1.0)), (Some(0.0), Some(40.0), Some(0.0)));
/// let wrong = keys([(0.5, 1.0), (0.5, 2.0)]).sound().unwrap_err();
/// assert_eq!(
///     wrong.to_string(),
///     "`keys`: key 1 is at 0.5, and the one before it at 0.5 too; give times that rise, and for a jump the easing \"step-start\""
/// );
/// ```
#[must_use]
pub fn keys<T: Keyed>(keys: impl IntoIterator<Item = (f64, T)>) -> Keys<T> {
    let keys: Vec<(f64, T)> = keys.into_iter().collect();
    let mut fault = FaultSlot::default();
    let mut before: Option<f64> = None;
    for (i, (time, value)) in keys.iter().enumerate() {
        fault.in_range("keys", "time", *time, 0.0, 1.0);
        if let Err(wrong) = value.sound_for("keys") {
            fault.note(wrong);
        }
        if let Some(before) = before.filter(|before| before >= time) {
            let told = if before == *time {
                format!(
                    "key {i} is at {time}, and the one before it at {before} too; give times that rise, and for a jump the easing \"step-start\""
                )
            } else {
                format!(
                    "key {i} is at {time}, and the one before it at {before}; give them in the order of their times"
                )
            };
            fault.note(Fault::new("keys", told));
        }
        before = Some(*time);
    }
    let easings = vec![Easing::linear(); keys.len()];
    Keys { keys, easings, looped: false, there_and_back: false, count: 1.0, delay: 0.0, fault }
}

impl<T: Keyed> Keys<T> {
    /// Every stretch eased.
    #[must_use]
    pub fn eased(mut self, easing: impl Into<Easing>) -> Self {
        let easing = self.easing(easing.into());
        self.easings.fill(easing);
        self
    }

    /// One stretch eased: the one that begins at a key, counted from 0. A stretch that there is not is a fault.
    #[must_use]
    pub fn stretch(mut self, number: usize, easing: impl Into<Easing>) -> Self {
        let easing = self.easing(easing.into());
        let count = self.keys.len();
        match self.easings.get_mut(number) {
            Some(slot) => *slot = easing,
            None => {
                let told = match count {
                    0 => "there is no stretch without keys".to_owned(),
                    _ => format!("no stretch begins at key {number}; give 0 to {}", count - 1),
                };
                self.fault.note(Fault::new("stretch", told));
            }
        }
        self
    }

    fn easing(&mut self, easing: Easing) -> Easing {
        if let Err(fault) = easing.sound() {
            self.fault.note(fault);
        }
        easing
    }

    /// From the last key on over the end of the phase to the first, so that it comes round.
    #[must_use]
    pub fn looped(mut self) -> Self {
        self.looped = true;
        self
    }

    /// There in the first half of the phase, and the same way back in the second.
    #[must_use]
    pub fn there_and_back(mut self) -> Self {
        self.there_and_back = true;
        self
    }

    /// So many times in the whole phase. Not above 0 or not finite is a fault.
    #[must_use]
    pub fn repeated(mut self, count: f64) -> Self {
        self.fault.positive("repeated", "count", count);
        self.count = count;
        self
    }

    /// Delays the motion by a fraction of a cycle. The part pushed past the end wraps around to the start.
    #[must_use]
    pub fn delayed(mut self, share: f64) -> Self {
        self.fault.finite("delayed", "share", share);
        self.delay = share;
        self
    }

    /// The value at a phase; `None` where there is no key.
    #[must_use]
    pub fn at(&self, phase: f64) -> Option<T> {
        let mut time = if self.delay == 0.0 && self.count == 1.0 && !self.looped {
            // The end is the end, not the beginning again.
            if phase.is_finite() { phase.clamp(0.0, 1.0) } else { 0.0 }
        } else if self.looped || self.delay != 0.0 {
            rounds(phase, self.count, self.delay)
        } else {
            let whole = phase * self.count;
            if phase >= 1.0 && whole == whole.floor() { 1.0 } else { rounds(phase, self.count, 0.0) }
        };
        if self.there_and_back {
            time = 1.0 - (1.0 - 2.0 * time).abs();
        }
        let after = self.keys.partition_point(|(at, _)| *at <= time);
        let (first, last) = (self.keys.first()?, self.keys.last()?);
        // Beyond the last key and before the first it goes over the end where it comes round.
        let (from, to, begin, end, number) =
            match (after.checked_sub(1).and_then(|i| self.keys.get(i)), self.keys.get(after)) {
                (Some(from), Some(to)) => (from, to, from.0, to.0, after - 1),
                (Some(from), None) if self.looped => (from, first, from.0, first.0 + 1.0, after - 1),
                (None, Some(to)) if self.looped => (last, to, last.0 - 1.0, to.0, self.keys.len() - 1),
                (Some(only), None) | (None, Some(only)) => return Some(only.1.clone()),
                (None, None) => return None,
            };
        // A single key, or keys at 0 and 1: nothing lies between them.
        if end <= begin {
            return Some(from.1.clone());
        }
        let share = (time - begin) / (end - begin);
        let eased = self.easings.get(number).map_or(share, |easing| easing.at(share));
        Some(from.1.part_way(&to.1, eased))
    }

    /// The keys: each a time and a value.
    #[must_use]
    pub fn keys(&self) -> &[(f64, T)] {
        &self.keys
    }

    /// `Ok` when nothing is wrong.
    ///
    /// # Errors
    ///
    /// The first thing that is.
    pub fn sound(&self) -> Result<(), Fault> {
        self.fault.sound()
    }
}

/// Which way round angles go from key to key.
///
/// ```
/// use chordane::prelude::*;
/// let turn = |way: &str| keys([(0.0, deg(350.0)), (1.0, deg(10.0))]).way(way).at(0.5).map(Angle::degrees);
/// assert_eq!([turn("as-given"), turn("shorter"), turn("anticlockwise")], [Some(180.0), Some(360.0), Some(180.0)]);
/// ```
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Way {
    /// As their numbers say: from 350 degrees to 10 it is 340 back, to 370 it is 20 on.
    #[default]
    AsGiven,
    /// The shorter way.
    Shorter,
    /// Clockwise as seen on a sheet with y down.
    Clockwise,
    /// Anticlockwise as seen on a sheet with y down.
    Anticlockwise,
}

named! {
    Way: "way round";
    "as-given" => AsGiven, "shorter" => Shorter, "clockwise" => Clockwise, "anticlockwise" => Anticlockwise
}

impl Keys<Angle> {
    /// Which way round the angles go from key to key: a [`Way`] or its name. Looped keys go that way over the end too.
    #[must_use]
    pub fn way(mut self, way: impl Into<Given<Way>>) -> Self {
        let way = match way.into().resolve("way") {
            Ok(way) => way,
            Err(fault) => {
                self.fault.note(fault);
                return self;
            }
        };
        let mut before: Option<Angle> = None;
        for (_, angle) in &mut self.keys {
            if let Some(before) = before {
                let step = (*angle - before).wrapped();
                let half = turns(0.5);
                let step = match way {
                    Way::AsGiven => *angle - before,
                    Way::Shorter if step > half => step - turns(1.0),
                    Way::Anticlockwise if step > Angle::ZERO => step - turns(1.0),
                    Way::Shorter | Way::Clockwise | Way::Anticlockwise => step,
                };
                *angle = before + step;
            }
            before = Some(*angle);
        }
        self
    }
}
