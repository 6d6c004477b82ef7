//! Calling off a run that goes on, from another thread, and telling how long it goes on already.

use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Arc, Mutex, PoisonError};
use std::time::{Duration, Instant};

use chordane::ground::Allowance;
use tokio::sync::Notify;

/// What the thread that runs scores and those that talk to pages share.
#[derive(Clone, Debug, Default)]
pub(crate) struct Flags(Arc<Inside>);

#[derive(Debug, Default)]
struct Inside {
    since: Mutex<Option<Instant>>,
    stop: AtomicBool,
    /// Whether nobody waits for what is done.
    quiet: AtomicBool,
    begun: Notify,
}

/// A run that takes no longer than this is not worth calling off for another.
const SHORT: Duration = Duration::from_millis(250);

impl Flags {
    /// Does some work that can be called off.
    pub(crate) fn running<R>(&self, work: impl FnOnce() -> R) -> R {
        self.set(Some(Instant::now()));
        self.0.begun.notify_one();
        let done = self.within(work);
        self.set(None);
        done
    }

    /// As [`Flags::running`], for work that nobody waits for. `None` where it was called off.
    pub(crate) fn quietly<R>(&self, work: impl FnOnce() -> R) -> Option<R> {
        self.0.quiet.store(true, Ordering::Relaxed);
        let done = self.within(work);
        self.0.quiet.store(false, Ordering::Relaxed);
        (!self.0.stop.load(Ordering::Relaxed)).then_some(done)
    }

    fn within<R>(&self, work: impl FnOnce() -> R) -> R {
        self.0.stop.store(false, Ordering::Relaxed);
        let shared = Arc::clone(&self.0);
        let stopped = move || {
            shared
                .stop
                .load(Ordering::Relaxed)
                .then(|| "the run was stopped; change the text or a knob to run it again".to_owned())
        };
        Allowance::new(stopped).within(work)
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
        if self.lasts().is_some_and(|lasts| lasts > SHORT) {
            self.stop();
        }
    }

    /// Calls off what nobody waits for, since there is something to do.
    pub(crate) fn hurry(&self) {
        if self.0.quiet.load(Ordering::Relaxed) {
            self.stop();
        }
    }

    /// Waits for a run to begin.
    pub(crate) async fn begun(&self) {
        self.0.begun.notified().await;
    }
}
