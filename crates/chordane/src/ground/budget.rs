//! Budgets: limits on what work may use, set by a caller and seen only by functions that can return a fault.
//!
//! A function that can return a fault does its work inside [`limited`]. Loops in there ask [`exhausted`] and end early once the
//! budget is used up; whatever they made is then dropped, and the fault is returned instead. Outside [`limited`] the answer is
//! always "go on", so a budget can end a computation but never change its result.

use std::cell::{Cell, RefCell};
use std::fmt;
use std::sync::atomic::{AtomicUsize, Ordering};
use std::sync::{Arc, OnceLock};

use super::{Fault, FaultKind};

/// A limit on what work may use: time, memory, or whether anyone still waits for it.
///
/// Functions that can return a fault ask the budget of their thread again and again, on all threads that they use. Once it is used up
/// they end at once, and return [`FaultKind::Stopped`] or a value that carries it. Functions that cannot return a fault never ask, so
/// a budget never changes an answer. Without a budget, work goes on until it is done.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::ground::{Budget, Stopped};
/// use std::time::{Duration, Instant};
/// let begin = Instant::now();
/// let short = Budget::new(move || (begin.elapsed() > Duration::from_millis(20)).then(|| Stopped::new("that takes too long")));
/// let scribble = Path::closed((0..20_000).map(|i| polar(deg(f64::from(i) * 137.6), f64::from(i % 977))));
/// let tidy = short.within(|| scribble.simplified());
/// assert_eq!(tidy.sound().unwrap_err().to_string(), "`simplified`: that takes too long");
/// assert_eq!(short.stopped().unwrap().what, "that takes too long");
/// ```
#[derive(Clone)]
pub struct Budget(Arc<Shared>);

struct Shared {
    ask: Box<dyn Fn(usize) -> Option<Stopped> + Send + Sync>,
    stopped: OnceLock<Stopped>,
    /// A count of steps, and how many are allowed.
    steps: Option<(AtomicUsize, usize)>,
}

/// Why a budget ended some work.
///
/// ```
/// use chordane::ground::Stopped;
/// let reason = Stopped { advice: "draw less".to_owned(), ..Stopped::new("the picture takes too long") };
/// assert_eq!(reason.to_string(), "the picture takes too long; draw less");
/// ```
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Stopped {
    /// The limit that was exceeded, as a sentence without a full stop.
    pub what: String,
    /// What to do about it; may be empty.
    pub advice: String,
    /// The name of the setting that raises the limit, such as `time`; may be empty. A program can say how it is set there.
    pub setting: &'static str,
}

impl Stopped {
    /// A reason without advice.
    #[must_use]
    pub fn new(what: impl Into<String>) -> Self {
        Self { what: what.into(), ..Self::default() }
    }
}

impl fmt::Display for Stopped {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        out.write_str(&self.what)?;
        if self.advice.is_empty() { Ok(()) } else { write!(out, "; {}", self.advice) }
    }
}

impl fmt::Debug for Budget {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        out.debug_struct("Budget").field("stopped", &self.0.stopped.get()).finish_non_exhaustive()
    }
}

thread_local! {
    /// The budget of the work on this thread.
    static NOW: RefCell<Option<Budget>> = const { RefCell::new(None) };
    /// Whether the work may be ended: a function further out returns the fault.
    static LIMITED: Cell<bool> = const { Cell::new(false) };
    /// The steps since the budget was last asked.
    static DONE: Cell<usize> = const { Cell::new(0) };
}

/// The budget is asked after this many steps of some ten nanoseconds each.
const STEPS_PER_LOOK: usize = 10_000;

impl Budget {
    /// Creates a budget from a function that returns why work must stop, or `None` to go on. It is called several thousand times a second.
    #[must_use]
    pub fn new(ask: impl Fn() -> Option<Stopped> + Send + Sync + 'static) -> Self {
        Self::with_memory(move |_| ask())
    }

