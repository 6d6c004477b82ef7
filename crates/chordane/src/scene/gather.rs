//! The pass over the tree.

use super::placed::Placed;
use crate::ground::{Carried, Fault, spent};
use crate::number::{Cell, Point};
use crate::path::{Affine, Contour, Path};
use crate::reshape::is_too_fine;
use crate::sheet::{Compositing, Group, Item, Node, Paint, Sheet};

/// A sheet in one pass: its items in the order of drawing, each where it stands, and the groups that they are in.
///
/// ```
/// use chordane::prelude::*;
/// let vent = circle((0.0, 0.0), 9.0).fill("teal").named("vent");
/// let page = sheet(90.0, 90.0).add(group().add(vent).moved((40.0, 30.0)).opacity(0.5));
/// let scene = page.scene()?;
/// let [vent] = scene.items() else { panic!() };
/// assert_eq!((vent.item().name(), vent.opacity()), (Some("vent"), 0.5));
/// assert_eq!(vent.line_bounds(), Some(cell((31.0, 21.0), 18.0, 18.0)));
/// assert_eq!(scene.layers().len(), 1);
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Debug)]
pub struct Scene<'a> {
    items: Vec<Placed<'a>>,
    layers: Vec<Layer<'a>>,
    steps: Vec<Step>,
    fault: Option<Fault>,
}

/// One thing that is done when a scene is drawn; see [`Scene::steps`].
///
/// ```
/// use chordane::prelude::*;
/// use chordane::scene::Step;
/// let page = sheet(100.0, 80.0).add(group().opacity(0.5).add(circle((50.0, 40.0), 20.0).fill("teal").stroke("navy", 4.0).named("vent")));
/// assert_eq!(page.scene()?.steps(), [Step::Begin(0), Step::Item(0), Step::End(0)]);
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Step {
    /// A group begins; its number in [`Scene::layers`].
    Begin(usize),
    /// An item is drawn; its number in [`Scene::items`].
    Item(usize),
    /// The group that began last ends: it is clipped, fades, and is put on what is below it.
    End(usize),
}

/// A group where it stands.
///
/// ```
/// use chordane::prelude::*;
/// let page = sheet(100.0, 80.0).add(group().opacity(0.5).add(circle((50.0, 40.0), 20.0).fill("teal").stroke("navy", 4.0).named("vent")));
/// let scene = page.scene()?;
/// let layer = &scene.layers()[0];
/// assert!(layer.is_apart() && layer.parent().is_none());
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Copy, Debug)]
pub struct Layer<'a> {
    group: &'a Group,
    parent: Option<usize>,
    transform: Affine,
    opacity: f64,
    clipped: bool,
    cut_off: bool,
    plain: bool,
}

impl<'a> Layer<'a> {
    /// The group.
    #[must_use]
    pub fn group(&self) -> &'a Group {
        self.group
    }

    /// The group that it is in, as a number for [`Scene::layers`].
    #[must_use]
    pub fn parent(&self) -> Option<usize> {
        self.parent
    }

    /// From the coordinates of what is in the group to the sheet's.
    #[must_use]
    pub fn transform(&self) -> &Affine {
        &self.transform
    }

    /// Whether the group is drawn on its own before it is laid on what is below it: because it fades, is clipped, masked or isolated, has
    /// effects, or is mixed with what is below it.
    #[must_use]
    pub fn is_apart(&self) -> bool {
        self.group.opacity < 1.0 || !self.group.compositing().is_plain()
    }
}

impl<'a> Scene<'a> {
    /// The scene of some nodes, under a transform. Cost: linear in what there is, without looking at segments.
    pub(crate) fn of(nodes: &'a [Node], outer: &Affine) -> Self {
        let (items, layers, steps, fault) = Default::default();
        let mut scene = Self { items, layers, steps, fault };
        scene.gather_all(nodes, outer, None);
        scene
    }

    fn gather_all(&mut self, nodes: &'a [Node], outer: &Affine, parent: Option<usize>) {
        for node in Node::drawing_order(nodes).filter_map(|at| nodes.get(at)) {
            self.gather(node, outer, parent);
        }
    }

    fn gather(&mut self, node: &'a Node, outer: &Affine, parent: Option<usize>) {
        if spent(5) {
            self.stop();
            return;
        }
        let above = parent.and_then(|at| self.layers.get(at));
        let (opacity, clipped, plain) = above.map_or((1.0, false, true), |l| (l.opacity, l.clipped, l.plain));
        let compositing = node.compositing();
        let cut = compositing.clip().is_some() || compositing.mask().is_some();
        let cut_off = cut || above.is_some_and(|layer| layer.cut_off);
        let (clipped, plain) = (clipped || compositing.clip().is_some(), plain && compositing.is_plain());
        self.look_into_mask(compositing);
        match node {
            Node::Item(item) => {
                self.note(|| item.sound().map(drop), item);
                self.look_into_patterns(item);
                self.steps.push(Step::Item(self.items.len()));
                self.items.push(Placed {
                    item,
                    transform: *outer * item.transform,
                    number: self.items.len(),
                    layer: parent,
                    opacity: opacity * item.style.opacity,
                    clipped,
                    cut_off,
                    plain,
                });
            }
            Node::Group(group) => {
                if self.fault.is_none() {
                    self.fault = group.fault.get().map(|fault| fault.clone().on_item(group.name(), None));
                }
                let (transform, number) = (*outer * group.transform, self.layers.len());
                let opacity = opacity * group.opacity;
                self.layers.push(Layer { group, parent, transform, opacity, clipped, cut_off, plain });
                self.steps.push(Step::Begin(number));
                self.gather_all(&group.nodes, &transform, Some(number));
                self.steps.push(Step::End(number));
            }
        }
    }

