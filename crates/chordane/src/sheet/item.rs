//! An item: a path with a style, and where it stands.

use super::{GivenPaint, Kept, Paint, Style};
use crate::ground::{Fault, FaultSlot, Given};
use crate::path::{Affine, FillRule, Path};
use crate::reshape::{Cap, Join};

/// A path with its style and its transform. The transform moves the style along: a stroke that is scaled twofold
/// is twice as wide. To scale a path and keep the width, scale it first and style it then.
///
/// ```
/// use chordane::prelude::*;
/// let vent: Item = circle((30.0, 30.0), 9.0).fill("teal").stroke("navy", 2.0).named("vent");
/// assert_eq!((vent.name(), vent.style().opacity), (Some("vent"), 1.0));
/// ```
#[derive(Clone, Debug, PartialEq)]
pub struct Item {
    pub(crate) path: Path,
    pub(crate) style: Style,
    pub(crate) transform: Affine,
    pub(crate) name: Option<Box<str>>,
    pub(crate) line: Option<u32>,
    pub(super) compositing: Kept,
    pub(crate) fault: FaultSlot,
}

impl Item {
    pub(crate) fn new(path: Path) -> Self {
        Self {
            path,
            style: Style::default(),
            transform: Affine::IDENTITY,
            name: None,
            line: None,
            compositing: None,
            fault: FaultSlot::default(),
        }
    }

    /// The same item with another path.
    pub(crate) fn with_path(self, path: Path) -> Self {
        Self { path, ..self }
    }

    /// Whether its opacity is that of the finished item, because several things are painted; one alone fades by its colour.
    pub(crate) fn fades_as_one(&self) -> bool {
        let both = self.style.fill.is_some() && self.style.stroke.is_some();
        both || !self.compositing().effects().is_empty()
    }

    /// Groups inside one another in its mask and its paints.
    pub(super) fn depth(&self) -> usize {
        let paints = self.style.fill.iter().chain(&self.style.stroke).map(Paint::depth);
        paints.fold(self.compositing().depth(), Ord::max)
    }

    /// The path, before the item's transform.
    #[must_use]
    pub fn path(&self) -> &Path {
        &self.path
    }

    /// The style.
    #[must_use]
    pub fn style(&self) -> &Style {
        &self.style
    }

    /// Where the item stands: applied to the path and its stroke.
    #[must_use]
    pub fn transform(&self) -> &Affine {
        &self.transform
    }

    /// The name, if it was given one.
    #[must_use]
    pub fn name(&self) -> Option<&str> {
        self.name.as_deref()
    }

    /// The same item with a name: the `id` in an SVG file, and what findings call it.
    #[must_use]
    pub fn named(mut self, name: &str) -> Self {
        self.name = Some(name.into());
        self
    }

    /// The line of the score or document that made the item, counted from 1, where it was made by one.
    #[must_use]
    pub fn line(&self) -> Option<usize> {
        self.line.map(|line| line as usize)
    }

    /// The same item, made by a line of a score or document, which findings then name.
    #[must_use]
    pub fn at_line(mut self, line: usize) -> Self {
        self.line = u32::try_from(line).ok();
        self
    }

    /// The same item with another style altogether.
    #[must_use]
    pub fn styled(mut self, style: &Style) -> Self {
        self.style = style.clone();
        self
    }

    /// See [`Style::fill`].
    #[must_use]
    pub fn fill(mut self, paint: impl Into<GivenPaint>) -> Self {
        self.style = self.style.fill(paint);
        self
    }

    /// See [`Style::stroke`].
    #[must_use]
    pub fn stroke(mut self, paint: impl Into<GivenPaint>, width: f64) -> Self {
        self.style = self.style.stroke(paint, width);
        self
    }

    /// See [`Style::cap`].
    #[must_use]
    pub fn cap(mut self, cap: impl Into<Given<Cap>>) -> Self {
        self.style = self.style.cap(cap);
        self
    }

    /// See [`Style::join`].
    #[must_use]
    pub fn join(mut self, join: impl Into<Given<Join>>) -> Self {
        self.style = self.style.join(join);
        self
    }

    /// See [`Style::mitre_limit`].
    #[must_use]
    pub fn mitre_limit(mut self, limit: f64) -> Self {
        self.style = self.style.mitre_limit(limit);
        self
    }

    /// See [`Style::dash`].
    #[must_use]
    pub fn dash(mut self, pattern: impl Into<Vec<f64>>) -> Self {
        self.style = self.style.dash(pattern);
        self
    }

    /// See [`Style::dash_offset`].
    #[must_use]
    pub fn dash_offset(mut self, offset: f64) -> Self {
        self.style = self.style.dash_offset(offset);
        self
    }

    /// See [`Style::opacity`].
    #[must_use]
    pub fn opacity(mut self, opacity: f64) -> Self {
        self.style = self.style.opacity(opacity);
        self
    }

    /// What the path encloses: `FillRule` or `"nonzero"`, `"evenodd"`.
    #[must_use]
    pub fn fill_rule(mut self, rule: impl Into<Given<FillRule>>) -> Self {
        match rule.into().resolve("fill_rule") {
            Ok(rule) => self.path = self.path.with_fill_rule(rule),
            Err(fault) => self.fault.note(fault),
        }
        self
    }

    /// The item itself when nothing went wrong in its making, else the first fault.
    ///
    /// # Errors
    ///
    /// The first fault of the path, then of the style, then of the item.
    pub fn sound(&self) -> Result<&Self, Fault> {
        self.path.sound()?;
        self.style.sound()?;
        self.fault.sound()?;
        Ok(self)
    }
}

impl Path {
    /// An item of this path, filled; see [`Style::fill`].
    #[must_use]
    pub fn fill(self, paint: impl Into<GivenPaint>) -> Item {
        Item::new(self).fill(paint)
    }

    /// An item of this path, stroked; see [`Style::stroke`].
    #[must_use]
    pub fn stroke(self, paint: impl Into<GivenPaint>, width: f64) -> Item {
        Item::new(self).stroke(paint, width)
    }

    /// An item of this path in a style.
    #[must_use]
    pub fn styled(self, style: &Style) -> Item {
        Item::new(self).styled(style)
    }
}

impl From<Path> for Item {
    fn from(path: Path) -> Self {
        Self::new(path)
    }
}
