//! Reading path data: the whole grammar of the SVG 2 recommendation, section 9.3.9.
//!
//! All twenty commands, numbers without separators (`1-2.5.5`), arc flags glued to what follows, and implied
//! repeats. Exponents are read too, as every reader of path data does.

use std::fmt;
use std::ops::Range;

use super::data_number::{NumberRead, read_number};
use super::{Contour, ContourBuilder, Path, Verb};
use crate::ground::threads;
use crate::number::Point;

/// Path data that does not follow the grammar: what is wrong, where, and what came before it.
///
/// ```
/// use chordane::prelude::*;
/// let error = Path::from_data("M0 0H20X").unwrap_err();
/// assert_eq!((error.position(), error.so_far().data().as_str()), (7, "M0 0H20"));
/// ```
#[derive(Clone, Debug, PartialEq)]
pub struct DataError {
    kind: DataErrorKind,
    at: usize,
    so_far: Path,
}

/// What is wrong with path data.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::path::DataErrorKind;
/// assert_eq!(Path::from_data("M0 0X").unwrap_err().kind(), DataErrorKind::UnknownCommand('X'));
/// ```
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub enum DataErrorKind {
    /// The data does not begin with `M` or `m`.
    NoMoveFirst,
    /// A character is not a command where one must stand.
    UnknownCommand(char),
    /// A number is missing.
    NumberMissing,
    /// An arc flag is neither `0` nor `1`.
    FlagMissing,
    /// A number, or a sum of relative ones, is beyond the range of numbers.
    TooLarge,
}

impl DataError {
    /// What is wrong.
    #[must_use]
    pub fn kind(&self) -> DataErrorKind {
        self.kind
    }

    /// The position of the error in the text, in bytes from its beginning.
    #[must_use]
    pub fn position(&self) -> usize {
        self.at
    }

    /// The segments before the error. The recommendation (section 9.5.4) has them drawn.
    #[must_use]
    pub fn so_far(&self) -> &Path {
        &self.so_far
    }
}

impl fmt::Display for DataError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "path data, byte {}: ", self.at)?;
        match self.kind {
            DataErrorKind::NoMoveFirst => {
                f.write_str("path data begins with M or m; put the first point there")
            }
            DataErrorKind::UnknownCommand(found) => {
                write!(f, "{found:?} is not a command; use one of M L H V C S Q T A Z, large or small")
            }
            DataErrorKind::NumberMissing => f.write_str("a number is missing; give every point its x and y"),
            DataErrorKind::FlagMissing => f.write_str("an arc's flag is missing; give 0 or 1"),
            DataErrorKind::TooLarge => {
                f.write_str("a number is too large to compute with; bring it below 1e308")
            }
        }
    }
}

impl std::error::Error for DataError {}

impl Path {
    /// Reads path data, the text of an SVG path's `d`.
    ///
    /// Empty text is the empty path. Cost: linear in the text; long text is read on several threads.
    ///
    /// # Errors
    ///
    /// The first place that does not follow the grammar, with the segments before it in
    /// [`DataError::so_far`].
    ///
    /// ```
    /// use chordane::prelude::*;
    /// use chordane::path::DataError;
    ///
    /// let sail = Path::from_data("m0-120 90 90-90 150-90-150z")?;
    /// assert_eq!(sail.contours()[0].vertex_count(), 4);
    ///
    /// let error = Path::from_data("M0 0 L10 10 20").unwrap_err();
    /// assert_eq!(error.to_string(), "path data, byte 14: a number is missing; give every point its x and y");
    /// assert_eq!(error.so_far().data(), "M0 0 10 10");
    /// # Ok::<(), DataError>(())
    /// ```
    pub fn from_data(text: &str) -> Result<Self, DataError> {
        let pieces: Vec<Piece> = if text.len() < 2 * PIECE_BYTES {
            vec![read_piece(text.as_bytes())]
        } else {
            let cuts = cut_at_moves(text);
            let piece = |i: usize| {
                cuts.get(i).and_then(|range| text.as_bytes().get(range.clone())).unwrap_or_default()
            };
            threads::map(0..cuts.len(), 1, |i| read_piece(piece(i)))
        };
        let mut contours = Vec::with_capacity(pieces.iter().map(|piece| piece.contours.len()).sum());
        let mut begin = 0;
        for piece in pieces {
            contours.extend(piece.contours);
            if let Some((kind, at)) = piece.stop {
                let so_far = Self::from_contours(contours);
                return Err(DataError { kind, at: begin + at, so_far });
            }
            begin += piece.bytes;
        }
        Ok(Self::from_contours(contours))
    }
}

