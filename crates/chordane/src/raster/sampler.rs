//! Pictures on pixels: those that were given, tiles of patterns, and colours that were worked out beforehand.

use std::sync::Arc;

use super::pixel::{Deep, FULL, Pixel, Rgba};
use super::shader::Shader;
use crate::number::Point;
use crate::path::Affine;
use crate::sheet::{Picture, PictureLevel, Sampling};

/// So many spots along x and y of a pixel are looked at where squares with hard edges lie askew.
const NEAREST_SAMPLES: u32 = 4;

/// Colours at places, ready to be put on pixels. Those of images have alpha multiplied in.
#[derive(Debug)]
pub(super) struct Sampler {
    source: Source,
    /// From the middles of pixels to those of the image.
    from_pixels: Affine,
    opacity: f32,
    /// Whether a picture reaches over all that is painted: then its rim is that of what is painted.
    filled: bool,
}

#[derive(Debug)]
enum Source {
    /// A given picture, reduced by halves so many times, at so many spots along x and y of a pixel.
    Picture { picture: Picture, level: usize, spots: u32 },
    /// A given picture with hard edges.
    Squares(Picture),
    /// An image that is repeated, at so many spots.
    Tile { tile: Arc<PictureLevel>, spots: u32 },
    /// An image whose pixels are those of the picture, from a corner on; straight alpha.
    Plane { left: i64, top: i64, plane: PictureLevel },
}

impl Sampler {
    /// A picture that a frame puts on pixels.
    pub(super) fn picture(picture: &Picture, opacity: f64, to_pixels: &Affine, filled: bool) -> Self {
        let from_pixels = to_pixels.inverse();
        // So many of the picture's pixels fall on one of those drawn on, one way at least.
        let dense = from_pixels.matrix2.x_axis.length().max(from_pixels.matrix2.y_axis.length());
        let level = dense.max(1.0).log2().floor() as usize;
        let spots = if dense > 1.0 { 2 } else { 1 };
        let source = match picture.sampling {
            Sampling::Nearest => Source::Squares(picture.clone()),
            Sampling::Smooth => Source::Picture { picture: picture.clone(), level, spots },
        };
        Self { source, from_pixels, opacity: opacity as f32, filled }
    }

    /// An image repeated all over.
    pub(super) fn tile(tile: Arc<PictureLevel>, spots: u32, opacity: f64, to_pixels: &Affine) -> Self {
        let source = Source::Tile { tile, spots };
        Self { source, from_pixels: to_pixels.inverse(), opacity: opacity as f32, filled: true }
    }

    /// Colours for pixels, from a column and a row of the picture on; straight alpha.
    pub(super) fn plane(corner: (i64, i64), plane: PictureLevel, opacity: f64) -> Self {
        let source = Source::Plane { left: corner.0, top: corner.1, plane };
        Self { source, from_pixels: Affine::IDENTITY, opacity: opacity as f32, filled: true }
    }

    /// The colour at a pixel, alpha multiplied in.
    fn colour(&self, x: usize, y: usize) -> Deep {
        let pixel = Point::new(x as f64, y as f64);
        match &self.source {
            Source::Plane { left, top, plane } => {
                let at = |value: usize, from: i64| usize::try_from(value as i64 - from).unwrap_or(0);
                let (x, y) = (at(x, *left).min(plane.width.saturating_sub(1)), at(y, *top));
                plane.at(x, y.min(plane.height().saturating_sub(1))).deep()
            }
            Source::Squares(picture) => {
                let full = picture.level(0);
                let own = Point::new(full.width as f64, full.height() as f64);
                self.mean(pixel, NEAREST_SAMPLES, |p| {
                    let p = if self.filled { p.max(Point::ZERO).min(own - 0.5) } else { p };
                    let inside = p.cmpge(Point::ZERO).all() && p.cmplt(own).all();
                    if inside { multiplied(full.at(p.x as usize, p.y as usize)) } else { Deep::CLEAR }
                })
            }
            Source::Picture { picture, level, spots } => {
                let own = Point::new(f64::from(picture.width()), f64::from(picture.height()));
                self.mean(pixel, *spots, |p| {
                    let here = picture.level(*level);
                    let scale = Point::new(here.width as f64, here.height() as f64) / own;
                    let edge = if self.filled { 1.0 } else { self.shown(p, own) };
                    if edge > 0.0 { between(here, p * scale - 0.5).map(|c| c * edge) } else { Deep::CLEAR }
                })
            }
            Source::Tile { tile, spots } => {
                let size = Point::new(tile.width as f64, tile.height() as f64);
                self.mean(pixel, *spots, |p| {
                    // From pixel to pixel, over the rim on to the next tile.
                    let p = p - 0.5;
                    let p = p - (p / size).floor() * size;
                    let first = p.floor().min(size - 1.0).max(Point::ZERO);
                    let (x, y) = (first.x as usize, first.y as usize);
                    let (right, below) = ((x + 1) % tile.width, (y + 1) % tile.height());
                    let four = [(x, y), (right, y), (x, below), (right, below)];
                    even(four.map(|(x, y)| multiplied(tile.at(x, y))), p - first)
                })
            }
        }
    }

