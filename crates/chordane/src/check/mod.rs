//! Findings: what looks wrong on a sheet, where, and how to mend it; and the figures of what is on it.
//!
//! A finding is something that people mean otherwise. What only might be meant is left alone: each kind says, with
//! its thresholds, when it speaks and when it does not.

mod contours;
mod curves;
mod dots;
mod drawn;
mod edges;
mod figures;
mod finding;
mod layers;
mod names;
mod rings;
mod seam;
mod wording;

pub use figures::{ContourFigures, PathFigures};
pub use finding::{Code, Finding, Level};
pub use seam::LoopMoments;

use crate::arrange::Filling;
use crate::ground::{Fault, at_most, exhausted, limited, threads};
use crate::path::Contour;
use crate::sheet::{Layered, Sheet};
use drawn::{DocumentSpace, Drawn};
use finding::Findings;

/// What a sheet holds and what looks wrong on it; see [`Sheet::check`].
///
/// ```
/// use chordane::prelude::*;
/// let report = sheet(100.0, 100.0).add(circle((50.0, 50.0), 20.0).fill("teal")).check()?;
/// assert_eq!((report.paths.len(), report.findings.len()), (1, 0));
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Debug, PartialEq)]
pub struct Report {
    /// The figures of each item's path, in the order of drawing.
    pub paths: Vec<PathFigures>,
    /// What looks wrong, in the order of the paths.
    pub findings: Vec<Finding>,
    /// What was left out because it would take too long.
    pub left_out: Vec<LeftOut>,
}

/// A path that was checked only in part.
///
/// ```
/// use chordane::prelude::*;
/// // A star whose tips are so many that its crossings are not looked for.
/// let crowded = sheet(100.0, 100.0).centred().add(star((0.0, 0.0), 500_000, 40.0, 20.0).fill("teal")).check()?;
/// assert_eq!((crowded.left_out.len(), crowded.left_out[0].path), (1, 0));
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct LeftOut {
    /// Which path.
    pub path: usize,
    /// The line that made it, where it is known.
    pub line: Option<usize>,
    /// What was left out, and what stands in.
    pub message: String,
}

/// Budget for checking one path, in steps of about 10 ns: a few seconds at most.
const PATH_STEP_BUDGET: usize = 100_000_000;

impl Sheet {
    /// Looks the sheet over: the figures of every path, and findings, each with a place, plain words and the mend.
    ///
    /// Paths are looked at where they stand on the sheet, so all figures and places are in its coordinates; those of a document
    /// that was read are in its own user units ([`Sheet::document_view`]). Each place is a finding of its own. Cost: n log
    /// n in the segments of each path, and for each crossing of a path with itself the segments that a line to the right passes.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let sail = start((10.0, 10.0)).line((90.0, 10.0)).line((50.0, 70.0)).open();
    /// let report = sheet(100.0, 80.0).add(sail.fill("teal").stroke("black", 2.0)).check()?;
    /// assert_eq!(report.findings[0].code.name(), "open-outline");
    /// assert_eq!(report.findings[0].mend, "end it with close() instead of open(), or call close() on the path");
    /// # Ok::<(), Fault>(())
    /// ```
    ///
    /// # Errors
    ///
    /// The first fault of what is on the sheet. A path that would take more than seconds, or that crosses itself more than a million
    /// times, is looked at in part; see [`Report::left_out`].
    pub fn check(&self) -> Result<Report, Fault> {
        limited("check", || self.report())?
    }

    fn report(&self) -> Result<Report, Fault> {
        let scene = self.scene()?;
        let space = DocumentSpace::of(self);
        let drawn: Vec<Drawn<'_>> = scene.items().iter().map(|placed| Drawn::of(placed, &space)).collect();
        let document = self.document_view().is_some();
        let look = |i: usize| {
            let Some(one) = drawn.get(i).filter(|_| !exhausted(500)) else { return Ok(None) };
            let whole = at_most(PATH_STEP_BUDGET, || {
                let filling = Filling::of(&one.path, "area").ok()?;
                let mut findings = Findings::new(document);
                let figures = figures::of(one, filling.painted().area, &space);
                contours::look(one, &filling, &mut findings);
                curves::look(one, &mut findings);
                rings::look(one, &mut findings);
                layers::look(one, &filling, &space, &mut findings);
                Some((figures, findings))
            });
            if let Some(Some((figures, findings))) = whole {
                return figures.map(|figures| Some((figures, findings, None)));
            }
            one.path.sound()?;
            let mut findings = Findings::new(document);
            let around: f64 = one.path.contours().iter().map(Contour::signed_area).sum();
            let figures = figures::of(one, around.abs(), &space)?;
            rings::look(one, &mut findings);
            let message = "the path is too large to search for crossings: its area is given as the sum of its contours' areas, and most checks are left out";
            let left_out = LeftOut { path: one.number, line: one.item.line(), message: message.to_owned() };
            Ok(Some((figures, findings, Some(left_out))))
        };
        let looked: Vec<Result<Option<_>, Fault>> = threads::map(0..drawn.len(), 1, look);
        let mut findings = Findings::new(document);
        let (mut paths, mut left_out) = (Vec::with_capacity(drawn.len()), Vec::new());
        for one in looked {
            let Some((figures, found, left)) = one? else { continue };
            paths.push(figures);
            findings.join(found);
            left_out.extend(left);
        }
        rings::of_items(&drawn, &mut findings);
        dots::look(&drawn, &space, &mut findings);
        names::look(&drawn, &mut findings);
        layers::covered(&drawn, &mut findings);
        Ok(Report { paths, findings: findings.in_order(), left_out })
    }
}
