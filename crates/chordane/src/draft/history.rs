//! Steps, and what they make; undone and done again.

use std::error::Error;
use std::fmt;
use std::sync::Arc;

use super::{DraftShape, DraftVertex, VertexKind};
use crate::number::Point;

/// One thing that is done to a draft. Shapes are named by their ids, vertices and sides by their places, counted from 0; a side goes from the vertex
/// of its number to the next.
///
/// With the feature `serde` a step is a value to be written and read, for a journal.
#[derive(Clone, Copy, Debug, PartialEq)]
#[cfg_attr(feature = "serde", derive(serde::Serialize, serde::Deserialize))]
#[cfg_attr(feature = "serde", serde(rename_all = "kebab-case"))]
#[non_exhaustive]
pub enum Step {
    /// A vertex at the end of the active shape; without an active one a new shape begins with it.
    Add {
        /// Where it is.
        at: Point,
        /// How the outline passes it.
        kind: VertexKind,
    },
    /// A vertex in a side. A soft one pulls the side into a curve.
    Insert {
        /// The shape.
        shape: usize,
        /// The side.
        side: usize,
        /// Where it is.
        at: Point,
        /// How the outline passes it.
        kind: VertexKind,
    },
    /// A vertex moved.
    Move {
        /// The shape.
        shape: usize,
        /// The vertex.
        vertex: usize,
        /// Where it goes.
        to: Point,
    },
    /// A whole shape moved, with its holes.
    Shift {
        /// The shape.
        shape: usize,
        /// How far.
        by: Point,
    },
    /// A vertex of another kind.
    Change {
        /// The shape.
        shape: usize,
        /// The vertex.
        vertex: usize,
        /// How the outline passes it now.
        kind: VertexKind,
    },
    /// A vertex taken out. A shape without vertices vanishes.
    Remove {
        /// The shape.
        shape: usize,
        /// The vertex.
        vertex: usize,
    },
    /// The active shape ended, so that the next vertex begins another. One of a single vertex vanishes.
    Finish {
        /// Whether it comes back to where it began.
        closed: bool,
    },
    /// A hole begun in a shape: the next vertex is its first.
    Hole {
        /// The shape.
        shape: usize,
    },
    /// A closed shape turned into a hole of the smallest closed shape that it lies in.
    MakeHole {
        /// The shape.
        shape: usize,
    },
    /// A shape filled with a colour.
    Fill {
        /// The shape.
        shape: usize,
        /// Red, green and blue.
        colour: [u8; 3],
    },
    /// A shape made the active one.
    Pick {
        /// The shape.
        shape: usize,
    },
    /// A shape thrown away, with its holes.
    Delete {
        /// The shape.
        shape: usize,
    },
}

/// Why a step cannot be done. The draft is as it was.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub enum StepError {
    /// There is no shape of this id.
    NoShape(usize),
    /// The shape has no such vertex or side.
    NoPlace {
        /// The shape.
        shape: usize,
        /// The vertex or side.
        place: usize,
    },
    /// There is no active shape to finish.
    NothingActive,
    /// A hole cannot have holes.
    HoleInHole(usize),
    /// The shape has holes, and cannot be one.
    HasHoles(usize),
    /// The shape is open, or lies in no closed one, and cannot be a hole.
    NotInside(usize),
    /// A coordinate or radius is not a finite number, or the radius is below 0.
    NotFinite,
}

impl fmt::Display for StepError {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::NoShape(shape) => write!(out, "there is no shape {shape}"),
            Self::NoPlace { shape, place } => write!(out, "shape {shape} has no vertex or side {place}"),
            Self::NothingActive => out.write_str("no shape is being drawn: place a vertex first"),
            Self::HoleInHole(shape) => {
                write!(out, "shape {shape} is a hole itself; begin the hole in the shape around it")
            }
            Self::HasHoles(shape) => write!(out, "shape {shape} has holes itself, so that it cannot be one"),
            Self::NotInside(shape) => write!(
                out,
                "shape {shape} cannot be a hole: it has to be closed, and to lie in another closed shape"
            ),
            Self::NotFinite => out.write_str("positions and radii must be finite numbers, radii 0 or more"),
        }
    }
}

