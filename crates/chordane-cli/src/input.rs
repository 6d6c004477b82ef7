//! Reading what is to be drawn.

use std::io::Read;
use std::path::Path;

use chordane::sheet::Sheet;
use chordane_score::{Limits, Score, Script, Stage};

use crate::failure::Failure;
use crate::output::say;

/// What is drawn or checked.
#[derive(Debug)]
pub(crate) enum Input {
    /// A score: what messages call it, and its text.
    Score(String, String),
    /// An SVG document: what messages call it, and its bytes.
    Svg(String, Vec<u8>),
}

impl Input {
    /// Reads a file, or standard input for `-`; there, what begins with `<` is an SVG document.
    pub(crate) fn read(file: &Path) -> Result<Self, Failure> {
        if file == Path::new("-") {
            let (name, mut bytes) = ("standard input".to_owned(), Vec::new());
            std::io::stdin().read_to_end(&mut bytes).map_err(|error| {
                Failure::machine(format!("standard input cannot be read: {error}"), "name a file instead")
            })?;
            let without_mark = bytes.strip_prefix(b"\xef\xbb\xbf").unwrap_or(&bytes);
            let markup = without_mark.trim_ascii_start().starts_with(b"<");
            return if markup { Ok(Self::Svg(name, bytes)) } else { Self::score(name, bytes) };
        }
        let name = file.display().to_string();
        let ending =
            file.extension().and_then(|ending| ending.to_str()).unwrap_or_default().to_ascii_lowercase();
        if ending != "chord" && ending != "svg" {
            return Err(Failure::call(
                format!("{name} is no score and no SVG document: its ending is not .chord or .svg"),
                "name a .chord or .svg file, or - to read one from standard input",
            ));
        }
        let bytes = read_file(file)?;
        if ending == "svg" { Ok(Self::Svg(name, bytes)) } else { Self::score(name, bytes) }
    }

    fn score(name: String, bytes: Vec<u8>) -> Result<Self, Failure> {
        let source = text(bytes, &name)?;
        Ok(Self::Score(name, source))
    }

    /// The sheet that it makes. What is not understood of a document is said on standard error.
    pub(crate) fn sheet(self, limits: Limits, stage: &mut Stage) -> Result<Sheet, Failure> {
        match self {
            Self::Score(name, source) => Ok(Script::read(name, source, limits)?.perform(stage)?),
            Self::Svg(name, bytes) => {
                let reading = Sheet::read_document(&bytes)
                    .map_err(|error| Failure::input(format!("{name}: {error}"), "mend the document"))?;
                for note in &reading.notes {
                    say(&format!("note: {name}, {note}"));
                }
                Ok(reading.sheet)
            }
        }
    }
}

/// The bytes of a file.
pub(crate) fn read_file(file: &Path) -> Result<Vec<u8>, Failure> {
    let name = file.display();
    std::fs::read(file).map_err(|error| match error.kind() {
        std::io::ErrorKind::NotFound => {
            Failure::call(format!("there is no file {name}"), "check the name and the folder")
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
        Failure::input(format!("{name} is no text: byte {at} is not UTF-8"), "save the score as UTF-8 text")
    })
}
