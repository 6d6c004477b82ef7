//! Colours that follow a path, worked out for every pixel beforehand.

use crate::combine::Triangles;
use crate::ground::{buffer, exhausted};
use crate::number::{Cell, Point};
use crate::path::{Affine, Path, flatten_segment};
use crate::sheet::{Colour, PictureLevel, Shades};

/// Colours of a path's line, by chords: each with its ends, and their colours.
struct Chord {
    from: (Point, Colour),
    to: (Point, Colour),
}

const CLEAR: Colour = Colour { red: 0.0, green: 0.0, blue: 0.0, alpha: 0.0 };

/// How finely a line is cut where colours go along it, in pixels.
const MAX_CHORD_PIXELS: f64 = 1.0;

/// The colours of what a path paints, in pixels, from a column and a row on; straight alpha. `window` is what of the picture is asked for,
/// `half_width` that of a stroke, in pixels; `None` for a fill.
pub(crate) fn path_colours(
    shades: &Shades,
    path: &Path,
    to_pixels: &Affine,
    window: Cell,
    half_width: Option<f64>,
) -> Option<((i64, i64), PictureLevel)> {
    let path = path.transformed(to_pixels);
    let bounds = path.bounds()?.grown(half_width.unwrap_or(0.0) + 2.0);
    let (min, max) = (bounds.min.max(window.min).floor(), bounds.max.min(window.max).ceil());
    if !min.cmplt(max).all() {
        return None;
    }
    let size = max - min;
    let (width, height) = (size.x as usize, size.y as usize);
    if exhausted(width * height / 4) {
        return None;
    }
    let (pixels, set) = (buffer([0; 4], width * height)?, buffer(false, width * height)?);
    let mut canvas = Canvas { level: PictureLevel { width, pixels }, set, corner: min };
    let chords = chords(shades, &path);
    match half_width {
        None if shades.gradient().is_none() => {
            let triangles = Triangles::of(&path, 0.1);
            // Of a path with too many vertices, the colours are those of its rim.
            if triangles.corners.is_empty() {
                canvas.ribbons(&chords, None);
            } else {
                canvas.triangles(&triangles, &chords);
            }
        }
        _ => canvas.ribbons(&chords, half_width),
    }
    canvas.fill_rest();
    Some(((min.x as i64, min.y as i64), canvas.level))
}

/// The chords of all contours with the colours at their ends.
fn chords(shades: &Shades, path: &Path) -> Vec<Chord> {
    let colours = shades.colours();
    let whole = path.length().unwrap_or(0.0).max(1e-300);
    let (mut chords, mut number, mut done) = (Vec::new(), 0, 0.0);
    for contour in path.contours() {
        let count = contour.vertices().count();
        let colour = |at: usize| {
            let at = if contour.is_closed() { at % count.max(1) } else { at };
            colours.get((number + at) % colours.len().max(1)).copied().unwrap_or(CLEAR)
        };
        for (at, segment) in contour.segments().enumerate() {
            let mut points = vec![segment.from()];
            flatten_segment(&segment, 0.1, |p| points.push(p));
            let own: f64 = points.windows(2).map(|pair| pair[0].distance(pair[1])).sum();
            let mut walked = 0.0;
            for pair in points.windows(2) {
                let &[a, b] = pair else { continue };
                let long = a.distance(b);
                let pieces = if shades.gradient().is_some() {
                    (long / MAX_CHORD_PIXELS).ceil().clamp(1.0, 1e6) as usize
                } else {
                    1
                };
                if exhausted(pieces) {
                    return chords;
                }
                for piece in 0..pieces {
                    let end = |share: f64| {
                        let p = a.lerp(b, share);
                        let along = walked + long * share;
                        let colour = match shades.gradient() {
                            Some(gradient) => gradient.at((done + along) / whole),
                            None => {
                                mixed(colour(at), colour(at + 1), if own > 0.0 { along / own } else { 0.0 })
                            }
                        };
                        (p, colour)
                    };
                    let (from, to) = (piece as f64 / pieces as f64, (piece + 1) as f64 / pieces as f64);
                    chords.push(Chord { from: end(from), to: end(to) });
                }
                walked += long;
            }
            done += own;
        }
        number += count;
    }
    chords
}

fn mixed(a: Colour, b: Colour, share: f64) -> Colour {
    let mix = |p: f32, q: f32| p + (q - p) * share as f32;
    Colour {
        red: mix(a.red, b.red),
        green: mix(a.green, b.green),
        blue: mix(a.blue, b.blue),
        alpha: mix(a.alpha, b.alpha),
    }
}

struct Canvas {
    level: PictureLevel,
    set: Vec<bool>,
    corner: Point,
}

