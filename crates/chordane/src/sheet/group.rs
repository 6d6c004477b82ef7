//! Groups, and the words that move an item or a group.

use super::style::share;
use super::{Item, Kept};
use crate::ground::{Fault, FaultKind, FaultSlot, spent};
use crate::number::{Angle, Point};
use crate::path::{Affine, Path, by};

/// Something on a sheet or in a group.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::sheet::Node;
/// let page = sheet(90.0, 60.0).add(circle((30.0, 30.0), 9.0).fill("teal")).add(group());
/// assert!(matches!(page.nodes(), [Node::Item(_), Node::Group(_)]));
/// ```
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
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
    /// Under an affine transform, after those that there are.
    #[must_use]
    pub fn transformed(self, by: &Affine) -> Self {
        match self {
            Self::Item(item) => item.transformed(by).into(),
            Self::Group(group) => group.transformed(by).into(),
        }
    }

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
pub struct Group {
    pub(crate) nodes: Vec<Node>,
    /// The most groups inside one another from here on, this one counted.
    depth: usize,
    /// How many items and groups there are in it, and in those.
    count: usize,
    pub(crate) transform: Affine,
    pub(crate) opacity: f64,
    pub(crate) name: Option<Box<str>>,
    pub(super) compositing: Kept,
    pub(crate) fault: FaultSlot,
}

/// Groups are drawn, copied and dropped one inside the other, each taking some of the machine's stack; deeper than
/// this is a loop gone wrong.
pub(super) const MOST_DEPTH: usize = 200;

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
    let (nodes, name, compositing, fault) = Default::default();
    Group { nodes, depth: 1, count: 1, transform: Affine::IDENTITY, opacity: 1.0, name, compositing, fault }
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
        if spent(count.saturating_mul(10)) {
            self.fault.stopped(call);
            return;
        }
        let depth = node.depth() + 1;
        if depth > MOST_DEPTH {
            let what = "groups inside one another";
            self.fault.note(Fault::of(call, FaultKind::TooMany { what, count: depth, limit: MOST_DEPTH }));
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
            if self.fault.get().is_some() {
                break;
            }
        }
        self
    }

    /// The opacity of the whole group, from 0 to 1.
    #[must_use]
    pub fn opacity(mut self, opacity: f64) -> Self {
        if share("opacity", opacity, &mut self.fault) {
            self.opacity = opacity;
        }
        self
    }

    /// The same group with a name: the `id` in an SVG file.
    #[must_use]
    pub fn named(mut self, name: &str) -> Self {
        self.name = Some(name.into());
        self
    }

    /// The opacity of the whole group.
    #[must_use]
    pub fn get_opacity(&self) -> f64 {
        self.opacity
    }

    /// The name, if it was given one.
    #[must_use]
    pub fn name(&self) -> Option<&str> {
        self.name.as_deref()
    }

    /// The first fault of the group's own making; what is in it is not looked at. Constant cost.
    #[must_use]
    pub fn own_fault(&self) -> Option<&Fault> {
        self.fault.get()
    }

    /// What is in the group, in the order of drawing.
    #[must_use]
    pub fn nodes(&self) -> &[Node] {
        &self.nodes
    }

    /// Where the group stands.
    #[must_use]
    pub fn transform(&self) -> &Affine {
        &self.transform
    }
}

/// The words that move things mean the same for an item and for a group.
macro_rules! transform_words {
    ($type:ty) => {
        impl $type {
            fn then_by(mut self, call: &'static str, by: Affine) -> Self {
                let next = by * self.transform;
                if next.is_finite() {
                    self.transform = next;
                } else {
                    let value =
                        by.to_cols_array().into_iter().find(|v| !v.is_finite()).unwrap_or(f64::INFINITY);
                    self.fault.note(Fault::of(call, FaultKind::NotFinite { what: "number", value }));
                }
                self
            }

            /// Carrying a fault, unless it has one already.
            pub(crate) fn with_fault(mut self, fault: Fault) -> Self {
                self.fault.note(fault);
                self
            }

            /// Moved by a step.
            #[must_use]
            pub fn moved(self, step: impl Into<Point>) -> Self {
                self.then_by("moved", Affine::from_translation(step.into()))
            }

            /// Turned about the origin; a positive angle turns clockwise as seen on a sheet with y down.
            #[must_use]
            pub fn rotated(self, angle: Angle) -> Self {
                self.then_by("rotated", by::rotation(angle))
            }

            /// Turned about a point; a positive angle turns clockwise as seen on a sheet with y down.
            #[must_use]
            pub fn rotated_about(self, centre: impl Into<Point>, angle: Angle) -> Self {
                self.then_by("rotated_about", by::about(centre.into(), by::rotation(angle)))
            }

            /// Scaled evenly from the origin, strokes and all.
            #[must_use]
            pub fn scaled(self, factor: f64) -> Self {
                self.then_by("scaled", Affine::from_scale(Point::splat(factor)))
            }

            /// Scaled from the origin by a factor along x and one along y, strokes and all.
            #[must_use]
            pub fn scaled_by(self, factors: impl Into<Point>) -> Self {
                self.then_by("scaled_by", Affine::from_scale(factors.into()))
            }

            /// Scaled evenly from a point, strokes and all: the point stays where it is.
            #[must_use]
            pub fn scaled_about(self, centre: impl Into<Point>, factor: f64) -> Self {
                let by = by::about(centre.into(), Affine::from_scale(Point::splat(factor)));
                self.then_by("scaled_about", by)
            }

            /// Sheared; see [`Path::sheared`].
            #[must_use]
            pub fn sheared(self, x: Angle, y: Angle) -> Self {
                self.then_by("sheared", by::shear(x, y))
            }

            /// Under an affine transform, after those that there are.
            #[must_use]
            pub fn transformed(self, by: &Affine) -> Self {
                self.then_by("transformed", *by)
            }
        }
    };
}

transform_words!(Item);
transform_words!(Group);
