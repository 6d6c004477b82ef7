//! The display list: what is drawn, in order, with everything that drawing needs to know.

use std::ops::Range;

use super::placed::Placed;
use crate::ground::Fault;
use crate::number::{Cell, Point};
use crate::path::{Affine, Path};
use crate::sheet::{BlendMode, Compositing, Effect, Group, Item, Layered, MaskKind};

/// The display list of a sheet: its items in drawing order, each with everything that it inherits from the groups around it, and the layers that
/// they are drawn on.
///
/// ```
/// use chordane::prelude::*;
/// let vent = circle((0.0, 0.0), 9.0).fill("teal").named("vent");
/// let page = sheet(90.0, 90.0).add(group().add(vent).moved((40.0, 30.0)).opacity(0.5));
/// let scene = page.scene()?;
/// let [vent] = scene.items() else { panic!() };
/// assert_eq!((vent.item.name(), vent.opacity), (Some("vent"), 0.5));
/// assert_eq!(vent.line_bounds(), Some(cell((31.0, 21.0), 18.0, 18.0)));
/// assert_eq!(scene.layers().len(), 1);
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Debug, Default)]
pub struct Scene<'a> {
    pub(super) commands: Vec<Command>,
    pub(super) items: Vec<Placed<'a>>,
    /// Drawn for masks only: never listed, hit, checked or numbered.
    pub(super) mask_items: Vec<Placed<'a>>,
    /// In the order of their `Push`: the layers inside a layer follow it without a gap.
    pub(super) layers: Vec<Layer<'a>>,
    /// Whether something outside masks is blended with what is below it.
    pub(super) blends: bool,
    pub(super) fault: Option<Fault>,
}

/// One command of a display list; see [`Scene::commands`].
///
/// ```
/// use chordane::prelude::*;
/// use chordane::scene::Command;
/// let page = sheet(100.0, 80.0).add(group().opacity(0.5).add(circle((50.0, 40.0), 20.0).fill("teal")));
/// assert_eq!(page.scene()?.commands(), [Command::Push(0), Command::Draw(0), Command::Pop(0)]);
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub enum Command {
    /// Draws an item, by its number in [`Scene::items`].
    Draw(usize),
    /// Draws an item of a mask, which is not listed.
    DrawInMask(usize),
    /// Begins a layer, by its number in [`Scene::layers`].
    Push(usize),
    /// Ends the layer that was begun last, and puts it on what is below it.
    Pop(usize),
}

/// The purpose of a layer of a display list.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub enum LayerKind {
    /// A group. Where it does not isolate, it only groups.
    Group,
    /// An item that is put on what is below it in a way of its own.
    Item,
    /// The effects of a group or an item that is clipped or masked after them.
    Effects,
    /// The clip of the layer that it is in: what is left of that is what this covers.
    Clip,
    /// The mask of the layer that it is in: what is left of that is what this shows.
    Mask(MaskKind),
}

/// A layer of a display list.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::scene::LayerKind;
/// let kite = circle((50.0, 40.0), 20.0).fill("teal").clipped(circle((40.0, 40.0), 20.0));
/// let page = sheet(100.0, 80.0).add(group().add(kite).named("kites"));
/// let kinds: Vec<LayerKind> = page.scene()?.layers().iter().map(|layer| layer.kind).collect();
/// assert_eq!(kinds, [LayerKind::Group, LayerKind::Item, LayerKind::Clip]);
/// # Ok::<(), Fault>(())
/// ```
#[derive(Clone, Debug)]
pub struct Layer<'a> {
    /// The purpose of the layer.
    pub kind: LayerKind,
    /// The group or item that it belongs to.
    pub(super) owner: Owner<'a>,
    /// From the coordinates of what is in the layer to the list's.
    pub transform: Affine,
    /// The layer that it is in, as a number for [`Scene::layers`].
    pub parent: Option<usize>,
    /// The commands between its `Push` and its `Pop`.
    pub(crate) commands: Range<usize>,
    /// The number of its mask's layer.
    pub(crate) mask: Option<usize>,
    pub(crate) effects: &'a [Effect],
    /// How much of it is put on what is below it, from 0 to 1.
    pub(crate) opacity: f64,
    pub(crate) blend: BlendMode,
    /// Whether it is drawn apart before it is put on what is below it: because it fades, is clipped, masked or isolated, has
    /// effects, or is blended with what is below it. A group that does not only groups.
    pub isolates: bool,
    /// Whether it isolates, and all its pixels are needed at once, since it or a layer in it has an effect that shows.
    pub(crate) needs_plane: bool,
}

