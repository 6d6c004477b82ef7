//! Outlines of the flat-coloured areas of a picture, proposed as shapes of a draft.

use std::collections::HashMap;

use super::outline_fit::fitted;
use super::{Draft, Step};
use crate::ground::{Fault, exhausted, limited};
use crate::number::Point;
use crate::path::Path;
use crate::sheet::Picture;

/// So many colours are told apart.
const MAX_COLOURS: usize = 12;

/// Colours nearer to one another than this, of 255, are one.
const MIN_COLOUR_DISTANCE: f64 = 42.0;

/// A pixel that differs by less than this from those beside it lies in an area.
const MAX_FLAT_DIFFERENCE: f64 = 24.0;

/// A colour that fewer than this share of the pixels have is none of its own.
const MIN_COLOUR_FRACTION: f64 = 0.002;

/// Areas smaller than this share of the picture, or than so many pixels, are left out.
const MIN_AREA_FRACTION: f64 = 0.0002;
const MIN_AREA_PIXELS: f64 = 24.0;

/// A colour of at least this share of the picture's rim is the ground.
const MIN_BACKGROUND_FRACTION: f64 = 0.08;

/// So many areas are proposed, the largest.
const MAX_AREAS: usize = 200;

impl Draft {
    /// Proposes outlines for the one-coloured areas of a picture: shapes of few vertices, with their holes, the largest first. Vertices are corners where the rim of an
    /// area turns by more than 42 degrees, and soft ones between, as few as keep the outline within a distance of the rim.
    ///
    /// A pixel is a unit long, and the picture's left upper corner is at (0, 0). `within` is in pixels, at least 0.1; 0.75 where it is no finite number. Colours that take up 8 % or
    /// more of the picture's border count as its ground and are left out, as are areas of less than 24 pixels or 0.02 % of the picture. At most 12 colours are told
    /// apart, and 200 areas proposed, each filled with its own colour. A picture with no such area gives an empty draft. Cost: linear in the pixels for each colour, and some for each vertex.
    ///
    /// ```
    /// use chordane::draft::Draft;
    /// use chordane::prelude::*;
    /// let page = sheet(90.0, 60.0).ground("white").add(Path::closed([(10.0, 10.0), (80.0, 10.0), (45.0, 50.0)]).fill("teal"));
    /// let pixels = page.pixels()?;
    /// let draft = Draft::of_picture(&Picture::from(pixels), 0.75)?;
    /// let shapes: Vec<_> = draft.shapes().map(|shape| (shape.vertices.len(), shape.colour)).collect();
    /// assert_eq!(shapes, [(3, Some([0, 128, 128]))]);
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    ///
    /// # Errors
    ///
    /// That the work was stopped; see [`Budget`](crate::ground::Budget).
    pub fn of_picture(picture: &Picture, within: f64) -> Result<Self, Fault> {
        limited("of_picture", || Self::proposed(picture, within))
    }

    fn proposed(picture: &Picture, within: f64) -> Self {
        let within = if within.is_finite() { within.max(0.1) } else { 0.75 };
        let areas = areas(picture);
        let (mut steps, mut begun) = (Vec::new(), 0);
        for area in areas.iter().take(MAX_AREAS) {
            let outlines = area.rims.iter().map(|rim| fitted(rim, within));
            let mut outlines = outlines.map(|vertices| Some(vertices).filter(|all| all.len() > 1));
            let Some(Some(outer)) = outlines.next() else { continue };
            let shape = begun + 1;
            for (number, vertices) in std::iter::once(outer).chain(outlines.flatten()).enumerate() {
                if number > 0 {
                    steps.push(Step::Hole { shape });
                }
                steps.extend(vertices.iter().map(|vertex| Step::Add { at: vertex.at, kind: vertex.kind }));
                steps.push(Step::Finish { closed: true });
                begun += 1;
            }
            steps.push(Step::Fill { shape, colour: area.colour });
        }
        Self::of(steps)
    }
}

/// An area: its rim, and those of its holes after it.
struct Area {
    rims: Vec<Vec<Point>>,
    size: f64,
    colour: [u8; 3],
}

