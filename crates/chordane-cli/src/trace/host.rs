//! What pages of a tracing talk to: the draft, its journal and its files.

use std::collections::{BTreeMap, BTreeSet, HashMap};
use std::io::Write as _;
use std::path::{Path as FilePath, PathBuf};
use std::sync::{Mutex, MutexGuard, PoisonError};

use chordane::draft::{Draft, DraftShape, PictureEdges, Step};
use chordane::number::Point;
use chordane::write::write_whole;
use tokio::sync::watch;

use super::files::bytes;
use super::journal::{Entry, Journal};
use super::message::{Asked, DraftTold, QuestionTold, Snap, Told};
use crate::failure::Failure;
use crate::input::read_file;
use crate::record::digest;
use crate::web::{Answer, Host, Outlet, TRACE};

/// The picture that is traced.
#[derive(Debug)]
pub(crate) struct Photo {
    pub(crate) name: String,
    pub(crate) kind: &'static str,
    pub(crate) bytes: Vec<u8>,
    pub(crate) size: [u32; 2],
    pub(crate) edges: PictureEdges,
}

/// A file that the outlines are written to.
#[derive(Debug)]
pub(crate) struct Output {
    pub(crate) file: PathBuf,
    /// The journal's name for it.
    pub(crate) name: String,
    /// Digests of the latest contents written to it.
    pub(crate) wrote: Vec<String>,
    /// Whether the file is another program's work, which the user chose to leave alone.
    left: bool,
}

impl Output {
    pub(crate) fn new(file: PathBuf, name: String, wrote: Vec<String>) -> Self {
        Self { file, name, wrote, left: false }
    }

    /// Whether it holds what was written here, or nothing yet.
    pub(crate) fn is_own(&self) -> bool {
        let Ok(held) = self.file.metadata() else { return true };
        held.is_file() && read_file(&self.file).is_ok_and(|bytes| self.wrote.contains(&digest(&bytes)))
    }
}

/// What pages of a tracing talk to.
pub(crate) struct Board {
    photo: Photo,
    work: Mutex<Work>,
    show: watch::Sender<Shown>,
    shown: watch::Receiver<Shown>,
}

struct Work {
    draft: Draft,
    journal: Journal,
    out: Vec<Output>,
    question: Option<Question>,
    /// The indices of steps that continue the step before them: they are undone together.
    goes_on: BTreeSet<usize>,
}

/// A question that the page asks.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(crate) enum Question {
    /// It was drawn over another picture. Nothing is done before that is answered.
    Picture,
    /// These outputs hold what was not written here. They are not written before that is answered.
    Outputs(Vec<String>),
}

impl Question {
    fn told(self) -> QuestionTold {
        match self {
            Self::Picture => QuestionTold {
                told: "These outlines were drawn over another picture.".to_owned(),
                yes: "Go on over this one",
                no: None,
            },
            Self::Outputs(names) => {
                let (one, them) = if names.len() == 1 { ("holds", "it") } else { ("hold", "them") };
                QuestionTold {
                    told: format!("{} {one} what was not written here.", names.join(", ")),
                    yes: "Write over",
                    no: Some(if them == "it" { "Leave it as it is" } else { "Leave them as they are" }),
                }
            }
        }
    }
}

/// The state that all pages show: the draft, a message about its files, and a question.
#[derive(Clone, Debug, Default, PartialEq)]
pub(crate) struct Shown {
    draft: DraftTold,
    file: String,
    question: Option<QuestionTold>,
}

impl Shown {
    pub(crate) fn draft(&self) -> &DraftTold {
        &self.draft
    }
}

impl Work {
    /// The bytes for each output.
    fn made(&self, size: [u32; 2]) -> Result<Vec<Vec<u8>>, Failure> {
        self.out.iter().map(|out| bytes(&self.draft, size, &out.file)).collect()
    }

    /// The digests of what is written next, by the journal's names.
    fn digests(&self, all: &[Vec<u8>]) -> BTreeMap<String, String> {
        let own = self.out.iter().zip(all).filter(|(out, _)| !out.left);
        own.map(|(out, bytes)| (out.name.clone(), digest(bytes))).collect()
    }

