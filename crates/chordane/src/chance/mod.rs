//! Chance from seeds: dice, places by chance within a path, and numbers that wander smoothly. The same seed gives the same
//! throws on every machine.

mod dice;
mod scatter;
mod wander;

pub use dice::{Dice, NotKept};
