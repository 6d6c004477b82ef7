//! How a sheet is drawn and written.

/// No picture has more pixels a side than this, unless [`WriteOptions::max_side`] allows it.
pub const MAX_SIDE: u32 = 16_384;

/// How a sheet is drawn and written; each format takes what it needs.
///
/// ```
/// use chordane::prelude::*;
/// let page = sheet(8.0, 6.0).add(rectangle((0.0, 0.0), 4.0, 6.0).fill("#000000"));
/// let hard = WriteOptions { antialias: false, ..WriteOptions::sized(80, 60) };
/// assert_eq!(page.pixels_with(&hard)?.width(), 80);
/// assert!(page.svg_with(&hard)?.contains(r#"shape-rendering="crispEdges""#));
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct WriteOptions {
    /// The size in pixels that the sheet is fitted into, evenly and in the middle; its ground covers all of it. By default a picture is as
    /// large as its sheet at 96 pixels an inch, and a document as large as the sheet, in its own unit.
    pub size: Option<(u32, u32)>,
    /// Whether pixels at edges are painted as far as they are covered, as by default; else those whose middle lies inside are painted whole, and
    /// the others not at all. A document asks its viewer for the same.
    pub antialias: bool,
    /// The largest distance between a flattened curve and the true one, in pixels, above 0; 0.01 by default: the coverage of
    /// a pixel is then off by at most 1 in 100, which at a full step from black to white is under 3 of 255 levels.
    pub tolerance: f64,
    /// The most pixels a side that are allowed; 16,384 by default.
    pub max_side: u32,
    /// The number of decimals of coordinates in text, at most 12. By default, as many as show a millionth of the sheet's longer side.
    pub decimals: Option<usize>,
}

impl Default for WriteOptions {
    fn default() -> Self {
        Self { size: None, antialias: true, tolerance: 0.01, max_side: MAX_SIDE, decimals: None }
    }
}

impl WriteOptions {
    /// The defaults in a size in pixels.
    #[must_use]
    pub fn sized(width: u32, height: u32) -> Self {
        Self { size: Some((width, height)), ..Self::default() }
    }
}
