//! What work may take. Whoever starts long work can say when it must stop; the work asks as it goes on.

use std::cell::{Cell, RefCell};
use std::fmt;
use std::sync::atomic::{AtomicUsize, Ordering};
use std::sync::{Arc, OnceLock};

/// Says when work must stop, and why: for the time, for the memory, or because nobody waits for it any more.
///
/// What is called within an allowance asks it again and again, on all threads that it uses. Once it says why, the work ends
/// at once: paths, sheets and pictures made after that carry a fault with that reason. Without an allowance work goes on until it is done.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::ground::Allowance;
/// use std::time::{Duration, Instant};
/// let begin = Instant::now();
/// let short = Allowance::new(move || (begin.elapsed() > Duration::from_millis(20)).then(|| "that takes too long".to_owned()));
/// let scribble = Path::closed((0..20_000).map(|i| polar(deg(f64::from(i) * 137.6), f64::from(i % 977))));
/// let tidy = short.within(|| scribble.simplified());
/// assert_eq!(tidy.sound().unwrap_err().to_string(), "`simplified`: that takes too long");
/// assert_eq!(short.stopped(), Some("that takes too long"));
/// ```
#[derive(Clone)]
pub struct Allowance(Arc<Shared>);

struct Shared {
    look: Box<dyn Fn() -> Option<String> + Send + Sync>,
    stopped: OnceLock<String>,
}

impl fmt::Debug for Allowance {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        out.debug_struct("Allowance").field("stopped", &self.0.stopped.get()).finish_non_exhaustive()
    }
}

thread_local! {
    /// What the work on this thread may take.
    static NOW: RefCell<Option<Allowance>> = const { RefCell::new(None) };
    /// How much was done since it was last asked.
    static DONE: Cell<usize> = const { Cell::new(0) };
}

/// It is asked after so many steps of some ten nanoseconds each.
const STEPS_A_LOOK: usize = 10_000;

impl Allowance {
    /// An allowance that asks a function, which says why work must stop, or nothing. It is asked several thousand times a second.
    #[must_use]
    pub fn new(look: impl Fn() -> Option<String> + Send + Sync + 'static) -> Self {
        Self(Arc::new(Shared { look: Box::new(look), stopped: OnceLock::new() }))
    }

    /// Does some work within the allowance, in place of one that may hold already.
    pub fn within<R>(&self, work: impl FnOnce() -> R) -> R {
        entered(Some(self.clone()), work)
    }

    /// The allowance that holds on this thread, to be handed to another, or to be asked by one that holds in its place.
    ///
    /// ```
    /// use chordane::ground::Allowance;
    /// assert!(Allowance::current().is_none());
    /// Allowance::new(|| None).within(|| assert!(Allowance::current().is_some()));
    /// ```
    #[must_use]
    pub fn current() -> Option<Self> {
        current()
    }

    /// Why work was stopped, if it was.
    #[must_use]
    pub fn stopped(&self) -> Option<&str> {
        self.0.stopped.get().map(String::as_str)
    }

    /// Asks at once whether work must stop, and why.
    #[must_use]
    pub fn ask(&self) -> Option<&str> {
        if self.stopped().is_none()
            && let Some(why) = (self.0.look)()
        {
            let _ = self.0.stopped.set(why);
        }
        self.stopped()
    }
}

/// Does some work within an allowance, or without one.
pub(crate) fn entered<R>(allowance: Option<Allowance>, work: impl FnOnce() -> R) -> R {
    /// Puts back what was there, also where the work panics.
    struct Before(Option<Allowance>);
    impl Drop for Before {
        fn drop(&mut self) {
            NOW.with(|now| *now.borrow_mut() = self.0.take());
        }
    }
    let _before = Before(NOW.with(|now| std::mem::replace(&mut *now.borrow_mut(), allowance)));
    work()
}

/// Does some work that takes at most so many steps of some ten nanoseconds on this thread; `None` where that was not enough.
/// Whatever else the work may take holds too.
pub(crate) fn at_most<R>(steps: usize, work: impl FnOnce() -> R) -> Option<R> {
    let (outer, looks) = (current(), AtomicUsize::new(0));
    let few = Allowance::new(move || {
        let why = outer.as_ref().and_then(Allowance::ask).map(str::to_owned);
        let all = looks.fetch_add(1, Ordering::Relaxed) >= steps / STEPS_A_LOOK;
        why.or_else(|| all.then(|| "it takes too long".to_owned()))
    });
    // What was done before does not count here, so that the same work is stopped at the same place; but it counts on.
    let before = DONE.replace(0);
    let done = few.within(work);
    DONE.set(before.saturating_add(DONE.get()));
    few.stopped().is_none().then_some(done)
}

/// The allowance that holds on this thread, to be handed to another.
pub(crate) fn current() -> Option<Allowance> {
    NOW.with(|now| now.borrow().clone())
}

/// Says that some work was done, in steps of some ten nanoseconds, and asks now and then whether there is to be no more of it.
#[inline]
pub(crate) fn spent(steps: usize) -> bool {
    let done = DONE.get().saturating_add(steps);
    if done < STEPS_A_LOOK {
        DONE.set(done);
        return false;
    }
    asked()
}

#[cold]
fn asked() -> bool {
    DONE.set(0);
    let stopped = NOW.with(|now| now.borrow().as_ref().is_some_and(|now| now.ask().is_some()));
    if stopped {
        // Whoever asks next is told at once.
        DONE.set(STEPS_A_LOOK);
    }
    stopped
}

/// Why the work on this thread was stopped, if it was.
pub(crate) fn stopped() -> Option<String> {
    // Whether nothing was ever stopped is seen without a look.
    NOW.with(|now| now.borrow().as_ref().and_then(|now| now.stopped().map(str::to_owned)))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn it_is_asked_now_and_then_and_remembers() {
        let asked = Arc::new(AtomicUsize::new(0));
        let count = Arc::clone(&asked);
        let third =
            Allowance::new(move || (count.fetch_add(1, Ordering::Relaxed) == 2).then(|| "enough".to_owned()));
        assert!(!spent(1 << 40), "without an allowance work goes on");
        third.within(|| {
            let mut steps = 0;
            while !spent(1) {
                steps += 1;
            }
            assert!((2 * STEPS_A_LOOK..=3 * STEPS_A_LOOK).contains(&steps), "{steps}");
            assert!(spent(1) && spent(1));
            assert_eq!(stopped().as_deref(), Some("enough"));
            // Another one holds inside, and the first again after it.
            Allowance::new(|| None).within(|| assert!(!spent(STEPS_A_LOOK) && stopped().is_none()));
            assert!(spent(STEPS_A_LOOK));
        });
        assert_eq!(asked.load(Ordering::Relaxed), 3);
        let steps = |most: usize| {
            at_most(most, || {
                for _ in 0..5 * STEPS_A_LOOK {
                    if spent(1) {
                        break;
                    }
                }
                "done"
            })
        };
        assert_eq!((steps(7 * STEPS_A_LOOK), steps(3 * STEPS_A_LOOK)), (Some("done"), None));
        assert_eq!((third.stopped(), stopped()), (Some("enough"), None));
        assert!(!spent(STEPS_A_LOOK));
    }
}