/// Long data is read in pieces of about this size, spread over threads.
const PIECE_BYTES: usize = 1 << 17;

/// Cuts long data before commands `M`: what follows one does not depend on what came before it. Data without one
/// stays whole.
fn cut_at_moves(text: &str) -> Vec<Range<usize>> {
    let mut cuts = vec![0];
    let mut at = PIECE_BYTES;
    while let Some(found) = text.as_bytes().get(at..).and_then(|rest| rest.iter().position(|b| *b == b'M')) {
        cuts.push(at + found);
        at += found + PIECE_BYTES;
    }
    cuts.push(text.len());
    cuts.windows(2).map(|pair| pair[0]..pair[1]).collect()
}

/// What was read of a piece, and where and why the reading stopped.
struct Piece {
    contours: Vec<Contour>,
    stop: Option<Stop>,
    bytes: usize,
}

fn read_piece(bytes: &[u8]) -> Piece {
    let mut reader = Reader::new(bytes);
    let stop = reader.read().err();
    Piece { contours: reader.finish(), stop, bytes: bytes.len() }
}

/// The control point that a smooth curve continues from.
#[derive(Clone, Copy)]
enum Handle {
    None,
    Quad(Point),
    Cubic(Point),
    /// A contour was closed, and nothing drawn since.
    Closed,
}

struct Reader<'a> {
    bytes: &'a [u8],
    at: usize,
    contours: Vec<Contour>,
    verbs: Vec<Verb>,
    points: Vec<Point>,
    /// Where the pen stands, and where its contour began.
    here: Point,
    home: Point,
    handle: Handle,
}

/// A contour of fewer points is copied out of the reader's storage, which costs less than growing new storage for
/// each; a longer one is handed over as it is.
const COPIED_POINTS: usize = 1 << 16;

type Stop = (DataErrorKind, usize);

impl<'a> Reader<'a> {
    fn new(bytes: &'a [u8]) -> Self {
        Self {
            bytes,
            at: 0,
            contours: Vec::new(),
            verbs: Vec::new(),
            points: Vec::new(),
            here: Point::ZERO,
            home: Point::ZERO,
            handle: Handle::None,
        }
    }

    fn finish(mut self) -> Vec<Contour> {
        self.finish_contour(false);
        self.contours
    }

    /// Hands over the contour that was read, in storage of just its size; the reader's own storage is used again.
    fn finish_contour(&mut self, closed: bool) {
        if self.points.is_empty() {
            return;
        }
        let builder = if self.points.len() < COPIED_POINTS {
            ContourBuilder::from_parts(self.verbs.as_slice().to_vec(), self.points.as_slice().to_vec())
        } else {
            ContourBuilder::from_parts(std::mem::take(&mut self.verbs), std::mem::take(&mut self.points))
        };
        self.contours.push(builder.finish(closed));
        self.verbs.clear();
        self.points.clear();
    }

    #[inline]
    fn peek(&self) -> Option<u8> {
        self.bytes.get(self.at).copied()
    }

    #[inline]
    fn skip_space(&mut self) {
        while let Some(b' ' | b'\n' | b'\t' | b'\r' | 0x0c) = self.peek() {
            self.at += 1;
        }
    }

    /// Skips white space with at most one comma; true when there was a comma.
    #[inline]
    fn skip_comma(&mut self) -> bool {
        // What comes next is most often the number itself: all that may be skipped is at most a comma.
        if self.peek().is_some_and(|next| next > b',') {
            return false;
        }
        self.skip_space();
        let comma = self.peek() == Some(b',');
        if comma {
            self.at += 1;
            self.skip_space();
        }
        comma
    }

