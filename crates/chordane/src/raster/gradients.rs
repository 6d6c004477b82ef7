//! Gradients on pixels: a table of colours, and for every pixel the share of the way at which it lies.

use std::collections::HashMap;
use std::sync::Arc;

use super::pixel::{FULL, Pixel, Rgba};
use super::shader::{Ground, Shader};
use crate::number::Point;
use crate::path::Affine;
use crate::sheet::{Gradient, GradientKind, Spread};

/// Colours of the table. Half a step between two of them is less than half a level of eight bits, unless all changes within an
/// eighth of the way.
const TABLE_SIZE: usize = 4096;

/// Pixels per chunk. Inner loops over a chunk auto-vectorise.
const RUN: usize = 64;

/// The numbers of the pixels of a run: turned into decimals here, since the machine does that one by one.
static PIXEL_INDICES: [f32; RUN] = {
    let mut numbers = [0.0; RUN];
    let mut i = 0;
    while i < RUN {
        numbers[i] = i as f32;
        i += 1;
    }
    numbers
};

/// Maximum distance of a focus from the centre, in radii, for the shader of a focus inside the circle; beyond it the cone shader is used.
const WITHIN: f64 = 0.999;

/// So many spots along x and along y a pixel is looked at where colours change at once.
const SAMPLES_PER_AXIS: u32 = 4;

/// The table index of an unpainted pixel.
const NOWHERE: u32 = u32::MAX;

type Table = [Rgba; TABLE_SIZE];

/// Tables that were made: many items may be painted with one gradient.
#[derive(Debug, Default)]
pub(super) struct Tables(HashMap<(usize, u64), Arc<Table>>);

impl Tables {
    /// The colours of a gradient faded by an opacity.
    fn of(&mut self, gradient: &Arc<Gradient>, opacity: f64) -> Arc<Table> {
        // What is painted holds on to its gradient, so that no other comes to stand in its place.
        let key = (Arc::as_ptr(gradient) as usize, opacity.to_bits());
        let made = self.0.entry(key).or_insert_with(|| {
            let mut table = [[0; 4]; TABLE_SIZE];
            for (i, slot) in table.iter_mut().enumerate() {
                *slot = gradient.at((i as f64 + 0.5) / TABLE_SIZE as f64).faded(opacity).to_rgba8();
            }
            Arc::new(table)
        });
        Arc::clone(made)
    }
}

/// A gradient ready to be put on pixels.
#[derive(Debug)]
pub(super) struct Shading {
    table: Arc<Table>,
    opaque: bool,
    /// Whether its colours change at once somewhere: such edges are smoothed.
    edged: bool,
    /// Whether some points may be unpainted.
    holed: bool,
    /// From the middles of pixels to the gradient's own measure: along x from 0 to 1; the circle of radius 1; or the beginning of
    /// the sweep along x.
    from_pixels: Affine,
    way: Way,
    spread: Spread,
}

#[derive(Clone, Copy, Debug)]
enum Way {
    Flat,
    Linear,
    Round,
    /// With a focus at a distance from the centre along x.
    Focused(f32),
    /// From the focal circle to the end circle.
    Cone(Cone),
    Sweep,
}

/// Two circles, the first centred at the origin and the second on the x axis. The gradient interpolates between them and extrapolates beyond; later circles
/// cover earlier ones.
#[derive(Clone, Copy, Debug)]
struct Cone {
    first: f32,
    centre: f32,
    second: f32,
}

impl Cone {
    /// Returns `true` if no circle passes through some points: unless one circle contains the other.
    fn has_sides(self) -> bool {
        self.centre >= (self.second - self.first).abs()
    }

