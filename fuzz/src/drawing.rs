//! Paths out of bytes.

use arbitrary::{Result, Unstructured};
use chordane::prelude::*;

/// How wild the numbers are.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) enum Numbers {
    /// Within a square from 0 to this and a quarter more on each side; many on a grid, so that things touch.
    Near(f64),
    /// Any, also those that are none.
    Any,
}

impl Numbers {
    pub(crate) fn one(self, bytes: &mut Unstructured<'_>) -> Result<f64> {
        match self {
            Self::Near(size) => Ok(match bytes.int_in_range(0..=3)? {
                0 => f64::from(bytes.int_in_range(0..=6_u8)?) * size / 6.0,
                1 => f64::from(bytes.int_in_range(0..=40_u8)?) * size / 40.0,
                _ => (f64::from(bytes.arbitrary::<u16>()?) / 65_535.0 * 1.5 - 0.25) * size,
            }),
            Self::Any => Ok(match bytes.int_in_range(0..=9)? {
                0 => bytes.arbitrary()?,
                1 => *bytes.choose(&[0.0, -0.0, 5e-324, 1e-9, 1e9, 1e154, 1e308, f64::INFINITY, f64::NAN])?,
                _ => f64::from(bytes.arbitrary::<i16>()?) / 100.0,
            }),
        }
    }

    pub(crate) fn point(self, bytes: &mut Unstructured<'_>) -> Result<Point> {
        Ok(pt(self.one(bytes)?, self.one(bytes)?))
    }

    /// One or a few contours of any kind of segment.
    pub(crate) fn path(self, bytes: &mut Unstructured<'_>) -> Result<Path> {
        let mut path = Path::empty();
        for _ in 0..bytes.int_in_range(1..=3)? {
            path = path.and(&self.contour(bytes)?);
        }
        Ok(path.with_fill_rule(if bytes.arbitrary()? { FillRule::EvenOdd } else { FillRule::Nonzero }))
    }

    fn contour(self, bytes: &mut Unstructured<'_>) -> Result<Path> {
        let at = self.point(bytes)?;
        let size = |bytes: &mut Unstructured<'_>| self.one(bytes).map(f64::abs);
        match bytes.int_in_range(0..=7)? {
            0 => return Ok(circle(at, size(bytes)?)),
            1 => return Ok(rectangle(at, self.one(bytes)?, self.one(bytes)?)),
            2 => return Ok(star(at, bytes.int_in_range(0..=9)?, size(bytes)?, size(bytes)?)),
            3 => {
                let points: Result<Vec<Point>> =
                    (0..bytes.int_in_range(0..=6)?).map(|_| self.point(bytes)).collect();
                let through = through(points?);
                return Ok(if bytes.arbitrary()? { through.close() } else { through.open() });
            }
            _ => {}
        }
        let mut pen = start(at);
        for _ in 0..bytes.int_in_range(0..=6)? {
            pen = match bytes.int_in_range(0..=5)? {
                0 => pen.quad(self.point(bytes)?, self.point(bytes)?),
                1 => pen.cubic(self.point(bytes)?, self.point(bytes)?, self.point(bytes)?),
                2 => pen.arc_about(self.point(bytes)?, deg(4.0 * self.one(bytes)?)),
                3 => {
                    let way =
                        if bytes.arbitrary()? { ArcWay::LongClockwise } else { ArcWay::ShortAnticlockwise };
                    pen.arc_radii(self.point(bytes)?, self.point(bytes)?, deg(self.one(bytes)?), way)
                }
                _ => pen.line(self.point(bytes)?),
            };
        }
        Ok(if bytes.arbitrary()? { pen.close() } else { pen.open() })
    }
}
