//! What a run of a script has used up.
//!
//! Memory means what this run holds. A program that turns on the feature `counting` counts that exactly, run
//! by run, whatever else goes on; one that does not is measured as a whole, from what it held when the run began.

use std::sync::Once;
use std::sync::atomic::{AtomicI64, AtomicU64, AtomicUsize, Ordering};
use std::time::Instant;

use chordane::ground::Allowance;
use tracking_allocator::{AllocationGroupId, AllocationGroupToken, AllocationRegistry, AllocationTracker};

use crate::Limits;
use crate::refusal::Refusal;

/// Counts what each run holds. It stands here and not in the command, since it is compiled where it stands, and has to be optimised.
#[cfg(feature = "counting")]
#[global_allocator]
static ALLOCATOR: tracking_allocator::Allocator<std::alloc::System> = tracking_allocator::Allocator::system();

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
    pub(crate) fn within<R>(mut self, limits: Limits, work: Work, run: impl FnOnce(&Allowance) -> R) -> R {
        let group = self.token.as_ref().map(AllocationGroupToken::id);
        let _counted = self.token.as_mut().map(AllocationGroupToken::enter);
        let held = group.filter(counts).map(|group| {
            slot(&group).store(0, Ordering::Relaxed);
            slot(&group)
        });
        let at_work = AtWork::begin();
        let budget = Budget {
            outer: Allowance::current(),
            limits,
            work,
            begin: Instant::now(),
            looks: AtomicU64::new(0),
            counted: held,
            held_before: held_by_all(),
        };
        let allowance = Allowance::new(move || budget.spent());
        let done = allowance.within(|| run(&allowance));
        drop(at_work);
        done
    }
}

/// What is done within the limits.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Work {
    /// A score is read or run.
    Score,
    /// Something is drawn, or a document read.
    Drawing,
}

impl Work {
    fn too_long(self, seconds: f64) -> String {
        let unit = if seconds == 1.0 { "second" } else { "seconds" };
        match self {
            Self::Score => format!(
                "the score runs for more than {seconds} {unit}; look for a loop that never ends, or raise the limit with --max-seconds"
            ),
            Self::Drawing => format!(
                "the drawing takes more than {seconds} {unit}; draw less, or raise the limit with --max-seconds"
            ),
        }
    }

    fn too_much(self, megabytes: usize) -> String {
        match self {
            Self::Score => format!(
                "the score takes more than {megabytes} MB of memory; look for a list or a path that grows without end, or raise the limit with --max-memory"
            ),
            Self::Drawing => format!(
                "the drawing takes more than {megabytes} MB of memory; draw less, or raise the limit with --max-memory"
            ),
        }
    }
}

/// One of those that are at work just now.
struct AtWork;

static AT_WORK: AtomicUsize = AtomicUsize::new(0);

impl AtWork {
    fn begin() -> Self {
        AT_WORK.fetch_add(1, Ordering::Relaxed);
        Self
    }
}

impl Drop for AtWork {
    fn drop(&mut self) {
        AT_WORK.fetch_sub(1, Ordering::Relaxed);
    }
}

impl Limits {
    /// Does some work on what a score made within the time and the memory of the limits: drawing it, writing it, checking it. Why it
    /// had to stop is told by the work itself, as the fault of what it gives ([`FaultKind::Stopped`](chordane::ground::FaultKind::Stopped)).
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
        Account::open().within(self, Work::Drawing, |_| work())
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
    /// What held before, which holds on: whoever asked for the run may call it off.
    outer: Option<Allowance>,
    limits: Limits,
    work: Work,
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
        if let Some(why) = self.outer.as_ref().and_then(Allowance::ask) {
            return Some(why.to_owned());
        }
        if look.is_multiple_of(LOOKS_A_CLOCK) && self.begin.elapsed() > self.limits.time {
            return Some(self.work.too_long(self.limits.time.as_secs_f64()));
        }
        let counted = self.counted.map_or(0, |held| held.load(Ordering::Relaxed));
        let mut held = usize::try_from(counted).unwrap_or(0);
        // What threads of the library took for it is only seen in what all of the program holds.
        if look % LOOKS_AT_ALL == LOOKS_AT_ALL - 1 {
            let all = held_by_all().saturating_sub(self.held_before);
            held = held.max(all / AT_WORK.load(Ordering::Relaxed).max(1));
        }
        if held > self.limits.memory {
            return Some(self.work.too_much(self.limits.memory >> 20));
        }
        None
    }
}

const LOOKS_A_CLOCK: u64 = 16;

const LOOKS_AT_ALL: u64 = 64;

/// Why a run was stopped, as what a score is told: what is wrong, and what to do.
pub(crate) fn told(why: &str) -> Refusal {
    match why.split_once("; ") {
        Some((what, advice)) => Refusal::new(what).advise(advice),
        None => Refusal::new(why),
    }
}
