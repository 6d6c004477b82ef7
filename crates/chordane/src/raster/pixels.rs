//! Pictures of pixels, and how a sheet is drawn on one.

use std::fmt;

use super::items::Target;
use super::pixel::Rgba;
use super::plan::Plan;
use crate::ground::{Fault, FaultSlot, limited};
use crate::number::Point;
use crate::path::Affine;
use crate::scene::Scene;
use crate::sheet::{MAX_SIDE, Picture, Sheet, Unit, WriteOptions};

/// No picture has more pixels in all than this: four gigabytes of them.
const MAX_PIXELS: u64 = 1 << 30;

/// A picture: rows of pixels from the top, each red, green, blue and alpha in eight bits, sRGB, alpha not
/// multiplied in.
///
/// ```
/// use chordane::prelude::*;
/// let page = sheet(8.0, 6.0).ground("#ffffff").add(rectangle((0.0, 0.0), 4.0, 6.0).fill("#000000"));
/// let pixels = page.pixels()?;
/// assert_eq!((pixels.width(), pixels.height()), (8, 6));
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Pixels {
    width: u32,
    height: u32,
    data: Vec<Rgba>,
    /// What a file carries along unseen.
    pub(crate) metadata: Option<Box<str>>,
    /// Pixels to the metre, of a sheet that is so many millimetres or inches large.
    per_metre: Option<u32>,
}

/// Why a sheet could not be turned into pixels.
///
/// ```
/// use chordane::prelude::*;
/// let page = sheet(8.0, 6.0).add(circle((4.0, 3.0), f64::NAN).fill("teal"));
/// assert!(page.pixels_with(&WriteOptions::default()).unwrap_err().to_string().contains("is not finite"));
/// ```
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub enum DrawError {
    /// Something on the sheet cannot be; see [`Fault`].
    Fault(Fault),
    /// The picture would have no pixel.
    NoPixels {
        /// The picture's width in pixels.
        width: u32,
        /// The picture's height in pixels.
        height: u32,
    },
    /// The picture cannot be written in a format.
    NotWritten {
        /// What people call the format.
        format: &'static str,
        /// What its writer says.
        message: String,
    },
    /// The buffer to draw into does not have four bytes for each pixel.
    WrongLength {
        /// The picture's width in pixels.
        width: u32,
        /// The picture's height in pixels.
        height: u32,
        /// The length of the buffer in bytes.
        bytes: usize,
    },
    /// The picture would be larger than is allowed.
    TooLarge {
        /// The picture's width in pixels.
        width: f64,
        /// The picture's height in pixels.
        height: f64,
        /// The most pixels a side that are allowed.
        limit: u32,
    },
}

impl fmt::Display for DrawError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Fault(fault) => fault.fmt(f),
            Self::NoPixels { width, height } => {
                write!(f, "a picture of {width} x {height} pixels has no pixels; give at least 1 x 1")
            }
            Self::WrongLength { width, height, bytes } => {
                write!(f, "expected four bytes for each of {width} x {height} pixels, got {bytes} bytes")
            }
            Self::NotWritten { format, message } => {
                write!(f, "the picture cannot be written as {format}: {message}")
            }
            Self::TooLarge { width, height, limit } if width.max(*height) <= f64::from(*limit) => write!(
                f,
                "a picture of {width} x {height} pixels is too large; no picture has more than {MAX_PIXELS} in all: \
                 make the sheet smaller, or ask for another size"
            ),
            Self::TooLarge { width, height, limit } => write!(
                f,
                "a picture of {width} x {height} pixels is too large; the limit is {limit} x {limit}: \
                 make the sheet smaller, ask for another size, or raise the limit"
            ),
        }
    }
}

impl std::error::Error for DrawError {
    fn source(&self) -> Option<&(dyn std::error::Error + 'static)> {
        // The fault speaks for itself: its text is this one's.
        None
    }
}

impl From<Fault> for DrawError {
    fn from(fault: Fault) -> Self {
        Self::Fault(fault)
    }
}

