//! An item: a path with a style, and where it stands.

use super::{GivenPaint, Layered, Paint, Placement, Style, Styled};
use crate::ground::{Fault, FaultSlot, Given};
use crate::path::{FillRule, Path};

/// A path with its style and its transform. The transform moves the style along: a stroke that is scaled twofold
/// is twice as wide. To scale a path and keep the width, scale it first and style it then.
///
/// ```
/// use chordane::prelude::*;
/// let vent: Item = circle((30.0, 30.0), 9.0).fill("teal").stroke("navy", 2.0).named("vent");
/// assert_eq!((vent.name(), vent.style().opacity), (Some("vent"), 1.0));
/// ```
#[derive(Clone, Debug, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize))]
pub struct Item {
    pub(crate) path: Path,
    #[cfg_attr(feature = "serde", serde(default))]
    pub(crate) style: Style,
    #[cfg_attr(feature = "serde", serde(default))]
    pub(crate) placement: Placement,
}

impl Layered for Item {
    fn placement(&self) -> &Placement {
        &self.placement
    }

    fn placement_mut(&mut self) -> &mut Placement {
        &mut self.placement
    }
}

impl Styled for Item {
    fn style_mut(&mut self) -> &mut Style {
        &mut self.style
    }
}

impl Item {
    pub(crate) fn new(path: Path) -> Self {
        Self { path, style: Style::default(), placement: Placement::default() }
    }

    /// The same item with another path.
    pub(crate) fn with_path(self, path: Path) -> Self {
        Self { path, ..self }
    }

    /// Returns `true` if the opacity must apply to the finished item because it paints more than one thing. A single paint carries the opacity in its colour.
    pub(crate) fn fades_as_one(&self) -> bool {
        let both = self.style.fill.is_some() && self.style.stroke.is_some();
        both || !self.compositing().effects.is_empty()
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

    /// The same item with another style altogether.
    #[must_use]
    pub fn styled(mut self, style: &Style) -> Self {
        self.style = style.clone();
        self
    }

    /// What the path encloses: `FillRule` or `"nonzero"`, `"evenodd"`.
    #[must_use]
    pub fn fill_rule(mut self, rule: impl Into<Given<FillRule>>) -> Self {
        match rule.into().resolve("fill_rule") {
            Ok(rule) => self.path = self.path.with_fill_rule(rule),
            Err(fault) => self.placement.fault.note(fault),
        }
        self
    }

    /// The item itself when nothing went wrong in its making, else the first fault.
    ///
    /// # Errors
    ///
    /// The first fault of the path, then of the style, then of the item.
    pub fn sound(&self) -> Result<&Self, Fault> {
        if self.is_sound() { Ok(self) } else { self.first_fault() }
    }

    /// Whether there is no fault, without looking for the first one.
    pub(crate) fn is_sound(&self) -> bool {
        self.path.fault().is_none() && self.style.is_sound() && self.placement.is_sound()
    }

    #[cold]
    fn first_fault(&self) -> Result<&Self, Fault> {
        self.path.sound()?;
        self.style.sound()?;
        let mut fault = FaultSlot::default();
        self.placement.check(&mut fault);
        fault.sound().map(|()| self)
    }
}

impl Path {
    /// An item of this path, filled; see [`Styled::fill`].
    #[must_use]
    pub fn fill(self, paint: impl Into<GivenPaint>) -> Item {
        Item::new(self).fill(paint)
    }

    /// An item of this path, stroked; see [`Styled::stroke`].
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
