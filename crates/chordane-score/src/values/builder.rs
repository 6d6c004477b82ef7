//! Pens, groups, sheets and dice: what a call changes where it stands.
//!
//! The words that change one in place give that same one back, so that `pen = pen.line(p)`, a plain `pen.line(p)` and a
//! chain of calls all draw on. A copy in another variable goes its own way. Growing one in a loop is linear.

use std::sync::{Arc, Mutex, PoisonError};

use chordane::prelude::*;

/// A pen, group or sheet. What a call gives back is the same one; a copy in another variable goes its own way.
#[derive(Debug)]
pub(crate) struct Builder<T>(Arc<Mutex<T>>);

/// The engine clones a value when it is put into another variable.
impl<T: Clone> Clone for Builder<T> {
    fn clone(&self) -> Self {
        Self::new(self.get())
    }
}

impl<T: Clone> Builder<T> {
    pub(crate) fn new(inside: T) -> Self {
        Self(Arc::new(Mutex::new(inside)))
    }

    /// What it has become by now, as a value of its own.
    pub(crate) fn get(&self) -> T {
        self.look(T::clone)
    }

    /// What it has become, taken out where nothing else holds on to it.
    pub(crate) fn into_inside(self) -> T {
        match Arc::try_unwrap(self.0) {
            Ok(inside) => inside.into_inner().unwrap_or_else(PoisonError::into_inner),
            Err(shared) => Self(shared).get(),
        }
    }

    pub(crate) fn look<R>(&self, look: impl FnOnce(&T) -> R) -> R {
        look(&self.0.lock().unwrap_or_else(PoisonError::into_inner))
    }

    /// The same one again, for what a call gives back.
    pub(crate) fn same(&self) -> Self {
        Self(Arc::clone(&self.0))
    }

    /// Changes it in place.
    pub(crate) fn with<R>(&self, change: impl FnOnce(&mut T) -> R) -> R {
        change(&mut self.0.lock().unwrap_or_else(PoisonError::into_inner))
    }

    /// Changes it where it stands, and gives it back. `empty` stands in for a moment.
    fn change(self, empty: impl FnOnce() -> T, change: impl FnOnce(T) -> T) -> Self {
        {
            let mut inside = self.0.lock().unwrap_or_else(PoisonError::into_inner);
            *inside = change(std::mem::replace(&mut *inside, empty()));
        }
        self
    }
}

impl Builder<Pen> {
    /// The pen drawn on with.
    pub(crate) fn draw(self, on: impl FnOnce(Pen) -> Pen) -> Self {
        self.change(|| start(Point::ZERO), on)
    }
}

impl Builder<Group> {
    /// The group with more in it.
    pub(crate) fn grow(self, more: impl FnOnce(Group) -> Group) -> Self {
        self.change(group, more)
    }
}

impl Builder<Sheet> {
    /// The sheet with more on it.
    pub(crate) fn set(self, change: impl FnOnce(Sheet) -> Sheet) -> Self {
        self.change(|| sheet(1.0, 1.0), change)
    }
}
