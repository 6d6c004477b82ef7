//! Contact sheets: many small pictures side by side, each with a caption.

use crate::ground::threads;
use crate::number::{Cell, Point, deg};
use crate::path::{Affine, by};
use crate::reshape::{Cap, Join};
use crate::scene::{Placed, Scene};
use crate::shape::{lettering, lettering_width, rectangle};
use crate::sheet::{Group, Item, Sheet, group, sheet};

/// The width that a contact sheet is made for, in pixels, where its pictures are not smaller.
const WIDTH: f64 = 1280.0;

/// It is wider where columns would be narrower than this.
const LEAST_COLUMN: f64 = 40.0;

/// Sizes in pixels.
const GAP: f64 = 14.0;
const CAPTION: f64 = 10.0;
const LEAST_CAPTION: f64 = 5.0;
const RIM: f64 = 22.0;

const INK: &str = "#20303c";
const PAPER: &str = "#fbf8f1";

/// What the columns and the rows of a contact sheet stand for: a name, and a label for each.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::picture::ContactAxes;
/// let across = ("sag".to_owned(), vec!["0".to_owned(), "1".to_owned()]);
/// let axes = ContactAxes { across, ..ContactAxes::default() };
/// assert_eq!(axes.across.1.len(), 2);
/// ```
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct ContactAxes {
    /// The name of what changes across, and its value in each column.
    pub across: (String, Vec<String>),
    /// The name of what changes down, and its value in each row.
    pub down: (String, Vec<String>),
}

impl Sheet {
    /// The sheet's drawing as a group, its ground and its rim included: the origin is the sheet's top left corner, y runs
    /// down, and what reaches over the rim is cut off.
    #[must_use]
    pub fn to_group(&self) -> Group {
        let corner = self.corner();
        let frame = rectangle(corner, self.size.x, self.size.y);
        let mut framed = group();
        framed.fault.take_from(&self.fault);
        if let Some(ground) = &self.ground {
            framed = framed.add(frame.clone().fill(ground));
        }
        let drawing = group().add_all(self.nodes.iter().cloned()).transformed(&self.upright());
        if !self.stays_within(&Cell { min: corner, max: corner + self.size }) {
            framed = framed.clipped(frame);
        }
        framed.add(drawing).transformed(&Affine::from_translation(-corner))
    }

    /// Whether nothing that is drawn reaches over a frame, as far as control points and mitres tell: a clip costs time.
    fn stays_within(&self, frame: &Cell) -> bool {
        let scene = Scene::of(&self.nodes, &self.upright());
        let within = |bounds: Cell| frame.contains(bounds.min) && frame.contains(bounds.max);
        scene.items().iter().filter_map(Placed::reach).all(within)
    }
}

