//! Timelines: which part of the phase each of several motions takes.

use crate::ground::{Fault, FaultSlot, nearest};

/// Named spans that follow one another, run together or begin one a little after the other; as a whole they fill the phase. See [`timeline`].
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Timeline {
    spans: Vec<Span>,
    fault: FaultSlot,
}

#[derive(Clone, Debug, PartialEq)]
struct Span {
    name: String,
    begin: f64,
    end: f64,
}

/// A timeline without a span. Lengths are in any unit: only their relation counts.
///
/// ```
/// use chordane::prelude::*;
/// // It rises, then turns twice as long; while it turns it fades; then three vents open one after the other.
/// let flight = timeline().then("rise", 1.0).then("turn", 2.0).together("fade", 1.0).staggered("vent", 3, 1.0, 0.5);
/// assert_eq!(flight.length(), 5.0);
/// assert_eq!((flight.share("turn", 0.2), flight.share("turn", 0.4), flight.share("turn", 0.9)), (0.0, 0.5, 1.0));
/// assert_eq!([0, 1, 2].map(|i| flight.share_of("vent", i, 0.8)), [1.0, 0.5, 0.0]);
/// ```
#[must_use]
pub fn timeline() -> Timeline {
    Timeline::default()
}

impl Timeline {
    /// A span that begins when everything before it has ended.
    #[must_use]
    pub fn then(self, name: &str, length: f64) -> Self {
        let begin = self.length();
        self.span("then", name, begin, length)
    }

    /// A span that begins together with the one before it.
    #[must_use]
    pub fn together(self, name: &str, length: f64) -> Self {
        let begin = self.spans.last().map_or(0.0, |span| span.begin);
        self.span("together", name, begin, length)
    }

    /// A span that begins so long after the end of everything before it, or before it where that is negative.
    #[must_use]
    pub fn after(mut self, pause: f64, name: &str, length: f64) -> Self {
        self.fault.finite("after", "pause", pause);
        let begin = (self.length() + pause).max(0.0);
        self.span("after", name, begin, length)
    }

    /// So many spans of one name, each beginning a step after the one before it, when everything else has ended; see [`Timeline::share_of`].
    #[must_use]
    pub fn staggered(mut self, name: &str, count: usize, length: f64, step: f64) -> Self {
        self.fault.not_negative("staggered", "step", step);
        if !self.fault.at_most("staggered", "spans", count, MAX_SPANS) {
            return self;
        }
        let begin = self.length();
        (0..count).fold(self, |line, i| line.span("staggered", name, begin + step * i as f64, length))
    }

    fn span(mut self, call: &'static str, name: &str, begin: f64, length: f64) -> Self {
        self.fault.positive(call, "length", length);
        self.spans.push(Span { name: name.to_owned(), begin, end: begin + length });
        self
    }

    /// How long the whole is.
    #[must_use]
    pub fn length(&self) -> f64 {
        self.spans.iter().map(|span| span.end).fold(0.0, f64::max)
    }

    /// How far a span has come at a phase: 0 before it begins, 1 when it has ended. Of several of one name it is the first. 0 where there is none of
    /// the name; see [`Timeline::find`].
    #[must_use]
    pub fn share(&self, name: &str, phase: f64) -> f64 {
        self.share_of(name, 0, phase)
    }

    /// The same for one of several spans of a name, counted from 0.
    #[must_use]
    pub fn share_of(&self, name: &str, number: usize, phase: f64) -> f64 {
        let Some(span) = self.spans.iter().filter(|span| span.name == name).nth(number) else { return 0.0 };
        let time = phase * self.length();
        let share = (time - span.begin) / (span.end - span.begin);
        if share.is_finite() { share.clamp(0.0, 1.0) } else { 0.0 }
    }

    /// Whether there is a span of a name and number.
    ///
    /// # Errors
    ///
    /// That there is none, with the names there are.
    pub fn find(&self, name: &str, number: usize) -> Result<(), Fault> {
        let count = self.spans.iter().filter(|span| span.name == name).count();
        if number < count {
            return Ok(());
        }
        let names = || self.spans.iter().map(|span| span.name.as_str());
        let told = match (count, nearest(name, names())) {
            (0, Some(near)) => format!("there is no span \"{name}\"; did you mean \"{near}\"?"),
            (0, None) => {
                let mut all: Vec<&str> = names().collect();
                all.dedup();
                format!("there is no span \"{name}\"; the spans are {}", all.join(", "))
            }
            _ => format!("there is no span {number} of \"{name}\"; give 0 to {}", count - 1),
        };
        Err(Fault::new("share", told))
    }

    /// `Ok` when nothing is wrong.
    ///
    /// # Errors
    ///
    /// A length that is not above 0, and whatever else was wrong first.
    pub fn sound(&self) -> Result<(), Fault> {
        self.fault.sound()
    }
}

/// So many spans at once.
const MAX_SPANS: usize = 100_000;
