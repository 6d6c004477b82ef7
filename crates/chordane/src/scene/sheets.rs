//! What is asked of a sheet as a whole, answered from its display list.

use super::list::Scene;
use super::placed::Placed;
use crate::ground::{Fault, limited};
use crate::number::Cell;
use crate::path::{Affine, Contour};
use crate::reshape::is_too_fine;
use crate::sheet::{Item, Node, Sheet};

impl Node {
    /// The bounds of the lines of all items, where they stand; `None` where there is no line.
    #[must_use]
    pub fn bounds(&self) -> Option<Cell> {
        Scene::of(std::slice::from_ref(self), &Affine::IDENTITY).line_bounds()
    }
}

impl Sheet {
    /// The display list of the sheet, in the coordinates of what is added to it. Cost: linear in what there is, without looking at
    /// segments.
    ///
    /// # Errors
    ///
    /// The first fault of the sheet, then of what is on it, in the order of drawing, with the item's name and line.
    pub fn scene(&self) -> Result<Scene<'_>, Fault> {
        self.seen_through(&Affine::IDENTITY)
    }

    /// The display list under a transform.
    pub(crate) fn seen_through(&self, outer: &Affine) -> Result<Scene<'_>, Fault> {
        self.header_fault().sound()?;
        limited("scene", || Scene::of(&self.nodes, outer))?.sound()
    }

    /// The items in the order of drawing, each where it stands. Faulty ones are among them; see [`Sheet::sound`].
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let page = sheet(90.0, 90.0).add(circle((9.0, 9.0), 5.0).fill("teal").named("vent"));
    /// let names: Vec<_> = page.items().filter_map(|placed| placed.item.name()).collect();
    /// assert_eq!(names, ["vent"]);
    /// ```
    pub fn items(&self) -> impl ExactSizeIterator<Item = Placed<'_>> {
        Scene::of(&self.nodes, &Affine::IDENTITY).items.into_iter()
    }

    /// The items with neither fill nor stroke. They are drawn as a thin draft outline, since what cannot be seen
    /// cannot be mended.
    #[must_use]
    pub fn unpainted(&self) -> Vec<&Item> {
        let bare = |item: &&Item| item.style.paints_nothing() && !item.path.is_empty();
        self.items().map(|placed| placed.item).filter(bare).collect()
    }

    /// The items whose dashes are so many, over a million on one contour, that their lines are drawn solid.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let thread = Path::open([(0.0, 0.0), (5e6, 0.0)]).stroke("teal", 1.0);
    /// let page = sheet(90.0, 60.0).add(thread.clone().dash([4.0, 2.0])).add(thread.dash([0.4, 0.2]));
    /// assert_eq!(page.dashed_solid().len(), 1);
    /// ```
    #[must_use]
    pub fn dashed_solid(&self) -> Vec<&Item> {
        let solid = |item: &&Item| {
            let dash = &item.style.line.dash;
            let too_fine = |contour: &Contour| is_too_fine(dash, contour.length());
            !dash.is_empty() && item.path.contours().iter().any(too_fine)
        };
        self.items().map(|placed| placed.item).filter(solid).collect()
    }

    /// The sheet itself when nothing went wrong in its making, else the first fault.
    ///
    /// # Errors
    ///
    /// The first fault of the sheet, then of what is on it, in the order of drawing, with the item's name and line.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let page = sheet(90.0, 90.0).add(circle((0.0, 0.0), f64::NAN).fill("teal").named("vent"));
    /// let told = page.sound().unwrap_err().to_string();
    /// assert_eq!(told, "\"vent\": `circle`: the radius NaN is not finite; give a finite number");
    /// ```
    pub fn sound(&self) -> Result<&Self, Fault> {
        self.scene().map(|_| self)
    }
}
