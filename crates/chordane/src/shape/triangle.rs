//! Triangles by what is known of them, and everything that follows.

use std::fmt;

use crate::ground::plain_number;
use crate::number::{Angle, IntoPoint, Point, pt, rad};
use crate::path::Path;

/// A triangle by its sides; the rest follows. Its sides are `a`, `b` and `c`, and each angle lies across from the side of
/// its name.
///
/// It stands with `c` along +x from the origin: the vertices of the angles A, B and C are at the origin, at (c, 0) and
/// above that side as seen on a sheet with y down.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::shape::TriangleError;
/// let ramp = Triangle::by_legs(4.0, 3.0)?;
/// assert_eq!(ramp.sides(), [3.0, 4.0, 5.0]);
/// assert!((ramp.angles()[0].degrees() - 36.869_897_645_844).abs() < 1e-9);
/// # Ok::<(), TriangleError>(())
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Triangle {
    a: f64,
    b: f64,
    c: f64,
}

/// Why there is no such triangle.
///
/// ```
/// use chordane::prelude::*;
/// let error = Triangle::by_sides(10.0, 20.0, 40.0).unwrap_err();
/// assert!(error.to_string().contains("40"), "{error}");
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
#[non_exhaustive]
pub enum TriangleError {
    /// A side is not a number above zero.
    Side {
        /// The side.
        length: f64,
    },
    /// One side is as long as the other two together, or longer.
    TooLong {
        /// The longest side.
        longest: f64,
        /// The other two together.
        others: f64,
    },
    /// An angle is not between 0 and 180 degrees, or two are 180 or more together.
    Angles {
        /// The angles together, in degrees.
        degrees: f64,
    },
}

impl fmt::Display for TriangleError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Side { length } => {
                write!(f, "a side of {} makes no triangle; give a length above 0", plain_number(*length))
            }
            Self::TooLong { longest, others } => write!(
                f,
                "the sides do not meet: the longest is {}, and the other two together are {}; shorten it below that",
                plain_number(*longest),
                plain_number(*others)
            ),
            Self::Angles { degrees } => write!(
                f,
                "angles of {} degrees together leave nothing for the rest; give angles above 0 that stay below 180 together",
                plain_number(*degrees)
            ),
        }
    }
}

impl std::error::Error for TriangleError {}

fn length(length: f64) -> Result<f64, TriangleError> {
    if length > 0.0 && length.is_finite() { Ok(length) } else { Err(TriangleError::Side { length }) }
}

fn between(angles: &[Angle]) -> Result<(), TriangleError> {
    let together: f64 = angles.iter().map(|angle| angle.degrees()).sum();
    let sound = angles.iter().all(|angle| angle.degrees() > 0.0) && together < 180.0;
    if sound { Ok(()) } else { Err(TriangleError::Angles { degrees: together }) }
}

impl Triangle {
    /// By its three sides.
    ///
    /// # Errors
    ///
    /// A side that is not a length, or one as long as the other two together.
    pub fn by_sides(a: f64, b: f64, c: f64) -> Result<Self, TriangleError> {
        let (a, b, c) = (length(a)?, length(b)?, length(c)?);
        let longest = a.max(b).max(c);
        let others = a + b + c - longest;
        if longest >= others {
            return Err(TriangleError::TooLong { longest, others });
        }
        Ok(Self { a, b, c })
    }

    /// By two sides and the angle between them, which is C.
    ///
    /// # Errors
    ///
    /// A side that is not a length, or an angle that is not between 0 and 180 degrees.
    pub fn by_two_sides(a: f64, b: f64, between_them: Angle) -> Result<Self, TriangleError> {
        between(&[between_them])?;
        let (a, b) = (length(a)?, length(b)?);
        let arm = pt(a * between_them.cos() - b, a * between_them.sin());
        Ok(Self { a, b, c: arm.length() })
    }

    /// By the side c and the two angles at its ends, A and B.
    ///
    /// # Errors
    ///
    /// A side that is not a length, or angles that leave nothing for the third.
    pub fn by_angles(at_a: Angle, at_b: Angle, c: f64) -> Result<Self, TriangleError> {
        between(&[at_a, at_b])?;
        let c = length(c)?;
        let third = (at_a + at_b).sin();
        Ok(Self { a: c * at_a.sin() / third, b: c * at_b.sin() / third, c })
    }

    /// With a right angle between two legs: the level one is b, the upright one a, and the long side c.
    ///
    /// # Errors
    ///
    /// A leg that is not a length.
    pub fn by_legs(level: f64, upright: f64) -> Result<Self, TriangleError> {
        let (b, a) = (length(level)?, length(upright)?);
        Ok(Self { a, b, c: a.hypot(b) })
    }

