//! What the page and the program say to one another, as JSON. Places are in the sheet's coordinates; places in a text count as the page counts them,
//! in units of UTF-16.

use chordane::draft::VertexKind;
use serde::{Deserialize, Serialize};

use super::export::ExportFormat;

/// What a page asks for.
#[derive(Clone, Debug, Deserialize, PartialEq)]
#[serde(tag = "ask", rename_all = "kebab-case", deny_unknown_fields)]
pub(crate) enum Asked {
    /// The text as it was edited, and the version that was edited.
    Edit {
        base: u64,
        text: String,
    },
    /// Text that was typed while no program was running, and the text it was typed into.
    Bring {
        before: String,
        text: String,
    },
    /// A knob set; `more` while it is being moved.
    Knob {
        name: String,
        value: String,
        more: bool,
    },
    /// A knob back to what it starts with.
    KnobBack {
        name: String,
    },
    /// The knobs as they are set written into the score.
    KeepKnobs,
    /// Another seed: this one, or one that the program picks.
    Seed {
        seed: Option<u64>,
    },
    /// The seed written into the score.
    KeepSeed,
    /// The moment of the loop.
    Phase {
        phase: f64,
    },
    /// How long the loop is.
    Seconds {
        seconds: f64,
    },
    /// Where the pointer is, for scores that ask for it.
    Pointer {
        at: [f64; 2],
        down: bool,
    },
    /// Begin to record the pointer.
    Record,
    /// Replay what was recorded, or end recording or replaying.
    Replay {
        on: bool,
    },
    /// Pauses the stream of marks, or resumes it.
    PauseMarks {
        on: bool,
    },
    /// Which layers of the bones are shown.
    Bones {
        layers: Vec<String>,
    },
    /// What lies there, and what can be taken hold of; `way` counts through the ways to hold it.
    Hover {
        at: [f64; 2],
        reach: f64,
        way: usize,
    },
    /// The items that a line of the text makes.
    Line {
        line: usize,
    },
    /// The place taken hold of.
    Grab {
        at: [f64; 2],
        reach: f64,
        way: usize,
        /// The handle of a point knob, by the knob's name.
        #[serde(default)]
        knob: Option<String>,
    },
    /// Where it is wanted, and what cannot be told apart.
    Drag {
        to: [f64; 2],
        within: f64,
    },
    /// It is let go; back to where it was where it is not kept.
    LetGo {
        keep: bool,
    },
    /// Moves the grip with this number to another place by steps, held in this way, if it is still within reach of `at`.
    Nudge {
        grip: usize,
        hold: usize,
        at: [f64; 2],
        reach: f64,
        to: [f64; 2],
    },
    /// Chooses the next or previous grip, or the first one of the next or previous item. Where `by` is 0, holds the same grip in another way.
    Next {
        from: Option<usize>,
        reach: f64,
        way: usize,
        by: i64,
        items: bool,
    },
    /// Inserts a vertex into the side at a place, or in the middle of the side after the vertex there.
    Insert {
        at: [f64; 2],
        reach: f64,
        after: bool,
    },
    /// The vertex there taken out.
    Remove {
        at: [f64; 2],
        reach: f64,
    },
    /// The last change taken back, or done again.
    Undo,
    Redo,
    /// A finding mended, by its place in the list.
    Mend {
        finding: usize,
    },
    /// Replaces the misspelt word of the mistake by the one that is meant.
    MendMistake,
    /// Shapes through marks written into the score.
    KeepShapes {
        shapes: Vec<MarkedShape>,
    },
    /// Asks for the outline of a new shape that is being drawn.
    Outline {
        vertices: Vec<NewVertex>,
        closed: bool,
    },
    /// Writes a new shape into the score.
    NewShape {
        vertices: Vec<NewVertex>,
        closed: bool,
    },
    /// The run that is going on is to end.
    Stop,
    /// Which text is kept where the file and the page were changed in the same lines.
    Keep {
        own: bool,
    },
}

/// A vertex of a shape drawn in the page.
#[derive(Clone, Copy, Debug, Deserialize, PartialEq)]
#[serde(deny_unknown_fields)]
pub(crate) struct NewVertex {
    pub(crate) at: [f64; 2],
    pub(crate) kind: VertexKind,
}