/// The areas of a picture, the largest first.
fn areas(picture: &Picture) -> Vec<Area> {
    let pixels = picture.level(0);
    let (width, height) = (picture.width() as usize, pixels.height());
    if width < 2 || height < 2 {
        return Vec::new();
    }
    let colours: Vec<[f64; 3]> = (0..height)
        .flat_map(|y| (0..width).map(move |x| (x, y)))
        .map(|(x, y)| {
            let [red, green, blue, alpha] = pixels.at(x, y).map(f64::from);
            // What is transparent lies on white.
            [red, green, blue].map(|channel| channel + 255.0 - alpha)
        })
        .collect();
    let known = known_colours(&colours, width);
    let nearest = |colour: &[f64; 3]| {
        let all = known.iter().enumerate().map(|(at, own)| (at, apart(colour, own)));
        all.min_by(|a, b| a.1.total_cmp(&b.1)).map_or(0, |(at, _)| at)
    };
    // The ground is what much of the picture's rim has.
    let mut on_rim = vec![0_usize; known.len()];
    for (at, colour) in colours.iter().enumerate() {
        let (x, y) = (at % width, at / width);
        if (x == 0 || y == 0 || x + 1 == width || y + 1 == height)
            && let Some(count) = on_rim.get_mut(nearest(colour))
        {
            *count += 1;
        }
    }
    let much = (MIN_BACKGROUND_FRACTION * on_rim.iter().sum::<usize>() as f64).max(1.0);
    let is_ground = |at: usize| on_rim.get(at).is_some_and(|count| *count as f64 >= much);
    let smallest = MIN_AREA_PIXELS.max(MIN_AREA_FRACTION * colours.len() as f64);
    let mut all = Vec::new();
    for (number, own) in known.iter().enumerate() {
        if is_ground(number) || exhausted(colours.len()) {
            continue;
        }
        // How much of a pixel has this colour: where two mix at an edge, each has its share.
        let share = |colour: &[f64; 3]| {
            let others = known.iter().enumerate().filter(|(at, _)| *at != number);
            let other = others.map(|(_, other)| apart(colour, other)).fold(f64::INFINITY, f64::min);
            let own = apart(colour, own);
            if own + other > 0.0 { other / (own + other) } else { 0.5 }
        };
        let field: Vec<f64> = colours.iter().map(share).collect();
        let colour = own.map(|channel| channel.round().clamp(0.0, 255.0) as u8);
        all.extend(of_rims(rims(&field, width, height), smallest, colour));
    }
    all.sort_by(|a, b| b.size.total_cmp(&a.size));
    all
}

fn apart(a: &[f64; 3], b: &[f64; 3]) -> f64 {
    a.iter().zip(b).map(|(a, b)| (a - b) * (a - b)).sum::<f64>().sqrt()
}

/// The colours that many pixels have. Those at edges, where colours mix, are left out.
fn known_colours(colours: &[[f64; 3]], width: usize) -> Vec<[f64; 3]> {
    let mut bins: HashMap<[u8; 3], (usize, [f64; 3])> = HashMap::new();
    let is_flat = |at: usize, own: &[f64; 3]| {
        let beside = [at.checked_sub(1), Some(at + 1), at.checked_sub(width), Some(at + width)];
        let known = beside.into_iter().flatten().filter_map(|other| colours.get(other));
        known.into_iter().all(|other| apart(own, other) < MAX_FLAT_DIFFERENCE)
    };
    for (_, colour) in colours.iter().enumerate().filter(|(at, own)| is_flat(*at, own)) {
        let bin = bins.entry(colour.map(|channel| channel as u8 >> 3)).or_default();
        bin.0 += 1;
        bin.1.iter_mut().zip(colour).for_each(|(sum, channel)| *sum += channel);
    }
    let mut bins: Vec<([u8; 3], usize, [f64; 3])> =
        bins.into_iter().map(|(bin, (count, sum))| (bin, count, sum.map(|sum| sum / count as f64))).collect();
    bins.sort_by(|a, b| b.1.cmp(&a.1).then(a.0.cmp(&b.0)));
    let fewest = (MIN_COLOUR_FRACTION * colours.len() as f64).max(1.0);
    let mut known: Vec<[f64; 3]> = Vec::new();
    for (_, _, mean) in &bins {
        if known.len() >= MAX_COLOURS || known.iter().any(|own| apart(own, mean) < MIN_COLOUR_DISTANCE) {
            continue;
        }
        let near = bins.iter().filter(|(_, _, other)| apart(mean, other) < MIN_COLOUR_DISTANCE / 2.0);
        let count: usize = near.map(|(_, count, _)| count).sum();
        if count as f64 >= fewest {
            known.push(*mean);
        }
    }
    known
}

