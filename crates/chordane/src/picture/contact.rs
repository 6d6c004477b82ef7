//! Contact sheets: many small pictures side by side, each with a caption.

use crate::ground::threads;
use crate::number::{Cell, Point, deg};
use crate::path::{Affine, by};
use crate::reshape::{Cap, Join};
use crate::scene::{Coordinates, Scene};
use crate::shape::{lettering, lettering_width, rectangle};
use crate::sheet::{Effect, Group, Item, Sheet, group, sheet};
use crate::sheet::{Layered, Styled};

/// The width that a contact sheet is made for, in pixels, where its pictures are not smaller.
const WIDTH: f64 = 1280.0;

/// It is wider where columns would be narrower than this.
const MIN_COLUMN_WIDTH: f64 = 40.0;

/// It is no higher than this, as far as captions leave room.
const MAX_HEIGHT: f64 = 16_000.0;

/// Sizes in pixels.
const GAP: f64 = 14.0;
const CAPTION: f64 = 10.0;
const MIN_CAPTION_HEIGHT: f64 = 5.0;
const AXIS_LABEL_MARGIN: f64 = 22.0;

/// No caption has more characters than this.
const MAX_CAPTION_CHARS: usize = 1000;

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
        framed.placement.fault.take_from(&self.fault);
        if let Some(ground) = &self.ground {
            framed = framed.add(frame.clone().fill(ground));
        }
        let drawing = group().add_all(self.nodes.iter().cloned()).transformed(&self.upright());
        if !self.stays_within(&Cell { min: corner, max: corner + self.size }) {
            framed = framed.clipped(frame);
        }
        framed.add(drawing).transformed(&Affine::from_translation(-corner))
    }

    /// Whether nothing that is drawn reaches over a frame, as far as control points, mitres and effects tell: a clip costs time.
    fn stays_within(&self, frame: &Cell) -> bool {
        let scene = Scene::of(&self.nodes, &self.upright());
        let reach = scene.reach(scene.all(), Coordinates::List, Effect::reach_of_all);
        reach.is_none_or(|reach| frame.contains(reach.min) && frame.contains(reach.max))
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
/// assert_eq!(all.size.x, 356.0);
/// ```
#[must_use]
pub fn contact_sheet(tiles: &[(String, Sheet)], columns: usize, axes: Option<&ContactAxes>) -> Sheet {
    let sizes: Vec<Point> = tiles.iter().map(|(_, tile)| ContactLayout::pixels(tile)).collect();
    let layout = ContactLayout::new(&sizes, columns, axes);
    let groups: Vec<Option<Group>> =
        threads::map(0..tiles.len(), 1, |i| tiles.get(i).and_then(|(_, tile)| layout.tile(i, tile)));
    let mut all = layout.blank();
    for (i, ((caption, _), group)) in tiles.iter().zip(groups).enumerate() {
        let Some(group) = group else { continue };
        all = all.add(group).add_all(layout.rim(i, caption));
    }
    all.add_all(axes.map(|axes| layout.labels(axes)).unwrap_or_default())
}

/// Where the pictures of a contact sheet go; see [`contact_sheet`]. With it they can be drawn one after the other, so that never
/// more than a few are held.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::picture::ContactLayout;
/// let kite = |r: f64| sheet(100.0, 80.0).centred().add(polygon((0.0, 0.0), 4, r).fill("teal"));
/// let layout = ContactLayout::new(&[pt(100.0, 80.0); 3], 3, None);
/// let mut pixels = layout.blank().pixels()?;
/// for (i, radius) in [10.0, 20.0, 30.0].into_iter().enumerate() {
///     let tile = layout.tile(i, &kite(radius)).ok_or("no place")?;
///     pixels.draw(&layout.clear().add(tile).add_all(layout.rim(i, "a kite")))?;
/// }
/// assert_eq!(pixels.width(), 356);
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[derive(Clone, Debug)]
pub struct ContactLayout {
    size: Point,
    scale: f64,
    columns: usize,
    /// The room left and above for the names of rows and columns.
    rims: Point,
    /// Where each column begins, and how wide it is; where each row begins, and how high it is: in pixels of the contact sheet.
    across: Vec<(f64, f64)>,
    down: Vec<(f64, f64)>,
    /// The size of each picture there.
    shown: Vec<Point>,
}

impl ContactLayout {
    /// A layout of pictures of these sizes in pixels.
    #[must_use]
    pub fn new(sizes: &[Point], columns: usize, axes: Option<&ContactAxes>) -> Self {
        let columns = columns.clamp(1, sizes.len().max(1));
        let rows = sizes.len().div_ceil(columns);
        let widest =
            |column: usize| sizes.iter().skip(column).step_by(columns).map(|size| size.x).fold(0.0, f64::max);
        let widths: Vec<f64> = (0..columns).map(widest).collect();
        let heights: Vec<f64> =
            sizes.chunks(columns).map(|row| row.iter().map(|size| size.y).fold(0.0, f64::max)).collect();
        let named = |labels: &[String]| if labels.is_empty() { 0.0 } else { AXIS_LABEL_MARGIN };
        let rims = axes.map_or(Point::ZERO, |axes| Point::new(named(&axes.down.1), named(&axes.across.1)));
        let gaps = GAP * (columns + 1) as f64 + rims.x;
        let wide = WIDTH.max(gaps + MIN_COLUMN_WIDTH * columns as f64);
        let caption_room = CAPTION + GAP;
        let fixed = rims.y + GAP + caption_room * rows as f64;
        let fitting = ((wide - gaps) / widths.iter().sum::<f64>())
            .min((MAX_HEIGHT - fixed) / heights.iter().sum::<f64>());
        let scale = if fitting.is_nan() { 1.0 } else { fitting.clamp(1e-6, 1.0) };
        let places = |sizes: &[f64], first: f64, between: f64| -> Vec<(f64, f64)> {
            let place = |at: &mut f64, size: &f64| {
                let here = *at;
                *at += size * scale + between;
                Some((here, size * scale))
            };
            sizes.iter().scan(first, place).collect()
        };
        let size = Point::new(
            gaps + scale * widths.iter().sum::<f64>(),
            fixed + scale * heights.iter().sum::<f64>(),
        );
        Self {
            size: size.round().max(Point::ONE),
            scale,
            columns,
            rims,
            across: places(&widths, rims.x + GAP, GAP),
            down: places(&heights, rims.y + GAP, caption_room),
            shown: sizes.iter().map(|size| *size * scale).collect(),
        }
    }

    /// The size of a sheet in pixels, as [`ContactLayout::new`] takes it.
    #[must_use]
    pub fn pixels(of: &Sheet) -> Point {
        of.size * of.unit.pixels()
    }

    /// The contact sheet without a picture.
    #[must_use]
    pub fn blank(&self) -> Sheet {
        self.clear().ground(PAPER)
    }

    /// The same without its ground, to be drawn over what is there.
    #[must_use]
    pub fn clear(&self) -> Sheet {
        sheet(self.size.x, self.size.y)
    }

    fn corner(&self, number: usize) -> Option<Point> {
        let (across, down) = (number % self.columns, number / self.columns);
        Some(Point::new(self.across.get(across)?.0, self.down.get(down)?.0))
    }

    /// A picture in its place, counted from 0 row by row; `None` where there is no such place.
    #[must_use]
    pub fn tile(&self, number: usize, of: &Sheet) -> Option<Group> {
        let scale = Affine::from_scale(Point::splat(self.scale * of.unit.pixels()));
        let to_place = Affine::from_translation(self.corner(number)?) * scale;
        Some(of.to_group().transformed(&to_place))
    }

    /// The rim round a picture, and its caption.
    #[must_use]
    pub fn rim(&self, number: usize, caption: &str) -> Vec<Item> {
        let place =
            self.corner(number).zip(self.shown.get(number)).zip(self.across.get(number % self.columns));
        let Some(((corner, shown), (_, room))) = place else { return Vec::new() };
        let below = corner + Point::new(0.0, shown.y + 5.0 + CAPTION);
        vec![
            rectangle(corner, shown.x, shown.y).stroke("rgb(32 48 60 / 35%)", 1.0),
            text(caption, below, CAPTION, *room),
        ]
    }

    /// The names of the columns and the rows.
    #[must_use]
    pub fn labels(&self, axes: &ContactAxes) -> Vec<Item> {
        let mut all = Vec::new();
        for (label, (x, room)) in axes.across.1.iter().zip(&self.across) {
            let label = format!("{} {label}", axes.across.0);
            let wide = lettering_width(&label, CAPTION).min(*room);
            all.push(text(&label, Point::new(x + 0.5 * (room - wide), self.rims.y), CAPTION, *room));
        }
        for (label, (y, room)) in axes.down.1.iter().zip(&self.down) {
            let label = format!("{} {label}", axes.down.0);
            let wide = lettering_width(&label, CAPTION).min(*room);
            let turned = by::rotation(deg(-90.0));
            let to_place =
                Affine::from_translation(Point::new(self.rims.x, y + 0.5 * (room + wide))) * turned;
            all.push(text(&label, Point::ZERO, CAPTION, *room).transformed(&to_place));
        }
        all
    }
}

/// A line of text that fits a width: smaller where it must be, and cut off where that would be too small to read.
fn text(line: &str, at: Point, height: f64, room: f64) -> Item {
    let mut line: String = line.chars().take(MAX_CAPTION_CHARS).collect();
    let fitting = height * (room / lettering_width(&line, height).max(1e-9)).min(1.0);
    let height = fitting.max(MIN_CAPTION_HEIGHT);
    while !line.is_empty() && lettering_width(&line, height) > room + 0.01 {
        line.pop();
    }
    lettering(&line, at, height).stroke(INK, height * 0.13).cap(Cap::Round).join(Join::Round)
}
