//! Which contour lies in which, and what follows from it; and contours that meet.

use std::collections::HashMap;
use std::ops::ControlFlow;

use super::Direction;
use super::tree::BoxTree;
use crate::ground::{Fault, FaultKind, spent};
use crate::number::Point;
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
        let tree = BoxTree::new(self.contours().iter().map(Contour::bounds));
        let depth = |(i, contour): (usize, &Contour)| {
            let (spot, mut count) = (contour.start(), 0);
            let _ = tree.each(
                |bounds| bounds.contains(spot),
                |j| {
                    let around = self.contours().get(j).filter(|_| j != i);
                    count += usize::from(around.is_some_and(|other| other.winding(spot) != 0));
                    ControlFlow::Continue(())
                },
            );
            count
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
    /// Where several ends meet in one place, the first pair in order is joined. Cost: linear. A distance that is not finite is a fault.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let two = start((0.0, 0.0)).line((5.0, 0.0)).open().start((0.0, 0.0)).line((0.0, 5.0)).line((5.0, 0.0)).open();
    /// assert_eq!(two.joined(0.0).data(), "M0 0H5L0 5Z");
    /// ```
    #[must_use]
    pub fn joined(&self, within: f64) -> Self {
        let (contours, rule, mut fault) = self.clone().into_parts();
        if !fault.finite("joined", "distance", within) {
            return Self::from_parts(contours, rule, fault);
        }
        let near = |a: Point, b: Point| a == b || a.distance(b) <= within;
        let is_open = |contour: &Contour| !contour.is_closed() && contour.vertex_count() > 1;
        let ends =
            Ends::new(contours.iter().map(|one| is_open(one).then(|| [one.start(), one.end()])), within);
        let mut rest: Vec<Option<Contour>> = contours.into_iter().map(Some).collect();
        let mut done: Vec<Contour> = Vec::with_capacity(rest.len());
        for i in 0..rest.len() {
            let Some(first) = rest.get_mut(i).and_then(Option::take) else { continue };
            if !is_open(&first) {
                done.push(first);
                continue;
            }
            let (home, mut end) = (first.start(), first.end());
            let mut chain = vec![first];
            while !near(end, home) {
                let meets =
                    |other: &Contour| [other.start(), other.end()].iter().any(|spot| near(*spot, end));
                let next = ends
                    .near(end)
                    .filter(|at| rest.get(*at).is_some_and(|one| one.as_ref().is_some_and(meets)));
                let Some(next) = next.min().and_then(|at| rest.get_mut(at)?.take()) else { break };
                let next = if near(next.start(), end) { next } else { next.reversed() };
                end = next.end();
                chain.push(next);
            }
            let Some(chain) = Contour::in_a_row(&chain) else { continue };
            let comes_round = chain.vertex_count() > 2 && near(end, home);
            done.push(if comes_round { chain.closed_at_start() } else { chain });
        }
        Self::from_parts(done, rule, fault).within_numbers("joined")
    }
}

/// Where contours begin and end, on squared paper: those within a distance of a spot are in the squares round it.
struct Ends {
    side: f64,
    squares: HashMap<(i64, i64), Vec<usize>>,
}

impl Ends {
    fn new(ends: impl Iterator<Item = Option<[Point; 2]>>, within: f64) -> Self {
        let ends: Vec<(usize, Point)> = ends
            .enumerate()
            .flat_map(|(i, ends)| ends.into_iter().flatten().map(move |end| (i, end)))
            .collect();
        let extent = ends.iter().map(|(_, p)| p.abs().max_element()).fold(0.0, f64::max);
        // No finer than whole numbers can count.
        let side = within.max(extent * 1e-12).max(f64::MIN_POSITIVE);
        let mut all = Self { side, squares: HashMap::with_capacity(ends.len()) };
        for (i, end) in ends {
            let square = all.square(end);
            all.squares.entry(square).or_default().push(i);
        }
        all
    }

    fn square(&self, spot: Point) -> (i64, i64) {
        let at = (spot / self.side).floor();
        (at.x as i64, at.y as i64)
    }

    /// The numbers of the contours that end in the squares round a spot.
    fn near(&self, spot: Point) -> impl Iterator<Item = usize> + '_ {
        let (x, y) = self.square(spot);
        let round =
            (-1..=1).flat_map(move |dx| (-1..=1).map(move |dy| (x.saturating_add(dx), y.saturating_add(dy))));
        round.filter_map(|square| self.squares.get(&square)).flatten().copied().take_while(|_| !spent(2))
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
