//! What drawing to files has in common, one picture or many: the sheet as it is to be drawn, its size in pixels, and its bytes.

use chordane::ground::{Given, Named};
use chordane::number::{Point, pt};
use chordane::picture::{BoneLayer, BonesOptions};
use chordane::sheet::Sheet;
use chordane::sheet::WriteOptions;
use chordane::write::Format;
use chordane_score::{Limits, Runner, Settings};

use crate::failure::Failure;
use crate::input::Origin;
use crate::options::DrawOptions;
use crate::record::Record;

/// So many moments are a whole loop, for trails.
const TRAIL_STEPS_PER_LOOP: f64 = 48.0;

/// The moments before the present one, the oldest first.
pub(crate) fn earlier(
    runner: &Runner<'_>,
    settings: &Settings,
    count: Option<u16>,
) -> Result<Vec<Sheet>, Failure> {
    let before = |k: u16| {
        let phase = settings.moment.phase - f64::from(k) / TRAIL_STEPS_PER_LOOP;
        let run = runner.run(&settings.clone().phase(phase - phase.floor()));
        run.into_sheet().map_err(Failure::from)
    };
    (1..=count.unwrap_or(0)).rev().map(before).collect()
}

/// A sheet as it is to be drawn: on its coarse grid or with its bones, where they are asked for, and with the record of how it was made; and the size
/// in pixels, where it is not the sheet's own.
pub(crate) fn dressed(
    sheet: Sheet,
    options: &DrawOptions,
    settings: &Settings,
    origin: Option<&Origin>,
    limits: Option<Limits>,
    earlier: &[Sheet],
) -> Result<(Sheet, Option<(u32, u32)>), Failure> {
    // A picture that is made again has the size that was asked for then.
    let asked = options.size.or_else(|| settings.size.map(|size| (size.x as u32, size.y as u32)));
    let asked = asked.or_else(|| options.dpi.map(|dpi| size_at(&sheet, dpi)));
    let shown = if options.bones.is_some() { asked.or_else(|| Some(fitted(&sheet))) } else { asked };
    let (sheet, shown) = match options.grain {
        Some(grain) => {
            let shown = enlarged(grain, asked.unwrap_or_else(|| size_at(&sheet, 96.0)));
            let made = within(limits, bytes_of(grain), || sheet.grained(grain.0, grain.1, options.partial));
            (made.map_err(|error| Failure::of_draw(&error, true, options.max_side))?, Some(shown))
        }
        None => (sheet, shown),
    };
    let sheet = match origin {
        _ if options.bones.is_some() => {
            let layers = options.bones.as_deref().unwrap_or_default();
            within(limits, 0, || bones(&sheet, earlier, shown, layers))?
        }
        Some(origin) => Record::of(origin, settings).put_on(sheet),
        None => sheet,
    };
    Ok((sheet, shown))
}

impl DrawOptions {
    /// What the score is run with, over what there was.
    pub(crate) fn settings_from(&self, settings: Settings) -> Result<Settings, Failure> {
        let settings = self.knobs.settings_from(settings)?;
        Ok(match self.size {
            Some((width, height)) => settings.size((f64::from(width), f64::from(height))),
            None => settings,
        })
    }

    /// How files are written, in a size if one is asked for.
    pub(crate) fn write_options(&self, size: Option<(u32, u32)>) -> WriteOptions {
        WriteOptions {
            size,
            antialias: !self.no_antialias,
            max_side: self.max_side,
            decimals: self.decimals.map(usize::from),
            ..WriteOptions::default()
        }
    }
}

/// Does some work within the time and memory of the limits, where there are limits, and so much more memory.
pub(crate) fn within<R>(limits: Option<Limits>, more: usize, work: impl FnOnce() -> R) -> R {
    match limits {
        Some(limits) => Limits { memory: limits.memory.saturating_add(more), ..limits }.within(work),
        None => work(),
    }
}

/// What the pixels of a picture take, and writing them to a file.
pub(crate) fn bytes_of((width, height): (u32, u32)) -> usize {
    (width as usize).saturating_mul(height as usize).saturating_mul(8)
}

/// The size of a coarse grid that is enlarged by the largest whole factor that fits, once at least.
fn enlarged(grain: (u32, u32), room: (u32, u32)) -> (u32, u32) {
    let factor = (room.0 / grain.0.max(1)).min(room.1 / grain.1.max(1)).max(1);
    (grain.0.saturating_mul(factor), grain.1.saturating_mul(factor))
}

/// How many pixels a sheet has at so many to the inch.
pub(crate) fn size_at(sheet: &Sheet, dpi: f64) -> (u32, u32) {
    let side = |length: f64| {
        let pixels = length * sheet.unit.pixels() / 96.0 * dpi;
        (pixels - 1e-9).ceil().clamp(1.0, f64::from(u32::MAX)) as u32
    };
    (side(sheet.size.x), side(sheet.size.y))
}

/// The size at which bones are easy to read, in the shape of the sheet.
fn fitted(sheet: &Sheet) -> (u32, u32) {
    let scale = (BONES_SIZE / sheet.size).min_element();
    let side = |length: f64| (length * scale).round().clamp(1.0, f64::from(u16::MAX)) as u32;
    (side(sheet.size.x), side(sheet.size.y))
}

const BONES_SIZE: Point = pt(1280.0, 960.0);

pub(crate) fn bones(
    sheet: &Sheet,
    earlier: &[Sheet],
    size: Option<(u32, u32)>,
    layers: &[String],
) -> Result<Sheet, Failure> {
    let mut options = BonesOptions::default();
    if !layers.iter().any(|layer| layer == "all") {
        let named = |layer: &String| {
            let given = Given::<BoneLayer>::from(layer.as_str());
            given.resolve("--bones").map_err(|fault| {
                Failure::call(fault.to_string(), format!("name some of {}", BoneLayer::NAMES.join(",")))
            })
        };
        options = options.only(layers.iter().map(named).collect::<Result<Vec<_>, _>>()?);
    }
    if let Some((width, height)) = size {
        options = options.size(width, height);
    }
    sheet.bones_after(earlier, &options).map_err(|fault| Failure::of_fault(&fault, "mend it in the input"))
}

/// The bytes of a file.
pub(crate) fn render(sheet: &Sheet, format: Format, options: &WriteOptions) -> Result<Vec<u8>, Failure> {
    let asked = options.size.is_some();
    sheet.written(format, options).map_err(|error| Failure::of_draw(&error, asked, options.max_side))
}
