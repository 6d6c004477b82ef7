//! Setting and listing a score's knobs.

use std::fmt::Write;

use chordane::sheet::Sheet;
use chordane_score::Stage;

use crate::failure::Failure;
use crate::options::KnobOptions;
use crate::output::{print, say};

impl KnobOptions {
    /// The stage with the knobs set as asked.
    pub(crate) fn stage(&self) -> Result<Stage, Failure> {
        let mut stage = Stage::default();
        stage.seed(self.chosen_seed()?);
        for setting in &self.set {
            let (name, value) = setting.split_once('=').ok_or_else(|| {
                Failure::call(
                    format!("--set {setting} has no value"),
                    "write --set NAME=VALUE, as in --set sag=0.2",
                )
            })?;
            stage.set(name.trim(), value);
        }
        Ok(stage)
    }

    fn chosen_seed(&self) -> Result<u64, Failure> {
        if self.seed == "new" {
            // Small enough to be typed again; the time alone decides.
            let time = std::time::SystemTime::now().duration_since(std::time::UNIX_EPOCH);
            let seed = time.map_or(1, |time| (time.as_nanos() / 1000 % 1_000_000) as u64);
            say(&format!("seed {seed}; draw it again with --seed {seed}"));
            return Ok(seed);
        }
        self.seed.parse().map_err(|_| {
            Failure::call(format!("--seed {} is no seed", self.seed), "give a whole number from 0 up, or new")
        })
    }
}

/// What a score makes on a stage. A knob that cannot be set as asked is the call's fault; a score that fails is its own.
pub(crate) fn performed(
    stage: &mut Stage,
    make: impl FnOnce(&mut Stage) -> Result<Sheet, Failure>,
) -> Result<Sheet, Failure> {
    let made = make(stage);
    match stage.problem().filter(|_| made.is_ok()) {
        Some(problem) => Err(Failure::call(problem.message, problem.mend)),
        None => made,
    }
}

/// Prints the knobs that a score declared.
pub(crate) fn list(stage: &Stage) -> Result<(), Failure> {
    let wide = stage.knobs().iter().map(|knob| knob.name.chars().count()).max().unwrap_or(0);
    let values: Vec<String> =
        stage.knobs().iter().map(|knob| knob.set.clone().unwrap_or_else(|| knob.kind.start())).collect();
    let value_wide = values.iter().map(|value| value.chars().count()).max().unwrap_or(0);
    let mut text = String::new();
    for (knob, value) in stage.knobs().iter().zip(values) {
        let _ = writeln!(text, "{:wide$}  {value:value_wide$}  {}", knob.name, knob.kind.allowed());
    }
    if stage.knobs().is_empty() {
        text.push_str("the score has no knobs; declare one with knob(\"sag\", 0.3, 0, 1)\n");
    }
    print(text.as_bytes())
}
