//! The text that a picture carries along unseen.

use super::tree::{is_svg, name, parse, text_in};

/// The metadata of an SVG document or a PNG file, as [`Sheet::metadata`](crate::sheet::Sheet::metadata) gave it; none where
/// there is none, or where the bytes are no such file. Nothing else of the picture is read.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::read::read_metadata;
/// let kite = sheet(4.0, 3.0).add(circle((2.0, 1.0), 1.0).fill("teal")).metadata("sag < 0.3");
/// assert_eq!(read_metadata(kite.svg()?.as_bytes()).as_deref(), Some("sag < 0.3"));
/// assert_eq!(read_metadata(&kite.pixels()?.png()?).as_deref(), Some("sag < 0.3"));
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[must_use]
pub fn read_metadata(bytes: &[u8]) -> Option<String> {
    #[cfg(feature = "png")]
    if bytes.starts_with(b"\x89PNG") {
        return of_png(bytes);
    }
    of_svg(bytes)
}

/// Whether bytes are a whole PNG file: its chunks agree with their checksums, its pixels can be unpacked, and its end is there. Cost: as for reading the
/// picture.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::read::is_whole_png;
/// let mut bytes = sheet(4.0, 3.0).add(circle((2.0, 1.0), 1.0).fill("teal")).pixels()?.png()?;
/// assert!(is_whole_png(&bytes));
/// assert!(!is_whole_png(&bytes[..bytes.len() - 1]));
/// let middle = bytes.len() / 2;
/// bytes[middle] ^= 1;
/// assert!(!is_whole_png(&bytes));
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[cfg(feature = "png")]
#[must_use]
pub fn is_whole_png(bytes: &[u8]) -> bool {
    let limits = png::Limits { bytes: 64 << 20 };
    let mut decoder = png::Decoder::new_with_limits(std::io::Cursor::new(bytes), limits);
    decoder.set_ignore_text_chunk(false);
    let Ok(mut reader) = decoder.read_info() else { return false };
    loop {
        match reader.next_row() {
            Ok(Some(_)) => {}
            Ok(None) => break,
            Err(_) => return false,
        }
    }
    reader.finish().is_ok()
}

/// A text that unpacks to more than this is none of ours: a small one can stand for gigabytes.
#[cfg(feature = "png")]
const MAX_TEXT_BYTES: usize = 32 << 20;

#[cfg(feature = "png")]
fn of_png(bytes: &[u8]) -> Option<String> {
    // The whole of a small header and its texts; a text that would unpack to more than this is left out.
    let limits = png::Limits { bytes: 64 << 20 };
    let reader = png::Decoder::new_with_limits(std::io::Cursor::new(bytes), limits).read_info().ok()?;
    let texts = &reader.info().utf8_text;
    let mut text = texts.iter().find(|text| text.keyword == crate::write::METADATA_KEYWORD)?.clone();
    text.decompress_text_with_limit(MAX_TEXT_BYTES).ok()?;
    text.get_text().ok()
}

fn of_svg(bytes: &[u8]) -> Option<String> {
    let tree = parse(std::str::from_utf8(bytes).ok()?).ok()?;
    tree.descendants().find(|node| is_svg(*node) && name(*node) == "metadata").map(text_in)
}
