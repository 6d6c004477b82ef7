//! The memory that runs of scores hold, counted by the program's allocator.

use std::alloc::System;

use alloc_metrics::{MetricAlloc, thread_metrics};
use chordane_score::Gauge;

/// Counts what each thread allocates.
#[global_allocator]
static ALLOCATOR: MetricAlloc<System> = MetricAlloc::new(System);

/// Measures runs by what this allocator counts, and by what the system says of the process.
pub(crate) const GAUGE: Gauge = Gauge {
    thread: || thread_metrics().allocated_bytes,
    process: || memory_stats::memory_stats().map_or(0, |held| held.physical_mem),
};
