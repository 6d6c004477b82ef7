//! The thread that works: it takes what pages ask for, one after the other, runs the score, and shows what came of it.

use std::collections::VecDeque;
use std::sync::Arc;
use std::sync::mpsc::{Receiver, RecvTimeoutError};
use std::time::{Duration, Instant};

use chordane::number::Point;
use chordane::read::{MarkFrame, Marks};
use chordane::scene::{Grip, GripKind};
use chordane_score::{Holds, Pointer, PointerTrack, Runner, Script, Settings};
use tokio::sync::watch;

use super::desk::{Desk, Gesture};
use super::flags::Flags;
use super::message::{Asked, FileState, HoveredTold, MarkedShape, MarksTold, Mode, Told};
use super::paper::{Look, Paper};
use super::places;
use super::runs::{Ran, Ready, Subject};
use super::shown::{Picture, Seeds, Shown};
use super::strip::Strip;
use super::text::merged;
use crate::draw;
use crate::failure::Failure;
use crate::input::Origin;
use crate::options::DrawOptions;
use crate::web::Answer;

/// Something to do, and where an answer goes.
#[derive(Debug)]
pub(crate) struct Job {
    pub(crate) page: u64,
    pub(crate) what: What,
    pub(crate) answer: Answer,
}

#[derive(Debug)]
pub(crate) enum What {
    Asked(Asked),
    /// The file, or one beside it, was changed by somebody.
    Outside,
    /// Marks came in, and so many lines before that were none.
    Marks(MarkFrame, usize),
    /// A page is gone.
    Left,
    /// A copy of what is to be saved, with the settings that it is run with.
    Save(std::sync::mpsc::Sender<(Arc<str>, Settings)>),
    /// What is shown of a score that is compiled in, drawn to a file; and why not, where it cannot be.
    Draw(Box<DrawOptions>, std::sync::mpsc::Sender<Option<String>>),
}

/// What nobody waits for is learned in such slices.
const SLICE: Duration = Duration::from_millis(8);

/// After what comes many times a second, what nobody waits for is left until it rests.
const REST: Duration = Duration::from_millis(150);

/// A run that takes more milliseconds than this is long.
const LONG_RUN: f64 = 120.0;

/// So long it is tried at most what the places of one text hang on.
const MOST_LEARNING: Duration = Duration::from_secs(4);

/// What is not known yet of a place that is taken hold of is learned within this time.
const LEARN_NEAR: Duration = Duration::from_millis(150);

/// All that the thread knows.
#[derive(Debug)]
pub(crate) struct Session<'a> {
    ready: Ready<'a>,
    desk: Desk,
    paper: Option<Paper>,
    /// What the file was given where it clashes with what is here.
    theirs: Option<Arc<str>>,
    base: Settings,
    track: Vec<(f64, Pointer)>,
    recording: Option<Instant>,
    ran: Option<Ran>,
    shown: Shown,
    flags: Flags,
    show: watch::Sender<Shown>,
    jobs: Receiver<Job>,
    queue: VecDeque<Job>,
    holds: Option<Holds>,
    learning: Duration,
    strip: Strip,
    stale: Stale,
}

/// What is not done yet of what the present text and settings ask for.
#[derive(Clone, Copy, Debug, Default)]
struct Stale {
    run: bool,
    holds: bool,
    findings: bool,
    file: bool,
}

impl<'a> Session<'a> {
    pub(crate) fn new(
        subject: Subject<'a>,
        text: &str,
        paper: Option<Paper>,
        base: Settings,
        (flags, jobs): (Flags, Receiver<Job>),
    ) -> (Self, watch::Receiver<Shown>, watch::Sender<Shown>) {
        let desk = Desk::new(text);
        let mut shown = Shown::of(desk.version(), Arc::clone(desk.text()));
        (shown.time.phase, shown.time.seconds) = (base.get_phase(), base.get_seconds());
        let (show, watched) = watch::channel(shown.clone());
        let track = base.get_track().map(|track| track.samples().to_vec()).unwrap_or_default();
        let mut session = Self {
            ready: Ready::new(subject),
            desk,
            paper,
            theirs: None,
            track,
            recording: None,
            ran: None,
            shown,
            flags,
            show,
            jobs,
            queue: VecDeque::new(),
            holds: None,
            learning: Duration::ZERO,
            strip: Strip::default(),
            stale: Stale { run: true, holds: true, findings: true, file: false },
            base,
        };
        let begin = session.base.clone();
        session.desk.begin(begin.knobs().clone(), begin.asked_seed());
        let slow = session.show.clone();
        (session, watched, slow)
    }

