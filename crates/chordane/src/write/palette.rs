//! Few colours in place of many.

use std::collections::HashMap;
use std::sync::Arc;

use color_quant::NeuQuant;

use crate::ground::named;
use crate::raster::Pixels;
use crate::sheet::Colour;

/// So many colours, beside one for what is transparent.
pub(super) const MAX_COLOURS: usize = 255;

/// So many pixels are looked at, at most.
const MAX_SAMPLED_PIXELS: usize = 4_000_000;

/// The network that finds the palette is trained on one pixel in this many.
const TRAINING: i32 = 30;

/// How colours that a picture of few colours does not have are made up.
///
/// ```
/// use chordane::ground::Named;
/// use chordane::write::Dither;
/// assert_eq!(Dither::NAMES, ["none", "ordered", "error"]);
/// ```
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
#[non_exhaustive]
pub enum Dither {
    /// They are not: each pixel has the nearest colour that there is.
    None,
    /// By a fixed pattern of two colours, which stands still from frame to frame. Colours that there are stay plain.
    #[default]
    Ordered,
    /// Error diffusion (Floyd and Steinberg 1976): fine in a single picture, but it flickers from frame to frame.
    Error,
}

named! { Dither: "kind of dithering"; "none" => None, "ordered" => Ordered, "error" => Error }

/// Up to 255 colours that stand for all of some pictures.
///
/// ```
/// use chordane::prelude::*;
/// use chordane::write::Palette;
/// let page = sheet(40.0, 30.0).ground("#f4efe6").add(rectangle((5.0, 5.0), 20.0, 20.0).fill("#c8553d"));
/// let palette = Palette::of([&page.pixels()?]);
/// assert_eq!(palette.colours(), [[200, 85, 61], [244, 239, 230]]);
/// # Ok::<(), chordane::raster::DrawError>(())
/// ```
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Palette(Arc<[[u8; 3]]>);

impl Palette {
    /// The colours of some pictures themselves where there are no more than 255; else those that come nearest to all, the frequent ones above
    /// all (Dekker 1994). Pixels less than half opaque do not count. Of very large pictures a part is looked at.
    #[must_use]
    pub fn of<'p>(pictures: impl IntoIterator<Item = &'p Pixels>) -> Self {
        Self::of_all(&pictures.into_iter().collect::<Vec<_>>())
    }

    fn of_all(pictures: &[&Pixels]) -> Self {
        let count: usize = pictures.iter().map(|one| one.as_slice().len()).sum();
        let every = count.div_ceil(MAX_SAMPLED_PIXELS).max(1);
        let mut all: Vec<u8> = Vec::new();
        let mut counts: HashMap<[u8; 3], u32> = HashMap::new();
        let pixels = pictures.iter().flat_map(|one| one.as_slice()).step_by(every);
        for [red, green, blue, _] in pixels.copied().filter(|pixel| pixel[3] >= 128) {
            *counts.entry([red, green, blue]).or_default() += 1;
            all.extend([red, green, blue, 255]);
        }
        let mut counts: Vec<([u8; 3], u32)> = counts.into_iter().collect();
        counts.sort_unstable();
        if counts.len() <= MAX_COLOURS {
            return Self(counts.into_iter().map(|(colour, _)| colour).collect());
        }
        let found = NeuQuant::new(TRAINING, MAX_COLOURS, &all).color_map_rgb();
        let mut colours: Vec<[u8; 3]> = found.as_chunks().0.to_vec();
        colours.sort_unstable();
        colours.dedup();
        fill_up(&mut colours, &counts);
        colours.sort_unstable();
        Self(colours.into())
    }

    /// The colours: red, green and blue.
    #[must_use]
    pub fn colours(&self) -> &[[u8; 3]] {
        &self.0
    }
}

