//! The command line: what can be asked for, and its help.

use std::ffi::OsString;
use std::net::IpAddr;
use std::path::PathBuf;
use std::time::Duration;

use crate::memory::GAUGE;
use chordane::ground::Named;
use chordane::picture::BoneLayer;
use chordane::sheet::MAX_SIDE;
use chordane::write::{Dither, Format};
use chordane_score::{Limits, Pointer};
use clap::builder::PossibleValuesParser;
use clap::{Args, CommandFactory, Parser, Subcommand};

/// Draw vector shapes from a few lines of numbers
#[derive(Debug, Parser)]
#[command(name = "chordane", version, arg_required_else_help = true, after_help = EXAMPLES)]
pub(crate) struct Options {
    #[command(subcommand)]
    pub(crate) action: Action,
}

const EXAMPLES: &str = "\
First steps:
  chordane demo                               draw the demo pictures and a page to view them
  chordane words                              list all words of the score language
  chordane draw sail.chord -o sail.png        draw a score
  chordane check sail.chord                   measure it and report likely mistakes
  chordane vary sail.chord -o all.png --seeds 24    draw variations side by side
  chordane live sail.chord                    preview it in the browser while you edit, and drag its vertices

A score is a text file that ends with a sheet:
  let sail = polygon(pt(0, 0), 4, 120);
  sheet(640, 480).centred().ground(\"#f4efe6\").add(sail.fill(\"#c8553d\"))";

#[derive(Debug, Subcommand)]
pub(crate) enum Action {
    /// Draw a score or an SVG document to one or more files
    Draw(DrawFileOptions),
    /// Measure every path of a score or an SVG document and report likely mistakes
    Check(CheckFileOptions),
    /// Draw a contact sheet of a score with varying seeds, knobs, sizes or phases
    Vary(VaryFileOptions),
    /// Preview a score in the browser while you edit it: every change redraws it, and dragging a point changes its numbers
    Live(LiveFileOptions),
    /// Trace an image in the browser: draw outlines over it, vertex by vertex
    Trace(TraceOptions),
    /// List the words of the score language, or explain one with an example
    Words(WordsOptions),
    /// Draw the demo pictures and a page that shows them beside their scores
    Demo(DemoOptions),
    /// Print shell completions
    Completions(CompletionsOptions),
    /// Print the manual page, or write all manual pages to a folder
    Man(ManOptions),
}

const DRAW_EXAMPLES: &str = "\
Examples:
  chordane draw sail.chord -o sail.svg                     vector shapes
  chordane draw sail.chord -o sail.png --size 1280x960     pixels, fitted into this size
  chordane draw sail.chord -o sail.svg -o sail.png         both at once
  chordane draw sail.chord -o sail.png --set sag=0.2       with a knob set; --list-knobs shows them
  chordane draw swing.chord -o half.png --phase 0.5        one moment of an animated score
  chordane draw swing.chord -o swing.gif --seconds 2       a clip of it
  chordane draw swing.chord -o swing.svg --frames 48       an animated SVG
  chordane draw swing.chord -o frames/swing.png --frames 48    one picture per frame: frames/swing-0001.png and so on
  chordane draw sail.chord -o bones.png --bones            with vertices, handles and directions drawn over it
  chordane draw swing.chord -o way.png --bones --phase 0.5 --trail 8   with the tracks of its vertices
  chordane draw - -o - --as svg < sail.chord > sail.svg    reading and writing through pipes";

#[derive(Debug, Args)]
#[command(after_help = DRAW_EXAMPLES)]
pub(crate) struct DrawFileOptions {
    /// Score or SVG document: a .chord or .svg file, or - for standard input
    pub(crate) input: PathBuf,
    /// Redraw a picture from the record in it: INPUT is a .svg or .png file that was drawn from a score
    #[arg(long)]
    pub(crate) again: bool,
    /// With --again: the number of the picture on a contact sheet
    #[arg(long, value_name = "N", requires = "again")]
    pub(crate) tile: Option<usize>,
    #[command(flatten)]
    pub(crate) draw: DrawOptions,
    #[command(flatten)]
    pub(crate) limits: LimitOptions,
}

#[derive(Debug, Args)]
pub(crate) struct DrawOptions {
    /// Output file: .svg or .png; for a clip .gif, .apng, .y4m, or .svg with --frames; or - for standard output; can be repeated
    #[arg(short, long = "out", value_name = "OUT", required_unless_present = "list_knobs")]
    pub(crate) out: Vec<PathBuf>,
    #[command(flatten)]
    pub(crate) knobs: KnobOptions,
    #[command(flatten)]
    pub(crate) clip: ClipDrawOptions,
    /// List the score's knobs with their values and ranges instead of drawing
    #[arg(long)]
    pub(crate) list_knobs: bool,
    /// Output format where the file name has no extension that gives it
    #[arg(long = "as", value_name = "FORMAT", value_parser = PossibleValuesParser::new(format_names()))]
    pub(crate) format: Option<String>,
    /// Picture size in pixels; the sheet is scaled uniformly to fit
    #[arg(long, value_name = "WxH", value_parser = parse_size)]
    pub(crate) size: Option<(u32, u32)>,
    /// Render on a coarse grid of W by H pixels, enlarged with hard edges
    #[arg(long, value_name = "WxH", value_parser = parse_size, conflicts_with = "bones")]
    pub(crate) grain: Option<(u32, u32)>,
    /// With --grain: allow partly covered pixels at edges
    #[arg(long, requires = "grain")]
    pub(crate) partial: bool,
    /// Turn antialiasing off: each pixel is painted completely or not at all
    #[arg(long, conflicts_with = "grain")]
    pub(crate) no_antialias: bool,
    /// Resolution in pixels per inch; a sheet measured in pixels has 96 per inch
    #[arg(long, value_name = "N", conflicts_with = "size", value_parser = parse_dpi)]
    pub(crate) dpi: Option<f64>,
    /// Overlay the construction, or only some layers of it: grid, vertices, handles, directions, bounds
    #[arg(long, value_name = "LAYER,LAYER,..", num_args = 0..=1, require_equals = true, default_missing_value = "all", value_delimiter = ',')]
    pub(crate) bones: Option<Vec<String>>,
    /// With --bones: also draw N earlier moments, dimmed, with the tracks of the vertices
    #[arg(long, value_name = "N", requires = "bones", value_parser = clap::value_parser!(u16).range(1..=100))]
    pub(crate) trail: Option<u16>,
    /// Decimal places of coordinates in SVG files [default: enough to resolve a millionth of the sheet]
    #[arg(long, value_name = "N", value_parser = clap::value_parser!(u8).range(0..=12))]
    pub(crate) decimals: Option<u8>,
    /// Maximum width and height of a picture in pixels
    #[arg(long, value_name = "PIXELS", default_value_t = MAX_SIDE)]
    pub(crate) max_side: u32,
}

impl DrawOptions {
    /// The command's defaults, for a picture of a size in pixels or of the sheet's own size.
    pub(crate) fn of_size(size: Option<(u32, u32)>) -> Self {
        Self {
            out: Vec::new(),
            knobs: KnobOptions::default(),
            clip: ClipDrawOptions::default(),
            list_knobs: false,
            format: None,
            size,
            grain: None,
            partial: false,
            no_antialias: false,
            dpi: None,
            bones: None,
            trail: None,
            decimals: None,
            max_side: MAX_SIDE,
        }
    }
}

/// How a clip of a score that moves is drawn.
#[derive(Debug, Default, Args)]
#[command(next_help_heading = "Clips of an animated score")]
pub(crate) struct ClipDrawOptions {
    /// Number of frames, spaced evenly over the loop; a .png output becomes one file per frame, such as flight-0001.png [default: 25 per second]
    #[arg(long, value_name = "N", allow_negative_numbers = true, value_parser = parse_frames)]
    pub(crate) frames: Option<usize>,
    /// Draw only part I of N of the frames, to split the work across machines; .png output only
    #[arg(long, value_name = "I/N", value_parser = parse_part)]
    pub(crate) part: Option<(usize, usize)>,
    /// Skip frames already drawn by an earlier run with the same options; .png output only
    #[arg(long)]
    pub(crate) resume: bool,
    /// Palette of a .gif file: one for the whole clip, or one per frame
    #[arg(long, value_name = "FOR", default_value = "clip", value_parser = ["clip", "frame"])]
    pub(crate) palette: String,
    /// Dithering of a .gif file: none, an ordered (fixed) pattern, or error diffusion
    #[arg(long, value_name = "HOW", default_value = "ordered", value_parser = PossibleValuesParser::new(Dither::NAMES))]
    pub(crate) dither: String,
}

/// What is asked of a score's knobs.
#[derive(Debug, Default, Args)]
pub(crate) struct KnobOptions {
    /// Set a knob of the score; can be repeated
    #[arg(long = "set", value_name = "NAME=VALUE")]
    pub(crate) set: Vec<String>,
    /// Provide a picture under the name that the score uses; can be repeated. Other pictures are loaded from the score's folder and below
    #[arg(long = "picture", value_name = "NAME=FILE")]
    pub(crate) pictures: Vec<String>,
    /// The folder that the score lies in, where it has one.
    #[arg(skip)]
    pub(crate) folder: Option<PathBuf>,
    /// Random seed: a whole number, or `new` to pick one and print it [default: the score's own, or 0]
    #[arg(long, value_name = "N", allow_negative_numbers = true)]
    pub(crate) seed: Option<String>,
    /// Position in the loop of an animated score: 0 is the beginning, 0.5 half way, 1 the beginning again [default: 0]
    #[arg(long, value_name = "T", allow_negative_numbers = true, value_parser = parse_phase)]
    pub(crate) phase: Option<f64>,
    /// Length of an animated score's loop in seconds [default: 4]
    #[arg(long, value_name = "S", allow_negative_numbers = true, value_parser = parse_seconds)]
    pub(crate) seconds: Option<f64>,
    /// Pointer position, and `down` if it is pressed, for a score that uses the pointer [default: 0,0]
    #[arg(long, value_name = "X,Y[,down]", allow_negative_numbers = true, value_parser = parse_pointer, conflicts_with = "track")]
    pub(crate) pointer: Option<Pointer>,
    /// Recorded pointer track for a clip to follow: one JSON object per line, {"seconds": 0.1, "at": [12, 40], "down": true}
    #[arg(long, value_name = "FILE")]
    pub(crate) track: Option<PathBuf>,
    /// Marks (numbered points, frame by frame) for a score that uses them: a JSON Lines or .csv file, or - for standard input
    #[arg(long, value_name = "FILE")]
    pub(crate) marks: Option<PathBuf>,
    /// Keep lost marks at their last known position
    #[arg(long, requires = "marks")]
    pub(crate) marks_held: bool,
    /// Smooth the marks over this many frames to remove jitter
    #[arg(long, value_name = "FRAMES", requires = "marks", value_parser = parse_width)]
    pub(crate) marks_smoothed: Option<f64>,
}

const VARY_EXAMPLES: &str = "\
Examples:
  chordane vary sail.chord -o seeds.png --seeds 24                   24 seeds, side by side
  chordane vary sail.chord -o sag.png --over sag=0..0.4:5            five steps of a knob
  chordane vary sail.chord -o all.png --over sag=0..0.4:5 --over tail=bows,plain
                                                                     two knobs, as a grid
  chordane vary sail.chord -o both.png --over sag=0..0.4:5 --seeds 4  a knob in columns, seeds in rows
  chordane vary swing.chord -o strip.png --phases 12                 twelve moments of an animated score
  chordane vary tag.chord -o sizes.png --sizes 320x200,1280x200,200x600
  chordane vary sail.chord -o seeds.png --seeds 24 --keep 7,10..12   also write these at full size
Redraw a picture from its file alone:
  chordane draw --again seeds-07.png -o sail.svg                     one written by --keep
  chordane draw --again seeds.png --tile 7 -o sail.svg               any picture of a contact sheet";

#[derive(Debug, Args)]
#[command(after_help = VARY_EXAMPLES)]
pub(crate) struct VaryFileOptions {
    /// Score: a .chord file, or - for standard input
    pub(crate) input: PathBuf,
    #[command(flatten)]
    pub(crate) vary: VaryOptions,
    #[command(flatten)]
    pub(crate) limits: LimitOptions,
}

/// The most frames of one clip.
pub(crate) const MAX_FRAMES: usize = 100_000_000;

/// The most pictures on one contact sheet.
pub(crate) const MAX_PICTURES: usize = 1000;

#[derive(Debug, Args)]
pub(crate) struct VaryOptions {
    /// Contact sheet to write: .svg or .png; can be repeated
    #[arg(short, long = "out", value_name = "OUT", required = true)]
    pub(crate) out: Vec<PathBuf>,
    /// Number of seeds, starting at 1 or at --seed
    #[arg(long, value_name = "N", value_parser = clap::value_parser!(u64).range(1..=MAX_PICTURES as u64))]
    pub(crate) seeds: Option<u64>,
    /// Vary a knob in even steps, or over a list of values, points as (12,30),(40,50); given twice, the two knobs make a grid
    #[arg(long, value_name = "NAME=LOW..HIGH:STEPS")]
    pub(crate) over: Vec<String>,
    /// Sheet size in pixels, for scores that use asked_size(..)
    #[arg(long, value_name = "WxH,WxH,..", value_delimiter = ',', value_parser = parse_size)]
    pub(crate) sizes: Vec<(u32, u32)>,
    /// Number of moments of an animated score, spaced evenly over its loop
    #[arg(long, value_name = "N", value_parser = clap::value_parser!(u64).range(1..=MAX_PICTURES as u64))]
    pub(crate) phases: Option<u64>,
    /// Pictures to write at full size as well: numbers, ranges, or all
    #[arg(long, value_name = "N,N..M,all", value_delimiter = ',')]
    pub(crate) keep: Vec<String>,
    /// Overlay the construction on each picture, or only some layers of it, as in draw --bones
    #[arg(long, value_name = "LAYER,LAYER,..", num_args = 0..=1, require_equals = true, default_missing_value = "all", value_delimiter = ',')]
    pub(crate) bones: Option<Vec<String>>,
    #[command(flatten)]
    pub(crate) knobs: KnobOptions,
    /// Maximum width and height of a picture in pixels
    #[arg(long, value_name = "PIXELS", default_value_t = MAX_SIDE)]
    pub(crate) max_side: u32,
}

const CHECK_EXAMPLES: &str = "\
Examples:
  chordane check sail.chord             measurements and findings as text
  chordane check sail.svg --json        the same as JSON
The exit code is 1 if there is a warning; hints alone give 0.";

#[derive(Debug, Args)]
#[command(after_help = CHECK_EXAMPLES)]
pub(crate) struct CheckFileOptions {
    /// Score or SVG document: a .chord or .svg file, or - for standard input
    pub(crate) input: PathBuf,
    #[command(flatten)]
    pub(crate) check: CheckOptions,
    #[command(flatten)]
    pub(crate) limits: LimitOptions,
}

#[derive(Debug, Args)]
pub(crate) struct CheckOptions {
    #[command(flatten)]
    pub(crate) knobs: KnobOptions,
    /// Sheet size in pixels, for scores that use asked_size(..)
    #[arg(long, value_name = "WxH", value_parser = parse_size)]
    pub(crate) size: Option<(u32, u32)>,
    /// Print one JSON object instead of a table
    #[arg(long)]
    pub(crate) json: bool,
}

const LIVE_EXAMPLES: &str = "\
Examples:
  chordane live sail.chord              then open the address it prints
  chordane live sail.chord --port 8000
  chordane live picture.svg
  chordane demo --tracker | chordane live kite.chord --marks -";

#[derive(Debug, Args)]
#[command(after_help = LIVE_EXAMPLES)]
pub(crate) struct LiveFileOptions {
    /// Score or SVG document: a .chord or .svg file. It is watched for changes, and edits in the page are written to it
    pub(crate) input: PathBuf,
    #[command(flatten)]
    pub(crate) live: LiveOptions,
    #[command(flatten)]
    pub(crate) limits: LimitOptions,
}

#[derive(Debug, Args)]
pub(crate) struct LiveOptions {
    #[command(flatten)]
    pub(crate) page: PageOptions,
    #[command(flatten)]
    pub(crate) knobs: KnobOptions,
}

const TRACE_EXAMPLES: &str = "\
Examples:
  chordane trace photo.png -o outline.svg
  chordane trace photo.png -o outline.svg -o outline.chord    as SVG and as a score
  chordane trace photo.png -o outline.svg --auto              start from detected outlines
Every step is stored next to the first output, in outline.svg.steps; running the same command again continues from there.";

#[derive(Debug, Args)]
#[command(after_help = TRACE_EXAMPLES)]
pub(crate) struct TraceOptions {
    /// Image to trace: a .png or .jpg file
    pub(crate) image: PathBuf,
    /// Output file: .svg for shapes, .chord for a score, .rs for Rust, .txt for path data; can be repeated
    #[arg(short, long = "out", value_name = "OUT", required = true)]
    pub(crate) out: Vec<PathBuf>,
    /// Start from outlines detected around the flat-coloured areas of the image
    #[arg(long)]
    pub(crate) auto: bool,
    /// With --auto: maximum distance in pixels between a detected outline and the edge it follows
    #[arg(long, value_name = "PIXELS", requires = "auto", default_value_t = 0.75, value_parser = parse_within)]
    pub(crate) within: f64,
    /// With --auto: write the detected outlines without opening a page
    #[arg(long, requires = "auto")]
    pub(crate) no_page: bool,
    #[command(flatten)]
    pub(crate) page: PageOptions,
}

/// Where a page is served.
#[derive(Debug, Args)]
pub(crate) struct PageOptions {
    /// Port of the page, or 0 for any free port [default: 4717, or the next free one]
    #[arg(long, value_name = "PORT", value_parser = parse_port)]
    pub(crate) port: Option<u16>,
    /// Address to listen on; any address but a loopback one lets other machines reach the page [default: 127.0.0.1]
    #[arg(long, value_name = "ADDRESS")]
    pub(crate) host: Option<IpAddr>,
}

/// What a script may use up. Raised where a large score needs more.
#[derive(Debug, Args)]
#[command(next_help_heading = "Limits")]
pub(crate) struct LimitOptions {
    /// Maximum number of steps
    #[arg(long, value_name = "N", default_value_t = Limits::default().steps, value_parser = clap::value_parser!(u64).range(1..))]
    max_steps: u64,
    /// Maximum run time
    #[arg(long, value_name = "SECONDS", default_value_t = Limits::default().time.as_secs_f64(), value_parser = parse_seconds)]
    max_seconds: f64,
    /// Maximum memory in megabytes
    #[arg(long, value_name = "MB", default_value_t = Limits::default().memory >> 20)]
    max_memory: usize,
    /// Maximum number of values in one list
    #[arg(long, value_name = "N", default_value_t = Limits::default().list)]
    max_list: usize,
    /// Maximum number of characters in one string
    #[arg(long, value_name = "N", default_value_t = Limits::default().text)]
    max_text: usize,
}

impl LimitOptions {
    pub(crate) fn limits(&self) -> Limits {
        Limits {
            steps: self.max_steps,
            time: Duration::try_from_secs_f64(self.max_seconds).unwrap_or(Duration::MAX),
            memory: self.max_memory.saturating_mul(1 << 20),
            list: self.max_list,
            text: self.max_text,
            gauge: Some(GAUGE),
            ..Limits::default()
        }
    }
}

#[derive(Debug, Args)]
pub(crate) struct WordsOptions {
    /// Word to explain, terms to search for, or `language` for the syntax
    pub(crate) word: Vec<String>,
    /// Print the documentation page as Markdown
    #[arg(long)]
    pub(crate) markdown: bool,
}

#[derive(Debug, Args)]
pub(crate) struct DemoOptions {
    /// Output folder; created if it does not exist
    #[arg(long, value_name = "DIR", default_value = "chordane-demo")]
    pub(crate) out: PathBuf,
    /// Instead, stream simulated tracker marks of a kite in the wind to standard output, as JSON Lines, 30 frames per second
    #[arg(long, conflicts_with = "out")]
    pub(crate) tracker: bool,
    /// Stop the stream after N frames
    #[arg(long, value_name = "N", requires = "tracker")]
    pub(crate) frames: Option<usize>,
}

#[derive(Debug, Args)]
pub(crate) struct CompletionsOptions {
    /// The shell
    pub(crate) shell: clap_complete::Shell,
}

#[derive(Debug, Args)]
pub(crate) struct ManOptions {
    /// Folder to write one page per command to
    #[arg(long, value_name = "DIR")]
    pub(crate) out: Option<PathBuf>,
}

/// Returns the whole command, with a name.
pub(crate) fn command(name: &'static str) -> clap::Command {
    named(Options::command().name(name), name)
}

/// Replaces the program's name in the examples of a command and its subcommands.
fn named(command: clap::Command, name: &str) -> clap::Command {
    let examples =
        command.get_after_help().map(|help| help.to_string().replace("  chordane ", &format!("  {name} ")));
    let command = examples.into_iter().fold(command, clap::Command::after_help);
    command.mut_subcommands(|inner| named(inner, name))
}

/// The command of one score that is compiled in: draws it, or checks it.
#[derive(Debug, Parser)]
#[command(args_conflicts_with_subcommands = true, subcommand_negates_reqs = true)]
pub(crate) struct OneScore {
    #[command(flatten)]
    pub(crate) draw: DrawOptions,
    #[command(subcommand)]
    pub(crate) action: Option<OneScoreAction>,
}

#[derive(Debug, Subcommand)]
pub(crate) enum OneScoreAction {
    /// Measure every path of the score and report likely mistakes
    Check(CheckOptions),
    /// Draw a contact sheet of the score with varying seeds, knobs, sizes or phases
    Vary(VaryOptions),
    /// Show the score in the browser
    Live(LiveOptions),
}

pub(crate) fn command_of_one_score(name: &'static str) -> clap::Command {
    OneScore::command()
        .name(name)
        .about("Draw this score to one or more files, check it, or show it in the browser")
}

/// The formats by their names, as the library's tables have them: those of pictures, then those of clips.
fn format_names() -> impl Iterator<Item = &'static str> {
    Format::stills().chain(Format::clips()).map(Format::ending)
}

