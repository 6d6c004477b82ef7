//! Writing path data.
//!
//! [`Path::data`] writes every number in the fewest characters that read back to the same bits, always absolute,
//! so that reading gives the same path. [`Path::data_rounded`] rounds to a number of decimals and takes, segment
//! by segment, the shorter of absolute and relative; it keeps track of what it rounded, so that errors do not
//! add up.

use super::data_number::{NumberText, scaled, shortest};
use super::{Contour, Path, Verb};
use crate::number::Point;

impl Path {
    /// The path as the text of an SVG path's `d`. Reading it back gives the same path, to the last bit.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// use chordane::path::DataError;
    /// let vent = circle(pt(0.0, -30.0), 18.0);
    /// assert_eq!(Path::from_data(&vent.data())?, vent);
    /// # Ok::<(), DataError>(())
    /// ```
    ///
    /// Of a path that carries a fault it is what is left.
    #[must_use]
    pub fn data(&self) -> String {
        let mut out = String::with_capacity(self.contours().iter().map(|c| c.points().len() * 16).sum());
        self.write_data(&mut out);
        out
    }

    /// As [`Path::data`], appended to a text that there is already.
    pub fn write_data(&self, out: &mut String) {
        for contour in self.contours() {
            Writer { out, last_verb: 0, after_number: false, after_point: false, text: NumberText::new() }
                .contour(contour);
        }
    }

    /// The path as path data with coordinates rounded to a number of decimals (at most 12), and made as short as
    /// that allows. A coordinate is off by at most half a unit of the last decimal.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let third = start(pt(100.0, 100.0 / 3.0)).line(pt(101.0, 34.0)).open();
    /// assert_eq!(third.data_rounded(2), "M100 33.33l1 .67");
    /// ```
    #[must_use]
    pub fn data_rounded(&self, decimals: usize) -> String {
        let mut out = String::new();
        let mut writer = RoundedWriter::new(&mut out, decimals.min(12));
        self.contours().iter().for_each(|contour| writer.contour(contour));
        out
    }
}

/// What has been written last decides whether the next number needs a space before it.
struct Writer<'a> {
    out: &'a mut String,
    last_verb: u8,
    after_number: bool,
    /// Whether the last number had a point or an exponent, so that a number may begin with its point.
    after_point: bool,
    text: NumberText,
}

impl Writer<'_> {
    fn contour(&mut self, contour: &Contour) {
        let start = contour.start();
        self.verb(b'M');
        self.point(start);
        // Points after those of an M are lines.
        self.last_verb = b'L';
        let mut here = start;
        let mut points = contour.points().get(1..).unwrap_or_default();
        for &verb in contour.verbs() {
            let used = match (verb, points) {
                (Verb::Line, &[to, ..]) => {
                    self.line(here, to);
                    here = to;
                    1
                }
                (Verb::Quad, &[control, to, ..]) => {
                    self.verb(b'Q');
                    self.point(control);
                    self.point(to);
                    here = to;
                    2
                }
                (Verb::Cubic, &[control1, control2, to, ..]) => {
                    self.verb(b'C');
                    self.point(control1);
                    self.point(control2);
                    self.point(to);
                    here = to;
                    3
                }
                (arc, &[radii, tilt, to, ..]) => {
                    let (large, clockwise) = arc_flags(arc);
                    self.verb(b'A');
                    self.point(radii);
                    self.number(tilt.x);
                    self.out.push_str(flag_text(large, clockwise));
                    self.after_number = true;
                    self.after_point = false;
                    self.point(to);
                    here = to;
                    3
                }
                _ => 0,
            };
            points = points.get(used..).unwrap_or_default();
        }
        if contour.is_closed() {
            self.out.push('Z');
        }
    }

    #[inline]
    fn line(&mut self, here: Point, to: Point) {
        if to.y.to_bits() == here.y.to_bits() {
            self.verb(b'H');
            self.number(to.x);
        } else if to.x.to_bits() == here.x.to_bits() {
            self.verb(b'V');
            self.number(to.y);
        } else {
            self.verb(b'L');
            self.point(to);
        }
    }

    #[inline]
    fn verb(&mut self, verb: u8) {
        if verb != self.last_verb {
            self.out.push(char::from(verb));
            self.after_number = false;
            self.last_verb = verb;
        }
    }

    #[inline]
    fn point(&mut self, p: Point) {
        self.number(p.x);
        self.number(p.y);
    }

    #[inline]
    fn number(&mut self, value: f64) {
        shortest(value, &mut self.text);
        let (joint, point) = joint(self.text.as_bytes(), self.after_number, self.after_point);
        if joint {
            self.out.push(' ');
        }
        self.out.push_str(self.text.as_str());
        self.after_number = true;
        self.after_point = point;
    }
}

/// Whether a number needs a space before it, and whether one that begins with its point may follow it directly.
#[inline]
fn joint(text: &[u8], after_number: bool, after_point: bool) -> (bool, bool) {
    let first = text.first().copied().unwrap_or(b'0');
    let separate = after_number && first != b'-' && !(first == b'.' && after_point);
    (separate, text.iter().any(|b| matches!(b, b'.' | b'e')))
}

