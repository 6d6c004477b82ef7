//! `chordane draw`: a score or a document becomes files.

use std::time::Instant;

use chordane::sheet::{Layered, Sheet};
use chordane::write::Format;
use chordane_score::{Limits, Runner, Settings, Words};

use crate::clip;
use crate::drawing::{bytes_of, dressed, earlier, render, size_at, within};
use crate::failure::Failure;
use crate::input::{Input, Origin};
use crate::knobs;
use crate::options::{DrawFileOptions, DrawOptions};
use crate::output::{Target, say, size, time};
use crate::record::Record;

/// Draws the score or document in a file.
pub(crate) fn score_file(options: &DrawFileOptions, words: &Words) -> Result<(), Failure> {
    let (input, settings) = if options.again {
        let record = Record::read(&options.input)?;
        (record.input(&options.input, words)?, record.settings(&options.input, options.tile)?)
    } else {
        (Input::read(&options.input, words)?, Settings::new())
    };
    let origin = input.origin();
    let limits = options.limits.limits();
    score(&options.draw, settings, origin, Some(limits), || {
        let opened = input.open(limits)?;
        opened.say_notes();
        Ok(opened.runner)
    })
}

/// Draws what a score makes. The places to write to are looked at before the score is read and run.
pub(crate) fn score<'a>(
    options: &DrawOptions,
    settings: Settings,
    origin: Option<Origin>,
    limits: Option<Limits>,
    open: impl FnOnce() -> Result<Runner<'a>, Failure>,
) -> Result<(), Failure> {
    let settings = options.settings_from(settings)?;
    if clip::is_asked(options) && !options.list_knobs {
        return clip::draw(options, &settings, origin.as_ref(), limits, open);
    }
    let format = options.format.as_deref().and_then(Format::of_ending).filter(|format| !format.is_clip());
    let targets = Target::all(&options.out, |out| Target::of(out, format))?;
    let mut begin = Instant::now();
    let runner = open()?;
    let run = knobs::run(&runner, &settings)?;
    if options.list_knobs {
        return knobs::list(&run);
    }
    if options.knobs.phase.is_some() {
        knobs::note_still(&run);
    }
    // The seed is in the file, also where it is the score's own.
    let settings = settings.seed(run.seed());
    let sheet = run.into_sheet()?;
    note_drafts(&sheet);
    let earlier = earlier(&runner, &settings, options.trail)?;
    let (sheet, shown) = dressed(sheet, options, &settings, origin.as_ref(), limits, &earlier)?;
    for target in &targets {
        let pixels = shown.unwrap_or_else(|| size_at(&sheet, 96.0));
        let bytes = within(limits, bytes_of(pixels), || {
            render(&sheet, target.format, &options.write_options(shown))
        })?;
        target.write(&bytes)?;
        say(&format!("{}  {}  {}", target.name(), size(bytes.len()), time(begin.elapsed())));
        begin = Instant::now();
    }
    Ok(())
}

/// Says which items would be invisible, and which look otherwise than was asked.
fn note_drafts(sheet: &Sheet) {
    let solid = sheet.dashed_solid().len();
    if solid > 0 {
        let items = if solid == 1 { "item has" } else { "items have" };
        say(&format!(
            "note: {solid} {items} more than a million dashes on one line, and are drawn solid.\n  help: make the dashes longer, or the line shorter"
        ));
    }
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