    /// Creates a budget that also limits memory. Before each large allocation, the function gets its size in bytes; otherwise it gets 0.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// use chordane::ground::{Budget, Stopped};
    /// let small = Budget::with_memory(|bytes| (bytes > 50_000_000).then(|| Stopped::new("that takes too much memory")));
    /// let glow = sheet(4000.0, 4000.0).add(circle((2000.0, 2000.0), 1000.0).fill("gold").blurred(300.0));
    /// assert_eq!(small.within(|| glow.pixels()).unwrap_err().to_string(), "`pixels`: that takes too much memory");
    /// ```
    #[must_use]
    pub fn with_memory(ask: impl Fn(usize) -> Option<Stopped> + Send + Sync + 'static) -> Self {
        Self(Arc::new(Shared { ask: Box::new(ask), stopped: OnceLock::new(), steps: None }))
    }

    /// Does some work within the budget, in place of one that may apply already.
    pub fn within<R>(&self, work: impl FnOnce() -> R) -> R {
        Scope { budget: Some(self.clone()), limited: false }.enter(work)
    }

    /// Returns the budget of this thread, to hand it to another thread, or to ask it from a budget that takes its place.
    ///
    /// ```
    /// use chordane::ground::Budget;
    /// assert!(Budget::current().is_none());
    /// Budget::new(|| None).within(|| assert!(Budget::current().is_some()));
    /// ```
    #[must_use]
    pub fn current() -> Option<Self> {
        NOW.with(|now| now.borrow().clone())
    }

    /// Returns why work was stopped, if it was.
    #[must_use]
    pub fn stopped(&self) -> Option<&Stopped> {
        self.0.stopped.get()
    }

    /// Asks at once whether work must stop, and why.
    #[must_use]
    pub fn ask(&self) -> Option<&Stopped> {
        self.ask_for(0)
    }

    /// As [`Budget::ask`], before allocating this many bytes.
    #[must_use]
    pub fn ask_for(&self, bytes: usize) -> Option<&Stopped> {
        if self.stopped().is_none() {
            let too_many =
                self.0.steps.as_ref().is_some_and(|(done, limit)| done.load(Ordering::Relaxed) > *limit);
            let why = too_many.then(|| Stopped::new("too many steps")).or_else(|| (self.0.ask)(bytes));
            if let Some(why) = why {
                self.stop(why);
            }
        }
        self.stopped()
    }

    fn stop(&self, why: Stopped) {
        let _ = self.0.stopped.set(why);
    }

    /// Whether the budget counts steps exactly.
    fn counts(&self) -> bool {
        self.0.steps.is_some()
    }

    /// Adds the steps of this thread to the count, if there is one, and asks the budget once in [`STEPS_PER_LOOK`] counted steps.
    fn look(&self) -> bool {
        if let Some((done, _)) = &self.0.steps {
            let own = DONE.replace(0);
            let before = done.fetch_add(own, Ordering::Relaxed);
            if before / STEPS_PER_LOOK == before.saturating_add(own) / STEPS_PER_LOOK {
                return self.stopped().is_some();
            }
        }
        self.ask().is_some()
    }
}

/// The budget of a thread, and whether its work may be ended; passed to the threads that work is spread over.
#[derive(Clone)]
pub(super) struct Scope {
    budget: Option<Budget>,
    limited: bool,
}

impl Scope {
    #[cfg(feature = "parallel")]
    pub(super) fn current() -> Self {
        Self { budget: Budget::current(), limited: LIMITED.get() }
    }

    pub(super) fn enter<R>(self, work: impl FnOnce() -> R) -> R {
        /// Puts back what was there, also where the work panics.
        struct Before(Scope, Option<usize>);
        impl Drop for Before {
            fn drop(&mut self) {
                let now = NOW.with(|now| std::mem::replace(&mut *now.borrow_mut(), self.0.budget.take()));
                LIMITED.set(self.0.limited);
                // Where steps are counted exactly, those done before belong to another count.
                if let (Some(now), Some(before)) = (now, self.1) {
                    now.look();
                    DONE.set(before);
                }
            }
        }
        let done = self.budget.as_ref().filter(|budget| budget.counts()).map(|_| DONE.replace(0));
        let budget = NOW.with(|now| std::mem::replace(&mut *now.borrow_mut(), self.budget));
        let _before = Before(Self { budget, limited: LIMITED.replace(self.limited) }, done);
        work()
    }
}

