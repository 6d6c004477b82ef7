//! A tree of boxes: which of many are near a spot, or overlap another box, without looking at all of them.
//!
//! The boxes are sorted by halving them at the middle of their longer extent, and the tree over them is stored
//! without pointers: a node's children stand at twice its place.

use std::ops::{ControlFlow, Range};

use crate::ground::exhausted;
use crate::number::{Cell, Point};

/// How many boxes a leaf holds at most.
const LEAF: usize = 4;

/// Boxes by place; each is known by its number in the order in which it was given.
#[derive(Clone, Debug, Default)]
pub(crate) struct BoxTree {
    /// The box of each node; the node's children are `2 n + 1` and `2 n + 2`. Leaves are those of the last level.
    nodes: Vec<Cell>,
    /// The numbers of the boxes, leaf after leaf, and the boxes themselves in the same order: neighbours in place are
    /// neighbours in memory.
    order: Vec<u32>,
    boxes: Vec<Cell>,
    levels: u32,
}

impl BoxTree {
    /// Cost: n log n.
    pub(crate) fn new(boxes: impl IntoIterator<Item = Cell>) -> Self {
        // Each box goes with its number while they are sorted: looked up by number, they would lie all over the memory.
        let mut boxes: Vec<(Cell, u32)> = boxes.into_iter().zip(0..).collect();
        let leaves = boxes.len().div_ceil(LEAF).next_power_of_two();
        let levels = leaves.trailing_zeros();
        let mut tree = Self { nodes: Vec::new(), order: Vec::new(), boxes: Vec::new(), levels };
        if boxes.is_empty() {
            return tree;
        }
        let nothing = Cell { min: Point::INFINITY, max: Point::NEG_INFINITY };
        tree.nodes = vec![nothing; 2 * leaves - 1];
        tree.build(0, 0, &mut boxes);
        (tree.boxes, tree.order) = boxes.into_iter().unzip();
        tree
    }

    fn build(&mut self, node: usize, level: u32, boxes: &mut [(Cell, u32)]) {
        let Some(bounds) = boxes.iter().map(|(bounds, _)| *bounds).reduce(Cell::union) else { return };
        if let Some(slot) = self.nodes.get_mut(node) {
            *slot = bounds;
        }
        if level == self.levels {
            return;
        }
        let wide = bounds.size().x >= bounds.size().y;
        let middle = self.first_of(boxes.len(), level);
        let place = |(b, _): &(Cell, u32)| if wide { b.min.x + b.max.x } else { b.min.y + b.max.y };
        if middle < boxes.len() {
            boxes.select_nth_unstable_by(middle, |a, b| place(a).total_cmp(&place(b)).then(a.1.cmp(&b.1)));
        }
        let (left, right) = boxes.split_at_mut(middle);
        self.build(2 * node + 1, level + 1, left);
        self.build(2 * node + 2, level + 1, right);
    }

    /// How many of a node's boxes go to its first child: half, in whole leaves, so that leaves are full from the left.
    fn first_of(&self, count: usize, level: u32) -> usize {
        let half_leaves = 1_usize << (self.levels - level - 1);
        (half_leaves * LEAF).min(count)
    }

    /// Where the boxes of a leaf stand in the order.
    fn leaf_places(&self, node: usize) -> Range<usize> {
        let begin = (node + 1 - (1 << self.levels)) * LEAF;
        begin..(begin + LEAF).min(self.order.len())
    }

    /// The numbers and boxes of a leaf.
    fn leaf(&self, node: usize) -> impl Iterator<Item = (usize, &Cell)> {
        let numbers = self.order.get(self.leaf_places(node)).unwrap_or_default();
        let boxes = self.boxes.get(self.leaf_places(node)).unwrap_or_default();
        numbers.iter().map(|i| *i as usize).zip(boxes)
    }

