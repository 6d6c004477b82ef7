//! Shapes that were flattened before, by what they were made from.

use std::collections::HashMap;
use std::fmt;
use std::hash::{DefaultHasher, Hash, Hasher};
use std::sync::Mutex;

use crate::path::{Affine, Path};
use crate::reshape::{FlatPath, Outline};

/// Flat shapes by the number of what they are made from; see [`Source::number`].
pub(super) type KnownShapes = HashMap<u64, Known>;

/// What is done with flattened shapes.
#[derive(Clone, Copy)]
pub(super) enum Reuse<'s> {
    Gather(&'s Mutex<KnownShapes>),
    Known(&'s KnownShapes),
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

    pub(super) fn same_source(&self, other: &Self) -> bool {
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
        let Self::Known(all) = self else { return None };
        let known = all.get(&source.number())?;
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
