//! `chordane draw`: a score or a document becomes files.

use std::time::Instant;

use chordane::ground::{Given, Named};
use chordane::number::{Point, pt};
use chordane::picture::{BoneLayer, BonesOptions};
use chordane::raster::DrawError;
use chordane::sheet::Sheet;
use chordane::write::{Format, WriteOptions};

use chordane_score::{Runner, Settings};

use crate::failure::Failure;
use crate::input::{Input, Origin};
use crate::knobs;
use crate::options::{DrawFileOptions, DrawOptions};
use crate::output::{Target, say, size, time};
use crate::record::Record;

/// Draws the score or document in a file.
pub(crate) fn score_file(options: &DrawFileOptions) -> Result<(), Failure> {
    let (input, settings) = if options.again {
        let record = Record::read(&options.input)?;
        (record.input(&options.input)?, record.settings(&options.input, options.tile)?)
    } else {
        (Input::read(&options.input)?, Settings::new())
    };
    let origin = input.origin();
    score(&options.draw, settings, origin, || {
        let opened = input.open(options.limits.limits())?;
        opened.say_notes();
        Ok(opened.runner)
    })
}

/// Draws what a score makes. The places to write to are looked at before the score is read and run.
pub(crate) fn score<'a>(
    options: &DrawOptions,
    settings: Settings,
    origin: Option<Origin>,
    open: impl FnOnce() -> Result<Runner<'a>, Failure>,
) -> Result<(), Failure> {
    let targets = Target::all(&options.out, |out| Target::of(out, options.format))?;
    let mut begin = Instant::now();
    let mut settings = options.knobs.settings_from(settings)?;
    if let Some((width, height)) = options.size {
        settings = settings.size((f64::from(width), f64::from(height)));
    }
    // A picture that is made again has the size that was asked for then.
    let asked = options.size.or_else(|| settings.get_size().map(|size| (size.x as u32, size.y as u32)));
    let run = knobs::run(&open()?, &settings)?;
    if options.list_knobs {
        return knobs::list(&run);
    }
    let sheet = run.into_sheet()?;
    note_drafts(&sheet);
    let asked = asked.or_else(|| options.dpi.map(|dpi| size_at(&sheet, dpi)));
    let shown = if options.bones.is_some() { asked.or_else(|| Some(fitted(&sheet))) } else { asked };
    let sheet = match origin {
        _ if options.bones.is_some() => bones(&sheet, shown, options.bones.as_deref().unwrap_or_default())?,
        Some(origin) => Record::of(&origin, &settings).put_on(sheet),
        None => sheet,
    };
    for target in &targets {
        let bytes = render(&sheet, target.format, shown, options.max_side, options.decimals)?;
        target.write(&bytes)?;
        say(&format!("{}  {}  {}", target.name(), size(bytes.len()), time(begin.elapsed())));
        begin = Instant::now();
    }
    Ok(())
}

/// How many pixels a sheet has at so many to the inch.
fn size_at(sheet: &Sheet, dpi: f64) -> (u32, u32) {
    let side = |length: f64| {
        let pixels = length * sheet.get_unit().pixels() / 96.0 * dpi;
        (pixels - 1e-9).ceil().clamp(1.0, f64::from(u32::MAX)) as u32
    };
    (side(sheet.size().x), side(sheet.size().y))
}

/// The size at which bones are easy to read, in the shape of the sheet.
fn fitted(sheet: &Sheet) -> (u32, u32) {
    let scale = (BONES_SIZE / sheet.size()).min_element();
    let side = |length: f64| (length * scale).round().clamp(1.0, f64::from(u16::MAX)) as u32;
    (side(sheet.size().x), side(sheet.size().y))
}

const BONES_SIZE: Point = pt(1280.0, 960.0);

pub(crate) fn bones(sheet: &Sheet, size: Option<(u32, u32)>, layers: &[String]) -> Result<Sheet, Failure> {
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
    sheet.bones(&options).map_err(|fault| Failure::input(fault.to_string(), "mend it in the input"))
}

/// The bytes of a file.
pub(crate) fn render(
    sheet: &Sheet,
    format: Format,
    size: Option<(u32, u32)>,
    max_side: u32,
    decimals: Option<u8>,
) -> Result<Vec<u8>, Failure> {
    let mut options = WriteOptions::default().max_side(max_side);
    if let Some((width, height)) = size {
        options = options.size(width, height);
    }
    if let Some(decimals) = decimals {
        options = options.decimals(usize::from(decimals));
    }
    sheet.written(format, &options).map_err(|error| match error {
        DrawError::NoPixels { .. } => Failure::call(error.to_string(), "ask for another size"),
        DrawError::TooLarge { .. } if size.is_some() || max_side == 0 => Failure::call(
            error.to_string(),
            "give a --size within it; the pixels a side are limited by --max-side",
        ),
        DrawError::TooLarge { .. } => Failure::input(
            error.to_string(),
            "make the sheet smaller, give a smaller --size, or raise the limit with --max-side",
        ),
        other => Failure::input(other.to_string(), "mend it in the score"),
    })
}

/// Says which items would be invisible.
fn note_drafts(sheet: &Sheet) {
    let (count, named): (usize, Vec<String>) = {
        let items = sheet.unpainted();
        (items.len(), items.iter().filter_map(|item| item.name().map(str::to_owned)).collect())
    };
    if count > 0 {
        let which = if named.is_empty() { String::new() } else { format!(" ({})", named.join(", ")) };
        let (items, have) = if count == 1 { ("item", "has") } else { ("items", "have") };
        say(&format!(
            "note: {count} {items}{which} {have} neither fill nor stroke and would be invisible: drawn as a thin \
             outline.\n  help: give fill(\"#c8553d\") or stroke(\"#20303c\", 3)"
        ));
    }
}
