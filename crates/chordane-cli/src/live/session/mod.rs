//! The thread that works: it takes what pages ask for, one after the other, runs the score, and shows what came of it.

mod asked;
mod disk;
#[cfg(test)]
mod outside_tests;
mod places;
mod rests;
mod shapes;
#[cfg(test)]
mod tests;

use std::collections::{BTreeMap, VecDeque};
use std::sync::Arc;
use std::sync::mpsc::{Receiver, RecvTimeoutError};
use std::time::{Duration, Instant};

use chordane_score::{Holds, MarkFrame, Pointer, PointerTrack, Runner, Script, Settings};
use indicatif::ProgressBar;
use tokio::sync::watch;

use disk::Unsettled;
use places::Steps;

use super::desk::Desk;
use super::export::Export;
use super::flags::Flags;
use super::latest::{LatestMarks, NewMarks};
use super::message::{Asked, MarksTold, Mode};
use super::paper::Paper;
use super::runs::{Ran, Ready, Subject};
use super::shown::{Picture, Seeds, Shown};
use super::strip::Strip;
use crate::input::Origin;
use crate::web::{Answer, Outlet};

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
    /// The file was changed, or may have been; whether another file was put in its place.
    Outside {
        whole: bool,
    },
    /// A picture beside it was changed.
    Pictures,
    /// Marks came in.
    Marks(Arc<LatestMarks>),
    /// A page is gone.
    Left,
    /// A copy of what is to be saved, with the settings that it is run with.
    Save(std::sync::mpsc::Sender<(Arc<str>, Settings)>),
    /// Export a compiled-in score. The answer is the reason if that fails.
    Export(Export, Outlet, ProgressBar, std::sync::mpsc::Sender<Option<String>>),
}

/// After what comes many times a second, what nobody waits for is left until it rests.
const IDLE_DELAY: Duration = Duration::from_millis(150);

