//! Exports: files made of what is shown, as `draw` makes them, sent while they are made. Nothing is kept on the disk, and what nobody takes any more
//! is not drawn any further.

use std::collections::HashMap;
use std::io::{self, Write};
use std::sync::Mutex;

use chordane::write::{Dither, Format};
use chordane_score::{Limits, Runner, Settings};
use indicatif::ProgressBar;
use serde::Serialize;

use crate::clip::ClipPlan;
use crate::drawing::{bytes_of, dressed, render, size_at, within};
use crate::failure::Failure;
use crate::frames::Frames;
use crate::input::Origin;
use crate::moving_svg;
use crate::options::{DrawOptions, parse_size};
use crate::web::Outlet;

/// The most frames in an exported clip.
const MAX_FRAMES: usize = 2000;

/// A format that a page offers.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize)]
pub(crate) struct ExportFormat {
    ending: &'static str,
    /// The most frames of a clip; none for a still.
    most: Option<usize>,
}

impl ExportFormat {
    /// All formats: those of stills, those of clips, and the SVG that moves.
    pub(crate) fn all() -> Vec<Self> {
        let one = |format: Format, most| Self { ending: format.ending(), most };
        let stills = Format::stills().map(|format| one(format, None));
        let clips = Format::clips().map(|format| one(format, Some(MAX_FRAMES)));
        stills.chain(clips).chain([one(Format::Svg, Some(moving_svg::MAX_SVG_FRAMES))]).collect()
    }
}

/// The kind of file that an export makes.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Kept {
    Still(Format),
    Clip(Format),
    MovingSvg,
    Track,
}

/// An export as a page requests it.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Export {
    pub(super) kept: Kept,
    frames: usize,
    size: Option<(u32, u32)>,
}

impl Export {
    /// Reads a request: the file's name and the fields of the page.
    pub(crate) fn asked(file: &str, query: &HashMap<String, String>) -> Result<Self, String> {
        let field = |name: &str| query.get(name).map(|value| value.trim()).filter(|value| !value.is_empty());
        let ending = file.rsplit_once('.').map_or("", |(_, ending)| ending);
        let moves = field("frames").is_some();
        let kept = match Format::of_ending(ending) {
            _ if ending == "jsonl" => Kept::Track,
            Some(Format::Svg) if moves => Kept::MovingSvg,
            Some(format) if format.is_clip() => Kept::Clip(format),
            Some(format) => Kept::Still(format),
            None => return Err(format!("{file} is of no format that can be exported")),
        };
        let most = if kept == Kept::MovingSvg { moving_svg::MAX_SVG_FRAMES } else { MAX_FRAMES };
        let frames = field("frames").unwrap_or("1");
        let frames = frames.parse().ok().filter(|frames| (1..=most).contains(frames));
        let told = field("frames").unwrap_or_default();
        let frames =
            frames.ok_or_else(|| format!("Frames: give a whole number from 1 to {most}, got {told}"))?;
        let size = field("size").map(|size| parse_size(size).map_err(|why| format!("Size: {why}")));
        Ok(Self { kept, frames, size: size.transpose()? })
    }

    /// Runs a score, draws it, and sends the file while it is drawn.
    pub(crate) fn draw<'a>(
        self,
        settings: &Settings,
        origin: Option<&Origin>,
        limits: Option<Limits>,
        open: impl FnOnce() -> Result<Runner<'a>, Failure>,
        (out, bar): (&mut Outlet, &ProgressBar),
    ) -> Result<(), Failure> {
        let options = DrawOptions::of_size(self.size);
        let settings = options.settings_from(settings.clone())?;
        let runner = open()?;
        let seed = runner.run(&settings.clone().frame(0, self.frames)).seed();
        // The seed is in the file, also where it is the score's own.
        let settings = settings.seed(seed);
        if let Kept::Still(format) = self.kept {
            let sheet = runner.run(&settings).into_sheet()?;
            let (sheet, shown) = dressed(sheet, &options, &settings, origin, limits, &[])?;
            let pixels = shown.unwrap_or_else(|| size_at(&sheet, 96.0));
            let bytes =
                within(limits, bytes_of(pixels), || render(&sheet, format, &options.write_options(shown)))?;
            return out.write_all(&bytes).map_err(|error| gone(&error));
        }
        let count = self.frames;
        let digests = Mutex::default();
        let frames =
            Frames { options: &options, settings: &settings, origin, limits, runner, count, digests };
        bar.set_length(count as u64);
        let in_frame = |frame: usize, failure: &Failure| {
            Failure::input(format!("{} {failure}", frames.place(frame)), "mend it in the score")
        };
        match self.kept {
            Kept::MovingSvg => {
                let text = moving_svg::text(&frames, bar).map_err(|(frame, failure)| match frame {
                    Some(frame) => in_frame(frame, &failure),
                    None => failure,
                })?;
                out.write_all(text.as_bytes()).map_err(|error| gone(&error))
            }
            Kept::Clip(format) => {
                let seconds = frames.settings.moment.seconds;
                let plan = ClipPlan { count, seconds, format, shared: true, dither: Dither::default() };
                let taken = out.clone();
                let pixels = |frame: usize| {
                    if taken.is_closed() {
                        return Err(gone(&io::ErrorKind::BrokenPipe.into()));
                    }
                    frames.pixels(frame).map_err(|failure| in_frame(frame, &failure))
                };
                let failed = |error: io::Error| match error.kind() {
                    io::ErrorKind::InvalidInput => {
                        Failure::input(error.to_string(), "export it in another size or format")
                    }
                    _ => gone(&error),
                };
                plan.write_to(out, bar, &pixels, &failed)
            }
            Kept::Still(_) | Kept::Track => Ok(()),
        }
    }
}

fn gone(error: &io::Error) -> Failure {
    Failure::input(format!("the export was called off: {error}"), "start it again")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_asked_for_is_checked_in_the_words_of_the_page() {
        let asked = |file: &str, frames: &str, size: &str| {
            let query = HashMap::from([
                ("frames".to_owned(), frames.to_owned()),
                ("size".to_owned(), size.to_owned()),
            ]);
            Export::asked(file, &query)
        };
        let wrong = |file: &str, frames: &str, size: &str| asked(file, frames, size).unwrap_err();
        assert_eq!(
            wrong("kite.y4m", "100000000", ""),
            "Frames: give a whole number from 1 to 2000, got 100000000"
        );
        assert_eq!(wrong("kite.gif", "0", ""), "Frames: give a whole number from 1 to 2000, got 0");
        assert_eq!(wrong("kite.svg", "1500", ""), "Frames: give a whole number from 1 to 1000, got 1500");
        assert!(wrong("kite.png", "", "9").starts_with("Size: "));
        assert_eq!(wrong("kite.doc", "", ""), "kite.doc is of no format that can be exported");
        let still = asked("kite.svg", "", "").unwrap();
        assert_eq!((still.kept, still.frames), (Kept::Still(Format::Svg), 1));
        assert_eq!(asked("kite.svg", "12", "").unwrap().kept, Kept::MovingSvg);
        assert_eq!(asked("kite.png", "", "64x48").unwrap().size, Some((64, 48)));
    }
}
