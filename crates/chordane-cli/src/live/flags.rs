//! Calling off a run that goes on, from another thread, and telling how long it goes on already.

use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Arc, Mutex, PoisonError};
use std::time::{Duration, Instant};

use chordane::ground::{Budget, Stopped};
use tokio::sync::Notify;

/// What the thread that runs scores and those that talk to pages share.
#[derive(Clone, Debug, Default)]
pub(crate) struct Flags(Arc<Inside>);

#[derive(Debug, Default)]
struct Inside {
    since: Mutex<Option<Instant>>,
    stop: AtomicBool,
    /// Whether there is something to do, so that what nobody waits for is to end.
    hurry: AtomicBool,
    begun: Notify,
}

/// A run that takes no longer than this is not worth calling off for another.
const MIN_CANCEL_AGE: Duration = Duration::from_millis(250);

impl Flags {
    /// Does some work that can be called off.
    pub(crate) fn running<R>(&self, work: impl FnOnce() -> R) -> R {
        self.set(Some(Instant::now()));
        self.0.begun.notify_one();
        let done = self.within(false, work);
        self.set(None);
        done
    }

    /// As [`Flags::running`], for work that nobody waits for. `None` where it was called off.
    pub(crate) fn quietly<R>(&self, work: impl FnOnce() -> R) -> Option<R> {
        self.0.hurry.store(false, Ordering::Relaxed);
        let done = self.within(true, work);
        (!self.0.hurry.load(Ordering::Relaxed)).then_some(done)
    }

    fn within<R>(&self, quiet: bool, work: impl FnOnce() -> R) -> R {
        self.0.stop.store(false, Ordering::Relaxed);
        let shared = Arc::clone(&self.0);
        let stopped = move || {
            let ends = shared.stop.load(Ordering::Relaxed) || (quiet && shared.hurry.load(Ordering::Relaxed));
            let advice = "change the text or a knob to run it again".to_owned();
            ends.then(|| Stopped { advice, ..Stopped::new("the run was stopped") })
        };
        Budget::new(stopped).within(work)
    }

    fn set(&self, since: Option<Instant>) {
        *self.0.since.lock().unwrap_or_else(PoisonError::into_inner) = since;
    }

    /// How long the run goes on already.
    pub(crate) fn lasts(&self) -> Option<Duration> {
        self.0.since.lock().unwrap_or_else(PoisonError::into_inner).map(|since| since.elapsed())
    }

    /// Calls the run off.
    pub(crate) fn stop(&self) {
        self.0.stop.store(true, Ordering::Relaxed);
    }

    /// Calls the run off if it lasts, since another text is there.
    pub(crate) fn supersede(&self) {
        if self.lasts().is_some_and(|lasts| lasts > MIN_CANCEL_AGE) {
            self.stop();
        }
    }

    /// Calls off what nobody waits for, since there is something to do.
    pub(crate) fn hurry(&self) {
        self.0.hurry.store(true, Ordering::Relaxed);
    }

    /// Waits for a run to begin.
    pub(crate) async fn begun(&self) {
        self.0.begun.notified().await;
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Asks until it is called off.
    fn endless() {
        let begin = Instant::now();
        while Budget::current().is_none_or(|budget| budget.ask().is_none()) {
            assert!(begin.elapsed() < Duration::from_secs(30), "it is never called off");
            std::thread::sleep(Duration::from_millis(1));
        }
    }

    #[test]
    fn a_hurry_ends_only_what_nobody_waits_for() {
        let flags = Flags::default();
        assert_eq!(flags.quietly(|| 7), Some(7));
        let other = flags.clone();
        let later = std::thread::spawn(move || {
            std::thread::sleep(Duration::from_millis(40));
            other.hurry();
            std::thread::sleep(Duration::from_millis(40));
            other.stop();
        });
        assert_eq!(flags.quietly(endless), None);
        let begin = Instant::now();
        flags.running(endless);
        assert!(begin.elapsed() > Duration::from_millis(20));
        assert_eq!(flags.lasts(), None);
        later.join().unwrap();
        // What was asked for before does not end what begins after it.
        assert_eq!((flags.running(|| 8), flags.quietly(|| 9)), (8, Some(9)));
    }
}