/// All that the thread knows.
#[derive(Debug)]
pub(crate) struct Session<'a> {
    ready: Ready<'a>,
    desk: Desk,
    paper: Option<Paper>,
    /// What the file was given where it clashes with what is here.
    theirs: Option<Arc<str>>,
    /// A text found in the file while another program may still be writing it.
    unsettled: Option<Unsettled>,
    base: Settings,
    track: Vec<(f64, Pointer)>,
    recording: Option<Instant>,
    /// The latest marks that arrived while the stream is paused.
    came: Option<NewMarks>,
    ran: Option<Ran>,
    shown: Shown,
    flags: Flags,
    show: watch::Sender<Shown>,
    jobs: Receiver<Job>,
    queue: VecDeque<Job>,
    holds: Option<Holds>,
    /// The grip that the arrow keys are moving.
    steps: Option<Steps>,
    /// The text as a script. `holds` belongs to the same script with the current values of its knobs.
    own: Option<Script>,
    /// The number of the grip that each point knob moves, if it is known.
    handles: BTreeMap<String, usize>,
    learning: Duration,
    strip: Strip,
    /// For each finding that is shown the text without it, where it is known.
    mends: Vec<Option<String>>,
    stale: Stale,
    /// When it was last run again at another moment.
    moved: Option<Instant>,
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
        (shown.time.phase, shown.time.seconds) = (base.moment.phase, base.moment.seconds);
        let (show, watched) = watch::channel(shown.clone());
        let track = base.track.as_ref().map(|track| track.samples().to_vec()).unwrap_or_default();
        let mut session = Self {
            ready: Ready::new(subject),
            desk,
            paper,
            theirs: None,
            unsettled: None,
            track,
            recording: None,
            came: None,
            ran: None,
            shown,
            flags,
            show,
            jobs,
            queue: VecDeque::new(),
            holds: None,
            steps: None,
            own: None,
            handles: BTreeMap::new(),
            learning: Duration::ZERO,
            strip: Strip::default(),
            mends: Vec::new(),
            stale: Stale { run: true, holds: true, findings: true, file: false },
            moved: None,
            base,
        };
        let begin = session.base.clone();
        session.desk.begin(begin.knobs.clone(), begin.seed);
        let slow = session.show.clone();
        (session, watched, slow)
    }

    /// Works until no request can arrive any more.
    pub(crate) fn work(self) {
        self.work_with(|jobs, patience| match patience {
            Some(patience) => jobs.recv_timeout(patience),
            None => jobs.recv().map_err(|_| RecvTimeoutError::Disconnected),
        });
    }

    /// Works until `receive` reports that no request can arrive any more. `receive` waits for a request; with a duration, no
    /// longer than that.
    pub(crate) fn work_with(
        mut self,
        mut receive: impl FnMut(&Receiver<Job>, Option<Duration>) -> Result<Job, RecvTimeoutError>,
    ) {
        let mut rest = Duration::ZERO;
        loop {
            while let Ok(job) = self.jobs.try_recv() {
                self.queue.push_back(job);
            }
            if let Some(job) = self.next() {
                rest = if comes_often(&job.what) { IDLE_DELAY } else { Duration::ZERO };
                self.take(job);
                continue;
            }
            if self.stale.run {
                self.run();
                continue;
            }
            if self.stale.file && self.unsettled.is_none() && !self.desk.is_moving() {
                self.save();
                self.publish();
                continue;
            }
            let settles = self.unsettled.as_ref().map(Unsettled::left);
            if settles == Some(Duration::ZERO) {
                self.settle();
                continue;
            }
            let patience = settles.or_else(|| self.has_more_to_do().then_some(rest));
            match receive(&self.jobs, patience) {
                Ok(job) => self.queue.push_back(job),
                Err(RecvTimeoutError::Timeout) if settles.is_some() => {}
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
            What::Outside { whole } => self.outside(whole),
            What::Pictures => {
                let pictures = self.base.pictures.clone().unread();
                self.base = self.base.clone().pictures(pictures);
                self.look_again();
            }
            What::Marks(latest) => {
                let Some(came) = latest.take() else { return };
                if self.shown.marks.paused {
                    self.came = Some(came);
                } else {
                    self.show_marks(came);
                }
            }
            What::Left => self.desk.forget(page),
            What::Export(export, mut out, bar, to) => {
                let Subject::Compiled { name, runner } = self.ready.subject() else { return };
                let origin = Origin { name: name.clone(), source: None };
                let open = || Ok(Runner::new(*runner));
                let settings = self.settings();
                let draw = || export.draw(&settings, Some(&origin), None, open, (&mut out, &bar));
                let drawn = self.flags.running(draw);
                let _ = to.send(drawn.err().map(|failure| failure.to_string()));
            }
            What::Save(to) => drop(to.send((Arc::clone(self.desk.text()), self.settings()))),
        }
    }

    /// Parses a text as a script; `None` if this is not a score or there is a syntax error.
    fn script(&self) -> Option<Script> {
        self.ready.subject().script(self.desk.text())
    }

    /// Text, knobs or seed are others now, or may be.
    fn changed(&mut self) {
        let known = self.shown.version;
        if self.desk.version() != known {
            self.stale.file = self.paper.is_some();
            self.learning = Duration::ZERO;
        }
        (self.stale.run, self.stale.holds, self.stale.findings) = (true, true, true);
        self.steps = None;
        self.shown.complete = false;
    }

    /// It is to be run again at another moment, or with another pointer.
    fn look_again(&mut self) {
        self.moved = Some(Instant::now());
        self.steps = None;
        (self.stale.run, self.stale.holds) = (true, true);
    }

    /// What the score is run with.
    fn settings(&self) -> Settings {
        self.settings_with(&self.desk.state().knobs)
    }

    /// The same with other knobs.
    fn settings_with(&self, knobs: &BTreeMap<String, String>) -> Settings {
        let state = self.desk.state();
        let time = self.shown.time;
        let mut settings = self.base.clone().unset().seconds(time.seconds).phase(time.phase);
        settings = knobs.iter().fold(settings, |settings, (name, value)| settings.set(name, value));
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
                let knobs = ran.knobs.clone();
                let seeds = (ran.seed, self.desk.state().seed.is_none());
                if seeds != (self.shown.seeds.seed, self.shown.seeds.own) {
                    let strip = self.shown.seeds.strip.clone();
                    self.shown.seeds = Arc::new(Seeds { seed: seeds.0, own: seeds.1, strip });
                }
                self.ran = Some(ran);
                self.shown.knobs = Arc::new(self.with_handles(&knobs));
                // Marks of a file follow the time.
                if let Some(frame) = settings.marks_now()
                    && self.shown.marks.skipped == 0
                    && !self.shown.marks.paused
                {
                    self.shown.marks = Arc::new(marks_told(frame));
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
            // The running time and the progress of exports are updated elsewhere.
            shown.slow = before.slow;
            shown.exports.clone_from(&before.exports);
            let news = *before != *shown;
            if news {
                before.clone_from(shown);
            }
            news
        });
    }
}

fn marks_told(frame: &MarkFrame) -> MarksTold {
    let marks = frame.points().map(|(number, at)| (number, at.to_array())).collect();
    MarksTold { marks, ..MarksTold::default() }
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
            (Asked::Phase { .. }, Asked::Phase { .. })
            | (Asked::Line { .. }, Asked::Line { .. })
            | (Asked::Outline { .. }, Asked::Outline { .. })
            | (Asked::Hover { .. }, Asked::Hover { .. }) => true,
            (Asked::Knob { name, .. }, Asked::Knob { name: now, .. }) => name == now,
            _ => false,
        },
        (What::Marks(..), What::Marks(..))
        | (What::Outside { .. }, What::Outside { .. })
        | (What::Pictures, What::Pictures) => true,
        _ => false,
    }
}