    /// Returns the gradient offset of the last circle through a point, or NaN if there is none.
    #[inline]
    fn share(self, u: f32, v: f32) -> f32 {
        // The distance from the point to the centre at t equals the radius at t: a quadratic in t.
        let growth = self.second - self.first;
        let a = self.centre * self.centre - growth * growth;
        let b = u * self.centre + self.first * growth;
        let c = u * u + v * v - self.first * self.first;
        let sound = |t: f32| if self.first + t * growth >= 0.0 { t } else { f32::NAN };
        if a == 0.0 && growth == 0.0 {
            // Equal circles: an abrupt change at the circle.
            return if c > 0.0 { 1.0 } else { 0.0 };
        }
        if a == 0.0 {
            return sound(c / (2.0 * b));
        }
        let root = (b * b - a * c).sqrt();
        let (p, q) = ((b + root) / a, (b - root) / a);
        // The larger valid root. `max` ignores NaN.
        sound(p).max(sound(q))
    }
}

impl Shading {
    /// A gradient faded by an opacity, on what has some bounds and is put on the pixels by a transform; `placed` puts it on the sheet.
    pub(super) fn new(
        gradient: &Arc<Gradient>,
        opacity: f64,
        (bounds, placed, to_pixels): Ground<'_>,
        tables: &mut Tables,
    ) -> Self {
        let table = tables.of(gradient, opacity);
        let (own, way) = match gradient.kind {
            GradientKind::Linear { from, to } => {
                let along = to - from;
                (Affine::from_cols(along, along.perp(), from), Way::Linear)
            }
            GradientKind::Radial { centre, radius, focus, focus_radius }
                if focus_radius > 0.0 || focus.distance(centre) > WITHIN * radius =>
            {
                let arm = centre - focus;
                let turn = if arm == Point::ZERO { 0.0 } else { arm.y.atan2(arm.x) };
                let scale = radius.max(focus_radius).max(arm.length());
                let own = Affine::from_scale_angle_translation(Point::splat(scale), turn, focus);
                let [first, centre, second] =
                    [focus_radius, arm.length(), radius].map(|length| (length / scale) as f32);
                (own, Way::Cone(Cone { first, centre, second }))
            }
            GradientKind::Radial { centre, radius, focus, .. } => {
                let arm = focus - centre;
                let turn = if arm == Point::ZERO { 0.0 } else { arm.y.atan2(arm.x) };
                let own = Affine::from_scale_angle_translation(Point::splat(radius), turn, centre);
                let off = (arm.length() / radius) as f32;
                (own, if off > 0.0 { Way::Focused(off) } else { Way::Round })
            }
            GradientKind::Sweep { centre, start } => {
                (Affine::from_angle_translation(start.radians(), centre), Way::Sweep)
            }
        };
        let whole = gradient.frame_of(bounds, placed).map(|frame| *to_pixels * frame * own);
        let undone = whole.filter(|map| map.matrix2.determinant().abs() > 0.0).map(|map| map.inverse());
        let usable = undone.filter(|map| map.is_finite() && !gradient.is_flat());
        let holed = usable.is_some() && matches!(way, Way::Cone(cone) if cone.has_sides());
        Self {
            edged: usable.is_some() && (holed || gradient.is_edged()),
            holed,
            opaque: !holed && table.iter().all(|colour| colour[3] == 255),
            table,
            from_pixels: usable.unwrap_or_default(),
            way: if usable.is_some() { way } else { Way::Flat },
            spread: gradient.spread,
        }
    }

    /// Returns a colour of the table, or a transparent one for [`NOWHERE`].
    #[inline]
    fn colour(&self, place: u32) -> Rgba {
        if self.holed && place == NOWHERE {
            return [0; 4];
        }
        // Never past its end, which the machine need not look at then.
        self.table[place as usize & (TABLE_SIZE - 1)]
    }

