//! Pictures of pixels from files: PNG, and JPEG with its feature.

use std::fmt;
use std::io::Cursor;

use crate::ground::{Fault, has_room, limited, visible};
use crate::sheet::{Original, Picture};

/// No picture has more pixels than this: a few bytes can stand for gigabytes.
const MAX_PIXELS: u64 = 1 << 26;

/// Nor more than this on a side.
const MAX_PIXELS_PER_SIDE: u32 = 16_384;

/// No file of a picture is larger than this.
const MAX_FILE_BYTES: usize = 64 << 20;

/// Why a picture could not be read.
///
/// ```
/// use chordane::prelude::*;
/// let told = Picture::read(b"not a picture").unwrap_err().to_string();
/// assert_eq!(told, "it is neither a PNG nor a JPEG file; give one of those");
/// ```
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub enum PictureError {
    /// It is no file of a kind that is read.
    NoPicture,
    /// The file is cut off or damaged: what its reader says.
    Broken(String),
    /// The file, or the picture in it, is larger than is allowed: what is, and by how much.
    TooLarge(String),
    /// Its memory was refused, or the work it is part of was stopped.
    Stopped(Fault),
}

impl fmt::Display for PictureError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::NoPicture => f.write_str("it is neither a PNG nor a JPEG file; give one of those"),
            Self::Broken(why) => write!(f, "it is cut off or damaged: {}; save it again", visible(why)),
            Self::TooLarge(what) => write!(f, "{what}; make it smaller"),
            Self::Stopped(fault) => fault.fmt(f),
        }
    }
}

impl std::error::Error for PictureError {}

impl Picture {
    /// Reads a PNG file, or a JPEG file with the feature `jpeg`. Their colours are taken to be sRGB. The file's bytes are kept, so that an SVG file
    /// carries them as they are.
    ///
    /// # Errors
    ///
    /// Bytes that are no such file, or damaged; a file of more than 64 MB; a picture of more than 16,384 pixels a side or 67 million in
    /// all, or one that needs more memory than there is. The size comes from the header, before anything is unpacked.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let file = sheet(4.0, 3.0).ground("teal").pixels()?.png()?;
    /// let picture = Picture::read(&file)?;
    /// assert_eq!((picture.width(), picture.height()), (4, 3));
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn read(bytes: &[u8]) -> Result<Self, PictureError> {
        if bytes.len() > MAX_FILE_BYTES {
            let what =
                format!("the file has {} bytes, and no more than {MAX_FILE_BYTES} are read", bytes.len());
            return Err(PictureError::TooLarge(what));
        }
        if bytes.starts_with(b"\x89PNG") {
            return png(bytes);
        }
        #[cfg(feature = "jpeg")]
        if bytes.starts_with(b"\xff\xd8") {
            return jpeg(bytes);
        }
        Err(PictureError::NoPicture)
    }
}

/// Refuses a picture of a size, before it is unpacked.
fn allowed(width: u32, height: u32) -> Result<(), PictureError> {
    if width.max(height) > MAX_PIXELS_PER_SIDE || u64::from(width) * u64::from(height) > MAX_PIXELS {
        let what = format!(
            "the picture has {width} x {height} pixels, and no more than {MAX_PIXELS_PER_SIDE} a side and {MAX_PIXELS} in all are read"
        );
        return Err(PictureError::TooLarge(what));
    }
    // Four bytes a pixel for the decoder, and four for the picture.
    let bytes = width as usize * height as usize * 8;
    limited("picture", || has_room(bytes)).map(drop).map_err(PictureError::Stopped)
}

fn png(bytes: &[u8]) -> Result<Picture, PictureError> {
    let broken = |error: &dyn fmt::Display| PictureError::Broken(error.to_string());
    let limits = png::Limits { bytes: (MAX_PIXELS as usize) * 8 };
    let mut decoder = png::Decoder::new_with_limits(Cursor::new(bytes), limits);
    decoder.set_transformations(png::Transformations::normalize_to_color8() | png::Transformations::ALPHA);
    decoder.set_ignore_text_chunk(true);
    let mut reader = decoder.read_info().map_err(|error| broken(&error))?;
    let (width, height) = (reader.info().width, reader.info().height);
    allowed(width, height)?;
    let size = reader.output_buffer_size().ok_or_else(|| broken(&"its size is not known"))?;
    let mut data = vec![0; size];
    let info = reader.next_frame(&mut data).map_err(|error| broken(&error))?;
    let data = data.get(..info.buffer_size()).unwrap_or_default();
    let pixels: Vec<[u8; 4]> = match info.color_type {
        png::ColorType::GrayscaleAlpha => {
            data.as_chunks::<2>().0.iter().map(|&[grey, alpha]| [grey, grey, grey, alpha]).collect()
        }
        _ => data.as_chunks::<4>().0.to_vec(),
    };
    let original = Original { media: "image/png", bytes: bytes.to_vec() };
    Ok(Picture::with_original(width, height, pixels, Some(original)))
}

#[cfg(feature = "jpeg")]
fn jpeg(bytes: &[u8]) -> Result<Picture, PictureError> {
    use zune_jpeg::JpegDecoder;
    use zune_jpeg::zune_core::bytestream::ZCursor;
    use zune_jpeg::zune_core::colorspace::ColorSpace;
    use zune_jpeg::zune_core::options::DecoderOptions;

    // Of several lines the first one says it.
    let broken = |error: &dyn fmt::Display| {
        let text = error.to_string();
        PictureError::Broken(text.lines().next().unwrap_or_default().trim().to_owned())
    };
    // The largest that there are, so that what is too large is refused below, in our words and before it is unpacked.
    let side = usize::from(u16::MAX);
    let options = DecoderOptions::default()
        .set_max_width(side)
        .set_max_height(side)
        .jpeg_set_out_colorspace(ColorSpace::RGBA);
    let mut decoder = JpegDecoder::new_with_options(ZCursor::new(bytes), options);
    decoder.decode_headers().map_err(|error| broken(&error))?;
    let (width, height) = decoder.dimensions().unwrap_or((0, 0));
    allowed(width as u32, height as u32)?;
    let data = decoder.decode().map_err(|error| broken(&error))?;
    let pixels = data.as_chunks::<4>().0.to_vec();
    let original = Original { media: "image/jpeg", bytes: bytes.to_vec() };
    Ok(Picture::with_original(width as u32, height as u32, pixels, Some(original)))
}
