//! Chance from a seed: the same on every machine.

use std::fmt;

use rand_pcg::Pcg64;
use rand_pcg::rand_core::Rng;

use crate::ground::mixed;

/// Seeded chance. Dice of one seed and one name always fall the same way, whatever other dice are thrown.
///
/// ```
/// use chordane::chance::Dice;
/// let (mut tail, mut again) = (Dice::new(7, "tail"), Dice::new(7, "tail"));
/// assert_eq!(tail.between(0.0, 9.0), again.between(0.0, 9.0));
/// assert!((0.0..9.0).contains(&tail.between(0.0, 9.0)));
/// ```
#[derive(Clone, Debug)]
pub struct Dice {
    generator: Pcg64,
    /// What smooth chance comes from: of the seed and the name alone, not of what was thrown.
    pub(super) key: u64,
}

impl Dice {
    /// Creates the dice for a seed and a name. Every name has its own stream, so an extra throw of one does not change the others.
    #[must_use]
    pub fn new(seed: u64, name: &str) -> Self {
        // The name's bytes, mixed so that names that differ a little give streams that differ much (the FNV-1a hash of
        // G. Fowler, L. C. Noll and K.-P. Vo).
        let hash = name.bytes().fold(0x6c62_272e_07bb_0142_62b8_2175_6295_c58d_u128, |hash, byte| {
            (hash ^ u128::from(byte)).wrapping_mul(0x0000_0000_0100_0000_0000_0000_0000_013b)
        });
        let key = mixed(seed ^ (hash as u64) ^ (hash >> 64) as u64);
        Self { generator: Pcg64::new(u128::from(seed) ^ hash.rotate_left(64), hash), key }
    }

    /// A number from 0 up to 1, in steps of 2 to the power of -53.
    fn share(&mut self) -> f64 {
        (self.generator.next_u64() >> 11) as f64 / (1_u64 << 53) as f64
    }

    /// A number from one up to another, evenly.
    pub fn between(&mut self, low: f64, high: f64) -> f64 {
        let share = self.share();
        low * (1.0 - share) + high * share
    }

    /// A whole number from one to another, both included, evenly; of two the wrong way round, as the right way.
    pub fn whole(&mut self, low: i64, high: i64) -> i64 {
        let (low, high) = (low.min(high), low.max(high));
        let count = high.abs_diff(low).saturating_add(1);
        // High bits of a product: even to one part in 2 to the power of 64 over the count.
        let step = (u128::from(self.generator.next_u64()) * u128::from(count)) >> 64;
        low.saturating_add_unsigned(step as u64)
    }

    /// A place in a list of `count`, each as likely as any other; `None` if the list is empty.
    pub fn place(&mut self, count: usize) -> Option<usize> {
        let last = i64::try_from(count).ok()?.checked_sub(1).filter(|last| *last >= 0)?;
        usize::try_from(self.whole(0, last)).ok()
    }

    /// One of a list, evenly; none of an empty one.
    pub fn pick<'a, T>(&mut self, from: &'a [T]) -> Option<&'a T> {
        let place = self.place(from.len())?;
        from.get(place)
    }

    /// A place in a list, each as likely as its weight; none where no weight is above zero.
    pub fn weighted(&mut self, weights: &[f64]) -> Option<usize> {
        let sound = |weight: &f64| weight.is_finite() && *weight > 0.0;
        let whole: f64 = weights.iter().copied().filter(|weight| sound(weight)).sum();
        let mut left = self.share() * whole;
        let mut last = None;
        for (i, weight) in weights.iter().enumerate().filter(|(_, weight)| sound(weight)) {
            last = Some(i);
            if left < *weight {
                break;
            }
            left -= weight;
        }
        last
    }

    /// A list in another order, each order as likely (R. Durstenfeld, 1964).
    pub fn shuffle<T>(&mut self, list: &mut [T]) {
        for last in (1..list.len()).rev() {
            if let Some(place) = self.place(last + 1) {
                list.swap(last, place);
            }
        }
    }

    /// Returns `n` distinct elements in random order, or all of them if there are fewer.
    ///
    /// ```
    /// use chordane::chance::Dice;
    /// let taken = Dice::new(7, "cloth").take(&["red", "teal", "sand"], 2);
    /// assert!(taken.len() == 2 && taken[0] != taken[1]);
    /// ```
    pub fn take<T: Clone>(&mut self, from: &[T], n: usize) -> Vec<T> {
        let mut all = from.to_vec();
        self.shuffle(&mut all);
        all.truncate(n);
        all
    }

    /// A number that clusters round a mean: two thirds lie within the spread of it (the polar method of G. Marsaglia,
    /// 1964).
    pub fn normal(&mut self, mean: f64, spread: f64) -> f64 {
        loop {
            let (x, y) = (self.between(-1.0, 1.0), self.between(-1.0, 1.0));
            let square = x * x + y * y;
            if square > 0.0 && square < 1.0 {
                // Not the machine's own logarithm, whose last digit differs between machines.
                return mean + spread * x * (-2.0 * libm::log(square) / square).sqrt();
            }
        }
    }
}

/// None of the tries of [`Dice::keep_if`] was kept.
///
/// ```
/// use chordane::prelude::*;
/// let never = Dice::new(7, "tail").keep_if(20, |dice| dice.between(0.0, 1.0), |_| false);
/// assert_eq!(never.unwrap_err().tries, 20);
/// ```
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct NotKept {
    /// How many were made.
    pub tries: usize,
}

impl fmt::Display for NotKept {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "none of {} tries was kept; ease the condition, or give more tries", self.tries)
    }
}

impl std::error::Error for NotKept {}

impl Dice {
    /// Makes something by chance again and again until `keep` says yes, at most `tries` times.
    ///
    /// ```
    /// use chordane::prelude::*;
    /// use chordane::chance::Dice;
    /// let mut dice = Dice::new(7, "patch");
    /// let patch = dice.keep_if(
    ///     100,
    ///     |dice| Path::closed([(); 5].map(|()| pt(dice.between(0.0, 90.0), dice.between(0.0, 90.0)))),
    ///     |patch| patch.crosses_itself() == Ok(false) && patch.vertex_gap().is_ok_and(|gap| gap > Some(20.0)),
    /// )?;
    /// assert!(!patch.crosses_itself()?);
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    ///
    /// # Errors
    ///
    /// [`NotKept`] where none of the tries was kept.
    pub fn keep_if<T>(
        &mut self,
        tries: usize,
        mut make: impl FnMut(&mut Self) -> T,
        mut keep: impl FnMut(&T) -> bool,
    ) -> Result<T, NotKept> {
        (0..tries)
            .find_map(|_| {
                let made = make(self);
                keep(&made).then_some(made)
            })
            .ok_or(NotKept { tries })
    }
}
