//! What a score is.

use chordane::sheet::Sheet;

use crate::{Mistake, Settings, Stage};

/// A small program that returns a sheet.
///
/// A closure is one:
///
/// ```
/// use chordane::prelude::*;
/// use chordane_score::{Score, Stage};
///
/// let score = |stage: &mut Stage| {
///     let radius = stage.knob("radius", 30.0, 1.0, 40.0);
///     sheet(100.0, 80.0).add(circle((50.0, 40.0), radius).fill("teal"))
/// };
/// assert_eq!(score.sheet()?.size, pt(100.0, 80.0));
/// # Ok::<(), chordane_score::Mistake>(())
/// ```
pub trait Score {
    /// Makes the sheet, with what the stage gives.
    ///
    /// # Errors
    ///
    /// What went wrong, with its place where the score has a source.
    fn perform(&self, stage: &mut Stage) -> Result<Sheet, Mistake>;

    /// Makes the sheet with all knobs at their starts.
    ///
    /// # Errors
    ///
    /// As [`Score::perform`].
    fn sheet(&self) -> Result<Sheet, Mistake> {
        self.perform(&mut Stage::new(Settings::new()))
    }
}

impl<F: Fn(&mut Stage) -> Sheet> Score for F {
    fn perform(&self, stage: &mut Stage) -> Result<Sheet, Mistake> {
        let sheet = self(stage);
        sheet.sound().map_err(Mistake::from)?;
        Ok(sheet)
    }
}