    fn read(&mut self) -> Result<(), Stop> {
        self.skip_space();
        let mut first = true;
        while let Some(letter) = self.peek() {
            let place = self.at;
            if first && !matches!(letter, b'M' | b'm') {
                return Err((DataErrorKind::NoMoveFirst, place));
            }
            first = false;
            self.at += 1;
            let relative = letter.is_ascii_lowercase();
            match letter.to_ascii_uppercase() {
                b'Z' => self.close(),
                b'M' => self.moves(relative)?,
                b'L' => self.repeat(|reader| reader.line(relative))?,
                b'H' => self.repeat(|reader| reader.level(relative))?,
                b'V' => self.repeat(|reader| reader.upright(relative))?,
                b'C' => self.repeat(|reader| reader.cubic(relative))?,
                b'S' => self.repeat(|reader| reader.smooth_cubic(relative))?,
                b'Q' => self.repeat(|reader| reader.quad(relative))?,
                b'T' => self.repeat(|reader| reader.smooth_quad(relative))?,
                b'A' => self.repeat(|reader| reader.arc(relative))?,
                _ => return Err((DataErrorKind::UnknownCommand(self.character(place)), place)),
            }
            self.skip_space();
        }
        Ok(())
    }

    /// The whole character at a position, for the message.
    #[cold]
    fn character(&self, place: usize) -> char {
        let rest = self.bytes.get(place..).unwrap_or_default();
        let rest = rest.get(..rest.len().min(4)).unwrap_or_default();
        rest.utf8_chunks()
            .next()
            .and_then(|chunk| chunk.valid().chars().next())
            .unwrap_or(char::REPLACEMENT_CHARACTER)
    }

    /// One set of arguments, then as many more as follow without a command.
    #[inline]
    fn repeat(&mut self, mut one: impl FnMut(&mut Self) -> Result<(), Stop>) -> Result<(), Stop> {
        self.skip_space();
        loop {
            one(self)?;
            let comma = self.skip_comma();
            match self.peek() {
                Some(b'0'..=b'9' | b'.' | b'-' | b'+') => {}
                _ if comma => return Err((DataErrorKind::NumberMissing, self.at)),
                _ => return Ok(()),
            }
        }
    }

    #[inline]
    fn number(&mut self) -> Result<f64, Stop> {
        match read_number(self.bytes, self.at) {
            NumberRead::Value(value, end) => {
                self.at = end;
                Ok(value)
            }
            NumberRead::Missing => Err((DataErrorKind::NumberMissing, self.at)),
            NumberRead::TooLarge => Err((DataErrorKind::TooLarge, self.at)),
        }
    }

    #[inline]
    fn next_number(&mut self) -> Result<f64, Stop> {
        self.skip_comma();
        self.number()
    }

    /// A point, the first of a set of arguments.
    #[inline]
    fn point(&mut self, relative: bool) -> Result<Point, Stop> {
        let place = self.at;
        let x = self.number()?;
        let y = self.next_number()?;
        if !relative {
            return Ok(Point::new(x, y));
        }
        self.finite(Point::new(self.here.x + x, self.here.y + y), place)
    }

    #[inline]
    fn next_point(&mut self, relative: bool) -> Result<Point, Stop> {
        self.skip_comma();
        self.point(relative)
    }

    #[inline]
    fn finite(&self, p: Point, place: usize) -> Result<Point, Stop> {
        if p.x.is_finite() && p.y.is_finite() { Ok(p) } else { Err((DataErrorKind::TooLarge, place)) }
    }

    /// A drawing command straight after a close begins a new contour at the same start.
    #[inline]
    fn ensure_begun(&mut self) {
        if self.points.is_empty() {
            self.points.push(self.here);
            self.home = self.here;
        }
    }

    fn close(&mut self) {
        // Closing once more what is closed, and has nothing in it yet, draws nothing.
        if self.points.is_empty() && !self.contours.is_empty() && matches!(self.handle, Handle::Closed) {
            return;
        }
        self.ensure_begun();
        self.finish_contour(true);
        self.here = self.home;
        self.handle = Handle::Closed;
    }

