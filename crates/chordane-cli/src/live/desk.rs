//! What is being worked on: the text, what the score is run with, and the way there, which can be gone back and forth.

use std::collections::{BTreeMap, HashMap, VecDeque};
use std::sync::Arc;
use std::time::{Duration, Instant};

use super::text::merged;

/// So many texts are remembered for edits that come late.
const MAX_OLD_TEXTS: usize = 200;

/// So many changes can be taken back.
const MAX_UNDO_STEPS: usize = 2000;

/// Of long texts fewer are kept: so many bytes, but at least so many texts.
const MAX_HISTORY_BYTES: usize = 256 << 20;
const MIN_TEXTS: usize = 16;

/// Typing, and moves by keys, with shorter pauses than this are one change.
const TYPING_PAUSE: Duration = Duration::from_millis(1200);

/// All that a change can change.
#[derive(Clone, Debug, Default, PartialEq)]
pub(crate) struct State {
    pub(crate) text: Arc<str>,
    pub(crate) knobs: BTreeMap<String, String>,
    pub(crate) seed: Option<u64>,
}

/// What a change belongs to: those that follow one another in one gesture are one change.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(crate) enum Gesture {
    /// Text typed in a page.
    Typing(u64),
    /// A knob being moved.
    Knob(String),
    /// A place being dragged.
    Drag,
    /// A place moved by steps, by keys that are pressed or held.
    Steps,
    /// One of its own.
    Single,
}

#[derive(Clone, Debug)]
struct Change {
    what: String,
    before: State,
}

/// What is being worked on.
#[derive(Clone, Debug)]
pub(crate) struct Desk {
    state: State,
    version: u64,
    old: VecDeque<(u64, Arc<str>)>,
    done: Vec<Change>,
    undone: Vec<Change>,
    gesture: Option<(Gesture, Instant)>,
    /// What each page sent last, and the version that it was made from.
    sent: HashMap<u64, (u64, Arc<str>)>,
}

/// An edit that does not fit to what was changed meanwhile in the same lines.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) struct Clash;

impl Desk {
    pub(crate) fn new(text: &str) -> Self {
        let state = State { text: text.into(), ..State::default() };
        Self {
            old: VecDeque::from([(1, Arc::clone(&state.text))]),
            state,
            version: 1,
            done: Vec::new(),
            undone: Vec::new(),
            gesture: None,
            sent: HashMap::new(),
        }
    }

    /// What is set before anything is changed.
    pub(crate) fn begin(&mut self, knobs: BTreeMap<String, String>, seed: Option<u64>) {
        (self.state.knobs, self.state.seed) = (knobs, seed);
    }

    pub(crate) fn state(&self) -> &State {
        &self.state
    }

    pub(crate) fn text(&self) -> &Arc<str> {
        &self.state.text
    }

    /// The number of the text: each has another.
    pub(crate) fn version(&self) -> u64 {
        self.version
    }

    /// Changes something. What goes on with a gesture is one change with what went before.
    pub(crate) fn change(&mut self, what: &str, gesture: Gesture, change: impl FnOnce(&mut State)) {
        let mut after = self.state.clone();
        change(&mut after);
        if after == self.state {
            return;
        }
        let now = Instant::now();
        let goes_on = self.gesture.take().is_some_and(|(before, at)| {
            let rested = matches!(gesture, Gesture::Typing(_) | Gesture::Steps) && now - at > TYPING_PAUSE;
            before == gesture && gesture != Gesture::Single && !rested
        });
        if !goes_on {
            self.done.push(Change { what: what.to_owned(), before: self.state.clone() });
            let most = fewer(MAX_UNDO_STEPS, &self.state.text);
            let more = self.done.len().saturating_sub(most);
            self.done.drain(..more);
        }
        self.undone.clear();
        self.gesture = Some((gesture, now));
        self.put(after);
    }

    /// Passes through another text and comes back, so that it can be reached by taking that back.
    pub(crate) fn pass(&mut self, what: &str, text: &str) {
        let present = Arc::clone(&self.state.text);
        self.change(what, Gesture::Single, |state| state.text = text.into());
        self.change("the text before that", Gesture::Single, |state| state.text = present);
    }

    /// A gesture is over: what comes next is another change.
    pub(crate) fn gesture_over(&mut self) {
        self.gesture = None;
    }

    /// Whether a knob or a place is being moved just now.
    pub(crate) fn is_moving(&self) -> bool {
        matches!(self.gesture, Some((Gesture::Knob(_) | Gesture::Drag, _)))
    }

    fn put(&mut self, state: State) {
        if state.text != self.state.text {
            self.version += 1;
            self.old.push_back((self.version, Arc::clone(&state.text)));
            let more = self.old.len().saturating_sub(fewer(MAX_OLD_TEXTS, &state.text));
            self.old.drain(..more);
        }
        self.state = state;
    }

    /// Another text in place of a version of it; what was changed since in other lines stays. A page may go on typing before it has heard of the version that its
    /// last edit made: what it sends then belongs to what it sent before.
    pub(crate) fn edit(&mut self, page: u64, base: u64, text: &str) -> Result<(), Clash> {
        let sent = self.sent.remove(&page).filter(|(sent_base, _)| *sent_base == base).map(|(_, text)| text);
        let old = || self.old.iter().find(|(version, _)| *version == base).map(|(_, text)| Arc::clone(text));
        let before = sent.or_else(old).unwrap_or_else(|| Arc::clone(&self.state.text));
        let merged = merged(&before, text, &self.state.text).ok_or(Clash)?;
        self.sent.insert(page, (base, text.into()));
        self.change("typing", Gesture::Typing(page), |state| state.text = merged.into());
        Ok(())
    }

