//! The pairs of drawing.

use std::hint::black_box;

use chordane::prelude::*;

use crate::inputs::{Random, blob};
use crate::{Outcome, compare};

const SIDE: u32 = 2048;

/// One opaque smooth blob over about three quarters of the picture, against filling the picture's bytes.
pub(crate) fn fill_large() -> Outcome {
    let side = f64::from(SIDE);
    let sheet = sheet(side, side).add(blob(side).fill("#c8553d"));
    let mut picture = picture_of(SIDE, SIDE);
    let mut buffer = picture_of(SIDE, SIDE);
    let mut shade = 0;
    compare(
        "fill-large",
        1.2,
        41,
        || picture.draw(black_box(&sheet)).unwrap(),
        || {
            shade += 1;
            black_box(buffer.as_mut_slice()).fill([shade, 85, 61, 255]);
        },
    )
}

/// The same blob in a radial gradient, against one colour.
pub(crate) fn gradient() -> Outcome {
    let side = f64::from(SIDE);
    let middle = (side * 0.5, side * 0.5);
    let glow = radial_gradient(middle, side * 0.4).colours(["#ffe9a8", "#c8553d", "#20303c"]);
    let (shaded, plain) =
        (sheet(side, side).add(blob(side).fill(glow)), sheet(side, side).add(blob(side).fill("#c8553d")));
    let (mut picture, mut other) = (picture_of(SIDE, SIDE), picture_of(SIDE, SIDE));
    compare(
        "gradient",
        3.5,
        41,
        || picture.draw(black_box(&shaded)).unwrap(),
        || other.draw(black_box(&plain)).unwrap(),
    )
}

/// A hundred thousand small convex shapes, against filling the pixels that they touch, row by row.
pub(crate) fn fill_many() -> Outcome {
    let mut random = Random::new(3);
    let side = f64::from(SIDE);
    let mut touched: Vec<(usize, usize, usize)> = Vec::new();
    let mut shapes = Vec::new();
    for i in 0..100_000_usize {
        let centre = pt(8.0, 8.0) + random.point(side - 16.0);
        // About 60 pixels each: the area of a regular polygon is n r^2 sin(2 pi / n) / 2.
        let sides = 5 + i % 4;
        let n = sides as f64;
        let radius = (120.0 / (n * turns(1.0 / n).sin())).sqrt();
        let shape = polygon(centre, sides, radius).rotated_about(centre, deg(random.between(0.0, 90.0)));
        let corners: Vec<Point> = shape.contours()[0].vertices().collect();
        touched.extend(rows(&corners));
        let colour = Colour::from_rgba8([(i % 251) as u8, (i % 241) as u8, (i % 239) as u8, 255]);
        shapes.push(shape.fill(colour));
    }
    let sheet = sheet(side, side).add_all(shapes);
    let mut picture = picture_of(SIDE, SIDE);
    picture.as_mut_slice().fill([255; 4]);
    let mut buffer = picture_of(SIDE, SIDE);
    compare(
        "fill-many",
        8.0,
        21,
        || picture.draw(black_box(&sheet)).unwrap(),
        || {
            let pixels = black_box(buffer.as_mut_slice());
            for &(row, from, to) in &touched {
                let at = row * SIDE as usize;
                pixels[at + from..at + to].fill([200, 85, 61, 255]);
            }
        },
    )
}

/// The pixels of each row that a convex polygon touches.
fn rows(corners: &[Point]) -> Vec<(usize, usize, usize)> {
    let top = corners.iter().map(|p| p.y).fold(f64::INFINITY, f64::min).floor();
    let bottom = corners.iter().map(|p| p.y).fold(f64::NEG_INFINITY, f64::max).ceil();
    let mut rows = Vec::new();
    for row in top as usize..bottom as usize {
        let (low, high) = (row as f64, row as f64 + 1.0);
        let (mut left, mut right) = (f64::INFINITY, f64::NEG_INFINITY);
        for (i, a) in corners.iter().enumerate() {
            let b = corners[(i + 1) % corners.len()];
            let (a, b) = if a.y <= b.y { (*a, b) } else { (b, *a) };
            let (from, to) = (a.y.max(low), b.y.min(high));
            if from <= to {
                for y in [from, to] {
                    let x = if a.y == b.y { a.x } else { a.x + (b.x - a.x) * (y - a.y) / (b.y - a.y) };
                    left = left.min(x);
                    right = right.max(x);
                }
            }
        }
        if left < right {
            rows.push((row, left.floor() as usize, right.ceil() as usize));
        }
    }
    rows
}

