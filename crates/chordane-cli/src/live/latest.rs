//! The latest marks of a stream, for a reader that may be slower than the stream.

use std::sync::{Mutex, PoisonError};

use chordane_score::MarkFrame;

/// The latest frame of marks, until somebody takes it. A frame that is not taken before the next one comes in is left out.
#[derive(Debug, Default)]
pub(crate) struct LatestMarks(Mutex<Option<NewMarks>>);

/// A frame of marks, with the number of unreadable lines and of dropped frames so far.
#[derive(Clone, Debug)]
pub(crate) struct NewMarks {
    pub(crate) frame: MarkFrame,
    pub(crate) skipped: usize,
    pub(crate) left_out: usize,
}

impl LatestMarks {
    /// Puts in a frame. Returns whether the frame before it was taken.
    pub(crate) fn put(&self, new: NewMarks) -> bool {
        self.0.lock().unwrap_or_else(PoisonError::into_inner).replace(new).is_none()
    }

    pub(crate) fn take(&self) -> Option<NewMarks> {
        self.0.lock().unwrap_or_else(PoisonError::into_inner).take()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn of_frames_that_come_too_fast_the_latest_is_there() {
        let latest = LatestMarks::default();
        let marks = |left_out| NewMarks { frame: MarkFrame::default(), skipped: 0, left_out };
        assert!(latest.put(marks(0)));
        assert!(!latest.put(marks(1)) && !latest.put(marks(2)));
        assert_eq!(latest.take().unwrap().left_out, 2);
        assert!(latest.take().is_none() && latest.put(marks(2)));
    }
}
