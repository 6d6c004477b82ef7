//! Faults: the first invalid input, carried by a path, an item or a sheet.
//!
//! Fluent calls do not return `Result`. The first fault is remembered, with the name of the call and, where
//! there is one, the vertex; whatever is made from it carries it along, and everything that leaves the library
//! gives it back as an error. What is merely empty is not a fault.

use std::fmt;

use super::{Stopped, nearest, plain_number, visible};

/// The first thing that went wrong while a value was being built, and where.
///
/// The message says what was given, what is allowed and what to do:
///
/// ```
/// use chordane::prelude::*;
///
/// let path = start(pt(0.0, 0.0)).line(pt(f64::NAN, 4.0)).close();
/// let fault = path.sound().unwrap_err();
/// assert_eq!(
///     fault.to_string(),
///     "`line` at vertex 1: the point (NaN, 4) is not finite; give finite numbers"
/// );
/// ```
#[derive(Clone, Debug, PartialEq)]
pub struct Fault {
    call: &'static str,
    vertex: Option<usize>,
    kind: FaultKind,
    /// The item that it was found on.
    item: Option<Box<FoundOn>>,
}

/// The item that a fault was found on.
#[derive(Clone, Debug, PartialEq)]
struct FoundOn {
    name: Option<Box<str>>,
    line: Option<usize>,
}

/// What kind of thing went wrong; see [`Fault::kind`].
///
/// ```
/// use chordane::prelude::*;
/// use chordane::FaultKind;
/// let fault = circle((0.0, 0.0), -3.0).sound().unwrap_err();
/// assert_eq!(*fault.kind(), FaultKind::Negative { what: "radius", value: -3.0 });
/// ```
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub enum FaultKind {
    /// A number was infinite or not a number. The text names what it was for.
    NotFinite {
        /// What the number was for, such as `radius`.
        what: &'static str,
        /// The number.
        value: f64,
    },
    /// A point had a coordinate that was infinite or not a number.
    PointNotFinite {
        /// The x that was given.
        x: f64,
        /// The y that was given.
        y: f64,
    },
    /// A number was below zero where that has no meaning.
    Negative {
        /// What the number was for, such as `radius`.
        what: &'static str,
        /// The number.
        value: f64,
    },
    /// A number was zero or below where something must remain.
    NotPositive {
        /// What the number was for, such as `width`.
        what: &'static str,
        /// The number.
        value: f64,
    },
    /// A number was outside the range that it is allowed.
    OutOfRange {
        /// What the number was for, such as `opacity`.
        what: &'static str,
        /// The number.
        value: f64,
        /// The least that is allowed.
        low: f64,
        /// The most that is allowed.
        high: f64,
    },
    /// A hole was cut into a path that has no contour yet.
    HoleInNothing,
    /// A colour text is not one of the CSS colour syntax.
    UnknownColour {
        /// The text.
        text: String,
        /// The nearest colour name, where one is near.
        near: Option<&'static str>,
    },
    /// A text is not one of the names that can stand there.
    UnknownName {
        /// What the name is for, such as `cap`.
        what: &'static str,
        /// The text.
        text: String,
        /// The names that are allowed.
        allowed: &'static [&'static str],
    },
    /// Path data could not be read.
    Data {
        /// The message of the reader, with the byte position.
        message: String,
    },
    /// A count asks for more than a fault-free drawing could hold.
    TooMany {
        /// What is counted.
        what: &'static str,
        /// How many were asked for.
        count: usize,
        /// How many are allowed.
        limit: usize,
    },
    /// A path has no such contour or vertex.
    NoVertex {
        /// The contour that was asked for, counted from 0.
        contour: usize,
        /// The vertex that was asked for, counted from 0.
        vertex: usize,
        /// How many contours there are.
        contours: usize,
        /// How many vertices can be asked for in that contour; 0 without one.
        vertices: usize,
    },
    /// No vertex has such a tag.
    UnknownTag {
        /// The tag that was asked for.
        tag: String,
        /// The tags that there are.
        known: Vec<String>,
    },
    /// What a program says itself; see [`Fault::new`].
    Told {
        /// What is wrong, and what to do.
        message: String,
    },
    /// The work was stopped; see [`Budget`](super::Budget).
    Stopped(Stopped),
    /// A coordinate is finite but so far out that pixels cannot be computed.
    TooFar {
        /// The coordinate farthest from zero, in pixels.
        value: f64,
        /// The most that is allowed, in pixels.
        limit: f64,
    },
}

impl Fault {
    /// A fault of a program's own: the name of the call that was given what cannot be, and in plain words what is wrong
    /// and what to do.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let told = Path::empty().with_fault(Fault::new("hemmed", "the hem is wider than the sail; give less than 30"));
    /// assert_eq!(
    ///     told.sound().unwrap_err().to_string(),
    ///     "`hemmed`: the hem is wider than the sail; give less than 30"
    /// );
    /// ```
    #[must_use]
    pub fn new(call: &'static str, message: impl Into<String>) -> Self {
        Self::of(call, FaultKind::Told { message: message.into() })
    }

    pub(crate) fn of(call: &'static str, kind: FaultKind) -> Self {
        Self { call, vertex: None, kind, item: None }
    }

    pub(crate) fn at_vertex(mut self, vertex: usize) -> Self {
        self.vertex = Some(vertex);
        self
    }

