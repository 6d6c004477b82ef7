//! Filled areas cut into triangles.
//!
//! The area's rims (see `simplified`) are joined to one another by bridges, so that holes become part of one closed line, and of that one ears
//! are cut off until nothing is left. Then the sides between two triangles that are not sides of the area are turned over wherever that makes
//! their smallest angle larger (Lawson's flips), which gives the constrained Delaunay triangulation.

use std::collections::HashMap;

use crate::ground::exhausted;
use crate::number::Point;
use crate::path::{Contour, Path};

/// A filled area as triangles: its vertices, and three of their numbers for each.
#[derive(Clone, Debug, Default)]
pub(crate) struct Triangles {
    pub(crate) points: Vec<Point>,
    pub(crate) corners: Vec<[usize; 3]>,
}

/// More vertices than these are not cut: the time goes with their square.
const MAX_VERTICES: usize = 20_000;

impl Triangles {
    /// The area that a path fills, curves as chords that stray no farther than a tolerance. Empty for an empty area, and for one of too many
    /// vertices. Cost: with the square of the vertices.
    pub(crate) fn of(path: &Path, tolerance: f64) -> Self {
        let area = path.flattened(tolerance).simplified();
        let rim_of = |contour: &Contour| {
            let mut rim: Vec<Point> = contour.vertices().collect();
            rim.dedup();
            (contour.signed_area(), rim)
        };
        let mut rims: Vec<(f64, Vec<Point>)> = area.contours().iter().map(rim_of).collect();
        rims.retain(|(_, rim)| rim.len() > 2);
        let count: usize = rims.iter().map(|(_, rim)| rim.len()).sum();
        if count > MAX_VERTICES {
            return Self::default();
        }
        let mut all = Self::default();
        let (mut outer, holes): (Vec<_>, Vec<_>) = rims.into_iter().partition(|(area, _)| *area > 0.0);
        let mut holes: Vec<Option<Vec<Point>>> = holes.into_iter().map(|(_, rim)| Some(rim)).collect();
        // The smallest outline that a hole lies in is its own.
        outer.sort_by(|a, b| a.0.total_cmp(&b.0));
        for (_, rim) in outer {
            let frame = Path::closed(rim.iter().copied());
            let inside =
                |hole: &Vec<Point>| hole.first().is_some_and(|p| frame.inside(*p) || rim.contains(p));
            let own: Vec<Vec<Point>> =
                holes.iter_mut().filter_map(|slot| slot.take_if(|hole| inside(hole))).collect();
            all.cut(rim, own);
        }
        all
    }

    /// Cuts one outline with its holes.
    fn cut(&mut self, rim: Vec<Point>, mut holes: Vec<Vec<Point>>) {
        let first = self.points.len();
        self.points.extend(rim);
        let mut line: Vec<usize> = (first..self.points.len()).collect();
        let right = |hole: &[Point]| hole.iter().map(|p| p.x).fold(f64::NEG_INFINITY, f64::max);
        holes.sort_by(|a, b| right(b).total_cmp(&right(a)));
        let mut sides: Vec<(usize, usize)> = closed_pairs(&line);
        for hole in holes {
            let begin = self.points.len();
            self.points.extend(hole);
            let own: Vec<usize> = (begin..self.points.len()).collect();
            sides.extend(closed_pairs(&own));
            self.bridge(&mut line, &own);
        }
        let first = self.corners.len();
        self.cut_ears(line);
        self.flip(first, &sides);
    }

    fn at(&self, number: usize) -> Point {
        self.points.get(number).copied().unwrap_or_default()
    }

    /// Takes a hole into the closed line, by a way there and back from its vertex farthest right to the nearest vertex that it sees.
    fn bridge(&self, line: &mut Vec<usize>, hole: &[usize]) {
        let farthest = (0..hole.len()).max_by(|a, b| self.at(hole[*a]).x.total_cmp(&self.at(hole[*b]).x));
        let Some(farthest) = farthest else { return };
        let from = self.at(hole[farthest]);
        let mut ways: Vec<usize> = (0..line.len()).collect();
        ways.sort_by(|a, b| self.at(line[*a]).distance(from).total_cmp(&self.at(line[*b]).distance(from)));
        let sees = |at: &usize| {
            let to = self.at(line[*at]);
            let clear = |a: usize, b: usize| !cross(from, to, self.at(a), self.at(b));
            let around = closed_pairs(line).into_iter().chain(closed_pairs(hole));
            self.is_within(line, *at, from) && around.into_iter().all(|(a, b)| clear(a, b))
        };
        let at = ways.iter().copied().find(sees).or(ways.first().copied()).unwrap_or(0);
        let round = hole.iter().cycle().skip(farthest).take(hole.len() + 1).copied();
        let back = line.get(at).copied();
        let bridged: Vec<usize> = round.chain(back).collect();
        line.splice(at + 1..at + 1, bridged);
    }

