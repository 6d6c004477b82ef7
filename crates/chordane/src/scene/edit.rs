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
    /// let soft = page.map_paths(|placed| placed.item().path().rounded(6.0));
    /// assert_eq!(soft.items().next().unwrap().item().name(), Some("sail"));
    /// assert_ne!(soft, page);
    /// ```
    #[must_use]
    pub fn map_paths(&self, mut change: impl FnMut(&Placed<'_>) -> Path) -> Self {
        let paths: Vec<Path> = self.items().map(|placed| change(&placed)).collect();
        let mut paths = paths.into_iter();
        let mut item = |item: Item, _: &Affine| Item { path: paths.next().unwrap_or_default(), ..item };
        let rebuilt = |node: &Node| rebuilt(node.clone(), &Affine::IDENTITY, &mut item, &|_, _| ());
        let nodes: Vec<Node> = self.nodes.iter().map(rebuilt).collect();
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
            let inner = *outer * all.transform;
            let nodes = std::mem::take(&mut all.nodes).into_iter();
            all.nodes = nodes.map(|node| rebuilt(node, &inner, item, group)).collect();
            group(&mut all, &inner);
            Node::Group(all)
        }
    }
}