/// A shape through marks, by their numbers.
#[derive(Clone, Debug, Deserialize, PartialEq)]
#[serde(deny_unknown_fields)]
pub(crate) struct MarkedShape {
    pub(crate) numbers: Vec<usize>,
    pub(crate) closed: bool,
}

/// What a page is told.
#[derive(Clone, Debug, PartialEq, Serialize)]
#[serde(tag = "tell", rename_all = "kebab-case")]
pub(crate) enum Told {
    /// What is shown, first of all.
    Hello {
        name: String,
        /// The file as the system names it, by which a page keeps what is not sent; of a score that is compiled in its name.
        path: String,
        /// Another one for each program that is started.
        run: String,
        kind: &'static str,
        bones: &'static [&'static str],
        formats: Vec<ExportFormat>,
    },
    Text(ToldText),
    Picture(ToldPicture),
    Run(RunTold),
    /// What is wrong; nothing where nothing is.
    Mistake {
        mistake: Option<MistakeTold>,
    },
    Knobs {
        knobs: Vec<KnobTold>,
    },
    Seeds {
        seed: u64,
        own: bool,
        strip: Vec<SeedTold>,
    },
    Time {
        phase: f64,
        seconds: f64,
        recorded: f64,
        mode: Mode,
    },
    Findings {
        findings: Vec<FindingTold>,
        complete: bool,
    },
    Bones {
        layers: Vec<String>,
    },
    History {
        undo: Option<String>,
        redo: Option<String>,
    },
    File {
        state: FileState,
        told: String,
        /// When the file was last written, in milliseconds since 1970; 0 if never.
        saved: u64,
    },
    Marks(MarksTold),
    /// The score runs for so long already; 0 where it does not run, or not for long.
    Slow {
        seconds: f64,
    },
    /// The progress of the exports: their ids, the frames drawn, and the frames in all.
    Exports {
        exports: Vec<(String, u64, u64)>,
    },
    /// The outlines of the items that a line makes, as path data.
    Lined {
        outlines: Vec<String>,
    },
    Hovered(Box<HoveredTold>),
    /// The grip at a press, if there is one. A drag follows only if it can be moved.
    Grabbed(Box<HoveredTold>),
    /// Where what is dragged is now, why not where it is wanted, and the numbers that changed, as places in the text.
    Held {
        at: Option<[f64; 2]>,
        told: Option<String>,
        numbers: Vec<(usize, usize)>,
    },
    /// An edit does not fit to what was changed in the same lines. Which text is wanted is to be asked.
    Clash {
        text: String,
    },
    /// The outline of a new shape, as path data.
    Outline {
        outline: String,
    },
    /// Shapes were written into the score, starting at this line; `marks` if they go through marks.
    Added {
        line: usize,
        marks: bool,
    },
    /// An answer to what was asked and cannot be.
    Refused {
        message: String,
    },
}

impl Told {
    pub(crate) fn json(&self) -> String {
        // Texts and numbers always have a JSON form.
        serde_json::to_string(self).unwrap_or_default()
    }
}

/// The whole text, or what of it changed.
#[derive(Clone, Debug, PartialEq, Serialize)]
pub(crate) struct ToldText {
    pub(crate) version: u64,
    /// From and to which place of the text before there is something else now; none of a whole text.
    pub(crate) change: Option<(usize, usize)>,
    pub(crate) text: String,
}

/// A picture, as far as it differs from the one before.
#[derive(Clone, Debug, PartialEq, Serialize)]
pub(crate) struct ToldPicture {
    /// So much of the document before stays, at its beginning and at its end.
    pub(crate) keep: (usize, usize),
    pub(crate) svg: String,
    /// The sheet's coordinates of the left upper and of the right lower corner.
    pub(crate) corners: [[f64; 2]; 2],
    /// Its size in pixels.
    pub(crate) size: [f64; 2],
}

#[derive(Clone, Debug, Default, PartialEq, Serialize)]
pub(crate) struct RunTold {
    pub(crate) milliseconds: f64,
    pub(crate) moves: bool,
    pub(crate) points: bool,
    pub(crate) rolls: bool,
    pub(crate) items: usize,
    pub(crate) printed: Vec<String>,
    pub(crate) notes: Vec<String>,
}

