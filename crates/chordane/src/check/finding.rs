//! One thing that was noticed.

use std::fmt;

use super::Drawn;
use crate::ground::visible;
use crate::number::Point;
use crate::sheet::Layered;

/// What kind of thing a finding is; the names do not change.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::check::Code;
/// let page = sheet(100.0, 100.0).add(circle((500.0, 500.0), 10.0).fill("teal"));
/// let codes: Vec<Code> = page.check()?.findings.iter().map(|finding| finding.code).collect();
/// assert_eq!(codes, [Code::OffSheet]);
/// assert_eq!(Code::OffSheet.name(), "off-sheet");
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, PartialOrd, Ord)]
#[non_exhaustive]
pub enum Code {
    /// A stroked outline that misses its last side, or its last corner.
    OpenOutline,
    /// A closed contour that lists its first vertex again at its end.
    DoubledEnd,
    /// A path with neither fill nor stroke.
    Unpainted,
    /// A path that lies wholly off the sheet.
    OffSheet,
    /// A path too small to be seen.
    Speck,
    /// A ring whose last step is not like the others.
    UnevenRing,
    /// Angles that were given in degrees where radians were meant, or the other way.
    AngleUnit,
    /// A filled contour that crosses itself.
    SelfCrossing,
    /// A hole that does not open, since it runs the same way round as what it lies in.
    ClosedHole,
    /// A joint that is nearly smooth, but not quite.
    Kink,
    /// Vertices that stand on one another.
    CrowdedVertices,
    /// A curve of straight sides that are long enough to be seen.
    CoarseCurve,
    /// A stroke that is wider one way than the other, since it was scaled unevenly.
    Stretched,
    /// A stroke that is cut in half by the sheet's edge.
    CutStroke,
    /// A path that lies wholly under another.
    Covered,
    /// A contour that is one vertex alone and draws nothing.
    LoneVertex,
    /// Two items with one name, made in different places.
    SameName,
    /// Something that jumps where a loop begins again.
    LoopSeam,
    /// A finding of the calling program, by its own name.
    Own(&'static str),
}

impl Code {
    /// The name, as programs know it.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::OpenOutline => "open-outline",
            Self::DoubledEnd => "doubled-end",
            Self::Unpainted => "unpainted",
            Self::OffSheet => "off-sheet",
            Self::Speck => "speck",
            Self::UnevenRing => "uneven-ring",
            Self::AngleUnit => "angle-unit",
            Self::SelfCrossing => "self-crossing",
            Self::ClosedHole => "closed-hole",
            Self::Kink => "kink",
            Self::CrowdedVertices => "crowded-vertices",
            Self::CoarseCurve => "coarse-curve",
            Self::Stretched => "stretched",
            Self::CutStroke => "cut-stroke",
            Self::Covered => "covered",
            Self::LoneVertex => "lone-vertex",
            Self::SameName => "same-name",
            Self::LoopSeam => "loop-seam",
            Self::Own(name) => name,
        }
    }
}

impl fmt::Display for Code {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(self.name())
    }
}

/// How sure a finding is.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::check::Level;
/// assert_eq!(Level::Hint.name(), "hint");
/// ```
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
#[non_exhaustive]
pub enum Level {
    /// The picture is hardly what was meant.
    Warning,
    /// It may be meant, but is worth a look.
    Hint,
}

impl Level {
    /// The name, as programs know it.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::Warning => "warning",
            Self::Hint => "hint",
        }
    }
}

/// One thing that was noticed: where, what is seen, and how to mend it.
///
/// ```
/// use chordane::prelude::*;
/// let page = sheet(100.0, 100.0).add(circle((500.0, 500.0), 10.0).fill("teal"));
/// let report = page.check()?;
/// let finding = &report.findings[0];
/// assert_eq!((finding.path, finding.code.name()), (Some(0), "off-sheet"));
/// assert!(!finding.message.is_empty() && !finding.mend.is_empty());
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Debug, PartialEq)]
pub struct Finding {
    /// The kind.
    pub code: Code,
    /// How sure it is.
    pub level: Level,
    /// The path, in the order of drawing, counted from 0; `None` for what is about no path.
    pub path: Option<usize>,
    /// The contour of the path, counted from 0; `None` for what is about no path.
    pub contour: Option<usize>,
    /// The place on the sheet; of a document, in its own user units.
    pub at: Point,
    /// The line of the score or document that made the path, where there is one.
    pub line: Option<usize>,
    /// What is seen, in plain words; with the path's name and line where it has them.
    pub message: String,
    /// How to mend it.
    pub mend: String,
}

/// How something is mended: in the words of a score, and in those of a document where they differ.
pub(super) struct Mend {
    words: String,
    markup: Option<String>,
}

impl<W: Into<String>, M: Into<String>> From<(W, M)> for Mend {
    fn from((words, markup): (W, M)) -> Self {
        Self { words: words.into(), markup: Some(markup.into()) }
    }
}

impl From<&str> for Mend {
    fn from(words: &str) -> Self {
        Self { words: words.to_owned(), markup: None }
    }
}

impl From<String> for Mend {
    fn from(words: String) -> Self {
        Self { words, markup: None }
    }
}

/// The findings so far.
#[derive(Debug, Default)]
pub(super) struct Findings {
    all: Vec<Finding>,
    /// Whether the sheet was read from a document, and mends speak of its markup.
    document: bool,
}

impl Findings {
    pub(super) fn new(document: bool) -> Self {
        Self { all: Vec::new(), document }
    }

    /// Adds one for a path and a contour of it.
    pub(super) fn add(
        &mut self,
        (code, level): (Code, Level),
        on: &Drawn<'_>,
        (contour, at): (usize, Point),
        seen: impl fmt::Display,
        mend: impl Into<Mend>,
    ) {
        let Mend { words, markup } = mend.into();
        let line = on.item.line();
        let message = match (on.item.name(), line) {
            (Some(name), Some(line)) => format!("\"{name}\", line {line}: {seen}"),
            (Some(name), None) => format!("\"{name}\": {seen}"),
            (None, Some(line)) => format!("line {line}: {seen}"),
            (None, None) => seen.to_string(),
        };
        self.all.push(Finding {
            code,
            level,
            path: Some(on.number),
            contour: Some(contour),
            at,
            line,
            message: visible(&message).into_owned(),
            mend: visible(&markup.filter(|_| self.document).unwrap_or(words)).into_owned(),
        });
    }

    /// Adds one that is about no path.
    pub(super) fn push(&mut self, finding: Finding) {
        self.all.push(finding);
    }

    pub(super) fn has(&self, code: Code) -> bool {
        self.all.iter().any(|finding| finding.code == code)
    }

    /// Leaves those of a kind out, where another one says it for all.
    pub(super) fn without(&mut self, code: Code) {
        self.all.retain(|finding| finding.code != code);
    }

    pub(super) fn join(&mut self, more: Self) {
        self.all.extend(more.all);
    }

    pub(super) fn in_order(mut self) -> Vec<Finding> {
        self.all.sort_by_key(|finding| (finding.path, finding.contour, finding.code));
        self.all
    }
}