    /// Works until nobody can ask for anything any more.
    pub(crate) fn work(mut self) {
        let mut rest = Duration::ZERO;
        loop {
            while let Ok(job) = self.jobs.try_recv() {
                self.queue.push_back(job);
            }
            if let Some(job) = self.next() {
                rest = if comes_often(&job.what) { REST } else { Duration::ZERO };
                self.take(job);
                continue;
            }
            if self.stale.run {
                self.run();
                continue;
            }
            if self.stale.file && !self.desk.is_moving() {
                self.save();
                self.publish();
                continue;
            }
            let job = if !self.has_more_to_do() {
                self.jobs.recv().map_err(|_| RecvTimeoutError::Disconnected)
            } else if rest > Duration::ZERO {
                self.jobs.recv_timeout(rest)
            } else {
                Err(RecvTimeoutError::Timeout)
            };
            match job {
                Ok(job) => self.queue.push_back(job),
                Err(RecvTimeoutError::Timeout) => {
                    rest = Duration::ZERO;
                    self.do_more();
                }
                Err(RecvTimeoutError::Disconnected) => return,
            }
        }
    }

    /// The next thing to do. What is asked again before it was done is done once.
    fn next(&mut self) -> Option<Job> {
        let mut job = self.queue.pop_front()?;
        while let Some(next) = self.queue.front()
            && replaces(&next.what, &job.what)
            && next.page == job.page
        {
            job = self.queue.pop_front()?;
        }
        Some(job)
    }

    fn take(&mut self, job: Job) {
        let Job { page, what, answer } = job;
        match what {
            What::Asked(asked) => self.asked(page, asked, &answer),
            What::Outside => self.outside(),
            What::Marks(frame, skipped) => {
                self.shown.marks = Arc::new(marks_told(&frame, skipped));
                self.base = self.base.clone().marks(Marks::from(vec![frame]));
                self.look_again();
            }
            What::Left => {}
            What::Draw(options, to) => {
                let Subject::Compiled { name, runner } = self.ready.subject() else { return };
                let origin = Origin { name: name.clone(), source: None };
                let open = || Ok(Runner::new(*runner));
                let settings = self.settings();
                let drawn = self.flags.running(|| draw::score(&options, settings, Some(origin), None, open));
                let _ = to.send(drawn.err().map(|failure| failure.to_string()));
            }
            What::Save(to) => drop(to.send((Arc::clone(self.desk.text()), self.settings()))),
        }
    }

