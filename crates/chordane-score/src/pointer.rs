//! The pointer as an input to a score, and a track of where it was.

use std::sync::Arc;

use chordane::number::Point;

/// Where a pointer is, and whether it is down.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct Pointer {
    /// Where it is, in the sheet's coordinates.
    pub at: Point,
    /// Whether its button is pressed, or a finger touches.
    pub down: bool,
}

impl Pointer {
    /// A pointer at a place that is not down.
    #[must_use]
    pub fn at(at: impl Into<Point>) -> Self {
        Self { at: at.into(), down: false }
    }

    /// A pointer that is down at a place.
    #[must_use]
    pub fn down(at: impl Into<Point>) -> Self {
        Self { at: at.into(), down: true }
    }
}

/// Where a pointer was at which time: what was driven by hand once can be drawn again, at any rate.
///
/// ```
/// use chordane_score::{Pointer, PointerTrack};
/// let track = PointerTrack::new([(0.0, Pointer::at((0.0, 0.0))), (2.0, Pointer::down((10.0, 40.0)))]);
/// assert_eq!(track.at(0.5), Pointer::at((2.5, 10.0)));
/// assert_eq!((track.at(9.0), track.seconds()), (Pointer::down((10.0, 40.0)), 2.0));
/// ```
#[derive(Clone, Debug, Default, PartialEq)]
pub struct PointerTrack {
    samples: Arc<[(f64, Pointer)]>,
}

impl PointerTrack {
    /// A track of what was seen at some times, in seconds. They are put in order; what is not finite is left out.
    #[must_use]
    pub fn new(samples: impl IntoIterator<Item = (f64, Pointer)>) -> Self {
        let sound = |(seconds, pointer): &(f64, Pointer)| seconds.is_finite() && pointer.at.is_finite();
        let mut samples: Vec<(f64, Pointer)> = samples.into_iter().filter(sound).collect();
        samples.sort_by(|a, b| a.0.total_cmp(&b.0));
        Self { samples: samples.into() }
    }

    /// The pointer at a time: on the straight way between the samples around it, and down or up as it was last; before the first and after the last
    /// as in those. Of an empty track, up at the origin.
    #[must_use]
    pub fn at(&self, seconds: f64) -> Pointer {
        let behind = self.samples.partition_point(|(time, _)| *time <= seconds);
        let before = behind.checked_sub(1).and_then(|at| self.samples.get(at));
        match (before, self.samples.get(behind)) {
            (Some((from, a)), Some((to, b))) => {
                Pointer { at: a.at.lerp(b.at, (seconds - from) / (to - from)), down: a.down }
            }
            (Some((_, only)), None) | (None, Some((_, only))) => *only,
            (None, None) => Pointer::default(),
        }
    }

    /// The samples in order.
    #[must_use]
    pub fn samples(&self) -> &[(f64, Pointer)] {
        &self.samples
    }

    /// When the last sample was taken.
    #[must_use]
    pub fn seconds(&self) -> f64 {
        self.samples.last().map_or(0.0, |(seconds, _)| *seconds)
    }
}