/// The words of a call. The layers of `--bones` may stand behind it as values of other options do: what is no layer belongs to
/// the call, so that `--bones sail.chord` names a score.
pub(crate) fn words_of(arguments: impl IntoIterator<Item = OsString>) -> Vec<OsString> {
    let is_layers =
        |text: &str| text.split(',').all(|layer| BoneLayer::NAMES.contains(&layer) || layer == "all");
    let mut words: Vec<OsString> = Vec::new();
    for word in arguments {
        match (words.last_mut(), word.to_str()) {
            (Some(last), Some(text)) if *last == "--bones" && is_layers(text) => {
                last.push("=");
                last.push(text);
            }
            _ => words.push(word),
        }
    }
    words
}

fn parse_dpi(text: &str) -> Result<f64, String> {
    let dpi = text.trim().parse::<f64>().ok().filter(|dpi| (1.0..=100_000.0).contains(dpi));
    dpi.ok_or_else(|| "give a number from 1 to 100000, as in 300".to_owned())
}

pub(crate) fn parse_size(text: &str) -> Result<(u32, u32), String> {
    let sides = text.split_once(['x', 'X']).and_then(|(w, h)| Some((w.parse().ok()?, h.parse().ok()?)));
    match sides {
        Some((width, height)) if width > 0 && height > 0 => Ok((width, height)),
        _ => Err("give two whole numbers above 0, as in 1280x960".to_owned()),
    }
}

