//! What the paths of several frames have in common, so that they go over into one another.

use crate::number::Point;
use crate::path::{Arc, ArcSegment, Contour, Path, Segment};
use crate::write::svg_text::rounded;

/// Where more cannot be said of a path that changes.
pub(super) const PATH_CHANGES: &str = "its path changes";

/// What the segments of several paths have in common.
pub(super) struct Pattern {
    contours: Vec<(bool, Vec<Piece>)>,
}

/// How a segment is written: a straight side, or so many cubics.
#[derive(Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
enum Piece {
    Line,
    Cubics(usize),
}

impl Pattern {
    /// Sides stay sides where they are in all frames; what is a side in one frame and a curve in another goes as a curve, arcs as curves.
    pub(super) fn of(paths: &[&Path]) -> Result<Self, String> {
        let mut pattern: Option<Self> = None;
        for path in paths {
            let own: Vec<(bool, Vec<Piece>)> = path
                .contours()
                .iter()
                .map(|contour| (contour.is_closed(), stretches(contour).iter().map(Stretch::piece).collect()))
                .collect();
            let Some(known) = &mut pattern else {
                pattern = Some(Self { contours: own });
                continue;
            };
            let (a, b) = (known.contours.len(), own.len());
            if a != b {
                return Err(format!("its path has {a} contours in one frame and {b} in another"));
            }
            for ((closed, pieces), (own_closed, own_pieces)) in known.contours.iter_mut().zip(own) {
                let (a, b) = (pieces.len(), own_pieces.len());
                if a != b {
                    let (a, b) = (a + 1, b + 1);
                    return Err(format!("its path has {a} vertices in one frame and {b} in another"));
                }
                if *closed != own_closed {
                    return Err("its path is closed in one frame and open in another".to_owned());
                }
                for (piece, own) in pieces.iter_mut().zip(own_pieces) {
                    *piece = own.max(*piece);
                }
            }
        }
        pattern.ok_or_else(|| PATH_CHANGES.to_owned())
    }

    /// The coordinates of a path that is of this pattern.
    pub(super) fn numbers(&self, path: &Path) -> Vec<f64> {
        let mut all = Vec::new();
        let mut push = |point: Point| all.extend(point.to_array());
        for ((_, pieces), contour) in self.contours.iter().zip(path.contours()) {
            push(contour.start());
            for (piece, stretch) in pieces.iter().zip(stretches(contour)) {
                let Piece::Cubics(count) = *piece else {
                    push(stretch.to());
                    continue;
                };
                for k in 0..count {
                    let part = stretch.part(k as f64 / count as f64, (k + 1) as f64 / count as f64);
                    let (control1, control2) = part.handles();
                    [control1, control2, part.to()].into_iter().for_each(&mut push);
                }
            }
        }
        all
    }

    /// Path data of such coordinates.
    pub(super) fn text(&self, numbers: &[f64], tolerance: f64) -> String {
        let mut out = String::new();
        let mut rest = numbers;
        let mut points = |verb: char, count: usize, out: &mut String| {
            let (own, behind) = rest.split_at(rest.len().min(2 * count));
            rest = behind;
            out.push(verb);
            for (i, number) in own.iter().enumerate() {
                let text = rounded(*number, tolerance);
                if i > 0 && !text.starts_with('-') {
                    out.push(' ');
                }
                out.push_str(&text);
            }
        };
        for (closed, pieces) in &self.contours {
            points('M', 1, &mut out);
            for alike in pieces.chunk_by(|a, b| (*a == Piece::Line) == (*b == Piece::Line)) {
                let (verb, count) = match alike.first() {
                    Some(Piece::Cubics(_)) => ('C', alike.iter().map(|piece| piece.points()).sum()),
                    _ => ('L', alike.len()),
                };
                points(verb, count, &mut out);
            }
            if *closed {
                out.push('Z');
            }
        }
        out
    }
}

impl Piece {
    fn points(self) -> usize {
        match self {
            Self::Line => 1,
            Self::Cubics(count) => 3 * count,
        }
    }
}

