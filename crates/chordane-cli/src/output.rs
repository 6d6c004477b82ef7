//! Writing results: to files, whole or not at all, or to standard output.

use std::io::{self, Write};
use std::path::{Path, PathBuf};
use std::time::Duration;

use chordane::write::{Format, write_whole};

use crate::failure::Failure;

/// The width in characters of the terminal that results go to, where they go to one.
pub(crate) fn terminal_width() -> Option<usize> {
    terminal_size::terminal_size_of(io::stdout()).map(|(width, _)| usize::from(width.0))
}

/// Where a result goes, and in which format.
#[derive(Debug)]
pub(crate) struct Target {
    /// The file; none for standard output.
    pub(crate) file: Option<PathBuf>,
    pub(crate) format: Format,
}

impl Target {
    /// The target of an `-o`: its ending says the format, else `--as` does.
    pub(crate) fn of(out: &Path, format: Option<Format>) -> Result<Self, Failure> {
        let as_options: Vec<String> =
            Format::all().map(|format| format!("--as {}", format.ending())).collect();
        Self::at(out, format, &format!(", or say the format with {}", as_options.join(" or ")))
    }

    /// The target of an `-o` of a command that has no `--as`.
    pub(crate) fn by_ending(out: &Path) -> Result<Self, Failure> {
        Self::at(out, None, "")
    }

    fn at(out: &Path, format: Option<Format>, or_else: &str) -> Result<Self, Failure> {
        let mend = || format!("end the name in {}{or_else}", Format::endings());
        if out == Path::new("-") {
            let format =
                format.ok_or_else(|| Failure::call("cannot tell the format of standard output", mend()))?;
            return Ok(Self { file: None, format });
        }
        if out.is_dir() {
            return Err(Failure::writing(out, &io::Error::from(io::ErrorKind::IsADirectory)));
        }
        let known = Format::of_file(out).or(format);
        let format = known.ok_or_else(|| {
            Failure::call(format!("cannot tell the format from the file name {}", out.display()), mend())
        })?;
        let folder = out.parent().filter(|folder| !folder.as_os_str().is_empty());
        if folder.is_some_and(|folder| !folder.exists()) {
            return Err(Failure::writing(out, &io::Error::from(io::ErrorKind::NotFound)));
        }
        Ok(Self { file: Some(out.to_owned()), format })
    }

    pub(crate) fn write(&self, bytes: &[u8]) -> Result<(), Failure> {
        match &self.file {
            Some(file) => write_whole(file, bytes).map_err(|error| Failure::writing(file, &error)),
            None => print(bytes),
        }
    }

    pub(crate) fn name(&self) -> String {
        self.file.as_ref().map_or_else(|| "standard output".to_owned(), |file| file.display().to_string())
    }
}

/// Writes a result to standard output.
pub(crate) fn print(bytes: &[u8]) -> Result<(), Failure> {
    let mut out = io::stdout().lock();
    out.write_all(bytes).and_then(|()| out.flush()).map_err(|error| Failure::standard_output(&error))
}

/// Says something on standard error; where that is closed there is nobody to tell.
pub(crate) fn say(line: &str) {
    let _ = writeln!(io::stderr(), "{line}");
}

/// A number of bytes as people read it.
pub(crate) fn size(bytes: usize) -> String {
    match bytes {
        0..1_000 => format!("{bytes} B"),
        1_000..1_000_000 => format!("{:.1} kB", bytes as f64 / 1e3),
        _ => format!("{:.1} MB", bytes as f64 / 1e6),
    }
}

/// A time as people read it.
pub(crate) fn time(time: Duration) -> String {
    let milliseconds = time.as_secs_f64() * 1e3;
    if milliseconds < 1000.0 {
        format!("{milliseconds:.0} ms")
    } else {
        format!("{:.1} s", milliseconds / 1e3)
    }
}
