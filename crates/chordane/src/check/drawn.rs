//! The items of a sheet where they stand on it.

use crate::number::Point;
use crate::path::{Affine, Bounds, Path};
use crate::sheet::{Item, Node, Sheet};

/// An item, and its path in the sheet's coordinates.
pub(super) struct Drawn<'a> {
    /// The place in the order of drawing, counted from 0.
    pub(super) number: usize,
    pub(super) item: &'a Item,
    pub(super) path: Path,
    /// Tight bounds of the line; none where there is nothing.
    pub(super) bounds: Option<Bounds>,
    /// Half the width of a visible stroke on the sheet, where it is widest.
    pub(super) half_stroke: Option<f64>,
    /// How many times as wide a visible stroke is one way as the other; 1 where it was scaled evenly.
    pub(super) stretch: f64,
    /// Whether there is a fill that can be seen.
    pub(super) filled: bool,
    /// Whether the fill hides all that lies under it.
    pub(super) opaque: bool,
}

impl Drawn<'_> {
    /// The bounds with the stroke.
    pub(super) fn painted_bounds(&self) -> Option<Bounds> {
        let bounds = self.bounds?;
        let by = Point::splat(self.half_stroke.unwrap_or(0.0));
        Some(Bounds { min: bounds.min - by, max: bounds.max + by })
    }

    /// The longer side of the bounds.
    pub(super) fn extent(&self) -> f64 {
        self.bounds.map_or(0.0, |bounds| bounds.size().max_element())
    }
}

/// All items in the order of drawing.
pub(super) fn all(sheet: &Sheet) -> Vec<Drawn<'_>> {
    let mut all = Vec::new();
    for node in sheet.nodes() {
        collect(node, &Affine::IDENTITY, 1.0, false, &mut all);
    }
    all
}

fn collect<'a>(node: &'a Node, outer: &Affine, opacity: f64, clipped: bool, all: &mut Vec<Drawn<'a>>) {
    match node {
        Node::Group(group) => {
            let inner = *outer * *group.transform();
            let opacity = opacity * group.opacity;
            let clipped = clipped || group.clip_path().is_some();
            group.nodes().iter().for_each(|node| collect(node, &inner, opacity, clipped, all));
        }
        Node::Item(item) => {
            let by = *outer * *item.transform();
            let path = item.path().transformed(&by);
            let style = item.style();
            let seen = opacity * style.opacity;
            let visible = |alpha: f32| f64::from(alpha) * seen > 0.0;
            let fill = style.fill_colour().filter(|colour| visible(colour.alpha));
            let stroke =
                style.stroke_colour().filter(|colour| visible(colour.alpha) && style.outline().width > 0.0);
            let widest = by.matrix2.x_axis.length().max(by.matrix2.y_axis.length());
            all.push(Drawn {
                number: all.len(),
                item,
                bounds: path.bounds(),
                path,
                stretch: stroke.map_or(1.0, |_| stretch(&by)),
                half_stroke: stroke.map(|_| 0.5 * style.outline().width * widest),
                filled: fill.is_some(),
                // What is clipped may be cut off where it would hide something.
                opaque: !clipped && fill.is_some_and(|colour| f64::from(colour.alpha) * seen >= 1.0),
            });
        }
    }
}

/// The ratio of the longest to the shortest image of a unit step: that of the singular values of the map.
fn stretch(by: &Affine) -> f64 {
    let (a, b) = (by.matrix2.x_axis, by.matrix2.y_axis);
    let (even, turned) =
        (Point::new(a.x + b.y, a.y - b.x).length(), Point::new(a.x - b.y, a.y + b.x).length());
    let (most, least) = (even + turned, (even - turned).abs());
    if least > 0.0 { most / least } else { 1.0 }
}
