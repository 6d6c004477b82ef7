//! The frames of a score that moves, one by one.

use std::collections::{BTreeSet, HashMap};
use std::ops::Range;
use std::sync::{Mutex, PoisonError};

use chordane::raster::Pixels;
use chordane::sheet::Sheet;
use chordane_score::{Limits, Runner, Settings};

use crate::drawing::{bytes_of, dressed, earlier, size_at, within};
use crate::failure::Failure;
use crate::input::{Origin, read_file};
use crate::options::DrawOptions;
use crate::record::{Record, digest};

/// So many frames are held at a time.
pub(crate) const FRAME_BATCH: usize = 16;

/// How the bar of a clip looks.
pub(crate) const PROGRESS_TEMPLATE: &str =
    "drawing {bar:30} frame {pos} of {len}, {per_sec}, {eta} left {msg}";

/// A sheet, its size in pixels if that differs from its own, and the names of the pictures it was painted with.
type Painted = (Sheet, Option<(u32, u32)>, BTreeSet<String>);

/// What draws the frames of a clip.
pub(crate) struct Frames<'a> {
    pub(crate) options: &'a DrawOptions,
    pub(crate) settings: &'a Settings,
    pub(crate) origin: Option<&'a Origin>,
    pub(crate) limits: Option<Limits>,
    pub(crate) runner: Runner<'a>,
    /// How many there are in the whole clip.
    pub(crate) count: usize,
    /// Digests of picture files, by the pictures' names.
    pub(crate) digests: Mutex<HashMap<String, Option<String>>>,
}

impl Frames<'_> {
    pub(crate) fn settings(&self, frame: usize) -> Settings {
        self.settings.clone().frame(frame, self.count)
    }

    /// One frame, for a file in its format.
    pub(crate) fn sheet(&self, frame: usize) -> Result<(Sheet, Option<(u32, u32)>), Failure> {
        self.painted(frame).map(|(sheet, shown, _)| (sheet, shown))
    }

    /// As [`Frames::sheet`], with the names of the pictures that the score used.
    fn painted(&self, frame: usize) -> Result<Painted, Failure> {
        let settings = self.settings(frame);
        let run = self.runner.run(&settings);
        let pictures = run.pictures().clone();
        let earlier = earlier(&self.runner, &settings, self.options.trail)?;
        let sheet = run.into_sheet()?;
        let (sheet, shown) = dressed(sheet, self.options, &settings, self.origin, self.limits, &earlier)?;
        Ok((sheet, shown, pictures))
    }

    /// The record that a frame's own file carries, without its pictures.
    pub(crate) fn record(&self, frame: usize) -> Option<Record> {
        Some(Record::of_frame(self.origin?, &self.settings(frame), self.options))
    }

    /// The digest of a picture's file, by its name.
    pub(crate) fn digest_of(&self, name: &str) -> Option<String> {
        let mut known = self.digests.lock().unwrap_or_else(PoisonError::into_inner);
        let of = || {
            let file = self.settings.pictures.file_of(name)?;
            read_file(&file).ok().map(|bytes| digest(&bytes))
        };
        known.entry(name.to_owned()).or_insert_with(of).clone()
    }

    pub(crate) fn pixels(&self, frame: usize) -> Result<Pixels, Failure> {
        let (sheet, shown) = self.sheet(frame)?;
        self.pixels_of(&sheet, shown)
    }

    fn pixels_of(&self, sheet: &Sheet, shown: Option<(u32, u32)>) -> Result<Pixels, Failure> {
        let size = shown.unwrap_or_else(|| size_at(sheet, 96.0));
        let own = self.options.write_options(shown);
        let drawn = within(self.limits, bytes_of(size), || sheet.pixels_with(&own));
        drawn.map_err(|error| Failure::of_draw(&error, shown.is_some(), self.options.max_side))
    }

    /// One frame as the bytes of a file.
    pub(crate) fn png(&self, frame: usize) -> Result<Vec<u8>, Failure> {
        let (mut sheet, shown, pictures) = self.painted(frame)?;
        if self.options.bones.is_none()
            && let Some(record) = self.record(frame)
        {
            let digests =
                pictures.into_iter().filter_map(|name| self.digest_of(&name).map(|own| (name, own)));
            sheet = record.with_pictures(digests.collect()).put_on(sheet);
        }
        let written = self.pixels_of(&sheet, shown)?.png();
        written.map_err(|error| Failure::input(error.to_string(), "draw it in another size"))
    }

    /// What is told before the failure of a frame.
    pub(crate) fn place(&self, frame: usize) -> String {
        let phase = (self.settings(frame).moment.phase * 1e4).round() / 1e4;
        format!("in frame {} of {}, at phase {phase}:", frame + 1, self.count)
    }
}

/// The numbers of a range, so many at a time.
pub(crate) fn rounds(range: Range<usize>, size: usize) -> impl Iterator<Item = Range<usize>> {
    let end = range.end;
    range.step_by(size.max(1)).map(move |begin| begin..(begin + size).min(end))
}
