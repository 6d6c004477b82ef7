//! Coarse pixels: a sheet drawn on a small grid and shown large.

use super::pixels::DrawError;
use crate::number::{Cell, Point};
use crate::path::{Affine, Path};
use crate::sheet::WriteOptions;
use crate::sheet::{Group, Item, Layered, Picture, Sheet, sheet};

impl Sheet {
    /// The sheet drawn on a coarse grid of so many pixels, as a sheet of one picture with hard edges; of the same size, or as much higher or wider as
    /// the grid is. Pixels are painted whole or not at all, unless `partial` lets them be painted as far as they are covered.
    ///
    /// # Errors
    ///
    /// As [`Sheet::pixels_with`].
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let kite = sheet(90.0, 90.0).ground("white").add(polygon((45.0, 45.0), 4, 40.0).fill("teal"));
    /// let coarse = kite.grained(9, 9, false)?;
    /// let pixels = coarse.pixels()?;
    /// assert_eq!(pixels.width(), 90);
    /// // Every square of ten by ten pixels is of one colour.
    /// let same = |x: u32, y: u32| pixels.at(x, y) == pixels.at(x / 10 * 10, y / 10 * 10);
    /// assert!((0..90).all(|y| (0..90).all(|x| same(x, y))));
    /// # Ok::<(), chordane::raster::DrawError>(())
    /// ```
    pub fn grained(&self, width: u32, height: u32, partial: bool) -> Result<Self, DrawError> {
        let options = WriteOptions { antialias: partial, ..WriteOptions::sized(width, height) };
        let picture = Picture::from(self.pixels_with(&options)?).sampled("nearest").fitted("stretch");
        let grid = Point::new(f64::from(width), f64::from(height));
        let size = grid * (self.size / grid).max_element();
        let item = picture.shown_in(Cell { min: Point::ZERO, max: size });
        let mut made = sheet(size.x, size.y).unit(self.unit).add(item);
        made.metadata.clone_from(&self.metadata);
        Ok(made)
    }
}

/// How far something is moved so that the middle of its bounds lies in the middle of a square of a grid.
fn step(bounds: Option<Cell>, side: f64) -> Point {
    let sound = side.is_finite() && side > 0.0;
    bounds.filter(|_| sound).map_or(Point::ZERO, |bounds| {
        let middle = bounds.centre();
        let step = ((middle / side).floor() + 0.5) * side - middle;
        if step.is_finite() { step } else { Point::ZERO }
    })
}

impl Path {
    /// The path moved, by less than a side, so that the middle of its bounds lies in the middle of a square of a grid of such sides: on a coarse
    /// grid it then looks the same wherever it is. A side of 0 or less moves nothing.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let dot = circle((12.3, 4.9), 3.0).snapped(10.0);
    /// assert_eq!(dot.bounds().map(|bounds| bounds.centre()), Some(pt(15.0, 5.0)));
    /// ```
    #[must_use]
    pub fn snapped(&self, side: f64) -> Self {
        self.moved(step(self.bounds(), side))
    }
}

impl Item {
    /// The item moved so that the middle of its line's bounds lies in the middle of a square; see [`Path::snapped`].
    #[must_use]
    pub fn snapped(self, side: f64) -> Self {
        let bounds = self.path().transformed(&self.placement.transform).bounds();
        self.moved(step(bounds, side))
    }
}

impl Group {
    /// The group moved so that the middle of its lines' bounds lies in the middle of a square; see [`Path::snapped`].
    #[must_use]
    pub fn snapped(self, side: f64) -> Self {
        let by = crate::scene::Scene::of(self.nodes(), &self.placement.transform).line_bounds();
        self.transformed(&Affine::from_translation(step(by, side)))
    }
}
