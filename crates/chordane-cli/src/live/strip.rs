//! The seeds that were looked at last, each with a small picture.

use base64::Engine;
use base64::engine::general_purpose::STANDARD;
use chordane::sheet::Sheet;
use chordane::sheet::WriteOptions;
use chordane::write::Format;

use super::message::SeedTold;

/// So many seeds are kept.
const CAPACITY: usize = 12;

/// The longer side of a small picture, in pixels: twice of what it is shown at.
const THUMBNAIL_SIDE: f64 = 144.0;

/// The seeds that were looked at last, the newest last.
#[derive(Clone, Debug, Default)]
pub(crate) struct Strip {
    seeds: Vec<SeedTold>,
    rolled: u64,
}

impl Strip {
    /// Whether a seed is on the strip.
    pub(crate) fn knows(&self, seed: u64) -> bool {
        self.seeds.iter().any(|one| one.seed == seed)
    }

    /// Puts a seed on the strip.
    pub(crate) fn add(&mut self, seed: u64, sheet: &Sheet) {
        let scale = THUMBNAIL_SIDE / sheet.size.max_element();
        let side = |length: f64| (length * scale).round().max(1.0) as u32;
        let options = WriteOptions::sized(side(sheet.size.x), side(sheet.size.y));
        let bytes = sheet.written(Format::Png, &options).unwrap_or_default();
        let picture = format!("data:image/png;base64,{}", STANDARD.encode(bytes));
        self.seeds.retain(|one| one.seed != seed);
        self.seeds.push(SeedTold { seed, picture });
        if self.seeds.len() > CAPACITY {
            self.seeds.remove(0);
        }
    }

    pub(crate) fn told(&self) -> Vec<SeedTold> {
        self.seeds.clone()
    }

    /// A seed that is not on the strip: the next ones in order, so that they are short to write.
    pub(crate) fn another(&mut self, present: u64) -> u64 {
        self.rolled = self.rolled.max(present);
        loop {
            self.rolled = if self.rolled >= MAX_SEED { 1 } else { self.rolled + 1 };
            if !self.knows(self.rolled) {
                return self.rolled;
            }
        }
    }
}

/// Seeds that a page can count with exactly.
const MAX_SEED: u64 = 9_007_199_254_740_991;

#[cfg(test)]
mod tests {
    use super::*;
    use chordane::prelude::*;

    #[test]
    fn the_last_twelve_are_kept() {
        let mut strip = Strip::default();
        let page = sheet(90.0, 60.0).add(circle((45.0, 30.0), 20.0).fill("teal"));
        let mut seed = 0;
        for _ in 0..20 {
            strip.add(seed, &page);
            seed = strip.another(seed);
        }
        let told = strip.told();
        assert_eq!(told.iter().map(|one| one.seed).collect::<Vec<_>>(), (8..20).collect::<Vec<_>>());
        assert!(told.iter().all(|one| one.picture.starts_with("data:image/png;base64,iVBOR")));
        assert!(strip.knows(19) && !strip.knows(7));
        assert_eq!(strip.another(u64::MAX), 1);
    }
}
