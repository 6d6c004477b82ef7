//! `chordane vary`: a score many times, on one contact sheet.

use std::sync::atomic::{AtomicUsize, Ordering};
use std::time::Instant;

use chordane::ground::trimmed;
use chordane::number::Point;
use chordane::picture::{ContactAxes, ContactLayout};
use chordane::raster::{DrawError, Pixels};
use chordane::sheet::WriteOptions;
use chordane::sheet::{Sheet, sheet};
use chordane::write::Format;
use chordane_score::{Limits, Runner, Settings, Words};
use indicatif::ProgressBar;
use rayon::prelude::*;

use crate::drawing::{bones, bytes_of, render, size_at, within};
use crate::failure::Failure;
use crate::input::{Input, Origin};
use crate::knobs;
use crate::options::{MAX_PICTURES, VaryFileOptions, VaryOptions};
use crate::output::{Target, numbered_file, progress, report_of_many, say, size, time};
use crate::record::Record;

/// Varies the score in a file.
pub(crate) fn file(options: &VaryFileOptions, words: &Words) -> Result<(), Failure> {
    match Input::read(&options.input, words)? {
        Input::Score(name, source, words) => {
            let runner = Runner::read_with(name.clone(), source.clone(), options.limits.limits(), &words)?;
            score(
                &options.vary,
                &Origin { name, source: Some(source) },
                &runner,
                Some(options.limits.limits()),
            )
        }
        Input::Svg(name, _) => Err(Failure::call(
            format!("{name} is a document: it has no seed, no knobs, no other sizes and no loop"),
            "name a .chord file",
        )),
    }
}

/// One picture to be made: what it is called, and what the score is run with.
struct Variant {
    caption: String,
    settings: Settings,
}

/// What is drawn, and how it is laid out.
struct Plan {
    variants: Vec<Variant>,
    columns: usize,
    axes: Option<ContactAxes>,
}

/// A picture that was made, or why it could not be.
enum Made {
    /// Its size in pixels; and the sheet, where it is held on to.
    Tile(Point, Option<Box<Sheet>>),
    Failed(Failure),
}

/// So many items are held on to until they are drawn. Pictures beyond that are made again, so that what is held does not
/// grow with their number.
const MAX_CACHED_ITEMS: usize = 200_000;

/// So many pictures are drawn together.
const TILE_BATCH: usize = 16;

/// What makes the pictures of a contact sheet.
struct Maker<'a> {
    options: &'a VaryOptions,
    origin: &'a Origin,
    runner: &'a Runner<'a>,
    limits: Option<Limits>,
    plan: &'a Plan,
}

