//! Motion along a path: things that ride on it, lines that draw themselves, dashes that march.

use super::{Pose, rounds};
use crate::ground::{Fault, FaultKind};
use crate::path::{Affine, Path, by};
use crate::sheet::{Layered, Styled};

/// The place at a share of a path's length, turned with it or not. Open paths end; closed ones are gone round again and again.
fn place(on: &Path, share: f64, turned: bool) -> Result<Affine, Fault> {
    if !share.is_finite() {
        return Err(Fault::of("riding", FaultKind::NotFinite { what: "share", value: share }));
    }
    let survey = on.survey()?;
    let round = on.contours().len() == 1 && on.contours().iter().all(|contour| contour.is_closed());
    let share = if round { rounds(share, 1.0, 0.0) } else { share.clamp(0.0, 1.0) };
    let Some(station) = survey.station(share * survey.length()) else { return Ok(Affine::IDENTITY) };
    let step = Affine::from_translation(station.point());
    Ok(if turned { step * by::rotation(station.heading()) } else { step })
}

/// The words of motion that mean the same for an item and for a group.
///
/// ```
/// use chordane::prelude::*;
/// let hoop = circle((0.0, 0.0), 40.0);
/// let kite = group().add(polygon((0.0, 0.0), 3, 5.0).fill("teal")).riding(&hoop, 0.25);
/// assert!(kite.placement().transform.translation.distance(pt(0.0, 40.0)) < 1e-9);
/// ```
pub trait Posed: Layered {
    /// In a pose, after the transforms that there are.
    #[must_use]
    fn posed(self, pose: Pose) -> Self {
        self.transformed(&pose.affine())
    }

    /// Riding on a path: its origin at a fraction of the path's length, and turned with the path, its +x along the way. At a constant speed where the fraction
    /// rises evenly; a closed path of one contour is gone round again and again, on others it stays at the ends. On an empty path it stays as
    /// it is. Each call measures the path.
    #[must_use]
    fn riding(self, path: &Path, fraction: f64) -> Self {
        match place(path, fraction, true) {
            Ok(to) => self.transformed(&to),
            Err(fault) => self.with_fault(fault),
        }
    }

    /// As [`riding`](Posed::riding), upright: moved and not turned.
    #[must_use]
    fn riding_upright(self, path: &Path, fraction: f64) -> Self {
        match place(path, fraction, false) {
            Ok(to) => self.transformed(&to),
            Err(fault) => self.with_fault(fault),
        }
    }
}

impl<T: Layered> Posed for T {}

/// The word of dashes that march, for a style and for what has one.
pub trait Marching: Styled {
    /// Dashes marched on along the line by a fraction of their pattern, so that a phase from 0 to 1 brings them to where they were. Give the dashes
    /// first; without any it changes nothing.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let dashed = style().stroke("teal", 2.0).dash([6.0, 4.0]);
    /// assert_eq!(dashed.marching(0.25).line.dash_offset, -2.5);
    /// ```
    #[must_use]
    fn marching(mut self, phase: f64) -> Self {
        let line = &mut self.style_mut().line;
        let pattern = line.dash.iter().sum::<f64>() * if line.dash.len() % 2 == 1 { 2.0 } else { 1.0 };
        if pattern != 0.0 {
            line.dash_offset = -pattern * rounds(phase, 1.0, 0.0);
        }
        self
    }
}

impl<T: Styled> Marching for T {}

impl Path {
    /// As [`Posed::riding`].
    #[must_use]
    pub fn riding(&self, path: &Self, share: f64) -> Self {
        self.placed(place(path, share, true))
    }

    /// As [`Posed::riding_upright`].
    #[must_use]
    pub fn riding_upright(&self, path: &Self, share: f64) -> Self {
        self.placed(place(path, share, false))
    }

    fn placed(&self, place: Result<Affine, Fault>) -> Self {
        match place {
            Ok(to) => self.transformed(&to),
            Err(fault) => self.clone().with_fault(fault),
        }
    }

    /// Returns the path up to a fraction of its length: empty at 0, the whole path at 1, where closed contours stay closed.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let line = rectangle((0.0, 0.0), 10.0, 10.0);
    /// assert_eq!(line.drawn_in(0.5).data(), "M0 0H10V10");
    /// assert_eq!((line.drawn_in(1.0), line.drawn_in(0.0).is_empty()), (line.clone(), true));
    /// ```
    #[must_use]
    pub fn drawn_in(&self, share: f64) -> Self {
        match share {
            _ if share >= 1.0 => self.clone(),
            _ if share <= 0.0 => self.trimmed(0.0, 0.0),
            _ => self.trimmed(0.0, share),
        }
    }

    /// What is left of the path when it goes from its start on: all at 0, nothing at 1.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let line = start((0.0, 0.0)).line((10.0, 0.0)).open();
    /// assert_eq!((line.drawn_out(0.25).data().as_str(), line.drawn_out(1.0).is_empty()), ("M2.5 0H10", true));
    /// ```
    #[must_use]
    pub fn drawn_out(&self, share: f64) -> Self {
        match share {
            _ if share <= 0.0 => self.clone(),
            _ if share >= 1.0 => self.trimmed(0.0, 0.0),
            _ => self.trimmed(share, 1.0),
        }
    }
}
