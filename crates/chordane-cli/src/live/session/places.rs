//! Places of the picture: what lies there, taken hold of, dragged, moved by steps; vertices put in and taken out.

use std::collections::VecDeque;
use std::sync::Arc;
use std::time::Duration;

use chordane::number::Point;
use chordane::scene::{Grip, GripKind};
use chordane_score::Holds;

use super::rests::MOST_LEARNING;
use super::{Job, REST, Session, What};
use crate::live::desk::Gesture;
use crate::live::message::{Asked, HoveredTold, MarkedShape, Told};
use crate::live::places;
use crate::live::runs::Ran;
use crate::web::Answer;

/// What is not known yet of a place that is taken hold of is learned within this time.
const LEARN_NEAR: Duration = Duration::from_millis(150);

impl Session<'_> {
    pub(super) fn hover(&mut self, at: [f64; 2], reach: f64, way: usize, answer: &Answer) {
        let Some(ran) = &self.ran else { return };
        let at = ran.on_sheet(at);
        let mut hovered = HoveredTold { item: places::item_at(ran, at, reach), grip: None, chosen: false };
        // While it moves, what places hang on is another thing at each moment.
        let moves = self.moved.is_some_and(|moved| moved.elapsed() < REST);
        if !moves && !self.stale.run && self.shown.mistake.is_none() {
            if self.stale.holds || self.holds.is_none() {
                self.hold(false);
            }
            if let (Some(ran), Some(holds)) = (&self.ran, &mut self.holds) {
                let grip = places::grip_near(holds.grips(), at, reach);
                if let Some(grip) = grip {
                    holds.learn_near(grip, LEARN_NEAR);
                    hovered.grip = places::told(ran, holds, grip, way).map(|(told, _)| told);
                }
            }
        }
        let _ = answer.send(Told::Hovered(Box::new(hovered)).json());
    }

    /// Tells the outlines of what a line of the text makes.
    pub(super) fn line(&mut self, line: usize, answer: &Answer) {
        let outlines = self.ran.as_ref().map(|ran| places::of_line(ran, line)).unwrap_or_default();
        let _ = answer.send(Told::Lined { outlines }.json());
    }

    /// Tells the vertex after or before a place.
    pub(super) fn choose_next(&mut self, from: Option<[f64; 2]>, by: i64, answer: &Answer) {
        if self.stale.run {
            self.run();
        }
        let Some(mut holds) = self.held() else { return };
        if let Some(ran) = &self.ran {
            let vertices: Vec<usize> = (0..holds.grips().len())
                .filter(|at| {
                    matches!(holds.grips().get(*at), Some(Grip { kind: GripKind::Vertex { .. }, .. }))
                })
                .collect();
            let apart = |at: &usize, from: Point| {
                holds.grips().get(*at).map_or(f64::INFINITY, |grip| grip.at.distance(from))
            };
            let near = |from: Point| {
                let all = (0..vertices.len()).zip(&vertices);
                all.min_by(|(_, a), (_, b)| apart(a, from).total_cmp(&apart(b, from))).map(|(place, _)| place)
            };
            let place = match from.and_then(|from| near(ran.on_sheet(from))) {
                Some(place) => (place as i64 + by).rem_euclid(vertices.len().max(1) as i64) as usize,
                None => 0,
            };
            if let Some(vertex) = vertices.get(place).copied() {
                holds.learn_near(vertex, LEARN_NEAR);
                let grip = places::told(ran, &holds, vertex, 0).map(|(told, _)| told);
                let at = holds.grips().get(vertex).map_or(Point::ZERO, |grip| grip.at);
                let item = places::item_at(ran, at, 1e-6);
                let _ = answer.send(Told::Hovered(Box::new(HoveredTold { item, grip, chosen: true })).json());
            }
        }
        self.holds = Some(holds);
    }

    /// Follows a page as it drags a place, until it lets go.
    pub(super) fn grab(&mut self, page: u64, at: [f64; 2], reach: f64, way: usize, answer: &Answer) {
        let Some((holds, grip)) = self.grip_at(at, reach, answer) else { return };
        let begun = self.desk.state().clone();
        self.desk.gesture_over();
        let (mut drag, mut later) = (None, VecDeque::new());
        let kept = loop {
            let Some(job) = self.next().or_else(|| self.jobs.recv().ok()) else { break true };
            while let Ok(job) = self.jobs.try_recv() {
                self.queue.push_back(job);
            }
            match job.what {
                What::Asked(Asked::Drag { .. }) if job.page == page && self.superseded(page) => {}
                What::Asked(Asked::Drag { to, within }) if job.page == page => {
                    let Some(to) = self.ran.as_ref().map(|ran| ran.on_sheet(to)) else { continue };
                    let by = holds.grips().get(grip).map_or(Point::ZERO, |own| to - own.at);
                    let hold = |way: usize| holds.of(grip).into_iter().cycle().nth(way);
                    let drag = match &mut drag {
                        Some(drag) => drag,
                        None => {
                            let hold = if way == 0 { holds.toward(grip, by) } else { hold(way) };
                            let Some(hold) = hold else {
                                let told = Some(HELD_BY_NOTHING.to_owned());
                                let _ = answer.send(not_held(told).json());
                                break true;
                            };
                            drag.insert(holds.drag(grip, &hold))
                        }
                    };
                    let dragged = self.flags.running(|| drag.to(to, within));
                    self.desk.change("dragging", Gesture::Drag, |state| state.text = dragged.text.into());
                    self.changed();
                    self.run();
                    let at = self.ran.as_ref().map(|ran| ran.told(dragged.at).to_array());
                    let numbers = self.places_of(&dragged.values);
                    let _ = answer.send(Told::Held { at, told: dragged.held_back, numbers }.json());
                }
                What::Asked(Asked::LetGo { keep }) if job.page == page => break keep,
                What::Left if job.page == page => {
                    self.desk.forget(page);
                    break true;
                }
                _ => later.push_back(job),
            }
        };
        if !kept {
            self.desk.change("dragging", Gesture::Drag, |state| *state = begun);
            self.changed();
        }
        self.desk.gesture_over();
        // What others asked for meanwhile comes now.
        later.extend(self.queue.drain(..));
        self.queue = later;
        self.holds = None;
        self.stale.holds = true;
    }

    /// Whether a later step of the same drag is waiting already.
    fn superseded(&self, page: u64) -> bool {
        let is_drag = |job: &Job| matches!(job.what, What::Asked(Asked::Drag { .. })) && job.page == page;
        self.queue.front().is_some_and(is_drag)
    }

    /// Where numbers of the script are in the text now.
    fn places_of(&self, values: &[(usize, f64)]) -> Vec<(usize, usize)> {
        let script = self.script();
        let place = |(number, _): &(usize, f64)| places::place_of(script.as_ref()?, *number);
        values.iter().filter_map(place).collect()
    }

    fn grip_at(&mut self, at: [f64; 2], reach: f64, answer: &Answer) -> Option<(Holds, usize)> {
        if self.stale.run {
            self.run();
        }
        let at = self.ran.as_ref()?.on_sheet(at);
        let mut holds = self.held()?;
        let Some(grip) = places::grip_near(holds.grips(), at, reach) else {
            let told = Some("there is nothing to drag here".to_owned());
            let _ = answer.send(not_held(told).json());
            self.holds = Some(holds);
            return None;
        };
        holds.learn_near(grip, LEARN_NEAR);
        Some((holds, grip))
    }

    pub(super) fn nudge(&mut self, at: [f64; 2], reach: f64, way: usize, to: [f64; 2], answer: &Answer) {
        let Some((holds, grip)) = self.grip_at(at, reach, answer) else { return };
        let Some((own, ran)) = holds.grips().get(grip).copied().zip(self.ran.as_ref()) else { return };
        let to = ran.on_sheet(to);
        let hold = if way == 0 {
            holds.toward(grip, to - own.at)
        } else {
            holds.of(grip).into_iter().cycle().nth(way)
        };
        let Some(hold) = hold else {
            let _ = answer.send(not_held(Some(HELD_BY_NOTHING.to_owned())).json());
            self.holds = Some(holds);
            return;
        };
        let dragged = holds.drag(grip, &hold).to(to, NUDGE_WITHIN);
        self.desk.change("moving by steps", Gesture::Steps, |state| state.text = dragged.text.into());
        self.changed();
        self.run();
        let at = self.ran.as_ref().map(|ran| ran.told(dragged.at).to_array());
        let numbers = self.places_of(&dragged.values);
        let _ = answer.send(Told::Held { at, told: dragged.held_back, numbers }.json());
    }

    pub(super) fn insert(&mut self, at: [f64; 2], reach: f64, answer: &Answer) {
        let made = self.on_ran(|ran, holds| {
            let at = ran.on_sheet(at);
            let scene = ran.sheet.scene().ok()?;
            let hit = scene.index().items_at(at, reach).into_iter().find(|hit| hit.distance() <= reach)?;
            let (item, place) = (hit.placed().number(), hit.place());
            let kind = GripKind::Vertex { contour: place.contour, vertex: place.segment };
            let behind = holds.grips().iter().position(|grip| grip.item == item && grip.kind == kind)?;
            holds.learn_near(behind, MOST_LEARNING);
            holds.with_vertex(behind, hit.point(), reach * 0.1)
        });
        let why = "cannot put a vertex in here: the vertices of this side are computed, not written in a list or with a pen";
        self.take_text("a new vertex", made, why, answer);
    }

    pub(super) fn remove(&mut self, at: [f64; 2], reach: f64, answer: &Answer) {
        let made = self.on_ran(|ran, holds| {
            let grip = places::grip_near(holds.grips(), ran.on_sheet(at), reach)?;
            holds.learn_near(grip, MOST_LEARNING);
            holds.without_vertex(grip)
        });
        let why = "cannot take this vertex out: it is computed, not written in a list or with a pen";
        self.take_text("taking a vertex out", made, why, answer);
    }

    /// Writes shapes through marks at the end of the score, where its sheet stands.
    pub(super) fn keep_shapes(&mut self, shapes: &[MarkedShape], answer: &Answer) {
        let line = |shape: &MarkedShape| {
            let numbers: Vec<String> = shape.numbers.iter().map(ToString::to_string).collect();
            let (word, paint) = if shape.closed {
                ("marks_closed", "fill(\"#c8553d\")")
            } else {
                ("marks_open", "stroke(\"#20303c\", 3)")
            };
            format!("\n    .add({word}([{}]).{paint})", numbers.join(", "))
        };
        let lines: String = shapes.iter().map(line).collect();
        let text = format!("{}{lines}\n", self.desk.text().trim_end());
        let text: Arc<str> = text.into();
        let (settings, ready) = (self.settings(), &mut self.ready);
        let runs = self.flags.running(|| ready.run(&text, &settings, &[])).is_ok();
        let why = "cannot add the shapes: the score must end with its sheet, with no comment after it";
        self.take_text("shapes through marks", runs.then(|| text.to_string()), why, answer);
    }

    /// Something of what is shown and of what its places hang on.
    fn on_ran(&mut self, make: impl FnOnce(&Ran, &mut Holds) -> Option<String>) -> Option<String> {
        if self.stale.run {
            self.run();
        }
        let mut holds = self.held()?;
        let ran = self.ran.as_ref()?;
        let flags = self.flags.clone();
        let made = flags.running(|| make(ran, &mut holds));
        self.holds = Some(holds);
        made
    }

    /// Takes a text that was made, or says why there is none.
    pub(super) fn take_text(&mut self, what: &str, made: Option<String>, why: &str, answer: &Answer) {
        match made {
            Some(text) => {
                self.desk.change(what, Gesture::Single, |state| state.text = text.into());
                self.changed();
            }
            None => drop(answer.send(Told::Refused { message: why.to_owned() }.json())),
        }
    }
}

fn not_held(told: Option<String>) -> Told {
    Told::Held { at: None, told, numbers: Vec::new() }
}

const HELD_BY_NOTHING: &str = "no number in the score moves this point";

/// A step by an arrow key is as exact as this.
const NUDGE_WITHIN: f64 = 0.004;
