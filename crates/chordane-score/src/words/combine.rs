//! Words that combine shapes.

use chordane::prelude::*;
use chordane::sheet::Node;

use super::entry::{Section, Word, word};
use crate::call_error::CallError;

pub(super) fn section() -> Section {
    Section {
        title: "Combining shapes",
        about: "Boolean operations on shapes: union, intersection, difference and exclusive or. Curves stay curves; the result has no self-intersections.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            ".union(other)",
            "The union: the area enclosed by either path.",
            r##"circle(pt(0, 0), 40).union(rectangle(pt(0, -20), 80, 40))"##,
            |path: Path, other: Path| path.union(other),
        ),
        word(
            ".intersection(other)",
            "The intersection: the area enclosed by both paths.",
            r##"circle(pt(0, 0), 40).intersection(circle(pt(40, 0), 40))"##,
            |path: Path, other: Path| path.intersection(other),
        ),
        word(
            ".difference(other)",
            "The difference: the area enclosed by this path but not by the other.",
            r##"circle(pt(0, 0), 40).difference(star(pt(0, 0), 5, 30, 14))"##,
            |path: Path, other: Path| path.difference(other),
        ),
        word(
            ".xor(other)",
            "The exclusive or: the area enclosed by exactly one of the two paths.",
            r##"circle(pt(0, 0), 40).xor(circle(pt(40, 0), 40))"##,
            |path: Path, other: Path| path.xor(other),
        ),
        word(
            "union_all(paths)",
            "The union of a list of paths, computed in one step.",
            r##"union_all([circle(pt(0, 0), 30), circle(pt(40, 0), 30), rectangle(pt(0, 0), 40, 60)])"##,
            |paths: Vec<Node>| {
                let one = |node: Node| match node {
                    Node::Item(item) => Ok(item.path().transformed(&item.placement().transform)),
                    Node::Group(_) => Err(CallError::new("a group has no one outline; give a list of paths")),
                };
                Ok::<_, CallError>(union_all(paths.into_iter().map(one).collect::<Result<Vec<_>, _>>()?))
            },
        ),
        word(
            ".simplified()",
            "The same painted area without crossings or overlaps.",
            r##"closed([[0, 0], [60, 60], [60, 0], [0, 60]]).simplified()"##,
            |path: Path| path.simplified(),
        ),
        word(
            ".clip_line(area)",
            "The parts of the line that lie in an area.",
            r##"open([[-60, 0], [60, 0]]).waved(8, 20).clip_line(circle(pt(0, 0), 40))"##,
            |path: Path, area: Path| path.clip_line(area),
        ),
        word(
            ".clip_line_outside(area)",
            "The parts of the line that lie outside an area.",
            r##"open([[-60, 0], [60, 0]]).waved(8, 20).clip_line_outside(circle(pt(0, 0), 40))"##,
            |path: Path, area: Path| path.clip_line_outside(area),
        ),
        word(
            ".morphed(to, share)",
            "The path morphed a fraction of the way to another one: corners go to corners, holes grow from a point.",
            r##"polygon(pt(0, 0), 4, 50).morphed(star(pt(0, 0), 5, 60, 25), 0.5)"##,
            |path: Path, to: Path, share: f64| path.morphed(&to, share),
        ),
    ]
}