/// The places that are left go to the colours that many pixels miss by much: of a gradient alone, dividing the space leaves few.
fn fill_up(colours: &mut Vec<[u8; 3]>, counts: &[([u8; 3], u32)]) {
    let seen_of = |colour: &[u8; 3]| seen(colour.map(f32::from));
    let known: Vec<[f32; 3]> = colours.iter().map(seen_of).collect();
    // How far each colour is from the nearest that there is.
    let mut missed: Vec<([u8; 3], [f32; 3], f32, f32)> = counts
        .iter()
        .map(|(colour, count)| {
            let seen = seen_of(colour);
            let off = known.iter().map(|one| apart(seen, *one)).fold(f32::MAX, f32::min);
            (*colour, seen, off, *count as f32)
        })
        .collect();
    while colours.len() < MAX_COLOURS {
        let worst = missed.iter().max_by(|a, b| (a.2 * a.3).total_cmp(&(b.2 * b.3)));
        let Some(&(colour, place, ..)) = worst.filter(|worst| worst.2 > 0.0) else { return };
        colours.push(colour);
        missed.iter_mut().for_each(|one| one.2 = one.2.min(apart(one.1, place)));
    }
}

/// A palette at work: which colours stand for which, found once for each.
pub(super) struct Matcher {
    palette: Palette,
    /// The colours of the palette as the eye tells them apart.
    seen: Vec<[f32; 3]>,
    /// The colours that the palette has itself.
    exact: HashMap<[u8; 3], u8>,
    /// Mixtures for the others, by cells of four levels each way: nobody sees a difference within one.
    known: HashMap<[u8; 3], Mixture>,
}

/// Two colours of a palette, and how many of 64 pixels have the second.
#[derive(Clone, Copy)]
struct Mixture {
    first: u8,
    second: u8,
    share: u8,
}

impl Matcher {
    pub(super) fn new(palette: Palette) -> Self {
        let seen = palette.colours().iter().map(|colour| seen(colour.map(f32::from))).collect();
        let exact = palette.colours().iter().copied().zip(0..=u8::MAX).collect();
        Self { palette, seen, exact, known: HashMap::new() }
    }

    pub(super) fn palette(&self) -> &Palette {
        &self.palette
    }

    /// The numbers of the colours of a picture's pixels; `clear` stands for those that are less than half opaque.
    pub(super) fn numbers(&mut self, frame: &Pixels, dither: Dither, clear: u8) -> Vec<u8> {
        let width = frame.width() as usize;
        if dither == Dither::Error {
            return self.diffused(frame, clear);
        }
        let mut last = ([0_u8; 3], self.mixture([0; 3]));
        let place = |(i, pixel): (usize, &[u8; 4])| {
            let [red, green, blue, alpha] = *pixel;
            if alpha < 128 {
                return clear;
            }
            let colour = [red, green, blue];
            if colour != last.0 {
                last = (colour, self.mixture(colour));
            }
            let mixture = last.1;
            let second = dither == Dither::Ordered && threshold(i % width, i / width) < mixture.share;
            if second { mixture.second } else { mixture.first }
        };
        frame.as_slice().iter().enumerate().map(place).collect()
    }

    fn mixture(&mut self, colour: [u8; 3]) -> Mixture {
        if let Some(&first) = self.exact.get(&colour) {
            return Mixture { first, second: first, share: 0 };
        }
        let cell = colour.map(|level| level >> 2);
        if let Some(known) = self.known.get(&cell) {
            return *known;
        }
        let found = self.found(seen(cell.map(|level| f32::from(level << 2) + 1.5)));
        self.known.insert(cell, found);
        found
    }

