//! How a picture was made, as its file carries it along.

use std::collections::BTreeMap;
use std::path::Path;

use chordane::number::Point;
use chordane::read::{is_whole_png, read_metadata};
use chordane::sheet::Sheet;
use chordane_score::{Pointer, Settings, Words};
use serde::{Deserialize, Serialize};
use sha1::{Digest, Sha1};

use crate::failure::Failure;
use crate::input::{Input, Origin, read_file};
use crate::options::DrawOptions;

/// What it takes to make a picture again, or any of those on a contact sheet.
#[derive(Clone, Debug, Deserialize, PartialEq, Serialize)]
pub(crate) struct Record {
    /// The version that drew it.
    pub(crate) chordane: String,
    /// What the score is called.
    pub(crate) score: String,
    #[serde(flatten)]
    made: Made,
    /// What each picture of a contact sheet was run with.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    tiles: Vec<Made>,
    /// The score's text; none where it was compiled in.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(crate) source: Option<String>,
    /// For a frame: a digest of its marks and of the options that change its pixels; none if all are at their defaults.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    drawn_with: Option<String>,
    /// For a frame: the names of the pictures it was painted with, and the digests of their files.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pictures: BTreeMap<String, String>,
}

/// What a score was run with.
#[derive(Clone, Debug, Deserialize, PartialEq, Serialize)]
struct Made {
    /// The seed that was used; where it is missing, the score's own.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    seed: Option<u64>,
    knobs: BTreeMap<String, String>,
    /// The size that the score was asked for.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    size: Option<[f64; 2]>,
    /// The moment of the loop, and its length in seconds, where they are not as by default.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    phase: Option<f64>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    seconds: Option<f64>,
    /// Where the pointer was, where it was not at the origin, and whether it was down.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pointer: Option<[f64; 2]>,
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pointer_down: bool,
}

impl From<&Settings> for Made {
    fn from(settings: &Settings) -> Self {
        Self {
            seed: settings.seed,
            knobs: settings.knobs.clone(),
            size: settings.size.map(|size| [size.x, size.y]),
            phase: Some(settings.moment.phase).filter(|phase| *phase != 0.0),
            pointer: Some(settings.pointer_now().at.to_array()).filter(|at| *at != [0.0; 2]),
            pointer_down: settings.pointer_now().down,
            seconds: Some(settings.moment.seconds)
                .filter(|seconds| *seconds != Settings::new().moment.seconds),
        }
    }
}

impl Record {
    /// The record of a score that has run.
    pub(crate) fn of(origin: &Origin, settings: &Settings) -> Self {
        Self {
            chordane: env!("CARGO_PKG_VERSION").to_owned(),
            score: Path::new(&origin.name)
                .file_name()
                .map_or_else(|| origin.name.clone(), |name| name.to_string_lossy().into_owned()),
            made: settings.into(),
            tiles: Vec::new(),
            source: origin.source.clone(),
            drawn_with: None,
            pictures: BTreeMap::new(),
        }
    }

    /// The record of one frame of a clip, by which `--resume` recognises it.
    pub(crate) fn of_frame(origin: &Origin, settings: &Settings, options: &DrawOptions) -> Self {
        let own = (options.dpi, options.grain, options.partial, options.no_antialias);
        let marks = settings.marks_now();
        let is_plain = own == (None, None, false, false) && marks.is_none();
        let drawn_with = (!is_plain).then(|| digest(format!("{own:?} {marks:?}").as_bytes()));
        Self { drawn_with, ..Self::of(origin, settings) }
    }

    /// The same record with pictures and their digests.
    pub(crate) fn with_pictures(self, pictures: BTreeMap<String, String>) -> Self {
        Self { pictures, ..self }
    }

