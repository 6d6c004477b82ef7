//! What a word is called with, checked against what it takes.

use std::cell::RefCell;
use std::sync::{Mutex, PoisonError};

use chordane::prelude::*;
use rhai::{Array, Dynamic, EvalAltResult, FnPtr, FuncArgs, NativeCallContext};

use super::{Kind, ScoreStamp, Word};
use crate::Stage;
use crate::values::{self, Builder};

/// Why a word could not be carried out.
#[derive(Debug)]
pub(crate) struct Refusal {
    pub(crate) message: String,
    pub(crate) advice: Option<String>,
}

impl Refusal {
    pub(crate) fn new(message: impl Into<String>) -> Self {
        Self { message: message.into(), advice: None }
    }
}

impl From<Fault> for Refusal {
    fn from(fault: Fault) -> Self {
        Self::new(fault.to_string())
    }
}

/// The values a word is called with, the one it is called on first. They are of the kinds that the table says.
pub(crate) struct Args<'a, 'b> {
    values: &'a mut [&'b mut Dynamic],
    /// The most values of a list that a word may make.
    pub(crate) longest_list: usize,
    /// The line of the call, counted from 1.
    pub(crate) line: Option<usize>,
    stage: &'a Mutex<Stage>,
    context: &'a NativeCallContext<'a>,
    /// What went wrong in a function of the score.
    failure: RefCell<Option<Box<EvalAltResult>>>,
}