    /// The places in the table for spots in a row, a pixel apart, from one on.
    #[inline]
    fn places(&self, at: Point, places: &mut [u32]) {
        let begin = self.from_pixels.transform_point2(at);
        let step = self.from_pixels.matrix2.x_axis;
        let (px, py) = (begin.x as f32, begin.y as f32);
        let (dx, dy) = (step.x as f32, step.y as f32);
        let spread = self.spread;
        match self.way {
            Way::Flat => places.fill(TABLE_SIZE as u32 - 1),
            Way::Linear => fill(places, spread, |i| px + i * dx),
            Way::Round => fill(places, spread, |i| {
                let (u, v) = (px + i * dx, py + i * dy);
                (u * u + v * v).sqrt()
            }),
            Way::Focused(off) => {
                let rest = 1.0 - off * off;
                fill(places, spread, |i| {
                    let (u, v) = (px + i * dx - off, py + i * dy);
                    let along = u * off;
                    (along + (along * along + rest * (u * u + v * v)).sqrt()) / rest
                });
            }
            Way::Cone(cone) => {
                fill(places, spread, |i| cone.share(px + i * dx, py + i * dy));
                for (slot, i) in places.iter_mut().zip(&PIXEL_INDICES).filter(|_| self.holed) {
                    if cone.share(px + i * dx, py + i * dy).is_nan() {
                        *slot = NOWHERE;
                    }
                }
            }
            Way::Sweep => fill(places, Spread::Repeat, |i| {
                (py + i * dy).atan2(px + i * dx) * (0.5 / std::f32::consts::PI)
            }),
        }
    }
}

impl Shading {
    /// Paints a run with the means of the colours at sixteen spots of each pixel.
    fn smooth<P: Pixel>(&self, at: Point, places: &mut [u32], run: &mut [P], share: u32) {
        let mut sums = [[0_u32; 4]; RUN];
        for spot in 0..SAMPLES_PER_AXIS * SAMPLES_PER_AXIS {
            let off = Point::new(f64::from(spot % SAMPLES_PER_AXIS), f64::from(spot / SAMPLES_PER_AXIS));
            self.places(at + (off + 0.5) / f64::from(SAMPLES_PER_AXIS) - 0.5, places);
            for (sum, place) in sums.iter_mut().zip(places.iter()) {
                let [red, green, blue, alpha] = self.colour(*place).map(u32::from);
                *sum = [sum[0] + red * alpha, sum[1] + green * alpha, sum[2] + blue * alpha, sum[3] + alpha];
            }
        }
        for (pixel, [red, green, blue, alpha]) in run.iter_mut().zip(sums) {
            if alpha > 0 {
                let [red, green, blue] = [red, green, blue].map(|sum| ((sum + alpha / 2) / alpha) as u8);
                let own = (u64::from(alpha) * u64::from(share))
                    .div_ceil(u64::from(255 * SAMPLES_PER_AXIS * SAMPLES_PER_AXIS));
                *pixel = pixel.over([red, green, blue, 255], (own as u32).min(FULL));
            }
        }
    }
}

/// Turns shares of the way into places in the table, for a run at most.
#[inline]
fn fill(places: &mut [u32], spread: Spread, share: impl Fn(f32) -> f32) {
    const LAST: f32 = (TABLE_SIZE - 1) as f32;
    // Beside so large a number the digits of a sum are whole: they stand in its lowest bits, without a conversion, which would be
    // done one by one.
    const ROUNDING_BIAS: f32 = (1 << 23) as f32;
    #[expect(
        clippy::manual_clamp,
        reason = "it leaves what is not a number as it is, which costs a quarter more"
    )]
    let place = |t: f32| ((t * TABLE_SIZE as f32 - 0.5).max(0.0).min(LAST) + ROUNDING_BIAS).to_bits();
    let slots = places.iter_mut().zip(&PIXEL_INDICES);
    match spread {
        Spread::Pad => slots.for_each(|(slot, i)| *slot = place(share(*i))),
        Spread::Repeat => slots.for_each(|(slot, i)| {
            let t = share(*i);
            *slot = place(t - t.floor());
        }),
        Spread::Reflect => slots.for_each(|(slot, i)| {
            let t = share(*i) * 0.5;
            *slot = place(1.0 - (2.0 * (t - t.floor()) - 1.0).abs());
        }),
    }
}

