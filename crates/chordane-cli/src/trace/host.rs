//! What pages of a tracing talk to: the draft, its journal and its files.

use std::collections::HashMap;
use std::path::PathBuf;
use std::sync::{Mutex, PoisonError};

use chordane::draft::{Draft, PictureEdges, Step};
use chordane::number::Point;
use chordane::write::write_whole;
use tokio::sync::watch;

use super::files::bytes;
use super::journal::{Entry, Journal};
use super::message::{Asked, DraftTold, Snap, Told};
use crate::failure::Failure;
use crate::web::{Answer, Host, Saved, TRACE};

/// The picture that is traced.
#[derive(Debug)]
pub(crate) struct Photo {
    pub(crate) name: String,
    pub(crate) kind: &'static str,
    pub(crate) bytes: Vec<u8>,
    pub(crate) size: [u32; 2],
    pub(crate) edges: PictureEdges,
}

/// What pages of a tracing talk to.
pub(crate) struct Board {
    photo: Photo,
    out: Vec<PathBuf>,
    work: Mutex<Work>,
    show: watch::Sender<Shown>,
    shown: watch::Receiver<Shown>,
}

struct Work {
    draft: Draft,
    journal: Journal,
}

/// What all pages show: the draft, and what is to be said of its files.
#[derive(Clone, Debug, Default, PartialEq)]
pub(crate) struct Shown {
    draft: DraftTold,
    file: String,
}

impl Board {
    pub(crate) fn new(photo: Photo, out: Vec<PathBuf>, journal: Journal, draft: Draft) -> Self {
        let (show, shown) = watch::channel(Shown { draft: (&draft).into(), file: String::new() });
        Self { photo, out, work: Mutex::new(Work { draft, journal }), show, shown }
    }

    fn does(&self, entry: &Entry) -> Result<(), String> {
        let mut work = self.work.lock().unwrap_or_else(PoisonError::into_inner);
        // Kept before it is done: what is shown is on the disk.
        let mut after = work.draft.clone();
        entry.apply(&mut after)?;
        let kept = work.journal.add(entry);
        work.draft = after;
        let file = match kept.map_err(|error| Failure::writing(&Journal::place(self.first()), &error)) {
            Ok(()) => self.write(&work.draft).err().map_or_else(String::new, |failure| failure.to_string()),
            Err(failure) => failure.to_string(),
        };
        self.show.send_replace(Shown { draft: (&work.draft).into(), file });
        Ok(())
    }

    fn first(&self) -> &std::path::Path {
        self.out.first().map_or_else(|| std::path::Path::new("outline.svg"), PathBuf::as_path)
    }

    fn write(&self, draft: &Draft) -> Result<(), Failure> {
        for out in &self.out {
            let bytes = bytes(draft, self.photo.size, out)?;
            write_whole(out, &bytes).map_err(|error| Failure::writing(out, &error))?;
        }
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

    /// Writes the files as they are now.
    pub(crate) fn write_all(&self) -> Result<(), Failure> {
        self.write(&self.draft())
    }

    fn draft(&self) -> Draft {
        self.work.lock().unwrap_or_else(PoisonError::into_inner).draft.clone()
    }
}

impl Host for Board {
    type Shown = Shown;

    fn page(&self) -> &'static str {
        TRACE
    }

    fn hello(&self) -> String {
        let out: Vec<String> = self.out.iter().map(|out| out.display().to_string()).collect();
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
        told
    }

    fn asked(&self, _: u64, text: &str, answer: &Answer) -> Result<(), String> {
        let asked: Asked = serde_json::from_str(text).map_err(|error| error.to_string())?;
        let done = match asked {
            Asked::Step { step, snap } => {
                let step = self.snapped(&self.draft(), step, snap);
                self.does(&Entry::Step(step))
            }
            Asked::Undo => self.does(&Entry::Undo),
            Asked::Redo => self.does(&Entry::Redo),
            Asked::Try { step, snap } => {
                let mut draft = self.draft();
                let step = self.snapped(&draft, step, snap);
                let tried = draft.apply(step).map_err(|error| error.to_string());
                let _ = answer.send(Told::Tried((&draft).into()).json());
                tried
            }
            Asked::Look { at, reach, snap } => {
                let (draft, at) = (self.draft(), Point::from(at));
                let vertex = draft.vertex_near(at, reach);
                let side = if vertex.is_none() { draft.side_near(at, reach) } else { None };
                let near = Told::Near {
                    vertex,
                    side: side.map(|(shape, side, at)| (shape, side, at.to_array())),
                    shape: draft.shape_at(at),
                    put: self.put(&draft, at, snap, None).to_array(),
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

    fn save(&self, name: &str, _: &HashMap<String, String>) -> Saved {
        bytes(&self.draft(), self.photo.size, std::path::Path::new(name))
            .map_err(|failure| failure.to_string())
    }

    fn file(&self, name: &str) -> Option<(&'static str, Vec<u8>)> {
        (name == "photo").then(|| (self.photo.kind, self.photo.bytes.clone()))
    }
}
