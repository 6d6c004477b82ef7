//! What lies under a spot.

use std::ops::ControlFlow;
use std::sync::OnceLock;

use super::list::Scene;
use super::placed::{Address, Placed};
use crate::measure::{BoxTree, Place};
use crate::number::{IntoPoint, Point};
use crate::path::{Affine, Path};
use crate::sheet::Sheet;

/// A stroke's edge is known to this share of its width when it is asked what lies under a spot.
const STROKE_TOLERANCE: f64 = 1e-3;

/// What of an item lies under a spot.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::scene::HitPart;
/// let page = sheet(100.0, 80.0).add(group().opacity(0.5).add(circle((50.0, 40.0), 20.0).fill("teal").stroke("navy", 4.0).named("vent")));
/// let part = |x: f64| page.item_at((x, 40.0)).map(|hit| hit.part);
/// assert_eq!((part(50.0), part(71.0), part(90.0)), (Some(HitPart::Fill), Some(HitPart::Stroke), None));
/// ```
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
#[non_exhaustive]
pub enum HitPart {
    /// The inside, which is filled.
    Fill,
    /// The line, which is stroked.
    Stroke,
    /// Nothing that is painted, but the line is within reach.
    Near,
}

/// An item that lies under a spot.
///
/// ```
/// use chordane::prelude::*;
/// let page = sheet(100.0, 80.0).add(group().opacity(0.5).add(circle((50.0, 40.0), 20.0).fill("teal").stroke("navy", 4.0).named("vent")));
/// let hit = page.item_at((71.0, 40.0)).ok_or("nothing lies there")?;
/// assert_eq!((hit.placed.item.name(), hit.point), (Some("vent"), pt(70.0, 40.0)));
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[derive(Clone, Debug)]
#[non_exhaustive]
pub struct Hit<'a> {
    /// The item where it stands.
    pub placed: Placed<'a>,
    /// The part of it that lies under the spot; where that is the stroke over the fill, the stroke.
    pub part: HitPart,
    /// The place on the path that is nearest to the spot: its contour, its segment and the parameter on that.
    pub place: Place,
    /// That place in the sheet's coordinates.
    pub point: Point,
    /// The distance of the spot from it, in sheet units.
    pub distance: f64,
}

impl<'a> Hit<'a> {
    /// The item's number and the place on its path that is nearest to the spot.
    #[must_use]
    pub fn address(&self) -> Address {
        Address { item: self.placed.number, place: Some(self.place) }
    }
}

/// What lies under a spot, topmost first; see [`Sheet::items_at`]. It can be gone through as an iterator.
///
/// ```
/// use chordane::prelude::*;
/// let page = sheet(100.0, 80.0).add(group().opacity(0.5).add(circle((50.0, 40.0), 20.0).fill("teal").stroke("navy", 4.0).named("vent")));
/// assert_eq!(page.items_at((75.0, 40.0)).count(), 0);
/// assert_eq!(page.items_at((75.0, 40.0)).reach(6.0).count(), 1);
/// ```
#[derive(Debug)]
pub struct Hits<'a> {
    scene: Scene<'a>,
    spot: Point,
    reach: f64,
    /// How many items, from the first one drawn on, are still to be looked at.
    left: usize,
}

impl<'a> Hits<'a> {
    /// Lines that are no farther from the spot than this count too, in sheet units, whether they are painted or not. 0 at
    /// first; what is not a number above 0 counts as 0.
    #[must_use]
    pub fn reach(mut self, reach: f64) -> Self {
        self.reach = reach.max(0.0);
        self
    }
}

impl<'a> Iterator for Hits<'a> {
    type Item = Hit<'a>;

    fn next(&mut self) -> Option<Hit<'a>> {
        while let Some(number) = self.left.checked_sub(1) {
            self.left = number;
            let placed = *self.scene.items().get(number)?;
            let near = placed.reach().is_some_and(|bounds| bounds.grown(self.reach).contains(self.spot));
            if near && let Some(hit) = self.scene.hit(&placed, self.spot, self.reach) {
                return Some(hit);
            }
        }
        None
    }
}

