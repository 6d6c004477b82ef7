//! Groups, and what a sheet holds.

use super::style::share;
use super::{Item, Layered, Placement};
use crate::ground::{Fault, FaultKind, FaultSlot, exhausted};
use crate::path::Path;

/// Something on a sheet or in a group.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::sheet::Node;
/// let page = sheet(90.0, 60.0).add(circle((30.0, 30.0), 9.0).fill("teal")).add(group());
/// assert!(matches!(page.nodes(), [Node::Item(_), Node::Group(_)]));
/// ```
#[derive(Clone, Debug, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize), serde(rename_all = "kebab-case"))]
pub enum Node {
    /// A path with its style.
    Item(Box<Item>),
    /// Several of these together.
    Group(Box<Group>),
}

impl From<Path> for Node {
    fn from(path: Path) -> Self {
        Self::Item(Box::new(Item::new(path)))
    }
}

impl From<Item> for Node {
    fn from(item: Item) -> Self {
        Self::Item(Box::new(item))
    }
}

impl From<Group> for Node {
    fn from(group: Group) -> Self {
        Self::Group(Box::new(group))
    }
}

impl Node {
    /// How many items and groups this is, itself and all in it.
    fn count(&self) -> usize {
        match self {
            Self::Item(_) => 1,
            Self::Group(group) => group.count,
        }
    }

    /// How many groups deep this is: 0 for an item without a mask or a pattern.
    pub(crate) fn depth(&self) -> usize {
        match self {
            Self::Item(item) => item.depth(),
            Self::Group(group) => group.depth(),
        }
    }
}

/// Items that move and fade together. The opacity is that of the finished group: what overlaps inside it does not
/// show through.
///
/// ```
/// use chordane::prelude::*;
/// let bows: Group = group().add(circle((0.0, 0.0), 9.0).fill("teal")).moved((30.0, 30.0)).named("bows");
/// assert_eq!((bows.nodes().len(), bows.name()), (1, Some("bows")));
/// ```
#[derive(Clone, Debug, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Deserialize, serde::Serialize), serde(from = "form::Group"))]
pub struct Group {
    pub(crate) nodes: Vec<Node>,
    /// The most groups inside one another from here on, this one counted.
    #[cfg_attr(feature = "serde", serde(skip))]
    depth: usize,
    /// How many items and groups there are in it, and in those.
    #[cfg_attr(feature = "serde", serde(skip))]
    count: usize,
    /// The opacity of the finished group, from 0 to 1.
    pub opacity: f64,
    pub(crate) placement: Placement,
}

/// Groups are drawn, copied and dropped one inside the other, each taking some of the machine's stack; deeper than
/// this is a loop gone wrong.
pub(super) const MAX_DEPTH: usize = 200;

/// A group of nothing yet; see [`Group::add`].
///
/// ```
/// use chordane::prelude::*;
/// let kite = group()
///     .add(polygon((0.0, 0.0), 4, 40.0).fill("teal"))
///     .add(circle((0.0, 0.0), 6.0).fill("white"));
/// let sheet = sheet(200.0, 100.0)
///     .add(kite.clone().moved((50.0, 50.0)))
///     .add(kite.rotated(deg(20.0)).moved((150.0, 50.0)).opacity(0.5));
/// assert!(sheet.svg()?.contains("opacity=\".5\""));
/// # Ok::<(), Fault>(())
/// ```
#[must_use]
pub fn group() -> Group {
    Group { nodes: Vec::new(), depth: 1, count: 1, opacity: 1.0, placement: Placement::default() }
}

impl Group {
    /// Adds a path, an item or a group on top of what there is. More than 200 groups inside one another are a fault.
    #[must_use]
    #[allow(clippy::should_implement_trait, reason = "the word of the sheet; nothing is summed")]
    pub fn add(mut self, node: impl Into<Node>) -> Self {
        self.push("add", node.into());
        self
    }

    /// The most groups inside one another from here on, this one counted, and those of its mask.
    pub(super) fn depth(&self) -> usize {
        self.depth.max(1 + self.compositing().depth())
    }

    fn push(&mut self, call: &'static str, node: Node) {
        // It was copied to get here, or will be.
        let count = node.count();
        if self.placement.fault.limited(call, || exhausted(count.saturating_mul(10))).is_none() {
            return;
        }
        let depth = node.depth() + 1;
        if depth > MAX_DEPTH {
            let what = "groups inside one another";
            self.placement
                .fault
                .note(Fault::of(call, FaultKind::TooMany { what, count: depth, limit: MAX_DEPTH }));
        } else {
            self.depth = self.depth.max(depth);
            self.count = self.count.saturating_add(count);
            self.nodes.push(node);
        }
    }