fn parse_width(text: &str) -> Result<f64, String> {
    let width = text.parse::<f64>().ok().filter(|width| width.is_finite() && *width >= 0.0);
    width.ok_or_else(|| "give a number of frames, 0 or more, as in 2".to_owned())
}

fn parse_within(text: &str) -> Result<f64, String> {
    let within = text.parse::<f64>().ok().filter(|within| (0.1..=100.0).contains(within));
    within.ok_or_else(|| "give a number of pixels from 0.1 to 100, as in 0.75".to_owned())
}

fn parse_pointer(text: &str) -> Result<Pointer, String> {
    let wrong = || "give two numbers, as in 120,80, or 120,80,down if it is pressed".to_owned();
    let mut parts = text.split(',').map(str::trim);
    let mut number =
        || parts.next().and_then(|part| part.parse::<f64>().ok()).filter(|number| number.is_finite());
    let (Some(x), Some(y)) = (number(), number()) else { return Err(wrong()) };
    match (parts.next(), parts.next()) {
        (None, _) => Ok(Pointer::at((x, y))),
        (Some("down"), None) => Ok(Pointer::down((x, y))),
        _ => Err(wrong()),
    }
}

fn parse_frames(text: &str) -> Result<usize, String> {
    let frames = text.parse::<usize>().ok().filter(|frames| (1..=MAX_FRAMES).contains(frames));
    frames.ok_or_else(|| format!("give a whole number from 1 to {MAX_FRAMES}, as in 48"))
}