/// Does work that may be ended: loops in it that ask [`exhausted`] end early once the budget of this thread is used up.
///
/// # Errors
///
/// [`FaultKind::Stopped`] with the name of the call where the budget is used up, before the work or after it.
pub(crate) fn limited<R>(call: &'static str, work: impl FnOnce() -> R) -> Result<R, Fault> {
    let fault = |why: Stopped| Fault::of(call, FaultKind::Stopped(why));
    if let Some(why) = Budget::current().as_ref().and_then(Budget::stopped) {
        return Err(fault(why.clone()));
    }
    match interruptible(work) {
        (done, None) => Ok(done),
        (_, Some(why)) => Err(fault(why)),
    }
}

/// As [`limited`], but returns the partial result too, with the reason if the work was ended.
pub(crate) fn interruptible<R>(work: impl FnOnce() -> R) -> (R, Option<Stopped>) {
    // An allocation can fail without a budget too; that must become a fault.
    let Some(budget) = Budget::current() else { return Budget::new(|| None).within(|| interruptible(work)) };
    if budget.stopped().is_some() {
        DONE.set(STEPS_PER_LOOK);
    }
    let _before = Limited(LIMITED.replace(true));
    let done = work();
    (done, budget.stopped().cloned())
}

/// Runs code of the caller, such as a closure, which must not see the budget: it could not tell a partial result from a whole one.
pub(crate) fn unlimited<R>(work: impl FnOnce() -> R) -> R {
    let _before = Limited(LIMITED.replace(false));
    work()
}

/// The earlier value of [`LIMITED`], put back also where the work panics.
struct Limited(bool);

impl Drop for Limited {
    fn drop(&mut self) {
        LIMITED.set(self.0);
    }
}

/// Does work of at most so many steps of some ten nanoseconds; `None` where that was not enough, on however many threads it was done.
/// The budget around it applies too.
pub(crate) fn at_most<R>(steps: usize, work: impl FnOnce() -> R) -> Option<R> {
    let outer = Budget::current();
    let ask = move |bytes| outer.as_ref().and_then(|outer| outer.ask_for(bytes)).cloned();
    let few = Budget(Arc::new(Shared {
        ask: Box::new(ask),
        stopped: OnceLock::new(),
        steps: Some((AtomicUsize::new(0), steps)),
    }));
    let done = few.within(|| limited("at_most", work)).ok()?;
    few.ask().is_none().then_some(done)
}

/// Buffers smaller than this, in bytes, are allocated without asking.
const SMALL_BUFFER: usize = 1 << 20;

/// Allocates a buffer of equal values. Returns `None` if the budget or the machine refuses the memory; the work is then stopped, and the
/// caller must return early. Outside [`limited`], only the machine can refuse.
pub(crate) fn buffer<T: Clone>(value: T, len: usize) -> Option<Vec<T>> {
    let bytes = len.saturating_mul(size_of::<T>());
    (bytes < SMALL_BUFFER || has_room(bytes)).then(|| vec![value; len])
}

/// Returns whether this many bytes may be allocated; see [`buffer`].
pub(crate) fn has_room(bytes: usize) -> bool {
    let budget = Budget::current().filter(|_| LIMITED.get());
    if budget.as_ref().is_some_and(|budget| budget.ask_for(bytes).is_some()) {
        DONE.set(STEPS_PER_LOOK);
        return false;
    }
    let is_there = Vec::<u8>::new().try_reserve_exact(bytes).is_ok();
    if let Some(budget) = budget.filter(|_| !is_there) {
        let what = format!("the machine has no {} MB of memory left for this", bytes >> 20);
        budget.stop(Stopped { advice: "draw less".to_owned(), ..Stopped::new(what) });
        DONE.set(STEPS_PER_LOOK);
    }
    is_there
}

/// Counts work in steps of some ten nanoseconds. Returns `true` where the budget is used up and the loop must end; only ever inside [`limited`].
#[inline]
pub(crate) fn exhausted(steps: usize) -> bool {
    let done = DONE.get().saturating_add(steps);
    DONE.set(done);
    done >= STEPS_PER_LOOK && look()
}

