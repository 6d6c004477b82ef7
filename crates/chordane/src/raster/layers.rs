//! Layers: what is drawn for itself before it is put on what is below it. They form a tree, and each knows the pixels that
//! it reaches.

use super::blend::{self, Rgba};

/// A rectangle of pixels, ends not included.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(super) struct Extent {
    pub(super) across: (usize, usize),
    pub(super) down: (usize, usize),
}

impl Extent {
    fn is_empty(self) -> bool {
        self.across.0 >= self.across.1 || self.down.0 >= self.down.1
    }

    pub(super) fn union(self, other: Self) -> Self {
        if self.is_empty() {
            return other;
        }
        if other.is_empty() {
            return self;
        }
        let both = |a: (usize, usize), b: (usize, usize)| (a.0.min(b.0), a.1.max(b.1));
        Self { across: both(self.across, other.across), down: both(self.down, other.down) }
    }

    /// With so many pixels more on every side, as far as the picture goes: what an effect needs round what it works on.
    pub(super) fn grown(self, by: usize, (width, height): (usize, usize)) -> Self {
        if self.is_empty() || by == 0 {
            return self;
        }
        let more = |(from, to): (usize, usize), most: usize| (from.saturating_sub(by), (to + by).min(most));
        Self { across: more(self.across, width), down: more(self.down, height) }
    }

    /// The bands of so many rows that it lies in.
    pub(super) fn bands(self, rows: usize) -> std::ops::Range<usize> {
        if self.is_empty() { 0..0 } else { self.down.0 / rows..self.down.1.div_ceil(rows) }
    }
}

/// What becomes of a layer when it ends.
#[derive(Clone, Copy, Debug)]
pub(super) enum Ending {
    /// It is put on what is below it, faded to a share from 0 to 1.
    Over(f32),
    /// Only what it covers is left of what is below it.
    Mask,
}

/// A layer of a picture.
#[derive(Clone, Copy, Debug)]
pub(super) struct Layer {
    /// The layer that it lies in.
    pub(super) parent: Option<usize>,
    pub(super) ending: Ending,
    /// The pixels that are drawn on in it, with the margin.
    pub(super) extent: Extent,
    /// How far beyond what is drawn on it it reaches, in pixels.
    pub(super) margin: usize,
}

/// The pixels of a band, and the layers on it that have begun. A layer takes no storage until it is drawn on.
pub(super) struct Stack<'a> {
    base: &'a mut [Rgba],
    width: usize,
    layers: Vec<Vec<Rgba>>,
}

impl<'a> Stack<'a> {
    pub(super) fn new(base: &'a mut [Rgba], width: usize) -> Self {
        Self { base, width, layers: Vec::new() }
    }

    /// The pixels of the innermost layer.
    pub(super) fn current(&mut self) -> &mut [Rgba] {
        let size = self.base.len();
        match self.layers.last_mut() {
            Some(layer) => {
                layer.resize(size, [0; 4]);
                layer
            }
            None => self.base,
        }
    }

    pub(super) fn begin(&mut self) {
        self.layers.push(Vec::new());
    }

    /// Ends the innermost layer.
    pub(super) fn end(&mut self, layer: &Layer) {
        let Some(done) = self.layers.pop() else { return };
        let across = layer.extent.across.0..layer.extent.across.1;
        match layer.ending {
            Ending::Over(_) if done.is_empty() => {}
            Ending::Over(opacity) => {
                let width = self.width;
                let below = self.current().chunks_exact_mut(width).zip(done.chunks_exact(width));
                for (below, above) in below {
                    if let (Some(below), Some(above)) =
                        (below.get_mut(across.clone()), above.get(across.clone()))
                    {
                        blend::layer(below, above, opacity);
                    }
                }
            }
            Ending::Mask => {
                let Some(below) = self.layers.last_mut() else { return };
                if done.is_empty() {
                    below.clear();
                }
                blend::mask(below, &done);
            }
        }
    }
}
