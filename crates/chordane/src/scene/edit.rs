//! The same drawing with other paths.

use super::placed::Placed;
use crate::path::{Affine, Path};
use crate::sheet::{Group, Item, Node, Sheet};

impl Sheet {
    /// The same sheet with other paths: the function is asked for each item, in the order of drawing, and gives the path
    /// that takes the place of [`Item::path`], in the item's own coordinates. Names, styles, lines, transforms and groups
    /// are kept, clips too.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let page = sheet(90.0, 90.0).add(group().add(rectangle((0.0, 0.0), 40.0, 30.0).fill("teal").named("sail")));
    /// let soft = page.map_paths(|placed| placed.item.path().rounded(6.0));
    /// assert_eq!(soft.items().next().unwrap().item.name(), Some("sail"));
    /// assert_ne!(soft, page);
    /// ```
    #[must_use]
    pub fn map_paths(&self, mut change: impl FnMut(&Placed<'_>) -> Path) -> Self {
        let paths: Vec<Path> = self.items().map(|placed| change(&placed)).collect();
        let mut paths = paths.into_iter();
        let mut item = |item: Item, _: &Affine| item.with_path(paths.next().unwrap_or_default());
        let nodes = all_rebuilt(self.nodes.clone(), &Affine::IDENTITY, &mut item, &|_, _| ());
        Self { nodes, ..self.clone() }
    }
}

/// A node with other items: each is handed over with the map of all groups around it, in the order of drawing. A group is
/// handed over when what is in it is done, with the map from what is in it.
pub(super) fn rebuilt(
    node: Node,
    outer: &Affine,
    item: &mut impl FnMut(Item, &Affine) -> Item,
    group: &impl Fn(&mut Group, &Affine),
) -> Node {
    match node {
        Node::Item(one) => item(*one, outer).into(),
        Node::Group(mut all) => {
            let inner = *outer * all.placement.transform;
            all.nodes = all_rebuilt(std::mem::take(&mut all.nodes), &inner, item, group);
            group(&mut all, &inner);
            Node::Group(all)
        }
    }
}

/// Some nodes, rebuilt in the order of drawing and left in the order in which they stand.
fn all_rebuilt(
    nodes: Vec<Node>,
    outer: &Affine,
    item: &mut impl FnMut(Item, &Affine) -> Item,
    group: &impl Fn(&mut Group, &Affine),
) -> Vec<Node> {
    let order = Node::drawing_order(&nodes);
    let mut left: Vec<Option<Node>> = nodes.into_iter().map(Some).collect();
    for at in order {
        if let Some(slot) = left.get_mut(at) {
            *slot = slot.take().map(|node| rebuilt(node, outer, item, group));
        }
    }
    left.into_iter().flatten().collect()
}