/// A line of a hundred thousand vertices with round joins, against filling its outline.
pub(crate) fn stroke_long() -> Outcome {
    let mut random = Random::new(11);
    let side = f64::from(SIDE);
    let mut at = pt(side, side) * 0.5;
    let mut heading = deg(0.0);
    let mut line = Vec::with_capacity(100_000);
    for _ in 0..100_000 {
        heading += deg(random.between(-50.0, 50.0));
        let next = at + polar(heading, random.between(4.0, 12.0));
        let inside = next.min_element() > 5.0 && next.max_element() < side - 5.0;
        if !inside {
            heading += deg(180.0);
        }
        at = if inside { next } else { at + polar(heading, 6.0) };
        line.push(at);
    }
    let line = Path::open(line);
    let outline = line.stroke_chords(&LineStyle { join: Join::Round, ..LineStyle::new(3.0) }, 0.01);
    let stroked = sheet(side, side).add(line.stroke("#20303c", 3.0).join(Join::Round));
    let filled = sheet(side, side).add(outline.fill("#20303c"));
    let mut pictures = [picture_of(SIDE, SIDE), picture_of(SIDE, SIDE)];
    let [first, second] = &mut pictures;
    compare(
        "stroke-long",
        1.5,
        9,
        || first.draw(black_box(&stroked)).unwrap(),
        || second.draw(black_box(&filled)).unwrap(),
    )
}

/// The chords of ten thousand curves and arcs at a tolerance of 0.1, against the fewest that any method could do
/// with: by the curvature integral, the chord of a curve with curvature k that strays by e is sqrt(8 e / k) long,
/// so a curve needs the integral of sqrt(k / (8 e)) along it; rounded up, since a curve has whole chords.
pub(crate) fn flatten() -> Outcome {
    let tolerance = 0.1;
    let mut random = Random::new(5);
    let (mut ours, mut fewest) = (0.0, 0.0);
    for i in 0..10_000 {
        let curve = if i % 4 == 3 {
            let radii = pt(random.between(20.0, 300.0), random.between(20.0, 300.0));
            let from = random.point(400.0);
            let to = random.point(400.0);
            let (large, clockwise) = (random.between(0.0, 1.0) < 0.5, random.between(0.0, 1.0) < 0.5);
            let tilt = random.between(0.0, 90.0);
            let flags = |flag: bool| u8::from(flag);
            let data = format!(
                "M{} {}A{} {} {tilt} {} {} {} {}",
                from.x,
                from.y,
                radii.x,
                radii.y,
                flags(large),
                flags(clockwise),
                to.x,
                to.y
            );
            Path::from_data(&data).unwrap()
        } else {
            start(random.point(400.0))
                .cubic(random.point(400.0), random.point(400.0), random.point(400.0))
                .open()
        };
        ours += curve.flattened(tolerance).segments().count() as f64;
        let need: f64 = curve.segments().map(|segment| chords_needed(&segment, tolerance)).sum();
        fewest += need.ceil().max(1.0);
    }
    Outcome { name: "flatten", ours, yardstick: fewest, unit: "chords", bar: 1.05 }
}

/// The curvature integral, by the midpoint rule over many small steps.
fn chords_needed(segment: &Segment, tolerance: f64) -> f64 {
    let steps = 4000;
    let h = 1.0 / f64::from(steps);
    let mut sum = 0.0;
    let mut before = segment.velocity(0.0);
    for i in 0..steps {
        let after = segment.velocity(f64::from(i + 1) * h);
        let middle = segment.velocity((f64::from(i) + 0.5) * h);
        // Curvature times speed is the rate at which the direction turns.
        let turn = before.perp_dot(after).atan2(before.dot(after)).abs();
        sum += (turn * middle.length() * h / (8.0 * tolerance)).sqrt();
        before = after;
    }
    sum
}

/// A transparent picture.
fn picture_of(width: u32, height: u32) -> Pixels {
    Pixels::new(width, height).unwrap_or_else(|error| panic!("{error}"))
}
