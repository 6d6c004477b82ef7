//! Which contour lies in which, and what follows from it; and contours that meet.

use super::Direction;
use crate::ground::{Fault, FaultKind};
use crate::number::{Cell, Point};
use crate::path::{Contour, Path};

impl Path {
    /// The path with a hole: the other path's contours, each turned to run against the contour that it lies in,
    /// so that the hole opens whichever way it was drawn.
    ///
    /// The contour that a hole lies in is the smallest one round the hole's first point; where there is none (the
    /// hole overlaps the rim), the one drawn last. A hole in an empty path is a fault; an empty hole changes
    /// nothing. Cost: the hole's contours times the segments of the path.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let sail = polygon((0.0, 0.0), 4, 90.0).with_hole(circle((0.0, -20.0), 12.0));
    /// assert!(!sail.inside((0.0, -20.0)));
    /// assert_eq!(
    ///     Path::empty().with_hole(circle((0.0, 0.0), 5.0)).sound().unwrap_err().to_string(),
    ///     "`with_hole`: there is no contour to cut the hole into; make the outline first, then the hole"
    /// );
    /// ```
    #[must_use]
    pub fn with_hole(&self, hole: impl AsRef<Self>) -> Self {
        let hole = hole.as_ref();
        let (mut contours, rule, mut fault) = self.clone().into_parts();
        fault.take_from(hole.carried());
        if contours.is_empty() && !hole.is_empty() {
            fault.note(Fault::of("with_hole", FaultKind::HoleInNothing));
        }
        let outlines = self.contours();
        for cut in hole.contours() {
            let against = surrounding(outlines, cut).map_or(0.0, Contour::signed_area);
            let same_way = against * cut.signed_area() > 0.0;
            contours.push(if same_way { cut.reversed() } else { cut.clone() });
        }
        Self::from_parts(contours, rule, fault)
    }
}

impl Path {
    /// How many other contours each contour lies in, in order: 0 for an outline, 1 for a hole in it, 2 for an island
    /// in the hole, and so on.
    ///
    /// A contour lies where its first vertex does: what contours that cross each other give depends on where they
    /// begin. Contours that are the same lie in one another. Cost: the contours times those whose bounds hold them.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let hoop = circle((0.0, 0.0), 9.0).and(&circle((0.0, 0.0), 5.0)).and(&circle((0.0, 0.0), 2.0));
    /// assert_eq!(hoop.nesting(), [0, 1, 2]);
    /// ```
    #[must_use]
    pub fn nesting(&self) -> Vec<usize> {
        let bounds: Vec<Cell> = self.contours().iter().map(Contour::bounds).collect();
        let depth = |(i, contour): (usize, &Contour)| {
            let around = self.contours().iter().zip(&bounds).enumerate();
            around
                .filter(|(j, (_, bounds))| *j != i && bounds.contains(contour.start()))
                .filter(|(_, (other, _))| other.winding(contour.start()) != 0)
                .count()
        };
        self.contours().iter().enumerate().map(depth).collect()
    }

    /// The path with its contours' directions set by their nesting: outlines clockwise as seen, the holes in them
    /// anticlockwise, islands in holes clockwise again. Under the nonzero rule it then encloses what it would under
    /// the even-odd rule, where no contours cross.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let hoop = circle((0.0, 0.0), 9.0).and(&circle((0.0, 0.0), 5.0)).turn_holes();
    /// assert!(!hoop.inside((0.0, 0.0)));
    /// ```
    #[must_use]
    pub fn turn_holes(&self) -> Self {
        let (contours, rule, fault) = self.clone().into_parts();
        let turned = contours.iter().zip(self.nesting()).map(|(contour, depth)| {
            let wanted = if depth % 2 == 0 { Direction::Clockwise } else { Direction::Anticlockwise };
            let as_it_is = matches!(contour.direction(), direction if direction == wanted || direction == Direction::Flat);
            if as_it_is { contour.clone() } else { contour.reversed() }
        });
        Self::from_parts(turned.collect(), rule, fault)
    }

