//! Iterators with a known length over parts whose own lengths are not.

use std::iter::FusedIterator;

/// An iterator with the number of its remaining items.
#[derive(Clone, Debug)]
pub(super) struct Counted<I> {
    inner: I,
    left: usize,
}

impl<I> Counted<I> {
    /// Wraps an iterator that yields `left` items.
    pub(super) fn new(inner: I, left: usize) -> Self {
        Self { inner, left }
    }
}

impl<I: Iterator> Iterator for Counted<I> {
    type Item = I::Item;

    #[inline]
    fn next(&mut self) -> Option<I::Item> {
        let next = self.inner.next()?;
        self.left -= 1;
        Some(next)
    }

    fn size_hint(&self) -> (usize, Option<usize>) {
        (self.left, Some(self.left))
    }

    #[inline]
    fn fold<B, F: FnMut(B, I::Item) -> B>(self, first: B, f: F) -> B {
        self.inner.fold(first, f)
    }
}

impl<I: DoubleEndedIterator> DoubleEndedIterator for Counted<I> {
    #[inline]
    fn next_back(&mut self) -> Option<I::Item> {
        let next = self.inner.next_back()?;
        self.left -= 1;
        Some(next)
    }
}

impl<I: Iterator> ExactSizeIterator for Counted<I> {}

impl<I: FusedIterator> FusedIterator for Counted<I> {}
