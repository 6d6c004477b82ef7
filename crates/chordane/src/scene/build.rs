//! The walk over the tree of a sheet that makes its display list.

use std::collections::HashSet;
use std::sync::Arc;

use super::list::{Command, Layer, LayerKind, Owner, Scene};
use super::placed::Placed;
use crate::ground::{Fault, exhausted};
use crate::path::Affine;
use crate::sheet::{BlendMode, Compositing, Effect, Item, Layered, Mask, Node, Paint};

/// The properties that a node inherits from the groups around it.
#[derive(Clone, Copy)]
struct Inherited {
    transform: Affine,
    /// The layer that it is in.
    layer: Option<usize>,
    opacity: f64,
    clipped: bool,
    cut_off: bool,
    plain: bool,
    in_mask: bool,
}

impl Inherited {
    fn outside(transform: &Affine) -> Self {
        let (layer, opacity) = (None, 1.0);
        Self {
            transform: *transform,
            layer,
            opacity,
            clipped: false,
            cut_off: false,
            plain: true,
            in_mask: false,
        }
    }

    /// The properties of a node itself, which its contents inherit.
    fn under(self, own: &Affine, opacity: f64, compositing: &Compositing) -> Self {
        let clip = compositing.clip.is_some();
        Self {
            transform: self.transform * *own,
            opacity: self.opacity * opacity,
            clipped: self.clipped || clip,
            cut_off: self.cut_off || clip || compositing.mask.is_some(),
            plain: self.plain && compositing.is_plain(),
            ..self
        }
    }
}

/// A list that is being made.
struct Builder<'a> {
    list: Scene<'a>,
    /// The drawings of patterns that were checked for faults, by their addresses.
    checked: HashSet<usize>,
}

impl<'a> Scene<'a> {
    /// The list of some nodes under a transform. Cost: linear in what there is, without looking at segments.
    pub(crate) fn of(nodes: &'a [Node], outer: &Affine) -> Self {
        let mut builder = Builder { list: Scene::default(), checked: HashSet::new() };
        builder.nodes(nodes, &Inherited::outside(outer));
        builder.list
    }
}

impl<'a> Builder<'a> {
    fn nodes(&mut self, nodes: &'a [Node], from: &Inherited) {
        for node in Node::drawing_order(nodes).filter_map(|at| nodes.get(at)) {
            if exhausted(5) {
                return;
            }
            match node {
                Node::Item(item) => self.item(item, from),
                Node::Group(group) => {
                    self.note(|| group.check().err().map(|fault| fault.on_item(group.name(), None)));
                    let compositing = group.compositing();
                    let under = from.under(&group.placement.transform, group.opacity, compositing);
                    let isolates = group.opacity < 1.0 || !compositing.is_plain();
                    let owner = Owner::Group(group);
                    self.layer(owner, (isolates, group.opacity), &under, |builder, inside| {
                        builder.nodes(&group.nodes, inside)
                    });
                }
            }
        }
    }

    fn item(&mut self, item: &'a Item, from: &Inherited) {
        if !item.is_sound() {
            self.note(|| item.sound().err().map(|fault| fault.on_item(item.name(), item.line())));
        }
        self.check_patterns(item);
        let compositing = item.compositing();
        let under = from.under(&item.placement.transform, item.style.opacity, compositing);
        // One paint alone fades by its colour.
        let opacity = if item.fades_as_one() { item.style.opacity } else { 1.0 };
        if opacity < 1.0 || !compositing.is_plain() {
            self.layer(Owner::Item(item), (true, opacity), &under, |builder, inside| {
                builder.draw(item, inside)
            });
        } else {
            self.draw(item, &under);
        }
    }

    fn draw(&mut self, item: &'a Item, own: &Inherited) {
        let Inherited { transform, layer, opacity, clipped, cut_off, plain, in_mask } = *own;
        let Scene { commands, items, mask_items, .. } = &mut self.list;
        let list = if in_mask { mask_items } else { items };
        let number = list.len();
        commands.push(if in_mask { Command::DrawInMask(number) } else { Command::Draw(number) });
        list.push(Placed { item, transform, number, layer, opacity, clipped, cut_off, plain });
    }

