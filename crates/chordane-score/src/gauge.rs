//! Measuring the memory of a run.

use std::cell::Cell;
use std::sync::atomic::{AtomicU64, AtomicUsize, Ordering};
use std::time::Duration;

use crate::clock::Instant;

/// The interval at which the process is measured, which takes far longer than reading the count of a thread.
const PROCESS_EVERY: Duration = Duration::from_millis(2);

/// The number of runs in progress.
static RUNS: AtomicUsize = AtomicUsize::new(0);

/// Two functions with which a program measures memory, such as those of a counting allocator. `thread` is called after every step of a score, so
/// it has to be fast; `process` about every two milliseconds.
///
/// The thread of a run is measured exactly. Worker threads show in the growth of the process since the run began, which is divided evenly
/// among the runs in progress.
///
/// ```
/// use chordane_score::{Gauge, Limits, Runner, Settings};
/// use std::cell::Cell;
/// thread_local! { static HELD: Cell<isize> = const { Cell::new(0) } }
/// // A thread that holds one gigabyte more at every look.
/// let thread = || HELD.replace(HELD.get() + (1 << 30));
/// let limits = Limits { gauge: Some(Gauge { thread, process: || 0 }), ..Limits::default() };
/// let mistake = Runner::read("tail.chord", "sheet(90, 60)", limits).unwrap_err();
/// assert_eq!(mistake.to_string(), "the score takes more than 1024 MB of memory: stopped while it was read");
/// ```
#[derive(Clone, Copy, Debug)]
pub struct Gauge {
    /// Returns the bytes that the calling thread has allocated minus those it has freed.
    pub thread: fn() -> isize,
    /// Returns the bytes that the process holds, or 0 if that is unknown.
    pub process: fn() -> usize,
}

/// The memory measurement of one run.
pub(crate) struct Measured {
    gauge: Gauge,
    thread: u64,
    thread_before: isize,
    process_before: usize,
    /// The bytes that the run's own thread held at its last measurement.
    own: AtomicUsize,
    begin: Instant,
    /// The time of the last measurement of the process, in milliseconds since `begin`.
    measured: AtomicU64,
}

impl Gauge {
    /// Starts measuring a run on this thread.
    pub(crate) fn begin(self) -> Measured {
        RUNS.fetch_add(1, Ordering::Relaxed);
        Measured {
            gauge: self,
            thread: this_thread(),
            thread_before: (self.thread)(),
            process_before: (self.process)(),
            own: AtomicUsize::new(0),
            begin: Instant::now(),
            measured: AtomicU64::new(0),
        }
    }
}

impl Measured {
    /// Returns the bytes that the run's own thread holds; on other threads, those of its last measurement.
    pub(crate) fn own(&self) -> usize {
        if this_thread() == self.thread {
            let held = (self.gauge.thread)().saturating_sub(self.thread_before);
            self.own.store(usize::try_from(held).unwrap_or(0), Ordering::Relaxed);
        }
        self.own.load(Ordering::Relaxed)
    }

    /// Returns the bytes that the run holds on all of its threads. Between measurements of the process, only its own thread counts.
    pub(crate) fn all(&self) -> usize {
        let (own, now) = (self.own(), self.begin.elapsed());
        let last = Duration::from_millis(self.measured.load(Ordering::Relaxed));
        if now < last + PROCESS_EVERY {
            return own;
        }
        self.measured.store(now.as_millis() as u64, Ordering::Relaxed);
        let grown = (self.gauge.process)().saturating_sub(self.process_before);
        own.max(grown / RUNS.load(Ordering::Relaxed).max(1))
    }
}

impl Drop for Measured {
    fn drop(&mut self) {
        RUNS.fetch_sub(1, Ordering::Relaxed);
    }
}

/// Returns the unique number of this thread.
fn this_thread() -> u64 {
    static THREADS: AtomicU64 = AtomicU64::new(1);
    thread_local! { static NUMBER: Cell<u64> = const { Cell::new(0) } }
    if NUMBER.get() == 0 {
        NUMBER.set(THREADS.fetch_add(1, Ordering::Relaxed));
    }
    NUMBER.get()
}
