//! Stamps of items and groups.

use super::edit::rebuilt;
use crate::ground::{FaultSlot, limited, unlimited};
use crate::path::{Affine, Path};
use crate::reshape::{Stamp, StampOrientation, StampPlace};
use crate::sheet::{Group, Item, Layered, Node, group};

impl<T: Into<Node> + Clone> Stamp<T> {
    /// The stamps along a path, as a group.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let bow = Path::closed([(0.0, 0.0), (-9.0, -6.0), (-9.0, 6.0)]).fill("#d9a441");
    /// let tail = start((0.0, 0.0)).cubic((60.0, 40.0), (-60.0, 80.0), (0.0, 120.0)).open();
    /// let bows = Stamp::new(bow).every(20.0).scale(|at| 1.0 - 0.6 * at.share()).along(&tail);
    /// assert_eq!(bows.nodes().len(), 8);
    /// ```
    #[must_use]
    pub fn along(&self, path: impl AsRef<Path>) -> Group {
        self.along_with(path, |_, thing| thing)
    }

    /// The same with a function that changes each stamp before it is set down: its colour, its size, anything.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// let line = Path::open([(0.0, 0.0), (100.0, 0.0)]);
    /// let beads = Stamp::new(circle((0.0, 0.0), 4.0)).every(20.0).along_with(&line, |at, bead| {
    ///     bead.fill(if at.number % 2 == 0 { "teal" } else { "white" })
    /// });
    /// assert_eq!(beads.nodes().len(), 6);
    /// ```
    #[must_use]
    pub fn along_with<N: Into<Node>>(
        &self,
        path: impl AsRef<Path>,
        mut change: impl FnMut(&StampPlace<'_>, T) -> N,
    ) -> Group {
        let path = path.as_ref();
        let mut fault: FaultSlot = path.carried().clone();
        let mut nodes: Vec<Node> = Vec::new();
        let stopped = limited("stamped", || {
            self.each(path, &mut fault, |place, affine, line| {
                let node: Node = unlimited(|| change(place, self.thing.clone()).into());
                nodes.push(if self.orientation == StampOrientation::Bent {
                    bent(node, affine, &|path| line.bend(path))
                } else {
                    node.transformed(affine)
                });
            });
        });
        let mut all = group().add_all(nodes);
        all.placement.fault.take_from(&fault);
        match stopped {
            Ok(()) => all,
            Err(stopped) => all.with_fault(stopped),
        }
    }
}

/// Every path of a node, where it stands, sent through a function; styles stay.
fn bent(node: Node, outer: &Affine, bend: &impl Fn(&Path) -> Path) -> Node {
    let mut item = |item: Item, groups: &Affine| {
        let path = bend(&item.path.transformed(&(*groups * item.placement.transform)));
        let mut item = item;
        let outer = *groups * item.placement.transform;
        item.placement.map_clip(|clip| bend(&clip.transformed(&outer)));
        item.placement.transform = Affine::IDENTITY;
        item.with_path(path)
    };
    let stand = |group: &mut Group, groups: &Affine| {
        group.placement.map_clip(|clip| bend(&clip.transformed(groups)));
        group.placement.transform = Affine::IDENTITY;
    };
    rebuilt(node, outer, &mut item, &stand)
}
