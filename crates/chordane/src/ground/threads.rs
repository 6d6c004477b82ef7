//! Work spread over threads, with the feature `parallel`; one after the other without it. What comes out is the same. What the
//! work may take holds on all of them.

use std::ops::Range;

#[cfg(feature = "parallel")]
use super::allowance::{current, entered};

/// What a function gives for each number of a range, in order. A thread is given so many at a time.
#[cfg(feature = "parallel")]
pub(crate) fn map<T: Send>(
    range: Range<usize>,
    at_a_time: usize,
    one: impl Fn(usize) -> T + Send + Sync,
) -> Vec<T> {
    use rayon::prelude::*;
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