impl Pixels {
    /// A transparent picture.
    ///
    /// # Errors
    ///
    /// A side of no pixel, or of more than 16,384 pixels; see [`Pixels::within`].
    ///
    /// ```
    /// use chordane::prelude::*;
    /// use chordane::raster::DrawError;
    /// assert_eq!(Pixels::new(4, 3)?.as_slice().len(), 12);
    /// assert!(Pixels::new(u32::MAX, 1).is_err());
    /// # Ok::<(), DrawError>(())
    /// ```
    pub fn new(width: u32, height: u32) -> Result<Self, DrawError> {
        Self::within(width, height, MAX_SIDE)
    }

    /// A transparent picture with at most `max_side` pixels a side, and never more than 2 to the power of 30 in all.
    ///
    /// # Errors
    ///
    /// A picture without a pixel, or beyond that, or for which there is no memory.
    pub fn within(width: u32, height: u32, max_side: u32) -> Result<Self, DrawError> {
        let too_large =
            || DrawError::TooLarge { width: f64::from(width), height: f64::from(height), limit: max_side };
        let count = u64::from(width) * u64::from(height);
        if count == 0 {
            return Err(DrawError::NoPixels { width, height });
        }
        if width.max(height) > max_side || count > MAX_PIXELS {
            return Err(too_large());
        }
        let mut data: Vec<Rgba> = Vec::new();
        data.try_reserve_exact(count as usize).map_err(|_| too_large())?;
        data.resize(count as usize, [0; 4]);
        Ok(Self { width, height, data, metadata: None, per_metre: None })
    }

    /// Pixels to the metre, of a sheet whose unit is a millimetre or an inch; `None` of one in pixels. PNG files carry it.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let card = sheet(25.4, 12.7).unit("mm").pixels()?;
    /// assert_eq!(card.per_metre(), Some(3780), "96 to the inch");
    /// # Ok::<(), chordane::raster::DrawError>(())
    /// ```
    #[must_use]
    pub fn per_metre(&self) -> Option<u32> {
        self.per_metre
    }

    /// Pixels a row.
    #[must_use]
    pub fn width(&self) -> u32 {
        self.width
    }

    /// The number of rows.
    #[must_use]
    pub fn height(&self) -> u32 {
        self.height
    }

    /// The pixel at a column and a row from the top left; `None` outside the picture.
    #[must_use]
    pub fn at(&self, x: u32, y: u32) -> Option<[u8; 4]> {
        let inside = x < self.width && y < self.height;
        self.data.get(y as usize * self.width as usize + x as usize).filter(|_| inside).copied()
    }

    /// All bytes: red, green, blue, alpha, row after row from the top.
    #[must_use]
    pub fn bytes(&self) -> &[u8] {
        self.data.as_flattened()
    }

    /// What a file carries along unseen, if there is something.
    #[must_use]
    pub fn metadata(&self) -> Option<&str> {
        self.metadata.as_deref()
    }

    /// The same with another text that a file carries along unseen.
    #[must_use]
    pub fn with_metadata(mut self, text: impl Into<String>) -> Self {
        self.metadata = Some(text.into().into());
        self
    }

    /// Returns the pixels as [`Pixels::as_slice`] gives them, without copying them.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let pixels = sheet(2.0, 1.0).ground("red").pixels()?;
    /// assert_eq!(pixels.into_vec(), [[255, 0, 0, 255]; 2]);
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    #[must_use]
    pub fn into_vec(self) -> Vec<[u8; 4]> {
        self.data
    }

    /// The pixels, row after row from the top.
    #[must_use]
    pub fn as_slice(&self) -> &[[u8; 4]] {
        &self.data
    }

    /// The pixels, to be changed.
    #[must_use]
    pub fn as_mut_slice(&mut self) -> &mut [[u8; 4]] {
        &mut self.data
    }

    /// Draws a sheet over what is there, scaled evenly to fit and in the middle.
    ///
    /// The same sheet gives the same bytes on any number of threads.
    ///
    /// # Errors
    ///
    /// The sheet's first fault. The picture is then as it was, but where the drawing was stopped halfway.
    pub fn draw(&mut self, sheet: &Sheet) -> Result<(), Fault> {
        let (width, height) = (self.width, self.height);
        sheet.draw_on(&mut self.data, (width, height), &WriteOptions::default())
    }
}