impl Error for StepError {}

/// Shapes that are drawn vertex by vertex.
///
/// ```
/// use chordane::draft::{Draft, Step, VertexKind};
/// use chordane::prelude::*;
/// let mut draft = Draft::new();
/// for at in [pt(0.0, 0.0), pt(40.0, 0.0), pt(40.0, 30.0), pt(9.0, 99.0)] {
///     draft.apply(Step::Add { at, kind: VertexKind::Corner })?;
/// }
/// draft.undo();
/// draft.apply(Step::Finish { closed: true })?;
/// assert_eq!(draft.paths()[0].area()?, 600.0);
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[derive(Clone, Debug, Default)]
pub struct Draft {
    state: State,
    /// The steps done, and the steps undone, each oldest first.
    done: Vec<Step>,
    undone: Vec<Step>,
    /// States on the way, each after so many steps, from which those between are made again: close together where the way ends, and far apart before.
    held: Vec<(usize, State)>,
}

/// The number of steps between two held states.
const APART: usize = 256;

/// The largest number of held states.
const MAX_HELD: usize = 16;

/// Two drafts are the same where their shapes are, whatever was undone on the way.
impl PartialEq for Draft {
    fn eq(&self, other: &Self) -> bool {
        self.state == other.state
    }
}

/// What a draft holds. Shapes are shared between states, so that one is a few pointers.
#[derive(Clone, Debug, Default, PartialEq)]
struct State {
    shapes: Vec<Arc<DraftShape>>,
    active: Option<usize>,
    /// Where the next vertex begins a hole.
    hole_of: Option<usize>,
    /// How many shapes were ever begun.
    begun: usize,
}

impl Draft {
    /// An empty draft.
    #[must_use]
    pub fn new() -> Self {
        Self::default()
    }

    /// The draft that some steps make, one after the other; those that cannot be done are left out.
    pub fn of(steps: impl IntoIterator<Item = Step>) -> Self {
        let mut draft = Self::new();
        for step in steps {
            let _ = draft.apply(step);
        }
        draft
    }

    /// The shapes in the order in which they were begun, holes among them.
    pub fn shapes(&self) -> impl ExactSizeIterator<Item = &DraftShape> {
        self.state.shapes.iter().map(Arc::as_ref)
    }

    /// The shape of an id.
    #[must_use]
    pub fn shape(&self, id: usize) -> Option<&DraftShape> {
        self.state.shape(id)
    }

    /// The shape that is being drawn: new vertices go to its end.
    #[must_use]
    pub fn active(&self) -> Option<&DraftShape> {
        self.state.active.and_then(|id| self.shape(id))
    }

    /// The shape in which the next vertex begins a hole.
    #[must_use]
    pub fn begins_hole_in(&self) -> Option<usize> {
        self.state.hole_of
    }

    /// Does a step. What was undone before cannot be done again after it.
    ///
    /// # Errors
    ///
    /// A shape, vertex or side that is not there, and numbers that are not finite. The draft is then as it was.
    pub fn apply(&mut self, step: Step) -> Result<(), StepError> {
        self.does(step)?;
        self.undone.clear();
        Ok(())
    }

    fn does(&mut self, step: Step) -> Result<(), StepError> {
        self.state.apply(&step)?;
        self.done.push(step);
        if self.done.len() >= self.held.last().map_or(0, |(at, _)| *at) + APART {
            self.held.push((self.done.len(), self.state.clone()));
            if self.held.len() > MAX_HELD {
                // Every second one of the older half.
                let mut number = 0;
                self.held.retain(|_| {
                    number += 1;
                    number > MAX_HELD / 2 || number % 2 == 0
                });
            }
        }
        Ok(())
    }

    /// The shapes alone, without the way there: to try a step on.
    #[must_use]
    pub fn without_history(&self) -> Self {
        Self { state: self.state.clone(), ..Self::default() }
    }

