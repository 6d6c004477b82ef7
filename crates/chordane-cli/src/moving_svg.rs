//! A score that moves, as one SVG document.

use std::path::Path;
use std::time::Instant;

use chordane::sheet::Sheet;
use chordane::write::{Format, SvgFrames};
use indicatif::ProgressBar;
use rayon::prelude::*;

use crate::failure::Failure;
use crate::frames::{FRAME_BATCH, Frames, PROGRESS_TEMPLATE, rounds};
use crate::output::{Target, progress, say, size, time};

/// The numbers of more frames than this make a document that no browser plays well.
pub(crate) const MAX_SVG_FRAMES: usize = 1_000;

/// So many reasons are told one by one.
const MAX_LISTED_REASONS: usize = 8;

/// Draws all frames into one document.
pub(crate) fn draw(frames: &Frames<'_>, file: Option<&Path>) -> Result<(), Failure> {
    let begin = Instant::now();
    let target = Target { file: file.map(Path::to_owned), format: Format::Svg };
    let count = frames.count;
    if count > MAX_SVG_FRAMES {
        return Err(Failure::call(
            format!(
                "{}: an animated SVG can have at most {MAX_SVG_FRAMES} frames, got {count}",
                target.name()
            ),
            "ask for fewer with --frames; it interpolates between them",
        ));
    }
    let bar = progress(PROGRESS_TEMPLATE, count);
    let text = text(frames, &bar).map_err(|(frame, failure)| {
        bar.finish_and_clear();
        if let Some(frame) = frame {
            say(&frames.place(frame));
        }
        failure
    })?;
    bar.finish_and_clear();
    target.write(text.as_bytes())?;
    say(&format!("{}  {count} frames  {}  {}", target.name(), size(text.len()), time(begin.elapsed())));
    Ok(())
}

/// All frames as one document. An error comes with the number of its frame, if it has one.
pub(crate) fn text(frames: &Frames<'_>, bar: &ProgressBar) -> Result<String, (Option<usize>, Failure)> {
    let count = frames.count;
    let (first, shown) = frames.sheet(0).map_err(|failure| (Some(0), failure))?;
    let options = frames.options.write_options(shown);
    let mut moving = SvgFrames::new(frames.settings.moment.seconds, options);
    let fault = |fault| (None, Failure::of_fault(&fault, "mend it in the input"));
    moving.push(&first).map_err(fault)?;
    bar.inc(1);
    for round in rounds(1..count, FRAME_BATCH) {
        let one = |frame: usize| {
            frames.sheet(frame).map(|(sheet, _)| sheet).map_err(|failure| (Some(frame), failure))
        };
        let sheets: Vec<Result<Sheet, _>> = round.into_par_iter().map(one).collect();
        for sheet in sheets {
            moving.push(&sheet?).map_err(fault)?;
            bar.inc(1);
        }
    }
    moving.text().map_err(|error| {
        let told: Vec<String> =
            error.unsaid().iter().take(MAX_LISTED_REASONS).map(ToString::to_string).collect();
        let more = error.unsaid().len().saturating_sub(MAX_LISTED_REASONS);
        let more = if more > 0 { format!("\n  and {more} more") } else { String::new() };
        let failure = Failure::input(
            format!("this motion cannot be written as animated SVG:\n  {}{more}", told.join("\n  ")),
            "keep the same items, contours and vertices in every frame, or draw a .gif or .apng instead",
        );
        (None, failure)
    })
}