    /// A page is gone.
    pub(crate) fn forget(&mut self, page: u64) {
        self.sent.remove(&page);
    }

    /// Takes the last change back; whether there was one.
    pub(crate) fn undo(&mut self) -> bool {
        let Some(last) = self.done.pop() else { return false };
        self.undone.push(Change { what: last.what, before: self.state.clone() });
        self.gesture = None;
        self.put(last.before);
        true
    }

    /// Does the change again that was taken back last; whether there was one.
    pub(crate) fn redo(&mut self) -> bool {
        let Some(last) = self.undone.pop() else { return false };
        self.done.push(Change { what: last.what, before: self.state.clone() });
        self.gesture = None;
        self.put(last.before);
        true
    }

    /// What would be taken back, and what done again.
    pub(crate) fn ways(&self) -> (Option<String>, Option<String>) {
        let last = |changes: &[Change]| changes.last().map(|change| change.what.clone());
        (last(&self.done), last(&self.undone))
    }
}

/// How many texts of such a length are kept.
fn fewer(most: usize, text: &str) -> usize {
    most.min(MAX_HISTORY_BYTES / text.len().max(1)).max(MIN_TEXTS)
}

#[cfg(test)]
mod tests {
    use super::*;
    use chordane::chance::Dice;

    fn texts(desk: &Desk) -> String {
        desk.text().to_string()
    }

    #[test]
    fn a_gesture_is_one_change() {
        let mut desk = Desk::new("hem 1");
        for size in ["hem 2", "hem 3", "hem 4"] {
            desk.change("dragging", Gesture::Drag, |state| state.text = size.into());
        }
        desk.gesture_over();
        desk.change("dragging", Gesture::Drag, |state| state.text = "hem 9".into());
        desk.change("mending", Gesture::Single, |state| state.text = "hem 5".into());
        desk.change("mending", Gesture::Single, |state| state.text = "hem 6".into());
        let mut back = Vec::new();
        while desk.undo() {
            back.push(texts(&desk));
        }
        assert_eq!(back, ["hem 5", "hem 9", "hem 4", "hem 1"]);
        assert!(desk.redo() && desk.redo());
        assert_eq!(
            (texts(&desk).as_str(), desk.ways()),
            ("hem 9", (Some("dragging".to_owned()), Some("mending".to_owned())))
        );
        desk.change("typing", Gesture::Typing(1), |state| state.text = "bow".into());
        assert!(!desk.redo());
    }

    #[test]
    fn edits_of_old_texts_are_brought_together() {
        let mut desk = Desk::new("hem\nvent\ntail\nbow\nspar\n");
        let base = desk.version();
        desk.edit(1, base, "hem 2\nvent\ntail\nbow\nspar\n").unwrap();
        desk.edit(2, base, "hem\nvent\ntail\nbow\nspar 3\n").unwrap();
        assert_eq!(texts(&desk), "hem 2\nvent\ntail\nbow\nspar 3\n");
        assert_eq!(desk.edit(2, base, "hem 7\nvent\ntail\nbow\nspar\n"), Err(Clash));
        assert_eq!(texts(&desk), "hem 2\nvent\ntail\nbow\nspar 3\n");
    }

    /// A page types on in one line before it has heard of what its first edit made, while another page changes other lines.
    #[test]
    fn typing_goes_on_before_the_first_edit_is_heard_of() {
        let mut desk = Desk::new("hem\nvent\ntail\nbow\nspar\n");
        let base = desk.version();
        desk.edit(1, base, "hem 2\nvent\ntail\nbow\nspar\n").unwrap();
        desk.edit(2, base, "hem\nvent\ntail\nbow\nspar 3\n").unwrap();
        desk.edit(1, base, "hem 25\nvent\ntail\nbow\nspar\n").unwrap();
        desk.edit(1, base, "hem 250\nvent\ntail\nbow\nspar\n").unwrap();
        assert_eq!(texts(&desk), "hem 250\nvent\ntail\nbow\nspar 3\n");
        // Taken back what was just typed, too.
        desk.edit(1, base, "hem 2\nvent\ntail\nbow\nspar\n").unwrap();
        assert_eq!(texts(&desk), "hem 2\nvent\ntail\nbow\nspar 3\n");
        desk.forget(1);
        assert_eq!(desk.edit(1, base, "hem 7\nvent\ntail\nbow\nspar\n"), Err(Clash));
    }

    /// Whatever is done: all of it taken back is where it began, and all done again where it was.
    #[test]
    fn undo_and_redo_are_inverse() {
        let mut dice = Dice::new(5, "desk");
        for _ in 0..50 {
            let mut desk = Desk::new("begin");
            for step in 0..30 {
                match dice.place(5).unwrap() {
                    0 => desk.change("a knob", Gesture::Knob("sag".to_owned()), |state| {
                        state.knobs.insert("sag".to_owned(), step.to_string());
                    }),
                    1 => desk.change("rolling", Gesture::Single, |state| state.seed = Some(step)),
                    2 => desk.change("dragging", Gesture::Drag, |state| state.text = step.to_string().into()),
                    3 => desk.gesture_over(),
                    _ => drop(desk.undo()),
                }
            }
            // Nothing is to be done again when what was done last was a change.
            desk.change("typing", Gesture::Single, |state| state.text = "end".into());
            let end = desk.state().clone();
            let mut count = 0;
            while desk.undo() {
                count += 1;
            }
            assert_eq!(desk.state(), &Desk::new("begin").state);
            for _ in 0..count {
                assert!(desk.redo());
            }
            assert_eq!(desk.state(), &end);
        }
    }
}
