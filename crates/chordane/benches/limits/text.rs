//! The pairs of path data and storage.

use std::fmt::Write;
use std::hint::black_box;

use chordane::prelude::*;

use crate::inputs::path_data;
use crate::{Outcome, compare};

const BYTES: usize = 50_000_000;

/// Reading 50 MB of path data, against the standard library reading the same numbers already split.
pub(crate) fn parse() -> Outcome {
    let data = path_data(BYTES);
    let numbers = split_numbers(&data);
    compare(
        "parse",
        1.0,
        5,
        || {
            black_box(Path::from_data(black_box(&data)).unwrap());
        },
        || {
            let values: Vec<f64> = black_box(&numbers).iter().map(|text| text.parse().unwrap()).collect();
            black_box(values);
        },
    )
}

/// The texts of the numbers, as a reader that knows nothing of commands would have them handed over.
fn split_numbers(data: &str) -> Vec<&str> {
    let mut numbers = Vec::new();
    let bytes = data.as_bytes();
    let mut at = 0;
    while at < bytes.len() {
        if matches!(bytes[at], b'0'..=b'9' | b'-' | b'.') {
            let begin = at;
            at += 1;
            while at < bytes.len() && matches!(bytes[at], b'0'..=b'9' | b'.') {
                at += 1;
            }
            numbers.push(&data[begin..at]);
        } else {
            at += 1;
        }
    }
    numbers
}

/// Writing what was read, against `write!("{}")` of the same numbers into the same kind of buffer.
pub(crate) fn write() -> Outcome {
    let path = Path::from_data(&path_data(BYTES)).unwrap();
    let mut numbers = Vec::new();
    for contour in path.contours() {
        numbers.extend([contour.start().x, contour.start().y]);
        for segment in contour.segments() {
            let points: &[Point] = match &segment {
                Segment::Line { to, .. } => &[*to],
                Segment::Quad { control, to, .. } => &[*control, *to],
                Segment::Cubic { control1, control2, to, .. } => &[*control1, *control2, *to],
                Segment::Arc(arc) => &[arc.radii, arc.to],
            };
            numbers.extend(points.iter().flat_map(|p| [p.x, p.y]));
        }
    }
    let (mut ours, mut theirs) = (String::new(), String::new());
    compare(
        "write",
        1.0,
        5,
        || {
            ours.clear();
            black_box(&path).write_data(&mut ours);
        },
        || {
            theirs.clear();
            for number in black_box(&numbers) {
                let _ = write!(theirs, "{number}");
            }
        },
    )
}

/// The bytes that ten million straight vertices hold, against 17 a vertex.
pub(crate) fn memory() -> Outcome {
    let n = 10_000_000_usize;
    let mut pen = start((0.0, 0.0));
    for i in 1..n {
        pen = pen.line((i as f64, (i % 7) as f64));
    }
    let path = pen.close();
    let ours: usize = path.contours().iter().map(Contour::heap_bytes).sum();
    Outcome {
        name: "memory",
        ours: ours as f64 / 1e6,
        yardstick: 17.0 * n as f64 / 1e6,
        unit: "MB",
        bar: 1.1,
    }
}
