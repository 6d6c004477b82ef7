//! What attributes have in single frames, and how numbers that move are written.

use crate::path::Path;
use crate::write::svg_text::plain;

/// What an attribute has in one frame.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Value {
    /// Nothing: what SVG begins with.
    Absent,
    Text(String),
    /// Path data, with a number of decimals.
    Path(Path, usize),
}

impl Value {
    pub(super) fn text(&self) -> Option<&str> {
        match self {
            Self::Text(text) => Some(text),
            _ => None,
        }
    }

    pub(super) fn path(&self) -> Option<&Path> {
        match self {
            Self::Path(path, _) => Some(path),
            _ => None,
        }
    }
}

/// A number with as many decimals as the tolerance asks for.
pub(super) fn rounded(value: f64, tolerance: f64) -> String {
    let factor = 10_f64.powf((-tolerance.log10()).ceil().clamp(0.0, 12.0));
    plain((value * factor).round() / factor)
}