    /// Writes the outputs that hold what was written here; asks about others.
    fn write(&mut self, all: &[Vec<u8>]) -> Result<(), Failure> {
        let mut foreign = Vec::new();
        for (out, bytes) in self.out.iter_mut().zip(all).filter(|(out, _)| !out.left) {
            if !out.is_own() {
                foreign.push(out.name.clone());
                continue;
            }
            write_whole(&out.file, bytes).map_err(|error| Failure::writing(&out.file, &error))?;
            out.wrote = vec![digest(bytes)];
        }
        if self.question != Some(Question::Picture) {
            self.question = (!foreign.is_empty()).then_some(Question::Outputs(foreign));
        }
        Ok(())
    }
}

impl Board {
    pub(crate) fn new(
        photo: Photo,
        out: Vec<Output>,
        journal: Journal,
        draft: Draft,
        question: Option<Question>,
    ) -> Self {
        let told = question.clone().map(Question::told);
        let (show, shown) =
            watch::channel(Shown { draft: (&draft).into(), file: String::new(), question: told });
        Self {
            photo,
            work: Mutex::new(Work { draft, journal, out, question, goes_on: BTreeSet::new() }),
            show,
            shown,
        }
    }

    fn work(&self) -> MutexGuard<'_, Work> {
        self.work.lock().unwrap_or_else(PoisonError::into_inner)
    }

    fn does_in(&self, work: &mut Work, entry: &Entry) -> Result<(), String> {
        if work.question == Some(Question::Picture) {
            return Err("answer the question above first".to_owned());
        }
        entry.apply(&mut work.draft)?;
        self.keep(work, Some(entry));
        Ok(())
    }

    /// Applies a step. With `more`, a move of the same vertex as before continues the last step.
    fn steps(&self, step: Step, more: bool) -> Result<(), String> {
        let mut work = self.work();
        // A closed shape that was picked gets no vertices at its end: a new one begins. A hole is closed while it is drawn.
        let is_done = |shape: &DraftShape| shape.closed && shape.hole_of.is_none();
        if matches!(step, Step::Add { .. }) && work.draft.active().is_some_and(is_done) {
            self.does_in(&mut work, &Entry::Step(Step::Finish { closed: true }))?;
        }
        let count = work.draft.steps().len();
        let moved = |step: Option<&Step>| match step {
            Some(Step::Move { shape, vertex, .. }) => Some((*shape, *vertex)),
            _ => None,
        };
        let before = moved(work.draft.steps().last());
        let goes_on = more && before.is_some() && before == moved(Some(&step));
        self.does_in(&mut work, &Entry::Step(step))?;
        work.goes_on.retain(|at| *at < count);
        if goes_on {
            work.goes_on.insert(count);
        }
        Ok(())
    }

    /// Undoes the last step or redoes the next one, together with the steps that continue it.
    fn go(&self, entry: &Entry) -> Result<(), String> {
        let mut work = self.work();
        self.does_in(&mut work, entry)?;
        let more = |work: &Work| {
            let count = work.draft.steps().len();
            work.goes_on.contains(&count)
        };
        while more(&work) && self.does_in(&mut work, entry).is_ok() {}
        Ok(())
    }

    /// Writes what is there: into the journal, so that what is shown is on the disk, then into the outputs.
    fn keep(&self, work: &mut Work, entry: Option<&Entry>) {
        let kept = work.made(self.photo.size).and_then(|all| {
            let digests = work.digests(&all);
            let kept = match entry {
                Some(entry) => work.journal.add(entry, &digests),
                None => work.journal.wrote(&digests),
            };
            kept.map_err(|error| Failure::writing(&Journal::place(first(&work.out)), &error))?;
            work.write(&all)
        });
        let file = kept.err().map_or_else(String::new, |failure| failure.to_string());
        let question = work.question.clone().map(Question::told);
        self.show.send_replace(Shown { draft: (&work.draft).into(), file, question });
    }

    /// Takes the answer to the question.
    fn answered(&self, yes: bool) -> Result<(), String> {
        let mut work = self.work();
        match work.question.take() {
            Some(Question::Picture) if yes => {
                let over = work.journal.over(&digest(&self.photo.bytes));
                over.map_err(|error| format!("the journal cannot be written: {error}"))?;
            }
            Some(Question::Outputs(names)) => {
                for out in &mut work.out {
                    if !names.contains(&out.name) {
                        continue;
                    }
                    out.left = !yes;
                    if yes && let Ok(held) = read_file(&out.file) {
                        out.wrote = vec![digest(&held)];
                    }
                }
            }
            question => work.question = question,
        }
        self.keep(&mut work, None);
        Ok(())
    }

    /// A step with its position drawn to what is near.
    fn snapped(&self, draft: &Draft, step: Step, snap: Snap) -> Step {
        let put = |at: Point, moved: Option<(usize, usize)>| self.put(draft, at, snap, moved);
        match step {
            Step::Add { at, kind } => Step::Add { at: put(at, None), kind },
            Step::Insert { shape, side, at, kind } => Step::Insert { shape, side, at: put(at, None), kind },
            Step::Move { shape, vertex, to } => {
                Step::Move { shape, vertex, to: put(to, Some((shape, vertex))) }
            }
            other => other,
        }
    }

    fn put(&self, draft: &Draft, at: Point, snap: Snap, moved: Option<(usize, usize)>) -> Point {
        let snapped = draft.snapped(at, snap.grid, snap.within, moved);
        // Vertices and the grid go before edges.
        let edge = || self.photo.edges.near(at, snap.within).filter(|_| snap.edges);
        let settled = if snapped == at { edge().unwrap_or(at) } else { snapped };
        // A hundredth of a pixel is more than can be seen.
        (settled * 100.0).round() / 100.0
    }

    /// Writes the files as they are now, unless something has to be answered first.
    pub(crate) fn write_all(&self) -> Result<(), Failure> {
        let mut work = self.work();
        if work.question.is_none() {
            self.keep(&mut work, None);
        }
        let file = self.shown.borrow().file.clone();
        if file.is_empty() {
            Ok(())
        } else {
            Err(Failure::machine(file, "make room, or name another file with -o"))
        }
    }
}

