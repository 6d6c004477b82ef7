//! What a run of a script has used up.
//!
//! Memory means what this run holds. A program that takes [`CountingAllocator`] as its allocator counts that exactly, run
//! by run, whatever else goes on; one that does not is measured as a whole, from what it held when the run began.

use std::sync::Once;
use std::sync::atomic::{AtomicI64, AtomicU64, Ordering};
use std::time::Instant;

use chordane::ground::Allowance;
use tracking_allocator::{AllocationGroupId, AllocationGroupToken, AllocationRegistry, AllocationTracker};

use crate::Limits;
use crate::refusal::Refusal;

/// An allocator that counts what each run of a score holds. A program that runs scores takes it as its own:
///
/// ```
/// use std::alloc::System;
/// use chordane_score::CountingAllocator;
///
/// #[global_allocator]
/// static ALLOCATOR: CountingAllocator<System> = CountingAllocator::system();
/// # fn main() {}
/// ```
pub type CountingAllocator<A> = tracking_allocator::Allocator<A>;

/// Runs that are counted at once.
const SLOTS: usize = 4096;

/// What the runs hold, by the number of their group.
static HELD: [AtomicI64; SLOTS] = [const { AtomicI64::new(0) }; SLOTS];

fn slot(group: &AllocationGroupId) -> &'static AtomicI64 {
    HELD.get(group.as_usize().get() % SLOTS).unwrap_or(&HELD[0])
}

struct Ledger;

impl AllocationTracker for Ledger {
    fn allocated(&self, _: usize, size: usize, _: usize, group: AllocationGroupId) {
        slot(&group).fetch_add(size as i64, Ordering::Relaxed);
    }

    fn deallocated(&self, _: usize, size: usize, _: usize, source: AllocationGroupId, _: AllocationGroupId) {
        slot(&source).fetch_sub(size as i64, Ordering::Relaxed);
    }
}

/// The account of one run.
pub(crate) struct Account {
    token: Option<AllocationGroupToken>,
}

impl Account {
    pub(crate) fn open() -> Self {
        static BEGIN: Once = Once::new();
        BEGIN.call_once(|| {
            // Another tracker of the program's own keeps its place; runs are then measured as a whole.
            if AllocationRegistry::set_global_tracker(Ledger).is_ok() {
                AllocationRegistry::enable_tracking();
            }
        });
        // Registering may give nothing where another thread comes between.
        Self { token: (0..16).find_map(|_| AllocationGroupToken::register()) }
    }

    /// Runs something within the limits, and counts what this thread takes meanwhile.
    pub(crate) fn within<R>(mut self, limits: Limits, run: impl FnOnce(&Allowance) -> R) -> R {
        let group = self.token.as_ref().map(AllocationGroupToken::id);
        let _counted = self.token.as_mut().map(AllocationGroupToken::enter);
        let held = group.filter(counts).map(|group| {
            slot(&group).store(0, Ordering::Relaxed);
            slot(&group)
        });
        let budget = Budget {
            limits,
            begin: Instant::now(),
            looks: AtomicU64::new(0),
            counted: held,
            held_before: held_by_all(),
        };
        let allowance = Allowance::new(move || budget.spent());
        allowance.within(|| run(&allowance))
    }
}

/// Whether what is taken now is counted: the program may have another allocator.
fn counts(group: &AllocationGroupId) -> bool {
    let before = slot(group).load(Ordering::Relaxed);
    let probe = std::hint::black_box(vec![0_u8; 64]);
    let counted = slot(group).load(Ordering::Relaxed) != before;
    drop(probe);
    counted
}

/// The memory that the whole program holds, where the system tells.
fn held_by_all() -> usize {
    memory_stats::memory_stats().map_or(0, |held| held.physical_mem)
}

/// What a run may still use.
#[derive(Debug)]
struct Budget {
    limits: Limits,
    begin: Instant,
    looks: AtomicU64,
    counted: Option<&'static AtomicI64>,
    held_before: usize,
}

impl Budget {
    /// Why the run has to stop, if it has, and what to do. What it holds is looked at every time, since one step can double it;
    /// the clock, and what all of the program holds, only now and then, since they take longer.
    fn spent(&self) -> Option<String> {
        let look = self.looks.fetch_add(1, Ordering::Relaxed);
        if look % LOOKS_A_CLOCK == 0 && self.begin.elapsed() > self.limits.time {
            let seconds = self.limits.time.as_secs_f64();
            return Some(format!("the score runs for more than {seconds} seconds; {TIME_ADVICE}"));
        }
        let held = match self.counted {
            Some(held) => usize::try_from(held.load(Ordering::Relaxed)).unwrap_or(0),
            None if look % LOOKS_AT_ALL == 0 => held_by_all().saturating_sub(self.held_before),
            None => 0,
        };
        if held > self.limits.memory {
            let megabytes = self.limits.memory >> 20;
            return Some(format!("the score takes more than {megabytes} MB of memory; {MEMORY_ADVICE}"));
        }
        None
    }
}

const LOOKS_A_CLOCK: u64 = 16;

const LOOKS_AT_ALL: u64 = 1024;

const TIME_ADVICE: &str = "look for a loop that never ends, or raise the limit with --max-seconds";

const MEMORY_ADVICE: &str =
    "look for a list or a path that grows without end, or raise the limit with --max-memory";

/// Why a run was stopped, as what a score is told: what is wrong, and what to do.
pub(crate) fn told(why: &str) -> Refusal {
    match why.split_once("; ") {
        Some((what, advice)) => Refusal::new(what).advise(advice),
        None => Refusal::new(why),
    }
}