fn arc_flags(verb: Verb) -> (bool, bool) {
    match verb {
        Verb::ArcLargeClockwise => (true, true),
        Verb::ArcLargeAnticlockwise => (true, false),
        Verb::ArcShortClockwise => (false, true),
        _ => (false, false),
    }
}

fn flag_text(large: bool, clockwise: bool) -> &'static str {
    match (large, clockwise) {
        (false, false) => " 0 0",
        (false, true) => " 0 1",
        (true, false) => " 1 0",
        (true, true) => " 1 1",
    }
}

/// Beyond this many steps a rounded coordinate is no longer a whole number of them; it is then written in full.
const MAX_FIXED: f64 = 1e15;

/// A coordinate as a whole number of steps of the last decimal.
type Steps = (i64, i64);

struct RoundedWriter<'a> {
    out: &'a mut String,
    decimals: usize,
    scale: f64,
    last_verb: u8,
    after_number: bool,
    after_point: bool,
}

impl<'a> RoundedWriter<'a> {
    fn new(out: &'a mut String, decimals: usize) -> Self {
        let scale = 10_f64.powi(decimals as i32);
        Self { out, decimals, scale, last_verb: 0, after_number: false, after_point: false }
    }

    fn contour(&mut self, contour: &Contour) {
        if contour.points().iter().any(|p| steps(*p, self.scale).is_none()) {
            // Too large to round to these decimals: exact is the next best.
            Path::from_contours([contour.clone()]).write_data(self.out);
            self.last_verb = 0;
            self.after_number = true;
            return;
        }
        let scale = self.scale;
        let at = |p: Point| steps(p, scale).unwrap_or_default();
        let start = at(contour.start());
        self.command(b'M', &[start.0, start.1], "");
        // Points after those of an M are lines.
        self.last_verb = b'L';
        let mut here = start;
        let mut points = contour.points().get(1..).unwrap_or_default();
        for &verb in contour.verbs() {
            let (letter, used, flags) = match verb {
                Verb::Line => (b'L', 1, ""),
                Verb::Quad => (b'Q', 2, ""),
                Verb::Cubic => (b'C', 3, ""),
                arc => {
                    let (large, clockwise) = arc_flags(arc);
                    (b'A', 3, flag_text(large, clockwise))
                }
            };
            let steps: Vec<Steps> = points.iter().take(used).copied().map(at).collect();
            points = points.get(used..).unwrap_or_default();
            self.shorter(letter, &steps, flags, here);
            here = steps.last().copied().unwrap_or(here);
        }
        if contour.is_closed() {
            self.out.push('Z');
            self.last_verb = b'Z';
            self.after_number = false;
        }
    }

    /// Writes a segment in the shorter of its absolute and its relative form.
    fn shorter(&mut self, letter: u8, points: &[Steps], flags: &'static str, here: Steps) {
        let relative: Vec<Steps> = points.iter().map(|p| (p.0 - here.0, p.1 - here.1)).collect();
        let forms = match (letter, points, relative.as_slice()) {
            (b'L', &[(x, _)], &[(dx, 0)]) => [(b'H', vec![x]), (b'h', vec![dx])],
            (b'L', &[(_, y)], &[(0, dy)]) => [(b'V', vec![y]), (b'v', vec![dy])],
            (b'A', &[radii, tilt, to], &[_, _, step]) => [
                (b'A', vec![radii.0, radii.1, tilt.0, to.0, to.1]),
                (b'a', vec![radii.0, radii.1, tilt.0, step.0, step.1]),
            ],
            _ => [(letter, flat(points)), (letter.to_ascii_lowercase(), flat(&relative))],
        };
        let [absolute, relative] = forms;
        let marked = self.out.len();
        let before = (self.last_verb, self.after_number, self.after_point);
        self.command(absolute.0, &absolute.1, flags);
        let absolute_text = self.out.split_off(marked);
        let after = (self.last_verb, self.after_number, self.after_point);
        (self.last_verb, self.after_number, self.after_point) = before;
        self.command(relative.0, &relative.1, flags);
        if absolute_text.len() <= self.out.len() - marked {
            self.out.truncate(marked);
            self.out.push_str(&absolute_text);
            (self.last_verb, self.after_number, self.after_point) = after;
        }
    }

    fn command(&mut self, letter: u8, numbers: &[i64], flags: &str) {
        if letter != self.last_verb {
            self.out.push(char::from(letter));
            self.after_number = false;
            self.last_verb = letter;
        }
        let mut text = NumberText::new();
        for (i, &number) in numbers.iter().enumerate() {
            if i == 3 && !flags.is_empty() {
                self.out.push_str(flags);
                self.after_point = false;
            }
            scaled(number, self.decimals, &mut text);
            let (separate, point) = joint(text.as_bytes(), self.after_number, self.after_point);
            if separate {
                self.out.push(' ');
            }
            self.out.push_str(text.as_str());
            self.after_number = true;
            self.after_point = point;
        }
    }
}

fn steps(p: Point, scale: f64) -> Option<Steps> {
    let scaled = (p * scale).round();
    (scaled.abs().max_element() < MAX_FIXED).then_some((scaled.x as i64, scaled.y as i64))
}

fn flat(points: &[Steps]) -> Vec<i64> {
    points.iter().flat_map(|p| [p.0, p.1]).collect()
}