    /// The path with open contours joined where the end of one is the start or end of another, within a distance;
    /// those that then end where they began are closed. A contour travelled against its new direction is turned.
    ///
    /// The joint is where the earlier contour ends. Closed contours, and open ones with no partner, stay as they are.
    /// Where several ends meet in one place, the first pair in order is joined. Cost: grows with the square of the
    /// number of open contours.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let two = start((0.0, 0.0)).line((5.0, 0.0)).open().start((0.0, 0.0)).line((0.0, 5.0)).line((5.0, 0.0)).open();
    /// assert_eq!(two.joined(0.0).data(), "M0 0H5L0 5Z");
    /// ```
    #[must_use]
    pub fn joined(&self, within: f64) -> Self {
        let (contours, rule, fault) = self.clone().into_parts();
        let near = |a: Point, b: Point| a == b || a.distance(b) <= within;
        let mut done: Vec<Contour> = Vec::with_capacity(contours.len());
        let mut rest: std::collections::VecDeque<Contour> = contours.into();
        while let Some(mut chain) = rest.pop_front() {
            if chain.is_closed() || chain.vertex_count() < 2 {
                done.push(chain);
                continue;
            }
            while !near(chain.end(), chain.start()) {
                let next = rest.iter().position(|other| {
                    let open = !other.is_closed() && other.vertex_count() > 1;
                    open && [other.start(), other.end()].iter().any(|end| near(*end, chain.end()))
                });
                let Some(next) = next.and_then(|at| rest.remove(at)) else { break };
                let next = if near(next.start(), chain.end()) { next } else { next.reversed() };
                chain = chain.then(&next);
            }
            let comes_round = chain.vertex_count() > 2 && near(chain.end(), chain.start());
            done.push(if comes_round { chain.closed_at_start() } else { chain });
        }
        Self::from_parts(done, rule, fault)
    }
}

impl AsRef<Self> for Path {
    fn as_ref(&self) -> &Self {
        self
    }
}

/// The smallest contour round the first point of another; the last contour where there is none.
fn surrounding<'a>(outlines: &'a [Contour], cut: &Contour) -> Option<&'a Contour> {
    let size = |contour: &Contour| contour.signed_area().abs();
    outlines
        .iter()
        .filter(|outline| outline.winding(cut.start()) != 0)
        .min_by(|a, b| size(a).total_cmp(&size(b)))
        .or(outlines.last())
}

#[cfg(test)]
mod tests {
    use crate::prelude::*;

    #[test]
    fn nesting_sets_the_directions_whatever_they_were() {
        let rings = [50.0, 40.0, 30.0, 20.0].map(|r| circle((0.0, 0.0), r));
        let aside = circle((200.0, 0.0), 30.0).and(&circle((200.0, 0.0), 10.0).reversed());
        let mixed = rings[2].reversed().and(&rings[0]).and(&rings[3]).and(&rings[1]).and(&aside);
        assert_eq!(mixed.nesting(), [2, 0, 3, 1, 0, 1]);
        let turned = mixed.turn_holes();
        for (x, painted) in
            [(45.0, true), (35.0, false), (25.0, true), (5.0, false), (220.0, true), (201.0, false)]
        {
            assert_eq!(turned.inside((x, 1.0)), painted, "{x}");
        }
        assert_eq!(turned, turned.turn_holes());
    }

    #[test]
    fn open_contours_that_meet_are_joined_whichever_way_they_run() {
        let path = Path::open([(0.0, 0.0), (10.0, 0.0)])
            .and(&Path::open([(10.0, 10.0), (10.0, 0.0)]))
            .and(&circle((50.0, 50.0), 3.0))
            .and(&Path::open([(10.0, 10.0), (0.0, 10.0)]))
            .and(&Path::open([(90.0, 90.0), (99.0, 99.0)]))
            .and(&Path::open([(0.0, 0.0), (0.0, 10.0)]));
        let joined = path.joined(0.0);
        assert_eq!(joined.contours().len(), 3);
        assert_eq!(Path::from_contours(joined.contours()[..1].to_vec()).data(), "M0 0H10V10H0Z");
        // Ends that only nearly meet are joined within a distance, at the earlier one's end.
        let apart = Path::open([(0.0, 0.0), (10.0, 0.0)]).and(&Path::open([(10.2, 0.0), (10.0, 9.0)]));
        assert_eq!(apart.joined(0.1).contours().len(), 2);
        assert_eq!(apart.joined(0.3).data(), "M0 0H10V9");
        let there_and_back =
            Path::open([(0.0, 0.0), (10.0, 0.0)]).and(&Path::open([(10.0, 0.0), (0.0, 0.0)]));
        assert!(there_and_back.joined(0.0).contours()[0].is_closed());
    }
}