impl Shader for &Shading {
    fn span<P: Pixel>(self, x: usize, y: usize, pixels: &mut [P], coverage: f32) {
        let share = (coverage * FULL as f32 + 0.5) as u32;
        if share == 0 {
            return;
        }
        let mut places = [0_u32; RUN];
        let mut begin = x;
        for run in pixels.chunks_mut(RUN) {
            let Some(places) = places.get_mut(..run.len()) else { continue };
            let at = Point::new(begin as f64 + 0.5, y as f64 + 0.5);
            begin += run.len();
            if self.edged {
                self.smooth(at, places, run, share);
                continue;
            }
            self.places(at, places);
            let colours = places.iter().map(|place| self.colour(*place));
            if share >= FULL && self.opaque {
                run.iter_mut().zip(colours).for_each(|(pixel, colour)| *pixel = P::opaque(colour));
            } else {
                for (pixel, colour) in run.iter_mut().zip(colours) {
                    let own = (u32::from(colour[3]) * share.min(FULL) + 127) / 255;
                    if own > 0 {
                        *pixel = pixel.over(colour, own);
                    }
                }
            }
        }
    }

    fn dot<P: Pixel>(self, x: usize, y: usize, pixel: &mut P, coverage: f32) {
        self.span(x, y, std::slice::from_mut(pixel), coverage);
    }
}

#[cfg(test)]
mod tests {
    use crate::prelude::*;
    use crate::sheet::GradientKind;

    /// The slow twin: the share of the way of a spot, by looking for the circle through it, or by angles.
    fn share(gradient: &Gradient, spot: Point) -> f64 {
        let plain = match gradient.kind {
            GradientKind::Linear { from, to } => (spot - from).dot(to - from) / (to - from).length_squared(),
            GradientKind::Radial { centre, radius, focus, focus_radius } => {
                // Nested circles: the point is outside the earlier circles, or outside the later ones.
                let growth = radius - focus_radius;
                let point = -focus_radius / growth;
                let (mut outside, mut inside) = (point, point + growth.signum() * 1e3);
                for _ in 0..80 {
                    let middle: f64 = (outside + inside) * 0.5;
                    let at = focus + (centre - focus) * middle;
                    let beyond = at.distance(spot) > focus_radius + growth * middle;
                    *(if beyond { &mut outside } else { &mut inside }) = middle;
                }
                inside
            }
            GradientKind::Sweep { centre, start } => {
                return (Angle::of(spot - centre) - start).wrapped().turns();
            }
        };
        match gradient.spread {
            Spread::Pad => plain.clamp(0.0, 1.0),
            Spread::Repeat => plain.rem_euclid(1.0),
            Spread::Reflect => {
                let twice = plain.rem_euclid(2.0);
                if twice > 1.0 { 2.0 - twice } else { twice }
            }
        }
    }

    #[test]
    fn every_pixel_is_within_a_level_of_its_own_colour() {
        let kinds = [
            linear_gradient((7.0, 5.0), (33.0, 21.0)),
            radial_gradient((20.0, 15.0), 18.0),
            radial_gradient((20.0, 15.0), 18.0).focus((26.0, 11.0)),
            radial_gradient((20.0, 15.0), 18.0).focus_circle((20.0, 15.0), 6.0),
            radial_gradient((20.0, 15.0), 18.0).focus_circle((23.0, 12.0), 5.0),
            radial_gradient((20.0, 15.0), 6.0).focus_circle((21.0, 14.0), 14.0),
            sweep_gradient((20.3, 15.2), deg(40.0)),
        ];
        for gradient in kinds {
            for spread in ["pad", "repeat", "reflect"] {
                for space in ["srgb", "oklab"] {
                    let gradient = gradient
                        .clone()
                        .colours(["#c8553d", "#f4efe6", "#c8553d"])
                        .spread(spread)
                        .mixed(space);
                    let picture = sheet(40.0, 30.0).ground(&gradient).pixels().unwrap();
                    for (i, pixel) in picture.as_slice().iter().enumerate() {
                        let spot = pt((i % 40) as f64 + 0.5, (i / 40) as f64 + 0.5);
                        let want = gradient.at(share(&gradient, spot)).to_rgba8();
                        for (given, want) in pixel.iter().zip(want) {
                            assert!(given.abs_diff(want) <= 1, "{spot} of {gradient:?}: {pixel:?} {want:?}");
                        }
                    }
                }
            }
        }
    }

