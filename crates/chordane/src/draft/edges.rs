//! Edges of a picture, for vertices to settle on.

use std::fmt;

use crate::number::Point;
use crate::sheet::Picture;

/// A change of a colour channel by less than this from one pixel to the next, of 255, is no edge.
const MIN_EDGE_STRENGTH: f32 = 12.0;

/// What is weaker than this share of the strongest edge around is passed over.
const MIN_RELATIVE_STRENGTH: f32 = 0.5;

/// Where the colours of a picture change, and how much. A pixel is a unit long; the picture's left upper corner is at (0, 0).
///
/// ```
/// use chordane::draft::PictureEdges;
/// use chordane::prelude::*;
/// let page = sheet(60.0, 40.0).ground("white").add(rectangle((20.0, -9.0), 90.0, 90.0).fill("teal"));
/// let pixels = page.pixels()?;
/// let edges = PictureEdges::of(&Picture::from(pixels));
/// let settled = edges.near(pt(23.0, 18.0), 5.0).ok_or("there is no edge")?;
/// assert!((settled.x - 20.0).abs() < 0.3);
/// assert_eq!(edges.near(pt(50.0, 18.0), 5.0), None);
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[derive(Clone)]
pub struct PictureEdges {
    width: usize,
    height: usize,
    /// How the colour changes across and down at each pixel, in the channel that changes most.
    change: Vec<(f32, f32)>,
}

impl fmt::Debug for PictureEdges {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        out.debug_struct("PictureEdges").field("width", &self.width).field("height", &self.height).finish()
    }
}

impl PictureEdges {
    /// The edges of a picture. Cost: linear in its pixels.
    #[must_use]
    pub fn of(picture: &Picture) -> Self {
        let pixels = picture.level(0);
        let (width, height) = (picture.width() as usize, pixels.height());
        let at = |x: isize, y: isize| {
            let clamped = |at: isize, most: usize| at.clamp(0, most as isize - 1) as usize;
            pixels.at(clamped(x, width), clamped(y, height)).map(f32::from)
        };
        let mut change = Vec::with_capacity(width * height);
        for y in 0..height as isize {
            for x in 0..width as isize {
                // Weighted differences of the eight around (I. Sobel and G. Feldman, 1968), an eighth of their sum.
                let around: [[f32; 4]; 9] =
                    std::array::from_fn(|i| at(x + i as isize % 3 - 1, y + i as isize / 3 - 1));
                let [a, b, c, d, _, e, f, g, h] = around;
                let mut most = (0.0, 0.0);
                for i in 0..4 {
                    let across = (c[i] + 2.0 * e[i] + h[i] - a[i] - 2.0 * d[i] - f[i]) / 8.0;
                    let down = (f[i] + 2.0 * g[i] + h[i] - a[i] - 2.0 * b[i] - c[i]) / 8.0;
                    if strength((across, down)) > strength(most) {
                        most = (across, down);
                    }
                }
                change.push(most);
            }
        }
        Self { width, height, change }
    }

    /// The nearest strong edge within a distance: one that is at least half as strong as the strongest there. `None` where no colour changes.
    #[must_use]
    pub fn near(&self, at: Point, within: f64) -> Option<Point> {
        let middle = at.floor();
        let reach = within.clamp(0.0, 200.0).ceil() as isize;
        let (x, y) = (middle.x as isize, middle.y as isize);
        let around = (-reach..=reach)
            .flat_map(|down| (-reach..=reach).map(move |across| (x + across, y + down)))
            .map(|(x, y)| ((x, y), Point::new(x as f64 + 0.5, y as f64 + 0.5)))
            .filter(|(_, spot)| spot.distance(at) <= within);
        let all: Vec<((isize, isize), Point)> = around.collect();
        let strongest =
            all.iter().map(|((x, y), _)| strength(self.at(*x, *y))).fold(0.0, |a: f32, b| a.max(b));
        if strongest < MIN_EDGE_STRENGTH {
            return None;
        }
        let ridge = all.into_iter().filter_map(|((x, y), spot)| {
            let change = self.at(x, y);
            let own = strength(change);
            if own < MIN_RELATIVE_STRENGTH * strongest {
                return None;
            }
            // Highest on its own across the edge, and where between pixels, by a parabola through three.
            let along = Point::new(f64::from(change.0), f64::from(change.1)) / f64::from(own);
            let (before, behind) = (self.between(spot - along), self.between(spot + along));
            let own = f64::from(own);
            if before > own || behind > own {
                return None;
            }
            let bend = before - 2.0 * own + behind;
            let shift = if bend < -1e-6 { 0.5 * (before - behind) / bend } else { 0.0 };
            Some(spot + along * shift.clamp(-0.5, 0.5))
        });
        ridge.min_by(|a, b| a.distance(at).total_cmp(&b.distance(at)))
    }

    fn at(&self, x: isize, y: isize) -> (f32, f32) {
        let inside = x >= 0 && y >= 0 && (x as usize) < self.width && (y as usize) < self.height;
        let place = inside.then(|| y as usize * self.width + x as usize);
        place.and_then(|place| self.change.get(place)).copied().unwrap_or_default()
    }

    /// How strong the edge is between pixels.
    fn between(&self, at: Point) -> f64 {
        let corner = (at - 0.5).floor();
        let share = at - 0.5 - corner;
        let (x, y) = (corner.x as isize, corner.y as isize);
        let own = |x: isize, y: isize| f64::from(strength(self.at(x, y)));
        let row = |y: isize| own(x, y) * (1.0 - share.x) + own(x + 1, y) * share.x;
        row(y) * (1.0 - share.y) + row(y + 1) * share.y
    }
}

fn strength((across, down): (f32, f32)) -> f32 {
    across.hypot(down)
}