fn parse_part(text: &str) -> Result<(usize, usize), String> {
    let both = text.split_once('/').and_then(|(i, n)| Some((i.parse().ok()?, n.parse().ok()?)));
    let within = both.filter(|(part, parts): &(usize, usize)| (1..=*parts).contains(part));
    within.ok_or_else(|| "give a part and how many there are, as in 3/16".to_owned())
}

fn parse_phase(text: &str) -> Result<f64, String> {
    let phase = text.parse::<f64>().ok().filter(|phase| (0.0..=1.0).contains(phase));
    phase.ok_or_else(|| "give a number from 0 to 1, as in 0.25".to_owned())
}

fn parse_port(text: &str) -> Result<u16, String> {
    text.parse().map_err(|_| "give a whole number from 0 to 65535, as in 8000".to_owned())
}

fn parse_seconds(text: &str) -> Result<f64, String> {
    match text.parse() {
        Ok(seconds) if seconds > 0.0 && seconds < f64::INFINITY => Ok(seconds),
        _ => Err("give a number above 0, as in 2.5".to_owned()),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_command_is_well_formed() {
        command("loft").debug_assert();
        command_of_one_score("kite").debug_assert();
    }

    #[test]
    fn sizes() {
        assert_eq!(parse_size("1280x960"), Ok((1280, 960)));
        for bad in ["", "12", "0x5", "-1x5", "1.5x2", "axb"] {
            assert!(parse_size(bad).is_err(), "{bad}");
        }
    }
}