    /// The nearest colour, and another one that a mixture of both comes nearest to it with; far ones mix badly.
    fn found(&self, colour: [f32; 3]) -> Mixture {
        let nearest = |best: (usize, f32), (i, one): (usize, &[f32; 3])| {
            let off = apart(colour, *one);
            if off < best.1 { (i, off) } else { best }
        };
        let (first, off) = self.seen.iter().enumerate().fold((0, f32::MAX), nearest);
        let plain = Mixture { first: first as u8, second: first as u8, share: 0 };
        let Some(from) = self.seen.get(first).filter(|_| off > 0.0) else { return plain };
        let mut best = (plain, off);
        for (i, to) in self.seen.iter().enumerate() {
            let length = apart(*from, *to);
            if length == 0.0 {
                continue;
            }
            let along = |(((a, b), c), from): (((f32, f32), f32), f32)| (a - from) * (b - c);
            let dot: f32 =
                colour.iter().zip(to).zip(from).map(|((a, b), c)| along((((*a, *b), *c), *c))).sum();
            let share = (dot / length).clamp(0.0, 0.5);
            let mixed = std::array::from_fn(|k| {
                let at = |one: &[f32; 3]| one.get(k).copied().unwrap_or(0.0);
                at(from) + (at(to) - at(from)) * share
            });
            let off = apart(colour, mixed) + 0.02 * length;
            if off < best.1 {
                best = (Mixture { second: i as u8, share: (share * 64.0).round() as u8, ..plain }, off);
            }
        }
        best.0
    }

    /// What each pixel's colour is off goes on to the neighbours right and below.
    fn diffused(&mut self, frame: &Pixels, clear: u8) -> Vec<u8> {
        let width = frame.width() as usize;
        let mut numbers = Vec::with_capacity(frame.as_slice().len());
        let mut below = vec![[0.0_f32; 3]; width + 2];
        for row in frame.as_slice().chunks(width.max(1)) {
            let here = std::mem::replace(&mut below, vec![[0.0; 3]; width + 2]);
            let mut right = [0.0_f32; 3];
            for ((x, pixel), handed) in row.iter().enumerate().zip(here.iter().skip(1)) {
                let [red, green, blue, alpha] = *pixel;
                if alpha < 128 {
                    numbers.push(clear);
                    right = [0.0; 3];
                    continue;
                }
                let levels = [red, green, blue].map(f32::from);
                let wanted: [f32; 3] = std::array::from_fn(|k| {
                    let at = |one: &[f32; 3]| one.get(k).copied().unwrap_or(0.0);
                    (at(&levels) + at(handed) + at(&right)).clamp(0.0, 255.0)
                });
                let number = self.mixture(wanted.map(|level| level.round() as u8)).first;
                numbers.push(number);
                let got = self
                    .palette
                    .colours()
                    .get(usize::from(number))
                    .copied()
                    .unwrap_or_default()
                    .map(f32::from);
                let off: [f32; 3] = std::array::from_fn(|k| {
                    wanted.get(k).copied().unwrap_or(0.0) - got.get(k).copied().unwrap_or(0.0)
                });
                right = off.map(|off| off * 7.0 / 16.0);
                for (place, share) in [(x, 3.0), (x + 1, 5.0), (x + 2, 1.0)] {
                    if let Some(slot) = below.get_mut(place) {
                        slot.iter_mut().zip(off).for_each(|(slot, off)| *slot += off * share / 16.0);
                    }
                }
            }
        }
        numbers
    }
}

/// A place of the pattern of 8 by 8 in which the numbers from 0 to 63 lie evenly (Bayer 1973).
fn threshold(x: usize, y: usize) -> u8 {
    let (x, y) = ((x & 7) as u8, (y & 7) as u8);
    let both = x ^ y;
    let bit = |value: u8, at: u8| (value >> at) & 1;
    bit(both, 0) << 5 | bit(y, 0) << 4 | bit(both, 1) << 3 | bit(y, 1) << 2 | bit(both, 2) << 1 | bit(y, 2)
}

/// A colour as the eye tells it from others, in OKLab.
fn seen([red, green, blue]: [f32; 3]) -> [f32; 3] {
    let colour = Colour { red: red / 255.0, green: green / 255.0, blue: blue / 255.0, alpha: 1.0 };
    colour.oklab().map(|value| value as f32)
}

fn apart(a: [f32; 3], b: [f32; 3]) -> f32 {
    a.iter().zip(b).map(|(a, b)| (a - b) * (a - b)).sum()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_pattern_has_every_number_once() {
        let mut all: Vec<u8> = (0..64).map(|i| threshold(i % 8, i / 8)).collect();
        all.sort_unstable();
        assert_eq!(all, (0..64).collect::<Vec<u8>>());
    }
}
