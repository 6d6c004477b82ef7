//! Clips: a score that moves, frame by frame, to one file or to a picture for each frame.

use std::io::{self, BufWriter, Write};
use std::iter;
use std::ops::Range;
use std::path::{Path, PathBuf};
use std::sync::Mutex;
use std::time::Instant;

use chordane::ground::Given;
use chordane::raster::Pixels;
use chordane::write::{Clip, ClipOptions, Dither, Format, Palette, WholeFile};
use chordane_score::{Limits, Runner, Settings};
use indicatif::ProgressBar;
use rayon::prelude::*;

use crate::drawing::bytes_of;
use crate::failure::Failure;
use crate::frames::{FRAME_BATCH, Frames, PROGRESS_TEMPLATE, rounds};
use crate::input::Origin;
use crate::knobs;
use crate::moving_svg;
use crate::options::{DrawOptions, MAX_FRAMES};
use crate::output::{Target, each_once, is_open, numbered_file, progress, report_of_many, say, size, time};
use crate::record::is_drawn;

/// Frames to the second, where their number is not said.
const DEFAULT_FPS: f64 = 25.0;

/// So many bytes of frames are held at a time, but one frame at least.
const MAX_BUFFERED_BYTES: usize = 512 << 20;

/// So many failures are kept, to be told; the others are only counted.
const MAX_STORED_FAILURES: usize = 1000;

/// So many frames are looked at for the colours that all of them share.
const PALETTE_SAMPLES: usize = 12;

/// Whether a clip is asked for: by the number of its frames, or by a file that only holds clips.
pub(crate) fn is_asked(options: &DrawOptions) -> bool {
    let own = &options.clip;
    let named = options.out.iter().filter_map(|out| ending(out)).chain(options.format.as_deref());
    own.frames.is_some()
        || own.part.is_some()
        || own.resume
        || named.into_iter().any(|name| Format::of_ending(name).is_some_and(Format::is_clip))
}

fn ending(file: &Path) -> Option<&str> {
    file.extension().and_then(|ending| ending.to_str())
}

/// What the frames of a clip are kept in.
#[derive(Clone, Copy, PartialEq, Eq)]
enum Kept {
    /// A picture for each.
    Pictures,
    /// One file of pictures.
    Clip(Format),
    /// One document that moves.
    Svg,
}

/// Where a clip goes.
struct ClipTarget {
    /// The file; none for standard output.
    file: Option<PathBuf>,
    kept: Kept,
}

impl ClipTarget {
    fn of(out: &Path, options: &DrawOptions) -> Result<Self, Failure> {
        let name = ending(out).or(options.format.as_deref()).unwrap_or_default();
        let named = if out == Path::new("-") { options.format.as_deref().unwrap_or_default() } else { name };
        let kept = match Format::of_ending(named) {
            Some(Format::Png) => Some(Kept::Pictures),
            Some(Format::Svg) => Some(Kept::Svg),
            Some(format) if format.is_clip() => Some(Kept::Clip(format)),
            _ => None,
        };
        let Some(kept) = kept else {
            let names = Format::clips().map(|format| format.ending()).chain([Format::Svg.ending()]);
            let endings: Vec<String> = names.map(|name| format!(".{name}")).collect();
            return Err(Failure::call(
                format!(
                    "{} cannot hold a clip",
                    if out == Path::new("-") { "standard output".into() } else { out.display().to_string() }
                ),
                format!("end the name in {}, or in .png for a picture of each frame", endings.join(", ")),
            ));
        };
        if out == Path::new("-") {
            if kept == Kept::Pictures {
                return Err(Failure::call(
                    "many pictures cannot go to standard output",
                    format!("name a .png file with -o, or a clip with --as {}", Format::Y4m.ending()),
                ));
            }
            is_open()?;
            return Ok(Self { file: None, kept });
        }
        Target::is_place(out)?;
        Ok(Self { file: Some(out.to_owned()), kept })
    }

    fn name(&self) -> String {
        self.file.as_ref().map_or_else(|| "standard output".to_owned(), |file| file.display().to_string())
    }
}