    fn moves(&mut self, relative: bool) -> Result<(), Stop> {
        self.skip_space();
        let mut first = true;
        self.repeat(|reader| {
            if !std::mem::take(&mut first) {
                return reader.line(relative);
            }
            let to = reader.point(relative)?;
            reader.finish_contour(false);
            reader.points.push(to);
            reader.here = to;
            reader.home = to;
            reader.handle = Handle::None;
            Ok(())
        })
    }

    #[inline]
    fn push_line(&mut self, to: Point) {
        self.ensure_begun();
        self.verbs.push(Verb::Line);
        self.points.push(to);
        self.here = to;
        self.handle = Handle::None;
    }

    #[inline]
    fn line(&mut self, relative: bool) -> Result<(), Stop> {
        let to = self.point(relative)?;
        self.push_line(to);
        Ok(())
    }

    fn level(&mut self, relative: bool) -> Result<(), Stop> {
        let place = self.at;
        let x = self.number()?;
        let to = Point::new(if relative { self.here.x + x } else { x }, self.here.y);
        let to = self.finite(to, place)?;
        self.push_line(to);
        Ok(())
    }

    fn upright(&mut self, relative: bool) -> Result<(), Stop> {
        let place = self.at;
        let y = self.number()?;
        let to = Point::new(self.here.x, if relative { self.here.y + y } else { y });
        let to = self.finite(to, place)?;
        self.push_line(to);
        Ok(())
    }

    fn push_cubic(&mut self, control1: Point, control2: Point, to: Point) {
        self.ensure_begun();
        self.verbs.push(Verb::Cubic);
        self.points.extend_from_slice(&[control1, control2, to]);
        self.here = to;
        self.handle = Handle::Cubic(control2);
    }

    fn push_quad(&mut self, control: Point, to: Point) {
        self.ensure_begun();
        self.verbs.push(Verb::Quad);
        self.points.extend_from_slice(&[control, to]);
        self.here = to;
        self.handle = Handle::Quad(control);
    }

    fn cubic(&mut self, relative: bool) -> Result<(), Stop> {
        let control1 = self.point(relative)?;
        let control2 = self.next_point(relative)?;
        let to = self.next_point(relative)?;
        self.push_cubic(control1, control2, to);
        Ok(())
    }

    fn smooth_cubic(&mut self, relative: bool) -> Result<(), Stop> {
        let place = self.at;
        let control2 = self.point(relative)?;
        let to = self.next_point(relative)?;
        let control1 = match self.handle {
            Handle::Cubic(handle) => self.finite(self.here * 2.0 - handle, place)?,
            _ => self.here,
        };
        self.push_cubic(control1, control2, to);
        Ok(())
    }

    fn quad(&mut self, relative: bool) -> Result<(), Stop> {
        let control = self.point(relative)?;
        let to = self.next_point(relative)?;
        self.push_quad(control, to);
        Ok(())
    }

    fn smooth_quad(&mut self, relative: bool) -> Result<(), Stop> {
        let place = self.at;
        let to = self.point(relative)?;
        let control = match self.handle {
            Handle::Quad(handle) => self.finite(self.here * 2.0 - handle, place)?,
            _ => self.here,
        };
        self.push_quad(control, to);
        Ok(())
    }

    fn flag(&mut self) -> Result<bool, Stop> {
        self.skip_comma();
        let flag = match self.peek() {
            Some(b'0') => false,
            Some(b'1') => true,
            _ => return Err((DataErrorKind::FlagMissing, self.at)),
        };
        self.at += 1;
        Ok(flag)
    }

    fn arc(&mut self, relative: bool) -> Result<(), Stop> {
        let radii = Point::new(self.number()?, self.next_number()?);
        let tilt = self.next_number()?;
        let large = self.flag()?;
        let clockwise = self.flag()?;
        let to = self.next_point(relative)?;
        self.ensure_begun();
        self.verbs.push(Verb::arc(large, clockwise));
        self.points.extend_from_slice(&[radii, Point::new(tilt, 0.0), to]);
        self.here = to;
        self.handle = Handle::None;
        Ok(())
    }
}
