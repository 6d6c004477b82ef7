//! Work spread over threads, with the feature `parallel`; one after the other without it. What comes out is the same. What the
//! work may take holds on all of them.

use std::cell::Cell;
use std::ops::Range;

#[cfg(feature = "parallel")]
use super::allowance::{current, entered};

thread_local! {
    /// Whether work stays on this thread.
    static ALONE: Cell<bool> = const { Cell::new(false) };
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
            ALONE.set(self.0);
        }
    }
    let _before = Before(ALONE.replace(true));
    work()
}

/// What a function gives for each number of a range, in order. A thread is given so many at a time.
#[cfg(feature = "parallel")]
pub(crate) fn map<T: Send>(
    range: Range<usize>,
    at_a_time: usize,
    one: impl Fn(usize) -> T + Send + Sync,
) -> Vec<T> {
    use rayon::prelude::*;
    if ALONE.get() {
        return range.map(one).collect();
    }
    let allowance = current();
    let one = |i| entered(allowance.clone(), || one(i));
    // Left alone, a thread keeps a large share to itself to the end while the others have nothing left to do.
    range.into_par_iter().with_min_len(at_a_time).with_max_len(at_a_time).map(one).collect()
}

/// What a function gives for each number of a range, in order.
#[cfg(not(feature = "parallel"))]
pub(crate) fn map<T>(range: Range<usize>, _: usize, one: impl Fn(usize) -> T) -> Vec<T> {
    range.map(one).collect()
}

/// Calls a function with the number of each chunk of a slice and the chunk, to change it. What `begin` gives is used again
/// from chunk to chunk.
#[cfg(feature = "parallel")]
pub(crate) fn change_chunks<T: Send, S>(
    slice: &mut [T],
    size: usize,
    begin: impl Fn() -> S + Send + Sync,
    change: impl Fn(&mut S, usize, &mut [T]) + Send + Sync,
) {
    use rayon::prelude::*;
    if ALONE.get() {
        let mut state = begin();
        slice.chunks_mut(size).enumerate().for_each(|(number, chunk)| change(&mut state, number, chunk));
        return;
    }
    let allowance = current();
    slice.par_chunks_mut(size).enumerate().with_max_len(1).for_each_init(begin, |state, (number, chunk)| {
        entered(allowance.clone(), || change(state, number, chunk));
    });
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