/// Draws a clip.
pub(crate) fn draw<'a>(
    options: &DrawOptions,
    settings: &Settings,
    origin: Option<&Origin>,
    limits: Option<Limits>,
    open: impl FnOnce() -> Result<Runner<'a>, Failure>,
) -> Result<(), Failure> {
    each_once(&options.out)?;
    let targets: Vec<ClipTarget> =
        options.out.iter().map(|out| ClipTarget::of(out, options)).collect::<Result<_, _>>()?;
    let own = &options.clip;
    if options.knobs.phase.is_some() {
        return Err(Failure::call("a clip goes through all phases", "leave out --phase, or --frames"));
    }
    if let Some(other) =
        targets.iter().find(|target| target.kept != Kept::Pictures && (own.part.is_some() || own.resume))
    {
        let what = if own.part.is_some() { "drawn in parts" } else { "resumed" };
        return Err(Failure::call(
            format!("{} cannot be {what}: it is one file", other.name()),
            "draw a picture for each frame, -o frames/name.png, and put them together afterwards",
        ));
    }
    let count =
        own.frames.unwrap_or_else(|| ((settings.moment.seconds * DEFAULT_FPS).round() as usize).max(1));
    if count > MAX_FRAMES {
        let told = format!("{} seconds are {count} frames, which is too many", settings.moment.seconds);
        return Err(Failure::call(told, format!("say how many with --frames, at most {MAX_FRAMES}")));
    }
    let runner = open()?;
    // What the score prints, remarks and gets wrong is told once, for the first frame.
    let first = knobs::run(&runner, &settings.clone().frame(0, count));
    match &first {
        Ok(run) => knobs::note_still(run),
        Err(failure) if failure.code() != 1 => return first.map(drop),
        // It is told with its frame.
        Err(_) => {}
    }
    // The seed is in the files, also where it is the score's own.
    let seeded = first.as_ref().map_or_else(|_| settings.clone(), |run| settings.clone().seed(run.seed()));
    let settings = &seeded;
    drop(first);
    let digests = Mutex::default();
    let frames = Frames { options, settings, origin, limits, runner, count, digests };
    for target in &targets {
        match (target.kept, &target.file) {
            (Kept::Pictures, file) => file.iter().try_for_each(|file| pictures(&frames, file))?,
            (Kept::Clip(format), file) => one_file(&frames, format, file.as_deref())?,
            (Kept::Svg, file) => moving_svg::draw(&frames, file.as_deref())?,
        }
    }
    Ok(())
}

/// The frames of one part of the whole.
fn share_of(count: usize, part: Option<(usize, usize)>) -> Range<usize> {
    let Some((part, parts)) = part else { return 0..count };
    let edge = |part: usize| (part as u128 * count as u128 / parts.max(1) as u128) as usize;
    edge(part - 1)..edge(part)
}

/// A picture for each frame. What cannot be drawn is told in the end; the others are there.
fn pictures(frames: &Frames<'_>, file: &Path) -> Result<(), Failure> {
    let begin = Instant::now();
    let range = share_of(frames.count, frames.options.clip.part);
    let name = |frame: usize| numbered_file(file, frame + 1, frames.count, 4);
    let bar = progress(PROGRESS_TEMPLATE, range.len());
    let draw = |frame: usize| -> Result<Option<usize>, (usize, Failure)> {
        let file = name(frame);
        let kept = frames.options.clip.resume
            && frames
                .record(frame)
                .is_some_and(|record| is_drawn(&file, &record, |name| frames.digest_of(name)));
        let drawn = if kept {
            Ok(None)
        } else {
            frames.png(frame).and_then(|bytes| {
                let target = Target { file: Some(file), format: Format::Png };
                target.write(&bytes).map(|()| Some(bytes.len()))
            })
        };
        bar.inc(1);
        drawn.map_err(|failure| (frame, failure))
    };
    let (mut drawn, mut bytes, mut failures, mut failed) = (0, 0, 0, Vec::new());
    for round in rounds(range.clone(), FRAME_BATCH * 4) {
        let done: Vec<_> = round.into_par_iter().with_max_len(1).map(draw).collect();
        for one in done {
            match one {
                Ok(Some(size)) => (drawn, bytes) = (drawn + 1, bytes + size),
                Ok(None) => {}
                // A full disk is full for all.
                Err((_, failure)) if failure.code() != 1 => {
                    bar.finish_and_clear();
                    return Err(failure);
                }
                Err(one) => {
                    failures += 1;
                    if failed.len() < MAX_STORED_FAILURES {
                        failed.push(one);
                    }
                }
            }
        }
    }
    bar.finish_and_clear();
    let kept = range.len() - drawn - failures;
    let there = if kept > 0 { format!(", {kept} were there") } else { String::new() };
    let names = match (range.clone().next(), range.clone().next_back()) {
        (Some(first), Some(last)) if first < last => {
            let last = name(last);
            format!("{} .. {}", name(first).display(), last.file_name().unwrap_or_default().to_string_lossy())
        }
        (Some(only), _) => name(only).display().to_string(),
        _ => "no file".to_owned(),
    };
    say(&format!("{names}  {drawn} frames{there}  {}  {}", size(bytes), time(begin.elapsed())));
    let numbered = failed.iter().map(|(frame, failure)| (frame + 1, failure));
    match report_of_many(numbered, |number| frames.place(number - 1)) {
        None => Ok(()),
        Some((_, numbers)) => Err(Failure::input(
            format!("{failures} of {} frames could not be drawn: {numbers}", range.len()),
            "the others are drawn; mend the score, and draw the rest with --resume",
        )),
    }
}

