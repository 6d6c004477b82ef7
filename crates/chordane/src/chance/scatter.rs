//! Places by chance within a path.

use std::collections::HashMap;

use super::Dice;
use crate::ground::{Fault, exhausted, limited};
use crate::number::{Cell, Point, pt};
use crate::path::Path;

/// Consecutive misses after which the path is treated as having no interior.
const MAX_MISSES: usize = 100_000;

/// Candidates tried around an active point before it is retired.
const CANDIDATES_PER_POINT: usize = 24;

/// More places than these fill the memory before they are seen.
const MAX_POINTS: usize = 1_000_000;

impl Dice {
    /// A point within a path under its fill rule, every spot as likely; none where the path has no inside.
    ///
    /// # Errors
    ///
    /// The path's fault.
    pub fn inside(&mut self, path: impl AsRef<Path>) -> Result<Option<Point>, Fault> {
        let path = path.as_ref();
        path.sound()?;
        limited("inside", || self.point_in(path))
    }

    fn point_in(&mut self, path: &Path) -> Option<Point> {
        let bounds = path.bounds()?;
        (0..MAX_MISSES)
            .take_while(|_| !exhausted(10))
            .map(|_| self.within(&bounds))
            .find(|point| path.inside(*point))
    }

    fn within(&mut self, bounds: &Cell) -> Point {
        let x = self.between(bounds.min.x, bounds.max.x);
        pt(x, self.between(bounds.min.y, bounds.max.y))
    }

    /// `n` points within a path, each independent of the others: some crowd together, some leave gaps. None where the path has no inside.
    /// At most a million. Cost: by the number of segments for each.
    ///
    /// # Errors
    ///
    /// The path's fault.
    pub fn scatter(&mut self, path: impl AsRef<Path>, n: usize) -> Result<Vec<Point>, Fault> {
        let path = path.as_ref();
        path.sound()?;
        limited("scatter", || (0..n.min(MAX_POINTS)).map_while(|_| self.point_in(path)).collect())
    }

    /// Points within a path that keep at least a distance from one another and leave no room for one more that was found:
    /// even, but without a pattern (blue noise). None for a distance of zero or less. At most a million.
    ///
    /// Source: R. Bridson, Fast Poisson disk sampling in arbitrary dimensions, 2007; of paths of several parts each is
    /// begun for itself.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// use chordane::chance::Dice;
    /// let dots = Dice::new(7, "dots").scatter_apart(circle((0.0, 0.0), 50.0), 8.0)?;
    /// assert!(dots.len() > 80 && dots.iter().all(|dot| dot.length() < 50.0));
    /// # Ok::<(), Fault>(())
    /// ```
    ///
    /// # Errors
    ///
    /// The path's fault.
    pub fn scatter_apart(&mut self, path: impl AsRef<Path>, distance: f64) -> Result<Vec<Point>, Fault> {
        let path = path.as_ref();
        path.sound()?;
        if !distance.is_finite() || distance <= 0.0 {
            return Ok(Vec::new());
        }
        limited("scatter_apart", || self.points_apart(path, distance))
    }

    fn points_apart(&mut self, path: &Path, distance: f64) -> Vec<Point> {
        let mut room = Room { places: Vec::new(), by_cell: HashMap::new(), distance };
        // Begin anew, until so many throws in a row find no room: parts that do not hang together get theirs.
        let mut misses = 0;
        while misses < 300 && room.places.len() < MAX_POINTS && !exhausted(100) {
            match self.point_in(path) {
                None => break,
                Some(seed) if room.is_free(seed) => {
                    room.take(seed);
                    self.grow(path, &mut room);
                    misses = 0;
                }
                Some(_) => misses += 1,
            }
        }
        room.places
    }

    /// Goes on from the newest place, all round it, for as long as there is room.
    fn grow(&mut self, path: &Path, room: &mut Room) {
        let mut active = vec![room.places.len() - 1];
        while let Some(at) = self.place(active.len()).filter(|_| !exhausted(100)) {
            let from = active.get(at).and_then(|place| room.places.get(*place)).copied().unwrap_or_default();
            let found = (0..CANDIDATES_PER_POINT).find_map(|_| {
                let (angle, share) = (self.between(0.0, std::f64::consts::TAU), self.between(1.0, 4.0));
                // Even over the ring between one and two distances.
                let point = from + pt(libm::cos(angle), libm::sin(angle)) * (room.distance * share.sqrt());
                (room.is_free(point) && path.inside(point)).then_some(point)
            });
            match found {
                Some(point) if room.places.len() < MAX_POINTS => {
                    active.push(room.places.len());
                    room.take(point);
                }
                _ => drop(active.swap_remove(at)),
            }
        }
    }
}

/// Places so far, found by the cell they are in; no cell holds two.
struct Room {
    places: Vec<Point>,
    by_cell: HashMap<(i64, i64), usize>,
    distance: f64,
}

impl Room {
    fn cell(&self, point: Point) -> (i64, i64) {
        let at = (point / (self.distance * std::f64::consts::FRAC_1_SQRT_2)).floor();
        (at.x as i64, at.y as i64)
    }

    fn is_free(&self, point: Point) -> bool {
        let (column, row) = self.cell(point);
        let near = (-2..=2)
            .flat_map(|dy| (-2..=2).map(move |dx| (column.saturating_add(dx), row.saturating_add(dy))));
        let mut there = near.filter_map(|cell| self.places.get(*self.by_cell.get(&cell)?));
        there.all(|other| other.distance(point) >= self.distance)
    }

    fn take(&mut self, point: Point) {
        self.by_cell.insert(self.cell(point), self.places.len());
        self.places.push(point);
    }
}
