//! The file: written when something changed here, looked at when somebody else changed it.

use std::sync::Arc;
use std::time::{Duration, Instant, SystemTime, UNIX_EPOCH};

use super::Session;
use crate::failure::Failure;
use crate::live::desk::Gesture;
use crate::live::message::FileState;
use crate::live::paper::Look;
use crate::live::text::merged;

/// A text that another program wrote in one go is taken after this rest, so that what follows at once is the same change.
const REST: Duration = Duration::from_millis(20);

/// A file that became shorter may be one that is still being written: programs empty a file, and then write it.
const SHORTER_REST: Duration = Duration::from_millis(800);

/// A text found in the file, and how long it has to stay there before it is taken.
#[derive(Debug)]
pub(super) struct Unsettled {
    found: Arc<str>,
    whole: bool,
    since: Instant,
    rest: Duration,
}

impl Unsettled {
    /// How much longer it has to stay as it is.
    pub(super) fn left(&self) -> Duration {
        self.rest.saturating_sub(self.since.elapsed())
    }
}

impl Session<'_> {
    /// Looks what became of the file; `whole` where another file was put in its place.
    pub(super) fn outside(&mut self, whole: bool) {
        let Some(paper) = &mut self.paper else { return };
        let found = match paper.look() {
            Look::Other(found) => found,
            other => {
                self.unsettled = None;
                self.outside_is(other);
                self.publish();
                return;
            }
        };
        let whole =
            whole || self.unsettled.as_ref().is_some_and(|before| before.whole && before.found == found);
        if self.theirs.as_ref() == Some(&found) {
            // It is asked about already.
            self.unsettled = None;
            return;
        }
        let rest = if whole || found.len() >= paper.known().len() { REST } else { SHORTER_REST };
        self.unsettled = Some(Unsettled { found, whole, since: Instant::now(), rest });
    }

    /// Takes the text found in the file, now that the rest is over, unless the file has changed again.
    pub(super) fn settle(&mut self) {
        let Some(Unsettled { found, whole, .. }) = self.unsettled.take() else { return };
        let Some(paper) = &mut self.paper else { return };
        if paper.look() != Look::Other(Arc::clone(&found)) {
            self.outside(false);
            return;
        }
        let known = paper.known();
        let shorter = !whole && found.len() < known.len();
        if shorter && (found.is_empty() || known.ends_with('\n') && !found.ends_with('\n')) {
            let left = if found.is_empty() { "empty" } else { "cut short" };
            self.ask(found, format!("another program left the file {left}"));
        } else {
            match merged(paper.base_of(&found), self.desk.text(), &found) {
                Some(text) => self.take_theirs(&found, text),
                None => {
                    let told = "another program changed lines of the file that were also changed here";
                    self.ask(found, told.to_owned());
                }
            }
        }
        self.publish();
    }

    fn outside_is(&mut self, look: Look) {
        let Some(paper) = &self.paper else { return };
        match look {
            Look::Same | Look::Other(_) => {
                // There is nothing to ask any more; what is not in it yet is written.
                self.theirs = None;
                self.stale.file = **paper.known() != **self.desk.text();
                if !self.stale.file {
                    self.shown.file = (FileState::Saved, "".into());
                }
            }
            Look::Gone => {
                // The text in question is not in the file any more.
                self.theirs = None;
                let told = format!(
                    "{} was moved, renamed or deleted; your next change writes it again",
                    paper.file().display()
                );
                self.shown.file = (FileState::Gone, told.into());
            }
            Look::Unreadable(why) => {
                self.theirs = None;
                let told = format!(
                    "not saved: {why}, and nothing is written over it. The text is kept here; move that file away, and your next change is written"
                );
                self.shown.file = (FileState::Unsaved, told.into());
                self.stale.file = false;
            }
        }
    }

    /// The file's text together with what was changed here.
    fn take_theirs(&mut self, theirs: &Arc<str>, text: String) {
        if let Some(paper) = &mut self.paper {
            paper.know(theirs);
        }
        self.theirs = None;
        self.shown.file = (FileState::Saved, "".into());
        let is_in_it = *text == **theirs;
        self.desk.change("a change of the file", Gesture::Single, |state| state.text = text.into());
        self.changed();
        self.stale.file = !is_in_it;
    }

    /// Which text is to be kept cannot be known.
    fn ask(&mut self, theirs: Arc<str>, told: String) {
        self.shown.file = (FileState::Asking, told.into());
        self.theirs = Some(theirs);
        self.stale.file = false;
    }

    pub(super) fn keep(&mut self, own: bool) {
        let (Some(theirs), Some(paper)) = (self.theirs.take(), &mut self.paper) else { return };
        paper.know(&theirs);
        self.shown.file = (FileState::Saved, "".into());
        if own {
            self.desk.pass("the file's text", &theirs);
        } else {
            self.desk.change("the file's text", Gesture::Single, |state| state.text = theirs);
        }
        self.changed();
        self.stale.file = own;
    }

    /// Writes the file, unless somebody else has changed it.
    pub(super) fn save(&mut self) {
        self.stale.file = false;
        if self.theirs.is_some() {
            return;
        }
        let Some(paper) = &mut self.paper else { return };
        match paper.look() {
            Look::Same | Look::Gone => {}
            Look::Other(_) => {
                self.stale.file = true;
                self.outside(false);
                return;
            }
            unreadable => {
                self.outside_is(unreadable);
                return;
            }
        }
        if **paper.known() == **self.desk.text() && paper.file().exists() {
            self.shown.file = (FileState::Saved, "".into());
            return;
        }
        self.shown.file = match paper.write(self.desk.text()) {
            Ok(true) => {
                let now = SystemTime::now().duration_since(UNIX_EPOCH);
                self.shown.saved = now.map_or(0, |now| now.as_millis() as u64);
                (FileState::Saved, "".into())
            }
            Ok(false) => {
                self.stale.file = true;
                self.outside(false);
                return;
            }
            Err(failure) => (FileState::Unsaved, why_unsaved(&failure).into()),
        };
    }
}

fn why_unsaved(failure: &Failure) -> String {
    format!("not saved: {failure}. The text is kept here, and your next change tries again")
}