#[cold]
fn look() -> bool {
    let stopped = LIMITED.get() && NOW.with(|now| now.borrow().as_ref().is_some_and(Budget::look));
    // Whoever asks next is answered at once.
    DONE.set(if stopped { STEPS_PER_LOOK } else { 0 });
    stopped
}

#[cfg(test)]
mod tests {
    use super::*;

    fn after(looks: usize) -> (Budget, Arc<AtomicUsize>) {
        let asked = Arc::new(AtomicUsize::new(0));
        let count = Arc::clone(&asked);
        let ask = move || (count.fetch_add(1, Ordering::Relaxed) >= looks).then(|| Stopped::new("enough"));
        (Budget::new(ask), asked)
    }

    #[test]
    fn a_budget_is_asked_now_and_then_and_remembers() {
        let (third, asked) = after(2);
        assert!(!exhausted(1 << 40), "without a budget work goes on");
        let mut steps = 0;
        let fault = third.within(|| {
            limited("knotted", || {
                while !exhausted(1) {
                    steps += 1;
                }
                assert!(exhausted(1) && exhausted(1));
                // Another one applies inside, and the first again after it.
                let other = Budget::new(|| None);
                assert!(other.within(|| limited("tied", || exhausted(STEPS_PER_LOOK))) == Ok(false));
                assert!(exhausted(STEPS_PER_LOOK));
            })
        });
        assert!((2 * STEPS_PER_LOOK..=3 * STEPS_PER_LOOK).contains(&steps), "{steps}");
        assert_eq!(fault.unwrap_err().to_string(), "`knotted`: enough");
        assert_eq!(asked.load(Ordering::Relaxed), 3);
        assert_eq!(
            third.within(|| limited("knotted", || 7)).map_err(|fault| fault.to_string()),
            Err("`knotted`: enough".to_owned())
        );
    }

    #[test]
    fn outside_of_a_limited_call_work_goes_on() {
        let (none, asked) = after(0);
        none.within(|| {
            assert!(!exhausted(1 << 40));
            let fault = limited("knotted", || unlimited(|| assert!(!exhausted(1 << 40))));
            assert_eq!(fault, Ok(()));
            assert!(limited("knotted", || assert!(exhausted(1 << 40))).is_err());
        });
        assert_eq!(asked.load(Ordering::Relaxed), 1);
    }

    #[test]
    fn large_buffers_are_asked_for_and_refused_as_faults() {
        let small = || Budget::with_memory(|bytes| (bytes > 1 << 24).then(|| Stopped::new("too much")));
        let made = |budget: Budget, len: usize| budget.within(|| limited("knotted", || buffer(0_u8, len)));
        assert_eq!(made(small(), 1 << 24).map(|buffer| buffer.map(|all| all.len())), Ok(Some(1 << 24)));
        assert_eq!(made(small(), (1 << 24) + 1).unwrap_err().to_string(), "`knotted`: too much");
        // Outside a limited call, the budget is not asked.
        assert!(small().within(|| buffer(0_u8, (1 << 24) + 1)).is_some());
        // A size that no machine has is a fault, with and without a budget.
        let told = "`knotted`: the machine has no 8796093022207 MB of memory left for this; draw less";
        for budget in [None, Some(Budget::new(|| None))] {
            let work =
                || limited("knotted", || (buffer([0_u64; 2], usize::MAX >> 5).is_some(), exhausted(1)));
            let fault = budget.map_or_else(work, |budget| budget.within(work)).unwrap_err();
            assert_eq!(fault.to_string(), told);
            assert!(!exhausted(STEPS_PER_LOOK));
        }
    }

    #[test]
    fn steps_are_counted_exactly_on_any_number_of_threads() {
        let work =
            |each: usize| super::super::threads::map(0..100, 1, |_| _ = (0..each).any(|_| exhausted(1)));
        for (limit, each, whole) in
            [(1_000_000, 10_000, true), (999_999, 10_000, false), (99, 1, false), (100, 1, true)]
        {
            let one = || at_most(limit, || work(each)).is_some();
            assert_eq!((one(), super::super::on_this_thread(one)), (whole, whole), "{limit} {each}");
        }
        assert!(!exhausted(STEPS_PER_LOOK));
    }
}
