//! Shapes that frames of a clip have in common: flattened once, not for each frame.

use std::fmt;
use std::sync::Mutex;

use super::pixels::{DrawError, PixelOptions, Pixels};
use super::reuse::{KnownShapes, Reuse};
use crate::sheet::Sheet;

/// The shapes that two frames of a clip have in common, as they are filled: what stands still is not flattened again for the others.
///
/// The pixels are the same with and without. What moves costs as much as before and a look at its numbers.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::raster::StillShapes;
/// let frame = |phase: f64| {
///     sheet(64.0, 48.0).add(circle((9.0, 9.0), 6.0).fill("gold")).add(circle((swing(phase, 9.0, 50.0), 30.0), 6.0).fill("teal"))
/// };
/// let options = PixelOptions::default();
/// let still = StillShapes::of([&frame(0.0), &frame(0.1)], &options)?;
/// assert_eq!(still.len(), 1);
/// assert_eq!(frame(0.4).pixels_with_still(&still, &options)?, frame(0.4).pixels_with(&options)?);
/// # Ok::<(), chordane::raster::DrawError>(())
/// ```
#[derive(Clone, Default)]
pub struct StillShapes {
    known: KnownShapes,
}

impl fmt::Debug for StillShapes {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        out.debug_struct("StillShapes").field("len", &self.len()).finish_non_exhaustive()
    }
}

impl StillShapes {
    /// The shapes that two frames have in common, drawn with some options. Those with the same options gain by them.
    ///
    /// # Errors
    ///
    /// As [`Sheet::pixels_with`], for either of the frames.
    pub fn of(frames: [&Sheet; 2], options: &PixelOptions) -> Result<Self, DrawError> {
        let seen = |frame: &Sheet| -> Result<KnownShapes, DrawError> {
            let gathered = Mutex::new(KnownShapes::new());
            Pixels::planned(frame, options, Some(Reuse::Gather(&gathered)))?;
            Ok(gathered.into_inner().unwrap_or_default())
        };
        let (mut known, second) = (seen(frames[0])?, seen(frames[1])?);
        known.retain(|number, shape| second.get(number).is_some_and(|other| other.same_source(shape)));
        Ok(Self { known })
    }

    /// How many there are.
    #[must_use]
    pub fn len(&self) -> usize {
        self.known.len()
    }

    /// Whether there is none.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        self.known.is_empty()
    }
}

impl Sheet {
    /// As [`Sheet::pixels_with`], without flattening again what is among the still shapes.
    ///
    /// # Errors
    ///
    /// As [`Sheet::pixels_with`].
    pub fn pixels_with_still(
        &self,
        still: &StillShapes,
        options: &PixelOptions,
    ) -> Result<Pixels, DrawError> {
        self.drawn(options, Some(Reuse::Known(&still.known)))
    }
}