impl<'a, 'b> Args<'a, 'b> {
    pub(crate) fn new(
        values: &'a mut [&'b mut Dynamic],
        longest_list: usize,
        line: Option<usize>,
        stage: &'a Mutex<Stage>,
        context: &'a NativeCallContext<'a>,
    ) -> Self {
        Self { values, longest_list, line, stage, context, failure: RefCell::default() }
    }

    /// Looks at what the score is given.
    pub(crate) fn stage<R>(&self, look: impl FnOnce(&mut Stage) -> R) -> R {
        look(&mut self.stage.lock().unwrap_or_else(PoisonError::into_inner))
    }

    pub(crate) fn array(&self, at: usize) -> Array {
        self.value(at)
            .and_then(|value| value.read_lock::<Array>().map(|list| list.clone()))
            .unwrap_or_default()
    }

    /// The dice that the word is called on.
    pub(crate) fn dice(&self) -> Option<Builder<Dice>> {
        self.value(0)?.read_lock::<Builder<Dice>>().map(|dice| dice.same())
    }

    /// Calls a function of the score. None where it went wrong: what did is then [`Args::failure`], and it is not called
    /// again.
    pub(crate) fn call(&self, at: usize, with: impl FuncArgs) -> Option<Dynamic> {
        if self.failure.borrow().is_some() {
            return None;
        }
        self.ask(&self.function(at)?, with)
    }

    /// A function of the score that the word is given.
    pub(crate) fn function(&self, at: usize) -> Option<FnPtr> {
        self.value(at)?.clone().try_cast::<FnPtr>()
    }

    /// The same with a function that was given earlier.
    pub(crate) fn ask(&self, function: &FnPtr, with: impl FuncArgs) -> Option<Dynamic> {
        if self.failure.borrow().is_some() {
            return None;
        }
        match function.call_within_context::<Dynamic>(self.context, with) {
            Ok(made) => Some(made),
            Err(wrong) => {
                *self.failure.borrow_mut() = Some(wrong);
                None
            }
        }
    }

    /// What went wrong in a function of the score.
    pub(crate) fn failure(&self) -> Option<Box<EvalAltResult>> {
        self.failure.borrow_mut().take()
    }

    /// The wheels that the word is called on.
    pub(crate) fn wheels(&self) -> Wheels {
        let wheels = self.value(0).and_then(|value| value.read_lock::<Wheels>().map(|wheels| wheels.clone()));
        wheels.unwrap_or_default()
    }

    /// The stamp that the word is called on.
    pub(crate) fn stamp(&self) -> Option<ScoreStamp> {
        self.value(0)?.read_lock::<ScoreStamp>().map(|stamp| stamp.clone())
    }

    pub(crate) fn flag(&self, at: usize) -> bool {
        self.value(at).and_then(|value| value.as_bool().ok()).unwrap_or(false)
    }

    pub(crate) fn texts(&self, at: usize) -> Vec<String> {
        self.list(at, |value| value.clone().into_string().ok())
    }

    /// An item that no line is known for yet was made by this call.
    fn made_here(&self, node: Node) -> Node {
        match (node, self.line) {
            (Node::Item(item), Some(line)) if item.line().is_none() => item.at_line(line).into(),
            (node, _) => node,
        }
    }

    /// The first value that is not of the kind that the word takes there: its name, the kind, and what it is.
    pub(crate) fn mismatch(&self, word: &Word) -> Option<(&'static str, Kind, String)> {
        let given = self.values.iter().skip(usize::from(!word.on.is_empty()));
        word.takes
            .iter()
            .zip(given)
            .find(|((_, kind), value)| !kind.accepts(value))
            .map(|((name, kind), value)| (*name, *kind, values::description(value)))
    }

    /// Whether the word can be called on the first value.
    pub(crate) fn stands_on(&self, word: &Word) -> bool {
        word.on.is_empty()
            || self.values.first().is_some_and(|value| word.on.iter().any(|kind| kind.accepts(value)))
    }

    pub(crate) fn description_of_first(&self) -> String {
        self.values.first().map_or_else(String::new, |value| values::description(value))
    }

    fn value(&self, at: usize) -> Option<&Dynamic> {
        self.values.get(at).map(|value| &**value)
    }

    pub(crate) fn number(&self, at: usize) -> f64 {
        self.value(at).and_then(values::number).unwrap_or(f64::NAN)
    }

    pub(crate) fn count(&self, at: usize) -> usize {
        self.value(at).and_then(values::count).unwrap_or(0)
    }

    pub(crate) fn point(&self, at: usize) -> Point {
        self.value(at).and_then(values::point).unwrap_or(Point::NAN)
    }

    pub(crate) fn angle(&self, at: usize) -> Angle {
        self.value(at)
            .and_then(|value| value.read_lock::<Angle>().map(|angle| *angle))
            .unwrap_or(deg(f64::NAN))
    }

    pub(crate) fn text(&self, at: usize) -> String {
        self.value(at).and_then(|value| value.clone().into_string().ok()).unwrap_or_default()
    }

    pub(crate) fn path(&self, at: usize) -> Path {
        self.value(at)
            .and_then(|value| value.read_lock::<Path>().map(|path| path.clone()))
            .unwrap_or_default()
    }

    /// The first value as an item: a path becomes one.
    pub(crate) fn item(&self) -> Item {
        let item = self.value(0).and_then(|value| value.read_lock::<Item>().map(|item| item.clone()));
        item.unwrap_or_else(|| self.path(0).into())
    }

    pub(crate) fn pen(&self) -> Pen {
        let pen = self.value(0).and_then(|value| value.read_lock::<Builder<Pen>>().map(|pen| pen.get()));
        pen.unwrap_or_else(|| start(Point::NAN))
    }

    pub(crate) fn group(&self, at: usize) -> Group {
        let group = self.value(at).and_then(|value| value.read_lock::<Builder<Group>>());
        group.map_or_else(group_of_nothing, |shared| shared.get())
    }

    pub(crate) fn sheet(&self, at: usize) -> Sheet {
        let sheet = self.value(at).and_then(|value| value.read_lock::<Builder<Sheet>>());
        sheet.map_or_else(|| chordane::sheet::sheet(1.0, 1.0), |shared| shared.get())
    }

    pub(crate) fn style(&self, at: usize) -> Style {
        self.value(at)
            .and_then(|value| value.read_lock::<Style>().map(|style| style.clone()))
            .unwrap_or_default()
    }

    pub(crate) fn is<T: Clone + Send + Sync + 'static>(&self, at: usize) -> bool {
        self.value(at).is_some_and(|value| value.is::<T>())
    }

    pub(crate) fn node(&self, at: usize) -> Node {
        self.made_here(self.value(at).and_then(values::node).unwrap_or_else(|| Path::empty().into()))
    }

    fn list<T>(&self, at: usize, one: impl Fn(&Dynamic) -> Option<T>) -> Vec<T> {
        let list = self.value(at).and_then(|value| value.read_lock::<Array>());
        list.map(|list| list.iter().filter_map(one).collect()).unwrap_or_default()
    }

    pub(crate) fn nodes(&self, at: usize) -> Vec<Node> {
        self.list(at, |value| values::node(value).map(|node| self.made_here(node)))
    }

    pub(crate) fn points(&self, at: usize) -> Vec<Point> {
        self.list(at, values::point)
    }

    pub(crate) fn vertex(&self, at: usize) -> Vertex {
        self.value(at).and_then(values::vertex).unwrap_or_else(|| soft(Point::NAN))
    }

    pub(crate) fn vertices(&self, at: usize) -> Vec<Vertex> {
        self.list(at, values::vertex)
    }

    pub(crate) fn curve(&self) -> Through {
        let curve = self.value(0).and_then(|value| value.read_lock::<Through>().map(|curve| curve.clone()));
        curve.unwrap_or_else(|| through(Vec::<Point>::new()))
    }

    pub(crate) fn cell(&self, at: usize) -> Cell {
        let cell = self.value(at).and_then(|value| value.read_lock::<Cell>().map(|cell| *cell));
        cell.unwrap_or_else(cell_of_nothing)
    }

    pub(crate) fn extent(&self, at: usize) -> Extent {
        self.value(at).and_then(values::extent).unwrap_or_default()
    }

    pub(crate) fn extents(&self, at: usize) -> Vec<Extent> {
        self.list(at, values::extent)
    }

    /// How far along a side of a cell: a plain number is a share.
    pub(crate) fn along(&self, at: usize) -> chordane::number::Along {
        match self.value(at).and_then(values::number) {
            Some(share) => share.into(),
            None => self.extent(at).into(),
        }
    }

    /// The triangle that the word is called on.
    pub(crate) fn triangle(&self) -> Result<Triangle, Refusal> {
        let first = self.value(0).and_then(|value| value.read_lock::<Triangle>().map(|triangle| *triangle));
        first.ok_or_else(|| Refusal::new("this is no triangle"))
    }

    pub(crate) fn numbers(&self, at: usize) -> Vec<f64> {
        self.list(at, values::number)
    }

    /// Changes the builder that the word is called on, where it stands, and gives it back.
    pub(crate) fn change<T: Clone + Send + Sync + 'static>(
        &mut self,
        empty: impl FnOnce() -> T,
        change: impl FnOnce(T) -> T,
    ) -> Result<Dynamic, Refusal> {
        let first = self.value(0).and_then(|value| value.read_lock::<Builder<T>>());
        let Some(builder) = first else {
            return Err(Refusal::new("this is not what the word is called on"));
        };
        builder.change(empty, change);
        Ok(Dynamic::from(builder.same()))
    }
}

fn cell_of_nothing() -> Cell {
    cell(Point::NAN, 0.0, 0.0)
}

fn group_of_nothing() -> Group {
    group()
}
