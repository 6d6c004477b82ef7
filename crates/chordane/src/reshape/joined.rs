//! Open contours joined where their ends meet.

use std::collections::HashMap;

use super::chain::reshaped;
use crate::ground::{FaultSlot, exhausted};
use crate::number::Point;
use crate::path::{Contour, Path};

impl Path {
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
        let check = |fault: &mut FaultSlot| _ = fault.finite("joined", "distance", within);
        reshaped("joined", self, check, |_| joined(self.contours(), within))
    }
}

fn joined(contours: &[Contour], within: f64) -> Vec<Contour> {
    let near = |a: Point, b: Point| a == b || a.distance(b) <= within;
    let is_open = |contour: &Contour| !contour.is_closed() && contour.vertex_count() > 1;
    let ends = Ends::new(contours.iter().map(|one| is_open(one).then(|| [one.start(), one.end()])), within);
    let mut rest: Vec<Option<Contour>> = contours.iter().cloned().map(Some).collect();
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
            let meets = |other: &Contour| [other.start(), other.end()].iter().any(|spot| near(*spot, end));
            let next =
                ends.near(end).filter(|at| rest.get(*at).is_some_and(|one| one.as_ref().is_some_and(meets)));
            let Some(next) = next.min().and_then(|at| rest.get_mut(at)?.take()) else { break };
            let next = if near(next.start(), end) { next } else { next.reversed() };
            end = next.end();
            chain.push(next);
        }
        let Some(chain) = Contour::in_a_row(&chain) else { continue };
        let comes_round = chain.vertex_count() > 2 && near(end, home);
        done.push(if comes_round { chain.closed_at_start() } else { chain });
    }
    done
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
        round.filter_map(|square| self.squares.get(&square)).flatten().copied().take_while(|_| !exhausted(2))
    }
}
