//! Paths as data: made of contours and segments, taken apart into them, and from and to text.

use std::fmt;
use std::str::FromStr;

use crate::number::Point;

use super::{Contour, ContourBuilder, DataError, Path, Segment};

impl Contour {
    /// A contour of segments, each taken to begin where the one before ends; `None` without one. A closed one gets a
    /// straight closing side unless it ends where it began.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let sail = Path::closed([(0.0, 0.0), (60.0, 0.0), (0.0, 80.0)]);
    /// let contour = &sail.contours()[0];
    /// assert_eq!(Contour::from_segments(contour.drawn_segments(), true).as_ref(), Some(contour));
    /// ```
    #[must_use]
    pub fn from_segments(segments: impl IntoIterator<Item = Segment>, closed: bool) -> Option<Self> {
        let mut segments = segments.into_iter();
        let first = segments.next()?;
        let mut builder = ContourBuilder::new(first.from());
        std::iter::once(first).chain(segments).for_each(|segment| builder.segment(&segment));
        Some(builder.finish(closed))
    }

    /// The segments in order without the closing side of a closed contour, which is [`Contour::closing_side`].
    pub fn drawn_segments(&self) -> impl Iterator<Item = Segment> + '_ {
        self.segments().take(self.verbs().len())
    }

    /// The straight side back to the start of a closed contour, where it has a length.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let sail = Path::closed([(0.0, 0.0), (60.0, 0.0), (0.0, 80.0)]);
    /// let closing = Segment::Line { from: pt(0.0, 80.0), to: pt(0.0, 0.0) };
    /// assert_eq!(sail.contours()[0].closing_side(), Some(closing));
    /// assert_eq!(sail.contours()[0].drawn_segments().count(), 2);
    /// ```
    #[must_use]
    pub fn closing_side(&self) -> Option<Segment> {
        self.segments().nth(self.verbs().len())
    }
}

impl Path {
    /// A path of segments: a contour goes on as long as each segment begins where the one before ended, and is closed where
    /// it comes back to its start. Under the nonzero rule.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let hoop = ring((0.0, 0.0), 50.0, 30.0);
    /// assert_eq!(Path::from_segments(hoop.segments()), hoop);
    /// ```
    #[must_use]
    pub fn from_segments(segments: impl IntoIterator<Item = Segment>) -> Self {
        let mut contours = Vec::new();
        let mut builder: Option<ContourBuilder> = None;
        let ended = |builder: ContourBuilder| {
            let closed = builder.vertex_count() > 2 && builder.start() == builder.end();
            let contour = builder.finish(closed);
            // A straight last side that comes home is the closing one.
            let straight = matches!(contour.drawn_segments().last(), Some(Segment::Line { .. }));
            if closed && straight { contour.closed_at_start() } else { contour }
        };
        for segment in segments {
            match &mut builder {
                Some(open) if open.end() == segment.from() => open.segment(&segment),
                _ => {
                    contours.extend(builder.take().map(ended));
                    let mut next = ContourBuilder::new(segment.from());
                    next.segment(&segment);
                    builder = Some(next);
                }
            }
        }
        contours.extend(builder.map(ended));
        Self::from_contours(contours)
    }
}

/// Under the nonzero rule.
impl FromIterator<Contour> for Path {
    fn from_iter<I: IntoIterator<Item = Contour>>(contours: I) -> Self {
        Self::from_contours(contours)
    }
}

/// The open path with straight sides through points, as [`Path::open`] makes it.
///
/// ```
/// use chordane::prelude::*;
/// let spiral: Path = (0..40).map(|i| polar(deg(f64::from(i) * 20.0), f64::from(i))).collect();
/// assert_eq!(spiral.segments().count(), 39);
/// ```
impl FromIterator<Point> for Path {
    fn from_iter<I: IntoIterator<Item = Point>>(points: I) -> Self {
        Self::open(points)
    }
}

/// The contours of all, under the rule of the first; the first fault is carried along.
///
/// ```
/// use chordane::prelude::*;
/// let beads: Path = (0..5).map(|i| circle((f64::from(i) * 10.0, 0.0), 4.0)).collect();
/// assert_eq!(beads.contours().len(), 5);
/// ```
impl FromIterator<Path> for Path {
    fn from_iter<I: IntoIterator<Item = Self>>(paths: I) -> Self {
        let mut paths = paths.into_iter();
        let first = paths.next().unwrap_or_default();
        paths.fold(first, |all, path| all.and(&path))
    }
}

impl Extend<Contour> for Path {
    fn extend<I: IntoIterator<Item = Contour>>(&mut self, contours: I) {
        let more = Self::from_contours(contours);
        *self = std::mem::take(self).and(&more);
    }
}

impl<'a> IntoIterator for &'a Path {
    type Item = &'a Contour;
    type IntoIter = std::slice::Iter<'a, Contour>;

    fn into_iter(self) -> Self::IntoIter {
        self.contours().iter()
    }
}

impl IntoIterator for Path {
    type Item = Contour;
    type IntoIter = std::vec::IntoIter<Contour>;

    fn into_iter(self) -> Self::IntoIter {
        self.into_parts().0.into_iter()
    }
}

impl<'a> IntoIterator for &'a Contour {
    type Item = Segment;
    type IntoIter = super::Segments<'a>;

    fn into_iter(self) -> Self::IntoIter {
        self.segments()
    }
}

/// SVG path data; see [`Path::from_data`].
///
/// ```
/// use chordane::prelude::*;
/// use chordane::path::DataError;
/// let sail: Path = "M0 0H60L0 80Z".parse()?;
/// assert_eq!(sail.to_string(), "M0 0H60L0 80Z");
/// # Ok::<(), DataError>(())
/// ```
impl FromStr for Path {
    type Err = DataError;

    fn from_str(data: &str) -> Result<Self, DataError> {
        Self::from_data(data)
    }
}

impl TryFrom<&str> for Path {
    type Error = DataError;

    fn try_from(data: &str) -> Result<Self, DataError> {
        Self::from_data(data)
    }
}

/// SVG path data; see [`Path::data`].
impl fmt::Display for Path {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(&self.data())
    }
}

#[cfg(feature = "serde")]
mod form {
    use serde::{Deserialize, Deserializer, Serialize, Serializer, de, ser};

    use super::super::{FillRule, Path};

    /// How a path stands in JSON and the like.
    #[derive(Deserialize, Serialize)]
    #[serde(deny_unknown_fields)]
    struct Form {
        data: String,
        #[serde(default)]
        fill_rule: FillRule,
    }

    /// `{"data": "M0 0H60L0 80Z", "fill_rule": "nonzero"}`. A path that carries a fault is not written.
    impl Serialize for Path {
        fn serialize<S: Serializer>(&self, to: S) -> Result<S::Ok, S::Error> {
            self.sound().map_err(ser::Error::custom)?;
            Form { data: self.data(), fill_rule: self.fill_rule() }.serialize(to)
        }
    }

    impl<'de> Deserialize<'de> for Path {
        fn deserialize<D: Deserializer<'de>>(from: D) -> Result<Self, D::Error> {
            let Form { data, fill_rule } = Form::deserialize(from)?;
            Ok(Self::from_data(&data).map_err(de::Error::custom)?.with_fill_rule(fill_rule))
        }
    }
}