impl Maker<'_> {
    /// One picture.
    fn sheet(&self, number: usize) -> Result<Sheet, Failure> {
        let Some(variant) = self.plan.variants.get(number) else {
            return Err(Failure::call(format!("there is no picture {number}"), "give another number"));
        };
        let run = knobs::run(self.runner, &variant.settings)?;
        let settings = variant.settings.clone().seed(run.seed());
        let sheet = run.into_sheet()?;
        let sheet = match &self.options.bones {
            Some(layers) => within(self.limits, 0, || bones(&sheet, &[], None, layers))?,
            None => sheet,
        };
        Ok(Record::of(self.origin, &settings).put_on(sheet))
    }

    /// All of them, and the sheets of as many as can be held on to.
    fn all(&self, bar: &ProgressBar) -> Vec<Made> {
        let held = AtomicUsize::new(0);
        let one = |number: usize| {
            let made = match self.sheet(number) {
                Ok(sheet) => {
                    let items = sheet.items().len();
                    let room = held.fetch_add(items, Ordering::Relaxed) + items <= MAX_CACHED_ITEMS;
                    Made::Tile(ContactLayout::pixels(&sheet), room.then(|| Box::new(sheet)))
                }
                Err(failure) => Made::Failed(failure),
            };
            bar.inc(1);
            made
        };
        (0..self.plan.variants.len()).into_par_iter().map(one).collect()
    }

    /// The sheet of one that was made; a grey one in place of one that could not be, so that the others keep their places.
    fn again(&self, made: &Made, number: usize, blank: &Sheet) -> Result<Sheet, Failure> {
        match made {
            Made::Tile(_, Some(sheet)) => Ok((**sheet).clone()),
            Made::Tile(_, None) => self.sheet(number),
            Made::Failed(_) => Ok(blank.clone()),
        }
    }

    /// The contact sheet as pixels: a few pictures are made and drawn at a time.
    fn pixels(&self, made: &[Made], captions: &[String], record: &str) -> Result<Vec<u8>, Failure> {
        let (layout, blank) = self.layout(made);
        let axes = self.plan.axes.as_ref();
        let size = layout.blank().size;
        let memory = bytes_of((size.x as u32, size.y as u32));
        let failed = |error: DrawError| Failure::of_draw(&error, false, self.options.max_side);
        let mut pixels = layout.blank().pixels_with(&within_side(None, self.options)).map_err(failed)?;
        let draw = |pixels: &mut Pixels, sheet: &Sheet| {
            within(self.limits, memory, || pixels.draw(sheet)).map_err(|fault| failed(fault.into()))
        };
        let numbers: Vec<usize> = (0..made.len()).collect();
        for round in numbers.chunks(TILE_BATCH) {
            let group = |number: &usize| {
                let one = made.get(*number).map(|made| self.again(made, *number, &blank));
                one.transpose().map(|sheet| sheet.and_then(|sheet| layout.tile(*number, &sheet)))
            };
            let groups = round.par_iter().map(group).collect::<Result<Vec<_>, _>>()?;
            draw(&mut pixels, &layout.clear().add_all(groups.into_iter().flatten()))?;
        }
        let rims = captions.iter().enumerate().flat_map(|(i, caption)| layout.rim(i, caption));
        let labels = axes.map(|axes| layout.labels(axes)).unwrap_or_default();
        draw(&mut pixels, &layout.clear().add_all(rims).add_all(labels))?;
        let written = pixels.with_metadata(record).png();
        written.map_err(|error| Failure::input(error.to_string(), "draw it in another size"))
    }

    /// The contact sheet in another format, which has all of its pictures in it.
    fn whole(
        &self,
        made: &[Made],
        captions: &[String],
        format: Format,
        record: &str,
    ) -> Result<Vec<u8>, Failure> {
        let (layout, blank) = self.layout(made);
        let mut all = layout.blank();
        for (number, (one, caption)) in made.iter().zip(captions).enumerate() {
            let sheet = self.again(one, number, &blank)?;
            all = all.add_all(layout.tile(number, &sheet)).add_all(layout.rim(number, caption));
        }
        let all = all.add_all(self.plan.axes.as_ref().map(|axes| layout.labels(axes)).unwrap_or_default());
        let all = all.metadata(record);
        within(self.limits, 0, || render(&all, format, &within_side(None, self.options)))
    }

    fn layout(&self, made: &[Made]) -> (ContactLayout, Sheet) {
        let of = |made: &Made| if let Made::Tile(size, _) = made { Some(*size) } else { None };
        let first = made.iter().find_map(of).unwrap_or(Point::ONE);
        let sizes: Vec<Point> = made.iter().map(|made| of(made).unwrap_or(first)).collect();
        let layout = ContactLayout::new(&sizes, self.plan.columns, self.plan.axes.as_ref());
        (layout, sheet(first.x, first.y).ground("#8883"))
    }
}

