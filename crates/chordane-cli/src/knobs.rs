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
        self.stage_from(Stage::default())
    }

    /// As asked, over what there was.
    pub(crate) fn stage_from(&self, mut stage: Stage) -> Result<Stage, Failure> {
        if let Some(seed) = self.chosen_seed()? {
            stage.seed(seed);
        }
        let mut names = Vec::new();
        for setting in &self.set {
            let (name, value) = setting.split_once('=').ok_or_else(|| {
                Failure::call(
                    format!("--set {setting} has no value"),
                    "write --set NAME=VALUE, as in --set sag=0.2",
                )
            })?;
            let name = name.trim();
            if names.contains(&name) {
                return Err(Failure::call(
                    format!("the knob \"{name}\" is set twice"),
                    "give --set once for each knob",
                ));
            }
            names.push(name);
            stage.set(name, value);
        }
        Ok(stage)
    }

    pub(crate) fn chosen_seed(&self) -> Result<Option<u64>, Failure> {
        let Some(seed) = &self.seed else { return Ok(None) };
        if seed == "new" {
            // Small enough to be typed again; the time alone decides.
            let time = std::time::SystemTime::now().duration_since(std::time::UNIX_EPOCH);
            let seed = time.map_or(1, |time| (time.as_nanos() / 1000 % 1_000_000) as u64);
            say(&format!("seed {seed}; draw it again with --seed {seed}"));
            return Ok(Some(seed));
        }
        seed.parse().map(Some).map_err(|_| {
            Failure::call(format!("--seed {seed} is no seed"), "give a whole number from 0 up, or new")
        })
    }
}

/// What a score makes on a stage. A knob that cannot be set as asked is the call's fault; a score that fails is its own.
pub(crate) fn performed(
    stage: &mut Stage,
    make: impl FnOnce(&mut Stage) -> Result<Sheet, Failure>,
) -> Result<Sheet, Failure> {
    let made = make(stage);
    stage.remarks().iter().for_each(|remark| say(&format!("note: {remark}")));
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
