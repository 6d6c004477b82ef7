//! What a script may use up.

use std::time::Duration;

use crate::Gauge;

/// The bounds within which a script runs. Each can be raised; none can be lifted.
///
/// ```
/// use chordane_score::{Limits, Runner, Settings};
/// let limits = Limits { steps: 1000, ..Limits::default() };
/// let endless = Runner::read("tail.chord", "loop { }", limits)?;
/// assert!(endless.run(&Settings::new()).into_sheet().is_err());
/// # Ok::<(), chordane_score::ScoreError>(())
/// ```
#[derive(Clone, Copy, Debug)]
pub struct Limits {
    /// The number of steps: each call, operator and turn of a loop is a few.
    pub steps: u64,
    /// The time from the start of the script.
    pub time: Duration,
    /// The memory, in bytes, that a run may hold.
    pub memory: usize,
    /// The gauge that measures this memory. Without one, the large values that words make are counted, whether or not they are still held.
    pub gauge: Option<Gauge>,
    /// The number of values in one list, those of its lists included.
    pub list: usize,
    /// The number of characters in one text.
    pub text: usize,
    /// How deep functions may call each other.
    pub depth: usize,
}

impl Default for Limits {
    /// 100 million steps, 20 seconds, 1 GiB, a million values in a list, a million characters in a text, and 64
    /// calls deep.
    fn default() -> Self {
        Self {
            steps: 100_000_000,
            time: Duration::from_secs(20),
            memory: 1 << 30,
            gauge: None,
            list: 1_000_000,
            text: 1_000_000,
            depth: 64,
        }
    }
}