/// Many sheets on one, row by row in `columns` columns, each with a caption under it; drawn at one common scale, so that
/// sheets of different sizes can be compared. The axes name the columns and the rows, where there are such.
///
/// The contact sheet is 1280 pixels wide, less where the pictures at their full size need less, and more where a column
/// would get less than 40 pixels. No columns count as one; without a picture it is an empty sheet. The first fault of a
/// sheet is a fault of the whole.
///
/// ```
/// use chordane::prelude::*;
/// let kite = |r: f64| sheet(100.0, 80.0).centred().add(polygon((0.0, 0.0), 4, r).fill("teal"));
/// let tiles = [10.0, 20.0, 30.0].map(|r| (format!("radius {r}"), kite(r)));
/// let all = contact_sheet(&tiles, 3, None);
/// assert_eq!(all.size().x, 356.0);
/// ```
#[must_use]
pub fn contact_sheet(tiles: &[(String, Sheet)], columns: usize, axes: Option<&ContactAxes>) -> Sheet {
    let columns = columns.clamp(1, tiles.len().max(1));
    let rows = tiles.len().div_ceil(columns);
    let pixels = |tile: &(String, Sheet)| tile.1.size * tile.1.unit.pixels();
    let widest = |column: usize| {
        tiles.iter().skip(column).step_by(columns).map(|tile| pixels(tile).x).fold(0.0, f64::max)
    };
    let widths: Vec<f64> = (0..columns).map(widest).collect();
    let heights: Vec<f64> =
        tiles.chunks(columns).map(|row| row.iter().map(|tile| pixels(tile).y).fold(0.0, f64::max)).collect();
    let (left, top) = match axes {
        Some(axes) => {
            (if axes.down.1.is_empty() { 0.0 } else { RIM }, if axes.across.1.is_empty() { 0.0 } else { RIM })
        }
        None => (0.0, 0.0),
    };
    let gaps = GAP * (columns + 1) as f64 + left;
    let wide = WIDTH.max(gaps + LEAST_COLUMN * columns as f64);
    let scale = ((wide - gaps) / widths.iter().sum::<f64>()).clamp(1e-6, 1.0);
    let caption_room = CAPTION + GAP;
    let starts = |sizes: &[f64], first: f64, between: f64| -> Vec<f64> {
        let place = |at: &mut f64, size: &f64| {
            let here = *at;
            *at += size * scale + between;
            Some(here)
        };
        sizes.iter().scan(first, place).collect()
    };
    let lefts = starts(&widths, left + GAP, GAP);
    let tops = starts(&heights, top + GAP, caption_room);
    let size = Point::new(
        gaps + scale * widths.iter().sum::<f64>(),
        top + GAP + scale * heights.iter().sum::<f64>() + caption_room * rows as f64,
    )
    .round()
    .max(Point::ONE);
    let mut all = sheet(size.x, size.y).ground(PAPER);
    let groups: Vec<Option<Group>> =
        threads::map(0..tiles.len(), 1, |i| tiles.get(i).map(|tile| tile.1.to_group()));
    for (i, (tile, group)) in tiles.iter().zip(groups.into_iter().flatten()).enumerate() {
        let (column, row) = (i % columns, i / columns);
        let (Some(x), Some(y)) = (lefts.get(column), tops.get(row)) else { continue };
        let corner = Point::new(*x, *y);
        let shown = pixels(tile) * scale;
        let to_place =
            Affine::from_translation(corner) * Affine::from_scale(Point::splat(scale * tile.1.unit.pixels()));
        all = all.add(group.transformed(&to_place));
        all = all.add(rectangle(corner, shown.x, shown.y).stroke("rgb(32 48 60 / 35%)", 1.0));
        let room = widths.get(column).map_or(shown.x, |width| width * scale);
        let below = corner + Point::new(0.0, shown.y + 5.0 + CAPTION);
        all = all.add(text(&tile.0, below, CAPTION, room));
    }
    if let Some(axes) = axes {
        for ((label, x), width) in axes.across.1.iter().zip(&lefts).zip(&widths) {
            let label = format!("{} {label}", axes.across.0);
            let room = width * scale;
            let wide = lettering_width(&label, CAPTION).min(room);
            all = all.add(text(&label, Point::new(x + 0.5 * (room - wide), top), CAPTION, room));
        }
        for ((label, y), height) in axes.down.1.iter().zip(&tops).zip(&heights) {
            let label = format!("{} {label}", axes.down.0);
            let room = height * scale;
            let wide = lettering_width(&label, CAPTION).min(room);
            let turned = by::rotation(deg(-90.0));
            let to_place = Affine::from_translation(Point::new(left, y + 0.5 * (room + wide))) * turned;
            all = all.add(text(&label, Point::ZERO, CAPTION, room).transformed(&to_place));
        }
    }
    all
}

/// A line of text that fits a width: smaller where it must be, and cut off where that would be too small to read.
fn text(line: &str, at: Point, height: f64, room: f64) -> Item {
    let fitting = height * (room / lettering_width(line, height).max(1e-9)).min(1.0);
    let height = fitting.max(LEAST_CAPTION);
    let mut line = line.to_owned();
    while !line.is_empty() && lettering_width(&line, height) > room + 0.01 {
        line.pop();
    }
    lettering(&line, at, height).stroke(INK, height * 0.13).cap(Cap::Round).join(Join::Round)
}

#[cfg(test)]
mod tests {
    use crate::picture::ContactAxes;
    use crate::prelude::*;

    #[test]
    fn tiles_of_any_size_and_number() {
        let one = |w: f64, h: f64| {
            (format!("{w}x{h}"), sheet(w, h).ground("teal").add(circle((0.0, 0.0), 500.0).fill("gold")))
        };
        assert_eq!(contact_sheet(&[], 4, None).size().x, 28.0);
        let faulty = ("no cloth".to_owned(), sheet(9.0, 9.0).ground("tael"));
        assert_eq!(contact_sheet(&[faulty], 1, None).sound().unwrap_err().call(), "ground");
        let many: Vec<_> = (0..100).map(|_| one(320.0, 200.0)).collect();
        assert_eq!(contact_sheet(&many, 100, None).size().x, 101.0 * 14.0 + 100.0 * 40.0);
        let sizes = [one(320.0, 200.0), one(1280.0, 200.0), one(200.0, 600.0)];
        let all = contact_sheet(&sizes, 3, None);
        assert_eq!(all.size().x, 1280.0);
        // What reaches over a tile's rim does not reach into the next.
        let pixels = all.pixels_with(&PixelOptions::default()).unwrap();
        assert_eq!(pixels.at(7, 100), Some([251, 248, 241, 255]));
        assert_eq!(contact_sheet(&sizes, 0, None).size().x, contact_sheet(&sizes, 1, None).size().x);
        let axes = ContactAxes {
            across: ("sag".to_owned(), vec!["0".to_owned(), "1".to_owned()]),
            down: ("tail".to_owned(), vec!["bows".to_owned(), "plain".to_owned()]),
        };
        let four = [one(10.0, 10.0), one(10.0, 10.0), one(10.0, 10.0), one(10.0, 10.0)];
        let grid = contact_sheet(&four, 2, Some(&axes));
        assert!(grid.svg().is_ok() && grid.nodes().len() == 16);
    }
}