    /// A layer of a group or an item: what is in it, with its effects, then what cuts it off.
    fn layer(
        &mut self,
        owner: Owner<'a>,
        (isolates, opacity): (bool, f64),
        under: &Inherited,
        content: impl FnOnce(&mut Self, &Inherited),
    ) {
        let compositing = owner.compositing();
        let kind = if matches!(owner, Owner::Group(_)) { LayerKind::Group } else { LayerKind::Item };
        let (effects, cut) = (&compositing.effects, compositing.clip.is_some() || compositing.mask.is_some());
        // Effects come before what cuts off.
        let apart = cut && effects.iter().any(Effect::shows);
        let number = self.push(kind, owner, under);
        let inside = Inherited { layer: Some(number), ..*under };
        if apart {
            let number = self.push(LayerKind::Effects, owner, &inside);
            self.layer_mut(number, |layer| layer.effects = effects);
            content(self, &Inherited { layer: Some(number), ..inside });
            self.pop(number);
        } else {
            content(self, &inside);
        }
        if compositing.clip.is_some() {
            let clip = self.push(LayerKind::Clip, owner, &inside);
            self.pop(clip);
        }
        let mask = compositing.mask.as_ref().map(|mask| self.mask(mask, owner, &inside));
        let blend = compositing.blend;
        self.list.blends |= !under.in_mask && blend != BlendMode::Normal;
        self.layer_mut(number, |layer| {
            layer.effects = if apart { &[] } else { effects };
            (layer.mask, layer.opacity, layer.blend, layer.isolates) = (mask, opacity, blend, isolates);
        });
        self.pop(number);
    }

    fn mask(&mut self, mask: &'a Mask, owner: Owner<'a>, inside: &Inherited) -> usize {
        let number = self.push(LayerKind::Mask(mask.kind), owner, inside);
        let anew = Inherited { layer: Some(number), in_mask: true, ..Inherited::outside(&inside.transform) };
        self.nodes(mask.drawing.nodes(), &anew);
        self.pop(number);
        number
    }

    /// Begins a layer and gives its number.
    fn push(&mut self, kind: LayerKind, owner: Owner<'a>, own: &Inherited) -> usize {
        let (number, begin) = (self.list.layers.len(), self.list.commands.len() + 1);
        self.list.commands.push(Command::Push(number));
        self.list.layers.push(Layer {
            kind,
            owner,
            transform: own.transform,
            parent: own.layer,
            commands: begin..begin,
            mask: None,
            effects: &[],
            opacity: 1.0,
            blend: BlendMode::Normal,
            isolates: true,
            needs_plane: false,
        });
        number
    }

    /// Ends a layer. What is found out about it goes on to the one that it is in.
    fn pop(&mut self, number: usize) {
        let end = self.list.commands.len();
        self.list.commands.push(Command::Pop(number));
        let mut above = None;
        self.layer_mut(number, |layer| {
            layer.commands.end = end;
            if layer.needs_plane || layer.effects.iter().any(Effect::shows) {
                above = layer.parent;
                layer.needs_plane = layer.isolates;
            }
        });
        if let Some(above) = above {
            self.layer_mut(above, |layer| layer.needs_plane = true);
        }
    }

    fn layer_mut(&mut self, number: usize, change: impl FnOnce(&mut Layer<'a>)) {
        if let Some(layer) = self.list.layers.get_mut(number) {
            change(layer);
        }
    }

    /// Takes over the fault of what is drawn for patterns; each drawing is looked at once.
    fn check_patterns(&mut self, item: &'a Item) {
        for paint in [item.style.fill.as_ref(), item.style.stroke.as_ref()].into_iter().flatten() {
            if let Paint::Pattern(pattern) = paint
                && self.checked.insert(Arc::as_ptr(pattern.drawing()) as usize)
            {
                self.note(|| Scene::of(pattern.nodes(), &Affine::IDENTITY).fault);
            }
        }
    }

    /// Keeps the first fault.
    fn note(&mut self, find: impl FnOnce() -> Option<Fault>) {
        if self.list.fault.is_none() {
            self.list.fault = find();
        }
    }
}
