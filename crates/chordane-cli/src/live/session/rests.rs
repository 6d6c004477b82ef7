//! What is done in the rests, when nobody waits: small pictures of seeds, what places hang on, findings.

use std::sync::Arc;
use std::time::{Duration, Instant};

use chordane_score::{Holds, Script, Settings};

use super::Session;
use crate::live::findings;
use crate::live::message::{KnobShape, KnobTold};
use crate::live::shown::Seeds;

/// What nobody waits for is learned in such slices.
const BACKGROUND_SLICE: Duration = Duration::from_millis(8);

/// A run that takes more milliseconds than this is long.
const SLOW_RUN_MS: f64 = 120.0;

/// So long it is tried at most what the places of one text hang on.
pub(super) const MAX_PROBE_TIME: Duration = Duration::from_secs(4);

impl Session<'_> {
    pub(super) fn has_more_to_do(&self) -> bool {
        self.shown.mistake.is_none()
            && (self.stale.holds || self.stale.findings || self.learns() || self.rolled())
    }

    /// Whether the strip has no picture yet of the seed in use.
    fn rolled(&self) -> bool {
        self.shown.run.rolls && !self.strip.knows(self.shown.seeds.seed)
    }

    /// Of what runs long, only what a place is asked for is learned.
    fn learns(&self) -> bool {
        self.holds.is_some() && self.learning < MAX_PROBE_TIME && self.shown.run.milliseconds < SLOW_RUN_MS
    }

    /// Something that nobody waits for, a little of it.
    pub(super) fn do_more(&mut self) {
        let begin = Instant::now();
        if self.rolled() {
            if let Some(ran) = &self.ran {
                self.strip.add(self.shown.seeds.seed, &ran.sheet);
                let Seeds { seed, own, .. } = *self.shown.seeds;
                self.shown.seeds = Arc::new(Seeds { seed, own, strip: self.strip.told() });
                self.publish();
            }
        } else if self.stale.holds {
            self.hold(true);
        } else if self.learns() {
            let holds = &mut self.holds;
            let all = self.flags.quietly(|| holds.as_mut().is_none_or(|holds| holds.learn(BACKGROUND_SLICE)));
            self.learning = if all == Some(true) { MAX_PROBE_TIME } else { self.learning + begin.elapsed() };
            if self.learning >= MAX_PROBE_TIME {
                self.tell_handles();
            }
        } else if self.stale.findings {
            self.stale.findings = false;
            let (text, settings) = (Arc::clone(self.desk.text()), self.settings());
            let ready = &mut self.ready;
            match self.flags.quietly(|| findings::of(ready, &text, &settings)) {
                Some(Some(findings)) => {
                    let (findings, mends) = findings.into_iter().unzip();
                    self.mends = mends;
                    (self.shown.findings, self.shown.complete) = (Arc::new(findings), true);
                    self.publish();
                }
                Some(None) => {}
                // Something came between.
                None => self.stale.findings = true,
            }
        }
    }

    /// What the places of the present text hang on, of which nothing is known yet; where nobody waits for it, it can be called off.
    pub(super) fn hold(&mut self, quiet: bool) {
        let learned = self.learning;
        self.learning = if learned >= MAX_PROBE_TIME { Duration::ZERO } else { learned };
        let own = self.script();
        let set = own.as_ref().and_then(|own| self.with_knobs(own));
        let hold = || set.and_then(|(script, settings)| Holds::new(script, settings).ok());
        let held = if quiet { self.flags.quietly(hold) } else { Some(self.flags.running(hold)) };
        self.own = own;
        // Something came between: later then.
        self.stale.holds = held.is_none();
        self.holds = held.flatten();
    }

    /// The script with the current values of its knobs as their starts, and the settings without those knobs, so that knobs can be dragged.
    fn with_knobs(&self, own: &Script) -> Option<(Script, Settings)> {
        let mut knobs = self.desk.state().knobs.clone();
        let declared = self.ran.as_ref().map(|ran| ran.declared.as_slice()).unwrap_or_default();
        let text = if own.knob_names().any(|name| knobs.contains_key(name)) {
            own.with_knobs(declared)
        } else {
            own.source().to_owned()
        };
        own.knob_names().for_each(|name| drop(knobs.remove(name)));
        let script = own.reread(text).ok()?;
        Some((script, self.settings_with(&knobs)))
    }

    /// Finds the vertices that point knobs move, and publishes their positions.
    fn tell_handles(&mut self) {
        let Some(holds) = &self.holds else { return };
        let points = self.shown.knobs.iter().filter(|knob| knob.shape == KnobShape::Point);
        self.handles =
            points.filter_map(|knob| Some((knob.name.clone(), holds.of_knob(&knob.name)?.0))).collect();
        if !self.handles.is_empty() {
            self.shown.knobs = Arc::new(self.with_handles(&self.shown.knobs));
            self.publish();
        }
    }

    /// The knobs with the positions of the vertices they move.
    pub(super) fn with_handles(&self, knobs: &[KnobTold]) -> Vec<KnobTold> {
        let grips = self
            .ran
            .as_ref()
            .filter(|_| !self.handles.is_empty())
            .and_then(|ran| ran.sheet.scene().ok().map(|scene| scene.grips()));
        let place = |name: &str| {
            let grip = grips.as_ref()?.get(*self.handles.get(name)?)?;
            Some(self.ran.as_ref()?.told(grip.at).to_array())
        };
        knobs.iter().map(|knob| KnobTold { at: place(&knob.name), ..knob.clone() }).collect()
    }

    /// As [`Session::hold`], where it has to be known now.
    pub(super) fn held(&mut self) -> Option<Holds> {
        if self.stale.holds || self.holds.is_none() {
            self.hold(false);
        }
        self.holds.take()
    }
}