/// The group or item that a layer belongs to.
#[derive(Clone, Copy, Debug)]
pub(super) enum Owner<'a> {
    Group(&'a Group),
    Item(&'a Item),
}

impl<'a> Owner<'a> {
    pub(super) fn compositing(self) -> &'a Compositing {
        match self {
            Self::Group(group) => group.compositing(),
            Self::Item(item) => item.compositing(),
        }
    }

    /// From its own coordinates to those around it.
    fn transform(self) -> &'a Affine {
        match self {
            Self::Group(group) => &group.placement.transform,
            Self::Item(item) => &item.placement.transform,
        }
    }
}

impl<'a> Layer<'a> {
    /// The name of the group or item that it belongs to.
    #[must_use]
    pub fn name(&self) -> Option<&'a str> {
        match self.owner {
            Owner::Group(group) => group.placement.name.as_deref(),
            Owner::Item(item) => item.placement.name.as_deref(),
        }
    }

    /// Whether it cuts the layer that it is in.
    pub(crate) fn cuts(&self) -> bool {
        matches!(self.kind, LayerKind::Clip | LayerKind::Mask(_))
    }

    pub(crate) fn compositing(&self) -> &'a Compositing {
        self.owner.compositing()
    }

    /// Its own transform: from the coordinates of what is in it to those around it.
    pub(crate) fn own_transform(&self) -> &'a Affine {
        self.owner.transform()
    }

    /// The path of a clip.
    pub(crate) fn clip_path(&self) -> Option<&'a Path> {
        self.compositing().clip.as_ref().filter(|_| self.kind == LayerKind::Clip)
    }
}

/// The coordinates of bounds.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Coordinates {
    /// Those of the list.
    List,
    /// Those in which the first of the commands is given: inside a group, or in a mask.
    Own,
}

impl<'a> Scene<'a> {
    /// The list itself where nothing on it is at fault.
    pub(crate) fn sound(self) -> Result<Self, Fault> {
        match self.fault {
            Some(fault) => Err(fault),
            None => Ok(self),
        }
    }

    /// The items in drawing order.
    #[must_use]
    pub fn items(&self) -> &[Placed<'a>] {
        &self.items
    }

    /// The layers, each after the one that it is in.
    #[must_use]
    pub fn layers(&self) -> &[Layer<'a>] {
        &self.layers
    }

    /// The commands that draw the sheet, in order.
    #[must_use]
    pub fn commands(&self) -> &[Command] {
        &self.commands
    }

    /// The range of all commands.
    pub(crate) fn all(&self) -> Range<usize> {
        0..self.commands.len()
    }

    /// Whether something outside masks is blended with what is below it.
    pub(crate) fn blends(&self) -> bool {
        self.blends
    }

