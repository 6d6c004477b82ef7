//! What a score is.

use chordane::sheet::Sheet;

use crate::Mistake;

/// A small program that returns a sheet.
///
/// A closure is one:
///
/// ```
/// use chordane::prelude::*;
/// use chordane_score::Score;
///
/// let score = || sheet(100.0, 80.0).add(circle((50.0, 40.0), 30.0).fill("teal"));
/// assert_eq!(score.sheet()?.size(), pt(100.0, 80.0));
/// # Ok::<(), chordane_score::Mistake>(())
/// ```
pub trait Score {
    /// Makes the sheet.
    ///
    /// # Errors
    ///
    /// What went wrong, with its place where the score has a source.
    fn sheet(&self) -> Result<Sheet, Mistake>;
}

impl<F: Fn() -> Sheet> Score for F {
    fn sheet(&self) -> Result<Sheet, Mistake> {
        let sheet = self();
        sheet.sound().map_err(Mistake::from)?;
        Ok(sheet)
    }
}
