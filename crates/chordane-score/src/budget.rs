//! The budget of a run: its time, its memory, and the budget of the program around it.

use std::sync::Arc;
use std::sync::atomic::{AtomicUsize, Ordering};

use chordane::ground::{Budget, Stopped};

use crate::Limits;
use crate::clock::Instant;
use crate::gauge::Measured;

/// The kind of work that is done within the limits.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Work {
    /// A score is read or run.
    Score,
    /// Something is drawn, or a document read.
    Drawing,
}

impl Work {
    fn too_long(self, seconds: f64) -> Stopped {
        let unit = if seconds == 1.0 { "second" } else { "seconds" };
        let (what, advice) = match self {
            Self::Score => ("the score runs for", "look for a loop that never ends, or raise the limit"),
            Self::Drawing => ("the drawing takes", "draw less, or raise the limit"),
        };
        Stopped {
            what: format!("{what} more than {seconds} {unit}"),
            advice: advice.to_owned(),
            setting: "time",
        }
    }

    fn too_much(self, megabytes: usize) -> Stopped {
        let (what, advice) = match self {
            Self::Score => {
                ("the score", "look for a list or a path that grows without end, or raise the limit")
            }
            Self::Drawing => ("the drawing", "draw less, or raise the limit"),
        };
        let what = format!("{what} takes more than {megabytes} MB of memory");
        Stopped { what, advice: advice.to_owned(), setting: "memory" }
    }
}

/// The memory of a run, as far as it is known.
pub(crate) enum Memory {
    /// Measured by the program's gauge.
    Measured(Measured),
    /// The bytes of the large values that words have made.
    Made(AtomicUsize),
}

impl Memory {
    pub(crate) fn of(limits: &Limits) -> Arc<Self> {
        Arc::new(match limits.gauge {
            Some(gauge) => Self::Measured(gauge.begin()),
            None => Self::Made(AtomicUsize::new(0)),
        })
    }

    /// Returns the bytes that the thread of the run holds; fast.
    pub(crate) fn own(&self) -> usize {
        match self {
            Self::Measured(run) => run.own(),
            Self::Made(bytes) => bytes.load(Ordering::Relaxed),
        }
    }

    fn all(&self) -> usize {
        match self {
            Self::Measured(run) => run.all(),
            Self::Made(bytes) => bytes.load(Ordering::Relaxed),
        }
    }

    /// Counts a value that a word has made, where nothing else measures the run.
    pub(crate) fn count(&self, bytes: impl FnOnce() -> usize) {
        if let Self::Made(all) = self {
            all.fetch_add(bytes(), Ordering::Relaxed);
        }
    }
}

impl Limits {
    /// Draws, writes or checks what a score made within the time and memory of the limits. Where they are used up, the work itself returns
    /// the fault ([`FaultKind::Stopped`](chordane::ground::FaultKind::Stopped)). Without a [gauge](Limits::gauge), only single
    /// large allocations are limited.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// use chordane_score::Limits;
    /// let limits = Limits { time: std::time::Duration::ZERO, ..Limits::default() };
    /// let many = group().add_all((0..20_000).map(|i| circle((f64::from(i), 0.0), 1.0).fill("teal")));
    /// let error = limits.within(|| sheet(90.0, 60.0).add(many).svg()).unwrap_err();
    /// assert!(error.to_string().contains("the drawing takes more than 0 seconds"));
    /// ```
    pub fn within<R>(self, work: impl FnOnce() -> R) -> R {
        self.budget(Work::Drawing, Memory::of(&self)).within(work)
    }

    /// Starts a budget now. The budget of the thread still applies, so that the caller can cancel the work.
    pub(crate) fn budget(self, work: Work, memory: Arc<Memory>) -> Budget {
        let (outer, begin) = (Budget::current(), Instant::now());
        Budget::with_memory(move |bytes| {
            if let Some(why) = outer.as_ref().and_then(|outer| outer.ask_for(bytes)) {
                return Some(why.clone());
            }
            if begin.elapsed() > self.time {
                return Some(work.too_long(self.time.as_secs_f64()));
            }
            (memory.all().saturating_add(bytes) > self.memory).then(|| work.too_much(self.memory >> 20))
        })
    }
}
