//! Layers: what is drawn for itself before it is put on what is below it. They form a tree, and each knows the pixels that
//! it reaches.

use super::blend;
use super::cover::Band;
use super::pixel::{Deep, Pixel};
use crate::scene::{Layer, LayerKind};
use crate::sheet::{BlendMode, MaskKind};

/// A rectangle of pixels, ends not included.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(super) struct PixelRect {
    pub(super) across: (usize, usize),
    pub(super) down: (usize, usize),
}

impl PixelRect {
    pub(super) fn is_empty(self) -> bool {
        self.across.0 >= self.across.1 || self.down.0 >= self.down.1
    }

    pub(super) fn whole((width, height): (usize, usize)) -> Self {
        Self { across: (0, width), down: (0, height) }
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

    pub(super) fn shared(self, other: Self) -> Self {
        let both = |a: (usize, usize), b: (usize, usize)| (a.0.max(b.0), a.1.min(b.1));
        let shared = Self { across: both(self.across, other.across), down: both(self.down, other.down) };
        if shared.is_empty() { Self::default() } else { shared }
    }

    fn width(self) -> usize {
        self.across.1.saturating_sub(self.across.0)
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
    Over(f32, BlendMode),
    /// Only what it shows is left of what is below it.
    Mask(MaskKind),
}

impl Ending {
    pub(super) fn of(layer: &Layer<'_>) -> Self {
        match layer.kind {
            LayerKind::Clip => Self::Mask(MaskKind::Alpha),
            LayerKind::Mask(kind) => Self::Mask(kind),
            LayerKind::Group | LayerKind::Item | LayerKind::Effects => {
                Self::Over(layer.opacity as f32, layer.blend)
            }
        }
    }
}

/// A layer of a plan.
#[derive(Clone, Copy, Debug)]
pub(super) struct PlaneLayer {
    /// The layer that it is put on, of those that are drawn apart.
    pub(super) parent: Option<usize>,
    pub(super) ending: Ending,
    /// The pixels that are drawn on in it.
    pub(super) extent: PixelRect,
}

/// The part of a layer that lies in a band. It takes no storage until it is drawn on.
struct BandLayer {
    extent: PixelRect,
    pixels: Vec<Deep>,
}

impl BandLayer {
    /// A row of the picture, from a column on to another, of what was drawn on.
    fn row(&self, y: usize, across: (usize, usize)) -> Option<&[Deep]> {
        let inside = y >= self.extent.down.0 && y < self.extent.down.1;
        let begin = y.checked_sub(self.extent.down.0)? * self.extent.width();
        let at = |x: usize| Some(begin + x.checked_sub(self.extent.across.0)?);
        self.pixels.get(at(across.0)?..at(across.1)?).filter(|_| inside)
    }
}

/// What can be drawn on: the picture itself, or a layer.
pub(super) enum Top<'a, P> {
    Base(Band<'a, P>),
    Layer(Band<'a, Deep>),
}

/// The pixels of a band, and the layers on it that have begun.
pub(super) struct LayerStack<'a, P> {
    base: &'a mut [P],
    extent: PixelRect,
    layers: Vec<BandLayer>,
}

impl<'a, P: Pixel> LayerStack<'a, P> {
    /// A band from a row on, so many pixels wide.
    pub(super) fn new(base: &'a mut [P], top: usize, width: usize) -> Self {
        let rows = base.len() / width.max(1);
        let extent = PixelRect { across: (0, width), down: (top, top + rows) };
        Self { base, extent, layers: Vec::new() }
    }

    /// The pixels of the innermost layer.
    pub(super) fn top(&mut self) -> Top<'_, P> {
        fn band<P>(extent: PixelRect, pixels: &mut [P]) -> Band<'_, P> {
            Band { left: extent.across.0, top: extent.down.0, width: extent.width(), pixels }
        }
        match self.layers.last_mut() {
            Some(layer) => {
                let rows = layer.extent.down.1.saturating_sub(layer.extent.down.0);
                layer.pixels.resize(layer.extent.width() * rows, Deep::CLEAR);
                Top::Layer(band(layer.extent, &mut layer.pixels))
            }
            None => Top::Base(band(self.extent, self.base)),
        }
    }

    pub(super) fn begin(&mut self, layer: &PlaneLayer) {
        self.layers.push(BandLayer { extent: layer.extent.shared(self.extent), pixels: Vec::new() });
    }

    /// Ends the innermost layer.
    pub(super) fn end(&mut self, layer: &PlaneLayer) {
        let Some(done) = self.layers.pop() else { return };
        match layer.ending {
            Ending::Over(..) if done.pixels.is_empty() => {}
            Ending::Over(opacity, mode) => match self.top() {
                Top::Base(below) => lay(below, &done, opacity, mode),
                Top::Layer(below) => lay(below, &done, opacity, mode),
            },
            // What nothing was drawn on need not be masked.
            Ending::Mask(_) if self.layers.last().is_some_and(|below| below.pixels.is_empty()) => {}
            Ending::Mask(kind) => match self.top() {
                Top::Base(below) => cut(below, &done, kind),
                Top::Layer(below) => cut(below, &done, kind),
            },
        }
    }
}

/// Puts a finished layer on the pixels of a band.
fn lay<P: Pixel>(below: Band<'_, P>, done: &BandLayer, opacity: f32, mode: BlendMode) {
    let (from, to) =
        (done.extent.across.0.max(below.left), done.extent.across.1.min(below.left + below.width));
    for (pixels, y) in below.pixels.chunks_exact_mut(below.width.max(1)).zip(below.top..) {
        let row = pixels.get_mut(from.saturating_sub(below.left)..to.saturating_sub(below.left));
        if let (Some(row), Some(above)) = (row, done.row(y, (from, to))) {
            blend::layer(row, above, opacity, mode);
        }
    }
}

/// Leaves of the pixels of a band what a finished layer shows.
fn cut<P: Pixel>(below: Band<'_, P>, done: &BandLayer, kind: MaskKind) {
    for (pixels, y) in below.pixels.chunks_exact_mut(below.width.max(1)).zip(below.top..) {
        let by = done.row(y, done.extent.across);
        for (pixel, x) in pixels.iter_mut().zip(below.left..) {
            let shown = by.and_then(|by| by.get(x.checked_sub(done.extent.across.0)?));
            let mut deep = pixel.deep();
            blend::mask(&mut deep, shown.copied().unwrap_or(Deep::CLEAR), kind);
            *pixel = P::of_deep(deep);
        }
    }
}
