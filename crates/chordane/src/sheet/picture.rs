//! Pictures of pixels as paint and as items.

use std::sync::{Arc, OnceLock};

use super::{Item, Paint};
use crate::ground::{Fault, FaultKind, FaultSlot, Given, named};
use crate::number::{Cell, Point};
use crate::path::{Affine, Fit};
use crate::shape::rectangle;

/// How a picture is drawn at a size other than its own.
///
/// ```
/// use chordane::prelude::*;
/// let dots = Picture::from_rgba(2, 1, &[200, 85, 61, 255, 47, 111, 115, 255])?.sampled("nearest");
/// assert_eq!(dots.sampling, Sampling::Nearest);
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
#[non_exhaustive]
pub enum Sampling {
    /// Evenly from pixel to pixel where it is enlarged, averaged where it is reduced.
    #[default]
    Smooth,
    /// Every pixel of the picture is a square with hard edges.
    Nearest,
}

named! { Sampling: "way to sample a picture"; "smooth" => Smooth, "nearest" => Nearest }

/// What a picture's own file was, so that it can be carried along as it is.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(crate) struct Original {
    pub(crate) media: &'static str,
    pub(crate) bytes: Vec<u8>,
}

/// Pixels, red, green and blue multiplied by alpha.
#[derive(Debug)]
pub(crate) struct PictureLevel {
    pub(crate) width: usize,
    pub(crate) pixels: Vec<[u8; 4]>,
}

#[derive(Debug)]
struct Data {
    width: u32,
    height: u32,
    #[cfg_attr(not(feature = "png"), expect(dead_code, reason = "only what writes pictures asks for it"))]
    original: Option<Original>,
    /// The picture as it is; and halved again and again down to one pixel, once that is asked for.
    full: PictureLevel,
    /// The smallest and the largest alpha of its pixels.
    alphas: (u8, u8),
    reduced: OnceLock<Vec<PictureLevel>>,
}

/// A picture of pixels, to paint with or to set on a sheet. Copies share it.
///
/// As paint it lies in the bounds of what is painted, as [`Picture::fitted`] says, or over a cell that [`Picture::over`] names; beyond it
/// nothing is painted.
///
/// ```
/// use chordane::prelude::*;
/// let (red, teal) = ([200, 85, 61, 255], [47, 111, 115, 255]);
/// let weave = Picture::from_rgba(2, 2, [red, teal, teal, red].as_flattened())?;
/// let page = sheet(40.0, 40.0).add(circle((20.0, 20.0), 20.0).fill(weave.sampled("nearest").fitted("stretch")));
/// assert_eq!(page.pixels()?.at(10, 10), Some(red));
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[derive(Clone, Debug)]
#[cfg_attr(
    feature = "serde",
    derive(serde::Deserialize, serde::Serialize),
    serde(try_from = "form::Picture", into = "form::Picture")
)]
pub struct Picture {
    data: Arc<Data>,
    /// How it is fitted into the bounds of what it paints, or into its cell.
    pub fit: Fit,
    /// How it is drawn at a size other than its own.
    pub sampling: Sampling,
    /// The cell that it lies over as paint, in the coordinates of what is painted; its bounds where there is none.
    pub cell: Option<Cell>,
    fault: FaultSlot,
}

impl PartialEq for Picture {
    fn eq(&self, other: &Self) -> bool {
        let own = |one: &Self| (one.fit, one.sampling, one.cell, one.data.width, one.data.height);
        own(self) == own(other)
            && self.fault == other.fault
            && (Arc::ptr_eq(&self.data, &other.data) || self.data.full.pixels == other.data.full.pixels)
    }
}

impl Picture {
    /// Creates a picture from its size in pixels and four bytes per pixel (red, green, blue, alpha), row by row from the top; sRGB, alpha not premultiplied.
    /// Use `as_flattened` for a slice of pixels.
    ///
    /// # Errors
    ///
    /// The number of bytes is not `4 * width * height`, or is 0.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// assert_eq!(Picture::from_rgba(1, 2, &[255; 8])?.height(), 2);
    /// let error = Picture::from_rgba(2, 2, &[255; 8]).unwrap_err();
    /// assert_eq!(error.to_string(), "`picture`: expected 16 bytes for 2 x 2 pixels, got 8");
    /// # Ok::<(), Fault>(())
    /// ```
    pub fn from_rgba(width: u32, height: u32, bytes: &[u8]) -> Result<Self, Fault> {
        let wanted = 4 * u64::from(width) * u64::from(height);
        if wanted == 0 || wanted != bytes.len() as u64 {
            let message =
                format!("expected {wanted} bytes for {width} x {height} pixels, got {}", bytes.len());
            return Err(Fault::of("picture", FaultKind::Told { message }));
        }
        Ok(Self::with_original(width, height, bytes.as_chunks().0.to_vec(), None))
    }