/// A segment, or arcs in a row that go on round the same ellipse: how many of them there are changes while a slice opens.
enum Stretch {
    Segment(Segment),
    Round { whole: Arc, from: Point, to: Point },
}

/// Two ellipses are one where they differ by less than this share of their size.
const ELLIPSE_TOLERANCE: f64 = 1e-6;

fn stretches(contour: &Contour) -> Vec<Stretch> {
    let mut all: Vec<Stretch> = Vec::new();
    for segment in contour.stored_segments() {
        let round = match segment {
            Segment::Arc(arc) => arc.centred(),
            _ => None,
        };
        let Some(own) = round else {
            all.push(Stretch::Segment(segment));
            continue;
        };
        match all.last_mut() {
            Some(Stretch::Round { whole, to, .. }) if goes_on(whole, &own) => {
                whole.sweep += own.sweep;
                *to = segment.to();
            }
            _ => all.push(Stretch::Round { whole: own, from: segment.from(), to: segment.to() }),
        }
    }
    all
}

fn goes_on(before: &Arc, behind: &Arc) -> bool {
    let off = ELLIPSE_TOLERANCE * before.radii.max_element();
    let (first, second) = (before.sweep.degrees(), behind.sweep.degrees());
    before.centre.distance(behind.centre) <= off
        && before.radii.distance(behind.radii) <= off
        && (before.tilt - behind.tilt).wrapped_signed().radians().abs() <= ELLIPSE_TOLERANCE
        && first.signum() == second.signum()
        && (first + second).abs() <= 360.0 + ELLIPSE_TOLERANCE
}

impl Stretch {
    fn piece(&self) -> Piece {
        match self {
            Self::Segment(Segment::Line { .. }) => Piece::Line,
            Self::Segment(_) => Piece::Cubics(1),
            // A cubic is near to an arc over an eighth of a turn.
            Self::Round { whole, .. } => {
                Piece::Cubics((whole.sweep.degrees().abs() / 45.0 - 1e-9).ceil().max(1.0) as usize)
            }
        }
    }

    fn to(&self) -> Point {
        match self {
            Self::Segment(segment) => segment.to(),
            Self::Round { to, .. } => *to,
        }
    }

    /// The part from one share to another.
    fn part(&self, begin: f64, end: f64) -> Segment {
        match self {
            Self::Segment(segment) => segment.stretch(begin, end),
            Self::Round { whole, from, to } => Segment::Arc(ArcSegment {
                from: if begin == 0.0 { *from } else { whole.at(begin) },
                radii: whole.radii,
                tilt: whole.tilt,
                // Less than half a turn, as it is written in so many parts.
                large: false,
                clockwise: whole.sweep.degrees() > 0.0,
                to: if end == 1.0 { *to } else { whole.at(end) },
            }),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::number::deg;
    use crate::shape::pie;

    #[test]
    fn an_opening_slice_has_one_pattern_and_keeps_its_shape() {
        let slices: Vec<Path> =
            (1..24).step_by(3).map(|k| pie((3.0, 4.0), 40.0, deg(20.0), deg(15.0 * f64::from(k)))).collect();
        let pattern = Pattern::of(&slices.iter().collect::<Vec<_>>()).unwrap();
        for slice in &slices {
            let text = pattern.text(&pattern.numbers(slice), 1e-6);
            let off = Path::from_data(&text).unwrap().xor(slice).area().unwrap();
            assert!(off < 0.02, "{off}: {text}");
        }
    }

    #[test]
    fn what_is_straight_in_one_frame_and_bent_in_another_is_bent() {
        let line = Path::from_data("M0 0L30 0 30 30Z").unwrap();
        let bent = Path::from_data("M0 0Q15-9 30 0L30 30Z").unwrap();
        let pattern = Pattern::of(&[&line, &bent]).unwrap();
        assert_eq!(pattern.text(&pattern.numbers(&line), 1e-2), "M0 0C10 0 20 0 30 0L30 30Z");
        assert_eq!(pattern.text(&pattern.numbers(&bent), 1e-2), "M0 0C10-6 20-6 30 0L30 30Z");
    }
}