    /// Adds each of several, in order.
    #[must_use]
    pub fn add_all<N: Into<Node>>(mut self, nodes: impl IntoIterator<Item = N>) -> Self {
        for node in nodes {
            self.push("add_all", node.into());
            if self.placement.fault.get().is_some() {
                break;
            }
        }
        self
    }

    /// The same group with other contents; its opacity, placement and compositing stay. Nesting is limited as in [`Group::add`].
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let bows = group().add(circle((0.0, 0.0), 9.0)).named("bows").opacity(0.5);
    /// let tails = bows.with_nodes([polygon((0.0, 0.0), 3, 9.0)]);
    /// assert_eq!((tails.name(), tails.opacity, tails.nodes().len()), (Some("bows"), 0.5, 1));
    /// ```
    #[must_use]
    pub fn with_nodes<N: Into<Node>>(mut self, nodes: impl IntoIterator<Item = N>) -> Self {
        self.nodes.clear();
        (self.depth, self.count) = (1, 1);
        for node in nodes {
            self.push("with_nodes", node.into());
        }
        self
    }

    /// Applies a function to each item, also in groups inside this one, and keeps the groups as they are. Masks and
    /// patterns are not entered.
    #[must_use]
    pub fn map_items<N: Into<Node>>(mut self, mut map: impl FnMut(Item) -> N) -> Self {
        let nodes = std::mem::take(&mut self.nodes);
        self.with_nodes(map_nodes(nodes, &mut |item| map(item).into()))
    }

    /// Returns the number of paths, items and groups directly in this group.
    #[must_use]
    pub fn len(&self) -> usize {
        self.nodes.len()
    }

    /// Returns `true` if nothing is in this group.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        self.nodes.is_empty()
    }

    /// The opacity of the whole group, from 0 to 1.
    #[must_use]
    pub fn opacity(mut self, opacity: f64) -> Self {
        if share("opacity", opacity, &mut self.placement.fault) {
            self.opacity = opacity;
        }
        self
    }

    /// The first fault of the group's own making; what is in it is not looked at. Constant cost.
    #[must_use]
    pub fn own_fault(&self) -> Option<&Fault> {
        self.placement.fault.get()
    }

    /// Checks its own making and fields; what is in it is not looked at.
    pub(crate) fn check(&self) -> Result<(), Fault> {
        let mut fault = FaultSlot::default();
        self.placement.check(&mut fault);
        fault.in_range("opacity", "opacity", self.opacity, 0.0, 1.0);
        fault.sound()
    }

    /// What is in the group, in the order of drawing.
    #[must_use]
    pub fn nodes(&self) -> &[Node] {
        &self.nodes
    }
}

/// Applies a function to the items of nodes, also to those in groups.
pub(super) fn map_nodes(nodes: Vec<Node>, map: &mut dyn FnMut(Item) -> Node) -> Vec<Node> {
    let one = |node| match node {
        Node::Item(item) => map(*item),
        Node::Group(mut group) => {
            let nodes = map_nodes(std::mem::take(&mut group.nodes), map);
            group.with_nodes(nodes).into()
        }
    };
    nodes.into_iter().map(one).collect()
}

impl Layered for Group {
    fn placement(&self) -> &Placement {
        &self.placement
    }

    fn placement_mut(&mut self) -> &mut Placement {
        &mut self.placement
    }
}

impl Layered for Node {
    fn placement(&self) -> &Placement {
        match self {
            Self::Item(item) => item.placement(),
            Self::Group(group) => group.placement(),
        }
    }

    fn placement_mut(&mut self) -> &mut Placement {
        match self {
            Self::Item(item) => item.placement_mut(),
            Self::Group(group) => group.placement_mut(),
        }
    }
}

#[cfg(feature = "serde")]
mod form {
    use super::super::Placement;

    /// The serde form of a group. Depth and item count are recomputed.
    #[derive(serde::Deserialize)]
    pub(super) struct Group {
        nodes: Vec<super::Node>,
        #[serde(default = "full")]
        opacity: f64,
        #[serde(default)]
        placement: Placement,
    }

    fn full() -> f64 {
        1.0
    }

    impl From<Group> for super::Group {
        fn from(Group { nodes, opacity, placement }: Group) -> Self {
            Self { opacity, placement, ..super::group() }.add_all(nodes)
        }
    }
}
