//! The memory that a run of a score holds, as a program measures it.

use std::cell::Cell;
use std::sync::atomic::{AtomicU64, AtomicUsize, Ordering};
use std::time::{Duration, Instant};

/// The process is measured once in this time, since that takes far longer than the count of a thread.
const PROCESS_EVERY: Duration = Duration::from_millis(2);

/// The runs that are at work now.
static RUNS: AtomicUsize = AtomicUsize::new(0);

/// Measures the memory of runs, such as a program's allocator. The functions are called at every step of a score.
///
/// The thread of a run is measured exactly. Threads of the library that work for it are seen in the growth of the process since the run
/// began, of which each of the runs at work gets an equal part.
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
    /// The bytes that the calling thread has allocated less those that it has freed.
    pub thread: fn() -> isize,
    /// The bytes that the process holds; 0 where that is not known.
    pub process: fn() -> usize,
}

/// A run that is measured by a gauge.
pub(crate) struct Measured {
    gauge: Gauge,
    thread: u64,
    thread_before: isize,
    process_before: usize,
    /// What the run's own thread held when it last looked.
    own: AtomicUsize,
    begin: Instant,
    /// When the process was last measured, in milliseconds from the beginning.
    measured: AtomicU64,
}

impl Gauge {
    /// Begins to measure a run of this thread.
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
    /// Returns the bytes that the run's own thread holds, as far as this thread knows.
    pub(crate) fn own(&self) -> usize {
        if this_thread() == self.thread {
            let held = (self.gauge.thread)().saturating_sub(self.thread_before);
            self.own.store(usize::try_from(held).unwrap_or(0), Ordering::Relaxed);
        }
        self.own.load(Ordering::Relaxed)
    }

    /// Returns the bytes that the run holds on all of its threads, as far as they are known.
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

/// Returns a number that no other thread has.
fn this_thread() -> u64 {
    static THREADS: AtomicU64 = AtomicU64::new(1);
    thread_local! { static NUMBER: Cell<u64> = const { Cell::new(0) } }
    if NUMBER.get() == 0 {
        NUMBER.set(THREADS.fetch_add(1, Ordering::Relaxed));
    }
    NUMBER.get()
}