impl<'a> Scene<'a> {
    /// What of an item lies under a spot, if anything does.
    fn hit(&self, placed: &Placed<'a>, spot: Point, reach: f64) -> Option<Hit<'a>> {
        let own = placed.own(spot)?;
        let within = |(clip, to_sheet): (&Path, Affine)| {
            to_sheet.matrix2.determinant() != 0.0 && clip.inside(to_sheet.inverse().transform_point2(spot))
        };
        if !self.clips(placed).all(within) {
            return None;
        }
        let (place, point) = nearest(&placed.item.path, placed.transform, spot)?;
        let distance = point.distance(spot);
        let line = &placed.item.style.line;
        let part = if placed.stroke().is_some()
            && placed.item.path.stroke_chords(line, STROKE_TOLERANCE * line.width).winding(own) != 0
        {
            HitPart::Stroke
        } else if placed.fill().is_some() && placed.item.path.inside(own) {
            HitPart::Fill
        } else if distance <= reach && reach > 0.0 {
            HitPart::Near
        } else {
            return None;
        };
        Some(Hit { placed: *placed, part, place, point, distance })
    }

    /// An index of the items by place, for many questions about one scene.
    #[must_use]
    pub fn index(&self) -> Index<'_, 'a> {
        Index { scene: self, tree: OnceLock::new() }
    }
}

/// The items of a scene by place: asked many times what lies under a spot, it looks only at what is near. The boxes are
/// sorted when it is first asked.
///
/// ```
/// use chordane::prelude::*;
/// let page = sheet(100.0, 80.0).add(group().opacity(0.5).add(circle((50.0, 40.0), 20.0).fill("teal").stroke("navy", 4.0).named("vent")));
/// let scene = page.scene()?;
/// let index = scene.index();
/// assert_eq!(index.items_at((50.0, 40.0), 0.0).len(), 1);
/// # Ok::<(), Fault>(())
/// ```
#[derive(Debug)]
pub struct Index<'s, 'a> {
    scene: &'s Scene<'a>,
    tree: OnceLock<(BoxTree, Vec<usize>)>,
}

impl<'a> Index<'_, 'a> {
    /// What lies under a spot, topmost first, lines within reach too; as [`Sheet::items_at`]. Cost: n log n for the first
    /// question, and after it by what is near.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let dots = (0..1000).map(|i| circle((f64::from(i) * 10.0, 0.0), 4.0).fill("teal"));
    /// let page = sheet(10_000.0, 20.0).add_all(dots);
    /// let scene = page.scene()?;
    /// let index = scene.index();
    /// assert_eq!(index.items_at((521.0, 1.0), 0.0)[0].placed.number, 52);
    /// # Ok::<(), Fault>(())
    /// ```
    #[must_use]
    pub fn items_at(&self, spot: impl IntoPoint, reach: f64) -> Vec<Hit<'a>> {
        let (spot, reach) = (spot.into_point(), reach.max(0.0));
        let (tree, numbers) = self.tree.get_or_init(|| {
            let sized = self.scene.items().iter().filter_map(|placed| Some((placed.reach()?, placed.number)));
            let (boxes, numbers): (Vec<_>, Vec<_>) = sized.unzip();
            (BoxTree::new(boxes), numbers)
        });
        let mut near: Vec<usize> = Vec::new();
        let _ = tree.each(
            |bounds| bounds.grown(reach).contains(spot),
            |i| {
                near.extend(numbers.get(i));
                ControlFlow::Continue(())
            },
        );
        near.sort_unstable_by(|a, b| b.cmp(a));
        let items = near.into_iter().filter_map(|number| self.scene.items().get(number));
        items.filter_map(|placed| self.scene.hit(placed, spot, reach)).collect()
    }
}

/// The place of a path, seen through a transform, that is nearest to a spot, and where that is.
fn nearest(path: &Path, to_sheet: Affine, spot: Point) -> Option<(Place, Point)> {
    let mut best: Option<(f64, Place, Point)> = None;
    for (contour, one) in path.contours().iter().enumerate() {
        for (segment, piece) in one.segments().enumerate() {
            let piece = piece.transformed(&to_sheet);
            if best.is_some_and(|(least, ..)| crate::measure::distance_to(&piece.bounds(), spot) > least) {
                continue;
            }
            let parameter = piece.nearest(spot);
            let point = piece.at(parameter);
            let distance = point.distance(spot);
            if best.is_none_or(|(least, ..)| distance < least) {
                best = Some((distance, Place { contour, segment, parameter }, point));
            }
        }
        if one.vertex_count() == 1 {
            let point = to_sheet.transform_point2(one.start());
            let distance = point.distance(spot);
            if best.is_none_or(|(least, ..)| distance < least) {
                best = Some((distance, Place { contour, segment: 0, parameter: 0.0 }, point));
            }
        }
    }
    best.map(|(_, place, point)| (place, point))
}

impl Sheet {
    /// The topmost item under a spot, in the coordinates of what is added to the sheet; `None` where nothing is painted
    /// there. Fill and stroke count as they are painted: with the fill rule, caps, joins and dashes, within all clips.
    ///
    /// Cost: linear in the items, and in the segments of those that are near. For many questions about one sheet see
    /// [`Scene::index`].
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let page = sheet(90.0, 90.0)
    ///     .add(rectangle((0.0, 0.0), 80.0, 80.0).fill("gold").named("cloth"))
    ///     .add(circle((40.0, 40.0), 20.0).stroke("teal", 4.0).named("hoop"));
    /// let name = |x, y| page.item_at((x, y)).and_then(|hit| hit.placed.item.name());
    /// assert_eq!((name(40.0, 40.0), name(59.0, 40.0), name(85.0, 40.0)), (Some("cloth"), Some("hoop"), None));
    /// ```
    #[must_use]
    pub fn item_at(&self, spot: impl IntoPoint) -> Option<Hit<'_>> {
        self.items_at(spot).next()
    }

    /// All items under a spot, topmost first; as [`Sheet::item_at`]. With [`Hits::reach`], lines near by count too.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// use chordane::scene::HitPart;
    /// let page = sheet(90.0, 90.0).add(Path::open([(10.0, 10.0), (80.0, 10.0)]).stroke("teal", 1.0));
    /// assert_eq!(page.items_at((45.0, 13.0)).count(), 0);
    /// let near = page.items_at((45.0, 13.0)).reach(5.0).next().unwrap();
    /// assert_eq!((near.part, near.point, near.distance), (HitPart::Near, pt(45.0, 10.0), 3.0));
    /// ```
    pub fn items_at(&self, spot: impl IntoPoint) -> Hits<'_> {
        let scene = Scene::of(&self.nodes, &Affine::IDENTITY);
        Hits { left: scene.items().len(), scene, spot: spot.into_point(), reach: 0.0 }
    }
}
