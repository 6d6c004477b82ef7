//! Handling of the requests of pages.

use std::sync::Arc;
use std::time::Instant;

use chordane::number::Point;
use chordane_score::{Marks, Pointer, Script};

use super::places::Place;
use super::{Session, marks_told};
use crate::live::desk::{Gesture, State};
use crate::live::latest::NewMarks;
use crate::live::message::{Asked, KnobShape, MarksTold, Mode, Told};
use crate::live::text::merged;
use crate::web::Answer;

impl Session<'_> {
    pub(super) fn asked(&mut self, page: u64, asked: Asked, answer: &Answer) {
        match asked {
            Asked::Edit { base, text } => {
                if self.desk.edit(page, base, &text).is_err() {
                    self.clash(text, answer);
                }
                self.changed();
            }
            Asked::Bring { before, text } => {
                match merged(&before, &text, self.desk.text()) {
                    Some(merged) => self.desk.change("what was typed before", Gesture::Single, |state| {
                        state.text = merged.into();
                    }),
                    None => self.clash(text, answer),
                }
                self.changed();
            }
            Asked::Knob { name, value, .. } if !self.takes(&name, &value) => {
                let message = format!("the knob {name} takes numbers, and {value} is none");
                let _ = answer.send(Told::Refused { message }.json());
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
                self.rewrite("keeping the knobs", answer, |script, state| {
                    state.text = script.with_knobs(&declared).into();
                    // What is written is what they start with now. Names that are computed are written nowhere.
                    script.knob_names().for_each(|name| drop(state.knobs.remove(name)));
                });
            }
            Asked::Seed { seed } => {
                let seed = seed.unwrap_or_else(|| self.strip.another(self.shown.seeds.seed));
                self.desk.change("another seed", Gesture::Single, |state| state.seed = Some(seed));
                self.changed();
            }
            Asked::KeepSeed => {
                let seed = self.shown.seeds.seed;
                self.rewrite("keeping the seed", answer, |script, state| {
                    (state.text, state.seed) = (script.with_seed(seed).into(), None);
                });
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
                self.track = vec![(0.0, self.base.pointer_now())];
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
            Asked::PauseMarks { on } => {
                Arc::make_mut(&mut self.shown.marks).paused = on;
                match self.came.take() {
                    Some(came) if !on => self.show_marks(came),
                    _ => self.publish(),
                }
            }
            Asked::Bones { layers } => {
                self.shown.bones = Arc::new(layers);
                self.stale.run = true;
            }
            Asked::Line { line } => self.line(line, answer),
            Asked::Hover { at, reach, way } => self.hover(Place { at, reach, way }, answer),
            Asked::Grab { at, reach, way, knob } => {
                self.grab(page, Place { at, reach, way }, knob.as_deref(), answer);
            }
            Asked::Drag { .. } | Asked::LetGo { .. } => {}
            Asked::Nudge { grip, hold, at, reach, to } => self.nudge((grip, hold), (at, reach), to, answer),
            Asked::Next { from, reach, way, by, items } => {
                self.choose_next(from, reach, (by, items, way), answer);
            }
            Asked::Insert { at, reach, after } => self.insert(at, reach, after, answer),
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
                // Findings of a text that was changed since would bring the old one back.
                let mended = self.mends.get(finding).cloned().flatten().filter(|_| self.shown.complete);
                let why = "the score has changed since; wait for its findings";
                self.take_text("mending", mended, why, answer);
            }
            Asked::MendMistake => {
                let mistake = self.shown.mistake.clone().filter(|_| !self.stale.run);
                let mended = mistake.and_then(|mistake| mistake.mended.clone());
                let why = "the score has changed since; wait until it has run";
                self.take_text("mending", mended, why, answer);
            }
            Asked::Outline { vertices, closed } => self.outline(&vertices, closed, answer),
            Asked::NewShape { vertices, closed } => self.new_shape(&vertices, closed, answer),
            Asked::KeepShapes { shapes } => self.keep_shapes(&shapes, answer),
            // Runs are called off from outside of this thread.
            Asked::Stop => {}
            Asked::Keep { own } => self.keep(own),
        }
    }

    /// Whether a value is valid for a knob: finite numbers for number and point knobs.
    fn takes(&self, name: &str, value: &str) -> bool {
        let knob = self.shown.knobs.iter().find(|knob| knob.name == name);
        let is_number = |text: &str| text.trim().parse::<f64>().is_ok_and(f64::is_finite);
        match knob.map(|knob| &knob.shape) {
            Some(KnobShape::Number { .. } | KnobShape::Point) => value.split(',').all(is_number),
            _ => true,
        }
    }

    pub(super) fn show_marks(&mut self, came: NewMarks) {
        let NewMarks { frame, skipped, left_out } = came;
        self.shown.marks = Arc::new(MarksTold { skipped, left_out, ..marks_told(&frame) });
        self.base = self.base.clone().marks(Marks::from(vec![frame]));
        self.look_again();
    }

    /// A page's text does not fit to the present one. Both can be reached from here on, and the page asks which is wanted.
    fn clash(&mut self, text: String, answer: &Answer) {
        self.desk.pass("what was typed", &text);
        let _ = answer.send(Told::Clash { text }.json());
    }

    /// The text rewritten by the script that it is. Where it is none, nothing is changed.
    fn rewrite(&mut self, what: &str, answer: &Answer, rewrite: impl FnOnce(&Script, &mut State)) {
        match self.script() {
            Some(script) => {
                self.desk.change(what, Gesture::Single, |state| rewrite(&script, state));
                self.changed();
            }
            None => {
                let message = "there is no readable score to write this into".to_owned();
                let _ = answer.send(Told::Refused { message }.json());
            }
        }
    }
}
