//! Lines that are drawn in and out: paths that are the whole of one line in one frame and a part of it in another, said with one long dash.

use std::fmt::Write;

use super::motion::Loop;
use crate::number::Point;
use crate::path::{Contour, Path};
use crate::write::element::Value;
use crate::write::svg_text::plain;

/// So far from the part of the whole line, of its length, a frame's path may be.
const LENGTH_TOLERANCE: f64 = 1e-6;

/// A line of which each frame shows a part.
pub(super) struct DrawnLine {
    whole: Path,
    decimals: usize,
    /// From which to which share of its length each frame shows it.
    parts: Vec<(f64, f64)>,
}

impl DrawnLine {
    /// The line, where the path of every frame is a part of the longest one, from its start or to its end.
    pub(super) fn of(values: &[Value]) -> Option<Self> {
        let paths: Vec<(&Path, usize)> = values
            .iter()
            .map(|value| match value {
                Value::Path(path, decimals) => Some((path, *decimals)),
                _ => None,
            })
            .collect::<Option<_>>()?;
        let length = |path: &Path| path.contours().iter().map(Contour::length).sum::<f64>();
        let lengths: Vec<f64> = paths.iter().map(|(path, _)| length(path)).collect();
        let longest = (0..lengths.len()).max_by(|a, b| {
            lengths.get(*a).partial_cmp(&lengths.get(*b)).unwrap_or(std::cmp::Ordering::Equal)
        })?;
        let &(whole, decimals) = paths.get(longest)?;
        let full = *lengths.get(longest)?;
        let parts = paths
            .iter()
            .zip(&lengths)
            .map(|((path, _), length)| {
                let share = length / full;
                let candidates = if share > 1.0 - LENGTH_TOLERANCE {
                    [(0.0, 1.0); 2]
                } else {
                    [(0.0, share), (1.0 - share, 1.0)]
                };
                let is_part = |(from, to): &(f64, f64)| match (*from, *to) {
                    (0.0, 1.0) => alike(path, whole, LENGTH_TOLERANCE * full),
                    (from, to) => {
                        path.contours().is_empty()
                            || alike(path, &whole.trimmed(from, to), LENGTH_TOLERANCE * full)
                    }
                };
                candidates.into_iter().find(is_part)
            })
            .collect::<Option<_>>()?;
        Some(Self { whole: whole.clone(), decimals, parts })
    }

    /// The contours of the line, each with its dash.
    pub(super) fn written(&self, with: &Loop, out: &mut String) {
        let length: f64 = self.whole.contours().iter().map(Contour::length).sum();
        let mut before = 0.0;
        for contour in self.whole.contours() {
            let own = contour.length();
            let begin = before;
            before += own;
            if own <= 0.0 {
                continue;
            }
            // The part of this contour that each frame shows, in its own length.
            let part = |of: f64| (of * length - begin).clamp(0.0, own);
            let shown: Vec<(f64, f64)> =
                self.parts.iter().map(|(from, to)| (part(*from), part(*to))).collect();
            let gap = plain(2.0 * own);
            let dashes: Vec<Value> =
                shown.iter().map(|(from, to)| Value::Text(format!("{} {gap}", plain(to - from)))).collect();
            let offsets: Vec<Value> = shown.iter().map(|(from, _)| Value::Text(plain(-from))).collect();
            // A dash of no length would still have its caps.
            let seen: Vec<Value> = shown
                .iter()
                .map(|(from, to)| {
                    Value::Text(
                        if to - from > LENGTH_TOLERANCE * own { "visible" } else { "hidden" }.to_owned(),
                    )
                })
                .collect();
            let path = Path::from_contours([contour.clone()]);
            let _ =
                write!(out, "<path d=\"{}\" pathLength=\"{}\"", path.data_rounded(self.decimals), plain(own));
            let mut motions = String::new();
            for (name, values, default) in [
                ("stroke-dasharray", dashes, ""),
                ("stroke-dashoffset", offsets, "0"),
                ("visibility", seen, "visible"),
            ] {
                let first = values.first().and_then(Value::text).unwrap_or(default).to_owned();
                if first != default {
                    let _ = write!(out, " {name}=\"{first}\"");
                }
                if values.iter().any(|value| value.text() != Some(first.as_str())) {
                    motions.push_str(&with.animated(name, &values).unwrap_or_default());
                }
            }
            let _ = writeln!(out, ">{motions}</path>");
        }
    }
}

/// Whether two paths have the same segments, but for a distance.
fn alike(a: &Path, b: &Path, off: f64) -> bool {
    let near = |a: Point, b: Point| a.distance(b) <= off;
    a.contours().len() == b.contours().len()
        && a.contours().iter().zip(b.contours()).all(|(a, b)| {
            a.vertex_count() == b.vertex_count()
                && a.is_closed() == b.is_closed()
                && near(a.start(), b.start())
                && a.stored_segments()
                    .zip(b.stored_segments())
                    .all(|(a, b)| near(a.at(0.5), b.at(0.5)) && near(a.to(), b.to()))
        })
}
