//! Places of the picture: what lies there, taken hold of, dragged, moved by steps; vertices put in and taken out.

use std::collections::VecDeque;
use std::time::Duration;

use chordane::number::Point;
use chordane::path::Segment;
use chordane::scene::{Grip, GripKind, Placed};
use chordane_score::{Drag, Dragged, Hold, Holds};

use super::rests::MAX_PROBE_TIME;
use super::{IDLE_DELAY, Job, Session, What};
use crate::live::desk::Gesture;
use crate::live::message::{Asked, HoveredTold, Told};
use crate::live::places;
use crate::live::runs::Ran;
use crate::web::Answer;

/// A position that a page asks about, with its reach and the number of the hold among all holds there.
#[derive(Clone, Copy, Debug)]
pub(super) struct Place {
    pub(super) at: [f64; 2],
    pub(super) reach: f64,
    pub(super) way: usize,
}

/// A grip that arrow keys move step by step. Any other change ends it.
#[derive(Debug)]
pub(super) struct Steps {
    /// The grip and the hold that the page asked for, by number.
    asked: (usize, usize),
    drag: Drag<Holds>,
}

/// What is not known yet of a place that is taken hold of is learned within this time.
const PROBE_NEAR_TIME: Duration = Duration::from_millis(150);

impl Session<'_> {
    pub(super) fn hover(&mut self, Place { at, reach, way }: Place, answer: &Answer) {
        let Some(ran) = &self.ran else { return };
        let at = ran.on_sheet(at);
        let mut hovered = HoveredTold { item: places::item_at(ran, at, reach), grip: None, chosen: false };
        // While it moves, what places hang on is another thing at each moment.
        let moves = self.moved.is_some_and(|moved| moved.elapsed() < IDLE_DELAY);
        if !moves && !self.stale.run && self.shown.mistake.is_none() {
            if self.stale.holds || self.holds.is_none() {
                self.hold(false);
            }
            if let (Some(ran), Some(script), Some(holds)) = (&self.ran, &self.own, &mut self.holds) {
                let near = places::grips_near(holds.grips(), at, reach);
                if let Some(nearest) = near.first() {
                    holds.learn_near(*nearest, PROBE_NEAR_TIME);
                    let ways = places::ways(holds, &near);
                    hovered.grip = places::told((ran, script), holds, &ways, way % ways.len().max(1));
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

    /// Reports the next or previous grip, or the first grip of the next or previous item, or the same grip with another hold.
    pub(super) fn choose_next(
        &mut self,
        now: Option<usize>,
        reach: f64,
        (by, items, way): (i64, bool, usize),
        answer: &Answer,
    ) {
        if self.stale.run {
            self.run();
        }
        let Some(mut holds) = self.held() else { return };
        if let (Some(ran), Some(script)) = (&self.ran, &self.own) {
            let all = holds.grips();
            let firsts: Vec<usize> = if items {
                let is_first = |at: &usize| {
                    *at == 0 || all.get(*at).map(|grip| grip.item) != all.get(*at - 1).map(|grip| grip.item)
                };
                (0..all.len()).filter(is_first).collect()
            } else {
                (0..all.len()).collect()
            };
            let place = now.map_or(0, |now| {
                let own = firsts.partition_point(|first| *first <= now) as i64 - 1;
                // From the middle of an item, back goes to its beginning.
                let back = by < 0 && firsts.get(own as usize).is_some_and(|first| *first < now);
                (own + by + i64::from(back)).rem_euclid(firsts.len().max(1) as i64) as usize
            });
            if let Some(next) = firsts.get(place).copied()
                && let Some(at) = all.get(next).map(|grip| grip.at)
            {
                holds.learn_near(next, PROBE_NEAR_TIME);
                let near = places::grips_near(holds.grips(), at, reach);
                let ways = places::ways(&holds, &near);
                let first = ways.iter().position(|(grip, _)| *grip == next).unwrap_or(0);
                let way = if by == 0 { way % ways.len().max(1) } else { first };
                let grip = places::told((ran, script), &holds, &ways, way);
                let item = holds.grips().get(next).and_then(|grip| places::item_of(ran, grip));
                let _ = answer.send(Told::Hovered(Box::new(HoveredTold { item, grip, chosen: true })).json());
            }
        }
        self.holds = Some(holds);
    }

    /// Follows a page as it drags a place, until it lets go.
    pub(super) fn grab(&mut self, page: u64, place: Place, knob: Option<&str>, answer: &Answer) {
        let (told, held) = match knob {
            Some(name) => self.hold_knob(name),
            None => self.hold_at(place, Some(page)),
        };
        let _ = answer.send(Told::Grabbed(Box::new(told)).json());
        let Some((holds, grip, hold)) = held else { return };
        let begun = self.desk.state().clone();
        self.desk.gesture_over();
        let (mut drag, mut later) = (holds.drag(grip, &hold), VecDeque::new());
        let kept = loop {
            let Some(job) = self.next().or_else(|| self.jobs.recv().ok()) else { break true };
            while let Ok(job) = self.jobs.try_recv() {
                self.queue.push_back(job);
            }
            match job.what {
                What::Asked(Asked::Drag { .. }) if job.page == page && self.superseded(page) => {}
                What::Asked(Asked::Drag { to, within }) if job.page == page => {
                    let Some(to) = self.ran.as_ref().map(|ran| ran.on_sheet(to)) else { continue };
                    let dragged = self.flags.running(|| drag.to(to, within));
                    self.take_dragged("dragging", Gesture::Drag, &dragged.text, &holds);
                    self.tell_held(dragged, answer);
                }
                What::Asked(Asked::LetGo { keep }) if job.page == page => break keep,
                // Pressed again, with another finger or button.
                What::Asked(Asked::Grab { .. }) if job.page == page => {
                    later.push_back(job);
                    break true;
                }
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

    /// Applies the text that a drag made, and runs it. Numbers of knobs set the knobs and leave the text alone.
    fn take_dragged(&mut self, what: &str, gesture: Gesture, text: &str, holds: &Holds) {
        let (text, knobs) = self.split_knobs(text, holds);
        self.desk.change(what, gesture, |state| {
            state.text = text.into();
            state.knobs.extend(knobs);
        });
        self.changed();
        self.run();
    }

    /// Splits a text that a drag or an edit made into the score's own text and the knobs that it sets.
    fn split_knobs(&self, text: &str, holds: &Holds) -> (String, Vec<(String, String)>) {
        let set = holds.script();
        let changed = set.reread(text);
        match (&self.own, changed) {
            (Some(own), Ok(changed)) => own.split_knobs(set, &changed),
            _ => (text.to_owned(), Vec::new()),
        }
    }

    /// Where numbers of the script are in the text now.
    fn places_of(&self, values: &[(usize, f64)]) -> Vec<(usize, usize)> {
        let script = self.script();
        let place = |(number, _): &(usize, f64)| places::place_of(script.as_ref()?, *number);
        values.iter().filter_map(place).collect()
    }

    /// What lies at a position, and the requested hold if there is one. If a page presses there, the search goes on until it
    /// lets go.
    fn hold_at(&mut self, place: Place, pressed: Option<u64>) -> (HoveredTold, Option<(Holds, usize, Hold)>) {
        if self.stale.run {
            self.run();
        }
        let mut told = HoveredTold::default();
        let Some(mut holds) = self.held() else { return (told, None) };
        let Some(at) = self.ran.as_ref().map(|ran| ran.on_sheet(place.at)) else { return (told, None) };
        let near = places::grips_near(holds.grips(), at, place.reach);
        if let Some(nearest) = near.first().copied() {
            while !holds.learn_near(nearest, PROBE_NEAR_TIME)
                && pressed.is_some_and(|page| !self.lets_go(page))
                && places::ways(&holds, &near)
                    .first()
                    .is_none_or(|(_, hold)| hold.as_ref().is_none_or(|hold| hold.numbers.len() < 2))
            {
            }
        }
        let ways = places::ways(&holds, &near);
        let way = place.way % ways.len().max(1);
        if let (Some(ran), Some(script)) = (&self.ran, &self.own) {
            let grip = ways.get(way).and_then(|(grip, _)| holds.grips().get(*grip));
            told.item =
                grip.map_or_else(|| places::item_at(ran, at, place.reach), |grip| places::item_of(ran, grip));
            told.grip = places::told((ran, script), &holds, &ways, way);
        }
        match ways.into_iter().nth(way) {
            Some((grip, Some(hold))) => (told, Some((holds, grip, hold))),
            _ => {
                self.holds = Some(holds);
                (told, None)
            }
        }
    }

    /// The grip that a point knob moves, with the knob's hold.
    fn hold_knob(&mut self, name: &str) -> (HoveredTold, Option<(Holds, usize, Hold)>) {
        if self.stale.run {
            self.run();
        }
        let mut told = HoveredTold::default();
        let Some(mut holds) = self.held() else { return (told, None) };
        holds.learn(MAX_PROBE_TIME);
        let found = holds.of_knob(name).and_then(|(grip, at)| {
            let hold = holds.of(grip).into_iter().nth(at)?;
            let (ran, script) = (self.ran.as_ref()?, self.own.as_ref()?);
            told.item = holds.grips().get(grip).and_then(|grip| places::item_of(ran, grip));
            told.grip = places::told((ran, script), &holds, &[(grip, Some(hold.clone()))], 0);
            Some((grip, hold))
        });
        match found {
            Some((grip, hold)) => (told, Some((holds, grip, hold))),
            None => {
                self.holds = Some(holds);
                (told, None)
            }
        }
    }

    /// Whether a page has already released the pointer.
    fn lets_go(&mut self, page: u64) -> bool {
        while let Ok(job) = self.jobs.try_recv() {
            self.queue.push_back(job);
        }
        let is_end = |what: &What| matches!(what, What::Left | What::Asked(Asked::LetGo { .. }));
        self.queue.iter().any(|job| job.page == page && is_end(&job.what))
    }

    /// Moves a grip by steps: the one with this number if it is still within reach, else the nearest.
    pub(super) fn nudge(
        &mut self,
        (grip, hold): (usize, usize),
        (at, reach): ([f64; 2], f64),
        to: [f64; 2],
        answer: &Answer,
    ) {
        let mut steps = match self.steps.take().filter(|steps| steps.asked == (grip, hold)) {
            Some(steps) => steps,
            None => match self.begin_steps((grip, hold), (at, reach)) {
                Ok(steps) => steps,
                Err(why) => {
                    let told = Told::Held { at: None, told: Some(why.to_owned()), numbers: Vec::new() };
                    let _ = answer.send(told.json());
                    return;
                }
            },
        };
        let Some(to) = self.ran.as_ref().map(|ran| ran.on_sheet(to)) else { return };
        let dragged = steps.drag.to(to, NUDGE_TOLERANCE);
        self.take_dragged("moving by steps", Gesture::Steps, &dragged.text, steps.drag.holds());
        self.tell_held(dragged, answer);
        self.steps = Some(steps);
    }

    /// Grabs the grip that a page moves by arrow keys, or returns why it cannot be moved.
    fn begin_steps(
        &mut self,
        asked: (usize, usize),
        (at, reach): ([f64; 2], f64),
    ) -> Result<Steps, &'static str> {
        let (told, held) = self.hold_at(Place { at, reach, way: 0 }, None);
        let (Some((holds, nearest, first)), Some(ran)) = (held, &self.ran) else {
            return Err(if told.grip.is_some() { NO_BINDING } else { "there is nothing to drag here" });
        };
        let (grip, hold) = asked;
        let is_there = holds.grips().get(grip).is_some_and(|own| own.at.distance(ran.on_sheet(at)) <= reach);
        let own = holds.of(grip).into_iter().nth(hold).filter(|_| is_there);
        let (grip, hold) = own.map_or((nearest, first), |hold| (grip, hold));
        Ok(Steps { asked, drag: holds.into_drag(grip, &hold) })
    }

    /// Sends a page the position that a drag has reached.
    fn tell_held(&self, dragged: Dragged, answer: &Answer) {
        let at = self.ran.as_ref().map(|ran| ran.told(dragged.at).to_array());
        let numbers = self.places_of(&dragged.values);
        let _ = answer.send(Told::Held { at, told: dragged.held_back, numbers }.json());
    }

    /// Inserts a vertex into the side at a position, or in the middle of the side after the vertex there.
    pub(super) fn insert(&mut self, at: [f64; 2], reach: f64, after: bool, answer: &Answer) {
        let mut why = if after { NO_VERTEX } else { NO_SIDE };
        let made = self.on_ran(|ran, holds| {
            let at = ran.on_sheet(at);
            let scene = ran.sheet.scene().ok()?;
            let (behind, at) = if after {
                let behind = vertex_near(holds.grips(), at, reach)?;
                why = "cannot put a vertex in after this one: no side begins here";
                let own = holds.grips().get(behind)?;
                let placed = scene.items().get(own.item)?;
                (behind, placed.transform.transform_point2(side(placed, own.kind)?.at(0.5)))
            } else {
                let hits = scene.index().items_at(at, reach);
                let hit = hits.into_iter().find(|hit| hit.distance <= reach)?;
                let (item, place) = (hit.placed.number, hit.place);
                let kind = GripKind::Vertex { contour: place.contour, vertex: place.segment };
                let behind = holds.grips().iter().position(|grip| grip.item == item && grip.kind == kind)?;
                (behind, hit.point)
            };
            let own = holds.grips().get(behind)?;
            let is_straight =
                matches!(side(scene.items().get(own.item)?, own.kind), Some(Segment::Line { .. }));
            why = if is_straight { COMPUTED_SIDE } else { CURVED_SIDE };
            holds.learn_near(behind, MAX_PROBE_TIME);
            holds.with_vertex(behind, at, reach * 0.1)
        });
        self.take_text("a new vertex", made, why, answer);
    }

    pub(super) fn remove(&mut self, at: [f64; 2], reach: f64, answer: &Answer) {
        let mut why = NO_VERTEX;
        let made = self.on_ran(|ran, holds| {
            let vertex = vertex_near(holds.grips(), ran.on_sheet(at), reach)?;
            why = "cannot take this vertex out: it is computed, not written in a list or with a pen";
            holds.learn_near(vertex, MAX_PROBE_TIME);
            holds.without_vertex(vertex)
        });
        self.take_text("taking a vertex out", made, why, answer);
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
        let made = made.map(|text| self.split_knobs(&text, &holds).0);
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

/// The nearest vertex within reach.
fn vertex_near(grips: &[Grip], at: Point, reach: f64) -> Option<usize> {
    let is_vertex =
        |grip: &usize| matches!(grips.get(*grip), Some(Grip { kind: GripKind::Vertex { .. }, .. }));
    places::grips_near(grips, at, reach).into_iter().find(is_vertex)
}

/// The side of an item after a vertex.
fn side(placed: &Placed<'_>, kind: GripKind) -> Option<Segment> {
    let GripKind::Vertex { contour, vertex } = kind else { return None };
    placed.item.path().contours().get(contour)?.segments().nth(vertex)
}

const NO_SIDE: &str = "there is no side of a shape here: double click on an outline to put a vertex in";
const NO_VERTEX: &str = "there is no vertex here: click one first";
const COMPUTED_SIDE: &str = "cannot put a vertex in here: the vertices of this side are computed, not written in a list or with a pen";
const CURVED_SIDE: &str =
    "cannot put a vertex in here: this side is a curve, and its control points would have to be others";
const NO_BINDING: &str = "no number in the score moves this point";

/// A step by an arrow key is as exact as this.
const NUDGE_TOLERANCE: f64 = 0.004;