impl Canvas {
    /// Sets the pixels of a box that a function has a colour for. What is set already stays, unless it is to be covered.
    fn paint(&mut self, around: Cell, cover: bool, colour: impl Fn(Point) -> Option<Colour>) {
        let (width, height) = (self.level.width, self.level.height());
        let (min, max) = ((around.min - self.corner).floor(), (around.max - self.corner).ceil());
        let clamp = |value: f64, most: usize| value.clamp(0.0, most as f64) as usize;
        for y in clamp(min.y, height)..clamp(max.y, height) {
            for x in clamp(min.x, width)..clamp(max.x, width) {
                let at = y * width + x;
                if !cover && self.set.get(at).copied().unwrap_or(true) {
                    continue;
                }
                let Some(colour) = colour(self.corner + Point::new(x as f64 + 0.5, y as f64 + 0.5)) else {
                    continue;
                };
                if let (Some(pixel), Some(set)) = (self.level.pixels.get_mut(at), self.set.get_mut(at)) {
                    (*pixel, *set) = (colour.to_rgba8(), true);
                }
            }
        }
    }

    fn triangles(&mut self, triangles: &Triangles, chords: &[Chord]) {
        let colours: Vec<Colour> = triangles.points.iter().map(|p| colour_at(chords, *p)).collect();
        // What lies in a triangle first, then what is just outside one.
        for slack in [1e-9, 1.5] {
            for corners in &triangles.corners {
                if exhausted(20) {
                    return;
                }
                let [a, b, c] = corners.map(|at| triangles.points.get(at).copied().unwrap_or_default());
                let [p, q, r] = corners.map(|at| colours.get(at).copied());
                let (Some(p), Some(q), Some(r), Some(around)) = (p, q, r, Cell::of([a, b, c])) else {
                    continue;
                };
                let whole = (b - a).perp_dot(c - a);
                // How far outside a spot may lie, as a share of the triangle's heights.
                let longest = a.distance(b).max(b.distance(c)).max(c.distance(a));
                let out = slack * longest / whole;
                self.paint(around.grown(slack), false, |spot| {
                    let u = (spot - a).perp_dot(c - a) / whole;
                    let v = (b - a).perp_dot(spot - a) / whole;
                    let inside = u >= -out && v >= -out && u + v <= 1.0 + out;
                    let (u, v) = (u.clamp(0.0, 1.0), v.clamp(0.0, 1.0));
                    let over = (u + v).max(1.0);
                    let (u, v) = (u / over, v / over);
                    inside.then(|| {
                        let sum = |p: f32, q: f32, r: f32| p + (q - p) * u as f32 + (r - p) * v as f32;
                        Colour {
                            red: sum(p.red, q.red, r.red),
                            green: sum(p.green, q.green, r.green),
                            blue: sum(p.blue, q.blue, r.blue),
                            alpha: sum(p.alpha, q.alpha, r.alpha),
                        }
                    })
                });
            }
        }
    }

    /// Sets what lies beside each chord, later ones over earlier ones; then what lies round their ends, where nothing is.
    fn ribbons(&mut self, chords: &[Chord], half_width: Option<f64>) {
        let wide = half_width.unwrap_or(2.0) + 2.0;
        for round in [false, true] {
            for chord in chords {
                if exhausted(20) {
                    return;
                }
                let (a, b) = (chord.from.0, chord.to.0);
                let long = a.distance(b);
                let Some(around) = Cell::of([a, b]).filter(|_| long > 0.0) else { continue };
                let way = (b - a) / long;
                self.paint(around.grown(wide), !round, |spot| {
                    let along = (spot - a).dot(way);
                    let beside = (spot - a).perp_dot(way).abs();
                    let share = along / long;
                    let near = if round {
                        spot.distance(a.lerp(b, share.clamp(0.0, 1.0))) <= 2.0 * wide
                    } else {
                        beside <= wide && (-1e-9..=1.0 + 1e-9).contains(&share)
                    };
                    near.then(|| mixed(chord.from.1, chord.to.1, share.clamp(0.0, 1.0)))
                });
            }
        }
    }

    /// Gives pixels without a colour that of one beside them, so that what lies at the rim has one.
    fn fill_rest(&mut self) {
        let (width, height) = (self.level.width, self.level.height());
        for y in 0..height {
            let row = y * width..(y + 1) * width;
            for way in [false, true] {
                let mut last: Option<[u8; 4]> = None;
                for i in 0..width {
                    let at = if way { row.end - 1 - i } else { row.start + i };
                    match (self.set.get(at), last) {
                        (Some(true), _) => last = self.level.pixels.get(at).copied(),
                        (Some(false), Some(colour)) => {
                            if let (Some(pixel), Some(set)) =
                                (self.level.pixels.get_mut(at), self.set.get_mut(at))
                            {
                                (*pixel, *set) = (colour, true);
                            }
                        }
                        _ => {}
                    }
                }
            }
        }
    }
}

/// The colour of the line at the place nearest to a spot.
fn colour_at(chords: &[Chord], spot: Point) -> Colour {
    let mut best: Option<(f64, Colour)> = None;
    for chord in chords {
        let (a, b) = (chord.from.0, chord.to.0);
        let squared = a.distance_squared(b);
        let share = if squared > 0.0 { ((spot - a).dot(b - a) / squared).clamp(0.0, 1.0) } else { 0.0 };
        let apart = a.lerp(b, share).distance_squared(spot);
        if best.is_none_or(|(least, _)| apart < least) {
            best = Some((apart, mixed(chord.from.1, chord.to.1, share)));
        }
    }
    best.map_or(CLEAR, |(_, colour)| colour)
}
