//! Why a document could not be read, and what of it was not understood.

use std::fmt;

use roxmltree::Error;

use crate::ground::{self, Stopped};
use crate::sheet::Sheet;

/// Why a document could not be read.
///
/// ```
/// use chordane::prelude::*;
/// let error = Sheet::read_svg(b"<p/>").unwrap_err();
/// assert!(error.to_string().contains("<svg>"), "{error}");
/// ```
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub enum ReadError {
    /// The bytes are not UTF-8 text.
    NotText {
        /// The first byte that is not part of one, counted from 0.
        byte: usize,
    },
    /// The text is not well-formed XML.
    NotXml {
        /// The line, counted from 1.
        line: usize,
        /// What is wrong there.
        what: String,
    },
    /// The declared entities expand beyond the limit.
    Entities {
        /// The limit in bytes.
        limit: usize,
    },
    /// The document has no `svg` element to begin with.
    NoSvg,
    /// Elements lie too many levels inside one another.
    TooDeep {
        /// The line, counted from 1.
        line: usize,
        /// How many levels are allowed.
        limit: usize,
    },
    /// The document stands for more than can be drawn.
    TooMany {
        /// What is too many: `shapes`, `elements` or `vertices`.
        what: &'static str,
        /// How many are allowed.
        limit: usize,
        /// Whether elements use one another in it.
        used: bool,
    },
    /// Reading was stopped; see [`Budget`](crate::ground::Budget).
    Stopped {
        /// The line that it had come to, counted from 1.
        line: usize,
        /// Why it was.
        why: Stopped,
    },
}

/// Characters of what the XML reader says.
const MAX_MESSAGE_CHARS: usize = 200;

impl ReadError {
    /// Reading came to a line when its budget was used up; why is added where that is known.
    pub(super) fn stopped(line: usize) -> Self {
        Self::Stopped { line, why: Stopped::default() }
    }

    /// Converts an error of the XML parser.
    pub(super) fn of_xml(text: &str, error: &Error) -> Self {
        let mut line = error.pos().row as usize;
        let what = match error {
            Error::UnclosedRootNode | Error::UnexpectedEndOfStream => {
                line = text.lines().count().max(1);
                "the document ends before all elements are closed".to_owned()
            }
            Error::UnknownNamespace(prefix, _) if prefix == "xlink" => {
                "the prefix xlink is not declared; use href instead of xlink:href".to_owned()
            }
            Error::UnknownNamespace(prefix, _) => {
                format!("the prefix {prefix} is not declared; add xmlns:{prefix}=\"..\" to the svg element")
            }
            Error::UnknownEntityReference(name, _) => {
                format!("the entity &{name}; is not declared; use the character itself")
            }
            Error::UnexpectedCloseTag(open, close, _) => {
                format!("</{close}> is not the end of <{open}>")
            }
            Error::NonXmlChar(c, _) => {
                format!("the character U+{:04X} cannot stand in a document", u32::from(*c))
            }
            other => other.to_string().replace(&format!(" at {}", error.pos()), ""),
        };
        // It tells names as they stand there, however long they are.
        Self::NotXml { line, what: ground::shortened(&what, MAX_MESSAGE_CHARS) }
    }
}

impl fmt::Display for ReadError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::NotText { byte } => write!(f, "byte {byte} is not UTF-8; save the document as UTF-8 text"),
            Self::NotXml { line, what } => write!(f, "line {line}: this is not well-formed XML: {what}"),
            Self::Entities { limit } => write!(
                f,
                "the entities of the document expand to more than {limit} bytes; write their text instead"
            ),
            Self::NoSvg => f.write_str("there is no <svg> element; give an SVG document"),
            Self::TooDeep { line, limit } => {
                write!(
                    f,
                    "line {line}: elements lie more than {limit} deep inside one another; flatten the groups"
                )
            }
            Self::TooMany { what, limit, used: true } => write!(
                f,
                "the document stands for more than {limit} {what}; look for `use` elements that multiply one another"
            ),
            Self::TooMany { what, limit, .. } => {
                write!(f, "the document has more than {limit} {what}; split it into several")
            }
            Self::Stopped { line, why } => write!(f, "line {line}: {why}"),
        }
    }
}

impl std::error::Error for ReadError {}

/// Something in a document that is not understood, once for each kind.
///
/// ```
/// use chordane::prelude::*;
/// let read = Sheet::read_svg(br#"<svg xmlns="http://www.w3.org/2000/svg"><text>sail</text></svg>"#)?;
/// assert!(read.notes[0].to_string().contains("text"));
/// # Ok::<(), chordane::read::ReadError>(())
/// ```
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct SvgNote {
    /// What it is, and what is done instead.
    pub what: String,
    /// How often it comes.
    pub count: usize,
    /// The line of the first one, counted from 1.
    pub line: usize,
}

impl fmt::Display for SvgNote {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "line {}: {}", self.line, self.what)?;
        match self.count {
            1 => Ok(()),
            2 => f.write_str(" (and once more)"),
            more => write!(f, " (and {} times more)", more - 1),
        }
    }
}

/// A document that was read: the sheet, and what was not understood.
///
/// ```
/// use chordane::prelude::*;
/// let read = Sheet::read_svg(br#"<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0H9V9Z"/></svg>"#)?;
/// assert_eq!((read.sheet.items().len(), read.notes.len()), (1, 0));
/// # Ok::<(), chordane::read::ReadError>(())
/// ```
#[derive(Clone, Debug)]
#[non_exhaustive]
pub struct SvgReading {
    /// The sheet.
    pub sheet: Sheet,
    /// What was not understood, in the order in which it was met.
    pub notes: Vec<SvgNote>,
}

/// A text short enough for a message.
pub(super) fn shortened(text: &str) -> String {
    ground::shortened(text.trim(), 32)
}
