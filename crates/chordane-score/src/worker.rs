//! Threads with a large stack, kept from run to run: the engine recurses as deep as a score is nested.

use std::panic::{AssertUnwindSafe, catch_unwind, resume_unwind};
use std::sync::mpsc::{self, SendError, Sender};
use std::sync::{Mutex, MutexGuard, PoisonError};
use std::thread;

use chordane::ground::{Budget, on_this_thread};

/// The stack that the engine may need where expressions, functions and values are nested as deep as they may be. Only
/// what is used of it takes memory.
const STACK: usize = 512 << 20;

/// Some work, which returns how its result is handed over.
type Job = Box<dyn FnOnce() -> Box<dyn FnOnce()> + Send>;

/// The workers that wait for a job.
static IDLE: Mutex<Vec<Sender<Job>>> = Mutex::new(Vec::new());

fn idle() -> MutexGuard<'static, Vec<Sender<Job>>> {
    IDLE.lock().unwrap_or_else(PoisonError::into_inner)
}

/// Starts a worker; `None` where there is no room for one.
fn spawn() -> Option<Sender<Job>> {
    let (send, jobs) = mpsc::channel::<Job>();
    let own = send.clone();
    let max_idle = thread::available_parallelism().map_or(1, usize::from);
    let work = move || {
        while let Ok(job) = jobs.recv() {
            let hand_over = job();
            let goes_on = {
                let mut idle = idle();
                let room = idle.len() < max_idle;
                if room {
                    idle.push(own.clone());
                }
                room
            };
            // Whoever gets the result finds this worker waiting.
            hand_over();
            if !goes_on {
                break;
            }
        }
    };
    thread::Builder::new().name("score".to_owned()).stack_size(STACK).spawn(work).ok().map(|_| send)
}

/// Returns `true` on a thread of the pool.
fn in_pool() -> bool {
    #[cfg(feature = "parallel")]
    return rayon::current_thread_index().is_some();
    #[cfg(not(feature = "parallel"))]
    false
}

/// Does some work on a thread with a large stack, within the budget of this one.
pub(crate) fn on_large_stack<R: Send + 'static>(work: impl FnOnce() -> R + Send + 'static) -> R {
    let outer = Budget::current();
    // A thread of the pool waits here: if the work waited for the pool in turn, both would wait for ever.
    let alone = in_pool();
    let within = move || match outer {
        Some(outer) => outer.within(work),
        None => work(),
    };
    let (made, result) = mpsc::channel();
    let job: Job = Box::new(move || {
        let done = catch_unwind(AssertUnwindSafe(|| if alone { on_this_thread(within) } else { within() }));
        // Nobody waits for it only where this thread has panicked itself.
        Box::new(move || drop(made.send(done)))
    });
    let unsent = match idle().pop().or_else(spawn) {
        Some(worker) => worker.send(job).err().map(|SendError(job)| job),
        None => Some(job),
    };
    if let Some(job) = unsent {
        job()();
    }
    match result.recv() {
        Ok(done) => done.unwrap_or_else(|panic| resume_unwind(panic)),
        Err(_) => unreachable!("a job hands its result over"),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_worker_is_kept_and_outlives_a_panic() {
        let number = || on_large_stack(|| thread::current().id());
        let first = number();
        let panic = std::panic::catch_unwind(|| on_large_stack(|| panic!("torn")));
        assert_eq!(panic.unwrap_err().downcast_ref::<&str>(), Some(&"torn"));
        assert_eq!((number(), number()), (first, first));
    }
}
