//! Reading what is to be drawn.

use std::io::Read;
use std::path::Path;

use chordane::read::{SvgNote, SvgReading};
use chordane::sheet::Sheet;
use chordane_score::{Limits, Runner, Stage, Words};

use crate::failure::Failure;
use crate::output::say;

/// What is drawn or checked.
#[derive(Debug)]
pub(crate) enum Input {
    /// A score: what messages call it, its text, and the words that it may use.
    Score(String, String, Words),
    /// An SVG document: what messages call it, and its bytes.
    Svg(String, Vec<u8>),
}

impl Input {
    /// Reads a file, or standard input for `-`; there, what begins with `<` is an SVG document.
    pub(crate) fn read(file: &Path, words: &Words) -> Result<Self, Failure> {
        if file == Path::new("-") {
            let (name, bytes) = (STANDARD_INPUT.to_owned(), read_standard_input()?);
            let without_mark = bytes.strip_prefix(b"\xef\xbb\xbf").unwrap_or(&bytes);
            let markup = without_mark.trim_ascii_start().starts_with(b"<");
            return if markup { Ok(Self::Svg(name, bytes)) } else { Self::score(name, bytes, words) };
        }
        let name = file.display().to_string();
        let ending =
            file.extension().and_then(|ending| ending.to_str()).unwrap_or_default().to_ascii_lowercase();
        if ending != "chord" && ending != "svg" {
            return Err(Failure::call(
                format!(
                    "{name} is neither a score nor an SVG document: its name ends in neither .chord nor .svg"
                ),
                "name a .chord or .svg file, or - to read one from standard input",
            ));
        }
        let bytes = read_file(file)?;
        if ending == "svg" { Ok(Self::Svg(name, bytes)) } else { Self::score(name, bytes, words) }
    }

    fn score(name: String, bytes: Vec<u8>, words: &Words) -> Result<Self, Failure> {
        let source = text(bytes, &name)?;
        Ok(Self::Score(name, source, words.clone()))
    }

    /// What a score is called, and its text; a document cannot be run again with other settings.
    pub(crate) fn origin(&self) -> Option<Origin> {
        match self {
            Self::Score(name, source, _) => Some(Origin { name: name.clone(), source: Some(source.clone()) }),
            Self::Svg(..) => None,
        }
    }

    /// Makes it ready to run.
    pub(crate) fn open(self, limits: Limits) -> Result<Opened, Failure> {
        match self {
            Self::Score(name, source, words) => Ok(Opened {
                runner: Runner::read_with(name, source, limits, &words)?,
                name: String::new(),
                notes: Vec::new(),
            }),
            Self::Svg(name, bytes) => {
                let SvgReading { sheet, notes, .. } = limits
                    .within(|| Sheet::read_svg(&bytes))
                    .map_err(|error| Failure::of_reading(&name, &error))?;
                // At an asked size it is shown as a browser shows it.
                let runner = Runner::new(move |stage: &mut Stage| {
                    let asked = stage.settings().size;
                    let read = |size| limits.within(|| Sheet::read_svg_at(&bytes, size).ok());
                    let at = asked.and_then(read);
                    at.map_or_else(|| sheet.clone(), |reading| reading.sheet)
                });
                Ok(Opened { runner, name, notes })
            }
        }
    }
}

/// What a score is called, and its text where it has one.
#[derive(Clone, Debug)]
pub(crate) struct Origin {
    pub(crate) name: String,
    pub(crate) source: Option<String>,
}

/// An input that is ready to run, and what of a document was not understood.
#[derive(Debug)]
pub(crate) struct Opened {
    pub(crate) runner: Runner<'static>,
    name: String,
    pub(crate) notes: Vec<SvgNote>,
}

impl Opened {
    /// Says what of a document was not understood.
    pub(crate) fn say_notes(&self) {
        self.notes.iter().for_each(|note| say(&format!("note: {}, {note}", self.name)));
    }
}

/// No input is larger than this: one that never ends would fill the memory.
const MAX_INPUT_BYTES: u64 = 256 << 20;

fn too_large(name: &str) -> Failure {
    Failure::input(
        format!("{name} is larger than {} MB", MAX_INPUT_BYTES >> 20),
        "split it into several files",
    )
}

/// What messages call standard input.
pub(crate) const STANDARD_INPUT: &str = "standard input";

/// All of standard input.
pub(crate) fn read_standard_input() -> Result<Vec<u8>, Failure> {
    let mut bytes = Vec::new();
    std::io::stdin().take(MAX_INPUT_BYTES + 1).read_to_end(&mut bytes).map_err(|error| {
        Failure::machine(format!("standard input cannot be read: {error}"), "name a file instead")
    })?;
    if bytes.len() as u64 > MAX_INPUT_BYTES { Err(too_large(STANDARD_INPUT)) } else { Ok(bytes) }
}

/// The bytes of a file.
pub(crate) fn read_file(file: &Path) -> Result<Vec<u8>, Failure> {
    let name = file.display();
    // Whoever opens a pipe into which nobody writes waits for ever.
    if file.metadata().is_ok_and(|held| !held.is_file() && !held.is_dir()) {
        return Err(Failure::call(format!("{name} is a pipe or a device, not a file"), "name a file"));
    }
    let mut bytes = Vec::new();
    let read =
        std::fs::File::open(file).and_then(|file| file.take(MAX_INPUT_BYTES + 1).read_to_end(&mut bytes));
    if read.as_ref().is_ok_and(|read| *read as u64 > MAX_INPUT_BYTES) {
        return Err(too_large(&name.to_string()));
    }
    read.map(|_| bytes).map_err(|error| match error.kind() {
        std::io::ErrorKind::NotFound => {
            Failure::call(format!("there is no file {name}"), "check the name and the folder")
        }
        _ if file.is_dir() => Failure::call(format!("{name} is a folder"), "name a file"),
        std::io::ErrorKind::NotADirectory | std::io::ErrorKind::InvalidFilename => {
            Failure::call(format!("no file can be called {name}"), "check the name and the folder")
        }
        _ => Failure::machine(
            format!("{name} cannot be read: {error}"),
            "check that it is a file you may read",
        ),
    })
}

fn text(bytes: Vec<u8>, name: &str) -> Result<String, Failure> {
    String::from_utf8(bytes).map_err(|error| {
        let at = error.utf8_error().valid_up_to();
        Failure::input(format!("{name} is not text: byte {at} is not UTF-8"), "save the score as UTF-8 text")
    })
}