    fn asked(&mut self, page: u64, asked: Asked, answer: &Answer) {
        match asked {
            Asked::Edit { base, text } => {
                if self.desk.edit(page, base, &text).is_err() {
                    let _ = answer.send(Told::Clash.json());
                }
                self.changed();
            }
            Asked::Knob { name, value, more } => {
                let what = format!("knob {name}");
                self.desk.change(&what, Gesture::Knob(name.clone()), |state| {
                    state.knobs.insert(name, value);
                });
                if !more {
                    self.desk.gesture_over();
                }
                self.changed();
            }
            Asked::KnobBack { name } => {
                self.desk.change(&format!("knob {name}"), Gesture::Single, |state| {
                    state.knobs.remove(&name);
                });
                self.changed();
            }
            Asked::KeepKnobs => {
                let declared = self.ran.as_ref().map(|ran| ran.declared.clone()).unwrap_or_default();
                self.rewritten("keeping the knobs", answer, |script| script.with_knobs(&declared));
                // What is written is what they start with now.
                self.desk.change("keeping the knobs", Gesture::Drag, |state| state.knobs.clear());
                self.desk.gesture_over();
                self.changed();
            }
            Asked::Seed { seed } => {
                let seed = seed.unwrap_or_else(|| self.strip.another(self.shown.seeds.seed));
                self.desk.change("another seed", Gesture::Single, |state| state.seed = Some(seed));
                self.changed();
            }
            Asked::KeepSeed => {
                let seed = self.shown.seeds.seed;
                self.rewritten("keeping the seed", answer, |script| script.with_seed(seed));
                self.desk.change("keeping the seed", Gesture::Drag, |state| state.seed = None);
                self.desk.gesture_over();
                self.changed();
            }
            Asked::Phase { phase } => {
                if phase.is_finite() {
                    self.shown.time.phase = phase.rem_euclid(1.0);
                    self.look_again();
                }
            }
            Asked::Seconds { seconds } => {
                if seconds.is_finite() && (0.05..=3600.0).contains(&seconds) {
                    self.shown.time.seconds = seconds;
                    self.look_again();
                }
            }
            Asked::Pointer { at, down } => {
                let at = self.ran.as_ref().map_or(Point::from(at), |ran| ran.on_sheet(at));
                let pointer = Pointer { at, down };
                if let Some(since) = self.recording {
                    let seconds = since.elapsed().as_secs_f64();
                    self.track.push((seconds, pointer));
                    self.shown.time.recorded = seconds;
                }
                self.base = self.base.clone().pointer(pointer);
                if self.shown.run.points {
                    self.look_again();
                } else {
                    self.publish();
                }
            }
            Asked::Record => {
                self.track = vec![(0.0, self.base.get_pointer())];
                self.recording = Some(Instant::now());
                (self.shown.time.mode, self.shown.time.recorded) = (Mode::Recording, 0.0);
                self.look_again();
            }
            Asked::Replay { on } => {
                self.recording = None;
                let long = self.track.last().map_or(0.0, |(seconds, _)| *seconds);
                self.shown.time.mode = if on && long > 0.0 { Mode::Replaying } else { Mode::Plain };
                if self.shown.time.mode == Mode::Replaying {
                    (self.shown.time.seconds, self.shown.time.phase) = (long, 0.0);
                }
                self.shown.time.recorded = long;
                self.look_again();
            }
            Asked::Bones { layers } => {
                self.shown.bones = Arc::new(layers);
                self.stale.run = true;
            }
            Asked::Hover { at, reach, way } => self.hover(at, reach, way, answer),
            Asked::Grab { at, reach, way } => self.grab(page, at, reach, way, answer),
            Asked::Drag { .. } | Asked::LetGo { .. } => {}
            Asked::Nudge { at, reach, way, by } => self.nudge(at, reach, way, by, answer),
            Asked::Next { from, by } => self.choose_next(from, by, answer),
            Asked::Insert { at, reach } => self.insert(at, reach, answer),
            Asked::Remove { at, reach } => self.remove(at, reach, answer),
            Asked::Undo => {
                if self.desk.undo() {
                    self.changed();
                }
            }
            Asked::Redo => {
                if self.desk.redo() {
                    self.changed();
                }
            }
            Asked::Mend { finding } => {
                let mended = self.shown.findings.get(finding).and_then(|finding| finding.click.clone());
                if let Some(text) = mended {
                    self.desk.change("mending", Gesture::Single, |state| state.text = text.into());
                    self.changed();
                }
            }
            Asked::KeepShapes { shapes } => self.keep_shapes(&shapes, answer),
            // Runs are called off from outside of this thread.
            Asked::Stop => {}
            Asked::Keep { own } => self.keep(own),
        }
    }

    /// The text rewritten by the script that it is.
    fn rewritten(&mut self, what: &str, answer: &Answer, rewrite: impl FnOnce(&Script) -> String) {
        match self.script() {
            Some(script) => {
                let text = rewrite(&script);
                self.desk.gesture_over();
                self.desk.change(what, Gesture::Drag, |state| state.text = text.into());
            }
            None => {
                let message = "there is no score to write this into".to_owned();
                let _ = answer.send(Told::Refused { message }.json());
            }
        }
    }

    /// The text as a script, where it is one that can be read.
    fn script(&self) -> Option<Script> {
        match self.ready.subject() {
            Subject::Score { name, limits, .. } => {
                Script::read(name.clone(), self.desk.text().to_string(), *limits).ok()
            }
            _ => None,
        }
    }