#[derive(Clone, Debug, Default, PartialEq, Serialize)]
pub(crate) struct MistakeTold {
    pub(crate) message: String,
    pub(crate) help: Option<String>,
    pub(crate) line: Option<usize>,
    pub(crate) column: Option<usize>,
    /// Whether a click can fix it, and the fixed text.
    pub(crate) click: bool,
    #[serde(skip)]
    pub(crate) mended: Option<String>,
}

#[derive(Clone, Debug, PartialEq, Serialize)]
#[serde(rename_all = "kebab-case", tag = "kind")]
pub(crate) enum KnobShape {
    Number { low: f64, high: f64 },
    Choice { choices: Vec<String> },
    Switch,
    Colour { hex: String },
    Point,
}

#[derive(Clone, Debug, PartialEq, Serialize)]
pub(crate) struct KnobTold {
    pub(crate) name: String,
    pub(crate) start: String,
    pub(crate) value: String,
    pub(crate) shape: KnobShape,
    /// The position of the vertex that a point knob moves, if it is known.
    pub(crate) at: Option<[f64; 2]>,
}

#[derive(Clone, Debug, PartialEq, Serialize)]
pub(crate) struct SeedTold {
    pub(crate) seed: u64,
    /// A small picture as a data URL.
    pub(crate) picture: String,
}

/// What time is at.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize)]
#[serde(rename_all = "kebab-case")]
pub(crate) enum Mode {
    #[default]
    Plain,
    Recording,
    Replaying,
}

#[derive(Clone, Debug, PartialEq, Serialize)]
pub(crate) struct FindingTold {
    pub(crate) code: &'static str,
    pub(crate) level: &'static str,
    pub(crate) line: Option<usize>,
    pub(crate) at: [f64; 2],
    pub(crate) message: String,
    pub(crate) mend: String,
    /// Whether a click mends it.
    pub(crate) click: bool,
}

/// The marks by number, the number of unreadable lines and of dropped frames, and whether the stream is paused.
#[derive(Clone, Debug, Default, PartialEq, Serialize)]
pub(crate) struct MarksTold {
    pub(crate) marks: Vec<(usize, [f64; 2])>,
    pub(crate) skipped: usize,
    pub(crate) left_out: usize,
    pub(crate) paused: bool,
}

/// How the file stands to what is shown.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize)]
#[serde(rename_all = "kebab-case")]
pub(crate) enum FileState {
    /// It holds what is shown.
    #[default]
    Saved,
    /// It could not be written.
    Unsaved,
    /// It is not there any more.
    Gone,
    /// It was changed in lines that were changed here too.
    Asking,
}

/// What lies under the pointer.
#[derive(Clone, Debug, Default, PartialEq, Serialize)]
pub(crate) struct HoveredTold {
    pub(crate) item: Option<ItemTold>,
    pub(crate) grip: Option<GripTold>,
    /// Whether the grip was asked for, and is to be chosen.
    pub(crate) chosen: bool,
}

#[derive(Clone, Debug, PartialEq, Serialize)]
pub(crate) struct ItemTold {
    pub(crate) number: usize,
    pub(crate) name: Option<String>,
    pub(crate) line: Option<usize>,
    /// Its outline as path data.
    pub(crate) outline: String,
    /// The pointer in the item's own coordinates, where those are others than the sheet's.
    pub(crate) own: Option<[f64; 2]>,
    pub(crate) figures: String,
}

#[derive(Clone, Debug, PartialEq, Serialize)]
pub(crate) struct GripTold {
    /// The grip's number among all grips, and the number of the hold among its own.
    pub(crate) grip: usize,
    pub(crate) hold: usize,
    pub(crate) at: [f64; 2],
    pub(crate) what: String,
    /// The numbers that would change, as places in the text.
    pub(crate) numbers: Vec<(usize, usize)>,
    /// What else would move with it.
    pub(crate) moved: Vec<[f64; 2]>,
    pub(crate) moved_count: usize,
    /// The number of the hold among all holds at this position, and how many holds there are.
    pub(crate) way: usize,
    pub(crate) ways: usize,
}