    /// Creates a picture from `width * height` pixels.
    pub(crate) fn of_pixels(width: u32, height: u32, pixels: Vec<[u8; 4]>) -> Self {
        Self::with_original(width, height, pixels, None)
    }

    pub(crate) fn with_original(
        width: u32,
        height: u32,
        mut pixels: Vec<[u8; 4]>,
        original: Option<Original>,
    ) -> Self {
        let mut alphas = (u8::MAX, 0);
        for pixel in &mut pixels {
            alphas = (alphas.0.min(pixel[3]), alphas.1.max(pixel[3]));
            let alpha = u16::from(pixel[3]);
            for channel in pixel.iter_mut().take(3) {
                *channel = ((u16::from(*channel) * alpha + 127) / 255) as u8;
            }
        }
        let full = PictureLevel { width: width as usize, pixels };
        let data = Data { width, height, original, full, alphas, reduced: OnceLock::new() };
        let (fit, sampling, cell) = (Fit::Cover, Sampling::Smooth, None);
        Self { data: Arc::new(data), fit, sampling, cell, fault: FaultSlot::default() }
    }

    /// Pixels a row.
    #[must_use]
    pub fn width(&self) -> u32 {
        self.data.width
    }

    /// The number of rows.
    #[must_use]
    pub fn height(&self) -> u32 {
        self.data.height
    }

    /// How it is fitted into the bounds of what it paints, or into its cell: `Fit` or `"cover"` (at first), `"contain"`, `"stretch"`.
    #[must_use]
    pub fn fitted(mut self, fit: impl Into<Given<Fit>>) -> Self {
        match fit.into().resolve("fitted") {
            Ok(fit) => self.fit = fit,
            Err(fault) => self.fault.note(fault),
        }
        self
    }

    /// How it is drawn at a size other than its own: `Sampling` or `"smooth"` (at first), `"nearest"`.
    #[must_use]
    pub fn sampled(mut self, sampling: impl Into<Given<Sampling>>) -> Self {
        match sampling.into().resolve("sampled") {
            Ok(sampling) => self.sampling = sampling,
            Err(fault) => self.fault.note(fault),
        }
        self
    }

    /// As paint it lies over a cell, in the coordinates of what is painted, whatever that one's bounds.
    #[must_use]
    pub fn over(mut self, cell: Cell) -> Self {
        self.cell = Some(cell);
        self
    }

    /// The picture as an item, fitted into a cell: a rectangle painted with it. What reaches over the cell is cut off.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let strip = Picture::from_rgba(2, 1, &[200, 85, 61, 255, 47, 111, 115, 255])?;
    /// let item = strip.fitted("contain").shown_in(cell((0.0, 0.0), 40.0, 40.0));
    /// assert_eq!(item.path().bounds(), Some(cell((0.0, 10.0), 40.0, 20.0)));
    /// # Ok::<(), Fault>(())
    /// ```
    #[must_use]
    pub fn shown_in(&self, cell: Cell) -> Item {
        let placed = self.clone().over(cell);
        let area = match self.fit {
            Fit::Contain => placed.area(None).unwrap_or(cell),
            Fit::Cover | Fit::Stretch => cell,
        };
        let size = area.size();
        rectangle(area.min, size.x, size.y).fill(placed)
    }

    /// The picture itself when nothing went wrong in its making, else the first fault.
    ///
    /// # Errors
    ///
    /// The first fault.
    pub fn sound(&self) -> Result<&Self, Fault> {
        self.fault.sound().map(|()| self)
    }

    #[cfg(feature = "png")]
    pub(crate) fn original(&self) -> Option<&Original> {
        self.data.original.as_ref()
    }

    /// The rectangle that the whole picture lies over, in the coordinates of what has some bounds; `None` where it has no size.
    pub(crate) fn area(&self, bounds: Option<Cell>) -> Option<Cell> {
        let cell = self.cell.or(bounds)?;
        let own = Point::new(f64::from(self.data.width), f64::from(self.data.height));
        let scale = cell.size() / own;
        let scale = match self.fit {
            Fit::Contain => Point::splat(scale.min_element()),
            Fit::Cover => Point::splat(scale.max_element()),
            Fit::Stretch => scale,
        };
        let half = own * scale * 0.5;
        let area = Cell { min: cell.centre() - half, max: cell.centre() + half };
        (area.min.is_finite() && area.max.is_finite() && area.size().min_element() > 0.0).then_some(area)
    }

    /// From the picture's pixels to the coordinates of what has some bounds.
    pub(crate) fn frame(&self, bounds: Option<Cell>) -> Option<Affine> {
        let area = self.area(bounds)?;
        let own = Point::new(f64::from(self.data.width), f64::from(self.data.height));
        Some(Affine::from_translation(area.min) * Affine::from_scale(area.size() / own))
    }

