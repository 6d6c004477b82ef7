//! Shapes that frames of a clip have in common: flattened once, not for each frame.

use std::collections::HashMap;
use std::fmt;
use std::hash::{DefaultHasher, Hash, Hasher};
use std::sync::Mutex;

use super::pixels::{DrawError, PixelOptions, Pixels};
use crate::path::{Affine, Path};
use crate::reshape::{FlatPath, Outline};
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
    known: HashMap<u64, Known>,
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
        let seen = |frame: &Sheet| -> Result<HashMap<u64, Known>, DrawError> {
            let gathered = Mutex::new(HashMap::new());
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
        self.drawn(options, Some(Reuse::Known(still)))
    }
}

/// What is done with flattened shapes.
#[derive(Clone, Copy)]
pub(super) enum Reuse<'s> {
    Gather(&'s Mutex<HashMap<u64, Known>>),
    Known(&'s StillShapes),
}

impl fmt::Debug for Reuse<'_> {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        out.write_str(if matches!(self, Self::Gather(_)) { "Gather" } else { "Known" })
    }
}

/// What a flat shape is made from.
#[derive(Clone, Copy)]
pub(super) struct Source<'a> {
    pub(super) path: &'a Path,
    pub(super) to_pixels: &'a Affine,
    /// Of a stroke.
    pub(super) outline: Option<&'a Outline>,
    pub(super) tolerance: f64,
    pub(super) size: (usize, usize),
}

/// A flat shape and what it was made from.
#[derive(Clone)]
pub(super) struct Known {
    path: Path,
    to_pixels: Affine,
    outline: Option<Outline>,
    tolerance: f64,
    size: (usize, usize),
    flat: FlatPath,
}

impl Known {
    fn source(&self) -> Source<'_> {
        Source {
            path: &self.path,
            to_pixels: &self.to_pixels,
            outline: self.outline.as_ref(),
            tolerance: self.tolerance,
            size: self.size,
        }
    }

    fn same_source(&self, other: &Self) -> bool {
        self.source().same(&other.source())
    }
}

impl Source<'_> {
    fn same(&self, other: &Source<'_>) -> bool {
        self.size == other.size
            && self.tolerance == other.tolerance
            && self.to_pixels == other.to_pixels
            && self.outline == other.outline
            && self.path.contours() == other.path.contours()
    }

    /// A number of what it is made from, nearly always another one for something else.
    fn number(&self) -> u64 {
        let mut hasher = DefaultHasher::new();
        self.size.hash(&mut hasher);
        let mut numbers = |all: &[f64]| all.iter().for_each(|number| number.to_bits().hash(&mut hasher));
        numbers(&self.to_pixels.to_cols_array());
        numbers(&[self.outline.map_or(-1.0, Outline::width)]);
        for contour in self.path.contours() {
            // Shapes that are not the same and have these in common are told apart by all their numbers.
            let (start, end) = (contour.start(), contour.end());
            numbers(&[start.x, start.y, end.x, end.y, contour.vertex_count() as f64]);
        }
        hasher.finish()
    }
}

impl Reuse<'_> {
    /// A shape that is known already.
    pub(super) fn known(&self, source: &Source<'_>) -> Option<&FlatPath> {
        let Self::Known(still) = self else { return None };
        let known = still.known.get(&source.number())?;
        known.source().same(source).then_some(&known.flat)
    }

    /// Keeps a shape that was made.
    pub(super) fn gather(&self, source: &Source<'_>, flat: &FlatPath) {
        let Self::Gather(gathered) = self else { return };
        let known = Known {
            path: source.path.clone(),
            to_pixels: *source.to_pixels,
            outline: source.outline.cloned(),
            tolerance: source.tolerance,
            size: source.size,
            flat: flat.clone(),
        };
        if let Ok(mut all) = gathered.lock() {
            all.insert(source.number(), known);
        }
    }
}
