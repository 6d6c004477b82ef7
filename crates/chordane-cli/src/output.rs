//! Writing results: to files, whole or not at all, or to standard output.

use std::io::{self, Write};
use std::path::{Path, PathBuf};
use std::time::Duration;

use chordane::ground::visible;
use chordane::write::{Format, write_whole};

use indicatif::{ProgressBar, ProgressDrawTarget, ProgressStyle};

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
    /// The targets of a call, each another place.
    pub(crate) fn all(
        out: &[PathBuf],
        one: impl Fn(&Path) -> Result<Self, Failure>,
    ) -> Result<Vec<Self>, Failure> {
        each_once(out)?;
        out.iter().map(|out| one(out)).collect()
    }

    /// The target of an `-o`: its ending says the format, else `--as` does.
    pub(crate) fn of(out: &Path, format: Option<Format>) -> Result<Self, Failure> {
        let as_options: Vec<String> =
            Format::stills().map(|format| format!("--as {}", format.ending())).collect();
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
            is_open()?;
            return Ok(Self { file: None, format });
        }
        if out.is_dir() {
            return Err(Failure::writing(out, &io::Error::from(io::ErrorKind::IsADirectory)));
        }
        let known = Format::of_file(out).filter(|format| !format.is_clip()).or(format);
        let format = known.ok_or_else(|| {
            Failure::call(format!("cannot tell the format from the file name {}", out.display()), mend())
        })?;
        Self::is_place(out)?;
        Ok(Self { file: Some(out.to_owned()), format })
    }

    /// Looks whether a file can stand in a place.
    pub(crate) fn is_place(out: &Path) -> Result<(), Failure> {
        if out.is_dir() {
            return Err(Failure::writing(out, &io::Error::from(io::ErrorKind::IsADirectory)));
        }
        let folder = out.parent().filter(|folder| !folder.as_os_str().is_empty());
        if let Some(folder) = folder
            && let Err(error) = folder.metadata()
        {
            return Err(Failure::writing(out, &error));
        }
        if folder.is_some_and(|folder| !folder.is_dir()) {
            return Err(Failure::writing(out, &io::Error::from(io::ErrorKind::NotADirectory)));
        }
        Ok(())
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

/// Looks whether each place is named once.
pub(crate) fn each_once(out: &[PathBuf]) -> Result<(), Failure> {
    let twice = out.iter().enumerate().find(|(i, place)| out.iter().take(*i).any(|before| before == *place));
    match twice {
        None => Ok(()),
        Some((_, place)) => {
            let told = format!("-o {} is given twice", place.display());
            Err(Failure::call(told, "name each place once"))
        }
    }
}

/// Looks whether standard output leads anywhere.
pub(crate) fn is_open() -> Result<(), Failure> {
    if leads_nowhere() {
        return Err(Failure::machine(
            "standard output is closed or leads nowhere, so that nothing would be written",
            "send it to a file or another program, or name a file with -o",
        ));
    }
    Ok(())
}

/// Whether standard output was closed when the program began. It is then opened on the null device, for reading as well, which
/// one that is sent there on purpose seldom is.
#[cfg(target_os = "linux")]
fn leads_nowhere() -> bool {
    use std::os::unix::fs::MetadataExt;
    let null = std::fs::metadata("/dev/null").map(|null| null.rdev());
    let out = std::fs::metadata("/proc/self/fd/1").map(|out| out.rdev());
    let flags = std::fs::read_to_string("/proc/self/fdinfo/1").unwrap_or_default();
    let flags =
        flags.lines().find_map(|line| u32::from_str_radix(line.strip_prefix("flags:")?.trim(), 8).ok());
    let for_reading_too = flags.is_some_and(|flags| flags & 3 == 2);
    matches!((null, out), (Ok(null), Ok(out)) if null == out) && for_reading_too
}

#[cfg(not(target_os = "linux"))]
fn leads_nowhere() -> bool {
    false
}

/// `sails.png` becomes `sails-7.png`, or `sails-07.png` where there are ten or more; of so many digits at least.
pub(crate) fn numbered_file(file: &Path, number: usize, count: usize, at_least: usize) -> PathBuf {
    let digits = count.to_string().len().max(at_least);
    let stem = file.file_stem().unwrap_or_default().to_string_lossy();
    let ending = file.extension().map_or(String::new(), |ending| format!(".{}", ending.to_string_lossy()));
    file.with_file_name(format!("{stem}-{number:0digits$}{ending}"))
}

/// Writes a result to standard output.
pub(crate) fn print(bytes: &[u8]) -> Result<(), Failure> {
    let mut out = io::stdout().lock();
    out.write_all(bytes).and_then(|()| out.flush()).map_err(|error| Failure::standard_output(&error))
}

/// Writes a text to standard output.
pub(crate) fn print_text(text: &str) -> Result<(), Failure> {
    print(visible(text).as_bytes())
}

/// Says something on standard error; where that is closed there is nobody to tell.
pub(crate) fn say(line: &str) {
    let _ = writeln!(io::stderr(), "{}", visible(line));
}

/// So many numbers are named of those that failed.
const MAX_LISTED_NUMBERS: usize = 20;

/// Reports what went wrong with some of many, each reason once, below where it first came up. Gives the numbers of those that failed, as a sentence has
/// them; `None` where none did.
pub(crate) fn report_of_many<'f>(
    failed: impl IntoIterator<Item = (usize, &'f Failure)>,
    place: impl Fn(usize) -> String,
) -> Option<(usize, String)> {
    let (mut reasons, mut numbers) = (Vec::new(), Vec::new());
    for (number, failure) in failed {
        numbers.push(number.to_string());
        let reason = failure.to_string();
        if !reasons.contains(&reason) {
            say(&place(number));
            failure.report();
            reasons.push(reason);
        }
    }
    let count = numbers.len();
    let more = if count > MAX_LISTED_NUMBERS { ", .." } else { "" };
    numbers.truncate(MAX_LISTED_NUMBERS);
    (count > 0).then(|| (count, format!("{}{more}", numbers.join(", "))))
}

/// A bar on a terminal; nothing elsewhere, nor where the work is done in a moment.
pub(crate) fn progress(look: &str, count: usize) -> ProgressBar {
    let style = ProgressStyle::with_template(look).unwrap_or_else(|_| ProgressStyle::default_bar());
    let bar = ProgressBar::new(count as u64).with_style(style);
    bar.set_draw_target(ProgressDrawTarget::stderr_with_hz(10));
    bar.enable_steady_tick(Duration::from_millis(200));
    bar
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

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn kept_files_are_numbered() {
        assert_eq!(numbered_file(Path::new("sails.png"), 7, 120, 1), PathBuf::from("sails-007.png"));
        assert_eq!(
            numbered_file(Path::new("out/sails.tar.png"), 12, 24, 1),
            PathBuf::from("out/sails.tar-12.png")
        );
        assert_eq!(numbered_file(Path::new("kite.png"), 7, 48, 4), PathBuf::from("kite-0007.png"));
    }
}