    /// The picture reduced by halves so many times, at most to one pixel.
    pub(crate) fn level(&self, halvings: usize) -> &PictureLevel {
        if halvings == 0 {
            return &self.data.full;
        }
        let reduced = self.data.reduced.get_or_init(|| {
            let mut levels: Vec<PictureLevel> = Vec::new();
            loop {
                let last = levels.last().unwrap_or(&self.data.full);
                if last.pixels.len() <= 1 {
                    return levels;
                }
                let next = last.halved();
                levels.push(next);
            }
        });
        reduced.get(halvings - 1).or(reduced.last()).unwrap_or(&self.data.full)
    }

    pub(crate) fn is_opaque(&self) -> bool {
        // Only over a cell or in bounds that it fills is nothing left free.
        self.fit != Fit::Contain && self.cell.is_none() && self.data.alphas.0 == 255
    }

    pub(crate) fn is_invisible(&self) -> bool {
        self.data.alphas.1 == 0
    }

    #[cfg(any(feature = "png", feature = "serde"))]
    /// The pixels as they were given, alpha not multiplied in; to within a level.
    pub(crate) fn straight(&self) -> impl Iterator<Item = [u8; 4]> + '_ {
        self.data.full.pixels.iter().map(|&[red, green, blue, alpha]| {
            let back = |channel: u8| {
                let whole = (u32::from(channel) * 255 + u32::from(alpha) / 2).checked_div(alpha.into());
                whole.unwrap_or(0).min(255) as u8
            };
            [back(red), back(green), back(blue), alpha]
        })
    }
}

impl PictureLevel {
    pub(crate) fn height(&self) -> usize {
        self.pixels.len() / self.width.max(1)
    }

    pub(crate) fn at(&self, x: usize, y: usize) -> [u8; 4] {
        self.pixels.get(y * self.width + x).copied().unwrap_or_default()
    }

    /// Half as wide and half as high, rounded up; every pixel the mean of up to four.
    fn halved(&self) -> Self {
        let (width, height) = (self.width.div_ceil(2), self.height().div_ceil(2));
        let mut pixels = Vec::with_capacity(width * height);
        for y in 0..height {
            for x in 0..width {
                let right = (2 * x + 1).min(self.width - 1);
                let below = (2 * y + 1).min(self.height() - 1);
                let four = [(2 * x, 2 * y), (right, 2 * y), (2 * x, below), (right, below)]
                    .map(|(x, y)| self.at(x, y));
                pixels.push(std::array::from_fn(|i| {
                    let sum: u16 = four.iter().map(|pixel| u16::from(pixel[i])).sum();
                    ((sum + 2) / 4) as u8
                }));
            }
        }
        Self { width, pixels }
    }
}

impl From<Picture> for Paint {
    fn from(picture: Picture) -> Self {
        Self::Picture(Box::new(picture))
    }
}

#[cfg(feature = "serde")]
mod form {
    use serde::{Deserialize, Serialize};

    use super::{Cell, Fit, Sampling};
    use crate::ground::{Fault, FaultKind};

    /// The serde form of a picture. Each pixel is eight hexadecimal digits: red, green, blue, alpha.
    #[derive(Deserialize, Serialize)]
    pub(super) struct Picture {
        width: u32,
        height: u32,
        pixels: String,
        fit: Fit,
        sampling: Sampling,
        cell: Option<Cell>,
    }

    impl From<super::Picture> for Picture {
        fn from(picture: super::Picture) -> Self {
            let number = |pixel: [u8; 4]| format!("{:08x}", u32::from_be_bytes(pixel));
            Self {
                width: picture.width(),
                height: picture.height(),
                pixels: picture.straight().map(number).collect(),
                fit: picture.fit,
                sampling: picture.sampling,
                cell: picture.cell,
            }
        }
    }

    impl TryFrom<Picture> for super::Picture {
        type Error = Fault;

        fn try_from(form: Picture) -> Result<Self, Fault> {
            let digits = form.pixels.as_bytes().as_chunks::<8>().0;
            let pixel = |digits: &[u8; 8]| u32::from_str_radix(std::str::from_utf8(digits).ok()?, 16).ok();
            let pixels: Option<Vec<[u8; 4]>> =
                digits.iter().map(|digits| pixel(digits).map(u32::to_be_bytes)).collect();
            let wrong = || {
                let message = "each pixel must be eight hexadecimal digits".to_owned();
                Fault::of("picture", FaultKind::Told { message })
            };
            let read = Self::from_rgba(form.width, form.height, pixels.ok_or_else(wrong)?.as_flattened())?;
            Ok(Self { fit: form.fit, sampling: form.sampling, cell: form.cell, ..read })
        }
    }
}