    /// The numbers of the boxes, neighbours in place near one another.
    pub(crate) fn by_place(&self) -> impl Iterator<Item = usize> + '_ {
        self.order.iter().map(|i| *i as usize)
    }

    fn is_leaf(&self, node: usize) -> bool {
        node + 1 >= 1 << self.levels
    }

    /// Calls `visit` with the number of every box for which, as for each box around it, `wanted` holds, until it
    /// breaks off, or the work is stopped.
    pub(crate) fn each(
        &self,
        wanted: impl Fn(&Cell) -> bool,
        mut visit: impl FnMut(usize) -> ControlFlow<()>,
    ) -> ControlFlow<()> {
        // One node waits for each level, and there are at most 32 levels.
        let mut rest = ArrayStack::new(0);
        while let Some(node) = rest.pop() {
            let Some(bounds) = self.nodes.get(node) else { continue };
            if !wanted(bounds) {
                continue;
            }
            if exhausted(1) {
                return ControlFlow::Break(());
            }
            if self.is_leaf(node) {
                for (i, bounds) in self.leaf(node) {
                    if wanted(bounds) {
                        visit(i)?;
                    }
                }
            } else {
                rest.push(2 * node + 2);
                rest.push(2 * node + 1);
            }
        }
        ControlFlow::Continue(())
    }

    /// Calls `visit` with every two boxes that come as near as `off` to one another, each two once, until it breaks off: with
    /// their places in [`BoxTree::by_place`].
    ///
    /// Node is held against node from the top down, so that what is far from one another is told in large groups. Cost: linear,
    /// and the number of twos.
    pub(crate) fn each_two(
        &self,
        off: f64,
        mut visit: impl FnMut(usize, usize) -> ControlFlow<()>,
    ) -> ControlFlow<()> {
        let mut rest = vec![(0, 0)];
        while let Some((a, b)) = rest.pop() {
            let (Some(first), Some(second)) = (self.nodes.get(a), self.nodes.get(b)) else { continue };
            if !overlap(&first.grown(off), second) {
                continue;
            }
            if exhausted(2) {
                return ControlFlow::Break(());
            }
            // Both are always of one level, so that both are leaves or neither is.
            if self.is_leaf(a) {
                for p in self.leaf_places(a) {
                    for q in self.leaf_places(b).filter(|q| a != b || *q > p) {
                        let (Some(first), Some(second)) = (self.boxes.get(p), self.boxes.get(q)) else {
                            continue;
                        };
                        if overlap(&first.grown(off), second) {
                            visit(p, q)?;
                        }
                    }
                }
            } else if a == b {
                let (left, right) = (2 * a + 1, 2 * a + 2);
                rest.extend([(right, right), (left, right), (left, left)]);
            } else {
                let ([left, right], [left2, right2]) = ([2 * a + 1, 2 * a + 2], [2 * b + 1, 2 * b + 2]);
                rest.extend([(right, right2), (right, left2), (left, right2), (left, left2)]);
            }
        }
        ControlFlow::Continue(())
    }

    /// The box for which `distance` gives the least, which must be no less than the distance to the box itself. Of
    /// equal ones the one with the lowest number. Cost: logarithmic where boxes are small against their distances.
    pub(crate) fn nearest(
        &self,
        spot: Point,
        mut distance: impl FnMut(usize) -> f64,
    ) -> Option<(usize, f64)> {
        let mut best: Option<(usize, f64)> = None;
        let mut rest = vec![(0, 0.0)];
        let farther = |best: &Option<(usize, f64)>, to: f64| best.is_some_and(|(_, least)| to > least);
        while let Some((node, to)) = rest.pop() {
            let Some(bounds) = self.nodes.get(node).filter(|_| !farther(&best, to)) else { continue };
            if exhausted(2) {
                break;
            }
            if bounds.min.x > bounds.max.x {
                continue;
            }
            if self.is_leaf(node) {
                for (i, bounds) in self.leaf(node) {
                    if farther(&best, distance_to(bounds, spot)) {
                        continue;
                    }
                    let to = distance(i);
                    if best.is_none_or(|(j, least)| to < least || (to == least && i < j)) {
                        best = Some((i, to));
                    }
                }
                continue;
            }
            let mut children = [2 * node + 1, 2 * node + 2]
                .map(|child| (child, self.nodes.get(child).map_or(f64::INFINITY, |b| distance_to(b, spot))));
            // The nearer one is looked at first, so it goes onto the stack last.
            if children[0].1 <= children[1].1 {
                children.reverse();
            }
            rest.extend(children);
        }
        best
    }

    /// The box that is the next to the left of a spot on the level line through it: of those for which `across` gives
    /// where they stand on that line, the one farthest right that is left of the spot.
    pub(crate) fn next_left(
        &self,
        spot: Point,
        mut across: impl FnMut(usize) -> Option<f64>,
    ) -> Option<(usize, f64)> {
        let mut best: Option<(usize, f64)> = None;
        let reached = |bounds: &Cell, best: &Option<(usize, f64)>| {
            bounds.min.y <= spot.y
                && bounds.max.y >= spot.y
                && bounds.min.x <= spot.x
                && best.is_none_or(|(_, x)| bounds.max.x >= x)
        };
        let mut rest = ArrayStack::new(0);
        while let Some(node) = rest.pop() {
            let Some(_) = self.nodes.get(node).filter(|bounds| reached(bounds, &best)) else { continue };
            if exhausted(2) {
                break;
            }
            if self.is_leaf(node) {
                for (i, bounds) in self.leaf(node) {
                    if !reached(bounds, &best) {
                        continue;
                    }
                    let Some(x) = across(i).filter(|x| *x <= spot.x) else { continue };
                    if best.is_none_or(|(j, most)| x > most || (x == most && i < j)) {
                        best = Some((i, x));
                    }
                }
                continue;
            }
            let right = |child: usize| self.nodes.get(child).map_or(f64::NEG_INFINITY, |b| b.max.x);
            let (a, b) = (2 * node + 1, 2 * node + 2);
            // The one that reaches farther right is looked at first, so it goes onto the stack last.
            let (first, second) = if right(a) >= right(b) { (a, b) } else { (b, a) };
            rest.push(second);
            rest.push(first);
        }
        best
    }
}