    /// Whether a point lies between the two sides that meet at a vertex of the line.
    fn is_within(&self, line: &[usize], at: usize, p: Point) -> bool {
        let n = line.len();
        let (before, here, after) =
            (self.at(line[(at + n - 1) % n]), self.at(line[at]), self.at(line[(at + 1) % n]));
        let (left, right) = (turn(before, here, p), turn(here, after, p));
        if turn(before, here, after) >= 0.0 {
            left >= 0.0 && right >= 0.0
        } else {
            left >= 0.0 || right >= 0.0
        }
    }

    fn cut_ears(&mut self, mut line: Vec<usize>) {
        let mut at = 0;
        let mut without = 0;
        while line.len() > 2 {
            if exhausted(line.len()) {
                return;
            }
            let n = line.len();
            let (before, here, after) = (line[(at + n - 1) % n], line[at % n], line[(at + 1) % n]);
            let (a, b, c) = (self.at(before), self.at(here), self.at(after));
            let area = turn(a, b, c);
            let holds = |p: Point| {
                p != a
                    && p != b
                    && p != c
                    && turn(a, b, p) >= 0.0
                    && turn(b, c, p) >= 0.0
                    && turn(c, a, p) >= 0.0
            };
            let ear = area > 0.0 && !line.iter().any(|number| holds(self.at(*number)));
            // Rounding can leave a line without an ear: what is nearly flat goes first then.
            if ear || (area == 0.0 && without > 0) || without > n {
                if area > 0.0 {
                    self.corners.push([before, here, after]);
                }
                line.remove(at % n);
                at = if at == 0 { 0 } else { (at - 1) % line.len().max(1) };
                without = 0;
            } else {
                at = (at + 1) % n;
                without += 1;
            }
        }
    }

    /// Turns sides between triangles over, from a triangle on, where that makes the smallest angle larger.
    fn flip(&mut self, first: usize, sides: &[(usize, usize)]) {
        // A vertex of a bridge has one number only, so that triangles on both of its hands know one another.
        let key = |a: usize, b: usize| (a.min(b), a.max(b));
        let fixed: std::collections::HashSet<(usize, usize)> =
            sides.iter().map(|(a, b)| key(*a, *b)).collect();
        let mut owners: HashMap<(usize, usize), Vec<usize>> = HashMap::new();
        for (number, corners) in self.corners.iter().enumerate().skip(first) {
            for i in 0..3 {
                owners.entry(key(corners[i], corners[(i + 1) % 3])).or_default().push(number);
            }
        }
        let mut open: Vec<(usize, usize)> =
            owners.keys().copied().filter(|side| !fixed.contains(side)).collect();
        open.sort_unstable();
        let mut left = 20 * open.len() + 100;
        while let Some((a, b)) = open.pop() {
            left = left.saturating_sub(1);
            if left == 0 || exhausted(20) {
                return;
            }
            let Some(&[one, other]) = owners.get(&(a, b)).map(Vec::as_slice) else { continue };
            let beyond = |t: usize| {
                self.corners.get(t).and_then(|corners| corners.iter().copied().find(|c| *c != a && *c != b))
            };
            let (Some(c), Some(d)) = (beyond(one), beyond(other)) else { continue };
            if c == d || !self.is_better(a, b, c, d) {
                continue;
            }
            let ordered = |x: usize, y: usize, z: usize| {
                if turn(self.at(x), self.at(y), self.at(z)) > 0.0 { [x, y, z] } else { [x, z, y] }
            };
            let (p, q) = (ordered(c, d, a), ordered(c, d, b));
            self.corners[one] = p;
            self.corners[other] = q;
            owners.remove(&(a, b));
            owners.insert(key(c, d), vec![one, other]);
            let mut moved = |side: (usize, usize), from: usize, to: usize| {
                for owner in owners.get_mut(&side).into_iter().flatten() {
                    if *owner == from {
                        *owner = to;
                    }
                }
            };
            // `one` is now c, d, a and `other` c, d, b.
            moved(key(b, c), one, other);
            moved(key(a, d), other, one);
            open.extend(
                [key(a, c), key(a, d), key(b, c), key(b, d)].into_iter().filter(|side| !fixed.contains(side)),
            );
        }
    }

