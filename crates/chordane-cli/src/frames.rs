//! The frames of a score that moves, one by one.

use std::ops::Range;

use chordane::raster::{Pixels, StillShapes};
use chordane::sheet::Sheet;
use chordane_score::{Limits, Runner, Settings};

use crate::drawing::{bytes_of, dressed, earlier, size_at, within};
use crate::failure::Failure;
use crate::input::Origin;
use crate::options::DrawOptions;

/// So many frames are held at a time.
pub(crate) const FRAMES_A_ROUND: usize = 16;

/// From so many frames on, two of them are looked at for what stands still.
const WORTH_A_LOOK: usize = 8;

/// How the bar of a clip looks.
pub(crate) const FRAMES_LEFT: &str = "drawing {bar:30} frame {pos} of {len}, {per_sec}, {eta} left {msg}";

/// What draws the frames of a clip.
pub(crate) struct Frames<'a> {
    pub(crate) options: &'a DrawOptions,
    pub(crate) settings: &'a Settings,
    pub(crate) origin: Option<&'a Origin>,
    pub(crate) limits: Option<Limits>,
    pub(crate) runner: Runner<'a>,
    /// How many there are in the whole clip.
    pub(crate) count: usize,
    /// What stands still in all of them.
    pub(crate) still: StillShapes,
}

impl Frames<'_> {
    pub(crate) fn settings(&self, frame: usize) -> Settings {
        self.settings.clone().frame(frame, self.count)
    }

    /// One frame, for a file in its format.
    pub(crate) fn sheet(&self, frame: usize) -> Result<(Sheet, Option<(u32, u32)>), Failure> {
        let settings = self.settings(frame);
        let sheet = self.runner.run(&settings).into_sheet()?;
        let earlier = earlier(&self.runner, &settings, self.options.trail)?;
        dressed(sheet, self.options, &settings, self.origin, self.limits, &earlier)
    }

    pub(crate) fn pixels(&self, frame: usize) -> Result<Pixels, Failure> {
        let (sheet, shown) = self.sheet(frame)?;
        let size = shown.unwrap_or_else(|| size_at(&sheet, 96.0));
        let own = self.options.pixel_options(shown);
        let drawn = within(self.limits, bytes_of(size), || sheet.pixels_with_still(&self.still, &own));
        drawn.map_err(|error| Failure::of_draw(&error, shown.is_some(), self.options.max_side))
    }

    /// One frame as the bytes of a file.
    pub(crate) fn png(&self, frame: usize) -> Result<Vec<u8>, Failure> {
        let mut bytes = Vec::new();
        let written = self.pixels(frame)?.write_png(&mut bytes);
        written.map_err(|error| Failure::input(error.to_string(), "draw it in another size"))?;
        Ok(bytes)
    }

    /// Finds out what two frames have in common, where there are enough for that to pay. Frames that cannot be drawn are told when it comes to their turn.
    pub(crate) fn find_still(&mut self) {
        let look = || {
            let ((first, shown), (second, _)) = (self.sheet(0).ok()?, self.sheet(1).ok()?);
            let own = self.options.pixel_options(shown);
            within(self.limits, 0, || StillShapes::of([&first, &second], &own)).ok()
        };
        if self.count >= WORTH_A_LOOK {
            self.still = look().unwrap_or_default();
        }
    }

    /// What is told before the failure of a frame.
    pub(crate) fn place(&self, frame: usize) -> String {
        let phase = (self.settings(frame).get_phase() * 1e4).round() / 1e4;
        format!("in frame {} of {}, at phase {phase}:", frame + 1, self.count)
    }
}

/// The numbers of a range, so many at a time.
pub(crate) fn rounds(range: Range<usize>, size: usize) -> impl Iterator<Item = Range<usize>> {
    let end = range.end;
    range.step_by(size.max(1)).map(move |begin| begin..(begin + size).min(end))
}
