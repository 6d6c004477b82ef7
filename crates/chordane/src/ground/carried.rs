//! How values carry their first fault, and the checks that note one.

use std::sync::Arc;

use super::{Fault, FaultKind, limited};

/// The slot in which a value keeps the first fault of its making: empty by default. It is seen by `sound`, and by everything that leaves the library.
///
/// ```
/// use chordane::prelude::*;
/// let hem = Style { opacity: 0.5, ..style().stroke("no such colour", 2.0) };
/// assert!(hem.sound().is_err());
/// ```
#[derive(Clone, Debug, Default, PartialEq)]
pub struct FaultSlot(Option<Arc<Fault>>);

/// A value with a fault cannot be serialised.
#[cfg(feature = "serde")]
impl serde::Serialize for FaultSlot {
    fn serialize<S: serde::Serializer>(&self, to: S) -> Result<S::Ok, S::Error> {
        self.sound().map_err(serde::ser::Error::custom)?;
        to.serialize_unit()
    }
}

impl FaultSlot {
    #[cfg(feature = "serde")]
    pub(crate) fn is_empty(&self) -> bool {
        self.0.is_none()
    }

    /// A slot that holds a fault.
    pub(crate) fn of(fault: Fault) -> Self {
        Self(Some(Arc::new(fault)))
    }

    /// Remembers the fault unless there is one already.
    #[cold]
    pub(crate) fn note(&mut self, fault: Fault) {
        if self.0.is_none() {
            self.0 = Some(Arc::new(fault));
        }
    }

    /// Takes over the other's fault unless there is one already.
    pub(crate) fn take_from(&mut self, other: &Self) {
        if self.0.is_none() && other.0.is_some() {
            self.0.clone_from(&other.0);
        }
    }

    pub(crate) fn get(&self) -> Option<&Fault> {
        self.0.as_deref()
    }

    /// `Ok` when nothing went wrong.
    pub(crate) fn sound(&self) -> Result<(), Fault> {
        self.0.as_deref().map_or(Ok(()), |fault| Err(fault.clone()))
    }

    /// Notes a fault when the number is not finite; true when it is sound.
    pub(crate) fn finite(&mut self, call: &'static str, what: &'static str, value: f64) -> bool {
        if !value.is_finite() {
            self.note(Fault::of(call, FaultKind::NotFinite { what, value }));
        }
        value.is_finite()
    }

    /// Notes a fault when the number is not finite or negative; true when it is sound.
    pub(crate) fn not_negative(&mut self, call: &'static str, what: &'static str, value: f64) -> bool {
        let finite = self.finite(call, what, value);
        if finite && value < 0.0 {
            self.note(Fault::of(call, FaultKind::Negative { what, value }));
        }
        finite && value >= 0.0
    }

    /// Notes a fault when a number is zero, below it or not finite; true when it is sound.
    pub(crate) fn positive(&mut self, call: &'static str, what: &'static str, value: f64) -> bool {
        let finite = self.finite(call, what, value);
        if finite && value <= 0.0 {
            self.note(Fault::of(call, FaultKind::NotPositive { what, value }));
        }
        finite && value > 0.0
    }

    /// Notes a fault when a number is not in a range, both ends included; true when it is sound.
    pub(crate) fn in_range(
        &mut self,
        call: &'static str,
        what: &'static str,
        value: f64,
        low: f64,
        high: f64,
    ) -> bool {
        let finite = self.finite(call, what, value);
        let within = (low..=high).contains(&value);
        if finite && !within {
            self.note(Fault::of(call, FaultKind::OutOfRange { what, value, low, high }));
        }
        within
    }

    /// Records a fault if `count` exceeds `limit`; returns `true` if it does not.
    pub(crate) fn at_most(
        &mut self,
        call: &'static str,
        what: &'static str,
        count: usize,
        limit: usize,
    ) -> bool {
        if count > limit {
            self.note(Fault::of(call, FaultKind::TooMany { what, count, limit }));
        }
        count <= limit
    }

    /// Does work that a budget may end; see [`limited`]. Where it is used up, notes that fault and returns `None`.
    pub(crate) fn limited<R>(&mut self, call: &'static str, work: impl FnOnce() -> R) -> Option<R> {
        limited(call, work).map_err(|stopped| self.note(stopped)).ok()
    }

    /// Notes a fault when a coordinate is not finite; true when the point is sound.
    pub(crate) fn point(&mut self, call: &'static str, point: glam::DVec2) -> bool {
        if !point.is_finite() {
            self.note(Fault::of(call, FaultKind::PointNotFinite { x: point.x, y: point.y }));
        }
        point.is_finite()
    }
}
