//! The memory that a run of a score holds.

use std::alloc::System;
use std::sync::atomic::{AtomicU64, AtomicUsize, Ordering};

use alloc_metrics::{MetricAlloc, thread_metrics};
use chordane_score::Gauge;

/// Counts what each thread allocates.
#[global_allocator]
static ALLOCATOR: MetricAlloc<System> = MetricAlloc::new(System);

/// The runs that are at work just now.
static AT_WORK: AtomicUsize = AtomicUsize::new(0);

/// The process is measured once in this many looks, since it takes longer than the count of a thread.
const LOOKS_PER_MEASURE: u64 = 64;

thread_local! {
    /// A number that no other thread has.
    static THREAD: u64 = {
        static THREADS: AtomicU64 = AtomicU64::new(0);
        THREADS.fetch_add(1, Ordering::Relaxed)
    };
}

fn this_thread() -> u64 {
    THREAD.with(|number| *number)
}

/// Measures runs: what the thread of a run allocates is counted exactly. What threads of the library allocate for it is seen in what the
/// process holds more than when the run began, of which each of the runs that are at work gets an equal part.
pub(crate) const GAUGE: Gauge = Gauge(gauge);

fn gauge() -> Box<dyn Fn() -> usize + Send + Sync> {
    let thread = this_thread();
    let at_work = AtWork::begin();
    let (before, process_before) = (thread_metrics().allocated_bytes, process());
    let (own, looks) = (AtomicUsize::new(0), AtomicU64::new(0));
    Box::new(move || {
        if this_thread() == thread {
            let held = thread_metrics().allocated_bytes.saturating_sub(before);
            own.store(usize::try_from(held).unwrap_or(0), Ordering::Relaxed);
        }
        let held = own.load(Ordering::Relaxed);
        if looks.fetch_add(1, Ordering::Relaxed) % LOOKS_PER_MEASURE != LOOKS_PER_MEASURE - 1 {
            return held;
        }
        held.max(process().saturating_sub(process_before) / at_work.count())
    })
}

/// The memory that the whole process holds, where the system tells.
fn process() -> usize {
    memory_stats::memory_stats().map_or(0, |held| held.physical_mem)
}

/// One of the runs that are at work just now.
struct AtWork;

impl AtWork {
    fn begin() -> Self {
        AT_WORK.fetch_add(1, Ordering::Relaxed);
        Self
    }

    #[allow(clippy::unused_self, reason = "there is at least this one")]
    fn count(&self) -> usize {
        AT_WORK.load(Ordering::Relaxed).max(1)
    }
}

impl Drop for AtWork {
    fn drop(&mut self) {
        AT_WORK.fetch_sub(1, Ordering::Relaxed);
    }
}