/// All frames in one file.
fn one_file(frames: &Frames<'_>, format: Format, file: Option<&Path>) -> Result<(), Failure> {
    let begin = Instant::now();
    let own = &frames.options.clip;
    let dither = Given::<Dither>::from(own.dither.as_str()).resolve("--dither").unwrap_or_default();
    let plan = ClipPlan {
        count: frames.count,
        seconds: frames.settings.moment.seconds,
        format,
        shared: own.palette != "frame",
        dither,
    };
    let pixels = |frame: usize| frames.pixels(frame).inspect_err(|_| say(&frames.place(frame)));
    let bytes = plan.write(file, &pixels)?;
    let name = file.map_or("standard output".to_owned(), |file| file.display().to_string());
    say(&format!("{name}  {} frames  {}  {}", frames.count, size(bytes), time(begin.elapsed())));
    Ok(())
}

/// What a clip in one file is.
pub(crate) struct ClipPlan {
    pub(crate) count: usize,
    pub(crate) seconds: f64,
    pub(crate) format: Format,
    /// Whether the frames of a GIF file share their colours, and how others are made up.
    pub(crate) shared: bool,
    pub(crate) dither: Dither,
}

type Draw<'d> = dyn Fn(usize) -> Result<Pixels, Failure> + Sync + 'd;

impl ClipPlan {
    /// Writes the frames that a function draws, to a file or to standard output, while the next ones are drawn; gives the number of bytes.
    pub(crate) fn write(&self, file: Option<&Path>, pixels: &Draw<'_>) -> Result<usize, Failure> {
        let failed = |error: io::Error| match (file, error.kind()) {
            (_, io::ErrorKind::InvalidInput) => {
                Failure::input(error.to_string(), "draw it in another size or format")
            }
            (Some(file), _) => Failure::writing(file, &error),
            (None, _) => Failure::standard_output(&error),
        };
        let mut whole = file.map(WholeFile::create).transpose().map_err(failed)?;
        let out: Box<dyn Write + Send> = match &mut whole {
            Some(whole) => Box::new(BufWriter::new(whole)),
            None => Box::new(BufWriter::new(io::stdout())),
        };
        let mut counted = Counted { bytes: 0, out };
        let bar = progress(PROGRESS_TEMPLATE, self.count);
        self.write_to(&mut counted, &bar, pixels, &failed)?;
        let bytes = counted.bytes;
        drop(counted);
        whole.map_or(Ok(()), WholeFile::finish).map_err(failed)?;
        Ok(bytes)
    }

    /// Writes the frames that a function draws, while the next ones are drawn.
    pub(crate) fn write_to(
        &self,
        out: &mut (dyn Write + Send),
        bar: &ProgressBar,
        pixels: &Draw<'_>,
        failed: &(dyn Fn(io::Error) -> Failure + Sync),
    ) -> Result<(), Failure> {
        let first = pixels(0)?;
        let own = (first.width(), first.height());
        let options = self.options(pixels, bar)?;
        let mut clip = Clip::begin(&mut *out, self.format, own, options).map_err(failed)?;
        bar.inc(1);
        let a_round = (MAX_BUFFERED_BYTES / bytes_of(own).max(1)).clamp(1, FRAME_BATCH);
        let drawn_round = |round: Range<usize>| -> Vec<Result<Pixels, Failure>> {
            let one = |frame: usize| {
                let drawn = pixels(frame);
                bar.inc(1);
                drawn
            };
            round.into_par_iter().with_max_len(1).map(one).collect()
        };
        let mut ready = vec![Ok(first)];
        // The last round draws nothing: it writes what the one before it drew.
        for round in rounds(1..self.count, a_round).chain(iter::once(0..0)) {
            let mut write = || ready.drain(..).try_for_each(|frame| clip.push(&frame?).map_err(failed));
            let (written, next) = rayon::join(&mut write, || drawn_round(round));
            if written.is_err() {
                bar.finish_and_clear();
            }
            written?;
            ready = next;
        }
        clip.end().map_err(failed)?;
        out.flush().map_err(failed)?;
        bar.finish_and_clear();
        Ok(())
    }

    /// For a GIF file with the colours that its frames share: some of them are drawn for that before the others.
    fn options(&self, pixels: &Draw<'_>, bar: &ProgressBar) -> Result<ClipOptions, Failure> {
        let options = ClipOptions { dither: self.dither, ..ClipOptions::new(self.count, self.seconds) };
        if self.format != Format::Gif || !self.shared {
            return Ok(options);
        }
        bar.set_message("colours");
        let looked_at: Vec<usize> = (0..self.count).step_by(self.count.div_ceil(PALETTE_SAMPLES)).collect();
        let some: Vec<Pixels> =
            looked_at.par_iter().with_max_len(1).map(|frame| pixels(*frame)).collect::<Result<_, _>>()?;
        bar.set_message("");
        Ok(ClipOptions { palette: Some(Palette::of(&some)), ..options })
    }
}

/// Counts what is written.
struct Counted<'w> {
    bytes: usize,
    out: Box<dyn Write + Send + 'w>,
}

impl Write for Counted<'_> {
    fn write(&mut self, bytes: &[u8]) -> io::Result<usize> {
        let written = self.out.write(bytes)?;
        self.bytes += written;
        Ok(written)
    }

    fn flush(&mut self) -> io::Result<()> {
        self.out.flush()
    }
}