    /// The same fault, found on an item of a name and a line, where it has them.
    pub(crate) fn on_item(mut self, name: Option<&str>, line: Option<usize>) -> Self {
        if (name.is_some() || line.is_some()) && self.item.is_none() {
            self.item = Some(Box::new(FoundOn { name: name.map(Into::into), line }));
        }
        self
    }

    /// The name of the item that it was found on, where a sheet found it and the item has one.
    #[must_use]
    pub fn item(&self) -> Option<&str> {
        self.item.as_ref().and_then(|item| item.name.as_deref())
    }

    /// The line of the score or document that made the item that it was found on, counted from 1, where there is one.
    #[must_use]
    pub fn line(&self) -> Option<usize> {
        self.item.as_ref().and_then(|item| item.line)
    }

    /// The name of the call that was given what cannot be, such as `line`.
    #[must_use]
    pub fn call(&self) -> &'static str {
        self.call
    }

    /// The vertex that was being made, counted from 0 within its contour, where the call makes vertices.
    #[must_use]
    pub fn vertex(&self) -> Option<usize> {
        self.vertex
    }

    /// What went wrong, for programs that want to tell the kinds apart.
    #[must_use]
    pub fn kind(&self) -> &FaultKind {
        &self.kind
    }
}

impl fmt::Display for Fault {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        // Names and texts in it may come from anywhere.
        let mut text = String::new();
        self.tell(&mut text)?;
        f.write_str(&visible(&text))
    }
}

impl Fault {
    fn tell(&self, f: &mut impl fmt::Write) -> fmt::Result {
        match (self.item(), self.line()) {
            (Some(name), Some(line)) => write!(f, "\"{name}\", line {line}: ")?,
            (Some(name), None) => write!(f, "\"{name}\": ")?,
            (None, Some(line)) => write!(f, "line {line}: ")?,
            (None, None) => {}
        }
        write!(f, "`{}`", self.call)?;
        if let Some(vertex) = self.vertex {
            write!(f, " at vertex {vertex}")?;
        }
        f.write_str(": ")?;
        match &self.kind {
            FaultKind::NotFinite { what, value } => {
                write!(f, "the {what} {value} is not finite; give a finite number")
            }
            FaultKind::PointNotFinite { x, y } => {
                let (x, y) = (plain_number(*x), plain_number(*y));
                write!(f, "the point ({x}, {y}) is not finite; give finite numbers")
            }
            FaultKind::Negative { what, value } => {
                write!(f, "the {what} {} is negative; give 0 or more", plain_number(*value))
            }
            FaultKind::NotPositive { what, value } => {
                write!(f, "the {what} {} is not positive; give more than 0", plain_number(*value))
            }
            FaultKind::OutOfRange { what, value, low, high } => {
                let (value, low) = (plain_number(*value), plain_number(*low));
                write!(f, "the {what} {value} is out of range; give {low} ")?;
                if *high == f64::MAX {
                    f.write_str("or more")
                } else {
                    write!(f, "to {}", plain_number(*high))
                }
            }
            FaultKind::HoleInNothing => {
                f.write_str("there is no contour to cut the hole into; make the outline first, then the hole")
            }
            FaultKind::UnknownColour { text, near } => {
                write!(f, "\"{text}\" is not a colour")?;
                if let Some(near) = near {
                    write!(f, " (did you mean \"{near}\"?)")?;
                }
                f.write_str("; give a CSS colour such as \"#c8553d\", \"teal\" or \"rgb(200 85 61 / 50%)\"")
            }
            FaultKind::UnknownName { what, text, allowed } => {
                write!(f, "\"{text}\" is not a {what}")?;
                if let Some(near) = nearest(text, allowed.iter().copied()).filter(|_| allowed.len() > 4) {
                    write!(f, " (did you mean \"{near}\"?)")?;
                }
                f.write_str("; give ")?;
                for (i, name) in allowed.iter().enumerate() {
                    let joint = match i {
                        0 => "",
                        _ if i + 1 == allowed.len() => " or ",
                        _ => ", ",
                    };
                    write!(f, "{joint}\"{name}\"")?;
                }
                Ok(())
            }
            FaultKind::Data { message } | FaultKind::Told { message } => f.write_str(message),
            FaultKind::Stopped(why) => write!(f, "{why}"),
            FaultKind::TooMany { what, count, limit } => {
                write!(f, "{count} {what} are too many; give at most {limit}")
            }
            FaultKind::NoVertex { contour, contours, vertices: 0, .. } => {
                write!(f, "there is no contour {contour}; ")?;
                match contours {
                    0 => f.write_str("the path is empty"),
                    1 => f.write_str("give 0"),
                    _ => write!(f, "give 0 to {}", contours - 1),
                }
            }
            FaultKind::NoVertex { contour, vertex, vertices, .. } => {
                write!(f, "contour {contour} has no vertex {vertex}; give 0 to {}", vertices - 1)
            }
            FaultKind::UnknownTag { tag, known } if known.is_empty() => {
                write!(f, "no vertex is tagged \"{tag}\", nor is any other; tag some with tagged(..) first")
            }
            FaultKind::UnknownTag { tag, known } => {
                write!(f, "no vertex is tagged \"{tag}\"; the tags are \"{}\"", known.join("\", \""))
            }
            FaultKind::TooFar { value, limit } => {
                write!(f, "a vertex lies at {value:e} pixels; bring it within {limit:e} of the sheet")
            }
        }
    }
}

impl std::error::Error for Fault {}