    /// The gradient offset of the last circle through a point, by brute force; `None` outside the cone.
    fn share_of_cone(cone: [(f64, f64, f64); 2], spot: Point) -> Option<f64> {
        let [(x, y, first), (to_x, to_y, last)] = cone;
        let beyond = |t: f64| {
            let radius = first + (last - first) * t;
            let at = pt(x + (to_x - x) * t, y + (to_y - y) * t);
            (radius >= 0.0).then(|| at.distance(spot) - radius)
        };
        let crossed = |t: &f64| {
            let both = beyond(*t).zip(beyond(t + 2e-3));
            both.is_some_and(|(a, b)| a.signum() != b.signum())
        };
        (-10_000..10_000).rev().map(|k| f64::from(k) * 2e-3).find(crossed)
    }

    #[test]
    fn cones_end_at_their_sides() {
        for cone in [[(3.0, 10.0, 0.0), (20.0, 15.0, 6.0)], [(8.0, 14.0, 6.0), (28.0, 15.0, 6.0)]] {
            let [(x, y, first), (to_x, to_y, last)] = cone;
            let gradient = radial_gradient((to_x, to_y), last).focus_circle((x, y), first);
            let picture = sheet(40.0, 30.0).ground(gradient.colours(["black", "white"])).pixels().unwrap();
            let (mut inside, mut outside) = (0, 0);
            for (i, pixel) in picture.as_slice().iter().enumerate() {
                let spot = pt((i % 40) as f64 + 0.5, (i / 40) as f64 + 0.5);
                let around = [(-0.5, -0.5), (0.5, -0.5), (0.5, 0.5), (-0.5, 0.5), (0.0, 0.0)];
                let shares = around.map(|step| share_of_cone(cone, spot + Point::from(step)));
                if shares == [None; 5] {
                    outside += 1;
                    assert_eq!(*pixel, [0; 4], "{spot} of {cone:?}");
                } else if let [Some(_), Some(_), Some(_), Some(_), Some(middle)] = shares {
                    inside += 1;
                    let off = f64::from(pixel[0]) / 255.0 - middle.clamp(0.0, 1.0);
                    assert!(pixel[3] == 255 && off.abs() < 0.02, "{spot} of {cone:?}: {pixel:?}, {middle}");
                }
            }
            assert!(inside > 200 && outside > 200, "{inside} {outside}");
        }
    }

    #[test]
    fn what_has_no_way_has_the_last_colour() {
        for flat in [linear_gradient((5.0, 5.0), (5.0, 5.0)), radial_gradient((5.0, 5.0), 0.0)] {
            let picture = sheet(4.0, 4.0).ground(flat.colours(["red", "blue"])).pixels().unwrap();
            assert!(picture.as_slice().iter().all(|pixel| *pixel == [0, 0, 255, 255]));
        }
    }

    #[test]
    fn frames_say_what_coordinates_are_measured_in() {
        let wide =
            |frame| linear_gradient((0.0, 0.0), (1.0, 0.0)).colours(["black", "white"]).measured(frame);
        let at = |item: Item, x: u32| sheet(40.0, 10.0).add(item).pixels().unwrap().at(x, 5).map(|p| p[0]);
        let bar = || rectangle((0.0, 0.0), 10.0, 10.0);
        // In the box of a bar that stands elsewhere, twice as wide.
        let item = bar().fill(wide("box")).scaled_by((2.0, 1.0)).moved((10.0, 0.0));
        assert!(at(item.clone(), 10).unwrap() < 10 && at(item, 29).unwrap() > 245);
        let own = linear_gradient((0.0, 0.0), (10.0, 0.0)).colours(["black", "white"]);
        assert!(at(bar().fill(&own).moved((10.0, 0.0)), 10).unwrap() < 20);
        assert_eq!(at(bar().fill(own.measured("sheet")).moved((10.0, 0.0)), 10), Some(255));
    }
}