/// The rims on which a field of pixels is one half, with what is above it on the right as seen; by marching over squares of four pixels
/// (W. E. Lorensen and H. E. Cline, 1987, in the plane). Around the picture the field is 0.
fn rims(field: &[f64], width: usize, height: usize) -> Vec<Vec<Point>> {
    let at = |x: usize, y: usize| {
        // One more on each side.
        let inside = x >= 1 && y >= 1 && x <= width && y <= height;
        if inside { field.get((y - 1) * width + x - 1).copied().unwrap_or(0.0) } else { 0.0 }
    };
    // From the crossing of one side of a square to that of another; sides by their pixel and whether they run down.
    type Side = (usize, usize, bool);
    let mut next: HashMap<Side, Side> = HashMap::new();
    for y in 0..=height {
        for x in 0..=width {
            let corners = [at(x, y), at(x + 1, y), at(x + 1, y + 1), at(x, y + 1)];
            let above = corners.map(|value| value > 0.5);
            let sides: [Side; 4] = [(x, y, false), (x + 1, y, true), (x, y + 1, false), (x, y, true)];
            // A rim enters through the side behind which it comes up, going round, and leaves where it goes down.
            let changes: Vec<(usize, bool)> = (0..4)
                .filter(|side| above[*side] != above[(side + 1) % 4])
                .map(|side| (side, above[(side + 1) % 4]))
                .collect();
            let mut link = |from: usize, to: usize| {
                next.insert(sides[from], sides[to]);
            };
            match changes.as_slice() {
                [(a, true), (b, false)] => link(*b, *a),
                [(a, false), (b, true)] => link(*a, *b),
                [_, _, _, _] => {
                    // Two opposite corners are above: joined where the middle is.
                    let joined = corners.iter().sum::<f64>() > 2.0;
                    let ups: Vec<usize> =
                        changes.iter().filter(|(_, up)| *up).map(|(side, _)| *side).collect();
                    for up in ups {
                        let down = if joined { (up + 3) % 4 } else { (up + 1) % 4 };
                        link(down, up);
                    }
                }
                _ => {}
            }
        }
    }
    let place = |(x, y, down): Side| {
        let (a, b) = (at(x, y), if down { at(x, y + 1) } else { at(x + 1, y) });
        let share = if a == b { 0.5 } else { ((0.5 - a) / (b - a)).clamp(0.0, 1.0) };
        // The middle of the pixel before the first one is at -0.5.
        let corner = Point::new(x as f64 - 0.5, y as f64 - 0.5);
        corner + if down { Point::new(0.0, share) } else { Point::new(share, 0.0) }
    };
    let mut all = Vec::new();
    let mut begins: Vec<Side> = next.keys().copied().collect();
    begins.sort_unstable();
    for begin in begins {
        let (mut rim, mut side) = (Vec::new(), begin);
        while let Some(after) = next.remove(&side) {
            rim.push(place(side));
            side = after;
        }
        if rim.len() > 2 {
            all.push(rim);
        }
    }
    all
}

/// Rims put together to areas: each outer one with the holes that lie in it.
fn of_rims(rims: Vec<Vec<Point>>, smallest: f64, colour: [u8; 3]) -> Vec<Area> {
    let size = |rim: &[Point]| {
        let next = rim.iter().skip(1).chain(rim.first());
        rim.iter().zip(next).map(|(a, b)| a.perp_dot(*b)).sum::<f64>() * 0.5
    };
    let sized: Vec<(f64, Vec<Point>)> = rims.into_iter().map(|rim| (size(&rim), rim)).collect();
    let (outer, holes): (Vec<_>, Vec<_>) =
        sized.into_iter().filter(|(size, _)| size.abs() >= smallest).partition(|(size, _)| *size > 0.0);
    let mut areas: Vec<(Path, Area)> = outer
        .into_iter()
        .map(|(size, rim)| (Path::closed(rim.iter().copied()), Area { rims: vec![rim], size, colour }))
        .collect();
    for (_, hole) in holes {
        let Some(first) = hole.first() else { continue };
        let around = areas.iter_mut().filter(|(path, _)| path.inside(*first));
        if let Some((_, area)) = around.min_by(|(_, a), (_, b)| a.size.total_cmp(&b.size)) {
            area.rims.push(hole);
        }
    }
    areas.into_iter().map(|(_, area)| area).collect()
}