/// Varies what a score makes. The places to write to are looked at before the score runs.
pub(crate) fn score(
    options: &VaryOptions,
    origin: &Origin,
    runner: &Runner<'_>,
    limits: Option<Limits>,
) -> Result<(), Failure> {
    let begin = Instant::now();
    let targets = Target::all(&options.out, Target::by_ending)?;
    let plan = plan(options)?;
    let count = plan.variants.len();
    let keep = kept(&options.keep, count)?;
    if options.phases.is_some()
        && let Some(first) = plan.variants.first()
    {
        knobs::note_still(&runner.run(&first.settings));
    }
    let maker = Maker { options, origin, runner, limits, plan: &plan };
    let bar = progress("drawing {bar:30} {pos} of {len}, {eta} left", count);
    let made = maker.all(&bar);
    bar.finish_and_clear();
    let failures = || {
        let failed = made.iter().enumerate();
        failed.filter_map(
            |(i, made)| if let Made::Failed(failure) = made { Some((i + 1, failure)) } else { None },
        )
    };
    // What is at fault for all of them, and what is not the score's fault, is told alone.
    let all_failed = failures().count() == count;
    if let Some((_, failure)) = failures().find(|(_, failure)| all_failed || failure.code() != 1) {
        return Err(failure.clone());
    }
    let caption = |(i, (variant, made)): (usize, (&Variant, &Made))| {
        let failed = if matches!(made, Made::Failed(_)) { ": failed" } else { "" };
        format!("{}: {}{failed}", i + 1, variant.caption)
    };
    let captions: Vec<String> = plan.variants.iter().zip(&made).enumerate().map(caption).collect();
    let record = Record::of(origin, &options.knobs.settings()?)
        .of_tiles(plan.variants.iter().map(|variant| &variant.settings))
        .text();
    for target in &targets {
        let bytes = match target.format {
            Format::Png => maker.pixels(&made, &captions, &record)?,
            other => maker.whole(&made, &captions, other, &record)?,
        };
        target.write(&bytes)?;
        say(&format!(
            "{}  {count} pictures  {}  {}",
            target.name(),
            size(bytes.len()),
            time(begin.elapsed())
        ));
        for number in &keep {
            let (Some(variant), Some(one), Some(file)) =
                (plan.variants.get(number - 1), made.get(number - 1), &target.file)
            else {
                continue;
            };
            if matches!(one, Made::Failed(_)) {
                continue;
            }
            let sheet = maker.again(one, number - 1, &sheet(1.0, 1.0))?;
            let kept = Target { file: Some(numbered_file(file, *number, count, 1)), format: target.format };
            let asked = variant.settings.size.map(|size| (size.x as u32, size.y as u32));
            let memory = bytes_of(asked.unwrap_or_else(|| size_at(&sheet, 96.0)));
            let bytes = within(limits, memory, || render(&sheet, kept.format, &within_side(asked, options)))?;
            kept.write(&bytes)?;
            say(&format!("{}  {}", kept.name(), variant.caption));
        }
    }
    let place = |number: usize| {
        let caption = plan.variants.get(number - 1).map_or("", |variant| variant.caption.as_str());
        format!("in picture {number}, {caption}:")
    };
    match report_of_many(failures(), place) {
        None => Ok(()),
        Some((failed, numbers)) => Err(Failure::input(
            format!("{failed} of {count} pictures could not be made: {numbers}"),
            "the others are drawn, with these left blank; mend the score, or vary it less",
        )),
    }
}

/// The numbers of pictures to keep: `7`, `2..5` with both ends, `all`.
fn kept(asked: &[String], count: usize) -> Result<Vec<usize>, Failure> {
    let mut keep = Vec::new();
    for text in asked {
        let number = |text: &str| text.trim().parse::<usize>().ok();
        let range = match text.split_once("..") {
            _ if text == "all" => Some((1, count)),
            Some((low, high)) => number(low).zip(number(high)).filter(|(low, high)| low <= high),
            None => number(text).map(|number| (number, number)),
        };
        let (low, high) = range.ok_or_else(|| {
            Failure::call(format!("--keep {text} is not a picture's number"), "write 7, 2..5 or all")
        })?;
        if let Some(none) = [low, high].into_iter().find(|number| !(1..=count).contains(number)) {
            return Err(Failure::call(
                format!("there is no picture {none} to keep"),
                format!("give 1 to {count}"),
            ));
        }
        keep.extend((low..=high).filter(|number| !keep.contains(number)).collect::<Vec<_>>());
    }
    Ok(keep)
}