fn first(out: &[Output]) -> &FilePath {
    out.first().map_or_else(|| FilePath::new("outline.svg"), |out| &out.file)
}

impl Host for Board {
    type Shown = Shown;

    fn page(&self) -> &'static str {
        TRACE
    }

    fn hello(&self) -> String {
        let out: Vec<String> = self.work().out.iter().map(|out| out.file.display().to_string()).collect();
        Told::Hello { name: self.photo.name.clone(), out: out.join(", "), size: self.photo.size }.json()
    }

    fn shown(&self) -> watch::Receiver<Shown> {
        self.shown.clone()
    }

    fn news(&self, now: &Shown, before: Option<&Shown>) -> Vec<String> {
        let mut told = vec![Told::Draft(now.draft.clone()).json()];
        if before.map_or("", |before| &before.file) != now.file {
            told.push(Told::File { told: now.file.clone() }.json());
        }
        if before.and_then(|before| before.question.as_ref()) != now.question.as_ref() {
            told.push(Told::Question { question: now.question.clone() }.json());
        }
        told
    }

    fn asked(&self, _: u64, text: &str, answer: &Answer) -> Result<(), String> {
        let asked: Asked = serde_json::from_str(text).map_err(|error| error.to_string())?;
        let done = match asked {
            Asked::Step { step, snap, more } => {
                let step = self.snapped(&self.work().draft, step, snap);
                self.steps(step, more)
            }
            Asked::Answer { yes } => self.answered(yes),
            Asked::Undo => self.go(&Entry::Undo),
            Asked::Redo => self.go(&Entry::Redo),
            Asked::Try { step, snap } => {
                let mut draft = self.work().draft.without_history();
                let step = self.snapped(&draft, step, snap);
                let tried = draft.apply(step).map_err(|error| error.to_string());
                let _ = answer.send(Told::Tried((&draft).into()).json());
                tried
            }
            Asked::Look { at, reach, snap } => {
                let (work, at) = (self.work(), Point::from(at));
                let draft = &work.draft;
                let vertex = draft.vertex_near(at, reach);
                let side = if vertex.is_none() { draft.side_near(at, reach) } else { None };
                let near = Told::Near {
                    vertex,
                    side: side.map(|(shape, side, at)| (shape, side, at.to_array())),
                    shape: draft.shape_at(at),
                    put: self.put(draft, at, snap, None).to_array(),
                };
                let _ = answer.send(near.json());
                Ok(())
            }
        };
        if let Err(message) = done {
            let _ = answer.send(Told::Refused { message }.json());
        }
        Ok(())
    }

    fn left(&self, _: u64) {}

    fn save(&self, name: &str, _: &HashMap<String, String>, mut out: Outlet) -> Result<(), String> {
        let made = bytes(&self.work().draft, self.photo.size, FilePath::new(name));
        let made = made.map_err(|failure| failure.to_string())?;
        out.write_all(&made).map_err(|error| error.to_string())
    }

    fn file(&self, name: &str) -> Option<(&'static str, Vec<u8>)> {
        (name == "photo").then(|| (self.photo.kind, self.photo.bytes.clone()))
    }
}