    /// The names of all groups and items, those in masks included.
    pub(crate) fn names(&self) -> impl Iterator<Item = &'a str> {
        let items = self.items.iter().chain(&self.mask_items).filter_map(|placed| placed.item.name());
        items.chain(self.layers.iter().filter_map(Layer::name))
    }

    /// The item that a command draws.
    pub(crate) fn drawn(&self, command: Command) -> Option<&Placed<'a>> {
        match command {
            Command::Draw(number) => self.items.get(number),
            Command::DrawInMask(number) => self.mask_items.get(number),
            Command::Push(_) | Command::Pop(_) => None,
        }
    }

    /// Returns the commands of a range with their indices. A layer for which `skip` returns `true` gives only its `Push`: its contents and its `Pop` are
    /// left out.
    pub(crate) fn walk<'s>(
        &'s self,
        range: Range<usize>,
        skip: impl Fn(&Layer<'a>) -> bool + 's,
    ) -> impl Iterator<Item = (usize, Command)> + 's {
        let mut next = range.start;
        std::iter::from_fn(move || {
            let at = next;
            let command = *self.commands.get(at).filter(|_| at < range.end)?;
            next += 1;
            if let Command::Push(number) = command
                && let Some(layer) = self.layers.get(number).filter(|layer| skip(layer))
            {
                next = layer.commands.end + 1;
            }
            Some((at, command))
        })
    }

    /// The layer of its own that an item is drawn on, if it has one.
    pub(crate) fn own_layer(&self, placed: &Placed<'a>) -> Option<&Layer<'a>> {
        let layer = self.layers.get(placed.layer?)?;
        match layer.kind {
            LayerKind::Item => Some(layer),
            LayerKind::Effects if matches!(layer.owner, Owner::Item(_)) => self.layers.get(layer.parent?),
            _ => None,
        }
    }

    /// The commands of what a layer shows before its own effects.
    pub(crate) fn content(&self, layer: &Layer<'a>) -> Range<usize> {
        let first = match self.commands.get(layer.commands.start) {
            Some(Command::Push(number)) => self.layers.get(*number),
            _ => None,
        };
        first
            .filter(|first| first.kind == LayerKind::Effects)
            .map_or(&layer.commands, |first| &first.commands)
            .clone()
    }

    /// Generous bounds of what some commands paint. Each layer is grown by the reach of its effects; clips and masks are ignored. Cost: linear, by control points.
    pub(crate) fn reach(
        &self,
        range: Range<usize>,
        within: Coordinates,
        grow: impl Fn(&[Effect], &Affine) -> Point,
    ) -> Option<Cell> {
        let join = |a: Option<Cell>, b: Option<Cell>| a.into_iter().chain(b).reduce(Cell::union);
        // For each open layer, the bounds found before it began, and the map in force there.
        let mut open: Vec<(Option<Cell>, Affine)> = Vec::new();
        let (mut all, mut to) = (None, Affine::IDENTITY);
        for (_, command) in self.walk(range, Layer::cuts) {
            match command {
                Command::Push(number) => {
                    let Some(layer) = self.layers.get(number).filter(|layer| !layer.cuts()) else { continue };
                    open.push((all.take(), to));
                    if layer.kind != LayerKind::Effects {
                        to *= *layer.own_transform();
                    }
                }
                Command::Pop(number) => {
                    let Some((layer, (around, before))) = self.layers.get(number).zip(open.pop()) else {
                        continue;
                    };
                    let by =
                        grow(layer.effects, if within == Coordinates::List { &layer.transform } else { &to });
                    let inside = all.take().map(|all: Cell| Cell { min: all.min - by, max: all.max + by });
                    (all, to) = (join(around, inside), before);
                }
                Command::Draw(_) | Command::DrawInMask(_) => {
                    let Some(placed) = self.drawn(command) else { continue };
                    let own = if self.own_layer(placed).is_some() {
                        to
                    } else {
                        to * placed.item.placement.transform
                    };
                    let seen = if within == Coordinates::List { placed.transform } else { own };
                    all = join(all, Placed { transform: seen, ..*placed }.reach());
                }
            }
        }
        all
    }

    /// The bounds of the lines of all items; `None` if all are empty. Cost: linear in the segments.
    #[must_use]
    pub fn line_bounds(&self) -> Option<Cell> {
        self.items.iter().filter_map(Placed::line_bounds).reduce(Cell::union)
    }

    /// The paths that an item is clipped by, from the inside out, each with the map from its coordinates to the list's.
    pub fn clips(&self, item: &Placed<'a>) -> impl Iterator<Item = (&'a Path, Affine)> {
        let layer = |at: Option<usize>| at.and_then(|at| self.layers.get(at));
        std::iter::successors(layer(item.layer), move |inner| layer(inner.parent))
            .filter(|layer| layer.kind != LayerKind::Effects)
            .filter_map(|layer| Some((layer.compositing().clip.as_ref()?, layer.transform)))
    }
}