    /// Text, knobs or seed are others now, or may be.
    fn changed(&mut self) {
        let known = self.shown.version;
        if self.desk.version() != known {
            self.stale.file = self.paper.is_some();
            self.learning = Duration::ZERO;
        }
        (self.stale.run, self.stale.holds, self.stale.findings) = (true, true, true);
        self.shown.complete = false;
    }

    /// It is to be run again at another moment, or with another pointer.
    fn look_again(&mut self) {
        (self.stale.run, self.stale.holds) = (true, true);
    }

    /// What the score is run with.
    fn settings(&self) -> Settings {
        let state = self.desk.state();
        let time = self.shown.time;
        let mut settings = self.base.clone().without_knobs().seconds(time.seconds).phase(time.phase);
        settings = state.knobs.iter().fold(settings, |settings, (name, value)| settings.set(name, value));
        if let Some(seed) = state.seed {
            settings = settings.seed(seed);
        }
        if time.mode == Mode::Replaying {
            settings = settings.track(PointerTrack::new(self.track.iter().copied()));
        }
        settings
    }

    fn run(&mut self) {
        self.stale.run = false;
        let (text, settings, layers) =
            (Arc::clone(self.desk.text()), self.settings(), Arc::clone(&self.shown.bones));
        let ready = &mut self.ready;
        let ran = self.flags.running(|| ready.run(&text, &settings, &layers));
        match ran {
            Ok(ran) => {
                self.shown.mistake = None;
                self.shown.run = Arc::new(ran.told.clone());
                self.shown.picture =
                    Some(Picture { svg: Arc::clone(&ran.svg), corners: ran.corners(), size: ran.size() });
                self.shown.knobs = Arc::new(ran.knobs.clone());
                let seeds = (ran.seed, self.desk.state().seed.is_none());
                if seeds != (self.shown.seeds.seed, self.shown.seeds.own) {
                    let strip = self.shown.seeds.strip.clone();
                    self.shown.seeds = Arc::new(Seeds { seed: seeds.0, own: seeds.1, strip });
                }
                self.ran = Some(ran);
                // Marks of a file follow the time.
                if let Some(frame) = settings.get_marks()
                    && self.shown.marks.skipped == 0
                {
                    self.shown.marks = Arc::new(marks_told(frame, 0));
                }
            }
            Err(mistake) => self.shown.mistake = Some(Arc::new(mistake)),
        }
        self.publish();
    }

    fn publish(&mut self) {
        self.shown.version = self.desk.version();
        self.shown.text = Arc::clone(self.desk.text());
        self.shown.history = self.desk.ways();
        let shown = &mut self.shown;
        self.show.send_if_modified(|before| {
            // How long it runs is told from elsewhere.
            shown.slow = before.slow;
            let news = *before != *shown;
            if news {
                before.clone_from(shown);
            }
            news
        });
    }

    fn has_more_to_do(&self) -> bool {
        self.shown.mistake.is_none()
            && (self.stale.holds
                || self.stale.findings
                || self.learns()
                || !self.strip.knows(self.shown.seeds.seed))
    }

    /// Of what runs long, only what a place is asked for is learned.
    fn learns(&self) -> bool {
        self.holds.is_some() && self.learning < MOST_LEARNING && self.shown.run.milliseconds < LONG_RUN
    }

    /// Something that nobody waits for, a little of it.
    fn do_more(&mut self) {
        let begin = Instant::now();
        if !self.strip.knows(self.shown.seeds.seed) {
            if let Some(ran) = &self.ran {
                self.strip.add(self.shown.seeds.seed, &ran.sheet);
                let Seeds { seed, own, .. } = *self.shown.seeds;
                self.shown.seeds = Arc::new(Seeds { seed, own, strip: self.strip.told() });
                self.publish();
            }
        } else if self.stale.holds {
            self.hold();
        } else if self.learns() {
            let holds = &mut self.holds;
            let all = self.flags.quietly(|| holds.as_mut().is_none_or(|holds| holds.learn(SLICE)));
            self.learning = if all == Some(true) { MOST_LEARNING } else { self.learning + begin.elapsed() };
        } else if self.stale.findings {
            self.stale.findings = false;
            let (text, settings) = (Arc::clone(self.desk.text()), self.settings());
            let ready = &mut self.ready;
            match self.flags.quietly(|| super::findings::of(ready, &text, &settings)) {
                Some(Some(findings)) => {
                    (self.shown.findings, self.shown.complete) = (Arc::new(findings), true);
                    self.publish();
                }
                Some(None) => {}
                // Something came between.
                None => self.stale.findings = true,
            }
        }
    }