    /// The sides a, b and c.
    #[must_use]
    pub fn sides(&self) -> [f64; 3] {
        [self.a, self.b, self.c]
    }

    /// The angles A, B and C, each across from its side. Together 180 degrees.
    #[must_use]
    pub fn angles(&self) -> [Angle; 3] {
        // From half angles: exact also where the triangle is very flat (W. Kahan, "Miscalculating area and angles of a
        // needle-like triangle", 2014).
        let angle = |across: f64, p: f64, q: f64| {
            let (long, short) = (p.max(q), p.min(q));
            let rest = if short >= across { across - (long - short) } else { short - (long - across) };
            let top = ((long - short) + across) * rest.max(0.0);
            let under = (long + (short + across)) * ((long - across) + short);
            rad(2.0 * (top / under).sqrt().atan())
        };
        [angle(self.a, self.b, self.c), angle(self.b, self.a, self.c), angle(self.c, self.a, self.b)]
    }

    /// By how much a pen that walks round it turns at the vertices A, B and C: 180 degrees less the angle there.
    #[must_use]
    pub fn turns(&self) -> [Angle; 3] {
        self.angles().map(|angle| Angle::FULL * 0.5 - angle)
    }

    /// The area.
    #[must_use]
    pub fn area(&self) -> f64 {
        0.5 * self.c * self.heights()[2]
    }

    /// The heights over the sides a, b and c.
    #[must_use]
    pub fn heights(&self) -> [f64; 3] {
        let [at_a, at_b, _] = self.angles();
        [self.c * at_b.sin(), self.c * at_a.sin(), self.b * at_a.sin()]
    }

    /// The radius of the circle that touches all sides.
    #[must_use]
    pub fn inradius(&self) -> f64 {
        2.0 * self.area() / (self.a + self.b + self.c)
    }

    /// The radius of the circle through all vertices.
    #[must_use]
    pub fn circumradius(&self) -> f64 {
        self.a * self.b * self.c / (4.0 * self.area())
    }

    /// The vertices A, B and C: the origin, (c, 0), and one above that side as seen on a sheet with y down.
    #[must_use]
    pub fn vertices(&self) -> [Point; 3] {
        let [at_a, _, _] = self.angles();
        [Point::ZERO, pt(self.c, 0.0), pt(self.b * at_a.cos(), -self.b * at_a.sin())]
    }

    /// The middle of the circle that touches all sides.
    #[must_use]
    pub fn incentre(&self) -> Point {
        let [a, b, c] = self.vertices();
        (a * self.a + b * self.b + c * self.c) / (self.a + self.b + self.c)
    }

    /// The middle of the circle through all vertices.
    #[must_use]
    pub fn circumcentre(&self) -> Point {
        let [_, _, at_c] = self.angles();
        pt(self.c * 0.5, -self.c * 0.5 * at_c.cos() / at_c.sin())
    }

    /// The triangle as a closed path through its vertices, in the order A, C, B: clockwise as seen.
    #[must_use]
    pub fn path(&self) -> Path {
        let [a, b, c] = self.vertices();
        Path::closed([a, c, b])
    }

    /// The same turned so that the vertex C, where the legs of a right-angled triangle meet, is at a point, the side b
    /// leads away from it in a direction, and a lies clockwise as seen from it.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// use chordane::shape::TriangleError;
    /// let ramp = Triangle::by_legs(4.0, 3.0)?;
    /// assert_eq!(ramp.placed((10.0, 10.0), deg(0.0)).bounds().unwrap().max, pt(14.0, 13.0));
    /// # Ok::<(), TriangleError>(())
    /// ```
    #[must_use]
    pub fn placed(&self, corner: impl IntoPoint, along: Angle) -> Path {
        let corner = corner.into_point();
        let [_, _, at_c] = self.angles();
        let ends = [(along, self.b), (along + at_c, self.a)];
        let [a, b] = ends.map(|(angle, side)| corner + crate::number::polar(angle, side));
        Path::closed([corner, a, b])
    }

    /// The same as [`Triangle::path`], with the middle of its box at a point.
    #[must_use]
    pub fn centred(&self, at: impl IntoPoint) -> Path {
        let path = self.path();
        let middle = path.bounds().map_or(Point::ZERO, |bounds| bounds.centre());
        path.moved(at.into_point() - middle)
    }

    /// The mirror image: what was at A is at B.
    #[must_use]
    pub fn mirrored(&self) -> Self {
        Self { a: self.b, b: self.a, c: self.c }
    }
}
