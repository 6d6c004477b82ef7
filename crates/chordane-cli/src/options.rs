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

/// Shapes out of numbers: a few lines in, a picture out.
#[derive(Debug, Parser)]
#[command(name = "chordane", version, arg_required_else_help = true, after_help = EXAMPLES)]
pub(crate) struct Options {
    #[command(subcommand)]
    pub(crate) action: Action,
}

const EXAMPLES: &str = "\
First steps:
  chordane demo                               make the demo's pictures and a page that shows them
  chordane words                              see every word of a score
  chordane draw sail.chord -o sail.png        draw a score and look at it
  chordane check sail.chord                   see its figures, and what looks wrong
  chordane vary sail.chord -o all.png --seeds 24    see many of it side by side
  chordane live sail.chord                    see it in a page while you write, and drag its vertices

A score is a text file whose last value is a sheet:
  let sail = polygon(pt(0, 0), 4, 120);
  sheet(640, 480).centred().ground(\"#f4efe6\").add(sail.fill(\"#c8553d\"))";

#[derive(Debug, Subcommand)]
pub(crate) enum Action {
    /// Draw a score or an SVG document to one file or several
    Draw(DrawFileOptions),
    /// Look a score or an SVG document over: figures of every path, and what looks wrong
    Check(CheckFileOptions),
    /// Draw a score many times, by seeds, knobs, sizes or moments, on one contact sheet
    Vary(VaryFileOptions),
    /// Show a score in a browser page while you write it: every change redraws it, and dragging a point changes its numbers
    Live(LiveFileOptions),
    /// Trace a picture in a browser page: draw outlines over it, vertex by vertex
    Trace(TraceOptions),
    /// Show the words of a score, or one of them with an example
    Words(WordsOptions),
    /// Make the demo: every picture, and a page that shows them beside their scores
    Demo(DemoOptions),
    /// Print the completions for a shell
    Completions(CompletionsOptions),
    /// Print the manual page, or write all of them into a folder
    Man(ManOptions),
}

const DRAW_EXAMPLES: &str = "\
Examples:
  chordane draw sail.chord -o sail.svg                     vector shapes
  chordane draw sail.chord -o sail.png --size 1280x960     pixels, fitted into this size
  chordane draw sail.chord -o sail.svg -o sail.png         both at once
  chordane draw sail.chord -o sail.png --set sag=0.2       with a knob set; --list-knobs shows them
  chordane draw swing.chord -o half.png --phase 0.5        one moment of a score that moves
  chordane draw swing.chord -o swing.gif --seconds 2       a clip of it
  chordane draw swing.chord -o swing.svg --frames 48       shapes that move
  chordane draw swing.chord -o frames/swing.png --frames 48    a picture for each frame: frames/swing-0001.png and so on
  chordane draw sail.chord -o bones.png --bones            its vertices, handles and directions
  chordane draw swing.chord -o way.png --bones --phase 0.5 --trail 8   where its vertices came from
  chordane draw - -o - --as svg < sail.chord > sail.svg    through pipes";

#[derive(Debug, Args)]
#[command(after_help = DRAW_EXAMPLES)]
pub(crate) struct DrawFileOptions {
    /// The score or drawing: a .chord or .svg file, or - for standard input
    pub(crate) input: PathBuf,
    /// Make a picture again: INPUT is a .svg or .png file that was drawn from a score
    #[arg(long)]
    pub(crate) again: bool,
    /// Which picture of a contact sheet to make again, by its number
    #[arg(long, value_name = "N", requires = "again")]
    pub(crate) tile: Option<usize>,
    #[command(flatten)]
    pub(crate) draw: DrawOptions,
    #[command(flatten)]
    pub(crate) limits: LimitOptions,
}

#[derive(Debug, Args)]
pub(crate) struct DrawOptions {
    /// The file to write: .svg or .png, or a clip as .gif, .apng or .y4m, or with --frames as .svg; or - for standard output; can be given several times
    #[arg(short, long = "out", value_name = "OUT", required_unless_present = "list_knobs")]
    pub(crate) out: Vec<PathBuf>,
    #[command(flatten)]
    pub(crate) knobs: KnobOptions,
    #[command(flatten)]
    pub(crate) clip: ClipDrawOptions,
    /// Print the knobs of the score, what they are set to and what they can be, instead of drawing
    #[arg(long)]
    pub(crate) list_knobs: bool,
    /// The format of what has no ending that says it
    #[arg(long = "as", value_name = "FORMAT", value_parser = PossibleValuesParser::new(format_names()))]
    pub(crate) format: Option<String>,
    /// The picture's size in pixels; the sheet is scaled evenly to fit
    #[arg(long, value_name = "WxH", value_parser = parse_size)]
    pub(crate) size: Option<(u32, u32)>,
    /// Draw on a coarse grid of so many pixels, shown enlarged with hard edges
    #[arg(long, value_name = "WxH", value_parser = parse_size, conflicts_with = "bones")]
    pub(crate) grain: Option<(u32, u32)>,
    /// With --grain: let pixels at edges be covered in part
    #[arg(long, requires = "grain")]
    pub(crate) partial: bool,
    /// Do not smooth edges: each pixel is painted whole or not at all
    #[arg(long, conflicts_with = "grain")]
    pub(crate) no_antialias: bool,
    /// Pixels to the inch of a picture; a sheet in pixels has 96 of them to the inch
    #[arg(long, value_name = "N", conflicts_with = "size", value_parser = parse_dpi)]
    pub(crate) dpi: Option<f64>,
    /// Draw the construction over it, or only some of it: grid, vertices, handles, directions, bounds
    #[arg(long, value_name = "LAYER,LAYER,..", num_args = 0..=1, require_equals = true, default_missing_value = "all", value_delimiter = ',')]
    pub(crate) bones: Option<Vec<String>>,
    /// With --bones: also draw this many earlier moments, dimmed, and the tracks of the vertices
    #[arg(long, value_name = "N", requires = "bones", value_parser = clap::value_parser!(u16).range(1..=100))]
    pub(crate) trail: Option<u16>,
    /// Decimals of coordinates in SVG files [default: as many as show a millionth of the sheet]
    #[arg(long, value_name = "N", value_parser = clap::value_parser!(u8).range(0..=12))]
    pub(crate) decimals: Option<u8>,
    /// The most pixels a side that a picture may have
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
#[command(next_help_heading = "Clips of a score that moves")]
pub(crate) struct ClipDrawOptions {
    /// How many frames to draw, spread evenly over the loop; with a .png file each gets its own, as in flight-0001.png [default: 25 a second]
    #[arg(long, value_name = "N", allow_negative_numbers = true, value_parser = parse_frames)]
    pub(crate) frames: Option<usize>,
    /// Draw only the I-th of N parts of the frames, to share the work between machines; for .png files only
    #[arg(long, value_name = "I/N", value_parser = parse_part)]
    pub(crate) part: Option<(usize, usize)>,
    /// Skip frames that an earlier run with the same options has already drawn; for .png files only
    #[arg(long)]
    pub(crate) resume: bool,
    /// The colours of a .gif file: one palette for the whole clip, or one for each frame
    #[arg(long, value_name = "FOR", default_value = "clip", value_parser = ["clip", "frame"])]
    pub(crate) palette: String,
    /// How to imitate colours that a .gif file lacks: by a fixed pattern, by passing the error on to the next pixels, or not at all
    #[arg(long, value_name = "HOW", default_value = "ordered", value_parser = PossibleValuesParser::new(Dither::NAMES))]
    pub(crate) dither: String,
}

/// What is asked of a score's knobs.
#[derive(Debug, Default, Args)]
pub(crate) struct KnobOptions {
    /// Set a knob of the score; can be given several times
    #[arg(long = "set", value_name = "NAME=VALUE")]
    pub(crate) set: Vec<String>,
    /// Give the score a picture under the name that it asks for; can be given several times. Other pictures are files below the score's folder
    #[arg(long = "picture", value_name = "NAME=FILE")]
    pub(crate) pictures: Vec<String>,
    /// The folder that the score lies in, where it has one.
    #[arg(skip)]
    pub(crate) folder: Option<PathBuf>,
    /// The seed of the score's dice: a whole number, or new to pick one and say which [default: the score's own, or 0]
    #[arg(long, value_name = "N", allow_negative_numbers = true)]
    pub(crate) seed: Option<String>,
    /// The moment of a score that moves: 0 is the beginning of its loop, 0.5 half way, and 1 the beginning again [default: 0]
    #[arg(long, value_name = "T", allow_negative_numbers = true, value_parser = parse_phase)]
    pub(crate) phase: Option<f64>,
    /// How long the loop of a score that moves is, in seconds [default: 4]
    #[arg(long, value_name = "S", allow_negative_numbers = true, value_parser = parse_seconds)]
    pub(crate) seconds: Option<f64>,
    /// The pointer's position, for a score that uses it, and whether it is down [default: 0,0]
    #[arg(long, value_name = "X,Y[,down]", allow_negative_numbers = true, value_parser = parse_pointer, conflicts_with = "track")]
    pub(crate) pointer: Option<Pointer>,
    /// A recorded track of the pointer for a clip to follow: one line of JSON for each moment, {"seconds": 0.1, "at": [12, 40], "down": true}
    #[arg(long, value_name = "FILE")]
    pub(crate) track: Option<PathBuf>,
    /// Marks for a score that uses them: numbered points, frame by frame, as JSON Lines or .csv; or - for standard input
    #[arg(long, value_name = "FILE")]
    pub(crate) marks: Option<PathBuf>,
    /// Keep lost marks where they were last seen
    #[arg(long, requires = "marks")]
    pub(crate) marks_held: bool,
    /// Smooth the marks over so many frames, to remove jitter
    #[arg(long, value_name = "FRAMES", requires = "marks", value_parser = parse_width)]
    pub(crate) marks_smoothed: Option<f64>,
}

const VARY_EXAMPLES: &str = "\
Examples:
  chordane vary sail.chord -o seeds.png --seeds 24                   24 seeds, side by side
  chordane vary sail.chord -o sag.png --over sag=0..0.4:5            five steps of a knob
  chordane vary sail.chord -o all.png --over sag=0..0.4:5 --over tail=bows,plain
                                                                     two knobs, as a grid
  chordane vary sail.chord -o both.png --over sag=0..0.4:5 --seeds 4  a knob across, seeds down
  chordane vary swing.chord -o strip.png --phases 12                 twelve moments of a score that moves
  chordane vary tag.chord -o sizes.png --sizes 320x200,1280x200,200x600
  chordane vary sail.chord -o seeds.png --seeds 24 --keep 7,10..12   and these at full size
Make a picture again, from its file alone:
  chordane draw --again seeds-07.png -o sail.svg                     one that was kept
  chordane draw --again seeds.png --tile 7 -o sail.svg               any of a contact sheet";

#[derive(Debug, Args)]
#[command(after_help = VARY_EXAMPLES)]
pub(crate) struct VaryFileOptions {
    /// The score: a .chord file, or - for standard input
    pub(crate) input: PathBuf,
    #[command(flatten)]
    pub(crate) vary: VaryOptions,
    #[command(flatten)]
    pub(crate) limits: LimitOptions,
}

/// The most frames of one clip.
pub(crate) const MOST_FRAMES: usize = 100_000_000;

/// The most pictures on one contact sheet.
pub(crate) const MOST_PICTURES: usize = 1000;

#[derive(Debug, Args)]
pub(crate) struct VaryOptions {
    /// The contact sheet to write, .svg or .png; can be given several times
    #[arg(short, long = "out", value_name = "OUT", required = true)]
    pub(crate) out: Vec<PathBuf>,
    /// So many seeds, from 1 on, or from --seed on
    #[arg(long, value_name = "N", value_parser = clap::value_parser!(u64).range(1..=MOST_PICTURES as u64))]
    pub(crate) seeds: Option<u64>,
    /// A knob in even steps, or by a list of its values, points as (12,30),(40,50); given twice, the knobs make a grid
    #[arg(long, value_name = "NAME=LOW..HIGH:STEPS")]
    pub(crate) over: Vec<String>,
    /// The sheet's size in pixels, for scores that ask for it with asked_size(..)
    #[arg(long, value_name = "WxH,WxH,..", value_delimiter = ',', value_parser = parse_size)]
    pub(crate) sizes: Vec<(u32, u32)>,
    /// How many moments of a score that moves, spread evenly over its loop
    #[arg(long, value_name = "N", value_parser = clap::value_parser!(u64).range(1..=MOST_PICTURES as u64))]
    pub(crate) phases: Option<u64>,
    /// The pictures to write at full size too, beside the contact sheet: by numbers, from one to another, or all
    #[arg(long, value_name = "N,N..M,all", value_delimiter = ',')]
    pub(crate) keep: Vec<String>,
    /// Draw the construction over each picture, or only some of it, as in draw --bones
    #[arg(long, value_name = "LAYER,LAYER,..", num_args = 0..=1, require_equals = true, default_missing_value = "all", value_delimiter = ',')]
    pub(crate) bones: Option<Vec<String>>,
    #[command(flatten)]
    pub(crate) knobs: KnobOptions,
    /// The most pixels a side that a picture may have
    #[arg(long, value_name = "PIXELS", default_value_t = MAX_SIDE)]
    pub(crate) max_side: u32,
}

const CHECK_EXAMPLES: &str = "\
Examples:
  chordane check sail.chord             figures and findings to read
  chordane check sail.svg --json        the same for a program
Ends with exit code 1 where a warning was found; hints alone end with 0.";

#[derive(Debug, Args)]
#[command(after_help = CHECK_EXAMPLES)]
pub(crate) struct CheckFileOptions {
    /// The score or drawing: a .chord or .svg file, or - for standard input
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
    /// The sheet's size in pixels, for scores that ask for it with asked_size(..)
    #[arg(long, value_name = "WxH", value_parser = parse_size)]
    pub(crate) size: Option<(u32, u32)>,
    /// Print one JSON object instead of a table
    #[arg(long)]
    pub(crate) json: bool,
}

const LIVE_EXAMPLES: &str = "\
Examples:
  chordane live sail.chord              open the address that is printed
  chordane live sail.chord --port 8000
  chordane live picture.svg
  chordane demo --tracker | chordane live kite.chord --marks -";

#[derive(Debug, Args)]
#[command(after_help = LIVE_EXAMPLES)]
pub(crate) struct LiveFileOptions {
    /// The score or drawing: a .chord or .svg file. It is watched, and written when it is edited in the page
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
  chordane trace photo.png -o outline.svg -o outline.chord    shapes, and a score of them
  chordane trace photo.png -o outline.svg --auto              begin with proposed outlines
Every step is kept beside the first output, in outline.svg.steps; the same call goes on where it ended.";

#[derive(Debug, Args)]
#[command(after_help = TRACE_EXAMPLES)]
pub(crate) struct TraceOptions {
    /// The picture, a .png or .jpg file
    pub(crate) image: PathBuf,
    /// The file to write: shapes as .svg, a score as .chord, Rust as .rs, or path data as .txt; can be given several times
    #[arg(short, long = "out", value_name = "OUT", required = true)]
    pub(crate) out: Vec<PathBuf>,
    /// Begin with proposed outlines of the flat-coloured areas of the picture
    #[arg(long)]
    pub(crate) auto: bool,
    /// With --auto: how far in pixels a proposed outline may be from the rim that it follows
    #[arg(long, value_name = "PIXELS", requires = "auto", default_value_t = 0.75, value_parser = parse_within)]
    pub(crate) within: f64,
    /// With --auto: write the proposed outlines, and open no page
    #[arg(long, requires = "auto")]
    pub(crate) no_page: bool,
    #[command(flatten)]
    pub(crate) page: PageOptions,
}

/// Where a page is served.
#[derive(Debug, Args)]
pub(crate) struct PageOptions {
    /// The port of the page, or 0 for any that is free [default: 4717, or the next that is free]
    #[arg(long, value_name = "PORT", value_parser = parse_port)]
    pub(crate) port: Option<u16>,
    /// The address to listen on; any but a loopback address lets other machines reach the page [default: 127.0.0.1]
    #[arg(long, value_name = "ADDRESS")]
    pub(crate) host: Option<IpAddr>,
}

/// What a script may use up. Raised where a large score needs more.
#[derive(Debug, Args)]
#[command(next_help_heading = "Limits of a score")]
pub(crate) struct LimitOptions {
    /// The most steps
    #[arg(long, value_name = "N", default_value_t = Limits::default().steps, value_parser = clap::value_parser!(u64).range(1..))]
    max_steps: u64,
    /// The longest time
    #[arg(long, value_name = "SECONDS", default_value_t = Limits::default().time.as_secs_f64(), value_parser = parse_seconds)]
    max_seconds: f64,
    /// The most memory, in megabytes
    #[arg(long, value_name = "MB", default_value_t = Limits::default().memory >> 20)]
    max_memory: usize,
    /// The most values in one list
    #[arg(long, value_name = "N", default_value_t = Limits::default().list)]
    max_list: usize,
    /// The most characters in one text
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
    /// The word to show, what it is about, or `language` for what is no word
    pub(crate) word: Vec<String>,
    /// Print the page for the docs
    #[arg(long)]
    pub(crate) markdown: bool,
}

#[derive(Debug, Args)]
pub(crate) struct DemoOptions {
    /// The folder to write into; it is made where it is missing
    #[arg(long, value_name = "DIR", default_value = "chordane-demo")]
    pub(crate) out: PathBuf,
    /// Instead, stream a simulated tracker's marks of a kite in wind to standard output, as JSON Lines, 30 frames a second
    #[arg(long, conflicts_with = "out")]
    pub(crate) tracker: bool,
    /// End the stream after so many frames
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
    /// The folder to write a page for each command into
    #[arg(long, value_name = "DIR")]
    pub(crate) out: Option<PathBuf>,
}

/// The whole command under a name.
pub(crate) fn command(name: &'static str) -> clap::Command {
    named(Options::command().name(name), name)
}

/// A command whose examples are of a program of this name.
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
    /// Look the score over: figures of every path, and what looks wrong
    Check(CheckOptions),
    /// Draw the score many times, by seeds, knobs, sizes or moments, on one contact sheet
    Vary(VaryOptions),
    /// Show the score in a browser page
    Live(LiveOptions),
}

pub(crate) fn command_of_one_score(name: &'static str) -> clap::Command {
    OneScore::command()
        .name(name)
        .about("Draws this score to one file or several, checks it, or shows it in a page")
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
    let frames = text.parse::<usize>().ok().filter(|frames| (1..=MOST_FRAMES).contains(frames));
    frames.ok_or_else(|| format!("give a whole number from 1 to {MOST_FRAMES}, as in 48"))
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