    /// Whether the four corners are better cut from c to d than from a to b: they stand round in a convex line, and the circle through one
    /// triangle holds the other's corner.
    fn is_better(&self, a: usize, b: usize, c: usize, d: usize) -> bool {
        let (a, b, c, d) = (self.at(a), self.at(b), self.at(c), self.at(d));
        let convex = turn(c, d, a) * turn(c, d, b) < 0.0 && turn(a, b, c) * turn(a, b, d) < 0.0;
        let angle =
            |at: Point, p: Point, q: Point| (p - at).perp_dot(q - at).abs().atan2((p - at).dot(q - at));
        convex && angle(c, a, b) + angle(d, a, b) > std::f64::consts::PI + 1e-9
    }
}

fn closed_pairs(line: &[usize]) -> Vec<(usize, usize)> {
    line.iter().copied().zip(line.iter().copied().cycle().skip(1)).collect()
}

/// Twice the area of a triangle, positive when it turns clockwise as seen.
fn turn(a: Point, b: Point, c: Point) -> f64 {
    (b - a).perp_dot(c - a)
}

/// Whether two sides cross, in their middles; those that share an end do not.
fn cross(a: Point, b: Point, c: Point, d: Point) -> bool {
    if a == c || a == d || b == c || b == d {
        return false;
    }
    turn(a, b, c) * turn(a, b, d) < 0.0 && turn(c, d, a) * turn(c, d, b) < 0.0
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::prelude::*;

    fn area_of(triangles: &Triangles) -> f64 {
        let of = |t: &[usize; 3]| {
            turn(triangles.points[t[0]], triangles.points[t[1]], triangles.points[t[2]]) * 0.5
        };
        assert!(triangles.corners.iter().all(|t| of(t) > 0.0));
        triangles.corners.iter().map(of).sum()
    }

    #[test]
    fn triangles_cover_the_area_once() {
        let square = rectangle((0.0, 0.0), 40.0, 30.0);
        let shapes = [
            square.clone(),
            star(pt(0.0, 0.0), 9, 40.0, 12.0),
            square.with_hole(circle((20.0, 15.0), 8.0)),
            square.with_hole(circle((10.0, 15.0), 6.0)).with_hole(rectangle((22.0, 5.0), 9.0, 20.0)),
            ring((0.0, 0.0), 40.0, 30.0).and(&circle((0.0, 0.0), 9.0)),
            star_polygon(pt(0.0, 0.0), 7, 3, 40.0),
            gear(pt(0.0, 0.0), 12, 40.0, 30.0).with_hole(star(pt(0.0, 0.0), 5, 20.0, 9.0)),
        ];
        for shape in shapes {
            let triangles = Triangles::of(&shape, 0.05);
            let want = shape.flattened(0.05).area().unwrap();
            let given = area_of(&triangles);
            assert!((given - want).abs() < 1e-6 * want, "{given} {want}");
            for t in &triangles.corners {
                let middle = t.iter().map(|at| triangles.points[*at]).sum::<Point>() / 3.0;
                assert!(shape.flattened(0.05).inside(middle));
            }
        }
    }

    /// No corner lies in the circle through a triangle on the other hand of one of its free sides.
    #[test]
    fn free_sides_are_the_better_ones() {
        let shape = star(pt(0.0, 0.0), 12, 40.0, 25.0);
        let triangles = Triangles::of(&shape, 0.1);
        for (i, a) in triangles.corners.iter().enumerate() {
            for b in &triangles.corners[i + 1..] {
                let shared: Vec<usize> = a.iter().copied().filter(|c| b.contains(c)).collect();
                if let [p, q] = shared[..] {
                    let other = |t: &[usize; 3]| t.iter().copied().find(|c| *c != p && *c != q).unwrap();
                    assert!(!triangles.is_better(p, q, other(a), other(b)));
                }
            }
        }
    }

    #[test]
    fn nothing_has_no_triangles() {
        for nothing in [
            Path::empty(),
            Path::open([(0.0, 0.0), (9.0, 0.0)]),
            Path::closed([(0.0, 0.0), (9.0, 0.0), (4.0, 0.0)]),
        ] {
            assert!(Triangles::of(&nothing, 0.1).corners.is_empty());
        }
    }
}
