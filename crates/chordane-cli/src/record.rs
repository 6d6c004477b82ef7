//! How a picture was made, as its file carries it along.

use std::collections::BTreeMap;
use std::path::Path;

use chordane::read::read_metadata;
use chordane::sheet::Sheet;
use chordane_score::Settings;
use serde::{Deserialize, Serialize};

use crate::failure::Failure;
use crate::input::{Input, Origin, read_file};

/// What it takes to make a picture again.
#[derive(Clone, Debug, Deserialize, PartialEq, Serialize)]
pub(crate) struct Record {
    /// The version that drew it.
    pub(crate) chordane: String,
    /// What the score is called.
    pub(crate) score: String,
    pub(crate) seed: u64,
    pub(crate) knobs: BTreeMap<String, String>,
    /// The size that the score was asked for.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) size: Option<[f64; 2]>,
    /// The score's text; none where it was compiled in.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) source: Option<String>,
}

impl Record {
    /// The record of a score that has run.
    pub(crate) fn of(origin: &Origin, settings: &Settings) -> Self {
        Self {
            chordane: env!("CARGO_PKG_VERSION").to_owned(),
            score: Path::new(&origin.name)
                .file_name()
                .map_or_else(|| origin.name.clone(), |name| name.to_string_lossy().into_owned()),
            seed: settings.get_seed(),
            knobs: settings.knobs().clone(),
            size: settings.get_size().map(|size| [size.x, size.y]),
            source: origin.source.clone(),
        }
    }

    /// The sheet with the record in it.
    pub(crate) fn put_on(&self, sheet: Sheet) -> Sheet {
        // Texts and numbers always have a JSON form.
        match serde_json::to_string(self) {
            Ok(text) => sheet.metadata(&text),
            Err(_) => sheet,
        }
    }

    /// The record in a picture.
    pub(crate) fn read(file: &Path) -> Result<Self, Failure> {
        let name = file.display();
        let text = read_metadata(&read_file(file)?).ok_or_else(|| {
            Failure::call(
                format!("{name} does not say how it was made"),
                "name a .svg or .png file that chordane drew from a score",
            )
        })?;
        serde_json::from_str(&text).map_err(|error| {
            Failure::input(
                format!("{name} says how it was made in a way that cannot be read: {error}"),
                "name a .svg or .png file that chordane drew from a score",
            )
        })
    }

    /// What the score was run with.
    pub(crate) fn settings(&self) -> Settings {
        let set = |all: Settings, (name, value): (&String, &String)| all.set(name, value);
        let settings = self.knobs.iter().fold(Settings::new().seed(self.seed), set);
        self.size.map_or(settings.clone(), |[width, height]| settings.size((width, height)))
    }

    /// The score to run again.
    pub(crate) fn input(&self, file: &Path) -> Result<Input, Failure> {
        let source = self.source.clone().ok_or_else(|| {
            Failure::call(
                format!("{} was drawn by a compiled score, {}", file.display(), self.score),
                format!("run that one again with --seed {}{}", self.seed, self.knob_options()),
            )
        })?;
        Ok(Input::Score(self.score.clone(), source))
    }

    fn knob_options(&self) -> String {
        self.knobs.iter().map(|(name, value)| format!(" --set {name}={value}")).collect()
    }
}