fn plan(options: &VaryOptions) -> Result<Plan, Failure> {
    let asked = [
        options.seeds.is_some(),
        !options.over.is_empty(),
        !options.sizes.is_empty(),
        options.phases.is_some(),
    ];
    if !matches!(
        asked,
        [true, _, false, false]
            | [false, true, false, false]
            | [false, false, true, false]
            | [false, false, false, true]
    ) {
        return Err(Failure::call(
            "it is not said what to vary, or more than one thing",
            "give one of --seeds 24, --over sag=0..0.4:5, --sizes 320x200,1280x200 and --phases 12, or --seeds and --over together",
        ));
    }
    let settings = options.knobs.settings()?;
    if let Some(seeds) = options.seeds {
        let first = if options.knobs.seed.is_some() { settings.seed.unwrap_or(0) } else { 1 };
        if !options.over.is_empty() {
            let seeds: Vec<u64> = (0..seeds).map(|i| first.wrapping_add(i)).collect();
            return over_seeds(&options.over, &seeds, &settings);
        }
        let variant = |i: u64| {
            let seed = first.wrapping_add(i);
            Variant { caption: format!("seed {seed}"), settings: settings.clone().seed(seed) }
        };
        let variants: Vec<Variant> = (0..seeds).map(variant).collect();
        return Ok(Plan { columns: columns_of(variants.len()), variants, axes: None });
    }
    if !options.sizes.is_empty() {
        let variant = |(width, height): &(u32, u32)| {
            let size = Point::new(f64::from(*width), f64::from(*height));
            Variant { caption: format!("{width}x{height}"), settings: settings.clone().size(size) }
        };
        let columns = if options.sizes.len() <= 4 { options.sizes.len() } else { 3 };
        return Ok(Plan { variants: options.sizes.iter().map(variant).collect(), columns, axes: None });
    }
    if let Some(count) = options.phases {
        let count = count as usize;
        let variant = |k: usize| {
            let settings = settings.clone().frame(k, count);
            // As many places as tell the moments apart.
            let phase = (settings.moment.phase * 1000.0).round() / 1000.0;
            Variant { caption: format!("phase {phase}"), settings }
        };
        // Rows of about six, all as long as can be.
        let columns = count.div_ceil(count.div_ceil(6));
        return Ok(Plan { variants: (0..count).map(variant).collect(), columns, axes: None });
    }
    over(&options.over, &settings)
}

/// Whether a grid of so many columns and rows can be looked at as one.
fn fits(across: usize, down: usize) -> bool {
    across <= 200 && down <= 300
}

/// How many columns so many pictures take: a little wider than high, and a few in one row.
fn columns_of(count: usize) -> usize {
    if count <= 3 { count.max(1) } else { (count as f64 * 1.3).sqrt().ceil() as usize }
}

/// One knob across, and seeds down.
fn over_seeds(knobs: &[String], seeds: &[u64], settings: &Settings) -> Result<Plan, Failure> {
    let [knob] = knobs else {
        return Err(Failure::call(
            format!("--over is given {} times beside --seeds", knobs.len()),
            "give it once: the knob goes across, the seeds go down",
        ));
    };
    let range = Range::read(knob)?;
    let count = range.values.len() * seeds.len();
    if count > MAX_PICTURES {
        return Err(Failure::call(
            format!("{count} pictures are too many"),
            format!("give at most {MAX_PICTURES}"),
        ));
    }
    let row = |seed: &u64| {
        let settings = settings.clone().seed(*seed);
        let one = |value: &String| Variant {
            caption: format!("{}={value} seed {seed}", range.name),
            settings: settings.clone().set(&range.name, value),
        };
        range.values.iter().map(one).collect::<Vec<_>>()
    };
    let variants = seeds.iter().flat_map(row).collect();
    let down = ("seed".to_owned(), seeds.iter().map(u64::to_string).collect());
    let axes = ContactAxes { across: (range.name.clone(), range.values.clone()), down };
    let (across, down) = (range.values.len(), seeds.len());
    if !fits(across, down) {
        return Ok(Plan { variants, columns: columns_of(count), axes: None });
    }
    Ok(Plan { variants, columns: across, axes: Some(axes) })
}

