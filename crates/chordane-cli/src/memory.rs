//! The counting allocator, and the gauge that reads it.

use std::alloc::System;

use alloc_metrics::{MetricAlloc, thread_metrics};
use chordane_score::Gauge;

/// Counts what each thread allocates.
#[global_allocator]
static ALLOCATOR: MetricAlloc<System> = MetricAlloc::new(System);

/// Measures threads by this allocator, and the process by what the system reports.
pub(crate) const GAUGE: Gauge = Gauge {
    thread: || thread_metrics().allocated_bytes,
    process: || memory_stats::memory_stats().map_or(0, |held| held.physical_mem),
};
