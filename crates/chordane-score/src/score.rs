//! What a score is.

use chordane::sheet::Sheet;

use crate::{ScoreError, Settings, Stage};

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
/// # Ok::<(), chordane_score::ScoreError>(())
/// ```
pub trait Score {
    /// Makes the sheet, with what the stage gives.
    ///
    /// # Errors
    ///
    /// What went wrong, with its place where the score has a source.
    fn perform(&self, stage: &mut Stage) -> Result<Sheet, ScoreError>;

    /// Makes the sheet with all knobs at their starts.
    ///
    /// # Errors
    ///
    /// As [`Score::perform`].
    fn sheet(&self) -> Result<Sheet, ScoreError> {
        self.perform(&mut Stage::new(Settings::new()))
    }
}

/// A closure that returns a sheet, or a result with one.
impl<F, R> Score for F
where
    F: Fn(&mut Stage) -> R,
    R: IntoSheet,
{
    fn perform(&self, stage: &mut Stage) -> Result<Sheet, ScoreError> {
        let sheet = self(stage).into_sheet()?;
        sheet.sound()?;
        Ok(sheet)
    }
}

/// What a score in Rust may return: a sheet, or a result with one.
///
/// ```
/// use chordane::prelude::*;
/// use chordane_score::{Score, ScoreError, Stage};
///
/// let score = |stage: &mut Stage| {
///     let bows = stage.knob("bows", 3.0, 0.0, 9.0);
///     if bows.fract() > 0.0 {
///         return Err(ScoreError::new(format!("there are no {bows} bows")).advised("give a whole number"));
///     }
///     Ok(sheet(100.0, 80.0).add_all((0..bows as u32).map(|i| circle((10.0 * f64::from(i), 40.0), 4.0))))
/// };
/// assert_eq!(score.sheet()?.items().len(), 3);
/// # Ok::<(), chordane_score::ScoreError>(())
/// ```
pub trait IntoSheet {
    /// Returns the sheet.
    ///
    /// # Errors
    ///
    /// The error of a result.
    fn into_sheet(self) -> Result<Sheet, ScoreError>;
}

impl IntoSheet for Sheet {
    fn into_sheet(self) -> Result<Sheet, ScoreError> {
        Ok(self)
    }
}

impl<E: Into<ScoreError>> IntoSheet for Result<Sheet, E> {
    fn into_sheet(self) -> Result<Sheet, ScoreError> {
        self.map_err(Into::into)
    }
}
