//! What a script may use up.

use std::fmt;
use std::time::Duration;

/// Measures the memory of runs, for [`Limits::gauge`]. The function is called where a run begins, on its thread, and returns a function for the
/// bytes that this run holds, which is called several thousand times a second, on all threads that the run uses.
///
/// ```
/// use chordane_score::{Gauge, Limits, Runner};
/// // One that says that every run holds 2 GB.
/// let limits = Limits { gauge: Some(Gauge(|| Box::new(|| 2_000_000_000))), ..Limits::default() };
/// let mistake = Runner::read("tail.chord", "sheet(90, 60)", limits).unwrap_err();
/// assert_eq!(mistake.to_string(), "the score takes more than 1024 MB of memory: stopped while it was read");
/// ```
#[derive(Clone, Copy)]
pub struct Gauge(pub fn() -> Box<dyn Fn() -> usize + Send + Sync>);

impl fmt::Debug for Gauge {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        out.debug_tuple("Gauge").finish_non_exhaustive()
    }
}

/// The bounds within which a script runs. Each can be raised; none can be lifted.
///
/// ```
/// use chordane_score::{Limits, Runner, Settings};
/// let limits = Limits { steps: 1000, ..Limits::default() };
/// let endless = Runner::read("tail.chord", "loop { }", limits)?;
/// assert!(endless.run(&Settings::new()).into_sheet().is_err());
/// # Ok::<(), chordane_score::Mistake>(())
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