    /// What the places of the present text hang on, of which nothing is known yet.
    fn hold(&mut self) {
        self.stale.holds = false;
        let settings = self.settings();
        let learned = self.learning;
        self.learning = if learned >= MOST_LEARNING { Duration::ZERO } else { learned };
        let script = self.script();
        self.holds = self.flags.running(|| script.and_then(|script| Holds::new(script, settings).ok()));
    }

    /// As [`Session::hold`], where it has to be known now.
    fn held(&mut self) -> Option<Holds> {
        if self.stale.holds || self.holds.is_none() {
            self.hold();
        }
        self.holds.take()
    }

    fn hover(&mut self, at: [f64; 2], reach: f64, way: usize, answer: &Answer) {
        let Some(ran) = &self.ran else { return };
        let at = ran.on_sheet(at);
        let mut hovered = HoveredTold { item: places::item_at(ran, at, reach), grip: None, chosen: false };
        // While it moves, holding is of no use.
        if !self.stale.run && self.shown.mistake.is_none() {
            if self.stale.holds || self.holds.is_none() {
                self.hold();
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

    /// Tells the vertex after or before a place.
    fn choose_next(&mut self, from: Option<[f64; 2]>, by: i64, answer: &Answer) {
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
    fn grab(&mut self, page: u64, at: [f64; 2], reach: f64, way: usize, answer: &Answer) {
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
                What::Left if job.page == page => break true,
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
            let told = Some("nothing there can be taken hold of".to_owned());
            let _ = answer.send(not_held(told).json());
            self.holds = Some(holds);
            return None;
        };
        holds.learn_near(grip, LEARN_NEAR);
        Some((holds, grip))
    }

    fn nudge(&mut self, at: [f64; 2], reach: f64, way: usize, by: [f64; 2], answer: &Answer) {
        let Some((holds, grip)) = self.grip_at(at, reach, answer) else { return };
        let Some((own, ran)) = holds.grips().get(grip).copied().zip(self.ran.as_ref()) else { return };
        let to = ran.view.transform_point2(ran.told(own.at) + Point::from(by));
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
        self.desk.change("moving by a step", Gesture::Single, |state| state.text = dragged.text.into());
        self.changed();
        self.run();
        let at = self.ran.as_ref().map(|ran| ran.told(dragged.at).to_array());
        let numbers = self.places_of(&dragged.values);
        let _ = answer.send(Told::Held { at, told: dragged.held_back, numbers }.json());
    }

    fn insert(&mut self, at: [f64; 2], reach: f64, answer: &Answer) {
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
        let why =
            "no vertex can be put in there: the side's vertices are not written out in a list or with a pen";
        self.take_text("a new vertex", made, why, answer);
    }

    fn remove(&mut self, at: [f64; 2], reach: f64, answer: &Answer) {
        let made = self.on_ran(|ran, holds| {
            let grip = places::grip_near(holds.grips(), ran.on_sheet(at), reach)?;
            holds.learn_near(grip, MOST_LEARNING);
            holds.without_vertex(grip)
        });
        let why = "the vertex cannot be taken out: it is not written out in a list or with a pen";
        self.take_text("taking a vertex out", made, why, answer);
    }

    /// Writes shapes through marks at the end of the score, where its sheet stands.
    fn keep_shapes(&mut self, shapes: &[MarkedShape], answer: &Answer) {
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
        let why = "the shapes cannot be written at the end of the score: end it with its sheet, without a comment after it";
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
    fn take_text(&mut self, what: &str, made: Option<String>, why: &str, answer: &Answer) {
        match made {
            Some(text) => {
                self.desk.change(what, Gesture::Single, |state| state.text = text.into());
                self.changed();
            }
            None => drop(answer.send(Told::Refused { message: why.to_owned() }.json())),
        }
    }

    /// Looks what became of the file.
    fn outside(&mut self) {
        let Some(paper) = &mut self.paper else { return };
        match paper.look() {
            Look::Same => {
                // A picture beside it may be another one.
                self.look_again();
                if matches!(self.shown.file.0, FileState::Gone) {
                    self.shown.file = (FileState::Saved, "".into());
                }
            }
            Look::Gone => {
                let told = format!(
                    "{} is gone, moved or renamed; it is written again with the next change",
                    paper.file().display()
                );
                self.shown.file = (FileState::Gone, told.into());
            }
            Look::Unreadable(why) => self.shown.file = (FileState::Unsaved, why.into()),
            Look::Other(theirs) => match merged(paper.known(), self.desk.text(), &theirs) {
                Some(text) => {
                    paper.know(&theirs);
                    self.stale.file = *text != *theirs;
                    self.shown.file = (FileState::Saved, "".into());
                    self.desk
                        .change("a change of the file", Gesture::Single, |state| state.text = text.into());
                    let file = self.stale.file;
                    self.changed();
                    self.stale.file = file;
                }
                None => self.ask(theirs),
            },
        }
        self.publish();
    }

    /// Which text is to be kept cannot be known.
    fn ask(&mut self, theirs: Arc<str>) {
        let told = "the file was changed by another program in lines that were changed here too";
        self.shown.file = (FileState::Asking, told.into());
        self.theirs = Some(theirs);
        self.stale.file = false;
    }

    fn keep(&mut self, own: bool) {
        let (Some(theirs), Some(paper)) = (self.theirs.take(), &mut self.paper) else { return };
        paper.know(&theirs);
        self.shown.file = (FileState::Saved, "".into());
        if !own {
            self.desk.change("the file's text", Gesture::Single, |state| state.text = theirs);
        }
        self.changed();
        self.stale.file = own;
    }

    /// Writes the file, unless somebody else has changed it.
    fn save(&mut self) {
        self.stale.file = false;
        if self.theirs.is_some() {
            return;
        }
        let Some(paper) = &mut self.paper else { return };
        if let Look::Other(_) = paper.look() {
            self.outside();
            return;
        }
        if **paper.known() == **self.desk.text() && paper.file().exists() {
            self.shown.file = (FileState::Saved, "".into());
            return;
        }
        self.shown.file = match paper.write(self.desk.text()) {
            Ok(()) => (FileState::Saved, "".into()),
            Err(failure) => (FileState::Unsaved, why_unsaved(&failure).into()),
        };
    }
}

fn not_held(told: Option<String>) -> Told {
    Told::Held { at: None, told, numbers: Vec::new() }
}

const HELD_BY_NOTHING: &str = "no number of the score moves this place";

/// A step by an arrow key is as exact as this.
const NUDGE_WITHIN: f64 = 0.004;

fn marks_told(frame: &MarkFrame, skipped: usize) -> MarksTold {
    MarksTold { marks: frame.points().map(|(number, at)| (number, at.to_array())).collect(), skipped }
}

fn why_unsaved(failure: &Failure) -> String {
    format!("not saved: {failure}. What is here stays, and is written with the next change")
}

/// Whether it comes many times a second.
fn comes_often(what: &What) -> bool {
    matches!(
        what,
        What::Marks(..)
            | What::Asked(
                Asked::Phase { .. }
                    | Asked::Pointer { .. }
                    | Asked::Drag { .. }
                    | Asked::Knob { more: true, .. }
                    | Asked::Edit { .. }
            )
    )
}

/// Whether what comes next makes what is asked for now needless.
fn replaces(next: &What, now: &What) -> bool {
    match (next, now) {
        (What::Asked(next), What::Asked(now)) => match (next, now) {
            (Asked::Phase { .. }, Asked::Phase { .. }) | (Asked::Hover { .. }, Asked::Hover { .. }) => true,
            (Asked::Knob { name, .. }, Asked::Knob { name: now, .. }) => name == now,
            _ => false,
        },
        (What::Marks(..), What::Marks(..)) | (What::Outside, What::Outside) => true,
        _ => false,
    }
}