    /// Undoes the last edit, together with any selections made after it. Returns `false` if there was nothing to undo.
    pub fn undo(&mut self) -> bool {
        let Some(last) = self.done.iter().rposition(|step| !matches!(step, Step::Pick { .. })) else {
            return false;
        };
        self.undone.extend(self.done.drain(last..).rev());
        self.held.retain(|(at, _)| *at <= last);
        let (from, state) = self.held.last().cloned().unwrap_or_default();
        self.state = state;
        for step in self.done.iter().skip(from) {
            // Each was done before in the same state.
            let _ = self.state.apply(step);
        }
        true
    }

    /// Does again what was undone last; whether there was something.
    pub fn redo(&mut self) -> bool {
        let mut any = false;
        while let Some(step) = self.undone.pop() {
            any |= self.does(step).is_ok();
            // The picking that came right after it belongs to it.
            if !matches!(self.undone.last(), Some(Step::Pick { .. })) {
                break;
            }
        }
        any
    }

    /// The steps that made what there is, in order.
    pub fn steps(&self) -> impl ExactSizeIterator<Item = &Step> {
        self.done.iter()
    }

    /// How many steps can be done again.
    #[must_use]
    pub fn undone(&self) -> usize {
        self.undone.len()
    }
}

impl State {
    fn place(&self, id: usize) -> Result<usize, StepError> {
        self.shapes.iter().position(|shape| shape.id == id).ok_or(StepError::NoShape(id))
    }

    fn shape(&self, id: usize) -> Option<&DraftShape> {
        self.shapes.iter().find(|shape| shape.id == id).map(Arc::as_ref)
    }

    /// Does a step. Where it cannot be done, nothing is changed.
    fn apply(&mut self, step: &Step) -> Result<(), StepError> {
        match *step {
            Step::Add { at, kind } => {
                let vertex = sound(at, kind)?;
                match self.active {
                    Some(id) => self.change(id, |vertices| vertices.push(vertex))?,
                    None => self.begin(vertex),
                }
            }
            Step::Insert { shape, side, at, kind } => {
                let vertex = sound(at, kind)?;
                if self.shape(shape).ok_or(StepError::NoShape(shape))?.sides() <= side {
                    return Err(StepError::NoPlace { shape, place: side });
                }
                self.change(shape, |vertices| vertices.insert(side + 1, vertex))?;
            }
            Step::Move { shape, vertex, to } => {
                sound(to, VertexKind::Corner)?;
                self.change_vertex(shape, vertex, |own| own.at = to)?;
            }
            Step::Shift { shape, by } => {
                sound(by, VertexKind::Corner)?;
                self.place(shape)?;
                for id in self.with_holes(shape) {
                    self.change(id, |vertices| vertices.iter_mut().for_each(|vertex| vertex.at += by))?;
                }
            }
            Step::Change { shape, vertex, kind } => {
                sound(Point::ZERO, kind)?;
                self.change_vertex(shape, vertex, |own| own.kind = kind)?;
            }
            Step::Remove { shape, vertex } => {
                let at = self.place(shape)?;
                if self.shapes.get(at).is_none_or(|own| own.vertices.len() <= vertex) {
                    return Err(StepError::NoPlace { shape, place: vertex });
                }
                self.change(shape, |vertices| {
                    vertices.remove(vertex);
                })?;
                if self.shape(shape).is_some_and(|own| own.vertices.is_empty()) {
                    self.delete(shape);
                }
            }
            Step::Finish { closed } => {
                let id = self.active.ok_or(StepError::NothingActive)?;
                let at = self.place(id)?;
                if let Some(own) = self.shapes.get_mut(at) {
                    Arc::make_mut(own).closed = closed;
                }
                self.active = None;
                if self.shape(id).is_some_and(|own| own.vertices.len() < 2) {
                    self.delete(id);
                }
            }
            Step::Hole { shape } => {
                let own = self.shape(shape).ok_or(StepError::NoShape(shape))?;
                if own.hole_of.is_some() {
                    return Err(StepError::HoleInHole(shape));
                }
                (self.active, self.hole_of) = (None, Some(shape));
            }
            Step::MakeHole { shape } => {
                let around = self.around(shape)?;
                let at = self.place(shape)?;
                if let Some(own) = self.shapes.get_mut(at) {
                    Arc::make_mut(own).hole_of = Some(around);
                }
            }
            Step::Fill { shape, colour } => {
                let at = self.place(shape)?;
                if let Some(own) = self.shapes.get_mut(at) {
                    Arc::make_mut(own).colour = Some(colour);
                }
            }
            Step::Pick { shape } => {
                self.place(shape)?;
                (self.active, self.hole_of) = (Some(shape), None);
            }
            Step::Delete { shape } => {
                self.place(shape)?;
                self.delete(shape);
            }
        }
        Ok(())
    }

