//! Where there is room for a label: what stands on the picture already, by place.

use std::collections::HashMap;

use crate::number::{Cell, Point};

/// The side of a cell in which obstacles are looked up, in pixels.
const CELL: f64 = 24.0;

/// Boxes that must not be covered, and spots that had better not be.
#[derive(Debug, Default)]
pub(super) struct Room {
    boxes: HashMap<(i32, i32), Vec<Cell>>,
    spots: HashMap<(i32, i32), Vec<Point>>,
}

fn cell(p: Point) -> (i32, i32) {
    ((p.x / CELL).floor() as i32, (p.y / CELL).floor() as i32)
}

fn cells(bounds: &Cell) -> impl Iterator<Item = (i32, i32)> + use<> {
    let ((left, top), (right, bottom)) = (cell(bounds.min), cell(bounds.max));
    // Nothing that belongs on a picture is larger than this many cells.
    let (right, bottom) = (right.min(left.saturating_add(400)), bottom.min(top.saturating_add(400)));
    (top..=bottom).flat_map(move |y| (left..=right).map(move |x| (x, y)))
}

impl Room {
    /// Takes a box up.
    pub(super) fn take(&mut self, bounds: Cell) {
        for at in cells(&bounds) {
            self.boxes.entry(at).or_default().push(bounds);
        }
    }

    /// Marks a spot of a line.
    pub(super) fn mark(&mut self, spot: Point) {
        self.spots.entry(cell(spot)).or_default().push(spot);
    }

    /// Whether nothing that was taken is in a box.
    pub(super) fn is_free(&self, bounds: &Cell) -> bool {
        let meets = |other: &Cell| other.min.cmplt(bounds.max).all() && bounds.min.cmplt(other.max).all();
        cells(bounds).all(|at| self.boxes.get(&at).is_none_or(|boxes| !boxes.iter().any(meets)))
    }

    /// How many marked spots are in a box.
    pub(super) fn spots_in(&self, bounds: &Cell) -> usize {
        let count = |spots: &Vec<Point>| spots.iter().filter(|spot| bounds.contains(**spot)).count();
        cells(bounds).filter_map(|at| self.spots.get(&at)).map(count).sum()
    }
}

/// A box of a size beside a spot: its middle lies in a direction, and it begins so far from the spot.
fn beside(spot: Point, size: Point, direction: Point, distance: f64) -> Cell {
    let half = size * 0.5;
    // From the middle to the rim of the box against the direction.
    let reach = (half / direction.abs()).min_element().min(half.length());
    let middle = spot + direction * (distance + reach);
    Cell { min: middle - half, max: middle + half }
}

/// The best free box for a label beside a spot, within a page: near, on the preferred side, over few lines.
pub(super) fn place(
    room: &Room,
    page: &Cell,
    spot: Point,
    size: Point,
    preferred: Point,
    nearest: f64,
) -> Option<Cell> {
    const DIRECTIONS: usize = 16;
    let mut best: Option<(f64, Cell)> = None;
    for ring in 0..5 {
        let distance = nearest + f64::from(ring) * 5.0;
        for i in 0..DIRECTIONS {
            let angle = i as f64 / DIRECTIONS as f64 * std::f64::consts::TAU;
            let direction = Point::new(angle.cos(), angle.sin());
            let bounds = beside(spot, size, direction, distance);
            if !page.contains(bounds.min) || !page.contains(bounds.max) || !room.is_free(&bounds) {
                continue;
            }
            let aside = 1.0 - direction.dot(preferred);
            let cost = f64::from(ring) * 4.0 + aside * 3.0 + room.spots_in(&bounds) as f64 * 2.5;
            if best.as_ref().is_none_or(|(least, _)| cost < *least) {
                best = Some((cost, bounds));
            }
        }
    }
    best.map(|(_, bounds)| bounds)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::number::pt;

    #[test]
    fn labels_find_free_room_and_give_up_where_there_is_none() {
        let page = Cell { min: pt(0.0, 0.0), max: pt(100.0, 100.0) };
        let mut room = Room::default();
        let (spot, size) = (pt(50.0, 50.0), pt(12.0, 9.0));
        let mut placed: Vec<Cell> = Vec::new();
        while let Some(bounds) = place(&room, &page, spot, size, pt(1.0, 0.0), 5.0) {
            assert!(!bounds.contains(spot) && page.contains(bounds.min) && page.contains(bounds.max));
            for other in &placed {
                let apart = bounds.min.cmpge(other.max).any() || other.min.cmpge(bounds.max).any();
                assert!(apart, "{bounds:?} over {other:?}");
            }
            room.take(bounds);
            placed.push(bounds);
        }
        assert!(placed.len() > 6, "{placed:?}");
        // The first one went to the preferred side.
        assert!(placed[0].min.x > 50.0);
    }
}