    /// The same for a contact sheet of pictures that were run with these settings.
    pub(crate) fn of_tiles<'a>(self, tiles: impl IntoIterator<Item = &'a Settings>) -> Self {
        Self { tiles: tiles.into_iter().map(Made::from).collect(), ..self }
    }

    /// The sheet with the record in it.
    pub(crate) fn put_on(&self, sheet: Sheet) -> Sheet {
        sheet.metadata(self.text())
    }

    /// The record as text. Texts and numbers always have a JSON form.
    pub(crate) fn text(&self) -> String {
        let text = serde_json::to_string(self).unwrap_or_default();
        // XML cannot hold these two characters; JSON can escape them.
        text.replace('\u{fffe}', "\\ufffe").replace('\u{ffff}', "\\uffff")
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

    /// What the score was run with, for a tile of a contact sheet or for the one picture that there is.
    pub(crate) fn settings(&self, file: &Path, tile: Option<usize>) -> Result<Settings, Failure> {
        let (name, count) = (file.display(), self.tiles.len());
        let made = match tile {
            None if count == 0 => &self.made,
            None => {
                return Err(Failure::call(
                    format!("{name} is a contact sheet of {count} pictures"),
                    format!("say which one with --tile, 1 to {count}"),
                ));
            }
            Some(tile) if count == 0 => {
                return Err(Failure::call(
                    format!("{name} is one picture, without a tile {tile}"),
                    "leave out --tile",
                ));
            }
            Some(tile) => tile.checked_sub(1).and_then(|at| self.tiles.get(at)).ok_or_else(|| {
                Failure::call(format!("{name} has no tile {tile}"), format!("give 1 to {count}"))
            })?,
        };
        let whole = |side: f64| (1.0..=f64::from(u32::MAX)).contains(&side) && side.fract() == 0.0;
        if let Some([width, height]) = made.size.filter(|size| !size.iter().all(|side| whole(*side))) {
            return Err(Failure::input(
                format!("{name} records a size of {width} x {height} pixels, which no picture can have"),
                "name a .svg or .png file that chordane drew from a score",
            ));
        }
        let set = |all: Settings, (name, value): (&String, &String)| all.set(name, value);
        let settings = made.seed.map_or_else(Settings::new, |seed| Settings::new().seed(seed));
        let settings = made.knobs.iter().fold(settings, set);
        let settings = made.seconds.map_or(settings.clone(), |seconds| settings.seconds(seconds));
        let settings = made.phase.map_or(settings.clone(), |phase| settings.phase(phase));
        let at = Point::from(made.pointer.unwrap_or_default());
        let settings = settings.pointer(Pointer { at, down: made.pointer_down });
        Ok(made.size.map_or(settings.clone(), |[width, height]| settings.size((width, height))))
    }

    /// The score to run again.
    pub(crate) fn input(&self, file: &Path, words: &Words) -> Result<Input, Failure> {
        let source = self.source.clone().ok_or_else(|| {
            Failure::call(
                format!("{} was drawn by a compiled score, {}", file.display(), self.score),
                format!("run that one again{}", self.options()),
            )
        })?;
        Ok(Input::Score(self.score.clone(), source, words.clone()))
    }

    fn options(&self) -> String {
        let seed = self.made.seed.map(|seed| format!("--seed {seed}"));
        let knobs = self.made.knobs.iter().map(|(name, value)| format!("--set {name}={value}"));
        let options: Vec<String> = seed.into_iter().chain(knobs).collect();
        if options.is_empty() { String::new() } else { format!(" with {}", options.join(" ")) }
    }
}

/// Whether a file is an intact frame with this record, and its pictures have not changed since.
pub(crate) fn is_drawn(file: &Path, record: &Record, digest_of: impl Fn(&str) -> Option<String>) -> bool {
    let Ok(bytes) = read_file(file) else { return false };
    let said = read_metadata(&bytes).and_then(|text| serde_json::from_str::<Record>(&text).ok());
    let is_same = |said: Record| {
        said.pictures.iter().all(|(name, digest)| digest_of(name).as_ref() == Some(digest))
            && Record { pictures: BTreeMap::new(), ..said } == *record
    };
    said.is_some_and(is_same) && is_whole_png(&bytes)
}

/// A digest of some bytes, in hexadecimal digits.
pub(crate) fn digest(bytes: &[u8]) -> String {
    Sha1::digest(bytes).iter().map(|byte| format!("{byte:02x}")).collect()
}