    fn begin(&mut self, first: DraftVertex) {
        self.begun += 1;
        let hole_of = self.hole_of.take();
        let closed = hole_of.is_some();
        let shape = DraftShape { id: self.begun, vertices: vec![first], closed, hole_of, colour: None };
        self.shapes.push(Arc::new(shape));
        self.active = Some(self.begun);
    }

    /// The smallest closed shape in which another one lies, as a hole would.
    fn around(&self, id: usize) -> Result<usize, StepError> {
        let own = self.shape(id).ok_or(StepError::NoShape(id))?;
        if own.hole_of.is_some() {
            return Err(StepError::HoleInHole(id));
        }
        if self.with_holes(id).len() > 1 {
            return Err(StepError::HasHoles(id));
        }
        let lies_in = |other: &&Arc<DraftShape>| {
            let outline = other.outline();
            other.id != id
                && other.closed
                && other.hole_of.is_none()
                && own.vertices.iter().all(|vertex| outline.inside(vertex.at))
        };
        let size = |shape: &Arc<DraftShape>| {
            shape.outline().bounds().map_or(0.0, |bounds| bounds.size().x * bounds.size().y)
        };
        let all = self.shapes.iter().filter(|_| own.closed).filter(lies_in);
        let smallest = all.min_by(|a, b| size(a).total_cmp(&size(b)));
        smallest.map(|shape| shape.id).ok_or(StepError::NotInside(id))
    }

    fn change(&mut self, id: usize, by: impl FnOnce(&mut Vec<DraftVertex>)) -> Result<(), StepError> {
        let at = self.place(id)?;
        if let Some(shape) = self.shapes.get_mut(at) {
            by(&mut Arc::make_mut(shape).vertices);
        }
        Ok(())
    }

    fn change_vertex(
        &mut self,
        shape: usize,
        vertex: usize,
        by: impl FnOnce(&mut DraftVertex),
    ) -> Result<(), StepError> {
        let mut found = false;
        self.change(shape, |vertices| {
            if let Some(own) = vertices.get_mut(vertex) {
                by(own);
                found = true;
            }
        })?;
        if found { Ok(()) } else { Err(StepError::NoPlace { shape, place: vertex }) }
    }

    fn with_holes(&self, id: usize) -> Vec<usize> {
        let own = |shape: &&Arc<DraftShape>| shape.id == id || shape.hole_of == Some(id);
        self.shapes.iter().filter(own).map(|shape| shape.id).collect()
    }

    fn delete(&mut self, id: usize) {
        let gone = self.with_holes(id);
        self.shapes.retain(|shape| !gone.contains(&shape.id));
        self.active = self.active.filter(|id| !gone.contains(id));
        self.hole_of = self.hole_of.filter(|id| !gone.contains(id));
    }
}

fn sound(at: Point, kind: VertexKind) -> Result<DraftVertex, StepError> {
    let round = match kind {
        VertexKind::Rounded(radius) => radius.is_finite() && radius >= 0.0,
        _ => true,
    };
    if at.is_finite() && round { Ok(DraftVertex { at, kind }) } else { Err(StepError::NotFinite) }
}
