//! Work spread over threads, with the feature `parallel`; one after the other without it. What comes out is the same. The
//! budget applies on all of them.

use std::cell::Cell;
use std::ops::Range;
#[cfg(feature = "parallel")]
use std::sync::{Mutex, MutexGuard, PoisonError};

#[cfg(feature = "parallel")]
use super::budget::Scope;

thread_local! {
    /// Whether work stays on this thread.
    static SEQUENTIAL: Cell<bool> = const { Cell::new(false) };
}

/// Does some work on this thread alone: nothing of it is spread over other ones. What comes out is the same. Needed where a thread that others of the pool
/// wait for begins work of its own, so that it does not wait for them in turn.
///
/// ```
/// use chordane::ground::on_this_thread;
/// use chordane::prelude::*;
/// let area = on_this_thread(|| circle((0.0, 0.0), 9.0).area())?;
/// assert!((area - 254.469).abs() < 1e-3);
/// # Ok::<(), Fault>(())
/// ```
pub fn on_this_thread<R>(work: impl FnOnce() -> R) -> R {
    /// Puts back what was there, also where the work panics.
    struct Before(bool);
    impl Drop for Before {
        fn drop(&mut self) {
            SEQUENTIAL.set(self.0);
        }
    }
    let _before = Before(SEQUENTIAL.replace(true));
    work()
}

/// What a function gives for each number of a range, in order. A thread is given so many at a time.
#[cfg(feature = "parallel")]
pub(crate) fn map<T: Send>(
    range: Range<usize>,
    at_a_time: usize,
    one: impl Fn(usize) -> T + Send + Sync,
) -> Vec<T> {
    if SEQUENTIAL.get() {
        return range.map(one).collect();
    }
    let size = at_a_time.max(1);
    let chunks: Vec<_> = range.clone().step_by(size).map(|begin| (begin, Mutex::new(Vec::new()))).collect();
    each(chunks.len(), &|number| {
        if let Some((begin, made)) = chunks.get(number) {
            *locked(made) = (*begin..begin.saturating_add(size).min(range.end)).map(&one).collect();
        }
    });
    let mut all = Vec::with_capacity(range.len());
    for (_, made) in chunks {
        all.append(&mut made.into_inner().unwrap_or_else(PoisonError::into_inner));
    }
    all
}

/// What a function gives for each number of a range, in order.
#[cfg(not(feature = "parallel"))]
pub(crate) fn map<T>(range: Range<usize>, _: usize, one: impl Fn(usize) -> T) -> Vec<T> {
    range.map(one).collect()
}

/// Calls a function with the number of each chunk of a slice and the chunk, to change it. What `begin` gives is used again
/// from chunk to chunk.
#[cfg(feature = "parallel")]
pub(crate) fn change_chunks<T: Send, S: Send>(
    slice: &mut [T],
    size: usize,
    begin: impl Fn() -> S + Send + Sync,
    change: impl Fn(&mut S, usize, &mut [T]) + Send + Sync,
) {
    if SEQUENTIAL.get() {
        let mut state = begin();
        slice.chunks_mut(size).enumerate().for_each(|(number, chunk)| change(&mut state, number, chunk));
        return;
    }
    let chunks: Vec<_> = slice.chunks_mut(size).map(Mutex::new).collect();
    // One state per thread at work, reused from chunk to chunk.
    let states = Mutex::new(Vec::new());
    each(chunks.len(), &|number| {
        let free = locked(&states).pop();
        let mut state = free.unwrap_or_else(&begin);
        if let Some(chunk) = chunks.get(number) {
            change(&mut state, number, &mut locked(chunk));
        }
        locked(&states).push(state);
    });
}

/// Calls a function with each number below `count`, on all threads. Not generic: every copy would bring its own copy of the scheduler.
#[cfg(feature = "parallel")]
fn each(count: usize, work: &(dyn Fn(usize) + Sync)) {
    use rayon::prelude::*;
    let scope = Scope::current();
    // Without this a thread keeps a long run of numbers to itself while the others have run out of work.
    (0..count).into_par_iter().with_max_len(1).for_each(|number| scope.clone().enter(|| work(number)));
}

#[cfg(feature = "parallel")]
fn locked<T>(value: &Mutex<T>) -> MutexGuard<'_, T> {
    value.lock().unwrap_or_else(PoisonError::into_inner)
}

/// Calls a function with the number of each chunk of a slice and the chunk, to change it. What `begin` gives is used again
/// from chunk to chunk.
#[cfg(not(feature = "parallel"))]
pub(crate) fn change_chunks<T, S>(
    slice: &mut [T],
    size: usize,
    begin: impl Fn() -> S,
    change: impl Fn(&mut S, usize, &mut [T]),
) {
    let mut state = begin();
    slice.chunks_mut(size).enumerate().for_each(|(number, chunk)| change(&mut state, number, chunk));
}