    /// How much of a pixel lies on a picture at all, by how far its middle is from the picture's rim.
    fn shown(&self, p: Point, own: Point) -> f32 {
        let step =
            Point::new(self.from_pixels.matrix2.row(0).length(), self.from_pixels.matrix2.row(1).length());
        let beyond = p.min(own - p) / step + 0.5;
        (beyond.x.clamp(0.0, 1.0) * beyond.y.clamp(0.0, 1.0)) as f32
    }

    fn mean(&self, pixel: Point, spots: u32, at: impl Fn(Point) -> Deep) -> Deep {
        let mut sum = Deep::CLEAR;
        for spot in 0..spots * spots {
            let off = Point::new(f64::from(spot % spots), f64::from(spot / spots));
            let place = self.from_pixels.transform_point2(pixel + (off + 0.5) / f64::from(spots));
            let one = at(place);
            sum = std::array::from_fn(|i| sum[i] + one[i]);
        }
        sum.map(|channel| channel / (spots * spots) as f32)
    }
}

fn multiplied(pixel: Rgba) -> Deep {
    pixel.map(|channel| f32::from(channel) * (1.0 / 255.0))
}

/// The colour between the four pixels round a place; at the rim, the rim's.
fn between(level: &PictureLevel, p: Point) -> Deep {
    let (last_x, last_y) = (level.width.saturating_sub(1), level.height().saturating_sub(1));
    let p = p.clamp(Point::ZERO, Point::new(last_x as f64, last_y as f64));
    let (x, y) = (p.x as usize, p.y as usize);
    let (right, below) = ((x + 1).min(last_x), (y + 1).min(last_y));
    let four = [(x, y), (right, y), (x, below), (right, below)];
    even(four.map(|(x, y)| multiplied(level.at(x, y))), p - Point::new(x as f64, y as f64))
}

/// Evenly between four colours, by how far right and down.
fn even([a, b, c, d]: [Deep; 4], share: Point) -> Deep {
    let (tx, ty) = (share.x as f32, share.y as f32);
    std::array::from_fn(|i| {
        let (upper, lower) = (a[i] + (b[i] - a[i]) * tx, c[i] + (d[i] - c[i]) * tx);
        upper + (lower - upper) * ty
    })
}

impl Shader for &Sampler {
    fn span<P: Pixel>(self, x: usize, y: usize, pixels: &mut [P], coverage: f32) {
        for (pixel, x) in pixels.iter_mut().zip(x..) {
            self.dot(x, y, pixel, coverage);
        }
    }

    fn dot<P: Pixel>(self, x: usize, y: usize, pixel: &mut P, coverage: f32) {
        let above = self.colour(x, y);
        let share = coverage * self.opacity;
        if above[3] * share >= 1.0 - 0.5 / FULL as f32 {
            *pixel = P::of_deep(above);
        } else if above[3] > 0.0 {
            let (under, rest) = (pixel.deep(), 1.0 - above[3] * share);
            *pixel = P::of_deep(std::array::from_fn(|i| under[i] * rest + above[i] * share));
        }
    }
}