/// A short stack that needs no memory of its own.
struct ArrayStack {
    nodes: [usize; 64],
    count: usize,
}

impl ArrayStack {
    fn new(first: usize) -> Self {
        Self { nodes: [first; 64], count: 1 }
    }

    fn push(&mut self, node: usize) {
        if let Some(slot) = self.nodes.get_mut(self.count) {
            *slot = node;
            self.count += 1;
        }
    }

    fn pop(&mut self) -> Option<usize> {
        self.count = self.count.checked_sub(1)?;
        self.nodes.get(self.count).copied()
    }
}

/// The distance from a spot to a box; zero inside it.
pub(crate) fn distance_to(bounds: &Cell, spot: Point) -> f64 {
    (bounds.min - spot).max(spot - bounds.max).max(Point::ZERO).length()
}

/// Whether two boxes have a spot in common, rims included.
pub(crate) fn overlap(a: &Cell, b: &Cell) -> bool {
    a.min.cmple(b.max).all() && b.min.cmple(a.max).all()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::number::pt;

    fn boxes(n: usize) -> Vec<Cell> {
        let place = |i: usize| pt(((i * 7919) % 1009) as f64, ((i * 104_729) % 997) as f64);
        (0..n).map(|i| Cell { min: place(i), max: place(i) + pt((i % 13) as f64, (i % 7) as f64) }).collect()
    }

    #[test]
    fn the_tree_finds_what_looking_at_all_finds() {
        for n in [0, 1, 3, 4, 5, 8, 9, 100, 1000] {
            let boxes = boxes(n);
            let tree = BoxTree::new(boxes.iter().copied());
            for probe in super::tests::boxes(40) {
                let mut found = Vec::new();
                let _ = tree.each(
                    |b| overlap(b, &probe),
                    |i| {
                        found.push(i);
                        ControlFlow::Continue(())
                    },
                );
                found.sort_unstable();
                let all: Vec<usize> = (0..n).filter(|i| overlap(&boxes[*i], &probe)).collect();
                assert_eq!(found, all);
                let near = tree.nearest(probe.min, |i| distance_to(&boxes[i], probe.min));
                let best = (0..n)
                    .map(|i| (i, distance_to(&boxes[i], probe.min)))
                    .min_by(|a, b| a.1.total_cmp(&b.1).then(a.0.cmp(&b.0)));
                assert_eq!(near, best);
            }
            let by_place: Vec<usize> = tree.by_place().collect();
            let mut found = Vec::new();
            let _ = tree.each_two(2.0, |p, q| {
                found.push((by_place[p].min(by_place[q]), by_place[p].max(by_place[q])));
                ControlFlow::Continue(())
            });
            found.sort_unstable();
            let twos = (0..n).flat_map(|i| (i + 1..n).map(move |j| (i, j)));
            let all: Vec<_> = twos.filter(|(i, j)| overlap(&boxes[*i].grown(2.0), &boxes[*j])).collect();
            assert_eq!(found, all);
        }
    }
}