/// One knob in a row, or two in a grid.
fn over(knobs: &[String], settings: &Settings) -> Result<Plan, Failure> {
    let ranges = knobs.iter().map(|text| Range::read(text)).collect::<Result<Vec<_>, _>>()?;
    let (across, down) = match ranges.as_slice() {
        [across] => (across, None),
        [across, down] if across.name != down.name => (across, Some(down)),
        [_, down] => {
            return Err(Failure::call(
                format!("--over {} is given twice", down.name),
                "give another knob, or one range",
            ));
        }
        _ => {
            return Err(Failure::call(
                format!("--over is given {} times", ranges.len()),
                "give it once for a row of pictures, or twice for a grid",
            ));
        }
    };
    let count = across.values.len() * down.map_or(1, |down| down.values.len());
    if count > MAX_PICTURES {
        return Err(Failure::call(
            format!("{count} pictures are too many"),
            format!("give at most {MAX_PICTURES}"),
        ));
    }
    let one = |value: &String, other: Option<&String>| {
        let mut settings = settings.clone().set(&across.name, value);
        let mut caption = format!("{}={value}", across.name);
        if let (Some(down), Some(other)) = (down, other) {
            settings = settings.set(&down.name, other);
            caption = format!("{caption} {}={other}", down.name);
        }
        Variant { caption, settings }
    };
    let variants = match down {
        Some(down) => {
            let row = |other| across.values.iter().map(move |value| one(value, Some(other)));
            down.values.iter().flat_map(row).collect()
        }
        None => across.values.iter().map(|value| one(value, None)).collect(),
    };
    let labels = |range: &Range| (range.name.clone(), range.values.clone());
    // A row of one knob is broken so that it fills a sheet; then the captions alone say what is what.
    // So is a grid too wide or too high for one.
    let columns = match down {
        Some(down) if fits(across.values.len(), down.values.len()) => across.values.len(),
        _ => columns_of(count),
    };
    let axes = (columns == across.values.len() && (down.is_none() || fits(columns, count / columns.max(1))))
        .then(|| ContactAxes { across: labels(across), down: down.map(labels).unwrap_or_default() });
    Ok(Plan { variants, columns, axes })
}

/// The values that a knob goes through.
#[derive(Debug, PartialEq)]
struct Range {
    name: String,
    values: Vec<String>,
}

impl Range {
    /// Reads `sag=0..0.4:5`, `mast=12,30..40,50:3`, `tail=bows,plain` or `mast=(12,30),(40,50)`.
    fn read(text: &str) -> Result<Self, Failure> {
        let wrong = |what: &str| {
            Failure::call(
                format!("--over {text} {what}"),
                "write NAME=LOW..HIGH:STEPS, as in sag=0..0.4:5 or mast=12,30..40,50:3, or values, as in tail=bows,plain or mast=(12,30),(40,50)",
            )
        };
        let (name, values) = text.split_once('=').ok_or_else(|| wrong("has no values"))?;
        let name = name.trim().to_owned();
        let Some((low, rest)) = values.split_once("..") else {
            let values = listed(values);
            if values.len() > MAX_PICTURES || values.iter().any(String::is_empty) {
                return Err(wrong("has an empty value, or too many"));
            }
            return Ok(Self { name, values });
        };
        let (high, steps) = rest.split_once(':').ok_or_else(|| wrong("does not say in how many steps"))?;
        let numbers = |text: &str| -> Option<Vec<f64>> {
            let parts = text.trim().trim_start_matches('(').trim_end_matches(')').split(',');
            parts.map(|part| part.trim().parse().ok().filter(|value: &f64| value.is_finite())).collect()
        };
        let (Some(low), Some(high)) = (numbers(low), numbers(high)) else {
            return Err(wrong("has ends that are not numbers"));
        };
        if low.len() != high.len() || low.len() > 2 {
            return Err(wrong("has ends that are not two numbers or two points"));
        }
        let steps: usize =
            steps.trim().parse().map_err(|_| wrong("has steps that are not a whole number"))?;
        if !(1..=MAX_PICTURES).contains(&steps) {
            return Err(wrong(&format!("has {steps} steps; 1 to {MAX_PICTURES} are allowed")));
        }
        let value = |i: usize| {
            let each = low.iter().zip(&high).map(|(low, high)| stepped(*low, *high, i, steps));
            each.collect::<Vec<_>>().join(",")
        };
        Ok(Self { name, values: (0..steps).map(value).collect() })
    }
}