    /// Takes over the fault of what is drawn for a mask.
    fn look_into_mask(&mut self, compositing: &'a Compositing) {
        if let (None, Some(mask)) = (&self.fault, compositing.mask()) {
            self.fault = Scene::of(mask.nodes(), &Affine::IDENTITY).fault;
        }
    }

    /// Takes over the fault of what is drawn for patterns.
    fn look_into_patterns(&mut self, item: &'a Item) {
        for paint in [item.style.fill_paint(), item.style.stroke_paint()].into_iter().flatten() {
            if let (None, Paint::Pattern(pattern)) = (&self.fault, paint) {
                self.fault = Scene::of(pattern.nodes(), &Affine::IDENTITY).fault;
            }
        }
    }

    /// Ends gathering with the fault that it was stopped.
    fn stop(&mut self) {
        let mut fault = Carried::default();
        fault.stopped("scene");
        if self.fault.is_none() {
            self.fault = fault.get().cloned();
        }
    }

    fn note(&mut self, look: impl FnOnce() -> Result<(), Fault>, item: &Item) {
        if self.fault.is_none()
            && let Err(fault) = look()
        {
            self.fault = Some(fault.on_item(item.name(), item.line()));
        }
    }

    /// The scene itself where nothing on it is at fault.
    pub(crate) fn sound(self) -> Result<Self, Fault> {
        match self.fault {
            Some(fault) => Err(fault),
            None => Ok(self),
        }
    }

    /// The items in the order of drawing.
    #[must_use]
    pub fn items(&self) -> &[Placed<'a>] {
        &self.items
    }

    /// The groups, each after the one that it is in.
    #[must_use]
    pub fn layers(&self) -> &[Layer<'a>] {
        &self.layers
    }

    /// What is done when the scene is drawn, in order.
    #[must_use]
    pub fn steps(&self) -> &[Step] {
        &self.steps
    }

    /// The bounds of the lines of all items; `None` where there is no line. Cost: linear in the segments.
    #[must_use]
    pub fn line_bounds(&self) -> Option<Cell> {
        self.items.iter().filter_map(Placed::line_bounds).reduce(Cell::union)
    }

    /// Bounds of all that is painted, with room to spare, and as far as effects reach. Cost: linear, by control points.
    pub(crate) fn reach(&self) -> Option<Cell> {
        let mut open: Vec<Option<Cell>> = Vec::new();
        let mut all: Option<Cell> = None;
        let grown = |all: Option<Cell>, compositing: &Compositing, to: &Affine| {
            let by: Point = compositing.effects().iter().map(|effect| effect.reach(to)).sum();
            all.map(|all| Cell { min: all.min - by, max: all.max + by })
        };
        let union = |a: Option<Cell>, b: Option<Cell>| a.into_iter().chain(b).reduce(Cell::union);
        for step in &self.steps {
            match *step {
                Step::Begin(_) => open.push(all.take()),
                Step::Item(number) => {
                    let Some(placed) = self.items.get(number) else { continue };
                    all = union(all, grown(placed.reach(), placed.item.compositing(), &placed.transform));
                }
                Step::End(number) => {
                    let Some(layer) = self.layers.get(number) else { continue };
                    let inside = grown(all.take(), layer.group.compositing(), &layer.transform);
                    all = union(open.pop().flatten(), inside);
                }
            }
        }
        all
    }

    /// The paths that an item is clipped by, from the inside out, each with the map from its coordinates to the sheet's.
    pub fn clips(&self, item: &Placed<'a>) -> impl Iterator<Item = (&'a Path, Affine)> {
        let layer = |at: Option<usize>| at.and_then(|at| self.layers.get(at));
        let own = item.item.clip_path().map(|path| (path, item.transform));
        let around = std::iter::successors(layer(item.layer), move |inner| layer(inner.parent))
            .filter_map(|layer| layer.group.clip_path().map(|path| (path, layer.transform)));
        own.into_iter().chain(around)
    }
}

impl Node {
    /// The bounds of the lines of all items, where they stand; `None` where there is no line.
    #[must_use]
    pub fn bounds(&self) -> Option<Cell> {
        Scene::of(std::slice::from_ref(self), &Affine::IDENTITY).line_bounds()
    }
}

impl Sheet {
    /// The sheet in one pass, in the coordinates of what is added to it. Cost: linear in what there is, without looking at
    /// segments.
    ///
    /// # Errors
    ///
    /// The first fault of the sheet, then of what is on it, in the order of drawing, with the item's name and line.
    pub fn scene(&self) -> Result<Scene<'_>, Fault> {
        self.seen_through(&Affine::IDENTITY)
    }

    /// The scene under a transform.
    pub(crate) fn seen_through(&self, outer: &Affine) -> Result<Scene<'_>, Fault> {
        self.fault.sound()?;
        Scene::of(&self.nodes, outer).sound()
    }

    /// The items in the order of drawing, each where it stands. Faulty ones are among them; see [`Sheet::sound`].
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let page = sheet(90.0, 90.0).add(circle((9.0, 9.0), 5.0).fill("teal").named("vent"));
    /// let names: Vec<_> = page.items().filter_map(|placed| placed.item().name()).collect();
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
        self.items().map(|placed| placed.item()).filter(bare).collect()
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
            let dash = item.style.get_stroke().dash();
            let too_fine = |contour: &Contour| is_too_fine(dash, contour.length());
            !dash.is_empty() && item.path.contours().iter().any(too_fine)
        };
        self.items().map(|placed| placed.item()).filter(solid).collect()
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