/// Draws a sheet from its display list, whose coordinates are pixels.
fn draw_scene(
    data: &mut [Rgba],
    (width, height): (u32, u32),
    (sheet, scene, to_pixels): (&Sheet, &Scene<'_>, &Affine),
    options: &WriteOptions,
) -> Result<(), Fault> {
    let tolerance = options.tolerance;
    let mut fault = FaultSlot::default();
    fault.positive("pixels", "tolerance", tolerance);
    fault.sound()?;
    let to_sheet = (*to_pixels * sheet.upright()).inverse();
    let (width, height, whole) = (width as usize, height as usize, !options.antialias);
    let target = Target { width, height, shift: Point::ZERO, to_sheet, tolerance, whole };
    limited("pixels", || Plan::of(sheet, scene, to_pixels, &target).map(|plan| plan.draw(data)))?
}

/// The map that fits a sheet evenly into the middle of a picture, as it is seen.
fn fitted(sheet: &Sheet, size: Point) -> Affine {
    let scale = (size / sheet.size).min_element();
    let margin = (size - sheet.size * scale) * 0.5;
    Affine::from_translation(margin)
        * Affine::from_scale(Point::splat(scale))
        * Affine::from_translation(-sheet.corner())
}

impl Sheet {
    /// The sheet as pixels, one for each pixel of 1/96 inch.
    ///
    /// # Errors
    ///
    /// The first fault of what is drawn, or a picture beyond 16,384 x 16,384 pixels.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// use chordane::raster::DrawError;
    /// let picture = sheet(4.0, 2.0).add(rectangle((0.0, 0.0), 2.5, 2.0).fill("#ff0000")).pixels()?;
    /// assert_eq!(picture.at(1, 1), Some([255, 0, 0, 255]));
    /// assert_eq!(picture.at(2, 1), Some([255, 0, 0, 128])); // half covered
    /// assert_eq!(picture.at(3, 1), Some([0, 0, 0, 0]));
    /// # Ok::<(), DrawError>(())
    /// ```
    pub fn pixels(&self) -> Result<Pixels, DrawError> {
        self.pixels_with(&WriteOptions::default())
    }

    /// Draws the sheet over the contents of a buffer, scaled uniformly to fit and centred. The buffer has four bytes per pixel (red, green, blue, alpha), row by
    /// row from the top; sRGB, alpha not premultiplied.
    ///
    /// # Errors
    ///
    /// A buffer of the wrong length, a width or height of 0, or the sheet's first fault. After a fault the buffer is unchanged, unless a budget stopped the
    /// drawing halfway.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let mut frame = vec![255; 4 * 40 * 30];
    /// sheet(4.0, 3.0).add(rectangle((0, 0), 2.0, 3.0).fill("teal")).draw_into(40, 30, &mut frame)?;
    /// assert_eq!((&frame[..4], &frame[4 * 39..4 * 40]), (&[0, 128, 128, 255][..], &[255; 4][..]));
    /// # Ok::<(), chordane::raster::DrawError>(())
    /// ```
    pub fn draw_into(&self, width: u32, height: u32, bytes: &mut [u8]) -> Result<(), DrawError> {
        let count = u64::from(width) * u64::from(height);
        if count == 0 {
            return Err(DrawError::NoPixels { width, height });
        }
        if bytes.len() as u64 != 4 * count {
            return Err(DrawError::WrongLength { width, height, bytes: bytes.len() });
        }
        Ok(self.draw_on(bytes.as_chunks_mut().0, (width, height), &WriteOptions::default())?)
    }

    fn draw_on(
        &self,
        data: &mut [Rgba],
        (width, height): (u32, u32),
        options: &WriteOptions,
    ) -> Result<(), Fault> {
        let to_pixels = fitted(self, Point::new(f64::from(width), f64::from(height)));
        let scene = self.seen_through(&(to_pixels * self.upright()))?;
        draw_scene(data, (width, height), (self, &scene, &to_pixels), options)
    }

    /// The sheet as pixels of another size; see [`WriteOptions`].
    ///
    /// # Errors
    ///
    /// As [`Sheet::pixels`], for the options' limit; a size without a pixel.
    pub fn pixels_with(&self, options: &WriteOptions) -> Result<Pixels, DrawError> {
        let size = match options.size {
            Some((width, height)) => Point::new(f64::from(width), f64::from(height)),
            None => (self.size * self.unit.pixels() - 1e-9).ceil().max(Point::ONE),
        };
        let to_pixels = fitted(self, size);
        let scene = self.seen_through(&(to_pixels * self.upright()))?;
        if size.max_element() > f64::from(options.max_side) {
            return Err(DrawError::TooLarge { width: size.x, height: size.y, limit: options.max_side });
        }
        let mut pixels = Pixels::within(size.x as u32, size.y as u32, options.max_side)?;
        draw_scene(&mut pixels.data, (pixels.width, pixels.height), (self, &scene, &to_pixels), options)?;
        pixels.metadata.clone_from(&self.metadata);
        if self.unit != Unit::Px {
            let per_inch = (size / self.size).min_element() * Unit::In.pixels() / self.unit.pixels();
            pixels.per_metre = Some((per_inch / 0.0254).round() as u32);
        }
        Ok(pixels)
    }
}

impl From<Pixels> for Picture {
    /// The pixels as a picture to paint with.
    fn from(pixels: Pixels) -> Self {
        Self::of_pixels(pixels.width, pixels.height, pixels.data)
    }
}

impl AsRef<[u8]> for Pixels {
    fn as_ref(&self) -> &[u8] {
        self.bytes()
    }
}

/// Converts to a buffer of the `image` crate without copying.
///
/// ```
/// use chordane::prelude::*;
/// let buffer = image::RgbaImage::from(sheet(4.0, 3.0).ground("teal").pixels()?);
/// assert_eq!((buffer.dimensions(), buffer.get_pixel(1, 1).0), ((4, 3), [0, 128, 128, 255]));
/// assert_eq!(Pixels::try_from(buffer)?.at(1, 1), Some([0, 128, 128, 255]));
/// # Ok::<(), chordane::raster::DrawError>(())
/// ```
#[cfg(feature = "image")]
impl From<Pixels> for image::RgbaImage {
    fn from(pixels: Pixels) -> Self {
        let (width, height) = (pixels.width, pixels.height);
        // The length always matches.
        Self::from_raw(width, height, pixels.data.into_flattened()).unwrap_or_default()
    }
}

/// Converts from a buffer of the `image` crate. An empty buffer, or one larger than [`Pixels::new`] allows, is an error.
#[cfg(feature = "image")]
impl TryFrom<image::RgbaImage> for Pixels {
    type Error = DrawError;

    fn try_from(buffer: image::RgbaImage) -> Result<Self, DrawError> {
        let mut pixels = Self::new(buffer.width(), buffer.height())?;
        pixels.data.copy_from_slice(buffer.as_raw().as_chunks().0);
        Ok(pixels)
    }
}

/// Converts from a buffer of the `image` crate to a picture for painting. An empty buffer is an error.
#[cfg(feature = "image")]
impl TryFrom<&image::RgbaImage> for Picture {
    type Error = Fault;

    fn try_from(buffer: &image::RgbaImage) -> Result<Self, Fault> {
        Self::from_rgba(buffer.width(), buffer.height(), buffer.as_raw())
    }
}

#[cfg(test)]
mod tests {
    #[cfg(feature = "image")]
    #[test]
    fn pixels_go_to_a_buffer_and_back() {
        use crate::prelude::*;
        let pixels = sheet(4.0, 3.0).add(circle((2, 1), 1.2).fill("#c8553d80")).pixels().unwrap();
        let buffer = image::RgbaImage::from(pixels.clone());
        assert_eq!((buffer.dimensions(), buffer.get_pixel(2, 1).0), ((4, 3), pixels.at(2, 1).unwrap()));
        assert_eq!(Picture::try_from(&buffer).unwrap(), pixels.clone().into());
        assert_eq!(Pixels::try_from(buffer).unwrap().as_slice(), pixels.as_slice());
        assert!(Pixels::try_from(image::RgbaImage::new(0, 3)).is_err());
        assert!(Picture::try_from(&image::RgbaImage::new(0, 3)).is_err());
    }
}