/// The values of a list, parted by commas that are not in parentheses; those of a point may be left out.
fn listed(text: &str) -> Vec<String> {
    let mut deep = 0_usize;
    let parts = text.split(|c| {
        match c {
            '(' => deep += 1,
            ')' => deep = deep.saturating_sub(1),
            _ => {}
        }
        c == ',' && deep == 0
    });
    let bare = |part: &str| {
        let part = part.trim();
        part.strip_prefix('(').and_then(|part| part.strip_suffix(')')).unwrap_or(part).to_owned()
    };
    parts.map(bare).collect()
}

/// The `i`th of some even steps. A thousandth of a step is fine enough; the ends are as they were given.
fn stepped(low: f64, high: f64, i: usize, steps: usize) -> String {
    let step = (high - low).abs() / (steps.max(2) - 1) as f64;
    let decimals = if step > 0.0 { (3.0 - step.log10().floor()).clamp(0.0, 12.0) as usize } else { 12 };
    let share = if steps > 1 { i as f64 / (steps - 1) as f64 } else { 0.0 };
    let value = if i + 1 == steps && steps > 1 { high } else { low + (high - low) * share };
    let is_end = i == 0 || i + 1 == steps;
    trimmed(value, if is_end { 12 } else { decimals })
}

/// How pictures are written: in a size if one is asked for, and no larger than is allowed.
fn within_side(size: Option<(u32, u32)>, options: &VaryOptions) -> WriteOptions {
    WriteOptions { size, max_side: options.max_side, ..WriteOptions::default() }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn ranges_of_a_knob() {
        let values = |text: &str| {
            Range::read(text).map(|range| range.values.join(" ")).map_err(|wrong| wrong.to_string())
        };
        assert_eq!(values("sag=0..0.4:5").unwrap(), "0 0.1 0.2 0.3 0.4");
        assert_eq!(values("sag=1..-1:3").unwrap(), "1 0 -1");
        assert_eq!(values("sag=0..1:4").unwrap(), "0 0.3333 0.6667 1");
        assert_eq!(values("sag=0.123456..12:4").unwrap(), "0.123456 4.082 8.041 12");
        assert_eq!(values("sag=2..9:1").unwrap(), "2");
        assert_eq!(values("tail=bows, plain").unwrap(), "bows plain");
        assert_eq!(values("cloth=teal, rgb(1, 2, 3)").unwrap(), "teal rgb(1, 2, 3)");
        assert_eq!(values("mast=(12,30), (40,50)").unwrap(), "12,30 40,50");
        assert_eq!(values("mast=12,30..40,50:3").unwrap(), "12,30 26,40 40,50");
        assert_eq!(values("mast=(0,0)..(1,-1):2").unwrap(), "0,0 1,-1");
        let mend = "write NAME=LOW..HIGH:STEPS, as in sag=0..0.4:5 or mast=12,30..40,50:3, or values, as in tail=bows,plain or \
                    mast=(12,30),(40,50)";
        for (bad, what) in [
            ("sag", "has no values"),
            ("sag=", "has an empty value, or too many"),
            ("sag=0..1", "does not say in how many steps"),
            ("sag=0..x:3", "has ends that are not numbers"),
            ("sag=0..inf:3", "has ends that are not numbers"),
            ("mast=0,0..1:3", "has ends that are not two numbers or two points"),
            ("sag=0..1:2.5", "has steps that are not a whole number"),
            ("sag=0..1:0", "has 0 steps; 1 to 1000 are allowed"),
            ("sag=0..1:100000", "has 100000 steps; 1 to 1000 are allowed"),
        ] {
            let Err(failure) = Range::read(bad) else { panic!("{bad}") };
            assert_eq!(failure.code(), 2);
            assert_eq!(failure.message, format!("--over {bad} {what}"));
            assert_eq!(failure.mend, mend, "{bad}");
        }
    }
}
