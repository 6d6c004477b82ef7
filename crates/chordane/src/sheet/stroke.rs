//! The part of a style that says how a line is drawn.

use crate::reshape::{Cap, Join, Outline};

/// How a line is stroked: its width, ends, corners and dashes. It is a part of a [`Style`](super::Style), whose words set
/// it; what it is painted with is [`Style::stroke_paint`](super::Style::stroke_paint).
///
/// ```
/// use chordane::prelude::*;
/// let hem = style().stroke("#20303c", 3.0).cap("round").dash([12.0, 6.0]);
/// assert_eq!((hem.get_stroke().width(), hem.get_stroke().cap()), (3.0, Cap::Round));
/// assert_eq!(hem.get_stroke().dash(), [12.0, 6.0]);
/// ```
#[derive(Clone, Debug, PartialEq)]
pub struct Stroke {
    pub(crate) line: Outline,
}

impl Default for Stroke {
    fn default() -> Self {
        Self { line: Outline::new(1.0) }
    }
}

impl Stroke {
    /// The width in the item's own units, half of it on either side of the line; 0 draws nothing.
    #[must_use]
    pub fn width(&self) -> f64 {
        self.line.width
    }

    /// How open ends look.
    #[must_use]
    pub fn cap(&self) -> Cap {
        self.line.cap
    }

    /// How corners look.
    #[must_use]
    pub fn join(&self) -> Join {
        self.line.join
    }

    /// The longest mitre as a multiple of the width.
    #[must_use]
    pub fn mitre_limit(&self) -> f64 {
        self.line.mitre_limit
    }

    /// Lengths of line and gap in turn, in the item's own units; empty where the line is not dashed.
    #[must_use]
    pub fn dash(&self) -> &[f64] {
        &self.line.dash
    }

    /// How far into the pattern the line begins, in the item's own units.
    #[must_use]
    pub fn dash_offset(&self) -> f64 {
        self.line.dash_offset
    }

    /// The area that the stroke paints, as a reshape.
    #[must_use]
    pub fn outline(&self) -> &Outline {
        &self.line
    }
}
