//! Setting and listing a score's knobs.

use std::fmt::Write;
use std::path::Path;

use chordane_score::{Pictures, Run, Runner, Settings};

use crate::failure::Failure;
use crate::marks;
use crate::options::KnobOptions;
use crate::output::{print_text, say};
use crate::track;

impl KnobOptions {
    /// The settings with the knobs set as asked.
    pub(crate) fn settings(&self) -> Result<Settings, Failure> {
        self.settings_from(Settings::new())
    }

    /// As [`KnobOptions::settings`], but for the marks where those come in later.
    pub(crate) fn settings_but_marks(&self, without: bool) -> Result<Settings, Failure> {
        if without { self.settings_with(Settings::new(), None) } else { self.settings() }
    }

    /// Takes over where the score is: its pictures lie below that folder. One from standard input has none.
    pub(crate) fn of_file(&mut self, input: &Path) {
        self.folder = (input != Path::new("-")).then(|| input.parent().unwrap_or(Path::new("")).to_owned());
    }

    /// As asked, over what there was.
    pub(crate) fn settings_from(&self, settings: Settings) -> Result<Settings, Failure> {
        self.settings_with(settings, self.marks.as_deref())
    }

    fn settings_with(&self, mut settings: Settings, marks: Option<&Path>) -> Result<Settings, Failure> {
        if let Some(seed) = self.chosen_seed()? {
            settings = settings.seed(seed);
        }
        if let Some(seconds) = self.seconds {
            settings = settings.seconds(seconds);
        }
        if let Some(phase) = self.phase {
            // The end of the loop is its beginning.
            settings = settings.phase(if phase < 1.0 { phase } else { 0.0 });
        }
        if let Some(pointer) = self.pointer {
            settings = settings.pointer(pointer);
        }
        if let Some(file) = &self.track {
            let track = track::read(file)?;
            // A clip follows the whole of it.
            if self.seconds.is_none() && track.seconds() > 0.0 {
                settings = settings.seconds(track.seconds());
            }
            settings = settings.track(track);
        }
        if let Some(file) = marks {
            let marks = marks::read(file, self.marks_held, self.marks_smoothed)?;
            // The loop is as long as they are.
            if self.seconds.is_none()
                && let Some(seconds) = marks::seconds(&marks)
            {
                settings = settings.seconds(seconds);
            }
            settings = settings.marks(marks);
        }
        let pictures = self.known_pictures(settings.pictures.clone())?;
        settings = settings.pictures(pictures);
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
            settings = settings.set(name, value);
        }
        Ok(settings)
    }

    /// The pictures that are handed in, and those below the score's folder where it has one.
    fn known_pictures(&self, mut pictures: Pictures) -> Result<Pictures, Failure> {
        if let Some(folder) = &self.folder {
            pictures = pictures.below(folder);
        }
        for given in &self.pictures {
            let (name, file) = given
                .split_once('=')
                .filter(|(name, file)| !name.is_empty() && !file.is_empty())
                .ok_or_else(|| {
                    Failure::call(
                        format!("--picture {given} names no file"),
                        "write --picture NAME=FILE, as in --picture kite.png=photos/kite.png",
                    )
                })?;
            let file = Path::new(file);
            if !file.exists() {
                return Err(Failure::call(
                    format!("there is no file {}", file.display()),
                    "check the name and the folder",
                ));
            }
            pictures = pictures.with_file(name, file);
        }
        Ok(pictures)
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
            Failure::call(format!("--seed {seed} is not a seed"), "give a whole number from 0 up, or new")
        })
    }
}

/// Runs a score, and says what it printed and remarked. A knob that cannot be set as asked is the call's fault; a score that
/// fails is its own.
pub(crate) fn run(runner: &Runner<'_>, settings: &Settings) -> Result<Run, Failure> {
    let run = runner.run(settings);
    run.printed().iter().for_each(|line| say(line));
    run.remarks().iter().for_each(|remark| say(&format!("note: {remark}")));
    if let Some(problem) = run.problem() {
        return Err(Failure::call(problem.message, problem.mend));
    }
    run.sheet()?;
    Ok(run)
}

/// Says so where moments are asked for of a score that has none.
pub(crate) fn note_still(run: &Run) {
    if !run.moves() {
        say(
            "note: nothing in the score depends on the phase, so all its frames are alike.\n  help: make something depend on phase(), as in swing(phase(), 10, 40)",
        );
    }
}

/// Prints the knobs that a score declared.
pub(crate) fn list(run: &Run) -> Result<(), Failure> {
    let wide = run.knobs().iter().map(|knob| knob.name.chars().count()).max().unwrap_or(0);
    let values: Vec<String> =
        run.knobs().iter().map(|knob| knob.set.clone().unwrap_or_else(|| knob.kind.start())).collect();
    let value_wide = values.iter().map(|value| value.chars().count()).max().unwrap_or(0);
    let mut text = String::new();
    for (knob, value) in run.knobs().iter().zip(values) {
        let _ = writeln!(text, "{:wide$}  {value:value_wide$}  {}", knob.name, knob.kind.allowed());
    }
    if run.knobs().is_empty() {
        text.push_str("the score has no knobs; declare one with knob(\"sag\", 0.3, 0, 1)\n");
    }
    print_text(&text)
}
